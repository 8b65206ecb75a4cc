using BenchmarkDotNet.Attributes;
using Garten.Core.Evidence;
using Garten.Core.Identification;
using Garten.Core.Keys;

namespace Garten.Benchmarks;

/// <summary>Weighing a sheet of 20 looks against every taxon, beside a plain loop over dictionaries of the same likelihoods.</summary>
[MemoryDiagnoser]
public class WeighingBenchmarks
{
    private BenchShelf _shelf = null!;
    private IReadOnlyList<EvidenceItem> _items = null!;
    private Dictionary<string, Dictionary<string, double>> _logs = null!;

    [Params(24, 500)]
    public int Taxa { get; set; }

    [GlobalSetup]
    public void Setup()
    {
        (_shelf, _, var sheet) = GeneratedFlora.Make(Taxa, 150);
        _items = EvidenceItem.Pool(sheet, _shelf.Table, EvidenceOptions.Default);
        var weighed = new WeighedSheet(_items, _shelf.Likelihood);
        _logs = _shelf.Descriptions.ToDictionary(
            d => d.Taxon,
            d => weighed.Weigh(d.Taxon).Items.ToDictionary(i => i.Character, i => i.LogRatio)
        );
    }

    [Benchmark(Baseline = true, Description = "plain loop over dictionaries, likelihoods given")]
    public double PlainLoop()
    {
        var best = double.NegativeInfinity;
        foreach (var (_, logs) in _logs)
        {
            var sum = 0d;
            foreach (var item in _items)
                sum += logs[item.Character.Id];
            best = Math.Max(best, sum);
        }
        return best;
    }

    [Benchmark(Description = "the sheet weighed anew, likelihoods worked out")]
    public double Sheet()
    {
        var sheet = new WeighedSheet(_items, _shelf.Likelihood);
        return _shelf.Descriptions.Max(d => sheet.Weigh(d.Taxon).LogLikelihood);
    }
}

/// <summary>A whole step of the Bench: the walk with a sheet, its couplets, ends and turns.</summary>
[MemoryDiagnoser]
public class BenchStepBenchmarks
{
    private BenchShelf _shelf = null!;
    private string _start = "";
    private IReadOnlyList<Observation> _sheet = [];

    [Params(24, 500)]
    public int Taxa { get; set; }

    [GlobalSetup]
    public void Setup() => (_shelf, _start, _sheet) = GeneratedFlora.Make(Taxa, 150);

    [Benchmark(Baseline = true, Description = "the walk alone")]
    public int Walk() => KeyWalk.Follow(_shelf.Keys, _start, [new TrailAnswer(_start, "1", 0)]).Standing.Count;

    [Benchmark(Description = "the walk with a sheet of 20 looks")]
    public int Step() =>
        KeyBench.Follow(_shelf, _start, [new TrailAnswer(_start, "1", 0)], _sheet, [], new DateOnly(2026, 6, 1)).Ends.Count;
}
