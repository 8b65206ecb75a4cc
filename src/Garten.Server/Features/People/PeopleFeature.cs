namespace Garten.Server.Features.People;

/// <summary>The people who record.</summary>
internal sealed class PeopleFeature : IFeature
{
    public void Add(IServiceCollection services) => services.AddSingleton<PersonRepository>();

    public void Map(RouteGroupBuilder api) =>
        api.MapGet("/people", async (PersonRepository people, CancellationToken stop) => TypedResults.Ok(await people.ListAsync(stop)))
            .WithName("listPeople")
            .WithSummary("All who have recorded.");
}
