using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Packs;
using Garten.Core.Seasons;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Contracts;

/// <summary>What of a taxon is drawn in a list, and what is in season at a place.</summary>
public sealed class FiguresTests
{
    private static readonly Character Petals = SmallFlora.States("petals", Organ.Flower, "white", "blue");
    private static readonly Character Berry = SmallFlora.States("berry", Organ.Fruit, "red", "black");
    private static readonly Character Margin = SmallFlora.States("margin", Organ.Leaf, "entire", "toothed");

    // Half-months: 9 is the first of May, 13 the first of July, 17 that of September.
    private static readonly TaxonFacts Facts = TaxonFacts.None with
    {
        Cells = ["B2"],
        Phenology =
        [
            new PhaseSpan(Phenophase.Flower, 9, 10),
            new PhaseSpan(Phenophase.FullLeaf, 9, 19),
            new PhaseSpan(Phenophase.RipeFruit, 17, 18),
            new PhaseSpan(Phenophase.BareTwig, 21, 6),
        ],
    };

    private static ReadyFlora Flora()
    {
        var here = SmallFlora.Taxon("Alvena-montis", Facts);
        var there = SmallFlora.Taxon("Alvena-palus", Facts with { Cells = ["C4"] });
        return ReadyFlora.Read(
            PackFile.Write(
                new Flora(
                    "isle",
                    "Isle",
                    [here, there],
                    new CharacterTable(
                        [Petals, Berry, Margin],
                        [
                            SmallFlora.Describe(
                                here.Id,
                                SmallFlora.Is(Petals, "white"),
                                SmallFlora.Is(Margin, "entire"),
                                SmallFlora.Is(Berry, "red")
                            ),
                            SmallFlora.Describe(there.Id, SmallFlora.Is(Petals, "blue"), SmallFlora.Is(Margin, "toothed")),
                        ],
                        SmallFlora.Seasons
                    )
                )
            )
        );
    }

    [Theory]
    [InlineData("2026-05-20", Organ.Flower)]
    [InlineData("2026-07-20", Organ.Leaf)]
    [InlineData("2026-09-10", Organ.Fruit)]
    [InlineData("2026-12-24", Organ.Twig)]
    [InlineData("2026-04-20", Organ.Leaf)]
    public void WhatIsTellingNowIsDrawn(string date, Organ organ)
    {
        using var flora = Flora();
        var figure = Assert.Single(new FiguresRequest("isle", [new FigureAsked("Alvena montis")], date).Draw(flora));
        Assert.Equal(("Alvena montis", "Alvena-montis", organ), (figure.Name, figure.TaxonId, figure.Organ));
    }

    [Fact]
    public void ACharacterThatIsAskedForDecidesAndOnlyWhatIsDrawnIsSent()
    {
        using var flora = Flora();
        FigureAsked[] asked =
        [
            new("Alvena montis", "margin"),
            new("Alvena montis", "margin"),
            new("Alvena montis", "no-such"),
            new("Nobody"),
        ];
        var figures = new FiguresRequest("isle", asked, "2026-05-20").Draw(flora);
        Assert.Equal([Organ.Leaf, Organ.Flower], figures.Select(f => f.Organ));
        Assert.Equal(["margin"], figures[0].Description.Select(c => c.Character));
        Assert.Equal(["petals", "berry"], figures[1].Description.Select(c => c.Character));
    }

    [Fact]
    public void TooManyAndADayThatIsNoneAreSaid()
    {
        using var flora = Flora();
        var many = Enumerable.Range(0, FiguresRequest.MostFigures + 1).Select(i => new FigureAsked($"A {i}")).ToList();
        Assert.Equal("figures", Assert.Throws<RequestException>(() => new FiguresRequest("isle", many, "2026-05-20").Draw(flora)).Field);
        Assert.Equal("date", Assert.Throws<RequestException>(() => new FiguresRequest("isle", [], "today").Draw(flora)).Field);
    }

    [Fact]
    public void APlaceHasWhatIsRecordedInItsCell()
    {
        using var flora = Flora();
        var (cell, whole) = (new SeasonPlace(Guid.NewGuid(), "Mire", "B2"), new SeasonPlace(Guid.NewGuid(), "Anywhere"));
        var places = new InSeasonRequest("isle", "2026-05-20", [cell, whole]).Look(flora);
        Assert.Equal(
            [
                ["Alvena montis"],
                ["Alvena montis", "Alvena palus"],
            ],
            places.Select(p => p.InFlower.Select(t => t.Name).ToArray())
        );
        Assert.Equal([1, 2], places.Select(p => p.Listed));
        Assert.All(places, p => Assert.Empty(p.InFruit));
        Assert.Equal(
            InSeasonRequest.MostPlaces,
            new InSeasonRequest("isle", "2026-05-20", [.. Enumerable.Repeat(cell, 30)]).Look(flora).Count
        );
    }
}
