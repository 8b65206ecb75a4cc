using System.Net;
using System.Text;
using Garten.Server.Features.Places;
using Garten.Server.Hosting.Beyond;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Configuration;
using Xunit;

namespace Garten.Server.Tests;

/// <summary>A server of tiles with the failures of a real one, on this machine.</summary>
public sealed class TileStandIn : IAsyncLifetime
{
    private WebApplication _app = null!;

    public static byte[] Picture { get; } = [0x89, 0x50, 0x4E, 0x47, 1, 2, 3];

    public string Address { get; private set; } = "";

    public int Asked { get; private set; }

    public async ValueTask InitializeAsync()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        _app = builder.Build();
        _app.MapGet("/{z}/{x}/{y}.png", async (int z, int x, HttpContext context) =>
        {
            Asked++;
            if (z == 5)
                await Task.Delay(TimeSpan.FromMinutes(1), context.RequestAborted);
            return z switch
            {
                1 => Results.Text("<html>Please log in</html>", "text/html"),
                2 => Results.Bytes(new byte[(1 << 20) + 1], "image/png"),
                3 => Results.StatusCode(500),
                4 => Results.Redirect("/0/0/0.png"),
                _ => Results.Bytes([.. Picture, (byte)x], "image/png"),
            };
        });
        await _app.StartAsync();
        Address = _app.Urls.First() + "/{z}/{x}/{y}.png";
    }

    public ValueTask DisposeAsync() => _app.DisposeAsync();
}

public sealed class TileTests(TileStandIn tiles, GartenServer server) : IClassFixture<TileStandIn>, IClassFixture<GartenServer>
{
    private static IConfiguration Settings(string address, string? credit = "Survey office of Torvane", string? finest = null) =>
        new ConfigurationBuilder()
            .AddInMemoryCollection(
                new Dictionary<string, string?>
                {
                    ["GARTEN_TILES"] = address,
                    ["GARTEN_TILES_CREDIT"] = credit,
                    ["GARTEN_TILES_FINEST"] = finest,
                }
            )
            .Build();

    [Fact]
    public async Task ATileIsFetchedOnceAndWhatIsNoneIsLeft()
    {
        var stop = TestContext.Current.CancellationToken;
        using var source = new TileSource(Settings(tiles.Address, finest: "12"));
        Assert.Equal(("Survey office of Torvane", 12), (source.Told!.Credit, source.Told.Finest));
        var before = tiles.Asked;
        var tile = await source.FetchAsync(10, 7, 3, stop);
        Assert.Equal([.. TileStandIn.Picture, 7], tile.Content);
        Assert.Equal("image/png", tile.Type);
        Assert.Same(tile, await source.FetchAsync(10, 7, 3, stop));
        Assert.Equal(before + 1, tiles.Asked);
        // A page to log in, one far too large, an error, a way elsewhere.
        foreach (var z in new[] { 1, 2, 3, 4 })
            Assert.Equal(
                (null, false),
                ((await source.FetchAsync(z, 0, 0, stop)).Content, (await source.FetchAsync(z, 0, 0, stop)).IsLate)
            );
        Assert.True((await source.FetchAsync(5, 0, 0, stop)).IsLate);
        Assert.True(source.Has(12, 4095, 0));
        Assert.False(source.Has(12, 4096, 0) || source.Has(13, 0, 0) || source.Has(-1, 0, 0) || source.Has(0, 0, -1));
    }

    [Fact]
    public async Task PagesAreToldWhoseTheyAreAndGetThemFromThisServer()
    {
        var stop = TestContext.Current.CancellationToken;
        await using var with = server.With(b =>
            b.UseSetting("GARTEN_TILES", tiles.Address).UseSetting("GARTEN_TILES_CREDIT", "Survey office of Torvane")
        );
        using var client = with.CreateClient();
        var told = await client.GetStringAsync(new Uri("/api/v1/map/tiles", UriKind.Relative), stop);
        Assert.Contains("Survey office of Torvane", told, StringComparison.Ordinal);
        // Where they come from is the server's own business.
        Assert.DoesNotContain(tiles.Address, told, StringComparison.Ordinal);
        var tile = await client.GetAsync(new Uri("/api/v1/map/tiles/9/4/4", UriKind.Relative), stop);
        Assert.Equal([.. TileStandIn.Picture, 4], await tile.Content.ReadAsByteArrayAsync(stop));
        Assert.Equal("image/png", tile.Content.Headers.ContentType?.MediaType);
        Assert.Equal(TimeSpan.FromDays(1), tile.Headers.CacheControl?.MaxAge);
        var missing = await client.GetAsync(new Uri("/api/v1/map/tiles/3/1/1", UriKind.Relative), stop);
        Assert.Equal(HttpStatusCode.BadGateway, missing.StatusCode);
        Assert.Contains("no-store", missing.Headers.CacheControl?.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task WhoGoesAwayIsNotWaitedFor()
    {
        using var source = new TileSource(Settings(tiles.Address));
        using var gone = new CancellationTokenSource(TimeSpan.FromMilliseconds(50));
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => source.FetchAsync(5, 1, 1, gone.Token));
    }

    [Theory]
    [InlineData("https://tiles.example/{z}/{x}.png", "credit", null, "{y}")]
    [InlineData("http://tiles.example/{z}/{x}/{y}.png", "credit", null, "https")]
    [InlineData("file:///{z}/{x}/{y}.png", "credit", null, "https")]
    [InlineData("{z}/{x}/{y}", "credit", null, "https")]
    [InlineData("https://tiles.example/{z}/{x}/{y}.png", " ", null, "--tiles-credit")]
    [InlineData("https://tiles.example/{z}/{x}/{y}.png", "credit", "23", "finest")]
    [InlineData("https://tiles.example/{z}/{x}/{y}.png", "credit", "fine", "finest")]
    public void SettingsThatCannotBeUsedAreSaid(string address, string credit, string? finest, string said) =>
        Assert.Contains(
            said,
            Assert.Throws<UnusableSettingException>(() => new TileSource(Settings(address, credit, finest))).Message,
            StringComparison.Ordinal
        );

    [Fact]
    public async Task WhereNoneAreSetThereAreNone()
    {
        Assert.Null((await server.GetAsync("/api/v1/map/tiles"))["tiles"]);
        var none = await server.Client.GetAsync(
            new Uri("/api/v1/map/tiles/3/1/1", UriKind.Relative),
            TestContext.Current.CancellationToken
        );
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
        Assert.Contains(
            "tile.unknown",
            Encoding.UTF8.GetString(await none.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)),
            StringComparison.Ordinal
        );
    }
}
