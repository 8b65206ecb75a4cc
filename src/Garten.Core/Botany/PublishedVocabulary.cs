namespace Garten.Core.Botany;

/// <summary>
/// The vocabulary that a flora was published with. What it knew keeps its meaning for that flora whatever is changed later, by curators or
/// by an update of the program; what came later (a part, a quality, a state) counts as it is now, and so does what was merged since.
/// </summary>
public sealed class PublishedVocabulary
{
    private readonly Lazy<Vocabulary> _content;
    private (BotanyIndex Now, BotanyIndex Joined)? _joined;

    /// <summary>A vocabulary that something was published with.</summary>
    /// <param name="version">Hash of its content.</param>
    /// <param name="read">Reads it; asked for only where the vocabulary of now is another one.</param>
    public PublishedVocabulary(string version, Func<Vocabulary> read)
    {
        ArgumentNullException.ThrowIfNull(version);
        ArgumentNullException.ThrowIfNull(read);
        (Version, _content) = (version, new(read));
    }

    /// <summary>Hash of its content.</summary>
    public string Version { get; }

    /// <summary>The vocabulary to weigh with: that of now, with what the published one knew in its meaning of then.</summary>
    /// <param name="now">The vocabulary of now.</param>
    public BotanyIndex In(BotanyIndex now)
    {
        ArgumentNullException.ThrowIfNull(now);
        if (now.Version == Version)
            return now;
        if (_joined is not { } joined || !ReferenceEquals(joined.Now, now))
            _joined = joined = (now, new BotanyIndex(Join(_content.Value, now.Vocabulary), now.Version));
        return joined.Joined;
    }

    /// <summary>A vocabulary without what nothing follows from: words, definitions, terms, pictures.</summary>
    public static Vocabulary Bare(Vocabulary vocabulary)
    {
        ArgumentNullException.ThrowIfNull(vocabulary);
        return new(
            [.. vocabulary.Parts.Select(p => p with { Nouns = [p.Name], Definition = "" })],
            [
                .. vocabulary.Qualities.Select(q =>
                    q with
                    {
                        Measures = [],
                        Definition = "",
                        Trap = "",
                        States = [.. q.States.Select(s => s with { Terms = [], Definition = "", DrawnAs = null, Picture = null })],
                    }
                ),
            ],
            vocabulary.Meanings,
            [.. vocabulary.Implications.Select(i => i with { Because = "" })],
            []
        );
    }

    /// <summary>Joins two versions: what both know means what it meant in the earlier one.</summary>
    /// <param name="then">The earlier one, as it is or bare.</param>
    /// <param name="now">The later one.</param>
    public static Vocabulary Join(Vocabulary then, Vocabulary now)
    {
        ArgumentNullException.ThrowIfNull(then);
        ArgumentNullException.ThrowIfNull(now);
        var parts = then.Parts.DistinctBy(p => p.Id).ToDictionary(p => p.Id, StringComparer.Ordinal);
        var qualities = then.Qualities.DistinctBy(q => q.Id).ToDictionary(q => q.Id, StringComparer.Ordinal);
        var meant = then.Meanings.Select(m => (m.Character, m.State)).ToHashSet();
        bool Knew(string quality, string state) =>
            qualities.TryGetValue(quality, out var known) && (state == Implication.EachState || known.Find(state) is not null);
        return new(
            [
                .. now.Parts.Select(p =>
                    parts.GetValueOrDefault(p.Id) is { } before ? p with { Parent = before.Parent, Class = before.Class } : p
                ),
                .. Gone(then.Parts, now.Parts, p => p.Id),
            ],
            [
                .. now.Qualities.Select(q => qualities.GetValueOrDefault(q.Id) is { } before ? Join(before, q) : q),
                .. Gone(then.Qualities, now.Qualities, q => q.Id),
            ],
            [.. then.Meanings, .. now.Meanings.Where(m => !meant.Contains((m.Character, m.State)))],
            [.. then.Implications, .. now.Implications.Where(i => !Knew(i.Quality, i.State) || !Knew(i.Implies, i.Implied))],
            now.Words
        );
    }

    private static Quality Join(Quality then, Quality now) =>
        now with
        {
            Several = then.Several,
            States =
            [
                .. now.States.Select(s => then.Find(s.Id) is { } before ? s with { Broader = before.Broader, Near = before.Near } : s),
                .. Gone(then.States, now.States, s => s.Id),
            ],
        };

    private static IEnumerable<T> Gone<T>(IReadOnlyList<T> then, IReadOnlyList<T> now, Func<T, string> id)
    {
        var there = now.Select(id).ToHashSet(StringComparer.Ordinal);
        return then.Where(t => !there.Contains(id(t)));
    }
}
