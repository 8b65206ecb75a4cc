using Garten.Core.Botany;
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
    Character Character,
    IReadOnlyList<int> States,
    bool Together,
    bool NotFound,
    Sample? Sample,
    int Show,
    int Of,
    Sureness Sureness,
    bool Larger,
    double Weight,
    string Reason,
    IReadOnlyList<string> FromCouplets,
    bool Follows = false
)
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
                AddTrend(items, trend, looks);
        }
        return Dependent(items, options, table.Botany);
    }

    // Of a series up the stem: rising, level or falling is a character of its own.
    private static void AddTrend(List<EvidenceItem> items, Character trend, List<Observation> observations)
    {
        if (!observations.Exists(o => o.Character == trend.TrendOf))
            return;
        var looks = observations.Where(o => o.Character == trend.TrendOf && Class(o) == (false, false) && o.Readings.Count > 0).ToList();
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
        foreach (var larger in new[] { false, true })
        {
            List<Observation> Of(string character) =>
                [
                    .. observations.Where(o =>
                        o.Character == character
                        && o.Context.LeavesAreLarger == larger
                        && Class(o) == (false, false)
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
                AddSample(items, character, looks, only.Context.LeavesAreLarger, options);
            return;
        }
        foreach (
            var group in looks.Where(o => o.Readings.Count > 0).GroupBy(o => (o.Context.LeavesAreLarger, Class(o))).OrderBy(g => g.Key)
        )
            AddSample(items, character, [.. group], group.Key.LeavesAreLarger, options);
    }

    private static void AddSample(
        List<EvidenceItem> items,
        Character character,
        List<Observation> looks,
        bool larger,
        EvidenceOptions options
    )
    {
        IReadOnlyList<Reading> readings = looks is [var only] ? only.Readings : [.. looks.SelectMany(o => o.Readings)];
        if (Quantities.Sample.Of(readings) is not { } sample)
            return;
        var (weight, reason) = Judge(character, looks[0].Context, options);
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
                larger && character.Organ == Organ.Leaf,
                weight,
                reason,
                Couplets(looks)
            )
        );
    }

    private static void AddScorings(List<EvidenceItem> items, Character character, List<Observation> looks, EvidenceOptions options)
    {
        if (looks is [var only])
        {
            if (only.States.Count > 0 || only.Outcome == Outcome.NotFound)
                AddScoring(items, character, looks, 1, options);
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
                        o.Of
                    ),
                    Class(o)
                )
            )
            .OrderBy(g => g.Key.Item1.States, StringComparer.Ordinal)
            .ThenBy(g => (g.Key.Item1.Together, g.Key.Item1.NotFound, g.Key.Item1.Show, g.Key.Item1.Of))
            .ThenBy(g => g.Key.Item2)
            .ToList();
        foreach (var group in scorings)
            AddScoring(items, character, [.. group], scorings.Count, options);
    }

    // Looks that score the same, one of so many scorings of the character.
    private static void AddScoring(
        List<EvidenceItem> items,
        Character character,
        List<Observation> looks,
        int scorings,
        EvidenceOptions options
    )
    {
        var first = looks[0];
        var isNotFound = first.Outcome == Outcome.NotFound;
        if (isNotFound && AbsentState(character) < 0)
            return;
        var (weight, reason) = Judge(character, first.Context, options);
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
        );
    }

    private static int[] Places(Character character, IReadOnlyList<string> states)
    {
        if (states.Count == 1)
            return character.IndexOf(states[0]) is >= 0 and var place ? [place] : [];
        return [.. states.Select(character.IndexOf).Where(i => i >= 0).Order()];
    }

    // What must not be pooled: a neighbour's material with the plant's own, a shaped part with a grown one.
    private static (bool Neighbour, bool Shaped) Class(Observation o) =>
        (o.Context.Attachment == Attachment.PerhapsNeighbours, o.Context.Shaping != Shaping.Unsaid);

    private static string[] Couplets(List<Observation> group) =>
        group.TrueForAll(o => o.FromCouplet.Length == 0)
            ? []
            : [.. group.Select(o => o.FromCouplet).Where(f => f.Length > 0).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];

    private static (double Weight, string Reason) Judge(Character character, ObservationContext context, EvidenceOptions options)
    {
        if (context.Shaping != Shaping.Unsaid && (character.Organ == Organ.Habit || character.SizeGroup.Length > 0))
            return (0, "The plant is browsed, cut or trained: its habit and sizes say nothing.");
        if (context.Attachment == Attachment.PerhapsNeighbours)
            return (options.NeighbourWeight, "It is perhaps a neighbour's: it weighs a quarter.");
        return context.LeavesAreLarger && character.Organ == Organ.Leaf && character.Kind == CharacterKind.Length
            ? (1, "Measured on leaves of shade or of a sapling, which are larger.")
            : (1, "");
    }

    // Looks at one quality of one part through several characters are one look: each counts in part.
    private static void ShareDimensions(List<EvidenceItem> items, BotanyIndex botany)
    {
        var composed = items.Select(i => CharacterId.IsComposed(i.Character.Id)).ToArray();
        var alike = new int[items.Count];
        for (var i = 0; i < items.Count; i++)
        {
            for (var j = i + 1; j < items.Count; j++)
            {
                if (
                    (!composed[i] && !composed[j])
                    || items[i].Weight == 0
                    || items[j].Weight == 0
                    || items[i].Character.Id == items[j].Character.Id
                    || !botany.Bearing.IsSameDimension(items[i].Character, items[j].Character)
                )
                    continue;
                alike[i]++;
                alike[j]++;
            }
        }
        for (var i = 0; i < items.Count; i++)
        {
            if (alike[i] > 0)
                items[i] = items[i] with
                {
                    Weight = items[i].Weight / (alike[i] + 1),
                    Reason = $"{items[i].Reason} The same was looked at under another name: together they count once.".Trim(),
                };
        }
    }

    private static List<EvidenceItem> Dependent(List<EvidenceItem> items, EvidenceOptions options, BotanyIndex? botany)
    {
        if (botany is not null)
            ShareDimensions(items, botany);
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
            var share = 1 / (1 + (group.Count() - 1) * options.SizeCorrelation);
            foreach (var at in group)
                items[at] = items[at] with { Weight = items[at].Weight * share };
        }
        return items;
    }

    /// <summary>
    /// f of what was seen on a plant that hasn't the part at all: 1 where nothing was seen (a count of 0, looked for and not found, the
    /// state
    /// that says so), else 0.
    /// </summary>
    public double WithoutThePart =>
        NotFound || Sample is { Largest: 0 } || Sample is null && States.Count == 1 && States[0] == AbsentState(Character) ? 1 : 0;

    /// <summary>The state that means that the part isn't there; -1 where the character has none.</summary>
    public static int AbsentState(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        for (var i = 0; i < character.States.Count; i++)
        {
            if (
                character.States[i].Id is "absent" or "none"
                || character.States[i].Id.StartsWith("no-", StringComparison.Ordinal)
                || character.States[i].Id.StartsWith("not-", StringComparison.Ordinal)
            )
                return i;
        }
        return -1;
    }

    /// <summary>What was seen, in words and figures.</summary>
    public string InWords()
    {
        if (Sample is { } sample)
        {
            var kind = Character.Quantity;
            var of =
                sample.Count > 1
                    ? $" (mean of {sample.Count}, {ReadingText.Show(sample.Least, kind)} to {ReadingText.Show(sample.Largest, kind)})"
                    : "";
            return ReadingText.Show(sample.Mean, kind) + of + (Larger ? ", leaves of the shade" : "");
        }
        if (NotFound)
            return $"{Character.Name}: looked for, not found";
        var states = string.Join(Together ? " and " : " or ", States.Select(s => Character.States[s].Name));
        return Of > 0 ? $"{states}: {Show} of {Of}" : states;
    }
}
