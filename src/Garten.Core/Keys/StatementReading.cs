using Garten.Core.Quantities;

namespace Garten.Core.Keys;

/// <summary>What a statement claims of one character.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="States">Ids of the states that it allows: one or the other; empty for a measure.</param>
/// <param name="Range">The cut that it makes; null for states.</param>
/// <param name="Modality">How often it holds, above 0 to 1; see <see cref="Characters.Modality"/>.</param>
public sealed record StatementClaim(string Character, IReadOnlyList<string> States, QuantityRange? Range, double Modality);

/// <summary>What a part of a statement's text was read as.</summary>
public enum StatementPartKind
{
    /// <summary>Names the organ or part.</summary>
    Noun,

    /// <summary>Names a state.</summary>
    State,

    /// <summary>A measure or count.</summary>
    Quantity,

    /// <summary>How often it holds.</summary>
    Modality,

    /// <summary>Denies what follows, or stands before it.</summary>
    Negation,
}

/// <summary>A part of a statement's text.</summary>
/// <param name="At">Index of its first character, from 0.</param>
/// <param name="Length">How many characters.</param>
/// <param name="Kind">What it was read as.</param>
public sealed record StatementPart(int At, int Length, StatementPartKind Kind);

/// <summary>A statement and its reading.</summary>
/// <param name="Text">As typed.</param>
/// <param name="Claims">What it claims; empty where it stays text.</param>
/// <param name="Parts">What its parts were read as, in the order of the text.</param>
/// <param name="IsCorrected">Whether a person has set the reading.</param>
public sealed record StatementReading(
    string Text,
    IReadOnlyList<StatementClaim> Claims,
    IReadOnlyList<StatementPart> Parts,
    bool IsCorrected = false
);

/// <summary>A word or phrase that a person has taught for a state.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="State">Id of the state.</param>
/// <param name="Term">The word or phrase.</param>
public sealed record TaughtTerm(string Character, string State, string Term);

/// <summary>The reading that a person has set for a statement, wherever it stands in just these words.</summary>
/// <param name="Text">The statement as typed.</param>
/// <param name="Claims">Its claims; empty: it stays text.</param>
public sealed record CorrectedStatement(string Text, IReadOnlyList<StatementClaim> Claims);
