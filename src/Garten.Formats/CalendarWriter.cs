using System.Globalization;
using System.Text;

namespace Garten.Formats;

/// <summary>A day in a calendar.</summary>
/// <param name="Id">Identity; the same event written again has the same.</param>
/// <param name="Date">The day.</param>
/// <param name="Summary">What it is, in a line.</param>
/// <param name="Location">Where.</param>
/// <param name="Description">What to do; may have several lines.</param>
public sealed record CalendarDay(string Id, DateOnly Date, string Summary, string Location, string Description);

/// <summary>Writes days as iCalendar (RFC 5545).</summary>
public static class CalendarWriter
{
    // RFC 5545, 3.1: a line has at most so many octets; longer ones go on in the next, which begins with a space.
    private const int LongestLine = 75;

    /// <summary>Writes them; lines end with CR LF.</summary>
    /// <param name="days">The days.</param>
    /// <param name="now">When it is written.</param>
    public static string Write(IEnumerable<CalendarDay> days, DateTimeOffset now)
    {
        ArgumentNullException.ThrowIfNull(days);
        var text = new StringBuilder();
        void Line(string line) => text.Append(Folded(line)).Append("\r\n");
        Line("BEGIN:VCALENDAR");
        Line("VERSION:2.0");
        Line("PRODID:-//Garten//Visits//EN");
        foreach (var day in days)
        {
            Line("BEGIN:VEVENT");
            Line($"UID:{Escaped(day.Id)}");
            Line(string.Create(CultureInfo.InvariantCulture, $"DTSTAMP:{now.UtcDateTime:yyyyMMdd'T'HHmmss'Z'}"));
            Line(string.Create(CultureInfo.InvariantCulture, $"DTSTART;VALUE=DATE:{day.Date:yyyyMMdd}"));
            Line(string.Create(CultureInfo.InvariantCulture, $"DTEND;VALUE=DATE:{day.Date.AddDays(1):yyyyMMdd}"));
            Line($"SUMMARY:{Escaped(day.Summary)}");
            Line($"LOCATION:{Escaped(day.Location)}");
            Line($"DESCRIPTION:{Escaped(day.Description)}");
            Line("END:VEVENT");
        }
        Line("END:VCALENDAR");
        return text.ToString();
    }

    private static string Escaped(string text) =>
        text.Replace("\\", "\\\\", StringComparison.Ordinal)
            .Replace(";", "\\;", StringComparison.Ordinal)
            .Replace(",", "\\,", StringComparison.Ordinal)
            .Replace("\r", "", StringComparison.Ordinal)
            .Replace("\n", "\\n", StringComparison.Ordinal);

    // Never within a character.
    private static string Folded(string line)
    {
        var folded = new StringBuilder();
        var octets = 0;
        foreach (var rune in line.EnumerateRunes())
        {
            if (octets + rune.Utf8SequenceLength > LongestLine)
            {
                folded.Append("\r\n ");
                octets = 1;
            }
            folded.Append(rune.ToString());
            octets += rune.Utf8SequenceLength;
        }
        return folded.ToString();
    }
}
