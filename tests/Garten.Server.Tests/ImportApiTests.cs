using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Garten.Testing;
using Microsoft.AspNetCore.Mvc.Testing;
using Xunit;

namespace Garten.Server.Tests;

public sealed class ImportApiTests(GartenServer server) : IClassFixture<GartenServer>
{
    private static readonly JsonObject By = new() { ["id"] = Guid.CreateVersion7(), ["name"] = "Sunna Vik" };

    private static async Task<JsonNode> SentAsync(HttpClient client, string name, byte[] content, int status = 200)
    {
        var part = new ByteArrayContent(content);
        part.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var form = new MultipartFormDataContent { { part, "file", name } };
        var answer = await client.PostAsync(new Uri("/api/v1/imports", UriKind.Relative), form, TestContext.Current.CancellationToken);
        var body = await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        Assert.True((int)answer.StatusCode == status, $"{answer.StatusCode} {body}");
        return JsonNode.Parse(body)!;
    }

    private Task<JsonNode> SentAsync(string name, string content, int status = 200) =>
        SentAsync(server.Client, name, Encoding.UTF8.GetBytes(content), status);

    private static JsonObject Choices(JsonNode draft) =>
        new()
        {
            ["fields"] = new JsonArray([.. draft["columns"]!.AsArray().Select(c => c!["field"]!.DeepClone())]),
            ["recorder"] = By.DeepClone(),
        };

    private async Task<JsonNode> PreviewAsync(JsonNode draft, JsonObject choices)
    {
        var (status, body) = await server.PostAsync($"/api/v1/imports/{draft["id"]}/preview", choices.DeepClone());
        Assert.True(status == 200, body.ToJsonString());
        return body;
    }

    private static async Task<JsonNode> CommandAsync(HttpClient client, JsonObject command)
    {
        command["id"] = Guid.CreateVersion7();
        var answer = await client.PostAsJsonAsync(
            "/api/v1/commands",
            new JsonObject { ["commands"] = new JsonArray(command) },
            TestContext.Current.CancellationToken
        );
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken))!;
    }

    private static async Task TakeInAsync(HttpClient client, JsonNode draft, JsonObject choices)
    {
        var answer = await CommandAsync(
            client,
            new()
            {
                ["kind"] = "takeIn",
                ["importId"] = draft["id"]!.DeepClone(),
                ["choices"] = choices.DeepClone(),
                ["by"] = By.DeepClone(),
            }
        );
        Assert.True((string?)answer["results"]?[0]?["status"] == "applied", answer.ToJsonString());
    }

    private const string Notebook = """
        Site,Date,Species,Recorder,Abundance,Lat,Long,Notes
        Gull Moss,14/6/1998,Vellorna alba,A. Thrane; B. Holm,LF,57.41,-11.31,by the ditch
        Gull Moss,14/6/1998,"Brontia lenta",A. Thrane; B. Holm,o,"57,412",-11.312,
        Gull Moss,June 1999,Vellorna cf. nigra,A. Thrane,,57.41,-11.31,
        Gull Moss,31/2/1998,Alvena montis,A. Thrane,,,,
        Gull Moss,14/6/98,Alvena montis,A. Thrane,,,,
        Gull Moss,14/6/1998,Alvena palus,A. Thrane; B. Holm,12,-11.31,571.41,
        Gull Moss,14/6/1998,Vellorna alba,A. Thrane; B. Holm,LF,57.41,-11.31,by the ditch
        """;

    [Fact]
    public async Task ANotebookBecomesVisitsAndCanBeTakenBackAsAWhole()
    {
        var draft = await SentAsync("notebook.csv", Notebook);
        Assert.Equal(
            ["place", "date", "taxon", "recorder", "abundance", "latitude", "longitude", "note"],
            draft["columns"]!.AsArray().Select(c => (string)c!["field"]!)
        );
        var choices = Choices(draft);
        var preview = await PreviewAsync(draft, choices);
        Assert.Equal("The day comes first, since line 2 says 14/6/1998.", (string?)preview["orderIs"]);
        Assert.Equal(
            """{"read":7,"found":4,"plants":0,"absent":0,"empty":0,"leftOut":2,"chosenOut":0,"doubles":1}""",
            preview["tally"]!.ToJsonString()
        );
        Assert.Equal(2, (int)preview["visits"]!);
        Assert.Empty(preview["hinders"]!.AsArray());
        var problems = preview["problems"]!.AsArray().Select(p => $"{p!["line"]} {p["column"]} {p["code"]} {p["fate"]}").ToList();
        Assert.Equal(["5 Date date.unread leftOut", "6 Date date.century leftOut", "7 Lat position.unread takenWithout"], problems);

        await TakeInAsync(server.Client, draft, choices);
        var place = (await server.GetAsync("/api/v1/places")).AsArray().Single(p => (string?)p!["name"] == "Gull Moss")!;
        var visits = await VisitsAsync(place);
        Assert.Equal(["1999-06-01", "1998-06-14"], visits.Select(v => (string)v["date"]!));
        Assert.Equal("1999-06-30", (string?)visits[0]["until"]);
        Assert.Equal(["A. Thrane", "B. Holm"], visits[1]["people"]!.AsArray().Select(p => (string)p!["name"]!));
        Assert.Equal("Vellorna cf. nigra", (string?)visits[0]["lines"]![0]!["unnamed"]);
        var lines = visits[1]["lines"]!.AsArray();
        Assert.Contains(lines, l => (string?)l!["name"] == "Vellorna alba" && (string?)l["said"] == "locally frequent · by the ditch");
        Assert.Contains(lines, l =>
            (string?)l!["name"] == "Alvena palus" && l["latitude"] is null && (string?)l["said"] == "Abundance: 12"
        );
        // The same file again: all of it stands here.
        var same = await SentAsync("notebook.csv", Notebook);
        Assert.NotNull(same["takenBefore"]);
        Assert.Equal(4, (int)(await PreviewAsync(same, choices))["alreadyHere"]!);
        // And what says the same in another file too.
        var other = await SentAsync(
            "other.csv",
            "place;date;taxon\nGull Moss;1998-06-14;Brontia lenta\nGull Moss;1998-06-14;Brontia nova\n"
        );
        var seen = await PreviewAsync(other, Choices(other));
        Assert.Equal((2, 1), ((int)seen["tally"]!["found"]!, (int)seen["alreadyHere"]!));

        await CommandAsync(
            server.Client,
            new()
            {
                ["kind"] = "takeBack",
                ["importId"] = draft["id"]!.DeepClone(),
                ["reason"] = "wrong notebook",
                ["by"] = By.DeepClone(),
            }
        );
        Assert.Empty(await VisitsAsync(place));
        Assert.DoesNotContain("Vellorna alba", (await server.GetAsync("/api/v1/records")).ToJsonString(), StringComparison.Ordinal);
        Assert.DoesNotContain("Gull Moss", (await server.GetAsync("/api/v1/places")).ToJsonString(), StringComparison.Ordinal);
        // Taken in again with another decision it stands there so.
        var third = await SentAsync("notebook.csv", Notebook);
        Assert.Null(third["takenBefore"]);
        var decided = Choices(third);
        decided["names"] = new JsonArray(new JsonObject { ["given"] = "Vellorna cf. nigra", ["meant"] = "Vellorna nigra" });
        await TakeInAsync(server.Client, third, decided);
        var again = await VisitsAsync(place);
        Assert.Equal(visits.Select(v => (string)v["id"]!), again.Select(v => (string)v["id"]!));
        Assert.Equal("Vellorna nigra", (string?)again[0]["lines"]!.AsArray().Single(l => !(bool)l!["isWithdrawn"]!)!["name"]);
        Assert.Equal(lines.Count, again[1]["lines"]!.AsArray().Count(l => !(bool)l!["isWithdrawn"]!));
        await CommandAsync(
            server.Client,
            new()
            {
                ["kind"] = "takeBack",
                ["importId"] = third["id"]!.DeepClone(),
                ["reason"] = "",
                ["by"] = By.DeepClone(),
            }
        );
        Assert.Empty(await VisitsAsync(place));
        // What the lists read is the same where it is made anew of the facts.
        Assert.DoesNotContain("Brontia lenta", await NamesAsync(), StringComparer.Ordinal);
        var before = await NamesAsync();
        await using (var database = Npgsql.NpgsqlDataSource.Create(server.ConnectionString))
        await using (var command = database.CreateCommand("select rebuild_lists()"))
            await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
        Assert.Equal(before, await NamesAsync());
        var list = (await server.GetAsync("/api/v1/imports")).AsArray();
        Assert.Equal("wrong notebook", (string?)list.Single(i => (string?)i!["id"] == (string?)draft["id"])!["reason"]);
    }

    private async Task<List<string>> NamesAsync() =>
        [.. (await server.GetAsync("/api/v1/records"))["names"]!.AsArray().Select(n => (string)n!)];

    private async Task<List<JsonNode>> VisitsAsync(JsonNode place) =>
        [.. (await server.GetAsync($"/api/v1/site-visits/whole?place={place["id"]}")).AsArray().Select(v => v!)];

    [Theory]
    [InlineData("", "file.missing")]
    [InlineData("PK\u0003\u0004 broken", "file.damaged")]
    [InlineData("a\0b,c", "file.binary")]
    public async Task WhatIsNoTableIsSaidSo(string content, string code) =>
        Assert.Equal(code, (string?)(await SentAsync("x", content, 422))["code"]);

    [Theory]
    [InlineData("csv", "text/csv")]
    [InlineData("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet")]
    [InlineData("geojson", "application/geo+json")]
    [InlineData("gpx", "application/gpx+xml")]
    [InlineData("kml", "application/vnd.google-earth.kml+xml")]
    public async Task WhatGoesOutInAnyFormComesInAgain(string ending, string type)
    {
        var stop = TestContext.Current.CancellationToken;
        var draft = await SentAsync(
            "moor.csv",
            $"place,date,taxon,recorder,lat,lon\nMoor {ending},2020-06-01,Vellorna {ending}alba,A. Thrane,57.51,-11.41\n"
                + $"Moor {ending},2020-06-02,Vellorna {ending}nigra,A. Thrane,57.511,-11.412\n"
        );
        await TakeInAsync(server.Client, draft, Choices(draft));
        var place = (await server.GetAsync("/api/v1/places")).AsArray().Single(p => (string?)p!["name"] == $"Moor {ending}")!;
        var answer = await server.Client.GetAsync(
            new Uri($"/api/v1/records.{ending}?place={place["id"]}&of=lists", UriKind.Relative),
            stop
        );
        Assert.Equal(type, answer.Content.Headers.ContentType?.MediaType);
        var again = await SentAsync(server.Client, $"out.{ending}", await answer.Content.ReadAsByteArrayAsync(stop));
        var preview = await PreviewAsync(again, Choices(again));
        Assert.Equal(2, (int)preview["alreadyHere"]!);
        Assert.Equal(("2020-06-01", "2020-06-02"), ((string?)preview["from"], (string?)preview["to"]));
        Assert.Empty(preview["problems"]!.AsArray());
        var refused = await server.Client.GetAsync(new Uri($"/api/v1/records.{ending}?of=stones", UriKind.Relative), stop);
        Assert.Equal(422, (int)refused.StatusCode);
    }

    [Fact]
    public async Task WhatIsntDecidedIsntTakenIn()
    {
        var draft = await SentAsync("list.txt", "Vellorna alba\nBrontia lenta\n");
        Assert.Equal("list of names", (string?)draft["kind"]);
        var choices = Choices(draft);
        var preview = await PreviewAsync(draft, choices);
        Assert.Equal(["date.missing"], preview["counts"]!.AsArray().Select(c => (string)c!["code"]!));
        var answer = await CommandAsync(
            server.Client,
            new()
            {
                ["kind"] = "takeIn",
                ["importId"] = draft["id"]!.DeepClone(),
                ["choices"] = choices,
                ["by"] = By.DeepClone(),
            }
        );
        Assert.Equal("import.hindered", (string?)answer["code"]);
        var twoWays = await SentAsync("two.csv", "place,date,taxon,lat,lon\nHigh Moss,3/4/2021,Vellorna alba,57.4,-11.3\n");
        var asked = await PreviewAsync(twoWays, Choices(twoWays));
        Assert.Equal("date.two-ways", (string?)asked["problems"]![0]!["code"]);
        var said = Choices(twoWays);
        said["order"] = "monthFirst";
        Assert.Equal("2021-03-04", (string?)(await PreviewAsync(twoWays, said))["from"]);
    }

    [Fact]
    public async Task TorvanesArchiveInAnEmptyGartenGivesTheSameRecords()
    {
        var stop = TestContext.Current.CancellationToken;
        await using var first = await Databases.TorvaneAsync(Today);
        await using var second = await Databases.EmptyAsync();
        await using var torvane = Factory(first);
        using var from = torvane.CreateClient();
        var exact = await from.GetByteArrayAsync(new Uri("/api/v1/exact/archive.zip", UriKind.Relative), stop);
        await using var empty = Factory(second);
        using var to = empty.CreateClient();
        var draft = await SentAsync(to, "torvane.zip", exact);
        await TakeInAsync(to, draft, Choices(draft));
        var here = await StrictArchive.ReadAsync(await to.GetByteArrayAsync(new Uri("/api/v1/exact/archive.zip", UriKind.Relative), stop));
        var there = await StrictArchive.ReadAsync(exact);
        // Plots belong to a survey, which an archive doesn't tell: what was found in them stands in the lists of their visits.
        var plots = there.Tables["event"].Where(e => e["parentEventID"].Length > 0).Select(e => e["eventID"]).ToHashSet();
        var inPlots = there.Tables["occurrence"].Where(o => plots.Contains(o["eventID"])).Select(o => o["occurrenceID"]).ToHashSet();
        Assert.NotEmpty(inPlots);
        // A taxon in several layers of a plot is one record of its list.
        var labels = there.Tables["event"].ToDictionary(e => e["eventID"], e => e["locality"].Split(", ")[^1]);
        Assert.Subset(
            here.Tables["occurrence"].Select(o => (o["verbatimLocality"], o["scientificName"])).ToHashSet(),
            there
                .Tables["occurrence"]
                .Where(o => plots.Contains(o["eventID"]))
                .Select(o => (labels[o["eventID"]], o["scientificName"]))
                .ToHashSet()
        );
        foreach (var table in new[] { "occurrence", "event", "humboldt" })
        {
            var (wanted, found) = (Rows(there, table), Rows(here, table));
            var unlike = wanted
                .Keys.Union(found.Keys)
                .Where(id =>
                    !plots.Contains(id)
                    && !inPlots.Contains(id)
                    && found.GetValueOrDefault(id)?.GetValueOrDefault("verbatimLocality") is not ['p', 'l', 'o', 't', ' ', ..]
                )
                .SelectMany(id => Unlike(wanted.GetValueOrDefault(id), found.GetValueOrDefault(id)).Select(u => $"{id}: {u}"))
                .ToList();
            Assert.True(unlike.Count == 0, $"{table}: {unlike.Count} of {wanted.Count}:\n{string.Join('\n', unlike.Take(25))}");
        }
    }

    [Fact]
    public async Task ThePublicArchiveComesInCoarsened()
    {
        var stop = TestContext.Current.CancellationToken;
        await using var first = await Databases.TorvaneAsync(Today);
        await using var torvane = Factory(first);
        using var from = torvane.CreateClient();
        var draft = await SentAsync(
            server.Client,
            "public.zip",
            await from.GetByteArrayAsync(new Uri("/api/v1/archive.zip", UriKind.Relative), stop)
        );
        var choices = Choices(draft);
        var preview = await PreviewAsync(draft, choices);
        Assert.True((int)preview["tally"]!["leftOut"]! == 0, preview["problems"]!.ToJsonString());
        await TakeInAsync(server.Client, draft, choices);
        // What was told of a grid cell and a year stands there so, and nowhere else.
        var cell = (await server.GetAsync("/api/v1/places"))
            .AsArray()
            .First(p => ((string)p!["name"]!).StartsWith("grid cell", StringComparison.Ordinal))!;
        var visits = await VisitsAsync(cell);
        Assert.NotEmpty(visits);
        Assert.All(visits, v => Assert.Equal(((string)v["date"]!)[..4] + "-01-01", (string)v["date"]!));
        await CommandAsync(
            server.Client,
            new()
            {
                ["kind"] = "takeBack",
                ["importId"] = draft["id"]!.DeepClone(),
                ["reason"] = "",
                ["by"] = By.DeepClone(),
            }
        );
    }

    // What is said of a taxon is its flora's, which isn't in the empty Garten.
    private static readonly HashSet<string> OfTheFlora = ["family", "taxonRank", "vernacularName"];

    private static Dictionary<string, IReadOnlyDictionary<string, string>> Rows(StrictArchive archive, string table) =>
        archive.Tables[table].ToDictionary(r => r.GetValueOrDefault(table == "occurrence" ? "occurrenceID" : "eventID")!);

    private static IEnumerable<string> Unlike(IReadOnlyDictionary<string, string>? wanted, IReadOnlyDictionary<string, string>? found) =>
        wanted is null ? [$"there is this too: {string.Join(" ¦ ", found!.Values)}"]
        : found is null ? [$"isn't there: {string.Join(" ¦ ", wanted.Values)}"]
        : wanted.Where(c => !OfTheFlora.Contains(c.Key) && found[c.Key] != c.Value).Select(c => $"{c.Key} “{c.Value}” is “{found[c.Key]}”");

    private const string Today = "2026-06-10";

    private static WebApplicationFactory<Program> Factory(TestDatabase database) =>
        new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
            b.UseSetting("GARTEN_DATABASE", database.ConnectionString).UseSetting("GARTEN_TODAY", Today).UseSetting("GARTEN_DEMO", "")
        );
}
