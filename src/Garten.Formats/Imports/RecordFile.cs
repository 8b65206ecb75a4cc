using System.Globalization;
using System.IO.Compression;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Garten.Core.Imports;
using Garten.Formats.Tables;

namespace Garten.Formats.Imports;

/// <summary>A file of records can't be read; the message says why, and what to do.</summary>
public sealed class RecordFileException(string code, string message) : Exception(message)
{
    /// <summary>Stable name of what is wrong.</summary>
    public string Code { get; } = code;
}

/// <summary>A line of a file of records.</summary>
/// <param name="Number">Its number in the file, the first being 1; in an archive the line of its occurrence.</param>
/// <param name="Cells">Its cells.</param>
public sealed record TableLine(int Number, IReadOnlyList<string> Cells);

/// <summary>
/// A file of records, read line by line as often as wanted: CSV with commas, semicolons or tabs, the first sheet of an XLSX workbook, a
/// Darwin Core Archive, points out of GeoJSON, GPX or KML, or a list of names, one a line.
/// </summary>
public abstract class RecordFile : IDisposable
{
    /// <summary>Most columns of a table.</summary>
    public const int MostColumns = 500;

    /// <summary>Most characters of a cell.</summary>
    public const int LongestCell = 20_000;

    static RecordFile() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>What it is, in words.</summary>
    public abstract string Kind { get; }

    /// <summary>The headings of its columns.</summary>
    public abstract IReadOnlyList<string> Headings { get; }

    /// <summary>What has to be known of how it was read; empty for nothing.</summary>
    public virtual IReadOnlyList<string> Notes => [];

    /// <summary>Its lines, from the first one.</summary>
    /// <exception cref="RecordFileException">The file is broken further on.</exception>
    public abstract IEnumerable<TableLine> Lines();

    /// <summary>Opens a file; what it is shows in its content, not in its name.</summary>
    /// <param name="path">Where it is.</param>
    /// <exception cref="RecordFileException">It isn't any of what can be read.</exception>
    public static RecordFile Open(string path)
    {
        var start = new byte[4];
        int read;
        using (var file = File.OpenRead(path))
            read = file.ReadAtLeast(start, start.Length, throwOnEndOfStream: false);
        if (read == 0)
            throw new RecordFileException("file.empty", "This file is empty.");
        if (start is [0xD0, 0xCF, 0x11, 0xE0])
            throw new RecordFileException("file.old-workbook", "This is a workbook of the old binary kind. Save it as XLSX or CSV.");
        // Archives and workbooks are both packed alike; an archive has a meta.xml, or tables.
        if (start is [0x50, 0x4B, ..])
            return IsWorkbook(path) ? new WorkbookFile(path) : new ArchiveFile(path);
        return IsShapes(path) ? new PointsFile(path) : new TextTable(() => File.OpenRead(path));
    }

    // GeoJSON begins with a brace, GPX and KML with an angle bracket: no heading of a table does.
    private static bool IsShapes(string path)
    {
        using var file = File.OpenRead(path);
        Span<byte> start = stackalloc byte[64];
        var read = file.ReadAtLeast(start, start.Length, throwOnEndOfStream: false);
        var text = start[..read];
        if (text is [0xEF, 0xBB, 0xBF, ..])
            text = text[3..];
        text = text.TrimStart(" \t\r\n"u8);
        return text.Length > 0 && text[0] is (byte)'{' or (byte)'<';
    }

    private static bool IsWorkbook(string path)
    {
        try
        {
            using var zip = ZipFile.OpenRead(path);
            return zip.GetEntry("[Content_Types].xml") is not null;
        }
        catch (InvalidDataException)
        {
            throw new RecordFileException("file.damaged", "This archive is damaged or cut off. Fetch it again.");
        }
    }

    /// <inheritdoc />
    public void Dispose()
    {
        Dispose(disposing: true);
        GC.SuppressFinalize(this);
    }

    /// <summary>Gives back what it holds.</summary>
    protected virtual void Dispose(bool disposing) { }
}

/// <summary>A table as text.</summary>
internal sealed class TextTable : RecordFile
{
    // So much is looked at to find out what a text is written in, and what parts its cells.
    private const int Looked = 1 << 20;

    private readonly Func<Stream> _open;
    private readonly Encoding _encoding;
    private readonly string _delimiter;
    private readonly bool _hasHeading;
    private readonly List<string> _notes = [];

    public TextTable(Func<Stream> open)
    {
        _open = open;
        (_encoding, var note) = EncodingOf(open);
        if (note.Length > 0)
            _notes.Add(note);
        string head;
        using (var reader = new StreamReader(open(), _encoding))
        {
            var part = new char[1 << 14];
            head = new string(part, 0, reader.ReadBlock(part));
        }
        _delimiter = Delimiter(head);
        var first = Rows().FirstOrDefault(r => r.Cells.Any(c => c.Length > 0))?.Cells ?? [];
        if (first.Count == 0)
            throw new RecordFileException("file.empty", "There is nothing in this table.");
        if (first.Count > MostColumns)
            throw new RecordFileException("table.columns", $"It has {first.Count} columns; {MostColumns} are read at most.");
        // A list of names has no heading: its first line is a name already.
        _hasHeading = first.Count > 1 || ImportHeadings.IsHeading(first);
        if (first.Count > 1 && !ImportHeadings.IsHeading(first))
            _notes.Add("No heading of the first line is known: say below what each column holds.");
        Headings = _hasHeading ? first : ["Taxon"];
    }

    public override string Kind => _hasHeading ? "table" : "list of names";

    public override IReadOnlyList<string> Headings { get; }

    public override IReadOnlyList<string> Notes => _notes;

    public override IEnumerable<TableLine> Lines() => Rows().Where(r => r.Cells.Any(c => c.Length > 0)).Skip(_hasHeading ? 1 : 0);

    private IEnumerable<TableLine> Rows()
    {
        using var reader = new StreamReader(_open(), _encoding);
        foreach (var row in Rows(reader, _delimiter, '"'))
            yield return row;
    }

    // Cells of one delimiter; of a delimiter that no text has each line is a cell.
    internal static IEnumerable<TableLine> Rows(TextReader reader, string delimiter, char quote)
    {
        var configuration = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            Delimiter = delimiter,
            Quote = quote,
            Mode = quote == '\0' ? CsvMode.NoEscape : CsvMode.RFC4180,
            HasHeaderRecord = false,
            BadDataFound = null,
            MissingFieldFound = null,
            TrimOptions = TrimOptions.Trim,
            IgnoreBlankLines = false,
            MaxFieldSize = LongestCell,
        };
        using var csv = new CsvParser(reader, configuration);
        while (true)
        {
            try
            {
                if (!csv.Read())
                    yield break;
            }
            catch (MaxFieldSizeException)
            {
                throw new RecordFileException(
                    "cell.too-long",
                    $"A cell near line {csv.RawRow} is longer than {LongestCell} characters. Perhaps a quotation mark isn’t closed."
                );
            }
            // A copy: the parser writes the next line over this one.
            yield return new TableLine(csv.RawRow, [.. (csv.Record ?? []).Select(Plain)]);
        }
    }

    // Spreadsheets are kept from taking a text for a formula by an apostrophe before it: it is no part of the text.
    private static string Plain(string cell)
    {
        var text = cell.Trim().Trim('\uFEFF');
        return text.Length > 1 && text[0] == '\'' && text[1] is '=' or '+' or '-' or '@' ? text[1..] : text;
    }

    private static (Encoding Encoding, string Note) EncodingOf(Func<Stream> open)
    {
        using var file = open();
        var part = new byte[Looked];
        var strict = new UTF8Encoding(false, throwOnInvalidBytes: true).GetDecoder();
        var isFirst = true;
        var isUtf8 = true;
        int read;
        while ((read = file.ReadAtLeast(part, part.Length, throwOnEndOfStream: false)) > 0)
        {
            var bytes = part.AsSpan(0, read);
            if (isFirst && bytes is [0xFF, 0xFE, ..])
                return (Encoding.Unicode, "");
            if (isFirst && bytes is [0xFE, 0xFF, ..])
                return (Encoding.BigEndianUnicode, "");
            isFirst = false;
            if (bytes.Contains((byte)0))
                throw new RecordFileException("file.binary", "This isn’t a table: it is neither text, nor a workbook, nor an archive.");
            if (!isUtf8)
                continue;
            try
            {
                strict.GetCharCount(bytes, flush: false);
                // Only to move the decoder on: what a letter was cut by is minded.
                var chars = new char[bytes.Length + 1];
                strict.GetChars(bytes, chars, flush: false);
            }
            catch (DecoderFallbackException)
            {
                isUtf8 = false;
            }
        }
        return isUtf8
            ? (new UTF8Encoding(false), "")
            : (Encoding.GetEncoding(1252), "It isn’t in UTF-8; it was read as Windows-1252. Look at letters with accents.");
    }

    // The sign that stands most often in the first line, outside of quotes; none: a list of names.
    private static string Delimiter(string head)
    {
        var counts = new Dictionary<char, int>
        {
            ['\t'] = 0,
            [';'] = 0,
            [','] = 0,
        };
        var lines = head.Split('\n').Select(l => l.Trim()).Where(l => l.Length > 0).Take(2).ToList();
        var isQuoted = false;
        foreach (var c in lines.FirstOrDefault() ?? "")
        {
            if (c == '"')
                isQuoted = !isQuoted;
            else if (!isQuoted && counts.TryGetValue(c, out var n))
                counts[c] = n + 1;
        }
        var most = counts.MaxBy(c => c.Value);
        return most.Value == 0 ? "\t" : most.Key.ToString();
    }
}

/// <summary>The first sheet of a workbook.</summary>
internal sealed class WorkbookFile : RecordFile
{
    private const long Largest = 64L << 20;

    // It is held in memory; what is longer comes as CSV, which may be of any length.
    private const int MostRows = 200_000;

    private readonly Sheet _sheet;
    private readonly string[] _notes;

    public WorkbookFile(string path)
    {
        if (new FileInfo(path).Length > Largest)
            throw new RecordFileException("file.too-large", $"A workbook may have {Largest >> 20} MiB. Save its sheet as CSV.");
        var reading = SheetReader.Read("the sheet", File.ReadAllBytes(path), MostRows);
        _sheet = reading.Sheet
            ?? throw new RecordFileException(
                reading.Problems is [var first, ..] ? first.Code : "file.damaged",
                reading.Problems is [var why, ..] ? why.Message : "This workbook can’t be read. Save its sheet as CSV."
            );
        _notes = [.. reading.Problems.Select(p => p.Message)];
    }

    public override string Kind => "workbook";

    public override IReadOnlyList<string> Headings => _sheet.Header;

    public override IReadOnlyList<string> Notes => _notes;

    public override IEnumerable<TableLine> Lines() => _sheet.Rows.Select(r => new TableLine(r.Number, r.Cells));
}
