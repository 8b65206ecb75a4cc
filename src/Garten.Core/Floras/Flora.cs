namespace Garten.Core.Floras;

/// <summary>Why a plant wants care before it is handled.</summary>
public enum Caution
{
    /// <summary>Poisonous if any part gets into the mouth.</summary>
    Poisonous,

    /// <summary>Sap, hairs or thorns hurt the skin or the eyes.</summary>
    Irritant,

    /// <summary>Protected: not to be picked, cut or dug up.</summary>
    Protected,

    /// <summary>Invasive: not to be carried or spread.</summary>
    Invasive,
}

/// <summary>A taxon of a flora.</summary>
/// <param name="Id">Stable identity within the flora, such as <c>vellorna-alba</c>.</param>
/// <param name="Name">Scientific name without authorship.</param>
/// <param name="Authorship">Who published it; empty where unknown.</param>
/// <param name="Rank">Its rank as a word: genus, species, subspecies …</param>
/// <param name="Parent">Id of the taxon above it; empty at the top.</param>
/// <param name="Family">Name of its family.</param>
/// <param name="CommonName">A common name; empty where it has none.</param>
/// <param name="Cautions">Why it wants care; empty for most.</param>
/// <param name="CautionNote">What the cautions mean for this plant, in a sentence; empty where there are none.</param>
public sealed record Taxon(
    string Id, string Name, string Authorship, string Rank, string Parent, string Family, string CommonName, IReadOnlyList<Caution> Cautions, string CautionNote);

/// <summary>The taxa of a region: an immutable version, named by the hash of its content.</summary>
/// <param name="Id">Stable identity of the flora, such as <c>torvane</c>.</param>
/// <param name="Name">Its name.</param>
/// <param name="Taxa">The taxa, ordered by name.</param>
/// <param name="Table">Characters, descriptions and seasons; null for a flora of names alone.</param>
public sealed record Flora(string Id, string Name, IReadOnlyList<Taxon> Taxa, CharacterTable? Table = null);

/// <summary>Finds taxa by the names that keys call them.</summary>
public sealed class TaxonIndex
{
    private readonly Dictionary<string, Taxon> _byName;
    private readonly ILookup<string, Taxon> _byEpithet;

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
        if (_byName.TryGetValue(name, out var taxon)) return taxon;
        var stop = name.IndexOf(". ", StringComparison.Ordinal);
        if (stop is < 1 or > 3) return null;
        var fits = _byEpithet[Behind(name)].Where(t => t.Name.StartsWith(name[..stop], StringComparison.Ordinal)).Take(2).ToList();
        return fits.Count == 1 ? fits[0] : null;
    }

    private static string Behind(string name) => name[(name.IndexOf(' ', StringComparison.Ordinal) + 1)..];
}
