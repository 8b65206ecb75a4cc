using System.Globalization;
using Garten.Core.Seasons;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Server.Features.SiteVisits;

/// <summary>A place in the list of visits: the visit after which the next page begins.</summary>
internal sealed record SiteVisitCursor(DateOnly Date, string StartedAt, Guid Id)
{
    /// <summary>Reads where a page is to begin; null for the first one.</summary>
    /// <returns>False where something was given that isn't a cursor.</returns>
    public static bool TryRead(string? after, out SiteVisitCursor? cursor)
    {
        cursor = null;
        if (after is not { Length: > 0 })
            return true;
        if (
            after.Split('_') is [var date, var time, var id]
            && DayText.TryRead(date, out var day)
            && (time.Length == 0 || VisitEffort.Minute(time) is not null)
            && Guid.TryParse(id, out var visit)
        )
            cursor = new SiteVisitCursor(day, time, visit);
        return cursor is not null;
    }

    /// <inheritdoc />
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"{Date:yyyy-MM-dd}_{StartedAt}_{Id:D}");
}
