using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Garten.Core.Floras;

namespace Garten.Formats.Tables;

/// <summary>Reads a table out of a file: CSV with commas, semicolons or tabs in UTF-8, UTF-16 or Windows-1252, or the first sheet of an
/// XLSX workbook.</summary>
public static class SheetReader
{
    static SheetReader() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Reads a table of a flora.</summary>
    /// <param name="name">What it is called in messages.</param>
    /// <param name="content">The file.</param>
    /// <param name="stop">Ends the reading.</param>
    public static SheetReading Read(string name, byte[] content, CancellationToken stop = default) =>
        Read(name, content, SheetLimits.MostRows, stop);

    /// <summary>Reads a table of up to so many rows.</summary>
    /// <param name="name">What it is called in messages.</param>
    /// <param name="content">The file.</param>
    /// <param name="mostRows">How many rows it may have.</param>
    /// <param name="stop">Ends the reading.</param>
    public static SheetReading Read(string name, byte[] content, int mostRows, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(content);
        FloraProblem Refused(string code, string message) => new(ProblemSeverity.Error, code, name, 0, "", message);
        if (content.Length == 0)
            return new(null, [Refused("file.empty", "This file is empty.")]);
        // Every XLSX is a ZIP archive; the old binary workbooks begin otherwise.
        if (content is [0x50, 0x4B, ..])
            return XlsxReader.Read(name, content, mostRows, stop);
        if (content is [0xD0, 0xCF, 0x11, 0xE0, ..])
            return new(null, [Refused("file.old-workbook", "This is a workbook of the old binary kind. Save it as XLSX or CSV.")]);
        var (text, note) = Decode(content);
        if (text is null)
            return new(null, [Refused("file.binary", "This isn't a table: it is neither text nor an XLSX workbook.")]);
        var problems = new List<FloraProblem>();
        if (note.Length > 0)
            problems.Add(new(ProblemSeverity.Warning, "file.encoding", name, 0, "", note));
        return ReadCsv(name, text, problems, mostRows, stop);
    }

    private static (string? Text, string Note) Decode(byte[] content)
    {
        if (content is [0xFF, 0xFE, ..])
            return (Encoding.Unicode.GetString(content, 2, content.Length - 2), "");
        if (content is [0xFE, 0xFF, ..])
            return (Encoding.BigEndianUnicode.GetString(content, 2, content.Length - 2), "");
        var from = content is [0xEF, 0xBB, 0xBF, ..] ? 3 : 0;
        if (content.AsSpan().Contains((byte)0))
            return (null, "");
        try
        {
            return (new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(content, from, content.Length - from), "");
        }
        catch (DecoderFallbackException)
        {
            return (
                Encoding.GetEncoding(1252).GetString(content),
                "It isn't in UTF-8; it was read as Windows-1252. Look at letters with accents."
            );
        }
    }

    private static SheetReading ReadCsv(string name, string text, List<FloraProblem> problems, int mostRows, CancellationToken stop)
    {
        var configuration = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            Delimiter = Delimiter(text),
            HasHeaderRecord = false,
            BadDataFound = null,
            MissingFieldFound = null,
            TrimOptions = TrimOptions.Trim,
            IgnoreBlankLines = false,
        };
        using var csv = new CsvReader(new StringReader(text), configuration);
        var builder = new SheetBuilder(name, problems, mostRows);
        var number = 0;
        while (csv.Read())
        {
            stop.ThrowIfCancellationRequested();
            number++;
            if (!builder.Add(number, csv.Parser.Record ?? []))
                break;
        }
        return builder.Done();
    }

    // The sign that stands most often in the first line, outside of quotes.
    private static string Delimiter(string text)
    {
        var counts = new Dictionary<char, int>
        {
            [','] = 0,
            [';'] = 0,
            ['\t'] = 0,
        };
        var quoted = false;
        foreach (var c in text)
        {
            if (c == '"')
                quoted = !quoted;
            else if (c is '\n' && !quoted)
                break;
            else if (!quoted && counts.TryGetValue(c, out var n))
                counts[c] = n + 1;
        }
        return counts.MaxBy(c => c.Value).Key.ToString();
    }
}

/// <summary>Puts rows together to a sheet and minds the limits.</summary>
internal sealed class SheetBuilder(string name, List<FloraProblem> problems, int mostRows)
{
    private readonly List<SheetRow> _rows = [];
    private string[]? _header;
    private long _cells;
    private bool _refused;
    private readonly Dictionary<string, string> _texts = new(StringComparer.Ordinal);
    private long _length;

    /// <summary>Takes a row; false: enough, nothing more is read.</summary>
    public bool Add(int number, IReadOnlyList<string> cells)
    {
        var trimmed = cells.Select(c => Own(c.Trim().Trim('\uFEFF'))).ToArray();
        if (trimmed.All(c => c.Length == 0))
            return true;
        if (_header is null)
        {
            var last = Array.FindLastIndex(trimmed, c => c.Length > 0);
            _header = trimmed[..(last + 1)];
            return _header.Length <= SheetLimits.MostColumns
                || Refuse("table.columns", 1, $"It has {_header.Length} columns; {SheetLimits.MostColumns} are read at most.");
        }
        _cells += trimmed.Length;
        if (_rows.Count >= mostRows)
            return Refuse("table.rows", number, $"It has more than {mostRows} rows. Bring it in parts.");
        if (_cells > SheetLimits.MostCells)
            return Refuse("table.cells", number, $"It has more than {SheetLimits.MostCells} cells. Bring it in parts.");
        var tooLong = Array.FindIndex(trimmed, c => c.Length > SheetLimits.LongestCell);
        if (_length > SheetLimits.MostText || _texts.Count > SheetLimits.MostTexts)
            return Refuse("table.texts", number, "It has more different texts than can be read at once. Bring it in parts.");
        if (tooLong >= 0)
            return Refuse(
                "cell.too-long",
                number,
                $"The cell in column {tooLong + 1} is longer than {SheetLimits.LongestCell} characters. Perhaps a quotation mark isn't closed."
            );
        _rows.Add(new SheetRow(number, trimmed));
        return true;
    }

    // Most cells say the same few things: each text is kept once.
    private string Own(string text)
    {
        if (text.Length == 0)
            return "";
        if (_texts.TryGetValue(text, out var known))
            return known;
        if (text.Length > SheetLimits.LongestCell)
            return text;
        _length += text.Length;
        _texts.Add(text, text);
        return text;
    }

    public SheetReading Done()
    {
        if (_header is null)
            problems.Add(new(ProblemSeverity.Error, "file.empty", name, 0, "", "There is nothing in this table."));
        else if (_rows.Count == 0 && !_refused)
            problems.Add(new(ProblemSeverity.Error, "table.no-rows", name, 1, "", "There is a header but no row below it."));
        foreach (
            var twice in (_header ?? []).Where(h => h.Length > 0).GroupBy(Sheet.Plain, StringComparer.Ordinal).Where(g => g.Count() > 1)
        )
        {
            problems.Add(
                new(ProblemSeverity.Error, "column.twice", name, 1, twice.First(), $"The column “{twice.First()}” is there twice.")
            );
        }
        return new(_header is null || _refused ? null : new Sheet(name, _header, _rows), problems);
    }

    /// <summary>A row goes on beyond the columns that are read: the table is refused rather than cut.</summary>
    public void RefuseColumns(int row) =>
        Refuse("table.columns", row, $"It has more than {SheetLimits.MostColumns} columns. Bring it in parts.");

    private bool Refuse(string code, int row, string message)
    {
        problems.Add(new(ProblemSeverity.Error, code, name, row, "", message));
        _refused = true;
        return false;
    }
}
