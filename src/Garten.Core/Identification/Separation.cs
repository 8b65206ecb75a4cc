using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>How well a character separates two taxa.</summary>
public static class Separation
{
    /// <summary>From here on two taxa hardly ever agree in it.</summary>
    public const double Clean = 0.95;

    /// <summary>
    /// 1 − overlap: Σ min of the shares for states, the area under the lower of the two densities for ranges; 0 where either is unknown,
    /// 1 where the part exists in one of them only.
    /// </summary>
    public static double Of(Character character, CharacterDescription? first, CharacterDescription? second, Likelihood likelihood)
    {
        ArgumentNullException.ThrowIfNull(character);
        ArgumentNullException.ThrowIfNull(likelihood);
        if (first is null || second is null) return 0;
        if (first.Applies != second.Applies) return 1;
        if (!first.Applies) return 0;
        if (first.Range is { } a && second.Range is { } b) return 1 - Overlap(likelihood.Distribution(a), likelihood.Distribution(b), character.Kind == CharacterKind.Count);
        var overlap = first.States.Sum(s => Math.Min(s.Share, second.States.FirstOrDefault(o => o.State == s.State)?.Share ?? 0));
        return 1 - Math.Min(1, overlap);
    }

    private static double Overlap(RangeDistribution a, RangeDistribution b, bool isCount)
    {
        const double far = 4;
        double from = Math.Min(a.Quantile(-far), b.Quantile(-far)), to = Math.Max(a.Quantile(far), b.Quantile(far));
        if (isCount)
        {
            const int mostCounts = 400;
            var first = (int)Math.Max(0, Math.Floor(from));
            return Enumerable.Range(first, (int)Math.Min(mostCounts, Math.Ceiling(to) - first + 1)).Sum(k => Math.Min(a.Likelihood(new Measured(k, 1)), b.Likelihood(new Measured(k, 1))));
        }
        const int steps = 240;
        var isLog = a.Range.Kind is QuantityKind.Length or QuantityKind.Ratio;
        double low = isLog ? Math.Log(from) : from, width = ((isLog ? Math.Log(to) : to) - low) / steps, sum = 0;
        for (var i = 0; i <= steps; i++)
        {
            var x = isLog ? Math.Exp(low + i * width) : low + i * width;
            sum += Math.Min(a.Likelihood(new Measured(x, 1)), b.Likelihood(new Measured(x, 1))) * (isLog ? x : 1) * (i is 0 or steps ? 0.5 : 1);
        }
        return Math.Min(1, sum * width);
    }
}
