using Microsoft.Extensions.Primitives;

namespace Garten.Server.Features.Places;

/// <summary>Whoever asks for what is at a place that was merged into another one is answered for that: kept addresses lead on.</summary>
internal static class MergedPlaces
{
    private const string Parameter = "place";
    private const string PathParameter = "id";

    public static void UseMergedPlaces(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                var request = context.Request;
                if (request.Path.StartsWithSegments("/api/v1/places", StringComparison.Ordinal))
                {
                    if (await IntoAsync(context, request.RouteValues.GetValueOrDefault(PathParameter) as string) is { } into)
                        request.RouteValues[PathParameter] = into.ToString();
                }
                else if (
                    request.Path.StartsWithSegments("/api", StringComparison.Ordinal)
                    && request.Query.TryGetValue(Parameter, out var given)
                    && await IntoAsync(context, given is [var one] ? one : null) is { } into
                )
                {
                    var query = request.Query.ToDictionary(q => q.Key, q => q.Value, StringComparer.Ordinal);
                    query[Parameter] = new StringValues(into.ToString());
                    request.Query = new QueryCollection(query);
                }
                await next();
            }
        );

    private static async Task<Guid?> IntoAsync(HttpContext context, string? text) =>
        Guid.TryParse(text, out var place)
            ? await context.RequestServices.GetRequiredService<PlaceRepository>().IntoAsync(place, context.RequestAborted)
            : null;
}
