using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Xunit;

namespace Garten.Core.Tests.Contracts;

public sealed class PositionTextTests
{
    private static readonly FloraGrid Grid = new(57.36, -11.36, 5_000, 5, 4);

    private static PositionTextAnswer Read(string text, FloraGrid? grid = null) => new PositionTextRequest(text, grid ?? Grid).Read();

    [Fact]
    public void AReferenceIsAsCertainAsItIsFine()
    {
        Assert.Equal((3_536, "square B2, ± 3536 m"), ((int)Read("b2").Site!.UncertaintyMetres, Read("B2").Says));
        Assert.Equal("square B2 3 4, ± 354 m", Read("B2 34").Says);
        Assert.Equal("square B2 34 71, ± 36 m", Read("B2 34 71").Says);
        Assert.Equal("square B2 347 712, ± 4 m", Read("B2 347712").Says);
        // Each finer square lies in the coarser one.
        var coarse = Read("B2 34").Site!;
        var fine = Read("B2 347 412").Site!;
        var metres = Ring.Metres(new GroundPoint(coarse.Latitude, coarse.Longitude), new GroundPoint(fine.Latitude, fine.Longitude));
        Assert.InRange(metres, 0, coarse.UncertaintyMetres);
        Assert.Equal("B2", Grid.At(fine.Latitude, fine.Longitude)!.Name);
        var south = Grid with { Latitude = 57.54, Naming = GridNaming.LettersEastNumbersSouth };
        Assert.Equal("C1", south.At(Read("C1 05", south).Site!.Latitude, Read("C1 05", south).Site!.Longitude)!.Name);
        var numbers = Grid with { Naming = GridNaming.NumbersEastNumbersNorth };
        Assert.Equal("square 2-3 5 5, ± 354 m", Read("2-3 55", numbers).Says);
    }

    [Theory]
    [InlineData("57.41, -11.2", 7_863)]
    [InlineData("57.4123 -11.2045", 8)]
    [InlineData("57,4123; -11,2045", 8)]
    [InlineData("57.41234,-11.20451", 1)]
    [InlineData("57°24'36\"N 11°12'00\"W", 8)]
    [InlineData("57 -11", 78_627)]
    public void DegreesAreAsCertainAsTheirLastFigure(string text, int metres) =>
        Assert.Equal(metres, (int)Read(text).Site!.UncertaintyMetres);

    [Theory]
    [InlineData("F2", "neither a square")]
    [InlineData("B9", "neither a square")]
    [InlineData("B2 347", "neither a square")]
    [InlineData("B2 34 7", "neither a square")]
    [InlineData("B2 345678901234", "neither a square")]
    [InlineData("at the gate", "neither a square")]
    [InlineData("157.2, -11.2", "swapped")]
    public void WhatIsNoPositionIsSaid(string text, string says)
    {
        Assert.Null(Read(text).Site);
        Assert.Contains(says, Read(text).Wrong, StringComparison.Ordinal);
    }

    [Fact]
    public void NothingTypedIsNothingWrong() => Assert.Equal(new PositionTextAnswer(null, "", ""), Read("  "));
}
