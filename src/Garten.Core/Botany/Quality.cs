using System.Text.Json.Serialization;
using Garten.Core.Characters;

namespace Garten.Core.Botany;

/// <summary>A state of a quality, the same for every part that has the quality.</summary>
/// <param name="Id">Stable identity within the quality.</param>
/// <param name="Name">Its name.</param>
/// <param name="Broader">Id of the state that it is a kind of; empty for one that is a kind of none.</param>
/// <param name="Near">Id of a state of the same quality that it is easily taken for, though some keys tell them apart; may be
/// empty.</param>
/// <param name="Terms">The words for it, English and Latin-derived.</param>
/// <param name="Definition">What it means.</param>
/// <param name="ReplacedBy">Id of the state that it was merged into; null for one in use.</param>
/// <param name="DrawnAs">"apex.acute": the state whose drawing shows it too; null where it has its own, or none.</param>
/// <param name="Picture">A small picture of it as a data address (PNG or JPEG in base64), see <see cref="VocabularyCheck.LongestPicture"/>;
/// null for none.</param>
public sealed record QualityState(
    string Id,
    string Name,
    string Broader,
    string Near,
    IReadOnlyList<string> Terms,
    string Definition,
    string? ReplacedBy = null,
    string? DrawnAs = null,
    string? Picture = null
);

/// <summary>Something that many parts have: a shape, a number, a colour, hairs.</summary>
/// <param name="Id">Stable identity: small letters and hyphens.</param>
/// <param name="Name">Its name.</param>
/// <param name="Kind">What values it has.</param>
/// <param name="Applies">Classes and ids of the parts that usually have it, or "any"; "!seed:opposite/spiral" names states that a part of
/// these hasn't usually.</param>
/// <param name="Unit">Unit of numbers that are typed without one: mm, cm, m; may be empty.</param>
/// <param name="Measures">Words that name its dimension: long, wide.</param>
/// <param name="Reliability">Probability that a careful observer scores it right; above 0, below 1.</param>
/// <param name="Detection">Probability that what is there is found when it is looked for; above 0 to 1.</param>
/// <param name="EffortSeconds">How long a look takes.</param>
/// <param name="Tool">What is needed at least.</param>
/// <param name="Handling">What is done to the plant at least.</param>
/// <param name="Several">Whether a part may have several of its states at once, so that one doesn't exclude another one.</param>
/// <param name="Definition">What it is.</param>
/// <param name="Trap">What it is easily misjudged by.</param>
/// <param name="States">Its states; empty for a measured one.</param>
/// <param name="ReplacedBy">Id of the quality that it was merged into; null for one in use.</param>
public sealed record Quality(
    string Id,
    string Name,
    CharacterKind Kind,
    IReadOnlyList<string> Applies,
    string Unit,
    IReadOnlyList<string> Measures,
    double Reliability,
    double Detection,
    int EffortSeconds,
    Tool Tool,
    Handling Handling,
    bool Several,
    string Definition,
    string Trap,
    IReadOnlyList<QualityState> States,
    string? ReplacedBy = null
)
{
    /// <summary>Stands for all parts among those that have a quality.</summary>
    public const string AnyPart = "any";

    /// <summary>Whether it is measured or counted.</summary>
    [JsonIgnore]
    public bool IsQuantity => Kind is not (CharacterKind.Categorical or CharacterKind.Ordered);

    /// <summary>The state of this id; null where it has none.</summary>
    public QualityState? Find(string id)
    {
        foreach (var state in States)
        {
            if (state.Id == id)
                return state;
        }
        return null;
    }
}
