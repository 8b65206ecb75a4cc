using Garten.Core.Floras;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Core.Tests.Floras;

/// <summary>Taxa found by any of their names, also with cold fingers.</summary>
public sealed class TaxonSearchTests
{
    private static readonly TaxonFacts Facts = TaxonFacts.None;

    private static readonly Taxon[] Taxa =
    [
        new("vellorna", "Vellorna", "", "genus", "", "Alvenaceae", "vellorns", [], ""),
        new(
            "vellorna-alba",
            "Vellorna alba",
            "Hask.",
            "species",
            "vellorna",
            "Alvenaceae",
            "silver vellorn",
            [],
            "",
            Facts with
            {
                CommonNames = ["silver vellorn", "white-leaf"],
                Cells = ["B3"],
                Synonyms = ["Carpessa argentea"],
                GrowthForm = "shrub",
                Origin = Origin.Native,
                Phenology = [new PhaseSpan(Phenophase.Flower, 9, 10), new PhaseSpan(Phenophase.FullLeaf, 9, 20)],
            }
        ),
        new(
            "vellorna-nigra",
            "Vellorna nigra",
            "",
            "species",
            "vellorna",
            "Alvenaceae",
            "black vellorn",
            [],
            "",
            Facts with
            {
                CommonNames = ["black vellorn"],
                GrowthForm = "tree",
                Origin = Origin.Introduced,
                Phenology = [new PhaseSpan(Phenophase.RipeFruit, 23, 2)],
            }
        ),
        new(
            "carpessa-rubra",
            "Carpessa rubra",
            "",
            "species",
            "",
            "Carpessaceae",
            "red carpess",
            [],
            "",
            Facts with
            {
                CommonNames = ["red carpess"],
                GrowthForm = "shrub",
            }
        ),
        new("bare-name", "Tharsina spinosa", "", "species", "", "", "", [], ""),
    ];

    private static string Found(string text) => string.Join(", ", TaxonSearch.Find(Taxa, new TaxonQuery(text)).Select(f => f.Taxon.Id));

    [Theory]
    [InlineData("Vellorna alba", "vellorna-alba")]
    [InlineData("  vellorna ALBA  ", "vellorna-alba")]
    [InlineData("ve al", "vellorna-alba")]
    [InlineData("v n", "vellorna-nigra")]
    [InlineData("alba", "vellorna-alba")]
    [InlineData("silver", "vellorna-alba")]
    [InlineData("white-leaf", "vellorna-alba")]
    [InlineData("leaf", "vellorna-alba")]
    [InlineData("argentea", "vellorna-alba")]
    [InlineData("carpess", "carpessa-rubra, vellorna-alba")]
    [InlineData("spin", "bare-name")]
    [InlineData("nothing like it", "")]
    public void ByAnyNameAndItsBeginnings(string text, string ids) => Assert.Equal(ids, Found(text));

    [Theory]
    [InlineData("velorna alba", "vellorna-alba")]
    [InlineData("vellorna nigar", "vellorna-nigra")]
    [InlineData("carpesa", "carpessa-rubra, vellorna-alba")]
    [InlineData("tharzina", "bare-name")]
    public void WithASlip(string text, string ids) => Assert.Equal(ids, Found(text));

    [Fact]
    public void SlipsAreOnlyShownWhereNothingFitsWithoutOne()
    {
        // "rubra" is a name; "nigra", two letters from it, isn't shown beside it.
        Assert.Equal("carpessa-rubra", Found("rubra"));
        // Three letters are too few to tell a slip from another word.
        Assert.Equal("", Found("abl"));
    }

    [Fact]
    public void TheNameThatFitsIsSaidWhereItIsNotItsOwn()
    {
        Assert.Equal("", TaxonSearch.Find(Taxa, new TaxonQuery("vellorna alba"))[0].Matched);
        Assert.Equal("Carpessa argentea", TaxonSearch.Find(Taxa, new TaxonQuery("argentea"))[0].Matched);
        Assert.Equal("black vellorn", TaxonSearch.Find(Taxa, new TaxonQuery("black"))[0].Matched);
    }

    [Fact]
    public void ABareNameIsSearchedLikeOthersAndStandsInNobodysWay()
    {
        // It has no common name at all.
        Assert.Equal("", Found("completely other words"));
        Assert.Equal("bare-name", Found("tharsina"));
    }

    [Fact]
    public void GeneraAreLeftOutUnlessAskedFor()
    {
        Assert.DoesNotContain("vellorna", TaxonSearch.Find(Taxa, new TaxonQuery()).Select(f => f.Taxon.Id));
        Assert.Equal("vellorna, vellorna-alba, vellorna-nigra", Found("vellorna"));
    }

    [Fact]
    public void NarrowedByFamilyFormOriginAndDay()
    {
        string Of(TaxonQuery query) => string.Join(", ", TaxonSearch.Find(Taxa, query).Select(f => f.Taxon.Id));
        Assert.Equal("carpessa-rubra", Of(new TaxonQuery(Family: "Carpessaceae")));
        Assert.Equal("carpessa-rubra, vellorna-alba", Of(new TaxonQuery(GrowthForm: "shrub")));
        Assert.Equal("vellorna-nigra", Of(new TaxonQuery(Origin: Origin.Introduced)));
        Assert.Equal("carpessa-rubra, bare-name", Of(new TaxonQuery(Origin: Origin.Unsaid)));
        Assert.Equal("vellorna-alba", Of(new TaxonQuery(Cell: "b3")));
        Assert.Equal("", Of(new TaxonQuery(Cell: "B4")));
        Assert.Equal("vellorna-alba", Of(new TaxonQuery(Day: new DateOnly(2026, 5, 20))));
        // Fruit from late December to early... the span runs over the new year.
        Assert.Equal("vellorna-nigra", Of(new TaxonQuery(Day: new DateOnly(2026, 1, 3))));
        Assert.Equal("", Of(new TaxonQuery("rubra", Family: "Alvenaceae")));
    }

    [Fact]
    public void OfWhatShowsFlowerAndFruitAreWorthAVisit()
    {
        Assert.Equal([Phenophase.Flower], TaxonSearch.Visible(Taxa[1], new DateOnly(2026, 5, 20)));
        Assert.Empty(TaxonSearch.Visible(Taxa[1], new DateOnly(2026, 7, 1)));
        Assert.Empty(TaxonSearch.Visible(Taxa[4], new DateOnly(2026, 7, 1)));
    }
}
