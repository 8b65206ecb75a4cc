using System.Globalization;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>
/// Cuts the lines of a text into keys and their leads: which line begins a lead, goes on with one, is a title, or belongs to nothing.
/// </summary>
internal sealed class LeadScanner
{
    // No lead of a printed key comes near this; what follows can't be one lead.
    private const int LongestLead = 20_000;

    // A longer line is prose, not a title.
    private const int LongestTitle = 160;

    private readonly List<SourceLine> _lines;
    private readonly LeadMark?[] _marks;
    private readonly bool _numeric;
    private readonly int[] _nextMarked;
    private readonly List<RawKey> _keys = [];
    private readonly List<KeyProblem> _problems = [];
    private readonly List<SourceLine> _header = [];

    private RawKey? _key;
    private RawLead? _lead;
    private string? _pendingLabel;
    private string? _currentLabel;
    private int _largest;
    private bool _strayReported;
    private readonly Dictionary<string, int> _leadsPerLabel = new(StringComparer.Ordinal);

    private LeadScanner(List<SourceLine> lines)
    {
        _lines = lines;
        _marks = [.. lines.Select(l => l.IsBlank ? null : LeadMark.Read(l.Text))];
        _numeric =
            _marks.Count(m => m is { IsLetterLabel: false, Label: not null } && (m.Strength == MarkStrength.Marked || m.Length > 0)) >= 2;
        _nextMarked = new int[lines.Count + 1];
        _nextMarked[lines.Count] = lines.Count;
        for (var i = lines.Count - 1; i >= 0; i--)
            _nextMarked[i] = IsLikelyMark(i) ? i : _nextMarked[i + 1];
    }

    public static (List<RawKey> Keys, List<KeyProblem> Problems) Scan(List<SourceLine> lines)
    {
        if (OutlineScanner.Scan(lines) is { } outline)
            return ([outline], []);
        var scanner = new LeadScanner(lines);
        if (scanner._nextMarked[0] == lines.Count || !scanner.HasLabels())
        {
            return (IndentationScanner.Scan(lines) is { } key ? [key] : [], []);
        }
        for (var i = 0; i < lines.Count; i++)
            scanner.Take(i);
        scanner.Stray(scanner._header);
        return (scanner._keys, scanner._problems);
    }

    private bool HasLabels() =>
        Enumerable
            .Range(0, _lines.Count)
            .Any(i => IsLikelyMark(i) && _marks[i]!.Label is not null && (!_marks[i]!.IsLetterLabel || !_numeric));

    // Without knowing the leads before: whether a line probably begins a lead. Good enough to look ahead with.
    private bool IsLikelyMark(int i)
    {
        if (_marks[i] is not { } mark)
            return false;
        if (mark.IsLetterLabel)
            return mark.Strength == MarkStrength.Marked;
        if (mark.Strength == MarkStrength.Marked)
            return true;
        return mark.Length < _lines[i].Text.Length && !KeyTextPatterns.QuantityNoun().IsMatch(_lines[i].Text[mark.Length..]);
    }

    private void Take(int i)
    {
        var line = _lines[i];
        if (line.IsBlank)
            return;
        var mark = Accepted(i);
        if (mark is null)
        {
            if (!IsBetweenLeads(i))
                TakeUnmarked(i);
            return;
        }
        var label = mark.IsLetterLabel && _numeric ? null : mark.Label;
        // A number on a line of its own, its leads below it.
        if (mark.Length >= line.Text.Length)
        {
            if (label is not null)
                _pendingLabel = label;
            if (label is not null && StartsKey(label))
                StartKey();
            return;
        }
        if (label is null && _pendingLabel is not null)
        {
            label = _pendingLabel;
            _pendingLabel = null;
        }
        else if (label is not null)
            _pendingLabel = null;

        if (label is not null && StartsKey(label))
            StartKey();
        else
            Stray(_header);
        _header.Clear();
        _strayReported = false;
        _key ??= StartKey();

        _lead = new RawLead(mark, label, line.Number, line.ColumnAt(line.Indent), line.IndentWidth)
        {
            BackReferenceColumn = line.ColumnAt(mark.BackReferenceAt),
        };
        _lead.Append(line, mark.Length);
        _key.Leads.Add(_lead);
        if (label is not null)
            _currentLabel = label;
        if (_currentLabel is not null)
            _leadsPerLabel[_currentLabel] = _leadsPerLabel.GetValueOrDefault(_currentLabel) + 1;
        if (int.TryParse(label, NumberStyles.None, CultureInfo.InvariantCulture, out var number))
            _largest = Math.Max(_largest, number);
    }

    // A word or a rule on a line of its own between two leads: "or", "vs.", "-----".
    private bool IsBetweenLeads(int i) =>
        _lead is not null
        && _header.Count == 0
        && KeyTextPatterns.BetweenLeads().IsMatch(_lines[i].Text)
        && _nextMarked[i + 1] < _lines.Count
        && LeadIsComplete();

    // Whether the lead with this label is the first of a new key: a title stands before it, or the numbers start again behind a line of
    // text.
    private bool StartsKey(string label)
    {
        if (_key is null)
            return true;
        if (_key.Leads.Count == 0 || _header.Count == 0)
            return false;
        var restarts = label == _key.Leads[0].Label && (_leadsPerLabel.GetValueOrDefault(label) >= 2 || label != _currentLabel);
        return restarts && (_leadsPerLabel.GetValueOrDefault(label) >= 2 || _header.Exists(IsTitle))
            || _header.Exists(l => IsTitle(l) && NamesKey(l));
    }

    private RawKey StartKey()
    {
        var (title, notes) = Header();
        _key = new RawKey(title?.Text.Trim() ?? "", title?.Number ?? FirstLine(), title is null ? 1 : title.ColumnAt(title.Indent), notes);
        _keys.Add(_key);
        _header.Clear();
        _leadsPerLabel.Clear();
        _currentLabel = null;
        _largest = 0;
        _lead = null;
        return _key;
    }

    private int FirstLine() => _lines.Find(l => !l.IsBlank)?.Number ?? 1;

    // Title and notes out of the lines before the first lead: the line that speaks of a key, else a Markdown heading, else the first short
    // one.
    private (SourceLine? Title, List<string> Notes) Header()
    {
        if (_header.Count == 0)
            return (null, []);
        var short_ = _header.Where(l => l.Text.Trim().Length <= LongestTitle).ToList();
        var title = short_.Find(l => IsTitle(l) && NamesKey(l)) ?? short_.Find(IsTitle) ?? short_.FirstOrDefault();
        if (title is null)
            return (null, [.. _header.Select(l => l.Text.Trim())]);
        var at = _header.IndexOf(title);
        var clean = TaxonName.WithoutItalicsMarks(title.Text.Trim().TrimStart('#', ' '));
        var used = 1;
        // A title that runs on: "Key to the trees and shrubs of" / "Torvane".
        while (
            at + used < _header.Count && _header[at + used].Number == title.Number + used && RunsOn(clean, _header[at + used].Text.Trim())
        )
        {
            clean += " " + _header[at + used].Text.Trim();
            used++;
        }
        if (clean.EndsWith('.') || clean.EndsWith(':'))
            clean = clean[..^1].TrimEnd();
        var notes = _header.Where((_, i) => i < at || i >= at + used).Select(l => l.Text.Trim()).ToList();
        return (title with { Text = clean, Columns = [title.ColumnAt(title.Indent)] }, notes);
    }

    private static bool RunsOn(string title, string next) =>
        title.Length + next.Length < LongestTitle
        && next.Length > 0
        && !next.StartsWith("by ", StringComparison.Ordinal)
        && (char.IsLower(next[0]) || title.Split(' ')[^1] is "of" or "the" or "to" or "and" or "in" or "for" or "with" or "&" or "or");

    private static bool IsTitle(SourceLine line) =>
        line.Text.Trim().Length <= LongestTitle && KeyTextPatterns.TitleLine().IsMatch(line.Text.Trim().TrimStart('*', '_'));

    private static bool NamesKey(SourceLine line) =>
        line.Text.Contains("key", StringComparison.OrdinalIgnoreCase)
        || line.Text.TrimStart().StartsWith('#')
        || line.Text.TrimStart().StartsWith("group", StringComparison.OrdinalIgnoreCase);

    private LeadMark? Accepted(int i)
    {
        var line = _lines[i];
        if (_marks[i] is not { } mark)
            return null;
        var rest = mark.Length < line.Text.Length ? line.Text[mark.Length..] : "";
        if (mark.Label is null)
            return _lead is null && _pendingLabel is null || OpensSecondLead(rest)
                ? (_lead is null && _pendingLabel is null ? null : mark)
                : null;
        if (mark.IsLetterLabel)
        {
            // "A. Key to the conifers" above a key is its title.
            if (_numeric && (IsTitle(line) || IsLetteredTitle(i, rest)))
                return null;
            if (!_numeric && mark.Strength == MarkStrength.Bare)
                return null;
            if (_numeric)
                return (_lead is not null || _pendingLabel is not null) && mark.Letter.Length == 0 && FollowsLetter(mark.Label[0])
                    ? mark with
                    {
                        Letter = mark.Label,
                    }
                    : null;
            var known = mark.Label == _currentLabel || _leadsPerLabel.ContainsKey(mark.Label) || _key is null;
            return known || _currentLabel is { Length: 1 } && mark.Label[0] <= _leadsPerLabel.Keys.Max(k => k[0]) + 1 || LeadIsComplete()
                ? mark
                : null;
        }
        // "1. Key to the conifers" above a restart is a title as well.
        if (
            rest.Length > 0
            && IsTitle(line)
            && LeadIsComplete()
            && NextLabel(i + 1) is { } next
            && next != mark.Label
            && next == _key?.Leads[0].Label
        )
            return null;
        if (rest.Length == 0)
        {
            // A number alone: the couplet's number above its leads, else a destination or a page number.
            var below = _nextMarked[i + 1] < _lines.Count ? _marks[_nextMarked[i + 1]] : null;
            var first =
                below is { Label: null } or { IsLetterLabel: true }
                && (below.Label ?? below.Letter) is "a" or "A" or "–" or "-" or "—" or "+" or "•" or "*";
            return first && (_lead is null || LeadIsComplete()) ? mark
                : mark.Strength == MarkStrength.Marked && LeadIsComplete() && _lead is not null && NextIsText(i) ? mark
                : null;
        }
        if (
            KeyTextPatterns.QuantityNoun().IsMatch(rest)
            && (
                mark.Strength == MarkStrength.Bare
                || mark.BackReference is not null
                || mark.Letter.Length > 0 && mark.Letter[0] is '.' or '\'' or '"' or '’' or '′' or '″'
            )
        )
        {
            return null;
        }
        if (mark.Strength == MarkStrength.Marked)
            return mark;
        var number = int.Parse(mark.Label, CultureInfo.InvariantCulture);
        var expected =
            _key is null
            || mark.Label == _currentLabel
            || number == _largest + 1
            || _leadsPerLabel.ContainsKey(mark.Label)
            || _header.Count > 0;
        if (expected)
            return
                char.IsLower(rest[0])
                && !(LeadIsComplete() || _lead is null || number == _largest + 1 || _leadsPerLabel.GetValueOrDefault(mark.Label) == 1)
                ? null
                : mark;
        return !char.IsLower(rest[0]) && LeadIsComplete() ? mark : null;
    }

    // "B. Vellorna" behind a blank line, where the couplet before is complete and the numbers begin anew: the next key's title.
    private bool IsLetteredTitle(int i, string rest) =>
        i > 0
        && _lines[i - 1].IsBlank
        && LeadIsComplete()
        && _leadsPerLabel.GetValueOrDefault(_currentLabel ?? "") >= 2
        && rest.Length <= LongestTitle
        && NextLabel(i + 1) is { } next
        && next == _key?.Leads[0].Label
        && LeadTail.Find(rest, TailContext.Empty) is null;

    private bool NextIsText(int i) => i + 1 < _lines.Count && !_lines[i + 1].IsBlank && !IsLikelyMark(i + 1);

    private bool FollowsLetter(char letter)
    {
        var index = char.ToLowerInvariant(letter) - 'a';
        if (index is < 0 or > 7)
            return false;
        if (_pendingLabel is not null)
            return true;
        var count = _currentLabel is null ? 0 : _leadsPerLabel.GetValueOrDefault(_currentLabel);
        return index >= 1 && index <= count;
    }

    // "– and stiff" goes on with a sentence that lacks its destination; "– Leaves alternate" is a lead.
    private bool OpensSecondLead(string rest)
    {
        if (rest.Length == 0)
            return false;
        if (char.IsUpper(rest[0]) || LeadIsComplete())
            return true;
        return false;
    }

    private bool LeadIsComplete() => _lead is not null && _lead.OwnTail is not null;

    private string? NextLabel(int from)
    {
        var at = _nextMarked[Math.Min(from, _lines.Count)];
        return at < _lines.Count && !(_marks[at]!.IsLetterLabel && _numeric) ? _marks[at]!.Label : null;
    }

    private void TakeUnmarked(int i)
    {
        var line = _lines[i];
        if (_lead is null || _header.Count > 0)
        {
            _header.Add(line);
            return;
        }
        if (_lead.Text.Length > LongestLead)
        {
            Stray([line]);
            return;
        }
        if (_marks[i] is { IsLetterLabel: true } lettered && IsLetteredTitle(i, line.Text[Math.Min(lettered.Length, line.Text.Length)..]))
        {
            _header.Add(line);
            return;
        }
        var tail = _lead.OwnTail;
        var text = line.Text.Trim();
        var next = _nextMarked[i + 1] < _lines.Count ? _marks[_nextMarked[i + 1]] : null;
        var nextLabel = next is null || next.IsLetterLabel && _numeric ? null : next.Label;
        var nextIsSibling = next is not null && (nextLabel is null || nextLabel == _currentLabel);
        var nextRestarts =
            nextLabel is not null
            && nextLabel != _currentLabel
            && nextLabel == _key!.Leads[0].Label
            && _leadsPerLabel.GetValueOrDefault(nextLabel) >= 2;
        var afterBlank = i > 0 && _lines[i - 1].IsBlank;
        var coupletIsComplete = _currentLabel is not null && _leadsPerLabel.GetValueOrDefault(_currentLabel) >= 2;
        if (
            IsTitle(line)
            && (!nextIsSibling || coupletIsComplete && nextLabel == _key!.Leads[0].Label)
            && next is not null
            && (tail is not null || afterBlank && (nextRestarts || nextLabel == _key!.Leads[0].Label))
            && !StartsSecondLead(i)
        )
        {
            _header.Add(line);
            return;
        }
        if (tail is null)
        {
            if (afterBlank && nextRestarts && text.Length <= LongestTitle && LeadTail.Find(text, TailContext.Empty) is null)
                _header.Add(line);
            else
                _lead.Append(line, line.Indent, IsDestinationAlone(text));
            return;
        }
        if (!nextIsSibling && StartsSecondLead(i))
        {
            _lead = new RawLead(
                new LeadMark(null, "", null, 0, 0, MarkStrength.Marked, false),
                null,
                line.Number,
                line.ColumnAt(line.Indent),
                line.IndentWidth
            );
            _lead.Append(line, line.Indent);
            _key!.Leads.Add(_lead);
            _leadsPerLabel[_currentLabel!] = _leadsPerLabel.GetValueOrDefault(_currentLabel!) + 1;
            return;
        }
        if (nextRestarts && (afterBlank || tail.Strength == LeaderStrength.Set))
            _header.Add(line);
        else if (GoesOn(tail, text, afterBlank))
            _lead.Append(line, line.Indent);
        else
            Stray([line]);
    }

    // Whether an unmarked line begins the second lead of a couplet: its mark was left out, and a destination stands at its end or below.
    private bool StartsSecondLead(int i)
    {
        if (_currentLabel is null || _leadsPerLabel.GetValueOrDefault(_currentLabel) != 1)
            return false;
        var first = _lines[i].Text.TrimStart();
        if (first.Length == 0)
            return false;
        // In small letters ("or leaves alternate ... 3") only where both destinations are set off beyond doubt.
        if (!char.IsUpper(first[0]) && !char.IsDigit(first[0]))
            return _lead!.OwnTail is { Strength: LeaderStrength.Set }
                && LeadTail.Find(first, TailContext.Empty) is { Strength: LeaderStrength.Set } own
                && own.Statements.Trim().Length > 0;
        var text = "";
        const int mostLines = 12;
        for (var at = i; at < Math.Min(_lines.Count, i + mostLines) && at < _nextMarked[i] && !_lines[at].IsBlank; at++)
        {
            text = text.Length == 0 ? _lines[at].Text.Trim() : text + " " + _lines[at].Text.Trim();
            if (LeadTail.Find(text, TailContext.Empty) is { } tail && tail.Statements.Trim().Length > 0)
                return true;
        }
        return false;
    }

    // Whether a line goes on with a lead that already has a destination: a long authorship, a page, or a sentence that only looked ended.
    private bool GoesOn(LeadTail tail, string text, bool afterBlank)
    {
        if (afterBlank)
            return false;
        var joined = LeadTail.Find(_lead!.Text + " " + text, TailContext.Empty);
        // What leaves the name unsure is no part of it.
        if (joined is null || joined.Unsure is not null && tail.Unsure is null)
            return false;
        if (tail.Destination.Kind == DestinationKind.Taxon && joined.Destination.Kind == DestinationKind.Taxon && joined.At == tail.At)
            return joined.Destination.Taxon!.IsScientific || char.IsLower(text[0]) || text[0] == '(';
        if (joined.At == tail.At && joined.Destination.Target == tail.Destination.Target)
            return true;
        return tail.Strength == LeaderStrength.Space
            || joined.Strength == LeaderStrength.Set && joined.At > tail.At && joined.Statements.Trim().Length > tail.At;
    }

    private static bool IsDestinationAlone(string text) =>
        KeyTextPatterns.CoupletNumber().IsMatch(text)
        || LeadTail.Read(text, TailContext.Empty, anyName: false, out _) is { } read && read.Taxon is not { HasEpithet: false };

    private void Stray(List<SourceLine> lines)
    {
        if (lines.Count == 0 || _strayReported)
            return;
        _strayReported = true;
        var line = lines[0];
        var text = line.Text.Trim();
        var shown = text.Length > 60 ? text[..57] + "…" : text;
        _problems.Add(
            new KeyProblem(
                ProblemSeverity.Warning,
                "text.stray",
                line.Number,
                line.ColumnAt(line.Indent),
                $"“{shown}” belongs to no lead and is no title. Remove it, join it to its lead, or put a title line such as “Key B” before a new key; it is left out of the key."
            )
        );
    }
}
