using DbUp;
using DbUp.Engine;
using Npgsql;

namespace Garten.Server.Database;

/// <summary>Brings a database to the newest form: numbered SQL files, each once and in its own transaction.</summary>
internal static class Migrator
{
    // Any fixed number: servers that start at the same time take turns on it.
    private const long AdvisoryLock = 0x6761_7274_656e;

    /// <summary>Applies the migrations that the database lacks.</summary>
    /// <param name="connectionString">The database. A time-out in it holds for requests, not for migrations.</param>
    /// <param name="limit">Is told what the database allows; may be left out.</param>
    /// <returns>Facts of before that contradict each other, in words; at most 100 of them.</returns>
    /// <exception cref="InvalidOperationException">A migration failed; nothing of it was kept.</exception>
    public static IReadOnlyList<string> Migrate(string connectionString, ConnectionLimit? limit = null)
    {
        // A large table takes as long as it takes.
        connectionString = new NpgsqlConnectionStringBuilder(connectionString) { CommandTimeout = 0 }.ConnectionString;
        using var turn = new NpgsqlConnection(connectionString);
        turn.Open();
        using (var patience = new NpgsqlCommand("set statement_timeout = 0; set lock_timeout = 0", turn))
            patience.ExecuteNonQuery();
        using (var take = new NpgsqlCommand("select pg_advisory_lock($1)", turn) { Parameters = { new() { Value = AdvisoryLock } } })
            take.ExecuteNonQuery();
        var result = DeployChanges
            .To.PostgresqlDatabase(connectionString)
            .WithScriptsEmbeddedInAssembly(typeof(Migrator).Assembly, name => name.EndsWith(".sql", StringComparison.Ordinal))
            .WithTransactionPerScript()
            .WithVariablesDisabled()
            .LogToNowhere()
            .Build()
            .PerformUpgrade();
        using (var give = new NpgsqlCommand("select pg_advisory_unlock($1)", turn) { Parameters = { new() { Value = AdvisoryLock } } })
            give.ExecuteNonQuery();
        limit?.Ask(turn);
        if (!result.Successful)
            throw new InvalidOperationException($"Migration {Script(result)} failed: {result.Error.Message}", result.Error);
        var found = new List<string>();
        using var list = new NpgsqlCommand("select kind, id, reason from contradiction order by kind, id limit 100", turn);
        using var reader = list.ExecuteReader();
        while (reader.Read())
            found.Add($"{reader.GetString(0)} {reader.GetGuid(1)}: {reader.GetString(2)}");
        return found;
    }

    private static string Script(DatabaseUpgradeResult result) => result.ErrorScript?.Name ?? "of the database";
}
