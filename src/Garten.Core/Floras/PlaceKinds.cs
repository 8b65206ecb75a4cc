namespace Garten.Core.Floras;

/// <summary>Kinds of places by which what is planted differs: street, garden, hedge, wood.</summary>
public static class PlaceKinds
{
    private static readonly (string Kind, string[] Words)[] Known =
    [
        ("street", ["street", "road", "avenue", "square", "car park"]),
        ("garden", ["garden", "park", "churchyard", "cemetery", "orchard"]),
        ("hedge", ["hedge"]),
        ("wood", ["wood", "forest", "plantation", "scrub"]),
    ];

    /// <summary>All kinds.</summary>
    public static IReadOnlyList<string> All { get; } = [.. Known.Select(k => k.Kind)];

    /// <summary>The kinds that habitats name: "wet wood" is a wood.</summary>
    public static IReadOnlyList<string> Of(IEnumerable<string> habitats)
    {
        ArgumentNullException.ThrowIfNull(habitats);
        var named = habitats.ToList();
        return
        [
            .. Known
                .Where(k => named.Exists(h => Array.Exists(k.Words, w => h.Contains(w, StringComparison.OrdinalIgnoreCase))))
                .Select(k => k.Kind),
        ];
    }
}
