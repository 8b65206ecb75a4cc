using System.Text;

namespace Garten.Core.Keys;

/// <summary>A lead as it was found in the text: its mark and all its lines, with the way back to line and column.</summary>
internal sealed class RawLead(LeadMark mark, string? label, int line, int column, int indent)
{
    private readonly StringBuilder _text = new();
    private readonly List<(int Offset, SourceLine Line, int Index)> _segments = [];
    private string? _joined;
    private LeadTail? _ownTail;
    private bool _tailKnown;
    private SourceLine? _lastLine;

    public LeadMark Mark { get; } = mark;

    /// <summary>Label of its couplet; null where the lead carries none.</summary>
    public string? Label { get; set; } = label;

    public int Line { get; } = line;

    public int Column { get; } = column;

    public int Indent { get; } = indent;

    public int BackReferenceColumn { get; init; }

    public string Text => _joined ??= _text.ToString();

    /// <summary>The destination as far as the lead alone tells it; whether the lead is complete.</summary>
    public LeadTail? OwnTail
    {
        get
        {
            if (!_tailKnown)
                _ownTail = LeadTail.Find(Text, TailContext.Empty);
            _tailKnown = true;
            return _ownTail;
        }
    }

    /// <summary>Adds a line, or the rest of one behind the mark; mends a word that was broken at the end of the line before.</summary>
    public void Append(SourceLine line, int from, bool setOff = false)
    {
        _joined = null;
        _tailKnown = false;
        while (from < line.Text.Length && line.Text[from] is ' ' or '\t' && _text.Length == 0)
            from++;
        if (_text.Length > 0)
        {
            while (from < line.Text.Length && line.Text[from] is ' ' or '\t')
                from++;
            Join(from < line.Text.Length ? line.Text[from] : ' ', setOff);
        }
        _segments.Add((_text.Length, line, from));
        _text.Append(line.Text, from, line.Text.Length - from);
        _lastLine = line;
    }

    private void Join(char next, bool setOff)
    {
        if (setOff)
        {
            _text.Append('\t');
            return;
        }
        if (_lastLine!.EndsInSoftHyphen)
            return;
        var last = _text[^1];
        if (last is '-' && _text.Length > 1 && char.IsLetter(_text[^2]) && char.IsLower(next))
        {
            if (!IsShapeOrColour(LastWord()))
                _text.Length--;
            return;
        }
        // A range that is broken behind its dash ("3–" / "5 cm"), or "2-" / "lobed".
        if (last is '-' or '–' && _text.Length > 1 && char.IsDigit(_text[^2]) && (char.IsDigit(next) || char.IsLower(next)))
            return;
        _text.Append(' ');
    }

    private string LastWord()
    {
        var end = _text.Length - 1;
        var start = end;
        while (start > 0 && char.IsLetter(_text[start - 1]))
            start--;
        return _text.ToString(start, end - start).ToLowerInvariant();
    }

    // "ovate-" and "dark-" at the end of a line keep their hyphen ("ovate-lanceolate"); "lanceo-" loses it.
    private static bool IsShapeOrColour(string word) =>
        word.Length > 3
            && (
                word.EndsWith("ate", StringComparison.Ordinal)
                || word.EndsWith("ic", StringComparison.Ordinal)
                || word.EndsWith("ong", StringComparison.Ordinal)
                || word.EndsWith("oid", StringComparison.Ordinal)
                || word.EndsWith("ose", StringComparison.Ordinal)
                || word.EndsWith("ish", StringComparison.Ordinal)
            )
        || word
            is "linear"
                or "grey"
                or "gray"
                or "green"
                or "red"
                or "brown"
                or "white"
                or "yellow"
                or "blue"
                or "purple"
                or "black"
                or "pink"
                or "dark"
                or "light"
                or "pale"
                or "deep"
                or "half"
                or "semi"
                or "non"
                or "sub"
                or "long"
                or "short"
                or "broad"
                or "narrow"
                or "star"
                or "club"
                or "egg"
                or "heart"
                or "kidney"
                or "needle"
                or "two"
                or "three"
                or "four"
                or "five"
                or "many"
                or "few"
                or "one"
                or "well"
                or "wedge"
                or "round"
                or "sharp"
                or "blunt";

    /// <summary>Line and column in the text as typed of a place in <see cref="Text"/>.</summary>
    public (int Line, int Column) PositionAt(int offset)
    {
        for (var i = _segments.Count - 1; i >= 0; i--)
        {
            var (start, line, index) = _segments[i];
            if (offset >= start)
                return (line.Number, line.ColumnAt(index + offset - start));
        }
        return (Line, Column);
    }
}

/// <summary>A key as it was found in the text: title, notes and leads in their order.</summary>
internal sealed class RawKey(string title, int line, int column, List<string> notes)
{
    public string Title { get; } = title;

    public int Line { get; } = line;

    public int Column { get; } = column;

    public List<string> Notes { get; } = notes;

    public List<RawLead> Leads { get; } = [];

    /// <summary>Whether the leads carry no labels at all and only their indentation says what belongs together.</summary>
    public bool ByIndentation { get; init; }
}
