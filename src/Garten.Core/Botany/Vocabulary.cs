namespace Garten.Core.Botany;

/// <summary>What a state of an older character, which was not made of part and quality, says in these.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="State">Id of its state; empty for a measured one, which says the same number of another character.</param>
/// <param name="Says">What holds where it does: "petiole.hair-density=glabrous", all of them; empty where parts and qualities have no
/// words for it.</param>
public sealed record StateMeaning(string Character, string State, IReadOnlyList<string> Says);

/// <summary>A state of one quality says one of another quality of the same part.</summary>
/// <param name="Quality">Id of the quality.</param>
/// <param name="State">Id of its state, or "*" for each of them.</param>
/// <param name="Implies">Id of the other quality.</param>
/// <param name="Implied">Id of the state of it that holds too.</param>
/// <param name="Because">Why, as a sentence.</param>
public sealed record Implication(string Quality, string State, string Implies, string Implied, string Because)
{
    /// <summary>Stands for each state of a quality.</summary>
    public const string EachState = "*";
}

/// <summary>A word or phrase of statements that is neither part nor state, or that says how one of these is meant.</summary>
/// <param name="Text">The word or phrase.</param>
/// <param name="Kind">What it does: see <c>Language.WordKind</c>; or "part", "term" and "sense" (what a
/// word means, and on which parts), "unread" and "unnoun" (what isn't read), "only" (parts that a quality is read of), "grouped" and
/// "evidence" (groups of plants).</param>
/// <param name="Value">What belongs to it: a share, a region, "blade>outline=round"; may be empty.</param>
public sealed record GrammarWord(string Text, string Kind, string Value);

/// <summary>Parts, qualities and what they say of each other: an immutable version, named by the hash of its content.</summary>
/// <param name="Parts">The parts.</param>
/// <param name="Qualities">The qualities, those that are looked at most first.</param>
/// <param name="Meanings">What the states of older characters say.</param>
/// <param name="Implications">What a state of one quality says of another one.</param>
/// <param name="Words">The words by which statements are read; null: those of the program.</param>
public sealed record Vocabulary(
    IReadOnlyList<Part> Parts,
    IReadOnlyList<Quality> Qualities,
    IReadOnlyList<StateMeaning> Meanings,
    IReadOnlyList<Implication> Implications,
    IReadOnlyList<GrammarWord>? Words = null
);
