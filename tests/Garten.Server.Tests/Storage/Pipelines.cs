using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Server.Commands;
using Garten.Server.Features;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Garten.Server.Tests.Storage;

/// <summary>The write path without the rest of the server.</summary>
internal static class Pipelines
{
    /// <summary>A pipeline with all handlers, on a database.</summary>
    public static CommandPipeline Of(NpgsqlDataSource source, CharacterTable glossary)
    {
        var services = new ServiceCollection();
        services.AddLogging().AddSingleton(source).AddSingleton(TimeProvider.System).AddSingleton(glossary);
        services.AddFeatures();
        return services.BuildServiceProvider().GetRequiredService<CommandPipeline>();
    }

    /// <summary>Carries out one command.</summary>
    public static async Task<CommandResult> ApplyAsync(this CommandPipeline pipeline, Command command, CancellationToken stop) =>
        (await pipeline.ApplyAsync([command], stop))[0];
}
