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
    /// <param name="stop">Ends the reading.</param>
    public static FloraReading Read(IReadOnlyDictionary<string, (string Name, byte[] Content)> files, IReadOnlyList<PhaseWindow> seasons, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(files);
        FloraReading Refused(IReadOnlyList<FloraProblem> problems) => new([], CharacterTable.Empty, [.. problems.OrderByDescending(p => p.Severity)]);
        if (files.TryGetValue("sdd", out var sdd))
        {
            if (files.ContainsKey(Matrix)) return Refused([new(ProblemSeverity.Error, "file.both", sdd.Name, 0, "", "Send tables or an SDD document, not both at once.")]);
            return SddReader.Read(sdd.Name, sdd.Content, seasons, stop);
        }
        if (!files.ContainsKey(Matrix)) return Refused([new(ProblemSeverity.Error, "file.missing", Matrix, 0, "", "The matrix is missing: a table whose first column is the taxon, with a column for each character.")]);
        var problems = new List<FloraProblem>();
        var sheets = new Dictionary<string, Sheet>(StringComparer.Ordinal);
        foreach (var (field, file) in files)
        {
            var reading = SheetReader.Read(file.Name, file.Content, stop);
            problems.AddRange(reading.Problems);
            if (reading.Sheet is { } sheet) sheets[field] = sheet;
        }
        if (problems.Exists(p => p.Severity == ProblemSeverity.Error)) return Refused(problems);
        var flora = FloraTables.Read(new FloraSheets(sheets[Matrix], sheets.GetValueOrDefault("characters"), sheets.GetValueOrDefault("taxa"), sheets.GetValueOrDefault("states")), seasons, null, stop);
        return flora with { Problems = [.. flora.Problems.Concat(problems).OrderByDescending(p => p.Severity)] };
    }
}
