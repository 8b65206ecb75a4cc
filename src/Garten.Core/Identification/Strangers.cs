namespace Garten.Core.Identification;

/// <summary>
/// What a place's list has shown of itself: how probable it is that the next plant isn't on it. What is believed of that share is held
/// against each plant that was sifted there by Bayes' rule: of a share π the plant's looks were as probable as (1−π)·P(looks | listed) +
/// π·P(looks | not listed). So a plant that says nothing changes nothing, however many of them come.
/// </summary>
/// <param name="Sum">Σ q, the sum of the probabilities that the plants weren't on the list; 0 to <paramref name="Plants"/>.</param>
/// <param name="Plants">n, how many plants were sifted by the list; 0 or more.</param>
/// <param name="Belief">How probable each share is, from ½ % to 49½ % in steps of one; null where it isn't known plant by plant: then
/// it follows from the sum.</param>
public sealed record Strangers(double Sum, int Plants, IReadOnlyList<double>? Belief = null)
{
    // One plant in sixteen, believed as firmly as after eight. Lists of which 15 % and 5 % are missing are both soon learnt from there;
    // from one in seven, and counted plant by plant, names of the complete one stayed 6 points too cautious (docs/accuracy.md).
    private const double FirstOff = 0.5;
    private const double FirstListed = 7.5;

    /// <summary>How many shares are told apart.</summary>
    public const int Shares = 50;

    // A list that misses more than every other plant is none.
    private const double MostOff = 0.5;

    // So many digits of a probability are kept: a place's belief is a short answer. No share is given up for good: where strangers come to
    // a list that had proved complete, that is learnt too.
    private const int KeptDigits = 9;
    private const double LeastBelief = 1e-9;

    private static double Share(int i) => (i + 0.5) / Shares * MostOff;

    /// <summary>Nothing is known of the list yet.</summary>
    public static Strangers None { get; } = new(0, 0);

    /// <summary>π, the prior of "not on this list": the mean of what is believed, 0 to 0.5; some 0.06 at first.</summary>
    public double Prior
    {
        get
        {
            var mean = 0d;
            var all = Believed();
            for (var i = 0; i < Shares; i++)
                mean += all[i] * Share(i);
            return mean;
        }
    }

    // Adds up to 1.
    private double[] Believed()
    {
        var all = new double[Shares];
        for (var i = 0; i < Shares; i++)
            all[i] = Belief is { } known
                ? known[i]
                // The beta distribution, in logarithms: of thousands of plants its powers are nothing but 0.
                : ((FirstOff + Sum - 1) * Math.Log(Share(i))) + ((FirstListed + Plants - Sum - 1) * Math.Log(1 - Share(i)));
        if (Belief is null)
        {
            var most = all.Max();
            for (var i = 0; i < Shares; i++)
                all[i] = Math.Exp(all[i] - most);
        }
        return Whole(all);
    }

    private static double[] Whole(double[] all)
    {
        var sum = all.Sum();
        for (var i = 0; i < all.Length; i++)
            all[i] /= sum;
        return all;
    }

    /// <summary>Whether it can be what plants have shown: a sum between 0 and their number, and a belief that says something.</summary>
    internal bool IsSound =>
        Plants >= 0
        && Sum >= 0
        && Sum <= Plants
        && (Belief is null || Belief.Count == Shares && Belief.All(b => b is >= 0 and <= 1) && Belief.Any(b => b > 0));

    // With fewer plants a list is young: what is learnt of it is mostly what was believed before.
    private const int Young = 20;

    /// <summary>What is known of the list, in words; empty before anything is.</summary>
    public string InWords =>
        Plants == 0 ? ""
        : Plants < Young
            ? $"{Plants} {(Plants == 1 ? "plant was" : "plants were")} named by this list here: "
                + "names stay more cautious than they need until it has proved itself."
        : $"By {Plants} plants named here about {Quantities.Percent.OfShare(Prior)} aren’t on this list. "
            + "A list that is narrowed, or that was tried on few kinds of plants, may miss more.";

    /// <summary>With one more plant. It was sifted by a prior that is raised out of caution; what is learnt of the list is taken by what is
    /// believed of it, or the caution would be learnt as if it had been seen.</summary>
    /// <param name="left">What was left for "not on this list" when it was named, by the raised prior; 0 to 1.</param>
    /// <param name="siftedBy">The prior that it was sifted by (<see cref="SiftOptions.PriorOfStranger"/>); above 0, below 1.</param>
    public Strangers With(double left, double siftedBy)
    {
        var prior = Prior;
        // What the looks say for and against, whatever the prior was.
        var (off, listed) = (left / siftedBy, (1 - left) / (1 - siftedBy));
        var (stranger, known) = (off * prior, listed * (1 - prior));
        var all = Believed();
        for (var i = 0; i < Shares; i++)
            all[i] *= (Share(i) * off) + ((1 - Share(i)) * listed);
        return new(
            Sum + Math.Clamp(stranger / (stranger + known), 0, 1),
            Plants + 1,
            [.. Whole(all).Select(b => Math.Max(LeastBelief, Math.Round(b, KeptDigits)))]
        );
    }
}
