using System.Numerics;

namespace Garten.Core.Identification;

/// <summary>The sets chosen to cover all that can be covered.</summary>
/// <param name="Chosen">Places of the chosen sets, in ascending order.</param>
/// <param name="IsOptimal">Whether it is certain that no fewer, and of as few no cheaper, will do; false where the budget ended
/// first.</param>
/// <param name="Uncovered">Elements that are in no set at all.</param>
/// <param name="Steps">How many steps it took.</param>
public sealed record Cover(IReadOnlyList<int> Chosen, bool IsOptimal, IReadOnlyList<int> Uncovered, int Steps = 0);

/// <summary>
/// The fewest sets that cover all elements, and of as few the cheapest: branch and bound. Sets that another one makes needless are left out
/// first; each branch takes up the element that the fewest sets cover; what is left needs at least as many sets as it has elements of
/// which no set covers two. The smallest set of separating characters and the fewest visits are found with it.
/// </summary>
public static class SetCover
{
    /// <summary>Steps after which it says that it isn't certain: below a second for what it is used for.</summary>
    public const int UsualBudget = 200_000;

    /// <summary>Covers the elements 0 to <paramref name="elements"/> − 1.</summary>
    /// <param name="elements">How many elements there are; 0 or more.</param>
    /// <param name="sets">The elements of each set.</param>
    /// <param name="costs">What each set costs, above or equal 0; decides between covers of as many sets. Null: all alike.</param>
    /// <param name="budget">How many steps it may take.</param>
    /// <param name="stop">Ends the search.</param>
    public static Cover Find(
        int elements,
        IReadOnlyList<IReadOnlyCollection<int>> sets,
        IReadOnlyList<double>? costs = null,
        int budget = UsualBudget,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(sets);
        ArgumentOutOfRangeException.ThrowIfNegative(elements);
        var words = (elements + 63) / 64;
        var bits = new ulong[sets.Count][];
        var covered = new ulong[words];
        for (var s = 0; s < bits.Length; s++)
        {
            bits[s] = new ulong[words];
            foreach (var element in sets[s])
            {
                ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(element, elements, nameof(sets));
                bits[s][element >> 6] |= 1UL << (element & 63);
            }
            for (var w = 0; w < words; w++)
                covered[w] |= bits[s][w];
        }
        var uncovered = Enumerable.Range(0, elements).Where(e => (covered[e >> 6] >> (e & 63) & 1) == 0).ToList();
        var cost = costs ?? [.. sets.Select(_ => 0d)];
        var search = new Search(bits, cost, Useful(bits, cost), budget, stop);
        var best = search.Run(covered);
        return new Cover(best, search.IsDone, uncovered, search.Steps);
    }

    // A set that another one holds, which costs no more, is never needed.
    private static List<int> Useful(ulong[][] bits, IReadOnlyList<double> cost)
    {
        var useful = new List<int>();
        for (var s = 0; s < bits.Length; s++)
        {
            if (bits[s].All(w => w == 0))
                continue;
            var isNeedless = false;
            for (var o = 0; o < bits.Length && !isNeedless; o++)
            {
                if (o == s || !Holds(bits[o], bits[s]) || cost[o] > cost[s])
                    continue;
                isNeedless = !Holds(bits[s], bits[o]) || cost[o] < cost[s] || o < s;
            }
            if (!isNeedless)
                useful.Add(s);
        }
        return useful;
    }

    private static bool Holds(ulong[] outer, ulong[] inner)
    {
        for (var w = 0; w < outer.Length; w++)
        {
            if ((inner[w] & ~outer[w]) != 0)
                return false;
        }
        return true;
    }

    private sealed class Search(ulong[][] bits, IReadOnlyList<double> cost, List<int> useful, int budget, CancellationToken stop)
    {
        private int _steps;
        private List<int> _best = [];
        private double _bestCost;

        public bool IsDone => _steps <= budget;

        public int Steps => _steps;

        public IReadOnlyList<int> Run(ulong[] open)
        {
            _best = Greedy(open);
            _bestCost = _best.Sum(s => cost[s]);
            Branch((ulong[])open.Clone(), [], 0);
            return [.. _best.Order()];
        }

        // The set that covers most of what is open, the cheaper of two; never worse than this is what the search gives.
        private List<int> Greedy(ulong[] open)
        {
            var rest = (ulong[])open.Clone();
            var chosen = new List<int>();
            while (rest.Any(w => w != 0))
            {
                var next = useful.MaxBy(s => (Count(bits[s], rest), -cost[s]));
                chosen.Add(next);
                Remove(rest, bits[next]);
            }
            return chosen;
        }

        private void Branch(ulong[] open, List<int> chosen, double spent)
        {
            if (++_steps > budget)
                return;
            if (_steps % 64 == 0)
                stop.ThrowIfCancellationRequested();
            if (Array.TrueForAll(open, w => w == 0))
            {
                if (chosen.Count < _best.Count || chosen.Count == _best.Count && spent < _bestCost)
                    (_best, _bestCost) = ([.. chosen], spent);
                return;
            }
            var (least, element) = Bound(open);
            var atLeast = chosen.Count + least;
            if (atLeast > _best.Count || atLeast == _best.Count && spent >= _bestCost)
                return;
            foreach (
                var s in useful.Where(s => Has(bits[s], element)).OrderByDescending(s => Count(bits[s], open)).ThenBy(s => cost[s]).ToList()
            )
            {
                var rest = (ulong[])open.Clone();
                Remove(rest, bits[s]);
                chosen.Add(s);
                Branch(rest, chosen, spent + cost[s]);
                chosen.RemoveAt(chosen.Count - 1);
                if (_steps > budget)
                    return;
            }
        }

        // How many sets are needed at least, and the element with the fewest sets: elements are taken, rarest first, that share no set with
        // one taken before.
        private (int Least, int Element) Bound(ulong[] open)
        {
            var list = new List<(int Element, int Sets)>();
            for (var w = 0; w < open.Length; w++)
            {
                for (var rest = open[w]; rest != 0; rest &= rest - 1)
                {
                    var element = w * 64 + BitOperations.TrailingZeroCount(rest);
                    list.Add((element, useful.Count(s => Has(bits[s], element))));
                }
            }
            list.Sort((a, b) => a.Sets != b.Sets ? a.Sets.CompareTo(b.Sets) : a.Element.CompareTo(b.Element));
            var reached = new ulong[open.Length];
            var least = 0;
            foreach (var (element, _) in list)
            {
                if (Has(reached, element))
                    continue;
                least++;
                foreach (var s in useful)
                {
                    if (!Has(bits[s], element))
                        continue;
                    for (var w = 0; w < reached.Length; w++)
                        reached[w] |= bits[s][w];
                }
            }
            return (least, list[0].Element);
        }

        private static bool Has(ulong[] set, int element) => (set[element >> 6] >> (element & 63) & 1) != 0;

        private static int Count(ulong[] set, ulong[] open)
        {
            var count = 0;
            for (var w = 0; w < set.Length; w++)
                count += BitOperations.PopCount(set[w] & open[w]);
            return count;
        }

        private static void Remove(ulong[] from, ulong[] what)
        {
            for (var w = 0; w < from.Length; w++)
                from[w] &= ~what[w];
        }
    }
}
