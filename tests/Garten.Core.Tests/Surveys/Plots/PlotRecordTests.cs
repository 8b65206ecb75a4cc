using Garten.Core.Surveys.Plots;
using Xunit;

namespace Garten.Core.Tests.Surveys.Plots;

public sealed class PlotRecordTests
{
    private static readonly SurveyProtocol Squares = new(
        PlotKind.Quadrat,
        PlotShape.Square,
        4,
        0,
        PlotScale.Percent,
        RootingRule.Rooted,
        EdgeRule.TwoSides,
        ["shrubs", "herbs"]
    );

    private static readonly SurveyProtocol Points = Squares with
    {
        Kind = PlotKind.PointTransect,
        Shape = PlotShape.Line,
        SquareMetres = 0,
        Pins = 50,
        Scale = PlotScale.Hits,
        Layers = [],
    };

    private static PlotRecord Record(params PlotFind[] finds) =>
        new(Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), new DateOnly(2026, 6, 14), "Tove", 1, finds, []);

    [Fact]
    public void OfOneTaxonInOneLayerThereIsNoMoreThanAllOfIt()
    {
        Assert.Null(Record(new PlotFind("Alvena alba", "herbs", 90), new PlotFind("Brontia lenta", "herbs", 80)).Problem(Squares));
        Assert.Contains("up to 100 %", Record(new PlotFind("Alvena alba", "herbs", 101)).Problem(Squares)!.Value.Message);
        Assert.Equal("finds[1]", Record(new PlotFind("A", "herbs", 5), new PlotFind("B", "herbs", 0)).Problem(Squares)!.Value.Field);
        Assert.Contains(
            "twice",
            Record(new PlotFind("Alvena alba", "herbs", 4), new PlotFind("Alvena alba", "herbs", 7)).Problem(Squares)!.Value.Message
        );
        Assert.Null(Record(new PlotFind("Alvena alba", "herbs", 4), new PlotFind("Alvena alba", "shrubs", 7)).Problem(Squares));
        Assert.Contains("no layer", Record(new PlotFind("Alvena alba", "mosses", 4)).Problem(Squares)!.Value.Message);
        Assert.Contains("0 to 100", (Record() with { BareGround = double.NaN }).Problem(Squares)!.Value.Message);
    }

    [Fact]
    public void FirstHitsAreNoMoreThanPinsAndAllHitsMayBe()
    {
        Assert.Null(Record(new PlotFind("A", FirstHits: 30, Hits: 90), new PlotFind("B", FirstHits: 20, Hits: 20)).Problem(Points));
        Assert.Contains(
            "51 first hits of 50 pins",
            Record(new PlotFind("A", FirstHits: 31), new PlotFind("B", FirstHits: 20)).Problem(Points)!.Value.Message
        );
        Assert.Contains("no fewer", Record(new PlotFind("A", FirstHits: 30, Hits: 29)).Problem(Points)!.Value.Message);
        // Of a frame several taxa stand in the same cells.
        Assert.Null(
            Record(new PlotFind("A", FirstHits: 50), new PlotFind("B", FirstHits: 50))
                .Problem(Points with { Kind = PlotKind.FrequencyFrame, Shape = PlotShape.Square, SquareMetres = 1 })
        );
    }

    [Fact]
    public void ClassesStandForTheirMiddles()
    {
        var classes = Squares with { Scale = PlotScale.SevenClasses, Layers = [] };
        var record = Record(new PlotFind("A", Class: "R"), new PlotFind("B", Class: "+"), new PlotFind("C", Class: "3"));
        Assert.Null(record.Problem(classes));
        Assert.Equal([0.1, 0.5, 37.5], record.Amounts(classes).Values);
        Assert.Contains("the scale has r, +, 1, 2, 3, 4, 5", Record(new PlotFind("A", Class: "6")).Problem(classes)!.Value.Message);
        var ten = CoverClass.Of(PlotScale.TenClasses);
        Assert.Equal(10, ten.Count);
        Assert.All(ten.Zip(ten.Skip(1)), pair => Assert.True(pair.First.Percent < pair.Second.Percent));
    }

    [Fact]
    public void CoversOfLayersLieOverEachOtherAtRandom()
    {
        var amounts = Record(new PlotFind("A", "herbs", 50), new PlotFind("A", "shrubs", 40), new PlotFind("B", "herbs", 7))
            .Amounts(Squares);
        Assert.Equal(70, amounts["A"], 10);
        Assert.Equal(7, amounts["B"]);
    }

    [Fact]
    public void WhatWasCorrectedHoldsNoMore()
    {
        var first = Record(new PlotFind("A", "herbs", 5));
        var corrected = Record(new PlotFind("A", "herbs", 50)) with { Supersedes = first.Id };
        Assert.Equal([corrected], PlotRecord.Holding([first, corrected]));
    }

    [Theory]
    [InlineData(PlotKind.PointTransect, PlotShape.Square, 4, 10, "shape")]
    [InlineData(PlotKind.Quadrat, PlotShape.Line, 0, 0, "shape")]
    [InlineData(PlotKind.Quadrat, PlotShape.Square, 0, 0, "squareMetres")]
    [InlineData(PlotKind.Quadrat, PlotShape.Square, double.NaN, 0, "squareMetres")]
    [InlineData(PlotKind.PointTransect, PlotShape.Line, 2, 10, "squareMetres")]
    public void AProtocolThatCantBeSoIsSaid(PlotKind kind, PlotShape shape, double size, int pins, string field) =>
        Assert.Equal(field, (Squares with { Kind = kind, Shape = shape, SquareMetres = size, Pins = pins }).Problem()!.Value.Field);

    [Fact]
    public void TheSeasonMayRunOverTheNewYear()
    {
        Assert.Null(Squares.Problem());
        var summer = Squares with { SeasonFrom = "05-20", SeasonTo = "07-31" };
        Assert.True(summer.IsInSeason(new DateOnly(2026, 5, 20)));
        Assert.False(summer.IsInSeason(new DateOnly(2026, 8, 1)));
        var winter = Squares with { SeasonFrom = "11-01", SeasonTo = "02-29" };
        Assert.Null(winter.Problem());
        Assert.True(winter.IsInSeason(new DateOnly(2026, 12, 31)));
        Assert.True(winter.IsInSeason(new DateOnly(2026, 1, 1)));
        Assert.False(winter.IsInSeason(new DateOnly(2026, 3, 1)));
        Assert.Equal("seasonFrom", (Squares with { SeasonFrom = "13-01", SeasonTo = "02-01" }).Problem()!.Value.Field);
        Assert.Equal("pins", (Squares with { Scale = PlotScale.Hits }).Problem()!.Value.Field);
        Assert.Equal("layers", (Squares with { Layers = ["herbs", "Herbs"] }).Problem()!.Value.Field);
    }
}
