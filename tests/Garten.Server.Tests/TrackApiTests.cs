using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Formats.Shapes;
using Microsoft.AspNetCore.Hosting;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests;

public sealed class TrackApiTests(GartenServer server) : IClassFixture<GartenServer>, IAsyncLifetime
{
    private readonly Guid _place = Guid.CreateVersion7();
    private readonly Guid _visit = Guid.CreateVersion7();
    private readonly JsonObject _recorder = new() { ["id"] = Guid.CreateVersion7(), ["name"] = "Örn Askling" };

    public async ValueTask InitializeAsync()
    {
        await KeepAsync(
            JsonNode.Parse(
                $$"""{"kind":"savePlace","placeId":"{{_place}}","name":"Lang Meadow","locality":"Torvane","latitude":57.4,"longitude":-11.2,"uncertaintyMetres":300,"caution":""}"""
            )!
        );
        await KeepAsync(
            JsonNode.Parse(
                $$"""{"kind":"saveSiteVisit","siteVisitId":"{{_visit}}","placeId":"{{_place}}","date":"2026-05-02","startedAt":"09:00","people":[{{_recorder.ToJsonString()}}]}"""
            )!
        );
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<JsonNode> SendAsync(JsonNode command)
    {
        command["id"] ??= Guid.CreateVersion7();
        var (_, answer) = await server.SendAsync(command.AsObject());
        return answer["results"]?[0] ?? answer;
    }

    private async Task KeepAsync(JsonNode command)
    {
        var result = await SendAsync(command);
        Assert.True(result["status"]?.ToString() == "applied", result.ToJsonString());
    }

    private JsonObject Piece(Guid track, string startedAt, params (double North, int Second)[] points) =>
        new JsonObject
        {
            ["kind"] = "keepTrack",
            ["trackId"] = track,
            ["siteVisitId"] = _visit,
            ["recorder"] = _recorder.DeepClone(),
            ["startedAt"] = startedAt,
            ["source"] = "receiver",
            ["points"] = new JsonArray([
                .. points.Select(p =>
                    (JsonNode)
                        new JsonObject
                        {
                            ["latitude"] = 57.4 + p.North / 111_195,
                            ["longitude"] = -11.2,
                            ["accuracyMetres"] = 4,
                            ["seconds"] = p.Second,
                        }
                ),
            ]),
        };

    private Task<string> TextAsync(string path) =>
        server.Client.GetStringAsync(new Uri(path, UriKind.Relative), TestContext.Current.CancellationToken);

    [Fact]
    public async Task ATrackGrowsByPiecesStandsOnMapAndLeavesAsFiles()
    {
        var track = Guid.CreateVersion7();
        var first = Piece(track, "2026-05-02T09:00:00Z", (0, 0), (60, 60));
        await KeepAsync(first);
        // Sent again it is there once.
        Assert.Equal("already", (string?)(await SendAsync(first.DeepClone()))["status"]);
        await KeepAsync(Piece(track, "2026-05-02T09:10:00Z", (200, 0), (260, 60)));
        var whole = await server.GetAsync($"/api/v1/site-visits/{_visit}");
        Assert.Equal(2, whole["tracks"]!.AsArray().Count);
        // Lists of visits don't carry them.
        Assert.Null((await server.GetAsync($"/api/v1/site-visits?place={_place}"))[0]!["tracks"]);
        var placed = Assert.Single((await server.GetAsync($"/api/v1/map/tracks?place={_place}")).AsArray())!;
        Assert.Equal("120 m, with a gap of 9 min without a position", (string?)placed["track"]!["inWords"]);
        foreach (var ending in new[] { "geojson", "gpx", "kml" })
        {
            var read = TrackFile.Read(Encoding.UTF8.GetBytes(await TextAsync($"/api/v1/tracks.{ending}?visit={_visit}")));
            Assert.Equal(2, read.Ways.Count);
        }
        await KeepAsync(JsonNode.Parse($$"""{"kind":"withdrawTrack","siteVisitId":"{{_visit}}","trackId":"{{track}}"}""")!);
        Assert.Empty((await server.GetAsync($"/api/v1/map/tracks?place={_place}")).AsArray());
        Assert.Empty((await server.GetAsync($"/api/v1/site-visits/{_visit}"))["tracks"]!.AsArray());
        // What was taken back stays among the facts.
        await using var database = NpgsqlDataSource.Create(server.ConnectionString);
        await using var count = database.CreateCommand("select count(*) from track_piece where track_id = $1");
        count.Parameters.Add(new NpgsqlParameter { Value = track });
        Assert.Equal(2L, await count.ExecuteScalarAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task AFileIsKeptAsItWasAndErasedWithItsTrack()
    {
        var stop = TestContext.Current.CancellationToken;
        const string gpx =
            """<gpx xmlns="http://www.topografix.com/GPX/1/1" version="1.1" creator="x"><trk><trkseg><trkpt lat="57.4" lon="-11.2"><time>2026-05-02T09:00:00Z</time></trkpt><trkpt lat="57.401" lon="-11.2"><time>2026-05-02T09:01:00Z</time></trkpt></trkseg></trk></gpx>""";
        using var form = new MultipartFormDataContent { { new ByteArrayContent(Encoding.UTF8.GetBytes(gpx)), "file", "way.gpx" } };
        var read = (await server.PostTextAsync("/api/v1/tracks/files", form)).Body;
        var hash = (string)read["hash"]!;
        var track = Guid.CreateVersion7();
        var piece = Piece(track, (string)read["ways"]![0]!["startedAt"]!);
        piece["points"] = read["ways"]![0]!["points"]!.DeepClone();
        piece["file"] = hash;
        await KeepAsync(piece);
        Assert.Equal(gpx, await TextAsync($"/api/v1/tracks/files/{hash}"));
        await KeepAsync(JsonNode.Parse($$"""{"kind":"erase","subjectId":"{{track}}"}""")!);
        Assert.Empty((await server.GetAsync($"/api/v1/site-visits/{_visit}"))["tracks"]!.AsArray());
        var gone = await server.Client.GetAsync(new Uri($"/api/v1/tracks/files/{hash}", UriKind.Relative), stop);
        Assert.Equal(HttpStatusCode.NotFound, gone.StatusCode);
        var again = await SendAsync(Piece(track, "2026-05-02T10:00:00Z", (0, 0)));
        Assert.Equal("erased", (string?)again["code"]);
    }

    [Fact]
    public async Task WhatCantBeKeptIsRefusedInWords()
    {
        async Task RefusedAsync(string code, Action<JsonNode> spoil)
        {
            var piece = Piece(Guid.CreateVersion7(), "2026-05-02T09:00:00Z", (0, 0), (10, 10));
            spoil(piece);
            var result = await SendAsync(piece);
            Assert.True((string?)result["code"] == code, result.ToJsonString());
        }
        await RefusedAsync("track.points", p => p["points"] = new JsonArray());
        await RefusedAsync("track.points", p => p["startedAt"] = "this morning");
        await RefusedAsync("track.points", p => p["points"]![1]!["latitude"] = 157);
        await RefusedAsync("visit.unknown", p => p["siteVisitId"] = Guid.CreateVersion7());
        await RefusedAsync("track.file", p => p["file"] = new string('a', 64));
        var other = Guid.CreateVersion7();
        await KeepAsync(
            JsonNode.Parse(
                $$"""{"kind":"saveSiteVisit","siteVisitId":"{{other}}","placeId":"{{_place}}","date":"2026-05-03","startedAt":"","people":[{{_recorder.ToJsonString()}}]}"""
            )!
        );
        var track = Guid.CreateVersion7();
        await KeepAsync(Piece(track, "2026-05-02T09:00:00Z", (0, 0)));
        await RefusedAsync("track.other-visit", p => (p["trackId"], p["siteVisitId"]) = (track, other));
        Assert.Equal(
            "track.unknown",
            (string?)
                (await SendAsync(JsonNode.Parse($$"""{"kind":"withdrawTrack","siteVisitId":"{{other}}","trackId":"{{track}}"}""")!))["code"]
        );
    }

    [Fact]
    public async Task StandInsAreThereOnlyWhereTheyAreAskedFor()
    {
        var stop = TestContext.Current.CancellationToken;
        Assert.Empty((await server.GetAsync("/api/v1/stand-ins")).AsArray());
        var off = await server.Client.GetAsync(new Uri($"/api/v1/stand-ins/receiver?place={_place}", UriKind.Relative), stop);
        Assert.Equal(HttpStatusCode.NotFound, off.StatusCode);
        await using var with = server.With(b => b.UseSetting("StandIns:IsOn", "true"));
        using var client = with.CreateClient();
        async Task<string> SayAsync(string path)
        {
            var answer = await client.GetAsync(new Uri("/api/v1/stand-ins" + path, UriKind.Relative), stop);
            return await answer.Content.ReadAsStringAsync(stop);
        }
        NmeaAnswer Heard(string text) => new NmeaRequest(text.Split("\r\n", StringSplitOptions.RemoveEmptyEntries)).Read();
        var well = Heard(await SayAsync($"/receiver?place={_place}&after=0"));
        Assert.All(well.Fixes, f =>
            Assert.InRange(Ring.Metres(new GroundPoint(57.4, -11.2), new GroundPoint(f.Latitude, f.Longitude)), 0, 450)
        );
        Assert.InRange(well.Fixes.Count, 8, 10);
        var late = Heard(await SayAsync($"/receiver?place={_place}&mood=late"));
        Assert.InRange(well.Fixes[^1].Seconds - late.Fixes[^1].Seconds, 20, 30);
        var wrong = Heard(await SayAsync($"/receiver?place={_place}&mood=wrong&after=0"));
        Assert.Contains(wrong.Fixes, f => Ring.Metres(new GroundPoint(57.4, -11.2), new GroundPoint(f.Latitude, f.Longitude)) > 250);
        Assert.Equal("", await SayAsync($"/receiver?place={_place}&mood=silent"));
        Assert.Contains("stand-ins.mood", await SayAsync($"/receiver?place={_place}&mood=tired"), StringComparison.Ordinal);
        Assert.Contains("place.unknown", await SayAsync($"/receiver?place={Guid.CreateVersion7()}"), StringComparison.Ordinal);
        async Task<JsonNode> WeatherAsync(string mood) =>
            JsonNode.Parse(await SayAsync($"/weather?place={_place}&at=2026-05-02T10:00&mood={mood}"))!;
        Assert.Equal("", (string?)(await WeatherAsync("well"))["doubt"]);
        Assert.Contains("°C", (string?)(await WeatherAsync("well"))["inWords"], StringComparison.Ordinal);
        Assert.Contains("hours before", (string?)(await WeatherAsync("late"))["doubt"], StringComparison.Ordinal);
        Assert.Contains("km away", (string?)(await WeatherAsync("wrong"))["doubt"], StringComparison.Ordinal);
        Assert.Contains("date.invalid", await SayAsync($"/weather?place={_place}&at=noon"), StringComparison.Ordinal);
        Assert.Contains("taxon.unknown", await SayAsync("/atlas?flora=none&taxon=none"), StringComparison.Ordinal);
        Assert.Matches(@"^(3[4-9]|4[0-6])\.\d\d\n$", await SayAsync("/calliper?about=40"));
        Assert.Matches(@"^(\d\.\d{4} in|\d\d\.\d\d\d\d\.\d\d)\n$", await SayAsync("/calliper?about=40&mood=wrong"));
        Assert.Equal("", await SayAsync("/calliper?about=40&mood=silent"));
        Assert.Contains("calliper.size", await SayAsync("/calliper?about=4000"), StringComparison.Ordinal);
    }
}
