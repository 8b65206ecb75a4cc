using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Surveys.SiteVisits;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.People;
using Garten.Server.Features.Places;
using Garten.Server.Features.Tracks;
using Npgsql;

namespace Garten.Server.Features.SiteVisits;

/// <summary>Visits to places, their lists and what was said at their ends.</summary>
internal sealed class SiteVisitRepository(NpgsqlDataSource database)
{
    /// <summary>A page of visits as a whole, newest first.</summary>
    /// <param name="place">Only visits to this place; null for all.</param>
    /// <param name="ids">Only these; null for all.</param>
    /// <param name="after">The last visit of the page before; null for the first page.</param>
    /// <param name="size">How many at most.</param>
    /// <param name="withTracks">Whether the pieces of their tracks are wanted.</param>
    /// <param name="stop">Stops the query.</param>
    public async Task<(IReadOnlyList<SiteVisit> Visits, SiteVisitCursor? Next)> PageAsync(
        Guid? place,
        Guid[]? ids,
        SiteVisitCursor? after,
        int size,
        bool withTracks,
        CancellationToken stop
    )
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await PageAsync(connection, place, ids, after, size, withTracks, stop);
    }

    /// <summary>The visits to some places within some days as a whole, oldest first.</summary>
    internal static async Task<IReadOnlyList<SiteVisit>> BetweenAsync(
        NpgsqlConnection connection,
        Guid[] places,
        DateOnly from,
        DateOnly to,
        CancellationToken stop
    )
    {
        var ids = await connection
            .Command(
                $"select id from site_visit v where place_id = any($1) and visited_on between $2 and $3 and coalesce(visited_until, visited_on) <= $3 and {Stands}",
                places,
                from,
                to
            )
            .ReadAllAsync(r => r.GetGuid(0), stop);
        var (visits, _) = await PageAsync(connection, null, [.. ids], null, ids.Count, withTracks: false, stop);
        return [.. visits.Reverse()];
    }

    // A visit that a file brought leaves the lists when that is taken back.
    private const string Stands = "(v.import_id is null or not exists (select from import_withdrawal b where b.import_id = v.import_id))";

    private static async Task<(IReadOnlyList<SiteVisit> Visits, SiteVisitCursor? Next)> PageAsync(
        NpgsqlConnection connection,
        Guid? place,
        Guid[]? ids,
        SiteVisitCursor? after,
        int size,
        bool withTracks,
        CancellationToken stop
    )
    {
        var rows = await connection
            .Command(
                $"""
                select v.id, v.visited_on, v.started_at, v.purpose, v.weather, v.pauses, v.safety, v.version, {PlaceRepository.Columns}, v.visited_until,
                    nullif(v.planned, '[]')
                from site_visit v join place l on l.id = v.place_id
                where ($1::uuid is null or v.place_id = $1) and ($2::uuid[] is null or v.id = any($2)) and {Stands}
                    and ($3::date is null or (v.visited_on, v.started_at, v.id) < ($3, $4, $5))
                order by v.visited_on desc, v.started_at desc, v.id desc
                limit $6
                """,
                place,
                ids,
                after?.Date,
                after?.StartedAt ?? "",
                after?.Id ?? Guid.Empty,
                size + 1
            )
            .ReadAllAsync(Row, stop);
        var page = rows.Take(size).ToList();
        Guid[] of = [.. page.Select(v => v.Id)];
        var people = (await PeopleAsync(connection, of, stop)).ToLookup(p => p.Visit, p => p.It);
        var lines = (await LinesAsync(connection, of, stop)).ToLookup(l => l.Visit, l => l.It);
        var closings = (await ClosingsAsync(connection, of, stop)).ToDictionary(c => c.Visit, c => c.It);
        // Lists of visits and surveys don't show them, and they are long.
        var tracks = withTracks ? (await TrackRepository.OfVisitsAsync(connection, of, stop)).ToLookup(t => t.Visit, t => t.It) : null;
        return (
            [
                .. page.Select(v =>
                    v with
                    {
                        People = [.. people[v.Id]],
                        Lines = [.. lines[v.Id]],
                        Closing = closings.GetValueOrDefault(v.Id),
                        Tracks = tracks is null ? null : [.. tracks[v.Id]],
                    }
                ),
            ],
            rows.Count > size ? new SiteVisitCursor(page[^1].Date, page[^1].StartedAt, page[^1].Id) : null
        );
    }

    /// <summary>What was found at a place on visits before a day: each name with its years.</summary>
    public async Task<IReadOnlyList<FoundBefore>> FoundAsync(Guid place, DateOnly? before, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                """
                select name, array_agg(distinct year order by year) from (
                    select name, extract(year from visited_on)::int as year from list_line_now
                    where place_id = $1 and name <> '' and ($2::date is null or visited_on < $2)
                    union all
                    select n.names[1], extract(year from n.determined_on)::int from plant_now n
                    where n.place_id = $1 and cardinality(n.names) = 1 and ($2::date is null or n.determined_on < $2)
                    union all
                    select f.find->>'taxon', extract(year from v.visited_on)::int
                    from plot p
                    join plot_record r on r.plot_id = p.id
                    join site_visit v on v.id = r.visit_id
                    cross join jsonb_array_elements(r.finds) as f(find)
                    where p.place_id = $1 and ($2::date is null or v.visited_on < $2)
                        and not exists (select from plot_record o where o.supersedes = r.id)
                ) f group by name order by name
                """,
                place,
                before
            )
            .ReadAllAsync(r => new FoundBefore(r.GetString(0), r.GetFieldValue<int[]>(1)), stop);
    }

    private static SiteVisit Row(NpgsqlDataReader r) =>
        new(
            r.GetGuid(0),
            PlaceRepository.Read(r, 8),
            r.GetFieldValue<DateOnly>(1),
            r.GetString(2),
            [],
            r.GetString(3),
            r.GetString(4),
            Pauses(r.GetString(5)),
            r.IsDBNull(6) ? null : JsonSerializer.Deserialize(r.GetString(6), CoreJson.Default.SafetyPlan),
            r.GetInt32(7),
            [],
            null,
            Until: r.IsDBNull(8 + PlaceRepository.Width) ? null : r.GetFieldValue<DateOnly>(8 + PlaceRepository.Width),
            Planned: r.IsDBNull(9 + PlaceRepository.Width)
                ? null
                : JsonSerializer.Deserialize(r.GetString(9 + PlaceRepository.Width), CoreJson.Default.IReadOnlyListPlannedQuestion)
        );

    private static IReadOnlyList<VisitPause> Pauses(string json) =>
        JsonSerializer.Deserialize(json, CoreJson.Default.IReadOnlyListVisitPause) ?? [];

    private static Task<List<(Guid Visit, PersonReference It)>> PeopleAsync(
        NpgsqlConnection connection,
        Guid[] visits,
        CancellationToken stop
    ) =>
        connection
            .Command(
                """
                select p.visit_id, w.id, w.name from site_visit_person p join person w on w.id = p.person_id
                where p.visit_id = any($1) order by p.place
                """,
                (object)visits
            )
            .ReadAllAsync(r => (r.GetGuid(0), new PersonReference(r.GetGuid(1), r.GetString(2))), stop);

    // A line of a plant bears the name that the plant has now, where it has one.
    private static Task<List<(Guid Visit, ListLine It)>> LinesAsync(NpgsqlConnection connection, Guid[] visits, CancellationToken stop) =>
        connection
            .Command(
                """
                select l.visit_id, l.id,
                    case when l.plant_id is null then l.taxon when cardinality(n.names) = 1 then n.names[1] else '' end,
                    l.unnamed, l.plant_id, l.compartment, w.name, l.at, l.details, l.latitude, l.longitude, l.uncertainty_metres,
                    l.supersedes,
                    exists (select from list_line_withdrawal d where d.line_id = l.id)
                        or exists (select from import_withdrawal d where d.import_id = l.import_id)
                from list_line l
                join person w on w.id = l.recorder
                left join plant_now n on n.plant_id = l.plant_id
                where l.visit_id = any($1)
                order by l.number
                """,
                (object)visits
            )
            .ReadAllAsync(
                r =>
                    (
                        r.GetGuid(0),
                        new ListLine(
                            r.GetGuid(1),
                            r.GetString(2),
                            r.GetString(3),
                            r.IsDBNull(4) ? null : r.GetGuid(4),
                            r.GetString(5),
                            r.GetString(6),
                            r.GetString(7),
                            JsonSerializer.Deserialize(r.GetString(8), CoreJson.Default.LineDetails) ?? LineDetails.None,
                            Number(r, 9),
                            Number(r, 10),
                            Number(r, 11),
                            r.IsDBNull(12) ? null : r.GetGuid(12),
                            r.GetBoolean(13)
                        )
                    ),
                stop
            );

    private static double? Number(NpgsqlDataReader row, int at) => row.IsDBNull(at) ? null : row.GetDouble(at);

    private static Task<List<(Guid Visit, VisitClosing It)>> ClosingsAsync(
        NpgsqlConnection connection,
        Guid[] visits,
        CancellationToken stop
    ) =>
        connection
            .Command(
                """
                select distinct on (visit_id) visit_id, closing from site_visit_closing
                where visit_id = any($1) order by visit_id, number desc
                """,
                (object)visits
            )
            .ReadAllAsync(r => (r.GetGuid(0), JsonSerializer.Deserialize(r.GetString(1), CoreJson.Default.VisitClosing)!), stop);

    internal static async Task<int?> VersionAsync(NpgsqlConnection connection, Guid visit, CancellationToken stop)
    {
        var found = await connection.Command("select version from site_visit where id = $1", visit).ReadAllAsync(r => r.GetInt32(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<(string StartedAt, IReadOnlyList<VisitPause> Pauses)?> TimesAsync(
        NpgsqlConnection connection,
        Guid visit,
        CancellationToken stop
    )
    {
        var found = await connection
            .Command("select started_at, pauses from site_visit where id = $1", visit)
            .ReadAllAsync(r => (r.GetString(0), Pauses(r.GetString(1))), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<VisitClosing?> ClosingAsync(NpgsqlConnection connection, Guid visit, CancellationToken stop) =>
        (await ClosingsAsync(connection, [visit], stop)) is [var (_, it)] ? it : null;

    internal static async Task<IReadOnlySet<string>> NamesAsync(NpgsqlConnection connection, Guid visit, CancellationToken stop) =>
        (
            await connection
                .Command("select distinct name from list_line_now where visit_id = $1 and name <> ''", visit)
                .ReadAllAsync(r => r.GetString(0), stop)
        ).ToHashSet(StringComparer.Ordinal);

    internal static async Task<Guid?> VisitOfLineAsync(NpgsqlConnection connection, Guid line, CancellationToken stop)
    {
        var found = await connection.Command("select visit_id from list_line where id = $1", line).ReadAllAsync(r => r.GetGuid(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task SaveAsync(
        CommandContext context,
        SaveSiteVisitCommand it,
        DateOnly on,
        DateOnly? until,
        CancellationToken stop
    )
    {
        await context
            .Connection.Command(
                """
                insert into site_visit
                    (id, place_id, visited_on, started_at, purpose, weather, recorded_at, visited_until, pauses, safety, planned)
                values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, coalesce($11, '[]'::jsonb))
                on conflict (id) do update set
                    (place_id, visited_on, started_at, purpose, weather, visited_until, pauses, safety, planned, version) =
                    (excluded.place_id, excluded.visited_on, excluded.started_at, excluded.purpose, excluded.weather,
                        excluded.visited_until, excluded.pauses, excluded.safety, coalesce($11, site_visit.planned), site_visit.version + 1)
                """,
                it.SiteVisitId,
                it.PlaceId,
                on,
                it.StartedAt,
                it.Purpose,
                it.Weather,
                context.Now,
                until
            )
            .With(Sql.Json(JsonSerializer.Serialize(it.Pauses ?? [], CoreJson.Default.IReadOnlyListVisitPause)))
            .With(
                new NpgsqlParameter
                {
                    Value = it.Safety is null ? DBNull.Value : JsonSerializer.Serialize(it.Safety, CoreJson.Default.SafetyPlan),
                    NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Jsonb,
                }
            )
            .With(
                new NpgsqlParameter
                {
                    Value = it.Planned is null
                        ? DBNull.Value
                        : JsonSerializer.Serialize(it.Planned, CoreJson.Default.IReadOnlyListPlannedQuestion),
                    NpgsqlDbType = NpgsqlTypes.NpgsqlDbType.Jsonb,
                }
            )
            .RunAsync(stop);
        await context.Connection.Command("delete from site_visit_person where visit_id = $1", it.SiteVisitId).RunAsync(stop);
        await context
            .Connection.Command(
                """
                insert into site_visit_person (visit_id, person_id, place)
                select $1, id, place from unnest($2::uuid[]) with ordinality as p(id, place)
                """,
                it.SiteVisitId,
                it.People.Select(p => p.Id).ToArray()
            )
            .RunAsync(stop);
    }

    // False where a line of this id stands already.
    internal static async Task<bool> AddLineAsync(CommandContext context, ListTaxonCommand it, LineDetails details, CancellationToken stop)
    {
        var isNew =
            await context
                .Connection.Command(
                    """
                    insert into list_line (id, visit_id, taxon, unnamed, plant_id, compartment, recorder, at, latitude, longitude,
                        uncertainty_metres, supersedes, recorded_at, details)
                    values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14)
                    on conflict (id) do nothing
                    """,
                    it.LineId,
                    it.SiteVisitId,
                    it.Taxon,
                    it.Unnamed,
                    it.PlantId,
                    it.Compartment,
                    it.Recorder.Id,
                    it.At,
                    it.Site?.Latitude,
                    it.Site?.Longitude,
                    it.Site?.UncertaintyMetres,
                    it.Supersedes,
                    context.Now
                )
                .With(Sql.Json(JsonSerializer.Serialize(details, CoreJson.Default.LineDetails)))
                .RunAsync(stop) == 1;
        if (isNew && it.Taxon.Length > 0)
            context.NamesListed.Add(it.Taxon);
        return isNew;
    }

    internal static Task WithdrawAsync(CommandContext context, Guid line, CancellationToken stop) =>
        context
            .Connection.Command(
                "insert into list_line_withdrawal (line_id, recorded_at) values ($1, $2) on conflict (line_id) do nothing",
                line,
                context.Now
            )
            .RunAsync(stop);

    internal static Task CloseAsync(CommandContext context, CloseSiteVisitCommand it, CancellationToken stop) =>
        context
            .Connection.Command(
                "insert into site_visit_closing (id, visit_id, recorded_at, closing) values ($1, $2, $3, $4)",
                it.Id,
                it.SiteVisitId,
                context.Now
            )
            .With(Sql.Json(JsonSerializer.Serialize(it.Closing, CoreJson.Default.VisitClosing)))
            .RunAsync(stop);
}
