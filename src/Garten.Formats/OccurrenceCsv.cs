using System.Globalization;

namespace Garten.Formats;

/// <summary>An occurrence as Darwin Core terms want it; every text is empty where there is nothing to say.</summary>
public sealed record DarwinCoreOccurrence
{
    /// <summary>Globally unique, the same in every export.</summary>
    public required string OccurrenceId { get; init; }

    /// <summary>The plant, the same for every day on which it was seen.</summary>
    public required string OrganismId { get; init; }

    /// <summary>What its recorder calls the plant.</summary>
    public required string OrganismName { get; init; }

    /// <summary>The day it was seen, ISO 8601: a day, a span of days, or a year where no more is told.</summary>
    public required string EventDate { get; init; }

    /// <summary>Who saw it.</summary>
    public required string RecordedBy { get; init; }

    /// <summary>The lowest name that holds; <c>Plantae</c> where no narrower one does.</summary>
    public required string ScientificName { get; init; }

    /// <summary>Rank of that name; empty where unknown.</summary>
    public required string TaxonRank { get; init; }

    /// <summary>Its family; empty where unknown.</summary>
    public required string Family { get; init; }

    /// <summary>Its common name; empty where unknown.</summary>
    public required string VernacularName { get; init; }

    /// <summary>The determination in full: the name, or all names that are still open.</summary>
    public required string VerbatimIdentification { get; init; }

    /// <summary>Who determined it.</summary>
    public required string IdentifiedBy { get; init; }

    /// <summary>The day of the determination, ISO 8601; empty where it isn't told.</summary>
    public required string DateIdentified { get; init; }

    /// <summary>The key that was followed.</summary>
    public required string IdentificationReferences { get; init; }

    /// <summary>The note and the trail in short.</summary>
    public required string IdentificationRemarks { get; init; }

    /// <summary>Earlier determinations of the same look, newest first.</summary>
    public required string PreviousIdentifications { get; init; }

    /// <summary>The place in words.</summary>
    public required string Locality { get; init; }

    /// <summary>WGS 84 decimal degrees; null where no position is given.</summary>
    public required double? DecimalLatitude { get; init; }

    /// <summary>WGS 84 decimal degrees; null where no position is given.</summary>
    public required double? DecimalLongitude { get; init; }

    /// <summary>Radius in metres; null where no position is given.</summary>
    public required double? CoordinateUncertaintyInMeters { get; init; }

    /// <summary>What was done to the position; empty where it is exact.</summary>
    public string DataGeneralizations { get; init; } = "";

    /// <summary>What is kept back and why; empty where nothing is.</summary>
    public string InformationWithheld { get; init; } = "";
}

/// <summary>Occurrences as CSV with Darwin Core term names as headers: UTF-8, commas, quotation after RFC 4180.</summary>
public static class OccurrenceCsv
{
    /// <summary>The headers in their order; each is a Darwin Core term.</summary>
    public static IReadOnlyList<string> Headers { get; } =
    [
        "occurrenceID",
        "organismID",
        "organismName",
        "basisOfRecord",
        "occurrenceStatus",
        "eventDate",
        "recordedBy",
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
        "locality",
        "decimalLatitude",
        "decimalLongitude",
        "geodeticDatum",
        "coordinateUncertaintyInMeters",
        "dataGeneralizations",
        "informationWithheld",
    ];

    /// <summary>The cells of an occurrence, in the order of the headers.</summary>
    public static IReadOnlyList<string> Cells(DarwinCoreOccurrence it)
    {
        ArgumentNullException.ThrowIfNull(it);
        return
        [
            it.OccurrenceId,
            it.OrganismId,
            it.OrganismName,
            "HumanObservation",
            "present",
            it.EventDate,
            it.RecordedBy,
            "Plantae",
            it.Family,
            it.ScientificName,
            it.TaxonRank,
            it.VernacularName,
            it.VerbatimIdentification,
            it.IdentifiedBy,
            it.DateIdentified,
            it.IdentificationReferences,
            it.IdentificationRemarks,
            it.PreviousIdentifications,
            it.Locality,
            Number(it.DecimalLatitude),
            Number(it.DecimalLongitude),
            it.DecimalLatitude is null ? "" : "EPSG:4326",
            Number(it.CoordinateUncertaintyInMeters),
            it.DataGeneralizations,
            it.InformationWithheld,
        ];
    }

    private static string Number(double? number) => number?.ToString("R", CultureInfo.InvariantCulture) ?? "";

    /// <summary>Writes the occurrences to a stream as they come.</summary>
    public static async Task WriteAsync(Stream output, IAsyncEnumerable<DarwinCoreOccurrence> occurrences, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(occurrences);
        await using var text = new StreamWriter(
            output,
            new System.Text.UTF8Encoding(encoderShouldEmitUTF8Identifier: false),
            leaveOpen: true
        );
        await using var csv = new CsvTable(text);
        csv.Texts([.. Headers]);
        await csv.EndRowAsync();
        await foreach (var it in occurrences.WithCancellation(stop))
        {
            foreach (var (header, cell) in Headers.Zip(Cells(it)))
            {
                if (header.StartsWith("decimal", StringComparison.Ordinal))
                    csv.Number(header == "decimalLatitude" ? it.DecimalLatitude : it.DecimalLongitude);
                else if (header == "coordinateUncertaintyInMeters")
                    csv.Number(it.CoordinateUncertaintyInMeters);
                else
                    csv.Text(cell);
            }
            await csv.EndRowAsync();
        }
    }
}
