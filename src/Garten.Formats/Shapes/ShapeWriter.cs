using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Xml;
using Garten.Core.Grounds;
using NetTopologySuite.IO;

namespace Garten.Formats.Shapes;

/// <summary>In which form shapes are written.</summary>
public enum ShapeForm
{
    /// <summary>GeoJSON (RFC 7946).</summary>
    GeoJson,

    /// <summary>GPX 1.1.</summary>
    Gpx,

    /// <summary>KML 2.2.</summary>
    Kml,
}

/// <summary>A shape with what is said of it.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Points">Its points: one for a point, the corners of a boundary else.</param>
/// <param name="Properties">What else is said of it; what is empty is left out.</param>
/// <param name="Ways">The ways of a track, between its gaps; null for a point or boundary.</param>
public sealed record WrittenShape(
    string Name,
    IReadOnlyList<GroundPoint> Points,
    IReadOnlyList<(string Name, string Value)> Properties,
    IReadOnlyList<IReadOnlyList<WrittenStep>>? Ways = null
)
{
    /// <summary>Whether it is a boundary.</summary>
    public bool IsArea => Ways is null && Points.Count >= Ring.FewestCorners;

    /// <summary>All that is said of it in one text.</summary>
    internal string InWords => string.Join("; ", Said.Select(p => $"{p.Name}: {p.Value}"));

    internal IEnumerable<(string Name, string Value)> Said => Properties.Where(p => p.Value.Length > 0);
}

/// <summary>A position of a track.</summary>
/// <param name="At">Where.</param>
/// <param name="Moment">When, in UTC; null where it isn't known.</param>
public readonly record struct WrittenStep(GroundPoint At, DateTime? Moment);

/// <summary>Writes points, boundaries and tracks in the forms that maps and receivers read.</summary>
public static class ShapeWriter
{
    /// <summary>Most shapes of a file: more than this no receiver takes, and no map shows by itself.</summary>
    public const int MostShapes = 100_000;

    /// <summary>All forms, with how their files end.</summary>
    public static IReadOnlyList<(string Ending, ShapeForm Form)> Forms { get; } =
    [("geojson", ShapeForm.GeoJson), ("gpx", ShapeForm.Gpx), ("kml", ShapeForm.Kml)];

    /// <summary>The media type of a form.</summary>
    public static string TypeOf(ShapeForm form) =>
        form switch
        {
            ShapeForm.GeoJson => "application/geo+json",
            ShapeForm.Gpx => "application/gpx+xml",
            _ => "application/vnd.google-earth.kml+xml",
        };

    /// <summary>Writes shapes; the stream stays open. In GPX a boundary is a track that ends where it begins, since it has no
    /// areas.</summary>
    public static void Write(Stream output, ShapeForm form, IEnumerable<WrittenShape> shapes)
    {
        ArgumentNullException.ThrowIfNull(shapes);
        switch (form)
        {
            case ShapeForm.GeoJson:
                GeoJson(output, shapes);
                break;
            case ShapeForm.Gpx:
                Gpx(output, shapes);
                break;
            default:
                Kml(output, shapes);
                break;
        }
    }

    private static void GeoJson(Stream output, IEnumerable<WrittenShape> shapes)
    {
        using var json = new Utf8JsonWriter(output);
        json.WriteStartObject();
        json.WriteString("type", "FeatureCollection");
        json.WriteStartArray("features");
        foreach (var shape in shapes)
        {
            json.WriteStartObject();
            json.WriteString("type", "Feature");
            json.WriteStartObject("geometry");
            json.WriteString(
                "type",
                shape.Ways is not null ? "MultiLineString"
                    : shape.IsArea ? "Polygon"
                    : "Point"
            );
            json.WriteStartArray("coordinates");
            if (shape.Ways is { } ways)
            {
                foreach (var way in ways)
                    Line(json, Twice(way).Select(s => s.At));
            }
            else if (shape.IsArea)
                Line(json, Outward(shape.Points));
            else
            {
                json.WriteNumberValue(shape.Points[0].Longitude);
                json.WriteNumberValue(shape.Points[0].Latitude);
            }
            json.WriteEndArray();
            json.WriteEndObject();
            json.WriteStartObject("properties");
            json.WriteString("name", shape.Name);
            foreach (var (name, value) in shape.Said)
                json.WriteString(name, value);
            json.WriteEndObject();
            json.WriteEndObject();
        }
        json.WriteEndArray();
        json.WriteEndObject();
    }

    private static void Line(Utf8JsonWriter json, IEnumerable<GroundPoint> points)
    {
        json.WriteStartArray();
        foreach (var point in points)
        {
            json.WriteStartArray();
            json.WriteNumberValue(point.Longitude);
            json.WriteNumberValue(point.Latitude);
            json.WriteEndArray();
        }
        json.WriteEndArray();
    }

    // A line has two ends: a single position is both.
    private static IReadOnlyList<WrittenStep> Twice(IReadOnlyList<WrittenStep> way) => way.Count == 1 ? [way[0], way[0]] : way;

    // Closed, and anticlockwise as RFC 7946 wants outer rings.
    private static IEnumerable<GroundPoint> Outward(IReadOnlyList<GroundPoint> ring)
    {
        var twice = 0.0;
        for (var i = 0; i < ring.Count; i++)
        {
            var (a, b) = (ring[i], ring[(i + 1) % ring.Count]);
            twice += a.Longitude * b.Latitude - b.Longitude * a.Latitude;
        }
        var turned = twice >= 0 ? ring : [.. ring.Reverse()];
        return turned.Append(turned[0]);
    }

    private static void Gpx(Stream output, IEnumerable<WrittenShape> shapes)
    {
        var file = new GpxFile { Metadata = new GpxMetadata("Garten") };
        foreach (var shape in shapes)
        {
            if (shape.Ways is { } ways)
            {
                file.Tracks.Add(
                    new GpxTrack()
                        .WithName(Clean(shape.Name))
                        .WithDescription(Clean(shape.InWords))
                        .WithSegments([
                            .. ways.Select(way => new GpxTrackSegment(
                                new ImmutableGpxWaypointTable(
                                    way.Select(s => s.Moment is { } at ? Waypoint(s.At).WithTimestampUtc(at) : Waypoint(s.At))
                                ),
                                extensions: null
                            )),
                        ])
                );
            }
            else if (shape.IsArea)
            {
                file.Tracks.Add(
                    new GpxTrack()
                        .WithName(Clean(shape.Name))
                        .WithDescription(Clean(shape.InWords))
                        .WithSegments([
                            new GpxTrackSegment(
                                new ImmutableGpxWaypointTable(Outward(shape.Points).Select(p => Waypoint(p))),
                                extensions: null
                            ),
                        ])
                );
            }
            else
                file.Waypoints.Add(Waypoint(shape.Points[0]).WithName(Clean(shape.Name)).WithDescription(Clean(shape.InWords)));
        }
        using var xml = XmlWriter.Create(output, Settings);
        file.WriteTo(xml, new GpxWriterSettings());
    }

    private static GpxWaypoint Waypoint(GroundPoint point) => new(new GpxLongitude(point.Longitude), new GpxLatitude(point.Latitude));

    private static readonly XmlWriterSettings Settings = new() { Encoding = new UTF8Encoding(false), CloseOutput = false };

    private const string KmlSpace = "http://www.opengis.net/kml/2.2";

    private static void Kml(Stream output, IEnumerable<WrittenShape> shapes)
    {
        using var xml = XmlWriter.Create(output, Settings);
        xml.WriteStartElement("kml", KmlSpace);
        xml.WriteStartElement("Document", KmlSpace);
        foreach (var shape in shapes)
        {
            xml.WriteStartElement("Placemark", KmlSpace);
            xml.WriteElementString("name", KmlSpace, Clean(shape.Name));
            xml.WriteStartElement("ExtendedData", KmlSpace);
            foreach (var (name, value) in shape.Said)
            {
                xml.WriteStartElement("Data", KmlSpace);
                xml.WriteAttributeString("name", name);
                xml.WriteElementString("value", KmlSpace, Clean(value));
                xml.WriteEndElement();
            }
            xml.WriteEndElement();
            if (shape.Ways is { } ways)
            {
                xml.WriteStartElement("MultiGeometry", KmlSpace);
                foreach (var way in ways)
                {
                    xml.WriteStartElement("LineString", KmlSpace);
                    xml.WriteElementString("coordinates", KmlSpace, string.Join(' ', Twice(way).Select(s => Pair(s.At))));
                    xml.WriteEndElement();
                }
                xml.WriteEndElement();
            }
            else if (shape.IsArea)
            {
                xml.WriteStartElement("Polygon", KmlSpace);
                xml.WriteStartElement("outerBoundaryIs", KmlSpace);
                xml.WriteStartElement("LinearRing", KmlSpace);
                xml.WriteElementString("coordinates", KmlSpace, string.Join(' ', Outward(shape.Points).Select(Pair)));
                xml.WriteEndElement();
                xml.WriteEndElement();
                xml.WriteEndElement();
            }
            else
            {
                xml.WriteStartElement("Point", KmlSpace);
                xml.WriteElementString("coordinates", KmlSpace, Pair(shape.Points[0]));
                xml.WriteEndElement();
            }
            xml.WriteEndElement();
        }
        xml.WriteEndElement();
        xml.WriteEndElement();
    }

    private static string Pair(GroundPoint point) => string.Create(CultureInfo.InvariantCulture, $"{point.Longitude:R},{point.Latitude:R}");

    // Characters that XML can't hold are left out.
    private static string Clean(string text) => string.Concat(text.Where(XmlConvert.IsXmlChar));
}
