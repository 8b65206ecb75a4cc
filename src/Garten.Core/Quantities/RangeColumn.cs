using System.Runtime.InteropServices;
using System.Runtime.Intrinsics;
using System.Runtime.Intrinsics.X86;

namespace Garten.Core.Quantities;

/// <summary>
/// The distributions of many ranges laid out side by side, for one measure that is held against all of them: the same numbers as
/// <see cref="RangeDistribution"/> gives one by one, without a walk from object to object.
/// </summary>
internal sealed class RangeColumn
{
    /// <summary>How a measure stands to what has no range.</summary>
    public const Fit NoFit = (Fit)(-1);

    // A range has at most two extremes, two bounds and a middle.
    private const int MostPoints = 5;

    // Below the first point, between each two, above the last; a polynomial of the third degree each.
    private const int MostPieces = MostPoints + 1;
    private const int Terms = 4;

    // So many ranges are weighed at once.
    private const int Block = 4;

    // √(2π), the denominator of the normal density.
    private static readonly double RootTwoPi = Math.Sqrt(2 * Math.PI);

    // The distributions of the ranges; of those that are alone, the rules differ: counts and one-sided ranges, and what has no range.
    private readonly RangeDistribution?[] _distributions;
    private readonly int[] _alone;

    // Block by block the first points of its four ranges, then the second ones, and so on.
    private readonly double[] _bounds;

    // Range by range its pieces: z at the point before it, then the factors of the distance from there, of its square and of its cube.
    private readonly double[] _pieces;

    // How steep z is in the middle.
    private readonly double[] _middle;

    // What densities are multiplied by: kept from call to call, since one weighing follows another.
    private readonly double[] _scales;
    private readonly bool _isLog;
    private readonly RangeOptions _options;

    /// <summary>Creates an instance of this type.</summary>
    /// <param name="ranges">Ranges of one kind; null where there is none.</param>
    /// <param name="options">What ranges cover.</param>
    public RangeColumn(IReadOnlyList<QuantityRange?> ranges, RangeOptions options)
    {
        var n = ranges.Count;
        _options = options;
        _distributions = new RangeDistribution?[n];
        // Up to a whole block, so that the last one is read like the others.
        var whole = (n + Block - 1) / Block * Block;
        _bounds = new double[whole * MostPoints];
        // What isn't there lies beyond everything.
        Array.Fill(_bounds, double.PositiveInfinity);
        _pieces = new double[whole * MostPieces * Terms];
        _middle = new double[whole];
        _scales = new double[whole];
        var alone = new List<int>();
        for (var i = 0; i < n; i++)
        {
            var distribution = _distributions[i] = ranges[i] is { } range ? new RangeDistribution(range, options) : null;
            if (distribution is null || distribution.Range.Kind == QuantityKind.Count || distribution.Range.Form != RangeForm.Between)
            {
                // A point at 0 and no slope from there on.
                _bounds[BoundAt(i)] = 0;
                alone.Add(i);
                continue;
            }
            _isLog = distribution.IsLog;
            for (var at = 0; at < distribution.U.Length; at++)
                _bounds[BoundAt(i) + at * Block] = distribution.U[at];
            CopyPieces(distribution, _pieces.AsSpan(i * MostPieces * Terms));
            _middle[i] = distribution.MiddleSlope;
        }
        _alone = [.. alone];
    }

    // Where the first point of a range stands; the further ones follow a block apart.
    private static int BoundAt(int range) => range / Block * (Block * MostPoints) + range % Block;

    // A straight line below the first point, cubic Hermite between each two, a straight line above the last.
    private static void CopyPieces(RangeDistribution distribution, Span<double> pieces)
    {
        ReadOnlySpan<double> us = distribution.U,
            zs = distribution.PointsZ,
            slopes = distribution.Slopes;
        var last = us.Length - 1;
        Put(pieces, zs[0], slopes[0], 0, 0);
        for (var at = 0; at < last; at++)
        {
            double width = us[at + 1] - us[at],
                from = slopes[at] * width,
                to = slopes[at + 1] * width,
                rise = zs[at + 1] - zs[at];
            Put(
                pieces[((at + 1) * Terms)..],
                zs[at],
                slopes[at],
                (3 * rise - 2 * from - to) / (width * width),
                (from + to - 2 * rise) / (width * width * width)
            );
        }
        Put(pieces[((last + 1) * Terms)..], zs[last], slopes[last], 0, 0);
    }

    private static void Put(Span<double> piece, double z, double first, double second, double third) =>
        (piece[0], piece[1], piece[2], piece[3]) = (z, first, second, third);

    /// <summary>The likelihood of what was measured under each range, and how it stands to it; where there is no range they are 0 and
    /// <see cref="NoFit"/>.</summary>
    public void Weigh(Measured measured, Span<double> likelihood, Span<Fit> fits)
    {
        // Zero has no logarithm.
        if (_isLog && measured.Mean <= 0)
        {
            for (var i = 0; i < _distributions.Length; i++)
                WeighAlone(i, measured, likelihood, fits);
            return;
        }
        var (plain, own) = RangeDistribution.Variance(measured, _options);
        var look = new Look(_isLog ? Math.Log(measured.Mean) : measured.Mean, 1 / (RootTwoPi * (_isLog ? measured.Mean : 1)), plain, own);
        var done = VectorMath.AreQuicker && Avx.IsSupported ? WeighBlocks(look, likelihood, fits) : 0;
        WeighFrom(done, look, likelihood, fits);
        VectorMath.Exp(likelihood);
        VectorMath.Multiply(likelihood, _scales);
        foreach (var i in _alone)
            WeighAlone(i, measured, likelihood, fits);
    }

    private void WeighAlone(int i, Measured measured, Span<double> likelihood, Span<Fit> fits) =>
        (likelihood[i], fits[i]) = _distributions[i]?.Weigh(measured) ?? (0, NoFit);

    // A reading as all ranges need it: its place on their scale, the factor of every density, the parts of its variance.
    [StructLayout(LayoutKind.Auto)]
    private readonly record struct Look(double U, double Over, double Plain, double Own);

    // Up to where which verdict holds.
    private double FitsUpTo => _options.FitsUpTo + RangeDistribution.Tolerance;

    private double EdgeUpTo => _options.EdgeUpTo + RangeDistribution.Tolerance;

    // Range by range: the logarithm of the density, and in the scales what it is multiplied by. One loop without calls, which the browser's
    // interpreter pays for, and without turns that a processor can't foresee: the points passed are counted, and so are the bounds of the
    // verdicts.
    private void WeighFrom(int done, Look look, Span<double> likelihood, Span<Fit> fits)
    {
        var (bounds, pieces, middle, scales) = (_bounds, _pieces, _middle, _scales);
        var (u, over, plain, own) = (look.U, look.Over, look.Plain, look.Own);
        var (fitsUpTo, edgeUpTo, doubtfulUpTo) = (FitsUpTo, EdgeUpTo, _options.DoubtfulUpTo);
        for (var i = done; i < likelihood.Length; i++)
        {
            var first = i / Block * (Block * MostPoints) + i % Block;
            var passed =
                IsBelow(bounds[first], u)
                + IsBelow(bounds[first + Block], u)
                + IsBelow(bounds[first + 2 * Block], u)
                + IsBelow(bounds[first + 3 * Block], u)
                + IsBelow(bounds[first + 4 * Block], u);
            var piece = (i * MostPieces + passed) * Terms;
            var d = u - bounds[first + (passed == 0 ? 0 : (passed - 1) * Block)];
            double slope = pieces[piece + 1],
                second = pieces[piece + 2],
                third = pieces[piece + 3];
            var z = pieces[piece] + d * (slope + d * (second + d * third));
            slope += d * (2 * second + 3 * d * third);
            var steep = middle[i];
            var perSpread = 1 / Math.Sqrt(plain + own * steep * steep);
            var off = z * perSpread;
            likelihood[i] = -off * off / 2;
            scales[i] = slope * perSpread * over;
            off = Math.Abs(off);
            fits[i] = (Fit)(IsBelow(fitsUpTo, off) + IsBelow(edgeUpTo, off) + IsBelow(doubtfulUpTo, off));
        }
    }

    // 1 where a bound lies below a value, else 0: the sign of their difference, which no compiler makes a turn of.
    private static int IsBelow(double bound, double value) => (int)(BitConverter.DoubleToUInt64Bits(bound - value) >> 63);

    // The same four ranges at a time; returns how many are done.
    private int WeighBlocks(Look look, Span<double> likelihood, Span<Fit> fits)
    {
        ReadOnlySpan<double> bounds = _bounds,
            pieces = _pieces,
            middle = _middle;
        Span<double> scales = _scales;
        Vector256<double> u = Vector256.Create(look.U),
            over = Vector256.Create(look.Over),
            plain = Vector256.Create(look.Plain),
            own = Vector256.Create(look.Own),
            fitsUpTo = Vector256.Create(FitsUpTo),
            edgeUpTo = Vector256.Create(EdgeUpTo),
            doubtfulUpTo = Vector256.Create(_options.DoubtfulUpTo),
            half = Vector256.Create(-0.5),
            two = Vector256.Create(2d),
            three = Vector256.Create(3d);
        var blocks = likelihood.Length / Block;
        for (var block = 0; block < blocks; block++)
        {
            var i = block * Block;
            var points = bounds.Slice(i * MostPoints, Block * MostPoints);
            // Each mask is −1 where it holds: their sum counts, and the last point passed is the origin.
            var origin = Vector256.Create(points);
            var passed = Vector256.LessThan(origin, u).AsInt64();
            for (var at = 1; at < MostPoints; at++)
            {
                var point = Vector256.Create(points[(at * Block)..]);
                var isPassed = Vector256.LessThan(point, u);
                passed += isPassed.AsInt64();
                origin = Vector256.ConditionalSelect(isPassed, point, origin);
            }
            var own0 = pieces[((i * MostPieces - (int)passed[0]) * Terms)..];
            var own1 = pieces[(((i + 1) * MostPieces - (int)passed[1]) * Terms)..];
            var own2 = pieces[(((i + 2) * MostPieces - (int)passed[2]) * Terms)..];
            var own3 = pieces[(((i + 3) * MostPieces - (int)passed[3]) * Terms)..];
            Vector256<double> p0 = Vector256.Create(own0),
                p1 = Vector256.Create(own1),
                p2 = Vector256.Create(own2),
                p3 = Vector256.Create(own3);
            // Turned round: the same term of four ranges side by side.
            Vector256<double> even01 = Avx.UnpackLow(p0, p1),
                odd01 = Avx.UnpackHigh(p0, p1),
                even23 = Avx.UnpackLow(p2, p3),
                odd23 = Avx.UnpackHigh(p2, p3);
            const byte lower = 0x20,
                upper = 0x31;
            Vector256<double> z = Avx.Permute2x128(even01, even23, lower),
                first = Avx.Permute2x128(odd01, odd23, lower),
                second = Avx.Permute2x128(even01, even23, upper),
                third = Avx.Permute2x128(odd01, odd23, upper);
            var d = u - origin;
            z += d * (first + d * (second + d * third));
            var slope = first + d * (two * second + three * d * third);
            var steep = Vector256.Create(middle.Slice(i, Block));
            var perSpread = Vector256<double>.One / Vector256.Sqrt(plain + own * steep * steep);
            var off = z * perSpread;
            (half * off * off).CopyTo(likelihood.Slice(i, Block));
            (slope * perSpread * over).CopyTo(scales.Slice(i, Block));
            off = Vector256.Abs(off);
            var verdict =
                Vector256.LessThan(fitsUpTo, off).AsInt64()
                + Vector256.LessThan(edgeUpTo, off).AsInt64()
                + Vector256.LessThan(doubtfulUpTo, off).AsInt64();
            var four = fits.Slice(i, Block);
            (four[0], four[1], four[2], four[3]) = ((Fit)(-verdict[0]), (Fit)(-verdict[1]), (Fit)(-verdict[2]), (Fit)(-verdict[3]));
        }
        return blocks * Block;
    }
}
