using Garten.Core.Quantities;

namespace Garten.Core.Surveys.Figures;

/// <summary>Differences between two sets of samples that have nothing to do with each other: other plots, other places.</summary>
public static class IndependentChange
{
    /// <summary>The difference of the shares of samples with a taxon, by the score intervals of both (Newcombe 1998: Interval estimation
    /// for the difference between independent proportions, method 10).</summary>
    /// <param name="first">Samples of the first set with it.</param>
    /// <param name="ofFirst">Samples of the first set.</param>
    /// <param name="second">Samples of the second set with it.</param>
    /// <param name="ofSecond">Samples of the second set.</param>
    /// <returns>The second share minus the first, -1 to 1; null where a set is empty.</returns>
    public static Change? OfShare(int first, int ofFirst, int second, int ofSecond)
    {
        if (ofFirst == 0 || ofSecond == 0)
            return null;
        var (one, other) = (ShareEstimate.Of(first, ofFirst), ShareEstimate.Of(second, ofSecond));
        var (p1, p2) = ((double)first / ofFirst, (double)second / ofSecond);
        static double Reach(double a, double b) => Math.Sqrt(a * a + b * b);
        return new Change(p2 - p1, p2 - p1 - Reach(p2 - other.Low, one.High - p1), p2 - p1 + Reach(other.High - p2, p1 - one.Low));
    }

    /// <summary>The difference of means, with Welch's interval (Welch 1947). With fewer
    /// than two samples in a set, or where none of them differs from another, there is none.</summary>
    /// <param name="first">Values of the first set.</param>
    /// <param name="second">Values of the second set.</param>
    /// <returns>The second mean minus the first; null where a set is empty.</returns>
    public static Change? OfMean(IReadOnlyList<double> first, IReadOnlyList<double> second)
    {
        ArgumentNullException.ThrowIfNull(first);
        ArgumentNullException.ThrowIfNull(second);
        if (first.Count == 0 || second.Count == 0)
            return null;
        var difference = second.Average() - first.Average();
        if (PairedChange.Deviation(first) is not { } d1 || PairedChange.Deviation(second) is not { } d2 || d1 + d2 <= 0)
            return new Change(difference, null, null);
        var (v1, v2) = (d1 * d1 / first.Count, d2 * d2 / second.Count);
        var freedom = (v1 + v2) * (v1 + v2) / (v1 * v1 / (first.Count - 1) + v2 * v2 / (second.Count - 1));
        var bound = StudentT.Quantile975(Math.Max(1, freedom)) * Math.Sqrt(v1 + v2);
        return new Change(difference, difference - bound, difference + bound);
    }
}
