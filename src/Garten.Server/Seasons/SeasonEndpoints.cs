using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Visits;
using Garten.Formats;
using Garten.Server.Hosting;
using Garten.Storage;
using Microsoft.AspNetCore.Mvc;

namespace Garten.Server.Seasons;

/// <summary>What is still to be seen, and the visits for it.</summary>
internal static class SeasonEndpoints
{
    private const string Problem = "application/problem+json";

    public static void MapSeasons(this RouteGroupBuilder api)
    {
        var seasons = api.MapGroup("/seasons");
        seasons.MapPost("/visits", ([FromBody] VisitsRequest request) =>
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

        seasons.MapGet("/open", async (DeterminationRepository records, CancellationToken stop) => TypedResults.Ok(await records.OpenAsync(stop)))
            .WithName("listOpen").WithSummary("The plants of which something is still to be seen, with when it can be.");

        seasons.MapGet("/visits.ics", async (string? from, HttpContext context, DeterminationRepository records, TimeProvider clock, CancellationToken stop) =>
            {
                var day = DateOnly.FromDateTime(clock.GetLocalNow().Date);
                if (!string.IsNullOrEmpty(from) && !DateOnly.TryParseExact(from, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out day)) return Problems.Result(422, "date.invalid", "There is no such date.", "Give the day as year-month-day, for example 2026-05-31.", "from");
                var open = await records.OpenAsync(stop);
                var plan = VisitPlan.Of(day, [.. open.SelectMany(p => p.AsVisitNeeds())]);
                context.Response.Headers.ContentDisposition = "attachment; filename=\"garten-visits.ics\"";
                return Results.Text(CalendarWriter.Write(plan.Visits.Select(v => Day(v, open)), clock.GetUtcNow()), "text/calendar; charset=utf-8");
            })
            .Produces<string>(200, "text/calendar").Produces<ProblemReport>(422, Problem).WithName("exportVisits").WithSummary("The fewest visits for all that is open, as iCalendar.");
    }

    private static CalendarDay Day(PlannedVisit visit, IReadOnlyList<OpenPlant> open)
    {
        var here = open.Where(p => p.PlaceId.ToString() == visit.Place).ToList();
        var lines = here.SelectMany(p => p.Needs.Where(n => visit.Needs.Contains($"{p.PlantId} {n.Id}", StringComparer.Ordinal)).Select(n => $"{p.Name}{(p.Label.Length > 0 ? $" ({p.Label})" : "")}: {n.Text}"));
        var cautions = here.Select(p => p.PlaceCaution).Concat(here.SelectMany(p => p.Cautions).Select(c => c.Note)).Where(c => c.Length > 0).Distinct(StringComparer.Ordinal);
        return new CalendarDay($"{visit.Place}-{visit.Day}@garten", visit.Date, $"{here[0].PlaceName}: {visit.Needs.Count} to be seen", here[0].PlaceName,
            string.Join("\n", [.. lines, string.Create(CultureInfo.InvariantCulture, $"Possible from {visit.Earliest:yyyy-MM-dd} to {visit.Latest:yyyy-MM-dd}."), .. cautions]));
    }
}
