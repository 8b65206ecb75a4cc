using System.Text.Json.Serialization;

namespace Garten.Core.Keys;

/// <summary>What stands at a node of a key's drawing.</summary>
[JsonConverter(typeof(CamelCaseWords<KeyNodeKind>))]
public enum KeyNodeKind
{
    /// <summary>A couplet, with what lies behind it.</summary>
    Couplet,

    /// <summary>A taxon: the key ends here.</summary>
    Taxon,

    /// <summary>Another key goes on here.</summary>
    Key,

    /// <summary>A couplet whose leads aren't drawn: the key is too large.</summary>
    Cut,
}

/// <summary>A node of a key's drawing.</summary>
/// <param name="Kind">What stands there.</param>
/// <param name="Label">Label of a couplet; empty otherwise.</param>
/// <param name="At">Where it stands between the first end, 0, and the last one, 1.</param>
/// <param name="Depth">How many couplets lie before it.</param>
/// <param name="From">Place of the node that leads to it in the list; -1 for the first.</param>
public sealed record KeyNode(KeyNodeKind Kind, string Label, double At, int Depth, int From);

/// <summary>The shape of a key, to be drawn small: its couplets from the top down, their ends side by side.</summary>
public static class KeyShape
{
    /// <summary>No more nodes are drawn, since a list has no room for them; of a larger key the couplets nearest to the start.</summary>
    public const int MostNodes = 120;

    /// <summary>The nodes of a key, each after the one that leads to it; empty where it has no couplet. What is led to twice is drawn where
    /// it is come to first.</summary>
    public static IReadOnlyList<KeyNode> Of(Key key)
    {
        ArgumentNullException.ThrowIfNull(key);
        if (key.Couplets.Count == 0)
            return [];
        var byLabel = key
            .Couplets.GroupBy(c => c.Label, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.First(), StringComparer.Ordinal);
        List<(KeyNodeKind Kind, string Label, int Depth, int From)> nodes = [(KeyNodeKind.Couplet, key.Couplets[0].Label, 0, -1)];
        List<List<int>> below =
        [
            [],
        ];
        HashSet<string> met = [key.Couplets[0].Label];
        for (var at = 0; at < nodes.Count; at++)
        {
            var node = nodes[at];
            if (node.Kind != KeyNodeKind.Couplet || !byLabel.TryGetValue(node.Label, out var couplet))
                continue;
            if (nodes.Count + couplet.Leads.Count > MostNodes)
            {
                nodes[at] = node with { Kind = KeyNodeKind.Cut };
                continue;
            }
            foreach (var lead in couplet.Leads)
            {
                var (kind, label) = lead.Destination switch
                {
                    { Kind: DestinationKind.Couplet, Target: var to } when met.Add(to) => (KeyNodeKind.Couplet, to),
                    { Kind: DestinationKind.Couplet, Target: var to } => (KeyNodeKind.Cut, to),
                    { Kind: DestinationKind.Key } => (KeyNodeKind.Key, ""),
                    _ => (KeyNodeKind.Taxon, ""),
                };
                below[at].Add(nodes.Count);
                nodes.Add((kind, label, node.Depth + 1, at));
                below.Add([]);
            }
        }
        var places = Places(below);
        return [.. nodes.Select((n, i) => new KeyNode(n.Kind, n.Label, places[i], n.Depth, n.From))];
    }

    // Ends stand side by side in the order of the leads, what leads to them in the middle above.
    private static double[] Places(List<List<int>> below)
    {
        var places = new double[below.Count];
        var ends = 0;
        var waiting = new Stack<int>([0]);
        while (waiting.TryPop(out var node))
        {
            if (below[node].Count == 0)
                places[node] = ends++;
            for (var i = below[node].Count - 1; i >= 0; i--)
                waiting.Push(below[node][i]);
        }
        // What leads to a node stands before it in the list.
        for (var node = below.Count - 1; node >= 0; node--)
        {
            if (below[node].Count > 0)
                places[node] = below[node].Average(b => places[b]);
        }
        return ends < 2 ? [.. places.Select(_ => 0.5)] : [.. places.Select(p => Math.Round(p / (ends - 1), 4))];
    }
}
