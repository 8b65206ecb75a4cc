using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Seasons;
using Garten.Formats.Tables;

namespace Garten.Formats;

/// <summary>The parts and qualities that ship with the program, with their terms and definitions: the tables in
/// <c>Vocabulary</c>.</summary>
public static class ShippedVocabulary
{
    private static readonly Lazy<BotanyIndex> Made = new(() => new BotanyIndex(Read()));

    /// <summary>The vocabulary, ready to be asked.</summary>
    public static BotanyIndex Botany => Made.Value;

    private static Vocabulary Read()
    {
        var states = Rows("states", "quality", "id", "name", "broader", "near", "terms", "definition")
            .ToLookup(r => r[0], r => new QualityState(r[1], r[2], r[3], r[4], FloraTables.List(r[5]), r[6]), StringComparer.Ordinal);
        var read = new Vocabulary(
            [
                .. Rows("parts", "id", "parent", "class", "organ", "owners", "nouns", "groups", "seen", "tool", "handling", "definition")
                    .Select(r => new Part(
                        r[0],
                        r[1],
                        Word<PartClass>(r[2]),
                        Word<Organ>(r[3]),
                        FloraTables.List(r[4]),
                        FloraTables.List(r[5]),
                        FloraTables.List(r[6]),
                        r[7] == "always" ? [] : [.. FloraTables.List(r[7]).Select(Word<Phenophase>)],
                        Word<Tool>(r[8]),
                        Word<Handling>(r[9]),
                        r[10]
                    )),
            ],
            [
                .. Rows(
                        "qualities",
                        "id",
                        "name",
                        "kind",
                        "applies",
                        "unit",
                        "measures",
                        "reliability",
                        "detection",
                        "effort",
                        "tool",
                        "handling",
                        "several",
                        "definition",
                        "trap"
                    )
                    .Select(r => new Quality(
                        r[0],
                        r[1],
                        Word<CharacterKind>(r[2]),
                        FloraTables.List(r[3]),
                        r[4],
                        FloraTables.List(r[5]),
                        Number(r[6]),
                        r[7].Length > 0 ? Number(r[7]) : 1,
                        (int)Number(r[8]),
                        Word<Tool>(r[9]),
                        Word<Handling>(r[10]),
                        r[11].Length > 0,
                        r[12],
                        r[13],
                        [.. states[r[0]]]
                    )),
            ],
            [.. Rows("meanings", "character", "state", "says").Select(r => new StateMeaning(r[0], r[1], FloraTables.List(r[2])))],
            [
                .. Rows("implications", "quality", "state", "implies", "implied", "because")
                    .Select(r => new Implication(r[0], r[1], r[2], r[3], r[4])),
            ],
            [.. Rows("words", "text", "kind", "value").Select(r => new GrammarWord(r[0], r[1], r[2]))]
        );
        return VocabularyCheck.Problems(read) is [var problem, ..]
            ? throw new InvalidOperationException($"The vocabulary, {problem.Place}: {problem.Message}")
            : read;
    }

    private static double Number(string text) =>
        FloraTables.TryNumber(text, out var value) ? value : throw new InvalidOperationException($"The vocabulary: “{text}” is no number.");

    private static T Word<T>(string text)
        where T : struct, Enum =>
        Enum.TryParse<T>(Sheet.Plain(text), ignoreCase: true, out var value)
            ? value
            : throw new InvalidOperationException($"The vocabulary: “{text}” is no {typeof(T).Name}.");

    // The cells of each row under the headings, in their order.
    private static IEnumerable<string[]> Rows(string name, params string[] headings)
    {
        using var stream = typeof(ShippedVocabulary).Assembly.GetManifestResourceStream($"Garten.Formats.Vocabulary.{name}.csv")
            ?? throw new InvalidOperationException($"The vocabulary's {name} are missing in the program.");
        using var copy = new MemoryStream();
        stream.CopyTo(copy);
        var sheet = SheetReader.Read(name, copy.ToArray()).Sheet!;
        var columns = headings.Select(h => sheet.Column(h)).ToArray();
        return [.. sheet.Rows.Select(r => columns.Select(c => r.Cell(c)).ToArray())];
    }
}
