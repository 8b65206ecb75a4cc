using Garten.Core.Seasons;
using Xunit;

namespace Garten.Core.Tests.Seasons;

public sealed class DayWindowTests
{
    [Theory]
    [InlineData("2026-01-01", 1)]
    [InlineData("2026-02-28", 59)]
    [InlineData("2026-03-01", 60)]
    [InlineData("2026-12-31", 365)]
    [InlineData("2028-02-28", 59)]
    [InlineData("2028-02-29", 59)]
    [InlineData("2028-03-01", 60)]
    [InlineData("2028-12-31", 365)]
    public void ADayOfTheYearIsTheSameDateInLeapYears(string date, int day) => Assert.Equal(day, DayOfYear.Of(DateOnly.Parse(date)));

    [Theory]
    [InlineData("2026-11-25", 329, "2026-11-25")]
    [InlineData("2026-11-25", 330, "2026-11-26")]
    [InlineData("2026-11-25", 328, "2027-11-24")]
    [InlineData("2026-11-25", 1, "2027-01-01")]
    [InlineData("2027-11-25", 60, "2028-03-01")]
    [InlineData("2028-02-29", 59, "2028-02-29")]
    [InlineData("2028-02-29", 58, "2029-02-27")]
    [InlineData("2028-03-01", 59, "2029-02-28")]
    public void TheNextDateOfADayIsWithinAYear(string from, int day, string date) =>
        Assert.Equal(DateOnly.Parse(date), DayOfYear.Next(DateOnly.Parse(from), day));

    [Theory]
    [InlineData(340, 20, 46)]
    [InlineData(100, 100, 1)]
    [InlineData(100, 99, 365)]
    [InlineData(1, 365, 365)]
    public void AWindowMayRunOverTheNewYear(int from, int to, int length)
    {
        var window = new DayWindow(from, to);
        Assert.Equal(length, window.Length);
        Assert.Equal(length, Enumerable.Range(1, DayOfYear.Days).Count(window.Holds));
        Assert.True(window.Holds(from) && window.Holds(to));
    }

    [Fact]
    public void AboveTheTreeLineAWindowMovesPastTheEndOfTheYear()
    {
        // 1,830 m higher is 60 days later: fruit of late November to mid December ripens half of that later, in the next year.
        var shift = SeasonShift.Between(new(57, -11, 0), new(57, -11, 1830), Phenophase.RipeFruit);
        Assert.Equal(30, shift.Days);
        Assert.Equal(new DayWindow(358, 15), new DayWindow(328, 350).Shifted(shift.Days));
        Assert.Equal(new DayWindow(328, 350), new DayWindow(358, 15).Shifted(-shift.Days));
    }

    [Theory]
    [InlineData(1, 2, 1, 31)]
    [InlineData(20, 7, 289, 105)]
    [InlineData(24, 24, 350, 365)]
    [InlineData(4, 4, 47, 59)]
    public void HalfMonthsAreDays(int from, int to, int first, int last) =>
        Assert.Equal(new DayWindow(first, last), DayWindow.OfHalfMonths(from, to));

    // 2° north: 8 days; 5° east: 4 days; 244 m higher: 8 days. Together 20 for a flower, 10 for ripe fruit, and autumn comes 20 earlier.
    [Theory]
    [InlineData(Phenophase.Flower, 20)]
    [InlineData(Phenophase.YoungFruit, 20)]
    [InlineData(Phenophase.RipeFruit, 10)]
    [InlineData(Phenophase.AutumnColour, -20)]
    public void SpringComesLaterNorthEastAndUp(Phenophase phase, int days)
    {
        var shift = SeasonShift.Between(new(57, -11, 20), new(59, -6, 264), phase);
        Assert.Equal(days, shift.Days);
        Assert.Equal([8d, 4d, 8d], shift.Parts.Select(p => Math.Round(p.Days, 9)));
        Assert.Equal(-days, SeasonShift.Between(new(59, -6, 264), new(57, -11, 20), phase).Days);
    }

    [Fact]
    public void SouthOfTheEquatorThePoleLiesSouthAndTheSeasonsHalfAYearApart()
    {
        Assert.Equal(8, SeasonShift.Between(new(-40, 0, 0), new(-42, 0, 0), Phenophase.Flower).Days);
        Assert.Equal(-8, SeasonShift.Between(new(-42, 0, 0), new(-40, 0, 0), Phenophase.Flower).Days);
        // 182.5 days, and 4 more for one degree nearer to the pole.
        Assert.Equal(187, SeasonShift.Between(new(40, 0, 0), new(-41, 0, 0), Phenophase.Flower).Days);
    }

    [Fact]
    public void TheShortWayRoundTheEarthCounts() =>
        Assert.Equal(8, SeasonShift.Between(new(57, 175, 0), new(57, -175, 0), Phenophase.Flower).Days);

    [Fact]
    public void TheLeadOfAYearIsTheMedianOfItsFirstsDrawnToNothing()
    {
        Assert.Equal(new YearLead(0, 0), YearLead.Of([]));
        // One first 8 days late counts for a quarter; three of 4, 6 and 20 days for half of their median.
        Assert.Equal(new YearLead(2, 1), YearLead.Of([8]));
        Assert.Equal(new YearLead(3, 3), YearLead.Of([20, 4, 6]));
        // Median 5 of four: 5 · 4/7.
        Assert.Equal(20 / 7d, YearLead.Of([4, 6, -3, 20]).Days, 12);
        Assert.Equal(22, SeasonShift.Between(new(57, -11, 20), new(59, -6, 264), Phenophase.Flower, lead: 2).Days);
    }

    [Theory]
    [InlineData(null, "2026-05-10", false)]
    [InlineData("2026-04-30", "2026-05-10", true)]
    [InlineData("2026-04-29", "2026-05-10", false)]
    [InlineData("2026-05-10", "2026-05-10", false)]
    public void AFirstIsOneOnlyShortlyBehindANotYet(string? notYet, string seen, bool isFirst) =>
        Assert.Equal(isFirst, YearLead.IsFirst(notYet is null ? null : DateOnly.Parse(notYet), DateOnly.Parse(seen)));
}
