namespace Garten.Core.Identification;

/// <summary>
/// What a place's list has shown of itself: how probable it is that the next plant isn't on it. Each plant that was sifted there adds the
/// probability that was left for "not on this list" when it was named: π = (1.5 + Σ q)/(10 + n), 0.15 before anything is known.
/// </summary>
/// <param name="Sum">Σ q, the sum of what was left for "not on this list"; 0 to <paramref name="Plants"/>.</param>
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

    /// <summary>With one more plant.</summary>
    /// <param name="left">q, what was left for "not on this list" when it was named; 0 to 1.</param>
    public Strangers With(double left) => new(Sum + Math.Clamp(left, 0, 1), Plants + 1);
}
