using System.Text.Json;
using Garten.Core.Keys;

namespace Garten.Core.Contracts;

/// <summary>
/// What a core does ahead while nobody asks it anything, so that the first couplet doesn't wait for it: whatever an interpreted core does
/// for the first time takes it some thirty times as long as the second time.
/// </summary>
internal static class KeyWarmUp
{
    // What is seen on it is thrown away: any day does.
    private const string AnyDay = "2026-06-01";

    /// <summary>Follows the first key that can be, step by step. Between two of them others are answered, and the shelf may become another
    /// one: each step takes what is on it then.</summary>
    public static IEnumerable<bool> StepsOf(CoreSession session)
    {
        if (FirstOf(session) is not var (_, any))
            yield break;
        var json = JsonSerializer.Serialize(any, CoreJson.Default.BenchRequest);
        yield return true;
        JsonSerializer.Deserialize(json, CoreJson.Default.BenchRequest);
        yield return true;
        if (FirstOf(session) is not var (_, begun))
            yield break;
        var state = begun.Follow(session.Shelf);
        yield return true;
        JsonSerializer.Serialize(state, CoreJson.Default.BenchState);
        yield return true;
        if (FirstOf(session) is var (key, request))
            (request with { Answers = [new TrailAnswer(key.Hash, key.Key.Couplets[0].Label, 0)] }).Follow(session.Shelf);
    }

    private static (KeyVersion Key, BenchRequest Request)? FirstOf(CoreSession session) =>
        session.Shelf.Keys.Versions.FirstOrDefault(v => v.Key.Couplets.Count > 0) is { } key
            ? (key, new BenchRequest(key.Hash, [], [], [], AnyDay))
            : null;
}
