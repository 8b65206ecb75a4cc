using System.Collections.Immutable;
using System.Globalization;
using Garten.Core.Botany;
using Garten.Core.Quantities;

namespace Garten.Core.Language;

internal sealed partial class ClauseReader
{
    private const string Length = "length";
    private const string Width = "width";
    private const string Height = "height";
    private const string Ratio = "ratio";

    // Numbers with what they measure or count.
    private IEnumerable<Parse> Measures(int i, PartPlace place, Link link, Modifiers with)
    {
        if (i >= end)
            yield break;
        foreach (var entry in At(i))
        {
            if (entry.Kind != WordKind.Ratio || !HasRatio(place.Part))
                continue;
            var bounds = entry.Value.Split("..");
            yield return new(i + entry.Words.Length, [Number(link, place, Ratio, Between(bounds[0], bounds[1]), with)]);
        }
        var reading = tokens.Number(i);
        if (reading.Ranges.Count == 0)
            yield break;
        var next = tokens.IndexAt(reading.End);
        var first = reading.Ranges[0];
        if (reading.Ranges.Count == 2)
        {
            if (
                first.Kind == QuantityKind.Length
                && place.Part.Class is PartClass.Blade or PartClass.Body or PartClass.Set or PartClass.Line
            )
            {
                yield return new(next, [Number(link, place, Length, first, with), Number(Link.And, place, Width, reading.Ranges[1], with)]);
            }
            yield break;
        }
        // "3–4 times pinnate" counts as "3–4-pinnate" does.
        if (first.Kind == QuantityKind.Ratio && Get(next, WordKind.Counted) is { Value: "=division" })
        {
            foreach (var parse in Counts(i, next, first, place, link, with))
                yield return parse;
            yield break;
        }
        switch (first.Kind)
        {
            case QuantityKind.Length:
                var isNamed = false;
                foreach (var entry in At(next))
                {
                    if (entry.Kind != WordKind.Dimension)
                        continue;
                    isNamed = true;
                    foreach (var quality in Dimensions(entry.Value, place.Part))
                        yield return new(next + entry.Words.Length, [Number(link, place, quality, first, with)]);
                }
                if (!isNamed)
                {
                    foreach (var quality in Unnamed(place.Part))
                        yield return new(next, [Number(link, place, quality, first, with)]);
                }
                break;
            case QuantityKind.Ratio:
                if (HasRatio(place.Part) && RatioOf(first, tokens.Text[tokens.List[i].At..reading.End]) is { } ratio)
                    yield return new(next, [Number(link, place, Ratio, ratio, with)]);
                break;
            case QuantityKind.Count:
                foreach (var parse in Counts(i, next, first, place, link, with))
                    yield return parse;
                break;
        }
    }

    // "Longer than the sepals", "about twice as long as the tube": the part behind it is what its own length is laid beside.
    private IEnumerable<Parse> Comparisons(int i, PartPlace place, Link link, Modifiers with)
    {
        if (
            i >= end
            || !Has(i, WordKind.Comparison) && tokens.Number(i).Ranges.Count == 0
            || lexicon.Botany.Quality(CharacterId.Comparing) is not { } quality
            || !BotanyIndex.IsUsual(place.Part, quality)
        )
            yield break;
        foreach (var (at, entry, factor) in Comparing(i))
        {
            IReadOnlyList<string> states = entry.Value.Split('|');
            // "Twice as long as": of anything else a factor says nothing.
            if (factor is not null)
                states = states is ["equal"] ? OfFactor(factor) : [];
            if (states.Count == 0)
                continue;
            foreach (var (next, other) in Beside(at + entry.Words.Length, place))
                yield return new(
                    next,
                    [new(link, place, "", [.. states.Select(s => new TermSense(quality, s))], "", null, null, with, Against: other)]
                );
        }
    }

    // Words that compare, with the number before them where there is one.
    private IEnumerable<(int At, LexiconEntry Entry, QuantityRange? Factor)> Comparing(int i)
    {
        foreach (var entry in At(i).Where(e => e.Kind == WordKind.Comparison))
            yield return (i, entry, null);
        if (tokens.Number(i) is not { Ranges: [{ Kind: QuantityKind.Ratio or QuantityKind.Count } times] } reading)
            yield break;
        var at = tokens.IndexAt(reading.End);
        if (at < end && tokens.List[at].Text == "times")
            at++;
        foreach (var entry in At(at).Where(e => e.Kind == WordKind.Comparison))
            yield return (at, entry, times);
    }

    private IEnumerable<(int Next, Part Other)> Beside(int i, PartPlace place)
    {
        while (Has(i, WordKind.Its) || Has(i, WordKind.Article))
            i++;
        var whole = lexicon.Botany.Wholes(place.Part).FirstOrDefault(w => w.Id != BotanyIndex.WholePlant);
        foreach (var (next, other) in Nouns(i, [place, whole is null ? null : new(whole, null), context.Main]))
        {
            if (other.Owner is null && other.Part != place.Part && other.Part.Class != PartClass.Plant)
                yield return (next, other.Part);
        }
    }

    // How long a part is that is so many times as long as another one; a factor that is near a limit is on both sides of it.
    private static List<string> OfFactor(QuantityRange factor)
    {
        const double near = 0.1;
        (double From, double To, string State)[] all =
        [
            (0, 0.5, "much-shorter"),
            (0.5, 1 - near, "shorter"),
            (1 - near, 1 + near, "equal"),
            (1 + near, 2, "longer"),
            (2, double.PositiveInfinity, "much-longer"),
        ];
        var low = factor.Form == RangeForm.UpTo ? 0 : factor.Low * (1 - near / 2);
        var high = factor.Form == RangeForm.MoreThan ? double.PositiveInfinity : factor.High * (1 + near / 2);
        return [.. all.Where(s => low < s.To && high > s.From).Select(s => s.State)];
    }

    private IEnumerable<Parse> Counts(int i, int next, QuantityRange count, PartPlace place, Link link, Modifiers with)
    {
        foreach (var entry in At(next))
        {
            if (entry.Kind == WordKind.Pairs && place.Part.Class is not (PartClass.Plant or PartClass.Place))
                yield return new(next + entry.Words.Length, [Number(link, place, BotanyPairs, count, with)]);
            // "2–3-pinnate": so often divided.
            if (entry.Kind == WordKind.Counted && entry.Value == "=division" && Divisions(count, entry.Phrase) is { Count: > 0 } divisions)
            {
                yield return new(
                    next + entry.Words.Length,
                    [.. divisions.Select((d, k) => State(k == 0 ? link : Link.Or, place, d, with))]
                );
            }
            // "palmately 3–5-lobed" says how it is lobed too.
            var manner = i > 0 && entry.Value == "lobe" ? tokens.List[i - 1].Text : "";
            if (entry.Kind == WordKind.Counted && lexicon.Botany.Part(entry.Value) is { } named)
            {
                var part = named.Id == "flower" && place.Part.Id == "spikelet" ? lexicon.Botany.Part("floret")! : named;
                var of =
                    lexicon.Botany.CanOwn(place.Part, part) ? new PartPlace(part, place.Part)
                    : part.IsOwned ? null
                    : new PartPlace(part, null);
                if (of is not null)
                {
                    var counted = ImmutableList.Create(Number(link, of, BotanyNumber, count, with));
                    if (manner is "palmately" or "pinnately" && lexicon.Term($"{manner} lobed") is { } term)
                        counted = counted.Add(State(Link.And, place, term, with));
                    yield return new(next + entry.Words.Length, counted);
                }
            }
        }
        // A number that nothing is said behind counts the part; of "one" and the like only together with a noun.
        var isBare =
            next == end
            || Has(next, WordKind.Or)
            || Has(next, WordKind.And)
            || Has(next, WordKind.But)
            || Has(next, WordKind.Region)
            || Has(next, WordKind.With);
        if (!isBare || place.Part.Class is PartClass.Plant or PartClass.Fluid or PartClass.Place or PartClass.Surface)
            yield break;
        if (count is { Low: 0, High: 0 })
            yield return new(next, [Presence(link, place, false, with)]);
        else
            yield return new(next, [Number(link, place, BotanyNumber, count, with)]);
    }

    private static readonly string[][] DivisionTerms =
    [
        ["pinnate", "bipinnate", "tripinnate"],
        ["ternate", "biternate", "triternate"],
    ];

    private List<LexiconEntry> Divisions(QuantityRange count, string phrase)
    {
        var terms = Array.Find(DivisionTerms, t => t[0] == phrase);
        if (terms is null || count.Low < 1 || count.High > terms.Length || count.Form != RangeForm.Between && count.Low != count.High)
            return [];
        return
        [
            .. Enumerable
                .Range((int)count.Low, (int)(count.High - count.Low) + 1)
                .Select(n => lexicon.Term(terms[n - 1]))
                .OfType<LexiconEntry>(),
        ];
    }

    private static bool HasRatio(Part part) => part.Class is PartClass.Blade or PartClass.Body or PartClass.Set;

    // Which dimension a word names on a part.
    private static IEnumerable<string> Dimensions(string dimension, Part part) =>
        dimension switch
        {
            "diameter" when part.Class is PartClass.Axis or PartClass.Line => ["thickness"],
            "diameter" => [Width],
            Height when part.Class is PartClass.Axis or PartClass.Plant or PartClass.Set => [Height],
            Height => [Length],
            _ => [dimension],
        };

    // Without a word the length is meant where a part has a clear one; of round parts it may be either.
    private IEnumerable<string> Unnamed(Part part) =>
        part.Class switch
        {
            PartClass.Plant => [Height],
            _ when part.Id is "stem" or "culm" or "flowering-stem" or "trunk" => [Height],
            PartClass.Axis or PartClass.Blade or PartClass.Line => [Length],
            _ when lexicon.IsListed(Lexicon.LongPart, part.Id) => [Length],
            PartClass.Body or PartClass.Set => [Length, Width],
            _ => [],
        };

    private static QuantityRange Between(string low, string high)
    {
        static double Of(string text) => double.Parse(text, CultureInfo.InvariantCulture);
        return low.Length == 0 ? QuantityRange.UpTo(QuantityKind.Ratio, Of(high))
            : high.Length == 0 ? QuantityRange.MoreThan(QuantityKind.Ratio, Of(low))
            : new QuantityRange(QuantityKind.Ratio, RangeForm.Between, Of(low), Of(high));
    }

    // "1½–3 times as long as wide"; "twice as wide as long" is half as long as wide; of another part's length it is no ratio.
    private static QuantityRange? RatioOf(QuantityRange range, string text)
    {
        var words = text.TrimEnd(',', ';', ' ').ToLowerInvariant();
        bool Ends(params string[] ends) => ends.Any(e => words.EndsWith(e, StringComparison.Ordinal));
        if (Ends("long as wide", "long as broad", "longer than wide", "longer than broad", "its width"))
            return range;
        if (!Ends("wide as long", "broad as long", "wider than long", "broader than long") || range.Low <= 0)
            return null;
        return range.Form switch
        {
            RangeForm.UpTo => QuantityRange.MoreThan(QuantityKind.Ratio, 1 / range.High, range.Text),
            RangeForm.MoreThan => QuantityRange.UpTo(QuantityKind.Ratio, 1 / range.Low, range.Text),
            _ => new QuantityRange(QuantityKind.Ratio, range.Form, 1 / range.High, 1 / range.Low, Text: range.Text),
        };
    }

    private static bool IsSize(LexiconEntry entry) => entry.Senses.Any(s => s.Quality.Id is "size" or "slenderness");

    private static readonly string[] LifeQualities = ["growth-form", "life-span", "sex-distribution"];

    // "Erect shrub 1–3 m", "annual or biennial herb": nouns that say what kind of plant it is.
    private IEnumerable<ClauseForm> LifeForm(int i)
    {
        if (lexicon.Botany.Part(BotanyIndex.WholePlant) is not { } plant || !context.IsFirst && context.Current?.Part != plant)
            yield break;
        var place = new PartPlace(plant, null);
        var said = ImmutableList<Predicate>.Empty;
        List<LexiconEntry> before = [];
        var link = Link.And;
        var hasForm = false;
        var with = Modifiers.None;
        while (i < end)
        {
            var entries = At(i);
            if (entries.FirstOrDefault(e => e.Kind == WordKind.State) is { } state)
            {
                var senses = state.Senses.Where(s => LifeQualities.Contains(s.Quality.Id)).ToList();
                if (senses.Count > 0)
                {
                    // Of "shrub or small tree" the size is one of the tree's alone.
                    foreach (var term in hasForm && link == Link.Or ? before.Where(t => !IsSize(t)) : before)
                        said = said.Add(State(Link.And, place, term, with));
                    if (hasForm && link == Link.Or && before.Exists(t => !IsSize(t)))
                        yield break;
                    before.Clear();
                    said = said.Add(State(hasForm ? link : Link.And, place, state with { Senses = senses }, with));
                    hasForm = true;
                    link = Link.And;
                }
                else
                    before.Add(state);
                i += state.Words.Length;
            }
            else if (entries.Any(e => e.Kind is WordKind.Or or WordKind.To) && tokens.Number(i).Ranges.Count == 0)
            {
                link = Link.Or;
                i++;
            }
            else if (entries.FirstOrDefault(e => e.Kind == WordKind.Frequency) is { } frequency && tokens.Number(i).Ranges.Count == 0)
            {
                with = with with { Modality = double.Parse(frequency.Value, CultureInfo.InvariantCulture) };
                i += frequency.Words.Length;
            }
            else if (entries.Any(e => e.Kind == WordKind.Not) && said.Count == 0 && before.Count == 0)
            {
                with = with with { IsDenied = true };
                i++;
            }
            else if (entries.Any(e => e.Kind is WordKind.And or WordKind.Article or WordKind.Degree or WordKind.Unsaid) || IsUnknown(i))
                i += Step(i);
            else
                break;
        }
        if (!hasForm || before.Count > 0)
            yield break;
        if (i == end)
        {
            yield return new(said, place, true, false);
            yield break;
        }
        foreach (var parse in Predicates(i, place, Modifiers.None))
            yield return new(said.AddRange(parse.Predicates), place, true, false);
    }
}
