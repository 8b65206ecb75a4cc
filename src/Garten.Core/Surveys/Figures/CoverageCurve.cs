namespace Garten.Core.Surveys.Figures;

/// <summary>A point of a curve of taxa by coverage.</summary>
/// <param name="Samples">So many samples.</param>
/// <param name="Richness">Taxa to be expected in them.</param>
/// <param name="Coverage">The share of all finds to be expected whose taxa are among them, 0 to 1.</param>
/// <param name="IsBeyond">Whether these are more samples than there are.</param>
public sealed record CoveragePoint(int Samples, double Richness, double Coverage, bool IsBeyond);

/// <summary>How the taxa of a group of samples grow with coverage.</summary>
/// <param name="Group">The group.</param>
/// <param name="Samples">Its samples.</param>
/// <param name="Richness">Taxa found in them.</param>
/// <param name="Coverage">Their coverage.</param>
/// <param name="AtCommon">Taxa to be expected at the coverage that all groups reach.</param>
/// <param name="Points">The curve, up to twice the samples.</param>
public sealed record CoverageCurve(
    string Group,
    int Samples,
    int Richness,
    double Coverage,
    double AtCommon,
    IReadOnlyList<CoveragePoint> Points
);

/// <summary>Groups compared at equal coverage instead of equal numbers of samples: where more is still unseen, more samples are needed to
/// say as much (Chao and Jost 2012: Coverage-based rarefaction and extrapolation; for samples Chao and others 2014: Rarefaction and
/// extrapolation with Hill numbers).</summary>
/// <param name="Common">The coverage that all groups reach by what was recorded: the lowest of theirs.</param>
/// <param name="Curves">One a group with two samples or more, and taxa in them.</param>
public sealed record CoverageComparison(double Common, IReadOnlyList<CoverageCurve> Curves)
{
    // A drawing needs no more.
    private const int MostPoints = 60;

    /// <summary>Compares groups; null where none has two samples with taxa.</summary>
    /// <param name="community">The samples.</param>
    /// <param name="groups">The group of each.</param>
    public static CoverageComparison? Of(Community community, IReadOnlyList<string> groups)
    {
        ArgumentNullException.ThrowIfNull(community);
        ArgumentNullException.ThrowIfNull(groups);
        var curves = groups
            .Index()
            .GroupBy(g => g.Item, g => g.Index, StringComparer.Ordinal)
            .Select(g => (Group: g.Key, Samples: g.Count(), Points: Points(Part(community, [.. g]))))
            .Where(c => c.Points.Count > 0)
            .ToList();
        if (curves.Count == 0)
            return null;
        var common = curves.Min(c => Observed(c.Points).Coverage);
        return new CoverageComparison(
            common,
            [
                .. curves.Select(c =>
                {
                    var observed = Observed(c.Points);
                    return new CoverageCurve(
                        c.Group,
                        c.Samples,
                        (int)Math.Round(observed.Richness),
                        observed.Coverage,
                        At(c.Points, common),
                        Thinned(c.Points)
                    );
                }),
            ]
        );
    }

    private static CoveragePoint Observed(IReadOnlyList<CoveragePoint> points) => points.Last(p => !p.IsBeyond);

    private static Community Part(Community community, int[] samples) =>
        new([.. samples.Select(s => community.Samples[s])], community.Taxa, [.. samples.Select(s => community.Of(s).ToArray())]);

    // From one sample to twice as many as there are.
    private static List<CoveragePoint> Points(Community part)
    {
        var n = part.Samples.Count;
        var finds = part.Frequencies.Sum();
        if (IncidenceEstimators.Coverage(part) is not { } whole || finds == 0)
            return [];
        var points = new List<CoveragePoint>();
        // The probabilities that a taxon isn't in t of n samples, and not in t of the n − 1 others, one from the other.
        var (missed, missedElse) = (part.Frequencies.Select(_ => 1.0).ToArray(), part.Frequencies.Select(_ => 1.0).ToArray());
        for (var t = 1; t < n; t++)
        {
            var (richness, unseen) = (0.0, 0.0);
            for (var i = 0; i < missed.Length; i++)
            {
                double left = Math.Max(0, n - part.Frequencies[i] - (t - 1));
                missed[i] *= left / (n - (t - 1));
                missedElse[i] *= left / (n - 1 - (t - 1));
                richness += 1 - missed[i];
                unseen += (double)part.Frequencies[i] / finds * missedElse[i];
            }
            points.Add(new CoveragePoint(t, richness, 1 - unseen, false));
        }
        points.Add(new CoveragePoint(n, part.Taxa.Count, whole, false));
        for (var more = 1; more <= n; more++)
            points.Add(
                new CoveragePoint(
                    n + more,
                    IncidenceEstimators.Extrapolated(part, more)!.Value,
                    IncidenceEstimators.Coverage(part, more)!.Value,
                    true
                )
            );
        return points;
    }

    // On the straight line between the two numbers of samples around it, from nothing at none.
    private static double At(IReadOnlyList<CoveragePoint> points, double coverage)
    {
        var (before, from) = (0.0, 0.0);
        foreach (var point in points)
        {
            if (point.Coverage >= coverage)
                return point.Coverage > from
                    ? before + (point.Richness - before) * (coverage - from) / (point.Coverage - from)
                    : point.Richness;
            (before, from) = (point.Richness, point.Coverage);
        }
        return before;
    }

    private static IReadOnlyList<CoveragePoint> Thinned(List<CoveragePoint> points)
    {
        var step = (points.Count + MostPoints - 1) / MostPoints;
        var observed = Observed(points);
        return [.. points.Where((p, i) => i % step == 0 || i == points.Count - 1 || p == observed)];
    }
}
