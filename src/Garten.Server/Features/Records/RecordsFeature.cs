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
        services.AddSingleton<RecordExport>();
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
                    if (Of(of) is not { } which)
                        return NoSuch();
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

        foreach (var form in RecordForm.All)
        {
            MapExport(api, form, isExact: false);
            MapExport(api, form, isExact: true);
        }

        api.MapGet("/contradictions", async (DeterminationRepository records, CancellationToken stop) =>
                TypedResults.Ok(await records.ContradictionsAsync(stop))
            )
            .WithName("listContradictions")
            .WithSummary(
                "Facts that contradict each other, written before the database held them together. They are listed, never changed."
            );
    }

    private static string? Blank(string? text) => string.IsNullOrWhiteSpace(text) ? null : text;

    // Null where there are none such.
    private static RecordsOf? Of(string? of) =>
        string.IsNullOrEmpty(of) ? RecordsOf.All
        : Enum.TryParse<RecordsOf>(of, ignoreCase: true, out var which) && Enum.IsDefined(which) ? which
        : null;

    private static IResult NoSuch() =>
        Problems.Result(422, "records.of", "There are no such records.", "Ask for “all”, “plants” or “lists”.", "of");

    private static void MapExport(RouteGroupBuilder api, RecordForm form, bool isExact)
    {
        var name = form == RecordForm.Csv ? "" : char.ToUpperInvariant(form.Ending[0]) + form.Ending[1..];
        var route = api.MapGet(
                $"{(isExact ? "/exact" : "")}/records.{form.Ending}",
                (string? taxon, Guid? place, string? of, RecordExport export, Turnstile turns, CancellationToken stop) =>
                    Of(of) is { } which
                        ? SendAsync(form, new RecordFilter(Blank(taxon), place, which), isExact, export, turns, stop)
                        : Task.FromResult(NoSuch())
            )
            .Produces<string>(200, form.Type)
            .Produces<ProblemReport>(422, Problem)
            .Produces<ProblemReport>(503, Problem)
            .WithName($"export{(isExact ? "Exact" : "")}Records{name}")
            .WithSummary(
                isExact
                    ? "The same with the exact places of sensitive taxa: only for one's own keeping, never to be passed on."
                    : $"Records of plants and lists {form.Says}. Places of sensitive taxa are coarsened to the flora's grid."
            );
        if (isExact)
            route.Exact();
    }

    private static async Task<IResult> SendAsync(
        RecordForm form,
        RecordFilter filter,
        bool isExact,
        RecordExport export,
        Turnstile turns,
        CancellationToken stop
    )
    {
        using var turn = await turns.ExportAsync(stop);
        return await WholeFiles.SendAsync(
            form == RecordForm.Csv ? form.Type + "; charset=utf-8" : form.Type,
            $"garten-records{(isExact ? "-exact" : "")}.{form.Ending}",
            file => export.WriteAsync(file, form, filter, isExact, stop)
        );
    }
}
