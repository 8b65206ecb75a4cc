using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Surveys;
using Garten.Core.Surveys.Plots;

namespace Garten.Formats.Archive;

/// <summary>Makes rows of an archive out of a survey's plots: each recording an event within its visit, each find an occurrence. Finds of
/// sensitive taxa hang on coarse events of their own, and a plot with one is told without its position.</summary>
/// <param name="whole">The survey.</param>
/// <param name="taxa">The taxa of all floras.</param>
/// <param name="sensitive">Which are kept back; null for an export with everything exact.</param>
/// <param name="visits">Rows of visits, for coarse events.</param>
public sealed class PlotRows(SurveyWhole whole, TaxonIndex taxa, SensitiveTaxa? sensitive, VisitRows visits)
{
    private const string Datum = "EPSG:4326";
    private readonly Dictionary<Guid, Plot> _plots = whole.Plots.ToDictionary(p => p.Id);
    private readonly Dictionary<Guid, Place> _places = whole.Survey.Places.ToDictionary(p => p.Id);

    private IEnumerable<(PlotRecord Record, Plot Plot, Place Place)> Recordings(Guid? place) =>
        PlotRecord
            .Holding(whole.Records)
            .Where(r => _plots.TryGetValue(r.PlotId, out var plot) && _places.ContainsKey(plot.PlaceId))
            .Select(r => (r, _plots[r.PlotId], _places[_plots[r.PlotId].PlaceId]))
            .Where(x => place is null || x.Item3.Id == place);

    private bool IsKeptBack(string name) => sensitive?.Holds(name) == true;

    /// <summary>The events: of each recording, and of each find that is kept back.</summary>
    public IEnumerable<IReadOnlyList<string>> Events(Guid? place)
    {
        foreach (var (record, plot, at) in Recordings(place))
        {
            var protocol = whole.Survey.ProtocolOf(record.ProtocolVersion);
            var size = plot.SquareMetres ?? protocol?.SquareMetres;
            var hidesPosition = whole.Records.Any(r => r.PlotId == plot.Id && r.Finds.Any(f => IsKeptBack(f.Taxon)));
            var site = hidesPosition ? null : plot.Site;
            yield return
            [
                Urn(record.Id),
                "Sample",
                Day(record.Date),
                "",
                protocol is null
                    ? "Plot"
                    : $"{protocol.Kind} of the survey {whole.Survey.Name}, protocol version {Whole(record.ProtocolVersion)}",
                record.Minutes is { } minutes ? $"{Whole(minutes)} min" : "",
                Urn(plot.Id),
                $"{at.Name}, plot {plot.Label}",
                string.Join(" | ", at.Habitats ?? []),
                Number(site?.Latitude ?? at.Latitude),
                Number(site?.Longitude ?? at.Longitude),
                Datum,
                Number(site?.UncertaintyMetres ?? at.UncertaintyMetres),
                "",
                "",
                visits.Free(string.Join(". ", new[] { record.Departure, record.Note }.Where(t => t.Length > 0))),
                "",
                "",
                Urn(record.SiteVisitId),
                size is > 0 ? Number(size) : "",
                size is > 0 ? "square metre" : "",
            ];
            foreach (var find in record.Finds.Where(f => IsKeptBack(f.Taxon) && !visits.IsLeftOut(f.Taxon)))
                yield return visits.CoarseEvent(FindId(record, find), find.Taxon, record.Date, at.Latitude, at.Longitude);
        }
    }

    /// <summary>The occurrences: each find.</summary>
    public IEnumerable<IReadOnlyList<string>> Occurrences(Guid? place)
    {
        foreach (var (record, _, at) in Recordings(place))
        {
            foreach (var find in record.Finds.Where(f => !visits.IsLeftOut(f.Taxon)))
                yield return Occurrence(record, find, at);
        }
    }

    private string[] Occurrence(PlotRecord record, PlotFind find, Place at)
    {
        var isKeptBack = IsKeptBack(find.Taxon);
        var id = FindId(record, find);
        var coarse = isKeptBack ? sensitive!.Coarsen([find.Taxon], at.Latitude, at.Longitude) : null;
        var (quantity, type) =
            find.Count is { } count ? (Whole(count), "individuals")
            : find.Percent is { } percent ? (Number(percent), "% cover")
            : find.Class.Length > 0
                ? (
                    find.Class,
                    whole.Survey.ProtocolOf(record.ProtocolVersion)?.Scale == PlotScale.TenClasses ? "Domin scale" : "Braun-Blanquet scale"
                )
            : find.FirstHits is { } hits ? (Whole(hits), "pins or cells hit")
            : ("", "");
        return
        [
            isKeptBack ? VisitRows.CoarseId(id) : Urn(record.Id),
            Urn(id),
            "HumanObservation",
            "present",
            "",
            "",
            isKeptBack ? "" : record.Recorder,
            find.Count is { } n ? Whole(n) : "",
            quantity,
            type,
            "",
            "",
            "",
            "",
            isKeptBack || find.Layer.Length == 0 ? "" : $"layer: {find.Layer}",
            .. VisitRows.NameOf(find.Taxon, taxa.Find(find.Taxon), find.Taxon),
            isKeptBack ? "" : record.Recorder,
            isKeptBack ? "" : Day(record.Date),
            "",
            "",
            "",
            "",
            "",
            "",
            "",
            "",
            coarse?.Generalization ?? "",
            coarse?.Withheld ?? "",
            "",
        ];
    }

    /// <summary>Identity of a find: the same in every export (SHA-256 of recording, taxon and layer).</summary>
    public static Guid FindId(PlotRecord record, PlotFind find)
    {
        ArgumentNullException.ThrowIfNull(record);
        ArgumentNullException.ThrowIfNull(find);
        return MadeId.Of($"{record.Id:D}\n{find.Taxon}\n{find.Layer}");
    }

    private static string Urn(Guid id) => $"urn:uuid:{id:D}";

    private static string Number(double? value) => value?.ToString("R", CultureInfo.InvariantCulture) ?? "";

    private static string Whole(int value) => value.ToString(CultureInfo.InvariantCulture);

    private static string Day(DateOnly date) => date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
