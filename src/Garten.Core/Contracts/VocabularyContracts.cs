using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Quantities;

namespace Garten.Core.Contracts;

/// <summary>Adds a part or a quality to the vocabulary, or changes one: its newest form counts. Exactly one of the two is given.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="Part">The part; null where a quality is defined.</param>
/// <param name="Quality">The quality with all of its states; null where a part is defined.</param>
public sealed record DefineTermCommand(Guid Id, Part? Part = null, Quality? Quality = null) : Command(Id);

/// <summary>A few words typed for what was seen.</summary>
/// <param name="Text">The words: "petiole glands 2".</param>
public sealed record FindCharacterRequest(string Text)
{
    // Nobody types more for one look.
    private const int Longest = 200;

    /// <summary>Finds what they may mean.</summary>
    /// <exception cref="RequestException">The text is too long.</exception>
    public IReadOnlyList<OfferedCharacter> Find(BotanyIndex botany)
    {
        ArgumentNullException.ThrowIfNull(botany);
        if (Text.Length > Longest)
            throw new RequestException("text", $"Type up to {Longest} characters: part, quality, and what it is like.");
        return [.. botany.Search.Find(Text).Select(f => OfferedCharacter.Of(f, botany))];
    }
}

/// <summary>A look that typed words may mean, ready to be recorded.</summary>
/// <param name="Character">The character.</param>
/// <param name="State">Id of the state; empty where the words name none.</param>
/// <param name="Readings">The numbers as readings; empty where there are none.</param>
/// <param name="InWords">What would be recorded, in words: "hairs of the petiole: densely hairy".</param>
/// <param name="Question">What is asked before it is recorded; empty where nothing is.</param>
public sealed record OfferedCharacter(Character Character, string State, IReadOnlyList<Reading> Readings, string InWords, string Question)
{
    /// <summary>Whether the words say all that a look needs.</summary>
    public bool IsWhole => State.Length > 0 || Readings.Count > 0;

    internal static OfferedCharacter Of(FoundCharacter found, BotanyIndex botany)
    {
        ArgumentNullException.ThrowIfNull(found);
        ArgumentNullException.ThrowIfNull(botany);
        var character = found.Character;
        var readings = found.Numbers.Length == 0 ? [] : Read(found.Numbers, character);
        var said =
            found.State.Length > 0 ? character.States[character.IndexOf(found.State)].Name
            : readings.Count > 0 ? string.Join(", ", readings.Select(r => ReadingText.Show(r.Value, character.Quantity)))
            : "";
        return new(
            character,
            found.State,
            readings,
            said.Length > 0 ? $"{character.Name}: {said}" : character.Name,
            found.IsUsual ? "" : $"Is “{character.Name}” what you mean? Parts of this kind are seldom looked at so."
        );
    }

    private static IReadOnlyList<Reading> Read(string numbers, Character character)
    {
        var line = ReadingText.Read(numbers, character.Quantity, MeasureUnit.Named(character.Unit), null);
        return line.Problems.Count == 0 ? line.Readings : [];
    }
}

/// <summary>A part whose qualities are wanted.</summary>
/// <param name="Part">Id of the part, with its owner where several parts have it: <c>petiole/gland</c>.</param>
/// <param name="Region">The face or region of it that is meant, one of <see cref="CharacterId.Regions"/>; empty for all of it.</param>
public sealed record PartQualitiesRequest(string Part, string Region = "")
{
    /// <summary>The characters that it usually has, those looked at most first; none where there is no such part.</summary>
    public IReadOnlyList<Character> Find(BotanyIndex botany)
    {
        ArgumentNullException.ThrowIfNull(botany);
        var owner = UsualOwner(botany);
        return
        [
            .. botany
                .Vocabulary.Qualities.Where(q => q.ReplacedBy is null)
                .Where(q => CharacterId.Read(IdOf(q, "")) is { } id && botany.Part(id.Part) is { } part && BotanyIndex.IsUsual(part, q))
                .Select(q => botany.Compose(IdOf(q, owner)))
                .OfType<Character>(),
        ];
    }

    // Of a part that several have, shown by itself, the first of these.
    private string UsualOwner(BotanyIndex botany)
    {
        if (botany.Part(Part) is not { IsOwned: true } part)
            return "";
        var first = part.Owners[0] == Botany.Part.AnyOwner ? "leaf" : part.Owners[0];
        return first + "/";
    }

    private string IdOf(Quality quality, string owner) => $"{owner}{Part}.{quality.Id}{(Region.Length > 0 ? "@" + Region : "")}";
}

/// <summary>All qualities, each on a part that shows it.</summary>
public sealed record QualitiesRequest
{
    // Parts that most qualities are seen on, those first that are drawn plainest.
    private static readonly string[] Shown =
    [
        "leaf",
        "petal",
        "stem",
        "bud",
        "twig",
        "bark",
        "corolla",
        "flower",
        "inflorescence",
        "fruit",
        "stamen",
        "ovary",
        "bundle-scar",
        "lenticel",
        "crown",
        "plant",
        "site",
        "soil",
    ];

    /// <summary>A character for each quality in use, in the order of the vocabulary.</summary>
    public static IReadOnlyList<Character> Find(BotanyIndex botany)
    {
        ArgumentNullException.ThrowIfNull(botany);
        var parts = Shown.Select(botany.Part).OfType<Part>().Concat(botany.Vocabulary.Parts.Where(p => !p.IsOwned)).ToList();
        return
        [
            .. botany
                .Vocabulary.Qualities.Where(q => q.ReplacedBy is null)
                .Select(q => parts.Find(p => BotanyIndex.IsUsual(p, q)) is { } part ? botany.Compose($"{part.Id}.{q.Id}") : null)
                .OfType<Character>(),
        ];
    }
}

/// <summary>Characters that are wanted by their ids.</summary>
/// <param name="Ids">Ids made of part and quality.</param>
public sealed record ComposedRequest(IReadOnlyList<string> Ids)
{
    /// <summary>Those that the vocabulary can make, in the order asked.</summary>
    public IReadOnlyList<Character> Find(BotanyIndex botany)
    {
        ArgumentNullException.ThrowIfNull(botany);
        return [.. Ids.Distinct(StringComparer.Ordinal).Select(botany.Compose).OfType<Character>()];
    }
}
