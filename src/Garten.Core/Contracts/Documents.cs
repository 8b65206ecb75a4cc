using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Visits;

namespace Garten.Core.Contracts;

/// <summary>What a document needs besides itself and a command.</summary>
/// <param name="Today">The day: what is due, and what a population comes to, depends on it.</param>
/// <param name="Places">The places, those of waiting commands too.</param>
/// <param name="FindTaxon">A taxon of the flora by its name; null where there is none.</param>
/// <param name="Shelf">The keys, to follow trails; null where there are none.</param>
/// <param name="Flora">The flora, to work out a confirmation; null where there is none.</param>
public sealed record DocumentContext(
    DateOnly Today,
    IReadOnlyList<Place> Places,
    Func<string, Taxon?> FindTaxon,
    BenchShelf? Shelf = null,
    ReadyFlora? Flora = null
)
{
    internal Place? Place(Guid id) => Places.Standing(id);
}

/// <summary>
/// What a command does to the documents that pages read: a device applies those that wait to what the server answered last, so that what
/// was done out of reach shows at once. The server comes to the same from its facts (a test holds the two against each other for every
/// command). A command that has nothing to do with a document leaves it as it is, as does one with a day that is none: the server will say
/// what is wrong with it. One that is applied twice changes nothing the second time.
/// </summary>
public static class Documents
{
    /// <summary>The places, in the order of their names.</summary>
    public static IReadOnlyList<Place> Apply(IReadOnlyList<Place> places, Command command)
    {
        ArgumentNullException.ThrowIfNull(places);
        if (command is MergePlaceCommand merge)
            return PlaceMerging.Merged(places, merge);
        if (command is not SavePlaceCommand it || places.FirstOrDefault(p => p.Id == it.PlaceId)?.Version != it.Version)
            return places;
        return
        [
            .. places
                .Where(p => p.Id != it.PlaceId)
                .Append(Place.Of(it, (it.Version ?? 0) + 1) with { Merged = places.FirstOrDefault(p => p.Id == it.PlaceId)?.Merged })
                .OrderBy(p => p.Name, StringComparer.Ordinal)
                .ThenBy(p => p.Id),
        ];
    }

    // The place that a command changes or ends, and what stands there with all that waits; null for any other command.
    private static (Guid Id, Place Place)? Changed(Command command, DocumentContext context) =>
        command switch
        {
            SavePlaceCommand { Version: not null } it when context.Place(it.PlaceId) is { } place => (it.PlaceId, place),
            MergePlaceCommand { IntoId: { } into } it when context.Place(into) is { } place => (it.PlaceId, place),
            _ => null,
        };

    /// <summary>The keys that a command saves; none where its text can't be read as keys with titles.</summary>
    public static IReadOnlyList<KeyVersion> KeysOf(SaveKeysCommand command)
    {
        ArgumentNullException.ThrowIfNull(command);
        var reading = KeyTextReader.Read(command.Text);
        return reading.IsSound && reading.Keys.All(k => k.Title.Length > 0)
            ? [.. reading.Keys.Select(k => new KeyVersion(KeyHash.Of(k), k, command.Source?.Book ?? ""))]
            : [];
    }

    /// <summary>The newest version of every key, by title.</summary>
    public static IReadOnlyList<KeySummary> Apply(IReadOnlyList<KeySummary> keys, Command command)
    {
        ArgumentNullException.ThrowIfNull(keys);
        if (command is not SaveKeysCommand it)
            return keys;
        var all = keys.ToList();
        foreach (var (hash, key) in KeysOf(it).Where(k => all.TrueForAll(o => o.Hash != k.Hash)).Select(k => (k.Hash, k.Key)))
        {
            var at = all.FindIndex(k => KeyTitle.Plain(k.Title) == KeyTitle.Plain(key.Title));
            var made = KeySummary.Of(hash, at < 0 ? 1 : all[at].Version + 1, key, DateTimeOffset.UnixEpoch) with { Source = it.Source };
            if (at >= 0)
                all[at] = made;
            else
                all.Add(made);
        }
        return KeySummary.Entered([.. all.OrderBy(k => KeyTitle.Plain(k.Title), StringComparer.Ordinal)]);
    }

    /// <summary>A plant with all that is known of it; null before anything is.</summary>
    /// <param name="id">The plant.</param>
    /// <param name="plant">What is known of it.</param>
    /// <param name="command">What was done.</param>
    /// <param name="context">What else is needed.</param>
    public static PlantDetail? Apply(Guid id, PlantDetail? plant, Command command, DocumentContext context)
    {
        ArgumentNullException.ThrowIfNull(context);
        if (!HasItsDays(command))
            return plant;
        return command switch
        {
            TagPlantCommand it when it.PlantId == id => Tagged(plant, it, context),
            VisitPlantCommand it when it.PlantId == id && plant is not null => Visited(plant, it),
            RecordDeterminationCommand it when it.PlantId == id => Determined(plant, it, context),
            EraseCommand it => Without(id, plant, it.SubjectId),
            _ => Changed(command, context) is var (of, place) && plant?.Place.Id == of ? plant with { Place = place } : plant,
        };
    }

    /// <summary>The populations, by the names of their places and their own, with all that waits put into them in its order. What they
    /// come to is worked out once at the end, however many commands there are.</summary>
    public static IReadOnlyList<PopulationDetail> Apply(
        IReadOnlyList<PopulationDetail> populations,
        IReadOnlyList<Command> commands,
        DocumentContext context
    )
    {
        ArgumentNullException.ThrowIfNull(populations);
        ArgumentNullException.ThrowIfNull(context);
        var changed = commands.Aggregate(populations, (all, command) => Put(all, command, context));
        return changed == populations
            ? populations
            : [.. changed.Select(p => ReferenceEquals(p.Summary, Unsummed) ? Summed(p, context) : p)];
    }

    // Stands in a population that was changed until what it comes to is worked out.
    private static readonly PopulationSummary Unsummed = new([], [], [], [], []);

    private static IReadOnlyList<PopulationDetail> Put(
        IReadOnlyList<PopulationDetail> populations,
        Command command,
        DocumentContext context
    )
    {
        if (!HasItsDays(command))
            return populations;
        return command switch
        {
            SavePopulationCommand it when populations.All(p => p.Id != it.PopulationId) && context.Place(it.PlaceId) is { } place =>
            [
                .. populations
                    .Append(
                        new PopulationDetail(
                            it.PopulationId,
                            it.Name,
                            it.Taxon,
                            place,
                            it.Bounds,
                            [],
                            [],
                            [],
                            Unsummed,
                            CautionLine.Of(context.FindTaxon(it.Taxon))
                        )
                    )
                    .OrderBy(p => p.Place.Name, StringComparer.Ordinal)
                    .ThenBy(p => p.Name, StringComparer.Ordinal)
                    .ThenBy(p => p.Id),
            ],
            CountPopulationCommand it => With(populations, it.PopulationId, p => Counted(p, it)),
            NoteThreatCommand it => With(populations, it.PopulationId, p => Threatened(p, it)),
            TagPlantCommand { PopulationId: { } of } it => With(populations, of, p => Pegged(p, it)),
            EraseCommand it => With(populations, populations.FirstOrDefault(p => p.Pegs.Any(peg => peg.Id == it.SubjectId))?.Id, p =>
                p with
                {
                    Pegs = [.. p.Pegs.Where(peg => peg.Id != it.SubjectId)],
                }
            ),
            VisitPlantCommand it => With(populations, populations.FirstOrDefault(p => p.Pegs.Any(peg => peg.Id == it.PlantId))?.Id, p =>
                p with
                {
                    Pegs =
                    [
                        .. p.Pegs.Select(peg =>
                            peg.Id == it.PlantId && peg.Visits.All(v => v.Id != it.VisitId)
                                ? peg with
                                {
                                    Visits = [.. peg.Visits.Append(Visit(it)).OrderBy(v => v.Date)],
                                }
                                : peg
                        ),
                    ],
                }
            ),
            _ => Changed(command, context) is var (of, place)
                ?
                [
                    .. populations
                        .Select(p => p.Place.Id == of ? p with { Place = place } : p)
                        .OrderBy(p => p.Place.Name, StringComparer.Ordinal)
                        .ThenBy(p => p.Name, StringComparer.Ordinal)
                        .ThenBy(p => p.Id),
                ]
                : populations,
        };
    }

    /// <summary>Tagged plants as a list shows them, by place and tag: what is done to one is put into it, and new ones are added. A line
    /// says less than a plant: of an earlier visit it can't be told whether a later one found the plant otherwise.</summary>
    public static IReadOnlyList<TaggedPlant> Apply(IReadOnlyList<TaggedPlant> plants, Command command, DocumentContext context)
    {
        ArgumentNullException.ThrowIfNull(plants);
        ArgumentNullException.ThrowIfNull(context);
        IReadOnlyList<TaggedPlant> With(Guid id, Func<TaggedPlant, TaggedPlant> change) =>
            [.. plants.Select(p => p.Id == id ? change(p) : p)];
        if (!HasItsDays(command))
            return plants;
        switch (command)
        {
            case TagPlantCommand it when plants.Any(p => p.Id == it.PlantId):
                return With(it.PlantId, p => p with { Label = it.Label, TaggedOn = Day(it.TaggedOn), PopulationId = it.PopulationId });
            case TagPlantCommand it when context.Place(it.PlaceId) is { } place:
                return Ordered(
                    plants,
                    new TaggedPlant(it.PlantId, it.Label, place.Id, place.Name, [], Day(it.TaggedOn), null, null, it.PopulationId)
                );
            case EraseCommand it:
                return plants.Any(p => p.Id == it.SubjectId) ? [.. plants.Where(p => p.Id != it.SubjectId)] : plants;
            case VisitPlantCommand it:
                var day = Day(it.Date);
                return With(it.PlantId, p => (
                        p.LastSeen is { } last && last > day ? p
                        : PlantVisit.IsFound(it.State) ? p with { LastSeen = day, State = it.State }
                        : p with { State = it.State }
                    ).In(day.Year));
            case RecordDeterminationCommand it when plants.All(p => p.Id != it.PlantId) && context.Place(it.PlaceId) is { } place:
                return Ordered(
                    plants,
                    new TaggedPlant(it.PlantId, it.PlantLabel, place.Id, place.Name, it.Names, null, Day(it.EventDate), null, null).In(
                        Day(it.EventDate).Year
                    )
                );
            case RecordDeterminationCommand it:
                var named = Day(it.EventDate);
                return With(it.PlantId, p =>
                    (p with { Names = it.Names, LastSeen = p.LastSeen is { } seen && seen > named ? seen : named }).In(named.Year)
                );
            default:
                return Changed(command, context) is var (of, now)
                    ? Ordered(plants.Select(p => p.PlaceId == of ? p with { PlaceId = now.Id, PlaceName = now.Name } : p))
                    : plants;
        }
    }

    // What is erased is there no longer, as a whole or a part of it; of a person the name is.
    private static PlantDetail? Without(Guid id, PlantDetail? plant, Guid subject) =>
        plant is null || id == subject
            ? null
            : plant with
            {
                Determinations =
                [
                    .. plant
                        .Determinations.Where(d => d.Id != subject)
                        .Select(d => d.Recorder.Id == subject ? d with { Recorder = new PersonReference(subject, ErasedName) } : d),
                ],
                Observations = [.. plant.Observations.Where(o => o.Id != subject)],
                Visits = [.. plant.Visits.Where(v => v.Id != subject)],
            };

    /// <summary>What stands where a person's name was.</summary>
    public const string ErasedName = "(erased)";

    private static List<TaggedPlant> Ordered(IReadOnlyList<TaggedPlant> plants, TaggedPlant added) => Ordered(plants.Append(added));

    private static List<TaggedPlant> Ordered(IEnumerable<TaggedPlant> plants) =>
        [.. plants.OrderBy(p => p.PlaceName, StringComparer.Ordinal).ThenBy(p => p.Label, StringComparer.Ordinal).ThenBy(p => p.Id)];

    private static bool HasItsDays(Command command) =>
        command switch
        {
            TagPlantCommand it => DayText.TryRead(it.TaggedOn, out _),
            VisitPlantCommand it => DayText.TryRead(it.Date, out _),
            RecordDeterminationCommand it => DayText.TryRead(it.EventDate, out _),
            CountPopulationCommand it => DayText.TryRead(it.Date, out _),
            NoteThreatCommand it => DayText.TryRead(it.NotedOn, out _) && (it.ActBy.Length == 0 || DayText.TryRead(it.ActBy, out _)),
            _ => true,
        };

    private static DateOnly Day(string text) =>
        DayText.TryRead(text, out var day) ? day : throw new FormatException($"“{text}” is no day.");

    private static PlantDetail Empty(Guid id, string label, Place place) =>
        new(id, label, place, [], [], [], [], null, null, Finding.None, null, 1, []);

    private static PlantDetail? Tagged(PlantDetail? plant, TagPlantCommand it, DocumentContext context)
    {
        if (plant is null && context.Place(it.PlaceId) is not { })
            return null;
        // A command of an earlier version has been carried out already.
        if (plant is not null && it.Version is { } version && version != plant.Version)
            return plant;
        if (plant is { TaggedOn: not null } && it.Version is null)
            return plant;
        var before = plant ?? Empty(it.PlantId, it.Label, context.Place(it.PlaceId)!);
        return before with
        {
            Label = it.Label,
            TaggedOn = Day(it.TaggedOn),
            Site = it.Site,
            Finding = it.Finding ?? Finding.None,
            PopulationId = it.PopulationId,
            Version = plant is null ? 1 : plant.Version + 1,
        };
    }

    private static PlantVisit Visit(VisitPlantCommand it) =>
        new(it.VisitId, it.PlantId, Day(it.Date), it.State, it.Phases ?? [], it.Sexes ?? [], it.Note, it.Recorder.Name);

    private static PlantDetail Visited(PlantDetail plant, VisitPlantCommand it) =>
        plant.Visits.Any(v => v.Id == it.VisitId)
            ? plant
            : Looked(plant with { Visits = [.. plant.Visits.Append(Visit(it)).OrderBy(v => v.Date)] }, it.Observations);

    private static PlantDetail Looked(PlantDetail plant, IReadOnlyList<Evidence.Observation>? looks)
    {
        var known = plant.Observations.Select(o => o.Id).ToHashSet();
        return plant with { Observations = [.. plant.Observations, .. (looks ?? []).Where(o => known.Add(o.Id))] };
    }

    private static PlantDetail? Determined(PlantDetail? plant, RecordDeterminationCommand it, DocumentContext context)
    {
        if (plant is null && context.Place(it.PlaceId) is null)
            return null;
        var before = plant ?? Empty(it.PlantId, it.PlantLabel, context.Place(it.PlaceId)!);
        if (before.Determinations.Any(d => d.Id == it.DeterminationId))
            return before;
        var seen = Looked(before, it.Observations);
        var start = it.StartKey.Length > 0 ? context.Shelf?.Keys.Find(it.StartKey) : null;
        var walk = start is null ? null : KeyWalk.Follow(context.Shelf!.Keys, it.StartKey, it.Answers);
        var overturns = before.Determinations.Count > 0 && NameChange.Overturns(before.Determinations[0].Names, it.Names);
        var now = new DeterminationDetail(
            it.DeterminationId,
            it.OccurrenceId,
            Day(it.EventDate),
            DateTimeOffset.UnixEpoch,
            it.Recorder,
            Conclusion.SharedName(it.Names),
            it.Names,
            it.StartKey,
            start?.Key.Title ?? "",
            walk?.Steps ?? [],
            it.Note,
            new Dictionary<string, int>(),
            Confirmed(seen, it, context),
            overturns ? new Overturned(before.Determinations[0].Names, []) : null
        );
        return seen with { Determinations = [now, .. seen.Determinations], Taxa = [.. it.Names.Select(context.FindTaxon).OfType<Taxon>()] };
    }

    private static Confirmation.ConfirmResult? Confirmed(PlantDetail plant, RecordDeterminationCommand it, DocumentContext context)
    {
        if (it.Confirming is not { } asked || context.Flora is not { } flora || flora.Pack.Id != asked.FloraId)
            return null;
        try
        {
            return asked.Of(plant.Place, plant.Observations, it.EventDate).Confirm(flora);
        }
        catch (RequestException)
        {
            // The server says what is wrong with it when it is sent.
            return null;
        }
    }

    private static IReadOnlyList<PopulationDetail> With(
        IReadOnlyList<PopulationDetail> populations,
        Guid? id,
        Func<PopulationDetail, PopulationDetail> change
    ) => id is null ? populations : [.. populations.Select(p => p.Id == id ? change(p) with { Summary = Unsummed } : p)];

    // What counts and pegs come to is worked out anew.
    private static PopulationDetail Summed(PopulationDetail it, DocumentContext context) =>
        it with
        {
            Summary = PopulationSummary.Of(it.Counts, it.Pegs, SeasonList.FruitOf(context.FindTaxon(it.Taxon)), context.Today),
        };

    private static PopulationDetail Counted(PopulationDetail population, CountPopulationCommand it) =>
        population.Counts.Any(c => c.Id == it.CountId)
            ? population
            : population with
            {
                Counts =
                [
                    .. population
                        .Counts.Append(
                            new PopulationCount(
                                it.CountId,
                                Day(it.Date),
                                it.Unit,
                                it.Number,
                                it.Note,
                                it.Recorder.Name,
                                it.Supersedes,
                                it.Known,
                                it.Found
                            )
                        )
                        .OrderBy(c => c.Date),
                ],
            };

    private static PopulationDetail Threatened(PopulationDetail population, NoteThreatCommand it)
    {
        if (it.Closes is { } closed)
            return population with
            {
                Threats =
                [
                    .. population.Threats.Select(t => t.Id == closed && t.DealtWith.Length == 0 ? t with { DealtWith = it.Text } : t),
                ],
            };
        if (population.Threats.Any(t => t.Id == it.ThreatId))
            return population;
        var threat = new Threat(it.ThreatId, Day(it.NotedOn), it.Text, it.ActBy.Length > 0 ? Day(it.ActBy) : null, "");
        return population with
        {
            Threats =
            [
                .. population.Threats.Append(threat).OrderBy(t => t.ActBy ?? DateOnly.MaxValue).ThenBy(t => t.NotedOn).ThenBy(t => t.Id),
            ],
        };
    }

    private static PopulationDetail Pegged(PopulationDetail population, TagPlantCommand it)
    {
        var known = population.Pegs.FirstOrDefault(p => p.Id == it.PlantId);
        var peg = new PeggedPlant(it.PlantId, it.Label, Day(it.TaggedOn), known?.Visits ?? []);
        return population with
        {
            Pegs =
            [
                .. population
                    .Pegs.Where(p => p.Id != it.PlantId)
                    .Append(peg)
                    .OrderBy(p => p.Label, StringComparer.Ordinal)
                    .ThenBy(p => p.Id),
            ],
        };
    }
}
