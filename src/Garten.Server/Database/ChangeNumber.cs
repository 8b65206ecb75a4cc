using Npgsql;

namespace Garten.Server.Database;

/// <summary>The number of the last change: what follows from all facts is the same as long as it stays.</summary>
internal static class ChangeNumber
{
    public static async Task<long> LastAsync(NpgsqlDataSource database, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return (await connection.Command("select last from change_counter").ReadAllAsync(r => r.GetInt64(0), stop))[0];
    }
}
