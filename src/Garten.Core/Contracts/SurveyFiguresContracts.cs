using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Seasons;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>From what the figures of a survey are worked out.</summary>
public enum SurveySource
{
    /// <summary>From the lists of its visits: found or not.</summary>
    Lists,

    /// <summary>From its plots: what their scale notes.</summary>
    Plots,
}

/// <summary>By what recordings are put together.</summary>
public enum SurveyUnit
{
    /// <summary>Each by itself: a plot of a year, the list of a visit.</summary>
    Each,

    /// <summary>By place.</summary>
    Place,

    /// <summary>By year.</summary>
    Year,

    /// <summary>By the group that plots are compared under.</summary>
    Group,
}

/// <summary>Asks for the figures of a survey.</summary>
/// <param name="Survey">The survey.</param>
/// <param name="From">From what.</param>
/// <param name="By">What a sample is.</param>
/// <param name="Under">What samples are compared under, in tables of frequency and among indicators: place, year or group.</param>
/// <param name="RarefyTo">To how many individuals samples are rarefied.</param>
public sealed record SurveyFiguresRequest(
    SurveyWhole Survey,
    SurveySource From,
    SurveyUnit By,
    SurveyUnit Under = SurveyUnit.Place,
    long? RarefyTo = null
)
{
    // Chance begins there, so that a report says the same tomorrow.
    private const long Seed = 20_260_101;

    // Of more plots than this nobody reads a table.
    private const int MostUnits = StatisticsRequest.MostSamples;

    /// <summary>Works them out.</summary>
    /// <param name="taxa">What is known of taxa: members of aggregates, synonyms; null where nothing is.</param>
    /// <exception cref="RequestException">There are too many recordings.</exception>
    public SurveyFigures WorkOut(TaxonIndex? taxa = null)
    {
        var notes = new List<string>();
        var units = From == SurveySource.Plots ? OfPlots(notes) : OfLists(notes);
        if (units.Count > MostUnits)
            throw new RequestException("survey", $"Figures are worked out of at most {MostUnits:N0} recordings at a time.");
        var kind =
            From == SurveySource.Lists
                ? SampleKind.Incidence
                : Protocol()?.Scale switch
                {
                    PlotScale.Count => SampleKind.Individuals,
                    PlotScale.Presence or null => SampleKind.Incidence,
                    _ => SampleKind.Cover,
                };
        Say(units, taxa, notes);
        var empty = units.Count(u => u.Amounts.Count == 0);
        if (empty > 0)
            notes.Add(
                Counted(empty, "recording is", "recordings are")
                    + (empty == 1 ? " empty: nothing was found there. It counts" : " empty: nothing was found there. They count")
                    + " among the samples."
            );
        var samples = Pooled(units, kind);
        if (samples.Count == 0)
            return new SurveyFigures(kind, [], [.. notes, "Nothing was recorded yet: there is nothing to work out."], null, [], [], "", []);
        var statistics = new StatisticsRequest(kind, Values(samples), RarefyTo).WorkOut();
        var sizes = units.Select(u => u.SquareMetres).Distinct().ToList();
        var isComparable = From == SurveySource.Lists || sizes.Count == 1;
        if (!isComparable)
            notes.Add(
                $"Plots of {string.Join(" and ", sizes.Order().Select(s => s.ToString("0.##", CultureInfo.InvariantCulture)))} m² stand side by side: "
                    + "frequencies hang on the size, and aren’t compared."
            );
        var all = Table(units);
        string[] groups = [.. units.Select(u => NameOf(u, Under))];
        return new SurveyFigures(
            kind,
            [.. samples.Select(s => s.Name)],
            notes,
            statistics,
            isComparable ? TaxonFrequency.Of(all, groups, kind != SampleKind.Incidence) : [],
            isComparable
                ? [.. IndicatorValue.Of(all, groups, Seed).OrderByDescending(i => i.Value).ThenBy(i => i.Taxon, StringComparer.Ordinal)]
                : [],
            From == SurveySource.Lists ? "" : UnitOf(Protocol()?.Scale),
            MoreOf(Table(samples))
        );
    }

    private static IReadOnlyList<MoreSamples> MoreOf(Community samples)
    {
        var n = samples.Samples.Count;
        return
        [
            .. new[] { 0, n / 2, n }
                .Distinct()
                .Select(more =>
                    (more, Taxa: IncidenceEstimators.Extrapolated(samples, more), Share: IncidenceEstimators.Coverage(samples, more))
                )
                .Where(x => x is { Taxa: not null, Share: not null })
                .Select(x => new MoreSamples(n + x.more, x.Taxa!.Value, x.Share!.Value)),
        ];
    }

    private SurveyProtocol? Protocol() => Survey.Survey.Now()?.Protocol;

    private static string UnitOf(PlotScale? scale) =>
        scale switch
        {
            PlotScale.Percent => "% cover",
            PlotScale.SevenClasses or PlotScale.TenClasses => "% cover, by the middles of classes",
            PlotScale.Count => "individuals",
            PlotScale.Hits => "% of pins",
            _ => "",
        };

    /// <summary>A recording: a plot of a day, or the list of a visit.</summary>
    private sealed record Recording(
        string Name,
        string Place,
        int Year,
        string Group,
        double SquareMetres,
        IReadOnlyDictionary<string, double> Amounts
    );

    private static string NameOf(Recording it, SurveyUnit by) =>
        by switch
        {
            SurveyUnit.Place => it.Place,
            SurveyUnit.Year => it.Year.ToString(CultureInfo.InvariantCulture),
            SurveyUnit.Group => it.Group.Length > 0 ? it.Group : "(no group)",
            _ => it.Name,
        };

    private string PlaceName(Guid id) => Survey.Survey.Places.FirstOrDefault(p => p.Id == id)?.Name ?? "(another place)";

    private List<Recording> OfPlots(List<string> notes)
    {
        var plots = Survey.Plots.ToDictionary(p => p.Id);
        var holding = PlotRecord.Holding(Survey.Records).Where(r => plots.ContainsKey(r.PlotId)).ToList();
        var firsts = holding.Where(r => r.Repeats is null).ToList();
        if (holding.Count > firsts.Count)
            notes.Add(
                Counted(holding.Count - firsts.Count, "plot was", "plots were")
                    + " recorded twice, independently: the second recordings are left out here, and stand beside the change."
            );
        // A plot that was recorded again is the same plot: it counts once, but where years are compared.
        var byYear = By == SurveyUnit.Year || Under == SurveyUnit.Year;
        var last = firsts
            .GroupBy(r => (r.PlotId, Year: byYear ? r.Date.Year : 0))
            .Select(g => g.OrderBy(r => r.Date).Last())
            .OrderBy(r => plots[r.PlotId].Label, StringComparer.Ordinal)
            .ThenBy(r => r.Date)
            .ToList();
        if (last.Count < firsts.Count)
            notes.Add(
                byYear
                    ? "Of plots recorded several times in a year the last recording counts."
                    : "Of plots recorded several times the last recording counts: they would count as several plots otherwise."
            );
        var severalYears = last.Select(r => r.Date.Year).Distinct().Count() > 1;
        return
        [
            .. last.Select(r =>
            {
                var plot = plots[r.PlotId];
                var protocol = Survey.Survey.ProtocolOf(r.ProtocolVersion)!;
                return new Recording(
                    severalYears ? string.Create(CultureInfo.InvariantCulture, $"{plot.Label} · {r.Date.Year}") : plot.Label,
                    PlaceName(plot.PlaceId),
                    r.Date.Year,
                    plot.Group,
                    plot.SquareMetres ?? protocol.SquareMetres,
                    r.Amounts(protocol)
                );
            }),
        ];
    }

    private List<Recording> OfLists(List<string> notes)
    {
        var unnamed = 0;
        var units = new List<Recording>();
        foreach (var visit in Survey.Visits.OrderBy(v => v.Date).ThenBy(v => v.StartedAt, StringComparer.Ordinal))
        {
            var records = visit.Records;
            unnamed += records.Count(r => r.Lines[0].Name.Length == 0);
            string[] names = [.. records.Select(r => r.Lines[0].Name).Where(n => n.Length > 0).Distinct(StringComparer.Ordinal)];
            // A visit that only recorded plots has no list.
            if (names.Length == 0 && visit.Closing?.Completeness != Completeness.Complete)
                continue;
            units.Add(
                new Recording(
                    $"{visit.Place.Name} · {visit.Date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}",
                    visit.Place.Name,
                    visit.Date.Year,
                    "",
                    0,
                    names.ToDictionary(n => n, _ => 1.0, StringComparer.Ordinal)
                )
            );
        }
        if (unnamed > 0)
            notes.Add(Counted(unnamed, "plant without a name isn’t", "plants without a name aren’t") + " in the figures.");
        var partial = Survey.Visits.Count(v => v.Lines.Count > 0 && v.Closing?.Completeness != Completeness.Complete);
        if (partial > 0)
            notes.Add(
                Counted(partial, "list isn’t", "lists aren’t")
                    + " said to be complete: what is missing there may have been left out, not absent."
            );
        return Apart(units);
    }

    // Two visits to one place on one day are told apart.
    private static List<Recording> Apart(List<Recording> units)
    {
        var seen = new Dictionary<string, int>(StringComparer.Ordinal);
        return
        [
            .. units.Select(u =>
            {
                seen[u.Name] = seen.GetValueOrDefault(u.Name) + 1;
                return seen[u.Name] == 1 ? u : u with { Name = string.Create(CultureInfo.InvariantCulture, $"{u.Name} ({seen[u.Name]})") };
            }),
        ];
    }

    private void Say(List<Recording> units, TaxonIndex? taxa, List<string> notes)
    {
        if (From == SurveySource.Plots)
        {
            var protocols = Survey.Survey.Protocols;
            if (protocols.Select(p => p.Protocol.Scale).Distinct().Count() > 1)
                notes.Add("The protocol changed its scale: amounts of before and after are set beside each other, and don’t compare well.");
            if (Protocol()?.Scale is PlotScale.SevenClasses or PlotScale.TenClasses)
                notes.Add(
                    $"Classes stand for {string.Join(", ", CoverClass.Of(Protocol()!.Scale).Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.Mark} = {c.Percent} %")))}; "
                        + "the low ones count individuals, and their per cent is a convention. Ranks of classes need none of this: likeness by Sørensen or Jaccard uses presence alone."
                );
            if (Protocol() is { Layers.Count: > 1, Scale: PlotScale.Percent or PlotScale.SevenClasses or PlotScale.TenClasses })
                notes.Add("Covers of several layers are put together as if they lay over each other at random: 1 − Π(1 − c).");
            var departures = PlotRecord.Holding(Survey.Records).Count(r => r.Departure.Length > 0);
            if (departures > 0)
                notes.Add(Counted(departures, "recording departs", "recordings depart") + " from the protocol.");
        }
        if (taxa is null)
            return;
        var names = units.SelectMany(u => u.Amounts.Keys).ToHashSet(StringComparer.Ordinal);
        var known = names
            .Order(StringComparer.Ordinal)
            .Select(name => (Name: name, Taxon: taxa.Find(name)))
            .Where(x => x.Taxon is not null)
            .ToList();
        foreach (var (name, taxon) in known)
        {
            notes.AddRange(
                (taxon!.Facts?.Synonyms ?? [])
                    .Where(names.Contains)
                    .Select(other => $"{other} is another name of {name}, and both were recorded: they count as two.")
            );
            notes.AddRange(
                known
                    .Where(k => taxon.Facts?.Members.Contains(k.Taxon!.Id, StringComparer.Ordinal) == true)
                    .Select(k =>
                        $"{name} was recorded and {k.Taxon!.Name}, which is a part of it: they count as two, and a change between years may be one of the name."
                    )
                    .Distinct(StringComparer.Ordinal)
            );
        }
    }

    private List<Recording> Pooled(List<Recording> units, SampleKind kind) =>
        By == SurveyUnit.Each
            ? units
            :
            [
                .. units
                    .GroupBy(u => NameOf(u, By), StringComparer.Ordinal)
                    .OrderBy(g => g.Key, StringComparer.Ordinal)
                    .Select(g => new Recording(
                        g.Key,
                        "",
                        0,
                        "",
                        0,
                        g.SelectMany(u => u.Amounts)
                            .GroupBy(a => a.Key, StringComparer.Ordinal)
                            .ToDictionary(
                                a => a.Key,
                                a =>
                                    kind == SampleKind.Individuals ? a.Sum(x => x.Value)
                                    : kind == SampleKind.Incidence ? 1
                                    : a.Sum(x => x.Value) / g.Count(),
                                StringComparer.Ordinal
                            )
                    )),
            ];

    // An empty sample is there too: with a taxon that it hasn't.
    private static List<SampleValue> Values(List<Recording> samples)
    {
        var any = samples.SelectMany(s => s.Amounts.Keys).FirstOrDefault() ?? "(nothing)";
        return
        [
            .. samples.SelectMany(s =>
                s.Amounts.Count == 0 ? [new SampleValue(s.Name, any, 0)] : s.Amounts.Select(a => new SampleValue(s.Name, a.Key, a.Value))
            ),
        ];
    }

    private static Community Table(List<Recording> units)
    {
        string[] taxa = [.. units.SelectMany(u => u.Amounts.Keys).Distinct(StringComparer.Ordinal)];
        return new Community(
            [.. units.Select(u => u.Name)],
            taxa,
            [.. units.Select(u => taxa.Select(t => u.Amounts.GetValueOrDefault(t)).ToArray())]
        );
    }

    private static string Counted(int number, string one, string several) =>
        string.Create(CultureInfo.InvariantCulture, $"{number} {(number == 1 ? one : several)}");
}

/// <summary>The figures of a survey.</summary>
/// <param name="Kind">What the values are.</param>
/// <param name="Samples">Names of the samples, in their order.</param>
/// <param name="Notes">What has to be known to read them.</param>
/// <param name="Statistics">The figures; null where nothing was recorded.</param>
/// <param name="Frequencies">In how many recordings each taxon stands, the most frequent first; none where they can't be compared.</param>
/// <param name="Indicators">Which taxa stand for which group, the best first; none with one group.</param>
/// <param name="Unit">The unit of the amounts; empty where only presence is known.</param>
/// <param name="More">What more samples would find: as many as there are, half as many again, twice as many.</param>
public sealed record SurveyFigures(
    SampleKind Kind,
    IReadOnlyList<string> Samples,
    IReadOnlyList<string> Notes,
    StatisticsResponse? Statistics,
    IReadOnlyList<TaxonFrequency> Frequencies,
    IReadOnlyList<IndicatorValue> Indicators,
    string Unit,
    IReadOnlyList<MoreSamples> More
);

/// <summary>What would be found in more samples like those there are.</summary>
/// <param name="Samples">So many in all.</param>
/// <param name="Richness">Taxa to be expected in them.</param>
/// <param name="Coverage">The share of all finds to be expected whose taxa are among them, 0 to 1.</param>
public sealed record MoreSamples(int Samples, double Richness, double Coverage);

/// <summary>Asks what changed in a survey's plots between two years.</summary>
/// <param name="Survey">The survey.</param>
/// <param name="From">The earlier year; null: the first in which permanent plots were recorded.</param>
/// <param name="To">The later one; null: the last.</param>
public sealed record SurveyChangeRequest(SurveyWhole Survey, int? From = null, int? To = null)
{
    /// <summary>Works it out; none where no plot was recorded in both years.</summary>
    public IReadOnlyList<SurveyChange> WorkOut()
    {
        var permanent = Survey.Plots.Where(p => p.IsPermanent).Select(p => p.Id).ToHashSet();
        var holding = PlotRecord.Holding(Survey.Records);
        var byYear = holding
            .Where(r => r.Repeats is null && permanent.Contains(r.PlotId))
            .GroupBy(r => r.Date.Year)
            .ToDictionary(g => g.Key, g => g.GroupBy(r => r.PlotId).ToDictionary(p => p.Key, p => p.OrderBy(r => r.Date).Last()));
        if (byYear.Count < 2)
            return [];
        var (from, to) = (From ?? byYear.Keys.Min(), To ?? byYear.Keys.Max());
        if (from >= to || !byYear.TryGetValue(from, out var before) || !byYear.TryGetValue(to, out var after))
            return [];
        Guid[] plots = [.. before.Keys.Where(after.ContainsKey).Order()];
        if (plots.Length == 0)
            return [];
        var pairs = plots.Select(p => (Before: Names(before[p]), After: Names(after[p]))).ToList();
        var twice = holding
            .Where(r => r.Repeats is not null)
            .Select(r => (First: holding.FirstOrDefault(f => f.Id == r.Repeats), Second: r))
            .Where(x => x.First is not null)
            .Select(x => PairedChange.Turnover(Names(x.First!), Names(x.Second)))
            .OfType<double>()
            .ToList();
        double[] differences = [.. pairs.Select(p => (double)p.After.Count - p.Before.Count)];
        var turnover = pairs.Select(p => PairedChange.Turnover(p.Before, p.After)).OfType<double>().ToList();
        var taxa = pairs.SelectMany(p => p.Before.Concat(p.After)).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal);
        return
        [
            new SurveyChange(
                from,
                to,
                plots.Length,
                PairedChange.OfMean(differences)!,
                PairedChange.Deviation(differences),
                turnover.Count > 0 ? turnover.Average() : null,
                twice.Count > 0 ? twice.Average() : null,
                twice.Count,
                [
                    .. taxa.Select(t => Of(t, pairs))
                        .OrderByDescending(t => Math.Abs(t.Share.Value))
                        .ThenBy(t => t.Taxon, StringComparer.Ordinal),
                ]
            ),
        ];
    }

    private static TaxonChange Of(string taxon, List<(HashSet<string> Before, HashSet<string> After)> pairs)
    {
        var both = pairs.Count(p => p.Before.Contains(taxon) && p.After.Contains(taxon));
        var lost = pairs.Count(p => p.Before.Contains(taxon) && !p.After.Contains(taxon));
        var gained = pairs.Count(p => !p.Before.Contains(taxon) && p.After.Contains(taxon));
        return new TaxonChange(taxon, both, lost, gained, PairedChange.OfShare(both, lost, gained, pairs.Count - both - lost - gained)!);
    }

    private static HashSet<string> Names(PlotRecord record) => record.Finds.Select(f => f.Taxon).ToHashSet(StringComparer.Ordinal);
}

/// <summary>How the share of plots with a taxon changed.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Both">Plots with it in both years.</param>
/// <param name="Lost">Plots with it in the earlier year alone.</param>
/// <param name="Gained">Plots with it in the later year alone.</param>
/// <param name="Share">The change of the share.</param>
public sealed record TaxonChange(string Taxon, int Both, int Lost, int Gained, Change Share);

/// <summary>What changed in permanent plots between two years.</summary>
/// <param name="From">The earlier year.</param>
/// <param name="To">The later year.</param>
/// <param name="Plots">Plots recorded in both.</param>
/// <param name="Richness">Mean change of the number of taxa in a plot.</param>
/// <param name="Deviation">Standard deviation of these changes; null with fewer than two plots.</param>
/// <param name="Turnover">Mean share of taxa found in one of the years alone; null where all plots are empty.</param>
/// <param name="PseudoTurnover">The same between two independent recordings of one visit: what of the turnover is overlooking; null where
/// none was made.</param>
/// <param name="Twice">How many plots were recorded twice.</param>
/// <param name="Taxa">The taxa, those that changed most first.</param>
public sealed record SurveyChange(
    int From,
    int To,
    int Plots,
    Change Richness,
    double? Deviation,
    double? Turnover,
    double? PseudoTurnover,
    int Twice,
    IReadOnlyList<TaxonChange> Taxa
);

/// <summary>Asks for spots for plots.</summary>
/// <param name="Ground">The place with its boundary.</param>
/// <param name="Placing">How they are chosen.</param>
/// <param name="Count">How many.</param>
/// <param name="ApartMetres">How far apart at least.</param>
/// <param name="Seed">Where chance begins.</param>
public sealed record LayPlotsRequest(GroundDescription Ground, PlotPlacing Placing, int Count, double ApartMetres, long Seed)
{
    private const double FarthestApart = 10_000;

    /// <summary>Finds them.</summary>
    /// <exception cref="RequestException">They can't be laid so.</exception>
    public IReadOnlyList<PlacedPlot> Lay()
    {
        if (!(ApartMetres is >= 0 and <= FarthestApart))
            throw new RequestException("apartMetres", "Plots lie 0 to 10,000 metres apart.");
        var (spots, problem) = PlotLaying.Lay(Ground, Placing, Count, ApartMetres, Seed);
        return problem.Length > 0 ? throw new RequestException("ground", problem) : spots;
    }
}

/// <summary>Asks how much has to be recorded.</summary>
/// <param name="Deviation">Standard deviation of the differences between two recordings of a plot.</param>
/// <param name="Change">The change to be seen.</param>
/// <param name="Chance">With which probability one visit finds a plant that is there.</param>
/// <param name="Wanted">With which one it is to be found by all together.</param>
public sealed record SurveyDesignRequest(double Deviation, double Change, double Chance, double Wanted)
{
    private static readonly int[] PlotNumbers = [5, 10, 15, 20, 30, 40, 60, 80, 120, 200];

    // More than a dozen visits a year nobody makes to find one plant.
    private const int MostVisits = 12;

    /// <summary>Works it out.</summary>
    public SurveyDesignAnswer WorkOut() =>
        new(
            SurveyDesign.PlotsFor(Deviation, Change),
            SurveyDesign.VisitsFor(Chance, Wanted),
            [.. PlotNumbers.Select(n => new SeenChange(n, SurveyDesign.ChangeSeenBy(n, Deviation))).Where(c => c.Change is not null)],
            Chance is > 0 and < 1 ? [.. Enumerable.Range(1, MostVisits).Select(n => 1 - Math.Pow(1 - Chance, n))] : []
        );
}

/// <summary>How much has to be recorded.</summary>
/// <param name="Plots">Plots that see the change in four of five surveys; null where it can't be said.</param>
/// <param name="Visits">Visits that find the plant; null where it can't be said.</param>
/// <param name="Seen">The change that some numbers of plots see.</param>
/// <param name="Found">With which probability a plant that is there is found by one visit, two, three …</param>
public sealed record SurveyDesignAnswer(int? Plots, int? Visits, IReadOnlyList<SeenChange> Seen, IReadOnlyList<double> Found);

/// <summary>The change that a number of plots sees in four of five surveys.</summary>
/// <param name="Plots">So many plots.</param>
/// <param name="Change">The smallest change; null where it can't be said.</param>
public sealed record SeenChange(int Plots, double? Change);

/// <summary>Asks at how many of a survey's places a taxon is, and how surely a visit finds it: was it missed, or is it gone?</summary>
/// <param name="Survey">The survey.</param>
/// <param name="Taxon">Its name.</param>
/// <param name="Year">The year within which nothing is held to come or go; null: the last with visits.</param>
public sealed record SurveyOccupancyRequest(SurveyWhole Survey, string Taxon, int? Year = null)
{
    /// <summary>Works it out.</summary>
    public SurveyOccupancy WorkOut()
    {
        var year = Year ?? Survey.Visits.Select(v => v.Date.Year).DefaultIfEmpty(0).Max();
        // A visit says that it wasn't there only where its list is complete, or where it was sought.
        var histories = Survey
            .Visits.Where(v => v.Date.Year == year)
            .Select(v => (v.Place.Id, IsFound: v.Records.Any(r => r.Lines[0].Name == Taxon), v))
            .Where(x =>
                x.IsFound || x.v.Closing?.Completeness == Completeness.Complete || x.v.Closing?.Sought.Any(s => s.Taxon == Taxon) == true
            )
            .GroupBy(x => x.Id)
            .Select(g => (IReadOnlyList<bool>)[.. g.Select(x => x.IsFound)])
            .ToList();
        var occupancy = Occupancy.Of(histories);
        return new SurveyOccupancy(Taxon, year, occupancy, Says(histories, occupancy));
    }

    private static string Says(List<IReadOnlyList<bool>> histories, Occupancy? it)
    {
        var (visits, found) = (histories.Sum(h => h.Count), histories.Sum(h => h.Count(x => x)));
        if (visits == 0)
            return "No visit of this year says whether it was there: lists count that are complete, or where it was named as sought.";
        if (found == 0)
            return string.Create(
                CultureInfo.InvariantCulture,
                $"It wasn’t found on any of {visits} visits that could say so. How surely a visit finds it isn’t known from these: gone and missed look alike."
            );
        if (it is null)
            return "No place was visited twice this year: how surely a visit finds it can’t be told from single visits.";
        var missed = Math.Pow(1 - it.Detection, (double)it.Visits / it.Places);
        return string.Create(
                CultureInfo.InvariantCulture,
                $"Found at {it.FoundAt} of {it.Places} places, on {it.Found} of {it.Visits} visits. Where it is, one visit finds it with {100 * it.Detection:0} %"
            )
            + Bounds(it.DetectionLow, it.DetectionHigh)
            + string.Create(CultureInfo.InvariantCulture, $"; so it is at about {100 * it.Share:0} % of the places")
            + Bounds(it.ShareLow, it.ShareHigh)
            + string.Create(
                CultureInfo.InvariantCulture,
                $". A place with as many visits as the others missed it with {100 * missed:0} % though it was there"
            )
            + (
                SurveyDesign.VisitsFor(it.Detection, 0.95) is { } needed
                    ? string.Create(CultureInfo.InvariantCulture, $"; after {needed} visits in vain it may be called gone with 95 %.")
                    : "."
            )
            + " That holds if within the year nothing came or went; a plant that rests underground for a year is there and can’t be found.";
    }

    private static string Bounds(double? low, double? high) =>
        low is { } l && high is { } h
            ? string.Create(CultureInfo.InvariantCulture, $" (95 %: {100 * l:0} to {100 * h:0} %)")
            : " (so few visits give it no bounds)";
}

/// <summary>Where a taxon is, and how surely it is found.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Year">The year.</param>
/// <param name="Occupancy">The figures; null where the visits don't say them.</param>
/// <param name="Says">What they say, in sentences.</param>
public sealed record SurveyOccupancy(string Taxon, int Year, Occupancy? Occupancy, string Says);

/// <summary>Asks what can't be so in the recording of a plot.</summary>
/// <param name="Protocol">The protocol.</param>
/// <param name="Record">The recording.</param>
public sealed record PlotCheckRequest(SurveyProtocol Protocol, RecordPlotCommand Record)
{
    /// <summary>Tells it: one problem at most.</summary>
    public IReadOnlyList<PlotProblem> Check() =>
        SurveyDocuments.RecordOf(Record, default, 0).Problem(Protocol) is var (field, message) ? [new PlotProblem(field, message)] : [];
}

/// <summary>What can't be so in the recording of a plot.</summary>
/// <param name="Field">Where: "finds[3]", "bareGround".</param>
/// <param name="Message">What, in a sentence.</param>
public sealed record PlotProblem(string Field, string Message);
