using System.Globalization;
using Garten.Core.Grounds;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

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
        var amounts = plots.Select(p => (Before: AmountsOf(before[p]), After: AmountsOf(after[p]))).ToList();
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
                    .. taxa.Select(t => Of(t, pairs, amounts))
                        .OrderByDescending(t => Math.Abs(t.Share.Value))
                        .ThenBy(t => t.Taxon, StringComparer.Ordinal),
                ]
            ),
        ];
    }

    // By rank where the scale has classes: only their order is known.
    private IReadOnlyDictionary<string, double> AmountsOf(PlotRecord record)
    {
        var protocol = Survey.Survey.ProtocolOf(record.ProtocolVersion)!;
        return CoverClass.Of(protocol.Scale).Count > 0 ? record.Ranks(protocol) : record.Amounts(protocol);
    }

    private static TaxonChange Of(
        string taxon,
        List<(HashSet<string> Before, HashSet<string> After)> pairs,
        List<(IReadOnlyDictionary<string, double> Before, IReadOnlyDictionary<string, double> After)> amounts
    )
    {
        var signs = amounts.Select(a => Math.Sign(a.After.GetValueOrDefault(taxon) - a.Before.GetValueOrDefault(taxon))).ToList();
        var (rose, fell) = (signs.Count(s => s > 0), signs.Count(s => s < 0));
        var both = pairs.Count(p => p.Before.Contains(taxon) && p.After.Contains(taxon));
        var lost = pairs.Count(p => p.Before.Contains(taxon) && !p.After.Contains(taxon));
        var gained = pairs.Count(p => !p.Before.Contains(taxon) && p.After.Contains(taxon));
        return new TaxonChange(
            taxon,
            both,
            lost,
            gained,
            PairedChange.OfShare(both, lost, gained, pairs.Count - both - lost - gained)!,
            rose,
            fell,
            PairedChange.SignTest(rose, fell)
        );
    }

    private static HashSet<string> Names(PlotRecord record) => record.Finds.Select(f => f.Taxon).ToHashSet(StringComparer.Ordinal);
}

/// <summary>How the share of plots with a taxon changed.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Both">Plots with it in both years.</param>
/// <param name="Lost">Plots with it in the earlier year alone.</param>
/// <param name="Gained">Plots with it in the later year alone.</param>
/// <param name="Share">The change of the share.</param>
/// <param name="Rose">Plots in which there was more of it, or a higher class, in the later year.</param>
/// <param name="Fell">Plots in which there was less.</param>
/// <param name="P">How probable it is that chance alone divides these plots as unevenly (sign test); null where none rose or fell.</param>
public sealed record TaxonChange(string Taxon, int Both, int Lost, int Gained, Change Share, int Rose, int Fell, double? P);

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
                $"It wasn’t found on any of {visits} visits that could say so. How surely a visit finds it isn’t known from these: "
                    + $"gone and missed look alike."
            );
        if (it is null)
            return "No place was visited twice this year: how surely a visit finds it can’t be told from single visits.";
        var missed = Math.Pow(1 - it.Detection, (double)it.Visits / it.Places);
        return string.Create(
                CultureInfo.InvariantCulture,
                $"Found at {it.FoundAt} of {it.Places} places, on {it.Found} of {it.Visits} visits. Where it is, one visit finds it "
                    + $"with {100 * it.Detection:0} %"
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
