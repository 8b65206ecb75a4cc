using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Surveys.SiteVisits;
using Garten.Formats;

namespace Garten.Server.Features.Records;

/// <summary>Says of a kept occurrence what Darwin Core wants to know.</summary>
internal static class OccurrenceExport
{
    // The name that is right for every plant, where a determination leaves taxa of several genera open.
    private const string Widest = "Plantae";

    /// <param name="row">The occurrence.</param>
    /// <param name="taxa">The taxa of all floras.</param>
    /// <param name="sensitive">Which taxa are sensitive, and what is told of their places; null for an export with everything
    /// exact.</param>
    public static DarwinCoreOccurrence Of(OccurrenceRow row, TaxonIndex taxa, SensitiveTaxa? sensitive)
    {
        var exact = Exact(row, taxa);
        // Whatever name the plant bore at any time: its place is the same.
        var names = row.Determinations.SelectMany(d => d.Names).Concat(row.NamesOfPlant).Distinct(StringComparer.Ordinal).ToList();
        if (sensitive is null || !sensitive.HoldsAny(names))
            return exact;
        var coarse = sensitive.Coarsen(names.Where(sensitive.Holds), row.Place.Latitude, row.Place.Longitude);
        return exact with
        {
            OrganismName = "",
            // Day and people would lead to what they recorded beside it, whose place is told exactly.
            EventDate = row.EventDate.Year.ToString(CultureInfo.InvariantCulture),
            RecordedBy = "",
            IdentifiedBy = "",
            DateIdentified = "",
            PreviousIdentifications = "",
            Locality = coarse.Cell.Length > 0 ? $"grid cell {coarse.Cell}" : "",
            IdentificationReferences = "",
            IdentificationRemarks = "",
            DecimalLatitude = coarse.Latitude,
            DecimalLongitude = coarse.Longitude,
            CoordinateUncertaintyInMeters = coarse.UncertaintyMetres,
            DataGeneralizations = coarse.Generalization,
            InformationWithheld = coarse.Withheld,
        };
    }

    private static DarwinCoreOccurrence Exact(OccurrenceRow row, TaxonIndex taxa)
    {
        var current = row.Determinations[0];
        var taxon = taxa.Find(current.Name);
        var families = current.Names.Select(n => taxa.Find(n)?.Family ?? "").Distinct(StringComparer.Ordinal).ToList();
        var family = families.Count == 1 ? families[0] : "";
        var name = taxon?.Name
            ?? (
                current.Name.Length > 0 ? current.Name
                : family.Length > 0 ? family
                : Widest
            );
        var rank = taxon?.Rank
            ?? (
                name == Widest ? "kingdom"
                : name == family ? "family"
                : current.Names.Count > 1 ? "genus"
                : ""
            );
        return new DarwinCoreOccurrence
        {
            OccurrenceId = $"urn:uuid:{row.Id}",
            OrganismId = $"urn:uuid:{row.PlantId}",
            OrganismName = row.PlantLabel,
            EventDate = Day(row.EventDate),
            RecordedBy = row.RecordedBy,
            ScientificName = name,
            TaxonRank = rank,
            Family = family,
            VernacularName = current.Names.Count == 1 ? taxon?.CommonName ?? "" : "",
            VerbatimIdentification = Conclusion.InWords(current.Names),
            IdentifiedBy = current.IdentifiedBy,
            DateIdentified = Day(DateOnly.FromDateTime(current.RecordedAt.UtcDateTime)),
            IdentificationReferences = current.Cited?.With
                ?? string.Join(
                    "; ",
                    current
                        .Steps.Select(s => s.KeyTitle)
                        .Prepend(current.StartKeyTitle)
                        .Where(t => t.Length > 0)
                        .Distinct(StringComparer.Ordinal)
                ),
            IdentificationRemarks = current.Cited?.Remarks ?? Remarks(current),
            PreviousIdentifications = row.Determinations is [{ Cited: { } cited }]
                ? cited.Before
                : string.Join(
                    " | ",
                    row.Determinations.Skip(1)
                        .Select(d =>
                            string.Create(
                                CultureInfo.InvariantCulture,
                                $"{Conclusion.InWords(d.Names)} (by {d.IdentifiedBy}, {d.RecordedAt.UtcDateTime:yyyy-MM-dd})"
                            )
                        )
                ),
            Locality = row.Place.Locality.Length > 0 ? $"{row.Place.Name}, {row.Place.Locality}" : row.Place.Name,
            DecimalLatitude = row.Place.Latitude,
            DecimalLongitude = row.Place.Longitude,
            CoordinateUncertaintyInMeters = row.Place.UncertaintyMetres,
        };
    }

    /// <summary>A record of a list.</summary>
    /// <param name="visit">Its visit.</param>
    /// <param name="record">The record.</param>
    /// <param name="taxa">The taxa of all floras.</param>
    /// <param name="sensitive">Which taxa are sensitive; null for everything exact.</param>
    public static DarwinCoreOccurrence Of(SiteVisit visit, ListedTaxon record, TaxonIndex taxa, SensitiveTaxa? sensitive)
    {
        var line = record.Lines[0];
        var taxon = taxa.Find(line.Name);
        var (place, isCoarse) = (visit.Place, line.Name.Length > 0 && sensitive?.Holds(line.Name) == true);
        var where = place.Locality.Length > 0 ? $"{place.Name}, {place.Locality}" : place.Name;
        var exact = new DarwinCoreOccurrence
        {
            OccurrenceId = $"urn:uuid:{record.Id}",
            OrganismId = "",
            OrganismName = "",
            EventDate = visit.Until is { } until ? $"{Day(visit.Date)}/{Day(until)}" : Day(visit.Date),
            RecordedBy = string.Join(" | ", record.Observers),
            ScientificName = line.Name.Length > 0 ? taxon?.Name ?? line.Name : Widest,
            TaxonRank = taxon?.Rank ?? (line.Name.Length > 0 ? "" : "kingdom"),
            Family = taxon?.Family ?? "",
            VernacularName = taxon?.CommonName ?? "",
            VerbatimIdentification = line.Called,
            IdentifiedBy = line.Details.Determiner.Length > 0 ? line.Details.Determiner : line.Recorder,
            DateIdentified = Day(visit.Date),
            IdentificationReferences = "",
            IdentificationRemarks = line.Said,
            PreviousIdentifications = "",
            Locality = line.Compartment.Length > 0 ? $"{where}, {line.Compartment}" : where,
            DecimalLatitude = line.Latitude ?? place.Latitude,
            DecimalLongitude = line.Longitude ?? place.Longitude,
            CoordinateUncertaintyInMeters = line.UncertaintyMetres ?? place.UncertaintyMetres,
        };
        if (!isCoarse)
            return exact;
        var coarse = sensitive!.Coarsen([line.Name], place.Latitude, place.Longitude);
        return exact with
        {
            EventDate = visit.Date.Year.ToString(CultureInfo.InvariantCulture),
            RecordedBy = "",
            IdentifiedBy = "",
            DateIdentified = "",
            IdentificationRemarks = "",
            Locality = coarse.Cell.Length > 0 ? $"grid cell {coarse.Cell}" : "",
            DecimalLatitude = coarse.Latitude,
            DecimalLongitude = coarse.Longitude,
            CoordinateUncertaintyInMeters = coarse.UncertaintyMetres,
            DataGeneralizations = coarse.Generalization,
            InformationWithheld = coarse.Withheld,
        };
    }

    private static string Day(DateOnly date) => date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    // The note, then the trail in short: "Key to the groups: 1b, 4a, 5 can't tell", then what is in question.
    private static string Remarks(DeterminationRow determination)
    {
        var trail = determination.Steps.Aggregate(new List<(string Key, List<string> Answers)>(), (keys, step) =>
        {
            if (keys.Count == 0 || keys[^1].Key != step.KeyTitle)
                keys.Add((step.KeyTitle, []));
            keys[^1].Answers.Add(step.Lead is { } lead ? step.Couplet + KeyWalk.LeadLetter(lead) : step.Couplet + " can't tell");
            return keys;
        });
        var way =
            trail.Count == 0 ? "By sifting." : "Trail: " + string.Join("; ", trail.Select(k => $"{k.Key}: {string.Join(", ", k.Answers)}"));
        string[] notes = determination.Note.Length > 0 ? [determination.Note] : [];
        return string.Join(" | ", [.. notes, way, .. determination.Questions.Select(q => $"In question: {q.Says}")]);
    }
}
