namespace Garten.Core.Surveys.Plots;

/// <summary>A plot of nested squares, with what stands in it.</summary>
/// <param name="Sizes">Sizes of its squares in square metres, the smallest first.</param>
/// <param name="Taxa">The taxa, each with the smallest square in which it stands, from 1; null: in the largest alone.</param>
public sealed record NestedPlot(IReadOnlyList<double> Sizes, IReadOnlyList<(string Taxon, int? Nest)> Taxa);

/// <summary>In how many of the squares of a size a taxon stands.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Found">Squares of the size with it: it stands in all that hold a smaller one with it.</param>
/// <param name="Share">The share of the squares, 0 to 1.</param>
public sealed record NestedTaxon(string Taxon, int Found, double Share);

/// <summary>What stands in nested squares of a size: the step of a species–area curve. Frequencies are those of this size alone.</summary>
/// <param name="SquareMetres">The size.</param>
/// <param name="Squares">Squares of this size.</param>
/// <param name="Richness">Mean number of taxa in them.</param>
/// <param name="Deviation">Its standard deviation; null of a single one.</param>
/// <param name="Taxa">The taxa, the most frequent first.</param>
public sealed record NestedFrequency(double SquareMetres, int Squares, double Richness, double? Deviation, IReadOnlyList<NestedTaxon> Taxa)
{
    /// <summary>Works them out, one a size, the smallest first. Plots whose squares have other sizes count at their own ones.</summary>
    public static IReadOnlyList<NestedFrequency> Of(IReadOnlyList<NestedPlot> plots)
    {
        ArgumentNullException.ThrowIfNull(plots);
        return
        [
            .. plots
                .SelectMany(p => p.Sizes.Select((size, i) => (Size: size, Taxa: In(p, i + 1))))
                .GroupBy(x => x.Size)
                .OrderBy(g => g.Key)
                .Select(g =>
                {
                    double[] numbers = [.. g.Select(x => (double)x.Taxa.Count)];
                    var mean = numbers.Average();
                    return new NestedFrequency(
                        g.Key,
                        numbers.Length,
                        mean,
                        numbers.Length < 2 ? null : Math.Sqrt(numbers.Sum(n => (n - mean) * (n - mean)) / (numbers.Length - 1)),
                        [
                            .. g.SelectMany(x => x.Taxa)
                                .GroupBy(t => t, StringComparer.Ordinal)
                                .Select(t => new NestedTaxon(t.Key, t.Count(), (double)t.Count() / numbers.Length))
                                .OrderByDescending(t => t.Found)
                                .ThenBy(t => t.Taxon, StringComparer.Ordinal),
                        ]
                    );
                }),
        ];
    }

    private static List<string> In(NestedPlot plot, int square) =>
        [.. plot.Taxa.Where(t => (t.Nest ?? plot.Sizes.Count) <= square).Select(t => t.Taxon)];
}
