using Garten.Server.Database;
using Garten.Testing;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Garten.Server.Tests;

/// <summary>Databases as tests of the server need them.</summary>
internal static class Databases
{
    /// <summary>One of the newest form, with nothing in it.</summary>
    public static Task<TestDatabase> EmptyAsync() => DatabaseTemplates.CopyAsync("empty", connection =>
        {
            Migrator.Migrate(connection);
            return Task.CompletedTask;
        });

    /// <summary>One with the demo, loaded on a day.</summary>
    /// <param name="today">The day, as year, month and day.</param>
    public static Task<TestDatabase> TorvaneAsync(string today) => DatabaseTemplates.CopyAsync(today, async connection =>
        {
            await using var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
                b.UseSetting("GARTEN_DATABASE", connection)
                    .UseSetting("GARTEN_TODAY", today)
                    .UseSetting("GARTEN_DEMO", Path.Combine(Repository.Root, "demo"))
            );
            factory.StartServer();
        });
}
