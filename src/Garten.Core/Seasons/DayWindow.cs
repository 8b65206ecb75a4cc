using System.Text.Json.Serialization;

namespace Garten.Core.Seasons;

/// <summary>Days of the year, 1 to 365: 29 February counts as the 28th, so that a day of the year is the same date in every year.</summary>
public static class DayOfYear
{
    /// <summary>Days of a year.</summary>
    public const int Days = 365;

    private const int February28 = 59;

    /// <summary>The day of the year of a date, 1 to 365.</summary>
    public static int Of(DateOnly date) =>
        DateTime.IsLeapYear(date.Year) && date.DayOfYear > February28 ? date.DayOfYear - 1 : date.DayOfYear;

    /// <summary>The first date with this day of the year on or after another; of the 28th of February the 29th, where that is the date to
    /// begin with.</summary>
    /// <param name="from">The date to begin with.</param>
    /// <param name="day">1 to 365.</param>
    public static DateOnly Next(DateOnly from, int day)
    {
        Check(day);
        if (Of(from) == day)
            return from;
        var year = day < Of(from) ? from.Year + 1 : from.Year;
        return new DateOnly(year, 1, 1).AddDays(DateTime.IsLeapYear(year) && day > February28 ? day : day - 1);
    }

    /// <summary>How many days of the circle lie from one day to another: 0 to 364.</summary>
    public static int Between(int from, int to) => ((to - from) % Days + Days) % Days;

    /// <summary>A day so many days later, or earlier where they are below 0, on the circle.</summary>
    public static int Add(int day, int days) => Between(1, day + days % Days) + 1;

    /// <summary>Whether a number is a day of the year.</summary>
    public static bool IsOne(int day) => day is >= 1 and <= Days;

    internal static void Check(int day)
    {
        if (!IsOne(day))
            throw new ArgumentOutOfRangeException(nameof(day), day, "A day of the year is 1 to 365.");
    }
}

/// <summary>A stretch of the year; both ends belong to it, and it may run over the new year.</summary>
/// <param name="From">Its first day of the year, 1 to 365.</param>
/// <param name="To">Its last one; before the first one where it runs over the new year.</param>
public sealed record DayWindow(int From, int To)
{
    /// <summary>How many days it has: 1 to 365.</summary>
    [JsonIgnore]
    public int Length => DayOfYear.Between(From, To) + 1;

    /// <summary>Whether a day lies in it.</summary>
    public bool Holds(int day) => DayOfYear.Between(From, day) < Length;

    /// <summary>The same stretch so many days later, or earlier where they are below 0: it may move past the end of the year.</summary>
    public DayWindow Shifted(int days) => new(DayOfYear.Add(From, days), DayOfYear.Add(To, days));

    /// <summary>The days of two half-months and of those between them.</summary>
    /// <param name="from">The first half-month, 1 to 24.</param>
    /// <param name="to">The last one.</param>
    public static DayWindow OfHalfMonths(int from, int to) =>
        new(FirstDay(from), to % SeasonWords.HalfMonths + 1 is var next && next == 1 ? DayOfYear.Days : FirstDay(next) - 1);

    // The 1st and the 16th, in a year without 29 February.
    private static int FirstDay(int halfMonth) => new DateOnly(2001, (halfMonth + 1) / 2, halfMonth % 2 == 1 ? 1 : 16).DayOfYear;
}
