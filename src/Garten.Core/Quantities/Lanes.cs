using System.Numerics;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;

namespace Garten.Core.Quantities;

/// <summary>
/// Exponentials and logarithms of many numbers at once: by the lanes of the processor where code is compiled for it. The interpreter of
/// the browser takes them one by one, which is quicker there. Both agree to the last digit or two.
/// </summary>
internal static class Lanes
{
    // e to this is 1e-304, close to the least that a double holds in full.
    private const double Nothing = -700;

    private static bool AreQuicker => Vector.IsHardwareAccelerated && RuntimeFeature.IsDynamicCodeCompiled;

    /// <summary>e to each of them, in place.</summary>
    public static void Exp(Span<double> values) => Exp(values, Nothing);

    /// <summary>The same; what is less than <paramref name="least"/>, which is -700 or more, becomes 0.</summary>
    public static void Exp(Span<double> values, double least)
    {
        var done = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            // A lane with more than nothing to raise goes another way round, five times as slow: what is that little is 0.
            var nothing = new Vector<double>(least);
            for (var i = 0; i < lanes.Length; i++)
            {
                // Of a long list most are nothing, once something was seen.
                if (Vector.LessThanAll(lanes[i], nothing)) lanes[i] = Vector<double>.Zero;
                else lanes[i] = Vector.ConditionalSelect(Vector.LessThan(lanes[i], nothing), Vector<double>.Zero, Vector.Exp(Vector.Max(lanes[i], nothing)));
            }
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++) values[done] = values[done] < least ? 0 : Math.Exp(values[done]);
    }

    /// <summary>The natural logarithm of each of them, in place.</summary>
    public static void Log(Span<double> values)
    {
        var done = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            for (var i = 0; i < lanes.Length; i++) lanes[i] = Vector.Log(lanes[i]);
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++) values[done] = Math.Log(values[done]);
    }

    /// <summary>One over the square root of each of them, in place.</summary>
    public static void InverseRoot(Span<double> values)
    {
        var done = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            for (var i = 0; i < lanes.Length; i++) lanes[i] = Vector<double>.One / Vector.SquareRoot(lanes[i]);
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++) values[done] = 1 / Math.Sqrt(values[done]);
    }
}
