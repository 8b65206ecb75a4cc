using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml.Linq;

namespace Garten.Formats.Archive;

/// <summary>What is said of an archive as a whole.</summary>
/// <param name="Id">Its id, the same for every archive of one database.</param>
/// <param name="Title">Its title.</param>
/// <param name="Abstract">What it holds, in a few sentences.</param>
/// <param name="Creators">Who recorded, by name.</param>
/// <param name="Day">The day it was made.</param>
/// <param name="Rights">What may be done with it, in a sentence.</param>
/// <param name="Methods">How was recorded, a paragraph each.</param>
/// <param name="Box">South, west, north and east of all positions, WGS 84 degrees; null where there are none.</param>
public sealed record ArchiveAbout(
    string Id,
    string Title,
    string Abstract,
    IReadOnlyList<string> Creators,
    DateOnly Day,
    string Rights,
    IReadOnlyList<string> Methods,
    (double South, double West, double North, double East)? Box
);

/// <summary>
/// Writes a Darwin Core Archive: tables as CSV (UTF-8, commas, quotes, a row a line), <c>meta.xml</c> that says which column holds which
/// term, and <c>eml.xml</c> (EML 2.2).
/// </summary>
public static class ArchiveWriter
{
    private static readonly XNamespace Text = "http://rs.tdwg.org/dwc/text/";
    private static readonly XNamespace Eml = "https://eml.ecoinformatics.org/eml-2.2.0";

    /// <summary>Writes an archive.</summary>
    /// <param name="output">Where to; it stays open.</param>
    /// <param name="about">What is said of it as a whole.</param>
    /// <param name="rows">The rows of each table, one after the other: as many cells as it has columns.</param>
    /// <param name="stop">Stops the writing.</param>
    /// <exception cref="ArgumentException">A row hasn't as many cells as its table has columns.</exception>
    public static async Task WriteAsync(
        Stream output,
        ArchiveAbout about,
        Func<ArchiveTable, IAsyncEnumerable<IReadOnlyList<string>>> rows,
        CancellationToken stop
    )
    {
        ArgumentNullException.ThrowIfNull(about);
        ArgumentNullException.ThrowIfNull(rows);
        await using var zip = await ZipArchive.CreateAsync(output, ZipArchiveMode.Create, leaveOpen: true, entryNameEncoding: null, stop);
        foreach (var table in ArchiveTerms.All)
        {
            await using var file = await zip.CreateEntry(table.File, CompressionLevel.Fastest).OpenAsync(stop);
            await using var text = new StreamWriter(file, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false));
            await using var csv = new CsvTable(text);
            foreach (var column in table.Columns)
                csv.Text(column.Header);
            await csv.EndRowAsync();
            await foreach (var row in rows(table).WithCancellation(stop))
            {
                if (row.Count != table.Columns.Count)
                    throw new ArgumentException(
                        $"A row of {table.File} has {row.Count} cells instead of {table.Columns.Count}.",
                        nameof(rows)
                    );
                foreach (var cell in row)
                    Put(csv, cell);
                await csv.EndRowAsync();
            }
        }
        await SaveAsync(zip, "meta.xml", Meta(), stop);
        await SaveAsync(zip, "eml.xml", About(about), stop);
    }

    // A number keeps its minus; a text stands on one line, since many readers end a row at each line break.
    private static void Put(CsvTable csv, string cell)
    {
        if (
            double.TryParse(cell, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
            && double.IsFinite(number)
            && cell[0] != '+'
        )
            csv.Number(number);
        else
            csv.Text(cell.ReplaceLineEndings(" "));
    }

    private static async Task SaveAsync(ZipArchive zip, string name, XDocument document, CancellationToken stop)
    {
        await using var file = await zip.CreateEntry(name, CompressionLevel.Fastest).OpenAsync(stop);
        await document.SaveAsync(file, SaveOptions.None, stop);
    }

    private static XDocument Meta() =>
        new(
            new XElement(
                Text + "archive",
                new XAttribute("metadata", "eml.xml"),
                ArchiveTerms.All.Select(
                    (table, at) =>
                        new XElement(
                            Text + (at == 0 ? "core" : "extension"),
                            new XAttribute("encoding", "UTF-8"),
                            new XAttribute("fieldsTerminatedBy", ","),
                            new XAttribute("linesTerminatedBy", "\\r\\n"),
                            new XAttribute("fieldsEnclosedBy", "\""),
                            new XAttribute("ignoreHeaderLines", 1),
                            new XAttribute("rowType", table.RowType),
                            new XElement(Text + "files", new XElement(Text + "location", table.File)),
                            new XElement(Text + (at == 0 ? "id" : "coreid"), new XAttribute("index", 0)),
                            table.Columns.Select(
                                (column, i) => new XElement(Text + "field", new XAttribute("index", i), new XAttribute("term", column.Term))
                            )
                        )
                )
            )
        );

    private static XDocument About(ArchiveAbout it)
    {
        var creators = it.Creators.Count > 0 ? it.Creators : ["the recorders"];
        XElement Named(string element, string name) => new(element, new XElement("individualName", new XElement("surName", Clean(name))));
        static string Number(double value) => value.ToString("0.#####", CultureInfo.InvariantCulture);
        return new XDocument(
            new XElement(
                Eml + "eml",
                new XAttribute(XNamespace.Xmlns + "eml", Eml.NamespaceName),
                new XAttribute("packageId", it.Id),
                new XAttribute("system", "garten"),
                new XElement(
                    "dataset",
                    new XElement("title", Clean(it.Title)),
                    creators.Select(c => Named("creator", c)),
                    new XElement("pubDate", it.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)),
                    new XElement("language", "en"),
                    new XElement("abstract", new XElement("para", Clean(it.Abstract))),
                    new XElement("intellectualRights", new XElement("para", Clean(it.Rights))),
                    it.Box is { } box
                        ? new XElement(
                            "coverage",
                            new XElement(
                                "geographicCoverage",
                                new XElement("geographicDescription", "All positions in the archive"),
                                new XElement(
                                    "boundingCoordinates",
                                    new XElement("westBoundingCoordinate", Number(box.West)),
                                    new XElement("eastBoundingCoordinate", Number(box.East)),
                                    new XElement("northBoundingCoordinate", Number(box.North)),
                                    new XElement("southBoundingCoordinate", Number(box.South))
                                )
                            )
                        )
                        : null,
                    Named("contact", creators[0]),
                    it.Methods.Count > 0
                        ? new XElement(
                            "methods",
                            it.Methods.Select(m => new XElement("methodStep", new XElement("description", new XElement("para", Clean(m)))))
                        )
                        : null
                )
            )
        );
    }

    // Characters that XML can't hold are left out.
    private static string Clean(string text) => string.Concat(text.Where(System.Xml.XmlConvert.IsXmlChar));
}
