using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Xunit;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Identification;

/// <summary>What is alone on a list.</summary>
public sealed class GiveawaysTests
{
    private static readonly Character Sap = States("sap", Organ.Stem, "clear", "milky");
    private static readonly Character Thorns = States("thorns", Organ.Twig, "none", "straight", "hooked");
    private static readonly Character Tips = States("thorn-tips", Organ.Twig, "red", "brown") with
    {
        Needs = new Applicability("thorns", ["straight", "hooked"]),
    };

    private static IReadOnlyList<string> Found(
        IReadOnlyList<Character> characters,
        IReadOnlyList<TaxonDescription> taxa,
        params string[] listed
    )
    {
        var columns = FloraColumns.Of(characters, taxa);
        return
        [
            .. Giveaways
                .Of(columns, [.. columns.Taxa.Select(t => listed.Length == 0 || listed.Contains(t))])
                .Select(g => $"{g.Taxon}: {g.State}"),
        ];
    }

    [Fact]
    public void AStateThatOneHasAndNoOther()
    {
        TaxonDescription[] taxa = [Describe("a", Is(Sap, "milky")), Describe("b", Is(Sap, "clear")), Describe("c", Is(Sap, "clear"))];
        Assert.Equal(["a: milky"], Found([Sap], taxa));
        // On a shorter list the other state is alone too.
        Assert.Equal(["a: milky", "b: clear"], Found([Sap], taxa, "a", "b"));
        Assert.Empty(Found([Sap], taxa, "b", "c"));
    }

    [Fact]
    public void AListOfOneGivesNothingAway() => Assert.Empty(Found([Sap], [Describe("a", Is(Sap, "milky"))]));

    [Theory]
    [InlineData(0.9, 0.05, true)]
    [InlineData(0.89, 0, false)]
    [InlineData(1, 0.06, false)]
    public void ItHoldsInNineOfTenAndElsewhereInFewerThanOneOfTwenty(double here, double there, bool isAlone)
    {
        TaxonDescription[] taxa =
        [
            Describe("a", Is(Sap, ("milky", here), ("clear", 1 - here))),
            Describe("b", Is(Sap, ("milky", there), ("clear", 1 - there))),
        ];
        Assert.Equal(isAlone, Found([Sap], taxa).Contains("a: milky"));
    }

    [Fact]
    public void OneThatIsNotDescribedInItMayHaveItToo() =>
        Assert.Empty(
            Found([Sap, Thorns], [Describe("a", Is(Sap, "milky")), Describe("b", Is(Sap, "clear")), Describe("c", Is(Thorns, "none"))])
        );

    [Fact]
    public void OneThatIsOftenTakenForItIsInTheWay()
    {
        TaxonDescription[] taxa = [Describe("a", Is(Sap, "milky")), Describe("b", Is(Sap, "clear") with { Misread = ["milky"] })];
        Assert.DoesNotContain("a: milky", Found([Sap], taxa));
    }

    [Fact]
    public void APartThatOthersHaveNotGivesAway()
    {
        // Only b and c have thorns; of the tips of thorns nothing is said of a, which has none.
        TaxonDescription[] taxa =
        [
            Describe("a", Is(Thorns, "none")),
            Describe("b", Is(Thorns, "straight"), Is(Tips, "red")),
            Describe("c", Is(Thorns, "hooked"), Is(Tips, "brown")),
        ];
        Assert.Equal(["a: none", "b: red", "b: straight", "c: brown", "c: hooked"], Found([Thorns, Tips], taxa));
    }

    [Fact]
    public void ToLackAPartGivesNothingAwayWhereOthersLackTheWholeOrgan()
    {
        TaxonDescription[] taxa = [Describe("a", Is(Thorns, "none")), Describe("b", Is(Thorns, "straight")), Describe("c", Lacks(Thorns))];
        Assert.Equal(["b: straight"], Found([Thorns], taxa));
    }

    [Fact]
    public void WhatIsMisjudgedOrMeasuredOrOfThePlaceGivesNothingAway()
    {
        var shy = Sap with { Reliability = 0.89 };
        var wet = States("ground", Organ.Site, "dry", "wet");
        var length = Length("length");
        TaxonDescription[] taxa =
        [
            Describe("a", Is(shy, "milky"), Is(wet, "wet"), Measures(length, "1–2 mm")),
            Describe("b", Is(shy, "clear"), Is(wet, "dry"), Measures(length, "50–60 mm")),
        ];
        Assert.Empty(Found([shy, wet, length], taxa));
    }

    [Fact]
    public void TheQuickestLookComesFirst()
    {
        var slow = Sap with { Id = "slow", EffortSeconds = 300 };
        TaxonDescription[] taxa =
        [
            Describe("a", Is(slow, "milky"), Is(Thorns, "hooked")),
            Describe("b", Is(slow, "clear"), Is(Thorns, "none")),
        ];
        Assert.Equal(["a: hooked", "a: milky", "b: none", "b: clear"], Found([slow, Thorns], taxa));
    }
}
