using Npgsql;

namespace Garten.Server.Database;

/// <summary>Brings the database up to date before the first request.</summary>
internal sealed partial class DatabaseStart(string connectionString, ConnectionLimit limit, ILogger<DatabaseStart> log)
{
    // A database that is just starting is waited for this long.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    public async Task MigrateAsync(CancellationToken stop)
    {
        var until = DateTime.UtcNow + Patience;
        while (true)
        {
            try
            {
                foreach (var contradiction in Migrator.Migrate(connectionString, limit))
                    Contradicts(log, contradiction);
                return;
            }
            catch (NpgsqlException away)
                when (DateTime.UtcNow < until && away is not PostgresException { SqlState: not PostgresErrorCodes.CannotConnectNow })
            {
                Waiting(log, away.Message);
                await Task.Delay(TimeSpan.FromSeconds(1), stop);
            }
        }
    }

    [LoggerMessage(LogLevel.Warning, "Facts that contradict each other, of before this was held: {Contradiction}")]
    private static partial void Contradicts(ILogger log, string contradiction);

    [LoggerMessage(LogLevel.Warning, "The database doesn't answer yet: {Reason}")]
    private static partial void Waiting(ILogger log, string reason);
}
