using System.Text.Json;
using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>What waits on a device, and what documents need to take it in.</summary>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Commands">The commands that wait, in their order, as they will be sent: one that can't be read is passed over, since the
/// server will say what is wrong with it.</param>
/// <param name="Places">The places that the server knows.</param>
public sealed record Waiting(string Date, IReadOnlyList<JsonElement> Commands, IReadOnlyList<Place> Places)
{
    private IReadOnlyList<Command>? _read;

    /// <summary>The commands that can be read, in their order.</summary>
    internal IReadOnlyList<Command> Read() => _read ??= [.. Commands.Select(ReadOne).OfType<Command>()];

    /// <summary>The places with those that wait.</summary>
    public IReadOnlyList<Place> AllPlaces() => Read().Aggregate(Places, Documents.Apply);

    internal DocumentContext Context(CoreSession session)
    {
        var taxa = new TaxonIndex([.. session.Flora?.Pack.Taxa ?? [], .. session.Shelf.Taxa]);
        return new DocumentContext(RequestDay.Of(Date, "date"), AllPlaces(), taxa.Find, session.Shelf, session.Flora);
    }

    /// <summary>A command; null where it can't be read.</summary>
    internal static Command? ReadOne(JsonElement command)
    {
        try
        {
            return command.Deserialize(CoreJson.Default.Command);
        }
        catch (Exception unreadable) when (unreadable is JsonException or NotSupportedException)
        {
            return null;
        }
    }
}

/// <summary>Commands out of a file that another device has saved.</summary>
/// <param name="Commands">The commands, in their order.</param>
public sealed record HandedCommands(IReadOnlyList<JsonElement> Commands)
{
    /// <summary>Where those stand that can't be read, from 0: of another kind, or without what their kind needs.</summary>
    public IReadOnlyList<int> Unreadable() =>
        [.. Enumerable.Range(0, Commands.Count).Where(i => Waiting.ReadOne(Commands[i]) is not { } it || it.Id == Guid.Empty)];
}

/// <summary>Commands that wait on the device.</summary>
/// <param name="Commands">The commands, in their order.</param>
public sealed record WaitingCommands(IReadOnlyList<JsonElement> Commands)
{
    /// <summary>Puts the keys among them on the shelf of the session, in place of those that waited before. Answers with their
    /// hashes.</summary>
    public IReadOnlyList<string> Shelve(CoreSession session)
    {
        ArgumentNullException.ThrowIfNull(session);
        IReadOnlyList<KeyVersion> keys = [.. Commands.Select(Waiting.ReadOne).OfType<SaveKeysCommand>().SelectMany(Documents.KeysOf)];
        session.Shelve(keys);
        return [.. keys.Select(k => k.Hash)];
    }
}

/// <summary>The list of keys with what waits.</summary>
/// <param name="Keys">What the server answered last.</param>
/// <param name="Waiting">What waits.</param>
public sealed record KeysDocument(IReadOnlyList<KeySummary> Keys, Waiting Waiting)
{
    /// <summary>The keys as they are on the device, by title.</summary>
    public IReadOnlyList<KeySummary> Tell() => Waiting.Read().Aggregate(Keys, Documents.Apply);
}

/// <summary>A version of a key with what waits.</summary>
/// <param name="Hash">Hash of the version.</param>
/// <param name="Key">What the server answered last; null where it doesn't know it.</param>
/// <param name="Keys">The list of keys that the server answered last: of an earlier version of the same key it has the number.</param>
/// <param name="Waiting">What waits.</param>
public sealed record KeyDocument(string Hash, KeyDetail? Key, IReadOnlyList<KeySummary> Keys, Waiting Waiting)
{
    /// <summary>The key as it is on the device; none where nothing makes it.</summary>
    public IReadOnlyList<KeyDetail> Tell()
    {
        if (Key is not null)
            return [Key];
        var all = Keys;
        foreach (var command in Waiting.Read())
        {
            all = Documents.Apply(all, command);
            if (
                command is SaveKeysCommand saved
                && Documents.KeysOf(saved).FirstOrDefault(k => k.Hash == Hash) is { } made
                && all.FirstOrDefault(k => k.Hash == Hash) is { } line
            )
                return
                [
                    new KeyDetail(
                        Hash,
                        line.Title,
                        line.Version,
                        made.Key,
                        saved.Text,
                        [new KeyVersionSummary(Hash, line.Version, line.AddedAt)],
                        saved.Source
                    ),
                ];
        }
        return [];
    }
}

/// <summary>A plant with what waits.</summary>
/// <param name="Id">The plant.</param>
/// <param name="Plant">What the server answered last; null where it doesn't know it.</param>
/// <param name="Waiting">What waits.</param>
public sealed record PlantDocument(Guid Id, PlantDetail? Plant, Waiting Waiting)
{
    /// <summary>The plant as it is on the device; none where nothing makes it.</summary>
    public IReadOnlyList<PlantDetail> Tell(CoreSession session)
    {
        var context = Waiting.Context(session);
        return Waiting.Read().Aggregate(Plant, (plant, command) => Documents.Apply(Id, plant, command, context)) is { } told ? [told] : [];
    }
}

/// <summary>Populations with what waits.</summary>
/// <param name="Populations">What the server answered last.</param>
/// <param name="Waiting">What waits.</param>
public sealed record PopulationsDocument(IReadOnlyList<PopulationDetail> Populations, Waiting Waiting)
{
    /// <summary>The populations as they are on the device.</summary>
    public IReadOnlyList<PopulationDetail> Tell(CoreSession session)
    {
        var context = Waiting.Context(session);
        return Documents.Apply(Populations, Waiting.Read(), context);
    }
}

/// <summary>Plants of a list with what waits.</summary>
/// <param name="Plants">What the server answered last: as many pages as were fetched.</param>
/// <param name="Waiting">What waits.</param>
/// <param name="IsWhole">Whether that is the whole list: else a plant that isn't on it may stand on a later page.</param>
/// <param name="PlaceId">Only plants of this place; null for all.</param>
/// <param name="Text">Only plants whose tag or name holds this; empty for all.</param>
public sealed record PlantsDocument(
    IReadOnlyList<TaggedPlant> Plants,
    Waiting Waiting,
    bool IsWhole = true,
    Guid? PlaceId = null,
    string Text = ""
)
{
    /// <summary>The plants as they are on the device; pegged ones are left out, as they are by the list.</summary>
    public IReadOnlyList<TaggedPlant> Tell(CoreSession session)
    {
        var context = Waiting.Context(session);
        var known = Plants.Select(p => p.Id).ToHashSet();
        var made = Waiting.Read().OfType<TagPlantCommand>().Where(c => c.Version is null).Select(c => c.PlantId).ToHashSet();
        return
        [
            .. Waiting
                .Read()
                .Aggregate(Plants, (all, command) => Documents.Apply(all, command, context))
                .Where(p => known.Contains(p.Id) || (IsWhole || made.Contains(p.Id)) && IsAskedFor(p)),
        ];
    }

    private bool IsAskedFor(TaggedPlant plant) => FoundPlantsRequest.Holds(plant, PlaceId, Text);
}

/// <summary>Plants that are looked for among those that the session holds, where no server does it.</summary>
/// <param name="PlaceId">Only plants of this place; null for all.</param>
/// <param name="Text">Only plants whose tag or name holds this; empty for all.</param>
public sealed record FoundPlantsRequest(Guid? PlaceId = null, string Text = "")
{
    /// <summary>Ids of those that are asked for, by place and tag; pegged ones are left out, as they are by the list.</summary>
    public IReadOnlyList<Guid> Find(CoreSession session)
    {
        ArgumentNullException.ThrowIfNull(session);
        return [.. Among(session.Searched.Plants ?? []).Select(p => p.Id)];
    }

    /// <summary>The same among some plants.</summary>
    public IReadOnlyList<TaggedPlant> Among(IReadOnlyList<TaggedPlant> plants) =>
        [
            .. plants
                .Where(p => Holds(p, PlaceId, Text ?? ""))
                .OrderBy(p => p.PlaceName, StringComparer.Ordinal)
                .ThenBy(p => p.Label, StringComparer.Ordinal)
                .ThenBy(p => p.Id),
        ];

    internal static bool Holds(TaggedPlant plant, Guid? placeId, string text) =>
        plant.PopulationId is null
        && (placeId is null || plant.PlaceId == placeId)
        && plant.Names.Append(plant.Label).Any(t => t.Contains(text.Trim(), StringComparison.OrdinalIgnoreCase));
}

/// <summary>Of a plant what the list of records shows of it: what was seen on it, by far the larger part, is left out.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Label">What its recorder calls it; may be empty.</param>
/// <param name="PlaceId">Where it grows.</param>
/// <param name="PlaceName">Name of that place.</param>
/// <param name="IsSensitive">Whether its place is kept back in whatever leaves the program.</param>
/// <param name="Determinations">Newest first.</param>
public sealed record NamedPlant(
    Guid Id,
    string Label,
    Guid PlaceId,
    string PlaceName,
    bool IsSensitive,
    IReadOnlyList<GivenName> Determinations
)
{
    /// <summary>Of a plant that is known as a whole.</summary>
    public static NamedPlant Of(PlantDetail plant)
    {
        ArgumentNullException.ThrowIfNull(plant);
        return new(
            plant.Id,
            plant.Label,
            plant.Place.Id,
            plant.Place.Name,
            plant.IsSensitive,
            [
                .. plant.Determinations.Select(d => new GivenName(
                    d.Id,
                    d.EventDate,
                    d.RecordedAt,
                    d.Recorder.Name,
                    d.Name,
                    d.Names,
                    d.Note,
                    d.Confirmation?.Grade,
                    d.Questions is { Count: > 0 }
                )),
            ]
        );
    }
}

/// <summary>Of a determination what the list of records shows of it.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="EventDate">The day the plant was seen.</param>
/// <param name="RecordedAt">When it was taken in.</param>
/// <param name="Recorder">Who determined it.</param>
/// <param name="Name">The name that holds, see <see cref="DeterminationDetail"/>.</param>
/// <param name="Names">The taxa that were left standing.</param>
/// <param name="Note">The note.</param>
/// <param name="Grade">Its grade; null where it wasn't confirmed.</param>
/// <param name="IsInQuestion">Whether something else was come to where it was taken in.</param>
public sealed record GivenName(
    Guid Id,
    DateOnly EventDate,
    DateTimeOffset RecordedAt,
    string Recorder,
    string Name,
    IReadOnlyList<string> Names,
    string Note,
    Grade? Grade,
    bool IsInQuestion
);

/// <summary>Of a visit what the list of records shows of it.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="PlaceId">Where.</param>
/// <param name="PlaceName">Name of that place.</param>
/// <param name="Date">The day.</param>
/// <param name="Lines">Its list, superseded and withdrawn lines too.</param>
public sealed record ListOfVisit(Guid Id, Guid PlaceId, string PlaceName, DateOnly Date, IReadOnlyList<ListLine> Lines);

/// <summary>The list of records, made of plants and visits that are known as a whole where no server lists them.</summary>
/// <param name="Plants">The plants.</param>
/// <param name="Taxon">Only records with this name; null or empty for all.</param>
/// <param name="PlaceId">Only those of this place; null for all.</param>
/// <param name="Visits">The visits; null for none.</param>
/// <param name="Of">Which records.</param>
public sealed record RecordsDocument(
    IReadOnlyList<NamedPlant> Plants,
    string? Taxon = null,
    Guid? PlaceId = null,
    IReadOnlyList<ListOfVisit>? Visits = null,
    RecordsOf Of = RecordsOf.All
)
{
    /// <summary>A line for each determination and for each line of a list that stands for no plant, newest first.</summary>
    public IReadOnlyList<RecordLine> Tell() =>
        [
            .. Determinations()
                .Concat(Listed())
                .Where(l => string.IsNullOrEmpty(Taxon) || l.Line.Name == Taxon || l.Line.Names.Contains(Taxon, StringComparer.Ordinal))
                .OrderByDescending(l => l.Line.EventDate)
                .ThenBy(l => l.Line.SiteVisitId is not null)
                .ThenByDescending(l => l.Order)
                .Select(l => l.Line),
        ];

    private IEnumerable<(RecordLine Line, long Order)> Determinations() =>
        Of == RecordsOf.Lists
            ? []
            : (Plants ?? [])
                .Where(p => PlaceId is null || p.PlaceId == PlaceId)
                .SelectMany(p => p.Determinations.Select((d, i) => (Line(p, d, i), d.RecordedAt.UtcTicks)));

    private IEnumerable<(RecordLine Line, long Order)> Listed() =>
        Of == RecordsOf.Plants
            ? []
            : (Visits ?? [])
                .Where(v => PlaceId is null || v.PlaceId == PlaceId)
                .SelectMany(v =>
                    ListLine
                        .Holding(v.Lines)
                        .Where(l => l.PlantId is null)
                        .Select((l, i) => (RecordLine.Of(l, v.Id, v.PlaceId, v.PlaceName, v.Date), (long)i))
                );

    // A plant's determinations stand newest first.
    private static RecordLine Line(NamedPlant plant, GivenName it, int place) =>
        new(
            it.Id,
            plant.Id,
            plant.Label,
            plant.PlaceId,
            plant.PlaceName,
            it.EventDate,
            it.Recorder,
            it.Name,
            it.Names,
            plant.Determinations.Count - place,
            plant.Determinations.Count,
            it.Note,
            it.Grade,
            plant.IsSensitive,
            it.IsInQuestion
        );
}
