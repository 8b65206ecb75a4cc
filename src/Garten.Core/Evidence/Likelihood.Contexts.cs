using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Evidence;

/// <content>Looks in other contexts than the usual one, sets of states, stands.</content>
public sealed partial class Likelihood
{
    // What a rule's w is worth beside taxa that are described in both contexts.
    private const double ChangeWorth = 8;

    /// <summary>
    /// A look with the change from context to context as the flora itself shows it: w ← (8·w + Σ changed)/(8 + n), over the n taxa that are
    /// described in both contexts, changed being 1 − the overlap of what they show.
    /// </summary>
    /// <param name="item">The look.</param>
    /// <param name="cells">What taxa are like in its character, with how many are so.</param>
    internal static EvidenceItem Learnt(EvidenceItem item, IReadOnlyList<(CharacterDescription Cell, int Taxa)> cells)
    {
        if (cells.Count == 0 || item.Sample is not null)
            return item;
        EvidenceItem One(EvidenceItem look)
        {
            if (look.Context.Keys == 0 || look.Context.Mix <= 0)
                return look;
            var described = look.Context.Described;
            var (sum, n) = (ChangeWorth * look.Context.Mix, ChangeWorth);
            foreach (var (cell, taxa) in cells)
            {
                if (cell.In(described) is not { States.Count: > 0 } there)
                    continue;
                var (usual, other) = (
                    Shares(look.Character, cell),
                    Shares(look.Character, new CharacterDescription(cell.Character, there.States))
                );
                var overlap = 0d;
                for (var s = 0; s < usual.Length; s++)
                    overlap += Math.Min(usual[s], other[s]);
                sum += taxa * (1 - overlap);
                n += taxa;
            }
            return look with { Context = look.Context with { Mix = Math.Clamp(sum / n, 0, 1) } };
        }
        var learnt = One(item);
        return item.Elsewhere.Count == 0 ? learnt : learnt with { Elsewhere = [.. item.Elsewhere.Select(One)] };
    }

    private readonly Dictionary<string, List<(CharacterDescription, int)>> _inContexts = new(StringComparer.Ordinal);

    private EvidenceItem Learnt(EvidenceItem item)
    {
        if (item.Context.Keys == 0 && item.Elsewhere.Count == 0)
            return item;
        if (!_inContexts.TryGetValue(item.Character.Id, out var cells))
            _inContexts[item.Character.Id] = cells = [
                .. Described(item.Character.Id).Values.Where(c => c.Contexts is not null).Select(c => (c, 1)),
            ];
        return Learnt(item, cells);
    }

    // One true state for all looks in contexts that the description doesn't speak of; a state of its own for each that it speaks of.
    private double InContexts(EvidenceItem item, CharacterDescription description, double[] shares, double[] usual)
    {
        var character = item.Character;
        var f = 1d;
        var silent = new List<EvidenceItem>();
        foreach (var look in item.Elsewhere.Prepend(item))
        {
            if (description.In(look.Context.Described) is { States.Count: > 0 } there)
                f *= Math.Pow(
                    Dot(
                        Shares(character, new CharacterDescription(character.Id, there.States)),
                        GivenOfOne(look with { Context = LookContext.Usual }, usual, _options, item.Elsewhere.Count > 0)
                    ),
                    look.Part
                );
            else
                silent.Add(look);
        }
        if (silent.Count == 0)
            return f;
        var vectors = silent.ConvertAll(look => GivenOfOne(look, usual, _options, item.Elsewhere.Count > 0));
        if (description.Sets is null)
            return f * Joint(shares, silent, vectors);
        var sum = Joint(Shares(character, description with { Sets = null }, isWhole: false), silent, vectors);
        foreach (var set in description.Sets)
        {
            var p = set.Share;
            foreach (var look in silent)
            {
                var seen = StatesTogether.Seen(look, [.. set.States.Select(character.IndexOf).Where(s => s >= 0)], _options);
                var mix = look.Context.Mix;
                p *= Math.Pow((1 - mix) * seen + mix * Dot(usual, GivenOfOne(look, usual, _options, false)), look.Part);
            }
            sum += p;
        }
        return f * sum;
    }

    private static double Joint(double[] shares, List<EvidenceItem> looks, List<double[]> vectors)
    {
        var sum = 0d;
        for (var u = 0; u < shares.Length; u++)
        {
            var p = shares[u];
            for (var i = 0; i < looks.Count && p > 0; i++)
                p *= looks[i].Part == 1 ? vectors[i][u] : Math.Pow(vectors[i][u], looks[i].Part);
            sum += p;
        }
        return sum;
    }

    /// <summary>
    /// Per true state u of the plant how probable all is that was seen of a character: Π over the contexts x of
    /// Σ [(1−w)·I + w·marginal]·P(scored in x | u).
    /// </summary>
    /// <param name="item">What was seen; not a set of states nor a stand.</param>
    /// <param name="usual">Per state its share among all taxa.</param>
    /// <param name="options">The numbers to weigh with.</param>
    internal static double[] GivenOf(EvidenceItem item, double[] usual, EvidenceOptions options)
    {
        if (item.Elsewhere.Count == 0)
            return GivenOfOne(item, usual, options, false);
        var product = new double[item.Character.States.Count];
        Array.Fill(product, 1);
        foreach (var look in item.Elsewhere.Prepend(item))
        {
            var given = GivenOfOne(look, usual, options, true);
            for (var u = 0; u < product.Length; u++)
                product[u] *= look.Part == 1 ? given[u] : Math.Pow(given[u], look.Part);
        }
        return product;
    }

    private static double[] GivenOfOne(EvidenceItem item, double[] usual, EvidenceOptions options, bool withDoubt)
    {
        var character = item.Character;
        var given = new double[character.States.Count];
        if (item.Given is { } known)
        {
            for (var u = 0; u < given.Length; u++)
                given[u] = known[u];
        }
        else if (item.NotFound)
        {
            var absent = EvidenceItem.AbsentState(character);
            for (var u = 0; u < given.Length; u++)
                given[u] =
                    absent < 0 ? 0
                    : u == absent ? 1
                    : 1 - character.Detection;
        }
        else
        {
            for (var u = 0; u < given.Length; u++)
            {
                foreach (var s in item.States)
                    given[u] += WithinConfusion(character, s, u);
                given[u] = Math.Min(1, given[u]);
            }
        }
        // A doubtful one among several contexts is doubtful by itself.
        var mix = 1 - (1 - item.Context.Mix) * (1 - (withDoubt ? options.Doubt(item.Sureness) : 0));
        if (mix > 0)
        {
            var any = Dot(usual, given);
            for (var u = 0; u < given.Length; u++)
                given[u] = (1 - mix) * given[u] + mix * any;
        }
        return given;
    }

    /// <summary>
    /// P(just these k of n show it), where a plant of the taxon shows it with probability p and plants of one stand are alike:
    /// beta-binomial with α = p·φ, β = (1−p)·φ. Of more than <see cref="MostOfStand"/> the same share of so many is taken.
    /// </summary>
    internal static double OfStand(double p, int show, int of, double alike)
    {
        const double least = 0.002;
        p = Math.Clamp(p, least, 1 - least);
        var n = Math.Min(of, MostOfStand);
        var k = (int)Math.Round((double)show * n / of);
        double a = p * alike,
            b = (1 - p) * alike,
            log = 0;
        for (var i = 0; i < k; i++)
            log += Math.Log(a + i);
        for (var i = 0; i < n - k; i++)
            log += Math.Log(b + i);
        for (var i = 0; i < n; i++)
            log -= Math.Log(alike + i);
        // All orders of the plants are alike.
        for (var i = 1; i <= k; i++)
            log += Math.Log((double)(n - k + i) / i);
        return Math.Exp(log);
    }

    // No larger stand says more: kin are alike.
    private const int MostOfStand = 50;

    /// <summary>
    /// The range that readings are held against: that of the context, where the description speaks of it; of shade leaves that of the
    /// shade, else the sun leaf's widened upwards; moved and widened by what the context does to sizes.
    /// </summary>
    /// <param name="item">What was measured.</param>
    /// <param name="description">What the taxon is like.</param>
    /// <param name="widening">By how much leaves of the shade exceed those of the sun; the flora's own where it says
    /// (<see cref="ShadeFactor"/>).</param>
    public QuantityRange? RangeOf(EvidenceItem item, CharacterDescription description, double? widening = null)
    {
        ArgumentNullException.ThrowIfNull(item);
        ArgumentNullException.ThrowIfNull(description);
        if (description.Range is not { } range || item.Context.IsUsual && !item.Larger)
            return description.Range;
        if (description.In(item.Context.Described) is { Range: { } there })
            return there;
        var isLength = range.Kind == QuantityKind.Length;
        if (item.Larger && isLength && description.Shade is { } shade)
            range = shade;
        else if (item.Larger && isLength)
        {
            var by = widening ?? OwnWidening(item.Character);
            if (!_widened.TryGetValue((range, by), out var known))
                _widened[(range, by)] = known = Widened(range, by);
            range = known;
        }
        return isLength && item.Context is { Shift: not 0 } or { Spread: > 0 } ? Moved(range, item.Context, _options.Ranges) : range;
    }

    private readonly Dictionary<string, double> _ownWidening = new(StringComparer.Ordinal);

    private double OwnWidening(Character character) =>
        _ownWidening.TryGetValue(character.Id, out var known)
            ? known
            : _ownWidening[character.Id] = ShadeFactor([.. Described(character.Id).Values], _options);

    /// <summary>
    /// By how much leaves of the shade exceed those of the sun in a character: the geometric mean of the upper bounds where taxa are
    /// described in both, drawn towards the usual 1.5 (worth three taxa).
    /// </summary>
    public static double ShadeFactor(IReadOnlyList<CharacterDescription> cells, EvidenceOptions options)
    {
        ArgumentNullException.ThrowIfNull(cells);
        ArgumentNullException.ThrowIfNull(options);
        const double worth = 3;
        var (sum, n) = (worth * Math.Log(options.ShadeWidening), worth);
        foreach (var cell in cells)
        {
            if (cell is not { Range: { High: > 0 } sun, Shade: { High: > 0 } shade })
                continue;
            sum += Math.Log(shade.High / sun.High);
            n++;
        }
        return Math.Max(1, Math.Exp(sum / n));
    }

    // Normal on the logarithm: means add up, variances too. The extremes keep their distance from the bounds.
    private static QuantityRange Moved(QuantityRange range, LookContext context, RangeOptions options)
    {
        if (range.Low <= 0 || range.High <= 0)
            return range;
        var (low, high) = (Math.Log(range.Low), Math.Log(range.High));
        var half = (high - low) / 2;
        var deviation = half / options.BoundZ;
        var wider = options.BoundZ * Math.Sqrt(deviation * deviation + context.Spread * context.Spread) - half;
        var (down, up) = (Math.Exp(context.Shift - wider), Math.Exp(context.Shift + wider));
        return range with
        {
            Form = range.Form == RangeForm.Exactly ? RangeForm.Between : range.Form,
            Low = range.Low * down,
            High = range.High * up,
            LowExtreme = range.LowExtreme * down,
            HighExtreme = range.HighExtreme * up,
            Text = "",
        };
    }

    /// <summary>A range widened upwards.</summary>
    public static QuantityRange Widened(QuantityRange range, double by)
    {
        ArgumentNullException.ThrowIfNull(range);
        return range with { High = range.High * by, HighExtreme = range.HighExtreme * by };
    }
}
