using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>Sifting the demo's flora: how few looks name a plant, and what becomes of one that isn't on the list.</summary>
public sealed class SiftTests(ITestOutputHelper output)
{
    private static readonly Sifter Sifter = TorvaneFlora.MakeReady().Sifter;

    private static IEnumerable<TaxonDescription> Species =>
        TorvaneFlora.Shelf.Descriptions.Where(d => TorvaneFlora.Taxa.Single(t => t.Id == d.Taxon).Rank is "species" or "hybrid");

    /// <summary>Follows the first telling look each time, until a name is far ahead or nothing more can be asked.</summary>
    private static List<(SiftResult Result, string Look)> Follow(
        Sifter sifter,
        SimulatedPlant plant,
        DateOnly day,
        int most,
        Func<SiftResult, bool> isEnough
    )
    {
        var sheet = new List<Observation>();
        var steps = new List<(SiftResult, string)>();
        var skip = new List<string>();
        for (var n = 0; n < most; )
        {
            var (result, looks) = sifter.SiftAndLook(new SiftQuery(sheet, Day: day, Skip: skip));
            if (looks.Now.Count == 0 || isEnough(result))
                return steps;
            var character = sifter.Columns.Find(looks.Now[0].Character)!.Character;
            n++;
            if (plant.Look(character) is { } seen)
                sheet.Add(seen);
            else
                skip.Add(character.Id);
            steps.Add((sifter.Sift(new SiftQuery(sheet, Day: day)), character.Id));
        }
        return steps;
    }

    // The day on which most of what is described of a taxon can be seen.
    private static DateOnly BestDay(TaxonDescription taxon) =>
        Enumerable
            .Range(1, SeasonWords.HalfMonths)
            .Select(SeasonWords.Middle)
            .MaxBy(day => taxon.Characters.Count(c => Sifter.CanBeSeen(taxon.Taxon, c.Character, day)));

    [Fact]
    public void FromNothingTheRightNameStandsFirstInAMedianOfSixLooks()
    {
        var needed = new List<int>();
        foreach (var taxon in Species)
        {
            for (var seed = 0; seed < 5; seed++)
            {
                var steps = Follow(Sifter, new SimulatedPlant(taxon.Characters, new Random(seed)), BestDay(taxon), 15, _ => false);
                bool IsFirst(SiftResult r) =>
                    r.Standing.Where(c => c.Taxon != Sifter.NotOnList).First().Taxon == taxon.Taxon && r.Standing[0].Taxon == taxon.Taxon;
                var at = steps.FindIndex(s => IsFirst(s.Result));
                // First for good: not only for a moment.
                var stays = steps.FindLastIndex(s => !IsFirst(s.Result)) + 1;
                needed.Add(at < 0 ? 99 : at + 1);
                if (seed == 0)
                    output.WriteLine(
                        $"{taxon.Taxon} {BestDay(taxon):MM-dd}: first at {at + 1}, stays from {stays + 1}; {string.Join(", ", steps.Take(8).Select(s => s.Look))}; last {steps[^1].Result.Standing[0].Taxon} {steps[^1].Result.Standing[0].Probability:0.00}"
                    );
            }
        }
        needed.Sort();
        output.WriteLine(
            $"median {needed[needed.Count / 2]}, 90 % {needed[needed.Count * 9 / 10]}, never {needed.Count(n => n == 99)} of {needed.Count}"
        );
        Assert.True(needed[needed.Count / 2] <= 6);
    }

    [Fact]
    public void APlantTakenOffTheListIsCalledSoOrLeftOpen()
    {
        int open = 0,
            all = 0;
        foreach (var taxon in Species)
        {
            var rest = TorvaneFlora
                .Shelf.Descriptions.Where(d =>
                    d.Taxon != taxon.Taxon && TorvaneFlora.Taxa.Single(t => t.Id == d.Taxon).Parent != taxon.Taxon
                )
                .ToList();
            var sifter = new Sifter(FloraColumns.Of(TorvaneFlora.Table.Characters, rest), TorvaneFlora.Taxa, TorvaneFlora.Table.Seasons);
            var steps = Follow(sifter, new SimulatedPlant(taxon.Characters, new Random(1)), BestDay(taxon), 12, _ => false);
            var last = steps[^1].Result.Standing[0];
            var ok = last.Taxon == Sifter.NotOnList || last.Probability < 0.95;
            all++;
            if (ok)
                open++;
            output.WriteLine($"{taxon.Taxon}: {last.Taxon} {last.Probability:0.000} conflicts {last.Conflicts} {(ok ? "" : "WRONG")}");
        }
        output.WriteLine($"{open} of {all}");
        Assert.True(open >= 0.8 * all);
    }

    /// <summary>Pairs that declare each other, with the character by which the taxon page says they differ.</summary>
    public static TheoryData<string, string> DeclaredPairs =>
        [
            .. TorvaneFlora.Taxa.SelectMany(t =>
                t.Facts?.LookAlikes.Where(o => string.CompareOrdinal(t.Id, o) < 0).Select(o => (t.Id, o)) ?? []
            ),
        ];

    [Theory]
    [MemberData(nameof(DeclaredPairs))]
    public void AContrastOfADeclaredPairShowsItsKeyDifferenceInTheFirstTwoRows(string first, string second)
    {
        var day = new DateOnly(2026, 6, 15);
        var result = Contrast.Of(Sifter, new ContrastQuery([first, second], [], day, []));
        var page = Book.Page(first, TorvaneFlora.Shelf.Keys, day)!.LookAlikes.Single(l => l.Taxon.Id == second);
        Assert.Contains(page.Character, result.Rows.Take(2).Select(r => r.Character));
        Assert.True(result.Rows[0].Best >= Contrast.Mostly);
    }

    private static readonly FloraBook Book = new(new Flora("torvane", "Torvane", TorvaneFlora.Taxa, TorvaneFlora.Table));

    // Looks at plants of any taxon, with a wrong one among three.
    private static List<Observation> Sheet(int seed)
    {
        var random = new Random(seed);
        var taxon = TorvaneFlora.Shelf.Descriptions[random.Next(TorvaneFlora.Shelf.Descriptions.Count)];
        var plant = new SimulatedPlant(taxon.Characters, random, 0.3);
        return
        [
            .. taxon
                .Characters.OrderBy(_ => random.Next())
                .Take(random.Next(1, 12))
                .Select(c => plant.Look(TorvaneFlora.Table.Find(c.Character)!))
                .OfType<Observation>()
                .Select(o => o with { Id = Guid.NewGuid() }),
        ];
    }

    [Fact]
    public void SiftingByColumnsWeighsAsTheSheetDoesTaxonByTaxon()
    {
        for (var seed = 0; seed < 60; seed++)
        {
            var sheet = Sheet(seed);
            var result = Sifter.Sift(new SiftQuery(sheet));
            var items = EvidenceItem.Pool(sheet, TorvaneFlora.Table, EvidenceOptions.Default);
            var weighed = new WeighedSheet(items, TorvaneFlora.Shelf.Likelihood);
            var first = result.Standing.First(c => c.Taxon != Sifter.NotOnList);
            foreach (var candidate in result.Standing.Where(c => c.Taxon != Sifter.NotOnList && c.Probability > 1e-12))
            {
                var expected = weighed.Weigh(candidate.Taxon);
                Assert.Equal(
                    weighed.Weigh(first.Taxon).LogLikelihood - expected.LogLikelihood,
                    Math.Log(first.Probability / candidate.Probability),
                    9
                );
                Assert.Equal(expected.Conflicts, candidate.Conflicts);
                foreach (var reason in candidate.Reasons)
                    Assert.Contains(expected.Items, i =>
                        i.Character == reason.Character && Math.Abs(i.LogRatio - reason.LogOdds) < 1e-9 && i.Fit == reason.Fit
                    );
            }
        }
    }

    [Fact]
    public void TheBinaryFormHoldsTheWholeFlora()
    {
        var pack = TorvaneFlora.MakeReady().Pack;
        Assert.Equal(JsonSerializer.Serialize(TorvaneFlora.Taxa), JsonSerializer.Serialize(pack.Taxa));
        Assert.Equal(
            // Definitions are read beside the pack.
            JsonSerializer.Serialize(
                TorvaneFlora.Table.Characters.Select(c =>
                    c with
                    {
                        Definition = "",
                        Trap = "",
                        States = [.. c.States.Select(s => s with { Definition = "" })],
                    }
                )
            ),
            JsonSerializer.Serialize(pack.Columns.Columns.Select(c => c.Character))
        );
        foreach (var described in CharacterTable.Complete(TorvaneFlora.Table.Descriptions, TorvaneFlora.Taxa))
        {
            // All but how a range was typed.
            foreach (var cell in described.Characters)
            {
                var plain = cell with
                {
                    Misread = cell.Misread is { Count: > 0 } ? cell.Misread : null,
                    Range = cell.Range is { } r ? r with { Text = "" } : null,
                    Shade = cell.Shade is { } s ? s with { Text = "" } : null,
                    Contexts = cell.Contexts is { } contexts
                        ? [.. contexts.Select(c => c with { Range = c.Range is { } own ? own with { Text = "" } : null })]
                        : null,
                };
                Assert.Equal(
                    JsonSerializer.Serialize(plain),
                    JsonSerializer.Serialize(pack.Columns.Describe(described.Taxon, cell.Character))
                );
            }
        }
    }

    [Fact]
    public void ABrokenPackIsRefusedWhereverItIsBroken()
    {
        var whole = ReadyFlora.Write(new Flora("torvane", "Torvane", TorvaneFlora.Taxa, TorvaneFlora.Table));
        var random = new Random(11);
        Assert.Throws<PackFormatException>(() => ReadyFlora.Read([]));
        Assert.Throws<PackFormatException>(() => ReadyFlora.Read("GPK1 but nothing else"u8.ToArray()));
        for (var i = 0; i < 200; i++)
            Assert.Throws<PackFormatException>(() => ReadyFlora.Read(whole[..random.Next(whole.Length)]));
        for (var i = 0; i < 200; i++)
        {
            var bent = whole.ToArray();
            for (var n = 0; n < 8; n++)
                bent[random.Next(bent.Length)] ^= (byte)random.Next(1, 256);
            // Bytes that are read as others are not noticed; what can't be read is said to be no pack.
            if (Record.Exception(() => ReadyFlora.Read(bent)) is { } error)
                Assert.True(error is PackFormatException, error.ToString());
        }
    }
}
