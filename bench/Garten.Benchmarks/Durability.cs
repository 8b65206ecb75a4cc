using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Garten.Benchmarks;

/// <summary>
/// Kills a server of its own again and again while changes come in, and looks whether all that it said was kept is there: the server alone,
/// and
/// every other time its PostgreSQL too, without notice. See docs/reliability.md.
/// </summary>
internal sealed class Durability(TextWriter output) : IAsyncDisposable
{
    private const int Clients = 4;
    private readonly OwnServer _own = new("demo");
    private readonly ConcurrentDictionary<string, bool> _kept = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<string, bool> _sent = new(StringComparer.Ordinal);

    public async Task RunAsync(int kills)
    {
        var random = new Random(24);
        using var client = new HttpClient
        {
            BaseAddress = new Uri(string.Create(CultureInfo.InvariantCulture, $"http://127.0.0.1:{_own.Port}")),
            Timeout = TimeSpan.FromSeconds(30),
        };
        await _own.StartAsync(client);
        var place = (string)((JsonArray)(await client.GetFromJsonAsync<JsonNode>("/api/v1/places"))!)[0]!["id"]!;
        for (var n = 0; n < kills; n++)
        {
            using var end = new CancellationTokenSource();
            var writers = Enumerable.Range(0, Clients).Select(_ => WriteAsync(client, place, end.Token)).ToArray();
            await Task.Delay(random.Next(300, 1500));
            _own.Kill(alsoDatabase: n % 2 == 1);
            await end.CancelAsync();
            await Task.WhenAll(writers);
            await _own.StartAsync(client);
        }
        var there = new HashSet<string>(StringComparer.Ordinal);
        foreach (var id in _sent.Keys)
        {
            using var response = await client.GetAsync(new Uri("/api/v1/plants/" + id, UriKind.Relative));
            if (response.IsSuccessStatusCode)
                there.Add(id);
            else if (response.StatusCode != HttpStatusCode.NotFound)
                throw new InvalidOperationException($"{response.StatusCode} for {id}");
        }
        var lost = _kept.Keys.Count(id => !there.Contains(id));
        // What was sent and never answered may be there or not; sent again it is.
        var open = _sent.Keys.Where(id => !_kept.ContainsKey(id)).ToList();
        var contradictions = await client.GetStringAsync(new Uri("/api/v1/contradictions", UriKind.Relative));
        await output.WriteLineAsync(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{kills} kills, {_kept.Count} changes said to be kept, {lost} of them lost; {open.Count} unanswered, {open.Count(there.Contains)} of those kept; contradictions {contradictions}"
            )
        );
    }

    private async Task WriteAsync(HttpClient client, string place, CancellationToken stop)
    {
        while (!stop.IsCancellationRequested)
        {
            var id = Guid.CreateVersion7().ToString();
            var command = new JsonObject
            {
                ["kind"] = "tagPlant",
                ["id"] = Guid.CreateVersion7().ToString(),
                ["plantId"] = id,
                ["placeId"] = place,
                ["label"] = "tag " + id[^6..],
                ["taggedOn"] = "2026-05-02",
                ["recorder"] = new JsonObject { ["id"] = "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0d01", ["name"] = "Ilse Marrin" },
            };
            _sent[id] = true;
            try
            {
                using var response = await client.PostAsJsonAsync(
                    "/api/v1/commands",
                    new JsonObject { ["commands"] = new JsonArray(command) },
                    CancellationToken.None
                );
                // Refused or failed: the server is going, or the database is.
                if (!response.IsSuccessStatusCode)
                    await Task.Delay(50, CancellationToken.None);
                else if (
                    (string?)JsonNode.Parse(await response.Content.ReadAsStringAsync(CancellationToken.None))?["results"]?[0]?["status"]
                    == "applied"
                )
                    _kept[id] = true;
            }
            catch (Exception gone) when (gone is HttpRequestException or IOException or TaskCanceledException)
            {
                return;
            }
        }
    }

    public ValueTask DisposeAsync() => _own.DisposeAsync();
}
