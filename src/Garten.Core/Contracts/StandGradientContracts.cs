using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Evidence;

namespace Garten.Core.Contracts;

/// <summary>A marked plant of a place, as it is asked about.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Names">The names that it bears now: several where it is open between them.</param>
/// <param name="Sheet">What was seen of it; may be left out while only pairs of parents are asked for.</param>
public sealed record MarkedPlant(string Label, IReadOnlyList<string> Names, IReadOnlyList<Observation>? Sheet = null);

/// <summary>Plants of a place between two parents that were measured there, out of what was measured on marked plants.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Plants">The marked plants of the place.</param>
/// <param name="First">Name of the first parent; empty: only the pairs that may be compared are told.</param>
/// <param name="Second">Name of the second parent.</param>
public sealed record StandGradientRequest(string FloraId, IReadOnlyList<MarkedPlant>? Plants = null, string First = "", string Second = "")
    : IFloraRequest
{
    /// <summary>More plants than are marked at one place.</summary>
    public const int MostPlants = 2000;

    /// <summary>Tells the pairs of parents that stand there, and places the plants between two of them.</summary>
    /// <param name="flora">The flora, made ready.</param>
    /// <exception cref="RequestException">There are too many plants, or one of the two parents alone is given.</exception>
    public StandGradientAnswer WorkOut(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var plants = Plants ?? [];
        if (plants.Count > MostPlants)
            throw new RequestException("plants", $"Up to {MostPlants} plants are compared.");
        var (first, second) = (First ?? "", Second ?? "");
        if (first.Length == 0 != (second.Length == 0) || (first.Length > 0 && first == second))
            throw new RequestException("second", "Give two parents, or none to be told which may be compared.");
        var pairs = Pairs(flora, plants);
        if (first.Length == 0)
            return new StandGradientAnswer(pairs, null, []);
        var crosses = CrossesOf(flora, first, second);
        var leftOut = new SortedDictionary<string, int>(StringComparer.Ordinal);
        var measured = new List<GradientPlant>();
        var without = new List<string>();
        foreach (var plant in plants)
        {
            if (GroupOf(plant, first, second, crosses) is not { } group)
                continue;
            var values = ValuesOf(flora, plant.Sheet ?? [], leftOut);
            if (values.Count > 0)
                measured.Add(new GradientPlant(plant.Label ?? "", group, values));
            else
                without.Add(plant.Label ?? "");
        }
        List<string> notes =
        [
            .. leftOut.Select(l => $"Left out: {(l.Value == 1 ? "a measure" : $"{l.Value} measures")} {l.Key}."),
            .. without.Count > 0 ? new[] { $"Not measured yet: {string.Join(", ", without)}." } : [],
        ];
        return new StandGradientAnswer(pairs, HybridGradient.Of(measured), notes);
    }

    // Two species of a genus, each borne by some plant alone; those between which most plants are open first.
    private static List<ParentPair> Pairs(ReadyFlora flora, IReadOnlyList<MarkedPlant> plants)
    {
        var species = plants
            .Where(p => p.Names is [_])
            .Select(p => p.Names[0])
            .Distinct(StringComparer.Ordinal)
            .Where(n => flora.Pack.Taxa.Any(t => t.Name == n && t.Rank is "species" or "subspecies"))
            .Order(StringComparer.Ordinal)
            .ToList();
        var pairs = new List<ParentPair>();
        for (var a = 0; a < species.Count; a++)
        {
            for (var b = a + 1; b < species.Count; b++)
            {
                if (Genus(species[a]) != Genus(species[b]))
                    continue;
                var crosses = CrossesOf(flora, species[a], species[b]);
                int Count(GradientGroup group) => plants.Count(p => GroupOf(p, species[a], species[b], crosses) == group);
                pairs.Add(
                    new ParentPair(
                        species[a],
                        species[b],
                        Count(GradientGroup.First),
                        Count(GradientGroup.Second),
                        Count(GradientGroup.Stand)
                    )
                );
            }
        }
        return [.. pairs.OrderByDescending(p => p.Stand).ThenByDescending(p => Math.Min(p.OfFirst, p.OfSecond))];
    }

    private static string Genus(string name) => name.Split(' ')[0];

    private static HashSet<string> CrossesOf(ReadyFlora flora, string first, string second)
    {
        var ids = flora.Pack.Taxa.Where(t => t.Name == first || t.Name == second).Select(t => t.Id).ToHashSet(StringComparer.Ordinal);
        return
        [
            .. flora
                .Pack.Taxa.Where(t =>
                    t.Facts?.Parents is { Count: 2 } parents && parents.All(p => p == first || p == second || ids.Contains(p))
                )
                .Select(t => t.Name),
        ];
    }

    // Nothing where the plant is of neither parent nor between them.
    private static GradientGroup? GroupOf(MarkedPlant plant, string first, string second, HashSet<string> crosses)
    {
        var names = plant.Names ?? [];
        if (names.Count == 0)
            return null;
        if (names.Count == 1 && names[0] == first)
            return GradientGroup.First;
        if (names.Count == 1 && names[0] == second)
            return GradientGroup.Second;
        return names.All(n => n == first || n == second || crosses.Contains(n)) ? GradientGroup.Stand : null;
    }

    // What was measured on grown parts in the light of an unharmed, unshaped plant; of each character the mean, on the logarithm for sizes.
    private static Dictionary<string, double> ValuesOf(
        ReadyFlora flora,
        IReadOnlyList<Observation> sheet,
        SortedDictionary<string, int> leftOut
    )
    {
        var measured = new Dictionary<string, List<double>>(StringComparer.Ordinal);
        var names = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var look in EvidenceSheet.Holding(sheet))
        {
            double[] values = [.. look.Readings.Where(r => r.Struck.Length == 0).Select(r => r.Value)];
            if (look.Outcome != Outcome.Seen || values.Length == 0)
                continue;
            var character = flora.Sifter.Columns.Find(look.Character)?.Character;
            // What follows from measures that are compared already would count them twice.
            if (character is { RatioOf.Count: > 0 } or { TrendOf.Length: > 0 })
                continue;
            var why = character is { IsQuantity: true } ? Otherwise(look) : "in characters that this flora hasn’t";
            if (character is null || why is not null)
            {
                leftOut[why!] = leftOut.GetValueOrDefault(why!) + 1;
                continue;
            }
            if (!measured.TryGetValue(character.Id, out var all))
                measured[character.Id] = all = [];
            all.AddRange(values);
            names[character.Id] = NameOf(character);
        }
        return measured.ToDictionary(m => names[m.Key], m => MeanOf(m.Value), StringComparer.Ordinal);
    }

    private static string NameOf(Character character) =>
        character.Kind switch
        {
            CharacterKind.Length => $"{character.Name} (mm)",
            CharacterKind.Angle => $"{character.Name} (°)",
            _ => character.Name,
        };

    private static double MeanOf(List<double> values) =>
        values.TrueForAll(v => v > 0) ? Math.Exp(values.Average(Math.Log)) : values.Average();

    // Why a measure isn't compared with those of other plants, as the end of a sentence; nothing where it is.
    private static string? Otherwise(Observation look)
    {
        var context = look.Context;
        return look.Sureness == Sureness.Guess ? "that were guessed"
            : context.Light == Light.Shade ? "taken in the shade"
            : context.Stage is Stage.Seedling or Stage.Sapling or Stage.Juvenile ? "of young plants"
            : context.Age is PartAge.Young or PartAge.Old ? "of young or old parts"
            : context.Shaping != Shaping.Unsaid ? "of browsed, cut or dry plants"
            : context.Damage != Damage.Unsaid ? "of harmed parts"
            : context.Material is not (Material.Unsaid or Material.Fresh) ? "of what was not fresh"
            : context.Attachment is Attachment.Beneath or Attachment.PerhapsNeighbours ? "of what lay beneath the plant"
            : null;
    }
}

/// <summary>Two species of a genus that both stand at a place.</summary>
/// <param name="First">Name of the first.</param>
/// <param name="Second">Name of the second.</param>
/// <param name="OfFirst">Marked plants of the first alone.</param>
/// <param name="OfSecond">Marked plants of the second alone.</param>
/// <param name="Stand">Marked plants that are open between the two, or bear the name of their cross.</param>
public sealed record ParentPair(string First, string Second, int OfFirst, int OfSecond, int Stand)
{
    /// <summary>Whether there are plants enough of each to be compared by.</summary>
    public bool IsEnough => Math.Min(OfFirst, OfSecond) >= HybridGradient.FewestParents;

    /// <summary>How many plants there are, in words.</summary>
    public string InWords => $"{OfFirst} and {OfSecond} marked plants, {Stand} between them";
}

/// <summary>What marked plants of a place come to.</summary>
/// <param name="Pairs">Pairs of parents that may be compared, those with most plants between them first.</param>
/// <param name="Gradient">The plants on their line; null where no parents were given.</param>
/// <param name="Notes">What was left out, and why.</param>
public sealed record StandGradientAnswer(IReadOnlyList<ParentPair> Pairs, HybridGradient? Gradient, IReadOnlyList<string> Notes);
