using System.Collections.Immutable;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Quantities;

namespace Garten.Core.Language;

/// <summary>Makes claims of what a clause was read as: chooses the senses of its terms by the part they are said of, its face and what
/// they are joined with.</summary>
internal sealed class ClaimMaker(Lexicon lexicon)
{
    // More ways to understand a clause than this are as good as none.
    private const int MostWays = 6;

    private const string Leaf = "leaf";
    private const string Blade = "blade";
    private const string Both = "both";

    // Qualities that can differ between the faces or ends of a part.
    private static readonly string[] OfPlace =
    [
        "hair-",
        "colour",
        "lustre",
        "surface",
        "relief",
        "gland-",
        "stickiness",
        "texture",
        "vein-prominence",
        "margin",
        "edge-",
        "presence",
        "venation",
        "section",
    ];

    private readonly record struct Choice(Quality Quality, string State, string Region);

    /// <summary>All sets of claims that a reading allows; empty where it allows none.</summary>
    /// <param name="predicates">What was read.</param>
    /// <param name="isLoose">Whether what hardly holds counts as denied: for proposals alone.</param>
    /// <param name="blade">Id of the part whose blade a blade is: leaf, or frond in a text on ferns.</param>
    public List<ImmutableList<StatementClaim>> Of(ImmutableList<Predicate> predicates, bool isLoose, string blade)
    {
        if (blade != Leaf && lexicon.Botany.Part(blade) is { } whole)
            predicates = predicates.ConvertAll(p => p.Place.Part.Id == Blade ? p with { Place = new PartPlace(whole, null) } : p);
        List<ImmutableList<StatementClaim>> ways =
        [
            [],
        ];
        for (var i = 0; i < predicates.Count; )
        {
            var n = 1;
            while (i + n < predicates.Count && predicates[i + n].Link != Link.And)
                n++;
            var group = predicates.GetRange(i, n);
            i += n;
            if (!isLoose && group.Exists(p => p.With.IsHardly))
                return [];
            var options = Group(group);
            ways = [.. ways.SelectMany(w => options.Select(o => w.AddRange(o)))];
            if (ways.Count is 0 or > MostWays)
                return [];
        }
        return ways;
    }

    // What is joined by "or" and "to" is one claim of one quality, or none.
    private List<List<StatementClaim>> Group(ImmutableList<Predicate> group)
    {
        var first = group[0];
        if (first.Range is not null)
            return group.Count == 1 ? Measured(first) : Ranges(group);
        if (first.Against is { } other)
            return group.Count == 1 ? Compared(first, other) : [];
        if (first.Presence is { } isThere)
            return group.Count == 1 && There(first, isThere) is { } there ? [there] : [];
        group = group.ConvertAll(OfPlant);
        first = group[0];
        var choices = group.ConvertAll(Choices);
        if (first.IsEpithet && group.Count == 1 && choices[0].Count == 0)
            return
            [
                [],
            ];
        List<List<StatementClaim>> found = [];
        foreach (var choice in choices[0])
        {
            List<string> states = [choice.State];
            var fits = true;
            for (var k = 1; k < choices.Count && fits; k++)
            {
                var same = choices[k].Where(c => c.Quality == choice.Quality).ToList();
                fits = same.Count > 0 && group[k].Place == first.Place && group[k].With.IsDenied == first.With.IsDenied;
                if (!fits)
                    break;
                if (group[k].Link == Link.To)
                    states.AddRange(BetweenStates(choice.Quality, states[^1], same[0].State));
                states.AddRange(same.Select(s => s.State));
            }
            if (!fits)
                continue;
            // "runcinate-pinnatifid": the finer one says the other too.
            if (group.Exists(p => p.Link == Link.To))
                states.RemoveAll(s => states.Exists(o => o != s && choice.Quality.Find(o)?.Broader == s));
            // A face named at the last of several alternatives holds of all of them.
            var region = group.Select((p, k) => choices[k].First(c => c.Quality == choice.Quality).Region).LastOrDefault(r => r.Length > 0);
            var claims = Claims(first, choice.Quality, [.. states.Distinct(StringComparer.Ordinal)], region ?? choice.Region, group);
            if (claims is not null && !found.Exists(f => Same(f, claims)))
                found.Add(claims);
        }
        return found;
    }

    // "Flowers dioecious" says how the sexes are shared out among plants.
    private Predicate OfPlant(Predicate predicate) =>
        predicate.Place.Part.Organ is Organ.Flower or Organ.Inflorescence
        && predicate.Senses.Any(s => s.Quality.Id == "sex-distribution" && s.State is "monoecious" or "dioecious" or "polygamous")
        && lexicon.Botany.Part(BotanyIndex.WholePlant) is { } plant
            ? predicate with
            {
                Place = new(plant, null),
            }
            : predicate;

    private static List<string> BetweenStates(Quality quality, string from, string to)
    {
        if (quality.Kind != CharacterKind.Ordered)
            return [];
        var states = quality.States.Select(s => s.Id).ToList();
        var (a, b) = (states.IndexOf(from), states.IndexOf(to));
        return a < 0 || b < 0 ? [] : states.GetRange(Math.Min(a, b), Math.Abs(a - b) + 1);
    }

    /// <summary>Whether two sets of claims say the same.</summary>
    public static bool Same(IReadOnlyList<StatementClaim> a, IReadOnlyList<StatementClaim> b) =>
        a.Count == b.Count && a.Select(Sign).Order(StringComparer.Ordinal).SequenceEqual(b.Select(Sign).Order(StringComparer.Ordinal));

    private static string Sign(StatementClaim claim) =>
        $"{claim.Character}={string.Join('|', claim.States.Order(StringComparer.Ordinal))};{claim.Range?.Text}{claim.Range?.Low}{claim.Range?.High}"
        + $";{claim.Modality};{claim.Age}";

    // The senses of a term on a part and face.
    private List<Choice> Choices(Predicate predicate)
    {
        var (part, region) = (predicate.Place.Part, predicate.With.Region);
        // "rounded at the base" is said of the base, "… at the tip" of the tip.
        foreach (var (at, quality) in new[] { ("base", "base-form"), ("tip", "apex") })
        {
            if (
                region == at
                && predicate.Senses.Where(s => s.Quality.Id == quality).ToList() is [var only]
                && Fit(predicate, only, false) is { } of
            )
                return [of];
        }
        if (
            lexicon.Rule(predicate.Phrase, part) is { } rule
            && predicate.Senses.Any(s => s.Quality.Id == rule.Quality || rule.Quality.Length == 0)
        )
        {
            return
                rule.Quality.Length > 0
                && Fit(predicate, new(lexicon.Botany.Quality(rule.Quality)!, rule.State), isRuled: true) is { } ruled
                ? [ruled]
                : [];
        }
        var fitting = predicate.Senses.Select(s => Fit(predicate, s, isRuled: false)).OfType<Choice>().ToList();
        // A word for hairs that is also one for the part itself is said of the part: "brown twigs".
        if (fitting.Exists(c => !IsOfCoat(c.Quality)))
            fitting.RemoveAll(c => IsOfCoat(c.Quality));
        // Of a term that a state shares with a kind of it the kind is meant: scarlet is a red of its own.
        if (fitting.Count > 1 && fitting.TrueForAll(c => c.Quality == fitting[0].Quality))
        {
            var broader = fitting.Select(c => c.Quality.Find(c.State)!.Broader).ToHashSet(StringComparer.Ordinal);
            fitting.RemoveAll(c => broader.Contains(c.State));
        }
        return fitting;
    }

    private static bool IsOfCoat(Quality quality) =>
        quality.Id is "hair-colour" or "hair-length" or "hair-attitude" or "hair-place" or "hair-form"
        || quality.Id.StartsWith("gland-", StringComparison.Ordinal);

    private Choice? Fit(Predicate predicate, TermSense sense, bool isRuled)
    {
        var (part, region) = (predicate.Place.Part, predicate.With.Region);
        var quality = sense.Quality;
        // What is said of hairs, glands and teeth alone; their faces are those of what carries them.
        if (OfThem(part.Id, quality.Id))
            return region.Length == 0 ? new(quality, sense.State, "")
                : Region(Faced(predicate.Place), region) is { } face ? new(quality, sense.State, face)
                : null;
        if (part.Id == "hair")
            return null;
        if (
            !isRuled
            && quality.Id.StartsWith("gland-", StringComparison.Ordinal)
            && !predicate.Phrase.Contains("gland", StringComparison.Ordinal)
        )
            return null;
        // "Tree-like" and "club-shaped" are said of hairs only where hairs are named.
        if (!predicate.IsOfHair && !isRuled && quality.Id == "hair-form" && !OfHairs.Any(w => predicate.Phrase.Contains(w, Ordinal)))
            return null;
        if (!predicate.IsOfHair && !isRuled && quality.Id is "hair-colour" or "hair-length" or "hair-attitude" or "hair-place")
            return null;
        if (
            !isRuled && (!BotanyIndex.IsUsual(part, quality) || !lexicon.IsReadOf(quality, part) || quality.Id == "sap" && part.Id != "sap")
        )
            return null;
        if (region.Length == 0)
            return new(quality, sense.State, "");
        // Where a fruit opens isn't kept, that it does is.
        if (quality.Id == "dehiscence")
            return new(quality, sense.State, "");
        if (region == "base" && quality.Id == "base-form" || region == "tip" && quality.Id == "apex")
            return new(quality, sense.State, "");
        if (
            !Array.Exists(OfPlace, p => quality.Id.StartsWith(p, StringComparison.Ordinal))
            || Region(Faced(predicate.Place), region) is not { } where
        )
            return null;
        // An edge has no faces.
        var isOfEdge = quality.Id is "margin" || quality.Id.StartsWith("edge-", StringComparison.Ordinal) || quality.Id == "margin-hairs";
        return isOfEdge && where is "above" or "beneath" or Both ? null : new(quality, sense.State, where);
    }

    private const StringComparison Ordinal = StringComparison.Ordinal;

    // What the words for kinds of hairs have in them.
    private static readonly string[] OfHairs = ["hair", "pubesc", "toment", "stellate", "glandular", "stinging", "malpighi", "fixed by"];

    private static bool OfThem(string part, string quality) =>
        part switch
        {
            "hair" => quality.StartsWith("hair-", StringComparison.Ordinal) && quality != "hair-place",
            "gland" => quality.StartsWith("gland-", StringComparison.Ordinal),
            "tooth" => quality.StartsWith("tooth-", StringComparison.Ordinal),
            _ => false,
        };

    // Hairs and glands have the faces of what carries them.
    private static Part Faced(PartPlace place) => place is { Part.Id: "hair" or "gland", Owner: { } owner } ? owner : place.Part;

    // "Above" and "below" are faces of a blade, ends of a stem; of other parts nobody can say.
    private static string? Region(Part part, string region) =>
        region switch
        {
            "above" or "beneath" or Both when HasFaces(part) => region,
            "above" when part.Class == PartClass.Axis => "tip",
            "beneath" when part.Class is PartClass.Axis or PartClass.Line => "base",
            "above" or "beneath" or Both => null,
            _ => region,
        };

    private static bool HasFaces(Part part) =>
        part.Class is PartClass.Blade or PartClass.Edge || part.Id is "petiole" or "rachis" or "vein" or "midrib" or "lateral-vein";

    // How long a part is beside another one; "not longer than" leaves what is no longer.
    private List<List<StatementClaim>> Compared(Predicate predicate, Part other)
    {
        var id = new CharacterId("", predicate.Place.Part.Id, CharacterId.Comparing, other.Id);
        if (
            predicate.Place.Owner is not null
            || predicate.With.Region.Length > 0
            || lexicon.Botany.Compose(id.ToString()) is not { } character
        )
            return [];
        List<string> said = [.. predicate.Senses.Select(s => s.State)];
        // "Longer" is said of what is much longer too.
        var kinds = said.Select(character.IndexOf).Where(s => s >= 0).SelectMany(character.Within).Select(s => character.States[s].Id);
        List<string> states = [.. said.Union(kinds, StringComparer.Ordinal)];
        if (!predicate.With.IsDenied)
            return
            [
                [new(id.ToString(), said, null, Share(predicate.With), null, predicate.With.Age)],
            ];
        List<string> left = [.. character.States.Select(s => s.Id).Except(states, StringComparer.Ordinal)];
        return left.Count == 0
            ? []
            :
            [
                [new(id.ToString(), left, null, Share(predicate.With), said, predicate.With.Age)],
            ];
    }

    private List<List<StatementClaim>> Measured(Predicate predicate)
    {
        var quality = lexicon.Botany.Quality(predicate.Quality);
        if (quality is null || predicate.With.IsDenied || predicate.With.Region is "above" or "beneath")
            return [];
        var id = Id(predicate.Place, quality, "");
        return id is null
            ? []
            :
            [
                [new StatementClaim(id, [], predicate.Range, Share(predicate.With), null, predicate.With.Age)],
            ];
    }

    // "3 or 4": from the one to the other.
    private List<List<StatementClaim>> Ranges(ImmutableList<Predicate> group)
    {
        if (group.Exists(p => p.Range is null || p.Quality != group[0].Quality || p.Place != group[0].Place))
            return [];
        var ranges = group.ConvertAll(p => p.Range!);
        if (ranges.Exists(r => r.Form is RangeForm.MoreThan or RangeForm.UpTo))
            return [];
        var joint = new QuantityRange(ranges[0].Kind, RangeForm.Between, ranges.Min(r => r.Low), ranges.Max(r => r.High));
        return Measured(group[0] with { Range = joint });
    }

    // Whether a part is there; of hairs, teeth and lobes the qualities say it.
    private List<StatementClaim>? There(Predicate predicate, bool isThere)
    {
        var (part, owner) = (predicate.Place.Part, predicate.Place.Owner);
        // "Corolla spurred at the base" says nothing of the spur's own base.
        if (owner is null && predicate.With.Region is "base" or "tip")
            return null;
        isThere ^= predicate.With.IsDenied;
        var (quality, state) = part.Id switch
        {
            "hair" when owner is not null => ("hair-density", isThere ? "hairy" : "glabrous"),
            "tooth" when owner is not null => ("margin", isThere ? "toothed" : "entire"),
            "lobe" when owner is not null => ("lobing", isThere ? "lobed" : "unlobed"),
            _ => (BotanyIndex.Presence, isThere ? "present" : "absent"),
        };
        if (lexicon.Botany.Quality(quality) is not { } known)
            return null;
        var place = quality == BotanyIndex.Presence ? predicate.Place : new PartPlace(owner!, null);
        var with = predicate.With with { IsDenied = false };
        if (with.Region is "base" or "tip" && quality is "margin" or "lobing" && !isThere)
            return null;
        return Claims(predicate with { Place = place, With = with }, known, [state], with.Region, []);
    }

    private List<StatementClaim>? Claims(
        Predicate predicate,
        Quality quality,
        IReadOnlyList<string> states,
        string region,
        ImmutableList<Predicate> group
    )
    {
        var share = Share(predicate.With);
        foreach (var more in group)
            share = Math.Min(share, Share(more.With));
        List<StatementClaim> claims = [];
        var where = region.Length == 0 ? "" : Region(Faced(predicate.Place), region) ?? "?";
        foreach (var face in where == Both ? ["above", "beneath"] : new[] { where })
        {
            if (Id(predicate.Place, quality, face) is not { } id || lexicon.Botany.Compose(id) is not { } character)
                return null;
            if (!predicate.With.IsDenied)
            {
                claims.Add(new(id, states, null, share, null, predicate.With.Age));
                continue;
            }
            var denied = states.Select(character.IndexOf).Where(s => s >= 0).SelectMany(character.Within).ToHashSet();
            var left = Enumerable
                .Range(0, character.States.Count)
                .Where(s => !denied.Contains(s) && character.Within(s).All(w => !denied.Contains(w)))
                .Select(s => character.States[s].Id)
                .ToList();
            if (left.Count == 0)
                return null;
            claims.Add(new(id, left, null, share, states, predicate.With.Age));
        }
        return claims;
    }

    private static double Share(Modifiers with)
    {
        var share = with.Modality ?? Modality.AlwaysInKeys;
        return with.IsRough ? Math.Min(share, Modality.Usually) : share;
    }

    // The blade stands for the leaf but in its length.
    private string? Id(PartPlace place, Quality quality, string region)
    {
        string Of(Part part) => part.Id == Blade && quality.Id is not ("length" or "ratio") ? Leaf : part.Id;
        var owner = place.Owner is null ? "" : Of(place.Owner);
        var id = lexicon.Botany.Canonical(new CharacterId(owner, Of(place.Part), quality.Id, region)).ToString();
        return lexicon.Botany.Compose(id) is null ? null : id;
    }
}
