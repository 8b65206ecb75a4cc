using Garten.Core.Grounds;
using Garten.Core.Surveys.Plots;
using Xunit;

namespace Garten.Core.Tests.Surveys.Plots;

public sealed class PlotLayingTests
{
    // Some 600 metres by 1,100, its eastern half a third as long as its western one.
    private static readonly GroundPoint[] West = [new(57, -11.01), new(57, -11.005), new(57.01, -11.005), new(57.01, -11.01)];
    private static readonly GroundPoint[] East = [new(57, -11.005), new(57, -11), new(57.0034, -11), new(57.0034, -11.005)];
    private static readonly GroundPoint[] Outline =
    [
        new(57, -11.01),
        new(57, -11),
        new(57.0034, -11),
        new(57.0034, -11.005),
        new(57.01, -11.005),
        new(57.01, -11.01),
    ];

    private static GroundDescription Ground(params GroundPart[] parts) => GroundDescription.None with { Outline = Outline, Parts = parts };

    private static GroundPart Part(string name, GroundPoint[] outline) => new(name, "", "", "", "", "", null, outline);

    [Theory]
    [InlineData(1)]
    [InlineData(40)]
    [InlineData(long.MinValue)]
    public void PlotsLieWithinAndApartAndTheSameAgain(long seed)
    {
        var (spots, problem) = PlotLaying.Lay(Ground(), PlotPlacing.Random, 30, 25, seed);
        Assert.Equal("", problem);
        Assert.Equal(30, spots.Count);
        Assert.All(spots, s => Assert.True(Ring.Holds(Outline, s.At)));
        for (var i = 0; i < spots.Count; i++)
            Assert.All(spots.Skip(i + 1), other => Assert.True(Ring.Metres(spots[i].At, other.At) >= 25));
        Assert.Equal(spots, PlotLaying.Lay(Ground(), PlotPlacing.Random, 30, 25, seed).Spots);
        Assert.NotEqual(spots, PlotLaying.Lay(Ground(), PlotPlacing.Random, 30, 25, seed ^ 5).Spots);
    }

    [Fact]
    public void EverySpotIsAsProbable()
    {
        var (spots, _) = PlotLaying.Lay(Ground(), PlotPlacing.Random, 1000, 0, 7);
        // The western half has 2.94 times the area of the eastern one: of 1,000 plots 746 are to be expected there, give or take 41 (3 s).
        Assert.InRange(spots.Count(s => Ring.Holds(West, s.At)), 705, 787);
    }

    [Fact]
    public void StrataGetPlotsByTheirAreas()
    {
        var (spots, problem) = PlotLaying.Lay(Ground(Part("hay", West), Part("ditch", East)), PlotPlacing.Stratified, 20, 0, 3);
        Assert.Equal("", problem);
        Assert.Equal((14, 6), (spots.Count(s => s.Part == "hay"), spots.Count(s => s.Part == "ditch")));
        Assert.All(spots, s => Assert.True(Ring.Holds(s.Part == "hay" ? West : East, s.At)));
    }

    [Fact]
    public void AGridHasOneDistance()
    {
        var (spots, problem) = PlotLaying.Lay(Ground(), PlotPlacing.Systematic, 25, 0, 11);
        Assert.Equal("", problem);
        Assert.InRange(spots.Count, 23, 27);
        var nearest = spots.Select(s => spots.Where(o => o != s).Min(o => Ring.Metres(s.At, o.At))).ToList();
        Assert.InRange(nearest.Max() / nearest.Min(), 1, 1.01);
    }

    [Fact]
    public void WhatCantBeLaidIsSaid()
    {
        Assert.Contains("no boundary", PlotLaying.Lay(GroundDescription.None, PlotPlacing.Random, 3, 0, 1).Problem);
        Assert.Contains("No part", PlotLaying.Lay(Ground(), PlotPlacing.Stratified, 3, 0, 1).Problem);
        Assert.Contains("room for", PlotLaying.Lay(Ground(), PlotPlacing.Random, 200, 200, 1).Problem);
        Assert.Contains("needs a plot", PlotLaying.Lay(Ground(Part("a", West), Part("b", East)), PlotPlacing.Stratified, 1, 0, 1).Problem);
        Assert.Contains("1 to 1,000", PlotLaying.Lay(Ground(), PlotPlacing.Random, 0, 0, 1).Problem);
        Assert.Contains("one by one", PlotLaying.Lay(Ground(), PlotPlacing.Chosen, 3, 0, 1).Problem);
    }
}
