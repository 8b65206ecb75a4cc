using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Server.Hosting;
using Garten.Storage;

namespace Garten.Server.Floras;

internal static class FloraEndpoints
{
    public static void MapFloras(this RouteGroupBuilder api) => api.MapGet("/floras/{id}/pack", async (string id, HttpContext context, FloraRepository floras, CancellationToken stop) =>
    {
        if (await floras.NewestAsync(id, stop) is not { } flora) return Problems.Result(404, "flora.unknown", "No flora has this id.", "Ask for one that was published here.");
        var tag = $"\"{flora.ContentHash}\"";
        context.Response.Headers.ETag = tag;
        context.Response.Headers.CacheControl = "no-cache";
        return context.Request.Headers.IfNoneMatch.ToString() == tag ? Results.StatusCode(304) : Results.Text(flora.Pack, "application/json");
    }).Produces<Flora>().Produces<ProblemReport>(404, "application/problem+json").WithName("getPack").WithSummary("The newest version of a flora.");
}
