using System.Globalization;
using System.Text.Json;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Surveys.SiteVisits;
using Garten.Core.Visits;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Evidence;
using Garten.Server.Features.People;
using Garten.Server.Features.Places;
using Garten.Server.Features.Plants;
using Npgsql;

namespace Garten.Server.Features.Records;

/// <summary>What the record list is narrowed to.</summary>
/// <param name="Taxon">A name that a determination has, alone or among others left open; null for all.</param>
/// <param name="Place">A place; null for all.</param>
/// <param name="Of">Which records.</param>
internal sealed record RecordFilter(string? Taxon, Guid? Place, RecordsOf Of = RecordsOf.All);

/// <summary>A place in the record list: the line after which the next page begins.</summary>
/// <param name="EventDate">Its day.</param>
/// <param name="Number">Its number among its kind.</param>
/// <param name="IsList">Whether it is a line of a list: of one day these stand behind determinations.</param>
internal sealed record RecordCursor(DateOnly EventDate, long Number, bool IsList = false)
{
    private const string ListMark = "l";

    /// <summary>Reads a cursor as it was given out; null where it isn't one.</summary>
    public static RecordCursor? Parse(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var parts = text.Split('_');
        return
            (parts.Length == 2 || parts.Length == 3 && parts[2] == ListMark)
            && DateOnly.TryParseExact(parts[0], "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var date)
            && long.TryParse(parts[1], NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? new RecordCursor(date, number, parts.Length == 3)
            : null;
    }

    /// <inheritdoc />
    public override string ToString() =>
        string.Create(CultureInfo.InvariantCulture, $"{EventDate:yyyy-MM-dd}_{Number}{(IsList ? "_" + ListMark : "")}");
}

/// <summary>An occurrence with its determinations, newest first, for the export.</summary>
internal sealed record OccurrenceRow(
    Guid Id,
    Guid PlantId,
    string PlantLabel,
    Place Place,
    DateOnly EventDate,
    string RecordedBy,
    IReadOnlyList<DeterminationRow> Determinations,
    IReadOnlyList<string> NamesOfPlant
);

/// <summary>A determination for the export.</summary>
internal sealed record DeterminationRow(
    string Name,
    IReadOnlyList<string> Names,
    string IdentifiedBy,
    DateTimeOffset RecordedAt,
    string Note,
    string StartKeyTitle,
    IReadOnlyList<TrailStep> Steps,
    IReadOnlyList<DeterminationQuestion> Questions,
    CitedNaming? Cited
);

/// <summary>Plants, the days they were seen, and the names put on them.</summary>
internal sealed class DeterminationRepository(NpgsqlDataSource database, CharacterTable glossary)
{
    // What a plant's records leave the lists by: what a file brought can be taken back.
    private const string Stands = "not exists (select from import_withdrawal b where b.import_id = p.import_id)";

    private const string Filtered = "($1::text is null or d.name = $1 or $1 = any(d.names)) and ($2::uuid is null or d.place_id = $2)";

    /// <summary>A page of determinations and of lines of lists, newest first.</summary>
    /// <param name="filter">What it is narrowed to.</param>
    /// <param name="after">The last line of the page before; null for the first page.</param>
    /// <param name="size">How many lines at most.</param>
    /// <param name="stop">Stops the query.</param>
    public async Task<RecordPage> PageAsync(RecordFilter filter, RecordCursor? after, int size, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(filter);
        await using var connection = await database.OpenConnectionAsync(stop);
        // By name through the table of names, which holds them in the order of the list.
        var (from, order) = filter.Taxon is null
            ? ("determination d", "d")
            : ("determination_name n join determination d on d.number = n.number", "n");
        var lines =
            filter.Of == RecordsOf.Lists
                ? []
                : await connection
                    .Command(
                        $"""
                select d.id, d.plant_id, p.label, d.place_id, l.name, d.event_date, w.name, d.name, d.names, d.note, d.number, d.confirmation->>'grade',
                    (select count(*) from determination o where o.plant_id = d.plant_id and o.number <= d.number)::int,
                    (select count(*) from determination o where o.plant_id = d.plant_id)::int, d.question is not null
                from {from}
                join plant p on p.id = d.plant_id
                join place l on l.id = d.place_id
                join person w on w.id = d.identified_by
                where ($1::text is null{(
                    filter.Taxon is null ? "" : " or n.name = $1"
                )}) and ($2::uuid is null or d.place_id = $2) and (p.import_id is null or {Stands})
                    and ($3::date is null or ({order}.event_date, {order}.number) < ($3, $4))
                order by {order}.event_date desc, {order}.number desc
                limit $5
                """,
                        filter.Taxon,
                        filter.Place,
                        after?.EventDate,
                        // Behind a line of a list stands no determination of its day any more.
                        after is { IsList: true }
                            ? 0L
                            : after?.Number ?? 0L,
                        size + 1
                    )
                    .ReadAllAsync(
                        r =>
                            (
                                Line: new RecordLine(
                                    r.GetGuid(0),
                                    r.GetGuid(1),
                                    r.GetString(2),
                                    r.GetGuid(3),
                                    r.GetString(4),
                                    r.GetFieldValue<DateOnly>(5),
                                    r.GetString(6),
                                    r.GetString(7),
                                    r.GetFieldValue<string[]>(8),
                                    r.GetInt32(12),
                                    r.GetInt32(13),
                                    r.GetString(9),
                                    r.IsDBNull(11) ? null : Enum.Parse<Grade>(r.GetString(11), ignoreCase: true),
                                    IsInQuestion: r.GetBoolean(14)
                                ),
                                Number: r.GetInt64(10)
                            ),
                        stop
                    );
        if (filter.Of != RecordsOf.Plants)
            lines =
            [
                .. lines
                    .Concat(await ListedAsync(connection, filter, after, size, stop))
                    .OrderByDescending(l => l.Line.EventDate)
                    .ThenBy(l => l.Line.SiteVisitId is not null)
                    .ThenByDescending(l => l.Number),
            ];
        var names = await connection.Command("select name from record_name order by name").ReadAllAsync(r => r.GetString(0), stop);
        var page = lines.Take(size).ToList();
        var next =
            lines.Count > size
                ? new RecordCursor(page[^1].Line.EventDate, page[^1].Number, page[^1].Line.SiteVisitId is not null).ToString()
                : null;
        return new RecordPage([.. page.Select(l => l.Line)], next, names);
    }

    // Lines of lists that stand for no plant and hold.
    private static Task<List<(RecordLine Line, long Number)>> ListedAsync(
        NpgsqlConnection connection,
        RecordFilter filter,
        RecordCursor? after,
        int size,
        CancellationToken stop
    ) =>
        connection
            .Command(
                """
                select l.id, l.visit_id, v.place_id, p.name, v.visited_on, w.name, l.taxon, l.unnamed, l.compartment, l.at, l.details, l.number
                from list_line l
                join site_visit v on v.id = l.visit_id
                join place p on p.id = v.place_id
                join person w on w.id = l.recorder
                where l.plant_id is null and ($1::text is null or l.taxon = $1) and ($2::uuid is null or v.place_id = $2)
                    and ($3::date is null or v.visited_on < $3 or v.visited_on = $3 and ($4::bigint is null or l.number < $4))
                    and not exists (select from list_line_withdrawal d where d.line_id = l.id)
                    and (l.import_id is null or not exists (select from import_withdrawal b where b.import_id = l.import_id))
                    and not exists (
                        select from list_line o where o.supersedes = l.id and not exists (select from list_line_withdrawal d where d.line_id = o.id))
                order by v.visited_on desc, l.number desc
                limit $5
                """,
                filter.Taxon,
                filter.Place,
                after?.EventDate,
                after is { IsList: true } ? after.Number : null,
                size + 1
            )
            .ReadAllAsync(
                r =>
                    (
                        RecordLine.Of(
                            new ListLine(
                                r.GetGuid(0),
                                r.GetString(6),
                                r.GetString(7),
                                null,
                                r.GetString(8),
                                r.GetString(5),
                                r.GetString(9),
                                JsonSerializer.Deserialize(r.GetString(10), CoreJson.Default.LineDetails) ?? LineDetails.None
                            ),
                            r.GetGuid(1),
                            r.GetGuid(2),
                            r.GetString(3),
                            r.GetFieldValue<DateOnly>(4)
                        ),
                        r.GetInt64(11)
                    ),
                stop
            );

    /// <summary>A plant with its whole history; null where it isn't known.</summary>
    public async Task<PlantDetail?> PlantAsync(Guid id, CancellationToken stop) =>
        (await PlantsAsync([id], stop)) is [var plant, ..] ? plant : null;

    /// <summary>Plants with their whole history, in the order of their ids as given; those that aren't known are left out.</summary>
    public async Task<IReadOnlyList<PlantDetail>> PlantsAsync(Guid[] ids, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var plants = (
            await connection
                .Command(
                    $"""
                    select p.id, p.label, p.tagged_on, p.latitude, p.longitude, p.uncertainty_metres, p.finding, p.population_id, p.version, {PlaceRepository.Columns}
                    from plant p join place l on l.id = p.place_id where p.id = any($1)
                    """,
                    (object)ids
                )
                .ReadAllAsync(
                    r => new PlantDetail(
                        r.GetGuid(0),
                        r.GetString(1),
                        PlaceRepository.Read(r, 9),
                        [],
                        [],
                        [],
                        [],
                        PlantRepository.Day(r, 2),
                        PlantRepository.Site(r, 3),
                        PlantRepository.Finding(r.GetString(6)),
                        r.IsDBNull(7) ? null : r.GetGuid(7),
                        r.GetInt32(8),
                        []
                    ),
                    stop
                )
        ).ToDictionary(p => p.Id);
        if (plants.Count == 0)
            return [];
        var determinations = (await DeterminationsAsync(connection, ids, stop)).ToLookup(d => d.Plant);
        var looks = await EvidenceRepository.OfPlantsAsync(connection, ids, glossary, stop);
        var visits = (await PlantRepository.VisitsAsync(connection, ids, stop)).ToLookup(v => v.PlantId);
        return
        [
            .. ids.Where(plants.ContainsKey)
                .Select(id =>
                {
                    var (readable, unreadable) = looks.GetValueOrDefault(id) ?? PlantLooks.None;
                    return plants[id] with
                    {
                        Determinations = [.. determinations[id].Select(d => d.It)],
                        Observations = readable,
                        // What was worked out once and can't be read any more is left out, and said; the name stands.
                        Unreadable = [.. unreadable, .. determinations[id].Select(d => d.Broken).OfType<UnreadableFact>()],
                        Visits = [.. visits[id]],
                    };
                }),
        ];
    }

    // Newest first.
    private static Task<List<(Guid Plant, DeterminationDetail It, UnreadableFact? Broken)>> DeterminationsAsync(
        NpgsqlConnection connection,
        Guid[] plants,
        CancellationToken stop
    ) =>
        connection
            .Command(
                """
                select d.id, d.occurrence_id, d.event_date, d.recorded_at, w.id, w.name, d.name, d.names, coalesce(d.start_key, ''), coalesce(k.title, ''), d.trail, d.note, d.floras, d.confirmation, d.question, d.plant_id, d.cited
                from determination d
                join person w on w.id = d.identified_by
                left join key_version k on k.hash = d.start_key
                where d.plant_id = any($1)
                order by d.number desc
                """,
                (object)plants
            )
            .ReadAllAsync(
                r =>
                {
                    var (confirmation, broken) = Confirmation(r);
                    return (
                        r.GetGuid(15),
                        new DeterminationDetail(
                            r.GetGuid(0),
                            r.GetGuid(1),
                            r.GetFieldValue<DateOnly>(2),
                            r.GetFieldValue<DateTimeOffset>(3),
                            new PersonReference(r.GetGuid(4), r.GetString(5)),
                            r.GetString(6),
                            r.GetFieldValue<string[]>(7),
                            r.GetString(8),
                            r.GetString(9),
                            Steps(r.GetString(10)),
                            r.GetString(11),
                            JsonSerializer.Deserialize(r.GetString(12), CoreJson.Default.IReadOnlyDictionaryStringInt32)!,
                            confirmation,
                            Questions: r.IsDBNull(14)
                                ? null
                                : JsonSerializer.Deserialize(r.GetString(14), CoreJson.Default.IReadOnlyListDeterminationQuestion),
                            Cited: Cited(r, 16)
                        ),
                        broken
                    );
                },
                stop
            );

    private static CitedNaming? Cited(NpgsqlDataReader r, int at) =>
        r.IsDBNull(at) ? null : JsonSerializer.Deserialize(r.GetString(at), CoreJson.Default.CitedNaming);

    private static (ConfirmResult? It, UnreadableFact? Broken) Confirmation(NpgsqlDataReader r)
    {
        if (r.IsDBNull(13))
            return (null, null);
        try
        {
            return (JsonSerializer.Deserialize(r.GetString(13), CoreJson.Default.ConfirmResult), null);
        }
        catch (JsonException)
        {
            return (
                null,
                new UnreadableFact(
                    r.GetGuid(0),
                    "How a name was confirmed",
                    r.GetFieldValue<DateOnly>(2).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    "It was written in a form that can't be read any more."
                )
            );
        }
    }

    /// <summary>A page of the plants of which something is still to be seen, by their newest determination; by place and label. What is
    /// dead is asked nothing any more.</summary>
    /// <param name="today">The day from which what has slipped is told.</param>
    /// <param name="after">The last line of the page before; null for the first page.</param>
    /// <param name="size">How many lines at most.</param>
    /// <param name="stop">Stops the query.</param>
    public async Task<(IReadOnlyList<OpenPlant> Plants, PlantCursor? Next)> OpenAsync(
        DateOnly today,
        PlantCursor? after,
        int size,
        CancellationToken stop
    )
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var lines = await connection
            .Command(
                """
                select n.plant_id, n.label, n.place_id, n.place_name, l.caution, coalesce(n.names[1], ''), n.grade, o.needs, o.cautions, n.determined_on, o.needs_before
                from plant_now n
                join plant_open o on o.plant_id = n.plant_id
                join place l on l.id = n.place_id
                where n.is_open and ($1::text is null or (n.place_name, n.label, n.plant_id) > ($1, $2, $3))
                order by n.place_name, n.label, n.plant_id
                limit $4
                """,
                after?.PlaceName,
                after?.Label ?? "",
                after?.PlantId ?? Guid.Empty,
                size + 1
            )
            .ReadAllAsync(r => Open(r, today), stop);
        var page = lines.Take(size).ToList();
        return (page, lines.Count > size ? new PlantCursor(page[^1].PlaceName, page[^1].Label, page[^1].PlantId) : null);
    }

    /// <summary>All of them.</summary>
    public async Task<IReadOnlyList<OpenPlant>> OpenAsync(DateOnly today, CancellationToken stop) =>
        (await OpenAsync(today, null, int.MaxValue - 1, stop)).Plants;

    private static OpenPlant Open(NpgsqlDataReader row, DateOnly today)
    {
        IReadOnlyList<OpenNeed> Needs(int at) => JsonSerializer.Deserialize(row.GetString(at), CoreJson.Default.IReadOnlyListOpenNeed)!;
        var (needs, on) = (Needs(7), row.GetFieldValue<DateOnly>(9));
        return new OpenPlant(
            row.GetGuid(0),
            row.GetString(1),
            row.GetGuid(2),
            row.GetString(3),
            row.GetString(4),
            row.GetString(5),
            Enum.Parse<Grade>(row.GetString(6), ignoreCase: true),
            needs,
            JsonSerializer.Deserialize(row.GetString(8), CoreJson.Default.IReadOnlyListCautionLine)!,
            on,
            VisitOutcome.Of(Needs(10), needs, on, today)
        );
    }

    /// <summary>The names that plants of a place bear now.</summary>
    public async Task<IReadOnlyList<string>> NamesAtAsync(Guid place, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command("select distinct unnest(names) from plant_now where place_id = $1", place)
            .ReadAllAsync(r => r.GetString(0), stop);
    }

    /// <summary>Every occurrence that has a determination within the filter, newest first, with all its determinations, and all names that
    /// its plant ever bore.</summary>
    public async IAsyncEnumerable<OccurrenceRow> ExportAsync(
        RecordFilter filter,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop
    )
    {
        ArgumentNullException.ThrowIfNull(filter);
        await using var connection = await database.OpenConnectionAsync(stop);
        await using var command = connection.Command(
            $"""
            select o.id, o.plant_id, p.label, o.event_date, r.name, {PlaceRepository.Columns},
                a.name, a.names, w.name, a.recorded_at, a.note, coalesce(k.title, ''), a.trail, coalesce(a.question, '[]'), a.cited,
                (select array_agg(distinct n) from determination h, unnest(h.names || h.name) n where h.plant_id = o.plant_id and n <> '')
            from occurrence o
            join plant p on p.id = o.plant_id
            join place l on l.id = p.place_id
            join person r on r.id = o.recorded_by
            join determination a on a.occurrence_id = o.id
            join person w on w.id = a.identified_by
            left join key_version k on k.hash = a.start_key
            where exists (select from determination d where d.occurrence_id = o.id and {Filtered}) and (p.import_id is null or {Stands})
            order by o.event_date desc, o.id desc, a.number desc
            """,
            filter.Taxon,
            filter.Place
        );
        const int PlaceAt = 5;
        await using var reader = await command.ExecuteReaderAsync(stop);
        OccurrenceRow? current = null;
        var determinations = new List<DeterminationRow>();
        while (await reader.ReadAsync(stop))
        {
            var id = reader.GetGuid(0);
            if (current is not null && current.Id != id)
            {
                yield return current with
                {
                    Determinations = [.. determinations],
                };
                determinations.Clear();
            }
            if (current?.Id != id)
                current = new OccurrenceRow(
                    id,
                    reader.GetGuid(1),
                    reader.GetString(2),
                    PlaceRepository.Read(reader, PlaceAt),
                    reader.GetFieldValue<DateOnly>(3),
                    reader.GetString(4),
                    [],
                    reader.GetFieldValue<string[]>(PlaceAt + PlaceRepository.Width + 9)
                );
            const int own = PlaceAt + PlaceRepository.Width;
            determinations.Add(
                new DeterminationRow(
                    reader.GetString(own),
                    reader.GetFieldValue<string[]>(own + 1),
                    reader.GetString(own + 2),
                    reader.GetFieldValue<DateTimeOffset>(own + 3),
                    reader.GetString(own + 4),
                    reader.GetString(own + 5),
                    Steps(reader.GetString(own + 6)),
                    JsonSerializer.Deserialize(reader.GetString(own + 7), CoreJson.Default.IReadOnlyListDeterminationQuestion)!,
                    Cited(reader, own + 8)
                )
            );
        }
        if (current is not null)
            yield return current with
            {
                Determinations = [.. determinations],
            };
    }

    /// <summary>Facts that contradict each other, of before the database held them together; none are looked for where the database has
    /// made sure of it.</summary>
    public async Task<IReadOnlyList<Contradiction>> ContradictionsAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                """
                select kind, id, plant_id, reason
                from contradiction
                where exists (select from pg_constraint where not convalidated and connamespace = current_schema()::regnamespace)
                order by kind, id
                limit 500
                """
            )
            .ReadAllAsync(r => new Contradiction(r.GetString(0), r.GetGuid(1), r.IsDBNull(2) ? null : r.GetGuid(2), r.GetString(3)), stop);
    }

    /// <summary>The names that a plant bears now, with the determination they are of; empty while it has none.</summary>
    internal static async Task<(Guid Id, IReadOnlyList<string> Names)> NamesOfAsync(
        NpgsqlConnection connection,
        Guid plant,
        CancellationToken stop
    )
    {
        var found = await connection
            .Command("select id, names from determination where plant_id = $1 order by number desc limit 1", plant)
            .ReadAllAsync(r => (r.GetGuid(0), r.GetFieldValue<string[]>(1)), stop);
        return found.Count == 0 ? (Guid.Empty, []) : found[0];
    }

    internal static async Task<(Guid Plant, DateOnly Date)?> OccurrenceAsync(NpgsqlConnection connection, Guid id, CancellationToken stop)
    {
        var found = await connection
            .Command("select plant_id, event_date from occurrence where id = $1", id)
            .ReadAllAsync(r => (r.GetGuid(0), r.GetFieldValue<DateOnly>(1)), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<bool> IsPlaceAsync(NpgsqlConnection connection, Guid id, CancellationToken stop) =>
        (await connection.Command("select 1 from place where id = $1", id).ReadAllAsync(r => r.GetInt32(0), stop)).Count > 0;

    internal static async Task<bool> IsDeterminationAsync(NpgsqlConnection connection, Guid id, CancellationToken stop) =>
        (await connection.Command("select 1 from determination where id = $1", id).ReadAllAsync(r => r.GetInt32(0), stop)).Count > 0;

    internal static async Task AddAsync(
        CommandContext context,
        RecordDeterminationCommand it,
        DateOnly date,
        IReadOnlyList<TrailStep> steps,
        ConfirmResult? confirmation,
        IReadOnlyList<DeterminationQuestion> questions,
        CancellationToken stop
    )
    {
        var connection = context.Connection;
        await PersonRepository.EnsureAsync(context, it.Recorder, stop);
        await connection
            .Command(
                "insert into plant (id, place_id, label) values ($1, $2, $3) on conflict (id) do nothing",
                it.PlantId,
                it.PlaceId,
                it.PlantLabel
            )
            .RunAsync(stop);
        await connection
            .Command(
                "insert into occurrence (id, plant_id, event_date, recorded_by) values ($1, $2, $3, $4) on conflict (id) do nothing",
                it.OccurrenceId,
                it.PlantId,
                date,
                it.Recorder.Id
            )
            .RunAsync(stop);
        var names = it.Names.ToArray();
        var numbers = await connection
            .Command(
                """
                insert into determination (id, occurrence_id, plant_id, place_id, event_date, identified_by, recorded_at, name, names, start_key, note, trail, hand, confirmation, question, floras)
                select $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, nullif($14, 'null'::jsonb), nullif($15, '[]'::jsonb), coalesce(jsonb_object_agg(f.id, f.version), '{}')
                from (select id, max(version) as version from flora group by id) f
                returning number
                """,
                it.DeterminationId,
                it.OccurrenceId,
                it.PlantId,
                it.PlaceId,
                date,
                it.Recorder.Id,
                context.Now,
                Conclusion.SharedName(names),
                names,
                it.StartKey.Length > 0 ? it.StartKey : null,
                it.Note
            )
            .With(Sql.Json(JsonSerializer.Serialize(steps, CoreJson.Default.IReadOnlyListTrailStep)))
            .With(Sql.Json(JsonSerializer.Serialize(it.Hand ?? [], CoreJson.Default.IReadOnlyListHandWeighing)))
            .With(Sql.Json(confirmation is null ? "null" : JsonSerializer.Serialize(confirmation, CoreJson.Default.ConfirmResult)))
            .With(Sql.Json(JsonSerializer.Serialize(questions, CoreJson.Default.IReadOnlyListDeterminationQuestion)))
            .ReadAllAsync(r => r.GetInt64(0), stop);
        context.Determined.AddRange(numbers);
        context.PlantsChanged.Add(it.PlantId);
    }

    private static IReadOnlyList<TrailStep> Steps(string json) =>
        JsonSerializer.Deserialize(json, CoreJson.Default.IReadOnlyListTrailStep)!;
}
