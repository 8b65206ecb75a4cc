using System.Globalization;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Floras;

/// <summary>Cells of a matrix, as typed and as written again.</summary>
public sealed class DescriptionCellTests
{
    private static readonly Character Shape = new(
        "leaf-shape",
        "shape of the leaf",
        Organ.Leaf,
        CharacterKind.Categorical,
        [
            new("ovate", "ovate", "", ["egg-shaped"]),
            new("elliptic", "elliptic", "", []),
            new("lanceolate", "lanceolate", "", []),
            new("usually-lobed", "usually lobed", "", []),
        ],
        ["leaf"],
        [],
        0.9,
        0.9,
        10,
        Tool.Eye,
        Handling.Look,
        []
    );

    private static readonly Character Length = SmallFlora.Length("leaf-length") with { Name = "length of the leaf", Unit = "cm" };
    private static readonly Character Petals = Length with { Id = "petals", Name = "petals", Kind = CharacterKind.Count, Unit = "" };

    private static string Read(string text, Character character)
    {
        var cell = DescriptionCell.Read(text, character, out var problem);
        if (problem is not null)
            return "✕ " + problem;
        if (cell is null)
            return "unknown";
        if (!cell.Applies)
            return "not there";
        static string Number(double v) => v.ToString("0.###", CultureInfo.InvariantCulture);
        static string Range(QuantityRange r) =>
            $"{(r.LowExtreme is { } l ? $"({Number(l)})" : "")}{Number(r.Low)}-{Number(r.High)}{(r.HighExtreme is { } h ? $"({Number(h)})" : "")}";
        if (cell.Range is { } range)
            return Range(range) + (cell.Shade is { } shade ? $" shade {Range(shade)}" : "");
        return string.Join(' ', cell.States.Select(s => $"{s.State}={Number(s.Share)}"))
            + (cell.Misread is { } misread ? $" !{string.Join(" !", misread)}" : "");
    }

    [Theory]
    [InlineData("ovate", "ovate=1")]
    [InlineData("OVATE", "ovate=1")]
    [InlineData("egg-shaped", "ovate=1")]
    [InlineData("  ovate  ", "ovate=1")]
    [InlineData("ovate | elliptic", "ovate=0.5 elliptic=0.5")]
    [InlineData("usually ovate | sometimes elliptic", "ovate=0.739 elliptic=0.261")]
    [InlineData("ovate | rarely lanceolate", "ovate=0.92 lanceolate=0.08")]
    [InlineData("ovate | often elliptic | rarely lanceolate", "ovate=0.469 elliptic=0.469 lanceolate=0.063")]
    [InlineData("ovate | !elliptic", "ovate=1 !elliptic")]
    [InlineData("ovate | ! elliptic | !lanceolate", "ovate=1 !elliptic !lanceolate")]
    [InlineData("usually lobed", "usually-lobed=1")]
    [InlineData("ovate | | elliptic |", "ovate=0.5 elliptic=0.5")]
    public void States(string text, string expected) => Assert.Equal(expected, Read(text, Shape));

    [Theory]
    [InlineData("", "unknown")]
    [InlineData(" ? ", "unknown")]
    [InlineData("NA", "unknown")]
    [InlineData("not recorded", "unknown")]
    [InlineData("-", "not there")]
    [InlineData("–", "not there")]
    [InlineData("N/A", "not there")]
    public void WhatSaysNothingAndWhatIsNotThere(string text, string expected)
    {
        Assert.Equal(expected, Read(text, Shape));
        Assert.Equal(expected, Read(text, Length));
        Assert.Equal(expected == "unknown", DescriptionCell.IsUnknown(text));
        Assert.Equal(expected == "not there", DescriptionCell.IsNotApplicable(text));
    }

    [Theory]
    [InlineData("6–9", "60-90")]
    [InlineData("(4–)6–9(–13)", "(40)60-90(130)")]
    [InlineData("60–90 mm", "60-90")]
    [InlineData("5–8 cm @shade 9–14 cm", "50-80 shade 90-140")]
    [InlineData("5–8 @shade 9–14", "50-80 shade 90-140")]
    public void LengthsInTheUnitOfTheCharacter(string text, string expected) => Assert.Equal(expected, Read(text, Length));

    [Theory]
    [InlineData("5", "5-5")]
    [InlineData("4–6", "4-6")]
    [InlineData("(3–)4–6", "(3)4-6")]
    public void Counts(string text, string expected) => Assert.Equal(expected, Read(text, Petals));

    [Theory]
    [InlineData("round", "“round” is no state of shape of the leaf: it has ovate, elliptic, lanceolate, usually lobed.")]
    [InlineData("ovate | usually round", "“round” is no state")]
    [InlineData("ovate | egg-shaped", "“ovate” is given twice.")]
    [InlineData("ovate | !ovate", "“ovate” is given twice.")]
    [InlineData("!ovate", "It says only what the plant is mistaken for")]
    public void StatesThatAreRefused(string text, string problem) =>
        Assert.StartsWith("✕ " + problem, Read(text, Shape), StringComparison.Ordinal);

    [Theory]
    [InlineData("9–6")]
    [InlineData("long")]
    [InlineData("5–8 @shade 9–14 @shade 2–3")]
    [InlineData("5–8 @shade")]
    [InlineData("6–9 × 2–3")]
    [InlineData("6–9 kg")]
    public void RangesThatAreRefused(string text) => Assert.StartsWith("✕ ", Read(text, Length), StringComparison.Ordinal);

    [Fact]
    public void SharesOfADescriptionAddUpToOne()
    {
        foreach (
            var text in new[]
            {
                "ovate",
                "ovate | elliptic | lanceolate",
                "usually ovate | usually elliptic",
                "often ovate | sometimes elliptic | rarely lanceolate",
                "rarely ovate | rarely elliptic",
                "ovate | always elliptic",
            }
        )
        {
            var cell = DescriptionCell.Read(text, Shape, out var problem)!;
            Assert.Null(problem);
            Assert.Equal(1, cell.States.Sum(s => s.Share), 9);
            Assert.All(cell.States, s => Assert.True(s.Share > 0));
        }
    }

    [Theory]
    [InlineData("ovate", "ovate")]
    [InlineData("ovate | elliptic", "ovate or elliptic")]
    [InlineData("ovate | rarely lanceolate", "ovate, rarely lanceolate")]
    [InlineData("rarely ovate | usually elliptic", "elliptic, rarely ovate")]
    [InlineData("ovate | elliptic | rarely lanceolate", "ovate or elliptic, rarely lanceolate")]
    [InlineData("ovate | !elliptic", "ovate (often confused with elliptic)")]
    [InlineData("?", "unknown")]
    [InlineData("-", "not there")]
    public void InWords(string text, string words) =>
        Assert.Equal(words, FloraProse.Value(DescriptionCell.Read(text, Shape, out _), Shape));

    [Theory]
    [InlineData("6–9", "6–9 cm")]
    [InlineData("(4–)6–9(–13)", "(4–)6–9(–13) cm")]
    [InlineData("60–90 mm", "60–90 mm")]
    public void RangesInWords(string text, string words) =>
        Assert.Equal(words, FloraProse.Value(DescriptionCell.Read(text, Length, out _), Length));

    [Theory]
    [InlineData(2, 6, "", "2–6 mm")]
    [InlineData(12, 60, "", "1.2–6 cm")]
    [InlineData(500, 2500, "", "0.5–2.5 m")]
    [InlineData(12, 60, "mm", "12–60 mm")]
    [InlineData(12, 12, "mm", "12 mm")]
    public void NumbersInTheUnitThatSuitsThem(double low, double high, string unit, string text) =>
        Assert.Equal(text, FloraProse.Notation(new QuantityRange(QuantityKind.Length, RangeForm.Between, low, high), unit));

    [Fact]
    public void NotationOfEveryForm()
    {
        Assert.Equal("up to 7 cm", FloraProse.Notation(QuantityRange.UpTo(QuantityKind.Length, 70), ""));
        Assert.Equal("more than 12", FloraProse.Notation(QuantityRange.MoreThan(QuantityKind.Count, 12), ""));
        Assert.Equal(
            "(20–)30–60(–80)°",
            FloraProse.Notation(new QuantityRange(QuantityKind.Angle, RangeForm.Between, 30, 60, 20, 80), "°")
        );
        Assert.Equal("1.2–1.5", FloraProse.Notation(new QuantityRange(QuantityKind.Ratio, RangeForm.Between, 1.2, 1.5), "cm"));
    }

    [Fact]
    public void ProseGoesOrganByOrganAndLeavesOutWhatIsUnknown()
    {
        var bark = SmallFlora.States("bark", Organ.Bark, "smooth", "scaly") with { Name = "bark" };
        var prose = FloraProse.Write(
            [
                DescriptionCell.Read("6–9", Length, out _)!,
                DescriptionCell.Read("ovate", Shape, out _)!,
                SmallFlora.Is(bark, "smooth"),
                SmallFlora.Lacks(Petals),
            ],
            [Shape, Length, Petals, bark]
        );
        Assert.Equal([Organ.Bark, Organ.Leaf], prose.Select(p => p.Organ));
        Assert.Equal("Leaves ovate, 6–9 cm long.", prose[1].Text);
        Assert.Equal(["leaf-shape", "leaf-length"], prose[1].Items.Select(i => i.Character));
    }

    [Theory]
    [InlineData("always", 1d)]
    [InlineData("Usually", 0.85)]
    [InlineData("FREQUENTLY", 0.6)]
    [InlineData("occasionally", 0.3)]
    [InlineData("seldom", 0.08)]
    [InlineData("never", null)]
    [InlineData("", null)]
    public void WordsOfFrequency(string word, double? share) => Assert.Equal(share, Modality.Of(word));

    [Fact]
    public void AShareIsPutIntoTheWordThatMeansIt()
    {
        foreach (var word in new[] { "always", "usually", "often", "sometimes", "rarely" })
            Assert.Equal(word, Modality.InWords(Modality.Of(word)!.Value));
    }
}
