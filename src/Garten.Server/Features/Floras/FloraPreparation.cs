namespace Garten.Server.Features.Floras;

/// <summary>After the start makes what the first request of each flora would have to wait for.</summary>
internal sealed partial class FloraPreparation(FloraRepository floras, ILogger<FloraPreparation> log) : BackgroundService
{
    /// <inheritdoc />
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            await floras.PrepareAsync(stoppingToken);
        }
        catch (Exception failed) when (failed is not OperationCanceledException)
        {
            // The first request does it then, and says what is wrong.
            Later(log, failed.Message);
        }
    }

    [LoggerMessage(LogLevel.Information, "The floras are made ready when they are asked for: {Reason}")]
    private static partial void Later(ILogger log, string reason);
}
