using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Contracts;

/// <summary>Something in a request that can't be used, said at its place.</summary>
public sealed class RequestException(string field, string message) : Exception(message)
{
    /// <summary>Where, such as <c>observations[2].values</c>.</summary>
    public string Field { get; } = field;

    /// <summary>A stable code of what is wrong.</summary>
    public string Code { get; init; } = "request.unusable";

    /// <summary>Whether it names something that isn't known here.</summary>
    public bool IsUnknown { get; init; }
}

/// <summary>Days of requests.</summary>
public static class RequestDay
{
    private const string Wrong = "There is no such date; give the day as year-month-day, for example 2026-05-31.";

    /// <summary>Reads a day that has to be given.</summary>
    /// <param name="text">The day, <c>YYYY-MM-DD</c>.</param>
    /// <param name="field">Its field.</param>
    /// <exception cref="RequestException">It is missing, or there is no such day.</exception>
    public static DateOnly Of(string? text, string field) =>
        OrNone(text, field)
        ?? throw new RequestException(field, "Say on which day: year-month-day, for example 2026-05-31.") { Code = "date.invalid" };

    /// <summary>Reads a day that may be left out.</summary>
    /// <exception cref="RequestException">There is no such day.</exception>
    public static DateOnly? OrNone(string? text, string field) =>
        string.IsNullOrEmpty(text) ? null
        : DayText.TryRead(text, out var day) ? day
        : throw new RequestException(field, Wrong) { Code = "date.invalid" };
}

/// <summary>What is weighed before anything is seen.</summary>
[JsonConverter(typeof(CamelCaseWords<SiftPrior>))]
public enum SiftPrior
{
    /// <summary>All taxa are equal.</summary>
    Equal,

    /// <summary>Place, date, habitat and elevation weigh in.</summary>
    Plausible,
}

/// <summary>A look at a plant in its shortest form.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="States">Ids of the states: one, or several of which it is one or the other.</param>
/// <param name="Values">Readings, in <paramref name="Unit"/>.</param>
/// <param name="Unit">mm, cm, m, in, ft …; left out: millimetres for lengths.</param>
/// <param name="Sureness">How sure; left out: sure.</param>
/// <param name="Context">What it is to be judged by; left out: an adult plant in the sun.</param>
/// <param name="Together">Whether several states are all on the plant.</param>
/// <param name="Outcome">What came of the look; left out: seen. A look without states and values came to nothing, and isn't proposed
/// again.</param>
/// <param name="Show">Of a stand: how many plants show it.</param>
/// <param name="Of">Of a stand: how many were looked at.</param>
/// <param name="Date">The day of the look, <c>YYYY-MM-DD</c>; only confirmation asks for it.</param>
public sealed record SiftObservation(
    string Character,
    IReadOnlyList<string>? States = null,
    IReadOnlyList<double>? Values = null,
    string? Unit = null,
    Sureness? Sureness = null,
    ObservationContext? Context = null,
    bool Together = false,
    Outcome? Outcome = null,
    int Show = 0,
    int Of = 0,
    string? Date = null
)
{
    private const int MostValues = 1000;

    /// <summary>The same as a fact of a sheet.</summary>
    /// <param name="table">The characters.</param>
    /// <param name="at">Its place among the observations, for what is wrong with it.</param>
    /// <exception cref="RequestException">It can't be weighed.</exception>
    public Observation AsObservation(CharacterTable table, int at)
    {
        ArgumentNullException.ThrowIfNull(table);
        var here = string.Create(CultureInfo.InvariantCulture, $"observations[{at}]");
        var character = table.Find(Character) ?? throw new RequestException($"{here}.character", $"There is no character “{Character}”.");
        var factor = 1d;
        if (!string.IsNullOrEmpty(Unit))
        {
            if (MeasureUnit.Named(Unit) is not { } unit || !character.IsQuantity || unit.Kind != character.Quantity)
                throw new RequestException($"{here}.unit", $"“{Unit}” is no unit of {character.Name}.");
            factor = unit.Factor;
        }
        if (Values?.Count > MostValues)
            throw new RequestException($"{here}.values", $"Up to {MostValues} readings belong to one observation.");
        var readings = (Values ?? []).Select(v => new Reading(v * factor, "", 0)).ToList();
        var nothing = (States ?? []).Count == 0 && readings.Count == 0;
        var outcome = Outcome ?? (nothing ? Evidence.Outcome.OutOfReach : Evidence.Outcome.Seen);
        var made = new Observation(
            Guid.Empty,
            Character,
            outcome,
            States ?? [],
            Together,
            readings,
            Show,
            Of,
            Sureness ?? Evidence.Sureness.Sure,
            Context ?? new ObservationContext(),
            Tool.Eye,
            string.IsNullOrEmpty(Date) ? "2000-01-01" : Date,
            ""
        );
        return EvidenceSheet.Problem(made, character, DateOnly.MaxValue) is { } wrong ? throw new RequestException(here, wrong) : made;
    }
}

/// <summary>How a list is sifted. Everything may be left out.</summary>
/// <param name="Prior">Equal, or plausible.</param>
/// <param name="Place">Id or name of a place of the records, or a grid cell; the server looks it up.</param>
/// <param name="At">What is known of the place, where it isn't one of the records.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Tolerance">For the strict view: how many conflicts a taxon may have; left out: the weighed view, in which all
/// stand.</param>
/// <param name="Tools">What is at hand besides the eye; left out: all but a microscope.</param>
/// <param name="Handling">The most handling that is allowed; left out: cut.</param>
/// <param name="Missing">Organs that this plant hasn't now.</param>
/// <param name="Skip">Characters that can't be told on this plant.</param>
/// <param name="Narrowing">What the list is narrowed to.</param>
/// <param name="Looks">Whether the looks that tell most are wanted; else the list is only ranked.</param>
/// <param name="Why">Of which taxa, besides the first of the standing, the reasons are wanted; left out: of the dozen likeliest.</param>
/// <param name="Strangers">What earlier plants have shown of this list at this place; left out: nothing.</param>
public sealed record SiftRequestOptions(
    SiftPrior Prior = SiftPrior.Equal,
    string? Place = null,
    SiftPlace? At = null,
    string? Date = null,
    int? Tolerance = null,
    IReadOnlyList<Tool>? Tools = null,
    Handling? Handling = null,
    IReadOnlyList<Organ>? Missing = null,
    IReadOnlyList<string>? Skip = null,
    Narrowing? Narrowing = null,
    bool Looks = true,
    IReadOnlyList<string>? Why = null,
    Strangers? Strangers = null
);

/// <summary>A list to be sifted by what was seen.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Observations">What was seen, in any order.</param>
/// <param name="Options">How; left out: all taxa equal, the whole list, any time of the year.</param>
/// <param name="Sheet">The same as facts of a sheet, as the Bench holds them; they are weighed with the others.</param>
public sealed record SiftRequest(
    string FloraId,
    IReadOnlyList<SiftObservation>? Observations = null,
    SiftRequestOptions? Options = null,
    IReadOnlyList<Observation>? Sheet = null
) : IFloraRequest, IPlacedRequest
{
    string? IPlacedRequest.PlaceToFind => Options is { At: null } options ? options.Place : null;

    string IPlacedRequest.PlaceField => "options.place";

    IPlacedRequest IPlacedRequest.At(SiftPlace place) => this with { Options = (Options ?? new SiftRequestOptions()) with { At = place } };

    /// <summary>Most observations of one request.</summary>
    public const int MostObservations = 2000;

    // More plants than anyone sifts at a place.
    private const int MostStrangers = 1_000_000;

    /// <summary>The prior of "not on this list" by what a place's list has shown.</summary>
    /// <exception cref="RequestException">It can't be.</exception>
    public static double? Known(Strangers? strangers)
    {
        if (strangers is null)
            return null;
        if (strangers.Plants > MostStrangers || !strangers.IsSound)
            throw new RequestException(
                "options.strangers",
                $"The sum lies between 0 and the number of plants; a belief has {Strangers.Shares} probabilities."
            );
        return strangers.Prior;
    }

    /// <summary>Sifts a flora.</summary>
    /// <param name="flora">The flora, made ready.</param>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public SiftResponse Sift(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var options = Options ?? new SiftRequestOptions();
        if (options.Tolerance is < 0)
            throw new RequestException("options.tolerance", "A tolerance is 0 or more.");
        var observations = Read(flora, Observations, Sheet);
        var query = new SiftQuery(
            observations,
            options.Prior == SiftPrior.Plausible,
            options.At,
            RequestDay.OrNone(options.Date, "options.date"),
            options.Tools,
            options.Handling ?? Handling.Cut,
            options.Missing,
            options.Skip,
            options.Narrowing,
            options.Tolerance,
            options.Why,
            Known(options.Strangers)
        );
        var (result, looks) = options.Looks ? flora.Sifter.SiftAndLook(query) : (flora.Sifter.Sift(query), new TellingLooks([], []));
        var giveaways = options.Looks && result.Listed > 1 ? flora.GiveawaysOf(query) : [];
        var seen = observations.SelectMany(o => o.States.Select(s => (o.Character, s))).ToHashSet();
        var likely = result.Standing.Where(c => c.Probability >= GiveawayFrom).Select(c => c.Taxon).ToHashSet(StringComparer.Ordinal);
        return new SiftResponse(
            [
                .. result.Standing.Select(c => new SiftedTaxon(
                    c.Taxon,
                    flora.NameOf(c.Taxon),
                    c.Probability,
                    c.Conflicts,
                    c.Described,
                    c.Other,
                    c.Reasons,
                    c.Prior
                )),
            ],
            looks.Now,
            looks.Later,
            result.Call,
            result.Leaders,
            result.InWords,
            result.Alike,
            result.Listed,
            flora.Sifter.Columns.Taxa.Count,
            [.. giveaways.Where(g => likely.Contains(g.Taxon) || seen.Contains((g.Character, g.State)))],
            [.. result.Items.Select(i => new SiftLine(i.Character.Id, i.InWords(), i.Reason))],
            (options.Strangers ?? Strangers.None).With(
                result.Standing.First(c => c.Taxon == Sifter.NotOnList).Probability,
                flora.Sifter.Options.PriorOfStranger(Known(options.Strangers))
            )
        );
    }

    // Of taxa less likely than this a giveaway is not worth a look.
    private const double GiveawayFrom = 0.02;

    internal static List<Observation> Read(
        ReadyFlora flora,
        IReadOnlyList<SiftObservation>? observations,
        IReadOnlyList<Observation>? sheet
    )
    {
        if ((observations?.Count ?? 0) + (sheet?.Count ?? 0) > MostObservations)
            throw new RequestException("observations", $"Up to {MostObservations} observations are weighed at a time.");
        var read = (observations ?? [])
            .Select(
                (o, at) =>
                    (o ?? throw new RequestException($"observations[{at}]", "An observation is missing.")).AsObservation(flora.Table, at)
            )
            .ToList();
        // Of the Bench's sheet what this flora doesn't know is passed over: it may be of another one.
        foreach (var fact in EvidenceSheet.Holding(sheet ?? []))
        {
            if (flora.Table.Find(fact.Character) is { } character && EvidenceSheet.Problem(fact, character, DateOnly.MaxValue) is null)
                read.Add(fact with { Supersedes = null });
        }
        return read;
    }
}

/// <summary>A taxon as it stands.</summary>
/// <param name="Taxon">Its id; <c>not-on-this-list</c> for a plant that isn't on the list.</param>
/// <param name="Name">Its name.</param>
/// <param name="Probability">Its probability, 0 to 1.</param>
/// <param name="Conflicts">How many looks conflict with it.</param>
/// <param name="Described">In how many of the looked at characters it is described.</param>
/// <param name="Other">Its probability by the other prior.</param>
/// <param name="Reasons">What speaks for and against it, strongest first; of those only that they are wanted of.</param>
/// <param name="PriorReasons">Why it is less plausible here.</param>
public sealed record SiftedTaxon(
    string Taxon,
    string Name,
    double Probability,
    int Conflicts,
    int Described,
    double Other,
    IReadOnlyList<SiftReason> Reasons,
    IReadOnlyList<string> PriorReasons
)
{
    // The other prior is worth a word where it gives so much more or less.
    private const double Disagrees = 0.1;

    // Of a name this likely one is warned before the plant is handled.
    private const double WarnedFrom = 0.02;

    /// <summary>Its probability in words.</summary>
    public string ProbabilityInWords => Percent.OfProbability(Probability);

    /// <summary>Its probability by the other prior in words; empty where that says nearly the same.</summary>
    public string OtherInWords => Math.Abs(Other - Probability) >= Disagrees ? Percent.OfProbability(Other) : "";

    /// <summary>Whether it is likely enough to be warned of.</summary>
    public bool IsWarnedOf => Probability >= WarnedFrom;
}

/// <summary>A line of the sheet as it is weighed.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Seen">What was seen.</param>
/// <param name="Reason">Why it counts less; empty for most.</param>
public sealed record SiftLine(string Character, string Seen, string Reason);

/// <summary>A list sifted.</summary>
/// <param name="Standing">The taxa, likeliest first; "not on this list" is among them.</param>
/// <param name="TellingLooks">The looks that help most now.</param>
/// <param name="Later">The looks that would tell more but can't be taken now.</param>
/// <param name="Call">How sure the standing is.</param>
/// <param name="Leaders">How many it speaks of.</param>
/// <param name="InWords">The same in words.</param>
/// <param name="Alike">Sets of leading taxa that no look tells apart.</param>
/// <param name="Listed">How many taxa are on the list as narrowed.</param>
/// <param name="All">How many the flora describes.</param>
/// <param name="Giveaways">States alone on this list: of the likely taxa, and those that were seen.</param>
/// <param name="Sheet">What was seen, put together.</param>
/// <param name="StrangersAfter">What is known of the list once this plant is named: to be asked with at the next plant of the
/// place.</param>
public sealed record SiftResponse(
    IReadOnlyList<SiftedTaxon> Standing,
    IReadOnlyList<TellingLook> TellingLooks,
    IReadOnlyList<LaterLook> Later,
    RankingCall Call,
    int Leaders,
    string InWords,
    IReadOnlyList<IReadOnlyList<string>> Alike,
    int Listed,
    int All,
    IReadOnlyList<Giveaway> Giveaways,
    IReadOnlyList<SiftLine> Sheet,
    Strangers StrangersAfter
)
{
    /// <summary>Ids of the taxa that are in question by it: the leaders, as many as a contrast takes; none where the call speaks of a whole
    /// list.</summary>
    public IReadOnlyList<string> InQuestion =>
        Call is RankingCall.Nothing or RankingCall.Open
            ? []
            : [.. Standing.Select(t => t.Taxon).Where(t => t != Sifter.NotOnList).Take(Math.Min(Leaders, Contrast.Most))];

    /// <summary>Whether anything was seen that counts: before it every taxon is as likely, and of none one is warned.</summary>
    public bool IsWeighed => Call != RankingCall.Nothing;
}

/// <summary>Taxa to hold against each other.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Taxa">Ids of 2 to 8 taxa.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>; left out: any time of the year.</param>
/// <param name="Place">A place; reserved for the plants to compare with, it changes no row.</param>
/// <param name="Observations">What was seen on the plant in hand.</param>
/// <param name="Sheet">The same as facts of a sheet.</param>
/// <param name="Plants">Sheets of plants seen before, to compare with.</param>
public sealed record ContrastRequest(
    string FloraId,
    IReadOnlyList<string> Taxa,
    string? Date = null,
    string? Place = null,
    IReadOnlyList<SiftObservation>? Observations = null,
    IReadOnlyList<Observation>? Sheet = null,
    IReadOnlyList<IReadOnlyList<Observation>>? Plants = null
) : IFloraRequest
{
    /// <summary>Compares.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public ContrastResult Compare(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        if (Contrast.Problem(flora.Sifter, Taxa) is { } wrong)
            throw new RequestException("taxa", wrong);
        var sheet = SiftRequest.Read(flora, Observations, Sheet);
        return Contrast.Of(
            flora.Sifter,
            new ContrastQuery(
                Taxa,
                sheet,
                RequestDay.OrNone(Date, "date"),
                [.. (Plants ?? []).Select(p => SiftRequest.Read(flora, null, p))]
            )
        );
    }
}

/// <summary>What is alone on the list of a place.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="At">The place; left out: the whole flora.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>: only what can be seen then; left out: any time of the year.</param>
/// <param name="Narrowing">What the list is narrowed to.</param>
public sealed record GiveawayRequest(string FloraId, SiftPlace? At = null, string? Date = null, Narrowing? Narrowing = null) : IFloraRequest
{
    /// <summary>Finds them.</summary>
    public GiveawayResponse Find(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var day = RequestDay.OrNone(Date, "date");
        var query = new SiftQuery([], Place: At, Day: day, Narrowing: Narrowing);
        var found = flora.GiveawaysOf(query);
        var listed = flora.Sifter.Listed(query);
        return new GiveawayResponse(
            listed.Count(l => l),
            [
                .. found
                    .Where(g => day is not { } on || flora.Sifter.CanBeSeen(g.Taxon, g.Character, on))
                    .Select(g => new NamedGiveaway(g.Taxon, flora.NameOf(g.Taxon), g.Character, g.State, g.Text)),
            ]
        );
    }
}

/// <summary>What is alone on a list.</summary>
/// <param name="Listed">How many taxa are on the list.</param>
/// <param name="Giveaways">What gives a taxon away, in the order of the taxa.</param>
public sealed record GiveawayResponse(int Listed, IReadOnlyList<NamedGiveaway> Giveaways);

/// <summary>A giveaway with the name of its taxon.</summary>
public sealed record NamedGiveaway(string Taxon, string Name, string Character, string State, string Text);

/// <summary>Taxa to be shown with what they are like.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Taxa">Their ids; left out: all taxa of the flora, without what they are like.</param>
public sealed record DescribeRequest(string FloraId, IReadOnlyList<string>? Taxa = null) : IFloraRequest
{
    /// <summary>Describes them; ids that the flora hasn't are passed over.</summary>
    public IReadOnlyList<DescribedTaxon> Describe(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var columns = flora.Sifter.Columns;
        return Taxa is null
            ? [.. flora.Pack.Taxa.Where(t => columns.IndexOf(t.Id) >= 0).Select(t => new DescribedTaxon(t, []))]
            :
            [
                .. Taxa.Distinct(StringComparer.Ordinal)
                    .Select(flora.Find)
                    .OfType<Taxon>()
                    .Select(t => new DescribedTaxon(
                        t,
                        [.. columns.Columns.Select(c => columns.Describe(t.Id, c.Character.Id)).OfType<CharacterDescription>()]
                    )),
            ];
    }
}

/// <summary>What a taxon is taken for.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Taxon">Id of the taxon.</param>
public sealed record NearRequest(string FloraId, string Taxon) : IFloraRequest
{
    // Where nothing is declared it is held against so many of the nearest.
    private const int NearestAlone = 2;

    // With the taxon itself they are as many as can be compared.
    private const int Most = Contrast.Most - 1;

    /// <summary>Finds them: those declared, and the nearest by description; nearest first.</summary>
    /// <exception cref="RequestException">The flora doesn't describe the taxon.</exception>
    public NearResponse Find(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        if (flora.Sifter.Columns.IndexOf(Taxon ?? "") < 0)
            throw new RequestException("taxon", $"The flora doesn’t describe “{Taxon}”.");
        var near = Contrast.Near(flora.Sifter, Taxon!, Most);
        var own = flora.Find(Taxon!)?.Facts?.LookAlikes ?? [];
        var declared = near.Where(id =>
                own.Contains(id, StringComparer.Ordinal)
                || flora.Find(id)?.Facts?.LookAlikes.Contains(Taxon!, StringComparer.Ordinal) == true
            )
            .ToList();
        return new NearResponse(near, declared.Count > 0 ? declared : [.. near.Take(NearestAlone)]);
    }
}

/// <summary>What a taxon is taken for.</summary>
/// <param name="Taxa">Ids of those declared and of the nearest by description; nearest first.</param>
/// <param name="ToContrast">Those to hold it against: the declared ones, or the nearest two where none is declared.</param>
public sealed record NearResponse(IReadOnlyList<string> Taxa, IReadOnlyList<string> ToContrast);

/// <summary>A taxon with what it is like.</summary>
/// <param name="Taxon">The taxon.</param>
/// <param name="Description">What it is like, character by character.</param>
public sealed record DescribedTaxon(Taxon Taxon, IReadOnlyList<CharacterDescription> Description);

/// <summary>A flora made ready for sifting and contrast.</summary>
public sealed class ReadyFlora : IDisposable
{
    private readonly Dictionary<string, Taxon> _taxa;
    private readonly SemaphoreSlim _asked = new(1, 1);
    private (string Name, IReadOnlyList<Giveaway> Found)? _giveaways;

    /// <summary>Makes it of a pack.</summary>
    public ReadyFlora(FloraPack pack)
    {
        ArgumentNullException.ThrowIfNull(pack);
        Pack = pack;
        Sifter = new Sifter(pack.Columns, pack.Taxa, pack.Seasons);
        Table = new CharacterTable([.. pack.Columns.Columns.Select(c => c.Character)], [], pack.Seasons);
        _taxa = pack.Taxa.ToDictionary(t => t.Id, StringComparer.Ordinal);
    }

    /// <summary>Asks it something while nobody else does: it keeps what it has worked out, and isn't made to be asked twice at once. What
    /// is asked takes no time but that of its arithmetic: whatever else it needs is fetched before.</summary>
    /// <param name="question">What is asked.</param>
    /// <param name="stop">Ends the wait.</param>
    public async Task<T> AskAsync<T>(Func<ReadyFlora, T> question, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(question);
        await _asked.WaitAsync(stop).ConfigureAwait(false);
        try
        {
            return question(this);
        }
        finally
        {
            _asked.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _asked.Dispose();

    /// <summary>The pack.</summary>
    public FloraPack Pack { get; }

    /// <summary>The sifter.</summary>
    public Sifter Sifter { get; }

    /// <summary>Characters and seasons.</summary>
    public CharacterTable Table { get; private set; }

    private FloraBook? _book;
    private ShortNames? _shortNames;

    /// <summary>Its taxa by a few typed letters.</summary>
    public ShortNames ShortNames => _shortNames ??= new ShortNames(Pack.Taxa);

    /// <summary>The same flora made ready for reading: its pages and lists as the server makes them of the flora itself.</summary>
    public FloraBook Book =>
        _book ??= new FloraBook(
            new Flora(
                Pack.Id,
                Pack.Name,
                Pack.Taxa,
                new CharacterTable(
                    [.. Pack.Columns.Columns.Select(c => c.Character)],
                    [
                        .. Pack
                            .Taxa.Where(t => Pack.Columns.IndexOf(t.Id) >= 0)
                            .Select(t => new TaxonDescription(
                                t.Id,
                                [
                                    .. Pack
                                        .Columns.Columns.Select(c => Pack.Columns.Describe(t.Id, c.Character.Id))
                                        .OfType<CharacterDescription>(),
                                ]
                            )),
                    ],
                    Pack.Seasons
                )
            )
        );

    /// <summary>Has looks at characters count that the flora doesn't describe, as far as something follows from those that it
    /// does.</summary>
    /// <param name="botany">The parts and qualities that characters are made of; null: only the flora's own characters.</param>
    public ReadyFlora With(BotanyIndex? botany)
    {
        Given = botany;
        if (botany is not null && Pack.Published is { } published)
            botany = published.In(botany);
        Sifter.Botany = botany;
        Table = Table with { Botany = botany };
        return this;
    }

    /// <summary>The parts and qualities that it was given last; what it was published with keeps its meaning among them.</summary>
    public BotanyIndex? Given { get; private set; }

    /// <summary>Name of a taxon.</summary>
    public string NameOf(string taxon) => taxon == Sifter.NotOnList ? "Not on this list" : _taxa.GetValueOrDefault(taxon)?.Name ?? taxon;

    /// <summary>A taxon by its id; null where the flora hasn't it.</summary>
    public Taxon? Find(string taxon) => _taxa.GetValueOrDefault(taxon);

    /// <summary>What is alone on the list of a query; of the last list it is known.</summary>
    public IReadOnlyList<Giveaway> GiveawaysOf(SiftQuery query)
    {
        ArgumentNullException.ThrowIfNull(query);
        var listed = Sifter.Listed(query);
        var name = string.Concat(listed.Select(l => l ? '1' : '0'));
        if (_giveaways is { } known && known.Name == name)
            return known.Found;
        var found = Giveaways.Of(Sifter.Columns, listed);
        _giveaways = (name, found);
        return found;
    }

    /// <summary>Reads the binary form of a flora.</summary>
    /// <exception cref="PackFormatException">It is no pack of this version.</exception>
    public static ReadyFlora Read(byte[] pack) => new(PackFile.Read(pack));

    /// <summary>Writes a flora in its binary form.</summary>
    /// <param name="flora">The flora.</param>
    /// <param name="published">The vocabulary that it was published with; null where it names none.</param>
    public static byte[] Write(Flora flora, Vocabulary? published = null) => PackFile.Write(flora, published);
}
