using System.Globalization;
using Garten.Core.Evidence;
using Garten.Core.Keys;
using Xunit;

namespace Garten.Formats.Tests.Language;

/// <summary>Looks at a plant, typed in words.</summary>
public sealed class LookReaderTests
{
    private static TypedLooks Read(string text, string unit = "mm") => LookReader.Read(text, ShippedVocabulary.Botany, unit);

    private static string Shown(TypedLooks read) =>
        string.Join(
            " ; ",
            read.Looks.Select(l =>
                l.Character.Id
                + (
                    l.Readings.Count > 0
                        ? $" {string.Join(",", l.Readings.Select(r => r.Value.ToString(CultureInfo.InvariantCulture)))}"
                        : $"={string.Join('|', l.States)}"
                )
            )
        );

    [Theory]
    [InlineData("lvs glabrous beneath, petiole 12 14 15 mm", "leaf.hair-density@beneath=glabrous ; petiole.length 12,14,15")]
    [InlineData("petiole 12, 14, 15 mm", "petiole.length 12,14,15")]
    [InlineData("petiole 12/14/15", "petiole.length 12,14,15")]
    [InlineData("petals 5, white; stamens 10", "petal.number 5 ; petal.colour=white ; stamen.number 10")]
    [InlineData("Leaf 4.5 cm", "leaf.length 45")]
    [InlineData("petioles with two glands", "petiole/gland.number 2")]
    [InlineData("stem square, hairy; leaves opposite", "stem.section=square ; stem.hair-density=hairy ; leaf.arrangement=opposite")]
    [InlineData("leaf 30–40 mm", "leaf.length 30,40")]
    public void SeveralLooksAreReadAtOnce(string text, string looks)
    {
        var read = Read(text);
        Assert.Equal(looks, Shown(read));
        Assert.Empty(read.Open);
        Assert.All(read.Looks, l => Assert.NotEmpty(l.InWords));
    }

    [Fact]
    public void WhatIsntReadIsSaidAndNotRecorded()
    {
        var read = Read("leaves ovate, frumious when galumphing, stem hairy");
        Assert.Equal("leaf.outline=ovate ; stem.hair-density=hairy", Shown(read));
        Assert.Equal("frumious when galumphing", Assert.Single(read.Open).Text);
    }

    [Fact]
    public void YoungPartsAreYoung() => Assert.Equal(PartAge.Young, Assert.Single(Read("young leaves silky").Looks).Age);

    // Neither is a look at a plant.
    [Theory]
    [InlineData("")]
    [InlineData("12 14 15")]
    [InlineData("leaves up to 4 cm")]
    [InlineData("leaves rarely opposite")]
    public void WhatWasntSeenIsNoLook(string text) => Assert.Empty(Read(text).Looks);
}
