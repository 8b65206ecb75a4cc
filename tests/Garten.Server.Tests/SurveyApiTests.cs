using System.Text.Json.Nodes;
using Xunit;

namespace Garten.Server.Tests;

public sealed class SurveyApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private readonly Guid _place = Guid.CreateVersion7();
    private readonly Guid _recorder = Guid.CreateVersion7();

    public async ValueTask InitializeAsync() =>
        await KeepAsync(
            new()
            {
                ["kind"] = "savePlace",
                ["placeId"] = _place,
                ["name"] = "=Lang Meadow",
                ["locality"] = "Torvane",
                ["latitude"] = 57.4,
                ["longitude"] = -11.2,
                ["uncertaintyMetres"] = 150,
                ["caution"] = "",
                ["elevationMetres"] = 20,
            }
        );

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private JsonObject Recorder() => new() { ["id"] = _recorder, ["name"] = "Örn Askling" };

    private static string DaysAgo(int days) => DateOnly.FromDateTime(DateTime.Now).AddDays(-days).ToString("yyyy-MM-dd");

    private JsonObject Tag(Guid plant, int daysAgo = 30) =>
        new()
        {
            ["kind"] = "tagPlant",
            ["plantId"] = plant,
            ["placeId"] = _place,
            ["label"] = "peg 7",
            ["taggedOn"] = DaysAgo(daysAgo),
            ["recorder"] = Recorder(),
            ["site"] = new JsonObject
            {
                ["latitude"] = 57.4003,
                ["longitude"] = -11.2004,
                ["uncertaintyMetres"] = 6,
            },
            ["finding"] = new JsonObject
            {
                ["landmark"] = "stile",
                ["bearingDegrees"] = 220,
                ["distanceMetres"] = 12,
                ["note"] = "",
            },
        };

    private JsonObject Visit(Guid plant, int daysAgo, string state = "alive") =>
        new()
        {
            ["kind"] = "visitPlant",
            ["visitId"] = Guid.CreateVersion7(),
            ["plantId"] = plant,
            ["date"] = DaysAgo(daysAgo),
            ["recorder"] = Recorder(),
            ["state"] = state,
            ["note"] = "",
        };

    private JsonObject Named(Guid plant, string name, string note, int daysAgo) =>
        new()
        {
            ["kind"] = "recordDetermination",
            ["determinationId"] = Guid.CreateVersion7(),
            ["occurrenceId"] = Guid.CreateVersion7(),
            ["plantId"] = plant,
            ["plantLabel"] = "",
            ["placeId"] = _place,
            ["eventDate"] = DaysAgo(daysAgo),
            ["recorder"] = Recorder(),
            ["startKey"] = "",
            ["answers"] = new JsonArray(),
            ["names"] = new JsonArray(name),
            ["note"] = note,
        };

    private static JsonObject With(JsonObject command, string field, JsonNode? value)
    {
        var changed = (JsonObject)command.DeepClone();
        changed[field] = value;
        return changed;
    }

    private Task<(int Status, JsonNode Body)> SendAsync(JsonObject command) => server.SendAsync(With(command, "id", Guid.CreateVersion7()));

    private async Task KeepAsync(JsonObject command)
    {
        var (status, body) = await SendAsync(command);
        Assert.True(status == 200, body.ToJsonString());
    }

    private async Task RefusedAsync(JsonObject command, string code, string field)
    {
        var (status, body) = await SendAsync(command);
        Assert.True(status is 409 or 422, body.ToJsonString());
        Assert.Equal((code, field), ((string)body["code"]!, (string)body["field"]!));
    }

    [Fact]
    public async Task APlantIsFoundAgainWithItsTagItsVisitsAndItsSexes()
    {
        var plant = Guid.CreateVersion7();
        await KeepAsync(Tag(plant));
        var visit = Visit(plant, 10);
        visit["phases"] = new JsonArray(new JsonObject { ["phase"] = "flower", ["stage"] = "shown" });
        visit["sexes"] = new JsonArray(
            new JsonObject { ["branch"] = "low", ["sex"] = "male" },
            new JsonObject { ["branch"] = "top", ["sex"] = "female" }
        );
        await KeepAsync(visit);
        await KeepAsync(Visit(plant, 3, "notRefound"));
        var found = await server.GetAsync($"/api/v1/plants/{plant}");
        Assert.Equal(
            ("peg 7", DaysAgo(30), "stile", 12),
            (
                (string)found["label"]!,
                (string)found["taggedOn"]!,
                (string)found["finding"]!["landmark"]!,
                (int)found["finding"]!["distanceMetres"]!
            )
        );
        Assert.Equal(["alive", "notRefound"], found["visits"]!.AsArray().Select(v => (string)v!["state"]!));
        Assert.Equal("female", (string)found["visits"]![0]!["sexes"]![1]!["sex"]!);
        var line = (await server.GetAsync($"/api/v1/plants?place={_place}")).AsArray().Single(p => (Guid)p!["id"]! == plant)!;
        Assert.Equal((DaysAgo(10), "notRefound"), ((string)line["lastSeen"]!, (string)line["state"]!));

        await KeepAsync(With(With(Tag(plant), "label", "peg 8"), "version", (int)found["version"]!));
        await RefusedAsync(With(With(Tag(plant), "label", "peg 9"), "version", (int)found["version"]!), "plant.changed", "version");
    }

    [Fact]
    public async Task WhatCantBeOfATaggedPlantIsRefusedAtItsField()
    {
        var plant = Guid.CreateVersion7();
        static JsonObject Site(double latitude) =>
            new()
            {
                ["latitude"] = latitude,
                ["longitude"] = -11.2,
                ["uncertaintyMetres"] = 5,
            };
        await RefusedAsync(With(Tag(plant), "taggedOn", DaysAgo(-2)), "date.future", "taggedOn");
        await RefusedAsync(With(Tag(plant), "label", " "), "label.missing", "label");
        // 0.36 degrees of latitude are 40 km.
        await RefusedAsync(With(Tag(plant), "site", Site(57.76)), "plant.far", "site");
        await RefusedAsync(
            With(
                Tag(plant),
                "finding",
                new JsonObject
                {
                    ["landmark"] = "stile",
                    ["bearingDegrees"] = 400,
                    ["distanceMetres"] = 1,
                    ["note"] = "",
                }
            ),
            "finding.bearing",
            "finding.bearingDegrees"
        );
        await RefusedAsync(Visit(plant, 1), "plant.unknown", "plantId");
        await KeepAsync(Tag(plant));
        await RefusedAsync(With(With(Tag(plant), "site", Site(57.405)), "version", 1), "plant.moved", "site");
        await RefusedAsync(Visit(plant, -2), "date.future", "date");
        await RefusedAsync(Visit(plant, 31), "evidence.before-tag", "date");
        await RefusedAsync(Named(plant, "Alvena rubra", "", 40), "evidence.before-tag", "eventDate");
        var gone = Visit(plant, 1, "notRefound");
        gone["phases"] = new JsonArray(new JsonObject { ["phase"] = "flower", ["stage"] = "shown" });
        await RefusedAsync(gone, "visit.disagrees", "state");
        await KeepAsync(Visit(plant, 20));
        await RefusedAsync(With(With(Tag(plant, 10), "version", 1), "site", null), "plant.tagged-late", "taggedOn");
    }

    [Fact]
    public async Task AChangedNameSaysWhyAndWhatItOverturned()
    {
        var plant = Guid.CreateVersion7();
        await KeepAsync(Tag(plant));
        await KeepAsync(Named(plant, "Alvena rubra", "", 20));
        await RefusedAsync(Named(plant, "Alvena nigra", " ", 5), "name.why", "note");
        await KeepAsync(Named(plant, "Alvena nigra", "The fruit is black.", 5));
        var determinations = (await server.GetAsync($"/api/v1/plants/{plant}"))["determinations"]!;
        Assert.Equal("Alvena rubra", (string)determinations[0]!["overturned"]!["names"]![0]!);
        Assert.Null(determinations[1]!["overturned"]);
    }

    [Fact]
    public async Task APopulationIsCountedPeggedAndThreatened()
    {
        var population = Guid.CreateVersion7();
        JsonObject Count(int number, string day) =>
            new()
            {
                ["kind"] = "countPopulation",
                ["countId"] = Guid.CreateVersion7(),
                ["populationId"] = population,
                ["date"] = day,
                ["recorder"] = Recorder(),
                ["unit"] = "shoots",
                ["number"] = number,
                ["note"] = "",
            };
        JsonObject Threat(string text, string actBy) =>
            new()
            {
                ["kind"] = "noteThreat",
                ["threatId"] = Guid.CreateVersion7(),
                ["populationId"] = population,
                ["notedOn"] = DaysAgo(1),
                ["text"] = text,
                ["actBy"] = actBy,
            };
        await RefusedAsync(Count(1, DaysAgo(0)), "population.unknown", "populationId");
        await KeepAsync(
            new()
            {
                ["kind"] = "savePopulation",
                ["populationId"] = population,
                ["placeId"] = _place,
                ["name"] = "east bank",
                ["taxon"] = "Alvena rubra",
                ["bounds"] = "",
            }
        );
        await RefusedAsync(Count(-1, DaysAgo(0)), "count.negative", "number");
        await RefusedAsync(Count(5, DaysAgo(-3)), "date.future", "date");
        var wrong = Count(900, DaysAgo(400));
        await KeepAsync(wrong);
        await KeepAsync(With(Count(100, DaysAgo(400)), "supersedes", (Guid)wrong["countId"]!));
        await RefusedAsync(With(Count(1, DaysAgo(1)), "supersedes", Guid.CreateVersion7()), "count.supersedes", "supersedes");
        await KeepAsync(Count(0, DaysAgo(2)));
        foreach (var (label, state) in new[] { ("a", "alive"), ("b", "notRefound"), ("c", "dead") })
        {
            var peg = Guid.CreateVersion7();
            await KeepAsync(With(With(Tag(peg), "populationId", population), "label", label));
            await KeepAsync(Visit(peg, 2, state));
        }
        await RefusedAsync(Threat("Ditch clearing", DaysAgo(5)), "threat.past", "actBy");
        var threat = Threat("Ditch clearing", DaysAgo(-20));
        await KeepAsync(threat);
        await KeepAsync(With(Threat("Agreed to wait until the seed is ripe.", ""), "closes", (Guid)threat["threatId"]!));

        var found = (await server.GetAsync("/api/v1/populations")).AsArray().Single(p => (Guid)p!["id"]! == population)!;
        Assert.Equal(3, found["counts"]!.AsArray().Count);
        var change = found["summary"]!["changes"]![0]!;
        Assert.Equal((100, 0), ((int)change["from"]!, (int)change["to"]!));
        var alive = found["summary"]!["years"]!.AsArray()[^1]!["alive"]!;
        Assert.Equal((1, 2, 1), ((int)alive["count"]!, (int)alive["known"]!, (int)alive["unknown"]!));
        Assert.Equal("Agreed to wait until the seed is ripe.", (string)found["threats"]!.AsArray().Single()!["dealtWith"]!);

        var csv = await server.Client.GetStringAsync(
            new Uri("/api/v1/populations.csv", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        Assert.Contains("'=Lang Meadow,east bank,Alvena rubra,", csv, StringComparison.Ordinal);
    }

    [Fact]
    public async Task AFirstNeedsANotYetAtMostTenDaysBefore()
    {
        var year = DateTime.Now.Year - 1;
        async Task<int> FirstsAsync(int notYet, int shown, string name)
        {
            var plant = Guid.CreateVersion7();
            await KeepAsync(With(With(Tag(plant), "taggedOn", $"{year}-04-01"), "label", name));
            await KeepAsync(With(Named(plant, name, "", 0), "eventDate", $"{year}-04-01"));
            foreach (var (day, stage) in new[] { (notYet, "notYet"), (shown, "shown") })
            {
                var visit = With(Visit(plant, 0), "date", new DateOnly(year, 4, day).ToString("yyyy-MM-dd"));
                visit["phases"] = new JsonArray(new JsonObject { ["phase"] = "flower", ["stage"] = stage });
                await KeepAsync(visit);
            }
            return (await server.GetAsync($"/api/v1/seasons/firsts?year={year}")).AsArray().Count(f => (string)f!["taxon"]! == name);
        }
        Assert.Equal(1, await FirstsAsync(2, 12, "Alvena prima"));
        Assert.Equal(0, await FirstsAsync(2, 13, "Alvena tarda"));
        Assert.Equal(
            422,
            (int)
                (
                    await server.Client.GetAsync(
                        new Uri("/api/v1/seasons/firsts?year=3", UriKind.Relative),
                        TestContext.Current.CancellationToken
                    )
                ).StatusCode
        );
    }

    [Fact]
    public async Task AVisitIsMovedAndItsLossesAreNamed()
    {
        static JsonObject Need(string id, int from, int to) =>
            new()
            {
                ["id"] = id,
                ["place"] = "p",
                ["windows"] = new JsonArray(new JsonObject { ["from"] = from, ["to"] = to }),
            };
        var (status, body) = await server.PostAsync(
            "/api/v1/seasons/visits/move",
            new JsonObject { ["date"] = "2026-06-09", ["needs"] = new JsonArray(Need("a", 1, 10), Need("b", 340, 200)) }
        );
        Assert.Equal((200, "a", "b"), (status, (string)body["lost"]![0]!, (string)body["kept"]![0]!));
        Assert.Equal(
            422,
            (
                await server.PostAsync(
                    "/api/v1/seasons/visits/move",
                    new JsonObject { ["date"] = "2026-06-09", ["needs"] = new JsonArray(Need("a", 0, 10)) }
                )
            ).Status
        );
        Assert.Equal(
            404,
            (await server.PostAsync("/api/v1/seasons/year", new JsonObject { ["floraId"] = "nowhere", ["date"] = "2026-06-09" })).Status
        );
    }
}
