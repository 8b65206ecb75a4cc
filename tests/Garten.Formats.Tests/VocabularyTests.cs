using Garten.Core.Botany;
using Xunit;

namespace Garten.Formats.Tests;

/// <summary>The parts and qualities that ship.</summary>
public sealed class VocabularyTests
{
    private static readonly BotanyIndex Botany = ShippedVocabulary.Botany;

    [Fact]
    public void ItIsSoundAndOfTheSizeThatIsMeant()
    {
        Assert.Empty(VocabularyCheck.Problems(Botany.Vocabulary));
        Assert.True(Botany.Vocabulary.Parts.Count >= 250, $"{Botany.Vocabulary.Parts.Count} parts");
        Assert.True(Botany.Vocabulary.Qualities.Count >= 45, $"{Botany.Vocabulary.Qualities.Count} qualities");
        var terms = Botany.Vocabulary.Qualities.Sum(q => q.States.Sum(s => s.Terms.Count));
        Assert.True(terms >= 1300, $"{terms} terms");
    }

    [Theory]
    [InlineData("petiole glands 2", "petiole/gland.number", "", "2")]
    [InlineData("pet gl 2", "petiole/gland.number", "", "2")]
    [InlineData("rachis hairs dense", "rachis.hair-density", "dense", "")]
    [InlineData("petiole hairs", "petiole.hair-density", "", "")]
    [InlineData("petiole.hair-density", "petiole.hair-density", "", "")]
    [InlineData("bundle sc 3", "bundle-scar.number", "", "3")]
    [InlineData("buds sticky", "bud.stickiness", "sticky", "")]
    [InlineData("leaf hairs beneath forked", "leaf.hair-form@beneath", "forked", "")]
    [InlineData("husk split to the base", "husk.dehiscence", "to-base", "")]
    [InlineData("leaf tip hooded", "leaf.apex", "hooded", "")]
    [InlineData("petiole grooved", "petiole.section", "grooved", "")]
    [InlineData("pith chambered", "pith.interior", "chambered", "")]
    [InlineData("hairs forked", "leaf.hair-form", "forked", "")]
    [InlineData("silvery scales", "silver-scale.presence", "", "")]
    [InlineData("utricle beak length", "utricle-beak.length", "", "")]
    [InlineData("petiole 12 14 mm", "petiole.length", "", "12 14 mm")]
    [InlineData("ring scar", "girdle-scar.presence", "", "")]
    [InlineData("leaves connate", "leaf.insertion", "connate", "")]
    public void AFewWordsFindTheCharacter(string typed, string character, string state, string numbers)
    {
        var found = Botany.Search.Find(typed);
        Assert.True(found.Count > 0, "nothing");
        Assert.True(
            found.Take(3).Any(f => f.Character.Id == character && f.State == state && f.Numbers == numbers),
            string.Join("; ", found.Take(8).Select(f => $"{f.Character.Id}={f.State} {f.Numbers} {f.Score:0.00}"))
        );
    }
}
