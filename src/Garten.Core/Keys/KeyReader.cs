using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Language;

namespace Garten.Core.Keys;

/// <summary>
/// Reads the statements of keys. What a person has set holds; a key to the taxa of a flora speaks in the words of that flora's glossary
/// where these are understood; everything else is read by the grammar of parts and qualities, and said in the flora's own characters where
/// they mean just the same.
/// </summary>
public sealed class KeyReader
{
    private readonly StatementReader _glossary;
    private readonly GrammarReader? _grammar;
    private readonly BotanyIndex? _botany;
    private readonly IReadOnlyList<Character> _own;
    private readonly HashSet<string> _glossaryIds;
    private readonly Dictionary<string, CorrectedStatement> _corrected;

    // Translations of composed characters into those of the flora: worked out when one is first read, among those that speak of its part.
    private readonly Dictionary<string, IReadOnlyList<Character>> _sources = new(StringComparer.Ordinal);
    private readonly Lazy<ILookup<string, Character>> _ofPart;

    /// <summary>Makes it.</summary>
    /// <param name="table">The flora's characters; with parts and qualities where statements are to be read by their grammar.</param>
    /// <param name="taught">Terms that a person has taught.</param>
    /// <param name="corrected">Readings that a person has set.</param>
    public KeyReader(CharacterTable table, IReadOnlyList<TaughtTerm>? taught = null, IReadOnlyList<CorrectedStatement>? corrected = null)
    {
        ArgumentNullException.ThrowIfNull(table);
        _botany = table.Botany;
        _grammar = table.Botany is { } botany ? GrammarReader.Of(botany, taught ?? []) : null;
        // Characters of parts and qualities are read by their grammar, and wordings of couplets by nobody.
        _own =
        [
            .. table.Characters.Where(c => !CharacterId.IsComposed(c.Id) && !c.Id.StartsWith(KeyFlora.Wording, StringComparison.Ordinal)),
        ];
        _glossaryIds = [.. _own.Select(c => c.Id)];
        _ofPart = new(() =>
            _own.SelectMany(c => PathsOf(c).Select(p => (Path: p, Character: c)))
                .ToLookup(x => x.Path, x => x.Character, StringComparer.Ordinal)
        );
        _glossary = new StatementReader(_own, taught, corrected, table.Botany);
        _corrected = (corrected ?? [])
            .GroupBy(c => c.Text, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.Last(), StringComparer.Ordinal);
    }

    /// <summary>What a key speaks of as a whole; read once and handed to <see cref="Read"/>.</summary>
    public TextContext? ContextOf(Key key)
    {
        ArgumentNullException.ThrowIfNull(key);
        return _grammar?.ContextOf(key.Couplets.SelectMany(c => c.Leads).SelectMany(l => l.Statements).Prepend(key.Title));
    }

    /// <summary>Reads the statements of a couplet, lead by lead.</summary>
    /// <param name="leads">Per lead its statements as typed.</param>
    /// <param name="isOwn">Whether they are of a key to taxa that the flora describes in its glossary's characters.</param>
    /// <param name="of">What the key speaks of as a whole.</param>
    /// <param name="proposes">Whether readings are looked for that would have to be chosen.</param>
    public IReadOnlyList<IReadOnlyList<StatementReading>> Read(
        IReadOnlyList<IReadOnlyList<string>> leads,
        bool isOwn,
        TextContext? of,
        bool proposes = false
    )
    {
        ArgumentNullException.ThrowIfNull(leads);
        if (_grammar is null)
            return [.. leads.Select(_glossary.Read)];
        var read = Contrasted([.. leads.Select(l => _grammar.Read(l, of, proposes))]);
        return [.. leads.Select((statements, l) => Said(statements, read[l], isOwn ? _glossary.Read(statements) : null))];
    }

    // What a person has set, else what the glossary understands, else what the grammar reads, in the flora's own characters.
    private StatementReading[] Said(
        IReadOnlyList<string> statements,
        IReadOnlyList<StatementReading> read,
        IReadOnlyList<StatementReading>? byGlossary
    )
    {
        var readings = new StatementReading[statements.Count];
        for (var i = 0; i < readings.Length; i++)
        {
            readings[i] =
                Corrected(statements[i]) is { } set ? set with { Clauses = read[i].Clauses }
                : byGlossary?[i] is { Claims.Count: > 0 } glossary ? glossary with { Clauses = read[i].Clauses }
                : read[i] with { Claims = [.. read[i].Claims.Select(Translated)] };
        }
        return readings;
    }

    /// <summary>Whether a character is one of the flora's glossary, and not made of part and quality or of the wordings of a
    /// couplet.</summary>
    public bool IsOfGlossary(string character) => _glossaryIds.Contains(character);

    // What only the other lead can decide: "smooth" beside "hairy" may mean hairless, and is proposed then.
    private static IReadOnlyList<IReadOnlyList<StatementReading>> Contrasted(IReadOnlyList<IReadOnlyList<StatementReading>> leads)
    {
        var hairy = leads
            .SelectMany(l => l)
            .SelectMany(r => r.Claims)
            .Select(c => CharacterId.Read(c.Character))
            .OfType<CharacterId>()
            .Where(id => id.Quality.StartsWith("hair-", StringComparison.Ordinal))
            .Select(id => id.Path)
            .ToHashSet(StringComparer.Ordinal);
        if (hairy.Count == 0)
            return leads;
        return
        [
            .. leads.Select(lead =>
                (IReadOnlyList<StatementReading>)[.. lead.Select(r => r.Clauses is null ? r : WithoutSmooth(r, hairy))]
            ),
        ];
    }

    private const string Smooth = "smooth";
    private const string Surface = "surface";

    private static StatementReading WithoutSmooth(StatementReading reading, HashSet<string> hairy)
    {
        bool IsSmooth(StatementClaim claim) =>
            claim.States is [Smooth] && CharacterId.Read(claim.Character) is { Quality: Surface } id && hairy.Contains(id.Path);
        var smooth = reading.Claims.Where(IsSmooth).ToList();
        if (smooth.Count == 0)
            return reading;
        var hairless = smooth.ConvertAll(c =>
            c with
            {
                Character = (CharacterId.Read(c.Character)!.Value with { Quality = "hair-density" }).ToString(),
                States = ["glabrous"],
            }
        );
        return reading with
        {
            Claims = [.. reading.Claims.Where(c => !IsSmooth(c))],
            Clauses =
            [
                .. reading.Clauses!.Select(c =>
                    reading.Text.AsSpan(c.At, c.Length).Contains(Smooth, StringComparison.OrdinalIgnoreCase)
                        ? c with
                        {
                            Kind = ClauseKind.Proposed,
                            Proposals = [hairless, smooth],
                        }
                        : c
                ),
            ],
        };
    }

    private StatementReading? Corrected(string statement) =>
        _corrected.TryGetValue(statement, out var set) ? new(statement, [.. set.Claims.Where(IsKnown)], [], true) : null;

    /// <summary>Reads the statements of a lead by the words of the flora's glossary alone.</summary>
    public IReadOnlyList<StatementReading> ReadByGlossary(IReadOnlyList<string> statements) => _glossary.Read(statements);

    /// <summary>What a word is to the grammar already, in words; empty where it isn't known.</summary>
    public string WhatIs(string word) => _grammar?.WhatIs(word) ?? "";

    /// <summary>Words of clauses that stay text which aren't known, with the number of clauses in which each alone isn't.</summary>
    public IReadOnlyDictionary<string, int> UnknownWords(IEnumerable<StatementReading> readings)
    {
        ArgumentNullException.ThrowIfNull(readings);
        var found = new Dictionary<string, int>(StringComparer.Ordinal);
        if (_grammar is null)
            return found;
        foreach (var reading in readings)
        {
            foreach (var clause in reading.Clauses ?? [])
            {
                if (clause.Kind == ClauseKind.Taken)
                    continue;
                if (_grammar.UnknownWords(reading.Text.Substring(clause.At, clause.Length)) is [var only])
                    found[only] = found.GetValueOrDefault(only) + 1;
            }
        }
        return found;
    }

    // The vocabulary may have changed since: what it no longer has is no claim.
    private bool IsKnown(StatementClaim claim) =>
        Find(claim.Character) is { } character && claim.States.All(s => character.IndexOf(s) >= 0);

    private Character? Find(string id) => _own.FirstOrDefault(c => c.Id == id) ?? _botany?.Compose(id);

    /// <summary>A claim in the character of the flora that says just the same; the claim itself where none does.</summary>
    public StatementClaim Translated(StatementClaim claim)
    {
        ArgumentNullException.ThrowIfNull(claim);
        // Keys say the same few things again and again.
        var said = (claim.Character, string.Join('|', claim.Denied ?? claim.States), claim.Denied is not null);
        if (!_translated.TryGetValue(said, out var own))
            _translated[said] = own = TranslatedAnew(claim);
        return own.Character == claim.Character
            ? claim
            : claim with
            {
                Character = own.Character,
                States = own.States,
                Denied = own.Denied,
            };
    }

    private readonly Dictionary<(string Character, string States, bool IsDenied), StatementClaim> _translated = [];

    private StatementClaim TranslatedAnew(StatementClaim claim)
    {
        if (_botany is null || _botany.Compose(claim.Character) is not { } composed)
            return claim;
        foreach (var own in Sources(composed))
        {
            if (composed.IsQuantity)
                return claim with { Character = own.Id };
            var table = _botany.Bearing.Table(own, composed)!;
            var meant = (claim.Denied ?? claim.States).Select(composed.IndexOf).Where(s => s >= 0).ToList();
            var says = Enumerable.Range(0, own.States.Count).ToLookup(s => OneOf(table, s, meant));
            if (says[Bears.Open].Any() || !says[Bears.Entails].Any() || !says[Bears.Excludes].Any())
                continue;
            List<string> Ids(Bears which) => [.. says[which].Select(s => own.States[s].Id)];
            return claim.Denied is null
                ? claim with
                {
                    Character = own.Id,
                    States = Ids(Bears.Entails),
                }
                : claim with
                {
                    Character = own.Id,
                    States = Ids(Bears.Excludes),
                    Denied = Ids(Bears.Entails),
                };
        }
        return claim;
    }

    // Whether a state of the one character says that one of several of the other one holds, or that none does.
    private static Bears OneOf(Bears[,] table, int state, List<int> meant) =>
        meant.Exists(m => table[state, m] == Bears.Entails) ? Bears.Entails
        : meant.TrueForAll(m => table[state, m] == Bears.Excludes) ? Bears.Excludes
        : Bears.Open;

    // The parts that a character of the flora says something of.
    private IEnumerable<string> PathsOf(Character character) =>
        (character.IsQuantity ? [""] : character.States.Select(s => s.Id))
            .SelectMany(s => _botany!.Bearing.Sayings(character.Id, s))
            .Select(s => s.Character.Path)
            .Distinct(StringComparer.Ordinal);

    private IReadOnlyList<Character> Sources(Character composed)
    {
        if (_sources.TryGetValue(composed.Id, out var known))
            return known;
        var path = CharacterId.Read(composed.Id)?.Path ?? "";
        return _sources[composed.Id] = [
            .. _ofPart
                .Value[path]
                .Where(c =>
                    c.Kind == composed.Kind && c.IsQuantity
                        ? _botany!.Bearing.IsSameMeasure(c.Id, composed.Id)
                        : !c.IsQuantity && !composed.IsQuantity && _botany!.Bearing.Table(c, composed) is not null
                ),
        ];
    }
}
