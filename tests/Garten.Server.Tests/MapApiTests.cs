using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Garten.Core.Contracts;
using Xunit;

namespace Garten.Server.Tests;

public sealed class MapApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private readonly Guid _place = Guid.CreateVersion7();

    public async ValueTask InitializeAsync() =>
        await KeepAsync(
            new()
            {
                ["kind"] = "savePlace",
                ["placeId"] = _place,
                ["name"] = "Lang Meadow",
                ["locality"] = "Torvane",
                ["latitude"] = 57.4,
                ["longitude"] = -11.2,
                ["uncertaintyMetres"] = 150,
                ["caution"] = "",
            }
        );

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static JsonObject Recorder() => new() { ["id"] = Guid.CreateVersion7(), ["name"] = "Örn Askling" };

    private async Task<JsonNode> SendAsync(JsonObject command)
    {
        command["id"] = Guid.CreateVersion7();
        var (_, answer) = await server.SendAsync(command);
        return answer["results"]?[0] ?? answer;
    }

    private async Task KeepAsync(JsonObject command)
    {
        var result = await SendAsync(command);
        Assert.True(result["status"]?.ToString() == "applied", result.ToJsonString());
    }

    private JsonObject Described(string outline, int? version = null) =>
        new()
        {
            ["kind"] = "describePlace",
            ["placeId"] = _place,
            ["ground"] = new JsonObject
            {
                ["outline"] = JsonNode.Parse(outline),
                ["parts"] = new JsonArray(),
                ["entrances"] = new JsonArray(),
                ["hazards"] = new JsonArray(),
                ["leave"] = null,
            },
            ["version"] = version,
        };

    private const string Triangle =
        """[{"latitude":57.401,"longitude":-11.201},{"latitude":57.401,"longitude":-11.199},{"latitude":57.399,"longitude":-11.2}]""";

    private const string Crossed =
        """[{"latitude":57.399,"longitude":-11.201},{"latitude":57.401,"longitude":-11.199},{"latitude":57.399,"longitude":-11.199},{"latitude":57.401,"longitude":-11.201}]""";

    [Fact]
    public async Task AGroundIsKeptWithItsVersionAndAnotherOneIsNeverOverwrittenUnseen()
    {
        await KeepAsync(Described(Triangle));
        var stale = await SendAsync(Described(Triangle));
        Assert.Equal("ground.changed", (string?)stale["code"]);
        var crossed = await SendAsync(Described(Crossed, 1));
        Assert.Equal("ground.invalid", (string?)crossed["code"]);
        Assert.Contains("crosses itself", (string)crossed["detail"]!, StringComparison.Ordinal);
        var asFile = await server.GetAsync($"/api/v1/places.geojson?place={_place}");
        Assert.Equal(
            [("place", "Point"), ("boundary", "Polygon")],
            asFile["features"]!.AsArray().Select(f => ((string)f!["properties"]!["kind"]!, (string)f["geometry"]!["type"]!))
        );
        var gpx = await server.Client.GetStringAsync($"/api/v1/places.gpx?place={_place}", TestContext.Current.CancellationToken);
        Assert.Contains("<trk>", gpx, StringComparison.Ordinal);
        var none = await server.Client.GetAsync($"/api/v1/places.kml?place={Guid.NewGuid()}", TestContext.Current.CancellationToken);
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
        await KeepAsync(Described("[]", 1));
        var ground = (await server.GetAsync("/api/v1/places/grounds")).AsArray().Single(g => (string)g!["placeId"]! == _place.ToString());
        Assert.Equal((2, 0), ((int)ground!["version"]!, ground["ground"]!["outline"]!.AsArray().Count));
        // A device comes to the same from the command that waits.
        var made = new GroundsDocument(
            [],
            new Waiting(
                "2026-05-01",
                [
                    JsonDocument
                        .Parse(
                            new JsonObject(Described(Triangle).ToDictionary(p => p.Key, p => p.Value?.DeepClone()))
                            {
                                ["id"] = Guid.CreateVersion7(),
                            }.ToJsonString()
                        )
                        .RootElement,
                ],
                []
            )
        ).Tell();
        Assert.Equal((1, 3), (made[0].Version, made[0].Ground.Outline.Count));
        Assert.True(made[0].SquareMetres > 10_000);
    }

    [Fact]
    public async Task WhatWasRecordedWithAPositionStandsOnTheMap()
    {
        var (plant, visit) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await KeepAsync(
            new()
            {
                ["kind"] = "tagPlant",
                ["plantId"] = plant,
                ["placeId"] = _place,
                ["label"] = "peg 1",
                ["taggedOn"] = "2026-05-01",
                ["recorder"] = Recorder(),
                ["site"] = JsonNode.Parse("""{"latitude":57.4001,"longitude":-11.2001,"uncertaintyMetres":5}"""),
            }
        );
        await KeepAsync(
            new()
            {
                ["kind"] = "saveSiteVisit",
                ["siteVisitId"] = visit,
                ["placeId"] = _place,
                ["date"] = "2026-05-01",
                ["startedAt"] = "09:00",
                ["people"] = new JsonArray(Recorder()),
            }
        );
        foreach (var (taxon, hasSite) in new[] { ("Alvena alba", true), ("Alvena nigra", false) })
            await KeepAsync(
                new()
                {
                    ["kind"] = "listTaxon",
                    ["lineId"] = Guid.CreateVersion7(),
                    ["siteVisitId"] = visit,
                    ["taxon"] = taxon,
                    ["recorder"] = Recorder(),
                    ["site"] = hasSite ? JsonNode.Parse("""{"latitude":57.4002,"longitude":-11.2002,"uncertaintyMetres":8}""") : null,
                }
            );
        var points = (await server.GetAsync($"/api/v1/map/points?place={_place}")).AsArray();
        Assert.Equal(
            [("plant", "peg 1", plant.ToString()), ("line", "Alvena alba", visit.ToString())],
            points.Select(p => ((string)p!["kind"]!, (string)p["called"]!, (string)p["id"]!))
        );
        Assert.Single((await server.GetAsync("/api/v1/map/points?taxon=Alvena%20alba")).AsArray());
    }

    private static MultipartFormDataContent File(string text) =>
        new() { { new ByteArrayContent(Encoding.UTF8.GetBytes(text)), "file", "brought" } };

    [Fact]
    public async Task AnOwnMapTakesThePlaceOfTheOneBefore()
    {
        const string map =
            """{"type":"FeatureCollection","features":[{"type":"Feature","properties":{"kind":"stream"},"geometry":{"type":"LineString","coordinates":[[-11,57],[-11,57.1]]}}]}""";
        foreach (var it in new[] { map, map.Replace("stream", "path", StringComparison.Ordinal) })
            Assert.Equal(
                System.Net.HttpStatusCode.NoContent,
                (
                    await server.Client.PostAsync(
                        new Uri("/api/v1/map/base", UriKind.Relative),
                        File(it),
                        TestContext.Current.CancellationToken
                    )
                ).StatusCode
            );
        var drawn = await server.GetAsync("/api/v1/map/base");
        Assert.Equal(["path"], drawn["features"]!.AsArray().Select(f => (string)f!["properties"]!["kind"]!));
        foreach (
            var broken in new[] { "", "{}", """{"type":"FeatureCollection","features":[]}""", """{"type":"Point","coordinates":[1,2]}""" }
        )
            Assert.Equal(422, (await server.PostTextAsync("/api/v1/map/base", File(broken))).Status);
        Assert.Equal(415, (await server.PostTextAsync("/api/v1/map/base", new StringContent(map))).Status);
        var (status, read) = await server.PostTextAsync("/api/v1/map/shapes", File(map));
        Assert.Equal(200, status);
        Assert.Equal("line", (string?)read["shapes"]![0]!["kind"]);
    }

    [Fact]
    public async Task AScannedSheetIsLaidByItsCornersAndRefusedWhereItIsNone()
    {
        var stop = TestContext.Current.CancellationToken;
        byte[] png = [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 1, 2, 3];
        async Task<JsonNode> BringAsync(
            byte[] content,
            string name = "old survey",
            string south = "57.3",
            string north = "57.5",
            string east = "-11.1",
            string? top = null
        )
        {
            using var form = new MultipartFormDataContent
            {
                { new ByteArrayContent(content), "file", "sheet.png" },
                { new StringContent(name), "name" },
                { new StringContent(south), "south" },
                { new StringContent("-11.3"), "west" },
                { new StringContent(north), "north" },
                { new StringContent(east), "east" },
            };
            if (top is not null)
            {
                form.Add(new StringContent(top), "topLeftLatitude");
                form.Add(new StringContent("-11.3"), "topLeftLongitude");
            }
            return (await server.PostTextAsync("/api/v1/map/sheets", form)).Body;
        }
        Assert.Equal("sheet.picture", (string?)(await BringAsync("GIF89a"u8.ToArray()))["code"]);
        Assert.Equal("sheet.name", (string?)(await BringAsync(png, name: " "))["code"]);
        Assert.Equal("sheet.corners", (string?)(await BringAsync(png, south: "here"))["code"]);
        Assert.Equal("sheet.corners", (string?)(await BringAsync(png, south: "57.6"))["code"]);
        Assert.Equal("sheet.corners", (string?)(await BringAsync(png, north: "NaN"))["code"]);
        Assert.Contains("km across", (string?)(await BringAsync(png, north: "80", east: "20"))["title"], StringComparison.Ordinal);
        Assert.Equal("topLeft", (string?)(await BringAsync(png, top: "up"))["field"]);
        Assert.Equal("topLeft", (string?)(await BringAsync(png, top: "57.3"))["field"]);
        var turned = (string)(await BringAsync(png, "turned", north: "57.42", top: "57.5"))["id"]!;
        Assert.Equal(57.5, (double)Assert.Single((await server.GetAsync("/api/v1/map/sheets")).AsArray())!["topLeft"]!["latitude"]!);
        await server.Client.DeleteAsync(new Uri($"/api/v1/map/sheets/{turned}", UriKind.Relative), stop);
        var id = (string)(await BringAsync(png))["id"]!;
        var picture = await server.Client.GetAsync(new Uri($"/api/v1/map/sheets/{id}", UriKind.Relative), stop);
        Assert.Equal("image/png", picture.Content.Headers.ContentType?.MediaType);
        Assert.Equal(png, await picture.Content.ReadAsByteArrayAsync(stop));
        var listed = Assert.Single((await server.GetAsync("/api/v1/map/sheets")).AsArray())!;
        Assert.Equal((57.3, -11.1), ((double)listed["bottomLeft"]!["latitude"]!, (double)listed["topRight"]!["longitude"]!));
        await server.Client.DeleteAsync(new Uri($"/api/v1/map/sheets/{id}", UriKind.Relative), stop);
        Assert.Empty((await server.GetAsync("/api/v1/map/sheets")).AsArray());
    }
}
