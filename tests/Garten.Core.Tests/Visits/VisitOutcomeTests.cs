using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Seasons;
using Garten.Core.Visits;
using Xunit;

namespace Garten.Core.Tests.Visits;

public sealed class VisitOutcomeTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);

    private static OpenNeed Need(string id, params DayWindow[] windows) => new(id, "", id, windows);

    private static DayWindow Window(int fromMonth, int fromDay, int toMonth, int toDay) =>
        new(DayOfYear.Of(new DateOnly(2026, fromMonth, fromDay)), DayOfYear.Of(new DateOnly(2026, toMonth, toDay)));

    [Fact]
    public void WhatIsGoneWasAnsweredAndWhatHasClosedHasSlipped()
    {
        var flower = Need("flower", Window(6, 1, 7, 31));
        var bud = Need("bud", Window(10, 16, 4, 15));
        var outcome = VisitOutcome.Of(
            [flower, Need("leaf", Window(5, 1, 9, 1))],
            [flower, bud, Need("laboratory")],
            new DateOnly(2026, 5, 3),
            Today
        );
        Assert.Equal(["leaf"], outcome.Answered.Select(n => n.Id));
        var slipped = Assert.Single(outcome.Slipped);
        Assert.Equal(("flower", new DateOnly(2026, 7, 31), new DateOnly(2027, 6, 1)), (slipped.Need.Id, slipped.Closed, slipped.Again));
    }

    [Fact]
    public void AWindowThatClosedBeforeTheLookHasNotSlippedSince() =>
        Assert.Empty(VisitOutcome.Of([], [Need("flower", Window(6, 1, 7, 31))], new DateOnly(2026, 8, 1), Today).Slipped);

    [Fact]
    public void AWindowOverTheNewYearSlipsInTheYearInWhichItCloses()
    {
        var bud = Need("bud", Window(12, 1, 2, 28));
        Assert.Empty(VisitOutcome.Of([], [bud], new DateOnly(2026, 11, 1), new DateOnly(2027, 1, 10)).Slipped);
        Assert.Equal(
            new DateOnly(2027, 2, 28),
            VisitOutcome.Of([], [bud], new DateOnly(2026, 11, 1), new DateOnly(2027, 3, 1)).Slipped.Single().Closed
        );
    }

    [Fact]
    public void AQuestionStandsOpenUntilTheLastOfItsWindowsCloses()
    {
        DayWindow[] windows = [Window(11, 1, 11, 30), Window(10, 15, 1, 20), Window(5, 1, 5, 31)];
        Assert.Equal(new NeedStatus(true, new DateOnly(2027, 1, 20), true), NeedStatus.Of(windows, Today, new DateOnly(2026, 7, 1)));
        Assert.Equal(new NeedStatus(true, new DateOnly(2027, 1, 20), false), NeedStatus.Of(windows, Today, new DateOnly(2026, 5, 10)));
        Assert.Equal(new NeedStatus(true, Today, false), NeedStatus.Of([Window(11, 1, 11, 25)], Today));
        Assert.Equal(new NeedStatus(false, null, false), NeedStatus.Of([Window(5, 1, 5, 31)], Today, Today));
        Assert.Equal(new NeedStatus(true, null, false), NeedStatus.Of([new DayWindow(1, DayOfYear.Days)], Today, Today));
        Assert.Equal(new NeedStatus(false, null, false), NeedStatus.Of([], Today));
    }

    [Fact]
    public void StandingsAreToldQuestionByQuestion()
    {
        var request = new QuestionStatusRequest(
            "2026-11-25",
            [new StatusQuestion("a", [new NeedWindow(300, 20)], "2026-05-01"), new StatusQuestion("b", [new NeedWindow(1, 10)])]
        );
        Assert.Equal(
            [new QuestionStatus("a", true, new DateOnly(2027, 1, 20), true), new QuestionStatus("b", false, null, false)],
            request.Tell()
        );
        Assert.Equal(
            "questions[1].id",
            Assert
                .Throws<RequestException>(() =>
                    new QuestionStatusRequest("2026-11-25", [new StatusQuestion("a"), new StatusQuestion("a")]).Tell()
                )
                .Field
        );
        Assert.Equal(
            "questions[0].lookedOn",
            Assert
                .Throws<RequestException>(() => new QuestionStatusRequest("2026-11-25", [new StatusQuestion("a", [], "May")]).Tell())
                .Field
        );
        Assert.Equal(
            "questions[0].windows[0].from",
            Assert
                .Throws<RequestException>(() =>
                    new QuestionStatusRequest("2026-11-25", [new StatusQuestion("a", [new NeedWindow(0, 5)])]).Tell()
                )
                .Field
        );
    }

    [Fact]
    public void AMovedVisitSaysWhatItKeepsAndWhatItLoses()
    {
        var needs = new[]
        {
            new RequestedNeed("a", "p", [new NeedWindow(100, 150)]),
            new RequestedNeed("b", "q", [new NeedWindow(140, 200), new NeedWindow(300, 20)]),
            new RequestedNeed("c", "p", []),
        };
        var moved = new MoveVisitRequest("2026-06-09", needs).Move();
        Assert.Equal(["b"], moved.Kept);
        Assert.Equal(["a", "c"], moved.Lost);
        Assert.Equal(["b"], new MoveVisitRequest("2027-01-15", needs).Move().Kept);
        Assert.Equal("date", Assert.Throws<RequestException>(() => new MoveVisitRequest("", needs).Move()).Field);
    }
}
