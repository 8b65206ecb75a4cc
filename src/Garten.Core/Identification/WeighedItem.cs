using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>One item of a sheet weighed against a column: a log ratio and a fit per distinct cell, so that it is worked out once for all taxa that share a cell.</summary>
public sealed class WeighedItem
{
    private readonly double[] _ratios;
    private readonly Fit?[] _fits;
    private readonly int[] _conflicts;
    private readonly double[] _kin;

    private WeighedItem(EvidenceItem item, CharacterColumn column, double[] ratios, double[] kin, Fit?[] fits)
    {
        Item = item;
        Column = column;
        _ratios = ratios;
        _kin = kin;
        _fits = fits;
        _conflicts = Array.ConvertAll(fits, f => f == Fit.Conflicts ? 1 : 0);
    }

    /// <summary>Weighs an item; it has the same value as <see cref="WeighedSheet"/> gives.</summary>
    /// <param name="item">The item.</param>
    /// <param name="column">The column of its character.</param>
    /// <param name="likelihood">Says how probable a look is under a description.</param>
    /// <param name="controllerIsOnSheet">Whether the character that decides if this one applies is on the sheet itself.</param>
    /// <param name="kinDiffers">In how many of its characters a near kin of a taxon shows just what any plant may.</param>
    public static WeighedItem Of(EvidenceItem item, CharacterColumn column, Likelihood likelihood, bool controllerIsOnSheet, double kinDiffers = 0)
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(column);
        ArgumentNullException.ThrowIfNull(likelihood);
        var cells = column.Cells;
        double[] raw = new double[cells.Count], ratios = new double[cells.Count + 1];
        var fits = new Fit?[cells.Count + 1];
        double sum = 0;
        var having = 0;
        var measured = item.Sample?.AsMeasured();
        // A shaded leaf is judged by a range of its own.
        var distributions = measured is null || item.Larger ? null : column.Distributions(likelihood.Options.Ranges);
        for (var c = 0; c < raw.Length; c++)
        {
            fits[c + 1] = Fit.Conflicts;
            if (!column.Applies(c)) continue;
            if (distributions is not null)
            {
                if (distributions[c] is { } known) (raw[c], fits[c + 1]) = known.Weigh(measured!);
            }
            else if (cells[c] is var cell && measured is null)
            {
                raw[c] = likelihood.Raw(item, cell, item.NotFound ? [] : Likelihood.Shares(item.Character, cell));
                fits[c + 1] = likelihood.Verdict(item, raw[c]);
            }
            else if (likelihood.RangeOf(item, cell) is { } range)
            {
                (raw[c], fits[c + 1]) = new RangeDistribution(range, likelihood.Options.Ranges).Weigh(measured);
            }
            sum += raw[c] * column.Counts[c + 1];
            having += column.Counts[c + 1];
        }
        var marginal = likelihood.Marginal(item, column.Described, sum, having);
        for (var c = 0; c < raw.Length; c++)
        {
            // A part that the taxon hasn't: what decides that is weighed itself where it is on the sheet.
            if (!column.Applies(c) && controllerIsOnSheet) continue;
            ratios[c + 1] = item.Weight * Math.Log(likelihood.Soften(item, raw[c], marginal) / marginal);
        }
        if (item.Weight == 0) Array.Clear(fits);
        return new WeighedItem(item, column, ratios, Array.ConvertAll(ratios, r => Math.Log((1 - kinDiffers) * Math.Exp(r) + kinDiffers)), fits);
    }

    /// <summary>The same weights for another item of the same value.</summary>
    internal WeighedItem For(EvidenceItem item) => new(item, Column, _ratios, _kin, _fits);

    /// <summary>Whether two have the same weights, being of the same value.</summary>
    internal bool IsAs(WeighedItem other) => ReferenceEquals(_ratios, other._ratios);

    /// <summary>The item.</summary>
    public EvidenceItem Item { get; }

    /// <summary>The column.</summary>
    public CharacterColumn Column { get; }

    /// <summary>ln of its weighted likelihood over the marginal, for a taxon; 0 where that isn't described.</summary>
    public double Ratio(int taxon) => _ratios[Column.Of()[taxon]];

    /// <summary>How it stands to a taxon; null where that isn't described, or the item doesn't count.</summary>
    public Fit? FitOf(int taxon) => _fits[Column.Of()[taxon]];

    /// <summary>Adds its log ratios to the sums of all taxa, those of their kin to theirs, and its conflicts.</summary>
    public void AddTo(Span<double> sums, Span<double> kin, Span<int> conflicts)
    {
        var of = Column.Of();
        for (var t = 0; t < of.Length; t++)
        {
            var cell = of[t];
            sums[t] += _ratios[cell];
            kin[t] += _kin[cell];
            conflicts[t] += _conflicts[cell];
        }
    }

    /// <summary>Takes them off again.</summary>
    public void TakeFrom(Span<double> sums, Span<double> kin, Span<int> conflicts)
    {
        var of = Column.Of();
        for (var t = 0; t < of.Length; t++)
        {
            var cell = of[t];
            sums[t] -= _ratios[cell];
            kin[t] -= _kin[cell];
            conflicts[t] -= _conflicts[cell];
        }
    }
}
