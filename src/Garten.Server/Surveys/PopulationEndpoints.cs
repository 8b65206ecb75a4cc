using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Visits;
using Garten.Formats;
using Garten.Storage;

namespace Garten.Server.Surveys;

/// <summary>Populations with what their counts and pegs come to.</summary>
internal static class PopulationEndpoints
{
    public static void MapPopulations(this RouteGroupBuilder api)
    {
        api.MapGet("/populations", async (PopulationRepository populations, FloraRepository floras, TimeProvider clock, CancellationToken stop) =>
                TypedResults.Ok(await DetailsAsync(populations, floras, clock, stop)))
            .WithName("listPopulations").WithSummary("Populations with their counts, their pegged plants, shares with intervals, changes, and what is due.");

        api.MapGet("/populations.csv", async (HttpContext context, PopulationRepository populations, FloraRepository floras, TimeProvider clock, CancellationToken stop) =>
            {
                var details = await DetailsAsync(populations, floras, clock, stop);
                context.Response.Headers.ContentDisposition = "attachment; filename=\"garten-populations.csv\"";
                return Results.Text(PopulationCsv.Write(details), "text/csv; charset=utf-8");
            })
            .Produces<string>(200, "text/csv").WithName("exportPopulations").WithSummary("Populations year by year as CSV: counts, shares and their 95 % intervals.");
    }

    /// <summary>The populations with what they come to today.</summary>
    internal static async Task<IReadOnlyList<PopulationDetail>> DetailsAsync(PopulationRepository populations, FloraRepository floras, TimeProvider clock, CancellationToken stop)
    {
        var taxa = new TaxonIndex(await floras.TaxaAsync(stop));
        var today = DateOnly.FromDateTime(clock.GetLocalNow().Date);
        return [.. (await populations.ListAsync(stop)).Select(p =>
        {
            var taxon = taxa.Find(p.Taxon);
            IReadOnlyList<DayWindow> fruit = [.. SeasonList.WindowsOf(taxon, Phenophase.YoungFruit), .. SeasonList.WindowsOf(taxon, Phenophase.RipeFruit)];
            IReadOnlyList<CautionLine> cautions = taxon is { Cautions.Count: > 0 } ? [new CautionLine(taxon.Id, taxon.Cautions, taxon.CautionNote)] : [];
            return new PopulationDetail(p.Id, p.Name, p.Taxon, p.Place, p.Bounds, p.Counts, p.Pegs, p.Threats, PopulationSummary.Of(p.Counts, p.Pegs, fruit, today), cautions);
        })];
    }
}
