using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Visits;
using Garten.Formats;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Places;
using Garten.Server.Features.Plants;
using Garten.Server.Features.Populations;
using Garten.Server.Features.Records;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Seasons;

/// <summary>What is still to be seen, and the visits for it.</summary>
internal sealed class SeasonsFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Add(IServiceCollection services)
    {
        services.AddMemoryCache();
        services.AddSingleton<FirstsOfYear>();
        services.AddSingleton<TodayOfDay>();
    }

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/today", async (string? date, TodayOfDay today, TimeProvider clock, CancellationToken stop) =>
            {
                var day = DateOnly.FromDateTime(clock.GetLocalNow().Date);
                return string.IsNullOrEmpty(date) || DayText.TryRead(date, out day)
                    ? Results.Ok(await today.OnAsync(day, stop))
                    : Problems.Result(
                        422,
                        "date.invalid",
                        "There is no such date.",
                        "Give the day as year-month-day, for example 2026-05-31.",
                        "date"
                    );
            })
            .Produces<TodayDocument>()
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("getToday")
            .WithSummary(
                "What to do on a day: where to go, what closes, what to act on, the weeks to come, what is in season; "
                    + "of each list its first six plants."
            );
        var seasons = api.MapGroup("/seasons");
        seasons
            .MapGet("/firsts", async (int? year, FirstsOfYear firsts, TimeProvider clock, CancellationToken stop) =>
                year is < 1753 or > 9999
                    ? Problems.Result(422, "year.invalid", "There is no such year.", "Give a year such as 2026.", "year")
                    : Results.Ok(await firsts.OfAsync(year ?? clock.GetLocalNow().Year, stop))
            )
            .Produces<IReadOnlyList<SeasonFirst>>()
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("listFirsts")
            .WithSummary("What began in a year on tagged plants, where it was looked for at most 10 days before and wasn't there yet.");

        seasons
            .MapGet(
                "/open",
                async (
                    string? after,
                    int? size,
                    HttpContext context,
                    DeterminationRepository records,
                    FloraRepository floras,
                    TimeProvider clock,
                    CancellationToken stop
                ) =>
                {
                    if (!PlantCursor.TryRead(after, out var cursor))
                        return Paging.NoPage();
                    var (page, next) = await records.OpenAsync(
                        DateOnly.FromDateTime(clock.GetLocalNow().Date),
                        cursor,
                        Paging.SizeOf(size),
                        stop
                    );
                    Paging.LinkNext(context, next?.ToString());
                    var sensitive = await floras.SensitiveAsync(stop);
                    return Results.Ok<IReadOnlyList<OpenPlant>>([.. page.Select(p => p with { IsSensitive = sensitive.Holds(p.Name) })]);
                }
            )
            .Produces<IReadOnlyList<OpenPlant>>()
            .Produces<ProblemReport>(400, Problem)
            .Exact()
            .WithName("listOpen")
            .WithSummary(
                "The plants of which something is still to be seen: when it can be, what the last look answered, and what has slipped since; in pages, the next one in the header “Link”."
            );

        seasons
            .MapGet(
                "/visits.ics",
                async (
                    string? from,
                    bool? trips,
                    HttpContext context,
                    DeterminationRepository records,
                    PopulationRepository populations,
                    PlaceRepository places,
                    FloraRepository floras,
                    TimeProvider clock,
                    CancellationToken stop
                ) =>
                {
                    var day = DateOnly.FromDateTime(clock.GetLocalNow().Date);
                    if (!string.IsNullOrEmpty(from) && !DayText.TryRead(from, out day))
                        return Problems.Result(
                            422,
                            "date.invalid",
                            "There is no such date.",
                            "Give the day as year-month-day, for example 2026-05-31.",
                            "from"
                        );
                    var questions = (await records.OpenAsync(day, stop))
                        .SelectMany(OpenQuestion.Of)
                        .Concat((await PopulationsFeature.DetailsAsync(populations, floras, clock, stop)).SelectMany(OpenQuestion.Of))
                        .ToDictionary(q => q.Id, StringComparer.Ordinal);
                    var plan = VisitPlan.Of(
                        day,
                        [
                            .. questions.Values.Select(q => new VisitNeed(
                                q.Id,
                                trips == true ? "trip" : q.PlaceId.ToString(),
                                q.Need.Windows
                            )),
                        ],
                        stop
                    );
                    var sensitive = await floras.SensitiveAsync(stop);
                    var byId = (await places.ListAsync(stop)).ToDictionary(p => p.Id);
                    context.Response.Headers.ContentDisposition = "attachment; filename=\"garten-visits.ics\"";
                    return Results.Text(
                        CalendarWriter.Write(
                            plan.Visits.SelectMany(v => Days(v, [.. v.Needs.Select(n => questions[n])], sensitive, byId)),
                            clock.GetUtcNow()
                        ),
                        "text/calendar; charset=utf-8"
                    );
                }
            )
            .Produces<string>(200, "text/calendar")
            .Produces<ProblemReport>(422, Problem)
            .WithName("exportVisits")
            .WithSummary(
                "The fewest visits for all that is open, place by place or as trips over all places, as iCalendar. What is of sensitive taxa stands as days of its own, with the grid cell for the place."
            );
    }

    // A calendar is passed on easily: what is of a sensitive taxon names neither place nor plant, and isn't tied to what does.
    private static IEnumerable<CalendarDay> Days(
        PlannedVisit visit,
        IReadOnlyList<OpenQuestion> questions,
        SensitiveTaxa sensitive,
        Dictionary<Guid, Place> places
    )
    {
        var open = questions.Where(q => !sensitive.Holds(q.Name)).ToList();
        if (open.Count > 0)
            yield return Day(visit, open);
        foreach (
            var group in questions
                .Except(open)
                .GroupBy(q => places.TryGetValue(q.PlaceId, out var at) ? sensitive.Coarsen([q.Name], at.Latitude, at.Longitude).Cell : "")
        )
        {
            var where = group.Key.Length > 0 ? $"grid cell {group.Key}" : "place kept back";
            var own = string.Join('|', group.Select(q => q.Id).Order(StringComparer.Ordinal));
            yield return new CalendarDay(
                $"{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(own)))[..24]}-{visit.Day}@garten",
                visit.Date,
                $"{where}: {group.Count()} to be seen",
                where,
                string.Join(
                    "\n",
                    [
                        .. group.Select(q => $"{q.Name}: {q.Need.Text}").Distinct(StringComparer.Ordinal),
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"Possible from {visit.Earliest:yyyy-MM-dd} to {visit.Latest:yyyy-MM-dd}."
                        ),
                        "A sensitive taxon: place and plant are kept back here and stand in the program.",
                        .. OpenQuestion.CautionsOfTaxa(group),
                    ]
                )
            );
        }
    }

    private static CalendarDay Day(PlannedVisit visit, IReadOnlyList<OpenQuestion> questions)
    {
        var lines = questions.Select(q => $"{q.PlaceName}: {q.Name}{(q.Label.Length > 0 ? $" ({q.Label})" : "")}: {q.Need.Text}");
        var cautions = OpenQuestion.CautionsOf(questions);
        var where = string.Join(", ", questions.Select(q => q.PlaceName).Distinct(StringComparer.Ordinal));
        return new CalendarDay(
            $"{visit.Place}-{visit.Day}@garten",
            visit.Date,
            $"{where}: {visit.Needs.Count} to be seen",
            where,
            string.Join(
                "\n",
                [
                    .. lines,
                    string.Create(CultureInfo.InvariantCulture, $"Possible from {visit.Earliest:yyyy-MM-dd} to {visit.Latest:yyyy-MM-dd}."),
                    .. cautions,
                ]
            )
        );
    }
}
