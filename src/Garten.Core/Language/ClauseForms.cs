using System.Collections.Immutable;
using Garten.Core.Botany;
using Garten.Core.Evidence;
using Garten.Core.Quantities;

namespace Garten.Core.Language;

/// <summary>A part with the part that has it.</summary>
/// <param name="Part">The part.</param>
/// <param name="Owner">The part that has it; null where it needs none.</param>
internal sealed record PartPlace(Part Part, Part? Owner);

/// <summary>What joins a predicate to the one before it.</summary>
internal enum Link
{
    /// <summary>Both hold.</summary>
    And,

    /// <summary>One or the other holds.</summary>
    Or,

    /// <summary>From the one to the other.</summary>
    To,
}

/// <summary>What stands before a predicate and holds of it.</summary>
internal readonly record struct Modifiers(bool IsDenied, double? Modality, bool IsRough, bool IsHardly, string Region, PartAge Age)
{
    public static Modifiers None { get; } = new(false, null, false, false, "", PartAge.Unsaid);
}

/// <summary>A predicate as it was read, before its sense is chosen.</summary>
/// <param name="Link">How it is joined to the one before it.</param>
/// <param name="Place">Of what it is said.</param>
/// <param name="Phrase">The term; empty for numbers and presence.</param>
/// <param name="Senses">What the term can mean.</param>
/// <param name="Quality">Of a number: the quality; else empty.</param>
/// <param name="Range">The number; null for terms.</param>
/// <param name="Presence">Whether the part is there; null where something else is said.</param>
/// <param name="With">What holds of it.</param>
/// <param name="IsOfHair">Whether it says something of the hairs of the part.</param>
/// <param name="IsEpithet">Whether it needn't be said: "with a long beak" has a beak, long or not.</param>
/// <param name="By">Constructions that don't show in the rest of it.</param>
/// <param name="Against">The part whose length its own is compared with; null where nothing is compared.</param>
internal sealed record Predicate(
    Link Link,
    PartPlace Place,
    string Phrase,
    IReadOnlyList<TermSense> Senses,
    string Quality,
    QuantityRange? Range,
    bool? Presence,
    Modifiers With,
    bool IsOfHair = false,
    Part? Against = null,
    bool IsEpithet = false,
    Construction By = Construction.None
)
{
    /// <summary>All constructions that it was read by.</summary>
    public Construction All
    {
        get
        {
            var all = By;
            if (Range is not null)
                all |= Construction.Numbers;
            else if (Against is not null)
                all |= Construction.Comparison;
            else if (Presence is null)
                all |= Construction.Predicates;
            if (With.Region.Length > 0)
                all |= Construction.Region;
            if (With.IsDenied || Presence == false)
                all |= Construction.Denial;
            if (With.Modality is not null || With.IsRough)
                all |= Construction.Frequency;
            if (With.Age != PartAge.Unsaid)
                all |= Construction.Age;
            if (Link != Link.And)
                all |= Construction.List;
            if (Place.Owner is not null)
                all |= Construction.PartOfPart;
            return all;
        }
    }
}

/// <summary>Predicates read up to a token.</summary>
internal sealed record Parse(int Next, ImmutableList<Predicate> Predicates);

/// <summary>A whole clause as it was read.</summary>
/// <param name="Predicates">What it says.</param>
/// <param name="Subject">The part that it is about.</param>
/// <param name="NamesSubject">Whether it names it itself.</param>
/// <param name="IsSubordinate">Whether the part is one of what was spoken of before ("the teeth", "its base").</param>
/// <param name="Face">The face that it makes the subject; else empty.</param>
internal sealed record ClauseForm(
    ImmutableList<Predicate> Predicates,
    PartPlace? Subject,
    bool NamesSubject,
    bool IsSubordinate,
    string Face = ""
);

/// <summary>What a clause can lean on.</summary>
/// <param name="Current">The part that was spoken of last; null where it isn't known.</param>
/// <param name="Main">The part that statement or lead is about; null where it isn't known.</param>
/// <param name="Region">The face that was made the subject ("underside"); else empty.</param>
/// <param name="Otherwise">The part that has what names no owner, where nothing else can have it; null where there is none.</param>
/// <param name="IsFirst">Whether the clause begins its statement.</param>
/// <param name="HasHairs">Whether the lead has spoken of hairs before.</param>
/// <param name="OfLead">Groups of plants that the lead names parts of.</param>
/// <param name="IsLoose">Whether words that aren't known are passed over and owners are guessed: for proposals alone.</param>
internal readonly record struct ClauseContext(
    PartPlace? Current,
    PartPlace? Main,
    string Region,
    PartPlace? Otherwise,
    bool IsFirst,
    bool HasHairs,
    IReadOnlySet<string> OfLead,
    bool IsLoose
);
