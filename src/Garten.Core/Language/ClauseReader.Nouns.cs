using System.Collections.Immutable;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Quantities;

namespace Garten.Core.Language;

internal sealed partial class ClauseReader
{
    // A noun phrase: "the young leaves", "hairs of the rachis", "leaf base", "underside", "short blunt teeth".
    private IEnumerable<(
        int Next,
        PartPlace? Place,
        bool IsSubordinate,
        string Region,
        PartAge Age,
        ImmutableList<Predicate> Said,
        bool IsElliptic
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
            i += Step(i);
        }
        if (i >= end)
            yield break;
        foreach (var (next, place) in Nouns(i, [context.Current, context.Main], isSubject: !isSubordinate))
        {
            yield return (next, place, isSubordinate, "", age, [], false);
            // "Bark of old trees furrowed", "twigs when young downy".
            if (age == PartAge.Unsaid && Get(next, WordKind.Age) is { } later && next + later.Words.Length < end)
                yield return (next + later.Words.Length, place, isSubordinate, "", Enum.Parse<PartAge>(later.Value, true), [], false);
        }
        if (isSubordinate && Kind(i) is (var past, var kind))
            yield return (past, kind, true, "", age, [], true);
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
                        yield return (behind, place, false, face.Value, age, [], false);
                }
            }
            else if (owner is not null)
                yield return (next, owner, owner == context.Current || owner == context.Main, face.Value, age, [], false);
        }
        // "Milky sap", "winged twigs": what stands before the noun is said of it.
        foreach (var (next, place, said) in Premodified(i, age, [context.Current, context.Main]))
        {
            if (said.Count > 0)
                yield return (next, place, isSubordinate, "", age, said, false);
        }
    }

    // "The lower", "the outer ones": a kind of what was spoken of, where it has one of that name.
    private (int Next, PartPlace Place)? Kind(int i)
    {
        if (Get(i, WordKind.Elliptic) is not { } entry || Has(i, WordKind.Part))
            return null;
        foreach (var place in new[] { context.Current, context.Main }.OfType<PartPlace>())
        {
            var kinds = place.Part.Nouns.Select(n => lexicon.PartOf($"{entry.Value} {n}")).OfType<Part>().Distinct().ToList();
            if (kinds is not [var kind] || place.Owner is not null)
                continue;
            var next = i + entry.Words.Length;
            return (next < end && tokens.List[next].Text is "one" or "ones" ? next + 1 : next, new(kind, null));
        }
        return null;
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
                    // "The leaflets of the lower leaves" aren't all leaflets.
                    var isLost = owned is { Owner: null } && owned.Part != whole && !lexicon.Botany.Wholes(owned.Part).Contains(whole);
                    if (owned is not null && (!isLost || context.IsLoose))
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
            if (isSubject && context.IsFirst && entry.Part is { IsOwned: true } part && !lexicon.IsListed(Lexicon.OfWhole, part.Id))
            {
                if (Alone(part) is { } alone)
                    yield return (next, alone);
                continue;
            }
            if (Placed(entry, owners) is { } place)
                yield return (next, place);
        }
    }

    // Outgrowths that begin a statement: whose they are is clear for few.
    private PartPlace? Alone(Part part)
    {
        if (part.Id == "hair" && !context.HasHairs && context.Current is null && lexicon.Botany.Part(BotanyIndex.WholePlant) is { } plant)
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
        // "rays" of umbels or of heads: by the group that the text is of; "=ligule/…" names the usual one first.
        if (entry.Kind == WordKind.Noun && entry.Value.Length > 0)
        {
            var meant = entry.Value.TrimStart('=').Split('/').Select(lexicon.Botany.Part).OfType<Part>().ToList();
            var parts = meant.FindAll(p => p.Groups.Any(groups.Contains));
            if (parts.Count == 0 && entry.Value[0] == '=')
                parts = [meant[0]];
            // In a text on several groups the lead says which it is of.
            if (parts.Count > 1)
                parts = parts.FindAll(p => p.Groups.Any(context.OfLead.Contains));
            return parts.Count == 1 ? new(parts[0], null) : null;
        }
        if (entry.Part is not { } part || !isOfGroup(part))
            return null;
        // The blade of a petal isn't the leaf's.
        if (part.Id == "blade" && Array.Exists(owners, o => o?.Part.Organ is Organ.Flower or Organ.Inflorescence))
            return null;
        if (!part.IsOwned)
            return new(part, null);
        // Whose it is has to be said, but where one part alone can have it.
        if (Typical(part) is { } typical)
            return new(part, typical);
        if (context.Otherwise is { } otherwise && lexicon.Botany.CanOwn(otherwise.Part, part))
            return new(part, otherwise.Part);
        return context is { IsLoose: true, Current: null } && lexicon.Botany.Part("leaf") is { } leaf && lexicon.Botany.CanOwn(leaf, part)
            ? new(part, leaf)
            : null;
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
        List<string> epithets = [];
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
                        said = said.AddRange(
                            Before(run, place, joined, Modifiers.None with { Age = age })
                                .Select(p => allowsNone && epithets.Contains(p.Phrase) ? p with { IsEpithet = true } : p)
                        );
                    yield return (next, place, said);
                }
            }
            if (Get(i, WordKind.Age) is { } old && age == PartAge.Unsaid)
            {
                age = Enum.Parse<PartAge>(old.Value, true);
                i += old.Words.Length;
                continue;
            }
            if (
                number is null
                && terms.Count == 0
                && !(Get(i, WordKind.State) is { } numbered && IsNumbered(numbered))
                && tokens.Number(i) is { Ranges: [{ Kind: QuantityKind.Count } count] } reading
            )
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
            if (
                Has(i, WordKind.Article)
                || Has(i, WordKind.Degree)
                || allowsNone && Has(i, WordKind.Epithet) && !Has(i, WordKind.State)
                || IsUnknown(i)
            )
            {
                i += Step(i);
                continue;
            }
            if (Get(i, WordKind.State) is { } state)
            {
                if (Has(i, WordKind.Epithet))
                    epithets.Add(state.Phrase);
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

    /// <summary>Id of the quality that counts parts.</summary>
    internal const string BotanyNumber = "number";
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
}
