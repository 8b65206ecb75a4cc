using Garten.Core.Contracts;
using Garten.Server.Features.Sandbox;
using Garten.Server.Hosting;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Microsoft.Extensions.Options;
using Npgsql;

namespace Garten.Server.Features.Health;

/// <summary>Whether the server and its database answer.</summary>
internal sealed class HealthFeature : IFeature
{
    private const string Database = "database";

    // Longer than this and a person would call it away.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(3);

    public void Add(IServiceCollection services)
    {
        services.AddHealthChecks().AddCheck<DatabaseCheck>(Database, timeout: Patience);
        // While the database is away every page asks again and again: what the requests themselves log of it is enough.
        services.AddLogging(l => l.AddFilter("Microsoft.Extensions.Diagnostics.HealthChecks", LogLevel.None));
    }

    public void Map(RouteGroupBuilder api) =>
        api.MapGet("/health", async (string? at, HealthCheckService health, IConfiguration settings, CancellationToken stop) =>
            {
                // Who asks with another “at” each time is answered by no proxy that has kept an earlier answer.
                _ = at;
                var report = await health.CheckHealthAsync(stop);
                return report.Entries[Database] is { Status: HealthStatus.Healthy, Data: var data }
                    ? Results.Ok(
                        new HealthReport(
                            "ready",
                            (Guid)data[DatabaseCheck.Epoch],
                            (bool)data[DatabaseCheck.CopyWanted],
                            settings[SandboxHost.IsSandbox] is not null,
                            (long)data[DatabaseCheck.LastChange]
                        )
                    )
                    : Problems.Result(
                        503,
                        "database.unavailable",
                        "The database doesn't answer.",
                        "What is typed is kept in the page and sent when the database is back."
                    );
            })
            .Produces<HealthReport>()
            .Produces<ProblemReport>(503, "application/problem+json")
            .WithName("getHealth")
            .WithSummary("Whether the server and its database answer, which life of the database it is, and whether a copy is wanted.");
}

/// <summary>Asks the database which life of it this is, and when it was copied last.</summary>
internal sealed class DatabaseCheck(NpgsqlDataSource database, TimeProvider clock, IOptions<ServerLimits> limits) : IHealthCheck
{
    public const string Epoch = "epoch";
    public const string CopyWanted = "copyWanted";
    public const string LastChange = "lastChange";

    public async Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        try
        {
            await using var command = database.CreateCommand(
                """
                select id, greatest(began_at, (select max(made_at) from backup_made)), (select last from change_counter)
                from epoch order by began_at desc limit 1
                """
            );
            await using var row = await command.ExecuteReaderAsync(cancellationToken);
            await row.ReadAsync(cancellationToken);
            var copied = row.GetFieldValue<DateTimeOffset>(1);
            return HealthCheckResult.Healthy(
                data: new Dictionary<string, object>
                {
                    [Epoch] = row.GetGuid(0),
                    [LastChange] = row.GetInt64(2),
                    [CopyWanted] = copied < clock.GetUtcNow().AddDays(-limits.Value.CopyWantedAfterDays),
                }
            );
        }
        catch (Exception away) when (away is NpgsqlException or TimeoutException)
        {
            return HealthCheckResult.Unhealthy(exception: away);
        }
    }
}
