using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>Plants of the demo as they really are: in August and January, trained and clipped, of one sex, in stands, in streets.</summary>
public sealed class RealPlantTests
{
    private static readonly ReadyFlora Flora = TorvaneFlora.MakeReady();

    private static SiftObservation See(string character, string state, ObservationContext? context = null, string? date = null) =>
        new(character, [state], Context: context, Date: date);

    private static SiftResponse Sift(
        IReadOnlyList<SiftObservation> looks,
        string date,
        SiftPrior prior = SiftPrior.Plausible,
        SiftPlace? at = null
    ) => new SiftRequest("torvane", looks, new SiftRequestOptions(prior, At: at, Date: date)).Sift(Flora);

    private static double Of(SiftResponse answer, Func<SiftedTaxon, bool> which) => answer.Standing.Where(which).Sum(t => t.Probability);

    [Theory]
    [InlineData("2026-08-20")]
    [InlineData("2026-12-20")]
    public void OppositeBudsThatMeetNameTheShrubs(string date)
    {
        var answer = Sift([See("bud-arrangement", "opposite"), See("bud-scale-edges", "meeting")], date);
        var shrubs = Of(answer, t => t.Name.StartsWith("Ondrelia", StringComparison.Ordinal));
        // Of two of them: the hybrid is rare, and the plant may be a stranger.
        Assert.True(shrubs > 0.5, $"{shrubs}");
        Assert.StartsWith("Ondrelia", answer.Standing.First(t => t.Taxon != Sifter.NotOnList).Name, StringComparison.Ordinal);
        // In August the hairs of the buds of winter aren't asked yet, their number of scales is.
        var sifter = Flora.Sifter;
        var shrub = sifter.Columns.Taxa.First(t => t.StartsWith("ondrelia-", StringComparison.Ordinal));
        Assert.Equal(date.Contains("-12-", StringComparison.Ordinal), sifter.CanBeSeen(shrub, "bud-hairs", DateOnly.Parse(date)));
        Assert.True(sifter.CanBeSeen(shrub, "bud-scales", DateOnly.Parse(date)));
    }

    [Fact]
    public void InAugustTheyNameThemAsWellAsInDecember()
    {
        SiftObservation[] looks = [See("bud-arrangement", "opposite"), See("bud-scale-edges", "meeting")];
        double On(string date) => Of(Sift(looks, date), t => t.Name.StartsWith("Ondrelia", StringComparison.Ordinal));
        Assert.Equal(On("2026-12-20"), On("2026-08-20"), 2);
    }

    [Fact]
    public void LeafScarsShowOnLastYearsWoodAllYearAndArrangementByThemInWinter()
    {
        var sifter = Flora.Sifter;
        Assert.True(sifter.CanBeSeen("vellorna-alata", "leaf-scars", new DateOnly(2026, 7, 1)));
        Assert.True(sifter.CanBeSeen("vellorna-alata", "leaf-arrangement", new DateOnly(2026, 1, 10)));
        // A herb that has died back has no scars to tell it by.
        Assert.False(sifter.CanBeSeen("ranessa-pratensis", "leaf-arrangement", new DateOnly(2026, 1, 10)));
    }

    [Fact]
    public void ARosetteInJanuaryIsTold()
    {
        var low = new ObservationContext(Position: Position.Low, Age: PartAge.Old);
        SiftObservation[] looks =
        [
            See("leaf-division", "bipinnate", low, "2026-01-10"),
            See("leaf-smell", "foul", low, "2026-01-10"),
            See("growth-form", "herb", null, "2026-01-10"),
        ];
        var answer = Sift(looks, "2026-01-10");
        var first = answer.Standing.First(t => t.Taxon != Sifter.NotOnList);
        Assert.Equal("Cicorra maculosa", first.Name);
        Assert.Empty(first.PriorReasons);
        // Found by what is green now too.
        var green = new SiftRequest(
            "torvane",
            [],
            new SiftRequestOptions(Date: "2026-01-10", Narrowing: new Narrowing(GreenNow: true))
        ).Sift(Flora);
        Assert.InRange(green.Listed, 10, 30);
        Assert.Contains(green.Standing, t => t.Name == "Cicorra maculosa");
        // And what tells more of a rosette is asked: its leaves, no flowers.
        Assert.Contains(answer.TellingLooks, l => l.Character.StartsWith("leaf", StringComparison.Ordinal));
        Assert.DoesNotContain(answer.TellingLooks, l => l.Character.StartsWith("flower", StringComparison.Ordinal));
        // One that has nothing green in winter is less plausible then, and it is said why.
        var died = answer.Standing.FirstOrDefault(t => t.Name == "Menthessa palustris");
        if (died is { PriorReasons.Count: > 0 })
            Assert.Contains("another time of the year", died.PriorReasons[0], StringComparison.Ordinal);
    }

    [Fact]
    public void HairsThatAreShedSpeakForTheOneThatShedsThem()
    {
        SiftObservation[] looks =
        [
            See("leaf-hairs-beneath", "hairy", new ObservationContext(Age: PartAge.Young), "2026-05-10"),
            See("leaf-hairs-beneath", "bald", null, "2026-07-10"),
            See("leaf-colour", "purple", new ObservationContext(Age: PartAge.Young), "2026-05-10"),
            See("leaf-colour", "green", null, "2026-07-10"),
        ];
        var answer = Sift(looks, "2026-07-10", SiftPrior.Equal);
        var first = answer.Standing.First(t => t.Taxon != Sifter.NotOnList);
        Assert.Equal("Carpessa rubra", first.Name);
        Assert.Equal(0, first.Conflicts);
    }

    [Fact]
    public void AProfileOfLeavesIsHeldAgainstTheProfile()
    {
        SiftObservation[] looks =
        [
            See("leaf-shape", "obovate", new ObservationContext(Position: Position.Low)),
            See("leaf-shape", "oblong"),
            See("leaf-shape", "linear", new ObservationContext(Position: Position.Top)),
            See("inflorescence-type", "head"),
        ];
        var answer = Sift(looks, "2026-07-10", SiftPrior.Equal);
        double P(string name) => answer.Standing.FirstOrDefault(t => t.Name == name)?.Probability ?? 0;
        Assert.True(P("Crepessa hirsuta") > 2 * P("Crepessa ambigua"));
        Assert.Equal(0, answer.Standing.First(t => t.Name == "Crepessa hirsuta").Conflicts);
    }

    [Fact]
    public void TheFlowersOfAFemaleBushAreHeldAgainstThoseOfFemales()
    {
        var female = new ObservationContext(Sex: PartSex.Female);
        var answer = Sift(
            [
                new SiftObservation("stamen-number", Values: [0], Context: female, Date: "2026-06-01"),
                new SiftObservation("style-number", Values: [5], Context: female, Date: "2026-06-01"),
                See("flower-colour", "pink", female, "2026-06-01"),
            ],
            "2026-06-01",
            SiftPrior.Equal
        );
        Assert.Equal("Lychnora bipartita", answer.Standing.First(t => t.Taxon != Sifter.NotOnList).Name);
        Assert.Contains(answer.Sheet, l =>
            l.Character == "sexuality" && l.Seen.StartsWith("female flowers only", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void APlantedFormIsCommonInAStreetAndRareInAWood()
    {
        SiftObservation[] looks = [See("leaf-colour", "purple"), See("bud-arrangement", "opposite"), See("leaf-hairs-beneath", "star")];
        double In(params string[] habitats) =>
            Of(Sift(looks, "2026-07-10", at: new SiftPlace("", null, habitats)), t => t.Name.Contains('\'', StringComparison.Ordinal));
        double Alone(params string[] habitats)
        {
            var taxon = TorvaneFlora.Taxa.Single(t => t.Name == "Vellorna cinerea 'Fuscata'");
            return Plausibility.Of(taxon, new SiftPlace("", null, habitats), null, []).Weight;
        }
        Assert.True(Alone("street") > 8 * Alone("wet wood"));
        Assert.True(In("street") >= In("wet wood"));
        // Who isn't planted anywhere is seldom met in a street, and it is said.
        var wild = TorvaneFlora.Taxa.Single(t => t.Name == "Ondrelia palustris");
        Assert.Contains(
            "isn’t known to be planted",
            Plausibility.Of(wild, new SiftPlace("", null, ["street"]), null, []).Reasons[0],
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void AStandWithOneSpottedPlantInTenIsJudgedAsOne()
    {
        StandPlantRequest Plant(int i) =>
            new(
                $"{i}",
                [
                    See("basal-leaf.colour-pattern", i == 4 ? "spotted" : "plain"),
                    See("leaf-shape", "lanceolate"),
                    See("inflorescence-type", "spike"),
                ]
            );
        var answer = new StandRequest("torvane", [.. Enumerable.Range(1, 10).Select(Plant)]).Judge(Flora);
        Assert.Equal("Orchessa maculata", answer.Standing[0].Name);
        Assert.False(answer.IsMixed);
        Assert.All(answer.Plants, p => Assert.True(p.OfTheStand > 0.5));
        Assert.Contains("more than one taxon", answer.InWords, StringComparison.Ordinal);
    }

    [Fact]
    public void FruitBeneathSeveralCrownsOverturnsNoneOfThem()
    {
        // A shrub by its buds; the drupelets beneath it are a scrambler's.
        double Shrub(ObservationContext? context) =>
            Of(
                Sift(
                    [
                        See("bud-arrangement", "opposite"),
                        See("bud-scale-edges", "meeting"),
                        See("leaf-margin", "scalloped"),
                        See("fruit-type", "drupelets", context),
                    ],
                    "2026-09-20",
                    SiftPrior.Equal
                ),
                t => t.Name.StartsWith("Ondrelia", StringComparison.Ordinal)
            );
        ObservationContext Beneath(CrownsAbove crowns) => new(Attachment: Attachment.Beneath, Crowns: crowns);
        var on = Shrub(null);
        var alone = Shrub(Beneath(CrownsAbove.One));
        var two = Shrub(Beneath(CrownsAbove.Two));
        var more = Shrub(Beneath(CrownsAbove.More));
        Assert.True(on < alone && alone < two && two < more, $"{on} {alone} {two} {more}");
        // With one of two crowns above it, it takes little from what the plant itself shows.
        Assert.True(two > 0.75, $"{two}");
    }

    [Fact]
    public void AComparisonIsNotAskedWhereItsPartsWereMeasured()
    {
        SiftObservation[] looks =
        [
            See("bud-arrangement", "opposite"),
            See("leaf-division", "lobed"),
            new SiftObservation("petiole-length", Values: [40]),
            new SiftObservation("leaf-length", Values: [80]),
        ];
        Assert.DoesNotContain(Sift(looks, "2026-07-10").TellingLooks, l => l.Character == "petiole-to-blade");
    }

    [Fact]
    public void PithSaysNothingOfWoodAndALackingPartIsAStrongConflictUnlessUnsure()
    {
        // A herb whose stem has a pith isn't ruled out by it: nothing is described of its pith.
        double Herbs(params Observation[] looks)
        {
            var ranked = Flora.Sifter.Ranked(new SiftQuery(looks)).Probability;
            return ranked
                .Where(
                    (_, t) =>
                        TorvaneFlora.Taxa.FirstOrDefault(x => x.Id == Flora.Sifter.Columns.Taxa[t])?.Facts?.GrowthForm
                            is "herb"
                                or "grass"
                                or "fern"
                )
                .Sum();
        }
        var pith = See("pith", "solid").AsObservation(TorvaneFlora.Table, 0);
        Assert.True(Herbs(pith) > 0.8 * Herbs(), $"{Herbs(pith)} {Herbs()}");
        // Bark is had by wood alone.
        var bark = Herbs(See("bark-texture", "peeling").AsObservation(TorvaneFlora.Table, 0));
        Assert.True(bark < 0.1, $"{bark}");
        // Tharsina inermis has no thorns to measure.
        double Inermis(Sureness sureness)
        {
            var look = new SiftObservation("thorn-length", Values: [15], Sureness: sureness).AsObservation(TorvaneFlora.Table, 0);
            return Flora.Sifter.Ranked(new SiftQuery([look])).Probability[Flora.Sifter.Columns.IndexOf("tharsina-inermis")];
        }
        Assert.True(Inermis(Sureness.Sure) < 0.05 / Flora.Sifter.Columns.Taxa.Count);
        Assert.True(Inermis(Sureness.Guess) > 20 * Inermis(Sureness.Sure));
    }

    [Fact]
    public void WhatTheDemoSaysStandsInItsTables()
    {
        var cell = TorvaneFlora
            .Table.Descriptions.Single(d => d.Taxon == "carpessa-rubra")
            .Characters.Single(c => c.Character == "leaf-colour");
        Assert.Equal([DescribedContext.Young, DescribedContext.Old], cell.Contexts!.Select(c => c.When));
        Assert.Contains(TorvaneFlora.Taxa, t => t.Facts?.PlantedIn.Contains("street") == true);
        Assert.Contains(TorvaneFlora.Taxa, t => t.Facts?.Phenology.Any(p => p.Phase == Phenophase.WinterGreen) == true);
    }

    [Fact]
    public void LooksOfASecondSeasonDoNotLowerTheTrueNameOnAverage()
    {
        double one = 0,
            both = 0;
        var plants = 0;
        foreach (var taxon in TorvaneFlora.Shelf.Descriptions)
        {
            var random = new Random(20 + plants);
            var plant = new SimulatedPlant(taxon.Characters, random);
            List<Observation> Looks(DateOnly day)
            {
                var seen = taxon
                    .Characters.Select(c => TorvaneFlora.Table.Find(c.Character)!)
                    .Where(c => c.SeenIn.Count > 0 && Flora.Sifter.CanBeSeen(taxon.Taxon, c.Id, day))
                    .OrderBy(_ => random.Next())
                    .Take(3);
                return [.. seen.Select(c => plant.Look(c)).OfType<Observation>()];
            }
            var (winter, summer) = (Looks(new DateOnly(2026, 1, 10)), Looks(new DateOnly(2026, 6, 20)));
            if (winter.Count == 0 || summer.Count == 0)
                continue;
            double Log(IReadOnlyList<Observation> looks) =>
                Math.Log(Flora.Sifter.Ranked(new SiftQuery(looks)).Probability[Flora.Sifter.Columns.IndexOf(taxon.Taxon)]);
            one += Log(winter);
            both += Log([.. winter, .. summer]);
            plants++;
        }
        Assert.True(plants > 20);
        Assert.True(both / plants > one / plants + 0.5, $"{one / plants} {both / plants}");
    }
}
