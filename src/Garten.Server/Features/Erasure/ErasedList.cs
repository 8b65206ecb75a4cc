using System.Globalization;
using Npgsql;

namespace Garten.Server.Features.Erasure;

/// <summary>
/// The list of the erased in a file beside the database and outside its copies: a copy that is restored brings back what was erased after
/// it was
/// made, and this takes it out again when the server starts. The setting <c>GARTEN_ERASED</c> says where; without it there is none.
/// </summary>
internal sealed partial class ErasedList(ErasureRepository erased, IConfiguration settings, ILogger<ErasedList> log) : BackgroundService
{
    // An erasure is written into the file as soon as this.
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);

    private string? Path => settings["GARTEN_ERASED"] is { Length: > 0 } path ? path : null;

    /// <summary>Erases again what the file lists, before the first request.</summary>
    public async Task ReplayAsync(CancellationToken stop)
    {
        if (Path is not { } path)
            return;
        var listed = Read(path);
        Add(path, listed, await erased.ReplayAsync(listed, stop));
    }

    /// <inheritdoc />
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (Path is not { } path)
            return;
        using var timer = new PeriodicTimer(Pause);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            try
            {
                Add(path, Read(path), (await erased.ListAsync(stoppingToken)).Select(e => e.Id));
            }
            catch (Exception away) when (away is NpgsqlException or TimeoutException or IOException or UnauthorizedAccessException)
            {
                Later(log, away.Message);
            }
        }
    }

    // A line that is none is no id, and nothing is erased by it.
    private static HashSet<Guid> Read(string path) =>
        File.Exists(path)
            ? [.. File.ReadLines(path).Select(l => Guid.TryParse(l.Trim(), out var id) ? id : Guid.Empty).Where(id => id != Guid.Empty)]
            : [];

    private static void Add(string path, HashSet<Guid> listed, IEnumerable<Guid> all)
    {
        string[] missing = [.. all.Where(id => !listed.Contains(id)).Select(id => id.ToString("D", CultureInfo.InvariantCulture))];
        if (missing.Length > 0)
            File.AppendAllLines(path, missing);
    }

    [LoggerMessage(LogLevel.Warning, "The list of the erased is written later: {Reason}")]
    private static partial void Later(ILogger log, string reason);
}
