using System.Collections.Immutable;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;

namespace Garten.Core.Language;

public sealed partial class GrammarReader
{
    private sealed class Statement
    {
        private sealed record Done(
            int From,
            int To,
            List<StatementClaim> Claims,
            List<IReadOnlyList<StatementClaim>> Proposals,
            Construction By = Construction.None
        );

        private readonly GrammarReader _reader;
        private readonly string _text;
        private readonly Subjects _before;
        private readonly Func<Part, bool> _isOfGroup;
        private readonly IReadOnlySet<string> _groups;
        private readonly string _blade;
        private readonly bool _proposes;
        private readonly Tokens _tokens;
        private readonly List<Done> _done = [];

        // What clauses without a subject can be about: of several the one that fits alone.
        private List<PartPlace> _subjects;
        private PartPlace? _main;
        private string _face = "";
        private string _region = "";
        private bool _names;
        private bool _isConditional;

        // Where its first clause begins: behind a heading.
        private int _start;
        private bool _isOfOthers;

        // What a clause that names nothing may be guessed to be about.
        private PartPlace? _guess;

        // "Young leaves hairy, green": green when young, too.
        private PartAge _age;

        public Statement(GrammarReader reader, Tokens tokens, Subjects before, Func<Part, bool> isOfGroup, TextContext? of, bool proposes)
        {
            (_reader, _text, _before, _isOfGroup, _proposes) = (reader, tokens.Text, before, isOfGroup, proposes);
            _groups = of?.Groups ?? NoGroups;
            _blade = of is { IsOfFronds: true } ? Frond : Leaf;
            _tokens = tokens;
            _subjects = [.. new[] { before.Last, before.First }.OfType<PartPlace>().Distinct()];
            _main = before.Last;
            _guess = before.Last;
            Subjects = before;
        }

        /// <summary>What the next statement can be about where it names nothing.</summary>
        public Subjects Subjects { get; private set; }

        public StatementReading Read()
        {
            // A question and its answer ("Are the leaves opposite? No") isn't a statement: read as one it would say the opposite.
            if (_text.Contains('?', StringComparison.Ordinal) || _tokens.List.Count is 0 or > MostTokens)
            {
                Subjects = _before with { First = null, Last = null };
                return new StatementReading(_text, [], []);
            }
            TakeHeading();
            var clauses = Clauses();
            for (var k = 0; k < clauses.Count; k++)
            {
                var (from, to) = clauses[k];
                ClauseForm? form = null;
                // Every token has to be used: a clause with a word that isn't known can't be read, nor can one that takes it in.
                var ways = HasUnknown(from, to) ? [] : Ways(from, to, isLoose: false, out form);
                // "with long, white hairs": the comma is within a phrase.
                const int mostJoined = 3;
                for (
                    var j = k + 1;
                    ways.Count == 0 && IsOpen(from, to) && j < clauses.Count && j <= k + mostJoined && !HasUnknown(from, clauses[j].To);
                    j++
                )
                {
                    ways = Ways(from, clauses[j].To, isLoose: false, out form);
                    if (ways.Count > 0)
                        (to, k) = (clauses[j].To, j);
                }
                // "leaves green beneath and petiole short": two clauses without a comma.
                if (ways.Count == 0 && !HasUnknown(from, to) && SplitAt(from, to) is { } at)
                {
                    Take(from, at, Ways(from, at, isLoose: false, out form), form);
                    Take(at, to, Ways(at, to, isLoose: false, out form), form);
                    continue;
                }
                Take(from, to, ways, form);
            }
            return Whole();
        }

        // "Leaves: petiole 2 cm, hairy": what stands before the colon is what all is about; the part named behind it is the subject.
        private void TakeHeading()
        {
            if (_tokens.Heading == 0 || _tokens.Heading >= _tokens.List.Count)
                return;
            var clause = new ClauseReader(_reader._lexicon, _tokens, _tokens.Heading, Context(null, true, false), _isOfGroup, _groups);
            if (clause.OpensWith(0) is not ({ } heading, var behind) || behind != _tokens.Heading)
                return;
            _start = _tokens.Heading;
            _main = heading;
            _guess = heading;
            _subjects = [heading];
            Subjects = _before with { First = _before.First ?? heading, Last = heading };
        }

        // The age that stands before the noun of a clause: "the young leaves".
        private PartAge AgeBefore(int from)
        {
            for (var i = from; i < _tokens.List.Count; i++)
            {
                foreach (var entry in _reader._lexicon.At(_tokens, i, _tokens.List.Count))
                {
                    if (entry.Kind == WordKind.Age)
                        return Enum.Parse<PartAge>(entry.Value, true);
                }
                if (!Kind(i, WordKind.Article))
                    break;
            }
            return PartAge.Unsaid;
        }

        // Whether a clause stands for the beginning of the statement: behind a heading the first does.
        private bool IsBeginning(int from) => from == _start;

        // Whether a clause ends before the noun that it speaks of: behind its last "with" there is none yet, or it has none at all.
        private bool IsOpen(int from, int to)
        {
            for (var i = to - 1; i >= from; i--)
            {
                if (Kind(i, WordKind.Part) || Kind(i, WordKind.Noun))
                    return false;
                if (
                    Kind(i, WordKind.With)
                    || Kind(i, WordKind.No)
                    || Kind(i, WordKind.On)
                    || Kind(i, WordKind.Of)
                    || Kind(i, WordKind.Within)
                )
                    return true;
            }
            return true;
        }

        // Where an "and" joins two clauses of which each is read by itself and the second names a part of its own; null where none does.
        private int? SplitAt(int from, int to)
        {
            for (var i = from + 1; i < to - 1; i++)
            {
                if (!Kind(i, WordKind.And) && !Kind(i, WordKind.But) || !OpensWithPart(i + 1, to))
                    continue;
                if (
                    Ways(from, i, isLoose: false, out _).Count == 1
                    && Ways(i, to, isLoose: false, out var second).Count == 1
                    && second!.NamesSubject
                )
                    return i;
            }
            return null;
        }

        private void Take(int from, int to, List<ImmutableList<StatementClaim>> ways, ClauseForm? form)
        {
            var opensWithOr =
                _tokens.Number(from).Ranges.Count == 0
                && (Kind(from, WordKind.Or) || Kind(from, WordKind.To) || Kind(from, WordKind.Roughly));
            if (ways.Count == 1 && !opensWithOr && !_isConditional)
            {
                if (form!.NamesSubject)
                    _age = AgeBefore(from);
                List<StatementClaim> claims = [.. ways[0].Select(c => c.Age == PartAge.Unsaid ? c with { Age = _age } : c)];
                _done.Add(new(from, to, claims, [], form.Predicates.Aggregate(Construction.None, (all, p) => all | p.All)));
                if (Contains(from, to, WordKind.Or) && !form!.NamesSubject)
                    Alternatives();
                Lead(form!, from);
                _region = RegionOf(from, to);
                return;
            }
            if (opensWithOr)
            {
                // "alternate, or opposite": one claim of both; of anything else neither can be weighed alone.
                var other = Ways(from + 1, to, isLoose: false, out _);
                if (
                    other is [[{ Range: null, Denied: null } more]]
                    && _done is [.., { Claims: [.., { Denied: null } last] } before]
                    && last.Character == more.Character
                    && last.Age == more.Age
                )
                {
                    before.Claims[^1] = last with
                    {
                        States = [.. last.States.Union(more.States)],
                        Modality = Math.Max(last.Modality, more.Modality),
                    };
                    _done.Add(new(from, to, [], []));
                    return;
                }
                // "…, or nearly so": what stands before it holds roughly.
                if (Kind(from, WordKind.Roughly) && _done is [.., { Claims.Count: > 0 } rough])
                {
                    for (var c = 0; c < rough.Claims.Count; c++)
                        rough.Claims[c] = rough.Claims[c] with { Modality = Math.Min(rough.Claims[c].Modality, Modality.Usually) };
                    _done.Add(new(from, to, [], []));
                    return;
                }
                Withdraw();
                _done.Add(new(from, to, [], []));
                _subjects = [];
                return;
            }
            // "hooked prickles, straight ones or bristles": the "or" may reach back.
            var reachesBack =
                _done is [.., { Claims: [.., { Range: null }] }]
                && !Kind(from, WordKind.With)
                && !Kind(from, WordKind.No)
                && !Kind(from, WordKind.Comparison);
            if (reachesBack && Contains(from, to, WordKind.Or) && !OpensWithPart(from, to))
                Withdraw();
            var takesBack = TakesBack(from, to);
            if (takesBack)
                Withdraw();
            var proposals =
                ways.Count > 1 ? ways
                : _proposes ? Ways(from, to, isLoose: true, out _)
                : [];
            if (_proposes && proposals.Count == 0)
                proposals = Beginning(from, to);
            _done.Add(new(from, to, [], [.. proposals.Take(MostProposals)]));
            _age = PartAge.Unsaid;
            Lost(from, to);
            // What follows an "if" holds under it alone, and so does what follows "simple or, in shade, lobed".
            if (takesBack || Kind(to - 1, WordKind.Or))
                (_subjects, _main, _isConditional) = ([], null, true);
        }

        // "Corolla blue with a yellow eye": its beginning alone may be meant well enough, where a person says so. What goes on with "or" or
        // "except" is another thing without it.
        private List<ImmutableList<StatementClaim>> Beginning(int from, int to)
        {
            const int mostTries = 3;
            var tries = 0;
            for (var i = to - 1; i > from + 1 && tries < mostTries; i--)
            {
                if (Kind(i, WordKind.Or) || Kind(i, WordKind.Break) || Kind(i, WordKind.Not) || Kind(i, WordKind.Roughly))
                    return [];
                if (!IsJoint(i))
                    continue;
                tries++;
                if (Ways(from, i, isLoose: true, out _) is { Count: > 0 } ways)
                    return ways;
            }
            return [];
        }

        // Where a clause can be cut: before "with", "and", "in" and the like, and before what isn't known.
        private bool IsJoint(int i) =>
            Kind(i, WordKind.With)
            || Kind(i, WordKind.No)
            || Kind(i, WordKind.On)
            || Kind(i, WordKind.Within)
            || Kind(i, WordKind.And)
            || Kind(i, WordKind.But)
            || Kind(i, WordKind.Function)
            || Kind(i, WordKind.Region)
            || _reader._lexicon.At(_tokens, i, _tokens.List.Count).Length == 0;

        // What a clause that was read makes the subject of those behind it.
        private void Lead(ClauseForm form, int from)
        {
            if (!form.NamesSubject || form.Subject is not { } subject)
                return;
            _face = form.Face;
            if (IsBeginning(from) && (!form.IsSubordinate || form.Face.Length > 0))
            {
                _main = subject;
                _subjects = [subject];
                Subjects = _before with { First = _before.First ?? subject, Last = subject };
            }
            else
                _subjects = [.. new[] { subject, _main }.OfType<PartPlace>().Distinct()];
            _names = true;
        }

        private bool OpensWithPart(int from, int to)
        {
            var i = from;
            while (i < to && (Kind(i, WordKind.Article) || Kind(i, WordKind.Its)))
                i++;
            return IsBeginning(from) || Kind(i, WordKind.Part) || Kind(i, WordKind.Face);
        }

        // What a clause that wasn't read leaves for those behind it: the part that it begins with, or nothing that is known.
        private void Lost(int from, int to)
        {
            var i = from;
            var isSubordinate = false;
            while (i < to && (Kind(i, WordKind.Article) || Kind(i, WordKind.Its) || Kind(i, WordKind.And) || Kind(i, WordKind.But)))
            {
                isSubordinate |= Kind(i, WordKind.Its);
                i++;
            }
            if (i >= to)
                return;
            _face = "";
            // "The outer longer, blunt": which are blunt nobody can say.
            if (isSubordinate && Kind(i, WordKind.Elliptic) && !Kind(i, WordKind.Part))
            {
                (_subjects, _main) = ([], null);
                return;
            }
            var clause = new ClauseReader(
                _reader._lexicon,
                _tokens,
                to,
                Context(_subjects.FirstOrDefault(), from == 0, false),
                _isOfGroup,
                _groups
            );
            if (clause.OpensWith(i) is ({ } opened, var behind) && (behind >= to || IsKnown(behind, to)))
            {
                // "Raised on a stout stalk, longer than the leaf": the stalk may be meant as well.
                var beside = Carried(clause, opened, behind, to);
                if (IsBeginning(from) && !isSubordinate)
                {
                    _main = opened;
                    Subjects = _before with { First = _before.First ?? opened, Last = opened };
                    _subjects = [.. new[] { opened, beside }.OfType<PartPlace>().Distinct()];
                }
                else
                    _subjects = [.. new[] { opened, _main, beside }.OfType<PartPlace>().Distinct()];
                _names = true;
                return;
            }
            // A clause of predicates alone leaves the subject; one that may name another one leaves none.
            var names =
                Contains(i, to, WordKind.Part) || Contains(i, to, WordKind.Noun) || Contains(i, to, WordKind.Face) || StandsIn(i, to);
            if (!names && !HasUnknown(i, to))
                return;
            _subjects = [];
            _main = null;
            _isOfOthers |= StandsIn(i, to);
            var opensKnown = _reader._lexicon.At(_tokens, i, to).Length > 0 && !Kind(i, WordKind.Face);
            if (IsBeginning(from) && !opensKnown)
                Subjects = _before with { First = null, Last = null };
        }

        // "Female ones red, small": a thing that "ones" stands for is another subject than the one before.
        private bool StandsIn(int from, int to)
        {
            for (var i = from; i < to; i++)
            {
                if (_tokens.List[i].Text is "one" or "ones")
                    return true;
            }
            return false;
        }

        // The part that a clause ends with behind "on": what follows the comma may be said of it.
        private PartPlace? Carried(ClauseReader clause, PartPlace of, int from, int to)
        {
            var on = Enumerable.Range(from, Math.Max(0, to - from)).FirstOrDefault(i => Kind(i, WordKind.On), -1);
            for (var i = on < 0 ? to : on; i < to; i++)
            {
                if ((Kind(i, WordKind.Part) || Kind(i, WordKind.Noun)) && clause.OpensWith(i, of) is ({ } place, _))
                    return place;
            }
            return null;
        }

        // "white, pink or red": the commas before the "or" are so many more of it.
        private void Alternatives()
        {
            if (_done[^1].Claims is not [{ Range: null, Denied: null } last])
                return;
            // "Not white, pink or red": whether one of the three is denied or all, nobody can say.
            if (_done is [.., { Claims: [.., { Denied: not null } denied] } no, _] && denied.Character == last.Character)
            {
                no.Claims.Clear();
                _done[^1].Claims.Clear();
                return;
            }
            for (
                var k = _done.Count - 2;
                k >= 0
                    && _done[k].Claims is [.., { Denied: null } before]
                    && before.Character == last.Character
                    && before.Age == last.Age
                    && !before.States.Any(IsOfSides)
                    && !Contains(_done[k].From, _done[k].To, WordKind.And);
                k--
            )
            {
                last = last with { States = [.. before.States.Union(last.States)] };
                _done[k].Claims.RemoveAt(_done[k].Claims.Count - 1);
                _done[^1].Claims[0] = last;
            }
        }

        // Whether both sides of a base are alike is no form of it, though it is a state of the same quality.
        private static bool IsOfSides(string state) => state is "equal" or "oblique";

        // The face that a clause ends with: what follows the comma may be said of it too.
        private string RegionOf(int from, int to)
        {
            for (var i = from; i < to; i++)
            {
                foreach (var entry in _reader._lexicon.At(_tokens, i, to))
                {
                    if (entry.Kind == WordKind.Region && entry.Value is "above" or "beneath" && i + entry.Words.Length == to)
                        return entry.Value;
                }
            }
            return "";
        }

        // "except at the base", "the end one excepted" take back what stands before them.
        private bool TakesBack(int from, int to)
        {
            var i = from;
            while (i < to && (Kind(i, WordKind.And) || Kind(i, WordKind.But)))
                i++;
            // "Hairy, but not when ripe".
            return i > from && Kind(i, WordKind.Not)
                || Kind(i, WordKind.Break)
                || Enumerable
                    .Range(from, to - from)
                    .Any(k => _reader._lexicon.At(_tokens, k, to).Any(e => e is { Kind: WordKind.Break, Value.Length: > 0 }));
        }

        // "White, ageing pink, or pink throughout": what can't be read in between doesn't stand in its way.
        private void Withdraw()
        {
            if (_done.FindLast(d => d.Claims.Count > 0) is not { } last)
                return;
            if (last.Claims.Count > 0)
                last.Proposals.Add([.. last.Claims]);
            last.Claims.Clear();
        }

        private ClauseContext Context(PartPlace? current, bool isFirst, bool isLoose) =>
            new(current, _main, _face, _before.Otherwise, isFirst, _before.HasHairs, _before.OfLead, isLoose);

        private List<ImmutableList<StatementClaim>> Ways(int from, int to, bool isLoose, out ClauseForm? form)
        {
            List<ImmutableList<StatementClaim>> ways = [];
            form = null;
            var isFace = _names is false && Kind(from, WordKind.Region);
            var subjects =
                isFace ? Faced()
                : Counted(from) is { } each ? [each]
                : _subjects;
            if (subjects.Count == 0)
                subjects = isLoose && !_isOfOthers && _guess is { } guess ? [guess] : [];
            // What names its subject itself doesn't lean on several.
            var opens = Kind(from, WordKind.Part) && !isLoose;
            for (var s = 0; s < Math.Max(1, opens ? 1 : subjects.Count); s++)
            {
                var clause = new ClauseReader(
                    _reader._lexicon,
                    _tokens,
                    to,
                    Context(subjects.Count == 0 ? null : subjects[s], from == 0, isLoose),
                    _isOfGroup,
                    _groups
                );
                foreach (var read in clause.Read(from).SelectMany(WithFace))
                {
                    if (s > 0 && read.NamesSubject)
                        continue;
                    foreach (var way in _reader._claims.Of(read.Predicates, isLoose, _blade))
                    {
                        if (way.Count == 0 || ways.Exists(w => ClaimMaker.Same(w, way)))
                            continue;
                        form ??= read;
                        ways.Add(way);
                    }
                }
            }
            return ways;
        }

        // "With 5–8 flowers, each 2 cm across": "each" is one of those that were counted last.
        private PartPlace? Counted(int from)
        {
            if (from >= _tokens.List.Count || _tokens.List[from].Text != "each" || _done is not [.., { Claims: var claims }])
                return null;
            var counted = claims.Select(c => CharacterId.Read(c.Character)).LastOrDefault(c => c?.Quality == ClauseReader.BotanyNumber);
            return counted is { } id && _reader._lexicon.Botany.Part(id.Part) is { } part
                ? new(part, id.Owner is { Length: > 0 } owner ? _reader._lexicon.Botany.Part(owner) : null)
                : null;
        }

        // "Silky beneath, white": of the whole, or of the face spoken of last.
        private IEnumerable<ClauseForm> WithFace(ClauseForm form)
        {
            yield return form;
            if (_region.Length == 0 || form.NamesSubject || !form.Predicates.TrueForAll(p => p.With.Region.Length == 0 && p.Range is null))
                yield break;
            yield return form with
            {
                Predicates = form.Predicates.ConvertAll(p => p with { With = p.With with { Region = _region } }),
            };
        }

        // "Beneath grey-felted" is said of a blade: of the one spoken of, or of that to which the part spoken of belongs.
        private List<PartPlace> Faced()
        {
            foreach (var place in new[] { _before.Last, _before.First, _before.Otherwise }.OfType<PartPlace>())
            {
                if (place.Part.Class == PartClass.Blade)
                    return [place];
                if (place.Owner is { Class: PartClass.Blade } owner)
                    return [new(owner, null)];
                if (_reader._lexicon.Botany.Wholes(place.Part).FirstOrDefault() is { Class: PartClass.Blade } whole)
                    return [new(whole, null)];
            }
            return [];
        }

        // From comma to comma; a comma within a number doesn't cut.
        private List<(int From, int To)> Clauses()
        {
            List<(int, int)> clauses = [];
            var from = _start;
            for (var i = from; i < _tokens.List.Count; i++)
            {
                if (_tokens.Number(i) is { Ranges.Count: > 0 } number)
                    i = Math.Max(i, _tokens.IndexAt(number.End) - 1);
                else if (_tokens.List[i].Kind == TokenKind.Comma)
                {
                    if (i > from)
                        clauses.Add((from, i));
                    from = i + 1;
                }
            }
            if (from < _tokens.List.Count)
                clauses.Add((from, _tokens.List.Count));
            return clauses;
        }

        private bool Kind(int i, WordKind kind) => Lexicon.Has(_reader._lexicon.At(_tokens, i, _tokens.List.Count), kind);

        private bool Contains(int from, int to, WordKind kind)
        {
            for (var i = from; i < to; i++)
            {
                if (Kind(i, kind))
                    return true;
            }
            return false;
        }

        // Whether a token is known and doesn't go on with what it stands behind: "leaves of suckers" aren't the leaves.
        private bool IsKnown(int i, int to) =>
            _tokens.Number(i).Ranges.Count > 0
            || _reader._lexicon.At(_tokens, i, to) is { Length: > 0 } entries
                && !Lexicon.Has(entries, WordKind.Of)
                && !Lexicon.Has(entries, WordKind.On);

        private bool HasUnknown(int from, int to)
        {
            for (var i = from; i < to; )
            {
                var entries = _reader._lexicon.At(_tokens, i, to);
                var words = entries.Length == 0 ? 0 : entries[0].Words.Length;
                // "three-cornered" is a word of the vocabulary before it is a number.
                if (words > 1 || words == 1 && _tokens.Number(i).Ranges.Count == 0)
                    i += words;
                else if (_tokens.Number(i) is { Ranges.Count: > 0 } number)
                    i = Math.Max(i + 1, _tokens.IndexAt(number.End));
                else if (_tokens.List[i].Kind == TokenKind.Comma)
                    i++;
                else if (words == 0)
                    return true;
                else
                    i += words;
            }
            return false;
        }

        private StatementReading Whole()
        {
            var claims = new List<StatementClaim>();
            var contradicted = new HashSet<(string, PartAge)>();
            foreach (var claim in _done.SelectMany(d => d.Claims))
                Join(claims, contradicted, claim);
            // What stands in brackets may be an exception.
            if (_tokens.Asides.Count > 0)
                claims = claims.ConvertAll(c => c with { Modality = Math.Min(c.Modality, Modality.Usually) });
            var clauses = _done.ConvertAll(d => new ReadClause(
                _tokens.List[d.From].At,
                _tokens.List[d.To - 1].End - _tokens.List[d.From].At,
                d.Claims.Count > 0 ? ClauseKind.Taken
                    : d.Proposals.Count > 0 ? ClauseKind.Proposed
                    : ClauseKind.Text,
                d.Proposals
            )
            {
                By = d.Claims.Count > 0 ? d.By : Construction.None,
            });
            return new StatementReading(_text, claims, Parts(), false, clauses);
        }

        // Of "usually 5, rarely 6" the commoner one is the claim; what contradicts itself is none.
        private void Join(List<StatementClaim> claims, HashSet<(string, PartAge)> contradicted, StatementClaim claim)
        {
            if (contradicted.Contains((claim.Character, claim.Age)))
                return;
            var at = claims.FindIndex(c => c.Character == claim.Character && c.Age == claim.Age);
            if (at < 0)
            {
                claims.Add(claim);
                return;
            }
            var known = claims[at];
            if (claim.Modality != known.Modality)
            {
                if (claim.Modality > known.Modality)
                    claims[at] = claim;
                return;
            }
            if (claim.Range is not null || known.Range is not null)
                return;
            var character = _reader._lexicon.Botany.Compose(claim.Character)!;
            List<string> Within(StatementClaim of, StatementClaim other) =>
                [.. of.States.Where(s => other.States.Any(o => character.IsKindOf(s, o)))];
            // "pinnatifid, lobed": the finer one says both.
            var both = Within(claim, known).Union(Within(known, claim), StringComparer.Ordinal).ToList();
            both.RemoveAll(s => both.Exists(o => o != s && claim.States.Contains(o) && character.IsKindOf(s, o)));
            if (both.Count == 0 && claim.States.All(IsBeside))
                return;
            if (both.Count == 0 && known.States.All(IsBeside))
            {
                claims[at] = claim;
                return;
            }
            // "Furrowed, corky": whoever looks may name either.
            if (
                both.Count == 0
                && known.Denied is null
                && claim.Denied is null
                && _reader._lexicon.IsListed(Lexicon.Together, CharacterId.Read(claim.Character)!.Value.Quality)
            )
            {
                claims[at] = known with { States = [.. known.States.Union(claim.States, StringComparer.Ordinal)] };
                return;
            }
            if (both.Count == 0)
            {
                claims.RemoveAt(at);
                contradicted.Add((claim.Character, claim.Age));
                return;
            }
            claims[at] = known with { States = both, Denied = known.Denied is { } a && claim.Denied is { } b ? [.. a.Union(b)] : null };
        }

        private bool IsBeside(string state) => _reader._lexicon.IsListed(Lexicon.BesideOthers, state);

        private List<StatementPart> Parts()
        {
            List<StatementPart> parts = [];
            foreach (var done in _done.Where(d => d.Claims.Count > 0))
            {
                for (var i = done.From; i < done.To; )
                {
                    if (_tokens.Number(i) is { Ranges.Count: > 0 } number)
                    {
                        var from = _tokens.List[i].At;
                        parts.Add(new(from, number.End - from, StatementPartKind.Quantity));
                        i = Math.Max(i + 1, _tokens.IndexAt(number.End));
                        continue;
                    }
                    var entries = _reader._lexicon.At(_tokens, i, done.To);
                    var n = entries.Length == 0 ? 1 : entries[0].Words.Length;
                    StatementPartKind? kind =
                        entries.Any(e => e.Kind == WordKind.State) ? StatementPartKind.State
                        : entries.Any(e => e.Kind is WordKind.Part or WordKind.Noun or WordKind.Face) ? StatementPartKind.Noun
                        : entries.Any(e => e.Kind == WordKind.Frequency) ? StatementPartKind.Modality
                        : entries.Any(e => e.Kind is WordKind.Not or WordKind.No or WordKind.Absent) ? StatementPartKind.Negation
                        : null;
                    if (kind is { } known)
                        parts.Add(new(_tokens.List[i].At, _tokens.List[i + n - 1].End - _tokens.List[i].At, known));
                    i += n;
                }
            }
            return parts;
        }
    }
}
