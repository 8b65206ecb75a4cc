using Garten.Server.Commands;

namespace Garten.Server.Features.Plants;

/// <summary>What is checked of everything that is found of a plant.</summary>
internal static class PlantCheck
{
    /// <summary>Nothing is of a day before the plant was tagged.</summary>
    public static void NotBeforeTag(PlantRow? plant, DateOnly date, string field)
    {
        if (plant?.TaggedOn is { } tagged && date < tagged)
            throw Refusal.Of(
                422,
                "evidence.before-tag",
                "This is from before the plant was tagged.",
                $"“{plant.Label}” was tagged on {Check.Spoken(tagged)}. Give that day or a later one, or set the day of the tag right first.",
                field
            );
    }
}
