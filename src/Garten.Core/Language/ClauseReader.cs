using System.Collections.Immutable;
using Garten.Core.Botany;
using Garten.Core.Evidence;
using Garten.Core.Quantities;

namespace Garten.Core.Language;

/// <summary>
/// Reads a clause by a closed list of constructions, in all ways that they allow. Each way uses every token of the clause: what isn't known
/// is never passed over, but where proposals are looked for.
/// </summary>
internal sealed partial class ClauseReader(
    Lexicon lexicon,
    Tokens tokens,
    int end,
    ClauseContext context,
    Func<Part, bool> isOfGroup,
    IReadOnlySet<string> groups
)
{
    // Clauses that can be read in more ways than this are nonsense, or so long that nobody would trust a reading.
    private const int MostSteps = 4_000;

    private const string Stalk = "stalk";

    private int _steps;

    private bool Spent => ++_steps > MostSteps;

    /// <summary>All ways to read the tokens from one on to the end.</summary>
    public List<ClauseForm> Read(int from)
    {
        List<ClauseForm> found = [];
        var i = from;
        while (Has(i, WordKind.And) || Has(i, WordKind.But))
            i++;
        foreach (var (next, place, isSubordinate, region, age, said, isElliptic) in Subjects(i))
        {
            if (said.Exists(p => p.Range is not null) && IsOfSome(next))
                continue;
            var premodifiers = By(said, Construction.Premodified);
            if (next == end)
            {
                if (premodifiers.Count > 0)
                    found.Add(new(premodifiers, place, true, isSubordinate));
                continue;
            }
            var elliptic = isElliptic ? Construction.Elliptic : Construction.None;
            foreach (var parse in Predicates(next, place, Modifiers.None with { Region = region, Age = age }))
                found.Add(new(premodifiers.AddRange(By(parse.Predicates, elliptic)), place, true, isSubordinate, region));
        }
        foreach (var parse in LifeForm(i))
            found.Add(parse with { Predicates = By(parse.Predicates, Construction.LifeForm) });
        foreach (var (parse, place) in Counted(i))
        {
            if (parse.Next == end)
                found.Add(new(parse.Predicates, place, true, false));
            else if (!IsOfSome(parse.Next) && (Has(parse.Next, WordKind.Copula) || IsPredicateStart(parse.Next)))
            {
                foreach (var more in Predicates(parse.Next, place, Modifiers.None))
                    found.Add(new(parse.Predicates.AddRange(more.Predicates), place, true, false));
            }
        }
        // A clause that names no part is about what was spoken of before.
        foreach (var parse in Predicates(i, context.Current, Modifiers.None with { Region = context.Region }))
            found.Add(new(parse.Predicates, context.Current, false, false));
        return found;
    }

    // "Five stamens without anthers" are five of them.
    private bool IsOfSome(int i) => Has(i, WordKind.No) || Has(i, WordKind.With);

    private static ImmutableList<Predicate> By(ImmutableList<Predicate> predicates, Construction construction) =>
        construction == Construction.None ? predicates : predicates.ConvertAll(p => p with { By = p.By | construction });

    /// <summary>The part that a clause begins with, and the token behind it; null where it begins with none that is known.</summary>
    public (PartPlace? Place, int Next) OpensWith(int i, PartPlace? of = null) =>
        Nouns(i, of is null ? [context.Current, context.Main] : [of], isSubject: of is null)
            .Select(n => ((PartPlace?)n.Place, n.Next))
            .FirstOrDefault();

    private bool IsPredicateStart(int i) => !Has(i, WordKind.Part);

    private LexiconEntry[] At(int i) => lexicon.At(tokens, i, end);

    private bool Has(int i, WordKind kind) => i < end && Lexicon.Has(At(i), kind);

    private LexiconEntry? Get(int i, WordKind kind)
    {
        if (i >= end)
            return null;
        foreach (var entry in At(i))
        {
            if (entry.Kind == kind)
                return entry;
        }
        return null;
    }

    // A phrase is passed over whole.
    private int Step(int i) => At(i) is { Length: > 0 } entries ? entries[0].Words.Length : 1;

    // Words that aren't known are passed over where proposals are looked for.
    private bool IsUnknown(int i) =>
        context.IsLoose && i < end && At(i).All(e => e.Kind is WordKind.Function or WordKind.Unsaid) && tokens.Number(i).Ranges.Count == 0;

    // Predicates up to the end, joined by and, or, to.
    private List<Parse> Predicates(int i, PartPlace? place, Modifiers given)
    {
        List<Parse> found = [];
        foreach (var first in One(i, place, Link.And, given))
            Extend(first);
        return found;

        void Extend(Parse parse)
        {
            if (Spent)
                return;
            if (parse.Next == end)
            {
                if (!parse.Predicates.IsEmpty)
                    found.Add(parse with { Predicates = Spread(parse.Predicates) });
                return;
            }
            var next = parse.Next;
            if (Has(next, WordKind.With) || Has(next, WordKind.No) || Has(next, WordKind.On))
            {
                // "grey beneath with star-shaped hairs": they are beneath too.
                var where = Modifiers.None with { Region = parse.Predicates.IsEmpty ? "" : parse.Predicates[^1].With.Region };
                foreach (var more in Having(next, place, Link.And, where).SelectMany(Behind))
                    Extend(new(more.Next, parse.Predicates.AddRange(more.Predicates)));
                return;
            }
            // "white beneath with a waxy bloom".
            if (Get(next, WordKind.State) is { } bare && bare.Words[0] is "with" or "without")
            {
                foreach (
                    var more in One(
                        next,
                        place,
                        Link.And,
                        Modifiers.None with
                        {
                            Region = parse.Predicates.IsEmpty ? "" : parse.Predicates[^1].With.Region,
                        }
                    )
                )
                    Extend(new(more.Next, parse.Predicates.AddRange(more.Predicates)));
                return;
            }
            Link? link = null;
            var denies = false;
            foreach (var entry in At(next))
            {
                link = entry.Kind switch
                {
                    WordKind.And or WordKind.But => Link.And,
                    WordKind.Or => Link.Or,
                    WordKind.To => Link.To,
                    WordKind.Not when entry.Value == "nor" => Link.And,
                    _ => link,
                };
                denies = entry.Kind == WordKind.Not;
                if (link is not null)
                {
                    var last = parse.Predicates.IsEmpty ? given : parse.Predicates[^1].With;
                    next += entry.Words.Length;
                    var isBut = entry.Kind == WordKind.But;
                    var carried = given with
                    {
                        Modality = last.Modality,
                        IsDenied = denies || last.IsDenied && !isBut,
                        IsRough = false,
                        Region = given.Region,
                    };
                    // "not hairy or toothed" denies both; of "not hairy and toothed" nobody can say.
                    if (last.IsDenied && link == Link.Or)
                        link = Link.And;
                    else if (last.IsDenied && !isBut && !denies && link == Link.And)
                    {
                        foreach (var more in One(next, place, Link.And, carried with { IsDenied = false }))
                            Extend(new(more.Next, parse.Predicates.AddRange(more.Predicates)));
                    }
                    foreach (var more in One(next, place, link.Value, carried))
                        Extend(new(more.Next, parse.Predicates.AddRange(more.Predicates)));
                    return;
                }
            }
        }
    }

    // "dull and hairy beneath": a face at the end holds of what is joined to it.
    private static ImmutableList<Predicate> Spread(ImmutableList<Predicate> predicates)
    {
        if (predicates.Count < 2 || predicates[^1].With.Region is not { Length: > 0 } region)
            return predicates;
        for (var i = predicates.Count - 2; i >= 0; i--)
        {
            var one = predicates[i];
            if (one.With.Region == region)
                continue;
            if (one.With.Region.Length > 0 || one.Place != predicates[^1].Place || one.Range is not null)
                break;
            predicates = predicates.SetItem(i, one with { With = one.With with { Region = region } });
        }
        return predicates;
    }

    // One predicate with what stands before and behind it.
    private IEnumerable<Parse> One(int i, PartPlace? place, Link link, Modifiers with)
    {
        if (Spent)
            yield break;
        var isOften = false;
        while (i < end && tokens.Number(i).Ranges.Count == 0)
        {
            isOften |= with.IsDenied && Has(i, WordKind.Frequency);
            var step = 0;
            foreach (var entry in At(i))
            {
                (with, step) = entry.Kind switch
                {
                    WordKind.Not when entry.Value != "nor" => (with with { IsDenied = true }, entry.Words.Length),
                    WordKind.Frequency => (
                        with with
                        {
                            Modality = double.Parse(entry.Value, System.Globalization.CultureInfo.InvariantCulture),
                        },
                        entry.Words.Length
                    ),
                    WordKind.Nearly when tokens.Number(i).Ranges.Count == 0 => (with with { IsRough = true }, entry.Words.Length),
                    WordKind.Hardly => (with with { IsHardly = true }, entry.Words.Length),
                    // "Coarsely and bluntly toothed".
                    WordKind.Degree when Has(i + entry.Words.Length, WordKind.And) && Has(i + entry.Words.Length + 1, WordKind.Degree) => (
                        with,
                        entry.Words.Length + 1
                    ),
                    WordKind.Degree or WordKind.Article or WordKind.Copula or WordKind.Placed or WordKind.Look => (
                        with,
                        entry.Words.Length
                    ),
                    WordKind.Region when i + entry.Words.Length < end && with.Region.Length == 0 => (
                        with with
                        {
                            Region = entry.Value,
                        },
                        entry.Words.Length
                    ),
                    _ => (with, step),
                };
                if (step > 0)
                    break;
            }
            if (step == 0 && IsUnknown(i))
                step = 1;
            if (step == 0)
                break;
            i += step;
        }
        // "Not always hairy" says neither that it is nor that it isn't.
        if (i >= end || with.IsDenied && isOften)
            yield break;
        foreach (var parse in Core(i, place, link, with))
        {
            if (parse.Predicates.IsEmpty)
            {
                yield return parse;
                continue;
            }
            foreach (var whole in Behind(parse))
                yield return whole;
        }
    }

    private IEnumerable<Parse> Core(int i, PartPlace? place, Link link, Modifiers with)
    {
        if (place is not null)
        {
            foreach (var parse in Terms(i, place, link, with))
                yield return parse;
            foreach (var parse in Comparisons(i, place, link, with))
                yield return parse;
            foreach (var parse in Inflorescences(i, place, link, with))
                yield return parse;
            foreach (var parse in InWhorls(i, place, link, with))
                yield return parse;
            foreach (var parse in KindsOfFruit(i, place, link, with))
                yield return parse;
            // "3-lobed" is a state where the vocabulary has it as one.
            if (Get(i, WordKind.State) is not { } numbered || !IsNumbered(numbered))
            {
                foreach (var parse in Measures(i, place, link, with))
                    yield return parse;
            }
            foreach (var entry in At(i))
            {
                if (entry.Kind is WordKind.Absent or WordKind.Present)
                {
                    var of = entry.Part is { } part ? Owned(entry, place) ?? OfKin(part, place) : place;
                    if (of is not null && of.Part.Id != BotanyIndex.WholePlant)
                        yield return new(i + entry.Words.Length, [Presence(link, of, entry.Kind == WordKind.Present, with)]);
                }
            }
        }
        foreach (var parse in Having(i, place, link, with))
            yield return parse;
        // "long and slender": what can't be read takes nothing from what it is joined to by "and".
        if (link == Link.And && !with.IsDenied && Get(i, WordKind.Unsaid) is { } unsaid && Has(i + unsaid.Words.Length, WordKind.And))
            yield return new(i + unsaid.Words.Length, []);
    }

    private static bool IsNumbered(LexiconEntry entry) =>
        entry.Words.Length > 1 && (char.IsAsciiDigit(entry.Words[0][0]) || NumberText.IsWord(entry.Words[0]));

    // A part that has one place of its own: of that which is said to have it, or of its kin ("siliqua with a beak").
    private PartPlace? OfKin(Part part, PartPlace owner)
    {
        if (part.IsOwned || !isOfGroup(part))
            return null;
        var wholes = lexicon.Botany.Wholes(part).ToList();
        var kin = lexicon.Botany.Wholes(owner.Part).Where(w => w.Id != BotanyIndex.WholePlant);
        return
            owner.Part.Id == BotanyIndex.WholePlant
            || wholes.Contains(owner.Part)
            || lexicon.IsListed(Lexicon.AlsoHas, $"{part.Id}/{owner.Part.Id}")
            || part.Id == Sap
            || IsOnAxis()
            || !lexicon.IsListed(Lexicon.Piece, owner.Part.Id) && wholes.Take(1).Intersect(kin).Any()
            ? new(part, null)
            : null;

        // "stem with tendrils".
        bool IsOnAxis() =>
            owner.Part.Class == PartClass.Axis && part.Parent == BotanyIndex.WholePlant && part.Class is PartClass.Line or PartClass.Axis;
    }

    private const string Sap = "sap";

    // "with two glands", "without stipules", "on hairy stalks 2 cm long".
    private IEnumerable<Parse> Having(int i, PartPlace? place, Link link, Modifiers with)
    {
        foreach (var entry in At(i))
        {
            var from = i + entry.Words.Length;
            // "an involucre of 5–8 bracts".
            var isOf = entry.Kind == WordKind.Of && from < end && (tokens.Number(from).Ranges.Count > 0 || Has(from, WordKind.State));
            if (entry.Kind is not (WordKind.With or WordKind.No or WordKind.On) && !isOf)
                continue;
            // What surrounds something that isn't known is nobody's.
            if (place is null && entry.Words[^1] == "by")
                continue;
            var isDenied = with.IsDenied || entry.Kind == WordKind.No;
            if (entry.Kind == WordKind.With && Has(from, WordKind.No))
                continue;
            // "fringed with long white hairs" says what the margin is like.
            if (entry.Kind == WordKind.With && entry.Value.Length > 0)
            {
                if (place is not null && !isDenied)
                {
                    foreach (var parse in Said(entry, from, place, link, with))
                        yield return parse;
                }
                continue;
            }
            var isStalk = entry.Kind == WordKind.On;
            foreach (var parse in NounList(from, place, isStalk, isDenied))
            {
                yield return parse with
                {
                    Predicates =
                    [
                        .. parse.Predicates.Select(
                            (p, k) =>
                                p with
                                {
                                    By = p.By | (isStalk ? Construction.OnStalk : Construction.Having),
                                    Link = k == 0 ? link : p.Link,
                                    With = p.With with
                                    {
                                        IsDenied = false,
                                        Modality = with.Modality,
                                        Age = p.With.Age == PartAge.Unsaid ? with.Age : p.With.Age,
                                        IsRough = with.IsRough,
                                        IsHardly = with.IsHardly,
                                        Region = p.With.Region.Length > 0 ? p.With.Region : with.Region,
                                    },
                                }
                        ),
                    ],
                };
            }
        }
    }

    // A verb whose complement makes it a state of what it is said of: part>quality=state; a number of the part is said too.
    private IEnumerable<Parse> Said(LexiconEntry entry, int from, PartPlace place, Link link, Modifiers with)
    {
        foreach (var (next, part, before) in Premodified(from, PartAge.Unsaid, [place], allowsNone: true))
        {
            foreach (var meaning in entry.Value.Split('|').Select(m => m.Split('>', '=')))
            {
                if (part.Part.Id == meaning[0] && lexicon.Botany.Quality(meaning[1]) is { } quality)
                    yield return new(
                        next,
                        [
                            new(link, place, "", [new(quality, meaning[2])], "", null, null, with, By: Construction.Frame),
                            .. before.Where(p => p.Range is not null),
                        ]
                    );
            }
        }
    }

    private const string InflorescenceType = "inflorescence-type";

    // "Flowers in a terminal raceme": how they stand, and what the raceme is like.
    private IEnumerable<Parse> Inflorescences(int i, PartPlace place, Link link, Modifiers with)
    {
        if (
            place.Part.Id != "flower"
            || with.IsDenied
            || Get(i, WordKind.Within) is not { } entry
            || lexicon.Botany.Quality(InflorescenceType) is not { } type
        )
            yield break;
        foreach (var (next, of, said) in Premodified(i + entry.Words.Length, PartAge.Unsaid, [], allowsNone: true))
        {
            if (type.Find(of.Part.Id) is not null)
                yield return new(
                    next,
                    [
                        new(link, place, "", [new(type, of.Part.Id)], "", null, null, with, By: Construction.Inflorescence),
                        .. said.Where(p => p.Range is null),
                    ]
                );
        }
    }

    private const string FruitType = "fruit-type";

    // "Fruit a blue-black berry": of what kind it is, and what that is like.
    private IEnumerable<Parse> KindsOfFruit(int i, PartPlace place, Link link, Modifiers with)
    {
        if (place.Part.Id != "fruit" || with.IsDenied || i == 0 || lexicon.Botany.Quality(FruitType) is not { } type)
            yield break;
        foreach (var (next, of, said) in Premodified(i, PartAge.Unsaid, [], allowsNone: false))
        {
            // A silicula is named as a part with the siliqua, and is a kind of its own.
            var kind = type.Find(tokens.List[next - 1].Text)?.Id ?? type.Find(of.Part.Id)?.Id;
            if (kind is not null)
                yield return new(
                    next,
                    [
                        new(link, place, "", [new(type, kind)], "", null, null, with, By: Construction.FruitKind),
                        .. said.Where(p => p.Range is null).Select(p => p with { Place = place }),
                    ]
                );
        }
    }

    // "In whorls of 6–8": whorled, of three or four by a state of its own.
    private IEnumerable<Parse> InWhorls(int i, PartPlace place, Link link, Modifiers with)
    {
        // "Leaflets in 4–8 pairs".
        if (
            Get(i, WordKind.Within) is { Words: ["in"] }
            && i + 1 < end
            && tokens.Number(i + 1) is { Ranges: [{ Kind: QuantityKind.Count } pairs] } counted
            && tokens.IndexAt(counted.End) is var behind
            && Get(behind, WordKind.Pairs) is { } word
            && place.Part.Class is not (PartClass.Plant or PartClass.Place)
        )
            yield return new(
                behind + word.Words.Length,
                [Number(link, place, BotanyPairs, pairs, with) with { By = Construction.Together }]
            );
        if (Get(i, WordKind.Whorls) is not { } entry || lexicon.Botany.Quality("arrangement") is not { } arrangement)
            yield break;
        var at = i + entry.Words.Length;
        if (at >= end || tokens.Number(at) is not { Ranges: [{ Kind: QuantityKind.Count } count] } number)
            yield break;
        var state = (count.Low, count.High) switch
        {
            (3, 3) => "in-threes",
            (4, 4) => "in-fours",
            _ => "whorled",
        };
        yield return new(
            tokens.IndexAt(number.End),
            [new(link, place, "", [new(arrangement, state)], "", null, null, with, By: Construction.Together)]
        );
    }

    private List<Parse> NounList(int i, PartPlace? owner, bool isStalk, bool isDenied)
    {
        List<Parse> found = [];
        foreach (var (next, place, said) in Premodified(i, PartAge.Unsaid, [owner], allowsNone: true))
        {
            if (isStalk && !IsStalk(place.Part))
                continue;
            // Of a subject that isn't known nobody can say what it has.
            if (owner is null && place.Owner is not null)
                continue;
            // What can't be a part of the subject isn't had by it.
            if (
                owner is not null
                && place.Owner is null
                && OfKin(place.Part, owner) is null
                && Owned(AsEntry(place.Part), owner) is null
                && !isStalk
            )
                continue;
            // "without corky ridges" denies ridges of one kind, not all.
            if (isDenied && said.Count > 0)
                continue;
            // "With a darker base": every petal has one.
            if (said.Count == 0 && !isDenied && lexicon.IsListed(Lexicon.AlwaysThere, place.Part.Id))
                continue;
            var first = Presence(Link.And, place, !isDenied, Modifiers.None);
            var isCounted = said.Any(p => p.Range is not null);
            var isPlain = said.Count > 0 && lexicon.IsListed(Lexicon.AlwaysThere, place.Part.Id);
            var predicates = isStalk && said.Count > 0 || isCounted || isPlain ? said : said.Insert(0, first);
            var parses = new List<Parse> { new(next, predicates) };
            // "with a petiole 5–8 mm long".
            if (!isDenied && next < end && tokens.Number(next).Ranges.Count > 0)
            {
                parses =
                [
                    .. Measures(next, place, Link.And, Modifiers.None)
                        .Select(m => new Parse(m.Next, (isStalk ? said : predicates).AddRange(m.Predicates))),
                ];
            }
            foreach (var parse in parses)
            {
                found.Add(parse);
                var joint = Get(parse.Next, WordKind.And) ?? Get(parse.Next, WordKind.Or);
                if (joint is null || joint.Kind == WordKind.Or && !isDenied)
                    continue;
                foreach (var more in NounList(parse.Next + joint.Words.Length, owner, isStalk, isDenied))
                    found.Add(new(more.Next, parse.Predicates.AddRange(more.Predicates)));
            }
        }
        return found;
    }

    private static LexiconEntry AsEntry(Part part) => new([part.Name], WordKind.Part, "", part, []);

    private static bool IsStalk(Part part) =>
        part.Class == PartClass.Axis
        && (part.Id is "flowering-stem" or "peduncle" or "pedicel" || part.Nouns.Any(n => n.Contains(Stalk, StringComparison.Ordinal)));
}
