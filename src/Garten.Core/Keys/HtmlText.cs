using System.Net;
using System.Text.RegularExpressions;

namespace Garten.Core.Keys;

/// <summary>The source of a web page that was pasted as it is: its tags and entities are taken out, rows and paragraphs are lines, cells
/// are tabs.</summary>
internal static partial class HtmlText
{
    private static readonly HashSet<string> Blocks = new(StringComparer.OrdinalIgnoreCase)
    {
        "p",
        "br",
        "tr",
        "li",
        "div",
        "table",
        "tbody",
        "thead",
        "ul",
        "ol",
        "dl",
        "dt",
        "dd",
        "hr",
        "h1",
        "h2",
        "h3",
        "h4",
        "h5",
        "h6",
        "section",
        "article",
        "blockquote",
        "html",
        "body",
        "head",
        "title",
        "pre",
    };

    /// <summary>Whether a text is one: tags that a key wouldn't have, "&lt; 3 cm" isn't any.</summary>
    public static bool IsOne(string text) => Tag().EnumerateMatches(text).MoveNext();

    /// <summary>The lines of one line, each with the column in it of every character, from 1.</summary>
    public static List<(string Text, int[] Columns)> Lines(string line)
    {
        var lines = new List<(string, int[])>();
        var text = new List<char>(line.Length);
        var columns = new List<int>(line.Length);
        void End()
        {
            lines.Add((new string([.. text]), [.. columns]));
            text.Clear();
            columns.Clear();
        }
        void Add(string what, int at)
        {
            foreach (var c in what)
            {
                text.Add(c);
                columns.Add(at + 1);
            }
        }
        for (var i = 0; i < line.Length; )
        {
            if (line[i] == '<' && Tag().Match(line, i) is { Success: true } tag && tag.Index == i)
            {
                var name = tag.Groups[1].Value;
                if (Blocks.Contains(name) && text.Count > 0)
                    End();
                else if (name is "td" or "th" or "TD" or "TH" && text.Count > 0)
                    Add("\t", i);
                i += tag.Length;
            }
            else if (line[i] == '&' && Entity().Match(line, i) is { Success: true } entity && entity.Index == i)
            {
                var decoded = WebUtility.HtmlDecode(entity.Value);
                // Controls written as entities are no text.
                Add(string.Concat(decoded.Where(c => !char.IsControl(c))), i);
                i += entity.Length;
            }
            else
            {
                Add(line[i].ToString(), i);
                i++;
            }
        }
        if (text.Count > 0 || lines.Count == 0)
            End();
        return lines;
    }

    [GeneratedRegex(
        @"</?(p|br|tr|td|th|li|div|table|tbody|thead|ul|ol|dl|dt|dd|hr|h[1-6]|section|article|blockquote|html|body|head|title|pre|i|b|em|strong|span|a|sup|sub|u|font|small|cite|abbr|code|mark|img|meta|link|colgroup|col)(?:\s[^<>]{0,500})?/?>",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Tag();

    [GeneratedRegex(@"&(?:#\d{1,6}|#x[0-9a-f]{1,5}|[a-z]{2,10}\d?);", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Entity();
}
