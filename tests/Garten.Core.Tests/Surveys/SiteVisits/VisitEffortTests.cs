using Garten.Core.Surveys.SiteVisits;
using Xunit;

namespace Garten.Core.Tests.Surveys.SiteVisits;

public sealed class VisitEffortTests
{
    private static VisitPause[] Pauses(string text) =>
        [.. text.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(p => new VisitPause(p.Split('-')[0], p.Split('-')[1]))];

    [Theory]
    [InlineData("09:40", "12:10", "", 1, 150, 0, 150)]
    [InlineData("09:40", "12:10", "10:00-10:30", 2, 150, 30, 240)]
    // Pauses that overlap count once.
    [InlineData("09:00", "12:00", "10:00-10:30 10:20-10:40", 1, 180, 40, 140)]
    [InlineData("09:00", "12:00", "10:20-10:40 10:00-10:50", 1, 180, 50, 130)]
    // What lies outside doesn't count; what still lasts ends with the visit.
    [InlineData("09:00", "12:00", "08:00-09:30 11:30-", 1, 180, 60, 120)]
    [InlineData("09:00", "09:00", "", 3, 0, 0, 0)]
    public void MinutesOfSearchingAddUpOverThePeople(
        string start,
        string end,
        string pauses,
        int people,
        int minutes,
        int paused,
        int personMinutes
    )
    {
        var effort = VisitEffort.Of(start, end, Pauses(pauses), people);
        Assert.Equal(
            (minutes, paused, minutes - paused, people, personMinutes),
            (effort.Minutes, effort.PausedMinutes, effort.SearchMinutes, effort.People, effort.PersonMinutes)
        );
    }

    [Theory]
    [InlineData("", "12:00")]
    [InlineData("09:00", "")]
    [InlineData("9 o’clock", "12:00")]
    public void WithoutBothEndsItIsntKnown(string start, string end)
    {
        var effort = VisitEffort.Of(start, end, [], 2);
        Assert.Null(effort.PersonMinutes);
        Assert.Equal("", effort.InWords());
    }

    [Fact]
    public void ItIsSaidInWords()
    {
        Assert.Equal(
            "2 h 10 min of searching by 2 people (4 h 20 min in all), 20 min of pauses",
            VisitEffort.Of("09:40", "12:10", Pauses("10:00-10:20"), 2).InWords()
        );
        Assert.Equal("1 h of searching", VisitEffort.Of("09:00", "10:00", [], 1).InWords());
    }

    [Theory]
    [InlineData("09:40", "12:10", "10:00-10:20", "")]
    [InlineData("09:40", "", "10:00-", "")]
    [InlineData("", "", "", "")]
    [InlineData("25:00", "", "", "startedAt")]
    [InlineData("09:40", "noon", "", "endedAt")]
    [InlineData("", "12:00", "", "startedAt")]
    [InlineData("12:00", "09:00", "", "endedAt")]
    [InlineData("09:00", "12:00", "10:30-10:00", "pauses")]
    [InlineData("09:00", "12:00", "08:00-10:00", "pauses")]
    [InlineData("09:00", "12:00", "11:00-13:00", "pauses")]
    [InlineData("09:00", "12:00", "x-y", "pauses")]
    [InlineData("", "", "10:00-10:10", "pauses")]
    public void TimesThatCantBeSoAreSaidAtTheirField(string start, string end, string pauses, string field) =>
        Assert.Equal(field, VisitEffort.Problem(start, end, Pauses(pauses))?.Field ?? "");

    // However pauses lie, searching and pauses make up the visit, and a further pause never adds to the searching.
    [Fact]
    public void AFurtherPauseNeverAddsToTheSearching()
    {
        var random = new Random(4);
        string Time() => $"{random.Next(24):00}:{random.Next(60):00}";
        for (var i = 0; i < 500; i++)
        {
            var times = new[] { Time(), Time() }.Order(StringComparer.Ordinal).ToArray();
            var pauses = new List<VisitPause>();
            var before = int.MaxValue;
            for (var k = 0; k < 6; k++)
            {
                var effort = VisitEffort.Of(times[0], times[1], pauses, 2);
                Assert.Equal(effort.Minutes, effort.SearchMinutes + effort.PausedMinutes);
                Assert.InRange(effort.SearchMinutes!.Value, 0, before);
                before = effort.SearchMinutes.Value;
                pauses.Add(new VisitPause(Time(), Time()));
            }
        }
    }
}
