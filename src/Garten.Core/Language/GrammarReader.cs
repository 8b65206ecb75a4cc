using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Garten.Core.Botany;

namespace Garten.Core.Language;

/// <summary>What a text speaks of as a whole.</summary>
/// <param name="Groups">Groups of plants that it names parts of.</param>
/// <param name="IsOfLeaves">Whether it speaks of leaves, and of no fronds.</param>
/// <param name="IsOfFronds">Whether it speaks of fronds more than of leaves.</param>
public sealed record TextContext(IReadOnlySet<string> Groups, bool IsOfLeaves, bool IsOfFronds = false);

/// <summary>
/// Reads statements of keys and descriptions by the words of a vocabulary: every clause in all ways that its constructions allow. What can
/// be read in one way alone is taken; several ways, or one that passes over words, are proposals; the rest stays text. It never changes and
/// may be shared.
/// </summary>
public sealed partial class GrammarReader
{
    /// <summary>No statement offers more proposals.</summary>
    public const int MostProposals = 3;

    // Longer ones aren't statements of a key.
    private const int MostTokens = 120;

    private readonly Lexicon _lexicon;
    private readonly ClaimMaker _claims;
    private readonly HashSet<string> _shared;
    private readonly Dictionary<string, string> _evidence;
    private readonly Part? _leaf;

    private static readonly ConditionalWeakTable<BotanyIndex, GrammarReader> Made = [];

    /// <summary>The reader of a vocabulary: made once, but with what persons have taught anew.</summary>
    /// <param name="botany">The vocabulary.</param>
    /// <param name="taught">Terms that persons have taught; those of characters that aren't made of part and quality are passed
    /// over.</param>
    public static GrammarReader Of(BotanyIndex botany, IReadOnlyList<TaughtTerm> taught)
    {
        ArgumentNullException.ThrowIfNull(botany);
        ArgumentNullException.ThrowIfNull(taught);
        var plain = Made.GetValue(botany, static b => new GrammarReader(b));
        return taught.Any(t => CharacterId.IsComposed(t.Character)) ? new GrammarReader(plain, taught) : plain;
    }

    /// <summary>Makes it.</summary>
    /// <param name="botany">The vocabulary.</param>
    public GrammarReader(BotanyIndex botany)
    {
        ArgumentNullException.ThrowIfNull(botany);
        _lexicon = new Lexicon(botany);
        _claims = new ClaimMaker(_lexicon);
        _leaf = botany.Part("leaf");
        _evidence = (botany.Vocabulary.Words ?? [])
            .Where(w => w.Kind == "evidence")
            .DistinctBy(w => w.Text)
            .ToDictionary(w => w.Text, w => w.Value, StringComparer.Ordinal);
        _shared = [.. (botany.Vocabulary.Words ?? []).Where(w => w.Kind == "grouped").Select(w => w.Text)];
    }

    private GrammarReader(GrammarReader of, IReadOnlyList<TaughtTerm> taught)
    {
        (_leaf, _evidence, _shared) = (of._leaf, of._evidence, of._shared);
        _lexicon = of._lexicon.With(taught);
        _claims = new ClaimMaker(_lexicon);
    }

    /// <summary>What a whole text speaks of: the key that a lead is from, or a description.</summary>
    public TextContext ContextOf(IEnumerable<string> statements)
    {
        ArgumentNullException.ThrowIfNull(statements);
        return ContextOfParts(statements.SelectMany(s => PartsOf(new Tokens(s))));
    }

    private TextContext ContextOfParts(IEnumerable<Part> parts)
    {
        var groups = new HashSet<string>(StringComparer.Ordinal);
        var (leaves, fronds) = (0, 0);
        foreach (var part in parts)
        {
            if (part.Groups.Count > 0 && !_shared.Contains(part.Id))
                groups.UnionWith(part.Groups);
            if (_evidence.TryGetValue(part.Id, out var of))
                groups.Add(of);
            if (part.Id != Blade && (part.Id == Leaf || _lexicon.Botany.Wholes(part).Any(w => w.Id == Leaf)))
                leaves++;
            else if (part.Id == Frond)
                fronds++;
        }
        return new(groups, leaves > 0 && fronds == 0, fronds > 0 && leaves <= fronds);
    }

    private bool SpeaksOfHairs(StatementReading reading, Tokens text) =>
        reading.Claims.Any(c => c.Character.Contains(".hair-", StringComparison.Ordinal)) || PartsOf(text).Any(p => p.Id == "hair");

    private static readonly IReadOnlySet<string> NoGroups = new HashSet<string>(StringComparer.Ordinal);

    private const string Leaf = "leaf";
    private const string Frond = "frond";
    private const string Blade = "blade";

    private IEnumerable<Part> PartsOf(Tokens tokens)
    {
        for (var i = 0; i < tokens.List.Count; )
        {
            var entries = _lexicon.At(tokens, i, tokens.List.Count);
            foreach (var entry in entries)
            {
                if (entry is { Kind: WordKind.Part, Part: { } part })
                    yield return part;
            }
            i += entries.Length == 0 ? 1 : entries[0].Words.Length;
        }
    }

    /// <summary>What a word or phrase is already, in words: the part that it names, the states that it means; empty where it isn't
    /// known.</summary>
    public string WhatIs(string phrase)
    {
        ArgumentNullException.ThrowIfNull(phrase);
        var tokens = new Tokens(phrase);
        if (tokens.List.Count == 0)
            return "";
        var entries = _lexicon.At(tokens, 0, tokens.List.Count).Where(e => e.Words.Length == tokens.List.Count).ToList();
        return string.Join(
            "; ",
            entries
                .Select(e =>
                    e.Kind == WordKind.State
                        ? string.Join(" or ", e.Senses.Select(s => $"{s.Quality.Name}: {s.Quality.Find(s.State)?.Name ?? s.State}"))
                    : e is { Kind: WordKind.Part, Part: { } part } ? $"a part: {part.Name}"
                    : ""
                )
                .Where(t => t.Length > 0)
        );
    }

    /// <summary>The words of a text that aren't known, each once.</summary>
    public IReadOnlyList<string> UnknownWords(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var tokens = new Tokens(text);
        var unknown = new List<string>();
        for (var i = 0; i < tokens.List.Count; )
        {
            var entries = _lexicon.At(tokens, i, tokens.List.Count);
            if (tokens.Number(i) is { Ranges.Count: > 0 } number)
                i = Math.Max(i + 1, tokens.IndexAt(number.End));
            else if (entries.Length > 0)
                i += entries[0].Words.Length;
            else
            {
                if (tokens.List[i].Kind == TokenKind.Word && !unknown.Contains(tokens.List[i].Text))
                    unknown.Add(tokens.List[i].Text);
                i++;
            }
        }
        return unknown;
    }

    /// <summary>Reads the statements of one lead in their order: a later one may speak of the part that an earlier one has named.</summary>
    /// <param name="statements">The statements as typed.</param>
    /// <param name="of">What the whole text speaks of, see <see cref="ContextOf"/>; null: that isn't known.</param>
    /// <param name="proposes">Whether readings are looked for that would have to be chosen.</param>
    public IReadOnlyList<StatementReading> Read(IReadOnlyList<string> statements, TextContext? of = null, bool proposes = true)
    {
        ArgumentNullException.ThrowIfNull(statements);
        bool IsOfGroup(Part part) => of is null || !_shared.Contains(part.Id) || part.Groups.Any(of.Groups.Contains);
        var texts = statements.Select(s => new Tokens(s)).ToList();
        var parts = texts.SelectMany(PartsOf).ToList();
        // Where a lead speaks of leaves alone, a margin or an underside is a leaf's.
        var ofLeaves =
            of is { IsOfLeaves: true }
            && _leaf is not null
            && parts.TrueForAll(p =>
                p.IsOwned || p.Id == Leaf || _lexicon.Botany.Wholes(p).Any(w => w.Id is Leaf or "vein") || p.Owners.Contains(Leaf)
            );
        var readings = new List<StatementReading>(statements.Count);
        var subjects = new Subjects(null, null, ofLeaves ? new(_leaf!, null) : null, false, ContextOfParts(parts).Groups);
        foreach (var text in texts)
        {
            var statement = new Statement(this, text, subjects, IsOfGroup, of, proposes);
            readings.Add(statement.Read());
            subjects = statement.Subjects with { HasHairs = subjects.HasHairs || SpeaksOfHairs(readings[^1], text) };
        }
        return readings;
    }

    /// <summary>What the statements of a lead have been about so far.</summary>
    /// <param name="First">The part that the lead began with; null where it isn't known.</param>
    /// <param name="Last">The part of the last statement; null where it isn't known.</param>
    /// <param name="Otherwise">The part that has what names no owner; null where there is none.</param>
    /// <param name="HasHairs">Whether it has spoken of hairs.</param>
    /// <param name="OfLead">Groups of plants that it names parts of.</param>
    private readonly record struct Subjects(
        PartPlace? First,
        PartPlace? Last,
        PartPlace? Otherwise,
        bool HasHairs,
        IReadOnlySet<string> OfLead
    );
}
