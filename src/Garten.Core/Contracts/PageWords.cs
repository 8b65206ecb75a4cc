using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Deliveries;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Identification;
using Garten.Core.Imports;
using Garten.Core.Keys;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>
/// The fixed words and values of the job that pages show: organs, phenophases, tools, days of the year, limits. They are written into the
/// description of the API and from there into a file of the web app, so that a page has them at hand without asking and none is written
/// down twice.
/// </summary>
public static class PageWords
{
    /// <summary>Organs as headings.</summary>
    public static IReadOnlyDictionary<Organ, string> Organs { get; } =
        new Dictionary<Organ, string>
        {
            [Organ.Habit] = "Whole plant",
            [Organ.Bark] = "Bark",
            [Organ.Twig] = "Twig",
            [Organ.Bud] = "Bud",
            [Organ.Leaf] = "Leaf",
            [Organ.Stem] = "Stem",
            [Organ.Inflorescence] = "Inflorescence",
            [Organ.Flower] = "Flower",
            [Organ.Fruit] = "Fruit",
            [Organ.Underground] = "Underground",
            [Organ.Site] = "Site",
        };

    /// <summary>What a command changes, by its name on the wire.</summary>
    public static IReadOnlyDictionary<string, string> Commands { get; } =
        new Dictionary<string, string>(StringComparer.Ordinal)
        {
            ["recordDetermination"] = "A plant’s name",
            ["visitPlant"] = "A visit to a plant",
            ["tagPlant"] = "A plant’s tag",
            ["savePlace"] = "A place",
            ["savePopulation"] = "A population",
            ["countPopulation"] = "A count",
            ["noteThreat"] = "A threat",
            ["saveKeys"] = "A key",
            ["defineTerm"] = "A term of the glossary",
            ["teachTerm"] = "A word for a state",
            ["correctStatement"] = "How a statement is read",
            ["describePlace"] = "The ground of a place",
            ["mergePlace"] = "Two places made one",
            ["saveSiteVisit"] = "A visit to a place",
            ["listTaxon"] = "A line of a list",
            ["withdrawLine"] = "A line taken back",
            ["keepTrack"] = "A piece of a track",
            ["withdrawTrack"] = "A track taken back",
            ["keepDelivery"] = "Records passed on",
            ["noteVerdict"] = "What a partner says",
            ["closeSiteVisit"] = "The end of a visit",
            ["saveSurvey"] = "A survey",
            ["savePlot"] = "A plot",
            ["recordPlot"] = "What a plot holds",
            ["writeSurveyText"] = "A sentence of a report",
            ["keepReport"] = "A report",
            ["takeIn"] = "A file of records",
            ["takeBack"] = "A file of records taken back",
            ["erase"] = "An erasure",
        };

    /// <summary>What a column of a table of records may hold.</summary>
    public static IReadOnlyDictionary<ImportField, string> ImportFields { get; } =
        new Dictionary<ImportField, string>
        {
            [ImportField.None] = "nothing that is taken in",
            [ImportField.Taxon] = "the taxon",
            [ImportField.VerbatimName] = "the name as it was given",
            [ImportField.EarlierNames] = "earlier names",
            [ImportField.Date] = "the day, month or year",
            [ImportField.Year] = "the year",
            [ImportField.Month] = "the month",
            [ImportField.Day] = "the day of the month",
            [ImportField.Time] = "the time of the day",
            [ImportField.Place] = "the place",
            [ImportField.PlaceId] = "id of the place",
            [ImportField.Compartment] = "the part of the place",
            [ImportField.Habitat] = "the habitat",
            [ImportField.Outline] = "boundary of the place (WKT)",
            [ImportField.Latitude] = "latitude",
            [ImportField.Longitude] = "longitude",
            [ImportField.Position] = "latitude and longitude",
            [ImportField.Uncertainty] = "uncertainty in metres",
            [ImportField.PlaceLatitude] = "latitude of the place",
            [ImportField.PlaceLongitude] = "longitude of the place",
            [ImportField.PlaceUncertainty] = "uncertainty of the place in metres",
            [ImportField.Recorder] = "who recorded it",
            [ImportField.VisitPeople] = "who was on the visit",
            [ImportField.Determiner] = "who named it",
            [ImportField.DeterminedOn] = "when it was named",
            [ImportField.NamedBy] = "key or book it was named with",
            [ImportField.NamingRemarks] = "what was said of the naming",
            [ImportField.Count] = "how many",
            [ImportField.Quantity] = "an amount",
            [ImportField.CountUnit] = "unit of the amount",
            [ImportField.Abundance] = "abundance (dominant to rare)",
            [ImportField.Phase] = "what it was doing",
            [ImportField.Sex] = "the sex seen",
            [ImportField.Growth] = "wild or planted",
            [ImportField.Status] = "present or absent",
            [ImportField.Associates] = "what grows with it",
            [ImportField.Note] = "a note",
            [ImportField.VisitNote] = "a note on the visit",
            [ImportField.Weather] = "the weather",
            [ImportField.Minutes] = "minutes of searching",
            [ImportField.Completeness] = "whether the list is complete",
            [ImportField.Scope] = "the group that was listed",
            [ImportField.RecordId] = "id of the record",
            [ImportField.VisitId] = "id of the visit",
            [ImportField.PlantId] = "id of the plant",
            [ImportField.PlantName] = "what the plant is called",
            [ImportField.Properties] = "further facts (JSON)",
        };

    /// <summary>What plots are.</summary>
    public static IReadOnlyDictionary<PlotKind, string> PlotKinds { get; } =
        new Dictionary<PlotKind, string>
        {
            [PlotKind.Quadrat] = "Quadrats",
            [PlotKind.NestedQuadrat] = "Nested quadrats",
            [PlotKind.FrequencyFrame] = "Frequency frames",
            [PlotKind.PointTransect] = "Transects of points",
            [PlotKind.BeltTransect] = "Belt transects",
        };

    /// <summary>Outlines of plots.</summary>
    public static IReadOnlyDictionary<PlotShape, string> PlotShapes { get; } =
        new Dictionary<PlotShape, string>
        {
            [PlotShape.Square] = "Square",
            [PlotShape.Circle] = "Circle",
            [PlotShape.Rectangle] = "Rectangle",
            [PlotShape.Line] = "Line",
        };

    /// <summary>How much of a taxon is noted in plots.</summary>
    public static IReadOnlyDictionary<PlotScale, string> PlotScales { get; } =
        new Dictionary<PlotScale, string>
        {
            [PlotScale.Percent] = "Cover in per cent",
            [PlotScale.SevenClasses] = "Braun-Blanquet, seven classes",
            [PlotScale.TenClasses] = "Domin, ten classes",
            [PlotScale.Presence] = "There or not",
            [PlotScale.Count] = "Individuals, counted",
            [PlotScale.Hits] = "Pins or cells hit",
        };

    /// <summary>When a plant counts as within a plot.</summary>
    public static IReadOnlyDictionary<RootingRule, string> RootingRules { get; } =
        new Dictionary<RootingRule, string>
        {
            [RootingRule.Rooted] = "Where it is rooted within",
            [RootingRule.Shoot] = "Where any part hangs within",
        };

    /// <summary>What is done with plants on the edge.</summary>
    public static IReadOnlyDictionary<EdgeRule, string> EdgeRules { get; } =
        new Dictionary<EdgeRule, string>
        {
            [EdgeRule.TwoSides] = "On two chosen sides they count",
            [EdgeRule.Within] = "They count",
            [EdgeRule.Without] = "They don’t count",
        };

    /// <summary>How the positions of plots were chosen.</summary>
    public static IReadOnlyDictionary<PlotPlacing, string> PlotPlacings { get; } =
        new Dictionary<PlotPlacing, string>
        {
            [PlotPlacing.Random] = "At random",
            [PlotPlacing.Stratified] = "At random within each part",
            [PlotPlacing.Systematic] = "On a grid with a random start",
            [PlotPlacing.Chosen] = "Chosen by a person",
        };

    /// <summary>How what a survey wants stands.</summary>
    public static IReadOnlyDictionary<SurveyTaskState, string> SurveyTaskStates { get; } =
        new Dictionary<SurveyTaskState, string>
        {
            [SurveyTaskState.Due] = "due",
            [SurveyTaskState.Late] = "late",
            [SurveyTaskState.Coming] = "to come",
            [SurveyTaskState.Done] = "done",
        };

    /// <summary>By what recordings of a survey are put together.</summary>
    public static IReadOnlyDictionary<SurveyUnit, string> SurveyUnits { get; } =
        new Dictionary<SurveyUnit, string>
        {
            [SurveyUnit.Each] = "each by itself",
            [SurveyUnit.Place] = "by place",
            [SurveyUnit.Year] = "by year",
            [SurveyUnit.Group] = "by group",
            [SurveyUnit.Cluster] = "by clusters",
        };

    /// <summary>What indicator values speak of.</summary>
    public static IReadOnlyDictionary<SiteFactor, string> SiteFactors { get; } =
        new Dictionary<SiteFactor, string>
        {
            [SiteFactor.Light] = "Light, 1 to 9",
            [SiteFactor.Moisture] = "Moisture, 1 to 12",
            [SiteFactor.Reaction] = "Reaction of the soil, 1 to 9",
            [SiteFactor.Nutrients] = "Nutrients, 1 to 9",
        };

    /// <summary>By what the taxa of a survey are divided.</summary>
    public static IReadOnlyDictionary<ShareBy, string> SharesBy { get; } =
        new Dictionary<ShareBy, string>
        {
            [ShareBy.Origin] = "By origin, after the flora",
            [ShareBy.Growth] = "Wild or planted, as recorded",
            [ShareBy.Habitat] = "By habitat, after the flora",
            [ShareBy.Part] = "By part of the place",
        };

    /// <summary>What is minded at the beginning of a visit to a place.</summary>
    public static IReadOnlyList<string> MindedAtStart { get; } =
    [
        "Somebody knows where you are and when you are back.",
        "Legs and arms covered: ticks.",
        "Boots and gear clean; of several sites the cleanest water first.",
    ];

    /// <summary>What is ticked off at its end.</summary>
    public static IReadOnlyList<string> MindedAtEnd { get; } =
    [
        "Boots and gear cleaned before the next site",
        "No fragment of an invasive plant carried away unsealed",
        "The contact told that all are back",
        "Looked for ticks",
    ];

    /// <summary>Groups of plants that a list may go through, as they are offered.</summary>
    public static IReadOnlyList<string> ListedGroups { get; } =
    ["Vascular plants", "Trees and shrubs", "Ferns and horsetails", "Grasses, sedges and rushes", "Water plants"];

    /// <summary>How fine a list may be, as it is offered.</summary>
    public static IReadOnlyList<string> ListedLevels { get; } =
    ["Species", "Species, critical groups as aggregates", "Genera and species as far as they could be told"];

    /// <summary>How far a list goes, as an answer to whether every taxon that was noticed and could be named is on it.</summary>
    public static IReadOnlyDictionary<Completeness, string> Completenesses { get; } =
        new Dictionary<Completeness, string>
        {
            [Completeness.Complete] = "Yes, all of them",
            [Completeness.Partial] = "No, some were passed over",
            [Completeness.Unsaid] = "I can’t say",
        };

    /// <summary>Sides of squares that are offered, in metres.</summary>
    public static IReadOnlyList<int> SquareSides { get; } = [25, 50, 100, 250, 500, 1_000];

    /// <summary>What a partner says of a record that was passed on.</summary>
    public static IReadOnlyDictionary<PartnerVerdict, string> PartnerVerdicts { get; } =
        new Dictionary<PartnerVerdict, string>
        {
            [PartnerVerdict.Accepted] = "Taken in",
            [PartnerVerdict.Queried] = "Asked about",
            [PartnerVerdict.Rejected] = "Not taken in",
        };

    /// <summary>What leave to record allows, as it is chosen.</summary>
    public static IReadOnlyDictionary<Allowed, string> AllowedThings { get; } =
        new Dictionary<Allowed, string>
        {
            [Allowed.Unsaid] = "nobody asked",
            [Allowed.Look] = "to look from the paths",
            [Allowed.Touch] = "to touch and measure",
            [Allowed.Take] = "to take pieces",
        };

    /// <summary>Whether a plant grows wild, as it is chosen.</summary>
    public static IReadOnlyDictionary<WildOrPlanted, string> Growths { get; } =
        new Dictionary<WildOrPlanted, string>
        {
            [WildOrPlanted.Wild] = "wild",
            [WildOrPlanted.Planted] = "planted",
            [WildOrPlanted.Escaped] = "escaped",
            [WildOrPlanted.Unsure] = "unsure",
        };

    /// <summary>What may be done with a text, in the order in which it is offered.</summary>
    public static IReadOnlyDictionary<TextLicence, string> Licences { get; } =
        Enum.GetValues<TextLicence>().ToDictionary(l => l, TextSource.LicenceInWords);

    /// <summary>Organs that a plant can be without for now: the whole of it and its site are always there.</summary>
    public static IReadOnlyList<Organ> OrgansThatMayLack { get; } =
    [.. Enum.GetValues<Organ>().Where(o => o is not (Organ.Habit or Organ.Site))];

    /// <summary>Phenophases as nouns: "no … yet" and "… over" can be said of each.</summary>
    public static IReadOnlyDictionary<Phenophase, string> Phases { get; } =
        new Dictionary<Phenophase, string>
        {
            [Phenophase.ShootsUp] = "shoots",
            [Phenophase.RestingBud] = "resting buds",
            [Phenophase.LeafBudOpening] = "buds opening",
            [Phenophase.Flower] = "flower",
            [Phenophase.FullLeaf] = "full leaf",
            [Phenophase.AutumnColour] = "autumn colour",
            [Phenophase.BareTwig] = "bare twig",
            [Phenophase.YoungFruit] = "young fruit",
            [Phenophase.RipeFruit] = "ripe fruit",
            [Phenophase.FruitPersisting] = "old fruit",
            [Phenophase.BudsSet] = "set buds",
            [Phenophase.WinterGreen] = "green in winter",
            [Phenophase.DeadLeavesHeld] = "dead leaves held",
            [Phenophase.DiedBack] = "died back",
            [Phenophase.RipeSpores] = "ripe spores",
        };

    /// <summary>Which organ of the year a phenophase belongs to in a strip of the year; phases that are shown nowhere are left
    /// out.</summary>
    public static IReadOnlyDictionary<string, IReadOnlyList<Phenophase>> YearRows { get; } =
        new Dictionary<string, IReadOnlyList<Phenophase>>
        {
            ["bud"] = [Phenophase.RestingBud, Phenophase.BareTwig],
            ["leaf"] = [Phenophase.FullLeaf, Phenophase.ShootsUp, Phenophase.WinterGreen],
            ["flower"] = [Phenophase.Flower],
            ["fruit"] = [Phenophase.YoungFruit, Phenophase.RipeFruit, Phenophase.FruitPersisting],
        };

    /// <summary>What a visit is asked for: the rest of a plant's year follows from its characters.</summary>
    public static IReadOnlyList<Phenophase> PhasesOfVisit { get; } =
    [Phenophase.LeafBudOpening, Phenophase.Flower, Phenophase.YoungFruit, Phenophase.RipeFruit, Phenophase.AutumnColour];

    /// <summary>How far a phenophase is, as an answer.</summary>
    public static IReadOnlyDictionary<PhaseStage, string> Stages { get; } =
        new Dictionary<PhaseStage, string>
        {
            [PhaseStage.NotYet] = "not yet",
            [PhaseStage.Shown] = "yes",
            [PhaseStage.Over] = "over",
            [PhaseStage.None] = "none this year",
        };

    /// <summary>A phenophase as it was found: "no flower yet", "flower over".</summary>
    /// <param name="phase">The phase.</param>
    /// <param name="stage">How far it was.</param>
    public static string Of(Phenophase phase, PhaseStage stage) =>
        stage switch
        {
            PhaseStage.NotYet => $"no {Phases[phase]} yet",
            PhaseStage.Over => $"{Phases[phase]} over",
            PhaseStage.None => $"no {Phases[phase]} this year",
            _ => Phases[phase],
        };

    /// <summary>How a plant was found.</summary>
    public static IReadOnlyDictionary<PlantState, string> PlantStates { get; } =
        new Dictionary<PlantState, string>
        {
            [PlantState.Alive] = "alive",
            [PlantState.Browsed] = "browsed",
            [PlantState.Cut] = "cut",
            [PlantState.Dead] = "dead",
            [PlantState.NotRefound] = "not refound",
        };

    /// <summary>Tools by name.</summary>
    public static IReadOnlyDictionary<Tool, string> Tools { get; } =
        new Dictionary<Tool, string>
        {
            [Tool.Eye] = "eye",
            [Tool.Lens] = "hand lens",
            [Tool.Ruler] = "ruler",
            [Tool.Binoculars] = "binoculars",
            [Tool.Knife] = "knife",
            [Tool.Microscope] = "microscope",
        };

    /// <summary>How one looks with each tool.</summary>
    public static IReadOnlyDictionary<Tool, string> WithTool { get; } =
        new Dictionary<Tool, string>
        {
            [Tool.Eye] = "by eye",
            [Tool.Lens] = "with a hand lens",
            [Tool.Ruler] = "with a ruler",
            [Tool.Binoculars] = "with binoculars",
            [Tool.Knife] = "with a knife",
            [Tool.Microscope] = "under a microscope",
        };

    /// <summary>What to bring for a look; nothing for the eye.</summary>
    public static IReadOnlyDictionary<Tool, string> ToBring { get; } =
        new Dictionary<Tool, string>
        {
            [Tool.Eye] = "",
            [Tool.Lens] = "a hand lens",
            [Tool.Ruler] = "a ruler",
            [Tool.Binoculars] = "binoculars",
            [Tool.Knife] = "a knife",
            [Tool.Microscope] = "a microscope",
        };

    /// <summary>What is allowed at most, or what a character asks of the plant.</summary>
    public static IReadOnlyDictionary<Handling, string> Handlings { get; } =
        new Dictionary<Handling, string>
        {
            [Handling.Look] = "only look",
            [Handling.Touch] = "touch",
            [Handling.TakeAPiece] = "take a piece",
            [Handling.Cut] = "cut",
            [Handling.Uproot] = "uproot",
        };

    /// <summary>What a look does to the plant.</summary>
    public static IReadOnlyDictionary<Handling, string> HandlingOfLook { get; } =
        new Dictionary<Handling, string>
        {
            [Handling.Look] = "looking is enough",
            [Handling.Touch] = "touch it",
            [Handling.TakeAPiece] = "takes a piece of the plant",
            [Handling.Cut] = "cuts the plant",
            [Handling.Uproot] = "digs the plant up",
        };

    /// <summary>Handling that takes from the plant: only where law and landowner allow it.</summary>
    public static IReadOnlyList<Handling> HandlingThatTakes { get; } = [.. Enum.GetValues<Handling>().Where(h => h > Handling.Touch)];

    /// <summary>Grades, least first.</summary>
    public static IReadOnlyDictionary<Grade, string> Grades { get; } =
        new Dictionary<Grade, string>
        {
            [Grade.Tentative] = "Tentative",
            [Grade.Reasoned] = "Supported",
            [Grade.Corroborated] = "Well supported",
            [Grade.Confirmed] = "Fully supported",
            [Grade.Verified] = "Verified",
        };

    /// <summary>What a plant is reported as, besides a species.</summary>
    public static IReadOnlyDictionary<ReportKind, string> ReportKinds { get; } =
        new Dictionary<ReportKind, string>
        {
            [ReportKind.Undetermined] = "",
            [ReportKind.Species] = "",
            [ReportKind.Aggregate] = "an aggregate",
            [ReportKind.Genus] = "a genus",
            [ReportKind.Family] = "a family",
            [ReportKind.Hybrid] = "a hybrid",
        };

    /// <summary>What a name is checked for.</summary>
    public static IReadOnlyDictionary<CheckKind, string> Checks { get; } =
        new Dictionary<CheckKind, string>
        {
            [CheckKind.Lead] = "Lead",
            [CheckKind.Diagnostics] = "Diagnostic characters",
            [CheckKind.LookAlikes] = "Look-alikes",
            [CheckKind.Conflicts] = "Conflicts",
            [CheckKind.Coverage] = "Organs and seasons",
            [CheckKind.Material] = "Material",
            [CheckKind.Season] = "In season",
            [CheckKind.Presence] = "Recorded here",
            [CheckKind.Elevation] = "Elevation",
            [CheckKind.Habitat] = "Habitat",
            [CheckKind.Origin] = "Origin",
        };

    /// <summary>What came of a check; what stands in the way comes first.</summary>
    public static IReadOnlyDictionary<CheckVerdict, string> Verdicts { get; } =
        new Dictionary<CheckVerdict, string>
        {
            [CheckVerdict.Fail] = "fails",
            [CheckVerdict.Concern] = "concern",
            [CheckVerdict.Open] = "open",
            [CheckVerdict.Pass] = "passes",
        };

    /// <summary>Why a couplet can't be answered today.</summary>
    public static IReadOnlyDictionary<BlockReason, string> BlockReasons { get; } =
        new Dictionary<BlockReason, string>
        {
            [BlockReason.Season] = "not at this time of the year",
            [BlockReason.Tool] = "a tool is missing",
            [BlockReason.Handling] = "more handling than is allowed",
        };

    /// <summary>How a statement stands to what was seen.</summary>
    public static IReadOnlyDictionary<StatementFit, string> StatementFits { get; } =
        new Dictionary<StatementFit, string>
        {
            [StatementFit.Fits] = "fits",
            [StatementFit.AtTheEdge] = "at the edge",
            [StatementFit.Doubtful] = "doubtful",
            [StatementFit.Conflicts] = "conflicts",
            [StatementFit.NotSeen] = "not seen",
            [StatementFit.Unread] = "weigh by hand",
        };

    /// <summary>Where a taxon comes from.</summary>
    public static IReadOnlyDictionary<Origin, string> Origins { get; } =
        new Dictionary<Origin, string>
        {
            [Origin.Unsaid] = "",
            [Origin.Native] = "native",
            [Origin.Introduced] = "introduced",
            [Origin.Doubtful] = "doubtfully native",
        };

    /// <summary>What a character is like.</summary>
    public static IReadOnlyDictionary<CharacterKind, string> CharacterKinds { get; } =
        new Dictionary<CharacterKind, string>
        {
            [CharacterKind.Categorical] = "states",
            [CharacterKind.Ordered] = "ordered states",
            [CharacterKind.Count] = "count",
            [CharacterKind.Length] = "length",
            [CharacterKind.Ratio] = "number",
            [CharacterKind.Angle] = "angle",
        };

    /// <summary>What a part is like in space.</summary>
    public static IReadOnlyDictionary<PartClass, string> PartClasses { get; } =
        new Dictionary<PartClass, string>
        {
            [PartClass.Plant] = "a whole plant",
            [PartClass.Axis] = "long, carrying others: a stem, a stalk",
            [PartClass.Blade] = "flat, with two faces: a leaf, a petal, a scale",
            [PartClass.Body] = "solid: a fruit, a bud, an ovary",
            [PartClass.Set] = "several together: an inflorescence, a crown",
            [PartClass.Line] = "thin and long: a hair, a vein, a stamen",
            [PartClass.Mark] = "a patch or scar of a surface",
            [PartClass.Cavity] = "a hollow: pith, throat, groove",
            [PartClass.Surface] = "what covers another part: bark",
            [PartClass.Edge] = "the edge of a blade",
            [PartClass.Tip] = "the far end of a part",
            [PartClass.Base] = "the near end of a part",
            [PartClass.Fluid] = "what flows: sap",
            [PartClass.Place] = "where the plant grows",
        };

    // How surely a quality is scored right, for one who defines one: few can say it in figures.
    private static readonly (double Value, string Words)[] Reliabilities =
    [
        (0.95, "nearly always"),
        (0.88, "mostly"),
        (0.8, "often wrong: one time in five"),
    ];

    // Seconds that a look at a newly defined quality is taken to need.
    private const int UsualEffort = 20;

    // A file larger than this isn't opened to make a small picture of it, so that a phone isn't brought to a stop.
    private const int LargestPictureFile = 20_000_000;

    /// <summary>All of it as the web app takes it.</summary>
    public static JsonObject Json()
    {
        var days = new JsonArray();
        for (var day = new DateOnly(2001, 1, 1); day.Year == 2001; day = day.AddDays(1))
            days.Add($"{day:MM-dd}");
        return new JsonObject
        {
            ["mindedAtStart"] = Texts(MindedAtStart),
            ["mindedAtEnd"] = Texts(MindedAtEnd),
            ["listedGroups"] = Texts(ListedGroups),
            ["listedLevels"] = Texts(ListedLevels),
            ["completenesses"] = Words(Completenesses),
            ["partnerVerdicts"] = Words(PartnerVerdicts),
            ["squareSides"] = new JsonArray([.. SquareSides.Select(s => (JsonNode)s)]),
            ["abundances"] = Words(Enum.GetValues<Abundance>().ToDictionary(a => a, SiteVisitWords.Of)),
            ["allowed"] = Words(AllowedThings),
            ["growths"] = Words(Growths),
            ["doing"] = Words(Enum.GetValues<Phenophase>().ToDictionary(p => p, SiteVisitWords.Of)),
            ["sexes"] = Words(Enum.GetValues<PartSex>().Where(s => s != PartSex.Unsaid).ToDictionary(s => s, SiteVisitWords.Of)),
            ["commands"] = new JsonObject(Commands.Select(c => KeyValuePair.Create(c.Key, (JsonNode?)c.Value))),
            ["organs"] = Words(Organs),
            ["organsThatMayLack"] = Names(OrgansThatMayLack),
            ["phases"] = Words(Phases),
            ["phaseStages"] = new JsonObject(
                Phases.Keys.Select(p => KeyValuePair.Create(Name(p), (JsonNode?)Words(Stages.Keys.ToDictionary(s => s, s => Of(p, s)))))
            ),
            ["yearRows"] = new JsonObject(YearRows.Select(r => KeyValuePair.Create(r.Key, (JsonNode?)Names(r.Value)))),
            ["phasesOfVisit"] = Names(PhasesOfVisit),
            ["stages"] = Words(Stages),
            ["plantStates"] = Words(PlantStates),
            ["tools"] = Words(Tools),
            ["toBring"] = Words(ToBring),
            ["withTool"] = Words(WithTool),
            ["licences"] = Words(Licences),
            ["handlings"] = Words(Handlings),
            ["handlingOfLook"] = Words(HandlingOfLook),
            ["handlingThatTakes"] = Names(HandlingThatTakes),
            ["grades"] = Words(Grades),
            ["importFields"] = Words(ImportFields),
            ["plotKinds"] = Words(PlotKinds),
            ["plotShapes"] = Words(PlotShapes),
            ["plotScales"] = Words(PlotScales),
            ["rootingRules"] = Words(RootingRules),
            ["edgeRules"] = Words(EdgeRules),
            ["plotPlacings"] = Words(PlotPlacings),
            ["surveyTaskStates"] = Words(SurveyTaskStates),
            ["surveyUnits"] = Words(SurveyUnits),
            ["siteFactors"] = Words(SiteFactors),
            ["sharesBy"] = Words(SharesBy),
            ["reportKinds"] = Words(ReportKinds),
            ["countUnits"] = Words(Enum.GetValues<CountUnit>().ToDictionary(u => u, CountWords.Of)),
            ["countCare"] = new JsonArray([.. CountWords.Care.Select(c => (JsonNode?)c)]),
            ["checks"] = Words(Checks),
            ["verdicts"] = Words(Verdicts),
            ["blockReasons"] = Words(BlockReasons),
            ["statementFits"] = Words(StatementFits),
            ["origins"] = Words(Origins),
            ["characterKinds"] = Words(CharacterKinds),
            ["partClasses"] = Words(PartClasses),
            ["reliabilities"] = new JsonArray([
                .. Reliabilities.Select(r =>
                    (JsonNode?)new JsonObject { ["value"] = r.Value.ToString(CultureInfo.InvariantCulture), ["words"] = r.Words }
                ),
            ]),
            ["usualEffort"] = UsualEffort,
            ["sureness"] = Words(LookWords.Surenesses),
            ["context"] = new JsonObject(
                LookWords.Choices.Select(c =>
                    KeyValuePair.Create(
                        c.Field,
                        (JsonNode?)
                            new JsonObject
                            {
                                ["label"] = c.Label,
                                ["values"] = new JsonObject(c.Values.Select(v => KeyValuePair.Create(v.Value, (JsonNode?)v.Words))),
                            }
                    )
                )
            ),
            ["calendar"] = new JsonObject
            {
                // What 29 February counts as.
                ["leapDay"] = DayOfYear.Of(new DateOnly(2004, 2, 29)),
                // The date of each day of the year, month and day; 29 February is none of its own.
                ["days"] = days,
                ["monthStarts"] = new JsonArray([
                    .. Enumerable.Range(1, 12).Select(m => (JsonNode?)DayOfYear.Of(new DateOnly(2001, m, 1))),
                ]),
            },
            // The core's calls that the server answers too, below the root of its API.
            ["addresses"] = new JsonObject(
                CoreCalls.All.Where(c => c.Address is not null).Select(c => KeyValuePair.Create(c.Name, (JsonNode?)c.Address))
            ),
            ["limits"] = new JsonObject
            {
                ["fewestToContrast"] = Contrast.Fewest,
                ["mostToContrast"] = Contrast.Most,
                ["mostShownToday"] = TodayDocument.MostShown,
                ["planAhead"] = DayOfYear.Days - 1,
                ["largestPictureFile"] = LargestPictureFile,
                // How often a statement holds that has no word of frequency.
                ["plainModality"] = Modality.AlwaysInKeys,
            },
        };
    }

    private static string Name<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());

    private static JsonArray Texts(IReadOnlyList<string> texts) => new([.. texts.Select(t => (JsonNode?)t)]);

    private static JsonObject Words<T>(IReadOnlyDictionary<T, string> words)
        where T : struct, Enum => new(words.Select(w => KeyValuePair.Create(Name(w.Key), (JsonNode?)w.Value)));

    private static JsonArray Names<T>(IEnumerable<T> values)
        where T : struct, Enum => new([.. values.Select(v => (JsonNode?)Name(v))]);
}
