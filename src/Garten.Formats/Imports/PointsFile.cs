using System.Globalization;
using System.Text.Json;
using System.Xml;
using System.Xml.Linq;
using Garten.Core.Imports;
using Garten.Formats.Shapes;
using NetTopologySuite.IO;

namespace Garten.Formats.Imports;

/// <summary>Points out of GeoJSON, GPX (waypoints) or KML as a table: a point a line, with what is said of it. Lines and areas are no
/// records.</summary>
internal sealed class PointsFile : RecordFile
{
    private const int MostAttributes = 50;
    private static readonly string[] Own = ["name", "latitude", "longitude"];

    private readonly List<string> _headings = [.. Own];
    private readonly List<(double Latitude, double Longitude, string Name, Dictionary<string, string> Said)> _points = [];
    private readonly int _others;

    public PointsFile(string path)
    {
        if (new FileInfo(path).Length > ShapeFile.LargestBytes)
            throw new RecordFileException("file.too-large", $"A file of points may have {ShapeFile.LargestBytes / 1_000_000} MB.");
        var content = File.ReadAllBytes(path);
        try
        {
            _others = content.AsSpan().TrimStart("\uFEFF \t\r\n"u8)[0] == '{' ? GeoJson(content) : Xml(content);
        }
        catch (Exception broken)
            when (broken
                    is JsonException
                        or XmlException
                        or FormatException
                        or KeyNotFoundException
                        or InvalidOperationException
                        or InvalidDataException
                        or ArgumentException
            )
        {
            throw new RecordFileException("file.damaged", $"This file of points can’t be read: {broken.Message}");
        }
        if (_points.Count == 0)
            throw new RecordFileException("points.none", "There is no point in this file: lines and areas are no records.");
        foreach (var heading in _points.SelectMany(p => p.Said.Keys).Distinct(StringComparer.Ordinal).Take(MostColumns - Own.Length))
            _headings.Add(heading);
    }

    public override string Kind => "points of a map";

    public override IReadOnlyList<string> Headings => _headings;

    public override IReadOnlyList<string> Notes =>
        _others == 0 ? [] : [$"{_others.ToString(CultureInfo.InvariantCulture)} lines or areas in it are no records, and aren’t taken in."];

    public override IEnumerable<TableLine> Lines() =>
        _points.Select(
            (point, at) =>
                new TableLine(
                    at + 1,
                    [
                        point.Name,
                        point.Latitude.ToString("R", CultureInfo.InvariantCulture),
                        point.Longitude.ToString("R", CultureInfo.InvariantCulture),
                        .. _headings.Skip(Own.Length).Select(h => point.Said.GetValueOrDefault(h, "")),
                    ]
                )
        );

    private void Add(double latitude, double longitude, string name, Dictionary<string, string> said) =>
        _points.Add((latitude, longitude, name.Trim(), said));

    // How many shapes aren't points.
    private int GeoJson(byte[] content)
    {
        using var document = JsonDocument.Parse(content, new JsonDocumentOptions { MaxDepth = 64 });
        var others = 0;
        foreach (var feature in document.RootElement.GetProperty("features").EnumerateArray())
        {
            if (
                !feature.TryGetProperty("geometry", out var geometry)
                || geometry.ValueKind != JsonValueKind.Object
                || geometry.GetProperty("type").GetString() != "Point"
            )
            {
                others++;
                continue;
            }
            var said = new Dictionary<string, string>(StringComparer.Ordinal);
            if (feature.TryGetProperty("properties", out var properties) && properties.ValueKind == JsonValueKind.Object)
            {
                foreach (var property in properties.EnumerateObject())
                    said[property.Name] =
                        property.Value.ValueKind == JsonValueKind.String ? property.Value.GetString()!
                        : property.Value.ValueKind == JsonValueKind.Null ? ""
                        : property.Value.GetRawText();
            }
            said.Remove("name", out var name);
            var at = geometry.GetProperty("coordinates");
            Add(at[1].GetDouble(), at[0].GetDouble(), name ?? "", said);
        }
        return others;
    }

    private int Xml(byte[] content)
    {
        var settings = new XmlReaderSettings
        {
            // What stands outside the file is never looked at.
            DtdProcessing = DtdProcessing.Prohibit,
            XmlResolver = null,
            MaxCharactersInDocument = ShapeFile.LargestBytes,
        };
        XmlReader Open() => XmlReader.Create(new XmlGuard(new MemoryStream(content), MostAttributes), settings);
        using var reader = Open();
        reader.MoveToContent();
        if (reader.LocalName == "gpx")
        {
            using var whole = Open();
            return Gpx(GpxFile.ReadFrom(whole, new GpxReaderSettings()));
        }
        if (reader.LocalName == "kml")
            return Kml(XDocument.Load(reader));
        throw new RecordFileException("file.xml", "This is neither GPX nor KML.");
    }

    private int Gpx(GpxFile file)
    {
        foreach (var waypoint in file.Waypoints)
        {
            var said = Pairs(waypoint.Description ?? waypoint.Comment ?? "");
            if (waypoint.TimestampUtc is { } time)
                said.TryAdd("date", time.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
            Add(waypoint.Latitude, waypoint.Longitude, waypoint.Name ?? "", said);
        }
        return file.Routes.Count + file.Tracks.Count;
    }

    private int Kml(XDocument document)
    {
        var others = 0;
        foreach (var mark in document.Descendants().Where(e => e.Name.LocalName == "Placemark"))
        {
            string Said(string name) => mark.Elements().FirstOrDefault(e => e.Name.LocalName == name)?.Value ?? "";
            var coordinates = mark.Elements()
                .FirstOrDefault(e => e.Name.LocalName == "Point")
                ?.Elements()
                .FirstOrDefault(e => e.Name.LocalName == "coordinates")
                ?.Value.Split(',');
            if (
                coordinates is not [var x, var y, ..]
                || !double.TryParse(x, NumberStyles.Float, CultureInfo.InvariantCulture, out var longitude)
                || !double.TryParse(y, NumberStyles.Float, CultureInfo.InvariantCulture, out var latitude)
            )
            {
                others++;
                continue;
            }
            var said = Pairs(Said("description"));
            foreach (var data in mark.Descendants().Where(e => e.Name.LocalName == "Data"))
                said[(string?)data.Attribute("name") ?? ""] = data.Elements().FirstOrDefault(e => e.Name.LocalName == "value")?.Value ?? "";
            Add(latitude, longitude, Said("name"), said);
        }
        return others;
    }

    // "eventDate: 2021-06-03; recordedBy: A": where every part names something known; else it is a note.
    private static Dictionary<string, string> Pairs(string text)
    {
        var said = new Dictionary<string, string>(StringComparer.Ordinal);
        if (text.Length == 0)
            return said;
        var last = "";
        foreach (var part in text.Split("; "))
        {
            var colon = part.IndexOf(": ", StringComparison.Ordinal);
            if (colon > 0 && part.AsSpan(0, colon).IndexOf(' ') < 0)
                said[last = part[..colon]] = part[(colon + 2)..];
            else if (last.Length > 0)
                said[last] += "; " + part;
            else
                break;
        }
        if (said.Keys.Any(k => ImportHeadings.Of(k) != ImportField.None))
            return said;
        return new Dictionary<string, string>(StringComparer.Ordinal) { ["note"] = text };
    }
}
