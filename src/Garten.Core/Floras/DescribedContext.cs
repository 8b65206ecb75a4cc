using System.Text.Json.Serialization;
using Garten.Core.Quantities;

namespace Garten.Core.Floras;

/// <summary>Where on a plant, on which plant or in which of its ages a description holds. What isn't marked holds of full-grown parts of
/// grown plants in the sun.</summary>
[JsonConverter(typeof(CamelCaseWords<DescribedContext>))]
public enum DescribedContext
{
    /// <summary>Young parts, those of this year.</summary>
    Young,

    /// <summary>Old, worn or fading parts.</summary>
    Old,

    /// <summary>Low on the plant: rosette and lower stem leaves.</summary>
    Low,

    /// <summary>At the top: upper stem leaves, leaves of the flowering shoot.</summary>
    Top,

    /// <summary>In the shade.</summary>
    Shade,

    /// <summary>Seedlings.</summary>
    Seedling,

    /// <summary>Saplings and plants that don't flower yet.</summary>
    Sapling,

    /// <summary>Shoots from a cut, from the trunk or from roots.</summary>
    Coppice,

    /// <summary>Male plants or flowers.</summary>
    Male,

    /// <summary>Female plants or flowers.</summary>
    Female,
}

/// <summary>What a taxon is like in one character in one context.</summary>
/// <param name="When">The context.</param>
/// <param name="States">The states it has there; empty for a measured character.</param>
/// <param name="Range">Its range there; null for one with states.</param>
public sealed record ContextCell(DescribedContext When, IReadOnlyList<StateShare> States, QuantityRange? Range = null);

/// <summary>States that stand on one plant together: rosette leaves and stem leaves, simple hairs and forked ones.</summary>
/// <param name="States">Ids of the states, two or more.</param>
/// <param name="Share">Share of the plants that show them all, above 0 to 1.</param>
public sealed record StateSet(IReadOnlyList<string> States, double Share);

/// <summary>The words by which contexts are marked in a table: <c>@young densely hairy</c>.</summary>
public static class ContextWords
{
    private static readonly Dictionary<string, DescribedContext> ByMark = Enum.GetValues<DescribedContext>()
        .ToDictionary(c => c.ToString().ToLowerInvariant(), c => c, StringComparer.OrdinalIgnoreCase);

    /// <summary>All marks, in their order.</summary>
    public static IReadOnlyCollection<string> Marks => ByMark.Keys;

    /// <summary>The context of a mark, without its @; null where there is none.</summary>
    public static DescribedContext? OfMark(string mark) => ByMark.TryGetValue(mark, out var context) ? context : null;

    /// <summary>How a description goes on: "when young", "on male plants".</summary>
    public static string InWords(DescribedContext context) =>
        context switch
        {
            DescribedContext.Young => "when young",
            DescribedContext.Old => "when old",
            DescribedContext.Low => "low on the plant",
            DescribedContext.Top => "at the top",
            DescribedContext.Shade => "in the shade",
            DescribedContext.Seedling => "on seedlings",
            DescribedContext.Sapling => "on saplings",
            DescribedContext.Coppice => "on shoots from a cut",
            DescribedContext.Male => "on male plants",
            _ => "on female plants",
        };
}
