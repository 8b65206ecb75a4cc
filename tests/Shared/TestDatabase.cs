using Npgsql;

namespace Garten.Testing;

/// <summary>A database of its own for a test class, on the throw-away PostgreSQL that ./garten test starts.</summary>
public sealed class TestDatabase : IAsyncDisposable
{
    private readonly string _admin;
    private readonly string _name;

    private TestDatabase(string admin, string name)
    {
        _admin = admin;
        _name = name;
        ConnectionString = new NpgsqlConnectionStringBuilder(admin) { Database = name }.ConnectionString;
    }

    public string ConnectionString { get; }

    /// <summary>Makes one.</summary>
    /// <param name="template">The database that it is a copy of, while nobody is connected to that; null for an empty one.</param>
    public static async Task<TestDatabase> CreateAsync(TestDatabase? template = null)
    {
        var admin = Environment.GetEnvironmentVariable("GARTEN_TEST_DATABASE")
            ?? throw new InvalidOperationException(
                "GARTEN_TEST_DATABASE is not set: run the tests with ./garten test, which starts a PostgreSQL for them."
            );
        var database = new TestDatabase(admin, "test_" + Guid.NewGuid().ToString("N"));
        await database.RunAsync($"create database {database._name}{(template is null ? "" : $" template {template._name}")}");
        return database;
    }

    private const int MostTries = 20;

    public async ValueTask DisposeAsync()
    {
        NpgsqlConnection.ClearAllPools();
        for (var tries = 1; ; tries++)
        {
            try
            {
                await RunAsync($"drop database if exists {_name} with (force)");
                return;
            }
            catch (PostgresException busy)
                when (tries < MostTries && busy.SqlState is PostgresErrorCodes.InsufficientPrivilege or PostgresErrorCodes.ObjectInUse)
            {
                // The database's own housekeeping is at it, and may not be sent away: it ends by itself.
                await Task.Delay(TimeSpan.FromMilliseconds(100 * tries));
            }
        }
    }

    /// <summary>How many tables stand in it.</summary>
    public async Task<long> CountTablesAsync()
    {
        await using var connection = new NpgsqlConnection(ConnectionString);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(
            "select count(*) from information_schema.tables where table_schema = 'public'",
            connection
        );
        return (long)(await command.ExecuteScalarAsync())!;
    }

    private async Task RunAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(_admin);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
