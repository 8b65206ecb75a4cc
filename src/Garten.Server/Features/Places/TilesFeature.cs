using Garten.Core.Contracts;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Places;

/// <summary>Tiles of a server elsewhere under the drawn map.</summary>
internal sealed class TilesFeature : IFeature
{
    private const string Problem = "application/problem+json";
    private const string KeptForADay = "private, max-age=86400";

    public void Add(IServiceCollection services) => services.AddSingleton<TileSource>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/map/tiles", (TileSource tiles) => TypedResults.Ok(new MapBelow(tiles.Told)))
            .WithName("getMapTiles")
            .WithSummary("Whether tiles of a server elsewhere can lie under the drawn map, and whose they are.");

        api.MapGet(
                "/map/tiles/{z:int}/{x:int}/{y:int}",
                async (int z, int x, int y, HttpContext context, TileSource tiles, CancellationToken stop) =>
                {
                    if (!tiles.Has(z, x, y))
                        return Problems.Result(404, "tile.unknown", "There is no such tile.", "Look at the map as it is drawn.", "z");
                    var tile = await tiles.FetchAsync(z, x, y, stop);
                    if (tile.Content is not { } content)
                        return Problems.Result(
                            tile.IsLate ? 504 : 502,
                            "tile.missing",
                            tile.IsLate ? "The server of the tiles doesn't answer." : "The server of the tiles has no such tile.",
                            "The map as it is drawn is there."
                        );
                    context.Response.Headers.CacheControl = KeptForADay;
                    return Results.File(content, tile.Type);
                }
            )
            .Produces<byte[]>(200, "image/png", "image/jpeg", "image/webp")
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(502, Problem)
            .Produces<ProblemReport>(504, Problem)
            .WithName("getMapTile")
            .WithSummary("A tile of the server that was set, fetched by this one and kept for a day.");
    }
}
