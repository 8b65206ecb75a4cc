using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Evidence;

/// <summary>What a sheet says of one character in one kind of light, its looks put together.</summary>
/// <param name="Character">The character.</param>
/// <param name="States">Places of the states seen among the character's; empty for readings.</param>
/// <param name="Together">Whether all of them are on the plant.</param>
/// <param name="NotFound">Looked for and not found.</param>
/// <param name="Sample">The readings; null for states.</param>
/// <param name="Show">Of a stand: how many show it.</param>
/// <param name="Of">Of a stand: how many were looked at.</param>
/// <param name="Sureness">The surest of its looks.</param>
/// <param name="Larger">Whether leaves are larger here than in the sun.</param>
/// <param name="Weight">Exponent of its likelihood; 0 where it doesn't count.</param>
/// <param name="Reason">Why it counts less, or not, or is judged otherwise; empty for most.</param>
/// <param name="FromCouplets">The couplets that it was noted at; empty where it was looked at by itself.</param>
/// <param name="Follows">Whether it only follows from other measures: it adds nothing to them, but a key may ask for it.</param>
public sealed record EvidenceItem(
    Character Character, IReadOnlyList<int> States, bool Together, bool NotFound, Sample? Sample, int Show, int Of, Sureness Sureness, bool Larger, double Weight, string Reason,
    IReadOnlyList<string> FromCouplets, bool Follows = false)
{
    private sealed record Scoring(string States, bool Together, bool NotFound, int Show, int Of);

    /// <summary>
    /// Puts the looks of a sheet together: readings of a character pool over the plant; the same scoring counts once, the surest; of
    /// different scorings of one character each counts in part; of a family of measures two count; sizes that vary together count as
    /// 1/(1 + (k−1)·r) each. The order of the looks doesn't matter.
    /// </summary>
    /// <param name="observations">The observations that hold.</param>
    /// <param name="table">The characters; looks at unknown ones are left out, and ratios of measured ones derive themselves.</param>
    /// <param name="options">The numbers to weigh with.</param>
    public static IReadOnlyList<EvidenceItem> Pool(IReadOnlyList<Observation> observations, CharacterTable table, EvidenceOptions options)
    {
        ArgumentNullException.ThrowIfNull(observations);
        ArgumentNullException.ThrowIfNull(table);
        ArgumentNullException.ThrowIfNull(options);
        var items = new List<EvidenceItem>();
        foreach (var byCharacter in observations.Where(o => o.Outcome != Outcome.OutOfReach).GroupBy(o => o.Character, StringComparer.Ordinal).OrderBy(g => g.Key, StringComparer.Ordinal))
        {
            if (table.Find(byCharacter.Key) is not { } character) continue;
            if (character.IsQuantity) AddSamples(items, character, byCharacter, options);
            else AddScorings(items, character, byCharacter, options);
        }
        foreach (var ratio in table.Characters.Where(c => c.RatioOf is [_, _] && !items.Exists(i => i.Character.Id == c.Id))) AddRatio(items, ratio, observations, options);
        foreach (var trend in table.Characters.Where(c => c.TrendOf.Length > 0 && !items.Exists(i => i.Character.Id == c.Id))) AddTrend(items, trend, observations);
        return Dependent(items, options);
    }

    // Of a series up the stem: rising, level or falling is a character of its own.
    private static void AddTrend(List<EvidenceItem> items, Character trend, IReadOnlyList<Observation> observations)
    {
        var looks = observations.Where(o => o.Character == trend.TrendOf && Class(o) == (false, false) && o.Readings.Count > 0).ToList();
        if (StemSeries.Trend(looks.SelectMany(o => o.Readings)) is not { } direction || trend.IndexOf(Character.Trend(direction)) is not (>= 0 and var state)) return;
        items.Add(new(trend, [state], false, false, null, 0, 0, looks.Max(o => o.Sureness), false, 1, "Derived from the series up the stem.", Couplets(looks)));
    }

    // Of two measured characters, in the same light: paired where both have as many readings.
    private static void AddRatio(List<EvidenceItem> items, Character ratio, IReadOnlyList<Observation> observations, EvidenceOptions options)
    {
        foreach (var larger in new[] { false, true })
        {
            List<Observation> Of(string character) => [.. observations.Where(o => o.Character == character && o.Context.LeavesAreLarger == larger && Class(o) == (false, false) && o.Readings.Count > 0)];
            var (above, below) = (Of(ratio.RatioOf![0]), Of(ratio.RatioOf[1]));
            if (DerivedRatio.Of([.. above.SelectMany(o => o.Readings)], [.. below.SelectMany(o => o.Readings)], paired: true) is not { } derived) continue;
            var readings = derived.Each.Count > 0 ? derived.Each.Select(v => new Reading(v, "", 0)) : [new Reading(derived.Value, "", 0, derived.Uncertainty ?? options.WithinPlant * derived.Value)];
            var looks = above.Concat(below).ToList();
            items.Add(new(ratio, [], false, false, Quantities.Sample.Of(readings), 0, 0, looks.Max(o => o.Sureness), false, 1, "", Couplets(looks), true));
        }
    }

    private static void AddSamples(List<EvidenceItem> items, Character character, IEnumerable<Observation> looks, EvidenceOptions options)
    {
        foreach (var group in looks.Where(o => o.Readings.Count > 0).GroupBy(o => (o.Context.LeavesAreLarger, Class(o))).OrderBy(g => g.Key))
        {
            if (Quantities.Sample.Of(group.SelectMany(o => o.Readings)) is not { } sample) continue;
            var (weight, reason) = Judge(character, group.First().Context, options);
            if (StemSeries.InWords(group.SelectMany(o => o.Readings), character.Quantity) is { } series) reason = $"{reason} {series}".Trim();
            items.Add(new(character, [], false, false, sample, 0, 0, group.Min(o => o.Sureness), group.Key.LeavesAreLarger && character.Organ == Organ.Leaf, weight, reason, Couplets(group)));
        }
    }

    private static void AddScorings(List<EvidenceItem> items, Character character, IEnumerable<Observation> looks, EvidenceOptions options)
    {
        var scorings = looks.Where(o => o.States.Count > 0 || o.Outcome == Outcome.NotFound)
            .GroupBy(o => (new Scoring(string.Join('|', o.States.Order(StringComparer.Ordinal)), o.Together, o.Outcome == Outcome.NotFound, o.Show, o.Of), Class(o)))
            .OrderBy(g => g.Key.Item1.States, StringComparer.Ordinal).ThenBy(g => (g.Key.Item1.Together, g.Key.Item1.NotFound, g.Key.Item1.Show, g.Key.Item1.Of)).ThenBy(g => g.Key.Item2).ToList();
        foreach (var group in scorings)
        {
            var first = group.First();
            if (group.Key.Item1.NotFound && AbsentState(character) < 0) continue;
            var (weight, reason) = Judge(character, first.Context, options);
            items.Add(new(character, [.. first.States.Select(character.IndexOf).Where(i => i >= 0).Order()], first.Together, group.Key.Item1.NotFound, null, first.Show, first.Of,
                group.Min(o => o.Sureness), false, weight / scorings.Count, reason, Couplets(group)));
        }
    }

    // What must not be pooled: a neighbour's material with the plant's own, a shaped part with a grown one.
    private static (bool Neighbour, bool Shaped) Class(Observation o) => (o.Context.Attachment == Attachment.PerhapsNeighbours, o.Context.Shaping != Shaping.Unsaid);

    private static string[] Couplets(IEnumerable<Observation> group) => [.. group.Select(o => o.FromCouplet).Where(f => f.Length > 0).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];

    private static (double Weight, string Reason) Judge(Character character, ObservationContext context, EvidenceOptions options)
    {
        if (context.Shaping != Shaping.Unsaid && (character.Organ == Organ.Habit || character.SizeGroup.Length > 0)) return (0, "The plant is browsed, cut or trained: its habit and sizes say nothing.");
        if (context.Attachment == Attachment.PerhapsNeighbours) return (options.NeighbourWeight, "It is perhaps a neighbour's: it weighs a quarter.");
        return context.LeavesAreLarger && character.Organ == Organ.Leaf && character.Kind == CharacterKind.Length ? (1, "Measured on leaves of shade or of a sapling, which are larger.") : (1, "");
    }

    private static List<EvidenceItem> Dependent(List<EvidenceItem> items, EvidenceOptions options)
    {
        var result = items.ToList();
        foreach (var family in items.Where(i => i.Character.Family.Length > 0 && i.Weight > 0).GroupBy(i => i.Character.Family, StringComparer.Ordinal))
        {
            // Measured ones before derived ones.
            var characters = family.Select(i => i.Character).Distinct().OrderBy(c => c.Kind == CharacterKind.Ratio).ThenBy(c => c.Id, StringComparer.Ordinal).Skip(options.IndependentOfFamily).ToHashSet();
            for (var i = 0; i < result.Count; i++)
            {
                if (characters.Contains(result[i].Character)) result[i] = result[i] with { Weight = 0, Follows = true };
            }
        }
        foreach (var group in result.Where(i => i.Character.SizeGroup.Length > 0 && i.Weight > 0).GroupBy(i => i.Character.SizeGroup, StringComparer.Ordinal).Where(g => g.Count() > 1).ToList())
        {
            var share = 1 / (1 + (group.Count() - 1) * options.SizeCorrelation);
            foreach (var item in group)
            {
                var at = result.IndexOf(item);
                result[at] = item with { Weight = item.Weight * share };
            }
        }
        return result;
    }

    /// <summary>The state that means that the part isn't there; -1 where the character has none.</summary>
    public static int AbsentState(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        for (var i = 0; i < character.States.Count; i++)
        {
            if (character.States[i].Id is "absent" or "none"
                || character.States[i].Id.StartsWith("no-", StringComparison.Ordinal) || character.States[i].Id.StartsWith("not-", StringComparison.Ordinal)) return i;
        }
        return -1;
    }

    /// <summary>What was seen, in words and figures.</summary>
    public string InWords()
    {
        if (Sample is { } sample)
        {
            var kind = Character.Quantity;
            var of = sample.Count > 1 ? $" (mean of {sample.Count}, {ReadingText.Show(sample.Least, kind)} to {ReadingText.Show(sample.Largest, kind)})" : "";
            return ReadingText.Show(sample.Mean, kind) + of + (Larger ? ", leaves of the shade" : "");
        }
        if (NotFound) return $"{Character.Name}: looked for, not found";
        var states = string.Join(Together ? " and " : " or ", States.Select(s => Character.States[s].Name));
        return Of > 0 ? $"{states}: {Show} of {Of}" : states;
    }
}
