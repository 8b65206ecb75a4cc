using Garten.Core.Contracts;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Vocabulary;

/// <summary>Parts and qualities: the vocabulary that characters are made of.</summary>
internal sealed class VocabularyFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Add(IServiceCollection services) => services.AddSingleton<VocabularyRepository>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/vocabulary", async (HttpContext context, VocabularyRepository vocabularies, CancellationToken stop) =>
            {
                var current = await vocabularies.CurrentAsync(stop);
                var tag = $"\"{current.Hash}\"";
                context.Response.Headers.ETag = tag;
                context.Response.Headers.CacheControl = "no-cache";
                return context.Request.Headers.IfNoneMatch.ToString() == tag
                    ? Results.StatusCode(304)
                    : Results.Text(current.Json, "application/json");
            })
            .Produces<Core.Botany.Vocabulary>()
            .WithName("getVocabulary")
            .WithSummary("Parts and qualities with their terms and definitions, as they are now; the ETag is the hash of the version.");
        api.MapGet("/vocabulary/packed", async (HttpContext context, VocabularyRepository vocabularies, CancellationToken stop) =>
            {
                var current = await vocabularies.CurrentAsync(stop);
                return PackedAnswer.Of(context, current.Hash, () => current.Packed);
            })
            .Produces<byte[]>(200, PackedAnswer.Type)
            .WithName("getPackedVocabulary")
            .WithSummary("The same in the binary form that the core in the browser loads.");
        api.MapGet(
                "/vocabulary/versions/{hash}",
                async (string hash, HttpContext context, VocabularyRepository vocabularies, CancellationToken stop) =>
                {
                    if (await vocabularies.FindAsync(hash, stop) is not { } json)
                        return Problems.Result(
                            404,
                            "vocabulary.unknown",
                            "No vocabulary has this hash.",
                            "Ask for one that a flora names, or for the one of now.",
                            "hash"
                        );
                    context.Response.Headers.CacheControl = "public, max-age=31536000, immutable";
                    return Results.Text(json, "application/json");
                }
            )
            .Produces<Core.Botany.Vocabulary>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("getVocabularyVersion")
            .WithSummary("A vocabulary that something was published with.");
    }
}
