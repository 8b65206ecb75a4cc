using System.Globalization;

namespace Garten.Core.Seasons;

/// <summary>A stretch of the year that comes every year, as month and day: "05-15" to "07-31"; it may run over the new year.</summary>
/// <param name="From">Its first day, MM-DD; empty with <paramref name="To"/>: all year.</param>
/// <param name="To">Its last day.</param>
public readonly record struct MonthDays(string From, string To)
{
    private const int Letters = 5;

    // One without 29 February.
    private const int AnyYear = 2001;
    private const int LeapYear = 2024;

    /// <summary>Whether it is the whole year.</summary>
    public bool IsAllYear => From.Length == 0;

    /// <summary>Whether both ends are days that every leap year has, or both are empty.</summary>
    public bool IsSound => IsDay(From) && IsDay(To) && From.Length == 0 == (To.Length == 0);

    /// <summary>Whether a day lies in it.</summary>
    public bool Holds(DateOnly day)
    {
        if (IsAllYear)
            return true;
        var at = Written(day);
        var (isAfter, isBefore) = (string.CompareOrdinal(From, at) <= 0, string.CompareOrdinal(at, To) <= 0);
        return IsOverNewYear ? isAfter || isBefore : isAfter && isBefore;
    }

    /// <summary>Whether its last one ended before a day of the same year; one that runs over the new year is always to come
    /// again.</summary>
    public bool EndedBefore(DateOnly day) => !IsAllYear && !IsOverNewYear && string.CompareOrdinal(To, Written(day)) < 0;

    /// <summary>The stretch that holds a day, or else the last one that began before it, by the days of the calendar.</summary>
    public (DateOnly First, DateOnly Last) Around(DateOnly day)
    {
        if (IsAllYear)
            return (new DateOnly(day.Year, 1, 1), new DateOnly(day.Year, 12, 31));
        // One that hasn't begun this year is still that of this year, unless it runs over the new year.
        var year = IsOverNewYear && string.CompareOrdinal(Written(day), From) < 0 ? day.Year - 1 : day.Year;
        return (Of(From, year), Of(To, IsOverNewYear ? year + 1 : year));
    }

    /// <summary>In words: "15 April to 31 May"; "all year".</summary>
    public string InWords()
    {
        static string Said(string at) => Of(at, LeapYear).ToString("d MMMM", CultureInfo.InvariantCulture);
        return IsAllYear ? "all year" : $"{Said(From)} to {Said(To)}";
    }

    /// <summary>The same as days of the year.</summary>
    public DayWindow Window() =>
        IsAllYear ? new DayWindow(1, DayOfYear.Days) : new DayWindow(DayOfYear.Of(Of(From, AnyYear)), DayOfYear.Of(Of(To, AnyYear)));

    private bool IsOverNewYear => string.CompareOrdinal(From, To) > 0;

    private static string Written(DateOnly day) => day.ToString("MM-dd", CultureInfo.InvariantCulture);

    // 29 February of a year that hasn't one is the 28th.
    private static DateOnly Of(string at, int year)
    {
        var (month, day) = (
            int.Parse(at.AsSpan(0, 2), CultureInfo.InvariantCulture),
            int.Parse(at.AsSpan(3), CultureInfo.InvariantCulture)
        );
        return new DateOnly(year, month, Math.Min(day, DateTime.DaysInMonth(year, month)));
    }

    // Empty, or a day that every leap year has.
    private static bool IsDay(string text) =>
        text.Length == 0
        || text.Length == Letters
            && DateOnly.TryParseExact($"2024-{text}", "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out _);
}
