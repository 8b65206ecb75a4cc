using System.Globalization;
using Garten.Core.Quantities;

namespace Garten.Core.Language;

/// <summary>What a token is.</summary>
internal enum TokenKind
{
    /// <summary>A word, or a piece of one between hyphens.</summary>
    Word,

    /// <summary>A comma or what cuts like one.</summary>
    Comma,

    /// <summary>A sign that nothing is read through.</summary>
    Sign,
}

/// <summary>A word or sign of a statement.</summary>
/// <param name="Text">In small letters and one spelling.</param>
/// <param name="Kind">What it is.</param>
/// <param name="At">Index of its first character in the statement.</param>
/// <param name="Length">How many characters.</param>
internal readonly record struct Token(string Text, TokenKind Kind, int At, int Length)
{
    /// <summary>Index behind it.</summary>
    public int End => At + Length;
}

/// <summary>
/// A statement as words and signs. Hyphens part words as spaces do, so that "side-veins" and "side veins" are read alike; what stands in
/// brackets and is no number is left out and marked.
/// </summary>
internal sealed class Tokens
{
    private readonly NotationReading?[] _numbers;

    // "less than 5 mm", "up to 3 m": words that can begin a number.
    private static readonly HashSet<string> Openers = new(StringComparer.Ordinal)
    {
        "c",
        "ca",
        "circa",
        "about",
        "approx",
        "approximately",
        "around",
        "up",
        "to",
        "at",
        "not",
        "no",
        "less",
        "fewer",
        "under",
        "below",
        "max",
        "maximum",
        "more",
        "over",
        "above",
        "exceeding",
        "min",
        "minimum",
        "many",
        "numerous",
        "twice",
        "thrice",
        "half",
        "nearly",
        "rarely",
        "seldom",
        "scarcely",
        "taller",
        "longer",
        "shorter",
        "wider",
        "greater",
        "broader",
    };

    // A heading is a noun, with a word or two before it.
    private const int LongestHeading = 3;

    public Tokens(string text)
    {
        Text = text;
        List<Token> list = [];
        for (var at = 0; at < text.Length; )
        {
            var c = text[at];
            if (char.IsWhiteSpace(c) || c is '"' or '“' or '”' or '‘' or '.' or ':' || IsHyphen(c))
            {
                // "Leaves: petiole hairy" has a heading; any other colon parts clauses as a comma does.
                if (c == ':' && Heading == 0 && list.Count is > 0 and <= LongestHeading)
                    Heading = list.Count;
                else if (c == ':' && list is [.., { Kind: TokenKind.Word }])
                    list.Add(new(",", TokenKind.Comma, at, 1));
                at++;
                continue;
            }
            if (c is '(' or '[' && !IsNumber(text, at))
            {
                var close = text.IndexOf(c == '(' ? ')' : ']', at);
                if (close < 0)
                    close = text.Length - 1;
                Asides.Add((at, close + 1 - at));
                at = close + 1;
                continue;
            }
            if (c is '±' or '&')
            {
                list.Add(new(c == '&' ? "and" : "±", TokenKind.Word, at, 1));
                at++;
                continue;
            }
            if (!char.IsLetterOrDigit(c) && !IsFraction(c))
            {
                list.Add(new(c.ToString(), c is ',' or ';' ? TokenKind.Comma : TokenKind.Sign, at, 1));
                at++;
                continue;
            }
            var from = at;
            while (at < text.Length && (char.IsLetterOrDigit(text[at]) || IsFraction(text[at]) || IsInside(text, at)))
                at++;
            list.Add(new(Spelled(text[from..at]), TokenKind.Word, from, at - from));
        }
        List = list;
        Entries = new LexiconEntry[]?[list.Count];
        _numbers = new NotationReading?[list.Count];
    }

    /// <summary>What the lexicon has for each token, as far as it was asked for.</summary>
    public LexiconEntry[]?[] Entries { get; }

    /// <summary>The statement as typed.</summary>
    public string Text { get; }

    /// <summary>Its tokens in their order.</summary>
    public IReadOnlyList<Token> List { get; }

    /// <summary>How many tokens stand before the first colon: "Leaves: petiole hairy"; 0 where there is none.</summary>
    public int Heading { get; }

    /// <summary>What stands in brackets and was left out.</summary>
    public List<(int At, int Length)> Asides { get; } = [];

    /// <summary>The number that begins at a token; without ranges where none does.</summary>
    public NotationReading Number(int i)
    {
        if (_numbers[i] is { } known)
            return known;
        var token = List[i];
        var none = new NotationReading([], token.At);
        var reading = none;
        var opens =
            token.Kind == TokenKind.Word && (IsNumber(Text, token.At) || Openers.Contains(token.Text) || NumberText.IsWord(token.Text));
        if (opens || token.Text is "(" or "[" or "<" or ">" or "≥" or "≤" or "~" or "≈")
            reading = RangeNotation.ReadAt(Text, token.At);
        // "4-merous" counts parts of every kind at once.
        if (reading.Ranges.Count > 0 && (reading.End <= token.At || IsMerous(reading.End)))
            reading = none;
        return _numbers[i] = reading;
    }

    private bool IsMerous(int end)
    {
        const string merous = "merous";
        var from = end - merous.Length;
        return from > 0
            && !char.IsLetter(Text[from - 1])
            && Text.AsSpan(from, merous.Length).Equals(merous, StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>Index of the first token at or behind a place of the text.</summary>
    public int IndexAt(int place)
    {
        for (var i = 0; i < List.Count; i++)
        {
            if (List[i].At >= place)
                return i;
        }
        return List.Count;
    }

    private static bool IsHyphen(char c) => c is '-' or '‑' or '–' or '—' or '−' or '‐';

    private static bool IsFraction(char c) => CharUnicodeInfo.GetUnicodeCategory(c) == UnicodeCategory.OtherNumber;

    private static bool IsNumber(string text, int at)
    {
        while (at < text.Length && (text[at] is '(' or '[' or ' ' || IsHyphen(text[at])))
            at++;
        if (at < text.Length && (text[at] is 'c' or 'C') && at + 2 < text.Length && text[at + 1] == '.')
            return true;
        return at < text.Length && (char.IsAsciiDigit(text[at]) || IsFraction(text[at]));
    }

    private static bool IsInside(string text, int at) =>
        text[at] is '\'' or '’' && at + 1 < text.Length && char.IsLetter(text[at + 1])
        || text[at] is '.' && at > 0 && char.IsAsciiDigit(text[at - 1]) && at + 1 < text.Length && char.IsAsciiDigit(text[at + 1]);

    // One spelling of words that have two.
    private static string Spelled(string word)
    {
        var small = word.ToLowerInvariant().Replace('’', '\'');
        return small switch
        {
            "gray" => "grey",
            "grayish" => "greyish",
            "fiber" => "fibre",
            "fibers" => "fibres",
            _ => small.Replace("color", "colour", StringComparison.Ordinal),
        };
    }
}
