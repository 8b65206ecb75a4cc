using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>
/// What a look at a character can show, and how probable that is under each distinct cell of its column: the states, or for a measure
/// the stretches between some cuts.
/// </summary>
internal sealed class OutcomeTable
{
    // Cuts of a measure over a whole flora: more of them tell hardly more.
    private const int FloraStretches = 6;

    private readonly float[] _probability;

    private OutcomeTable(CharacterColumn column, double[] cuts, int outcomes)
    {
        Column = column;
        Cuts = cuts;
        Outcomes = outcomes;
        _probability = new float[column.Cells.Count * outcomes];
        Information = new float[column.Cells.Count];
        Marginal = new double[outcomes];
        OfAll = new double[outcomes];
    }

    /// <summary>The column.</summary>
    public CharacterColumn Column { get; }

    /// <summary>The values that part the stretches of a measure; empty for states.</summary>
    public double[] Cuts { get; }

    /// <summary>How many outcomes there are.</summary>
    public int Outcomes { get; }

    /// <summary>Per cell, Σ p·ln p over its outcomes: minus its entropy, in nats.</summary>
    public float[] Information { get; }

    /// <summary>What any plant shows.</summary>
    public double[] Marginal { get; }

    /// <summary>Per outcome the sum of its probabilities over all taxa that are described and have the part.</summary>
    public double[] OfAll { get; }

    /// <summary>How many taxa those are.</summary>
    public int Having { get; private set; }

    /// <summary>The sum of their <see cref="Information"/>.</summary>
    public double InformationOfAll { get; private set; }

    /// <summary>Σ p·ln p of what any plant shows.</summary>
    public double MarginalInformation { get; private set; }

    /// <summary>The probabilities of the outcomes of a cell.</summary>
    public ReadOnlySpan<float> Of(int cell) => _probability.AsSpan(cell * Outcomes, Outcomes);

    /// <summary>How far two cells stand apart, 0 to 1: 1 − the overlap of what they show, 1 where one of them lacks the part.</summary>
    public double Apart(int first, int second)
    {
        if (first == second || !Column.Applies(first) && !Column.Applies(second))
            return 0;
        var p = Of(first);
        var q = Of(second);
        var overlap = 0d;
        for (var s = 0; s < p.Length; s++)
            overlap += Math.Min(p[s], q[s]);
        return Math.Max(0, 1 - overlap);
    }

    /// <summary>The table of a whole column.</summary>
    public static OutcomeTable Of(CharacterColumn column, SiftOptions options) =>
        Make(column, column.Character.IsQuantity ? FloraCuts(column) : [], null, options);

    /// <summary>The table of a measure cut where some candidates differ; cells of others stay empty.</summary>
    public static OutcomeTable Of(CharacterColumn column, IReadOnlyDictionary<int, double> weightOfCell, SiftOptions options) =>
        Make(column, CandidateCuts(column, weightOfCell), weightOfCell.Keys, options);

    private static OutcomeTable Make(CharacterColumn column, double[] cuts, IEnumerable<int>? only, SiftOptions options)
    {
        var character = column.Character;
        var n = character.IsQuantity ? cuts.Length + 1 : character.States.Count;
        var table = new OutcomeTable(column, cuts, n);
        var raw = new double[n];
        var confusion = character.IsQuantity ? null : Confusions(character);
        // m, what any plant shows: of states over all taxa, as where a sheet is weighed. The stretches of a measure are cut to be about
        // alike.
        if (confusion is null)
            Array.Fill(table.Marginal, 1d / n);
        else
        {
            var having = 0;
            for (var c = 0; c < column.Cells.Count; c++)
            {
                if (!column.Applies(c))
                    continue;
                Shown(column.Cells[c], character, confusion, raw);
                having += column.Counts[c + 1];
                for (var s = 0; s < n; s++)
                    table.Marginal[s] += raw[s] * column.Counts[c + 1];
            }
            var uniform = options.Evidence.UniformShare;
            for (var s = 0; s < n; s++)
                table.Marginal[s] = having == 0 ? 1d / n : (1 - uniform) * table.Marginal[s] / having + uniform / n;
        }
        table.MarginalInformation = table.Marginal.Sum(p => p * Math.Log(p));
        foreach (var c in only ?? Enumerable.Range(0, column.Cells.Count))
        {
            if (!column.Applies(c))
                continue;
            var cell = column.Cells[c];
            if (confusion is null)
                Between(cell, cuts, raw, options);
            else
                Shown(cell, character, confusion, raw);
            var information = 0d;
            var taxa = column.Counts[c + 1];
            for (var s = 0; s < n; s++)
            {
                var p = (1 - options.Evidence.LapseRate) * raw[s] + options.Evidence.LapseRate * table.Marginal[s];
                table._probability[c * n + s] = (float)p;
                table.OfAll[s] += taxa * p;
                information += p * Math.Log(p);
            }
            table.Information[c] = (float)information;
            table.Having += taxa;
            table.InformationOfAll += taxa * information;
        }
        return table;
    }

    private static double[] Confusions(Character character)
    {
        var n = character.States.Count;
        var confusion = new double[n * n];
        for (var u = 0; u < n; u++)
        {
            for (var s = 0; s < n; s++)
                confusion[u * n + s] = Likelihood.Confusion(character, s, u);
        }
        return confusion;
    }

    private static void Shown(CharacterDescription cell, Character character, double[] confusion, double[] raw)
    {
        var shares = Likelihood.Shares(character, cell);
        Array.Clear(raw);
        for (var u = 0; u < shares.Length; u++)
        {
            if (shares[u] == 0)
                continue;
            for (var s = 0; s < raw.Length; s++)
                raw[s] += shares[u] * confusion[u * raw.Length + s];
        }
    }

    private static void Between(CharacterDescription cell, double[] cuts, double[] raw, SiftOptions options)
    {
        Array.Clear(raw);
        if (cell.Range is not { } range)
        {
            Array.Fill(raw, 1d / raw.Length);
            return;
        }
        var distribution = new RangeDistribution(range, options.Evidence.Ranges);
        var spread = distribution.Spread(new Measured(1, options.Readings));
        var below = 0d;
        for (var i = 0; i < cuts.Length; i++)
        {
            var upTo =
                range.Form == RangeForm.Exactly
                    ? distribution.Within(double.NegativeInfinity, cuts[i])
                    : Normal.BelowRoughly(distribution.Z(cuts[i]) / spread);
            raw[i] = Math.Max(0, upTo - below);
            below = Math.Max(below, upTo);
        }
        raw[^1] = Math.Max(0, 1 - below);
    }

    // Where the middles of the flora's ranges part into equal shares.
    private static double[] FloraCuts(CharacterColumn column)
    {
        var middles = new List<double>();
        for (var c = 0; c < column.Cells.Count; c++)
        {
            if (Middle(column.Cells[c]) is { } middle)
                middles.Add(middle);
        }
        middles.Sort();
        var cuts = new List<double>();
        for (var i = 1; i < FloraStretches && middles.Count > 1; i++)
        {
            var at = i * middles.Count / FloraStretches;
            if (at == 0)
                continue;
            Add(cuts, middles[at - 1], middles[at], column.Character.Kind);
        }
        return [.. cuts];
    }

    // Between the middles of the candidates' ranges, where a quarter, a half and three quarters of their weight lie below.
    private static double[] CandidateCuts(CharacterColumn column, IReadOnlyDictionary<int, double> weightOfCell)
    {
        var middles = weightOfCell
            .Select(w => (Middle: Middle(column.Cells[w.Key]), Weight: w.Value))
            .Where(m => m.Middle is not null)
            .OrderBy(m => m.Middle)
            .ToList();
        var all = middles.Sum(m => m.Weight);
        var cuts = new List<double>();
        var below = 0d;
        for (var i = 0; i + 1 < middles.Count; i++)
        {
            var before = below;
            below += middles[i].Weight;
            if (middles.Count <= 4 || Math.Floor(before / all * 4) < Math.Floor(below / all * 4))
                Add(cuts, middles[i].Middle!.Value, middles[i + 1].Middle!.Value, column.Character.Kind);
        }
        return [.. cuts];
    }

    private static void Add(List<double> cuts, double below, double above, CharacterKind kind)
    {
        if (!(above > below))
            return;
        var cut = kind switch
        {
            CharacterKind.Length or CharacterKind.Ratio when below > 0 => Math.Sqrt(below * above),
            // Counts are parted between two numbers.
            CharacterKind.Count => Math.Floor((below + above) / 2) + 0.5,
            _ => (below + above) / 2,
        };
        if (cuts.Count == 0 || cut > cuts[^1])
            cuts.Add(cut);
    }

    private static double? Middle(CharacterDescription cell) =>
        cell is not { Applies: true, Range: { } range } ? null
        : range.Kind is QuantityKind.Length or QuantityKind.Ratio && range.Low > 0 ? Math.Sqrt(range.Low * range.High)
        : (range.Low + range.High) / 2;
}
