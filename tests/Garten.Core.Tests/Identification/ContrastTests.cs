using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Xunit;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Identification;

/// <summary>What separates a few taxa, and what gives one away on a list.</summary>
public sealed class ContrastTests
{
    private static readonly Character Bracts = States("bracts", Organ.Inflorescence, "short", "overtopping") with
    {
        SeenIn = [Phenophase.Flower],
    };
    private static readonly Character Sap = States("sap", Organ.Stem, "clear", "milky");
    private static readonly Character Smell = States("smell", Organ.Leaf, "none", "sharp");
    private static readonly Character Ground = States("ground", Organ.Site, "dry", "wet");
    private static readonly Character Blade = Length("blade");
    private static readonly Character[] All = [Bracts, Sap, Smell, Ground, Blade];
    private static readonly DateOnly June = new(2026, 6, 10);
    private static readonly DateOnly January = new(2026, 1, 10);

    private static readonly TaxonDescription[] Three =
    [
        Describe(
            "alvena-montis",
            Is(Bracts, "short"),
            Is(Sap, "clear"),
            Is(Smell, ("none", 0.6), ("sharp", 0.4)),
            Is(Ground, "dry"),
            Measures(Blade, "20–40 mm")
        ),
        Describe(
            "alvena-palus",
            Is(Bracts, "overtopping"),
            Is(Sap, "clear"),
            Is(Smell, "none"),
            Is(Ground, "wet"),
            Measures(Blade, "25–45 mm")
        ),
        Describe(
            "alvena-lenta",
            Is(Bracts, "overtopping"),
            Is(Sap, "milky"),
            Is(Smell, "none"),
            Is(Ground, "wet"),
            Measures(Blade, "200–400 mm")
        ),
    ];

    private static readonly string[] Ids = [.. Three.Select(d => d.Taxon)];

    private static ContrastResult Compare(IReadOnlyList<string> taxa, DateOnly? day = null, params Observation[] seen) =>
        Contrast.Of(Sieve(All, Three), new ContrastQuery(taxa, seen, day, []));

    [Fact]
    public void OnlyRowsThatSeparateOrderedAndGrouped()
    {
        var result = Compare(Ids, June);
        // The bracts part 1 from 2 and 3, the sap 3 from 1 and 2, the blade the same with more effort; the ground comes last, the smell
        // separates nobody.
        Assert.Equal(["bracts", "sap", "blade", "ground"], result.Rows.Select(r => r.Character));
        Assert.All(result.Rows.Take(3), r => Assert.Equal((2, 2), (r.CleanPairs, r.MostlyPairs)));
        Assert.All(result.Rows, r => Assert.Equal(RowGroup.Now, r.Group));
        Assert.Equal(["bracts", "sap"], result.Smallest.Characters);
        Assert.True(result.Smallest.IsOptimal);
        Assert.Equal(["bracts", "bracts", "sap"], result.Pairs.Select(p => p.Character));
        Assert.Equal("sap: clear, or milky", result.Pairs[2].Text);
    }

    [Fact]
    public void WhatCannotBeSeenTodayIsComeBackForWithItsTime()
    {
        var result = Compare(Ids, January);
        var bracts = result.Rows.Single(r => r.Character == "bracts");
        Assert.Equal((RowGroup.Later, "early April to late August"), (bracts.Group, bracts.When));
        // Today 1 and 2 are told apart by nothing of the plant itself, 3 by its sap.
        Assert.Equal(("bracts", false), (result.Pairs[0].Character, result.Pairs[0].CanBeSeen));
        Assert.Equal(("sap", true), (result.Pairs[2].Character, result.Pairs[2].CanBeSeen));
        Assert.DoesNotContain("bracts", result.SmallestNow.Characters);
    }

    [Fact]
    public void WhatWasSeenSpeaksForThoseItFits()
    {
        var result = Compare(Ids, June, See(Bracts, "overtopping"), See(Sap, "clear"));
        var rows = result.Rows.ToDictionary(r => r.Character);
        Assert.Equal(RowGroup.Seen, rows["bracts"].Group);
        Assert.Equal("overtopping", rows["bracts"].Seen);
        Assert.Equal(["alvena-palus", "alvena-lenta"], rows["bracts"].SpeaksFor);
        Assert.Equal(["alvena-montis", "alvena-palus"], rows["sap"].SpeaksFor);
    }

    [Fact]
    public void PlantsSeenBeforeStandInTheirColumns()
    {
        var result = Contrast.Of(
            Sieve(All, Three),
            new ContrastQuery(
                Ids,
                [],
                June,
                [
                    [See(Sap, "milky")],
                    [],
                ]
            )
        );
        Assert.Equal(["milky", ""], result.Rows.Single(r => r.Character == "sap").Plants);
    }

    [Fact]
    public void SeveralAtOnceSeparateAsTwoByTwo()
    {
        var likelihood = new Likelihood([]);
        CharacterDescription[] cells =
        [
            Measures(Blade, "20–40 mm"),
            Measures(Blade, "25–45 mm"),
            Measures(Blade, "(180–)200–400 mm"),
            Measures(Blade, "up to 30 mm"),
            Lacks(Blade),
        ];
        var pairs = Enumerable
            .Range(0, cells.Length)
            .SelectMany(i => Enumerable.Range(i + 1, cells.Length - i - 1).Select(j => (i, j)))
            .ToArray();
        var together = Separation.OfPairs(Blade, cells, pairs, likelihood);
        for (var p = 0; p < pairs.Length; p++)
            Assert.Equal(Separation.Of(Blade, cells[pairs[p].i], cells[pairs[p].j], likelihood), together[p], 0.005);
        // Two normals of the same spread s whose means lie d apart overlap in 2·Φ(−d/2s); here on the logarithm, bounds at ±1.2816: s = ln
        // 2/2.5631, d = ln(1.25)/2 + ln(1.125)/2.
        var first = Separation.Of(Blade, Measures(Blade, "20–40 mm"), Measures(Blade, "25–50 mm"), likelihood);
        Assert.Equal(1 - 2 * Normal.Below(-Math.Log(1.25) / 2 / (Math.Log(2) / 2.5631)), first, 3);
        // The part exists in one of them only; alike in neither.
        Assert.Equal(1, Separation.Of(Blade, cells[0], cells[4], likelihood));
        Assert.Equal(0, Separation.Of(Blade, cells[4], cells[4], likelihood));
    }

    [Fact]
    public void WhatCannotBeCompared()
    {
        var sifter = Sieve(All, Three);
        Assert.Equal("2 to 8 taxa can be compared; these are 1.", Contrast.Problem(sifter, Ids[..1]));
        Assert.Equal("A taxon is given twice.", Contrast.Problem(sifter, [Ids[0], Ids[0]]));
        Assert.Equal("The flora doesn’t describe “nobody”.", Contrast.Problem(sifter, [Ids[0], "nobody"]));
        Assert.Throws<ArgumentException>(() => Compare([Ids[0]]));
    }

    [Fact]
    public void TwoThatAreDescribedAlikeHaveNoRow()
    {
        TaxonDescription[] twins = [Three[0], Three[0] with { Taxon = "alvena-gemina" }];
        var result = Contrast.Of(Sieve(All, twins), new ContrastQuery(["alvena-montis", "alvena-gemina"], [], June, []));
        Assert.Empty(result.Rows);
        Assert.Equal(("", 0d), (result.Pairs[0].Character, result.Pairs[0].Separation));
        Assert.Equal(1, result.Smallest.Unseparated);
    }

    [Fact]
    public void WhatItIsTakenForIsDeclaredOrNearest()
    {
        Taxon[] taxa =
        [
            Taxon("alvena-montis"),
            Taxon("alvena-palus"),
            Taxon("alvena-lenta", TaxonFacts.None with { LookAlikes = ["alvena-montis"] }),
        ];
        // The nearest by description is the second; the third declares the first, so it comes before.
        Assert.Equal(["alvena-lenta", "alvena-palus"], Contrast.Near(Sieve(All, Three, taxa), "alvena-montis", 7));
        Assert.Equal(["alvena-palus", "alvena-lenta"], Contrast.Near(Sieve(All, Three), "alvena-montis", 7));
        Assert.Empty(Contrast.Near(Sieve(All, Three), "nobody", 7));
    }

    [Fact]
    public void AGiveawayIsAloneOnItsListAndOnNoOther()
    {
        var columns = FloraColumns.Of(All, Three);
        Assert.Equal(
            [("alvena-montis", "bracts", "short"), ("alvena-lenta", "sap", "milky")],
            Giveaways.Of(columns, [true, true, true]).Select(g => (g.Taxon, g.Character, g.State))
        );
        // Without the third, the second one's bracts are its own, and nothing is of the sap.
        Assert.Equal(["bracts: short", "bracts: overtopping"], Giveaways.Of(columns, [true, true, false]).Select(g => g.Text));
        Assert.Empty(Giveaways.Of(columns, [true, false, false]));
    }

    [Fact]
    public void WhatIsUnknownOfOneOfThemGivesNothingAwayButAMissingPartDoes()
    {
        TaxonDescription[] unknown = [.. Three, Describe("brontia-alta", Is(Sap, "clear"))];
        Assert.DoesNotContain(Giveaways.Of(FloraColumns.Of(All, unknown), [true, true, true, true]), g => g.Character == "bracts");
        TaxonDescription[] without = [.. Three, Describe("brontia-alta", Is(Sap, "clear"), Lacks(Bracts))];
        Assert.Contains(Giveaways.Of(FloraColumns.Of(All, without), [true, true, true, true]), g => g.Text == "bracts: short");
        // Nor is it anything to lack what the others lack as a part.
        var awn = States("awn", Organ.Inflorescence, "none", "straight");
        TaxonDescription[] grasses = [Describe("a", Is(awn, "none")), Describe("b", Is(awn, "straight")), Describe("c", Lacks(awn))];
        Assert.Equal(["awn: straight"], Giveaways.Of(FloraColumns.Of([awn], grasses), [true, true, true]).Select(g => g.Text));
    }
}
