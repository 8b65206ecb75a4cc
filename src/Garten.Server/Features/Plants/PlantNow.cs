using Garten.Server.Database;
using Npgsql;

namespace Garten.Server.Features.Plants;

/// <summary>How each plant stands now, for lists and filters: a row that follows from the plant's facts and is written with them.</summary>
internal static class PlantNow
{
    /// <summary>Makes the rows of these plants again from their facts, in the transaction that changed them.</summary>
    public static async Task RefreshAsync(NpgsqlConnection connection, IReadOnlyCollection<Guid> plants, CancellationToken stop) =>
        await connection.Command("select refresh_plant_now($1)", (object)plants.ToArray()).RunAsync(stop);
}
