using Garten.Core.Floras;
using Xunit;

namespace Garten.Core.Tests.Floras;

public sealed class TaxonNameTests
{
    [Theory]
    [InlineData("Vellorna alba", "Vellorna alba", "", "")]
    [InlineData("Vellorna alba Hask.", "Vellorna alba", "Hask.", "")]
    [InlineData("*Vellorna alba* (Hask.) Thorn ex Wood & Brekke 1931", "Vellorna alba", "(Hask.) Thorn ex Wood & Brekke 1931", "")]
    [InlineData("_Vellorna_ x _media_ d'Orm.", "Vellorna × media", "d'Orm.", "")]
    [InlineData("×Carpellorna mixta", "× Carpellorna mixta", "", "")]
    [InlineData("Vellorna alba Hask. ssp. minor (Wood) Thorn", "Vellorna alba subsp. minor", "(Wood) Thorn", "")]
    [InlineData("Vellorna alba var. nana f. pendula Hort.", "Vellorna alba var. nana f. pendula", "Hort.", "")]
    [InlineData("VELLORNA ALBA", "Vellorna alba", "", "")]
    [InlineData("V. alba × V. nigra", "V. alba × V. nigra", "", "")]
    [InlineData("Vellorna alba agg.", "Vellorna alba agg.", "", "")]
    [InlineData("Vellorna sp. A", "Vellorna sp. A", "", "")]
    [InlineData("Vellorna sect. Alatae", "Vellorna sect. Alatae", "", "")]
    [InlineData("Vellorna alba 'Silver Cloud'", "Vellorna alba 'Silver Cloud'", "", "")]
    [InlineData("Vellorna alba (white vellorn)", "Vellorna alba", "", "white vellorn")]
    [InlineData("White vellorn (Vellorna alba)", "Vellorna alba", "", "White vellorn")]
    [InlineData("Vellorna alba, white vellorn", "Vellorna alba", "", "white vellorn")]
    [InlineData("White Vellorn, Vellorna alba Hask.", "Vellorna alba", "Hask.", "White Vellorn")]
    [InlineData("Silver Thornwood Vellorna alba", "Vellorna alba", "", "Silver Thornwood")]
    [InlineData("Vellorna", "Vellorna", "", "")]
    [InlineData("Vellorna Thorn", "Vellorna", "Thorn", "")]
    public void TakesScientificNamesApart(string text, string name, string authorship, string commonName) =>
        Assert.Equal(new TaxonName(name, authorship, commonName, true), TaxonName.Parse(text));

    [Theory]
    [InlineData("Silver Thornwood")]
    [InlineData("Red oak")]
    [InlineData("bur oak")]
    [InlineData("seedlings of the year")]
    public void KeepsOtherNamesAsTheyStand(string text) => Assert.Equal(new TaxonName(text, "", "", false), TaxonName.Parse(text));

    [Theory]
    [InlineData("Vellorna alba", "Velorna alba", true)]
    [InlineData("Vellorna alba", "Vellorna abla", true)]
    [InlineData("Vellorna alba", "Vellorna albus", true)]
    [InlineData("Vellorna torvanica", "Vellorna torvancia", true)]
    [InlineData("Vellorna alba", "vellorna Alba", true)]
    [InlineData("Vellorna alba", "Vellorna nigra", false)]
    [InlineData("Vellorna alba", "Carpessa alba", false)]
    [InlineData("Vellorna sp. A", "Vellorna sp. B", false)]
    [InlineData("Taxon 11", "Taxon 12", false)]
    [InlineData("V. alba", "Vellorna alba", false)]
    public void SeesWhichNamesAreNearlyAlike(string a, string b, bool near)
    {
        Assert.Equal(near, NearNames.AreNear(a, b));
        Assert.Equal(near, NearNames.AreNear(b, a));
        Assert.Equal(near ? [(a, b)] : [], NearNames.Pairs([a, "Ondrelia palustris", b]));
    }

    [Fact]
    public void AnAbbreviatedGenusIsUnderstoodWhereOneTaxonFits()
    {
        Taxon Of(string name) => new(name, name, "", "species", "", "", "", [], "");
        var index = new TaxonIndex([Of("Vellorna alba"), Of("Carpessa alba"), Of("Vellorna nigra"), Of("Verrosia nigra")]);
        Assert.Equal("Vellorna alba", index.Find("V. alba")?.Name);
        Assert.Null(index.Find("V. nigra"));
        Assert.Null(index.Find("Vell. rubra"));
        Assert.Equal("Vellorna nigra", index.Find("Vel. nigra")?.Name);
    }
}
