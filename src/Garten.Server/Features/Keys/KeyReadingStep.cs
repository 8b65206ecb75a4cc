using Garten.Server.Features.Calls;

namespace Garten.Server.Features.Keys;

/// <summary>Keeps how every key version is read: after the start, and whenever something was taught, set, defined or brought since. Each
/// version by itself, so that a stopped server goes on where it was.</summary>
internal sealed partial class KeyReadingStep(ReadingRepository readings, CoreCallHost host, ILogger<KeyReadingStep> log) : BackgroundService
{
    // Whoever teaches a word answers couplets later than that.
    private static readonly TimeSpan Between = TimeSpan.FromSeconds(20);

    // So many versions are on a shelf at a time.
    private const int AtOnce = 20;

    /// <inheritdoc />
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Between);
        do
        {
            try
            {
                if (!await readings.AreCurrentAsync(stoppingToken))
                    await KeepAllAsync(stoppingToken);
            }
            catch (Exception failed) when (failed is not OperationCanceledException)
            {
                // It is tried again; until then answers cite no reading.
                Later(log, failed.Message);
            }
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }

    /// <summary>Goes through all versions once.</summary>
    public async Task KeepAllAsync(CancellationToken stop)
    {
        var stamp = await readings.StampAsync(stop);
        foreach (var chunk in (await readings.AllVersionsAsync(stop)).Chunk(AtOnce))
        {
            var shelf = (await host.ShelfAsync(chunk, stop)).Ready();
            foreach (var version in chunk.Select(shelf.Keys.Find))
            {
                if (version is not null)
                    await readings.KeepAsync(shelf, version, stop);
                // Requests go first.
                await Task.Delay(1, stop);
            }
        }
        readings.AllRead(stamp);
    }

    [LoggerMessage(LogLevel.Information, "Readings of keys are kept later: {Reason}")]
    private static partial void Later(ILogger log, string reason);
}
