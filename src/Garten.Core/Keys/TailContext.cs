namespace Garten.Core.Keys;

/// <summary>What is known of a whole text when the destination of one of its leads is read.</summary>
/// <param name="Labels">Labels of all couplets.</param>
/// <param name="Genera">Genera that are named beyond doubt somewhere in the text.</param>
/// <param name="Titles">Titles of all keys.</param>
internal sealed record TailContext(IReadOnlySet<string> Labels, IReadOnlySet<string> Genera, IReadOnlyList<string> Titles)
{
    public static TailContext Empty { get; } =
        new(new HashSet<string>(StringComparer.Ordinal), new HashSet<string>(StringComparer.Ordinal), []);

    /// <summary>Whether a destination that is set off from its lead reads the same without this context: no other key, and no letter, can
    /// be meant.</summary>
    public bool IsPlain { get; } = Titles.Count == 0 && Labels.All(l => char.IsAsciiDigit(l[0]));

    /// <summary>Whether a text is the title of a key of this text, whole or by its first part ("Key B" of "Key B. Twigs in
    /// winter").</summary>
    public bool NamesKey(string text) => Titles.Any(title => KeyTitle.IsNamedBy(title, text));
}
