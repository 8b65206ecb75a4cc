using System.Reflection;
using Garten.Server.Database;
using Garten.Server.Demo;
using Garten.Server.Features;
using Garten.Server.Features.Erasure;

namespace Garten.Server.Hosting;

/// <summary>Puts the server together: the one that is started, and a sandbox beside it.</summary>
internal static class GartenHost
{
    // The description of the API is made at build time by running this program without a database.
    private static bool IsDescribing => Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

    /// <summary>Builds a server.</summary>
    /// <param name="options">Arguments and folders.</param>
    /// <param name="own">Settings that go before those of the surroundings; null: none.</param>
    public static WebApplication Build(WebApplicationOptions options, IReadOnlyDictionary<string, string?>? own = null)
    {
        var builder = WebApplication.CreateBuilder(options);
        if (own is not null)
            builder.Configuration.AddInMemoryCollection(own);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            // Bodies are counted where they are read, so that who sends too much gets an answer and not a cut line.
            kestrel.Limits.MaxRequestBodySize = null;
        });
        builder.Services.AddSingleton<TimeProvider>(Today.Pinned(builder.Configuration["GARTEN_TODAY"]) ?? TimeProvider.System);
        builder.Services.AddGartenStorage(
            builder.Configuration["GARTEN_DATABASE"] ?? (IsDescribing ? "Host=127.0.0.1" : ""),
            builder.Configuration
        );
        builder.Services.AddGartenTelemetry(builder.Configuration);
        builder.Services.AddGartenApi();
        return builder.Build();
    }

    /// <summary>Makes the database ready and what answers requests.</summary>
    public static async Task PrepareAsync(WebApplication app)
    {
        if (!IsDescribing)
        {
            await app.Services.GetRequiredService<DatabaseStart>().MigrateAsync(app.Lifetime.ApplicationStopping);
            await app.Services.GetRequiredService<ErasedList>().ReplayAsync(app.Lifetime.ApplicationStopping);
            if (app.Configuration["GARTEN_DEMO"] is { Length: > 0 } demo)
                await app.Services.GetRequiredService<DemoLoader>().LoadOnceAsync(demo, app.Lifetime.ApplicationStopping);
        }
        app.UseResponseCompression();
        app.UseGartenProblems();
        app.UseGartenSecurity();
        app.UseWholeAnswers();
        app.UseRequestGuard();
        app.UseTurnstile();
        app.UseGartenWebApp();
        app.MapGroup("/api/v1").MapFeatures();
        app.MapOpenApi("/api/v1/openapi.json");
        app.MapGartenPages();
    }
}
