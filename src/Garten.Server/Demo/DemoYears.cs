using System.Globalization;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Garten.Core.Surveys;

namespace Garten.Server.Demo;

/// <summary>
/// Two survey years of the demo, drawn from the flora's descriptions with a fixed seed: tagged plants looked at in several seasons, and
/// populations with counts and pegs. Days are kept as offsets from the day of loading.
/// </summary>
internal sealed class DemoYears(
    ReadyFlora flora,
    IReadOnlyList<Place> places,
    IReadOnlyList<PersonReference> people,
    IReadOnlySet<string> except,
    DateOnly today
)
{
    private const int Seed = 20;
    private const int PlantsPerPlace = 9;
    private const int DaysPerPlace = 9;
    private const int FirstDayAgo = 705;
    private const int DaysBetween = 83;

    // What one looks at before the rain comes.
    private const int LooksAtATime = 5;

    private const int BeforeFruit = 75;
    private const int PegsPerPopulation = 8;
    private const int LooksAtAPeg = 2;
    private const double MetresPerDegree = 111_195;

    private static readonly string[] Spots =
    [
        "by the stile",
        "peg 4",
        "under the leaning stone",
        "peg 11",
        "at the ditch",
        "by the gatepost",
        "peg 7",
        "below the crag",
        "tag 19",
        "by the sluice",
        "tag 22",
        "at the bend",
        "peg 14",
        "by the fallen trunk",
    ];

    private static readonly string[] Landmarks =
    [
        "stile",
        "leaning stone",
        "sluice",
        "corner post",
        "footbridge",
        "sheepfold",
        "split boulder",
    ];

    private readonly Random _random = new(Seed);
    private readonly HashSet<string> _taken = new(except, StringComparer.Ordinal);
    private int _plants;

    /// <summary>The commands, in the order in which they are to be sent.</summary>
    public IEnumerable<Command> Draw()
    {
        for (var p = 0; p < places.Count; p++)
        {
            var here = Here(places[p]);
            for (var i = 0; i < PlantsPerPlace && Pick(here) is { } taxon; i++)
            {
                foreach (var command in Plant(places[p], p, i, taxon))
                    yield return command;
            }
        }
        foreach (var command in NameChangedByFruit().Concat(Hybrid()).Concat(PresenceGap()).Concat(SexedLate()).Concat(Firsts()))
            yield return command;
        foreach (var command in Populations())
            yield return command;
    }

    private List<Taxon> Here(Place place) =>
        [
            .. flora.Pack.Taxa.Where(t =>
                t.Rank == "species"
                && IsDescribed(t)
                && t.Facts is { } facts
                && facts.Cells.Contains(place.Cell, StringComparer.Ordinal)
                && facts.Habitats.Any(h => place.Habitats?.Contains(h, StringComparer.Ordinal) == true)
            ),
        ];

    private bool IsDescribed(Taxon taxon) => flora.Sifter.Columns.IndexOf(taxon.Id) >= 0;

    private bool IsFree(Taxon taxon) => !except.Contains(taxon.Name.Split(' ')[0]);

    // Each taxon once before any comes twice.
    private Taxon? Pick(List<Taxon> here)
    {
        var free = here.Where(t => IsFree(t) && !_taken.Contains(t.Name)).ToList();
        if (free.Count == 0)
            free = [.. here.Where(IsFree)];
        if (free.Count == 0)
            return null;
        var taxon = free[_random.Next(free.Count)];
        _taken.Add(taxon.Name);
        return taxon;
    }

    // The days on which a place was visited: all through two years.
    private DateOnly Day(int place, int visit) => today.AddDays(-FirstDayAgo + DaysBetween * visit + 5 * place);

    private PersonReference Recorder => people[_plants % people.Count];

    private static string Text(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private IEnumerable<Command> Plant(Place place, int p, int i, Taxon taxon)
    {
        var first = i % 4;
        var sheet = new Sheet(flora, taxon, new Random(Seed + _plants));
        var (plant, tag) = Tag(place, Day(p, first));
        yield return tag;
        var congener = flora.Pack.Taxa.FirstOrDefault(t =>
            t.Rank == "species" && t.Id != taxon.Id && IsDescribed(t) && t.Name.Split(' ')[0] == taxon.Name.Split(' ')[0]
        );
        var isOpenPair = i % 4 == 1 && congener is not null;
        yield return isOpenPair
            ? Named(plant, place, Day(p, first), sheet, [taxon.Name, congener!.Name], null, "")
            : Named(plant, place, Day(p, first), sheet, [taxon.Name], taxon, "");
        // Two to four seasons; every fifth plant waits for its second.
        var visits = Enumerable.Range(1, 1 + i % 3).Select(k => first + 2 * k - i % 2).Where(v => v < DaysPerPlace).ToList();
        foreach (var visit in visits)
            yield return Seen(plant, Day(p, visit), sheet, PlantState.Alive, [Flowering(taxon, Day(p, visit))], []);
        if (visits.Count > 0 && !(isOpenPair && i == 1 && p == 1))
            yield return Named(
                plant,
                place,
                Day(p, visits[^1]),
                sheet,
                [taxon.Name],
                taxon,
                isOpenPair ? "" : "Seen again; what was missing is recorded."
            );
        if (i == 8)
            yield return Seen(plant, today.AddDays(-9 - p), sheet, p % 2 == 0 ? PlantState.NotRefound : PlantState.Browsed, [], []);
        if (i == 5 && p == 3)
            yield return Seen(
                plant,
                today.AddDays(-14),
                sheet,
                PlantState.Dead,
                [],
                [],
                "Uprooted by the winter flood; the stump lay beside its hole."
            );
    }

    // Whether it flowers on a day, by the flora.
    private static PhaseNote Flowering(Taxon taxon, DateOnly day)
    {
        var spans = (taxon.Facts?.Phenology ?? []).Where(s => s.Phase == Phenophase.Flower).ToList();
        var half = PhaseSpan.HalfMonth(day);
        return new PhaseNote(
            Phenophase.Flower,
            spans.Any(s => s.Holds(half)) ? PhaseStage.Shown
                : spans.Any(s => half < s.From) ? PhaseStage.NotYet
                : PhaseStage.Over
        );
    }

    private (Guid Id, TagPlantCommand Command) Tag(Place place, DateOnly on, string? label = null, Guid? population = null)
    {
        var id = Guid.CreateVersion7();
        var (east, north) = (
            (_random.NextDouble() - 0.5) * place.UncertaintyMetres,
            (_random.NextDouble() - 0.5) * place.UncertaintyMetres
        );
        var site = new PlantSite(
            Math.Round(place.Latitude + north / MetresPerDegree, 5),
            Math.Round(place.Longitude + east / (MetresPerDegree * Math.Cos(place.Latitude * Math.PI / 180)), 5),
            5 + _random.Next(6)
        );
        var finding = new Finding(Landmarks[_plants % Landmarks.Length], _random.Next(36) * 10, 2 + _random.Next(30), "");
        return (
            id,
            new TagPlantCommand(
                Guid.CreateVersion7(),
                id,
                place.Id,
                label ?? Spots[_plants++ % Spots.Length],
                Text(on),
                Recorder,
                site,
                finding,
                population
            )
        );
    }

    private RecordDeterminationCommand Named(
        Guid plant,
        Place place,
        DateOnly day,
        Sheet sheet,
        IReadOnlyList<string> names,
        Taxon? confirmed,
        string note,
        IReadOnlyList<Observation>? looks = null
    ) =>
        new(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            plant,
            "",
            place.Id,
            Text(day),
            Recorder,
            "",
            [],
            names,
            note,
            looks ?? sheet.Look(day, LooksAtATime),
            Confirming: confirmed is null ? null : new Confirming(flora.Pack.Id, confirmed.Id, "confirmed-list")
        );

    private VisitPlantCommand Seen(
        Guid plant,
        DateOnly day,
        Sheet sheet,
        PlantState state,
        IReadOnlyList<PhaseNote> phases,
        IReadOnlyList<BranchSex> sexes,
        string note = "",
        int looks = LooksAtATime
    ) =>
        new(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            plant,
            Text(day),
            Recorder,
            state,
            phases,
            sexes,
            note,
            state is PlantState.NotRefound or PlantState.Dead ? null : sheet.Look(day, looks)
        );

    // The newest day before today that lies in the middle of what a taxon does.
    private DateOnly? Last(Taxon taxon, params Phenophase[] phases)
    {
        foreach (var span in phases.SelectMany(p => (taxon.Facts?.Phenology ?? []).Where(s => s.Phase == p)))
        {
            var window = DayWindow.OfHalfMonths(span.From, span.To);
            return today.AddDays(-DayOfYear.Between(DayOfYear.Add(window.From, window.Length / 2), DayOfYear.Of(today.AddDays(-1))) - 1);
        }
        return null;
    }

    // Taken for its look-alike while in leaf; the fruit told.
    private IEnumerable<Command> NameChangedByFruit()
    {
        foreach (var place in places)
        {
            foreach (var taxon in Here(place).Where(IsFree))
            {
                foreach (
                    var other in (taxon.Facts?.LookAlikes ?? []).Select(flora.Find).OfType<Taxon>().Where(t => IsFree(t) && IsDescribed(t))
                )
                {
                    if (
                        Last(taxon, Phenophase.RipeFruit) is not { } fruit
                        || Last(taxon, Phenophase.FullLeaf, Phenophase.ShootsUp) is not { } leaf
                    )
                        continue;
                    // In leaf a season before its fruit.
                    if (leaf > fruit.AddDays(-BeforeFruit))
                        leaf = fruit.AddDays(-BeforeFruit);
                    var telling = flora
                        .Sifter.Columns.Columns.Select(c => c.Character)
                        .Where(c =>
                            c.Organ == Organ.Fruit
                            && flora.Sifter.CanBeSeen(taxon.Id, c.Id, fruit)
                            && Separation.Of(c, Cell(taxon, c), Cell(other, c), new Likelihood([], EvidenceOptions.Default))
                                >= Separation.Clean
                        )
                        .Select(c => c.Id)
                        .ToList();
                    if (telling.Count == 0)
                        continue;
                    var sheet = new Sheet(flora, taxon, new Random(Seed));
                    var (plant, tag) = Tag(place, leaf);
                    yield return tag;
                    var alike = sheet.Look(leaf, LooksAtATime, c =>
                        Separation.Of(c, Cell(taxon, c), Cell(other, c), new Likelihood([], EvidenceOptions.Default)) < 0.5
                    );
                    yield return Named(plant, place, leaf, sheet, [other.Name], other, "By the leaves.", alike);
                    yield return Seen(plant, fruit, sheet, PlantState.Alive, [new PhaseNote(Phenophase.RipeFruit, PhaseStage.Shown)], []);
                    yield return Named(
                        plant,
                        place,
                        fruit,
                        sheet,
                        [taxon.Name],
                        taxon,
                        "The ripe fruit is another one’s: it can’t be what the leaves were taken for.",
                        sheet.Look(fruit, telling.Count, c => telling.Contains(c.Id, StringComparer.Ordinal))
                    );
                    yield break;
                }
            }
        }
    }

    private CharacterDescription? Cell(Taxon taxon, Character character) => flora.Sifter.Columns.Describe(taxon.Id, character.Id);

    // A plant midway between two of a genus: half the states of each, sizes between.
    private IEnumerable<Command> Hybrid()
    {
        foreach (var place in places)
        {
            var species = Here(place).Where(IsFree).GroupBy(t => t.Name.Split(' ')[0], StringComparer.Ordinal).Where(g => g.Count() > 1);
            foreach (var genus in species)
            {
                var parents = genus.Take(2).ToArray();
                var day = Last(parents[0], Phenophase.FullLeaf, Phenophase.ShootsUp, Phenophase.Flower) ?? today.AddDays(-30);
                var at = 0;
                var midway = flora
                    .Sifter.Columns.Columns.Select(c => (First: Cell(parents[0], c.Character), Second: Cell(parents[1], c.Character)))
                    .Where(c => c is { First.Applies: true, Second.Applies: true })
                    .Select(c =>
                        c.First!.Range is { } a && c.Second!.Range is { } b ? c.First with { Range = Between(a, b), Shade = null }
                        : at++ % 2 == 0 ? c.First
                        : c.Second!
                    )
                    .ToList();
                var looks = new Sheet(flora, parents[0], new Random(Seed), midway).Look(day, int.MaxValue);
                var asked = new ConfirmRequest(
                    flora.Pack.Id,
                    parents[0].Id,
                    null,
                    looks,
                    null,
                    new SiftPlace(place.Cell, place.ElevationMetres, place.Habitats),
                    Text(day),
                    "confirmed-list"
                );
                if (asked.Confirm(flora).Hybrid is null)
                    continue;
                var (plant, tag) = Tag(place, day);
                yield return tag;
                yield return Named(
                    plant,
                    place,
                    day,
                    new Sheet(flora, parents[0], new Random(Seed)),
                    [parents[0].Name],
                    parents[0],
                    "Between two of the genus; fruit and pollen to be looked at.",
                    looks
                );
                yield break;
            }
        }
    }

    private static QuantityRange Between(QuantityRange a, QuantityRange b)
    {
        double Mid(double x, double y) =>
            a.Kind == QuantityKind.Count ? Math.Round((x + y) / 2) : Math.Sqrt(Math.Max(x, 0.01) * Math.Max(y, 0.01));
        return a with { Low = Mid(a.Low, b.Low), High = Mid(a.High, b.High), LowExtreme = null, HighExtreme = null };
    }

    // Recorded everywhere but in this cell.
    private IEnumerable<Command> PresenceGap()
    {
        var place = places[^1];
        var taxon = flora.Pack.Taxa.FirstOrDefault(t =>
            t.Rank == "species"
            && IsFree(t)
            && IsDescribed(t)
            && t.Facts is { Cells.Count: > 0 } facts
            && !facts.Cells.Contains(place.Cell, StringComparer.Ordinal)
            && facts.Habitats.Any(h => place.Habitats?.Contains(h, StringComparer.Ordinal) == true)
        );
        if (taxon is null || Last(taxon, Phenophase.Flower) is not { } day)
            yield break;
        var sheet = new Sheet(flora, taxon, new Random(Seed));
        var (plant, tag) = Tag(place, day);
        yield return tag;
        yield return Named(
            plant,
            place,
            day,
            sheet,
            [taxon.Name],
            taxon,
            "The square is empty on the map; nobody may have looked.",
            sheet.Look(day, 2 * LooksAtATime)
        );
    }

    // One sex to a plant: no flower in the first year, the sex in the second.
    private IEnumerable<Command> SexedLate()
    {
        foreach (var place in places)
        {
            var taxon = Dioecious(place);
            if (taxon is null || Last(taxon, Phenophase.Flower) is not { } flower)
                continue;
            var sheet = new Sheet(flora, taxon, new Random(Seed));
            var before = flower.AddDays(-DayOfYear.Days - 70);
            var (plant, tag) = Tag(place, before);
            yield return tag;
            yield return Named(plant, place, before, sheet, [taxon.Name], taxon, "Not in flower yet.");
            yield return Seen(
                plant,
                flower.AddDays(-DayOfYear.Days),
                sheet,
                PlantState.Browsed,
                [new PhaseNote(Phenophase.Flower, PhaseStage.None)],
                [],
                "Browsed to the ground: no flower, so no sex."
            );
            yield return Seen(
                plant,
                flower,
                sheet,
                PlantState.Alive,
                [new PhaseNote(Phenophase.Flower, PhaseStage.Shown)],
                [new BranchSex("", PartSex.Female)]
            );
            yield return Named(plant, place, flower, sheet, [taxon.Name], taxon, "Female, seen in its second year.");
            yield break;
        }
    }

    // A herb of one sex to a plant, of the habitat of a place: it is recorded in other cells.
    private Taxon? Dioecious(Place place) =>
        flora.Pack.Taxa.FirstOrDefault(t =>
            t.Rank == "species"
            && IsDescribed(t)
            && IsFree(t)
            && t.Facts is { GrowthForm: "herb" } facts
            && facts.Habitats.Any(h => place.Habitats?.Contains(h, StringComparer.Ordinal) == true)
            && flora.Sifter.Columns.Describe(t.Id, "sexuality") is { } cell
            && cell.States.Any(s => s.State == "dioecious" && s.Share >= 0.5)
        );

    // What began this year where somebody had looked shortly before: by these the year is late.
    private IEnumerable<Command> Firsts()
    {
        const int wanted = 6,
            late = 5,
            before = 4;
        var made = 0;
        foreach (var place in places)
        {
            foreach (var taxon in Here(place).Where(IsFree).Take(3))
            {
                if (made == wanted || (taxon.Facts?.Phenology ?? []).FirstOrDefault(s => s.Phase == Phenophase.Flower) is not { } span)
                    continue;
                var begins = DayOfYear
                    .Next(new DateOnly(today.Year, 1, 1), DayWindow.OfHalfMonths(span.From, span.To).From)
                    .AddDays(late + made % 3 - 1);
                if (begins.AddDays(1) >= today || begins.AddDays(-before - 2).Year != today.Year)
                    continue;
                var sheet = new Sheet(flora, taxon, new Random(Seed + made));
                var (plant, tag) = Tag(place, begins.AddDays(-before));
                yield return tag;
                yield return Named(plant, place, begins.AddDays(-before), sheet, [taxon.Name], taxon, "");
                yield return Seen(
                    plant,
                    begins.AddDays(-before),
                    sheet,
                    PlantState.Alive,
                    [new PhaseNote(Phenophase.Flower, PhaseStage.NotYet)],
                    []
                );
                yield return Seen(plant, begins, sheet, PlantState.Alive, [new PhaseNote(Phenophase.Flower, PhaseStage.Shown)], []);
                made++;
            }
        }
    }

    private IEnumerable<Command> Populations()
    {
        (string Name, int Place, CountUnit Unit, int First, double Change, bool Pegged, string Threat, int ActIn)[] wanted =
        [
            ("east bank", 0, CountUnit.Shoots, 148, 0.81, true, "Ditch clearing is planned along the bank.", 24),
            ("headland strip", 1, CountUnit.Individuals, 62, 1.24, true, "Cattle come onto the headland before the seed is ripe.", 12),
            ("ledge below the cairn", 2, CountUnit.Individuals, 23, 0.96, true, "", 0),
            ("tarn outflow", 3, CountUnit.Shoots, 310, 1.02, false, "", 0),
            ("second slack", 4, CountUnit.Individuals, 87, 0.63, true, "Scrub is closing over the slack from the west.", 60),
            ("alder edge", 0, CountUnit.Stems, 41, 1.0, false, "Felling of the strip was announced.", 40),
        ];
        var used = new HashSet<string>(StringComparer.Ordinal);
        foreach (var it in wanted)
        {
            var place = places[it.Place];
            var isSexed = it.Name == "headland strip";
            var taxon = (isSexed ? Dioecious(place) : null)
                ?? Here(place)
                    .Where(t =>
                        IsFree(t)
                        && !used.Contains(t.Id)
                        && (t.Facts?.GrowthForm is "tree" or "shrub") == (it.Unit == CountUnit.Stems)
                        && Last(t, Phenophase.Flower) is not null
                    )
                    .OrderBy(_ => _random.Next())
                    .FirstOrDefault();
            if (taxon is null || Last(taxon, Phenophase.Flower) is not { } flower)
                continue;
            used.Add(taxon.Id);
            var population = Guid.CreateVersion7();
            var lastYear = flower.AddDays(-DayOfYear.Days);
            yield return new SavePopulationCommand(
                Guid.CreateVersion7(),
                population,
                place.Id,
                it.Name,
                taxon.Name,
                "Both sides of the marked line, two paces wide."
            );
            yield return Count(population, lastYear, it.Unit, it.First);
            yield return Count(population, flower.AddDays(3), it.Unit, (int)Math.Round(it.First * it.Change));
            if (isSexed)
            {
                // Rosettes of the winter and flowering stems of the summer after, both counts checked blind.
                var winter = new DateOnly(flower.Year, 1, 10);
                yield return Count(population, winter, CountUnit.Rosettes, 96) with
                {
                    Known = 20,
                    Found = 17,
                };
                yield return Count(population, flower, CountUnit.Flowering, 41) with
                {
                    Known = 20,
                    Found = 19,
                };
            }
            if (it.Threat.Length > 0)
                yield return new NoteThreatCommand(
                    Guid.CreateVersion7(),
                    Guid.CreateVersion7(),
                    population,
                    Text(today.AddDays(-20)),
                    it.Threat,
                    Text(today.AddDays(it.ActIn))
                );
            if (!it.Pegged)
                continue;
            var fruit = Last(taxon, Phenophase.RipeFruit, Phenophase.YoungFruit);
            for (var n = 1; n <= PegsPerPopulation; n++)
            {
                var (plant, tag) = Tag(place, lastYear, $"{it.Name} {n}", population);
                yield return tag;
                // The last two never flowered; one was lost, one died.
                var never = n > PegsPerPopulation - 2;
                var sheet = new Sheet(flora, taxon, new Random(Seed + n));
                PhaseNote[] flowers = [new PhaseNote(Phenophase.Flower, never ? PhaseStage.None : PhaseStage.Shown)];
                BranchSex[] sexes = isSexed && !never ? [new BranchSex("", n % 3 == 1 ? PartSex.Male : PartSex.Female)] : [];
                yield return Pegged(plant, lastYear, sheet, PlantState.Alive, flowers, sexes);
                if (n == 3)
                    yield return Pegged(plant, flower, sheet, PlantState.NotRefound);
                else if (n == 5)
                    yield return Pegged(plant, flower, sheet, PlantState.Dead);
                else
                    yield return Pegged(plant, flower, sheet, PlantState.Alive, flowers, sexes);
                if (!never && n is not 3 and not 5 && it.Place != 2 && fruit > flower && fruit < today)
                    yield return Pegged(
                        plant,
                        fruit.Value,
                        sheet,
                        PlantState.Alive,
                        [new PhaseNote(Phenophase.RipeFruit, n == 2 ? PhaseStage.None : PhaseStage.Shown)]
                    );
            }
        }
    }

    private CountPopulationCommand Count(Guid population, DateOnly day, CountUnit unit, int number) =>
        new(Guid.CreateVersion7(), Guid.CreateVersion7(), population, Text(day < today ? day : today), Recorder, unit, number);

    private VisitPlantCommand Pegged(
        Guid plant,
        DateOnly day,
        Sheet sheet,
        PlantState state,
        IReadOnlyList<PhaseNote>? phases = null,
        IReadOnlyList<BranchSex>? sexes = null
    ) => Seen(plant, day, sheet, state, phases ?? [], sexes ?? [], "", LooksAtAPeg);

    // A plant that stays the same whenever it is looked at, and what has been seen of it.
    private sealed class Sheet(ReadyFlora flora, Taxon taxon, Random random, IReadOnlyList<CharacterDescription>? description = null)
    {
        private readonly SimulatedPlant _plant = new(
            description
                ?? [.. flora.Sifter.Columns.Columns.Select(c => c[flora.Sifter.Columns.IndexOf(taxon.Id)]).OfType<CharacterDescription>()],
            random
        );
        private readonly HashSet<string> _seen = new(StringComparer.Ordinal);

        public List<Observation> Look(DateOnly day, int most, Func<Character, bool>? only = null)
        {
            var looks = new List<Observation>();
            foreach (
                var character in flora
                    .Sifter.Columns.Columns.Select(c => c.Character)
                    .Where(c =>
                        !_seen.Contains(c.Id)
                        && c.Tool != Tool.Microscope
                        && flora.Sifter.CanBeSeen(taxon.Id, c.Id, day)
                        && only?.Invoke(c) != false
                    )
                    .OrderBy(_ => random.Next())
                    .ToList()
            )
            {
                if (looks.Count >= most)
                    break;
                if (_plant.Look(character) is not { } look)
                    continue;
                _seen.Add(character.Id);
                looks.Add(look with { Id = Guid.CreateVersion7(), Date = Text(day) });
            }
            return looks;
        }
    }
}
