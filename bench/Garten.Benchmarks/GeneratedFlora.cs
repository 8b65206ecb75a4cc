using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Quantities;

namespace Garten.Benchmarks;

/// <summary>A flora made by chance, always the same for the same sizes: taxa, characters, a key that splits them in halves, and a
/// sheet.</summary>
internal static class GeneratedFlora
{
    public static (BenchShelf Shelf, string Start, IReadOnlyList<Observation> Sheet) Make(int taxa, int characters)
    {
        var random = new Random(taxa * 1000 + characters);
        var table = Enumerable
            .Range(0, characters)
            .Select(i =>
                i % 3 == 0
                    ? new Character(
                        $"c{i}",
                        $"measure {i}",
                        (Organ)(i % 11),
                        CharacterKind.Length,
                        [],
                        [$"part{i}"],
                        ["long"],
                        0.9,
                        0.9,
                        20,
                        Tool.Ruler,
                        Handling.Look,
                        []
                    )
                    : new Character(
                        $"c{i}",
                        $"character {i}",
                        (Organ)(i % 11),
                        CharacterKind.Categorical,
                        [.. Enumerable.Range(0, 2 + i % 4).Select(s => new CharacterState($"s{s}", $"state {s}", "", [$"term{i}x{s}"]))],
                        [$"part{i}"],
                        [],
                        0.9,
                        0.9,
                        10,
                        Tool.Eye,
                        Handling.Look,
                        []
                    )
            )
            .ToList();
        CharacterDescription Describe(Character c)
        {
            if (c.IsQuantity)
            {
                var low = 5 + 80 * random.NextDouble();
                return new CharacterDescription(
                    c.Id,
                    [],
                    new QuantityRange(QuantityKind.Length, RangeForm.Between, low, low * 1.6, low * 0.8, low * 2)
                );
            }
            var first = random.Next(c.States.Count);
            return new CharacterDescription(
                c.Id,
                [new StateShare(c.States[first].Id, 0.8), new StateShare(c.States[(first + 1) % c.States.Count].Id, 0.2)]
            );
        }
        var names = Enumerable
            .Range(0, taxa)
            .Select(i => new Taxon($"t{i}", $"Genella species{i}", "", "species", "", "", "", [], ""))
            .ToList();
        var descriptions = names.ConvertAll(t => new TaxonDescription(t.Id, [.. table.Select(Describe)]));
        var couplets = new List<Couplet>();
        LeadDestination Split(int from, int to)
        {
            if (to - from == 1)
                return new LeadDestination(DestinationKind.Taxon, names[from].Name, TaxonName.Parse(names[from].Name));
            var label = $"{couplets.Count + 1}";
            var at = couplets.Count;
            couplets.Add(new Couplet(label, []));
            var c = table[1 + random.Next(table.Count - 1)];
            while (c.IsQuantity)
                c = table[1 + random.Next(table.Count - 1)];
            var index = table.IndexOf(c);
            var middle = (from + to) / 2;
            couplets[at] = new Couplet(
                label,
                [new Lead([$"Part{index} term{index}x0"], Split(from, middle)), new Lead([$"Part{index} term{index}x1"], Split(middle, to))]
            );
            return new LeadDestination(DestinationKind.Couplet, label);
        }
        Split(0, taxa);
        var key = new Key("Key to the generated flora", KeyLayout.Bracketed, [], couplets);
        var version = new KeyVersion(KeyHash.Of(key), key);
        var sheet = descriptions[taxa / 3]
            .Characters.Take(20)
            .Select(d =>
            {
                var c = table.First(x => x.Id == d.Character);
                IReadOnlyList<Reading> readings = c.IsQuantity ? [new(d.Range!.Low * 1.2, "", 1), new(d.Range.Low * 1.3, "", 1)] : [];
                return new Observation(
                    new Guid(index(c.Id), 0, 0, new byte[8]),
                    c.Id,
                    Outcome.Seen,
                    c.IsQuantity ? [] : [d.States[0].State],
                    false,
                    readings,
                    0,
                    0,
                    Sureness.Sure,
                    new(),
                    Tool.Eye,
                    "2026-06-01",
                    ""
                );
            })
            .ToList();
        return (new BenchShelf(new KeyShelf([version], names), new CharacterTable(table, descriptions, []), names), version.Hash, sheet);

        static int index(string id) => int.Parse(id[1..], System.Globalization.CultureInfo.InvariantCulture);
    }
}
