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

    /// <summary>With one more plant.</summary>
    /// <param name="left">q, what was left for "not on this list" when it was named; 0 to 1.</param>
    public Strangers With(double left) => new(Sum + Math.Clamp(left, 0, 1), Plants + 1);
}
