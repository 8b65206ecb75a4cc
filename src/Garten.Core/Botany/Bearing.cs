using System.Collections.Concurrent;
using Garten.Core.Characters;

namespace Garten.Core.Botany;

/// <summary>What something that holds says of something else.</summary>
public enum Bears
{
    /// <summary>Nothing: both may hold.</summary>
    Open,

    /// <summary>The other holds too.</summary>
    Entails,

    /// <summary>The other can't hold.</summary>
    Excludes,
}

/// <summary>One thing that is said of a plant: a part has a state.</summary>
/// <param name="Character">Part, quality and region.</param>
/// <param name="State">Id of the state of the quality.</param>
public readonly record struct Saying(CharacterId Character, string State);

/// <summary>
/// How one character speaks of another: a whole for its parts ("plant hairless" says so of stem and leaf), a finer state for a coarser one
/// (decussate is opposite), a part for its absence (without petals no petal is red), a quality for another one (where hairs are forked
/// there are hairs). States of older characters are read by what the vocabulary says they mean.
/// </summary>
public sealed class Bearing
{
    // States that say of a part as a whole that something is nowhere on it: they hold of each of its faces and parts.
    private static readonly HashSet<string> Nowhere = new(StringComparer.Ordinal)
    {
        "absent",
        "none",
        "glabrous",
        "not-ciliate",
        "not-sticky",
    };

    // Qualities of a coat that a whole has where any of its parts has it.
    private const string Hairs = "hair-density";

    private readonly BotanyIndex _botany;
    private readonly Dictionary<(string Character, string State), Saying[]> _meanings = [];
    private readonly Dictionary<string, List<Implication>> _implications;
    private readonly ConcurrentDictionary<(string From, string To), Bears[,]?> _tables = new();
    private readonly ConcurrentDictionary<string, CharacterId[]> _spoken = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<string, int[]> _dimensions = new(StringComparer.Ordinal);
    private readonly ConcurrentDictionary<CharacterId, int> _dimensionNumbers = new();
    private int _lastNumber;

    // So many characters are looked at by nobody.
    private const int MostCharacters = 50_000;

    internal Bearing(BotanyIndex botany)
    {
        _botany = botany;
        foreach (var meaning in botany.Vocabulary.Meanings)
            _meanings.TryAdd((meaning.Character, meaning.State), [.. meaning.Says.Select(Read).OfType<Saying>()]);
        _implications = botany
            .Vocabulary.Implications.GroupBy(i => i.Quality, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.ToList(), StringComparer.Ordinal);
    }

    /// <summary>Reads "petiole.hair-density=glabrous"; null where it is no such thing. A measured character has no state.</summary>
    public static Saying? Read(string says)
    {
        ArgumentNullException.ThrowIfNull(says);
        var equals = says.IndexOf('=', StringComparison.Ordinal);
        var (id, state) = equals < 0 ? (says, "") : (says[..equals], says[(equals + 1)..]);
        return CharacterId.Read(id) is { } character ? new Saying(character, state) : null;
    }

    /// <summary>What a state of a character says in parts and qualities; empty where nothing is known of it.</summary>
    /// <param name="character">Id of the character.</param>
    /// <param name="state">Id of the state; empty for a measured one.</param>
    public IReadOnlyList<Saying> Sayings(string character, string state) =>
        CharacterId.Read(character) is { } id
            ? [new Saying(_botany.Resolve(id), state)]
            : _meanings.GetValueOrDefault((character, state)) ?? [];

    /// <summary>Whether two measured characters are one and the same number.</summary>
    public bool IsSameMeasure(string one, string other)
    {
        var (a, b) = (Sayings(one, ""), Sayings(other, ""));
        return a.Count == 1 && b.Count == 1 && a[0] == b[0];
    }

    /// <summary>What a state of one character says of a state of another one.</summary>
    public Bears Of(string character, string state, string other, string otherState)
    {
        var (says, others) = (Sayings(character, state), Sayings(other, otherState));
        if (says.Count == 0 || others.Count == 0)
            return Bears.Open;
        foreach (var a in says)
        {
            foreach (var b in others)
            {
                if (Of(a, b) == Bears.Excludes || Of(b, a) == Bears.Excludes)
                    return Bears.Excludes;
            }
        }
        return others.All(b => says.Any(a => Of(a, b) == Bears.Entails)) ? Bears.Entails : Bears.Open;
    }

    /// <summary>Per state of one character and state of another one what the first says of the second; null where all is open.</summary>
    /// <param name="from">The one.</param>
    /// <param name="to">The other.</param>
    public Bears[,]? Table(Character from, Character to)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(to);
        return _tables.GetOrAdd(
            (from.Id, to.Id),
            static (_, of) =>
            {
                var (bearing, from, to) = of;
                if (!bearing.Meet(from, to))
                    return null;
                var table = new Bears[from.States.Count, to.States.Count];
                var says = false;
                for (var a = 0; a < from.States.Count; a++)
                {
                    for (var b = 0; b < to.States.Count; b++)
                    {
                        table[a, b] = bearing.Of(from.Id, from.States[a].Id, to.Id, to.States[b].Id);
                        says |= table[a, b] != Bears.Open;
                    }
                }
                return says ? table : null;
            },
            (this, from, to)
        );
    }

    // Whether two characters speak of one part, of a part and a whole, or of two parts laid beside each other: of others nothing follows,
    // and most pairs are such, so that their states needn't be held against each other.
    private bool Meet(Character one, Character other)
    {
        var others = Spoken(other);
        return Array.Exists(Spoken(one), a =>
            Array.Exists(others, b => a.Path == b.Path || IsReversed(a, b) || IsWithin(a, b) || IsWithin(b, a))
        );
    }

    // The qualities of parts that a character speaks of.
    private CharacterId[] Spoken(Character character)
    {
        if (_spoken.TryGetValue(character.Id, out var known))
            return known;
        if (_spoken.Count >= MostCharacters)
            _spoken.Clear();
        var says = character.IsQuantity ? Sayings(character.Id, "") : character.States.SelectMany(s => Sayings(character.Id, s.Id));
        return _spoken[character.Id] = [.. says.Select(s => s.Character).Distinct()];
    }

    /// <summary>The qualities of parts that a character speaks of, as numbers that mean something within this bearing alone; in rising
    /// order. Sheets are put together at every look, so they are worked out once.</summary>
    internal int[] Dimensions(Character character)
    {
        if (_dimensions.TryGetValue(character.Id, out var known))
            return known;
        if (_dimensions.Count >= MostCharacters)
            _dimensions.Clear();
        return _dimensions[character.Id] = [
            .. Spoken(character)
                .Select(c => _dimensionNumbers.GetOrAdd(c, static (_, of) => Interlocked.Increment(ref of._lastNumber), this))
                .Order(),
        ];
    }

    /// <summary>Whether two lists of numbers in rising order have one in common.</summary>
    internal static bool Shares(int[] one, int[] other)
    {
        for (int a = 0, b = 0; a < one.Length && b < other.Length; )
        {
            if (one[a] == other[b])
                return true;
            if (one[a] < other[b])
                a++;
            else
                b++;
        }
        return false;
    }

    /// <summary>What one thing that is said says of another one.</summary>
    public Bears Of(Saying a, Saying b)
    {
        foreach (var own in Closure(a))
        {
            var says = Direct(own, b);
            if (says != Bears.Open)
                return says;
        }
        return Bears.Open;
    }

    /// <summary>A thing that is said with all that it says of other qualities of the same part.</summary>
    public IReadOnlyList<Saying> Closure(Saying a)
    {
        var all = new List<Saying> { a };
        // An absence of what a quality tells of says nothing of its kind: "no glands" isn't a kind of them.
        if (!Nowhere.Contains(a.State))
        {
            foreach (var implication in _implications.GetValueOrDefault(a.Character.Quality) ?? [])
            {
                if (implication.State == Implication.EachState || implication.State == a.State)
                    all.Add(new Saying(a.Character with { Quality = implication.Implies }, implication.Implied));
            }
            if (a.Character.Quality != BotanyIndex.Presence && a.Character.Region.Length == 0)
                all.Add(new Saying(a.Character with { Quality = BotanyIndex.Presence }, "present"));
        }
        return all;
    }

    private Bears Direct(Saying a, Saying b)
    {
        var isAbsent = a.Character.Quality == BotanyIndex.Presence && a.State == "absent";
        if (a.Character.Path == b.Character.Path)
        {
            if (a.Character.Quality == b.Character.Quality)
                return SameQuality(a, b);
            // Without the part it has no quality; what is said of its absence itself is its presence.
            return isAbsent ? Bears.Excludes : Bears.Open;
        }
        // Petals longer than the sepals are sepals shorter than the petals.
        if (IsReversed(a.Character, b.Character))
            return Of(_botany.Quality(a.Character.Quality), Reversed.GetValueOrDefault(a.State, a.State), b.State);
        if (isAbsent && IsWithin(b.Character, a.Character))
            return Nowhere.Contains(b.State) ? Bears.Open : Bears.Excludes;
        if (a.Character.Quality != b.Character.Quality || a.Character.Quality != Hairs)
            return Bears.Open;
        // A whole without hairs has none on its parts; one with hairs somewhere may have them anywhere.
        if (a.State == "glabrous" && a.Character.Region.Length == 0 && IsWithin(b.Character, a.Character))
            return Of(_botany.Quality(Hairs), "glabrous", b.State);
        return Bears.Open;
    }

    private static readonly Dictionary<string, string> Reversed = new(StringComparer.Ordinal)
    {
        ["much-shorter"] = "much-longer",
        ["shorter"] = "longer",
        ["longer"] = "shorter",
        ["much-longer"] = "much-shorter",
    };

    private static bool IsReversed(CharacterId a, CharacterId b) =>
        a.Quality == CharacterId.Comparing
        && b.Quality == CharacterId.Comparing
        && a.Owner.Length == 0
        && b.Owner.Length == 0
        && a.Part == b.Region
        && a.Region == b.Part;

    private Bears SameQuality(Saying a, Saying b)
    {
        var quality = _botany.Quality(a.Character.Quality);
        var (own, other) = (a.Character.Region, b.Character.Region);
        if (own == other)
            return Of(quality, a.State, b.State);
        // Of the part as a whole only an absence is said of each of its faces, and only a presence on a face contradicts it.
        if (own.Length == 0 && Nowhere.Contains(a.State))
            return Of(quality, a.State, b.State);
        return Bears.Open;
    }

    private static Bears Of(Quality? quality, string a, string b)
    {
        if (a == b)
            return Bears.Entails;
        if (quality is null || quality.Find(a) is not { } one || quality.Find(b) is not { } other)
            return Bears.Open;
        if (one.ReplacedBy == b || other.ReplacedBy == a)
            return Bears.Entails;
        if (IsKind(quality, one, b))
            return Bears.Entails;
        if (IsKind(quality, other, a))
            return Bears.Open;
        if (one.Near == b || other.Near == a)
            return Bears.Open;
        return quality.Several && !Nowhere.Contains(a) && !Nowhere.Contains(b) ? Bears.Open : Bears.Excludes;
    }

    private static bool IsKind(Quality quality, QualityState state, string broader)
    {
        const int deepest = 10;
        for (var steps = 0; state.Broader.Length > 0 && steps < deepest; steps++)
        {
            if (state.Broader == broader)
                return true;
            if (quality.Find(state.Broader) is not { } next)
                return false;
            state = next;
        }
        return false;
    }

    // Whether a part is, or is owned by, a part of another one.
    private bool IsWithin(CharacterId part, CharacterId whole)
    {
        if (whole.Owner.Length > 0)
            return false;
        if (part.Owner.Length > 0)
            return part.Owner == whole.Part || _botany.Part(part.Owner) is { } owner && _botany.Wholes(owner).Any(w => w.Id == whole.Part);
        return _botany.Part(part.Part) is { } it && _botany.Wholes(it).Any(w => w.Id == whole.Part);
    }
}
