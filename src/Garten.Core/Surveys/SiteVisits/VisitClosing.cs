using System.Text.Json.Serialization;
using Garten.Core.Floras;
using Garten.Core.Seasons;

namespace Garten.Core.Surveys.SiteVisits;

/// <summary>How far a list goes.</summary>
[JsonConverter(typeof(CamelCaseWords<Completeness>))]
public enum Completeness
{
    /// <summary>Nobody said.</summary>
    Unsaid,

    /// <summary>Every taxon of the group that was noticed and could be named is on it.</summary>
    Complete,

    /// <summary>Some were passed over: nothing can be concluded from what isn't on it.</summary>
    Partial,
}

/// <summary>Something that was looked for on a visit and not found.</summary>
/// <param name="Taxon">Scientific name.</param>
/// <param name="Area">Where, in words or by compartment; may be empty.</param>
/// <param name="Minutes">How long was searched for it, in minutes; above 0.</param>
/// <param name="Observers">How many searched for it; at least 1.</param>
/// <param name="Note">A note; may be empty.</param>
public sealed record SoughtInVain(string Taxon, string Area, int Minutes, int Observers, string Note = "");

/// <summary>What was said at the end of a visit.</summary>
/// <param name="EndedAt">When it ended, <c>HH:mm</c>; empty where nobody looked at the clock.</param>
/// <param name="Completeness">How far the list goes.</param>
/// <param name="Group">The group that was listed ("vascular plants"); empty for all plants.</param>
/// <param name="Level">How fine ("to species, aggregates where critical"); may be empty.</param>
/// <param name="Sought">What was looked for in vain.</param>
/// <param name="Ticks">What was done for safety and cleanliness, as it stood on the list.</param>
/// <param name="Note">A note; may be empty.</param>
public sealed record VisitClosing(
    string EndedAt,
    Completeness Completeness,
    string Group,
    string Level,
    IReadOnlyList<SoughtInVain> Sought,
    IReadOnlyList<string> Ticks,
    string Note
);

/// <summary>What an absence may be concluded from.</summary>
public static class Absence
{
    /// <summary>Whether a taxon shows anything of itself on a day by the seasons of the flora: what shows nothing can't be looked for in
    /// vain. Null where the flora says nothing of its year.</summary>
    /// <param name="taxon">The taxon; null where the flora hasn't it.</param>
    /// <param name="day">The day.</param>
    public static bool? CanBeToldOn(Taxon? taxon, DateOnly day)
    {
        if (taxon?.Facts?.Phenology is not { Count: > 0 } year)
            return null;
        var at = DayOfYear.Of(day);
        return year.Any(s => DayWindow.OfHalfMonths(s.From, s.To).Holds(at));
    }
}
