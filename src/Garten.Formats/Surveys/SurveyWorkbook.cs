using System.Globalization;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Garten.Formats.Surveys;

/// <summary>Writes the tables of a survey as a workbook (ISO/IEC 29500): a sheet a table, and one first that says what each column
/// is.</summary>
public static class SurveyWorkbook
{
    // A cell holds no more (ISO/IEC 29500), and a sheet's name no more than 31.
    private const int LongestCell = 32_767;

    /// <summary>Writes it.</summary>
    /// <param name="tables">The tables.</param>
    /// <param name="isDictionaryFirst">Whether the sheet that says what each column is stands first; else it is the last.</param>
    public static byte[] Write(IReadOnlyList<DataTable> tables, bool isDictionaryFirst = true)
    {
        ArgumentNullException.ThrowIfNull(tables);
        using var bytes = new MemoryStream();
        using (var book = SpreadsheetDocument.Create(bytes, SpreadsheetDocumentType.Workbook))
        {
            var main = book.AddWorkbookPart();
            main.Workbook = new Workbook();
            var sheets = main.Workbook.AppendChild(new Sheets());
            if (isDictionaryFirst)
                Dictionary(main, sheets, tables);
            foreach (var table in tables)
                Add(
                    main,
                    sheets,
                    table.Name,
                    [
                        [.. table.Columns.Select(c => c.Name)],
                        .. table.Rows,
                    ]
                );
            if (!isDictionaryFirst)
                Dictionary(main, sheets, tables);
        }
        return bytes.ToArray();
    }

    private static void Dictionary(WorkbookPart book, Sheets sheets, IReadOnlyList<DataTable> tables) =>
        Add(
            book,
            sheets,
            "columns",
            [
                ["table", "column", "type", "what it is"],
                .. tables.SelectMany(t =>
                    t.Columns.Select(c => (IReadOnlyList<object?>)[t.Name, c.Name, c.Type.ToString().ToLowerInvariant(), c.Description])
                ),
            ]
        );

    private static void Add(WorkbookPart book, Sheets sheets, string name, IEnumerable<IReadOnlyList<object?>> rows)
    {
        var part = book.AddNewPart<WorksheetPart>();
        var data = new SheetData();
        foreach (var row in rows)
            data.AppendChild(new Row(row.Select(Of)));
        part.Worksheet = new Worksheet(data);
        sheets.AppendChild(
            new DocumentFormat.OpenXml.Spreadsheet.Sheet
            {
                Id = book.GetIdOfPart(part),
                SheetId = (uint)sheets.ChildElements.Count + 1,
                Name = name,
            }
        );
    }

    // Texts stand as texts: none is taken for a formula.
    private static Cell Of(object? value) =>
        value switch
        {
            null => new Cell(),
            double number => new Cell
            {
                DataType = CellValues.Number,
                CellValue = new CellValue(number.ToString("R", CultureInfo.InvariantCulture)),
            },
            int whole => new Cell { DataType = CellValues.Number, CellValue = new CellValue(whole.ToString(CultureInfo.InvariantCulture)) },
            bool isSo => new Cell { DataType = CellValues.Boolean, CellValue = new CellValue(isSo ? "1" : "0") },
            _ => new Cell
            {
                DataType = CellValues.InlineString,
                InlineString = new InlineString(new Text(Plain(CellText.Of(value))) { Space = SpaceProcessingModeValues.Preserve }),
            },
        };

    // XML has no control characters but tab and line ends.
    private static string Plain(string text)
    {
        var plain = string.Concat(text.Select(c => char.IsControl(c) && c is not ('\t' or '\n' or '\r') ? ' ' : c));
        return plain.Length > LongestCell ? plain[..LongestCell] : plain;
    }
}

/// <summary>Cells as texts.</summary>
internal static class CellText
{
    /// <summary>A cell as text: numbers and days as every reader takes them.</summary>
    public static string Of(object? value) =>
        value switch
        {
            null => "",
            DateOnly day => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            bool isSo => isSo ? "true" : "false",
            IFormattable it => it.ToString(null, CultureInfo.InvariantCulture),
            _ => value.ToString() ?? "",
        };
}
