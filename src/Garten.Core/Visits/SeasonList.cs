using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;

namespace Garten.Core.Visits;

/// <summary>When a taxon does something at a site.</summary>
/// <param name="Phase">What it is doing.</param>
/// <param name="Windows">When.</param>
/// <param name="ShiftDays">By how many days later than the flora says; below 0: earlier.</param>
/// <param name="Now">Whether it does it on the day asked for.</param>
public sealed record SeasonPhase(Phenophase Phase, IReadOnlyList<DayWindow> Windows, int ShiftDays, bool Now)
{
    /// <summary>The shift in words: "13 days later"; empty where there is none.</summary>
    public string ShiftInWords => ShiftDays == 0 ? "" : $"{Math.Abs(ShiftDays)} days {(ShiftDays > 0 ? "later" : "earlier")}";
}

/// <summary>The year of a taxon at a site.</summary>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="Phases">What it does when, in the order of the year.</param>
/// <param name="Conspicuous">When it catches the eye: the time to search for it.</param>
/// <param name="ConspicuousBy">By what, in words; empty where by nothing.</param>
/// <param name="Nameable">When what can be seen of it excludes all that it is taken for.</param>
/// <param name="NotNameableFrom">Ids of the taxa that nothing tells from it, all year.</param>
/// <param name="ConspicuousNow">Whether it catches the eye on the day.</param>
/// <param name="NameableNow">Whether it can be named on the day.</param>
/// <param name="OrgansNow">The organs that can be looked at on the day.</param>
/// <param name="Warning">Why it was moved less than the rule says; empty for most.</param>
public sealed record SeasonRow(
    string Taxon,
    IReadOnlyList<SeasonPhase> Phases,
    IReadOnlyList<DayWindow> Conspicuous,
    string ConspicuousBy,
    IReadOnlyList<DayWindow> Nameable,
    IReadOnlyList<string> NotNameableFrom,
    bool ConspicuousNow,
    bool NameableNow,
    IReadOnlyList<Organ> OrgansNow,
    string Warning = ""
);

/// <summary>The year of a list of taxa, shifted to a site.</summary>
public static class SeasonList
{
    // The year is looked at every so many days; what lies between two such days is like the first.
    private const int Step = 5;
    private const int Steps = DayOfYear.Days / Step;

    // What this many taxa are taken for besides what is declared: the nearest of the genus.
    private const int MostKin = 6;

    // Below this share a colour is an exception that nobody searches by.
    private const double OftenEnough = 0.5;

    // Among green leaves these catch no eye.
    private static readonly string[] Dull = ["green", "greenish", "brown", "brownish", "none", "dark-brown"];

    private static readonly (string Character, Phenophase[] Phases, string Word)[] Eyecatching =
    [
        ("flower-colour", [Phenophase.Flower], "flowers"),
        ("fruit-colour", [Phenophase.RipeFruit, Phenophase.FruitPersisting], "fruit"),
    ];

    /// <summary>Works it out.</summary>
    /// <param name="sifter">The flora.</param>
    /// <param name="taxa">Ids of the taxa; those that aren't described are passed over.</param>
    /// <param name="day">The day asked for.</param>
    /// <param name="from">The site whose seasons the flora gives; null for no shift.</param>
    /// <param name="to">The site that they are wanted for; null for no shift.</param>
    /// <param name="lead">Days by which this year is later than others.</param>
    public static IReadOnlyList<SeasonRow> Of(
        Sifter sifter,
        IReadOnlyList<string> taxa,
        DateOnly day,
        SeasonSite? from,
        SeasonSite? to,
        double lead = 0
    )
    {
        ArgumentNullException.ThrowIfNull(sifter);
        ArgumentNullException.ThrowIfNull(taxa);
        var shifts = Enum.GetValues<Phenophase>()
            .ToDictionary(
                p => p,
                p =>
                    from is null || to is null
                        ? (int)Math.Round(lead, MidpointRounding.AwayFromZero)
                        : SeasonShift.Between(from, to, p, lead).Days
            );
        var region = PhaseOrder
            .Shift([.. sifter.Table.Seasons.Select(w => (w.Phase, WindowOf(w)))], shifts)
            .Phases.GroupBy(p => p.Phase)
            .ToDictionary(g => g.Key, g => g.Select(p => p.Window).ToList());
        var at = DayOfYear.Of(day);
        var rows = taxa.Select(sifter.Columns.IndexOf).Where(r => r >= 0).Distinct().ToList();
        var byGenus = Enumerable.Range(0, sifter.Columns.Taxa.Count).ToLookup(r => Genus(sifter, r), StringComparer.Ordinal);
        // Who takes whom for whom, from either side.
        var declared = new Dictionary<int, HashSet<int>>();
        void Declare(int one, int other)
        {
            if (!declared.TryGetValue(one, out var set))
                declared.Add(one, set = []);
            set.Add(other);
        }
        for (var t = 0; t < sifter.Columns.Taxa.Count; t++)
        {
            foreach (var other in (sifter.TaxonAt(t)?.Facts?.LookAlikes ?? []).Select(sifter.Columns.IndexOf).Where(o => o >= 0 && o != t))
            {
                Declare(t, other);
                Declare(other, t);
            }
        }
        return
        [
            .. rows.Select(row =>
                new Year(sifter, row, shifts, region, at).Row(declared.GetValueOrDefault(row) ?? [], byGenus[Genus(sifter, row)])
            ),
        ];
    }

    /// <summary>When a taxon does something at a site, by the flora; empty where the flora doesn't say.</summary>
    public static IReadOnlyList<DayWindow> WindowsOf(Taxon? taxon, Phenophase phase, SeasonSite? from = null, SeasonSite? to = null)
    {
        var spans = taxon?.Facts?.Phenology ?? [];
        if (from is null || to is null)
            return [.. spans.Where(s => s.Phase == phase).Select(s => DayWindow.OfHalfMonths(s.From, s.To))];
        var days = Enum.GetValues<Phenophase>().ToDictionary(p => p, p => SeasonShift.Between(from, to, p).Days);
        return [.. Shifted(spans, days).Phases.Where(p => p.Phase == phase).Select(p => p.Window)];
    }

    /// <summary>When a taxon bears fruit, young or ripe, by the flora; empty where the flora doesn't say.</summary>
    public static IReadOnlyList<DayWindow> FruitOf(Taxon? taxon) =>
        [.. WindowsOf(taxon, Phenophase.YoungFruit), .. WindowsOf(taxon, Phenophase.RipeFruit)];

    private static ShiftedYear Shifted(IReadOnlyList<PhaseSpan> spans, IReadOnlyDictionary<Phenophase, int> days) =>
        PhaseOrder.Shift([.. spans.Select(s => (s.Phase, DayWindow.OfHalfMonths(s.From, s.To)))], days);

    private static string Genus(Sifter sifter, int row) => (sifter.TaxonAt(row)?.Name ?? sifter.Columns.Taxa[row]).Split(' ')[0];

    private static DayWindow WindowOf(PhaseWindow w) =>
        new(DayOfYear.Of(new DateOnly(2001, w.FromMonth, w.FromDay)), DayOfYear.Of(new DateOnly(2001, w.ToMonth, w.ToDay)));

    // The year of one taxon.
    private sealed class Year
    {
        private readonly Sifter _sifter;
        private readonly int _row;
        private readonly int _day;
        private readonly List<SeasonPhase> _phases;
        private readonly double _share;
        private readonly Dictionary<Phenophase, IReadOnlyList<DayWindow>> _windows;

        public Year(Sifter sifter, int row, Dictionary<Phenophase, int> shifts, Dictionary<Phenophase, List<DayWindow>> region, int day)
        {
            (_sifter, _row, _day) = (sifter, row, day);
            var facts = sifter.TaxonAt(row)?.Facts ?? TaxonFacts.None;
            var (spans, isWoody) = (facts.Phenology, Showing.MayBeWoody(facts));
            var shifted = Shifted(spans, shifts);
            _share = shifted.Share;
            _phases =
            [
                .. shifted
                    .Phases.GroupBy(p => p.Phase)
                    .Select(g =>
                    {
                        IReadOnlyList<DayWindow> windows = [.. g.Select(p => p.Window)];
                        return new SeasonPhase(g.Key, windows, g.First().Days, windows.Any(w => w.Holds(day)));
                    })
                    .OrderBy(p => p.Windows[0].From),
            ];
            _windows = region
                .Where(r => !Showing.IsOver(r.Key, spans) && (isWoody || !Showing.IsOfWood(r.Key)))
                .ToDictionary(r => r.Key, r => (IReadOnlyList<DayWindow>)r.Value);
            foreach (var phase in _phases)
                _windows[phase.Phase] = phase.Windows;
            // What is green in winter has leaves to look at.
            if (_windows.TryGetValue(Phenophase.WinterGreen, out var green))
                _windows[Phenophase.FullLeaf] = [.. _windows.GetValueOrDefault(Phenophase.FullLeaf) ?? [], .. green];
        }

        // What isn't bound to a phase is there while anything of the plant is: a herb's growth form isn't in winter.
        private bool Shows(Character character, int day) =>
            character.SeenIn.Count == 0
                ? _phases.Count == 0 || _phases.Exists(p => p.Windows.Any(w => w.Holds(day)))
                : character.SeenIn.Any(p => _windows.TryGetValue(p, out var windows) && windows.Any(w => w.Holds(day)));

        public SeasonRow Row(IReadOnlyCollection<int> declared, IEnumerable<int> kin)
        {
            var columns = Enumerable
                .Range(0, _sifter.Columns.Columns.Count)
                .Where(c =>
                    Column(c).Of()[_row] is > 0 and var cell
                    && Column(c).Applies(cell - 1)
                    && Column(c).Character.Tool != Tool.Microscope
                    && Column(c).Character.Organ != Organ.Site
                )
                .ToList();
            var (nameable, never) = Nameable(columns, LookAlikes(declared, kin));
            var (conspicuous, by) = Conspicuous();
            return new SeasonRow(
                _sifter.Columns.Taxa[_row],
                _phases,
                conspicuous,
                by,
                Stretches(nameable),
                never,
                conspicuous.Any(w => w.Holds(_day)),
                nameable[At(_day)],
                [
                    .. columns
                        .Where(c => Column(c).Character.SeenIn.Count > 0 && Shows(Column(c).Character, _day))
                        .Select(c => Column(c).Character.Organ)
                        .Distinct(),
                ],
                _share < 1
                    ? $"Spring and autumn are moved less than the rule says ({(int)Math.Round(100 * _share)} % of it), so that its phases stay in their order."
                    : ""
            );
        }

        private CharacterColumn Column(int at) => _sifter.Columns.Columns[at];

        private static int At(int day) => Math.Min(Steps - 1, (day - 1) / Step);

        // A form or a cultivar of it, and an aggregate that it belongs to, is no other plant.
        private List<int> LookAlikes(IReadOnlyCollection<int> declared, IEnumerable<int> kin) =>
            [
                .. declared
                    .Order()
                    .Concat(kin.Where(t => t != _row && _sifter.TaxonAt(t) is not { Rank: "cultivar" or "form" }).Take(MostKin))
                    .Distinct(),
            ];

        // On each step whether every look-alike is excluded by something that can be seen then; those that nothing ever excludes are told
        // apart.
        private (bool[] Marked, List<string> Never) Nameable(List<int> columns, List<int> alikes)
        {
            var shown = columns.ConvertAll(c => Enumerable.Range(0, Steps).Select(s => Shows(Column(c).Character, s * Step + 1)).ToArray());
            var marked = new bool[Steps];
            Array.Fill(marked, true);
            var never = new List<string>();
            foreach (var other in alikes)
            {
                var apart = columns.ConvertAll(c => _sifter.Apart(c, _row, other));
                var best = apart.Count == 0 ? 0 : apart.Max();
                if (best < Contrast.Mostly)
                {
                    never.Add(_sifter.Columns.Taxa[other]);
                    continue;
                }
                var enough = best >= Separation.Clean ? Separation.Clean : Contrast.Mostly;
                for (var s = 0; s < Steps; s++)
                    marked[s] = marked[s] && Enumerable.Range(0, columns.Count).Any(c => apart[c] >= enough && shown[c][s]);
            }
            // Where nothing is left to be excluded it can be named whenever anything of it is there.
            if (alikes.Count == 0)
                for (var s = 0; s < Steps; s++)
                    marked[s] = Enumerable.Range(0, columns.Count).Any(c => Column(c).Character.SeenIn.Count > 0 && shown[c][s]);
            if (never.Count > 0)
                Array.Fill(marked, false);
            return (marked, never);
        }

        private (IReadOnlyList<DayWindow> Windows, string By) Conspicuous()
        {
            var windows = new List<DayWindow>();
            var by = new List<string>();
            foreach (var (id, phases, word) in Eyecatching)
            {
                if (_sifter.Columns.Find(id) is not { } column || column[_row] is not { Applies: true } cell)
                    continue;
                var bright = cell
                    .States.Where(s => s.Share >= OftenEnough && !Dull.Contains(s.State, StringComparer.Ordinal))
                    .Select(s => column.Character.States[column.Character.IndexOf(s.State)].Name)
                    .ToList();
                var when = phases.SelectMany(p => _phases.Where(own => own.Phase == p)).SelectMany(p => p.Windows).ToList();
                if (bright.Count == 0 || when.Count == 0)
                    continue;
                windows.AddRange(when);
                by.Add($"{string.Join(" or ", bright)} {word}");
            }
            if (_phases.FirstOrDefault(p => p.Phase == Phenophase.AutumnColour) is { } autumn)
            {
                windows.AddRange(autumn.Windows);
                by.Add("autumn colour");
            }
            return (windows, string.Join("; ", by));
        }

        private static List<DayWindow> Stretches(bool[] marked)
        {
            if (Array.TrueForAll(marked, m => m))
                return [new DayWindow(1, DayOfYear.Days)];
            var windows = new List<DayWindow>();
            for (var i = 0; i < Steps; i++)
            {
                if (!marked[i] || marked[(i + Steps - 1) % Steps])
                    continue;
                var end = i;
                while (marked[(end + 1) % Steps])
                    end++;
                windows.Add(new DayWindow(i * Step + 1, end % Steps * Step + Step));
            }
            return windows;
        }
    }
}
