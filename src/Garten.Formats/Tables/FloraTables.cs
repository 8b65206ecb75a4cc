using System.Globalization;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Formats.Tables;

/// <summary>The tables of a flora, as they came.</summary>
/// <param name="Matrix">Taxa × characters.</param>
/// <param name="Characters">The characters; null: they are worked out from the matrix.</param>
/// <param name="Taxa">The taxa; null: they are the names of the matrix.</param>
/// <param name="States">Definitions and terms of states; null where there are none.</param>
public sealed record FloraSheets(Sheet Matrix, Sheet? Characters = null, Sheet? Taxa = null, Sheet? States = null)
{
    /// <summary>Makes characters of headings that name a part and a quality.</summary>
    public BotanyIndex Botany { get; init; } = ShippedVocabulary.Botany;

    /// <summary>The characters of the flora as it was brought before: a column that was one of its own stays that, so that what was
    /// recorded with it is found again.</summary>
    public IReadOnlyList<Character> Before { get; init; } = [];
}

/// <summary>What came of reading the tables of a flora.</summary>
/// <param name="Taxa">The taxa.</param>
/// <param name="Table">Characters and descriptions.</param>
/// <param name="Problems">What is wrong, worst first, in the order of the tables.</param>
public sealed record FloraReading(IReadOnlyList<Taxon> Taxa, CharacterTable Table, IReadOnlyList<FloraProblem> Problems)
{
    /// <summary>Whether it can be kept.</summary>
    public bool IsSound => Problems.All(p => p.Severity != ProblemSeverity.Error);
}

/// <summary>Reads a flora from its tables; see docs/formats.md. Nothing throws on bad input: everything wrong is a problem with its
/// place.</summary>
public static class FloraTables
{
    /// <summary>Of all problems no more than these are listed; a last one says how many more there are.</summary>
    public const int MostProblems = 500;

    /// <summary>Reads the tables.</summary>
    /// <param name="sheets">The tables.</param>
    /// <param name="seasons">When the phenophases last.</param>
    /// <param name="characters">The characters, where the tables have none of their own; null: they are worked out from the matrix.</param>
    /// <param name="stop">Ends the reading.</param>
    /// <param name="dash">What a dash in a cell means.</param>
    public static FloraReading Read(
        FloraSheets sheets,
        IReadOnlyList<PhaseWindow> seasons,
        IReadOnlyList<Character>? characters = null,
        DashMeaning dash = DashMeaning.Inapplicable,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(sheets);
        var problems = new List<FloraProblem>();
        var columns = MatrixColumns.Of(sheets, characters, problems, stop);
        var taxa = TaxonSheet.Read(sheets, columns.Facts, problems);
        var descriptions = Cells(sheets.Matrix, columns.Characters, taxa, sheets.Taxa is null, dash, problems, stop);
        var described = descriptions.Select(d => d.Taxon).ToHashSet(StringComparer.Ordinal);
        if (taxa.Count > 0 && described.Count == 0)
            problems.Add(new(ProblemSeverity.Error, "matrix.empty", sheets.Matrix.Name, 0, "", "No cell of the matrix says anything."));
        return new FloraReading(taxa, new CharacterTable([.. columns.All], descriptions, seasons), Listed(problems));
    }

    private static List<FloraProblem> Listed(List<FloraProblem> problems)
    {
        var ordered = problems.OrderByDescending(p => p.Severity).ToList();
        if (ordered.Count <= MostProblems)
            return ordered;
        var more = ordered.Skip(MostProblems - 1).ToList();
        return
        [
            .. ordered.Take(MostProblems - 1),
            new(
                more[0].Severity,
                "problems.more",
                more[0].Sheet,
                more[0].Row,
                "",
                $"There are {more.Count} more problems; mend these first."
            ),
        ];
    }

    private static List<TaxonDescription> Cells(
        Sheet matrix,
        IReadOnlyList<(int Column, Character Character)> columns,
        IReadOnlyList<Taxon> taxa,
        bool isOneTable,
        DashMeaning dash,
        List<FloraProblem> problems,
        CancellationToken stop
    )
    {
        var (dashes, firstDash) = (0, (Row: 0, Column: ""));
        var ids = taxa.GroupBy(t => t.Name, StringComparer.OrdinalIgnoreCase)
            .ToDictionary(g => g.Key, g => g.First().Id, StringComparer.OrdinalIgnoreCase);
        var known = new Dictionary<(int, string), (CharacterDescription? Cell, string? Problem)>();
        var found = new List<TaxonDescription>();
        var silent = new List<(string Taxon, SheetRow Row)>();
        var met = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        foreach (var row in matrix.Rows)
        {
            stop.ThrowIfCancellationRequested();
            var name = row.Cell(0);
            if (name.Length == 0)
            {
                problems.Add(
                    new(
                        ProblemSeverity.Error,
                        "taxon.missing",
                        matrix.Name,
                        row.Number,
                        matrix.Header[0],
                        "This row has no taxon in its first column."
                    )
                );
                continue;
            }
            if (!met.TryAdd(name, row.Number))
            {
                problems.Add(
                    new(
                        ProblemSeverity.Error,
                        "taxon.twice",
                        matrix.Name,
                        row.Number,
                        matrix.Header[0],
                        $"{name} stands in row {met[name]} already. One row per taxon: put what varies into ranges or shares."
                    )
                );
                continue;
            }
            if (!ids.TryGetValue(name, out var id))
            {
                problems.Add(
                    new(
                        ProblemSeverity.Error,
                        "taxon.unknown",
                        matrix.Name,
                        row.Number,
                        matrix.Header[0],
                        $"{name} isn't among the taxa of the table of taxa."
                    )
                );
                continue;
            }
            var own = new List<CharacterDescription>();
            foreach (var (column, character) in columns)
            {
                var text = row.Cell(column);
                if (text.Length == 0)
                    continue;
                if (DescriptionCell.IsDash(text))
                {
                    if (dashes++ == 0)
                        firstDash = (row.Number, matrix.Header[column]);
                    if (Dash(dash, character) is { } none)
                        own.Add(none);
                    continue;
                }
                // Most cells of a column say the same few things.
                if (!known.TryGetValue((column, text), out var read))
                {
                    var cell = NumberCell.Read(text, character, out var wrong);
                    known[(column, text)] = read = (cell, wrong);
                }
                if (read.Problem is { } problem)
                    problems.Add(
                        new(
                            ProblemSeverity.Warning,
                            "cell.unreadable",
                            matrix.Name,
                            row.Number,
                            matrix.Header[column],
                            $"{name}: {problem} The cell counts as unknown."
                        )
                    );
                if (read.Cell is { } sound)
                    own.Add(sound);
            }
            if (row.Cells.Count > matrix.Header.Count && row.Cells.Skip(matrix.Header.Count).Any(c => c.Length > 0))
                problems.Add(
                    new(
                        ProblemSeverity.Warning,
                        "row.too-long",
                        matrix.Name,
                        row.Number,
                        "",
                        $"This row has more cells than the header. Is a comma inside {name}'s cells not in quotes?"
                    )
                );
            if (own.Count > 0)
                found.Add(new TaxonDescription(id, own));
            else
                silent.Add((id, row));
        }
        if (dashes > 0 && dash == DashMeaning.Unsaid)
        {
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "cell.dash",
                    matrix.Name,
                    firstDash.Row,
                    firstDash.Column,
                    $"A dash stands in {dashes} {(dashes == 1 ? "cell" : "cells")}, first here. Say once what it means in this table: the part is absent, the character can't be asked, or it wasn't recorded. Until then these cells count as unknown."
                )
            );
        }
        SayUnusable(matrix, columns, taxa, found, silent, isOneTable, problems);
        return found;
    }

    private static CharacterDescription? Dash(DashMeaning dash, Character character) =>
        dash switch
        {
            DashMeaning.Inapplicable => new CharacterDescription(character.Id, [], Applies: false),
            DashMeaning.Absent when character.Kind == CharacterKind.Count => new CharacterDescription(
                character.Id,
                [],
                new QuantityRange(QuantityKind.Count, RangeForm.Exactly, 0, 0, Text: "0")
            ),
            DashMeaning.Absent when EvidenceItem.AbsentState(character) is >= 0 and var absent => new CharacterDescription(
                character.Id,
                [new StateShare(character.States[absent].Id, 1)]
            ),
            DashMeaning.Absent => new CharacterDescription(character.Id, [], Applies: false),
            _ => null,
        };

    // A row that brings no plant to name is said to: nothing in it, or nothing but what those below it have.
    private static void SayUnusable(
        Sheet matrix,
        IReadOnlyList<(int Column, Character Character)> columns,
        IReadOnlyList<Taxon> taxa,
        List<TaxonDescription> found,
        List<(string Taxon, SheetRow Row)> silent,
        bool isOneTable,
        List<FloraProblem> problems
    )
    {
        if (columns.Count == 0 || found.Count == 0)
            return;
        var listed = CharacterTable.Complete(found, taxa).Select(d => d.Taxon).ToHashSet(StringComparer.Ordinal);
        var parents = taxa.Select(t => t.Parent).Concat(taxa.SelectMany(t => t.Facts?.Members ?? [])).ToHashSet(StringComparer.Ordinal);
        foreach (var (taxon, row) in silent)
        {
            if (listed.Contains(taxon) || parents.Contains(taxon))
                continue;
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "row.empty",
                    matrix.Name,
                    row.Number,
                    matrix.Header[0],
                    $"No cell of this row says anything of {row.Cell(0)}: it can't be found by sifting until it is described."
                )
            );
        }
        var byName = matrix
            .Rows.GroupBy(r => r.Cell(0), StringComparer.OrdinalIgnoreCase)
            .ToDictionary(g => g.Key, g => g.First(), StringComparer.OrdinalIgnoreCase);
        var names = taxa.ToDictionary(t => t.Id, StringComparer.Ordinal);
        // Of a mixed list it may not be known that a genus in it is but the head of its species; where the tree is given, it is.
        foreach (var description in isOneTable ? found.Where(d => !listed.Contains(d.Taxon)) : [])
        {
            var taxon = names[description.Taxon];
            var below = taxa.First(t => listed.Contains(t.Id) && IsBelow(t, taxon, names));
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "row.above",
                    matrix.Name,
                    byName.GetValueOrDefault(taxon.Name)?.Number ?? 0,
                    matrix.Header[0],
                    $"{taxon.Name} stands above {below.Name}: what its row says counts for all below it, and it isn't a name of its own when sifting."
                )
            );
        }
    }

    private static bool IsBelow(Taxon taxon, Taxon group, Dictionary<string, Taxon> byId)
    {
        if (group.Facts?.Members.Contains(taxon.Id) == true)
            return true;
        var steps = 0;
        for (var at = taxon; at is not null && steps++ < byId.Count; at = byId.GetValueOrDefault(at.Parent))
        {
            if (at.Parent == group.Id)
                return true;
        }
        return false;
    }

    /// <summary>Reads the words of a phenophase; null where there is none of this name.</summary>
    internal static Phenophase? Phase(string word) =>
        Enum.TryParse<Phenophase>(Sheet.Plain(word), ignoreCase: true, out var phase) && Enum.IsDefined(phase) && !char.IsDigit(word[0])
            ? phase
            : null;

    internal static string[] List(string cell) => cell.Split('|', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    /// <summary>A name as an identity: small letters with hyphens.</summary>
    internal static string IdOf(string name)
    {
        var plain = name.Trim()
            .Replace("×", "x", StringComparison.Ordinal)
            .ToLowerInvariant()
            .Select(c => char.IsLetterOrDigit(c) ? c : '-');
        return string.Join('-', string.Concat(plain).Split('-', StringSplitOptions.RemoveEmptyEntries));
    }

    internal static bool TryNumber(string text, out double value) =>
        double.TryParse(text.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out value) && double.IsFinite(value);
}
