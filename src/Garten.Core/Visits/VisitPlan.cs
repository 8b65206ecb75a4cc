using Garten.Core.Identification;
using Garten.Core.Seasons;

namespace Garten.Core.Visits;

/// <summary>Something that a visit is to answer: a character still missing, a count that is due.</summary>
/// <param name="Id">Identity; each need has one of its own.</param>
/// <param name="Place">Where; needs of one place can be answered by one visit.</param>
/// <param name="Windows">When: any one of these will do. Empty: it can't be answered there.</param>
public sealed record VisitNeed(string Id, string Place, IReadOnlyList<DayWindow> Windows);

/// <summary>A day at a place.</summary>
/// <param name="Place">The place.</param>
/// <param name="Day">Its day of the year, 1 to 365.</param>
/// <param name="Date">The date.</param>
/// <param name="Needs">What it answers; each need stands at one visit.</param>
/// <param name="Earliest">The first date on which it would answer the same.</param>
/// <param name="Latest">The last one: what it is for closes then.</param>
public sealed record PlannedVisit(string Place, int Day, DateOnly Date, IReadOnlyList<string> Needs, DateOnly Earliest, DateOnly Latest);

/// <summary>The fewest days that answer all needs.</summary>
/// <param name="Visits">The visits, those whose windows close first at the front.</param>
/// <param name="IsOptimal">Whether it is certain that no fewer will do.</param>
/// <param name="Unanswerable">Needs that have no window at their place.</param>
public sealed record VisitPlan(IReadOnlyList<PlannedVisit> Visits, bool IsOptimal, IReadOnlyList<string> Unanswerable)
{
    // What the search of all places together may take, in needs × days × steps: with 40 needs of 3 windows each it is done long before;
    // with
    // thousands it stops after some seconds.
    private const long MostWork = 400_000_000;
    private const int FewestSteps = 2;

    /// <summary>
    /// Plans the 365 days from a date, read as a circle. Any day can be put off until the first of the windows it serves closes, so the
    /// days on
    /// which windows close are all that have to be tried: the fewest of these that answer every need are looked for place by place. Each is
    /// then
    /// moved to the middle of what its windows share; of what is open already, to the middle of what is left of it.
    /// </summary>
    /// <param name="from">The first day.</param>
    /// <param name="needs">What is to be answered.</param>
    /// <param name="stop">Ends the planning.</param>
    /// <exception cref="ArgumentException">An id is given twice, or a window isn't one.</exception>
    public static VisitPlan Of(DateOnly from, IReadOnlyList<VisitNeed> needs, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(needs);
        if (needs.Select(n => n.Id).Distinct(StringComparer.Ordinal).Count() != needs.Count)
            throw new ArgumentException("An id is given twice.", nameof(needs));
        if (needs.Any(n => n.Windows.Any(w => !DayOfYear.IsOne(w.From) || !DayOfYear.IsOne(w.To))))
            throw new ArgumentException("A window runs from a day of the year to another.", nameof(needs));
        var start = DayOfYear.Of(from);
        var visits = new List<PlannedVisit>();
        var isOptimal = true;
        // One budget for the whole question, the small places first: what they leave is there for the large ones.
        var places = needs.Where(n => n.Windows.Count > 0).GroupBy(n => n.Place, StringComparer.Ordinal).OrderBy(g => g.Count()).ToList();
        var left = MostWork;
        for (var p = 0; p < places.Count; p++)
        {
            stop.ThrowIfCancellationRequested();
            var place = places[p];
            var here = place.ToList();
            // In the order of the days ahead.
            var days = here.SelectMany(n => n.Windows).Select(w => w.To).Distinct().OrderBy(d => DayOfYear.Between(start, d)).ToList();
            var sets = days.ConvertAll(d =>
                (IReadOnlyCollection<int>)[.. Enumerable.Range(0, here.Count).Where(n => here[n].Windows.Any(w => w.Holds(d)))]
            );
            var step = Math.Max(1, (long)here.Count * days.Count);
            var cover = SetCover.Find(
                here.Count,
                sets,
                null,
                (int)Math.Clamp(left / (places.Count - p) / step, FewestSteps, SetCover.UsualBudget),
                stop
            );
            left -= Math.Min(left, cover.Steps * step);
            isOptimal &= cover.IsOptimal;
            var open = Enumerable.Range(0, here.Count).ToHashSet();
            foreach (var chosen in cover.Chosen)
            {
                var answered = sets[chosen].Where(open.Contains).ToList();
                open.ExceptWith(answered);
                visits.Add(Visit(from, start, place.Key, days[chosen], answered.ConvertAll(n => here[n])));
            }
        }
        return new VisitPlan(
            [.. visits.OrderBy(v => v.Latest).ThenBy(v => v.Date).ThenBy(v => v.Place, StringComparer.Ordinal)],
            isOptimal,
            [.. needs.Where(n => n.Windows.Count == 0).Select(n => n.Id)]
        );
    }

    // The stretch around a day in which all of these can be answered, as days from the start of the horizon.
    private static PlannedVisit Visit(DateOnly from, int start, string place, int day, List<VisitNeed> needs)
    {
        int back = DayOfYear.Days - 1,
            forward = DayOfYear.Days - 1;
        foreach (var need in needs)
        {
            // Of several windows that hold the day the one that leaves most room.
            var window = need.Windows.Where(w => w.Holds(day)).MaxBy(w => w.Length)!;
            // What is open all the year closes on no day.
            if (window.Length == DayOfYear.Days)
                continue;
            back = Math.Min(back, DayOfYear.Between(window.From, day));
            forward = Math.Min(forward, DayOfYear.Between(day, window.To));
        }
        var ahead = DayOfYear.Between(start, day);
        // What of it lies before the horizon comes again only in a year: it is cut off where it is open now, or where the year ends.
        var (first, last) = (Math.Max(0, ahead - back), Math.Min(DayOfYear.Days - 1, ahead + forward));
        if (back + forward >= DayOfYear.Days)
            (first, last) = (0, DayOfYear.Days - 1);
        else if (ahead + forward >= DayOfYear.Days)
            (first, last) = (0, ahead + forward - DayOfYear.Days);
        // Where every day will do it may as well be the first.
        var middle = last - first == DayOfYear.Days - 1 ? first : first + (last - first) / 2;
        DateOnly On(int days) => DayOfYear.Next(from, DayOfYear.Add(start, days));
        return new PlannedVisit(place, DayOfYear.Add(start, middle), On(middle), [.. needs.Select(n => n.Id)], On(first), On(last));
    }

    /// <summary>What is lost of a visit's needs when it is made on another date.</summary>
    /// <param name="needs">What it was to answer.</param>
    /// <param name="date">The other date.</param>
    /// <returns>Ids of the needs that can't be answered then.</returns>
    public static IReadOnlyList<string> LostBy(IReadOnlyList<VisitNeed> needs, DateOnly date)
    {
        ArgumentNullException.ThrowIfNull(needs);
        var day = DayOfYear.Of(date);
        return [.. needs.Where(n => !n.Windows.Any(w => w.Holds(day))).Select(n => n.Id)];
    }
}
