using Garten.Core.Floras;

namespace Garten.Core.Contracts;

/// <summary>A flora in the list of floras.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="Name">Its name.</param>
/// <param name="Version">The newest published version; 0 where it was never published.</param>
/// <param name="Taxa">How many taxa the newest version has, or the draft where there is none.</param>
/// <param name="Characters">How many characters.</param>
/// <param name="Draft">What waits to be published; null where nothing does.</param>
public sealed record FloraSummary(string Id, string Name, int Version, int Taxa, int Characters, FloraImport? Draft);

/// <summary>What came of bringing a flora: a draft that stays apart until it is published.</summary>
/// <param name="Id">Identity of the flora, made of its name.</param>
/// <param name="Version">The version that it becomes when it is published.</param>
/// <param name="Taxa">How many taxa it has.</param>
/// <param name="Characters">How many characters.</param>
/// <param name="Problems">What is wrong with the tables, worst first. A draft has warnings alone.</param>
public sealed record FloraImport(string Id, int Version, int Taxa, int Characters, IReadOnlyList<FloraProblem> Problems);

/// <summary>Tables that can't be kept: a problem report with every problem at its place.</summary>
/// <param name="Title">What went wrong.</param>
/// <param name="Status">The status code.</param>
/// <param name="Code">Stable name of the problem.</param>
/// <param name="Detail">What to do.</param>
/// <param name="Taxa">How many taxa could be read.</param>
/// <param name="Characters">How many characters could be read.</param>
/// <param name="Problems">The problems, worst first.</param>
public sealed record FloraRefusal(string Title, int Status, string Code, string Detail, int Taxa, int Characters, IReadOnlyList<FloraProblem> Problems);

/// <summary>A published version.</summary>
/// <param name="Id">The flora.</param>
/// <param name="Version">Its version, from 1.</param>
public sealed record FloraVersion(string Id, int Version);
