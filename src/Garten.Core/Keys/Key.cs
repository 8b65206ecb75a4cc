using System.Text.Json.Serialization;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>How a key's text is laid out.</summary>
[JsonConverter(typeof(CamelCaseWords<KeyLayout>))]
public enum KeyLayout
{
    /// <summary>The leads of a couplet stand together and name the couplet they go to.</summary>
    Bracketed,

    /// <summary>A lead is followed at once by all that lies behind it; its sibling comes after that.</summary>
    Indented,
}

/// <summary>What a lead goes to.</summary>
[JsonConverter(typeof(CamelCaseWords<DestinationKind>))]
public enum DestinationKind
{
    /// <summary>Another couplet of the same key.</summary>
    Couplet,

    /// <summary>A taxon: the key ends here.</summary>
    Taxon,

    /// <summary>Another key, named by its title: the trail goes on there.</summary>
    Key,
}

/// <summary>Where a lead goes.</summary>
/// <param name="Kind">Which of the three it is.</param>
/// <param name="Target">
/// The couplet's label, the taxon's name without authorship, or the other key as it is named in the text ("Key B", "Key to Vellorna").
/// </param>
/// <param name="Taxon">The taxon name taken apart; null unless <paramref name="Kind"/> is a taxon.</param>
/// <param name="Page">A page or figure that the text points to ("12", "12–14", "fig. 3"); empty where none is given.</param>
/// <param name="Others">Other taxa that the end leaves open ("A or B"); null for most.</param>
/// <param name="Synonyms">Other names of the taxon that stood beside it; null where none did.</param>
/// <param name="Note">What else was said of it there ("in part", "see also V. nigra", "rare; coasts only"); null where nothing was.</param>
public sealed record LeadDestination(
    DestinationKind Kind,
    string Target,
    TaxonName? Taxon = null,
    string Page = "",
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<TaxonName>? Others = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<string>? Synonyms = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Note = null
)
{
    /// <summary>All taxa that the end leaves open; empty where it is no taxon.</summary>
    [JsonIgnore]
    public IEnumerable<TaxonName> Taxa => Taxon is null ? [] : [Taxon, .. Others ?? []];
}

/// <summary>One of the choices of a couplet.</summary>
/// <param name="Statements">What the lead says, in order, as typed but for line breaks and runs of white space; at least one in a sound
/// key.</param>
/// <param name="Destination">Where it goes; null only in a key with problems.</param>
public sealed record Lead(IReadOnlyList<string> Statements, LeadDestination? Destination);

/// <summary>A couplet: two or more leads of which one is chosen.</summary>
/// <param name="Label">Its number or letter in the text; unique within a sound key.</param>
/// <param name="Leads">The leads in their order; two or more in a sound key.</param>
public sealed record Couplet(string Label, IReadOnlyList<Lead> Leads);

/// <summary>
/// A dichotomous key (couplets of three or more leads are allowed). The first couplet is where it starts.
/// </summary>
/// <param name="Title">Its title as typed; empty where the text gives none.</param>
/// <param name="Layout">The layout it was read from.</param>
/// <param name="Notes">Lines that stood between the title and the first couplet.</param>
/// <param name="Couplets">The couplets in the order of the text.</param>
public sealed record Key(string Title, KeyLayout Layout, IReadOnlyList<string> Notes, IReadOnlyList<Couplet> Couplets)
{
    /// <summary>The taxa it can end at, in the order of the text, each once. Taxa of other keys that it hands over to are not among
    /// them.</summary>
    public IEnumerable<TaxonName> Taxa() =>
        Couplets.SelectMany(c => c.Leads).SelectMany(l => l.Destination?.Taxa ?? []).DistinctBy(t => t.Name);
}

/// <summary>Something wrong in a key text, with its place and what to do.</summary>
/// <param name="Severity">Whether it stops the key from being saved.</param>
/// <param name="Code">A stable name of the kind of problem, such as <c>couplet.missing</c>.</param>
/// <param name="Line">Line in the text, from 1.</param>
/// <param name="Column">Column in that line, from 1, in UTF-16 units of the text as typed.</param>
/// <param name="Message">What is wrong and what to do, as a sentence for the person who typed it.</param>
public sealed record KeyProblem(ProblemSeverity Severity, string Code, int Line, int Column, string Message)
{
    /// <summary>Changes of the text, any of which settles the problem; null where none can be offered.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public IReadOnlyList<KeyTextChange>? Choices { get; init; }
}

/// <summary>A change of a key text within one of its lines, offered to settle a problem.</summary>
/// <param name="Label">What the change says, in a few words.</param>
/// <param name="Line">Line in the text, from 1.</param>
/// <param name="Column">Column at which the old text begins, from 1, in UTF-16 units.</param>
/// <param name="Old">What stands there; the change isn't made where it doesn't.</param>
/// <param name="New">What stands there afterwards.</param>
public sealed record KeyTextChange(string Label, int Line, int Column, string Old, string New);

/// <summary>What was read from a key text.</summary>
/// <param name="Keys">The keys in the order of the text; they may have problems.</param>
/// <param name="Problems">All problems in the order of the text.</param>
public sealed record KeyReading(IReadOnlyList<Key> Keys, IReadOnlyList<KeyProblem> Problems)
{
    /// <summary>Whether there is a key and none of the problems is an error.</summary>
    public bool IsSound => Keys.Count > 0 && Problems.All(p => p.Severity != ProblemSeverity.Error);
}
