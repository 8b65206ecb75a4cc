using System.Text.Json.Serialization;
using Garten.Core.Evidence;
using Garten.Core.Quantities;

namespace Garten.Core.Language;

/// <summary>What a statement claims of one character.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="States">Ids of the states that it allows: one or the other; empty for a measure.</param>
/// <param name="Range">The cut that it makes; null for states.</param>
/// <param name="Modality">How often it holds, above 0 to 1; see <see cref="Characters.Modality"/>.</param>
/// <param name="Denied">Ids of the states that the statement denies, where it says what isn't: <paramref name="States"/> are all others
/// then; null where it says what is.</param>
/// <param name="Age">How old the part is of which alone it is said.</param>
public sealed record StatementClaim(
    string Character,
    IReadOnlyList<string> States,
    QuantityRange? Range,
    double Modality,
    IReadOnlyList<string>? Denied = null,
    PartAge Age = PartAge.Unsaid
)
{
    /// <summary>Whether a look that says nothing of age can be held against it: what is said of young or old parts alone isn't said of
    /// others.</summary>
    [JsonIgnore]
    public bool IsOfUsualAge => Age is PartAge.Unsaid or PartAge.Grown;
}

/// <summary>How a clause of a statement was read.</summary>
[JsonConverter(typeof(CamelCaseWords<ClauseKind>))]
public enum ClauseKind
{
    /// <summary>In one way alone: it is weighed.</summary>
    Taken,

    /// <summary>In several ways, or by passing over words: it is weighed when a person has chosen.</summary>
    Proposed,

    /// <summary>Not at all.</summary>
    Text,
}

/// <summary>A clause of a statement: from comma to comma, or more where a phrase goes on.</summary>
/// <param name="At">Index of its first character in the statement, from 0.</param>
/// <param name="Length">How many characters.</param>
/// <param name="Kind">How it was read.</param>
/// <param name="Proposals">What it may claim, the likeliest first; empty but for proposed ones.</param>
public sealed record ReadClause(int At, int Length, ClauseKind Kind, IReadOnlyList<IReadOnlyList<StatementClaim>> Proposals)
{
    /// <summary>The constructions that it was read by; none where it wasn't taken. For measuring how far each can be trusted.</summary>
    [JsonIgnore]
    public Construction By { get; init; }
}

/// <summary>What a part of a statement's text was read as.</summary>
[JsonConverter(typeof(CamelCaseWords<StatementPartKind>))]
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
/// <param name="Clauses">Its clauses in their order; null where it was read as a whole.</param>
public sealed record StatementReading(
    string Text,
    IReadOnlyList<StatementClaim> Claims,
    IReadOnlyList<StatementPart> Parts,
    bool IsCorrected = false,
    IReadOnlyList<ReadClause>? Clauses = null
);

/// <summary>A word or phrase that a person has taught for a state.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="State">Id of the state.</param>
/// <param name="Term">The word or phrase.</param>
/// <param name="Book">The book in whose texts alone it is read so; empty: in all.</param>
public sealed record TaughtTerm(string Character, string State, string Term, string Book = "");

/// <summary>The reading that a person has set for a statement, wherever it stands in just these words.</summary>
/// <param name="Text">The statement as typed.</param>
/// <param name="Claims">Its claims; empty: it stays text.</param>
public sealed record CorrectedStatement(string Text, IReadOnlyList<StatementClaim> Claims);
