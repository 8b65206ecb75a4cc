using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Seasons;

namespace Garten.Core.Identification;

/// <summary>What is known of a place where a plant is looked at. Everything may be left out.</summary>
/// <param name="Cell">Its grid cell, such as <c>B2</c>; empty where unknown.</param>
/// <param name="Elevation">Metres above the sea.</param>
/// <param name="Habitats">What grows there: the habitats of the flora's list.</param>
public sealed record SiftPlace(string Cell = "", double? Elevation = null, IReadOnlyList<string>? Habitats = null);

/// <summary>How plausible a taxon is before anything of it is seen, and why.</summary>
/// <param name="Weight">From 0.01 to 1; 1 where nothing speaks against it.</param>
/// <param name="Reasons">What speaks against it, in sentences.</param>
public sealed record Plausibility(double Weight, IReadOnlyList<string> Reasons)
{
    // However unlikely a place is, plants get there.
    private const double Least = 0.01;

    private const double Neighbouring = 0.5;
    private const double Empty = 0.15;
    private const double OtherHabitat = 0.3;

    // Outside its range the weight halves with every so many metres.
    private const double HalvesPerMetres = 100;

    // An organ that the plant shows out of its time: a second flush and late flowers are seen, but seldom.
    private const double OutOfSeason = 0.2;

    // A cultivated form beside its species, a hybrid beside its parents; where it is planted it is as common as they are.
    private const double Form = 0.05;
    private const double Hybrid = 0.1;
    private const double FormPlanted = 0.6;

    // What is planted elsewhere gets into a wood or a hedge by seed alone; what isn't planted gets into streets and gardens so.
    private const double PlantedElsewhere = 0.15;
    private const double NotPlanted = 0.3;

    /// <summary>Weighs a taxon.</summary>
    /// <param name="taxon">The taxon.</param>
    /// <param name="place">Where the plant is; null where unknown.</param>
    /// <param name="day">The day it is looked at; null where unknown.</param>
    /// <param name="shown">The phenophases of organs that were seen on it: each inner list is one organ's, any of which will do.</param>
    /// <param name="seasons">When phases last in the region; null where unknown.</param>
    public static Plausibility Of(
        Taxon taxon,
        SiftPlace? place,
        DateOnly? day,
        IReadOnlyCollection<IReadOnlyList<Phenophase>> shown,
        IReadOnlyList<PhaseWindow>? seasons = null
    )
    {
        var reasons = new List<string>();
        return new Plausibility(WeightOf(taxon, place, day, shown, reasons, seasons ?? []), reasons);
    }

    /// <summary>Weighs a taxon; the reasons are put into words only where they are wanted.</summary>
    internal static double WeightOf(
        Taxon taxon,
        SiftPlace? place,
        DateOnly? day,
        IReadOnlyCollection<IReadOnlyList<Phenophase>> shown,
        List<string>? reasons,
        IReadOnlyList<PhaseWindow> seasons
    )
    {
        ArgumentNullException.ThrowIfNull(taxon);
        ArgumentNullException.ThrowIfNull(shown);
        var facts = taxon.Facts ?? TaxonFacts.None;
        var weight = 1d;
        void Against(double by, Func<string> reason)
        {
            weight *= by;
            reasons?.Add(reason());
        }
        var kinds = PlaceKinds.Of(place?.Habitats ?? []);
        var isPlantedHere = kinds.Any(k => facts.PlantedIn.Contains(k, StringComparer.Ordinal));
        if (taxon.Rank is "cultivar" or "form" || taxon.Rank == "hybrid" || facts.Parents.Count > 0)
        {
            if (isPlantedHere)
                Against(FormPlanted, () =>
                    $"It is planted here: {string.Join(", ", kinds)}; a cultivated form or a hybrid is common then."
                );
            else if (taxon.Rank is "cultivar" or "form")
                Against(Form, () => "A cultivated form is rare beside its species.");
            else
                Against(Hybrid, () => "A hybrid is rare beside its parents.");
        }
        else if (kinds.Count > 0 && facts.PlantedIn.Count > 0 && !isPlantedHere && facts.Establishment is "planted" or "casual")
            Against(PlantedElsewhere, () =>
                $"It is planted ({string.Join(", ", facts.PlantedIn)}), seldom found in a {string.Join(" or ", kinds)}."
            );
        else if (kinds.Any(k => k is "street" or "garden") && !isPlantedHere)
            Against(NotPlanted, () =>
                $"It isn’t known to be planted in a {string.Join(" or ", kinds.Where(k => k is "street" or "garden"))}."
            );
        if (place?.Cell is { Length: > 0 } cell && facts.Cells.Count > 0 && !facts.Cells.Contains(cell, StringComparer.OrdinalIgnoreCase))
        {
            if (facts.Cells.Any(c => AreNeighbours(c, cell)))
                Against(Neighbouring, () => $"Not recorded in {cell}, but beside it.");
            else
                Against(Empty, () => $"Not recorded in {cell} or beside it; a square may be unvisited.");
        }
        if (
            place?.Habitats is { Count: > 0 } here
            && facts.Habitats.Count > 0
            && !isPlantedHere
            && !here.Any(h => facts.Habitats.Contains(h, StringComparer.OrdinalIgnoreCase))
        )
            Against(OtherHabitat, () => $"Known from {string.Join(", ", facts.Habitats)}, not from {string.Join(", ", here)}.");
        if (place?.Elevation is { } metres)
        {
            var outside = Math.Max(0, Math.Max((facts.ElevationFrom ?? metres) - metres, metres - (facts.ElevationTo ?? metres)));
            if (outside > 0)
                Against(Math.Pow(0.5, outside / HalvesPerMetres), () =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{outside:0} m outside its range of {facts.ElevationFrom ?? 0} to {facts.ElevationTo ?? 0} m."
                    )
                );
        }
        if (day is { } on && facts.Phenology.Count > 0)
        {
            var half = PhaseSpan.HalfMonth(on);
            // Only of phases that are known of it: of the others nothing can be said.
            if (shown.Any(organ => facts.Phenology.Any(p => organ.Contains(p.Phase)) && !Showing.Can(facts, organ, half, seasons)))
                Against(OutOfSeason, () => "It shows what was seen at another time of the year.");
        }
        return Math.Max(weight, Least);
    }

    /// <summary>Whether two grid cells touch, also at a corner: column letters and a row number, such as B2 and C3.</summary>
    public static bool AreNeighbours(string first, string second) =>
        Split(first) is var (c1, r1)
        && Split(second) is var (c2, r2)
        && Math.Abs(c1 - c2) <= 1
        && Math.Abs(r1 - r2) <= 1
        && (c1, r1) != (c2, r2);

    /// <summary>Whether a text names a grid cell.</summary>
    public static bool IsCell(string text) => Split(text ?? "") is not null;

    private static (int Column, int Row)? Split(string cell)
    {
        var letters = 0;
        while (letters < cell.Length && char.IsAsciiLetter(cell[letters]))
            letters++;
        if (letters is 0 or > 3 || !int.TryParse(cell[letters..], NumberStyles.None, CultureInfo.InvariantCulture, out var row))
            return null;
        var column = 0;
        foreach (var letter in cell[..letters].ToUpperInvariant())
            column = column * 26 + letter - 'A' + 1;
        return (column, row);
    }
}
