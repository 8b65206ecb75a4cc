using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Xunit;

namespace Garten.Core.Tests.Grounds;

public sealed class WalkedBoundaryTests
{
    private const double MetresPerDegree = 111_195.08;

    // So many metres east and north of a point.
    private static GroundPoint At(double east, double north) =>
        new(57.4 + north / MetresPerDegree, -11.2 + east / (MetresPerDegree * Math.Cos(57.4 * Math.PI / 180)));

    // A way from corner to corner with a position every five metres, each off by a receiver's error.
    private static List<GroundPoint> Way(double error, int seed, params (double East, double North)[] corners)
    {
        var random = new Random(seed);
        double Off() => error * (2 * random.NextDouble() - 1);
        List<GroundPoint> way = [];
        foreach (var (from, to) in corners.Zip(corners.Skip(1)))
        {
            var length = Math.Sqrt(Math.Pow(to.East - from.East, 2) + Math.Pow(to.North - from.North, 2));
            for (var gone = 0.0; gone < length; gone += 5)
                way.Add(
                    At(
                        from.East + (to.East - from.East) * gone / length + Off(),
                        from.North + (to.North - from.North) * gone / length + Off()
                    )
                );
        }
        way.Add(At(corners[^1].East, corners[^1].North));
        return way;
    }

    [Fact]
    public void AWayRoundAFieldIsItsBoundary()
    {
        var walked = WalkedBoundary.Of([Way(0, 1, (0, 0), (200, 0), (200, 100), (0, 100), (0, 0))]);
        Assert.Equal(4, walked.Outline.Count);
        Assert.Equal(20_000, Ring.Area(walked.Outline), 50.0);
        Assert.Equal("", walked.InWords);
        Assert.Null(new OutlineRequest(walked.Outline, At(100, 50)).Tell().Wrong is { Length: > 0 } wrong ? wrong : null);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public void WhoWalksOnPastTheBeginningWithAReceiversErrorHasTheSameField(int seed)
    {
        // Begun in the middle of a side, gone on for forty metres, with a turn round a bush on the way.
        var walked = WalkedBoundary.Of([
            Way(3, seed, (100, 0), (200, 0), (200, 60), (206, 66), (212, 60), (206, 54), (200, 60), (200, 100), (0, 100), (0, 0), (140, 0)),
        ]);
        Assert.Equal(20_000, Ring.Area(walked.Outline), 900.0);
        Assert.Null(Ring.Crossing(walked.Outline));
        Assert.InRange(walked.LeftOutMetres, 35, 110);
        Assert.Contains("left out", walked.InWords, StringComparison.Ordinal);
        Assert.DoesNotContain("closed straight", walked.InWords, StringComparison.Ordinal);
    }

    [Fact]
    public void WhatWasNotWalkedIsClosedStraightAndSaid()
    {
        var walked = WalkedBoundary.Of([Way(0, 1, (0, 0), (200, 0), (200, 40)), Way(0, 1, (200, 90), (200, 100), (0, 100), (0, 30))]);
        Assert.Equal((30, 50), (Math.Round(walked.ClosingMetres), Math.Round(walked.BridgedMetres)));
        Assert.Equal(
            "Look at it on the map: it is closed straight over 30 m; where no position was it goes straight, over 50 m.",
            walked.InWords
        );
        Assert.Equal(20_000, Ring.Area(walked.Outline), 50.0);
    }

    [Fact]
    public void AWayThatGoesRoundNothingIsNone()
    {
        Assert.Empty(WalkedBoundary.Of([]).Outline);
        Assert.Empty(
            WalkedBoundary
                .Of([
                    [],
                ])
                .Outline
        );
        Assert.Empty(
            WalkedBoundary
                .Of([
                    [At(0, 0), At(0, 0), At(0.2, 0)],
                ])
                .Outline
        );
        var outAndBack = WalkedBoundary.Of([Way(0, 1, (0, 0), (100, 0), (0, 0))]);
        Assert.Equal(("This way goes round nothing.", 0), (outAndBack.InWords, outAndBack.Outline.Count));
        Assert.Empty(new WalkedBoundaryRequest(null!).Tell().Outline);
        Assert.Empty(new WalkedBoundaryRequest([null!, [new(double.NaN, 0), null!]]).Tell().Outline);
    }

    [Fact]
    public void AnyWayEndsAsABoundaryOrAsNone()
    {
        for (var seed = 0; seed < 60; seed++)
        {
            var random = new Random(seed);
            var (east, north) = (0.0, 0.0);
            List<GroundPoint> way = [];
            for (var i = 0; i < 400; i++)
                way.Add(At(east += 20 * random.NextDouble() - 10, north += 20 * random.NextDouble() - 10));
            var walked = WalkedBoundary.Of([way]);
            Assert.True(walked.Outline.Count is 0 or >= Ring.FewestCorners);
            Assert.True(walked.Outline.Count == 0 || Ring.Crossing(walked.Outline) is null, $"seed {seed}");
        }
    }

    [Theory]
    [InlineData(57.3, -11.3, 57.5, -11.1, null, null, "")]
    [InlineData(57.6, -11.3, 57.5, -11.1, null, null, "span nothing")]
    [InlineData(57.3, -11.3, 57.5, -11.1, 57.5, -11.3, "")]
    // Turned by half a circle: its bottom left corner lies in the north-east.
    [InlineData(57.5, -11.1, 57.3, -11.3, 57.3, -11.1, "")]
    [InlineData(57.3, -11.3, 57.5, -11.1, 57.3, -11.1, "from behind")]
    [InlineData(57.3, -11.3, 57.5, -11.1, 57.401, -11.201, "bent")]
    [InlineData(57.3, -11.3, 57.5, -11.1, 57.3, -11.3, "are one")]
    [InlineData(57.3, -11.3, 57.5, -11.1, 91.0, -11.3, "on the earth")]
    [InlineData(57.3, -11.3, 80.0, 20.0, null, null, "km across")]
    public void AScannedSheetLiesByItsCorners(
        double south,
        double west,
        double north,
        double east,
        double? topLatitude,
        double? topLongitude,
        string wrong
    )
    {
        var sheet = new ScannedSheet(
            Guid.Empty,
            "old survey",
            new GroundPoint(south, west),
            new GroundPoint(north, east),
            topLatitude is { } latitude ? new GroundPoint(latitude, topLongitude!.Value) : null
        );
        var said = sheet.Problem()?.Message ?? "";
        Assert.True(wrong.Length == 0 ? said.Length == 0 : said.Contains(wrong, StringComparison.Ordinal), said);
    }
}
