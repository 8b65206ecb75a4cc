using System.Globalization;
using Garten.Core.Grounds;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Imports;

/// <summary>A place that is known already.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Name">Its name.</param>
/// <param name="Locality">Where it lies, in words; may be empty.</param>
/// <param name="Point">Its point.</param>
/// <param name="Metres">Radius of the circle that holds it, in metres.</param>
/// <param name="Merged">The places that were merged into it: their ids and names mean it too; null where there are none.</param>
public sealed record KnownPlace(
    Guid Id,
    string Name,
    string Locality,
    GroundPoint Point,
    double Metres,
    IReadOnlyList<(Guid Id, string Name)>? Merged = null
);

/// <summary>What somebody decided of a table.</summary>
/// <param name="PlaceId">The place of lines that name none; null: they aren't taken in.</param>
/// <param name="Recorder">Who recorded the lines that name nobody; empty: they aren't taken in.</param>
/// <param name="Names">By a name as it is written: the taxon that is meant, <c>=</c> for the name as it is written, empty for lines that
/// are left out.</param>
/// <param name="Places">By a place as it is written: the known place that is meant; a place that isn't among them and isn't known by its
/// name or id is a new one.</param>
/// <param name="KeepsDoubles">Whether lines that say what another one says already are taken in all the same.</param>
public sealed record ImportDecisions(
    Guid? PlaceId,
    string Recorder,
    IReadOnlyDictionary<string, string> Names,
    IReadOnlyDictionary<string, Guid> Places,
    bool KeepsDoubles
)
{
    /// <summary>The name as it is written.</summary>
    public const string AsWritten = "=";

    /// <summary>Nothing decided.</summary>
    public static ImportDecisions None { get; } =
        new(null, "", new Dictionary<string, string>(), new Dictionary<string, Guid>(), KeepsDoubles: false);
}

/// <summary>A place of a table.</summary>
/// <param name="Given">As it is written.</param>
public sealed class PlannedPlace(string Given)
{
    private double _south = double.MaxValue,
        _west = double.MaxValue,
        _north = double.MinValue,
        _east = double.MinValue,
        _metres;

    // A point that nobody said how good it is: as good as one read off a map.
    private const double UsualMetres = 100;

    /// <summary>As it is written.</summary>
    public string Given { get; } = Given;

    /// <summary>The id that it gets, or has.</summary>
    public Guid Id { get; internal set; }

    /// <summary>Whether the table gives its id; else it is made of its name.</summary>
    internal bool HasOwnId { get; set; }

    /// <summary>The known place that it is; null for a new one.</summary>
    public KnownPlace? Known { get; init; }

    /// <summary>Habitats that were said of it.</summary>
    public List<string> Habitats { get; } = [];

    /// <summary>Its boundary, where the table gives one; empty else.</summary>
    public IReadOnlyList<GroundPoint> Outline { get; internal set; } = [];

    /// <summary>How many lines are of it.</summary>
    public int Lines { get; internal set; }

    /// <summary>Whether there is any position to put a new place at.</summary>
    public bool HasPosition => Known is not null || _south <= _north;

    /// <summary>The point of the place: of a new one the middle of all its positions.</summary>
    public GroundPoint Point => Known?.Point ?? new GroundPoint(Middle(_south, _north), Middle(_west, _east));

    // A single position stays as it is to the last digit.
    private static double Middle(double from, double to) => from == to ? from : (from + to) / 2;

    /// <summary>Radius in metres of the circle that holds it: of a new one all its positions.</summary>
    public double Metres =>
        Known?.Metres
        ?? (
            _south == _north && _west == _east
                ? _metres
                : Ring.Metres(new GroundPoint(_south, _west), new GroundPoint(_north, _east)) / 2 + _metres
        );

    internal void Add(GroundPoint point, double? metres)
    {
        (_south, _north) = (Math.Min(_south, point.Latitude), Math.Max(_north, point.Latitude));
        (_west, _east) = (Math.Min(_west, point.Longitude), Math.Max(_east, point.Longitude));
        _metres = Math.Max(_metres, metres ?? UsualMetres);
    }
}

/// <summary>A visit that lines of a table make up.</summary>
/// <param name="Id">Its identity: its own where the table gives one, else made of place, days and people.</param>
/// <param name="Place">Where.</param>
/// <param name="On">When.</param>
public sealed record PlannedVisit(Guid Id, PlannedPlace Place, NotebookDay On)
{
    /// <summary>Whether a list, something sought in vain, or what was said of it makes it a visit: plants alone don't.</summary>
    public bool IsVisit { get; internal set; }

    /// <summary>When it began, <c>HH:mm</c>; empty where not said.</summary>
    public string StartedAt { get; internal set; } = "";

    /// <summary>When it ended.</summary>
    public string EndedAt { get; internal set; } = "";

    /// <summary>Who was there, each once, the first one first.</summary>
    public List<string> People { get; } = [];

    /// <summary>What was looked for in vain.</summary>
    public List<SoughtInVain> Sought { get; } = [];

    /// <summary>What was said of it; null where nothing was.</summary>
    public ImportedVisit? Said { get; internal set; }

    /// <summary>Pauses by which the minutes of searching are those that are said: their times aren't known, they are put at the
    /// end.</summary>
    public IReadOnlyList<VisitPause> Pauses()
    {
        if (
            Said?.PersonMinutes is not { } minutes
            || VisitEffort.Minute(StartedAt) is not { } start
            || VisitEffort.Minute(EndedAt) is not { } end
        )
            return [];
        var paused = end - start - minutes / Math.Max(1, People.Count);
        return paused > 0 && paused <= end - start ? [new VisitPause(Clock(end - paused), EndedAt)] : [];
    }

    /// <summary>What for, and what was noted at its end: an archive tells purpose, weather and note in one text.</summary>
    public (string Purpose, string Note) Told()
    {
        if (Said is not { } said)
            return ("", "");
        var at = said.Weather.Length > 0 ? said.Note.IndexOf(said.Weather, StringComparison.Ordinal) : -1;
        return at < 0 ? (said.Note, "") : (said.Note[..at].TrimEnd('.', ' '), said.Note[(at + said.Weather.Length)..].TrimStart('.', ' '));
    }

    private static string Clock(int minute) => string.Create(CultureInfo.InvariantCulture, $"{minute / 60:00}:{minute % 60:00}");

    /// <summary>What was said at its end; null where it wasn't closed and nothing was sought in vain.</summary>
    public VisitClosing? Closing() =>
        Said?.Completeness is null && EndedAt.Length == 0 && Sought.Count == 0
            ? null
            : new VisitClosing(EndedAt, Said?.Completeness ?? Completeness.Unsaid, Said?.Scope ?? "", "", Sought, [], Told().Note);
}

/// <summary>What becomes of a line.</summary>
/// <param name="Record">The line as read.</param>
/// <param name="Id">Identity of what it becomes.</param>
/// <param name="Visit">Its visit.</param>
/// <param name="Taxon">The name that it is taken in under; empty for none.</param>
/// <param name="Unnamed">What it is called without one; empty else.</param>
/// <param name="Point">Where it was seen; null where only the place is known.</param>
/// <param name="Metres">Radius of the circle that holds it, in metres; null with the point.</param>
public sealed record PlannedLine(
    ImportedRecord Record,
    Guid Id,
    PlannedVisit Visit,
    string Taxon,
    string Unnamed,
    GroundPoint? Point,
    double? Metres
);

/// <summary>How much of a table is taken in.</summary>
/// <param name="Read">Lines read.</param>
/// <param name="Found">Lines of lists.</param>
/// <param name="Plants">Looks at single plants.</param>
/// <param name="Absent">Looked for in vain.</param>
/// <param name="Empty">Visits without a find.</param>
/// <param name="LeftOut">Lines that something is wrong with.</param>
/// <param name="ChosenOut">Lines whose name somebody left out, or has to choose yet.</param>
/// <param name="Doubles">Lines that say what another line of the table says already.</param>
public sealed record ImportTally(int Read, int Found, int Plants, int Absent, int Empty, int LeftOut, int ChosenOut, int Doubles);
