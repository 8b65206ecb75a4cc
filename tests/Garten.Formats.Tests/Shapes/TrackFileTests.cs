using System.Globalization;
using System.Text;
using Garten.Core.Grounds;
using Garten.Formats.Shapes;
using Xunit;

namespace Garten.Formats.Tests.Shapes;

public sealed class TrackFileTests
{
    private static byte[] Gpx(params IEnumerable<(double Latitude, double Longitude, int Second)>[] ways) =>
        Encoding.UTF8.GetBytes(
            """<gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="x"><trk><name>a day out</name>"""
                + string.Concat(
                    ways.Select(way =>
                        "<trkseg>"
                        + string.Concat(
                            way.Select(p =>
                                string.Create(
                                    CultureInfo.InvariantCulture,
                                    $"""<trkpt lat="{p.Latitude}" lon="{p.Longitude}"><time>{new DateTime(2026, 5, 20, 8, 0, 0).AddSeconds(p.Second):yyyy-MM-ddTHH:mm:ss}Z</time></trkpt>"""
                                )
                            )
                        )
                        + "</trkseg>"
                    )
                )
                + "</trk></gpx>"
        );

    [Fact]
    public void AMapGetsTheShapeOfAWayAndNothingElse()
    {
        // Straight east, then straight north, a position every two seconds; then a gap, and one position alone.
        List<TrackPoint> walked =
        [
            .. Enumerable.Range(0, 100).Select(i => new TrackPoint(57.4, -11.2 + i * 1e-5, 4, 2 * i)),
            .. Enumerable.Range(1, 100).Select(i => new TrackPoint(57.4 + i * 1e-5, -11.2 + 99e-5, 4, 200 + 2 * i)),
            new TrackPoint(57.41, -11.19, 4, 2000),
        ];
        var track = Track
            .Of([new TrackPiece(Guid.CreateVersion7(), Guid.Empty, "Ilse", "2026-05-20T08:00:00Z", "receiver", walked)])
            .Single();
        var drawn = TrackFile.Drawn(track);
        Assert.Equal([3, 1], drawn.Segments.Select(s => s.Count));
        Assert.Equal(new TrackPoint(57.4, -11.2 + 99e-5), drawn.Segments[0][1]);
        Assert.Equal((track.Metres, track.Gaps.Count, track.InWords), (drawn.Metres, drawn.Gaps.Count, drawn.InWords));
    }

    private static Track Told(byte[] file) =>
        Track
            .Of(
                TrackFile
                    .Read(file)
                    .Ways.Select(w => new TrackPiece(Guid.CreateVersion7(), Guid.Empty, "Ilse", w.StartedAt, "file", w.Points))
            )
            .Single();

    [Fact]
    public void ATrackIsReadWithItsTimesAndItsGap()
    {
        var read = TrackFile.Read(
            Gpx(
                Enumerable.Range(0, 100).Select(i => (57.4 + i * 1e-5, -11.2, i)),
                Enumerable.Range(0, 100).Select(i => (57.41 + i * 1e-5, -11.2, 700 + i))
            )
        );
        Assert.Equal(("", 200, 2), (read.Problem, read.PointsInFile, read.Ways.Count));
        Assert.All(read.Ways, w => Assert.Equal("a day out", w.Name));
        Assert.Equal("2026-05-20T08:11:40.0Z", read.Ways[1].StartedAt);
    }

    [Fact]
    public void AStraightWayOfHoursIsThinnedAndStaysOneWay()
    {
        // 200,000 positions, one a second, on one line.
        var file = Gpx(Enumerable.Range(0, 200_000).Select(i => (57.0 + i * 1e-6, -11.2, i)).ToList());
        var read = TrackFile.Read(file);
        Assert.Equal(200_000, read.PointsInFile);
        Assert.InRange(read.Ways.Sum(w => w.Points.Count), 2, 20_000);
        Assert.All(read.Ways, w => Assert.InRange(w.Points.Count, 1, TrackPiece.MostPoints));
        var track = Told(Gpx(Enumerable.Range(0, 20_000).Select(i => (57.0 + i * 1e-5, -11.2, i))));
        Assert.Empty(track.Gaps);
        Assert.Equal(0.19999 * 111_195, track.Metres, 30.0);
    }

    [Fact]
    public void WithoutTimesItIsSaid()
    {
        const string line =
            """{"type":"Feature","properties":{"name":"way"},"geometry":{"type":"LineString","coordinates":[[-11.2,57.4],[-11.2,57.401]]}}""";
        var read = TrackFile.Read(Encoding.UTF8.GetBytes(line));
        Assert.Equal(("", "way"), (read.Ways[0].StartedAt, read.Ways[0].Name));
        Assert.Contains("no times", read.Problem, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("<gpx>", "can't be read")]
    [InlineData("hello", "neither")]
    [InlineData("""{"type":"Point","coordinates":[-11.2,57.4]}""", "no track")]
    [InlineData("""<!DOCTYPE gpx [<!ENTITY a SYSTEM "file:///etc/passwd">]><gpx>&a;</gpx>""", "can't be read")]
    public void WhatIsNoTrackIsSaid(string text, string says)
    {
        var read = TrackFile.Read(Encoding.UTF8.GetBytes(text));
        Assert.Empty(read.Ways);
        Assert.Contains(says, read.Problem, StringComparison.OrdinalIgnoreCase);
    }

    [Theory]
    [InlineData(ShapeForm.GeoJson)]
    [InlineData(ShapeForm.Gpx)]
    [InlineData(ShapeForm.Kml)]
    public void WhatIsWrittenIsReadAgain(ShapeForm form)
    {
        var began = new DateTime(2026, 5, 20, 8, 0, 0, DateTimeKind.Utc);
        IReadOnlyList<WrittenStep> Way(double from, int second) =>
            [
                .. Enumerable
                    .Range(0, 3)
                    .Select(i => new WrittenStep(new GroundPoint(from + i * i * 1e-3, -11.2), began.AddSeconds(second + 20 * i))),
            ];
        using var output = new MemoryStream();
        ShapeWriter.Write(output, form, [new WrittenShape("Lang Meadow", [], [("kind", "track")], [Way(57.4, 0), Way(57.5, 600)])]);
        var read = TrackFile.Read(output.ToArray());
        Assert.Equal(2, read.Ways.Count);
        Assert.Equal([57.5, 57.501, 57.504], read.Ways[1].Points.Select(p => Math.Round(p.Latitude, 6)));
        Assert.Equal(form == ShapeForm.Gpx ? "2026-05-20T08:10:00.0Z" : "", read.Ways[1].StartedAt);
    }
}
