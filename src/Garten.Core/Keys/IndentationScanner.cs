namespace Garten.Core.Keys;

/// <summary>Reads a key without numbers, in which only indentation (or bullets with indentation) says which leads belong
/// together.</summary>
internal static class IndentationScanner
{
    /// <summary>The key; null where fewer than two lines end with a destination, so that the text is no key.</summary>
    public static RawKey? Scan(List<SourceLine> lines)
    {
        var filled = lines.Where(l => !l.IsBlank).ToList();
        if (filled.Count(l => LeadTail.Find(Body(l), TailContext.Empty) is { Strength: LeaderStrength.Set }) < 2)
            return null;
        var bullets = filled.Exists(l => LeadMark.Read(l.Text) is { Label: null });
        // What stands above the first bullet, or a first line that nothing is indented below, is the title.
        var first = bullets ? filled.FindIndex(l => LeadMark.Read(l.Text) is { Label: null }) : FirstLead(filled);
        var header = filled.Take(first).ToList();
        var key = new RawKey(
            header.Count > 0 ? header[0].Text.Trim().TrimStart('#', ' ') : "",
            filled[0].Number,
            1,
            [.. header.Skip(1).Select(l => l.Text.Trim())]
        )
        {
            ByIndentation = true,
        };
        foreach (var line in filled.Skip(first))
        {
            var mark = LeadMark.Read(line.Text) is { Label: null } bullet ? bullet : null;
            if (bullets && mark is null)
            {
                key.Leads[^1].Append(line, line.Indent);
                continue;
            }
            mark ??= new LeadMark(null, "", null, 0, line.Indent, MarkStrength.Marked, false);
            var lead = new RawLead(mark, null, line.Number, line.ColumnAt(line.Indent), line.IndentWidth);
            lead.Append(line, mark.Length);
            key.Leads.Add(lead);
        }
        return key;
    }

    private static int FirstLead(List<SourceLine> filled)
    {
        var first = filled[0];
        var isLead =
            LeadTail.Find(first.Text, TailContext.Empty) is not null
            || (
                filled.Count > 1 && filled[1].IndentWidth > first.IndentWidth && filled.Skip(1).Any(l => l.IndentWidth == first.IndentWidth)
            );
        return isLead ? 0 : 1;
    }

    private static string Body(SourceLine line) => LeadMark.Read(line.Text) is { Label: null } mark ? line.Text[mark.Length..] : line.Text;
}
