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
    private const int Starts = 5;
    private const int Times = 3;
    private const double Thousand = 1000;

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
        device.OpenAlong();
        List<double> caughtUp = [];
        for (var n = 0; n < Times; n++)
        {
            await OwnServer.SendAsync(client, _plants.Take(Changes).Select(p => Made.Visit(p, "changed elsewhere")));
            caughtUp.Add(device.FetchWhatIsNew() / Thousand);
        }
        Tell($"catch up after {Changes} changes", caughtUp);
        device.Open("/plants");
        List<double> sent = [];
        for (var n = 0; n < Times; n++)
        {
            device.KeepAll([
                .. _plants.Take(Changes).Select(p => new FaultyFact("visitPlant", "", Made.Visit(p, "waited"), [], Guid.Empty)),
            ]);
            sent.Add(device.UntilSent() / Thousand);
        }
        Tell($"send {Changes} that wait", sent);
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

    private void Tell(string what, double seconds) => output.WriteLine($"{what}: {seconds:0.00} s");

    private void Tell(string what, List<double> seconds) =>
        output.WriteLine(
            $"{what}: median {seconds.Order().ElementAt(seconds.Count / 2):0.00} s, {seconds.Min():0.00} to {seconds.Max():0.00} of {seconds.Count}"
        );

    private async Task FillAsync(HttpClient client)
    {
        var keys = (await client.GetFromJsonAsync<JsonNode>("/api/v1/keys"))!.AsArray();
        using var made = await client.PostAsync(new Uri($"/api/v1/keys/{keys[0]!["hash"]}/flora", UriKind.Relative), null);
        made.EnsureSuccessStatusCode();
        var known = (await client.GetFromJsonAsync<JsonNode>("/api/v1/places"))!.AsArray().Count;
        var places = Enumerable.Range(known, Places - known).Select(_ => Guid.CreateVersion7()).ToArray();
        await OwnServer.SendAsync(
            client,
            places.Select(
                (p, i) =>
                    Made.Command(
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
        await OwnServer.SendAsync(client, _plants.Select((p, i) => Made.Tag(p, places[i % places.Length], $"bench {i}")));
        await OwnServer.SendAsync(client, _plants.Select(p => Made.Visit(p, "first")));
        await OwnServer.SendAsync(client, _plants.Select((p, i) => Made.Named(p, places[i % places.Length], "", "Carpessa rubra")));
    }

    public ValueTask DisposeAsync() => _own.DisposeAsync();
}
