using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Surveys;

/// <summary>What is counted of a patch.</summary>
[JsonConverter(typeof(CamelCaseWords<CountUnit>))]
public enum CountUnit
{
    /// <summary>Plants, each from a seed of its own as far as can be told.</summary>
    Individuals,

    /// <summary>Shoots above ground, whatever joins them below.</summary>
    Shoots,

    /// <summary>Stems of woody plants.</summary>
    Stems,

    /// <summary>Seedlings.</summary>
    Seedlings,

    /// <summary>Rosettes without a flowering stem.</summary>
    Rosettes,

    /// <summary>Flowering stems or spikes.</summary>
    Flowering,

    /// <summary>Tufts.</summary>
    Tufts,

    /// <summary>Square metres that it covers.</summary>
    SquareMetres,
}

/// <summary>A count of a patch. A fact; a correction supersedes it.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Date">The day.</param>
/// <param name="Unit">What was counted.</param>
/// <param name="Number">How many; 0 where it was looked for and nothing found.</param>
/// <param name="Note">A note; may be empty.</param>
/// <param name="Recorder">Who counted.</param>
/// <param name="Supersedes">The count that it corrects; null for a first one.</param>
/// <param name="Known">Plants whose place was known and that were looked for again without knowing it: the blind check; 0 for none.</param>
/// <param name="Found">How many of them the count found.</param>
public sealed record PopulationCount(
    Guid Id,
    DateOnly Date,
    CountUnit Unit,
    int Number,
    string Note,
    string Recorder,
    Guid? Supersedes = null,
    int Known = 0,
    int Found = 0
);

/// <summary>A plant of a population that was marked, with what was found later.</summary>
/// <param name="Id">The plant.</param>
/// <param name="Label">What its peg says.</param>
/// <param name="PeggedOn">When it was marked.</param>
/// <param name="Visits">What was found of it.</param>
public sealed record PeggedPlant(Guid Id, string Label, DateOnly PeggedOn, IReadOnlyList<PlantVisit> Visits);

/// <summary>Sexes among marked plants of a year.</summary>
/// <param name="Male">How many bore male branches only.</param>
/// <param name="Female">How many bore female ones only.</param>
/// <param name="Both">How many bore both.</param>
/// <param name="NotSexed">How many could not be sexed; those without fruit among them.</param>
/// <param name="FemaleShare">Share of females among those of one sex.</param>
public sealed record SexCount(int Male, int Female, int Both, int NotSexed, ShareEstimate FemaleShare);

/// <summary>A population in one year.</summary>
/// <param name="Year">The year.</param>
/// <param name="Counts">Its last count of each unit.</param>
/// <param name="Pegged">How many plants bore a peg.</param>
/// <param name="Flowered">Share that flowered.</param>
/// <param name="Fruited">Share that bore fruit.</param>
/// <param name="Alive">Share that was alive at the end.</param>
/// <param name="NotRefound">How many were looked for and not found.</param>
/// <param name="Sexes">Their sexes.</param>
/// <param name="OfRosettes">What share of the winter's rosettes flowered, by counts of the patch; null where both weren't counted.</param>
public sealed record PopulationYear(
    int Year,
    IReadOnlyList<PopulationCount> Counts,
    int Pegged,
    ShareEstimate Flowered,
    ShareEstimate Fruited,
    ShareEstimate Alive,
    int NotRefound,
    SexCount Sexes,
    PatchShare? OfRosettes = null
);

/// <summary>How a count changed from one year to a later one.</summary>
/// <param name="Unit">What was counted.</param>
/// <param name="FromYear">The earlier year.</param>
/// <param name="ToYear">The later one: the next that has a count.</param>
/// <param name="From">The earlier count.</param>
/// <param name="To">The later one.</param>
/// <param name="PerYear">By what factor it changed from year to year: the root of their ratio; null where the earlier count is 0.</param>
/// <param name="Low">Lower bound of that factor at 95 %, by the error of counting alone; null where it has none.</param>
/// <param name="High">Upper bound.</param>
public sealed record CountChange(
    CountUnit Unit,
    int FromYear,
    int ToYear,
    int From,
    int To,
    double? PerYear,
    double? Low = null,
    double? High = null
)
{
    private const double Z = 1.959963984540054;

    // Two counts of one patch in one week differ by a tenth, besides the chance of few plants; with a blind check by what that says.
    private const double CountingError = 0.1;

    /// <summary>A change with its interval: the logarithm of the ratio has the variance 1/(n1 + ½) + 1/(n2 + ½) + the counting errors of
    /// both, each 0.1² or, where a count was checked blind, (1 − d̂)/((m + 1)·d̂) + 0.1². Real change from plant to plant isn't in
    /// it.</summary>
    /// <param name="from">The earlier count.</param>
    /// <param name="to">The later one, of a later year.</param>
    public static CountChange Of(PopulationCount from, PopulationCount to)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(to);
        var span = Math.Max(1, to.Date.Year - from.Date.Year);
        if (from.Number == 0)
            return new CountChange(to.Unit, from.Date.Year, to.Date.Year, from.Number, to.Number, null);
        var factor = Math.Pow(to.Number / (double)from.Number, 1d / span);
        var log = Math.Log((to.Number + 0.5) / (from.Number + 0.5));
        var error = Math.Sqrt(1 / (from.Number + 0.5) + 1 / (to.Number + 0.5) + Counting(from) + Counting(to));
        return new CountChange(
            to.Unit,
            from.Date.Year,
            to.Date.Year,
            from.Number,
            to.Number,
            factor,
            Math.Min(factor, Math.Exp((log - Z * error) / span)),
            Math.Max(factor, Math.Exp((log + Z * error) / span))
        );
    }

    /// <summary>Whether the counts tell a change at all: the interval of the factor leaves 1 out.</summary>
    public bool IsTold => Low > 1 || High < 1;

    private static double Counting(PopulationCount count)
    {
        var own = CountingError * CountingError;
        if (count.Known == 0)
            return own;
        var detection = new CheckedCount(count.Number, count.Known, count.Found).Detection;
        return own + (1 - detection) / ((count.Known + 1) * detection);
    }

    /// <summary>The change in words, never without its error: "+12 % a year (95 %: −3 to +29 %)", "no change that these counts can tell";
    /// empty where it can't be said.</summary>
    public string PerYearInWords =>
        PerYear is not { } factor || Low is not { } low || High is not { } high ? ""
        : low <= 1 && high >= 1 ? $"no change that these counts can tell ({Signed(low)} to {Signed(high)} a year)"
        : $"{Signed(factor)} a year (95 %: {Signed(low)} to {Signed(high)})";

    private static string Signed(double factor) =>
        string.Create(CultureInfo.InvariantCulture, $"{(factor >= 1 ? "+" : "−")}{Percent.OfShare(Math.Abs(factor - 1))}");
}

/// <summary>What a population's counts and pegs come to.</summary>
/// <param name="Years">The years, oldest first.</param>
/// <param name="Changes">How counts changed.</param>
/// <param name="NeverFlowered">Labels of marked plants that were looked at in two years or more and never flowered.</param>
/// <param name="Due">What is to be done again, and when.</param>
/// <param name="Missed">What can't be had this year any more, in sentences.</param>
public sealed record PopulationSummary(
    IReadOnlyList<PopulationYear> Years,
    IReadOnlyList<CountChange> Changes,
    IReadOnlyList<string> NeverFlowered,
    IReadOnlyList<OpenNeed> Due,
    IReadOnlyList<string> Missed
)
{
    // Counts of two years are compared where they were made at about the same time: half a month to either side.
    private const int CountedAround = 15;

    // A count no older than this is this season's.
    private const int CountedLately = 60;

    // Fewer years say nothing about plants that rest for one.
    private const int YearsForNever = 2;

    /// <summary>Works it out.</summary>
    /// <param name="counts">All counts; superseded ones are passed over.</param>
    /// <param name="pegs">The marked plants.</param>
    /// <param name="fruit">When the taxon bears fruit there; empty where unknown.</param>
    /// <param name="today">The day.</param>
    public static PopulationSummary Of(
        IReadOnlyList<PopulationCount> counts,
        IReadOnlyList<PeggedPlant> pegs,
        IReadOnlyList<DayWindow> fruit,
        DateOnly today
    )
    {
        ArgumentNullException.ThrowIfNull(counts);
        ArgumentNullException.ThrowIfNull(pegs);
        ArgumentNullException.ThrowIfNull(fruit);
        var superseded = counts.Select(c => c.Supersedes).OfType<Guid>().ToHashSet();
        var holding = counts.Where(c => !superseded.Contains(c.Id)).OrderBy(c => c.Date).ThenBy(c => c.Id).ToList();
        var years = holding
            .Select(c => c.Date.Year)
            .Concat(pegs.SelectMany(p => p.Visits.Select(v => v.Date.Year).Append(p.PeggedOn.Year)))
            .Distinct()
            .Order()
            .ToList();
        var changes = new List<CountChange>();
        foreach (var unit in holding.GroupBy(c => c.Unit))
        {
            var last = unit.GroupBy(c => c.Date.Year).Select(y => y.Last()).ToList();
            for (var i = 1; i < last.Count; i++)
            {
                changes.Add(CountChange.Of(last[i - 1], last[i]));
            }
        }
        var never = pegs.Where(p =>
                p.Visits.Where(v => PlantVisit.IsFound(v.State)).Select(v => v.Date.Year).Distinct().Count() >= YearsForNever
                && p.Visits.Select(v => v.Date.Year).Distinct().All(y => Flowered(p, y) != true)
            )
            .Select(p => p.Label)
            .ToList();
        var (due, missed) = ToDo(holding, pegs, fruit, today);
        return new PopulationSummary(years.ConvertAll(y => Year(y, holding, pegs)), changes, never, due, missed);
    }

    private static PopulationYear Year(int year, List<PopulationCount> counts, IReadOnlyList<PeggedPlant> pegs)
    {
        var pegged = pegs.Where(p => p.PeggedOn.Year <= year).ToList();
        var lost = pegged.Count(p =>
            p.Visits.Where(v => v.Date.Year == year).ToList() is { Count: > 0 } visits && visits.All(v => v.State == PlantState.NotRefound)
        );
        return new PopulationYear(
            year,
            [.. counts.Where(c => c.Date.Year == year).GroupBy(c => c.Unit).Select(g => g.Last())],
            pegged.Count,
            Estimate(pegged, p => Flowered(p, year)),
            Estimate(pegged, p => Fruited(p, year)),
            Estimate(pegged, p => Lived(p, year)),
            lost,
            Sexes(pegged, year),
            OfRosettes(counts, year)
        );
    }

    // Rosettes from October to April before a summer, flowering stems from April to September of it; of several counts the last.
    private static PatchShare? OfRosettes(List<PopulationCount> counts, int year)
    {
        DateOnly winter = new(year - 1, 10, 1),
            spring = new(year, 4, 30),
            autumn = new(year, 9, 30);
        var rosettes = counts.FindLast(c => c.Unit == CountUnit.Rosettes && c.Date >= winter && c.Date <= spring);
        var flowering = rosettes is null
            ? null
            : counts.FindLast(c => c.Unit == CountUnit.Flowering && c.Date > rosettes.Date && c.Date <= autumn);
        return rosettes is null || flowering is null
            ? null
            : PatchShare.Of(
                new CheckedCount(rosettes.Number, rosettes.Known, rosettes.Found),
                new CheckedCount(flowering.Number, flowering.Known, flowering.Found)
            );
    }

    private static ShareEstimate Estimate(List<PeggedPlant> pegs, Func<PeggedPlant, bool?> has)
    {
        var known = pegs.Select(has).ToList();
        return ShareEstimate.Of(known.Count(k => k == true), known.Count(k => k is not null), known.Count(k => k is null));
    }

    /// <summary>Whether a marked plant flowered in a year; null where nobody can say. What bore fruit has flowered.</summary>
    public static bool? Flowered(PeggedPlant plant, int year) =>
        Had(plant, year, p => p is Phenophase.Flower, p => p is Phenophase.YoungFruit or Phenophase.RipeFruit);

    /// <summary>Whether it bore fruit in a year; null where nobody can say.</summary>
    public static bool? Fruited(PeggedPlant plant, int year)
    {
        // What didn't flower at all bears no fruit either.
        var own = Had(plant, year, p => p is Phenophase.YoungFruit or Phenophase.RipeFruit, _ => false);
        return own
            ?? (
                plant.Visits.Any(v => v.Date.Year == year && v.Phases.Any(p => p is { Phase: Phenophase.Flower, Stage: PhaseStage.None }))
                    ? false
                    : null
            );
    }

    private static bool? Had(PeggedPlant plant, int year, Func<Phenophase, bool> phase, Func<Phenophase, bool> implies)
    {
        var visits = plant.Visits.Where(v => v.Date.Year == year).ToList();
        var notes = visits.SelectMany(v => v.Phases).ToList();
        if (notes.Any(n => n.Stage is PhaseStage.Shown or PhaseStage.Over && (phase(n.Phase) || implies(n.Phase))))
            return true;
        if (notes.Any(n => n.Stage == PhaseStage.None && phase(n.Phase)))
            return false;
        // Dead before the year, or found dead in it with nothing seen: it had none.
        return plant.Visits.Any(v => v.State == PlantState.Dead && v.Date.Year < year) ? false : null;
    }

    /// <summary>Whether it was alive at the end of a year: seen alive then or later; dead where it was found so. Cut or not refound is
    /// neither.</summary>
    public static bool? Lived(PeggedPlant plant, int year)
    {
        ArgumentNullException.ThrowIfNull(plant);
        if (plant.Visits.Any(v => v.Date.Year > year && v.State is PlantState.Alive or PlantState.Browsed))
            return true;
        if (plant.Visits.Any(v => v.Date.Year <= year && v.State == PlantState.Dead))
            return false;
        return
            plant.Visits.Where(v => v.Date.Year == year && PlantVisit.IsFound(v.State)).MaxBy(v => v.Date)?.State
                is PlantState.Alive
                    or PlantState.Browsed
            ? true
            : null;
    }

    private static SexCount Sexes(List<PeggedPlant> pegs, int year)
    {
        int male = 0,
            female = 0,
            both = 0;
        foreach (var plant in pegs)
        {
            var sexes = plant.Visits.Where(v => v.Date.Year == year).SelectMany(v => v.Sexes).Select(s => s.Sex).ToHashSet();
            var (isMale, isFemale) = (
                sexes.Contains(PartSex.Male) || sexes.Contains(PartSex.Both),
                sexes.Contains(PartSex.Female) || sexes.Contains(PartSex.Both)
            );
            if (isMale && isFemale)
                both++;
            else if (isMale)
                male++;
            else if (isFemale)
                female++;
        }
        return new SexCount(male, female, both, pegs.Count - male - female - both, ShareEstimate.Of(female, male + female));
    }

    private static (List<OpenNeed> Due, List<string> Missed) ToDo(
        List<PopulationCount> counts,
        IReadOnlyList<PeggedPlant> pegs,
        IReadOnlyList<DayWindow> fruit,
        DateOnly today
    )
    {
        var due = new List<OpenNeed>();
        var missed = new List<string>();
        foreach (var unit in counts.GroupBy(c => c.Unit))
        {
            var last = unit.Last();
            var at = DayOfYear.Of(last.Date);
            var word = CountWords.Of(unit.Key);
            if (today.DayNumber - last.Date.DayNumber <= CountedLately)
                continue;
            var window = new DayWindow(DayOfYear.Add(at, -CountedAround), DayOfYear.Add(at, CountedAround));
            due.Add(
                new OpenNeed(
                    $"count:{unit.Key.ToString().ToLowerInvariant()}",
                    "",
                    string.Create(CultureInfo.InvariantCulture, $"Count the {word} again: {last.Number} on {last.Date:d MMMM yyyy}."),
                    [window]
                )
            );
            if (today.DayNumber - last.Date.DayNumber > DayOfYear.Days + CountedAround)
                missed.Add(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"The {word} were to be counted about {last.Date.AddYears(1):d MMMM yyyy}, and weren’t."
                    )
                );
        }
        // Fruit of what has flowered within the year.
        var waiting = pegs.Where(p =>
                p.Visits.Any(v =>
                    today.DayNumber - v.Date.DayNumber < DayOfYear.Days && v.Date.Year == today.Year && Flowered(p, v.Date.Year) == true
                ) && Fruited(p, today.Year) is null
            )
            .ToList();
        if (waiting.Count > 0 && fruit.Count > 0)
        {
            var text =
                $"Fruit of {waiting.Count} marked {(waiting.Count == 1 ? "plant" : "plants")} that flowered: {string.Join(", ", waiting.Take(6).Select(p => p.Label))}{(waiting.Count > 6 ? " …" : "")}.";
            var flowered = waiting.SelectMany(p => p.Visits).Where(v => v.Date.Year == today.Year).Max(v => v.Date);
            // Still to come this year: the window is open now, or opens before the year is out.
            var ahead = fruit.Any(w => w.Holds(DayOfYear.Of(today)) || DayOfYear.Next(today, w.From).Year == today.Year);
            if (ahead)
                due.Add(new OpenNeed("fruit", "", text, fruit));
            else
                missed.Add(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{text} Nobody came between their flowering ({flowered:d MMMM}) and the end of the fruit."
                    )
                );
        }
        return (due, missed);
    }
}
