using System.Text.Json.Serialization;
using Garten.Core.Quantities;

namespace Garten.Core.Confirmation;

/// <summary>Which plants a measured one stands for.</summary>
[JsonConverter(typeof(CamelCaseWords<GradientGroup>))]
public enum GradientGroup
{
    /// <summary>The first parent, measured here.</summary>
    First,

    /// <summary>The second parent, measured here.</summary>
    Second,

    /// <summary>The plants in question.</summary>
    Stand,
}

/// <summary>A plant measured for the gradient.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Group">Which plants it stands for.</param>
/// <param name="Values">By character its measure, above 0, or its score.</param>
public sealed record GradientPlant(string Label, GradientGroup Group, IReadOnlyDictionary<string, double> Values);

/// <summary>Where a plant lies between two parents.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Group">Which plants it stands for.</param>
/// <param name="Index">0: as the first parent on the mean, 1: as the second; null where nothing of it was measured that parts them.</param>
/// <param name="Low">Lower bound at 95 %.</param>
/// <param name="High">Upper bound.</param>
/// <param name="Call">What that says, in words.</param>
public sealed record GradientPoint(string Label, GradientGroup Group, double? Index, double Low, double High, string Call);

/// <summary>A character of the gradient.</summary>
/// <param name="Name">Its name.</param>
/// <param name="First">Mean of the first parent.</param>
/// <param name="Second">Mean of the second.</param>
/// <param name="Apart">How many standard deviations the parents lie apart.</param>
/// <param name="Counts">Whether it parts them enough to count.</param>
public sealed record GradientCharacter(string Name, double First, double Second, double Apart, bool Counts);

/// <summary>
/// Plants of a stand between two parents that were measured at the same place. Per character a plant lies at (x − mean of the first)/(mean
/// of the second − mean of the first), on the logarithm for measures; the index is their mean, weighed by the square of how many standard
/// deviations the parents lie apart, which is the linear discriminant of independent characters (Fisher 1936). Sizes of one plant vary
/// together: k characters count as k/(1 + (k−1)/2).
/// </summary>
/// <param name="Points">The plants, from the first parent to the second.</param>
/// <param name="Characters">The characters.</param>
/// <param name="Notes">What has to be known to read it.</param>
public sealed record HybridGradient(
    IReadOnlyList<GradientPoint> Points,
    IReadOnlyList<GradientCharacter> Characters,
    IReadOnlyList<string> Notes
)
{
    /// <summary>Fewest plants of each parent.</summary>
    public const int FewestParents = 3;

    // A character whose parents lie nearer than this parts nothing.
    private const double LeastApart = 1;

    // Correlation of the characters of one plant.
    private const double Correlation = 0.5;

    private const double Z = 1.959963984540054;

    /// <summary>Works it out.</summary>
    /// <param name="plants">The plants, parents and stand.</param>
    public static HybridGradient Of(IReadOnlyList<GradientPlant> plants)
    {
        ArgumentNullException.ThrowIfNull(plants);
        var names = plants.SelectMany(p => p.Values.Keys).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal).ToList();
        var characters = new List<GradientCharacter>();
        var scales = new Dictionary<string, (double First, double Second, double Deviation, double OfMeans, bool IsLog)>(
            StringComparer.Ordinal
        );
        foreach (var name in names)
        {
            var all = plants.Where(p => p.Values.ContainsKey(name)).ToList();
            var isLog = all.TrueForAll(p => p.Values[name] > 0);
            double Scale(double x) => isLog ? Math.Log(x) : x;
            double[] Of(GradientGroup group) => [.. all.Where(p => p.Group == group).Select(p => Scale(p.Values[name]))];
            var (first, second) = (Of(GradientGroup.First), Of(GradientGroup.Second));
            if (first.Length < FewestParents || second.Length < FewestParents)
                continue;
            var (a, b) = (first.Average(), second.Average());
            var squares = first.Sum(x => (x - a) * (x - a)) + second.Sum(x => (x - b) * (x - b));
            // Parents that don't vary at all were scored: a tenth of the distance is the least they can be trusted to.
            var deviation = Math.Max(Math.Sqrt(squares / (first.Length + second.Length - 2)), Math.Abs(b - a) / 10);
            var apart = deviation > 0 ? Math.Abs(b - a) / deviation : 0;
            characters.Add(new GradientCharacter(name, isLog ? Math.Exp(a) : a, isLog ? Math.Exp(b) : b, apart, apart >= LeastApart));
            if (apart >= LeastApart)
                scales[name] = (a, b, deviation, deviation * deviation * (1d / first.Length + 1d / second.Length) / 2, isLog);
        }
        var points = plants.Select(p => Place(p, scales)).OrderBy(p => p.Index is null).ThenBy(p => p.Index).ToList();
        return new HybridGradient(points, characters, NotesOf(points, characters, scales.Count));
    }

    private static GradientPoint Place(
        GradientPlant plant,
        Dictionary<string, (double First, double Second, double Deviation, double OfMeans, bool IsLog)> scales
    )
    {
        double sum = 0,
            weights = 0,
            means = 0;
        var k = 0;
        foreach (var (name, scale) in scales)
        {
            if (!plant.Values.TryGetValue(name, out var value))
                continue;
            var across = scale.Second - scale.First;
            var weight = across * across / (scale.Deviation * scale.Deviation);
            sum += weight * ((scale.IsLog ? Math.Log(value) : value) - scale.First) / across;
            means += weight * weight * scale.OfMeans / (across * across);
            weights += weight;
            k++;
        }
        if (k == 0)
            return new GradientPoint(plant.Label, plant.Group, null, 0, 0, "nothing was measured that parts the parents");
        var index = sum / weights;
        var inflated = 1 + (k - 1) * Correlation;
        var error = Math.Sqrt(inflated * (1 / weights + means / (weights * weights)));
        var (low, high) = (index - Z * error, index + Z * error);
        var call =
            low > 0 && high < 1 ? "between the parents"
            : low <= 0 && high >= 1 ? "can’t be told"
            : low <= 0 ? "as the first parent, or near it"
            : "as the second parent, or near it";
        return new GradientPoint(plant.Label, plant.Group, index, low, high, call);
    }

    private static List<string> NotesOf(List<GradientPoint> points, List<GradientCharacter> characters, int counting)
    {
        var notes = new List<string>();
        if (counting == 0)
            notes.Add(
                characters.Count == 0
                    ? $"Measure at least {FewestParents} plants of each parent at this place, in the same characters as the stand."
                    : "No character parts the parents here: measure others."
            );
        else if (counting == 1)
            notes.Add("One character alone says little: a varied plant of one parent lies between them too.");
        if (points.Exists(p => p.Group == GradientGroup.Stand && p.Call == "between the parents"))
            notes.Add("Lying between proves no first cross: later crosses, and plants that only vary, lie there too.");
        if (counting > 0)
        {
            notes.Add("A backcross is never told from form alone: it lies as near a parent as that parent’s own plants.");
            notes.Add("Some hybrids resemble one parent in most they show: a plant near a parent isn’t thereby one.");
        }
        return notes;
    }
}
