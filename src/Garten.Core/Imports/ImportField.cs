using System.Collections.Frozen;
using System.Text.Json.Serialization;
using Garten.Core.Floras;

namespace Garten.Core.Imports;

/// <summary>What a column of a table of records holds.</summary>
[JsonConverter(typeof(CamelCaseWords<ImportField>))]
public enum ImportField
{
    /// <summary>Nothing that is taken in.</summary>
    None,

    /// <summary>The taxon: a scientific or a common name.</summary>
    Taxon,

    /// <summary>The name as it was given by its determiner, all names that are open too.</summary>
    VerbatimName,

    /// <summary>Earlier names.</summary>
    EarlierNames,

    /// <summary>The day, a month, a year, or a span of days.</summary>
    Date,

    /// <summary>The year, where day, month and year stand apart.</summary>
    Year,

    /// <summary>The month, as a number, a word or in Roman figures.</summary>
    Month,

    /// <summary>The day of the month.</summary>
    Day,

    /// <summary>The time of the day, or a span of times.</summary>
    Time,

    /// <summary>The place in words.</summary>
    Place,

    /// <summary>The id of a place.</summary>
    PlaceId,

    /// <summary>The part of the place: a compartment, a square.</summary>
    Compartment,

    /// <summary>The habitat.</summary>
    Habitat,

    /// <summary>The boundary of the place, as well-known text.</summary>
    Outline,

    /// <summary>Latitude.</summary>
    Latitude,

    /// <summary>Longitude.</summary>
    Longitude,

    /// <summary>Latitude and longitude in one cell.</summary>
    Position,

    /// <summary>Radius of the circle that holds it, in metres.</summary>
    Uncertainty,

    /// <summary>Latitude of the place, where that of the find stands apart.</summary>
    PlaceLatitude,

    /// <summary>Longitude of the place.</summary>
    PlaceLongitude,

    /// <summary>Radius of the circle that holds the place, in metres.</summary>
    PlaceUncertainty,

    /// <summary>Who recorded it.</summary>
    Recorder,

    /// <summary>Who was on the visit, where it is told apart from who recorded a find.</summary>
    VisitPeople,

    /// <summary>Who named it.</summary>
    Determiner,

    /// <summary>When it was named.</summary>
    DeterminedOn,

    /// <summary>By which key or book it was named.</summary>
    NamedBy,

    /// <summary>What is said of the naming.</summary>
    NamingRemarks,

    /// <summary>How many.</summary>
    Count,

    /// <summary>An amount: a number of what the unit says, or a word.</summary>
    Quantity,

    /// <summary>What was counted, or by which scale the amount is told.</summary>
    CountUnit,

    /// <summary>How much there is, in one of the five words or as a number.</summary>
    Abundance,

    /// <summary>What it was doing: in flower, in ripe fruit.</summary>
    Phase,

    /// <summary>The sex seen.</summary>
    Sex,

    /// <summary>Wild or planted.</summary>
    Growth,

    /// <summary>Found, or looked for in vain.</summary>
    Status,

    /// <summary>What grows with it.</summary>
    Associates,

    /// <summary>A note.</summary>
    Note,

    /// <summary>What was said of the visit.</summary>
    VisitNote,

    /// <summary>The weather.</summary>
    Weather,

    /// <summary>Minutes of searching, added up over the people.</summary>
    Minutes,

    /// <summary>Whether the list is complete.</summary>
    Completeness,

    /// <summary>Which group was listed.</summary>
    Scope,

    /// <summary>Id of the record.</summary>
    RecordId,

    /// <summary>Id of the visit.</summary>
    VisitId,

    /// <summary>Id of the plant.</summary>
    PlantId,

    /// <summary>What the plant is called.</summary>
    PlantName,

    /// <summary>Further facts as JSON.</summary>
    Properties,
}

/// <summary>Which headings hold which field.</summary>
public static class ImportHeadings
{
    // Headings as people write them in the tables of their own, and the terms of Darwin Core and its extensions. The first one that fits
    // counts; none of two fields is alike.
    private static readonly (ImportField Field, string[] Words)[] Words =
    [
        (
            ImportField.Taxon,
            ["scientific name", "taxon", "taxon name", "species", "name", "plant", "species name", "latin name", "recommended name"]
        ),
        (ImportField.VerbatimName, ["verbatim identification"]),
        (ImportField.EarlierNames, ["previous identifications"]),
        (ImportField.Date, ["event date", "date", "day seen", "date seen", "observed on", "recorded on", "visit date", "sample date"]),
        (ImportField.Year, ["year"]),
        (ImportField.Month, ["month"]),
        (ImportField.Day, ["day"]),
        (ImportField.Time, ["event time", "time", "time of day"]),
        (ImportField.Place, ["locality", "place", "site", "site name", "location", "where", "place name"]),
        (ImportField.PlaceId, ["location id", "place id", "site id"]),
        (ImportField.Compartment, ["verbatim locality", "compartment", "square", "part", "plot", "subsite", "quadrat"]),
        (ImportField.Habitat, ["habitat"]),
        (ImportField.Outline, ["footprint wkt"]),
        (ImportField.Latitude, ["decimal latitude", "latitude", "lat", "y"]),
        (ImportField.Longitude, ["decimal longitude", "longitude", "lon", "long", "lng", "x"]),
        (ImportField.Position, ["position", "coordinates", "verbatim coordinates", "lat lon", "lat long"]),
        (
            ImportField.Uncertainty,
            [
                "coordinate uncertainty in meters",
                "coordinate uncertainty in metres",
                "uncertainty",
                "accuracy",
                "uncertainty m",
                "accuracy m",
                "precision",
            ]
        ),
        (ImportField.PlaceLatitude, ["place latitude"]),
        (ImportField.PlaceLongitude, ["place longitude"]),
        (ImportField.PlaceUncertainty, ["place uncertainty"]),
        (ImportField.Recorder, ["recorded by", "recorder", "recorders", "observer", "observers", "collector", "finder", "who", "seen by"]),
        (ImportField.VisitPeople, ["sampling performed by"]),
        (ImportField.Determiner, ["identified by", "determiner", "det", "determined by", "named by"]),
        (ImportField.DeterminedOn, ["date identified", "det date", "determined on"]),
        (ImportField.NamedBy, ["identification references", "key", "named with"]),
        (ImportField.NamingRemarks, ["identification remarks"]),
        (ImportField.Count, ["individual count", "count", "number", "n", "how many", "individuals"]),
        (ImportField.Quantity, ["organism quantity", "quantity", "amount"]),
        (ImportField.CountUnit, ["organism quantity type", "unit", "counted", "count unit"]),
        (ImportField.Abundance, ["abundance", "dafor", "frequency", "how much"]),
        (ImportField.Phase, ["reproductive condition", "phase", "stage", "phenology", "flowering"]),
        (ImportField.Sex, ["sex"]),
        (
            ImportField.Growth,
            ["degree of establishment", "establishment", "establishment means", "wild or planted", "origin", "status here"]
        ),
        (ImportField.Status, ["occurrence status", "presence", "present or absent"]),
        (ImportField.Associates, ["associated taxa", "associates", "with"]),
        (ImportField.Note, ["occurrence remarks", "remarks", "note", "notes", "comment", "comments", "remark"]),
        (ImportField.VisitNote, ["event remarks", "visit note", "purpose"]),
        (ImportField.Weather, ["reported weather", "weather"]),
        (ImportField.Minutes, ["sampling effort value", "person minutes", "minutes searched"]),
        (ImportField.Completeness, ["taxon completeness reported", "complete", "list complete"]),
        (ImportField.Scope, ["target taxonomic scope", "group listed"]),
        (ImportField.RecordId, ["occurrence id", "record id", "id", "key id"]),
        (ImportField.VisitId, ["event id", "visit id", "visit", "sample id"]),
        (ImportField.PlantId, ["organism id", "plant id"]),
        (ImportField.PlantName, ["organism name", "tag", "plant name"]),
        (ImportField.Properties, ["dynamic properties"]),
    ];

    private static readonly FrozenDictionary<string, ImportField> ByWord = Words
        .SelectMany(f => f.Words.Select(w => KeyValuePair.Create(Plain(w), f.Field)))
        .ToFrozenDictionary(StringComparer.Ordinal);

    /// <summary>What the column of a heading most likely holds; <see cref="ImportField.None"/> where its heading says nothing
    /// known. Case, blanks, hyphens, underscores and a namespace before a colon don't matter.</summary>
    public static ImportField Of(string heading)
    {
        ArgumentNullException.ThrowIfNull(heading);
        return ByWord.GetValueOrDefault(Plain(heading[(heading.LastIndexOf(':') + 1)..]));
    }

    /// <summary>What each column holds: each field once, given to the first column whose heading fits.</summary>
    public static IReadOnlyList<ImportField> Match(IReadOnlyList<string> headings)
    {
        ArgumentNullException.ThrowIfNull(headings);
        var taken = new HashSet<ImportField>();
        return [.. headings.Select(h => Of(h) is var field && field != ImportField.None && taken.Add(field) ? field : ImportField.None)];
    }

    /// <summary>Whether any of some cells is a known heading: a first line without one is a line of data.</summary>
    public static bool IsHeading(IReadOnlyList<string> cells) => Match(cells).Any(f => f != ImportField.None);

    private static string Plain(string heading) => string.Concat(NameFold.Plain(heading).Where(char.IsLetterOrDigit));
}
