using System.Diagnostics;
using System.Text.Json.Nodes;
using Garten.Testing;
using Microsoft.AspNetCore.Mvc.Testing;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>A copy of the database, and the way back.</summary>
public sealed class BackupTests(GartenServer server) : IClassFixture<GartenServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private static async Task<(int Exit, string Said)> RunAsync(string connection, params string[] arguments)
    {
        var start = new ProcessStartInfo("bash", [Path.Combine(Repository.Root, "garten"), .. arguments])
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment["GARTEN_DATABASE"] = connection;
        using var process = Process.Start(start)!;
        var (said, wrong) = (process.StandardOutput.ReadToEndAsync(Stop), process.StandardError.ReadToEndAsync(Stop));
        await process.WaitForExitAsync(Stop);
        return (process.ExitCode, await said + await wrong);
    }

    private static readonly string[] Addresses =
    [
        "records.csv",
        "exact/records.csv",
        "exact/populations.csv",
        "places",
        "people",
        "plants",
        "keys",
        "floras",
        "floras/copied-isle/pack",
        "records?limit=100",
    ];

    [Fact]
    public async Task WhatWasCopiedComesBackWholeAndAsAnotherLife()
    {
        // A plant, its determination and a flora of its own.
        var form = new MultipartFormDataContent
        {
            { new StringContent("Copied isle"), "name" },
            { new ByteArrayContent("taxon,petals\nAlvena rara,5\nAlvena vulgaris,4\n"u8.ToArray()), "matrix", "matrix.csv" },
        };
        Assert.Equal(200, (await server.PostTextAsync("/api/v1/floras", form)).Status);
        Assert.True(
            (await server.Client.PostAsync(new Uri("/api/v1/floras/copied-isle/publish", UriKind.Relative), null, Stop)).IsSuccessStatusCode
        );
        var (place, determination) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var (status, body) = await server.SendAsync(
            new JsonObject
            {
                ["kind"] = "savePlace",
                ["id"] = Guid.CreateVersion7(),
                ["placeId"] = place,
                ["name"] = "Lang Meadow",
                ["locality"] = "",
                ["latitude"] = 57.4,
                ["longitude"] = -11.2,
                ["uncertaintyMetres"] = 30,
                ["caution"] = "",
            }
        );
        Assert.True(status == 200, body.ToJsonString());
        var determine = new JsonObject
        {
            ["kind"] = "recordDetermination",
            ["id"] = Guid.CreateVersion7(),
            ["determinationId"] = determination,
            ["occurrenceId"] = Guid.CreateVersion7(),
            ["plantId"] = Guid.CreateVersion7(),
            ["plantLabel"] = "by the gate",
            ["placeId"] = place,
            ["eventDate"] = "2026-05-20",
            ["recorder"] = new JsonObject { ["id"] = Guid.CreateVersion7(), ["name"] = "Ilse Marrin" },
            ["startKey"] = "",
            ["answers"] = new JsonArray(),
            ["names"] = new JsonArray("Alvena rara"),
            ["note"] = "",
            ["observations"] = new JsonArray(),
            ["hand"] = new JsonArray(),
        };
        (status, body) = await server.SendAsync(determine);
        Assert.True(status == 200, body.ToJsonString());

        var folder = Directory.CreateTempSubdirectory();
        var copy = Path.Combine(folder.FullName, "garten.copy");
        var (exit, said) = await RunAsync(server.ConnectionString, "backup", copy);
        Assert.True(exit == 0, said);
        Assert.False((bool)(await server.GetAsync("/api/v1/health"))["copyWanted"]!);
        if (!OperatingSystem.IsWindows())
            Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(copy));

        var database = await TestDatabase.CreateAsync();
        (exit, said) = await RunAsync(database.ConnectionString, "restore", copy);
        Assert.True(exit == 0, said);
        await using (
            var factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b =>
                b.UseSetting("GARTEN_DATABASE", database.ConnectionString).UseSetting("GARTEN_DEMO", "")
            )
        )
        {
            using var restored = factory.CreateClient();
            foreach (var address in Addresses)
            {
                var uri = new Uri("/api/v1/" + address, UriKind.Relative);
                Assert.Equal(await server.Client.GetStringAsync(uri, Stop), await restored.GetStringAsync(uri, Stop));
            }
            var epochs = new[] { server.Client, restored }.Select(async c =>
                (string)JsonNode.Parse(await c.GetStringAsync(new Uri("/api/v1/health", UriKind.Relative), Stop))!["epoch"]!
            );
            Assert.Equal(2, (await Task.WhenAll(epochs)).Distinct().Count());
        }

        // Nothing is written over, and nothing but a whole copy is taken.
        (exit, said) = await RunAsync(database.ConnectionString, "restore", copy);
        Assert.True(exit != 0 && said.Contains("There is something in this database already", StringComparison.Ordinal), said);
        await database.DisposeAsync();
        var empty = await TestDatabase.CreateAsync();
        var bytes = await File.ReadAllBytesAsync(copy, Stop);
        foreach (var (name, content) in new[] { ("half", bytes[..(bytes.Length * 2 / 3)]), ("other", "not a copy"u8.ToArray()) })
        {
            var file = Path.Combine(folder.FullName, name);
            await File.WriteAllBytesAsync(file, content, Stop);
            (exit, said) = await RunAsync(empty.ConnectionString, "restore", file);
            Assert.True(exit != 0, said);
            Assert.Equal(0L, await empty.CountTablesAsync());
        }
        await empty.DisposeAsync();
        folder.Delete(true);
    }
}
