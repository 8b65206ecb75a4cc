using System.IO.Compression;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Garten.Testing;
using Microsoft.AspNetCore.Mvc.Testing;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Whatever day the demo is loaded on, its two survey years hold one of each kind that a botanist meets.</summary>
public sealed class DemoTests
{
    [Theory]
    [InlineData("2026-02-03")]
    [InlineData("2026-08-20")]
    public async Task TwoSurveyYearsHoldOneOfEachKind(string today)
    {
        var stop = TestContext.Current.CancellationToken;
        await using var database = await TestDatabase.CreateAsync();
        await using var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
            b.UseSetting("GARTEN_DATABASE", database.ConnectionString)
                .UseSetting("GARTEN_TODAY", today)
                .UseSetting("GARTEN_DEMO", Path.Combine(Repository.Root, "demo"))
        );
        using var client = factory.CreateClient();
        async Task<JsonArray> ListAsync(string address) => (await client.GetFromJsonAsync<JsonNode>("/api/v1/" + address, stop))!.AsArray();

        var plants = new List<JsonNode>();
        foreach (var line in await ListAsync("plants"))
            plants.Add((await client.GetFromJsonAsync<JsonNode>($"/api/v1/plants/{line!["id"]}", stop))!);
        static string Season(JsonNode day) =>
            $"{((string)day!)[..4]}/{(int.Parse(((string)day!)[5..7], System.Globalization.CultureInfo.InvariantCulture) - 1) / 3}";
        Assert.True(
            plants.Count(p =>
                p["taggedOn"] is not null && p["observations"]!.AsArray().Select(o => Season(o!["date"]!)).Distinct().Count() >= 2
            ) >= 60,
            "60 tagged plants with evidence of two seasons"
        );
        Assert.True(
            plants
                .SelectMany(p =>
                    p["visits"]!
                        .AsArray()
                        .Concat(p["observations"]!.AsArray())
                        .Select(v => ((string)p["place"]!["id"]!, (string)v!["date"]!))
                )
                .Distinct()
                .Count() >= 40,
            "40 days at places"
        );
        Assert.All(plants, p =>
            Assert.All(p["observations"]!.AsArray(), o => Assert.True(string.CompareOrdinal((string)o!["date"]!, today) <= 0))
        );

        var determinations = plants.SelectMany(p => p["determinations"]!.AsArray()).ToList();
        Assert.Contains(determinations, d => d!["overturned"]?["by"]!.AsArray().Count > 0);
        Assert.Contains(determinations, d => d!["confirmation"]?["hybrid"] is not null);
        Assert.Contains(determinations, d =>
            d!["confirmation"]?["checks"]!.AsArray().Any(c => (string)c!["kind"]! == "presence" && (string)c["verdict"]! == "concern")
            == true
        );
        Assert.Contains(plants, p => p["determinations"]!.AsArray() is [{ } newest, ..] && newest["names"]!.AsArray().Count > 1);
        Assert.Contains(plants, p =>
            p["visits"]!
                .AsArray()
                .Any(v => (string)v!["state"]! == "browsed" && v["phases"]!.AsArray().Any(n => (string)n!["stage"]! == "none"))
            && p["visits"]!.AsArray()[^1]!["sexes"]!.AsArray().Count > 0
        );
        Assert.Contains(await ListAsync("seasons/open"), p => p!["outcome"]!["slipped"]!.AsArray().Count > 0);

        var populations = await ListAsync("populations");
        Assert.Equal(6, populations.Count);
        Assert.All(populations, p => Assert.NotEmpty(p!["summary"]!["changes"]!.AsArray()));
        Assert.Contains(populations, p => p!["summary"]!["neverFlowered"]!.AsArray().Count > 0);

        await VisitsAndTheirArchiveAsync(client, stop);
        await SurveysAndTheirFilesAsync(client, stop);

        // What lists read was written with the facts; made again from them it is the same.
        await using var source = NpgsqlDataSource.Create(database.ConnectionString);
        const string lists = """
            select (select string_agg(n::text, E'\n' order by plant_id) from plant_now n) || (select string_agg(n::text, E'\n' order by plant_id) from plant_open n) || (select string_agg(n::text, E'\n' order by name, number) from determination_name n)
                || (select string_agg(name, E'\n' order by name) from record_name)
            """;
        var written = (string)(await source.CreateCommand(lists).ExecuteScalarAsync(stop))!;
        Assert.Equal((long)plants.Count, await source.CreateCommand("select rebuild_lists()").ExecuteScalarAsync(stop));
        Assert.Equal(written, (string)(await source.CreateCommand(lists).ExecuteScalarAsync(stop))!);
    }

    /// <summary>Three servers that start on one empty database at once load it once.</summary>
    [Fact]
    public async Task ThreeServersLoadItOnce()
    {
        var stop = TestContext.Current.CancellationToken;
        await using var database = await TestDatabase.CreateAsync();
        var servers = Enumerable
            .Range(0, 3)
            .Select(_ =>
                new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
                    b.UseSetting("GARTEN_DATABASE", database.ConnectionString)
                        .UseSetting("GARTEN_TODAY", "2026-05-20")
                        .UseSetting("GARTEN_DEMO", Path.Combine(Repository.Root, "demo"))
                )
            )
            .ToList();
        var clients = await Task.WhenAll(servers.Select(s => Task.Run(s.CreateClient, stop)));
        var counts = new List<int>();
        foreach (var client in clients)
            counts.Add((await client.GetFromJsonAsync<JsonNode>("/api/v1/plants", stop))!.AsArray().Count);
        Assert.True(counts.TrueForAll(c => c == counts[0] && c >= 60), string.Join(", ", counts));
        Assert.Equal("[]", await clients[0].GetStringAsync(new Uri("/api/v1/contradictions", UriKind.Relative), stop));
        Assert.Equal(6, (await clients[1].GetFromJsonAsync<JsonNode>("/api/v1/populations", stop))!.AsArray().Count);
        foreach (var server in servers)
            await server.DisposeAsync();
    }

    // Two years of visits, and the archive that is made of them: read strictly, with every record in it, and nothing exact of what is kept
    // back in the public one.
    private static async Task VisitsAndTheirArchiveAsync(HttpClient client, CancellationToken stop)
    {
        var visits = (await client.GetFromJsonAsync<JsonNode>("/api/v1/site-visits/whole?size=100", stop))!.AsArray();
        Assert.True(visits.SelectMany(v => v!["lines"]!.AsArray()).Count() >= 600, "600 lines");
        Assert.True(visits.Select(v => (string)v!["place"]!["id"]!).Distinct().Count() == 5, "five places");
        Assert.Contains(visits, v => v!["closing"]!["sought"]!.AsArray().Count > 0);
        Assert.Contains(visits, v =>
            v!["lines"]!.AsArray().Any(l => ((string)l!["unnamed"]!).Length > 0 && ((string)l["name"]!).Length > 0)
        );
        Assert.Contains(visits, v => v!["lines"]!.AsArray().Any(l => (string?)l!["details"]!["growth"] == "planted"));
        var exact = await StrictArchive.ReadAsync(await client.GetByteArrayAsync("/api/v1/exact/archive.zip", stop));
        var open = await StrictArchive.ReadAsync(await client.GetByteArrayAsync("/api/v1/archive.zip?licence=ccBy", stop));
        var present = exact.Tables["occurrence"].Where(o => o["occurrenceStatus"] == "present").ToList();
        var absent = exact.Tables["occurrence"].Where(o => o["occurrenceStatus"] == "absent").ToList();
        Assert.Equal(visits.Sum(v => v!["closing"]!["sought"]!.AsArray().Count), absent.Count);
        // Each record of a list is there by its id, or as the record of its plant.
        var ids = present.Select(o => o["occurrenceID"]).ToHashSet(StringComparer.Ordinal);
        var plants = present.Select(o => o["organismID"]).ToHashSet(StringComparer.Ordinal);
        Assert.All(visits.SelectMany(v => v!["records"]!.AsArray()), r =>
            Assert.True(ids.Contains($"urn:uuid:{r!["id"]}") || plants.Contains($"urn:uuid:{r["lines"]![0]!["plantId"]}"), r.ToJsonString())
        );
        Assert.Equal(visits.Count, exact.Tables["humboldt"].Count);
        Assert.NotEmpty(exact.Tables["measurementorfact"]);
        Assert.Contains("CC BY", open.Eml.Descendants("intellectualRights").Single().Value, StringComparison.Ordinal);
        // The public one: what is kept back hangs on events that say a cell and a year, and nobody's name.
        Assert.Equal(exact.Tables["occurrence"].Count, open.Tables["occurrence"].Count);
        var events = open.Tables["event"].ToDictionary(e => e["eventID"]);
        var keptBack = open.Tables["occurrence"].Where(o => o["informationWithheld"].Length > 0).ToList();
        Assert.NotEmpty(keptBack);
        Assert.All(keptBack, o =>
        {
            var of = events[o["eventID"]];
            Assert.Equal(("Record", 4, ""), (of["eventType"], of["eventDate"].Length, of["locationID"]));
            Assert.Equal(("", "", "", ""), (o["recordedBy"], o["decimalLatitude"], o["organismID"], o["occurrenceRemarks"]));
        });
        var names = visits.SelectMany(v => v!["sensitive"]!.AsArray()).Select(n => (string)n!).ToHashSet(StringComparer.Ordinal);
        Assert.NotEmpty(names);
        Assert.All(names, n => Assert.Contains(keptBack, o => o["scientificName"] == n));
        Assert.DoesNotContain(open.Tables["occurrence"], o => o["informationWithheld"].Length == 0 && names.Contains(o["scientificName"]));
        var places = (await client.GetFromJsonAsync<JsonNode>("/api/v1/plants/whole", stop))!.AsArray();
        foreach (var plant in places.Where(p => (bool)p!["isSensitive"]! && p["site"] is not null))
        {
            string Of(string part) => ((double)plant!["site"]![part]!).ToString("R", System.Globalization.CultureInfo.InvariantCulture);
            // Both together: a latitude alone another plant may have too.
            var position = $"{Of("latitude")},{Of("longitude")}";
            Assert.DoesNotContain(position, open.Whole, StringComparison.Ordinal);
        }
    }

    // Two surveys: one of lists, one of forty plots; what leaves of them for the public names nothing that is sensitive, and no plot leads
    // to it.
    private static async Task SurveysAndTheirFilesAsync(HttpClient client, CancellationToken stop)
    {
        var surveys = (await client.GetFromJsonAsync<JsonNode>("/api/v1/surveys", stop))!.AsArray();
        Assert.Equal([0, 40], surveys.Select(s => (int)s!["plots"]!).Order());
        var visits = (await client.GetFromJsonAsync<JsonNode>("/api/v1/site-visits/whole?size=100", stop))!.AsArray();
        var names = visits.SelectMany(v => v!["sensitive"]!.AsArray()).Select(n => (string)n!).ToHashSet(StringComparer.Ordinal);
        Assert.NotEmpty(names);
        foreach (var survey in surveys)
        {
            async Task<byte[]> FileAsync(string file, string exact = "") =>
                await client.GetByteArrayAsync($"/api/v1{exact}/surveys/{survey!["id"]}/{file}", stop);
            var texts = new List<string>
            {
                Encoding.UTF8.GetString(await FileAsync("report.html")),
                Encoding.UTF8.GetString(await FileAsync("records.geojson")),
                (await StrictArchive.ReadAsync(await FileAsync("archive.zip"))).Whole,
            };
            using var package = new ZipArchive(new MemoryStream(await FileAsync("datapackage.zip")));
            foreach (var entry in package.Entries)
            {
                using var reader = new StreamReader(await entry.OpenAsync(stop));
                texts.Add(await reader.ReadToEndAsync(stop));
            }
            using var book = new ZipArchive(new MemoryStream(await FileAsync("tables.xlsx")));
            foreach (var entry in book.Entries)
            {
                using var reader = new StreamReader(await entry.OpenAsync(stop));
                texts.Add(await reader.ReadToEndAsync(stop));
            }
            Assert.All(names, n => Assert.All(texts, t => Assert.DoesNotContain(n, t, StringComparison.Ordinal)));
            var exact = Encoding.UTF8.GetString(await FileAsync("report.html", "/exact"));
            if ((int)survey!["plots"]! == 0)
                Assert.Contains(names, n => exact.Contains(n, StringComparison.Ordinal));
        }
        var whole = (await client.GetFromJsonAsync<JsonNode>($"/api/v1/surveys/{surveys.First(s => (int)s!["plots"]! > 0)!["id"]}", stop))!;
        Assert.Equal(10, whole["plots"]!.AsArray().Count(p => (bool)p!["isPermanent"]!));
        Assert.Equal(53, whole["records"]!.AsArray().Count);
    }
}
