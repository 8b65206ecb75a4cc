using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Formats.Shapes;
using Garten.Server.Features.Floras;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Places;

/// <summary>The map: grounds of places, what they are drawn on, what was recorded where; shapes out of files.</summary>
internal sealed class MapFeature : IFeature
{
    private const string Problem = "application/problem+json";
    private const string GeoJson = "application/geo+json";

    // As many as a map draws without a pause.
    private const int MostPoints = 10_000;

    private const string OwnMap = "own";

    // It is drawn whole, on phones too.
    private const int LargestMap = 8 << 20;

    public void Add(IServiceCollection services) => services.AddSingleton<GroundRepository>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/places/grounds", async (GroundRepository grounds, CancellationToken stop) =>
                TypedResults.Ok(await grounds.ListAsync(stop))
            )
            .Exact()
            .WithName("listGrounds")
            .WithSummary("What the grounds of places are like: boundary, parts, ways in, hazards, leave to record.");

        api.MapGet(
                "/map/points",
                async (string? taxon, Guid? place, GroundRepository grounds, FloraRepository floras, CancellationToken stop) =>
                {
                    if (taxon?.Contains('\0', StringComparison.Ordinal) == true)
                        return Problems.Result(400, "text.invalid", "This isn't text.", "Give a name.", "taxon");
                    var sensitive = await floras.SensitiveAsync(stop);
                    return Results.Ok<IReadOnlyList<MapPoint>>([
                        .. (
                            await grounds.PointsAsync(string.IsNullOrWhiteSpace(taxon) ? null : taxon.Trim(), place, MostPoints, stop)
                        ).Select(p => p with { IsSensitive = sensitive.Holds(p.Called) }),
                    ]);
                }
            )
            .Produces<IReadOnlyList<MapPoint>>()
            .Produces<ProblemReport>(400, Problem)
            .Exact()
            .WithName("listMapPoints")
            .WithSummary(
                "Marked plants, lines of lists with a position of their own, and populations, for a map; up to 10,000 of each kind."
            );

        PlaceExport.Map(api);

        api.MapGet("/map/base", async (GroundRepository grounds, CancellationToken stop) =>
                Results.Text(await grounds.BaseAsync(stop), GeoJson)
            )
            .Produces<string>(200, GeoJson)
            .WithName("getBaseMap")
            .WithSummary("What maps are drawn on, as GeoJSON: features with a kind and a name.");

        api.MapPost("/map/base", async (HttpRequest request, GroundRepository grounds, Turnstile turns, CancellationToken stop) =>
            {
                using var turn = await turns.UploadAsync(stop);
                var (content, refusal) = await FormFiles.OneAsync(request, ShapeFile.LargestBytes, stop);
                if (content is null)
                    return refusal!;
                if (content.Length > LargestMap)
                    return Problems.Result(
                        413,
                        "body.too-large",
                        "This map is too large.",
                        $"Bring at most {LargestMap >> 20} MiB.",
                        "file"
                    );
                if (ShapeFile.Read(content) is { Shapes.Count: 0 } nothing)
                    return Problems.Result(422, "map.unreadable", "No map can be made of this file.", nothing.Problem, "file");
                if (Features(content) is not { } features)
                    return Problems.Result(422, "map.unreadable", "This isn't GeoJSON.", "Bring a FeatureCollection.", "file");
                await grounds.SaveBaseAsync(OwnMap, features, stop);
                return Results.NoContent();
            })
            .Produces(204)
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Accepts<IFormFile>("multipart/form-data")
            .WithName("bringBaseMap")
            .WithSummary(
                "Brings an own map as a GeoJSON FeatureCollection in WGS 84, as the file “file” of a form; "
                    + "it takes the place of the one before."
            );

        api.MapPost("/map/shapes", async (HttpRequest request, Turnstile turns, CancellationToken stop) =>
            {
                using var turn = await turns.UploadAsync(stop);
                var (content, refusal) = await FormFiles.OneAsync(request, ShapeFile.LargestBytes, stop);
                return content is null ? refusal! : Results.Ok(ShapeFile.Read(content));
            })
            .Produces<ShapesRead>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .Accepts<IFormFile>("multipart/form-data")
            .WithName("readShapes")
            .WithSummary(
                "Shapes out of a GeoJSON, GPX or KML file, the file “file” of a form, thinned to 2,000 corners each. "
                    + "Stores and fetches nothing."
            );
    }

    private static string? Features(byte[] content)
    {
        try
        {
            using var document = JsonDocument.Parse(content);
            return document.RootElement.TryGetProperty("features", out var features) && features.ValueKind == JsonValueKind.Array
                ? features.GetRawText()
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
