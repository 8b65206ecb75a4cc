using System.Security.Cryptography;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Server.Features.Evidence;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Keys;
using Garten.Server.Features.Places;
using Garten.Server.Features.Vocabulary;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Caching.Memory;
using Microsoft.Extensions.Options;

namespace Garten.Server.Features.Calls;

/// <summary>The core's calls over HTTP: the same as the browser's worker answers by itself. Nothing is stored.</summary>
internal sealed class CoreCallsFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Add(IServiceCollection services) => services.AddSingleton<CoreCallHost>();

    public void Map(RouteGroupBuilder api)
    {
        foreach (var call in CoreCalls.All)
        {
            if (call.Address is not { } address)
                continue;
            api.MapPost(address, (HttpRequest request, CoreCallHost host, CancellationToken stop) => host.AnswerAsync(call, request, stop))
                .Accepts(call.RequestType, "application/json")
                .Produces(200, call.AnswerType, "application/json")
                .Produces<ProblemReport>(400, Problem)
                .Produces<ProblemReport>(404, Problem)
                .Produces<ProblemReport>(422, Problem)
                .WithName(call.Name)
                .WithSummary($"{call.Summary} Stores nothing; the browser does the same by itself.");
        }
    }
}

/// <summary>Answers a call of the core with what the server holds.</summary>
internal sealed class CoreCallHost(
    FloraRepository floras,
    KeyRepository keys,
    ReadingRepository readings,
    EvidenceRepository evidence,
    PlaceRepository places,
    VocabularyRepository vocabularies,
    IOptions<JsonOptions> json,
    IMemoryCache years
)
{
    public async Task<IResult> AnswerAsync(CoreCall call, HttpRequest body, CancellationToken stop)
    {
        var request = await ReadAsync(call.RequestType, body, stop);
        try
        {
            // What has to be fetched is fetched before: nobody waits for a flora while another request reads.
            if (request is IPlacedRequest placed && await PlaceAsync(placed, stop) is { } at)
                request = placed.At(at);
            var session = new CoreSession();
            if (call.Need == CoreNeed.Vocabulary)
                session.Botany = (await vocabularies.CurrentAsync(stop)).Botany;
            if (request is IShelfRequest shelf)
                session.Shelf = (await ShelfAsync(shelf.Versions, stop)).Ready();
            if (request is not IFloraRequest { FloraId: var id })
                return Results.Ok(call.Answer(request, session, stop));
            if (await floras.ReadyAsync(id ?? "", stop) is not { } flora)
                return Problems.Result(404, "flora.unknown", "No flora has this id.", "Ask for one of the list of floras.", "floraId");
            session.Flora = flora;
            Task<object> AskAsync() => flora.AskAsync(_ => call.Answer(request, session, stop), stop);
            return Results.Ok(request is SeasonRequest year ? await OnceAsync(year, flora, AskAsync) : await AskAsync());
        }
        catch (RequestException wrong)
        {
            return Problems.Unusable(wrong);
        }
    }

    /// <summary>The newest version of every key and those asked for, with what is read out of their statements; of those that are cited
    /// with an older reading that one.</summary>
    public async Task<Shelf> ShelfAsync(IEnumerable<string> with, CancellationToken stop)
    {
        var cited = with.Select(TrailAnswer.ReadCitation).Distinct().ToList();
        var found = await keys.ShelfAsync([.. cited.Select(c => c.Hash)], stop);
        var newest = await readings.NewestAsync([.. found.Select(v => v.Hash)], stop);
        var versions = found.Select(v => v with { Reading = newest.GetValueOrDefault(v.Hash) }).ToList();
        List<KeptReading> kept = [];
        foreach (var (hash, number) in cited.Where(c => c.Reading > 0 && c.Reading != newest.GetValueOrDefault(c.Hash)))
        {
            if (!kept.Exists(k => k.Hash == hash) && await readings.FindAsync(hash, number, stop) is { } older)
                kept.Add(older);
        }
        var (taxa, table) = await floras.ForKeysAsync(versions.SelectMany(v => v.Key.Taxa()).Select(t => t.Name), stop);
        return new Shelf(versions, taxa, table, await evidence.TaughtAsync(stop), await evidence.CorrectedAsync(stop), kept);
    }

    /// <summary>A shelf with those keys alone that the named ones lead to; all, where none is named.</summary>
    public async Task<Shelf> ReachAsync(IReadOnlyCollection<string> with, CancellationToken stop)
    {
        var shelf = await ShelfAsync(with, stop);
        return with.Count == 0 ? shelf : shelf.ReachedFrom(with.Select(w => TrailAnswer.ReadCitation(w).Hash));
    }

    // The year of a list follows from the flora and what is asked alone, and everybody at a place asks the same on a day.
    private async Task<object> OnceAsync(SeasonRequest year, ReadyFlora flora, Func<Task<object>> askAsync)
    {
        var question = SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(year, CoreJson.Default.SeasonRequest));
        return (
            await years.GetOrCreateAsync(
                // A flora that is published anew is made ready anew.
                (nameof(SeasonRequest), flora, Convert.ToHexString(question)),
                entry =>
                {
                    entry.AbsoluteExpirationRelativeToNow = YearKeptFor;
                    return askAsync();
                }
            )
        )!;
    }

    private static readonly TimeSpan YearKeptFor = TimeSpan.FromMinutes(10);

    private async Task<object> ReadAsync(Type type, HttpRequest body, CancellationToken stop)
    {
        if (!body.HasJsonContentType())
            throw new BadHttpRequestException("The request is no JSON.", 415);
        try
        {
            return await JsonSerializer.DeserializeAsync(body.Body, type, json.Value.SerializerOptions, stop)
                ?? throw new BadHttpRequestException("The request is empty.", new JsonException("null is no request."));
        }
        catch (JsonException wrong)
        {
            throw new BadHttpRequestException("The request can't be read.", wrong);
        }
    }

    // A place is named by its id or its name; what isn't one is taken for a grid cell. Null where none is named.
    private async Task<SiftPlace?> PlaceAsync(IPlacedRequest request, CancellationToken stop)
    {
        if (request.PlaceToFind is not { Length: > 0 } named)
            return null;
        if (await places.NamedAsync(named, stop) is { } found)
            return new SiftPlace(found.Cell, found.ElevationMetres, found.Habitats);
        return Plausibility.IsCell(named)
            ? new SiftPlace(named.ToUpperInvariant())
            : throw new RequestException(request.PlaceField, $"No place has the id or name “{named}”, and it is no grid cell such as B2.");
    }
}
