using System.Globalization;

namespace Garten.Core.Keys;

/// <summary>Puts the leads of a key together into couplets, in whichever of the two layouts they stand.</summary>
internal static class CoupletAssembler
{
    public static DraftKey Assemble(RawKey raw, TailContext context)
    {
        var tails = raw
            .Leads.Select(l => context.IsPlain && l.OwnTail is { Strength: LeaderStrength.Set } own ? own : LeadTail.Find(l.Text, context))
            .ToList();
        var layout = raw.ByIndentation || IsIndented(raw.Leads, tails, context.Labels) ? KeyLayout.Indented : KeyLayout.Bracketed;
        var couplets = layout == KeyLayout.Indented ? Nested(raw) : Together(raw);
        var tailOf = raw.Leads.Zip(tails).ToDictionary(p => p.First, p => p.Second);
        foreach (var lead in couplets.SelectMany(c => c.Leads))
            lead.Tail = tailOf[lead.Raw];
        var renumbered = layout == KeyLayout.Indented ? MakeLabelsUnique(couplets) : null;
        foreach (var couplet in couplets)
        {
            foreach (var lead in couplet.Leads)
                SetDestination(couplet, lead, renumbered);
        }
        return new DraftKey(raw, layout, couplets);
    }

    // Indented: couplets are taken up again after others stood between their leads, or left with an open lead that others stand below.
    // Without any indentation a single open lead may just lack its destination; two in a key that names no couplet by number can't.
    private static bool IsIndented(List<RawLead> leads, List<LeadTail?> tails, IReadOnlySet<string> labels)
    {
        var count = new Dictionary<string, int>(StringComparer.Ordinal);
        int returns = 0,
            openedBelow = 0,
            indentedBelow = 0,
            openLast = 0,
            couplets = 0,
            numbers = 0;
        string? current = null;
        for (var i = 0; i < leads.Count; i++)
        {
            if (
                tails[i] is { Destination.Kind: DestinationKind.Couplet } to
                && (to.Strength == LeaderStrength.Set || labels.Contains(to.Destination.Target))
            )
                numbers++;
            var label = leads[i].Label ?? current ?? "";
            if (leads[i].Label is not null && label != current)
            {
                if (count.TryGetValue(label, out var before) && before == 1)
                    returns++;
                if (!count.ContainsKey(label))
                {
                    couplets++;
                    if (current is not null && tails[i - 1] is null)
                    {
                        if (count[current] == 1)
                            openedBelow++;
                        else if (leads[i].Indent > leads[i - 1].Indent)
                            indentedBelow++;
                        else
                            openLast++;
                    }
                }
            }
            count[label] = count.GetValueOrDefault(label) + 1;
            current = label;
        }
        if (returns > 0 && returns * 4 >= couplets)
            return true;
        return couplets > 1 && (openedBelow + indentedBelow > numbers || (numbers == 0 && openLast > 1));
    }

    private static List<DraftCouplet> Together(RawKey raw)
    {
        var couplets = new List<DraftCouplet>();
        var byLabel = new Dictionary<string, DraftCouplet>(StringComparer.Ordinal);
        DraftCouplet? current = null;
        foreach (var lead in raw.Leads)
        {
            if (lead.Label is null && current is not null)
            {
                current.Leads.Add(new DraftLead(lead));
                continue;
            }
            var label = lead.Label ?? "1";
            var repeats =
                current is not null
                && current.Label == label
                && current.Leads.Count >= 2
                && lead.Mark.Letter.Length > 0
                && current.Leads.Exists(l => l.Raw.Mark.Letter == lead.Mark.Letter);
            if (current is not null && current.Label == label && !repeats)
                current.Leads.Add(new DraftLead(lead));
            // Its sibling stands elsewhere: the couplet was left with one lead.
            else if (!repeats && byLabel.TryGetValue(label, out var open) && (open.Leads.Count == 1 || HasNextLetter(open, lead)))
            {
                open.Leads.Add(new DraftLead(lead));
                current = open;
            }
            else
            {
                current = new DraftCouplet(label);
                current.Leads.Add(new DraftLead(lead));
                couplets.Add(current);
                byLabel.TryAdd(label, current);
            }
        }
        return couplets;
    }

    // "c" behind "a" and "b": a further lead of the same couplet, not another couplet of the same number.
    private static bool HasNextLetter(DraftCouplet couplet, RawLead lead) =>
        lead.Mark.Letter is [var letter]
        && letter == 'a' + couplet.Leads.Count
        && couplet.Leads.TrueForAll(l => l.Raw.Mark.Letter.Length == 1 && l.Raw.Mark.Letter[0] < letter);

    private static List<DraftCouplet> Nested(RawKey raw)
    {
        var couplets = new List<DraftCouplet>();
        var open = new List<DraftCouplet>();
        var depthOf = new Dictionary<string, int>(StringComparer.Ordinal);
        var indents = raw.Leads.Select(l => l.Indent).Distinct().Count();
        DraftLead? last = null;
        foreach (var lead in raw.Leads)
        {
            var draft = new DraftLead(lead);
            var depth = DepthOf(lead, raw.ByIndentation, open, depthOf, indents > 1);
            if (depth >= 0)
            {
                for (var i = open.Count - 1; i > depth; i--)
                {
                    if (depthOf.TryGetValue(open[i].Label, out var at) && at == i)
                        depthOf.Remove(open[i].Label);
                    open.RemoveAt(i);
                }
                open[depth].Leads.Add(draft);
            }
            else
            {
                var couplet = new DraftCouplet(lead.Label ?? (couplets.Count + 1).ToString(CultureInfo.InvariantCulture));
                couplet.Leads.Add(draft);
                couplets.Add(couplet);
                if (last is not null)
                    last.Child = couplet;
                depthOf[couplet.Label] = open.Count;
                open.Add(couplet);
            }
            last = draft;
        }
        return couplets;
    }

    // Place among the open couplets of the one that a lead belongs to; -1 where it begins a new one.
    private static int DepthOf(RawLead lead, bool byIndentation, List<DraftCouplet> open, Dictionary<string, int> depthOf, bool indentTells)
    {
        if (byIndentation)
        {
            return open.FindLastIndex(c => c.First.Indent == lead.Indent);
        }
        if (lead.Label is not null)
        {
            if (!depthOf.TryGetValue(lead.Label, out var depth))
                return -1;
            var couplet = open[depth];
            var repeats =
                couplet.Leads.Count >= 2 && lead.Mark.Letter.Length > 0 && couplet.Leads.Exists(l => l.Raw.Mark.Letter == lead.Mark.Letter);
            return repeats ? -1 : depth;
        }
        if (indentTells && open.FindLastIndex(c => c.First.Indent == lead.Indent) is var level and >= 0)
            return level;
        var waiting = open.FindLastIndex(c => c.Leads.Count < 2);
        return waiting >= 0 ? waiting : open.Count - 1;
    }

    // Numbers that stand for the depth ("1, 2, 2, 1, 2, 2") are used again in every branch: then the couplets are numbered anew.
    private static Dictionary<string, string>? MakeLabelsUnique(List<DraftCouplet> couplets)
    {
        if (couplets.Select(c => c.Label).Distinct(StringComparer.Ordinal).Count() == couplets.Count)
            return null;
        var renumbered = new Dictionary<string, string>(StringComparer.Ordinal);
        for (var i = 0; i < couplets.Count; i++)
        {
            var label = (i + 1).ToString(CultureInfo.InvariantCulture);
            // A number that was used twice names no single couplet any more.
            renumbered[couplets[i].Label] = renumbered.ContainsKey(couplets[i].Label) ? couplets[i].Label : label;
            couplets[i].Label = label;
        }
        return renumbered;
    }

    private static void SetDestination(DraftCouplet couplet, DraftLead lead, Dictionary<string, string>? renumbered)
    {
        var tail = lead.Tail;
        // Behind a single space a number or a name is only a guess; what stands below the lead is none. "Petals 5" keeps its five.
        if (lead.Child is { } child && (tail is null || (tail.Strength == LeaderStrength.Space && !IsNumberOf(tail, child))))
        {
            lead.Tail = null;
            lead.Destination = new LeadDestination(DestinationKind.Couplet, child.Label);
            lead.Statements = StatementSplitter.Split(lead.Raw.Text.TrimEnd('.', '…', ' ', ':'));
            return;
        }
        lead.Destination = tail?.Destination;
        if (
            renumbered is not null
            && tail?.Destination is { Kind: DestinationKind.Couplet } to
            && renumbered.TryGetValue(to.Target, out var renamed)
        )
        {
            lead.Destination = lead.Child is { } below ? to with { Target = below.Label } : to with { Target = renamed };
        }
        lead.Statements = StatementSplitter.Split(
            (tail?.Statements ?? lead.Raw.Text).TrimEnd('.', '…', '_', '-', '–', ' ', '\t', '(', ',', ':', '=')
        );
    }

    private static bool IsNumberOf(LeadTail tail, DraftCouplet child) =>
        tail.Destination.Kind == DestinationKind.Couplet
        && (tail.Destination.Target == child.Label || tail.Destination.Target == child.First.Label);
}
