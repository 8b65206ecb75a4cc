using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Formats.Tables;

/// <summary>Reads the table of characters. All but id, name and kind have defaults.</summary>
internal static class CharacterSheet
{
    // A careful observer's chance where the table doesn't say; a minute's look is the exception.
    private const double UsualReliability = 0.9;
    private const int UsualEffort = 30;

    private static readonly Dictionary<string, CharacterKind> Kinds = new(StringComparer.Ordinal)
    {
        ["categorical"] = CharacterKind.Categorical,
        ["nominal"] = CharacterKind.Categorical,
        ["text"] = CharacterKind.Categorical,
        ["factor"] = CharacterKind.Categorical,
        ["states"] = CharacterKind.Categorical,
        ["unordered"] = CharacterKind.Categorical,
        ["binary"] = CharacterKind.Categorical,
        ["boolean"] = CharacterKind.Categorical,
        ["logical"] = CharacterKind.Categorical,
        ["presence"] = CharacterKind.Categorical,
        ["ordered"] = CharacterKind.Ordered,
        ["ordinal"] = CharacterKind.Ordered,
        ["count"] = CharacterKind.Count,
        ["integer"] = CharacterKind.Count,
        ["meristic"] = CharacterKind.Count,
        ["length"] = CharacterKind.Length,
        ["size"] = CharacterKind.Length,
        ["width"] = CharacterKind.Length,
        ["height"] = CharacterKind.Length,
        ["ratio"] = CharacterKind.Ratio,
        ["number"] = CharacterKind.Ratio,
        ["numeric"] = CharacterKind.Ratio,
        ["numerical"] = CharacterKind.Ratio,
        ["continuous"] = CharacterKind.Ratio,
        ["quantitative"] = CharacterKind.Ratio,
        ["decimal"] = CharacterKind.Ratio,
        ["float"] = CharacterKind.Ratio,
        ["angle"] = CharacterKind.Angle,
    };

    // Words of names that tell the organ.
    private static readonly (string Word, Organ Organ)[] Organs =
    [
        ("inflorescence", Organ.Inflorescence),
        ("spike", Organ.Inflorescence),
        ("raceme", Organ.Inflorescence),
        ("catkin", Organ.Inflorescence),
        ("petal", Organ.Flower),
        ("sepal", Organ.Flower),
        ("corolla", Organ.Flower),
        ("calyx", Organ.Flower),
        ("stamen", Organ.Flower),
        ("style", Organ.Flower),
        ("stigma", Organ.Flower),
        ("flower", Organ.Flower),
        ("pollen", Organ.Flower),
        ("seed", Organ.Fruit),
        ("fruit", Organ.Fruit),
        ("capsule", Organ.Fruit),
        ("berry", Organ.Fruit),
        ("sorus", Organ.Leaf),
        ("sori", Organ.Leaf),
        ("leaf", Organ.Leaf),
        ("leaves", Organ.Leaf),
        ("petiole", Organ.Leaf),
        ("frond", Organ.Leaf),
        ("stipule", Organ.Leaf),
        ("blade", Organ.Leaf),
        ("bark", Organ.Bark),
        ("twig", Organ.Twig),
        ("thorn", Organ.Twig),
        ("bud", Organ.Bud),
        ("stem", Organ.Stem),
        ("culm", Organ.Stem),
        ("root", Organ.Underground),
        ("rhizome", Organ.Underground),
        ("bulb", Organ.Underground),
        ("tuber", Organ.Underground),
        ("habitat", Organ.Site),
        ("soil", Organ.Site),
        ("moisture", Organ.Site),
        ("elevation", Organ.Site),
        ("altitude", Organ.Site),
    ];

    /// <summary>A character with nothing but defaults.</summary>
    public static Character Plain(string id, string name, CharacterKind kind, IReadOnlyList<CharacterState> states, string unit) =>
        new(
            id,
            name,
            OrganOf(name),
            kind,
            states,
            [],
            [],
            UsualReliability,
            UsualReliability,
            UsualEffort,
            kind is CharacterKind.Length or CharacterKind.Ratio ? Tool.Ruler : Tool.Eye,
            Handling.Look,
            [],
            Unit: unit
        );

    private static Organ OrganOf(string name)
    {
        var plain = name.ToLowerInvariant();
        foreach (var (word, organ) in Organs)
        {
            if (plain.Contains(word, StringComparison.Ordinal))
                return organ;
        }
        return Organ.Habit;
    }

    public static IReadOnlyList<Character> Read(Sheet sheet, Sheet? states, List<FloraProblem> problems, BotanyIndex? botany = null)
    {
        var definitions = Definitions(states, problems);
        var found = new List<Character>();
        var rows = new Dictionary<string, int>(StringComparer.Ordinal);
        int Column(params ReadOnlySpan<string> names) => sheet.Column(names);
        var (idAt, nameAt, kindAt) = (
            Column("id", "character_id", "key", "code"),
            Column("name", "label", "character", "trait"),
            Column("kind", "type")
        );
        if (idAt < 0 && nameAt < 0)
            problems.Add(
                new(
                    ProblemSeverity.Error,
                    "column.missing",
                    sheet.Name,
                    1,
                    "id",
                    $"The table of characters has no column “id” and no column “name”; it has: {string.Join(", ", sheet.Header)}."
                )
            );
        if (kindAt < 0)
            problems.Add(
                new(
                    ProblemSeverity.Error,
                    "column.missing",
                    sheet.Name,
                    1,
                    "kind",
                    "The table of characters has no column “kind” (categorical, ordered, count, length, ratio, angle)."
                )
            );
        if (idAt < 0 && nameAt < 0 || kindAt < 0)
            return [];
        foreach (var row in sheet.Rows)
        {
            void Wrong(ProblemSeverity severity, string code, int column, string message) =>
                problems.Add(
                    new(
                        severity,
                        code,
                        sheet.Name,
                        row.Number,
                        column >= 0 && column < sheet.Header.Count ? sheet.Header[column] : "",
                        message
                    )
                );
            var name = row.Cell(nameAt) is { Length: > 0 } named ? named : row.Cell(idAt).Replace('_', ' ').Replace('-', ' ');
            var id = row.Cell(idAt) is { Length: > 0 } given ? given : FloraTables.IdOf(name);
            if (id.Length == 0)
            {
                Wrong(ProblemSeverity.Error, "character.no-id", Math.Max(idAt, 0), "This character has no id.");
                continue;
            }
            if (!rows.TryAdd(id, row.Number))
            {
                Wrong(ProblemSeverity.Error, "character.twice", idAt, $"The character “{id}” stands in row {rows[id]} already.");
                continue;
            }
            if (botany?.Compose(id) is { } composed)
            {
                found.Add(Own(composed, sheet, row, Wrong));
                continue;
            }
            if (!Kinds.TryGetValue(Sheet.Plain(row.Cell(kindAt)), out var kind))
            {
                Wrong(
                    ProblemSeverity.Error,
                    "character.kind",
                    kindAt,
                    $"“{row.Cell(kindAt)}” is no kind of character: categorical, ordered, count, length, ratio or angle."
                );
                continue;
            }
            found.Add(One(sheet, row, id, name, kind, definitions, Wrong));
        }
        foreach (var character in found)
        {
            foreach (
                var other in (character.RatioOf ?? [])
                    .Concat(character.TrendOf.Length > 0 ? [character.TrendOf] : [])
                    .Concat(character.Needs is { } needs ? [needs.Character] : [])
                    .Where(o => !rows.ContainsKey(o))
            )
            {
                problems.Add(
                    new(
                        ProblemSeverity.Error,
                        "character.unknown",
                        sheet.Name,
                        rows[character.Id],
                        "",
                        $"{character.Name} speaks of a character “{other}” that isn't in the table."
                    )
                );
            }
        }
        return found;
    }

    // A part with a quality is what it is; a flora may know better how surely and how quickly it is seen.
    private static Character Own(Character composed, Sheet sheet, SheetRow row, Action<ProblemSeverity, string, int, string> wrong)
    {
        double Share(string column, double otherwise)
        {
            var at = sheet.Column(column);
            var text = row.Cell(at);
            if (text.Length == 0)
                return otherwise;
            if (FloraTables.TryNumber(text, out var value) && value is > 0 and <= 1)
                return Math.Min(value, 0.999);
            wrong(ProblemSeverity.Warning, "number.invalid", at, $"“{text}” isn't a share above 0 and up to 1; {otherwise} is taken.");
            return otherwise;
        }
        return composed with
        {
            Reliability = Share("reliability", composed.Reliability),
            Detection = Share("detection", composed.Detection),
            Trap = row.Cell(sheet.Column("trap")) is { Length: > 0 } trap ? trap : composed.Trap,
        };
    }

    private static Character One(
        Sheet sheet,
        SheetRow row,
        string id,
        string name,
        CharacterKind kind,
        ILookup<(string, string), CharacterState> definitions,
        Action<ProblemSeverity, string, int, string> wrong
    )
    {
        var at = new Dictionary<string, int>(StringComparer.Ordinal);
        string Cell(params ReadOnlySpan<string> names)
        {
            at[names[0]] = sheet.Column(names);
            return row.Cell(at[names[0]]);
        }
        double Share(string column, double otherwise)
        {
            var text = Cell(column);
            if (text.Length == 0)
                return otherwise;
            if (
                FloraTables.TryNumber(text.TrimEnd('%'), out var value)
                && (text.Contains('%', StringComparison.Ordinal) ? value / 100 : value) is > 0 and <= 1 and var share
            )
                return Math.Min(share, 0.999);
            wrong(
                ProblemSeverity.Warning,
                "number.invalid",
                at[column],
                $"“{text}” isn't a share above 0 and up to 1; {otherwise} is taken."
            );
            return otherwise;
        }
        T Word<T>(T otherwise, params ReadOnlySpan<string> names)
            where T : struct, Enum
        {
            var text = Cell(names);
            if (text.Length == 0)
                return otherwise;
            if (Enum.TryParse<T>(Sheet.Plain(text), ignoreCase: true, out var value) && Enum.IsDefined(value) && !char.IsDigit(text[0]))
                return value;
            wrong(
                ProblemSeverity.Warning,
                "word.unknown",
                at[names[0]],
                $"“{text}” is none of {string.Join(", ", Enum.GetNames<T>().Select(n => n.ToLowerInvariant()))}; {otherwise.ToString().ToLowerInvariant()} is taken."
            );
            return otherwise;
        }
        var unit = Cell("unit", "units");
        if (kind == CharacterKind.Length && unit.Length > 0 && MeasureUnit.Named(unit)?.Kind != QuantityKind.Length)
        {
            wrong(
                ProblemSeverity.Warning,
                "character.unit",
                at["unit"],
                $"“{unit}” is no unit of length; {name} is kept as a plain number."
            );
            kind = CharacterKind.Ratio;
        }
        var states = States(id, kind, Cell("states", "values", "levels"), definitions, message =>
            wrong(ProblemSeverity.Error, "state.twice", at["states"], message)
        );
        if (states.Count == 0 && Sheet.Plain(row.Cell(sheet.Column("kind", "type"))) is "binary" or "boolean" or "logical" or "presence")
            states =
            [
                new("yes", "yes", "", ["yes", "true", "1", "present", "y"]),
                new("no", "no", "", ["no", "false", "0", "absent", "n"]),
            ];
        var phases = new List<Phenophase>();
        foreach (
            var word in FloraTables
                .List(Cell("phenophases", "seen"))
                .Where(w => !string.Equals(w, "always", StringComparison.OrdinalIgnoreCase))
        )
        {
            if (FloraTables.Phase(word) is { } phase)
                phases.Add(phase);
            else
                wrong(ProblemSeverity.Warning, "word.unknown", at["phenophases"], $"“{word}” is no phenophase; it is left out.");
        }
        var effort =
            Cell("effort_s", "effort") is { Length: > 0 } seconds && FloraTables.TryNumber(seconds, out var took) && took >= 0
                ? (int)Math.Round(took)
                : UsualEffort;
        var plain = Plain(id, name, kind, states, unit);
        var needs = Cell("applies_if", "needs");
        var equals = needs.IndexOf('=', StringComparison.Ordinal);
        var reliability = Share("reliability", UsualReliability);
        return plain with
        {
            Organ = Word(plain.Organ, "organ", "part"),
            Reliability = reliability,
            Detection = Share("detection", reliability),
            EffortSeconds = effort,
            Tool = Word(plain.Tool, "tool"),
            Handling = Word(Handling.Look, "handling"),
            SeenIn = phases,
            Needs = equals < 0 ? null : new Applicability(needs[..equals].Trim(), FloraTables.List(needs[(equals + 1)..])),
            Nouns = FloraTables.List(Cell("nouns")),
            Measures = FloraTables.List(Cell("measures")),
            Family = Cell("family"),
            SizeGroup = Cell("sizes"),
            RatioOf = Cell("ratio_of").Split('/', StringSplitOptions.TrimEntries) is [{ Length: > 0 } above, { Length: > 0 } below]
                ? [above, below]
                : null,
            MeasuredFrom = Cell("measured"),
            Definition = Cell("definition", "description"),
            Trap = Cell("trap"),
            TrendOf = Cell("trend_of"),
        };
    }

    private static List<CharacterState> States(
        string character,
        CharacterKind kind,
        string cell,
        ILookup<(string, string), CharacterState> definitions,
        Action<string> wrong
    )
    {
        var states = new List<CharacterState>();
        if (kind is not (CharacterKind.Categorical or CharacterKind.Ordered))
            return states;
        foreach (var part in FloraTables.List(cell))
        {
            var equals = part.IndexOf('=', StringComparison.Ordinal);
            var name = equals < 0 ? part : part[(equals + 1)..].Trim();
            var id = equals < 0 ? FloraTables.IdOf(part) : part[..equals].Trim();
            if (states.Exists(s => s.Id == id))
                wrong($"The state “{id}” is given twice.");
            else
                states.Add(
                    definitions[(character, id)].FirstOrDefault() is { } defined
                        ? defined with
                        {
                            Name = name,
                        }
                        : new CharacterState(id, name, "", [name])
                );
        }
        if (states.Count == 0)
            states.AddRange(definitions.Where(d => d.Key.Item1 == character).SelectMany(d => d));
        return states;
    }

    private static ILookup<(string, string), CharacterState> Definitions(Sheet? states, List<FloraProblem> problems)
    {
        if (states is null)
            return Array.Empty<CharacterState>().ToLookup(_ => ("", ""));
        var (character, id, name, definition, terms) = (
            states.Column("character"),
            states.Column("id", "state"),
            states.Column("name", "label"),
            states.Column("definition"),
            states.Column("terms", "synonyms")
        );
        if (character < 0 || id < 0)
            problems.Add(
                new(
                    ProblemSeverity.Error,
                    "column.missing",
                    states.Name,
                    1,
                    "character",
                    "The table of states wants the columns “character” and “id”."
                )
            );
        return states
            .Rows.Where(r => r.Cell(id).Length > 0)
            .ToLookup(
                r => (r.Cell(character), r.Cell(id)),
                r => new CharacterState(
                    r.Cell(id),
                    r.Cell(name) is { Length: > 0 } n ? n : r.Cell(id),
                    r.Cell(definition),
                    FloraTables.List(r.Cell(terms))
                )
            );
    }
}
