using System.IO.Compression;
using System.Text;
using System.Xml.Linq;

namespace Garten.Server.Tests;

/// <summary>
/// Reads a Darwin Core Archive as strictly as its guide (TDWG text guidelines) can be read, apart from what writes it: by <c>meta.xml</c>
/// alone, every field declared, every id unique, every core id known.
/// </summary>
internal sealed class StrictArchive
{
    private static readonly XNamespace Text = "http://rs.tdwg.org/dwc/text/";

    public IReadOnlyDictionary<string, IReadOnlyList<IReadOnlyDictionary<string, string>>> Tables { get; }

    public XDocument Eml { get; }

    public string Whole { get; }

    private StrictArchive(
        IReadOnlyDictionary<string, IReadOnlyList<IReadOnlyDictionary<string, string>>> tables,
        XDocument eml,
        string whole
    ) => (Tables, Eml, Whole) = (tables, eml, whole);

    public static async Task<StrictArchive> ReadAsync(byte[] content)
    {
        using var zip = new ZipArchive(new MemoryStream(content));
        var whole = new StringBuilder();
        async Task<string> FileAsync(string name)
        {
            var entry = zip.GetEntry(name) ?? throw new InvalidDataException($"{name} is missing.");
            using var reader = new StreamReader(await entry.OpenAsync(), new UTF8Encoding(false, throwOnInvalidBytes: true));
            var text = await reader.ReadToEndAsync();
            whole.Append(text);
            return text;
        }
        var meta = XDocument.Parse(await FileAsync("meta.xml")).Root!;
        Must(meta.Name == Text + "archive", "meta.xml isn't an archive's.");
        var eml = XDocument.Parse(await FileAsync((string)meta.Attribute("metadata")!));
        foreach (var part in new[] { "title", "creator", "pubDate", "language", "abstract", "intellectualRights", "contact" })
            Must(eml.Descendants(part).Any(e => e.Value.Length > 0), $"EML has no {part}.");
        var tables = new Dictionary<string, IReadOnlyList<IReadOnlyDictionary<string, string>>>(StringComparer.Ordinal);
        HashSet<string>? core = null;
        foreach (var table in meta.Elements())
        {
            var isCore = table.Name == Text + "core";
            Must(isCore || table.Name == Text + "extension", $"{table.Name} is neither core nor extension.");
            Must(isCore == (core is null), "The core comes first, and once.");
            Must((string?)table.Attribute("encoding") == "UTF-8", "UTF-8 is declared.");
            Must(
                (string?)table.Attribute("fieldsTerminatedBy") == "," && (string?)table.Attribute("fieldsEnclosedBy") == "\"",
                "Commas and quotes are declared."
            );
            Must((string?)table.Attribute("linesTerminatedBy") == "\\r\\n", "The ends of lines are declared.");
            var file = table.Element(Text + "files")!.Element(Text + "location")!.Value;
            var fields = table.Elements(Text + "field").ToDictionary(f => (int)f.Attribute("index")!, f => (string)f.Attribute("term")!);
            Must(fields.Values.Distinct().Count() == fields.Count, $"{file}: a term is there twice.");
            var rows = Rows(await FileAsync(file), file);
            var header = rows[0];
            Must(
                Enumerable.Range(0, header.Count).All(fields.ContainsKey) && fields.Count == header.Count,
                $"{file}: fields and columns differ."
            );
            Must(
                header.Select((h, i) => fields[i].EndsWith("/" + h, StringComparison.Ordinal)).All(x => x),
                $"{file}: a header isn't its term."
            );
            var idAt = (int)table.Element(Text + (isCore ? "id" : "coreid"))!.Attribute("index")!;
            var read = rows.Skip(1)
                .Select(row =>
                {
                    Must(row.Count == header.Count, $"{file}: a row has {row.Count} cells.");
                    return (IReadOnlyDictionary<string, string>)header.Zip(row).ToDictionary(p => p.First, p => p.Second);
                })
                .ToList();
            var ids = read.Select(r => r[header[idAt]]).ToList();
            if (core is null)
            {
                core = [.. ids];
                Must(core.Count == ids.Count && !core.Contains(""), $"{file}: an id is missing or there twice.");
            }
            else
                Must(ids.TrueForAll(core.Contains), $"{file}: a row belongs to no event.");
            tables[Path.GetFileNameWithoutExtension(file)] = read;
        }
        var occurrences = tables["occurrence"].Select(o => o["occurrenceID"]).ToList();
        Must(occurrences.Distinct().Count() == occurrences.Count, "An occurrence is there twice.");
        Must(tables["measurementorfact"].All(m => occurrences.Contains(m["occurrenceID"])), "A measurement belongs to no occurrence.");
        Must(zip.Entries.Count == tables.Count + 2, "There are files that meta.xml doesn't name.");
        return new StrictArchive(tables, eml, whole.ToString());
    }

    private static void Must(bool holds, string said)
    {
        if (!holds)
            throw new InvalidDataException(said);
    }

    // RFC 4180, with its line ends and nothing else; no cell holds a line break.
    private static List<List<string>> Rows(string text, string file)
    {
        var rows = new List<List<string>> { new() };
        for (var at = 0; at < text.Length; )
        {
            string cell;
            if (text[at] == '"')
            {
                var quoted = new StringBuilder();
                for (at++; ; at++)
                {
                    Must(at < text.Length && text[at] is not ('\r' or '\n'), $"{file}: a quoted cell doesn't end on its line.");
                    if (text[at] != '"')
                        quoted.Append(text[at]);
                    else if (at + 1 < text.Length && text[at + 1] == '"')
                        quoted.Append(text[at++]);
                    else
                        break;
                }
                cell = quoted.ToString();
                at++;
            }
            else
            {
                var end = text.AsSpan(at).IndexOfAny(",\r\n\"");
                Must(end >= 0, $"{file}: the last line isn't ended.");
                cell = text.Substring(at, end);
                at += end;
            }
            rows[^1].Add(cell);
            if (text[at] == ',')
                at++;
            else
            {
                Must(text.AsSpan(at).StartsWith("\r\n"), $"{file}: a line ends otherwise than declared.");
                at += 2;
                if (at < text.Length)
                    rows.Add([]);
            }
        }
        return rows;
    }
}
