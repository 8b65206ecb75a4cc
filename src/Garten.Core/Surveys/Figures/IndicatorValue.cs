using Garten.Core.Surveys.Plots;

namespace Garten.Core.Surveys.Figures;

/// <summary>How well a taxon stands for one of several groups of samples (Dufrêne and Legendre 1997: Species assemblages and indicator
/// species). The value is specificity times fidelity: the taxon's mean amount in the group as a share of the sum of its means in all
/// groups, times the share of the group's samples that it stands in.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Group">The group in which its value is largest; of equal ones the first.</param>
/// <param name="Specificity">Mean amount there, as a share of the sum of means: 0 to 1.</param>
/// <param name="Fidelity">Share of the group's samples with it: 0 to 1.</param>
/// <param name="Value">Their product: 0 to 1.</param>
/// <param name="P">How often samples put into groups by chance give a value as large, of the permutations and the groups as they
/// are.</param>
public sealed record IndicatorValue(string Taxon, string Group, double Specificity, double Fidelity, double Value, double P)
{
    /// <summary>Permutations of the test.</summary>
    public const int Permutations = 999;

    // What differs by less is equal: sums in another order differ in their last places.
    private const double Equal = 1e-12;

    /// <summary>Works them out.</summary>
    /// <param name="community">The samples.</param>
    /// <param name="groups">The group of each sample.</param>
    /// <param name="seed">Where chance begins.</param>
    /// <param name="permutations">How many; 0 or more.</param>
    /// <returns>One a taxon, in their order; none where there are fewer than two groups.</returns>
    public static IReadOnlyList<IndicatorValue> Of(
        Community community,
        IReadOnlyList<string> groups,
        long seed,
        int permutations = Permutations
    )
    {
        ArgumentNullException.ThrowIfNull(community);
        ArgumentNullException.ThrowIfNull(groups);
        if (groups.Count != community.Samples.Count)
            throw new ArgumentException("Every sample has a group.", nameof(groups));
        string[] names = [.. groups.Distinct(StringComparer.Ordinal)];
        if (names.Length < 2)
            return [];
        int[] own = [.. groups.Select(g => Array.IndexOf(names, g))];
        var sizes = new int[names.Length];
        foreach (var g in own)
            sizes[g]++;
        // Taxon by taxon only the samples that it stands in count.
        var at = new (int Sample, double Value)[community.Taxa.Count][];
        for (var t = 0; t < at.Length; t++)
        {
            at[t] = [.. Enumerable.Range(0, own.Length).Where(s => community.Of(s)[t] > 0).Select(s => (s, community.Of(s)[t]))];
        }
        var observed = at.Select(taxon => Best(taxon, own, sizes)).ToArray();
        var asLarge = new int[at.Length];
        var draw = new SeededDraw(seed);
        int[] shuffled = [.. own];
        for (var i = 0; i < permutations; i++)
        {
            draw.Shuffle<int>(shuffled);
            for (var t = 0; t < at.Length; t++)
            {
                if (Best(at[t], shuffled, sizes).Value >= observed[t].Value - Equal)
                    asLarge[t]++;
            }
        }
        return
        [
            .. observed.Select(
                (o, t) =>
                    new IndicatorValue(
                        community.Taxa[t],
                        names[o.Group],
                        o.Specificity,
                        o.Fidelity,
                        o.Value,
                        (asLarge[t] + 1.0) / (permutations + 1)
                    )
            ),
        ];
    }

    private static (int Group, double Specificity, double Fidelity, double Value) Best(
        (int Sample, double Value)[] taxon,
        int[] groups,
        int[] sizes
    )
    {
        Span<double> sum = stackalloc double[sizes.Length];
        Span<int> found = stackalloc int[sizes.Length];
        sum.Clear();
        found.Clear();
        foreach (var (sample, value) in taxon)
        {
            sum[groups[sample]] += value;
            found[groups[sample]]++;
        }
        var all = 0.0;
        for (var g = 0; g < sizes.Length; g++)
            all += sum[g] / sizes[g];
        var best = (Group: 0, Specificity: 0.0, Fidelity: 0.0, Value: -1.0);
        for (var g = 0; g < sizes.Length; g++)
        {
            var (specificity, fidelity) = (sum[g] / sizes[g] / all, (double)found[g] / sizes[g]);
            if (specificity * fidelity > best.Value + Equal)
                best = (g, specificity, fidelity, specificity * fidelity);
        }
        return best;
    }
}
