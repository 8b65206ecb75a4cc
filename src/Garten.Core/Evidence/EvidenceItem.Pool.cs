using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Evidence;

/// <content>How the looks of a sheet are put together.</content>
public sealed partial record EvidenceItem
{
    private sealed record Scoring(string States, bool Together, bool NotFound, int Show, int Of, bool Searched);

    /// <summary>
    /// Puts the looks of a sheet together: readings of a character pool over the plant; the same scoring counts once, the surest; of
    /// different scorings of one character each counts in part; of a family of measures two count; sizes that vary together count as
    /// 1/(1 + (k−1)·r) each. The order of the looks doesn't matter.
    /// </summary>
    /// <param name="observations">The observations that hold.</param>
    /// <param name="table">The characters; looks at unknown ones are left out, and ratios of measured ones derive themselves.</param>
    /// <param name="options">The numbers to weigh with.</param>
    /// <param name="derived">How what isn't described follows from what is; null: looks that follow from one description count each for
    /// itself.</param>
    public static IReadOnlyList<EvidenceItem> Pool(
        IReadOnlyList<Observation> observations,
        CharacterTable table,
        EvidenceOptions options,
        DerivedDescriptions? derived = null
    )
    {
        ArgumentNullException.ThrowIfNull(observations);
        ArgumentNullException.ThrowIfNull(table);
        ArgumentNullException.ThrowIfNull(options);
        var items = new List<EvidenceItem>(observations.Count);
        // By character, the looks at one in their order; sheets are put together at every look, so without queries.
        var looks = new List<Observation>(observations.Count);
        foreach (var observation in observations)
        {
            if (observation.Outcome != Outcome.OutOfReach)
                looks.Add(observation);
        }
        var order = new int[looks.Count];
        for (var i = 0; i < order.Length; i++)
            order[i] = i;
        Array.Sort(order, (a, b) =>
            string.CompareOrdinal(looks[a].Character, looks[b].Character) is not 0 and var by ? by : a.CompareTo(b)
        );
        for (var from = 0; from < order.Length; )
        {
            var id = looks[order[from]].Character;
            var to = from;
            var ofCharacter = new List<Observation>(1);
            while (to < order.Length && looks[order[to]].Character == id)
                ofCharacter.Add(looks[order[to++]]);
            from = to;
            if (table.Find(id) is not { } character)
                continue;
            // A fact of before readings were bounded says nothing; whoever shows the sheet says so.
            if (character.IsQuantity)
                ofCharacter.RemoveAll(o => o.Readings.Any(r => !ReadingText.IsWithinBounds(r, character.Quantity)));
            if (character.IsQuantity)
                AddSamples(items, character, ofCharacter, options);
            else
                AddScorings(items, character, ofCharacter, options);
        }
        foreach (var ratio in table.Ratios)
        {
            if (!items.Exists(i => i.Character.Id == ratio.Id))
                AddRatio(items, ratio, looks, options);
        }
        foreach (var trend in table.Trends)
        {
            if (!items.Exists(i => i.Character.Id == trend.Id))
                AddTrend(items, trend, looks, options.Contexts);
        }
        FollowingItems.Add(items, table, looks);
        if (table.Botany is { } botany)
            ShareDimensions(items, botany, derived);
        return Dependent(items, options);
    }

    // Of a series up the stem: rising, level or falling is a character of its own.
    private static void AddTrend(List<EvidenceItem> items, Character trend, List<Observation> observations, ContextRules rules)
    {
        if (!observations.Exists(o => o.Character == trend.TrendOf))
            return;
        var looks = observations.Where(o => o.Character == trend.TrendOf && IsOwn(trend, o, rules) && o.Readings.Count > 0).ToList();
        if (
            StemSeries.Trend(looks.SelectMany(o => o.Readings)) is not { } direction
            || trend.IndexOf(Character.Trend(direction)) is not (>= 0 and var state)
        )
            return;
        items.Add(
            new(
                trend,
                [state],
                false,
                false,
                null,
                0,
                0,
                looks.Max(o => o.Sureness),
                false,
                1,
                "Derived from the series up the stem.",
                Couplets(looks)
            )
        );
    }

    // Of two measured characters, in the same light: paired where both have as many readings.
    private static void AddRatio(List<EvidenceItem> items, Character ratio, List<Observation> observations, EvidenceOptions options)
    {
        if (!observations.Exists(o => o.Character == ratio.RatioOf![0]) || !observations.Exists(o => o.Character == ratio.RatioOf![1]))
            return;
        var contexts = observations
            .Where(o => o.Character == ratio.RatioOf![0])
            .Select(o => (o.Context.LeavesAreLarger, Keys: LookContext.Of(ratio, o.Context, options.Contexts).Keys))
            .Distinct()
            .Order()
            .ToList();
        foreach (var (larger, keys) in contexts)
        {
            List<Observation> Of(string character) =>
                [
                    .. observations.Where(o =>
                        o.Character == character
                        && o.Context.LeavesAreLarger == larger
                        && LookContext.Of(ratio, o.Context, options.Contexts).Keys == keys
                        && IsOwn(ratio, o, options.Contexts)
                        && o.Readings.Count > 0
                    ),
                ];
            var (above, below) = (Of(ratio.RatioOf![0]), Of(ratio.RatioOf[1]));
            if (
                DerivedRatio.Of([.. above.SelectMany(o => o.Readings)], [.. below.SelectMany(o => o.Readings)], paired: true)
                is not { } derived
            )
                continue;
            var readings =
                derived.Each.Count > 0
                    ? derived.Each.Select(v => new Reading(v, "", 0))
                    : [new Reading(derived.Value, "", 0, derived.Uncertainty ?? options.WithinPlantVariation * derived.Value)];
            var looks = above.Concat(below).ToList();
            items.Add(
                new(
                    ratio,
                    [],
                    false,
                    false,
                    Quantities.Sample.Of(readings),
                    0,
                    0,
                    looks.Max(o => o.Sureness),
                    false,
                    1,
                    "",
                    Couplets(looks),
                    true
                )
                {
                    Context = LookContext.Of(ratio, looks[0].Context, options.Contexts),
                }
            );
        }
    }

    private static void AddSamples(List<EvidenceItem> items, Character character, List<Observation> looks, EvidenceOptions options)
    {
        // Mostly there is one.
        if (looks.Count == 0)
            return;
        if (looks is [var only])
        {
            if (only.Readings.Count > 0)
                AddSample(items, character, looks, LookContext.Of(character, only.Context, options.Contexts), options, 1);
            return;
        }
        var groups = looks
            .Where(o => o.Readings.Count > 0)
            .GroupBy(o => LookContext.Of(character, o.Context, options.Contexts))
            .OrderBy(g => g.Key.Keys)
            .ThenBy(g => g.Key.ToString(), StringComparer.Ordinal)
            .ToList();
        // One plant measured at several places is still one plant: its samples share what a single one would count.
        var counting = Math.Max(1, groups.Count(g => g.Key is { Out: "", IsNeighbours: false }));
        foreach (var group in groups)
            AddSample(items, character, [.. group], group.Key, options, group.Key.IsNeighbours ? 1 : counting);
    }

    private static void AddSample(
        List<EvidenceItem> items,
        Character character,
        List<Observation> looks,
        LookContext context,
        EvidenceOptions options,
        int samples
    )
    {
        IReadOnlyList<Reading> readings = looks is [var only] ? only.Readings : [.. looks.SelectMany(o => o.Readings)];
        if (Quantities.Sample.Of(readings) is not { } sample)
            return;
        var (weight, reason) = Judge(character, context, options);
        if (StemSeries.InWords(readings, character.Quantity) is { } series)
            reason = $"{reason} {series}".Trim();
        items.Add(
            new(
                character,
                [],
                false,
                false,
                sample,
                0,
                0,
                looks.Min(o => o.Sureness),
                context.Larger,
                weight / samples,
                reason,
                Couplets(looks)
            )
            {
                Context = context,
            }
        );
    }

    private static void AddScorings(List<EvidenceItem> items, Character character, List<Observation> looks, EvidenceOptions options)
    {
        if (looks is [var only])
        {
            if (only.States.Count > 0 || only.Outcome == Outcome.NotFound)
                AddScoring(items, character, looks, LookContext.Of(character, only.Context, options.Contexts), 1, options);
            return;
        }
        var scorings = looks
            .Where(o => o.States.Count > 0 || o.Outcome == Outcome.NotFound)
            .GroupBy(o =>
                (
                    new Scoring(
                        string.Join('|', o.States.Order(StringComparer.Ordinal)),
                        o.Together,
                        o.Outcome == Outcome.NotFound,
                        o.Show,
                        o.Of,
                        o.Context.Search == Search.Searched
                    ),
                    Context: LookContext.Of(character, o.Context, options.Contexts)
                )
            )
            .OrderBy(g => g.Key.Item1.States, StringComparer.Ordinal)
            .ThenBy(g => (g.Key.Item1.Together, g.Key.Item1.NotFound, g.Key.Item1.Show, g.Key.Item1.Of))
            .ThenBy(g => g.Key.Context.Keys)
            .ThenBy(g => g.Key.Context.ToString(), StringComparer.Ordinal)
            .ToList();
        var first = items.Count;
        foreach (var group in scorings)
            AddScoring(items, character, [.. group], group.Key.Context, scorings.Count, options);
        JoinContexts(items, first, options);
    }

    // Scorings of one character in several contexts become one: a look at a young leaf doesn't contradict one at an old leaf.
    private static void JoinContexts(List<EvidenceItem> items, int first, EvidenceOptions options)
    {
        var own = items
            .Skip(first)
            .Where(i => i is { IsPlain: true, Context: { Out: "", IsNeighbours: false, IsBeneath: false, Own: 1 } })
            .ToList();
        var contexts = own.GroupBy(i => i.Context).ToList();
        if (contexts.Count < 2)
            return;
        var parts = contexts.SelectMany(c => c.Select(i => i with { Part = 1d / c.Count() })).ToList();
        // The usual look stands for all.
        var main = parts.FindIndex(p => p.Context.IsUsual) is >= 0 and var usual ? usual : 0;
        var others = items.Skip(first).Where(i => !own.Contains(i)).ToList();
        var joint = parts[main] with
        {
            Elsewhere = [.. parts.Where((_, i) => i != main)],
            Weight = EvidenceOptions.WeightAmong(others.Count + 1),
            Reason = string.Join(" ", parts.Select(p => p.Reason).Where(r => r.Length > 0).Distinct(StringComparer.Ordinal)),
            FromCouplets = [.. parts.SelectMany(p => p.FromCouplets).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)],
        };
        items.RemoveRange(first, items.Count - first);
        items.Add(joint);
        items.AddRange(others);
    }

    // Looks that score the same, one of so many scorings of the character.
    private static void AddScoring(
        List<EvidenceItem> items,
        Character character,
        List<Observation> looks,
        LookContext context,
        int scorings,
        EvidenceOptions options
    )
    {
        var first = looks[0];
        var isNotFound = first.Outcome == Outcome.NotFound;
        if (isNotFound && AbsentState(character) < 0)
            return;
        var (weight, reason) = Judge(character, context, options);
        items.Add(
            new(
                character,
                Places(character, first.States),
                first.Together,
                isNotFound,
                null,
                first.Show,
                first.Of,
                looks.Min(o => o.Sureness),
                false,
                weight / scorings,
                reason,
                Couplets(looks)
            )
            {
                Context = context,
                Searched = first.Context.Search == Search.Searched && !isNotFound,
            }
        );
    }

    private static int[] Places(Character character, IReadOnlyList<string> states)
    {
        if (states.Count == 1)
            return character.IndexOf(states[0]) is >= 0 and var place ? [place] : [];
        return [.. states.Select(character.IndexOf).Where(i => i >= 0).Order()];
    }

    // Whether it is the plant's own and counts.
    private static bool IsOwn(Character character, Observation o, ContextRules rules) =>
        LookContext.Of(character, o.Context, rules) is { Out: "", IsNeighbours: false };

    private static string[] Couplets(List<Observation> group) =>
        group.TrueForAll(o => o.FromCouplet.Length == 0)
            ? []
            : [.. group.Select(o => o.FromCouplet).Where(f => f.Length > 0).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];

    private static (double Weight, string Reason) Judge(Character character, LookContext context, EvidenceOptions options) =>
        context.IsUsual
            ? (1, "")
            : (
                context.Out.Length > 0 ? 0
                : context.IsNeighbours ? options.NeighbourWeight
                : context.IsBeneath ? options.BeneathWeight
                : 1,
                context.Why(character)
            );

    private const string OnceTogether = "The same was looked at under another name, or follows from it: together they count once.";

    // Looks at one quality of one part through several characters are one look, and so are looks at two qualities that both follow from one
    // description alone (kind and density of a coat from "hairs of the twig"): each counts in part.
    private static void ShareDimensions(List<EvidenceItem> items, BotanyIndex botany, DerivedDescriptions? derived)
    {
        var composed = items.ConvertAll(i => i.Weight > 0 && CharacterId.IsComposed(i.Character.Id));
        if (!composed.Contains(true))
            return;
        var dimensions = items.ConvertAll(i => botany.Bearing.Dimensions(i.Character));
        var follow = items.ConvertAll(i => derived?.FollowsFrom(i.Character) ?? ("", []));
        var alike = new int[items.Count];
        for (var i = 0; i < items.Count; i++)
        {
            if (!composed[i])
                continue;
            for (var j = 0; j < items.Count; j++)
            {
                // Each pair once: both composed, or the one that is before the one that isn't.
                if (items[j].Weight == 0 || composed[j] && j <= i || items[i].Character.Id == items[j].Character.Id)
                    continue;
                var isOneQuality =
                    items[i].Character.IsQuantity == items[j].Character.IsQuantity && Bearing.Shares(dimensions[i], dimensions[j]);
                var isOneDescription = follow[i].Part == follow[j].Part && Bearing.Shares(follow[i].From, follow[j].From);
                if (!isOneQuality && !isOneDescription)
                    continue;
                alike[i]++;
                alike[j]++;
            }
        }
        for (var i = 0; i < items.Count; i++)
        {
            if (alike[i] > 0)
                items[i] = items[i] with { Weight = items[i].Weight / (alike[i] + 1), Reason = $"{items[i].Reason} {OnceTogether}".Trim() };
        }
    }

    private static List<EvidenceItem> Dependent(List<EvidenceItem> items, EvidenceOptions options)
    {
        var families = items
            .Where(i => i.Character.Family.Length > 0 && i.Weight > 0)
            .GroupBy(i => i.Character.Family, StringComparer.Ordinal);
        foreach (var family in families.ToList())
        {
            // Measured ones before derived ones.
            var following = family
                .Select(i => i.Character)
                .DistinctBy(c => c.Id)
                .OrderBy(c => c.Kind == CharacterKind.Ratio)
                .ThenBy(c => c.Id, StringComparer.Ordinal)
                .Skip(options.IndependentOfFamily)
                .Select(c => c.Id)
                .ToHashSet(StringComparer.Ordinal);
            if (following.Count == 0)
                continue;
            for (var i = 0; i < items.Count; i++)
            {
                if (following.Contains(items[i].Character.Id))
                    items[i] = items[i] with { Weight = 0, Follows = true };
            }
        }
        foreach (
            var group in Enumerable
                .Range(0, items.Count)
                .Where(i => items[i].Character.SizeGroup.Length > 0 && items[i].Weight > 0)
                .GroupBy(i => items[i].Character.SizeGroup, StringComparer.Ordinal)
                .Where(g => g.Count() > 1)
                .ToList()
        )
        {
            var characters = group.Select(at => items[at].Character.Id).Distinct(StringComparer.Ordinal).Count();
            var share = 1 / (1 + (characters - 1) * options.SizeCorrelation);
            foreach (var at in group)
                items[at] = items[at] with { Weight = items[at].Weight * share };
        }
        return items;
    }
}
