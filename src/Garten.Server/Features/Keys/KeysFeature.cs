using System.Text;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Keys;
using Garten.Core.Seasons;
using Garten.Server.Features.Evidence;
using Garten.Server.Features.Floras;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Garten.Server.Features.Keys;

/// <summary>Keys as texts, their versions, and following them over HTTP.</summary>
internal sealed class KeysFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Add(IServiceCollection services)
    {
        services.AddSingleton<KeyRepository>();
    }

    public void Map(RouteGroupBuilder api)
    {
        var keys = api.MapGroup("/keys");
        keys.MapGet("/", async (KeyRepository repository, CancellationToken stop) => TypedResults.Ok(await repository.ListAsync(stop)))
            .WithName("listKeys")
            .WithSummary("The newest version of every key.");

        keys.MapGet(
                "/shelf",
                async (
                    string[]? with,
                    KeyRepository repository,
                    FloraRepository floras,
                    EvidenceRepository evidence,
                    CancellationToken stop
                ) => TypedResults.Ok(await ShelfAsync(with ?? [], repository, floras, evidence, stop))
            )
            .WithName("getShelf")
            .WithSummary(
                "What a walk goes through: the newest versions, the versions named by “with”, the flora with its character table, and what was taught."
            );

        keys.MapGet("/{hash}", async (string hash, KeyRepository repository, CancellationToken stop) =>
                await repository.FindAsync(hash, stop) is { } key
                    ? Results.Ok(key)
                    : Problems.Result(404, "key.unknown", "No key version has this hash.", "Choose one from the list of keys.")
            )
            .Produces<KeyDetail>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("getKey")
            .WithSummary("A version of a key with its text.");

        keys.MapPost("/check", async (HttpRequest request, CancellationToken stop) =>
            {
                var (text, refusal) = await ReadTextAsync(request, stop);
                return refusal ?? Results.Ok(KeyCheckResponse.Of(KeyTextReader.Read(text)));
            })
            .Accepts<string>("text/plain")
            .Produces<KeyCheckResponse>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .WithName("checkKeyText")
            .WithSummary("Reads a key text and lists its problems. Stores nothing.");

        keys.MapPost("/read", async (HttpRequest request, CancellationToken stop) =>
            {
                var (text, refusal) = await ReadTextAsync(request, stop);
                return refusal ?? Results.Ok(KeyTextReader.Read(text));
            })
            .Accepts<string>("text/plain")
            .Produces<KeyReading>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .WithName("readKeyText")
            .WithSummary("Reads a key text in full: couplets, leads and where each goes. Stores nothing.");

        keys.MapPost(
                "/walk",
                async ([FromBody] WalkRequest walk, KeyRepository repository, FloraRepository floras, CancellationToken stop) =>
                {
                    var shelf = new KeyShelf(
                        await repository.ShelfAsync([.. walk.Answers.Select(a => a.KeyVersion), walk.Start], stop),
                        await floras.TaxaAsync(stop)
                    );
                    if (shelf.Find(walk.Start) is null)
                        return Problems.Result(
                            404,
                            "trail.version",
                            "The key version to start with isn't known here.",
                            "Choose one from the list of keys.",
                            "start"
                        );
                    return Results.Ok(KeyWalk.Follow(shelf, walk.Start, walk.Answers));
                }
            )
            .Produces<WalkState>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(404, Problem)
            .WithName("walk")
            .WithSummary("Follows keys by the answers given. Stores nothing; the browser does the same by itself.");

        keys.MapPost(
                "/bench",
                async (
                    [FromBody] BenchRequest bench,
                    KeyRepository repository,
                    FloraRepository floras,
                    EvidenceRepository evidence,
                    CancellationToken stop
                ) =>
                {
                    if (!DayText.TryRead(bench.Day, out var day))
                        return Problems.Result(
                            422,
                            "date.invalid",
                            "There is no such date.",
                            "Give the day as year-month-day, for example 2026-05-31.",
                            "day"
                        );
                    var shelf = (
                        await ShelfAsync([.. bench.Answers.Select(a => a.KeyVersion), bench.Start], repository, floras, evidence, stop)
                    ).Ready();
                    if (shelf.Keys.Find(bench.Start) is null)
                        return Problems.Result(
                            404,
                            "trail.version",
                            "The key version to start with isn't known here.",
                            "Choose one from the list of keys.",
                            "start"
                        );
                    for (var i = 0; i < bench.Observations.Count; i++)
                    {
                        if (
                            EvidenceSheet.Problem(
                                bench.Observations[i],
                                shelf.Table.Find(bench.Observations[i].Character),
                                DateOnly.MaxValue
                            ) is
                            { } wrong
                        )
                            return Problems.Result(
                                422,
                                "observation.invalid",
                                "An observation can't be weighed.",
                                wrong,
                                $"observations[{i}]"
                            );
                    }
                    return Results.Ok(KeyBench.Follow(shelf, bench.Start, bench.Answers, bench.Observations, bench.Hand, day));
                }
            )
            .Produces<BenchState>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("bench")
            .WithSummary(
                "Follows keys with a sheet of evidence and weighs couplets and taxa. Stores nothing; the browser does the same by itself."
            );

        // What only the worker uses: named here so that its client is typed by the same description.
        keys.MapPost(
                "/outlook",
                async (
                    [FromBody] OutlookRequest outlook,
                    KeyRepository repository,
                    FloraRepository floras,
                    EvidenceRepository evidence,
                    CancellationToken stop
                ) =>
                {
                    if (!DayText.TryRead(outlook.Day, out _))
                        return Problems.Result(
                            422,
                            "date.invalid",
                            "There is no such date.",
                            "Give the day as year-month-day, for example 2026-05-31.",
                            "day"
                        );
                    return Results.Ok(outlook.Look((await ShelfAsync([], repository, floras, evidence, stop)).Ready()));
                }
            )
            .Produces<IReadOnlyList<KeyOutlook>>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("outlook")
            .WithSummary("Which couplets of which keys can't be answered on a day with the tools at hand.");

        keys.MapPost(
                "/measure",
                async (
                    [FromBody] MeasureRequest measure,
                    KeyRepository repository,
                    FloraRepository floras,
                    EvidenceRepository evidence,
                    CancellationToken stop
                ) => Results.Ok(measure.Read((await ShelfAsync([], repository, floras, evidence, stop)).Ready()))
            )
            .Produces<MeasureResponse>()
            .Produces<ProblemReport>(400, Problem)
            .WithName("measure")
            .WithSummary("Reads readings as typed: n, mean, range and interval, and what is wrong with them.");

        keys.MapGet(
                "/{hash}/statements",
                async (
                    string hash,
                    KeyRepository repository,
                    FloraRepository floras,
                    EvidenceRepository evidence,
                    CancellationToken stop
                ) =>
                {
                    var shelf = (await ShelfAsync([hash], repository, floras, evidence, stop)).Ready();
                    return shelf.Keys.Find(hash) is { } version
                        ? Results.Ok(CoupletReadings.Of(shelf, version))
                        : Problems.Result(404, "key.unknown", "No key version has this hash.", "Choose one from the list of keys.");
                }
            )
            .Produces<IReadOnlyList<CoupletReadings>>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("readStatements")
            .WithSummary("The statements of a key version with their readings.");
    }

    private static async Task<Shelf> ShelfAsync(
        string[] with,
        KeyRepository repository,
        FloraRepository floras,
        EvidenceRepository evidence,
        CancellationToken stop
    )
    {
        var versions = await repository.ShelfAsync(with, stop);
        var (taxa, table) = await floras.ForKeysAsync(versions.SelectMany(v => v.Key.Taxa()).Select(t => t.Name), stop);
        return new Shelf(versions, taxa, table, await evidence.TaughtAsync(stop), await evidence.CorrectedAsync(stop));
    }

    // The body as UTF-8 text, or why it isn't taken.
    private static async Task<(string Text, IResult? Refusal)> ReadTextAsync(HttpRequest request, CancellationToken stop)
    {
        if (request.ContentType is { Length: > 0 } type && !type.StartsWith("text/", StringComparison.OrdinalIgnoreCase))
        {
            return (
                "",
                Problems.Result(415, "body.type", "The body isn't said to be text.", "Send the key with the content type text/plain.")
            );
        }
        var bytes = new MemoryStream();
        var part = new byte[64 * 1024];
        int read;
        while ((read = await request.Body.ReadAsync(part, stop)) > 0)
        {
            bytes.Write(part, 0, read);
            if (bytes.Length > KeyTextReader.LongestText)
                return (
                    "",
                    Problems.Result(413, "text.too-long", "This text is longer than 1 MiB.", "Send the keys of one group at a time.")
                );
        }
        try
        {
            var text = new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes.GetBuffer(), 0, (int)bytes.Length);
            if (!text.AsSpan().ContainsAnyInRange('\0', '\u0008'))
                return (text, null);
        }
        catch (DecoderFallbackException)
        {
            // Answered below, like any other file that isn't text.
        }
        return ("", Problems.Result(400, "text.binary", "This isn't plain text.", "Send the key as text in UTF-8."));
    }
}
