using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>Sifting the demo's flora: how few looks name a plant, and what becomes of one that isn't on the list.</summary>
public sealed class SiftTests(ITestOutputHelper output)
{
    private static readonly Sifter Sifter = TorvaneFlora.Ready.Sifter;

    private static IEnumerable<TaxonDescription> Species => TorvaneFlora.Shelf.Descriptions.Where(d => TorvaneFlora.Taxa.Single(t => t.Id == d.Taxon).Rank is "species" or "hybrid");

    /// <summary>Follows the first telling look each time, until a name is far ahead or nothing more can be asked.</summary>
    private static List<(SiftResult Result, string Look)> Follow(Sifter sifter, Specimen plant, DateOnly day, int most, Func<SiftResult, bool> isEnough)
    {
        var sheet = new List<Observation>();
        var steps = new List<(SiftResult, string)>();
        var skip = new List<string>();
        for (var n = 0; n < most;)
        {
            var (result, looks) = sifter.SiftAndLook(new SiftQuery(sheet, Day: day, Skip: skip));
            if (looks.Now.Count == 0 || isEnough(result)) return steps;
            var character = sifter.Columns.Find(looks.Now[0].Character)!.Character;
            n++;
            if (plant.Look(character) is { } seen) sheet.Add(seen);
            else skip.Add(character.Id);
            steps.Add((sifter.Sift(new SiftQuery(sheet, Day: day)), character.Id));
        }
        return steps;
    }

    // The day on which most of what is described of a taxon can be seen.
    private static DateOnly BestDay(TaxonDescription taxon) =>
        Enumerable.Range(1, SeasonWords.HalfMonths).Select(SeasonWords.Middle).MaxBy(day => taxon.Characters.Count(c => Sifter.CanBeSeen(taxon.Taxon, c.Character, day)));

    [Fact]
    public void FromNothingTheRightNameStandsFirstInAMedianOfSixLooks()
    {
        var needed = new List<int>();
        foreach (var taxon in Species)
        {
            for (var seed = 0; seed < 5; seed++)
            {
                var steps = Follow(Sifter, new Specimen(taxon.Characters, new Random(seed)), BestDay(taxon), 15, _ => false);
                bool IsFirst(SiftResult r) => r.Standing.Where(c => c.Taxon != Sifter.NotOnList).First().Taxon == taxon.Taxon && r.Standing[0].Taxon == taxon.Taxon;
                var at = steps.FindIndex(s => IsFirst(s.Result));
                // First for good: not only for a moment.
                var stays = steps.FindLastIndex(s => !IsFirst(s.Result)) + 1;
                needed.Add(at < 0 ? 99 : at + 1);
                if (seed == 0) output.WriteLine($"{taxon.Taxon} {BestDay(taxon):MM-dd}: first at {at + 1}, stays from {stays + 1}; {string.Join(", ", steps.Take(8).Select(s => s.Look))}; last {steps[^1].Result.Standing[0].Taxon} {steps[^1].Result.Standing[0].Probability:0.00}");
            }
        }
        needed.Sort();
        output.WriteLine($"median {needed[needed.Count / 2]}, 90 % {needed[needed.Count * 9 / 10]}, never {needed.Count(n => n == 99)} of {needed.Count}");
        Assert.True(needed[needed.Count / 2] <= 6);
    }

    [Fact]
    public void APlantTakenOffTheListIsCalledSoOrLeftOpen()
    {
        int open = 0, all = 0;
        foreach (var taxon in Species)
        {
            var rest = TorvaneFlora.Shelf.Descriptions.Where(d => d.Taxon != taxon.Taxon && TorvaneFlora.Taxa.Single(t => t.Id == d.Taxon).Parent != taxon.Taxon).ToList();
            var sifter = new Sifter(FloraColumns.Of(TorvaneFlora.Table.Characters, rest), TorvaneFlora.Taxa, TorvaneFlora.Table.Seasons);
            var steps = Follow(sifter, new Specimen(taxon.Characters, new Random(1)), BestDay(taxon), 12, _ => false);
            var last = steps[^1].Result.Standing[0];
            var ok = last.Taxon == Sifter.NotOnList || last.Probability < 0.95;
            all++;
            if (ok) open++;
            output.WriteLine($"{taxon.Taxon}: {last.Taxon} {last.Probability:0.000} conflicts {last.Conflicts} {(ok ? "" : "WRONG")}");
        }
        output.WriteLine($"{open} of {all}");
        Assert.True(open >= 0.8 * all);
    }
}
