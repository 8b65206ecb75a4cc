namespace Garten.Core.Keys;

/// <summary>A place in the keys: a couplet of a version.</summary>
internal readonly record struct KeyPlace(string Version, string Couplet)
{
    // The hash of a version is long; labels alone tell nearly all places apart.
    public bool Equals(KeyPlace other) =>
        string.Equals(Couplet, other.Couplet, StringComparison.Ordinal) && string.Equals(Version, other.Version, StringComparison.Ordinal);

    public override int GetHashCode() => Couplet.GetHashCode(StringComparison.Ordinal);

    public override string ToString() => $"{Version}#{Couplet}";
}

/// <summary>What a lead leads to: another place, or an end, which may leave several taxa open.</summary>
internal readonly record struct KeyStep(KeyPlace? Place, IReadOnlyList<string> Ends);

/// <summary>The couplets within reach of a start, with their leads resolved through hand-overs, and what lies behind each.</summary>
internal sealed class KeyMap
{
    private readonly Dictionary<KeyPlace, KeyStep[]> _steps = [];
    private readonly Dictionary<KeyPlace, string[]> _behind = [];

    public KeyMap(KeyShelf shelf, string start, IReadOnlySet<string> followed)
    {
        var first = shelf.Find(start)!;
        Shelf = shelf;
        Start = new KeyPlace(start, first.Key.Couplets[0].Label);
        var waiting = new Stack<KeyPlace>([Start]);
        while (waiting.TryPop(out var place))
        {
            if (_steps.ContainsKey(place))
                continue;
            var version = shelf.Find(place.Version)!;
            var steps = version.Find(place.Couplet)!.Leads.Select(l => Resolve(shelf, version, l, followed)).ToArray();
            _steps[place] = steps;
            Order.Add(place);
            foreach (var step in steps)
            {
                if (step.Place is { } next)
                    waiting.Push(next);
            }
        }
        IsOneKey = Order.TrueForAll(p => string.Equals(p.Version, start, StringComparison.Ordinal));
    }

    /// <summary>Whether the key leads on to no other one.</summary>
    public bool IsOneKey { get; }

    private KeyShelf Shelf { get; }

    public KeyPlace Start { get; }

    /// <summary>Of every name that can be reached, the id of the flora's taxon; null where it has none.</summary>
    public IReadOnlyDictionary<string, string?> Ids =>
        field ??= Behind(Start).ToDictionary(n => n, n => Shelf.Recognise(n)?.Id, StringComparer.Ordinal);

    /// <summary>The places, each after all that lead to it: a sound key goes round in no circle.</summary>
    public IReadOnlyList<KeyPlace> InOrder => field ??= TopologicalOrder();

    private List<KeyPlace> TopologicalOrder()
    {
        var waitingFor = Order.ToDictionary(p => p, _ => 0);
        foreach (var to in Order.SelectMany(p => _steps[p]).Select(s => s.Place).OfType<KeyPlace>())
            waitingFor[to]++;
        var order = new List<KeyPlace>();
        var ready = new Queue<KeyPlace>([Start]);
        while (ready.TryDequeue(out var place))
        {
            order.Add(place);
            foreach (var to in _steps[place].Select(s => s.Place).OfType<KeyPlace>())
            {
                if (--waitingFor[to] == 0)
                    ready.Enqueue(to);
            }
        }
        return order;
    }

    public List<KeyPlace> Order { get; } = [];

    public bool Has(KeyPlace place) => _steps.ContainsKey(place);

    public KeyStep[] Steps(KeyPlace place) => _steps[place];

    private static KeyStep Resolve(KeyShelf shelf, KeyVersion version, Lead lead, IReadOnlySet<string> followed)
    {
        var to = lead.Destination!;
        if (to.Kind == DestinationKind.Couplet)
            return new KeyStep(new KeyPlace(version.Hash, to.Target), []);
        if (to.Kind == DestinationKind.Taxon)
            return new KeyStep(null, [to.Target, .. (to.Others ?? []).Select(t => t.Name)]);
        var named = shelf.Resolve(to.Target, version);
        var key = named.FirstOrDefault(v => followed.Contains(v.Hash)) ?? (named.Count > 0 ? named[0] : null);
        return key is null ? new KeyStep(null, [to.Target]) : new KeyStep(new KeyPlace(key.Hash, key.Key.Couplets[0].Label), []);
    }

    /// <summary>Names of the ends behind a lead, each once.</summary>
    public IEnumerable<string> Behind(KeyStep step) => step.Place is { } place ? Behind(place) : step.Ends;

    /// <summary>Names that a key itself gives behind a lead of it: not those of other keys that it leads on to.</summary>
    /// <param name="version">Hash of the key's version.</param>
    /// <param name="step">Where the lead leads to.</param>
    public HashSet<string> Named(string version, KeyStep step)
    {
        var names = new HashSet<string>(StringComparer.Ordinal);
        var met = new HashSet<KeyPlace>();
        var waiting = new Stack<KeyStep>([step]);
        while (waiting.TryPop(out var next))
        {
            names.UnionWith(next.Ends);
            if (next.Place is { } place && string.Equals(place.Version, version, StringComparison.Ordinal) && met.Add(place))
            {
                foreach (var behind in _steps[place])
                    waiting.Push(behind);
            }
        }
        return names;
    }

    /// <summary>Names of the ends behind a place, each once.</summary>
    public string[] Behind(KeyPlace from)
    {
        if (_behind.TryGetValue(from, out var known))
            return known;
        var names = new List<string>();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        var met = new HashSet<KeyPlace>();
        var waiting = new Stack<KeyPlace>([from]);
        while (waiting.TryPop(out var place))
        {
            if (!met.Add(place))
                continue;
            foreach (var step in _steps[place])
            {
                if (step.Place is { } next)
                    waiting.Push(next);
                else
                    names.AddRange(step.Ends.Where(seen.Add));
            }
        }
        return _behind[from] = [.. names];
    }
}
