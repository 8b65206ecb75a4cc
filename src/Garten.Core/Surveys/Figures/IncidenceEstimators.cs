namespace Garten.Core.Surveys.Figures;

/// <summary>A point of the curve of accumulation.</summary>
/// <param name="Samples">So many samples.</param>
/// <param name="Richness">Taxa to be expected in them.</param>
/// <param name="Sd">Standard deviation over the orders in which they may be taken, of these very samples: 0 at the last.</param>
public sealed record AccumulationPoint(int Samples, double Richness, double Sd);

/// <summary>How many taxa there are in all, from the samples in which each was found; and how their number grows with samples.</summary>
public static class IncidenceEstimators
{
    /// <summary>
    /// Chao2, classic: S + (T−1)/T · q1² / (2 q2), where q1 taxa stand in one of T samples and q2 in two; without any in two the
    /// bias-corrected form S + (T−1)/T · q1(q1−1) / 2 (Chao 1987). Standard error after the same.
    /// </summary>
    public static Estimate Chao2(Community community)
    {
        var (taxa, samples, q1, q2) = Counts(community);
        if (taxa == 0)
            return Estimate.None;
        var small = (samples - 1.0) / samples;
        if (q2 > 0)
        {
            var ratio = q1 / q2;
            return Estimate.Of(
                taxa + small * q1 * q1 / (2 * q2),
                q2 * (small * ratio * ratio / 2 + small * small * (ratio * ratio * ratio + ratio * ratio * ratio * ratio / 4))
            );
        }
        var all = taxa + small * q1 * (q1 - 1) / 2;
        var twice = 2 * q1 - 1;
        return Estimate.Of(all, small * (small * (q1 * twice * twice / 4 - q1 * q1 * q1 * q1 / all / 4) + q1 * (q1 - 1) / 2));
    }

    /// <summary>
    /// The share of all finds to be expected whose taxa are among those found: 1 − (q1/U) · A with A = (T−1) q1 / ((T−1) q1 + 2 q2), where
    /// U is the number of finds; after so many more samples 1 − (q1/U) · A^(more+1) (Chao and Jost 2012; for samples Chao and others 2014:
    /// Rarefaction and extrapolation with Hill numbers). Without taxa in two samples A is (T−1)(q1−1) / ((T−1)(q1−1) + 2).
    /// </summary>
    /// <param name="community">The samples.</param>
    /// <param name="more">Samples more than there are; 0 or more.</param>
    /// <returns>0 to 1; null without a taxon, or with one sample.</returns>
    public static double? Coverage(Community community, int more = 0)
    {
        ArgumentNullException.ThrowIfNull(community);
        ArgumentOutOfRangeException.ThrowIfNegative(more);
        var (taxa, samples, q1, q2) = Counts(community);
        if (taxa == 0 || samples < 2)
            return null;
        if (q1 == 0)
            return 1;
        var finds = (double)community.Frequencies.Sum();
        var others = samples - 1;
        var left = q2 > 0 ? others * q1 / (others * q1 + 2 * q2) : others * (q1 - 1) / (others * (q1 - 1) + 2);
        return 1 - q1 / finds * Math.Pow(left, more + 1);
    }

    /// <summary>
    /// Taxa to be expected in more samples: S + Q0 (1 − (1 − q1 / (q1 + T Q0))^more), where Q0 is what Chao2 holds for unseen (Colwell and
    /// others 2012: Models and estimators linking individual-based and sample-based rarefaction, extrapolation). To be trusted up to about
    /// twice the samples.
    /// </summary>
    /// <param name="community">The samples.</param>
    /// <param name="more">Samples more than there are; 0 or more.</param>
    /// <returns>Null without a taxon, or with one sample.</returns>
    public static double? Extrapolated(Community community, int more)
    {
        ArgumentNullException.ThrowIfNull(community);
        ArgumentOutOfRangeException.ThrowIfNegative(more);
        var (taxa, samples, q1, _) = Counts(community);
        if (taxa == 0 || samples < 2)
            return null;
        var unseen = (Chao2(community).Value ?? taxa) - taxa;
        return unseen <= 0 ? taxa : taxa + unseen * (1 - Math.Pow(1 - q1 / (q1 + samples * unseen), more));
    }

    /// <summary>First-order jackknife: S + q1 (T−1)/T (Burnham and Overton 1978; standard error after Heltshe and Forrester
    /// 1983).</summary>
    public static Estimate Jackknife1(Community community)
    {
        ArgumentNullException.ThrowIfNull(community);
        var (taxa, samples, q1, _) = Counts(community);
        if (taxa == 0)
            return Estimate.None;
        // How many samples have how many of the taxa that stand in no other.
        var squares = 0.0;
        for (var s = 0; s < samples; s++)
        {
            var own = 0;
            var row = community.Of(s);
            for (var t = 0; t < row.Length; t++)
            {
                if (row[t] > 0 && community.Frequencies[t] == 1)
                    own++;
            }
            squares += (double)own * own;
        }
        return Estimate.Of(taxa + q1 * (samples - 1) / samples, q1 > 0 ? (squares - q1 / samples) * (samples - 1) / samples : 0);
    }

    /// <summary>Second-order jackknife: S + q1 (2T−3)/T − q2 (T−2)² / (T(T−1)) (Burnham and Overton 1978); S with one sample. Null without
    /// a taxon.</summary>
    public static double? Jackknife2(Community community)
    {
        var (taxa, samples, q1, q2) = Counts(community);
        if (taxa == 0)
            return null;
        double n = samples;
        return samples == 1 ? taxa : taxa + q1 * (2 * n - 3) / n - q2 * (n - 2) * (n - 2) / n / (n - 1);
    }

    /// <summary>Bootstrap: S + Σ (1 − p)^T, p being the share of the samples that a taxon stands in (Smith and van Belle 1984).</summary>
    public static Estimate Bootstrap(Community community)
    {
        ArgumentNullException.ThrowIfNull(community);
        var samples = community.Samples.Count;
        var taxa = community.Taxa.Count;
        if (taxa == 0)
            return Estimate.None;
        var missed = community.Frequencies.Select(f => Math.Pow(1 - (double)f / samples, samples)).ToArray();
        var variance = missed.Sum(m => m * (1 - m));
        for (var i = 1; i < taxa; i++)
        {
            for (var j = 0; j < i; j++)
            {
                var neither = samples - community.Frequencies[i] - community.Frequencies[j] + community.Together(i, j);
                variance += 2 * (Math.Pow((double)neither / samples, samples) - missed[i] * missed[j]);
            }
        }
        return Estimate.Of(taxa + missed.Sum(), variance);
    }

    /// <summary>
    /// The exact curve of accumulation over all orders of the samples (Ugland, Gray and Ellingsen 2003; Kindt, Van Damme and Simons 2006),
    /// with its standard deviation conditional on these samples.
    /// </summary>
    public static IReadOnlyList<AccumulationPoint> Accumulation(Community community)
    {
        ArgumentNullException.ThrowIfNull(community);
        var samples = community.Samples.Count;
        // Taxa in equally many samples behave alike; how they go with those of another class is summed up once.
        int[] classes = [.. community.Frequencies.Distinct().Order()];
        var classOf = community.Frequencies.Select(f => Array.BinarySearch(classes, f)).ToArray();
        var size = new int[classes.Length];
        var correlation = new double[classes.Length, classes.Length];
        for (var i = 0; i < classOf.Length; i++)
        {
            size[classOf[i]]++;
            for (var j = 0; j < i; j++)
                correlation[classOf[i], classOf[j]] += Correlation(community, i, j);
        }
        var missed = classes.Select(_ => 1.0).ToArray();
        var points = new AccumulationPoint[samples];
        for (var n = 1; n <= samples; n++)
        {
            // C(T−f, n) / C(T, n), one factor more for each sample.
            for (var c = 0; c < classes.Length; c++)
                missed[c] *= (double)Math.Max(samples - classes[c] - (n - 1), 0) / (samples - (n - 1));
            var (expected, variance) = (0.0, 0.0);
            for (var c = 0; c < classes.Length; c++)
            {
                expected += size[c] * (1 - missed[c]);
                var own = missed[c] * (1 - missed[c]);
                variance += size[c] * own;
                for (var d = 0; d < classes.Length; d++)
                    variance += 2 * correlation[c, d] * Math.Sqrt(own * (missed[d] * (1 - missed[d])));
            }
            points[n - 1] = new AccumulationPoint(n, expected, Math.Sqrt(Math.Max(variance, 0)));
        }
        return points;
    }

    // Of the presence of two taxa over the samples (phi); 0 where one stands in all.
    private static double Correlation(Community community, int one, int other)
    {
        double n = community.Samples.Count;
        double a = community.Frequencies[one];
        double b = community.Frequencies[other];
        var divisor = a * (n - a) * b * (n - b);
        return divisor > 0 ? (n * community.Together(one, other) - a * b) / Math.Sqrt(divisor) : 0;
    }

    private static (int Taxa, int Samples, double One, double Two) Counts(Community community)
    {
        ArgumentNullException.ThrowIfNull(community);
        return (
            community.Taxa.Count,
            community.Samples.Count,
            community.Frequencies.Count(f => f == 1),
            community.Frequencies.Count(f => f == 2)
        );
    }
}
