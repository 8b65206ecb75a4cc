using Garten.Server.Database;
using Microsoft.Extensions.Options;

namespace Garten.Server.Hosting;

/// <summary>
/// Lets as many requests work at once as the database has connections for; the others wait their turn for some seconds, and are then asked
/// to come again. Exports and uploads, which hold much for long, have narrower gates of their own.
/// </summary>
internal sealed class Turnstile(ConnectionLimit limit, IOptions<ServerLimits> limits) : IDisposable
{
    private readonly SemaphoreSlim _all = new(Math.Max(1, limit.Connections - ConnectionLimit.Kept));
    private readonly SemaphoreSlim _exports = new(limits.Value.MostExports);
    private readonly SemaphoreSlim _uploads = new(limits.Value.MostUploads);

    /// <summary>Waits for a turn of any request; give it back by disposing.</summary>
    /// <exception cref="BusyException">None came free in time.</exception>
    public Task<IDisposable> EnterAsync(CancellationToken stop) => EnterAsync(_all, stop);

    /// <summary>Waits for a turn of an export.</summary>
    /// <exception cref="BusyException">None came free in time.</exception>
    public Task<IDisposable> ExportAsync(CancellationToken stop) => EnterAsync(_exports, stop);

    /// <summary>Waits for a turn of an upload.</summary>
    /// <exception cref="BusyException">None came free in time.</exception>
    public Task<IDisposable> UploadAsync(CancellationToken stop) => EnterAsync(_uploads, stop);

    private async Task<IDisposable> EnterAsync(SemaphoreSlim gate, CancellationToken stop)
    {
        if (!await gate.WaitAsync(TimeSpan.FromSeconds(limits.Value.PatienceSeconds), stop))
            throw new BusyException();
        return new Pass(gate);
    }

    public void Dispose()
    {
        _all.Dispose();
        _exports.Dispose();
        _uploads.Dispose();
    }

    private sealed class Pass(SemaphoreSlim gate) : IDisposable
    {
        private int _given;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _given, 1) == 0)
                gate.Release();
        }
    }
}

internal static class TurnstileSetup
{
    /// <summary>Requests to the API take turns; whether the server answers can be asked at any time.</summary>
    public static void UseTurnstile(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                if (
                    !context.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal)
                    || context.Request.Path.StartsWithSegments("/api/v1/health", StringComparison.Ordinal)
                )
                {
                    await next();
                    return;
                }
                using var turn = await context.RequestServices.GetRequiredService<Turnstile>().EnterAsync(context.RequestAborted);
                await next();
            }
        );
}
