using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Language;
using Garten.Core.Quantities;

namespace Garten.Core.Keys;

/// <summary>
/// Reads the statements of leads by the words of a glossary: nouns of organs, terms of states, quantities, words of frequency, "or" and
/// "not". The grammar is written down in docs/formats.md. What isn't understood for the most part stays text.
/// </summary>
public sealed class StatementReader
{
    // Where fewer of a statement's words are understood, what was read may be about something else.
    private const double LeastUnderstood = 0.6;

    private readonly Dictionary<string, List<Phrase>> _phrases = new(StringComparer.Ordinal);
    private readonly Dictionary<string, StatementReading> _corrected;
    private readonly IReadOnlyList<Character> _characters;
    private readonly Dictionary<string, List<string[]>> _parts = new(StringComparer.Ordinal);

    // "Hairs at least near the tip" says where on the part, not of another one.
    private static readonly HashSet<string> Regions = new(StringComparer.Ordinal) { "tip", "base" };

    private sealed record Phrase(string[] Words, List<(Character Character, int State)> States, List<Character> Nouns);

    private readonly record struct Word(string Text, int At, int Length);

    /// <summary>Makes a reader of a glossary.</summary>
    /// <param name="characters">The characters with their nouns and terms.</param>
    /// <param name="taught">Terms that a person has taught.</param>
    /// <param name="corrected">Readings that a person has set.</param>
    /// <param name="botany">The parts of plants: a statement that names one which nothing that was read is of stays text; null: none is
    /// looked for.</param>
    public StatementReader(
        IReadOnlyList<Character> characters,
        IEnumerable<TaughtTerm>? taught = null,
        IEnumerable<CorrectedStatement>? corrected = null,
        BotanyIndex? botany = null
    )
    {
        _characters = characters;
        foreach (var noun in (botany?.Vocabulary.Parts ?? []).Where(p => !Regions.Contains(p.Id)).SelectMany(p => p.Nouns))
        {
            var words = Words(noun).Select(w => w.Text).ToArray();
            if (!_parts.TryGetValue(words[0], out var list))
                _parts[words[0]] = list = [];
            list.Add(words);
        }
        var phrases = new Dictionary<string, Phrase>(StringComparer.Ordinal);
        foreach (var character in characters)
        {
            foreach (var noun in character.Nouns)
                At(noun).Nouns.Add(character);
            for (var i = 0; i < character.States.Count; i++)
            {
                foreach (var term in character.States[i].Terms.Append(character.States[i].Name).Distinct(StringComparer.OrdinalIgnoreCase))
                    At(term).States.Add((character, i));
            }
        }
        foreach (var term in taught ?? [])
        {
            if (
                characters.FirstOrDefault(c => c.Id == term.Character) is { } character
                && character.IndexOf(term.State) is >= 0 and var state
            )
                At(term.Term).States.Add((character, state));
        }
        foreach (var phrase in phrases.Values.Where(p => p.Words.Length > 0))
        {
            if (!_phrases.TryGetValue(phrase.Words[0], out var list))
                _phrases[phrase.Words[0]] = list = [];
            list.Add(phrase);
        }
        foreach (var list in _phrases.Values)
            list.Sort((a, b) => b.Words.Length - a.Words.Length);
        // The glossary may have changed since: what it no longer has is no claim.
        _corrected = (corrected ?? [])
            .GroupBy(c => c.Text, StringComparer.Ordinal)
            .ToDictionary(
                g => g.Key,
                g => new StatementReading(g.Key, [.. g.Last().Claims.Where(IsKnown)], [], true),
                StringComparer.Ordinal
            );

        bool IsKnown(StatementClaim claim) =>
            characters.FirstOrDefault(c => c.Id == claim.Character) is { } character && claim.States.All(s => character.IndexOf(s) >= 0);

        Phrase At(string text)
        {
            var words = Words(text).Select(w => w.Text).ToArray();
            var key = string.Join(' ', words);
            if (!phrases.TryGetValue(key, out var phrase))
                phrases[key] = phrase = new Phrase(words, [], []);
            return phrase;
        }
    }

    /// <summary>Reads the statements of one lead in their order: a later one may speak of the part that an earlier one has named.</summary>
    public IReadOnlyList<StatementReading> Read(IReadOnlyList<string> statements)
    {
        ArgumentNullException.ThrowIfNull(statements);
        var readings = new List<StatementReading>(statements.Count);
        string? subject = null;
        foreach (var text in statements)
        {
            // A question and its answer ("Are the leaves opposite? No") isn't a statement: read as one it would say the opposite.
            if (text.Contains('?', StringComparison.Ordinal) && !_corrected.ContainsKey(text))
            {
                readings.Add(new StatementReading(text, [], [], false));
                continue;
            }
            var scan = new Scan(this, text, subject);
            readings.Add(_corrected.GetValueOrDefault(text) ?? scan.Reading());
            subject = scan.Subject ?? subject;
        }
        return readings;
    }

    // Words of letters and digits with the hyphens and primes inside them; plurals and case are left to the glossary but for case.
    private static List<Word> Words(string text)
    {
        var words = new List<Word>();
        var at = 0;
        while (at < text.Length)
        {
            if (!char.IsLetterOrDigit(text[at]))
            {
                at++;
                continue;
            }
            var from = at;
            while (
                at < text.Length
                && (
                    char.IsLetterOrDigit(text[at])
                    || text[at] is '-' or '‑' or '\'' or '’' && at + 1 < text.Length && char.IsLetter(text[at + 1])
                )
            )
                at++;
            words.Add(new Word(text[from..at].Replace('‑', '-').ToLowerInvariant(), from, at - from));
        }
        return words;
    }

    private static readonly HashSet<string> Empty = new(StringComparer.Ordinal)
    {
        "a",
        "an",
        "the",
        "of",
        "on",
        "in",
        "at",
        "with",
        "and",
        "or",
        "is",
        "are",
        "to",
        "by",
        "from",
        "each",
        "side",
        "sides",
        "both",
        "some",
        "others",
        "all",
        "over",
        "long",
        "wide",
        "broad",
        "high",
        "tall",
        "as",
        "than",
        "when",
        "very",
        "rather",
        "more",
        "less",
        "its",
        "their",
        "still",
        "least",
        "near",
        "beside",
        "where",
        "be",
        "being",
        "small",
        "large",
        "present",
        "only",
        "that",
        "which",
        "ripe",
        "old",
        "young",
        "strong",
        "shoots",
        "across",
        "thick",
        "dense",
        "densely",
        "but",
        "upper",
        "lower",
        "about",
        "c",
        "ca",
        "mm",
        "cm",
        "m",
        "under",
        "above",
        "below",
        "beneath",
        "often",
        "shoot",
    };

    private static readonly HashSet<string> Negations = new(StringComparer.Ordinal)
    {
        "not",
        "never",
        "without",
        "no",
        "neither",
        "nor",
        "lacking",
    };

    private sealed class Scan(StatementReader reader, string text, string? inherited)
    {
        private readonly bool _inherits = inherited is not null;
        private readonly List<Word> _words = Words(text);
        private readonly List<StatementPart> _parts = [];
        private readonly List<(Character Character, HashSet<int> States, HashSet<int> Denied, double Modality)> _states = [];
        private readonly List<StatementClaim> _quantities = [];
        private string? _subject = inherited;
        private double? _modality;
        private bool _denied;
        private int _understood;
        private bool _mixed;
        private string? _last;
        private bool _orBefore;

        public string? Subject { get; private set; }

        public StatementReading Reading()
        {
            for (var i = 0; i < _words.Count; )
            {
                if (i > 0 && EndsClause(i))
                    (_modality, _denied) = (null, false);
                var step = Quantity(i) ?? Match(i) ?? Small(i);
                i += Math.Max(1, step);
            }
            var claims = Claims();
            var isForeign = claims.Count > 0 && NamesAnotherPart();
            var enough = _words.Count > 0 && _understood >= LeastUnderstood * _words.Count;
            return new StatementReading(
                text,
                enough && !_mixed && !isForeign ? claims : [],
                enough && !_mixed && !isForeign && claims.Count > 0 ? [.. _parts.OrderBy(p => p.At)] : []
            );
        }

        // Whether the statement names a part of plants that nothing of what was read names: what was read may be said of that part.
        private bool NamesAnotherPart()
        {
            for (var i = 0; i < _words.Count; i++)
            {
                if (!reader._parts.TryGetValue(_words[i].Text, out var nouns) || Empty.Contains(_words[i].Text))
                    continue;
                var longest = nouns
                    .Where(n => i + n.Length <= _words.Count && n.Select((w, k) => _words[i + k].Text == w).All(same => same))
                    .OrderByDescending(n => n.Length)
                    .FirstOrDefault();
                if (longest is null)
                    continue;
                var (from, last) = (_words[i].At, _words[i + longest.Length - 1]);
                if (!_parts.Exists(p => p.At <= from && p.At + p.Length >= last.At + last.Length))
                    return true;
                i += longest.Length - 1;
            }
            return false;
        }

        private bool EndsClause(int i)
        {
            var between = text.AsSpan(_words[i - 1].At + _words[i - 1].Length, _words[i].At - _words[i - 1].At - _words[i - 1].Length);
            return between.IndexOfAny(',', ';', '(') >= 0;
        }

        // "3–6 mm wide", "20 or more", "7–16 times as long as wide": the character by the subject and the dimension.
        private int? Quantity(int i)
        {
            var from = _words[i].At;
            while (from > 0 && text[from - 1] is '(' or '<' or '>' or '≥' or '≤' or '~')
                from--;
            if (
                !char.IsAsciiDigit(text[_words[i].At])
                && _words[i].Text
                    is not (
                        "under"
                        or "over"
                        or "up"
                        or "more"
                        or "less"
                        or "at"
                        or "about"
                        or "c"
                        or "ca"
                        or "to"
                        or "many"
                        or "numerous"
                        or "twice"
                        or "half"
                        or "not"
                        or "two"
                        or "three"
                        or "four"
                        or "five"
                        or "six"
                        or "one"
                        or "fewer"
                        or "below"
                        or "above"
                        or "exceeding"
                    )
            )
                return null;
            // "two corky wings" is a state.
            if (reader.Longest(_words, i) is { Words.Length: > 1 })
                return null;
            var reading = RangeNotation.ReadAt(text, from);
            if (reading.Ranges.Count == 0)
                return null;
            var end = reading.End;
            var next = _words.FindIndex(i, w => w.At >= end);
            var behind =
                next < 0
                    ? []
                    : _words
                        .Skip(next)
                        .TakeWhile(w => !text.AsSpan(end, w.At - end).ContainsAny(",;"))
                        .Take(4)
                        .Select(w => w.Text)
                        .ToArray();
            var found = new List<StatementClaim>();
            if (reading.Ranges.Count == 2)
            {
                // Length × width of the part.
                foreach (var (range, measure) in reading.Ranges.Zip(["long", "wide"]))
                {
                    if (For(range, [measure]) is { } claim)
                        found.Add(claim);
                }
            }
            else if (For(reading.Ranges[0], behind) is { } one)
                found.Add(one);
            if (found.Count == 0)
                return null;
            if (_denied)
                return null;
            _quantities.AddRange(found);
            foreach (var claim in found)
                Crossed(claim.Character);
            _parts.Add(new(from, end - from, StatementPartKind.Quantity));
            var used = (next < 0 ? _words.Count : next) - i;
            _understood += used;
            return used;
        }

        private StatementClaim? For(QuantityRange range, string[] behind)
        {
            bool Fits(Character c) => c.IsQuantity && c.Quantity == range.Kind;
            var ofSubject = reader
                ._characters.Where(c => Fits(c) && _subject is not null && c.Nouns.Contains(_subject, StringComparer.Ordinal))
                .ToList();
            // A count may name its own noun behind it: "5 petals", "13–17 leaflets".
            if (
                range.Kind == QuantityKind.Count
                && behind.Length > 0
                && reader._characters.FirstOrDefault(c => Fits(c) && c.Nouns.Contains(behind[0], StringComparer.Ordinal)) is { } counted
            )
                return Claim(counted, range);
            var named = ofSubject.Find(c => c.Measures.Any(m => behind.Contains(m, StringComparer.Ordinal)));
            var other = behind.Length > 0 && behind[0] is "long" or "wide" or "broad" or "high" or "tall" or "across" or "thick";
            var chosen = named ?? (range.Kind == QuantityKind.Length && other ? null : ofSubject.FirstOrDefault());
            return chosen is null ? null : Claim(chosen, range);
        }

        private StatementClaim Claim(Character character, QuantityRange range)
        {
            Subject ??= _subject;
            return new StatementClaim(character.Id, [], range, _modality ?? Modality.AlwaysInKeys);
        }

        private int? Match(int i)
        {
            if (reader.Longest(_words, i) is not { } phrase)
                return null;
            var length = phrase.Words.Length;
            var isNoun = phrase.Nouns.Count > 0;
            var states = isNoun && phrase.States.Count > 0 && !IsStateHere(i, length, phrase) ? [] : Candidates(phrase, i == 0);
            if (states.Count > 0)
            {
                foreach (var group in states.GroupBy(s => s.Character).Take(1))
                    Add(group.Key, [.. group.Select(s => s.State)]);
                Mark(i, length, StatementPartKind.State);
            }
            else if (isNoun)
            {
                _subject = string.Join(' ', phrase.Words);
                Subject ??= _subject;
                // "Tree, 8–15 m high" names a part and its form at once.
                if (phrase.States.Exists(s => s.Character.Organ == Organ.Habit))
                    Add(
                        phrase.States[0].Character,
                        [.. phrase.States.Where(s => s.Character == phrase.States[0].Character).Select(s => s.State)]
                    );
                Mark(i, length, StatementPartKind.Noun);
            }
            else
                return null;
            _understood += length;
            return length;
        }

        // "Thorns 8–25 mm long" speaks of thorns; "Thorns or round cushions" and "fruit a capsule" say that they are there.
        private bool IsStateHere(int i, int length, Phrase phrase)
        {
            if (
                _subject is not null
                && phrase.States.Exists(s =>
                    s.Character.Nouns.Contains(_subject, StringComparer.Ordinal) && !phrase.Nouns.Contains(s.Character)
                )
                && Subject is not null
            )
                return true;
            if (_denied)
                return true;
            var next = i + length;
            if (next >= _words.Count)
                return Subject is not null || length == _words.Count;
            if (
                i > 0
                && Subject is not null
                && !EndsClause(i)
                && _subject is not null
                && phrase.States.Exists(s => s.Character.Nouns.Contains(_subject, StringComparer.Ordinal))
            )
                return true;
            return _words[next].Text is "or" or "only" or "and" or "in" or "beside";
        }

        private List<(Character Character, int State)> Candidates(Phrase phrase, bool opens)
        {
            if (phrase.States.Count == 0)
                return [];
            var ofSubject = _subject is null
                ? []
                : phrase.States.Where(s => s.Character.Nouns.Contains(_subject, StringComparer.Ordinal)).ToList();
            if (ofSubject.Count > 0)
                return SameCharacter(ofSubject);
            // A phrase of its own ("milky sap", "low shrub") needs no subject; a single word that names another part does.
            var own = phrase.States.Select(s => s.Character).Distinct().ToList();
            if (
                own.Count == 1
                && (
                    phrase.Words.Length > 1
                    || opens
                    || phrase.Nouns.Contains(own[0])
                    || Subject is null && !_inherits
                    || own[0].Id == _last
                    || own[0].Organ == Organ.Habit && Subject is null
                )
            )
                return phrase.States;
            return [];
        }

        // "grey beneath" before "grey": of several characters of the subject the one named last in this statement, else the first.
        private List<(Character Character, int State)> SameCharacter(List<(Character Character, int State)> states)
        {
            var chosen = states.Exists(s => s.Character.Id == _last)
                ? states.First(s => s.Character.Id == _last).Character
                : states[0].Character;
            return states.FindAll(s => s.Character == chosen);
        }

        private void Add(Character character, List<int> states)
        {
            Crossed(character.Id);
            // A term of another part ("latex", "milky sap") makes that part the subject. A flora need not say of which part a character is.
            if (character.Nouns.Count > 0 && (_subject is null || !character.Nouns.Contains(_subject, StringComparer.Ordinal)))
                _subject = character.Nouns[0];
            Subject ??= _subject;
            var at = _states.FindIndex(s => s.Character == character);
            if (at < 0)
            {
                _states.Add((character, [], [], _modality ?? Modality.AlwaysInKeys));
                at = _states.Count - 1;
            }
            var entry = _states[at];
            var modality = _modality ?? Modality.AlwaysInKeys;
            if (_denied)
                entry.Denied.UnionWith(states);
            // Of "usually smooth, rarely hairy" the commoner one is the claim.
            else if (entry.States.Count > 0 && modality < entry.Modality && _modality is not null)
                return;
            else
                entry.States.UnionWith(states);
        }

        // An "or" between two characters joins what can't be weighed one by one: then the whole statement stays text.
        private void Crossed(string character)
        {
            if (_orBefore && _last is not null && _last != character)
                _mixed = true;
            _orBefore = false;
            _last = character;
        }

        private int Small(int i)
        {
            var word = _words[i];
            if (Modality.Of(word.Text) is { } share && word.Text != "always")
            {
                _modality = share;
                Mark(i, 1, StatementPartKind.Modality);
                _understood++;
            }
            else if (Negations.Contains(word.Text))
            {
                _denied = true;
                Mark(i, 1, StatementPartKind.Negation);
                _understood++;
            }
            else if (word.Text is "absent" or "lacking" or "none")
            {
                DenySubject();
                Mark(i, 1, StatementPartKind.Negation);
                _understood++;
            }
            else
            {
                if (word.Text == "or" && i > 0)
                    _orBefore = true;
                if (Empty.Contains(word.Text))
                    _understood++;
            }
            return 1;
        }

        // "Thorns absent": the state that the noun names is denied.
        private void DenySubject()
        {
            if (_subject is null)
                return;
            foreach (var character in reader._characters.Where(c => c.Nouns.Contains(_subject, StringComparer.Ordinal) && !c.IsQuantity))
            {
                var named = Enumerable
                    .Range(0, character.States.Count)
                    .Where(s => character.States[s].Terms.Contains(_subject, StringComparer.OrdinalIgnoreCase))
                    .ToList();
                if (named.Count == 0)
                    continue;
                _denied = true;
                Add(character, named);
                _denied = false;
                return;
            }
        }

        private void Mark(int i, int length, StatementPartKind kind) =>
            _parts.Add(new(_words[i].At, _words[i + length - 1].At + _words[i + length - 1].Length - _words[i].At, kind));

        private List<StatementClaim> Claims()
        {
            var claims = new List<StatementClaim>();
            foreach (var (character, states, denied, modality) in _states)
            {
                var kept = states.Count > 0 ? states.Except(denied) : Enumerable.Range(0, character.States.Count).Except(denied);
                var ids = kept.Order().Select(s => character.States[s].Id).ToList();
                if (ids.Count > 0 && ids.Count < character.States.Count)
                    claims.Add(new StatementClaim(character.Id, ids, null, modality));
            }
            claims.AddRange(_quantities);
            return claims;
        }
    }

    private Phrase? Longest(List<Word> words, int at)
    {
        foreach (var phrase in _phrases.GetValueOrDefault(words[at].Text) ?? [])
        {
            if (at + phrase.Words.Length > words.Count)
                continue;
            var fits = true;
            for (var k = 1; k < phrase.Words.Length && fits; k++)
                fits = words[at + k].Text == phrase.Words[k];
            if (fits)
                return phrase;
        }
        return null;
    }
}
