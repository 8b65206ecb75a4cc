using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Bringing floras over the API: drafts, versions, refusals, SDD, and what can be asked of them.</summary>
public sealed class FloraApiTests(GartenServer server) : IClassFixture<GartenServer>
{
    private const string Characters =
        "id,name,kind,unit,states\nleaf-shape,leaf shape,categorical,,ov=ovate|el=elliptic\nleaf-length,leaf length,length,mm,\n";
    private const string Taxa =
        "name,rank,family,status,common_names,synonyms,phenology,look_alikes\nAlvena montis,species,Alvenaceae,native,hill alven,Brontia montis,flower apr–jun,Alvena palus\nAlvena palus,species,Alvenaceae,introduced,marsh alven,,flower sep,Alvena montis\n";
    private const string Matrix =
        "taxon,leaf-shape,leaf-length\nAlvena montis,ovate,6–9\nAlvena palus,usually elliptic | rarely ovate,20–40\n";

    private Task<(int Status, JsonNode Body)> PostAsync(string address, string name, params (string Field, string Content)[] files)
    {
        var form = new MultipartFormDataContent { { new StringContent(name), "name" } };
        foreach (var (field, content) in files)
        {
            if (field == "columns")
            {
                form.Add(new StringContent(content), field);
                continue;
            }
            var part = new ByteArrayContent(Encoding.UTF8.GetBytes(content));
            part.Headers.ContentType = new MediaTypeHeaderValue("text/csv");
            form.Add(part, field, $"{field}.{(field == "sdd" ? "xml" : "csv")}");
        }
        return server.PostTextAsync(address, form);
    }

    private Task<(int Status, JsonNode Body)> BringAsync(string name, params (string Field, string Content)[] files) =>
        PostAsync("/api/v1/floras", name, files);

    [Fact]
    public async Task ADraftStaysApartUntilItIsPublishedAndVersionsAreKept()
    {
        var (status, draft) = await BringAsync("Isle of tests", ("characters", Characters), ("matrix", Matrix), ("taxa", Taxa));
        Assert.Equal(200, status);
        Assert.Equal("""{"id":"isle-of-tests","version":1,"taxa":2,"characters":2,"problems":[]}""", draft.ToJsonString());
        var listed = (await server.GetAsync("/api/v1/floras")).AsArray().Single(f => (string)f!["id"]! == "isle-of-tests")!;
        Assert.Equal((0, 1), ((int)listed["version"]!, (int)listed["draft"]!["version"]!));
        // What was never published can be looked through.
        Assert.Equal("Isle of tests", (string)(await server.GetAsync("/api/v1/floras/isle-of-tests/pack"))["name"]!);
        var (_, published) = await server.PostTextAsync("/api/v1/floras/isle-of-tests/publish", new StringContent(""));
        Assert.Equal(1, (int)published["version"]!);
        var (_, second) = await BringAsync(
            "Isle of tests",
            ("characters", Characters),
            ("matrix", Matrix.Replace("6–9", "6–12", StringComparison.Ordinal))
        );
        Assert.Equal(2, (int)second["version"]!);
        Assert.Equal("6–9", Length(await server.GetAsync("/api/v1/floras/isle-of-tests/pack")));
        await server.PostTextAsync("/api/v1/floras/isle-of-tests/publish", new StringContent(""));
        Assert.Equal("6–12", Length(await server.GetAsync("/api/v1/floras/isle-of-tests/pack")));
        Assert.Equal("6–9", Length(await server.GetAsync("/api/v1/floras/isle-of-tests/pack?version=1")));
        Assert.Equal(
            404,
            (int)
                (
                    await server.Client.GetAsync(
                        new Uri("/api/v1/floras/isle-of-tests/pack?version=9", UriKind.Relative),
                        TestContext.Current.CancellationToken
                    )
                ).StatusCode
        );
        Assert.Equal(
            (404, "flora.no-draft"),
            Code(await server.PostTextAsync("/api/v1/floras/isle-of-tests/publish", new StringContent("")))
        );
    }

    private static string Length(JsonNode pack) =>
        (string)
            pack["table"]!["descriptions"]!.AsArray().Single(d => (string)d!["taxon"]! == "alvena-montis")!["characters"]!
                .AsArray()
                .Single(c => (string)c!["character"]! == "leaf-length")!["range"]!["text"]!;

    private static (int, string) Code((int Status, JsonNode Body) answer) => (answer.Status, (string)answer.Body["code"]!);

    [Fact]
    public async Task WhatCanNotBeKeptIsRefusedWithEveryProblemAndNothingIsStored()
    {
        var (status, body) = await BringAsync(
            "Refused",
            ("characters", Characters),
            ("matrix", "taxon,leaf-shape,tail\nA b,ovate,long\nA b,ovate,long\n")
        );
        Assert.Equal((422, "flora.unsound"), (status, (string)body["code"]!));
        Assert.Equal(
            ["character.unknown", "taxon.twice"],
            body["problems"]!.AsArray().Select(p => (string)p!["code"]!).Order(StringComparer.Ordinal)
        );
        var twice = body["problems"]!.AsArray().Single(p => (string)p!["code"]! == "taxon.twice")!;
        Assert.Equal(
            ("error", "matrix.csv", 3, "taxon"),
            ((string)twice["severity"]!, (string)twice["sheet"]!, (int)twice["row"]!, (string)twice["column"]!)
        );
        Assert.DoesNotContain((await server.GetAsync("/api/v1/floras")).AsArray(), f => (string)f!["id"]! == "refused");
        Assert.Equal((422, "flora.name"), Code(await BringAsync("", ("matrix", Matrix))));
        Assert.Equal((422, "flora.name"), Code(await BringAsync("!!", ("matrix", Matrix))));
        Assert.Equal((422, "flora.unsound"), Code(await BringAsync("Nothing")));
        Assert.Equal((415, "body.type"), Code(await server.PostAsync("/api/v1/floras", new JsonObject { ["name"] = "x" })));
        Assert.Equal(
            (422, "flora.unsound"),
            Code(await BringAsync("Attack", ("sdd", "<!DOCTYPE a [<!ENTITY b SYSTEM 'file:///etc/passwd'>]><Datasets>&b;</Datasets>")))
        );
    }

    [Fact]
    public async Task TheCheckSaysHowColumnsAreReadAndTakesOtherHeadings()
    {
        const string table = "species,Leaf length (cm),remarks\nA b,4–7,seen once\nC d,9,\n";
        var (_, plain) = await PostAsync("/api/v1/floras/check", "", ("matrix", table));
        Assert.Equal(
            """[{"heading":"Leaf length (cm)","readAs":"Leaf length","kind":"length","unit":"cm","states":0,"filled":2},{"heading":"remarks","readAs":"remarks","kind":"categorical","unit":"","states":1,"filled":1}]""",
            plain["columns"]!.ToJsonString()
        );
        var (_, renamed) = await PostAsync(
            "/api/v1/floras/check",
            "",
            ("matrix", table),
            ("columns", """{"Leaf length (cm)":"blade (mm)","remarks":""}""")
        );
        Assert.Equal(1, (int)renamed["characters"]!);
        Assert.Equal(["blade", ""], renamed["columns"]!.AsArray().Select(c => (string)c!["readAs"]!));
        Assert.Equal((422, "flora.columns"), Code(await PostAsync("/api/v1/floras/check", "", ("matrix", table), ("columns", "[1]"))));
    }

    [Fact]
    public async Task WhatGoesOutAsSddComesInAgain()
    {
        await BringAsync("Going out", ("characters", Characters), ("matrix", Matrix), ("taxa", Taxa));
        var sdd = await server.Client.GetStringAsync(
            new Uri("/api/v1/floras/going-out/sdd", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        var (status, back) = await BringAsync("Coming in", ("sdd", sdd));
        Assert.Equal((200, 2, 2, 0), (status, (int)back["taxa"]!, (int)back["characters"]!, back["problems"]!.AsArray().Count));
        Assert.Equal("6–9", Length(await server.GetAsync("/api/v1/floras/coming-in/pack")));
    }

    [Fact]
    public async Task TaxaAreFoundAndTheirPagesSayWhatSeparatesLookAlikes()
    {
        await BringAsync("Found", ("characters", Characters), ("matrix", Matrix), ("taxa", Taxa));
        async Task<string[]> Find(string query) =>
            [.. (await server.GetAsync($"/api/v1/floras/found/taxa?{query}"))["taxa"]!.AsArray().Select(t => (string)t!["taxon"]!["id"]!)];
        Assert.Equal(["alvena-montis"], await Find("find=al mo"));
        Assert.Equal(["alvena-montis"], await Find("find=brontia"));
        Assert.Equal(["alvena-palus"], await Find("find=palsu"));
        Assert.Equal(["alvena-palus"], await Find("origin=introduced"));
        Assert.Equal(
            422,
            (int)
                (
                    await server.Client.GetAsync(
                        new Uri("/api/v1/floras/found/taxa?origin=lost", UriKind.Relative),
                        TestContext.Current.CancellationToken
                    )
                ).StatusCode
        );
        Assert.Equal(["alvena-montis"], await Find("day=2026-05-01"));
        Assert.Empty(await Find("find=nothing"));
        var page = await server.GetAsync("/api/v1/floras/found/taxa/alvena-montis?day=2026-05-01");
        var alike = page["lookAlikes"]![0]!;
        Assert.Equal(("leaf-length", "6–9 mm", "20–40 mm"), ((string)alike["character"]!, (string)alike["own"]!, (string)alike["other"]!));
        Assert.Equal(
            ["alvena-montis", "alvena-palus"],
            (await server.GetAsync("/api/v1/floras/found/characters/leaf-shape"))["showing"]!
                .AsArray()
                .Select(s => (string)s!["taxa"]![0]!["id"]!)
        );
        string[] unknown =
        [
            "nowhere/taxa",
            "nowhere/taxa/x",
            "found/taxa/x",
            "found/characters/x",
            "nowhere/characters",
            "nowhere/pack",
            "nowhere/sdd",
        ];
        foreach (var address in unknown)
        {
            Assert.Equal(
                404,
                (int)
                    (
                        await server.Client.GetAsync(
                            new Uri($"/api/v1/floras/{address}", UriKind.Relative),
                            TestContext.Current.CancellationToken
                        )
                    ).StatusCode
            );
        }
        Assert.Equal(
            422,
            (int)
                (
                    await server.Client.GetAsync(
                        new Uri("/api/v1/floras/found/taxa?day=2026-02-30", UriKind.Relative),
                        TestContext.Current.CancellationToken
                    )
                ).StatusCode
        );
    }

    [Fact]
    public async Task ADraftThatWasThrownAwayComesBack()
    {
        await BringAsync("Thrown", ("matrix", Matrix));
        async Task<bool> Listed() => (await server.GetAsync("/api/v1/floras")).AsArray().Any(f => (string)f!["id"]! == "thrown");
        Assert.Equal(
            204,
            (int)
                (
                    await server.Client.DeleteAsync(
                        new Uri("/api/v1/floras/thrown/draft", UriKind.Relative),
                        TestContext.Current.CancellationToken
                    )
                ).StatusCode
        );
        Assert.False(await Listed());
        Assert.Equal(
            204,
            (int)
                (
                    await server.Client.PostAsync(
                        new Uri("/api/v1/floras/thrown/draft/restore", UriKind.Relative),
                        null,
                        TestContext.Current.CancellationToken
                    )
                ).StatusCode
        );
        Assert.True(await Listed());
    }
}
