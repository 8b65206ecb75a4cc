using System.Globalization;

namespace Garten.Core.Quantities;

/// <summary>Numbers as they are written in floras and notebooks: 12.4 · 11,8 · 1,200 · 4½ · 3/16 · 1 3/4 · three.</summary>
internal static class NumberText
{
    // Longer digit strings are no measures; they would only overflow.
    private const int MostDigits = 12;

    private static readonly string[] Words =
    [
        "zero",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
    ];

    /// <summary>Whether a word in small letters is a number: "three".</summary>
    public static bool IsWord(string word) => Array.IndexOf(Words, word) >= 0;

    private static readonly Dictionary<char, double> Vulgar = new()
    {
        ['½'] = 1 / 2d,
        ['⅓'] = 1 / 3d,
        ['⅔'] = 2 / 3d,
        ['¼'] = 1 / 4d,
        ['¾'] = 3 / 4d,
        ['⅛'] = 1 / 8d,
        ['⅜'] = 3 / 8d,
        ['⅝'] = 5 / 8d,
        ['⅞'] = 7 / 8d,
    };

    /// <summary>A number read at a place.</summary>
    /// <param name="Value">Its value.</param>
    /// <param name="End">Index behind it.</param>
    /// <param name="Step">The unit in its last place: 0.1 for 12.4, 1/16 for 3/16, 1 for a whole number.</param>
    /// <param name="IsFraction">Whether it was written with a fraction or decimals.</param>
    public readonly record struct Found(double Value, int End, double Step, bool IsFraction);

    /// <summary>Reads the number that begins at <paramref name="at"/>; null where none does.</summary>
    public static Found? Read(string text, int at)
    {
        if (at >= text.Length)
            return null;
        if (Vulgar.TryGetValue(text[at], out var part))
            return new(part, at + 1, StepOf(part), true);
        if (!char.IsAsciiDigit(text[at]))
            return Word(text, at);
        var end = Digits(text, at);
        if (end - at > MostDigits)
            return null;
        // 1,200 and 12,000 are thousands; 11,8 and 0,250 are decimals.
        while (
            text[at] != '0'
            && end - at <= 3 + (end - at) / 4 * 4
            && end < text.Length
            && text[end] == ','
            && Digits(text, end + 1) == end + 4
            && IsThousands(text, at, end)
        )
            end += 4;
        var whole = double.Parse(text[at..end].Replace(",", "", StringComparison.Ordinal), CultureInfo.InvariantCulture);
        if (end < text.Length && Vulgar.TryGetValue(text[end], out part))
            return new(whole + part, end + 1, StepOf(part), true);
        if (end + 1 < text.Length && text[end] is '.' or ',' && char.IsAsciiDigit(text[end + 1]))
        {
            var decimals = Digits(text, end + 1);
            if (decimals - end > MostDigits)
                return null;
            // 1.2.3 is no number.
            if (decimals + 1 < text.Length && text[decimals] == '.' && char.IsAsciiDigit(text[decimals + 1]))
                return null;
            var value = double.Parse(
                string.Concat(text[at..end].Replace(",", "", StringComparison.Ordinal), ".", text.AsSpan(end + 1, decimals - end - 1)),
                CultureInfo.InvariantCulture
            );
            return new(value, decimals, Math.Pow(10, end + 1 - decimals), true);
        }
        if (Fraction(text, end, whole) is { } simple)
            return simple;
        // "1 3/4": a whole number, a space and a fraction below one.
        if (
            end + 1 < text.Length
            && text[end] == ' '
            && char.IsAsciiDigit(text[end + 1])
            && Digits(text, end + 1) is var next
            && next - end < MostDigits
            && Fraction(text, next, double.Parse(text.AsSpan(end + 1, next - end - 1), CultureInfo.InvariantCulture))
                is { Value: < 1 } mixed
        )
        {
            return mixed with { Value = whole + mixed.Value };
        }
        return new(whole, end, 1, false);
    }

    private static bool IsThousands(string text, int at, int end)
    {
        var comma = text.IndexOf(',', at, end - at);
        return comma < 0 ? end - at is >= 1 and <= 3 : comma - at is >= 1 and <= 3;
    }

    private static Found? Fraction(string text, int slash, double above)
    {
        if (slash + 1 >= text.Length || text[slash] is not ('/' or '⁄') || !char.IsAsciiDigit(text[slash + 1]))
            return null;
        var end = Digits(text, slash + 1);
        if (end - slash > 4)
            return null;
        var below = double.Parse(text.AsSpan(slash + 1, end - slash - 1), CultureInfo.InvariantCulture);
        return below == 0 ? null : new(above / below, end, 1 / below, true);
    }

    private static Found? Word(string text, int at)
    {
        if (at > 0 && char.IsLetter(text[at - 1]))
            return null;
        var end = at;
        while (end < text.Length && char.IsLetter(text[end]))
            end++;
        var index = Array.FindIndex(Words, w => text.AsSpan(at, end - at).Equals(w, StringComparison.OrdinalIgnoreCase));
        return index < 0 ? null : new(index, end, 1, false);
    }

    private static int Digits(string text, int at)
    {
        while (at < text.Length && char.IsAsciiDigit(text[at]))
            at++;
        return at;
    }

    // Halves to eighths: the step is one over the smallest denominator that gives the fraction.
    private static double StepOf(double part)
    {
        foreach (var below in new[] { 2, 3, 4, 8 })
        {
            if (Math.Abs(part * below - Math.Round(part * below)) < 1e-9)
                return 1d / below;
        }
        return 1;
    }
}
