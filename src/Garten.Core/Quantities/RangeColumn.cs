using System.Runtime.InteropServices;

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
    private readonly bool[] _isBetween;
    private readonly double[] _bounds;
    private readonly Piece[] _pieces;
    private readonly double[] _middle;

    // Kept from call to call, since one weighing follows another.
    private readonly double[] _scales;
    private readonly bool _isLog;
    private readonly RangeOptions _options;

    // A stretch between two points as a polynomial in the distance from its origin; beyond the outermost points it is a straight line.
    [StructLayout(LayoutKind.Auto)]
    private readonly record struct Piece(double Origin, double Z, double First, double Second, double Third);

    /// <summary>Makes it.</summary>
    /// <param name="ranges">Ranges of one kind; null where there is none.</param>
    /// <param name="options">What ranges cover.</param>
    public RangeColumn(IReadOnlyList<QuantityRange?> ranges, RangeOptions options)
    {
        var n = ranges.Count;
        _options = options;
        _distributions = new RangeDistribution?[n];
        _isBetween = new bool[n];
        _bounds = new double[n * MostPoints];
        // What isn't there lies beyond everything.
        Array.Fill(_bounds, double.PositiveInfinity);
        _pieces = new Piece[n * (MostPoints + 1)];
        _middle = new double[n];
        _scales = new double[n];
        for (var i = 0; i < n; i++)
        {
            if (ranges[i] is not { } range) continue;
            var distribution = _distributions[i] = new RangeDistribution(range, options);
            // Counts and one-sided ranges have rules of their own.
            if (range.Kind == QuantityKind.Count || range.Form != RangeForm.Between) continue;
            _isLog = distribution.IsLog;
            distribution.U.CopyTo(_bounds.AsSpan(i * MostPoints));
            CopyPieces(distribution, _pieces.AsSpan(i * (MostPoints + 1)));
            _middle[i] = distribution.MiddleSlope;
            _isBetween[i] = true;
        }
    }

    // Below the first point, between each two (cubic Hermite), above the last.
    private static void CopyPieces(RangeDistribution distribution, Span<Piece> pieces)
    {
        ReadOnlySpan<double> us = distribution.U, zs = distribution.PointsZ, slopes = distribution.Slopes;
        var last = us.Length - 1;
        pieces[0] = new Piece(us[0], zs[0], slopes[0], 0, 0);
        for (var at = 0; at < last; at++)
        {
            double width = us[at + 1] - us[at], from = slopes[at] * width, to = slopes[at + 1] * width, rise = zs[at + 1] - zs[at];
            pieces[at + 1] = new Piece(us[at], zs[at], slopes[at], (3 * rise - 2 * from - to) / (width * width), (from + to - 2 * rise) / (width * width * width));
        }
        pieces[last + 1] = new Piece(us[last], zs[last], slopes[last], 0, 0);
    }

    /// <summary>The likelihood of what was measured under each range, and how it stands to it; where there is no range they are 0 and untouched.</summary>
    public void Weigh(Measured measured, Span<double> likelihood, Span<Fit> fits)
    {
        // Zero has no logarithm.
        var isOneByOne = _isLog && measured.Mean <= 0;
        var u = _isLog ? Math.Log(measured.Mean) : measured.Mean;
        var over = 1 / (RootTwoPi * (_isLog ? measured.Mean : 1));
        Span<double> scales = _scales;
        var (plain, own) = RangeDistribution.Variance(measured, _options);
        var (fitsUpTo, edgeUpTo, doubtfulUpTo) = (_options.FitsUpTo + RangeDistribution.Tolerance, _options.EdgeUpTo + RangeDistribution.Tolerance, _options.DoubtfulUpTo);
        var (isBetween, bounds, pieces, middle) = (_isBetween, _bounds, _pieces, _middle);
        // First how widely a reading may lie, as its inverse; then, in its place, what the density is multiplied by.
        for (var i = 0; i < scales.Length; i++) scales[i] = plain + own * middle[i] * middle[i];
        Lanes.InverseRoot(scales);
        // One loop without calls, which the browser's interpreter pays for, and without turns that a processor can't foresee: the points passed are counted.
        for (var i = 0; i < scales.Length; i++)
        {
            if (!isBetween[i] || isOneByOne)
            {
                likelihood[i] = double.NegativeInfinity;
                scales[i] = 0;
                continue;
            }
            var points = bounds.AsSpan(i * MostPoints, MostPoints);
            var passed = IsBelow(points[0], u) + IsBelow(points[1], u) + IsBelow(points[2], u) + IsBelow(points[3], u) + IsBelow(points[4], u);
            ref readonly var piece = ref pieces[i * (MostPoints + 1) + passed];
            var d = u - piece.Origin;
            var z = piece.Z + d * (piece.First + d * (piece.Second + d * piece.Third));
            var slope = piece.First + d * (2 * piece.Second + 3 * d * piece.Third);
            var perSpread = scales[i];
            var off = z * perSpread;
            likelihood[i] = -off * off / 2;
            scales[i] = slope * perSpread * over;
            off = Math.Abs(off);
            // The verdicts stand in their order: the bounds passed are counted.
            fits[i] = (Fit)(IsBelow(fitsUpTo, off) + IsBelow(edgeUpTo, off) + IsBelow(doubtfulUpTo, off));
        }
        Lanes.Exp(likelihood);
        for (var i = 0; i < scales.Length; i++)
        {
            if (scales[i] > 0) likelihood[i] *= scales[i];
            else if (_distributions[i] is { } distribution) (likelihood[i], fits[i]) = distribution.Weigh(measured);
        }
    }

    // 1 where a bound lies below a value, else 0: the sign of their difference, which no compiler makes a turn of.
    private static int IsBelow(double bound, double value) => (int)(BitConverter.DoubleToUInt64Bits(bound - value) >> 63);
}
