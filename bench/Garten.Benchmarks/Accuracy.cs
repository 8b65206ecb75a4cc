using System.Globalization;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Formats;
using Garten.Formats.Tables;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>Measures how well plants are named, on plants drawn from the demo's descriptions and on measured data. What it prints stands in
/// docs/accuracy.md.</summary>
internal sealed class Accuracy(TextWriter to, bool isShort = false)
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
    /// <param name="onlyCalibration">Prints those of calibration alone.</param>
    public void Run(bool onlyCalibration = false, bool onlyTurns = false)
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        if (onlyTurns)
        {
            new PlantedTurns(Flora, Complete, Species).Report(to, FirstSeed);
            return;
        }
        var full = SifterOf(Complete);
        if (onlyCalibration)
        {
            CalibrateAll(full);
            return;
        }
        var telling = Errors.Select(error => Trials(full, error, Way.Telling)).ToList();
        var random = Errors.Select(error => Trials(full, error, Way.Random)).ToList();
        Names(telling, random);
        FirstInLooks(telling);
        OffTheList(full);
        CalibrateAll(full);
        AgainstLog();
        InContexts(full);
        new PlantedTurns(Flora, Complete, Species).Report(to, FirstSeed);
        if (isShort)
            return;
        new KeyRoute(Flora, Complete, Species).Compare(full, to, Plants, FirstSeed);
        Measured.Report(to);
    }

    private static readonly WholePlants Whole = new(Flora.Table.Characters, Complete);

    private static List<Trial> Trials(Sifter sifter, double error, Way way) =>
        [
            .. Species
                .SelectMany(d =>
                    Enumerable.Range(FirstSeed, Plants).Select(seed => Trial.Of(sifter, d, seed, error, way, MostLooks, whole: Whole))
                )
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

    private sealed record Step(double Given, bool Right, Way Way);

    private static readonly double[] Unlisted = [0.15, 0.05];

    // As many wrong looks as the reliability of each character says.
    private const double AsReliable = -1;

    // Places, and plants looked at in each: what is learnt of a list begins anew with every place.
    private const int Places = 256;
    private const int PlantsAtPlace = 120;

    private static readonly Dictionary<string, Sifter> Lists = [];

    private static Sifter WithoutIt(TaxonDescription d) =>
        Lists.TryGetValue(d.Taxon, out var known)
            ? known
            : Lists[d.Taxon] = SifterOf(Complete.Where(x => x.Taxon != d.Taxon && Taxa[x.Taxon].Parent != d.Taxon));

    // Plants as they come at some places, a share of them not on the list: by telling looks and by chance, with and without wrong looks.
    private static (List<Step> Steps, double Learnt) Streams(
        Sifter full,
        double unlisted,
        bool asReliable,
        IReadOnlyDictionary<string, double[]>? living
    )
    {
        var steps = new List<Step>();
        var learnt = 0d;
        for (var place = 0; place < Places; place++)
        {
            var random = new Random(FirstSeed + place);
            var strangers = Strangers.None;
            for (var i = 0; i < PlantsAtPlace; i++)
            {
                var taxon = Species[random.Next(Species.Count)];
                var isOff = random.NextDouble() < unlisted;
                var way = random.Next(2) == 0 ? Way.Telling : Way.Random;
                var error = asReliable ? AsReliable : Errors[random.Next(Errors.Length)];
                var list = isOff ? WithoutIt(taxon) : full;
                if (Trial.Of(full, taxon, random.Next(), error, way, MostLooks, list, Whole, strangers.Prior, living) is not { } trial)
                    continue;
                strangers = strangers.With(trial.NoneAtTheEnd, list.Options.PriorOfStranger(strangers.Prior));
                steps.AddRange(
                    trial
                        .Steps.Where(s => s.Standing[0].Taxon != Sifter.NotOnList)
                        .Select(s => new Step(s.Standing[0].Probability, !isOff && s.Standing[0].Taxon == trial.Taxon, way))
                );
            }
            learnt += strangers.Prior / Places;
        }
        return (steps, learnt);
    }

    private void CalibrateAll(Sifter full)
    {
        Calibrate(full, "looks as reliable as their characters are said to be", asReliable: true);
        Calibrate(full, "0, 5 and 10 % of looks wrong", asReliable: false);
        Calibrate(full, "looks in all contexts, as reliable as their characters are said to be", asReliable: true, UsualOf(full));
    }

    // Of all names that stood first with a probability, how many were right.
    private void Calibrate(Sifter full, string looks, bool asReliable, IReadOnlyDictionary<string, double[]>? living = null)
    {
        double[] bounds = [0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 0.95, 1.01];
        var streams = Unlisted.Select(share => (Share: share, Of: Streams(full, share, asReliable, living))).ToList();
        to.WriteLine(
            $"\n## Calibration, {looks}\n\nPlants as they come at {Places} places, {PlantsAtPlace} at each, some of them of species that were taken off the list; half of them by telling looks, half by chance. Each plant shows every character, also those that its species isn't described in (as some taxon of its growth form). At every step: the name that stands first, its mean probability, how often it was right. What each place has learnt of its list at the end: {string.Join(", ", streams.Select(s => $"{s.Of.Learnt:0.0 %} where {s.Share:0 %} aren't on it"))}.\n"
        );
        to.WriteLine(
            "| probability given | "
                + string.Join(
                    " | ",
                    streams.SelectMany(s => new[] { $"{s.Share:0 %} off, all looks", $"{s.Share:0 %} off, telling looks" })
                )
                + " |\n|---|---|---|---|---|"
        );
        var points = new List<(double Given, double Right, int Count)>();
        for (var i = 0; i + 1 < bounds.Length; i++)
        {
            var cells = new List<string>();
            foreach (var (_, (all, _)) in streams)
            {
                foreach (var steps in new[] { all, [.. all.Where(s => s.Way == Way.Telling)] })
                {
                    var within = steps.Where(s => s.Given >= bounds[i] && s.Given < bounds[i + 1]).ToList();
                    if (within.Count == 0)
                    {
                        cells.Add("–");
                        continue;
                    }
                    var (given, right) = (within.Average(s => s.Given), within.Average(s => s.Right ? 1d : 0));
                    if (cells.Count == 0)
                        points.Add((given, right, within.Count));
                    cells.Add($"{given:0.0 %} given, {right:0.0 %} right ({100 * (right - given):+0.0;−0.0}; {within.Count})");
                }
            }
            to.WriteLine($"| {bounds[i]:0 %} to {Math.Min(1, bounds[i + 1]):0 %} | {string.Join(" | ", cells)} |");
        }
        if (!asReliable || living is not null)
            return;
        to.WriteLine("\n![Reliability](accuracy-reliability.svg)");
        ReliabilityPlot.Write(Path.Combine(Repository.Root, "docs", "accuracy-reliability.svg"), points);
    }

    private void OffTheList(Sifter full)
    {
        to.WriteLine(
            "\n## A plant that isn't on the list\n\nEach species in turn is taken off the list and two plants of it sifted by telling looks: called “not on this list”, or no name at 95 %.\n"
        );
        to.WriteLine("| wrong looks | after 6 looks | 10 | 15 | at no step a name at 95 % |\n|---|---|---|---|---|");
        foreach (var error in Errors)
        {
            var off = Species
                .SelectMany(d =>
                {
                    var list = WithoutIt(d);
                    return Enumerable
                        .Range(FirstSeed, 2)
                        .Select(seed => Trial.Of(full, d, seed, error, Way.Telling, MostLooks, list, Whole));
                })
                .OfType<Trial>()
                .ToList();
            static bool IsOpen(Candidate first) => first.Taxon == Sifter.NotOnList || first.Probability < Settled;
            to.WriteLine(
                $"| {error:0 %} | {Share(off, t => IsOpen(t.TopAfter(6)))} | {Share(off, t => IsOpen(t.TopAfter(10)))} | {Share(off, t => IsOpen(t.TopAfter(15)))} | {Share(off, t => t.Steps.All(s => IsOpen(s.Standing[0])))} |"
            );
        }
    }

    // The same plants looked at in the usual context and in all of them, with and without the rules.
    private void InContexts(Sifter full)
    {
        var usual = UsualOf(full);
        var plain = new Sifter(
            full.Columns,
            Flora.Taxa,
            Flora.Table.Seasons,
            SiftOptions.Default with
            {
                Evidence = EvidenceOptions.Default with { Contexts = ContextRules.Default with { AreOn = false } },
            }
        );
        List<Trial> Of(Sifter sifter, IReadOnlyDictionary<string, double[]>? living, Way way) =>
            [
                .. Species
                    .SelectMany(d =>
                        Enumerable
                            .Range(FirstSeed, Plants)
                            .Select(seed => Trial.Of(sifter, d, seed, 0.05, way, MostLooks, whole: Whole, living: living))
                    )
                    .OfType<Trial>(),
            ];
        to.WriteLine(
            $"\n## Plants looked at in all contexts\n\nThe same {Plants * Species.Count} plants by telling looks, 5 % of them wrong: full-grown leaves of the sun alone, and looks as they come, on young and old parts, low and at the top, in the shade, on saplings, on browsed and clipped plants. How much changes from context to context is drawn for each plant between nothing and twice what the program reckons with. Right first after 3, 5 and 8 looks; wrong at 95 %; log loss of the right name after 8 looks.\n"
        );
        to.WriteLine("| looks | rules | 3 | 5 | 8 | wrong at 95 % | log loss |\n|---|---|---|---|---|---|---|");
        foreach (
            var (words, rules, trials) in new[]
            {
                ("usual context", "with contexts", Of(full, null, Way.Telling)),
                ("all contexts", "with contexts", Of(full, usual, Way.Telling)),
                ("all contexts", "without", Of(plain, usual, Way.Telling)),
                ("all contexts, by chance", "with contexts", Of(full, usual, Way.Random)),
                ("all contexts, by chance", "without", Of(plain, usual, Way.Random)),
            }
        )
        {
            var settled = trials
                .SelectMany(t => t.Steps.Select(s => (t.Taxon, First: s.Standing[0])))
                .Where(s => s.First.Taxon != Sifter.NotOnList && s.First.Probability >= Settled)
                .ToList();
            var wrong = settled.Count == 0 ? 0 : settled.Count(s => s.First.Taxon != s.Taxon) / (double)settled.Count;
            var loss = trials.Average(t =>
                -Math.Log(
                    Math.Max(
                        1e-4,
                        t.Steps[Math.Min(8, t.Steps.Count) - 1].Standing.FirstOrDefault(c => c.Taxon == t.Taxon)?.Probability ?? 0
                    )
                )
            );
            to.WriteLine(
                $"| {words} | {rules} | {Share(trials, t => t.IsAmong(3, 1))} | {Share(trials, t => t.IsAmong(5, 1))} | {Share(trials, t => t.IsAmong(8, 1))} | {wrong:0.0 %} | {loss:0.000} |"
            );
        }
    }

    private static Dictionary<string, double[]> UsualOf(Sifter full) =>
        full.Columns.Columns.Where(c => !c.Character.IsQuantity).ToDictionary(c => c.Character.Id, UsualOf, StringComparer.Ordinal);

    private static double[] UsualOf(CharacterColumn column)
    {
        var usual = new double[column.Character.States.Count];
        for (var c = 0; c < column.Cells.Count; c++)
        {
            foreach (var share in column.Cells[c].States)
            {
                if (column.Character.IndexOf(share.State) is >= 0 and var at)
                    usual[at] += share.Share * column.Counts[c + 1];
            }
        }
        return usual;
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
                trials.AddRange(
                    list.Select(d => Trial.Of(sifter, d, FirstSeed + draw, 0, Way.Telling, MostLooks, whole: Whole)).OfType<Trial>()
                );
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
