using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Quantities;

namespace Garten.Core.Floras;

/// <summary>What a description says of one organ, in the style of floras.</summary>
/// <param name="Organ">The organ.</param>
/// <param name="Items">What is said of it, character by character, in the order of the sentence.</param>
public sealed record ProsePart(Organ Organ, IReadOnlyList<ProseItem> Items)
{
    /// <summary>What it is about: "Leaves".</summary>
    public string Subject => FloraProse.Subject(Organ);

    /// <summary>The sentence: "Leaves alternate, linear, 4–9 mm wide, entire; petiole 2–5 mm long, hairy."</summary>
    [JsonIgnore]
    public string Text =>
        $"{Subject}{(Items is [{ Opens: true }, ..] ? ":" : "")} {string.Concat(Items.Select((item, i) => Between(item, i) + item.Text))}.";

    private static string Between(ProseItem item, int at) =>
        at == 0 ? ""
        : item.Opens ? "; "
        : ", ";
}

/// <summary>What is said of one character.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Text">The words.</param>
/// <param name="Opens">Whether it begins to speak of another part: behind a semicolon.</param>
public sealed record ProseItem(string Character, string Text, bool Opens = false);

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
                .Select(organ => new ProsePart(
                    organ.Key,
                    Items([.. organ.OrderBy(c => Rank.GetValueOrDefault(c.Id, Rank.Count)).Select(c => Sentence(c, cells[c.Id]))])
                )),
        ];
    }

    // First what is said of the organ itself, then part by part, each named once.
    private static List<ProseItem> Items(List<Said> said)
    {
        var items = said.FindAll(s => s.Subject.Length == 0).ConvertAll(s => new ProseItem(s.Character, s.Text));
        foreach (var part in said.FindAll(s => s.Subject.Length > 0).GroupBy(s => s.Subject))
            items.AddRange(part.Select((s, i) => new ProseItem(s.Character, i == 0 ? $"{s.Subject} {s.Text}" : s.Text, i == 0)));
        return items;
    }

    // What is said of one character: of which part, where it isn't the organ itself.
    private readonly record struct Said(string Character, string Subject, string Text);

    /// <summary>What a cell says, in words: "opposite, rarely in threes", "(4–)5–8(–10) cm", "hairless; when young densely hairy", "not
    /// there", "unknown".</summary>
    public static string Value(CharacterDescription? cell, Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        if (cell?.Contexts is { } contexts)
        {
            return string.Join(
                "; ",
                [
                    Value(cell with { Contexts = null }, character),
                    .. contexts.Select(c =>
                        $"{ContextWords.InWords(c.When)} {Value(new CharacterDescription(cell.Character, c.States, c.Range), character)}"
                    ),
                ]
            );
        }
        if (cell is null)
            return "unknown";
        if (!cell.Applies)
            return "not there";
        if (cell.Range is { } range)
        {
            var text =
                range.Text.Contains('×', StringComparison.Ordinal)
                || range.Text.Length > 0 && !char.IsAsciiDigit(range.Text[^1]) && range.Text[^1] is not ')'
                || character.Unit.Length == 0
                || range.Text.Length == 0
                    ? Shown(range, character)
                    : $"{range.Text} {character.Unit}";
            return cell.Shade is { } shade ? $"{text}, in the shade {Shown(shade, character)}" : text;
        }
        var states = cell
            .States.Select(s => (Name: Name(character, s.State), s.Share))
            .Concat((cell.Sets ?? []).Select(s => (Name: string.Join(" with ", s.States.Select(x => Name(character, x))), s.Share)))
            .OrderByDescending(s => s.Share)
            .Select(s => (s.Name, Word: Modality.InWords(s.Share), s.Share))
            .ToList();
        if (states.Count == 0)
            return "unknown";
        if (Denied(states.ConvertAll(s => s.Name), cell, character) is { } denied)
            return denied;
        // Two that are equally common are "or"; the commonest needs no word.
        var first = states[0];
        var rest = states
            .Skip(1)
            .Select(s => Math.Abs(s.Share - first.Share) < 0.05 ? $"or {s.Name}" : $"{(s.Word == "always" ? "often" : s.Word)} {s.Name}")
            .ToList();
        var joined =
            rest.Count == 0 ? first.Name : $"{first.Name}, {string.Join(", ", rest)}".Replace(", or ", " or ", StringComparison.Ordinal);
        return cell.Misread is { Count: > 0 } misread
            ? $"{joined} (often confused with {string.Join(" or ", misread.Select(m => Name(character, m)))})"
            : joined;
    }

    // "Not winged" rather than all the other forms that a section can have.
    private static string? Denied(List<string> said, CharacterDescription cell, Character character)
    {
        const int mostLeftOut = 2,
            longList = 5;
        var leftOut = character.States.Select(s => s.Name).Except(said, StringComparer.Ordinal).ToList();
        var isEven = cell.States.All(s => Math.Abs(s.Share - cell.States[0].Share) < 0.05);
        if (!isEven || said.Count < longList || leftOut.Count is 0 or > mostLeftOut)
            return null;
        // "Not clasping" would deny the half-clasping too, which is among what is said.
        var denied = character.States.Where(s => leftOut.Contains(s.Name)).ToList();
        return denied.Exists(d => cell.States.Any(s => character.IsKindOf(s.State, d.Id))) ? null : $"not {string.Join(" or ", leftOut)}";
    }

    private static string Shown(QuantityRange range, Character character)
    {
        // Of "6–12 × 4–9 cm" each character says its own side.
        if (range.Text.Contains('×', StringComparison.Ordinal))
            return Notation(range, "");
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

    // What a description says of one character, as a flora says it below the organ: "alternate", "4–9 mm wide", "rounded at the base",
    // "petiole 12–25 mm long", "rachis densely hairy".
    private static Said Sentence(Character character, CharacterDescription cell)
    {
        var value = Value(cell, character);
        if (Phrases.TryGetValue(character.Id, out var phrase))
        {
            // "petiole {0} long" is of the petiole.
            var at = phrase.IndexOf("{0}", StringComparison.Ordinal);
            var subject = phrase[..at].TrimEnd();
            return subject.Length == 0 || subject == "{1}" || Prepositions.Contains(subject)
                ? new(character.Id, "", Filled(phrase, value))
                : new(character.Id, subject, Filled(phrase[at..], value));
        }
        if (CharacterId.Read(character.Id) is { } id)
            return OfPart(id, character, value);
        var name = character.Name;
        if (Subject(character.Organ).StartsWith(name, StringComparison.OrdinalIgnoreCase))
            return new(character.Id, "", value);
        return !character.IsQuantity && name.Split(' ').Any(w => w.Length >= 3 && value.Contains(w, StringComparison.OrdinalIgnoreCase))
            ? new(character.Id, "", value)
            : new(character.Id, name, value);
    }

    // What stands before a value without being its subject.
    private static readonly HashSet<string> Prepositions = new(StringComparer.Ordinal) { "with", "on", "cut" };

    // "{0}" stands for the value, "{1}" for its article.
    private static string Filled(string phrase, string value) => string.Format(CultureInfo.InvariantCulture, phrase, value, An(value));

    // Parts that an organ's sentence is about anyway: "leaves linear", not "leaves: blade linear".
    private static readonly HashSet<string> Main = new(StringComparer.Ordinal)
    {
        "plant",
        "bark",
        "twig",
        "bud",
        "leaf",
        "blade",
        "stem",
        "inflorescence",
        "flower",
        "fruit",
        "site",
    };

    // Of a part with a quality: the part where the sentence isn't about it, then the state, then where.
    private static Said OfPart(CharacterId id, Character character, string value)
    {
        var isMain = Main.Contains(id.Part) && id.Owner.Length == 0;
        if (character.Kind == CharacterKind.Count)
            return new(character.Id, Counted(id, character), id.Quality == "pairs" ? $"{value} pairs" : value);
        var where = id.Region switch
        {
            "" => "",
            "above" or "beneath" or "inside" or "outside" => " " + id.Region,
            // "Longer than the calyx", "about as long as the calyx".
            _ when id.Quality == CharacterId.Comparing =>
                $" {(value.EndsWith("long", StringComparison.Ordinal) ? "as" : "than")} the {PartName(id.Region)}",
            _ => $" at the {id.Region}",
        };
        var (noun, said) = Worded(id.Quality, value, character);
        var subject =
            noun.Length == 0 || noun == PartName(id.Part)
                ? isMain
                    ? ""
                    : PartOf(id)
                : isMain && id.Part == BotanyIndex.WholePlant
                    ? noun
                    : $"{noun} of the {PartOf(id)}";
        // "At least twice as long as wide" says it all.
        return new(character.Id, subject, (value.Contains("as long as", StringComparison.Ordinal) ? value : Filled(said, value)) + where);
    }

    // How the value of a quality is said, and of what where the part alone would mislead: "leaves yellow" aren't leaves with yellow hairs.
    private static (string Noun, string Said) Worded(string quality, string value, Character character) =>
        quality switch
        {
            "length" => ("", "{0} long"),
            "width" => ("", "{0} wide"),
            "height" => ("", "{0} high"),
            "thickness" => ("", "{0} thick"),
            "ratio" => ("", "{0} times as long as wide"),
            "angle" => ("", "at an angle of {0}"),
            "apex" => ("", "{0} at the tip"),
            "base-form" => ("", "{0} at the base"),
            "widest" => ("", "widest {0}"),
            "fruit-type" => ("", An(value) + " {0}"),
            // Flowers stand in a raceme; an inflorescence is one.
            "inflorescence-type" when character.Organ == Organ.Flower && !value.StartsWith("single", StringComparison.Ordinal) => (
                "",
                $"in {An(value)} {{0}}"
            ),
            // "Round" alone would be an outline, or a ball.
            "section" when Ambiguous.Any(a => value.StartsWith(a, StringComparison.Ordinal)) => ("", "{0} in section"),
            "hair-form" or "hair-length" or "hair-texture" or "hair-attitude" or "hair-place" or "hair-colour" => ("hairs", "{0}"),
            "gland-form" or "gland-place" => ("glands", "{0}"),
            "tooth-shape" or "tooth-size" => ("teeth", "{0}"),
            "edge-colour" or "edge-rolling" or "edge-waviness" or "margin-hairs" => ("margin", "{0}"),
            "vein-prominence" => ("veins", "{0}"),
            "vein-run" => ("side veins", "ending {0}"),
            "lobe-attitude" => ("lobes", "{0}"),
            "sap" => ("sap", "{0}"),
            "vernation" => ("", "{0} in the bud"),
            "aestivation" => ("", "{0} in the flower bud"),
            "scar-pattern" => ("bundle scars", "{0}"),
            "seed-number-class" => ("seeds", "{0}"),
            "spore-ornament" => ("spores", "{0}"),
            "lenticel-form" => ("lenticels", "{0}"),
            "stamen-lengths" => ("stamens", "{0}"),
            "crown-form" => ("crown", "{0}"),
            _ => ("", "{0}"),
        };

    private static readonly string[] Ambiguous = ["round", "half round", "flat", "square"];

    private static string An(string noun) => noun.Length > 0 && "aeiou".Contains(noun[0], StringComparison.Ordinal) ? "an" : "a";

    // "glands of the petiole", as the nouns of the character say it; of one alone its plural.
    private static string Counted(CharacterId id, Character character) =>
        id.Owner.Length > 0 ? $"{PartName(id.Part)}s of the {PartName(id.Owner)}"
        : character.Nouns.Count > 1 ? character.Nouns[1]
        : PartName(id.Part) + "s";

    private static string PartOf(CharacterId id) =>
        id.Owner.Length > 0 ? $"{PartName(id.Part)} of the {PartName(id.Owner)}" : PartName(id.Part);

    private static string PartName(string id) => id.Replace('-', ' ');

    // Of the older characters, which weren't made of part and quality.
    private static readonly Dictionary<string, string> Phrases = new(StringComparer.Ordinal)
    {
        ["growth-form"] = "{0}",
        ["height"] = "{0} high",
        ["branch-attitude"] = "branches {0}",
        ["branch-rooting"] = "branches {0}",
        ["suckers"] = "{0}",
        ["bark-texture"] = "{0}",
        ["bark-colour"] = "{0}",
        ["wing-width"] = "wings {0} wide",
        ["twig-wings"] = "{0}",
        ["twig-hairs"] = "{0}",
        ["thorn-length"] = "thorns {0} long",
        ["twig-sap"] = "sap {0}",
        ["pith"] = "pith {0}",
        ["twig-colour"] = "{0}",
        ["leaf-scars"] = "leaf scars {0}",
        ["bud-arrangement"] = "{0}",
        ["bud-scales"] = "with {0} scales",
        ["bud-scale-edges"] = "scales {0}",
        ["bud-length"] = "{0} long",
        ["bud-hairs"] = "{0}",
        ["bud-attitude"] = "{0}",
        ["bud-tip"] = "{0}",
        ["leaf-persistence"] = "{0}",
        ["leaf-arrangement"] = "{0}",
        ["leaf-division"] = "{0}",
        ["lobe-number"] = "with {0} lobes",
        ["lobe-depth"] = "cut {0}",
        ["leaflet-number"] = "with {0} leaflets",
        ["leaf-shape"] = "{0}",
        ["leaf-length"] = "{0} long",
        ["leaf-width"] = "{0} wide",
        ["leaf-ratio"] = "{0} times as long as wide",
        ["leaf-margin"] = "{0}",
        ["tooth-number"] = "with {0} teeth on each side",
        ["leaf-base"] = "{0} at the base",
        ["leaf-tip"] = "{0} at the tip",
        ["leaf-hairs-beneath"] = "hairs beneath: {0}",
        ["leaf-upper-side"] = "{0} above",
        ["leaf-colour-beneath"] = "{0} beneath",
        ["leaf-colour"] = "{0}",
        ["petiole-length"] = "petiole {0} long",
        ["petiole-to-blade"] = "petiole {0}",
        ["stipules"] = "stipules {0}",
        ["flower-colour"] = "{0}",
        ["petal-number"] = "petals {0}",
        ["petal-length"] = "petals {0} long",
        ["stamen-number"] = "stamens {0}",
        ["stamen-place"] = "stamens {0}",
        ["style-number"] = "styles {0}",
        ["ovary-place"] = "ovary {0}",
        ["stem-section"] = "{0}",
        ["stem-attitude"] = "{0}",
        ["stem-hairs"] = "{0}",
        ["stem-interior"] = "{0}",
        ["leaf-venation"] = "{0}",
        ["leaf-substance"] = "{0}",
        ["life-span"] = "{0}",
        ["inflorescence-type"] = "{1} {0}",
        ["fruit-type"] = "{1} {0}",
        ["fruit-length"] = "{0} long",
        ["fruit-colour"] = "{0}",
        ["fruit-hairs"] = "{0}",
        ["fruit-condition"] = "{0}",
        ["fruit-stalk-length"] = "on stalks {0} long",
        ["fruit-wing-angle"] = "wings {0}",
        ["flower-symmetry"] = "{0}",
        ["ligule-length"] = "ligule {0} long",
        ["habitat-kind"] = "{0}",
    };

    // Floras say what is seen first before what is measured, and that before what a lens shows.
    private static readonly Dictionary<string, int> Rank = Phrases
        .Keys.Select((id, at) => (id, at))
        .ToDictionary(p => p.id, p => p.at, StringComparer.Ordinal);

    /// <summary>What the sentence of an organ is about: "Leaves", "Stem".</summary>
    public static string Subject(Organ organ) =>
        organ switch
        {
            Organ.Habit => "Plant",
            Organ.Twig => "Twigs",
            Organ.Bud => "Buds",
            Organ.Leaf => "Leaves",
            Organ.Flower => "Flowers",
            Organ.Underground => "Underground parts",
            _ => organ.ToString(),
        };
}
