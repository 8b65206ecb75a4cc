using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Formats;
using Garten.Formats.Tables;
using Garten.Server.Hosting;
using Garten.Storage;
using Microsoft.AspNetCore.Http.Features;
using System.Text.Json;

namespace Garten.Server.Floras;

internal static class FloraEndpoints
{
    private const string Problem = "application/problem+json";

    // Tables of a large flora: 2,000 taxa in 200 characters are some 6 MB.
    private const long LargestTables = 64 << 20;

    private const int LongestName = 200;

    public static void MapFloras(this RouteGroupBuilder api)
    {
        var floras = api.MapGroup("/floras");
        floras.MapGet("/", async (FloraRepository repository, CancellationToken stop) => TypedResults.Ok(await repository.ListAsync(stop)))
            .WithName("listFloras").WithSummary("All floras with their newest version, and drafts that wait to be published.");

        floras.MapPost("/", ImportAsync)
            .Accepts<IFormFileCollection>("multipart/form-data").Produces<FloraImport>().Produces<FloraRefusal>(422, Problem).Produces<ProblemReport>(400, Problem).Produces<ProblemReport>(413, Problem).Produces<ProblemReport>(415, Problem)
            .WithName("importFlora").WithSummary("Brings a flora: the field “name” and the files “matrix”, “characters”, “taxa” and “states” (CSV or XLSX; all but the matrix may be left out), or “sdd”. It stays a draft until it is published.");

        floras.MapGet("/{id}/pack", async (string id, int? version, HttpContext context, FloraRepository repository, CancellationToken stop) =>
            {
                if (await repository.FindAsync(id, version, stop) is not { } flora) return Unknown(version);
                var tag = $"\"{flora.ContentHash}\"";
                context.Response.Headers.ETag = tag;
                context.Response.Headers.CacheControl = "no-cache";
                return context.Request.Headers.IfNoneMatch.ToString() == tag ? Results.StatusCode(304) : Results.Text(flora.Pack, "application/json");
            })
            .Produces<Flora>().Produces<ProblemReport>(404, Problem).WithName("getPack").WithSummary("A version of a flora, or the newest; of one that was never published, its draft.");

        floras.MapGet("/{id}/sdd", async (string id, int? version, HttpContext context, FloraRepository repository, TimeProvider clock, CancellationToken stop) =>
            {
                if (await repository.FindAsync(id, version, stop) is not { } flora) return Unknown(version);
                var written = new MemoryStream();
                SddWriter.Write(JsonSerializer.Deserialize(flora.Pack, CoreJson.Default.Flora)!, clock.GetUtcNow(), written);
                written.Position = 0;
                return Results.File(written, "application/xml", $"{id}.sdd.xml");
            })
            .Produces<string>(200, "application/xml").Produces<ProblemReport>(404, Problem).WithName("getSdd").WithSummary("The same as SDD 1.1, the TDWG standard for descriptive data.");

        floras.MapPost("/{id}/publish", async (string id, FloraRepository repository, CancellationToken stop) =>
                await repository.PublishDraftAsync(id, stop) is { } version ? Results.Ok(version) : NoDraft())
            .Produces<FloraVersion>().Produces<ProblemReport>(404, Problem).WithName("publishFlora").WithSummary("Publishes a draft as the next immutable version of its flora.");

        floras.MapDelete("/{id}/draft", async (string id, FloraRepository repository, CancellationToken stop) => await repository.DiscardDraftAsync(id, true, stop) ? Results.NoContent() : NoDraft())
            .Produces(204).Produces<ProblemReport>(404, Problem).WithName("discardDraft").WithSummary("Sets a draft aside.");

        floras.MapPost("/{id}/draft/restore", async (string id, FloraRepository repository, CancellationToken stop) => await repository.DiscardDraftAsync(id, false, stop) ? Results.NoContent() : NoDraft())
            .Produces(204).Produces<ProblemReport>(404, Problem).WithName("restoreDraft").WithSummary("Takes up a draft again that was set aside.");
    }

    private static IResult Unknown(int? version) =>
        Problems.Result(404, "flora.unknown", version is null ? "No flora has this id." : "No flora has this id and version.", "Ask for one of the list of floras.");

    private static IResult NoDraft() => Problems.Result(404, "flora.no-draft", "No draft of this flora waits.", "Bring its tables first.");

    private static async Task<IResult> ImportAsync(HttpRequest request, FloraRepository repository, CharacterTableDefaults defaults, CancellationToken stop)
    {
        if (!request.HasFormContentType) return Problems.Result(415, "body.type", "The body isn't a form with files.", "Send multipart/form-data with the field “name” and the files “characters”, “matrix” and “taxa”.");
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit) limit.MaxRequestBodySize = LargestTables;
        IFormCollection form;
        try
        {
            form = await request.ReadFormAsync(new FormOptions { MultipartBodyLengthLimit = LargestTables, ValueLengthLimit = (int)LargestTables }, stop);
        }
        catch (InvalidDataException error)
        {
            return error.Message.Contains("limit", StringComparison.Ordinal)
                ? Problems.Result(413, "body.too-large", "These tables are too large.", $"Send at most {LargestTables >> 20} MiB at a time.")
                : Problems.Result(400, "request.invalid", "The form can't be read.", error.Message);
        }
        var name = form["name"].ToString().Trim();
        if (name.Length is 0 or > LongestName) return Problems.Result(422, "flora.name", name.Length == 0 ? "The flora has no name." : "The flora's name is too long.", $"Give a name of 1 to {LongestName} characters.", "name");
        var id = FloraImporter.IdOf(name);
        if (id.Length == 0) return Problems.Result(422, "flora.name", "The flora's name has no letter or digit.", "Give it a name that can be told apart.", "name");
        var files = new Dictionary<string, (string Name, byte[] Content)>(StringComparer.Ordinal);
        foreach (var field in FloraImporter.Fields)
        {
            if (form.Files.GetFile(field) is { } file)
            {
                using var copy = new MemoryStream((int)file.Length);
                await file.CopyToAsync(copy, stop);
                files[field] = (file.FileName.Length > 0 ? Path.GetFileName(file.FileName) : field, copy.ToArray());
            }
            else if (form[field].ToString() is { Length: > 0 } text) files[field] = (field, System.Text.Encoding.UTF8.GetBytes(text));
        }
        var reading = FloraImporter.Read(files, defaults.Seasons, stop);
        var (taxa, characters) = (reading.Taxa.Count, reading.Table.Characters.Count);
        if (!reading.IsSound)
        {
            var errors = reading.Problems.Count(p => p.Severity == ProblemSeverity.Error);
            return Results.Json(new FloraRefusal("These tables can't be kept.", 422, "flora.unsound", $"{errors} {(errors == 1 ? "problem stands" : "problems stand")} in the way; each is listed with its sheet, row and column. Nothing was stored.", taxa, characters, reading.Problems),
                CoreJson.Default.FloraRefusal, Problem, 422);
        }
        return Results.Ok(await repository.SaveDraftAsync(new Flora(id, name, reading.Taxa, reading.Table), reading.Problems, stop));
    }
}

/// <summary>When phenophases last where a flora that is brought doesn't say.</summary>
internal sealed record CharacterTableDefaults(IReadOnlyList<PhaseWindow> Seasons);
