using System.Text.Json.Serialization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Formats;
using Garten.Server.Database;
using Garten.Server.Demo;
using Garten.Server.Features;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Imports;
using Npgsql;

namespace Garten.Server.Hosting;

internal static class ServiceSetup
{
    // More than there are statements in the way that a change takes.
    private const int PreparedStatements = 60;

    public static void AddGartenStorage(this IServiceCollection services, string connectionString, IConfiguration configuration)
    {
        if (connectionString.Length == 0)
            throw new InvalidOperationException(
                "GARTEN_DATABASE is not set: give the connection string of a PostgreSQL database, or start with ./garten."
            );
        services
            .AddOptions<ServerLimits>()
            .Bind(configuration.GetSection(ServerLimits.Section))
            .ValidateDataAnnotations()
            .ValidateOnStart();
        services
            .AddOptions<ImportLimits>()
            .Bind(configuration.GetSection(ImportLimits.Section))
            .ValidateDataAnnotations()
            .ValidateOnStart();
        var limits = configuration.GetSection(ServerLimits.Section).Get<ServerLimits>() ?? new ServerLimits();
        var settings = new NpgsqlConnectionStringBuilder(connectionString)
        {
            Timeout = limits.ConnectSeconds,
            CommandTimeout = limits.StatementSeconds,
            ApplicationName = "garten",
            // The same few statements are sent for each change of a batch: parsed once a connection. Each is planned by its own values.
            MaxAutoPrepare = PreparedStatements,
            Options = "-c plan_cache_mode=force_custom_plan",
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
            json.SerializerOptions.TypeInfoResolverChain.Insert(0, CoreJson.Default);
            json.SerializerOptions.TypeInfoResolverChain.Insert(1, ServerJson.Default);
            json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            json.SerializerOptions.AllowOutOfOrderMetadataProperties = true;
            json.SerializerOptions.RespectNullableAnnotations = true;
            json.SerializerOptions.RespectRequiredConstructorParameters = true;
        });
        services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
        services.AddResponseCompression(o =>
        {
            // Nothing secret stands in a body beside what a stranger chose: the cookie of a paired device goes with no request of another
            // site.
            o.EnableForHttps = true;
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
