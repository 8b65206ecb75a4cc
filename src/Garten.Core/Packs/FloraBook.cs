using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;

namespace Garten.Core.Packs;

/// <summary>What separates a taxon from one that it is mistaken for.</summary>
/// <param name="Taxon">The other taxon.</param>
/// <param name="Character">Id of the character that counts: of those that separate the two, the one that is seen with the least effort;
/// empty where none does.</param>
/// <param name="Own">What this taxon is like in it.</param>
/// <param name="Other">What the other one is like.</param>
/// <param name="Separation">How well it separates, 0 to 1.</param>
/// <param name="CanBeSeen">Whether it can be seen on the day asked for.</param>
public sealed record LookAlike(Taxon Taxon, string Character, string Own, string Other, double Separation, bool CanBeSeen);

/// <summary>Where a taxon stands in a key.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="Title">Title of the key.</param>
/// <param name="Couplet">The couplet at which it ends.</param>
/// <param name="Lead">The lead, from 0.</param>
public sealed record KeyMention(string KeyVersion, string Title, string Couplet, int Lead);

/// <summary>A state by which a taxon can be known, with how few others have it.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Text">What it is like.</param>
/// <param name="Others">How many other taxa of the flora may show the same.</param>
public sealed record KeyMark(string Character, string Text, int Others);

/// <summary>Everything that is known of a taxon, made ready to be read.</summary>
/// <param name="Taxon">The taxon.</param>
/// <param name="Line">The taxa above it, the nearest first.</param>
/// <param name="Below">The taxa below it: species of a genus, forms of a species.</param>
/// <param name="Description">What it is like, with what its genus says.</param>
/// <param name="Prose">The same in the style of floras.</param>
/// <param name="KeyMarks">What to know it by: the rarest of what it always has.</param>
/// <param name="LookAlikes">The taxa that it is mistaken for, with the difference that counts for each.</param>
/// <param name="Related">Parents of a hybrid, members of an aggregate, hybrids and aggregates that it belongs to.</param>
/// <param name="Namesakes">Other taxa with one of its common names.</param>
/// <param name="Keys">Where it stands in keys.</param>
/// <param name="Cells">All grid cells of the flora, for the map.</param>
public sealed record TaxonPage(
    Taxon Taxon,
    IReadOnlyList<Taxon> Line,
    IReadOnlyList<Taxon> Below,
    IReadOnlyList<CharacterDescription> Description,
    IReadOnlyList<ProsePart> Prose,
    IReadOnlyList<KeyMark> KeyMarks,
    IReadOnlyList<LookAlike> LookAlikes,
    IReadOnlyList<Taxon> Related,
    IReadOnlyList<Taxon> Namesakes,
    IReadOnlyList<KeyMention> Keys,
    IReadOnlyList<string> Cells
)
{
    /// <summary>Its year: each phenophase with its days.</summary>
    public IReadOnlyList<YearSpan> Year => YearSpan.Of(Taxon);
}

/// <summary>A term of the glossary with the taxa that show it.</summary>
/// <param name="State">Id of the state.</param>
/// <param name="Taxa">The taxa that have it, at least often.</param>
public sealed record StateTaxa(string State, IReadOnlyList<Taxon> Taxa);

/// <summary>A flora made ready for reading: taxon pages, search, and which taxa show which state.</summary>
public sealed class FloraBook
{
    // What a taxon has on nine plants of ten can be its mark.
    private const double Regular = 0.9;

    private const int MostMarks = 4;

    private readonly Dictionary<string, Taxon> _byId;
    private readonly Dictionary<string, TaxonDescription> _described;
    private readonly Likelihood _likelihood;
    private readonly CharacterTable _table;

    // The weigher works out distributions when they are first asked for: pages asked for at once take turns.
    private readonly Lock _gate = new();

    /// <summary>Makes it of a flora.</summary>
    public FloraBook(Flora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        Flora = flora;
        _table = flora.Table ?? CharacterTable.Empty;
        _byId = flora.Taxa.ToDictionary(t => t.Id, StringComparer.Ordinal);
        var complete = CharacterTable.Complete(_table.Descriptions, flora.Taxa);
        _likelihood = new Likelihood(complete);
        _described = complete.ToDictionary(d => d.Taxon, StringComparer.Ordinal);
        foreach (var written in _table.Descriptions)
            _described.TryAdd(written.Taxon, written);
    }

    /// <summary>The flora.</summary>
    public Flora Flora { get; }

    /// <summary>The grid cells in which any of its taxa is recorded, in their order.</summary>
    public IReadOnlyList<string> Cells =>
        [.. Flora.Taxa.SelectMany(t => t.Facts?.Cells ?? []).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];

    /// <summary>What a taxon is like; empty where it isn't described.</summary>
    public IReadOnlyList<CharacterDescription> Description(string taxon) => _described.GetValueOrDefault(taxon)?.Characters ?? [];

    /// <summary>Which taxa show which state of a character.</summary>
    public IReadOnlyList<StateTaxa> Showing(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        return
        [
            .. character.States.Select(s => new StateTaxa(
                s.Id,
                [
                    .. Flora.Taxa.Where(t =>
                        Cell(t.Id, character.Id) is { } cell
                        && cell.States.Any(x => character.IsKindOf(x.State, s.Id) && x.Share >= Modality.Sometimes)
                    ),
                ]
            )),
        ];
    }

    /// <summary>The page of a taxon; null where the flora hasn't it.</summary>
    /// <param name="id">The taxon.</param>
    /// <param name="keys">The keys to look it up in.</param>
    /// <param name="day">The day, for what can be seen.</param>
    public TaxonPage? Page(string id, KeyShelf keys, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(keys);
        if (!_byId.TryGetValue(id, out var taxon))
            return null;
        lock (_gate)
            return PageOf(taxon, keys, day);
    }

    private TaxonPage PageOf(Taxon taxon, KeyShelf keys, DateOnly day)
    {
        var id = taxon.Id;
        var facts = taxon.Facts ?? TaxonFacts.None;
        var line = new List<Taxon>();
        for (var at = _byId.GetValueOrDefault(taxon.Parent); at is not null && line.Count < 10; at = _byId.GetValueOrDefault(at.Parent))
            line.Add(at);
        var description = Description(id);
        var related = facts
            .Parents.Concat(facts.Members)
            .Select(_byId.GetValueOrDefault)
            .OfType<Taxon>()
            .Concat(Flora.Taxa.Where(t => t.Facts is { } f && (f.Parents.Contains(id) || f.Members.Contains(id))));
        var names = facts.CommonNames.Select(n => n.ToLowerInvariant()).ToHashSet(StringComparer.Ordinal);
        return new TaxonPage(
            taxon,
            line,
            [.. Flora.Taxa.Where(t => t.Parent == id)],
            description,
            FloraProse.Write(description, _table.Characters),
            Marks(id, description),
            [.. facts.LookAlikes.Where(o => o != id).Select(_byId.GetValueOrDefault).OfType<Taxon>().Select(o => Difference(id, o, day))],
            [.. related.DistinctBy(t => t.Id)],
            [.. Flora.Taxa.Where(t => t.Id != id && (t.Facts?.CommonNames ?? []).Any(n => names.Contains(n.ToLowerInvariant())))],
            [.. Mentions(taxon.Name, keys)],
            Cells
        );
    }

    private CharacterDescription? Cell(string taxon, string character) => Description(taxon).FirstOrDefault(c => c.Character == character);

    private LookAlike Difference(string id, Taxon other, DateOnly day)
    {
        // Where it grows is no difference of the plant.
        var best = _table
            .Characters.Where(c => c.Organ != Organ.Site)
            .Select(c =>
                (
                    Character: c,
                    Separation: Identification.Separation.Of(c, Cell(id, c.Id), Cell(other.Id, c.Id), _likelihood),
                    CanBeSeen: c.CanBeSeen(day, _table.Seasons)
                )
            )
            .Where(c => c.Separation > 0)
            .OrderBy(c => Contrast.Rank(c.Character, c.Separation, c.CanBeSeen))
            .ThenBy(c => c.Character.Id, StringComparer.Ordinal)
            .ToList();
        if (best.Count == 0)
            return new LookAlike(other, "", "", "", 0, false);
        var (character, separation, seen) = best[0];
        return new LookAlike(
            other,
            character.Id,
            FloraProse.Value(Cell(id, character.Id), character),
            FloraProse.Value(Cell(other.Id, character.Id), character),
            separation,
            seen
        );
    }

    // Of the states that nearly all plants of the taxon have, those that the fewest other taxa show.
    private List<KeyMark> Marks(string id, IReadOnlyList<CharacterDescription> description)
    {
        var marks = new List<KeyMark>();
        foreach (var cell in description.Where(c => c.Applies && c.States.Any(s => s.Share >= Regular)))
        {
            if (_table.Find(cell.Character) is not { } character)
                continue;
            var state = cell.States.First(s => s.Share >= Regular).State;
            var others = _likelihood
                .Described(character.Id)
                .Count(d => d.Key != id && d.Value.States.Any(s => character.MayBe(s.State, state) && s.Share >= Modality.Rarely));
            var having = _likelihood.Described(character.Id).Count;
            // A state that most have marks nobody.
            if (having > 2 && others < having / 3)
                marks.Add(new KeyMark(character.Id, $"{character.Name}: {FloraProse.Value(cell, character)}", others));
        }
        return
        [
            .. marks
                .OrderBy(m => m.Others)
                .ThenBy(m => _table.Find(m.Character)!.EffortSeconds)
                .ThenBy(m => m.Character, StringComparer.Ordinal)
                .Take(MostMarks),
        ];
    }

    private static IEnumerable<KeyMention> Mentions(string name, KeyShelf keys)
    {
        foreach (var version in keys.Versions)
        {
            foreach (var couplet in version.Key.Couplets)
            {
                for (var l = 0; l < couplet.Leads.Count; l++)
                {
                    if (
                        couplet.Leads[l].Destination is { Kind: DestinationKind.Taxon } to
                        && (to.Target == name || to.Taxa.Any(t => t.Name == name))
                    )
                        yield return new KeyMention(version.Hash, version.Key.Title, couplet.Label, l);
                }
            }
        }
    }
}
