using BenchmarkDotNet.Attributes;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;

namespace Garten.Benchmarks;

/// <summary>A large flora ranked anew after one more look, beside the obvious way.</summary>
[MemoryDiagnoser]
public class SiftBenchmarks
{
    private const int Taxa = 2000;
    private const int Characters = 300;

    private Sifter _sifter = null!;
    private Obvious _obvious = null!;
    private IReadOnlyList<Observation> _sheet = [];
    private byte[] _pack = [];
    private double _more;

    [GlobalSetup]
    public void Setup()
    {
        var (shelf, _, sheet) = GeneratedFlora.Make(Taxa, Characters);
        _pack = ReadyFlora.Write(
            new Flora(
                "generated",
                "Generated",
                [
                    .. shelf.Table.Descriptions.Select(
                        (d, i) => new Taxon(d.Taxon, $"Genella species{i}", "", "species", "", "", "", [], "")
                    ),
                ],
                shelf.Table
            )
        );
        _sifter = ReadyFlora.Read(_pack).Sifter;
        _sifter.WarmUp(int.MaxValue);
        _sheet = sheet;
        _obvious = new Obvious(shelf.Table);
    }

    // A reading that wasn't there before, so that no answer is at hand.
    private List<Observation> OneMore()
    {
        _more += 0.0001;
        return
        [
            .. _sheet.SkipLast(1),
            _sheet.First(o => o.Readings.Count > 0) with
            {
                Id = Guid.Empty,
                Readings = [new Reading(20 + _more, "", 0.1)],
            },
        ];
    }

    [Benchmark(Baseline = true, Description = "the obvious way: dictionary, likelihoods per call")]
    public int ObviousWay() => _obvious.Rank(OneMore()).Count;

    [Benchmark(Description = "ranked anew after one look, as the page asks: reasons of the first")]
    public int Rank() => _sifter.Sift(new SiftQuery(OneMore(), Why: [])).Standing.Count;

    [Benchmark(Description = "the same with the reasons of the likeliest")]
    public int RankAndReasons() => _sifter.Sift(new SiftQuery(OneMore())).Standing.Count;

    [Benchmark(Description = "ranked as the page asks, with the looks that tell most")]
    public int RankAndLooks() => _sifter.SiftAndLook(new SiftQuery(OneMore(), Why: [])).Looks.Now.Count;

    [Benchmark(Description = "the looks that tell most, nothing seen yet")]
    public int LooksAtFirst() => _sifter.SiftAndLook(new SiftQuery([])).Looks.Now.Count;

    [Benchmark(Description = "the pack read")]
    public int Load() => ReadyFlora.Read(_pack).Pack.Taxa.Count;
}
