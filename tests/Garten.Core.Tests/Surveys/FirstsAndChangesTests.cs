using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Visits;
using Xunit;

namespace Garten.Core.Tests.Surveys;

/// <summary>What counts as a first of the year, when a new name has to say why, and what a visit is to answer.</summary>
public sealed class FirstsAndChangesTests
{
    private static readonly Guid Plant = Guid.CreateVersion7();

    private static PhaseLook Look(string day, bool shown, Phenophase phase = Phenophase.Flower, Guid? plant = null) =>
        new(plant ?? Plant, "Vellorna alba", phase, shown, DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture), null);

    [Fact]
    public void AFirstIsPrecededByALookThatFoundNothingYet()
    {
        var first = Assert.Single(
            SeasonFirst.Of([Look("2026-04-20", true), Look("2026-04-12", false), Look("2026-04-01", false), Look("2026-05-01", true)])
        );
        Assert.Equal((new DateOnly(2026, 4, 12), new DateOnly(2026, 4, 20)), (first.NotYet, first.Seen));
    }

    [Theory]
    [InlineData("2026-04-20")]
    [InlineData("2026-04-20", "2026-04-09")]
    [InlineData("2026-04-20", "2026-04-21")]
    public void WhatMayHaveBegunAtAnyTimeIsNoFirst(string shown, params string[] notYet) =>
        Assert.Empty(SeasonFirst.Of([Look(shown, true), .. notYet.Select(d => Look(d, false))]));

    [Fact]
    public void EachPlantAndEachPhaseHasItsOwn()
    {
        var other = Guid.CreateVersion7();
        Assert.Empty(
            SeasonFirst.Of([
                Look("2026-04-12", false, plant: other),
                Look("2026-04-20", true),
                Look("2026-04-12", false, Phenophase.RipeFruit),
            ])
        );
        Assert.Equal(
            2,
            SeasonFirst
                .Of([
                    Look("2026-04-12", false),
                    Look("2026-04-20", true),
                    Look("2026-04-14", false, plant: other),
                    Look("2026-04-20", true, plant: other),
                ])
                .Count
        );
    }

    [Theory]
    [InlineData("", "alba", false)]
    [InlineData("alba", "alba", false)]
    [InlineData("alba nigra", "alba", false)]
    [InlineData("alba", "alba nigra", false)]
    [InlineData("alba", "nigra", true)]
    [InlineData("alba nigra", "fusca", true)]
    public void ANameThatSharesNothingWithTheOneBeforeOverturnsIt(string before, string now, bool overturns)
    {
        string[] Names(string text) => text.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        Assert.Equal(overturns, NameChange.Overturns(Names(before), Names(now)));
        Assert.Equal(overturns, NameChange.NeedsReason(Names(before), Names(now), "  "));
        Assert.False(NameChange.NeedsReason(Names(before), Names(now), "the fruit was seen"));
    }

    [Fact]
    public void TheQuestionsOfAPlantCarryWhatAVisitNeedsToKnow()
    {
        var place = Guid.CreateVersion7();
        var needs = new[]
        {
            new OpenNeed("fruit", "fruit-type", "Look at the fruit", [new DayWindow(240, 290)]),
            new OpenNeed("bud", "bud-colour", "Look at the buds", []),
        };
        var plant = new OpenPlant(
            Plant,
            "peg 4",
            place,
            "Kell Strand",
            "tide",
            "Vellorna alba",
            default,
            needs,
            [new CautionLine("vellorna-alba", [], "Its sap burns.")],
            default,
            VisitOutcome.Of([], [], default, default)
        );
        var questions = OpenQuestion.Of(plant).ToList();
        Assert.Equal([$"{Plant} fruit", $"{Plant} bud"], questions.Select(q => q.Id));
        Assert.All(questions, q =>
            Assert.Equal(("Vellorna alba", "peg 4", place, "Kell Strand"), (q.Name, q.Label, q.PlaceId, q.PlaceName))
        );
        Assert.Equal(["tide", "Its sap burns."], OpenQuestion.CautionsOf(questions));
        Assert.Equal(["Its sap burns."], OpenQuestion.CautionsOfTaxa(questions));
    }

    /// <summary>Half-months 13 to 16 are July and August, 17 to 19 September and early October.</summary>
    [Fact]
    public void FruitIsYoungAndRipe()
    {
        var taxon = new Taxon(
            "alba",
            "Vellorna alba",
            "",
            "species",
            "",
            "",
            "",
            [],
            "",
            TaxonFacts.None with
            {
                Phenology = [new(Phenophase.Flower, 9, 10), new(Phenophase.YoungFruit, 13, 16), new(Phenophase.RipeFruit, 17, 19)],
            }
        );
        Assert.Equal([DayWindow.OfHalfMonths(13, 16), DayWindow.OfHalfMonths(17, 19)], SeasonList.FruitOf(taxon));
        Assert.Empty(SeasonList.FruitOf(null));
    }
}
