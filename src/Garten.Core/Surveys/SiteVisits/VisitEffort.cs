using System.Globalization;

namespace Garten.Core.Surveys.SiteVisits;

/// <summary>A time at which nobody searched.</summary>
/// <param name="From">When it began, <c>HH:mm</c>.</param>
/// <param name="To">When it ended, <c>HH:mm</c>; empty while it lasts.</param>
public sealed record VisitPause(string From, string To);

/// <summary>How long a visit lasted and how long was searched.</summary>
/// <param name="Minutes">From start to end, pauses too; null while there is no end.</param>
/// <param name="PausedMinutes">Of these without searching.</param>
/// <param name="SearchMinutes">The rest, of one person; null while there is no end.</param>
/// <param name="People">How many searched; at least 1.</param>
/// <param name="PersonMinutes">Minutes of searching, added up over the people; null while there is no end.</param>
public sealed record VisitEffort(int? Minutes, int PausedMinutes, int? SearchMinutes, int People, int? PersonMinutes)
{
    /// <summary>Works it out. Pauses that overlap count once, and only as far as they lie within the visit; one that still lasts ends
    /// with the visit.</summary>
    /// <param name="startedAt">When it began, <c>HH:mm</c>; empty where nobody said.</param>
    /// <param name="endedAt">When it ended, <c>HH:mm</c>; empty while it lasts.</param>
    /// <param name="pauses">When nobody searched.</param>
    /// <param name="people">How many searched; at least 1.</param>
    public static VisitEffort Of(string startedAt, string endedAt, IReadOnlyList<VisitPause> pauses, int people)
    {
        ArgumentNullException.ThrowIfNull(pauses);
        ArgumentOutOfRangeException.ThrowIfLessThan(people, 1);
        if (Minute(startedAt) is not { } start)
            return new VisitEffort(null, 0, null, people, null);
        var end = Minute(endedAt);
        var until = end ?? MinutesOfDay;
        var paused = 0;
        var counted = start;
        foreach (
            var (from, to) in pauses.Select(p => (From: Minute(p.From) ?? until, To: Minute(p.To) ?? end ?? start)).OrderBy(p => p.From)
        )
        {
            var (begins, ends) = (Math.Max(from, counted), Math.Min(to, until));
            if (ends <= begins)
                continue;
            paused += ends - begins;
            counted = ends;
        }
        var minutes = end - start;
        return new VisitEffort(minutes, paused, minutes - paused, people, (minutes - paused) * people);
    }

    /// <summary>Minutes of a day.</summary>
    public const int MinutesOfDay = 24 * 60;

    /// <summary>The minute of the day, 0 to 1,439, of a time written <c>HH:mm</c>; null where it is none.</summary>
    public static int? Minute(string? text) =>
        TimeOnly.TryParseExact(text, "HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var time)
            ? time.Hour * 60 + time.Minute
            : null;

    /// <summary>What is wrong with the times of a visit, as a field and a sentence; null where they can be so.</summary>
    public static (string Field, string Message)? Problem(string startedAt, string endedAt, IReadOnlyList<VisitPause> pauses)
    {
        ArgumentNullException.ThrowIfNull(startedAt);
        ArgumentNullException.ThrowIfNull(endedAt);
        ArgumentNullException.ThrowIfNull(pauses);
        var (start, end) = (Minute(startedAt), Minute(endedAt));
        if (startedAt.Length > 0 && start is null)
            return ("startedAt", "Write the time as hours and minutes: 09:40.");
        if (endedAt.Length > 0 && end is null)
            return ("endedAt", "Write the time as hours and minutes: 16:15.");
        if (start is null && end is not null)
            return ("startedAt", "Say when the visit began, or leave its end out too.");
        if (end < start)
            return ("endedAt", "The visit ends before it begins. One that runs past midnight is entered as two.");
        foreach (var pause in pauses)
        {
            if (Minute(pause.From) is not { } from || pause.To.Length > 0 && Minute(pause.To) is null)
                return ("pauses", "Write the times of a pause as hours and minutes: 12:30.");
            if (Minute(pause.To) < from)
                return ("pauses", $"The pause from {pause.From} ends before it begins.");
            if (start is null || from < start || end is { } last && (from > last || Minute(pause.To) > last))
                return ("pauses", $"The pause from {pause.From} lies outside the visit.");
        }
        return null;
    }

    /// <summary>In words: "2 h 10 min of searching by 2 people (4 h 20 min in all), 15 min of pauses"; empty while it isn't
    /// known.</summary>
    public string InWords()
    {
        if (SearchMinutes is not { } each)
            return "";
        var by = People > 1 ? $" by {People} people ({Long(PersonMinutes ?? 0)} in all)" : "";
        return $"{Long(each)} of searching{by}{(PausedMinutes > 0 ? $", {Long(PausedMinutes)} of pauses" : "")}";
    }

    private static string Long(int minutes) =>
        minutes < 60 ? string.Create(CultureInfo.InvariantCulture, $"{minutes} min")
        : minutes % 60 == 0 ? string.Create(CultureInfo.InvariantCulture, $"{minutes / 60} h")
        : string.Create(CultureInfo.InvariantCulture, $"{minutes / 60} h {minutes % 60} min");
}
