using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>Finds what is wrong with the keys of a text, each with its place and what to do.</summary>
internal static class KeyCheck
{
    /// <param name="keys">The keys as they were read.</param>
    /// <param name="source">The lines of the text as typed, for changes to offer.</param>
    public static IEnumerable<KeyProblem> Check(List<DraftKey> keys, IReadOnlyList<string> source)
    {
        var problems = new List<KeyProblem>();
        foreach (var key in keys)
        {
            CheckTitle(key, keys, problems);
            var byLabel = CheckCouplets(key, problems);
            CheckLeads(key, keys, byLabel, problems, source);
            CheckBackReferences(key, byLabel, problems);
            CheckCycles(key, byLabel, problems);
            CheckReach(key, byLabel, problems);
        }
        CheckCyclesOfKeys(keys, problems);
        CheckNames(keys, problems);
        return problems;
    }

    private static void CheckTitle(DraftKey key, List<DraftKey> keys, List<KeyProblem> problems)
    {
        if (key.Raw.Title.Length == 0)
        {
            problems.Add(
                Warning(
                    "key.untitled",
                    key.Couplets[0].First.Line,
                    key.Couplets[0].First.Column,
                    "This key has no title. Write one on a line of its own above its first couplet, such as “Key to the willows”, so that records can name it."
                )
            );
            return;
        }
        var plain = KeyTitle.Plain(key.Raw.Title);
        if (keys.TakeWhile(k => k != key).FirstOrDefault(k => KeyTitle.Plain(k.Raw.Title) == plain) is { } same)
        {
            problems.Add(
                Error(
                    "key.duplicate",
                    key.Raw.Line,
                    key.Raw.Column,
                    $"Two keys of this text are called “{key.Raw.Title}” (the other one in line {same.Raw.Line}). Give one of them another title."
                )
            );
        }
    }

    private static Dictionary<string, DraftCouplet> CheckCouplets(DraftKey key, List<KeyProblem> problems)
    {
        var byLabel = new Dictionary<string, DraftCouplet>(StringComparer.Ordinal);
        foreach (var couplet in key.Couplets)
        {
            if (!byLabel.TryAdd(couplet.Label, couplet))
            {
                problems.Add(
                    Error(
                        "couplet.duplicate",
                        couplet.First.Line,
                        couplet.First.Column,
                        $"Couplet {couplet.Label} is defined twice: here and in line {byLabel[couplet.Label].First.Line}. Give one of them another number."
                    )
                );
            }
            if (couplet.Leads.Count < 2)
            {
                problems.Add(
                    Error(
                        "couplet.one-lead",
                        couplet.First.Line,
                        couplet.First.Column,
                        $"Couplet {couplet.Label} has one lead only. Add the other one, or mend its number if it stands elsewhere."
                    )
                );
            }
            foreach (var lead in couplet.Leads.Where(l => l.Statements.Count == 0))
            {
                problems.Add(
                    Error(
                        "lead.empty",
                        lead.Raw.Line,
                        lead.Raw.Column,
                        $"This lead of couplet {couplet.Label} makes no statement. Write what it says about the plant."
                    )
                );
            }
        }
        return byLabel;
    }

    private static void CheckLeads(
        DraftKey key,
        List<DraftKey> keys,
        Dictionary<string, DraftCouplet> byLabel,
        List<KeyProblem> problems,
        IReadOnlyList<string> source
    )
    {
        foreach (var couplet in key.Couplets)
        {
            foreach (var lead in couplet.Leads)
            {
                var (line, column) = lead.DestinationAt;
                if (lead.Tail is { } tail && (tail.Unsure ?? UnreadName.Ask(lead.Raw.Text, tail)) is { } unsure)
                    problems.Add(Unsure(unsure, line, column, source));
                switch (lead.Destination)
                {
                    case null:
                        problems.Add(
                            Error(
                                "lead.no-destination",
                                lead.Raw.Line,
                                lead.Raw.Column,
                                $"This lead of couplet {couplet.Label} goes nowhere. End it with a couplet's number, a taxon or a key, for example “... 7”."
                            )
                        );
                        break;
                    case { Kind: DestinationKind.Couplet } to when to.Target == couplet.Label:
                        problems.Add(
                            Error("couplet.self", line, column, $"Couplet {couplet.Label} goes to itself. Put in the number that is meant.")
                        );
                        break;
                    case { Kind: DestinationKind.Couplet } to when !byLabel.ContainsKey(to.Target):
                        problems.Add(
                            Error(
                                "couplet.missing",
                                line,
                                column,
                                $"Couplet {couplet.Label} goes to {to.Target}, but there is no couplet {to.Target}. Add it, or put in the number that is meant."
                            )
                        );
                        break;
                    case { Kind: DestinationKind.Key } to when keys.Find(k => KeyTitle.IsNamedBy(k.Raw.Title, to.Target)) is null:
                        problems.Add(
                            Warning(
                                "key.unknown",
                                line,
                                column,
                                $"“{to.Target}” isn't in this text. The trail goes on there if a key of that title is saved as well; else it ends here with that group."
                            )
                        );
                        break;
                }
            }
        }
    }

    // A change is offered only where the old text stands in the typed line just so: not where the end is broken over lines or comes out of
    // HTML.
    private static KeyProblem Unsure(EndQuestion question, int line, int column, IReadOnlyList<string> source)
    {
        var choices = new List<KeyTextChange>();
        foreach (var choice in question.Choices)
        {
            if (line > source.Count || column > source[line - 1].Length)
                continue;
            var at = source[line - 1].LastIndexOf(choice.Old, StringComparison.Ordinal);
            if (at >= column - 1)
                choices.Add(new KeyTextChange(choice.Label, line, at + 1, choice.Old, choice.New));
        }
        return Warning("end.unsure", line, column, question.Message) with { Choices = choices.Count > 0 ? choices : null };
    }

    private static void CheckBackReferences(DraftKey key, Dictionary<string, DraftCouplet> byLabel, List<KeyProblem> problems)
    {
        // Sources only where some couplet says where it comes from: most keys have no back-references.
        if (!key.Couplets.Exists(c => c.Leads.Exists(l => l.Raw.Mark.BackReference is not null)))
            return;
        var sources = key
            .Couplets.SelectMany(c => c.Leads.Select(l => (From: c.Label, l.Destination)))
            .Where(s => s.Destination?.Kind == DestinationKind.Couplet)
            .ToLookup(s => s.Destination!.Target, s => s.From, StringComparer.Ordinal);
        foreach (var couplet in key.Couplets)
        {
            foreach (var raw in couplet.Leads.Select(l => l.Raw).Where(r => r.Mark.BackReference is not null))
            {
                var said = raw
                    .Mark.BackReference!.Split([',', ' '], StringSplitOptions.RemoveEmptyEntries)
                    .Select(s => s.TrimEnd('a', 'b', 'c', 'd', '\'', '’', '*'))
                    .ToList();
                // "1(0)." says that the key begins here.
                if (couplet == key.Couplets[0] && said.TrueForAll(s => s is "0" or ""))
                    continue;
                var actual = sources[couplet.Label].Distinct(StringComparer.Ordinal).ToList();
                if (said.TrueForAll(s => actual.Contains(s)))
                    continue;
                var comes = actual.Count == 0 ? "no lead goes to it" : $"it is couplet {string.Join(" and ", actual)} that goes to it";
                problems.Add(
                    Error(
                        "couplet.back-reference",
                        raw.Line,
                        raw.BackReferenceColumn,
                        $"Couplet {couplet.Label} says that it comes from {string.Join(", ", said)}, but {comes}. One of the two numbers is wrong."
                    )
                );
            }
        }
    }

    private static void CheckCycles(DraftKey key, Dictionary<string, DraftCouplet> byLabel, List<KeyProblem> problems)
    {
        var done = new Dictionary<DraftCouplet, bool>();
        foreach (var start in key.Couplets)
        {
            if (done.ContainsKey(start))
                continue;
            // Depth first without recursion: a key may be ten thousand couplets deep.
            var path = new Stack<(DraftCouplet Couplet, int Next)>();
            path.Push((start, 0));
            done[start] = false;
            while (path.Count > 0)
            {
                var (couplet, next) = path.Pop();
                if (next >= couplet.Leads.Count)
                {
                    done[couplet] = true;
                    continue;
                }
                path.Push((couplet, next + 1));
                var lead = couplet.Leads[next];
                if (
                    lead.Destination is not { Kind: DestinationKind.Couplet } to
                    || to.Target == couplet.Label
                    || !byLabel.TryGetValue(to.Target, out var target)
                )
                    continue;
                if (!done.TryGetValue(target, out var finished))
                {
                    done[target] = false;
                    path.Push((target, 0));
                }
                else if (!finished)
                {
                    var round = path.Select(p => p.Couplet.Label)
                        .TakeWhile(l => l != target.Label)
                        .Reverse()
                        .Prepend(target.Label)
                        .Append(target.Label)
                        .ToList();
                    const int mostShown = 8;
                    var shown =
                        round.Count > mostShown
                            ? string.Join(" → ", round.Take(3)) + " → … → " + string.Join(" → ", round.TakeLast(3))
                            : string.Join(" → ", round);
                    var (line, column) = lead.DestinationAt;
                    problems.Add(
                        Error(
                            "couplet.cycle",
                            line,
                            column,
                            $"The key goes round in a circle here: {shown}. Put in the number that is meant."
                        )
                    );
                }
            }
        }
    }

    private static void CheckReach(DraftKey key, Dictionary<string, DraftCouplet> byLabel, List<KeyProblem> problems)
    {
        var reached = new HashSet<DraftCouplet> { key.Couplets[0] };
        var waiting = new Queue<DraftCouplet>([key.Couplets[0]]);
        while (waiting.TryDequeue(out var couplet))
        {
            foreach (var to in couplet.Leads.Select(l => l.Destination))
            {
                if (to is { Kind: DestinationKind.Couplet } && byLabel.TryGetValue(to.Target, out var next) && reached.Add(next))
                    waiting.Enqueue(next);
            }
        }
        var named = key
            .Couplets.SelectMany(c => c.Leads.Where(l => l.Destination?.Target != c.Label).Select(l => l.Destination))
            .Where(d => d?.Kind == DestinationKind.Couplet)
            .Select(d => d!.Target)
            .ToHashSet(StringComparer.Ordinal);
        foreach (var couplet in key.Couplets.Where(c => !reached.Contains(c) && byLabel[c.Label] == c))
        {
            var message = named.Contains(couplet.Label)
                ? $"Couplet {couplet.Label} can't be reached from the start: the couplets that lead here can't be reached either."
                : $"Couplet {couplet.Label} can't be reached: no lead goes to it. Put its number at the lead that should go here, or remove it.";
            problems.Add(Error("couplet.unreachable", couplet.First.Line, couplet.First.Column, message));
        }
    }

    private static void CheckCyclesOfKeys(List<DraftKey> keys, List<KeyProblem> problems)
    {
        var edges = keys.ToDictionary(
            k => k,
            k =>
                k.Couplets.SelectMany(c => c.Leads)
                    .Where(l => l.Destination?.Kind == DestinationKind.Key)
                    .Select(l => (Lead: l, To: keys.Find(o => KeyTitle.IsNamedBy(o.Raw.Title, l.Destination!.Target))))
                    .Where(e => e.To is not null)
                    .ToList()
        );
        foreach (var key in keys)
        {
            foreach (var (lead, to) in edges[key])
            {
                var seen = new HashSet<DraftKey> { to! };
                var waiting = new Queue<DraftKey>([to!]);
                while (waiting.TryDequeue(out var at))
                {
                    foreach (var next in edges[at].Select(e => e.To!).Where(seen.Add))
                        waiting.Enqueue(next);
                }
                if (!seen.Contains(key))
                    continue;
                var (line, column) = lead.DestinationAt;
                problems.Add(
                    Error(
                        "key.cycle",
                        line,
                        column,
                        $"“{key.Raw.Title}” hands over to “{to!.Raw.Title}”, which leads back to it. Name the key that is meant."
                    )
                );
            }
        }
    }

    private static void CheckNames(List<DraftKey> keys, List<KeyProblem> problems)
    {
        var places = new Dictionary<string, DraftLead>(StringComparer.Ordinal);
        foreach (var lead in keys.SelectMany(k => k.Couplets).SelectMany(c => c.Leads))
        {
            if (lead.Destination?.Taxon is { } name)
                places.TryAdd(name.Name, lead);
        }
        foreach (var (first, second) in NearNames.Pairs([.. places.Keys]))
        {
            var (line, column) = places[second].DestinationAt;
            problems.Add(
                Warning(
                    "taxon.near",
                    line,
                    column,
                    $"“{second}” is spelled nearly like “{first}” (line {places[first].DestinationAt.Line}). If they are the same taxon, spell them alike."
                )
            );
        }
    }

    private static KeyProblem Error(string code, int line, int column, string message) =>
        new(ProblemSeverity.Error, code, line, column, message);

    private static KeyProblem Warning(string code, int line, int column, string message) =>
        new(ProblemSeverity.Warning, code, line, column, message);
}
