using Garten.Core.Contracts;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Garten.Server.Seasons;

/// <summary>Visits over HTTP. Nothing is stored.</summary>
internal static class SeasonEndpoints
{
    private const string Problem = "application/problem+json";

    public static void MapSeasons(this RouteGroupBuilder api) =>
        api.MapPost("/seasons/visits", ([FromBody] VisitsRequest request) =>
            {
                try
                {
                    return Results.Ok(request.Plan());
                }
                catch (RequestException wrong)
                {
                    return Problems.Unusable(wrong);
                }
            })
            .Produces<VisitsResponse>().Produces<ProblemReport>(400, Problem).Produces<ProblemReport>(422, Problem)
            .WithName("planVisits").WithSummary("The fewest days at each place that answer all needs, within 365 days from a date. Stores nothing.");
}
