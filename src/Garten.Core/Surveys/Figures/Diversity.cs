namespace Garten.Core.Surveys.Figures;

/// <summary>How many taxa a sample has and how evenly it is shared among them. Values are counts or cover; 0 or more.</summary>
public static class Diversity
{
    /// <summary>How many taxa stand in it.</summary>
    public static int Richness(ReadOnlySpan<double> values)
    {
        var taxa = 0;
        foreach (var value in values)
        {
            if (value > 0)
                taxa++;
        }
        return taxa;
    }

    /// <summary>H′ = −Σ p ln p (Shannon 1948), in natural units; null where nothing stands in it.</summary>
    public static double? Shannon(ReadOnlySpan<double> values)
    {
        var total = Sum(values);
        if (total <= 0)
            return null;
        var sum = 0.0;
        foreach (var value in values)
        {
            // A share may be too small for any number.
            var share = value / total;
            if (share > 0)
                sum -= share * Math.Log(share);
        }
        // A single taxon comes out as −0.
        return sum + 0.0;
    }

    /// <summary>1 − Σ p² (Simpson 1949): the probability that two drawn with replacement are of two taxa; null where nothing stands in
    /// it.</summary>
    public static double? Simpson(ReadOnlySpan<double> values) => 1 - SumOfSquares(values);

    /// <summary>1 / Σ p²; null where nothing stands in it.</summary>
    public static double? InverseSimpson(ReadOnlySpan<double> values) => 1 / SumOfSquares(values);

    /// <summary>J = H′ / ln S (Pielou 1966), 0 to 1; null with fewer than two taxa.</summary>
    public static double? Pielou(ReadOnlySpan<double> values) =>
        Richness(values) is > 1 and var taxa ? Shannon(values) / Math.Log(taxa) : null;

    /// <summary>Hill numbers of order 0, 1 and 2 (Hill 1973): S, exp H′ and 1 / Σ p², in effective taxa; null where nothing stands in
    /// it.</summary>
    public static IReadOnlyList<double?> Hill(ReadOnlySpan<double> values) =>
        Sum(values) > 0 ? [Richness(values), Math.Exp(Shannon(values)!.Value), InverseSimpson(values)] : [null, null, null];

    private static double? SumOfSquares(ReadOnlySpan<double> values)
    {
        var total = Sum(values);
        if (total <= 0)
            return null;
        var sum = 0.0;
        foreach (var value in values)
            sum += value / total * (value / total);
        return sum;
    }

    internal static double Sum(ReadOnlySpan<double> values)
    {
        var sum = 0.0;
        foreach (var value in values)
            sum += value;
        return sum;
    }
}
