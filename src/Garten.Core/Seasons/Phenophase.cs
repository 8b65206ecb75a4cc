using System.Text.Json.Serialization;

namespace Garten.Core.Seasons;

/// <summary>What a plant is doing at a time of the year.</summary>
[JsonConverter(typeof(CamelCaseWords<Phenophase>))]
public enum Phenophase
{
    /// <summary>Shoots come up or lengthen.</summary>
    ShootsUp,

    /// <summary>Resting buds, from their forming until they break.</summary>
    RestingBud,

    /// <summary>Leaf buds opening.</summary>
    LeafBudOpening,

    /// <summary>In flower.</summary>
    Flower,

    /// <summary>Full-grown leaves.</summary>
    FullLeaf,

    /// <summary>Leaves colour and fall.</summary>
    AutumnColour,

    /// <summary>Bare twigs.</summary>
    BareTwig,

    /// <summary>Young fruit.</summary>
    YoungFruit,

    /// <summary>Ripe fruit.</summary>
    RipeFruit,

    /// <summary>Fruit, or what is left of it, still on the plant or beneath.</summary>
    FruitPersisting,

    /// <summary>Buds that are set in the axils of leaves, from midsummer: how they stand and what covers them can be seen, not yet how they
    /// are coloured and haired in winter.</summary>
    BudsSet,

    /// <summary>Leaves or a rosette that stay green through the winter, or come up in autumn.</summary>
    WinterGreen,

    /// <summary>Dead leaves held on the twigs through the winter.</summary>
    DeadLeavesHeld,

    /// <summary>Died back to the ground.</summary>
    DiedBack,

    /// <summary>Ripe spores.</summary>
    RipeSpores,
}

/// <summary>When a phenophase lasts in a region.</summary>
/// <param name="Phase">The phenophase.</param>
/// <param name="FromMonth">Month of its first day, 1 to 12.</param>
/// <param name="FromDay">Day in that month.</param>
/// <param name="ToMonth">Month of its last day; before the first one where the window runs over the new year.</param>
/// <param name="ToDay">Day in that month.</param>
public sealed record PhaseWindow(Phenophase Phase, int FromMonth, int FromDay, int ToMonth, int ToDay)
{
    /// <summary>Whether a day lies in it; first and last day belong to it.</summary>
    public bool Holds(DateOnly day)
    {
        var (at, from, to) = (day.Month * 100 + day.Day, FromMonth * 100 + FromDay, ToMonth * 100 + ToDay);
        return from <= to ? at >= from && at <= to : at >= from || at <= to;
    }
}
