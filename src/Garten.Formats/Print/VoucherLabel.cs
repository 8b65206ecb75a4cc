using System.Globalization;
using System.Text;

namespace Garten.Formats.Print;

/// <summary>What is said of a pressed specimen besides its plant.</summary>
/// <param name="Number">The collector's number.</param>
/// <param name="Part">What was taken: "a flowering shoot".</param>
/// <param name="Licence">By which leave it was taken; empty where none was needed.</param>
/// <param name="Herbarium">Where it goes.</param>
/// <param name="Duplicates">Where duplicates go; may be empty.</param>
public sealed record VoucherWords(string Number, string Part, string Licence, string Herbarium, string Duplicates);

/// <summary>A name that was put on a plant.</summary>
/// <param name="Name">The name, or those left open.</param>
/// <param name="By">Who named it.</param>
/// <param name="On">When.</param>
/// <param name="How">By which key; empty where without one.</param>
public sealed record NameSlip(string Name, string By, DateOnly On, string How);

/// <summary>A label for a pressed specimen, with a slip for every name that was put on its plant later: a slip is added, and never takes
/// the place of an earlier one.</summary>
public static class VoucherLabel
{
    private const string Style = """
        body{font:11pt/1.35 Georgia,"Times New Roman",serif;color:#000;background:#fff;margin:10mm}
        .label{width:110mm;border:1px solid #000;padding:5mm;margin-bottom:6mm;break-inside:avoid}
        .slip{width:90mm;border:1px solid #000;padding:3mm;margin-bottom:3mm;break-inside:avoid}
        .head{text-align:center;font-weight:700}
        .name{font-size:14pt;font-style:italic;margin:2mm 0}
        .code{float:right;width:20mm;height:20mm}.code svg{width:20mm;height:20mm}
        dl{display:grid;grid-template-columns:auto 1fr;gap:0 3mm;margin:0}
        dt{color:#333}dd{margin:0}
        @page{size:A4;margin:12mm}
        @media print{body{margin:0}}
        """;

    /// <summary>Writes them.</summary>
    /// <param name="plant">What the plant's label says.</param>
    /// <param name="locality">Where, in full.</param>
    /// <param name="cautions">What to mind when the specimen is handled; may be empty.</param>
    /// <param name="names">The names put on the plant, oldest first; at least one.</param>
    /// <param name="words">What is said of the specimen.</param>
    public static string Write(PlantLabel plant, string locality, string cautions, IReadOnlyList<NameSlip> names, VoucherWords words)
    {
        ArgumentNullException.ThrowIfNull(plant);
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(names);
        if (names.Count == 0)
            throw new ArgumentException("A specimen is labelled by its name.", nameof(names));
        var first = names[0];
        var body = new StringBuilder(
            $"<div class=\"label\"><div class=\"code\">{plant.Code}</div><div class=\"head\">{PrintedPage.Safe(words.Herbarium)}</div>"
        );
        body.Append($"<div class=\"name\">{PrintedPage.Safe(first.Name)}</div><dl>");
        void Line(string term, string text)
        {
            if (text.Length > 0)
                body.Append($"<dt>{term}</dt><dd>{PrintedPage.Safe(text)}</dd>");
        }
        Line("No.", words.Number);
        Line("Taken", words.Part);
        Line("Where", locality);
        Line("Plant", plant.Tag);
        Line("Named by", $"{first.By}, {Day(first.On)}{(first.How.Length > 0 ? $", with {first.How}" : "")}");
        Line("Leave", words.Licence);
        Line("Duplicates", words.Duplicates);
        Line("Mind", cautions);
        body.Append("</dl></div>\n");
        foreach (var slip in names.Skip(1))
            body.Append(
                $"<div class=\"slip\"><div class=\"name\">{PrintedPage.Safe(slip.Name)}</div>"
                    + $"{PrintedPage.Safe(slip.By)}, "
                    + $"{Day(slip.On)}{(slip.How.Length > 0 ? $", with {PrintedPage.Safe(slip.How)}" : "")}<br>No. "
                    + $"{PrintedPage.Safe(words.Number)}</div>\n"
            );
        return PrintedPage.Of($"Voucher {words.Number}", Style, body.ToString());
    }

    private static string Day(DateOnly day) => day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);
}
