using System.Text.Json.Serialization;

namespace Garten.Core.Floras;

/// <summary>How bad a problem of a key text or of a table is.</summary>
[JsonConverter(typeof(CamelCaseWords<ProblemSeverity>))]
public enum ProblemSeverity
{
    /// <summary>Worth a look; what was read works without it.</summary>
    Warning,

    /// <summary>It can't be used soundly, and nothing of it is kept.</summary>
    Error,
}

/// <summary>Something wrong in the tables of a flora, with its place.</summary>
/// <param name="Severity">Whether it stops the flora from being kept.</param>
/// <param name="Code">Stable name of the kind of problem: <c>taxon.twice</c>, <c>cell.unreadable</c> …</param>
/// <param name="Sheet">Which table.</param>
/// <param name="Row">Row of the table, the header being 1; 0 where the table as a whole is meant.</param>
/// <param name="Column">Heading of the column; empty where the whole row is meant.</param>
/// <param name="Message">What is wrong and what to do, as a sentence.</param>
/// <param name="Offers">What the column may be instead, to be chosen from; null where nothing is offered.</param>
public sealed record FloraProblem(
    ProblemSeverity Severity,
    string Code,
    string Sheet,
    int Row,
    string Column,
    string Message,
    IReadOnlyList<OfferedHeading>? Offers = null
);

/// <summary>A heading that a column may be given.</summary>
/// <param name="Heading">The heading.</param>
/// <param name="Name">What the column is then, in words.</param>
public sealed record OfferedHeading(string Heading, string Name);
