using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Formats;
using Garten.Server.Features.Floras;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Records;

/// <summary>Names put on plants: the list and its exports.</summary>
internal sealed class RecordsFeature : IFeature
{
    private const string Problem = "application/problem+json";
    private const int PageSize = 50;
    private const int LargestPage = 200;

    public void Add(IServiceCollection services)
    {
        services.AddSingleton<DeterminationRepository>();
    }

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet(
                "/records",
                async (
                    string? taxon,
                    Guid? place,
                    string? of,
                    string? after,
                    int? size,
                    DeterminationRepository records,
                    FloraRepository floras,
                    CancellationToken stop
                ) =>
                {
                    var which = RecordsOf.All;
                    if (of is { Length: > 0 } && !Enum.TryParse(of, ignoreCase: true, out which))
                        return Problems.Result(
                            422,
                            "records.of",
                            "There are no such records.",
                            "Ask for “all”, “plants” or “lists”.",
                            "of"
                        );
                    RecordCursor? cursor = null;
                    if (after is { Length: > 0 } && (cursor = RecordCursor.Parse(after)) is null)
                        return Problems.Result(
                            400,
                            "page.invalid",
                            "This isn't the start of a page.",
                            "Take “next” from the page before.",
                            "after"
                        );
                    var page = await records.PageAsync(
                        new RecordFilter(Blank(taxon), place, which),
                        cursor,
                        Math.Clamp(size ?? PageSize, 1, LargestPage),
                        stop
                    );
                    var sensitive = await floras.SensitiveAsync(stop);
                    return Results.Ok(
                        page with
                        {
                            Records = [.. page.Records.Select(r => r with { IsSensitive = sensitive.HoldsAny(r.Names) })],
                        }
                    );
                }
            )
            .Produces<RecordPage>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("listRecords")
            .WithSummary("Determinations and lines of lists, newest first, by taxon, place and kind (all, plants, lists).");

        api.MapGet(
                "/records.csv",
                (
                    string? taxon,
                    Guid? place,
                    HttpContext context,
                    DeterminationRepository records,
                    FloraRepository floras,
                    Turnstile turns,
                    CancellationToken stop
                ) => ExportAsync(new RecordFilter(Blank(taxon), place), isExact: false, context, records, floras, turns, stop)
            )
            .Produces<string>(200, "text/csv")
            .Produces<ProblemReport>(503, Problem)
            .WithName("exportRecords")
            .WithSummary("Occurrences as CSV with Darwin Core terms. Places of sensitive taxa are coarsened to the flora's grid.");

        api.MapGet(
                "/exact/records.csv",
                (
                    string? taxon,
                    Guid? place,
                    HttpContext context,
                    DeterminationRepository records,
                    FloraRepository floras,
                    Turnstile turns,
                    CancellationToken stop
                ) => ExportAsync(new RecordFilter(Blank(taxon), place), isExact: true, context, records, floras, turns, stop)
            )
            .Produces<string>(200, "text/csv")
            .Produces<ProblemReport>(503, Problem)
            .WithName("exportExactRecords")
            .Exact()
            .WithSummary("The same with the exact places of sensitive taxa: only for one's own keeping, never to be passed on.");

        api.MapGet("/contradictions", async (DeterminationRepository records, CancellationToken stop) =>
                TypedResults.Ok(await records.ContradictionsAsync(stop))
            )
            .WithName("listContradictions")
            .WithSummary(
                "Facts that contradict each other, written before the database held them together. They are listed, never changed."
            );
    }

    private static string? Blank(string? text) => string.IsNullOrWhiteSpace(text) ? null : text;

    private static async Task<IResult> ExportAsync(
        RecordFilter filter,
        bool isExact,
        HttpContext context,
        DeterminationRepository records,
        FloraRepository floras,
        Turnstile turns,
        CancellationToken stop
    )
    {
        using var turn = await turns.ExportAsync(stop);
        var taxa = new TaxonIndex(await floras.TaxaAsync(stop));
        var sensitive = isExact ? null : await floras.SensitiveAsync(stop);
        context.Response.Headers.ContentDisposition = $"attachment; filename=\"garten-records{(isExact ? "-exact" : "")}.csv\"";
        context.Response.ContentType = "text/csv; charset=utf-8";
        // Answers are written out whole before they leave: the database is done with when the reader begins.
        await OccurrenceCsv.WriteAsync(
            context.Response.Body,
            records
                .ExportAsync(filter, stop)
                .Select(row => OccurrenceExport.Of(row, taxa, sensitive))
                // Of one place the name alone would tell where a sensitive taxon grows, however coarse its position is.
                .Where(it => filter.Place is null || it.InformationWithheld.Length == 0),
            stop
        );
        return Results.Empty;
    }
}
