using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Language;

namespace Garten.Core.Keys;

/// <summary>
/// How probable an answer at a couplet is under each end of the keys: P(answer l | t) = (1−λ)·p_l(t) + λ/L, p_l the normalised product over
/// the couplet's characters of the probability that a plant of t is scored in what lead l says. It is the same account for ends that stand
/// and for ends that an answer left behind. Of a taxon that lies under the couplet the key's own word counts as much as the flora's, and
/// alone where the flora doesn't describe it in any of the characters; of one that lies elsewhere and isn't described every lead is alike.
/// So is it of one that other keys, which this couplet leads on to, have under every lead: a key that sends all it doesn't know to a
/// general one says nothing of what that holds.
/// </summary>
internal sealed class AnswerAccount
{
    // λ, the share of answers that say nothing of the plant: of a sure one, and of a less sure one (0.85 right of two leads).
    private const double SureSlip = 0.03;
    private const double FairSlip = 0.3;

    // λ under a taxon that lies elsewhere: at a couplet that isn't meant for the plant neither lead fits, and the answer is mostly a guess.
    private const double ElsewhereSlip = 0.7;

    // How far the key's own word on a taxon counts beside the flora's description of it: each may be wrong about a plant.
    private const double KeyShare = 0.5;

    // No single character makes an answer more certain than this: a description of a taxon isn't every plant of it.
    private const double Least = 0.02;

    private readonly int _leads;
    private readonly (string Character, double[]?[] OfEnd)[] _characters;
    private readonly string[] _spoken;
    private readonly bool[][] _under;
    private readonly int[] _leadsOver;
    private readonly bool[] _isKeyedOutTwice;

    private AnswerAccount(
        int leads,
        (string Character, double[]?[] OfEnd)[] characters,
        string[] spoken,
        bool[][] under,
        int[] leadsOver,
        bool[] isKeyedOutTwice
    ) =>
        (_leads, _characters, _spoken, _under, _leadsOver, _isKeyedOutTwice) = (
            leads,
            characters,
            spoken,
            under,
            leadsOver,
            isKeyedOutTwice
        );

    /// <summary>Works out what doesn't change with sheet and answers; kept by the shelf.</summary>
    /// <param name="shelf">Keys and flora.</param>
    /// <param name="map">The couplets within reach.</param>
    /// <param name="place">The couplet.</param>
    public static AnswerAccount Of(BenchShelf shelf, KeyMap map, KeyPlace place)
    {
        var names = map.Behind(map.Start);
        var steps = map.Steps(place);
        var readings = shelf.Readings(shelf.Keys.Find(place.Version)!, place.Couplet);
        var characters = new List<(string, double[]?[])>();
        string[] spoken =
        [
            .. readings
                .SelectMany(l => l)
                .SelectMany(s => s.Claims)
                .Where(c => c.IsOfUsualAge)
                .Select(c => c.Character)
                .Distinct(StringComparer.Ordinal),
        ];
        foreach (var id in spoken)
        {
            if (shelf.Table.Find(id) is not { } character)
                continue;
            var claims = readings
                .Select(l => l.SelectMany(s => s.Claims).Where(c => c.Character == id && c.IsOfUsualAge).ToList())
                .ToList();
            var described = shelf.Likelihood.Described(id);
            var known = new Dictionary<CharacterDescription, double[]>(ReferenceEqualityComparer.Instance);
            var ofEnd = new double[]?[names.Length];
            for (var i = 0; i < names.Length; i++)
            {
                if (map.Ids[names[i]] is not { } taxon || !described.TryGetValue(taxon, out var cell))
                    continue;
                if (!known.TryGetValue(cell, out var of))
                    known[cell] = of = character.IsQuantity ? OfCuts(shelf.Likelihood, claims, cell) : OfStates(character, claims, cell);
                ofEnd[i] = of;
            }
            if (Array.Exists(ofEnd, e => e is not null))
                characters.Add((id, ofEnd));
        }
        var under = steps
            .Select(step =>
            {
                var behind = map.Behind(step).ToHashSet(StringComparer.Ordinal);
                return Array.ConvertAll(names, behind.Contains);
            })
            .ToArray();
        var leadsOver = names.Select((_, i) => under.Count(lead => lead[i])).ToArray();
        // What lies behind a lead of a key that leads on to no other one, that key names itself.
        var named = map.IsOneKey ? null : Array.ConvertAll(steps, step => map.Named(place.Version, step));
        var isKeyedOutTwice = names.Select((n, i) => (named?.Count(lead => lead.Contains(n)) ?? leadsOver[i]) > 1).ToArray();
        return new AnswerAccount(steps.Length, [.. characters], spoken, under, leadsOver, isKeyedOutTwice);
    }

    /// <summary>Adds ln P(answer | end) for each end; nothing for "can't tell".</summary>
    /// <param name="logs">The sums, in the order of the map's ends.</param>
    /// <param name="answer">The answer.</param>
    /// <param name="onSheet">Characters that the sheet itself speaks of: what the couplet says of them counts there.</param>
    public void AddTo(double[] logs, TrailAnswer answer, IReadOnlySet<string> onSheet)
    {
        if (answer.Lead is not { } chosen || chosen < 0 || chosen >= _leads)
            return;
        var counting = _characters.Where(c => !onSheet.Contains(c.Character)).ToArray();
        // The key's own word is of all that the couplet says together: where the sheet speaks of any of it, the sheet counts.
        var byKey = !Array.Exists(_spoken, onSheet.Contains);
        var slip = answer.Sureness == Sureness.Sure ? SureSlip : FairSlip;
        Span<double> of = stackalloc double[_leads];
        for (var i = 0; i < logs.Length; i++)
        {
            of.Fill(1);
            var isKnown = false;
            foreach (var (_, ofEnd) in counting)
            {
                if (ofEnd[i] is not { } each)
                    continue;
                isKnown = true;
                for (var l = 0; l < _leads; l++)
                    of[l] *= each[l];
            }
            var byTheKey = byKey ? ByTheKey(answer, chosen, i) : null;
            var own = _leadsOver[i] > 0 ? slip : Math.Max(slip, ElsewhereSlip);
            var byTheFlora = isKnown ? (1 - own) * of[chosen] / Sum(of) + own / _leads : byTheKey ?? 1d / _leads;
            // Of a taxon of which the key says something key and flora both count; of any other the flora alone.
            logs[i] += Math.Log(byTheKey is { } said ? KeyShare * said + (1 - KeyShare) * byTheFlora : byTheFlora);
        }
    }

    /// <summary>Whether a statement weighed by hand is called so under an end; every lead alike where it lies under none.</summary>
    public void AddTo(double[] logs, HandWeighing hand)
    {
        if (hand.Lead < 0 || hand.Lead >= _leads)
            return;
        for (var i = 0; i < logs.Length; i++)
        {
            logs[i] += Math.Log(
                _leadsOver[i] == 0 || _leadsOver[i] == _leads ? 0.5
                : _under[hand.Lead][i] == hand.Fits ? CoupletVerdict.HandTrue
                : 1 - CoupletVerdict.HandTrue
            );
        }
    }

    // P(answer | the leads that the end lies under); null where the key says nothing of it: it lies nowhere below, or by way of other keys
    // under every lead. One that this key keys out under several leads is looked for under each of them as often.
    private double? ByTheKey(TrailAnswer answer, int chosen, int end)
    {
        var leads = _leadsOver[end];
        if (leads == 0 || (leads == _leads && !_isKeyedOutTwice[end]))
            return null;
        if (leads == _leads)
            return 1d / _leads;
        var right = answer.Probability(chosen, _leads);
        return _under[chosen][end] ? right / leads : (1 - right) / (_leads - leads);
    }

    private static double Sum(ReadOnlySpan<double> values)
    {
        var sum = 0d;
        foreach (var value in values)
            sum += value;
        return sum;
    }

    private static double[] OfStates(Character character, List<List<StatementClaim>> claims, CharacterDescription cell)
    {
        var n = character.States.Count;
        var stated = claims.ConvertAll(c =>
            (
                States: c.SelectMany(x => x.States).Select(character.IndexOf).Where(s => s >= 0).SelectMany(character.Within).ToHashSet(),
                Modality: c.Count == 0 ? 1 : c.Min(x => x.Modality)
            )
        );
        var spoken = stated.SelectMany(s => s.States).ToHashSet();
        // P(scored as s | taxon).
        var scored = new double[n];
        if (cell.Applies)
        {
            var shares = Likelihood.Shares(character, cell);
            for (var s = 0; s < n; s++)
            {
                for (var u = 0; u < n; u++)
                    scored[s] += shares[u] * Likelihood.Confusion(character, s, u);
            }
        }
        else if (EvidenceItem.AbsentState(character) is >= 0 and var absent)
            scored[absent] = 1;
        return
        [
            .. stated.Select(lead =>
            {
                // A lead that says nothing gets what the others leave; where they leave nothing it says nothing.
                if (lead.States.Count == 0 && spoken.Count == n)
                    return 0.5;
                var p = 0d;
                for (var s = 0; s < n; s++)
                {
                    if (lead.States.Count > 0 ? lead.States.Contains(s) : !spoken.Contains(s))
                        p += scored[s];
                }
                return Held(lead.Modality * p + (1 - lead.Modality) * (1 - p));
            }),
        ];
    }

    // The share of the taxon's plants whose mean lies in each lead's cut; a silent lead gets what the others leave.
    private static double[] OfCuts(Likelihood likelihood, List<List<StatementClaim>> claims, CharacterDescription cell)
    {
        var inside = claims.ConvertAll(c =>
        {
            if (c.Find(x => x.Range is not null) is not { Range: { } cut } claim)
                return (double?)null;
            if (!cell.Applies || cell.Range is not { } range)
                return Least;
            var (from, to) = cut.Cut();
            var q = Math.Clamp(likelihood.Distribution(range).Within(from <= 0 ? double.NegativeInfinity : from, to), 0, 1);
            return claim.Modality * q + (1 - claim.Modality) * (1 - q);
        });
        var others = Math.Min(1, inside.Sum(q => q ?? 0));
        return [.. inside.Select(q => Held(q ?? 1 - others))];
    }

    private static double Held(double p) => Math.Clamp(p, Least, 1 - Least);
}
