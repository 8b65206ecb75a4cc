using System.Text.RegularExpressions;

namespace Garten.Core.Keys;

/// <summary>Cuts what a lead says into its statements: at semicolons and full stops that stand outside parentheses and
/// abbreviations.</summary>
public static partial class StatementSplitter
{
    private static readonly HashSet<string> Abbreviations = new(StringComparer.OrdinalIgnoreCase)
    {
        "c",
        "ca",
        "cf",
        "eg",
        "e.g",
        "ie",
        "i.e",
        "viz",
        "vs",
        "etc",
        "al",
        "approx",
        "incl",
        "excl",
        "usu",
        "occas",
        "freq",
        "esp",
        "occ",
        "gen",
        "subsp",
        "ssp",
        "var",
        "subvar",
        "f",
        "fo",
        "sp",
        "spp",
        "agg",
        "aggr",
        "sect",
        "subg",
        "ser",
        "auct",
        "s.l",
        "s.str",
        "s.s",
        "s.lat",
        "fl",
        "fls",
        "fr",
        "frs",
        "lf",
        "lvs",
        "infl",
        "inflor",
        "pl",
        "pls",
        "st",
        "sts",
        "br",
        "diam",
        "dia",
        "alt",
        "ht",
        "max",
        "min",
        "fig",
        "figs",
        "p",
        "pp",
        "pl",
        "tab",
        "no",
        "nos",
        "vol",
        "ed",
        "mm",
        "cm",
        "dm",
        "ft",
        "in",
        "lat",
        "long",
        "str",
        "bot",
        "hort",
        "inc",
        "temp",
        "min",
        "av",
        "avg",
        "resp",
        "poss",
        "prob",
        "jan",
        "feb",
        "mar",
        "apr",
        "jun",
        "jul",
        "aug",
        "sep",
        "sept",
        "oct",
        "nov",
        "dec",
    };

    /// <summary>
    /// The statements in their order, each as typed but with single spaces and without the mark that ends it.
    /// Empty for blank text. A parenthesis that is never closed is taken as an ordinary character.
    /// </summary>
    public static IReadOnlyList<string> Split(string text)
    {
        var statements = new List<string>();
        var closers = MatchingClosers(text);
        var start = 0;
        for (var i = 0; i < text.Length; i++)
        {
            if (closers is not null && closers.TryGetValue(i, out var close))
            {
                i = close;
                continue;
            }
            if (text[i] == ';' || (text[i] == '.' && EndsStatement(text, i)))
            {
                Add(statements, text[start..i]);
                start = i + 1;
            }
        }
        Add(statements, text[start..]);
        return statements;
    }

    private static void Add(List<string> statements, string part)
    {
        var clean = string.Join(' ', part.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)).Trim();
        // "*margin*", "_margin_": marks of italics say nothing.
        clean = Italics().Replace(clean, m => m.Groups[1].Success ? m.Groups[1].Value : m.Groups[2].Value);
        clean = clean.TrimEnd(',', ':').TrimEnd();
        if (clean.Length > 0 && clean.Any(char.IsLetterOrDigit))
            statements.Add(clean);
    }

    [GeneratedRegex(
        @"(?<![\w*])\*(?=[^\s*])([^*]{1,200}?)(?<=[^\s*])\*(?![\w*])|(?<![\w_])_(?=[^\s_])([^_]{1,200}?)(?<=[^\s_])_(?![\w_])",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Italics();

    private static bool EndsStatement(string text, int stop)
    {
        var next = stop + 1;
        if (next < text.Length && !char.IsWhiteSpace(text[next]))
            return false;
        while (next < text.Length && char.IsWhiteSpace(text[next]))
            next++;
        if (next >= text.Length)
            return true;
        var from = stop;
        while (from > 0 && !char.IsWhiteSpace(text[from - 1]) && text[from - 1] is not ('(' or '[' or ',' or ';'))
            from--;
        var word = text[from..stop];
        var followedByCapital = char.IsUpper(text[next]);
        // "etc." and "cm." may end a statement: a capital letter behind them says so.
        if (Abbreviations.Contains(word))
            return followedByCapital && word is "etc" or "mm" or "cm" or "dm" or "ft" or "diam" or "long" or "lat" && followedByCapital;
        // An initial: "L." in "Vellorna L. species".
        if (word.Length == 1 && char.IsLetter(word[0]))
            return false;
        // "lvs.", "brn.": an abbreviation has no vowel, and the sentence goes on in small letters.
        if (
            !followedByCapital
            && word.Length > 0
            && word.All(char.IsLetter)
            && !word.Any(c => "aeiouyAEIOUY".Contains(c, StringComparison.Ordinal))
        )
            return false;
        return true;
    }

    // Index of each opening parenthesis that is closed, with the index of what closes it; null where there is none.
    private static Dictionary<int, int>? MatchingClosers(string text)
    {
        if (text.AsSpan().IndexOfAny('(', '[') < 0)
            return null;
        var pairs = new Dictionary<int, int>();
        var open = new Stack<int>();
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] is '(' or '[')
                open.Push(i);
            else if (text[i] is ')' or ']' && open.Count > 0 && text[open.Peek()] == (text[i] == ')' ? '(' : '['))
                pairs[open.Pop()] = i;
        }
        return pairs;
    }
}
