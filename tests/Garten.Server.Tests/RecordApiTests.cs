using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using CsvHelper;
using Xunit;

namespace Garten.Server.Tests;

public sealed class RecordApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private const string Text =
        "Key to Carpessa\n1. Fruit red ... Carpessa rubra\n1. Fruit black ... 2\n2. Branches hanging ... Carpessa pendula\n2. Branches upright ... Carpessa nigricans\n";
    private readonly Guid _place = Guid.CreateVersion7();
    private string _key = "";

    public async ValueTask InitializeAsync()
    {
        var (_, saved) = await server.SendAsync(
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = Text,
            }
        );
        _key = (string)saved["results"]![0]!["keys"]![0]!["hash"]!;
        var (status, _) = await server.SendAsync(Place());
        Assert.Equal(200, status);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private JsonObject Place() =>
        new()
        {
            ["kind"] = "savePlace",
            ["id"] = Guid.CreateVersion7(),
            ["placeId"] = _place,
            ["name"] = "Skarn, \"upper\" ridge",
            ["locality"] = "Torvane",
            ["latitude"] = 57.4,
            ["longitude"] = -11.2,
            ["uncertaintyMetres"] = 80,
            ["caution"] = "",
        };

    private JsonObject Record() =>
        new()
        {
            ["kind"] = "recordDetermination",
            ["id"] = Guid.CreateVersion7(),
            ["determinationId"] = Guid.CreateVersion7(),
            ["occurrenceId"] = Guid.CreateVersion7(),
            ["plantId"] = Guid.CreateVersion7(),
            ["plantLabel"] = "",
            ["placeId"] = _place,
            ["eventDate"] = "2026-05-31",
            ["recorder"] = new JsonObject { ["id"] = Guid.CreateVersion7(), ["name"] = "Örn Askling" },
            ["startKey"] = _key,
            ["answers"] = new JsonArray(
                new JsonObject
                {
                    ["keyVersion"] = _key,
                    ["couplet"] = "1",
                    ["lead"] = 1,
                }
            ),
            ["names"] = new JsonArray("Carpessa pendula", "Carpessa nigricans"),
            ["note"] = "=1+1, \"seen\"",
        };

    private async Task<int> CountAsync() => (await server.GetAsync($"/api/v1/records?place={_place}"))["records"]!.AsArray().Count;

    [Fact]
    public async Task ADeterminationIsKeptOnceAndTakenAwayAsCsv()
    {
        var record = Record();
        Assert.Equal("applied", (string)(await server.SendAsync(record)).Body["results"]![0]!["status"]!);
        Assert.Equal("already", (string)(await server.SendAsync(record)).Body["results"]![0]!["status"]!);
        Assert.Equal(1, await CountAsync());
        var (status, problem) = await server.SendAsync(With(record, "note", "another note"));
        Assert.Equal((409, "command.reused"), (status, (string)problem["code"]!));

        var again = With(With(With(record, "id", Guid.CreateVersion7()), "determinationId", Guid.CreateVersion7()), "note", "");
        again["answers"]!
            .AsArray()
            .Add(
                new JsonObject
                {
                    ["keyVersion"] = _key,
                    ["couplet"] = "2",
                    ["lead"] = 0,
                }
            );
        again["names"] = new JsonArray("Carpessa pendula");
        Assert.Equal(200, (await server.SendAsync(again)).Status);

        var response = await server.Client.GetAsync(
            new Uri($"/api/v1/records.csv?place={_place}", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        Assert.Equal("text/csv; charset=utf-8", response.Content.Headers.ContentType!.ToString());
        using var csv = new CsvReader(
            new StringReader(Encoding.UTF8.GetString(await response.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken))),
            CultureInfo.InvariantCulture
        );
        Assert.True(await csv.ReadAsync() && csv.ReadHeader() && await csv.ReadAsync());
        Assert.Equal(
            (
                $"urn:uuid:{(Guid)record["occurrenceId"]!}",
                "Carpessa pendula",
                "Örn Askling",
                "2026-05-31",
                "Skarn, \"upper\" ridge, Torvane",
                "-11.2",
                "80",
                "Trail: Key to Carpessa: 1b, 2a"
            ),
            (
                csv["occurrenceID"],
                csv["scientificName"],
                csv["identifiedBy"],
                csv["eventDate"],
                csv["locality"],
                csv["decimalLongitude"],
                csv["coordinateUncertaintyInMeters"],
                csv["identificationRemarks"]
            )
        );
        Assert.StartsWith(
            "Carpessa pendula or Carpessa nigricans (by Örn Askling, ",
            csv["previousIdentifications"],
            StringComparison.Ordinal
        );
        Assert.False(await csv.ReadAsync());
    }

    [Theory]
    [InlineData("placeId", "\"019a0000-0000-7000-8000-000000000000\"", 422, "place.unknown", "placeId")]
    [InlineData("eventDate", "\"2999-01-01\"", 422, "date.future", "eventDate")]
    [InlineData("eventDate", "\"2026-02-30\"", 422, "date.invalid", "eventDate")]
    [InlineData("eventDate", "\"31.5.2026\"", 422, "date.invalid", "eventDate")]
    [InlineData("startKey", "\"0000\"", 422, "trail.version", "startKey")]
    [InlineData("names", "[]", 422, "names.missing", "names")]
    [InlineData("answers", "[]", 422, "trail.empty", "answers")]
    [InlineData("answers", "[{\"keyVersion\":\"KEY\",\"couplet\":\"7\",\"lead\":0}]", 422, "trail.couplet", "answers[0]")]
    [InlineData("answers", "[{\"keyVersion\":\"KEY\",\"couplet\":\"1\",\"lead\":5}]", 422, "trail.lead", "answers[0]")]
    [InlineData("answers", "[{\"keyVersion\":\"KEY\",\"couplet\":\"2\",\"lead\":0}]", 422, "trail.off", "answers[0]")]
    [InlineData("recorder", "{\"id\":\"019a0000-0000-7000-8000-000000000001\",\"name\":\"  \"}", 422, "recorder.missing", "recorder")]
    [InlineData("plantId", "\"00000000-0000-0000-0000-000000000000\"", 422, "record.id", "plantId")]
    [InlineData("note", "\"a\\u0000b\"", 422, "note.binary", "note")]
    [InlineData("note", "17", 400, "body.invalid", null)]
    [InlineData("answers", "null", 400, "body.invalid", null)]
    [InlineData("kind", "\"eraseEverything\"", 400, "body.invalid", null)]
    public async Task WhatIsWrongIsSaidAtItsPlaceAndChangesNothing(string field, string value, int status, string code, string? at)
    {
        var before = await CountAsync();
        var (answered, problem) = await server.SendAsync(
            With(Record(), field, JsonNode.Parse(value.Replace("KEY", _key, StringComparison.Ordinal)))
        );
        Assert.Equal((status, code), (answered, (string)problem["code"]!));
        if (at is not null)
            Assert.Equal(at, (string)problem["field"]!);
        Assert.True(((string)problem["detail"]!).Length > 10);
        Assert.Equal(before, await CountAsync());
    }

    [Theory]
    [InlineData("latitude", "91", "place.latitude")]
    [InlineData("longitude", "-181", "place.longitude")]
    [InlineData("uncertaintyMetres", "0", "place.uncertainty")]
    [InlineData("name", "\"\"", "name.missing")]
    public async Task APlaceThatIsNoneIsRefused(string field, string value, string code)
    {
        var (status, problem) = await server.SendAsync(With(With(Place(), "placeId", Guid.CreateVersion7()), field, JsonNode.Parse(value)));
        Assert.Equal((422, code), (status, (string)problem["code"]!));
    }

    [Fact]
    public async Task ATrailOfAnOlderVersionIsTaken()
    {
        await server.SendAsync(
            new()
            {
                ["kind"] = "saveKeys",
                ["id"] = Guid.CreateVersion7(),
                ["text"] = Text.Replace("hanging", "drooping", StringComparison.Ordinal),
            }
        );
        Assert.Equal(200, (await server.SendAsync(Record())).Status);
    }

    [Fact]
    public async Task OneRefusedCommandOfABatchLeavesTheOthers()
    {
        var (status, body) = await server.PostAsync(
            "/api/v1/commands",
            new JsonObject { ["commands"] = new JsonArray(Record(), With(Record(), "eventDate", "2999-01-01"), Record()) }
        );
        Assert.Equal(200, status);
        Assert.Equal(["applied", "refused", "applied"], body["results"]!.AsArray().Select(r => (string)r!["status"]!));
        Assert.Equal("date.future", (string)body["results"]![1]!["problem"]!["code"]!);
    }

    /// <summary>Names are read in letters of any size, as JSON of other programs has them.</summary>
    [Fact]
    public async Task ABatchIsReadInLettersOfAnySize()
    {
        var (status, body) = await server.PostAsync("/api/v1/commands", new JsonObject { ["Commands"] = new JsonArray(Record()) });
        Assert.Equal((200, "applied"), (status, (string)body["results"]![0]!["status"]!));
    }

    [Fact]
    public async Task ARequestOverTheLimitOrWithoutSenseIsRefused()
    {
        async Task<(int, string)> Post(string body, string type)
        {
            var (status, problem) = await server.PostTextAsync("/api/v1/commands", new StringContent(body, Encoding.UTF8, type));
            return (status, (string)problem["code"]!);
        }

        Assert.Equal((400, "body.invalid"), await Post("{\"commands\":[{]}", "application/json"));
        Assert.Equal((400, "body.invalid"), await Post("{\"commands\":[null]}", "application/json"));
        Assert.Equal((422, "batch.size"), await Post("{\"commands\":[]}", "application/json"));
        Assert.Equal((415, "body.type"), await Post("hello", "text/plain"));
        Assert.Equal(
            (404, "not-found"),
            (
                (int)
                    (
                        await server.Client.GetAsync(new Uri("/api/v1/nothing", UriKind.Relative), TestContext.Current.CancellationToken)
                    ).StatusCode,
                "not-found"
            )
        );
    }

    [Fact]
    public async Task WhileTheDatabaseIsAwayItSaysSoAndGoesOnWhenItIsBack()
    {
        async Task<HttpStatusCode> Get(string address) =>
            (await server.Client.GetAsync(new Uri(address, UriKind.Relative), TestContext.Current.CancellationToken)).StatusCode;
        Assert.Equal("ready", (string)(await server.GetAsync("/api/v1/health"))["status"]!);
        var record = Record();
        server.Relay.TakeAway();
        try
        {
            Assert.Equal(HttpStatusCode.ServiceUnavailable, await Get("/api/v1/health"));
            Assert.Equal(HttpStatusCode.ServiceUnavailable, await Get("/api/v1/records.csv"));
            var (status, problem) = await server.SendAsync(record);
            Assert.Equal((503, "database.unavailable"), (status, (string)problem["code"]!));
        }
        finally
        {
            server.Relay.BringBack();
        }
        Assert.Equal(HttpStatusCode.OK, await Get("/api/v1/health"));
        Assert.Equal(200, (await server.SendAsync(record)).Status);
    }

    private static JsonObject With(JsonObject command, string field, JsonNode? value)
    {
        var copy = command.DeepClone().AsObject();
        copy[field] = value;
        return copy;
    }
}
