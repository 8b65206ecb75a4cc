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
        if (first is null || second is null)
            return 0;
        if (first.Applies != second.Applies)
            return 1;
        if (!first.Applies)
            return 0;
        if (first.Range is { } a && second.Range is { } b)
            return 1 - Overlap(likelihood.Distribution(a), likelihood.Distribution(b), character.Kind == CharacterKind.Count);
        var overlap = first.States.Sum(s => Math.Min(s.Share, second.States.FirstOrDefault(o => o.State == s.State)?.Share ?? 0));
        return 1 - Math.Min(1, overlap + OfKinds(character, first.States, second.States));
    }

    // What is only said to be alternate may well be the kind of it that the other one is said to be: no difference can be told.
    private static double OfKinds(Character character, IReadOnlyList<StateShare> first, IReadOnlyList<StateShare> second)
    {
        if (character.States.All(s => s.Broader is null))
            return 0;
        double Left(StateShare share, IReadOnlyList<StateShare> others) =>
            share.Share - Math.Min(share.Share, others.FirstOrDefault(o => o.State == share.State)?.Share ?? 0);
        var left = second.Select(s => Left(s, first)).ToArray();
        var overlap = 0d;
        foreach (var share in first)
        {
            var own = Left(share, second);
            for (var i = 0; i < left.Length && own > 0; i++)
            {
                if (!character.MayBe(share.State, second[i].State))
                    continue;
                var both = Math.Min(own, left[i]);
                overlap += both;
                own -= both;
                left[i] -= both;
            }
        }
        return overlap;
    }

    /// <summary>
    /// The same of several taxa at once, pair by pair (first with second, first with third …): the densities of their ranges are worked out
    /// once on a grid common to all.
    /// </summary>
    public static double[] OfPairs(
        Character character,
        CharacterDescription?[] cells,
        (int First, int Second)[] pairs,
        Likelihood likelihood
    )
    {
        ArgumentNullException.ThrowIfNull(cells);
        ArgumentNullException.ThrowIfNull(pairs);
        ArgumentNullException.ThrowIfNull(likelihood);
        if (Array.Exists(cells, c => c is { Applies: true, Range: not null }) && cells.Length > 2)
        {
            var distributions = Array.ConvertAll(cells, c =>
                c is { Applies: true, Range: { } range } ? likelihood.Distribution(range) : null
            );
            var known = distributions.OfType<RangeDistribution>().ToArray();
            var grid = Grid(known, character.Kind == CharacterKind.Count);
            var shares = Array.ConvertAll(distributions, d => d is null ? null : grid.Shares(d));
            return Array.ConvertAll(pairs, p =>
                shares[p.First] is { } first && shares[p.Second] is { } second
                    ? 1 - Places.Common(first, second)
                    : Of(character, cells[p.First], cells[p.Second], likelihood)
            );
        }
        return Array.ConvertAll(pairs, p => Of(character, cells[p.First], cells[p.Second], likelihood));
    }

    private static double Overlap(RangeDistribution a, RangeDistribution b, bool isCount)
    {
        var grid = Grid([a, b], isCount);
        return Places.Common(grid.Shares(a), grid.Shares(b));
    }

    // The cells in which two distributions are compared: edges of a measure, or counts one by one. The share of a cell is worked out from
    // the distribution, not from its density, so that all shares add up to all of it, however steep it is between two edges.
    private sealed record Places(double[] At, bool IsCount)
    {
        public double[] Shares(RangeDistribution of)
        {
            if (IsCount)
                return Array.ConvertAll(At, x => of.Likelihood(new Measured(x, 1)));
            var shares = new double[At.Length + 1];
            var below = 0d;
            for (var i = 0; i < At.Length; i++)
            {
                var upTo = Normal.BelowRoughly(of.Z(At[i]));
                shares[i] = upTo - below;
                below = upTo;
            }
            shares[^1] = 1 - below;
            return shares;
        }

        public static double Common(double[] first, double[] second)
        {
            var sum = 0d;
            for (var i = 0; i < first.Length; i++)
                sum += Math.Min(first[i], second[i]);
            return Math.Clamp(sum, 0, 1);
        }
    }

    // Even steps on the scale on which plants vary, fine enough for the narrowest of the ranges; counts one by one.
    private static Places Grid(RangeDistribution[] distributions, bool isCount)
    {
        const double far = 4;
        double from = distributions.Min(d => d.Quantile(-far)),
            to = distributions.Max(d => d.Quantile(far));
        if (isCount)
        {
            const int mostCounts = 400;
            var first = (int)Math.Max(0, Math.Floor(from));
            return new Places(
                [.. Enumerable.Range(first, (int)Math.Min(mostCounts, Math.Ceiling(to) - first + 1)).Select(k => (double)k)],
                IsCount: true
            );
        }
        const int fewest = 96,
            most = 720;
        const double perSpread = 8;
        var isLog = distributions[0].Range.Kind is QuantityKind.Length or QuantityKind.Ratio;
        double Scale(double x) => isLog ? Math.Log(x) : x;
        var narrowest = distributions.Min(d => Scale(d.Quantile(0.5)) - Scale(d.Quantile(-0.5)));
        double low = Scale(from),
            span = Scale(to) - low;
        var steps = (int)Math.Clamp(narrowest > 0 ? Math.Ceiling(span / narrowest * perSpread) : most, fewest, most);
        var at = new double[steps + 1];
        for (var i = 0; i <= steps; i++)
        {
            var u = low + i * span / steps;
            at[i] = isLog ? Math.Exp(u) : u;
        }
        return new Places(at, IsCount: false);
    }
}
