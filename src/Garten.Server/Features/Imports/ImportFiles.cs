using System.Collections.Concurrent;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Formats.Imports;
using Microsoft.Extensions.Options;
using Npgsql;

namespace Garten.Server.Features.Imports;

/// <summary>A file of records that was sent and waits in a folder of the server.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Path">Where it is.</param>
/// <param name="Name">The name that it had.</param>
/// <param name="Hash">SHA-256 of its content, 64 hexadecimal figures.</param>
internal sealed record WaitingFile(Guid Id, string Path, string Name, string Hash);

/// <summary>
/// Files of records between being sent and being taken in: in a folder of their own beside those of other databases, for a day. How far a
/// file is that is being taken in is kept here too.
/// </summary>
internal sealed class ImportFiles
{
    // Who looks at a file for longer than a day sends it again.
    private static readonly TimeSpan Kept = TimeSpan.FromDays(1);

    // Together with their largest size this bounds what they take of the disk.
    private const int MostWaiting = 20;

    private readonly string _folder;
    private readonly TimeProvider _clock;
    private readonly ConcurrentDictionary<Guid, ImportProgress> _progress = new();

    public ImportFiles(IOptions<ImportLimits> limits, NpgsqlDataSource database, TimeProvider clock)
    {
        _clock = clock;
        var folder = limits.Value.Folder is { Length: > 0 } said ? said : Path.Combine(Path.GetTempPath(), "garten-imports");
        // One folder for each database: two servers on one machine don't clear each other's away.
        var of = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(database.ConnectionString)))[..16];
        _folder = Path.Combine(folder, of);
    }

    /// <summary>How far a file is; null where it isn't being taken in.</summary>
    public ImportProgress? ProgressOf(Guid id) => _progress.GetValueOrDefault(id);

    /// <summary>Says how far a file is; null: it isn't being taken in any more.</summary>
    public void Say(Guid id, ImportProgress? progress)
    {
        if (progress is null)
            _progress.TryRemove(id, out _);
        else
            _progress[id] = progress;
    }

    /// <summary>Keeps a file until it is taken in; null where too many wait.</summary>
    public async Task<WaitingFile?> KeepAsync(string name, Stream content, CancellationToken stop)
    {
        Directory.CreateDirectory(_folder);
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(_folder, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
        foreach (var old in Directory.EnumerateFiles(_folder))
        {
            if (_clock.GetUtcNow().UtcDateTime - File.GetLastWriteTimeUtc(old) > Kept)
                File.Delete(old);
        }
        if (Directory.EnumerateFiles(_folder, "*.json").Count() >= MostWaiting)
            return null;
        var id = Guid.CreateVersion7();
        var path = PathOf(id);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        try
        {
            await using (var file = File.Create(path))
            {
                var part = new byte[1 << 16];
                int read;
                while ((read = await content.ReadAsync(part, stop)) > 0)
                {
                    hash.AppendData(part.AsSpan(0, read));
                    await file.WriteAsync(part.AsMemory(0, read), stop);
                }
            }
            var it = new WaitingFile(id, path, name, Convert.ToHexStringLower(hash.GetHashAndReset()));
            await File.WriteAllTextAsync(path + ".json", JsonSerializer.Serialize(new[] { it.Name, it.Hash }), stop);
            return it;
        }
        catch
        {
            Discard(id);
            throw;
        }
    }

    /// <summary>A file that waits; null where there is none of this id.</summary>
    public WaitingFile? Find(Guid id)
    {
        var path = PathOf(id);
        if (!File.Exists(path) || !File.Exists(path + ".json"))
            return null;
        return JsonSerializer.Deserialize<string[]>(File.ReadAllText(path + ".json")) is [var name, var hash]
            ? new WaitingFile(id, path, name, hash)
            : null;
    }

    /// <summary>Throws a file away.</summary>
    public void Discard(Guid id)
    {
        File.Delete(PathOf(id));
        File.Delete(PathOf(id) + ".json");
    }

    private string PathOf(Guid id) => Path.Combine(_folder, id.ToString("N", CultureInfo.InvariantCulture));
}
