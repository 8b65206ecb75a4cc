using System.Text.Json;
using Garten.Core.Botany;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Seasons;
using Garten.Formats;
using Garten.Formats.Tables;
using Garten.Server.Commands;
using Garten.Server.Features.Vocabulary;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Floras;

// Taking in what is brought: tables, documents, descriptions in prose.
internal sealed partial class FlorasFeature
{
    // Tables of a large flora: 2,000 taxa in 200 characters are some 6 MB.
    private const long LargestTables = 64 << 20;

    private const int LongestName = 200;

    // A table typed into a field instead of sent as a file.
    private const int LongestField = 8 << 20;

    // The largest tables that are taken need some seconds.
    private static readonly TimeSpan LongestReading = TimeSpan.FromSeconds(40);

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
        var (brought, refusal) = await ReadAsync(
            request,
            defaults,
            repository,
            (await vocabularies.CurrentAsync(stop)).Botany,
            needsName: true,
            stop
        );
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
                contentType: Problem,
                statusCode: 422
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
        FloraRepository repository,
        CharacterTableDefaults defaults,
        VocabularyRepository vocabularies,
        Turnstile turns,
        CancellationToken stop
    )
    {
        using var turn = await turns.UploadAsync(stop);
        var (brought, refusal) = await ReadAsync(
            request,
            defaults,
            repository,
            (await vocabularies.CurrentAsync(stop)).Botany,
            needsName: false,
            stop
        );
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
        FloraRepository repository,
        BotanyIndex botany,
        bool needsName,
        CancellationToken stop
    )
    {
        var (form, unread) = await FormFiles.ReadAsync(
            request,
            LargestTables,
            LongestField,
            "Send multipart/form-data with the field “name” and the files “characters”, “matrix” and “taxa”.",
            stop
        );
        if (form is null)
            return (null, unread);
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
            var before = id.Length > 0 ? (await repository.BookAsync(id, stop))?.Flora.Table?.Characters : null;
            var (reading, read) = FloraImporter.ReadWithColumns(files, defaults.Seasons, renamed, dash, botany, before, enough.Token);
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
