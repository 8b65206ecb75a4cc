using Garten.Core.Confirmation;

namespace Garten.Core.Contracts;

/// <summary>Something that a visit is to answer: a character of a plant, a count that is due, fruit to come.</summary>
/// <param name="Id">Its identity: that of the subject with that of the need.</param>
/// <param name="Need">What is to be seen, and when it can be.</param>
/// <param name="Name">Scientific name of what grows there.</param>
/// <param name="Label">The plant's tag or the population's name; empty where there is none.</param>
/// <param name="PlaceId">The place.</param>
/// <param name="PlaceName">Its name.</param>
/// <param name="PlaceCaution">What to mind there; empty where nothing is said.</param>
/// <param name="Cautions">What to mind before it is touched.</param>
/// <param name="SubjectId">The plant or the population.</param>
/// <param name="IsOfPopulation">Whether that is a population.</param>
/// <param name="Grade">How well the plant's name stands; null for a population.</param>
/// <param name="LookedOn">The day on which the plant was last confirmed; null for a population.</param>
/// <param name="IsSensitive">Whether its place is kept back in whatever leaves the program.</param>
public sealed record OpenQuestion(
    string Id,
    OpenNeed Need,
    string Name,
    string Label,
    Guid PlaceId,
    string PlaceName,
    string PlaceCaution,
    IReadOnlyList<CautionLine> Cautions,
    Guid SubjectId,
    bool IsOfPopulation,
    Grade? Grade,
    DateOnly? LookedOn,
    bool IsSensitive
)
{
    /// <summary>The questions of a plant, in the order of its needs.</summary>
    public static IEnumerable<OpenQuestion> Of(OpenPlant plant)
    {
        ArgumentNullException.ThrowIfNull(plant);
        return plant.Needs.Select(n => new OpenQuestion(
            $"{plant.PlantId} {n.Id}",
            n,
            plant.Name,
            plant.Label,
            plant.PlaceId,
            plant.PlaceName,
            plant.PlaceCaution,
            plant.Cautions,
            plant.PlantId,
            false,
            plant.Grade,
            plant.LookedOn,
            plant.IsSensitive
        ));
    }

    /// <summary>The questions of a population: counts that are due, fruit to come.</summary>
    public static IEnumerable<OpenQuestion> Of(PopulationDetail population)
    {
        ArgumentNullException.ThrowIfNull(population);
        return population.Summary.Due.Select(n => new OpenQuestion(
            $"{population.Id} {n.Id}",
            n,
            population.Taxon,
            population.Name,
            population.Place.Id,
            population.Place.Name,
            population.Place.Caution,
            population.Cautions,
            population.Id,
            true,
            null,
            null,
            population.IsSensitive
        ));
    }

    /// <summary>What to mind on the way and there, each said once.</summary>
    public static IReadOnlyList<string> CautionsOf(IEnumerable<OpenQuestion> questions)
    {
        ArgumentNullException.ThrowIfNull(questions);
        var all = questions.ToList();
        return [.. all.Select(q => q.PlaceCaution).Concat(CautionsOfTaxa(all)).Where(c => c.Length > 0).Distinct(StringComparer.Ordinal)];
    }

    /// <summary>What to mind of the taxa alone, each said once: nothing of it tells the place.</summary>
    public static IReadOnlyList<string> CautionsOfTaxa(IEnumerable<OpenQuestion> questions)
    {
        ArgumentNullException.ThrowIfNull(questions);
        return [.. questions.SelectMany(q => q.Cautions).Select(c => c.Note).Where(c => c.Length > 0).Distinct(StringComparer.Ordinal)];
    }
}
