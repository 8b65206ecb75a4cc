using System.Globalization;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Garten.Formats;
using Garten.Formats.Archive;
using Garten.Server.Database;
using Garten.Server.Features.Evidence;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Places;
using Garten.Server.Features.Records;
using Garten.Server.Features.SiteVisits;
using Garten.Server.Features.Surveys;
using Npgsql;

namespace Garten.Server.Features.Archive;

/// <summary>Of what an archive is made.</summary>
/// <param name="Place">Only of this place; null for all.</param>
/// <param name="Survey">Only of this survey; null for all.</param>
internal sealed record ArchiveScope(Guid? Place, SurveyWhole? Survey)
{
    /// <summary>Whether it is of one place, or of a survey's.</summary>
    public bool IsOfFewPlaces => Place is not null || Survey is not null;

    public bool Holds(OccurrenceRow row) => Survey is null || Survey.Survey.Holds(row.Place.Id, row.EventDate);
}

/// <summary>Makes a Darwin Core Archive of all visits, lists, plants and looks, or of those of a place.</summary>
internal sealed class ArchiveExport(
    NpgsqlDataSource database,
    SiteVisitRepository visits,
    DeterminationRepository records,
    GroundRepository grounds,
    FloraRepository floras,
    SurveyRepository surveys,
    CharacterTable glossary,
    TimeProvider clock
)
{
    private const int VisitsAtATime = 100;
    private const int PlantsAtATime = 200;

    /// <summary>Writes it.</summary>
    /// <param name="output">Where to.</param>
    /// <param name="scope">Of what.</param>
    /// <param name="isExact">Whether sensitive taxa are told exactly.</param>
    /// <param name="rights">What may be done with it.</param>
    /// <param name="stop">Stops the writing.</param>
    public async Task WriteAsync(Stream output, ArchiveScope scope, bool isExact, TextLicence rights, CancellationToken stop)
    {
        var taxa = new TaxonIndex(await floras.TaxaAsync(stop));
        var sensitive = isExact ? null : await floras.SensitiveAsync(stop);
        var rows = new VisitRows(
            taxa,
            sensitive,
            (await grounds.ListAsync(stop)).ToDictionary(g => g.PlaceId, g => g.Ground),
            scope.IsOfFewPlaces
        );
        var filter = new RecordFilter(null, scope.Place);
        var plots = (await SurveysAsync(scope, stop)).Select(s => new PlotRows(s, taxa, sensitive, rows)).ToList();
        // Which visit a plant's record of a day hangs on.
        var visitOf = new Dictionary<(Guid Place, DateOnly Day), Guid>();
        var people = new SortedSet<string>(StringComparer.Ordinal);
        var box = new Bounds();
        await foreach (var visit in VisitsAsync(scope, stop))
        {
            visitOf.TryAdd((visit.Place.Id, visit.Date), visit.Id);
            people.UnionWith(visit.People.Select(p => p.Name));
            box.Add(visit.Place.Latitude, visit.Place.Longitude);
        }
        var seen = new HashSet<(Guid Plant, DateOnly Day)>();
        // Plants that ever bore a name that is kept back: their lines would say where they stand.
        var keptBack = new HashSet<Guid>();
        var recordsOf = new Dictionary<Guid, List<(DateOnly Day, Guid Occurrence, string Event)>>();
        await foreach (var row in ExportAsync(filter, scope, stop))
        {
            var it = OccurrenceExport.Of(row, taxa, sensitive);
            if (IsKeptBack(it) && scope.IsOfFewPlaces)
            {
                keptBack.Add(row.PlantId);
                continue;
            }
            box.Add(it.DecimalLatitude, it.DecimalLongitude);
            seen.Add((row.PlantId, row.EventDate));
            if (IsKeptBack(it))
                keptBack.Add(row.PlantId);
            if (!recordsOf.TryGetValue(row.PlantId, out var own))
                recordsOf[row.PlantId] = own = [];
            own.Add((row.EventDate, row.Id, EventOf(row, it, visitOf)));
        }
        async IAsyncEnumerable<IReadOnlyList<string>> Rows(ArchiveTable table)
        {
            if (table == ArchiveTerms.Measurements)
            {
                await foreach (var row in MeasurementsAsync(recordsOf, keptBack, stop))
                    yield return row;
                yield break;
            }
            await foreach (var visit in VisitsAsync(scope, stop))
            {
                if (table == ArchiveTerms.Events)
                {
                    yield return rows.Event(visit);
                    if (sensitive is not null)
                    {
                        foreach (var coarse in rows.CoarseEvents(visit))
                            yield return coarse;
                    }
                }
                else if (table == ArchiveTerms.Occurrences)
                {
                    foreach (var row in rows.Occurrences(visit, plant => keptBack.Contains(plant) || seen.Contains((plant, visit.Date))))
                        yield return row;
                }
                else if (rows.Effort(visit) is { } effort)
                    yield return effort;
            }
            if (table == ArchiveTerms.Effort)
                yield break;
            foreach (var row in plots.SelectMany(p => table == ArchiveTerms.Events ? p.Events(scope.Place) : p.Occurrences(scope.Place)))
                yield return row;
            await foreach (var row in ExportAsync(filter, scope, stop))
            {
                var it = OccurrenceExport.Of(row, taxa, sensitive);
                if (IsKeptBack(it) && scope.IsOfFewPlaces)
                    continue;
                var of = EventOf(row, it, visitOf);
                if (table == ArchiveTerms.Occurrences)
                    yield return Occurrence(it, of);
                else if (of.EndsWith("#event", StringComparison.Ordinal))
                    yield return Event(it, of, IsKeptBack(it));
            }
        }

        var today = DateOnly.FromDateTime(clock.GetLocalNow().Date);
        await ArchiveWriter.WriteAsync(
            output,
            new ArchiveAbout(
                $"urn:uuid:{await EpochAsync(stop):D}",
                "Visits, lists and plants",
                "Visits to places with the taxa listed there, what was looked for in vain with its effort, "
                    + "marked plants with their determinations, and what was seen and measured of them."
                    + (
                        sensitive is null
                            ? " Exact places of sensitive taxa are included: not to be passed on."
                            : " Places of sensitive taxa are coarsened to a grid."
                    ),
                [.. people],
                today,
                rights == TextLicence.Unsaid
                    ? "No licence is given: ask the recorders before the data are used or passed on."
                    : TextSource.LicenceInWords(rights),
                [
                    "Places are searched and every taxon that is noticed is listed, in parts of the place where these are named. "
                        + "Minutes of searching are counted without pauses.",
                    "A taxon counts as absent only where it was named as sought, with minutes and observers.",
                    "Plants are determined with keys and diagnostic characters; "
                        + "each look at a character is a measurement or fact of its own.",
                ],
                box.Box
            ),
            Rows,
            stop
        );
    }

    // One that is kept back hangs on an event of its own, as does one of a day without a visit.
    private static string EventOf(OccurrenceRow row, DarwinCoreOccurrence it, Dictionary<(Guid, DateOnly), Guid> visitOf) =>
        !IsKeptBack(it) && visitOf.TryGetValue((row.Place.Id, row.EventDate), out var visit)
            ? $"urn:uuid:{visit:D}"
            : $"{it.OccurrenceId}#event";

    private static bool IsKeptBack(DarwinCoreOccurrence it) => it.InformationWithheld.Length > 0;

    private async Task<IReadOnlyList<SurveyWhole>> SurveysAsync(ArchiveScope scope, CancellationToken stop)
    {
        if (scope.Survey is { } one)
            return [one];
        var all = new List<SurveyWhole>();
        foreach (var it in (await surveys.ListAsync(stop)).Where(s => s.Records > 0))
        {
            if (await surveys.FindAsync(it.Id, stop) is { } whole)
                all.Add(whole);
        }
        return all;
    }

    private async IAsyncEnumerable<OccurrenceRow> ExportAsync(
        RecordFilter filter,
        ArchiveScope scope,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop
    )
    {
        await foreach (var row in records.ExportAsync(filter, stop))
        {
            if (scope.Holds(row))
                yield return row;
        }
    }

    private async IAsyncEnumerable<SiteVisit> VisitsAsync(
        ArchiveScope scope,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop
    )
    {
        foreach (var visit in scope.Survey?.Visits ?? [])
            yield return visit;
        if (scope.Survey is not null)
            yield break;
        for (SiteVisitCursor? after = null; ; )
        {
            var (page, next) = await visits.PageAsync(scope.Place, null, after, VisitsAtATime, withTracks: false, stop);
            foreach (var visit in page)
                yield return visit;
            if (next is null)
                yield break;
            after = next;
        }
    }

    private static string[] Event(DarwinCoreOccurrence it, string id, bool isKeptBack) =>
        [
            id,
            "Record",
            it.EventDate,
            "",
            isKeptBack ? "" : "A single plant looked at",
            "",
            "",
            it.Locality,
            "",
            Number(it.DecimalLatitude),
            Number(it.DecimalLongitude),
            it.DecimalLatitude is null ? "" : "EPSG:4326",
            Number(it.CoordinateUncertaintyInMeters),
            "",
            "",
            "",
            isKeptBack ? $"{it.DataGeneralizations} Of the day the year alone is given." : "",
            it.InformationWithheld,
            .. VisitRows.NoPlot,
        ];

    private static string[] Occurrence(DarwinCoreOccurrence it, string of)
    {
        var isKeptBack = IsKeptBack(it);
        return
        [
            of,
            it.OccurrenceId,
            "HumanObservation",
            "present",
            isKeptBack ? "" : it.OrganismId,
            it.OrganismName,
            it.RecordedBy,
            "1",
            "1",
            "individuals",
            "",
            "",
            "",
            "",
            "",
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
            "",
            "",
            "",
            "",
            "",
            it.DataGeneralizations,
            it.InformationWithheld,
            "",
        ];
    }

    // Each look that holds, with the record of its plant on that day or the last one before.
    private async IAsyncEnumerable<IReadOnlyList<string>> MeasurementsAsync(
        Dictionary<Guid, List<(DateOnly Day, Guid Occurrence, string Event)>> recordsOf,
        HashSet<Guid> keptBack,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop
    )
    {
        foreach (var part in recordsOf.Keys.Order().Chunk(PlantsAtATime))
        {
            Dictionary<Guid, PlantLooks> looks;
            CharacterTable table;
            await using (var connection = await database.OpenConnectionAsync(stop))
            {
                looks = await EvidenceRepository.OfPlantsAsync(connection, part, glossary, stop);
                table = await FloraRepository.TableAsync(connection, glossary, stop);
            }
            foreach (var plant in part)
            {
                if (!looks.TryGetValue(plant, out var own))
                    continue;
                var on = recordsOf[plant].OrderBy(r => r.Day).ToList();
                foreach (var look in EvidenceSheet.Holding(own.Readable))
                {
                    var day = DayText.TryRead(look.Date, out var read) ? read : on[0].Day;
                    var (_, occurrence, of) = on.FindLast(r => r.Day <= day) is { Event: not null } last ? last : on[0];
                    var isKeptBack = keptBack.Contains(plant);
                    var character = table.Find(look.Character);
                    yield return
                    [
                        of,
                        $"urn:uuid:{look.Id:D}",
                        $"urn:uuid:{occurrence:D}",
                        character?.Name ?? look.Character,
                        Value(look, character),
                        look.Readings.Count > 0 && character is not null ? UnitOf(character) : "",
                        "",
                        look.Tool.ToString().ToLowerInvariant(),
                        isKeptBack ? "" : look.Date,
                        isKeptBack ? "" : look.Note,
                    ];
                }
            }
        }
    }

    private static string UnitOf(Character character) =>
        character.Quantity == QuantityKind.Length ? "mm"
        : character.Quantity == QuantityKind.Angle ? "degrees"
        : "";

    private static string Value(Observation look, Character? character) =>
        look.Outcome != Outcome.Seen ? $"looked for: {look.Outcome}"
        : look.Readings.Count > 0 ? string.Join(" | ", look.Readings.Select(r => r.Value.ToString("R", CultureInfo.InvariantCulture)))
        : string.Join(
            look.Together ? " and " : " or ",
            look.States.Select(s => character?.States.FirstOrDefault(x => x.Id == s)?.Name ?? s)
        );

    private async Task<Guid> EpochAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return (await connection.Command("select id from epoch order by began_at limit 1").ReadAllAsync(r => r.GetGuid(0), stop))[0];
    }

    private static string Number(double? value) => value?.ToString("R", CultureInfo.InvariantCulture) ?? "";

    private static string Day(DateOnly date) => date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    // The smallest box that holds all positions.
    private sealed class Bounds
    {
        public (double South, double West, double North, double East)? Box { get; private set; }

        public void Add(double? latitude, double? longitude)
        {
            if (latitude is not { } y || longitude is not { } x)
                return;
            Box = Box is not { } it
                ? (y, x, y, x)
                : (Math.Min(it.South, y), Math.Min(it.West, x), Math.Max(it.North, y), Math.Max(it.East, x));
        }
    }
}
