using System.Numerics;
using System.Text.RegularExpressions;
using Garten.Core.Characters;
using Garten.Core.Quantities;

namespace Garten.Core.Botany;

/// <summary>A character that typed words may mean.</summary>
/// <param name="Character">The character.</param>
/// <param name="State">Id of the state that the words name; empty where they name none.</param>
/// <param name="Numbers">The numbers among the words, as they are read by <see cref="ReadingText"/>; empty where there are none.</param>
/// <param name="IsUsual">Whether parts of this kind usually have the quality; else it should be asked.</param>
/// <param name="IsOwnerAssumed">Whether the words don't say of which part: none is named, or one that many have.</param>
/// <param name="Score">How well the words fit: larger is better; comparable within one search alone.</param>
public sealed record FoundCharacter(Character Character, string State, string Numbers, bool IsUsual, bool IsOwnerAssumed, double Score);

/// <summary>
/// Finds characters by a few typed words or beginnings of words: "petiole gl 2", "bundle sc", "rachis hairs dense". Every word has to be
/// used; what could be several things comes as several, the likeliest first.
/// </summary>
public sealed partial class BotanySearch
{
    /// <summary>No more than this is found.</summary>
    public const int MostFound = 24;

    // A whole word says more than the beginning of one; more letters say more than fewer.
    private const double WholeWord = 3;
    private const double Beginning = 1;

    // Of a part whose name has further words that weren't typed something is left open.
    private const double PerMissingWord = 0.7;

    // What only few parts have is meant less often.
    private const double Unusual = 2.5;
    private const double PerPlace = 0.01;
    private const int MostParts = 40;

    // A number without a unit is mostly a count.
    private const double Unmeasured = 1.5;

    // Where hairs, glands, edge or teeth aren't named, what is said is said of the part sooner than of these. With the part whose
    // qualities they are.
    private const double OfCoatUnsaid = 1;
    private static readonly (string Prefix, string Part)[] Coats =
    [
        ("hair", Hair),
        ("gland", "gland"),
        ("edge", "margin"),
        ("tooth", "tooth"),
        ("lenticel", "lenticel"),
    ];

    // A part that is named beside what it belongs to: "stamen filament". "Fruit achene" is sooner the fruit, which is an achene.
    private const double OfWhole = 0.5;

    // The hairs of a part are looked at by qualities of that part: how many there are and of what kind.
    private const string Hair = "hair";
    private const string HairQualities = "hair-";

    // Of a part that many have the usual owners are offered where none was named.
    private const double Ownerless = 0.3;
    private static readonly string[] UsualOwners = ["leaf", "stem", "twig", "petiole", "bud", "fruit", "flower"];

    // Where no part is named at all, those that are looked at most, in the order in which they are offered; each of its own kind only.
    private const double Partless = 1.2;
    private const double PerUsualPart = 0.3;
    private static readonly string[] UsualParts =
    [
        "leaf",
        "stem",
        "twig",
        "plant",
        "flower",
        "inflorescence",
        "fruit",
        "petal",
        "bud",
        "bark",
        "crown",
        "stamen",
        "ovary",
        "pith",
        "leaf-scar",
        "sorus",
        "seed",
        "husk",
        "site",
    ];

    // A length beside another part: "bract against ovary", "sepals longer than petals".
    private const double Compared = 4;
    private static readonly HashSet<string> Beside = new(StringComparer.Ordinal) { "against", "beside", "than", "versus", "vs" };
    private static readonly Dictionary<string, string> Longer = new(StringComparer.Ordinal)
    {
        ["longer"] = "longer",
        ["exceeding"] = "longer",
        ["shorter"] = "shorter",
    };

    // Words between others that say nothing by themselves.
    private static readonly HashSet<string> Small = new(StringComparer.Ordinal)
    {
        "of",
        "the",
        "a",
        "an",
        "with",
        "is",
        "are",
        "in",
        "its",
        "and",
        "on",
        "by",
    };

    private static readonly Dictionary<string, string> Faces = new(StringComparer.Ordinal)
    {
        ["above"] = "above",
        ["adaxial"] = "above",
        ["adaxially"] = "above",
        ["upperside"] = "above",
        ["beneath"] = "beneath",
        ["below"] = "beneath",
        ["abaxial"] = "beneath",
        ["abaxially"] = "beneath",
        ["underside"] = "beneath",
    };

    // "Upper surface" is a face; the upper leaf is another leaf.
    private static readonly string[] Surfaces = ["surface", "side", "face"];
    private static readonly Dictionary<string, string> FacesOfSurface = new(StringComparer.Ordinal)
    {
        ["upper"] = "above",
        ["lower"] = "beneath",
        ["inner"] = "inside",
        ["outer"] = "outside",
    };

    private sealed record Phrase(string[] Words, int Place);

    private readonly BotanyIndex _botany;
    private readonly HashSet<string> _groups;
    private readonly (Part Part, Phrase[] Names)[] _parts;
    private readonly (Quality Quality, Phrase[] Names, (QualityState State, Phrase[] Names)[] States)[] _qualities;

    internal BotanySearch(BotanyIndex botany)
    {
        _botany = botany;
        _groups = [.. botany.Vocabulary.Parts.SelectMany(p => p.Groups).SelectMany(g => new[] { g, g + "s", g + "es" })];
        _parts =
        [
            .. botany
                .Vocabulary.Parts.Where(p => p.ReplacedBy is null)
                .Select(p => (p, p.Nouns.Select((n, i) => new Phrase(Words(n), i)).ToArray())),
        ];
        _qualities =
        [
            .. botany
                .Vocabulary.Qualities.Where(q => q.ReplacedBy is null)
                .Select(q =>
                    (
                        q,
                        q.Measures.Prepend(q.Name).Append(q.Id).Select((n, i) => new Phrase(Words(n), i)).ToArray(),
                        q.States.Where(s => s.ReplacedBy is null)
                            .Select(s => (s, s.Terms.Prepend(s.Name).Distinct().Select((n, i) => new Phrase(Words(n), i)).ToArray()))
                            .ToArray()
                    )
                ),
        ];
    }

    /// <summary>Words of a text in small letters; hyphens join.</summary>
    internal static string[] Words(string text) =>
        [
            .. text.ToLowerInvariant()
                .Replace('‑', '-')
                .Replace('_', ' ')
                .Replace("’", "", StringComparison.Ordinal)
                .Replace("'", "", StringComparison.Ordinal)
                .Replace("color", "colour", StringComparison.Ordinal)
                .Replace("gray", "grey", StringComparison.Ordinal)
                .Replace("fiber", "fibre", StringComparison.Ordinal)
                .Split([' ', ',', ';', ':', '(', ')', '.', '/', '\t'], StringSplitOptions.RemoveEmptyEntries),
        ];

    /// <summary>What typed words may mean, the likeliest first, at most <see cref="MostFound"/>.</summary>
    public IReadOnlyList<FoundCharacter> Find(string text) => Find(text, isWhole: false);

    /// <summary>The characters that words name without a state, as headings of tables do: "petiole hairs", "number of bundle scars"; whole
    /// words alone count. The likeliest first.</summary>
    public IReadOnlyList<FoundCharacter> Named(string heading) => [.. Find(heading, isWhole: true).Where(f => f.State.Length == 0)];

    private List<FoundCharacter> Find(string text, bool isWhole)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (!isWhole)
            text = NumberBeforeWord().Replace(text, "$1 $2");
        var numbers = string.Join(' ', Numbers(text));
        var words = Words(text.Replace(",", " ", StringComparison.Ordinal))
            .Where(w => !char.IsAsciiDigit(w[0]) && !IsUnit(w) && !Small.Contains(w))
            .ToList();
        var region = words.Count > 2 ? TakeSurface(words) : "";
        if (region.Length == 0 && words.FindIndex(Faces.ContainsKey) is >= 0 and var face && words.Count > 1)
        {
            region = Faces[words[face]];
            words.RemoveAt(face);
        }
        if (words.Count == 0)
            return [];
        if (isWhole)
            return Found(words, region, numbers, isWhole);
        if (Group(words) is >= 0 and var group && !Array.Exists(_parts, p => Array.Exists(p.Names, n => n.Words.Contains(words[group]))))
            words.RemoveAt(group);
        var found = Found(words, region, numbers, isWhole);
        if (found.Count > 0 || Group(words) is not (>= 0 and var at))
            return found;
        words.RemoveAt(at);
        return Found(words, region, numbers, isWhole);
    }

    // "Orchid lip", "sedge sheath": the group says where such a part is found and is mostly no part itself.
    private int Group(List<string> words) => words.Count < 2 ? -1 : words.FindIndex(_groups.Contains);

    private List<FoundCharacter> Found(List<string> words, string region, string numbers, bool isWhole)
    {
        var found = new Dictionary<(string, string), FoundCharacter>();
        if (!isWhole)
            AddCompared(found, words);
        var usual = new int[_qualities.Length];
        foreach (var (part, owner, partScore, used, isAssumed) in Places(words, isWhole))
        {
            var left = words.Where((_, i) => (used & (1 << i)) == 0).ToArray();
            AddOf(found, (part, owner, partScore, isAssumed), left, (region, numbers, isWhole), usual);
        }
        return
        [
            .. found
                .Values.OrderByDescending(f => f.Score)
                .ThenBy(f => f.Character.Id, StringComparer.Ordinal)
                .ThenBy(f => f.State, StringComparer.Ordinal)
                .Take(MostFound),
        ];
    }

    private void AddCompared(Dictionary<(string, string), FoundCharacter> found, List<string> words)
    {
        var beside = words.FindIndex(Beside.Contains);
        if (beside < 1 || beside == words.Count - 1)
            return;
        var state = words.Take(beside).Select(w => Longer.GetValueOrDefault(w, "")).FirstOrDefault(s => s.Length > 0) ?? "";
        var first = words.Take(beside).Where(w => !Longer.ContainsKey(w) && w != "length").ToList();
        foreach (var (part, score) in Wholly(first))
        {
            foreach (var (other, otherScore) in Wholly(words[(beside + 1)..]))
            {
                var id = new CharacterId("", part.Id, CharacterId.Comparing, other.Id).ToString();
                if (_botany.Compose(id) is { } character)
                    found[(id, state)] = new(character, state, "", true, false, Compared + score + otherScore);
            }
        }
    }

    // Parts that all of some words name.
    private IEnumerable<(Part Part, double Score)> Wholly(List<string> words) =>
        _parts
            .Where(p => !p.Part.IsOwned)
            .Select(p => (p.Part, Best: Best(words, p.Names, isWhole: true)))
            .Where(p => p.Best.Used > 0 && p.Best.Used == (1 << words.Count) - 1)
            .Select(p => (p.Part, p.Best.Score));

    private static string TakeSurface(List<string> words)
    {
        var at = words.FindIndex(1, w => Array.Exists(Surfaces, s => s == w));
        if (at < 1 || !FacesOfSurface.TryGetValue(words[at - 1], out var region))
            return "";
        words.RemoveRange(at - 1, 2);
        return region;
    }

    // "3-lobed" is a number of lobes.
    [GeneratedRegex(@"\b(\d{1,3})-([a-z]{3,}?)(?:e?d)?\b", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex NumberBeforeWord();

    private static bool IsUnit(string word) => word is "mm" or "cm" or "m" or "µm";

    // What begins with a digit, with the unit behind it.
    private static IEnumerable<string> Numbers(string text)
    {
        var pieces = text.Split([' ', ',', ';', '\t'], StringSplitOptions.RemoveEmptyEntries);
        for (var i = 0; i < pieces.Length; i++)
        {
            if (!char.IsAsciiDigit(pieces[i][0]))
                continue;
            yield return i + 1 < pieces.Length && IsUnit(pieces[i + 1].ToLowerInvariant()) ? $"{pieces[i]} {pieces[i + 1]}" : pieces[i];
        }
    }

    // Parts that some of the words name, alone or with their owner, and which words these are (as bits).
    private List<(Part Part, Part? Owner, double Score, int Used, bool IsAssumed)> Places(List<string> words, bool isWhole)
    {
        var alone = new List<(Part Part, double Score, int Used)>();
        foreach (var (part, names) in _parts)
        {
            if (Best(words, names, isWhole) is { Used: > 0 } best)
                alone.Add((part, best.Score, best.Used));
        }
        var places = new List<(Part, Part?, double, int, bool)>();
        foreach (var (part, score, used) in alone)
        {
            if (!part.IsOwned)
                places.Add((part, null, score, used, false));
            else
            {
                var rank = 0;
                foreach (var owner in UsualOwners.Select(_botany.Part).OfType<Part>().Where(o => _botany.CanOwn(o, part)))
                    places.Add((part, owner, score - Ownerless - PerPlace * rank++, used, true));
            }
            foreach (var (owned, ownedScore, ownedUsed) in alone)
            {
                // A longer name takes the words that a shorter one would share with it.
                if ((used & ownedUsed) != 0)
                    continue;
                if (_botany.CanOwn(part, owned))
                    places.Add((owned, part, score + ownedScore, used | ownedUsed, false));
                else if (!isWhole && !owned.IsOwned && _botany.Wholes(owned).Contains(part))
                    places.Add((owned, null, ownedScore - OfWhole, used | ownedUsed, false));
            }
        }
        places = [.. places.OrderByDescending(p => p.Item3).Take(MostParts)];
        if (!isWhole)
        {
            foreach (var part in UsualParts.Select(_botany.Part).OfType<Part>())
                places.Add((part, null, -Partless, 0, true));
        }
        return places;
    }

    private void AddOf(
        Dictionary<(string, string), FoundCharacter> found,
        (Part Part, Part? Owner, double Score, bool IsAssumed) place,
        string[] left,
        (string Region, string Numbers, bool IsWhole) said,
        int[] usual
    )
    {
        var (region, numbers, isWhole) = said;
        var (part, owner, partScore, isAssumed) = place;
        var isUnnamed = isAssumed && owner is null;
        for (var q = 0; q < _qualities.Length; q++)
        {
            var (quality, names, states) = _qualities[q];
            if (part.Id == Hair && !quality.Id.StartsWith(HairQualities, StringComparison.Ordinal))
                continue;
            // A part that nobody named isn't guessed for a quality that it hasn't, nor for its being there.
            if (isUnnamed && (quality.Id is BotanyIndex.Presence or "number" or "pairs" || !BotanyIndex.IsUsual(part, quality)))
                continue;
            // Of each quality its first part comes before the second one of another.
            var rank = isUnnamed ? usual[q]++ : 0;
            var id = _botany.Canonical(new CharacterId(owner?.Id ?? "", part.Id, quality.Id, region));
            var of = id.Part == part.Id ? part : owner!;
            var score = partScore - q * PerPlace - rank * PerUsualPart - (BotanyIndex.IsUsual(of, quality) ? 0 : Unusual);
            if (numbers.Length > 0)
            {
                var hasUnit = numbers.Any(char.IsLetter);
                if (!quality.IsQuantity || hasUnit && quality.Kind != CharacterKind.Length)
                    continue;
                score -= hasUnit || quality.Kind == CharacterKind.Count ? 0 : Unmeasured;
            }
            var named = Best([.. left], names, isWhole);
            // "Twig red" is the twig before it is its hairs, and the form of lenticels isn't that of hairs on them.
            foreach (var (prefix, itself) in Coats)
            {
                if (
                    quality.Id.StartsWith(prefix + "-", StringComparison.Ordinal)
                    && part.Id != itself
                    && !Array.Exists(left, w => w.StartsWith(prefix, StringComparison.Ordinal))
                )
                    score -= OfCoatUnsaid;
            }
            var all = (1 << left.Length) - 1;
            void Add(string state, double extra)
            {
                if (_botany.Compose(id.ToString()) is not { } character)
                    return;
                var isUsual = state.Length > 0 ? BotanyIndex.IsUsual(of, quality, state) : BotanyIndex.IsUsual(of, quality);
                var (name, total) = ((character.Id, state), score + extra);
                if (!found.TryGetValue(name, out var known) || known.Score < total)
                    found[name] = new(character, state, quality.IsQuantity ? numbers : "", isUsual, isAssumed, total);
            }
            if (named.Used == all)
                Add("", named.Score);
            foreach (var (state, terms) in states)
            {
                var term = Best([.. left], terms, isWhole);
                if (term.Used != 0 && (term.Used | named.Used) == all)
                    Add(state.Id, term.Score + ((term.Used & named.Used) == 0 ? named.Score : 0));
            }
        }
    }

    // How well the words, or beginnings of them, name one of some names: each word of a name once.
    private static (double Score, int Used) Best(List<string> words, Phrase[] names, bool isWhole)
    {
        var best = (Score: 0d, Used: 0);
        foreach (var name in names)
        {
            var (score, used) = (0d, 0);
            foreach (var word in name.Words)
            {
                for (var i = 0; i < words.Count; i++)
                {
                    if ((used & (1 << i)) != 0 || !(isWhole ? word == words[i] : word.StartsWith(words[i], StringComparison.Ordinal)))
                        continue;
                    used |= 1 << i;
                    score += word.Length == words[i].Length ? WholeWord : Beginning + words[i].Length / (double)word.Length;
                    break;
                }
            }
            if (used == 0)
                continue;
            var count = BitOperations.PopCount((uint)used);
            if (isWhole && count < name.Words.Length)
                continue;
            score -= PerMissingWord * (name.Words.Length - count) + PerPlace * name.Place;
            var most = BitOperations.PopCount((uint)best.Used);
            if (count > most || count == most && score > best.Score)
                best = (score, used);
        }
        return best;
    }
}
