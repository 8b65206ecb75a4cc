using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Seasons;

namespace Garten.Formats;

/// <summary>Something wrong in a table, with its place.</summary>
/// <param name="File">Which table.</param>
/// <param name="Row">Row of the table, the header being 1.</param>
/// <param name="Column">Name of the column.</param>
/// <param name="Message">What is wrong, as a sentence.</param>
public sealed record TableProblem(string File, int Row, string Column, string Message);

/// <summary>Reads characters, seasons and descriptions from CSV tables; see docs/formats.md.</summary>
public static class CharacterTableCsv
{
    /// <summary>The glossary of woody plants that ships with the program: characters, their states, and the words that keys use for them.</summary>
    public static IReadOnlyList<Character> WoodyCharacters { get; } = ReadShipped();

    /// <summary>When the phenophases last in a cool-temperate place.</summary>
    public static IReadOnlyList<PhaseWindow> WoodySeasons { get; } = ReadSeasons(Shipped("seasons.csv"));

    private static IReadOnlyList<Character> ReadShipped() => ReadCharacters(Shipped("characters.csv"), Shipped("states.csv"));

    private static StreamReader Shipped(string name) =>
        new(typeof(CharacterTableCsv).Assembly.GetManifestResourceStream($"Garten.Formats.Glossary.{name}") ?? throw new InvalidOperationException($"The glossary {name} is missing in the program."));

    /// <summary>Reads characters and their states.</summary>
    /// <exception cref="FormatException">A row can't be read; the message names it.</exception>
    public static IReadOnlyList<Character> ReadCharacters(TextReader characters, TextReader states)
    {
        var byCharacter = Rows(states).ToLookup(r => r.Cell("character"), r => new CharacterState(r.Cell("id"), r.Cell("name"), r.Cell("definition"), List(r.Cell("terms"))), StringComparer.Ordinal);
        return [.. Rows(characters).Select(row => new Character(
            row.Cell("id"), row.Cell("name"), row.Word<Organ>("organ"), row.Word<CharacterKind>("kind"), [.. byCharacter[row.Cell("id")]], List(row.Cell("nouns")), List(row.Cell("measures")),
            row.Number("reliability", 0.9), row.Number("detection", 0.9), (int)row.Number("effort", 30), row.Word<Tool>("tool"), row.Word<Handling>("handling"),
            row.Cell("seen") == "always" ? [] : [.. List(row.Cell("seen")).Select(Phase)], Needs(row.Cell("needs")), row.Cell("family"), row.Cell("sizes"),
            row.Cell("ratio_of").Length == 0 ? null : row.Cell("ratio_of").Split('/'), row.Cell("measured")))];
    }

    /// <summary>Reads when the phenophases last: <c>phase, from, to</c> with month and day.</summary>
    public static IReadOnlyList<PhaseWindow> ReadSeasons(TextReader seasons) => [.. Rows(seasons).Select(row =>
    {
        var (from, to) = (row.Cell("from").Split('-'), row.Cell("to").Split('-'));
        int Part(string[] day, int i) => int.Parse(day[i], CultureInfo.InvariantCulture);
        return new PhaseWindow(Phase(row.Cell("phase")), Part(from, 0), Part(from, 1), Part(to, 0), Part(to, 1));
    })];

    /// <summary>Reads descriptions: <c>taxon, character, value</c>; the value as in <see cref="DescriptionCell"/>.</summary>
    /// <returns>What could be read, and what is wrong with the rest, cell by cell.</returns>
    public static (IReadOnlyList<TaxonDescription> Descriptions, IReadOnlyList<TableProblem> Problems) ReadDescriptions(TextReader table, IReadOnlyList<Character> characters, IReadOnlyList<Taxon> taxa)
    {
        const string file = "descriptions.csv";
        var byId = characters.ToDictionary(c => c.Id, StringComparer.Ordinal);
        var ids = taxa.ToDictionary(t => t.Name, t => t.Id, StringComparer.Ordinal);
        var read = new Dictionary<string, Dictionary<string, CharacterDescription>>(StringComparer.Ordinal);
        var problems = new List<TableProblem>();
        foreach (var row in Rows(table))
        {
            if (!ids.TryGetValue(row.Cell("taxon"), out var taxon)) problems.Add(new(file, row.Place, "taxon", $"“{row.Cell("taxon")}” isn't among the taxa."));
            else if (!byId.TryGetValue(row.Cell("character"), out var character)) problems.Add(new(file, row.Place, "character", $"There is no character “{row.Cell("character")}”."));
            else
            {
                var cell = DescriptionCell.Read(row.Cell("value"), character, out var wrong);
                if (wrong is not null) problems.Add(new(file, row.Place, "value", wrong));
                if (cell is null) continue;
                if (!read.TryGetValue(taxon, out var own)) read[taxon] = own = new(StringComparer.Ordinal);
                if (!own.TryAdd(character.Id, cell)) problems.Add(new(file, row.Place, "character", $"{row.Cell("taxon")} is described twice in {character.Name}."));
            }
        }
        return ([.. read.Select(t => new TaxonDescription(t.Key, [.. t.Value.Values]))], problems);
    }

    private sealed class Row(Dictionary<string, string> cells, int number)
    {
        public int Place { get; } = number;

        public string Cell(string column) => cells.GetValueOrDefault(column, "");

        public double Number(string column, double otherwise) => Cell(column) is { Length: > 0 } text ? double.Parse(text, CultureInfo.InvariantCulture) : otherwise;

        public T Word<T>(string column)
            where T : struct, Enum =>
            Enum.TryParse<T>(Cell(column).Replace("-", "", StringComparison.Ordinal), ignoreCase: true, out var value) ? value : throw new FormatException($"Row {Place}: “{Cell(column)}” is no {column}.");
    }

    private static List<Row> Rows(TextReader table)
    {
        using var csv = new CsvReader(table, new CsvConfiguration(CultureInfo.InvariantCulture) { TrimOptions = TrimOptions.Trim, MissingFieldFound = null });
        csv.Read();
        csv.ReadHeader();
        var rows = new List<Row>();
        while (csv.Read()) rows.Add(new Row(csv.HeaderRecord!.ToDictionary(h => h, h => csv.GetField(h) ?? "", StringComparer.Ordinal), csv.Parser.Row));
        return rows;
    }

    private static Phenophase Phase(string word) => Enum.TryParse<Phenophase>(word.Replace("-", "", StringComparison.Ordinal), ignoreCase: true, out var phase) ? phase : throw new FormatException($"“{word}” is no phenophase.");

    private static string[] List(string cell) => cell.Split('|', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static Applicability? Needs(string cell)
    {
        var at = cell.IndexOf('=', StringComparison.Ordinal);
        return at < 0 ? null : new Applicability(cell[..at], List(cell[(at + 1)..]));
    }
}
