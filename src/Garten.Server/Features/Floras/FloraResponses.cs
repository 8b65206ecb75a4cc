using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Packs;
using Garten.Core.Surveys;

namespace Garten.Server.Features.Floras;

/// <summary>What would come of bringing these tables; nothing is stored.</summary>
/// <param name="Taxa">How many taxa.</param>
/// <param name="Characters">How many characters.</param>
/// <param name="Columns">The columns of the matrix behind its first one.</param>
/// <param name="Problems">What is wrong, worst first.</param>
public sealed record FloraCheck(int Taxa, int Characters, IReadOnlyList<FloraColumn> Columns, IReadOnlyList<FloraProblem> Problems);

/// <summary>Tables that can't be kept: a problem report with every problem at its place.</summary>
/// <param name="Title">What went wrong.</param>
/// <param name="Status">The status code.</param>
/// <param name="Code">Stable name of the problem.</param>
/// <param name="Detail">What to do.</param>
/// <param name="Taxa">How many taxa could be read.</param>
/// <param name="Characters">How many characters could be read.</param>
/// <param name="Problems">The problems, worst first.</param>
public sealed record FloraRefusal(
    string Title,
    int Status,
    string Code,
    string Detail,
    int Taxa,
    int Characters,
    IReadOnlyList<FloraProblem> Problems
);

/// <summary>A published version.</summary>
/// <param name="Id">The flora.</param>
/// <param name="Version">Its version, from 1.</param>
public sealed record FloraVersion(string Id, int Version);

/// <summary>A character of the glossary with the taxa that show its states.</summary>
/// <param name="Character">The character.</param>
/// <param name="Showing">State by state.</param>
public sealed record GlossaryEntry(Character Character, IReadOnlyList<StateTaxa> Showing);

/// <summary>Descriptions to be kept as the draft of a flora.</summary>
/// <param name="Name">Name of the flora.</param>
/// <param name="Text">The text.</param>
/// <param name="Source">Where it is from and what may be done with it; left out: nothing is said of it.</param>
public sealed record KeepDescriptionsRequest(string Name, string Text, TextSource? Source = null);
