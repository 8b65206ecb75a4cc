using System.Globalization;
using Garten.Core.Contracts;
using Garten.Server.Hosting.Beyond;
using Microsoft.Extensions.Caching.Memory;

namespace Garten.Server.Features.Places;

/// <summary>What came of asking for a tile.</summary>
/// <param name="Content">The picture; null where none came.</param>
/// <param name="Type">Its media type.</param>
/// <param name="IsLate">Whether the other server was waited for in vain.</param>
internal sealed record Tile(byte[]? Content, string Type, bool IsLate = false);

/// <summary>Tiles of a server elsewhere that may lie under the drawn map, where whoever runs this one has set it. They are fetched by this
/// server: no device tells another one which part of the map it looks at, and the pages may load nothing from elsewhere.</summary>
internal sealed class TileSource : IDisposable
{
    // Kept in memory: some thousands of tiles.
    private const long MostBytes = 64L << 20;

    // A tile has a few ten thousand bytes.
    private const int LargestTile = 1 << 20;

    // At once, so that a map that is dragged doesn't flood the other server.
    private const int MostAtOnce = 6;

    private const int FinestOfAll = 22;
    private const int UsualFinest = 18;
    private const int LongestCredit = 200;

    private static readonly TimeSpan Kept = TimeSpan.FromDays(1);
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(5);
    private static readonly string[] Types = ["image/png", "image/jpeg", "image/webp"];

    private readonly string _template;
    private readonly HttpClient _client;
    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = MostBytes });
    private readonly SemaphoreSlim _turns = new(MostAtOnce);

    /// <summary>Takes the settings.</summary>
    /// <exception cref="UnusableSettingException">They can't be used; the message says why.</exception>
    public TileSource(IConfiguration settings)
    {
        _template = settings["GARTEN_TILES"] ?? "";
        // Where the other server sends one on to a third, that one wasn't set.
        _client = new HttpClient(new SocketsHttpHandler { AllowAutoRedirect = false, UseCookies = false }) { Timeout = Patience };
        _client.DefaultRequestHeaders.UserAgent.ParseAdd("Garten/1.0");
        if (_template.Length == 0)
            return;
        if (!"zxy".All(c => _template.Contains($"{{{c}}}", StringComparison.Ordinal)))
            throw new UnusableSettingException($"“{_template}” lacks {{z}}, {{x}} or {{y}}, which stand for the tile that is asked for.");
        if (
            !Uri.TryCreate(Address(0, 0, 0), UriKind.Absolute, out var address)
            || !(address.Scheme == "https" || address is { Scheme: "http", IsLoopback: true })
        )
            throw new UnusableSettingException(
                $"“{_template}” isn't an address over https, such as https://tiles.example/{{z}}/{{x}}/{{y}}.png."
            );
        var credit = settings["GARTEN_TILES_CREDIT"]?.Trim() ?? "";
        if (credit.Length is 0 or > LongestCredit)
            throw new UnusableSettingException("Say whose the tiles are (--tiles-credit): it stands under the map.");
        var finest = settings["GARTEN_TILES_FINEST"] is { Length: > 0 } text
            ? int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var it) && it <= FinestOfAll
                ? it
                : throw new UnusableSettingException($"The finest tiles are a number of 0 to {FinestOfAll}, not “{text}”.")
            : UsualFinest;
        Told = new MapTiles(credit, finest);
    }

    /// <summary>What pages are told of them; null where none are set.</summary>
    public MapTiles? Told { get; }

    private string Address(int z, int x, int y) =>
        _template
            .Replace("{z}", z.ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("{x}", x.ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("{y}", y.ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal);

    /// <summary>Whether there can be such a tile.</summary>
    public bool Has(int z, int x, int y) => Told is { } told && z >= 0 && z <= told.Finest && x >= 0 && x < 1 << z && y >= 0 && y < 1 << z;

    /// <summary>Fetches a tile, or takes the one that was fetched within a day.</summary>
    public async Task<Tile> FetchAsync(int z, int x, int y, CancellationToken stop)
    {
        if (_cache.TryGetValue((z, x, y), out Tile? known))
            return known!;
        await _turns.WaitAsync(stop);
        try
        {
            using var answer = await _client.GetAsync(new Uri(Address(z, x, y)), HttpCompletionOption.ResponseHeadersRead, stop);
            var type = answer.Content.Headers.ContentType?.MediaType ?? "";
            if (!answer.IsSuccessStatusCode || !Types.Contains(type) || answer.Content.Headers.ContentLength > LargestTile)
                return new Tile(null, "");
            await using var content = await answer.Content.ReadAsStreamAsync(stop);
            using var late = CancellationTokenSource.CreateLinkedTokenSource(stop);
            late.CancelAfter(Patience);
            var bytes = new byte[LargestTile + 1];
            var length = await content.ReadAtLeastAsync(bytes, bytes.Length, throwOnEndOfStream: false, late.Token);
            if (length > LargestTile)
                return new Tile(null, "");
            var tile = new Tile(bytes[..length], type);
            return _cache.Set((z, x, y), tile, new MemoryCacheEntryOptions { AbsoluteExpirationRelativeToNow = Kept, Size = length });
        }
        catch (Exception failure) when (failure is HttpRequestException or IOException)
        {
            return new Tile(null, "");
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            return new Tile(null, "", IsLate: true);
        }
        finally
        {
            _turns.Release();
        }
    }

    public void Dispose()
    {
        _client.Dispose();
        _cache.Dispose();
        _turns.Dispose();
    }
}
