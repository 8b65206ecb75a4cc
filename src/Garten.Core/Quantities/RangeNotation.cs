using System.Text.RegularExpressions;

namespace Garten.Core.Quantities;

/// <summary>Why a notation can't be read.</summary>
/// <param name="Message">What is wrong, as a sentence for the person who typed it.</param>
/// <param name="At">Index of the character at which it is wrong, from 0.</param>
public sealed record NotationProblem(string Message, int At);

/// <summary>What a notation says.</summary>
/// <param name="Ranges">One range, or length and width for "3–8 × 1–2 cm"; empty where it can't be read.</param>
/// <param name="End">Index behind what was read.</param>
/// <param name="Problem">Why it can't be read; null where it can.</param>
public sealed record NotationReading(IReadOnlyList<QuantityRange> Ranges, int End, NotationProblem? Problem = null);

/// <summary>
/// The notation of quantities in floras: <c>(4–)6–9(–13) mm</c>, <c>3–8 × 1–2 cm</c>, <c>c. 20 mm</c>, <c>20 ± 3 mm</c>, <c>up to 3 m</c>,
/// <c>≥ 40</c>, <c>2.5 × as long as wide</c>, <c>5-merous</c>, <c>many</c>. Point or comma decimals, fractions, hyphen, dash or "to".
/// </summary>
public static partial class RangeNotation
{
    /// <summary>What "many" begins at where a character doesn't say: more than are counted at a glance.</summary>
    public const int DefaultMany = 12;

    private const int LongestText = 200;

    /// <summary>Reads a whole text.</summary>
    /// <param name="text">The notation.</param>
    /// <param name="kind">What kind of number is expected; a unit of another kind is a problem.</param>
    /// <param name="many">What "many" begins at, for counts.</param>
    /// <param name="unit">Unit of lengths without one; null: such a length is a problem.</param>
    public static NotationReading Read(string text, QuantityKind kind, int many = DefaultMany, MeasureUnit? unit = null)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length > LongestText)
            return Failed($"This is longer than {LongestText} characters: it is no range.", LongestText);
        var scanner = new Scanner(Plain(text), text, kind, many, unit);
        scanner.SkipBlank();
        if (scanner.AtEnd)
            return Failed("Write a number or a range, such as 6–9.", 0);
        if (scanner.Notation() is not { } ranges)
            return new([], scanner.At, scanner.Problem);
        scanner.SkipBlank();
        if (!scanner.AtEnd)
            return Failed(scanner.WhatFollows(), scanner.At);
        return new(ranges, scanner.At);
    }

    /// <summary>Reads a notation that begins at a place within a text and may be followed by other words.</summary>
    /// <param name="text">The text.</param>
    /// <param name="at">Where to begin, from 0.</param>
    /// <param name="many">What "many" begins at, for counts.</param>
    /// <returns>What was read; without ranges where no sound notation begins there.</returns>
    public static NotationReading ReadAt(string text, int at, int many = DefaultMany)
    {
        ArgumentNullException.ThrowIfNull(text);
        var scanner = new Scanner(Plain(text), text, null, many) { At = at };
        return scanner.Notation() is { } ranges ? new(ranges, scanner.At) : new([], at, scanner.Problem);
    }

    private static NotationReading Failed(string message, int at) => new([], at, new NotationProblem(message, at));

    // Character by character, so that places stay as they are: every dash one dash, every space one space.
    private static string Plain(string text) => string.Create(text.Length, text, static (to, from) =>
        {
            for (var i = 0; i < from.Length; i++)
            {
                to[i] = from[i] switch
                {
                    '-' or '−' or '—' or '‐' or '‑' or '‒' => '–',
                    '\u00A0' or '\u2009' or '\u202F' or '\t' or '\n' => ' ',
                    '✕' or '⨯' => '×',
                    var other => other,
                };
            }
        });

    [GeneratedRegex(
        @"\G(?:c\.|ca\.?|circa|about|approx(?:\.|imately)?|around|nearly|~|≈)\s*",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex CircaWords();

    [GeneratedRegex(
        @"\G(?:up\s+to|to|at\s+most|not\s+(?:more|longer|wider|taller|broader)\s+than|not\s+(?:over|above|exceeding)|(?:rarely|seldom|scarcely|hardly\s+ever)\s+(?:over|above|exceeding|more\s+than)|no\s+more\s+than|less\s+than|fewer\s+than|shorter\s+than|under|below|max(?:\.|imum)?|<|≤)\s*",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex UpToWords();

    [GeneratedRegex(
        @"\G(?:more\s+than|taller\s+than|greater\s+than|wider\s+than|broader\s+than|at\s+least|over|above|exceeding|longer\s+than|not\s+less\s+than|min(?:\.|imum)?|>|≥)\s*",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex MoreThanWords();

    [GeneratedRegex(@"\G\s*(?:or\s+(?:more|longer|wider|taller)|and\s+more|\+)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex OrMore();

    [GeneratedRegex(@"\G–?\s*∞", RegexOptions.CultureInvariant)]
    private static partial Regex NoEnd();

    [GeneratedRegex(@"\G\s*or\s+(?:fewer|less|shorter)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex OrLess();

    [GeneratedRegex(@"\G(?:many|numerous|∞|indefinite(?:ly\s+many)?)(?!\w)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex ManyWords();

    [GeneratedRegex(
        @"\G\s*(?:×|x|times)\s*(?:(?:as|longer|wider|broader|taller|shorter|its|the)\b|$|[;,.)])|\G\s*times\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex TimesWords();

    [GeneratedRegex(
        @"\G\s*(?:×|x|times)?\s*(?:(?:as\s+(?:long|wide|broad|tall|high)\s+as|longer\s+than|wider\s+than|broader\s+than)\s+(?:wide|long|broad|high|tall)|its\s+(?:width|length))?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex TimesPhrase();

    [GeneratedRegex(@"\G(?<word>twice|thrice|half|once)\s+(?=as\b|its\b|the\b)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Multiple();

    private sealed class Scanner(string text, string typed, QuantityKind? expected, int many, MeasureUnit? otherwise = null)
    {
        private MeasureUnit? _unit;
        private bool _isRatio;
        private bool _isMerous;

        public int At { get; set; }

        public NotationProblem? Problem { get; private set; }

        public bool AtEnd => At >= text.Length;

        public void SkipBlank()
        {
            while (!AtEnd && text[At] == ' ')
                At++;
        }

        public string WhatFollows() =>
            char.IsAsciiDigit(text[At])
                ? "There is a second number here. Put a dash between the two, or a × for length × width."
                : $"“{typed[At..Math.Min(typed.Length, At + 16)]}” isn't understood here.";

        /// <summary>One range, or two with × between.</summary>
        public IReadOnlyList<QuantityRange>? Notation()
        {
            var start = At;
            if (Take(ManyWords()))
                return expected is null or QuantityKind.Count
                    ? [QuantityRange.MoreThan(QuantityKind.Count, many, typed[start..At])]
                    : Fail<IReadOnlyList<QuantityRange>>("“Many” is for things that are counted.", start);
            if (One() is not { } first)
                return null;
            var firstUnit = _unit;
            var afterFirst = At;
            SkipBlank();
            // A × with a number behind it: length × width.
            if (!_isRatio && !AtEnd && text[At] is '×' or 'x' or 'X' && (text[At] == '×' || At + 1 < text.Length && text[At + 1] == ' '))
            {
                var cross = At;
                At++;
                SkipBlank();
                _unit = null;
                if (AtEnd || NumberText.Read(text, At) is null && text[At] is not ('(' or 'c'))
                    return expected is null
                        ? Back(afterFirst, start, first, firstUnit)
                        : Fail<IReadOnlyList<QuantityRange>>("Behind the × the second measure is missing.", cross);
                if (One() is not { } second)
                    return null;
                var secondUnit = _unit ?? firstUnit;
                firstUnit ??= secondUnit ?? otherwise;
                secondUnit ??= firstUnit;
                if (firstUnit?.Kind != secondUnit?.Kind)
                    return Fail<IReadOnlyList<QuantityRange>>("Length and width have units of different kinds.", cross);
                if (firstUnit is null)
                    return Fail<IReadOnlyList<QuantityRange>>("Say in which unit: mm, cm, m, in.", At);
                return Both(first, firstUnit, second, secondUnit!, start);
            }
            return Back(afterFirst, start, first, firstUnit);
        }

        private IReadOnlyList<QuantityRange>? Both(Raw first, MeasureUnit firstUnit, Raw second, MeasureUnit secondUnit, int start) =>
            Build(first, firstUnit, start) is { } length && Build(second, secondUnit, start) is { } width ? [length, width] : null;

        private IReadOnlyList<QuantityRange>? Back(int end, int start, Raw raw, MeasureUnit? unit)
        {
            At = end;
            return Build(raw, unit, start) is { } range ? [range] : null;
        }

        private readonly record struct Raw(
            RangeForm Form,
            double Low,
            double High,
            double? LowExtreme,
            double? HighExtreme,
            bool IsCirca,
            bool IsStrict,
            int NumberAt,
            double UnitsMixed
        );

        private Raw? One()
        {
            var multiple = Multiple().Match(text, At);
            if (multiple.Success)
            {
                At = multiple.Index + multiple.Length;
                _isRatio = true;
                var value = multiple.Groups["word"].Value.ToLowerInvariant() switch
                {
                    "twice" => 2,
                    "thrice" => 3,
                    "half" => 0.5,
                    _ => 1d,
                };
                var at = At;
                Take(TimesPhrase());
                return new Raw(RangeForm.Between, value, value, null, null, true, false, at, 1);
            }
            var form = RangeForm.Between;
            var strict = false;
            var circa = Take(CircaWords());
            if (!circa)
            {
                var sign = At;
                if (Take(UpToWords()))
                    form = RangeForm.UpTo;
                else if (Take(MoreThanWords()))
                {
                    form = RangeForm.MoreThan;
                    strict =
                        text[sign] is not '≥'
                        && !text.AsSpan(sign).StartsWith("at least", StringComparison.OrdinalIgnoreCase)
                        && !text.AsSpan(sign).StartsWith("min", StringComparison.OrdinalIgnoreCase)
                        && !text.AsSpan(sign).StartsWith("not less", StringComparison.OrdinalIgnoreCase);
                }
                if (form == RangeForm.UpTo)
                    strict =
                        text[sign] == '<'
                        || text.AsSpan(sign).StartsWith("less", StringComparison.OrdinalIgnoreCase)
                        || text.AsSpan(sign).StartsWith("fewer", StringComparison.OrdinalIgnoreCase)
                        || text.AsSpan(sign).StartsWith("under", StringComparison.OrdinalIgnoreCase)
                        || text.AsSpan(sign).StartsWith("below", StringComparison.OrdinalIgnoreCase);
                // "up to c. 3 m" is "up to 3 m".
                if (form != RangeForm.Between)
                    Take(CircaWords());
            }
            return Core(form, circa, strict);
        }

        // (4–)6–9(–13): the brackets with or without their dashes.
        private Raw? Core(RangeForm form, bool circa, bool strict)
        {
            SkipBlank();
            double? lowExtreme = null,
                highExtreme = null;
            var numberAt = At;
            if (!AtEnd && text[At] == '(')
            {
                var open = At++;
                SkipBlank();
                if (Number() is not { } extreme)
                    return Fail<Raw?>("In the brackets before the range its low extreme is missing.", Math.Min(At, text.Length));
                lowExtreme = extreme;
                SkipBlank();
                if (!AtEnd && text[At] == '–')
                {
                    At++;
                    SkipBlank();
                    Number();
                    SkipBlank();
                    if (!AtEnd && text[At] == '–')
                        At++;
                    SkipBlank();
                }
                if (AtEnd || text[At] != ')')
                    return Fail<Raw?>("This bracket isn't closed.", open);
                At++;
                SkipBlank();
                if (!AtEnd && text[At] == '–')
                    At++;
                SkipBlank();
            }
            numberAt = At;
            if (AtEnd)
                return Fail<Raw?>(lowExtreme is null ? "A number is missing here." : "Behind the brackets the range is missing.", At);
            if (text[At] == '±')
                return Fail<Raw?>("Before the ± the middle is missing.", At);
            if (text[At] == '–')
                return Fail<Raw?>("A number below zero, or a dash with nothing before it, is no range.", At);
            if (Number() is not { } low)
                return Fail<Raw?>(
                    MeasureUnit.Named(Letters(At)) is not null ? "The number before the unit is missing." : "A number is missing here.",
                    At
                );
            var high = low;
            var isRange = false;
            Unit();
            var lowUnit = _unit;
            var mark = At;
            SkipBlank();
            if (form == RangeForm.Between && Take(NoEnd()))
                form = RangeForm.MoreThan;
            else if (!AtEnd && text[At] == '±')
            {
                var plusMinus = At++;
                SkipBlank();
                if (Number() is not { } deviation)
                    return Fail<Raw?>("Behind the ± the deviation is missing.", At);
                (low, high, isRange) = (low - deviation, high + deviation, true);
                if (low < 0)
                    return Fail<Raw?>("It goes below zero.", plusMinus);
            }
            else if (form == RangeForm.Between && RangeSign() is { } signEnd)
            {
                At = signEnd;
                if (!AtEnd && text[At] == '–')
                    return Fail<Raw?>("Two dashes follow each other.", At);
                if (Number() is not { } second)
                {
                    if (expected is not null || Problem is not null)
                        return Fail<Raw?>("Behind the dash the high bound is missing.", Math.Min(At, text.Length));
                    At = mark;
                }
                else
                {
                    (high, isRange) = (second, true);
                    if (RangeSign() is { } third && NumberText.Read(text, third) is not null)
                        return Fail<Raw?>("A third number: write extremes in brackets, such as 6–9(–13).", third);
                }
            }
            else
                At = mark;
            if (isRange)
            {
                _unit = null;
                Unit();
                // "5 mm to 1 cm": the first number in a unit of its own.
                if (lowUnit is not null && _unit is not null && lowUnit.Kind == _unit.Kind)
                    low = low * lowUnit.Factor / _unit.Factor;
                _unit ??= lowUnit;
            }
            mark = At;
            SkipBlank();
            if (!AtEnd && text[At] == '(' && HighExtreme(out var problem) is { } highest)
                highExtreme = highest;
            else if (Problem is not null)
                return null;
            else
                At = mark;
            var beforeUnit = _unit;
            if (_unit is null)
                Unit();
            _unit ??= beforeUnit;
            if (form == RangeForm.Between && !isRange && Take(OrMore()))
                form = RangeForm.MoreThan;
            else if (form == RangeForm.Between && !isRange && Take(OrLess()))
                form = RangeForm.UpTo;
            else if (form == RangeForm.Between && isRange && Take(OrMore()))
                form = RangeForm.MoreThan;
            if (_unit is null)
                Unit();
            if (
                _unit is null
                && TimesWords().IsMatch(text, At)
                && !(expected is QuantityKind.Length && text.AsSpan(At).Trim() is "×" or "x")
            )
            {
                _isRatio = true;
                Take(TimesPhrase());
            }
            else if (_unit is null && At < text.Length && text.AsSpan(At).StartsWith("–merous", StringComparison.OrdinalIgnoreCase))
            {
                At += "–merous".Length;
                _isMerous = true;
            }
            return new Raw(form, low, high, lowExtreme, highExtreme, circa, strict, numberAt, 1);
        }

        private double? HighExtreme(out bool problem)
        {
            problem = false;
            var open = At++;
            SkipBlank();
            if (!AtEnd && text[At] == '–')
                At++;
            SkipBlank();
            if (Number() is not { } extreme)
            {
                if (expected is not null)
                    Fail<double?>("In the brackets behind the range its high extreme is missing.", Math.Min(At, text.Length));
                return null;
            }
            SkipBlank();
            // "(–12–13)": the larger of two.
            if (!AtEnd && text[At] == '–')
            {
                At++;
                SkipBlank();
                if (Number() is { } larger)
                    extreme = larger;
            }
            SkipBlank();
            if (!AtEnd && text[At] == ')')
            {
                At++;
                return extreme;
            }
            if (expected is not null)
                Fail<double?>("This bracket isn't closed.", open);
            return null;
        }

        // Index of the number behind a dash, "to" or "and"; null where none of them stands here.
        private int? RangeSign()
        {
            var at = At;
            while (at < text.Length && text[at] == ' ')
                at++;
            if (at >= text.Length)
                return null;
            if (text[at] == '–')
            {
                at++;
                // "2–lobed" and "5–merous" are words with a number.
                if (at < text.Length && char.IsLetter(text[at]) && NumberText.Read(text, at) is null)
                    return null;
                while (at < text.Length && text[at] == ' ')
                    at++;
                return at;
            }
            foreach (var word in new[] { "to ", "or " })
            {
                if (!text.AsSpan(at).StartsWith(word, StringComparison.OrdinalIgnoreCase) || at == 0 || text[at - 1] != ' ')
                    continue;
                var next = at + word.Length;
                while (next < text.Length && text[next] == ' ')
                    next++;
                if (NumberText.Read(text, next) is not null)
                    return next;
            }
            return null;
        }

        private double? Number()
        {
            if (NumberText.Read(text, At) is not { } number)
                return null;
            At = number.End;
            return number.Value;
        }

        private void Unit()
        {
            var at = At;
            while (at < text.Length && text[at] == ' ')
                at++;
            if (at >= text.Length)
                return;
            // A lone quotation mark directly behind the number is inches or feet.
            var word = text[at] is '"' or '″' or '”' or '\'' or '′' or '’' or '°' ? text[at].ToString() : Letters(at);
            if (word.Length == 0 || MeasureUnit.Named(word) is not { } unit)
                return;
            // "in" is a unit only where nothing but the end, a bracket or a sign follows: "3 in each leaf" counts.
            if (
                word is "in" or "In"
                && at + 2 < text.Length
                && text[at + 2] == ' '
                && at + 3 < text.Length
                && char.IsLetter(text[at + 3])
                && Letters(at + 3) is not ("long" or "wide" or "tall" or "high" or "across" or "or" or "to" or "broad" or "thick")
            )
                return;
            _unit = unit;
            At = at + word.Length;
            if (!AtEnd && text[At] == '.' && word is "in" or "ft" && At + 1 < text.Length)
                At++;
        }

        private string Letters(int at)
        {
            var end = at;
            while (end < text.Length && char.IsLetter(text[end]))
                end++;
            return text[at..end];
        }

        private bool Take(Regex words)
        {
            var match = words.Match(text, At);
            if (!match.Success || match.Index != At || match.Length == 0)
                return false;
            // "to" and "over" need a number behind them.
            At += match.Length;
            return true;
        }

        private QuantityRange? Build(Raw raw, MeasureUnit? unit, int start)
        {
            if (!_isRatio && !_isMerous && expected == QuantityKind.Length)
                unit ??= otherwise;
            var kind =
                _isRatio ? QuantityKind.Ratio
                : _isMerous ? QuantityKind.Count
                : unit?.Kind ?? (expected is QuantityKind.Ratio or QuantityKind.Angle ? expected.Value : QuantityKind.Count);
            if (expected is { } wanted && kind != wanted)
            {
                if (wanted == QuantityKind.Length && unit is null && !_isRatio)
                {
                    SkipBlank();
                    return Fail<QuantityRange>(AtEnd ? "Say in which unit: mm, cm, m, in." : WhatFollows(), At);
                }
                return Fail<QuantityRange>($"A {Word(wanted)} is wanted here, and this is a {Word(kind)}.", raw.NumberAt);
            }
            var factor = unit?.Factor ?? 1;
            double? Scaled(double? value) => value is { } v ? Math.Round(v * factor, 9) : null;
            var (low, high) = (Scaled(raw.Low)!.Value, Scaled(raw.High)!.Value);
            var own = typed[start..Math.Min(At, typed.Length)].Trim();
            var isCount = kind == QuantityKind.Count;
            var range = raw.Form switch
            {
                RangeForm.UpTo => QuantityRange.UpTo(kind, raw.IsStrict && isCount ? Math.Max(high - 1, 0) : high, own),
                RangeForm.MoreThan => QuantityRange.MoreThan(kind, raw.IsStrict && isCount ? low + 1 : low, own),
                _ when raw.IsCirca && low == high => QuantityRange.About(kind, low, own),
                _ when low == high && isCount && raw.LowExtreme is null && raw.HighExtreme is null => new QuantityRange(
                    kind,
                    RangeForm.Exactly,
                    low,
                    high,
                    Text: own
                ),
                // A bare measure is a mean: it means about that.
                _ when low == high && !isCount && raw.LowExtreme is null && raw.HighExtreme is null => QuantityRange.About(kind, low, own),
                _ => new QuantityRange(kind, RangeForm.Between, low, high, Text: own),
            };
            range = range with { LowExtreme = Scaled(raw.LowExtreme), HighExtreme = Scaled(raw.HighExtreme) };
            return range.Contradiction() is { } wrong ? Fail<QuantityRange>(wrong, raw.NumberAt) : range;
        }

        private static string Word(QuantityKind kind) =>
            kind switch
            {
                QuantityKind.Count => "count",
                QuantityKind.Length => "length",
                QuantityKind.Ratio => "ratio",
                _ => "angle in degrees",
            };

        private T? Fail<T>(string message, int at)
        {
            Problem ??= new NotationProblem(message, at);
            return default;
        }
    }
}
