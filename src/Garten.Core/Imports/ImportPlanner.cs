using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Imports;

/// <summary>A place that is known already.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Name">Its name.</param>
/// <param name="Locality">Where it lies, in words; may be empty.</param>
/// <param name="Point">Its point.</param>
/// <param name="Metres">Radius of the circle that holds it, in metres.</param>
public sealed record KnownPlace(Guid Id, string Name, string Locality, GroundPoint Point, double Metres);

/// <summary>What somebody decided of a table.</summary>
/// <param name="PlaceId">The place of lines that name none; null: they aren't taken in.</param>
/// <param name="Recorder">Who recorded the lines that name nobody; empty: they aren't taken in.</param>
/// <param name="Names">By a name as it is written: the taxon that is meant, <c>=</c> for the name as it is written, empty for lines that are
/// left out.</param>
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

/// <summary>
/// Plans what becomes of a table of records: line by line, without keeping them. Lines of one visit (by its id, else by place, days and
/// people) make up that visit; places are known by id or name, else new.
/// </summary>
/// <param name="reader">Reads its lines.</param>
/// <param name="names">Finds its names.</param>
/// <param name="places">The places that are known.</param>
/// <param name="decisions">What somebody decided.</param>
/// <param name="source">What the table is: what has no id of its own gets one made of this and its line.</param>
public sealed class ImportPlanner(
    RecordReader reader,
    NameMatcher names,
    IReadOnlyList<KnownPlace> places,
    ImportDecisions decisions,
    string source
)
{
    // A record so far outside its place has another place, or another position.
    private const double FarMetres = 1_000;

    // As many as a place has at most.
    private const int MostHabitats = 30;

    // Positions that differ by less are the same: a millionth of a degree is a tenth of a metre.
    private const double SameDegrees = 1e-6;

    private readonly Dictionary<Guid, KnownPlace> _byId = places.ToDictionary(p => p.Id);
    private readonly ILookup<string, KnownPlace> _byName = places
        .SelectMany(p => new[] { p.Name, p.Locality.Length > 0 ? $"{p.Name}, {p.Locality}" : p.Name }.Distinct().Select(n => (n, p)))
        .ToLookup(x => NameFold.Plain(x.n), x => x.p, StringComparer.Ordinal);
    private readonly List<PlannedPlace> _places = [];
    private readonly Dictionary<string, PlannedPlace> _placeByName = new(StringComparer.Ordinal);
    private readonly Dictionary<string, PlannedPlace> _placeById = new(StringComparer.Ordinal);
    private readonly Dictionary<VisitKey, PlannedVisit> _visits = [];

    // What makes lines one visit: its id, or place, days, people and time.
    private readonly record struct VisitKey(string Id, PlannedPlace? Place = null, NotebookDay? On = null, string By = "", string At = "");

    private readonly Dictionary<string, (MatchedName Match, int Lines)> _names = new(StringComparer.Ordinal);
    private readonly HashSet<(Guid Visit, ulong Said)> _said = [];
    private readonly HashSet<Guid> _ids = [];
    private ImportTally _tally = new(0, 0, 0, 0, 0, 0, 0, 0);

    /// <summary>The places of the lines so far.</summary>
    public IReadOnlyList<PlannedPlace> Places => _places;

    /// <summary>The visits so far, those that plants alone are of too.</summary>
    public IReadOnlyCollection<PlannedVisit> Visits => _visits.Values;

    /// <summary>The names so far, with the number of their lines.</summary>
    public IEnumerable<(MatchedName Match, int Lines)> Names => _names.Values;

    /// <summary>How much so far.</summary>
    public ImportTally Tally => _tally;

    /// <summary>The first and the last day so far; null before the first line.</summary>
    public (DateOnly From, DateOnly To)? Span { get; private set; }

    /// <summary>Plans a line; null where nothing of it but perhaps its visit is taken in.</summary>
    /// <param name="line">Its number in the file.</param>
    /// <param name="cells">Its cells.</param>
    /// <param name="problems">What is wrong is added here.</param>
    public PlannedLine? Add(int line, IReadOnlyList<string> cells, ICollection<ImportProblem> problems)
    {
        ArgumentNullException.ThrowIfNull(problems);
        _tally = _tally with { Read = _tally.Read + 1 };
        if (reader.Read(line, cells, problems) is not { } record || PlaceOf(record, problems) is not { } place)
        {
            _tally = _tally with { LeftOut = _tally.LeftOut + 1 };
            return null;
        }
        IReadOnlyList<string> people =
            record.Recorders.Count > 0 ? record.Recorders
            : record.Visit is { People.Count: > 0 } said ? said.People
            : decisions.Recorder.Length > 0 ? [decisions.Recorder]
            : [];
        if (people.Count == 0)
        {
            problems.Add(
                new ImportProblem(
                    line,
                    "",
                    "recorder.missing",
                    "Nobody is named who recorded it. Say who recorded the lines without one.",
                    LineFate.LeftOut
                )
            );
            _tally = _tally with { LeftOut = _tally.LeftOut + 1 };
            return null;
        }
        // Of a plant with several names open the line has none of its own.
        var (taxon, unnamed, isTaken) = record.Plant is { Open.Count: > 1 } ? (record.Name, "", true) : NameOf(record.Name);
        if (!isTaken)
        {
            _tally = _tally with { ChosenOut = _tally.ChosenOut + 1 };
            return null;
        }
        var visit = VisitOf(record, place, people);
        Span = Span is not var (from, to)
            ? (record.On.From, record.On.To)
            : (record.On.From < from ? record.On.From : from, record.On.To > to ? record.On.To : to);
        place.Lines++;
        if (record.Name.Length == 0)
        {
            _tally = _tally with { Empty = _tally.Empty + 1 };
            return null;
        }
        var id = record.RecordId.Length > 0 ? IdOf(record.RecordId) : MadeId.Of($"{source}\n{line}");
        if (record.IsAbsent)
        {
            var sought = taxon.Length > 0 ? taxon : unnamed;
            if (!visit.Sought.Exists(s => s.Taxon == sought && s.Area == record.Compartment))
                visit.Sought.Add(
                    new SoughtInVain(sought, record.Compartment, record.Minutes ?? 1, record.Observers ?? 1, record.Details.Note)
                );
            _tally = _tally with { Absent = _tally.Absent + 1 };
            return null;
        }
        var (point, metres) = PointOf(record, place, problems);
        var it = new PlannedLine(record, id, visit, taxon, unnamed, point, metres);
        if (!_ids.Add(id) || (record.Plant is null && !_said.Add((visit.Id, Said(it))) && !decisions.KeepsDoubles))
        {
            _tally = _tally with { Doubles = _tally.Doubles + 1 };
            return null;
        }
        _tally = record.Plant is null ? _tally with { Found = _tally.Found + 1 } : _tally with { Plants = _tally.Plants + 1 };
        return it;
    }

    /// <summary>The id that stands in a text, with or without <c>urn:uuid:</c>; of any other text one that is made of it.</summary>
    public static Guid IdOf(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        const string urn = "urn:uuid:";
        var bare = text.StartsWith(urn, StringComparison.OrdinalIgnoreCase) ? text[urn.Length..] : text;
        return Guid.TryParseExact(bare, "D", out var id) && id != Guid.Empty ? id : MadeId.Of($"import\n{text}");
    }

    /// <summary>The names that are open of a plant, each as the taxon that it stands for.</summary>
    public IReadOnlyList<string> OpenNames(PlannedLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return line.Record.Plant is not { Open: { Count: > 1 } open }
            ? [line.Taxon.Length > 0 ? line.Taxon : line.Unnamed]
            : [.. open.Select(n => names.Match(n) is { Meant.Length: > 0 } match ? match.Meant : n).Distinct(StringComparer.Ordinal)];
    }

    // What a line says, in a number: among a million lines two that say other things have the same one in one of ten million tables.
    private static ulong Said(PlannedLine line)
    {
        // FNV-1a with 64 bits (Fowler, Noll, Vo), over UTF-16.
        const ulong offset = 14_695_981_039_346_656_037;
        const ulong prime = 1_099_511_628_211;
        var hash = offset;
        void Add(ReadOnlySpan<char> text)
        {
            foreach (var c in text)
                hash = (hash ^ c) * prime;
            hash = (hash ^ '\n') * prime;
        }
        Add(line.Taxon);
        Add(line.Unnamed);
        Add(line.Record.Compartment);
        hash = (hash ^ (ulong)BitConverter.DoubleToInt64Bits(line.Point?.Latitude ?? 0)) * prime;
        hash = (hash ^ (ulong)BitConverter.DoubleToInt64Bits(line.Point?.Longitude ?? 0)) * prime;
        Add(line.Record.Details.InWords());
        return hash;
    }

    // Names of places are few; each is folded once.
    private string Folded(string name) => _folded.TryGetValue(name, out var folded) ? folded : _folded[name] = NameFold.Plain(name);

    private readonly Dictionary<string, string> _folded = new(StringComparer.Ordinal);

    private (string Taxon, string Unnamed, bool IsTaken) NameOf(string given)
    {
        if (given.Length == 0)
            return ("", "", true);
        if (!_names.TryGetValue(given, out var known))
            known = (names.Match(given), 0);
        _names[given] = known with { Lines = known.Lines + 1 };
        var match = known.Match;
        if (decisions.Names.TryGetValue(given, out var decided))
            return decided.Length == 0 ? ("", "", false)
                : decided != ImportDecisions.AsWritten ? (decided, "", true)
                : match.Fit == NameFit.Doubtful ? ("", given, true)
                : (match.Fit == NameFit.Unknown && match.Meant.Length > 0 ? match.Meant : given, "", true);
        return match.Fit == NameFit.Several ? ("", "", false)
            : match.Meant.Length > 0 ? (match.Meant, "", true)
            : ("", given, true);
    }

    private PlannedPlace? PlaceOf(ImportedRecord record, ICollection<ImportProblem> problems)
    {
        var given = record.Place.Length > 0 ? record.Place : record.PlaceId;
        if (Seen(record.PlaceId, Folded(given)) is not { } place)
        {
            var known = KnownOf(record, given);
            if (known is null && given.Length == 0)
            {
                problems.Add(
                    new ImportProblem(
                        record.Line,
                        "",
                        "place.missing",
                        "No place stands here. Choose one for the lines without a place.",
                        LineFate.LeftOut
                    )
                );
                return null;
            }
            place = new PlannedPlace(given.Length > 0 ? given : known!.Name)
            {
                Known = known,
                Id = known?.Id ?? (record.PlaceId.Length > 0 ? IdOf(record.PlaceId) : MadeId.Of($"place\n{NameFold.Plain(given)}")),
                HasOwnId = record.PlaceId.Length > 0,
            };
            _places.Add(place);
            _placeByName.TryAdd(NameFold.Plain(given), place);
            if (record.PlaceId.Length > 0)
                _placeById[record.PlaceId] = place;
        }
        if (record.Visit?.PlacePoint is { } point)
            place.Add(point, record.Visit.PlaceMetres);
        else if (record.Point is { } own && place.Known is null)
            place.Add(own, record.UncertaintyMetres);
        if (record.Visit is { } said)
        {
            place.Habitats.AddRange(said.Habitats.Where(h => !place.Habitats.Contains(h) && place.Habitats.Count < MostHabitats));
            if (place.Outline.Count == 0)
                place.Outline = said.Outline;
        }
        return place;
    }

    // Some lines of one place may give its id, others its name alone; two ids of one name are two places.
    private PlannedPlace? Seen(string id, string name)
    {
        if (id.Length == 0)
            return _placeByName.GetValueOrDefault(name);
        if (_placeById.TryGetValue(id, out var place))
            return place;
        if (!_placeByName.TryGetValue(name, out place) || place.HasOwnId)
            return null;
        (place.HasOwnId, _placeById[id]) = (true, place);
        if (place.Known is null)
            place.Id = IdOf(id);
        return place;
    }

    private KnownPlace? KnownOf(ImportedRecord record, string given)
    {
        if (decisions.Places.TryGetValue(given, out var chosen) && _byId.TryGetValue(chosen, out var decided))
            return decided;
        if (record.PlaceId.Length > 0 && _byId.TryGetValue(IdOf(record.PlaceId), out var byId))
            return byId;
        if (given.Length == 0)
            return decisions.PlaceId is { } usual ? _byId.GetValueOrDefault(usual) : null;
        // Of several places of one name none is taken by itself.
        var fits = _byName[NameFold.Plain(given)].Take(2).ToList();
        return fits.Count == 1 ? fits[0] : null;
    }

    private PlannedVisit VisitOf(ImportedRecord record, PlannedPlace place, IReadOnlyList<string> people)
    {
        var by = people.Count == 1 ? people[0] : string.Join('|', people);
        var key = record.VisitId.Length > 0 ? new VisitKey(record.VisitId) : new VisitKey("", place, record.On, by, record.StartedAt);
        if (!_visits.TryGetValue(key, out var visit))
            _visits[key] = visit = new PlannedVisit(
                record.VisitId.Length > 0
                    ? IdOf(record.VisitId)
                    : MadeId.Of(
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"visit\n{Folded(place.Given)}\n{record.On.From:O}\n{record.On.To:O}\n{by}\n{record.StartedAt}"
                        )
                    ),
                place,
                record.On
            );
        // An event that was made for one plant alone, as our own archive does it, is none.
        visit.IsVisit |=
            record.Plant is null || (record.VisitId.Length > 0 && !record.VisitId.EndsWith("#event", StringComparison.Ordinal));
        if (visit.StartedAt.Length == 0)
            visit.StartedAt = record.StartedAt;
        if (visit.EndedAt.Length == 0)
            visit.EndedAt = record.EndedAt;
        visit.Said ??= record.Visit;
        foreach (var person in visit.Said is { People.Count: > 0 } said ? said.People : people)
        {
            if (!visit.People.Contains(person))
                visit.People.Add(person);
        }
        return visit;
    }

    // A position that is just the place's says nothing of the find; one far outside it belongs to something else.
    private static (GroundPoint? Point, double? Metres) PointOf(
        ImportedRecord record,
        PlannedPlace place,
        ICollection<ImportProblem> problems
    )
    {
        if (record.Point is not { } point)
            return (null, null);
        if (place.Known is not { } known)
            return (point, record.UncertaintyMetres ?? place.Metres);
        if (
            Math.Abs(point.Latitude - known.Point.Latitude) < SameDegrees
            && Math.Abs(point.Longitude - known.Point.Longitude) < SameDegrees
        )
            return (null, null);
        var away = Ring.Metres(known.Point, point) - known.Metres - (record.UncertaintyMetres ?? 0);
        if (away <= FarMetres)
            return (point, record.UncertaintyMetres ?? known.Metres);
        problems.Add(
            new ImportProblem(
                record.Line,
                "",
                "position.far",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Its position lies {away / 1000:0.#} km outside {known.Name}. It is taken in at the place, without the position."
                ),
                LineFate.TakenWithout
            )
        );
        return (null, null);
    }
}
