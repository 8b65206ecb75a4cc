using System.Globalization;

namespace Garten.Core.Seasons;

/// <summary>Days as they are written in requests and facts.</summary>
public static class DayText
{
    // A year is added to and taken from days: those at the ends of time have none.
    private const int FirstYear = 1753;
    private const int LastYear = 9900;

    /// <summary>Reads a day as year-month-day, of the years 1753 to 9900; any other text is none.</summary>
    /// <param name="text">Such as <c>2026-05-31</c>.</param>
    /// <param name="day">The day.</param>
    public static bool TryRead(string? text, out DateOnly day) =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out day)
        && day.Year is >= FirstYear and <= LastYear;
}
