using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Evidence;

/// <summary>What a sheet says of one character in one kind of light, its looks put together.</summary>
/// <param name="Character">The character.</param>
/// <param name="States">Places of the states seen among the character's; empty for readings.</param>
/// <param name="Together">Whether all of them are on the plant.</param>
/// <param name="NotFound">Looked for and not found.</param>
/// <param name="Sample">The readings; null for states.</param>
/// <param name="Show">Of a stand: how many show it.</param>
/// <param name="Of">Of a stand: how many were looked at.</param>
/// <param name="Sureness">The surest of its looks.</param>
/// <param name="Larger">Whether leaves are larger here than in the sun.</param>
/// <param name="Weight">Exponent of its likelihood; 0 where it doesn't count.</param>
/// <param name="Reason">Why it counts less, or not, or is judged otherwise; empty for most.</param>
/// <param name="FromCouplets">The couplets that it was noted at; empty where it was looked at by itself.</param>
/// <param name="Follows">Whether it only follows from other measures: it adds nothing to them, but a key may ask for it.</param>
public sealed partial record EvidenceItem(
    Character Character,
    IReadOnlyList<int> States,
    bool Together,
    bool NotFound,
    Sample? Sample,
    int Show,
    int Of,
    Sureness Sureness,
    bool Larger,
    double Weight,
    string Reason,
    IReadOnlyList<string> FromCouplets,
    bool Follows = false
)
{
    /// <summary>What the context of the look does to it.</summary>
    public LookContext Context { get; init; } = LookContext.Usual;

    /// <summary>Scorings of the same character in other contexts: one plant may be hairy when young and bald when old, so all are weighed
    /// together, under one true state.</summary>
    public IReadOnlyList<EvidenceItem> Elsewhere { get; init; } = [];

    /// <summary>Exponent of this scoring among others in the same context; 1 where it is alone there.</summary>
    public double Part { get; init; } = 1;

    /// <summary>Whether the plant was searched for more and nothing more was found.</summary>
    public bool Searched { get; init; }

    /// <summary>Per state of the character how probable what was seen is on a plant that truly has it, where that isn't a scoring of
    /// states; else null.</summary>
    public IReadOnlyList<double>? Given { get; init; }

    /// <summary>What was seen, where it follows from the circumstances of other looks; else empty.</summary>
    public string Derived { get; init; } = "";

    /// <summary>Whether what was seen is one state or another: no sum over sets of states is needed, nor one over a stand.</summary>
    public bool IsPlain => Given is not null || Sample is null && Of == 0 && !Searched && (NotFound || !Together || States.Count < 2);

    /// <summary>
    /// f of what was seen on a plant that hasn't the part at all: 1 where nothing was seen (a count of 0, looked for and not found, the
    /// state
    /// that says so), else 0.
    /// </summary>
    public double WithoutThePart =>
        NotFound || Sample is { Largest: 0 } || Sample is null && States.Count == 1 && States[0] == AbsentState(Character) ? 1 : 0;

    /// <summary>The state that means that the part isn't there; -1 where the character has none.</summary>
    public static int AbsentState(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        for (var i = 0; i < character.States.Count; i++)
        {
            if (
                character.States[i].Id is "absent" or "none"
                || character.States[i].Id.StartsWith("no-", StringComparison.Ordinal)
                || character.States[i].Id.StartsWith("not-", StringComparison.Ordinal)
            )
                return i;
        }
        return -1;
    }

    /// <summary>What was seen, in words and figures.</summary>
    public string InWords()
    {
        if (Sample is { } sample)
        {
            var kind = Character.Quantity;
            var of =
                sample.Count > 1
                    ? $" (mean of {sample.Count}, {ReadingText.Show(sample.Least, kind)} to {ReadingText.Show(sample.Largest, kind)})"
                    : "";
            var there = string.Join("", Context.Described.Select(c => ", " + ContextWords.InWords(c)));
            return ReadingText.Show(sample.Mean, kind) + of + there;
        }
        if (Derived.Length > 0)
            return Derived;
        if (NotFound)
            return $"{Character.Name}: looked for, not found";
        var states = string.Join(Together ? " and " : " or ", States.Select(s => Character.States[s].Name));
        var seen = Of > 0 ? $"{states}: {Show} of {Of}" : states;
        var where = string.Join(", ", Context.Described.Select(ContextWords.InWords));
        return string.Join("; ", [where.Length > 0 ? $"{seen} {where}" : seen, .. Elsewhere.Select(e => e.InWords())]);
    }
}
