using Garten.Core.Characters;
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
    private readonly Dictionary<string, double>[] _raw;
    private readonly double[] _marginals;
    private readonly HashSet<string> _onSheet;

    /// <summary>Weighs.</summary>
    /// <param name="items">The items of the sheet.</param>
    /// <param name="likelihood">The weigher of the whole pack, with its descriptions.</param>
    public WeighedSheet(IReadOnlyList<EvidenceItem> items, Likelihood likelihood)
    {
        ArgumentNullException.ThrowIfNull(items);
        ArgumentNullException.ThrowIfNull(likelihood);
        Items = items;
        Likelihood = likelihood;
        _raw = [.. items.Select(likelihood.RawByTaxon)];
        _marginals = [.. items.Select((item, i) => likelihood.Marginal(item, _raw[i]))];
        _onSheet = [.. items.Select(i => i.Character.Id)];
    }

    /// <summary>The items.</summary>
    public IReadOnlyList<EvidenceItem> Items { get; }

    /// <summary>The weigher.</summary>
    public Likelihood Likelihood { get; }

    /// <summary>Weighs a taxon; items for which <paramref name="leaveOut"/> holds don't count.</summary>
    public WeighedTaxon Weigh(string taxon, Func<EvidenceItem, bool>? leaveOut = null)
    {
        var fits = new List<ItemFit>(Items.Count);
        var sum = 0d;
        for (var i = 0; i < Items.Count; i++)
        {
            var item = Items[i];
            if (leaveOut is not null && leaveOut(item)) continue;
            var described = Description(taxon, item.Character.Id);
            var controlled = described is { Applies: false } && item.Character.Needs is { } needs && _onSheet.Contains(needs.Character);
            var ratio = described is null || controlled || item.Weight == 0 ? 0 : item.Weight * Math.Log(Likelihood.Soften(item, _raw[i].GetValueOrDefault(taxon), _marginals[i]) / _marginals[i]);
            sum += ratio;
            fits.Add(new ItemFit(item.Character.Id, item.Weight == 0 ? null : Likelihood.Verdict(item, described), ratio));
        }
        return new WeighedTaxon(taxon, sum, fits);
    }

    /// <summary>The sum of the log ratios alone, for what is asked of many taxa.</summary>
    public double LogLikelihood(string taxon, Func<EvidenceItem, bool>? leaveOut = null)
    {
        var sum = 0d;
        for (var i = 0; i < Items.Count; i++)
        {
            var item = Items[i];
            if (item.Weight == 0 || leaveOut is not null && leaveOut(item)) continue;
            var described = Description(taxon, item.Character.Id);
            if (described is null || !described.Applies && item.Character.Needs is { } needs && _onSheet.Contains(needs.Character)) continue;
            sum += item.Weight * Math.Log(Likelihood.Soften(item, _raw[i].GetValueOrDefault(taxon), _marginals[i]) / _marginals[i]);
        }
        return sum;
    }

    /// <summary>What a taxon is like in a character; null where unknown.</summary>
    public CharacterDescription? Description(string taxon, string character) => Likelihood.Described(character).GetValueOrDefault(taxon);

    /// <summary>Shares out of log weights: each over the sum of all, worked out so that nothing overflows; equal where all are alike.</summary>
    public static double[] Shares(IReadOnlyList<double> logWeights)
    {
        ArgumentNullException.ThrowIfNull(logWeights);
        if (logWeights.Count == 0) return [];
        var top = logWeights.Max();
        if (double.IsNegativeInfinity(top)) return [.. logWeights.Select(_ => 1d / logWeights.Count)];
        var weights = logWeights.Select(w => Math.Exp(w - top)).ToArray();
        var sum = weights.Sum();
        return [.. weights.Select(w => w / sum)];
    }
}
