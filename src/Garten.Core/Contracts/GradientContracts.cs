using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Surveys.Figures;

namespace Garten.Core.Contracts;

/// <summary>
/// Plants of a stand and of its parents as a pasted table: a plant a row; its name, which plants it stands for (first, second or stand) and
/// a column for each measure.
/// </summary>
/// <param name="Text">The table, with a first line of names.</param>
public sealed record GradientRequest(string Text)
{
    private const int MostPlants = 2000;
    private const int MostCharacters = 40;

    private static readonly Dictionary<string, GradientGroup> Groups = new(StringComparer.OrdinalIgnoreCase)
    {
        ["first"] = GradientGroup.First,
        ["1"] = GradientGroup.First,
        ["a"] = GradientGroup.First,
        ["second"] = GradientGroup.Second,
        ["2"] = GradientGroup.Second,
        ["b"] = GradientGroup.Second,
        ["stand"] = GradientGroup.Stand,
        ["?"] = GradientGroup.Stand,
        [""] = GradientGroup.Stand,
    };

    /// <summary>Reads it and works it out.</summary>
    public GradientAnswer WorkOut()
    {
        var problems = new List<TableProblem>();
        var rows = CommunityTable.Rows(Text ?? "");
        if (rows.Count == 0 || rows[0].Cells.Count < 3)
            return new(
                null,
                [new TableProblem(1, 1, "The first line names the columns: plant, group (first, second or stand), then the measures.")]
            );
        var heads = rows[0].Cells;
        if (rows.Count - 1 > MostPlants || heads.Count - 2 > MostCharacters)
            return new(null, [new TableProblem(1, 1, $"Up to {MostPlants} plants and {MostCharacters} measures are compared.")]);
        if (heads.Skip(2).GroupBy(h => h, StringComparer.OrdinalIgnoreCase).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return new(null, [new TableProblem(1, 1, $"“{twice.Key}” stands twice in the first line.")]);
        var plants = new List<GradientPlant>();
        foreach (var (line, cells) in rows.Skip(1))
        {
            if (cells.TrueForAll(c => c.Length == 0))
                continue;
            if (!Groups.TryGetValue(cells.Count > 1 ? cells[1] : "", out var group))
            {
                problems.Add(new TableProblem(line, 2, $"“{cells[1]}” is none of first, second and stand."));
                continue;
            }
            var values = new Dictionary<string, double>(StringComparer.Ordinal);
            for (var c = 2; c < cells.Count; c++)
            {
                if (cells[c].Length == 0 || cells[c] is "-" or "–" or "?")
                    continue;
                if (c >= heads.Count)
                    problems.Add(new TableProblem(line, c + 1, "This cell has no name in the first line."));
                else if (
                    double.TryParse(cells[c].Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out var value)
                    && double.IsFinite(value)
                    && Math.Abs(value) < 1e9
                )
                    values[heads[c]] = value;
                else
                    problems.Add(new TableProblem(line, c + 1, $"“{cells[c]}” is no number."));
            }
            plants.Add(new GradientPlant(cells[0].Length > 0 ? cells[0] : $"line {line}", group, values));
        }
        return problems.Count > 0 ? new GradientAnswer(null, problems) : new GradientAnswer(HybridGradient.Of(plants), []);
    }
}

/// <summary>What a table of plants between two parents comes to.</summary>
/// <param name="Gradient">The plants on their line; null where something in the table can't be used.</param>
/// <param name="Problems">What can't.</param>
public sealed record GradientAnswer(HybridGradient? Gradient, IReadOnlyList<TableProblem> Problems);
