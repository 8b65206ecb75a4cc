using Garten.Server.Hosting;

namespace Garten.Server.Features.Places;

/// <summary>Recording places.</summary>
internal sealed class PlacesFeature : IFeature
{
    public void Add(IServiceCollection services) => services.AddSingleton<PlaceRepository>();

    public void Map(RouteGroupBuilder api) =>
        api.MapGet("/places", async (PlaceRepository places, CancellationToken stop) => TypedResults.Ok(await places.ListAsync(stop)))
            .Exact()
            .WithName("listPlaces")
            .WithSummary("All recording places.");
}
