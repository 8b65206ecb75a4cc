using System.Globalization;
using CsvHelper;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using Garten.Core.Characters;

namespace Garten.Formats;

/// <summary>A table of a flora to be filled in: a line for each taxon, a column for each character that ships, what may stand in a column
/// below its heading as a note of the second sheet.</summary>
public static class FloraTemplate
{
    /// <summary>The heading of the first column.</summary>
    private const string Taxon = "taxon";

    private static IReadOnlyList<Character> Characters => ShippedGlossary.Characters;

    private static IEnumerable<string> Headings => Characters.Select(c => c.Id).Prepend(Taxon);

    /// <summary>The table as CSV, UTF-8: its headings alone.</summary>
    public static byte[] Csv()
    {
        using var bytes = new MemoryStream();
        using (var text = new StreamWriter(bytes, leaveOpen: true))
        using (var csv = new CsvWriter(text, CultureInfo.InvariantCulture))
        {
            foreach (var heading in Headings)
                csv.WriteField(heading);
            csv.NextRecord();
        }
        return bytes.ToArray();
    }

    /// <summary>The same as a workbook, with a second sheet that says what each column is and which words may stand in it.</summary>
    public static byte[] Xlsx()
    {
        using var bytes = new MemoryStream();
        using (var book = SpreadsheetDocument.Create(bytes, SpreadsheetDocumentType.Workbook))
        {
            var main = book.AddWorkbookPart();
            main.Workbook = new Workbook();
            var sheets = main.Workbook.AppendChild(new Sheets());
            Add(main, sheets, 1, "flora", [Headings]);
            Add(
                main,
                sheets,
                2,
                "characters",
                Characters
                    .Select(IEnumerable<string> (c) => [c.Id, c.Name, WhatMayStand(c), c.Definition])
                    .Prepend(["column", "what it is", "what may stand there", "how to look"])
            );
        }
        return bytes.ToArray();
    }

    /// <summary>What may stand in the column of a character, in words.</summary>
    public static string WhatMayStand(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        return character.IsQuantity
            ? character.Unit.Length > 0
                ? $"(4–)6–12(–15) {character.Unit}"
                : "3–5"
            : string.Join(" | ", character.States.Select(s => s.Id));
    }

    private static void Add(WorkbookPart book, Sheets sheets, uint number, string name, IEnumerable<IEnumerable<string>> rows)
    {
        var part = book.AddNewPart<WorksheetPart>();
        var data = new SheetData();
        foreach (var row in rows)
            data.AppendChild(
                new Row(
                    row.Select(text => new Cell { DataType = CellValues.InlineString, InlineString = new InlineString(new Text(text)) })
                )
            );
        part.Worksheet = new Worksheet(data);
        sheets.AppendChild(
            new DocumentFormat.OpenXml.Spreadsheet.Sheet
            {
                Id = book.GetIdOfPart(part),
                SheetId = number,
                Name = name,
            }
        );
    }
}
