using Garten.Core.Evidence;
using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>One item of a sheet weighed against a column: a log ratio and a fit per distinct cell, so that it is worked out once for all
/// taxa that share a cell.</summary>
public sealed class WeighedItem
{
    // Of what isn't described, and of a look that doesn't count.
    private const Fit NoFit = RangeColumn.NoFit;

    private readonly double[] _ratios;
    private readonly double[][] _kin;
    private readonly Fit[] _fits;

    private WeighedItem(EvidenceItem item, CharacterColumn column, double marginal, double[] ratios, double[][] kin, Fit[] fits)
    {
        Marginal = marginal;
        Item = item;
        Column = column;
        _ratios = ratios;
        _kin = kin;
        _fits = fits;
    }

    /// <summary>Weighs an item; it has the same value as <see cref="WeighedSheet"/> gives.</summary>
    /// <param name="item">The item.</param>
    /// <param name="column">The column of its character.</param>
    /// <param name="likelihood">Says how probable a look is under a description.</param>
    /// <param name="controllerIsOnSheet">Whether the character that decides if this one applies is on the sheet itself.</param>
    /// <param name="kinFar">How near strangers stand to a taxon (<see cref="SiftOptions.KinFar"/>); null for none.</param>
    /// <param name="kinDiffers">In how many of its characters a near kin of a taxon shows just what any plant may.</param>
    public static WeighedItem Of(
        EvidenceItem item,
        CharacterColumn column,
        Likelihood likelihood,
        bool controllerIsOnSheet,
        IReadOnlyList<double>? kinFar = null,
        double kinDiffers = 0
    )
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(column);
        ArgumentNullException.ThrowIfNull(likelihood);
        var cells = column.Cells.Count;
        // Written over from end to end, so they needn't be cleared first.
        var fits = GC.AllocateUninitializedArray<Fit>(cells + 1);
        var ratios = GC.AllocateUninitializedArray<double>(cells + 1);
        var kin = new double[kinFar?.Count ?? 0][];
        for (var k = 0; k < kin.Length; k++)
            kin[k] = GC.AllocateUninitializedArray<double>(cells + 1);
        fits[0] = NoFit;
        var ofCells = fits.AsSpan(1);
        ofCells.Fill(NoFit);
        // The likelihoods stand where their logarithms will.
        var raw = ratios.AsSpan(1);
        raw.Clear();
        if (item.Sample?.AsMeasured() is { } measured)
            Measure(item, measured, column, likelihood, raw, ofCells);
        else
            Score(item, column, likelihood, raw, ofCells);
        // Under a cell without the part nothing is likely but that nothing was there.
        var without = item.WithoutThePart;
        foreach (var cell in column.Lacking())
            (raw[cell], ofCells[cell]) = (without, without > 0 ? Fit.Fits : Fit.Conflicts);
        var marginal = likelihood.Marginal(
            item,
            column.Described,
            VectorMath.Sum(raw, column.Shares()),
            without > 0 ? column.Known : column.Having
        );
        if (item.Weight == 0)
        {
            Array.Clear(ratios);
            foreach (var one in kin)
                Array.Clear(one);
            Array.Fill(fits, NoFit);
            return new WeighedItem(item, column, marginal, ratios, kin, fits);
        }
        // (1−d)·((1−ε)·f + ε·m) + d·m over m is a line in f.
        var (slope, least) = likelihood.Softening(item);
        slope /= marginal;
        ratios[0] = 1;
        VectorMath.Line(raw, slope, least);
        if (controllerIsOnSheet)
        {
            // A part that the taxon hasn't: what decides that is weighed itself.
            foreach (var cell in column.Lacking())
                raw[cell] = 1;
        }
        var plain = item.Weight == 1 && kin.Length > 0 ? (double[])ratios.Clone() : ratios;
        VectorMath.Log(ratios);
        if (item.Weight != 1)
        {
            VectorMath.Line(ratios, item.Weight, 0);
            plain = (double[])ratios.Clone();
            VectorMath.Exp(plain);
        }
        for (var k = 0; k < kin.Length; k++)
        {
            var far = SiftOptions.Far(kinDiffers, kinFar![k]);
            plain.CopyTo(kin[k], 0);
            VectorMath.Line(kin[k].AsSpan(1), 1 - far, far);
            VectorMath.Log(kin[k]);
        }
        return new WeighedItem(item, column, marginal, ratios, kin, fits);
    }

    private static void Score(EvidenceItem item, CharacterColumn column, Likelihood likelihood, Span<double> raw, Span<Fit> fits)
    {
        var usual = column.Usual;
        if (item.Context.Keys != 0 || item.Elsewhere.Count > 0)
            item = Likelihood.Learnt(item, column.InContexts);
        var given = Likelihood.GivenOf(item, usual, likelihood.Options);
        for (var c = 0; c < raw.Length; c++)
        {
            if (!column.Applies(c))
                continue;
            var cell = column.Cells[c];
            raw[c] = likelihood.Raw(item, cell, column.SharesOf(c), given, usual);
            fits[c] = likelihood.Verdict(item, raw[c]);
        }
    }

    private static void Measure(
        EvidenceItem item,
        Measured measured,
        CharacterColumn column,
        Likelihood likelihood,
        Span<double> raw,
        Span<Fit> fits
    )
    {
        if (item.Context.IsUsual)
        {
            column.Ranges(likelihood.Options.Ranges).Weigh(measured, raw, fits);
            return;
        }
        // A shaded or a young leaf is judged by a range of its own.
        var widening = item.Larger ? column.ShadeFactor(likelihood.Options) : 1;
        for (var c = 0; c < raw.Length; c++)
        {
            if (column.Applies(c) && likelihood.RangeOf(item, column.Cells[c], widening) is { } range)
                (raw[c], fits[c]) = new RangeDistribution(range, likelihood.Options.Ranges).Weigh(measured);
        }
    }

    /// <summary>The same weights for another item of the same value.</summary>
    internal WeighedItem For(EvidenceItem item) => new(item, Column, Marginal, _ratios, _kin, _fits) { _words = Words };

    /// <summary>Whether two have the same weights, being of the same value.</summary>
    internal bool IsAs(WeighedItem other) => ReferenceEquals(_ratios, other._ratios);

    /// <summary>The item.</summary>
    public EvidenceItem Item { get; }

    private string? _words;

    /// <summary>What was seen, in words and figures.</summary>
    internal string Words => _words ??= Item.InWords();

    /// <summary>The column.</summary>
    public CharacterColumn Column { get; }

    /// <summary>m, its marginal over the flora.</summary>
    internal double Marginal { get; }

    /// <summary>ln of its weighted likelihood over the marginal, for a taxon; 0 where that isn't described.</summary>
    public double Ratio(int taxon) => _ratios[Column.Of()[taxon]];

    /// <summary>How it stands to a taxon; null where that isn't described, or the item doesn't count.</summary>
    public Fit? FitOf(int taxon) => _fits[Column.Of()[taxon]] is var fit and not NoFit ? fit : null;

    /// <summary>Whether it conflicts with a taxon.</summary>
    internal bool ConflictsWith(int taxon) => _fits[Column.Of()[taxon]] == Fit.Conflicts;

    /// <summary>Adds its log ratios to the sums of all taxa, and those of their kin to theirs.</summary>
    /// <param name="sums">By taxon.</param>
    /// <param name="kin">By nearness, then by taxon.</param>
    public void AddTo(double[] sums, double[][] kin)
    {
        var of = Column.Of();
        Add(of, _ratios, sums);
        for (var k = 0; k < _kin.Length; k++)
            Add(of, _kin[k], kin[k]);
    }

    /// <summary>Takes them off again.</summary>
    public void TakeFrom(double[] sums, double[][] kin)
    {
        var of = Column.Of();
        Take(of, _ratios, sums);
        for (var k = 0; k < _kin.Length; k++)
            Take(of, _kin[k], kin[k]);
    }

    private static void Add(ReadOnlySpan<ushort> of, double[] ratios, double[] sums)
    {
        for (var t = 0; t < of.Length; t++)
            sums[t] += ratios[of[t]];
    }

    private static void Take(ReadOnlySpan<ushort> of, double[] ratios, double[] sums)
    {
        for (var t = 0; t < of.Length; t++)
            sums[t] -= ratios[of[t]];
    }
}
