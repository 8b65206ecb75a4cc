using System.Text.Json.Nodes;
using Xunit;

namespace Garten.Server.Tests;

public sealed class SiteVisitApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private readonly Guid _place = Guid.CreateVersion7();
    private readonly JsonObject _recorder = new() { ["id"] = Guid.CreateVersion7(), ["name"] = "Örn Askling" };

    public async ValueTask InitializeAsync() =>
        await KeepAsync(
            new()
            {
                ["kind"] = "savePlace",
                ["placeId"] = _place,
                ["name"] = "Lang Meadow",
                ["locality"] = "Torvane",
                ["latitude"] = 57.4,
                ["longitude"] = -11.2,
                ["uncertaintyMetres"] = 150,
                ["caution"] = "",
            }
        );

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<JsonNode> SendAsync(JsonObject command)
    {
        command["id"] ??= Guid.CreateVersion7();
        var (_, answer) = await server.SendAsync(command);
        return answer["results"]?[0] ?? answer;
    }

    private async Task KeepAsync(JsonObject command)
    {
        var result = await SendAsync(command);
        Assert.True(result["status"]?.ToString() == "applied", result.ToJsonString());
    }

    private async Task RefusedAsync(string code, JsonObject command, string says = "")
    {
        var result = await SendAsync(command);
        Assert.True((string?)result["code"] == code, result.ToJsonString());
        Assert.Contains(says, result.ToJsonString(), StringComparison.Ordinal);
    }

    private JsonObject Visit(Guid id, string date = "2026-05-02", string startedAt = "09:00") =>
        new()
        {
            ["kind"] = "saveSiteVisit",
            ["siteVisitId"] = id,
            ["placeId"] = _place,
            ["date"] = date,
            ["startedAt"] = startedAt,
            ["people"] = new JsonArray(_recorder.DeepClone()),
        };

    private JsonObject Line(Guid visit, string taxon, Guid? plant = null) =>
        new()
        {
            ["kind"] = "listTaxon",
            ["lineId"] = Guid.CreateVersion7(),
            ["siteVisitId"] = visit,
            ["taxon"] = taxon,
            ["unnamed"] = taxon.Length == 0 ? "unnamed 1" : "",
            ["plantId"] = plant,
            ["recorder"] = _recorder.DeepClone(),
        };

    private static JsonObject Closed(Guid visit, string endedAt, string sought = "[]") =>
        new()
        {
            ["kind"] = "closeSiteVisit",
            ["siteVisitId"] = visit,
            ["closing"] = JsonNode.Parse(
                $$"""{"endedAt":"{{endedAt}}","completeness":"complete","group":"","level":"","sought":{{sought}},"ticks":[],"note":""}"""
            ),
        };

    [Fact]
    public async Task APlaceIsChangedByOneAtATimeAndItsNameStandsEverywhere()
    {
        var (visit, plant) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync(Visit(visit));
        await KeepAsync(
            new()
            {
                ["kind"] = "tagPlant",
                ["plantId"] = plant,
                ["placeId"] = _place,
                ["label"] = "peg of a moved meadow",
                ["taggedOn"] = "2026-05-02",
                ["recorder"] = _recorder.DeepClone(),
            }
        );
        var last = (long)(await server.GetAsync("/api/v1/changes"))["last"]!;
        JsonObject Changed(int? version, string name = "Long Meadow") =>
            new()
            {
                ["kind"] = "savePlace",
                ["placeId"] = _place,
                ["name"] = name,
                ["locality"] = "",
                ["latitude"] = 57.41,
                ["longitude"] = -11.2,
                ["uncertaintyMetres"] = 100,
                ["caution"] = "",
                ["version"] = version,
            };
        await RefusedAsync("place.exists", Changed(null));
        await RefusedAsync("place.changed", Changed(7));
        await RefusedAsync("name.missing", Changed(1, ""));
        await KeepAsync(Changed(1));
        await RefusedAsync("place.changed", Changed(1));
        var unknown = Changed(1);
        unknown["placeId"] = Guid.CreateVersion7();
        await RefusedAsync("place.unknown", unknown);
        Assert.True((bool)(await server.GetAsync($"/api/v1/changes?after={last}"))["all"]!);
        var plants = await server.GetAsync("/api/v1/plants?text=moved%20meadow");
        Assert.Contains("Long Meadow", plants.ToJsonString(), StringComparison.Ordinal);
        Assert.Contains("Long Meadow", (await server.GetAsync($"/api/v1/site-visits/{visit}")).ToJsonString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task WhatCantBeSoIsRefusedInWordsAndNothingIsHalfKept()
    {
        var visit = Guid.CreateVersion7();
        await RefusedAsync("date.future", Visit(visit, "2100-01-01"));
        await RefusedAsync("visit.times", Visit(visit, startedAt: "25:00"));
        var nobody = Visit(visit);
        nobody["people"] = new JsonArray();
        await RefusedAsync("visit.people", nobody);
        var twice = Visit(visit);
        twice["people"] = new JsonArray(_recorder.DeepClone(), _recorder.DeepClone());
        await RefusedAsync("visit.people", twice);
        var elsewhere = Visit(visit);
        elsewhere["placeId"] = Guid.CreateVersion7();
        await RefusedAsync("place.unknown", elsewhere);
        await RefusedAsync("visit.unknown", Line(visit, "Alvena alba"));
        await RefusedAsync("visit.unknown", Closed(visit, "12:00"));
        Assert.Equal(404, (int)(await server.Client.GetAsync(new Uri($"/api/v1/site-visits/{visit}", UriKind.Relative), Stop)).StatusCode);
        await KeepAsync(Visit(visit));
        await RefusedAsync("visit.changed", Visit(visit));
        await RefusedAsync("visit.times", Closed(visit, "08:00"), "ends before it begins");
        await RefusedAsync("line.name", Line(visit, "") is var unnamed && Cleared(unnamed) is var bare ? bare : null!);
        await RefusedAsync("plant.unknown", Line(visit, "", Guid.CreateVersion7()));
        await KeepAsync(Line(visit, "Alvena alba"));
        await RefusedAsync(
            "visit.sought-found",
            Closed(visit, "12:00", """[{"taxon":"Alvena alba","area":"","minutes":20,"observers":1}]"""),
            "on the list and was sought in vain"
        );
        await RefusedAsync("visit.sought", Closed(visit, "12:00", """[{"taxon":"Alvena nigra","area":"","minutes":0,"observers":1}]"""));
        await KeepAsync(Closed(visit, "12:00", """[{"taxon":"Alvena alba","area":"ditch","minutes":20,"observers":1}]"""));
        var kept = await server.GetAsync($"/api/v1/site-visits/{visit}");
        Assert.Equal((1, 180), (kept["lines"]!.AsArray().Count, (int)kept["effort"]!["personMinutes"]!));
    }

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private static JsonObject Cleared(JsonObject line)
    {
        line["unnamed"] = "";
        return line;
    }

    [Fact]
    public async Task RecordsOfPlantsAndListsStandInOneListPageByPage()
    {
        var plant = Guid.CreateVersion7();
        for (var day = 1; day <= 3; day++)
        {
            var visit = Guid.CreateVersion7();
            await KeepAsync(Visit(visit, $"2026-04-0{day}"));
            foreach (var taxon in new[] { "Alvena alba", "Alvena nigra", "Alvena palus" })
                await KeepAsync(Line(visit, taxon));
            await KeepAsync(
                new()
                {
                    ["kind"] = "recordDetermination",
                    ["determinationId"] = Guid.CreateVersion7(),
                    ["occurrenceId"] = Guid.CreateVersion7(),
                    ["plantId"] = plant,
                    ["plantLabel"] = "peg 1",
                    ["placeId"] = _place,
                    ["eventDate"] = $"2026-04-0{day}",
                    ["recorder"] = _recorder.DeepClone(),
                    ["startKey"] = "",
                    ["answers"] = new JsonArray(),
                    ["names"] = new JsonArray("Alvena alba"),
                    ["note"] = "",
                }
            );
        }
        async Task<List<string>> ReadAsync(string query, int size)
        {
            var all = new List<string>();
            for (var after = ""; ; )
            {
                var page = await server.GetAsync($"/api/v1/records?place={_place}&size={size}&after={after}{query}");
                all.AddRange(
                    page["records"]!
                        .AsArray()
                        .Select(r => $"{((string)r!["eventDate"]!)[8..]} {(r["siteVisitId"] is null ? "plant" : "list")} {r["name"]}")
                );
                if (page["next"] is null)
                    return all;
                after = (string)page["next"]!;
            }
        }
        var whole = await ReadAsync("", 100);
        Assert.Equal(
            ["03 plant Alvena alba", "03 list Alvena palus", "03 list Alvena nigra", "03 list Alvena alba", "02 plant Alvena alba"],
            whole.Take(5)
        );
        Assert.Equal(12, whole.Count);
        foreach (var size in new[] { 1, 2, 3, 5 })
            Assert.Equal(whole, await ReadAsync("", size));
        Assert.Equal(9, (await ReadAsync("&of=lists", 2)).Count);
        Assert.Equal(3, (await ReadAsync("&of=plants", 2)).Count);
        Assert.Equal(6, (await ReadAsync("&taxon=Alvena%20alba", 2)).Count);
        Assert.Equal(422, (int)(await server.Client.GetAsync(new Uri("/api/v1/records?of=roots", UriKind.Relative), Stop)).StatusCode);
    }

    [Fact]
    public async Task WhatIsErasedLeavesTheLists()
    {
        var (plant, visit) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync(
            new()
            {
                ["kind"] = "tagPlant",
                ["plantId"] = plant,
                ["placeId"] = _place,
                ["label"] = "unnamed 1",
                ["taggedOn"] = "2026-05-02",
                ["recorder"] = _recorder.DeepClone(),
            }
        );
        await KeepAsync(Visit(visit));
        var (ofPlant, other) = (Line(visit, "", plant), Line(visit, "Alvena oblita"));
        await KeepAsync(ofPlant);
        var corrected = Line(visit, "Brontia alta");
        corrected["supersedes"] = ofPlant["lineId"]!.DeepClone();
        await KeepAsync(corrected);
        await KeepAsync(other);
        await KeepAsync(new() { ["kind"] = "erase", ["subjectId"] = plant });
        async Task<string> ListAsync() =>
            string.Join(
                ", ",
                (await server.GetAsync($"/api/v1/site-visits/{visit}"))["records"]!.AsArray().Select(r => (string)r!["called"]!)
            );
        Assert.Equal("Brontia alta, Alvena oblita", await ListAsync());
        await KeepAsync(new() { ["kind"] = "erase", ["subjectId"] = other["lineId"]!.DeepClone() });
        Assert.Equal("Brontia alta", await ListAsync());
        Assert.Equal("erased", (string?)(await SendAsync(Line(visit, "", plant)))["code"]);
        Assert.DoesNotContain("Alvena oblita", (await server.GetAsync("/api/v1/records"))["names"]!.AsArray().Select(n => (string)n!));
    }

    // Names that are new to all of them, in whatever order: batches wait for each other and never two for one another.
    [Fact]
    public async Task ListsThatAreSentAtOnceAreAllTaken()
    {
        var names = Enumerable.Range(0, 40).Select(i => $"Simultana species{i}").ToList();
        var all = Enumerable
            .Range(0, 8)
            .Select(async d =>
            {
                var visit = Guid.CreateVersion7();
                var random = new Random(d);
                var commands = new List<JsonObject> { Visit(visit) };
                commands.AddRange(names.OrderBy(_ => random.Next()).Select(n => Line(visit, n)));
                foreach (var command in commands)
                    command["id"] = Guid.CreateVersion7();
                var (status, answer) = await server.PostAsync(
                    "/api/v1/commands",
                    new JsonObject { ["commands"] = new JsonArray([.. commands]) }
                );
                Assert.True(
                    status == 200 && answer["results"]!.AsArray().All(r => r!["status"]!.ToString() == "applied"),
                    answer.ToJsonString()
                );
            });
        await Task.WhenAll(all);
        var known = (await server.GetAsync("/api/v1/records"))["names"]!.AsArray().Select(n => (string)n!).ToHashSet();
        Assert.All(names, n => Assert.Contains(n, known));
    }
}
