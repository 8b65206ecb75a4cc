namespace Garten.Core.Surveys.Figures;

/// <summary>How alike two samples are.</summary>
public static class Likeness
{
    /// <summary>2a / (2a + b + c) of presence (Sørensen 1948), 0 to 1; null where both are empty.</summary>
    public static double? Sorensen(ReadOnlySpan<double> one, ReadOnlySpan<double> other)
    {
        var (both, a, b) = Shared(one, other);
        return a + b == 0 ? null : 2.0 * both / (a + b);
    }

    /// <summary>a / (a + b + c) of presence (Jaccard 1901), 0 to 1; null where both are empty.</summary>
    public static double? Jaccard(ReadOnlySpan<double> one, ReadOnlySpan<double> other)
    {
        var (both, a, b) = Shared(one, other);
        return a + b == 0 ? null : (double)both / (a + b - both);
    }

    /// <summary>Σ |x − y| / Σ (x + y) (Bray and Curtis 1957): a dissimilarity, 0 to 1; null where both are empty.</summary>
    public static double? BrayCurtis(ReadOnlySpan<double> one, ReadOnlySpan<double> other)
    {
        var (apart, all) = (0.0, 0.0);
        for (var t = 0; t < one.Length; t++)
        {
            apart += Math.Abs(one[t] - other[t]);
            all += one[t] + other[t];
        }
        return all > 0 ? apart / all : null;
    }

    private static (int Both, int One, int Other) Shared(ReadOnlySpan<double> one, ReadOnlySpan<double> other)
    {
        var (both, a, b) = (0, 0, 0);
        for (var t = 0; t < one.Length; t++)
        {
            a += one[t] > 0 ? 1 : 0;
            b += other[t] > 0 ? 1 : 0;
            both += one[t] > 0 && other[t] > 0 ? 1 : 0;
        }
        return (both, a, b);
    }
}
