using BenchmarkDotNet.Attributes;
using Garten.Core.Contracts;

namespace Garten.Benchmarks;

/// <summary>
/// Figures of a survey of 225 taxa in 50 plots with some 21,000 individuals, beside a plain working-out of the two dearest of them (the
/// error of rarefaction and the deviation of the accumulation, pair by pair of taxa, with logarithms of factorials).
/// </summary>
public class StatisticsBenchmarks
{
    private const int Seed = 22;
    private const int Taxa = 225;
    private const int Plots = 50;
    private const double MeanOfPresent = 4.7;
    private const double ShareOfPresent = 0.4;
    private StatisticsRequest _request = null!;
    private double[][] _rows = null!;
    private double[] _logFactorials = null!;

    /// <summary>Makes the table.</summary>
    [GlobalSetup]
    public void Setup()
    {
        var random = new Random(Seed);
        _rows =
        [
            .. Enumerable
                .Range(0, Plots)
                .Select(_ =>
                    Enumerable
                        .Range(0, Taxa)
                        .Select(_ =>
                            random.NextDouble() < ShareOfPresent ? Math.Ceiling(-MeanOfPresent * Math.Log(1 - random.NextDouble())) : 0
                        )
                        .ToArray()
                ),
        ];
        _request = new StatisticsRequest(
            SampleKind.Individuals,
            [.. _rows.SelectMany((row, p) => row.Select((v, t) => new SampleValue($"plot {p}", $"taxon {t}", v)))]
        );
        _logFactorials = new double[(int)_rows.Sum(r => r.Sum()) + 1];
        for (var n = 1; n < _logFactorials.Length; n++)
            _logFactorials[n] = _logFactorials[n - 1] + Math.Log(n);
    }

    /// <summary>All figures.</summary>
    [Benchmark]
    public StatisticsResponse Figures() => _request.WorkOut();

    /// <summary>Two of them, plainly.</summary>
    [Benchmark(Baseline = true)]
    public double Plainly()
    {
        var size = (int)_rows.Min(r => r.Sum());
        var sum = _rows.Sum(r => Rarefied(r, size));
        sum += Rarefied([.. Enumerable.Range(0, Taxa).Select(t => _rows.Sum(r => r[t]))], size);
        for (var n = 1; n <= Plots; n++)
            sum += Accumulated(n);
        return sum;
    }

    private double Missed(int all, int of, int size) => all - of < size ? 0 : Math.Exp(LogChoose(all - of, size) - LogChoose(all, size));

    private double LogChoose(int n, int k) => _logFactorials[n] - _logFactorials[k] - _logFactorials[n - k];

    private double Rarefied(double[] row, int size)
    {
        var all = (int)row.Sum();
        var variance = 0.0;
        for (var i = 0; i < row.Length; i++)
        {
            var one = Missed(all, (int)row[i], size);
            variance += one * (1 - one);
            for (var j = 0; j < i; j++)
                variance += 2 * (Missed(all, (int)(row[i] + row[j]), size) - one * Missed(all, (int)row[j], size));
        }
        return Math.Sqrt(Math.Max(variance, 0));
    }

    private double Accumulated(int plots)
    {
        var variance = 0.0;
        for (var i = 0; i < Taxa; i++)
        {
            var a = _rows.Count(r => r[i] > 0);
            var one = Missed(Plots, a, plots);
            variance += one * (1 - one);
            for (var j = 0; j < i; j++)
            {
                var b = _rows.Count(r => r[j] > 0);
                var both = _rows.Count(r => r[i] > 0 && r[j] > 0);
                var divisor = (double)a * (Plots - a) * b * (Plots - b);
                var other = Missed(Plots, b, plots);
                if (divisor > 0)
                    variance += 2 * (Plots * both - a * b) / Math.Sqrt(divisor) * Math.Sqrt(one * (1 - one) * other * (1 - other));
            }
        }
        return Math.Sqrt(Math.Max(variance, 0));
    }
}
