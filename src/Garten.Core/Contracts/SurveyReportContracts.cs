using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Surveys.Figures;

namespace Garten.Core.Contracts;

/// <summary>A sentence of a report.</summary>
/// <param name="Key">By which it is known when the data are renewed.</param>
/// <param name="Made">As it is made from the data; may be empty where only a person can say it.</param>
/// <param name="Own">In a person's own words; empty where nobody changed it.</param>
public sealed record ReportSentence(string Key, string Made, string Own)
{
    /// <summary>What is read.</summary>
    public string Text => Own.Length > 0 ? Own : Made;
}

/// <summary>A table of a report.</summary>
/// <param name="Title">What it shows.</param>
/// <param name="Columns">Its columns.</param>
/// <param name="Rows">Its rows, a cell a column.</param>
/// <param name="Names">Which columns hold names of taxa: they are set in italics.</param>
public sealed record ReportTable(
    string Title,
    IReadOnlyList<string> Columns,
    IReadOnlyList<IReadOnlyList<string>> Rows,
    IReadOnlyList<int> Names
);

/// <summary>A section of a report.</summary>
/// <param name="Title">Its heading.</param>
/// <param name="Sentences">What it says.</param>
/// <param name="Tables">Its tables.</param>
public sealed record ReportSection(string Title, IReadOnlyList<ReportSentence> Sentences, IReadOnlyList<ReportTable> Tables);

/// <summary>A plot or place on the report's map.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Latitude">Degrees, north positive.</param>
/// <param name="Longitude">Degrees, east positive.</param>
/// <param name="IsPlot">Whether it is a plot, or a place.</param>
public sealed record ReportSpot(string Label, double Latitude, double Longitude, bool IsPlot);

/// <summary>The report of a survey.</summary>
/// <param name="Title">Its title.</param>
/// <param name="MadeOn">The day on which it was made.</param>
/// <param name="IsPublic">Whether places of sensitive taxa are kept back.</param>
/// <param name="Sections">Its sections.</param>
/// <param name="Spots">What stands on its map.</param>
/// <param name="Accumulation">Taxa by the number of samples, for its drawing.</param>
/// <param name="Arrangement">How the recordings lie to each other, for its drawing; null where they can't be arranged.</param>
/// <param name="Changes">Of the taxa that changed most, by how much, for its drawing; none without permanent plots of two years.</param>
public sealed record SurveyReport(
    string Title,
    DateOnly MadeOn,
    bool IsPublic,
    IReadOnlyList<ReportSection> Sections,
    IReadOnlyList<ReportSpot> Spots,
    IReadOnlyList<AccumulationPoint> Accumulation,
    SurveyArrangement? Arrangement,
    IReadOnlyList<TaxonChange> Changes
);

/// <summary>A threat to a population at one of a survey's places, for its report.</summary>
/// <param name="Place">Name of the place.</param>
/// <param name="Population">Name of the population.</param>
/// <param name="Text">What threatens it.</param>
/// <param name="ActBy">Until when; empty where not said.</param>
public sealed record ReportThreat(string Place, string Population, string Text, string ActBy);

/// <summary>A name that a plant of a survey was given, with how surely.</summary>
/// <param name="Name">The name.</param>
/// <param name="Place">Name of the place.</param>
/// <param name="Date">The day.</param>
/// <param name="Grade">How well it stands; null where it wasn't confirmed.</param>
/// <param name="Key">Title of the key that was followed; empty where it was named without one.</param>
/// <param name="IsOpen">Whether something still speaks against it, or it names several taxa.</param>
/// <param name="Rules">Id of the table by which it was graded; empty where it wasn't confirmed.</param>
public sealed record ReportName(string Name, string Place, DateOnly Date, Grade? Grade, string Key, bool IsOpen, string Rules = "");

/// <summary>What a report is made of besides the survey.</summary>
/// <param name="Today">The day.</param>
/// <param name="Taxa">What is known of taxa.</param>
/// <param name="IsKeptBack">Whether a taxon's places are kept back; null for the exact report.</param>
/// <param name="Names">Plants named at the survey's places within its days.</param>
/// <param name="Threats">Threats that are open.</param>
/// <param name="Floras">The floras by which names are known, with their versions.</param>
public sealed record ReportContext(
    DateOnly Today,
    TaxonIndex Taxa,
    Func<string, bool>? IsKeptBack,
    IReadOnlyList<ReportName> Names,
    IReadOnlyList<ReportThreat> Threats,
    IReadOnlyList<string> Floras
);
