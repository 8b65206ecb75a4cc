using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>
/// What somebody waits for before and after a day without signal, on a server of its own: taking 20 places with 2,000 plants and two floras
/// along, catching up after 1,000 changes, sending 1,000 that wait, and starting without the server. See docs/reliability.md.
/// </summary>
internal sealed class AwayBench(TextWriter output) : IAsyncDisposable
{
    private const int Places = 20;
    private const int Plants = 2_000;
    private const int Changes = 1_000;
    private const int BatchSize = 500;
    private const int Starts = 5;

    // A middling phone; workers of Chromium aren't slowed by it.
    private const int Slow = 4;
    private readonly OwnServer _own = new("demo");
    private readonly List<Guid> _plants = [];

    public async Task RunAsync()
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var address = new Uri($"http://127.0.0.1:{_own.Port}");
        using var client = new HttpClient { BaseAddress = address, Timeout = TimeSpan.FromMinutes(2) };
        await _own.StartAsync(client);
        await FillAsync(client);
        using var device = new FaultyDevice(address);
        device.Start("/along");
        device.ChooseAllFloras();
        Tell("take along", FaultyDevice.Timed(() => device.TakeAlong()));
        await SendAsync(client, _plants.Take(Changes).Select(p => Visit(p, "changed elsewhere")));
        device.Open("/along");
        Tell($"catch up after {Changes} changes", FaultyDevice.Timed(() => device.TakeAlong()));
        device.Open("/plants");
        FaultyFact[] waiting = [.. _plants.Take(Changes).Select(p => new FaultyFact("visitPlant", "", Visit(p, "waited"), [], Guid.Empty))];
        Tell(
            $"send {Changes} that wait",
            FaultyDevice.Timed(() =>
            {
                device.KeepAll(waiting);
                while (device.Count().Waiting > 0)
                    Thread.Sleep(10);
            })
        );
        _own.Kill(alsoDatabase: false);
        foreach (var rate in new[] { 1, Slow })
        {
            List<double> pages = [];
            List<double> couplets = [];
            for (var n = 0; n < Starts; n++)
            {
                device.Restart("/");
                device.Slow(rate);
                pages.Add(device.UntilSeen("/", "In season at your places"));
                couplets.Add(device.UntilSeen("/bench", "Follow", "button[aria-label^='Follow Key to Carpessa']", "Couplet 1"));
            }
            var speed = rate == 1 ? "" : " at a fourth of the speed";
            Tell($"first page without the server{speed}", pages);
            Tell($"first couplet from the click, without the server{speed}", couplets);
        }
    }

    private void Tell(string what, params IReadOnlyList<double> seconds) =>
        output.WriteLine(
            $"{what}: {seconds.Order().ElementAt(seconds.Count / 2):0.00} s ({seconds.Min():0.00} to {seconds.Max():0.00} of {seconds.Count})"
        );

    private async Task FillAsync(HttpClient client)
    {
        var keys = (await client.GetFromJsonAsync<JsonNode>("/api/v1/keys"))!.AsArray();
        using var made = await client.PostAsync(new Uri($"/api/v1/keys/{keys[0]!["hash"]}/flora", UriKind.Relative), null);
        made.EnsureSuccessStatusCode();
        var known = (await client.GetFromJsonAsync<JsonNode>("/api/v1/places"))!.AsArray().Count;
        var places = Enumerable.Range(known, Places - known).Select(_ => Guid.CreateVersion7()).ToArray();
        await SendAsync(
            client,
            places.Select(
                (p, i) =>
                    Command(
                        "savePlace",
                        ("placeId", p),
                        ("name", $"Bench Brake {i}"),
                        ("locality", ""),
                        ("latitude", 57.2),
                        ("longitude", -11.1),
                        ("uncertaintyMetres", 200),
                        ("caution", "")
                    )
            )
        );
        for (var i = 0; i < Plants; i++)
            _plants.Add(Guid.CreateVersion7());
        await SendAsync(
            client,
            _plants.Select(
                (p, i) =>
                    Command(
                        "tagPlant",
                        ("plantId", p),
                        ("placeId", places[i % places.Length]),
                        ("label", $"bench {i}"),
                        ("taggedOn", "2026-04-01"),
                        ("recorder", Recorder())
                    )
            )
        );
        await SendAsync(client, _plants.Select(p => Visit(p, "first")));
        await SendAsync(
            client,
            _plants.Select(
                (p, i) =>
                    Command(
                        "recordDetermination",
                        ("determinationId", Guid.CreateVersion7()),
                        ("occurrenceId", Guid.CreateVersion7()),
                        ("plantId", p),
                        ("plantLabel", ""),
                        ("placeId", places[i % places.Length]),
                        ("eventDate", "2026-05-02"),
                        ("recorder", Recorder()),
                        ("startKey", ""),
                        ("answers", new JsonArray()),
                        ("names", new JsonArray("Carpessa rubra")),
                        ("note", "")
                    )
            )
        );
    }

    private static async Task SendAsync(HttpClient client, IEnumerable<JsonObject> commands)
    {
        foreach (var batch in commands.Chunk(BatchSize))
        {
            using var response = await client.PostAsJsonAsync(
                "/api/v1/commands",
                new JsonObject { ["commands"] = new JsonArray([.. batch]) }
            );
            response.EnsureSuccessStatusCode();
        }
    }

    private static JsonObject Recorder() => new() { ["id"] = "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0d01", ["name"] = "Ilse Marrin" };

    private static JsonObject Visit(Guid plant, string note) =>
        Command(
            "visitPlant",
            ("visitId", Guid.CreateVersion7()),
            ("plantId", plant),
            ("date", "2026-05-04"),
            ("recorder", Recorder()),
            ("state", "alive"),
            ("note", note)
        );

    private static JsonObject Command(string kind, params (string Field, JsonNode? Value)[] fields)
    {
        var command = new JsonObject { ["kind"] = kind, ["id"] = Guid.CreateVersion7() };
        foreach (var (field, value) in fields)
            command[field] = value;
        return command;
    }

    public ValueTask DisposeAsync() => _own.DisposeAsync();
}
