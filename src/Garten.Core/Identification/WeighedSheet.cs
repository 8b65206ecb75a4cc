using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>How one item of a sheet stands to one taxon.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Fit">How it stands; null where the taxon isn't described in it.</param>
/// <param name="LogRatio">ln of its weighted likelihood over the marginal: above 0 it speaks for the taxon.</param>
public sealed record ItemFit(string Character, Fit? Fit, double LogRatio);

/// <summary>A taxon weighed by a sheet.</summary>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="LogLikelihood">Sum of the log ratios of its items; 0 for an empty sheet.</param>
/// <param name="Items">Item by item.</param>
public sealed record WeighedTaxon(string Taxon, double LogLikelihood, IReadOnlyList<ItemFit> Items)
{
    /// <summary>Items in conflict.</summary>
    public int Conflicts => Items.Count(i => i.Fit == Fit.Conflicts);
}

/// <summary>A sheet weighed against the descriptions of a flora.</summary>
public sealed class WeighedSheet
{
    private readonly double[][] _ratios;
    private readonly double[] _sums;

    /// <summary>Weighs.</summary>
    /// <param name="items">The items of the sheet.</param>
    /// <param name="likelihood">The weigher of the whole pack, with its descriptions.</param>
    public WeighedSheet(IReadOnlyList<EvidenceItem> items, Likelihood likelihood)
    {
        ArgumentNullException.ThrowIfNull(items);
        ArgumentNullException.ThrowIfNull(likelihood);
        Items = items;
        Likelihood = likelihood;
        var onSheet = items.Select(i => i.Character.Id).ToHashSet(StringComparer.Ordinal);
        _ratios = [.. items.Select(item => Ratios(item, likelihood, onSheet))];
        _sums = new double[likelihood.Taxa];
        foreach (var ratios in _ratios)
        {
            for (var t = 0; t < ratios.Length; t++)
                _sums[t] += ratios[t];
        }
    }

    // ln of an item's weighted likelihood over its marginal, by the places of the taxa; 0 for those that aren't described in it.
    private static double[] Ratios(EvidenceItem item, Likelihood likelihood, HashSet<string> onSheet)
    {
        var ratios = new double[likelihood.Taxa];
        if (item.Weight == 0)
            return ratios;
        var rows = likelihood.Rows(item.Character);
        var raw = likelihood.RawOfRows(item, rows);
        var marginal = likelihood.Marginal(item, rows, raw);
        var controlled = item.Character.Needs is { } needs && onSheet.Contains(needs.Character);
        for (var i = 0; i < raw.Length; i++)
        {
            // A part that the taxon hasn't: what decides that is weighed itself where it is on the sheet.
            if (!rows[i].Description.Applies && controlled)
                continue;
            ratios[rows[i].Index] = item.Weight * Math.Log(likelihood.Soften(item, raw[i], marginal) / marginal);
        }
        return ratios;
    }

    /// <summary>The items.</summary>
    public IReadOnlyList<EvidenceItem> Items { get; }

    /// <summary>The weigher.</summary>
    public Likelihood Likelihood { get; }

    /// <summary>Weighs a taxon item by item.</summary>
    public WeighedTaxon Weigh(string taxon)
    {
        var at = Likelihood.IndexOf(taxon);
        var fits = new List<ItemFit>(Items.Count);
        for (var i = 0; i < Items.Count; i++)
        {
            var fit =
                Items[i].Weight == 0
                    ? null
                    : Likelihood.Verdict(Items[i], Likelihood.Completed(Items[i].Character).GetValueOrDefault(taxon));
            fits.Add(new ItemFit(Items[i].Character.Id, fit, at < 0 ? 0 : _ratios[i][at]));
        }
        return new WeighedTaxon(taxon, LogLikelihood(taxon), fits);
    }

    /// <summary>The sum of the log ratios of a taxon; items for which <paramref name="leaveOut"/> holds don't count. 0 where it isn't
    /// described.</summary>
    public double LogLikelihood(string taxon, Func<EvidenceItem, bool>? leaveOut = null)
    {
        var at = Likelihood.IndexOf(taxon);
        if (at < 0)
            return 0;
        if (leaveOut is null)
            return _sums[at];
        var sum = 0d;
        for (var i = 0; i < Items.Count; i++)
        {
            if (!leaveOut(Items[i]))
                sum += _ratios[i][at];
        }
        return sum;
    }

    /// <summary>What a taxon is like in a character; null where unknown.</summary>
    public CharacterDescription? Description(string taxon, string character) => Likelihood.Described(character).GetValueOrDefault(taxon);

    /// <summary>Shares out of log weights: each over the sum of all, worked out so that nothing overflows; equal where all are
    /// alike.</summary>
    public static double[] Shares(IReadOnlyList<double> logWeights)
    {
        ArgumentNullException.ThrowIfNull(logWeights);
        if (logWeights.Count == 0)
            return [];
        var top = logWeights.Max();
        if (double.IsNegativeInfinity(top))
            return [.. logWeights.Select(_ => 1d / logWeights.Count)];
        var weights = logWeights.Select(w => Math.Exp(w - top)).ToArray();
        var sum = weights.Sum();
        return [.. weights.Select(w => w / sum)];
    }
}
