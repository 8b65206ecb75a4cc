using System.Text.RegularExpressions;

namespace Garten.Core.Keys;

/// <summary>
/// Couplets with a question, or a part, as their head and the answers below: "1. Leaf arrangement?" / "opposite ... 2" / "alternate ... 3".
/// Each answer
/// becomes a lead that says head and answer.
/// </summary>
internal static partial class QuestionCouplets
{
    private const int MostAnswers = 8;

    /// <summary>The lines with such couplets unfolded; the same lines where there are none.</summary>
    public static List<SourceLine> Unfold(List<SourceLine> lines)
    {
        if (!lines.Exists(l => Head().IsMatch(l.Text)))
            return lines;
        var unfolded = new List<SourceLine>(lines.Count);
        for (var i = 0; i < lines.Count; i++)
        {
            if (
                Head().Match(lines[i].Text) is { Success: true } head
                && LeadTail.Find(head.Groups["head"].Value, TailContext.Empty) is null
                && Answers(lines, i + 1) is { Count: >= 2 } answers
            )
            {
                foreach (var at in answers)
                    unfolded.Add(Lead(lines[at], head.Groups["label"].Value, head.Groups["head"].Value));
                i = answers[^1];
            }
            else
                unfolded.Add(lines[i]);
        }
        return unfolded;
    }

    // The lines right below that answer: each ends in a destination, and none has a couplet's number.
    private static List<int> Answers(List<SourceLine> lines, int from)
    {
        var answers = new List<int>();
        for (var i = from; i < lines.Count && answers.Count < MostAnswers; i++)
        {
            var text = lines[i].Text;
            if (text.Length == 0)
            {
                if (answers.Count > 0)
                    break;
                continue;
            }
            if (
                Numbered().IsMatch(text)
                || LeadTail.Find(Mark().Replace(text, ""), TailContext.Empty) is not { Strength: LeaderStrength.Set }
            )
                break;
            answers.Add(i);
        }
        return answers;
    }

    private static SourceLine Lead(SourceLine answer, string label, string head)
    {
        var mark = Mark().Match(answer.Text).Length;
        var said = answer.Text[mark..];
        // To a question with yes and no the answer stays an answer; else the head names the part that the answer speaks of.
        var isYesOrNo = YesOrNo().IsMatch(said);
        var front = $"{label}. {(isYesOrNo ? head : head.TrimEnd('?', ':', ' '))} ";
        if (!isYesOrNo && head.EndsWith('?'))
            front = $"{label}. {head.TrimEnd('?', ' ')}: ";
        var column = answer.ColumnAt(mark);
        return answer with
        {
            Text = front + said,
            Columns = [.. Enumerable.Repeat(column, front.Length), .. Enumerable.Range(mark, said.Length).Select(answer.ColumnAt)],
        };
    }

    [GeneratedRegex(@"^\s*\(?(?<label>\d{1,4})[.):]{0,2}\s+(?<head>\S.{1,300}[?:])\s*$", RegexOptions.CultureInvariant)]
    private static partial Regex Head();

    [GeneratedRegex(@"^\s*\(?\d{1,4}[a-h'’]?[.)]?\s", RegexOptions.CultureInvariant)]
    private static partial Regex Numbered();

    // "a.", "b)", "–", "•" before an answer.
    [GeneratedRegex(@"^\s*(?:\(?[a-h][.)]\s+|[-–—•*+→]\s+)?", RegexOptions.CultureInvariant)]
    private static partial Regex Mark();

    [GeneratedRegex(@"^(?:yes|no)\b", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex YesOrNo();
}
