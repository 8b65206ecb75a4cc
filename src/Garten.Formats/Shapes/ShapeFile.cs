using System.Globalization;
using System.Text.Json;
using System.Xml;
using Garten.Core.Grounds;
using NetTopologySuite.Geometries;
using NetTopologySuite.IO;
using NetTopologySuite.IO.Converters;
using NetTopologySuite.Simplify;

namespace Garten.Formats.Shapes;

/// <summary>Reads shapes out of GeoJSON, GPX and KML. Nothing that such a file points at is ever fetched.</summary>
public static class ShapeFile
{
    /// <summary>Largest file, in bytes.</summary>
    public const int LargestBytes = 40_000_000;

    private const int MostShapes = 2_000;

    // More than any element of these formats has.
    private const int MostAttributes = 50;

    // Positions of a handheld receiver aren't finer than this many degrees (1 m); thinning begins with it and doubles.
    private const double FinestDegrees = 1e-5;

    /// <summary>Reads a file by its content.</summary>
    public static ShapesRead Read(byte[] content)
    {
        ArgumentNullException.ThrowIfNull(content);
        if (content.Length > LargestBytes)
            return Nothing($"The file is larger than {LargestBytes / 1_000_000} MB.");
        var start = content.AsSpan().TrimStart("﻿ \t\r\n"u8);
        if (start.Length == 0)
            return Nothing("The file is empty.");
        try
        {
            if (start[0] == '{')
                return GeoJson(content);
            if (start[0] == '<')
                return Xml(content);
            return start[0] == 'P' && start.Length > 1 && start[1] == 'K'
                ? Nothing("This is a packed file. Unpack it, and bring the KML that lies in it.")
                : Nothing("This is neither GeoJSON, GPX nor KML.");
        }
        catch (Exception broken)
            when (broken
                    is JsonException
                        or XmlException
                        or KeyNotFoundException
                        or FormatException
                        or ArgumentException
                        or InvalidDataException
                        or InvalidOperationException
            )
        {
            return Nothing($"The file can't be read: {broken.Message}");
        }
    }

    private static ShapesRead Nothing(string problem) => new([], problem);

    private static ShapesRead GeoJson(byte[] content)
    {
        var options = new JsonSerializerOptions { Converters = { new GeoJsonConverterFactory() }, MaxDepth = 64 };
        using var document = JsonDocument.Parse(content, new JsonDocumentOptions { MaxDepth = 64 });
        var root = document.RootElement;
        if (
            root.TryGetProperty("crs", out var crs)
            && crs.ToString() is { } system
            && !system.Contains("CRS84", StringComparison.Ordinal)
            && !system.Contains("4326", StringComparison.Ordinal)
        )
            return Nothing("Its coordinates are of another system. Save it in WGS 84 (longitude and latitude in degrees).");
        var kind = root.TryGetProperty("type", out var type) ? type.GetString() : null;
        List<(string Name, Geometry? Shape)> found = kind switch
        {
            "FeatureCollection" => [.. root.GetProperty("features").EnumerateArray().Select(f => (NameOf(f), Geometry(f, options)))],
            "Feature" => [(NameOf(root), Geometry(root, options))],
            null => throw new FormatException("a GeoJSON object has a type."),
            _ => [("", root.Deserialize<Geometry>(options))],
        };
        return Told(found);
    }

    private static Geometry? Geometry(JsonElement feature, JsonSerializerOptions options) =>
        feature.TryGetProperty("geometry", out var geometry) && geometry.ValueKind == JsonValueKind.Object
            ? geometry.Deserialize<Geometry>(options)
            : null;

    private static string NameOf(JsonElement feature) =>
        feature.TryGetProperty("properties", out var properties)
        && properties.ValueKind == JsonValueKind.Object
        && properties.TryGetProperty("name", out var name)
        && name.ValueKind == JsonValueKind.String
            ? name.GetString()!
            : "";

    // What stands outside the file is never looked at.
    private static readonly XmlReaderSettings Closed = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        XmlResolver = null,
        MaxCharactersInDocument = LargestBytes,
    };

    /// <summary>Opens XML from a stranger.</summary>
    internal static XmlReader Open(byte[] content) => XmlReader.Create(new XmlGuard(new MemoryStream(content), MostAttributes), Closed);

    private static ShapesRead Xml(byte[] content)
    {
        using var reader = Open(content);
        reader.MoveToContent();
        // Its own reader wants to see the file from its beginning.
        using var anew = Open(content);
        return reader.LocalName switch
        {
            "gpx" => Gpx(anew),
            "kml" => Kml(reader),
            _ => Nothing($"A file that begins with “{reader.LocalName}” is neither GPX nor KML."),
        };
    }

    private static ShapesRead Gpx(XmlReader reader)
    {
        var file = GpxFile.ReadFrom(reader, new GpxReaderSettings { DefaultCreatorIfMissing = "unknown" });
        var factory = GeometryFactory.Default;
        List<(string, Geometry?)> found =
        [
            .. file.Waypoints.Select(w => (w.Name ?? "", (Geometry?)factory.CreatePoint(At(w)))),
            .. file.Routes.Select(r => (r.Name ?? "", Line([.. r.Waypoints.Select(At)]))),
            // A track is one line for each of its segments: between them the sky was lost.
            .. file.Tracks.SelectMany(t => t.Segments.Select(s => (t.Name ?? "", Line([.. s.Waypoints.Select(At)])))),
        ];
        return Told(found);
    }

    private static Coordinate At(GpxWaypoint point) => new(point.Longitude.Value, point.Latitude.Value);

    private static Geometry? Line(Coordinate[] points) =>
        points.Length == 0 ? null
        : points.Length == 1 ? GeometryFactory.Default.CreatePoint(points[0])
        : GeometryFactory.Default.CreateLineString(points);

    // Placemarks with their points, lines and outer rings, wherever they stand; links are passed over.
    private static ShapesRead Kml(XmlReader reader)
    {
        List<(string, Geometry?)> found = [];
        var (name, inside, hasLink) = ("", "", false);
        while (reader.Read())
        {
            if (reader.NodeType != XmlNodeType.Element)
                continue;
            switch (reader.LocalName)
            {
                case "Placemark":
                    (name, inside) = ("", "");
                    break;
                case "NetworkLink" or "Link" or "href":
                    hasLink = true;
                    break;
                case "name":
                    name = reader.ReadElementContentAsString().Trim();
                    break;
                case "Point" or "LineString" or "outerBoundaryIs" or "innerBoundaryIs":
                    inside = reader.LocalName;
                    break;
                case "coordinates" when inside != "innerBoundaryIs":
                    var points = Coordinates(reader.ReadElementContentAsString());
                    found.Add(
                        (
                            name,
                            inside switch
                            {
                                "outerBoundaryIs" => Area(points),
                                _ => Line(points),
                            }
                        )
                    );
                    break;
            }
        }
        var told = Told(found);
        return hasLink && told.Problem.Length == 0 ? told with { Problem = "What the file links to isn't fetched." } : told;
    }

    private static Coordinate[] Coordinates(string text) =>
        [
            .. text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
                .Select(p => p.Split(','))
                .Select(p =>
                    p.Length >= 2
                    && double.TryParse(p[0], NumberStyles.Float, CultureInfo.InvariantCulture, out var east)
                    && double.TryParse(p[1], NumberStyles.Float, CultureInfo.InvariantCulture, out var north)
                        ? new Coordinate(east, north)
                        : throw new FormatException($"“{string.Join(',', p)}” is no position.")
                ),
        ];

    private static Polygon? Area(Coordinate[] points)
    {
        if (points.Length < Ring.FewestCorners)
            return null;
        Coordinate[] closed = points[0].Equals2D(points[^1]) ? points : [.. points, points[0]];
        return closed.Length < 4 ? null : GeometryFactory.Default.CreatePolygon(closed);
    }

    private static ShapesRead Told(List<(string Name, Geometry? Shape)> found)
    {
        List<Shape> shapes = [];
        foreach (var (name, shape) in found)
        {
            for (var i = 0; shape is not null && i < shape.NumGeometries; i++)
            {
                if (shape.GetGeometryN(i) is { IsEmpty: false } one)
                    shapes.Add(Of(name, one));
            }
        }
        return shapes.Count == 0 ? Nothing("There is no shape in the file.")
            : shapes.Count > MostShapes
                ? new ShapesRead(shapes[..MostShapes], $"Of {shapes.Count} shapes the first {MostShapes} were read.")
            : new ShapesRead(shapes, "");
    }

    private static Shape Of(string name, Geometry shape)
    {
        var kind = shape switch
        {
            Polygon => ShapeKind.Area,
            LineString => ShapeKind.Line,
            _ => ShapeKind.Point,
        };
        var outer = shape is Polygon polygon ? polygon.ExteriorRing : shape;
        var thinned = outer;
        for (var off = FinestDegrees; kind != ShapeKind.Point && thinned.NumPoints > Ring.MostCorners; off *= 2)
            thinned = DouglasPeuckerSimplifier.Simplify(outer, off);
        var corners = thinned.Coordinates.Select(c => new GroundPoint(Math.Round(c.Y, 7), Math.Round(c.X, 7))).ToList();
        if (kind == ShapeKind.Area && corners.Count > 1 && corners[0] == corners[^1])
            corners.RemoveAt(corners.Count - 1);
        return new Shape(kind, name, corners, outer.NumPoints - (kind == ShapeKind.Area ? 1 : 0));
    }
}
