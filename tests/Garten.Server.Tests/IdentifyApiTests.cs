using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Sifting and contrast over the API, as a script would use them, and what can't be used.</summary>
public sealed class IdentifyApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private const string Characters =
        "id,name,organ,kind,unit,states,phenophases\nleaf-margin,margin of the leaf,leaf,categorical,,entire=entire|toothed=toothed,\nbracts,bracts,inflorescence,categorical,,short=short|long=overtopping,flower\nleaf-length,length of the leaf,leaf,length,mm,,\n";
    private const string Taxa =
        "name,rank,family,status,habitats,cells,phenology,cautions\nAlvena montis,species,Alvenaceae,native,heath,B2,flower apr–jun,\nAlvena palus,species,Alvenaceae,native,marsh,C3,flower apr–jun,poisonous\nBrontia lenta,species,Brontiaceae,native,heath,B2,flower apr–jun,\nBrontia gemina,species,Brontiaceae,native,heath,B2,flower apr–jun,\n";
    private const string Matrix =
        "taxon,leaf-margin,bracts,leaf-length\nAlvena montis,entire,short,20–40\nAlvena palus,toothed,short,60–90\nBrontia lenta,entire,overtopping,200–300\nBrontia gemina,entire,overtopping,200–300\n";

    // The first test brings the flora; the others find it there.
    public async ValueTask InitializeAsync()
    {
        if ((await server.GetAsync("/api/v1/floras")).AsArray().Any(f => (string)f!["id"]! == "sift-isle"))
            return;
        var form = new MultipartFormDataContent { { new StringContent("Sift isle"), "name" } };
        foreach (var (field, content) in new[] { ("characters", Characters), ("taxa", Taxa), ("matrix", Matrix) })
        {
            var part = new ByteArrayContent(Encoding.UTF8.GetBytes(content));
            part.Headers.ContentType = new MediaTypeHeaderValue("text/csv");
            form.Add(part, field, $"{field}.csv");
        }
        var (status, body) = await server.PostTextAsync("/api/v1/floras", form);
        Assert.True(status == 200, body.ToJsonString());
        Assert.Equal("[]", body["problems"]!.ToJsonString());
        await server.PostTextAsync("/api/v1/floras/sift-isle/publish", new StringContent(""));
        var (_, place) = await server.SendAsync(
            (JsonObject)
                JsonNode.Parse(
                    """{"kind":"savePlace","id":"01900000-0000-7000-8000-0000000000a1","placeId":"01900000-0000-7000-8000-0000000000a2","name":"Harrow Heath","locality":"","latitude":57,"longitude":-11,"uncertaintyMetres":100,"caution":"","cell":"B2","elevationMetres":120,"habitats":["heath"]}"""
                )!
        );
        Assert.Equal("applied", (string)place["results"]![0]!["status"]!);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<(int Status, JsonNode Body)> AskAsync(string what, string json) =>
        await server.PostAsync($"/api/v1/identify/{what}", JsonNode.Parse(json)!);

    private static string[] Names(JsonNode list, string field) => [.. list.AsArray().Select(n => (string)n![field]!)];

    [Fact]
    public async Task AListIsSiftedAndTheNextLookNamed()
    {
        var (status, body) = await AskAsync(
            "sift",
            """{"floraId":"sift-isle","observations":[{"character":"leaf-margin","states":["entire"]},{"character":"leaf-length","values":[2.4,3.1],"unit":"cm"}],"options":{"date":"2026-05-10"}}"""
        );
        Assert.Equal(200, status);
        Assert.Equal("alvena-montis", (string)body["standing"]![0]!["taxon"]!);
        Assert.Equal(1, body["standing"]!.AsArray().Sum(c => (double)c!["probability"]!), 9);
        Assert.Equal("bracts", (string)body["tellingLooks"]![0]!["character"]!);
        var split = body["tellingLooks"]![0]!["split"]!.AsArray();
        Assert.Equal(["overtopping", "short"], Names(split, "outcome").Order(StringComparer.Ordinal));
        Assert.Equal(["27.5 mm (mean of 2, 24 mm to 3.1 cm)", "entire"], Names(body["sheet"]!, "seen").Order(StringComparer.Ordinal));
        Assert.Equal(["brontia-gemina", "brontia-lenta"], body["alike"]![0]!.AsArray().Select(n => (string)n!));
        // In January there are no bracts: they are named with their time.
        (_, body) = await AskAsync(
            "sift",
            """{"floraId":"sift-isle","observations":[{"character":"leaf-margin","states":["entire"]}],"options":{"date":"2026-01-10","tools":[]}}"""
        );
        Assert.Contains("bracts", Names(body["later"]!, "character"));
        // Nothing seen, nothing given: an answer all the same.
        (status, body) = await AskAsync("sift", """{"floraId":"sift-isle"}""");
        Assert.Equal((200, "nothing", 5), (status, (string)body["call"]!, body["standing"]!.AsArray().Count));
    }

    [Fact]
    public async Task StrictPlausibleAndNarrowed()
    {
        var (_, strict) = await AskAsync(
            "sift",
            """{"floraId":"sift-isle","observations":[{"character":"leaf-margin","states":["toothed"]},{"character":"bracts","states":["short"]}],"options":{"tolerance":0}}"""
        );
        Assert.Equal(["alvena-palus", "not-on-this-list"], Names(strict["standing"]!, "taxon"));
        // The first of the standing as it is seen says why, though no reasons are asked for; of the others those that are.
        var (_, first) = await AskAsync(
            "sift",
            """{"floraId":"sift-isle","observations":[{"character":"leaf-margin","states":["entire"]},{"character":"bracts","states":["short"]}],"options":{"tolerance":2,"why":["alvena-palus"]}}"""
        );
        var why = first["standing"]!.AsArray().Where(c => c!["reasons"]!.AsArray().Count > 0).Select(c => (string)c!["taxon"]!).ToList();
        Assert.Contains((string)first["standing"]![0]!["taxon"]!, why);
        Assert.Contains("alvena-palus", why);
        var (_, plausible) = await AskAsync("sift", """{"floraId":"sift-isle","options":{"prior":"plausible","place":"Harrow Heath"}}""");
        var palus = plausible["standing"]!.AsArray().Single(c => (string)c!["taxon"]! == "alvena-palus")!;
        Assert.True((double)palus["probability"]! < (double)palus["other"]!);
        Assert.Equal(2, palus["priorReasons"]!.AsArray().Count);
        var (_, narrowed) = await AskAsync(
            "sift",
            """{"floraId":"sift-isle","options":{"place":"C3","narrowing":{"recordedHere":true}}}"""
        );
        Assert.Equal((1, 4), ((int)narrowed["listed"]!, (int)narrowed["all"]!));
    }

    [Fact]
    public async Task TaxaAreHeldAgainstEachOther()
    {
        var (status, body) = await AskAsync(
            "contrast",
            """{"floraId":"sift-isle","taxa":["alvena-montis","alvena-palus","brontia-lenta"],"date":"2026-05-10","place":"Harrow Heath","observations":[{"character":"bracts","states":["short"]}]}"""
        );
        Assert.Equal(200, status);
        // Every pair by the length alone; the others two of three each, and cheaper together than nothing.
        Assert.Equal("leaf-length", (string)body["rows"]![0]!["character"]!);
        Assert.Equal(
            ["alvena-montis", "alvena-palus"],
            body["rows"]!.AsArray().Single(r => (string)r!["character"]! == "bracts")!["speaksFor"]!.AsArray().Select(n => (string)n!)
        );
        Assert.Equal("""["leaf-length"]""", body["smallest"]!["characters"]!.ToJsonString());
        Assert.Equal(3, body["pairs"]!.AsArray().Count);
        (_, body) = await AskAsync("contrast", """{"floraId":"sift-isle","taxa":["brontia-lenta","brontia-gemina"]}""");
        Assert.Equal(("[]", 1), (body["rows"]!.ToJsonString(), (int)body["smallest"]!["unseparated"]!));
    }

    [Fact]
    public async Task GiveawaysKinAndDescriptions()
    {
        var (_, whole) = await AskAsync("giveaways", """{"floraId":"sift-isle"}""");
        Assert.Equal(["margin of the leaf: toothed"], Names(whole["giveaways"]!, "text"));
        var (_, here) = await AskAsync(
            "giveaways",
            """{"floraId":"sift-isle","at":{"cell":"B2"},"narrowing":{"recordedHere":true},"date":"2026-05-10"}"""
        );
        Assert.Equal((3, "Alvena montis"), ((int)here["listed"]!, Assert.Single(Names(here["giveaways"]!, "name"))));
        var (_, near) = await AskAsync("near", """{"floraId":"sift-isle","taxon":"brontia-lenta"}""");
        Assert.Equal("brontia-gemina", (string)near["taxa"]![0]!);
        var (_, described) = await AskAsync("describe", """{"floraId":"sift-isle","taxa":["alvena-palus","nobody"]}""");
        Assert.Equal(("Alvena palus", 3), ((string)described[0]!["taxon"]!["name"]!, described[0]!["description"]!.AsArray().Count));
        Assert.Single(described.AsArray());
    }

    [Theory]
    [InlineData("sift", """{"floraId":"nowhere"}""", 404, "floraId", "")]
    [InlineData("sift", """{}""", 400, "", "")]
    [InlineData(
        "sift",
        """{"floraId":"sift-isle","observations":[{"character":"scent","states":["sharp"]}]}""",
        422,
        "observations[0].character",
        "There is no character “scent”."
    )]
    [InlineData(
        "sift",
        """{"floraId":"sift-isle","observations":[{"character":"leaf-margin","states":["hairy"]}]}""",
        422,
        "observations[0]",
        ""
    )]
    [InlineData(
        "sift",
        """{"floraId":"sift-isle","observations":[{"character":"leaf-length","values":[-3]}]}""",
        422,
        "observations[0]",
        ""
    )]
    [InlineData(
        "sift",
        """{"floraId":"sift-isle","observations":[{"character":"leaf-length","values":[3],"unit":"kg"}]}""",
        422,
        "observations[0].unit",
        "“kg” is no unit of length of the leaf."
    )]
    [InlineData(
        "sift",
        """{"floraId":"sift-isle","observations":[null]}""",
        400,
        "$.observations[0]",
        "There is nothing at $.observations[0]: leave it out of the list."
    )]
    [InlineData("sift", """{"floraId":"sift-isle","options":{"date":"31 May"}}""", 422, "options.date", "")]
    [InlineData("sift", """{"floraId":"sift-isle","options":{"tolerance":-1}}""", 422, "options.tolerance", "A tolerance is 0 or more.")]
    [InlineData("sift", """{"floraId":"sift-isle","options":{"place":"the moon"}}""", 422, "options.place", "")]
    [InlineData("sift", """{"floraId":"sift-isle","options":{"prior":"certain"}}""", 400, "", "")]
    [InlineData(
        "contrast",
        """{"floraId":"sift-isle","taxa":["alvena-montis"]}""",
        422,
        "taxa",
        "2 to 8 taxa can be compared; these are 1."
    )]
    [InlineData("contrast", """{"floraId":"sift-isle"}""", 400, "", "")]
    [InlineData(
        "contrast",
        """{"floraId":"sift-isle","taxa":["alvena-montis","nobody"]}""",
        422,
        "taxa",
        "The flora doesn’t describe “nobody”."
    )]
    [InlineData("near", """{"floraId":"sift-isle","taxon":"nobody"}""", 422, "taxon", "The flora doesn’t describe “nobody”.")]
    public async Task WhatCannotBeUsedIsSaidAtItsPlace(string what, string json, int status, string field, string detail)
    {
        var (answered, body) = await AskAsync(what, json);
        Assert.Equal(status, answered);
        if (field.Length > 0)
            Assert.Equal(field, (string)body["field"]!);
        if (detail.Length > 0)
            Assert.Equal(detail, (string)body["detail"]!);
    }

    [Fact]
    public async Task LooksThatContradictEachOtherAreAnswered()
    {
        var (status, body) = await AskAsync(
            "sift",
            """{"floraId":"sift-isle","observations":[{"character":"leaf-margin","states":["entire"]},{"character":"leaf-margin","states":["toothed"]},{"character":"bracts","states":["short"]},{"character":"bracts","states":["long"]},{"character":"leaf-length","values":[900]}]}"""
        );
        Assert.Equal(200, status);
        Assert.Equal("noneFits", (string)body["call"]!);
        Assert.Equal("not-on-this-list", (string)body["standing"]![0]!["taxon"]!);
    }

    [Fact]
    public async Task APlantIsKeptByNameWithoutAKey()
    {
        const string command =
            """{"kind":"recordDetermination","id":"ID","determinationId":"DET","occurrenceId":"01900000-0000-7000-8000-0000000000b3","plantId":"01900000-0000-7000-8000-0000000000b4","plantLabel":"","placeId":"01900000-0000-7000-8000-0000000000a2","eventDate":"2026-05-10","recorder":{"id":"01900000-0000-7000-8000-0000000000b5","name":"Runa Velt"},"startKey":"","answers":[],"names":NAMES,"note":"","observations":[],"hand":[]}""";
        Task<(int Status, JsonNode Body)> Keep(int n, string names) =>
            server.SendAsync(
                (JsonObject)
                    JsonNode.Parse(
                        command
                            .Replace("\"ID\"", $"\"01900000-0000-7000-8000-0000000000c{n}\"", StringComparison.Ordinal)
                            .Replace("DET", $"01900000-0000-7000-8000-0000000000d{n}", StringComparison.Ordinal)
                            .Replace("NAMES", names, StringComparison.Ordinal)
                    )!
            );
        Assert.Equal("names", (string)(await Keep(1, "[]")).Body["field"]!);
        Assert.Equal("names.twice", (string)(await Keep(2, """["Alvena montis","Alvena montis"]""")).Body["code"]!);
        Assert.Equal("applied", (string)(await Keep(3, """["Alvena montis","Alvena palus"]""")).Body["results"]![0]!["status"]!);
        var plant = await server.GetAsync("/api/v1/plants/01900000-0000-7000-8000-0000000000b4");
        Assert.Equal(
            ("Alvena", "", "[]"),
            (
                (string)plant["determinations"]![0]!["name"]!,
                (string)plant["determinations"]![0]!["startKeyTitle"]!,
                plant["determinations"]![0]!["steps"]!.ToJsonString()
            )
        );
        var csv = await server.Client.GetStringAsync(
            new Uri("/api/v1/records.csv", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        Assert.Contains("By sifting.", csv, StringComparison.Ordinal);
    }

    [Fact]
    public async Task ANameIsConfirmedWithChecksGradeAndWhatToReport()
    {
        const string sheet =
            """[{"character":"leaf-margin","states":["entire"],"date":"2026-05-10"},{"character":"bracts","states":["short"],"date":"2026-05-10"},{"character":"leaf-length","values":[27,31],"date":"2026-05-10"}]""";
        var (status, body) = await AskAsync(
            "confirm",
            $$"""{"floraId":"sift-isle","taxon":"Alvena montis","observations":{{sheet}},"place":"Harrow Heath","date":"2026-05-10"}"""
        );
        Assert.Equal(200, status);
        Assert.Equal("alvena-montis", (string)body["taxon"]!);
        Assert.Equal(
            [
                "conflicts",
                "coverage",
                "diagnostics",
                "elevation",
                "habitat",
                "lead",
                "lookAlikes",
                "material",
                "origin",
                "presence",
                "season",
            ],
            Names(body["checks"]!, "kind").Order(StringComparer.Ordinal)
        );
        Assert.Equal("pass", (string)body["checks"]!.AsArray().Single(c => (string)c!["kind"]! == "presence")!["verdict"]!);
        Assert.Contains((string)body["grade"]!, new[] { "tentative", "reasoned", "corroborated", "confirmed" });
        Assert.NotEmpty((string)body["reportAs"]!["reason"]!);
        // At another place the same sheet is a concern, which can be explained.
        (_, body) = await AskAsync(
            "confirm",
            $$"""{"floraId":"sift-isle","taxon":"alvena-montis","observations":{{sheet}},"place":"D4","date":"2026-05-10","explanations":[{"kind":"presence","text":"Never visited before."}]}"""
        );
        var presence = body["checks"]!.AsArray().Single(c => (string)c!["kind"]! == "presence")!;
        Assert.Equal(("concern", "Never visited before."), ((string)presence["verdict"]!, (string)presence["explained"]!));
    }

    [Theory]
    [InlineData("""{"floraId":"sift-isle","taxon":"nobody"}""", 422, "taxon")]
    [InlineData("""{"floraId":"sift-isle","taxon":"alvena-montis","rules":"none"}""", 422, "rules")]
    [InlineData("""{"floraId":"sift-isle","taxon":"alvena-montis","date":"2026-02-30"}""", 422, "date")]
    [InlineData("""{"floraId":"sift-isle","taxon":"alvena-montis","place":"Nowhere"}""", 422, "place")]
    [InlineData(
        """{"floraId":"sift-isle","taxon":"alvena-montis","observations":[{"character":"tail"}]}""",
        422,
        "observations[0].character"
    )]
    [InlineData(
        """{"floraId":"sift-isle","taxon":"alvena-montis","ownRules":{"id":"own","name":"Own","text":"","rules":[{"grade":"reasoned","organs":40},{"grade":"corroborated"},{"grade":"confirmed"}]}}""",
        422,
        "ownRules.rules[0].organs"
    )]
    [InlineData("""{"floraId":"atlantis","taxon":"alvena-montis"}""", 404, "floraId")]
    public async Task WhatCanNotBeConfirmedIsSaidAtItsPlace(string request, int expected, string field)
    {
        var (status, body) = await AskAsync("confirm", request);
        Assert.Equal((expected, field), (status, (string)body["field"]!));
    }

    [Fact]
    public async Task TheFewestVisitsArePlanned()
    {
        var (status, body) = await server.PostAsync(
            "/api/v1/seasons/visits",
            JsonNode.Parse(
                """{"from":"2026-11-25","needs":[{"id":"twig","place":"wood","windows":[{"from":330,"to":60}]},{"id":"fruit","place":"wood","windows":[{"from":200,"to":240},{"from":340,"to":20}]},{"id":"flower","place":"moor","windows":[{"from":130,"to":150}]},{"id":"chromosomes","place":"moor","windows":[]}]}"""
            )!
        );
        Assert.Equal(200, status);
        Assert.True((bool)body["optimal"]!);
        Assert.Equal(["chromosomes"], body["unanswerable"]!.AsArray().Select(n => (string)n!));
        Assert.Equal(["wood", "moor"], Names(body["visits"]!, "place"));
        Assert.Equal(["fruit", "twig"], body["visits"]![0]!["needs"]!.AsArray().Select(n => (string)n!).Order(StringComparer.Ordinal));
        Assert.Equal((140, "2027-05-20"), ((int)body["visits"]![1]!["day"]!, (string)body["visits"]![1]!["date"]!));
        (status, body) = await server.PostAsync(
            "/api/v1/seasons/visits",
            JsonNode.Parse("""{"from":"2026-11-25","needs":[{"id":"a","place":"wood","windows":[{"from":0,"to":0}]}]}""")!
        );
        Assert.Equal((422, "needs[0].windows[0].from"), (status, (string)body["field"]!));
    }

    [Fact]
    public async Task TheGradeIsWorkedOutAgainWhereItIsKept()
    {
        JsonObject Command(string name, string taxon) =>
            (JsonObject)
                JsonNode.Parse(
                    $$"""
                    {"kind":"recordDetermination","id":"{{Guid.CreateVersion7()}}","determinationId":"{{Guid.CreateVersion7()}}","occurrenceId":"{{Guid.CreateVersion7()}}","plantId":"{{Guid.CreateVersion7()}}","plantLabel":"","placeId":"01900000-0000-7000-8000-0000000000a2",
                    "eventDate":"2026-05-10","recorder":{"id":"01900000-0000-7000-8000-0000000000b1","name":"Runa Velt"},"startKey":"","answers":[],"names":["{{name}}"],"note":"","confirming":{"floraId":"sift-isle","taxon":"{{taxon}}","rules":"quick-list"} }
                    """
                )!;
        var good = Command("Alvena montis", "alvena-montis");
        var (_, sent) = await server.SendAsync(good);
        Assert.Equal("applied", (string)sent["results"]![0]!["status"]!);
        var plant = await server.GetAsync($"/api/v1/plants/{(string)good["plantId"]!}");
        // Without a look it is a name and no more, whatever the device thinks.
        Assert.Equal("tentative", (string)plant["determinations"]![0]!["confirmation"]!["grade"]!);
        var line = (await server.GetAsync("/api/v1/records?taxon=Alvena%20montis"))["records"]!
            .AsArray()
            .First(r => (string)r!["plantId"]! == (string)good["plantId"]!)!;
        Assert.Equal("tentative", (string)line["grade"]!);
        // What it lacks is open, and goes into the calendar.
        var open = (await server.GetAsync("/api/v1/seasons/open"))
            .AsArray()
            .Single(p => (string)p!["plantId"]! == (string)good["plantId"]!)!;
        Assert.Equal(
            ("Harrow Heath", "Alvena montis", "tentative"),
            ((string)open["placeName"]!, (string)open["name"]!, (string)open["grade"]!)
        );
        Assert.NotEmpty(open["needs"]!.AsArray());
        var calendar = await server.Client.GetStringAsync(
            new Uri("/api/v1/seasons/visits.ics?from=2026-05-10", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        Assert.Contains("LOCATION:Harrow Heath\r\n", calendar, StringComparison.Ordinal);
        // A name that the evidence here doesn't report, or that can't be checked here, is kept without a grade, and with that as a
        // question.
        foreach (
            var (odd, says) in new[]
            {
                (Command("Alvena palus", "alvena-montis"), "this is Alvena montis"),
                (Command("Alvena montis", "nobody"), "can't be worked out here"),
            }
        )
        {
            var (status, _) = await server.SendAsync(odd);
            Assert.Equal(200, status);
            var kept = (await server.GetAsync($"/api/v1/plants/{(string)odd["plantId"]!}"))["determinations"]![0]!;
            Assert.Null(kept["confirmation"]);
            Assert.Contains(says, (string)kept["questions"]![0]!["says"]!, StringComparison.Ordinal);
        }
    }
}
