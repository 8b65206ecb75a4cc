using Garten.Core.Botany;

namespace Garten.Core.Language;

/// <summary>What a word does in a statement.</summary>
public enum WordKind
{
    /// <summary>Names a part.</summary>
    Part,

    /// <summary>Names a state of a quality.</summary>
    State,

    /// <summary>How often; the value is a share from 0 to 1.</summary>
    Frequency,

    /// <summary>How strongly: it changes nothing that is claimed.</summary>
    Degree,

    /// <summary>Almost: what follows holds roughly.</summary>
    Nearly,

    /// <summary>Scarcely: what follows hardly holds.</summary>
    Hardly,

    /// <summary>Denies what follows.</summary>
    Not,

    /// <summary>Says that the part behind it is absent.</summary>
    No,

    /// <summary>Says that the part behind it is there.</summary>
    With,

    /// <summary>Says that the part behind it carries this one.</summary>
    On,

    /// <summary>is, are.</summary>
    Copula,

    /// <summary>A face or region; the value is its id.</summary>
    Region,

    /// <summary>A noun that names a face: underside; the value is the region's id.</summary>
    Face,

    /// <summary>How old the part is; the value is a <see cref="Evidence.PartAge"/>.</summary>
    Age,

    /// <summary>How it is looked at, which changes nothing that is claimed.</summary>
    Look,

    /// <summary>the, its: what follows is a part of what was spoken of.</summary>
    Its,

    /// <summary>a, all, each: says nothing by itself.</summary>
    Article,

    /// <summary>A word of place that needs what follows: set, borne.</summary>
    Placed,

    /// <summary>long, wide; the value is the quality.</summary>
    Dimension,

    /// <summary>A ratio of length to width in words; the value is "low..high".</summary>
    Ratio,

    /// <summary>in, arranged in: behind flowers a kind of inflorescence.</summary>
    Within,

    /// <summary>in whorls of: the number of parts at a node stands behind it.</summary>
    Whorls,

    /// <summary>long, broad: behind "with" a part is there however long it is.</summary>
    Epithet,

    /// <summary>Compares a length with that of the part behind it; the values are states of <c>relative-length</c>.</summary>
    Comparison,

    /// <summary>lower, outer: behind "the" a kind of the part that was spoken of; the value is the word in the kind's name.</summary>
    Elliptic,

    /// <summary>What a number before it counts: lobed; the value is a part.</summary>
    Counted,

    /// <summary>pairs, on each side: a number before it is that of one side.</summary>
    Pairs,

    /// <summary>and.</summary>
    And,

    /// <summary>or.</summary>
    Or,

    /// <summary>to, between two states.</summary>
    To,

    /// <summary>but.</summary>
    But,

    /// <summary>of.</summary>
    Of,

    /// <summary>absent, wanting.</summary>
    Absent,

    /// <summary>present.</summary>
    Present,

    /// <summary>except, if, unless: what can't be read behind it takes back what stands before it.</summary>
    Break,

    /// <summary>A noun that names a part only together with its owner: stalk.</summary>
    Noun,

    /// <summary>"… or nearly so": what stands before it holds roughly.</summary>
    Roughly,

    /// <summary>Known, names no part, and can't be read.</summary>
    Unsaid,

    /// <summary>Joins words; known, and can't be read here.</summary>
    Function,

    /// <summary>"-tipped": what stands before it is said of the tip.</summary>
    Tipped,
}

/// <summary>A sense of a term: a state of a quality.</summary>
internal readonly record struct TermSense(Quality Quality, string State);

/// <summary>A word or phrase and what it does.</summary>
internal sealed record LexiconEntry(string[] Words, WordKind Kind, string Value, Part? Part, IReadOnlyList<TermSense> Senses)
{
    /// <summary>The phrase as written.</summary>
    public string Phrase { get; } = string.Join(' ', Words);
}

/// <summary>A choice among senses of a term: on these parts it means just this.</summary>
/// <param name="Scope">Ids of parts, classes of parts in small letters, or "any".</param>
/// <param name="Quality">Id of the quality; empty: on these parts it isn't read.</param>
/// <param name="State">Id of the state.</param>
internal sealed record SenseRule(string[] Scope, string Quality, string State);

/// <summary>The words of a vocabulary and of the grammar, found by their first word.</summary>
internal sealed class Lexicon
{
    private readonly Dictionary<string, List<LexiconEntry>> _entries = new(StringComparer.Ordinal);
    private readonly Dictionary<string, List<SenseRule>> _rules = new(StringComparer.Ordinal);
    private readonly Dictionary<string, Part> _partByNoun = new(StringComparer.Ordinal);
    private readonly Dictionary<string, HashSet<string>> _only = new(StringComparer.Ordinal);
    private readonly Dictionary<string, HashSet<string>> _lists = new(StringComparer.Ordinal);
    private readonly BotanyIndex _botany;

    /// <summary>Solid parts that are longer than wide, so that a measure without a word is their length.</summary>
    public const string LongPart = "long-part";

    /// <summary>Parts without which their owner isn't whole: named alone they are those of what was spoken of.</summary>
    public const string OfWhole = "of-whole";

    /// <summary>Parts that every plant with their owner has: what is said of them is what matters, not that they are there.</summary>
    public const string AlwaysThere = "always";

    /// <summary>States that others of their quality may hold beside: leaves can be opposite and crowded.</summary>
    public const string BesideOthers = "beside";

    /// <summary>Qualities of which one part can have several states at once: bark is furrowed and corky.</summary>
    public const string Together = "together";

    /// <summary>Parts that are a piece of what they belong to and no kind of it: a seed in the beak isn't one in the fruit.</summary>
    public const string Piece = "piece";

    /// <summary>Pairs of a part and what has it too, though it stands elsewhere in the vocabulary: <c>floret/spikelet</c>.</summary>
    public const string AlsoHas = "had";

    /// <summary>Whether a part, state or quality is on one of these lists of the words.</summary>
    public bool IsListed(string list, string id) => _lists.TryGetValue(list, out var ids) && ids.Contains(id);

    public Lexicon(BotanyIndex botany)
    {
        _botany = botany;
        var vocabulary = botany.Vocabulary;
        var words = vocabulary.Words ?? [];
        var unread = words.Where(w => w.Kind == "unread").Select(w => Key(w.Text)).ToHashSet(StringComparer.Ordinal);
        var unnamed = words.Where(w => w.Kind == "unnoun").Select(w => Key(w.Text)).ToHashSet(StringComparer.Ordinal);
        foreach (var part in vocabulary.Parts.Where(p => p.ReplacedBy is null))
        {
            foreach (var noun in part.Nouns)
            {
                // "awned" says that there is one; "petiolar" stands before other nouns alone.
                if (IsAdjective(noun))
                    AddHaving(noun, part);
                else
                    AddPart(noun, part, unnamed);
            }
        }
        foreach (var word in words.Where(w => w.Kind == "part"))
        {
            if (botany.Part(word.Value) is { } part)
                AddPart(word.Text, part, []);
        }
        var terms = new Dictionary<string, List<TermSense>>(StringComparer.Ordinal);
        void Term(string text, Quality quality, string state, HashSet<string>? except = null)
        {
            var key = Key(text);
            // "stinging hairs" are read as hairs that sting.
            if (
                key.Length == 0
                || except?.Contains(key) == true
                || key.EndsWith(" hairs", StringComparison.Ordinal) && quality.Id.StartsWith("hair-", StringComparison.Ordinal)
            )
                return;
            if (!terms.TryGetValue(key, out var list))
                terms[key] = list = [];
            if (!list.Contains(new(quality, state)))
                list.Add(new(quality, state));
        }
        foreach (var quality in vocabulary.Qualities.Where(q => q.ReplacedBy is null && q.Id != BotanyIndex.Presence))
        {
            foreach (var state in quality.States.Where(s => s.ReplacedBy is null))
            {
                foreach (var term in state.Terms)
                    Term(term, quality, state.Id, unread);
                Term(state.Name, quality, state.Id, unread);
            }
        }
        foreach (var word in words)
        {
            switch (word.Kind)
            {
                case "term" when word.Value.Split('=') is [var quality, var state] && botany.Quality(quality) is { } known:
                    Term(word.Text, known, state);
                    break;
                case "sense" when word.Value.Split('>') is [var scope, var meaning]:
                    var pair = meaning.Split('=');
                    var ruled = Key(word.Text);
                    if (!_rules.TryGetValue(ruled, out var rules))
                        _rules[ruled] = rules = [];
                    rules.Add(new(scope.Split('/'), pair.Length == 2 ? pair[0] : "", pair.Length == 2 ? pair[1] : ""));
                    if (pair.Length == 2 && botany.Quality(pair[0]) is { } meant)
                        Term(word.Text, meant, pair[1]);
                    break;
                case "only":
                    _only[word.Text] = [.. word.Value.Split('|')];
                    break;
                case LongPart or OfWhole or AlwaysThere or BesideOthers or Together or Piece or AlsoHas:
                    if (!_lists.TryGetValue(word.Kind, out var list))
                        _lists[word.Kind] = list = new(StringComparer.Ordinal);
                    list.Add(word.Text);
                    break;
                case "unread" or "unnoun" or "part" or "grouped" or "evidence":
                    break;
                default:
                    if (Kinds.TryGetValue(word.Kind, out var kind))
                    {
                        // "eglandular": the part that is absent.
                        var of = kind is WordKind.Absent or WordKind.Present && word.Value.Length > 0 ? botany.Part(word.Value) : null;
                        Add(new(Words(word.Text), kind, word.Value, of, []));
                    }
                    break;
            }
        }
        foreach (var (phrase, senses) in terms)
            Add(new(phrase.Split(' '), WordKind.State, "", null, senses));
        foreach (var entries in _entries.Values)
            entries.Sort((a, b) => b.Words.Length - a.Words.Length);
    }

    // The same words with some more terms: everything else is shared.
    private Lexicon(Lexicon of, IReadOnlyList<TaughtTerm> taught)
    {
        (_botany, _rules, _partByNoun, _only, _lists) = (of._botany, of._rules, of._partByNoun, of._only, of._lists);
        _entries = new(of._entries, StringComparer.Ordinal);
        foreach (var term in taught)
        {
            if (
                CharacterId.Read(term.Character) is not { } id
                || _botany.Quality(id.Quality) is not { } quality
                || quality.Find(term.State) is null
                || Words(term.Term) is not { Length: > 0 } words
            )
                continue;
            var phrase = string.Join(' ', words);
            var list = _entries.GetValueOrDefault(words[0]) ?? [];
            var known = list.Find(e => e.Kind == WordKind.State && e.Phrase == phrase);
            var sense = new TermSense(quality, term.State);
            if (known?.Senses.Contains(sense) == true)
                continue;
            _entries[words[0]] =
            [
                .. list.Where(e => e != known)
                    .Append(new(words, WordKind.State, "", null, [.. known?.Senses ?? [], sense]))
                    .OrderByDescending(e => e.Words.Length),
            ];
        }
    }

    /// <summary>The same words with terms that persons have taught; those of characters that aren't made of part and quality are passed
    /// over.</summary>
    public Lexicon With(IReadOnlyList<TaughtTerm> taught) => new(this, taught);

    /// <summary>The longest entries whose words stand at a token; empty where none does.</summary>
    public LexiconEntry[] At(Tokens of, int i, int end)
    {
        if (i >= end)
            return [];
        // The same place is asked for again and again; only near the end of a clause a phrase may not fit into it.
        var known = of.Entries[i] ??= Find(of.List, i, of.List.Count);
        return known.Length == 0 || i + known[0].Words.Length <= end ? known : Find(of.List, i, end);
    }

    private LexiconEntry[] Find(IReadOnlyList<Token> tokens, int i, int end)
    {
        if (tokens[i].Kind != TokenKind.Word)
            return [];
        List<LexiconEntry> found = [];
        foreach (var entry in _entries.GetValueOrDefault(tokens[i].Text) ?? [])
        {
            if (found.Count > 0 && entry.Words.Length < found[0].Words.Length)
                break;
            if (i + entry.Words.Length > end)
                continue;
            var fits = true;
            for (var k = 1; k < entry.Words.Length && fits; k++)
                fits = tokens[i + k].Kind == TokenKind.Word && tokens[i + k].Text == entry.Words[k];
            if (fits)
                found.Add(entry);
        }
        if (found.Count == 0 && Derive(tokens[i].Text) is { } derived)
            found.Add(derived);
        return [.. found];
    }

    /// <summary>Whether one of the entries at a token does this; asked very often.</summary>
    public static bool Has(LexiconEntry[] entries, WordKind kind)
    {
        foreach (var entry in entries)
        {
            if (entry.Kind == kind)
                return true;
        }
        return false;
    }

    /// <summary>Whether a quality is read of a part: some are of few parts alone, whatever else could have them.</summary>
    public bool IsReadOf(Quality quality, Part part) =>
        !_only.TryGetValue(quality.Id, out var parts) || parts.Contains(part.Id) || _botany.Wholes(part).Any(w => parts.Contains(w.Id));

    /// <summary>The rule for a term on a part; null where there is none.</summary>
    public SenseRule? Rule(string phrase, Part part)
    {
        if (!_rules.TryGetValue(phrase, out var rules))
            return null;
        var ofClass = BotanyIndex.NameOf(part.Class);
        foreach (var rule in rules)
        {
            foreach (var scope in rule.Scope)
            {
                if (scope == "any" || scope == part.Id || scope == ofClass)
                    return rule;
            }
        }
        return null;
    }

    /// <summary>The part that a noun names; null where none does.</summary>
    public Part? PartOf(string noun) => _partByNoun.GetValueOrDefault(Key(noun));

    /// <summary>The entry of a term; null where there is none.</summary>
    public LexiconEntry? Term(string phrase)
    {
        var key = Key(phrase);
        return _entries.GetValueOrDefault(key.Split(' ')[0])?.Find(e => e.Kind == WordKind.State && e.Phrase == key);
    }

    /// <summary>Words as they are looked up: small letters, hyphens as spaces.</summary>
    public static string Key(string text) =>
        IsPlain(text) && !text.Contains(' ') && !IsRespelled(text) ? text : string.Join(' ', Words(text));

    // What a word does, by its name in the table: looked up three thousand times at each start.
    private static readonly Dictionary<string, WordKind> Kinds = Enum.GetValues<WordKind>()
        .ToDictionary(k => k.ToString(), StringComparer.OrdinalIgnoreCase);

    private static bool IsPlain(string text)
    {
        foreach (var c in text)
        {
            if (c is not ((>= 'a' and <= 'z') or ' '))
                return false;
        }
        return true;
    }

    // Most terms are plain words: only the others are taken apart letter by letter.
    private static string[] Words(string text) =>
        IsPlain(text) && !IsRespelled(text) ? text.Split(' ', StringSplitOptions.RemoveEmptyEntries) : Taken(text);

    private static bool IsRespelled(string text) =>
        text.Contains("color", StringComparison.Ordinal)
        || text.Contains("gray", StringComparison.Ordinal)
        || text.Contains("fiber", StringComparison.Ordinal);

    private static string[] Taken(string text) => [.. new Tokens(text).List.Where(t => t.Kind == TokenKind.Word).Select(t => t.Text)];

    private void AddPart(string noun, Part part, HashSet<string> unread)
    {
        var key = Key(noun);
        if (key.Length == 0 || unread.Contains(key))
            return;
        _partByNoun.TryAdd(key, part);
        Add(new(key.Split(' '), WordKind.Part, "", part, []));
    }

    private static readonly HashSet<string> Having = new(StringComparer.Ordinal)
    {
        "thorny",
        "spiny",
        "prickly",
        "bristly",
        "lenticellate",
        "bracteate",
    };

    private static readonly HashSet<string> Belonging = new(StringComparer.Ordinal)
    {
        "nodal",
        "foliar",
        "petiolar",
        "stipular",
        "floral",
        "staminal",
        "petaloid",
        "glandular",
    };

    private static bool IsAdjective(string noun) =>
        Having.Contains(noun) || Belonging.Contains(noun) || noun is "awned" or "beaked" or "spurred" or "auricled";

    private void AddHaving(string noun, Part part)
    {
        if (!Belonging.Contains(noun))
            Add(new([noun], WordKind.Present, "", part, []));
    }

    private void Add(LexiconEntry entry)
    {
        if (entry.Words.Length == 0)
            return;
        if (!_entries.TryGetValue(entry.Words[0], out var list))
            _entries[entry.Words[0]] = list = [];
        foreach (var e in list)
        {
            if (e.Kind == entry.Kind && ReferenceEquals(e.Part, entry.Part) && e.Phrase == entry.Phrase && e.Value == entry.Value)
                return;
        }
        list.Add(entry);
    }

    // "wingless", "eglandular", "winged": whether the part that the word is made of is there; "finely", "scabrously": how.
    private LexiconEntry? Derive(string word)
    {
        const string less = "less";
        const int shortestStem = 3;
        if (word.EndsWith(less, StringComparison.Ordinal) && PartOf(word[..^less.Length]) is { } lacking)
            return new([word], WordKind.Absent, "", lacking, []);
        foreach (var ending in new[] { "ed", "d" })
        {
            if (
                word.Length > ending.Length + shortestStem
                && word.EndsWith(ending, StringComparison.Ordinal)
                && PartOf(word[..^ending.Length]) is { } having
                && having.Owners.Count > 0
            )
                return new([word], WordKind.Present, "", having, []);
        }
        if (word.Length > shortestStem && word[^1] == 's' && PartOf(word[..^1]) is { } several)
            return new([word], WordKind.Part, "", several, []);
        if (word.EndsWith("ly", StringComparison.Ordinal) && word.Length > shortestStem + 2 && _entries.ContainsKey(word[..^2]))
            return new([word], WordKind.Degree, "", null, []);
        return null;
    }

    /// <summary>The vocabulary.</summary>
    public BotanyIndex Botany => _botany;
}
