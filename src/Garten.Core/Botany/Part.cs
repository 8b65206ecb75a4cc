using System.Text.Json.Serialization;
using Garten.Core.Characters;
using Garten.Core.Seasons;

namespace Garten.Core.Botany;

/// <summary>What a part is like in space: it says which qualities the part can have.</summary>
[JsonConverter(typeof(CamelCaseWords<PartClass>))]
public enum PartClass
{
    /// <summary>A whole plant.</summary>
    Plant,

    /// <summary>Long and carrying others: a stem, a twig, a stalk.</summary>
    Axis,

    /// <summary>Flat, with two faces: a leaf, a petal, a scale.</summary>
    Blade,

    /// <summary>Solid: a fruit, a bud, an ovary.</summary>
    Body,

    /// <summary>Several together: an inflorescence, a crown, a calyx.</summary>
    Set,

    /// <summary>Thin and long: a hair, a vein, a stamen.</summary>
    Line,

    /// <summary>A patch or scar of a surface.</summary>
    Mark,

    /// <summary>A hollow: pith, throat, groove.</summary>
    Cavity,

    /// <summary>What covers another part: bark, the coat of a seed.</summary>
    Surface,

    /// <summary>The edge of a blade.</summary>
    Edge,

    /// <summary>The far end of a part.</summary>
    Tip,

    /// <summary>The near end of a part.</summary>
    Base,

    /// <summary>What flows: sap.</summary>
    Fluid,

    /// <summary>Where the plant grows.</summary>
    Place,
}

/// <summary>A part of plants.</summary>
/// <param name="Id">Stable identity: small letters and hyphens.</param>
/// <param name="Parent">The part that it is a part of; empty for one that many parts have (<paramref name="Owners"/>) and for the whole
/// plant.</param>
/// <param name="Class">What it is like in space.</param>
/// <param name="Organ">The organ of the evidence sheet under which it is shown.</param>
/// <param name="Owners">For one that many parts have: ids of the parts that can have it, or "any"; else empty.</param>
/// <param name="Nouns">Its nouns, the singular of its usual one first, its plural second where it has one; no other part has one of
/// them.</param>
/// <param name="Groups">Groups of plants of which alone the nouns mean this part; empty: of all.</param>
/// <param name="SeenIn">Phenophases in which it can be seen; empty: always.</param>
/// <param name="Tool">What is needed to see it.</param>
/// <param name="Handling">What is done to the plant to see it.</param>
/// <param name="Definition">What it is.</param>
/// <param name="ReplacedBy">Id of the part that it was merged into; null for one in use.</param>
public sealed record Part(
    string Id,
    string Parent,
    PartClass Class,
    Organ Organ,
    IReadOnlyList<string> Owners,
    IReadOnlyList<string> Nouns,
    IReadOnlyList<string> Groups,
    IReadOnlyList<Phenophase> SeenIn,
    Tool Tool,
    Handling Handling,
    string Definition,
    string? ReplacedBy = null
)
{
    /// <summary>Stands among owners for a part that any other one can have.</summary>
    public const string AnyOwner = "any";

    /// <summary>Its name: the singular of its usual noun.</summary>
    [JsonIgnore]
    public string Name => Nouns[0];

    /// <summary>Its name for several: its second noun, or the first one again.</summary>
    [JsonIgnore]
    public string Plural => Nouns.Count > 1 ? Nouns[1] : Nouns[0];

    /// <summary>Whether it is one that several parts have and none before others, so that its owner has to be said.</summary>
    [JsonIgnore]
    public bool IsOwned => Owners.Count > 0 && Parent.Length == 0;
}
