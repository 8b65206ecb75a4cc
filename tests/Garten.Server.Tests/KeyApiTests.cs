using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Core.Contracts;
using Garten.Core.Keys;
using Xunit;

namespace Garten.Server.Tests;

public sealed class KeyApiTests(GartenServer server) : IClassFixture<GartenServer>
{
    private const string Sound =
        "Key to Vellorna\n1. Twigs winged ... Vellorna alata\n1. Twigs round ... 2\n2. Leaf grey ... Vellorna cinerea\n2. Leaf green ... Vellorna torvanica\n";

    [Fact]
    public async Task CheckSaysWhatWasReadAndStoresNothing()
    {
        var before = (await server.GetAsync("/api/v1/keys")).AsArray().Count;
        var (status, body) = await server.PostTextAsync(
            "/api/v1/keys/check",
            new StringContent(Sound.Replace("... 2", "... 7", StringComparison.Ordinal), Encoding.UTF8, "text/plain")
        );
        Assert.Equal(200, status);
        Assert.Equal(
            """{"title":"Key to Vellorna","layout":"bracketed","couplets":2,"taxa":["Vellorna alata","Vellorna cinerea","Vellorna torvanica"]}""",
            body["keys"]![0]!.ToJsonString()
        );
        var first = body["problems"]![0]!;
        Assert.Equal(
            ("error", "couplet.missing", 3, 20),
            ((string)first["severity"]!, (string)first["code"]!, (int)first["line"]!, (int)first["column"]!)
        );
        Assert.False(string.IsNullOrEmpty((string)first["message"]!));
        Assert.Equal(before, (await server.GetAsync("/api/v1/keys")).AsArray().Count);
    }

    [Fact]
    public async Task WhatIsNoTextIsRefused()
    {
        async Task<(int, string)> Post(byte[] bytes, string? type)
        {
            var content = new ByteArrayContent(bytes);
            if (type is not null)
                content.Headers.ContentType = new(type);
            var (status, body) = await server.PostTextAsync("/api/v1/keys/check", content);
            return (status, (string)body["code"]!);
        }

        Assert.Equal((400, "text.binary"), await Post([0x89, 0x50, 0x4E, 0x47, 0, 0, 0xFF], "text/plain"));
        Assert.Equal((400, "text.binary"), await Post([0x41, 0, 0x42], "text/plain"));
        Assert.Equal((415, "body.type"), await Post("1. a"u8.ToArray(), "application/json"));
        Assert.Equal((413, "text.too-long"), await Post(new byte[(1 << 20) + 1], "text/plain"));
        Assert.Equal((413, "text.too-long"), await Post(new byte[6 << 20], "text/plain"));
    }

    [Fact]
    public async Task ASoundTextIsSavedAndASecondOneOfItsTitleIsTheNextVersion()
    {
        JsonObject Save(string text) =>
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = text,
            };
        var text = Sound.Replace("Vellorna\n", "Vellorna of the north\n", StringComparison.Ordinal);
        var (_, first) = await server.SendAsync(Save(text));
        var (_, same) = await server.SendAsync(Save(text.Replace("...", "→", StringComparison.Ordinal)));
        var (_, second) = await server.SendAsync(Save(text.Replace("grey", "ash-grey", StringComparison.Ordinal)));
        (string, int, bool) Saved(JsonNode body) =>
            (
                (string)body["results"]![0]!["keys"]![0]!["hash"]!,
                (int)body["results"]![0]!["keys"]![0]!["version"]!,
                (bool)body["results"]![0]!["keys"]![0]!["isNew"]!
            );
        Assert.Equal((1, true), (Saved(first).Item2, Saved(first).Item3));
        // The same key with other leaders is the same version.
        Assert.Equal(Saved(first) with { Item3 = false }, Saved(same));
        Assert.Equal(2, Saved(second).Item2);
        var listed = (await server.GetAsync("/api/v1/keys")).AsArray().Single(k => (string)k!["title"]! == "Key to Vellorna of the north")!;
        Assert.Equal(Saved(second).Item1, (string)listed["hash"]!);
        var old = await server.GetAsync($"/api/v1/keys/{Saved(first).Item1}");
        Assert.Equal([2, 1], old["versions"]!.AsArray().Select(v => (int)v!["version"]!));
        Assert.Equal(text, (string)old["sourceText"]!);
    }

    [Fact]
    public async Task AnUnsoundTextIsRefusedWithItsProblemsAndChangesNothing()
    {
        var before = (await server.GetAsync("/api/v1/keys")).ToJsonString();
        var (status, problem) = await server.SendAsync(
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = Sound.Replace("... 2", "... 1", StringComparison.Ordinal),
            }
        );
        Assert.Equal((422, "key.unsound"), (status, (string)problem["code"]!));
        Assert.Contains(problem["problems"]!.AsArray(), p => (string)p!["code"]! == "couplet.self");
        Assert.Equal(before, (await server.GetAsync("/api/v1/keys")).ToJsonString());
    }

    [Fact]
    public async Task AWalkOnTheServerIsTheOneOfTheBrowser()
    {
        var (_, saved) = await server.SendAsync(
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = Sound,
            }
        );
        var hash = (string)saved["results"]![0]!["keys"]![0]!["hash"]!;
        var (status, walk) = await server.PostAsync(
            "/api/v1/keys/walk",
            new JsonObject
            {
                ["start"] = hash,
                ["answers"] = new JsonArray(
                    new JsonObject
                    {
                        ["keyVersion"] = hash,
                        ["couplet"] = "1",
                        ["lead"] = 1,
                    }
                ),
            }
        );
        Assert.Equal(200, status);
        Assert.Equal(["Vellorna cinerea", "Vellorna torvanica"], walk["standing"]!.AsArray().Select(s => (string)s!["name"]!));
        var (unknown, problem) = await server.PostAsync(
            "/api/v1/keys/walk",
            new JsonObject { ["start"] = "nothing", ["answers"] = new JsonArray() }
        );
        Assert.Equal((404, "trail.version"), (unknown, (string)problem["code"]!));
    }

    [Fact]
    public async Task AKeyIsReadAndMadeAListOfItsTaxa()
    {
        const string text = """
            Key to pasted shrubs

            1. Lvs opposite, entire; twigs glabrous ... Pastea prima
            1. Lvs alternate, finely serrate; frumious by and large ... Pastea secunda
            """;
        var (_, saved) = await server.SendAsync(
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = text,
            }
        );
        var hash = (string)saved["results"]![0]!["keys"]![0]!["hash"]!;
        var (_, read) = await server.PostAsync("/api/v1/keys/reading", new JsonObject { ["hash"] = hash });
        Assert.Equal((4, 3), ((int)read["meter"]!["statements"]!, (int)read["meter"]!["taken"]!));
        var (status, made) = await server.PostAsync($"/api/v1/keys/{hash}/flora", new JsonObject());
        Assert.Equal((200, "key-key-to-pasted-shrubs"), (status, (string)made["floraId"]!));
        var (_, sifted) = await server.PostAsync("/api/v1/identify/describe", new JsonObject { ["floraId"] = (string)made["floraId"]! });
        Assert.Equal(["Pastea prima", "Pastea secunda"], sifted.AsArray().Select(t => (string)t!["taxon"]!["name"]!).Order());
        var (again, _) = await server.PostAsync($"/api/v1/keys/{hash}/flora", new JsonObject());
        Assert.Equal(200, again);
        var (unknown, problem) = await server.PostAsync("/api/v1/keys/nothing/flora", new JsonObject());
        Assert.Equal((404, "key.unknown"), (unknown, (string)problem["code"]!));
    }

    [Fact]
    public async Task DescriptionsInProseBecomeADraft()
    {
        var body = new JsonObject
        {
            ["name"] = "Pasted shrubs",
            ["text"] = "Pastea prima Hask. Shrub to 2 m. Leaves ovate, 3–8 cm.\n\nPastea secunda Osk. Like P. prima, but leaves linear.",
        };
        var (status, kept) = await server.PostAsync("/api/v1/floras/descriptions", body);
        Assert.Equal((200, 2), (status, (int)kept["taxa"]!));
        body["name"] = " ";
        Assert.Equal("name.missing", (string)(await server.PostAsync("/api/v1/floras/descriptions", body)).Body["code"]!);
        body["name"] = "x";
        body["text"] = "no taxon here";
        Assert.Equal("descriptions.none", (string)(await server.PostAsync("/api/v1/floras/descriptions", body)).Body["code"]!);
    }

    private async Task<string> SavedAsync(string title, JsonObject? source = null, HttpClient? by = null)
    {
        var command = new JsonObject
        {
            ["kind"] = "saveKeys",
            ["id"] = Guid.CreateVersion7(),
            ["text"] = $"Key to {title}\n\n1. Leaves opposite, frumious beneath ... Pastea prima\n1. Leaves alternate ... Pastea secunda\n",
        };
        if (source is not null)
            command["source"] = source;
        var response = await (by ?? server.Client).PostAsJsonAsync(
            "/api/v1/commands",
            new JsonObject { ["commands"] = new JsonArray(command) },
            TestContext.Current.CancellationToken
        );
        var body = JsonNode.Parse(await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken))!;
        return (string)body["results"]![0]!["keys"]![0]!["hash"]!;
    }

    private async Task<(int Status, string Text)> TextOfAsync(string address, HttpClient? by = null)
    {
        var response = await (by ?? server.Client).GetAsync(new Uri(address, UriKind.Relative), TestContext.Current.CancellationToken);
        return ((int)response.StatusCode, await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task ATextIsHandedOnOnlyWhereItsLicenceAllows()
    {
        var silent = await SavedAsync("silent shrubs");
        Assert.Equal(403, (await TextOfAsync($"/api/v1/keys/{silent}/text")).Status);
        var held = await SavedAsync("held shrubs", new JsonObject { ["book"] = "A held book", ["licence"] = "allRights" });
        Assert.Equal(403, (await TextOfAsync($"/api/v1/keys/{held}/text")).Status);
        Assert.Equal("A held book, all rights reserved", (string)(await server.GetAsync($"/api/v1/keys/{held}"))["source"]!["inWords"]!);
        var free = await SavedAsync(
            "free shrubs",
            new JsonObject
            {
                ["book"] = "A free book",
                ["page"] = "7",
                ["licence"] = "ccBy",
            }
        );
        var (status, text) = await TextOfAsync($"/api/v1/keys/{free}/text");
        Assert.Equal(200, status);
        Assert.StartsWith("# A free book, p. 7, CC BY", text, StringComparison.Ordinal);
        Assert.Contains("Pastea secunda", text, StringComparison.Ordinal);
        // What is made of it is handed on no more than it is itself.
        var (_, made) = await server.PostAsync($"/api/v1/keys/{held}/flora", new JsonObject());
        Assert.Equal(403, (await TextOfAsync($"/api/v1/floras/{(string)made["floraId"]!}/sdd")).Status);
        var (_, open) = await server.PostAsync($"/api/v1/keys/{free}/flora", new JsonObject());
        Assert.Equal(200, (await TextOfAsync($"/api/v1/floras/{(string)open["floraId"]!}/sdd")).Status);
        // What is said later counts.
        Assert.Equal(held, await SavedAsync("held shrubs", new JsonObject { ["book"] = "A held book", ["licence"] = "publicDomain" }));
        Assert.Equal(200, (await TextOfAsync($"/api/v1/keys/{held}/text")).Status);
    }

    [Fact]
    public async Task WhatADeviceBringsForItselfNobodyElseSees()
    {
        using var own = server.Browse(Guid.CreateVersion7());
        using var other = server.Browse(Guid.CreateVersion7());
        var hash = await SavedAsync("own shrubs", new JsonObject { ["book"] = "Mine", ["onlyHere"] = true }, own);
        Assert.Equal(200, (await TextOfAsync($"/api/v1/keys/{hash}", own)).Status);
        foreach (var stranger in new[] { other, server.Client })
        {
            Assert.Equal(404, (await TextOfAsync($"/api/v1/keys/{hash}", stranger)).Status);
            Assert.DoesNotContain("own shrubs", (await TextOfAsync("/api/v1/keys", stranger)).Text, StringComparison.Ordinal);
            Assert.DoesNotContain(
                "own shrubs",
                (await TextOfAsync($"/api/v1/keys/shelf?with={hash}", stranger)).Text,
                StringComparison.Ordinal
            );
        }
        Assert.Contains("own shrubs", (await TextOfAsync("/api/v1/keys", own)).Text, StringComparison.Ordinal);
        // Nor is what was made of it.
        var made = await own.PostAsJsonAsync($"/api/v1/keys/{hash}/flora", new JsonObject(), TestContext.Current.CancellationToken);
        var flora = (string)JsonNode.Parse(await made.Content.ReadAsStringAsync(TestContext.Current.CancellationToken))!["floraId"]!;
        Assert.Equal(200, (await TextOfAsync($"/api/v1/floras/{flora}/pack", own)).Status);
        Assert.Equal(404, (await TextOfAsync($"/api/v1/floras/{flora}/pack", other)).Status);
        Assert.Equal(404, (await server.PostAsync("/api/v1/identify/describe", new JsonObject { ["floraId"] = flora })).Status);
        Assert.DoesNotContain(flora, (await TextOfAsync("/api/v1/floras", other)).Text, StringComparison.Ordinal);
        // For one device alone, but for which?
        var (status, refused) = await server.SendAsync(
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = "Key to nobody's shrubs\n\n1. Leaves opposite ... Pastea prima\n1. Leaves alternate ... Pastea secunda\n",
                ["source"] = new JsonObject { ["onlyHere"] = true },
            }
        );
        Assert.Equal((422, "source.device"), (status, (string)refused["code"]!));
        Assert.Contains("own shrubs", (await TextOfAsync("/api/v1/keys/shelf", own)).Text, StringComparison.Ordinal);
    }

    [Fact]
    public async Task AnswersKeepTheReadingThatTheyCite()
    {
        var hash = await SavedAsync("cited shrubs");
        await server.KeepReadingsAsync();
        async Task<JsonNode> Shelf(string with) => await server.GetAsync($"/api/v1/keys/shelf?with={with}");
        JsonNode Of(JsonNode shelf) => shelf["versions"]!.AsArray().Single(v => (string)v!["hash"]! == hash)!;
        var first = (int)Of(await Shelf(hash))["reading"]!;
        Assert.True(first >= 1);
        // Nothing has changed: no other number is made.
        await server.KeepReadingsAsync();
        Assert.Equal(first, (int)Of(await Shelf(hash))["reading"]!);
        await server.SendAsync(
            new()
            {
                ["kind"] = "teachTerm",
                ["id"] = Guid.CreateVersion7(),
                ["character"] = "leaf.hair-density",
                ["state"] = "tomentose",
                ["term"] = "frumious",
                ["book"] = "Key to cited shrubs",
            }
        );
        await server.KeepReadingsAsync();
        var now = await Shelf(hash);
        Assert.Equal(first + 1, (int)Of(now)["reading"]!);
        Assert.Empty(now["kept"]?.AsArray() ?? []);
        var kept = (await Shelf($"{hash}~{first}"))["kept"]!.AsArray().Single()!;
        Assert.Equal((hash, first), ((string)kept["hash"]!, (int)kept["number"]!));
        Assert.DoesNotContain("tomentose", kept.ToJsonString(), StringComparison.Ordinal);
        Assert.Contains("tomentose", (await server.GetAsync($"/api/v1/keys/{hash}/statements")).ToJsonString(), StringComparison.Ordinal);
        Assert.Empty((await Shelf($"{hash}~99"))["kept"]?.AsArray() ?? []);
    }

    // A device reads nothing that was read here; what is taught meanwhile isn't missing in it.
    [Fact]
    public async Task TheReadingsOfNowComeWithThePackedShelf()
    {
        var hash = await SavedAsync("packed shrubs");
        async Task<Shelf> PackedAsync() =>
            ShelfFile.Read(
                await server.Client.GetByteArrayAsync(
                    new Uri($"/api/v1/keys/shelf/packed?with={hash}", UriKind.Relative),
                    TestContext.Current.CancellationToken
                )
            );
        static string Written(IEnumerable<CoupletReadings> read) =>
            JsonSerializer.Serialize<IReadOnlyList<CoupletReadings>>([.. read], CoreJson.Default.IReadOnlyListCoupletReadings);
        static string Read(Shelf shelf) =>
            Written(shelf.Read.Single().Couplets.Select(c => new CoupletReadings(c, shelf.Read[0].Find(c)!)));
        await server.KeepReadingsAsync();
        var packed = await PackedAsync();
        Assert.Equal(hash, Assert.Single(packed.Read).Hash);
        var now = JsonSerializer.Deserialize(
            (await server.GetAsync($"/api/v1/keys/{hash}/statements")).ToJsonString(),
            CoreJson.Default.IReadOnlyListCoupletReadings
        )!;
        Assert.Equal(
            Written(now.Select(c => c with { Leads = [.. c.Leads.Select(l => l.Select(s => s with { Clauses = null }).ToList())] })),
            Read(packed)
        );
        await server.SendAsync(
            new()
            {
                ["kind"] = "teachTerm",
                ["id"] = Guid.CreateVersion7(),
                ["character"] = "leaf.hair-density",
                ["state"] = "tomentose",
                ["term"] = "frumious",
                ["book"] = "Key to packed shrubs",
            }
        );
        // As long as they are those of before none come along.
        var behind = await PackedAsync();
        Assert.True(behind.Read.Count == 0 || Read(behind).Contains("tomentose", StringComparison.Ordinal));
        await server.KeepReadingsAsync();
        Assert.Contains("tomentose", Read(await PackedAsync()), StringComparison.Ordinal);
    }

    [Fact]
    public async Task PagesOfOtherSitesMayChangeNothing()
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/v1/commands")
        {
            Content = new StringContent("{}", Encoding.UTF8, "application/json"),
        };
        request.Headers.Add("Origin", "http://elsewhere.example");
        var response = await server.Client.SendAsync(request, TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.Forbidden, response.StatusCode);
        Assert.Contains(
            "script-src 'self'",
            string.Join(' ', response.Headers.GetValues("Content-Security-Policy")),
            StringComparison.Ordinal
        );
        using var strange = new HttpRequestMessage(HttpMethod.Get, "/api/v1/health") { Headers = { Host = "elsewhere.example" } };
        Assert.Equal(HttpStatusCode.BadRequest, (await server.Client.SendAsync(strange, TestContext.Current.CancellationToken)).StatusCode);
    }
}
