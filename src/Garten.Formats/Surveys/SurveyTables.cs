using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Formats.Surveys;

/// <summary>The tables of a survey. In the public ones sensitive taxa are left out: of a survey of few places the name alone would tell
/// where they stand.</summary>
/// <param name="whole">The survey.</param>
/// <param name="taxa">What is known of taxa.</param>
/// <param name="sensitive">Which are kept back; null for tables with everything exact.</param>
public sealed class SurveyTables(SurveyWhole whole, TaxonIndex taxa, SensitiveTaxa? sensitive)
{
    private readonly Dictionary<Guid, string> _places = whole.Survey.Places.ToDictionary(p => p.Id, p => p.Name);
    private readonly Dictionary<Guid, Plot> _plots = whole.Plots.ToDictionary(p => p.Id);
    private readonly IReadOnlyList<PlotRecord> _records = PlotRecord.Holding(whole.Records);

    private bool IsKeptBack(string taxon) => taxon.Length > 0 && sensitive?.Holds(taxon) == true;

    // What people write may name what is kept back.
    private string Free(string text) =>
        sensitive is not null && sensitive.Names.Any(n => text.Contains(n, StringComparison.OrdinalIgnoreCase)) ? "" : text;

    /// <summary>All of them.</summary>
    public IReadOnlyList<DataTable> All() =>
        [Places(), Visits(), Listed(), Sought(), Plots(), Recordings(), Finds(), Samples(), Ecology(), Shares(), Frequencies(), Changes()];

    private static DataColumn Text(string name, string description) => new(name, ColumnType.Text, description);

    private static DataColumn Number(string name, string description) => new(name, ColumnType.Number, description);

    private static DataColumn Whole(string name, string description) => new(name, ColumnType.Whole, description);

    private static DataColumn Day(string name, string description) => new(name, ColumnType.Day, description);

    private static DataColumn YesNo(string name, string description) => new(name, ColumnType.YesNo, description);

    private DataTable Places() =>
        new(
            "places",
            "The places of the survey",
            [
                Text("place_id", "Id of the place"),
                Text("name", "Its name"),
                Text("locality", "Where it is"),
                Number("latitude", "Degrees, north positive, WGS 84"),
                Number("longitude", "Degrees, east positive, WGS 84"),
                Number("uncertainty_m", "Radius in metres of the circle that holds it"),
                Text("cell", "Grid cell"),
                Text("habitats", "Habitats, several with | between"),
            ],
            [
                .. whole.Survey.Places.Select(p =>
                    (IReadOnlyList<object?>)
                        [
                            Id(p.Id),
                            p.Name,
                            p.Locality,
                            p.Latitude,
                            p.Longitude,
                            p.UncertaintyMetres,
                            p.Cell,
                            string.Join(" | ", p.Habitats ?? []),
                        ]
                ),
            ]
        );

    private DataTable Visits() =>
        new(
            "visits",
            "Visits to the places within the survey’s days",
            [
                Text("visit_id", "Id of the visit"),
                Text("place_id", "Its place"),
                Day("date", "Its day"),
                Text("started", "When it began, HH:MM"),
                Text("ended", "When it ended, HH:MM"),
                Text("people", "Who was there, several with | between"),
                Whole("search_minutes", "Minutes of searching without pauses"),
                Whole("person_minutes", "The same times the people"),
                Text("list", "Whether the list is said to be complete: complete, partial, unsaid"),
                Text("group", "Of which group"),
                Text("purpose", "What for"),
                Text("weather", "Weather"),
            ],
            [
                .. whole.Visits.Select(v =>
                    (IReadOnlyList<object?>)
                        [
                            Id(v.Id),
                            Id(v.Place.Id),
                            v.Date,
                            v.StartedAt,
                            v.Closing?.EndedAt ?? "",
                            string.Join(" | ", v.People.Select(p => p.Name)),
                            v.Effort.SearchMinutes,
                            v.Effort.PersonMinutes,
                            Word(v.Closing?.Completeness ?? Completeness.Unsaid),
                            v.Closing?.Group ?? "",
                            Free(v.Purpose),
                            Free(v.Weather),
                        ]
                ),
            ]
        );

    private DataTable Listed() =>
        new(
            "listed",
            "What stands on the lists of the visits",
            [
                Text("record_id", "Id of the record"),
                Text("visit_id", "The visit"),
                Day("date", "The day"),
                Text("taxon", "Its name; empty while it has none"),
                Text("called", "What it is called until it has a name"),
                Text("common_name", "Common name"),
                Text("part", "Part of the place"),
                Text("recorders", "Who saw it, several with | between"),
                Text("abundance", "One of five words from dominant to rare"),
                YesNo("is_local", "Whether that holds in parts of the place only"),
                Whole("count", "How many"),
                Text("unit", "What was counted"),
                Text("growth", "wild, planted, escaped, unsure"),
                Text("note", "A note"),
            ],
            [.. whole.Visits.SelectMany(v => v.Records.Where(r => !IsKeptBack(r.Lines[0].Name)).Select(r => Listed(v, r)))]
        );

    private IReadOnlyList<object?> Listed(SiteVisit visit, ListedTaxon record)
    {
        var line = record.Lines[0];
        return
        [
            Id(record.Id),
            Id(visit.Id),
            visit.Date,
            line.Name,
            line.Unnamed,
            taxa.Find(line.Name)?.CommonName ?? "",
            Free(line.Compartment),
            string.Join(" | ", record.Lines.Select(l => l.Recorder).Distinct(StringComparer.Ordinal)),
            line.Details.Abundance is { } abundance ? Word(abundance) : "",
            line.Details.Abundance is null ? null : line.Details.IsLocal,
            line.Details.Count,
            line.Details.Unit is { } unit ? Word(unit) : "",
            line.Details.Growth is { } growth ? Word(growth) : "",
            Free(line.Details.Note),
        ];
    }

    private DataTable Sought() =>
        new(
            "sought_in_vain",
            "What was looked for in vain",
            [
                Text("visit_id", "The visit"),
                Day("date", "Its day"),
                Text("taxon", "What was sought"),
                Text("area", "Where at the place"),
                Whole("minutes", "For how long"),
                Whole("observers", "By how many"),
                Text("note", "A note"),
            ],
            [
                .. whole.Visits.SelectMany(v =>
                    (v.Closing?.Sought ?? [])
                        .Where(s => !IsKeptBack(s.Taxon))
                        .Select(s =>
                            (IReadOnlyList<object?>)[Id(v.Id), v.Date, s.Taxon, Free(s.Area), s.Minutes, s.Observers, Free(s.Note)]
                        )
                ),
            ]
        );

    private bool IsPlotKeptBack(Plot plot) => _records.Any(r => r.PlotId == plot.Id && r.Finds.Any(f => IsKeptBack(f.Taxon)));

    private DataTable Plots() =>
        new(
            "plots",
            "The plots of the survey",
            [
                Text("plot_id", "Id of the plot"),
                Text("place_id", "Its place"),
                Text("label", "What it is called"),
                YesNo("is_permanent", "Whether it is recorded again"),
                Text("placing", "How its position was chosen: random, stratified, systematic, chosen"),
                Number("seed", "Where chance began"),
                Number("latitude", "Degrees, north positive; empty where it would lead to a sensitive plant"),
                Number("longitude", "Degrees, east positive"),
                Number("uncertainty_m", "Metres by which the position may be off"),
                Text("part", "Part of the place"),
                Text("group", "What it is compared under"),
                Number("size_m2", "Its size in square metres"),
            ],
            [
                .. whole.Plots.Select(p =>
                {
                    var site = IsPlotKeptBack(p) ? null : p.Site;
                    return (IReadOnlyList<object?>)
                        [
                            Id(p.Id),
                            Id(p.PlaceId),
                            p.Label,
                            p.IsPermanent,
                            Word(p.Placing),
                            p.Seed is { } seed ? (double)seed : null,
                            site?.Latitude,
                            site?.Longitude,
                            site?.UncertaintyMetres,
                            Free(p.Part),
                            Free(p.Group),
                            p.SquareMetres ?? whole.Survey.Now()?.Protocol.SquareMetres,
                        ];
                }),
            ]
        );

    private DataTable Recordings() =>
        new(
            "recordings",
            "When plots were recorded",
            [
                Text("recording_id", "Id of the recording"),
                Text("plot_id", "The plot"),
                Text("visit_id", "The visit"),
                Day("date", "Its day"),
                Text("recorder", "Who recorded it"),
                Whole("protocol", "Version of the protocol"),
                Number("bare_ground_percent", "Bare ground, per cent"),
                Number("litter_percent", "Litter, per cent"),
                Whole("minutes", "Minutes at the plot"),
                Text("repeats", "The recording that it is an independent second of"),
                Text("departure", "In what it departs from the protocol"),
                Text("note", "A note"),
            ],
            [
                .. _records.Select(r =>
                    (IReadOnlyList<object?>)
                        [
                            Id(r.Id),
                            Id(r.PlotId),
                            Id(r.SiteVisitId),
                            r.Date,
                            r.Recorder,
                            r.ProtocolVersion,
                            r.BareGround,
                            r.Litter,
                            r.Minutes,
                            r.Repeats is { } first ? Id(first) : "",
                            Free(r.Departure),
                            Free(r.Note),
                        ]
                ),
            ]
        );

    private DataTable Finds() =>
        new(
            "finds",
            "What was found in the plots",
            [
                Text("recording_id", "The recording"),
                Text("taxon", "Its name"),
                Text("layer", "The layer"),
                Number("cover_percent", "Cover in per cent: estimated, or the middle of its class"),
                Text("class", "The mark of its class"),
                Whole("count", "Individuals"),
                Whole("first_hits", "Pins or cells at which it was met first"),
                Whole("hits", "All hits"),
                Whole("nest", "Of nested squares the smallest with it, from 1; empty: the largest alone, or not nested"),
            ],
            [
                .. _records
                    .Where(r => _plots.ContainsKey(r.PlotId))
                    .SelectMany(r =>
                        r.Finds.Where(f => !IsKeptBack(f.Taxon))
                            .Select(f =>
                                (IReadOnlyList<object?>)
                                    [Id(r.Id), f.Taxon, f.Layer, Cover(r, f), f.Class, f.Count, f.FirstHits, f.Hits, f.Nest]
                            )
                    ),
            ]
        );

    private double? Cover(PlotRecord record, PlotFind find) =>
        whole.Survey.ProtocolOf(record.ProtocolVersion)
            is { Scale: PlotScale.Percent or PlotScale.SevenClasses or PlotScale.TenClasses } protocol
            ? find.Amount(protocol)
            : null;

    private SurveySource Source => _records.Count > 0 ? SurveySource.Plots : SurveySource.Lists;

    private SurveyFigures Figures(SurveyUnit by) => new SurveyFiguresRequest(whole, Source, by).WorkOut(taxa);

    private DataTable Samples() =>
        new(
            "samples",
            "Figures of each recording",
            [
                Text("sample", "The plot and year, or the place and day of a list"),
                Whole("richness", "Taxa found"),
                Number("individuals", "Individuals counted"),
                Number("shannon", "Shannon’s H′, natural logarithms"),
                Number("simpson", "Simpson, 1 − Σp²"),
                Number("pielou", "Pielou’s evenness, H′ / ln S"),
                Number("chao1", "Taxa in all after Chao, bias-corrected"),
            ],
            [
                .. (Figures(SurveyUnit.Each).Statistics?.Samples ?? []).Select(s =>
                    (IReadOnlyList<object?>)
                        [s.Sample, s.Richness, s.Individuals is { } n ? (double)n : null, s.Shannon, s.Simpson, s.Pielou, s.Chao1]
                ),
            ]
        );

    private DataTable Ecology() =>
        new(
            "ecology",
            "What the taxa of each place say of its ground, by the values of the flora",
            [
                Text("place", "The place"),
                Text("factor", "light (1 to 9), moisture (1 to 12), reaction (1 to 9), nutrients (1 to 9) or conservatism (0 to 10)"),
                Whole("rated", "Taxa with a value; of conservatism native ones"),
                Number("median", "Their median; not of conservatism"),
                Number("mean", "Their mean"),
                Number("weighted", "Their mean weighted by amounts"),
                Number("index", "Of conservatism: mean · √taxa (Swink and Wilhelm 1994)"),
                Number("adjusted", "Of conservatism: 0 to 100 (Miller and Wardrop 2006)"),
            ],
            [
                .. Figures(SurveyUnit.Place)
                    .Ecology.SelectMany(e =>
                        e.Factors.Select(f =>
                                (IReadOnlyList<object?>)[e.Sample, Word(f.Factor), f.Rated, f.Median, f.Mean, f.Weighted, null, null]
                            )
                            .Append([
                                e.Sample,
                                "conservatism",
                                e.Quality.Rated,
                                null,
                                e.Quality.Mean,
                                e.Quality.Weighted,
                                e.Quality.Index,
                                e.Quality.Adjusted,
                            ])
                    ),
            ]
        );

    private DataTable Shares() =>
        new(
            "shares",
            "The taxa divided by origin, growth, habitat and part of the place",
            [
                Text("by", "origin (after the flora), growth (as recorded), habitat (after the flora), part (of the place)"),
                Text("name", "Of what"),
                Whole("taxa", "Taxa"),
                Whole("finds", "Finds: a taxon in a recording"),
                Number("of_taxa", "The taxa as a share of all, 0 to 1"),
                Number("of_finds", "The finds as a share of all"),
            ],
            [
                .. Figures(SurveyUnit.Each)
                    .Shares.SelectMany(d =>
                        d.Shares.Select(s => (IReadOnlyList<object?>)[Word(d.By), s.Name, s.Taxa, s.Finds, s.OfTaxa, s.OfFinds])
                    ),
            ]
        );

    private DataTable Frequencies() =>
        new(
            "frequencies",
            "In how many recordings each taxon stands, by place",
            [
                Text("taxon", "Its name"),
                Text("place", "The place"),
                Whole("found", "Recordings with it"),
                Whole("of", "Recordings there"),
                Number("low", "Lower bound of the share, 95 %, after Wilson"),
                Number("high", "Upper bound of the share"),
                Whole("constancy", "Class of constancy, 1 to 5; 0 where it isn’t found"),
            ],
            [
                .. Figures(SurveyUnit.Each)
                    .Frequencies.Where(f => !IsKeptBack(f.Taxon))
                    .SelectMany(f =>
                        f.Groups.Select(g =>
                            (IReadOnlyList<object?>)[f.Taxon, g.Group, g.Found, g.Of, g.Share.Low, g.Share.High, g.Constancy]
                        )
                    ),
            ]
        );

    private DataTable Changes() =>
        new(
            "changes",
            "How the share of permanent plots with a taxon changed",
            [
                Text("taxon", "Its name"),
                Whole("from", "The earlier year"),
                Whole("to", "The later year"),
                Whole("both", "Plots with it in both"),
                Whole("lost", "In the earlier alone"),
                Whole("gained", "In the later alone"),
                Number("change", "Change of the share, −1 to 1"),
                Number("low", "Lower bound, 95 %, after Newcombe"),
                Number("high", "Upper bound"),
                Whole("rose", "Plots in which there was more of it, or a higher class"),
                Whole("fell", "Plots in which there was less"),
                Number("p", "Of the sign test"),
            ],
            [
                .. new SurveyChangeRequest(whole)
                    .WorkOut()
                    .SelectMany(c =>
                        c.Taxa.Where(t => !IsKeptBack(t.Taxon))
                            .Select(t =>
                                (IReadOnlyList<object?>)
                                    [
                                        t.Taxon,
                                        c.From,
                                        c.To,
                                        t.Both,
                                        t.Lost,
                                        t.Gained,
                                        t.Share.Value,
                                        t.Share.Low,
                                        t.Share.High,
                                        t.Rose,
                                        t.Fell,
                                        t.P,
                                    ]
                            )
                    ),
            ]
        );

    private static string Id(Guid id) => id.ToString("D");

    private static string Word<T>(T value)
        where T : struct, Enum => value.ToString().ToLowerInvariant();
}
