using Garten.Benchmarks;
using Garten.Core.Evidence;
using Garten.Core.Identification;
using Xunit;

namespace Garten.Core.Tests.Identification;

/// <summary>The quick way ranks as the obvious one does, from whatever sheet it goes on.</summary>
public sealed class ObviousTests
{
    [Fact]
    public void ColumnsRankAsADictionaryOfDescriptionsDoes()
    {
        var (shelf, _, sheet) = GeneratedFlora.Make(80, 40);
        var sifter = new Sifter(FloraColumns.Of(shelf.Table.Characters, shelf.Table.Descriptions), [], []);
        var obvious = new Obvious(shelf.Table);
        // Look by look, one taken back, one changed: sums that are carried on are those made anew.
        List<Observation>[] sheets =
        [
            .. Enumerable.Range(1, sheet.Count).Select(n => sheet.Take(n).ToList()),
            [.. sheet.Skip(1)],
            [.. sheet.Skip(3).Select((o, i) => i == 0 && o.States.Count > 0 ? o with { States = ["s1"] } : o)],
            [.. sheet],
        ];
        foreach (var looks in sheets)
        {
            var expected = obvious.Rank(looks);
            var standing = sifter
                .Sift(new SiftQuery(looks))
                .Standing.Where(c => c.Taxon != Sifter.NotOnList && c.Probability > 1e-12)
                .ToList();
            Assert.Equal(
                expected.Take(standing.Count).Select(e => e.Taxon).Order(StringComparer.Ordinal),
                standing.Select(c => c.Taxon).Order(StringComparer.Ordinal)
            );
            var log = expected.ToDictionary(e => e.Taxon, e => e.Log);
            for (var i = 1; i < standing.Count; i++)
            {
                Assert.True(log[standing[i - 1].Taxon] >= log[standing[i].Taxon] - 1e-9);
                Assert.Equal(
                    log[standing[0].Taxon] - log[standing[i].Taxon],
                    Math.Log(standing[0].Probability / standing[i].Probability),
                    9
                );
            }
        }
    }
}
