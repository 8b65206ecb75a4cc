using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Server.Features.Floras;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Garten.Server.Features.SiteVisits;

/// <summary>Visits to places with their lists.</summary>
internal sealed class SiteVisitsFeature : IFeature
{
    private const string Problem = "application/problem+json";

    /// <summary>Visits that are told as a whole at a time.</summary>
    private const int MostWhole = 100;

    public void Add(IServiceCollection services) => services.AddSingleton<SiteVisitRepository>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet(
                "/site-visits",
                async (
                    Guid? place,
                    string? after,
                    int? size,
                    HttpContext context,
                    SiteVisitRepository visits,
                    FloraRepository floras,
                    CancellationToken stop
                ) =>
                    await WholeAsync(place, null, after, size, context, visits, floras, withTracks: false, stop) is { } page
                        ? Results.Ok<IReadOnlyList<SiteVisitSummary>>([.. page.Select(v => v.Summary())])
                        : Paging.NoPage()
            )
            .Produces<IReadOnlyList<SiteVisitSummary>>()
            .Produces<ProblemReport>(400, Problem)
            .Exact()
            .WithName("listSiteVisits")
            .WithSummary("Visits to places in short, newest first; in pages, the next one in the header “Link”.");

        api.MapGet(
                "/site-visits/whole",
                async (
                    Guid? place,
                    [FromQuery(Name = "id")] Guid[]? ids,
                    string? after,
                    int? size,
                    HttpContext context,
                    SiteVisitRepository visits,
                    FloraRepository floras,
                    CancellationToken stop
                ) =>
                    ids is { Length: > MostWhole }
                        ? Problems.Result(
                            422,
                            "visits.too-many",
                            "These are too many visits.",
                            $"Ask for at most {MostWhole} at a time.",
                            "id"
                        )
                    : await WholeAsync(
                        place,
                        ids is { Length: > 0 } ? ids : null,
                        after,
                        size,
                        context,
                        visits,
                        floras,
                        withTracks: true,
                        stop
                    )
                        is { } page
                        ? Results.Ok(page)
                    : Paging.NoPage()
            )
            .Produces<IReadOnlyList<SiteVisit>>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("listWholeSiteVisits")
            .WithSummary("Visits with their lists, all, those to a place or those named, newest first; in pages.");

        api.MapGet(
                "/site-visits/{id:guid}",
                async (Guid id, SiteVisitRepository visits, FloraRepository floras, HttpContext context, CancellationToken stop) =>
                    await WholeAsync(null, [id], null, 1, context, visits, floras, withTracks: true, stop) is [var visit]
                        ? Results.Ok(visit)
                        : Problems.Result(404, "visit.unknown", "There is no visit of this id.", "Choose one of the list.", "id")
            )
            .Produces<SiteVisit>()
            .Produces<ProblemReport>(404, Problem)
            .Exact()
            .WithName("getSiteVisit")
            .WithSummary("A visit with its list and what was said at its end.");

        api.MapGet("/places/{id:guid}/found", async (Guid id, string? before, SiteVisitRepository visits, CancellationToken stop) =>
            {
                DateOnly? until = null;
                if (before is { Length: > 0 })
                {
                    if (!DayText.TryRead(before, out var day))
                        return Problems.Result(422, "date.invalid", "There is no such date.", "Give the day as year-month-day.", "before");
                    until = day;
                }
                return Results.Ok(await visits.FoundAsync(id, until, stop));
            })
            .Produces<IReadOnlyList<FoundBefore>>()
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("listFoundAtPlace")
            .WithSummary("What was found at a place on visits and as plants, with the years; before a day where one is given.");
    }

    // Null where the page asked for isn't one.
    private static async Task<IReadOnlyList<SiteVisit>?> WholeAsync(
        Guid? place,
        Guid[]? ids,
        string? after,
        int? size,
        HttpContext context,
        SiteVisitRepository visits,
        FloraRepository floras,
        bool withTracks,
        CancellationToken stop
    )
    {
        if (!SiteVisitCursor.TryRead(after, out var cursor))
            return null;
        var (page, next) = await visits.PageAsync(place, ids, cursor, Math.Min(MostWhole, Paging.SizeOf(size)), withTracks, stop);
        Paging.LinkNext(context, next?.ToString());
        var sensitive = await floras.SensitiveAsync(stop);
        return
        [
            .. page.Select(v =>
                v with
                {
                    Sensitive =
                    [
                        .. v.Lines.Select(l => l.Name).Distinct(StringComparer.Ordinal).Where(n => n.Length > 0 && sensitive.Holds(n)),
                    ],
                }
            ),
        ];
    }
}
