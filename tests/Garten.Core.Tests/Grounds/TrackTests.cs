using Garten.Core.Grounds;
using Xunit;

namespace Garten.Core.Tests.Grounds;

public sealed class TrackTests
{
    private const string Nine = "2026-05-20T09:00:00Z";
    private const double MetresPerDegree = 111_195;
    private static readonly Guid Id = Guid.CreateVersion7();

    // So many metres north of the start, after so many seconds.
    private static TrackPoint North(double metres, double seconds, double accuracy = 3) =>
        new(57.4 + metres / MetresPerDegree, -11.2, accuracy, seconds);

    private static TrackPiece Piece(string startedAt, params TrackPoint[] points) =>
        new(Guid.CreateVersion7(), Id, "Runa Velt", startedAt, "receiver", points);

    private static Track One(params TrackPiece[] pieces) => Assert.Single(Track.Of(pieces));

    [Fact]
    public void AWayIsAsLongAsItIs()
    {
        var track = One(Piece(Nine, [.. Enumerable.Range(0, 101).Select(i => North(10 * i, 12 * i))]));
        Assert.Equal(1000, track.Metres, 1.0);
        Assert.Empty(track.Gaps);
        Assert.Equal(("2026-05-20T09:00:00+00:00", "2026-05-20T09:20:00+00:00"), (track.StartedAt, track.EndedAt));
        Assert.Equal("1.0 km", track.InWords);
    }

    [Fact]
    public void WhoStandsStillGoesNowhere()
    {
        // A receiver that wanders by three metres about a spot for an hour.
        var random = new Random(3);
        var track = One(Piece(Nine, [.. Enumerable.Range(0, 720).Select(i => North(3 * random.NextDouble(), 5 * i, 3.5))]));
        Assert.Equal(0, track.Metres);
        Assert.Empty(track.Gaps);
    }

    [Fact]
    public void AGapIsShownAndNeverBridged()
    {
        var track = One(Piece(Nine, North(0, 0), North(40, 40), North(340, 640), North(380, 680)));
        Assert.Equal(80, track.Metres, 0.5);
        var gap = Assert.Single(track.Gaps);
        Assert.Equal(10, gap.Minutes!.Value, 0.01);
        Assert.Equal(300, Ring.Metres(gap.From, gap.To), 0.5);
        Assert.Equal("80 m, with a gap of 10 min without a position", track.InWords);
        // Who stands still for some minutes makes none.
        Assert.Empty(One(Piece(Nine, North(0, 0), North(4, 300), North(44, 340))).Gaps);
        // After more than ten minutes at the same spot nobody knows any more.
        Assert.Single(One(Piece(Nine, North(0, 0), North(4, 700))).Gaps);
    }

    [Fact]
    public void PositionsThatNobodyWouldBelieveAreLeftOutAndCounted()
    {
        var track = One(
            Piece(
                Nine,
                North(0, 0),
                North(20, 20),
                new TrackPoint(0, 0, 3, 25),
                North(900, 30),
                North(40, 40),
                North(60, 60, 250),
                North(80, 80)
            )
        );
        Assert.Equal((3, 80.0), (track.LeftOut, Math.Round(track.Metres)));
        Assert.EndsWith("3 positions that nobody would believe are left out", track.InWords, StringComparison.Ordinal);
        // By car over a gap one may be far: that isn't doubted.
        Assert.Equal(0, One(Piece(Nine, North(0, 0), North(3000, 100), North(3010, 110))).LeftOut);
    }

    [Fact]
    public void PiecesGoOnWhereTheOneBeforeEndedInWhateverOrderTheyCame()
    {
        var (first, second) = (Piece(Nine, North(0, 0), North(30, 30)), Piece("2026-05-20T11:01:00+02:00", North(60, 0), North(90, 30)));
        Assert.Equal(90, One(second, first).Metres, 0.5);
        Assert.Empty(One(second, first).Gaps);
        var other = second with { TrackId = Guid.CreateVersion7() };
        Assert.Equal([60.0 / 2, 60.0 / 2], Track.Of([other, first]).Select(t => Math.Round(t.Metres)));
    }

    [Fact]
    public void WithoutTimesWaysDontJoin()
    {
        var track = One(
            Piece("", new TrackPoint(57.4, -11.2), new TrackPoint(57.401, -11.2)),
            Piece("", new TrackPoint(57.41, -11.2), new TrackPoint(57.411, -11.2))
        );
        Assert.Equal(2 * 111.2, track.Metres, 0.5);
        Assert.Null(Assert.Single(track.Gaps).Minutes);
        Assert.Equal("222 m, in 2 pieces that don’t join", track.InWords);
        Assert.Equal("", track.EndedAt);
    }

    [Theory]
    [InlineData(Nine, 0, "1 to 5000")]
    [InlineData("noon", 2, "with a time and an offset")]
    [InlineData("", 2, "when the piece began isn't said")]
    public void WhatIsNoPieceIsSaid(string startedAt, int count, string says) =>
        Assert.Contains(
            says,
            TrackPiece.Problem(startedAt, [.. Enumerable.Range(0, count).Select(i => North(i, i))]),
            StringComparison.Ordinal
        );

    [Fact]
    public void TimesThatRunBackAndPlacesThatAreNoneAreNoPiece()
    {
        Assert.Null(TrackPiece.Problem(Nine, [North(0, 0), North(1, 5)]));
        Assert.Contains("go on", TrackPiece.Problem(Nine, [North(0, 9), North(1, 5)]), StringComparison.Ordinal);
        Assert.Contains("go on", TrackPiece.Problem(Nine, [North(0, double.NaN)]), StringComparison.Ordinal);
        Assert.Contains("latitude", TrackPiece.Problem(Nine, [new TrackPoint(97, 0, 1, 0)]), StringComparison.Ordinal);
        Assert.Contains("metres above 0", TrackPiece.Problem(Nine, [North(0, 0, -1)]), StringComparison.Ordinal);
        Assert.Contains("no time", TrackPiece.Problem(Nine, [new TrackPoint(57, 0, 1)]), StringComparison.Ordinal);
    }
}
