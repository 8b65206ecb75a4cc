using BenchmarkDotNet.Attributes;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;

namespace Garten.Benchmarks;

/// <summary>Indicator values of 225 taxa in 50 plots of five groups with 999 permutations, beside the same worked out plainly: every taxon
/// in every plot and group, for every permutation.</summary>
public class IndicatorBenchmarks
{
    private const int Seed = 22;
    private const int Taxa = 225;
    private const int Plots = 50;
    private const int Groups = 5;
    private const double ShareOfPresent = 0.4;
    private Community _community = null!;
    private string[] _groups = null!;
    private double[][] _rows = null!;

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
                    Enumerable.Range(0, Taxa).Select(_ => random.NextDouble() < ShareOfPresent ? random.Next(1, 60) : 0.0).ToArray()
                ),
        ];
        _groups = [.. Enumerable.Range(0, Plots).Select(p => $"group {p % Groups}")];
        _community = new Community(
            [.. Enumerable.Range(0, Plots).Select(p => $"plot {p}")],
            [.. Enumerable.Range(0, Taxa).Select(t => $"taxon {t}")],
            _rows
        );
    }

    /// <summary>As it is done.</summary>
    [Benchmark]
    public IReadOnlyList<IndicatorValue> Indicators() => IndicatorValue.Of(_community, _groups, Seed);

    /// <summary>Plainly.</summary>
    [Benchmark(Baseline = true)]
    public int Plainly()
    {
        var groups = _groups.ToArray();
        var observed = Enumerable.Range(0, Taxa).Select(t => Best(t, groups)).ToArray();
        var asLarge = 0;
        var draw = new SeededDraw(Seed);
        for (var i = 0; i < IndicatorValue.Permutations; i++)
        {
            draw.Shuffle<string>(groups);
            asLarge += Enumerable.Range(0, Taxa).Count(t => Best(t, groups) >= observed[t]);
        }
        return asLarge;
    }

    private double Best(int taxon, string[] groups)
    {
        var means = groups
            .Distinct()
            .Select(g =>
                (
                    Mean: Enumerable.Range(0, Plots).Where(p => groups[p] == g).Average(p => _rows[p][taxon]),
                    Share: Enumerable.Range(0, Plots).Where(p => groups[p] == g).Average(p => _rows[p][taxon] > 0 ? 1.0 : 0)
                )
            )
            .ToList();
        var sum = means.Sum(m => m.Mean);
        return means.Max(m => m.Mean / sum * m.Share);
    }
}
