using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Garten.Core.Floras;

namespace Garten.Formats;

/// <summary>Reads the taxa of a flora from a CSV table.</summary>
public static class TaxonTable
{
    /// <summary>
    /// Reads a table with the columns <c>name, authorship, rank, parent, family, common_name, cautions, caution_note</c>; cautions are
    /// separated by <c>|</c>. The id of a taxon is its name in small letters with hyphens.
    /// </summary>
    /// <exception cref="FormatException">A row can't be read; the message names it.</exception>
    public static IReadOnlyList<Taxon> Read(TextReader table)
    {
        using var csv = new CsvReader(table, new CsvConfiguration(CultureInfo.InvariantCulture) { TrimOptions = TrimOptions.Trim, MissingFieldFound = null });
        csv.Read();
        csv.ReadHeader();
        var taxa = new List<Taxon>();
        while (csv.Read())
        {
            string Cell(string column) => csv.GetField(column) ?? "";
            if (Cell("name").Length == 0) throw new FormatException($"Row {csv.Parser.Row} has no name.");
            var cautions = Cell("cautions").Split('|', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Select(word => Enum.TryParse<Caution>(word, ignoreCase: true, out var caution) ? caution : throw new FormatException($"Row {csv.Parser.Row}: “{word}” is no caution."));
            taxa.Add(new Taxon(IdOf(Cell("name")), Cell("name"), Cell("authorship"), Cell("rank"), IdOf(Cell("parent")), Cell("family"), Cell("common_name"), [.. cautions], Cell("caution_note")));
        }
        return [.. taxa.OrderBy(t => t.Name, StringComparer.Ordinal)];
    }

    private static string IdOf(string name) => name.Replace("×", "x", StringComparison.Ordinal).Replace(".", "", StringComparison.Ordinal).Replace(' ', '-').ToLowerInvariant();
}
