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
        api.MapGet("/places", async (PlaceRepository places, CancellationToken stop) => TypedResults.Ok(await places.ListAsync(stop))).Exact().WithName("listPlaces").WithSummary("All recording places.");

        api.MapGet("/people", async (PersonRepository people, CancellationToken stop) => TypedResults.Ok(await people.ListAsync(stop))).WithName("listPeople").WithSummary("All who have recorded.");

        api.MapGet("/records", async (string? taxon, Guid? place, string? after, int? size, DeterminationRepository records, FloraRepository floras, CancellationToken stop) =>
            {
                RecordCursor? cursor = null;
                if (after is { Length: > 0 } && (cursor = RecordCursor.Parse(after)) is null) return Problems.Result(400, "page.invalid", "This isn't the start of a page.", "Take “next” from the page before.", "after");
                var page = await records.PageAsync(new RecordFilter(Blank(taxon), place), cursor, Math.Clamp(size ?? PageSize, 1, LargestPage), stop);
                var sensitive = await floras.SensitiveAsync(stop);
                return Results.Ok(page with { Records = [.. page.Records.Select(r => r with { IsSensitive = sensitive.HoldsAny(r.Names) })] });
            })
            .Produces<RecordPage>().Produces<ProblemReport>(400, Problem).Exact().WithName("listRecords").WithSummary("Determinations, newest first, by taxon and place.");

        api.MapGet("/records.csv", (string? taxon, Guid? place, HttpContext context, DeterminationRepository records, FloraRepository floras, Turnstile turns, CancellationToken stop) =>
                ExportAsync(new RecordFilter(Blank(taxon), place), isExact: false, context, records, floras, turns, stop))
            .Produces<string>(200, "text/csv").Produces<ProblemReport>(503, Problem).WithName("exportRecords")
            .WithSummary("Occurrences as CSV with Darwin Core terms. Places of sensitive taxa are coarsened to the flora's grid.");

        api.MapGet("/exact/records.csv", (string? taxon, Guid? place, HttpContext context, DeterminationRepository records, FloraRepository floras, Turnstile turns, CancellationToken stop) =>
                ExportAsync(new RecordFilter(Blank(taxon), place), isExact: true, context, records, floras, turns, stop))
            .Produces<string>(200, "text/csv").Produces<ProblemReport>(503, Problem).WithName("exportExactRecords").Exact()
            .WithSummary("The same with the exact places of sensitive taxa: only for one's own keeping, never to be passed on.");

        api.MapGet("/contradictions", async (DeterminationRepository records, CancellationToken stop) => TypedResults.Ok(await records.ContradictionsAsync(stop)))
            .WithName("listContradictions").WithSummary("Facts that contradict each other, written before the database held them together. They are listed, never changed.");

        api.MapGet("/plants", async (Guid? place, PlantRepository plants, FloraRepository floras, CancellationToken stop) =>
            {
                var sensitive = await floras.SensitiveAsync(stop);
                IReadOnlyList<TaggedPlant> listed = [.. (await plants.ListAsync(place, stop)).Select(p => p with { IsSensitive = sensitive.HoldsAny(p.Names) })];
                return TypedResults.Ok(listed);
            })
            .Exact().WithName("listPlants").WithSummary("Plants by place and tag, with how they were found last.");

        api.MapGet("/plants/{id:guid}", async (Guid id, DeterminationRepository records, FloraRepository floras, CancellationToken stop) =>
                await records.PlantAsync(id, stop) is { } plant ? Results.Ok(await WithTaxaAsync(plant, floras, stop)) : Problems.Result(404, "plant.unknown", "No plant has this id.", "Choose one from the list of records."))
            .Produces<PlantDetail>().Produces<ProblemReport>(404, Problem).Exact().WithName("getPlant").WithSummary("A plant with its history of determinations.");
    }

    private static async Task<PlantDetail> WithTaxaAsync(PlantDetail plant, FloraRepository floras, CancellationToken stop)
    {
        var index = new TaxonIndex(await floras.TaxaAsync(stop));
        var sensitive = await floras.SensitiveAsync(stop);
        return plant with
        {
            IsSensitive = sensitive.HoldsAny(plant.Determinations.SelectMany(d => d.Names)),
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

    private static async Task<IResult> ExportAsync(RecordFilter filter, bool isExact, HttpContext context, DeterminationRepository records, FloraRepository floras, Turnstile turns, CancellationToken stop)
    {
        using var turn = await turns.ExportAsync(stop);
        var taxa = new TaxonIndex(await floras.TaxaAsync(stop));
        var sensitive = isExact ? null : await floras.SensitiveAsync(stop);
        context.Response.Headers.ContentDisposition = $"attachment; filename=\"garten-records{(isExact ? "-exact" : "")}.csv\"";
        context.Response.ContentType = "text/csv; charset=utf-8";
        // Answers are written out whole before they leave: the database is done with when the reader begins.
        await OccurrenceCsv.WriteAsync(context.Response.Body, records.ExportAsync(filter, stop).Select(row => OccurrenceExport.Of(row, taxa, sensitive)), stop);
        return Results.Empty;
    }
}
