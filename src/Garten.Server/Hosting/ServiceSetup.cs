using System.Text.Json.Serialization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Formats;
using Garten.Server.Database;
using Garten.Server.Demo;
using Garten.Server.Features;
using Garten.Server.Features.Floras;
using Npgsql;

namespace Garten.Server.Hosting;

/// <summary>Sizes that requests may have.</summary>
internal static class ApiLimits
{
    /// <summary>A batch with a key text of 1 MiB in it, written as JSON with every character escaped, still fits.</summary>
    public const long LargestBody = 8 << 20;

    /// <summary>Commands in one batch.</summary>
    public const int MostCommands = 1000;
}

internal static class ServiceSetup
{
    // A database that doesn't answer is said to be away after this many seconds, not after a minute.
    private const int ConnectSeconds = 5;
    private const int CommandSeconds = 15;

    public static void AddGartenStorage(this IServiceCollection services, string connectionString)
    {
        if (connectionString.Length == 0)
            throw new InvalidOperationException(
                "GARTEN_DATABASE is not set: give the connection string of a PostgreSQL database, or start with ./garten."
            );
        var settings = new NpgsqlConnectionStringBuilder(connectionString)
        {
            Timeout = ConnectSeconds,
            CommandTimeout = CommandSeconds,
            ApplicationName = "garten",
        };
        services.AddSingleton<ConnectionLimit>();
        services.AddSingleton(p =>
        {
            // A pool larger than what the database has would only be refused by it.
            settings.MaxPoolSize = Math.Min(settings.MaxPoolSize, p.GetRequiredService<ConnectionLimit>().Connections);
            return NpgsqlDataSource.Create(settings.ConnectionString);
        });
        services.AddSingleton(p => new DatabaseStart(
            settings.ConnectionString,
            p.GetRequiredService<ConnectionLimit>(),
            p.GetRequiredService<ILogger<DatabaseStart>>()
        ));
        services.AddSingleton<Turnstile>();
        services.AddSingleton(new CharacterTable(ShippedGlossary.Characters, [], ShippedGlossary.Seasons));
        services.AddSingleton(new CharacterTableDefaults(ShippedGlossary.Seasons));
        services.AddFeatures();
        services.AddSingleton<DemoLoader>();
    }

    public static void AddGartenApi(this IServiceCollection services)
    {
        services.ConfigureHttpJsonOptions(json =>
        {
            var shared = CoreJson.Default.Options;
            json.SerializerOptions.TypeInfoResolverChain.Insert(0, CoreJson.Default);
            foreach (var converter in shared.Converters)
                json.SerializerOptions.Converters.Add(converter);
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            json.SerializerOptions.AllowOutOfOrderMetadataProperties = true;
            json.SerializerOptions.RespectNullableAnnotations = true;
            json.SerializerOptions.RespectRequiredConstructorParameters = true;
        });
        services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
        services.AddResponseCompression(o =>
        {
            // Loopback and public content only: nothing secret is compressed beside what a stranger chose.
            o.EnableForHttps = false;
            o.MimeTypes =
            [
                .. Microsoft.AspNetCore.ResponseCompression.ResponseCompressionDefaults.MimeTypes,
                "application/wasm",
                "application/octet-stream",
                "image/svg+xml",
                "application/problem+json",
            ];
        });
        services.AddOpenApi("v1", o => o.AddSchemaTransformer<WorkedOutProperties>().AddDocumentTransformer<ApiDescription>());
    }
}
