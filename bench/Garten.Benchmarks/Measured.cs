using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;

namespace Garten.Benchmarks;

/// <summary>
/// Plants measured one by one, as a herbarium has them: ten species, thirty plants each, sizes that vary together, two scored characters,
/// a tenth of it missing. Made by a generator of its own, on which nothing was tuned. Each plant is named by what all the others say.
/// </summary>
internal static class Measured
{
    private const int SpeciesCount = 10;
    private const int PlantsEach = 30;
    private const double Missing = 0.1;

    // How much of the spread of sizes is the plant's own vigour, common to all its parts.
    private const double Vigour = 0.5;

    private static readonly string[] Sizes = ["leaf-length", "leaf-width", "petiole", "petal", "sepal", "fruit"];
    private static readonly (string Id, string[] States)[] Scored =
    [
        ("margin", ["entire", "crenate", "serrate"]),
        ("hairs", ["none", "sparse", "dense"]),
    ];

    private sealed record Plant(int Species, double?[] Sizes, int?[] States);

    public static void Report(TextWriter to)
    {
        to.WriteLine(
            $"\n## Measured plants, each left out in turn\n\n{SpeciesCount} species × {PlantsEach} plants, {Sizes.Length} sizes in millimetres and {Scored.Length} scored characters, {Missing:0 %} missing. Each plant is named by descriptions made of all the others (typical range from the tenth to the ninetieth percentile, extremes, shares of states); beside it the nearest mean of standardised logarithms.\n"
        );
        to.WriteLine("| species apart by | sifting: first | among three | not on the list | nearest mean |\n|---|---|---|---|---|");
        foreach (var (apart, words) in new[] { (0.35, "much (35 % in size)"), (0.2, "20 %"), (0.1, "little (10 %)") })
        {
            var plants = Make(new Random(77), apart);
            int first = 0,
                three = 0,
                none = 0,
                nearest = 0;
            for (var i = 0; i < plants.Count; i++)
            {
                var others = plants.Where((_, j) => j != i).ToList();
                var result = SifterOf(others).Sift(new SiftQuery(SheetOf(plants[i])));
                if (result.Standing[0].Taxon == Id(plants[i].Species))
                    first++;
                if (result.Standing.Where(c => c.Taxon != Sifter.NotOnList).Take(3).Any(c => c.Taxon == Id(plants[i].Species)))
                    three++;
                if (result.Standing[0].Taxon == Sifter.NotOnList)
                    none++;
                if (Nearest(plants[i], others) == plants[i].Species)
                    nearest++;
            }
            to.WriteLine(
                $"| {words} | {100d * first / plants.Count:0} % | {100d * three / plants.Count:0} % | {100d * none / plants.Count:0} % | {100d * nearest / plants.Count:0} % |"
            );
        }
    }

    private static string Id(int species) => $"species-{species}";

    private static List<Plant> Make(Random random, double apart)
    {
        double Gauss() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        var plants = new List<Plant>();
        for (var s = 0; s < SpeciesCount; s++)
        {
            var means = Sizes.Select((_, k) => Math.Log(12 + 9 * k) + apart * Gauss()).ToArray();
            var spreads = Sizes.Select(_ => 0.12 + 0.1 * random.NextDouble()).ToArray();
            var shares = Scored
                .Select(c =>
                {
                    var raw = c.States.Select(_ => Math.Pow(random.NextDouble(), 3) + 0.01).ToArray();
                    return Array.ConvertAll(raw, r => r / raw.Sum());
                })
                .ToArray();
            for (var i = 0; i < PlantsEach; i++)
            {
                var vigour = Gauss();
                var sizes = Sizes
                    .Select(
                        (_, k) =>
                            random.NextDouble() < Missing
                                ? (double?)null
                                : Math.Round(
                                    Math.Exp(means[k] + spreads[k] * (Math.Sqrt(Vigour) * vigour + Math.Sqrt(1 - Vigour) * Gauss())),
                                    1
                                )
                    )
                    .ToArray();
                var states = shares
                    .Select(p =>
                    {
                        if (random.NextDouble() < Missing)
                            return (int?)null;
                        var draw = random.NextDouble();
                        return Enumerable.Range(0, p.Length).FirstOrDefault(k => (draw -= p[k]) <= 0, p.Length - 1);
                    })
                    .ToArray();
                plants.Add(new Plant(s, sizes, states));
            }
        }
        return plants;
    }

    private static readonly Character[] Characters =
    [
        .. Sizes.Select(id => new Character(
            id,
            id,
            Organ.Leaf,
            CharacterKind.Length,
            [],
            [id],
            [],
            0.9,
            0.9,
            20,
            Tool.Ruler,
            Handling.Look,
            [],
            null,
            "",
            "all"
        )),
        .. Scored.Select(c => new Character(
            c.Id,
            c.Id,
            Organ.Leaf,
            CharacterKind.Ordered,
            [.. c.States.Select(s => new CharacterState(s, s, "", [s]))],
            [c.Id],
            [],
            0.9,
            0.9,
            10,
            Tool.Eye,
            Handling.Look,
            []
        )),
    ];

    private static Sifter SifterOf(List<Plant> plants)
    {
        var described = plants
            .GroupBy(p => p.Species)
            .Select(g => new TaxonDescription(
                Id(g.Key),
                [
                    .. Sizes.Select((id, k) => Range(id, [.. g.Select(p => p.Sizes[k]).OfType<double>().Order()])),
                    .. Scored.Select(
                        (c, k) =>
                            new CharacterDescription(
                                c.Id,
                                [
                                    .. c.States.Select(
                                        (s, at) =>
                                            new StateShare(
                                                s,
                                                (g.Count(p => p.States[k] == at) + 0.2) / (g.Count(p => p.States[k] is not null) + 0.6)
                                            )
                                    ),
                                ]
                            )
                    ),
                ]
            ))
            .ToList();
        return new Sifter(
            FloraColumns.Of(Characters, described),
            [.. described.Select(d => new Taxon(d.Taxon, "Measura " + d.Taxon, "", "species", "", "", "", [], ""))],
            []
        );
    }

    private static CharacterDescription Range(string id, double[] values)
    {
        var (low, high) = (values[values.Length / 10], values[values.Length * 9 / 10]);
        return new CharacterDescription(
            id,
            [],
            new QuantityRange(
                QuantityKind.Length,
                RangeForm.Between,
                low,
                Math.Max(high, low * 1.01),
                values[0] < low ? values[0] : null,
                values[^1] > high ? values[^1] : null
            )
        );
    }

    private static List<Observation> SheetOf(Plant plant)
    {
        Observation Look(string character) =>
            new(Guid.Empty, character, Outcome.Seen, [], false, [], 0, 0, Sureness.Sure, new(), Tool.Eye, "2000-01-01", "");
        var sheet = new List<Observation>();
        for (var k = 0; k < Sizes.Length; k++)
        {
            if (plant.Sizes[k] is { } size)
                sheet.Add(Look(Sizes[k]) with { Readings = [new Reading(size, "", 0.1)] });
        }
        for (var k = 0; k < Scored.Length; k++)
        {
            if (plant.States[k] is { } state)
                sheet.Add(Look(Scored[k].Id) with { States = [Scored[k].States[state]] });
        }
        return sheet;
    }

    // The usual simple way: the species whose mean lies nearest, every character in units of its spread.
    private static int Nearest(Plant plant, List<Plant> others)
    {
        double? Value(Plant p, int k) =>
            k < Sizes.Length
                ? p.Sizes[k] is { } size
                    ? Math.Log(size)
                    : null
                : p.States[k - Sizes.Length];
        var dimensions = Sizes.Length + Scored.Length;
        var spread = Enumerable
            .Range(0, dimensions)
            .Select(k =>
            {
                var values = others.Select(p => Value(p, k)).OfType<double>().ToList();
                var mean = values.Average();
                return Math.Sqrt(values.Average(v => (v - mean) * (v - mean)));
            })
            .ToArray();
        return others
            .GroupBy(p => p.Species)
            .MinBy(g =>
                Enumerable
                    .Range(0, dimensions)
                    .Sum(k =>
                    {
                        if (Value(plant, k) is not { } own)
                            return 0;
                        var mean = g.Select(p => Value(p, k)).OfType<double>().Average();
                        return Math.Pow((own - mean) / spread[k], 2);
                    })
            )!
            .Key;
    }
}
