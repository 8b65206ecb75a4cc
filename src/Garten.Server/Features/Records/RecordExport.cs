using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Formats;
using Garten.Formats.Shapes;
using Garten.Formats.Surveys;
using Garten.Server.Database;
using Garten.Server.Features.Floras;
using Garten.Server.Features.SiteVisits;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Records;

/// <summary>In which form records leave the program.</summary>
/// <param name="Ending">Of the file.</param>
/// <param name="Type">Its media type.</param>
/// <param name="Shape">The form of shapes; null for a table.</param>
/// <param name="Says">What it is, in words.</param>
internal sealed record RecordForm(string Ending, string Type, ShapeForm? Shape, string Says)
{
    public static RecordForm Csv { get; } = new("csv", "text/csv", null, "as CSV with Darwin Core terms");

    public static RecordForm Workbook { get; } =
        new("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", null, "as a workbook");

    /// <summary>All of them.</summary>
    public static IReadOnlyList<RecordForm> All { get; } =
    [
        Csv,
        Workbook,
        .. ShapeWriter.Forms.Select(f => new RecordForm(
            f.Ending,
            ShapeWriter.TypeOf(f.Form),
            f.Form,
            f.Form switch
            {
                ShapeForm.Gpx => "that have a position, as waypoints (GPX)",
                ShapeForm.Kml => "that have a position, as KML",
                _ => "that have a position, as GeoJSON",
            }
        )),
    ];
}

/// <summary>All records of plants and lists on their way out, one like the other.</summary>
internal sealed class RecordExport(DeterminationRepository records, SiteVisitRepository visits, FloraRepository floras)
{
    private const int VisitsAtATime = 100;

    /// <summary>The records, those of plants first.</summary>
    /// <param name="filter">What they are narrowed to.</param>
    /// <param name="isExact">Whether sensitive taxa are told exactly.</param>
    /// <param name="stop">Stops the reading.</param>
    public async IAsyncEnumerable<DarwinCoreOccurrence> AllAsync(
        RecordFilter filter,
        bool isExact,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop
    )
    {
        var taxa = new TaxonIndex(await floras.TaxaAsync(stop));
        var sensitive = isExact ? null : await floras.SensitiveAsync(stop);
        // Of one place the name alone would tell where a sensitive taxon grows, however coarse its position is.
        bool IsTold(DarwinCoreOccurrence it) => filter.Place is null || it.InformationWithheld.Length == 0;
        if (filter.Of != RecordsOf.Lists)
        {
            await foreach (var row in records.ExportAsync(filter, stop))
            {
                if (OccurrenceExport.Of(row, taxa, sensitive) is var it && IsTold(it))
                    yield return it;
            }
        }
        for (SiteVisitCursor? after = null; filter.Of != RecordsOf.Plants; )
        {
            var (page, next) = await visits.PageAsync(filter.Place, null, after, VisitsAtATime, withTracks: false, stop);
            foreach (var visit in page)
            {
                foreach (var record in visit.Records)
                {
                    // A line that stands for a plant is told with the plant.
                    if (record.Lines[0].PlantId is not null || (filter.Taxon is { } taxon && record.Lines[0].Name != taxon))
                        continue;
                    if (OccurrenceExport.Of(visit, record, taxa, sensitive) is var it && IsTold(it))
                        yield return it;
                }
            }
            if (next is null)
                yield break;
            after = next;
        }
    }

    /// <summary>Writes them.</summary>
    /// <param name="output">Where to.</param>
    /// <param name="form">In which form.</param>
    /// <param name="filter">What they are narrowed to.</param>
    /// <param name="isExact">Whether sensitive taxa are told exactly.</param>
    /// <param name="stop">Stops the writing.</param>
    /// <returns>What is wrong; null where all was written.</returns>
    public async Task<ProblemReport?> WriteAsync(Stream output, RecordForm form, RecordFilter filter, bool isExact, CancellationToken stop)
    {
        if (form == RecordForm.Csv)
        {
            await OccurrenceCsv.WriteAsync(output, AllAsync(filter, isExact, stop), stop);
            return null;
        }
        var all = new List<DarwinCoreOccurrence>();
        await foreach (var it in AllAsync(filter, isExact, stop))
        {
            if (form.Shape is not null && it.DecimalLatitude is null)
                continue;
            if (all.Count >= ShapeWriter.MostShapes)
                return new ProblemReport(
                    "These are too many records for such a file.",
                    422,
                    "records.many",
                    $"Narrow them to a taxon or a place, or take CSV: a file of this kind holds {ShapeWriter.MostShapes}.",
                    "taxon"
                );
            all.Add(it);
        }
        if (form.Shape is { } shape)
            ShapeWriter.Write(output, shape, all.Select(Shape));
        else
            await output.WriteAsync(SurveyWorkbook.Write([Table(all)], isDictionaryFirst: false), stop);
        return null;
    }

    private static WrittenShape Shape(DarwinCoreOccurrence it) =>
        new(
            it.VerbatimIdentification.Length > 0 ? it.VerbatimIdentification : it.ScientificName,
            [new GroundPoint(it.DecimalLatitude!.Value, it.DecimalLongitude!.Value)],
            [
                .. OccurrenceCsv
                    .Headers.Zip(OccurrenceCsv.Cells(it))
                    .Where(c => c.First is not ("decimalLatitude" or "decimalLongitude" or "geodeticDatum")),
            ]
        );

    private static DataTable Table(IReadOnlyList<DarwinCoreOccurrence> all) =>
        new(
            "records",
            "Records of plants and lists",
            [
                .. OccurrenceCsv.Headers.Select(h => new DataColumn(
                    h,
                    h.StartsWith("decimal", StringComparison.Ordinal) || h.StartsWith("coordinateU", StringComparison.Ordinal)
                        ? ColumnType.Number
                        : ColumnType.Text,
                    $"The Darwin Core term {h}."
                )),
            ],
            [
                .. all.Select(it =>
                    (IReadOnlyList<object?>)
                        [
                            .. OccurrenceCsv
                                .Headers.Zip(OccurrenceCsv.Cells(it))
                                .Select(c =>
                                    c.First switch
                                    {
                                        "decimalLatitude" => it.DecimalLatitude,
                                        "decimalLongitude" => it.DecimalLongitude,
                                        "coordinateUncertaintyInMeters" => it.CoordinateUncertaintyInMeters,
                                        _ => (object?)c.Second,
                                    }
                                ),
                        ]
                ),
            ]
        );
}
