using System.Collections.Immutable;
using Garten.Core.Botany;
using Garten.Core.Evidence;

namespace Garten.Core.Language;

internal sealed partial class ClauseReader
{
    // Terms that follow each other without a comma: "dark green", "grey felted", "ovate-lanceolate".
    private IEnumerable<Parse> Terms(int i, PartPlace place, Link link, Modifiers with)
    {
        List<LexiconEntry> run = [];
        var at = i;
        while (run.Count < 4 && Get(at, WordKind.State) is { } entry)
        {
            // "hairy on the veins": where, not what.
            if (run.Count > 0 && (IsPlace(entry) || entry.Senses.All(s => s.Quality.Id == "hair-place")))
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
                yield return new(at, [.. run.Count > 1 ? bundle.Select(b => b with { By = b.By | Construction.Bundle }) : bundle]);
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
                // "Solitary in the leaf axils": where they stand is said besides.
                WordKind.State when IsPlace(entry) && !IsPlaced(parse.Predicates[^1]) && parse.Predicates[^1].Range is null => new Parse(
                    i + entry.Words.Length,
                    parse.Predicates.Add(
                        State(
                            Link.And,
                            parse.Predicates[^1].Place,
                            entry,
                            Modifiers.None with
                            {
                                Modality = parse.Predicates[^1].With.Modality,
                            }
                        )
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

    private static bool IsPlace(LexiconEntry entry) =>
        entry.Words.Length > 1 && entry.Words[0] is "in" or "at" or "on" && entry.Senses.All(s => s.Quality.Id == "place");

    private static bool IsPlaced(Predicate predicate) => predicate.Senses.Any(s => s.Quality.Id == "place") || predicate.With.IsDenied;

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
}
