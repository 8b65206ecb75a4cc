using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Garten.Server.Hosting;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>Bad input, races and a database in trouble: nothing is lost, half-written or told that must not be.</summary>
public sealed partial class FaultTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private static readonly Guid Place = new("0197a1c0-5b00-7a11-9c3e-2f6f6b1d0b01");
    private static readonly Guid OtherPlace = new("0197a1c0-5b00-7a11-9c3e-2f6f6b1d0b02");
    private static readonly JsonObject Recorder = new() { ["id"] = "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0c01", ["name"] = "Ilse Marrin" };

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private const string Matrix = "taxon,leaf length (mm),petals\nAlvena rara,20–40,5\nAlvena vulgaris,50–90,4\nBrontia alta,100–200,4\n";
    private const string Taxa =
        "name,rank,family,sensitive,synonyms\nAlvena rara,species,Alvenaceae,yes,Alvena occulta\nAlvena vulgaris,species,Alvenaceae,,\nBrontia alta,species,Brontiaceae,,\n";

    public async ValueTask InitializeAsync()
    {
        if (((JsonArray)await server.GetAsync("/api/v1/floras")).Any(f => (string)f!["id"]! == "fault-isle"))
            return;
        var form = new MultipartFormDataContent
        {
            { new StringContent("Fault isle"), "name" },
            {
                new StringContent(
                    """{"latitude":57.38294,"longitude":-11.2832,"cellMetres":2500,"columns":6,"rows":5,"naming":"lettersEastNumbersNorth"}"""
                ),
                "grid"
            },
            { new ByteArrayContent(Encoding.UTF8.GetBytes(Matrix)), "matrix", "matrix.csv" },
            { new ByteArrayContent(Encoding.UTF8.GetBytes(Taxa)), "taxa", "taxa.csv" },
        };
        var (status, body) = await server.PostTextAsync("/api/v1/floras", form);
        Assert.True(status == 200, body.ToJsonString());
        Assert.True(
            (await server.Client.PostAsync(new Uri("/api/v1/floras/fault-isle/publish", UriKind.Relative), null, Stop)).IsSuccessStatusCode
        );
        foreach (
            var (id, name, latitude, longitude) in new[]
            {
                (Place, "Secret Hollow", 57.4234, -11.2046),
                (OtherPlace, "Far Skerry", 58.9, -10.0),
            }
        )
        {
            (status, body) = await server.SendAsync(
                new JsonObject
                {
                    ["kind"] = "savePlace",
                    ["id"] = Guid.CreateVersion7(),
                    ["placeId"] = id,
                    ["name"] = name,
                    ["locality"] = "below the old mill",
                    ["latitude"] = latitude,
                    ["longitude"] = longitude,
                    ["uncertaintyMetres"] = 30,
                    ["caution"] = "",
                    ["cell"] = "B2",
                    ["elevationMetres"] = 120,
                }
            );
            Assert.True(status == 200, body.ToJsonString());
        }
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static JsonObject Determine(
        Guid plant,
        string[] names,
        Guid? place = null,
        Guid? determination = null,
        Guid? occurrence = null,
        JsonArray? observations = null,
        string note = "by the third alder",
        string day = "2026-05-20"
    ) =>
        new()
        {
            ["kind"] = "recordDetermination",
            ["id"] = Guid.CreateVersion7(),
            ["determinationId"] = determination ?? Guid.CreateVersion7(),
            ["occurrenceId"] = occurrence ?? Guid.CreateVersion7(),
            ["plantId"] = plant,
            ["plantLabel"] = "under the leaning birch",
            ["placeId"] = place ?? Place,
            ["eventDate"] = day,
            ["recorder"] = Recorder.DeepClone(),
            ["startKey"] = "",
            ["answers"] = new JsonArray(),
            ["names"] = new JsonArray([.. names.Select(n => (JsonNode)n)]),
            ["note"] = note,
            ["observations"] = observations ?? [],
            ["hand"] = new JsonArray(),
        };

    private static JsonObject Reading(string character, string value) =>
        JsonNode
            .Parse(
                $$"""
                {"id":"{{Guid.CreateVersion7()}}","character":"{{character}}","outcome":"seen","states":[],"together":false,"readings":[{"value":{{value}},"text":"x","resolution":0}],"show":0,"of":0,"sureness":"sure",
                "context":{},"tool":"ruler","date":"2026-05-20","note":"","withdrawn":false,"fromCouplet":""}
                """
            )!
            .AsObject();

    private async Task SoundAsync(JsonObject command)
    {
        var (status, body) = await server.SendAsync(command);
        Assert.True(status == 200, body.ToJsonString());
    }

    private static readonly string[] Telling = ["57.42", "-11.20", "Secret", "mill", "alder", "birch", "third", "120"];

    /// <summary>Ids and moments aren't read: by chance the digits of one may be those of the height or of a latitude.</summary>
    [GeneratedRegex(@"UID:\S+|[0-9a-fA-F]{8}-?([0-9a-fA-F]{4}-?){3}[0-9a-fA-F]{12}|\d{8}T\d{6}|\d\d:\d\d:\d\d(\.\d+)?")]
    private static partial Regex IdsAndMoments { get; }

    private static void TellsNothing(string text)
    {
        var read = IdsAndMoments.Replace(text, "");
        foreach (var word in Telling)
            Assert.DoesNotContain(word, read, StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>Whatever leaves the program gives the middle of the grid cell of a sensitive taxon, and says so.</summary>
    [Theory]
    [InlineData("Alvena rara")]
    [InlineData("Alvena occulta")]
    [InlineData("Alvena vulgaris", "Alvena rara")]
    [InlineData("Alvena")]
    [InlineData("Alvena rara subsp. minor")]
    [InlineData("Alvena rara agg.")]
    public async Task ASensitivePlantIsCoarsenedInTheRecords(params string[] names)
    {
        var plant = Guid.CreateVersion7();
        await SoundAsync(Determine(plant, names));
        var row = (await server.Client.GetStringAsync(new Uri("/api/v1/records.csv", UriKind.Relative), Stop))
            .Split("\r\n")
            .Single(l => l.Contains(plant.ToString(), StringComparison.Ordinal));
        TellsNothing(row);
        // The cell B2: its middle lies 1.5 cells of 2,500 m from the corner.
        Assert.Contains("grid cell B2,57.41666,", row, StringComparison.Ordinal);
        Assert.Contains(",1768,", row, StringComparison.Ordinal);
        Assert.Contains("since the taxon is sensitive", row, StringComparison.Ordinal);
        Assert.Contains("are kept back", row, StringComparison.Ordinal);
        // For one's own keeping it is exact, at an address that is marked so.
        var exact = await server.Client.GetAsync(new Uri("/api/v1/exact/records.csv", UriKind.Relative), Stop);
        Assert.Equal("exact", Assert.Single(exact.Headers.GetValues("Garten-Positions")));
        Assert.Contains("under the leaning birch", await exact.Content.ReadAsStringAsync(Stop), StringComparison.Ordinal);
    }

    [Fact]
    public async Task ANameOfBeforeKeepsThePlaceBackAndOneOutsideTheGridHasNoPosition()
    {
        var (renamed, far, plain) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        await SoundAsync(Determine(renamed, ["Alvena rara"]));
        await SoundAsync(Determine(renamed, ["Brontia alta"], note: "the alder was another one"));
        await SoundAsync(Determine(far, ["Alvena rara"], OtherPlace));
        await SoundAsync(Determine(plain, ["Brontia alta"]));
        var rows = (await server.Client.GetStringAsync(new Uri("/api/v1/records.csv", UriKind.Relative), Stop)).Split("\r\n");
        foreach (var row in rows.Where(r => r.Contains(renamed.ToString(), StringComparison.Ordinal)))
            TellsNothing(row);
        var outside = rows.Single(r => r.Contains(far.ToString(), StringComparison.Ordinal));
        TellsNothing(outside);
        Assert.DoesNotContain("58.9", outside, StringComparison.Ordinal);
        Assert.Contains("outside the flora's grid", outside, StringComparison.Ordinal);
        Assert.Contains(
            "57.4234,-11.2046",
            rows.Single(r => r.Contains(plain.ToString(), StringComparison.Ordinal)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task ASensitivePopulationIsCoarsenedInItsTableAndInTheCalendar()
    {
        var population = Guid.CreateVersion7();
        await SoundAsync(
            new JsonObject
            {
                ["kind"] = "savePopulation",
                ["id"] = Guid.CreateVersion7(),
                ["populationId"] = population,
                ["placeId"] = Place,
                ["name"] = "alder patch",
                ["taxon"] = "Alvena rara",
                ["bounds"] = "",
            }
        );
        await SoundAsync(
            new JsonObject
            {
                ["kind"] = "countPopulation",
                ["id"] = Guid.CreateVersion7(),
                ["countId"] = Guid.CreateVersion7(),
                ["populationId"] = population,
                ["date"] = "2025-05-20",
                ["recorder"] = Recorder.DeepClone(),
                ["unit"] = "individuals",
                ["number"] = 7,
                ["note"] = "",
            }
        );
        var csv = await server.Client.GetStringAsync(new Uri("/api/v1/populations.csv", UriKind.Relative), Stop);
        TellsNothing(csv);
        Assert.Contains("B2,,Alvena rara,2025,7", csv, StringComparison.Ordinal);
        Assert.Contains(
            "Secret Hollow,alder patch",
            await server.Client.GetStringAsync(new Uri("/api/v1/exact/populations.csv", UriKind.Relative), Stop),
            StringComparison.Ordinal
        );
        foreach (var trips in new[] { "", "?trips=true" })
        {
            var calendar = await server.Client.GetStringAsync(new Uri("/api/v1/seasons/visits.ics" + trips, UriKind.Relative), Stop);
            Assert.Contains("Alvena rara", calendar, StringComparison.Ordinal);
            Assert.Contains("grid cell B2", calendar, StringComparison.Ordinal);
            TellsNothing(calendar);
        }
    }

    [Theory]
    [InlineData("5e-324")]
    [InlineData("1e308")]
    [InlineData("1e-9")]
    [InlineData("-1")]
    public async Task AReadingBeyondAllPlantsIsRefused(string value)
    {
        var plant = Guid.CreateVersion7();
        var (status, body) = await server.SendAsync(
            Determine(plant, ["Alvena vulgaris"], observations: [Reading("leaf-length-mm", value)])
        );
        Assert.Equal(422, status);
        Assert.StartsWith("observations[0]", (string)body["field"]!, StringComparison.Ordinal);
    }

    /// <summary>A fact of before readings were bounded is told of, and takes nothing with it.</summary>
    [Fact]
    public async Task APoisonedFactOfBeforeIsShownAsSuch()
    {
        var plant = Guid.CreateVersion7();
        await SoundAsync(Determine(plant, ["Alvena vulgaris"], observations: [Reading("leaf-length-mm", "60")]));
        await using (var source = NpgsqlDataSource.Create(server.ConnectionString))
        {
            await source
                .CreateCommand(
                    $"""
                    insert into observation (id, plant_id, character, observed_on, observer, recorded_at, content)
                    select gen_random_uuid(), plant_id, character, observed_on, observer, recorded_at, jsonb_set(jsonb_set(content, '{"{readings,0,value}"}', '5e-324'), '{"{id}"}', to_jsonb(gen_random_uuid()))
                    from observation where plant_id = '{plant}'
                    """
                )
                .ExecuteNonQueryAsync(Stop);
            await source
                .CreateCommand(
                    $"insert into observation (id, plant_id, character, observed_on, observer, recorded_at, content) select gen_random_uuid(), plant_id, character, observed_on, observer, recorded_at, '[1]' from observation where plant_id = '{plant}' limit 1"
                )
                .ExecuteNonQueryAsync(Stop);
        }
        await SoundAsync(Determine(plant, ["Brontia alta"], note: "too large after all", day: "2026-06-20"));
        var detail = await server.GetAsync($"/api/v1/plants/{plant}");
        Assert.Single((JsonArray)detail["observations"]!);
        Assert.Equal(2, ((JsonArray)detail["unreadable"]!).Count);
        var (status, answer) = await server.PostAsync(
            "/api/v1/identify/confirm",
            new JsonObject
            {
                ["floraId"] = "fault-isle",
                ["taxon"] = "alvena-vulgaris",
                ["sheet"] = detail["observations"]!.DeepClone(),
            }
        );
        Assert.True(status == 200, answer.ToJsonString());
    }

    [Fact]
    public async Task ANumberBeyondEveryDoubleIsRefusedBeforeAnythingIsDone()
    {
        var sound = Guid.CreateVersion7();
        var batch = $$"""
            {"commands":[
              {"kind":"savePlace","id":"{{Guid.CreateVersion7()}}","placeId":"{{sound}}","name":"Before","locality":"","latitude":1,"longitude":1,"uncertaintyMetres":5,"caution":""},
              {"kind":"savePlace","id":"{{Guid.CreateVersion7()}}","placeId":"{{Guid.CreateVersion7()}}","name":"After","locality":"","latitude":1e999,"longitude":1,"uncertaintyMetres":5,"caution":""}]}
            """;
        var (status, body) = await server.PostTextAsync("/api/v1/commands", new StringContent(batch, Encoding.UTF8, "application/json"));
        Assert.Equal((400, "$.commands[1].latitude"), (status, (string)body["field"]!));
        Assert.DoesNotContain((JsonArray)await server.GetAsync("/api/v1/places"), p => (string)p!["id"]! == sound.ToString());
    }

    [Theory]
    [InlineData("application/json; charset=xx", 415)]
    [InlineData("application/json; charset=utf-16", 415)]
    [InlineData("multipart/form-data; boundary=x; charset=xx", 415)]
    [InlineData("multipart/form-data; boundary=x", 400)]
    [InlineData("multipart/form-data", 400)]
    public async Task ABodyInNoKnownEncodingOrCutShortIsRefused(string type, int expected)
    {
        var content = new ByteArrayContent(
            "--x\r\nContent-Disposition: form-data; name=\"matrix\"; filename=\"a.csv\"\r\n\r\ntaxon,a"u8.ToArray()
        );
        content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        var (status, _) = await server.PostTextAsync(
            type.StartsWith("app", StringComparison.Ordinal) ? "/api/v1/commands" : "/api/v1/floras/check",
            content
        );
        Assert.Equal(expected, status);
    }

    [Theory]
    [InlineData("columns", """{"leaf length (mm)":null}""")]
    [InlineData("columns", "[1]")]
    [InlineData("dash", "perhaps")]
    [InlineData("grid", """{"latitude":99,"longitude":0,"cellMetres":1000,"columns":3,"rows":3}""")]
    [InlineData("grid", "{")]
    public async Task WhatIsSaidOfATableIsCheckedAtItsField(string field, string value)
    {
        var form = new MultipartFormDataContent
        {
            { new StringContent(value), field },
            { new ByteArrayContent(Encoding.UTF8.GetBytes(Matrix)), "matrix", "matrix.csv" },
        };
        var (status, body) = await server.PostTextAsync("/api/v1/floras/check", form);
        Assert.Equal((422, field), (status, (string)body["field"]!));
    }

    [Fact]
    public async Task MoreThanTheLimitIsAnsweredAndNotCutOff()
    {
        var (status, body) = await server.PostTextAsync(
            "/api/v1/commands",
            new ByteArrayContent(new byte[12 << 20]) { Headers = { ContentType = new("application/json") } }
        );
        Assert.Equal((413, "body.too-large"), (status, (string)body["code"]!));
    }

    /// <summary>Forty bodies at once that are each half as large again as is taken: each gets its answer, and memory stays
    /// bounded.</summary>
    [Fact]
    public async Task FortyBodiesOverTheLimitAtOnceAreEachAnswered()
    {
        const int many = 40,
            bytes = 12 << 20;
        const long mostMemory = 500L << 20;
        var large = new byte[bytes];
        Array.Fill(large, (byte)'x');
        var before = Environment.WorkingSet;
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, many)
                .Select(async _ =>
                {
                    using var content = new ByteArrayContent(large);
                    content.Headers.ContentType = new MediaTypeHeaderValue("application/json");
                    using var answer = await server.Client.PostAsync(new Uri("/api/v1/commands", UriKind.Relative), content, Stop);
                    return ((int)answer.StatusCode, (string)JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!["code"]!);
                })
        );
        Assert.All(answers, a => Assert.Equal((413, "body.too-large"), a));
        Assert.InRange(Environment.WorkingSet - before, long.MinValue, mostMemory);
    }

    /// <summary>A small file that swells to far more than any table: refused, in little memory.</summary>
    [Fact]
    public async Task ASpreadsheetBombIsRefused()
    {
        var before = GC.GetTotalMemory(true);
        using var file = new MemoryStream();
        using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
        {
            async Task Part(string name, string text, string repeated = "", int times = 0)
            {
                await using var writer = new StreamWriter(archive.CreateEntry(name, CompressionLevel.SmallestSize).Open());
                await writer.WriteAsync(text);
                for (var i = 0; i < times; i++)
                    await writer.WriteAsync(repeated);
            }
            await Part(
                "[Content_Types].xml",
                """<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>"""
            );
            await Part(
                "_rels/.rels",
                """<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>"""
            );
            await Part(
                "xl/workbook.xml",
                """<?xml version="1.0"?><workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="a" sheetId="1" r:id="r1"/></sheets></workbook>"""
            );
            await Part(
                "xl/_rels/workbook.xml.rels",
                """<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>"""
            );
            await Part(
                "xl/worksheets/sheet1.xml",
                """<?xml version="1.0"?><worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData><row r="1">""",
                """<c t="inlineStr"><is><t>x</t></is></c>""",
                3_000_000
            );
        }
        var form = new MultipartFormDataContent { { new ByteArrayContent(file.ToArray()), "matrix", "matrix.xlsx" } };
        var (status, body) = await server.PostTextAsync("/api/v1/floras/check", form);
        Assert.True(status == 200, body.ToJsonString());
        Assert.Contains(((JsonArray)body["problems"]!).Select(p => (string)p!["code"]!), c =>
            c is "workbook.unreadable" or "table.columns" or "table.cells"
        );
        Assert.True(GC.GetTotalMemory(true) - before < 100 << 20);
    }

    /// <summary>Many devices at once: whoever comes second is refused, and nothing contradicts anything afterwards.</summary>
    [Fact]
    public async Task RacingCommandsContradictNothing()
    {
        async Task<int[]> AllAsync(IEnumerable<JsonObject> commands) =>
            [.. (await Task.WhenAll(commands.Select(c => server.SendAsync(c)))).Select(a => a.Status)];
        // One look, eight new plants.
        var occurrence = Guid.CreateVersion7();
        var looks = await AllAsync(
            Enumerable.Range(0, 8).Select(_ => Determine(Guid.CreateVersion7(), ["Brontia alta"], occurrence: occurrence))
        );
        Assert.Equal(1, looks.Count(s => s == 200));
        Assert.All(looks, s => Assert.True(s is 200 or 409, $"{s}"));
        // One new plant at two places.
        var plant = Guid.CreateVersion7();
        var places = await AllAsync(
            Enumerable.Range(0, 8).Select(i => Determine(plant, ["Brontia alta"], i % 2 == 0 ? Place : OtherPlace))
        );
        Assert.All(places, s => Assert.True(s is 200 or 409, $"{s}"));
        // One determination twice.
        var determination = Guid.CreateVersion7();
        var twice = await AllAsync(
            Enumerable.Range(0, 8).Select(_ => Determine(Guid.CreateVersion7(), ["Brontia alta"], determination: determination))
        );
        Assert.Equal(1, twice.Count(s => s == 200));
        Assert.All(twice, s => Assert.True(s is 200 or 409, $"{s}"));
        // Two first tags.
        var tagged = Guid.CreateVersion7();
        JsonObject Tag(int i) =>
            new()
            {
                ["kind"] = "tagPlant",
                ["id"] = Guid.CreateVersion7(),
                ["plantId"] = tagged,
                ["placeId"] = Place,
                ["label"] = $"tag {i}",
                ["taggedOn"] = "2026-05-20",
                ["recorder"] = Recorder.DeepClone(),
            };
        Assert.Equal(1, (await AllAsync(Enumerable.Range(0, 8).Select(Tag))).Count(s => s == 200));
        Assert.Empty((JsonArray)await server.GetAsync("/api/v1/contradictions"));
    }

    [Theory]
    [InlineData("08006", 503)]
    [InlineData("25006", 503)]
    [InlineData("40001", 503)]
    [InlineData("40P01", 503)]
    [InlineData("53100", 503)]
    [InlineData("53200", 503)]
    [InlineData("55P03", 503)]
    [InlineData("57014", 503)]
    [InlineData("57P01", 503)]
    [InlineData("58030", 503)]
    [InlineData("23505", 409)]
    [InlineData("23503", 409)]
    [InlineData("42601", 500)]
    [InlineData("XX001", 500)]
    public void WhatMayPassIsSaidToPass(string state, int status) =>
        Assert.Equal(status, Problems.Of(new PostgresException("x", "ERROR", "ERROR", state)).Status);

    [Fact]
    public async Task ADatabaseThatOnlyReadsIsWaitedFor()
    {
        await using var source = NpgsqlDataSource.Create(server.ConnectionString);
        var name = new NpgsqlConnectionStringBuilder(server.ConnectionString).Database;
        await source.CreateCommand($"alter database {name} set default_transaction_read_only = on").ExecuteNonQueryAsync(Stop);
        try
        {
            server.Relay.TakeAway();
            server.Relay.BringBack();
            var response = await server.Client.PostAsJsonAsync(
                "/api/v1/commands",
                new JsonObject { ["commands"] = new JsonArray(Determine(Guid.CreateVersion7(), ["Brontia alta"])) },
                Stop
            );
            Assert.Equal(HttpStatusCode.ServiceUnavailable, response.StatusCode);
            Assert.NotNull(response.Headers.RetryAfter);
        }
        finally
        {
            await using var connection = await source.OpenConnectionAsync(Stop);
            await new NpgsqlCommand("set default_transaction_read_only = off", connection).ExecuteNonQueryAsync(Stop);
            await new NpgsqlCommand($"alter database {name} reset default_transaction_read_only", connection).ExecuteNonQueryAsync(Stop);
            server.Relay.TakeAway();
            server.Relay.BringBack();
        }
    }

    [Theory]
    [InlineData("""{"from":"0001-01-01","needs":[]}""", "seasons/visits")]
    [InlineData("""{"from":"9999-12-31","needs":[]}""", "seasons/visits")]
    [InlineData("""{"date":"9999-12-31","needs":[{"id":"a","place":"b","windows":[{"from":1,"to":365}]}]}""", "seasons/visits/move")]
    [InlineData(
        """{"date":"0001-01-01","questions":[{"id":"a","windows":[{"from":300,"to":20}],"lookedOn":"0001-01-01"}]}""",
        "seasons/standings"
    )]
    [InlineData("""{"floraId":"fault-isle","date":"9999-12-31"}""", "seasons/year")]
    [InlineData("""{"floraId":"fault-isle","date":"2026-05-01","taxa":["nobody"]}""", "seasons/year")]
    [InlineData("""{"floraId":"fault-isle","date":"2026-05-01","to":{"latitude":57,"longitude":0,"elevationMetres":10}}""", "seasons/year")]
    public async Task DaysAtTheEndsOfTimeAndHalfAShiftAreRefused(string body, string address)
    {
        var (status, problem) = await server.PostTextAsync(
            "/api/v1/" + address,
            new StringContent(body, Encoding.UTF8, "application/json")
        );
        Assert.True(status == 422, problem.ToJsonString());
    }

    [Theory]
    [InlineData("0001-01-01")]
    [InlineData("9999-12-31")]
    public async Task AFactOfADayAtTheEndsOfTimeIsRefused(string day)
    {
        Assert.Equal(422, (await server.SendAsync(Determine(Guid.CreateVersion7(), ["Brontia alta"], day: day))).Status);
        var look = Reading("leaf-length-mm", "60");
        look["date"] = day;
        Assert.Equal(422, (await server.SendAsync(Determine(Guid.CreateVersion7(), ["Brontia alta"], observations: [look]))).Status);
    }

    [Theory]
    [InlineData("seasons/visits.ics?from=0001-01-01")]
    [InlineData("seasons/visits.ics?from=9999-12-31")]
    [InlineData("floras/fault-isle/taxa?day=0001-01-01")]
    [InlineData("floras/fault-isle/taxa/alvena-rara?day=9999-12-31")]
    public async Task DaysAtTheEndsOfTimeAreNoneInAddressesEither(string address)
    {
        var response = await server.Client.GetAsync(new Uri("/api/v1/" + address, UriKind.Relative), Stop);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
    }

    [Fact]
    public async Task FiveThousandNeedsOfAHundredPlacesArePlannedInSeconds()
    {
        var random = new Random(20);
        var needs = new JsonArray([
            .. Enumerable
                .Range(0, 5000)
                .Select(i =>
                    (JsonNode)
                        new JsonObject
                        {
                            ["id"] = $"n{i}",
                            ["place"] = $"p{i % 100}",
                            ["windows"] = new JsonArray([
                                .. Enumerable
                                    .Range(0, 3)
                                    .Select(_ => random.Next(1, 340))
                                    .Select(d => (JsonNode)new JsonObject { ["from"] = d, ["to"] = d + random.Next(3, 25) }),
                            ]),
                        }
                ),
        ]);
        var began = TimeProvider.System.GetTimestamp();
        var (status, plan) = await server.PostAsync(
            "/api/v1/seasons/visits",
            new JsonObject { ["from"] = "2026-05-01", ["needs"] = needs }
        );
        Assert.Equal(200, status);
        Assert.Equal(5000, ((JsonArray)plan["visits"]!).Sum(v => ((JsonArray)v!["needs"]!).Count));
        TestContext.Current.TestOutputHelper?.WriteLine(
            $"{TimeProvider.System.GetElapsedTime(began).TotalSeconds:0.0} s, {((JsonArray)plan["visits"]!).Count} visits, optimal {plan["optimal"]}"
        );
    }
}
