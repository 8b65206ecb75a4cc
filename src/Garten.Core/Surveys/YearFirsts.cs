using Garten.Core.Seasons;

namespace Garten.Core.Surveys;

/// <summary>That a phase was looked for on a plant on a day, and whether it was there.</summary>
/// <param name="Plant">The plant.</param>
/// <param name="Taxon">Scientific name that it bears.</param>
/// <param name="Phase">What was looked for.</param>
/// <param name="IsShown">Whether it was there; otherwise not yet.</param>
/// <param name="On">The day.</param>
/// <param name="Site">Where the plant grows; null where its height isn't known.</param>
public readonly record struct PhaseLook(Guid Plant, string Taxon, Phenophase Phase, bool IsShown, DateOnly On, SeasonSite? Site);

/// <summary>What began in a year on a plant.</summary>
/// <param name="Taxon">Scientific name.</param>
/// <param name="Phase">What began.</param>
/// <param name="NotYet">The last day on which it wasn't there.</param>
/// <param name="Seen">The day on which it was; later than <paramref name="NotYet"/>, by at most <see cref="YearLead.NotYetWithin"/>
/// days.</param>
/// <param name="Site">Where; null where its height isn't known.</param>
public sealed record SeasonFirst(string Taxon, Phenophase Phase, DateOnly NotYet, DateOnly Seen, SeasonSite? Site = null)
{
    /// <summary>
    /// The firsts among looks of one year: of each plant and phase the first day on which it was there, where shortly before it was looked
    /// for and wasn't.
    /// What was there at the first look may have begun at any time and is no first.
    /// </summary>
    /// <param name="looks">In any order; several plants and phases.</param>
    public static IReadOnlyList<SeasonFirst> Of(IEnumerable<PhaseLook> looks)
    {
        ArgumentNullException.ThrowIfNull(looks);
        var firsts = new List<SeasonFirst>();
        foreach (var own in looks.GroupBy(l => (l.Plant, l.Phase)))
        {
            if (own.Where(l => l.IsShown).Select(l => (DateOnly?)l.On).Min() is not { } seen)
                continue;
            if (
                own.Where(l => !l.IsShown && l.On < seen).Select(l => (DateOnly?)l.On).Max() is not { } notYet
                || !YearLead.IsFirst(notYet, seen)
            )
                continue;
            var any = own.First();
            firsts.Add(new SeasonFirst(any.Taxon, any.Phase, notYet, seen, any.Site));
        }
        return firsts;
    }
}
