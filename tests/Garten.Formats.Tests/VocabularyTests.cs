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

    [Fact]
    public void EveryCharacterAndQualitySaysWhatItIsAndWhatItIsMisjudgedBy()
    {
        Assert.Empty(ShippedGlossary.Characters.Where(c => c.Definition.Length == 0 || c.Trap.Length == 0).Select(c => c.Id));
        Assert.Empty(Botany.Vocabulary.Qualities.Where(q => q.Definition.Length == 0 || q.Trap.Length == 0).Select(q => q.Id));
        Assert.Empty(Botany.Vocabulary.Qualities.SelectMany(q => q.States).Where(s => s.Definition.Length == 0).Select(s => s.Id));
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

    /// <summary>What practitioners say of plants, in as few letters as they would type, is among the first eight that are
    /// offered.</summary>
    [Theory]
    [InlineData("bundle sc 5", "bundle-scar.number", "")]
    [InlineData("stipule sc ring", "stipule-scar.scar-pattern", "ring")]
    [InlineData("pith diaphr", "pith.interior", "diaphragmed")]
    [InlineData("lentic bands", "twig/lenticel.lenticel-form", "bands")]
    [InlineData("buds stalked", "bud.insertion", "stalked")]
    [InlineData("bud naked", "bud.bud-cover", "naked")]
    [InlineData("term bud false", "terminal-bud.bud-end", "false")]
    [InlineData("leaf apicul", "leaf.apex", "apiculate")]
    [InlineData("leaf dark-ed", "leaf.edge-colour", "dark-edge")]
    [InlineData("petiole wing", "petiole/wing.presence", "")]
    [InlineData("petiole hair t-sh", "petiole.hair-form", "t-shaped")]
    [InlineData("node hairy", "stem/node.hair-density", "hairy")]
    [InlineData("sheath closed", "sheath.fusion", "closed")]
    [InlineData("ligule torn", "ligule.apex", "torn")]
    [InlineData("utric beak bifid", "utricle-beak.apex", "two-pointed")]
    [InlineData("tepal keeled", "tepal.relief", "keeled")]
    [InlineData("stamen exs", "stamen.exsertion", "exserted")]
    [InlineData("anther red", "anther.colour", "red")]
    [InlineData("style persi", "style.persistence", "persistent")]
    [InlineData("husk to base", "husk.dehiscence", "to-base")]
    [InlineData("seed netted", "seed.surface", "netted")]
    [InlineData("fruit rib 5", "fruit-rib.number", "")]
    [InlineData("spur 8 mm", "spur.length", "")]
    [InlineData("stipe bund 2", "stipe-bundle.number", "")]
    [InlineData("indusium kidn", "indusium.outline", "reniform")]
    [InlineData("stem hollow", "stem.interior", "hollow")]
    [InlineData("bark shaggy", "bark.bark-pattern", "shaggy")]
    [InlineData("vein loop", "leaf.vein-run", "looped")]
    [InlineData("petiole gland 2", "petiole/gland.number", "")]
    [InlineData("leaf perfol", "leaf.insertion", "perfoliate")]
    [InlineData("calyx 5 teeth", "calyx/tooth.number", "")]
    [InlineData("ovary half-inf", "ovary.ovary-position", "half-inferior")]
    [InlineData("pappus feath", "pappus.pappus-kind", "feathery")]
    [InlineData("needle 5", "needle.number", "")]
    public void WhatPractitionersSayIsAmongTheFirstOffered(string typed, string character, string state)
    {
        var found = Botany.Search.Find(typed);
        Assert.True(
            found.Take(8).Any(f => f.Character.Id == character && f.State == state),
            string.Join("; ", found.Take(10).Select(f => $"{f.Character.Id}={f.State} {f.Numbers} {f.Score:0.00}"))
        );
    }

    /// <summary>Bud to spore: what a botanist would type of each part, most of it without naming a part that goes without saying.</summary>
    [Fact]
    public void EachOfThePartsOfThePlantIsFoundByItsWords()
    {
        var lines = File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "Language", "offered.txt"))
            .Where(l => l.Contains('|'))
            .ToList();
        var missing = new List<string>();
        foreach (var line in lines)
        {
            var (typed, expected) = (line.Split(" | ")[0], line.Split(" | ")[1]);
            var found = Botany.Search.Find(typed).Take(8).Select(f => f.State.Length > 0 ? $"{f.Character.Id}={f.State}" : f.Character.Id);
            if (!found.Contains(expected))
                missing.Add($"{line}: {string.Join(", ", found)}");
        }
        Assert.Empty(missing);
        Assert.True(lines.Count > 300);
    }

    [Theory]
    [InlineData("tomentose", "leaf.hair-density", "tomentose", "")]
    [InlineData("weeping", "crown.crown-form", "weeping", "")]
    [InlineData("orchid lip", "lip.presence", "", "")]
    [InlineData("rush pith interrupted", "pith.interior", "interrupted", "")]
    [InlineData("leaf upper surface shiny", "leaf.lustre@above", "glossy", "")]
    [InlineData("leaf 3-lobed", "leaf/lobe.number", "", "3")]
    [InlineData("bract against ovary", "bract.relative-length@ovary", "", "")]
    [InlineData("bracts longer than flowers", "bract.relative-length@flower", "longer", "")]
    public void APartThatGoesWithoutSayingNeedNotBeSaid(string typed, string character, string state, string numbers) =>
        AFewWordsFindTheCharacter(typed, character, state, numbers);

    [Fact]
    public void APartThatSeveralHaveIsNoneWithoutItsOwner()
    {
        Assert.Null(Botany.Compose("gland.number"));
        Assert.NotNull(Botany.Compose("petiole/gland.number"));
        Assert.NotNull(Botany.Compose("bundle-scar.number"));
    }
}
