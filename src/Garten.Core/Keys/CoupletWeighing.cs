using System.Globalization;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Language;
using Garten.Core.Quantities;

namespace Garten.Core.Keys;

/// <summary>
/// Weighs the leads of a couplet by a sheet. Every character that any lead speaks of is scored under every lead, once; a lead that is
/// silent on it gets the complement of what the others say. A character that wasn't looked at itself is scored by what follows for it from
/// looks at others ("petiole glabrous" from "plant glabrous").
/// </summary>
internal sealed class CoupletWeighing(WeighedSheet sheet, EvidenceOptions options, CharacterTable table)
{
    private readonly ILookup<string, EvidenceItem> _looks = sheet
        .Items.Where(i => i.Weight > 0 || i.Follows)
        .ToLookup(i => i.Character.Id, StringComparer.Ordinal);
    private readonly Dictionary<string, IReadOnlyList<EvidenceItem>> _items = new(StringComparer.Ordinal);

    // What the sheet says of a character.
    private IReadOnlyList<EvidenceItem> Of(string character)
    {
        if (_items.TryGetValue(character, out var known))
            return known;
        return _items[character] = _looks.Contains(character) ? [.. _looks[character]] : Following(character);
    }

    private List<EvidenceItem> Following(string id)
    {
        if (table.Botany?.Bearing is not { } bearing || table.Find(id) is not { } character)
            return [];
        var following = new List<EvidenceItem>();
        foreach (var item in sheet.Items.Where(i => i.Weight > 0 && i.Given is null && i.Of == 0))
        {
            if (!CharacterId.IsComposed(id) && !CharacterId.IsComposed(item.Character.Id))
                continue;
            if (item.Sample is not null)
            {
                if (character.Kind == item.Character.Kind && bearing.IsSameMeasure(id, item.Character.Id))
                    following.Add(item with { Character = character });
            }
            else if (!character.IsQuantity && !item.NotFound && item.Elsewhere.Count == 0 && Given(bearing, item, character) is { } given)
            {
                following.Add(
                    item with
                    {
                        Character = character,
                        States = [],
                        Together = false,
                        Given = given,
                        Derived = $"{item.Character.Name}: {item.InWords()}",
                    }
                );
            }
        }
        return following.Count < 2 ? following : [.. following.Select(f => f with { Weight = f.Weight / following.Count })];
    }

    // Per state of a character whether the states that were seen of another one leave it possible; null where they exclude nothing.
    private static double[]? Given(Bearing bearing, EvidenceItem item, Character character)
    {
        if (item.Character.IsQuantity || bearing.Table(item.Character, character) is not { } says)
            return null;
        var given = new double[character.States.Count];
        for (var s = 0; s < given.Length; s++)
        {
            var excluding = item.States.Count(seen => says[seen, s] == Bears.Excludes);
            // Of states that were seen together each has to leave it; of several that it may have been, one.
            given[s] = (item.Together ? excluding > 0 : excluding == item.States.Count) ? 0 : 1;
        }
        return given.Contains(0) && given.Contains(1) ? given : null;
    }

    /// <summary>Weighs a couplet.</summary>
    /// <param name="keyVersion">Hash of the version.</param>
    /// <param name="couplet">The couplet.</param>
    /// <param name="readings">Per lead, its statements' readings.</param>
    /// <param name="taxaUnder">Of a lead, ids of the taxa behind it, for what can't be held against a cut.</param>
    /// <param name="hand">Statements weighed by hand; those of other couplets are passed over.</param>
    public CoupletVerdict Weigh(
        string keyVersion,
        Couplet couplet,
        IReadOnlyList<IReadOnlyList<StatementReading>> readings,
        Func<int, IReadOnlyList<string>> taxaUnder,
        IReadOnlyList<HandWeighing> hand
    )
    {
        var n = couplet.Leads.Count;
        var log = new double[n];
        var ofCharacter = new Dictionary<string, double[]>(StringComparer.Ordinal);
        var reasons = new List<string>();
        var seen = false;
        var families = new Dictionary<string, int>(StringComparer.Ordinal);
        foreach (
            var character in readings
                .SelectMany(l => l)
                .SelectMany(s => s.Claims)
                .Where(c => c.IsOfUsualAge)
                .Select(c => c.Character)
                .Distinct(StringComparer.Ordinal)
        )
        {
            // Of length, width and their ratio two are independent; which two, the couplet says.
            if (
                Of(character) is [{ Character.Family: { Length: > 0 } family }, ..]
                && (families[family] = families.GetValueOrDefault(family) + 1) > options.IndependentOfFamily
            )
                continue;
            var claims = readings
                .Select(l => l.SelectMany(s => s.Claims).Where(c => c.Character == character && c.IsOfUsualAge).ToList())
                .ToList();
            var sum = new double[n];
            var any = false;
            foreach (var item in Of(character))
            {
                any = true;
                if (item.Reason.Length > 0 && !reasons.Contains(item.Reason))
                    reasons.Add(item.Reason);
                var factors = Factors(item, claims, taxaUnder);
                for (var l = 0; l < n; l++)
                    sum[l] += (item.Follows ? 1 : item.Weight) * Math.Log(factors[l]);
            }
            if (!any)
                continue;
            seen = true;
            ofCharacter[character] = sum;
            for (var l = 0; l < n; l++)
                log[l] += sum[l];
        }
        var byHand = hand.Where(h => h.KeyVersion == keyVersion && h.Couplet == couplet.Label && h.Lead < n).ToList();
        foreach (var h in byHand)
        {
            seen = true;
            for (var l = 0; l < n; l++)
                log[l] += Math.Log(h.Lead == l == h.Fits ? CoupletVerdict.HandTrue : 1 - CoupletVerdict.HandTrue);
        }
        var shares = WeighedSheet.Shares(log);
        var best = Array.IndexOf(shares, shares.Max());
        var rest = 1 - shares[best];
        var odds =
            !seen ? 1
            : rest <= 1e-12 ? 1e12
            : shares[best] / rest;
        var call = !seen ? CoupletCall.Unseen : CoupletVerdict.CallOf(odds);
        var leads = readings
            .Select(
                (statements, l) => new LeadVerdict([.. statements.Select((s, i) => Statement(s, l, i, ofCharacter, byHand))], shares[l])
            )
            .ToList();
        return new CoupletVerdict(keyVersion, couplet.Label, leads, call, seen ? best : null, odds, InWords(call, best, odds), reasons);
    }

    private static string InWords(CoupletCall call, int best, double odds)
    {
        const double beyondCounting = 1000;
        var figure =
            odds > beyondCounting ? "over 1000"
            : odds >= 10 ? odds.ToString("0", CultureInfo.InvariantCulture)
            : odds.ToString("0.#", CultureInfo.InvariantCulture);
        return call switch
        {
            CoupletCall.Unseen => "Nothing of this couplet has been observed yet.",
            CoupletCall.Clear => $"Clear: lead {best + 1}, {figure} to 1.",
            CoupletCall.Leaning => $"Leaning to lead {best + 1}, {figure} to 1.",
            _ => $"Undecided: lead {best + 1} is ahead by {figure} to 1 only.",
        };
    }

    // One factor per lead for one item.
    private double[] Factors(EvidenceItem item, List<List<StatementClaim>> claims, Func<int, IReadOnlyList<string>> taxaUnder)
    {
        var n = claims.Count;
        var doubt = options.Doubt(item.Sureness);
        double[] f;
        double marginal;
        if (item.Larger && item.Character.Kind == CharacterKind.Length)
        {
            // A key's sizes are those of the sun: leaves of the shade are held against what the flora says of the taxa behind each lead.
            marginal = sheet.Likelihood.Marginal(item);
            f = [.. Enumerable.Range(0, n).Select(l => Mean(item, taxaUnder(l), marginal))];
        }
        else if (item.Sample is { } sample)
        {
            f = OfCuts(sample, item.Character, claims);
            marginal = 0.5;
        }
        else
        {
            f = OfStates(item, claims, options);
            marginal = Math.Max(1, item.States.Count) / (double)Math.Max(2, item.Character.States.Count);
        }
        for (var l = 0; l < n; l++)
        {
            f[l] = (1 - options.LapseRate) * f[l] + options.LapseRate * marginal;
            f[l] = (1 - doubt) * f[l] + doubt * marginal;
        }
        return f;
    }

    private double Mean(EvidenceItem item, IReadOnlyList<string> taxa, double marginal)
    {
        var completed = sheet.Likelihood.Completed(item.Character);
        var described = taxa.Select(t => completed.GetValueOrDefault(t)).Where(d => d is { Applies: true }).ToList();
        return described.Count == 0 ? marginal : described.Average(d => sheet.Likelihood.Raw(item, d!));
    }

    private static double[] OfStates(EvidenceItem item, List<List<StatementClaim>> claims, EvidenceOptions options)
    {
        var character = item.Character;
        var usual = new double[character.States.Count];
        Array.Fill(usual, 1d / Math.Max(1, usual.Length));
        var given = item.IsPlain && !item.NotFound ? Likelihood.GivenOf(item, usual, options) : null;
        var all = Enumerable.Range(0, character.States.Count).ToHashSet();
        var stated = claims.ConvertAll(c =>
            (
                States: c.SelectMany(x => x.States).Select(character.IndexOf).Where(i => i >= 0).SelectMany(character.Within).ToHashSet(),
                Modality: c.Count == 0 ? Modality.AlwaysInKeys : c.Min(x => x.Modality)
            )
        );
        var spoken = stated.SelectMany(s => s.States).ToHashSet();
        return
        [
            .. stated.Select(lead =>
            {
                var own = lead.States.Count > 0 ? lead.States : [.. all.Except(spoken)];
                // All states are spoken for by others: a silent lead says nothing.
                if (own.Count == 0)
                    own = all;
                var m = own.Count == all.Count ? 1 : lead.Modality;
                // Of what is one state or another, in one context or several, the sum over the states that the plant may have.
                if (given is not null)
                {
                    var sum = 0d;
                    foreach (var u in all)
                        sum += (own.Contains(u) ? m / own.Count : (1 - m) / (all.Count - own.Count)) * given[u];
                    return Math.Min(1, sum);
                }
                double Kind(int s)
                {
                    var p = 0d;
                    foreach (var u in all)
                        p += (own.Contains(u) ? m / own.Count : (1 - m) / (all.Count - own.Count)) * Likelihood.Confusion(character, s, u);
                    return p;
                }
                double Of(int s) => Math.Min(1, character.Within(s).Sum(Kind));
                if (item.NotFound)
                {
                    var absent = EvidenceItem.AbsentState(character);
                    var there =
                        absent < 0 ? 1
                        : own.Contains(absent) ? 1 - m / own.Count
                        : m + (1 - m) * (all.Count - own.Count - 1) / Math.Max(1, all.Count - own.Count);
                    return 1 - there * character.Detection;
                }
                return item.Together && item.States.Count > 1
                    ? Math.Min(1, item.States.Aggregate(1d, (x, s) => x * Of(s)) * 2)
                    : Math.Min(1, item.States.Sum(Of));
            }),
        ];
    }

    // A cut: q is the probability that the plant's own mean lies inside; the factor is m·q + (1−m)·(1−q).
    private double[] OfCuts(Sample sample, Character character, List<List<StatementClaim>> claims)
    {
        var cuts = claims.ConvertAll(c => c.Find(x => x.Range is not null));
        var inside = cuts.ConvertAll(c => c is null ? (double?)null : Inside(sample, character, c.Range!));
        var others = Math.Min(1, inside.Sum(q => q ?? 0));
        return
        [
            .. cuts.Select(
                (c, l) =>
                {
                    var m = c?.Modality ?? Modality.AlwaysInKeys;
                    var q = inside[l] ?? 1 - others;
                    return m * q + (1 - m) * (1 - q);
                }
            ),
        ];
    }

    private double Inside(Sample sample, Character character, QuantityRange range)
    {
        var (from, to) = range.Cut();
        var (mean, error) = PlantMean(sample, character);
        double At(double bound, int side) =>
            (Scale(character, bound + (character.Kind == CharacterKind.Count ? 0.5 * side : 0)) - mean) / error;
        var low = from <= 0 ? double.NegativeInfinity : At(from, -1);
        return Normal.Between(low, double.IsPositiveInfinity(to) ? double.PositiveInfinity : At(to, 1));
    }

    private static double Scale(Character character, double x) =>
        character.Kind is CharacterKind.Length or CharacterKind.Ratio ? Math.Log(Math.Max(x, 1e-9)) : x;

    // The plant's own mean and how well it is known: its readings' spread, shrunk to what plants have in general, over √n, with the
    // instrument's share.
    private (double Mean, double Error) PlantMean(Sample sample, Character character)
    {
        var isLog = character.Kind is CharacterKind.Length or CharacterKind.Ratio;
        var prior = isLog ? options.WithinPlantVariation : Math.Max(0.5, options.WithinPlantVariation * sample.Mean);
        var own = sample.Deviation is { } d
            ? isLog
                ? d / sample.Mean
                : d
            : prior;
        var spread = Math.Sqrt(
            ((sample.Count - 1) * own * own + options.WithinPlantWorth * prior * prior) / (sample.Count - 1 + options.WithinPlantWorth)
        );
        var instrument =
            (sample.Resolution * sample.Resolution / 12 + sample.Calibration * sample.Calibration)
            / (isLog ? sample.Mean * sample.Mean : 1);
        return (Scale(character, sample.Mean), Math.Sqrt(spread * spread / sample.Count + instrument));
    }

    private StatementVerdict Statement(
        StatementReading reading,
        int lead,
        int index,
        Dictionary<string, double[]> ofCharacter,
        List<HandWeighing> byHand
    )
    {
        if (reading.Claims.Count == 0)
        {
            var weighed = byHand.Find(h => h.Lead == lead && h.Statement == index);
            return weighed is null
                ? new(reading, StatementFit.Unread, "", 0)
                : new(
                    reading,
                    weighed.Fits ? StatementFit.Fits : StatementFit.Conflicts,
                    weighed.Fits ? "weighed by hand: fits" : "weighed by hand: doesn't fit",
                    0
                );
        }
        var worst = StatementFit.NotSeen;
        var seen = new List<string>();
        var ratio = 0d;
        foreach (var claim in reading.Claims.Where(c => c.IsOfUsualAge))
        {
            foreach (var item in Of(claim.Character))
            {
                var fit =
                    item.Larger && item.Character.Kind == CharacterKind.Length
                        ? ofCharacter.TryGetValue(claim.Character, out var w) && w[lead] >= w.Max() - Math.Log(3)
                            ? StatementFit.Fits
                            : StatementFit.Doubtful
                        : FitOf(item, claim);
                if (worst == StatementFit.NotSeen || fit > worst)
                    worst = fit;
                seen.Add(item.InWords());
            }
            if (ofCharacter.TryGetValue(claim.Character, out var weights))
                ratio += weights[lead] - weights.Average();
        }
        return new(reading, worst, string.Join("; ", seen.Distinct()), ratio);
    }

    // From so much on a look in another context is no conflict with a statement about usual parts.
    private const double LeastMix = 0.1;

    private StatementFit FitOf(EvidenceItem item, StatementClaim claim)
    {
        if (item.Sample is { } sample)
        {
            if (claim.Range is null)
                return StatementFit.NotSeen;
            var (from, to) = claim.Range.Cut();
            if (sample.Mean >= from && sample.Mean <= to)
                return StatementFit.Fits;
            var (mean, error) = PlantMean(sample, item.Character);
            var off = Math.Abs(Scale(item.Character, sample.Mean < from ? from : to) - mean) / error;
            return off <= options.Ranges.FitsUpTo ? StatementFit.AtTheEdge
                : off <= options.Ranges.EdgeUpTo ? StatementFit.Doubtful
                : StatementFit.Conflicts;
        }
        var character = item.Character;
        var stated = claim.States.Select(character.IndexOf).Where(s => s >= 0).SelectMany(character.Within).ToHashSet();
        if (item.NotFound)
            return stated.Contains(EvidenceItem.AbsentState(item.Character)) ? StatementFit.Fits
                : item.Character.Detection > 0.9 ? StatementFit.Conflicts
                : StatementFit.Doubtful;
        if (item.Given is { } given)
        {
            // What only follows from the circumstances is no conflict.
            const double fits = 0.5,
                edge = 0.1;
            var best = given.Max();
            var own = stated.Count == 0 ? best : stated.Max(s => given[s]);
            return own <= 0 ? StatementFit.Conflicts
                : own >= fits * best ? StatementFit.Fits
                : own >= edge * best ? StatementFit.AtTheEdge
                : StatementFit.Doubtful;
        }
        var inside = item.States.Count(stated.Contains);
        if (inside == item.States.Count)
            return StatementFit.Fits;
        // Of what was seen in general terms a kind may be what is asked.
        if (inside > 0 || item.States.Any(s => character.Within(s).Any(stated.Contains)))
            return StatementFit.AtTheEdge;
        // Seen on parts or plants of another age or place, it may be otherwise on usual ones.
        return claim.Modality < 0.9 || item.Sureness == Sureness.Guess || item.Context.Mix > LeastMix
            ? StatementFit.Doubtful
            : StatementFit.Conflicts;
    }
}
