using System.Globalization;
using System.Security.Cryptography;
using System.Xml;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using NetTopologySuite.Geometries;
using NetTopologySuite.IO;
using NetTopologySuite.Simplify;

namespace Garten.Formats.Shapes;

/// <summary>Reads tracks out of GPX, with their times; out of GeoJSON and KML their lines, which have none.</summary>
public static class TrackFile
{
    // Positions of a handheld receiver aren't finer than this many degrees (1 m).
    private const double ThinnedDegrees = 1e-5;

    // A line on a map is wider than this (2 m).
    private const double DrawnDegrees = 2e-5;

    // However straight the way, a position is kept at least so often: a longer silence is a gap.
    private const double KeptSeconds = 30;

    // Together a hundred pieces at most: more than a week's walks.
    private const int MostWays = 500;

    /// <summary>Reads a file by its content. Where two positions of a track are a gap apart, it is cut there.</summary>
    public static TrackFileRead Read(byte[] content)
    {
        ArgumentNullException.ThrowIfNull(content);
        var hash = Convert.ToHexStringLower(SHA256.HashData(content));
        var start = content.AsSpan().TrimStart("﻿ \t\r\n"u8);
        if (start.Length > 0 && start[0] == '<' && content.Length <= ShapeFile.LargestBytes)
        {
            try
            {
                if (Gpx(content) is { } ways)
                    return Told(hash, ways);
            }
            catch (Exception broken) when (broken is XmlException or FormatException or ArgumentException or InvalidDataException)
            {
                return new TrackFileRead(hash, [], 0, $"The file can't be read: {broken.Message}");
            }
        }
        var (shapes, problem) = ShapeFile.Read(content);
        var lines = shapes.Where(s => s.Kind == ShapeKind.Line).ToList();
        if (lines.Count == 0)
            return new TrackFileRead(hash, [], 0, problem.Length > 0 ? problem : "There is no track in the file, nor a line.");
        return new TrackFileRead(
            hash,
            [.. lines.Select(l => new TrackWay(l.Name, "", [.. l.Points.Select(p => new TrackPoint(p.Latitude, p.Longitude))]))],
            lines.Sum(l => l.Corners),
            problem.Length > 0 ? problem : "The file has no times: when the way was gone isn’t known."
        );
    }

    // The segments of its tracks; null where it isn't GPX or has no track with times.
    private static List<(string Name, List<GpxWaypoint> Points)>? Gpx(byte[] content)
    {
        using var reader = ShapeFile.Open(content);
        reader.MoveToContent();
        if (reader.LocalName != "gpx")
            return null;
        using var anew = ShapeFile.Open(content);
        var file = GpxFile.ReadFrom(anew, new GpxReaderSettings { DefaultCreatorIfMissing = "unknown" });
        List<(string Name, List<GpxWaypoint> Points)> ways =
        [
            .. file.Tracks.SelectMany(t => t.Segments.Select(s => (t.Name ?? "", s.Waypoints.ToList()))).Where(w => w.Item2.Count > 0),
        ];
        return ways.Count > 0 && ways.All(w => w.Points.All(p => p.TimestampUtc is not null)) ? ways : null;
    }

    private static TrackFileRead Told(string hash, List<(string Name, List<GpxWaypoint> Points)> ways)
    {
        List<TrackWay> told = [];
        var problem = "";
        foreach (var (name, points) in ways)
        {
            var ordered = points.OrderBy(p => p.TimestampUtc).ToList();
            if (points.Zip(points.Skip(1), (a, b) => a.TimestampUtc > b.TimestampUtc).Any(isBack => isBack))
                problem = "Its times run back in places: its positions were put in the order of time.";
            var began = ordered[0].TimestampUtc!.Value;
            var kept = Thinned([
                .. ordered.Select(p => new TrackPoint(
                    Math.Round(p.Latitude.Value, 7),
                    Math.Round(p.Longitude.Value, 7),
                    null,
                    Math.Round((p.TimestampUtc!.Value - began).TotalSeconds, 1)
                )),
            ]);
            for (var at = 0; at < kept.Count; at += TrackPiece.MostPoints)
            {
                var part = kept.Skip(at).Take(TrackPiece.MostPoints).ToList();
                var from = part[0].Seconds!.Value;
                told.Add(
                    new TrackWay(
                        name,
                        began.AddSeconds(from).ToString("yyyy-MM-dd'T'HH:mm:ss.f'Z'", CultureInfo.InvariantCulture),
                        [.. part.Select(p => p with { Seconds = Math.Round(p.Seconds!.Value - from, 1) })]
                    )
                );
            }
        }
        if (told.Count > MostWays)
            (told, problem) = (
                told[..MostWays],
                string.Create(CultureInfo.InvariantCulture, $"Of {told.Count} ways the first {MostWays} were read.")
            );
        return new TrackFileRead(hash, told, ways.Sum(w => w.Points.Count), problem);
    }

    /// <summary>A track as a map draws it: the positions that its shape needs to two metres, without their times. Length, gaps and what was
    /// left out are those of the track as it is.</summary>
    public static Track Drawn(Track track)
    {
        ArgumentNullException.ThrowIfNull(track);
        return track with
        {
            Segments =
            [
                .. track.Segments.Select(
                    IReadOnlyList<TrackPoint> (way) =>
                    {
                        var shape = Shape(way, DrawnDegrees);
                        return [.. way.Where((_, i) => shape.Contains(i)).Select(p => new TrackPoint(p.Latitude, p.Longitude))];
                    }
                ),
            ],
        };
    }

    // The positions by which a way keeps its shape; of one or two all.
    private static HashSet<int> Shape(IReadOnlyList<TrackPoint> way, double degrees) =>
        way.Count <= 2
            ? [.. Enumerable.Range(0, way.Count)]
            :
            [
                .. DouglasPeuckerSimplifier
                    .Simplify(new LineString([.. way.Select((p, i) => new CoordinateZ(p.Longitude, p.Latitude, i))]), degrees)
                    .Coordinates.Select(c => (int)c.Z),
            ];

    // What the shape of the way needs, and a position every half minute.
    private static List<TrackPoint> Thinned(List<TrackPoint> points)
    {
        if (points.Count <= 2)
            return points;
        var shape = Shape(points, ThinnedDegrees);
        List<TrackPoint> kept = [];
        for (var i = 0; i < points.Count; i++)
        {
            var isLast = i == points.Count - 1;
            if (shape.Contains(i) || isLast || points[i + 1].Seconds - kept[^1].Seconds > KeptSeconds)
                kept.Add(points[i]);
        }
        return kept;
    }
}
