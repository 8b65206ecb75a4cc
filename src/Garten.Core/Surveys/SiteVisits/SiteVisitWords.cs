using Garten.Core.Evidence;
using Garten.Core.Seasons;

namespace Garten.Core.Surveys.SiteVisits;

/// <summary>The words of visits and their lists.</summary>
public static class SiteVisitWords
{
    /// <summary>How much, as a word: "frequent".</summary>
    public static string Of(Abundance abundance) => abundance.ToString().ToLowerInvariant();

    /// <summary>Wild or planted, as a word.</summary>
    public static string Of(WildOrPlanted growth) =>
        growth == WildOrPlanted.Unsure ? "wild or planted, unsure" : growth.ToString().ToLowerInvariant();

    /// <summary>What was counted, in the number that goes with it.</summary>
    public static string Of(CountUnit unit, int count) => CountWords.Of(unit, count);

    /// <summary>A sex as a word; "both sexes" for both.</summary>
    public static string Of(PartSex sex) => sex == PartSex.Both ? "both sexes" : sex.ToString().ToLowerInvariant();

    /// <summary>What it is doing: "in flower".</summary>
    public static string Of(Phenophase phase) =>
        phase switch
        {
            Phenophase.ShootsUp => "shooting",
            Phenophase.RestingBud => "in resting bud",
            Phenophase.LeafBudOpening => "buds opening",
            Phenophase.Flower => "in flower",
            Phenophase.FullLeaf => "in leaf",
            Phenophase.AutumnColour => "in autumn colour",
            Phenophase.BareTwig => "leafless",
            Phenophase.YoungFruit => "in young fruit",
            Phenophase.RipeFruit => "in ripe fruit",
            Phenophase.BudsSet => "with buds set",
            Phenophase.WinterGreen => "green in winter",
            Phenophase.DeadLeavesHeld => "holding dead leaves",
            Phenophase.DiedBack => "died back",
            Phenophase.RipeSpores => "with ripe spores",
            _ => "with old fruit",
        };
}
