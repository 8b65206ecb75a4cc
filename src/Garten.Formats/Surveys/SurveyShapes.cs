using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Surveys.Plots;

namespace Garten.Formats.Surveys;

/// <summary>Writes where a survey was made as GeoJSON (RFC 7946): places, plots with what was found in them last, lines of lists that have
/// a position. Of sensitive taxa nothing stands there, and no plot that would lead to one.</summary>
public static class SurveyShapes
{
    /// <summary>Writes it.</summary>
    /// <param name="output">Where to; it stays open.</param>
    /// <param name="whole">The survey.</param>
    /// <param name="sensitive">Which taxa are kept back; null for everything exact.</param>
    public static void Write(Stream output, SurveyWhole whole, SensitiveTaxa? sensitive)
    {
        ArgumentNullException.ThrowIfNull(whole);
        bool IsKeptBack(string taxon) => taxon.Length > 0 && sensitive?.Holds(taxon) == true;
        using var json = new Utf8JsonWriter(output);
        json.WriteStartObject();
        json.WriteString("type", "FeatureCollection");
        json.WriteStartArray("features");
        foreach (var place in whole.Survey.Places)
            Point(json, place.Longitude, place.Latitude, ("kind", "place"), ("name", place.Name), ("locality", place.Locality));
        var records = PlotRecord.Holding(whole.Records).ToLookup(r => r.PlotId);
        foreach (var plot in whole.Plots)
        {
            var last = records[plot.Id].MaxBy(r => r.Date);
            if (plot.Site is not { } site || records[plot.Id].Any(r => r.Finds.Any(f => IsKeptBack(f.Taxon))))
                continue;
            Point(
                json,
                site.Longitude,
                site.Latitude,
                ("kind", "plot"),
                ("name", plot.Label),
                ("group", plot.Group),
                ("recorded", CellText.Of(last?.Date)),
                ("taxa", string.Join(" | ", last?.Finds.Select(f => f.Taxon).Distinct(StringComparer.Ordinal) ?? []))
            );
        }
        foreach (var visit in whole.Visits)
        {
            foreach (var line in visit.Records.Select(r => r.Lines[0]))
            {
                if (line is { Latitude: { } latitude, Longitude: { } longitude } && !IsKeptBack(line.Name))
                    Point(
                        json,
                        longitude,
                        latitude,
                        ("kind", "record"),
                        ("name", line.Name.Length > 0 ? line.Name : line.Unnamed),
                        ("date", CellText.Of(visit.Date)),
                        ("place", visit.Place.Name)
                    );
            }
        }
        json.WriteEndArray();
        json.WriteEndObject();
    }

    private static void Point(
        Utf8JsonWriter json,
        double longitude,
        double latitude,
        params ReadOnlySpan<(string Name, string Value)> properties
    )
    {
        json.WriteStartObject();
        json.WriteString("type", "Feature");
        json.WriteStartObject("geometry");
        json.WriteString("type", "Point");
        json.WriteStartArray("coordinates");
        json.WriteNumberValue(longitude);
        json.WriteNumberValue(latitude);
        json.WriteEndArray();
        json.WriteEndObject();
        json.WriteStartObject("properties");
        foreach (var (name, value) in properties)
            json.WriteString(name, value);
        json.WriteEndObject();
        json.WriteEndObject();
    }
}
