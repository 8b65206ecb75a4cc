using System.Net;
using Garten.Core.Contracts;
using Garten.Server.Hosting;
using Npgsql;

namespace Garten.Server.Features.Sandbox;

/// <summary>A made-up island to look at, never among one's own rows.</summary>
internal sealed class SandboxFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Add(IServiceCollection services)
    {
        services.AddSingleton<SandboxHost>();
        services.AddHostedService(p => p.GetRequiredService<SandboxHost>());
    }

    public void Map(RouteGroupBuilder api)
    {
        api.MapPost("/sandbox", async (HttpContext context, SandboxHost sandbox, CancellationToken stop) =>
            {
                // It listens on this machine alone: nobody else could open it.
                if (context.Connection.RemoteIpAddress is { } from && !IPAddress.IsLoopback(from))
                    return Problems.Result(
                        403,
                        "sandbox.elsewhere",
                        "The sandbox opens on the machine that serves.",
                        "Open this page there, or start ./garten demo on your own."
                    );
                if (!sandbox.IsThere)
                    return Problems.Result(
                        404,
                        "sandbox.none",
                        "There is no sandbox here.",
                        "Start ./garten demo: it has the same island in a database of its own."
                    );
                try
                {
                    return Results.Ok(new SandboxOpened(await sandbox.StartAsync(stop)));
                }
                catch (PostgresException refused) when (refused.SqlState == PostgresErrorCodes.InsufficientPrivilege)
                {
                    return Problems.Result(
                        403,
                        "sandbox.rights",
                        "The database doesn't let this server make another one.",
                        "Start ./garten demo: it brings its own database."
                    );
                }
            })
            .Produces<SandboxOpened>()
            .Produces<ProblemReport>(403, Problem)
            .Produces<ProblemReport>(404, Problem)
            .WithName("openSandbox")
            .WithSummary(
                "Opens the made-up island beside one's own database, or answers with the one that is open; it is dropped when it ends."
            );

        api.MapDelete("/sandbox", async (SandboxHost sandbox, CancellationToken stop) =>
            {
                await sandbox.EndAsync(stop);
                return Results.NoContent();
            })
            .Produces(204)
            .WithName("endSandbox")
            .WithSummary("Ends the sandbox and drops its database; nothing where none is open.");
    }
}

/// <summary>A sandbox that was opened.</summary>
/// <param name="Address">Where it answers, on this machine.</param>
internal sealed record SandboxOpened(Uri Address);
