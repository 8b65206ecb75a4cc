using System.Text.Json.Nodes;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Two places that turn out to be one.</summary>
public sealed class MergingApiTests(GartenServer server) : IClassFixture<GartenServer>
{
    private const string Tove = """{"id":"01900000-0000-7000-8000-0000000000b1","name":"Tove Askling"}""";

    private async Task<JsonNode> SendAsync(string kind, string body)
    {
        var command = JsonNode.Parse(body)!.AsObject();
        command["kind"] = kind;
        command["id"] ??= Guid.CreateVersion7();
        var (_, answer) = await server.SendAsync(command);
        return answer["results"]?[0] ?? answer;
    }

    private async Task KeepAsync(string kind, string body)
    {
        var result = await SendAsync(kind, body);
        Assert.True(result["status"]?.ToString() == "applied", $"{kind}: {result.ToJsonString()}");
    }

    private async Task<string> RefusedAsync(string kind, string body) => (await SendAsync(kind, body))["code"]?.ToString() ?? "taken";

    private async Task<Guid> PlaceAsync(string name, double latitude = 57.1, string caution = "")
    {
        var id = Guid.CreateVersion7();
        await KeepAsync(
            "savePlace",
            $$"""{"placeId":"{{id}}","name":"{{name}}","locality":"Torvane","latitude":{{latitude.ToString(
                System.Globalization.CultureInfo.InvariantCulture
            )}},"longitude":-11.2,"uncertaintyMetres":50,"caution":"{{caution}}","cell":"B2"}"""
        );
        return id;
    }

    private Task TagAsync(Guid plant, Guid place, string label, Guid? population = null) =>
        KeepAsync(
            "tagPlant",
            $$"""{"plantId":"{{plant}}","placeId":"{{place}}","label":"{{label}}","taggedOn":"2026-04-01","recorder":{{Tove}},"populationId":{{(
                population is { } of ? $"\"{of}\"" : "null"
            )}} }"""
        );

    private static string Named(Guid plant, Guid place, string name) =>
        $$"""{"determinationId":"{{Guid.CreateVersion7()}}","occurrenceId":"{{Guid.CreateVersion7()}}","plantId":"{{plant}}","plantLabel":"","placeId":"{{place}}","eventDate":"2026-05-02","recorder":{{Tove}},"startKey":"","answers":[],"names":["{{name}}"],"note":""}""";

    private static string Visit(Guid visit, Guid place) =>
        $$"""{"siteVisitId":"{{visit}}","placeId":"{{place}}","date":"2026-05-02","startedAt":"09:00","people":[{{Tove}}]}""";

    private static string Merge(Guid place, Guid? into, int? version = null) =>
        $$"""{"placeId":"{{place}}","intoId":{{(into is { } id ? $"\"{id}\"" : "null")}},"version":{{version?.ToString() ?? "null"}} }""";

    private async Task<int> PlantsAtAsync(Guid place) => (await server.GetAsync($"/api/v1/plants?place={place}")).AsArray().Count;

    private async Task<JsonNode?> ListedAsync(Guid place) =>
        (await server.GetAsync("/api/v1/places")).AsArray().FirstOrDefault(p => p!["id"]!.ToString() == place.ToString());

    [Fact]
    public async Task WhatWasRecordedStandsAtTheOtherPlaceAndCanBeTakenApartAgain()
    {
        var gone = await PlaceAsync("Mill Ditch", caution: "Deep mud.");
        var kept = await PlaceAsync("Mill Meadow");
        var (plant, peg, own, population, visit, survey) = (
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7()
        );
        await KeepAsync(
            "describePlace",
            $$"""{"placeId":"{{gone}}","ground":{"outline":[{"latitude":57.098,"longitude":-11.204},{"latitude":57.098,"longitude":-11.196},{"latitude":57.102,"longitude":-11.196}],"parts":[],"entrances":[],"hazards":[{"name":"bull","at":null}],"leave":null},"version":null}"""
        );
        await TagAsync(plant, gone, "tag 1");
        await TagAsync(own, kept, "Tag 1");
        await KeepAsync("recordDetermination", Named(plant, gone, "Alvena alba"));
        await KeepAsync(
            "savePopulation",
            $$"""{"populationId":"{{population}}","placeId":"{{gone}}","name":"bank","taxon":"Alvena alba"}"""
        );
        await TagAsync(peg, gone, "peg 1", population);
        await KeepAsync("saveSiteVisit", Visit(visit, gone));
        await KeepAsync(
            "saveSurvey",
            $$"""{"surveyId":"{{survey}}","name":"Ditches","question":"","from":"2026-01-01","to":"2026-12-31","leader":{{Tove}},"placeIds":["{{gone}}"],"sought":[],"protocol":null,"version":null}"""
        );

        var outlook = await server.GetAsync($"/api/v1/places/{gone}/merging?into={kept}");
        Assert.Equal(
            "From “Mill Ditch” to “Mill Meadow”: 2 marked plants, 1 population, 1 visit, 1 survey. Ids, positions and days stay as they are.",
            outlook["moves"]!.ToString()
        );
        var doubts = outlook["doubts"]!.AsArray().Select(d => d!.ToString()).ToList();
        Assert.Contains(doubts, d => d.StartsWith("Both have a plant tagged tag 1", StringComparison.Ordinal));
        Assert.Contains(doubts, d => d.Contains("too from then on: “Deep mud.”", StringComparison.Ordinal));

        Assert.Equal("place.changed", await RefusedAsync("mergePlace", Merge(gone, kept, 7)));
        Assert.Equal("merge.same", await RefusedAsync("mergePlace", Merge(gone, gone)));
        Assert.Equal("merge.none", await RefusedAsync("mergePlace", Merge(gone, null)));
        await KeepAsync("mergePlace", Merge(gone, kept, 1));

        Assert.Null(await ListedAsync(gone));
        Assert.Equal("Mill Ditch", (await ListedAsync(kept))!["merged"]![0]!["name"]!.ToString());
        Assert.Equal("Deep mud.", (await ListedAsync(kept))!["caution"]!.ToString());
        var grounds = (await server.GetAsync("/api/v1/places/grounds")).AsArray();
        Assert.Equal(
            "bull",
            grounds.Single(g => g!["placeId"]!.ToString() == kept.ToString())!["ground"]!["hazards"]![0]!["name"]!.ToString()
        );
        // Addresses of before lead on.
        Assert.Equal(3, await PlantsAtAsync(gone));
        Assert.Equal(3, await PlantsAtAsync(kept));
        var served = await server.GetAsync($"/api/v1/plants/{plant}");
        Assert.Equal("Mill Meadow", served["place"]!["name"]!.ToString());
        Assert.Equal("Alvena alba", served["determinations"]![0]!["names"]![0]!.ToString());
        Assert.Equal(kept.ToString(), (await server.GetAsync($"/api/v1/site-visits/{visit}"))["place"]!["id"]!.ToString());
        var places = (await server.GetAsync($"/api/v1/surveys/{survey}"))["survey"]!["places"]!.AsArray();
        Assert.Equal(["Mill Meadow"], places.Select(p => p!["name"]!.ToString()));

        // A device that didn't know records at the one that is gone: it stands where that leads.
        var late = Guid.CreateVersion7();
        await TagAsync(late, gone, "late");
        await KeepAsync("recordDetermination", Named(plant, gone, "Alvena alba"));
        var moved = Guid.CreateVersion7();
        await KeepAsync("saveSiteVisit", Visit(moved, gone));
        Assert.Equal(4, await PlantsAtAsync(kept));
        Assert.Equal(kept.ToString(), (await server.GetAsync($"/api/v1/site-visits/{moved}"))["place"]!["id"]!.ToString());
        Assert.Equal(
            "place.merged",
            await RefusedAsync(
                "savePlace",
                $$"""{"placeId":"{{gone}}","name":"New","locality":"","latitude":57,"longitude":-11,"uncertaintyMetres":5,"caution":"","version":1}"""
            )
        );

        // Apart again, each has what was its own; what came meanwhile stays where it was written.
        await KeepAsync("mergePlace", Merge(gone, null));
        Assert.Equal(2, await PlantsAtAsync(gone));
        Assert.Equal(2, await PlantsAtAsync(kept));
        Assert.Equal(2, (await server.GetAsync($"/api/v1/plants/{plant}"))["determinations"]!.AsArray().Count);
        Assert.Equal(gone.ToString(), (await server.GetAsync($"/api/v1/site-visits/{visit}"))["place"]!["id"]!.ToString());
        Assert.Null((await ListedAsync(kept))!["merged"]);
        places = (await server.GetAsync($"/api/v1/surveys/{survey}"))["survey"]!["places"]!.AsArray();
        Assert.Equal(["Mill Ditch"], places.Select(p => p!["name"]!.ToString()));
    }

    [Fact]
    public async Task AChainOfMergingsLeadsToItsEndAndComesApartInAnyOrder()
    {
        var (one, two, three) = (await PlaceAsync("Chain one"), await PlaceAsync("Chain two"), await PlaceAsync("Chain three", 57.9));
        var (a, b) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await TagAsync(a, one, "a");
        await TagAsync(b, two, "b");
        await KeepAsync("mergePlace", Merge(one, two));
        Assert.Contains(
            "They lie 89.0 km apart",
            (await server.GetAsync($"/api/v1/places/{two}/merging?into={three}"))["doubts"]!.ToJsonString(),
            StringComparison.Ordinal
        );
        await KeepAsync("mergePlace", Merge(two, three));
        Assert.Equal(2, await PlantsAtAsync(one));
        Assert.Equal("place.merged", await RefusedAsync("mergePlace", Merge(one, three)));
        Assert.Equal("merge.chain", await RefusedAsync("mergePlace", Merge(await PlaceAsync("Chain four"), two)));
        await KeepAsync("mergePlace", Merge(one, null));
        Assert.Equal(1, await PlantsAtAsync(one));
        Assert.Equal(1, await PlantsAtAsync(three));
        await KeepAsync("mergePlace", Merge(two, null));
        Assert.Equal(1, await PlantsAtAsync(two));
        Assert.Equal(0, await PlantsAtAsync(three));
    }

    [Fact]
    public async Task WhatIsWrittenInTheMomentOfMergingIsNotLeftBehind()
    {
        var (gone, kept) = (await PlaceAsync("Race one"), await PlaceAsync("Race two"));
        var plants = Enumerable.Range(0, 40).Select(_ => Guid.CreateVersion7()).ToArray();
        await Task.WhenAll(
            plants.Select((plant, i) => TagAsync(plant, gone, $"race {i}")).Append(KeepAsync("mergePlace", Merge(gone, kept)))
        );
        await using var connection = new NpgsqlConnection(server.ConnectionString);
        await connection.OpenAsync(TestContext.Current.CancellationToken);
        await using var left = new NpgsqlCommand("select count(*) from plant where place_id = $1", connection)
        {
            Parameters = { new() { Value = gone } },
        };
        Assert.Equal(0L, await left.ExecuteScalarAsync(TestContext.Current.CancellationToken));
        Assert.Equal(plants.Length, await PlantsAtAsync(kept));
    }
}
