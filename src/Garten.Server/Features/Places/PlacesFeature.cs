using Garten.Core.Contracts;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Places;

/// <summary>Recording places.</summary>
internal sealed class PlacesFeature : IFeature
{
    public void Add(IServiceCollection services) => services.AddSingleton<PlaceRepository>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/places", async (PlaceRepository places, CancellationToken stop) => TypedResults.Ok(await places.ListAsync(stop)))
            .Exact()
            .WithName("listPlaces")
            .WithSummary("All recording places.");
        api.MapGet("/places/{id:guid}/merging", async (Guid id, Guid into, PlaceRepository places, CancellationToken stop) =>
                await places.MergingAsync(id, into, stop) is { } outlook
                    ? Results.Ok(outlook)
                    : Problems.Result(
                        404,
                        "place.unknown",
                        "These aren't two places that are known.",
                        "Choose another place; one that was merged already can't be merged again.",
                        "into"
                    )
            )
            .Produces<MergeOutlook>()
            .Produces<ProblemReport>(404, "application/problem+json")
            .Exact()
            .WithName("outlookOfMerging")
            .WithSummary("What making a place a part of another one would do.");
    }
}
