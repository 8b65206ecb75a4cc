using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Formats.Tables;

namespace Garten.Formats;

/// <summary>Reads a flora from files as they were uploaded: tables as CSV or XLSX, or one SDD document.</summary>
public static class FloraImporter
{
    private const string Matrix = "matrix";

    /// <summary>The names that files go by.</summary>
    public static IReadOnlyList<string> Fields { get; } = [Matrix, "characters", "taxa", "states", "sdd"];

    /// <summary>The identity of a flora of this name: small letters, digits and hyphens; empty where the name has none.</summary>
    public static string IdOf(string name) => FloraTables.IdOf(name);

    /// <summary>Reads the files; everything wrong is a problem with its place.</summary>
    /// <param name="files">Name and content by field.</param>
    /// <param name="seasons">When the phenophases last.</param>
    /// <param name="renamed">New headings for columns of the matrix; an empty one leaves the column out. Null: they stay as they
    /// are.</param>
    /// <param name="before">The characters of the flora as it was brought before; null where it wasn't.</param>
    /// <param name="stop">Ends the reading.</param>
    /// <param name="dash">What a dash in a cell means; it is asked where nobody has said.</param>
    /// <param name="botany">Makes characters of headings that name a part and a quality; null: those that ship.</param>
    public static FloraReading Read(
        IReadOnlyDictionary<string, (string Name, byte[] Content)> files,
        IReadOnlyList<PhaseWindow> seasons,
        IReadOnlyDictionary<string, string>? renamed = null,
        DashMeaning dash = DashMeaning.Unsaid,
        BotanyIndex? botany = null,
        IReadOnlyList<Character>? before = null,
        CancellationToken stop = default
    ) => ReadWithColumns(files, seasons, renamed, dash, botany, before, stop).Reading;

    /// <summary>The same, with how each column of the matrix is read.</summary>
    public static (FloraReading Reading, IReadOnlyList<FloraColumn> Columns) ReadWithColumns(
        IReadOnlyDictionary<string, (string Name, byte[] Content)> files,
        IReadOnlyList<PhaseWindow> seasons,
        IReadOnlyDictionary<string, string>? renamed = null,
        DashMeaning dash = DashMeaning.Unsaid,
        BotanyIndex? botany = null,
        IReadOnlyList<Character>? before = null,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(files);
        (FloraReading, IReadOnlyList<FloraColumn>) Refused(IReadOnlyList<FloraProblem> problems) =>
            (new([], CharacterTable.Empty, [.. problems.OrderByDescending(p => p.Severity)]), []);
        if (files.TryGetValue("sdd", out var sdd))
        {
            if (files.ContainsKey(Matrix))
                return Refused([
                    new(ProblemSeverity.Error, "file.both", sdd.Name, 0, "", "Send tables or an SDD document, not both at once."),
                ]);
            return (SddReader.Read(sdd.Name, sdd.Content, seasons, stop), []);
        }
        if (!files.ContainsKey(Matrix))
            return Refused([
                new(
                    ProblemSeverity.Error,
                    "file.missing",
                    Matrix,
                    0,
                    "",
                    "The matrix is missing: a table whose first column is the taxon, with a column for each character."
                ),
            ]);
        var problems = new List<FloraProblem>();
        var sheets = new Dictionary<string, Sheet>(StringComparer.Ordinal);
        Sheet? original = null;
        foreach (var (field, file) in files)
        {
            var reading = SheetReader.Read(file.Name, file.Content, stop);
            problems.AddRange(reading.Problems);
            if (field == Matrix)
                original = reading.Sheet;
            if (reading.Sheet is { } sheet)
                sheets[field] = field == Matrix ? Renamed(sheet, renamed) : sheet;
        }
        if (problems.Exists(p => p.Severity == ProblemSeverity.Error))
            return Refused(problems);
        var flora = FloraTables.Read(
            new FloraSheets(
                sheets[Matrix],
                sheets.GetValueOrDefault("characters"),
                sheets.GetValueOrDefault("taxa"),
                sheets.GetValueOrDefault("states")
            )
            {
                Botany = botany ?? ShippedVocabulary.Botany,
                Before = before ?? [],
            },
            seasons,
            null,
            dash,
            stop
        );
        return (
            flora with
            {
                Problems = [.. flora.Problems.Concat(problems).OrderByDescending(p => p.Severity)],
            },
            Columns(original!, renamed, flora)
        );
    }

    private static Sheet Renamed(Sheet sheet, IReadOnlyDictionary<string, string>? renamed) =>
        renamed is null || renamed.Count == 0
            ? sheet
            : Kept(sheet with { Header = [.. sheet.Header.Select(h => renamed.GetValueOrDefault(h, h).Trim())] });

    // Columns whose new heading is empty go, with their cells.
    private static Sheet Kept(Sheet sheet)
    {
        var kept = Enumerable.Range(0, sheet.Header.Count).Where(i => sheet.Header[i].Length > 0).ToList();
        return kept.Count == sheet.Header.Count
            ? sheet
            : new Sheet(
                sheet.Name,
                [.. kept.Select(i => sheet.Header[i])],
                [.. sheet.Rows.Select(r => r with { Cells = [.. kept.Select(r.Cell)] })]
            );
    }

    private static List<FloraColumn> Columns(Sheet original, IReadOnlyDictionary<string, string>? renamed, FloraReading flora)
    {
        var columns = new List<FloraColumn>();
        for (var i = 1; i < original.Header.Count; i++)
        {
            var heading = (renamed?.GetValueOrDefault(original.Header[i]) ?? original.Header[i]).TrimEnd(MatrixColumns.MeantSo);
            var character =
                heading.Length == 0
                    ? null
                    : flora.Table.Characters.FirstOrDefault(c =>
                        Sheet.Plain(c.Id) == Sheet.Plain(heading)
                        || Sheet.Plain(c.Name) == Sheet.Plain(heading)
                        || c.Id == FloraTables.IdOf(heading)
                        || Sheet.Plain(c.Name) == Sheet.Plain(heading.Split('(', '[')[0])
                    );
            columns.Add(
                new FloraColumn(
                    original.Header[i],
                    character?.Name ?? (heading.Length > 0 && MatrixColumns.SaysOfTaxon(heading) ? $"{heading} of the taxon" : ""),
                    character?.Kind,
                    character?.Unit ?? "",
                    character?.States.Count ?? 0,
                    original.Rows.Count(r => !DescriptionCell.IsUnknown(r.Cell(i)))
                )
            );
        }
        return columns;
    }
}
