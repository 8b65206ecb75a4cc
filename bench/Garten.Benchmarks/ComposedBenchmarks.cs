using System.IO.Compression;
using BenchmarkDotNet.Attributes;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Garten.Formats;

namespace Garten.Benchmarks;

/// <summary>Floras whose characters are made of parts and qualities: what bearing costs a ranking, and how large and slow their packs
/// are, dense (2,000 × 300) and sparse (2,000 × 3,000, 95 % unknown).</summary>
public class ComposedBenchmarks
{
    private const int Taxa = 2_000;
    private const int Looks = 20;

    // So many of the looks are at characters that the flora doesn't describe, but something follows from.
    private const int Derived = 4;

    private Sifter _without = null!;
    private Sifter _described = null!;
    private Sifter _with = null!;
    private SiftQuery[] _queries = null!;
    private byte[] _dense = [];
    private byte[] _sparse = [];
    private int _turn;

    /// <summary>The dense and the sparse pack, and a sheet of twenty looks, for measuring them elsewhere.</summary>
    internal (byte[] Dense, byte[] Sparse, IReadOnlyList<Observation> Sheet) Made => (_dense, _sparse, _queries[0].Observations);

    /// <summary>Makes the floras and the sheets.</summary>
    [GlobalSetup]
    public void Make()
    {
        var botany = ShippedVocabulary.Botany;
        var all = botany
            .Vocabulary.Parts.Where(p => !p.IsOwned)
            .SelectMany(p =>
                botany.Vocabulary.Qualities.Where(q => !q.IsQuantity && BotanyIndex.IsUsual(p, q)).Select(q => $"{p.Id}.{q.Id}")
            )
            .Select(botany.Compose)
            .OfType<Character>()
            .ToList();
        // Every tenth, so that parts and qualities of all kinds are among them.
        var some = all.Where((_, i) => i % (all.Count / 300) == 0).Take(300).ToList();
        var dense = Flora(some, 0.8);
        _dense = PackFile.Write(dense);
        _sparse = PackFile.Write(Flora([.. all.Take(3_000)], 0.05));
        Console.WriteLine($"// characters at hand: {all.Count}; dense pack {Size(_dense)}; sparse pack {Size(_sparse)}");
        (_without, _with) = (Ready(_dense, null), Ready(_dense, botany));
        var described = some.Select(c => c.Id).ToHashSet(StringComparer.Ordinal);
        var others = all.Where(c => !described.Contains(c.Id) && some.Any(s => botany.Bearing.Table(s, c) is not null))
            // Of different parts: those of one that follow from one description share their weight, so that one look more changes all of
            // them, which is no cost of bearing alone.
            .DistinctBy(c => CharacterId.Read(c.Id)!.Value.Path)
            .Take(Derived)
            .ToList();
        _described = Ready(PackFile.Write(Flora([.. some, .. others], 0.8)), null);
        List<Observation> sheet =
        [
            .. some.Where((_, i) => i % (300 / (Looks - Derived)) == 0).Take(Looks - Derived).Concat(others).Select(Look),
        ];
        _queries = [new SiftQuery(sheet), new SiftQuery(sheet[..^1])];
    }

    private static string Size(byte[] pack)
    {
        using var packed = new MemoryStream();
        using (var squeeze = new BrotliStream(packed, CompressionLevel.Optimal, leaveOpen: true))
            squeeze.Write(pack);
        return FormattableString.Invariant($"{pack.Length / 1e6:0.00} MB, {packed.Length / 1e6:0.00} MB compressed");
    }

    private static Sifter Ready(byte[] flora, BotanyIndex? botany)
    {
        var pack = PackFile.Read(flora);
        return new Sifter(pack.Columns, pack.Taxa, pack.Seasons) { Botany = botany };
    }

    private static Observation Look(Character character) =>
        new(
            Guid.NewGuid(),
            character.Id,
            Outcome.Seen,
            [character.States[0].Id],
            false,
            [],
            0,
            0,
            Sureness.Sure,
            new ObservationContext(),
            Tool.Eye,
            "2000-01-01",
            ""
        );

    private static Flora Flora(List<Character> characters, double known)
    {
        var random = new Random(16);
        var descriptions = Enumerable
            .Range(0, Taxa)
            .Select(t => new TaxonDescription(
                $"taxon-{t}",
                [
                    .. characters
                        .Where(_ => random.NextDouble() < known)
                        .Select(c => new CharacterDescription(c.Id, [new StateShare(c.States[random.Next(c.States.Count)].Id, 1)])),
                ]
            ))
            .ToList();
        return new Flora(
            "composed",
            "Composed",
            [.. descriptions.Select(d => new Taxon(d.Taxon, d.Taxon, "", "species", "", "", "", [], ""))],
            new CharacterTable(characters, descriptions, [])
        );
    }

    /// <summary>Ranked anew after one look, by a flora that describes all that was looked at.</summary>
    [Benchmark(Baseline = true)]
    public double AllDescribed() => _described.Ranked(_queries[_turn++ & 1]).NotOnList;

    /// <summary>The same sheet where four of the looks are at what the flora doesn't describe, and are left out.</summary>
    [Benchmark]
    public double WithoutBearing() => _without.Ranked(_queries[_turn++ & 1]).NotOnList;

    /// <summary>The same sheet where these four count by what follows from other characters.</summary>
    [Benchmark]
    public double WithBearing() => _with.Ranked(_queries[_turn++ & 1]).NotOnList;

    /// <summary>The dense pack read.</summary>
    [Benchmark]
    public int ReadDense() => PackFile.Read(_dense).Taxa.Count;

    /// <summary>The sparse pack read.</summary>
    [Benchmark]
    public int ReadSparse() => PackFile.Read(_sparse).Taxa.Count;
}
