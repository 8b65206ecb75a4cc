using Garten.Core.Confirmation;

namespace Garten.Server.Features.Identify;

/// <summary>What names are judged by.</summary>
internal sealed class IdentifyFeature : IFeature
{
    public void Map(RouteGroupBuilder api) =>
        api.MapGet("/identify/grades", () => GradeRules.Shipped)
            .Produces<IReadOnlyList<GradeRules>>()
            .WithName("listGradeRules")
            .WithSummary("The tables of grades that ship: what each grade asks for.");
}
