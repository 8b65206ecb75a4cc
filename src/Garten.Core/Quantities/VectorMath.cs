using System.Numerics;
using System.Runtime.CompilerServices;
using System.Runtime.InteropServices;

namespace Garten.Core.Quantities;

/// <summary>
/// Arithmetic on many numbers at once: by the lanes of the processor where code is compiled for it. The interpreter of
/// the browser takes them one by one, which is quicker there. Both agree to the last digit or two.
/// </summary>
internal static class VectorMath
{
    // e to this is 1e-304, close to the least that a double holds in full.
    private const double Nothing = -700;

    /// <summary>Whether code is compiled for lanes here.</summary>
    public static bool AreQuicker => Vector.IsHardwareAccelerated && RuntimeFeature.IsDynamicCodeCompiled;

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
                if (Vector.LessThanAll(lanes[i], nothing))
                    lanes[i] = Vector<double>.Zero;
                else
                    lanes[i] = Vector.ConditionalSelect(
                        Vector.LessThan(lanes[i], nothing),
                        Vector<double>.Zero,
                        Vector.Exp(Vector.Max(lanes[i], nothing))
                    );
            }
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++)
            values[done] = values[done] < least ? 0 : Math.Exp(values[done]);
    }

    /// <summary>The natural logarithm of each of them, in place.</summary>
    public static void Log(Span<double> values)
    {
        var done = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            for (var i = 0; i < lanes.Length; i++)
                lanes[i] = Vector.Log(lanes[i]);
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++)
            values[done] = Math.Log(values[done]);
    }

    /// <summary>A line through each of them, in place: slope·x + start.</summary>
    public static void Line(Span<double> values, double slope, double start)
    {
        var done = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            Vector<double> slopes = new(slope),
                starts = new(start);
            for (var i = 0; i < lanes.Length; i++)
                lanes[i] = slopes * lanes[i] + starts;
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++)
            values[done] = slope * values[done] + start;
    }

    /// <summary>Each multiplied by its factor, in place. There are as many factors.</summary>
    public static void Multiply(Span<double> values, ReadOnlySpan<double> factors)
    {
        var done = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            var by = MemoryMarshal.Cast<double, Vector<double>>(factors)[..lanes.Length];
            for (var i = 0; i < lanes.Length; i++)
                lanes[i] *= by[i];
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++)
            values[done] *= factors[done];
    }

    /// <summary>Their sum.</summary>
    public static double Sum(ReadOnlySpan<double> values)
    {
        var done = 0;
        double sum = 0;
        if (AreQuicker)
        {
            var sums = Vector<double>.Zero;
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            for (var i = 0; i < lanes.Length; i++)
                sums += lanes[i];
            sum = Vector.Sum(sums);
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++)
            sum += values[done];
        return sum;
    }

    /// <summary>The sum of each multiplied by its weight. There are as many weights.</summary>
    public static double Sum(ReadOnlySpan<double> values, ReadOnlySpan<double> weights)
    {
        var done = 0;
        double sum = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            var by = MemoryMarshal.Cast<double, Vector<double>>(weights)[..lanes.Length];
            var sums = Vector<double>.Zero;
            for (var i = 0; i < lanes.Length; i++)
                sums += lanes[i] * by[i];
            sum = Vector.Sum(sums);
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++)
            sum += values[done] * weights[done];
        return sum;
    }

    /// <summary>Those of them that stand where a weight is above 0, less a number, and 0 at most; the others become minus infinity. There
    /// are as many weights and results.</summary>
    public static void Below(ReadOnlySpan<double> values, double top, ReadOnlySpan<double> weights, Span<double> result)
    {
        var done = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            var by = MemoryMarshal.Cast<double, Vector<double>>(weights)[..lanes.Length];
            var to = MemoryMarshal.Cast<double, Vector<double>>(result)[..lanes.Length];
            Vector<double> tops = new(top),
                nothing = new(double.NegativeInfinity);
            for (var i = 0; i < lanes.Length; i++)
                to[i] = Vector.ConditionalSelect(
                    Vector.GreaterThan(by[i], Vector<double>.Zero),
                    Vector.Min(lanes[i] - tops, Vector<double>.Zero),
                    nothing
                );
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++)
            result[done] = weights[done] > 0 ? Math.Min(values[done] - top, 0) : double.NegativeInfinity;
    }

    /// <summary>The largest of those that stand where a weight is above 0; <paramref name="least"/> where all are less. There are as many
    /// weights.</summary>
    public static double Largest(ReadOnlySpan<double> values, ReadOnlySpan<double> weights, double least)
    {
        var done = 0;
        if (AreQuicker)
        {
            var lanes = MemoryMarshal.Cast<double, Vector<double>>(values);
            var by = MemoryMarshal.Cast<double, Vector<double>>(weights)[..lanes.Length];
            Vector<double> largest = new(least),
                start = largest;
            for (var i = 0; i < lanes.Length; i++)
                largest = Vector.Max(largest, Vector.ConditionalSelect(Vector.GreaterThan(by[i], Vector<double>.Zero), lanes[i], start));
            for (var i = 0; i < Vector<double>.Count; i++)
                least = Math.Max(least, largest[i]);
            done = lanes.Length * Vector<double>.Count;
        }
        for (; done < values.Length; done++)
        {
            if (weights[done] > 0 && values[done] > least)
                least = values[done];
        }
        return least;
    }
}
