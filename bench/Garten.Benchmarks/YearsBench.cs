using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>
/// How long pages take on a device with 500 plants and five years of looks, the server ended: Today, lists and searches, from the click or
/// the letter until what was asked for stands there. On a server of its own. See docs/reliability.md.
/// </summary>
internal sealed class YearsBench(TextWriter output) : IAsyncDisposable
{
    private const int Places = 5;
    private const int Plants = 500;
    private const int FirstYear = 2022;
    private const int Years = 5;
    private const int Times = 9;

    private static readonly string[] Characters = ["leaf-margin", "leaf-base"];

    // Bud, flower and fruit.
    private static readonly string[] Days = ["02-03", "05-12", "09-20"];
    private readonly OwnServer _own = new("demo");

    public async Task RunAsync()
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var address = new Uri($"http://127.0.0.1:{_own.Port}");
        using var client = new HttpClient { BaseAddress = address, Timeout = TimeSpan.FromMinutes(2) };
        await _own.StartAsync(client);
        await FillAsync(client);
        using var device = new FaultyDevice(address);
        device.Start("/along");
        output.WriteLine($"taken along: {FaultyDevice.Timed(() => device.TakeAlong()):0.0} s");
        _own.Kill(alsoDatabase: false);
        device.Restart("/plants");
        device.UntilThere("main a[href^='/plants/']");
        var moves = new (string What, Func<int, double> Move)[]
        {
            ("Today", _ => device.Move("/", "In season at your places")),
            ("plants", _ => device.Move("/plants", "Plants to come back to")),
            ("a plant with its years", n => device.Move("/plants/" + _shown[n % _shown.Count], "Stands now")),
            ("records, the first page", _ => device.Move("/records", "Show older records")),
            ("plants found by their tag", n =>
            {
                device.Move("/plants", "Plants to come back to");
                return device.Typed("main input[placeholder]", $"years 4{n}", "main a[href^='/plants/']");
            }),
            ("everything searched", n =>
            {
                device.Search();
                var took = device.Typed("[role=dialog] input", $"years 3{n}", "#found a, #found [role=option], #found button");
                device.CloseSearch();
                return took;
            }),
        };
        foreach (var (what, move) in moves)
        {
            List<double> all = [];
            for (var n = 0; n < Times; n++)
            {
                device.Move("/glossary", "parts");
                all.Add(move(n));
            }
            output.WriteLine(
                $"{what}: first {all[0]:0} ms, median {all.Order().ElementAt(Times / 2):0} ms, {all.Min():0} to {all.Max():0} of {Times}"
            );
        }
    }

    private readonly List<Guid> _shown = [];

    private async Task FillAsync(HttpClient client)
    {
        var places = (await client.GetFromJsonAsync<JsonNode>("/api/v1/places"))!
            .AsArray()
            .Select(p => (Guid)p!["id"]!)
            .Take(Places)
            .ToArray();
        var plants = Enumerable.Range(0, Plants).Select(_ => Guid.CreateVersion7()).ToArray();
        _shown.AddRange(plants.Take(Times));
        await OwnServer.SendAsync(client, plants.Select((p, i) => Tag(p, places[i % places.Length], $"years {i}")));
        await OwnServer.SendAsync(client, plants.Select((p, i) => Made.Named(p, places[i % places.Length], "", "Carpessa rubra")));
        for (var year = FirstYear; year < FirstYear + Years; year++)
        {
            foreach (var day in Days)
                await OwnServer.SendAsync(client, plants.Select(p => Visit(p, $"{year}-{day}")));
        }
    }

    private static JsonObject Tag(Guid plant, Guid place, string label)
    {
        var tag = Made.Tag(plant, place, label);
        tag["taggedOn"] = $"{FirstYear - 1}-12-01";
        return tag;
    }

    private static JsonObject Visit(Guid plant, string date)
    {
        var visit = Made.Visit(plant, "");
        visit["date"] = date;
        visit["observations"] = new JsonArray([
            .. Characters.Select(character => new JsonObject
            {
                ["id"] = Guid.CreateVersion7().ToString(),
                ["character"] = character,
                ["outcome"] = "notFound",
                ["states"] = new JsonArray(),
                ["together"] = false,
                ["readings"] = new JsonArray(),
                ["show"] = 0,
                ["of"] = 0,
                ["sureness"] = "sure",
                ["context"] = new JsonObject(),
                ["tool"] = "lens",
                ["date"] = date,
                ["note"] = "",
            }),
        ]);
        return visit;
    }

    public ValueTask DisposeAsync() => _own.DisposeAsync();
}
