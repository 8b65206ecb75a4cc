using Garten.Core.Evidence;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Xunit;

namespace Garten.Core.Tests.Surveys;

public sealed class PopulationTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly DayWindow Fruit = new(213, 273);

    private static DateOnly Day(int year, int month, int day) => new(year, month, day);

    private static PlantVisit Visit(DateOnly day, PlantState state, params PhaseNote[] phases) =>
        new(Guid.NewGuid(), Guid.Empty, day, state, phases, [], "", "");

    private static PhaseNote Flower(PhaseStage stage) => new(Phenophase.Flower, stage);

    private static PhaseNote Ripe(PhaseStage stage) => new(Phenophase.RipeFruit, stage);

    private static PeggedPlant Peg(string label, params PlantVisit[] visits) => new(Guid.NewGuid(), label, Day(2025, 5, 1), visits);

    private static PopulationCount Count(DateOnly day, int number, Guid? supersedes = null, CountUnit unit = CountUnit.Individuals) =>
        new(Guid.NewGuid(), day, unit, number, "", "", supersedes);

    private static PopulationYear Year(PopulationSummary summary, int year) => summary.Years.Single(y => y.Year == year);

    [Fact]
    public void SharesCountWhatIsKnownAndKeepTheRestApart()
    {
        var pegs = new[]
        {
            Peg(
                "flowers, fruits",
                Visit(Day(2025, 6, 1), PlantState.Alive, Flower(PhaseStage.Shown)),
                Visit(Day(2025, 8, 20), PlantState.Alive, Ripe(PhaseStage.Shown))
            ),
            Peg(
                "flowers, no fruit",
                Visit(Day(2025, 6, 1), PlantState.Alive, Flower(PhaseStage.Shown)),
                Visit(Day(2025, 8, 20), PlantState.Browsed, Ripe(PhaseStage.None))
            ),
            Peg("fruit alone seen", Visit(Day(2025, 8, 20), PlantState.Alive, Ripe(PhaseStage.Shown))),
            Peg("never", Visit(Day(2025, 6, 1), PlantState.Alive, Flower(PhaseStage.None))),
            Peg("too early", Visit(Day(2025, 5, 2), PlantState.Alive, Flower(PhaseStage.NotYet))),
            Peg("not refound", Visit(Day(2025, 6, 1), PlantState.NotRefound)),
            Peg("dead", Visit(Day(2025, 6, 1), PlantState.Dead)),
            Peg("cut", Visit(Day(2025, 6, 1), PlantState.Cut)),
        };
        var year = Year(PopulationSummary.Of([], pegs, [], Today), 2025);
        Assert.Equal((3, 4, 4), (year.Flowered.Count, year.Flowered.Known, year.Flowered.Unknown));
        Assert.Equal((2, 4, 4), (year.Fruited.Count, year.Fruited.Known, year.Fruited.Unknown));
        Assert.Equal((5, 6, 2), (year.Alive.Count, year.Alive.Known, year.Alive.Unknown));
        Assert.Equal((8, 1), (year.Pegged, year.NotRefound));
    }

    [Fact]
    public void WhatIsRefoundLaterWasAliveAndWhatDiedStaysDead()
    {
        var back = Peg("back", Visit(Day(2025, 6, 1), PlantState.NotRefound), Visit(Day(2026, 6, 1), PlantState.Alive));
        var dead = Peg("dead", Visit(Day(2025, 6, 1), PlantState.Dead));
        Assert.True(PopulationSummary.Lived(back, 2025));
        Assert.False(PopulationSummary.Lived(dead, 2026));
        Assert.False(PopulationSummary.Flowered(dead, 2026));
        Assert.Null(PopulationSummary.Lived(Peg("alone", Visit(Day(2025, 6, 1), PlantState.NotRefound)), 2025));
    }

    [Fact]
    public void SexIsThatOfTheYearAndOfEachBranch()
    {
        PlantVisit Sexed(int year, params BranchSex[] sexes) =>
            Visit(Day(year, 5, 20), PlantState.Alive, Flower(PhaseStage.Shown)) with
            {
                Sexes = sexes,
            };
        var pegs = new[]
        {
            Peg("f", Sexed(2025, new BranchSex("", PartSex.Female))),
            Peg("f then m", Sexed(2025, new BranchSex("", PartSex.Female)), Sexed(2026, new BranchSex("", PartSex.Male))),
            Peg("m", Sexed(2025, new BranchSex("low", PartSex.Male))),
            Peg("branches", Sexed(2025, new BranchSex("low", PartSex.Male), new BranchSex("top", PartSex.Female))),
            Peg("no flower"),
        };
        var summary = PopulationSummary.Of([], pegs, [], Today);
        Assert.Equal(
            (1, 2, 1, 1),
            (
                Year(summary, 2025).Sexes.Male,
                Year(summary, 2025).Sexes.Female,
                Year(summary, 2025).Sexes.Both,
                Year(summary, 2025).Sexes.NotSexed
            )
        );
        Assert.Equal((2, 3), (Year(summary, 2025).Sexes.FemaleShare.Count, Year(summary, 2025).Sexes.FemaleShare.Known));
        Assert.Equal((1, 0), (Year(summary, 2026).Sexes.Male, Year(summary, 2026).Sexes.Female));
    }

    [Fact]
    public void CountsAreComparedYearByYearAndCorrectionsCount()
    {
        var first = Count(Day(2023, 6, 1), 1000);
        var summary = PopulationSummary.Of(
            [
                first,
                Count(Day(2023, 6, 1), 100, first.Id),
                Count(Day(2025, 6, 3), 144),
                Count(Day(2026, 6, 2), 0),
                Count(Day(2026, 6, 2), 30, unit: CountUnit.Shoots),
            ],
            [],
            [],
            Day(2026, 6, 10)
        );
        Assert.Equal([(100, 144), (144, 0)], summary.Changes.Select(c => (c.From, c.To)));
        // 144 of 100 in two years: 1.2 a year.
        Assert.Equal([1.2, 0], summary.Changes.Select(c => Math.Round(c.PerYear!.Value, 12)));
        Assert.Empty(summary.Due);
        Assert.Null(PopulationSummary.Of([Count(Day(2025, 6, 1), 0), Count(Day(2026, 6, 1), 7)], [], [], Today).Changes.Single().PerYear);
    }

    [Fact]
    public void ACountIsDueAboutAYearAfterTheLastOne()
    {
        var summary = PopulationSummary.Of([Count(Day(2026, 6, 1), 12)], [], [], Today);
        Assert.Equal([new DayWindow(DayOfYear.Of(Day(2026, 5, 17)), DayOfYear.Of(Day(2026, 6, 16)))], summary.Due.Single().Windows);
        Assert.Empty(summary.Missed);
        Assert.Single(PopulationSummary.Of([Count(Day(2024, 6, 1), 12)], [], [], Today).Missed);
    }

    [Fact]
    public void FruitOfWhatFloweredIsAskedForUntilItIsOver()
    {
        var pegs = new[] { Peg("a", Visit(Day(2026, 6, 1), PlantState.Alive, Flower(PhaseStage.Shown))) };
        Assert.Equal("fruit", PopulationSummary.Of([], pegs, [Fruit], Day(2026, 7, 1)).Due.Single().Id);
        Assert.Equal("fruit", PopulationSummary.Of([], pegs, [Fruit], Day(2026, 9, 1)).Due.Single().Id);
        var late = PopulationSummary.Of([], pegs, [Fruit], Today);
        Assert.Empty(late.Due);
        Assert.Contains("Nobody came", Assert.Single(late.Missed), StringComparison.Ordinal);
        Assert.Empty(
            PopulationSummary
                .Of(
                    [],
                    [
                        Peg(
                            "b",
                            Visit(Day(2026, 6, 1), PlantState.Alive, Flower(PhaseStage.Shown)),
                            Visit(Day(2026, 8, 9), PlantState.Alive, Ripe(PhaseStage.None))
                        ),
                    ],
                    [Fruit],
                    Day(2026, 9, 1)
                )
                .Due
        );
    }

    [Fact]
    public void NeverFloweredNeedsTwoYearsOfLooking()
    {
        var pegs = new[]
        {
            Peg(
                "never",
                Visit(Day(2025, 6, 1), PlantState.Alive, Flower(PhaseStage.None)),
                Visit(Day(2026, 6, 1), PlantState.Alive, Flower(PhaseStage.None))
            ),
            Peg("one year", Visit(Day(2026, 6, 1), PlantState.Alive, Flower(PhaseStage.None))),
            Peg(
                "once",
                Visit(Day(2025, 6, 1), PlantState.Alive, Flower(PhaseStage.None)),
                Visit(Day(2026, 6, 1), PlantState.Alive, Flower(PhaseStage.Over))
            ),
        };
        Assert.Equal(["never"], PopulationSummary.Of([], pegs, [], Today).NeverFlowered);
    }

    [Fact]
    public void WhatDisagreesOnAVisitIsSaidAtItsField()
    {
        static string? Field(PlantState state, PhaseNote[] phases, params BranchSex[] sexes) =>
            PlantVisit.Problem(state, phases, sexes)?.Field;
        Assert.Null(
            Field(PlantState.Alive, [Flower(PhaseStage.Shown)], new BranchSex("low", PartSex.Male), new BranchSex("top", PartSex.Female))
        );
        Assert.Equal("state", Field(PlantState.NotRefound, [Flower(PhaseStage.Shown)]));
        Assert.Equal("state", Field(PlantState.Dead, [Flower(PhaseStage.Shown)]));
        Assert.Null(Field(PlantState.Dead, [Ripe(PhaseStage.Shown)]));
        Assert.Equal("phases", Field(PlantState.Alive, [Flower(PhaseStage.Shown), Flower(PhaseStage.Over)]));
        Assert.Equal("sexes", Field(PlantState.Alive, [], new BranchSex("", PartSex.Unsaid)));
        Assert.Equal("sexes", Field(PlantState.Alive, [], new BranchSex("low", PartSex.Male), new BranchSex("Low ", PartSex.Female)));
    }

    [Fact]
    public void DistancesAreThoseOfTheSphere()
    {
        // A degree of latitude on a sphere of the earth's mean radius.
        Assert.Equal(111_195, PlantPosition.MetresBetween(57, -11, 58, -11), 1.0);
        Assert.Equal(111_195 * Math.Cos(60 * Math.PI / 180), PlantPosition.MetresBetween(60, -11, 60, -10), 5.0);
        Assert.Equal(0, PlantPosition.MetresBetween(57, -180, 57, 180), 1e-3);
        Assert.False(PlantPosition.BelongsTo(40_000, 10, 150));
        Assert.True(PlantPosition.CanBeSame(40, 5, 5));
        Assert.False(PlantPosition.CanBeSame(400, 5, 8));
        Assert.Equal(("40 km", "350 m"), (PlantPosition.InWords(40_000), PlantPosition.InWords(350)));
    }
}
