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

    /// <summary>Follows the first key that can be, step by step; between two of them others are answered.</summary>
    public static IEnumerable<bool> StepsOf(CoreSession session, IReadOnlyList<KeyVersion> versions)
    {
        if (versions.FirstOrDefault(v => v.Key.Couplets.Count > 0) is not { } key)
            yield break;
        var request = new BenchRequest(key.Hash, [], [], [], AnyDay);
        var json = JsonSerializer.Serialize(request, CoreJson.Default.BenchRequest);
        yield return true;
        request = JsonSerializer.Deserialize(json, CoreJson.Default.BenchRequest)!;
        yield return true;
        var state = request.Follow(session.Shelf);
        yield return true;
        JsonSerializer.Serialize(state, CoreJson.Default.BenchState);
        yield return true;
        (request with { Answers = [new TrailAnswer(key.Hash, key.Key.Couplets[0].Label, 0)] }).Follow(session.Shelf);
    }
}
