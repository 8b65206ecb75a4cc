using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;

namespace Garten.Benchmarks;

/// <summary>Which looks are taken.</summary>
internal enum Way
{
    /// <summary>The first telling look each time.</summary>
    Telling,

    /// <summary>Any character that can be seen, by chance.</summary>
    Random,
}

/// <summary>A plant looked at step by step.</summary>
/// <param name="Taxon">What it is.</param>
/// <param name="Steps">How the list stood after each look.</param>
/// <param name="Seconds">How long the looks took up to each step.</param>
internal sealed record Trial(string Taxon, IReadOnlyList<SiftResult> Steps, IReadOnlyList<double> Seconds)
{
    public Candidate TopAfter(int looks) => Steps[Math.Min(looks, Steps.Count) - 1].Standing[0];

    public bool IsAmong(int looks, int first) =>
        Steps[Math.Min(looks, Steps.Count) - 1]
            .Standing.Where(c => first == 1 || c.Taxon != Sifter.NotOnList)
            .Take(first)
            .Any(c => c.Taxon == Taxon);

    /// <summary>After how many looks its own name stands first, with at least a share; -1 where it never does.</summary>
    public int FirstAt(double share = 0)
    {
        for (var i = 0; i < Steps.Count; i++)
        {
            if (Steps[i].Standing[0] is var first && first.Taxon == Taxon && first.Probability >= share)
                return i + 1;
        }
        return -1;
    }

    /// <summary>Looks at a plant of a taxon on the day on which most of it can be seen.</summary>
    /// <param name="sifter">The whole list; it says what can be seen.</param>
    /// <param name="taxon">What the plant is.</param>
    /// <param name="seed">Where chance begins.</param>
    /// <param name="error">Share of looks that are wrong.</param>
    /// <param name="way">Which looks are taken.</param>
    /// <param name="most">How many.</param>
    /// <param name="without">The list that it is sifted by; null for the whole one.</param>
    /// <param name="whole">Makes descriptions whole; null where only what is described is looked at.</param>
    /// <param name="notOnList">Prior of "not on this list"; null for the usual one.</param>
    /// <param name="living">By character what any plant shows, where looks are taken in all contexts; null for usual ones.</param>
    public static Trial? Of(
        Sifter sifter,
        TaxonDescription taxon,
        int seed,
        double error,
        Way way,
        int most,
        Sifter? without = null,
        WholePlants? whole = null,
        double? notOnList = null,
        IReadOnlyDictionary<string, double[]>? living = null
    )
    {
        var random = new Random(seed);
        var described = whole?.Whole(taxon, random) ?? taxon.Characters;
        var plant = new SimulatedPlant(described, random, error);
        var inContexts = living is null ? null : new LivingPlant(described, living, random, error);
        var day = BestDay(sifter, taxon);
        var list = without ?? sifter;
        var sheet = new List<Observation>();
        var skip = new HashSet<string>();
        var steps = new List<SiftResult>();
        var seconds = new List<double>();
        var spent = 0d;
        var visible = sifter
            .Columns.Columns.Select(c => c.Character)
            .Where(c => sifter.CanBeSeen(taxon.Taxon, c.Id, day) && c.RatioOf is null && c.TrendOf.Length == 0)
            .ToList();
        while (steps.Count < most)
        {
            string? next;
            if (way == Way.Telling)
                next = list.SiftAndLook(new SiftQuery(sheet, Day: day, Skip: skip, NotOnList: notOnList)).Looks.Now is [var first, ..]
                    ? first.Character
                    : null;
            else
            {
                // By chance, but of what the plant has: nobody looks for fronds on a tree. Who knows that has seen that it is one, and the
                // sheet says so first: a sheet that is silent of it would keep herbs in question that nobody had.
                var open = visible.Where(c => !skip.Contains(c.Id) && described.Any(d => d.Character == c.Id && d.Applies)).ToList();
                next = (open.Find(c => c.Id == "growth-form") ?? (open.Count == 0 ? null : open[random.Next(open.Count)]))?.Id;
            }
            if (next is null)
                break;
            skip.Add(next);
            var character = sifter.Columns.Find(next)!.Character;
            spent += character.EffortSeconds + list.Options.LookSeconds;
            if ((inContexts is null ? plant.Look(character) : inContexts.Look(character)) is { } seen)
                sheet.Add(seen);
            steps.Add(list.Sift(new SiftQuery(sheet, Day: day, NotOnList: notOnList)));
            seconds.Add(spent);
        }
        return steps.Count == 0 ? null : new Trial(taxon.Taxon, steps, seconds);
    }

    /// <summary>What was left for "not on this list" at the end.</summary>
    public double NoneAtTheEnd => Steps[^1].Standing.First(c => c.Taxon == Sifter.NotOnList).Probability;

    public static DateOnly BestDay(Sifter sifter, TaxonDescription taxon) =>
        Enumerable
            .Range(1, SeasonWords.HalfMonths)
            .Select(SeasonWords.Middle)
            .MaxBy(day => taxon.Characters.Count(c => sifter.CanBeSeen(taxon.Taxon, c.Character, day)));
}
