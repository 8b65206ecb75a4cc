using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Quantities;

/// <summary>Measures as they are said in the field.</summary>
public sealed class RoughMeasureTests
{
    private static readonly CalibratedObject Thumb = new("my thumb", 22, 1.5);
    private static readonly CalibratedObject Card = new("library card", 85.6, 0.1);
    private static readonly CalibratedObject Pencil = new("pencil", 174, 0.5);
    private static readonly CalibratedObject Hand = new("hand", 190, 4);
    private static readonly CalibratedObject[] Objects = [Thumb, Card, Pencil, Hand];

    private static ReadingLine? Read(string text, CalibratedObject? it = null, string unit = "mm") =>
        RoughMeasure.Read(text, Objects, MeasureUnit.Named(unit), it);

    [Theory]
    [InlineData("under one thumb", 11, 22)]
    [InlineData("less than 2 thumbs", 22, 44)]
    [InlineData("almost 3 cards", 85.6 * 2.775, 85.6 * 0.45)]
    [InlineData("over 2 cm", 30, 20)]
    [InlineData("2 to 3 cm", 25, 10)]
    [InlineData("2–3 thumbs", 55, 22)]
    [InlineData("twice the pencil", 348, 43.5)]
    [InlineData("half the pencil", 87, 43.5)]
    [InlineData("half of a card", 42.8, 21.4)]
    [InlineData("as long as my hand", 190, 47.5)]
    [InlineData("about 4 cm", 40, 12)]
    [InlineData("just over 10 mm", 10.75, 1.5)]
    [InlineData("three cards", 256.8, 85.6)]
    public void ItIsAnInterval(string text, double middle, double width)
    {
        var reading = Assert.Single(Read(text)!.Readings);
        Assert.Equal(middle, reading.Value, 6);
        Assert.Equal(width, reading.Resolution, 6);
        Assert.Equal(text, reading.Text);
        Assert.True(ReadingText.IsWithinBounds(reading, QuantityKind.Length));
    }

    [Fact]
    public void TheObjectBringsItsOwnUncertainty()
    {
        Assert.Equal(1.5 * 2.5, Read("2 to 3 thumbs")!.Readings[0].Calibration, 6);
        Assert.Equal(0, Read("2 to 3 cm")!.Readings[0].Calibration);
        // "It" is what was chosen.
        Assert.Equal(0.5 * 174, Read("half of it", Pencil)!.Readings[0].Value, 6);
    }

    [Theory]
    [InlineData("12.4 13 11.8")]
    [InlineData("12.4 13 mm")]
    [InlineData("3/8 in")]
    [InlineData("2½")]
    [InlineData("12")]
    [InlineData("")]
    public void PlainReadingsStayReadings(string text) => Assert.Null(Read(text));

    [Theory]
    [InlineData("half of it", "Choose the object")]
    [InlineData("under 2 boots", "isn’t calibrated")]
    [InlineData("as long as my foot", "isn’t calibrated")]
    [InlineData("under", "how much of what")]
    [InlineData("3 to 2 cm", "runs backwards")]
    [InlineData("about 40 degrees", "isn’t measured in")]
    [InlineData("over 500 m", "no length of a plant")]
    public void WhatIsNotClearIsAsked(string text, string message)
    {
        var line = Read(text)!;
        Assert.Empty(line.Readings);
        Assert.Contains(message, Assert.Single(line.Problems).Message, StringComparison.Ordinal);
    }

    [Fact]
    public void ARoughMeasureWeighsLessThanARuler()
    {
        var distribution = new RangeDistribution(RangeNotation.Read("20–24 mm", QuantityKind.Length).Ranges[0]);
        var rough = Sample.Of(Read("under one thumb")!.Readings)!.AsMeasured();
        // 11 mm by a ruler is far out; a rough 0 to 22 mm is not.
        Assert.Equal(Fit.Conflicts, distribution.Verdict(new Measured(11, 1, 0.1)));
        Assert.NotEqual(Fit.Conflicts, distribution.Verdict(rough));
    }
}
