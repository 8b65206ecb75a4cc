using System.Globalization;
using Garten.Core.Surveys.Figures;

namespace Garten.Core.Contracts;

/// <summary>Reads a pasted table of samples and taxa, and works its figures out.</summary>
/// <param name="Text">The table.</param>
/// <param name="Layout">What its rows are.</param>
/// <param name="Kind">What its values are.</param>
/// <param name="RarefyTo">To how many individuals samples are rarefied; left out: as the smallest has.</param>
/// <param name="Distance">By what samples are told apart where they are arranged.</param>
public sealed record CommunityTableRequest(
    string Text,
    TableLayout Layout,
    SampleKind Kind,
    long? RarefyTo = null,
    SampleDistance Distance = SampleDistance.BrayCurtis
)
{
    // Two lie on a line whatever they are; of more than this nobody reads a drawing.
    private const int LeastArranged = 3;
    private const int MostArranged = 150;

    private const string OfSamples = "samples[";

    /// <summary>Reads it and works it out; where something can't be used, that alone.</summary>
    public CommunityTableAnswer WorkOut()
    {
        var (cells, problems) = CommunityTable.Read(Text ?? "", Layout, Kind == SampleKind.Incidence ? 1 : null);
        if (problems.Count > 0)
            return new CommunityTableAnswer(null, null, problems);
        try
        {
            var request = new StatisticsRequest(Kind, [.. cells.Select(c => new SampleValue(c.Sample, c.Taxon, c.Value))], RarefyTo);
            var community = request.Table();
            var arrangement = community.Samples.Count is >= LeastArranged and <= MostArranged
                ? Arrangement.Of(community, Distance, 2)
                : null;
            return new CommunityTableAnswer(request.WorkOut(), arrangement, []);
        }
        catch (RequestException wrong)
        {
            var at = wrong.Field.StartsWith(OfSamples, StringComparison.Ordinal)
                ? cells[
                    int.Parse(
                        wrong.Field.AsSpan(OfSamples.Length, wrong.Field.IndexOf(']', StringComparison.Ordinal) - OfSamples.Length),
                        CultureInfo.InvariantCulture
                    )
                ]
                : null;
            return new CommunityTableAnswer(null, null, [new TableProblem(at?.Line ?? 1, at?.Column ?? 1, wrong.Message)]);
        }
    }
}

/// <summary>What a pasted table comes to.</summary>
/// <param name="Figures">Its figures; null where something in it can't be used.</param>
/// <param name="Arrangement">How its samples lie to each other; null of fewer than 3 or more than 150, or where one is empty.</param>
/// <param name="Problems">What can't.</param>
public sealed record CommunityTableAnswer(StatisticsResponse? Figures, Arrangement? Arrangement, IReadOnlyList<TableProblem> Problems);

/// <summary>Asks how samples lie to each other.</summary>
/// <param name="Kind">What the values are.</param>
/// <param name="Samples">The values.</param>
/// <param name="Distance">By what samples are told apart.</param>
/// <param name="Axes">How many axes, 1 to 10.</param>
public sealed record ArrangementRequest(
    SampleKind Kind,
    IReadOnlyList<SampleValue> Samples,
    SampleDistance Distance = SampleDistance.BrayCurtis,
    int Axes = 2
)
{
    /// <summary>Most samples that are arranged: their distances are all held at once.</summary>
    public const int MostSamples = 1_000;

    private const int MostAxes = 10;

    /// <summary>Works it out.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public Arrangement WorkOut()
    {
        if (Axes is < 1 or > MostAxes)
            throw new RequestException("axes", "Ask for 1 to 10 axes.") { Code = "statistics.invalid" };
        var community = new StatisticsRequest(Kind, Samples).Table();
        if (community.Samples.Count > MostSamples)
            throw new RequestException("samples", "At most 1,000 samples are arranged at a time.") { Code = "statistics.invalid" };
        return Arrangement.Of(community, Distance, Axes)
            ?? throw new RequestException("samples", "A sample without any taxon has no place among others: leave it out.")
            {
                Code = "statistics.empty-sample",
            };
    }
}

/// <summary>How samples lie to each other: in a plane, and joined step by step.</summary>
/// <param name="Samples">Their names.</param>
/// <param name="Distance">By what they are told apart.</param>
/// <param name="Ordination">Principal coordinates.</param>
/// <param name="Clustering">Average linkage.</param>
/// <param name="Methods">How it is worked out.</param>
public sealed record Arrangement(
    IReadOnlyList<string> Samples,
    SampleDistance Distance,
    Ordination Ordination,
    Clustering Clustering,
    IReadOnlyList<FigureMethod> Methods
)
{
    /// <summary>Arranges samples; null where one of them is empty.</summary>
    /// <param name="community">The samples.</param>
    /// <param name="distance">By what they are told apart.</param>
    /// <param name="axes">How many axes.</param>
    public static Arrangement? Of(Community community, SampleDistance distance, int axes)
    {
        ArgumentNullException.ThrowIfNull(community);
        int[] all = [.. Enumerable.Range(0, community.Samples.Count)];
        if (all.Any(s => Diversity.Richness(community.Of(s)) == 0))
            return null;
        var distances = SampleDistances.Between(community, all, distance);
        return new Arrangement(
            community.Samples,
            distance,
            Ordination.Of(distances, axes),
            Clustering.Of(distances),
            FigureMethods.OfArrangement
        );
    }
}
