using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Garten.Testing;

/// <content>Where they work, what they note there, and what of it is there in the end.</content>
public sealed partial class FaultyDays
{
    // A population to ten plants. Of visits whose lists are written through the page there is one to two: a list of more lines than anyone
    // writes would only slow the page down.
    private const int PlantsToAPopulation = 10;
    private const int PlantsToAList = 2;

    private async Task BeginAsync()
    {
        var commands = new JsonArray(
            Made.Command(
                "savePlace",
                ("placeId", _place),
                ("name", "Fault Fen"),
                ("locality", "Torvane"),
                ("latitude", 57.1),
                ("longitude", -11.2),
                ("uncertaintyMetres", 200),
                ("caution", "")
            )
        );
        for (var i = 0; i < plants / PlantsToAPopulation; i++)
        {
            _populations.Add(Guid.CreateVersion7());
            commands.Add(
                Made.Command(
                    "savePopulation",
                    ("populationId", _populations[i]),
                    ("placeId", _place),
                    ("name", string.Create(CultureInfo.InvariantCulture, $"population {i}")),
                    ("taxon", "Alvena alba")
                )
            );
        }
        for (var i = 0; i < plants; i++)
        {
            _plants.Add(Guid.CreateVersion7());
            commands.Add(Made.Tag(_plants[i], _place, string.Create(CultureInfo.InvariantCulture, $"base {i}")));
        }
        var flora = (string)(await client.GetFromJsonAsync<JsonNode>("/api/v1/floras"))![0]!["id"]!;
        using var described = await client.PostAsJsonAsync("/api/v1/identify/describe", new JsonObject { ["floraId"] = flora });
        string[] names = [.. (await described.Content.ReadFromJsonAsync<JsonNode>())!.AsArray().Select(t => (string)t!["taxon"]!["name"]!)];
        // Only names that leave nothing to be asked: of a species with a cultivar several may be meant.
        using var read = await client.PostAsJsonAsync(
            "/api/v1/visits/read",
            new JsonObject { ["floraId"] = flora, ["text"] = string.Join('\n', names) }
        );
        var meant = (await read.Content.ReadFromJsonAsync<JsonNode>())!.AsArray().Select(n => (string)n!["answer"]!["meant"]!);
        _taxa = [.. names.Zip(meant).Where(n => n.First == n.Second).Select(n => n.First)];
        for (var i = 0; i < plants / PlantsToAList; i++)
        {
            _lists.Add(Guid.CreateVersion7());
            commands.Add(
                Made.Command(
                    "saveSiteVisit",
                    ("siteVisitId", _lists[i]),
                    ("placeId", _place),
                    ("date", "2026-05-04"),
                    ("startedAt", "09:00"),
                    ("people", new JsonArray(Made.Recorder()))
                )
            );
        }
        foreach (var batch in commands.Select(c => c!.DeepClone()).Chunk(LargestBatch))
        {
            using var response = await client.PostAsJsonAsync("/api/v1/commands", new JsonObject { ["commands"] = new JsonArray(batch) });
            response.EnsureSuccessStatusCode();
        }
        await Task.WhenAll(_devices.Select(d => Task.Run(() => d.Start())));
    }

    private IEnumerable<FaultyFact> Draw(Random random)
    {
        var plant = _plants[random.Next(plants)];
        // Mostly visits: plants and names that come into being at every other step would make a place of thirty thousand plants.
        switch (random.Next(20))
        {
            case 0:
                var tagged = Guid.CreateVersion7();
                var label = Next("tag");
                yield return new FaultyFact("tagPlant", label, Made.Tag(tagged, _place, label), [tagged.ToString()], Guid.Empty);
                // What hangs on it goes after it.
                yield return Visit(tagged, Next("visit"), Guid.Empty);
                break;
            case > 14:
                var counted = Next("count");
                yield return new FaultyFact(
                    "countPopulation",
                    counted,
                    Made.Command(
                        "countPopulation",
                        ("countId", Guid.CreateVersion7()),
                        ("populationId", _populations[random.Next(_populations.Count)]),
                        ("date", "2026-05-03"),
                        ("recorder", Made.Recorder()),
                        ("unit", "individuals"),
                        ("number", random.Next(500)),
                        ("note", counted)
                    ),
                    [],
                    Guid.Empty
                );
                break;
            case 1:
                var (named, note) = (Guid.CreateVersion7(), Next("name"));
                yield return new FaultyFact(
                    "recordDetermination",
                    note,
                    Made.Named(named, _place, note, "Alvena alba", "Alvena nigra"),
                    [named.ToString()],
                    Guid.Empty
                );
                break;
            case < 7:
                yield return Visit(plant, Next("visit"), Guid.CreateVersion7());
                break;
            default:
                yield return Visit(plant, Next("visit"), Guid.Empty);
                break;
        }
    }

    private static FaultyFact Visit(Guid plant, string note, Guid look)
    {
        var command = Made.Visit(plant, note);
        if (look != Guid.Empty)
            command["observations"] = new JsonArray(
                JsonNode.Parse(
                    $$"""{"id":"{{look}}","character":"leaf-margin","outcome":"notFound","states":[],"together":false,"readings":[],"show":0,"of":0,"sureness":"sure","context":{},"tool":"lens","date":"2026-05-04","note":""}"""
                )
            );
        return new FaultyFact("visitPlant", note, command, [], look);
    }

    private async Task<(Dictionary<string, int> Facts, Dictionary<Guid, int> Looks)> ReadAsync()
    {
        var there = new Dictionary<string, int>(StringComparer.Ordinal);
        var looks = new Dictionary<Guid, int>();
        void Count(JsonNode? name)
        {
            if ((string?)name is { } text && _begun.ContainsKey(text))
                there[text] = there.GetValueOrDefault(text) + 1;
        }
        for (string? next = $"/api/v1/plants/whole?place={_place}&size=100"; next is not null; )
        {
            using var response = await client.GetAsync(new Uri(next, UriKind.Relative));
            response.EnsureSuccessStatusCode();
            foreach (var plant in (await response.Content.ReadFromJsonAsync<JsonNode>())!.AsArray())
            {
                Count(plant!["label"]);
                foreach (var visit in plant["visits"]!.AsArray())
                    Count(visit!["note"]);
                foreach (var name in plant["determinations"]!.AsArray())
                    Count(name!["note"]);
                foreach (var look in plant["observations"]!.AsArray())
                    looks[(Guid)look!["id"]!] = looks.GetValueOrDefault((Guid)look["id"]!) + 1;
            }
            next = response.Headers.TryGetValues("Link", out var links) ? links.First().Split('<', '>')[1] : null;
        }
        foreach (var population in (await client.GetFromJsonAsync<JsonNode>("/api/v1/populations"))!.AsArray())
        {
            foreach (var count in population!["counts"]!.AsArray())
                Count(count!["note"]);
        }
        foreach (var list in _lists)
        {
            foreach (var line in (await client.GetFromJsonAsync<JsonNode>($"/api/v1/site-visits/{list}"))!["lines"]!.AsArray())
                Count(line!["details"]!["count"]?.ToString());
        }
        return (there, looks);
    }
}
