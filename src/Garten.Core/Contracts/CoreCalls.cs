using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Garten.Core.Botany;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Core.Packs;

namespace Garten.Core.Contracts;

/// <summary>A request that is answered from a flora.</summary>
public interface IFloraRequest
{
    /// <summary>Id of the flora.</summary>
    string FloraId { get; }
}

/// <summary>A request that names a place of the records; only a host that keeps them knows what the place is like.</summary>
public interface IPlacedRequest
{
    /// <summary>Id or name of the place as the request gives it; null or empty where it names none, or already says what it is
    /// like.</summary>
    string? PlaceToFind { get; }

    /// <summary>The place's field in the request, for what is wrong with it.</summary>
    string PlaceField { get; }

    /// <summary>The same request with what the place is like.</summary>
    IPlacedRequest At(SiftPlace place);
}

/// <summary>A request that is answered from a shelf of keys.</summary>
public interface IShelfRequest
{
    /// <summary>Hashes of the key versions that have to be on the shelf besides the newest of each key.</summary>
    IEnumerable<string> Versions { get; }
}

/// <summary>What a call is answered from.</summary>
public enum CoreNeed
{
    /// <summary>The request alone.</summary>
    Nothing,

    /// <summary>Parts and qualities.</summary>
    Vocabulary,

    /// <summary>The flora that the request names.</summary>
    Flora,

    /// <summary>The shelf of keys, and the flora where there is one.</summary>
    Shelf,
}

/// <summary>A question that the core answers, in either host: declared once, and served from here by the browser's worker, its typed client
/// and, where it has an address, by the server.</summary>
public abstract class CoreCall
{
    private protected CoreCall(string name, CoreNeed need, string? address, string summary) =>
        (Name, Need, Address, Summary) = (name, need, address, summary);

    /// <summary>Its name, in camel case.</summary>
    public string Name { get; }

    /// <summary>What it is answered from.</summary>
    public CoreNeed Need { get; }

    /// <summary>Its address below the root of the API; null where only the worker is asked.</summary>
    public string? Address { get; }

    /// <summary>What it answers, in one sentence.</summary>
    public string Summary { get; }

    /// <summary>The request's type.</summary>
    public abstract Type RequestType { get; }

    /// <summary>The answer's type.</summary>
    public abstract Type AnswerType { get; }

    /// <summary>Answers JSON with JSON.</summary>
    /// <param name="request">The request.</param>
    /// <param name="session">What the host holds.</param>
    /// <exception cref="JsonException">It is no such request.</exception>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    /// <exception cref="InvalidOperationException">The flora that it names isn't loaded.</exception>
    public abstract string Answer(string request, CoreSession session);

    /// <summary>Answers a request.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    /// <exception cref="InvalidOperationException">The flora that it names isn't loaded.</exception>
    public abstract object Answer(object request, CoreSession session, CancellationToken stop);
}

// What a type is written like is made at its first call: for all of them it would take an interpreted core three seconds.
internal sealed class CoreCall<TRequest, TAnswer>(
    string name,
    CoreNeed need,
    Func<CoreJson, JsonTypeInfo<TRequest>> requestType,
    Func<CoreJson, JsonTypeInfo<TAnswer>> answerType,
    Func<TRequest, CoreSession, CancellationToken, TAnswer> answer,
    string? address,
    string summary
) : CoreCall(name, need, address, summary)
    where TRequest : notnull
    where TAnswer : notnull
{
    public override Type RequestType => typeof(TRequest);

    public override Type AnswerType => typeof(TAnswer);

    public override string Answer(string request, CoreSession session) =>
        JsonSerializer.Serialize(
            answer(
                JsonSerializer.Deserialize(request, requestType(CoreJson.Default)) ?? throw new JsonException("null is no request."),
                session,
                default
            ),
            answerType(CoreJson.Default)
        );

    public override object Answer(object request, CoreSession session, CancellationToken stop) => answer((TRequest)request, session, stop);
}

/// <summary>All questions that the core answers.</summary>
public static class CoreCalls
{
    /// <summary>In the order in which a plant meets them.</summary>
    public static IReadOnlyList<CoreCall> All { get; } =
    [
        OfRequest(
            "readKeyText",
            j => j.ReadKeyTextRequest,
            j => j.KeyReading,
            (r, _) => KeyTextReader.Read(r.Text),
            null,
            "Reads a key text in full: couplets, leads and where each goes."
        ),
        OfShelf(
            "walk",
            j => j.WalkRequest,
            j => j.WalkState,
            (r, session) => r.Follow(session.Shelf),
            "keys/walk",
            "Follows keys by the answers given."
        ),
        OfShelf(
            "bench",
            j => j.BenchRequest,
            j => j.BenchState,
            (r, session) => r.Follow(session.Shelf),
            "keys/bench",
            "Follows keys with a sheet of evidence and weighs couplets and taxa."
        ),
        OfShelf(
            "outlook",
            j => j.OutlookRequest,
            j => j.IReadOnlyListKeyOutlook,
            (r, session) => r.Look(session.Shelf),
            "keys/outlook",
            "Which couplets of which keys can't be answered on a day with the tools at hand."
        ),
        OfShelf(
            "statements",
            j => j.StatementsRequest,
            j => j.IReadOnlyListCoupletReadings,
            (r, session) => r.Find(session.Shelf),
            null,
            "The statements of a key version with their readings."
        ),
        OfShelf(
            "keyReading",
            j => j.KeyReadingRequest,
            j => j.ReadKey,
            (r, session) => r.Read(session.Shelf),
            "keys/reading",
            "A key version as its statements are read: how much of it is weighed, what is to be chosen, and the words that would open most."
        ),
        OfShelf(
            "teachingPreview",
            j => j.TeachingPreviewRequest,
            j => j.TeachingPreview,
            (r, session) => r.Look(session.Shelf),
            "keys/teaching",
            "What teaching a word changes in the keys that are there, seen before it is taught."
        ),
        OfShelf(
            "keysParting",
            j => j.KeysPartingRequest,
            j => j.KeyParting,
            (r, session) => r.Find(session.Shelf),
            "keys/parting",
            "Where the keys part some taxa, beside what the descriptions say and what was seen, and what can't be right together."
        ),
        OfShelf(
            "measure",
            j => j.MeasureRequest,
            j => j.MeasureResponse,
            (r, session) => r.Read(session.Shelf, session.Flora?.Sifter.Columns),
            null,
            "Reads readings as typed: n, mean, range and interval, and what is wrong with them."
        ),
        OfFlora(
            "sift",
            j => j.SiftRequest,
            j => j.SiftResponse,
            (r, flora) => r.Sift(flora),
            "identify/sift",
            "Sifts a flora by what was seen, in any order: the standing, and the looks that help most."
        ),
        OfFlora(
            "stand",
            j => j.StandRequest,
            j => j.StandResponse,
            (r, flora) => r.Judge(flora),
            "identify/stand",
            "Judges plants of one stand together: what most of it is, whether it is mixed, and each plant."
        ),
        OfFlora(
            "contrast",
            j => j.ContrastRequest,
            j => j.ContrastResult,
            (r, flora) => r.Compare(flora),
            "identify/contrast",
            "Holds 2 to 8 taxa against each other: the characters that separate them, each pair, and the smallest set for all."
        ),
        OfFlora(
            "confirm",
            j => j.ConfirmRequest,
            j => j.ConfirmResult,
            (r, flora) => r.Confirm(flora),
            "identify/confirm",
            "Says how well a name stands by a sheet: checks, grade, look-alikes, what to report it as, and what is still open with "
                + "when it can be seen."
        ),
        OfFlora(
            "giveaways",
            j => j.GiveawayRequest,
            j => j.GiveawayResponse,
            (r, flora) => r.Find(flora),
            "identify/giveaways",
            "States that are alone on a list: one look names the plant."
        ),
        OfFlora(
            "describe",
            j => j.DescribeRequest,
            j => j.IReadOnlyListDescribedTaxon,
            (r, flora) => r.Describe(flora),
            "identify/describe",
            "Taxa with what they are like, for their plates; without a list of taxa all of the flora, by name alone."
        ),
        OfFlora(
            "findTaxa",
            j => j.TaxonListRequest,
            j => j.TaxonList,
            (r, flora) => r.List(flora),
            null,
            "The taxa of a flora by any of their names, family, growth form, origin, season or grid cell, as the server lists them."
        ),
        new CoreCall<TaxonPageRequest, TaxonPage>(
            "taxonPage",
            CoreNeed.Flora,
            j => j.TaxonPageRequest,
            j => j.TaxonPage,
            (r, session, _) => r.Make(session.Loaded(r.FloraId), session.Shelf.Keys),
            null,
            "Everything that is known of a taxon, as the server makes its page."
        ),
        OfFlora(
            "near",
            j => j.NearRequest,
            j => j.NearResponse,
            (r, flora) => r.Find(flora),
            "identify/near",
            "The taxa that one is taken for: declared look-alikes, and the nearest by description; and those to hold it against."
        ),
        OfFlora(
            "year",
            j => j.SeasonRequest,
            j => j.SeasonResponse,
            (r, flora) => r.Look(flora),
            "seasons/year",
            "The year of a list of taxa at a site: phenophases, when each catches the eye and when it can be named, with the shift "
                + "worked out."
        ),
        OfFlora(
            "inSeason",
            j => j.InSeasonRequest,
            j => j.IReadOnlyListPlaceInSeason,
            (r, flora) => r.Look(flora),
            "seasons/now",
            "What flowers, fruits and can be named at some places on a day, by the flora and this year's firsts."
        ),
        OfFlora(
            "figures",
            j => j.FiguresRequest,
            j => j.IReadOnlyListTaxonFigure,
            (r, flora) => r.Draw(flora),
            "identify/figures",
            "Taxa as small figures for a list: what each is like in the organ that is asked for, or that tells most on a day."
        ),
        new CoreCall<VisitsRequest, VisitsResponse>(
            "planVisits",
            CoreNeed.Nothing,
            j => j.VisitsRequest,
            j => j.VisitsResponse,
            (r, _, stop) => r.Plan(stop),
            "seasons/visits",
            "The fewest days at each place that answer all needs, within 365 days from a date."
        ),
        OfRequest(
            "moveVisit",
            j => j.MoveVisitRequest,
            j => j.MovedVisit,
            (r, _) => r.Move(),
            "seasons/visits/move",
            "What a visit still answers on another date, and what is lost."
        ),
        OfRequest(
            "questionStatus",
            j => j.QuestionStatusRequest,
            j => j.IReadOnlyListQuestionStatus,
            (r, _) => r.Tell(),
            "seasons/standings",
            "Which questions can be answered on a day, until when, and which were looked at too early."
        ),
        OfRequest(
            "questions",
            j => j.QuestionsRequest,
            j => j.IReadOnlyListQuestionOnDay,
            (r, _) => r.Tell(),
            null,
            "All that is open of plants and populations, as it stands on a day."
        ),
        OfRequest(
            "survey",
            j => j.SurveyDocument,
            j => j.IReadOnlyListSurveyWhole,
            (r, _) => r.Tell(),
            null,
            "A survey with what waits on the device put into it."
        ),
        OfRequest(
            "surveyFigures",
            j => j.SurveyFiguresRequest,
            j => j.SurveyFigures,
            (r, session) => r.WorkOut(new TaxonIndex(session.Flora?.Pack.Taxa ?? [])),
            null,
            "The figures of a survey by list, plot, place, year or group, with tables of frequency and indicators."
        ),
        OfRequest(
            "surveyArrangement",
            j => j.SurveyArrangementRequest,
            j => j.SurveyArrangement,
            (r, _) => r.WorkOut(),
            null,
            "How the recordings of a survey lie to each other: principal coordinates and a tree."
        ),
        OfRequest(
            "surveyChange",
            j => j.SurveyChangeRequest,
            j => j.IReadOnlyListSurveyChange,
            (r, _) => r.WorkOut(),
            null,
            "What changed in a survey's permanent plots between two years, with intervals, beside what two recordings of one day differ by."
        ),
        OfRequest(
            "surveyOccupancy",
            j => j.SurveyOccupancyRequest,
            j => j.SurveyOccupancy,
            (r, _) => r.WorkOut(),
            null,
            "At how many of a survey's places a taxon is, and how surely a visit finds it."
        ),
        OfRequest(
            "surveyStanding",
            j => j.SurveyStandingRequest,
            j => j.SurveyStanding,
            (r, _) => r.Tell(),
            null,
            "What a survey wants done in a year, and what became of the taxa that it seeks."
        ),
        OfRequest(
            "surveyPlan",
            j => j.SurveyPlanRequest,
            j => j.SurveyPlan,
            (r, _) => r.Plan(),
            null,
            "The fewest days on which a survey's work is done and what is open of the plants at its places is answered."
        ),
        OfRequest(
            "checkPlot",
            j => j.PlotCheckRequest,
            j => j.IReadOnlyListPlotProblem,
            (r, _) => r.Check(),
            null,
            "What can't be so in the recording of a plot; nothing where it is sound."
        ),
        OfRequest(
            "layPlots",
            j => j.LayPlotsRequest,
            j => j.IReadOnlyListPlacedPlot,
            (r, _) => r.Lay(),
            "surveys/plots/lay",
            "Spots for plots within a boundary, by chance from a seed, within parts, or on a grid."
        ),
        OfRequest(
            "surveyDesign",
            j => j.SurveyDesignRequest,
            j => j.SurveyDesignAnswer,
            (r, _) => r.WorkOut(),
            "surveys/design",
            "How many plots see a change, and how many visits find a plant that is there."
        ),
        OfFlora(
            "standGradient",
            j => j.StandGradientRequest,
            j => j.StandGradientAnswer,
            (r, flora) => r.WorkOut(flora),
            "identify/stand-gradient",
            "Marked plants of a place between two parents measured there, as points on a line; and which parents may be compared."
        ),
        OfRequest(
            "gradient",
            j => j.GradientRequest,
            j => j.GradientAnswer,
            (r, _) => r.WorkOut(),
            "identify/gradient",
            "Plants of a stand between two parents measured at the same place, as points on a line."
        ),
        OfRequest(
            "arrangement",
            j => j.ArrangementRequest,
            j => j.Arrangement,
            (r, _) => r.WorkOut(),
            "surveys/arrangement",
            "How samples lie to each other: principal coordinates and average linkage of their distances."
        ),
        OfRequest(
            "indicators",
            j => j.IndicatorsRequest,
            j => j.IReadOnlyListIndicatorValue,
            (r, _) => r.WorkOut(),
            "surveys/indicators",
            "Which taxa stand for which group of samples: indicator values with a permutation test."
        ),
        OfRequest(
            "surveyComparison",
            j => j.SurveyComparisonRequest,
            j => j.SurveyComparison,
            (r, session) => r.WorkOut(new TaxonIndex(session.Flora?.Pack.Taxa ?? [])),
            null,
            "How two surveys differ, with intervals: taxa in a recording, and how often each taxon stands in one."
        ),
        OfRequest(
            "communityTable",
            j => j.CommunityTableRequest,
            j => j.CommunityTableAnswer,
            (r, _) => r.WorkOut(),
            "surveys/table",
            "The figures of a pasted table of samples and taxa, or what in it can't be used, at its line and cell."
        ),
        OfRequest(
            "statistics",
            j => j.StatisticsRequest,
            j => j.StatisticsResponse,
            (r, _) => r.WorkOut(),
            "surveys/statistics",
            "Figures of the samples of a survey: diversity, how many taxa there are in all, accumulation, how alike samples are."
        ),
        new CoreCall<TodayRequest, IReadOnlyList<NextVisit>>(
            "nextVisit",
            CoreNeed.Nothing,
            j => j.TodayRequest,
            j => j.IReadOnlyListNextVisit,
            (r, _, stop) => r.Next(stop),
            null,
            "The first visit behind a day, of the fewest that answer all that is open."
        ),
        OfRequest(
            "today",
            j => j.TodayRequest,
            j => j.TodayAnswer,
            (r, _) => r.Tell(),
            null,
            "What to do on a day: where to go, what closes, what was looked at too early, what has to be acted on."
        ),
        OfRequest(
            "places",
            j => j.Waiting,
            j => j.IReadOnlyListPlace,
            (r, _) => r.AllPlaces(),
            null,
            "The places, with what waits on the device to be sent."
        ),
        OfRequest(
            "plant",
            j => j.PlantDocument,
            j => j.IReadOnlyListPlantDetail,
            (r, session) => r.Tell(session),
            null,
            "A plant, with what waits on the device to be sent."
        ),
        OfRequest(
            "shelve",
            j => j.WaitingCommands,
            j => j.IReadOnlyListString,
            (r, session) => r.Shelve(session),
            null,
            "Puts keys that wait on the device to be sent on the shelf, and answers with their hashes."
        ),
        OfRequest(
            "keys",
            j => j.KeysDocument,
            j => j.IReadOnlyListKeySummary,
            (r, _) => r.Tell(),
            null,
            "The newest version of every key, with what waits on the device to be sent."
        ),
        OfRequest(
            "key",
            j => j.KeyDocument,
            j => j.IReadOnlyListKeyDetail,
            (r, _) => r.Tell(),
            null,
            "A version of a key, where it waits on the device to be sent too."
        ),
        OfRequest(
            "unreadable",
            j => j.HandedCommands,
            j => j.IReadOnlyListInt32,
            (r, _) => r.Unreadable(),
            null,
            "Which of some commands can't be read, by their places from 0."
        ),
        OfRequest(
            "records",
            j => j.RecordsDocument,
            j => j.IReadOnlyListRecordLine,
            (r, _) => r.Tell(),
            null,
            "The determinations of plants that are known as a whole, as lines of the record list."
        ),
        OfRequest(
            "foundPlants",
            j => j.FoundPlantsRequest,
            j => j.IReadOnlyListGuid,
            (r, session) => r.Find(session),
            null,
            "Of the plants that are searched those of a place, or whose tag or name holds a text."
        ),
        OfRequest(
            "plants",
            j => j.PlantsDocument,
            j => j.IReadOnlyListTaggedPlant,
            (r, session) => r.Tell(session),
            null,
            "Tagged plants, with what waits on the device to be sent."
        ),
        OfRequest(
            "populations",
            j => j.PopulationsDocument,
            j => j.IReadOnlyListPopulationDetail,
            (r, session) => r.Tell(session),
            null,
            "Populations, with what waits on the device to be sent."
        ),
        OfRequest(
            "grounds",
            j => j.GroundsDocument,
            j => j.IReadOnlyListPlaceGround,
            (r, _) => r.Tell(),
            null,
            "The grounds of places, with what waits on the device to be sent."
        ),
        OfRequest(
            "outline",
            j => j.OutlineRequest,
            j => j.OutlineAnswer,
            (r, _) => r.Tell(),
            null,
            "How large an outline is, and what is wrong with it."
        ),
        OfRequest(
            "walkedBoundary",
            j => j.WalkedBoundaryRequest,
            j => j.WalkedBoundary,
            (r, _) => r.Tell(),
            null,
            "The boundary of a place taken from the way that somebody went round it."
        ),
        OfRequest(
            "position",
            j => j.PositionRequest,
            j => j.String,
            (r, _) => r.Tell(),
            null,
            "Why a person would doubt a position; nothing where nobody would."
        ),
        OfRequest(
            "positionText",
            j => j.PositionTextRequest,
            j => j.PositionTextAnswer,
            (r, _) => r.Read(),
            null,
            "A typed position: a reference of a flora's grid, or latitude and longitude."
        ),
        OfRequest(
            "compartments",
            j => j.CompartmentsRequest,
            j => j.IReadOnlyListCompartment,
            (r, _) => r.Tell(),
            null,
            "The parts or squares of a place that lists are written for."
        ),
        OfRequest(
            "squares",
            j => j.SquaresRequest,
            j => j.SquaresAnswer,
            (r, _) => r.Tell(),
            null,
            "A place by its squares: what was recorded in each, and when somebody was there."
        ),
        OfRequest(
            "tracks",
            j => j.TracksRequest,
            j => j.IReadOnlyListTrack,
            (r, _) => r.Tell(),
            null,
            "Tracks put together of their pieces: ways, gaps, length."
        ),
        OfRequest(
            "nmea",
            j => j.NmeaRequest,
            j => j.NmeaAnswer,
            (r, _) => r.Read(),
            null,
            "Positions in what a receiver says (NMEA 0183)."
        ),
        OfRequest(
            "siteVisit",
            j => j.SiteVisitDocument,
            j => j.IReadOnlyListSiteVisit,
            (r, _) => r.Tell(),
            null,
            "A visit to a place, with what waits on the device to be sent."
        ),
        OfRequest(
            "siteVisits",
            j => j.SiteVisitsDocument,
            j => j.IReadOnlyListSiteVisitSummary,
            (r, _) => r.Tell(),
            null,
            "Visits to places, with what waits on the device to be sent."
        ),
        OfFlora(
            "plotName",
            j => j.PlotNameRequest,
            j => j.PlotNameAnswer,
            (r, flora) => r.Find(flora),
            "surveys/plots/name",
            "The taxon that some typed letters mean in a plot, with how much of it is there typed behind."
        ),
        OfFlora(
            "shortNames",
            j => j.ShortNameRequest,
            j => j.ShortNameAnswer,
            (r, flora) => r.Find(flora),
            "visits/names",
            "Taxa by a few typed letters: two of the genus and two of the epithet, three and three, four and three, or any beginnings."
        ),
        OfFlora(
            "nameList",
            j => j.NameListRequest,
            j => j.IReadOnlyListListedName,
            (r, flora) => r.Read(flora),
            "visits/read",
            "A list of names, one a line, as it is read: what each means, and what several taxa fit. Stores nothing."
        ),
        OfFlora(
            "listAdvice",
            j => j.ListAdviceRequest,
            j => j.ListAdvice,
            (r, flora) => r.Tell(flora),
            "visits/advice",
            "The list of a visit held against the flora: what is doubtful, new here, expected and not yet seen."
        ),
        OfRequest(
            "searchThrough",
            j => j.SearchedThings,
            j => j.Int32,
            (r, session) => r.Hold(session),
            null,
            "Holds what is searched from now on, in place of what was held before; answers with how many things that are."
        ),
        OfRequest(
            "search",
            j => j.SearchRequest,
            j => j.IReadOnlyListFindable,
            (r, session) => r.Find(session),
            null,
            "What is found of a text among the things that are searched, the taxa of a flora and the terms of the glossary."
        ),
        OfRequest("days", j => j.DaysRequest, j => j.IReadOnlyListDayDistance, (r, _) => r.Tell(), null, "How far days are from a day."),
        OfRequest(
            "looks",
            j => j.LooksRequest,
            j => j.IReadOnlyListLookInWords,
            (r, _) => r.Tell(),
            null,
            "Which looks of a sheet hold, in words."
        ),
        OfRequest("manner", j => j.MannerRequest, j => j.String, (r, _) => r.Tell(), null, "How a look is made, in words."),
        OfVocabulary(
            "readDescriptions",
            j => j.ReadDescriptionsRequest,
            j => j.DescribedInProse,
            (r, botany) => r.Read(botany),
            "descriptions/read",
            "Reads descriptions in the prose of a flora: a paragraph per taxon, each beginning with its name. Stores nothing."
        ),
        OfVocabulary(
            "readLooks",
            j => j.ReadLooksRequest,
            j => j.TypedLooks,
            (r, botany) => r.Read(botany),
            "vocabulary/looks",
            "Looks at a plant typed in words, as they are read: what would be recorded, and what is to be chosen. Stores nothing."
        ),
        OfVocabulary(
            "findCharacter",
            j => j.FindCharacterRequest,
            j => j.IReadOnlyListOfferedCharacter,
            (r, botany) => r.Find(botany),
            "vocabulary/find",
            "What a few typed words mean as part, quality, state and number, the likeliest first."
        ),
        OfVocabulary(
            "partQualities",
            j => j.PartQualitiesRequest,
            j => j.IReadOnlyListCharacter,
            (r, botany) => r.Find(botany),
            "vocabulary/part",
            "The characters that a part usually has."
        ),
        OfVocabulary(
            "qualities",
            j => j.QualitiesRequest,
            j => j.IReadOnlyListCharacter,
            (_, botany) => QualitiesRequest.Find(botany),
            null,
            "All qualities, each on a part that shows it."
        ),
        OfVocabulary(
            "composed",
            j => j.ComposedRequest,
            j => j.IReadOnlyListCharacter,
            (r, botany) => r.Find(botany),
            null,
            "Characters by ids made of part and quality."
        ),
        OfRequest(
            "ownPlants",
            j => j.OwnPlantsRequest,
            j => j.IReadOnlyListOwnPlant,
            (r, _) => r.Find(),
            null,
            "Of each taxon the own plant to compare with: confirmed before others, the nearest."
        ),
    ];

    private static readonly Dictionary<string, CoreCall> ByName = All.ToDictionary(c => c.Name, StringComparer.Ordinal);

    /// <summary>A call by its name.</summary>
    /// <exception cref="ArgumentException">There is none of this name.</exception>
    public static CoreCall Named(string name) =>
        ByName.GetValueOrDefault(name ?? "") ?? throw new ArgumentException($"The core answers no “{name}”.", nameof(name));

    private static CoreCall<TRequest, TAnswer> OfRequest<TRequest, TAnswer>(
        string name,
        Func<CoreJson, JsonTypeInfo<TRequest>> request,
        Func<CoreJson, JsonTypeInfo<TAnswer>> answerType,
        Func<TRequest, CoreSession, TAnswer> answer,
        string? address,
        string summary
    )
        where TRequest : notnull
        where TAnswer : notnull =>
        new(name, CoreNeed.Nothing, request, answerType, (r, session, _) => answer(r, session), address, summary);

    private static CoreCall<TRequest, TAnswer> OfVocabulary<TRequest, TAnswer>(
        string name,
        Func<CoreJson, JsonTypeInfo<TRequest>> request,
        Func<CoreJson, JsonTypeInfo<TAnswer>> answerType,
        Func<TRequest, BotanyIndex, TAnswer> answer,
        string? address,
        string summary
    )
        where TRequest : notnull
        where TAnswer : notnull =>
        new(name, CoreNeed.Vocabulary, request, answerType, (r, session, _) => answer(r, session.Loaded()), address, summary);

    private static CoreCall<TRequest, TAnswer> OfShelf<TRequest, TAnswer>(
        string name,
        Func<CoreJson, JsonTypeInfo<TRequest>> request,
        Func<CoreJson, JsonTypeInfo<TAnswer>> answerType,
        Func<TRequest, CoreSession, TAnswer> answer,
        string? address,
        string summary
    )
        where TRequest : IShelfRequest
        where TAnswer : notnull => new(name, CoreNeed.Shelf, request, answerType, (r, session, _) => answer(r, session), address, summary);

    private static CoreCall<TRequest, TAnswer> OfFlora<TRequest, TAnswer>(
        string name,
        Func<CoreJson, JsonTypeInfo<TRequest>> request,
        Func<CoreJson, JsonTypeInfo<TAnswer>> answerType,
        Func<TRequest, ReadyFlora, TAnswer> answer,
        string? address,
        string summary
    )
        where TRequest : IFloraRequest
        where TAnswer : notnull =>
        new(name, CoreNeed.Flora, request, answerType, (r, session, _) => answer(r, session.Loaded(r.FloraId)), address, summary);
}
