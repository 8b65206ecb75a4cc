using Garten.Core.Contracts;
using Garten.Server.Hosting;
using Npgsql;

namespace Garten.Server.Features.Health;

/// <summary>Whether the server and its database answer.</summary>
internal sealed class HealthFeature : IFeature
{
    // Longer than this and a person would call it away.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(3);

    // A month of records is more than anyone wants to lose.
    private static readonly TimeSpan CopyWantedAfter = TimeSpan.FromDays(30);

    public void Map(RouteGroupBuilder api) =>
        api.MapGet("/health", async (NpgsqlDataSource database, TimeProvider clock, CancellationToken stop) =>
            {
                using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
                limit.CancelAfter(Patience);
                try
                {
                    await using var command = database.CreateCommand(
                        "select id, greatest(began_at, (select max(made_at) from backup_made)) from epoch order by began_at desc limit 1"
                    );
                    await using var row = await command.ExecuteReaderAsync(limit.Token);
                    await row.ReadAsync(limit.Token);
                    return Results.Ok(
                        new HealthReport(
                            "ready",
                            row.GetGuid(0),
                            row.GetFieldValue<DateTimeOffset>(1) < clock.GetUtcNow() - CopyWantedAfter
                        )
                    );
                }
                catch (Exception away)
                    when (away is NpgsqlException or TimeoutException
                        || (away is OperationCanceledException && !stop.IsCancellationRequested)
                    )
                {
                    return Problems.Result(
                        503,
                        "database.unavailable",
                        "The database doesn't answer.",
                        "What is typed is kept in the page and sent when the database is back."
                    );
                }
            })
            .Produces<HealthReport>()
            .Produces<ProblemReport>(503, "application/problem+json")
            .WithName("getHealth")
            .WithSummary("Whether the server and its database answer, which life of the database it is, and whether a copy is wanted.");
}
