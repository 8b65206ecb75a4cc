using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>How a determination is worded: a single taxon, or the set that is still open.</summary>
public static class Conclusion
{
    /// <summary>
    /// The name that holds for all of a set: the taxon itself for a set of one, the genus where all share it, else empty.
    /// An abbreviated genus is never taken for a name.
    /// </summary>
    public static string SharedName(IReadOnlyList<string> names)
    {
        ArgumentNullException.ThrowIfNull(names);
        if (names.Count == 0)
            return "";
        if (names.Count == 1)
            return names[0];
        var genera = names
            .Select(n => TaxonName.TryParseScientific(n, out var name) ? name.Genus : "")
            .Distinct(StringComparer.Ordinal)
            .ToList();
        return genera.Count == 1 && !genera[0].EndsWith('.') ? genera[0] : "";
    }

    /// <summary>The set as words: "Vellorna alba", "Vellorna alba or Vellorna nigra", "A, B or C". Empty for an empty set.</summary>
    public static string InWords(IReadOnlyList<string> names)
    {
        ArgumentNullException.ThrowIfNull(names);
        return names.Count switch
        {
            0 => "",
            1 => names[0],
            _ => string.Join(", ", names.Take(names.Count - 1)) + " or " + names[^1],
        };
    }
}
