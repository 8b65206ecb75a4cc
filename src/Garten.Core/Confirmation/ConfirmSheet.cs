using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;

namespace Garten.Core.Confirmation;

/// <summary>A sheet held against the name that is to be confirmed: what the checks are made of.</summary>
internal sealed class ConfirmSheet
{
    /// <summary>A look-alike is excluded at these odds, 20 to 1; the same is asked of a corroborated name.</summary>
    public const double ExcludedFrom = 20;

    // A character that separates two taxa cleanly excludes one of them where what was seen speaks three to one.
    private const double SpeaksFrom = 3;

    // Beside what is declared, so many of the nearest by description are looked at,
    private const int MostNear = 4;

    // and whatever else is still this likely.
    private const double StillLikely = 0.01;

    // More can't be kept in mind, and a contrast holds no more beside the name.
    private const int MostLookAlikes = Contrast.Most - 1;

    public ConfirmSheet(Sifter sifter, ConfirmQuery query)
    {
        (Sifter, Query) = (sifter, query);
        Row = sifter.Columns.IndexOf(query.Taxon);
        Weighed = sifter.Weigh(new SiftQuery(query.Observations, query.Plausible, query.Place, query.Day));
        Items = [.. Weighed.Items.Where(i => i.Item.Weight > 0)];
        Holding = EvidenceSheet.Holding(query.Observations);
        OwnRows =
        [
            .. Enumerable
                .Range(0, sifter.Columns.Taxa.Count)
                .Where(t => t == Row || sifter.TaxonAt(t) is { Rank: "cultivar" or "form" } form && form.Parent == query.Taxon),
        ];
        Probability = OwnRows.Sum(t => Weighed.Probability[t]);
        LookAlikeRows = FindLookAlikes();
    }

    public Sifter Sifter { get; }
    public ConfirmQuery Query { get; }
    public int Row { get; }
    public IReadOnlyList<int> OwnRows { get; }
    public Sifter.WeighedList Weighed { get; }

    /// <summary>What counts of the sheet.</summary>
    public IReadOnlyList<WeighedItem> Items { get; }

    /// <summary>The looks that hold.</summary>
    public IReadOnlyList<Observation> Holding { get; }

    /// <summary>Probability of the name, its forms with it.</summary>
    public double Probability { get; }

    public IReadOnlyList<int> LookAlikeRows { get; }

    public Taxon Taxon => Sifter.TaxonAt(Row)!;

    public TaxonFacts Facts => Taxon.Facts ?? TaxonFacts.None;

    public string NameOf(int row) => Sifter.TaxonAt(row)?.Name ?? Sifter.Columns.Taxa[row];

    /// <summary>Probability of the likeliest other name, "not on this list" among them.</summary>
    public double NextProbability =>
        Enumerable
            .Range(0, Weighed.Probability.Length)
            .Where(t => !OwnRows.Contains(t))
            .Select(t => Weighed.Probability[t])
            .Append(Weighed.None)
            .Max();

    private List<int> FindLookAlikes()
    {
        var near = Contrast.Near(Sifter, Query.Taxon, MostNear).Select(Sifter.Columns.IndexOf).ToList();
        bool IsDeclared(int t) =>
            Facts.LookAlikes.Contains(Sifter.Columns.Taxa[t], StringComparer.Ordinal)
            || Sifter.TaxonAt(t)?.Facts?.LookAlikes.Contains(Query.Taxon, StringComparer.Ordinal) == true;
        var likely = Enumerable
            .Range(0, Weighed.Probability.Length)
            .Where(t => Weighed.Probability[t] >= StillLikely)
            .OrderByDescending(t => Weighed.Probability[t])
            .Take(MostNear);
        return
        [
            .. near.Where(IsDeclared)
                .Concat(likely)
                .Concat(near)
                .Where(t => t >= 0 && !OwnRows.Contains(t))
                .Distinct()
                .Take(MostLookAlikes),
        ];
    }

    /// <summary>By how much each look speaks for the name against another, strongest first.</summary>
    public IReadOnlyList<(WeighedItem Item, double LogOdds)> Against(int other) =>
        [
            .. Items
                .Select(i => (i, i.Ratio(Row) - i.Ratio(other)))
                .OrderByDescending(i => i.Item2)
                .ThenBy(i => i.i.Item.Character.Id, StringComparer.Ordinal),
        ];

    public CharacterDescription? Cell(Character character, int row) => Sifter.ColumnOf(character) is { } column ? column[row] : null;

    /// <summary>What a taxon is like in a character, in words; of leaves those of the sun, unless the look was at others.</summary>
    public string Words(Character character, int row) =>
        FloraProse.Value(
            Items.Any(i => i.Item.Character.Id == character.Id && i.Item.Larger) || Cell(character, row) is not { Shade: not null } cell
                ? Cell(character, row)
                : cell with
                {
                    Shade = null,
                },
            character
        );

    public double Apart(Character character, int other) =>
        Sifter.Columns.IndexOfCharacter(character.Id) is >= 0 and var column ? Sifter.Separated(column, Row, other) : 0;

    /// <summary>Whether a look excludes another taxon by itself.</summary>
    public bool ExcludesAlone((WeighedItem Item, double LogOdds) look, int other) =>
        look.LogOdds >= Math.Log(SpeaksFrom) && Apart(look.Item.Item.Character, other) >= Separation.Clean;

    public bool IsOnSheet(Character character) => Items.Any(i => i.Item.Character.Id == character.Id);

    /// <summary>The characters in which the name is described, that can be seen outside a laboratory and are the plant's own.</summary>
    public IEnumerable<Character> Observable =>
        Sifter
            .Columns.Columns.Where(c =>
                c[Row] is { Applies: true }
                && c.Character.Tool != Tool.Microscope
                && c.Character.Organ != Organ.Site
                && (c.Character.Kind != CharacterKind.Ratio || c.Character.RatioOf is not { Count: > 0 })
                && c.Character.TrendOf.Length == 0
            )
            .Select(c => c.Character);

    /// <summary>Half-months in which the taxon shows a character.</summary>
    public bool[] Seasons(Character character) =>
        [.. Enumerable.Range(1, SeasonWords.HalfMonths).Select(h => Sifter.CanBeSeen(Row, character, h))];

    /// <summary>When the taxon shows a character: stretches of days.</summary>
    public IReadOnlyList<DayWindow> Windows(Character character) => WindowsOf(Seasons(character));

    /// <summary>Marked half-months as stretches of days; one that runs over the new year is one.</summary>
    public static IReadOnlyList<DayWindow> WindowsOf(bool[] marked)
    {
        if (Array.TrueForAll(marked, m => m))
            return [new DayWindow(1, DayOfYear.Days)];
        var windows = new List<DayWindow>();
        for (var i = 0; i < marked.Length; i++)
        {
            if (!marked[i] || marked[(i + marked.Length - 1) % marked.Length])
                continue;
            var end = i;
            while (marked[(end + 1) % marked.Length])
                end++;
            windows.Add(DayWindow.OfHalfMonths(i + 1, end % marked.Length + 1));
        }
        return windows;
    }

    public string When(Character character) =>
        Query.Day is { } day && !Seasons(character)[PhaseSpan.HalfMonth(day) - 1]
            ? SeasonWords.NextStretch(Seasons(character), PhaseSpan.HalfMonth(day))
            : "now";

    /// <summary>Times of the plant's year: 0 winter twig, 1 spring growth, 2 leaf, 3 flower, 4 fruit.</summary>
    public static int TimeOf(Phenophase phase) =>
        phase switch
        {
            Phenophase.RestingBud or Phenophase.BareTwig or Phenophase.BudsSet or Phenophase.DeadLeavesHeld => 0,
            Phenophase.ShootsUp or Phenophase.LeafBudOpening => 1,
            Phenophase.FullLeaf or Phenophase.AutumnColour or Phenophase.WinterGreen => 2,
            Phenophase.Flower => 3,
            _ => 4,
        };

    /// <summary>The time of the plant's year that a look at a character in a half-month belongs to: of several that it can be seen in, the
    /// first that is on; null where none is.</summary>
    public int? TimeAt(Character character, int half)
    {
        foreach (var phase in character.SeenIn)
        {
            if (Sifter.CanBeSeen(Row, character with { SeenIn = [phase] }, half))
                return TimeOf(phase);
        }
        return null;
    }

    /// <summary>Times from which there are looks: of several that a character can be seen in, the one of the day of the look.</summary>
    public IReadOnlyList<int> TimesSeen()
    {
        var times = new SortedSet<int>();
        foreach (var look in Holding)
        {
            if (
                look.Outcome == Outcome.OutOfReach
                || Items.FirstOrDefault(i => i.Item.Character.Id == look.Character)?.Item.Character is not { SeenIn.Count: > 0 } character
            )
                continue;
            var half = DateOnly.TryParseExact(
                look.Date,
                "yyyy-MM-dd",
                System.Globalization.CultureInfo.InvariantCulture,
                System.Globalization.DateTimeStyles.None,
                out var day
            )
                ? PhaseSpan.HalfMonth(day)
                : 0;
            times.Add(half > 0 && TimeAt(character, half) is { } time ? time : TimeOf(character.SeenIn[0]));
        }
        return [.. times];
    }

    /// <summary>Times at which the taxon can be seen to have anything that is described of it.</summary>
    public IReadOnlyList<int> TimesThereAre() =>
        [
            .. Observable
                .Where(c => c.SeenIn.Count > 0)
                .SelectMany(c => Enumerable.Range(1, SeasonWords.HalfMonths).Select(h => TimeAt(c, h)))
                .OfType<int>()
                .Distinct()
                .Order(),
        ];
}
