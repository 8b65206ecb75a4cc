using Garten.Core.Quantities;

namespace Garten.Core.Surveys.Figures;

/// <summary>A change with its 95 % interval.</summary>
/// <param name="Value">The later minus the earlier.</param>
/// <param name="Low">Lower bound; null where nothing can be said of it.</param>
/// <param name="High">Upper bound.</param>
public sealed record Change(double Value, double? Low, double? High)
{
    /// <summary>Whether the interval leaves out no change at all.</summary>
    public bool IsClear => Low > 0 || High < 0;
}

/// <summary>Changes between two recordings of the same plots.</summary>
public static class PairedChange
{
    /// <summary>The mean change of a measure, with Student's interval of the differences (Student 1908). With fewer than two plots there is
    /// none, and none where all differences are alike: their spread isn't known then.</summary>
    /// <param name="differences">Of each plot the later minus the earlier value.</param>
    /// <returns>Null without plots.</returns>
    public static Change? OfMean(IReadOnlyList<double> differences)
    {
        ArgumentNullException.ThrowIfNull(differences);
        var n = differences.Count;
        if (n == 0)
            return null;
        var mean = differences.Average();
        if (Deviation(differences) is not > 0)
            return new Change(mean, null, null);
        var bound = StudentT.Quantile975(n - 1) * Deviation(differences)!.Value / Math.Sqrt(n);
        return new Change(mean, mean - bound, mean + bound);
    }

    /// <summary>Standard deviation of differences; null with fewer than two.</summary>
    public static double? Deviation(IReadOnlyList<double> differences)
    {
        ArgumentNullException.ThrowIfNull(differences);
        if (differences.Count < 2)
            return null;
        var mean = differences.Average();
        return Math.Sqrt(differences.Sum(d => (d - mean) * (d - mean)) / (differences.Count - 1));
    }

    /// <summary>The change of the share of plots with a taxon, by the score intervals of both shares and the correlation of the pairs
    /// (Newcombe 1998: Improved confidence intervals for the difference between binomial proportions based on paired data, method 10, with
    /// its correction of φ for continuity).</summary>
    /// <param name="both">Plots with it both times.</param>
    /// <param name="lost">Plots with it the first time only.</param>
    /// <param name="gained">Plots with it the second time only.</param>
    /// <param name="neither">Plots without it.</param>
    /// <returns>The change as a share, -1 to 1; null without plots.</returns>
    public static Change? OfShare(int both, int lost, int gained, int neither)
    {
        var n = both + lost + gained + neither;
        if (n == 0)
            return null;
        var (before, after) = (ShareEstimate.Of(both + lost, n), ShareEstimate.Of(both + gained, n));
        var (p1, p2) = ((double)(both + lost) / n, (double)(both + gained) / n);
        var product = (double)(both + lost) * (gained + neither) * (both + gained) * (lost + neither);
        var cross = (double)both * neither - (double)lost * gained;
        var corrected = cross > n / 2.0 ? cross - n / 2.0 : Math.Min(cross, 0);
        var phi = product > 0 ? corrected / Math.Sqrt(product) : 0;
        double Reach(double a, double b) => Math.Sqrt(Math.Max(0, a * a - 2 * phi * a * b + b * b));
        var change = p2 - p1;
        return new Change(
            change,
            Math.Max(-1, change - Reach(p2 - after.Low, before.High - p1)),
            Math.Min(1, change + Reach(after.High - p2, p1 - before.Low))
        );
    }

    /// <summary>How probable it is that of so many plots in which something rose or fell as few, or fewer, did the rarer of the two, if
    /// either were as likely: the sign test, exact and two-sided (Dixon and Mood 1946: The statistical sign test). It needs only the order
    /// of amounts, so that classes will do.</summary>
    /// <param name="rose">Plots in which there was more the second time.</param>
    /// <param name="fell">Plots in which there was less.</param>
    /// <returns>0 to 1; null where nothing rose or fell.</returns>
    public static double? SignTest(int rose, int fell)
    {
        var n = rose + fell;
        if (n == 0)
            return null;
        // Binomial probabilities of a half, one from the other, by their logarithms: of thousands of plots the first is too small.
        var (log, sum) = (-n * Math.Log(2), 0.0);
        for (var k = 0; k <= Math.Min(rose, fell); k++)
        {
            sum += Math.Exp(log);
            log += Math.Log((double)(n - k) / (k + 1));
        }
        return Math.Min(1, 2 * sum);
    }

    /// <summary>How many of the taxa of two lists of the same plot stand in one of them alone, as a share: of two years turnover, of two
    /// independent recordings of one day what was overlooked or named otherwise, pseudo-turnover (Nilsson and Nilsson 1985: Species
    /// turnover in lake islands).</summary>
    /// <returns>(taxa of the one alone + of the other alone) / (taxa of the one + of the other), 0 to 1; null where both are
    /// empty.</returns>
    public static double? Turnover(IReadOnlySet<string> one, IReadOnlySet<string> other)
    {
        ArgumentNullException.ThrowIfNull(one);
        ArgumentNullException.ThrowIfNull(other);
        var shared = one.Count(other.Contains);
        return one.Count + other.Count == 0 ? null : (double)(one.Count + other.Count - 2 * shared) / (one.Count + other.Count);
    }
}

/// <summary>How much has to be recorded to see what one wants to see.</summary>
public static class SurveyDesign
{
    // Seeing a change that is there in four of five surveys is what is usually asked for (Cohen 1988): four fifths of the normal
    // distribution lie below it.
    private const double FourFifths = 0.8416212335729143;
    private const int Most = 100_000;

    /// <summary>Plots, recorded twice, with which a mean change is seen in four of five surveys: a first guess by the normal distribution,
    /// then with Student's, (t + z)² s² / d².</summary>
    /// <param name="deviation">Standard deviation of the plots' differences; above 0.</param>
    /// <param name="change">The change to be seen; not 0.</param>
    /// <returns>2 to 100,000; null where more would be needed, or one of the two can't be so.</returns>
    public static int? PlotsFor(double deviation, double change)
    {
        if (!(deviation > 0) || change == 0 || !double.IsFinite(change) || !double.IsFinite(deviation))
            return null;
        var ratio = deviation * deviation / (change * change);
        if (!(ratio < Most))
            return null;
        // With the normal distribution it is never more than with Student's.
        const double leastBound = 1.959963984540054 + FourFifths;
        for (var n = Math.Max(2, (int)(leastBound * leastBound * ratio)); n <= Most; n++)
        {
            var bound = StudentT.Quantile975(n - 1) + FourFifths;
            if (n >= bound * bound * ratio)
                return n;
        }
        return null;
    }

    /// <summary>The smallest mean change that so many plots see in four of five surveys: (t + z) s / √n.</summary>
    /// <param name="plots">2 or more.</param>
    /// <param name="deviation">Standard deviation of the plots' differences; above 0.</param>
    /// <returns>Null where one of the two can't be so.</returns>
    public static double? ChangeSeenBy(int plots, double deviation) =>
        plots >= 2
        && deviation > 0
        && (StudentT.Quantile975(plots - 1) + FourFifths) * (deviation / Math.Sqrt(plots)) is var seen
        && double.IsFinite(seen)
            ? seen
            : null;

    /// <summary>Visits after which a plant that is there was found with some probability, if each visit finds it with the same one,
    /// ln(1 − wanted) / ln(1 − chance) (Kéry 2002: Inferring the absence of a species).</summary>
    /// <param name="chance">Of one visit, above 0 and below 1.</param>
    /// <param name="wanted">Of all together, above 0 and below 1.</param>
    /// <returns>1 or more; null where one of the two can't be so.</returns>
    public static int? VisitsFor(double chance, double wanted) =>
        chance is > 0 and < 1
        && wanted is > 0 and < 1
        && Math.Log(1 - wanted) / Math.Log(1 - chance) is var visits
        && visits is > 0 and < MostVisits
            ? (int)Math.Ceiling(visits - 1e-9)
            : null;

    // Nobody goes so often.
    private const double MostVisits = 1_000_000;
}
