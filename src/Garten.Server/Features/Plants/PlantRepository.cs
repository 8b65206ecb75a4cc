using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.People;
using Npgsql;

namespace Garten.Server.Features.Plants;

/// <summary>A plant as its row says.</summary>
internal sealed record PlantRow(Guid PlaceId, string Label, DateOnly? TaggedOn, PlantSite? Site, Guid? PopulationId, int Version);

/// <summary>What the list of plants is narrowed to.</summary>
/// <param name="Place">A place; null for all.</param>
/// <param name="Text">What stands in the label or in a name, in letters of any size; null for all.</param>
/// <param name="IsPegged">Only those that belong to a counted population, or only those that don't; null for all.</param>
/// <param name="Ids">Just these; null for all.</param>
internal sealed record PlantFilter(Guid? Place = null, string? Text = null, bool? IsPegged = null, Guid[]? Ids = null);

/// <summary>Tagged plants and how they were found later.</summary>
internal sealed class PlantRepository(NpgsqlDataSource database)
{
    internal const string VisitColumns = "v.id, v.plant_id, v.visited_on, v.state, v.phases, v.sexes, v.note, w.name";

    /// <summary>A page of the plants by place and label, with the day they were last seen.</summary>
    /// <param name="filter">What it is narrowed to.</param>
    /// <param name="after">The last line of the page before; null for the first page.</param>
    /// <param name="size">How many lines at most.</param>
    /// <param name="stop">Stops the query.</param>
    public async Task<(IReadOnlyList<TaggedPlant> Plants, PlantCursor? Next)> PageAsync(
        PlantFilter filter,
        PlantCursor? after,
        int size,
        CancellationToken stop
    )
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var lines = await connection
            .Command(
                """
                select plant_id, label, place_id, place_name, names, tagged_on, seen_on, state, population_id
                from plant_now
                where ($1::uuid is null or place_id = $1) and ($2::text is null or searched like lower($2))
                    and ($7::boolean is null or (population_id is not null) = $7)
                    and ($8::uuid[] is null or plant_id = any($8))
                    and ($3::text is null or (place_name, label, plant_id) > ($3, $4, $5))
                order by place_name, label, plant_id
                limit $6
                """,
                filter.Place,
                filter.Text is null ? null : Containing(filter.Text),
                after?.PlaceName,
                after?.Label ?? "",
                after?.PlantId ?? Guid.Empty,
                size + 1,
                filter.IsPegged,
                filter.Ids
            )
            .ReadAllAsync(
                r => new TaggedPlant(
                    r.GetGuid(0),
                    r.GetString(1),
                    r.GetGuid(2),
                    r.GetString(3),
                    r.GetFieldValue<string[]>(4),
                    Day(r, 5),
                    Day(r, 6),
                    r.IsDBNull(7) ? null : Enum.Parse<PlantState>(r.GetString(7), ignoreCase: true),
                    r.IsDBNull(8) ? null : r.GetGuid(8)
                ),
                stop
            );
        var years = await YearsAsync(connection, [.. lines.Select(p => p.Id)], stop);
        var page = lines.Take(size).Select(p => p with { Years = years.GetValueOrDefault(p.Id) ?? [] }).ToList();
        return (page, lines.Count > size ? new PlantCursor(page[^1].PlaceName, page[^1].Label, page[^1].Id) : null);
    }

    // In which years each was visited or named.
    private static async Task<Dictionary<Guid, int[]>> YearsAsync(NpgsqlConnection connection, Guid[] plants, CancellationToken stop) =>
        (
            await connection
                .Command(
                    """
                    select plant_id, array_agg(year order by year)
                    from (
                        select plant_id, extract(year from visited_on)::int as year from plant_visit where plant_id = any($1)
                        union
                        select plant_id, extract(year from event_date)::int from determination where plant_id = any($1)
                    ) seen
                    group by plant_id
                    """,
                    plants
                )
                .ReadAllAsync(r => (Plant: r.GetGuid(0), Years: r.GetFieldValue<int[]>(1)), stop)
        ).ToDictionary(it => it.Plant, it => it.Years);

    // Any piece of the text; what means something in a pattern means itself.
    private static string Containing(string text)
    {
        foreach (var sign in new[] { @"\", "%", "_" })
            text = text.Replace(sign, @"\" + sign, StringComparison.Ordinal);
        return $"%{text}%";
    }

    /// <summary>What began in a year on tagged plants, where it was looked for shortly before.</summary>
    public async Task<IReadOnlyList<SeasonFirst>> FirstsAsync(int year, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var looks = await connection
            .Command(
                """
                select v.plant_id, p.names[1], n->>'phase', n->>'stage', v.visited_on, l.latitude, l.longitude, l.elevation_metres
                from plant_visit v
                cross join jsonb_array_elements(v.phases) n
                join plant_now p on p.plant_id = v.plant_id
                join place l on l.id = p.place_id
                where v.visited_on between $1 and $2 and v.phases <> '[]' and cardinality(p.names) = 1 and n->>'stage' in ('notYet', 'shown')
                order by v.plant_id, v.visited_on
                """,
                new DateOnly(year, 1, 1),
                new DateOnly(year, 12, 31)
            )
            .ReadAllAsync(
                r => new PhaseLook(
                    r.GetGuid(0),
                    r.GetString(1),
                    Enum.Parse<Phenophase>(r.GetString(2), ignoreCase: true),
                    r.GetString(3) == "shown",
                    r.GetFieldValue<DateOnly>(4),
                    r.IsDBNull(7) ? null : new SeasonSite(r.GetDouble(5), r.GetDouble(6), r.GetDouble(7))
                ),
                stop
            );
        return SeasonFirst.Of(looks);
    }

    internal static DateOnly? Day(NpgsqlDataReader row, int at) => row.IsDBNull(at) ? null : row.GetFieldValue<DateOnly>(at);

    internal static PlantSite? Site(NpgsqlDataReader row, int from) =>
        row.IsDBNull(from) ? null : new PlantSite(row.GetDouble(from), row.GetDouble(from + 1), row.GetDouble(from + 2));

    internal static Finding Finding(string json) => JsonSerializer.Deserialize(json, CoreJson.Default.Finding)!;

    internal static PlantVisit Visit(NpgsqlDataReader r) =>
        new(
            r.GetGuid(0),
            r.GetGuid(1),
            r.GetFieldValue<DateOnly>(2),
            Enum.Parse<PlantState>(r.GetString(3), ignoreCase: true),
            JsonSerializer.Deserialize(r.GetString(4), CoreJson.Default.IReadOnlyListPhaseNote)!,
            JsonSerializer.Deserialize(r.GetString(5), CoreJson.Default.IReadOnlyListBranchSex)!,
            r.GetString(6),
            r.GetString(7)
        );

    internal static Task<List<PlantVisit>> VisitsAsync(NpgsqlConnection connection, Guid[] plants, CancellationToken stop) =>
        connection
            .Command(
                $"select {VisitColumns} from plant_visit v join person w on w.id = v.visitor where v.plant_id = any($1) order by v.visited_on, v.number",
                plants
            )
            .ReadAllAsync(Visit, stop);

    internal static async Task<PlantRow?> FindAsync(NpgsqlConnection connection, Guid id, CancellationToken stop)
    {
        var found = await connection
            .Command(
                "select place_id, label, tagged_on, latitude, longitude, uncertainty_metres, population_id, version from plant where id = $1 for update",
                id
            )
            .ReadAllAsync(
                r => new PlantRow(r.GetGuid(0), r.GetString(1), Day(r, 2), Site(r, 3), r.IsDBNull(6) ? null : r.GetGuid(6), r.GetInt32(7)),
                stop
            );
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task TagAsync(CommandContext context, TagPlantCommand it, DateOnly on, CancellationToken stop)
    {
        await PersonRepository.EnsureAsync(context, it.Recorder, stop);
        await context
            .Connection.Command(
                """
                insert into plant (id, place_id, label, tagged_on, latitude, longitude, uncertainty_metres, population_id, finding) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)
                on conflict (id) do update set label = excluded.label, tagged_on = excluded.tagged_on, latitude = excluded.latitude, longitude = excluded.longitude,
                    uncertainty_metres = excluded.uncertainty_metres, population_id = excluded.population_id, finding = excluded.finding, version = plant.version + 1
                """,
                it.PlantId,
                it.PlaceId,
                it.Label,
                on,
                it.Site?.Latitude,
                it.Site?.Longitude,
                it.Site?.UncertaintyMetres,
                it.PopulationId
            )
            .With(Sql.Json(JsonSerializer.Serialize(it.Finding ?? Core.Contracts.Finding.None, CoreJson.Default.Finding)))
            .RunAsync(stop);
        context.PlantsChanged.Add(it.PlantId);
    }

    internal static async Task<bool> IsVisitAsync(NpgsqlConnection connection, Guid id, CancellationToken stop) =>
        (await connection.Command("select 1 from plant_visit where id = $1", id).ReadAllAsync(r => r.GetInt32(0), stop)).Count > 0;

    internal static async Task AddVisitAsync(CommandContext context, VisitPlantCommand it, DateOnly on, CancellationToken stop)
    {
        await PersonRepository.EnsureAsync(context, it.Recorder, stop);
        await context
            .Connection.Command(
                "insert into plant_visit (id, plant_id, visited_on, state, note, visitor, recorded_at, phases, sexes) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)",
                it.VisitId,
                it.PlantId,
                on,
                JsonNamingPolicy.CamelCase.ConvertName(it.State.ToString()),
                it.Note,
                it.Recorder.Id,
                context.Now
            )
            .With(Sql.Json(JsonSerializer.Serialize(it.Phases ?? [], CoreJson.Default.IReadOnlyListPhaseNote)))
            .With(Sql.Json(JsonSerializer.Serialize(it.Sexes ?? [], CoreJson.Default.IReadOnlyListBranchSex)))
            .RunAsync(stop);
        context.PlantsChanged.Add(it.PlantId);
    }

    /// <summary>The first day on which evidence of a plant was taken; null where there is none.</summary>
    internal static async Task<DateOnly?> EarliestEvidenceAsync(NpgsqlConnection connection, Guid plant, CancellationToken stop)
    {
        var found = await connection
            .Command(
                "select min(d) from (select min(observed_on) as d from observation where plant_id = $1 union all select min(event_date) from occurrence where plant_id = $1 union all select min(visited_on) from plant_visit where plant_id = $1) e",
                plant
            )
            .ReadAllAsync(r => Day(r, 0), stop);
        return found[0];
    }
}
