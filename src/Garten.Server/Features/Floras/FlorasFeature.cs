using System.Text.Json;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Packs;
using Garten.Core.Seasons;
using Garten.Formats;
using Garten.Formats.Tables;
using Garten.Server.Commands;
using Garten.Server.Features.Keys;
using Garten.Server.Features.Records;
using Garten.Server.Features.Vocabulary;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Http.Features;

namespace Garten.Server.Features.Floras;

/// <summary>Floras brought as tables, published and read.</summary>
internal sealed class FlorasFeature : IFeature
{
    private const string Problem = "application/problem+json";

    // Tables of a large flora: 2,000 taxa in 200 characters are some 6 MB.
    private const long LargestTables = 64 << 20;

    private const int LongestName = 200;

    // A table typed into a field instead of sent as a file.
    private const int LongestField = 8 << 20;

    // The largest tables that are taken need some seconds.
    private static readonly TimeSpan LongestReading = TimeSpan.FromSeconds(40);

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
            .MapGet(
                "/{id}/columns",
                async (string id, int? version, HttpContext context, FloraRepository repository, CancellationToken stop) =>
                {
                    if (await repository.PackAsync(id, version, stop) is not { } flora)
                        return Unknown(version);
                    var tag = $"\"{flora.ContentHash}-{PackFile.Form}\"";
                    context.Response.Headers.ETag = tag;
                    context.Response.Headers.CacheControl = "no-cache";
                    return context.Request.Headers.IfNoneMatch.ToString() == tag
                        ? Results.StatusCode(304)
                        : Results.Bytes(flora.Pack, "application/octet-stream");
                }
            )
            .Produces<byte[]>(200, "application/octet-stream")
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
                            new TaxonQuery(find ?? "", family ?? "", growthForm ?? "", cameBy, on),
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
                "The taxa of a flora by any of their names, family, growth form, origin, what is in flower or fruit on a day, or recorded at a place."
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

    private static async Task<IResult> ImportAsync(
        HttpRequest request,
        FloraRepository repository,
        CharacterTableDefaults defaults,
        VocabularyRepository vocabularies,
        Turnstile turns,
        CancellationToken stop
    )
    {
        using var turn = await turns.UploadAsync(stop);
        var (brought, refusal) = await ReadAsync(request, defaults, (await vocabularies.CurrentAsync(stop)).Botany, needsName: true, stop);
        if (refusal is not null)
            return refusal;
        var reading = brought!.Reading;
        if (!reading.IsSound)
        {
            var errors = reading.Problems.Count(p => p.Severity == ProblemSeverity.Error);
            return Results.Json(
                new FloraRefusal(
                    "These tables can't be kept.",
                    422,
                    "flora.unsound",
                    $"{errors} {(errors == 1 ? "problem stands" : "problems stand")} in the way; each is listed with its sheet, row and column. Nothing was stored.",
                    reading.Taxa.Count,
                    reading.Table.Characters.Count,
                    reading.Problems
                ),
                CoreJson.Default.FloraRefusal,
                Problem,
                422
            );
        }
        // The grid of a region stays what it was declared to be.
        var grid = brought.Grid ?? (await repository.BookAsync(brought.Id, stop))?.Flora.Grid;
        return Results.Ok(
            await repository.SaveDraftAsync(new Flora(brought.Id, brought.Name, reading.Taxa, reading.Table, grid), reading.Problems, stop)
        );
    }

    private static async Task<IResult> KeepDescriptionsAsync(
        KeepDescriptionsRequest request,
        FloraRepository repository,
        CharacterTableDefaults defaults,
        VocabularyRepository vocabularies,
        Turnstile turns,
        HttpRequest http,
        CancellationToken stop
    )
    {
        using var turn = await turns.UploadAsync(stop);
        if (request.Source is { } source && Math.Max(source.Book?.Length ?? 0, source.Page?.Length ?? 0) > LongestName)
            return Problems.Result(
                422,
                "source.long",
                "The source is too long.",
                $"Name book and page in {LongestName} characters.",
                "source"
            );
        if (string.IsNullOrWhiteSpace(request.Name) || request.Name.Length > LongestName)
            return Problems.Result(422, "name.missing", "The flora has no name.", $"Give it one of up to {LongestName} characters.");
        if (request.Text.Length > ReadDescriptionsRequest.Longest)
            return Problems.Result(
                422,
                "text.long",
                "The text is too long.",
                $"Paste up to {ReadDescriptionsRequest.Longest} characters at once."
            );
        var reader = new DescriptionReader((await vocabularies.CurrentAsync(stop)).Botany);
        var read = reader.Read(request.Text);
        if (read.Taxa.Count == 0)
            return Problems.Result(
                422,
                "descriptions.none",
                "No taxon was found in the text.",
                "Begin each paragraph with a scientific name, and part the paragraphs by an empty line."
            );
        var flora = reader.FloraOf(read, FloraImporter.IdOf(request.Name), request.Name.Trim(), defaults.Seasons);
        var draft = await repository.SaveDraftAsync(flora, [], stop);
        await repository.TellSourceAsync(flora.Id, request.Source ?? new TextSource(), CommandsFeature.DeviceOf(http), stop);
        return Results.Ok(draft);
    }

    private static async Task<IResult> CheckAsync(
        HttpRequest request,
        CharacterTableDefaults defaults,
        VocabularyRepository vocabularies,
        Turnstile turns,
        CancellationToken stop
    )
    {
        using var turn = await turns.UploadAsync(stop);
        var (brought, refusal) = await ReadAsync(request, defaults, (await vocabularies.CurrentAsync(stop)).Botany, needsName: false, stop);
        return refusal
            ?? Results.Ok(
                new FloraCheck(
                    brought!.Reading.Taxa.Count,
                    brought.Reading.Table.Characters.Count,
                    brought.Columns,
                    brought.Reading.Problems
                )
            );
    }

    private static async Task<(Brought? Brought, IResult? Refusal)> ReadAsync(
        HttpRequest request,
        CharacterTableDefaults defaults,
        BotanyIndex botany,
        bool needsName,
        CancellationToken stop
    )
    {
        if (!request.HasFormContentType)
            return (
                null,
                Problems.Result(
                    415,
                    "body.type",
                    "The body isn't a form with files.",
                    "Send multipart/form-data with the field “name” and the files “characters”, “matrix” and “taxa”."
                )
            );
        if (request.ContentLength > LargestTables)
        {
            await RequestGuard.RefuseAsync(request.HttpContext, LargestTables);
            return (null, Results.Empty);
        }
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = LargestTables;
        IFormCollection form;
        try
        {
            form = await request.ReadFormAsync(
                new FormOptions
                {
                    MultipartBodyLengthLimit = LargestTables,
                    ValueLengthLimit = LongestField,
                    BufferBodyLengthLimit = LargestTables,
                    MemoryBufferThreshold = 256 << 10,
                },
                stop
            );
        }
        catch (Exception error)
            when (error
                    is InvalidDataException
                        or IOException
                        or ArgumentException
                        or FormatException
                        or NotSupportedException
                        or InvalidOperationException
            )
        {
            return (
                null,
                error.Message.Contains("limit", StringComparison.Ordinal)
                    ? Problems.Result(
                        413,
                        "body.too-large",
                        "These tables are too large.",
                        $"Send at most {LargestTables >> 20} MiB at a time."
                    )
                    : Problems.Result(
                        400,
                        "request.invalid",
                        "The form can't be read.",
                        "It isn't whole, or not a form with files: send multipart/form-data."
                    )
            );
        }
        var name = form["name"].ToString().Trim();
        if (needsName && name.Length is 0 or > LongestName)
            return (
                null,
                Problems.Result(
                    422,
                    "flora.name",
                    name.Length == 0 ? "The flora has no name." : "The flora's name is too long.",
                    $"Give a name of 1 to {LongestName} characters.",
                    "name"
                )
            );
        var id = FloraImporter.IdOf(name);
        if (needsName && id.Length == 0)
            return (
                null,
                Problems.Result(
                    422,
                    "flora.name",
                    "The flora's name has no letter or digit.",
                    "Give it a name that can be told apart.",
                    "name"
                )
            );
        IReadOnlyDictionary<string, string>? renamed = null;
        try
        {
            if (form["columns"].ToString() is { Length: > 0 } columns)
                renamed = JsonSerializer.Deserialize(columns, CoreJson.Default.IReadOnlyDictionaryStringString);
        }
        catch (JsonException)
        {
            renamed = null;
            return (
                null,
                Problems.Result(
                    422,
                    "flora.columns",
                    "The new headings can't be read.",
                    "Send “columns” as a JSON object: the heading in the file, then the new one; an empty one leaves the column out.",
                    "columns"
                )
            );
        }
        if (renamed?.FirstOrDefault(c => c.Value is null) is { Key: { } nothing })
            return (
                null,
                Problems.Result(
                    422,
                    "flora.columns",
                    "A new heading is missing.",
                    $"Give the column “{nothing}” a heading, or an empty text to leave it out.",
                    "columns"
                )
            );
        FloraGrid? grid = null;
        try
        {
            if (form["grid"].ToString() is { Length: > 0 } declared)
                grid = JsonSerializer.Deserialize(declared, CoreJson.Default.FloraGrid);
        }
        catch (JsonException)
        {
            return (
                null,
                Problems.Result(
                    422,
                    "flora.grid",
                    "The grid can't be read.",
                    "Send “grid” as a JSON object with latitude, longitude, cellMetres, columns, rows and naming.",
                    "grid"
                )
            );
        }
        if (grid?.Problem() is { } wrong)
            return (null, Problems.Result(422, "flora.grid", "This is no grid.", wrong, "grid"));
        var dash = DashMeaning.Unsaid;
        if (
            form["dash"].ToString() is { Length: > 0 } meant
            && !(Enum.TryParse(meant, ignoreCase: true, out dash) && Enum.IsDefined(dash) && !char.IsDigit(meant[0]))
        )
            return (
                null,
                Problems.Result(
                    422,
                    "flora.dash",
                    "A dash doesn't mean that.",
                    "Send “dash” as absent, inapplicable or notRecorded.",
                    "dash"
                )
            );
        var files = new Dictionary<string, (string Name, byte[] Content)>(StringComparer.Ordinal);
        foreach (var field in FloraImporter.Fields)
        {
            if (form.Files.GetFile(field) is { } file)
            {
                using var copy = new MemoryStream((int)file.Length);
                await file.CopyToAsync(copy, stop);
                files[field] = (file.FileName.Length > 0 ? Path.GetFileName(file.FileName) : field, copy.ToArray());
            }
            else if (form[field].ToString() is { Length: > 0 } text)
                files[field] = (field, System.Text.Encoding.UTF8.GetBytes(text));
        }
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(stop);
        enough.CancelAfter(LongestReading);
        try
        {
            var (reading, read) = FloraImporter.ReadWithColumns(files, defaults.Seasons, renamed, dash, botany, enough.Token);
            return (new Brought(name, id, reading, read, grid), null);
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            return (
                null,
                Problems.Result(
                    422,
                    "flora.slow",
                    "These tables take too long to read.",
                    $"They were given {LongestReading.TotalSeconds:0} s. Bring them in parts.",
                    "matrix"
                )
            );
        }
    }
}

/// <summary>When phenophases last where a flora that is brought doesn't say.</summary>
internal sealed record CharacterTableDefaults(IReadOnlyList<PhaseWindow> Seasons);
