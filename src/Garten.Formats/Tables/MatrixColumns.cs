using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Formats.Tables;

/// <summary>The columns of a matrix with the characters that they are: those of the table of characters, or worked out from what the cells
/// hold.</summary>
internal sealed record MatrixColumns(
    IReadOnlyList<Character> All,
    IReadOnlyList<(int Column, Character Character)> Characters,
    IReadOnlyDictionary<string, int> Facts
)
{
    // So many different words in a column are notes, not states.
    private const int MostStates = 60;

    // So many cells of a column are named one by one.
    private const int MostSaid = 20;

    /// <summary>Behind a heading: a quality that the part hasn't usually is meant all the same.</summary>
    public const char MeantSo = '!';

    // Headings that say something of the taxon itself, where there is no table of characters.
    private static readonly string[] OfTaxon =
    [
        "authorship",
        "author",
        "family",
        "rank",
        "common_name",
        "common_names",
        "synonyms",
        "habitats",
        "habitat",
        "status",
        "origin",
    ];

    /// <summary>Whether a heading names something of the taxon itself.</summary>
    public static bool SaysOfTaxon(string heading) => OfTaxon.Any(f => Sheet.Plain(f) == Sheet.Plain(heading));

    public static MatrixColumns Of(FloraSheets sheets, IReadOnlyList<Character>? given, List<FloraProblem> problems, CancellationToken stop)
    {
        var matrix = sheets.Matrix;
        var facts = new Dictionary<string, int>(StringComparer.Ordinal);
        var defined = sheets.Characters is null ? given : CharacterSheet.Read(sheets.Characters, sheets.States, problems, sheets.Botany);
        var all = defined?.ToList() ?? [];
        var found = new List<(int, Character)>();
        for (var column = 1; column < matrix.Header.Count; column++)
        {
            stop.ThrowIfCancellationRequested();
            var heading = matrix.Header[column];
            if (heading.Length == 0)
            {
                if (matrix.Rows.Any(r => r.Cell(column).Length > 0))
                    problems.Add(
                        new(
                            ProblemSeverity.Error,
                            "column.no-name",
                            matrix.Name,
                            1,
                            $"{column + 1}",
                            $"Column {column + 1} has cells but no heading."
                        )
                    );
                continue;
            }
            Character? character;
            if (defined is not null)
            {
                character = defined.FirstOrDefault(c => c.Id == heading)
                    ?? defined.FirstOrDefault(c =>
                        Sheet.Plain(c.Id) == Sheet.Plain(heading) || Sheet.Plain(c.Name) == Sheet.Plain(heading)
                    );
                if (character is null && Composed(sheets.Botany, heading, matrix, column, problems) is { } made)
                {
                    character = made;
                    if (!all.Exists(c => c.Id == made.Id))
                        all.Add(made);
                }
                if (character is null)
                {
                    problems.Add(
                        new(
                            ProblemSeverity.Error,
                            "character.unknown",
                            matrix.Name,
                            1,
                            heading,
                            $"The column “{heading}” is no character of the table of characters. Add it there, or rename the column.",
                            Offered(sheets.Botany, heading)
                        )
                    );
                    continue;
                }
                if (!character.IsQuantity && character.States.Count == 0)
                {
                    if (WithStates(character, matrix, column, problems) is not { } filled)
                        continue;
                    all[all.FindIndex(c => c.Id == character.Id)] = character = filled;
                }
            }
            else
            {
                if (SaysOfTaxon(heading))
                {
                    facts[Sheet.Plain(heading)] = column;
                    continue;
                }
                character = IsAsBefore(sheets, heading, matrix, column, problems)
                    ? Guessed(heading, matrix, column, problems)
                    : Composed(sheets.Botany, heading, matrix, column, problems) ?? Guessed(heading, matrix, column, problems);
                if (character is null)
                    continue;
                if (all.Exists(c => c.Id == character.Id))
                    continue;
                all.Add(character);
            }
            if (found.Exists(f => f.Item2.Id == character.Id))
                problems.Add(
                    new(ProblemSeverity.Error, "column.twice", matrix.Name, 1, heading, $"Two columns are the character {character.Name}.")
                );
            else
                found.Add((column, character));
        }
        if (matrix.Header.Count < 2)
            problems.Add(
                new(
                    ProblemSeverity.Error,
                    "matrix.columns",
                    matrix.Name,
                    1,
                    "",
                    "The matrix has a single column. Behind the taxon, every column is a character; is it separated by commas, semicolons or tabs?"
                )
            );
        return new(all, found, facts);
    }

    // "petiole hairs" or "petiole.hair-density": a part with a quality of the vocabulary, where it has a word for every cell. A heading of
    // the program's own older characters goes on meaning these.
    private static Character? Composed(BotanyIndex botany, string heading, Sheet matrix, int column, List<FloraProblem> problems)
    {
        if (CharacterId.IsComposed(heading.Trim()) && botany.Compose(heading.Trim().TrimEnd(MeantSo)) is { } byId)
        {
            AskUnusual(botany, byId, heading, matrix, Filled(matrix, column), problems);
            return byId;
        }
        var (name, unit) = Unit(heading);
        var cells = Filled(matrix, column);
        if (ShippedGlossary.Named(name) is { } older && (older.IsQuantity || Fits(older, unit, cells)))
            return null;
        var kind = MeasureUnit.Named(unit)?.Kind;
        var fits = botany
            .Search.Named(name)
            .Where(f => f.IsUsual)
            .FirstOrDefault(f =>
                kind is null || f.Character.IsQuantity && f.Character.Quantity == kind ? Fits(f.Character, unit, cells) : false
            );
        if (fits is null)
            return null;
        if (fits.IsOwnerAssumed)
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "column.assumed",
                    matrix.Name,
                    1,
                    heading,
                    $"The column “{heading}” is read as “{fits.Character.Name}” ({fits.Character.Id}). "
                        + "Choose another part where that is meant.",
                    [
                        .. botany
                            .Search.Named(name)
                            .Where(f => f.IsUsual && f.Character.Id != fits.Character.Id && Fits(f.Character, unit, cells))
                            .Take(MostOffered)
                            .Select(f => new OfferedHeading(f.Character.Id, f.Character.Name)),
                    ]
                )
            );
        if (!fits.Character.IsQuantity)
            SayAlternatives(matrix, column, problems);
        // Its name stays what the table calls it.
        return fits.Character with { Name = name, Unit = unit.Length > 0 ? unit : fits.Character.Unit };
    }

    // "ovate/cordate" may be one or the other, or something between: said, not guessed in silence.
    private static void SayAlternatives(Sheet matrix, int column, List<FloraProblem> problems)
    {
        var several = matrix
            .Rows.Where(r => IsSaid(r.Cell(column)))
            .SelectMany(r =>
                Parts(r.Cell(column)).Where(p => DescriptionCell.Alternatives(p).Count > 1).Select(p => (Text: p, Row: r.Number))
            )
            .DistinctBy(p => p.Text)
            .Take(MostSaid);
        foreach (var (text, row) in several)
        {
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "cell.several",
                    matrix.Name,
                    row,
                    matrix.Header[column],
                    $"“{text}” is read as one or the other. Separate states with | where that is meant."
                )
            );
        }
    }

    // Whether a character has a word, or a number, for every cell of a column; where there is none the column says nothing for it.
    private static bool Fits(Character character, string unit, List<string> cells)
    {
        var read = unit.Length > 0 ? character with { Unit = unit } : character;
        var said = cells.Distinct(StringComparer.OrdinalIgnoreCase).Where(c => !DescriptionCell.IsDash(c)).ToList();
        return said.Count > 0 && said.TrueForAll(c => NumberCell.Read(c, read, out var problem) is not null && problem is null);
    }

    private const int MostOffered = 3;

    // What the words of a heading may mean, for one that means nothing as it stands.
    private static List<OfferedHeading> Offered(BotanyIndex botany, string heading) =>
        [
            .. botany
                .Search.Find(Unit(heading).Name)
                .DistinctBy(f => f.Character.Id)
                .Take(MostOffered)
                .Select(f => new OfferedHeading(f.Character.Id, f.Character.Name)),
        ];

    private static bool IsSaid(QualityState state, List<string> cells) =>
        cells.Exists(c => Parts(c).Any(p => state.Id == p || state.Name == p || state.Terms.Contains(p, StringComparer.OrdinalIgnoreCase)));

    // Seeds aren't opposite, as a rule: whoever means it says so.
    private static void AskUnusual(
        BotanyIndex botany,
        Character character,
        string heading,
        Sheet matrix,
        List<string> cells,
        List<FloraProblem> problems
    )
    {
        if (
            heading.TrimEnd().EndsWith(MeantSo)
            || CharacterId.Read(character.Id) is not { } id
            || botany.Part(id.Part) is not { } part
            || botany.Quality(id.Quality) is not { } quality
            || BotanyIndex.IsUsual(part, quality) && !quality.States.Any(s => !BotanyIndex.IsUsual(part, quality, s.Id) && IsSaid(s, cells))
        )
            return;
        var states = quality
            .States.Where(s => !BotanyIndex.IsUsual(part, quality, s.Id) && IsSaid(s, cells))
            .Select(s => $"“{s.Name}”")
            .ToList();
        var said = BotanyIndex.IsUsual(part, quality) ? $"{string.Join(" and ", states)} of" : $"“{quality.Name}” of";
        problems.Add(
            new(
                ProblemSeverity.Error,
                "column.unusual",
                matrix.Name,
                1,
                heading,
                $"{said} the {part.Name} is unusual. Is it meant so?",
                [new(character.Id + MeantSo, $"Yes: {character.Name}"), new("", "Leave the column out")]
            )
        );
    }

    // A column that was a character of the flora's own when it was brought before stays that: what was recorded with it is found again.
    private static bool IsAsBefore(FloraSheets sheets, string heading, Sheet matrix, int column, List<FloraProblem> problems)
    {
        if (CharacterId.IsComposed(heading) || !sheets.Before.Any(c => !CharacterId.IsComposed(c.Id) && c.Id == OwnId(heading)))
            return false;
        // Where it is none now either there is nothing to say.
        if (Composed(sheets.Botany, heading, matrix, column, []) is null)
            return false;
        var (name, unit) = Unit(heading);
        var offers = sheets
            .Botany.Search.Named(name)
            .Where(f => f.IsUsual && (unit.Length == 0 || f.Character.IsQuantity) && Fits(f.Character, unit, Filled(matrix, column)))
            .Take(MostOffered)
            .Select(f => new OfferedHeading(f.Character.Id, f.Character.Name))
            .ToList();
        if (offers.Count > 0)
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "column.as-before",
                    matrix.Name,
                    1,
                    heading,
                    $"The column “{heading}” stays the character that it was when this flora was brought before. "
                        + "As a part with a quality it would be a new one, and what was recorded with it so far wouldn't count for it.",
                    offers
                )
            );
        return true;
    }

    // One spelling for both, so that what the program knows to draw is drawn.
    private static string OwnId(string heading) => FloraTables.IdOf(heading).Replace("color", "colour", StringComparison.Ordinal);

    // "leaf length (cm)" with numbers below it is a length in cm; a column of words has these words as its states.
    private static Character? Guessed(string heading, Sheet matrix, int column, List<FloraProblem> problems)
    {
        var cells = Filled(matrix, column);
        var (name, unit) = Unit(heading);
        var id = OwnId(heading);
        var numbers = cells.Count(c => char.IsAsciiDigit(c.TrimStart('(', '<', '>', '≥', '≤', '~', 'c', '.', ' ').FirstOrDefault()));
        if (cells.Count > 0 && numbers >= 0.9 * cells.Count)
        {
            var kind = MeasureUnit.Named(unit) is { } known
                ? known.Kind == QuantityKind.Angle
                    ? CharacterKind.Angle
                    : CharacterKind.Length
                : unit.Length == 0
                && cells.TrueForAll(c =>
                    FloraTables.TryNumber(c, out var v) ? Math.Abs(v - Math.Round(v)) < 1e-9 : !c.Contains('.', StringComparison.Ordinal)
                )
                    ? CharacterKind.Count
                    : CharacterKind.Ratio;
            if (cells.Exists(c => c.Any(char.IsAsciiLetter) && cells.Exists(d => MeasureUnit.Named(d.Split(' ')[^1]) is not null)))
                kind = CharacterKind.Length;
            return CharacterSheet.Plain(id, name, kind, [], unit);
        }
        return WithStates(CharacterSheet.Plain(id, name, CharacterKind.Categorical, [], ""), matrix, column, problems);
    }

    private static Character? WithStates(Character character, Sheet matrix, int column, List<FloraProblem> problems)
    {
        // Values that stand alone somewhere are states; "red, white" is two of them where both do.
        var parts = matrix
            .Rows.Where(r => IsSaid(r.Cell(column)))
            .SelectMany(r => Parts(r.Cell(column)).Select(p => (Bare: p, Row: r.Number)))
            .ToList();
        var whole = parts
            .Where(p => DescriptionCell.Alternatives(p.Bare).Count == 1)
            .Select(p => p.Bare)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var states = new List<string>();
        var met = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var composed = new List<(string Text, int Row)>();
        foreach (var (part, row) in parts)
        {
            if (part.Length == 0 || !met.Add(part))
                continue;
            var beside = DescriptionCell.Alternatives(part);
            // Each stands alone somewhere: then these are several states. Else it may be one, such as a pattern of colours: said, not
            // guessed.
            if (beside.Count > 1 && beside.All(whole.Contains))
                continue;
            states.Add(part);
            if (beside.Count > 1 || part.Contains(" and ", StringComparison.OrdinalIgnoreCase))
                composed.Add((part, row));
        }
        foreach (var (text, row) in composed.Take(MostSaid))
        {
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "cell.several",
                    matrix.Name,
                    row,
                    matrix.Header[column],
                    $"“{text}” is kept as a state of its own. Where several states are meant, separate them with |."
                )
            );
        }
        if (composed.Count > MostSaid)
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "cell.several",
                    matrix.Name,
                    composed[MostSaid].Row,
                    matrix.Header[column],
                    $"So are {composed.Count - MostSaid} other texts of this column."
                )
            );
        if (states.Count > MostStates && states.Count > parts.Count / 4)
        {
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "column.text",
                    matrix.Name,
                    1,
                    matrix.Header[column],
                    $"The column “{matrix.Header[column]}” holds {states.Count} different texts: it is taken for notes and left out."
                )
            );
            return null;
        }
        if (states.Count == 0)
        {
            problems.Add(
                new(
                    ProblemSeverity.Warning,
                    "column.empty",
                    matrix.Name,
                    1,
                    matrix.Header[column],
                    $"No cell of the column “{matrix.Header[column]}” says anything; it is left out."
                )
            );
            return null;
        }
        var ids = new OwnIds();
        return character with
        {
            States =
            [
                .. states
                    .Order(StringComparer.OrdinalIgnoreCase)
                    .Select(s => new CharacterState(ids.Take(FloraTables.IdOf(s) is { Length: > 0 } plain ? plain : "state"), s, "", [s])),
            ],
        };
    }

    private static bool IsSaid(string cell) => !DescriptionCell.IsUnknown(cell) && !DescriptionCell.IsNotApplicable(cell);

    private static IEnumerable<string> Parts(string cell) =>
        cell.Split('|', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(Bare);

    // Without "usually" and the mark of misreading.
    private static string Bare(string part)
    {
        part = part.TrimStart('!').Trim();
        var space = part.IndexOf(' ', StringComparison.Ordinal);
        return space > 0 && Modality.Of(part[..space]) is not null ? part[(space + 1)..].Trim() : part;
    }

    private static List<string> Filled(Sheet matrix, int column) =>
        [.. matrix.Rows.Select(r => r.Cell(column)).Where(c => !DescriptionCell.IsUnknown(c) && !DescriptionCell.IsNotApplicable(c))];

    // "leaf length (cm)", "leaf_length_cm", "height [m]".
    private static (string Name, string Unit) Unit(string heading)
    {
        var open = heading.LastIndexOfAny(['(', '[']);
        if (open > 0 && heading.TrimEnd() is [.., ')' or ']'])
            return (heading[..open].Trim().Replace('_', ' '), heading[(open + 1)..].Trim().TrimEnd(')', ']').Trim());
        var last = heading.LastIndexOfAny([' ', '_', '.']);
        if (last > 0 && MeasureUnit.Named(heading[(last + 1)..]) is not null && heading[(last + 1)..] is not ("in" or "m"))
            return (heading[..last].Replace('_', ' ').Trim(), heading[(last + 1)..]);
        if (last > 0 && heading[(last + 1)..] is "m" or "mg" or "g" or "kg")
            return (heading[..last].Replace('_', ' ').Trim(), heading[(last + 1)..]);
        return (heading.Replace('_', ' '), "");
    }
}
