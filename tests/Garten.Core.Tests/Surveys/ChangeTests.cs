using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Xunit;

namespace Garten.Core.Tests.Surveys;

public sealed class ChangeTests
{
    [Fact]
    public void TheMeanOfDifferencesHasStudentsInterval()
    {
        // R: t.test(c(2, -1, 0, 3, 1))$conf.int
        var change = PairedChange.OfMean([2, -1, 0, 3, 1])!;
        Assert.Equal(1, change.Value);
        Assert.Equal(-0.9632432, change.Low!.Value, 6);
        Assert.Equal(2.9632432, change.High!.Value, 6);
        Assert.False(change.IsClear);
        Assert.Equal(new Change(2, null, null), PairedChange.OfMean([2, 2, 2]));
        Assert.Equal(new Change(2, null, null), PairedChange.OfMean([2]));
        Assert.Null(PairedChange.OfMean([]));
    }

    [Fact]
    public void TwoSetsOfSamplesDifferByWelchsAndNewcombesIntervals()
    {
        // R: t.test(c(4, 4, 5, 7), c(1, 2, 3)) has 5 degrees of freedom.
        var mean = IndependentChange.OfMean([1, 2, 3], [4, 4, 5, 7])!;
        var bound = 2.5705818 * Math.Sqrt(1.0 / 3 + 2.0 / 4);
        Assert.Equal(3, mean.Value);
        Assert.Equal(3 - bound, mean.Low!.Value, 6);
        Assert.Equal(3 + bound, mean.High!.Value, 6);
        Assert.Equal(new Change(2, null, null), IndependentChange.OfMean([1], [3, 3]));
        Assert.Null(IndependentChange.OfMean([], [1]));
        // Newcombe 1998, table II, method 10: 56 of 70 and 48 of 80.
        var share = IndependentChange.OfShare(48, 80, 56, 70)!;
        Assert.Equal(0.2, share.Value, 12);
        Assert.Equal(0.0524, share.Low!.Value, 4);
        Assert.Equal(0.3339, share.High!.Value, 4);
        Assert.Null(IndependentChange.OfShare(0, 0, 1, 2));
    }

    [Theory]
    [InlineData(30, 0.5, 20, 0.3)]
    [InlineData(15, 0.1, 40, 0.2)]
    public void IntervalsOfIndependentSharesHoldNinetyFiveInAHundred(int first, double p1, int second, double p2)
    {
        var draw = new SeededDraw(23);
        const int times = 4000;
        var held = 0;
        for (var i = 0; i < times; i++)
        {
            var a = Enumerable.Range(0, first).Count(_ => draw.Share() < p1);
            var b = Enumerable.Range(0, second).Count(_ => draw.Share() < p2);
            var change = IndependentChange.OfShare(a, first, b, second)!;
            held += change.Low <= p2 - p1 && p2 - p1 <= change.High ? 1 : 0;
        }
        Assert.InRange((double)held / times, 0.935, 0.975);
    }

    [Fact]
    public void AShareThatDidNotChangeSaysHowFarItMayHave()
    {
        var change = PairedChange.OfShare(5, 0, 0, 5)!;
        Assert.Equal(0, change.Value);
        Assert.True(change.Low < 0 && change.High > 0);
        Assert.True(PairedChange.OfShare(0, 0, 20, 0)!.IsClear);
        Assert.Null(PairedChange.OfShare(0, 0, 0, 0));
        // Turned round, the interval is turned round.
        var (there, back) = (PairedChange.OfShare(4, 1, 6, 9)!, PairedChange.OfShare(4, 6, 1, 9)!);
        Assert.Equal(there.Low!.Value, -back.High!.Value, 12);
        Assert.Equal(there.High!.Value, -back.Low!.Value, 12);
    }

    [Theory]
    [InlineData(30, 0.5, 0.3, 0.1)]
    [InlineData(20, 0.2, 0.1, 0.1)]
    [InlineData(50, 0.7, 0.1, 0.05)]
    public void IntervalsOfSharesHoldNinetyFiveInAHundred(int plots, double both, double lost, double gained)
    {
        var draw = new SeededDraw(22);
        const int times = 4000;
        var held = 0;
        for (var i = 0; i < times; i++)
        {
            var (a, b, c) = (0, 0, 0);
            for (var p = 0; p < plots; p++)
            {
                var at = draw.Share();
                if (at < both)
                    a++;
                else if (at < both + lost)
                    b++;
                else if (at < both + lost + gained)
                    c++;
            }
            var change = PairedChange.OfShare(a, b, c, plots - a - b - c)!;
            held += change.Low <= gained - lost && gained - lost <= change.High ? 1 : 0;
        }
        Assert.InRange((double)held / times, 0.94, 0.99);
    }

    [Fact]
    public void TurnoverIsTheShareOfTaxaOfOneListAlone()
    {
        HashSet<string> one = ["a", "b", "c"],
            other = ["b", "c", "d", "e", "f"];
        Assert.Equal(0.5, PairedChange.Turnover(one, other));
        Assert.Equal(0, PairedChange.Turnover(one, one));
        Assert.Null(PairedChange.Turnover(new HashSet<string>(), new HashSet<string>()));
    }

    [Fact]
    public void ASurveyIsAsLargeAsWhatItIsToSee()
    {
        // R: power.t.test(delta = 1, sd = 2, power = 0.8, type = "paired") gives 33.37.
        Assert.InRange(SurveyDesign.PlotsFor(2, 1)!.Value, 33, 35);
        Assert.True(SurveyDesign.PlotsFor(2, 0.5) > 3 * SurveyDesign.PlotsFor(2, 1));
        Assert.Null(SurveyDesign.PlotsFor(2, 0));
        Assert.Null(SurveyDesign.PlotsFor(1000, 0.001));
        // What a number of plots sees is what that number is needed for.
        var plots = SurveyDesign.PlotsFor(2, 1)!.Value;
        Assert.True(SurveyDesign.ChangeSeenBy(plots, 2) <= 1 && SurveyDesign.ChangeSeenBy(plots - 1, 2) > 1);
        Assert.Null(SurveyDesign.ChangeSeenBy(1, 2));
        Assert.Null(SurveyDesign.ChangeSeenBy(3, 1.7e308));
        Assert.Null(SurveyDesign.VisitsFor(1e-300, 0.95));
        Assert.Equal(6, SurveyDesign.VisitsFor(0.4, 0.95));
        Assert.Equal(1, SurveyDesign.VisitsFor(0.95, 0.95));
        Assert.Null(SurveyDesign.VisitsFor(0, 0.95));
    }
}
