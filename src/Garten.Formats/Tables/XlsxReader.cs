using System.Globalization;
using System.Xml;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using Garten.Core.Floras;

namespace Garten.Formats.Tables;

/// <summary>Reads the first sheet of a workbook, element by element, so that a large one doesn't fill the memory.</summary>
internal static class XlsxReader
{
    // Of one kind of problem no more than these are listed one by one.
    private const int MostListed = 50;

    public static SheetReading Read(string name, byte[] content, CancellationToken stop)
    {
        var problems = new List<FloraProblem>();
        FloraProblem Refused(string message) => new(ProblemSeverity.Error, "workbook.unreadable", name, 0, "", message);
        try
        {
            using var book = SpreadsheetDocument.Open(new MemoryStream(content, writable: false), false, new OpenSettings { MaxCharactersInPart = SheetLimits.LongestPart });
            var part = book.WorkbookPart;
            var first = part?.Workbook?.Sheets?.Elements<DocumentFormat.OpenXml.Spreadsheet.Sheet>().FirstOrDefault();
            if (part is null || first?.Id?.Value is not { } id || part.GetPartById(id) is not WorksheetPart sheet) return new(null, [Refused("This workbook has no sheet with cells.")]);
            return ReadSheet(name, sheet, SharedStrings(part.SharedStringTablePart, stop), DateStyles(part.WorkbookStylesPart), problems, stop);
        }
        catch (Exception error) when (error is OpenXmlPackageException or InvalidDataException or XmlException or FormatException or IOException or InvalidOperationException or ArgumentException or KeyNotFoundException)
        {
            return new(null, [.. problems, Refused("This workbook can't be read: it is damaged, protected, or far too large once unpacked. Save it again as XLSX, or as CSV.")]);
        }
    }

    private static SheetReading ReadSheet(string name, WorksheetPart part, List<string> strings, HashSet<uint> dates, List<FloraProblem> problems, CancellationToken stop)
    {
        var builder = new SheetBuilder(name, problems);
        var formulas = 0;
        var asDates = 0;
        var merged = 0;
        using var reader = OpenXmlReader.Create(part);
        var number = 0;
        var enough = false;
        while (reader.Read())
        {
            if (!reader.IsStartElement) continue;
            if (reader.ElementType == typeof(MergeCell))
            {
                var place = ((MergeCell)reader.LoadCurrentElement()!).Reference?.Value ?? "";
                if (merged++ < MostListed) problems.Add(new(ProblemSeverity.Error, "cells.merged", name, RowOf(place), ColumnOf(place), $"The cells {place} are merged: it isn't clear which rows the value belongs to. Take the merging apart and fill every cell."));
                continue;
            }
            if (reader.ElementType != typeof(Row) || enough) continue;
            stop.ThrowIfCancellationRequested();
            var row = (Row)reader.LoadCurrentElement()!;
            number = row.RowIndex?.Value is { } index ? (int)index : number + 1;
            var cells = new List<string>();
            foreach (var cell in row.Elements<Cell>())
            {
                var at = cell.CellReference?.Value is { } reference ? ColumnIndex(reference) : cells.Count;
                if (at >= SheetLimits.MostColumns) break;
                while (cells.Count <= at) cells.Add("");
                cells[at] = TextOf(cell, strings);
                if (cell.CellFormula is not null && formulas++ < MostListed)
                {
                    problems.Add(new(ProblemSeverity.Warning, "cell.formula", name, number, Letters(at), cells[at].Length > 0 ? $"This cell has a formula; what it showed when it was saved was taken: “{cells[at]}”." : "This cell has a formula without a saved value; it counts as empty."));
                }
                if (cell.StyleIndex?.Value is { } style && dates.Contains(style) && double.TryParse(cells[at], CultureInfo.InvariantCulture, out _) && cell.DataType is null)
                {
                    if (asDates++ < MostListed) problems.Add(new(ProblemSeverity.Warning, "cell.date", name, number, Letters(at), "This cell holds a date. Spreadsheets turn a range such as 6-9 into one: format the column as text and type it again. It counts as empty."));
                    cells[at] = "";
                }
            }
            enough = !builder.Add(number, cells);
        }
        return builder.Done();
    }

    private static string TextOf(Cell cell, List<string> strings)
    {
        var value = cell.CellValue?.Text ?? "";
        if (cell.DataType is null || cell.DataType.Value == CellValues.Number) return Number(value);
        if (cell.DataType.Value == CellValues.SharedString) return int.TryParse(value, CultureInfo.InvariantCulture, out var i) && i >= 0 && i < strings.Count ? strings[i] : "";
        if (cell.DataType.Value == CellValues.InlineString) return cell.InlineString?.InnerText ?? "";
        if (cell.DataType.Value == CellValues.Boolean) return value == "1" ? "yes" : "no";
        return cell.DataType.Value == CellValues.Error ? "" : value;
    }

    // 12.300000000000001 is how 12.3 is kept.
    private static string Number(string value) =>
        double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) ? Math.Round(number, 10).ToString("0.##########", CultureInfo.InvariantCulture) : value;

    private static List<string> SharedStrings(SharedStringTablePart? part, CancellationToken stop)
    {
        var strings = new List<string>();
        if (part is null) return strings;
        long length = 0;
        using var reader = OpenXmlReader.Create(part);
        while (reader.Read())
        {
            if (!reader.IsStartElement || reader.ElementType != typeof(SharedStringItem)) continue;
            stop.ThrowIfCancellationRequested();
            var text = reader.LoadCurrentElement()!.InnerText;
            length += text.Length;
            if (length > SheetLimits.LongestPart || strings.Count > SheetLimits.MostCells) throw new InvalidDataException("Too many texts.");
            strings.Add(text);
        }
        return strings;
    }

    // Places of the cell formats that show a number as a date.
    private static HashSet<uint> DateStyles(WorkbookStylesPart? part)
    {
        var dates = new HashSet<uint>();
        var own = part?.Stylesheet?.NumberingFormats?.Elements<NumberingFormat>().Where(f => f.NumberFormatId is not null).ToDictionary(f => f.NumberFormatId!.Value, f => f.FormatCode?.Value ?? "") ?? [];
        uint at = 0;
        foreach (var format in part?.Stylesheet?.CellFormats?.Elements<CellFormat>() ?? [])
        {
            var number = format.NumberFormatId?.Value ?? 0;
            // 14 to 22 and 45 to 47 are the built-in formats of dates and times.
            if (number is (>= 14 and <= 22) or (>= 45 and <= 47) || own.TryGetValue(number, out var code) && (code.Contains("yy", StringComparison.OrdinalIgnoreCase) || code.Contains("mmm", StringComparison.OrdinalIgnoreCase) || code.Contains("d/", StringComparison.OrdinalIgnoreCase) || code.Contains("d-", StringComparison.OrdinalIgnoreCase))) dates.Add(at);
            at++;
        }
        return dates;
    }

    private static int ColumnIndex(string reference)
    {
        var index = 0;
        foreach (var c in reference.TakeWhile(char.IsAsciiLetter)) index = Math.Min(100_000, index * 26 + (char.ToUpperInvariant(c) - 'A' + 1));
        return Math.Max(0, index - 1);
    }

    private static string ColumnOf(string reference) => string.Concat(reference.TakeWhile(char.IsAsciiLetter));

    private static int RowOf(string reference) => int.TryParse(string.Concat(reference.SkipWhile(char.IsAsciiLetter).TakeWhile(char.IsAsciiDigit)), CultureInfo.InvariantCulture, out var row) ? row : 0;

    private static string Letters(int column)
    {
        var letters = "";
        for (var c = column + 1; c > 0; c = (c - 1) / 26) letters = (char)('A' + (c - 1) % 26) + letters;
        return letters;
    }
}
