using Garten.Core.Contracts;
using Garten.Server.Hosting;
using Garten.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Garten.Server.Commands;

internal static class CommandEndpoints
{
    public static void MapCommands(this RouteGroupBuilder api) => api.MapPost("/commands", async ([FromBody] CommandBatch batch, CommandStore store, CancellationToken stop) =>
    {
        if (batch.Commands.Count == 0 || batch.Commands.Count > ApiLimits.MostCommands) return Problems.Result(422, "batch.size", "This batch has too many commands or none.", $"Send 1 to {ApiLimits.MostCommands} commands at a time.", "commands");
        var results = new List<CommandResult>();
        try
        {
            foreach (var command in batch.Commands) results.Add(await store.ApplyAsync(command, stop));
        }
        catch (Exception error) when (results.Count > 0 && Problems.MayPass(error))
        {
            // What came before is done; it is known by its id when the batch comes again.
            return Problems.Result(Problems.Of(error) with { Detail = $"The first {results.Count} of {batch.Commands.Count} were carried out; send all of them again, those change nothing any more." });
        }
        // A batch of one that is refused is answered by its problem, so that a script sees it in the status.
        return results is [{ Problem: { } problem }] ? Problems.Result(problem) : Results.Ok(new CommandBatchResponse(results));
    })
    .Produces<CommandBatchResponse>()
    .Produces<ProblemReport>(400, "application/problem+json")
    .Produces<ProblemReport>(409, "application/problem+json")
    .Produces<ProblemReport>(422, "application/problem+json")
    .Produces<ProblemReport>(500, "application/problem+json")
    .Produces<ProblemReport>(503, "application/problem+json")
    .WithName("sendCommands")
    .WithSummary("Carries out commands, each wholly or not at all and each once; a command sent again changes nothing.");
}
