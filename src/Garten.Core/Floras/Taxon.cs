using System.Text.Json.Serialization;
using Garten.Core.Seasons;

namespace Garten.Core.Floras;

/// <summary>Why a plant wants care before it is handled.</summary>
[JsonConverter(typeof(CamelCaseWords<Caution>))]
public enum Caution
{
    /// <summary>Poisonous if any part gets into the mouth.</summary>
    Poisonous,

    /// <summary>Sap, hairs or thorns hurt the skin or the eyes.</summary>
    Irritant,

    /// <summary>Protected: not to be picked, cut or dug up.</summary>
    Protected,

    /// <summary>Invasive: not to be carried or spread.</summary>
    Invasive,

    /// <summary>Its pollen or its touch brings on an allergy.</summary>
    Allergenic,
}

/// <summary>How a taxon came to the region.</summary>
[JsonConverter(typeof(CamelCaseWords<Origin>))]
public enum Origin
{
    /// <summary>Not said.</summary>
    Unsaid,

    /// <summary>By itself.</summary>
    Native,

    /// <summary>By people.</summary>
    Introduced,

    /// <summary>Nobody knows.</summary>
    Doubtful,
}

/// <summary>When a taxon shows an organ: half-months of the year, 1 (first half of January) to 24.</summary>
/// <param name="Phase">What it is doing.</param>
/// <param name="From">The first half-month.</param>
/// <param name="To">The last one; before <paramref name="From"/> where it runs over the new year.</param>
public sealed record PhaseSpan(Phenophase Phase, int From, int To)
{
    /// <summary>Whether a half-month lies in it.</summary>
    public bool Holds(int halfMonth) => From <= To ? halfMonth >= From && halfMonth <= To : halfMonth >= From || halfMonth <= To;

    /// <summary>The half-month of a day, 1 to 24.</summary>
    public static int HalfMonth(DateOnly day) => (day.Month - 1) * 2 + (day.Day <= 15 ? 1 : 2);
}

/// <summary>What is known of a taxon besides its form. Everything may be empty.</summary>
/// <param name="Synonyms">Other scientific names.</param>
/// <param name="CommonNames">All its common names.</param>
/// <param name="Meaning">What its epithet means.</param>
/// <param name="GrowthForm">tree, shrub, climber, herb, grass, fern, aquatic …</param>
/// <param name="Origin">How it came here.</param>
/// <param name="Establishment">established, naturalised, casual, planted.</param>
/// <param name="IsSensitive">Whether its exact places are kept back.</param>
/// <param name="Habitats">Where it grows.</param>
/// <param name="ElevationFrom">Lowest metre above the sea; null where unknown.</param>
/// <param name="ElevationTo">Highest metre.</param>
/// <param name="Cells">Grid cells that it is recorded in.</param>
/// <param name="LookAlikes">Ids of the taxa that it is mistaken for, of any family.</param>
/// <param name="Parents">Of a hybrid: ids of its parents; of an aggregate: empty.</param>
/// <param name="Members">Of an aggregate: ids of its members.</param>
/// <param name="Phenology">When which organ can be seen on it here.</param>
/// <param name="KeyMarks">What to know it by, in a few words each.</param>
public sealed record TaxonFacts(
    IReadOnlyList<string> Synonyms,
    IReadOnlyList<string> CommonNames,
    string Meaning,
    string GrowthForm,
    Origin Origin,
    string Establishment,
    bool IsSensitive,
    IReadOnlyList<string> Habitats,
    int? ElevationFrom,
    int? ElevationTo,
    IReadOnlyList<string> Cells,
    IReadOnlyList<string> LookAlikes,
    IReadOnlyList<string> Parents,
    IReadOnlyList<string> Members,
    IReadOnlyList<PhaseSpan> Phenology,
    IReadOnlyList<string> KeyMarks
)
{
    /// <summary>Kinds of places in which it is planted: street, garden, hedge, wood (<see cref="PlaceKinds"/>); empty where nothing is
    /// said.</summary>
    public IReadOnlyList<string> PlantedIn { get; init; } = [];

    /// <summary>What it says of the ground that it grows on; null where the flora gives no such values.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public SiteIndication? Indication { get; init; }

    /// <summary>Nothing known.</summary>
    public static TaxonFacts None { get; } = new([], [], "", "", Origin.Unsaid, "", false, [], null, null, [], [], [], [], [], []);
}

/// <summary>A taxon of a flora.</summary>
/// <param name="Id">Stable identity within the flora, such as <c>vellorna-alba</c>.</param>
/// <param name="Name">Scientific name without authorship.</param>
/// <param name="Authorship">Who published it; empty where unknown.</param>
/// <param name="Rank">Its rank as a word: genus, species, subspecies …</param>
/// <param name="Parent">Id of the taxon above it; empty at the top.</param>
/// <param name="Family">Name of its family.</param>
/// <param name="CommonName">A common name; empty where it has none.</param>
/// <param name="Cautions">Why it wants care; empty for most.</param>
/// <param name="CautionNote">What the cautions mean for this plant, in a sentence; empty where there are none.</param>
/// <param name="Facts">What else is known; null for a bare name.</param>
public sealed record Taxon(
    string Id,
    string Name,
    string Authorship,
    string Rank,
    string Parent,
    string Family,
    string CommonName,
    IReadOnlyList<Caution> Cautions,
    string CautionNote,
    TaxonFacts? Facts = null
);
