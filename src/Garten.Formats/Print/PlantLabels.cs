using System.Globalization;
using System.Text;

namespace Garten.Formats.Print;

/// <summary>What a label says of a plant.</summary>
/// <param name="Tag">Its tag.</param>
/// <param name="Name">Its name; empty where it has none, or where a label by the plant shouldn't tell it.</param>
/// <param name="Place">The place.</param>
/// <param name="Since">The day on which it was tagged; null where it wasn't.</param>
/// <param name="Code">A picture that opens the plant's page, as SVG.</param>
public sealed record PlantLabel(string Tag, string Name, string Place, DateOnly? Since, string Code);

/// <summary>Sheets of labels to be put by plants: 24 on A4, each with a code that opens the plant.</summary>
public static class PlantLabels
{
    /// <summary>Most labels at a time.</summary>
    public const int Most = 480;

    private const string Style = """
        body{font:10pt/1.25 "Helvetica Neue",Arial,sans-serif;color:#000;background:#fff;margin:0}
        .about{margin:1rem;max-width:40rem}
        .sheet{display:grid;grid-template-columns:repeat(3,64mm);grid-auto-rows:33.9mm;gap:0 2.5mm;width:197mm;margin:8mm auto;break-after:page}
        .label{display:grid;grid-template-columns:22mm 1fr;gap:2mm;align-items:center;padding:2mm;overflow:hidden;outline:1px dotted #999;break-inside:avoid}
        .label svg{width:22mm;height:22mm}
        .tag{font-size:13pt;font-weight:700}
        .name{font-style:italic}
        @page{size:A4;margin:0}
        @media print{.about{display:none}.sheet{margin:10mm 6mm}.label{outline:0}}
        """;

    private const int PerSheet = 24;

    /// <summary>Writes them.</summary>
    /// <param name="labels">The labels.</param>
    public static string Write(IReadOnlyList<PlantLabel> labels)
    {
        ArgumentNullException.ThrowIfNull(labels);
        var body = new StringBuilder(
            "<p class=\"about\">Print at full size. Of sensitive plants the label bears no name: a mark that tells what stands "
                + "there helps those who dig. "
                + "No visible marks by plants that are likely to be taken, no metal where it is mown, and only where the owner "
                + "permits it.</p>\n"
        );
        foreach (var sheet in labels.Chunk(PerSheet))
        {
            body.Append("<div class=\"sheet\">\n");
            foreach (var it in sheet)
                body.Append(
                    $"<div class=\"label\">{it.Code}<div><div class=\"tag\">{PrintedPage.Safe(it.Tag)}</div><div "
                        + $"class=\"name\">{PrintedPage.Safe(it.Name)}</div><div>{PrintedPage.Safe(it.Place)}</div>"
                        + $"<div>{it.Since?.ToString("d MMM yyyy", CultureInfo.InvariantCulture)}</div></div></div>\n"
                );
            body.Append("</div>\n");
        }
        return PrintedPage.Of("Labels", Style, body.ToString());
    }
}
