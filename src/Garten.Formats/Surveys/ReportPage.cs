using System.Globalization;
using System.Text;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Formats.Print;

namespace Garten.Formats.Surveys;

/// <summary>Writes the report of a survey as one HTML page that needs nothing else: no script, no font, no picture from elsewhere. It
/// prints on A4 with its tables' headings on each page.</summary>
public static class ReportPage
{
    private const double Width = 640;
    private const double MapHeight = 300;
    private const double ChartHeight = 220;
    private const double Margin = 36;

    private const string Style = """
        :root{color-scheme:light}
        body{font:16px/1.5 Georgia,"Times New Roman",serif;color:#1d1b16;background:#fbf9f2;margin:2rem auto;max-width:52rem;padding:0 1rem}
        h1{font-size:1.9rem;line-height:1.2;margin:0 0 .25rem}
        h2{font-size:1.25rem;margin:2rem 0 .5rem;border-bottom:2px solid #1d1b16;break-after:avoid}
        p{margin:.4rem 0}
        table{border-collapse:collapse;width:100%;margin:.75rem 0;font-size:.9rem}
        caption{text-align:left;font-weight:bold;padding:.25rem 0}
        th,td{text-align:left;vertical-align:top;padding:.2rem .5rem .2rem 0;border-bottom:1px solid #b9b29d}
        th{border-bottom:2px solid #1d1b16}
        thead{display:table-header-group}
        tr,figure{break-inside:avoid}
        figure{margin:1rem 0}
        figcaption{font-size:.9rem}
        svg{max-width:100%;height:auto;background:#fff}
        .about{color:#4a463a}
        .own{border-left:3px solid #4a463a;padding-left:.6rem}
        @page{size:A4;margin:18mm 16mm}
        @media print{body{background:#fff;margin:0;max-width:none;padding:0;font-size:11pt}h2{break-after:avoid}}
        """;

    /// <summary>Writes it.</summary>
    /// <param name="report">The report.</param>
    /// <param name="forWhom">Whom it was kept for; empty where it is told as it stands now.</param>
    public static string Write(SurveyReport report, string forWhom = "")
    {
        ArgumentNullException.ThrowIfNull(report);
        var page = new StringBuilder();
        page.Append(
                $"<h1>{Safe(report.Title)}</h1>\n<p class=\"about\">{(forWhom.Length > 0 ? $"For {Safe(forWhom)}. " : "")}As of {Written(report.MadeOn)}. "
            )
            .Append(
                report.IsPublic
                    ? "Places of sensitive taxa are kept back."
                    : "<strong>With the exact places of sensitive taxa: not to be passed on.</strong>"
            )
            .Append("</p>\n");
        for (var i = 0; i < report.Sections.Count; i++)
        {
            var section = report.Sections[i];
            page.Append($"<section><h2>{Safe(section.Title)}</h2>\n");
            foreach (var sentence in section.Sentences.Where(s => s.Text.Length > 0))
                page.Append($"<p{(sentence.Own.Length > 0 ? " class=\"own\"" : "")}>{Safe(sentence.Text)}</p>\n");
            if (i == 1)
                page.Append(Map(report.Spots));
            if (section.Title == SurveyReportWriter.FiguresTitle)
                page.Append(Drawings(report));
            foreach (var table in section.Tables)
                Table(page, table);
            page.Append("</section>\n");
        }
        return PrintedPage.Of(report.Title, Style, page.ToString());
    }

    private static void Table(StringBuilder page, ReportTable table)
    {
        page.Append($"<table><caption>{Safe(table.Title)}</caption><thead><tr>");
        foreach (var column in table.Columns)
            page.Append($"<th scope=\"col\">{Safe(column)}</th>");
        page.Append("</tr></thead><tbody>\n");
        foreach (var row in table.Rows)
        {
            page.Append("<tr>");
            for (var i = 0; i < row.Count; i++)
                page.Append(table.Names.Contains(i) ? $"<td><i>{Safe(row[i])}</i></td>" : $"<td>{Safe(row[i])}</td>");
            page.Append("</tr>\n");
        }
        page.Append("</tbody></table>\n");
    }

    // Places as rings, plots as dots, as they lie to each other.
    private static string Map(IReadOnlyList<ReportSpot> spots)
    {
        if (spots.Count == 0)
            return "";
        var (south, north) = (spots.Min(s => s.Latitude), spots.Max(s => s.Latitude));
        var (west, east) = (spots.Min(s => s.Longitude), spots.Max(s => s.Longitude));
        var narrowing = Math.Cos((south + north) / 2 * Math.PI / 180);
        var scale = Math.Min(
            (Width - 2 * Margin) / Math.Max(1e-9, (east - west) * narrowing),
            (MapHeight - 2 * Margin) / Math.Max(1e-9, north - south)
        );
        var svg = new StringBuilder(
            Text(
                $"<figure><svg viewBox=\"0 0 {Width:0} {MapHeight:0}\" role=\"img\" aria-label=\"Where the places{(spots.Any(s => s.IsPlot) ? " and plots" : "")} lie\">"
            )
        );
        foreach (var spot in spots.OrderBy(s => s.IsPlot))
        {
            var x = Width / 2 + (spot.Longitude - (west + east) / 2) * narrowing * scale;
            var y = MapHeight / 2 - (spot.Latitude - (south + north) / 2) * scale;
            svg.Append(
                spot.IsPlot
                    ? Text($"<circle cx=\"{x:0.0}\" cy=\"{y:0.0}\" r=\"2.5\" fill=\"#1d1b16\"><title>{Safe(spot.Label)}</title></circle>")
                    : Text($"<circle cx=\"{x:0.0}\" cy=\"{y:0.0}\" r=\"9\" fill=\"none\" stroke=\"#2f5d3a\" stroke-width=\"2\"/>")
                        + Text($"<text x=\"{(x > Width / 2 ? x - 13 : x + 13):0.0}\" y=\"{y + 4:0.0}\" font-size=\"13\" ")
                        + $"text-anchor=\"{(x > Width / 2 ? "end" : "start")}\">{Safe(spot.Label)}</text>"
            );
        }
        var across = Ring.Metres(new GroundPoint((south + north) / 2, west), new GroundPoint((south + north) / 2, east)) / 1000;
        return svg.Append(
                Text(
                    $"</svg><figcaption>North is up{(across > 0.05 ? $"; from the westernmost to the easternmost it is {across:0.0} km" : "")}.</figcaption></figure>\n"
                )
            )
            .ToString();
    }

    private static string Drawings(SurveyReport report) =>
        (report.Accumulation.Count > 1 ? Chart(report) : "")
        + (report.Changes.Count > 0 ? Changes(report.Changes) : "")
        + (report.Arrangement?.Arrangement is { Ordination.Axes.Count: > 1 } arranged ? Plane(arranged, report.Arrangement.Groups) : "");

    private const double RowHeight = 20;
    private const double NameWidth = 190;

    // A line a taxon: its change of frequency with the interval, on an axis from -100 % to +100 %.
    private static string Changes(IReadOnlyList<TaxonChange> changes)
    {
        var height = changes.Count * RowHeight + Margin;
        double X(double share) => NameWidth + (share + 1) / 2 * (Width - NameWidth - Margin / 2);
        var svg = new StringBuilder(
            Text($"<figure><svg viewBox=\"0 0 {Width:0} {height:0}\" role=\"img\" aria-label=\"Changes of frequency with intervals\">")
        );
        svg.Append(Text($"<path d=\"M{X(0):0.0} 4V{height - Margin + 8:0.0}\" stroke=\"#4a463a\" stroke-dasharray=\"3 3\"/>"));
        for (var i = 0; i < changes.Count; i++)
        {
            var (it, y) = (changes[i], (i + 0.5) * RowHeight + 4);
            var colour = it.Share.IsClear ? "#2f5d3a" : "#4a463a";
            svg.Append(
                    Text($"<text x=\"{NameWidth - 10:0}\" y=\"{y + 4:0.0}\" font-size=\"13\" font-style=\"italic\" text-anchor=\"end\">")
                        + $"{Safe(it.Taxon)}</text>"
                )
                .Append(
                    Text(
                        $"<path d=\"M{X(it.Share.Low!.Value):0.0} {y:0.0}H{X(it.Share.High!.Value):0.0}\" stroke=\"{colour}\" stroke-width=\"2\"/>"
                    )
                )
                .Append(
                    Text($"<circle cx=\"{X(it.Share.Value):0.0}\" cy=\"{y:0.0}\" r=\"4\" stroke=\"{colour}\" stroke-width=\"2\" ")
                        + $"fill=\"{(it.Share.IsClear ? colour : "#fff")}\"/>"
                );
        }
        foreach (var (share, label) in new[] { (-1.0, "−100 %"), (0.0, "no change"), (1.0, "+100 %") })
            svg.Append(
                Text(
                    $"<text x=\"{X(share):0.0}\" y=\"{height - 8:0.0}\" font-size=\"12\" text-anchor=\"{(share > 0 ? "end" : "middle")}\">{label}</text>"
                )
            );
        return svg.Append(
                "</svg><figcaption>Change of the share of permanent plots with a taxon, with its 95 % interval: those that changed most. "
                    + "Filled: the interval leaves out no change.</figcaption></figure>\n"
            )
            .ToString();
    }

    // Groups by form: filled and open circles, squares, triangles.
    private static readonly string[] Forms =
    [
        "<circle r=\"4.5\" fill=\"#1d1b16\"/>",
        "<circle r=\"4.5\" fill=\"#fff\" stroke=\"#1d1b16\" stroke-width=\"1.6\"/>",
        "<rect x=\"-4\" y=\"-4\" width=\"8\" height=\"8\" fill=\"#1d1b16\"/>",
        "<rect x=\"-4\" y=\"-4\" width=\"8\" height=\"8\" fill=\"#fff\" stroke=\"#1d1b16\" stroke-width=\"1.6\"/>",
        "<path d=\"M0 -5.5l5 9h-10z\" fill=\"#1d1b16\"/>",
        "<path d=\"M0 -5.5l5 9h-10z\" fill=\"#fff\" stroke=\"#1d1b16\" stroke-width=\"1.6\"/>",
    ];

    // The recordings in a plane, both axes in one measure: what is near in the drawing is alike.
    private static string Plane(Arrangement arranged, IReadOnlyList<string> groups)
    {
        var points = arranged.Ordination.Points;
        var (west, east) = (points.Min(p => p[0]), points.Max(p => p[0]));
        var (south, north) = (points.Min(p => p[1]), points.Max(p => p[1]));
        var scale = Math.Min((Width - 2 * Margin) / Math.Max(1e-9, east - west), (MapHeight - 2 * Margin) / Math.Max(1e-9, north - south));
        var named = groups.Where(g => g.Length > 0).Distinct(StringComparer.Ordinal).ToList();
        var rows = named.Count > 1 ? named.Count : 0;
        var height = MapHeight + rows * RowHeight;
        var svg = new StringBuilder(
            Text(
                $"<figure><svg viewBox=\"0 0 {Width:0} {height:0}\" role=\"img\" aria-label=\"The recordings in a plane: the nearer, the more alike\">"
            )
        );
        for (var i = 0; i < points.Count; i++)
        {
            var x = Width / 2 + (points[i][0] - (west + east) / 2) * scale;
            var y = MapHeight / 2 - (points[i][1] - (south + north) / 2) * scale;
            var form = Forms[Math.Max(0, i < groups.Count ? named.IndexOf(groups[i]) : 0) % Forms.Length];
            svg.Append(Text($"<g transform=\"translate({x:0.0} {y:0.0})\">") + $"<title>{Safe(arranged.Samples[i])}</title>{form}</g>");
        }
        for (var i = 0; i < rows; i++)
            svg.Append(
                Text($"<g transform=\"translate({Margin:0} {MapHeight + (i + 0.3) * RowHeight:0.0})\">{Forms[i % Forms.Length]}")
                    + $"<text x=\"12\" y=\"4\" font-size=\"13\">{Safe(named[i])}</text></g>"
            );
        var shares = arranged.Ordination.Axes;
        return svg.Append(
                Text(
                    $"</svg><figcaption>The recordings in a plane (principal coordinates): the nearer, the more alike. Across {100 * shares[0].Share:0} % of the differences, up {100 * shares[1].Share:0} %.</figcaption></figure>\n"
                )
            )
            .ToString();
    }

    // Taxa by the number of recordings, with one standard deviation to either side.
    private static string Chart(SurveyReport report)
    {
        var points = report.Accumulation;
        var (mostX, mostY) = (points[^1].Samples, Math.Max(1, points.Max(p => p.Richness + p.Sd)));
        double X(double samples) => Margin + (samples - 1) / Math.Max(1, mostX - 1) * (Width - 2 * Margin);
        double Y(double taxa) => ChartHeight - Margin - taxa / mostY * (ChartHeight - 2 * Margin);
        var upper = string.Join(' ', points.Select(p => Text($"{X(p.Samples):0.0},{Y(p.Richness + p.Sd):0.0}")));
        var lower = string.Join(' ', points.Reverse().Select(p => Text($"{X(p.Samples):0.0},{Y(Math.Max(0, p.Richness - p.Sd)):0.0}")));
        var line = string.Join(' ', points.Select(p => Text($"{X(p.Samples):0.0},{Y(p.Richness):0.0}")));
        var label = Text($"Taxa by the number of recordings: {points[^1].Richness:0} after {mostX}");
        return Text($"<figure><svg viewBox=\"0 0 {Width:0} {ChartHeight:0}\" role=\"img\" aria-label=\"{label}\">")
            + $"<polygon points=\"{upper} {lower}\" fill=\"#d9e3d3\"/><polyline points=\"{line}\" fill=\"none\" stroke=\"#2f5d3a\" stroke-width=\"2.5\"/>"
            + Text($"<path d=\"M{Margin:0} {Margin:0}V{ChartHeight - Margin:0}H{Width - Margin:0}\" fill=\"none\" stroke=\"#1d1b16\"/>")
            + Text($"<text x=\"{Margin:0}\" y=\"{Margin - 10:0}\" font-size=\"13\">{mostY:0} taxa</text>")
            + Text(
                $"<text x=\"{Width - Margin:0}\" y=\"{ChartHeight - 14:0}\" font-size=\"13\" text-anchor=\"end\">{mostX} recordings</text>"
            )
            + "</svg><figcaption>Taxa found by the number of recordings, on average over all orders, with one standard deviation. "
            + "Where the line still rises, more recordings would have found more.</figcaption></figure>\n";
    }

    private static string Text(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);

    private static string Safe(string text) => PrintedPage.Safe(text);

    private static string Written(DateOnly day) => day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);
}
