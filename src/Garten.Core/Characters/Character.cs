using System.Text.Json.Serialization;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Characters;

/// <summary>The organs by which the evidence sheet is ordered.</summary>
[JsonConverter(typeof(CamelCaseWords<Organ>))]
public enum Organ
{
    /// <summary>The whole plant.</summary>
    Habit,

    /// <summary>Bark of trunk and branches.</summary>
    Bark,

    /// <summary>Twigs of this and the last year.</summary>
    Twig,

    /// <summary>Resting buds.</summary>
    Bud,

    /// <summary>Leaves.</summary>
    Leaf,

    /// <summary>Stems of plants that aren't woody.</summary>
    Stem,

    /// <summary>The arrangement of the flowers.</summary>
    Inflorescence,

    /// <summary>Single flowers.</summary>
    Flower,

    /// <summary>Fruit and seed.</summary>
    Fruit,

    /// <summary>What is below ground.</summary>
    Underground,

    /// <summary>Where it grows.</summary>
    Site,
}

/// <summary>What values a character has.</summary>
[JsonConverter(typeof(CamelCaseWords<CharacterKind>))]
public enum CharacterKind
{
    /// <summary>States without an order.</summary>
    Categorical,

    /// <summary>States in an order: neighbours are misread more easily.</summary>
    Ordered,

    /// <summary>Things counted.</summary>
    Count,

    /// <summary>A length.</summary>
    Length,

    /// <summary>One measure over another.</summary>
    Ratio,

    /// <summary>An angle.</summary>
    Angle,
}

/// <summary>What is needed to see or measure it.</summary>
[JsonConverter(typeof(CamelCaseWords<Tool>))]
public enum Tool
{
    /// <summary>Nothing.</summary>
    Eye,

    /// <summary>Binoculars, for what is high up.</summary>
    Binoculars,

    /// <summary>A hand lens.</summary>
    Lens,

    /// <summary>A ruler, or a calibrated object.</summary>
    Ruler,

    /// <summary>A knife.</summary>
    Knife,

    /// <summary>A microscope.</summary>
    Microscope,
}

/// <summary>What is done to the plant to see it, from least to most.</summary>
[JsonConverter(typeof(CamelCaseWords<Handling>))]
public enum Handling
{
    /// <summary>Nothing.</summary>
    Look,

    /// <summary>It is touched.</summary>
    Touch,

    /// <summary>A leaf or twig is taken.</summary>
    TakeAPiece,

    /// <summary>A part is cut.</summary>
    Cut,

    /// <summary>It is dug up.</summary>
    Uproot,
}

/// <summary>A state of a character.</summary>
/// <param name="Id">Stable identity within the character.</param>
/// <param name="Name">Its name.</param>
/// <param name="Definition">What it means; may be empty.</param>
/// <param name="Terms">Words and phrases that keys and floras use for it.</param>
/// <param name="Broader">Id of the state that it is a kind of: two-ranked is a kind of alternate; null for one that is a kind of
/// none.</param>
/// <param name="DrawnAs">"apex.acute": the state of a quality whose drawing shows it too; null where it has its own, or none.</param>
/// <param name="Picture">A small picture of it as a data address; null for none.</param>
public sealed record CharacterState(
    string Id,
    string Name,
    string Definition,
    IReadOnlyList<string> Terms,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Broader = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? DrawnAs = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Picture = null
);

/// <summary>Something of a plant that is looked at, measured or counted.</summary>
/// <param name="Id">Stable identity within the flora.</param>
/// <param name="Name">Its name.</param>
/// <param name="Organ">Where it is looked for.</param>
/// <param name="Kind">What values it has.</param>
/// <param name="States">Its states, for categorical and ordered ones; else empty.</param>
/// <param name="Nouns">Nouns that name the part it is a property of.</param>
/// <param name="Measures">Words that name its dimension: long, wide, high.</param>
/// <param name="Reliability">Probability that a careful observer scores it right; above 0, below 1.</param>
/// <param name="Detection">Probability that what is there is found when it is looked for.</param>
/// <param name="EffortSeconds">How long a look takes.</param>
/// <param name="Tool">What is needed.</param>
/// <param name="Handling">What is done to the plant.</param>
/// <param name="SeenIn">Phenophases in which it can be seen; empty: always.</param>
/// <param name="Needs">Exists only where another character has one of these states; null: always.</param>
/// <param name="Family">Measures of one thing, of which at most two are independent: length, width and their ratio; may be empty.</param>
/// <param name="SizeGroup">Sizes that vary together on a plant; may be empty.</param>
/// <param name="RatioOf">For a ratio: the measured characters that it derives from, dividend first; else empty.</param>
/// <param name="MeasuredFrom">From where to where it is measured, in words; may be empty.</param>
/// <param name="Unit">Unit of numbers that are typed without one, and in which its values are shown: mm, cm, m; may be empty.</param>
/// <param name="Definition">What it is; may be empty.</param>
/// <param name="Trap">What it is easily misjudged by; may be empty.</param>
/// <param name="TrendOf">For a trend up the stem: the measured character whose series it derives from, see <see cref="Trend"/>; else
/// empty.</param>
public sealed record Character(
    string Id,
    string Name,
    Organ Organ,
    CharacterKind Kind,
    IReadOnlyList<CharacterState> States,
    IReadOnlyList<string> Nouns,
    IReadOnlyList<string> Measures,
    double Reliability,
    double Detection,
    int EffortSeconds,
    Tool Tool,
    Handling Handling,
    IReadOnlyList<Phenophase> SeenIn,
    Applicability? Needs = null,
    string Family = "",
    string SizeGroup = "",
    IReadOnlyList<string>? RatioOf = null,
    string MeasuredFrom = "",
    string Unit = "",
    string Definition = "",
    string Trap = "",
    string TrendOf = ""
)
{
    /// <summary>Id of the state of a trend: it falls from low to top, stays level, or rises.</summary>
    /// <param name="direction">Below 0: it falls; 0: level; above 0: it rises.</param>
    public static string Trend(int direction) =>
        direction < 0 ? "falling"
        : direction > 0 ? "rising"
        : "level";

    /// <summary>Whether it is measured or counted.</summary>
    [JsonIgnore]
    public bool IsQuantity => Kind is not (CharacterKind.Categorical or CharacterKind.Ordered);

    /// <summary>The kind of number it has.</summary>
    /// <exception cref="InvalidOperationException">It has states instead.</exception>
    [JsonIgnore]
    public QuantityKind Quantity =>
        Kind switch
        {
            CharacterKind.Count => QuantityKind.Count,
            CharacterKind.Length => QuantityKind.Length,
            CharacterKind.Ratio => QuantityKind.Ratio,
            CharacterKind.Angle => QuantityKind.Angle,
            _ => throw new InvalidOperationException($"The character {Id} has states, not numbers."),
        };

    /// <summary>Whether it can be seen on a day, by the windows of a region. A phase without a window never holds.</summary>
    public bool CanBeSeen(DateOnly day, IReadOnlyList<PhaseWindow> windows)
    {
        ArgumentNullException.ThrowIfNull(windows);
        return SeenIn.Count == 0 || windows.Any(w => SeenIn.Contains(w.Phase) && w.Holds(day));
    }

    /// <summary>Place of a state among the states; -1 where it has none of this id.</summary>
    public int IndexOf(string state)
    {
        for (var i = 0; i < States.Count; i++)
        {
            if (States[i].Id == state)
                return i;
        }
        return -1;
    }

    /// <summary>Places of a state and of all states that are kinds of it.</summary>
    /// <param name="state">Place of the state.</param>
    public IReadOnlyList<int> Within(int state) => _kinds.Of(this)[state];

    /// <summary>Whether a state is another one or a kind of it; false where either isn't a state of it.</summary>
    public bool IsKindOf(string state, string broader) =>
        state == broader || IndexOf(state) is >= 0 and var own && IndexOf(broader) is >= 0 and var above && IsKind(own, above);

    /// <summary>Whether what has the one state may have the other: the same, or one is a kind of the other.</summary>
    public bool MayBe(string state, string other) => IsKindOf(state, other) || IsKindOf(other, state);

    private readonly Kinds _kinds = new();

    // Worked out when it is first asked for; no part of what a character is.
    private sealed class Kinds
    {
        private (IReadOnlyList<CharacterState> States, int[][] Within)? _known;

        public int[][] Of(Character character)
        {
            if (_known is { } known && ReferenceEquals(known.States, character.States))
                return known.Within;
            var within = new int[character.States.Count][];
            var isFlat = character.States.All(s => s.Broader is null);
            for (var i = 0; i < within.Length; i++)
                within[i] = isFlat ? [i] : [.. Enumerable.Range(0, within.Length).Where(s => character.IsKind(s, i))];
            _known = (character.States, within);
            return within;
        }

        public override bool Equals(object? obj) => obj is Kinds;

        public override int GetHashCode() => 0;
    }

    private bool IsKind(int state, int broader)
    {
        for (var steps = 0; state >= 0 && steps <= States.Count; steps++)
        {
            if (state == broader)
                return true;
            state = States[state].Broader is { } next ? IndexOf(next) : -1;
        }
        return false;
    }
}

/// <summary>A character exists only where another one has one of some states.</summary>
public sealed record Applicability(string Character, IReadOnlyList<string> States);
