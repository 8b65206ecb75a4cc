using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text.Json.Nodes;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>A server with a database of its own, as <c>./garten</c> starts it, that is killed without notice and begun again on the same
/// data.</summary>
internal sealed class OwnServer(string command) : IAsyncDisposable
{
    private const int BatchSize = 500;
    private static readonly TimeSpan ToStart = TimeSpan.FromMinutes(3);
    private readonly DirectoryInfo _data = Directory.CreateTempSubdirectory("garten-own-");
    private Process? _server;

    /// <summary>Where it listens on this machine.</summary>
    public int Port { get; } = FreePort.Find();

    /// <summary>Has a server take commands in, in batches; all of them, or it says why not.</summary>
    public static async Task SendAsync(HttpClient client, IEnumerable<JsonObject> commands)
    {
        foreach (var batch in commands.Chunk(BatchSize))
        {
            using var response = await client.PostAsJsonAsync(
                "/api/v1/commands",
                new JsonObject { ["commands"] = new JsonArray([.. batch]) }
            );
            response.EnsureSuccessStatusCode();
            var results = (await response.Content.ReadFromJsonAsync<JsonNode>())!["results"]!.AsArray();
            if (results.FirstOrDefault(r => r!["problem"] is not null) is { } refused)
                throw new InvalidOperationException(refused.ToJsonString());
        }
    }

    /// <summary>Starts it, and waits until it answers.</summary>
    public async Task StartAsync(HttpClient client)
    {
        var start = new ProcessStartInfo(
            "bash",
            [
                Path.Combine(Repository.Root, "garten"),
                command,
                "--no-build",
                "--data",
                _data.FullName,
                "--port",
                Port.ToString(CultureInfo.InvariantCulture),
            ]
        )
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment.Remove("GARTEN_DATABASE");
        _server = Process.Start(start)!;
        _server.BeginOutputReadLine();
        _server.BeginErrorReadLine();
        var began = TimeProvider.System.GetTimestamp();
        while (true)
        {
            try
            {
                if ((await client.GetStringAsync(new Uri("/api/v1/health", UriKind.Relative))).Contains("ready", StringComparison.Ordinal))
                    return;
            }
            catch (HttpRequestException) when (TimeProvider.System.GetElapsedTime(began) < ToStart)
            {
                // Not there yet.
            }
            if (TimeProvider.System.GetElapsedTime(began) > ToStart)
                throw new TimeoutException("The server didn't start.");
            await Task.Delay(100);
        }
    }

    /// <summary>Ends all that runs on this data folder and port.</summary>
    public void Kill(bool alsoDatabase)
    {
        foreach (
            var folder in Directory
                .GetDirectories("/proc")
                .Where(d => int.TryParse(Path.GetFileName(d), CultureInfo.InvariantCulture, out _))
        )
        {
            try
            {
                var said = File.ReadAllText(Path.Combine(folder, "cmdline")).Replace('\0', ' ');
                var isServer =
                    said.Contains("Garten.Server", StringComparison.Ordinal)
                    && File.ReadAllText(Path.Combine(folder, "environ"))
                        .Contains(string.Create(CultureInfo.InvariantCulture, $":{Port}"), StringComparison.Ordinal);
                var isDatabase =
                    alsoDatabase
                    && said.Contains("postgres", StringComparison.Ordinal)
                    && said.Contains(_data.FullName, StringComparison.Ordinal);
                if (isServer || isDatabase)
                    Process.GetProcessById(int.Parse(Path.GetFileName(folder), CultureInfo.InvariantCulture)).Kill();
            }
            catch (Exception gone)
                when (gone is IOException or UnauthorizedAccessException or ArgumentException or InvalidOperationException)
            {
                // Over already, or not ours.
            }
        }
        _server?.WaitForExit((int)ToStart.TotalMilliseconds);
        _server?.Dispose();
        _server = null;
    }

    public ValueTask DisposeAsync()
    {
        Kill(alsoDatabase: true);
        _data.Delete(true);
        return ValueTask.CompletedTask;
    }
}
