using System.Globalization;
using System.Text;
using Garten.Core.Grounds;
using Garten.Formats.Shapes;
using Xunit;

namespace Garten.Formats.Tests.Shapes;

public sealed class ShapeFileTests
{
    private static ShapesRead Read(string text) => ShapeFile.Read(Encoding.UTF8.GetBytes(text));

    private static ShapesRead Sound(string text)
    {
        var read = Read(text);
        Assert.True(read.Shapes.Count > 0, read.Problem);
        return read;
    }

    private static string[] Told(string text) =>
        [
            .. Sound(text)
                .Shapes.Select(s =>
                    $"{s.Kind} {s.Name}: {string.Join(" ", s.Points.Select(p => string.Create(CultureInfo.InvariantCulture, $"{p.Latitude},{p.Longitude}")))}"
                ),
        ];

    [Fact]
    public void GeoJsonIsReadFeatureByFeature()
    {
        Assert.Equal(
            [
                "Area meadow: 57.4,-11.2 57.4,-11.1 57.5,-11.1",
                "Line : 57,-11 57.1,-11",
                "Point gate: 57,-11",
                "Area two: 1,1 1,2 2,2",
                "Area two: 3,3 3,4 4,4",
            ],
            Told(
                """
                {"type":"FeatureCollection","features":[
                {"type":"Feature","properties":{"name":"meadow"},"geometry":{"type":"Polygon","coordinates":[[[-11.2,57.4],[-11.1,57.4],[-11.1,57.5],[-11.2,57.4]],[[-11.15,57.42],[-11.14,57.42],[-11.14,57.43],[-11.15,57.42]]]}},
                {"type":"Feature","properties":null,"geometry":{"type":"LineString","coordinates":[[-11,57],[-11,57.1]]}},
                {"type":"Feature","properties":{"name":3},"geometry":null},
                {"type":"Feature","properties":{"name":"gate"},"geometry":{"type":"Point","coordinates":[-11,57]}},
                {"type":"Feature","properties":{"name":"two"},"geometry":{"type":"MultiPolygon","coordinates":[[[[1,1],[2,1],[2,2],[1,1]]],[[[3,3],[4,3],[4,4],[3,3]]]]}}
                ]}
                """
            )
        );
        Assert.Single(Told("""{"type":"Polygon","coordinates":[[[1,1],[2,1],[2,2],[1,1]]]}"""));
    }

    [Fact]
    public void AnotherSystemOfCoordinatesIsRefused() =>
        Assert.Contains(
            "WGS 84",
            Read(
                """{"type":"FeatureCollection","crs":{"type":"name","properties":{"name":"urn:ogc:def:crs:EPSG::27700"}},"features":[]}"""
            ).Problem,
            StringComparison.Ordinal
        );

    [Fact]
    public void AGpxTrackIsALineForEachOfItsSegments()
    {
        Assert.Equal(
            ["Point stile: 57.4,-11.2", "Line walk: 57.4,-11.2 57.41,-11.2", "Line walk: 57.42,-11.2 57.43,-11.2"],
            Told(
                """
                <?xml version="1.0" encoding="UTF-8"?>
                <gpx version="1.1" creator="x" xmlns="http://www.topografix.com/GPX/1/1">
                <wpt lat="57.4" lon="-11.2"><name>stile</name></wpt>
                <trk><name>walk</name>
                <trkseg><trkpt lat="57.4" lon="-11.2"/><trkpt lat="57.41" lon="-11.2"/></trkseg>
                <trkseg><trkpt lat="57.42" lon="-11.2"/><trkpt lat="57.43" lon="-11.2"/></trkseg></trk>
                </gpx>
                """
            )
        );
    }

    [Fact]
    public void KmlGivesItsPlacemarksAndFetchesNothing()
    {
        var read = Read(
            """
            <?xml version="1.0" encoding="UTF-8"?>
            <kml xmlns="http://www.opengis.net/kml/2.2"><Document><name>all</name>
            <NetworkLink><Link><href>http://elsewhere.invalid/more.kml</href></Link></NetworkLink>
            <Placemark><name>meadow</name><Polygon><outerBoundaryIs><LinearRing><coordinates>-11.2,57.4,0 -11.1,57.4,0 -11.1,57.5,0 -11.2,57.4,0</coordinates></LinearRing></outerBoundaryIs>
            <innerBoundaryIs><LinearRing><coordinates>-11.15,57.42 -11.14,57.42 -11.14,57.43 -11.15,57.42</coordinates></LinearRing></innerBoundaryIs></Polygon></Placemark>
            <Placemark><Point><coordinates>-11,57</coordinates></Point></Placemark></Document></kml>
            """
        );
        Assert.Equal([(ShapeKind.Area, "meadow", 3), (ShapeKind.Point, "", 1)], read.Shapes.Select(s => (s.Kind, s.Name, s.Points.Count)));
        Assert.Contains("isn't fetched", read.Problem, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("")]
    [InlineData("   ")]
    [InlineData("lat;lon\n1;2")]
    [InlineData("{")]
    [InlineData("{}")]
    [InlineData("""{"type":"FeatureCollection"}""")]
    [InlineData("""{"type":"FeatureCollection","features":[]}""")]
    [InlineData("""{"type":"Feature","geometry":{"type":"Polygon","coordinates":[[[1,1],[2,1]]]}}""")]
    [InlineData("""{"type":"Polygon","coordinates":"here"}""")]
    [InlineData("<html/>")]
    [InlineData("<kml><Placemark><Point><coordinates>here</coordinates></Point></Placemark></kml>")]
    [InlineData("<kml>")]
    [InlineData("<gpx version=\"1.1\" xmlns=\"http://www.topografix.com/GPX/1/1\"><wpt lat=\"95\" lon=\"0\"/></gpx>")]
    [InlineData("<!DOCTYPE kml [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><kml>&x;</kml>")]
    [InlineData("PK\u0003\u0004")]
    public void WhatCantBeReadIsSaidInWords(string text)
    {
        var read = Read(text);
        Assert.Empty(read.Shapes);
        Assert.NotEmpty(read.Problem);
    }

    [Fact]
    public void ALongTrackIsThinnedAndStaysWhereItWas()
    {
        var random = new Random(5);
        const int points = 200_000;
        var text = new StringBuilder("<gpx version=\"1.1\" creator=\"x\" xmlns=\"http://www.topografix.com/GPX/1/1\"><trk><trkseg>");
        for (var i = 0; i < points; i++)
        {
            var a = 2 * Math.PI * i / points;
            var (lat, lon) = (
                57.4 + 0.02 * Math.Sin(a) + 2e-5 * random.NextDouble(),
                -11.2 + 0.04 * Math.Cos(a) + 2e-5 * random.NextDouble()
            );
            text.Append(CultureInfo.InvariantCulture, $"<trkpt lat=\"{lat:0.000000}\" lon=\"{lon:0.000000}\"/>");
        }
        text.Append("</trkseg></trk></gpx>");
        var shape = Assert.Single(Sound(text.ToString()).Shapes);
        Assert.Equal(points, shape.Corners);
        Assert.InRange(shape.Points.Count, 20, Ring.MostCorners);
        var expected = Math.PI * 0.02 * 0.04 * 111_195.08 * 111_195.08 * Math.Cos(57.4 * Math.PI / 180);
        Assert.Equal(expected, Ring.Area(shape.Points), expected * 0.01);
    }
}
