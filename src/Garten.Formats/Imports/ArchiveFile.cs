using System.Globalization;
using System.IO.Compression;
using System.Text;
using System.Xml;
using System.Xml.Linq;

namespace Garten.Formats.Imports;

/// <summary>
/// A Darwin Core Archive as one table: each occurrence a line, with what is said of its event. Events without an occurrence are lines of
/// their own at the end. An archive may be of events with occurrences, or of occurrences alone; its terms are told by their last part.
/// </summary>
internal sealed class ArchiveFile : RecordFile
{
    private const int MostEvents = 1_000_000;
    private const long LargestMeta = 1 << 20;
    private static readonly XNamespace Text = "http://rs.tdwg.org/dwc/text/";

    // What an event says that an occurrence may say of itself: there it is another column.
    private static readonly Dictionary<string, string> OfPlace = new(StringComparer.Ordinal)
    {
        ["decimalLatitude"] = "place latitude",
        ["decimalLongitude"] = "place longitude",
        ["coordinateUncertaintyInMeters"] = "place uncertainty",
    };

    private readonly ZipArchive _zip;
    private readonly Table _occurrences;
    private readonly Table? _events;
    private readonly List<Table> _ofEvents = [];
    private readonly List<string> _headings;
    private readonly List<(Table Table, int Column, int At)> _fromEvents = [];
    private readonly List<string> _notes = [];

    private sealed record Table(string File, string RowType, string Delimiter, char Quote, Encoding Encoding, int Skipped, int Id)
    {
        /// <summary>Where each term stands; -1 for one that has the same value in all rows.</summary>
        public List<(string Term, int Index, string Usual)> Fields { get; } = [];
    }

    public ArchiveFile(string path)
    {
        _zip = ZipFile.OpenRead(path);
        try
        {
            var tables = Tables();
            var core = tables[0];
            _events = core.RowType == "Event" ? core : null;
            _occurrences = tables.Find(t => t.RowType == "Occurrence")
                ?? throw new RecordFileException("archive.occurrences", "This archive has no occurrences: there is nothing to take in.");
            if (_events is null && core != _occurrences)
                throw new RecordFileException(
                    "archive.core",
                    "The core of this archive is neither events nor occurrences: it isn’t an archive of records."
                );
            _headings = [.. _occurrences.Fields.Select(f => f.Term)];
            if (_events is not null)
            {
                _ofEvents.Add(_events);
                // Effort and how far a list goes: one row an event, with the terms of another vocabulary.
                _ofEvents.AddRange(tables.Where(t => t != core && t != _occurrences && t.RowType == "Event"));
            }
            foreach (var table in _ofEvents)
            {
                for (var i = 0; i < table.Fields.Count; i++)
                {
                    var term = table.Fields[i].Term;
                    var heading = OfPlace.GetValueOrDefault(term, term);
                    if (_headings.Contains(heading, StringComparer.Ordinal))
                        continue;
                    _fromEvents.Add((table, i, _headings.Count));
                    _headings.Add(heading);
                }
            }
            foreach (var left in tables.Where(t => t != _occurrences && !_ofEvents.Contains(t)))
                _notes.Add($"“{left.File}” ({left.RowType}) isn’t among what is taken in here.");
        }
        catch (Exception error) when (error is not RecordFileException)
        {
            _zip.Dispose();
            throw error is InvalidDataException or XmlException or IOException
                ? new RecordFileException("file.damaged", "This archive is damaged: " + error.Message)
                : error;
        }
        catch
        {
            _zip.Dispose();
            throw;
        }
    }

    public override string Kind => _events is null ? "archive of occurrences" : "archive of events";

    public override IReadOnlyList<string> Headings => _headings;

    public override IReadOnlyList<string> Notes => _notes;

    public override IEnumerable<TableLine> Lines()
    {
        var events = new Dictionary<string, string[][]>(StringComparer.Ordinal);
        for (var t = 0; t < _ofEvents.Count; t++)
        {
            foreach (var (_, id, cells) in Rows(_ofEvents[t]))
            {
                if (!events.TryGetValue(id, out var of))
                {
                    if (events.Count >= MostEvents)
                        throw new RecordFileException("archive.events", $"It has more than {MostEvents} events. Bring it in parts.");
                    events[id] = of = new string[_ofEvents.Count][];
                }
                of[t] ??= cells;
            }
        }
        var found = new HashSet<string>(StringComparer.Ordinal);
        var eventId = _headings.IndexOf("eventID");
        foreach (var (number, id, cells) in Rows(_occurrences))
        {
            found.Add(id);
            yield return new TableLine(
                number,
                ParentOf(id, events) is { } parent
                    ? OfPart(cells, id, parent, events, eventId)
                    : Joined(cells, events.GetValueOrDefault(id))
            );
        }
        if (_events is null)
            yield break;
        foreach (var (number, id, _) in Rows(_events))
        {
            if (found.Contains(id) || ParentOf(id, events) is not null)
                continue;
            var cells = Joined([], events.GetValueOrDefault(id));
            if (eventId >= 0)
                cells[eventId] = id;
            yield return new TableLine(number, cells);
        }
    }

    // The event of the same day that an event is a part of, as a plot is of its visit; null for none.
    private string? ParentOf(string id, Dictionary<string, string[][]> events)
    {
        string Of(string of, string term) =>
            _events!.Fields.FindIndex(f => f.Term == term) is >= 0 and var at && events.GetValueOrDefault(of)?[0] is { } row ? row[at] : "";
        return
            _events is not null
            && Of(id, "parentEventID") is { Length: > 0 } parent
            && events.ContainsKey(parent)
            && Of(parent, "eventDate") == Of(id, "eventDate")
            ? parent
            : null;
    }

    // A find in a part of an event: it belongs to the whole, and the part says where.
    private string[] OfPart(string[] cells, string id, string parent, Dictionary<string, string[][]> events, int eventId)
    {
        var all = Joined(cells, events.GetValueOrDefault(parent));
        var (locality, part) = (_events!.Fields.FindIndex(f => f.Term == "locality"), _headings.IndexOf("verbatimLocality"));
        if (eventId >= 0)
            all[eventId] = parent;
        if (locality < 0 || part < 0 || all[part].Length > 0)
            return all;
        var (own, whole) = (events[id][0][locality], events[parent][0][locality]);
        // "Cold Fen, plot 7" of "Cold Fen, north of the mill": the words before the comma are the place's.
        var shared = own.Zip(whole).TakeWhile(p => p.First == p.Second).Count();
        var comma = own.IndexOf(", ", StringComparison.Ordinal);
        all[part] = comma > 0 && comma <= shared ? own[(comma + 2)..] : own;
        return all;
    }

    private string[] Joined(string[] cells, string[][]? of)
    {
        var all = new string[_headings.Count];
        Array.Fill(all, "");
        cells.AsSpan(0, Math.Min(cells.Length, all.Length)).CopyTo(all);
        foreach (var (table, column, at) in _fromEvents)
        {
            if (of?[_ofEvents.IndexOf(table)] is { } row)
                all[at] = row[column];
        }
        return all;
    }

    // The rows of a table: its line, the id that joins it, and the cells in the order of its fields.
    private IEnumerable<(int Number, string Id, string[] Cells)> Rows(Table table)
    {
        var entry = _zip.GetEntry(table.File)
            ?? throw new RecordFileException("archive.file", $"“{table.File}”, which meta.xml names, isn’t in the archive.");
        using var reader = new StreamReader(entry.Open(), table.Encoding);
        var left = table.Skipped;
        foreach (var row in TextTable.Rows(reader, table.Delimiter, table.Quote))
        {
            if (left-- > 0 || row.Cells.All(c => c.Length == 0))
                continue;
            string Cell(int at) => at >= 0 && at < row.Cells.Count ? row.Cells[at] : "";
            yield return (
                row.Number,
                Cell(table.Id),
                [.. table.Fields.Select(f => Cell(f.Index) is { Length: > 0 } cell ? cell : f.Usual)]
            );
        }
    }

    private List<Table> Tables()
    {
        var meta = _zip.GetEntry("meta.xml");
        if (meta is null)
        {
            // Without a description: one table with terms as its headings.
            var only = _zip
                .Entries.Where(e =>
                    e.Name.EndsWith(".csv", StringComparison.OrdinalIgnoreCase)
                    || e.Name.EndsWith(".txt", StringComparison.OrdinalIgnoreCase)
                )
                .ToList();
            throw new RecordFileException(
                "archive.meta",
                only.Count == 1
                    ? $"This archive has no meta.xml. Unpack it and bring “{only[0].Name}” by itself."
                    : "This archive has no meta.xml: it isn’t a Darwin Core Archive."
            );
        }
        if (meta.Length > LargestMeta)
            throw new RecordFileException("archive.meta", "Its meta.xml is larger than any that describes an archive.");
        using var stream = meta.Open();
        using var xml = XmlReader.Create(
            stream,
            new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = LargestMeta,
            }
        );
        var root = XDocument.Load(xml).Root!;
        var tables = root.Elements(Text + "core").Concat(root.Elements(Text + "extension")).Select(Described).ToList();
        return tables.Count > 0 ? tables : throw new RecordFileException("archive.meta", "Its meta.xml describes no table.");
    }

    private static Table Described(XElement it)
    {
        string Said(string name, string usual) => it.Attribute(name)?.Value ?? usual;
        static string Sign(string text) =>
            text.Replace("\\t", "\t", StringComparison.Ordinal).Replace("\\n", "\n", StringComparison.Ordinal);
        static int Number(string? text, int usual) =>
            int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : usual;
        var file = it.Element(Text + "files")?.Element(Text + "location")?.Value ?? "";
        var rowType = Said("rowType", "");
        var quote = Said("fieldsEnclosedBy", "\"");
        Encoding encoding;
        try
        {
            encoding = Encoding.GetEncoding(Said("encoding", "UTF-8"));
        }
        catch (ArgumentException)
        {
            throw new RecordFileException("archive.encoding", $"“{file}” is in “{Said("encoding", "")}”, which isn’t read. Bring UTF-8.");
        }
        var delimiter = Sign(Said("fieldsTerminatedBy", ","));
        var table = new Table(
            file,
            rowType[(rowType.LastIndexOfAny(['/', '#', ':']) + 1)..],
            delimiter.Length == 0 ? "," : delimiter,
            quote.Length > 0 ? quote[0] : '\0',
            encoding,
            Number(Said("ignoreHeaderLines", "0"), 0),
            Number((it.Element(Text + "id") ?? it.Element(Text + "coreid"))?.Attribute("index")?.Value, -1)
        );
        foreach (var field in it.Elements(Text + "field"))
        {
            var term = field.Attribute("term")?.Value ?? "";
            table.Fields.Add(
                (
                    term[(term.LastIndexOfAny(['/', '#', ':']) + 1)..],
                    Number(field.Attribute("index")?.Value, -1),
                    field.Attribute("default")?.Value ?? ""
                )
            );
        }
        if (table.Fields.Count > MostColumns)
            throw new RecordFileException("table.columns", $"“{file}” has {table.Fields.Count} columns; {MostColumns} are read at most.");
        return table;
    }

    protected override void Dispose(bool disposing)
    {
        _zip.Dispose();
        base.Dispose(disposing);
    }
}
