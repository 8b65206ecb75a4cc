using System.Text.Json.Serialization;
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
using Garten.Core.Language;
using Garten.Core.Packs;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>How the types of the core are written as JSON, by server and browser alike.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    UseStringEnumConverter = false,
    AllowOutOfOrderMetadataProperties = true,
    NumberHandling = JsonNumberHandling.Strict,
    RespectNullableAnnotations = true,
    RespectRequiredConstructorParameters = true,
    Converters = [
        typeof(CamelCaseWords<Grade>),
        typeof(CamelCaseWords<DeliveredState>),
        typeof(CamelCaseWords<PartnerVerdict>),
        typeof(CamelCaseWords<ImportField>),
        typeof(CamelCaseWords<DayOrder>),
        typeof(CamelCaseWords<NameFit>),
        typeof(CamelCaseWords<LineFate>),
        typeof(CamelCaseWords<SampleKind>),
        typeof(CamelCaseWords<PlotKind>),
        typeof(CamelCaseWords<PlotShape>),
        typeof(CamelCaseWords<RootingRule>),
        typeof(CamelCaseWords<EdgeRule>),
        typeof(CamelCaseWords<PlotScale>),
        typeof(CamelCaseWords<PlotPlacing>),
        typeof(CamelCaseWords<SurveySource>),
        typeof(CamelCaseWords<SurveyUnit>),
        typeof(CamelCaseWords<SiteFactor>),
        typeof(CamelCaseWords<ShareBy>),
        typeof(CamelCaseWords<SurveyTaskState>),
        typeof(CamelCaseWords<SampleDistance>),
        typeof(CamelCaseWords<TableLayout>),
        typeof(CamelCaseWords<QuestionKind>),
        typeof(CamelCaseWords<FoundKind>),
        typeof(CamelCaseWords<KeyNodeKind>),
        typeof(CamelCaseWords<CheckKind>),
        typeof(CamelCaseWords<CheckVerdict>),
        typeof(CamelCaseWords<ReportKind>),
        typeof(CamelCaseWords<KeyLayout>),
        typeof(CamelCaseWords<TextLicence>),
        typeof(CamelCaseWords<DestinationKind>),
        typeof(CamelCaseWords<ProblemSeverity>),
        typeof(CamelCaseWords<CommandStatus>),
        typeof(CamelCaseWords<PartClass>),
        typeof(CamelCaseWords<Caution>),
        typeof(CamelCaseWords<Origin>),
        typeof(CamelCaseWords<Outcome>),
        typeof(CamelCaseWords<Sureness>),
        typeof(CamelCaseWords<Position>),
        typeof(CamelCaseWords<Light>),
        typeof(CamelCaseWords<Stage>),
        typeof(CamelCaseWords<PartAge>),
        typeof(CamelCaseWords<Shaping>),
        typeof(CamelCaseWords<Attachment>),
        typeof(CamelCaseWords<CrownsAbove>),
        typeof(CamelCaseWords<PartSex>),
        typeof(CamelCaseWords<Tool>),
        typeof(CamelCaseWords<Handling>),
        typeof(CamelCaseWords<Organ>),
        typeof(CamelCaseWords<CharacterKind>),
        typeof(CamelCaseWords<QuantityKind>),
        typeof(CamelCaseWords<RangeForm>),
        typeof(CamelCaseWords<Fit>),
        typeof(CamelCaseWords<Phenophase>),
        typeof(CamelCaseWords<StatementPartKind>),
        typeof(CamelCaseWords<StatementFit>),
        typeof(CamelCaseWords<CoupletCall>),
        typeof(CamelCaseWords<BlockReason>),
        typeof(CamelCaseWords<SiftPrior>),
        typeof(CamelCaseWords<RankingCall>),
        typeof(CamelCaseWords<WaitReason>),
        typeof(CamelCaseWords<RowGroup>),
        typeof(CamelCaseWords<PlantState>),
        typeof(CamelCaseWords<PhaseStage>),
        typeof(CamelCaseWords<CountUnit>),
        typeof(CamelCaseWords<Material>),
        typeof(CamelCaseWords<Damage>),
        typeof(CamelCaseWords<Search>),
        typeof(CamelCaseWords<DescribedContext>),
        typeof(CamelCaseWords<GradientGroup>),
        typeof(CamelCaseWords<Allowed>),
        typeof(CamelCaseWords<ShapeKind>),
        typeof(CamelCaseWords<MapPointKind>),
        typeof(CamelCaseWords<RecordsOf>),
        typeof(CamelCaseWords<Abundance>),
        typeof(CamelCaseWords<WildOrPlanted>),
        typeof(CamelCaseWords<Completeness>),
        typeof(CamelCaseWords<DoubtKind>),
        typeof(CamelCaseWords<ShortNameFit>),
        typeof(CamelCaseWords<GridNaming>),
        typeof(CamelCaseWords<ClauseKind>),
    ]
)]
[JsonSerializable(typeof(Vocabulary))]
[JsonSerializable(typeof(IReadOnlyList<SurveySummary>))]
[JsonSerializable(typeof(SurveyWhole))]
[JsonSerializable(typeof(IReadOnlyList<SurveyWhole>))]
[JsonSerializable(typeof(SurveyDocument))]
[JsonSerializable(typeof(SurveyFiguresRequest))]
[JsonSerializable(typeof(SurveyFigures))]
[JsonSerializable(typeof(SurveyArrangementRequest))]
[JsonSerializable(typeof(SurveyArrangement))]
[JsonSerializable(typeof(SurveyComparisonRequest))]
[JsonSerializable(typeof(SurveyComparison))]
[JsonSerializable(typeof(IndicatorsRequest))]
[JsonSerializable(typeof(IReadOnlyList<IndicatorValue>))]
[JsonSerializable(typeof(SurveyPlanRequest))]
[JsonSerializable(typeof(SurveyPlan))]
[JsonSerializable(typeof(SurveyTerms))]
[JsonSerializable(typeof(SurveyChangeRequest))]
[JsonSerializable(typeof(IReadOnlyList<SurveyChange>))]
[JsonSerializable(typeof(LayPlotsRequest))]
[JsonSerializable(typeof(IReadOnlyList<PlacedPlot>))]
[JsonSerializable(typeof(SurveyOccupancyRequest))]
[JsonSerializable(typeof(SurveyOccupancy))]
[JsonSerializable(typeof(SurveyDesignRequest))]
[JsonSerializable(typeof(StandRequest))]
[JsonSerializable(typeof(StandResponse))]
[JsonSerializable(typeof(StandGradientRequest))]
[JsonSerializable(typeof(StandGradientAnswer))]
[JsonSerializable(typeof(GradientRequest))]
[JsonSerializable(typeof(GradientAnswer))]
[JsonSerializable(typeof(SurveyDesignAnswer))]
[JsonSerializable(typeof(SurveyStandingRequest))]
[JsonSerializable(typeof(SurveyStanding))]
[JsonSerializable(typeof(SurveyReport))]
[JsonSerializable(typeof(PlotNameRequest))]
[JsonSerializable(typeof(PlotNameAnswer))]
[JsonSerializable(typeof(PlotCheckRequest))]
[JsonSerializable(typeof(IReadOnlyList<PlotProblem>))]
[JsonSerializable(typeof(SurveyProtocol))]
[JsonSerializable(typeof(PlotFinding))]
[JsonSerializable(typeof(IReadOnlyList<PlotFind>))]
[JsonSerializable(typeof(IReadOnlyList<PlotLayer>))]
[JsonSerializable(typeof(IReadOnlyList<CoverClass>))]
[JsonSerializable(typeof(Part))]
[JsonSerializable(typeof(Quality))]
[JsonSerializable(typeof(FindCharacterRequest))]
[JsonSerializable(typeof(IReadOnlyList<OfferedCharacter>))]
[JsonSerializable(typeof(PartQualitiesRequest))]
[JsonSerializable(typeof(ComposedRequest))]
[JsonSerializable(typeof(QualitiesRequest))]
[JsonSerializable(typeof(FloraGrid))]
[JsonSerializable(typeof(IReadOnlyList<Contradiction>))]
[JsonSerializable(typeof(KeyCheckResponse))]
[JsonSerializable(typeof(KeyReading))]
[JsonSerializable(typeof(ReadKeyTextRequest))]
[JsonSerializable(typeof(WalkRequest))]
[JsonSerializable(typeof(WalkState))]
[JsonSerializable(typeof(Shelf))]
[JsonSerializable(typeof(ToldByPersons))]
[JsonSerializable(typeof(BenchRequest))]
[JsonSerializable(typeof(BenchState))]
[JsonSerializable(typeof(OutlookRequest))]
[JsonSerializable(typeof(IReadOnlyList<KeyOutlook>))]
[JsonSerializable(typeof(MeasureRequest))]
[JsonSerializable(typeof(MeasureResponse))]
[JsonSerializable(typeof(IReadOnlyList<CoupletReadings>))]
[JsonSerializable(typeof(TextSource))]
[JsonSerializable(typeof(IReadOnlyList<CoupletReadings>))]
[JsonSerializable(typeof(TeachingPreviewRequest))]
[JsonSerializable(typeof(TeachingPreview))]
[JsonSerializable(typeof(KeyReadingRequest))]
[JsonSerializable(typeof(KeysPartingRequest))]
[JsonSerializable(typeof(KeyParting))]
[JsonSerializable(typeof(ReadLooksRequest))]
[JsonSerializable(typeof(TypedLooks))]
[JsonSerializable(typeof(ReadKey))]
[JsonSerializable(typeof(ReadDescriptionsRequest))]
[JsonSerializable(typeof(DescribedInProse))]
[JsonSerializable(typeof(Observation))]
[JsonSerializable(typeof(IReadOnlyList<HandWeighing>))]
[JsonSerializable(typeof(IReadOnlyList<DeterminationQuestion>))]
[JsonSerializable(typeof(string))]
[JsonSerializable(typeof(IReadOnlyList<StatementClaim>))]
[JsonSerializable(typeof(IReadOnlyList<TrailStep>))]
[JsonSerializable(typeof(Key))]
[JsonSerializable(typeof(Flora))]
[JsonSerializable(typeof(IReadOnlyList<FloraSummary>))]
[JsonSerializable(typeof(FloraImport))]
[JsonSerializable(typeof(IReadOnlyDictionary<string, string>))]
[JsonSerializable(typeof(TaxonPage))]
[JsonSerializable(typeof(TaxonList))]
[JsonSerializable(typeof(IReadOnlyList<Character>))]
[JsonSerializable(typeof(CharacterTable))]
[JsonSerializable(typeof(SiftRequest))]
[JsonSerializable(typeof(SiftResponse))]
[JsonSerializable(typeof(ContrastRequest))]
[JsonSerializable(typeof(ContrastResult))]
[JsonSerializable(typeof(GiveawayRequest))]
[JsonSerializable(typeof(GiveawayResponse))]
[JsonSerializable(typeof(TaxonListRequest))]
[JsonSerializable(typeof(TaxonPageRequest))]
[JsonSerializable(typeof(DescribeRequest))]
[JsonSerializable(typeof(ConfirmRequest))]
[JsonSerializable(typeof(ConfirmResult))]
[JsonSerializable(typeof(IReadOnlyList<GradeRules>))]
[JsonSerializable(typeof(IReadOnlyList<OpenPlant>))]
[JsonSerializable(typeof(VisitsRequest))]
[JsonSerializable(typeof(VisitsResponse))]
[JsonSerializable(typeof(MoveVisitRequest))]
[JsonSerializable(typeof(MovedVisit))]
[JsonSerializable(typeof(QuestionStatusRequest))]
[JsonSerializable(typeof(IReadOnlyList<QuestionStatus>))]
[JsonSerializable(typeof(CommunityTableRequest))]
[JsonSerializable(typeof(CommunityTableAnswer))]
[JsonSerializable(typeof(ArrangementRequest))]
[JsonSerializable(typeof(Arrangement))]
[JsonSerializable(typeof(StatisticsRequest))]
[JsonSerializable(typeof(StatisticsResponse))]
[JsonSerializable(typeof(SeasonRequest))]
[JsonSerializable(typeof(SeasonResponse))]
[JsonSerializable(typeof(IReadOnlyList<SeasonFirst>))]
[JsonSerializable(typeof(IReadOnlyList<TaggedPlant>))]
[JsonSerializable(typeof(IReadOnlyList<PopulationDetail>))]
[JsonSerializable(typeof(IReadOnlyList<OpenNeed>))]
[JsonSerializable(typeof(IReadOnlyList<CautionLine>))]
[JsonSerializable(typeof(IReadOnlyList<PhaseNote>))]
[JsonSerializable(typeof(IReadOnlyList<BranchSex>))]
[JsonSerializable(typeof(Finding))]
[JsonSerializable(typeof(NearRequest))]
[JsonSerializable(typeof(NearResponse))]
[JsonSerializable(typeof(QuestionsRequest))]
[JsonSerializable(typeof(IReadOnlyList<QuestionOnDay>))]
[JsonSerializable(typeof(DaysRequest))]
[JsonSerializable(typeof(IReadOnlyList<DayDistance>))]
[JsonSerializable(typeof(Waiting))]
[JsonSerializable(typeof(PlantDocument))]
[JsonSerializable(typeof(IReadOnlyList<PlantDetail>))]
[JsonSerializable(typeof(PlantsDocument))]
[JsonSerializable(typeof(FoundPlantsRequest))]
[JsonSerializable(typeof(HandedCommands))]
[JsonSerializable(typeof(IReadOnlyList<int>))]
[JsonSerializable(typeof(RecordsDocument))]
[JsonSerializable(typeof(IReadOnlyList<RecordLine>))]
[JsonSerializable(typeof(WaitingCommands))]
[JsonSerializable(typeof(IReadOnlyList<ErasedSubject>))]
[JsonSerializable(typeof(KeysDocument))]
[JsonSerializable(typeof(KeyDocument))]
[JsonSerializable(typeof(IReadOnlyList<KeySummary>))]
[JsonSerializable(typeof(IReadOnlyList<KeyDetail>))]
[JsonSerializable(typeof(PopulationsDocument))]
[JsonSerializable(typeof(ShapesRead))]
[JsonSerializable(typeof(GroundsDocument))]
[JsonSerializable(typeof(IReadOnlyList<PlaceGround>))]
[JsonSerializable(typeof(GroundDescription))]
[JsonSerializable(typeof(OutlineRequest))]
[JsonSerializable(typeof(WalkedBoundaryRequest))]
[JsonSerializable(typeof(PositionRequest))]
[JsonSerializable(typeof(IReadOnlyList<PlannedQuestion>))]
[JsonSerializable(typeof(DeliveryScope))]
[JsonSerializable(typeof(DeliveryPreview))]
[JsonSerializable(typeof(IReadOnlyList<Delivery>))]
[JsonSerializable(typeof(IReadOnlyList<DeliveredItem>))]
[JsonSerializable(typeof(IReadOnlyList<PassedOn>))]
[JsonSerializable(typeof(PositionTextRequest))]
[JsonSerializable(typeof(PositionTextAnswer))]
[JsonSerializable(typeof(IReadOnlyList<ScannedSheet>))]
[JsonSerializable(typeof(CompartmentsRequest))]
[JsonSerializable(typeof(IReadOnlyList<Compartment>))]
[JsonSerializable(typeof(SquaresRequest))]
[JsonSerializable(typeof(SquaresAnswer))]
[JsonSerializable(typeof(TracksRequest))]
[JsonSerializable(typeof(IReadOnlyList<PlacedTrack>))]
[JsonSerializable(typeof(TrackFileRead))]
[JsonSerializable(typeof(IReadOnlyList<Track>))]
[JsonSerializable(typeof(IReadOnlyList<TrackPoint>))]
[JsonSerializable(typeof(NmeaRequest))]
[JsonSerializable(typeof(NmeaAnswer))]
[JsonSerializable(typeof(WeatherAnswer))]
[JsonSerializable(typeof(AtlasAnswer))]
[JsonSerializable(typeof(OutlineAnswer))]
[JsonSerializable(typeof(WalkedBoundary))]
[JsonSerializable(typeof(IReadOnlyList<MapPoint>))]
[JsonSerializable(typeof(SiteVisitDocument))]
[JsonSerializable(typeof(SiteVisitsDocument))]
[JsonSerializable(typeof(IReadOnlyList<SiteVisit>))]
[JsonSerializable(typeof(IReadOnlyList<SiteVisitSummary>))]
[JsonSerializable(typeof(ShortNameRequest))]
[JsonSerializable(typeof(ShortNameAnswer))]
[JsonSerializable(typeof(NameListRequest))]
[JsonSerializable(typeof(IReadOnlyList<ListedName>))]
[JsonSerializable(typeof(ImportDraft))]
[JsonSerializable(typeof(ImportPreview))]
[JsonSerializable(typeof(ImportProgress))]
[JsonSerializable(typeof(IReadOnlyList<TakenIn>))]
[JsonSerializable(typeof(ImportTally))]
[JsonSerializable(typeof(ImportChoices))]
[JsonSerializable(typeof(CitedNaming))]
[JsonSerializable(typeof(ListAdviceRequest))]
[JsonSerializable(typeof(ListAdvice))]
[JsonSerializable(typeof(IReadOnlyList<FoundBefore>))]
[JsonSerializable(typeof(IReadOnlyList<VisitPause>))]
[JsonSerializable(typeof(SafetyPlan))]
[JsonSerializable(typeof(LineDetails))]
[JsonSerializable(typeof(VisitClosing))]
[JsonSerializable(typeof(TodayRequest))]
[JsonSerializable(typeof(TodayAnswer))]
[JsonSerializable(typeof(TodayDocument))]
[JsonSerializable(typeof(ShelfInShort))]
[JsonSerializable(typeof(InSeasonRequest))]
[JsonSerializable(typeof(IReadOnlyList<PlaceInSeason>))]
[JsonSerializable(typeof(FiguresRequest))]
[JsonSerializable(typeof(SearchRequest))]
[JsonSerializable(typeof(IReadOnlyList<Findable>))]
[JsonSerializable(typeof(IReadOnlyList<TaxonFigure>))]
[JsonSerializable(typeof(IReadOnlyList<NextVisit>))]
[JsonSerializable(typeof(LooksRequest))]
[JsonSerializable(typeof(IReadOnlyList<LookInWords>))]
[JsonSerializable(typeof(MannerRequest))]
[JsonSerializable(typeof(OwnPlantsRequest))]
[JsonSerializable(typeof(IReadOnlyList<OwnPlant>))]
[JsonSerializable(typeof(StatementsRequest))]
[JsonSerializable(typeof(IReadOnlyList<string>))]
[JsonSerializable(typeof(IReadOnlyList<DescribedTaxon>))]
[JsonSerializable(typeof(IReadOnlyList<FloraProblem>))]
[JsonSerializable(typeof(IReadOnlyDictionary<string, int>))]
[JsonSerializable(typeof(Command))]
[JsonSerializable(typeof(CommandResult))]
[JsonSerializable(typeof(ProblemReport))]
[JsonSerializable(typeof(IReadOnlyList<Place>))]
[JsonSerializable(typeof(IReadOnlyList<PersonReference>))]
[JsonSerializable(typeof(PlantDetail))]
public sealed partial class CoreJson : JsonSerializerContext;

/// <summary>Enumerations as words in camel case; a number isn't read as one.</summary>
public sealed class CamelCaseWords<T>() : JsonStringEnumConverter<T>(System.Text.Json.JsonNamingPolicy.CamelCase, allowIntegerValues: false)
    where T : struct, Enum;
