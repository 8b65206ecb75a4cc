using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Visits;

namespace Garten.Core.Contracts;

/// <summary>A window of a need.</summary>
/// <param name="From">Its first day of the year, 1 to 365; 29 February counts as the 28th.</param>
/// <param name="To">Its last one; before the first one where it runs over the new year.</param>
public sealed record NeedWindow(int From, int To);

/// <summary>Something that a visit is to answer.</summary>
/// <param name="Id">Identity; each need has one of its own.</param>
/// <param name="Place">Where, by any name.</param>
/// <param name="Windows">When: any of them will do.</param>
public sealed record RequestedNeed(string Id, string Place, IReadOnlyList<NeedWindow>? Windows = null);

/// <summary>Needs for which the fewest visits are wanted.</summary>
/// <param name="From">The first day of the 365 to plan, <c>YYYY-MM-DD</c>.</param>
/// <param name="Needs">The needs.</param>
public sealed record VisitsRequest(string From, IReadOnlyList<RequestedNeed>? Needs = null)
{
    /// <summary>Most needs of one request.</summary>
    public const int MostNeeds = 5000;

    private const int MostWindows = 50;
    private const int LongestText = 200;

    /// <summary>Plans them.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    /// <param name="stop">Ends the planning.</param>
    public VisitsResponse Plan(CancellationToken stop = default)
    {
        var from = RequestDay.Of(From, "from");
        var needs = Read(Needs);
        var plan = VisitPlan.Of(from, needs, stop);
        return new VisitsResponse(
            [
                .. plan.Visits.Select(v => new RequestedVisit(v.Place, v.Day, v.Date, v.Needs, v.Earliest, v.Latest)
                {
                    IsOpen = v.Earliest == from,
                    ClosesSoon = v.Latest.DayNumber - from.DayNumber <= QuestionsRequest.SoonDays,
                    IsAllYear = v.Earliest == from && v.Latest.DayNumber - from.DayNumber >= DayOfYear.Days - 1,
                }),
            ],
            plan.IsOptimal,
            plan.Unanswerable
        );
    }

    /// <summary>Reads needs, each with an id of its own.</summary>
    /// <exception cref="RequestException">Something in them can't be used.</exception>
    internal static List<VisitNeed> Read(IReadOnlyList<RequestedNeed>? requested, string field = "needs")
    {
        if (requested?.Count > MostNeeds)
            throw new RequestException(field, $"Up to {MostNeeds} needs are planned at a time.");
        var ids = new HashSet<string>(StringComparer.Ordinal);
        var needs = new List<VisitNeed>();
        foreach (var need in requested ?? [])
        {
            var here = string.Create(CultureInfo.InvariantCulture, $"{field}[{needs.Count}]");
            if (need is null)
                throw new RequestException(here, "A need is missing.");
            if (string.IsNullOrEmpty(need.Id) || need.Id.Length > LongestText)
                throw new RequestException($"{here}.id", $"A need has an id of 1 to {LongestText} characters.");
            if (!ids.Add(need.Id))
                throw new RequestException($"{here}.id", $"The id “{need.Id}” is given twice.");
            if (string.IsNullOrEmpty(need.Place) || need.Place.Length > LongestText)
                throw new RequestException($"{here}.place", $"A need has a place of 1 to {LongestText} characters.");
            if (need.Windows?.Count > MostWindows)
                throw new RequestException($"{here}.windows", $"A need has up to {MostWindows} windows.");
            needs.Add(
                new VisitNeed(
                    need.Id,
                    need.Place,
                    [
                        .. (need.Windows ?? []).Select(
                            (w, at) => Window(w, string.Create(CultureInfo.InvariantCulture, $"{here}.windows[{at}]"))
                        ),
                    ]
                )
            );
        }
        return needs;
    }

    private static DayWindow Window(NeedWindow? window, string here)
    {
        if (window is null)
            throw new RequestException(here, "A window is missing.");
        if (!DayOfYear.IsOne(window.From))
            throw new RequestException($"{here}.from", "A day of the year is 1 to 365; a window has at least one day.");
        if (!DayOfYear.IsOne(window.To))
            throw new RequestException($"{here}.to", "A day of the year is 1 to 365; a window has at least one day.");
        return new DayWindow(window.From, window.To);
    }
}

/// <summary>A day at a place.</summary>
/// <param name="Place">The place.</param>
/// <param name="Day">Its day of the year, 1 to 365.</param>
/// <param name="Date">The date.</param>
/// <param name="Needs">Ids of the needs that it answers; each stands at one visit.</param>
/// <param name="Earliest">The first date on which it would answer the same.</param>
/// <param name="Latest">The last one.</param>
public sealed record RequestedVisit(string Place, int Day, DateOnly Date, IReadOnlyList<string> Needs, DateOnly Earliest, DateOnly Latest)
{
    /// <summary>Whether it can be made from the first planned day on.</summary>
    public bool IsOpen { get; init; }

    /// <summary>Whether the last day for it is near: within two weeks.</summary>
    public bool ClosesSoon { get; init; }

    /// <summary>Whether any day of the year will do.</summary>
    public bool IsAllYear { get; init; }
}

/// <summary>The fewest visits.</summary>
/// <param name="Visits">Those whose windows close first at the front.</param>
/// <param name="Optimal">Whether it is certain that no fewer will do.</param>
/// <param name="Unanswerable">Ids of needs without a window: they can't be answered at their place.</param>
public sealed record VisitsResponse(IReadOnlyList<RequestedVisit> Visits, bool Optimal, IReadOnlyList<string> Unanswerable);

/// <summary>A plant of which something is still to be seen, by what stood for its name when it was last confirmed.</summary>
/// <param name="PlantId">The plant.</param>
/// <param name="Label">What it is called; may be empty.</param>
/// <param name="PlaceId">Where it grows.</param>
/// <param name="PlaceName">Name of that place.</param>
/// <param name="PlaceCaution">What to mind there; may be empty.</param>
/// <param name="Name">The name it has.</param>
/// <param name="Grade">How well that stands.</param>
/// <param name="Needs">What is open, and when it can be seen.</param>
/// <param name="Cautions">What to mind before it is touched.</param>
/// <param name="LookedOn">The day of that.</param>
/// <param name="Outcome">What that look answered, and what has slipped since.</param>
/// <param name="IsSensitive">Whether its place is kept back in whatever leaves the program.</param>
public sealed record OpenPlant(
    Guid PlantId,
    string Label,
    Guid PlaceId,
    string PlaceName,
    string PlaceCaution,
    string Name,
    Grade Grade,
    IReadOnlyList<OpenNeed> Needs,
    IReadOnlyList<CautionLine> Cautions,
    DateOnly LookedOn,
    VisitOutcome Outcome,
    bool IsSensitive = false
);

/// <summary>A visit that is to be moved to another date.</summary>
/// <param name="Date">The other date, <c>YYYY-MM-DD</c>.</param>
/// <param name="Needs">What it was to answer.</param>
public sealed record MoveVisitRequest(string Date, IReadOnlyList<RequestedNeed>? Needs = null)
{
    /// <summary>Says what is lost.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public MovedVisit Move()
    {
        var date = RequestDay.Of(Date, "date");
        var needs = VisitsRequest.Read(Needs);
        var lost = VisitPlan.LostBy(needs, date);
        return new MovedVisit(date, [.. needs.Select(n => n.Id).Except(lost, StringComparer.Ordinal)], lost);
    }
}

/// <summary>A visit on another date.</summary>
/// <param name="Date">The date.</param>
/// <param name="Kept">Ids of what it still answers.</param>
/// <param name="Lost">Ids of what it doesn't any more.</param>
public sealed record MovedVisit(DateOnly Date, IReadOnlyList<string> Kept, IReadOnlyList<string> Lost);

/// <summary>A question whose standing is asked for.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Windows">When it can be answered.</param>
/// <param name="LookedOn">The day of the last look, <c>YYYY-MM-DD</c>; left out: there was none.</param>
public sealed record StatusQuestion(string Id, IReadOnlyList<NeedWindow>? Windows = null, string? LookedOn = null);

/// <summary>How questions stand on a day.</summary>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Questions">The questions.</param>
public sealed record QuestionStatusRequest(string Date, IReadOnlyList<StatusQuestion>? Questions = null)
{
    /// <summary>Says so.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public IReadOnlyList<QuestionStatus> Tell()
    {
        var day = RequestDay.Of(Date, "date");
        var needs = VisitsRequest.Read(
            Questions?.Select(q => q is null ? null! : new RequestedNeed(q.Id, "here", q.Windows)).ToList(),
            "questions"
        );
        return
        [
            .. needs.Select(
                (need, at) =>
                {
                    var standing = NeedStatus.Of(
                        need.Windows,
                        day,
                        RequestDay.OrNone(Questions![at].LookedOn, string.Create(CultureInfo.InvariantCulture, $"questions[{at}].lookedOn"))
                    );
                    return new QuestionStatus(need.Id, standing.IsOpen, standing.Closes, standing.WasTooEarly);
                }
            ),
        ];
    }
}

/// <summary>How a question stands.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Open">Whether it can be answered on the day.</param>
/// <param name="Closes">The last day on which it can; null where it is closed, or open all year.</param>
/// <param name="TooEarly">Whether it couldn't be answered yet on the day of the last look.</param>
public sealed record QuestionStatus(string Id, bool Open, DateOnly? Closes, bool TooEarly);

/// <summary>The year of a list of taxa.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Taxa">Ids of the taxa; left out: all that are recorded in <paramref name="Cell"/>, or all.</param>
/// <param name="Cell">A grid cell; left out: everywhere.</param>
/// <param name="From">The site whose seasons the flora gives; left out: nothing is shifted.</param>
/// <param name="To">The site that they are wanted for; left out: nothing is shifted.</param>
/// <param name="Firsts">Firsts of this year; left out: the year is like others.</param>
/// <param name="Sites">In place of the two sites: places to choose them from.</param>
/// <param name="ToPlace">Of these the place that the seasons are wanted for.</param>
/// <param name="FromPlace">Of these the place whose seasons the flora gives; left out: the lowest one, since floras speak of the
/// lowlands.</param>
public sealed record SeasonRequest(
    string FloraId,
    string Date,
    IReadOnlyList<string>? Taxa = null,
    string? Cell = null,
    SeasonSite? From = null,
    SeasonSite? To = null,
    IReadOnlyList<SeasonFirst>? Firsts = null,
    IReadOnlyList<NamedSite>? Sites = null,
    string? ToPlace = null,
    string? FromPlace = null
) : IFloraRequest
{
    private const int MostSites = 20_000;

    private const int MostTaxa = 3000;
    private const int MostFirsts = 5000;

    /// <summary>Works it out.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public SeasonResponse Look(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var day = RequestDay.Of(Date, "date");
        if (Taxa?.Count > MostTaxa)
            throw new RequestException("taxa", $"Up to {MostTaxa} taxa are looked at at a time.");
        if (Firsts?.Count > MostFirsts)
            throw new RequestException("firsts", $"Up to {MostFirsts} firsts are counted.");
        if (Sites?.Count > MostSites)
            throw new RequestException("sites", $"Up to {MostSites} places are chosen from.");
        if (Sites is not null && From is null && To is null)
            return AtSites().Look(flora) with { FromPlace = Lowland()?.Id };
        Check(From, "from");
        Check(To, "to");
        if (From is null != To is null)
            throw new RequestException(From is null ? "from" : "to", "A shift goes from one site to another: give both, or neither.");
        for (var i = 0; i < (Taxa?.Count ?? 0); i++)
        {
            if (flora.Pack.Taxa.All(t => t.Id != Taxa![i]))
                throw new RequestException(
                    string.Create(CultureInfo.InvariantCulture, $"taxa[{i}]"),
                    $"The flora has no taxon with the id “{Taxa![i]}”."
                );
        }
        IEnumerable<string> taxa = Taxa
            ??
            [
                .. flora
                    .Pack.Taxa.Where(t =>
                        flora.Sifter.Columns.IndexOf(t.Id) >= 0
                        && (string.IsNullOrEmpty(Cell) || t.Facts?.Cells.Contains(Cell, StringComparer.OrdinalIgnoreCase) == true)
                    )
                    .Select(t => t.Id),
            ];
        var late = Late(flora);
        var lead = YearLead.Of([.. late.Select(l => l.Days)]);
        var rows = SeasonList.Of(flora.Sifter, [.. taxa], day, From, To, lead.Days);
        SeasonShift? Shift(Phenophase phase) => From is null || To is null ? null : SeasonShift.Between(From, To, phase, lead.Days);
        return new SeasonResponse(
            [.. rows.Select(r => new NamedSeasonRow(r.Taxon, flora.NameOf(r.Taxon), r))],
            Shift(Phenophase.Flower),
            Shift(Phenophase.RipeFruit),
            Shift(Phenophase.AutumnColour),
            lead,
            late
        );
    }

    private NamedSite? Lowland() =>
        Sites!.FirstOrDefault(s => s.Id == FromPlace && s.Site is not null)
        ?? Sites!.Where(s => s.Site is not null).MinBy(s => s.Site!.ElevationMetres);

    // A shift goes from one known site to another.
    private SeasonRequest AtSites()
    {
        var (from, to) = (Lowland()?.Site, Sites!.FirstOrDefault(s => s.Id == ToPlace)?.Site);
        return this with { Sites = null, From = to is null ? null : from, To = from is null ? null : to };
    }

    private static void Check(SeasonSite? site, string field)
    {
        if (
            site is not null
            && !(Math.Abs(site.Latitude) <= 90 && Math.Abs(site.Longitude) <= 180 && site.ElevationMetres is >= -500 and <= 9000)
        )
            throw new RequestException(field, "A site has decimal degrees and metres above the sea.");
    }

    // Of each first by how many days it was late; those of which the flora says nothing are passed over.
    private List<LateFirst> Late(ReadyFlora flora)
    {
        var result = new List<LateFirst>();
        foreach (var first in Firsts ?? [])
        {
            if (
                first is null
                || first.Seen.Year is < 1753 or > 9900
                || first.NotYet.Year is < 1753 or > 9900
                || !YearLead.IsFirst(first.NotYet, first.Seen)
            )
                continue;
            var windows = SeasonList.WindowsOf(
                flora.Pack.Taxa.FirstOrDefault(t => t.Name == first.Taxon),
                first.Phase,
                first.Site is null ? null : From,
                first.Site
            );
            if (windows.Count == 0)
                continue;
            var seen = DayOfYear.Of(first.Seen);
            // The nearest beginning, before or behind: half a year at most.
            var late = windows.Select(w => (w, Days: Signed(DayOfYear.Between(w.From, seen)))).MinBy(w => Math.Abs(w.Days));
            result.Add(
                new LateFirst(
                    first.Taxon,
                    first.Phase,
                    first.Seen,
                    DayOfYear.Next(new DateOnly(first.Seen.Year, 1, 1), late.w.From),
                    late.Days
                )
            );
        }
        return result;
    }

    private static int Signed(int days) => days > DayOfYear.Days / 2 ? days - DayOfYear.Days : days;
}

/// <summary>A place to choose a site from.</summary>
/// <param name="Id">The place.</param>
/// <param name="Site">Where it lies; null where its height isn't known.</param>
public sealed record NamedSite(string Id, SeasonSite? Site);

/// <summary>A first, and when it was to be expected.</summary>
/// <param name="Taxon">Scientific name.</param>
/// <param name="Phase">What began.</param>
/// <param name="Seen">When.</param>
/// <param name="Expected">When it begins in other years.</param>
/// <param name="Days">Days later than that; below 0: earlier.</param>
public sealed record LateFirst(string Taxon, Phenophase Phase, DateOnly Seen, DateOnly Expected, int Days);

/// <summary>The year of a taxon with its name.</summary>
public sealed record NamedSeasonRow(string Taxon, string Name, SeasonRow Year);

/// <summary>The year of a list.</summary>
/// <param name="Rows">The taxa, in the order asked for.</param>
/// <param name="Spring">The shift up to young fruit; null where nothing is shifted.</param>
/// <param name="RipeFruit">That of ripe fruit.</param>
/// <param name="Autumn">That of autumn colour.</param>
/// <param name="Lead">How far this year is behind others, by one's own firsts.</param>
/// <param name="Firsts">Those firsts.</param>
public sealed record SeasonResponse(
    IReadOnlyList<NamedSeasonRow> Rows,
    SeasonShift? Spring,
    SeasonShift? RipeFruit,
    SeasonShift? Autumn,
    YearLead Lead,
    IReadOnlyList<LateFirst> Firsts
)
{
    /// <summary>The place whose seasons were taken for those of the flora, where it was chosen from places.</summary>
    public string? FromPlace { get; init; }

    /// <summary>How many taxa can be named by what they show on the day.</summary>
    public int NameableNow => Rows.Count(r => r.Year.NameableNow);

    /// <summary>How many catch the eye then but can't be named yet.</summary>
    public int OnlyConspicuousNow => Rows.Count(r => r.Year.ConspicuousNow && !r.Year.NameableNow);
}
