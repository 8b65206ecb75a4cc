using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Floras;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;

namespace Garten.Core.Contracts;

/// <summary>From what the figures of a survey are worked out.</summary>
[JsonConverter(typeof(CamelCaseWords<SurveySource>))]
public enum SurveySource
{
    /// <summary>From the lists of its visits: found or not.</summary>
    Lists,

    /// <summary>From its plots: what their scale notes.</summary>
    Plots,
}

/// <summary>By what recordings are put together.</summary>
[JsonConverter(typeof(CamelCaseWords<SurveyUnit>))]
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

    /// <summary>By clusters of recordings that are alike: only to compare under.</summary>
    Cluster,
}

/// <summary>Asks for the figures of a survey.</summary>
/// <param name="Survey">The survey.</param>
/// <param name="From">From what.</param>
/// <param name="By">What a sample is.</param>
/// <param name="Under">What samples are compared under, in tables of frequency and among indicators: place, year, group or
/// clusters.</param>
/// <param name="RarefyTo">To how many individuals samples are rarefied.</param>
/// <param name="AsRanks">Whether indicators and clusters go by the ranks of classes, where the scale has classes.</param>
/// <param name="Clusters">How many clusters there are where samples are compared under them: 2 to 12.</param>
public sealed record SurveyFiguresRequest(
    SurveyWhole Survey,
    SurveySource From,
    SurveyUnit By,
    SurveyUnit Under = SurveyUnit.Place,
    long? RarefyTo = null,
    bool AsRanks = false,
    int Clusters = 3
)
{
    // Chance begins there, so that a report says the same tomorrow.
    private const long Seed = 20_260_101;

    // Of more plots than this nobody reads a table.
    private const int MostUnits = StatisticsRequest.MostSamples;

    private const int FewestClusters = 2;
    private const int MostClusters = 12;

    /// <summary>Works them out.</summary>
    /// <param name="taxa">What is known of taxa: members of aggregates, synonyms; null where nothing is.</param>
    /// <exception cref="RequestException">They can't be compared so.</exception>
    public SurveyFigures WorkOut(TaxonIndex? taxa = null)
    {
        if (By == SurveyUnit.Cluster)
            throw new RequestException("by", "Clusters are made of recordings: compare under them, with another sample.");
        if (Under == SurveyUnit.Cluster && Clusters is < FewestClusters or > MostClusters)
            throw new RequestException("clusters", "Ask for 2 to 12 clusters.");
        var recordings = SurveyRecordings.Of(Survey, From, By == SurveyUnit.Year || Under == SurveyUnit.Year, taxa);
        var (units, kind) = (recordings.All, recordings.Kind);
        var notes = recordings.Notes.ToList();
        if (units.Count > MostUnits)
            return SurveyFigures.Nothing(
                kind,
                [
                    .. notes,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"There are {units.Count:N0} recordings, and figures are worked out of at most {MostUnits:N0} at a time: "
                            + $"divide the survey by places or years."
                    ),
                ]
            );
        var samples = recordings.By(By);
        if (samples.Count == 0)
            return SurveyFigures.Nothing(kind, [.. notes, "Nothing was recorded yet: there is nothing to work out."]);
        var statistics = new StatisticsRequest(kind, Values(samples), RarefyTo).WorkOut();
        var sizes = units.Select(u => u.SquareMetres).Distinct().ToList();
        var isComparable = From == SurveySource.Lists || sizes.Count == 1;
        if (!isComparable)
            notes.Add(
                $"Plots of {string.Join(" and ", sizes.Order().Select(s => s.ToString("0.##", CultureInfo.InvariantCulture)))} m² "
                    + $"stand side by side: "
                    + "frequencies hang on the size, and aren’t compared."
            );
        var hasRanks = units.Any(u => u.Ranks.Count > 0);
        if (AsRanks && !hasRanks)
            notes.Add("The scale has no classes: what is compared goes by the amounts.");
        var compared = SurveyRecordings.Table(units, AsRanks && hasRanks);
        var canCluster = units.Count <= ArrangementRequest.MostSamples;
        if (Under == SurveyUnit.Cluster && !canCluster)
            notes.Add("More than 1,000 recordings aren’t clustered: they are compared by place.");
        var groups =
            Under != SurveyUnit.Cluster ? [.. units.Select(u => u.NameBy(Under))]
            : canCluster ? ClustersOf(compared, notes)
            : [.. units.Select(u => u.Place)];
        return new SurveyFigures(
            kind,
            [.. samples.Select(s => s.Name)],
            notes,
            statistics,
            isComparable ? Frequencies(units, groups, kind, sizes[0]) : [],
            isComparable
                ?
                [
                    .. IndicatorValue
                        .Of(compared, groups, Seed)
                        .OrderByDescending(i => i.Value)
                        .ThenBy(i => i.Taxon, StringComparer.Ordinal),
                ]
                : [],
            From == SurveySource.Lists ? "" : UnitOf(Survey.Survey.Now()?.Protocol.Scale),
            MoreOf(SurveyRecordings.Table(samples)),
            taxa is null ? [] : SurveyEcology.Of(samples, taxa, kind != SampleKind.Incidence),
            taxa is null ? [] : SurveyEcology.Shares(units, taxa),
            NestedFrequency.Of([
                .. units
                    .Where(u => u.Protocol?.Nests.Count > 0)
                    .Select(u => new NestedPlot(u.Protocol!.Nests, [.. u.Taxa.Select(t => (t.Taxon, t.Nest))])),
            ]),
            hasRanks,
            CoverageComparison.Of(SurveyRecordings.Table(units), groups)
        );
    }

    private IReadOnlyList<TaxonFrequency> Frequencies(
        IReadOnlyList<Recording> units,
        IReadOnlyList<string> groups,
        SampleKind kind,
        double squareMetres
    )
    {
        var scale = Survey.Survey.Now()?.Protocol.Scale;
        var classes = From == SurveySource.Plots && scale is { } s ? CoverClass.Of(s) : [];
        return TaxonFrequency.Of(
            SurveyRecordings.Table(units),
            groups,
            kind != SampleKind.Incidence,
            classes.Count == 0 ? null : (SurveyRecordings.Table(units, true), [.. classes.Select(c => c.Mark)]),
            kind == SampleKind.Individuals ? squareMetres : 0
        );
    }

    // The name of each recording's cluster. One without a taxon is like none.
    private List<string> ClustersOf(Community community, List<string> notes)
    {
        var filled = Enumerable.Range(0, community.Samples.Count).Where(s => Diversity.Richness(community.Of(s)) > 0).ToList();
        var tree = Clustering.Of(SampleDistances.Between(community, filled, SampleDistance.BrayCurtis));
        var of = tree.Cut(Clusters);
        notes.Add(
            "The clusters were made of these same recordings (average linkage of Bray–Curtis): what stands for a cluster describes it, "
                + "and its p proves nothing."
        );
        var names = Enumerable.Repeat("(empty)", community.Samples.Count).ToList();
        for (var i = 0; i < filled.Count; i++)
            names[filled[i]] = string.Create(CultureInfo.InvariantCulture, $"Cluster {of[i] + 1}");
        return names;
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

    private static string UnitOf(PlotScale? scale) =>
        scale switch
        {
            PlotScale.Percent => "% cover",
            PlotScale.SevenClasses or PlotScale.TenClasses => "% cover, by the middles of classes",
            PlotScale.Count => "individuals",
            PlotScale.Hits => "% of pins",
            _ => "",
        };

    // An empty sample is there too: with a taxon that it hasn't.
    private static List<SampleValue> Values(IReadOnlyList<Recording> samples)
    {
        var any = samples.SelectMany(s => s.Amounts.Keys).FirstOrDefault() ?? "(nothing)";
        return
        [
            .. samples.SelectMany(s =>
                s.Amounts.Count == 0 ? [new SampleValue(s.Name, any, 0)] : s.Amounts.Select(a => new SampleValue(s.Name, a.Key, a.Value))
            ),
        ];
    }
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
/// <param name="Ecology">What the taxa of each sample say of its ground; none where the flora gives no values.</param>
/// <param name="Shares">The taxa divided by origin, growth, habitat and part of the place.</param>
/// <param name="Nested">How many taxa, and which, stand in nested squares of each size; none where there are none.</param>
/// <param name="HasRanks">Whether the scale has classes, so that what is compared can be compared by their ranks.</param>
/// <param name="ByCoverage">What is compared, at equal coverage; null where no group has two recordings with taxa.</param>
public sealed record SurveyFigures(
    SampleKind Kind,
    IReadOnlyList<string> Samples,
    IReadOnlyList<string> Notes,
    StatisticsResponse? Statistics,
    IReadOnlyList<TaxonFrequency> Frequencies,
    IReadOnlyList<IndicatorValue> Indicators,
    string Unit,
    IReadOnlyList<MoreSamples> More,
    IReadOnlyList<SampleEcology> Ecology,
    IReadOnlyList<FoundShares> Shares,
    IReadOnlyList<NestedFrequency> Nested,
    bool HasRanks,
    CoverageComparison? ByCoverage
)
{
    /// <summary>Where nothing was recorded.</summary>
    internal static SurveyFigures Nothing(SampleKind kind, IReadOnlyList<string> notes) =>
        new(kind, [], notes, null, [], [], "", [], [], [], [], false, null);
}

/// <summary>What would be found in more samples like those there are.</summary>
/// <param name="Samples">So many in all.</param>
/// <param name="Richness">Taxa to be expected in them.</param>
/// <param name="Coverage">The share of all finds to be expected whose taxa are among them, 0 to 1.</param>
public sealed record MoreSamples(int Samples, double Richness, double Coverage);

/// <summary>Asks how the recordings of a survey lie to each other.</summary>
/// <param name="Survey">The survey.</param>
/// <param name="From">From what.</param>
/// <param name="By">What a sample is.</param>
/// <param name="Distance">By what they are told apart.</param>
/// <param name="AsRanks">By the ranks of classes, where the scale has classes and each recording is by itself.</param>
public sealed record SurveyArrangementRequest(
    SurveyWhole Survey,
    SurveySource From,
    SurveyUnit By = SurveyUnit.Each,
    SampleDistance Distance = SampleDistance.BrayCurtis,
    bool AsRanks = false
)
{
    // Two lie on a line whatever they are.
    private const int Fewest = 3;

    /// <summary>Works it out.</summary>
    public SurveyArrangement WorkOut()
    {
        if (By == SurveyUnit.Cluster)
            throw new RequestException("by", "Clusters are made of recordings: arrange these.");
        var recordings = SurveyRecordings.Of(Survey, From, By == SurveyUnit.Year, null);
        var samples = recordings.By(By);
        var filled = samples.Where(s => s.Amounts.Count > 0).ToList();
        var notes = new List<string>();
        if (filled.Count < samples.Count)
            notes.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{samples.Count - filled.Count} without any taxon left out: what is empty is like nothing."
                )
            );
        if (filled.Count < Fewest)
            return new SurveyArrangement(null, [], [.. notes, "Fewer than three samples have taxa: two always lie on a line."]);
        if (filled.Count > ArrangementRequest.MostSamples)
            return new SurveyArrangement(
                null,
                [],
                [.. notes, "More than 1,000 samples aren’t arranged at a time: put them together by place or group."]
            );
        var isRanked = AsRanks && By == SurveyUnit.Each && filled.TrueForAll(s => s.Ranks.Count > 0);
        if (isRanked)
            notes.Add("Classes go by their ranks: 1, 2, 3 … from the lowest.");
        return new SurveyArrangement(
            Arrangement.Of(SurveyRecordings.Table(filled, isRanked), Distance, 2),
            [.. filled.Select(s => By == SurveyUnit.Each ? GroupOf(s) : "")],
            notes
        );
    }

    private static string GroupOf(Recording it) => it.Group.Length > 0 ? it.Group : it.Place;
}

/// <summary>How the recordings of a survey lie to each other.</summary>
/// <param name="Arrangement">In a plane and as a tree; null where they can't be arranged.</param>
/// <param name="Groups">Of each sample the group that it is drawn under, or its place where it has none; empty where samples are put
/// together.</param>
/// <param name="Notes">What has to be known.</param>
public sealed record SurveyArrangement(Arrangement? Arrangement, IReadOnlyList<string> Groups, IReadOnlyList<string> Notes);
