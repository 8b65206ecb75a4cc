using System.Text.Json.Serialization;

namespace Garten.Core.Imports;

/// <summary>What becomes of a line that something is wrong with.</summary>
[JsonConverter(typeof(CamelCaseWords<LineFate>))]
public enum LineFate
{
    /// <summary>It isn't taken in.</summary>
    LeftOut,

    /// <summary>It is taken in without what is wrong.</summary>
    TakenWithout,
}

/// <summary>Something that is wrong with a line of a table of records.</summary>
/// <param name="Line">The line in the file, the first being 1.</param>
/// <param name="Column">The heading of the column; empty where it is the line as a whole.</param>
/// <param name="Code">Stable name of the kind of problem.</param>
/// <param name="Message">What is wrong and what to do, in a sentence.</param>
/// <param name="Fate">What becomes of the line.</param>
public sealed record ImportProblem(int Line, string Column, string Code, string Message, LineFate Fate);
