using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Xunit;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Evidence;

/// <summary>Looks of other ages, places, sexes and materials: each rule with a plant that would be misjudged without it.</summary>
public sealed class ContextTests
{
    private static readonly Character Hairs = States("leaf-hairs", Organ.Leaf, "hairless", "sparse", "dense") with { SeenIn = [] };
    private static readonly Character Colour = States("petal-colour", Organ.Flower, "white", "red") with { SeenIn = [] };
    private static readonly Character Sexes = States("sexuality", Organ.Flower, "bisexual", "monoecious", "dioecious") with { SeenIn = [] };
    private static readonly Character Berry = Length("fruit-length", Organ.Fruit);
    private static readonly Character Blade = Length("leaf-length", Organ.Leaf);
    private static readonly Character Hair = States("hair-kind", Organ.Leaf, "simple", "forked", "starry") with { SeenIn = [] };
    private static readonly Character Life = States("life-span", Organ.Habit, "annual", "biennial", "perennial") with { SeenIn = [] };

    private static Character Length(string id, Organ organ) =>
        new(id, id, organ, CharacterKind.Length, [], [id], [], 0.9, 0.9, 20, Tool.Ruler, Handling.Look, [], null, "", organ.ToString());

    private static readonly SiftOptions Closed = SiftOptions.Default with { NotOnList = 1e-9 };

    private static CharacterDescription Cell(Character character, string text)
    {
        var cell = DescriptionCell.Read(text, character, out var problem);
        Assert.Null(problem);
        return cell!;
    }

    private static double Odds(Character[] characters, (string Cells, string Other)[] cells, params Observation[] looks)
    {
        var sieve = Sieve(
            characters,
            [
                Describe("first-one", [.. characters.Select((c, i) => Cell(c, cells[i].Cells))]),
                Describe("second-one", [.. characters.Select((c, i) => Cell(c, cells[i].Other))]),
                Describe("third-one", [.. characters.Select((c, i) => Cell(c, cells[i].Other))]),
            ],
            options: Closed
        );
        var ranked = sieve.Ranked(new SiftQuery(looks)).Probability;
        return ranked[0] / ranked[1];
    }

    private static Observation When(Observation look, ObservationContext context) => look with { Context = context };

    private static readonly ObservationContext Young = new(Age: PartAge.Young);
    private static readonly ObservationContext Old = new(Age: PartAge.Old);

    [Fact]
    public void YoungHairyAndOldBaldAreOnePlant()
    {
        (string, string)[] cells = [("hairless @young dense", "hairless")];
        // Who sheds its hairs is found by both looks together; a taxon that is always bald is in doubt.
        var shed = Odds([Hairs], cells, When(See(Hairs, "dense"), Young), When(See(Hairs, "hairless"), Old));
        Assert.InRange(shed, 1.5, 60);
        // And it isn't in conflict with either.
        var sieve = Sieve([Hairs], [Describe("first-one", Cell(Hairs, "hairless @young dense"))], options: Closed);
        var standing = sieve.Sift(new SiftQuery([When(See(Hairs, "dense"), Young), When(See(Hairs, "hairless"), Old)])).Standing[0];
        Assert.Equal(0, standing.Conflicts);
        Assert.Contains("dense when young", Assert.Single(standing.Reasons).Seen, StringComparison.Ordinal);
    }

    [Fact]
    public void WhereADescriptionIsSilentALookElsewhereCountsLess()
    {
        (string, string)[] cells = [("dense", "hairless")];
        var usual = Odds([Hairs], cells, See(Hairs, "dense"));
        var young = Odds([Hairs], cells, When(See(Hairs, "dense"), Young));
        Assert.InRange(young, 1.2, usual / 2);
        // Where it speaks it counts in full.
        var spoken = Odds([Hairs], [("hairless @young dense", "dense @young hairless")], When(See(Hairs, "dense"), Young));
        Assert.Equal(usual, spoken, 6);
    }

    [Theory]
    [InlineData(PartAge.Grown, Position.Unsaid, Light.Unsaid, Stage.Unsaid)]
    [InlineData(PartAge.Unsaid, Position.Middle, Light.Sun, Stage.Adult)]
    public void ALookWithTheUsualContextIsAsOneWithout(PartAge age, Position position, Light light, Stage stage)
    {
        var context = new ObservationContext(Position: position, Light: light, Stage: stage, Age: age, Material: Material.Fresh);
        (string, string)[] cells = [("dense @young hairless", "hairless"), ("40–60 mm", "70–90 mm")];
        var plain = Odds([Hairs, Blade], cells, See(Hairs, "dense"), Read(Blade, 52, 55));
        var said = Odds([Hairs, Blade], cells, When(See(Hairs, "dense"), context), When(Read(Blade, 52, 55), context));
        Assert.Equal(plain, said, 9);
    }

    [Fact]
    public void TheOrderOfLooksInSeveralContextsDoesNotMatter()
    {
        Observation[] looks =
        [
            When(See(Hairs, "dense"), Young),
            See(Hairs, "hairless"),
            When(See(Hairs, "sparse"), new(Position: Position.Low)),
            When(Read(Blade, 30), Young),
            Read(Blade, 52, 55),
        ];
        (string, string)[] cells = [("hairless @young dense", "sparse"), ("40–60 mm", "70–90 mm")];
        var odds = Odds([Hairs, Blade], cells, looks);
        Assert.Equal(odds, Odds([Hairs, Blade], cells, [.. looks.Reverse()]), 9);
        Assert.Equal(odds, Odds([Hairs, Blade], cells, looks[2], looks[4], looks[0], looks[3], looks[1]), 9);
    }

    [Theory]
    [InlineData(45, 52, 58)]
    [InlineData(60, 66, 75)]
    [InlineData(38, 44, 41)]
    public void SplittingASampleByPositionNeverSharpens(double low, double middle, double top)
    {
        (string, string)[] cells = [("40–60 mm", "60–90 mm")];
        var pooled = Math.Abs(Math.Log(Odds([Blade], cells, Read(Blade, low, middle, top))));
        var split = Math.Abs(
            Math.Log(
                Odds(
                    [Blade],
                    cells,
                    When(Read(Blade, low), new(Position: Position.Low)),
                    Read(Blade, middle),
                    When(Read(Blade, top), new(Position: Position.Top))
                )
            )
        );
        Assert.True(split <= pooled + 1e-9, $"{split} > {pooled}");
    }

    [Fact]
    public void SeedlingsAreSmallerAndShootsFromACutLarger()
    {
        var likelihood = new Likelihood([Describe("a", Cell(Blade, "40–60 mm"))]);
        QuantityRange Of(ObservationContext context)
        {
            var items = EvidenceItem.Pool([When(Read(Blade, 50), context)], new CharacterTable([Blade], [], []), EvidenceOptions.Default);
            return likelihood.RangeOf(Assert.Single(items), Cell(Blade, "40–60 mm"))!;
        }
        Assert.True(Of(new(Stage: Stage.Seedling)).Low < 30);
        Assert.True(Of(new(Stage: Stage.Seedling)).High < 60);
        Assert.Equal(90, Of(new(Shaping: Shaping.Resprouting)).High, 6);
        // Of young leaves the mean is a quarter lower on the logarithm, and they vary more.
        var young = Of(Young);
        Assert.Equal(Math.Log(40 * 60) / 2 - 0.25, Math.Log(young.Low * young.High) / 2, 6);
        Assert.True(young.High / young.Low > 1.5);
    }

    [Fact]
    public void TheShadeFactorIsTheFlorasOwn()
    {
        CharacterDescription[] cells =
        [
            .. Enumerable.Range(0, 12).Select(_ => Cell(Blade, "40–60 mm @shade 80–120 mm")),
            Cell(Blade, "40–60 mm"),
        ];
        // Twelve that double and a belief of 1.5 worth three.
        Assert.Equal(Math.Exp((12 * Math.Log(2) + 3 * Math.Log(1.5)) / 15), Likelihood.ShadeFactor(cells, EvidenceOptions.Default), 9);
    }

    [Fact]
    public void AnEspalieredTreesFruitCounts()
    {
        (string, string)[] cells = [("40–60 mm", "70–100 mm"), ("8–10 mm", "20–30 mm")];
        ObservationContext trained = new(Shaping: Shaping.Clipped);
        Assert.Equal(1, Odds([Blade, Berry], cells, When(Read(Blade, 50), trained)), 9);
        Assert.True(Odds([Blade, Berry], cells, When(Read(Berry, 9), trained)) > 20);
    }

    [Fact]
    public void MeasuresOfAGalledLeafAreTakenOutAndItsHairsAreNot()
    {
        (string, string)[] cells = [("dense", "hairless"), ("40–60 mm", "70–100 mm")];
        ObservationContext galled = new(Damage: Damage.Gall);
        Assert.Equal(1, Odds([Hairs, Blade], cells, When(Read(Blade, 50), galled)), 9);
        Assert.True(Odds([Hairs, Blade], cells, When(See(Hairs, "dense"), galled)) > 5);
    }

    [Fact]
    public void ColoursFadeInAPress()
    {
        var colour = States("leaf-colour", Organ.Leaf, "green", "blue") with { SeenIn = [] };
        (string, string)[] cells = [("blue", "green")];
        var fresh = Odds([colour], cells, See(colour, "blue"));
        Assert.InRange(Odds([colour], cells, When(See(colour, "blue"), new(Material: Material.Pressed))), 1.2, fresh / 2);
    }

    [Fact]
    public void StatesThatStandTogetherAreASetAndNoAlternatives()
    {
        var seen = See(Hair, "simple", "forked") with { Together = true };
        // Who has both kinds always beats who has one or the other.
        Assert.True(Odds([Hair], [("both simple and forked", "simple | forked")], seen) > 2);
        // One of them at a glance is no argument against it; a search that finds no second one is.
        var glance = Odds([Hair], [("both simple and forked", "simple")], See(Hair, "simple"));
        var search = Odds([Hair], [("both simple and forked", "simple")], When(See(Hair, "simple"), new(Search: Search.Searched)));
        Assert.InRange(glance, 0.15, 1);
        Assert.True(search < glance / 3);
    }

    [Fact]
    public void TheChancesOfAllThatCanBeSeenOfASetAddUp()
    {
        var likelihood = new Likelihood([]);
        foreach (var cell in new[] { "both simple and forked | rarely starry", "simple | forked", "starry" })
        {
            var sum = 0d;
            for (var seen = 1; seen < 8; seen++)
            {
                string[] states = [.. Hair.States.Where((_, s) => (seen >> s & 1) == 1).Select(s => s.Id)];
                var look = See(Hair, states) with { Together = states.Length > 1, Context = new(Search: Search.Searched) };
                var item = Assert.Single(EvidenceItem.Pool([look], new CharacterTable([Hair], [], []), EvidenceOptions.Default));
                sum += likelihood.Raw(item, Cell(Hair, cell));
            }
            Assert.Equal(1, sum, 9);
        }
    }

    [Fact]
    public void TheSexSeenWeighsAndLessOnOneDay()
    {
        (string, string)[] cells = [("white", "white"), ("dioecious", "monoecious")];
        Observation Male(string day) => When(See(Colour, "white"), new(Sex: PartSex.Male)) with { Date = day };
        var once = Odds([Colour, Sexes], cells, Male("2026-05-02"));
        var twice = Odds([Colour, Sexes], cells, Male("2026-05-02"), Male("2026-05-20"));
        Assert.InRange(once, 1.5, 3);
        Assert.True(twice > 2 * once);
        // Both in a flower: neither.
        var both = Odds(
            [Colour, Sexes],
            [("white", "white"), ("bisexual", "dioecious")],
            When(See(Colour, "white"), new(Sex: PartSex.Both))
        );
        Assert.True(both > 10);
    }

    [Fact]
    public void OfAMaleBushOfADioeciousTaxonNoFruitIsAskedFor()
    {
        var sieve = Sieve(
            [Colour, Sexes, Berry],
            [
                Describe("first-one", Cell(Colour, "white"), Cell(Sexes, "dioecious"), Cell(Berry, "8–10 mm")),
                Describe("second-one", Cell(Colour, "white"), Cell(Sexes, "dioecious"), Cell(Berry, "20–30 mm")),
            ],
            options: Closed
        );
        string[] Asked(PartSex sex) =>
            [.. sieve.SiftAndLook(new SiftQuery([When(See(Colour, "white"), new(Sex: sex))])).Looks.Now.Select(l => l.Character)];
        Assert.DoesNotContain("fruit-length", Asked(PartSex.Male));
        Assert.Contains("fruit-length", Asked(PartSex.Female));
    }

    [Fact]
    public void AFreshRosetteInJanuaryIsAnAutumnsOne()
    {
        (string, string)[] cells = [("hairless", "hairless"), ("annual", "perennial")];
        Observation Leaf(PartAge age) => When(See(Hairs, "hairless"), new(Position: Position.Low, Age: age)) with { Date = "2026-01-10" };
        Assert.InRange(Odds([Hairs, Life], cells, Leaf(PartAge.Grown)), 1.2, 3);
        Assert.True(Odds([Hairs, Life], cells, Leaf(PartAge.Old)) < 0.2);
    }

    [Fact]
    public void TenPlantsOfWhichOneIsSpottedAreJudgedAsOneStand()
    {
        var spots = States("leaf-spots", Organ.Leaf, "none", "spotted") with { SeenIn = [], Reliability = 0.98 };
        (string, string)[] cells = [("none | sometimes spotted", "none")];
        // One in ten is what a taxon shows that is sometimes spotted, and hardly one that never is; the nine speak against nobody.
        Assert.True(Odds([spots], cells, See(spots, "spotted") with { Show = 1, Of = 10 }) > 1);
        var always = Odds([spots], [("spotted", "none | sometimes spotted")], See(spots, "spotted") with { Show = 1, Of = 10 });
        Assert.True(always < 0.1);
    }

    [Fact]
    public void WhereAFloraDescribesBothContextsItSaysHowMuchChanges()
    {
        // Twelve taxa that shed their hairs and one of which nothing is said: a hairy young leaf says little of it then.
        double OfTheSilent(string others)
        {
            var sieve = Sieve(
                [Hairs],
                [
                    Describe("silent-one", Cell(Hairs, "dense")),
                    Describe("silent-two", Cell(Hairs, "hairless")),
                    .. Enumerable.Range(0, 12).Select(i => Describe($"known-{i}", Cell(Hairs, others))),
                ],
                options: Closed
            );
            var ranked = sieve.Ranked(new SiftQuery([When(See(Hairs, "dense"), Young)])).Probability;
            return ranked[0] / ranked[1];
        }
        Assert.True(OfTheSilent("hairless @young dense") < 0.6 * OfTheSilent("hairless @young hairless"));
    }

    [Theory]
    [InlineData("@young dense", "Say first")]
    [InlineData("hairless @young", "nothing is said")]
    [InlineData("hairless @teenage dense", "is no context")]
    [InlineData("hairless @young dense @young sparse", "said twice")]
    [InlineData("both hairless", "two states")]
    [InlineData("both hairless and bristly", "two states")]
    public void WhatCannotBeReadIsSaid(string text, string message)
    {
        Assert.Null(DescriptionCell.Read(text, Hairs, out var problem));
        Assert.Contains(message, problem, StringComparison.Ordinal);
    }

    [Fact]
    public void WordsOfAContextAreReadAndSaid()
    {
        Assert.Equal(
            "hairless; when young dense, rarely sparse",
            FloraProse.Value(Cell(Hairs, "hairless @young dense | rarely sparse"), Hairs)
        );
        Assert.Equal("simple with forked, rarely starry", FloraProse.Value(Cell(Hair, "both simple and forked | rarely starry"), Hair));
        Assert.Equal("gathered 2026-01-10 · bag 14", LookWords.Context(new ObservationContext(Gathered: "2026-01-10", Bag: "14")));
    }
}
