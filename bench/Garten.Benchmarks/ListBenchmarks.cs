using BenchmarkDotNet.Attributes;
using Garten.Core.Floras;

namespace Garten.Benchmarks;

/// <summary>A keystroke in the list of a visit with 4,000 taxa known, beside the same by going through all names.</summary>
[MemoryDiagnoser]
public class ListBenchmarks
{
    private const int Taxa = 4_000;
    private ShortNames _names = null!;
    private List<Taxon> _taxa = null!;

    /// <summary>What stands in the field.</summary>
    [Params("v", "ve al", "velala", "zz")]
    public string Typed { get; set; } = "";

    /// <summary>Makes the names.</summary>
    [GlobalSetup]
    public void Setup()
    {
        var random = new Random(4);
        _taxa =
        [
            .. Enumerable
                .Range(0, Taxa)
                .Select(i =>
                {
                    var name =
                        $"{char.ToUpperInvariant(InventedWord.Of(random, 4)[0])}{InventedWord.Of(random, 3)} {InventedWord.Of(random, 5)}{i}";
                    return new Taxon(
                        $"t{i}",
                        name,
                        "",
                        "species",
                        "",
                        "",
                        $"{InventedWord.Of(random, 4)} {InventedWord.Of(random, 4)}",
                        [],
                        "",
                        TaxonFacts.None
                    );
                }),
        ];
        _names = new ShortNames(_taxa);
    }

    /// <summary>As it is done.</summary>
    [Benchmark(Baseline = true)]
    public int Indexed() => _names.Find(Typed, 8).Count;

    /// <summary>Plainly: everything made again at each keystroke.</summary>
    [Benchmark]
    public int Plainly() => new ShortNames(_taxa).Find(Typed, 8).Count;
}
