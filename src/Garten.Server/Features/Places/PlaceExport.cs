using Garten.Core.Contracts;
using Garten.Formats.Shapes;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Places;

/// <summary>Places with their boundaries, parts, ways in and hazards as files for maps and receivers.</summary>
internal static class PlaceExport
{
    private const string Problem = "application/problem+json";

    public static void Map(RouteGroupBuilder api)
    {
        foreach (var (ending, form) in ShapeWriter.Forms)
            api.MapGet(
                    $"/places.{ending}",
                    async (Guid? place, PlaceRepository places, GroundRepository grounds, Turnstile turns, CancellationToken stop) =>
                    {
                        using var turn = await turns.ExportAsync(stop);
                        var all = (await places.ListAsync(stop)).Where(p => place is null || p.Id == place).ToList();
                        if (place is not null && all.Count == 0)
                            return Problems.Result(404, "place.unknown", "This place isn't known.", "Choose among the places.", "place");
                        var described = (await grounds.ListAsync(stop)).ToDictionary(g => g.PlaceId, g => g.Ground);
                        return await WholeFiles.SendAsync(ShapeWriter.TypeOf(form), $"garten-places.{ending}", file =>
                        {
                            ShapeWriter.Write(file, form, all.SelectMany(p => PlaceShapes.Of(p, described.GetValueOrDefault(p.Id))));
                            return Task.FromResult<ProblemReport?>(null);
                        });
                    }
                )
                .Produces<string>(200, ShapeWriter.TypeOf(form))
                .Produces<ProblemReport>(404, Problem)
                .Produces<ProblemReport>(503, Problem)
                .Exact()
                .WithName($"exportPlaces{char.ToUpperInvariant(ending[0])}{ending[1..]}")
                .WithSummary("Places with boundary, parts, ways in and hazards; all of them, or one.");
    }
}
