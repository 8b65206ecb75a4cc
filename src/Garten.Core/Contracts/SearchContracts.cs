using Garten.Core.Botany;
using Garten.Core.Floras;

namespace Garten.Core.Contracts;

/// <summary>What a thing is that was found.</summary>
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
);

/// <summary>A key by its title.</summary>
/// <param name="Hash">Hash of its newest version.</param>
/// <param name="Title">Its title.</param>
public sealed record TitledKey(string Hash, string Title);

/// <summary>A search of everything there is.</summary>
/// <param name="Text">What was typed.</param>
/// <param name="Plants">Tagged plants that are looked through.</param>
/// <param name="Places">Places.</param>
/// <param name="Keys">Keys.</param>
/// <param name="FloraId">A flora whose taxa are looked through; null: none.</param>
public sealed record SearchRequest(
    string Text,
    IReadOnlyList<TaggedPlant> Plants,
    IReadOnlyList<Place> Places,
    IReadOnlyList<TitledKey> Keys,
    string? FloraId = null
)
{
    /// <summary>Things that are answered at most.</summary>
    public const int MostFound = 20;

    /// <summary>Things of a kind that are answered at most, so that none crowds out the others.</summary>
    public const int MostOfKind = 6;

    /// <summary>Longest text that is looked for.</summary>
    public const int LongestText = 100;

    private static readonly string[] WordsOfFlower = ["flower", "flowers", "flowering", "bloom", "blooming", "blossom"];
    private static readonly string[] WordsOfFruit = ["fruit", "fruits", "fruiting", "berries", "seed"];

    /// <summary>Finds by the beginnings of words, in any order ("ve al" finds <i>Vellorna alba</i>): what bears just this name first, then
    /// names, then other words; of equals the shorter, and then by name. Words for flower or fruit find what is in season too.</summary>
    /// <param name="session">What the host holds: parts and qualities, and the flora where one is asked for.</param>
    public IReadOnlyList<Findable> Find(CoreSession session)
    {
        ArgumentNullException.ThrowIfNull(session);
        return Find(
            FloraId is { Length: > 0 } id && session.Flora is { } flora && flora.Pack.Id == id ? OfFlora(flora) : [],
            session.Botany
        );
    }

    /// <summary>The same among taxa that a host has besides.</summary>
    /// <param name="taxa">The taxa.</param>
    /// <param name="botany">Parts and qualities, whose terms are found; null: none are.</param>
    public IReadOnlyList<Findable> Find(IEnumerable<Findable> taxa, BotanyIndex? botany)
    {
        ArgumentNullException.ThrowIfNull(taxa);
        var text = Text ?? "";
        var parts = Folded(text.Length > LongestText ? text[..LongestText] : text)
            .Split(' ', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (parts.Length == 0)
            return [];
        var plain = string.Join(' ', parts);
        var found = (Plants ?? [])
            .Select(Of)
            .Concat((Places ?? []).Select(Of))
            .Concat((Keys ?? []).Select(k => new Findable(FoundKind.Key, k.Hash, k.Title, [])))
            .Concat(taxa)
            .Select(it => (It: it, Rank: RankOf(it, plain, parts)))
            .Where(f => f.Rank < NotFound)
            .OrderBy(f => f.Rank)
            .ThenBy(f => f.It.Name.Length)
            .ThenBy(f => f.It.Name, StringComparer.Ordinal)
            .Select(f => f.It)
            .ToList();
        return
        [
            .. Season(parts)
                .Concat(found)
                .Concat(Terms(botany, text, parts))
                .GroupBy(it => it.Kind)
                .SelectMany(kind => kind.Take(MostOfKind))
                .Take(MostFound),
        ];
    }

    private const int NotFound = 4;

    // 0: just this name; 1: the name begins so; 2: words of the name; 3: other words.
    private static int RankOf(Findable it, string plain, string[] parts)
    {
        var name = Folded(it.Name);
        if (name == plain)
            return 0;
        if (name.StartsWith(plain, StringComparison.Ordinal))
            return 1;
        if (Holds(name, parts))
            return 2;
        var words = it.Words.Select(Folded).ToList();
        if (words.Contains(plain, StringComparer.Ordinal))
            return 1;
        return Holds(string.Join(' ', [name, .. words]), parts) ? 3 : NotFound;
    }

    // Each part begins a word of its own.
    private static bool Holds(string text, string[] parts)
    {
        var words = text.Split([' ', '-', ',', ':', '(', ')', '’', '\''], StringSplitOptions.RemoveEmptyEntries).ToList();
        foreach (var part in parts)
        {
            var at = words.FindIndex(w => w.StartsWith(part, StringComparison.Ordinal));
            if (at < 0)
                return false;
            words.RemoveAt(at);
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
                .Where(it => Holds(Folded(WordsOf(it)), parts))
                .Take(MostOfKind)
                .Select(it => new Findable(FoundKind.Term, it.Character.Id, it.InWords, [], State: it.State));

    private static string WordsOf(OfferedCharacter it) =>
        string.Join(' ', [it.InWords, .. it.Character.Nouns, .. it.Character.States.Where(s => s.Id == it.State).SelectMany(s => s.Terms)]);

    private static IEnumerable<Findable> OfFlora(ReadyFlora flora) => flora.Pack.Taxa.Select(t => Of(t, flora.Pack.Id));

    /// <summary>A taxon as something to be found: by its names, synonyms and common names.</summary>
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

    // A plant is found by its tag and by the names that it bears.
    private static Findable Of(TaggedPlant plant)
    {
        var names = string.Join(" or ", plant.Names);
        return new(
            FoundKind.Plant,
            plant.Id.ToString(),
            plant.Label.Length > 0 ? plant.Label : names,
            plant.Names,
            string.Join(", ", new[] { plant.Label.Length > 0 ? names : "", plant.PlaceName }.Where(t => t.Length > 0))
        );
    }

    private static Findable Of(Place place) =>
        new(FoundKind.Place, place.Id.ToString(), place.Name, [place.Cell, .. place.Habitats ?? []], place.Cell);
}
