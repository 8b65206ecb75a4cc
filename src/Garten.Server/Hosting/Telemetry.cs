using Npgsql;
using OpenTelemetry.Metrics;
using OpenTelemetry.Trace;

namespace Garten.Server.Hosting;

/// <summary>Traces and metrics by OpenTelemetry: off, unless the standard variable <c>OTEL_EXPORTER_OTLP_ENDPOINT</c> says where they
/// go.</summary>
internal static class Telemetry
{
    private const string Endpoint = "OTEL_EXPORTER_OTLP_ENDPOINT";

    public static void AddGartenTelemetry(this IServiceCollection services, IConfiguration configuration)
    {
        if (string.IsNullOrEmpty(configuration[Endpoint]))
            return;
        services
            .AddOpenTelemetry()
            .WithTracing(t => t.AddAspNetCoreInstrumentation().AddNpgsql().AddOtlpExporter())
            .WithMetrics(m => m.AddAspNetCoreInstrumentation().AddMeter("Npgsql").AddOtlpExporter());
    }
}
