namespace Garten.Core.Identification;

/// <summary>
/// What a place's list has shown of itself: how probable it is that the next plant isn't on it. Each plant that was sifted there adds the
/// probability that it wasn't on the list: π = (1.5 + Σ q)/(10 + n), 0.15 before anything is known (Smith and Makov 1978).
/// </summary>
/// <param name="Sum">Σ q, the sum of the probabilities that the plants weren't on the list; 0 to <paramref name="Plants"/>.</param>
/// <param name="Plants">n, how many plants were sifted by the list; 0 or more.</param>
public sealed record Strangers(double Sum, int Plants)
{
    // What is believed before, and how many plants that is worth.
    private const double FirstSum = 1.5;
    private const double FirstWorth = 10;

    /// <summary>Nothing is known of the list yet.</summary>
    public static Strangers None { get; } = new(0, 0);

    /// <summary>π, the prior of "not on this list": 0.15 at first.</summary>
    public double Prior => (FirstSum + Sum) / (FirstWorth + Plants);

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
    /// <param name="options">The numbers that it was sifted by.</param>
    public Strangers With(double left, SiftOptions options)
    {
        ArgumentNullException.ThrowIfNull(options);
        var raised = options.PriorOfStranger(Prior);
        // Bayes' rule by both priors: the looks say the same under either.
        var (stranger, listed) = (left / raised * Prior, (1 - left) / (1 - raised) * (1 - Prior));
        return new(Sum + Math.Clamp(stranger / (stranger + listed), 0, 1), Plants + 1);
    }
}
