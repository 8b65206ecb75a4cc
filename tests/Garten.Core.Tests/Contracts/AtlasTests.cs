using Garten.Core.Contracts;
using Garten.Core.Floras;
using Xunit;

namespace Garten.Core.Tests.Contracts;

public sealed class AtlasTests
{
    private static readonly DateOnly Today = new(2026, 5, 20);
    private static readonly string[] Cells = ["B2", "B3", "C2"];

    private static AtlasRecord Said(string taxon = "Alvena alba", string asOf = "2025-12-31", params AtlasSquare[] squares) =>
        new(taxon, asOf, squares.Length > 0 ? squares : [new("B2", 1911, 2019, 4)]);

    [Fact]
    public void WhatAnyoneWouldRelyOnIsNotDoubted() => Assert.Empty(Said().Doubts("Alvena alba", Cells, Today));

    [Theory]
    [InlineData("Alvena nigra", "2025-12-31", "B2", 1911, 2019, "It answers for Alvena nigra")]
    [InlineData("Alvena alba", "2012-12-31", "B2", 1911, 2010, "It is as of 2012")]
    [InlineData("Alvena alba", "2027-01-01", "B2", 1911, 2010, "since when it is up to date")]
    [InlineData("Alvena alba", "soon", "B2", 1911, 2010, "since when it is up to date")]
    [InlineData("Alvena alba", "2025-12-31", "Q47", 1911, 2010, "Q47 isn’t a square of this grid.")]
    [InlineData("Alvena alba", "2025-12-31", "B2", 2010, 1911, "Years or numbers of B2 can’t be so.")]
    [InlineData("Alvena alba", "2025-12-31", "B2", 2010, 2031, "Years or numbers of B2 can’t be so.")]
    public void WhatAPersonWouldMindIsSaid(string taxon, string asOf, string cell, int first, int last, string doubt) =>
        Assert.Contains(
            doubt,
            Assert.Single(Said(taxon, asOf, new AtlasSquare(cell, first, last, 2)).Doubts("Alvena alba", Cells, Today)),
            StringComparison.Ordinal
        );

    [Fact]
    public void ItIsHeldAgainstTheFloraAndThePlace()
    {
        var taxon = new Taxon("a", "Alvena alba", "", "species", "", "", "", [], "", TaxonFacts.None with { Cells = ["B2", "C2"] });
        var place = new Place(Guid.NewGuid(), "Moss", "", 57, -11, 50, "", "b3");
        var answer = AtlasAnswer.Of(Said(squares: [new("B2", 1911, 2019, 4), new("B3", 1980, 1980, 1)]), taxon, Cells, place, Today);
        Assert.Equal(["B3"], answer.Beyond);
        Assert.Equal(["C2"], answer.Missing);
        Assert.Equal("In b3 it was recorded in 1980.", answer.Here);
        Assert.Equal("In B2 it was recorded from 1911 to 2019, 4 times.", Said().Here("B2"));
        Assert.StartsWith("The atlas has no record of it in C2.", Said().Here("C2"), StringComparison.Ordinal);
        Assert.Equal("", AtlasAnswer.Of(Said(), taxon, Cells, place with { Cell = "" }, Today).Here);
    }
}
