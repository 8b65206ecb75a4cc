using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Xunit;

namespace Garten.Core.Tests.Surveys;

public sealed class OccupancyTests
{
    private static IReadOnlyList<bool> History(int visits, int found) => [.. Enumerable.Range(0, visits).Select(i => i < found)];

    [Fact]
    public void ItIsWhatIsMostProbable()
    {
        (int Visits, int Found)[] all = [(4, 2), (4, 0), (4, 3), (4, 1), (3, 0), (4, 0), (2, 1), (4, 4), (4, 0), (4, 2)];
        var it = Occupancy.Of([.. all.Select(x => History(x.Visits, x.Found))])!;
        // R: the same likelihood, by nlm with its Hessian.
        Assert.Equal((10, 37, 6, 13), (it.Places, it.Visits, it.FoundAt, it.Found));
        Assert.Equal(0.6298509274, it.Share, 6);
        Assert.Equal(0.5635008294, it.Detection, 6);
        Assert.Equal(0.29783676, it.ShareLow!.Value, 3);
        Assert.Equal(0.87222484, it.ShareHigh!.Value, 3);
        Assert.Equal(0.33600545, it.DetectionLow!.Value, 3);
        Assert.Equal(0.76708271, it.DetectionHigh!.Value, 3);
    }

    [Fact]
    public void WhatTheVisitsDontSayIsntSaid()
    {
        Assert.Null(Occupancy.Of([]));
        Assert.Null(Occupancy.Of([History(3, 0), History(2, 0)]));
        Assert.Null(Occupancy.Of([History(1, 1), History(1, 0)]));
        // Found everywhere at once: certain within these visits, and without bounds.
        var all = Occupancy.Of([History(3, 3), History(2, 2)])!;
        Assert.Equal((1, 1), (all.Share, all.Detection));
        Assert.Null(all.ShareLow);
        Assert.Null(all.DetectionHigh);
    }

    [Theory]
    [InlineData(0.6, 0.5)]
    [InlineData(0.4, 0.35)]
    public void ItsIntervalsHoldWhereThereAreManyPlaces(double share, double detection)
    {
        var draw = new SeededDraw(20);
        const int times = 500;
        var (held, said) = (0, 0);
        for (var i = 0; i < times; i++)
        {
            var histories = new List<IReadOnlyList<bool>>();
            for (var place = 0; place < 60; place++)
            {
                var isThere = draw.Share() < share;
                histories.Add([.. Enumerable.Range(0, 4).Select(_ => draw.Share() < detection && isThere)]);
            }
            if (Occupancy.Of(histories) is not { ShareLow: { } low, ShareHigh: { } high })
                continue;
            said++;
            held += low <= share && share <= high ? 1 : 0;
        }
        Assert.True(said > times * 0.95, $"{said} of {times}");
        Assert.InRange((double)held / said, 0.92, 0.98);
    }

    [Fact]
    public void MoreSamplesFindMoreUpToWhatThereIs()
    {
        // Six taxa in 1, 1, 2, 3, 4 and 4 of four samples: q1 = 2, q2 = 1, U = 15, Q0 = 3/4 · 4/2 = 1.5.
        double[][] rows =
        [
            [1, 0, 1, 1, 1, 1],
            [0, 1, 1, 1, 1, 1],
            [0, 0, 0, 1, 1, 1],
            [0, 0, 0, 0, 1, 1],
        ];
        var table = new Community(["1", "2", "3", "4"], ["a", "b", "c", "d", "e", "f"], rows);
        Assert.Equal(6, IncidenceEstimators.Extrapolated(table, 0));
        // By hand: 6 + 1.5 (1 − (1 − 2/(2 + 4·1.5))^4) = 6 + 1.5 (1 − 0.75^4).
        Assert.Equal(6 + 1.5 * (1 - Math.Pow(0.75, 4)), IncidenceEstimators.Extrapolated(table, 4)!.Value, 12);
        // 1 − 2/15 · (3·2/(3·2 + 2)) = 0.9.
        Assert.Equal(0.9, IncidenceEstimators.Coverage(table)!.Value, 12);
        Assert.Equal(1 - 2.0 / 15 * Math.Pow(0.75, 5), IncidenceEstimators.Coverage(table, 4)!.Value, 12);
        var whole = new Community(
            ["1", "2"],
            ["a"],
            [
                [1],
                [1],
            ]
        );
        Assert.Equal((1.0, 1.0), (IncidenceEstimators.Coverage(whole), IncidenceEstimators.Extrapolated(whole, 5)));
        Assert.Null(
            IncidenceEstimators.Coverage(
                new Community(
                    ["1"],
                    ["a"],
                    [
                        [1],
                    ]
                )
            )
        );
    }
}
