using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Xunit;

namespace Garten.Core.Tests.Surveys;

public sealed class IndicatorTests
{
    private static readonly string[] Groups = ["hay", "hay", "hay", "ditch", "ditch"];

    private static Community Table(params double[][] taxa) =>
        new(
            ["1", "2", "3", "4", "5"],
            [.. taxa.Select((_, i) => ((char)('a' + i)).ToString())],
            [.. Enumerable.Range(0, 5).Select(s => taxa.Select(t => t[s]).ToArray())]
        );

    [Fact]
    public void ItIsSpecificityTimesFidelity()
    {
        // By hand: in hay the mean of a is 4, in ditch 1: 0.8 of it stands in hay, in two of three samples.
        var all = IndicatorValue.Of(Table([6, 6, 0, 1, 1], [0, 0, 0, 2, 5], [1, 1, 1, 1, 1]), Groups, 1);
        Assert.Equal(("hay", 0.8, 2.0 / 3), (all[0].Group, all[0].Specificity, all[0].Fidelity));
        Assert.Equal(0.8 * 2 / 3, all[0].Value, 12);
        Assert.Equal(("ditch", 1.0), (all[1].Group, all[1].Value));
        Assert.Equal(0.5, all[2].Value, 12);
        // What is everywhere alike stands for nothing, however the samples are put.
        Assert.Equal(1, all[2].P);
        // Of five samples the two of ditch are drawn in one of ten ways; none other does as well.
        Assert.InRange(all[1].P, 0.07, 0.13);
    }

    [Fact]
    public void TheSameSeedSaysTheSame()
    {
        var table = Table([6, 6, 0, 1, 1], [0, 3, 0, 2, 5]);
        Assert.Equal(IndicatorValue.Of(table, Groups, 5), IndicatorValue.Of(table, Groups, 5));
        Assert.Empty(IndicatorValue.Of(table, ["all", "all", "all", "all", "all"], 5));
        Assert.Throws<ArgumentException>(() => IndicatorValue.Of(table, ["hay"], 5));
    }

    [Fact]
    public void WithoutADifferenceFewComeOut()
    {
        var draw = new SeededDraw(9);
        var samples = Enumerable.Range(0, 30).Select(i => $"{i}").ToArray();
        var taxa = Enumerable.Range(0, 200).Select(i => $"t{i}").ToArray();
        var table = new Community(
            samples,
            taxa,
            [.. samples.Select(_ => taxa.Select(_ => draw.Share() < 0.5 ? 1.0 + draw.Below(9) : 0).ToArray())]
        );
        string[] groups = [.. samples.Select((_, i) => i % 2 == 0 ? "a" : "b")];
        var clear = IndicatorValue.Of(table, groups, 3).Count(i => i.P <= 0.05);
        // One in twenty of 200, give or take 3 standard deviations.
        Assert.InRange(clear, 1, 20);
    }

    [Fact]
    public void ConstancyIsInFifths()
    {
        Assert.Equal(
            [0, 1, 1, 2, 3, 5, 5],
            [Class(0, 10), Class(1, 10), Class(2, 10), Class(3, 10), Class(5, 10), Class(9, 10), Class(10, 10)]
        );
        Assert.Equal(0, Class(0, 0));
        var rows = TaxonFrequency.Of(Table([6, 6, 0, 1, 1], [0, 0, 0, 0, 5]), Groups, isAmount: true);
        Assert.Equal(["a", "b"], rows.Select(r => r.Taxon));
        Assert.Equal((2, 3, 4.0), (rows[0].Groups[0].Found, rows[0].Groups[0].Of, rows[0].Groups[0].Mean));
        static int Class(int found, int of) => TaxonFrequency.ClassOf(found, of);
    }
}
