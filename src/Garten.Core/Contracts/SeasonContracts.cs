using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Seasons;
using Garten.Core.Visits;

namespace Garten.Core.Contracts;

/// <summary>A window of a need.</summary>
/// <param name="From">Its first day of the year, 1 to 365; 29 February counts as the 28th.</param>
/// <param name="To">Its last one; before the first one where it runs over the new year.</param>
public sealed record NeedWindow(int From, int To);

/// <summary>Something that a visit is to answer.</summary>
/// <param name="Id">Identity; each need has one of its own.</param>
/// <param name="Place">Where, by any name.</param>
/// <param name="Windows">When: any of them will do.</param>
public sealed record RequestedNeed(string Id, string Place, IReadOnlyList<NeedWindow>? Windows = null);

/// <summary>Needs for which the fewest visits are wanted.</summary>
/// <param name="From">The first day of the 365 to plan, <c>YYYY-MM-DD</c>.</param>
/// <param name="Needs">The needs.</param>
public sealed record VisitsRequest(string From, IReadOnlyList<RequestedNeed>? Needs = null)
{
    /// <summary>Most needs of one request.</summary>
    public const int MostNeeds = 5000;

    private const int MostWindows = 50;
    private const int LongestText = 200;

    /// <summary>Plans them.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public VisitsResponse Plan()
    {
        if (string.IsNullOrEmpty(From)) throw new RequestException("from", "Say from which day on: year-month-day, for example 2026-05-31.");
        var from = SiftRequest.DayOf(From, "from")!.Value;
        // The last visit lies within a year of it.
        if (from.Year is < 1753 or > 9900) throw new RequestException("from", "This day is too far from today to plan from.");
        if (Needs?.Count > MostNeeds) throw new RequestException("needs", $"Up to {MostNeeds} needs are planned at a time.");
        var ids = new HashSet<string>(StringComparer.Ordinal);
        var needs = new List<VisitNeed>();
        foreach (var need in Needs ?? [])
        {
            var here = string.Create(CultureInfo.InvariantCulture, $"needs[{needs.Count}]");
            if (need is null) throw new RequestException(here, "A need is missing.");
            if (string.IsNullOrEmpty(need.Id) || need.Id.Length > LongestText) throw new RequestException($"{here}.id", $"A need has an id of 1 to {LongestText} characters.");
            if (!ids.Add(need.Id)) throw new RequestException($"{here}.id", $"The id “{need.Id}” is given twice.");
            if (string.IsNullOrEmpty(need.Place) || need.Place.Length > LongestText) throw new RequestException($"{here}.place", $"A need has a place of 1 to {LongestText} characters.");
            if (need.Windows?.Count > MostWindows) throw new RequestException($"{here}.windows", $"A need has up to {MostWindows} windows.");
            needs.Add(new VisitNeed(need.Id, need.Place, [.. (need.Windows ?? []).Select((w, at) => Window(w, string.Create(CultureInfo.InvariantCulture, $"{here}.windows[{at}]")))]));
        }
        var plan = VisitPlan.Of(from, needs);
        return new VisitsResponse([.. plan.Visits.Select(v => new RequestedVisit(v.Place, v.Day, v.Date, v.Needs, v.Earliest, v.Latest))], plan.IsOptimal, plan.Unanswerable);
    }

    private static DayWindow Window(NeedWindow? window, string here)
    {
        if (window is null) throw new RequestException(here, "A window is missing.");
        if (!DayOfYear.IsOne(window.From)) throw new RequestException($"{here}.from", "A day of the year is 1 to 365; a window has at least one day.");
        if (!DayOfYear.IsOne(window.To)) throw new RequestException($"{here}.to", "A day of the year is 1 to 365; a window has at least one day.");
        return new DayWindow(window.From, window.To);
    }
}

/// <summary>A day at a place.</summary>
/// <param name="Place">The place.</param>
/// <param name="Day">Its day of the year, 1 to 365.</param>
/// <param name="Date">The date.</param>
/// <param name="Needs">Ids of the needs that it answers; each stands at one visit.</param>
/// <param name="Earliest">The first date on which it would answer the same.</param>
/// <param name="Latest">The last one.</param>
public sealed record RequestedVisit(string Place, int Day, DateOnly Date, IReadOnlyList<string> Needs, DateOnly Earliest, DateOnly Latest);

/// <summary>The fewest visits.</summary>
/// <param name="Visits">Those whose windows close first at the front.</param>
/// <param name="Optimal">Whether it is certain that no fewer will do.</param>
/// <param name="Unanswerable">Ids of needs without a window: they can't be answered at their place.</param>
public sealed record VisitsResponse(IReadOnlyList<RequestedVisit> Visits, bool Optimal, IReadOnlyList<string> Unanswerable);

/// <summary>A plant of which something is still to be seen, by what stood for its name when it was last confirmed.</summary>
/// <param name="PlantId">The plant.</param>
/// <param name="Label">What it is called; may be empty.</param>
/// <param name="PlaceId">Where it grows.</param>
/// <param name="PlaceName">Name of that place.</param>
/// <param name="PlaceCaution">What to mind there; may be empty.</param>
/// <param name="Name">The name it has.</param>
/// <param name="Grade">How well that stands.</param>
/// <param name="Needs">What is open, and when it can be seen.</param>
/// <param name="Cautions">What to mind before it is touched.</param>
public sealed record OpenPlant(Guid PlantId, string Label, Guid PlaceId, string PlaceName, string PlaceCaution, string Name, Grade Grade, IReadOnlyList<OpenNeed> Needs, IReadOnlyList<CautionLine> Cautions)
{
    /// <summary>What is open of it, as needs of visits at its place.</summary>
    public IEnumerable<VisitNeed> AsVisitNeeds() => Needs.Select(n => new VisitNeed($"{PlantId} {n.Id}", PlaceId.ToString(), n.Windows));
}
