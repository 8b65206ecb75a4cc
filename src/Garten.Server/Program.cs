using System.Reflection;
using Garten.Server.Database;
using Garten.Server.Demo;
using Garten.Server.Features;
using Garten.Server.Hosting;

var builder = WebApplication.CreateBuilder(args);

// The description of the API is made at build time by running this program without a database.
var describing = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    // Bodies are counted where they are read, so that who sends too much gets an answer and not a cut line.
    kestrel.Limits.MaxRequestBodySize = null;
});
builder.Services.AddSingleton<TimeProvider>(Today.Pinned(builder.Configuration["GARTEN_TODAY"]) ?? TimeProvider.System);
builder.Services.AddGartenStorage(builder.Configuration["GARTEN_DATABASE"] ?? (describing ? "Host=127.0.0.1" : ""), builder.Configuration);
builder.Services.AddGartenTelemetry(builder.Configuration);
builder.Services.AddGartenApi();

var app = builder.Build();
if (!describing)
{
    await app.Services.GetRequiredService<DatabaseStart>().MigrateAsync(app.Lifetime.ApplicationStopping);
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
await app.RunAsync();

/// <summary>Named so that tests can start it.</summary>
public partial class Program;
