using Garten.Core.Surveys;
using Xunit;

namespace Garten.Core.Tests.Surveys;

/// <summary>Shares of a patch without pegs, changes with their error.</summary>
public sealed class PatchShareTests
{
    [Fact]
    public void ByHand()
    {
        // 18 of 20 rosettes and 19 of 20 flowering plants were found again: d̂ = 18.5/21 and 19.5/21; N = 80/d̂r = 90.81, p = 30/90.81.
        var share = PatchShare.Of(new CheckedCount(80, 20, 18), new CheckedCount(30, 20, 19));
        var (dr, df) = (18.5 / 21, 19.5 / 21);
        Assert.Equal(30 / (80 / dr) / df, share.Share!.Value, 12);
        var (n, z2) = (80 / dr, 1.959963984540054 * 1.959963984540054);
        var p = 30 / n;
        var low = (p + z2 / (2 * n) - Math.Sqrt(z2) * Math.Sqrt(p * (1 - p) / n + z2 / (4 * n * n))) / (1 + z2 / n);
        var v = (1 - dr) / 80.5 + (1 - df) / (21 * df) + (1 - dr) / (21 * dr) + 0.01;
        Assert.Equal(p / df * Math.Exp(-Math.Sqrt(Math.Pow(Math.Log(p / low), 2) + z2 * v)), share.Low!.Value, 9);
        Assert.Contains("counts as dead what died between", share.InWords, StringComparison.Ordinal);
    }

    [Fact]
    public void WithoutABlindCheckThereIsNoShare()
    {
        var share = PatchShare.Of(new CheckedCount(80), new CheckedCount(30, 20, 19));
        Assert.Null(share.Share);
        Assert.Contains("isn’t known", share.InWords, StringComparison.Ordinal);
        Assert.Null(PatchShare.Of(new CheckedCount(0, 5, 5), new CheckedCount(0, 5, 5)).Share);
    }

    [Fact]
    public void NoneFlowering()
    {
        var share = PatchShare.Of(new CheckedCount(40, 20, 18), new CheckedCount(0, 20, 18));
        Assert.Equal((0d, 0d), (share.Share!.Value, share.Low!.Value));
        Assert.InRange(share.High!.Value, 0.05, 0.2);
    }

    [Theory]
    [InlineData(60, 0.9, 0.95, 0.3)]
    [InlineData(200, 0.6, 0.9, 0.5)]
    [InlineData(40, 0.8, 0.7, 0.15)]
    public void TheIntervalHoldsInSimulation(int plants, double findsRosettes, double findsFlowers, double flowers)
    {
        var random = new Random(4711);
        const int runs = 600,
            known = 25;
        int Of(int n, double p) => Enumerable.Range(0, n).Count(_ => random.NextDouble() < p);
        var held = 0;
        for (var i = 0; i < runs; i++)
        {
            var flowered = Of(plants, flowers);
            var share = PatchShare.Of(
                new CheckedCount(Of(plants, findsRosettes), known, Of(known, findsRosettes)),
                new CheckedCount(Of(flowered, findsFlowers), known, Of(known, findsFlowers))
            );
            held += share.Low <= flowers && flowers <= share.High ? 1 : 0;
        }
        Assert.InRange(held / (double)runs, 0.92, 1);
    }

    private static PopulationCount Count(int year, int number, int known = 0, int found = 0, CountUnit unit = CountUnit.Individuals) =>
        new(Guid.NewGuid(), new DateOnly(year, 6, 1), unit, number, "", "A. Recorder", null, known, found);

    [Fact]
    public void AChangeIsNeverSaidWithoutItsError()
    {
        // 100 to 124 in a year: chance and the counters make up as much.
        var change = CountChange.Of(Count(2025, 100), Count(2026, 124));
        Assert.True(change.Low < 1 && change.High > 1.24);
        Assert.StartsWith("no change that these counts can tell", change.PerYearInWords, StringComparison.Ordinal);
        var real = CountChange.Of(Count(2025, 400), Count(2026, 120));
        Assert.True(real.High < 0.6);
        Assert.StartsWith("−70 % a year (95 %:", real.PerYearInWords, StringComparison.Ordinal);
        // A count that overlooks half of the plants, found by a blind check, says less.
        var poor = CountChange.Of(Count(2025, 400, 20, 9), Count(2026, 120, 20, 11));
        Assert.True(poor.High > real.High);
    }

    [Fact]
    public void RosettesOfWinterAndFlowersOfSummerMeet()
    {
        PopulationCount[] counts =
        [
            Count(2026, 80, 20, 18, CountUnit.Rosettes) with
            {
                Date = new DateOnly(2026, 1, 10),
            },
            Count(2026, 30, 20, 19, CountUnit.Flowering) with
            {
                Date = new DateOnly(2026, 6, 20),
            },
        ];
        var year = PopulationSummary.Of(counts, [], [], new DateOnly(2026, 8, 1)).Years.Single();
        Assert.Equal(PatchShare.Of(new CheckedCount(80, 20, 18), new CheckedCount(30, 20, 19)).Share, year.OfRosettes!.Share);
        // The rosettes of this autumn are those of next summer.
        counts[0] = counts[0] with { Date = new DateOnly(2026, 10, 10) };
        Assert.All(PopulationSummary.Of(counts, [], [], new DateOnly(2026, 12, 1)).Years, y => Assert.Null(y.OfRosettes));
    }
}
