using System.Globalization;
using System.Text;
using System.Text.Json.Serialization;

namespace Garten.Core.Surveys.Figures;

/// <summary>What the rows of a pasted table are.</summary>
[JsonConverter(typeof(CamelCaseWords<TableLayout>))]
public enum TableLayout
{
    /// <summary>One row a sample, one column a taxon; names of taxa in the first line.</summary>
    SamplesInRows,

    /// <summary>One row a taxon, one column a sample; names of samples in the first line.</summary>
    TaxaInRows,

    /// <summary>One row a find: sample, taxon, value.</summary>
    Finds,
}

/// <summary>Something in a pasted table that can't be used.</summary>
/// <param name="Line">Its line, from 1.</param>
/// <param name="Column">Its cell in that line, from 1.</param>
/// <param name="Message">What is wrong, and what would be right.</param>
public sealed record TableProblem(int Line, int Column, string Message);

/// <summary>A cell that was read.</summary>
/// <param name="Sample">The sample.</param>
/// <param name="Taxon">The taxon.</param>
/// <param name="Value">How much.</param>
/// <param name="Line">Its line, from 1.</param>
/// <param name="Column">Its cell, from 1.</param>
public sealed record TableCell(string Sample, string Taxon, double Value, int Line, int Column);

/// <summary>
/// Reads a table of samples and taxa as it is copied out of a sheet: cells parted by tabs, semicolons or commas, in quotes where one holds
/// the sign itself; empty cells and "-" or "·" are 0, "+" is presence. What can't be read is a problem at its line and cell; nothing is
/// guessed.
/// </summary>
public static class CommunityTable
{
    /// <summary>Longest text that is read.</summary>
    public const int LongestText = 4_000_000;

    private const int MostProblems = 50;
    private static readonly HashSet<string> Nothing = new(StringComparer.Ordinal) { "", "-", "–", "·", ".", "0" };

    /// <summary>Reads it.</summary>
    /// <param name="text">The table, with a first line of names.</param>
    /// <param name="layout">What its rows are.</param>
    /// <param name="presence">What "+" counts: 1 where taxa are found or not; null where values are wanted: then it is a problem.</param>
    public static (IReadOnlyList<TableCell> Cells, IReadOnlyList<TableProblem> Problems) Read(
        string text,
        TableLayout layout,
        double? presence
    )
    {
        ArgumentNullException.ThrowIfNull(text);
        var (cells, problems) = (new List<TableCell>(), new List<TableProblem>());
        if (text.Length > LongestText)
            return (cells, [new TableProblem(1, 1, "The table is too long: at most 4 million letters at a time.")]);
        var lines = text.ReplaceLineEndings("\n").Split('\n');
        var first = Array.FindIndex(lines, l => l.Trim().Length > 0);
        if (first < 0)
            return (cells, [new TableProblem(1, 1, "There is nothing in it: paste the table with its first line of names.")]);
        var separator = SeparatorOf(lines[first]);
        if (separator is null)
            return (
                cells,
                [new TableProblem(first + 1, 1, "Its first line has one cell: part the cells with tabs, semicolons or commas.")]
            );
        var names = Split(lines[first], separator.Value);
        var seen = new Dictionary<(string, string), int>();
        for (var l = first + 1; l < lines.Length && problems.Count < MostProblems; l++)
        {
            if (lines[l].Trim().Length == 0)
                continue;
            var row = Split(lines[l], separator.Value);
            if (layout == TableLayout.Finds)
                Find(row, l + 1);
            else
                Row(row, l + 1);
        }
        if (problems.Count == 0 && cells.Count == 0)
            problems.Add(new TableProblem(first + 1, 1, "There is a line of names, and nothing below it."));
        return (cells, problems);

        void Find(List<string> row, int line)
        {
            if (row.Count < 3)
                problems.Add(new TableProblem(line, row.Count, "A find has three cells: sample, taxon, value."));
            else
                Add(row[0], row[1], row[2], line, 3, 2);
        }

        void Row(List<string> row, int line)
        {
            // A sheet leaves the cell above the names of the rows out, or writes something in it.
            var shift = row.Count == names.Count + 1 ? 1 : 0;
            if (row.Count > names.Count + shift)
                problems.Add(
                    new TableProblem(
                        line,
                        names.Count + 1,
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"This line has {row.Count} cells, the first line {names.Count}: which is which isn't clear."
                        )
                    )
                );
            else
            {
                for (var c = 1; c < row.Count; c++)
                {
                    if (layout == TableLayout.SamplesInRows)
                        Add(row[0], names[c - shift], row[c], line, c + 1, 1);
                    else
                        Add(names[c - shift], row[0], row[c], line, c + 1, 1);
                }
            }
        }

        void Add(string sample, string taxon, string typed, int line, int column, int named)
        {
            if (sample.Length == 0 || taxon.Length == 0)
            {
                // A column without a name that holds nothing is the end of a sheet.
                if (!Nothing.Contains(typed))
                    problems.Add(new TableProblem(line, column, "This stands in a row or column without a name."));
                return;
            }
            if (!seen.TryAdd((sample, taxon), line))
            {
                problems.Add(
                    new TableProblem(
                        line,
                        named,
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"“{taxon}” stands in “{sample}” twice, first in line {seen[(sample, taxon)]}."
                        )
                    )
                );
                return;
            }
            if (ValueOf(typed, presence, separator.Value) is { } value)
                cells.Add(new TableCell(sample, taxon, value, line, column));
            else
                problems.Add(
                    new TableProblem(
                        line,
                        column,
                        typed == "+"
                            ? "“+” says found: choose “found or not”, or write how much."
                            : $"“{Short(typed)}” isn't a number of 0 or more."
                    )
                );
        }
    }

    private const int Shown = 24;

    /// <summary>The lines of a table that aren't empty, each with its number from 1 and its cells.</summary>
    /// <param name="text">The table; of one that is too long, nothing.</param>
    public static IReadOnlyList<(int Line, List<string> Cells)> Rows(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length > LongestText)
            return [];
        var rows = new List<(int, List<string>)>();
        char? separator = null;
        var lines = text.ReplaceLineEndings("\n").Split('\n');
        for (var i = 0; i < lines.Length; i++)
        {
            if (lines[i].Trim().Length == 0)
                continue;
            separator ??= SeparatorOf(lines[i]);
            rows.Add((i + 1, separator is { } by ? [.. Split(lines[i], by).Select(c => c.Trim())] : [lines[i].Trim()]));
        }
        return rows;
    }

    private static string Short(string typed) => typed.Length > Shown ? typed[..Shown] + "…" : typed;

    private static double? ValueOf(string typed, double? presence, char separator)
    {
        if (Nothing.Contains(typed))
            return 0;
        if (typed is "+" or "x" or "X")
            return presence;
        // Where commas don't part cells they part decimals.
        var text = separator == ',' ? typed : typed.Replace(',', '.');
        return double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value) ? value : null;
    }

    private static char? SeparatorOf(string line) =>
        line.Contains('\t') ? '\t'
        : line.Contains(';') ? ';'
        : line.Contains(',') ? ','
        : null;

    private static List<string> Split(string line, char separator)
    {
        var (cells, cell) = (new List<string>(), new StringBuilder());
        var isQuoted = false;
        for (var i = 0; i < line.Length; i++)
        {
            if (isQuoted && line[i] == '"' && i + 1 < line.Length && line[i + 1] == '"')
                cell.Append(line[i++]);
            else if (line[i] == '"')
                isQuoted = !isQuoted;
            else if (line[i] == separator && !isQuoted)
            {
                cells.Add(cell.ToString().Trim());
                cell.Clear();
            }
            else
                cell.Append(line[i]);
        }
        cells.Add(cell.ToString().Trim());
        return cells;
    }
}
