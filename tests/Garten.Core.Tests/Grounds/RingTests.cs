using Garten.Core.Grounds;
using Xunit;

namespace Garten.Core.Tests.Grounds;

public sealed class RingTests
{
    private const double MetresPerDegree = 111_195.08;

    private static List<GroundPoint> Points(string text) =>
        [
            .. text.Split(' ')
                .Select(p => p.Split(','))
                .Select(p => new GroundPoint(
                    double.Parse(p[0], System.Globalization.CultureInfo.InvariantCulture),
                    double.Parse(p[1], System.Globalization.CultureInfo.InvariantCulture)
                )),
        ];

    private static GroundPoint Place { get; } = new(57.4, -11.2);

    [Fact]
    public void ASquareHasItsAreaAndHoldsItsMiddle()
    {
        var square = Points("57,-11 57,-10.99 57.01,-10.99 57.01,-11");
        var expected = 0.01 * MetresPerDegree * (0.01 * MetresPerDegree * Math.Cos(57 * Math.PI / 180));
        Assert.Equal(expected, Ring.Area(square), expected * 1e-3);
        Assert.Equal(Ring.Area(square), Ring.Area([.. Enumerable.Reverse(square)]), 1e-6);
        Assert.True(Ring.Holds(square, new GroundPoint(57.005, -10.995)));
        Assert.False(Ring.Holds(square, new GroundPoint(57.011, -10.995)));
        Assert.Equal(0, Ring.MetresTo(square, new GroundPoint(57.005, -10.995)));
        Assert.Equal(0.002 * MetresPerDegree, Ring.MetresTo(square, new GroundPoint(57.012, -10.995)), 0.5);
        Assert.Equal(Ring.Metres(square[0], new GroundPoint(56.99, -11.01)), Ring.MetresTo(square, new GroundPoint(56.99, -11.01)), 2.0);
        Assert.Null(Ring.Crossing(square));
        Assert.Equal(0, Ring.Area(Points("57,-11 57,-10.99")));
        Assert.Equal(double.PositiveInfinity, Ring.MetresTo([], Place));
    }

    [Theory]
    [InlineData("57,-11 57.01,-10.99 57,-10.99 57.01,-11", 0)]
    [InlineData("57,-11 57,-10.98 57.01,-10.99 57.005,-11.01 57.005,-10.97", 1)]
    // It runs back over its own edge, and it touches a corner of its own.
    [InlineData("57,-11 57,-10.98 57,-10.99 57.01,-10.99", 0)]
    [InlineData("57,-11 57,-10.98 57.01,-10.98 57,-10.99 57.01,-11", 0)]
    public void AnOutlineThatCrossesItselfIsFound(string ring, int corner) => Assert.Equal(corner, Ring.Crossing(Points(ring)));

    // Outlines drawn round a point in order never cross themselves; with two corners far apart exchanged they do. Area and inside agree
    // with a count of random points.
    [Fact]
    public void WhatIsDrawnRoundNeverCrossesItself()
    {
        for (var seed = 0; seed < 100; seed++)
        {
            var random = new Random(seed);
            var n = 5 + random.Next(20);
            var ring = Enumerable
                .Range(0, n)
                .Select(i =>
                {
                    var (a, r) = (2 * Math.PI * i / n, 0.002 + 0.003 * random.NextDouble());
                    return new GroundPoint(57.4 + r * Math.Sin(a), -11.2 + 2 * r * Math.Cos(a));
                })
                .ToList();
            Assert.Null(Ring.Crossing(ring));
            Assert.True(Ring.Holds(ring, Place));
            var inside = 0;
            const int drawn = 4_000;
            for (var k = 0; k < drawn; k++)
                inside += Ring.Holds(ring, new GroundPoint(57.395 + 0.01 * random.NextDouble(), -11.21 + 0.02 * random.NextDouble()))
                    ? 1
                    : 0;
            var box = 0.01 * MetresPerDegree * 0.02 * MetresPerDegree * Math.Cos(57.4 * Math.PI / 180);
            Assert.Equal(Ring.Area(ring) / box, (double)inside / drawn, 0.05);
            var (a1, b1) = (0, n / 2);
            (ring[a1], ring[b1]) = (ring[b1], ring[a1]);
            Assert.NotNull(Ring.Crossing(ring));
        }
    }

    private static string? Wrong(string outline) => (GroundDescription.None with { Outline = Points(outline) }).Problem(Place)?.Message;

    [Fact]
    public void ABoundaryThatCantBeSoIsSaidInWords()
    {
        Assert.Null(Wrong("57.401,-11.201 57.401,-11.199 57.399,-11.2"));
        Assert.Contains("three corners", Wrong("57.401,-11.201 57.401,-11.199"));
        Assert.Contains("swapped", Wrong("-11.201,57.401 -11.199,57.401 -11.2,57.399"));
        Assert.Contains("swapped", Wrong("-100.2,57.401 -100.1,57.401 -100.2,57.399"));
        Assert.Contains("decimal degrees", Wrong("357.401,-211.201 357.401,-211.199 357.399,-211.2"));
        Assert.Contains("km from the place", Wrong("47.401,-11.201 47.401,-11.199 47.399,-11.2"));
        Assert.Contains("crosses itself", Wrong("57.399,-11.201 57.401,-11.199 57.399,-11.199 57.401,-11.201"));
        Assert.Contains("twice", Wrong("57.401,-11.201 57.401,-11.199 57.401,-11.201 57.399,-11.2"));
        Assert.Contains("nothing", Wrong("57.4,-11.2 57.400001,-11.2 57.400001,-11.200001"));
        Assert.Contains("no recording place", Wrong("58.5,-13.2 58.5,-9.2 56.3,-9.2 56.3,-13.2"));
        Assert.Contains(
            "2000 corners",
            (GroundDescription.None with { Outline = [.. Enumerable.Repeat(Place, 2001)] }).Problem(Place)?.Message
        );
    }

    [Fact]
    public void PartsAndMarksAreCheckedToo()
    {
        static GroundPart Named(string name, double? slope = null) => new(name, "", "", "", "", "", slope, []);
        Assert.Equal("parts", (GroundDescription.None with { Parts = [Named("ride"), Named("Ride ")] }).Problem(Place)?.Field);
        Assert.Equal("parts", (GroundDescription.None with { Parts = [Named("ride", 91)] }).Problem(Place)?.Field);
        Assert.Equal(
            "parts",
            (GroundDescription.None with { Parts = [Named("ride") with { Outline = Points("57.4,-11.2 57.41,-11.2") }] })
                .Problem(Place)
                ?.Field
        );
        Assert.Equal(
            "hazards",
            (GroundDescription.None with { Hazards = [new GroundMark("bull", new GroundPoint(50, -11.2))] }).Problem(Place)?.Field
        );
        Assert.Null(
            (GroundDescription.None with { Entrances = [new GroundMark("gate", Place), new GroundMark("stile", null)] }).Problem(Place)
        );
    }
}
