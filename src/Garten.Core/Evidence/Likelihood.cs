using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Evidence;

/// <summary>
/// How probable what was seen is on a plant of a taxon. Of states: Σ over true states u of P(u|taxon)·P(scored|u). Of readings: the
/// density of their mean. Each is (1−ε)·f + ε·m with m the flora-wide marginal, and a doubtful look is mixed further with m.
/// </summary>
public sealed partial class Likelihood
{
    private readonly EvidenceOptions _options;
    private readonly Dictionary<string, Dictionary<string, CharacterDescription>> _byCharacter;
    private readonly Dictionary<QuantityRange, RangeDistribution> _distributions = new(ReferenceEqualityComparer.Instance);
    private readonly Dictionary<(QuantityRange Range, double By), QuantityRange> _widened = [];
    private readonly Dictionary<string, Row[]> _rows = new(StringComparer.Ordinal);

    private readonly Dictionary<string, double[]> _usual = new(StringComparer.Ordinal);
    private readonly Dictionary<string, int> _indices = new(StringComparer.Ordinal);
    private readonly DerivedDescriptions? _derived;
    private readonly Dictionary<string, IReadOnlyDictionary<string, CharacterDescription>> _completed = new(StringComparer.Ordinal);

    /// <summary>A description of a character with the shares of all its states in their order; made once, for the loops over a whole
    /// flora.</summary>
    /// <param name="Index">Place of the taxon, see <see cref="IndexOf"/>.</param>
    /// <param name="Description">The description.</param>
    /// <param name="Shares">Per state of the character its share; empty for a measured one.</param>
    public sealed record Row(int Index, CharacterDescription Description, double[] Shares);

    /// <summary>How many taxa are described.</summary>
    public int Taxa => _indices.Count;

    /// <summary>Place of a taxon among the described ones, from 0; -1 where it isn't described.</summary>
    public int IndexOf(string taxon) => _indices.GetValueOrDefault(taxon, -1);

    /// <summary>Makes the weigher of a table.</summary>
    /// <param name="descriptions">All descriptions of the pack: the marginal is taken over them, never over the candidates.</param>
    /// <param name="options">The numbers to weigh with.</param>
    /// <param name="derived">Completes descriptions by what follows from others; null: only what is written counts.</param>
    public Likelihood(IEnumerable<TaxonDescription> descriptions, EvidenceOptions? options = null, DerivedDescriptions? derived = null)
    {
        _derived = derived;
        _options = options ?? EvidenceOptions.Default;
        _byCharacter = new(StringComparer.Ordinal);
        foreach (var description in descriptions)
        {
            _indices.TryAdd(description.Taxon, _indices.Count);
            foreach (var character in description.Characters)
            {
                if (!_byCharacter.TryGetValue(character.Character, out var own))
                    _byCharacter[character.Character] = own = new(StringComparer.Ordinal);
                own.TryAdd(description.Taxon, character);
            }
        }
    }

    private static readonly Dictionary<string, CharacterDescription> None = new(StringComparer.Ordinal);

    /// <summary>What the taxa are like in a character, by taxon; those that aren't described in it are missing.</summary>
    public IReadOnlyDictionary<string, CharacterDescription> Described(string character) =>
        _byCharacter.GetValueOrDefault(character) ?? None;

    /// <summary>What the taxa are like in a character, by taxon, with what follows from other characters that they are described
    /// in.</summary>
    public IReadOnlyDictionary<string, CharacterDescription> Completed(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        var described = Described(character.Id);
        if (_derived is null || _derived.Sources(character) is not { Count: > 0 } sources)
            return described;
        if (_completed.TryGetValue(character.Id, out var known))
            return known;
        var usual = Usual(character, [.. described.Values]);
        var all = new Dictionary<string, CharacterDescription>(described, StringComparer.Ordinal);
        foreach (var taxon in sources.SelectMany(s => Described(s.Id).Keys).Distinct(StringComparer.Ordinal))
        {
            if (!all.ContainsKey(taxon) && _derived.Of(character, usual, s => Described(s.Id).GetValueOrDefault(taxon)) is { } follows)
                all[taxon] = follows;
        }
        return _completed[character.Id] = all;
    }

    /// <summary>Per state of a character the share that it has among taxa: alike where none is described.</summary>
    /// <param name="character">The character.</param>
    /// <param name="cells">What the taxa that are described in it are like.</param>
    internal static double[] Usual(Character character, IReadOnlyList<CharacterDescription> cells)
    {
        var usual = new double[character.States.Count];
        var known = 0;
        foreach (var cell in cells)
        {
            if (!cell.Applies)
                continue;
            known++;
            var shares = Shares(character, cell);
            for (var s = 0; s < usual.Length; s++)
                usual[s] += shares[s];
        }
        // With one share of what is alike everywhere, so that nothing open is impossible.
        for (var s = 0; s < usual.Length; s++)
            usual[s] = (usual[s] + 1d / usual.Length) / (known + 1);
        return usual;
    }

    /// <summary>
    /// Softened likelihood of an item under a description, on the scale of the marginal: the marginal itself where the taxon isn't
    /// described in the character. Always above 0.
    /// </summary>
    /// <param name="item">What was seen.</param>
    /// <param name="description">What the taxon is like in the item's character; null where unknown.</param>
    /// <param name="marginal">m, the flora-wide marginal of the item.</param>
    /// <param name="controllerIsOnSheet">Whether the character that decides if this one applies is on the sheet itself.</param>
    public double Of(EvidenceItem item, CharacterDescription? description, double marginal, bool controllerIsOnSheet = false)
    {
        ArgumentNullException.ThrowIfNull(item);
        if (description is null || !description.Applies && controllerIsOnSheet)
            return marginal;
        return Soften(item, Raw(item, description), marginal);
    }

    /// <summary>(1−ε)·f + ε·m, mixed further with m by the doubt of the look, and by how probable it is that it is another
    /// plant's.</summary>
    public double Soften(EvidenceItem item, double f, double marginal)
    {
        ArgumentNullException.ThrowIfNull(item);
        var soft = (1 - _options.LapseRate) * f + _options.LapseRate * marginal;
        var own = (1 - _options.Doubt(item.Sureness)) * item.Context.Own;
        return own * soft + (1 - own) * marginal;
    }

    /// <summary>The softened likelihood over the marginal is a line in f/m: its slope, and what it is at f = 0.</summary>
    internal (double Slope, double Least) Softening(EvidenceItem item)
    {
        var own = (1 - _options.Doubt(item.Sureness)) * item.Context.Own;
        return (own * (1 - _options.LapseRate), own * _options.LapseRate + 1 - own);
    }

    /// <summary>f, the likelihood before it is softened; 0 or more.</summary>
    public double Raw(EvidenceItem item, CharacterDescription description)
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(description);
        if (!description.Applies)
            return item.WithoutThePart;
        if (item.Sample is { } sample)
            return RangeOf(item, description) is { } range ? Distribution(range).Likelihood(sample.AsMeasured()) : 0;
        var usual = UsualOf(item.Character);
        item = Learnt(item);
        return Raw(item, description, Shares(item.Character, description), GivenOf(item, usual, _options), usual);
    }

    /// <summary>Per state of a character what share of the plants of the described taxa has it.</summary>
    internal double[] UsualOf(Character character) =>
        _usual.TryGetValue(character.Id, out var known) ? known : _usual[character.Id] = Usual(character, [.. Completed(character).Values]);

    /// <summary>f of scored states, the shares of the description being known.</summary>
    /// <param name="item">What was seen.</param>
    /// <param name="description">The description.</param>
    /// <param name="shares">Per state its share (<see cref="Shares"/>).</param>
    /// <param name="given">Per true state how probable what was seen is (<see cref="GivenOf"/>).</param>
    /// <param name="usual">Per state its share among all taxa.</param>
    internal double Raw(EvidenceItem item, CharacterDescription description, double[] shares, double[] given, double[] usual)
    {
        var speaks = description.Contexts is not null && (item.Context.Keys != 0 || item.Elsewhere.Count > 0);
        if (item.IsPlain && !speaks && description.Sets is null)
            return Math.Min(1, Dot(shares, given));
        if (item.IsPlain)
            return Math.Min(1, InContexts(item, description, shares, usual));
        var own = description.In(item.Context.Described) is { States.Count: > 0 } there
            ? description with
            {
                States = there.States,
                Sets = null,
                Contexts = null,
            }
            : description;
        var one =
            item.Searched || item.Together && item.States.Count > 1
                ? StatesTogether.Of(item, own, _options)
                : Dot(ReferenceEquals(own, description) ? shares : Shares(item.Character, own), given);
        if (item.Context.Mix > 0 && ReferenceEquals(own, description))
            one = (1 - item.Context.Mix) * one + item.Context.Mix * Dot(usual, given);
        return item.Of <= 0 ? Math.Min(1, one) : OfStand(one, item.Show, item.Of, _options.StandAlike);
    }

    private static double Dot(double[] a, double[] b)
    {
        var sum = 0d;
        for (var u = 0; u < a.Length; u++)
            sum += a[u] * b[u];
        return sum;
    }

    /// <summary>m: the mean of f over all described taxa that have the part (where its absence was seen, over all), mixed with the
    /// uniform.</summary>
    public double Marginal(EvidenceItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        var rows = Rows(item.Character);
        return Marginal(item, rows, RawOfRows(item, rows));
    }

    /// <summary>m out of the f of all rows.</summary>
    public double Marginal(EvidenceItem item, IReadOnlyList<Row> rows, IReadOnlyList<double> raw)
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(rows);
        ArgumentNullException.ThrowIfNull(raw);
        var sum = 0d;
        var having = 0;
        for (var i = 0; i < rows.Count; i++)
        {
            if (!rows[i].Description.Applies && item.WithoutThePart == 0)
                continue;
            sum += raw[i];
            having++;
        }
        return Softened(Uniform(item, rows), sum, having);
    }

    /// <summary>m out of the sum of f over the taxa that have the part.</summary>
    /// <param name="item">What was seen.</param>
    /// <param name="span">Least and largest that the flora describes; null where it describes nothing.</param>
    /// <param name="sum">Sum of f.</param>
    /// <param name="having">How many taxa it is taken over.</param>
    internal double Marginal(EvidenceItem item, (double Low, double High)? span, double sum, int having) =>
        Softened(Uniform(item, span), sum, having);

    private double Softened(double uniform, double sum, int having) =>
        having == 0 ? uniform : (1 - _options.UniformShare) * sum / having + _options.UniformShare * uniform;

    /// <summary>The numbers it weighs with.</summary>
    internal EvidenceOptions Options => _options;

    /// <summary>f of every row; worked out once for marginal and weights.</summary>
    public double[] RawOfRows(EvidenceItem item, IReadOnlyList<Row> rows)
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(rows);
        var raw = new double[rows.Count];
        item = Learnt(item);
        var (given, usual) = item.Sample is null ? Prepared(item) : ([], []);
        for (var i = 0; i < raw.Length; i++)
        {
            var row = rows[i];
            raw[i] =
                !row.Description.Applies ? item.WithoutThePart
                : item.Sample is null ? Raw(item, row.Description, row.Shares, given, usual)
                : Raw(item, row.Description);
        }
        return raw;
    }

    private (double[] Given, double[] Usual) Prepared(EvidenceItem item)
    {
        var usual = UsualOf(item.Character);
        return (GivenOf(item, usual, _options), usual);
    }

    /// <summary>All descriptions of a character.</summary>
    public IReadOnlyList<Row> Rows(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        if (_rows.TryGetValue(character.Id, out var rows))
            return rows;
        return _rows[character.Id] = [.. Completed(character).Select(d => new Row(_indices[d.Key], d.Value, Shares(character, d.Value)))];
    }

    // Who says "alternate" may have seen any kind of it.
    private static double WithinConfusion(Character character, int scored, int actual)
    {
        var within = character.Within(scored);
        if (within.Count == 1)
            return Confusion(character, scored, actual);
        var probability = 0d;
        foreach (var kind in within)
            probability += Confusion(character, kind, actual);
        return Math.Min(1, probability);
    }

    // What isn't listed shares the rest. What stands together is met in equal parts. Only where the whole is asked for the shares add up to
    // 1.
    internal static double[] Shares(Character character, CharacterDescription description, bool isWhole = true)
    {
        var shares = new double[character.States.Count];
        foreach (var share in description.States)
        {
            if (character.IndexOf(share.State) is not (>= 0 and var u))
                continue;
            // What is only said to be alternate may be any kind of it.
            var within = character.Within(u);
            foreach (var kind in within)
                shares[kind] += share.Share / within.Count;
        }
        foreach (var set in description.Sets ?? [])
        {
            foreach (var state in set.States)
            {
                if (character.IndexOf(state) is >= 0 and var of)
                    shares[of] += set.Share / set.States.Count;
            }
        }
        if (!isWhole)
            return shares;
        var rest = 1 - shares.Sum();
        var unlisted = shares.Count(p => p == 0);
        if (rest > 1e-9 && unlisted > 0)
            shares = [.. shares.Select(p => p == 0 ? rest / unlisted : p)];
        if (description.Misread is not { Count: > 0 } misread)
            return shares;
        // What a plant is often taken to have takes its part of the scorings, as if it had it.
        for (var u = 0; u < shares.Length; u++)
            shares[u] =
                shares[u] * (1 - DescriptionCell.MisreadShare)
                + (misread.Contains(character.States[u].Id) ? DescriptionCell.MisreadShare / misread.Count : 0);
        return shares;
    }

    /// <summary>m out of the f of all taxa.</summary>
    public double Marginal(EvidenceItem item, IReadOnlyDictionary<string, double> raw)
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(raw);
        var uniform = Uniform(item, Rows(item.Character));
        return raw.Count == 0 ? uniform : (1 - _options.UniformShare) * raw.Values.Average() + _options.UniformShare * uniform;
    }

    private static double Uniform(EvidenceItem item, IReadOnlyList<Row> described)
    {
        if (item.Sample is null)
            return Uniform(item, ((double, double)?)null);
        var ranges = described.Where(d => d.Description.Applies).Select(d => d.Description.Range).OfType<QuantityRange>().ToList();
        return Uniform(item, ranges.Count == 0 ? null : (ranges.Min(r => r.LowExtreme ?? r.Low), ranges.Max(r => r.HighExtreme ?? r.High)));
    }

    /// <summary>The likelihood of an item where nothing is known: states alike, lengths and ratios alike on the logarithm.</summary>
    /// <param name="item">What was seen.</param>
    /// <param name="span">Least and largest that the flora describes; null where it describes nothing.</param>
    internal static double Uniform(EvidenceItem item, (double Low, double High)? span)
    {
        const double room = 2;
        if (item.Sample is not { } sample)
            return 1d / Math.Max(2, item.Character.States.Count) * Math.Max(1, item.States.Count);
        var (low, high) = span ?? (sample.Mean / 10, sample.Mean * 10);
        if (item.Character.Kind is CharacterKind.Count)
            return 1 / (high * room + 1);
        if (item.Character.Kind is CharacterKind.Angle)
            return 1 / 180d;
        // Uniform on the logarithm: density 1/(x·ln(b/a)).
        low = Math.Max(low, high / 1000);
        return 1 / (Math.Max(sample.Mean, low / 10) * Math.Log(high * room / (low / room)));
    }

    /// <summary>
    /// P(scored | true): the reliability on the diagonal; the rest over the other states alike, for ordered ones falling by half with
    /// each step of distance.
    /// </summary>
    public static double Confusion(Character character, int scored, int actual)
    {
        ArgumentNullException.ThrowIfNull(character);
        var n = character.States.Count;
        if (n < 2)
            return 1;
        if (scored == actual)
            return character.Reliability;
        var rest = 1 - character.Reliability;
        if (character.Kind != CharacterKind.Ordered)
            return rest / (n - 1);
        var sum = 0d;
        for (var s = 0; s < n; s++)
        {
            if (s != actual)
                sum += Math.Pow(0.5, Math.Abs(s - actual));
        }
        return rest * Math.Pow(0.5, Math.Abs(scored - actual)) / sum;
    }

    /// <summary>The distribution of a range, made once.</summary>
    public RangeDistribution Distribution(QuantityRange range)
    {
        ArgumentNullException.ThrowIfNull(range);
        if (_distributions.TryGetValue(range, out var made))
            return made;
        return _distributions[range] = new RangeDistribution(range, _options.Ranges);
    }

    /// <summary>How what was seen stands to a description; null where the taxon isn't described in it.</summary>
    public Fit? Verdict(EvidenceItem item, CharacterDescription? description)
    {
        ArgumentNullException.ThrowIfNull(item);
        if (description is null)
            return null;
        if (!description.Applies)
            return item.WithoutThePart > 0 ? Fit.Fits : Fit.Conflicts;
        if (item.Sample is { } sample)
            return RangeOf(item, description) is { } range ? Distribution(range).Verdict(sample.AsMeasured()) : null;
        return Verdict(item, Raw(item, description));
    }

    /// <summary>How a scored state stands to a description under which it has the likelihood <paramref name="p"/>.</summary>
    internal Fit Verdict(EvidenceItem item, double p)
    {
        // Against what a taxon gives that shows it on just this share of its plants: a state seen on one plant in three is no surprise.
        if (item.Of > 0)
            p /= OfStand((item.Show + 0.5) / (item.Of + 1), item.Show, item.Of, _options.StandAlike);
        // Of looks in several contexts the mean one speaks.
        if (item.Elsewhere.Count > 0)
            p = Math.Pow(p, 1d / (item.Elsewhere.Count + 1));
        return p < StateFloor(item, _options.ConflictBelow) ? Fit.Conflicts
            : p < StateFloor(item, _options.DoubtfulBelow) ? Fit.Doubtful
            : p < _options.EdgeBelow ? Fit.AtTheEdge
            : Fit.Fits;
    }

    // A misreading alone gives a state some probability; a state that only misreading explains is in conflict however unreliable the
    // character.
    private static double StateFloor(EvidenceItem item, double bound) =>
        item.NotFound
            ? bound
            : Math.Max(
                bound,
                1.0001
                    * (1 - item.Character.Reliability)
                    / Math.Max(1, item.Character.States.Count - 1)
                    * item.States.Sum(s => item.Character.Within(s).Count)
                    * (bound / EvidenceOptions.Default.ConflictBelow > 1 ? 1.5 : 1)
            );
}
