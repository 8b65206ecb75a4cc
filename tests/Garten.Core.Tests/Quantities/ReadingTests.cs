using CsCheck;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Quantities;

/// <summary>Readings as typed, and what they say together.</summary>
public sealed class ReadingTests
{
    private static readonly CalibratedObject Thumb = new("my thumb", 62, 3);

    [Theory]
    [InlineData("12.4 13 11,8 14 mm", "12.4 13 11.8 14")]
    [InlineData("12, 13, 14", "12 13 14")]
    [InlineData("12; 13; 14 mm", "12 13 14")]
    [InlineData("3/8 in", "9.525")]
    [InlineData("½ in", "12.7")]
    [InlineData("1 3/4 in", "44.45")]
    [InlineData("1.2 1.4 cm", "12 14")]
    [InlineData("2m", "2000")]
    [InlineData("  7\t8 \n 9", "7 8 9")]
    public void ReadingsAreReadAsTheyCome(string text, string expected)
    {
        var line = ReadingText.Read(text, QuantityKind.Length, MeasureUnit.Millimetre);
        Assert.True(line.IsSound, string.Join(' ', line.Problems.Select(p => p.Message)));
        Assert.Equal(
            expected,
            string.Join(' ', line.Readings.Select(r => r.Value.ToString("0.####", System.Globalization.CultureInfo.InvariantCulture)))
        );
    }

    [Theory]
    [InlineData("", QuantityKind.Length, 0)]
    [InlineData("12 mm 3 cm", QuantityKind.Length, 8)]
    [InlineData("12 kg", QuantityKind.Length, 3)]
    [InlineData("12°", QuantityKind.Length, 2)]
    [InlineData("-3", QuantityKind.Length, 0)]
    [InlineData("4-6", QuantityKind.Length, 1)]
    [InlineData("0", QuantityKind.Length, 0)]
    [InlineData("200 m", QuantityKind.Length, 0)]
    [InlineData("mm 12", QuantityKind.Length, 0)]
    [InlineData("12 ? 13", QuantityKind.Length, 3)]
    [InlineData("-1", QuantityKind.Count, 0)]
    [InlineData("5 4.5", QuantityKind.Count, 2)]
    [InlineData("5 mm", QuantityKind.Count, 2)]
    [InlineData("0", QuantityKind.Ratio, 0)]
    [InlineData("2 mm", QuantityKind.Ratio, 2)]
    [InlineData("400", QuantityKind.Angle, 0)]
    [InlineData("4 cm", QuantityKind.Angle, 2)]
    public void BadReadingsAreRefusedAtTheirPlace(string text, QuantityKind kind, int at)
    {
        var line = ReadingText.Read(text, kind, kind == QuantityKind.Length ? MeasureUnit.Millimetre : null);
        Assert.False(line.IsSound);
        Assert.Equal(at, line.Problems[0].At);
        Assert.True(line.Problems[0].Message[^1] is '.' or '?', line.Problems[0].Message);
    }

    [Fact]
    public void TooManyAndTooLargeOnesAreSaid()
    {
        Assert.False(
            ReadingText.Read(string.Join(' ', Enumerable.Repeat("12", 10_000)), QuantityKind.Length, MeasureUnit.Millimetre).IsSound
        );
        Assert.False(ReadingText.Read("12", QuantityKind.Length).IsSound);
        // More than any plant of the flora has is asked about, and may stand.
        var asked = ReadingText.Read("900", QuantityKind.Length, MeasureUnit.Millimetre, largest: 300);
        Assert.True(asked.IsSound);
        Assert.True(asked.Problems.Single().IsQuestion);
    }

    [Fact]
    public void ASampleOfFour()
    {
        // Mean 51.2/4; deviations −0.4, 0.2, −1, 1.2; squares 2.64; s = √0.88 = 0.938083; t₃ = 3.182446; half = t·s/2 = 1.492700.
        var sample = Sample.Of(ReadingText.Read("12.4 13 11,8 14 mm", QuantityKind.Length).Readings)!;
        Assert.Equal(4, sample.Count);
        Assert.Equal(12.8, sample.Mean, 9);
        Assert.Equal((11.8, 14), (sample.Least, sample.Largest));
        Assert.Equal(0.938083, sample.Deviation!.Value, 6);
        Assert.Equal(11.307300, sample.Low!.Value, 5);
        Assert.Equal(14.292700, sample.High!.Value, 5);
        Assert.Equal(1, sample.Resolution);
    }

    [Fact]
    public void ThumbsCarryTheirUncertainty()
    {
        // 2½ thumbs of 62 mm: 155 mm, known to 2.5·3 = 7.5 mm; the interval is 155 ± 1.96·7.5.
        var line = ReadingText.Read("2½", QuantityKind.Length, null, Thumb);
        var sample = Sample.Of(line.Readings)!;
        Assert.Equal(155, sample.Mean, 9);
        Assert.Equal(7.5, sample.Calibration, 9);
        Assert.Equal(155 - 14.69973, sample.Low!.Value, 4);
        Assert.Equal("2½ × my thumb", line.Readings[0].Text);
        Assert.False(ReadingText.Read("2 mm", QuantityKind.Length, null, Thumb).IsSound);
    }

    [Fact]
    public void RatiosOfPairsAndOfMeans()
    {
        static List<Reading> Of(params double[] values) => [.. values.Select(v => new Reading(v, "", 1))];
        // 40/20, 50/20, 60/30 = 2, 2.5, 2: mean 2.166667, s = 0.288675, s/√3 = 0.166667.
        var paired = DerivedRatio.Of(Of(40, 50, 60), Of(20, 20, 30), paired: true)!;
        Assert.Equal(2.166667, paired.Value, 6);
        Assert.Equal(0.166667, paired.Uncertainty!.Value, 6);
        // 50/23.3333 = 2.142857; u₁/x̄₁ = 5.773503/50, u₂/x̄₂ = 3.333333/23.333333; 2.142857·√(0.0133333 + 0.0204082) = 0.393619.
        var loose = DerivedRatio.Of(Of(40, 50, 60), Of(20, 20, 30), paired: false)!;
        Assert.Equal(2.142857, loose.Value, 6);
        Assert.Equal(0.393619, loose.Uncertainty!.Value, 5);
        Assert.Null(DerivedRatio.Of(Of(40), Of(), paired: false));
        // A pair of which one half is struck out counts no more.
        var struck = Of(40, 50, 60);
        struck[1] = struck[1] with { Struck = "torn" };
        Assert.Equal(2, DerivedRatio.Of(struck, Of(20, 20, 30), paired: true)!.Value, 9);
    }

    [Fact]
    public void ASeriesUpTheStemHasATrend()
    {
        static Reading At(string place, double value) => new(value, "", 1, 0, "", place);
        // 80 and 84 low, 60 in the middle, 41 at the top: 82, 60, 41; 41/82 is half.
        Assert.Equal(
            "Up the stem: low 8.2 cm, middle 6 cm, top 4.1 cm; it falls.",
            StemSeries.InWords([At("low", 80), At("low", 84), At("middle", 60), At("top", 41)], QuantityKind.Length)
        );
        Assert.Equal(
            "Up the stem: low 20 mm, top 21 mm; no trend.",
            StemSeries.InWords([At("low", 20), At("top", 21)], QuantityKind.Length)
        );
        Assert.Null(StemSeries.InWords([At("low", 20), At("", 30)], QuantityKind.Length));
    }

    private static readonly Gen<List<Reading>> Readings = Gen.Double[0.1, 500]
        .List[1, 30]
        .Select(values => values.ConvertAll(v => new Reading(Math.Round(v, 1), "", 0.1)));

    [Fact]
    public void TheOrderOfReadingsDoesNotMatterAndAStruckOneIsAsIfNeverTaken() =>
        Readings.Sample(readings =>
        {
            var shuffled = readings.OrderBy(r => (r.Value * 7919) % 13).ToList();
            Assert.Equal(Sample.Of(readings), Sample.Of(shuffled));
            Assert.Equal(Sample.Of(readings), Sample.Of([.. readings, new Reading(999, "", 0.1, 0, "wrong leaf")]));
        });
}
