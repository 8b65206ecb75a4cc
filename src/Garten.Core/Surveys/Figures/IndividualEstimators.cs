namespace Garten.Core.Surveys.Figures;

/// <summary>How many taxa there are in all, and how complete a sample is, from counts of individuals. Whole numbers alone: of cover none of
/// it is defined.</summary>
public static class IndividualEstimators
{
    // Taxa of at most so many individuals are rare for ACE (Chao and Lee 1992).
    private const int Rare = 10;

    /// <summary>
    /// Chao1, bias-corrected: S + f1(f1−1) / (2(f2+1)), where f1 taxa have one individual and f2 two (Chao 1984, 1987). Its standard error
    /// is that of the delta method with the covariance of a multinomial sample.
    /// </summary>
    public static Estimate Chao1(ReadOnlySpan<double> counts)
    {
        var observed = Diversity.Richness(counts);
        if (observed == 0)
            return Estimate.None;
        double f1 = Of(counts, 1);
        double f2 = Of(counts, 2);
        var unseen = f1 * (f1 - 1) / (2 * (f2 + 1));
        var all = observed + unseen;
        // Derivatives by f1 and f2 beyond what both add to S, and the derivative by what wasn't seen, which is −1.
        var by1 = (2 * f1 - 1) / (2 * (f2 + 1));
        var by2 = -unseen / (f2 + 1);
        var mean = by1 * f1 + by2 * f2 - unseen;
        return Estimate.Of(all, unseen + by1 * by1 * f1 + by2 * by2 * f2 - mean * mean / all);
    }

    /// <summary>
    /// ACE, the abundance-based coverage estimator (Chao and Lee 1992; O'Hara 2005): S_abund + S_rare / C + f1 / C · γ², taxa of 10 or
    /// fewer being rare, C = 1 − f1 / N_rare. The standard error is that of the delta method, with C = 1 + f1 / (N_rare − 1) in its
    /// gradient as it is usual. Null where no taxon is rare, or all rare ones are single.
    /// </summary>
    public static Estimate Ace(ReadOnlySpan<double> counts)
    {
        var f = new double[Rare + 1];
        var abundant = 0;
        foreach (var count in counts)
        {
            if (count > Rare)
                abundant++;
            else if (count > 0)
                f[(int)count]++;
        }
        var (taxa, individuals, squares) = (0.0, 0.0, 0.0);
        for (var i = 1; i <= Rare; i++)
        {
            taxa += f[i];
            individuals += i * f[i];
            squares += i * (i - 1) * f[i];
        }
        var coverage = 1 - f[1] / individuals;
        if (!(coverage > 0))
            return Estimate.None;
        var variation = Math.Max(squares * taxa / (coverage * individuals * (individuals - 1)) - 1, 0);
        var all = abundant + taxa / coverage + variation * f[1] / coverage;
        var (sum, mean) = (0.0, 0.0);
        var gradient = Gradient(f, taxa, individuals, squares);
        for (var i = 1; i <= Rare; i++)
        {
            sum += gradient[i] * gradient[i] * f[i];
            mean += gradient[i] * f[i];
        }
        return Estimate.Of(all, sum - mean * mean / all);
    }

    // By each number of taxa of i individuals: (T + f1 (T Q / (C N (N−1)) − 1)) / C, T taxa, N individuals, Q = Σ i(i−1) f.
    private static double[] Gradient(double[] f, double taxa, double individuals, double squares)
    {
        var below = 1 - individuals;
        var coverage = 1 - f[1] / below;
        var divisor = coverage * individuals * (individuals - 1);
        var bracket = taxa * squares / divisor - 1;
        var value = taxa + f[1] * bracket;
        var gradient = new double[f.Length];
        for (var i = 1; i < f.Length; i++)
        {
            var isOne = i == 1 ? 1.0 : 0.0;
            var byCoverage = -isOne / below - f[1] * i / (below * below);
            var byDivisor = (byCoverage * individuals + coverage * i) * (individuals - 1) + coverage * individuals * i;
            var byBracket = (squares + taxa * i * (i - 1)) / divisor - taxa * squares * byDivisor / (divisor * divisor);
            gradient[i] = -byCoverage / (coverage * coverage) * value + (1 + isOne * bracket + f[1] * byBracket) / coverage;
        }
        return gradient;
    }

    /// <summary>
    /// Sample coverage: which share of the individuals of the whole community belongs to taxa that were seen (Chao and Jost 2012), 0 to 1.
    /// Null where nothing was counted.
    /// </summary>
    public static double? Coverage(ReadOnlySpan<double> counts)
    {
        var all = Diversity.Sum(counts);
        if (all <= 0)
            return null;
        double f1 = Of(counts, 1);
        double f2 = Of(counts, 2);
        if (f1 == 0)
            return 1;
        var share = f2 > 0 ? (all - 1) * f1 / ((all - 1) * f1 + 2 * f2) : (all - 1) * (f1 - 1) / ((all - 1) * (f1 - 1) + 2);
        return 1 - f1 / all * share;
    }

    /// <summary>
    /// Rarefaction without replacement: the taxa to be expected among so many individuals (Hurlbert 1971), with the standard error of Heck,
    /// van Belle and Simberloff (1975). Null where so many weren't counted.
    /// </summary>
    /// <param name="counts">Individuals of each taxon.</param>
    /// <param name="size">To how many individuals; 1 or more.</param>
    public static Estimate Rarefied(ReadOnlySpan<double> counts, long size)
    {
        var all = (long)Diversity.Sum(counts);
        if (size < 1 || size > all)
            return Estimate.None;
        // Taxa of the same number of individuals behave alike.
        var classes = new SortedDictionary<long, int>();
        foreach (var count in counts)
        {
            if (count > 0)
                classes[(long)count] = classes.GetValueOrDefault((long)count) + 1;
        }
        (long Count, int Taxa)[] of = [.. classes.Select(c => (c.Key, c.Value))];
        var missed = Missed(all, size, (int)Math.Min(all, of.Length == 0 ? 0 : 2 * of[^1].Count));
        var (expected, variance) = (0.0, 0.0);
        for (var i = 0; i < of.Length; i++)
        {
            var none = missed[of[i].Count];
            expected += of[i].Taxa * (1 - none);
            variance += of[i].Taxa * none * (1 - none);
            for (var j = i; j < of.Length; j++)
            {
                var pairs = j == i ? of[i].Taxa * (of[i].Taxa - 1.0) / 2 : (double)of[i].Taxa * of[j].Taxa;
                if (pairs == 0)
                    continue;
                var together = of[i].Count + of[j].Count;
                variance += 2 * pairs * ((together < missed.Length ? missed[together] : 0) - none * missed[of[j].Count]);
            }
        }
        return Estimate.Of(expected, Math.Max(variance, 0));
    }

    // The probability that none of m individuals is among those drawn: C(N−m, n) / C(N, n), as a product, which keeps all its figures.
    private static double[] Missed(long all, long size, int most)
    {
        var missed = new double[most + 1];
        missed[0] = 1;
        for (var m = 1; m <= most; m++)
            missed[m] = missed[m - 1] * Math.Max(all - size - (m - 1), 0) / (all - (m - 1));
        return missed;
    }

    private static int Of(ReadOnlySpan<double> counts, int individuals)
    {
        var taxa = 0;
        foreach (var count in counts)
        {
            if (count == individuals)
                taxa++;
        }
        return taxa;
    }
}
