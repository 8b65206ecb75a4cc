using Garten.Core.Characters;
using Garten.Core.Floras;

namespace Garten.Core.Evidence;

/// <summary>
/// States that stand on one plant together: rosette and stem leaves, simple hairs and forked ones, female flowers beside male. What was
/// seen of them is P(O | taxon) = Σ over sets S of P(S | taxon)·Π over states of D, over 1 − P(nothing seen), with D = δ for a state of the
/// set that was seen, 1−δ for one that wasn't, 0.02 for one that was noted falsely; δ = 0.7 for a glance, 1−(1−δ)³ for a search.
/// </summary>
internal static class StatesTogether
{
    /// <summary>P(what was seen of it | the taxon).</summary>
    public static double Of(EvidenceItem item, CharacterDescription description, EvidenceOptions options)
    {
        var character = item.Character;
        var sum = 0d;
        foreach (var (states, share) in SetsOf(character, description, options))
            sum += share * Seen(item, states, options);
        return Math.Min(1, sum);
    }

    // Each state alone by its share, and the sets. Where nothing is said of sets, two frequent states may stand together.
    private static IEnumerable<(int[] States, double Share)> SetsOf(
        Character character,
        CharacterDescription description,
        EvidenceOptions options
    )
    {
        var single = Likelihood.Shares(
            character,
            description.Sets is null ? description : description with { Sets = null },
            description.Sets is null
        );
        if (description.Sets is { } sets)
        {
            foreach (var set in sets)
                yield return ([.. set.States.Select(character.IndexOf).Where(s => s >= 0)], set.Share);
        }
        else
        {
            int[] frequent = [.. Enumerable.Range(0, single.Length).Where(s => single[s] >= options.MayStandTogether)];
            if (frequent.Length > 1)
            {
                var all = frequent.Sum(s => single[s]);
                yield return (frequent, options.StandTogether * all);
                foreach (var s in frequent)
                    single[s] *= 1 - options.StandTogether;
            }
        }
        for (var s = 0; s < single.Length; s++)
        {
            if (single[s] > 0)
                yield return ([s], single[s]);
        }
    }

    /// <summary>P(what was seen | the plant has just these states).</summary>
    public static double Seen(EvidenceItem item, int[] states, EvidenceOptions options)
    {
        var character = item.Character;
        var detection = item.Searched ? 1 - Math.Pow(1 - options.Glance, options.SearchGlances) : options.Glance;
        double p = 1,
            nothing = 1;
        for (var s = 0; s < character.States.Count; s++)
        {
            var isThere = Array.IndexOf(states, s) >= 0;
            var isSeen = item.States.Any(seen => character.Within(seen).Contains(s));
            var seenWith = isThere ? detection : options.FalselySeen;
            // "Hairy" is any kind of it: a kind that isn't there contradicts nothing.
            if (
                isSeen
                && !isThere
                && item.States.Any(seen =>
                    seen != s && character.Within(seen).Contains(s) && character.Within(seen).Any(k => states.Contains(k))
                )
            )
                continue;
            p *= isSeen ? seenWith : 1 - seenWith;
            nothing *= 1 - seenWith;
        }
        return p / (1 - nothing);
    }
}
