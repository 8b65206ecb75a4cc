using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Characters;
using Garten.Core.Quantities;

namespace Garten.Core.Floras;

/// <summary>What a description says of one organ, in the style of floras.</summary>
/// <param name="Organ">The organ.</param>
/// <param name="Items">What is said of it, character by character, in the order of the sentence.</param>
public sealed record ProsePart(Organ Organ, IReadOnlyList<ProseItem> Items)
{
    /// <summary>The sentence, without the organ's name in front.</summary>
    [JsonIgnore]
    public string Text => string.Join("; ", Items.Select(i => i.Text)) + ".";
}

/// <summary>What is said of one character.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Text">The words.</param>
public sealed record ProseItem(string Character, string Text);

/// <summary>Writes descriptions as floras do: organ by organ, states with their frequency, ranges as they were typed.</summary>
public static class FloraProse
{
    /// <summary>The text of a description, organ by organ in the order of the characters; organs of which nothing is known are left
    /// out.</summary>
    public static IReadOnlyList<ProsePart> Write(IReadOnlyList<CharacterDescription> description, IReadOnlyList<Character> characters)
    {
        ArgumentNullException.ThrowIfNull(description);
        var cells = description.ToDictionary(c => c.Character, StringComparer.Ordinal);
        return
        [
            .. characters
                .Where(c => cells.TryGetValue(c.Id, out var cell) && cell.Applies)
                .GroupBy(c => c.Organ)
                .OrderBy(g => g.Key)
                .Select(organ => new ProsePart(organ.Key, [.. organ.Select(c => new ProseItem(c.Id, Sentence(c, cells[c.Id])))])),
        ];
    }

    /// <summary>What a cell says, in words: "opposite, rarely in threes", "(4–)5–8(–10) cm", "not there", "unknown".</summary>
    public static string Value(CharacterDescription? cell, Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        if (cell is null)
            return "unknown";
        if (!cell.Applies)
            return "not there";
        if (cell.Range is { } range)
        {
            var text =
                range.Text.Length > 0 && !char.IsAsciiDigit(range.Text[^1]) && range.Text[^1] is not ')'
                || character.Unit.Length == 0
                || range.Text.Length == 0
                    ? Shown(range, character)
                    : $"{range.Text} {character.Unit}";
            return cell.Shade is { } shade ? $"{text}, in the shade {Shown(shade, character)}" : text;
        }
        var states = cell
            .States.OrderByDescending(s => s.Share)
            .Select(s => (Name: Name(character, s.State), Word: Modality.InWords(s.Share), s.Share))
            .ToList();
        if (states.Count == 0)
            return "unknown";
        // Two that are equally common are "or"; the commonest needs no word.
        var first = states[0];
        var rest = states
            .Skip(1)
            .Select(s => Math.Abs(s.Share - first.Share) < 0.05 ? $"or {s.Name}" : $"{(s.Word == "always" ? "often" : s.Word)} {s.Name}")
            .ToList();
        var joined =
            rest.Count == 0 ? first.Name : $"{first.Name}, {string.Join(", ", rest)}".Replace(", or ", " or ", StringComparison.Ordinal);
        return cell.Misread is { Count: > 0 } misread
            ? $"{joined} (often taken for {string.Join(" or ", misread.Select(m => Name(character, m)))})"
            : joined;
    }

    private static string Shown(QuantityRange range, Character character)
    {
        if (range.Text.Length > 0 && (character.Kind != CharacterKind.Length || range.Text.Any(char.IsLetter)))
            return range.Text;
        return Notation(range, character.Unit);
    }

    /// <summary>A range in the notation of floras, "(4–)6–9(–13) cm", made of its numbers; lengths in the unit given, or in the one that
    /// suits them.</summary>
    /// <param name="range">The range.</param>
    /// <param name="unit">mm, cm or m; empty for the one that suits.</param>
    public static string Notation(QuantityRange range, string unit)
    {
        ArgumentNullException.ThrowIfNull(range);
        const double centimetresFrom = 30,
            metresFrom = 1000;
        var (factor, symbol) = range.Kind switch
        {
            QuantityKind.Length => MeasureUnit.Named(unit) is { Kind: QuantityKind.Length } own ? (own.Factor, " " + own.Symbol)
            : range.High >= metresFrom ? (1000, " m")
            : range.High >= centimetresFrom ? (10, " cm")
            : (1, " mm"),
            QuantityKind.Angle => (1, "°"),
            _ => (1d, ""),
        };
        string Show(double value) => (value / factor).ToString("0.###", CultureInfo.InvariantCulture);
        return range.Form switch
        {
            RangeForm.UpTo => $"up to {Show(range.High)}{symbol}",
            RangeForm.MoreThan => $"more than {Show(range.Low)}{symbol}",
            _ when range.Low.Equals(range.High) => $"{Show(range.Low)}{symbol}",
            _ =>
                $"{(range.LowExtreme < range.Low ? $"({Show(range.LowExtreme.Value)}–)" : "")}{Show(range.Low)}–{Show(range.High)}{(range.HighExtreme > range.High ? $"(–{Show(range.HighExtreme.Value)})" : "")}{symbol}",
        };
    }

    private static string Name(Character character, string state) =>
        character.IndexOf(state) is >= 0 and var at ? character.States[at].Name : state;

    // "rooting branches: not rooting" says it once; a form of growth needs no word before it.
    private static string Sentence(Character character, CharacterDescription cell)
    {
        var (name, value) = (Short(character), Value(cell, character));
        return
            !character.IsQuantity
            && (
                character.Id == "growth-form"
                || name.Split(' ').Any(w => w.Length > 3 && value.Contains(w, StringComparison.OrdinalIgnoreCase))
            )
            ? value
            : $"{name} {value}";
    }

    private static readonly string[] OrganTails =
    [
        " of the leaf",
        " of the leaves",
        " of the twig",
        " of the buds",
        " of the stem",
        " of the flower",
        " of the fruit",
        " beneath the leaf",
        " of the young stem",
        " of the ripe fruit",
    ];

    // "length of the leaf" stands under the leaf: "length".
    private static string Short(Character character)
    {
        var name = character.Name;
        foreach (var tail in OrganTails)
        {
            if (name.EndsWith(tail, StringComparison.Ordinal))
                return name[..^tail.Length];
        }
        return name;
    }
}
