namespace Garten.Server.Features.Erasure;

/// <summary>What was erased on request, for devices that have to forget it too.</summary>
internal sealed class ErasureFeature : IFeature
{
    public void Add(IServiceCollection services)
    {
        services.AddSingleton<ErasureRepository>();
        services.AddSingleton<ErasedList>();
        services.AddHostedService(all => all.GetRequiredService<ErasedList>());
    }

    public void Map(RouteGroupBuilder api) =>
        api.MapGet("/erased", async (ErasureRepository erased, CancellationToken stop) => TypedResults.Ok(await erased.ListAsync(stop)))
            .WithName("listErased")
            .WithSummary("Ids of what was erased on request: a device forgets it, and whatever names one is answered “erased”.");
}
