using System.Globalization;

namespace Garten.Core.Quantities;

/// <summary>Shares and probabilities in words: the one place that says how many figures they are worth.</summary>
public static class Percent
{
    // Between these a whole per cent is said; beyond them only that it is nearly all, or nearly nothing.
    private const double NearlyAll = 0.995;
    private const double NearlyNothing = 0.01;

    /// <summary>A probability: whole per cent, and no more than is known at the ends. What is certain is said so: 0 and 100 %.</summary>
    /// <param name="probability">0 to 1.</param>
    public static string OfProbability(double probability) =>
        probability is >= NearlyAll and < 1 ? "over 99 %"
        : probability is > 0 and < NearlyNothing ? "under 1 %"
        : OfShare(probability);

    /// <summary>A share that was counted: whole per cent.</summary>
    /// <param name="share">0 to 1; above 1 for a multiple.</param>
    public static string OfShare(double share) => string.Create(CultureInfo.InvariantCulture, $"{Math.Round(share * 100):0} %");
}
