using System.Text.Json.Serialization;
using Garten.Core.Botany;
using Garten.Core.Floras;

namespace Garten.Core.Contracts;

/// <summary>What a thing is that was found.</summary>
[JsonConverter(typeof(CamelCaseWords<FoundKind>))]
public enum FoundKind
{
    /// <summary>A taxon of a flora.</summary>
    Taxon,

    /// <summary>A tagged plant.</summary>
    Plant,

    /// <summary>A place.</summary>
    Place,

    /// <summary>A key.</summary>
    Key,

    /// <summary>A term of the glossary: a part and a quality of it, or a state.</summary>
    Term,

    /// <summary>What is in flower or in fruit at a place now.</summary>
    Season,
}

/// <summary>Something that a search may find.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Id">Its id: of a taxon, plant or place; the hash of a key; the character of a term.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Words">Other words that find it, such as synonyms and common names.</param>
/// <param name="Note">What is said of it beside its name; empty: nothing.</param>
/// <param name="FloraId">The flora of a taxon; empty otherwise.</param>
/// <param name="State">The state of a term; empty: the quality itself.</param>
public sealed record Findable(
    FoundKind Kind,
    string Id,
    string Name,
    IReadOnlyList<string> Words,
    string Note = "",
    string FloraId = "",
    string State = ""
)
{
    /// <summary>A taxon of a flora: by its names, synonyms and common names.</summary>
    public static Findable Of(Taxon taxon, string floraId)
    {
        ArgumentNullException.ThrowIfNull(taxon);
        return new(
            FoundKind.Taxon,
            taxon.Id,
            taxon.Name,
            [taxon.CommonName, .. taxon.Facts?.CommonNames ?? [], .. taxon.Facts?.Synonyms ?? []],
            taxon.CommonName,
            floraId
        );
    }

    /// <summary>A tagged plant: by its tag and by the names that it bears.</summary>
    public static Findable Of(TaggedPlant plant)
    {
        ArgumentNullException.ThrowIfNull(plant);
        var names = string.Join(" or ", plant.Names);
        return new(
            FoundKind.Plant,
            plant.Id.ToString(),
            plant.Label.Length > 0 ? plant.Label : names,
            plant.Names,
            string.Join(", ", new[] { plant.Label.Length > 0 ? names : "", plant.PlaceName }.Where(t => t.Length > 0))
        );
    }

    /// <summary>A place: by its name, its cell of the grid and its habitats.</summary>
    public static Findable Of(Place place)
    {
        ArgumentNullException.ThrowIfNull(place);
        return new(FoundKind.Place, place.Id.ToString(), place.Name, [place.Cell, .. place.Habitats ?? []], place.Cell);
    }
}

/// <summary>A key by its title.</summary>
/// <param name="Hash">Hash of its newest version.</param>
/// <param name="Title">Its title.</param>
public sealed record TitledKey(string Hash, string Title);

/// <summary>What is searched on a device where no server does it: given to the core once, not at each letter.</summary>
/// <param name="Plants">Tagged plants.</param>
/// <param name="Places">Places.</param>
/// <param name="Keys">Keys.</param>
public sealed record SearchedThings(IReadOnlyList<TaggedPlant> Plants, IReadOnlyList<Place> Places, IReadOnlyList<TitledKey> Keys)
{
    /// <summary>Has a session hold them, in place of what it held before.</summary>
    /// <returns>How many things that are.</returns>
    public int Hold(CoreSession session)
    {
        ArgumentNullException.ThrowIfNull(session);
        session.Searched = this;
        return (Plants?.Count ?? 0) + (Places?.Count ?? 0) + (Keys?.Count ?? 0);
    }

    /// <summary>All of them as something to be found.</summary>
    public IEnumerable<Findable> All() =>
        (Plants ?? [])
            .Select(Findable.Of)
            .Concat((Places ?? []).Select(Findable.Of))
            .Concat((Keys ?? []).Select(k => new Findable(FoundKind.Key, k.Hash, k.Title, [])));
}

/// <summary>A search of what the session holds.</summary>
/// <param name="Text">What was typed.</param>
/// <param name="FloraId">A flora whose taxa are looked through too; null: none.</param>
public sealed record SearchRequest(string Text, string? FloraId = null)
{
    /// <summary>Finds as <see cref="SearchIndex.Find"/> does.</summary>
    /// <param name="session">What the host holds: things, parts and qualities, and the flora where one is asked for.</param>
    public IReadOnlyList<Findable> Find(CoreSession session)
    {
        ArgumentNullException.ThrowIfNull(session);
        return session.IndexWith(FloraId).Find(Text ?? "", session.Botany);
    }
}

/// <summary>Things that are searched, each with its words made ready once.</summary>
public sealed class SearchIndex
{
    /// <summary>Things that are answered at most.</summary>
    public const int MostFound = 20;

    /// <summary>Things of a kind that are answered at most, so that none crowds out the others.</summary>
    public const int MostOfKind = 6;

    /// <summary>Longest text that is looked for.</summary>
    public const int LongestText = 100;

    private static readonly string[] WordsOfFlower = ["flower", "flowers", "flowering", "bloom", "blooming", "blossom"];
    private static readonly string[] WordsOfFruit = ["fruit", "fruits", "fruiting", "berries", "seed"];
    private static readonly char[] BetweenWords = [' ', '-', ',', ':', '(', ')', '’', '\''];
    private readonly Entry[] _entries;

    /// <summary>Makes the words of some things ready.</summary>
    /// <param name="things">The things, in any order.</param>
    public SearchIndex(IEnumerable<Findable> things)
    {
        ArgumentNullException.ThrowIfNull(things);
        _entries = [.. things.Select(Entry.Of)];
    }

    /// <summary>Finds by the beginnings of words, in any order ("ve al" finds <i>Vellorna alba</i>): what bears just this name first, then
    /// names, then other words; of equals the shorter, and then by name. Words for flower or fruit find what is in season too.</summary>
    /// <param name="text">What was typed; of a longer one the first <see cref="LongestText"/> letters.</param>
    /// <param name="botany">Parts and qualities, whose terms are found; null: none are.</param>
    /// <returns>At most <see cref="MostFound"/> things, of a kind at most <see cref="MostOfKind"/>; none for a text without a
    /// letter.</returns>
    public IReadOnlyList<Findable> Find(string text, BotanyIndex? botany)
    {
        ArgumentNullException.ThrowIfNull(text);
        var parts = Folded(text.Length > LongestText ? text[..LongestText] : text)
            .Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (parts.Length == 0)
            return [];
        var plain = string.Join(' ', parts);
        List<(Findable It, int Rank)> found = [];
        foreach (var entry in _entries)
        {
            if (entry.RankOf(plain, parts) is var rank and < NotFound)
                found.Add((entry.It, rank));
        }
        return
        [
            .. Season(parts)
                .Concat(
                    found
                        .OrderBy(f => f.Rank)
                        .ThenBy(f => f.It.Name.Length)
                        .ThenBy(f => f.It.Name, StringComparer.Ordinal)
                        .Select(f => f.It)
                )
                .Concat(Terms(botany, text, parts))
                .GroupBy(it => it.Kind)
                .SelectMany(kind => kind.Take(MostOfKind))
                .Take(MostFound),
        ];
    }

    private const int NotFound = 4;

    // A thing with its words as they are compared.
    private sealed record Entry(Findable It, string Name, string[] Words, string[] OfName, string[] OfAll)
    {
        public static Entry Of(Findable it)
        {
            var name = Folded(it.Name);
            string[] words = [.. it.Words.Select(Folded)];
            return new(it, name, words, Split(name), Split(string.Join(' ', [name, .. words])));
        }

        // 0: just this name; 1: the name begins so; 2: words of the name; 3: other words.
        public int RankOf(string plain, string[] parts)
        {
            if (Name.StartsWith(plain, StringComparison.Ordinal))
                return Name.Length == plain.Length ? 0 : 1;
            if (Holds(OfName, parts))
                return 2;
            if (Array.IndexOf(Words, plain) >= 0)
                return 1;
            return Holds(OfAll, parts) ? 3 : NotFound;
        }
    }

    private static string[] Split(string text) => text.Split(BetweenWords, StringSplitOptions.RemoveEmptyEntries);

    // Each part begins a word of its own.
    private static bool Holds(string[] words, string[] parts)
    {
        bool[]? taken = null;
        foreach (var part in parts)
        {
            var at = 0;
            while (at < words.Length && (taken?[at] == true || !words[at].StartsWith(part, StringComparison.Ordinal)))
                at++;
            if (at == words.Length)
                return false;
            (taken ??= new bool[words.Length])[at] = true;
        }
        return true;
    }

    private static string Folded(string text) => NameFold.Plain(text);

    private static IEnumerable<Findable> Season(string[] parts)
    {
        if (Array.Exists(parts, p => WordsOfFlower.Contains(p, StringComparer.Ordinal)))
            yield return new Findable(FoundKind.Season, "flower", "In flower now", []);
        if (Array.Exists(parts, p => WordsOfFruit.Contains(p, StringComparer.Ordinal)))
            yield return new Findable(FoundKind.Season, "fruit", "In fruit now", []);
    }

    // The vocabulary guesses at what may be meant; here each word has to be one of the term.
    private static IEnumerable<Findable> Terms(BotanyIndex? botany, string text, string[] parts) =>
        botany is null
            ? []
            : botany
                .Search.Find(text)
                .Select(f => OfferedCharacter.Of(f, botany))
                .Where(it => Holds(Split(Folded(WordsOf(it))), parts))
                .Take(MostOfKind)
                .Select(it => new Findable(FoundKind.Term, it.Character.Id, it.InWords, [], State: it.State));

    private static string WordsOf(OfferedCharacter it) =>
        string.Join(' ', [it.InWords, .. it.Character.Nouns, .. it.Character.States.Where(s => s.Id == it.State).SelectMany(s => s.Terms)]);
}
