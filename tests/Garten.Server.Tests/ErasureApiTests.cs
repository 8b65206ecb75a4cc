using System.Text.Json.Nodes;
using Garten.Server.Features.Erasure;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.Logging.Abstractions;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>What is erased on request is gone wherever it stood; its id stays, and answers so.</summary>
public sealed class ErasureApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private static readonly Guid Place = Guid.CreateVersion7();
    private readonly Guid _person = Guid.CreateVersion7();
    private readonly string _name = $"Runa {Guid.NewGuid():N}";

    public async ValueTask InitializeAsync() =>
        await server.SendAsync(
            Command(
                "savePlace",
                ("placeId", Place),
                ("name", "Erasure Edge"),
                ("locality", ""),
                ("latitude", 57.4),
                ("longitude", -11.2),
                ("uncertaintyMetres", 150),
                ("caution", "")
            )
        );

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static JsonObject Command(string kind, params (string Field, JsonNode? Value)[] fields)
    {
        var command = new JsonObject { ["kind"] = kind, ["id"] = Guid.CreateVersion7() };
        foreach (var (field, value) in fields)
            command[field] = value;
        return command;
    }

    private JsonObject Recorder() => new() { ["id"] = _person, ["name"] = _name };

    private JsonObject Tag(Guid plant, string label) =>
        Command("tagPlant", ("plantId", plant), ("placeId", Place), ("label", label), ("taggedOn", "2026-05-01"), ("recorder", Recorder()));

    private JsonObject Visit(Guid plant, Guid visit, string note) =>
        Command(
            "visitPlant",
            ("visitId", visit),
            ("plantId", plant),
            ("date", "2026-05-04"),
            ("recorder", Recorder()),
            ("state", "alive"),
            ("note", note)
        );

    private JsonObject Named(Guid plant, Guid determination, string name, string note) =>
        Command(
            "recordDetermination",
            ("determinationId", determination),
            ("occurrenceId", Guid.CreateVersion7()),
            ("plantId", plant),
            ("plantLabel", ""),
            ("placeId", Place),
            ("eventDate", "2026-05-04"),
            ("recorder", Recorder()),
            ("startKey", ""),
            ("answers", new JsonArray()),
            ("names", new JsonArray(name)),
            ("note", note)
        );

    private async Task KeepAsync(JsonObject command)
    {
        var (status, body) = await server.SendAsync(command);
        Assert.True(status == 200, body.ToJsonString());
    }

    private Task EraseAsync(Guid subject) => KeepAsync(Command("erase", ("subjectId", subject)));

    private async Task ErasedAsync(JsonObject command)
    {
        var (status, body) = await server.SendAsync(command);
        Assert.Equal((410, "erased"), (status, (string)body["code"]!));
    }

    // All text that stands anywhere in the database.
    private async Task<string> AllAsync()
    {
        await using var source = NpgsqlDataSource.Create(server.ConnectionString);
        await using var tables = source.CreateCommand(
            "select table_name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'"
        );
        var names = new List<string>();
        await using (var reader = await tables.ExecuteReaderAsync(TestContext.Current.CancellationToken))
        {
            while (await reader.ReadAsync(TestContext.Current.CancellationToken))
                names.Add(reader.GetString(0));
        }
        var all = new System.Text.StringBuilder();
        foreach (var name in names.Where(n => n != "erased"))
        {
            await using var rows = source.CreateCommand($"select string_agg(t::text, ' ') from \"{name}\" t");
            all.Append(await rows.ExecuteScalarAsync(TestContext.Current.CancellationToken) as string);
        }
        return all.ToString();
    }

    [Fact]
    public async Task AnErasedPlantIsGoneWithAllThatWasRecordedOfIt()
    {
        var (plant, visit, name) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var mark = Guid.NewGuid().ToString("N");
        var (tagged, visited) = (Tag(plant, $"tag {mark}"), Visit(plant, visit, $"visit {mark}"));
        await KeepAsync(tagged);
        await KeepAsync(visited);
        await KeepAsync(Named(plant, name, $"Alvena {mark}", $"name {mark}"));
        Assert.Contains(mark, await AllAsync(), StringComparison.Ordinal);
        var last = (long)(await server.GetAsync("/api/v1/changes"))["last"]!;
        await EraseAsync(plant);
        Assert.DoesNotContain(mark, await AllAsync(), StringComparison.Ordinal);
        // Again changes nothing; and the devices are told.
        await EraseAsync(plant);
        Assert.True((bool)(await server.GetAsync($"/api/v1/changes?after={last}"))["erased"]!);
        var told = (await server.GetAsync("/api/v1/erased")).AsArray().ToDictionary(e => (Guid)e!["id"]!, e => (string)e!["kind"]!);
        Assert.Equal(("plant", "visit", "determination"), (told[plant], told[visit], told[name]));
        // What a device still sends of it, new or once more, comes to nothing.
        await ErasedAsync(tagged);
        await ErasedAsync(visited);
        await ErasedAsync(Visit(plant, Guid.CreateVersion7(), "again"));
        await ErasedAsync(Named(Guid.CreateVersion7(), name, "Alvena alba", ""));
        var gone = await server.Client.GetAsync(
            new Uri($"/api/v1/plants/{plant}", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        Assert.Equal(410, (int)gone.StatusCode);
        Assert.DoesNotContain(
            $"Alvena {mark}",
            (await server.GetAsync("/api/v1/records"))["names"]!.ToJsonString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task AnErasedPersonHasNoNameAnywhereAndTheirRecordsStay()
    {
        var (plant, visit) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync(Tag(plant, "tag of a person"));
        await KeepAsync(Visit(plant, visit, "seen by a person"));
        // Named and typed by them, lines of somebody else's list say so by name.
        var visited = Guid.CreateVersion7();
        var other = new JsonObject { ["id"] = Guid.CreateVersion7(), ["name"] = "Asta Holm" };
        await KeepAsync(
            Command(
                "saveSiteVisit",
                ("siteVisitId", visited),
                ("placeId", Place),
                ("date", "2026-05-04"),
                ("startedAt", "09:00"),
                ("people", new JsonArray(other.DeepClone()))
            )
        );
        await KeepAsync(
            Command(
                "listTaxon",
                ("lineId", Guid.CreateVersion7()),
                ("siteVisitId", visited),
                ("taxon", "Alvena alba"),
                ("recorder", other),
                ("details", new JsonObject { ["determiner"] = _name, ["typist"] = _name })
            )
        );
        var listed = (await server.GetAsync($"/api/v1/site-visits/{visited}"))["lines"]![0]!["details"]!;
        Assert.Equal((_name, _name), ((string)listed["determiner"]!, (string)listed["typist"]!));
        await EraseAsync(_person);
        Assert.DoesNotContain(_name, await AllAsync(), StringComparison.Ordinal);
        // A device that still has the name can't bring it back; what it saw counts.
        await KeepAsync(Visit(plant, Guid.CreateVersion7(), "seen later"));
        Assert.DoesNotContain(_name, await AllAsync(), StringComparison.Ordinal);
        var visits = (await server.GetAsync($"/api/v1/plants/{plant}"))["visits"]!.AsArray();
        Assert.Equal(["(erased)", "(erased)"], visits.Select(v => (string)v!["recorder"]!));
    }

    [Fact]
    public async Task AnErasedNameUncoversTheOneBefore()
    {
        var (plant, first, second) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync(Tag(plant, "tag with two names"));
        await KeepAsync(Named(plant, first, "Alvena alba", ""));
        await KeepAsync(Named(plant, second, "Alvena nigra", "A mistake, and whose it is."));
        await EraseAsync(second);
        var found = await server.GetAsync($"/api/v1/plants/{plant}");
        Assert.Equal(["Alvena alba"], found["determinations"]!.AsArray().Select(d => (string)d!["names"]![0]!));
        var line = Assert.Single((await server.GetAsync("/api/v1/plants?text=two%20names")).AsArray())!;
        Assert.Equal("Alvena alba", (string)line["names"]![0]!);
        await EraseAsync(first);
        Assert.Empty((await server.GetAsync($"/api/v1/plants/{plant}"))["determinations"]!.AsArray());
    }

    [Fact]
    public async Task WhatNothingIsKnownOfCanNotBeErasedAndFactsStayFacts()
    {
        var (status, body) = await server.SendAsync(Command("erase", ("subjectId", Guid.CreateVersion7())));
        Assert.Equal((422, "erase.unknown"), (status, (string)body["code"]!));
        var (plant, visit) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync(Tag(plant, "tag of a fact"));
        await KeepAsync(Visit(plant, visit, "a fact"));
        await using var source = NpgsqlDataSource.Create(server.ConnectionString);
        await using var change = source.CreateCommand($"delete from plant_visit where id = '{visit}'");
        await Assert.ThrowsAsync<PostgresException>(() => change.ExecuteNonQueryAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task ACopyThatIsRestoredBringsNothingErasedBack()
    {
        var stop = TestContext.Current.CancellationToken;
        var (kept, erased) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync(Tag(kept, "stays"));
        await KeepAsync(Tag(erased, "comes back with a copy"));
        var file = Path.Combine(Path.GetTempPath(), $"erased-{Guid.NewGuid():N}.txt");
        try
        {
            // As an erasure after the copy was made had noted it beside the database.
            await File.WriteAllLinesAsync(file, [erased.ToString(), "no id"], stop);
            await using var source = NpgsqlDataSource.Create(server.ConnectionString);
            var settings = new ConfigurationBuilder()
                .AddInMemoryCollection(new Dictionary<string, string?> { ["GARTEN_ERASED"] = file })
                .Build();
            using var list = new ErasedList(new ErasureRepository(source), settings, NullLogger<ErasedList>.Instance);
            await list.ReplayAsync(stop);
            await list.ReplayAsync(stop);
            Assert.Equal(1, (await File.ReadAllLinesAsync(file, stop)).Count(l => l == erased.ToString()));
        }
        finally
        {
            File.Delete(file);
        }
        Assert.Equal("stays", (string)(await server.GetAsync($"/api/v1/plants/{kept}"))["label"]!);
        await ErasedAsync(Visit(erased, Guid.CreateVersion7(), "x"));
    }
}
