using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Surveys;
using Garten.Core.Visits;
using Garten.Formats;
using Garten.Server.Features.Floras;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Populations;

/// <summary>Populations with what their counts and pegs come to.</summary>
internal sealed class PopulationsFeature : IFeature
{
    public void Add(IServiceCollection services)
    {
        services.AddSingleton<PopulationRepository>();
    }

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet(
                "/populations",
                async (PopulationRepository populations, FloraRepository floras, TimeProvider clock, CancellationToken stop) =>
                    TypedResults.Ok(await DetailsAsync(populations, floras, clock, stop))
            )
            .Exact()
            .WithName("listPopulations")
            .WithSummary("Populations with their counts, their marked plants, shares with intervals, changes, and what is due.");

        api.MapGet(
                "/populations.csv",
                (
                    HttpContext context,
                    PopulationRepository populations,
                    FloraRepository floras,
                    TimeProvider clock,
                    Turnstile turns,
                    CancellationToken stop
                ) => ExportAsync(isExact: false, context, populations, floras, clock, turns, stop)
            )
            .Produces<string>(200, "text/csv")
            .Produces<ProblemReport>(503, "application/problem+json")
            .WithName("exportPopulations")
            .WithSummary(
                "Populations year by year as CSV: counts, shares and their 95 % intervals. Places of sensitive taxa are coarsened to the flora's grid."
            );

        api.MapGet(
                "/exact/populations.csv",
                (
                    HttpContext context,
                    PopulationRepository populations,
                    FloraRepository floras,
                    TimeProvider clock,
                    Turnstile turns,
                    CancellationToken stop
                ) => ExportAsync(isExact: true, context, populations, floras, clock, turns, stop)
            )
            .Produces<string>(200, "text/csv")
            .Produces<ProblemReport>(503, "application/problem+json")
            .WithName("exportExactPopulations")
            .Exact()
            .WithSummary("The same with the exact places of sensitive taxa: only for one's own keeping, never to be passed on.");
    }

    private static async Task<IResult> ExportAsync(
        bool isExact,
        HttpContext context,
        PopulationRepository populations,
        FloraRepository floras,
        TimeProvider clock,
        Turnstile turns,
        CancellationToken stop
    )
    {
        using var turn = await turns.ExportAsync(stop);
        var details = await DetailsAsync(populations, floras, clock, stop);
        context.Response.Headers.ContentDisposition = $"attachment; filename=\"garten-populations{(isExact ? "-exact" : "")}.csv\"";
        context.Response.ContentType = "text/csv; charset=utf-8";
        await PopulationCsv.WriteAsync(context.Response.Body, details, isExact ? null : await floras.SensitiveAsync(stop));
        return Results.Empty;
    }

    /// <summary>The populations with what they come to today.</summary>
    internal static async Task<IReadOnlyList<PopulationDetail>> DetailsAsync(
        PopulationRepository populations,
        FloraRepository floras,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var taxa = new TaxonIndex(await floras.TaxaAsync(stop));
        var sensitive = await floras.SensitiveAsync(stop);
        var today = DateOnly.FromDateTime(clock.GetLocalNow().Date);
        return
        [
            .. (await populations.ListAsync(stop)).Select(p =>
            {
                var taxon = taxa.Find(p.Taxon);
                return new PopulationDetail(
                    p.Id,
                    p.Name,
                    p.Taxon,
                    p.Place,
                    p.Bounds,
                    p.Counts,
                    p.Pegs,
                    p.Threats,
                    PopulationSummary.Of(p.Counts, p.Pegs, SeasonList.FruitOf(taxon), today),
                    CautionLine.Of(taxon),
                    sensitive.Holds(p.Taxon)
                );
            }),
        ];
    }
}
