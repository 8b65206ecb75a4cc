using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using Garten.Server.Hosting;
using Garten.Testing;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>What waited on a device, out of its file.</summary>
public sealed class TakingInTests(GartenServer server) : IClassFixture<GartenServer>, IDisposable
{
    private readonly string _file = Path.GetTempFileName();

    public void Dispose() => File.Delete(_file);

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private static JsonObject Saved(params JsonObject[] commands) =>
        new()
        {
            ["format"] = "garten-hand-over",
            ["version"] = 1,
            ["device"] = "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0d77",
            ["written"] = "2026-06-12T18:40:00.000Z",
            ["commands"] = new JsonArray([.. commands.Select(c => new JsonObject { ["command"] = c })]),
        };

    private async Task<(int Code, string Said)> TakeAsync(string text, string phrase = "", HttpClient? client = null)
    {
        await File.WriteAllTextAsync(_file, text, Stop);
        using var said = new StringWriter();
        return (await TakingIn.RunAsync(_file, client ?? server.Client, phrase, said, Stop), said.ToString());
    }

    private static JsonObject Place(Guid id, string name) =>
        Made.Command(
            "savePlace",
            ("placeId", id),
            ("name", name),
            ("locality", "Torvane"),
            ("latitude", 57.1),
            ("longitude", -11.2),
            ("uncertaintyMetres", 200),
            ("caution", "")
        );

    [Fact]
    public async Task AFileIsTakenInOnceHoweverOftenItIsTried()
    {
        var (place, plant) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        // More than are sent at a time, each about what came into being before it.
        JsonObject[] commands =
        [
            Place(place, "Handed Fen"),
            Made.Tag(plant, place, "handed 1"),
            .. Enumerable.Range(0, 120).Select(i => Made.Visit(plant, $"day {i}")),
        ];
        var text = Saved(commands).ToJsonString();
        Assert.Equal((0, "122 changes in the file: 122 taken in, 0 were here already, 0 refused."), Trimmed(await TakeAsync(text)));
        Assert.Equal((0, "122 changes in the file: 0 taken in, 122 were here already, 0 refused."), Trimmed(await TakeAsync(text)));
        Assert.Equal(120, (await server.GetAsync($"/api/v1/plants/{plant}"))["visits"]!.AsArray().Count);
    }

    [Fact]
    public async Task WhatIsRefusedIsSaidAndTheRestIsThere()
    {
        var (place, plant) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var text = Saved(Place(place, "Half Fen"), Made.Visit(Guid.CreateVersion7(), "of no plant"), Made.Tag(plant, place, "handed 2"))
            .ToJsonString();
        var (code, said) = await TakeAsync(text);
        Assert.Equal(1, code);
        Assert.Contains("2 taken in, 0 were here already, 1 refused.", said, StringComparison.Ordinal);
        Assert.Contains("  2 (visitPlant): ", said, StringComparison.Ordinal);
        Assert.Equal("handed 2", (string?)(await server.GetAsync($"/api/v1/plants/{plant}"))["label"]);
        // One alone is answered by its own problem.
        (code, said) = await TakeAsync(Saved(Made.Visit(Guid.CreateVersion7(), "of no plant")).ToJsonString());
        Assert.Equal(1, code);
        Assert.Contains("  1 (visitPlant): ", said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task ALockedFileOpensWithItsPhraseAlone()
    {
        var place = Guid.CreateVersion7();
        var text = Locked(Saved(Place(place, "Locked Fen")).ToJsonString(), "moss and rain", 600_000);
        Assert.Equal((2, "This file is locked: give its pass-phrase."), Trimmed(await TakeAsync(text)));
        Assert.Equal((2, "This pass-phrase doesn’t open it, or the file was changed."), Trimmed(await TakeAsync(text, "moss and sun")));
        Assert.Equal(0, (await TakeAsync(text, "moss and rain")).Code);
        Assert.Contains("Locked Fen", (await server.GetAsync("/api/v1/places")).ToJsonString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("", "cut off")]
    [InlineData("{\"format\":\"garten-hand-over\",\"version\":1,\"comm", "cut off")]
    [InlineData("[1]", "isn’t a file of what waits")]
    [InlineData("{\"format\":7}", "isn’t a file of what waits")]
    [InlineData("{\"format\":\"garten-hand-over\",\"version\":2}", "newer version")]
    [InlineData("{\"format\":\"garten-hand-over\",\"version\":1}", "Nothing stands in this file")]
    [InlineData(
        "{\"format\":\"garten-hand-over\",\"version\":1,\"commands\":[{\"command\":{\"kind\":\"flyAway\"}}]}",
        "Entry 1 of this file"
    )]
    [InlineData("{\"format\":\"garten-hand-over\",\"version\":1,\"commands\":[null]}", "Entry 1 of this file")]
    [InlineData(
        "{\"format\":\"garten-hand-over\",\"version\":1,\"locked\":{\"salt\":\"?\",\"iv\":\"\",\"rounds\":1,\"data\":\"\"}}",
        "isn’t locked in a way"
    )]
    [InlineData(
        "{\"format\":\"garten-hand-over\",\"version\":1,\"locked\":{\"salt\":\"AAAA\",\"iv\":\"AAAAAAAAAAAAAAAA\",\"rounds\":2000000000,\"data\":\"AAAAAAAAAAAAAAAAAAAAAAAA\"}}",
        "isn’t locked in a way"
    )]
    public async Task AnotherFileIsSaidToBeOne(string text, string says)
    {
        var (code, said) = await TakeAsync(text, "any");
        Assert.Equal(2, code);
        Assert.Contains(says, said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task AServerThatBreaksOffIsAskedAgain()
    {
        var (place, plant) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        JsonObject[] commands =
        [
            Place(place, "Broken Fen"),
            Made.Tag(plant, place, "handed 3"),
            .. Enumerable.Range(0, 150).Select(i => Made.Visit(plant, $"day {i}")),
        ];
        var text = Saved(commands).ToJsonString();
        using var failing = new HttpClient(new FailsAtTheSecond(server.Client)) { BaseAddress = server.Client.BaseAddress };
        var (code, said) = await TakeAsync(text, "", failing);
        Assert.Equal(2, code);
        Assert.Contains("152 changes in the file: 100 taken in", said, StringComparison.Ordinal);
        Assert.Contains("Take the file in again", said, StringComparison.Ordinal);
        Assert.Equal((0, "152 changes in the file: 52 taken in, 100 were here already, 0 refused."), Trimmed(await TakeAsync(text)));
    }

    private static (int Code, string Said) Trimmed((int Code, string Said) answer) => (answer.Code, answer.Said.Trim());

    // As a device locks it: docs/formats.md.
    private static string Locked(string plain, string phrase, int rounds)
    {
        var (salt, iv) = (RandomNumberGenerator.GetBytes(16), RandomNumberGenerator.GetBytes(12));
        var (bytes, tag) = (Encoding.UTF8.GetBytes(plain), new byte[16]);
        var data = new byte[bytes.Length];
        using var key = new AesGcm(
            Rfc2898DeriveBytes.Pbkdf2(Encoding.UTF8.GetBytes(phrase), salt, rounds, HashAlgorithmName.SHA256, 32),
            16
        );
        key.Encrypt(iv, bytes, data, tag);
        return new JsonObject
        {
            ["format"] = "garten-hand-over",
            ["version"] = 1,
            ["locked"] = new JsonObject
            {
                ["salt"] = Convert.ToBase64String(salt),
                ["iv"] = Convert.ToBase64String(iv),
                ["rounds"] = rounds,
                ["data"] = Convert.ToBase64String([.. data, .. tag]),
            },
        }.ToJsonString();
    }

    private sealed class FailsAtTheSecond(HttpClient inner) : HttpMessageHandler
    {
        private int _asked;

        protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken stop)
        {
            if (++_asked > 1)
                return new HttpResponseMessage(HttpStatusCode.ServiceUnavailable);
            using var again = new HttpRequestMessage(request.Method, request.RequestUri) { Content = request.Content };
            return await inner.SendAsync(again, stop);
        }
    }
}
