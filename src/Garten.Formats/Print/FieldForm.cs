using System.Globalization;
using System.Text;

namespace Garten.Formats.Print;

/// <summary>A taxon on a form, to be ticked.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Common">Its common name; may be empty.</param>
/// <param name="Note">Years in which it was found, or what to mind; may be empty.</param>
public sealed record FormTaxon(string Name, string Common, string Note);

/// <summary>A form on paper for a place and a day: head, what was found there before, what the flora expects, lines to write on.</summary>
public static class FieldForm
{
    private const int EmptyLines = 14;

    private const string Style = """
        body{font:10pt/1.3 "Helvetica Neue",Arial,sans-serif;color:#000;background:#fff;margin:10mm}
        h1{font-size:15pt;margin:0 0 2mm}h2{font-size:11pt;margin:4mm 0 1mm;border-bottom:1px solid #000;break-after:avoid}
        .head{display:grid;grid-template-columns:repeat(4,1fr);gap:3mm}
        .head div,.line{border-bottom:1px solid #000;min-height:9mm;font-size:8pt}
        ul{list-style:none;margin:0;padding:0;columns:3;column-gap:5mm}
        li{break-inside:avoid;border-bottom:1px dotted #777;padding:1mm 0;display:grid;grid-template-columns:4mm 1fr 14mm;gap:1.5mm;align-items:baseline}
        .box{width:3.5mm;height:3.5mm;border:1px solid #000;display:inline-block}
        .how{border-bottom:1px solid #000;height:4mm}
        i{font-style:italic}.small{font-size:8pt}
        .mind{border:2px solid #000;padding:2mm;margin:2mm 0}
        @page{size:A4;margin:12mm}
        @media print{body{margin:0}}
        """;

    /// <summary>Writes it.</summary>
    /// <param name="place">Name of the place.</param>
    /// <param name="locality">Where it is.</param>
    /// <param name="mind">What to mind there.</param>
    /// <param name="when">For when: "June".</param>
    /// <param name="before">What was found there before.</param>
    /// <param name="expected">What the flora expects there then, and was never found.</param>
    public static string Write(
        string place,
        string locality,
        string mind,
        string when,
        IReadOnlyList<FormTaxon> before,
        IReadOnlyList<FormTaxon> expected
    )
    {
        var body = new StringBuilder(
            $"<h1>{PrintedPage.Safe(place)}, {PrintedPage.Safe(when)}</h1><div class=\"small\">{PrintedPage.Safe(locality)}</div>"
        );
        if (mind.Length > 0)
            body.Append($"<div class=\"mind\">△ {PrintedPage.Safe(mind)}</div>");
        body.Append("<div class=\"head\">");
        foreach (
            var field in new[]
            {
                "Day",
                "From",
                "To",
                "Pauses",
                "Who",
                "Weather",
                "Part of the place",
                "All noticed taxa listed? Group, level",
            }
        )
            body.Append($"<div>{field}</div>");
        body.Append("</div>\n");
        List(body, "Seen here before", before);
        List(body, "To be expected, and never seen here", expected);
        body.Append("<h2>More</h2><div class=\"small\">Taxon · how much · phase · wild or planted · note</div>");
        for (var i = 0; i < EmptyLines; i++)
            body.Append("<div class=\"line\"></div>");
        body.Append("<h2>Looked for in vain: taxon, where, minutes, observers</h2>");
        for (var i = 0; i < 4; i++)
            body.Append("<div class=\"line\"></div>");
        body.Append(
            "<p class=\"small\">Tick what is there; behind it how much: D dominant, A abundant, F frequent, O occasional, R rare, L "
                + "before it: locally. "
                + "Somebody knows where you are and when you are back. Nothing protected is picked; local law and the owner’s leave "
                + "come first.</p>"
        );
        return PrintedPage.Of(string.Create(CultureInfo.InvariantCulture, $"Field form: {place}"), Style, body.ToString());
    }

    private static void List(StringBuilder body, string title, IReadOnlyList<FormTaxon> taxa)
    {
        if (taxa.Count == 0)
            return;
        body.Append($"<h2>{title}</h2><ul>\n");
        foreach (var it in taxa)
            body.Append(
                $"<li><span class=\"box\"></span><span><i>{PrintedPage.Safe(it.Name)}</i> <span "
                    + $"class=\"small\">{PrintedPage.Safe(it.Common)} {PrintedPage.Safe(it.Note)}</span></span><span "
                    + $"class=\"how\"></span></li>\n"
            );
        body.Append("</ul>\n");
    }
}
