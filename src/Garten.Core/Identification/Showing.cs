using Garten.Core.Floras;
using Garten.Core.Seasons;

namespace Garten.Core.Identification;

/// <summary>
/// Whether a taxon shows on a day what can be seen in some phases: by its own phenology where that speaks of a phase, else by the region's
/// seasons. Resting buds, buds that are set and bare twigs are had by woody plants alone; a rosette that is green in winter shows what
/// leaves show.
/// </summary>
public static class Showing
{
    private static readonly HashSet<string> Woody = new(StringComparer.OrdinalIgnoreCase)
    {
        "tree",
        "shrub",
        "dwarf",
        "low shrub",
        "dwarf shrub",
        "climber",
        "",
    };

    /// <summary>Whether a taxon may have wood: a climber, and what isn't said, may.</summary>
    public static bool MayBeWoody(TaxonFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return Woody.Contains(facts.GrowthForm);
    }

    /// <summary>Whether a character is one of wood: of twigs, buds or bark.</summary>
    public static bool IsOfWood(Characters.Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        return character.Organ is Characters.Organ.Twig or Characters.Organ.Bud or Characters.Organ.Bark;
    }

    /// <summary>Whether a phase belongs to woody plants alone.</summary>
    public static bool IsOfWood(Phenophase phase) =>
        phase is Phenophase.RestingBud or Phenophase.BudsSet or Phenophase.BareTwig or Phenophase.DeadLeavesHeld;

    /// <summary>Whether it shows any of some phases in a half-month.</summary>
    /// <param name="facts">What is known of the taxon.</param>
    /// <param name="phases">The phases, any of which will do.</param>
    /// <param name="halfMonth">1 to 24.</param>
    /// <param name="seasons">When phases last in the region.</param>
    public static bool Can(TaxonFacts facts, IReadOnlyList<Phenophase> phases, int halfMonth, IReadOnlyList<PhaseWindow> seasons)
    {
        ArgumentNullException.ThrowIfNull(facts);
        ArgumentNullException.ThrowIfNull(phases);
        ArgumentNullException.ThrowIfNull(seasons);
        var own = facts.Phenology;
        foreach (var phase in phases)
        {
            if (IsOfWood(phase) && !MayBeWoody(facts))
                continue;
            var isKnown = false;
            foreach (var span in own)
            {
                // What is green in winter has leaves to look at.
                var isIt = span.Phase == phase;
                if ((isIt || phase == Phenophase.FullLeaf && span.Phase == Phenophase.WinterGreen) && span.Holds(halfMonth))
                    return true;
                isKnown |= isIt;
            }
            if (isKnown || IsOver(phase, own))
                continue;
            foreach (var window in seasons)
            {
                if (window.Phase == phase && window.Holds(SeasonWords.Middle(halfMonth)))
                    return true;
            }
        }
        return false;
    }

    /// <summary>Whether a phase that a taxon's own phenology doesn't speak of can be told from it: of one whose fruit has its time, none
    /// persists unless that is said.</summary>
    public static bool IsOver(Phenophase phase, IReadOnlyList<PhaseSpan> own)
    {
        ArgumentNullException.ThrowIfNull(own);
        return phase == Phenophase.FruitPersisting && own.Any(s => s.Phase is Phenophase.RipeFruit);
    }
}
