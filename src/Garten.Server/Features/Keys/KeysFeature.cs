using System.Security.Cryptography;
using System.Text;
using Garten.Core.Contracts;
using Garten.Core.Keys;
using Garten.Formats;
using Garten.Server.Commands;
using Garten.Server.Features.Calls;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Sources;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Keys;

/// <summary>Keys as texts, their versions, and following them over HTTP.</summary>
internal sealed class KeysFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Add(IServiceCollection services)
    {
        services.AddSingleton<KeyRepository>();
        services.AddSingleton<ReadingRepository>();
        services.AddSingleton<KeyReadingStep>();
        services.AddHostedService(all => all.GetRequiredService<KeyReadingStep>());
    }

    public void Map(RouteGroupBuilder api)
    {
        var keys = api.MapGroup("/keys");
        keys.MapGet("/", async (KeyRepository repository, CancellationToken stop) => TypedResults.Ok(await repository.ListAsync(stop)))
            .WithName("listKeys")
            .WithSummary("The newest version of every key.");

        keys.MapGet("/shelf", async (string[]? with, CoreCallHost host, CancellationToken stop) =>
                TypedResults.Ok(await host.ShelfAsync(with ?? [], stop))
            )
            .WithName("getShelf")
            .WithSummary(
                "What a walk goes through: the newest versions, the versions named by “with”, the flora with its character table, and what was taught."
            );

        keys.MapGet("/shelf/short", async (string[]? with, CoreCallHost host, CancellationToken stop) =>
                TypedResults.Ok(ShelfInShort.Of(await host.ReachAsync(with ?? [], stop)))
            )
            .WithName("getShelfInShort")
            .WithSummary("What a page needs of a shelf: its versions, the taxa and the characters, without keys and descriptions.");

        keys.MapGet(
                "/shelf/packed",
                async (string[]? with, HttpContext context, CoreCallHost host, ReadingRepository readings, CancellationToken stop) =>
                {
                    var packed = ShelfFile.Write(await readings.WithReadingsAsync(await host.ReachAsync(with ?? [], stop), stop));
                    return PackedAnswer.Of(context, Convert.ToHexStringLower(SHA256.HashData(packed)), () => packed);
                }
            )
            .Produces<byte[]>(200, PackedAnswer.Type)
            .WithName("getPackedShelf")
            .WithSummary(
                "The same shelf in the binary form that the core in the browser loads; "
                    + "of keys that are named by “with” only those that they lead to."
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

        keys.MapGet("/{hash}/text", async (string hash, KeyRepository repository, CancellationToken stop) =>
            {
                if (await repository.FindAsync(hash, stop) is not { } key)
                    return Problems.Result(404, "key.unknown", "No key version has this hash.", "Choose one from the list of keys.");
                if (key.Source is not { MayBeExported: true })
                    return Problems.Result(
                        403,
                        "key.licence",
                        "This text isn't handed on.",
                        "Its licence doesn't allow it, or nothing is said of it: "
                            + "say in a new version where it is from and what may be done with it."
                    );
                var credit = $"# {key.Source.InWords}\n\n";
                return Results.File(
                    Encoding.UTF8.GetBytes(credit + KeyTextWriter.Write(key.Key, KeyLayout.Bracketed)),
                    "text/plain; charset=utf-8",
                    $"{FloraImporter.IdOf(key.Title)}.txt"
                );
            })
            .Produces<string>(200, "text/plain")
            .Produces<ProblemReport>(403, Problem)
            .Produces<ProblemReport>(404, Problem)
            .WithName("exportKey")
            .WithSummary("A key as plain text, with its source; only where its licence allows that it is handed on.");

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

        keys.MapGet("/{hash}/statements", async (string hash, CoreCallHost host, CancellationToken stop) =>
            {
                var shelf = (await host.ShelfAsync([hash], stop)).Ready();
                return shelf.Keys.Find(hash) is { } version
                    ? Results.Ok(CoupletReadings.Of(shelf, version))
                    : Problems.Result(404, "key.unknown", "No key version has this hash.", "Choose one from the list of keys.");
            })
            .Produces<IReadOnlyList<CoupletReadings>>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("readStatements")
            .WithSummary("The statements of a key version with their readings.");

        keys.MapPost(
                "/{hash}/flora",
                async (
                    string hash,
                    CoreCallHost host,
                    FloraRepository floras,
                    SourceRepository sources,
                    HttpRequest request,
                    CancellationToken stop
                ) =>
                {
                    var shelf = (await host.ShelfAsync([hash], stop)).Ready();
                    if (shelf.Keys.Find(hash) is not { } version)
                        return Problems.Result(404, "key.unknown", "No key version has this hash.", "Choose one from the list of keys.");
                    var id = FloraImporter.IdOf(version.Key.Title) is { Length: > 0 } plain ? $"key-{plain}" : $"key-{hash[..ShortHash]}";
                    await floras.PublishAsync(KeyFlora.Of(shelf, version, id), stop);
                    // What is made of a text is from where the text is.
                    var source = await sources.FindAsync(SourcedText.Key, hash, stop);
                    await floras.TellSourceAsync(id, source?.Source ?? new TextSource(), CommandsFeature.DeviceOf(request), stop);
                    return Results.Ok(new KeyFloraMade(id));
                }
            )
            .Produces<KeyFloraMade>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("makeKeyFlora")
            .WithSummary(
                "Makes a flora of a key's own statements, what isn't read included, so that its taxa can be sifted and contrasted. Made again where the readings have changed since."
            );
    }

    // As many digits of a hash as tell keys without a title apart.
    private const int ShortHash = 12;

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
