using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Core.Contracts;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>What a device makes of its waiting commands is what the server comes to when it carries them out.</summary>
public sealed class DocumentTests(GartenServer server) : IClassFixture<GartenServer>
{
    private const string Person = """{"id":"01980000-0000-7000-8000-00000000d0c1","name":"Document Maker"}""";
    private static readonly string Day = DateTime.Now.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);

    private static readonly string[] Whole = ["places", "populations", "plants"];

    // What only the server knows: when it took a fact in, what was published then, and what it names things by.
    private static readonly string[] Servers = ["recordedAt", "floras"];

    [Fact]
    public async Task AKeyThatWaitsIsTheKeyThatTheServerSaves()
    {
        var name = $"Waiting {Guid.NewGuid():N}";
        JsonNode? before = await server.GetAsync("/api/v1/keys");
        foreach (var last in new[] { "Alvena nigra", "Alvena rubra" })
        {
            var text =
                $"{name}\n1 Leaves flat ... {name} two\n- Leaves round ... {last}\n\n{name} two\n1 Hairy ... Alvena alba\n- Bald ... Alvena montis\n";
            var command = new JsonObject
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = text,
            };
            var waiting = new JsonObject
            {
                ["date"] = Day,
                ["commands"] = new JsonArray(command.DeepClone()),
                ["places"] = new JsonArray(),
            };
            JsonNode Asked(string call, JsonObject request) =>
                JsonNode.Parse(CoreCalls.Named(call).Answer(request.ToJsonString(), new CoreSession()))!;
            var made = Asked("keys", new() { ["keys"] = before.DeepClone(), ["waiting"] = waiting.DeepClone() });
            var hashes = Asked("shelve", new() { ["commands"] = new JsonArray(command.DeepClone()) });
            var (_, saved) = await server.SendAsync(command);
            Assert.Equal(
                hashes.AsArray().Select(h => (string)h!).Order(),
                saved["results"]![0]!["keys"]!.AsArray().Select(k => (string)k!["hash"]!).Order()
            );
            var after = await server.GetAsync("/api/v1/keys");
            static IEnumerable<string> Plain(JsonNode keys) =>
                keys.AsArray()
                    .Select(k =>
                    {
                        var line = (JsonObject)k!.DeepClone();
                        line.Remove("addedAt");
                        return line.ToJsonString();
                    });
            Assert.Equal(Plain(after), Plain(made));
            var hash = (string)hashes[0]!;
            var detail = Asked(
                "key",
                new()
                {
                    ["hash"] = hash,
                    ["key"] = null,
                    ["keys"] = before.DeepClone(),
                    ["waiting"] = waiting.DeepClone(),
                }
            )[0]!;
            var served = await server.GetAsync($"/api/v1/keys/{hash}");
            foreach (var part in new[] { "hash", "title", "version", "key", "sourceText" })
                Assert.Equal(served[part]!.ToJsonString(), detail[part]!.ToJsonString());
            before = after;
        }
    }

    [Fact]
    public async Task EachCommandDoesToTheDocumentsWhatItDoesOnTheServer()
    {
        var stop = TestContext.Current.CancellationToken;
        string Id() => Guid.CreateVersion7().ToString();
        var (place, plant, other, population, count, threat, look, whole) = (Id(), Id(), Id(), Id(), Id(), Id(), Id(), Id());
        var commands = new[]
        {
            $$"""{"kind":"savePlace","id":"{{Id()}}","placeId":"{{place}}","name":"Document Dell","locality":"Torvane","latitude":57.1,"longitude":-11.2,"uncertaintyMetres":50,"caution":"Slippery.","cell":"B2","elevationMetres":40,"habitats":["meadow"]}""",
            $$"""{"kind":"tagPlant","id":"{{Id()}}","plantId":"{{plant}}","placeId":"{{place}}","label":"tag 1","taggedOn":"2026-04-01","recorder":{{Person}},"finding":{"landmark":"gate","bearingDegrees":45,"distanceMetres":3,"note":""} }""",
            $$"""{"kind":"visitPlant","id":"{{Id()}}","visitId":"{{Id()}}","plantId":"{{plant}}","date":"2026-05-02","recorder":{{Person}},"state":"browsed","phases":[{"phase":"flower","stage":"notYet"}],"note":"bitten","observations":[{"id":"{{look}}","character":"leaf-margin","outcome":"notFound","states":[],"together":false,"readings":[],"show":0,"of":0,"sureness":"sure","context":{ },"tool":"lens","date":"2026-05-02","note":""}]}""",
            $$"""{"kind":"visitPlant","id":"{{Id()}}","visitId":"{{Id()}}","plantId":"{{plant}}","date":"2026-04-20","recorder":{{Person}},"state":"notRefound"}""",
            $$"""{"kind":"recordDetermination","id":"{{Id()}}","determinationId":"{{Id()}}","occurrenceId":"{{Id()}}","plantId":"{{plant}}","plantLabel":"","placeId":"{{place}}","eventDate":"2026-05-02","recorder":{{Person}},"startKey":"","answers":[],"names":["Alvena alba","Alvena nigra"],"note":"in leaf"}""",
            $$"""{"kind":"recordDetermination","id":"{{Id()}}","determinationId":"{{Id()}}","occurrenceId":"{{Id()}}","plantId":"{{plant}}","plantLabel":"","placeId":"{{place}}","eventDate":"2026-05-03","recorder":{{Person}},"startKey":"","answers":[],"names":["Brontia alta"],"note":"the fruit of last year tells"}""",
            $$"""{"kind":"tagPlant","id":"{{Id()}}","plantId":"{{plant}}","placeId":"{{place}}","label":"tag 1b","taggedOn":"2026-04-01","recorder":{{Person}},"site":{"latitude":57.1,"longitude":-11.2,"uncertaintyMetres":5},"version":1 }""",
            $$"""{"kind":"recordDetermination","id":"{{Id()}}","determinationId":"{{Id()}}","occurrenceId":"{{Id()}}","plantId":"{{other}}","plantLabel":"by the stile","placeId":"{{place}}","eventDate":"2026-05-03","recorder":{{Person}},"startKey":"","answers":[],"names":["Alvena alba"],"note":""}""",
            $$"""{"kind":"savePopulation","id":"{{Id()}}","populationId":"{{population}}","placeId":"{{place}}","name":"south bank","taxon":"Alvena alba","bounds":"fence to path"}""",
            $$"""{"kind":"countPopulation","id":"{{Id()}}","countId":"{{count}}","populationId":"{{population}}","date":"2025-06-01","recorder":{{Person}},"unit":"individuals","number":40}""",
            $$"""{"kind":"countPopulation","id":"{{Id()}}","countId":"{{Id()}}","populationId":"{{population}}","date":"2025-06-01","recorder":{{Person}},"unit":"individuals","number":44,"note":"counted again","supersedes":"{{count}}"}""",
            $$"""{"kind":"tagPlant","id":"{{Id()}}","plantId":"{{Id()}}","placeId":"{{place}}","label":"peg 2","taggedOn":"2026-04-01","recorder":{{Person}},"populationId":"{{population}}"}""",
            $$"""{"kind":"noteThreat","id":"{{Id()}}","threatId":"{{threat}}","populationId":"{{population}}","notedOn":"2026-05-01","text":"Cattle.","actBy":"2026-06-01"}""",
            $$"""{"kind":"noteThreat","id":"{{Id()}}","threatId":"{{Id()}}","populationId":"{{population}}","notedOn":"2026-05-03","text":"Fenced.","closes":"{{threat}}"}""",
            $$"""{"kind":"savePlace","id":"{{Id()}}","placeId":"{{place}}","name":"A Document Dell","locality":"Torvane, east","latitude":57.2,"longitude":-11.2,"uncertaintyMetres":60,"caution":"Deep.","version":1,"isAtRest":true}""",
            $$"""{"kind":"savePlace","id":"{{Id()}}","placeId":"{{whole}}","name":"The whole of it","locality":"Torvane","latitude":57.2,"longitude":-11.2,"uncertaintyMetres":900,"caution":""}""",
            $$"""{"kind":"mergePlace","id":"{{Id()}}","placeId":"{{place}}","intoId":"{{whole}}","version":2}""",
        };
        foreach (var json in commands)
        {
            var command = JsonSerializer.Deserialize(json, CoreJson.Default.Command)!;
            var before = await DocumentsAsync(plant, stop);
            var (_, answer) = await server.PostAsync(
                "/api/v1/commands",
                new JsonObject { ["commands"] = new JsonArray(JsonNode.Parse(json)) }
            );
            Assert.True((string?)answer?["results"]?[0]?["status"] == "applied", answer?.ToJsonString());
            var after = await DocumentsAsync(plant, stop);
            foreach (var (name, made) in Made(before, command, Guid.Parse(plant)))
            {
                Same(after[name], made, $"{command.GetType().Name}: {name}");
                // Once more changes nothing.
                var again = Made(new Dictionary<string, JsonNode?>(after), command, Guid.Parse(plant));
                Same(after[name], again[name], $"{command.GetType().Name} twice: {name}");
            }
        }
        await WhatIsTakenAlongIsTheSameAsync(whole, stop);
    }

    // Plants as a whole are those that are asked for one by one, and the records and lists that a device makes of them are the server's.
    private async Task WhatIsTakenAlongIsTheSameAsync(string place, CancellationToken stop)
    {
        async Task<JsonNode> GetAsync(string address) =>
            JsonNode.Parse(await server.Client.GetStringAsync(new Uri("/api/v1/" + address, UriKind.Relative), stop))!;
        var listed = (await GetAsync($"plants?place={place}")).AsArray();
        List<JsonNode> whole = [];
        // By pages of one.
        for (var after = ""; after is not null; )
        {
            using var answer = await server.Client.GetAsync(
                new Uri(
                    $"/api/v1/plants/whole?place={place}&size=1{(after.Length > 0 ? "&after=" + Uri.EscapeDataString(after) : "")}",
                    UriKind.Relative
                ),
                stop
            );
            whole.AddRange(JsonNode.Parse(await answer.Content.ReadAsStringAsync(stop))!.AsArray().Select(p => p!.DeepClone()));
            var next = answer.Headers.TryGetValues("Link", out var links) ? links.First() : null;
            after = next is null
                ? null
                : System.Web.HttpUtility.ParseQueryString(new Uri("http://x" + next[1..next.IndexOf('>', StringComparison.Ordinal)]).Query)[
                    "after"
                ];
        }
        Assert.Equal(listed.Select(p => (string)p!["id"]!), whole.Select(p => (string)p["id"]!));
        foreach (var it in whole)
            Assert.True(JsonNode.DeepEquals(await GetAsync($"plants/{it["id"]}"), it), it.ToJsonString());
        var plants = whole.ConvertAll(p => p.Deserialize(CoreJson.Default.PlantDetail)!);
        var records = (await GetAsync($"records?place={place}"))["records"];
        Same(
            records,
            JsonSerializer.SerializeToNode(
                new RecordsDocument([.. plants.Select(NamedPlant.Of)], PlaceId: Guid.Parse(place)).Tell(),
                CoreJson.Default.IReadOnlyListRecordLine
            ),
            "records"
        );
        Assert.All(new RecordsDocument([.. plants.Select(NamedPlant.Of)], "Alvena alba").Tell(), l =>
            Assert.Contains("Alvena alba", l.Names)
        );
        var tagged = listed.Deserialize(CoreJson.Default.IReadOnlyListTaggedPlant)!;
        Same(
            await GetAsync($"plants?place={place}&pegged=false&text=TAG%201"),
            JsonSerializer.SerializeToNode(
                new FoundPlantsRequest(Guid.Parse(place), " tag 1").Among(tagged),
                CoreJson.Default.IReadOnlyListTaggedPlant
            ),
            "plants found"
        );
    }

    [Fact]
    public async Task EachCommandDoesToAVisitWhatItDoesOnTheServer()
    {
        var stop = TestContext.Current.CancellationToken;
        string Id() => Guid.CreateVersion7().ToString();
        var (place, plant, visit, line, slip, track, wider) = (Id(), Id(), Id(), Id(), Id(), Id(), Id());
        var commands = new[]
        {
            $$"""{"kind":"savePlace","id":"{{Id()}}","placeId":"{{place}}","name":"Visited Dell","locality":"Torvane","latitude":57.1,"longitude":-11.2,"uncertaintyMetres":50,"caution":"","cell":"B2","elevationMetres":40,"habitats":["meadow"]}""",
            $$"""{"kind":"tagPlant","id":"{{Id()}}","plantId":"{{plant}}","placeId":"{{place}}","label":"unnamed 1","taggedOn":"2026-05-02","recorder":{{Person}}}""",
            $$"""{"kind":"saveSiteVisit","id":"{{Id()}}","siteVisitId":"{{visit}}","placeId":"{{place}}","date":"2026-05-02","startedAt":"09:40","people":[{{Person}}]}""",
            $$"""{"kind":"listTaxon","id":"{{Id()}}","lineId":"{{line}}","siteVisitId":"{{visit}}","taxon":"Alvena alba","recorder":{{Person}},"at":"10:00"}""",
            $$"""{"kind":"listTaxon","id":"{{Id()}}","lineId":"{{slip}}","siteVisitId":"{{visit}}","taxon":"Alvena nigra","recorder":{{Person}},"compartment":"ditch"}""",
            $$"""{"kind":"listTaxon","id":"{{Id()}}","lineId":"{{Id()}}","siteVisitId":"{{visit}}","taxon":"","unnamed":"unnamed 1","plantId":"{{plant}}","recorder":{{Person}},"site":{"latitude":57.1,"longitude":-11.2,"uncertaintyMetres":6} }""",
            $$"""{"kind":"listTaxon","id":"{{Id()}}","lineId":"{{Id()}}","siteVisitId":"{{visit}}","taxon":"Alvena alba","recorder":{{Person}},"at":"10:00","details":{"abundance":"rare","count":3,"unit":"stems","growth":"planted","growthReason":"in a row","note":"by the gate"},"supersedes":"{{line}}"}""",
            $$"""{"kind":"withdrawLine","id":"{{Id()}}","siteVisitId":"{{visit}}","lineId":"{{slip}}"}""",
            $$"""{"kind":"keepTrack","id":"{{Id()}}","trackId":"{{track}}","siteVisitId":"{{visit}}","recorder":{{Person}},"startedAt":"2026-05-02T08:00:00Z","points":[{"latitude":57.1,"longitude":-11.2,"accuracyMetres":4,"seconds":0},{"latitude":57.101,"longitude":-11.2,"accuracyMetres":4,"seconds":50}],"source":"receiver"}""",
            $$"""{"kind":"keepTrack","id":"{{Id()}}","trackId":"{{Id()}}","siteVisitId":"{{visit}}","recorder":{{Person}},"startedAt":"","points":[{"latitude":57.1,"longitude":-11.2}],"source":"way.kml"}""",
            $$"""{"kind":"withdrawTrack","id":"{{Id()}}","siteVisitId":"{{visit}}","trackId":"{{track}}"}""",
            $$"""{"kind":"closeSiteVisit","id":"{{Id()}}","siteVisitId":"{{visit}}","closing":{"endedAt":"12:10","completeness":"complete","group":"","level":"","sought":[{"taxon":"Brontia lenta","area":"","minutes":20,"observers":1}],"ticks":[],"note":""} }""",
            $$"""{"kind":"saveSiteVisit","id":"{{Id()}}","siteVisitId":"{{visit}}","placeId":"{{place}}","date":"2026-05-03","startedAt":"09:00","people":[{{Person}}],"planned":[{"id":"a b","subjectId":"{{plant}}","isOfPopulation":false,"called":"Alvena alba","text":"fruit"}],"purpose":"spring list","weather":"wet","pauses":[{"from":"10:00","to":"10:30"}],"safety":{"contact":"the hut","backBy":"17:00"},"version":1}""",
            $$"""{"kind":"recordDetermination","id":"{{Id()}}","determinationId":"{{Id()}}","occurrenceId":"{{Id()}}","plantId":"{{plant}}","plantLabel":"","placeId":"{{place}}","eventDate":"2026-05-10","recorder":{{Person}},"startKey":"","answers":[],"names":["Brontia alta"],"note":""}""",
            $$"""{"kind":"savePlace","id":"{{Id()}}","placeId":"{{place}}","name":"A Visited Dell","locality":"Torvane, east","latitude":57.2,"longitude":-11.2,"uncertaintyMetres":60,"caution":"","version":1,"isAtRest":true}""",
            $$"""{"kind":"savePlace","id":"{{Id()}}","placeId":"{{wider}}","name":"The whole of it","locality":"Torvane","latitude":57.2,"longitude":-11.2,"uncertaintyMetres":900,"caution":""}""",
            $$"""{"kind":"mergePlace","id":"{{Id()}}","placeId":"{{place}}","intoId":"{{wider}}","version":2}""",
        };
        async Task<(JsonNode? Whole, JsonNode List, JsonNode Places)> ReadAsync()
        {
            var own = await server.Client.GetAsync(new Uri($"/api/v1/site-visits/{visit}", UriKind.Relative), stop);
            return (
                own.IsSuccessStatusCode ? JsonNode.Parse(await own.Content.ReadAsStringAsync(stop)) : null,
                await server.GetAsync($"/api/v1/site-visits?place={place}"),
                await server.GetAsync("/api/v1/places")
            );
        }
        foreach (var json in commands)
        {
            var command = JsonSerializer.Deserialize(json, CoreJson.Default.Command)!;
            var before = await ReadAsync();
            var (_, answer) = await server.PostAsync(
                "/api/v1/commands",
                new JsonObject { ["commands"] = new JsonArray(JsonNode.Parse(json)) }
            );
            Assert.True((string?)answer?["results"]?[0]?["status"] == "applied", answer?.ToJsonString());
            var after = await ReadAsync();
            foreach (var from in new[] { before, after })
            {
                var waiting = new Waiting(Day, [Json(command)], Read(from.Places, CoreJson.Default.IReadOnlyListPlace)!);
                var whole = Read(from.Whole, CoreJson.Default.SiteVisit);
                var made = new SiteVisitDocument(Guid.Parse(visit), whole, waiting).Tell();
                Same(
                    after.Whole,
                    made is [var it] ? JsonSerializer.SerializeToNode(it, CoreJson.Default.SiteVisit) : null,
                    command.GetType().Name
                );
                Same(
                    after.List,
                    JsonSerializer.SerializeToNode(
                        new SiteVisitsDocument(
                            Read(from.List, CoreJson.Default.IReadOnlyListSiteVisitSummary)!,
                            whole is null ? [] : [whole],
                            waiting
                        ).Tell(),
                        CoreJson.Default.IReadOnlyListSiteVisitSummary
                    ),
                    command.GetType().Name + " in the list"
                );
            }
        }
        var found = await server.GetAsync($"/api/v1/places/{place}/found?before=2026-06-01");
        Assert.Equal(["Alvena alba", "Brontia alta"], found.AsArray().Select(f => (string)f!["name"]!));
        var changed = await server.GetAsync("/api/v1/changes?after=0");
        Assert.Contains(visit, changed["visits"]!.AsArray().Select(v => (string)v!));
    }

    [Fact]
    public void WhatTheServerWillRefuseStandsInNoWay()
    {
        var place = new Place(Guid.CreateVersion7(), "Dell", "", 57, -11, 50, "");
        var person = new PersonReference(Guid.CreateVersion7(), "Document Maker");
        var plant = Guid.CreateVersion7();
        var waiting = new Waiting(
            Day,
            [
                JsonDocument.Parse("""{"kind":"noSuchThing","id":"x"}""").RootElement,
                .. new Command[]
                {
                    new TagPlantCommand(Guid.CreateVersion7(), plant, place.Id, "soon", "soon", person),
                    new TagPlantCommand(Guid.CreateVersion7(), plant, Guid.CreateVersion7(), "nowhere", "2026-04-01", person),
                    new VisitPlantCommand(Guid.CreateVersion7(), Guid.CreateVersion7(), plant, "2026-04-31", person, default),
                    new CountPopulationCommand(Guid.CreateVersion7(), Guid.CreateVersion7(), plant, "", person, default, 3),
                    new TagPlantCommand(Guid.CreateVersion7(), plant, place.Id, "tag 1", "2026-04-01", person),
                }.Select(Json),
            ],
            [place]
        );
        Assert.Equal("tag 1", Assert.Single(new PlantsDocument([], waiting).Tell(new CoreSession())).Label);
        Assert.Equal("tag 1", Assert.Single(new PlantDocument(plant, null, waiting).Tell(new CoreSession())).Label);
        Assert.Empty(new PopulationsDocument([], waiting).Tell(new CoreSession()));
        Assert.Equal([0], new HandedCommands(waiting.Commands).Unreadable());
    }

    private async Task<Dictionary<string, JsonNode?>> DocumentsAsync(string plant, CancellationToken stop)
    {
        var read = new Dictionary<string, JsonNode?>();
        foreach (var name in Whole)
            read[name] = JsonNode.Parse(
                await server.Client.GetStringAsync(new Uri($"/api/v1/{name}?pegged=false&size=500", UriKind.Relative), stop)
            );
        var own = await server.Client.GetAsync(new Uri($"/api/v1/plants/{plant}", UriKind.Relative), stop);
        read["plant"] = own.IsSuccessStatusCode ? JsonNode.Parse(await own.Content.ReadAsStringAsync(stop)) : null;
        return read;
    }

    private static Dictionary<string, JsonNode?> Made(Dictionary<string, JsonNode?> from, Command command, Guid plant)
    {
        var session = new CoreSession();
        var waiting = new Waiting(Day, [Json(command)], Read(from["places"], CoreJson.Default.IReadOnlyListPlace)!);
        var tagged = Read(from["plants"], CoreJson.Default.IReadOnlyListTaggedPlant)!;
        return new()
        {
            ["places"] = JsonSerializer.SerializeToNode(waiting.AllPlaces(), CoreJson.Default.IReadOnlyListPlace),
            ["plants"] = JsonSerializer.SerializeToNode(
                new PlantsDocument(tagged, waiting).Tell(session),
                CoreJson.Default.IReadOnlyListTaggedPlant
            ),
            ["populations"] = JsonSerializer.SerializeToNode(
                new PopulationsDocument(Read(from["populations"], CoreJson.Default.IReadOnlyListPopulationDetail)!, waiting).Tell(session),
                CoreJson.Default.IReadOnlyListPopulationDetail
            ),
            ["plant"] = new PlantDocument(plant, Read(from["plant"], CoreJson.Default.PlantDetail), waiting).Tell(session) is [var it]
                ? JsonSerializer.SerializeToNode(it, CoreJson.Default.PlantDetail)
                : null,
        };
    }

    private static JsonElement Json(Command command) => JsonSerializer.SerializeToElement(command, CoreJson.Default.Command);

    private static T? Read<T>(JsonNode? node, System.Text.Json.Serialization.Metadata.JsonTypeInfo<T> type) =>
        node is null ? default : node.Deserialize(type);

    private static void Same(JsonNode? expected, JsonNode? actual, string at)
    {
        var (own, other) = (expected?.DeepClone(), actual?.DeepClone());
        foreach (var node in new[] { own, other })
            LeaveOut(node);
        Assert.True(JsonNode.DeepEquals(own, other), $"{at}\nserver: {own?.ToJsonString()}\ndevice: {other?.ToJsonString()}");
    }

    private static void LeaveOut(JsonNode? node)
    {
        if (node is JsonArray list)
        {
            foreach (var it in list)
                LeaveOut(it);
        }
        else if (node is JsonObject whole)
        {
            foreach (var name in Servers)
                whole.Remove(name);
            foreach (var (_, value) in whole.ToList())
                LeaveOut(value);
        }
    }
}
