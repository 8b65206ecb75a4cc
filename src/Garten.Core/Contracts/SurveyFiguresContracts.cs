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
                $"Plots of {string.Join(" and ", sizes.Order().Select(s => s.ToString("0.##", CultureInfo.InvariantCulture)))} m² "
                    + $"stand side by side: "
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
                    $"Classes stand for "
                        + $"{string.Join(", ", CoverClass.Of(Protocol()!.Scale).Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.Mark} = {c.Percent} %")))}; "
                        + "the low ones count individuals, and their per cent is a convention. Ranks of classes need none of this: "
                        + "likeness by Sørensen or Jaccard uses presence alone."
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
                        $"{name} was recorded and {k.Taxon!.Name}, which is a part of it: they count as two, and a change between "
                        + $"years may be one of the name."
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
