using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Identification;
using Garten.Core.Seasons;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>Begins a visit to a place, or changes what is said of one: who is there, since when, what for.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="SiteVisitId">Identity of the visit, made by the device; one that is known is changed.</param>
/// <param name="PlaceId">Where.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>; not in the future.</param>
/// <param name="StartedAt">When it began, <c>HH:mm</c> of that place; empty where nobody looked at the clock.</param>
/// <param name="People">Who is there; the first one leads. At least one.</param>
/// <param name="Purpose">What for; may be empty.</param>
/// <param name="Weather">The weather; may be empty.</param>
/// <param name="Pauses">When nobody searched; null for none.</param>
/// <param name="Safety">Who expects them back, and when; null where nothing is agreed.</param>
/// <param name="Version">Of a known visit: the version that is changed.</param>
/// <param name="Until">Of a visit of which no single day is known: the last day on which it can have been; empty for one day.</param>
/// <param name="Planned">What it was planned for; null leaves what was said before.</param>
public sealed record SaveSiteVisitCommand(
    Guid Id,
    Guid SiteVisitId,
    Guid PlaceId,
    string Date,
    string StartedAt,
    IReadOnlyList<PersonReference> People,
    string Purpose = "",
    string Weather = "",
    IReadOnlyList<VisitPause>? Pauses = null,
    SafetyPlan? Safety = null,
    int? Version = null,
    string Until = "",
    IReadOnlyList<PlannedQuestion>? Planned = null
) : Command(Id), IAtPlace
{
    /// <inheritdoc />
    public IEnumerable<Guid> PlacesNamed() => [PlaceId];

    /// <inheritdoc />
    public Command At(Func<Guid, Guid> now)
    {
        ArgumentNullException.ThrowIfNull(now);
        return this with { PlaceId = now(PlaceId) };
    }
}

/// <summary>Something that a planned visit is to answer.</summary>
/// <param name="Id">The open question (<see cref="OpenQuestion.Id"/>).</param>
/// <param name="SubjectId">The plant or the population that it is of.</param>
/// <param name="IsOfPopulation">Whether that is a population.</param>
/// <param name="Called">The plant's or population's name.</param>
/// <param name="Text">What is to be seen.</param>
public sealed record PlannedQuestion(string Id, Guid SubjectId, bool IsOfPopulation, string Called, string Text);

/// <summary>Who expects the visitors back, and when. The program calls nobody.</summary>
/// <param name="Contact">Who, and how they are reached.</param>
/// <param name="BackBy">By when, <c>HH:mm</c>.</param>
public sealed record SafetyPlan(string Contact, string BackBy);

/// <summary>Adds a line to the list of a visit: a taxon that was found.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="LineId">Identity of the line.</param>
/// <param name="SiteVisitId">The visit.</param>
/// <param name="Taxon">Scientific name; empty where the plant has none yet.</param>
/// <param name="Recorder">Who found it.</param>
/// <param name="Unnamed">Without a name: what it is called until it has one ("unnamed 3"); empty else.</param>
/// <param name="PlantId">The plant that stands for it: its name is the line's; null for none.</param>
/// <param name="Compartment">The part of the place; empty for the place as a whole.</param>
/// <param name="At">The time, <c>HH:mm</c>; empty where not taken.</param>
/// <param name="Details">What else was noted; null for nothing.</param>
/// <param name="Site">Where it was seen; null where only the visit's place is known.</param>
/// <param name="Supersedes">The line of the same visit that this one corrects; null for none.</param>
public sealed record ListTaxonCommand(
    Guid Id,
    Guid LineId,
    Guid SiteVisitId,
    string Taxon,
    PersonReference Recorder,
    string Unnamed = "",
    Guid? PlantId = null,
    string Compartment = "",
    string At = "",
    LineDetails? Details = null,
    PlantSite? Site = null,
    Guid? Supersedes = null
) : Command(Id);

/// <summary>Takes a line back that was a slip. It stays among the facts, and leaves list, map and exports.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="SiteVisitId">The visit.</param>
/// <param name="LineId">The line.</param>
public sealed record WithdrawLineCommand(Guid Id, Guid SiteVisitId, Guid LineId) : Command(Id);

/// <summary>Says what is to be said at the end of a visit. Said again, the newest holds; the earlier ones are kept.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="SiteVisitId">The visit.</param>
/// <param name="Closing">What is said.</param>
public sealed record CloseSiteVisitCommand(Guid Id, Guid SiteVisitId, VisitClosing Closing) : Command(Id);

/// <summary>A visit to a place, with its list.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Place">Where.</param>
/// <param name="Date">The day.</param>
/// <param name="StartedAt">When it began, <c>HH:mm</c>; empty where unknown.</param>
/// <param name="People">Who was there; the first one led.</param>
/// <param name="Purpose">What for.</param>
/// <param name="Weather">The weather.</param>
/// <param name="Pauses">When nobody searched.</param>
/// <param name="Safety">Who expects them back; null where nothing was agreed.</param>
/// <param name="Version">Version of all of the above.</param>
/// <param name="Lines">Its list, in the order in which it was noted, superseded and withdrawn lines too.</param>
/// <param name="Closing">What was said at its end; null while it is open.</param>
/// <param name="Sensitive">Names on it whose places are kept back in whatever leaves the program.</param>
/// <param name="Until">The last day on which it can have been, where no single day is known; null for one day.</param>
/// <param name="Tracks">The pieces of its tracks; null where they weren't asked for.</param>
/// <param name="Planned">What it was planned for; null for nothing.</param>
public sealed record SiteVisit(
    Guid Id,
    Place Place,
    DateOnly Date,
    string StartedAt,
    IReadOnlyList<PersonReference> People,
    string Purpose,
    string Weather,
    IReadOnlyList<VisitPause> Pauses,
    SafetyPlan? Safety,
    int Version,
    IReadOnlyList<ListLine> Lines,
    VisitClosing? Closing,
    IReadOnlyList<string>? Sensitive = null,
    DateOnly? Until = null,
    IReadOnlyList<TrackPiece>? Tracks = null,
    IReadOnlyList<PlannedQuestion>? Planned = null
)
{
    /// <summary>Its records: each taxon once in each part of the place, whoever noted it.</summary>
    public IReadOnlyList<ListedTaxon> Records => ListedTaxon.Of(Lines);

    /// <summary>How long was searched.</summary>
    public VisitEffort Effort => VisitEffort.Of(StartedAt, Closing?.EndedAt ?? "", Pauses, Math.Max(1, People.Count));

    /// <summary>That in words; empty while it isn't known.</summary>
    public string EffortInWords => Effort.InWords();

    /// <summary>It in short.</summary>
    public SiteVisitSummary Summary() =>
        new(
            Id,
            Place.Id,
            Place.Name,
            Date,
            StartedAt,
            [.. People.Select(p => p.Name)],
            Purpose,
            Records.Select(r => r.Called).Distinct(StringComparer.Ordinal).Count(),
            Closing?.Sought.Count ?? 0,
            Records.Count(r => r.Lines[0].Name.Length == 0),
            Effort.PersonMinutes,
            Closing is not null,
            Safety,
            Until
        );
}

/// <summary>A visit as a list shows it.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="PlaceId">Where.</param>
/// <param name="PlaceName">Name of that place.</param>
/// <param name="Date">The day.</param>
/// <param name="StartedAt">When it began; empty where unknown.</param>
/// <param name="People">Who was there.</param>
/// <param name="Purpose">What for.</param>
/// <param name="Taxa">How many taxa are on its list.</param>
/// <param name="Sought">How many were looked for in vain.</param>
/// <param name="Unnamed">How many plants on it have no name yet.</param>
/// <param name="PersonMinutes">Minutes of searching, added up over the people; null where unknown.</param>
/// <param name="IsClosed">Whether its end was said.</param>
/// <param name="Safety">Who expects them back; null where nothing was agreed.</param>
/// <param name="Until">The last day on which it can have been, where no single day is known; null for one day.</param>
public sealed record SiteVisitSummary(
    Guid Id,
    Guid PlaceId,
    string PlaceName,
    DateOnly Date,
    string StartedAt,
    IReadOnlyList<string> People,
    string Purpose,
    int Taxa,
    int Sought,
    int Unnamed,
    int? PersonMinutes,
    bool IsClosed,
    SafetyPlan? Safety = null,
    DateOnly? Until = null
);

/// <summary>A visit with what waits.</summary>
/// <param name="Id">The visit.</param>
/// <param name="Visit">What the server answered last; null where it doesn't know it.</param>
/// <param name="Waiting">What waits.</param>
public sealed record SiteVisitDocument(Guid Id, SiteVisit? Visit, Waiting Waiting)
{
    /// <summary>The visit as it is on the device; none where nothing makes it.</summary>
    public IReadOnlyList<SiteVisit> Tell() =>
        Waiting.Read().Aggregate(Visit, (visit, command) => SiteVisitDocuments.Apply(Id, visit, command, Waiting.AllPlaces())) is { } told
            ? [told]
            : [];
}

/// <summary>The list of visits with what waits.</summary>
/// <param name="Visits">What the server answered last.</param>
/// <param name="Known">Visits that are known as a whole: those of the list to which waiting commands add something.</param>
/// <param name="Waiting">What waits.</param>
public sealed record SiteVisitsDocument(IReadOnlyList<SiteVisitSummary> Visits, IReadOnlyList<SiteVisit> Known, Waiting Waiting)
{
    /// <summary>The visits as they are on the device, newest first. A visit that isn't known as a whole keeps the line that the server gave
    /// it.</summary>
    public IReadOnlyList<SiteVisitSummary> Tell()
    {
        var commands = Waiting.Read();
        var places = Waiting.AllPlaces();
        var known = (Known ?? []).ToDictionary(v => v.Id);
        var named = commands.OfType<RecordDeterminationCommand>().Select(c => c.PlantId).ToHashSet();
        var touched = commands
            .Select(SiteVisitDocuments.VisitOf)
            .OfType<Guid>()
            .Concat(known.Values.Where(v => v.Lines.Any(l => l.PlantId is { } plant && named.Contains(plant))).Select(v => v.Id))
            .Distinct();
        var lines = Visits.ToDictionary(v => v.Id);
        foreach (var id in touched)
        {
            if (lines.ContainsKey(id) && !known.ContainsKey(id))
                continue;
            var visit = commands.Aggregate(known.GetValueOrDefault(id), (it, c) => SiteVisitDocuments.Apply(id, it, c, places));
            if (visit is not null)
                lines[id] = visit.Summary();
        }
        // Of a visit that isn't known as a whole its line has the place's name.
        foreach (var changed in commands.Select(SiteVisitDocuments.PlaceChanged).OfType<(Guid Id, Guid Now)>())
        {
            var place = places.Standing(changed.Now);
            foreach (var line in lines.Values.Where(l => place is not null && l.PlaceId == changed.Id).ToList())
                lines[line.Id] = line with { PlaceId = place!.Id, PlaceName = place.Name };
        }
        return
        [
            .. lines
                .Values.OrderByDescending(v => v.Date)
                .ThenByDescending(v => v.StartedAt, StringComparer.Ordinal)
                .ThenByDescending(v => v.Id),
        ];
    }
}

/// <summary>What commands do to visits: on a device over what waits, as the server does with its facts.</summary>
public static class SiteVisitDocuments
{
    /// <summary>The visit that a command is about; null for another command.</summary>
    public static Guid? VisitOf(Command command) =>
        command switch
        {
            SaveSiteVisitCommand it => it.SiteVisitId,
            ListTaxonCommand it => it.SiteVisitId,
            WithdrawLineCommand it => it.SiteVisitId,
            CloseSiteVisitCommand it => it.SiteVisitId,
            KeepTrackCommand it => it.SiteVisitId,
            WithdrawTrackCommand it => it.SiteVisitId,
            _ => null,
        };

    /// <summary>A visit after a command; null before anything is known of it. What was done already changes nothing.</summary>
    /// <param name="id">The visit.</param>
    /// <param name="visit">What is known of it.</param>
    /// <param name="command">What was done.</param>
    /// <param name="places">The places.</param>
    public static SiteVisit? Apply(Guid id, SiteVisit? visit, Command command, IReadOnlyList<Place> places)
    {
        ArgumentNullException.ThrowIfNull(places);
        return command switch
        {
            SaveSiteVisitCommand it when it.SiteVisitId == id => Saved(visit, it, places),
            ListTaxonCommand it when it.SiteVisitId == id && visit is not null => visit.Lines.Any(l => l.Id == it.LineId)
                ? visit
                : visit with
                {
                    Lines = [.. visit.Lines, LineOf(it)],
                },
            WithdrawLineCommand it when it.SiteVisitId == id && visit is not null => visit with
            {
                Lines = [.. visit.Lines.Select(l => l.Id == it.LineId ? l with { IsWithdrawn = true } : l)],
            },
            CloseSiteVisitCommand it when it.SiteVisitId == id && visit is not null => visit with { Closing = it.Closing },
            KeepTrackCommand it when it.SiteVisitId == id && visit is not null => (visit.Tracks ?? []).Any(t => t.Id == it.Id)
                ? visit
                : visit with
                {
                    Tracks = [.. visit.Tracks ?? [], PieceOf(it)],
                },
            WithdrawTrackCommand it when it.SiteVisitId == id && visit is not null => WithoutTrack(visit, it.TrackId),
            // A plant that was named names its lines everywhere.
            RecordDeterminationCommand { Names: [var one] } it when visit is not null => visit with
            {
                Lines = [.. visit.Lines.Select(l => l.PlantId == it.PlantId ? l with { Name = one } : l)],
            },
            EraseCommand it when visit?.People.FirstOrDefault(p => p.Id == it.SubjectId) is { } person => visit with
            {
                People = [.. visit.People.Select(p => p == person ? person with { Name = Documents.ErasedName } : p)],
                Lines = [.. visit.Lines.Select(l => Without(l, person.Name))],
                Tracks = visit.Tracks is { } tracks
                    ? [.. tracks.Select(t => t.Recorder == person.Name ? t with { Recorder = Documents.ErasedName } : t)]
                    : null,
            },
            EraseCommand it when visit?.Lines.Any(l => l.Id == it.SubjectId || l.PlantId == it.SubjectId) == true => WithoutSubject(
                visit,
                it.SubjectId
            ),
            EraseCommand it when visit?.Planned?.Any(q => q.SubjectId == it.SubjectId) == true => WithoutSubject(visit, it.SubjectId),
            EraseCommand it when visit?.Tracks?.Any(t => t.TrackId == it.SubjectId) == true => WithoutTrack(visit, it.SubjectId),
            SavePlaceCommand { Version: not null }
            or MergePlaceCommand { IntoId: not null }
                when PlaceChanged(command) is var (of, now) && visit?.Place.Id == of && places.Standing(now) is { } place => visit with
            {
                Place = place,
            },
            _ => visit,
        };
    }

    private static ListLine Without(ListLine line, string person) =>
        line with
        {
            Recorder = line.Recorder == person ? Documents.ErasedName : line.Recorder,
            Details = line.Details with
            {
                Determiner = line.Details.Determiner == person ? "" : line.Details.Determiner,
                Typist = line.Details.Typist == person ? "" : line.Details.Typist,
            },
        };

    // What was erased: a line, or a plant with the lines and questions of it.
    private static SiteVisit WithoutSubject(SiteVisit visit, Guid subject) =>
        visit with
        {
            Lines = [.. visit.Lines.Where(l => l.Id != subject && l.PlantId != subject)],
            Planned = visit.Planned?.Where(q => q.SubjectId != subject).ToList() is { Count: > 0 } left ? left : null,
        };

    private static SiteVisit WithoutTrack(SiteVisit visit, Guid track) =>
        visit with
        {
            Tracks = [.. (visit.Tracks ?? []).Where(t => t.TrackId != track)],
        };

    /// <summary>The piece of a track that a command adds.</summary>
    public static TrackPiece PieceOf(KeepTrackCommand it)
    {
        ArgumentNullException.ThrowIfNull(it);
        return new(it.Id, it.TrackId, it.Recorder.Name, it.StartedAt, it.Source, it.Points, it.File);
    }

    /// <summary>The line that a command adds.</summary>
    public static ListLine LineOf(ListTaxonCommand it)
    {
        ArgumentNullException.ThrowIfNull(it);
        return new(
            it.LineId,
            it.Taxon,
            it.Unnamed,
            it.PlantId,
            it.Compartment,
            it.Recorder.Name,
            it.At,
            it.Details ?? LineDetails.None,
            it.Site?.Latitude,
            it.Site?.Longitude,
            it.Site?.UncertaintyMetres,
            it.Supersedes
        );
    }

    // The place that a command changes, and the one that stands in its stead; null for any other command.
    internal static (Guid Id, Guid Now)? PlaceChanged(Command command) =>
        command switch
        {
            SavePlaceCommand { Version: not null } it => (it.PlaceId, it.PlaceId),
            MergePlaceCommand { IntoId: { } into } it => (it.PlaceId, into),
            _ => null,
        };

    private static SiteVisit? Saved(SiteVisit? visit, SaveSiteVisitCommand it, IReadOnlyList<Place> places)
    {
        if (!DayText.TryRead(it.Date, out var day) || places.Standing(it.PlaceId) is not { } place)
            return visit;
        // A command of an earlier version has been carried out already.
        if (visit is not null && it.Version != visit.Version)
            return visit;
        if (visit is null && it.Version is not null)
            return null;
        return new SiteVisit(
            it.SiteVisitId,
            place,
            day,
            it.StartedAt,
            it.People,
            it.Purpose,
            it.Weather,
            it.Pauses ?? [],
            it.Safety,
            visit is null ? 1 : visit.Version + 1,
            visit?.Lines ?? [],
            visit?.Closing,
            visit?.Sensitive ?? [],
            DayText.TryRead(it.Until, out var until) && until > day ? until : null,
            visit is null ? [] : visit.Tracks,
            it.Planned ?? visit?.Planned
        );
    }
}

/// <summary>Taxa that fit a few typed letters, with what may be typed behind them: "ve al", "veal f", "veal lf", "veal 12".</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Typed">What was typed.</param>
/// <param name="Most">How many are told at most.</param>
public sealed record ShortNameRequest(string FloraId, string Typed, int Most = 8) : IFloraRequest
{
    /// <summary>More than this many nobody reads.</summary>
    public const int LargestMost = 50;

    internal const int LongestTyped = 200;

    // The letters by which the five words of abundance are noted.
    private static readonly Dictionary<string, Abundance> Letters = Enum.GetValues<Abundance>()
        .ToDictionary(a => SiteVisitWords.Of(a)[..1], StringComparer.Ordinal);

    /// <summary>Finds them. One alone is meant where it fits as a whole and no other does; else nothing is taken. What is typed behind a
    /// name counts as its abundance or count only where it can't be a part of the name.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public ShortNameAnswer Find(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        if (Most is < 1 or > LargestMost)
            throw new RequestException("most", $"Between 1 and {LargestMost} are told.");
        if (Typed is null || Typed.Length > LongestTyped)
            throw new RequestException("typed", $"A name has up to {LongestTyped} characters.");
        var found = flora.ShortNames.Find(Typed, Most);
        var (abundance, isLocal, count) = ((Abundance?)null, false, (int?)null);
        if (found.Count == 0 && Split(Typed) is var (name, behind))
        {
            found = flora.ShortNames.Find(name, Most);
            (abundance, isLocal, count) = behind;
        }
        var whole = found.Where(f => f.Fit == ShortNameFit.Whole).ToList();
        var meant =
            whole.Count == 1 ? whole[0]
            : whole.Count == 0 && found.Count == 1 ? found[0]
            : null;
        return new ShortNameAnswer(
            meant?.Taxon.Name ?? "",
            [.. found.Select(f => new ShortNamed(f.Taxon.Id, f.Taxon.Name, f.Taxon.CommonName, f.Fit, CautionLine.Of(f.Taxon)))],
            abundance,
            isLocal,
            count
        );
    }

    // A name and what stands behind it; null where that is nothing of the kind.
    private static (string Name, (Abundance? Abundance, bool IsLocal, int? Count) Behind)? Split(string typed)
    {
        var text = typed.Trim();
        var at = text.LastIndexOf(' ');
        if (at < 0)
            return null;
        var (name, last) = (text[..at], text[(at + 1)..].ToLowerInvariant());
        if (int.TryParse(last, NumberStyles.None, CultureInfo.InvariantCulture, out var count) && count > 0)
            return (name, (null, false, count));
        if (Letters.TryGetValue(last, out var abundance))
            return (name, (abundance, false, null));
        return last.Length == 2 && last[0] == 'l' && Letters.TryGetValue(last[1..], out abundance) ? (name, (abundance, true, null)) : null;
    }
}

/// <summary>What fits some typed letters.</summary>
/// <param name="Meant">The one name that they mean; empty where none or several do.</param>
/// <param name="Found">What fits, the better fit first.</param>
/// <param name="Abundance">The abundance that was typed behind; null for none.</param>
/// <param name="IsLocal">Whether "locally" was typed before it.</param>
/// <param name="Count">The count that was typed behind; null for none.</param>
public sealed record ShortNameAnswer(
    string Meant,
    IReadOnlyList<ShortNamed> Found,
    Abundance? Abundance = null,
    bool IsLocal = false,
    int? Count = null
);

/// <summary>A list of names, one a line, as it stands in a notebook or a table: with abundance or count behind a name where there is
/// one.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Text">The list.</param>
public sealed record NameListRequest(string FloraId, string Text) : IFloraRequest
{
    /// <summary>Lines of the longest list that is read.</summary>
    public const int MostLines = 2_000;

    private const int MostOffered = 5;

    // What stands before a name in lists: bullets and numbers.
    private static readonly char[] Marks = [' ', '\t', '-', '–', '•', '*', '.', ')', ',', ';'];

    /// <summary>Reads it line by line: nothing is taken where several taxa fit, or none does. A name that stood there before is said to be
    /// there twice.</summary>
    /// <exception cref="RequestException">It is too long.</exception>
    public IReadOnlyList<ListedName> Read(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var lines = (Text ?? "")
            .Split(['\n', '\r'], StringSplitOptions.RemoveEmptyEntries)
            .Select(l => l.Split('\t')[0].TrimStart([.. Marks, .. "0123456789"]).TrimEnd(Marks))
            .Where(l => l.Length > 0)
            .ToList();
        if (lines.Count > MostLines)
            throw new RequestException("text", $"A list has up to {MostLines} lines.");
        var seen = new HashSet<string>(StringComparer.Ordinal);
        return
        [
            .. lines.Select(line =>
            {
                if (line.Length > ShortNameRequest.LongestTyped)
                    return new ListedName(line[..ShortNameRequest.LongestTyped], new ShortNameAnswer("", []), false);
                var answer = new ShortNameRequest(FloraId, line, MostOffered).Find(flora);
                return new ListedName(line, answer, answer.Meant.Length > 0 && !seen.Add(answer.Meant));
            }),
        ];
    }
}

/// <summary>A line of a list of names.</summary>
/// <param name="Text">The line, without what stands before a name in lists.</param>
/// <param name="Answer">What it means.</param>
/// <param name="IsAgain">Whether the same taxon stood in a line above.</param>
public sealed record ListedName(string Text, ShortNameAnswer Answer, bool IsAgain);

/// <summary>A taxon that fits some typed letters.</summary>
/// <param name="Taxon">Its id.</param>
/// <param name="Name">Its scientific name.</param>
/// <param name="CommonName">A common name; may be empty.</param>
/// <param name="Fit">How well it fits.</param>
/// <param name="Cautions">What to mind before it is touched.</param>
public sealed record ShortNamed(string Taxon, string Name, string CommonName, ShortNameFit Fit, IReadOnlyList<CautionLine> Cautions);

/// <summary>What is known of a taxon at a place from other visits.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Years">The years in which it was found there.</param>
public sealed record FoundBefore(string Name, IReadOnlyList<int> Years);

/// <summary>A list held against the flora and against what was found at the place before.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Date">The day of the visit, <c>YYYY-MM-DD</c>.</param>
/// <param name="Lines">The list as it stands.</param>
/// <param name="At">What the place is like; null where nothing is known.</param>
/// <param name="Before">What was found there before; null where nothing is known.</param>
/// <param name="Most">How many expected taxa are told at most.</param>
public sealed record ListAdviceRequest(
    string FloraId,
    string Date,
    IReadOnlyList<ListLine> Lines,
    SiftPlace? At = null,
    IReadOnlyList<FoundBefore>? Before = null,
    int Most = 30
) : IFloraRequest
{
    private const int LargestMost = 500;
    private const int MostLines = 5_000;

    /// <summary>Tells what is doubtful, new, expected and still missing.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public ListAdvice Tell(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var day = RequestDay.Of(Date, "date");
        if (Most is < 1 or > LargestMost)
            throw new RequestException("most", $"Between 1 and {LargestMost} are told.");
        if (Lines is null || Lines.Count > MostLines)
            throw new RequestException("lines", $"A list has up to {MostLines} lines.");
        var index = new TaxonIndex(flora.Pack.Taxa);
        var held = ListLine.Holding(Lines);
        var before = (Before ?? []).DistinctBy(b => b.Name).ToDictionary(b => b.Name, b => b.Years, StringComparer.Ordinal);
        var listed = held.Select(l => index.Find(l.Name)?.Name ?? l.Name).Where(n => n.Length > 0).ToHashSet(StringComparer.Ordinal);
        var doubts = new LineDoubts(flora.Pack.Taxa, At, day, before.Keys.ToHashSet(StringComparer.Ordinal));
        return new ListAdvice(
            [
                .. held.Select(l =>
                {
                    var taxon = l.Name.Length > 0 ? index.Find(l.Name) : null;
                    return new LineAdvice(
                        l.Id,
                        taxon?.Id ?? "",
                        doubts.Of(l),
                        l.Name.Length > 0 && before.Count > 0 && !before.ContainsKey(taxon?.Name ?? l.Name),
                        CautionLine.Of(taxon),
                        Kin(flora, taxon),
                        taxon?.Cautions.Contains(Caution.Invasive) == true && !before.ContainsKey(taxon.Name)
                    );
                }),
            ],
            [
                .. before
                    .Where(b => !listed.Contains(b.Key))
                    .OrderByDescending(b => Absence.CanBeToldOn(index.Find(b.Key), day) != false)
                    .ThenByDescending(b => b.Value.Count)
                    .ThenBy(b => b.Key, StringComparer.Ordinal)
                    .Select(b => new Awaited(
                        b.Key,
                        index.Find(b.Key)?.CommonName ?? "",
                        Says(index.Find(b.Key), day),
                        b.Value,
                        Absence.CanBeToldOn(index.Find(b.Key), day)
                    )),
            ],
            [
                .. Expected(flora, day)
                    .Where(t => !listed.Contains(t.Name) && !before.ContainsKey(t.Name))
                    .Take(Most)
                    .Select(t => new Awaited(t.Name, t.CommonName, Says(t, day), [], Absence.CanBeToldOn(t, day))),
            ]
        );
    }

    // What grows in the square, at this height, in these habitats, and shows itself now: what flowers first.
    private IEnumerable<Taxon> Expected(ReadyFlora flora, DateOnly day)
    {
        if (At?.Cell is not { Length: > 0 } cell)
            return [];
        return flora
            .Pack.Taxa.Where(t =>
                t.Facts is { } facts
                && facts.Cells.Contains(cell, StringComparer.OrdinalIgnoreCase)
                && (At.Habitats is not { Count: > 0 } here || here.Any(h => facts.Habitats.Contains(h, StringComparer.OrdinalIgnoreCase)))
                && Absence.CanBeToldOn(t, day) != false
            )
            .OrderByDescending(t => IsDoing(t, Phenophase.Flower, day))
            .ThenByDescending(t => IsDoing(t, Phenophase.RipeFruit, day))
            .ThenBy(t => t.Name, StringComparer.Ordinal);
    }

    private static bool IsDoing(Taxon taxon, Phenophase phase, DateOnly day) =>
        taxon.Facts?.Phenology.Any(s => s.Phase == phase && DayWindow.OfHalfMonths(s.From, s.To).Holds(DayOfYear.Of(day))) == true;

    // What of it can be seen on the day, in words: "in flower, in leaf"; empty where the flora says nothing.
    private static string Says(Taxon? taxon, DateOnly day) =>
        taxon is null
            ? ""
            : string.Join(", ", Enum.GetValues<Phenophase>().Where(p => IsDoing(taxon, p, day)).Select(SiteVisitWords.Of).Take(2));

    // What it is taken for: declared look-alikes, then the others of its genus.
    private static IReadOnlyList<NamedTaxon> Kin(ReadyFlora flora, Taxon? taxon)
    {
        const int mostKin = 5;
        if (taxon is null)
            return [];
        var genus = taxon.Name.Split(' ')[0];
        return
        [
            .. (taxon.Facts?.LookAlikes ?? [])
                .Select(flora.Find)
                .OfType<Taxon>()
                .Concat(
                    flora.Pack.Taxa.Where(t =>
                        t.Rank == "species" && t.Id != taxon.Id && t.Name.StartsWith(genus + " ", StringComparison.Ordinal)
                    )
                )
                .DistinctBy(t => t.Id)
                .Take(mostKin)
                .Select(t => new NamedTaxon(t.Id, t.Name)),
        ];
    }
}

/// <summary>A list held against what is known.</summary>
/// <param name="Lines">Of each line that holds: what is doubtful and what to mind.</param>
/// <param name="SeenBefore">What was found here before and isn't on the list yet: what shows itself now first, and what was found
/// in most years.</param>
/// <param name="Expected">What the flora expects here now and isn't on the list, nor was found before.</param>
public sealed record ListAdvice(IReadOnlyList<LineAdvice> Lines, IReadOnlyList<Awaited> SeenBefore, IReadOnlyList<Awaited> Expected);

/// <summary>What is to be said about a line.</summary>
/// <param name="LineId">The line.</param>
/// <param name="Taxon">Id of the taxon that the flora has by its name; empty where it has none.</param>
/// <param name="Doubts">Why it is asked about at the end; empty for nothing.</param>
/// <param name="IsNewHere">Whether other visits to the place didn't find it.</param>
/// <param name="Cautions">What to mind of the plant.</param>
/// <param name="Kin">What it is taken for.</param>
/// <param name="IsToBeTold">Whether it is invasive by the flora and was never recorded here before: somebody wants to know.</param>
public sealed record LineAdvice(
    Guid LineId,
    string Taxon,
    IReadOnlyList<LineDoubt> Doubts,
    bool IsNewHere,
    IReadOnlyList<CautionLine> Cautions,
    IReadOnlyList<NamedTaxon> Kin,
    bool IsToBeTold
);

/// <summary>A taxon that may be found yet.</summary>
/// <param name="Name">Its name.</param>
/// <param name="CommonName">A common name; may be empty.</param>
/// <param name="Shows">What of it can be seen now; empty where unknown.</param>
/// <param name="Years">The years in which it was found here.</param>
/// <param name="CanBeTold">Whether it shows itself on the day; null where unknown.</param>
public sealed record Awaited(string Name, string CommonName, string Shows, IReadOnlyList<int> Years, bool? CanBeTold);
