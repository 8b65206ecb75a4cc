using System.Globalization;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Imports;
using Garten.Formats.Imports;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Places;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.Extensions.Options;
using Npgsql;

namespace Garten.Server.Features.Imports;

/// <summary>Files of records: sent, looked at, taken in by a command, taken back by another one.</summary>
internal sealed class ImportsFeature : IFeature
{
    private const string Problem = "application/problem+json";
    private const int LongestField = 1 << 10;
    private const int Samples = 3;

    // Samples and the number of lines are of the beginning of a file.
    private const int Looked = 200;
    private const int LongestName = 200;

    public void Add(IServiceCollection services)
    {
        services.AddOptions<ImportLimits>();
        services.AddSingleton<ImportFiles>();
    }

    public void Map(RouteGroupBuilder api)
    {
        var imports = api.MapGroup("/imports");
        imports
            .MapGet("/", async (NpgsqlDataSource database, CancellationToken stop) => TypedResults.Ok(await ListAsync(database, stop)))
            .WithName("listImports")
            .WithSummary("What was taken in from files, newest first, with what was taken back.");

        imports
            .MapPost("/", SendAsync)
            .Accepts<IFormFileCollection>("multipart/form-data")
            .Produces<ImportDraft>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("sendImport")
            .WithSummary(
                "Sends a file of records (field “file”): CSV, XLSX, a Darwin Core Archive, or names one a line. Nothing is kept but the file, for a day."
            );

        imports
            .MapPost("/{id:guid}/preview", PreviewAsync)
            .Produces<ImportPreview>()
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("previewImport")
            .WithSummary(
                "What would become of a file as it is read now. Stores nothing; the command “takeIn” with the same choices takes it in."
            );

        imports
            .MapGet("/{id:guid}/progress", (Guid id, ImportFiles files) =>
                TypedResults.Ok(files.ProgressOf(id) ?? new ImportProgress(0, 0))
            )
            .WithName("getImportProgress")
            .WithSummary("How far a file is that is being taken in.");

        imports
            .MapDelete("/{id:guid}", (Guid id, ImportFiles files) =>
            {
                files.Discard(id);
                return TypedResults.NoContent();
            })
            .WithName("discardImport")
            .WithSummary("Throws a file away that was sent and not taken in.");
    }

    private static async Task<IResult> SendAsync(
        HttpRequest request,
        ImportFiles files,
        NpgsqlDataSource database,
        IOptions<ImportLimits> limits,
        Turnstile turns,
        CancellationToken stop
    )
    {
        const string expected = "Send multipart/form-data with the file in the field “file”.";
        using var turn = await turns.UploadAsync(stop);
        var (form, refusal) = await FormFiles.ReadAsync(request, limits.Value.Largest, LongestField, expected, stop);
        if (form is null)
            return refusal!;
        if (form.Files.GetFile("file") is not { Length: > 0 } file)
            return Problems.Result(422, "file.missing", "There is no file.", expected, "file");
        var name = Path.GetFileName(file.FileName);
        name =
            name.Length == 0 ? "records"
            : name.Length > LongestName ? name[^LongestName..]
            : name;
        await using var content = file.OpenReadStream();
        if (await files.KeepAsync(name, content, stop) is not { } waiting)
            return Problems.Result(
                503,
                "imports.many",
                "Too many files wait here.",
                "Take in or discard some of them first; what isn’t taken in goes after a day."
            );
        try
        {
            using var read = RecordFile.Open(waiting.Path);
            return Results.Ok(await DraftAsync(waiting, read, database, stop));
        }
        catch (RecordFileException broken)
        {
            files.Discard(waiting.Id);
            return Problems.Result(422, broken.Code, "This file can’t be taken in.", broken.Message, "file");
        }
    }

    private static async Task<ImportDraft> DraftAsync(
        WaitingFile waiting,
        RecordFile read,
        NpgsqlDataSource database,
        CancellationToken stop
    )
    {
        var fields = ImportHeadings.Match(read.Headings);
        var samples = read.Headings.Select(_ => new List<string>()).ToList();
        foreach (var line in read.Lines().Take(Looked))
        {
            for (var i = 0; i < Math.Min(samples.Count, line.Cells.Count); i++)
            {
                if (samples[i].Count < Samples && line.Cells[i].Length > 0 && !samples[i].Contains(line.Cells[i], StringComparer.Ordinal))
                    samples[i].Add(line.Cells[i]);
            }
        }
        await using var connection = await database.OpenConnectionAsync(stop);
        var before = await connection
            .Command(
                """
                select max(recorded_at) from import i where content_hash = $1
                    and not exists (select from import_withdrawal w where w.import_id = i.id)
                """,
                waiting.Hash
            )
            .ReadAllAsync(r => r.IsDBNull(0) ? (DateTimeOffset?)null : r.GetFieldValue<DateTimeOffset>(0), stop);
        return new ImportDraft(
            waiting.Id,
            waiting.Name,
            read.Kind,
            [.. read.Headings.Select((h, i) => new ImportColumn(h, fields[i], samples[i]))],
            read.Notes,
            before[0]
        );
    }

    private static async Task<IResult> PreviewAsync(
        Guid id,
        [FromBody] ImportChoices choices,
        ImportFiles files,
        NpgsqlDataSource database,
        FloraRepository floras,
        PlaceRepository places,
        IOptions<ImportLimits> limits,
        TimeProvider clock,
        Turnstile turns,
        CancellationToken stop
    )
    {
        if (files.Find(id) is not { } waiting)
            return Problems.Result(404, "import.unknown", "This file isn’t here any more.", "Files wait for a day. Send it again.");
        try
        {
            ImportCheck.Choices(choices);
            using var turn = await turns.UploadAsync(stop);
            using var file = RecordFile.Open(waiting.Path);
            var latest = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime).AddDays(1);
            var reading = new ImportReading(
                file,
                choices,
                await floras.TaxaAsync(stop),
                await places.ListAsync(stop),
                latest,
                waiting.Id.ToString("D", CultureInfo.InvariantCulture),
                limits.Value.MostLines
            );
            await using var connection = await database.OpenConnectionAsync(stop);
            return Results.Ok(await reading.PreviewAsync(connection, stop));
        }
        catch (CommandRefusedException refused)
        {
            return Problems.Result(refused.Problem);
        }
        catch (RecordFileException broken)
        {
            return Problems.Result(422, broken.Code, "The file can’t be read to its end.", broken.Message, "file");
        }
    }

    private static async Task<IReadOnlyList<TakenIn>> ListAsync(NpgsqlDataSource database, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                """
                select i.id, i.file_name, i.kind, i.tally, p.name, i.recorded_at, w.recorded_at, coalesce(b.name, ''), coalesce(w.reason, '')
                from import i
                join person p on p.id = i.taken_in_by
                left join import_withdrawal w on w.import_id = i.id
                left join person b on b.id = w.withdrawn_by
                order by i.number desc
                limit 500
                """
            )
            .ReadAllAsync(
                r => new TakenIn(
                    r.GetGuid(0),
                    r.GetString(1),
                    r.GetString(2),
                    JsonSerializer.Deserialize(r.GetString(3), CoreJson.Default.ImportTally)!,
                    r.GetString(4),
                    r.GetFieldValue<DateTimeOffset>(5),
                    r.IsDBNull(6) ? null : r.GetFieldValue<DateTimeOffset>(6),
                    r.GetString(7),
                    r.GetString(8)
                ),
                stop
            );
    }
}
