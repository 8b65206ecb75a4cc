using System.Globalization;
using System.Text.Json;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Formats.Tables;

namespace Garten.Formats;

/// <summary>The glossary that ships with the program: characters, their states with the words that keys use for them, and the seasons of a
/// cool-temperate place.</summary>
public static class ShippedGlossary
{
    /// <summary>The characters.</summary>
    public static IReadOnlyList<Character> Characters { get; } = ReadCharacters();

    /// <summary>The character that a heading of a table names by its id or its name; null where it names none.</summary>
    public static Character? Named(string heading) => Headings.Value.GetValueOrDefault(Sheet.Plain(heading));

    private static readonly Lazy<Dictionary<string, Character>> Headings = new(() =>
        Characters
            .SelectMany(c => new[] { (Heading: Sheet.Plain(c.Id), Character: c), (Heading: Sheet.Plain(c.Name), Character: c) })
            .DistinctBy(h => h.Heading)
            .ToDictionary(h => h.Heading, h => h.Character, StringComparer.Ordinal)
    );

    /// <summary>When the phenophases last.</summary>
    public static IReadOnlyList<PhaseWindow> Seasons { get; } = ReadSeasons();

    private static List<Character> ReadCharacters()
    {
        var problems = new List<FloraProblem>();
        var characters = CharacterSheet.Read(Shipped("characters.csv"), Shipped("states.csv"), problems).ToList();
        return problems.Count == 0
            ? characters
            : throw new InvalidOperationException(
                $"The glossary: {problems[0].Sheet}, row {problems[0].Row}, {problems[0].Column}: {problems[0].Message}"
            );
    }

    private static List<PhaseWindow> ReadSeasons()
    {
        var sheet = Shipped("seasons.csv");
        int Part(string day, int i) => int.Parse(day.Split('-')[i], CultureInfo.InvariantCulture);
        return
        [
            .. sheet.Rows.Select(row => new PhaseWindow(
                FloraTables.Phase(row.Cell(0)) ?? throw new InvalidOperationException($"“{row.Cell(0)}” is no phenophase."),
                Part(row.Cell(1), 0),
                Part(row.Cell(1), 1),
                Part(row.Cell(2), 0),
                Part(row.Cell(2), 1)
            )),
        ];
    }

    private static Sheet Shipped(string name)
    {
        using var stream = typeof(ShippedGlossary).Assembly.GetManifestResourceStream($"Garten.Formats.Glossary.{name}")
            ?? throw new InvalidOperationException($"The glossary {name} is missing in the program.");
        using var copy = new MemoryStream();
        stream.CopyTo(copy);
        return SheetReader.Read(name, copy.ToArray()).Sheet!;
    }
}

/// <summary>Reads a flora out of a folder: <c>taxa.csv</c>, one or more <c>matrix*.csv</c>, and <c>characters.csv</c> with
/// <c>states.csv</c> where it has its own.</summary>
public static class FloraFolder
{
    /// <summary>The grid that the folder declares in <c>grid.json</c>; null where it declares none.</summary>
    /// <exception cref="FormatException">It is no grid.</exception>
    public static FloraGrid? Grid(string folder)
    {
        var file = Path.Combine(folder, "grid.json");
        if (!File.Exists(file))
            return null;
        var grid = JsonSerializer.Deserialize(File.ReadAllText(file), CoreJson.Default.FloraGrid)!;
        return grid.Problem() is { } wrong ? throw new FormatException($"{file}: {wrong}") : grid;
    }

    /// <summary>Reads it; the characters are those of the shipped glossary where the folder has none.</summary>
    public static FloraReading Read(string folder)
    {
        Sheet? Table(string name) =>
            Path.Combine(folder, name) is var file && File.Exists(file) ? SheetReader.Read(name, File.ReadAllBytes(file)).Sheet : null;
        var (taxa, characters, states) = (Table("taxa.csv"), Table("characters.csv"), Table("states.csv"));
        var readings = Directory
            .EnumerateFiles(folder, "matrix*.csv")
            .Order(StringComparer.Ordinal)
            .Select(f => Table(Path.GetFileName(f))!)
            .Select(m =>
                FloraTables.Read(
                    new FloraSheets(m, characters, taxa, states),
                    ShippedGlossary.Seasons,
                    characters is null ? ShippedGlossary.Characters : null
                )
            )
            .ToList();
        var descriptions = readings
            .SelectMany(r => r.Table.Descriptions)
            .GroupBy(d => d.Taxon, StringComparer.Ordinal)
            .Select(g => g.Count() == 1 ? g.First() : g.First() with { Characters = [.. g.SelectMany(d => d.Characters)] });
        return new FloraReading(
            readings[0].Taxa,
            // Tables may speak of parts and qualities that others don't.
            new CharacterTable(
                [.. readings.SelectMany(r => r.Table.Characters).DistinctBy(c => c.Id)],
                [.. descriptions],
                readings[0].Table.Seasons
            )
            {
                Botany = ShippedVocabulary.Botany,
            },
            [.. readings.SelectMany(r => r.Problems).Distinct()]
        );
    }
}
