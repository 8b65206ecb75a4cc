using CsCheck;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Quantities;

/// <summary>The distribution behind a range; values worked out by hand.</summary>
public sealed class RangeDistributionTests
{
    private static RangeDistribution Of(string notation, QuantityKind kind = QuantityKind.Length) =>
        new(RangeNotation.Read(notation, kind).Ranges.Single());

    [Fact]
    public void BoundsExtremesAndMiddleHaveTheirZ()
    {
        var d = Of("(15–)20–40(–60) mm");
        Assert.Equal(-2.576, d.Z(15), 9);
        Assert.Equal(-1.2816, d.Z(20), 9);
        // The middle of a length is that of its logarithms: √(20·40).
        Assert.Equal(0, d.Z(Math.Sqrt(800)), 9);
        Assert.Equal(1.2816, d.Z(40), 9);
        Assert.Equal(2.576, d.Z(60), 9);
        Assert.Equal(60, d.Quantile(2.576), 6);
        // Angles are linear: the middle of 40–60° is 50°.
        Assert.Equal(0, Of("40–60°", QuantityKind.Angle).Z(50), 9);
    }

    [Fact]
    public void DensityOfOneReadingAndOfAMean()
    {
        var d = Of("20–40 mm");
        // z′ in ln x is 2·1.2816/ln 2 = 3.697934; at x = 28.284271 it is 0.130742 per mm; φ(0)·0.130742 = 0.0521585.
        Assert.Equal(0.0521585, d.Likelihood(new Measured(28.284271, 1)), 6);
        // Four readings of one plant: s² = 0.5 + 0.5/4 = 0.625, s = 0.7905694; 0.0521585/0.7905694 = 0.0659759.
        Assert.Equal(0.7905694, d.Spread(new Measured(30, 4)), 6);
        Assert.Equal(0.0659759, d.Likelihood(new Measured(28.284271, 4)), 5);
        // A thumb known to 2 mm: s² = 1 + 4·0.130742² = 1.068374.
        Assert.Equal(Math.Sqrt(1.068374), d.Spread(new Measured(30, 1, 0, 2)), 5);
        // A ruler in whole centimetres: s² = 1 + 100/12·0.130742² = 1.142446.
        Assert.Equal(Math.Sqrt(1.142446), d.Spread(new Measured(30, 1, 10)), 5);
    }

    [Theory]
    [InlineData("20–40 mm", 1)]
    [InlineData("(15–)20–40(–60) mm", 1)]
    [InlineData("(5–)20–25(–90) mm", 3)]
    [InlineData("20–40(–300) mm", 10)]
    [InlineData("up to 30 mm", 2)]
    [InlineData("more than 30 mm", 2)]
    [InlineData("c. 20 mm", 5)]
    [InlineData("0–4 mm", 1)]
    public void TheDensityIsContinuousAndIntegratesToOne(string notation, int n)
    {
        var d = Of(notation);
        // Over ln x, in steps so small that Simpson's rule is exact to 1e-6.
        const int steps = 40_000;
        double from = Math.Log(d.Quantile(-9)),
            width = (Math.Log(d.Quantile(9)) - from) / steps,
            sum = 0,
            before = 0,
            largestJump = 0,
            top = 0;
        for (var i = 0; i <= steps; i++)
        {
            var x = Math.Exp(from + i * width);
            var f = d.Likelihood(new Measured(x, n)) * x;
            sum +=
                f
                * (
                    i == 0 || i == steps ? 1
                    : i % 2 == 1 ? 4
                    : 2
                );
            if (i > 0)
                largestJump = Math.Max(largestJump, Math.Abs(f - before));
            top = Math.Max(top, f);
            before = f;
        }
        Assert.Equal(1, sum * width / 3, 5);
        Assert.True(largestJump < top / 50, $"{largestJump} of {top}");
    }

    [Fact]
    public void CountsFillTheirCells()
    {
        // Bounds 4.5 and 7.5, middle 6: z = 0.8544 per step; P(6) = 2Φ(0.4272) − 1 = 0.330769.
        var d = Of("5–7", QuantityKind.Count);
        Assert.Equal(0.33077, d.Likelihood(new Measured(6, 1)), 4);
        Assert.Equal(1, Enumerable.Range(0, 60).Sum(k => d.Likelihood(new Measured(k, 1))), 9);
        // Zero takes all below one half: bounds −½ and 3½, z = 0.6408 per step; Φ(−0.6408) = 0.260827.
        Assert.Equal(0.26083, Of("0–3", QuantityKind.Count).Likelihood(new Measured(0, 1)), 4);
        // "Petals 5": 0.97 on five, the rest falling by half to both sides: 0.0075 on four and on six.
        var petals = Of("5", QuantityKind.Count);
        Assert.Equal(0.97, petals.Likelihood(new Measured(5, 1)), 9);
        Assert.Equal(0.0075, petals.Likelihood(new Measured(6, 1)), 9);
        Assert.Equal(0.00375, petals.Likelihood(new Measured(3, 1)), 9);
        // Two flowers with a mean of 5.5: cells of ¼ to both sides in steps of a half, each a factor √½; 0.015·(1 − 0.707107) = 0.0043934.
        Assert.Equal(0.0043934, petals.Likelihood(new Measured(5.5, 2)), 6);
    }

    [Fact]
    public void OneSidedRangesHaveTheirBoundAsNinetyFivePercentPoint()
    {
        Assert.Equal(0.95, Of("up to 3 m").Within(0, 3000), 4);
        Assert.Equal(0.10, Of("up to 3 m").Within(0, 750), 4);
        Assert.Equal(0.95, Of("more than 2 cm").Within(20, double.PositiveInfinity), 4);
        Assert.Equal(0.90, Of("more than 2 cm").Within(0, 80), 4);
    }

    [Theory]
    [InlineData(28, Fit.Fits)]
    [InlineData(40, Fit.Fits)]
    [InlineData(44, Fit.AtTheEdge)]
    [InlineData(56, Fit.AtTheEdge)]
    [InlineData(57, Fit.Doubtful)]
    [InlineData(72, Fit.Doubtful)]
    [InlineData(74, Fit.Conflicts)]
    [InlineData(10, Fit.Conflicts)]
    public void VerdictsByZ(double value, Fit fit) =>
        // z = 3.697934·ln(x/28.2843): 56.8 mm is at 2.58, 72.9 mm at 3.5.
        Assert.Equal(fit, Of("20–40 mm").Verdict(new Measured(value, 1)));

    [Theory]
    [InlineData("up to 3 m", 100, Fit.Fits)]
    [InlineData("up to 3 m", 3000, Fit.Fits)]
    [InlineData("up to 3 m", 20_000, Fit.Conflicts)]
    [InlineData("more than 2 cm", 900, Fit.Fits)]
    [InlineData("more than 2 cm", 2, Fit.Conflicts)]
    public void AOneSidedRangeIsMissedOnItsBoundedSideOnly(string notation, double value, Fit fit) =>
        Assert.Equal(fit, Of(notation).Verdict(new Measured(value, 1)));

    [Theory]
    [InlineData(5, Fit.Fits)]
    [InlineData(7, Fit.Fits)]
    [InlineData(8, Fit.AtTheEdge)]
    [InlineData(10, Fit.Doubtful)]
    [InlineData(12, Fit.Conflicts)]
    public void WholeCountsByTheirMiddle(double value, Fit fit) =>
        Assert.Equal(fit, Of("5–7", QuantityKind.Count).Verdict(new Measured(value, 1)));

    [Fact]
    public void ZRisesWithEveryValue() =>
        Gen.Select(Gen.Double[1, 50], Gen.Double[0.1, 50], Gen.Double[0.1, 0.9], Gen.Double[1.1, 9], Gen.Double[0.5, 400])
            .Sample(
                (low, width, below, above, x) =>
                {
                    var d = new RangeDistribution(
                        new QuantityRange(QuantityKind.Length, RangeForm.Between, low, low + width, low * below, (low + width) * above)
                    );
                    Assert.True(d.Z(x * 1.001) > d.Z(x));
                }
            );

    [Theory]
    [InlineData(-3, 0.0013498980316301)]
    [InlineData(-1.2816, 0.0999915)]
    [InlineData(0, 0.5)]
    [InlineData(1.6448536269514722, 0.95)]
    [InlineData(5, 0.9999997133484281)]
    [InlineData(-8, 6.220960574271785e-16)]
    public void NormalDistributionAgreesWithTables(double z, double expected) =>
        Assert.Equal(expected, Normal.Below(z), expected < 1e-6 ? 1e-21 : 1e-7);

    [Theory]
    [InlineData(1, 12.7062047364)]
    [InlineData(3, 3.1824463053)]
    [InlineData(10, 2.2281388520)]
    [InlineData(30, 2.0422724563)]
    public void StudentAgreesWithTables(int degrees, double expected) => Assert.Equal(expected, StudentT.Quantile975(degrees), 6);
}
