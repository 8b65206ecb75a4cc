using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Seasons;

namespace Garten.Server.Commands;

/// <summary>How much of each thing a command may hold.</summary>
internal static class Limits
{
    /// <summary>Characters of a name or a label.</summary>
    public const int LongestName = 200;

    /// <summary>Characters of a grid cell.</summary>
    public const int LongestCell = 20;

    /// <summary>Characters of a note.</summary>
    public const int LongestNote = 10_000;

    /// <summary>Characters of a taught term.</summary>
    public const int LongestTerm = 200;

    /// <summary>Characters of what is said to find a plant again, or of what threatens it.</summary>
    public const int LongestFinding = 2000;

    /// <summary>Looks or weighings in one command.</summary>
    public const int MostObservations = 5_000;
}

/// <summary>Says why a command is refused.</summary>
internal static class Refusal
{
    /// <summary>A refusal to throw.</summary>
    /// <param name="status">The HTTP status of it, 409 or 422.</param>
    /// <param name="code">Its stable name.</param>
    /// <param name="title">What is wrong.</param>
    /// <param name="detail">What to do.</param>
    /// <param name="field">Where in the command.</param>
    public static CommandRefusedException Of(int status, string code, string title, string detail, string field) =>
        new(new ProblemReport(title, status, code, detail, field));
}

/// <summary>What is checked of the commands of several features.</summary>
internal static class Check
{
    // The oldest date a record may carry: before it, dates belong to another calendar.
    private static readonly DateOnly OldestDate = new(1753, 1, 1);

    /// <summary>Reads a day that may be in the future.</summary>
    public static DateOnly Date(string text, string field)
    {
        if (!DayText.TryRead(text, out var date))
            throw Refusal.Of(
                422,
                "date.invalid",
                "There is no such date.",
                "Give the day as year-month-day, for example 2026-05-31.",
                field
            );
        if (date < OldestDate)
            throw Refusal.Of(422, "date.too-old", "This date is too long ago.", $"Give a day from {OldestDate:yyyy-MM-dd} on.", field);
        return date;
    }

    /// <summary>None of these ids is missing.</summary>
    public static void Ids(params (Guid Id, string Field)[] ids)
    {
        foreach (var (id, field) in ids)
        {
            if (id == Guid.Empty)
                throw Refusal.Of(422, "record.id", "An id is missing.", "Make a new UUID (version 7) for it.", field);
        }
    }

    /// <summary>A text is there where it must be, not too long, and nothing that PostgreSQL can't keep.</summary>
    public static void Text(string text, string field, string what, int longest, bool required)
    {
        if (required && string.IsNullOrWhiteSpace(text))
            throw Refusal.Of(422, field + ".missing", $"{what} is missing.", "Fill it in.", field);
        if (text.Length > longest)
            throw Refusal.Of(
                422,
                field + ".too-long",
                $"{what} is too long.",
                $"It may have {longest} characters; it has {text.Length}.",
                field
            );
        // PostgreSQL keeps no NUL in a text.
        if (text.Contains('\0', StringComparison.Ordinal))
            throw Refusal.Of(422, field + ".binary", $"{what} isn't plain text.", "Remove the NUL character.", field);
    }

    /// <summary>A day as it is said in a message.</summary>
    public static string Spoken(DateOnly day) => day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);
}
