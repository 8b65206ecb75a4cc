using System.Text.Json.Serialization;
using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Language;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>
/// A change, made on a device with or without signal and sent when it can be. The id is made by the device (UUID version 7);
/// the same command sent again changes nothing.
/// </summary>
/// <param name="Id">Identity of the command.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(SaveKeysCommand), "saveKeys")]
[JsonDerivedType(typeof(SavePlaceCommand), "savePlace")]
[JsonDerivedType(typeof(RecordDeterminationCommand), "recordDetermination")]
[JsonDerivedType(typeof(TeachTermCommand), "teachTerm")]
[JsonDerivedType(typeof(CorrectStatementCommand), "correctStatement")]
[JsonDerivedType(typeof(TagPlantCommand), "tagPlant")]
[JsonDerivedType(typeof(VisitPlantCommand), "visitPlant")]
[JsonDerivedType(typeof(SavePopulationCommand), "savePopulation")]
[JsonDerivedType(typeof(CountPopulationCommand), "countPopulation")]
[JsonDerivedType(typeof(NoteThreatCommand), "noteThreat")]
[JsonDerivedType(typeof(DefineTermCommand), "defineTerm")]
[JsonDerivedType(typeof(SaveSiteVisitCommand), "saveSiteVisit")]
[JsonDerivedType(typeof(ListTaxonCommand), "listTaxon")]
[JsonDerivedType(typeof(WithdrawLineCommand), "withdrawLine")]
[JsonDerivedType(typeof(KeepTrackCommand), "keepTrack")]
[JsonDerivedType(typeof(WithdrawTrackCommand), "withdrawTrack")]
[JsonDerivedType(typeof(KeepDeliveryCommand), "keepDelivery")]
[JsonDerivedType(typeof(NoteVerdictCommand), "noteVerdict")]
[JsonDerivedType(typeof(CloseSiteVisitCommand), "closeSiteVisit")]
[JsonDerivedType(typeof(DescribePlaceCommand), "describePlace")]
[JsonDerivedType(typeof(MergePlaceCommand), "mergePlace")]
[JsonDerivedType(typeof(SaveSurveyCommand), "saveSurvey")]
[JsonDerivedType(typeof(SavePlotCommand), "savePlot")]
[JsonDerivedType(typeof(RecordPlotCommand), "recordPlot")]
[JsonDerivedType(typeof(WriteSurveyTextCommand), "writeSurveyText")]
[JsonDerivedType(typeof(KeepReportCommand), "keepReport")]
[JsonDerivedType(typeof(TakeInCommand), "takeIn")]
[JsonDerivedType(typeof(TakeBackCommand), "takeBack")]
[JsonDerivedType(typeof(EraseCommand), "erase")]
public abstract record Command(Guid Id);

/// <summary>Saves every key of a text; a key whose title is known already becomes its next version.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="Text">The key text as typed or pasted.</param>
/// <param name="Source">Where it is from and what may be done with it; left out: nothing is said of it, and what was said before
/// holds.</param>
public sealed record SaveKeysCommand(Guid Id, string Text, TextSource? Source = null) : Command(Id);

/// <summary>Adds a recording place.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="PlaceId">Identity of the place, made by the device.</param>
/// <param name="Name">Short name.</param>
/// <param name="Locality">Where it is, in words; may be empty.</param>
/// <param name="Latitude">WGS 84 decimal degrees, north positive.</param>
/// <param name="Longitude">WGS 84 decimal degrees, east positive.</param>
/// <param name="UncertaintyMetres">Radius of the circle that holds the place, in metres; above 0.</param>
/// <param name="Caution">What to mind there (tides, bog, rockfall); may be empty.</param>
/// <param name="Cell">Its cell in the grid of the flora, such as B2; may be empty.</param>
/// <param name="ElevationMetres">Metres above the sea; null where unknown.</param>
/// <param name="Habitats">The habitats it has, by the words of the flora; null where nothing is said.</param>
/// <param name="Version">Of a known place: the version that is changed; null to add one.</param>
/// <param name="IsAtRest">Whether it is no longer offered where one chooses a place; what was recorded there stays.</param>
public sealed record SavePlaceCommand(
    Guid Id,
    Guid PlaceId,
    string Name,
    string Locality,
    double Latitude,
    double Longitude,
    double UncertaintyMetres,
    string Caution,
    string Cell = "",
    double? ElevationMetres = null,
    IReadOnlyList<string>? Habitats = null,
    int? Version = null,
    bool IsAtRest = false
) : Command(Id);

/// <summary>A person as a command names them; the name is kept in one place and can be changed or erased there.</summary>
public sealed record PersonReference(Guid Id, string Name);

/// <summary>How a name was confirmed; the server works the grade out again from the sheet.</summary>
/// <param name="FloraId">The flora it was confirmed by.</param>
/// <param name="Taxon">Id of the taxon that was to be confirmed.</param>
/// <param name="Rules">Id of the table of grades.</param>
/// <param name="Planted">Whether the plant was planted; null where nobody said.</param>
/// <param name="Explanations">What the recorder says to concerns.</param>
/// <param name="Grade">The grade that the device came to; null where it doesn't say. Another one here is told, and overrules
/// nothing.</param>
public sealed record Confirming(
    string FloraId,
    string Taxon,
    string Rules,
    bool? Planted = null,
    IReadOnlyList<Explanation>? Explanations = null,
    Grade? Grade = null
)
{
    /// <summary>The question that was asked, to be asked again.</summary>
    /// <param name="place">Where the plant grows.</param>
    /// <param name="sheet">All looks at it.</param>
    /// <param name="date">The day of the name, <c>YYYY-MM-DD</c>.</param>
    public ConfirmRequest Of(Place place, IReadOnlyList<Observation> sheet, string date)
    {
        ArgumentNullException.ThrowIfNull(place);
        return new(
            FloraId,
            Taxon,
            Sheet: sheet,
            At: new Identification.SiftPlace(place.Cell, place.ElevationMetres, place.Habitats),
            Date: date,
            Rules: Rules,
            Planted: Planted,
            Explanations: Explanations
        );
    }
}

/// <summary>Adds a determination to the history of a plant. Earlier ones stay.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="DeterminationId">Identity of the determination.</param>
/// <param name="OccurrenceId">Identity of the plant seen on this day; the same for a second determination of the same look.</param>
/// <param name="PlantId">Identity of the plant.</param>
/// <param name="PlantLabel">What the plant is called by its recorder ("by the stile"); may be empty. Counts with its first
/// determination.</param>
/// <param name="PlaceId">Where it grows.</param>
/// <param name="EventDate">The day it was seen, <c>YYYY-MM-DD</c>; not in the future.</param>
/// <param name="Recorder">Who determined it.</param>
/// <param name="StartKey">Hash of the key version that the trail starts with; empty for a name found by sifting.</param>
/// <param name="Answers">The answers in their order; at least one, none without a key.</param>
/// <param name="Names">The taxa that the trail leaves standing, as the device worked them out: they are kept, and where others are come to
/// here that is a question beside them. Without a key: the names that the recorder leaves standing.</param>
/// <param name="Note">A note; may be empty.</param>
/// <param name="Observations">The looks at the plant that aren't kept yet; those known already by their id are passed over.</param>
/// <param name="Hand">Statements weighed by hand.</param>
/// <param name="Confirming">How the name was confirmed; null where it wasn't.</param>
/// <param name="KnownLast">The plant's last determination that the device knew, all zeros for none; null where it doesn't say. Where
/// another one came meanwhile, a name that overturns it needs no reason: both stand, with a question.</param>
public sealed record RecordDeterminationCommand(
    Guid Id,
    Guid DeterminationId,
    Guid OccurrenceId,
    Guid PlantId,
    string PlantLabel,
    Guid PlaceId,
    string EventDate,
    PersonReference Recorder,
    string StartKey,
    IReadOnlyList<TrailAnswer> Answers,
    IReadOnlyList<string> Names,
    string Note,
    IReadOnlyList<Observation>? Observations = null,
    IReadOnlyList<HandWeighing>? Hand = null,
    Confirming? Confirming = null,
    Guid? KnownLast = null
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

/// <summary>Teaches a word or phrase for a state: from now on statements that use it are read so.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="Character">Id of the character.</param>
/// <param name="State">Id of the state.</param>
/// <param name="Term">The word or phrase.</param>
/// <param name="Book">The book in whose texts alone it is read so: a key's source, or its title where none is said; left out: in
/// all.</param>
public sealed record TeachTermCommand(Guid Id, string Character, string State, string Term, string? Book = null) : Command(Id);

/// <summary>Sets the reading of a statement, wherever it stands in just these words.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="Text">The statement as typed.</param>
/// <param name="Claims">Its claims; empty: it stays text.</param>
public sealed record CorrectStatementCommand(Guid Id, string Text, IReadOnlyList<StatementClaim> Claims) : Command(Id);

/// <summary>Erases something on request, for good: a person's name, a plant with all that was recorded of it, or a single record, visit or
/// look. Its id stays, and whatever names it is answered <c>erased</c>.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="SubjectId">What is erased.</param>
public sealed record EraseCommand(Guid Id, Guid SubjectId) : Command(Id);

/// <summary>Something that was erased on request.</summary>
/// <param name="Id">Its id: all that stays of it.</param>
/// <param name="Kind">What it was: <c>person</c>, <c>plant</c>, <c>determination</c>, <c>occurrence</c>, <c>observation</c>, <c>visit</c>,
/// <c>line</c>,
/// or
/// <c>unknown</c> for what was never here.</param>
public sealed record ErasedSubject(Guid Id, string Kind);

/// <summary>What became of a command.</summary>
[JsonConverter(typeof(CamelCaseWords<CommandStatus>))]
public enum CommandStatus
{
    /// <summary>Done now.</summary>
    Applied,

    /// <summary>Done before; nothing was changed this time.</summary>
    Already,

    /// <summary>Refused; nothing was changed.</summary>
    Refused,

    /// <summary>The program failed at it; nothing was changed. It may be sent again.</summary>
    Failed,
}

/// <summary>What is wrong and where, after RFC 9457.</summary>
/// <param name="Title">What is wrong, in short.</param>
/// <param name="Status">The HTTP status that goes with it.</param>
/// <param name="Code">A stable name, such as <c>place.unknown</c>.</param>
/// <param name="Detail">What to do, as a sentence.</param>
/// <param name="Field">The field it concerns, in camel case; empty where none.</param>
/// <param name="Problems">The problems of a key text, where it is one that was refused.</param>
public sealed record ProblemReport(
    string Title,
    int Status,
    string Code,
    string Detail,
    string Field = "",
    IReadOnlyList<KeyProblem>? Problems = null
);

/// <summary>A version of a key that a command has saved or found saved.</summary>
public sealed record SavedKey(string Title, string Hash, int Version, bool IsNew);

/// <summary>The result of a command.</summary>
/// <param name="Id">The command.</param>
/// <param name="Status">What became of it.</param>
/// <param name="Problem">Why it was refused; null otherwise.</param>
/// <param name="Keys">The keys it saved, for a command that saves keys.</param>
public sealed record CommandResult(Guid Id, CommandStatus Status, ProblemReport? Problem = null, IReadOnlyList<SavedKey>? Keys = null);

/// <summary>A recording place.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Name">Short name.</param>
/// <param name="Locality">Where it is, in words; may be empty.</param>
/// <param name="Latitude">WGS 84 decimal degrees, north positive.</param>
/// <param name="Longitude">WGS 84 decimal degrees, east positive.</param>
/// <param name="UncertaintyMetres">Radius of the circle that holds it, in metres.</param>
/// <param name="Caution">What to mind there; may be empty.</param>
/// <param name="Cell">Its cell in the grid of the flora; may be empty.</param>
/// <param name="ElevationMetres">Metres above the sea; null where unknown.</param>
/// <param name="Habitats">The habitats it has; null where nothing is said.</param>
/// <param name="Version">Its version.</param>
/// <param name="IsAtRest">Whether it is no longer offered where one chooses a place.</param>
/// <param name="Merged">The places that were merged into it, by name; null where there are none.</param>
public sealed record Place(
    Guid Id,
    string Name,
    string Locality,
    double Latitude,
    double Longitude,
    double UncertaintyMetres,
    string Caution,
    string Cell = "",
    double? ElevationMetres = null,
    IReadOnlyList<string>? Habitats = null,
    int Version = 1,
    bool IsAtRest = false,
    IReadOnlyList<MergedPlace>? Merged = null
)
{
    /// <summary>The place that a command makes, or makes of one.</summary>
    /// <param name="it">The command.</param>
    /// <param name="version">The version that it gets.</param>
    public static Place Of(SavePlaceCommand it, int version)
    {
        ArgumentNullException.ThrowIfNull(it);
        return new Place(
            it.PlaceId,
            it.Name,
            it.Locality,
            it.Latitude,
            it.Longitude,
            it.UncertaintyMetres,
            it.Caution,
            it.Cell,
            it.ElevationMetres,
            it.Habitats ?? [],
            version,
            it.IsAtRest
        );
    }
}

/// <summary>One of the versions of a key.</summary>
public sealed record KeyVersionSummary(string Hash, int Version, DateTimeOffset AddedAt);

/// <summary>What a question about a determination is of.</summary>
[JsonConverter(typeof(CamelCaseWords<QuestionKind>))]
public enum QuestionKind
{
    /// <summary>By the same answers the key leads elsewhere here.</summary>
    Trail,

    /// <summary>How well the name stands, or which name is to be reported, comes out otherwise here.</summary>
    Grade,

    /// <summary>Somebody else named the plant otherwise meanwhile.</summary>
    Meanwhile,
}

/// <summary>A determination that was kept though something else is come to here: for a person to look at.</summary>
/// <param name="Kind">What it is of.</param>
/// <param name="Names">The names that are come to here; empty where none are.</param>
/// <param name="Says">It in a sentence.</param>
public sealed record DeterminationQuestion(QuestionKind Kind, IReadOnlyList<string> Names, string Says);

/// <summary>A determination as it was kept.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="OccurrenceId">The look at the plant that it belongs to.</param>
/// <param name="EventDate">The day the plant was seen.</param>
/// <param name="RecordedAt">When the determination was taken in.</param>
/// <param name="Recorder">Who determined it.</param>
/// <param name="Name">The name that holds: the taxon, the genus shared by an open set, or empty.</param>
/// <param name="Names">The taxa that were left standing; one for a settled name.</param>
/// <param name="StartKey">Hash of the key version it starts with.</param>
/// <param name="StartKeyTitle">Title of that key.</param>
/// <param name="Steps">The trail with the words that were read.</param>
/// <param name="Note">The note.</param>
/// <param name="Floras">Ids of the floras that were published then, with their versions.</param>
/// <param name="Confirmation">What stood for the name then, with its grade; null where it wasn't confirmed.</param>
/// <param name="Overturned">The names that it took the place of, and by what; null where it agrees with the one before.</param>
/// <param name="Questions">What is come to otherwise here; empty where nothing is.</param>
/// <param name="Cited">How a determination that a file brought was come to, in the words of its source; null for one made here.</param>
public sealed record DeterminationDetail(
    Guid Id,
    Guid OccurrenceId,
    DateOnly EventDate,
    DateTimeOffset RecordedAt,
    PersonReference Recorder,
    string Name,
    IReadOnlyList<string> Names,
    string StartKey,
    string StartKeyTitle,
    IReadOnlyList<TrailStep> Steps,
    string Note,
    IReadOnlyDictionary<string, int> Floras,
    ConfirmResult? Confirmation = null,
    Overturned? Overturned = null,
    IReadOnlyList<DeterminationQuestion>? Questions = null,
    CitedNaming? Cited = null
);

/// <summary>A plant with its history.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Label">What its recorder calls it; may be empty.</param>
/// <param name="Place">Where it grows.</param>
/// <param name="Determinations">Newest first.</param>
/// <param name="Taxa">The taxa of the flora that the newest determination names, for their cautions.</param>
/// <param name="Observations">Its evidence sheet: all looks at it, oldest first, superseded ones too.</param>
/// <param name="Visits">How it was found later, oldest first.</param>
/// <param name="TaggedOn">When it was tagged; null where it wasn't.</param>
/// <param name="Site">Where it stands; null where no position was taken.</param>
/// <param name="Finding">How to find it again.</param>
/// <param name="PopulationId">The population it is a marked plant of; null for a plant by itself.</param>
/// <param name="Version">Version of label, position and finding.</param>
/// <param name="Unreadable">Facts of it that can't be read; nothing is worked out with them.</param>
/// <param name="IsSensitive">Whether its place is kept back in whatever leaves the program.</param>
public sealed record PlantDetail(
    Guid Id,
    string Label,
    Place Place,
    IReadOnlyList<DeterminationDetail> Determinations,
    IReadOnlyList<Taxon> Taxa,
    IReadOnlyList<Observation> Observations,
    IReadOnlyList<PlantVisit> Visits,
    DateOnly? TaggedOn,
    PlantSite? Site,
    Finding Finding,
    Guid? PopulationId,
    int Version,
    IReadOnlyList<UnreadableFact> Unreadable,
    bool IsSensitive = false
)
{
    /// <summary>The year of what it is named as: each phenophase with its days; empty where the flora hasn't it.</summary>
    public IReadOnlyList<YearSpan> Year => YearSpan.Of(Taxa.Count > 0 ? Taxa[0] : null);

    /// <summary>How to find it again, in words; empty where nothing is said.</summary>
    public string FindingInWords => Finding.InWords();
}

/// <summary>A fact that contradicts another one.</summary>
/// <param name="Kind">What it is: a determination, a plant, a count, a threat.</param>
/// <param name="Id">Its identity.</param>
/// <param name="PlantId">The plant it is of; null where it is of none.</param>
/// <param name="Reason">What it contradicts, in a sentence.</param>
public sealed record Contradiction(string Kind, Guid Id, Guid? PlantId, string Reason);

/// <summary>A fact that can't be read: kept as it is, and told of.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="What">What it is of: a character, or a determination.</param>
/// <param name="Date">Its day; empty where that can't be read either.</param>
/// <param name="Reason">Why, in a sentence.</param>
public sealed record UnreadableFact(Guid Id, string What, string Date, string Reason);

/// <summary>A tagged plant in a list.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Label">What its tag says; may be empty.</param>
/// <param name="PlaceId">Where it grows.</param>
/// <param name="PlaceName">Name of that place.</param>
/// <param name="Names">The names it has; empty while it has none.</param>
/// <param name="TaggedOn">When it was tagged; null where it wasn't.</param>
/// <param name="LastSeen">The last day on which it was seen; null for never.</param>
/// <param name="State">How it was found last; null where it wasn't looked for again.</param>
/// <param name="PopulationId">The population it is pegged in; null for a plant by itself.</param>
/// <param name="IsSensitive">Whether its place is kept back in whatever leaves the program.</param>
public sealed record TaggedPlant(
    Guid Id,
    string Label,
    Guid PlaceId,
    string PlaceName,
    IReadOnlyList<string> Names,
    DateOnly? TaggedOn,
    DateOnly? LastSeen,
    PlantState? State,
    Guid? PopulationId,
    bool IsSensitive = false
)
{
    /// <summary>The years in which it was visited or named, in their order, each once.</summary>
    public IReadOnlyList<int> Years { get; init; } = [];

    /// <summary>The same plant with a further year.</summary>
    public TaggedPlant In(int year) => Years.Contains(year) ? this : this with { Years = [.. Years.Append(year).Order()] };
}

/// <summary>A line of the record list: one determination, or one line of the list of a visit.</summary>
/// <param name="DeterminationId">The determination, or the line.</param>
/// <param name="PlantId">The plant; null for a line of a list.</param>
/// <param name="PlantLabel">What the plant is called; may be empty.</param>
/// <param name="PlaceId">Where it grows.</param>
/// <param name="PlaceName">Name of that place.</param>
/// <param name="EventDate">The day it was seen.</param>
/// <param name="Recorder">Who determined it.</param>
/// <param name="Name">The name that holds, see <see cref="DeterminationDetail"/>.</param>
/// <param name="Names">The taxa that were left standing.</param>
/// <param name="Number">Which determination of the plant this is, from 1.</param>
/// <param name="OfPlant">How many the plant has.</param>
/// <param name="Note">The note.</param>
/// <param name="Grade">Its grade; null where it wasn't confirmed.</param>
/// <param name="IsSensitive">Whether its place is kept back in whatever leaves the program.</param>
/// <param name="IsInQuestion">Whether something else was come to where it was taken in.</param>
/// <param name="SiteVisitId">The visit whose list it is of; null for a determination.</param>
public sealed record RecordLine(
    Guid DeterminationId,
    Guid? PlantId,
    string PlantLabel,
    Guid PlaceId,
    string PlaceName,
    DateOnly EventDate,
    string Recorder,
    string Name,
    IReadOnlyList<string> Names,
    int Number,
    int OfPlant,
    string Note,
    Grade? Grade = null,
    bool IsSensitive = false,
    bool IsInQuestion = false,
    Guid? SiteVisitId = null
)
{
    /// <summary>A line of the list of a visit.</summary>
    public static RecordLine Of(ListLine line, Guid visit, Guid place, string placeName, DateOnly date)
    {
        ArgumentNullException.ThrowIfNull(line);
        return new(
            line.Id,
            null,
            "",
            place,
            placeName,
            date,
            line.Recorder,
            line.Called,
            [line.Called],
            1,
            1,
            string.Join(" · ", new[] { line.Compartment, line.Said }.Where(t => t.Length > 0)),
            SiteVisitId: visit
        );
    }
}

/// <summary>Which records are asked for.</summary>
[JsonConverter(typeof(CamelCaseWords<RecordsOf>))]
public enum RecordsOf
{
    /// <summary>All.</summary>
    All,

    /// <summary>Determinations of plants.</summary>
    Plants,

    /// <summary>Lines of lists.</summary>
    Lists,
}
