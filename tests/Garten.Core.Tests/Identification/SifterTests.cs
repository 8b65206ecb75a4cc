using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Xunit;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Identification;

/// <summary>Sifting small lists, with the working shown.</summary>
public sealed class SifterTests
{
    private static readonly Character Margin = States("margin", Organ.Leaf, "entire", "toothed");
    private static readonly Character Colour = States("colour", Organ.Flower, "white", "yellow", "blue") with
    {
        SeenIn = [Phenophase.Flower],
    };
    private static readonly Character Fruit = States("fruit", Organ.Fruit, "berry", "capsule") with { SeenIn = [Phenophase.RipeFruit] };
    private static readonly Character Blade = Length("blade");
    private static readonly Character[] All = [Margin, Colour, Fruit, Blade];
    private static readonly DateOnly June = new(2026, 6, 10);

    private static readonly TaxonDescription[] Four =
    [
        Describe("alvena-montis", Is(Margin, "entire"), Is(Colour, "white"), Is(Fruit, "berry"), Measures(Blade, "20–40 mm")),
        Describe("alvena-palus", Is(Margin, "toothed"), Is(Colour, "white"), Is(Fruit, "capsule"), Measures(Blade, "60–90 mm")),
        Describe("brontia-alta", Is(Margin, "entire"), Is(Colour, "yellow"), Is(Fruit, "berry"), Measures(Blade, "30–50 mm")),
        Describe("brontia-lenta", Is(Margin, "toothed"), Is(Colour, "blue"), Is(Fruit, "capsule"), Measures(Blade, "30–50 mm")),
    ];

    private static readonly SiftOptions Closed = new() { NotOnList = 0 };

    private static double P(SiftResult result, string taxon) => result.Standing.Single(c => c.Taxon == taxon).Probability;

    [Fact]
    public void OneLookAtOneStateByHand()
    {
        var result = Sieve(All, Four, options: Closed).Sift(new SiftQuery([See(Margin, "entire")]));
        // Scored right in 0.9; m = 0.95·(2·0.9 + 2·0.1)/4 + 0.05/2 = 0.5; softened 0.99·0.9 + 0.01·0.5 = 0.896 against 0.104: each of two
        // holds 0.896/2.
        Assert.Equal(0.448, P(result, "alvena-montis"), 9);
        Assert.Equal(0.448, P(result, "brontia-alta"), 9);
        Assert.Equal(0.052, P(result, "alvena-palus"), 9);
        Assert.Equal(1, result.Standing.Sum(c => c.Probability), 9);
        var reason = Assert.Single(result.Standing[0].Reasons);
        Assert.Equal(("margin", "entire", "entire", Fit.Fits), (reason.Character, reason.Seen, reason.Described, reason.Fit));
        Assert.Equal(Math.Log(0.896 / 0.5), reason.LogOdds, 9);
    }

    [Fact]
    public void WhatALookTellsIsItsExpectedInformation()
    {
        var (_, looks) = Sieve([Margin], [.. Four], options: Closed).SiftAndLook(new SiftQuery([]));
        // Two of four show each state in 0.896 of the looks: 1 bit less the entropy of (0.896, 0.104).
        var expected = 1 + 0.896 * Math.Log2(0.896) + 0.104 * Math.Log2(0.104);
        var look = Assert.Single(looks.Now);
        Assert.Equal(expected, look.Bits, 6);
        Assert.Equal(["entire", "toothed"], look.Split.Select(s => s.Outcome).Order(StringComparer.Ordinal));
        Assert.All(look.Split, s => Assert.Equal(0.5, s.Share, 6));
        Assert.Equal("entire: alvena montis or brontia alta; toothed: alvena palus or brontia lenta.", look.InWords);
    }

    [Fact]
    public void WhatALookTellsOfAPartOfTheList()
    {
        var (_, looks) = Sieve([Margin], [.. Four], options: Closed)
            .SiftAndLook(new SiftQuery([], Narrowing: new Narrowing(Taxa: ["alvena-montis", "alvena-palus", "brontia-alta"])));
        // Two of three have entire leaves; how often a margin is scored right stays 0.896.
        static double Entropy(double p) => -p * Math.Log2(p) - (1 - p) * Math.Log2(1 - p);
        var entire = (2 * 0.896 + 0.104) / 3;
        Assert.Equal(Entropy(entire) - Entropy(0.896), Assert.Single(looks.Now).Bits, 1e-6);
    }

    [Fact]
    public void OnlyWhatCanBeSeenNowIsProposedAndTheRestIsListedWithItsTime()
    {
        var sifter = Sieve(All, Four);
        var (_, looks) = sifter.SiftAndLook(new SiftQuery([], Day: June, Tools: [], Skip: ["colour"]));
        Assert.Equal(["margin"], looks.Now.Select(l => l.Character));
        var later = looks.Later.ToDictionary(l => l.Character);
        Assert.Equal((WaitReason.Season, "early September to late October"), (later["fruit"].Reason, later["fruit"].When));
        Assert.Equal((WaitReason.Tool, "wants a ruler"), (later["blade"].Reason, later["blade"].InWords));
        // In October there are fruits and no flowers; on this plant the fruits are missing, and the margin can't be told.
        (_, looks) = sifter.SiftAndLook(
            new SiftQuery([], Day: new DateOnly(2026, 10, 5), Missing: [Organ.Fruit], Skip: ["margin", "blade"])
        );
        Assert.Empty(looks.Now);
        Assert.Equal(WaitReason.Missing, looks.Later.Single(l => l.Character == "fruit").Reason);
    }

    [Fact]
    public void WhereThePlaceIsKnownThePlantIsAskedBeforeTheGround()
    {
        var ground = States("ground", Organ.Site, "wet", "dry") with { EffortSeconds = 1 };
        var sieve = Sieve(
            [Margin, ground],
            [.. Four.Select((d, i) => Describe(d.Taxon, d.Characters[0], Is(ground, i < 2 ? "wet" : "dry")))]
        );
        string[] Looks(SiftPlace? place) => [.. sieve.SiftAndLook(new SiftQuery([], Place: place)).Looks.Now.Select(l => l.Character)];
        Assert.Equal(["ground", "margin"], Looks(null));
        Assert.Equal(["ground", "margin"], Looks(new SiftPlace("B2")));
        Assert.Equal(["margin", "ground"], Looks(new SiftPlace("B2", Habitats: ["mire"])));
    }

    [Fact]
    public void WhatIsProtectedIsNotPicked()
    {
        Character[] cut = [Margin, Blade with { Handling = Handling.Cut }];
        var taxa = Four.Select(d => Taxon(d.Taxon)).ToArray();
        var sifter = Sieve(cut, Four, taxa);
        Assert.Contains(sifter.SiftAndLook(new SiftQuery([])).Looks.Now, l => l.Character == "blade");
        taxa[1] = taxa[1] with { Cautions = [Caution.Protected] };
        var (_, looks) = Sieve(cut, Four, taxa).SiftAndLook(new SiftQuery([]));
        Assert.DoesNotContain(looks.Now, l => l.Character == "blade");
        Assert.Equal(WaitReason.Handling, looks.Later.Single(l => l.Character == "blade").Reason);
    }

    [Fact]
    public void TheOrderOfLooksDoesNotMatterAndASupersededOneDoesNotCount()
    {
        var sifter = Sieve(All, Four);
        Observation[] looks = [See(Margin, "toothed"), See(Colour, "blue"), Read(Blade, 41, 44)];
        var one = sifter.Sift(new SiftQuery(looks));
        var other = Sieve(All, Four).Sift(new SiftQuery([.. looks.Reverse()]));
        Assert.All(one.Standing, c => Assert.Equal(c.Probability, P(other, c.Taxon), 12));
        var wrong = See(Margin, "entire");
        var corrected = sifter.Sift(new SiftQuery([wrong, looks[0] with { Supersedes = wrong.Id }, looks[1], looks[2]]));
        Assert.All(one.Standing, c => Assert.Equal(c.Probability, P(corrected, c.Taxon), 12));
    }

    [Fact]
    public void WhatWasAskedBeforeChangesNoAnswer()
    {
        var random = new Random(11);
        var used = Sieve(All, Four);
        for (var step = 0; step < 200; step++)
        {
            // Looks come and go by turns, readings are mended, lists narrowed and opened again.
            var looks = new List<Observation>();
            if (random.Next(3) > 0)
                looks.Add(See(Margin, random.Next(2) == 0 ? "entire" : "toothed"));
            if (random.Next(3) > 0)
                looks.Add(See(Colour, Colour.States[random.Next(3)].Id));
            if (random.Next(3) > 0)
                looks.Add(See(Fruit, Fruit.States[random.Next(2)].Id));
            if (random.Next(3) > 0)
                looks.Add(Read(Blade, 20 + random.Next(8) * 10));
            var query = new SiftQuery(looks, Narrowing: random.Next(4) == 0 ? new Narrowing(Genera: ["Alvena", "alvena"]) : null);
            var (expected, none) = Sieve(All, Four).Ranked(query);
            var (actual, noneNow) = used.Ranked(query);
            for (var t = 0; t < expected.Count; t++)
                Assert.Equal(expected[t], actual[t], 9);
            Assert.Equal(none, noneNow, 9);
        }
    }

    [Fact]
    public void ReasonsStandWithTheLikeliestAndWithThoseTheyAreAskedOf()
    {
        var sieve = Sieve(All, Four);
        var looks = new[] { See(Margin, "entire"), See(Colour, "white") };
        var all = sieve.Sift(new SiftQuery(looks));
        Assert.All(all.Standing.Where(c => c.Taxon != Sifter.NotOnList), c => Assert.Equal(2, c.Reasons.Count));
        var few = sieve.Sift(new SiftQuery(looks, Why: ["brontia-lenta"]));
        Assert.Equal(["alvena-montis", "brontia-lenta"], few.Standing.Where(c => c.Reasons.Count > 0).Select(c => c.Taxon));
        Assert.Equal(
            all.Standing.Select(c => (c.Taxon, c.Probability, c.Conflicts, c.Described)),
            few.Standing.Select(c => (c.Taxon, c.Probability, c.Conflicts, c.Described))
        );
        Assert.Equal(
            all.Standing.Single(c => c.Taxon == "brontia-lenta").Reasons,
            few.Standing.Single(c => c.Taxon == "brontia-lenta").Reasons
        );
    }

    [Fact]
    public void SeenStrictlyAllThatFitsIsNamedHoweverUnlikely()
    {
        // A hundred taxa that a look makes likely, though another one conflicts with them; one is described in nothing but fits.
        var sieve = Sieve(
            [Margin, Colour, Blade],
            [
                .. Enumerable
                    .Range(0, 100)
                    .Select(i => Describe($"alvena-{i}", Is(Margin, "entire"), Is(Colour, "white"), Measures(Blade, "60–90 mm"))),
                Describe("brontia-alta", Is(Margin, "toothed")),
            ]
        );
        var looks = new[] { See(Margin, "toothed"), See(Colour, "white"), Read(Blade, 5) };
        var strict = sieve.Sift(new SiftQuery(looks, Tolerance: 0));
        Assert.Equal(["brontia-alta", Sifter.NotOnList], strict.Standing.Select(c => c.Taxon));
        Assert.Equal(looks.Length, strict.Standing[0].Reasons.Count);
        Assert.Equal(sieve.Sift(new SiftQuery(looks)).Call, strict.Call);
        Assert.Equal(1 - strict.Standing.Sum(c => c.Probability), strict.LeastProbable, 9);
    }

    [Fact]
    public void TheSameMeanOfOtherReadingsIsWordedAsItWasMeasured()
    {
        var sieve = Sieve(All, Four);
        string Seen(params double[] values) => Assert.Single(sieve.Sift(new SiftQuery([Read(Blade, values)])).Standing[0].Reasons).Seen;
        Assert.Equal("4 cm (mean of 2, 3.8 cm to 4.2 cm)", Seen(38, 42));
        Assert.Equal("4 cm (mean of 2, 3 cm to 5 cm)", Seen(30, 50));
    }

    [Fact]
    public void AListOnWhichEverythingConflictsSaysSo()
    {
        var result = Sieve(All, Four[..1])
            .Sift(new SiftQuery([See(Margin, "toothed"), See(Colour, "blue"), See(Fruit, "capsule"), Read(Blade, 200)]));
        Assert.Equal((RankingCall.NoneFits, 1, "none of the list fits"), (result.Call, result.Leaders, result.InWords));
        Assert.Equal(Sifter.NotOnList, result.Standing[0].Taxon);
        Assert.True(P(result, Sifter.NotOnList) > 0.9);
        Assert.Equal(4, result.Standing.Single(c => c.Taxon == "alvena-montis").Conflicts);
    }

    [Fact]
    public void AListOfOneStandsWithItsDoubt()
    {
        var result = Sieve(All, Four[..1]).Sift(new SiftQuery([]));
        Assert.Equal((1, RankingCall.Nothing), (result.Listed, result.Call));
        // One plant in seven isn't on a list, raised by a fifth: a stranger is taken for a listed plant more easily than the other way.
        Assert.Equal(0.82, P(result, "alvena-montis"), 9);
        Assert.Equal(0.18, P(result, Sifter.NotOnList), 9);
    }

    [Fact]
    public void WhatIsDescribedAlikeIsSaidToBe()
    {
        TaxonDescription[] twins = [.. Four, Describe("alvena-gemina", [.. Four[0].Characters])];
        var result = Sieve(All, twins).Sift(new SiftQuery([See(Margin, "entire"), See(Colour, "white")]));
        Assert.Equal(["alvena-montis", "alvena-gemina"], Assert.Single(result.Alike));
        Assert.Equal((RankingCall.OneOf, 2, "one of two"), (result.Call, result.Leaders, result.InWords));
        Assert.Equal(P(result, "alvena-montis"), P(result, "alvena-gemina"), 12);
    }

    [Fact]
    public void LooksThatContradictEachOtherLeaveItOpen()
    {
        var sifter = Sieve(All, Four, options: Closed);
        // Entire and toothed in two places of the plant: each look counts by half of one look, and neither side gains.
        var result = sifter.Sift(new SiftQuery([See(Margin, "entire"), See(Margin, "toothed")]));
        Assert.Equal(P(result, "alvena-montis"), P(result, "alvena-palus"), 9);
        Assert.Equal("one of four", result.InWords);
    }

    [Fact]
    public void ACharacterThatIsUnknownForMostCountsForThoseThatAreDescribed()
    {
        TaxonDescription[] few =
        [
            Four[0],
            .. Four[1..].Select(d => d with { Characters = [.. d.Characters.Where(c => c.Character != "fruit")] }),
        ];
        var result = Sieve(All, few).Sift(new SiftQuery([See(Fruit, "capsule")]));
        // It speaks against the one that is described with berries, and is silent on the others.
        var against = result.Standing.Single(c => c.Taxon == "alvena-montis");
        Assert.Equal((1, 1), (against.Conflicts, against.Described));
        Assert.All(result.Standing.Where(c => c.Taxon is not ("alvena-montis" or Sifter.NotOnList)), c =>
            Assert.Equal((0, 0), (c.Conflicts, c.Described))
        );
        Assert.True(against.Probability < P(result, "alvena-palus"));
    }

    [Fact]
    public void ANarrowedListHoldsOnlyWhatItIsNarrowedTo()
    {
        Taxon[] taxa =
        [
            Taxon("alvena-montis", TaxonFacts.None with { GrowthForm = "herb", Cells = ["B2"] }),
            Taxon("alvena-palus"),
            Taxon("brontia-alta", family: "Brontiaceae"),
            Taxon("brontia-lenta", family: "Brontiaceae"),
        ];
        var sifter = Sieve(All, Four, taxa);
        string[] On(Narrowing narrowing, SiftPlace? place = null) =>
            [
                .. sifter
                    .Sift(new SiftQuery([], Place: place, Narrowing: narrowing))
                    .Standing.Select(c => c.Taxon)
                    .Where(t => t != Sifter.NotOnList)
                    .Order(StringComparer.Ordinal),
            ];
        Assert.Equal(["brontia-alta", "brontia-lenta"], On(new(Families: ["Brontiaceae"])));
        Assert.Equal(["alvena-montis", "alvena-palus"], On(new(Genera: ["alvena"])));
        Assert.Equal(["alvena-montis"], On(new(GrowthForms: ["Herb"])));
        Assert.Equal(["alvena-montis"], On(new(RecordedHere: true), new SiftPlace("b2")));
        var empty = sifter.Sift(new SiftQuery([], Narrowing: new(Families: ["Nullaceae"])));
        Assert.Equal((0, RankingCall.NoneFits, "the list is empty"), (empty.Listed, empty.Call, empty.InWords));
    }

    [Fact]
    public void PlausibilityByPlaceHabitatElevationAndSeason()
    {
        var facts = TaxonFacts.None with
        {
            Cells = ["B2"],
            Habitats = ["heath"],
            ElevationFrom = 100,
            ElevationTo = 300,
            Phenology = [new PhaseSpan(Phenophase.Flower, 9, 12)],
        };
        var taxon = Taxon("alvena-montis", facts);
        double Weight(SiftPlace? place, DateOnly? day = null, params Phenophase[] shown) =>
            Plausibility.Of(taxon, place, day, [shown]).Weight;
        Assert.Equal(1, Weight(new SiftPlace("B2", 200, ["heath"])), 12);
        Assert.Equal(0.5, Weight(new SiftPlace("C3")), 12);
        Assert.Equal(0.15, Weight(new SiftPlace("E5")), 12);
        Assert.Equal(0.3, Weight(new SiftPlace("B2", null, ["meadow"])), 12);
        // 200 m above its range: two halvings; in flower in October: a fifth.
        Assert.Equal(0.25, Weight(new SiftPlace("B2", 500)), 12);
        Assert.Equal(0.2, Weight(null, new DateOnly(2026, 10, 1), Phenophase.Flower), 12);
        // All together never under a hundredth.
        Assert.Equal(0.01, Weight(new SiftPlace("E5", 1200, ["meadow"]), new DateOnly(2026, 10, 1), Phenophase.Flower), 12);
        var sifter = Sieve(All, Four, [taxon, .. Four[1..].Select(d => Taxon(d.Taxon))]);
        var result = sifter.Sift(new SiftQuery([See(Margin, "entire")], Plausible: true, Place: new SiftPlace("E5")));
        var rare = result.Standing.Single(c => c.Taxon == "alvena-montis");
        Assert.True(rare.Probability < rare.Other);
        Assert.Contains("a square may be unvisited", Assert.Single(rare.Prior), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("B2", "C3", true)]
    [InlineData("B2", "B2", true)]
    [InlineData("B2", "D2", false)]
    [InlineData("B2", "hill", false)]
    public void CellsAreNeighboursAcrossCornersToo(string first, string second, bool are) =>
        Assert.Equal(are, first == second || Plausibility.AreNeighbours(first, second));

    [Theory]
    [InlineData(9, 12, 1, "early May to late June")]
    [InlineData(23, 2, 20, "early December to late January")]
    [InlineData(5, 5, 6, "early March")]
    public void TimesOfTheYearInWords(int from, int to, int at, string words)
    {
        var marked = Enumerable
            .Range(1, SeasonWords.HalfMonths)
            .Select(h => from <= to ? h >= from && h <= to : h >= from || h <= to)
            .ToArray();
        Assert.Equal(words, SeasonWords.NextStretch(marked, at));
        Assert.Equal(
            ("never", "all year"),
            (SeasonWords.NextStretch(new bool[24], at), SeasonWords.NextStretch([.. Enumerable.Repeat(true, 24)], at))
        );
    }
}
