using CsCheck;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Identification;

/// <summary>A look weighed against a whole column at once gives what it gives against each taxon alone.</summary>
public sealed class WeighedItemTests
{
    private static readonly EvidenceOptions Options = EvidenceOptions.Default;
    private static readonly Likelihood Plain = new([], Options);

    private static Character Measured(CharacterKind kind) =>
        new("c", "c", Organ.Leaf, kind, [], ["c"], [], 0.9, 0.9, 20, Tool.Ruler, Handling.Look, []);

    private static EvidenceItem Item(Character character, params double[] values) =>
        Assert.Single(EvidenceItem.Pool([SmallFlora.Read(character, values)], new CharacterTable([character], [], []), Options));

    // The formula of one taxon, taken alone: ln of the softened likelihood over the marginal.
    private static void IsAsOneByOne(EvidenceItem item, CharacterColumn column)
    {
        var weighed = WeighedItem.Of(item, column, Plain, controllerIsOnSheet: false);
        var rows = Enumerable.Range(0, column.Of().Length).ToArray();
        var likelihood = new Likelihood(rows.Select(t => SmallFlora.Describe($"t{t}", column[t] is { } cell ? [cell] : [])), Options);
        var marginal = likelihood.Marginal(item);
        var sums = new double[rows.Length];
        weighed.AddTo(sums, []);
        foreach (var t in rows)
        {
            Assert.Equal(Math.Log(likelihood.Of(item, column[t], marginal) / marginal), weighed.Ratio(t), 9);
            Assert.Equal(weighed.Ratio(t), sums[t], 12);
            Assert.Equal(likelihood.Verdict(item, column[t]), weighed.FitOf(t));
        }
    }

    // Ranges of every form, in numbers that fill the lanes of a processor and that don't.
    private static readonly string[] Lengths =
    [
        "40–60 mm",
        "(30–)40–60(–80) mm",
        "(5–)40–60 mm",
        "20–21(–90) mm",
        "up to 70 mm",
        "more than 30 mm",
        "c. 55 mm",
        "1–2 mm",
        "300–900 mm",
        "52–54 mm",
        "(1–)2–4(–7) cm",
    ];

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(7)]
    [InlineData(8)]
    [InlineData(11)]
    public void LengthsInColumnsOfAnyLength(int taxa)
    {
        var length = Measured(CharacterKind.Length);
        var column = CharacterColumn.Of(length, [.. Lengths.Take(taxa).Select(n => SmallFlora.Measures(length, n))]);
        foreach (var value in new[] { 0.3, 1.5, 21, 39.9, 40, 47, 53, 60, 60.1, 75, 400, 5000 })
            IsAsOneByOne(Item(length, value), column);
        IsAsOneByOne(Item(length, 38, 44, 51, 47), column);
    }

    [Fact]
    public void TaxaWithoutTheRangeAndWithoutThePart()
    {
        var length = Measured(CharacterKind.Length);
        var column = CharacterColumn.Of(
            length,
            [
                SmallFlora.Measures(length, "40–60 mm"),
                null,
                SmallFlora.Lacks(length),
                SmallFlora.Measures(length, "45–50 mm"),
                SmallFlora.Measures(length, "40–60 mm"),
                SmallFlora.Lacks(length),
                new CharacterDescription(length.Id, []),
                SmallFlora.Measures(length, "10–20 mm"),
                null,
            ]
        );
        // Two taxa share a cell, and two lack the part.
        Assert.Equal(
            [2, 2, 2, 1, 1, 1],
            [column.Counts[0], column.Counts[1], column.Counts[2], column.Counts[3], column.Counts[4], column.Counts[5]]
        );
        foreach (var value in new[] { 12.0, 44, 58, 200 })
            IsAsOneByOne(Item(length, value), column);
    }

    [Fact]
    public void APartThatIsLackingSaysNothingWhereWhatDecidesItIsOnTheSheet()
    {
        var length = Measured(CharacterKind.Length);
        var column = CharacterColumn.Of(
            length,
            [SmallFlora.Measures(length, "40–60 mm"), SmallFlora.Lacks(length), SmallFlora.Measures(length, "90–95 mm")]
        );
        var item = Item(length, 50);
        var (alone, decided) = (WeighedItem.Of(item, column, Plain, false), WeighedItem.Of(item, column, Plain, true));
        Assert.True(alone.Ratio(1) < -1);
        Assert.Equal(0, decided.Ratio(1), 12);
        Assert.Equal(Fit.Conflicts, decided.FitOf(1));
        Assert.Equal(alone.Ratio(0), decided.Ratio(0), 12);
    }

    [Theory]
    [InlineData(CharacterKind.Count, new[] { 0.0, 1, 4, 5, 6, 9, 40 })]
    [InlineData(CharacterKind.Ratio, new[] { 0.1, 0.5, 1, 1.49, 1.5, 2, 30 })]
    [InlineData(CharacterKind.Angle, new[] { 1.0, 20, 45, 60, 61, 90, 180 })]
    public void CountsRatiosAndAngles(CharacterKind kind, double[] values)
    {
        var character = Measured(kind);
        string[] ranges = kind switch
        {
            CharacterKind.Count => ["5", "4–6", "(3–)4–6(–9)", "10–40", "up to 5", "more than 12", "0–1"],
            CharacterKind.Ratio => ["1–1.5", "(0.8–)1–1.5(–2)", "2–3", "0.2–0.4", "up to 1"],
            _ => ["30–45°", "(20–)30–60(–80)°", "80–90°", "40–50°", "more than 60°"],
        };
        var column = CharacterColumn.Of(character, [.. ranges.Select(r => SmallFlora.Measures(character, r))]);
        foreach (var value in values)
            IsAsOneByOne(Item(character, value), column);
    }

    [Fact]
    public void AnyRangesAndAnyReadings()
    {
        var length = Measured(CharacterKind.Length);
        var bounds = Gen.Double[0.5, 400].Array[4].Where(b => b.Distinct().Count() == 4);
        Gen.Select(bounds.Array[1, 13], Gen.Double[0.2, 600].Array[1, 5])
            .Sample(
                (ranges, values) =>
                {
                    var column = CharacterColumn.Of(
                        length,
                        [
                            .. ranges
                                .Select(b => b.Order().ToArray())
                                .Select(
                                    (b, i) =>
                                        new CharacterDescription(
                                            length.Id,
                                            [],
                                            new QuantityRange(
                                                QuantityKind.Length,
                                                RangeForm.Between,
                                                b[1],
                                                b[2],
                                                i % 3 == 0 ? null : b[0],
                                                i % 2 == 0 ? null : b[3]
                                            )
                                        )
                                ),
                        ]
                    );
                    IsAsOneByOne(Item(length, values), column);
                },
                iter: 300,
                seed: "0N0XIzNsQ0O2"
            );
    }

    [Fact]
    public void StatesAndWhatWasNotFound()
    {
        var hairs = SmallFlora.States("hairs", Organ.Leaf, "none", "few", "many");
        var column = CharacterColumn.Of(
            hairs,
            [
                SmallFlora.Is(hairs, "none"),
                SmallFlora.Is(hairs, ("few", 0.7), ("many", 0.3)),
                null,
                SmallFlora.Lacks(hairs),
                SmallFlora.Is(hairs, "none"),
            ]
        );
        var table = new CharacterTable([hairs], [], []);
        foreach (
            var look in new[]
            {
                SmallFlora.See(hairs, "none"),
                SmallFlora.See(hairs, "few", "many"),
                SmallFlora.See(hairs, "many") with
                {
                    Sureness = Sureness.Guess,
                },
            }
        )
        {
            IsAsOneByOne(Assert.Single(EvidenceItem.Pool([look], table, Options)), column);
        }
    }

    [Fact]
    public void TakenFromSumsAgainNothingIsLeft()
    {
        var length = Measured(CharacterKind.Length);
        var column = CharacterColumn.Of(length, [.. Lengths.Select(n => SmallFlora.Measures(length, n))]);
        var sums = new double[Lengths.Length];
        double[][] kin = [new double[Lengths.Length], new double[Lengths.Length]];
        var items = new[] { 5d, 48, 70 }.Select(v => WeighedItem.Of(Item(length, v), column, Plain, false, [1, 2], 0.3)).ToList();
        items.ForEach(i => i.AddTo(sums, kin));
        // Kin of a taxon differ from it in part of their characters: what speaks against it speaks less against them.
        for (var t = 0; t < sums.Length; t++)
            Assert.True(kin[0][t] >= Math.Min(sums[t], 0) - 1e-12);
        items.ForEach(i => i.TakeFrom(sums, kin));
        Assert.All(sums, s => Assert.Equal(0, s, 12));
        Assert.All(kin.SelectMany(k => k), s => Assert.Equal(0, s, 12));
    }
}
