using Garten.Core.Contracts;
using Garten.Core.Seasons;
using Garten.Core.Visits;
using Xunit;

namespace Garten.Core.Tests.Visits;

public sealed class VisitPlanTests
{
    private static List<VisitNeed> Of(IEnumerable<VisitNeed> needs, PlannedVisit visit) =>
        [.. needs.Where(n => visit.Needs.Contains(n.Id, StringComparer.Ordinal))];

    private static readonly DateOnly From = new(2026, 11, 25);

    private static VisitNeed Need(string id, params (int From, int To)[] windows) =>
        new(id, "wood", [.. windows.Select(w => new DayWindow(w.From, w.To))]);

    private static List<VisitNeed> Random(Random random, int needs, int windows, int longest, int places = 1) =>
        [
            .. Enumerable
                .Range(0, needs)
                .Select(i => new VisitNeed(
                    $"n{i}",
                    $"p{random.Next(places)}",
                    [
                        .. Enumerable
                            .Range(0, 1 + random.Next(windows))
                            .Select(_ => 1 + random.Next(DayOfYear.Days))
                            .Select(start => new DayWindow(start, DayOfYear.Add(start, random.Next(longest)))),
                    ]
                )),
        ];

    // Every set of days among all 365, smallest sets first: quick only for few needs.
    private static int BruteForce(List<VisitNeed> needs)
    {
        var masks = Enumerable
            .Range(1, DayOfYear.Days)
            .Select(d => needs.Select((n, i) => n.Windows.Any(w => w.Holds(d)) ? 1 << i : 0).Sum())
            .Distinct()
            .ToArray();
        var all = (1 << needs.Count) - 1;
        var reached = new HashSet<int> { 0 };
        for (var visits = 0; ; visits++)
        {
            if (reached.Contains(all))
                return visits;
            reached = [.. reached.SelectMany(r => masks.Select(m => r | m))];
        }
    }

    private static void AssertAnswers(List<VisitNeed> needs, VisitPlan plan, DateOnly from)
    {
        Assert.Equal(needs.Where(n => n.Windows.Count > 0).Select(n => n.Id).Order(), plan.Visits.SelectMany(v => v.Needs).Order());
        foreach (var visit in plan.Visits)
        {
            Assert.NotEmpty(visit.Needs);
            Assert.InRange(visit.Date, from, from.AddDays(DayOfYear.Days));
            Assert.Equal(visit.Day, DayOfYear.Of(visit.Date));
            Assert.True(visit.Earliest <= visit.Date && visit.Date <= visit.Latest);
            foreach (var date in new[] { visit.Earliest, visit.Date, visit.Latest })
                Assert.Empty(VisitPlan.LostBy(Of(needs, visit), date));
            Assert.All(needs.Where(n => visit.Needs.Contains(n.Id)), n => Assert.Equal(visit.Place, n.Place));
        }
        Assert.Equal(plan.Visits.OrderBy(v => v.Latest), plan.Visits);
    }

    [Theory]
    [InlineData(10)]
    [InlineData(60)]
    [InlineData(200)]
    public void ThereAreAsFewVisitsAsBruteForceFinds(int longest)
    {
        var random = new Random(longest);
        for (var i = 0; i < 60; i++)
        {
            var needs = Random(random, 1 + random.Next(9), 3, longest);
            var from = From.AddDays(random.Next(1000));
            var plan = VisitPlan.Of(from, needs);
            Assert.True(plan.IsOptimal);
            Assert.Equal(BruteForce(needs), plan.Visits.Count);
            AssertAnswers(needs, plan, from);
        }
    }

    [Theory]
    [InlineData(8)]
    [InlineData(25)]
    [InlineData(60)]
    public void FortyNeedsOfThreeWindowsAtAPlaceArePlannedExactly(int longest)
    {
        var random = new Random(longest);
        for (var i = 0; i < 12; i++)
        {
            var needs = Random(random, 40, 3, longest);
            var plan = VisitPlan.Of(From, needs);
            Assert.True(plan.IsOptimal);
            AssertAnswers(needs, plan, From);
        }
    }

    [Fact]
    public void ManyNeedsAtManyPlacesAreAnsweredEachAtItsPlace()
    {
        var needs = Random(new Random(5), 300, 3, 30, places: 6);
        AssertAnswers(needs, VisitPlan.Of(From, needs), From);
    }

    [Fact]
    public void WindowsOverTheNewYearShareADay()
    {
        var plan = VisitPlan.Of(From, [Need("twig", (320, 40)), Need("catkin", (20, 60)), Need("bud", (350, 30))]);
        var visit = Assert.Single(plan.Visits);
        Assert.Equal(
            (new DateOnly(2027, 1, 20), new DateOnly(2027, 1, 25), new DateOnly(2027, 1, 30)),
            (visit.Earliest, visit.Date, visit.Latest)
        );
    }

    [Fact]
    public void WhatIsOpenNowIsLookedAtBeforeItCloses()
    {
        // Open since October, closing on 5 December: not next year.
        var visit = Assert.Single(VisitPlan.Of(From, [Need("fruit", (280, 339))]).Visits);
        Assert.Equal((From, new DateOnly(2026, 11, 30), new DateOnly(2026, 12, 5)), (visit.Earliest, visit.Date, visit.Latest));
    }

    [Fact]
    public void WhatCanBeSeenAllTheYearClosesOnNoDay()
    {
        var visit = Assert.Single(VisitPlan.Of(From, [Need("bark", (1, 365))]).Visits);
        Assert.Equal((From, From, From.AddDays(364)), (visit.Earliest, visit.Date, visit.Latest));
        visit = Assert.Single(VisitPlan.Of(From, [Need("bark", (1, 365)), Need("bud", (300, 60))]).Visits);
        Assert.Equal(new DateOnly(2027, 3, 1), visit.Latest);
    }

    [Fact]
    public void WhatClosesFirstComesFirst()
    {
        var plan = VisitPlan.Of(From, [Need("flower", (130, 150)), Need("twig", (330, 60)), Need("fruit", (250, 280))]);
        Assert.Equal(["twig", "flower", "fruit"], plan.Visits.Select(v => v.Needs[0]));
    }

    [Fact]
    public void ANeedWithoutAWindowIsNamed()
    {
        var plan = VisitPlan.Of(From, [Need("laboratory"), Need("leaf", (100, 250))]);
        Assert.Equal(["laboratory"], plan.Unanswerable);
        Assert.Single(plan.Visits);
    }

    [Fact]
    public void NothingToAnswerNeedsNoVisit() => Assert.Empty(VisitPlan.Of(From, []).Visits);

    [Fact]
    public void ALeapDayIsNoDayOfItsOwn()
    {
        var visit = Assert.Single(VisitPlan.Of(new DateOnly(2028, 2, 29), [Need("catkin", (59, 59))]).Visits);
        Assert.Equal((59, new DateOnly(2028, 2, 29)), (visit.Day, visit.Date));
        Assert.Equal(
            new DateOnly(2028, 3, 1),
            Assert.Single(VisitPlan.Of(new DateOnly(2028, 2, 20), [Need("leaf", (60, 60))]).Visits).Date
        );
    }

    [Fact]
    public void AVisitMovedOutOfAWindowLosesWhatItWasFor()
    {
        VisitNeed[] needs = [Need("flower", (130, 150)), Need("leaf", (120, 280))];
        var visit = Assert.Single(VisitPlan.Of(From, needs).Visits);
        Assert.Equal(["flower"], VisitPlan.LostBy(Of(needs, visit), new DateOnly(2027, 6, 30)));
        Assert.Equal(["flower", "leaf"], VisitPlan.LostBy(Of(needs, visit), new DateOnly(2027, 12, 1)));
    }

    [Theory]
    [InlineData("2026-02-30", "a", 10, 20, "from")]
    [InlineData("", "a", 10, 20, "from")]
    [InlineData("2026-05-01", "", 10, 20, "needs[0].id")]
    [InlineData("2026-05-01", "a", 0, 20, "needs[0].windows[0].from")]
    [InlineData("2026-05-01", "a", 10, 366, "needs[0].windows[0].to")]
    public void WhatCanNotBePlannedIsSaidAtItsPlace(string from, string id, int first, int last, string field) =>
        Assert.Equal(
            field,
            Assert
                .Throws<RequestException>(() =>
                    new VisitsRequest(from, [new RequestedNeed(id, "wood", [new NeedWindow(first, last)])]).Plan()
                )
                .Field
        );

    [Fact]
    public void AnIdGivenTwiceIsSaidAtTheSecond() =>
        Assert.Equal(
            "needs[1].id",
            Assert
                .Throws<RequestException>(() =>
                    new VisitsRequest("2026-05-01", [new RequestedNeed("a", "wood"), new RequestedNeed("a", "moor")]).Plan()
                )
                .Field
        );
}
