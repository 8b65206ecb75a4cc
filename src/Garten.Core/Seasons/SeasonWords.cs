namespace Garten.Core.Seasons;

/// <summary>Times of the year in words.</summary>
public static class SeasonWords
{
    /// <summary>Half-months of a year.</summary>
    public const int HalfMonths = 24;

    private static readonly string[] Months =
    [
        "January",
        "February",
        "March",
        "April",
        "May",
        "June",
        "July",
        "August",
        "September",
        "October",
        "November",
        "December",
    ];

    /// <summary>A month: "May" for 5.</summary>
    /// <param name="month">1 to 12.</param>
    public static string Month(int month)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(month, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(month, Months.Length);
        return Months[month - 1];
    }

    /// <summary>A half-month: "early May" for 9, "late May" for 10.</summary>
    /// <param name="halfMonth">1 to 24.</param>
    public static string Of(int halfMonth)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(halfMonth, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(halfMonth, HalfMonths);
        return $"{(halfMonth % 2 == 1 ? "early" : "late")} {Months[(halfMonth - 1) / 2]}";
    }

    /// <summary>A day in the middle of a half-month, in a year without 29 February.</summary>
    /// <param name="halfMonth">1 to 24.</param>
    public static DateOnly Middle(int halfMonth) => new(2001, (halfMonth + 1) / 2, halfMonth % 2 == 1 ? 8 : 23);

    /// <summary>
    /// The first stretch of marked half-months at or behind one: "late May to early July"; "all year" where all are marked, "never" where
    /// none is.
    /// </summary>
    /// <param name="marked">24 half-months from early January.</param>
    /// <param name="from">Where to look from, 1 to 24.</param>
    public static string NextStretch(IReadOnlyList<bool> marked, int from)
    {
        ArgumentNullException.ThrowIfNull(marked);
        if (!marked.Contains(true))
            return "never";
        if (!marked.Contains(false))
            return "all year";
        bool At(int i) => marked[(i % HalfMonths + HalfMonths) % HalfMonths];
        var start = from - 1;
        while (!At(start))
            start++;
        var end = start;
        while (At(end + 1))
            end++;
        string Name(int i) => Of(i % HalfMonths + 1);
        return start == end ? Name(start) : $"{Name(start)} to {Name(end)}";
    }
}
