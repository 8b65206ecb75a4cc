using System.Text.Json.Serialization;

namespace Garten.Core.Quantities;

/// <summary>How a reading stands to a described range.</summary>
[JsonConverter(typeof(CamelCaseWords<Fit>))]
public enum Fit : sbyte
{
    /// <summary>Within the typical range: |z|/s up to 1.28.</summary>
    Fits,

    /// <summary>Up to 2.58: where extremes lie.</summary>
    AtTheEdge,

    /// <summary>Up to 3.5: hardly.</summary>
    Doubtful,

    /// <summary>Beyond.</summary>
    Conflicts,
}

/// <summary>What ranges cover and how far plants differ; defaults with their reasons.</summary>
public sealed record RangeOptions
{
    /// <summary>The values that the program works with; tests and benchmarks vary them.</summary>
    public static RangeOptions Default { get; } = new();

    /// <summary>z of the typical bounds: they hold 80 % of single readings, as far as floras say at all what they mean.</summary>
    public double BoundZ { get; init; } = 1.2816;

    /// <summary>z of the extremes: they hold 99 %.</summary>
    public double ExtremeZ { get; init; } = 2.576;

    /// <summary>z of the bound of "up to" and "more than": 95 % lie on its side.</summary>
    public double OneSidedZ { get; init; } = 1.6449;

    /// <summary>ρ, the share of the variance of single readings that lies between plants: readings of one plant are alike.</summary>
    public double BetweenPlantShare { get; init; } = 0.5;

    /// <summary>Probability that a plant has just the number that a description is sure of: even five-petalled plants bear some flowers of
    /// four.</summary>
    public double ExactCount { get; init; } = 0.97;

    /// <summary>Up to this |z|/s a reading fits.</summary>
    public double FitsUpTo { get; init; } = 1.2816;

    /// <summary>Up to this it is at the edge.</summary>
    public double EdgeUpTo { get; init; } = 2.576;

    /// <summary>Up to this it is doubtful, beyond it conflicts.</summary>
    public double DoubtfulUpTo { get; init; } = 3.5;
}

/// <summary>What was measured, as far as a distribution needs it.</summary>
/// <param name="Mean">Mean of the readings; above 0 for lengths and ratios.</param>
/// <param name="Count">How many readings, n; at least 1.</param>
/// <param name="Resolution">Smallest step of the instrument, in the unit of the mean; 0 where it doesn't matter.</param>
/// <param name="Calibration">Standard uncertainty of the instrument itself (a thumb, a coin), in the unit of the mean; 0 for a
/// ruler.</param>
public sealed record Measured(double Mean, int Count, double Resolution = 0, double Calibration = 0);

/// <summary>
/// The distribution behind a described range. A transform z(x), monotone cubic through the range's points and linear beyond, makes
/// readings normal; lengths and ratios are taken as logarithms first. The mean of n readings of one plant has density φ(z/s)·z′/s with
/// s² = ρ + (1−ρ)/n + (resolution²/12 + calibration²)·z′². The z′ in s is that of the middle of the range, so that s doesn't change with
/// x and the density integrates to 1.
/// </summary>
public sealed class RangeDistribution
{
    // The widest a zero low bound may make a range on the log scale: a twentieth of the high bound.
    private const double LeastShareOfHigh = 0.05;

    /// <summary>A reading on a bound itself belongs to it, however it was rounded.</summary>
    internal const double Tolerance = 1e-9;

    private readonly double[] _u;
    private readonly double[] _z;
    private readonly double[] _slope;
    private readonly bool _isLog;
    private readonly RangeOptions _options;
    private double? _middleSlope;

    /// <summary>Where its points lie: logarithms for lengths and ratios.</summary>
    internal ReadOnlySpan<double> U => _u;

    /// <summary>z of its points.</summary>
    internal ReadOnlySpan<double> PointsZ => _z;

    /// <summary>dz/du at its points.</summary>
    internal ReadOnlySpan<double> Slopes => _slope;

    /// <summary>Whether it is taken on the logarithm.</summary>
    internal bool IsLog => _isLog;

    /// <summary>z′ in the middle of the range.</summary>
    internal double MiddleSlope => _middleSlope ??= SlopeInTheMiddle();

    /// <summary>Makes the distribution of a range.</summary>
    /// <param name="range">A sound range (<see cref="QuantityRange.Contradiction"/> is null).</param>
    /// <param name="options">What ranges cover; the usual where left out.</param>
    /// <exception cref="ArgumentException">The range contradicts itself.</exception>
    public RangeDistribution(QuantityRange range, RangeOptions? options = null)
    {
        ArgumentNullException.ThrowIfNull(range);
        if (range.Contradiction() is { } wrong)
            throw new ArgumentException(wrong, nameof(range));
        Range = range;
        _options = options ?? RangeOptions.Default;
        _isLog = range.Kind is QuantityKind.Length or QuantityKind.Ratio;
        (_u, _z) = Points(range);
        _slope = SlopesOf(_u, _z);
    }

    /// <summary>The range.</summary>
    public QuantityRange Range { get; }

    // Without lists and queries: a flora of 2,000 taxa makes these by the thousand.
    private (double[] U, double[] Z) Points(QuantityRange range)
    {
        // Counts fill the cells around them.
        var half = range.Kind == QuantityKind.Count ? 0.5 : 0;
        var leastOnLog = Math.Max(range.High, range.HighExtreme ?? 0) * LeastShareOfHigh;
        double Scale(double x, double side) => _isLog ? Math.Log(Math.Max(x, leastOnLog)) : x + side;
        double low = Scale(range.Low, -half),
            high = Scale(range.High, half);
        // Two bounds that are the same number leave no width to stand on.
        if (!(high > low))
            (low, high) = _isLog
                ? (low + Math.Log(1 - QuantityRange.CircaShare), low + Math.Log(1 + QuantityRange.CircaShare))
                : (
                    low - QuantityRange.CircaShare * Math.Max(1, Math.Abs(low)),
                    low + QuantityRange.CircaShare * Math.Max(1, Math.Abs(low))
                );
        double lowest = range.LowExtreme is { } below ? Scale(below, -half) : low,
            highest = range.HighExtreme is { } above ? Scale(above, half) : high;
        var isBetween = range.Form is not (RangeForm.UpTo or RangeForm.MoreThan);
        var count = (lowest < low ? 1 : 0) + (isBetween ? 3 : 2) + (highest > high ? 1 : 0);
        double[] u = new double[count],
            z = new double[count];
        var at = 0;
        if (lowest < low)
            (u[at], z[at++]) = (lowest, -_options.ExtremeZ);
        (u[at], z[at++]) = (low, range.Form == RangeForm.MoreThan ? -_options.OneSidedZ : -_options.BoundZ);
        if (isBetween)
            (u[at], z[at++]) = ((low + high) / 2, 0);
        (u[at], z[at++]) = (high, range.Form == RangeForm.UpTo ? _options.OneSidedZ : _options.BoundZ);
        if (highest > high)
            (u[at], z[at]) = (highest, _options.ExtremeZ);
        return (u, z);
    }

    // Monotone cubic slopes: harmonic means of the neighbouring secants (Fritsch and Butland 1984); the outermost secants at the ends.
    private static double[] SlopesOf(double[] u, double[] z)
    {
        var slopes = new double[u.Length];
        var before = 0d;
        for (var i = 0; i < u.Length; i++)
        {
            var behind = i + 1 < u.Length ? (z[i + 1] - z[i]) / (u[i + 1] - u[i]) : before;
            slopes[i] =
                i == 0 ? behind
                : i + 1 == u.Length ? before
                : 2 * before * behind / (before + behind);
            before = behind;
        }
        return slopes;
    }

    /// <summary>z of a value: 0 in the middle, ±1.2816 at the bounds. Minus infinity for a length or ratio of 0.</summary>
    public double Z(double x)
    {
        if (_isLog && x <= 0)
            return double.NegativeInfinity;
        return At(_isLog ? Math.Log(x) : x).Z;
    }

    /// <summary>The value whose z is given: the inverse of <see cref="Z"/>, by bisection.</summary>
    public double Quantile(double z)
    {
        double low = _u[0] - 1,
            high = _u[^1] + 1,
            step = high - low;
        while (At(low).Z > z)
            low -= step *= 2;
        step = high - low;
        while (At(high).Z < z)
            high += step *= 2;
        for (var i = 0; i < 200 && high - low > 1e-14 * Math.Max(1, Math.Abs(high)); i++)
        {
            var middle = (low + high) / 2;
            if (At(middle).Z < z)
                low = middle;
            else
                high = middle;
        }
        return _isLog ? Math.Exp((low + high) / 2) : (low + high) / 2;
    }

    private (double Z, double Slope) At(double u)
    {
        if (u <= _u[0])
            return (_z[0] + (u - _u[0]) * _slope[0], _slope[0]);
        if (u >= _u[^1])
            return (_z[^1] + (u - _u[^1]) * _slope[^1], _slope[^1]);
        var i = 0;
        while (u > _u[i + 1])
            i++;
        // Cubic Hermite between two points.
        var width = _u[i + 1] - _u[i];
        var t = (u - _u[i]) / width;
        var (a, b) = (_slope[i] * width, _slope[i + 1] * width);
        var rise = _z[i + 1] - _z[i];
        var z = _z[i] + t * (a + t * (3 * rise - 2 * a - b + t * (a + b - 2 * rise)));
        var slope = (a + t * (2 * (3 * rise - 2 * a - b) + t * 3 * (a + b - 2 * rise))) / width;
        return (z, slope);
    }

    private double Slope(double x) => _isLog ? At(Math.Log(x)).Slope / x : At(x).Slope;

    /// <summary>s: how far the mean of these readings strays, in units of z. 1 for a single exact reading.</summary>
    public double Spread(Measured measured)
    {
        var (plain, own) = Variance(measured, _options);
        return own <= 0 ? Math.Sqrt(plain) : Math.Sqrt(plain + own * MiddleSlope * MiddleSlope);
    }

    /// <summary>The parts of s²: ρ + (1−ρ)/n, and resolution²/12 + calibration², which counts by the square of z′ in the middle.</summary>
    internal static (double Plain, double Own) Variance(Measured measured, RangeOptions options) =>
        (
            options.BetweenPlantShare + (1 - options.BetweenPlantShare) / Math.Max(1, measured.Count),
            measured.Resolution * measured.Resolution / 12 + measured.Calibration * measured.Calibration
        );

    // Between two bounds the middle is a point of its own; else it has to be looked for.
    private double SlopeInTheMiddle()
    {
        var at = Array.IndexOf(_z, 0d);
        if (at < 0)
            return Slope(Quantile(0));
        return _isLog ? _slope[at] / Math.Exp(_u[at]) : _slope[at];
    }

    /// <summary>
    /// Density of the mean at its value, per unit of x; for counts the probability of the mean's cell, ±1/(2n). Zero takes all below one
    /// half.
    /// </summary>
    public double Likelihood(Measured measured)
    {
        if (Range.Form == RangeForm.Exactly)
            return ExactLikelihood(measured);
        var s = Spread(measured);
        if (Range.Kind == QuantityKind.Count)
        {
            var half = 1 / (2d * Math.Max(1, measured.Count));
            var from = measured.Mean <= 1e-9 ? double.NegativeInfinity : At(measured.Mean - half).Z / s;
            return Normal.Between(from, At(measured.Mean + half).Z / s);
        }
        if (_isLog && measured.Mean <= 0)
            return 0;
        var (z, slope) = At(_isLog ? Math.Log(measured.Mean) : measured.Mean);
        return Normal.Density(z / s) * (_isLog ? slope / measured.Mean : slope) / s;
    }

    /// <summary>Likelihood and verdict together, for those that are weighed by the thousand.</summary>
    internal (double Likelihood, Fit Verdict) Weigh(Measured measured)
    {
        if (Range.Form == RangeForm.Exactly || Range.Kind == QuantityKind.Count || _isLog && measured.Mean <= 0)
            return (Likelihood(measured), Verdict(measured));
        var s = Spread(measured);
        var (z, slope) = At(_isLog ? Math.Log(measured.Mean) : measured.Mean);
        return (Normal.Density(z / s) * (_isLog ? slope / measured.Mean : slope) / s, Verdict(z, s));
    }

    // A bare number carries 0.97 on itself; the rest falls off by half for each step away, to both sides alike.
    private double ExactLikelihood(Measured measured)
    {
        var n = Math.Max(1, measured.Count);
        var steps = Math.Round(Math.Abs(measured.Mean - Range.Low) * n);
        if (steps == 0)
            return _options.ExactCount;
        var fall = Math.Pow(0.5, 1d / n);
        return (1 - _options.ExactCount) / 2 * (1 - fall) * Math.Pow(fall, steps - 1);
    }

    /// <summary>Probability that the mean of so many readings lies from <paramref name="from"/> to <paramref name="to"/>; for counts both
    /// ends belong to it.</summary>
    public double Within(double from, double to, int count = 1)
    {
        if (to < from)
            return 0;
        if (Range.Form == RangeForm.Exactly)
        {
            return from <= Range.Low && Range.Low <= to ? _options.ExactCount : (1 - _options.ExactCount) / 2;
        }
        var s = Spread(new Measured(1, count));
        var half = Range.Kind == QuantityKind.Count ? 0.5 : 0;
        var low = double.IsNegativeInfinity(from) || from <= 0 && (_isLog || half > 0) ? double.NegativeInfinity : Z(from - half) / s;
        return Normal.Between(low, double.IsPositiveInfinity(to) ? double.PositiveInfinity : Z(to + half) / s);
    }

    /// <summary>How the readings stand to the range. "Up to" and "more than" are only missed on their bounded side.</summary>
    public Fit Verdict(Measured measured)
    {
        if (Range.Form == RangeForm.Exactly)
        {
            var off = Math.Abs(measured.Mean - Range.Low);
            return off < 0.25 ? Fit.Fits
                : off < 0.75 ? Fit.AtTheEdge
                : off < 1.25 ? Fit.Doubtful
                : Fit.Conflicts;
        }
        return Verdict(Z(measured.Mean), Spread(measured));
    }

    private Fit Verdict(double z, double s)
    {
        if (Range.Form == RangeForm.UpTo && z < 0 || Range.Form == RangeForm.MoreThan && z > 0)
            return Fit.Fits;
        // The bound of a one-sided range is its 95 % point: what reaches it still fits.
        var slack = Range.Form == RangeForm.Between ? 0 : _options.OneSidedZ - _options.BoundZ;
        var off = Math.Max(0, Math.Abs(z) - slack) / s;
        return off <= _options.FitsUpTo + Tolerance ? Fit.Fits
            : off <= _options.EdgeUpTo + Tolerance ? Fit.AtTheEdge
            : off <= _options.DoubtfulUpTo ? Fit.Doubtful
            : Fit.Conflicts;
    }
}
