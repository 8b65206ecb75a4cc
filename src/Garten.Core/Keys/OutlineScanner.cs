using System.Text.RegularExpressions;

namespace Garten.Core.Keys;

/// <summary>Reads a key written as an outline, each level with marks of its own kind that begin anew in every branch: I, A, 1, a.</summary>
internal static partial class OutlineScanner
{
    private sealed record Item(SourceLine Line, string Family, int Place, int TextAt);

    /// <summary>The key; null where the text is no outline: marks of one kind only, numbers that don't begin anew, or leads that go to
    /// numbers.</summary>
    public static RawKey? Scan(List<SourceLine> lines)
    {
        var filled = lines.Where(l => !l.IsBlank).ToList();
        var romans =
            Mark().Match(filled.Find(l => Mark().IsMatch(l.Text))?.Text ?? "") is { Success: true } opening
            && opening.Groups[1].Value == "I";
        var items = filled.ConvertAll(l => Read(l, romans));
        var first = items.FindIndex(i => i is not null);
        if (first < 0)
            return null;
        var levels = items.OfType<Item>().Select(i => i.Family).Distinct(StringComparer.Ordinal).ToList();
        if (levels.Count < 2 || !CountsAnew(items.OfType<Item>(), levels))
            return null;
        var key = new RawKey(
            first > 0 ? filled[0].Text.Trim().TrimStart('#', ' ').TrimEnd(':', '.') : "",
            filled[0].Number,
            1,
            [.. filled.Take(first).Skip(1).Select(l => l.Text.Trim())]
        )
        {
            ByIndentation = true,
        };
        for (var i = first; i < filled.Count; i++)
        {
            if (items[i] is not { } item)
            {
                key.Leads[^1].Append(filled[i], filled[i].Indent);
                continue;
            }
            var lead = new RawLead(
                new LeadMark(null, "", null, 0, item.TextAt, MarkStrength.Marked, false),
                null,
                item.Line.Number,
                item.Line.ColumnAt(item.Line.Indent),
                levels.IndexOf(item.Family)
            );
            lead.Append(item.Line, item.TextAt);
            key.Leads.Add(lead);
        }
        return key.Leads.Exists(l => l.OwnTail is { Destination.Kind: DestinationKind.Couplet, Strength: LeaderStrength.Set }) ? null : key;
    }

    private static Item? Read(SourceLine line, bool romans)
    {
        var mark = Mark().Match(line.Text);
        if (!mark.Success)
            return null;
        var text = mark.Groups[1].Value;
        var family =
            char.IsAsciiDigit(text[0]) ? "1"
            : romans && text.All(c => c is 'I' or 'V' or 'X') ? "I"
            : text.Length > 1 ? ""
            : char.IsUpper(text[0]) ? "A"
            : "a";
        if (mark.Groups["open"].Length > 0)
            family = "(" + family;
        return family is "" or "(" ? null : new Item(line, family, PlaceOf(text, family.TrimStart('(')), mark.Length);
    }

    private static int PlaceOf(string text, string family) =>
        family switch
        {
            "1" => int.Parse(text, System.Globalization.CultureInfo.InvariantCulture),
            "I" => Array.IndexOf(Romans, text) + 1,
            _ => char.ToLowerInvariant(text[0]) - 'a' + 1,
        };

    private static readonly string[] Romans = ["I", "II", "III", "IV", "V", "VI", "VII", "VIII", "IX", "X", "XI", "XII"];

    // On each level the marks run on by one, or begin anew behind a mark of a level above; at least one level below the first begins anew.
    private static bool CountsAnew(IEnumerable<Item> items, List<string> levels)
    {
        var last = new int[levels.Count];
        var anew = false;
        var begun = new bool[levels.Count];
        foreach (var item in items)
        {
            var level = levels.IndexOf(item.Family);
            if (item.Place != last[level] + 1)
                return false;
            if (level > 0 && item.Place == 1)
            {
                anew |= begun[level];
                begun[level] = true;
            }
            last[level] = item.Place;
            Array.Clear(last, level + 1, last.Length - level - 1);
        }
        return anew;
    }

    [GeneratedRegex(@"^\s*(?<open>\()?([IVX]{1,4}|[A-Za-z]|\d{1,2})[.)]{1,2}\s+(?=\S)", RegexOptions.CultureInvariant)]
    private static partial Regex Mark();
}
