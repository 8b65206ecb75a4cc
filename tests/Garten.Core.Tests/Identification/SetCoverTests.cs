using CsCheck;
using Garten.Core.Identification;
using Xunit;

namespace Garten.Core.Tests.Identification;

/// <summary>The fewest sets, held against trying them all.</summary>
public sealed class SetCoverTests
{
    // All selections of the sets, the fewest first, then the cheapest.
    private static (int Count, double Cost) ByTryingAll(int elements, List<int[]> sets, List<double> costs)
    {
        var coverable = sets.SelectMany(s => s).ToHashSet();
        var best = (Count: int.MaxValue, Cost: double.MaxValue);
        for (var chosen = 0; chosen < 1 << sets.Count; chosen++)
        {
            var taken = Enumerable.Range(0, sets.Count).Where(s => (chosen >> s & 1) != 0).ToList();
            if (taken.SelectMany(s => sets[s]).Distinct().Count() < coverable.Count)
                continue;
            var cost = taken.Sum(s => costs[s]);
            if (taken.Count < best.Count || taken.Count == best.Count && cost < best.Cost)
                best = (taken.Count, cost);
        }
        Assert.True(elements >= coverable.Count);
        return best;
    }

    [Fact]
    public void IsTheFewestAndOfThoseTheCheapest() =>
        Gen.Select(Gen.Int[1, 9], Gen.Int[0, 9], Gen.Int[0, 100_000])
            .Sample(
                (elements, count, seed) =>
                {
                    var random = new Random(seed);
                    var sets = Enumerable
                        .Range(0, count)
                        .Select(_ => Enumerable.Range(0, elements).Where(_ => random.Next(3) == 0).ToArray())
                        .ToList();
                    var costs = sets.Select(_ => (double)random.Next(0, 4)).ToList();
                    var cover = SetCover.Find(elements, sets, costs);
                    var (fewest, cheapest) = ByTryingAll(elements, sets, costs);
                    Assert.True(cover.IsOptimal);
                    Assert.Equal(fewest, cover.Chosen.Count);
                    Assert.Equal(cheapest, cover.Chosen.Sum(s => costs[s]), 9);
                    // It covers all that can be covered, and says what can't.
                    var covered = cover.Chosen.SelectMany(s => sets[s]).ToHashSet();
                    Assert.Equal(Enumerable.Range(0, elements).Except(sets.SelectMany(s => s)), cover.Uncovered);
                    Assert.Equal(elements, covered.Count + cover.Uncovered.Count);
                    Assert.Equal(cover.Chosen.Order(), cover.Chosen);
                },
                iter: 1500
            );

    [Fact]
    public void OfNothingNothingIsChosen()
    {
        var cover = SetCover.Find(0, []);
        Assert.Empty(cover.Chosen);
        Assert.Empty(cover.Uncovered);
        Assert.True(cover.IsOptimal);
    }

    [Fact]
    public void WhatIsInNoSetIsSaid()
    {
        var cover = SetCover.Find(
            4,
            [
                [0],
                [2],
            ]
        );
        Assert.Equal([0, 1], cover.Chosen);
        Assert.Equal([1, 3], cover.Uncovered);
        Assert.Equal(
            [0, 1, 2, 3],
            SetCover
                .Find(
                    4,
                    [
                        [],
                        [],
                    ]
                )
                .Uncovered
        );
    }

    [Fact]
    public void OfTwoThatAreTheSameTheCheaperIsTaken()
    {
        Assert.Equal(
            [1],
            SetCover
                .Find(
                    3,
                    [
                        [0, 1, 2],
                        [0, 1, 2],
                    ],
                    [5, 2]
                )
                .Chosen
        );
        Assert.Equal(
            [0],
            SetCover
                .Find(
                    3,
                    [
                        [0, 1, 2],
                        [0, 1, 2],
                    ]
                )
                .Chosen
        );
    }

    [Fact]
    public void FewerGoBeforeCheaper()
    {
        // One set of 100, or two of 1 each.
        Assert.Equal(
            [2],
            SetCover
                .Find(
                    2,
                    [
                        [0],
                        [1],
                        [0, 1],
                    ],
                    [1, 1, 100]
                )
                .Chosen
        );
    }

    [Fact]
    public void TheGreedyWayIsNotTheFewest()
    {
        // The largest set tempts: with it three are needed, without it two.
        var cover = SetCover.Find(
            6,
            [
                [0, 1, 2, 3],
                [0, 1, 4],
                [2, 3, 5],
            ]
        );
        Assert.Equal([1, 2], cover.Chosen);
    }

    [Fact]
    public void MoreElementsThanBitsOfAWord()
    {
        var sets = Enumerable.Range(0, 40).Select(s => Enumerable.Range(s * 5, 5).ToArray()).Append([.. Enumerable.Range(0, 199)]).ToList();
        var cover = SetCover.Find(200, sets);
        Assert.Equal([39, 40], cover.Chosen);
        Assert.Empty(cover.Uncovered);
    }

    [Fact]
    public void WhenItsBudgetEndsItCoversAllTheSameAndSaysThatItIsNotCertain()
    {
        var random = new Random(4);
        var sets = Enumerable.Range(0, 60).Select(_ => Enumerable.Range(0, 80).Where(_ => random.Next(6) == 0).ToArray()).ToList();
        var hurried = SetCover.Find(80, sets, budget: 3);
        Assert.False(hurried.IsOptimal);
        Assert.Equal(sets.SelectMany(s => s).Distinct().Count(), hurried.Chosen.SelectMany(s => sets[s]).Distinct().Count());
        Assert.True(SetCover.Find(80, sets).Chosen.Count <= hurried.Chosen.Count);
    }

    [Fact]
    public void AnElementThatIsNotThereIsRefused()
    {
        Assert.Throws<ArgumentOutOfRangeException>(() =>
            SetCover.Find(
                2,
                [
                    [2],
                ]
            )
        );
        Assert.Throws<ArgumentOutOfRangeException>(() => SetCover.Find(-1, []));
    }
}
