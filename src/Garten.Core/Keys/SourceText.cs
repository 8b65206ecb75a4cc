namespace Garten.Core.Keys;

/// <summary>One line of a key text, made plain: white space of all kinds is a space or a tab, soft hyphens and bold marks are
/// gone.</summary>
/// <param name="Number">Line in the text, from 1.</param>
/// <param name="Text">The plain text without white space at its end.</param>
/// <param name="Columns">Per character of <paramref name="Text"/> its column in the text as typed, from 1; null where they are simply 1, 2,
/// 3 …</param>
/// <param name="EndsInSoftHyphen">Whether the line was broken at a soft hyphen.</param>
internal sealed record SourceLine(int Number, string Text, int[]? Columns, bool EndsInSoftHyphen)
{
    /// <summary>Where the first character that isn't white space stands.</summary>
    public int Indent { get; } = Text.Length - Text.AsSpan().TrimStart().Length;

    /// <summary>Width of the white space at the start, a tab taken as four.</summary>
    public int IndentWidth { get; } =
        Text.AsSpan(0, Text.Length - Text.AsSpan().TrimStart().Length).ToArray().Sum(c => c == '\t' ? TabWidth : 1);

    public bool IsBlank => Text.Length == 0;

    public int ColumnAt(int index) =>
        Columns is null ? index + 1
        : Columns.Length == 0 ? 1
        : Columns[Math.Min(index, Columns.Length - 1)];

    private const int TabWidth = 4;
}

/// <summary>A key text cut into plain lines.</summary>
internal static class SourceText
{
    /// <summary>Whether the text holds characters that no text has: then it is some other kind of file.</summary>
    public static bool LooksBinary(string text)
    {
        foreach (var c in text)
        {
            if (c == '\uFFFD' || (char.IsControl(c) && c is not ('\n' or '\r' or '\t' or '\f' or '\v' or '\u0085')))
                return true;
        }
        return false;
    }

    public static List<SourceLine> Lines(string text)
    {
        var lines = new List<SourceLine>();
        var isHtml = HtmlText.IsOne(text);
        var number = 0;
        var start = 0;
        while (start <= text.Length)
        {
            var end = text.AsSpan(start).IndexOfAny("\n\r\f\v\u0085\u2028\u2029");
            end = end < 0 ? text.Length : start + end;
            number++;
            if (isHtml)
                lines.AddRange(HtmlText.Lines(text[start..end]).Select(piece => Mapped(Plain(piece.Text, number), piece.Columns)));
            else
                lines.Add(Plain(text.AsSpan(start, end - start), number));
            if (end + 1 < text.Length && text[end] == '\r' && text[end + 1] == '\n')
                end++;
            start = end + 1;
        }
        return QuestionCouplets.Unfold(lines);
    }

    private static SourceLine Mapped(SourceLine line, int[] columns) =>
        line with
        {
            Columns = [.. Enumerable.Range(0, line.Text.Length).Select(i => columns[line.ColumnAt(i) - 1])],
        };

    // What print recognised by a machine sets apart: "1 . Leaves", "T . brevis". These blanks are passed over.
    private static HashSet<int>? Astray(ReadOnlySpan<char> line)
    {
        HashSet<int>? astray = null;
        foreach (var match in KeyTextPatterns.BlankBeforeStop().EnumerateMatches(line))
        {
            astray ??= [];
            for (var i = match.Index; i < match.Index + match.Length; i++)
            {
                if (
                    char.IsWhiteSpace(line[i])
                    && i > match.Index
                    && !line[match.Index..i].IsWhiteSpace()
                    && line[(i + 1)..].TrimStart() is ['.' or ')', ..]
                )
                    astray.Add(i);
            }
        }
        return astray;
    }

    private static SourceLine Plain(ReadOnlySpan<char> raw, int number)
    {
        var trimmed = raw.TrimEnd();
        // A row of a table: "| 1 | Leaves opposite | 2 |". Its cells stand in columns like any others; the row under its head says nothing.
        var isRow = trimmed.Length > 2 && trimmed.TrimStart()[0] == '|' && trimmed[^1] == '|';
        if (isRow && trimmed.IndexOfAnyExcept("|-: \t") < 0)
            return new SourceLine(number, "", null, false);
        if (isRow)
            trimmed = trimmed[..^1].TrimEnd();
        var softHyphen = trimmed.Length > 0 && trimmed[^1] == '\u00AD';
        var astray = Astray(trimmed);
        var dropped =
            astray is not null
            || trimmed.IndexOfAny("\u00AD\u200B\uFEFF\u2060") >= 0
            || trimmed.IndexOf("**") >= 0
            || trimmed.IndexOf("__") >= 0;
        var text = new char[trimmed.Length];
        var columns = dropped ? new int[trimmed.Length] : null;
        var length = 0;
        for (var i = 0; i < trimmed.Length; i++)
        {
            var c = trimmed[i];
            if (astray?.Contains(i) == true)
                continue;
            if (c is '\u00AD' or '\u200B' or '\uFEFF' or '\u2060')
                continue;
            // Bold marks around a label or a name; a run of three or more of them is a leader line.
            if (c is '*' or '_' && IsBoldMark(trimmed, i))
            {
                i++;
                continue;
            }
            if (c != '\t' && char.IsWhiteSpace(c))
                c = ' ';
            if (isRow && c == '|')
                c = length == 0 || new ReadOnlySpan<char>(text, 0, length).IsWhiteSpace() ? ' ' : '\t';
            text[length] = c;
            if (columns is not null)
                columns[length] = i + 1;
            length++;
        }
        return new SourceLine(number, new string(text, 0, length).TrimEnd(), columns?[..length], softHyphen);
    }

    private static bool IsBoldMark(ReadOnlySpan<char> line, int i)
    {
        if (i + 1 >= line.Length || line[i + 1] != line[i])
            return false;
        var before = i > 0 ? line[i - 1] : ' ';
        var after = i + 2 < line.Length ? line[i + 2] : ' ';
        if (before == line[i] || after == line[i])
            return false;
        // "1** Leaves" is a lead's mark, not bold text.
        if (line[i] == '*' && char.IsDigit(before) && (after is ' ' or '.' or '\t' or ')'))
            return HasOpening(line[..i]);
        return true;
    }

    // Whether a bold mark is still open before this place: "**1** Leaves" closes one.
    private static bool HasOpening(ReadOnlySpan<char> before)
    {
        var marks = 0;
        for (var at = before.IndexOf("**"); at >= 0; at = before.IndexOf("**"))
        {
            marks++;
            before = before[(at + 2)..];
        }
        return marks % 2 == 1;
    }
}
