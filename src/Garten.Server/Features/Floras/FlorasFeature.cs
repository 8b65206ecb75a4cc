using System.Text.Json;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Packs;
using Garten.Core.Seasons;
using Garten.Formats;
using Garten.Formats.Tables;
using Garten.Server.Features.Keys;
using Garten.Server.Features.Records;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Floras;

/// <summary>Floras brought as tables, published and read.</summary>
internal sealed partial class FlorasFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Add(IServiceCollection services)
    {
        services.AddSingleton<FloraRepository>();
        services.AddHostedService<FloraPreparation>();
    }

    public void Map(RouteGroupBuilder api)
    {
        var floras = api.MapGroup("/floras");
        // What a device brought for itself isn't there for anybody else.
        floras.AddEndpointFilter(
            async (call, next) =>
                call.HttpContext.Request.RouteValues["id"] is string id
                && await call
                    .HttpContext.RequestServices.GetRequiredService<FloraRepository>()
                    .SourceAsync(id, call.HttpContext.RequestAborted)
                    is { IsHidden: true }
                    ? Unknown(null)
                    : await next(call)
        );
        floras
            .MapGet("/", async (FloraRepository repository, CancellationToken stop) => TypedResults.Ok(await repository.ListAsync(stop)))
            .WithName("listFloras")
            .WithSummary("All floras with their newest version, and drafts that wait to be published.");

        floras
            .MapPost("/", ImportAsync)
            .Accepts<IFormFileCollection>("multipart/form-data")
            .Produces<FloraImport>()
            .Produces<FloraRefusal>(422, Problem)
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .WithName("importFlora")
            .WithSummary(
                "Brings a flora: the field “name” and the files “matrix”, “characters”, “taxa” and “states” (CSV or XLSX; all but the matrix may be left out), or “sdd”; “dash” says what a dash in a cell means (absent, inapplicable, notRecorded), “grid” declares the grid of cells as JSON. It stays a draft until it is published."
            );

        floras
            .MapPost("/descriptions", KeepDescriptionsAsync)
            .Produces<FloraImport>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("keepDescriptions")
            .WithSummary(
                "Brings a flora as descriptions in prose: a paragraph per taxon, each beginning with its name. It stays a draft until it is published."
            );

        floras
            .MapPost("/check", CheckAsync)
            .Accepts<IFormFileCollection>("multipart/form-data")
            .Produces<FloraCheck>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("checkFlora")
            .WithSummary(
                "Reads the tables of a flora and says how each column is taken and what is wrong. Stores nothing. The field “columns” gives columns of the matrix other headings, or leaves them out."
            );

        floras
            .MapGet(
                "/{id}/pack",
                async (string id, int? version, HttpContext context, FloraRepository repository, CancellationToken stop) =>
                {
                    if (await repository.FindAsync(id, version, stop) is not { } flora)
                        return Unknown(version);
                    var tag = $"\"{flora.ContentHash}\"";
                    context.Response.Headers.ETag = tag;
                    context.Response.Headers.CacheControl = "no-cache";
                    return context.Request.Headers.IfNoneMatch.ToString() == tag
                        ? Results.StatusCode(304)
                        : Results.Text(flora.Pack, "application/json");
                }
            )
            .Produces<Flora>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("getPack")
            .WithSummary("A version of a flora, or the newest; of one that was never published, its draft.");

        floras
            .MapGet("/template.csv", (HttpContext context) => Template(context, "csv", "text/csv; charset=utf-8", FloraTemplate.Csv()))
            .Produces<string>(200, "text/csv")
            .WithName("getTemplateCsv")
            .WithSummary("A table of a flora to fill in: a line for each taxon, a column for each character that ships.");

        floras
            .MapGet("/template.xlsx", (HttpContext context) => Template(context, "xlsx", Workbook, FloraTemplate.Xlsx()))
            .Produces<byte[]>(200, Workbook)
            .WithName("getTemplateXlsx")
            .WithSummary("The same as a workbook, with a second sheet that says what may stand in each column.");

        floras
            .MapGet(
                "/{id}/columns",
                async (string id, int? version, HttpContext context, FloraRepository repository, CancellationToken stop) =>
                {
                    if (await repository.PackAsync(id, version, stop) is not { } flora)
                        return Unknown(version);
                    return PackedAnswer.Of(context, $"{flora.ContentHash}-{PackFile.Form}", () => flora.Pack);
                }
            )
            .Produces<byte[]>(200, PackedAnswer.Type)
            .Produces<ProblemReport>(404, Problem)
            .WithName("getColumns")
            .WithSummary("The same in the binary form that identification loads.");

        floras
            .MapGet(
                "/{id}/sdd",
                async (
                    string id,
                    int? version,
                    HttpContext context,
                    FloraRepository repository,
                    TimeProvider clock,
                    CancellationToken stop
                ) =>
                {
                    if (await repository.FindAsync(id, version, stop) is not { } flora)
                        return Unknown(version);
                    if (await repository.SourceAsync(id, stop) is { Source.MayBeExported: false } held)
                        return Problems.Result(
                            403,
                            "flora.licence",
                            "This flora isn't handed on.",
                            $"It was made of a text whose licence doesn't allow it: {held.Source.InWords}."
                        );
                    var written = new MemoryStream();
                    SddWriter.Write(JsonSerializer.Deserialize(flora.Pack, CoreJson.Default.Flora)!, clock.GetUtcNow(), written);
                    written.Position = 0;
                    return Results.File(written, "application/xml", $"{id}.sdd.xml");
                }
            )
            .Produces<string>(200, "application/xml")
            .Produces<ProblemReport>(403, Problem)
            .Produces<ProblemReport>(404, Problem)
            .WithName("getSdd")
            .WithSummary("The same as SDD 1.1, the TDWG standard for descriptive data.");

        floras
            .MapGet(
                "/{id}/taxa",
                async (
                    string id,
                    string? find,
                    string? family,
                    string? growthForm,
                    string? origin,
                    string? day,
                    Guid? place,
                    string? cell,
                    int? from,
                    FloraRepository repository,
                    DeterminationRepository records,
                    CancellationToken stop
                ) =>
                {
                    if (await repository.BookAsync(id, stop) is not { } book)
                        return Unknown(null);
                    if (!IsDay(day, out var on))
                        return NoDay();
                    var cameBy =
                        Enum.TryParse<Origin>(origin, ignoreCase: true, out var known) && Enum.IsDefined(known) && !char.IsDigit(origin![0])
                            ? known
                            : (Origin?)null;
                    if (!string.IsNullOrEmpty(origin) && cameBy is null)
                        return Problems.Result(
                            422,
                            "origin.invalid",
                            "There is no such origin.",
                            "Ask for native, introduced or doubtful.",
                            "origin"
                        );
                    var names = place is { } at ? (await records.NamesAtAsync(at, stop)).ToHashSet(StringComparer.Ordinal) : null;
                    return Results.Ok(
                        TaxonList.Of(
                            book,
                            new TaxonQuery(find ?? "", family ?? "", growthForm ?? "", cameBy, on, (cell ?? "").Trim()),
                            Math.Max(0, from ?? 0),
                            names
                        )
                    );
                }
            )
            .Produces<TaxonList>()
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("findTaxa")
            .WithSummary(
                "The taxa of a flora by any of their names, family, growth form, origin, what is in flower or fruit on a day, "
                    + "recorded at a place or in a grid cell."
            );

        floras
            .MapGet(
                "/{id}/taxa/{taxon}",
                async (
                    string id,
                    string taxon,
                    string? day,
                    FloraRepository repository,
                    KeyRepository keys,
                    TimeProvider clock,
                    CancellationToken stop
                ) =>
                {
                    if (await repository.BookAsync(id, stop) is not { } book)
                        return Unknown(null);
                    if (!IsDay(day, out var on))
                        return NoDay();
                    var shelf = new KeyShelf(await keys.ShelfAsync([], stop));
                    return book.Page(taxon, shelf, on ?? DateOnly.FromDateTime(clock.GetLocalNow().Date)) is { } page
                        ? Results.Ok(page)
                        : Problems.Result(404, "taxon.unknown", "This flora has no such taxon.", "Find it by its name first.");
                }
            )
            .Produces<TaxonPage>()
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("getTaxon")
            .WithSummary("Everything that a flora says of a taxon.");

        floras
            .MapGet("/{id}/characters", async (string id, FloraRepository repository, CancellationToken stop) =>
                await repository.BookAsync(id, stop) is { } book ? Results.Ok(book.Flora.Table?.Characters ?? []) : Unknown(null)
            )
            .Produces<IReadOnlyList<Character>>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("getCharacters")
            .WithSummary("The characters of a flora with their states: its glossary.");

        floras
            .MapGet(
                "/{id}/characters/{character}",
                async (string id, string character, FloraRepository repository, CancellationToken stop) =>
                {
                    if (await repository.BookAsync(id, stop) is not { } book)
                        return Unknown(null);
                    return book.Flora.Table?.Find(character) is { } found
                        ? Results.Ok(new GlossaryEntry(found, book.Showing(found)))
                        : Problems.Result(404, "character.unknown", "This flora has no such character.", "Choose one of its glossary.");
                }
            )
            .Produces<GlossaryEntry>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("getCharacter")
            .WithSummary("A character with the taxa that show its states.");

        floras
            .MapPost("/{id}/publish", async (string id, FloraRepository repository, CancellationToken stop) =>
                await repository.PublishDraftAsync(id, stop) is { } version ? Results.Ok(version) : NoDraft()
            )
            .Produces<FloraVersion>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("publishFlora")
            .WithSummary("Publishes a draft as the next immutable version of its flora.");

        floras
            .MapDelete("/{id}/draft", async (string id, FloraRepository repository, CancellationToken stop) =>
                await repository.DiscardDraftAsync(id, true, stop) ? Results.NoContent() : NoDraft()
            )
            .Produces(204)
            .Produces<ProblemReport>(404, Problem)
            .WithName("discardDraft")
            .WithSummary("Sets a draft aside.");

        floras
            .MapPost("/{id}/draft/restore", async (string id, FloraRepository repository, CancellationToken stop) =>
                await repository.DiscardDraftAsync(id, false, stop) ? Results.NoContent() : NoDraft()
            )
            .Produces(204)
            .Produces<ProblemReport>(404, Problem)
            .WithName("restoreDraft")
            .WithSummary("Takes up a draft again that was set aside.");
    }

    private const string Workbook = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    private static IResult Template(HttpContext context, string ending, string type, byte[] content)
    {
        context.Response.Headers.ContentDisposition = $"attachment; filename=\"garten-flora.{ending}\"";
        return Results.Bytes(content, type);
    }

    private static IResult Unknown(int? version) =>
        Problems.Result(
            404,
            "flora.unknown",
            version is null ? "No flora has this id." : "No flora has this id and version.",
            "Ask for one of the list of floras."
        );

    private static bool IsDay(string? text, out DateOnly? day)
    {
        day = null;
        if (string.IsNullOrEmpty(text))
            return true;
        var sound = DayText.TryRead(text, out var found);
        day = sound ? found : null;
        return sound;
    }

    private static IResult NoDay() =>
        Problems.Result(422, "date.invalid", "There is no such date.", "Give the day as year-month-day, for example 2026-05-31.", "day");

    private static IResult NoDraft() => Problems.Result(404, "flora.no-draft", "No draft of this flora waits.", "Bring its tables first.");

    private sealed record Brought(string Name, string Id, FloraReading Reading, IReadOnlyList<FloraColumn> Columns, FloraGrid? Grid);
}
