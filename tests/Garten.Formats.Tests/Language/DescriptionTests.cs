using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Formats.Tests.Language;

/// <summary>Descriptions in the prose of a flora.</summary>
public sealed class DescriptionTests
{
    private static readonly DescriptionReader Reader = new(ShippedVocabulary.Botany);

    private const string Text = """
        1. Ossalia Hask. Deciduous shrubs. Leaves alternate. Stipules present, soon falling.

        Ossalia prima Hask.
        Syn: Rorippa falsa
        Shrub, 1–3 m high. Twigs hairless. Leaves ovate, 4–9 × 2–5 cm, finely serrate, white-felted beneath;
        petiole 8–15 mm. Flowers white. Fruit a berry. Fl. May–June. Habitat: wet woods.

        Ossalia secunda (L.) Osk. — Like O. prima, but leaves green beneath and petiole 2–4 mm. Fr. VIII–X.

        this is no taxon at all
        """;

    private static string? Cell(ReadTaxon taxon, string character) =>
        taxon.Characters.FirstOrDefault(c => c.Character == character) is { } cell
            ? cell.Range?.Text.Trim() ?? string.Join('|', cell.States.Select(s => s.State))
            : null;

    [Fact]
    public void ParagraphsBecomeTaxaWithWhatIsSaidOfThem()
    {
        var read = Reader.Read(Text);
        Assert.Equal(["Ossalia", "Ossalia prima", "Ossalia secunda"], read.Taxa.Select(t => t.Name));
        Assert.Equal(["Hask.", "Hask.", "(L.) Osk."], read.Taxa.Select(t => t.Authorship));
        var prima = read.Taxa[1];
        Assert.Equal("shrub", Cell(prima, "plant.growth-form"));
        Assert.Equal("ovate", Cell(prima, "leaf.outline"));
        Assert.Equal("white", Cell(prima, "leaf.hair-colour@beneath"));
        Assert.Equal("8–15 mm", Cell(prima, "petiole.length"));
        Assert.Equal("berry", Cell(prima, "fruit.fruit-type"));
        Assert.Equal(["wet woods"], prima.Habitats);
        Assert.Equal(["Rorippa falsa"], prima.Synonyms);
        Assert.Equal([new PhaseSpan(Phenophase.Flower, 9, 12)], prima.Phenology);
        Assert.Contains("this is no taxon", Assert.Single(read.Problems), StringComparison.Ordinal);
    }

    [Fact]
    public void LikeAnotherButTakesOverWhatIsNotSaidOtherwise()
    {
        var secunda = Reader.Read(Text).Taxa[2];
        Assert.Equal("ossalia-prima", secunda.Like);
        Assert.Equal("ovate", Cell(secunda, "leaf.outline"));
        Assert.Equal("green", Cell(secunda, "leaf.colour@beneath"));
        Assert.Equal("2–4 mm", Cell(secunda, "petiole.length"));
        Assert.Equal([new PhaseSpan(Phenophase.RipeFruit, 15, 20)], secunda.Phenology);
    }

    [Fact]
    public void SilenceIsUnknownAndTheGenusFillsIn()
    {
        var flora = Reader.FloraOf(Reader.Read(Text), "f", "F", []);
        Assert.Equal(["", "ossalia", "ossalia"], flora.Taxa.Select(t => t.Parent));
        var completed = CharacterTable.Complete(flora.Table!.Descriptions, flora.Taxa).Single(d => d.Taxon == "ossalia-prima");
        Assert.Equal("alternate", completed.Characters.Single(c => c.Character == "leaf.arrangement").States[0].State);
        Assert.DoesNotContain(completed.Characters, c => c.Character == "bark.colour");
    }

    [Theory]
    [InlineData("")]
    [InlineData("\n\n\n")]
    [InlineData("12345")]
    [InlineData("nothing here begins with a name")]
    public void WhatIsNoDescriptionSaysSo(string text) => Assert.Empty(Reader.Read(text).Taxa);

    // Values in prose: each statement's values beside those that were meant, over herbs, shrubs, grasses and ferns.
    [Theory]
    [InlineData("prose.txt")]
    [InlineData("prose-second.txt")]
    public void ValuesInProseAreMostlyRightAndHardlyEverWrong(string file)
    {
        var judged = GoldFile.Judge(Garten.Core.Language.GrammarReader.Of(ShippedVocabulary.Botany, []), file);
        var (values, wrong) = (judged.Sum(j => j.Gold.Claims.Count), judged.Sum(j => j.Wrong.Count));
        var right = values - judged.Sum(j => j.Missed.Count);
        Assert.True(values >= 60);
        Assert.True(right >= 0.6 * values, $"{right} of {values}");
        Assert.True(wrong <= 0.03 * values, string.Join(" ; ", judged.SelectMany(j => j.Wrong).Select(GoldFile.Show)));
    }
}
