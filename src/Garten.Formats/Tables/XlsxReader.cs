using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using Garten.Core.Floras;

namespace Garten.Formats.Tables;

/// <summary>Reads the first sheet of a workbook, element by element, so that a large one doesn't fill the memory.</summary>
internal static class XlsxReader
{
    // Of one kind of problem no more than these are listed one by one.
    private const int MostListed = 50;

    public static SheetReading Read(string name, byte[] content, int mostRows, CancellationToken stop)
    {
        var problems = new List<FloraProblem>();
        FloraProblem Refused(string message) => new(ProblemSeverity.Error, "workbook.unreadable", name, 0, "", message);
        try
        {
            if (TooLarge(content) is { } why)
                return new(null, [Refused(why)]);
            using var book = SpreadsheetDocument.Open(
                new MemoryStream(content, writable: false),
                false,
                new OpenSettings { MaxCharactersInPart = SheetLimits.LongestSmallPart }
            );
            var part = book.WorkbookPart;
            var first = part?.Workbook?.Sheets?.Elements<DocumentFormat.OpenXml.Spreadsheet.Sheet>().FirstOrDefault();
            if (part is null || first?.Id?.Value is not { } id || part.GetPartById(id) is not WorksheetPart sheet)
                return new(null, [Refused("This workbook has no sheet with cells.")]);
            return ReadSheet(
                name,
                sheet,
                SharedStrings(part.SharedStringTablePart, stop),
                DateStyles(part.WorkbookStylesPart),
                problems,
                mostRows,
                stop
            );
        }
        catch (Exception error)
            when (error
                    is OpenXmlPackageException
                        or InvalidDataException
                        or XmlException
                        or FormatException
                        or IOException
                        or InvalidOperationException
                        or ArgumentException
                        or KeyNotFoundException
                        or OverflowException
                        or NotSupportedException
                        or InvalidCastException
            )
        {
            return new(
                null,
                [
                    .. problems,
                    Refused(
                        "This workbook can't be read: it is damaged, protected, or far too large once unpacked. Save it again as XLSX, or as CSV."
                    ),
                ]
            );
        }
    }

    // A workbook is an archive; what its parts unpack to stands in it, and no more of them is ever unpacked.
    private static string? TooLarge(byte[] content)
    {
        using var archive = new ZipArchive(new MemoryStream(content, writable: false), ZipArchiveMode.Read);
        if (archive.Entries.Count > SheetLimits.MostParts)
            return $"This workbook has more than {SheetLimits.MostParts} parts. Save the sheet by itself, as XLSX or CSV.";
        long sum = 0;
        foreach (var entry in archive.Entries)
        {
            // Pictures and the like are never opened.
            if (
                !entry.FullName.EndsWith(".xml", StringComparison.OrdinalIgnoreCase)
                && !entry.FullName.EndsWith(".rels", StringComparison.OrdinalIgnoreCase)
            )
                continue;
            var isTable =
                entry.FullName.Contains("sheet", StringComparison.OrdinalIgnoreCase)
                || entry.FullName.Contains("sharedStrings", StringComparison.OrdinalIgnoreCase);
            if (entry.Length > (isTable ? SheetLimits.LongestPart : SheetLimits.LongestSmallPart))
                return "A part of this workbook is far too large once unpacked. Save the sheet by itself, as XLSX or CSV.";
            sum += entry.Length;
        }
        return sum > 2 * SheetLimits.LongestPart
            ? "This workbook is far too large once unpacked. Save the sheet by itself, as XLSX or CSV."
            : null;
    }

    private static readonly XmlReaderSettings Settings = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        XmlResolver = null,
        MaxCharactersInDocument = SheetLimits.LongestPart,
        IgnoreComments = true,
        IgnoreProcessingInstructions = true,
    };

    private static SheetReading ReadSheet(
        string name,
        WorksheetPart part,
        List<string> strings,
        HashSet<uint> dates,
        List<FloraProblem> problems,
        int mostRows,
        CancellationToken stop
    )
    {
        var builder = new SheetBuilder(name, problems, mostRows);
        int formulas = 0,
            asDates = 0,
            merged = 0,
            number = 0,
            seen = 0;
        using var stream = new XmlGuard(part.GetStream(FileMode.Open, FileAccess.Read), SheetLimits.MostAttributes);
        using var reader = XmlReader.Create(stream, Settings);
        var enough = false;
        var cells = new List<string>();
        while (reader.Read())
        {
            if (++seen % 4096 == 0)
                stop.ThrowIfCancellationRequested();
            if (reader.NodeType == XmlNodeType.EndElement && reader.LocalName == "row" && !enough)
            {
                enough = !builder.Add(number, cells);
                cells = [];
                continue;
            }
            if (reader.NodeType != XmlNodeType.Element)
                continue;
            if (reader.LocalName == "mergeCell")
            {
                var place = reader.GetAttribute("ref") ?? "";
                if (merged++ < MostListed)
                    problems.Add(
                        new(
                            ProblemSeverity.Error,
                            "cells.merged",
                            name,
                            RowOf(place),
                            ColumnOf(place),
                            $"The cells {place} are merged: it isn't clear which rows the value belongs to. Take the merging apart and fill every cell."
                        )
                    );
            }
            else if (enough)
                continue;
            else if (reader.LocalName == "row")
            {
                number =
                    int.TryParse(reader.GetAttribute("r"), NumberStyles.None, CultureInfo.InvariantCulture, out var index) && index > 0
                        ? index
                        : number + 1;
                cells = [];
            }
            else if (reader.LocalName == "c" && !TakeCell(reader))
            {
                builder.RefuseColumns(number);
                break;
            }
        }
        return builder.Done();

        // False: the row goes on beyond every column that is read.
        bool TakeCell(XmlReader cell)
        {
            var at = cell.GetAttribute("r") is { Length: > 0 } reference ? ColumnIndex(reference) : cells.Count;
            var style = uint.TryParse(cell.GetAttribute("s"), NumberStyles.None, CultureInfo.InvariantCulture, out var s) ? s : (uint?)null;
            var type = cell.GetAttribute("t");
            var (value, hasFormula) = CellContent(cell);
            if (at >= SheetLimits.MostColumns)
                return value.Length == 0;
            while (cells.Count <= at)
                cells.Add("");
            cells[at] = TextOf(type, value, strings);
            if (hasFormula && formulas++ < MostListed)
            {
                problems.Add(
                    new(
                        ProblemSeverity.Warning,
                        "cell.formula",
                        name,
                        number,
                        Letters(at),
                        cells[at].Length > 0
                            ? $"This cell has a formula; what it showed when it was saved was taken: “{cells[at]}”."
                            : "This cell has a formula without a saved value; it counts as empty."
                    )
                );
            }
            if (style is { } own && dates.Contains(own) && type is null && double.TryParse(cells[at], CultureInfo.InvariantCulture, out _))
            {
                if (asDates++ < MostListed)
                    problems.Add(
                        new(
                            ProblemSeverity.Warning,
                            "cell.date",
                            name,
                            number,
                            Letters(at),
                            "This cell holds a date. Spreadsheets turn a range such as 6-9 into one: format the column as text and type it again. It counts as empty."
                        )
                    );
                cells[at] = "";
            }
            return true;
        }
    }

    // Value of a cell, its own text or a number of one; and whether it has a formula. Of a text without end only so much is kept that it is
    // refused.
    private static (string Value, bool HasFormula) CellContent(XmlReader reader)
    {
        if (reader.IsEmptyElement)
            return ("", false);
        var depth = reader.Depth;
        var text = new StringBuilder();
        var hasFormula = false;
        var inValue = false;
        while (reader.Read() && reader.Depth > depth)
        {
            if (reader.NodeType == XmlNodeType.Element)
            {
                inValue = reader.LocalName is "v" or "t";
                hasFormula |= reader.LocalName == "f";
            }
            else if (reader.NodeType == XmlNodeType.EndElement)
                inValue = false;
            else if (
                inValue
                && reader.NodeType is XmlNodeType.Text or XmlNodeType.CDATA or XmlNodeType.SignificantWhitespace or XmlNodeType.Whitespace
            )
                Append(reader, text);
        }
        return (text.ToString(), hasFormula);
    }

    private static void Append(XmlReader reader, StringBuilder text)
    {
        var part = new char[1024];
        int read;
        while ((read = reader.ReadValueChunk(part, 0, part.Length)) > 0)
        {
            if (text.Length <= SheetLimits.LongestCell)
                text.Append(part, 0, read);
        }
    }

    private static string TextOf(string? type, string value, List<string> strings) =>
        type switch
        {
            null or "n" => Number(value),
            "s" => int.TryParse(value, NumberStyles.None, CultureInfo.InvariantCulture, out var i) && i < strings.Count ? strings[i] : "",
            "b" => value == "1" ? "yes" : "no",
            "e" => "",
            _ => value,
        };

    // 12.300000000000001 is how 12.3 is kept.
    private static string Number(string value) =>
        double.TryParse(value, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
            ? Math.Round(number, 10).ToString("0.##########", CultureInfo.InvariantCulture)
            : value;

    private static List<string> SharedStrings(SharedStringTablePart? part, CancellationToken stop)
    {
        var strings = new List<string>();
        if (part is null)
            return strings;
        long length = 0;
        using var stream = new XmlGuard(part.GetStream(FileMode.Open, FileAccess.Read), SheetLimits.MostAttributes);
        using var reader = XmlReader.Create(stream, Settings);
        var text = new StringBuilder();
        var (inText, isPhonetic) = (false, false);
        while (reader.Read())
        {
            switch (reader.NodeType)
            {
                case XmlNodeType.Element when reader.LocalName == "si":
                    if (strings.Count % 1024 == 0)
                        stop.ThrowIfCancellationRequested();
                    text.Clear();
                    if (reader.IsEmptyElement)
                        strings.Add("");
                    break;
                case XmlNodeType.Element:
                    // How a word is spoken is no part of it.
                    isPhonetic |= reader.LocalName == "rPh" && !reader.IsEmptyElement;
                    inText = reader.LocalName == "t" && !reader.IsEmptyElement && !isPhonetic;
                    break;
                case XmlNodeType.Text or XmlNodeType.CDATA or XmlNodeType.SignificantWhitespace or XmlNodeType.Whitespace when inText:
                    Append(reader, text);
                    break;
                case XmlNodeType.EndElement when reader.LocalName == "si":
                    length += text.Length;
                    if (length > SheetLimits.MostText || strings.Count >= SheetLimits.MostTexts)
                        throw new InvalidDataException("Too many texts.");
                    strings.Add(text.ToString());
                    break;
                case XmlNodeType.EndElement:
                    if (reader.LocalName == "rPh")
                        isPhonetic = false;
                    inText = false;
                    break;
            }
        }
        return strings;
    }

    // Places of the cell formats that show a number as a date.
    private static HashSet<uint> DateStyles(WorkbookStylesPart? part)
    {
        var dates = new HashSet<uint>();
        var own = part?.Stylesheet?.NumberingFormats?.Elements<NumberingFormat>()
            .Where(f => f.NumberFormatId is not null)
            .ToDictionary(f => f.NumberFormatId!.Value, f => f.FormatCode?.Value ?? "")
            ?? [];
        uint at = 0;
        foreach (var format in part?.Stylesheet?.CellFormats?.Elements<CellFormat>() ?? [])
        {
            var number = format.NumberFormatId?.Value ?? 0;
            // 14 to 22 and 45 to 47 are the built-in formats of dates and times.
            if (
                number is (>= 14 and <= 22) or (>= 45 and <= 47)
                || own.TryGetValue(number, out var code)
                    && (
                        code.Contains("yy", StringComparison.OrdinalIgnoreCase)
                        || code.Contains("mmm", StringComparison.OrdinalIgnoreCase)
                        || code.Contains("d/", StringComparison.OrdinalIgnoreCase)
                        || code.Contains("d-", StringComparison.OrdinalIgnoreCase)
                    )
            )
                dates.Add(at);
            at++;
        }
        return dates;
    }

    private static int ColumnIndex(string reference)
    {
        var index = 0;
        foreach (var c in reference.TakeWhile(char.IsAsciiLetter))
            index = Math.Min(100_000, index * 26 + (char.ToUpperInvariant(c) - 'A' + 1));
        return Math.Max(0, index - 1);
    }

    private static string ColumnOf(string reference) => string.Concat(reference.TakeWhile(char.IsAsciiLetter));

    private static int RowOf(string reference) =>
        int.TryParse(
            string.Concat(reference.SkipWhile(char.IsAsciiLetter).TakeWhile(char.IsAsciiDigit)),
            CultureInfo.InvariantCulture,
            out var row
        )
            ? row
            : 0;

    private static string Letters(int column)
    {
        var letters = "";
        for (var c = column + 1; c > 0; c = (c - 1) / 26)
            letters = (char)('A' + (c - 1) % 26) + letters;
        return letters;
    }
}
