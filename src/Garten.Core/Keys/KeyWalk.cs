namespace Garten.Core.Keys;

/// <summary>
/// Follows keys by the answers given at their couplets. A function of the keys and the answers alone, so that any answer can be
/// changed, taken back or given later; "can't tell" keeps all leads of a couplet open.
/// </summary>
public static class KeyWalk
{
    private readonly record struct Node(KeyVersion Version, Couplet Couplet);

    private sealed record Waiting(Node Node, bool EntersKey, int Forks, string Branch);

    /// <summary>Follows the keys as far as the answers reach.</summary>
    /// <param name="shelf">The versions within reach.</param>
    /// <param name="start">Hash of the version to start with.</param>
    /// <param name="answers">
    /// The answers, in any order; of several for one couplet the last counts. Those for couplets that aren't met are dormant.
    /// </param>
    /// <exception cref="ArgumentException">The start isn't on the shelf or has no couplets.</exception>
    public static WalkState Follow(KeyShelf shelf, string start, IReadOnlyList<TrailAnswer> answers)
    {
        ArgumentNullException.ThrowIfNull(shelf);
        ArgumentNullException.ThrowIfNull(answers);
        var first = shelf.Find(start) ?? throw new ArgumentException("The key version to start with isn't on the shelf.", nameof(start));
        if (first.Key.Couplets.Count == 0)
            throw new ArgumentException("The key to start with has no couplets.", nameof(start));

        var given = new Dictionary<(string, string), TrailAnswer>();
        foreach (var answer in answers)
            given[(answer.KeyVersion, answer.Couplet)] = answer;
        var followed = answers.Select(a => a.KeyVersion).ToHashSet(StringComparer.Ordinal);

        var steps = new List<TrailStep>();
        var open = new List<Waiting>();
        var standing = new StandingSet();
        var met = new HashSet<(string, string)>();
        var way = new Stack<object>();
        way.Push(new Waiting(new Node(first, first.Key.Couplets[0]), true, 0, ""));
        while (way.TryPop(out var next))
        {
            if (next is RemainingTaxon end)
            {
                standing.Add(end);
                continue;
            }
            var (node, entersKey, forks, branch) = (Waiting)next;
            if (!met.Add((node.Version.Hash, node.Couplet.Label)))
                continue;
            if (
                !given.TryGetValue((node.Version.Hash, node.Couplet.Label), out var answer)
                || answer.Lead >= node.Couplet.Leads.Count
                || answer.Lead < 0
            )
            {
                open.Add((Waiting)next);
                // What lies behind an open couplet stands, in its place among the others.
                foreach (var taxon in Behind(shelf, node, followed))
                    standing.Add(taxon);
                continue;
            }
            steps.Add(
                new TrailStep(
                    node.Version.Hash,
                    node.Version.Key.Title,
                    node.Couplet.Label,
                    answer.Lead,
                    LeadTexts(node.Couplet),
                    entersKey,
                    forks,
                    branch
                )
            );
            for (var i = node.Couplet.Leads.Count - 1; i >= 0; i--)
            {
                if (answer.Lead is { } chosen && chosen != i)
                    continue;
                var below = answer.Lead is null ? node.Couplet.Label + LeadLetter(i) : branch;
                var (to, ends, enters) = Target(shelf, node.Version, node.Couplet.Leads[i], followed);
                if (to is { } onward)
                    way.Push(new Waiting(onward, enters, forks + (answer.Lead is null ? 1 : 0), below));
                foreach (var taxon in ends.Reverse())
                    way.Push(taxon);
            }
        }
        var onTheWay = steps.Select(s => (s.KeyVersion, s.Couplet)).ToHashSet();
        var dormant = given.Values.Where(a => !onTheWay.Contains((a.KeyVersion, a.Couplet))).ToList();
        return new WalkState(steps, [.. open.Select(o => Describe(shelf, o, followed))], standing.All, dormant);
    }

    /// <summary>The letter of a lead in its couplet: a, b, c … for 0, 1, 2 …; stars beyond z are never needed.</summary>
    public static string LeadLetter(int index) => ((char)('a' + Math.Min(index, 'z' - 'a'))).ToString();

    private static string[] LeadTexts(Couplet couplet) => [.. couplet.Leads.Select(l => string.Join("; ", l.Statements))];

    private static OpenCouplet Describe(KeyShelf shelf, Waiting waiting, HashSet<string> followed)
    {
        var (version, couplet) = waiting.Node;
        var taxa = couplet
            .Leads.Select(lead =>
                Target(shelf, version, lead, followed) is ({ } to, _, _)
                    ? (IReadOnlyList<RemainingTaxon>)[.. Behind(shelf, to, followed)]
                    : Target(shelf, version, lead, followed).Ends
            )
            .ToList();
        var place = 1;
        foreach (var other in version.Key.Couplets)
        {
            if (ReferenceEquals(other, couplet))
                break;
            place++;
        }
        var (fewest, most) = AnswersToEnd(version, couplet);
        return new OpenCouplet(
            version.Hash,
            version.Key.Title,
            couplet,
            taxa,
            waiting.EntersKey,
            waiting.Branch,
            place,
            version.Key.Couplets.Count,
            fewest,
            most
        );
    }

    private static (Node? Couplet, IReadOnlyList<RemainingTaxon> Ends, bool EntersKey) Target(
        KeyShelf shelf,
        KeyVersion version,
        Lead lead,
        HashSet<string> followed
    )
    {
        var to = lead.Destination
            ?? throw new InvalidOperationException("A lead of this key has no destination: only sound keys can be followed.");
        switch (to.Kind)
        {
            case DestinationKind.Couplet:
                var couplet = version.Find(to.Target)
                    ?? throw new InvalidOperationException($"This key has no couplet {to.Target}: only sound keys can be followed.");
                return (new Node(version, couplet), [], false);
            case DestinationKind.Taxon:
                return (
                    null,
                    [
                        new RemainingTaxon(to.Target, to.Taxon, true, shelf.Recognise(to.Target)?.Id),
                        .. (to.Others ?? []).Select(t => new RemainingTaxon(t.Name, t, true, shelf.Recognise(t.Name)?.Id)),
                    ],
                    false
                );
            default:
                // A trail stays with the version it has followed, even when a newer one has come since.
                var named = shelf.Resolve(to.Target, version);
                var key = named.FirstOrDefault(v => followed.Contains(v.Hash)) ?? (named.Count > 0 ? named[0] : null);
                return key is null
                    ? (null, [new RemainingTaxon(to.Target, null, true)], false)
                    : (new Node(key, key.Key.Couplets[0]), [], true);
        }
    }

    // The taxa that lie behind a couplet, in the order of the keys.
    private static IEnumerable<RemainingTaxon> Behind(KeyShelf shelf, Node from, HashSet<string> followed)
    {
        var met = new HashSet<(string, string)>();
        var found = new HashSet<string>(StringComparer.Ordinal);
        var way = new Stack<object>();
        way.Push(from);
        while (way.TryPop(out var next))
        {
            if (next is RemainingTaxon taxon)
            {
                if (found.Add(taxon.Name))
                    yield return taxon with
                    {
                        Reached = false,
                    };
                continue;
            }
            var node = (Node)next;
            if (!met.Add((node.Version.Hash, node.Couplet.Label)))
                continue;
            for (var i = node.Couplet.Leads.Count - 1; i >= 0; i--)
            {
                var (to, ends, _) = Target(shelf, node.Version, node.Couplet.Leads[i], followed);
                if (to is { } onward)
                    way.Push(onward);
                foreach (var end in ends.Reverse())
                    way.Push(end);
            }
        }
    }

    private static (int Fewest, int Most) AnswersToEnd(KeyVersion version, Couplet from)
    {
        var known = new Dictionary<string, (int Fewest, int Most)>(StringComparer.Ordinal);
        var underWay = new HashSet<string>(StringComparer.Ordinal);
        var way = new Stack<Couplet>();
        way.Push(from);
        while (way.TryPeek(out var couplet))
        {
            var below = couplet
                .Leads.Where(l => l.Destination!.Kind == DestinationKind.Couplet)
                .Select(l => version.Find(l.Destination!.Target)!)
                .ToList();
            var unknown = below.Where(c => !known.ContainsKey(c.Label) && !underWay.Contains(c.Label)).ToList();
            if (underWay.Add(couplet.Label) && unknown.Count > 0)
            {
                foreach (var c in unknown)
                    way.Push(c);
                continue;
            }
            way.Pop();
            if (known.ContainsKey(couplet.Label))
                continue;
            var ends = below.Count < couplet.Leads.Count;
            var lengths = below.Select(c => known.GetValueOrDefault(c.Label)).ToList();
            known[couplet.Label] = (
                1 + (ends || lengths.Count == 0 ? 0 : lengths.Min(l => l.Fewest)),
                1 + (lengths.Count == 0 ? 0 : lengths.Max(l => l.Most))
            );
        }
        return known[from.Label];
    }

    // Taxa in the order in which they are met; one that was reached stays so.
    private sealed class StandingSet
    {
        private readonly Dictionary<string, int> _at = new(StringComparer.Ordinal);
        private readonly List<RemainingTaxon> _all = [];

        public IReadOnlyList<RemainingTaxon> All => _all;

        public void Add(RemainingTaxon taxon)
        {
            if (_at.TryAdd(taxon.Name, _all.Count))
                _all.Add(taxon);
            else if (taxon.Reached && !_all[_at[taxon.Name]].Reached)
                _all[_at[taxon.Name]] = taxon;
        }
    }
}
