using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Core.Tests.Identification;

/// <summary>What place, day and rank make of a taxon before anything of it is seen.</summary>
public sealed class PlausibilityTests
{
    private static readonly TaxonFacts Facts = TaxonFacts.None with
    {
        Cells = ["B2", "B3"],
        Habitats = ["hedge", "stream side"],
        ElevationFrom = 100,
        ElevationTo = 300,
        Phenology = [new PhaseSpan(Phenophase.Flower, 9, 12), new PhaseSpan(Phenophase.RipeFruit, 17, 20)],
    };

    private static readonly DateOnly May = new(2026, 5, 20);
    private static readonly DateOnly December = new(2026, 12, 10);
    private static readonly IReadOnlyList<Phenophase>[] InFlower =
    [
        [Phenophase.Flower],
    ];

    private static Plausibility Of(
        TaxonFacts? facts,
        SiftPlace? place = null,
        DateOnly? day = null,
        IReadOnlyList<Phenophase>[]? shown = null,
        string rank = "species"
    ) => Plausibility.Of(SmallFlora.Taxon("vellorna-alba", facts, rank), place, day, shown ?? []);

    [Fact]
    public void WhereNothingIsKnownNothingSpeaksAgainstIt()
    {
        Assert.Equal(1, Of(null, new SiftPlace("F9", 900, ["bog"]), December, InFlower).Weight);
        Assert.Equal(1, Of(Facts).Weight);
        Assert.Empty(Of(Facts, new SiftPlace("B2", 200, ["hedge"]), May, InFlower).Reasons);
    }

    [Theory]
    [InlineData("B2", 1)]
    [InlineData("b3", 1)]
    [InlineData("C4", 0.5)]
    [InlineData("A1", 0.5)]
    [InlineData("B5", 0.15)]
    [InlineData("H9", 0.15)]
    [InlineData("", 1)]
    public void ASquareWithoutARecord(string cell, double weight)
    {
        var plausible = Of(Facts, new SiftPlace(cell));
        Assert.Equal(weight, plausible.Weight, 12);
        Assert.Equal(weight < 1 ? 1 : 0, plausible.Reasons.Count);
        if (weight < 1)
            Assert.Contains(cell, plausible.Reasons[0], StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(100, 1)]
    [InlineData(300, 1)]
    [InlineData(400, 0.5)]
    [InlineData(0, 0.5)]
    [InlineData(500, 0.25)]
    [InlineData(5000, 0.01)]
    public void OutsideItsHeightTheWeightHalvesWithEveryHundredMetres(double metres, double weight) =>
        Assert.Equal(weight, Of(Facts, new SiftPlace("", metres)).Weight, 12);

    [Fact]
    public void ARangeThatIsOpenToOneSide()
    {
        Assert.Equal(1, Of(Facts with { ElevationTo = null }, new SiftPlace("", 4000)).Weight);
        Assert.Equal(1, Of(Facts with { ElevationFrom = null }, new SiftPlace("", 0)).Weight);
    }

    [Fact]
    public void AnotherHabitatIsNamed()
    {
        var plausible = Of(Facts, new SiftPlace("", null, ["bog", "scree"]));
        Assert.Equal(0.3, plausible.Weight, 12);
        Assert.Equal("Known from hedge, stream side, not from bog, scree.", Assert.Single(plausible.Reasons));
        Assert.Equal(1, Of(Facts, new SiftPlace("", null, ["bog", "Hedge"])).Weight);
    }

    [Fact]
    public void WhatIsSeenOutOfItsTime()
    {
        Assert.Equal(0.2, Of(Facts, null, December, InFlower).Weight, 12);
        // Of buds nothing is known, so nothing can be said.
        Assert.Equal(
            1,
            Of(
                Facts,
                null,
                December,
                [
                    [Phenophase.RestingBud],
                ]
            ).Weight
        );
        // An organ that shows in flower or in fruit: one of them will do.
        Assert.Equal(
            1,
            Of(
                Facts,
                null,
                new DateOnly(2026, 10, 1),
                [
                    [Phenophase.Flower, Phenophase.RipeFruit],
                ]
            ).Weight
        );
        // A second organ out of its time adds nothing: a plant out of season is so in all.
        Assert.Equal(
            0.2,
            Of(
                Facts,
                null,
                December,
                [
                    [Phenophase.Flower],
                    [Phenophase.RipeFruit],
                ]
            ).Weight,
            12
        );
    }

    [Theory]
    [InlineData("species", 1)]
    [InlineData("subspecies", 1)]
    [InlineData("hybrid", 0.1)]
    [InlineData("cultivar", 0.05)]
    [InlineData("form", 0.05)]
    public void FormsAndHybridsAreRare(string rank, double weight) => Assert.Equal(weight, Of(null, rank: rank).Weight, 12);

    [Fact]
    public void ATaxonWithParentsIsAHybridWhateverItsRank() => Assert.Equal(0.1, Of(Facts with { Parents = ["a", "b"] }).Weight, 12);

    [Fact]
    public void ReasonsAddUpButNothingIsImpossible()
    {
        var all = Of(Facts, new SiftPlace("H9", 5000, ["bog"]), December, InFlower, "hybrid");
        Assert.Equal(0.01, all.Weight);
        Assert.Equal(5, all.Reasons.Count);
        Assert.All(all.Reasons, r => Assert.EndsWith(".", r, StringComparison.Ordinal));
        // Beside a record and in another habitat: 0.5 · 0.3.
        Assert.Equal(0.15, Of(Facts, new SiftPlace("C2", 200, ["bog"])).Weight, 12);
    }

    [Theory]
    [InlineData("B2", "C3", true)]
    [InlineData("B2", "B3", true)]
    [InlineData("b2", "A1", true)]
    [InlineData("B2", "B2", false)]
    [InlineData("B2", "D2", false)]
    [InlineData("B2", "B4", false)]
    [InlineData("Z1", "AA1", true)]
    [InlineData("Z1", "AB1", false)]
    [InlineData("B2", "", false)]
    [InlineData("B", "2", false)]
    public void CellsThatTouch(string first, string second, bool touch)
    {
        Assert.Equal(touch, Plausibility.AreNeighbours(first, second));
        Assert.Equal(touch, Plausibility.AreNeighbours(second, first));
    }

    [Theory]
    [InlineData("A1", true)]
    [InlineData("AAA999", true)]
    [InlineData("AAAA1", false)]
    [InlineData("1A", false)]
    [InlineData("A-1", false)]
    [InlineData("A 1", false)]
    [InlineData("A99999999999", false)]
    [InlineData("É1", false)]
    [InlineData("", false)]
    [InlineData(null, false)]
    public void WhatNamesACell(string? text, bool isCell) => Assert.Equal(isCell, Plausibility.IsCell(text!));
}
