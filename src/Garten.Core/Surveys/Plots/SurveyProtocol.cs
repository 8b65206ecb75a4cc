using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Seasons;

namespace Garten.Core.Surveys.Plots;

/// <summary>What a plot is.</summary>
[JsonConverter(typeof(CamelCaseWords<PlotKind>))]
public enum PlotKind
{
    /// <summary>A bounded area whose plants are recorded.</summary>
    Quadrat,

    /// <summary>Several quadrats, each within the next larger one; what is in a smaller one is in all larger ones.</summary>
    NestedQuadrat,

    /// <summary>A frame of equal cells: in how many of them a taxon stands.</summary>
    FrequencyFrame,

    /// <summary>Points along a line, each with what a pin touches.</summary>
    PointTransect,

    /// <summary>A strip along a line.</summary>
    BeltTransect,
}

/// <summary>The outline of a plot.</summary>
[JsonConverter(typeof(CamelCaseWords<PlotShape>))]
public enum PlotShape
{
    /// <summary>All sides alike.</summary>
    Square,

    /// <summary>A circle.</summary>
    Circle,

    /// <summary>A rectangle, or a strip.</summary>
    Rectangle,

    /// <summary>A line without breadth.</summary>
    Line,
}

/// <summary>When a plant at the edge counts as within.</summary>
[JsonConverter(typeof(CamelCaseWords<RootingRule>))]
public enum RootingRule
{
    /// <summary>It is rooted within.</summary>
    Rooted,

    /// <summary>Any part of it hangs within.</summary>
    Shoot,
}

/// <summary>What is done with plants on the line itself.</summary>
[JsonConverter(typeof(CamelCaseWords<EdgeRule>))]
public enum EdgeRule
{
    /// <summary>Those on two chosen sides count, those on the other two don't.</summary>
    TwoSides,

    /// <summary>All of them count.</summary>
    Within,

    /// <summary>None of them counts.</summary>
    Without,
}

/// <summary>How much of a taxon is noted in a plot.</summary>
[JsonConverter(typeof(CamelCaseWords<PlotScale>))]
public enum PlotScale
{
    /// <summary>Cover in per cent.</summary>
    Percent,

    /// <summary>Cover and abundance in the seven classes of Braun-Blanquet (1932).</summary>
    SevenClasses,

    /// <summary>Cover and abundance in the ten classes of Domin as given by Dahl and Hadač (1941).</summary>
    TenClasses,

    /// <summary>There or not.</summary>
    Presence,

    /// <summary>Individuals, or shoots where these can't be told apart.</summary>
    Count,

    /// <summary>Pins or cells that it was hit by or stands in, of all that were laid.</summary>
    Hits,
}

/// <summary>How the plots of a survey are laid and recorded. A later version changes what is done from then on; each record says by which
/// version it was made.</summary>
/// <param name="Kind">What a plot is.</param>
/// <param name="Shape">Its outline.</param>
/// <param name="SquareMetres">Its size, of nested quadrats the largest; 0 for lines. Up to 1,000,000.</param>
/// <param name="Pins">Pins laid along a line, or cells of a frame; 0 where there are none. Up to 10,000.</param>
/// <param name="Scale">How much of a taxon is noted.</param>
/// <param name="Rooting">When a plant counts as within.</param>
/// <param name="Edge">What is done with plants on the line.</param>
/// <param name="Layers">Layers that are recorded apart, from above; empty: all as one.</param>
/// <param name="SeasonFrom">First day of the season, MM-DD; empty: any.</param>
/// <param name="SeasonTo">Last day of the season.</param>
/// <param name="LeastMinutes">Fewest minutes at a plot; 0: not said.</param>
/// <param name="TwiceOneIn">Of so many plots one is recorded twice, independently; 0: none.</param>
/// <param name="Note">What else is agreed.</param>
/// <param name="NestSizes">Sizes of nested squares in square metres, the smallest first; the last is the plot's. Null or empty for
/// none.</param>
public sealed record SurveyProtocol(
    PlotKind Kind,
    PlotShape Shape,
    double SquareMetres,
    int Pins,
    PlotScale Scale,
    RootingRule Rooting,
    EdgeRule Edge,
    IReadOnlyList<string> Layers,
    string SeasonFrom = "",
    string SeasonTo = "",
    int LeastMinutes = 0,
    int TwiceOneIn = 10,
    string Note = "",
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<double>? NestSizes = null
)
{
    // Nobody lays more squares into each other.
    private const int MostNests = 12;

    private const double LargestSquareMetres = 1_000_000;
    private const int MostPins = 10_000;
    private const int MostLayers = 12;
    private const int MostMinutes = 24 * 60;
    private const int MostOneIn = 1_000;

    /// <summary>Sizes of nested squares, the smallest first; empty for none.</summary>
    [JsonIgnore]
    public IReadOnlyList<double> Nests => NestSizes ?? [];

    /// <summary>What in it can't be so, with the field; null where it is sound.</summary>
    public (string Field, string Message)? Problem()
    {
        var isLine = Shape == PlotShape.Line;
        if (isLine != (Kind == PlotKind.PointTransect))
            return ("shape", "A line is a transect of points, and every other plot has an area.");
        if (isLine ? SquareMetres != 0 : !(SquareMetres is > 0 and <= LargestSquareMetres))
            return ("squareMetres", isLine ? "A line has no area: leave its size at 0." : "Give the size in square metres, above 0.");
        if (Nests.Count > 0 && Kind != PlotKind.NestedQuadrat)
            return ("nestSizes", "Sizes of nested squares go with nested quadrats.");
        if (Nests.Count > 0 && (Nests.Count is < 2 or > MostNests || !IsRising(Nests) || Nests[^1] != SquareMetres))
            return (
                "nestSizes",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Give 2 to {MostNests} sizes, each larger than the one before; the last is the plot's, {SquareMetres:0.####} m²."
                )
            );
        var needsPins = Scale == PlotScale.Hits;
        if (needsPins ? Pins is < 1 or > MostPins : Pins is < 0 or > MostPins)
            return ("pins", "Say how many pins are laid, or cells the frame has: 1 to 10,000.");
        if (Layers.Count > MostLayers || Layers.Any(string.IsNullOrWhiteSpace))
            return ("layers", string.Create(CultureInfo.InvariantCulture, $"Name up to {MostLayers} layers."));
        if (Layers.Distinct(StringComparer.OrdinalIgnoreCase).Count() < Layers.Count)
            return ("layers", "A layer is there twice.");
        if (!Season().IsSound)
            return ("seasonFrom", "Give the first and the last day of the season as month and day: 05-15. Or neither.");
        if (LeastMinutes is < 0 or > MostMinutes)
            return ("leastMinutes", "The least effort is 0 minutes to a day.");
        return TwiceOneIn is < 0 or > MostOneIn ? ("twiceOneIn", "Of 1 to 1,000 plots one is recorded twice; 0 for none.") : null;
    }

    /// <summary>The season.</summary>
    public MonthDays Season() => new(SeasonFrom, SeasonTo);

    /// <summary>Whether a day lies in the season.</summary>
    public bool IsInSeason(DateOnly day) => Season().Holds(day);

    private static bool IsRising(IReadOnlyList<double> sizes) =>
        sizes[0] > 0 && Enumerable.Range(1, sizes.Count - 1).All(i => sizes[i] > sizes[i - 1]);
}
