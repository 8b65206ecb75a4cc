using System.Collections.Concurrent;
using Garten.Core.Characters;
using Garten.Core.Seasons;

namespace Garten.Core.Botany;

/// <summary>Finds parts and qualities of a vocabulary, and makes characters of them. It never changes and may be shared.</summary>
public sealed class BotanyIndex
{
    // Whoever asks for more different characters than any flora has asks for nonsense; they are made each time then.
    private const int MostKept = 20_000;

    // Circles and chains of merged things end there.
    private const int DeepestChain = 20;

    private readonly Dictionary<string, Part> _parts;
    private readonly Dictionary<string, Quality> _qualities;
    private readonly ConcurrentDictionary<string, Character?> _characters = new(StringComparer.Ordinal);
    private readonly Lazy<Bearing> _bearing;
    private readonly Lazy<BotanySearch> _search;

    /// <summary>Makes it.</summary>
    /// <param name="vocabulary">The vocabulary; of two parts or qualities of one id the first counts.</param>
    /// <param name="version">Hash of its content; empty where none is known.</param>
    public BotanyIndex(Vocabulary vocabulary, string version = "")
    {
        ArgumentNullException.ThrowIfNull(vocabulary);
        ArgumentNullException.ThrowIfNull(version);
        (Vocabulary, Version) = (vocabulary, version);
        _parts = vocabulary.Parts.DistinctBy(p => p.Id).ToDictionary(p => p.Id, StringComparer.Ordinal);
        _qualities = vocabulary.Qualities.DistinctBy(q => q.Id).ToDictionary(q => q.Id, StringComparer.Ordinal);
        _bearing = new(() => new Bearing(this));
        _search = new(() => new BotanySearch(this));
    }

    /// <summary>The vocabulary.</summary>
    public Vocabulary Vocabulary { get; }

    /// <summary>Hash of its content; empty where none is known.</summary>
    public string Version { get; }

    /// <summary>What one character says of another one.</summary>
    public Bearing Bearing => _bearing.Value;

    /// <summary>Finds characters by a few typed words.</summary>
    public BotanySearch Search => _search.Value;

    /// <summary>The part of this id, or the one that it was merged into; null where there is none.</summary>
    public Part? Part(string id)
    {
        var part = _parts.GetValueOrDefault(id);
        for (var steps = 0; part?.ReplacedBy is { } next && steps < DeepestChain; steps++)
            part = _parts.GetValueOrDefault(next);
        return part;
    }

    /// <summary>The quality of this id, or the one that it was merged into; null where there is none.</summary>
    public Quality? Quality(string id)
    {
        var quality = _qualities.GetValueOrDefault(id);
        for (var steps = 0; quality?.ReplacedBy is { } next && steps < DeepestChain; steps++)
            quality = _qualities.GetValueOrDefault(next);
        return quality;
    }

    /// <summary>An id with what its part, owner and quality were merged into.</summary>
    public CharacterId Resolve(CharacterId id) =>
        Canonical(
            id with
            {
                Owner = id.Owner.Length > 0 ? Part(id.Owner)?.Id ?? id.Owner : "",
                Part = Part(id.Part)?.Id ?? id.Part,
                Quality = Quality(id.Quality)?.Id ?? id.Quality,
            }
        );

    /// <summary>The parts that a part is a part of, from the nearest one up to the whole plant.</summary>
    public IEnumerable<Part> Wholes(Part part)
    {
        ArgumentNullException.ThrowIfNull(part);
        var at = part;
        for (var steps = 0; steps < DeepestChain && at.Parent.Length > 0; steps++)
        {
            if (Part(at.Parent) is not { } whole)
                yield break;
            yield return at = whole;
        }
    }

    /// <summary>Whether a part can have another one: it, or a part of its kind that it belongs to (the basal leaf to the leaf), is among
    /// its owners, or any can.</summary>
    public bool CanOwn(Part owner, Part owned)
    {
        ArgumentNullException.ThrowIfNull(owner);
        ArgumentNullException.ThrowIfNull(owned);
        if (owned.Owners.Count == 0 || owner.Id == owned.Id)
            return false;
        return owned.Owners.Contains(Botany.Part.AnyOwner)
            || owned.Owners.Contains(owner.Id)
            || Wholes(owner).TakeWhile(w => w.Class == owner.Class).Any(w => owned.Owners.Contains(w.Id));
    }

    /// <summary>Whether a part usually has a quality. One that it hasn't may be meant all the same: it is asked then.</summary>
    public static bool IsUsual(Part part, Quality quality)
    {
        ArgumentNullException.ThrowIfNull(part);
        ArgumentNullException.ThrowIfNull(quality);
        foreach (var applies in quality.Applies)
        {
            if (
                applies == Botany.Quality.AnyPart
                || applies == part.Id
                || string.Equals(applies, NameOf(part.Class), StringComparison.OrdinalIgnoreCase)
            )
                return true;
        }
        return false;
    }

    /// <summary>Whether a part usually has a state of a quality that it usually has: seeds stand in rows, but not opposite.</summary>
    public static bool IsUsual(Part part, Quality quality, string state)
    {
        ArgumentNullException.ThrowIfNull(part);
        ArgumentNullException.ThrowIfNull(quality);
        if (!IsUsual(part, quality))
            return false;
        foreach (var applies in quality.Applies)
        {
            if (
                applies.StartsWith('!')
                && applies.IndexOf(':', StringComparison.Ordinal) is > 1 and var colon
                && applies[1..colon] == part.Id
                && applies[(colon + 1)..].Split('/').Contains(state)
            )
                return false;
        }
        return true;
    }

    // Asked very often, and slow to make where the core runs interpreted.
    private static readonly string[] ClassNames = Array.ConvertAll(Enum.GetNames<PartClass>(), n => n.ToLowerInvariant());

    /// <summary>A class of parts as tables name it: in small letters.</summary>
    internal static string NameOf(PartClass of) => ClassNames[(int)of];

    // What is said of the hairs, the tip or the edge of a part is a quality of that part.
    private static readonly Dictionary<string, string[]> Carried = new(StringComparer.Ordinal)
    {
        ["hair"] = ["hair-"],
        ["gland"] = ["gland-"],
        ["tip"] = ["apex"],
        ["base"] = ["base-form"],
        ["margin"] = ["margin", "edge-", "tooth-"],
        ["tooth"] = ["tooth-"],
        ["vein"] = ["venation", "vein-"],
        ["lobe"] = ["lobe-depth"],
    };

    /// <summary>The one id of a character that could be named in two ways: the tip of the leaf is acute, the leaf has an acute
    /// tip.</summary>
    public CharacterId Canonical(CharacterId id)
    {
        if (id.Owner.Length == 0)
            return id;
        // The axis of the leaf is the axis where nothing else is said.
        if (Part(id.Part) is { } part && part.Parent == id.Owner)
            return id with { Owner = "" };
        if (!Carried.TryGetValue(id.Part, out var qualities))
            return id;
        foreach (var quality in qualities)
        {
            if (id.Quality.StartsWith(quality, StringComparison.Ordinal))
                return new CharacterId("", id.Owner, id.Quality, id.Region);
        }
        return id;
    }

    /// <summary>The character of an id; null where its part, its owner or its quality isn't in the vocabulary, or the owner can't have the
    /// part, or the part needs one and the id names none.</summary>
    public Character? Compose(string id)
    {
        ArgumentNullException.ThrowIfNull(id);
        if (!CharacterId.IsComposed(id))
            return null;
        if (_characters.TryGetValue(id, out var known))
            return known;
        var made = Make(id);
        if (_characters.Count < MostKept)
            _characters.TryAdd(id, made);
        return made;
    }

    private Character? Make(string id)
    {
        if (
            CharacterId.Read(id) is not { } read
            || Canonical(read) != read
            || Part(read.Part) is not { } part
            || Quality(read.Quality) is not { } quality
        )
            return null;
        var owner = read.Owner.Length > 0 ? Part(read.Owner) : null;
        // Glands are glands of something: without an owner such a part is none that anybody could look at.
        if (read.Owner.Length > 0 ? owner is null || !CanOwn(owner, part) : part.IsOwned)
            return null;
        // A region that isn't one is the part that the length is compared with.
        if (read.Region.Length > 0 && !CharacterId.Regions.Contains(read.Region) && (Part(read.Region) is null || read.Region == read.Part))
            return null;
        var organ = owner?.Organ ?? part.Organ;
        IReadOnlyList<string> nouns = owner is null
            ? part.Nouns
            : [.. part.Nouns.SelectMany(n => new[] { $"{n} of the {owner.Name}", $"{owner.Name} {n}" })];
        // What can't be seen can't be seen of its parts either.
        var seen = owner is { SeenIn.Count: > 0 } ? owner.SeenIn : part.SeenIn;
        // Buds are set from midsummer: how they stand and what covers them shows then, colour, size and hairs from leaf fall.
        if (
            seen.Contains(Phenophase.RestingBud)
                && quality.Id is "arrangement" or "bud-cover" or "aestivation" or "insertion" or Presence or "bud-end"
            || seen.Contains(Phenophase.RestingBud) && part.Id == "bud-scale" && quality.Id is "number"
        )
            seen = [.. seen, Phenophase.BudsSet];
        return new Character(
            id,
            Name(part, owner, quality, read.Region),
            organ,
            quality.Kind,
            [
                .. quality
                    .States.OrderBy(s => s.ReplacedBy is not null)
                    .Select(s => new CharacterState(
                        s.Id,
                        // What was recorded with one that was merged counts as a kind of what it was merged into.
                        s.ReplacedBy
                            is { } into
                            ? $"{s.Name} (now {quality.Find(into)?.Name ?? into})"
                            : s.Name,
                        s.Definition,
                        s.ReplacedBy is null ? s.Terms : [],
                        s.ReplacedBy ?? (s.Broader.Length > 0 ? s.Broader : null),
                        s.DrawnAs,
                        s.Picture
                    )),
            ],
            nouns,
            quality.Measures,
            quality.Reliability,
            quality.Detection,
            quality.EffortSeconds,
            Most(Most(part.Tool, owner?.Tool ?? Tool.Eye), quality.Tool),
            (Handling)Math.Max((int)part.Handling, Math.Max((int)(owner?.Handling ?? Handling.Look), (int)quality.Handling)),
            seen,
            Unit: quality.Unit,
            Definition: quality.Definition,
            Trap: quality.Trap,
            SizeGroup: quality.Kind == CharacterKind.Length ? SizeGroup(organ) : ""
        );
    }

    // Of tools the one that shows more: a ruler adds nothing to a lens.
    private static Tool Most(Tool a, Tool b) => (Tool)Math.Max((int)a, (int)b);

    // Sizes of one organ vary together on a plant.
    private static string SizeGroup(Organ organ) =>
        organ switch
        {
            Organ.Leaf => "leaf",
            Organ.Flower => "flower",
            Organ.Fruit => "fruit",
            Organ.Twig or Organ.Bud => "twig",
            _ => "",
        };

    /// <summary>The part with its owner in words: "gland of the petiole".</summary>
    public static string PartName(Part part, Part? owner)
    {
        ArgumentNullException.ThrowIfNull(part);
        return owner is null ? part.Name : $"{part.Name} of the {owner.Name}";
    }

    /// <summary>The name of a character: "hairs of the petiole", "number of bundle scars", "colour beneath the leaf".</summary>
    public static string Name(Part part, Part? owner, Quality quality, string region)
    {
        ArgumentNullException.ThrowIfNull(part);
        ArgumentNullException.ThrowIfNull(quality);
        var whole = PartName(part, owner);
        // "length of the petal beside the sepal".
        if (quality.Id == CharacterId.Comparing && region.Length > 0)
            return $"length of the {whole} beside the {region.Replace('-', ' ')}";
        var where = region switch
        {
            "above" or "beneath" => $" {region} the ",
            "inside" or "outside" => $" {region} the ",
            "base" or "middle" or "tip" => $" at the {region} of the ",
            _ => " of the ",
        };
        if (quality.Kind == CharacterKind.Count)
        {
            // "number on each side" and its like say where they are counted.
            var place = quality.Name.StartsWith(Number + " ", StringComparison.Ordinal) ? quality.Name[Number.Length..] : "";
            return $"number of {part.Plural}{(owner is null ? "" : $" of the {owner.Name}")}{place}";
        }
        // The plant as a whole and its place need no "of": "growth form", "habitat".
        return part.Class == PartClass.Place || part.Id == WholePlant && region.Length == 0
            ? quality.Name
            : $"{quality.Name}{where}{whole}";
    }

    private const string Number = "number";

    /// <summary>Id of the whole plant.</summary>
    public const string WholePlant = "plant";

    /// <summary>Id of the quality that says whether a part is there.</summary>
    public const string Presence = "presence";
}
