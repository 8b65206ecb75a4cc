using Garten.Core.Contracts;
using Garten.Server.Hosting;
using Npgsql;

namespace Garten.Server.Health;

internal static class HealthEndpoints
{
    // Longer than this and a person would call it away.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(3);

    public static void MapHealth(this RouteGroupBuilder api) => api.MapGet("/health", async (NpgsqlDataSource database, CancellationToken stop) =>
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limit.CancelAfter(Patience);
        try
        {
            await using var command = database.CreateCommand("select 1");
            await command.ExecuteScalarAsync(limit.Token);
            return Results.Ok(new HealthReport("ready"));
        }
        catch (Exception away) when (away is NpgsqlException or TimeoutException || (away is OperationCanceledException && !stop.IsCancellationRequested))
        {
            return Problems.Result(503, "database.unavailable", "The database doesn't answer.", "What is typed is kept in the page and sent when the database is back.");
        }
    }).Produces<HealthReport>().Produces<ProblemReport>(503, "application/problem+json").WithName("getHealth").WithSummary("Whether the server and its database answer.");
}
