using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Formats;
using Garten.Formats.Tables;

namespace Garten.Benchmarks;

/// <summary>Measures how well plants are named, on plants drawn from the demo's descriptions and on measured data. What it prints stands in
/// docs/accuracy.md.</summary>
internal sealed class Accuracy(TextWriter to)
{
    private static readonly double[] Errors = [0, 0.05, 0.1];
    private static readonly int[] Looks = [3, 5, 8];

    // Plants of each species; drawn from other seeds than those that the numbers were chosen with.
    private const int Plants = 4;
    private const int FirstSeed = 1000;
    private const int MostLooks = 15;

    // A name with this much of the probability is taken for settled.
    private const double Settled = 0.95;

    private static readonly FloraReading Flora = FloraFolder.Read(Path.Combine(Repository.Root, "demo", "flora"));
    private static readonly IReadOnlyList<TaxonDescription> Complete = CharacterTable.Complete(Flora.Table.Descriptions, Flora.Taxa);
    private static readonly Dictionary<string, Taxon> Taxa = Flora.Taxa.ToDictionary(t => t.Id);
    private static readonly List<TaxonDescription> Species = [.. Complete.Where(d => Taxa[d.Taxon].Rank is "species" or "hybrid")];

    private static Sifter SifterOf(IEnumerable<TaxonDescription> described) =>
        new(FloraColumns.Of(Flora.Table.Characters, [.. described]), Flora.Taxa, Flora.Table.Seasons);

    /// <summary>Prints all tables; writes the reliability plot beside them.</summary>
    public void Run()
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var full = SifterOf(Complete);
        var telling = Errors.Select(error => Trials(full, error, Way.Telling)).ToList();
        var random = Errors.Select(error => Trials(full, error, Way.Random)).ToList();
        Names(telling, random);
        FirstInLooks(telling);
        var off = OffTheList(full);
        Calibrate([.. telling.Concat(random).SelectMany(t => t)], off);
        AgainstLog();
        new KeyRoute(Flora, Complete, Species).Compare(full, to, Plants, FirstSeed);
        Measured.Report(to);
    }

    private static List<Trial> Trials(Sifter sifter, double error, Way way) =>
        [
            .. Species
                .SelectMany(d => Enumerable.Range(FirstSeed, Plants).Select(seed => Trial.Of(sifter, d, seed, error, way, MostLooks)))
                .OfType<Trial>(),
        ];

    private void Names(List<List<Trial>> telling, List<List<Trial>> random)
    {
        to.WriteLine(
            $"## Names after 3, 5 and 8 looks\n\n{telling[0].Count} plants: {Plants} of each of {Species.Count} species and hybrids. Share of plants whose name stands first / among the first three.\n"
        );
        to.WriteLine("| wrong looks | looks | telling looks | random characters |\n|---|---|---|---|");
        for (var e = 0; e < Errors.Length; e++)
        {
            foreach (var n in Looks)
                to.WriteLine(
                    $"| {Errors[e]:0 %} | {n} | {Share(telling[e], t => t.IsAmong(n, 1))} / {Share(telling[e], t => t.IsAmong(n, 3))} | {Share(random[e], t => t.IsAmong(n, 1))} / {Share(random[e], t => t.IsAmong(n, 3))} |"
                );
        }
    }

    private void FirstInLooks(List<List<Trial>> telling)
    {
        to.WriteLine(
            "\n## Telling looks until the right name stands first\n\n| wrong looks | median | 90 % of plants | never in 15 |\n|---|---|---|---|"
        );
        for (var e = 0; e < Errors.Length; e++)
        {
            var needed = telling[e].Select(t => t.FirstAt() is var at and > 0 ? at : int.MaxValue).Order().ToList();
            string Show(int looks) => looks == int.MaxValue ? "over 15" : $"{looks}";
            to.WriteLine(
                $"| {Errors[e]:0 %} | {Show(needed[needed.Count / 2])} | {Show(needed[needed.Count * 9 / 10])} | {needed.Count(n => n == int.MaxValue)} of {needed.Count} |"
            );
        }
    }

    private sealed record Step(double Given, bool Right, double Weight);

    private static IEnumerable<Step> StepsOf(List<Trial> trials, double share) =>
        trials.SelectMany(t =>
            t.Steps.Where(s => s.Standing[0].Taxon != Sifter.NotOnList)
                .Select(s => new Step(s.Standing[0].Probability, s.Standing[0].Taxon == t.Taxon, share / trials.Count))
        );

    // Of all names that stood first with a probability, how many were right.
    private void Calibrate(List<Trial> on, List<Trial> off)
    {
        var prior = SiftOptions.Default.NotOnList;
        double[] bounds = [0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.85, 0.9, 0.95, 0.98, 1.01];
        to.WriteLine(
            $"\n## Calibration\n\nEvery step of every plant above by telling looks and by chance, all three shares of wrong looks: the name that stands first, its probability, and how often it was right. The reckoning expects {prior:0 %} of plants not to be on the list; in the third column they are among them (those of the table above, by telling looks), in the last all plants are on the list.\n"
        );
        to.WriteLine(
            "| probability given | names | right, {0} not on the list | mean given | right, all on the list |\n|---|---|---|---|---|".Replace(
                "{0}",
                $"{prior:0 %}",
                StringComparison.Ordinal
            )
        );
        var mixed = StepsOf(on, 1 - prior).Concat(StepsOf(off, prior)).ToList();
        var alone = StepsOf(on, 1).ToList();
        var points = new List<(double Given, double Right, int Count)>();
        static double Right(List<Step> steps) => steps.Where(s => s.Right).Sum(s => s.Weight) / steps.Sum(s => s.Weight);
        for (var i = 0; i + 1 < bounds.Length; i++)
        {
            bool IsIn(Step s) => s.Given >= bounds[i] && s.Given < bounds[i + 1];
            var (inMixed, inAlone) = (mixed.Where(IsIn).ToList(), alone.Where(IsIn).ToList());
            if (inMixed.Count == 0 || inAlone.Count == 0)
                continue;
            var given = inMixed.Sum(s => s.Given * s.Weight) / inMixed.Sum(s => s.Weight);
            points.Add((given, Right(inMixed), inMixed.Count));
            to.WriteLine(
                $"| {bounds[i]:0 %} to {Math.Min(1, bounds[i + 1]):0 %} | {inMixed.Count} | {Right(inMixed):0.0 %} | {given:0.0 %} | {Right(inAlone):0.0 %} |"
            );
        }
        to.WriteLine("\n![Reliability](accuracy-reliability.svg)");
        ReliabilityPlot.Write(Path.Combine(Repository.Root, "docs", "accuracy-reliability.svg"), points);
    }

    private List<Trial> OffTheList(Sifter full)
    {
        to.WriteLine(
            "\n## A plant that isn't on the list\n\nEach species in turn is taken off the list and two plants of it sifted by telling looks: called “not on this list”, or no name at 95 %.\n"
        );
        to.WriteLine("| wrong looks | after 6 looks | 10 | 15 | at no step a name at 95 % |\n|---|---|---|---|---|");
        var all = new List<Trial>();
        foreach (var error in Errors)
        {
            var off = Species
                .SelectMany(d =>
                {
                    var list = SifterOf(Complete.Where(x => x.Taxon != d.Taxon && Taxa[x.Taxon].Parent != d.Taxon));
                    return Enumerable.Range(FirstSeed, 2).Select(seed => Trial.Of(full, d, seed, error, Way.Telling, MostLooks, list));
                })
                .OfType<Trial>()
                .ToList();
            static bool IsOpen(Candidate first) => first.Taxon == Sifter.NotOnList || first.Probability < Settled;
            to.WriteLine(
                $"| {error:0 %} | {Share(off, t => IsOpen(t.TopAfter(6)))} | {Share(off, t => IsOpen(t.TopAfter(10)))} | {Share(off, t => IsOpen(t.TopAfter(15)))} | {Share(off, t => t.Steps.All(s => IsOpen(s.Standing[0])))} |"
            );
            all.AddRange(off);
        }
        return all;
    }

    private void AgainstLog()
    {
        to.WriteLine(
            "\n## Telling looks to 95 % against log2 of the list\n\nLists drawn by chance from the demo (five of each size), one plant of each species, no wrong looks; plants that never come to 95 % within 15 looks are counted apart.\n"
        );
        to.WriteLine("| taxa | log2 | mean looks to 95 % | to half | never |\n|---|---|---|---|---|");
        foreach (var size in new[] { 8, 16, 32, Species.Count })
        {
            var trials = new List<Trial>();
            for (var draw = 0; draw < (size == Species.Count ? 1 : 5); draw++)
            {
                var random = new Random(FirstSeed + draw);
                var list = Species.OrderBy(_ => random.Next()).Take(size).ToList();
                var sifter = SifterOf(list);
                trials.AddRange(list.Select(d => Trial.Of(sifter, d, FirstSeed + draw, 0, Way.Telling, MostLooks)).OfType<Trial>());
            }
            double? Mean(double share)
            {
                var at = trials.Select(t => t.FirstAt(share)).Where(n => n > 0).ToList();
                return at.Count == 0 ? null : at.Average();
            }
            to.WriteLine(
                $"| {size} | {Math.Log2(size):0.0} | {Mean(Settled):0.0} | {Mean(0.5):0.0} | {trials.Count(t => t.FirstAt(Settled) < 0)} of {trials.Count} |"
            );
        }
    }

    private static string Share(List<Trial> all, Func<Trial, bool> holds) => $"{100d * all.Count(holds) / all.Count:0} %";
}
