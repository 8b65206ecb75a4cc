using System.Text.Json.Serialization;
using Garten.Core.Characters;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Evidence;

/// <summary>How sure the observer is.</summary>
[JsonConverter(typeof(CamelCaseWords<Sureness>))]
public enum Sureness
{
    /// <summary>Sure.</summary>
    Sure,

    /// <summary>Fairly sure.</summary>
    Fairly,

    /// <summary>A guess.</summary>
    Guess,
}

/// <summary>What came of a look.</summary>
[JsonConverter(typeof(CamelCaseWords<Outcome>))]
public enum Outcome
{
    /// <summary>Seen, measured or counted.</summary>
    Seen,

    /// <summary>Looked for and not found: counts as absent, with the probability that it would have been found.</summary>
    NotFound,

    /// <summary>It couldn't be reached; says nothing about the plant.</summary>
    OutOfReach,
}

/// <summary>Where on the plant.</summary>
[JsonConverter(typeof(CamelCaseWords<Position>))]
public enum Position
{
    /// <summary>Not said.</summary>
    Unsaid,

    /// <summary>Low down.</summary>
    Low,

    /// <summary>In the middle.</summary>
    Middle,

    /// <summary>At the top.</summary>
    Top,
}

/// <summary>In which light the part grew.</summary>
[JsonConverter(typeof(CamelCaseWords<Light>))]
public enum Light
{
    /// <summary>Not said: taken for sun.</summary>
    Unsaid,

    /// <summary>In the sun.</summary>
    Sun,

    /// <summary>In the shade.</summary>
    Shade,
}

/// <summary>How old the plant is.</summary>
[JsonConverter(typeof(CamelCaseWords<Stage>))]
public enum Stage
{
    /// <summary>Not said: taken for adult.</summary>
    Unsaid,

    /// <summary>A seedling.</summary>
    Seedling,

    /// <summary>A sapling.</summary>
    Sapling,

    /// <summary>Juvenile.</summary>
    Juvenile,

    /// <summary>Adult.</summary>
    Adult,
}

/// <summary>How old the part is.</summary>
[JsonConverter(typeof(CamelCaseWords<PartAge>))]
public enum PartAge
{
    /// <summary>Not said.</summary>
    Unsaid,

    /// <summary>Young or this year's.</summary>
    Young,

    /// <summary>Full-grown or fresh.</summary>
    Grown,

    /// <summary>Old, worn or faded.</summary>
    Old,
}

/// <summary>What was done to the plant.</summary>
[JsonConverter(typeof(CamelCaseWords<Shaping>))]
public enum Shaping
{
    /// <summary>Nothing that is known.</summary>
    Unsaid,

    /// <summary>Browsed.</summary>
    Browsed,

    /// <summary>Mown.</summary>
    Mown,

    /// <summary>Clipped or trained.</summary>
    Clipped,

    /// <summary>Resprouting from a cut, or a shoot from trunk or root.</summary>
    Resprouting,

    /// <summary>Suffering from drought.</summary>
    Drought,
}

/// <summary>What the look was taken at.</summary>
[JsonConverter(typeof(CamelCaseWords<Material>))]
public enum Material
{
    /// <summary>Not said: taken for fresh.</summary>
    Unsaid,

    /// <summary>Fresh.</summary>
    Fresh,

    /// <summary>Wilted.</summary>
    Wilted,

    /// <summary>Pressed and dried.</summary>
    Pressed,

    /// <summary>A photograph.</summary>
    Photograph,
}

/// <summary>What has harmed the part.</summary>
[JsonConverter(typeof(CamelCaseWords<Damage>))]
public enum Damage
{
    /// <summary>Nothing that is known.</summary>
    Unsaid,

    /// <summary>A gall.</summary>
    Gall,

    /// <summary>A fungus.</summary>
    Fungus,

    /// <summary>Eaten or mined.</summary>
    Eaten,
}

/// <summary>How thoroughly it was looked.</summary>
[JsonConverter(typeof(CamelCaseWords<Search>))]
public enum Search
{
    /// <summary>A glance: what was seen is there, more may be.</summary>
    Unsaid,

    /// <summary>The plant was searched: there is no more than was seen.</summary>
    Searched,
}

/// <summary>Whether the part is the plant's own.</summary>
[JsonConverter(typeof(CamelCaseWords<Attachment>))]
public enum Attachment
{
    /// <summary>Not said: taken for attached.</summary>
    Unsaid,

    /// <summary>On the plant.</summary>
    Attached,

    /// <summary>Lying beneath it.</summary>
    Beneath,

    /// <summary>Perhaps a neighbour's.</summary>
    PerhapsNeighbours,
}

/// <summary>How many crowns reach over the spot where something lay beneath.</summary>
[JsonConverter(typeof(CamelCaseWords<CrownsAbove>))]
public enum CrownsAbove
{
    /// <summary>Not said.</summary>
    Unsaid,

    /// <summary>Only the plant's own.</summary>
    One,

    /// <summary>Two, the plant's own among them.</summary>
    Two,

    /// <summary>Three, the plant's own among them.</summary>
    Three,

    /// <summary>Four or more, the plant's own among them.</summary>
    More,
}

/// <summary>Sex of the part.</summary>
[JsonConverter(typeof(CamelCaseWords<PartSex>))]
public enum PartSex
{
    /// <summary>Not said.</summary>
    Unsaid,

    /// <summary>Male.</summary>
    Male,

    /// <summary>Female.</summary>
    Female,

    /// <summary>Both.</summary>
    Both,
}

/// <summary>What a look is to be judged by. All is unsaid by default.</summary>
/// <param name="Position">Where on the plant.</param>
/// <param name="Light">In which light the part grew.</param>
/// <param name="Stage">How old the plant is.</param>
/// <param name="Age">How old the part is.</param>
/// <param name="Shaping">What was done to the plant.</param>
/// <param name="Attachment">Whether the part is the plant's own.</param>
/// <param name="Sex">Sex of the part.</param>
/// <param name="Material">What the look was taken at.</param>
/// <param name="Damage">What has harmed the part.</param>
/// <param name="Search">How thoroughly it was looked.</param>
/// <param name="Gathered">The day on which the material was gathered, where it was examined later (<c>YYYY-MM-DD</c>); else empty.</param>
/// <param name="Bag">Number of the bag or sheet that it was carried home in; may be empty.</param>
/// <param name="Crowns">Of what lay beneath: how many crowns reach over it.</param>
public sealed record ObservationContext(
    Position Position = Position.Unsaid,
    Light Light = Light.Unsaid,
    Stage Stage = Stage.Unsaid,
    PartAge Age = PartAge.Unsaid,
    Shaping Shaping = Shaping.Unsaid,
    Attachment Attachment = Attachment.Unsaid,
    PartSex Sex = PartSex.Unsaid,
    Material Material = Material.Unsaid,
    Damage Damage = Damage.Unsaid,
    Search Search = Search.Unsaid,
    string Gathered = "",
    string Bag = "",
    CrownsAbove Crowns = CrownsAbove.Unsaid
)
{
    /// <summary>Whether leaves are larger here than on adult sun shoots: in the shade, on vigorous saplings and on shoots from a cut. Those
    /// of seedlings are smaller.</summary>
    [JsonIgnore]
    public bool LeavesAreLarger => Light == Light.Shade || Stage is Stage.Sapling || Shaping is Shaping.Resprouting;
}

/// <summary>A look at one character of a plant. A fact: never changed, only superseded by another one.</summary>
/// <param name="Id">Identity, made by the device.</param>
/// <param name="Character">Id of the character.</param>
/// <param name="Outcome">What came of it.</param>
/// <param name="States">The states seen: one, or several of which it is one or the other; empty for readings.</param>
/// <param name="Together">Whether several states are all on the plant.</param>
/// <param name="Readings">The readings; empty for states.</param>
/// <param name="Show">Of a stand: how many plants show it; 0 for a single plant.</param>
/// <param name="Of">Of a stand: how many were looked at; 0 for a single plant.</param>
/// <param name="Sureness">How sure.</param>
/// <param name="Context">What it is to be judged by.</param>
/// <param name="Tool">What it was seen with.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Note">A note; may be empty.</param>
/// <param name="Supersedes">The observation that it corrects; null for a first one.</param>
/// <param name="Withdrawn">Whether it only takes the superseded one back.</param>
/// <param name="FromCouplet">The couplet whose statement it answers ("hash#3"); empty where it was looked at by itself.</param>
/// <param name="Vocabulary">Hash of the vocabulary that its character was made of; empty for characters of a flora, and for looks of before
/// this was noted.</param>
public sealed record Observation(
    Guid Id,
    string Character,
    Outcome Outcome,
    IReadOnlyList<string> States,
    bool Together,
    IReadOnlyList<Reading> Readings,
    int Show,
    int Of,
    Sureness Sureness,
    ObservationContext Context,
    Tool Tool,
    string Date,
    string Note,
    Guid? Supersedes = null,
    bool Withdrawn = false,
    string FromCouplet = "",
    string Vocabulary = ""
);

/// <summary>The observations of one plant that hold: those that no other one supersedes.</summary>
public static class EvidenceSheet
{
    /// <summary>What holds, in the order in which it was noted. Two that supersede the same one both hold.</summary>
    public static IReadOnlyList<Observation> Holding(IReadOnlyList<Observation> observations)
    {
        ArgumentNullException.ThrowIfNull(observations);
        var superseded = observations.Select(o => o.Supersedes).OfType<Guid>().ToHashSet();
        return [.. observations.Where(o => !superseded.Contains(o.Id) && !o.Withdrawn)];
    }

    // No id is longer.
    private const int LongestId = 200;

    // SHA-256 in hexadecimal digits.
    private const int LongestHash = 64;

    /// <summary>Whether an observation says something that isn't known here: a character, or a state of one. What else it says can't be
    /// checked then.</summary>
    /// <param name="observation">The observation.</param>
    /// <param name="character">Its character; null where it isn't known.</param>
    public static bool IsUnknown(Observation observation, Character? character)
    {
        ArgumentNullException.ThrowIfNull(observation);
        return !observation.Withdrawn
            && (character is null || !character.IsQuantity && observation.States.Any(s => character.IndexOf(s) < 0));
    }

    /// <summary>What is wrong with an observation whatever it is of, as a sentence; null where nothing is. Enough for one at a character
    /// that isn't known here.</summary>
    public static string? ProblemOfForm(Observation observation, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(observation);
        if (observation.Withdrawn)
            return observation.Supersedes is null ? "Say which observation is taken back." : null;
        if (!IsId(observation.Character))
            return "This is no id of a character.";
        if (!observation.States.All(IsId))
            return "This is no id of a state.";
        if (observation.Vocabulary.Length > LongestHash || !observation.Vocabulary.All(char.IsAsciiHexDigit))
            return "This is no hash of a vocabulary.";
        if (observation.Readings.Count > ReadingText.MostReadings)
            return $"Up to {ReadingText.MostReadings} readings belong to one observation.";
        if (observation.Outcome == Outcome.Seen && observation.States.Count == 0 && observation.Readings.Count == 0)
            return "Choose a state or enter a reading.";
        if (ProblemOfContext(observation) is { } ofContext)
            return ofContext;
        if (observation.Readings.Any(r => !double.IsFinite(r.Value) || r.Value < 0 || !double.IsFinite(r.Calibration + r.Resolution)))
            return "A reading is no number of 0 or more.";
        if (!DayText.TryRead(observation.Date, out var date))
            return "There is no such date.";
        return date > today ? "This date is in the future." : null;
    }

    private const int LongestBag = 40;

    // Gathering and examining are dated apart.
    private static string? ProblemOfContext(Observation observation)
    {
        if (observation.Context.Bag.Length > LongestBag)
            return $"A bag number has up to {LongestBag} characters.";
        if (observation.Context.Gathered.Length == 0)
            return null;
        if (!DayText.TryRead(observation.Context.Gathered, out var gathered))
            return "There is no such day of gathering.";
        return DayText.TryRead(observation.Date, out var examined) && gathered > examined ? "It was gathered after it was examined." : null;
    }

    private static bool IsId(string text) =>
        text.Length is > 0 and <= LongestId && text.All(c => char.IsAsciiLetterOrDigit(c) || c is '.' or '-' or '_' or '/');

    /// <summary>What is wrong with an observation, as a sentence; null where it can be kept.</summary>
    public static string? Problem(Observation observation, Character? character, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(observation);
        if (observation.Withdrawn)
            return observation.Supersedes is null ? "Say which observation is taken back." : null;
        if (character is null)
            return $"There is no character “{observation.Character}”.";
        if (character.IsQuantity && observation.States.Count > 0)
            return $"{character.Name} is measured; it has no states.";
        if (observation.States.FirstOrDefault(s => character.IndexOf(s) < 0) is { } unknown)
            return $"“{unknown}” is no state of {character.Name}.";
        if (observation.States.Distinct(StringComparer.Ordinal).Count() != observation.States.Count)
            return "A state is given twice.";
        if (observation.Outcome == Outcome.Seen && observation.States.Count == 0 && observation.Readings.Count == 0)
            return "Choose a state or enter a reading.";
        if (!character.IsQuantity && observation.Readings.Count > 0)
            return $"{character.Name} has states; it isn't measured.";
        if (observation.Readings.Count > ReadingText.MostReadings)
            return $"Up to {ReadingText.MostReadings} readings belong to one observation.";
        if (
            observation.Readings.Any(r =>
                !double.IsFinite(r.Value)
                || r.Value < 0
                || r.Calibration < 0
                || r.Resolution < 0
                || !double.IsFinite(r.Calibration + r.Resolution)
            )
        )
            return "A reading is no number of 0 or more.";
        if (character.Kind is CharacterKind.Length or CharacterKind.Ratio && observation.Readings.Any(r => r.Value <= 0))
            return "A length or a ratio of zero can't be measured; note that the part is absent instead.";
        if (character.Kind == CharacterKind.Length && observation.Readings.Any(r => r.Value > ReadingText.LongestLength))
            return "A reading is longer than any plant.";
        if (observation.Readings.Any(r => !ReadingText.IsWithinBounds(r, character.Quantity)))
            return $"A reading is beyond all that is measured of plants: {ReadingText.BoundsInWords(character.Quantity)}.";
        if (character.Kind == CharacterKind.Count && observation.Readings.Any(r => Math.Abs(r.Value - Math.Round(r.Value)) > 1e-9))
            return "A count is a whole number.";
        if (ProblemOfContext(observation) is { } ofContext)
            return ofContext;
        if (observation.Show < 0 || observation.Of < 0 || observation.Show > observation.Of)
            return "Of a stand, at most as many plants show it as were looked at.";
        if (!DayText.TryRead(observation.Date, out var date))
            return "There is no such date.";
        return date > today ? "This date is in the future." : null;
    }
}
