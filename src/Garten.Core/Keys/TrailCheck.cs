namespace Garten.Core.Keys;

/// <summary>Something about a trail that doesn't fit the keys it names.</summary>
/// <param name="Code">Stable name of the kind of problem, such as <c>trail.couplet</c>.</param>
/// <param name="Step">Index of the answer, from 0; null where it concerns the trail as a whole.</param>
/// <param name="Message">What is wrong, as a sentence.</param>
public sealed record TrailProblem(string Code, int? Step, string Message);

/// <summary>Checks that a trail fits the key versions it names.</summary>
public static class TrailCheck
{
    /// <summary>
    /// The first thing that doesn't fit; null for a sound trail. Sound is a trail whose versions are all on the shelf, whose answers
    /// are for couplets and leads that these have, each couplet once, and which all lie on the way from the start.
    /// </summary>
    public static TrailProblem? Check(KeyShelf shelf, string start, IReadOnlyList<TrailAnswer> answers)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        ArgumentNullException.ThrowIfNull(answers);
        if (shelf.Find(start) is null)
            return new TrailProblem("trail.version", null, "The key version that this trail starts with isn't known here.");
        var seen = new HashSet<(string, string)>();
        for (var i = 0; i < answers.Count; i++)
        {
            var answer = answers[i];
            if (shelf.Find(answer.KeyVersion) is not { } version)
                return new TrailProblem("trail.version", i, $"Answer {i + 1} names a key version that isn't known here.");
            if (version.Find(answer.Couplet) is not { } couplet)
                return new TrailProblem(
                    "trail.couplet",
                    i,
                    $"Answer {i + 1} is for couplet {answer.Couplet}, but “{version.Key.Title}” has no such couplet in the version named."
                );
            if (answer.Lead is { } lead && (lead < 0 || lead >= couplet.Leads.Count))
                return new TrailProblem(
                    "trail.lead",
                    i,
                    $"Answer {i + 1} chooses lead {lead + 1}, but couplet {answer.Couplet} has {couplet.Leads.Count}."
                );
            if (!seen.Add((answer.KeyVersion, answer.Couplet)))
                return new TrailProblem("trail.twice", i, $"Couplet {answer.Couplet} of “{version.Key.Title}” is answered twice.");
        }
        var state = KeyWalk.Follow(shelf, start, answers);
        if (state.Dormant.Count == 0)
            return null;
        var off = answers.ToList().IndexOf(state.Dormant[0]);
        return new TrailProblem(
            "trail.off",
            off,
            $"Answer {off + 1}, for couplet {answers[off].Couplet}, doesn't lie on the way that the other answers take."
        );
    }
}
