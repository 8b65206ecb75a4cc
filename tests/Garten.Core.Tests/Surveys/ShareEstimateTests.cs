using CsCheck;
using Garten.Core.Surveys;
using Xunit;

namespace Garten.Core.Tests.Surveys;

public sealed class ShareEstimateTests
{
    // Worked by hand from Wilson's formula with z = 1.959964; for 0 and n of n the closed forms z²/(n+z²) and n/(n+z²).
    [Theory]
    [InlineData(0, 10, 0, 0.277533)]
    [InlineData(10, 10, 0.722467, 1)]
    [InlineData(5, 10, 0.236593, 0.763407)]
    [InlineData(1, 10, 0.017876, 0.404150)]
    [InlineData(15, 148, 0.062387, 0.160487)]
    [InlineData(0, 1, 0, 0.793450)]
    [InlineData(0, 0, 0, 1)]
    public void WilsonsIntervalIsThatOfTheFormula(int k, int n, double low, double high)
    {
        var found = ShareEstimate.Wilson(k, n);
        Assert.Equal(low, found.Low, 5e-6);
        Assert.Equal(high, found.High, 5e-6);
    }

    [Fact]
    public void WhatIsNotRefoundWidensTheShareToBothSides()
    {
        var share = ShareEstimate.Of(4, 6, 2);
        Assert.Equal((4 / 6d, 0.5, 0.75), (share.Share!.Value, share.Least!.Value, share.Most!.Value));
        Assert.Equal((ShareEstimate.Wilson(4, 8).Low, ShareEstimate.Wilson(6, 8).High), (share.LeastLow, share.MostHigh));
        Assert.Equal(
            (null, 0d, 1d),
            (ShareEstimate.Of(0, 0, 3).Share, ShareEstimate.Of(0, 0, 3).Least!.Value, ShareEstimate.Of(0, 0, 3).Most!.Value)
        );
        Assert.Null(ShareEstimate.Of(0, 0).Least);
    }

    [Fact]
    public void BoundsHoldTheShareAndLieWithinZeroAndOne() =>
        (from n in Gen.Int[1, 2000] from k in Gen.Int[0, n] select (k, n)).Sample(it =>
        {
            var (low, high) = ShareEstimate.Wilson(it.k, it.n);
            var p = it.k / (double)it.n;
            // The mirror image has the mirrored bounds.
            var other = ShareEstimate.Wilson(it.n - it.k, it.n);
            return low >= 0 && high <= 1 && low <= p + 1e-12 && high >= p - 1e-12 && Math.Abs(1 - other.High - low) < 1e-9;
        });

    [Theory]
    [InlineData(-1, 3, 0)]
    [InlineData(4, 3, 0)]
    [InlineData(1, 3, -1)]
    public void NumbersThatCantBeAreRefused(int count, int known, int unknown) =>
        Assert.Throws<ArgumentOutOfRangeException>(() => ShareEstimate.Of(count, known, unknown));
}
