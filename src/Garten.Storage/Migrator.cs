using DbUp;
using DbUp.Engine;
using Npgsql;

namespace Garten.Storage;

/// <summary>Brings a database to the newest form: numbered SQL files, each once and in its own transaction.</summary>
public static class Migrator
{
    // Any fixed number: servers that start at the same time take turns on it.
    private const long AdvisoryLock = 0x6761_7274_656e;

    /// <summary>Applies the migrations that the database lacks.</summary>
    /// <exception cref="InvalidOperationException">A migration failed; nothing of it was kept.</exception>
    public static void Migrate(string connectionString)
    {
        using var turn = new NpgsqlConnection(connectionString);
        turn.Open();
        using (var take = new NpgsqlCommand("select pg_advisory_lock($1)", turn) { Parameters = { new() { Value = AdvisoryLock } } }) take.ExecuteNonQuery();
        var result = DeployChanges.To.PostgresqlDatabase(connectionString)
            .WithScriptsEmbeddedInAssembly(typeof(Migrator).Assembly, name => name.EndsWith(".sql", StringComparison.Ordinal))
            .WithTransactionPerScript()
            .WithVariablesDisabled()
            .LogToNowhere()
            .Build()
            .PerformUpgrade();
        using (var give = new NpgsqlCommand("select pg_advisory_unlock($1)", turn) { Parameters = { new() { Value = AdvisoryLock } } }) give.ExecuteNonQuery();
        if (!result.Successful) throw new InvalidOperationException($"Migration {Script(result)} failed: {result.Error.Message}", result.Error);
    }

    private static string Script(DatabaseUpgradeResult result) => result.ErrorScript?.Name ?? "of the database";
}
