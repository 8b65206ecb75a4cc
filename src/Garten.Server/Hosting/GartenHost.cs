using System.Reflection;
using Garten.Server.Database;
using Garten.Server.Demo;
using Garten.Server.Features;
using Garten.Server.Features.Erasure;
using Garten.Server.Features.Places;
using Garten.Server.Hosting.Beyond;

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
        var beyond = new BeyondLoopback(builder.Configuration);
        if (beyond.Url is { } url)
            builder.WebHost.UseUrls(builder.Configuration["urls"] ?? "http://127.0.0.1:5080", url);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.ConfigureHttpsDefaults(o => o.ServerCertificate = beyond.Certificate);
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
        builder.Services.AddPairedDevices(beyond);
        return builder.Build();
    }

    /// <summary>Makes the database ready and what answers requests.</summary>
    public static async Task PrepareAsync(WebApplication app)
    {
        // Settings that can't be used are said before anything is served.
        app.Services.GetRequiredService<TileSource>();
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
        app.UsePairedDevices();
        app.UseWholeAnswers();
        app.UseRequestGuard();
        app.UseTurnstile();
        app.UseMergedPlaces();
        app.UseGartenWebApp();
        var api = app.MapGroup("/api/v1");
        api.WithMetadata(new PairedDevices.OfApi());
        api.MapFeatures();
        app.MapOpenApi("/api/v1/openapi.json").WithMetadata(new PairedDevices.OfApi());
        app.MapGartenPages();
    }
}
