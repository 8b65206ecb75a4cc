using System.Threading.RateLimiting;
using Garten.Server.Features.Devices;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.RateLimiting;

namespace Garten.Server.Hosting.Beyond;

/// <summary>Lets in from beyond the server's own machine who comes over TLS and is paired; the program's own files and the way to be paired
/// are open.</summary>
internal static class PairedDevices
{
    // The prefix has browsers take it over TLS alone, from this very host, for all paths.
    private const string Cookie = "__Host-garten";

    // Browsers keep none for longer.
    private static readonly TimeSpan Life = TimeSpan.FromDays(400);

    // A device that takes everything along asks some hundred times in a few seconds.
    private const int Burst = 600;
    private const int EachSecond = 60;

    // Tries at codes of one address in a minute.
    private const int PairingTries = 10;
    private const string Pairing = "/api/v1/devices/pair";
    private const string AuthorityFile = "/authority.crt";

    public static void AddPairedDevices(this IServiceCollection services, BeyondLoopback beyond)
    {
        services.AddSingleton(beyond);
        if (beyond.Names.Count > 0)
            services.Configure<HostFilteringOptions>(o => o.AllowedHosts = ["localhost", "127.0.0.1", "[::1]", .. beyond.Names]);
        services.AddRateLimiter(o =>
        {
            o.GlobalLimiter = PartitionedRateLimiter.Create<HttpContext, string>(context =>
                !BeyondLoopback.IsBeyond(context) ? RateLimitPartition.GetNoLimiter("here")
                : context.Request.Path == Pairing
                    ? RateLimitPartition.GetFixedWindowLimiter(
                        $"pair {context.Connection.RemoteIpAddress}",
                        _ => new FixedWindowRateLimiterOptions { PermitLimit = PairingTries, Window = TimeSpan.FromMinutes(1) }
                    )
                : RateLimitPartition.GetTokenBucketLimiter($"{context.Connection.RemoteIpAddress}", _ => new TokenBucketRateLimiterOptions
                {
                    TokenLimit = Burst,
                    TokensPerPeriod = EachSecond,
                    ReplenishmentPeriod = TimeSpan.FromSeconds(1),
                })
            );
            o.OnRejected = async (rejected, _) =>
                await Problems
                    .Result(429, "rate", "That is too often.", "Wait a minute, and try again: nothing is lost meanwhile.")
                    .ExecuteAsync(rejected.HttpContext);
        });
    }

    /// <summary>Checks who comes from beyond.</summary>
    public static void UsePairedDevices(this WebApplication app)
    {
        app.UseRateLimiter();
        app.Use(
            async (context, next) =>
            {
                if (!BeyondLoopback.IsBeyond(context))
                {
                    if (context.Request.Path == AuthorityFile)
                        await AuthorityAsync(context);
                    else
                        await next();
                    return;
                }
                if (!context.Request.IsHttps)
                {
                    await Problems
                        .Result(403, "device.plain", "This server answers here over TLS alone.", "Use the address that begins with https.")
                        .ExecuteAsync(context);
                    return;
                }
                if (context.Request.Path == AuthorityFile)
                {
                    await AuthorityAsync(context);
                    return;
                }
                // Addresses are found in small and in large letters: what counts is where a request would go, and how it is written.
                var isOfApi =
                    context.GetEndpoint()?.Metadata.GetMetadata<OfApi>() is not null
                    || context.Request.Path.StartsWithSegments("/api", StringComparison.OrdinalIgnoreCase);
                if (isOfApi && context.Request.Path != Pairing)
                {
                    var token = context.Request.Cookies[Cookie];
                    var devices = context.RequestServices.GetRequiredService<DeviceRepository>();
                    if (token is not { Length: > 0 } || await devices.FindAsync(token, context.RequestAborted) is not { } device)
                    {
                        await Problems
                            .Result(
                                401,
                                "device.unpaired",
                                "This device isn't paired with the server.",
                                "Have a code shown on the server's page of devices, and type it here at /pair. What is on the device stays."
                            )
                            .ExecuteAsync(context);
                        return;
                    }
                    context.Features.Set(device);
                    // It lasts for as long as the device is used; whether the server answers is asked all day.
                    if (context.Request.Path == "/api/v1/devices/here")
                        Remember(context, token);
                }
                await next();
            }
        );
    }

    /// <summary>Marks what only paired devices reach from beyond.</summary>
    public sealed class OfApi;

    /// <summary>Has the device that asks show a token from now on.</summary>
    public static void Remember(HttpContext context, string token) =>
        context.Response.Cookies.Append(
            Cookie,
            token,
            new CookieOptions
            {
                Secure = true,
                HttpOnly = true,
                SameSite = SameSiteMode.Strict,
                Path = "/",
                MaxAge = Life,
            }
        );

    private static Task AuthorityAsync(HttpContext context) =>
        context.RequestServices.GetRequiredService<BeyondLoopback>().Authority is { } authority
            ? Results.File(authority.Certificate, "application/x-x509-ca-cert", "garten-authority.crt").ExecuteAsync(context)
            : Problems
                .Result(
                    404,
                    "device.authority",
                    "This server has no authority of its own.",
                    "Its certificate was brought by whoever runs it."
                )
                .ExecuteAsync(context);
}
