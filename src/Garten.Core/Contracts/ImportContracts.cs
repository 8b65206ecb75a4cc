using Garten.Core.Imports;

namespace Garten.Core.Contracts;

/// <summary>Takes a file of records in, all of it at once. It was sent before, and was looked at.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="ImportId">The file that was sent.</param>
/// <param name="Choices">How it is read, and what was decided.</param>
/// <param name="By">Who takes it in.</param>
public sealed record TakeInCommand(Guid Id, Guid ImportId, ImportChoices Choices, PersonReference By) : Command(Id);

/// <summary>Takes back what a file brought, as a whole: it leaves lists, map and exports; its rows stay.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="ImportId">What was taken in.</param>
/// <param name="Reason">Why; may be empty.</param>
/// <param name="By">Who takes it back.</param>
public sealed record TakeBackCommand(Guid Id, Guid ImportId, string Reason, PersonReference By) : Command(Id);

/// <summary>How a table of records is read, and what was decided of it.</summary>
/// <param name="Fields">What each of its columns holds, in their order.</param>
/// <param name="Order">Which comes first in dates such as 3/4/2021; unsaid: the table decides where it can.</param>
/// <param name="Date">The day, month or year of lines that have none; may be empty.</param>
/// <param name="PlaceId">The place of lines that name none; null: they aren't taken in.</param>
/// <param name="Recorder">Who recorded the lines that name nobody; null: they aren't taken in.</param>
/// <param name="Names">Names that somebody decided on.</param>
/// <param name="Places">Places that somebody decided on.</param>
/// <param name="KeepsDoubles">Whether lines that say what stands here already, or in another line, are taken in all the same.</param>
public sealed record ImportChoices(
    IReadOnlyList<ImportField> Fields,
    DayOrder Order = DayOrder.Unsaid,
    string Date = "",
    Guid? PlaceId = null,
    PersonReference? Recorder = null,
    IReadOnlyList<NameDecision>? Names = null,
    IReadOnlyList<PlaceDecision>? Places = null,
    bool KeepsDoubles = false
)
{
    /// <summary>What was decided.</summary>
    public ImportDecisions Decisions() =>
        new(
            PlaceId,
            Recorder?.Name ?? "",
            (Names ?? []).GroupBy(n => n.Given).ToDictionary(g => g.Key, g => g.Last().Meant, StringComparer.Ordinal),
            (Places ?? []).GroupBy(p => p.Given).ToDictionary(g => g.Key, g => g.Last().PlaceId, StringComparer.Ordinal),
            KeepsDoubles
        );
}

/// <summary>What a name of a table stands for.</summary>
/// <param name="Given">As it is written.</param>
/// <param name="Meant">The taxon; <c>=</c> for the name as it is written; empty: its lines are left out.</param>
public sealed record NameDecision(string Given, string Meant);

/// <summary>Which known place a place of a table is.</summary>
/// <param name="Given">As it is written.</param>
/// <param name="PlaceId">The known place.</param>
public sealed record PlaceDecision(string Given, Guid PlaceId);

/// <summary>A column of a file of records.</summary>
/// <param name="Heading">Its heading.</param>
/// <param name="Field">What it most likely holds.</param>
/// <param name="Samples">Its first cells that aren't empty.</param>
public sealed record ImportColumn(string Heading, ImportField Field, IReadOnlyList<string> Samples);

/// <summary>A file of records that was sent and waits to be looked at.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="FileName">Its name.</param>
/// <param name="Kind">What it is, in words.</param>
/// <param name="Columns">Its columns.</param>
/// <param name="Notes">What has to be known of how it was read.</param>
/// <param name="TakenBefore">When the very same file was taken in before and not taken back; null where it wasn't.</param>
public sealed record ImportDraft(
    Guid Id,
    string FileName,
    string Kind,
    IReadOnlyList<ImportColumn> Columns,
    IReadOnlyList<string> Notes,
    DateTimeOffset? TakenBefore
);

/// <summary>A name of a table, with the number of its lines.</summary>
/// <param name="Name">The name, and what it is taken for.</param>
/// <param name="Lines">How many lines have it.</param>
public sealed record ImportName(MatchedName Name, int Lines);

/// <summary>A place of a table.</summary>
/// <param name="Given">As it is written.</param>
/// <param name="Lines">How many lines are of it.</param>
/// <param name="PlaceId">The known place that it is; null for a new one.</param>
/// <param name="Name">Name of that place, or the one that the new one gets.</param>
/// <param name="HasPosition">Whether there is a position to put it at: a new place without one can't be made.</param>
public sealed record ImportPlace(string Given, int Lines, Guid? PlaceId, string Name, bool HasPosition);

/// <summary>How often something is wrong.</summary>
/// <param name="Code">Stable name of the kind of problem.</param>
/// <param name="Lines">How many lines.</param>
/// <param name="Fate">What becomes of them.</param>
public sealed record ImportProblemCount(string Code, int Lines, LineFate Fate);

/// <summary>What would become of a file, before any of it is kept.</summary>
/// <param name="Tally">How much.</param>
/// <param name="Visits">How many visits.</param>
/// <param name="AlreadyHere">How many lines stand here already; they aren't taken in again.</param>
/// <param name="From">The first day; null for none.</param>
/// <param name="To">The last day.</param>
/// <param name="OrderIs">How dates of numbers are read, and by what; empty where none are there.</param>
/// <param name="Names">Names, those that want a decision first; at most <see cref="MostNames"/>.</param>
/// <param name="OtherNames">How many more there are.</param>
/// <param name="Places">Places, those that want a decision first; at most <see cref="MostPlaces"/>.</param>
/// <param name="Problems">What is wrong, in the order of the lines; at most <see cref="MostProblems"/>.</param>
/// <param name="Counts">How often each kind of problem.</param>
/// <param name="Hinders">Why nothing can be taken in yet, in sentences; empty where it can.</param>
public sealed record ImportPreview(
    ImportTally Tally,
    int Visits,
    int AlreadyHere,
    DateOnly? From,
    DateOnly? To,
    string OrderIs,
    IReadOnlyList<ImportName> Names,
    int OtherNames,
    IReadOnlyList<ImportPlace> Places,
    IReadOnlyList<ImportProblem> Problems,
    IReadOnlyList<ImportProblemCount> Counts,
    IReadOnlyList<string> Hinders
)
{
    /// <summary>Most names that are told.</summary>
    public const int MostNames = 300;

    /// <summary>Most places that are told.</summary>
    public const int MostPlaces = 200;

    /// <summary>Most problems that are told.</summary>
    public const int MostProblems = 200;
}

/// <summary>How far the taking in of a file is.</summary>
/// <param name="Done">Lines done.</param>
/// <param name="Of">Lines of the file.</param>
public sealed record ImportProgress(int Done, int Of);

/// <summary>A file of records that was taken in.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="FileName">Its name.</param>
/// <param name="Kind">What it was.</param>
/// <param name="Tally">How much was taken in.</param>
/// <param name="By">Who took it in.</param>
/// <param name="At">When.</param>
/// <param name="TakenBackAt">When it was taken back; null where it wasn't.</param>
/// <param name="TakenBackBy">Who took it back; empty where nobody did.</param>
/// <param name="Reason">Why; may be empty.</param>
public sealed record TakenIn(
    Guid Id,
    string FileName,
    string Kind,
    ImportTally Tally,
    string By,
    DateTimeOffset At,
    DateTimeOffset? TakenBackAt,
    string TakenBackBy,
    string Reason
);

/// <summary>How a determination that was made elsewhere was come to, in the words of its source.</summary>
/// <param name="With">By which key or book; may be empty.</param>
/// <param name="Remarks">What was said of it; may be empty.</param>
/// <param name="Before">Earlier names; may be empty.</param>
public sealed record CitedNaming(string With, string Remarks, string Before);
