namespace Garten.Core.Quantities;

/// <summary>What readings of one character say together; struck-out ones don't count.</summary>
/// <param name="Count">How many count, n.</param>
/// <param name="Mean">Their mean.</param>
/// <param name="Least">The smallest.</param>
/// <param name="Largest">The largest.</param>
/// <param name="Deviation">Standard deviation s with n − 1; null for fewer than two.</param>
/// <param name="Low">Low end of the 95 % interval of the mean; null where it can't be said.</param>
/// <param name="High">High end of that interval.</param>
/// <param name="Resolution">The coarsest step among them.</param>
/// <param name="Calibration">Mean uncertainty that the instrument brings; it doesn't shrink with n.</param>
public sealed record Sample(
    int Count,
    double Mean,
    double Least,
    double Largest,
    double? Deviation,
    double? Low,
    double? High,
    double Resolution,
    double Calibration
)
{
    // Half-width of a 95 % interval in standard errors where the instrument alone decides.
    private const double Normal95 = 1.959964;

    /// <summary>
    /// n, mean, range and interval x̄ ± √((t·s/√n)² + (1.96·u)²), t of Student with n − 1 degrees of freedom and u the uncertainty of
    /// the instrument. A single reading has an interval only where its instrument brings an uncertainty.
    /// </summary>
    /// <returns>Null where no reading counts.</returns>
    public static Sample? Of(IEnumerable<Reading> readings)
    {
        ArgumentNullException.ThrowIfNull(readings);
        var counted = new List<Reading>();
        foreach (var reading in readings)
        {
            if (reading.Struck.Length == 0)
                counted.Add(reading);
        }
        if (counted.Count == 0)
            return null;
        // In the order of their values: the same readings in any order give the same sums to the last digit.
        counted.Sort((a, b) => a.Value.CompareTo(b.Value));
        var n = counted.Count;
        double sum = 0,
            calibrations = 0,
            resolution = 0;
        foreach (var reading in counted)
        {
            sum += reading.Value;
            calibrations += reading.Calibration;
            resolution = Math.Max(resolution, reading.Resolution);
        }
        var (mean, calibration) = (sum / n, calibrations / n);
        double squares = 0;
        foreach (var reading in counted)
            squares += (reading.Value - mean) * (reading.Value - mean);
        double? deviation = n < 2 ? null : Math.Sqrt(squares / (n - 1));
        double? half =
            deviation is { } s ? Math.Sqrt(Square(StudentT.Quantile975(n - 1) * s / Math.Sqrt(n)) + Square(Normal95 * calibration))
            : calibration > 0 ? Normal95 * calibration
            : null;
        return new(n, mean, counted[0].Value, counted[^1].Value, deviation, mean - half, mean + half, resolution, calibration);
    }

    /// <summary>As a distribution takes it.</summary>
    public Measured AsMeasured() => new(Mean, Count, Resolution, Calibration);

    private static double Square(double value) => value * value;
}

/// <summary>A series up the stem: how a measure changes from low to top.</summary>
public static class StemSeries
{
    private static readonly string[] Places = ["low", "middle", "top"];

    // Less than a tenth from low to top is no trend: leaves of one height differ by as much.
    private const double LeastTrend = 0.1;

    /// <summary>
    /// Means per place and the trend, in words; null where readings come from fewer than two places. It rises or falls where the top
    /// differs from the low one by a tenth or more.
    /// </summary>
    public static string? InWords(IEnumerable<Reading> readings, QuantityKind kind)
    {
        ArgumentNullException.ThrowIfNull(readings);
        // Most readings don't say from which height they are.
        if (readings.All(r => r.At.Length == 0))
            return null;
        var means = Means(readings);
        if (means.Count < 2)
            return null;
        var trend = Direction(means) switch
        {
            > 0 => "it rises",
            < 0 => "it falls",
            _ => "no trend",
        };
        return $"Up the stem: {string.Join(", ", means.Select(m => $"{m.Place} {ReadingText.Show(m.Mean, kind)}"))}; {trend}.";
    }

    /// <summary>The trend of a series: 1 rising, -1 falling, 0 level; null where readings come from fewer than two places.</summary>
    public static int? Trend(IEnumerable<Reading> readings)
    {
        ArgumentNullException.ThrowIfNull(readings);
        var means = Means(readings);
        return means.Count < 2 ? null : Direction(means);
    }

    private static List<(string Place, double Mean)> Means(IEnumerable<Reading> readings)
    {
        var counted = readings.Where(r => r.Struck.Length == 0).ToLookup(r => r.At, r => r.Value, StringComparer.Ordinal);
        return [.. Places.Where(counted.Contains).Select(p => (p, counted[p].Average()))];
    }

    private static int Direction(List<(string Place, double Mean)> means)
    {
        var change = means[^1].Mean / means[0].Mean;
        return change > 1 + LeastTrend ? 1
            : change < 1 - LeastTrend ? -1
            : 0;
    }
}

/// <summary>A ratio derived from two measured characters.</summary>
/// <param name="Value">The ratio.</param>
/// <param name="Pairs">From how many pairs it comes; 0 where the readings aren't paired.</param>
/// <param name="Uncertainty">Standard uncertainty of the ratio; null where it can't be said.</param>
/// <param name="Each">The ratio of each pair; empty where they aren't paired.</param>
public sealed record DerivedRatio(double Value, int Pairs, double? Uncertainty, IReadOnlyList<double> Each)
{
    /// <summary>
    /// Length over width. Of paired readings (the same leaves in the same order) the mean of the pairs' ratios, with s/√n. Of unpaired
    /// ones the ratio of the means, with u = R·√((u₁/x̄₁)² + (u₂/x̄₂)²) (first-order propagation), where both samples have a deviation.
    /// </summary>
    /// <param name="above">Readings of the dividend.</param>
    /// <param name="below">Readings of the divisor.</param>
    /// <param name="paired">Whether reading i of both belongs to the same organ; a pair of which one is struck out doesn't count.</param>
    /// <returns>Null where there is nothing to divide, or a divisor of zero.</returns>
    public static DerivedRatio? Of(IReadOnlyList<Reading> above, IReadOnlyList<Reading> below, bool paired)
    {
        ArgumentNullException.ThrowIfNull(above);
        ArgumentNullException.ThrowIfNull(below);
        if (paired && above.Count == below.Count)
        {
            var pairs = above.Zip(below).Where(p => p.First.Struck.Length == 0 && p.Second.Struck.Length == 0).ToList();
            if (pairs.Count == 0 || pairs.Exists(p => p.Second.Value <= 0))
                return null;
            var each = pairs.Select(p => p.First.Value / p.Second.Value).ToList();
            var sample = Sample.Of(each.Select(r => new Reading(r, "", 0)))!;
            return new(sample.Mean, each.Count, sample.Deviation / Math.Sqrt(each.Count), each);
        }
        if (Sample.Of(above) is not { } first || Sample.Of(below) is not { Mean: > 0 } second)
            return null;
        var value = first.Mean / second.Mean;
        double? Relative(Sample s) => s.Deviation is { } d ? d / Math.Sqrt(s.Count) / s.Mean : null;
        return new(value, 0, Relative(first) is { } a && Relative(second) is { } b ? value * Math.Sqrt(a * a + b * b) : null, []);
    }
}
