using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Imports;

/// <summary>
/// Plans what becomes of a table of records: line by line, without keeping them. Lines of one visit (by its id, else by place, days and
/// people) make up that visit; places are known by id or name, else new.
/// </summary>
/// <param name="reader">Reads its lines.</param>
/// <param name="names">Finds its names.</param>
/// <param name="places">The places that are known.</param>
/// <param name="decisions">What somebody decided.</param>
/// <param name="source">What the table is called: what has no id of its own gets one made of this and its line.</param>
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

    private readonly Dictionary<Guid, KnownPlace> _byId = places
        .SelectMany(p => (p.Merged ?? []).Select(m => (m.Id, p)).Prepend((p.Id, p)))
        .ToDictionary(x => x.Id, x => x.p);
    private readonly ILookup<string, KnownPlace> _byName = places
        .SelectMany(p =>
            new[] { p.Name, p.Locality.Length > 0 ? $"{p.Name}, {p.Locality}" : p.Name }
                .Concat((p.Merged ?? []).Select(m => m.Name))
                .DistinctBy(NameFold.Plain, StringComparer.Ordinal)
                .Select(n => (n, p))
        )
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
