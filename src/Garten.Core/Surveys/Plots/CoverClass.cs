namespace Garten.Core.Surveys.Plots;

/// <summary>A class of a scale of cover and abundance.</summary>
/// <param name="Mark">What is written.</param>
/// <param name="Percent">The cover that stands for it, in per cent: the middle of the class where it is one of cover.</param>
/// <param name="IsOfNumber">Whether it counts individuals of little cover: its per cent is by convention, not measured.</param>
/// <param name="Meaning">What it says.</param>
public sealed record CoverClass(string Mark, double Percent, bool IsOfNumber, string Meaning)
{
    private static readonly IReadOnlyList<CoverClass> Seven =
    [
        new("r", 0.1, true, "a single one, hardly any cover"),
        new("+", 0.5, true, "few, below 1 %"),
        new("1", 2.5, true, "many below 5 %, or scattered"),
        new("2", 15, false, "5 to 25 %"),
        new("3", 37.5, false, "25 to 50 %"),
        new("4", 62.5, false, "50 to 75 %"),
        new("5", 87.5, false, "75 to 100 %"),
    ];

    private static readonly IReadOnlyList<CoverClass> Ten =
    [
        new("1", 0.1, true, "one or two individuals"),
        new("2", 0.5, true, "few individuals"),
        new("3", 2, true, "many individuals, below 4 %"),
        new("4", 7, false, "4 to 10 %"),
        new("5", 18, false, "11 to 25 %"),
        new("6", 29.5, false, "26 to 33 %"),
        new("7", 42, false, "34 to 50 %"),
        new("8", 63, false, "51 to 75 %"),
        new("9", 83, false, "76 to 90 %"),
        new("10", 95.5, false, "91 to 100 %"),
    ];

    /// <summary>The classes of a scale, lowest first; none where it has no classes.</summary>
    public static IReadOnlyList<CoverClass> Of(PlotScale scale) =>
        scale == PlotScale.SevenClasses ? Seven
        : scale == PlotScale.TenClasses ? Ten
        : [];

    /// <summary>The class of a mark; null where the scale hasn't it.</summary>
    public static CoverClass? Find(PlotScale scale, string mark) =>
        Of(scale).FirstOrDefault(c => string.Equals(c.Mark, mark, StringComparison.OrdinalIgnoreCase));
}
