using System.Net;
using System.Text.Json.Nodes;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>The vocabulary of parts and qualities: read, added to, and kept as it was for what was published with it.</summary>
public sealed class VocabularyApiTests(GartenServer server) : IClassFixture<GartenServer>
{
    private static JsonObject Define(string what, string json) =>
        new()
        {
            ["kind"] = "defineTerm",
            ["id"] = Guid.CreateVersion7().ToString(),
            [what] = JsonNode.Parse(json),
        };

    private static string Quality(string id, string states, string name = "ring form") =>
        $$"""{"id":"{{id}}","name":"{{name}}","kind":"categorical","applies":["any"],"unit":"","measures":[],"reliability":0.88,"detection":1,"effortSeconds":20,"tool":"lens","handling":"look","several":false,"definition":"What a ring is like.","trap":"Cracks.","states":[{{states}}]}""";

    private static string State(string id, string broader = "", string more = "") =>
        $$"""{"id":"{{id}}","name":"{{id}}","broader":"{{broader}}","near":"","terms":["{{id}}"],"definition":"It is {{id}}."{{more}}}""";

    private async Task<JsonNode> FoundAsync(string text)
    {
        var (status, found) = await server.PostAsync("/api/v1/vocabulary/find", new JsonObject { ["text"] = text });
        Assert.Equal(200, status);
        return found;
    }

    private async Task<JsonNode> AppliedAsync(JsonObject command)
    {
        var (_, body) = await server.SendAsync(command);
        Assert.True((string?)body["results"]![0]!["status"] == "applied", body.ToJsonString());
        return body;
    }

    private async Task<string> RefusedAsync(JsonObject command)
    {
        var (_, body) = await server.SendAsync(command);
        var problem = body["results"]?[0]?["problem"] ?? body;
        Assert.True(problem["title"] is not null, body.ToJsonString());
        return $"{problem["title"]} {problem["detail"]}";
    }

    [Fact]
    public async Task WhatIsDefinedIsFoundAtOnceAndTheVersionBeforeStaysAsItWas()
    {
        var stop = TestContext.Current.CancellationToken;
        using var before = await server.Client.GetAsync(new Uri("/api/v1/vocabulary", UriKind.Relative), stop);
        var tag = before.Headers.ETag!.Tag;
        using var same = new HttpRequestMessage(HttpMethod.Get, "/api/v1/vocabulary");
        same.Headers.TryAddWithoutValidation("If-None-Match", tag);
        using var unchanged = await server.Client.SendAsync(same, stop);
        Assert.Equal(HttpStatusCode.NotModified, unchanged.StatusCode);

        await AppliedAsync(
            Define(
                "part",
                """{"id":"knee","parent":"root","class":"body","organ":"underground","owners":[],"nouns":["knee","knees"],"groups":[],"seenIn":[],"tool":"eye","handling":"look","definition":"A root that rises out of wet ground."}"""
            )
        );
        await AppliedAsync(Define("quality", Quality("knee-form", $"{State("blunt-knee")},{State("sharp-knee")}", "knee form")));
        var found = await FoundAsync("knee sharp-knee");
        Assert.Equal(("knee.knee-form", "sharp-knee"), ((string)found[0]!["character"]!["id"]!, (string)found[0]!["state"]!));

        using var after = await server.Client.GetAsync(new Uri("/api/v1/vocabulary", UriKind.Relative), stop);
        Assert.NotEqual(tag, after.Headers.ETag!.Tag);
        using var old = await server.Client.GetAsync(
            new Uri($"/api/v1/vocabulary/versions/{after.Headers.ETag.Tag.Trim('"')}", UriKind.Relative),
            stop
        );
        Assert.Equal(HttpStatusCode.OK, old.StatusCode);
        using var none = await server.Client.GetAsync(new Uri("/api/v1/vocabulary/versions/0", UriKind.Relative), stop);
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
    }

    [Fact]
    public async Task WhatCantBeDefinedIsRefusedInWords()
    {
        Assert.Contains("already", await RefusedAsync(Define("part", Part("stalk", "petiole"))), StringComparison.Ordinal);
        Assert.Contains("part of itself", await RefusedAsync(Define("part", Part("loop", "loops", "loop"))), StringComparison.Ordinal);
        Assert.Contains("no part", await RefusedAsync(Define("part", Part("lost", "losts", "nowhere"))), StringComparison.Ordinal);
        Assert.Contains(
            "kind of itself",
            await RefusedAsync(Define("quality", Quality("circle", $"{State("round", "square")},{State("square", "round")}"))),
            StringComparison.Ordinal
        );
        var many = string.Join(',', Enumerable.Range(0, 10_000).Select(i => State($"state-{i}")));
        Assert.Contains("10000 states", await RefusedAsync(Define("quality", Quality("many", many))), StringComparison.Ordinal);
        var picture = $",\"picture\":\"data:image/png;base64,{new string('A', 90_000)}\"";
        Assert.Contains(
            "too large",
            await RefusedAsync(Define("quality", Quality("drawn", $"{State("one", "", picture)},{State("two")}"))),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "neither PNG nor JPEG",
            await RefusedAsync(
                Define("quality", Quality("drawn", $"{State("one", "", ",\"picture\":\"data:text/html;base64,AAAA\"")},{State("two")}"))
            ),
            StringComparison.Ordinal
        );
        // What was recorded with a state must find it again.
        Assert.Contains(
            "would be gone",
            await RefusedAsync(
                Define("quality", Quality("stickiness", $"{State("dry")},{State("wet")}").Replace("categorical", "ordered"))
            ),
            StringComparison.Ordinal
        );
    }

    private static string Part(string id, string noun, string parent = "leaf") =>
        $$"""{"id":"{{id}}","parent":"{{parent}}","class":"body","organ":"leaf","owners":[],"nouns":["{{noun}}"],"groups":[],"seenIn":[],"tool":"eye","handling":"look","definition":"A test."}""";

    [Fact]
    public async Task AnyQualityOfAnyPartIsRecordedOnAPlant()
    {
        var (place, plant) = (Guid.CreateVersion7().ToString(), Guid.CreateVersion7().ToString());
        await AppliedAsync(
            (JsonObject)
                JsonNode.Parse(
                    $$"""{"kind":"savePlace","id":"{{Guid.CreateVersion7()}}","placeId":"{{place}}","name":"Part Park","locality":"","latitude":57.1,"longitude":-11.2,"uncertaintyMetres":50,"caution":"","cell":"B2"}"""
                )!
        );
        JsonObject Named(string character, string states) =>
            (JsonObject)
                JsonNode.Parse(
                    $$"""{"kind":"recordDetermination","id":"{{Guid.CreateVersion7()}}","determinationId":"{{Guid.CreateVersion7()}}","occurrenceId":"{{Guid.CreateVersion7()}}","plantId":"{{plant}}","plantLabel":"p","placeId":"{{place}}","eventDate":"2026-05-02","recorder":{"id":"01980000-0000-7000-8000-00000000d0c9","name":"Part Looker"},"startKey":"","answers":[],"names":["Alvena alba"],"note":"","observations":[{"id":"{{Guid.CreateVersion7()}}","character":"{{character}}","outcome":"seen","states":[{{states}}],"together":false,"readings":[],"show":0,"of":0,"sureness":"sure","context":{},"tool":"lens","date":"2026-05-02","note":""}]}"""
                )!;
        await AppliedAsync(Named("rachis.hair-form", "\"t-shaped\""));
        var detail = await server.GetAsync($"/api/v1/plants/{plant}");
        Assert.Equal("rachis.hair-form", (string?)detail["observations"]![0]!["character"]);
        // What isn't known here yet is kept, and nothing is worked out with it until it is.
        await AppliedAsync(Named("rachis.hair-form", "\"square\""));
        await AppliedAsync(Named("rachis.nonsense", "\"square\""));
        detail = await server.GetAsync($"/api/v1/plants/{plant}");
        Assert.Single(detail["observations"]!.AsArray());
        Assert.Equal(["rachis.hair-form", "rachis.nonsense"], detail["unreadable"]!.AsArray().Select(u => (string)u!["what"]!));
    }
}
