using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Language;

namespace Garten.Core.Keys;

/// <summary>What a description says of a taxon where a key speaks of it.</summary>
/// <param name="Taxon">The taxon's name as it was asked for.</param>
/// <param name="InWords">The description in words; empty where the flora says nothing of it.</param>
/// <param name="Contradicts">Whether it and the key can't both be right.</param>
public sealed record PartingVoice(string Taxon, string InWords, bool Contradicts);

/// <summary>A claim of a lead that parts taxa.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="InWords">The claim in words.</param>
/// <param name="Described">What the descriptions say of the taxa behind the lead.</param>
/// <param name="Seen">What was seen of it on the plant in hand, in words; empty where nothing was.</param>
/// <param name="SeenFits">Whether that fits the claim; null where nothing was seen, or neither can be said.</param>
public sealed record PartingClaim(string Character, string InWords, IReadOnlyList<PartingVoice> Described, string Seen, bool? SeenFits);

/// <summary>A lead behind which some of the taxa are.</summary>
/// <param name="Number">Its place among the leads of the couplet, from 1.</param>
/// <param name="Text">Its wording.</param>
/// <param name="Taxa">The taxa behind it, by the names asked for.</param>
/// <param name="Claims">What is weighed of its wording.</param>
public sealed record PartingLead(int Number, string Text, IReadOnlyList<string> Taxa, IReadOnlyList<PartingClaim> Claims);

/// <summary>A couplet that parts some of the taxa.</summary>
/// <param name="Hash">Hash of the key's version.</param>
/// <param name="Title">The key's title.</param>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Leads">Those of its leads that have any of the taxa behind them.</param>
public sealed record PartingCouplet(string Hash, string Title, string Couplet, IReadOnlyList<PartingLead> Leads);

/// <summary>Two sources that can't both be right about a taxon.</summary>
/// <param name="Taxon">The taxon's name as it was asked for.</param>
/// <param name="Character">The character in words.</param>
/// <param name="First">Title of the key that says the one.</param>
/// <param name="FirstSays">What it says.</param>
/// <param name="Second">Title of the key that says the other; empty: the description.</param>
/// <param name="SecondSays">What that says.</param>
public sealed record PartingContradiction(string Taxon, string Character, string First, string FirstSays, string Second, string SecondSays);

/// <summary>Where the keys of a shelf part some taxa, beside what the descriptions say and what was seen.</summary>
/// <param name="Couplets">The couplets, key by key, in the order of the key.</param>
/// <param name="Contradictions">What can't be right together.</param>
/// <param name="Unparted">Titles of keys that lead to several of the taxa and part none of them.</param>
public sealed record KeyParting(
    IReadOnlyList<PartingCouplet> Couplets,
    IReadOnlyList<PartingContradiction> Contradictions,
    IReadOnlyList<string> Unparted
)
{
    // What a description gives a smaller share to counts as not said.
    private const double LeastShare = 0.05;

    /// <summary>Looks through the newest version of every key.</summary>
    /// <param name="shelf">Keys and flora.</param>
    /// <param name="names">Two or more names.</param>
    /// <param name="sheet">Looks at the plant in hand; superseded ones are passed over.</param>
    public static KeyParting Of(BenchShelf shelf, IReadOnlyList<string> names, IReadOnlyList<Observation> sheet)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        ArgumentNullException.ThrowIfNull(names);
        ArgumentNullException.ThrowIfNull(sheet);
        var reader = new Reader(shelf, names, sheet);
        var couplets = new List<PartingCouplet>();
        var unparted = new List<string>();
        // Keys hand over to one another: a couplet is shown once, as one of its own key.
        var shown = new HashSet<KeyPlace>();
        var keys = shelf.Keys.Versions.DistinctBy(v => KeyTitle.Plain(v.Key.Title)).ToList();
        var spoken = new List<(KeyVersion Key, Dictionary<string, TaxonDescription> Says)>();
        foreach (var version in keys.Where(v => v.Key.Couplets.Count > 0))
        {
            var map = shelf.Map(version.Hash, new HashSet<string>(StringComparer.Ordinal));
            var ends = reader.Asked(map, map.Behind(map.Start));
            if (ends.Count == 0)
                continue;
            spoken.Add((version, reader.Says(version, ends)));
            if (ends.Values.Distinct(StringComparer.Ordinal).Count() < 2)
                continue;
            var parts = false;
            foreach (var place in map.InOrder)
            {
                if (reader.Leads(map, place) is not { } leads)
                    continue;
                parts = true;
                if (place.Version == version.Hash && shown.Add(place))
                    couplets.Add(new(version.Hash, version.Key.Title, place.Couplet, leads));
            }
            if (!parts)
                unparted.Add(version.Key.Title);
        }
        return new(couplets, reader.Contradictions(spoken), unparted);
    }

    private sealed class Reader(BenchShelf shelf, IReadOnlyList<string> names, IReadOnlyList<Observation> sheet)
    {
        private readonly Dictionary<string, string> _names = names
            .DistinctBy(n => IdOf(shelf, n))
            .ToDictionary(n => IdOf(shelf, n), n => n, StringComparer.Ordinal);

        private readonly Dictionary<string, EvidenceItem> _seen = EvidenceItem
            .Pool(EvidenceSheet.Holding(sheet), shelf.Table, EvidenceOptions.Default)
            .GroupBy(i => i.Character.Id, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.First(), StringComparer.Ordinal);

        private static string IdOf(BenchShelf shelf, string name) => shelf.Keys.Recognise(name)?.Id ?? name.Trim().ToLowerInvariant();

        // Of the ends those that were asked for: the key's name, and the name asked for.
        public Dictionary<string, string> Asked(KeyMap map, IEnumerable<string> ends)
        {
            var found = new Dictionary<string, string>(StringComparer.Ordinal);
            foreach (var end in ends)
            {
                if (_names.TryGetValue(map.Ids.GetValueOrDefault(end) ?? end.Trim().ToLowerInvariant(), out var asked))
                    found[end] = asked;
            }
            return found;
        }

        // The leads of a couplet that parts any two of the taxa; null where it parts none.
        public List<PartingLead>? Leads(KeyMap map, KeyPlace place)
        {
            var behind = map.Steps(place).Select(s => Asked(map, map.Behind(s)).Values.ToHashSet(StringComparer.Ordinal)).ToList();
            var all = behind.SelectMany(b => b).Distinct(StringComparer.Ordinal).ToList();
            string Sides(string taxon) => string.Join(',', behind.Select(b => b.Contains(taxon) ? "1" : "0"));
            if (all.Select(Sides).Distinct(StringComparer.Ordinal).Count() < 2)
                return null;
            var version = shelf.Keys.Find(place.Version)!;
            var readings = shelf.Readings(version, place.Couplet);
            var leads = version.Find(place.Couplet)!.Leads;
            return
            [
                .. Enumerable
                    .Range(0, leads.Count)
                    .Where(l => behind[l].Count > 0)
                    .Select(l =>
                    {
                        List<string> taxa = [.. names.Where(behind[l].Contains)];
                        return new PartingLead(
                            l + 1,
                            string.Join("; ", leads[l].Statements),
                            taxa,
                            [.. readings[l].SelectMany(r => r.Claims).Where(c => c.IsOfUsualAge).Select(c => Claim(c, taxa))]
                        );
                    }),
            ];
        }

        private PartingClaim Claim(StatementClaim claim, List<string> taxa)
        {
            var character = shelf.Table.Find(claim.Character);
            var said = character is null ? null : Cell(claim);
            List<PartingVoice> voices = [];
            foreach (var taxon in taxa)
            {
                var cell = Described(taxon, claim.Character);
                voices.Add(
                    new(
                        taxon,
                        character is null || cell is null ? "" : FloraProse.Value(cell, character),
                        character is not null && cell is not null && Excludes(character, said!, cell)
                    )
                );
            }
            var seen = _seen.GetValueOrDefault(claim.Character);
            return new(
                claim.Character,
                ClaimWords.Of(claim, character),
                voices,
                seen?.InWords() ?? "",
                seen is null || character is null ? null : Fits(character, claim, seen)
            );
        }

        // Whether what was seen fits a claim; of states that may be either nobody can say.
        private static bool? Fits(Character character, StatementClaim claim, EvidenceItem seen)
        {
            if (claim.Range is { } range)
            {
                return seen.Sample is not { } sample ? null : range.Cut() is var (from, to) && sample.Mean >= from && sample.Mean <= to;
            }
            var fits = seen.States.Select(s => claim.States.Any(c => character.IsKindOf(character.States[s].Id, c))).Distinct().ToList();
            return fits.Count == 1 ? fits[0] : null;
        }

        private CharacterDescription? Described(string name, string character) =>
            shelf.Keys.Recognise(name)?.Id is { } id ? shelf.Likelihood.Described(character).GetValueOrDefault(id) : null;

        private static CharacterDescription Cell(StatementClaim claim) =>
            new(claim.Character, [.. claim.States.Select(s => new StateShare(s, 1d / claim.States.Count))], claim.Range);

        // What a key says of its ends on every way to them, by the names asked for.
        public Dictionary<string, TaxonDescription> Says(KeyVersion version, Dictionary<string, string> ends)
        {
            var all = shelf.OnEveryWay(version.Hash);
            var found = new Dictionary<string, TaxonDescription>(StringComparer.Ordinal);
            foreach (var (end, asked) in ends)
            {
                if (all.TryGetValue(end, out var says))
                    found.TryAdd(asked, says);
            }
            return found;
        }

        public List<PartingContradiction> Contradictions(List<(KeyVersion Key, Dictionary<string, TaxonDescription> Says)> keys)
        {
            List<PartingContradiction> found = [];
            foreach (var name in names)
            {
                for (var k = 0; k < keys.Count; k++)
                {
                    foreach (var cell in keys[k].Says.GetValueOrDefault(name)?.Characters ?? [])
                    {
                        if (shelf.Table.Find(cell.Character) is not { } character)
                            continue;
                        void Against(string title, CharacterDescription? other)
                        {
                            if (other is not null && Excludes(character, cell, other))
                                found.Add(
                                    new(
                                        name,
                                        character.Name,
                                        keys[k].Key.Key.Title,
                                        FloraProse.Value(cell, character),
                                        title,
                                        FloraProse.Value(other, character)
                                    )
                                );
                        }
                        Against("", Described(name, cell.Character));
                        for (var o = k + 1; o < keys.Count; o++)
                            Against(
                                keys[o].Key.Key.Title,
                                keys[o].Says.GetValueOrDefault(name)?.Characters.FirstOrDefault(c => c.Character == cell.Character)
                            );
                    }
                }
            }
            return found;
        }

        // Whether two descriptions of one character have nothing in common.
        private static bool Excludes(Character character, CharacterDescription a, CharacterDescription b)
        {
            if (!a.Applies || !b.Applies)
                return a.Applies != b.Applies;
            if (a.Range is { } one && b.Range is { } other)
                return one.IsApart(other);
            var (first, second) = (Said(a), Said(b));
            return first.Count > 0
                && second.Count > 0
                && !first.Exists(f => second.Exists(s => character.IsKindOf(f, s) || character.IsKindOf(s, f)));
        }

        private static List<string> Said(CharacterDescription cell) =>
            [.. cell.States.Where(s => s.Share >= LeastShare).Select(s => s.State)];
    }
}
