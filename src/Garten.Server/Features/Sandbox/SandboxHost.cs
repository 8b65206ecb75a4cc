using Garten.Server.Database;
using Garten.Server.Hosting;
using Npgsql;

namespace Garten.Server.Features.Sandbox;

/// <summary>
/// The made-up island to look at, apart from what is one's own: a second server in this process, on a port and a database of its own.
/// Both are gone when it ends, at the latest with the server.
/// </summary>
internal sealed class SandboxHost(
    NpgsqlDataSource database,
    IConfiguration configuration,
    IWebHostEnvironment host,
    ILogger<SandboxHost> log
) : IHostedService, IDisposable
{
    /// <summary>The setting that says in a sandbox that it is one.</summary>
    public const string IsSandbox = "GARTEN_SANDBOX";

    /// <summary>The setting with the folder of the island's data.</summary>
    public const string Data = "GARTEN_DEMO_DATA";

    private const string Prefix = "garten_sandbox_";

    // One person looks at it: the connections are for the server itself.
    private const int Connections = 6;

    private readonly SemaphoreSlim _turn = new(1, 1);
    private (WebApplication App, string Database)? _running;
    private bool _isDisposed;

    /// <summary>Whether one can be had here: the data is there, and this is none itself.</summary>
    public bool IsThere => configuration[IsSandbox] is null && configuration[Data] is { Length: > 0 } data && Directory.Exists(data);

    /// <summary>Starts it, or answers with the one that runs.</summary>
    /// <returns>Its address.</returns>
    public async Task<Uri> StartAsync(CancellationToken stop)
    {
        await _turn.WaitAsync(stop);
        try
        {
            if (_running is { App: var runs })
                return AddressOf(runs);
            await DropForgottenAsync(stop);
            var name = Prefix + Guid.NewGuid().ToString("N")[..12];
            await using (var connection = await database.OpenConnectionAsync(stop))
                await connection.Command($"create database {name}").RunAsync(stop);
            WebApplication? app = null;
            try
            {
                var own = new NpgsqlConnectionStringBuilder(database.ConnectionString)
                {
                    Password = new NpgsqlConnectionStringBuilder(configuration["GARTEN_DATABASE"]).Password,
                    Database = name,
                    MaxPoolSize = Connections,
                };
                app = GartenHost.Build(
                    new WebApplicationOptions { ContentRootPath = host.ContentRootPath, EnvironmentName = host.EnvironmentName },
                    new Dictionary<string, string?>
                    {
                        ["GARTEN_DATABASE"] = own.ConnectionString,
                        ["GARTEN_DEMO"] = configuration[Data],
                        ["GARTEN_TODAY"] = configuration["GARTEN_TODAY"],
                        ["GARTEN_WEB"] = configuration["GARTEN_WEB"],
                        [IsSandbox] = "yes",
                        ["GARTEN_LISTEN"] = "",
                        // Any free port, on this machine alone.
                        ["urls"] = "http://127.0.0.1:0",
                    }
                );
                await GartenHost.PrepareAsync(app);
                await app.StartAsync(stop);
                _running = (app, name);
                log.SandboxStarted(name);
                return AddressOf(app);
            }
            catch
            {
                if (app is not null)
                    await app.DisposeAsync();
                await DropAsync(name, CancellationToken.None);
                throw;
            }
        }
        finally
        {
            _turn.Release();
        }
    }

    /// <summary>Ends it and drops its database; nothing where none runs.</summary>
    public async Task EndAsync(CancellationToken stop)
    {
        await _turn.WaitAsync(stop);
        try
        {
            if (_running is not { } running)
                return;
            _running = null;
            await running.App.StopAsync(CancellationToken.None);
            await running.App.DisposeAsync();
            await DropAsync(running.Database, CancellationToken.None);
        }
        finally
        {
            _turn.Release();
        }
    }

    Task IHostedService.StartAsync(CancellationToken cancellationToken) => Task.CompletedTask;

    // A host that is thrown away is told to stop once more.
    Task IHostedService.StopAsync(CancellationToken cancellationToken) =>
        _isDisposed ? Task.CompletedTask : EndAsync(CancellationToken.None);

    public void Dispose()
    {
        _isDisposed = true;
        _turn.Dispose();
    }

    private static Uri AddressOf(WebApplication app) => new(app.Urls.First());

    // Those of a server that was killed are of no use to anybody; one that is in use stays.
    private async Task DropForgottenAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var forgotten = await connection
            .Command(
                """
                select datname from pg_database d
                where datname like $1 and not exists (select from pg_stat_activity a where a.datname = d.datname)
                """,
                Prefix.Replace("_", @"\_", StringComparison.Ordinal) + "%"
            )
            .ReadAllAsync(r => r.GetString(0), stop);
        foreach (var name in forgotten)
            await connection.Command($"drop database if exists {name}").RunAsync(stop);
    }

    private async Task DropAsync(string name, CancellationToken stop)
    {
        try
        {
            await using var connection = await database.OpenConnectionAsync(stop);
            await connection.Command($"drop database if exists {name} with (force)").RunAsync(stop);
        }
        catch (NpgsqlException left)
        {
            // The next sandbox drops it.
            log.SandboxLeft(left, name);
        }
    }
}

internal static partial class SandboxLog
{
    [LoggerMessage(Level = LogLevel.Information, Message = "A sandbox was started on the database {Database}.")]
    public static partial void SandboxStarted(this ILogger log, string database);

    [LoggerMessage(Level = LogLevel.Warning, Message = "The database {Database} of a sandbox couldn't be dropped.")]
    public static partial void SandboxLeft(this ILogger log, Exception why, string database);
}
