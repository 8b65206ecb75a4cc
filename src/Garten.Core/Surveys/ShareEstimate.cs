using Garten.Core.Quantities;

namespace Garten.Core.Surveys;

/// <summary>
/// A share with its 95 % interval (Wilson 1927: Probable inference, the law of succession, and statistical inference). What couldn't be
/// found again is neither one nor the other: it widens the share to both sides.
/// </summary>
/// <param name="Count">How many have it.</param>
/// <param name="Known">Of how many it is known.</param>
/// <param name="Unknown">Of how many it isn't: not refound, or not looked at.</param>
/// <param name="Share">Count of known, 0 to 1; null where nothing is known.</param>
/// <param name="Low">Lower bound among the known.</param>
/// <param name="High">Upper bound among the known.</param>
/// <param name="Least">The share if none of the unknown have it; null where there are neither.</param>
/// <param name="Most">The share if all of them have it.</param>
/// <param name="LeastLow">Lower bound of <paramref name="Least"/>.</param>
/// <param name="MostHigh">Upper bound of <paramref name="Most"/>.</param>
public sealed record ShareEstimate(
    int Count,
    int Known,
    int Unknown,
    double? Share,
    double Low,
    double High,
    double? Least,
    double? Most,
    double LeastLow,
    double MostHigh
)
{
    /// <summary>In words: "5 of 6, 83 % (95 %: 44 to 97 %)", and what the unknown may add.</summary>
    public string InWords
    {
        get
        {
            if (Known == 0)
                return Unknown > 0 ? $"not known of any of {Unknown}" : "none marked";
            var known = $"{Count} of {Known}, {Percent.OfShare(Share ?? 0)} (95 %: {Percent.OfShare(Low)} to {Percent.OfShare(High)})";
            return Unknown > 0
                ? $"{known}; {Percent.OfShare(Least ?? 0)} to {Percent.OfShare(Most ?? 1)} with the {Unknown} unknown"
                : known;
        }
    }

    // Of the normal distribution 95 % lie within so many standard deviations.
    private const double Z = 1.959963984540054;

    /// <summary>Works it out.</summary>
    /// <param name="count">How many have it; 0 or more.</param>
    /// <param name="known">Of how many it is known; at least <paramref name="count"/>.</param>
    /// <param name="unknown">Of how many it isn't; 0 or more.</param>
    /// <exception cref="ArgumentOutOfRangeException">A number is below 0, or more have it than are known.</exception>
    public static ShareEstimate Of(int count, int known, int unknown = 0)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(count);
        ArgumentOutOfRangeException.ThrowIfNegative(unknown);
        ArgumentOutOfRangeException.ThrowIfLessThan(known, count);
        var all = known + unknown;
        var (low, high) = Wilson(count, known);
        return new ShareEstimate(
            count,
            known,
            unknown,
            known == 0 ? null : count / (double)known,
            low,
            high,
            all == 0 ? null : count / (double)all,
            all == 0 ? null : (count + unknown) / (double)all,
            Wilson(count, all).Low,
            Wilson(count + unknown, all).High
        );
    }

    /// <summary>Wilson's interval of k of n at 95 %; 0 to 1 where n is 0.</summary>
    public static (double Low, double High) Wilson(int k, int n)
    {
        if (n <= 0)
            return (0, 1);
        var p = k / (double)n;
        const double z2 = Z * Z;
        var middle = (p + z2 / (2 * n)) / (1 + z2 / n);
        var half = Z * Math.Sqrt(p * (1 - p) / n + z2 / (4d * n * n)) / (1 + z2 / n);
        return (k == 0 ? 0 : Math.Max(0, middle - half), k == n ? 1 : Math.Min(1, middle + half));
    }
}
