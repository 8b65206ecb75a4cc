namespace Garten.Core.Surveys;

/// <summary>What is counted, in words.</summary>
public static class CountWords
{
    /// <summary>What is counted, in the plural: "flowering stems".</summary>
    public static string Of(CountUnit unit) => Of(unit, 2);

    /// <summary>What was counted, in the number that goes with it.</summary>
    public static string Of(CountUnit unit, int count) =>
        (unit, count) switch
        {
            (CountUnit.Individuals, 1) => "individual",
            (CountUnit.Individuals, _) => "individuals",
            (CountUnit.Shoots, 1) => "shoot",
            (CountUnit.Shoots, _) => "shoots",
            (CountUnit.Stems, 1) => "stem",
            (CountUnit.Stems, _) => "stems",
            (CountUnit.Seedlings, 1) => "seedling",
            (CountUnit.Seedlings, _) => "seedlings",
            (CountUnit.Rosettes, 1) => "rosette",
            (CountUnit.Rosettes, _) => "rosettes",
            (CountUnit.Flowering, 1) => "flowering stem",
            (CountUnit.Flowering, _) => "flowering stems",
            (CountUnit.Tufts, 1) => "tuft",
            (CountUnit.Tufts, _) => "tufts",
            (_, 1) => "square metre",
            _ => "square metres",
        };

    /// <summary>How a patch is counted so that nothing comes to harm.</summary>
    public static IReadOnlyList<string> Care { get; } =
    [
        "No visible mark by a plant that may be stolen: keep its place as distances from two fixed points.",
        "No metal in ground that is mown or ploughed.",
        "To a rare plant, or near a nest, the fewest walks: count from the edge.",
    ];
}
