using System.Text.Json.Nodes;
using Garten.Testing;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>What a device came to is kept, though something else is come to here; and what changed is told to devices that were
/// away.</summary>
public sealed class ConclusionApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private readonly Guid _place = Guid.CreateVersion7();

    public async ValueTask InitializeAsync() =>
        await KeepAsync(
            new()
            {
                ["kind"] = "savePlace",
                ["placeId"] = _place,
                ["name"] = "Skerry Wood",
                ["locality"] = "Torvane",
                ["latitude"] = 57.4,
                ["longitude"] = -11.2,
                ["uncertaintyMetres"] = 150,
                ["caution"] = "",
            }
        );

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static string DaysAgo(int days) => DateOnly.FromDateTime(DateTime.Now).AddDays(-days).ToString("yyyy-MM-dd");

    private JsonObject Named(Guid plant, string name, int daysAgo = 5) =>
        new()
        {
            ["kind"] = "recordDetermination",
            ["determinationId"] = Guid.CreateVersion7(),
            ["occurrenceId"] = Guid.CreateVersion7(),
            ["plantId"] = plant,
            ["plantLabel"] = "by the spring",
            ["placeId"] = _place,
            ["eventDate"] = DaysAgo(daysAgo),
            ["recorder"] = new JsonObject { ["id"] = Guid.CreateVersion7(), ["name"] = "Örn Askling" },
            ["startKey"] = "",
            ["answers"] = new JsonArray(),
            ["names"] = new JsonArray(name),
            ["note"] = "",
        };

    private async Task<JsonNode> KeepAsync(JsonObject command)
    {
        command["id"] = Guid.CreateVersion7();
        var (status, body) = await server.SendAsync(command);
        Assert.True(status == 200, body.ToJsonString());
        return body;
    }

    private async Task<JsonNode> PlantAsync(Guid plant) => await server.GetAsync($"/api/v1/plants/{plant}");

    [Fact]
    public async Task ANameThatTheKeyDoesNotLeadToHereIsKeptWithThatAsAQuestion()
    {
        var saved = await KeepAsync(
            new() { ["kind"] = "saveKeys", ["text"] = "Two sedges\n1 Leaves flat ... Carpessa plana\n- Leaves round ... Carpessa teres\n" }
        );
        var key = (string)saved["results"]![0]!["keys"]![0]!["hash"]!;
        var plant = Guid.CreateVersion7();
        var named = Named(plant, "Carpessa teres");
        named["startKey"] = key;
        named["answers"] = new JsonArray(
            new JsonObject
            {
                ["keyVersion"] = key,
                ["couplet"] = "1",
                ["lead"] = 0,
            }
        );
        await KeepAsync(named);
        var kept = (await PlantAsync(plant))["determinations"]![0]!;
        Assert.Equal("Carpessa teres", (string)kept["names"]![0]!);
        var question = kept["questions"]![0]!;
        Assert.Equal(("trail", "Carpessa plana"), ((string)question["kind"]!, (string)question["names"]![0]!));
        Assert.Equal("By these answers the key leads to Carpessa plana here.", (string)question["says"]!);
        var line = (await server.GetAsync($"/api/v1/records?place={_place}"))["records"]![0]!;
        Assert.True((bool)line["isInQuestion"]!);
        var csv = await server.Client.GetStringAsync(
            new Uri($"/api/v1/records.csv?place={_place}", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        Assert.Contains("In question: By these answers the key leads to Carpessa plana here.", csv, StringComparison.Ordinal);
    }

    [Fact]
    public async Task ANameConfirmedByAFloraThatIsNotHereStandsWithoutAGrade()
    {
        var plant = Guid.CreateVersion7();
        var named = Named(plant, "Alvena rubra");
        named["confirming"] = new JsonObject
        {
            ["floraId"] = "elsewhere",
            ["taxon"] = "alvena-rubra",
            ["rules"] = "default",
            ["grade"] = "corroborated",
        };
        await KeepAsync(named);
        var kept = (await PlantAsync(plant))["determinations"]![0]!;
        Assert.Null(kept["confirmation"]);
        Assert.Equal("grade", (string)kept["questions"]![0]!["kind"]!);
        Assert.Contains("flora", (string)kept["questions"]![0]!["says"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task TwoDevicesThatNamedAPlantWithoutKnowingOfEachOtherKeepBothNames()
    {
        var plant = Guid.CreateVersion7();
        var first = Named(plant, "Alvena rubra");
        first["knownLast"] = Guid.Empty;
        await KeepAsync(first);
        var second = Named(plant, "Alvena nigra");
        second["knownLast"] = Guid.Empty;
        await KeepAsync(second);
        var kept = (await PlantAsync(plant))["determinations"]!.AsArray();
        Assert.Equal(["Alvena nigra", "Alvena rubra"], kept.Select(d => (string)d!["names"]![0]!));
        Assert.Equal("meanwhile", (string)kept[0]!["questions"]![0]!["kind"]!);
        Assert.Null(kept[1]!["questions"]);
        // Who knows of it says why, as ever.
        var third = Named(plant, "Alvena rubra");
        third["knownLast"] = (string)kept[0]!["id"]!;
        third["id"] = Guid.CreateVersion7();
        var (status, body) = await server.SendAsync(third);
        Assert.Equal((422, "name.why"), (status, (string)body["code"]!));
    }

    [Fact]
    public async Task ALookAtACharacterThatIsNotKnownHereIsKeptAndReadOnceItIs()
    {
        var plant = Guid.CreateVersion7();
        JsonObject Look(string character, string state) =>
            new()
            {
                ["id"] = Guid.CreateVersion7(),
                ["character"] = character,
                ["outcome"] = "seen",
                ["states"] = new JsonArray(state),
                ["together"] = false,
                ["readings"] = new JsonArray(),
                ["show"] = 0,
                ["of"] = 0,
                ["sureness"] = "sure",
                ["context"] = new JsonObject(),
                ["tool"] = "eye",
                ["date"] = DaysAgo(5),
                ["note"] = "",
            };
        var named = Named(plant, "Alvena rubra");
        named["observations"] = new JsonArray(Look("leaf-arrangement", "opposite"), Look("spine.gloss", "glossy"));
        await KeepAsync(named);
        var kept = await PlantAsync(plant);
        Assert.Equal(["leaf-arrangement"], kept["observations"]!.AsArray().Select(o => (string)o!["character"]!));
        var unknown = Assert.Single(kept["unreadable"]!.AsArray())!;
        Assert.Equal("spine.gloss", (string)unknown["what"]!);
        Assert.Contains("isn't known here yet", (string)unknown["reason"]!, StringComparison.Ordinal);
        // What is no id of anything is refused at its place.
        var odd = Named(Guid.CreateVersion7(), "Alvena rubra");
        odd["observations"] = new JsonArray(Look("no such <character>", "x"));
        odd["id"] = Guid.CreateVersion7();
        var (status, body) = await server.SendAsync(odd);
        Assert.Equal((422, "observation.invalid", "observations[0]"), (status, (string)body["code"]!, (string)body["field"]!));
    }

    [Fact]
    public async Task WhatChangedIsToldOnceFromTheLastChangeThatADeviceKnows()
    {
        var begin = await server.GetAsync("/api/v1/changes");
        Assert.Empty(begin["plants"]!.AsArray());
        var (plant, other) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync(Named(plant, "Alvena rubra"));
        await KeepAsync(Named(plant, "Alvena rubra", 3));
        await KeepAsync(Named(other, "Alvena nigra"));
        await KeepAsync(
            new() { ["kind"] = "saveKeys", ["text"] = "One more\n1 Leaves flat ... Alvena rubra\n- Leaves round ... Alvena nigra\n" }
        );
        var last = (long)begin["last"]!;
        var page = await server.GetAsync($"/api/v1/changes?after={last}");
        Assert.Equal(new[] { plant, other }.Order(), page["plants"]!.AsArray().Select(p => (Guid)p!));
        Assert.Equal(
            (false, false, true, false),
            ((bool)page["populations"]!, (bool)page["places"]!, (bool)page["keys"]!, (bool)page["vocabulary"]!)
        );
        Assert.Equal(last + 4, (long)page["last"]!);
        Assert.Equal((string)(await server.GetAsync("/api/v1/health"))["epoch"]!, (string)page["epoch"]!);
        // In small pages, one after the other, the same.
        var plants = new HashSet<Guid>();
        var pages = 0;
        for (var isMore = true; isMore; pages++)
        {
            var next = await server.GetAsync($"/api/v1/changes?after={last}&size=1");
            plants.UnionWith(next["plants"]!.AsArray().Select(p => (Guid)p!));
            (last, isMore) = ((long)next["last"]!, (bool)next["isMore"]!);
        }
        Assert.Equal((4, 2), (pages, plants.Count));
        Assert.Empty((await server.GetAsync($"/api/v1/changes?after={last}"))["plants"]!.AsArray());
        Assert.Equal(last, (long)(await server.GetAsync($"/api/v1/changes?after={last + 1000}"))["last"]!);
        var whole = (await server.GetAsync($"/api/v1/plants/whole?id={plant}&id={other}")).AsArray();
        Assert.Equal(new[] { plant, other }.Order(), whole.Select(p => (Guid)p!["id"]!).Order());
    }

    [Theory]
    [InlineData("/api/v1/changes?after=-1", 422, "changes.after")]
    [InlineData("/api/v1/changes?after=x", 400, "request.invalid")]
    [InlineData("/api/v1/plants/whole?id=x", 400, "request.invalid")]
    public async Task AnOddQuestionIsAnsweredInWords(string address, int status, string code)
    {
        var response = await server.Client.GetAsync(new Uri(address, UriKind.Relative), TestContext.Current.CancellationToken);
        var body = await response.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        Assert.Equal(status, (int)response.StatusCode);
        Assert.Contains(code, body, StringComparison.Ordinal);
    }

    [Fact]
    public async Task ADatabaseThatWasSetBackTellsItsEarlierLives()
    {
        await using var source = NpgsqlDataSource.Create(server.ConnectionString);
        var before = (string)(await server.GetAsync("/api/v1/changes"))["epoch"]!;
        await using (var command = source.CreateCommand("insert into epoch (id) values (gen_random_uuid())"))
            await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
        var now = await server.GetAsync("/api/v1/changes");
        Assert.NotEqual(before, (string)now["epoch"]!);
        Assert.Contains(before, now["earlier"]!.AsArray().Select(e => (string)e!));
    }
}
