using System.Globalization;

namespace Garten.Server.Hosting;

/// <summary>A clock that stands on a pinned day, for tests and pictures; its hours go on.</summary>
internal sealed class Today(TimeSpan ahead) : TimeProvider
{
    /// <summary>A clock for a day; null where none is pinned.</summary>
    /// <param name="day">The day, <c>YYYY-MM-DD</c>.</param>
    /// <exception cref="FormatException">It isn't a day.</exception>
    public static Today? Pinned(string? day)
    {
        if (string.IsNullOrEmpty(day))
            return null;
        if (!DateOnly.TryParseExact(day, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var date))
            throw new FormatException($"“{day}” is no day; write it as 2026-05-31.");
        return new Today(TimeSpan.FromDays(date.DayNumber - DateOnly.FromDateTime(DateTime.Now).DayNumber));
    }

    /// <inheritdoc />
    public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + ahead;
}
