using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Formats;
using Garten.Server.Hosting;
using Garten.Storage;

namespace Garten.Server.Records;

internal static class RecordEndpoints
{
    private const string Problem = "application/problem+json";
    private const int PageSize = 50;
    private const int LargestPage = 200;

    public static void MapRecords(this RouteGroupBuilder api)
    {
        api.MapGet("/places", async (PlaceRepository places, CancellationToken stop) => TypedResults.Ok(await places.ListAsync(stop))).WithName("listPlaces").WithSummary("All recording places.");

        api.MapGet("/people", async (PersonRepository people, CancellationToken stop) => TypedResults.Ok(await people.ListAsync(stop))).WithName("listPeople").WithSummary("All who have recorded.");

        api.MapGet("/records", async (string? taxon, Guid? place, string? after, int? size, DeterminationRepository records, CancellationToken stop) =>
            {
                RecordCursor? cursor = null;
                if (after is { Length: > 0 } && (cursor = RecordCursor.Parse(after)) is null) return Problems.Result(400, "page.invalid", "This isn't the start of a page.", "Take “next” from the page before.", "after");
                return Results.Ok(await records.PageAsync(new RecordFilter(Blank(taxon), place), cursor, Math.Clamp(size ?? PageSize, 1, LargestPage), stop));
            })
            .Produces<RecordPage>().Produces<ProblemReport>(400, Problem).WithName("listRecords").WithSummary("Determinations, newest first, by taxon and place.");

        api.MapGet("/records.csv", (string? taxon, Guid? place, HttpContext context, DeterminationRepository records, FloraRepository floras, CancellationToken stop) =>
                ExportAsync(new RecordFilter(Blank(taxon), place), context, records, floras, stop))
            .Produces<string>(200, "text/csv").WithName("exportRecords").WithSummary("Occurrences as CSV with Darwin Core terms.");

        api.MapGet("/plants", async (Guid? place, PlantRepository plants, CancellationToken stop) => TypedResults.Ok(await plants.ListAsync(place, stop)))
            .WithName("listPlants").WithSummary("Plants by place and tag, with how they were found last.");

        api.MapGet("/plants/{id:guid}", async (Guid id, DeterminationRepository records, FloraRepository floras, CancellationToken stop) =>
                await records.PlantAsync(id, stop) is { } plant ? Results.Ok(await WithTaxaAsync(plant, floras, stop)) : Problems.Result(404, "plant.unknown", "No plant has this id.", "Choose one from the list of records."))
            .Produces<PlantDetail>().Produces<ProblemReport>(404, Problem).WithName("getPlant").WithSummary("A plant with its history of determinations.");
    }

    private static async Task<PlantDetail> WithTaxaAsync(PlantDetail plant, FloraRepository floras, CancellationToken stop)
    {
        var index = new TaxonIndex(await floras.TaxaAsync(stop));
        return plant with
        {
            Taxa = [.. plant.Determinations.Take(1).SelectMany(d => d.Names).Select(index.Find).OfType<Taxon>()],
            Determinations = await WithOverturnedAsync(plant, floras, stop),
        };
    }

    // A name that shares nothing with the one before has overturned it: by what, its flora says.
    private static async Task<IReadOnlyList<DeterminationDetail>> WithOverturnedAsync(PlantDetail plant, FloraRepository floras, CancellationToken stop)
    {
        var result = plant.Determinations.ToList();
        for (var i = 0; i + 1 < result.Count; i++)
        {
            var (now, before) = (result[i], result[i + 1]);
            if (now.Names.Intersect(before.Names, StringComparer.Ordinal).Any()) continue;
            var overturned = new Overturned(before.Names, []);
            foreach (var id in now.Floras.Keys.Order(StringComparer.Ordinal))
            {
                if (now.Names is not [var name] || await floras.ReadyAsync(id, stop) is not { } flora || flora.Pack.Taxa.All(t => t.Name != name)) continue;
                await flora.Turn.WaitAsync(stop);
                try
                {
                    // What had been seen by then.
                    overturned = Overturned.Of(flora, [.. plant.Observations.Where(o => string.CompareOrdinal(o.Date, now.EventDate.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)) <= 0)], before.Names, name);
                }
                finally
                {
                    flora.Turn.Release();
                }
                break;
            }
            result[i] = now with { Overturned = overturned };
        }
        return result;
    }

    private static string? Blank(string? text) => string.IsNullOrWhiteSpace(text) ? null : text;

    private static async Task<IResult> ExportAsync(RecordFilter filter, HttpContext context, DeterminationRepository records, FloraRepository floras, CancellationToken stop)
    {
        var taxa = new TaxonIndex(await floras.TaxaAsync(stop));
        // The first row is fetched before anything is sent, so that a database that is away gives a problem and not half a file.
        var rows = records.ExportAsync(filter, stop).GetAsyncEnumerator(stop);
        var hasFirst = await rows.MoveNextAsync();
        context.Response.Headers.ContentDisposition = "attachment; filename=\"garten-records.csv\"";
        return Results.Stream(async output =>
        {
            await using (rows) await OccurrenceCsv.WriteAsync(output, RemainingAsync(rows, hasFirst, taxa), stop);
        }, "text/csv; charset=utf-8");
    }

    private static async IAsyncEnumerable<DarwinCoreOccurrence> RemainingAsync(IAsyncEnumerator<OccurrenceRow> rows, bool hasRow, TaxonIndex taxa)
    {
        for (; hasRow; hasRow = await rows.MoveNextAsync()) yield return OccurrenceExport.Of(rows.Current, taxa);
    }
}
