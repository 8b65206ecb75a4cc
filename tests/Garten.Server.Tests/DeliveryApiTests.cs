using System.Text.Json.Nodes;
using Xunit;

namespace Garten.Server.Tests;

public sealed class DeliveryApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private readonly Guid _place = Guid.CreateVersion7();
    private readonly Guid _visit = Guid.CreateVersion7();
    private readonly string _partner = $"centre {Guid.CreateVersion7():N}";
    private readonly JsonObject _recorder = new() { ["id"] = Guid.CreateVersion7(), ["name"] = "Örn \"Ö\" Askling" };

    public async ValueTask InitializeAsync()
    {
        await KeepAsync(
            $$"""{"kind":"savePlace","placeId":"{{_place}}","name":"Lang Meadow","locality":"Torvane","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":300,"caution":""}"""
        );
        await KeepAsync(
            $$"""{"kind":"saveSiteVisit","siteVisitId":"{{_visit}}","placeId":"{{_place}}","date":"2026-05-02","startedAt":"09:00","people":[{{_recorder.ToJsonString()}}]}"""
        );
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<JsonNode> SendAsync(string json)
    {
        var command = JsonNode.Parse(json)!.AsObject();
        command["id"] = Guid.CreateVersion7();
        var (_, answer) = await server.SendAsync(command);
        return answer["results"]?[0] ?? answer;
    }

    private async Task KeepAsync(string json)
    {
        var result = await SendAsync(json);
        Assert.True((string?)result["status"] == "applied", result.ToJsonString());
    }

    private async Task<Guid> ListAsync(string taxon, Guid? supersedes = null)
    {
        var line = Guid.CreateVersion7();
        var before = supersedes is { } old ? $"\"{old}\"" : "null";
        await KeepAsync(
            $$"""{"kind":"listTaxon","lineId":"{{line}}","siteVisitId":"{{_visit}}","taxon":"{{taxon}}","recorder":{{_recorder.ToJsonString()}},"supersedes":{{before}}}"""
        );
        return line;
    }

    private string Delivery(Guid id, string taxon = "", string? partner = null) =>
        $$"""{"kind":"keepDelivery","deliveryId":"{{id}}","partner":"{{partner ?? _partner}}","scope":{"placeId":"{{_place}}","taxon":"{{taxon}}","isExact":false},"by":{{_recorder.ToJsonString()}}}""";

    private Task<JsonNode> NextAsync() =>
        server.GetAsync($"/api/v1/deliveries/next?partner={Uri.EscapeDataString(_partner)}&place={_place}");

    private Task<string> TextAsync(string path) =>
        server.Client.GetStringAsync(new Uri("/api/v1/deliveries/" + path, UriKind.Relative), TestContext.Current.CancellationToken);

    private static string Counts(JsonNode of) =>
        string.Join(' ', new[] { "new", "changed", "withdrawn", "unchanged" }.Select(n => (string?)of["counts"]![n]!.ToString()));

    [Fact]
    public async Task WhatFollowsIsNewChangedOrWithdrawnUnderTheSameIds()
    {
        var (stays, goes) = (await ListAsync("Alvena alba"), await ListAsync("Brontia lenta"));
        var first = Guid.CreateVersion7();
        await KeepAsync(Delivery(first));
        var csv = await TextAsync($"{first}/records.csv");
        Assert.StartsWith("change,occurrenceID,", csv, StringComparison.Ordinal);
        Assert.Contains($"new,urn:uuid:{stays}", csv, StringComparison.Ordinal);
        Assert.Equal("0 0 0 2", Counts(await NextAsync()));
        // Nothing of it goes twice, however the partner's name is written.
        Assert.Equal(
            "delivery.nothing",
            (string?)(await SendAsync(Delivery(Guid.CreateVersion7(), partner: $" {_partner.ToUpperInvariant()} ")))["code"]
        );
        await KeepAsync($$"""{"kind":"withdrawLine","siteVisitId":"{{_visit}}","lineId":"{{goes}}"}""");
        await ListAsync("Carpessa rubra");
        // A place with another name: the same record is told otherwise.
        await KeepAsync(
            $$"""{"kind":"savePlace","placeId":"{{_place}}","name":"Long Meadow","locality":"Torvane","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":300,"caution":"","version":1}"""
        );
        var next = await NextAsync();
        Assert.Equal("1 1 1 0", Counts(next));
        Assert.Equal("Long Meadow", (string?)next["places"]![0]!["placeName"]);
        // Narrowed to another taxon what they have isn't withdrawn: it holds still.
        var narrow = await server.GetAsync(
            $"/api/v1/deliveries/next?partner={Uri.EscapeDataString(_partner)}&place={_place}&taxon=Nothing%20such"
        );
        Assert.Equal("0 0 1 0", Counts(narrow));
        var second = Guid.CreateVersion7();
        await KeepAsync(Delivery(second));
        Assert.Contains($"urn:uuid:{goes},withdrawn", await TextAsync($"{second}/withdrawn.csv"), StringComparison.Ordinal);
        // The first is as it was sent.
        Assert.Equal(csv, await TextAsync($"{first}/records.csv"));
        var list = (await server.GetAsync("/api/v1/deliveries")).AsArray().Where(d => (string?)d!["partner"] == _partner).ToList();
        Assert.Equal(["2", "1"], list.Select(d => d!["number"]!.ToString()));
    }

    [Fact]
    public async Task WhatAPartnerSaysStandsBesideOurs()
    {
        var line = await ListAsync("Alvena alba");
        var delivery = Guid.CreateVersion7();
        await KeepAsync(Delivery(delivery));
        string Verdict(string verdict, string says, string partner) =>
            $$"""{"kind":"noteVerdict","partner":"{{partner}}","occurrenceId":"{{line}}","verdict":"{{verdict}}","says":"{{says}}","on":"2026-05-12","by":{{_recorder.ToJsonString()}}}""";
        await KeepAsync(Verdict("queried", "Is there a picture?", _partner));
        Assert.Equal(
            1,
            (int?)(await server.GetAsync("/api/v1/deliveries")).AsArray().First(d => (string?)d!["partner"] == _partner)!["queried"]
        );
        await KeepAsync(Verdict("accepted", "", _partner.ToUpperInvariant()));
        var item = (await server.GetAsync($"/api/v1/deliveries/{delivery}/items"))[0]!;
        Assert.Equal(("accepted", $"/site-visits/{_visit}"), ((string?)item["said"]!["verdict"], (string?)item["address"]));
        var of = Assert.Single((await server.GetAsync($"/api/v1/deliveries/of/{line}")).AsArray())!;
        Assert.Equal("Alvena alba", (string?)of["name"]);
        Assert.Equal("verdict.not-sent", (string?)(await SendAsync(Verdict("accepted", "", "somebody else")))["code"]);
        Assert.Equal("says.missing", (string?)(await SendAsync(Verdict("rejected", "", _partner)))["code"]);
    }

    [Fact]
    public async Task WhatIsErasedLeavesWhatWasKeptOfADelivery()
    {
        var line = await ListAsync("Alvena alba");
        var delivery = Guid.CreateVersion7();
        await KeepAsync(Delivery(delivery));
        Assert.Contains("Askling", await TextAsync($"{delivery}/records.csv"), StringComparison.Ordinal);
        await KeepAsync($$"""{"kind":"erase","subjectId":{{_recorder["id"]!.ToJsonString()}}}""");
        var nameless = await TextAsync($"{delivery}/records.csv");
        Assert.DoesNotContain("Askling", nameless, StringComparison.Ordinal);
        Assert.Contains("(erased)", nameless, StringComparison.Ordinal);
        await KeepAsync($$"""{"kind":"erase","subjectId":"{{line}}"}""");
        Assert.DoesNotContain("Alvena alba", await TextAsync($"{delivery}/records.csv"), StringComparison.Ordinal);
        // The partner is told that it holds no more.
        Assert.Equal("0 0 1 0", Counts(await NextAsync()));
    }
}
