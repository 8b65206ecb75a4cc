using Garten.Core.Confirmation;
using Garten.Core.Seasons;

namespace Garten.Core.Visits;

/// <summary>A question whose window has closed before anybody answered it.</summary>
/// <param name="Need">The question.</param>
/// <param name="Closed">The last day on which it could have been answered.</param>
/// <param name="Again">The next day on which it can.</param>
public sealed record SlippedNeed(OpenNeed Need, DateOnly Closed, DateOnly Again);

/// <summary>What became of the questions about a plant.</summary>
/// <param name="Answered">What was open before the last visit and isn't any more.</param>
/// <param name="Slipped">What could have been answered since, and can't for the time being.</param>
public sealed record VisitOutcome(IReadOnlyList<OpenNeed> Answered, IReadOnlyList<SlippedNeed> Slipped)
{
    /// <summary>Works it out.</summary>
    /// <param name="before">What was open when the plant was confirmed the time before; empty for the first time.</param>
    /// <param name="now">What has been open since it was last confirmed.</param>
    /// <param name="since">The day of that.</param>
    /// <param name="today">The day; not before <paramref name="since"/>.</param>
    public static VisitOutcome Of(IReadOnlyList<OpenNeed> before, IReadOnlyList<OpenNeed> now, DateOnly since, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(before);
        ArgumentNullException.ThrowIfNull(now);
        var answered = before.Where(b => now.All(n => n.Id != b.Id)).ToList();
        var slipped = new List<SlippedNeed>();
        var at = DayOfYear.Of(today);
        foreach (var need in now)
        {
            if (need.Windows.Count == 0 || need.Windows.Any(w => w.Holds(at)))
                continue;
            // The newest day before today that lay in a window.
            var closed = need.Windows.Max(w => today.AddDays(-DayOfYear.Between(w.To, at)));
            if (closed <= since)
                continue;
            slipped.Add(new SlippedNeed(need, closed, need.Windows.Min(w => DayOfYear.Next(today, w.From))));
        }
        return new VisitOutcome(answered, slipped);
    }
}
