using Garten.Core.Contracts;
using Garten.Server.Database;
using Npgsql;

namespace Garten.Server.Features.Places;

/// <summary>Recording places.</summary>
internal sealed class PlaceRepository(NpgsqlDataSource database)
{
    // A place that a file brought goes when that is taken back, unless something else is of it meanwhile.
    private const string Stands = """
        l.merged_into is null and (l.import_id is null or not exists (select from import_withdrawal b where b.import_id = l.import_id)
            or exists (select from site_visit v where v.place_id = l.id and v.import_id is distinct from l.import_id)
            or exists (select from plant p where p.place_id = l.id and p.import_id is distinct from l.import_id))
        """;

    /// <summary>All places by name.</summary>
    public async Task<IReadOnlyList<Place>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command($"select {Columns} from place l where {Stands} order by name, id")
            .ReadAllAsync(r => Read(r, 0), stop);
    }

    /// <summary>The place of an id or, in whatever case, of a name; null where there is none. Of several of one name the first by
    /// id.</summary>
    public async Task<Place?> NamedAsync(string named, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var command = Guid.TryParse(named, out var id)
            ? connection.Command($"select {Columns} from place l where l.id = {Now("$1")}", id)
            : connection.Command(
                $"select {Columns} from place q join place l on l.id = coalesce(q.merged_into, q.id) where lower(q.name) = lower($1) order by q.id limit 1",
                named
            );
        return (await command.ReadAllAsync(r => Read(r, 0), stop)).FirstOrDefault();
    }

    /// <summary>What is read of a place named l.</summary>
    internal const string Columns =
        "l.id, l.name, l.locality, l.latitude, l.longitude, l.uncertainty_metres, l.caution, l.cell, l.elevation_metres, l.habitats, l.version, l.at_rest, "
        + "array(select m.id from place m where m.merged_into = l.id order by m.name, m.id), "
        + "array(select m.name from place m where m.merged_into = l.id order by m.name, m.id)";

    /// <summary>How many columns these are.</summary>
    internal const int Width = 14;

    internal static Place Read(NpgsqlDataReader row, int from) =>
        new(
            row.GetGuid(from),
            row.GetString(from + 1),
            row.GetString(from + 2),
            row.GetDouble(from + 3),
            row.GetDouble(from + 4),
            row.GetDouble(from + 5),
            row.GetString(from + 6),
            row.GetString(from + 7),
            row.IsDBNull(from + 8) ? null : row.GetDouble(from + 8),
            row.GetFieldValue<string[]>(from + 9),
            row.GetInt32(from + 10),
            row.GetBoolean(from + 11),
            row.GetFieldValue<Guid[]>(from + 12) is { Length: > 0 } merged
                ? [.. merged.Zip(row.GetFieldValue<string[]>(from + 13), (id, name) => new MergedPlace(id, name))]
                : null
        );

    /// <summary>The place that one was merged into; null where it stands by itself or isn't known.</summary>
    public async Task<Guid?> IntoAsync(Guid place, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return (await MergedAsync(connection, [place], stop)).TryGetValue(place, out var into) ? into : null;
    }

    /// <summary>SQL: the place that the one of an id is part of now.</summary>
    internal static string Now(string id) => $"(select coalesce(n.merged_into, n.id) from place n where n.id = {id})";

    /// <summary>Of places those that were merged, and into which.</summary>
    internal static async Task<IReadOnlyDictionary<Guid, Guid>> MergedAsync(
        NpgsqlConnection connection,
        IReadOnlyCollection<Guid> places,
        CancellationToken stop
    ) =>
        (
            await connection
                .Command("select id, merged_into from place where id = any($1) and merged_into is not null", (object)places.ToArray())
                .ReadAllAsync(r => (Id: r.GetGuid(0), Into: r.GetGuid(1)), stop)
        ).ToDictionary(p => p.Id, p => p.Into);

    /// <summary>What merging a place into another one would do; null where either isn't known, or was merged itself.</summary>
    public async Task<MergeOutlook?> MergingAsync(Guid id, Guid into, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var both = await connection
            .Command($"select {Columns} from place l where l.id = any($1) and l.merged_into is null", (object)new[] { id, into })
            .ReadAllAsync(r => Read(r, 0), stop);
        if (both.FirstOrDefault(p => p.Id == id) is not { } from || both.FirstOrDefault(p => p.Id == into && p.Id != id) is not { } other)
            return null;
        var tally = await connection
            .Command(
                """
                select (select count(*)::int from plant where place_id = $1), (select count(*)::int from population where place_id = $1),
                    (select count(*)::int from site_visit where place_id = $1), (select count(*)::int from plot where place_id = $1),
                    (select count(*)::int from survey_place where place_id = $1),
                    array(select distinct a.label from plant a join plant b on lower(b.label) = lower(a.label) and b.place_id = $2
                        where a.place_id = $1 and a.label <> '' order by 1),
                    exists (select from place_ground where place_id = $1)
                """,
                id,
                into
            )
            .ReadAllAsync(
                r => new MergeTally(
                    r.GetInt32(0),
                    r.GetInt32(1),
                    r.GetInt32(2),
                    r.GetInt32(3),
                    r.GetInt32(4),
                    r.GetFieldValue<string[]>(5),
                    r.GetBoolean(6)
                ),
                stop
            );
        return MergeOutlook.Of(from, other, tally[0]);
    }

    internal static async Task<Place> FindAsync(NpgsqlConnection connection, Guid id, CancellationToken stop) =>
        (await connection.Command($"select {Columns} from place l where id = $1", id).ReadAllAsync(r => Read(r, 0), stop))[0];

    internal static async Task<int?> VersionAsync(NpgsqlConnection connection, Guid id, CancellationToken stop)
    {
        var found = await connection.Command("select version from place where id = $1", id).ReadAllAsync(r => r.GetInt32(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static Task SaveAsync(NpgsqlConnection connection, SavePlaceCommand place, CancellationToken stop) =>
        connection
            .Command(
                """
                insert into place (id, name, locality, latitude, longitude, uncertainty_metres, caution, cell, elevation_metres, habitats, at_rest)
                values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)
                on conflict (id) do update set (name, locality, latitude, longitude, uncertainty_metres, caution, cell, elevation_metres,
                        habitats, at_rest, version) =
                    (excluded.name, excluded.locality, excluded.latitude, excluded.longitude, excluded.uncertainty_metres, excluded.caution,
                        excluded.cell, excluded.elevation_metres, excluded.habitats, excluded.at_rest, place.version + 1)
                """,
                place.PlaceId,
                place.Name,
                place.Locality,
                place.Latitude,
                place.Longitude,
                place.UncertaintyMetres,
                place.Caution,
                place.Cell,
                place.ElevationMetres,
                place.Habitats?.ToArray() ?? [],
                place.IsAtRest
            )
            .RunAsync(stop);
}
