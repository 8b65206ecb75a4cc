using System.Text.Json.Serialization;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Seasons;

namespace Garten.Core.Identification;

/// <summary>Where a row of a contrast belongs.</summary>
[JsonConverter(typeof(CamelCaseWords<RowGroup>))]
public enum RowGroup
{
    /// <summary>It was seen on this plant.</summary>
    Seen,

    /// <summary>It can be checked now.</summary>
    Now,

    /// <summary>Come back for it.</summary>
    Later,
}

/// <summary>What one of the compared is like in a character.</summary>
/// <param name="Text">In words.</param>
/// <param name="States">Its states; empty for a measure.</param>
/// <param name="Range">Its range; null for states, or where unknown.</param>
public sealed record ContrastValue(string Text, IReadOnlyList<StateShare> States, Quantities.QuantityRange? Range)
{
    // A state rarer than this isn't drawn, and no more than so many are.
    private const double DrawnFrom = 0.15;
    private const int MostDrawn = 2;

    /// <summary>Ids of the states that stand for it in a drawing, in the order of the description.</summary>
    public IReadOnlyList<string> Drawn => [.. States.Where(s => s.Share >= DrawnFrom).Take(MostDrawn).Select(s => s.State)];

    /// <summary>Where its range lies on the axis that all of the row share; null for states, or where unknown.</summary>
    public RangeMark? Mark { get; init; }
}

/// <summary>A character that tells some of the compared apart.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Values">What each taxon is like, in their order.</param>
/// <param name="CleanPairs">How many pairs it separates cleanly (95 % and more).</param>
/// <param name="MostlyPairs">How many pairs it separates at least mostly (80 % and more).</param>
/// <param name="Best">How well it separates the pair that it separates best, 0 to 1.</param>
/// <param name="Group">Where it belongs.</param>
/// <param name="When">For "come back": when it can be seen; else empty.</param>
/// <param name="Seen">What was seen on the plant; empty where nothing was.</param>
/// <param name="SpeaksFor">The taxa that what was seen speaks for; empty where it speaks for none of them more than for others.</param>
/// <param name="Plants">What was seen on the plants compared with, in their order; empty where nothing was.</param>
public sealed record ContrastRow(
    string Character,
    IReadOnlyList<ContrastValue> Values,
    int CleanPairs,
    int MostlyPairs,
    double Best,
    RowGroup Group,
    string When,
    string Seen,
    IReadOnlyList<string> SpeaksFor,
    IReadOnlyList<string> Plants
);

/// <summary>Two of the compared and the character that separates them best.</summary>
/// <param name="First">A taxon.</param>
/// <param name="Second">The other.</param>
/// <param name="Character">The character: of those that separate them, one that can be seen now and takes least; empty where none
/// does.</param>
/// <param name="Separation">How well, 0 to 1.</param>
/// <param name="CanBeSeen">Whether it can be seen now.</param>
/// <param name="Text">The difference in words.</param>
public sealed record ContrastPair(string First, string Second, string Character, double Separation, bool CanBeSeen, string Text)
{
    /// <summary>How far one may trust it, in a sentence.</summary>
    public string Certainty =>
        Separation >= Identification.Separation.Clean ? "It separates nearly all plants."
        : Separation >= Contrast.Mostly ? "It separates most plants."
        : "It overlaps: take it with others.";
}

/// <summary>The fewest characters that separate every pair.</summary>
/// <param name="Characters">Their ids.</param>
/// <param name="IsOptimal">Whether it is certain that no fewer will do.</param>
/// <param name="Unseparated">How many pairs nothing separates.</param>
public sealed record SeparatingSet(IReadOnlyList<string> Characters, bool IsOptimal, int Unseparated);

/// <summary>Taxa held against each other.</summary>
/// <param name="Taxa">Their ids.</param>
/// <param name="Rows">The characters that tell any two apart: those that separate most pairs first, then those that take least.</param>
/// <param name="Pairs">Each pair.</param>
/// <param name="Smallest">The fewest characters for all of them.</param>
/// <param name="SmallestNow">The same of what was seen or can be checked now.</param>
public sealed record ContrastResult(
    IReadOnlyList<string> Taxa,
    IReadOnlyList<ContrastRow> Rows,
    IReadOnlyList<ContrastPair> Pairs,
    SeparatingSet Smallest,
    SeparatingSet SmallestNow
);

/// <summary>What is asked of a contrast.</summary>
/// <param name="Taxa">Two to eight taxa.</param>
/// <param name="Observations">The looks at the plant in hand; may be empty.</param>
/// <param name="Day">The day; null where it doesn't matter.</param>
/// <param name="Plants">Sheets of plants seen before, to compare with.</param>
public sealed record ContrastQuery(
    IReadOnlyList<string> Taxa,
    IReadOnlyList<Observation> Observations,
    DateOnly? Day,
    IReadOnlyList<IReadOnlyList<Observation>> Plants
);

/// <summary>Holds taxa against each other.</summary>
public static class Contrast
{
    /// <summary>Fewer can't be compared.</summary>
    public const int Fewest = 2;

    /// <summary>More don't fit beside each other.</summary>
    public const int Most = 8;

    /// <summary>From here on it tells most plants of two taxa apart.</summary>
    public const double Mostly = 0.8;

    // The best there is for a pair that nothing separates mostly, if it is any good.
    private const double Least = 0.3;

    // Steps after which the fewest characters are given as they are then, said not to be certain: a page waits for them.
    private const int Budget = 4000;

    // What was seen speaks for the taxa under which it is not less than a third as likely as under the best.
    private static readonly double SpeaksWithin = Math.Log(3);

    /// <summary>Compares.</summary>
    /// <param name="sifter">The flora.</param>
    /// <param name="query">What is asked for.</param>
    /// <exception cref="ArgumentException">Fewer than two taxa, more than eight, the same twice, or one that isn't described.</exception>
    public static ContrastResult Of(Sifter sifter, ContrastQuery query)
    {
        ArgumentNullException.ThrowIfNull(sifter);
        ArgumentNullException.ThrowIfNull(query);
        if (Problem(sifter, query.Taxa) is { } wrong)
            throw new ArgumentException(wrong, nameof(query));
        var likelihood = new Likelihood([], sifter.Options.Evidence);
        var rows = query.Taxa.Select(sifter.Columns.IndexOf).ToArray();
        var pairs = Pairs(rows.Length);
        var items = sifter.ItemsOf(query.Observations).Where(i => i.Weight > 0).ToList();
        var plants = query.Plants.Select(p => sifter.ItemsOf(p)).ToList();
        var all = new List<(CharacterColumn Column, double[] Separations, bool CanBeSeen)>();
        foreach (var column in sifter.Columns.Columns)
        {
            var cells = Array.ConvertAll(rows, t => column[t]);
            var separations = Separation.OfPairs(column.Character, cells, pairs, likelihood);
            if (separations.Max() < Least)
                continue;
            all.Add((column, separations, CanBeSeen(sifter, rows, column.Character, query.Day)));
        }
        var bestOf = pairs.Select((_, p) => all.Count == 0 ? 0 : all.Max(r => r.Separations[p])).ToArray();
        // What separates mostly, and for a pair that nothing does the best there is.
        var telling = all.Where(r =>
                r.Separations.Where((s, p) => s >= Mostly || bestOf[p] < Mostly && s >= Least && s >= bestOf[p] - 1e-9).Any()
            )
            .ToList();
        var ordered = telling
            .OrderBy(r => r.Column.Character.Organ == Organ.Site)
            .ThenByDescending(r => r.Separations.Count(s => s >= Separation.Clean))
            .ThenByDescending(r => r.Separations.Count(s => s >= Mostly))
            .ThenBy(r => Effort(r.Column.Character))
            .ThenByDescending(r => r.Separations.Max())
            .ThenBy(r => r.Column.Character.Id, StringComparer.Ordinal)
            .ToList();
        var made = ordered.ConvertAll(r => Row(sifter, likelihood, rows, query, r, items, plants));
        var smallest = Smallest(ordered, pairs.Length);
        return new ContrastResult(
            query.Taxa,
            made,
            [.. pairs.Select((p, at) => Pair(query.Taxa, rows, p, ordered, at))],
            smallest,
            made.Exists(r => r.Group == RowGroup.Later)
                ? Smallest([.. ordered.Where((r, i) => made[i].Group != RowGroup.Later)], pairs.Length)
                : smallest
        );
    }

    /// <summary>What is wrong with the taxa to compare, as a sentence; null where they can be.</summary>
    public static string? Problem(Sifter sifter, IReadOnlyList<string> taxa)
    {
        ArgumentNullException.ThrowIfNull(sifter);
        ArgumentNullException.ThrowIfNull(taxa);
        if (taxa.Count is < Fewest or > Most)
            return $"{Fewest} to {Most} taxa can be compared; these are {taxa.Count}.";
        if (taxa.Distinct(StringComparer.Ordinal).Count() != taxa.Count)
            return "A taxon is given twice.";
        return taxa.FirstOrDefault(t => sifter.Columns.IndexOf(t) < 0) is { } unknown ? $"The flora doesn’t describe “{unknown}”." : null;
    }

    /// <summary>
    /// The taxa that one is taken for: those declared of it or declaring it, and the nearest by description, nearest first. How far two
    /// stand
    /// apart is the sum of 1 − overlap over all characters in which both are described, counted by their reliability.
    /// </summary>
    /// <param name="sifter">The flora.</param>
    /// <param name="taxon">Id of the taxon; it must be described.</param>
    /// <param name="most">How many are wanted; all that are declared come first, whatever stands nearer.</param>
    public static IReadOnlyList<string> Near(Sifter sifter, string taxon, int most)
    {
        ArgumentNullException.ThrowIfNull(sifter);
        var own = sifter.Columns.IndexOf(taxon);
        if (own < 0)
            return [];
        var n = sifter.Columns.Taxa.Count;
        double[] apart = new double[n],
            shared = new double[n];
        for (var c = 0; c < sifter.Columns.Columns.Count; c++)
        {
            var column = sifter.Columns.Columns[c];
            if (column.Of()[own] is not (> 0 and var cell) || column.Character.Organ == Organ.Site)
                continue;
            var table = sifter.OutcomesOf(c);
            var distance = Array.ConvertAll([.. Enumerable.Range(0, column.Cells.Count)], other => table.Apart(cell - 1, other));
            for (var t = 0; t < n; t++)
            {
                if (column.Of()[t] is not (> 0 and var other))
                    continue;
                apart[t] += column.Character.Reliability * distance[other - 1];
                shared[t]++;
            }
        }
        var facts = sifter.TaxonAt(own)?.Facts;
        bool IsDeclared(int t) =>
            facts?.LookAlikes.Contains(sifter.Columns.Taxa[t], StringComparer.Ordinal) == true
            || sifter.TaxonAt(t)?.Facts?.LookAlikes.Contains(taxon, StringComparer.Ordinal) == true;
        // A form or the genus of the taxon itself is no other one.
        bool IsOther(int t) =>
            t != own && sifter.TaxonAt(t) is { } other && other.Parent != taxon && sifter.TaxonAt(own)?.Parent != other.Id;
        // Of a taxon that is hardly described nobody knows how near it stands.
        var enough = shared[own] / 2;
        return
        [
            .. Enumerable
                .Range(0, n)
                .Where(t => IsOther(t) && (shared[t] >= enough || IsDeclared(t)))
                .OrderByDescending(IsDeclared)
                .ThenBy(t => apart[t] / Math.Max(1, shared[t]))
                .ThenBy(t => t)
                .Take(most)
                .Select(t => sifter.Columns.Taxa[t]),
        ];
    }

    /// <summary>What a look costs: seconds, more where it is easily got wrong.</summary>
    public static double Effort(Character character)
    {
        ArgumentNullException.ThrowIfNull(character);
        return character.EffortSeconds / character.Reliability;
    }

    private static (int First, int Second)[] Pairs(int n) =>
        [.. Enumerable.Range(0, n).SelectMany(i => Enumerable.Range(i + 1, n - i - 1).Select(j => (i, j)))];

    // On one of them at least: what another hasn't now tells them apart all the same.
    private static bool CanBeSeen(Sifter sifter, int[] rows, Character character, DateOnly? day) =>
        day is not { } on
        || character.SeenIn.Count == 0
        || Array.Exists(rows, t => sifter.CanBeSeen(t, character, PhaseSpan.HalfMonth(on)));

    private static ContrastRow Row(
        Sifter sifter,
        Likelihood likelihood,
        int[] rows,
        ContrastQuery query,
        (CharacterColumn Column, double[] Separations, bool CanBeSeen) of,
        List<EvidenceItem> items,
        List<IReadOnlyList<EvidenceItem>> plants
    )
    {
        var character = of.Column.Character;
        var own = items.Where(i => i.Character.Id == character.Id).ToList();
        var values = Array.ConvertAll(rows, t => of.Column[t]);
        var odds = new double[rows.Length];
        foreach (var item in own)
        {
            var weighed = WeighedItem.Of(item, of.Column, likelihood, false);
            for (var i = 0; i < rows.Length; i++)
                odds[i] += weighed.Ratio(rows[i]);
        }
        var best = odds.Max();
        var fitting = query.Taxa.Where((_, i) => odds[i] >= best - SpeaksWithin).ToList();
        var when = "";
        if (own.Count == 0 && !of.CanBeSeen)
        {
            var marked = Enumerable
                .Range(1, SeasonWords.HalfMonths)
                .Select(h => Array.Exists(rows, t => sifter.CanBeSeen(t, character, h)))
                .ToArray();
            when = SeasonWords.NextStretch(marked, PhaseSpan.HalfMonth(query.Day!.Value));
        }
        return new ContrastRow(
            character.Id,
            RangeMark.Placed([.. values.Select(v => new ContrastValue(FloraProse.Value(v, character), v?.States ?? [], v?.Range))]),
            of.Separations.Count(s => s >= Separation.Clean),
            of.Separations.Count(s => s >= Mostly),
            of.Separations.Max(),
            own.Count > 0 ? RowGroup.Seen
                : of.CanBeSeen ? RowGroup.Now
                : RowGroup.Later,
            when,
            string.Join("; ", own.Select(i => i.InWords())),
            own.Count > 0 && fitting.Count < rows.Length ? fitting : [],
            [.. plants.Select(p => string.Join("; ", p.Where(i => i.Character.Id == character.Id).Select(i => i.InWords())))]
        );
    }

    private static ContrastPair Pair(
        IReadOnlyList<string> taxa,
        int[] rows,
        (int First, int Second) pair,
        List<(CharacterColumn Column, double[] Separations, bool CanBeSeen)> ordered,
        int at
    )
    {
        var separating = ordered.Where(r => r.Separations[at] >= Least).ToList();
        if (separating.Count == 0)
            return new ContrastPair(taxa[pair.First], taxa[pair.Second], "", 0, false, "");
        var (column, separations, seen) = separating.OrderBy(r => Rank(r.Column.Character, r.Separations[at], r.CanBeSeen)).First();
        var character = column.Character;
        return new ContrastPair(
            taxa[pair.First],
            taxa[pair.Second],
            character.Id,
            separations[at],
            seen,
            $"{character.Name}: {FloraProse.Value(column[rows[pair.First]], character)}, or {FloraProse.Value(column[rows[pair.Second]], character)}"
        );
    }

    /// <summary>
    /// By what the best character for two taxa is chosen, the smallest first: where it grows comes last, what separates them mostly and can
    /// be
    /// seen comes first, and of those the one that takes least; of what separates less the one that does so best.
    /// </summary>
    public static (bool, bool, bool, double) Rank(Character character, double separation, bool canBeSeen)
    {
        ArgumentNullException.ThrowIfNull(character);
        var tells = separation >= Mostly;
        return (character.Organ == Organ.Site, !tells, tells && !canBeSeen, tells ? Effort(character) : -separation);
    }

    // Cleanly where anything does, else mostly.
    private static SeparatingSet Smallest(List<(CharacterColumn Column, double[] Separations, bool CanBeSeen)> rows, int pairs)
    {
        var enough = Enumerable
            .Range(0, pairs)
            .Select(p => rows.Exists(r => r.Separations[p] >= Separation.Clean) ? Separation.Clean : Mostly)
            .ToArray();
        var sets = rows.ConvertAll(r =>
            (IReadOnlyCollection<int>)[.. Enumerable.Range(0, pairs).Where(p => r.Separations[p] >= enough[p])]
        );
        var cover = SetCover.Find(pairs, sets, rows.ConvertAll(r => Effort(r.Column.Character)), Budget);
        return new SeparatingSet([.. cover.Chosen.Select(c => rows[c].Column.Character.Id)], cover.IsOptimal, cover.Uncovered.Count);
    }
}
