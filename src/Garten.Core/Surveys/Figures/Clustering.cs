namespace Garten.Core.Surveys.Figures;

/// <summary>Two clusters that become one.</summary>
/// <param name="One">A sample by its index, or an earlier merge as the number of samples plus its index.</param>
/// <param name="Other">The other one.</param>
/// <param name="Height">Their mean distance.</param>
/// <param name="Size">Samples in the new one.</param>
public sealed record ClusterMerge(int One, int Other, double Height, int Size);

/// <summary>Samples joined by their mean distances, the nearest first.</summary>
/// <param name="Merges">The merges, in their order: one fewer than there are samples.</param>
/// <param name="Order">The samples in an order in which no branches cross.</param>
public sealed record Clustering(IReadOnlyList<ClusterMerge> Merges, IReadOnlyList<int> Order)
{
    /// <summary>Average linkage between groups (Sokal and Michener 1958). Of equal distances the first in the order of the samples is
    /// joined first.</summary>
    /// <param name="distances">Distances between samples: square, symmetric, 0 on the diagonal.</param>
    public static Clustering Of(double[][] distances)
    {
        ArgumentNullException.ThrowIfNull(distances);
        var n = distances.Length;
        var between = distances.Select(row => (double[])row.Clone()).ToArray();
        var (name, size) = (Enumerable.Range(0, n).ToArray(), Enumerable.Repeat(1, n).ToArray());
        var members = Enumerable.Range(0, n).Select(i => new List<int> { i }).ToArray();
        var there = Enumerable.Range(0, n).ToList();
        // Of each the nearest behind it.
        var nearest = new int[n];
        foreach (var i in there)
            nearest[i] = NearestBehind(there, between, i);
        List<ClusterMerge> merges = [];
        while (there.Count > 1)
        {
            var one = there[0];
            foreach (var i in there)
            {
                if (nearest[i] >= 0 && (nearest[one] < 0 || between[i][nearest[i]] < between[one][nearest[one]]))
                    one = i;
            }
            var other = nearest[one];
            merges.Add(new ClusterMerge(name[one], name[other], between[one][other], size[one] + size[other]));
            there.Remove(other);
            foreach (var k in there.Where(k => k != one))
                between[one][k] = between[k][one] =
                    (size[one] * between[one][k] + size[other] * between[other][k]) / (size[one] + size[other]);
            size[one] += size[other];
            name[one] = n + merges.Count - 1;
            members[one].AddRange(members[other]);
            foreach (var i in there.Where(i => i == one || i < one || nearest[i] == other || nearest[i] == one))
                nearest[i] = NearestBehind(there, between, i);
        }
        return new Clustering(merges, n == 0 ? [] : members[there[0]]);
    }

    /// <summary>The cluster of each sample where the last joins are undone until so many clusters are left, counted from 0 in the order of
    /// the tree.</summary>
    /// <param name="clusters">How many: 1 or more; with fewer samples each is one.</param>
    public IReadOnlyList<int> Cut(int clusters)
    {
        var n = Order.Count;
        var of = Enumerable.Range(0, n + Merges.Count).ToArray();
        for (var i = 0; i < n - Math.Clamp(clusters, 1, Math.Max(1, n)); i++)
            of[Merges[i].One] = of[Merges[i].Other] = n + i;
        int Root(int sample)
        {
            while (of[sample] != sample)
                sample = of[sample];
            return sample;
        }
        int[] roots = [.. Order.Select(Root).Distinct()];
        return [.. Enumerable.Range(0, n).Select(s => Array.IndexOf(roots, Root(s)))];
    }

    private static int NearestBehind(List<int> there, double[][] between, int from)
    {
        var nearest = -1;
        foreach (var to in there)
        {
            if (to > from && (nearest < 0 || between[from][to] < between[from][nearest]))
                nearest = to;
        }
        return nearest;
    }
}
