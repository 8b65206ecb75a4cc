namespace Garten.Core.Quantities;

/// <summary>
/// The distributions of many ranges laid out side by side, for one measure that is held against all of them: the same numbers as
/// <see cref="RangeDistribution"/> gives one by one, without a walk from object to object.
/// </summary>
internal sealed class RangeColumn
{
    // A range has at most two extremes, two bounds and a middle.
    private const int MostPoints = 5;

    // √(2π), the denominator of the normal density.
    private static readonly double RootTwoPi = Math.Sqrt(2 * Math.PI);

    private readonly RangeDistribution?[] _distributions;
    private readonly byte[] _points;
    private readonly double[] _u;
    private readonly double[] _z;
    private readonly double[] _slope;
    private readonly double[] _middle;
    private readonly bool _isLog;
    private readonly RangeOptions _options;

    /// <summary>Makes it.</summary>
    /// <param name="ranges">Ranges of one kind; null where there is none.</param>
    /// <param name="options">What ranges cover.</param>
    public RangeColumn(IReadOnlyList<QuantityRange?> ranges, RangeOptions options)
    {
        var n = ranges.Count;
        _options = options;
        _distributions = new RangeDistribution?[n];
        _points = new byte[n];
        _u = new double[n * MostPoints];
        _z = new double[n * MostPoints];
        _slope = new double[n * MostPoints];
        _middle = new double[n];
        for (var i = 0; i < n; i++)
        {
            if (ranges[i] is not { } range) continue;
            var distribution = _distributions[i] = new RangeDistribution(range, options);
            // Counts and one-sided ranges have rules of their own.
            if (range.Kind == QuantityKind.Count || range.Form != RangeForm.Between) continue;
            _isLog = distribution.IsLog;
            distribution.U.CopyTo(_u.AsSpan(i * MostPoints));
            distribution.PointsZ.CopyTo(_z.AsSpan(i * MostPoints));
            distribution.Slopes.CopyTo(_slope.AsSpan(i * MostPoints));
            _middle[i] = distribution.MiddleSlope;
            _points[i] = (byte)distribution.U.Length;
        }
    }

    /// <summary>The likelihood of what was measured under each range, and how it stands to it; where there is no range they are 0 and untouched.</summary>
    public void Weigh(Measured measured, Span<double> likelihood, Span<Fit> fits)
    {
        // Zero has no logarithm.
        var isOneByOne = _isLog && measured.Mean <= 0;
        var u = _isLog ? Math.Log(measured.Mean) : measured.Mean;
        var over = 1 / (RootTwoPi * (_isLog ? measured.Mean : 1));
        var scales = new double[_points.Length];
        var (plain, own) = RangeDistribution.Variance(measured, _options);
        var (fitsUpTo, edgeUpTo, doubtfulUpTo) = (_options.FitsUpTo + RangeDistribution.Tolerance, _options.EdgeUpTo + RangeDistribution.Tolerance, _options.DoubtfulUpTo);
        var (us, zs, slopes) = (_u, _z, _slope);
        // One loop without calls: the browser's interpreter pays for each.
        for (var i = 0; i < scales.Length; i++)
        {
            likelihood[i] = double.NegativeInfinity;
            if (_points[i] == 0 || isOneByOne) continue;
            int first = i * MostPoints, last = first + _points[i] - 1;
            double z, slope;
            if (u <= us[first]) (z, slope) = (zs[first] + (u - us[first]) * slopes[first], slopes[first]);
            else if (u >= us[last]) (z, slope) = (zs[last] + (u - us[last]) * slopes[last], slopes[last]);
            else
            {
                var at = first;
                while (u > us[at + 1]) at++;
                // Cubic Hermite between two points.
                double width = us[at + 1] - us[at], t = (u - us[at]) / width, from = slopes[at] * width, to = slopes[at + 1] * width, rise = zs[at + 1] - zs[at];
                z = zs[at] + t * (from + t * (3 * rise - 2 * from - to + t * (from + to - 2 * rise)));
                slope = (from + t * (2 * (3 * rise - 2 * from - to) + t * 3 * (from + to - 2 * rise))) / width;
            }
            var perSpread = 1 / Math.Sqrt(plain + own * _middle[i] * _middle[i]);
            var off = z * perSpread;
            likelihood[i] = -off * off / 2;
            scales[i] = slope * perSpread * over;
            if (off < 0) off = -off;
            // The verdicts stand in their order: the bounds passed are counted.
            fits[i] = (Fit)((off > fitsUpTo ? 1 : 0) + (off > edgeUpTo ? 1 : 0) + (off > doubtfulUpTo ? 1 : 0));
        }
        Lanes.Exp(likelihood);
        for (var i = 0; i < scales.Length; i++)
        {
            if (scales[i] > 0) likelihood[i] *= scales[i];
            else if (_distributions[i] is { } distribution) (likelihood[i], fits[i]) = distribution.Weigh(measured);
        }
    }
}
