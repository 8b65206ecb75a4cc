using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>A taxon in a recording.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Part">The part of the place; empty where not said.</param>
/// <param name="Growth">Whether it grows wild; null where not said.</param>
/// <param name="Nest">Of nested squares the smallest in which it stands, from 1; null: in the largest alone, or there are none.</param>
internal sealed record RecordedTaxon(string Taxon, string Part, WildOrPlanted? Growth, int? Nest);

/// <summary>A recording of a survey: a plot of a day, or the list of a visit.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Place">Its place.</param>
/// <param name="Year">Its year.</param>
/// <param name="Group">What it is compared under; may be empty.</param>
/// <param name="SquareMetres">Its size; 0 of a list.</param>
/// <param name="Amounts">How much of each taxon.</param>
/// <param name="Ranks">The ranks of their classes; empty where there are none.</param>
/// <param name="Taxa">The taxa as they were found.</param>
/// <param name="Protocol">By which it was made; null of a list.</param>
internal sealed record Recording(
    string Name,
    string Place,
    int Year,
    string Group,
    double SquareMetres,
    IReadOnlyDictionary<string, double> Amounts,
    IReadOnlyDictionary<string, double> Ranks,
    IReadOnlyList<RecordedTaxon> Taxa,
    SurveyProtocol? Protocol
)
{
    /// <summary>Its name by a unit.</summary>
    public string NameBy(SurveyUnit by) =>
        by switch
        {
            SurveyUnit.Place => Place,
            SurveyUnit.Year => Year.ToString(CultureInfo.InvariantCulture),
            SurveyUnit.Group => Group.Length > 0 ? Group : "(no group)",
            _ => Name,
        };
}

/// <summary>The recordings of a survey that its figures are worked out from, with what has to be known to read them.</summary>
/// <param name="All">The recordings.</param>
/// <param name="Kind">What their values are.</param>
/// <param name="Notes">What has to be known.</param>
internal sealed record SurveyRecordings(IReadOnlyList<Recording> All, SampleKind Kind, IReadOnlyList<string> Notes)
{
    /// <summary>Gathers them.</summary>
    /// <param name="whole">The survey.</param>
    /// <param name="from">From what.</param>
    /// <param name="byYear">Whether years are told apart: a plot counts once otherwise.</param>
    /// <param name="taxa">What is known of taxa; null where nothing is.</param>
    public static SurveyRecordings Of(SurveyWhole whole, SurveySource from, bool byYear, TaxonIndex? taxa)
    {
        ArgumentNullException.ThrowIfNull(whole);
        var notes = new List<string>();
        var all = from == SurveySource.Plots ? OfPlots(whole, byYear, notes) : OfLists(whole, notes);
        var scale = whole.Survey.Now()?.Protocol.Scale;
        var kind =
            from == SurveySource.Lists ? SampleKind.Incidence
            : scale is PlotScale.Presence or null ? SampleKind.Incidence
            : scale == PlotScale.Count ? SampleKind.Individuals
            : SampleKind.Cover;
        if (from == SurveySource.Plots)
            SayOfPlots(whole, notes);
        if (taxa is not null)
            SayOfNames(all, taxa, notes);
        var empty = all.Count(u => u.Amounts.Count == 0);
        if (empty > 0)
            notes.Add(
                Counted(empty, "recording is", "recordings are")
                    + (empty == 1 ? " empty: nothing was found there. It counts" : " empty: nothing was found there. They count")
                    + " among the samples."
            );
        return new SurveyRecordings(all, kind, notes);
    }

    /// <summary>Put together by a unit: individuals are added, of covers the mean is taken, of lists what stands in any.</summary>
    public IReadOnlyList<Recording> By(SurveyUnit by) =>
        by == SurveyUnit.Each
            ? All
            :
            [
                .. All.GroupBy(u => u.NameBy(by), StringComparer.Ordinal)
                    .OrderBy(g => g.Key, StringComparer.Ordinal)
                    .Select(g =>
                        g.First() with
                        {
                            Name = g.Key,
                            Amounts = g.SelectMany(u => u.Amounts)
                                .GroupBy(a => a.Key, StringComparer.Ordinal)
                                .ToDictionary(
                                    a => a.Key,
                                    a =>
                                        Kind == SampleKind.Individuals ? a.Sum(x => x.Value)
                                        : Kind == SampleKind.Incidence ? 1
                                        : a.Sum(x => x.Value) / g.Count(),
                                    StringComparer.Ordinal
                                ),
                            Taxa = [.. g.SelectMany(u => u.Taxa)],
                        }
                    ),
            ];

    /// <summary>Recordings as a table.</summary>
    /// <param name="recordings">The recordings.</param>
    /// <param name="asRanks">By the ranks of classes instead of the amounts that stand for them.</param>
    public static Community Table(IReadOnlyList<Recording> recordings, bool asRanks = false)
    {
        ArgumentNullException.ThrowIfNull(recordings);
        string[] taxa = [.. recordings.SelectMany(u => u.Amounts.Keys).Distinct(StringComparer.Ordinal)];
        return new Community(
            [.. recordings.Select(u => u.Name)],
            taxa,
            [.. recordings.Select(u => taxa.Select(t => (asRanks ? u.Ranks : u.Amounts).GetValueOrDefault(t)).ToArray())]
        );
    }

    private static List<Recording> OfPlots(SurveyWhole whole, bool byYear, List<string> notes)
    {
        var plots = whole.Plots.ToDictionary(p => p.Id);
        var places = whole.Survey.Places.ToDictionary(p => p.Id, p => p.Name);
        var holding = PlotRecord.Holding(whole.Records).Where(r => plots.ContainsKey(r.PlotId)).ToList();
        var firsts = holding.Where(r => r.Repeats is null).ToList();
        if (holding.Count > firsts.Count)
            notes.Add(
                Counted(holding.Count - firsts.Count, "plot was", "plots were")
                    + " recorded twice, independently: the second recordings are left out here, and stand beside the change."
            );
        // A plot that was recorded again is the same plot: it counts once, but where years are compared.
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
                var protocol = whole.Survey.ProtocolOf(r.ProtocolVersion)!;
                return new Recording(
                    severalYears ? string.Create(CultureInfo.InvariantCulture, $"{plot.Label} · {r.Date.Year}") : plot.Label,
                    places.GetValueOrDefault(plot.PlaceId, "(another place)"),
                    r.Date.Year,
                    plot.Group,
                    plot.SquareMetres ?? protocol.SquareMetres,
                    r.Amounts(protocol),
                    r.Ranks(protocol),
                    [
                        .. r
                            .Finds.GroupBy(f => f.Taxon, StringComparer.Ordinal)
                            .Select(g => new RecordedTaxon(g.Key, plot.Part, null, g.Min(f => f.Nest))),
                    ],
                    protocol
                );
            }),
        ];
    }

    private static List<Recording> OfLists(SurveyWhole whole, List<string> notes)
    {
        var unnamed = 0;
        var units = new List<Recording>();
        foreach (var visit in whole.Visits.OrderBy(v => v.Date).ThenBy(v => v.StartedAt, StringComparer.Ordinal))
        {
            var records = visit.Records;
            unnamed += records.Count(r => r.Lines[0].Name.Length == 0);
            var named = records.Select(r => r.Lines[0]).Where(l => l.Name.Length > 0).ToList();
            string[] names = [.. named.Select(l => l.Name).Distinct(StringComparer.Ordinal)];
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
                    names.ToDictionary(n => n, _ => 1.0, StringComparer.Ordinal),
                    new Dictionary<string, double>(),
                    [.. named.Select(l => new RecordedTaxon(l.Name, l.Compartment, l.Details.Growth, null))],
                    null
                )
            );
        }
        if (unnamed > 0)
            notes.Add(Counted(unnamed, "plant without a name isn’t", "plants without a name aren’t") + " in the figures.");
        var partial = whole.Visits.Count(v => v.Lines.Count > 0 && v.Closing?.Completeness != Completeness.Complete);
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

    private static void SayOfPlots(SurveyWhole whole, List<string> notes)
    {
        if (whole.Survey.Protocols.Select(p => p.Protocol.Scale).Distinct().Count() > 1)
            notes.Add("The protocol changed its scale: amounts of before and after are set beside each other, and don’t compare well.");
        var protocol = whole.Survey.Now()?.Protocol;
        if (protocol?.Scale is PlotScale.SevenClasses or PlotScale.TenClasses)
            notes.Add(
                $"Classes stand for "
                    + $"{string.Join(", ", CoverClass.Of(protocol.Scale).Select(c => string.Create(CultureInfo.InvariantCulture, $"{c.Mark} = {c.Percent} %")))}; "
                    + "the low ones count individuals, and their per cent is a convention. Ranks of classes need none of this: "
                    + "what is compared can be compared by them."
            );
        if (protocol is { Layers.Count: > 1, Scale: PlotScale.Percent or PlotScale.SevenClasses or PlotScale.TenClasses })
            notes.Add("Covers of several layers are put together as if they lay over each other at random: 1 − Π(1 − c).");
        var departures = PlotRecord.Holding(whole.Records).Count(r => r.Departure.Length > 0);
        if (departures > 0)
            notes.Add(Counted(departures, "recording departs", "recordings depart") + " from the protocol.");
    }

    private static void SayOfNames(List<Recording> units, TaxonIndex taxa, List<string> notes)
    {
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

    private static string Counted(int number, string one, string several) =>
        string.Create(CultureInfo.InvariantCulture, $"{number} {(number == 1 ? one : several)}");
}
