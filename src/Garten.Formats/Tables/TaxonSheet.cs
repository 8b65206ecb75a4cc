using System.Globalization;
using Garten.Core.Floras;

namespace Garten.Formats.Tables;

/// <summary>Reads the table of taxa, or takes the taxa from the names of the matrix.</summary>
internal static class TaxonSheet
{
    private static readonly string[] Months =
    [
        "january",
        "february",
        "march",
        "april",
        "may",
        "june",
        "july",
        "august",
        "september",
        "october",
        "november",
        "december",
    ];
    private const int ShortestMonth = 3;

    // What the table names, whatever its rank may be.
    private const string UnknownRank = "taxon";

    public static IReadOnlyList<Taxon> Read(FloraSheets sheets, IReadOnlyDictionary<string, int> ofMatrix, List<FloraProblem> problems)
    {
        var (sheet, first) = sheets.Taxa is { } own ? (own, -1) : (sheets.Matrix, 0);
        var name = first == 0 ? 0 : sheet.Column("name", "scientific_name", "taxon", "species", "taxon_name");
        if (name < 0)
        {
            problems.Add(
                new(
                    ProblemSeverity.Error,
                    "column.missing",
                    sheet.Name,
                    1,
                    "name",
                    $"The table of taxa has no column “name”; it has: {string.Join(", ", sheet.Header)}."
                )
            );
            return [];
        }
        var rows = new Dictionary<string, SheetRow>(StringComparer.OrdinalIgnoreCase);
        foreach (var row in sheet.Rows)
        {
            if (row.Cell(name).Length == 0)
            {
                if (first < 0)
                    problems.Add(
                        new(ProblemSeverity.Error, "taxon.missing", sheet.Name, row.Number, sheet.Header[name], "This row has no name.")
                    );
            }
            else if (!rows.TryAdd(row.Cell(name), row) && first < 0)
            {
                problems.Add(
                    new(
                        ProblemSeverity.Error,
                        "taxon.twice",
                        sheet.Name,
                        row.Number,
                        sheet.Header[name],
                        $"{row.Cell(name)} stands in row {rows[row.Cell(name)].Number} already."
                    )
                );
            }
        }
        var ids = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        var taken = new OwnIds();
        foreach (var taxon in rows.Keys)
            ids[taxon] = taken.Take(FloraTables.IdOf(taxon) is { Length: > 0 } plain ? plain : "taxon");
        // Whatever some binomial of the table begins with is a genus.
        var genera = rows
            .Keys.Select(n => n.Split(' '))
            .Where(w => w.Length > 1 && char.IsLower(w[1].FirstOrDefault()))
            .Select(w => w[0])
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var taxa = rows.Select(r => One(sheet, r.Value, r.Key, ids, genera, first == 0 ? ofMatrix : null, problems)).ToList();
        Circles(sheet, taxa, rows, problems);
        return [.. taxa.OrderBy(t => t.Name, StringComparer.Ordinal)];
    }

    private static Taxon One(
        Sheet sheet,
        SheetRow row,
        string name,
        Dictionary<string, string> ids,
        HashSet<string> genera,
        IReadOnlyDictionary<string, int>? ofMatrix,
        List<FloraProblem> problems
    )
    {
        // Of a matrix only the columns that no character claims say something of the taxon.
        int At(params ReadOnlySpan<string> names)
        {
            if (ofMatrix is null)
                return sheet.Column(names);
            foreach (var it in names)
            {
                if (ofMatrix.TryGetValue(Sheet.Plain(it), out var column))
                    return column;
            }
            return -1;
        }
        void Wrong(ProblemSeverity severity, string code, int column, string message) =>
            problems.Add(new(severity, code, sheet.Name, row.Number, column >= 0 ? sheet.Header[column] : "", message));
        string[] Ids(string what, params ReadOnlySpan<string> names)
        {
            var column = At(names);
            var found = new List<string>();
            foreach (var other in FloraTables.List(row.Cell(column)))
            {
                if (ids.TryGetValue(other, out var id))
                    found.Add(id);
                else
                    Wrong(ProblemSeverity.Error, "taxon.unknown", column, $"{name} names {other} as {what}, and it isn't among the taxa.");
            }
            return [.. found];
        }
        var parentAt = At("parent");
        var parent = row.Cell(parentAt);
        if (parent.Length > 0 && !ids.ContainsKey(parent))
            Wrong(ProblemSeverity.Error, "taxon.parent", parentAt, $"The parent {parent} of {name} isn't among the taxa.");
        // Without a parent given, a species belongs to its genus where that is there.
        if (parent.Length == 0 && name.Split(' ') is [var genus, _, ..] && ids.ContainsKey(genus))
            parent = genus;
        var cautions = new List<Caution>();
        foreach (var word in FloraTables.List(row.Cell(At("cautions", "caution"))))
        {
            if (Enum.TryParse<Caution>(word, ignoreCase: true, out var caution) && Enum.IsDefined(caution) && !char.IsDigit(word[0]))
                cautions.Add(caution);
            else
                Wrong(
                    ProblemSeverity.Warning,
                    "word.unknown",
                    At("cautions", "caution"),
                    $"“{word}” is no caution: {string.Join(", ", Enum.GetNames<Caution>().Select(n => n.ToLowerInvariant()))}."
                );
        }
        var common = FloraTables.List(row.Cell(At("common_names", "common_name", "vernacular_name")));
        var (from, to) = Elevation(row.Cell(At("elevation", "elevation_m", "altitude")), message =>
            Wrong(ProblemSeverity.Warning, "number.invalid", At("elevation", "elevation_m", "altitude"), message)
        );
        var statusAt = At("status", "origin", "native_status");
        var origin = Origin.Unsaid;
        if (
            row.Cell(statusAt) is { Length: > 0 } status
            && !(Enum.TryParse(status, ignoreCase: true, out origin) && Enum.IsDefined(origin) && !char.IsDigit(status[0]))
        )
        {
            origin = Origin.Unsaid;
            Wrong(ProblemSeverity.Warning, "word.unknown", statusAt, $"“{status}” is none of native, introduced, doubtful.");
        }
        var facts = new TaxonFacts(
            FloraTables.List(row.Cell(At("synonyms", "synonym"))),
            common,
            row.Cell(At("meaning", "etymology")),
            row.Cell(At("growth_form", "life_form", "habit")).ToLowerInvariant(),
            origin,
            row.Cell(At("establishment")),
            Sheet.Plain(row.Cell(At("sensitive"))) is "yes" or "true" or "1",
            FloraTables.List(row.Cell(At("habitats", "habitat"))),
            from,
            to,
            FloraTables.List(row.Cell(At("cells", "grid_cells"))),
            Ids("a look-alike", "look_alikes", "lookalikes"),
            Ids("a parent", "parents", "hybrid_parents"),
            Ids("a member", "members"),
            Phenology(row.Cell(At("phenology")), message => Wrong(ProblemSeverity.Warning, "phenology.invalid", At("phenology"), message)),
            FloraTables.List(row.Cell(At("key_marks")))
        )
        {
            PlantedIn = Planted(row.Cell(At("planted_in")), message =>
                Wrong(ProblemSeverity.Warning, "word.unknown", At("planted_in"), message)
            ),
            Indication = IndicationSheet.Read(
                names => (row.Cell(At(names)), At(names)),
                (column, message) => Wrong(ProblemSeverity.Warning, "number.invalid", column, message)
            ),
        };
        return new Taxon(
            ids[name],
            name,
            row.Cell(At("authorship", "author", "authority")),
            row.Cell(At("rank")) is { Length: > 0 } rank ? rank.ToLowerInvariant() : RankOf(name, genera),
            parent.Length > 0 ? ids.GetValueOrDefault(parent, "") : "",
            row.Cell(At("family")),
            common.FirstOrDefault() ?? "",
            cautions,
            row.Cell(At("caution_note")),
            facts
        );
    }

    // A name of one word is a genus where it looks like one; a code or a common name ("QURO", "sycamore") says nothing of its rank.
    private static string RankOf(string name, HashSet<string> genera)
    {
        var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        if (words.Length == 1)
            return name.EndsWith("aceae", StringComparison.Ordinal) ? "family"
                : genera.Contains(name) || TaxonName.LooksLikeGenus(name) ? "genus"
                : UnknownRank;
        return TaxonName.RankBelowGenus(name);
    }

    private static void Circles(Sheet sheet, List<Taxon> taxa, Dictionary<string, SheetRow> rows, List<FloraProblem> problems)
    {
        var byId = taxa.ToDictionary(t => t.Id, StringComparer.Ordinal);
        var sound = new HashSet<string>(StringComparer.Ordinal);
        foreach (var taxon in taxa)
        {
            var line = new List<string>();
            for (var at = taxon; at is not null && !sound.Contains(at.Id); at = byId.GetValueOrDefault(at.Parent))
            {
                if (line.Contains(at.Id))
                {
                    problems.Add(
                        new(
                            ProblemSeverity.Error,
                            "taxon.circle",
                            sheet.Name,
                            rows[taxon.Name].Number,
                            "parent",
                            $"The parents of {taxon.Name} go round in a circle: {string.Join(" → ", line.SkipWhile(l => l != at.Id).Append(at.Id).Select(l => byId[l].Name))}."
                        )
                    );
                    break;
                }
                line.Add(at.Id);
            }
            sound.UnionWith(line);
        }
    }

    private static (int? From, int? To) Elevation(string text, Action<string> wrong)
    {
        if (text.Length == 0)
            return (null, null);
        var parts = text.TrimEnd('m', ' ').Split(['–', '-', '−'], StringSplitOptions.TrimEntries);
        int? Metre(string part) => int.TryParse(part, NumberStyles.Integer, CultureInfo.InvariantCulture, out var metre) ? metre : null;
        if (parts is [var single] && Metre(single) is { } one)
            return (one, one);
        if (parts is [var low, var high] && Metre(low) is { } from && Metre(high) is { } to && from <= to)
            return (from, to);
        wrong($"“{text}” is no range of elevation, such as 0–300.");
        return (null, null);
    }

    // "flower apr2–jun | ripe-fruit sep–nov1": 1 and 2 are the halves of a month; a month alone is both.
    private static List<PhaseSpan> Phenology(string text, Action<string> wrong)
    {
        var spans = new List<PhaseSpan>();
        foreach (var part in FloraTables.List(text))
        {
            var space = part.LastIndexOf(' ');
            var ends = space < 0 ? [] : part[(space + 1)..].Split(['–', '-'], StringSplitOptions.TrimEntries);
            if (
                space > 0
                && FloraTables.Phase(part[..space]) is { } phase
                && ends.Length is 1 or 2
                && Half(ends[0], true) is { } from
                && Half(ends[^1], false) is { } to
            )
                spans.Add(new PhaseSpan(phase, from, to));
            else
                wrong($"“{part}” isn't a phenophase with its months, such as “flower apr–jun”.");
        }
        return spans;
    }

    private static int? Half(string text, bool isFirst)
    {
        var half = text is [.., '1' or '2'] ? text[^1] - '0' : 0;
        var word = (half > 0 ? text[..^1] : text).Trim().ToLowerInvariant();
        var month = word.Length < ShortestMonth ? -1 : Array.FindIndex(Months, m => m.StartsWith(word, StringComparison.Ordinal));
        return month < 0
            ? null
            : month * 2
                + (
                    half > 0 ? half
                    : isFirst ? 1
                    : 2
                );
    }

    private static List<string> Planted(string text, Action<string> wrong)
    {
        var kinds = new List<string>();
        foreach (var word in FloraTables.List(text).Select(w => w.ToLowerInvariant()))
        {
            if (PlaceKinds.All.Contains(word, StringComparer.Ordinal))
                kinds.Add(word);
            else
                wrong($"“{word}” is none of {string.Join(", ", PlaceKinds.All)}; it is left out.");
        }
        return kinds;
    }
}
