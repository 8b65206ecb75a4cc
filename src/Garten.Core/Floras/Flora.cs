using System.Text.Json.Serialization;

namespace Garten.Core.Floras;

/// <summary>The taxa of a region: an immutable version, named by the hash of its content.</summary>
/// <param name="Id">Stable identity of the flora, such as <c>torvane</c>.</param>
/// <param name="Name">Its name.</param>
/// <param name="Taxa">The taxa, ordered by name.</param>
/// <param name="Table">Characters, descriptions and seasons; null for a flora of names alone.</param>
/// <param name="Grid">The grid that its cells are of, and that positions of its sensitive taxa are coarsened to; null where none is
/// declared.</param>
/// <param name="Vocabulary">Hash of the vocabulary of parts and qualities that its characters were made of; null where none was.</param>
public sealed record Flora(
    string Id,
    string Name,
    IReadOnlyList<Taxon> Taxa,
    CharacterTable? Table = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] FloraGrid? Grid = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Vocabulary = null
);

/// <summary>Finds taxa by the names that keys call them.</summary>
public sealed class TaxonIndex
{
    private readonly Dictionary<string, Taxon> _byName;
    private readonly ILookup<string, Taxon> _byEpithet;
    private static readonly (string Concept, string[] Others)[] Concepts = [(" s.str.", []), (" s.l.", [" agg."]), (" agg.", [" s.l."])];

    /// <summary>Makes an index of taxa; of two with the same name the first counts.</summary>
    public TaxonIndex(IEnumerable<Taxon> taxa)
    {
        var all = taxa.DistinctBy(t => t.Name).ToList();
        _byName = all.ToDictionary(t => t.Name, StringComparer.Ordinal);
        _byEpithet = all.Where(t => t.Name.Contains(' ', StringComparison.Ordinal)).ToLookup(t => Behind(t.Name), StringComparer.Ordinal);
    }

    /// <summary>
    /// The taxon of this name; null where there is none. An abbreviated genus ("V. alba") is understood where just one taxon fits.
    /// </summary>
    public Taxon? Find(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        if (_byName.TryGetValue(name, out var taxon))
            return taxon;
        // Of a broader idea the aggregate is meant where there is one; the narrower one is the species itself, never the aggregate.
        foreach (var (concept, others) in Concepts)
        {
            if (!name.EndsWith(concept, StringComparison.Ordinal))
                continue;
            var bare = name[..^concept.Length];
            return others.Select(o => _byName.GetValueOrDefault(bare + o)).FirstOrDefault(t => t is not null) ?? Find(bare);
        }
        var stop = name.IndexOf(". ", StringComparison.Ordinal);
        if (stop is < 1 or > 3)
            return null;
        var fits = _byEpithet[Behind(name)].Where(t => t.Name.StartsWith(name[..stop], StringComparison.Ordinal)).Take(2).ToList();
        return fits.Count == 1 ? fits[0] : null;
    }

    private static string Behind(string name) => name[(name.IndexOf(' ', StringComparison.Ordinal) + 1)..];
}
