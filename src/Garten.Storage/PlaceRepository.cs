using Garten.Core.Contracts;
using Npgsql;

namespace Garten.Storage;

/// <summary>Recording places.</summary>
public sealed class PlaceRepository(NpgsqlDataSource database)
{
    /// <summary>All places by name.</summary>
    public async Task<IReadOnlyList<Place>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection.Command("select id, name, locality, latitude, longitude, uncertainty_metres, caution from place order by name, id").ReadAllAsync(r => Read(r, 0), stop);
    }

    internal static Place Read(NpgsqlDataReader row, int from) => new(
        row.GetGuid(from), row.GetString(from + 1), row.GetString(from + 2), row.GetDouble(from + 3), row.GetDouble(from + 4), row.GetDouble(from + 5), row.GetString(from + 6));

    // False where a place of this id stands already.
    internal static async Task<bool> AddAsync(NpgsqlConnection connection, SavePlaceCommand place, CancellationToken stop) =>
        await connection.Command(
            """
            insert into place (id, name, locality, latitude, longitude, uncertainty_metres, caution)
            values ($1, $2, $3, $4, $5, $6, $7)
            on conflict (id) do nothing
            """, place.PlaceId, place.Name, place.Locality, place.Latitude, place.Longitude, place.UncertaintyMetres, place.Caution).RunAsync(stop) == 1;
}
