using System.Globalization;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Garten.Core.Seasons;

namespace Garten.Core.Imports;

/// <summary>Which comes first in a date such as 3/4/2021.</summary>
[JsonConverter(typeof(CamelCaseWords<DayOrder>))]
public enum DayOrder
{
    /// <summary>Nobody said: such a date isn't read.</summary>
    Unsaid,

    /// <summary>The day.</summary>
    DayFirst,

    /// <summary>The month.</summary>
    MonthFirst,
}

/// <summary>What came of reading a date.</summary>
public enum DayReading
{
    /// <summary>It was read.</summary>
    Read,

    /// <summary>It is no date that is understood.</summary>
    NotRead,

    /// <summary>It can be read in two ways: which comes first has to be said.</summary>
    TwoWays,

    /// <summary>Its year has two figures: the century has to be written.</summary>
    NoCentury,
}

/// <summary>
/// A day as notebooks and tables have it: <c>2021-06-03</c>, <c>3.6.2021</c>, <c>3/6/2021</c>, <c>3 June 2021</c>, <c>June 3, 2021</c>,
/// <c>3.vi.2021</c>; or a span of days where no more is known: <c>2021-06</c>, <c>June 2021</c>, <c>2021</c>, <c>2021-06-03/2021-06-05</c>.
/// A time behind an ISO date is passed over.
/// </summary>
/// <param name="From">The first day on which it can have been.</param>
/// <param name="To">The last one; the same for a single day.</param>
public sealed partial record NotebookDay(DateOnly From, DateOnly To)
{
    // Before it dates belong to another calendar.
    private const int FirstYear = 1753;
    private const int LastYear = 9900;
    private const int Months = 12;

    /// <summary>Whether it is one day.</summary>
    public bool IsOneDay => From == To;

    /// <summary>Reads a date.</summary>
    /// <param name="text">The date as written.</param>
    /// <param name="order">Which comes first where both could be a month.</param>
    public static (DayReading Reading, NotebookDay? Day) Read(string text, DayOrder order)
    {
        ArgumentNullException.ThrowIfNull(text);
        var plain = text.Trim();
        if (plain.Length == 0)
            return (DayReading.NotRead, null);
        var slash = plain.IndexOf('/', StringComparison.Ordinal);
        // A span has two whole dates; 3/6/2021 has slashes of its own.
        if (slash > 0 && Iso().IsMatch(plain[..slash]))
        {
            var (first, from) = Read(plain[..slash], order);
            var rest = plain[(slash + 1)..].Trim();
            var (last, to) = Iso().IsMatch(rest) ? Read(rest, order) : (DayReading.NotRead, null);
            return first == DayReading.Read && last == DayReading.Read && from!.From <= to!.To
                ? (DayReading.Read, new NotebookDay(from.From, to.To))
                : (DayReading.NotRead, null);
        }
        if (Iso().Match(plain) is { Success: true } iso)
            return Of(iso.Groups["y"].Value, iso.Groups["m"].Value, iso.Groups["d"].Value);
        if (Numbers().Match(plain) is { Success: true } numbers)
            return OfNumbers(numbers.Groups["a"].Value, numbers.Groups["b"].Value, numbers.Groups["y"].Value, order);
        if (DayWordYear().Match(plain) is { Success: true } dayFirst && MonthOf(dayFirst.Groups["m"].Value) is { } m)
            return OfWord(dayFirst.Groups["y"].Value, m, dayFirst.Groups["d"].Value);
        if (WordDayYear().Match(plain) is { Success: true } wordFirst && MonthOf(wordFirst.Groups["m"].Value) is { } w)
            return OfWord(wordFirst.Groups["y"].Value, w, wordFirst.Groups["d"].Value);
        if (WordYear().Match(plain) is { Success: true } month && MonthOf(month.Groups["m"].Value) is { } only)
            return OfWord(month.Groups["y"].Value, only, "");
        return (DayReading.NotRead, null);
    }

    /// <summary>Reads a date whose parts stand in cells of their own; day and month may be empty.</summary>
    /// <param name="year">The year, in four figures.</param>
    /// <param name="month">The month: a number, a word, or Roman figures; empty where unknown.</param>
    /// <param name="day">The day of the month; empty where unknown.</param>
    public static (DayReading Reading, NotebookDay? Day) OfParts(string year, string month, string day)
    {
        var plain = (month ?? "").Trim();
        var number =
            plain.Length == 0 ? ""
            : MonthOf(plain) is { } m ? m.ToString(CultureInfo.InvariantCulture)
            : plain;
        return Of((year ?? "").Trim(), number, (day ?? "").Trim());
    }

    /// <summary>Which comes first in dates of two numbers and a year, by this one alone: a number above 12 is a day.</summary>
    public static DayOrder OrderIn(string text)
    {
        if (Numbers().Match((text ?? "").Trim()) is not { Success: true } it)
            return DayOrder.Unsaid;
        var (a, b) = (Number(it.Groups["a"].Value), Number(it.Groups["b"].Value));
        return a > Months && b <= Months ? DayOrder.DayFirst
            : b > Months && a <= Months ? DayOrder.MonthFirst
            : DayOrder.Unsaid;
    }

    private static (DayReading, NotebookDay?) OfNumbers(string a, string b, string y, DayOrder order)
    {
        if (y.Length != 4)
            return (DayReading.NoCentury, null);
        var (first, second) = (Number(a), Number(b));
        if (first is >= 1 and <= Months && second is >= 1 and <= Months && first != second && order == DayOrder.Unsaid)
            return (DayReading.TwoWays, null);
        // What can be read in one way alone is read so, whatever was said of the others.
        var isDayFirst = first > Months || (second <= Months && order != DayOrder.MonthFirst);
        return isDayFirst ? Of(y, b, a) : Of(y, a, b);
    }

    private static (DayReading, NotebookDay?) OfWord(string year, int month, string day) =>
        year.Length != 4 ? (DayReading.NoCentury, null) : Of(year, month.ToString(CultureInfo.InvariantCulture), day);

    private static (DayReading, NotebookDay?) Of(string year, string month, string day)
    {
        if (year.Length != 4 || Number(year) is not (>= FirstYear and <= LastYear and var y))
            return (DayReading.NotRead, null);
        if (month.Length == 0)
            return day.Length > 0
                ? (DayReading.NotRead, null)
                : (DayReading.Read, new NotebookDay(new DateOnly(y, 1, 1), new DateOnly(y, Months, 31)));
        if (Number(month) is not (>= 1 and <= Months and var m))
            return (DayReading.NotRead, null);
        var last = DateTime.DaysInMonth(y, m);
        if (day.Length == 0)
            return (DayReading.Read, new NotebookDay(new DateOnly(y, m, 1), new DateOnly(y, m, last)));
        if (Number(day) is not (>= 1 and var d) || d > last)
            return (DayReading.NotRead, null);
        var it = new DateOnly(y, m, d);
        return (DayReading.Read, new NotebookDay(it, it));
    }

    private static int? Number(string text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;

    private static readonly string[] Roman = ["i", "ii", "iii", "iv", "v", "vi", "vii", "viii", "ix", "x", "xi", "xii"];

    // A month's word, its first three letters or more, or Roman figures.
    private static int? MonthOf(string word)
    {
        var plain = word.TrimEnd('.').ToLowerInvariant();
        if (Array.IndexOf(Roman, plain) is >= 0 and var roman)
            return roman + 1;
        const int shortest = 3;
        if (plain.Length < shortest)
            return null;
        for (var month = 1; month <= Months; month++)
        {
            if (SeasonWords.Month(month).StartsWith(plain == "sept" ? "sep" : plain, StringComparison.OrdinalIgnoreCase))
                return month;
        }
        return null;
    }

    [GeneratedRegex(@"^(?<y>\d{4})(?:-(?<m>\d{1,2})(?:-(?<d>\d{1,2})(?:[T ]\d{1,2}:\d{2}.*)?)?)?$", RegexOptions.CultureInvariant)]
    private static partial Regex Iso();

    [GeneratedRegex(@"^(?<a>\d{1,2})\s*[./-]\s*(?<b>\d{1,2})\s*[./-]\s*(?<y>\d{2}|\d{4})$", RegexOptions.CultureInvariant)]
    private static partial Regex Numbers();

    [GeneratedRegex(
        @"^(?<d>\d{1,2})(?:st|nd|rd|th)?[\s.\-/]*(?<m>[A-Za-z]+\.?)[\s.,\-/]*(?<y>\d{4}|\d{2})$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex DayWordYear();

    [GeneratedRegex(@"^(?<m>[A-Za-z]+\.?)\s+(?<d>\d{1,2})(?:st|nd|rd|th)?,?\s+(?<y>\d{4})$", RegexOptions.CultureInvariant)]
    private static partial Regex WordDayYear();

    [GeneratedRegex(@"^(?<m>[A-Za-z]+)\.?[\s,\-/.]+(?<y>\d{4}|\d{2})$", RegexOptions.CultureInvariant)]
    private static partial Regex WordYear();
}
