using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Garten.Core.Evidence;
using Garten.Core.Grounds;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Imports;

/// <summary>What holds for lines that say nothing of it themselves.</summary>
/// <param name="Order">Which comes first in dates of numbers.</param>
/// <param name="Date">The day of lines without one; empty: they aren't taken in.</param>
/// <param name="Latest">The latest day that isn't in the future.</param>
public sealed record ImportDefaults(DayOrder Order, string Date, DateOnly Latest);

/// <summary>Reads the lines of a table of records.</summary>
/// <param name="fields">What each column holds.</param>
/// <param name="headings">Their headings, for what is said of them.</param>
/// <param name="defaults">What holds for lines that say nothing of it.</param>
public sealed partial class RecordReader(IReadOnlyList<ImportField> fields, IReadOnlyList<string> headings, ImportDefaults defaults)
{
    /// <summary>Characters of a name, a place, a part of a place.</summary>
    public const int LongestName = 200;

    /// <summary>Characters of a note.</summary>
    public const int LongestNote = 10_000;

    /// <summary>Characters of what is said of a visit.</summary>
    public const int LongestFinding = 2_000;

    private const string AllPlants = "Plantae";
    private const int MostPeople = 50;
    private const double LargestCircleMetres = 20_037_509;

    private readonly Dictionary<ImportField, int> _columns = fields
        .Select((field, at) => (field, at))
        .Where(x => x.field != ImportField.None)
        .GroupBy(x => x.field)
        .ToDictionary(g => g.Key, g => g.First().at);

    // What stands in many lines alike is read once; no more of it is kept than of a table of a usual size.
    private const int MostKept = 20_000;
    private readonly Dictionary<string, (DayReading Reading, NotebookDay? Day)> _days = new(StringComparer.Ordinal);
    private readonly Dictionary<string, IReadOnlyList<string>> _people = new(StringComparer.Ordinal);

    private static readonly ImportField[] OfVisits =
    [
        ImportField.VisitNote,
        ImportField.Weather,
        ImportField.Minutes,
        ImportField.Completeness,
        ImportField.Scope,
        ImportField.PlaceLatitude,
        ImportField.PlaceLongitude,
        ImportField.PlaceUncertainty,
        ImportField.Habitat,
        ImportField.Outline,
        ImportField.VisitPeople,
    ];

    private bool TellsVisits { get; } = fields.Any(OfVisits.Contains);

    private (DayReading Reading, NotebookDay? Day) DayOf(string text)
    {
        if (_days.TryGetValue(text, out var known))
            return known;
        var read = NotebookDay.Read(text, defaults.Order);
        if (_days.Count < MostKept)
            _days[text] = read;
        return read;
    }

    /// <summary>Whether a column holds a field.</summary>
    public bool Has(ImportField field) => _columns.ContainsKey(field);

    /// <summary>The cell of a field; empty where no column holds it.</summary>
    public string Cell(IReadOnlyList<string> cells, ImportField field)
    {
        ArgumentNullException.ThrowIfNull(cells);
        return _columns.TryGetValue(field, out var at) && at < cells.Count ? cells[at].Trim() : "";
    }

    /// <summary>Reads a line; null where it isn't taken in.</summary>
    /// <param name="line">Its number in the file.</param>
    /// <param name="cells">Its cells.</param>
    /// <param name="problems">What is wrong with it is added here.</param>
    public ImportedRecord? Read(int line, IReadOnlyList<string> cells, ICollection<ImportProblem> problems)
    {
        ArgumentNullException.ThrowIfNull(cells);
        ArgumentNullException.ThrowIfNull(problems);
        var it = new Line(this, line, cells, problems);
        var name = it.Name();
        var visitId = it.Text(ImportField.VisitId, LongestName);
        // An archive has visits on which nothing was found; any other line without a name is none.
        if (name.Length == 0 && visitId.Length == 0)
            it.Wrong(ImportField.Taxon, "name.missing", "No taxon stands here.");
        var on = it.When();
        var isAbsent = it.IsAbsent();
        var details = it.Details();
        var (startedAt, endedAt) = it.Times();
        var properties = it.Properties();
        var (minutes, observers) = (Whole(properties, "minutes"), Whole(properties, "observers"));
        if (isAbsent && (minutes is null || observers is null))
            it.Wrong(
                ImportField.Status,
                "absence.effort",
                "It was looked for in vain, but not how long and by how many: that it wasn’t found says nothing. It isn’t taken in."
            );
        var point = it.Position(ImportField.Latitude, ImportField.Longitude, ImportField.Position);
        var uncertainty = it.Metres(ImportField.Uncertainty);
        var recorders = it.People(ImportField.Recorder);
        var record =
            on is null || it.IsLeftOut
                ? null
                : new ImportedRecord(
                    line,
                    name,
                    on,
                    startedAt,
                    endedAt,
                    it.Text(ImportField.Place, LongestName),
                    it.Text(ImportField.PlaceId, LongestName),
                    it.Text(ImportField.Compartment, LongestName),
                    point,
                    uncertainty,
                    recorders,
                    details with
                    {
                        Growth = details.Growth ?? GrowthOf(Said(properties, "growth")),
                        GrowthReason = Said(properties, "growthReason"),
                        Typist = Said(properties, "typist"),
                    },
                    Said(properties, "at"),
                    isAbsent,
                    minutes,
                    observers,
                    it.Text(ImportField.RecordId, LongestName),
                    visitId
                )
                {
                    Visit = it.Visit(),
                    Plant = it.Plant(),
                };
        return it.IsLeftOut ? null : record;
    }

    private static int? Whole(JsonElement properties, string name) =>
        properties.ValueKind == JsonValueKind.Object
        && properties.TryGetProperty(name, out var value)
        && value.ValueKind == JsonValueKind.Number
        && value.TryGetInt32(out var number)
        && number > 0
            ? number
            : null;

    private static string Said(JsonElement properties, string name) =>
        properties.ValueKind == JsonValueKind.Object
        && properties.TryGetProperty(name, out var value)
        && value.ValueKind == JsonValueKind.String
            ? value.GetString() ?? ""
            : "";

    private static WildOrPlanted? GrowthOf(string text) =>
        text.ToLowerInvariant() switch
        {
            "wild" => WildOrPlanted.Wild,
            "planted" or "cultivated" or "sown" => WildOrPlanted.Planted,
            "escaped" or "escape" => WildOrPlanted.Escaped,
            "unsure" or "wild or planted, unsure" => WildOrPlanted.Unsure,
            _ => null,
        };

    [GeneratedRegex(@"^\s*POLYGON\s*\(\s*\((?<ring>[^()]+)\)\s*\)\s*$", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex Polygon();

    private IReadOnlyList<string> Headings => headings;

    private ImportDefaults Defaults => defaults;
}
