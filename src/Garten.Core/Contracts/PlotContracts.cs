using System.Globalization;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>Begins a survey, or changes what is said of one. All visits to its places within its days belong to it.</summary>
/// <param name="Id">Id of the command.</param>
/// <param name="SurveyId">Id of the survey.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Question">What it is to find out; may be empty.</param>
/// <param name="From">Its first day, <c>YYYY-MM-DD</c>.</param>
/// <param name="To">Its last day.</param>
/// <param name="Leader">Who answers for it.</param>
/// <param name="PlaceIds">Its places, at least one.</param>
/// <param name="Sought">Taxa that are sought above all; may be empty.</param>
/// <param name="Protocol">How plots are laid and recorded; null for a survey by lists. Another one than before is a new version.</param>
/// <param name="Version">The version that is changed; null for a new one.</param>
/// <param name="Terms">Its calendar, the table of grades, the licence; null: as they were.</param>
/// <param name="Team">Who works at it besides; null: as they were.</param>
public sealed record SaveSurveyCommand(
    Guid Id,
    Guid SurveyId,
    string Name,
    string Question,
    string From,
    string To,
    PersonReference Leader,
    IReadOnlyList<Guid> PlaceIds,
    IReadOnlyList<string> Sought,
    SurveyProtocol? Protocol = null,
    int? Version = null,
    SurveyTerms? Terms = null,
    IReadOnlyList<PersonReference>? Team = null
) : Command(Id), IAtPlace
{
    /// <inheritdoc />
    public IEnumerable<Guid> PlacesNamed() => PlaceIds;

    /// <inheritdoc />
    public Command At(Func<Guid, Guid> now)
    {
        ArgumentNullException.ThrowIfNull(now);
        return this with { PlaceIds = [.. PlaceIds.Select(now).Distinct()] };
    }
}

/// <summary>A mark by which a plot is found again.</summary>
/// <param name="What">What it is: "split boulder".</param>
/// <param name="Metres">How far the plot's first corner lies from it.</param>
/// <param name="BearingDegrees">In which direction from it, 0 to 360, by the compass; null where it wasn't taken.</param>
public sealed record PlotMark(string What, double Metres, double? BearingDegrees = null);

/// <summary>How a plot is found again.</summary>
/// <param name="Marks">Two marks at best.</param>
/// <param name="DeclinationDegrees">By how much the compass pointed beside true north, east positive; null where unknown.</param>
/// <param name="Buried">What was buried, where that is permitted; empty for nothing.</param>
/// <param name="Photograph">From where a photograph is taken each time.</param>
public sealed record PlotFinding(
    IReadOnlyList<PlotMark> Marks,
    double? DeclinationDegrees = null,
    string Buried = "",
    string Photograph = ""
)
{
    /// <summary>Nothing said.</summary>
    public static PlotFinding None { get; } = new([]);
}

/// <summary>Adds a plot to a survey, or changes what is said of one.</summary>
/// <param name="Id">Id of the command.</param>
/// <param name="PlotId">Id of the plot.</param>
/// <param name="SurveyId">Its survey.</param>
/// <param name="PlaceId">The place that it lies in, one of the survey's.</param>
/// <param name="Label">What it is called, once in a survey.</param>
/// <param name="IsPermanent">Whether it is found and recorded again.</param>
/// <param name="Placing">How its position was chosen.</param>
/// <param name="Seed">Where chance began; null where it wasn't by chance.</param>
/// <param name="Site">Its middle; null where unknown.</param>
/// <param name="Part">The part of the place; may be empty.</param>
/// <param name="Group">What it is compared under: "grazed", "mown"; may be empty.</param>
/// <param name="SquareMetres">Its size where it isn't the protocol's; null where it is.</param>
/// <param name="Finding">How it is found again; null where nothing is said.</param>
/// <param name="Version">The version that is changed; null for a new one.</param>
public sealed record SavePlotCommand(
    Guid Id,
    Guid PlotId,
    Guid SurveyId,
    Guid PlaceId,
    string Label,
    bool IsPermanent,
    PlotPlacing Placing,
    long? Seed = null,
    PlantSite? Site = null,
    string Part = "",
    string Group = "",
    double? SquareMetres = null,
    PlotFinding? Finding = null,
    int? Version = null
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

/// <summary>Records a plot on a visit to its place.</summary>
/// <param name="Id">Id of the command.</param>
/// <param name="RecordId">Id of the record.</param>
/// <param name="PlotId">The plot.</param>
/// <param name="SiteVisitId">The visit.</param>
/// <param name="Recorder">Who recorded it.</param>
/// <param name="Finds">What was found; empty: nothing grows there.</param>
/// <param name="Layers">Layers as a whole.</param>
/// <param name="BareGround">Bare ground in per cent.</param>
/// <param name="Litter">Litter in per cent.</param>
/// <param name="Minutes">Minutes spent at it.</param>
/// <param name="Departure">In what it departs from the protocol.</param>
/// <param name="Note">A note.</param>
/// <param name="Repeats">The record that it is an independent second of.</param>
/// <param name="Supersedes">The record that it corrects.</param>
public sealed record RecordPlotCommand(
    Guid Id,
    Guid RecordId,
    Guid PlotId,
    Guid SiteVisitId,
    PersonReference Recorder,
    IReadOnlyList<PlotFind> Finds,
    IReadOnlyList<PlotLayer>? Layers = null,
    double? BareGround = null,
    double? Litter = null,
    int? Minutes = null,
    string Departure = "",
    string Note = "",
    Guid? Repeats = null,
    Guid? Supersedes = null
) : Command(Id);

/// <summary>Writes a sentence of a survey's report in one's own words. It stays when the data are renewed.</summary>
/// <param name="Id">Id of the command.</param>
/// <param name="SurveyId">The survey.</param>
/// <param name="Key">Which sentence.</param>
/// <param name="Text">The words; empty: as it is made from the data.</param>
public sealed record WriteSurveyTextCommand(Guid Id, Guid SurveyId, string Key, string Text) : Command(Id);

/// <summary>Keeps a survey's report as it is now: what comes later never changes it.</summary>
/// <param name="Id">Id of the command.</param>
/// <param name="ReportId">Id of the report.</param>
/// <param name="SurveyId">The survey.</param>
/// <param name="For">Whom it is for.</param>
public sealed record KeepReportCommand(Guid Id, Guid ReportId, Guid SurveyId, string For) : Command(Id);

/// <summary>A version of a survey's protocol.</summary>
/// <param name="Version">Which, from 1.</param>
/// <param name="Protocol">What was agreed.</param>
public sealed record ProtocolVersion(int Version, SurveyProtocol Protocol);

/// <summary>A report that was kept.</summary>
/// <param name="Id">Its id.</param>
/// <param name="For">Whom it is for.</param>
/// <param name="KeptAt">When it was kept.</param>
/// <param name="Version">Which of the survey's reports, from 1.</param>
public sealed record KeptReport(Guid Id, string For, DateTimeOffset KeptAt, int Version);

/// <summary>A survey.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Question">What it is to find out.</param>
/// <param name="From">Its first day.</param>
/// <param name="To">Its last day.</param>
/// <param name="Leader">Who answers for it.</param>
/// <param name="Places">Its places.</param>
/// <param name="Sought">Taxa that are sought above all.</param>
/// <param name="Protocols">The versions of its protocol, oldest first; none for a survey by lists.</param>
/// <param name="Texts">Sentences of its report in one's own words, by their keys.</param>
/// <param name="Version">Its version.</param>
/// <param name="Terms">Its calendar, the table of grades, the licence.</param>
/// <param name="Team">Who works at it besides who answers for it.</param>
public sealed record Survey(
    Guid Id,
    string Name,
    string Question,
    DateOnly From,
    DateOnly To,
    PersonReference Leader,
    IReadOnlyList<Place> Places,
    IReadOnlyList<string> Sought,
    IReadOnlyList<ProtocolVersion> Protocols,
    IReadOnlyDictionary<string, string> Texts,
    int Version,
    SurveyTerms Terms,
    IReadOnlyList<PersonReference> Team
)
{
    /// <summary>Its calendar, the table of grades, the licence. A device may have kept a survey from before there were any.</summary>
    public SurveyTerms Terms { get; init; } = Terms ?? SurveyTerms.None;

    /// <summary>Who works at it besides who answers for it.</summary>
    public IReadOnlyList<PersonReference> Team { get; init; } = Team ?? [];

    /// <summary>The protocol that holds now; null for a survey by lists.</summary>
    public ProtocolVersion? Now() => Protocols.Count > 0 ? Protocols[^1] : null;

    /// <summary>The protocol of a version; the newest where it isn't known.</summary>
    public SurveyProtocol? ProtocolOf(int version) => Protocols.FirstOrDefault(p => p.Version == version)?.Protocol ?? Now()?.Protocol;

    /// <summary>Whether a visit belongs to it.</summary>
    public bool Holds(Guid place, DateOnly day) => From <= day && day <= To && Places.Any(p => p.Id == place);
}

/// <summary>A survey in short.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="From">Its first day.</param>
/// <param name="To">Its last day.</param>
/// <param name="Leader">Name of who answers for it.</param>
/// <param name="Places">Names of its places.</param>
/// <param name="Visits">Visits that belong to it.</param>
/// <param name="Plots">Its plots.</param>
/// <param name="Records">Records of its plots that hold.</param>
/// <param name="PlaceIds">Its places.</param>
/// <param name="Rules">Id of the table by which names are graded; empty where none was agreed.</param>
public sealed record SurveySummary(
    Guid Id,
    string Name,
    DateOnly From,
    DateOnly To,
    string Leader,
    IReadOnlyList<string> Places,
    int Visits,
    int Plots,
    int Records,
    IReadOnlyList<Guid> PlaceIds,
    string Rules
);

/// <summary>A plot.</summary>
/// <param name="Id">Its id.</param>
/// <param name="PlaceId">Its place.</param>
/// <param name="Label">What it is called.</param>
/// <param name="IsPermanent">Whether it is found and recorded again.</param>
/// <param name="Placing">How its position was chosen.</param>
/// <param name="Seed">Where chance began.</param>
/// <param name="Site">Its middle.</param>
/// <param name="Part">The part of the place.</param>
/// <param name="Group">What it is compared under.</param>
/// <param name="SquareMetres">Its size where it isn't the protocol's.</param>
/// <param name="Finding">How it is found again.</param>
/// <param name="Version">Its version.</param>
public sealed record Plot(
    Guid Id,
    Guid PlaceId,
    string Label,
    bool IsPermanent,
    PlotPlacing Placing,
    long? Seed,
    PlantSite? Site,
    string Part,
    string Group,
    double? SquareMetres,
    PlotFinding Finding,
    int Version
);

/// <summary>A survey with all that belongs to it.</summary>
/// <param name="Survey">The survey.</param>
/// <param name="Plots">Its plots, by their labels.</param>
/// <param name="Records">What was recorded in them, in the order in which it was kept; corrected ones too.</param>
/// <param name="Visits">The visits to its places within its days.</param>
/// <param name="Reports">Reports that were kept.</param>
public sealed record SurveyWhole(
    Survey Survey,
    IReadOnlyList<Plot> Plots,
    IReadOnlyList<PlotRecord> Records,
    IReadOnlyList<SiteVisit> Visits,
    IReadOnlyList<KeptReport> Reports
);

/// <summary>A survey as the server answered it, with what waits on the device.</summary>
/// <param name="Id">Id of the survey.</param>
/// <param name="Survey">What the server answered; null where it never did.</param>
/// <param name="Waiting">What waits.</param>
public sealed record SurveyDocument(Guid Id, SurveyWhole? Survey, Waiting Waiting)
{
    /// <summary>The survey with what waits put into it; none where it isn't known.</summary>
    public IReadOnlyList<SurveyWhole> Tell() =>
        Waiting.Read().Aggregate(Survey, (it, command) => SurveyDocuments.Apply(Id, it, command, Waiting.AllPlaces())) is { } told
            ? [told]
            : [];
}

/// <summary>What commands do to surveys on a device, as the server does it.</summary>
public static class SurveyDocuments
{
    /// <summary>Puts a command into a survey.</summary>
    public static SurveyWhole? Apply(Guid id, SurveyWhole? whole, Command command, IReadOnlyList<Place> places)
    {
        ArgumentNullException.ThrowIfNull(places);
        return command switch
        {
            SaveSurveyCommand it when it.SurveyId == id => Saved(whole, it, places),
            SavePlotCommand it when it.SurveyId == id && whole is not null => whole with { Plots = Saved(whole.Plots, it) },
            RecordPlotCommand it when whole is not null && whole.Plots.Any(p => p.Id == it.PlotId) => Recorded(whole, it),
            WriteSurveyTextCommand it when it.SurveyId == id && whole is not null => whole with
            {
                Survey = whole.Survey with { Texts = Written(whole.Survey.Texts, it) },
            },
            _ when whole is not null => Visited(whole, command, places),
            _ => whole,
        };
    }

    private static SurveyWhole? Saved(SurveyWhole? whole, SaveSurveyCommand it, IReadOnlyList<Place> places)
    {
        if (!DayText.TryRead(it.From, out var from) || !DayText.TryRead(it.To, out var to))
            return whole;
        // A command of an earlier version has been carried out already.
        if (it.Version != whole?.Survey.Version)
            return whole;
        var before = whole?.Survey;
        var survey = new Survey(
            it.SurveyId,
            it.Name,
            it.Question,
            from,
            to,
            it.Leader,
            [.. it.PlaceIds.Select(places.Standing).OfType<Place>().DistinctBy(p => p.Id)],
            it.Sought,
            With(before?.Protocols ?? [], it.Protocol),
            before?.Texts ?? new Dictionary<string, string>(),
            (before?.Version ?? 0) + 1,
            it.Terms ?? before?.Terms ?? SurveyTerms.None,
            it.Team ?? before?.Team ?? []
        );
        return whole is null
            ? new SurveyWhole(survey, [], [], [], [])
            : whole with
            {
                Survey = survey,
                Visits = [.. whole.Visits.Where(v => survey.Holds(v.Place.Id, v.Date))],
            };
    }

    /// <summary>The versions of a protocol with one that is said to hold now: a new one where it isn't the last.</summary>
    public static IReadOnlyList<ProtocolVersion> With(IReadOnlyList<ProtocolVersion> before, SurveyProtocol? now)
    {
        ArgumentNullException.ThrowIfNull(before);
        return now is null || before.Count > 0 && IsSame(before[^1].Protocol, now)
            ? before
            : [.. before, new ProtocolVersion(before.Count + 1, now)];
    }

    private static bool IsSame(SurveyProtocol one, SurveyProtocol other) =>
        one.Layers.SequenceEqual(other.Layers, StringComparer.Ordinal)
        && one.Nests.SequenceEqual(other.Nests)
        && one with { Layers = other.Layers, NestSizes = other.NestSizes } == other;

    private static List<Plot> Saved(IReadOnlyList<Plot> plots, SavePlotCommand it)
    {
        var known = plots.FirstOrDefault(p => p.Id == it.PlotId);
        if (it.Version != known?.Version)
            return [.. plots];
        return
        [
            .. plots
                .Where(p => p.Id != it.PlotId)
                .Append(
                    new Plot(
                        it.PlotId,
                        it.PlaceId,
                        it.Label,
                        it.IsPermanent,
                        it.Placing,
                        it.Seed,
                        it.Site,
                        it.Part,
                        it.Group,
                        it.SquareMetres,
                        it.Finding ?? PlotFinding.None,
                        (known?.Version ?? 0) + 1
                    )
                )
                .OrderBy(p => p.Label, StringComparer.Ordinal)
                .ThenBy(p => p.Id),
        ];
    }

    private static SurveyWhole Recorded(SurveyWhole whole, RecordPlotCommand it)
    {
        if (whole.Records.Any(r => r.Id == it.RecordId) || whole.Visits.FirstOrDefault(v => v.Id == it.SiteVisitId) is not { } visit)
            return whole;
        return whole with { Records = [.. whole.Records, RecordOf(it, visit.Date, whole.Survey.Now()?.Version ?? 0)] };
    }

    /// <summary>The record that a command makes.</summary>
    /// <param name="it">The command.</param>
    /// <param name="day">The day of the visit.</param>
    /// <param name="protocol">The version of the protocol that holds.</param>
    public static PlotRecord RecordOf(RecordPlotCommand it, DateOnly day, int protocol)
    {
        ArgumentNullException.ThrowIfNull(it);
        return new(
            it.RecordId,
            it.PlotId,
            it.SiteVisitId,
            day,
            it.Recorder.Name,
            protocol,
            it.Finds,
            it.Layers ?? [],
            it.BareGround,
            it.Litter,
            it.Minutes,
            it.Departure,
            it.Note,
            it.Repeats,
            it.Supersedes
        );
    }

    private static Dictionary<string, string> Written(IReadOnlyDictionary<string, string> texts, WriteSurveyTextCommand it)
    {
        var written = texts.Where(t => t.Key != it.Key).ToDictionary(t => t.Key, t => t.Value, StringComparer.Ordinal);
        if (it.Text.Length > 0)
            written[it.Key] = it.Text;
        return written;
    }

    // Visits that were begun or changed out of reach belong to it as the server's do.
    private static SurveyWhole Visited(SurveyWhole whole, Command command, IReadOnlyList<Place> places)
    {
        var visits = whole
            .Visits.Select(v => SiteVisitDocuments.Apply(v.Id, v, command, places))
            .OfType<SiteVisit>()
            // A survey doesn't carry the tracks of its visits.
            .Select(v => v with { Tracks = null })
            .Where(v => whole.Survey.Holds(v.Place.Id, v.Date))
            .ToList();
        if (
            command is SaveSiteVisitCommand { Version: null } it
            && visits.TrueForAll(v => v.Id != it.SiteVisitId)
            && SiteVisitDocuments.Apply(it.SiteVisitId, null, it, places) is { } begun
            && whole.Survey.Holds(begun.Place.Id, begun.Date)
        )
            visits.Add(begun with { Tracks = null });
        var days = visits.ToDictionary(v => v.Id, v => v.Date);
        return whole with
        {
            Visits = visits,
            Records =
            [
                .. whole.Records.Select(r => days.TryGetValue(r.SiteVisitId, out var day) && day != r.Date ? r with { Date = day } : r),
            ],
        };
    }
}

/// <summary>Asks which taxon some typed letters mean, with how much of it is there typed behind: "ve al 12", "onc +", "mir gla
/// 7/9".</summary>
/// <param name="FloraId">Id of the flora.</param>
/// <param name="Typed">What was typed.</param>
/// <param name="Scale">How much of a taxon is noted.</param>
/// <param name="Layer">The layer that is recorded just now; empty where layers aren't told apart.</param>
/// <param name="Most">How many taxa are told at most.</param>
/// <param name="Nests">How many nested squares there are: the smallest in which it stands is typed behind a #, "ve al 12 #2"; where nothing
/// but presence is noted the number alone will do.</param>
public sealed record PlotNameRequest(string FloraId, string Typed, PlotScale Scale, string Layer = "", int Most = 6, int Nests = 0)
    : IFloraRequest
{
    /// <summary>Finds it.</summary>
    /// <exception cref="RequestException">It is too long, or too many are asked for.</exception>
    public PlotNameAnswer Find(ReadyFlora flora)
    {
        var (text, nest) = Nested((Typed ?? "").Trim());
        var at = text.LastIndexOf(' ');
        var behind = at < 0 ? null : Read(text[(at + 1)..]);
        var named = new ShortNameRequest(FloraId, behind is null ? text : text[..at], Most).Find(flora);
        // A letter that is a class is one only where no taxon is meant by it.
        if (behind is not null && named.Found.Count == 0)
            (behind, named) = (null, new ShortNameRequest(FloraId, text, Most).Find(flora));
        var amount = Scale == PlotScale.Presence ? behind ?? new PlotFind("") : behind;
        return new PlotNameAnswer(
            named.Meant,
            named.Found,
            amount is null ? null : amount with { Taxon = named.Meant, Layer = Layer ?? "", Nest = nest ?? amount.Nest },
            amount is null ? Missing() : ""
        );
    }

    // The number of a nested square behind all, "ve al 12 #2", taken off.
    private (string Text, int? Nest) Nested(string text)
    {
        var at = text.LastIndexOf(" #", StringComparison.Ordinal);
        return at > 0 && NestOf(text[(at + 2)..]) is { } nest ? (text[..at].TrimEnd(), nest) : (text, null);
    }

    private int? NestOf(string text) => Number(text) is { } nest && nest <= Nests ? nest : null;

    // What is typed behind a name, as an amount; null where it is none of the scale.
    private PlotFind? Read(string text)
    {
        if (Scale == PlotScale.Presence)
            return NestOf(text) is { } nest ? new PlotFind("", Nest: nest) : null;
        if (CoverClass.Of(Scale).Count > 0)
            return CoverClass.Find(Scale, text) is { } mark ? new PlotFind("", Class: mark.Mark) : null;
        if (Scale == PlotScale.Hits && text.Split('/') is [var first, .. var rest] && rest.Length <= 1)
            return Number(first) is { } one && (rest.Length == 0 || Number(rest[0]) is not null)
                ? new PlotFind("", FirstHits: one, Hits: rest.Length == 0 ? null : Number(rest[0]))
                : null;
        if (Scale == PlotScale.Count)
            return Number(text) is { } count ? new PlotFind("", Count: count) : null;
        return
            Scale == PlotScale.Percent
            && double.TryParse(
                text.TrimEnd('%').Replace(',', '.'),
                NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var percent
            )
            && percent is > 0 and <= 100
            ? new PlotFind("", Percent: percent)
            : null;
    }

    private static int? Number(string text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number > 0 ? number : null;

    private string Missing() =>
        Scale switch
        {
            PlotScale.Percent => "Its cover in per cent behind it: “ve al 12”.",
            PlotScale.Count => "How many behind it: “ve al 12”.",
            PlotScale.Hits => "First hits behind it, and all hits: “ve al 7/9”.",
            _ => $"Its class behind it: {string.Join(", ", CoverClass.Of(Scale).Select(c => c.Mark))}.",
        };
}

/// <summary>What typed letters mean in a plot.</summary>
/// <param name="Meant">The one taxon that is meant; empty where none or several fit.</param>
/// <param name="Found">The taxa that fit.</param>
/// <param name="Find">The find; null where its amount isn't typed yet.</param>
/// <param name="Missing">What is still to be typed; empty where nothing is.</param>
public sealed record PlotNameAnswer(string Meant, IReadOnlyList<ShortNamed> Found, PlotFind? Find, string Missing);
