using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Visits;
using Xunit;

namespace Garten.Core.Tests.Contracts;

/// <summary>What to do on a day, and how what is open stands on it.</summary>
public sealed class TodayTests
{
    private const string Day = "2026-06-10";
    private static readonly int Today = DayOfYear.Of(new DateOnly(2026, 6, 10));
    private static readonly Place Mire = NewPlace("Mire");
    private static readonly Place Cliff = NewPlace("Cliff");

    private static Place NewPlace(string name) => new(Guid.CreateVersion7(), name, "Torvane", 57, -11, 50, "");

    private static OpenPlant Plant(Place at, string label, DateOnly lookedOn, params (int From, int To)[] windows) =>
        new(
            Guid.CreateVersion7(),
            label,
            at.Id,
            at.Name,
            "",
            "Alvena montis",
            Grade.Reasoned,
            [new OpenNeed("n", "petals", "Count the petals.", [.. windows.Select(w => new DayWindow(w.From, w.To))])],
            [],
            lookedOn,
            new VisitOutcome([], [])
        );

    private static PopulationDetail Population(Place at, params Threat[] threats) =>
        new(
            Guid.CreateVersion7(),
            "east bank",
            "Alvena palus",
            at,
            "",
            [],
            [],
            threats,
            new PopulationSummary([], [], [], [new OpenNeed("count", "", "Count again.", [new DayWindow(1, 365)])], []),
            []
        );

    [Fact]
    public void WhatClosesWithinTwoWeeksComesFirstAndTheSoonestAtTheFront()
    {
        var may = new DateOnly(2026, 5, 1);
        var answer = new TodayRequest(
            Day,
            [
                Plant(Mire, "in fourteen days", new DateOnly(2026, 6, 1), (Today - 20, Today + 14)),
                Plant(Mire, "today", new DateOnly(2026, 6, 1), (Today - 20, Today)),
                Plant(Mire, "in fifteen days", new DateOnly(2026, 6, 1), (Today - 20, Today + 15)),
                Plant(Cliff, "too early", may, (Today - 2, Today + 40)),
                Plant(Cliff, "not now", may, (Today + 1, Today + 40)),
            ],
            [Population(Mire)]
        ).Tell();
        Assert.Equal(6, answer.Questions);
        Assert.Equal(["today", "in fourteen days"], answer.Closing.Select(q => q.Question.Label));
        Assert.Equal(["too early"], answer.TooEarly.Select(q => q.Question.Label));
        Assert.Equal(["in fifteen days", "east bank"], answer.Rest.Select(q => q.Question.Label));
        Assert.Equal(("Mire", 4), (answer.Best!.PlaceName, answer.Best.Subjects));
    }

    [Fact]
    public void TheNextVisitIsTheFirstThatCantBeMadeToday()
    {
        var request = new TodayRequest(
            Day,
            [
                Plant(Mire, "now", new DateOnly(2026, 6, 1), (Today, Today + 5)),
                Plant(Cliff, "later", new DateOnly(2026, 6, 1), (Today + 30, Today + 40)),
            ],
            []
        );
        var next = Assert.Single(request.Next());
        Assert.Equal("Cliff", next.PlaceName);
        Assert.InRange(next.Date, new DateOnly(2026, 7, 10), new DateOnly(2026, 7, 20));
        Assert.Empty(new TodayRequest(Day, [], []).Next());
    }

    [Fact]
    public void ThreatsThatHaveToBeActedOnWithinFourWeeksAreTold()
    {
        Threat Threat(string text, DateOnly? by, string dealtWith = "") =>
            new(Guid.CreateVersion7(), new DateOnly(2026, 5, 1), text, by, dealtWith);
        var answer = new TodayRequest(
            Day,
            [],
            [
                Population(
                    Mire,
                    Threat("late", new DateOnly(2026, 7, 8)),
                    Threat("too late", new DateOnly(2026, 7, 9)),
                    Threat("passed", new DateOnly(2026, 6, 1)),
                    Threat("dealt with", new DateOnly(2026, 6, 12), "fenced"),
                    Threat("no day", null)
                ),
            ]
        ).Tell();
        Assert.Equal(["passed", "late"], answer.Threats.Select(t => t.Threat.Text));
    }

    [Fact]
    public void TheWeeksToComeTellWhatOpensAndWhatCloses()
    {
        var on = new DateOnly(2026, 6, 1);
        var answer = new TodayRequest(
            Day,
            [
                Plant(Mire, "opens today", on, (Today, Today + 6)),
                Plant(Mire, "opens in the second week", on, (Today + 7, Today + 13)) with
                {
                    Name = "Alvena palus",
                },
                Plant(Mire, "open all year", on, (1, 365)) with
                {
                    Name = "Alvena semper",
                },
                Plant(Mire, "around the year", on, (Today - 10, Today - 12)) with
                {
                    Name = "Alvena longa",
                },
            ],
            []
        ).Tell();
        Assert.Equal(8, answer.Weeks.Count);
        Assert.Equal(new DateOnly(2026, 6, 17), answer.Weeks[1].From);
        Assert.Empty(answer.Weeks[0].Opens);
        Assert.Equal(["Alvena montis"], answer.Weeks[0].Closes);
        Assert.Equal(["Alvena palus"], answer.Weeks[1].Opens);
        Assert.Equal(["Alvena palus"], answer.Weeks[1].Closes);
        Assert.All(answer.Weeks.Skip(2), w => Assert.Empty(w.Opens.Concat(w.Closes)));
    }

    [Fact]
    public void AListInShortHasTheFirstPlantsAndSaysHowManyThereAre()
    {
        var plants = Enumerable.Range(0, 9).Select(i => Plant(Mire, $"plant {i}", new DateOnly(2026, 6, 1), (Today, Today + i)));
        var whole = new TodayRequest(Day, [.. plants], [Population(Cliff)]).Tell();
        var answer = whole.First(2);
        Assert.Equal(["plant 0", "plant 1"], answer.Closing.Select(q => q.Question.Label));
        Assert.Equal(new TodayCounts(9, 9, 0, 1), answer.Counts);
        Assert.Equal(whole.Rest, answer.Rest);
    }

    [Fact]
    public void ADayThatIsNoneIsSaidAtItsField()
    {
        Assert.Equal("date", Assert.Throws<RequestException>(() => new TodayRequest("2026-02-30", [], []).Tell()).Field);
        Assert.Equal("date", Assert.Throws<RequestException>(() => new QuestionsRequest("", [], []).Tell()).Field);
        Assert.Equal("date", Assert.Throws<RequestException>(() => new DaysRequest("soon", []).Tell()).Field);
    }

    [Theory]
    [InlineData("2026-06-24", 14, true, false)]
    [InlineData("2026-06-25", 15, false, false)]
    [InlineData("2026-06-09", -1, true, false)]
    [InlineData("2025-12-12", -180, true, false)]
    [InlineData("2025-12-11", -181, true, true)]
    public void DaysAreNearOrLongAgo(string date, int ahead, bool soon, bool longAgo) =>
        Assert.Equal(
            new DayDistance("x", ahead, soon, longAgo),
            Assert.Single(new DaysRequest(Day, [new NamedDay("x", DateOnly.Parse(date, null))]).Tell())
        );

    [Fact]
    public void OwnPlantsAreConfirmedOnesBeforeOthersAndTheNearestOfThem()
    {
        RecordLine Line(Place at, string label, Grade? grade = null, params string[] names) =>
            new(
                Guid.CreateVersion7(),
                Guid.CreateVersion7(),
                label,
                at.Id,
                at.Name,
                new DateOnly(2026, 5, 1),
                "Ada",
                names.Length > 0 ? string.Join(" or ", names) : "Alvena montis",
                names.Length > 0 ? names : ["Alvena montis"],
                1,
                1,
                "",
                grade
            );
        var far = Mire with { Id = Guid.CreateVersion7(), Latitude = 57.1 };
        var own = Line(Mire, "itself", Grade.Verified);
        var found = new OwnPlantsRequest(
            [
                new OwnRecords(
                    "alvena-montis",
                    "Alvena montis",
                    [
                        own,
                        Line(Mire, "near", Grade.Reasoned),
                        Line(far, "far and confirmed", Grade.Confirmed),
                        Line(Mire, "an open set", Grade.Confirmed, "Alvena montis", "Alvena palus"),
                    ]
                ),
                new OwnRecords("alvena-palus", "Alvena palus", []),
            ],
            [Mire, far],
            Mire.Id.ToString(),
            own.PlantId
        ).Find();
        var it = Assert.Single(found);
        Assert.Equal(("far and confirmed", "11.1 km"), (it.Record.PlantLabel, it.Away));
        // A degree of latitude is 111.2 km on a sphere of 6371.0088 km.
        Assert.Equal(11_119.5, it.Metres!.Value, 0.5);
    }

    [Fact]
    public void LooksAreToldInWordsAndThoseThatAreSupersededAreNot()
    {
        Observation Look(Outcome outcome = Outcome.Seen, Guid? supersedes = null, bool withdrawn = false, params string[] states) =>
            new(
                Guid.CreateVersion7(),
                "hairs",
                outcome,
                states,
                false,
                [],
                0,
                0,
                Sureness.Fairly,
                new ObservationContext(Position.Low, Light.Shade, Age: PartAge.Young),
                Core.Characters.Tool.Lens,
                "2026-06-01",
                "",
                supersedes,
                withdrawn
            );
        var (first, gone) = (Look(states: ["dense"]), Look(states: ["none"]));
        var told = new LooksRequest(
            [
                first,
                Look(supersedes: first.Id, states: ["sparse", "none"]),
                gone,
                Look(supersedes: gone.Id, withdrawn: true),
                Look(Outcome.NotFound),
            ],
            []
        ).Tell();
        Assert.Equal(["sparse or none", "looked for, not found"], told.Select(t => t.Seen));
        Assert.All(told, t => Assert.Equal("fairly sure · in the shade · low on the plant · young part · by lens", t.Manner));
        Assert.All(told, t => Assert.False(t.IsPlain));
        Assert.Equal("sure · by eye", new MannerRequest(Sureness.Sure, new ObservationContext(), Core.Characters.Tool.Eye).Tell());
    }

    [Theory]
    [InlineData("split boulder", 44d, 12.5, "Under it.", "12.5 m north-east (44°) of the split boulder. Under it.")]
    [InlineData("gate", 359d, 3d, "", "3 m north (359°) of the gate")]
    [InlineData("gate", null, 3d, "", "by the gate")]
    [InlineData("", 90d, 3d, "By the path", "By the path")]
    [InlineData("", null, null, "", "")]
    public void HowToFindAPlantIsSaidInWords(string landmark, double? bearing, double? metres, string note, string words) =>
        Assert.Equal(words, new Finding(landmark, bearing, metres, note).InWords());
}
