using CsCheck;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Quantities;

/// <summary>What readings say together: means, intervals, series up the stem, ratios.</summary>
public sealed class SampleTests
{
    private static Reading[] Readings(params double[] values) => [.. values.Select(v => new Reading(v, "", 0.1))];

    private static Reading At(double value, string place) => new Reading(value, "", 0.1) with { At = place };

    private static Reading Struck(double value) => new Reading(value, "", 0.1) with { Struck = "torn leaf" };

    [Fact]
    public void OfNothingThereIsNone()
    {
        Assert.Null(Sample.Of([]));
        Assert.Null(Sample.Of([Struck(5), Struck(6)]));
    }

    [Fact]
    public void WhatIsStruckOutDoesNotCount()
    {
        var sample = Sample.Of([.. Readings(4, 6), Struck(60)])!;
        Assert.Equal((2, 5, 4, 6), (sample.Count, sample.Mean, sample.Least, sample.Largest));
    }

    [Fact]
    public void ASingleReadingHasAnIntervalOnlyByItsInstrument()
    {
        var bare = Sample.Of(Readings(62))!;
        Assert.Null(bare.Deviation);
        Assert.Null(bare.Low);
        Assert.Null(bare.High);
        // A thumb of 62 ± 3: the mean of its readings can't be known better than that.
        var byThumb = Sample.Of([new Reading(62, "", 1, 3)])!;
        Assert.Equal(62 - 1.959964 * 3, byThumb.Low!.Value, 9);
        Assert.Equal(62 + 1.959964 * 3, byThumb.High!.Value, 9);
    }

    [Fact]
    public void AnInstrumentsUncertaintyDoesNotShrinkWithReadings()
    {
        var many = Sample.Of(Enumerable.Repeat(new Reading(62, "", 1, 3), 50))!;
        Assert.Equal(0, many.Deviation!.Value, 12);
        Assert.Equal(1.959964 * 3, many.High!.Value - many.Mean, 9);
    }

    [Fact]
    public void TwoReadingsByHand()
    {
        // 10 and 14: mean 12, s = √8 = 2.828427, t₁ = 12.7062, half = t·s/√2 = 25.412409.
        var sample = Sample.Of(Readings(10, 14))!;
        Assert.Equal(2.828427, sample.Deviation!.Value, 6);
        Assert.Equal(12 - 25.412409, sample.Low!.Value, 5);
        Assert.Equal(12 + 25.412409, sample.High!.Value, 5);
    }

    [Fact]
    public void InAnyOrderTheSameToTheLastDigit() =>
        Gen.Select(Gen.Double[0.1, 900].Array[1, 30], Gen.Int[0, 1000])
            .Sample(
                (values, seed) =>
                {
                    var mixed = Readings(values);
                    new Random(seed).Shuffle(mixed);
                    Assert.Equal(Sample.Of(Readings(values)), Sample.Of(mixed));
                }
            );

    [Fact]
    public void TheMeanLiesBetweenTheLeastAndTheLargestAndInItsInterval() =>
        Gen.Double[0.1, 900]
            .Array[2, 40]
            .Sample(values =>
            {
                var sample = Sample.Of(Readings(values))!;
                Assert.InRange(sample.Mean, sample.Least - 1e-9, sample.Largest + 1e-9);
                Assert.InRange(sample.Mean, sample.Low!.Value - 1e-9, sample.High!.Value + 1e-9);
                Assert.Equal(values.Min(), sample.Least);
                Assert.Equal(values.Max(), sample.Largest);
            });

    [Fact]
    public void TheIntervalHoldsTheTrueMeanInNineteenOfTwenty()
    {
        // 4,000 samples of five from a normal population of mean 50: 95 % of the intervals hold 50, to within what chance allows.
        var random = new Random(20261125);
        double Gauss() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        const int runs = 4000;
        var held = 0;
        for (var i = 0; i < runs; i++)
        {
            var sample = Sample.Of(Readings([.. Enumerable.Range(0, 5).Select(_ => 50 + 8 * Gauss())]))!;
            if (sample.Low <= 50 && sample.High >= 50)
                held++;
        }
        Assert.InRange(held / (double)runs, 0.938, 0.962);
    }

    [Fact]
    public void TheCoarsestStepAndTheMeanUncertaintyAreKept()
    {
        var sample = Sample.Of([new Reading(5, "", 0.1, 0), new Reading(6, "", 1, 2)])!;
        Assert.Equal((1, 1), (sample.Resolution, sample.Calibration));
        var measured = sample.AsMeasured();
        Assert.Equal((5.5, 2, 1, 1), (measured.Mean, measured.Count, measured.Resolution, measured.Calibration));
    }

    [Theory]
    [InlineData(40, 44, 0)]
    [InlineData(40, 44.1, 1)]
    [InlineData(40, 36, 0)]
    [InlineData(40, 35.9, -1)]
    public void ATrendIsATenthOrMore(double low, double top, int trend) =>
        Assert.Equal(trend, StemSeries.Trend([At(low, "low"), At(top, "top")]));

    [Fact]
    public void ASeriesIsOfPlacesInTheirOrderAndOfWhatCounts()
    {
        Reading[] series = [At(30, "top"), At(60, "low"), At(50, "low"), At(44, "middle"), Struck(900) with { At = "top" }];
        Assert.Equal(-1, StemSeries.Trend(series));
        Assert.Equal("Up the stem: low 5.5 cm, middle 4.4 cm, top 3 cm; it falls.", StemSeries.InWords(series, QuantityKind.Length));
        // Only the middle and the top were read.
        Assert.Equal("Up the stem: middle 3, top 3; no trend.", StemSeries.InWords([At(3, "middle"), At(3, "top")], QuantityKind.Count));
    }

    [Fact]
    public void OnePlaceIsNoSeries()
    {
        Assert.Null(StemSeries.Trend([At(30, "low"), At(31, "low")]));
        Assert.Null(StemSeries.InWords([At(30, "low"), At(31, "low")], QuantityKind.Length));
        Assert.Null(StemSeries.InWords(Readings(3, 4), QuantityKind.Length));
        Assert.Null(StemSeries.Trend([]));
    }

    [Fact]
    public void ARatioOfPairsIsTheMeanOfTheirRatios()
    {
        // 10/5, 12/4, 9/9: 2, 3, 1; mean 2, s = 1, s/√3 = 0.577350.
        var ratio = DerivedRatio.Of(Readings(10, 12, 9), Readings(5, 4, 9), paired: true)!;
        Assert.Equal((2, 3), (ratio.Value, ratio.Pairs));
        Assert.Equal(0.577350, ratio.Uncertainty!.Value, 6);
        Assert.Equal([2, 3, 1], ratio.Each);
    }

    [Fact]
    public void APairOfWhichOneIsStruckOutDoesNotCount()
    {
        var ratio = DerivedRatio.Of([.. Readings(10), Struck(500)], Readings(5, 4), paired: true)!;
        Assert.Equal((2, 1), (ratio.Value, ratio.Pairs));
        Assert.Null(DerivedRatio.Of([Struck(500)], Readings(4), paired: true));
    }

    [Fact]
    public void UnpairedItIsTheRatioOfTheMeans()
    {
        // Means 12 and 4; s = 2.828427 and 1.414214, each over √2: 2 and 1; u = 3·√((2/12)² + (1/4)²) = 0.901388.
        var ratio = DerivedRatio.Of(Readings(10, 14), Readings(3, 5), paired: false)!;
        Assert.Equal(3, ratio.Value, 12);
        Assert.Equal(0, ratio.Pairs);
        Assert.Empty(ratio.Each);
        Assert.Equal(0.901388, ratio.Uncertainty!.Value, 6);
        // Of unequal numbers there are no pairs.
        Assert.Equal(0, DerivedRatio.Of(Readings(10, 14), Readings(4), paired: true)!.Pairs);
        Assert.Null(DerivedRatio.Of(Readings(10, 14), Readings(4), paired: false)!.Uncertainty);
    }

    [Fact]
    public void NothingIsDividedByNothing()
    {
        Assert.Null(DerivedRatio.Of([], Readings(4), paired: false));
        Assert.Null(DerivedRatio.Of(Readings(4), [], paired: true));
        Assert.Null(DerivedRatio.Of(Readings(4), Readings(0), paired: true));
        Assert.Null(DerivedRatio.Of(Readings(4, 5), Readings(0), paired: false));
    }
}
