using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Server.Database;
using Npgsql;

namespace Garten.Server.Features.Places;

/// <summary>The grounds of places, what maps are drawn on, and what stands on them.</summary>
internal sealed class GroundRepository(NpgsqlDataSource database)
{
    /// <summary>The grounds that are described, by place.</summary>
    public async Task<IReadOnlyList<PlaceGround>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command("select place_id, ground, version from place_ground order by place_id")
            .ReadAllAsync(
                r => new PlaceGround(
                    r.GetGuid(0),
                    JsonSerializer.Deserialize(r.GetString(1), CoreJson.Default.GroundDescription) ?? GroundDescription.None,
                    r.GetInt32(2)
                ),
                stop
            );
    }

    /// <summary>A place with its boundary; that is empty where none was drawn.</summary>
    internal static async Task<(Place Place, IReadOnlyList<GroundPoint> Outline)> OutlineAsync(
        NpgsqlConnection connection,
        Guid place,
        CancellationToken stop
    ) =>
        (
            await connection
                .Command(
                    $"select {PlaceRepository.Columns}, g.ground from place l left join place_ground g on g.place_id = l.id where "
                        + $"l.id = $1",
                    place
                )
                .ReadAllAsync(
                    r =>
                        (
                            PlaceRepository.Read(r, 0),
                            r.IsDBNull(PlaceRepository.Width)
                                ? []
                                : JsonSerializer
                                    .Deserialize(r.GetString(PlaceRepository.Width), CoreJson.Default.GroundDescription)
                                    ?.Outline
                                    ?? []
                        ),
                    stop
                )
        )[0];

    /// <summary>What maps are drawn on, as GeoJSON; an empty collection where nothing was brought.</summary>
    public async Task<string> BaseAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var found = await connection
            .Command("select features::text from base_map order by added_at, id")
            .ReadAllAsync(r => r.GetString(0), stop);
        // Several are drawn one over the other.
        var features = string.Join(',', found.Select(f => f.Trim()[1..^1]).Where(f => f.Length > 0));
        return $$"""{"type":"FeatureCollection","features":[{{features}}]}""";
    }

    /// <summary>Keeps the features of a map; one of the same id is replaced.</summary>
    public async Task SaveBaseAsync(string id, string features, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        await connection
            .Command("insert into base_map (id, features) values ($1, $2) on conflict (id) do update set features = excluded.features", id)
            .With(Sql.Json(features))
            .RunAsync(stop);
    }

    /// <summary>What stands on the map: marked plants, lines with a position of their own, populations.</summary>
    /// <param name="taxon">Only this name; null for all.</param>
    /// <param name="place">Only this place; null for all.</param>
    /// <param name="most">How many at most, the newest first.</param>
    /// <param name="stop">Stops the query.</param>
    public async Task<IReadOnlyList<MapPoint>> PointsAsync(string? taxon, Guid? place, int most, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                """
                (select 0, n.plant_id, n.place_id, coalesce(nullif(array_to_string(n.names, ' or '), ''), n.label), n.seen_on,
                    p.latitude, p.longitude, p.uncertainty_metres
                from plant_now n join plant p on p.id = n.plant_id
                where p.latitude is not null and ($1::text is null or $1 = any(n.names)) and ($2::uuid is null or n.place_id = $2)
                order by n.seen_on desc nulls last limit $3)
                union all
                (select 1, l.visit_id, l.place_id, coalesce(nullif(l.name, ''), l.unnamed), l.visited_on,
                    l.latitude, l.longitude, l.uncertainty_metres
                from list_line_now l
                where l.latitude is not null and l.plant_id is null and ($1::text is null or l.name = $1)
                    and ($2::uuid is null or l.place_id = $2)
                order by l.visited_on desc, l.number desc limit $3)
                union all
                (select 2, q.id, q.place_id, q.taxon,
                    (select max(counted_on) from population_count c where c.population_id = q.id), l.latitude, l.longitude, l.uncertainty_metres
                from population q join place l on l.id = q.place_id
                where ($1::text is null or q.taxon = $1) and ($2::uuid is null or q.place_id = $2)
                order by q.id limit $3)
                """,
                taxon,
                place,
                most
            )
            .ReadAllAsync(
                r => new MapPoint(
                    (MapPointKind)r.GetInt32(0),
                    r.GetGuid(1),
                    r.GetGuid(2),
                    r.GetString(3),
                    r.IsDBNull(4) ? null : r.GetFieldValue<DateOnly>(4),
                    r.GetDouble(5),
                    r.GetDouble(6),
                    r.GetDouble(7)
                ),
                stop
            );
    }

    internal static async Task<int?> VersionAsync(NpgsqlConnection connection, Guid place, CancellationToken stop)
    {
        var found = await connection
            .Command("select version from place_ground where place_id = $1", place)
            .ReadAllAsync(r => r.GetInt32(0), stop);
        return found.Count == 0 ? null : found[0];
    }
}
