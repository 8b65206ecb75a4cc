using System.Globalization;

namespace Garten.Core.Keys;

/// <summary>How sure it is that a mark at the start of a line begins a lead.</summary>
internal enum MarkStrength
{
    /// <summary>A bare number: the line may just as well go on with "12 mm long".</summary>
    Bare,

    /// <summary>A number or letter with a mark of its own, or a dash.</summary>
    Marked,
}

/// <summary>The mark at the start of a lead: <c>1.</c> <c>1a.</c> <c>1'</c> <c>(1)</c> <c>3(1).</c> <c>–</c> <c>b)</c> and their
/// like.</summary>
/// <param name="Label">The couplet's number or letter; null where the mark has none (a dash, "b)").</param>
/// <param name="Letter">What tells the leads of a couplet apart: "a", "'", "*", "–"; empty where nothing does.</param>
/// <param name="BackReference">Label of the couplet that this one is said to come from; null where none is given.</param>
/// <param name="BackReferenceAt">Index of the back-reference in the line.</param>
/// <param name="Length">Index in the line of the first character behind the mark and the white space after it.</param>
/// <param name="Strength">How sure it is.</param>
/// <param name="IsLetterLabel">Whether the label is a letter, which may also be the mark of a second lead.</param>
internal sealed record LeadMark(
    string? Label,
    string Letter,
    string? BackReference,
    int BackReferenceAt,
    int Length,
    MarkStrength Strength,
    bool IsLetterLabel
)
{
    // More digits than any key has couplets: a year or a specimen number, not a label.
    private const int MostLabelDigits = 5;

    /// <summary>Reads the mark at the start of a line; null where there is none.</summary>
    public static LeadMark? Read(string line)
    {
        var at = SkipBlank(line, 0);
        if (at >= line.Length)
            return null;
        // A Markdown list or quotation: "- 1a. Leaves", "> 1. Leaves".
        if (line[at] is '-' or '*' or '>' or '•' && at + 1 < line.Length && line[at + 1] == ' ')
        {
            var behind = SkipBlank(line, at + 1);
            if (Labelled(line, behind) is { Strength: MarkStrength.Marked, IsLetterLabel: false } listed)
                return listed;
        }
        return Labelled(line, at) ?? Unlabelled(line, at);
    }

    private static LeadMark? Labelled(string line, int start)
    {
        var at = start;
        var strength = MarkStrength.Bare;
        char close = '\0';
        // "+1." and "–1." mark the second lead and still name the couplet.
        var sign = "";
        if (line[at] is '+' or '–' or '—' or '-' or '*' && at + 1 < line.Length && char.IsAsciiDigit(line[at + 1]))
        {
            sign = line[at].ToString();
            at++;
        }
        // "Couplet 4" above its leads.
        var isCouplet =
            line.AsSpan(at).StartsWith("couplet ", StringComparison.OrdinalIgnoreCase)
            || line.AsSpan(at).StartsWith("step ", StringComparison.OrdinalIgnoreCase);
        if (isCouplet)
            at = SkipBlank(line, line.IndexOf(' ', at));
        if (at >= line.Length)
            return null;
        if (line[at] is '(' or '[' or '<')
        {
            close = line[at] switch
            {
                '(' => ')',
                '[' => ']',
                _ => '>',
            };
            at++;
        }
        else if (line[at] is '#' or '§' or '№' && at + 1 < line.Length && char.IsAsciiDigit(line[at + 1]))
            at++;
        if (at >= line.Length)
            return null;

        string label;
        var letter = "";
        var isLetter = false;
        if (char.IsAsciiDigit(line[at]))
        {
            var digits = at;
            while (at < line.Length && char.IsAsciiDigit(line[at]))
                at++;
            if (at - digits > MostLabelDigits)
                return null;
            label = line[digits..at].TrimStart('0');
            if (label.Length == 0)
                return null;
            if (isCouplet)
                strength = MarkStrength.Marked;
            // "1a", "1 a." — a letter straight behind the number, or one that carries punctuation of its own.
            if (at < line.Length && line[at] is (>= 'a' and <= 'h') or (>= 'A' and <= 'H') && !IsWordAt(line, at + 1))
            {
                letter = line[at].ToString();
                at++;
                strength = MarkStrength.Marked;
            }
            // "1.1 Leaves", "1.2 Leaves": the second number counts the leads.
            else if (at + 2 < line.Length && line[at] == '.' && line[at + 1] is >= '1' and <= '9' && line[at + 2] is ' ' or '\t')
            {
                letter = line[at..(at + 2)];
                at += 2;
                strength = MarkStrength.Marked;
            }
        }
        else if (char.IsAsciiLetter(line[at]) && !isCouplet)
        {
            var letters = at;
            while (at < line.Length && line[at] == line[letters])
                at++;
            if (IsWordAt(line, at) || at - letters > 3)
                return null;
            label = line[letters..(letters + 1)];
            letter = at - letters > 1 ? line[letters..at] : "";
            isLetter = true;
        }
        else
            return null;

        letter += ReadPrimes(line, ref at);
        if (letter.Length > 0 && !isLetter)
            strength = MarkStrength.Marked;
        if (close != '\0')
        {
            if (at >= line.Length || line[at] != close)
                return null;
            at++;
            letter += ReadPrimes(line, ref at);
            strength = MarkStrength.Marked;
        }

        string? back = null;
        var backAt = 0;
        var punctuated = ReadPunctuation(line, ref at);
        if (close == '\0' || !punctuated)
            TryBackReference(line, ref at, ref back, ref backAt);
        if (back is not null)
            punctuated |= ReadPunctuation(line, ref at);
        if (!punctuated && letter.Length == 0 && at < line.Length)
        {
            letter = ReadPrimes(line, ref at);
            punctuated |= letter.Length > 0 && ReadPunctuation(line, ref at);
        }
        if (letter.Length > 0 && !isLetter)
            strength = MarkStrength.Marked;
        if (punctuated)
            strength = MarkStrength.Marked;
        // "b Leaves alternate": a letter alone begins a lead only behind one that began with "a"; whoever reads the lines knows.
        if (isLetter && !punctuated && close == '\0' && !(letter.Length == 0 && OpensStatement(line, at)))
            return null;

        var glued = at;
        at = SkipBlank(line, at);
        // A letter or sign behind the number: "1. a)", "1 –", "1 +".
        if (letter.Length == 0 && at < line.Length)
        {
            var sub = at;
            if (line[at] is '–' or '—' or '-' or '−' or '+' or '*' or '•')
            {
                letter = line[at].ToString();
                at++;
                if (at < line.Length && char.IsAsciiDigit(line[at]))
                    return null;
                at = SkipBlank(line, at);
                if (strength == MarkStrength.Bare && at < line.Length && char.IsAsciiDigit(line[at]))
                    return null;
                strength = MarkStrength.Marked;
            }
            else if (line[at] is (>= 'a' and <= 'h') or (>= 'A' and <= 'H') && !IsWordAt(line, at + 1))
            {
                at++;
                if (OpensStatement(line, at) || (ReadPunctuation(line, ref at) && (at >= line.Length || line[at] is ' ' or '\t')))
                {
                    letter = line[sub].ToString();
                    strength = MarkStrength.Marked;
                    at = SkipBlank(line, at);
                }
                else
                    at = sub;
            }
            else if (line[at] == '(' && sub + 2 < line.Length && line[sub + 2] == ')' && line[sub + 1] is >= 'a' and <= 'h')
            {
                letter = line[sub + 1].ToString();
                strength = MarkStrength.Marked;
                at = SkipBlank(line, sub + 3);
            }
            if (back is null)
                TryBackReference(line, ref at, ref back, ref backAt);
        }
        if (at >= line.Length)
            return new LeadMark(label, sign + letter, back, backAt, at, strength, isLetter);
        // "1.5 mm", "1,5", "2–3 cm" and "2n = 24" go on with a sentence.
        if (glued == at && strength == MarkStrength.Bare)
            return null;
        if (glued == at && (char.IsAsciiDigit(line[at]) || line[at] is '=' or ',' or '–' or '-' or '×' or '/' or '%'))
            return null;
        if (strength == MarkStrength.Bare && !(char.IsLetter(line[at]) || line[at] is '"' or '“' or '‘' or '(' or '*' or '_' or '±'))
            return null;
        return new LeadMark(label, sign + letter, back, backAt, at, strength, isLetter);
    }

    // A mark without a number: "–", "+", "*", "b)".
    private static LeadMark? Unlabelled(string line, int start)
    {
        var at = start;
        if (line[at] is '–' or '—' or '−' or '-' or '+' or '*' or '•' or '\'' or '’' or '′' or '"' or '″')
        {
            while (at < line.Length && (line[at] == line[start] || line[at] is '.' or ')'))
                at++;
            var mark = line[start..at];
            // A whole line of dashes is a rule; "*Vellorna*" is a name in italics.
            if (at >= line.Length || mark.Length > 4)
                return null;
            if (line[at] is not (' ' or '\t') && !(line[start] is '–' or '—' or '−' && char.IsLetter(line[at])))
                return null;
            at = SkipBlank(line, at);
            return at >= line.Length ? null : new LeadMark(null, mark.TrimEnd('.', ')'), null, 0, at, MarkStrength.Marked, false);
        }
        return null;
    }

    // White space and then a capital letter, or a tab: what stands before it is a mark and not the first word.
    private static bool OpensStatement(string line, int at)
    {
        if (at >= line.Length || line[at] is not (' ' or '\t'))
            return false;
        var next = SkipBlank(line, at);
        return next < line.Length && (line[at] == '\t' || next > at + 1 || char.IsUpper(line[next]));
    }

    private static string ReadPrimes(string line, ref int at)
    {
        var from = at;
        while (
            at < line.Length
            && line[at] is '\'' or '’' or '‘' or '′' or '″' or '"' or '´' or '`' or '*' or '†' or '‡' or '¹' or '²' or '³' or '°'
        )
            at++;
        return line[from..at];
    }

    private static bool ReadPunctuation(string line, ref int at)
    {
        var from = at;
        while (at < line.Length && line[at] is '.' or ')' or ':' or ']' or '/')
        {
            // A row of full stops is a leader, not punctuation.
            if (line[at] == '.' && at > from && line[at - 1] == '.')
                break;
            at++;
        }
        return at > from;
    }

    // "3(1).", "3 (1).", "3. (1a)", "3 [1]", "3 (from 1)"
    private static void TryBackReference(string line, ref int at, ref string? back, ref int backAt)
    {
        var open = SkipBlank(line, at);
        if (open + 2 >= line.Length || line[open] is not ('(' or '['))
            return;
        var close = line.IndexOf(line[open] == '(' ? ')' : ']', open);
        if (close < 0 || close - open > 24)
            return;
        var inside = line[(open + 1)..close].Trim().ToLowerInvariant();
        foreach (var word in BackWords)
        {
            if (inside.StartsWith(word, StringComparison.Ordinal))
                inside = inside[word.Length..].Trim();
        }
        var end = 0;
        while (end < inside.Length && char.IsAsciiDigit(inside[end]))
            end++;
        if (end is 0 or > MostLabelDigits)
            return;
        // A letter or prime of the lead may follow, or further couplets it can be reached from.
        if (
            inside[end..]
                .Any(c => !(c is >= 'a' and <= 'h' or '\'' or '’' or '′' or '*' or '–' or '-' or ',' or ' ' or '.' || char.IsAsciiDigit(c)))
        )
            return;
        back = int.Parse(inside[..end], CultureInfo.InvariantCulture).ToString(CultureInfo.InvariantCulture);
        backAt = open;
        if (inside[end..].Contains(',', StringComparison.Ordinal))
            back = inside;
        at = close + 1;
    }

    private static readonly string[] BackWords = ["from", "couplet", "←", "<"];

    private static bool IsWordAt(string line, int at) => at < line.Length && (char.IsLetterOrDigit(line[at]) || line[at] == '-');

    private static int SkipBlank(string line, int at)
    {
        while (at < line.Length && line[at] is ' ' or '\t')
            at++;
        return at;
    }
}
