using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Identification;

/// <content>A list weighed, and its standing in words.</content>
public sealed partial class Sifter
{
    /// <summary>A list weighed by a sheet: probabilities, row by row.</summary>
    internal sealed class WeighedList
    {
        private readonly Sifter _sifter;
        private readonly SiftQuery _query;
        private readonly double[] _other;
        private readonly double _otherNone;
        private readonly IReadOnlyList<IReadOnlyList<Phenophase>> _shown;

        // The columns of what was looked at and counts.
        private readonly List<CharacterColumn> _looked;

        public WeighedList(Sifter sifter, List<WeighedItem> items, SiftQuery query)
        {
            (_sifter, Items, _query) = (sifter, items, query);
            sifter.Sum(items);
            _shown = [.. items.Where(i => i.Item.Weight > 0 && i.Item.Character.SeenIn.Count > 0).Select(i => i.Item.Character.SeenIn)];
            _looked = [.. items.Where(i => i.Item.Weight > 0).Select(i => i.Column).Distinct()];
            var weights = sifter.PlausibleWeights(query, _shown);
            (IsListed, Listed) = (sifter._all, sifter._all.Length);
            var (equal, plausible) = (sifter._alike, weights ?? sifter._alike);
            if (query.Narrowing is not null)
            {
                IsListed = sifter.Listed(query);
                Listed = IsListed.Count(l => l);
                equal = Array.ConvertAll(IsListed, l => l ? 1d : 0);
                plausible = weights is null ? equal : [.. weights.Zip(equal, (w, e) => w * e)];
            }
            var (own, other) = query.Plausible ? (plausible, equal) : (equal, plausible);
            (Probability, None) = Posterior(own);
            (_other, _otherNone) = weights is null ? (Probability, None) : Posterior(other);
        }

        public List<WeighedItem> Items { get; }
        public bool[] IsListed { get; }
        public int Listed { get; }

        /// <summary>Per row its probability.</summary>
        public double[] Probability { get; }

        /// <summary>Probability that the plant isn't on the list.</summary>
        public double None { get; }

        // P(t) ∝ prior(t)·Π ratios. "Not on this list" is a plant like any other, or kin of one that is here, near, middling or far: like
        // it but for a share of its characters. π′·[w0 + Σk wk·mean over taxa of Πc ((1−dck)·r + dck)], dck = 1 − (1−dc)^θk.
        private (double[] P, double None) Posterior(double[] prior)
        {
            var (sums, kin, options) = (_sifter._sums, _sifter._kin, _sifter._options);
            var total = VectorMath.Sum(prior);
            if (total <= 0)
                return (new double[prior.Length], 1);
            var top = VectorMath.Largest(sums, prior, 0);
            foreach (var one in kin)
                top = VectorMath.Largest(one, prior, top);
            var (result, kinOf) = (GC.AllocateUninitializedArray<double>(prior.Length), _sifter._scratch);
            // What is this much less likely than the best adds nothing to a double.
            const double nothing = -60;
            VectorMath.Below(sums, top, prior, result);
            VectorMath.Exp(result, nothing);
            VectorMath.Multiply(result, prior);
            var stranger = options.PriorOfStranger(_query.NotOnList);
            var listed = (1 - stranger) / total;
            var none = options.AnyNotOnList * Math.Exp(-top);
            for (var k = 0; k < kin.Length; k++)
            {
                VectorMath.Below(kin[k], top, prior, kinOf);
                VectorMath.Exp(kinOf, nothing);
                none += options.KinShares[k] * VectorMath.Sum(kinOf, prior) / total;
            }
            none *= stranger;
            var sum = VectorMath.Sum(result) * listed + none;
            VectorMath.Line(result, listed / sum, 0);
            return (result, none / sum);
        }

        // The least probability that may still be among so many of the likeliest: rows are counted by powers of two, not sorted.
        private double LeastAmong(int most)
        {
            // The exponent of a double above 0, as it is kept: that of 1 is 1023; those below the least all count as one.
            const int deepest = 1024,
                one = 1023,
                mantissa = 52;
            Span<int> counts = stackalloc int[deepest];
            if (Listed <= most)
                return 0;
            // What isn't listed has none; of what is, most have none either once something was seen.
            foreach (var p in Probability)
            {
                if (p > 0)
                    counts[Math.Clamp(one - (int)(BitConverter.DoubleToInt64Bits(p) >> mantissa), 0, deepest - 1)]++;
            }
            var above = 0;
            for (var power = 0; power < deepest; power++)
            {
                if ((above += counts[power]) >= most)
                    return Math.ScaleB(1, -power);
            }
            return 0;
        }

        /// <summary>Rows by probability, likeliest first, as many as hold a share of it, at most so many.</summary>
        public List<int> Leading(double share, int most)
        {
            var rows = new List<int>();
            var least = (1 - share) / Math.Max(1, Probability.Length);
            if (most < Probability.Length)
                least = Math.Max(least, LeastAmong(most));
            for (var t = 0; t < Probability.Length; t++)
            {
                if (Probability[t] >= least && Probability[t] > 0)
                    rows.Add(t);
            }
            // Of a flat standing there are thousands: keys are sorted without a call for each comparison, equal ones stay in the order of
            // the rows.
            var (order, keys) = (rows.ToArray(), rows.ConvertAll(t => -Probability[t]).ToArray());
            Array.Sort(keys, order);
            for (var i = 0; i < order.Length; )
            {
                var from = i;
                while (i < order.Length && keys[i].Equals(keys[from]))
                    i++;
                if (i - from > 1)
                    Array.Sort(order, from, i - from);
            }
            double held = 0,
                wanted = share * (1 - None);
            var count = 0;
            while (count < order.Length && count < most && held < wanted)
                held += Probability[order[count++]];
            rows = [.. order.AsSpan(0, count)];
            // Those that hold nothing at all come last, in the order of the list.
            for (var t = 0; least == 0 && t < Probability.Length && rows.Count < most; t++)
            {
                if (IsListed[t] && Probability[t] == 0)
                    rows.Add(t);
            }
            return rows;
        }

        public SiftResult Result()
        {
            var rows = Leading(1, MostNamed);
            var named = _query.Tolerance is { } most ? Fitting(most) : rows;
            var candidates = new List<Candidate>(named.Count + 1);
            for (var i = 0; i < named.Count; i++)
                candidates.Add(CandidateAt(named[i], AsksWhy(named[i], i)));
            var none = new Candidate(NotOnList, None, 0, 0, _otherNone, [], []);
            // It stands for many plants at once: it goes before a name only where it is likelier than all names together. Of conflicts it
            // has none to be ordered by.
            var at = _query.Tolerance is null ? candidates.FindIndex(c => c.Probability < None) : -1;
            candidates.Insert(
                candidates.Count == 0 || _query.Tolerance is null && None > _sifter._options.CalledNotOnList ? 0
                    : at < 0 ? candidates.Count
                    : Math.Max(1, at),
                none
            );
            var (call, leaders) = Call(rows);
            return new SiftResult(
                candidates,
                call,
                leaders,
                Words(call, leaders),
                Alike(rows),
                Listed,
                Math.Max(0, 1 - candidates.Sum(c => c.Probability)),
                [.. Items.Select(i => i.Item)]
            );
        }

        // Rows with no more conflicts than are tolerated, of the whole list: fewest first, then by probability.
        private List<int> Fitting(int most)
        {
            var fitting = new List<(int Row, int Conflicts)>();
            for (var t = 0; t < Probability.Length; t++)
            {
                if (IsListed[t] && Conflicts(t) is var conflicts && conflicts <= most)
                    fitting.Add((t, conflicts));
            }
            return [.. fitting.OrderBy(f => f.Conflicts).ThenByDescending(f => Probability[f.Row]).Take(MostNamed).Select(f => f.Row)];
        }

        // How many looks conflict with a taxon.
        private int Conflicts(int t)
        {
            var conflicts = 0;
            foreach (var item in Items)
                conflicts += item.ConflictsWith(t) ? 1 : 0;
            return conflicts;
        }

        // Whether the reasons of the taxon in a row are wanted, which stands at a place of the list.
        private bool AsksWhy(int t, int place) =>
            _query.Why is { } why
                ? place == 0 || why.Contains(_sifter.Columns.Taxa[t])
                : place < MostOpened || place < MostReasoned && Probability[t] >= WorthReasons;

        private Candidate CandidateAt(int t, bool withReasons)
        {
            var described = 0;
            foreach (var column in _looked)
            {
                if (column.Of()[t] > 0)
                    described++;
            }
            if (!withReasons)
                return new Candidate(_sifter.Columns.Taxa[t], Probability[t], Conflicts(t), described, _other[t], [], []);
            var reasons = new SiftReason[Items.Count];
            for (var i = 0; i < reasons.Length; i++)
            {
                var item = Items[i];
                reasons[i] = new SiftReason(
                    item.Item.Character.Id,
                    item.Words,
                    _sifter.Prose(item.Column, t),
                    item.FitOf(t),
                    item.Ratio(t),
                    item.Item.Reason
                );
            }
            Array.Sort(reasons, (a, b) =>
                Math.Abs(b.LogOdds).CompareTo(Math.Abs(a.LogOdds)) is not 0 and var by
                    ? by
                    : string.CompareOrdinal(a.Character, b.Character)
            );
            var prior = _sifter._taxa[t] is { } taxon
                ? Plausibility.Of(taxon, _query.Place, _query.Day, _shown, _sifter._table.Seasons).Reasons
                : [];
            return new Candidate(_sifter.Columns.Taxa[t], Probability[t], Conflicts(t), described, _other[t], reasons, prior);
        }

        private (RankingCall Call, int Leaders) Call(List<int> rows)
        {
            var options = _sifter._options;
            if (rows.Count == 0)
                return (RankingCall.NoneFits, 0);
            if (Items.All(i => i.Item.Weight == 0))
                return (RankingCall.Nothing, rows.Count);
            // A conflict is no proof, two looks against every name are: then the list doesn't hold this plant, or a look went wrong.
            var first = Probability[rows[0]];
            var counting = Items.Count(i => i.Item.Weight > 0);
            if (rows.TrueForAll(t => Conflicts(t) >= (counting == 1 ? 1 : 2)))
                return (RankingCall.NoneFits, Math.Min(3, rows.Count));
            if (None > options.CalledNotOnList)
                return (RankingCall.NotOnList, 0);
            if (first >= options.FarAhead)
                return (RankingCall.FarAhead, 1);
            var second = rows.Count > 1 ? Probability[rows[1]] : 0;
            if (first >= options.Ahead * second && first >= options.AheadOfStrangers * None)
                return (RankingCall.Ahead, 1);
            double held = 0;
            const int few = 8;
            for (var i = 0; i < rows.Count && i < few; i++)
            {
                held += Probability[rows[i]];
                if (held >= options.OneOf * (1 - None))
                    return (RankingCall.OneOf, i + 1);
            }
            return (RankingCall.Open, rows.Count(t => Probability[t] >= first / 20));
        }

        private static readonly string[] Numbers = ["none", "one", "two", "three", "four", "five", "six", "seven", "eight"];

        private string Words(RankingCall call, int leaders) =>
            call switch
            {
                RankingCall.Nothing => $"nothing seen yet; {Listed} taxa on the list",
                RankingCall.FarAhead => "far ahead",
                RankingCall.Ahead => "ahead",
                RankingCall.OneOf => $"one of {Numbers[leaders]}",
                RankingCall.NotOnList => "most likely not on this list",
                RankingCall.NoneFits => Listed == 0 ? "the list is empty" : "none of the list fits",
                _ => $"{leaders} are still likely",
            };

        // Leading taxa between which no look can decide.
        private List<IReadOnlyList<string>> Alike(List<int> rows)
        {
            const int most = 12;
            var sets = new List<List<int>>();
            foreach (var t in rows.Take(most))
            {
                if (sets.Find(s => _sifter.Columns.Columns.All(c => c.Of()[s[0]] == c.Of()[t])) is { } same)
                    same.Add(t);
                else
                    sets.Add([t]);
            }
            return [.. sets.Where(s => s.Count > 1).Select(s => s.ConvertAll(t => _sifter.Columns.Taxa[t]))];
        }
    }
}
