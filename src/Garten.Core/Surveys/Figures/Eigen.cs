using System.Numerics;

namespace Garten.Core.Surveys.Figures;

/// <summary>An eigenvalue of a symmetric matrix with its vector, of length 1.</summary>
/// <param name="Value">The eigenvalue.</param>
/// <param name="Vector">The vector.</param>
internal sealed record EigenPair(double Value, double[] Vector);

/// <summary>Eigenvalues and vectors of symmetric matrices: all of them by rotations into a tridiagonal form and from there to a
/// diagonal.</summary>
internal static class Eigen
{
    // Ten turns at one eigenvalue are far more than any needs.
    private const int MostTurns = 60;

    /// <summary>The largest eigenvalues with their vectors, the largest first.</summary>
    /// <param name="matrix">A symmetric matrix; it stays as it is.</param>
    /// <param name="count">How many.</param>
    /// <param name="above">The sum of all that are above 0.</param>
    public static List<EigenPair> Largest(double[][] matrix, int count, out double above)
    {
        var n = matrix.Length;
        var (diagonal, beside) = (new double[n], new double[n]);
        var reflected = matrix.Select(row => (double[])row.Clone()).ToArray();
        Tridiagonal(reflected, diagonal, beside);
        // One vector a row: what is turned stands side by side.
        double[][] vectors = [.. Enumerable.Range(0, n).Select(i => reflected.Select(row => row[i]).ToArray())];
        Diagonal(vectors, diagonal, beside);
        above = diagonal.Where(v => v > 0).Sum();
        return
        [
            .. Enumerable
                .Range(0, n)
                .OrderByDescending(i => diagonal[i])
                .Take(count)
                .Select(i => new EigenPair(diagonal[i], Signed(vectors[i]))),
        ];
    }

    // The sign is free: the largest part is above 0, so that the same table is drawn the same way.
    private static double[] Signed(double[] vector)
    {
        var largest = vector.MaxBy(Math.Abs);
        if (largest < 0)
        {
            for (var i = 0; i < vector.Length; i++)
                vector[i] = -vector[i];
        }
        return vector;
    }

    // Householder's reflections (1958), row by row from the last; what they come to together stands in the matrix afterwards. Both halves
    // of the matrix are kept up, so that all is done along rows.
    private static void Tridiagonal(double[][] a, double[] diagonal, double[] beside)
    {
        var n = a.Length;
        for (var i = n - 1; i > 0; i--)
            Reflect(a, diagonal, beside, i);
        (diagonal[0], beside[0]) = (0, 0);
        var sums = new double[n];
        for (var i = 0; i < n; i++)
        {
            var row = a[i];
            if (diagonal[i] != 0)
            {
                Array.Clear(sums);
                for (var k = 0; k < i; k++)
                    Add(sums, row[k], a[k], i);
                for (var k = 0; k < i; k++)
                    Add(a[k], -row[k] / diagonal[i], sums, i);
            }
            diagonal[i] = row[i];
            row[i] = 1;
            for (var k = 0; k < i; k++)
                a[k][i] = row[k] = 0;
        }
    }

    // Makes a row's parts before the one beside the diagonal 0, and notes in it by which reflection.
    private static void Reflect(double[][] a, double[] diagonal, double[] beside, int i)
    {
        var row = a[i];
        var scale = 0.0;
        for (var k = 0; k < i; k++)
            scale += Math.Abs(row[k]);
        if (i == 1 || scale == 0)
        {
            beside[i] = row[i - 1];
            diagonal[i] = 0;
            return;
        }
        for (var k = 0; k < i; k++)
            row[k] /= scale;
        var square = Dot(row, row, i);
        var root = row[i - 1] >= 0 ? -Math.Sqrt(square) : Math.Sqrt(square);
        beside[i] = scale * root;
        square -= row[i - 1] * root;
        row[i - 1] -= root;
        for (var j = 0; j < i; j++)
            beside[j] = Dot(a[j], row, i) / square;
        var half = Dot(beside, row, i) / (square + square);
        Add(beside, -half, row, i);
        for (var j = 0; j < i; j++)
        {
            Add(a[j], -row[j], beside, i);
            Add(a[j], -beside[j], row, i);
        }
        diagonal[i] = square;
    }

    private static double Dot(double[] one, double[] other, int length)
    {
        var sums = Vector<double>.Zero;
        var k = 0;
        for (; k <= length - Vector<double>.Count; k += Vector<double>.Count)
            sums += new Vector<double>(one, k) * new Vector<double>(other, k);
        var sum = Vector.Sum(sums);
        for (; k < length; k++)
            sum += one[k] * other[k];
        return sum;
    }

    private static void Add(double[] to, double times, double[] what, int length)
    {
        var factor = new Vector<double>(times);
        var k = 0;
        for (; k <= length - Vector<double>.Count; k += Vector<double>.Count)
            (new Vector<double>(to, k) + factor * new Vector<double>(what, k)).CopyTo(to, k);
        for (; k < length; k++)
            to[k] += times * what[k];
    }

    // Implicit QL with Wilkinson's shift (Bowdler, Martin, Reinsch and Wilkinson 1968).
    private static void Diagonal(double[][] vectors, double[] diagonal, double[] beside)
    {
        var n = diagonal.Length;
        for (var i = 1; i < n; i++)
            beside[i - 1] = beside[i];
        beside[^1] = 0;
        for (var l = 0; l < n; l++)
        {
            for (var turns = 0; turns < MostTurns; turns++)
            {
                var m = l;
                for (; m < n - 1; m++)
                {
                    var near = Math.Abs(diagonal[m]) + Math.Abs(diagonal[m + 1]);
                    if (near + Math.Abs(beside[m]) == near)
                        break;
                }
                if (m == l)
                    break;
                Turn(vectors, diagonal, beside, l, m);
            }
        }
    }

    private static void Turn(double[][] vectors, double[] diagonal, double[] beside, int l, int m)
    {
        var g = (diagonal[l + 1] - diagonal[l]) / (2 * beside[l]);
        var r = double.Hypot(g, 1);
        g = diagonal[m] - diagonal[l] + beside[l] / (g + (g >= 0 ? r : -r));
        var (s, c, p) = (1.0, 1.0, 0.0);
        for (var i = m - 1; i >= l; i--)
        {
            var f = s * beside[i];
            var b = c * beside[i];
            r = double.Hypot(f, g);
            beside[i + 1] = r;
            if (r == 0)
            {
                diagonal[i + 1] -= p;
                beside[m] = 0;
                return;
            }
            (s, c) = (f / r, g / r);
            g = diagonal[i + 1] - p;
            r = (diagonal[i] - g) * s + 2 * c * b;
            p = s * r;
            diagonal[i + 1] = g + p;
            g = c * r - b;
            Rotate(vectors[i], vectors[i + 1], s, c);
        }
        diagonal[l] -= p;
        beside[l] = g;
        beside[m] = 0;
    }

    private static void Rotate(double[] one, double[] other, double s, double c)
    {
        var (sine, cosine) = (new Vector<double>(s), new Vector<double>(c));
        var k = 0;
        for (; k <= one.Length - Vector<double>.Count; k += Vector<double>.Count)
        {
            var (x, y) = (new Vector<double>(one, k), new Vector<double>(other, k));
            (sine * x + cosine * y).CopyTo(other, k);
            (cosine * x - sine * y).CopyTo(one, k);
        }
        for (; k < one.Length; k++)
        {
            var f = other[k];
            other[k] = s * one[k] + c * f;
            one[k] = c * one[k] - s * f;
        }
    }
}
