using System.Text.Json.Serialization;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>A key as it was at one time: immutable, named by its hash.</summary>
/// <param name="Hash">The version's identity, see <see cref="KeyHash"/>.</param>
/// <param name="Key">The key; sound.</param>
/// <param name="Book">The book that its text is from; empty where nothing is said of it.</param>
/// <param name="Reading">Number of its newest reading that is kept; 0 where none is.</param>
public sealed record KeyVersion(string Hash, Key Key, string Book = "", int Reading = 0)
{
    /// <summary>What words are taught for that are read so in its book alone: the book, or the key's title where none is
    /// said.</summary>
    [JsonIgnore]
    public string TaughtFor => Book.Length > 0 ? Book : Key.Title;

    private readonly Dictionary<string, Couplet> _byLabel = Key
        .Couplets.GroupBy(c => c.Label, StringComparer.Ordinal)
        .ToDictionary(g => g.Key, g => g.First(), StringComparer.Ordinal);

    /// <summary>The couplet with this label; null where the key has none.</summary>
    public Couplet? Find(string label) => _byLabel.GetValueOrDefault(label);
}

/// <summary>The key versions within reach of a walk, the newest of each title first.</summary>
public sealed class KeyShelf
{
    private readonly Dictionary<string, KeyVersion> _byHash;
    private readonly Dictionary<(string Reference, string From), IReadOnlyList<KeyVersion>> _resolved = [];

    private readonly TaxonIndex _taxa;

    // Every step of a walk asks for the names at its ends.
    private readonly Dictionary<string, Taxon?> _recognised = new(StringComparer.Ordinal);

    /// <summary>Makes a shelf of versions; of two with the same hash the first stays.</summary>
    /// <param name="newestFirst">The versions, newer before older.</param>
    /// <param name="taxa">The taxa of the flora, by which names in keys are recognised; may be left out.</param>
    public KeyShelf(IEnumerable<KeyVersion> newestFirst, IEnumerable<Taxon>? taxa = null)
    {
        _taxa = new TaxonIndex(taxa ?? []);
        Versions = [.. newestFirst.DistinctBy(v => v.Hash)];
        _byHash = Versions.ToDictionary(v => v.Hash, StringComparer.Ordinal);
    }

    /// <summary>All versions, newest first.</summary>
    public IReadOnlyList<KeyVersion> Versions { get; }

    /// <summary>The taxon of the flora that a key calls by this name; null where the flora hasn't it.</summary>
    public Taxon? Recognise(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        return _recognised.TryGetValue(name, out var known) ? known : _recognised[name] = _taxa.Find(name);
    }

    /// <summary>The version with this hash; null where it isn't on the shelf.</summary>
    public KeyVersion? Find(string hash) => _byHash.GetValueOrDefault(hash);

    /// <summary>
    /// The versions that a hand-over means, by how keys name one another (<see cref="KeyTitle.IsNamedBy"/>): those whose title is the very
    /// same words before those that are named by a part of it, newer before older. Empty where no key on the shelf is meant.
    /// </summary>
    /// <param name="reference">The other key as the lead names it.</param>
    /// <param name="from">The version that hands over; no key hands over to itself.</param>
    public IReadOnlyList<KeyVersion> Resolve(string reference, KeyVersion from)
    {
        ArgumentNullException.ThrowIfNull(from);
        if (_resolved.TryGetValue((reference, from.Hash), out var known))
            return known;
        var own = KeyTitle.Plain(from.Key.Title);
        var plain = KeyTitle.Plain(reference);
        var named = Versions.Where(v => KeyTitle.Plain(v.Key.Title) != own && KeyTitle.IsNamedBy(v.Key.Title, reference)).ToList();
        var found = named.OrderByDescending(v => KeyTitle.Plain(v.Key.Title) == plain).ToList();
        return _resolved[(reference, from.Hash)] = found;
    }
}
