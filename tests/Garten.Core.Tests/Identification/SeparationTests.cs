using CsCheck;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Identification;

/// <summary>1 − overlap, by hand and by its properties.</summary>
public sealed class SeparationTests
{
    private static readonly Likelihood Plain = new([]);
    private static readonly Character Hairs = SmallFlora.States("hairs", Organ.Leaf, "none", "few", "many");
    private static readonly Character Length = SmallFlora.Length("length");
    private static readonly Character Petals = Length with { Id = "petals", Kind = CharacterKind.Count };

    [Fact]
    public void OfStatesItIsWhatTheyDoNotShare()
    {
        double Of((string, double)[] a, (string, double)[] b) =>
            Separation.Of(Hairs, SmallFlora.Is(Hairs, a), SmallFlora.Is(Hairs, b), Plain);
        Assert.Equal(1, Of([("none", 1)], [("many", 1)]), 12);
        Assert.Equal(0, Of([("none", 1)], [("none", 1)]), 12);
        // They share min(0.7, 0.2) + min(0.3, 0.8) = 0.5.
        Assert.Equal(0.5, Of([("none", 0.7), ("few", 0.3)], [("none", 0.2), ("few", 0.8)]), 12);
        Assert.Equal(0.7, Of([("none", 0.3), ("few", 0.7)], [("none", 0.3), ("many", 0.7)]), 12);
    }

    [Fact]
    public void WhereNothingIsKnownNothingIsSeparatedAndAPartThatOnlyOneHasSeparates()
    {
        Assert.Equal(0, Separation.Of(Hairs, null, SmallFlora.Is(Hairs, "none"), Plain));
        Assert.Equal(0, Separation.Of(Hairs, SmallFlora.Is(Hairs, "none"), null, Plain));
        Assert.Equal(1, Separation.Of(Hairs, SmallFlora.Lacks(Hairs), SmallFlora.Is(Hairs, "none"), Plain));
        Assert.Equal(0, Separation.Of(Hairs, SmallFlora.Lacks(Hairs), SmallFlora.Lacks(Hairs), Plain));
    }

    [Theory]
    [InlineData("40–60 mm", "40–60 mm", 0, 0.001)]
    [InlineData("40–60 mm", "4–6 cm", 0, 0.001)]
    [InlineData("10–12 mm", "100–120 mm", 1, 0.001)]
    [InlineData("(30–)40–60(–80) mm", "(300–)400–600(–800) mm", 1, 0.001)]
    public void OfRangesItIsTheAreaBetweenTheirDensities(string first, string second, double expected, double within) =>
        Assert.InRange(
            Separation.Of(Length, SmallFlora.Measures(Length, first), SmallFlora.Measures(Length, second), Plain),
            expected - within,
            expected + within
        );

    [Fact]
    public void TwoRangesOfOneWidthOnTheLogScaleOverlapAsTwoNormals()
    {
        // Bounds at z = ∓1.2816 on the logarithm and no bend in between: normals whose spread is ln(4/2)/2.5631 = 0.270432. One twice the
        // other lies ln 2/0.270432 = 2.563103 spreads apart; overlap 2·Φ(−1.281552) = 0.2.
        var separated = Separation.Of(Length, SmallFlora.Measures(Length, "20–40 mm"), SmallFlora.Measures(Length, "40–80 mm"), Plain);
        Assert.Equal(0.8, separated, 2);
    }

    [Fact]
    public void CountsOneByOne()
    {
        Assert.Equal(0, Separation.Of(Petals, SmallFlora.Measures(Petals, "5"), SmallFlora.Measures(Petals, "5"), Plain), 0.01);
        Assert.True(Separation.Of(Petals, SmallFlora.Measures(Petals, "5"), SmallFlora.Measures(Petals, "4"), Plain) > 0.9);
        Assert.True(
            Separation.Of(Petals, SmallFlora.Measures(Petals, "4–6"), SmallFlora.Measures(Petals, "20–30"), Plain) > Separation.Clean
        );
    }

    private static CharacterDescription Range(double[] bounds)
    {
        var b = bounds.Order().ToArray();
        return new CharacterDescription(Length.Id, [], new QuantityRange(QuantityKind.Length, RangeForm.Between, b[1], b[2], b[0], b[3]));
    }

    private static readonly Gen<double[]> Bounds = Gen.Double[1, 300]
        .Array[4]
        .Where(b => b.Order().Zip(b.Order().Skip(1)).All(p => p.Second > p.First * 1.05));

    [Fact]
    public void FromNothingToAllAndTheSameBothWays() =>
        Gen.Select(Bounds, Bounds)
            .Sample(
                (a, b) =>
                {
                    var separated = Separation.Of(Length, Range(a), Range(b), Plain);
                    Assert.InRange(separated, 0, 1);
                    Assert.Equal(separated, Separation.Of(Length, Range(b), Range(a), Plain), 12);
                    Assert.InRange(Separation.Of(Length, Range(a), Range(a), Plain), 0, 1e-6);
                },
                iter: 200
            );

    [Fact]
    public void OfPairsIsThatOfEachPair() =>
        Bounds
            .Array[3, 5]
            .Sample(
                all =>
                {
                    CharacterDescription?[] cells = [.. all.Select(Range), null, SmallFlora.Lacks(Length)];
                    var pairs = Enumerable
                        .Range(0, cells.Length)
                        .SelectMany(i => Enumerable.Range(i + 1, cells.Length - i - 1).Select(j => (i, j)))
                        .ToArray();
                    var together = Separation.OfPairs(Length, cells, pairs, Plain);
                    // On a grid common to all the areas come out a little otherwise than on one for each pair.
                    for (var p = 0; p < pairs.Length; p++)
                        Assert.Equal(Separation.Of(Length, cells[pairs[p].i], cells[pairs[p].j], Plain), together[p], 0.03);
                },
                iter: 60
            );

    [Fact]
    public void OfPairsOfStatesToo()
    {
        CharacterDescription?[] cells = [SmallFlora.Is(Hairs, "none"), SmallFlora.Is(Hairs, ("none", 0.4), ("few", 0.6)), null];
        Assert.Equal([0.6, 0, 0], Separation.OfPairs(Hairs, cells, [(0, 1), (0, 2), (1, 2)], Plain).Select(v => Math.Round(v, 9)));
    }
}
