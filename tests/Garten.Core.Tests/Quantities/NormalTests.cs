using CsCheck;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Quantities;

/// <summary>The distributions against tables of them, and against their own definitions.</summary>
public sealed class NormalTests
{
    // Abramowitz and Stegun 1964, tables 26.1 and 26.2.
    [Theory]
    [InlineData(0, 0.5)]
    [InlineData(0.5, 0.691462461274013)]
    [InlineData(1, 0.841344746068543)]
    [InlineData(1.2815515655446004, 0.9)]
    [InlineData(1.6448536269514722, 0.95)]
    [InlineData(1.96, 0.975002104851780)]
    [InlineData(2, 0.977249868051821)]
    [InlineData(3, 0.998650101968370)]
    [InlineData(3.000001, 0.998650106400)]
    [InlineData(4, 0.999968328758167)]
    [InlineData(-1, 0.158655253931457)]
    [InlineData(-2.5, 0.006209665325776)]
    public void BelowAsInTheTables(double z, double expected) => Assert.Equal(expected, Normal.Below(z), 12);

    [Theory]
    [InlineData(-4, 3.16712418331199e-5)]
    [InlineData(-6, 9.86587645037698e-10)]
    [InlineData(-10, 7.61985302416053e-24)]
    [InlineData(-20, 2.75362411860623e-89)]
    public void TailsKeepTheirDigits(double z, double expected)
    {
        Assert.Equal(1, Normal.Below(z) / expected, 10);
        Assert.Equal(1, Normal.Between(-z, double.PositiveInfinity) / expected, 10);
    }

    [Fact]
    public void BeyondEverythingItIsNothingOrAll()
    {
        Assert.Equal((0, 1), (Normal.Below(-40), Normal.Below(40)));
        Assert.Equal((0, 1), (Normal.Below(double.NegativeInfinity), Normal.Below(double.PositiveInfinity)));
        Assert.True(double.IsNaN(Normal.Below(double.NaN)));
        Assert.Equal(0, Normal.Between(2, 1));
        Assert.Equal(0, Normal.Between(1, 1));
    }

    [Fact]
    public void BothSidesAreAlikeAndItOnlyRises()
    {
        Gen.Double[-8, 8].Sample(z => Math.Abs(Normal.Below(z) + Normal.Below(-z) - 1) < 1e-14);
        Gen.Select(Gen.Double[-8, 8], Gen.Double[1e-6, 1]).Sample((z, more) => Normal.Below(z + more) >= Normal.Below(z));
        Gen.Select(Gen.Double[-5, 5], Gen.Double[0, 5])
            .Sample(
                (from, width) => Math.Abs(Normal.Between(from, from + width) - (Normal.Below(from + width) - Normal.Below(from))) < 1e-13
            );
    }

    [Fact]
    public void TheDensityIsItsSlope() =>
        Gen.Double[-5, 5].Sample(z => Math.Abs((Normal.Below(z + 1e-5) - Normal.Below(z - 1e-5)) / 2e-5 - Normal.Density(z)) < 1e-8);

    [Fact]
    public void TheQuickOneIsWithinWhatItSays()
    {
        Gen.Double[-10, 10].Sample(z => Math.Abs(Normal.BelowRoughly(z) - Normal.Below(z)) < 8e-8);
        Assert.Equal(0, Normal.BelowRoughly(double.NegativeInfinity));
        Assert.Equal(1, Normal.BelowRoughly(double.PositiveInfinity), 9);
    }

    // Any table of Student's t at 0.975.
    [Theory]
    [InlineData(1, 12.7062047362)]
    [InlineData(2, 4.3026527297)]
    [InlineData(3, 3.1824463053)]
    [InlineData(4, 2.7764451052)]
    [InlineData(5, 2.5705818356)]
    [InlineData(7, 2.3646242516)]
    [InlineData(10, 2.2281388520)]
    [InlineData(20, 2.0859634473)]
    [InlineData(30, 2.0422724563)]
    [InlineData(60, 2.0002978220)]
    [InlineData(120, 1.9799304051)]
    [InlineData(1000, 1.9623390808)]
    [InlineData(100_000, 1.9599877)]
    public void StudentsTAsInTheTables(int degrees, double expected)
    {
        Assert.Equal(expected, StudentT.Quantile975(degrees), 6);
        // The second time it comes from what is known.
        Assert.Equal(StudentT.Quantile975(degrees), StudentT.Quantile975(degrees));
    }

    [Fact]
    public void StudentsTNeedsADegreeOfFreedom()
    {
        Assert.Throws<ArgumentOutOfRangeException>(() => StudentT.Quantile975(0));
        Assert.Throws<ArgumentOutOfRangeException>(() => StudentT.Quantile975(-3));
    }
}
