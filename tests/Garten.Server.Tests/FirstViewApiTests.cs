using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Core.Contracts;
using Garten.Core.Packs;
using Garten.Testing;
using Microsoft.AspNetCore.Mvc.Testing;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>What a page asks for first: the day, a search, the shelf and the vocabulary in their binary forms; and the sandbox.</summary>
public sealed class FirstViewApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private const string Place = "01900000-0000-7000-8000-0000000000e1";
    private const string Plant = "01900000-0000-7000-8000-0000000000e2";
    private string _key = "";

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        var (_, saved) = await server.SendAsync(
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] =
                    "Key to the heaths\n1. Leaf entire ... Alvena montis\n1. Leaf toothed ... Key to the marshes\n\nKey to the marshes\n1. Petals white ... Alvena palus\n1. Petals blue ... Alvena caerulea\n\nKey to the ferns\n1. Fronds once pinnate ... Pola una\n1. Fronds twice pinnate ... Pola bis\n",
            }
        );
        _key = (string)saved["results"]![0]!["keys"]!.AsArray().First(k => (string)k!["title"]! == "Key to the heaths")!["hash"]!;
        if ((await server.GetAsync("/api/v1/places")).AsArray().Count > 0)
            return;
        await server.SendAsync(
            (JsonObject)
                JsonNode.Parse(
                    $$"""{"kind":"savePlace","id":"{{Guid.CreateVersion7()}}","placeId":"{{Place}}","name":"Ålven Heath","locality":"","latitude":57,"longitude":-11,"uncertaintyMetres":100,"caution":"","cell":"B2","elevationMetres":120,"habitats":["heath"]}"""
                )!
        );
        var (_, tagged) = await server.SendAsync(
            (JsonObject)
                JsonNode.Parse(
                    $$"""{"kind":"tagPlant","id":"{{Guid.CreateVersion7()}}","plantId":"{{Plant}}","placeId":"{{Place}}","label":"stile oak","taggedOn":"2026-05-01","recorder":{"id":"{{Guid.CreateVersion7()}}","name":"Örn Askling"},"site":null,"finding":{"landmark":"","bearingDegrees":null,"distanceMetres":null,"note":""} }"""
                )!
        );
        Assert.Equal("applied", (string)tagged["results"]![0]!["status"]!);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<string[]> FoundAsync(string text) =>
        [
            .. (await server.GetAsync($"/api/v1/search?text={Uri.EscapeDataString(text)}"))
                .AsArray()
                .Select(f => $"{(string)f!["kind"]!} {(string)f["name"]!}"),
        ];

    [Fact]
    public async Task OneSearchFindsPlacesPlantsKeysTermsAndWhatIsInSeason()
    {
        Assert.Contains("place Ålven Heath", await FoundAsync("alven"));
        Assert.Contains("place Ålven Heath", await FoundAsync("he al"));
        Assert.Equal(["key Key to the heaths"], await FoundAsync("key to the hea"));
        Assert.Contains("plant stile oak", await FoundAsync("stile"));
        Assert.Contains("term hairs of the petiole", (await FoundAsync("petiole hairs")).Select(f => f.Split(':')[0]));
        Assert.Equal("season In flower now", (await FoundAsync("in flower"))[0]);
        Assert.Empty(await FoundAsync("  "));
        Assert.Empty(await FoundAsync("zzyzx"));
    }

    [Fact]
    public async Task ASearchWithMuchToFindCrowdsNoKindOut()
    {
        var found = await FoundAsync("a");
        Assert.InRange(found.Length, 1, SearchIndex.MostFound);
        Assert.All(found.GroupBy(f => f.Split(' ')[0]), kind => Assert.InRange(kind.Count(), 1, SearchIndex.MostOfKind));
    }

    [Fact]
    public async Task TheShelfComesPackedAndOnlyAsFarAsTheKeysLead()
    {
        var bytes = await server.Client.GetByteArrayAsync(new Uri($"/api/v1/keys/shelf/packed?with={_key}", UriKind.Relative), Stop);
        Assert.Equal(["Key to the heaths", "Key to the marshes"], ShelfFile.Read(bytes).Versions.Select(v => v.Key.Title).Order());
        var all = await server.Client.GetByteArrayAsync(new Uri("/api/v1/keys/shelf/packed", UriKind.Relative), Stop);
        Assert.Equal(3, ShelfFile.Read(all).Versions.Count);
        var inShort = await server.GetAsync($"/api/v1/keys/shelf/short?with={_key}");
        Assert.Equal(2, inShort["versions"]!.AsArray().Count);
        Assert.True(inShort["characters"]!.AsArray().Count > 0);
    }

    [Theory]
    [InlineData("keys/shelf/packed")]
    [InlineData("vocabulary/packed")]
    public async Task WhatIsThereAlreadyIsntSentAgain(string address)
    {
        using var first = await server.Client.GetAsync(new Uri("/api/v1/" + address, UriKind.Relative), Stop);
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/v1/" + address);
        request.Headers.TryAddWithoutValidation("If-None-Match", first.Headers.ETag!.ToString());
        using var second = await server.Client.SendAsync(request, Stop);
        Assert.Equal(HttpStatusCode.NotModified, second.StatusCode);
    }

    [Fact]
    public async Task ThePackedVocabularyIsTheOneOfTheJson()
    {
        var bytes = await server.Client.GetByteArrayAsync(new Uri("/api/v1/vocabulary/packed", UriKind.Relative), Stop);
        var json = await server.Client.GetStringAsync(new Uri("/api/v1/vocabulary", UriKind.Relative), Stop);
        Assert.Equal(json, JsonSerializer.Serialize(VocabularyFile.Read(bytes).Vocabulary, CoreJson.Default.Vocabulary));
    }

    [Fact]
    public async Task TheDayIsOneAnswerAndFollowsEachChange()
    {
        var before = await server.GetAsync("/api/v1/today?date=2026-06-01");
        Assert.Equal(0, (int)before["today"]!["questions"]!);
        Assert.Equal(8, before["today"]!["weeks"]!.AsArray().Count);
        var (_, counted) = await server.SendAsync(
            (JsonObject)
                JsonNode.Parse(
                    $$"""{"kind":"savePopulation","id":"{{Guid.CreateVersion7()}}","populationId":"{{Guid.CreateVersion7()}}","placeId":"{{Place}}","name":"east bank","taxon":"Alvena palus","bounds":"","recorder":{"id":"{{Guid.CreateVersion7()}}","name":"Örn Askling"} }"""
                )!
        );
        Assert.Equal("applied", (string)counted["results"]![0]!["status"]!);
        Assert.Equal(
            (await server.GetAsync("/api/v1/populations")).AsArray().Sum(p => p!["summary"]!["due"]!.AsArray().Count),
            (int)(await server.GetAsync("/api/v1/today?date=2026-06-01"))["today"]!["questions"]!
        );
    }

    [Theory]
    [InlineData("csv", "text/csv")]
    [InlineData("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet")]
    public async Task ATableToFillInIsOffered(string ending, string type)
    {
        using var response = await server.Client.GetAsync(new Uri($"/api/v1/floras/template.{ending}", UriKind.Relative), Stop);
        Assert.Equal(type, response.Content.Headers.ContentType!.MediaType);
        Assert.Equal($"garten-flora.{ending}", response.Content.Headers.ContentDisposition!.FileName);
        Assert.NotEmpty(await response.Content.ReadAsByteArrayAsync(Stop));
    }

    [Fact]
    public async Task WithoutTheIslandsDataThereIsNoSandbox()
    {
        var (status, body) = await server.PostTextAsync("/api/v1/sandbox", new StringContent(""));
        Assert.Equal((404, "sandbox.none"), (status, (string)body["code"]!));
    }
}

/// <summary>A sandbox beside a server with nothing in it.</summary>
public sealed class SandboxTests
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private static string Demo { get; } = Path.Combine(Repository.Root, "demo");

    private static async Task<string[]> DatabasesAsync(string connectionString)
    {
        await using var source = NpgsqlDataSource.Create(connectionString);
        await using var command = source.CreateCommand("select datname from pg_database where datname like 'garten\\_sandbox\\_%'");
        await using var rows = await command.ExecuteReaderAsync(Stop);
        List<string> names = [];
        while (await rows.ReadAsync(Stop))
            names.Add(rows.GetString(0));
        return [.. names];
    }

    [Fact]
    public async Task ItHasTheIslandInADatabaseOfItsOwnThatIsDroppedAtTheEnd()
    {
        await using var database = await Databases.EmptyAsync();
        await using var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
            b.UseSetting("GARTEN_DATABASE", database.ConnectionString).UseSetting("GARTEN_DEMO", "").UseSetting("GARTEN_DEMO_DATA", Demo)
        );
        using var client = factory.CreateClient();
        using var opened = await client.PostAsync(new Uri("/api/v1/sandbox", UriKind.Relative), null, Stop);
        var address = new Uri((string)JsonNode.Parse(await opened.Content.ReadAsStringAsync(Stop))!["address"]!);
        Assert.True(address.IsLoopback);
        var made = Assert.Single(await DatabasesAsync(database.ConnectionString));
        // Asked again it is the same one.
        using var again = await client.PostAsync(new Uri("/api/v1/sandbox", UriKind.Relative), null, Stop);
        Assert.Contains(
            address.Port.ToString(System.Globalization.CultureInfo.InvariantCulture),
            await again.Content.ReadAsStringAsync(Stop)
        );
        using (var sandbox = new HttpClient { BaseAddress = address })
        {
            Assert.Contains("torvane", await sandbox.GetStringAsync(new Uri("/api/v1/floras", UriKind.Relative), Stop));
            var health = await sandbox.GetStringAsync(new Uri("/api/v1/health", UriKind.Relative), Stop);
            Assert.Contains("\"isSandbox\":true", health);
            // Nobody opens one within one.
            using var inner = await sandbox.PostAsync(
                new Uri("/api/v1/sandbox", UriKind.Relative),
                new StringContent("", Encoding.UTF8),
                Stop
            );
            Assert.Equal(HttpStatusCode.NotFound, inner.StatusCode);
        }
        Assert.Equal("[]", await client.GetStringAsync(new Uri("/api/v1/keys", UriKind.Relative), Stop));
        using var ended = await client.DeleteAsync(new Uri("/api/v1/sandbox", UriKind.Relative), Stop);
        Assert.Equal(HttpStatusCode.NoContent, ended.StatusCode);
        Assert.DoesNotContain(made, await DatabasesAsync(database.ConnectionString));
    }

    [Fact]
    public async Task ItEndsWithTheServer()
    {
        await using var database = await Databases.EmptyAsync();
        string made;
        await using (
            var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
                b.UseSetting("GARTEN_DATABASE", database.ConnectionString)
                    .UseSetting("GARTEN_DEMO", "")
                    .UseSetting("GARTEN_DEMO_DATA", Demo)
            )
        )
        {
            using var client = factory.CreateClient();
            var before = await DatabasesAsync(database.ConnectionString);
            using var opened = await client.PostAsync(new Uri("/api/v1/sandbox", UriKind.Relative), null, Stop);
            Assert.Equal(HttpStatusCode.OK, opened.StatusCode);
            made = Assert.Single((await DatabasesAsync(database.ConnectionString)).Except(before));
        }
        Assert.DoesNotContain(made, await DatabasesAsync(database.ConnectionString));
    }
}
