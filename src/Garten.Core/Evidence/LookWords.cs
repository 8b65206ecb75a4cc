using System.Text.Json;
using Garten.Core.Characters;

namespace Garten.Core.Evidence;

/// <summary>A field of the context of a look, with what can be said in it.</summary>
/// <param name="Field">Its name in JSON.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Values">Each value as it stands in JSON, with its words as a choice.</param>
public sealed record ContextChoice(string Field, string Label, IReadOnlyList<(string Value, string Words)> Values);

/// <summary>Looks at a plant in words.</summary>
public static class LookWords
{
    private const string NotSaid = "not said";

    /// <summary>How sure a look is.</summary>
    public static IReadOnlyDictionary<Sureness, string> Surenesses { get; } =
        new Dictionary<Sureness, string>
        {
            [Sureness.Sure] = "sure",
            [Sureness.Fairly] = "fairly sure",
            [Sureness.Guess] = "a guess",
        };

    /// <summary>What can be said of the part that was looked at.</summary>
    public static IReadOnlyList<ContextChoice> Choices { get; } =
    [
        Choice("light", "Light", (Light.Unsaid, NotSaid), (Light.Sun, "sun"), (Light.Shade, "shade")),
        Choice(
            "position",
            "Position",
            (Position.Unsaid, NotSaid),
            (Position.Low, "low"),
            (Position.Middle, "middle"),
            (Position.Top, "top")
        ),
        Choice(
            "stage",
            "Stage of the plant",
            (Stage.Unsaid, NotSaid),
            (Stage.Seedling, "seedling"),
            (Stage.Sapling, "sapling"),
            (Stage.Juvenile, "juvenile"),
            (Stage.Adult, "adult")
        ),
        Choice(
            "age",
            "Age of the part",
            (PartAge.Unsaid, NotSaid),
            (PartAge.Young, "young, this year’s"),
            (PartAge.Grown, "full-grown"),
            (PartAge.Old, "old, worn or fading")
        ),
        Choice(
            "shaping",
            "Shaping",
            (Shaping.Unsaid, "none known"),
            (Shaping.Browsed, "browsed"),
            (Shaping.Mown, "mown"),
            (Shaping.Clipped, "clipped or trained"),
            (Shaping.Resprouting, "resprouting"),
            (Shaping.Drought, "dried out")
        ),
        Choice(
            "material",
            "Looked at",
            (Material.Unsaid, NotSaid),
            (Material.Fresh, "fresh"),
            (Material.Wilted, "wilted"),
            (Material.Pressed, "pressed"),
            (Material.Photograph, "in a photograph")
        ),
        Choice(
            "damage",
            "Damage of the part",
            (Damage.Unsaid, "none known"),
            (Damage.Gall, "gall"),
            (Damage.Fungus, "fungus"),
            (Damage.Eaten, "eaten or mined")
        ),
        Choice("search", "How thoroughly", (Search.Unsaid, "at a glance"), (Search.Searched, "searched, no more found")),
        Choice(
            "attachment",
            "Attachment",
            (Attachment.Unsaid, NotSaid),
            (Attachment.Attached, "on the plant"),
            (Attachment.Beneath, "lying beneath"),
            (Attachment.PerhapsNeighbours, "perhaps a neighbour’s")
        ),
        Choice(
            "crowns",
            "Crowns above it",
            (CrownsAbove.Unsaid, NotSaid),
            (CrownsAbove.One, "this one alone"),
            (CrownsAbove.Two, "two, this one among them"),
            (CrownsAbove.Three, "three, this one among them"),
            (CrownsAbove.More, "four or more")
        ),
        Choice(
            "sex",
            "Sex of the part",
            (PartSex.Unsaid, NotSaid),
            (PartSex.Male, "male"),
            (PartSex.Female, "female"),
            (PartSex.Both, "both")
        ),
    ];

    /// <summary>What a look came to: "hairy or woolly", "12.4 13 11.8", "not found".</summary>
    /// <param name="look">The look.</param>
    /// <param name="character">Its character; null where it isn't known here: ids then stand for states.</param>
    public static string Seen(Observation look, Character? character)
    {
        ArgumentNullException.ThrowIfNull(look);
        if (look.Outcome == Outcome.NotFound)
            return "looked for, not found";
        var states = look.States.Select(id => character?.States.FirstOrDefault(s => s.Id == id)?.Name ?? id);
        var unit = character?.Kind == CharacterKind.Length ? " mm" : "";
        var readings = look.Readings.Select(r =>
            (r.Text.Length > 0 ? r.Text : string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{r.Value}{unit}"))
            + (r.Struck.Length > 0 ? $" (struck out: {r.Struck})" : "")
        );
        var said = string.Join(", ", readings.Append(string.Join(look.Together ? " and " : " or ", states)).Where(w => w.Length > 0));
        return look.Of > 0 ? $"{said}, {look.Show} of {look.Of} plants" : said;
    }

    /// <summary>Which part of the plant: "in the shade · low on the plant"; empty for the plain one.</summary>
    public static string Context(ObservationContext context)
    {
        ArgumentNullException.ThrowIfNull(context);
        return string.Join(
            " · ",
            new[]
            {
                context.Light switch
                {
                    Light.Shade => "in the shade",
                    Light.Sun => "in the sun",
                    _ => "",
                },
                context.Position == Position.Unsaid ? "" : $"{Word(context.Position)} on the plant",
                context.Stage == Stage.Unsaid ? "" : Word(context.Stage),
                context.Age == PartAge.Unsaid ? "" : $"{Word(context.Age)} part",
                context.Shaping == Shaping.Unsaid ? "" : Word(context.Shaping),
                context.Attachment switch
                {
                    Attachment.Beneath => context.Crowns switch
                    {
                        CrownsAbove.One => "lying beneath this crown alone",
                        CrownsAbove.Two => "lying beneath two crowns",
                        CrownsAbove.Three => "lying beneath three crowns",
                        CrownsAbove.More => "lying beneath four crowns or more",
                        _ => "lying beneath",
                    },
                    Attachment.PerhapsNeighbours => "perhaps a neighbour’s",
                    _ => "",
                },
                context.Sex == PartSex.Unsaid ? "" : Word(context.Sex),
                context.Material is Material.Unsaid or Material.Fresh ? "" : Word(context.Material),
                context.Damage switch
                {
                    Damage.Gall => "galled",
                    Damage.Fungus => "with a fungus",
                    Damage.Eaten => "eaten",
                    _ => "",
                },
                context.Search == Search.Unsaid ? "" : "searched, no more found",
                context.Gathered.Length > 0 ? $"gathered {context.Gathered}" : "",
                context.Bag.Length > 0 ? $"bag {context.Bag}" : "",
            }.Where(w => w.Length > 0)
        );
    }

    /// <summary>How it was looked at: "sure · in the shade · by lens".</summary>
    public static string Manner(Sureness sureness, ObservationContext context, Tool tool) =>
        string.Join(" · ", new[] { Surenesses[sureness], Context(context), $"by {Word(tool)}" }.Where(w => w.Length > 0));

    /// <summary>Whether nothing of the manner is worth a word: sure, of the plain part, by eye or ruler.</summary>
    public static bool IsPlain(Observation look)
    {
        ArgumentNullException.ThrowIfNull(look);
        return look.Sureness == Sureness.Sure && Context(look.Context).Length == 0 && look.Tool is Tool.Eye or Tool.Ruler;
    }

    private static ContextChoice Choice<T>(string field, string label, params (T Value, string Words)[] values)
        where T : struct, Enum =>
        new(field, label, [.. values.Select(v => (JsonNamingPolicy.CamelCase.ConvertName(v.Value.ToString()), v.Words))]);

    private static string Word<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());
}
