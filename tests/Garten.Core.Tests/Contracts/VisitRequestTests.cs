using Garten.Core.Contracts;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Contracts;

/// <summary>Visits, moves, standings and years as they are asked for, and what can't be used said at its place.</summary>
public sealed class VisitRequestTests
{
    private static RequestedNeed Need(string id, string place, params (int From, int To)[] windows) =>
        new(id, place, [.. windows.Select(w => new NeedWindow(w.From, w.To))]);

    private static void Refused(string field, Action ask)
    {
        var wrong = Assert.Throws<RequestException>(ask);
        Assert.Equal(field, wrong.Field);
        Assert.EndsWith(".", wrong.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void TheFewestVisitsAreNamedWithWhatTheyAnswer()
    {
        var plan = new VisitsRequest(
            "2026-05-01",
            [
                Need("flower", "Harrow", (130, 150)),
                Need("leaf", "Harrow", (140, 250)),
                Need("fruit", "Harrow", (260, 280)),
                Need("sap", "Lang Meadow", (1, 365)),
                Need("pollen", "Harrow"),
            ]
        ).Plan();
        Assert.True(plan.Optimal);
        Assert.Equal(["pollen"], plan.Unanswerable);
        Assert.Equal(3, plan.Visits.Count);
        Assert.Equal(["flower", "leaf"], plan.Visits.Single(v => v.Needs.Contains("flower")).Needs.Order());
        Assert.All(plan.Visits, v => Assert.True(v.Earliest <= v.Date && v.Date <= v.Latest && DayOfYear.Of(v.Date) == v.Day));
        Assert.Empty(new VisitsRequest("2026-05-01").Plan().Visits);
    }

    [Fact]
    public void WhatCanNotBePlannedIsSaidAtItsPlace()
    {
        Refused("from", () => new VisitsRequest("").Plan());
        Refused("from", () => new VisitsRequest("2026-02-30").Plan());
        Refused("from", () => new VisitsRequest("0001-01-01").Plan());
        Refused("from", () => new VisitsRequest("9999-12-31").Plan());
        Refused("needs", () => new VisitsRequest("2026-05-01", [.. Enumerable.Repeat(Need("a", "b"), VisitsRequest.MostNeeds + 1)]).Plan());
        Refused("needs[1]", () => new VisitsRequest("2026-05-01", [Need("a", "b"), null!]).Plan());
        Refused("needs[0].id", () => new VisitsRequest("2026-05-01", [Need("", "b")]).Plan());
        Refused("needs[0].id", () => new VisitsRequest("2026-05-01", [Need(new string('x', 201), "b")]).Plan());
        Refused("needs[1].id", () => new VisitsRequest("2026-05-01", [Need("a", "b"), Need("a", "c")]).Plan());
        Refused("needs[0].place", () => new VisitsRequest("2026-05-01", [Need("a", "")]).Plan());
        Refused("needs[0].windows", () => new VisitsRequest("2026-05-01", [Need("a", "b", [.. Enumerable.Repeat((1, 2), 51)])]).Plan());
        Refused("needs[0].windows[1]", () =>
            new VisitsRequest("2026-05-01", [new RequestedNeed("a", "b", [new NeedWindow(1, 2), null!])]).Plan()
        );
        Refused("needs[0].windows[0].from", () => new VisitsRequest("2026-05-01", [Need("a", "b", (0, 2))]).Plan());
        Refused("needs[0].windows[0].to", () => new VisitsRequest("2026-05-01", [Need("a", "b", (1, 366))]).Plan());
    }

    [Fact]
    public void AMovedVisitKeepsWhatIsStillOpen()
    {
        var moved = new MoveVisitRequest(
            "2026-06-30",
            [Need("flower", "Harrow", (130, 150)), Need("leaf", "Harrow", (140, 250)), Need("winter", "Harrow", (350, 20))]
        ).Move();
        Assert.Equal(new DateOnly(2026, 6, 30), moved.Date);
        Assert.Equal(["leaf"], moved.Kept);
        Assert.Equal(["flower", "winter"], moved.Lost.Order());
        Assert.Equal(
            ["winter"],
            new MoveVisitRequest("2027-01-05", [Need("flower", "Harrow", (130, 150)), Need("winter", "Harrow", (350, 20))]).Move().Kept
        );
        Refused("date", () => new MoveVisitRequest("").Move());
        Refused("date", () => new MoveVisitRequest("soon").Move());
        Refused("needs[0].windows[0].from", () => new MoveVisitRequest("2026-06-30", [Need("a", "b", (-1, 2))]).Move());
    }

    [Fact]
    public void QuestionsStandOpenClosedOrLookedAtTooEarly()
    {
        StatusQuestion Ask(string id, string? looked, params (int From, int To)[] windows) =>
            new(id, [.. windows.Select(w => new NeedWindow(w.From, w.To))], looked);
        var told = new QuestionStatusRequest(
            "2026-05-20",
            [
                Ask("open", null, (130, 150)),
                Ask("closed", null, (200, 220)),
                Ask("always", null, (1, 365)),
                Ask("early", "2026-05-01", (130, 150)),
                Ask("no window", null),
            ]
        ).Tell();
        Assert.Equal([true, false, true, true, false], told.Select(t => t.Open));
        Assert.Equal(new DateOnly(2026, 5, 30), told[0].Closes);
        Assert.Null(told[2].Closes);
        Assert.Equal([false, false, false, true, false], told.Select(t => t.TooEarly));
        Assert.Empty(new QuestionStatusRequest("2026-05-20").Tell());
        Refused("date", () => new QuestionStatusRequest("").Tell());
        Refused("questions[0]", () => new QuestionStatusRequest("2026-05-20", [null!]).Tell());
        Refused("questions[0].lookedOn", () => new QuestionStatusRequest("2026-05-20", [Ask("a", "yesterday", (1, 2))]).Tell());
    }

    private static ReadyFlora Ready() =>
        ReadyFlora.Read(
            ReadyFlora.Write(
                new(
                    "isle",
                    "Isle",
                    [
                        SmallFlora.Taxon(
                            "alvena-montis",
                            Core.Floras.TaxonFacts.None with
                            {
                                Cells = ["B2"],
                                Phenology = [new(Phenophase.Flower, 7, 8), new(Phenophase.RipeFruit, 17, 18)],
                            }
                        ) with
                        {
                            Name = "Alvena montis",
                        },
                        SmallFlora.Taxon(
                            "alvena-palus",
                            Core.Floras.TaxonFacts.None with
                            {
                                Cells = ["C3"],
                                Phenology = [new(Phenophase.Flower, 23, 2)],
                            }
                        ) with
                        {
                            Name = "Alvena palus",
                        },
                        SmallFlora.Taxon("alvena", rank: "genus"),
                    ],
                    new(
                        [SmallFlora.States("sap", Core.Characters.Organ.Stem, "clear", "milky")],
                        [
                            SmallFlora.Describe(
                                "alvena-montis",
                                SmallFlora.Is(SmallFlora.States("sap", Core.Characters.Organ.Stem, "clear", "milky"), "milky")
                            ),
                            SmallFlora.Describe(
                                "alvena-palus",
                                SmallFlora.Is(SmallFlora.States("sap", Core.Characters.Organ.Stem, "clear", "milky"), "clear")
                            ),
                        ],
                        SmallFlora.Seasons
                    )
                )
            )
        );

    [Fact]
    public void TheYearOfAListIsThatOfTheFloraShiftedToThePlace()
    {
        var flora = Ready();
        var plain = new SeasonRequest("isle", "2026-04-10").Look(flora);
        Assert.Equal(["alvena-montis", "alvena-palus"], plain.Rows.Select(r => r.Taxon));
        Assert.Null(plain.Spring);
        Assert.Equal(new YearLead(0, 0), plain.Lead);
        Assert.Equal(["alvena-montis"], new SeasonRequest("isle", "2026-04-10", Cell: "b2").Look(flora).Rows.Select(r => r.Taxon));
        Assert.Equal(
            ["alvena-palus"],
            new SeasonRequest("isle", "2026-04-10", ["alvena-palus"], "B2").Look(flora).Rows.Select(r => r.Taxon)
        );
        // 305 m up: 10 days later in spring, 5 for ripe fruit, 10 earlier in autumn.
        var high = new SeasonRequest("isle", "2026-04-10", From: new SeasonSite(57, -11, 0), To: new SeasonSite(57, -11, 305)).Look(flora);
        Assert.Equal((10, 5, -10), (high.Spring!.Days, high.RipeFruit!.Days, high.Autumn!.Days));
        var window = Assert.Single(high.Rows[0].Year.Phases.Single(p => p.Phase == Phenophase.Flower).Windows);
        Assert.Equal(new DayWindow(101, 130), window);
    }

    [Fact]
    public void FirstsMakeTheYearLateOrEarly()
    {
        SeasonFirst First(string taxon, string notYet, string seen) =>
            new(taxon, Phenophase.Flower, DateOnly.Parse(notYet), DateOnly.Parse(seen));
        // Flowers from 1 April on; seen on the 9th, not there on the 5th: 8 days late, drawn to 8·1/(1+3) = 2.
        var year = new SeasonRequest("isle", "2026-04-20", Firsts: [First("Alvena montis", "2026-04-05", "2026-04-09")]).Look(Ready());
        Assert.Equal(new YearLead(2, 1), year.Lead);
        Assert.Equal((8, new DateOnly(2026, 4, 1)), (year.Firsts[0].Days, year.Firsts[0].Expected));
        // Over the new year: from 1 December on, seen on 27 November: 4 days early.
        Assert.Equal(
            -4,
            new SeasonRequest("isle", "2026-12-20", Firsts: [First("Alvena palus", "2026-11-20", "2026-11-27")])
                .Look(Ready())
                .Firsts[0]
                .Days
        );
        // Nobody looked shortly before; a taxon that the flora hasn't: neither counts.
        Assert.Empty(
            new SeasonRequest(
                "isle",
                "2026-04-20",
                Firsts: [First("Alvena montis", "2026-03-01", "2026-04-09"), First("Zedia prima", "2026-04-05", "2026-04-09")]
            )
                .Look(Ready())
                .Firsts
        );
    }

    [Fact]
    public void AYearThatCanNotBeShownIsSaidAtItsPlace()
    {
        var flora = Ready();
        Refused("date", () => new SeasonRequest("isle", "").Look(flora));
        Refused("date", () => new SeasonRequest("isle", "June").Look(flora));
        Refused("taxa", () => new SeasonRequest("isle", "2026-04-10", [.. Enumerable.Repeat("alvena-montis", 3001)]).Look(flora));
        Refused("from", () => new SeasonRequest("isle", "2026-04-10", From: new SeasonSite(91, 0, 0)).Look(flora));
        Refused("to", () => new SeasonRequest("isle", "2026-04-10", To: new SeasonSite(0, 181, 0)).Look(flora));
        Refused("to", () => new SeasonRequest("isle", "2026-04-10", To: new SeasonSite(0, 0, double.NaN)).Look(flora));
        Refused("taxa[1]", () => new SeasonRequest("isle", "2026-04-10", ["alvena-montis", "no-such-taxon"]).Look(flora));
        // A shift goes from one site to another.
        Refused("from", () => new SeasonRequest("isle", "2026-04-10", To: new SeasonSite(57, 0, 10)).Look(flora));
        Refused("to", () => new SeasonRequest("isle", "2026-04-10", From: new SeasonSite(57, 0, 10)).Look(flora));
    }
}
