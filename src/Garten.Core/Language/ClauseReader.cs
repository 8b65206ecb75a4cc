using System.Collections.Immutable;
using Garten.Core.Botany;
using Garten.Core.Characters;
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
        foreach (var (next, place, isSubordinate, region, age, premodifiers) in Subjects(i))
        {
            if (next == end)
            {
                if (premodifiers.Count > 0)
                    found.Add(new(premodifiers, place, true, isSubordinate));
                continue;
            }
            foreach (var parse in Predicates(next, place, Modifiers.None with { Region = region, Age = age }))
                found.Add(new(premodifiers.AddRange(parse.Predicates), place, true, isSubordinate, region));
        }
        foreach (var parse in LifeForm(i))
            found.Add(parse);
        foreach (var (parse, place) in Counted(i))
        {
            if (parse.Next == end)
                found.Add(new(parse.Predicates, place, true, false));
            else if (Has(parse.Next, WordKind.Copula) || IsPredicateStart(parse.Next))
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

    /// <summary>The part that a clause begins with, and the token behind it; null where it begins with none that is known.</summary>
    public (PartPlace? Place, int Next) OpensWith(int i) =>
        Nouns(i, [context.Current, context.Main], isSubject: true).Select(n => ((PartPlace?)n.Place, n.Next)).FirstOrDefault();

    private bool IsPredicateStart(int i) => !Has(i, WordKind.Part);

    private IReadOnlyList<LexiconEntry> At(int i) => lexicon.At(tokens, i, end);

    private bool Has(int i, WordKind kind) => i < end && At(i).Any(e => e.Kind == kind);

    private LexiconEntry? Get(int i, WordKind kind) => i < end ? At(i).FirstOrDefault(e => e.Kind == kind) : null;

    // Words that aren't known are passed over where proposals are looked for.
    private bool IsUnknown(int i) =>
        context.IsLoose && i < end && At(i).All(e => e.Kind is WordKind.Function or WordKind.Unsaid) && tokens.Number(i).Ranges.Count == 0;

    // A noun phrase: "the young leaves", "hairs of the rachis", "leaf base", "underside", "short blunt teeth".
    private IEnumerable<(
        int Next,
        PartPlace? Place,
        bool IsSubordinate,
        string Region,
        PartAge Age,
        ImmutableList<Predicate> Said
    )> Subjects(int i)
    {
        var isSubordinate = false;
        var age = PartAge.Unsaid;
        while (i < end)
        {
            if (Has(i, WordKind.Its))
                isSubordinate = true;
            else if (Get(i, WordKind.Age) is { } old)
                age = Enum.Parse<PartAge>(old.Value, true);
            else if (!Has(i, WordKind.Article) && !IsUnknown(i))
                break;
            i++;
        }
        if (i >= end)
            yield break;
        foreach (var (next, place) in Nouns(i, [context.Current, context.Main], isSubject: !isSubordinate))
            yield return (next, place, isSubordinate, "", age, []);
        if (Get(i, WordKind.Face) is { } face)
        {
            var next = i + face.Words.Length;
            var owner = new[] { context.Current, context.Main, context.Otherwise }.FirstOrDefault(p =>
                p is { Part.Class: PartClass.Blade }
            );
            if (Has(next, WordKind.Of))
            {
                var after = next + 1;
                while (Has(after, WordKind.Its) || Has(after, WordKind.Article))
                    after++;
                foreach (var (behind, place) in Nouns(after, [context.Main]))
                {
                    if (place.Part.Class == PartClass.Blade)
                        yield return (behind, place, false, face.Value, age, []);
                }
            }
            else if (owner is not null)
                yield return (next, owner, owner == context.Current || owner == context.Main, face.Value, age, []);
        }
        // "Milky sap", "winged twigs": what stands before the noun is said of it.
        foreach (var (next, place, said) in Premodified(i, age, [context.Current, context.Main]))
        {
            if (said.Count > 0)
                yield return (next, place, isSubordinate, "", age, said);
        }
    }

    // A noun with what it belongs to; where several parts have such a thing, owners are tried in their order.
    private IEnumerable<(int Next, PartPlace Place)> Nouns(int i, PartPlace?[] owners, bool isSubject = false)
    {
        foreach (var entry in At(i))
        {
            if (entry.Kind is not (WordKind.Part or WordKind.Noun) || entry.Kind == WordKind.Part && entry.Value.Length > 0)
                continue;
            var next = i + entry.Words.Length;
            if (Has(next, WordKind.Of))
            {
                var after = next + 1;
                while (Has(after, WordKind.Its) || Has(after, WordKind.Article))
                    after++;
                if (Get(after, WordKind.Part) is { Part: { } whole } of && isOfGroup(whole))
                {
                    var owned = Owned(entry, new(whole, null)) ?? (entry.Part is { } own ? OfKin(own, new(whole, null)) : null);
                    if (owned is not null)
                        yield return (after + of.Words.Length, owned);
                }
                continue;
            }
            // "petiole base", "stem hairs".
            if (entry.Part is { } first && Get(next, WordKind.Part) is { Part: { } } second && second.Part != first)
            {
                if (Owned(second, new(first, null)) is { } compound)
                {
                    yield return (next + second.Words.Length, compound);
                    continue;
                }
            }
            if (entry.Part is { } firstOf && Get(next, WordKind.Noun) is { } generic && Owned(generic, new(firstOf, null)) is { } named)
            {
                yield return (next + generic.Words.Length, named);
                continue;
            }
            // "prickles hooked" behind a statement on hips doesn't speak of the hips' prickles; "teeth blunt" behind leaves does of theirs.
            if (isSubject && context.IsFirst && entry.Part is { IsOwned: true } part && !OfWhole.Contains(part.Id))
            {
                if (Alone(part) is { } alone)
                    yield return (next, alone);
                continue;
            }
            if (Placed(entry, owners) is { } place)
                yield return (next, place);
        }
    }

    // Parts without which their owner isn't whole: named alone they are those of what was spoken of.
    private static readonly HashSet<string> OfWhole = new(StringComparer.Ordinal)
    {
        "margin",
        "tip",
        "base",
        "tooth",
        "lobe",
        "vein",
        "sinus",
        "auricle",
        "cell",
        "awn",
        "midrib",
        "rachis",
        "nectary",
    };

    // Outgrowths that begin a statement: whose they are is clear for few.
    private PartPlace? Alone(Part part)
    {
        if (part.Id == "hair" && !context.HasHairs && lexicon.Botany.Part(BotanyIndex.WholePlant) is { } plant)
            return new(part, plant);
        var owner = Typical(part) ?? (context.IsLoose ? context.Current?.Part : null);
        return owner is not null && lexicon.Botany.CanOwn(owner, part) ? new(part, owner) : null;
    }

    // The part that such a thing is found on where nothing else is said.
    private Part? Typical(Part part) =>
        part.Id switch
        {
            "lenticel" => lexicon.Botany.Part("twig"),
            "node" or "internode" or "prickle" => lexicon.Botany.Part("stem"),
            "auricle" => lexicon.Botany.Part("leaf"),
            _ => null,
        };

    // The part of a noun, with the first of some owners that can have it.
    private PartPlace? Placed(LexiconEntry entry, PartPlace?[] owners)
    {
        // "leaf base" says whose base it is.
        if (entry.Part is { IsOwned: true } && entry.Words.Length > 1 && lexicon.PartOf(entry.Words[0]) is { } within)
        {
            if (lexicon.Botany.CanOwn(within, entry.Part))
                return new(entry.Part, within);
        }
        foreach (var owner in owners)
        {
            if (owner is not null && Owned(entry, owner) is { } owned)
                return owned;
        }
        // "rays" of umbels or of heads: by the group that the text is of.
        if (entry.Kind == WordKind.Noun && entry.Value.Length > 0)
        {
            var parts = entry
                .Value.Split('/')
                .Select(lexicon.Botany.Part)
                .OfType<Part>()
                .Where(p => p.Groups.Any(groups.Contains))
                .ToList();
            return parts.Count == 1 ? new(parts[0], null) : null;
        }
        if (entry.Part is not { } part || !isOfGroup(part))
            return null;
        if (!part.IsOwned)
            return new(part, null);
        // Whose it is has to be said, but where one part alone can have it.
        if (Typical(part) is { } typical)
            return new(part, typical);
        if (context.Otherwise is { } otherwise && lexicon.Botany.CanOwn(otherwise.Part, part))
            return new(part, otherwise.Part);
        return context.IsLoose && lexicon.Botany.Part("leaf") is { } leaf && lexicon.Botany.CanOwn(leaf, part) ? new(part, leaf) : null;
    }

    // "scales" of a bud are bud scales; the stalk of a leaf is the petiole.
    private PartPlace? Owned(LexiconEntry entry, PartPlace owner)
    {
        // Of "beakless" the noun is beak.
        var named = entry.Kind is WordKind.Absent or WordKind.Present && entry.Part is not null ? entry.Part.Name : entry.Phrase;
        foreach (var noun in owner.Part.Nouns)
        {
            if (
                lexicon.PartOf($"{noun} {named}") is { } compound
                && (entry.Part is null || entry.Part.IsOwned || compound.Parent == owner.Part.Id)
            )
                return compound.IsOwned ? new(compound, owner.Part) : new(compound, null);
        }
        if (entry.Part is not { } part || !part.IsOwned && part.Owners.Count == 0)
            return null;
        if (lexicon.Botany.CanOwn(owner.Part, part))
            return !part.IsOwned && (part.Owners[0] == owner.Part.Id || !part.Owners.Contains(owner.Part.Id))
                ? new(part, null)
                : new(part, owner.Part);
        // The base of a leaf has auricles: they are the leaf's.
        return owner.Owner is { } whole && owner.Part.Class is PartClass.Base or PartClass.Tip or PartClass.Edge
            ? Owned(entry, new(owner.Owner, null))
            : null;
    }

    // "2 small reflexed auricles", "star-shaped hairs": number and states before a noun.
    private IEnumerable<(int Next, PartPlace Place, ImmutableList<Predicate> Said)> Premodified(
        int i,
        PartAge age,
        PartPlace?[] owners,
        bool allowsNone = false
    )
    {
        if (Spent)
            yield break;
        List<(List<LexiconEntry> Run, Link Link)> terms = [];
        QuantityRange? number = null;
        var quality = BotanyNumber;
        var isCut = true;
        var link = Link.And;
        while (i < end)
        {
            if ((terms.Count > 0 || number is not null || allowsNone) && (Has(i, WordKind.Part) || Has(i, WordKind.Noun)))
            {
                foreach (var (next, place) in Nouns(i, owners))
                {
                    var said = ImmutableList<Predicate>.Empty;
                    if (number is not null)
                        said = said.Add(Number(Link.And, place, quality, number, Modifiers.None with { Age = age }));
                    foreach (var (run, joined) in terms)
                        said = said.AddRange(Before(run, place, joined, Modifiers.None with { Age = age }));
                    yield return (next, place, said);
                }
            }
            if (Get(i, WordKind.Age) is { } old && age == PartAge.Unsaid)
            {
                age = Enum.Parse<PartAge>(old.Value, true);
                i++;
                continue;
            }
            if (number is null && terms.Count == 0 && tokens.Number(i) is { Ranges: [{ Kind: QuantityKind.Count } count] } reading)
            {
                number = count;
                i = tokens.IndexAt(reading.End);
                // "8–14 pairs of lateral veins".
                if (Has(i, WordKind.Pairs) && Has(i + 1, WordKind.Of))
                {
                    quality = BotanyPairs;
                    i += 2;
                }
                continue;
            }
            if (Has(i, WordKind.Article) || Has(i, WordKind.Degree) || IsUnknown(i))
            {
                i++;
                continue;
            }
            if (Get(i, WordKind.State) is { } state)
            {
                if (isCut)
                    terms.Add(([state], terms.Count == 0 ? Link.And : link));
                else
                    terms[^1].Run.Add(state);
                i += state.Words.Length;
                link = Link.And;
                isCut = true;
                if (i < end && tokens.List[i].Kind == TokenKind.Comma && Has(i + 1, WordKind.State) || Has(i, WordKind.And))
                    i++;
                else if (Has(i, WordKind.Or) || Has(i, WordKind.To))
                {
                    link = Has(i, WordKind.Or) ? Link.Or : Link.To;
                    i++;
                }
                else
                    isCut = false;
                continue;
            }
            yield break;
        }
    }

    // "blackish-downy twigs" is one thing said, "small reflexed auricles" two.
    private static List<Predicate> Before(List<LexiconEntry> run, PartPlace place, Link link, Modifiers with) =>
        Bundle(run, place, link, with) ?? [.. run.Select((e, k) => State(k == 0 ? link : Link.And, place, e, with))];

    private const string BotanyNumber = "number";
    private const string BotanyPairs = "pairs";

    private static Predicate Number(Link link, PartPlace place, string quality, QuantityRange range, Modifiers with) =>
        new(link, place, "", [], quality, range, null, with);

    private static Predicate State(Link link, PartPlace place, LexiconEntry entry, Modifiers with) =>
        new(link, place, entry.Phrase, entry.Senses, "", null, null, with);

    private static Predicate Presence(Link link, PartPlace place, bool isThere, Modifiers with) =>
        new(link, place, "", [], "", null, isThere, with);

    // "5 petals", "many stamens".
    private IEnumerable<(Parse Parse, PartPlace Place)> Counted(int i)
    {
        if (i >= end || tokens.Number(i) is not { Ranges: [{ Kind: QuantityKind.Count }] })
            yield break;
        foreach (var (next, place, said) in Premodified(i, PartAge.Unsaid, [context.Current, context.Main]))
            yield return (new(next, said), place);
    }

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
            if (Has(next, WordKind.With) || Has(next, WordKind.No))
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
            // "3-lobed" is a state where the vocabulary has it as one.
            if (Get(i, WordKind.State) is not { } numbered || !char.IsAsciiDigit(numbered.Words[0][0]))
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
            || part.Id == Sap
            || IsOnAxis()
            || wholes.Take(1).Intersect(kin).Any()
            ? new(part, null)
            : null;

        // "stem with tendrils".
        bool IsOnAxis() =>
            owner.Part.Class == PartClass.Axis && part.Parent == BotanyIndex.WholePlant && part.Class is PartClass.Line or PartClass.Axis;
    }

    private const string Sap = "sap";

    // Terms that follow each other without a comma: "dark green", "grey felted", "ovate-lanceolate".
    private IEnumerable<Parse> Terms(int i, PartPlace place, Link link, Modifiers with)
    {
        List<LexiconEntry> run = [];
        var at = i;
        while (run.Count < 4 && Get(at, WordKind.State) is { } entry)
        {
            // "hairy on the veins": where, not what.
            if (run.Count > 0 && entry.Senses.All(s => s.Quality.Id == "hair-place"))
                break;
            run.Add(entry);
            at += entry.Words.Length;
            while (IsUnknown(at))
                at++;
        }
        if (run.Count == 0)
            yield break;
        if (Bundle(run, place, link, with) is { } bundle)
        {
            // "black-tipped": the colour of the tip.
            if (Get(at, WordKind.Tipped) is { } tipped && bundle.TrueForAll(b => b.With.Region.Length == 0))
            {
                yield return new(at + tipped.Words.Length, [.. bundle.Select(b => b with { With = b.With with { Region = "tip" } })]);
            }
            else
                yield return new(at, [.. bundle]);
        }
    }

    private static readonly string[] HairHeads = ["hair-density", "hair-texture"];

    private static List<Predicate>? Bundle(List<LexiconEntry> run, PartPlace place, Link link, Modifiers with)
    {
        if (run.Count == 1)
            return [State(link, place, run[0], with)];
        var head = run[^1];
        // What is said of hairs before a word for hairy.
        if (head.Senses.Any(s => HairHeads.Contains(s.Quality.Id)))
        {
            var hairs = run.ConvertAll(e => e with { Senses = [.. e.Senses.Where(s => IsOfHair(s.Quality))] });
            if (hairs.TrueForAll(h => h.Senses.Count > 0))
            {
                return [.. hairs.Select((h, k) => State(k == 0 ? link : Link.And, place, h, with) with { IsOfHair = true })];
            }
        }
        // "dull dark green": depth and sheen before a colour.
        if (head.Senses.Any(s => s.Quality.Id == Colour))
        {
            var parts = new List<Predicate>();
            foreach (var entry in run)
            {
                var isHead = entry == head;
                var senses = entry.Senses.Where(s => isHead ? s.Quality.Id == Colour : s.Quality.Id is Depth or "lustre").ToList();
                if (senses.Count == 0)
                {
                    parts = null;
                    break;
                }
                parts.Add(State(parts.Count == 0 ? link : Link.And, place, entry with { Senses = senses }, with));
            }
            if (parts is not null)
                return parts;
        }
        // "purple-spotted" colours the spots, not the part.
        if (head.Senses.Any(s => s.Quality.Id == Pattern) && run.SkipLast(1).All(e => e.Senses.Any(s => s.Quality.Id is Colour or Depth)))
            return [State(link, place, head with { Senses = [.. head.Senses.Where(s => s.Quality.Id == Pattern)] }, with)];
        // "lanceolate-elliptic", "yellow-brown": between the two.
        if (run.Count == 2)
        {
            foreach (var quality in new[] { Colour, "outline", "solid-form", "lobing", "margin" })
            {
                var both = run.ConvertAll(e => e with { Senses = [.. e.Senses.Where(s => s.Quality.Id == quality)] });
                if (both.TrueForAll(b => b.Senses.Count > 0))
                    return [State(link, place, both[0], with), State(Link.To, place, both[1], with)];
            }
        }
        return null;
    }

    private const string Colour = "colour";
    private const string Depth = "colour-depth";
    private const string Pattern = "colour-pattern";

    private static bool IsOfHair(Quality quality) => quality.Id.StartsWith("hair-", StringComparison.Ordinal);

    // Where, when, and where the hairs stand.
    private IEnumerable<Parse> Behind(Parse parse)
    {
        var isWhole = true;
        var i = parse.Next;
        foreach (var entry in At(i))
        {
            var more = entry.Kind switch
            {
                WordKind.Region when parse.Predicates.TrueForAll(p => p.With.Region.Length == 0 || p.With.Region == "tip") => With(
                    parse,
                    entry,
                    w => w with { Region = entry.Value }
                ),
                WordKind.Age => With(parse, entry, w => w with { Age = Enum.Parse<PartAge>(entry.Value, true) }),
                WordKind.With when IsPattern(parse.Predicates[^1]) && ColourAt(i + entry.Words.Length) is { } colour => new Parse(
                    i + entry.Words.Length + colour.Words.Length,
                    // "dotted with crimson" is said of a colour, not of glands.
                    parse.Predicates.SetItem(parse.Predicates.Count - 1, OfPattern(parse.Predicates[^1]))
                ),
                WordKind.Roughly => With(parse, entry, w => w with { IsRough = true }),
                WordKind.Look or WordKind.Degree or WordKind.Placed => parse with { Next = i + entry.Words.Length },
                WordKind.State when entry.Senses.Any(s => s.Quality.Id == "hair-place") && IsHairy(parse.Predicates[^1]) => new Parse(
                    i + entry.Words.Length,
                    parse.Predicates.Add(
                        State(
                            Link.And,
                            parse.Predicates[^1].Place,
                            entry with
                            {
                                Senses = [.. entry.Senses.Where(s => s.Quality.Id == "hair-place")],
                            },
                            parse.Predicates[^1].With
                        ) with
                        {
                            IsOfHair = true,
                        }
                    )
                ),
                _ => null,
            };
            if (more is null)
                continue;
            foreach (var whole in Behind(more))
                yield return whole;
            isWhole = false;
        }
        if (isWhole)
            yield return parse;
        if (isWhole && IsUnknown(i))
        {
            foreach (var whole in Behind(parse with { Next = i + 1 }))
                yield return whole;
        }
    }

    private static bool IsPattern(Predicate predicate) => predicate.Senses.Any(s => s.Quality.Id == Pattern);

    private static Predicate OfPattern(Predicate predicate) =>
        predicate with
        {
            Senses = [.. predicate.Senses.Where(s => s.Quality.Id == Pattern)],
        };

    private LexiconEntry? ColourAt(int i) =>
        Get(i, WordKind.State) is { } entry && entry.Senses.Any(s => s.Quality.Id == Colour) && !Has(i + entry.Words.Length, WordKind.Part)
            ? entry
            : null;

    private static bool IsHairy(Predicate predicate) =>
        predicate.Senses.Any(s => IsOfHair(s.Quality)) || predicate.Presence == true && predicate.Place.Part.Id == "hair";

    private static Parse With(Parse parse, LexiconEntry entry, Func<Modifiers, Modifiers> change) =>
        new(parse.Next + entry.Words.Length, [.. parse.Predicates.Select(p => p with { With = change(p.With) })]);

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
            var isDenied = with.IsDenied || entry.Kind == WordKind.No;
            if (entry.Kind == WordKind.With && Has(from, WordKind.No))
                continue;
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
            var first = Presence(Link.And, place, !isDenied, Modifiers.None);
            var isCounted = said.Any(p => p.Range is not null);
            var isPlain = said.Count > 0 && Always.Contains(place.Part.Id);
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

    // Parts that every plant with them has: what is said of them is what matters, not that they are there.
    private static readonly HashSet<string> Always = new(StringComparer.Ordinal)
    {
        "twig",
        "branch",
        "leaf",
        "blade",
        "leaflet",
        "stem",
        "flower",
        "fruit",
        "root",
        "seed",
        "anther",
        "ovary",
        "style",
        "bud",
        "bark",
        "trunk",
        "crown",
        "inflorescence",
        "frond",
        "pinna",
        "margin",
        "tip",
        "base",
        "vein",
    };

    private static bool IsStalk(Part part) =>
        part.Class == PartClass.Axis
        && (part.Id is "flowering-stem" or "peduncle" or "pedicel" || part.Nouns.Any(n => n.Contains(Stalk, StringComparison.Ordinal)));
}
