namespace Garten.Formats.Archive;

/// <summary>A column of a table of an archive: its header and the term that it holds.</summary>
/// <param name="Header">The header.</param>
/// <param name="Term">The term's address.</param>
public sealed record ArchiveColumn(string Header, string Term);

/// <summary>A table of an archive.</summary>
/// <param name="File">Name of its file.</param>
/// <param name="RowType">What a row is: the address of a class.</param>
/// <param name="Columns">Its columns; the first is the id of the event.</param>
public sealed record ArchiveTable(string File, string RowType, IReadOnlyList<ArchiveColumn> Columns);

/// <summary>The tables of a Darwin Core Archive of visits: events as its core, with occurrences, measurements and effort.</summary>
public static class ArchiveTerms
{
    private const string Dwc = "http://rs.tdwg.org/dwc/terms/";
    private const string Eco = "http://rs.tdwg.org/eco/terms/";

    private static ArchiveColumn[] Of(string space, params string[] names) => [.. names.Select(n => new ArchiveColumn(n, space + n))];

    /// <summary>Visits, and the days on which single plants were seen.</summary>
    public static ArchiveTable Events { get; } =
        new(
            "event.csv",
            Dwc + "Event",
            Of(
                Dwc,
                "eventID",
                "eventType",
                "eventDate",
                "eventTime",
                "samplingProtocol",
                "samplingEffort",
                "locationID",
                "locality",
                "habitat",
                "decimalLatitude",
                "decimalLongitude",
                "geodeticDatum",
                "coordinateUncertaintyInMeters",
                "footprintWKT",
                "footprintSRS",
                "eventRemarks",
                "dataGeneralizations",
                "informationWithheld",
                "parentEventID",
                "sampleSizeValue",
                "sampleSizeUnit"
            )
        );

    /// <summary>What was found, and what was looked for in vain.</summary>
    public static ArchiveTable Occurrences { get; } =
        new(
            "occurrence.csv",
            Dwc + "Occurrence",
            Of(
                Dwc,
                "eventID",
                "occurrenceID",
                "basisOfRecord",
                "occurrenceStatus",
                "organismID",
                "organismName",
                "recordedBy",
                "individualCount",
                "organismQuantity",
                "organismQuantityType",
                "sex",
                "reproductiveCondition",
                "degreeOfEstablishment",
                "associatedTaxa",
                "occurrenceRemarks",
                "kingdom",
                "family",
                "scientificName",
                "taxonRank",
                "vernacularName",
                "verbatimIdentification",
                "identifiedBy",
                "dateIdentified",
                "identificationReferences",
                "identificationRemarks",
                "previousIdentifications",
                "verbatimLocality",
                "decimalLatitude",
                "decimalLongitude",
                "geodeticDatum",
                "coordinateUncertaintyInMeters",
                "dataGeneralizations",
                "informationWithheld",
                "dynamicProperties"
            )
        );

    /// <summary>What was measured or seen of a plant: each look one row.</summary>
    public static ArchiveTable Measurements { get; } =
        new(
            "measurementorfact.csv",
            "http://rs.iobis.org/obis/terms/ExtendedMeasurementOrFact",
            [
                .. Of(Dwc, "eventID", "measurementID", "occurrenceID"),
                .. Of(
                    Dwc,
                    "measurementType",
                    "measurementValue",
                    "measurementUnit",
                    "measurementAccuracy",
                    "measurementMethod",
                    "measurementDeterminedDate",
                    "measurementRemarks"
                ),
            ]
        );

    /// <summary>The effort behind a list, and how far it goes.</summary>
    public static ArchiveTable Effort { get; } =
        new(
            "humboldt.csv",
            Eco + "Event",
            [
                new ArchiveColumn("eventID", Dwc + "eventID"),
                .. Of(
                    Eco,
                    "inventoryTypes",
                    "protocolDescriptions",
                    "isSamplingEffortReported",
                    "samplingEffortValue",
                    "samplingEffortUnit",
                    "eventDurationValue",
                    "eventDurationUnit",
                    "samplingPerformedBy",
                    "targetTaxonomicScope",
                    "isTaxonomicScopeFullyReported",
                    "taxonCompletenessReported",
                    "isAbsenceReported",
                    "absentTaxa",
                    "reportedWeather"
                ),
            ]
        );

    /// <summary>All of them, the core first.</summary>
    public static IReadOnlyList<ArchiveTable> All { get; } = [Events, Occurrences, Measurements, Effort];
}
