namespace Garten.Core.Confirmation;

/// <summary>What becomes of the names of a plant when it is named again.</summary>
public static class NameChange
{
    /// <summary>Whether new names overturn the earlier ones: they have none in common. Narrowing an open set, or widening it, overturns
    /// nothing; nor does a first name.</summary>
    /// <param name="before">The names that stood, of equal right; empty while there was none.</param>
    /// <param name="now">The names that stand; one or more.</param>
    public static bool Overturns(IReadOnlyCollection<string> before, IReadOnlyCollection<string> now)
    {
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(now);
        return before.Count > 0 && !before.Intersect(now, StringComparer.Ordinal).Any();
    }

    /// <summary>Whether a change has to say why: it overturns what stood, and there is no word of a reason.</summary>
    /// <param name="before">The names that stood.</param>
    /// <param name="now">The names that stand.</param>
    /// <param name="note">What the recorder says; may be blank.</param>
    public static bool NeedsReason(IReadOnlyCollection<string> before, IReadOnlyCollection<string> now, string note) =>
        string.IsNullOrWhiteSpace(note) && Overturns(before, now);
}
