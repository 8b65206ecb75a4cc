using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Grounds;
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
