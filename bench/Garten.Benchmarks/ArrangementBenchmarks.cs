using BenchmarkDotNet.Attributes;
using Garten.Core.Surveys.Figures;

namespace Garten.Benchmarks;

/// <summary>Principal coordinates and clusters of 200 and of 1,000 plots, beside the plain way to eigenvectors (Jacobi's rotations, 200
/// plots).</summary>
public class ArrangementBenchmarks
{
    private const int Seed = 22;
    private const int Few = 200;
    private const int Many = 1_000;
    private const int Sides = 12;
    private const int Sweeps = 8;
    private double[][] _few = [];
    private double[][] _many = [];

    /// <summary>Makes the distances.</summary>
    [GlobalSetup]
    public void Setup()
    {
        var random = new Random(Seed);
        var places = Enumerable.Range(0, Many).Select(_ => Enumerable.Range(0, Sides).Select(_ => random.NextDouble()).ToArray()).ToArray();
        double[][] Between(int count) =>
            [
                .. places
                    .Take(count)
                    .Select(a => places.Take(count).Select(b => Math.Sqrt(a.Zip(b, (x, y) => (x - y) * (x - y)).Sum() / Sides)).ToArray()),
            ];
        (_few, _many) = (Between(Few), Between(Many));
    }

    /// <summary>200 plots.</summary>
    [Benchmark]
    public Ordination OfFew() => Ordination.Of(_few, 2);

    /// <summary>1,000 plots.</summary>
    [Benchmark]
    public Ordination OfMany() => Ordination.Of(_many, 2);

    /// <summary>1,000 plots joined.</summary>
    [Benchmark]
    public Clustering Joined() => Clustering.Of(_many);

    /// <summary>200 plots, plainly.</summary>
    [Benchmark(Baseline = true)]
    public double Plainly()
    {
        var a = _few.Select(row => row.Select(d => -d * d / 2).ToArray()).ToArray();
        var v = Enumerable.Range(0, Few).Select(i => Enumerable.Range(0, Few).Select(j => i == j ? 1.0 : 0).ToArray()).ToArray();
        for (var sweep = 0; sweep < Sweeps; sweep++)
        {
            for (var p = 0; p < Few; p++)
            {
                for (var q = p + 1; q < Few; q++)
                {
                    if (a[p][q] == 0)
                        continue;
                    var angle = Math.Atan2(2 * a[p][q], a[q][q] - a[p][p]) / 2;
                    var (s, c) = (Math.Sin(angle), Math.Cos(angle));
                    for (var k = 0; k < Few; k++)
                        (a[k][p], a[k][q]) = (c * a[k][p] - s * a[k][q], s * a[k][p] + c * a[k][q]);
                    for (var k = 0; k < Few; k++)
                        (a[p][k], a[q][k]) = (c * a[p][k] - s * a[q][k], s * a[p][k] + c * a[q][k]);
                    for (var k = 0; k < Few; k++)
                        (v[k][p], v[k][q]) = (c * v[k][p] - s * v[k][q], s * v[k][p] + c * v[k][q]);
                }
            }
        }
        return v[0][0];
    }
}
