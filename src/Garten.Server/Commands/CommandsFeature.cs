using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Server.Features;
using Garten.Server.Features.Devices;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.Extensions.Options;

namespace Garten.Server.Commands;

/// <summary>The address that takes commands.</summary>
internal sealed class CommandsFeature : IFeature
{
    /// <summary>Which device sends: a UUID that it makes once.</summary>
    public const string DeviceHeader = "Garten-Device";

    /// <summary>The device that asks: a paired one is the one that was paired; null where none is named.</summary>
    public static Guid? DeviceOf(HttpRequest request) =>
        request.HttpContext.Features.Get<PairedDevice>() is { } paired ? paired.Id
        : Guid.TryParse(request.Headers[DeviceHeader], out var device) ? device
        : null;

    public void Add(IServiceCollection services)
    {
        CommandHandlers.Add(services);
        services.AddSingleton<CommandPipeline>();
    }

    public void Map(RouteGroupBuilder api) =>
        api.MapPost(
                "/commands",
                async (
                    [FromBody] CommandBatch batch,
                    HttpRequest request,
                    CommandPipeline pipeline,
                    IOptions<ServerLimits> limits,
                    CancellationToken stop
                ) =>
                {
                    if (batch.Commands.Count == 0 || batch.Commands.Count > limits.Value.MostCommands)
                        return Problems.Result(
                            422,
                            "batch.size",
                            "This batch has too many commands or none.",
                            $"Send 1 to {limits.Value.MostCommands} commands at a time.",
                            "commands"
                        );
                    // What was received is hashed, not what was understood of it: a field that this version doesn't know belongs to the
                    // command all the same.
                    request.Body.Position = 0;
                    using var text = await JsonDocument.ParseAsync(request.Body, cancellationToken: stop);
                    var received = text
                        .RootElement.EnumerateObject()
                        .Last(p => string.Equals(p.Name, "commands", StringComparison.OrdinalIgnoreCase))
                        .Value.EnumerateArray()
                        .Zip(batch.Commands, (json, command) => new ReceivedCommand(command, CanonicalJson.Hash(json)));
                    var results = await pipeline.ApplyAsync(
                        [.. received],
                        new Sender(DeviceOf(request), request.HttpContext.Features.Get<PairedDevice>()?.Person.Id),
                        stop
                    );
                    // A batch of one that is refused is answered by its problem, so that a script sees it in the status.
                    return results is [{ Problem: { } problem }] ? Problems.Result(problem) : Results.Ok(new CommandBatchResponse(results));
                }
            )
            .Produces<CommandBatchResponse>()
            .Produces<ProblemReport>(400, "application/problem+json")
            .Produces<ProblemReport>(409, "application/problem+json")
            .Produces<ProblemReport>(422, "application/problem+json")
            .Produces<ProblemReport>(500, "application/problem+json")
            .Produces<ProblemReport>(503, "application/problem+json")
            .WithName("sendCommands")
            .WithSummary("Carries out commands, each wholly or not at all and each once; a command sent again changes nothing.");
}
