using Garten.Core.Grounds;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Imports;

/// <summary>A line of a table of records as it was read.</summary>
/// <param name="Line">The line in the file.</param>
/// <param name="Name">The taxon as it is written; empty for a visit without a find.</param>
/// <param name="On">When.</param>
/// <param name="StartedAt">When the visit began, <c>HH:mm</c>; empty where not said.</param>
/// <param name="EndedAt">When it ended; empty where not said.</param>
/// <param name="Place">The place in words; may be empty.</param>
/// <param name="PlaceId">Id of the place as it is written; may be empty.</param>
/// <param name="Compartment">The part of the place; may be empty.</param>
/// <param name="Point">Where it was seen; null where only the place is known.</param>
/// <param name="UncertaintyMetres">Radius of the circle that holds it; null where not said.</param>
/// <param name="Recorders">Who recorded; may be empty.</param>
/// <param name="Details">What else was noted.</param>
/// <param name="At">The time of the find, <c>HH:mm</c>; empty where not said.</param>
/// <param name="IsAbsent">Whether it was looked for in vain.</param>
/// <param name="Minutes">Of what was looked for in vain: how long; null where not said.</param>
/// <param name="Observers">Of the same: how many searched; null where not said.</param>
/// <param name="RecordId">Id of the record as it is written; may be empty.</param>
/// <param name="VisitId">Id of the visit as it is written; may be empty.</param>
public sealed record ImportedRecord(
    int Line,
    string Name,
    NotebookDay On,
    string StartedAt,
    string EndedAt,
    string Place,
    string PlaceId,
    string Compartment,
    GroundPoint? Point,
    double? UncertaintyMetres,
    IReadOnlyList<string> Recorders,
    LineDetails Details,
    string At,
    bool IsAbsent,
    int? Minutes,
    int? Observers,
    string RecordId,
    string VisitId
)
{
    /// <summary>What was said of the visit as a whole; null where nothing was.</summary>
    public ImportedVisit? Visit { get; init; }

    /// <summary>The plant that it is of, and how it was named; null where it is a line of a list.</summary>
    public ImportedPlant? Plant { get; init; }
}

/// <summary>What a line says of its visit as a whole.</summary>
/// <param name="Note">What was said of it; may be empty.</param>
/// <param name="Weather">The weather; may be empty.</param>
/// <param name="PersonMinutes">Minutes of searching, added up over the people; null where not said.</param>
/// <param name="Completeness">How far the list goes; null where it wasn't closed.</param>
/// <param name="Scope">Which group was listed; may be empty.</param>
/// <param name="PlacePoint">The point of the place; null where not said.</param>
/// <param name="PlaceMetres">Radius of the circle that holds the place, in metres; null where not said.</param>
/// <param name="Habitats">Its habitats.</param>
/// <param name="Outline">Its boundary; empty where not said.</param>
/// <param name="People">Who was there, where that is told apart from who recorded; may be empty.</param>
public sealed record ImportedVisit(
    string Note,
    string Weather,
    int? PersonMinutes,
    Completeness? Completeness,
    string Scope,
    GroundPoint? PlacePoint,
    double? PlaceMetres,
    IReadOnlyList<string> Habitats,
    IReadOnlyList<GroundPoint> Outline,
    IReadOnlyList<string> People
);

/// <summary>The plant that a line is of, and how it was named.</summary>
/// <param name="Id">Id of the plant as it is written.</param>
/// <param name="Called">What it is called; may be empty.</param>
/// <param name="NamedBy">Who named it; may be empty.</param>
/// <param name="NamedOn">When; null where not said.</param>
/// <param name="With">By which key or book; may be empty.</param>
/// <param name="Remarks">What was said of the naming; may be empty.</param>
/// <param name="Before">Earlier names, in words; may be empty.</param>
/// <param name="Open">The names that are open, as they are written; one for a name that holds.</param>
public sealed record ImportedPlant(
    string Id,
    string Called,
    string NamedBy,
    DateOnly? NamedOn,
    string With,
    string Remarks,
    string Before,
    IReadOnlyList<string> Open
);
