using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Garten.Core.Tests.Identification;
using Xunit;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Floras;

/// <summary>Characters and descriptions: put together, completed, seen in their time.</summary>
public sealed class CharacterTableTests
{
    private static readonly Character Sap = States("sap", Organ.Stem, "clear", "milky");
    private static readonly Character Hairs = States("hairs", Organ.Leaf, "none", "few", "many");
    private static readonly Character Shape = Length("length");

    private static string Said(IReadOnlyList<TaxonDescription> descriptions, string taxon) =>
        string.Join(
            ' ',
            descriptions
                .Single(d => d.Taxon == taxon)
                .Characters.Select(c => $"{c.Character}:{(c.Range is null ? string.Join('/', c.States.Select(s => s.State)) : "range")}")
        );

    [Fact]
    public void ASpeciesHasWhatItsGenusHasAndAFormWhatItsSpeciesHas()
    {
        Taxon[] taxa =
        [
            Taxon("family", rank: "family"),
            Taxon("genus", rank: "genus") with
            {
                Parent = "family",
            },
            Taxon("species") with
            {
                Parent = "genus",
            },
            Taxon("other") with
            {
                Parent = "genus",
            },
            Taxon("garden-form", rank: "cultivar") with
            {
                Parent = "species",
            },
            Taxon("alone"),
        ];
        TaxonDescription[] written =
        [
            Describe("family", Is(Sap, "clear")),
            Describe("genus", Is(Hairs, "few")),
            Describe("species", Is(Hairs, "many"), Measures(Shape, "4–6 cm")),
            Describe("garden-form", Is(Sap, "milky")),
        ];
        var complete = CharacterTable.Complete(written, taxa);
        Assert.Equal(["species", "other", "garden-form"], complete.Select(d => d.Taxon));
        Assert.Equal("hairs:many length:range sap:clear", Said(complete, "species"));
        Assert.Equal("hairs:few sap:clear", Said(complete, "other"));
        Assert.Equal("hairs:many length:range sap:milky", Said(complete, "garden-form"));
    }

    [Fact]
    public void ParentsThatGoInACircleEnd()
    {
        Taxon[] taxa = [Taxon("a") with { Parent = "b" }, Taxon("b") with { Parent = "a" }];
        Assert.Equal(2, CharacterTable.Complete([Describe("a", Is(Sap, "milky")), Describe("b", Is(Sap, "clear"))], taxa).Count);
    }

    [Fact]
    public void TablesAreJoinedAndCharactersOfOtherStatesKeptApart()
    {
        var other = States("sap", Organ.Stem, "clear", "milky", "yellow");
        var first = new CharacterTable([Sap, Hairs], [Describe("a", Is(Sap, "milky"))], SmallFlora.Seasons);
        var second = new CharacterTable(
            [other, Hairs],
            [Describe("b", Is(other, "yellow"), Is(Hairs, "few")), Describe("a", Is(Hairs, "many"))],
            [.. SmallFlora.Seasons, new(Phenophase.BareTwig, 11, 1, 3, 1)]
        );
        var joined = CharacterTable.Join([first, second]);
        Assert.Equal(["sap", "hairs", "2/sap"], joined.Characters.Select(c => c.Id));
        Assert.Equal("2/sap:yellow hairs:few", Said(joined.Descriptions, "b"));
        // Of two descriptions of a taxon the first counts.
        Assert.Equal("sap:milky", Said(joined.Descriptions, "a"));
        Assert.Equal(4, joined.Seasons.Count);
        Assert.Same(first, CharacterTable.Join([first]));
        Assert.Empty(CharacterTable.Join([]).Characters);
    }

    [Fact]
    public void CharactersAreFoundByTheirIds()
    {
        var table = new CharacterTable([Sap, Hairs], [], []);
        Assert.Same(Hairs, table.Find("hairs"));
        Assert.Null(table.Find("Hairs"));
        Assert.Equal(1, Sap.IndexOf("milky"));
        Assert.Equal(-1, Sap.IndexOf("yellow"));
    }

    [Fact]
    public void OnlyMeasuresAreNumbers()
    {
        Assert.Equal(QuantityKind.Length, Shape.Quantity);
        Assert.True(Shape.IsQuantity);
        Assert.False(Sap.IsQuantity);
        Assert.Throws<InvalidOperationException>(() => Sap.Quantity);
        Assert.Equal(
            [QuantityKind.Count, QuantityKind.Ratio, QuantityKind.Angle],
            new[] { CharacterKind.Count, CharacterKind.Ratio, CharacterKind.Angle }.Select(k => (Shape with { Kind = k }).Quantity)
        );
    }

    [Theory]
    [InlineData("2026-04-01", true)]
    [InlineData("2026-08-31", true)]
    [InlineData("2026-03-31", false)]
    [InlineData("2026-09-01", false)]
    public void ACharacterIsSeenInItsPhases(string day, bool canBeSeen) =>
        Assert.Equal(canBeSeen, (Sap with { SeenIn = [Phenophase.Flower] }).CanBeSeen(DateOnly.Parse(day), SmallFlora.Seasons));

    [Fact]
    public void WithoutPhasesItIsAlwaysSeenAndOfAPhaseWithoutAWindowNever()
    {
        Assert.True(Sap.CanBeSeen(new DateOnly(2026, 1, 1), []));
        Assert.False((Sap with { SeenIn = [Phenophase.BareTwig] }).CanBeSeen(new DateOnly(2026, 1, 1), SmallFlora.Seasons));
    }

    [Theory]
    [InlineData(11, 16, 2, 15, "2026-11-16", true)]
    [InlineData(11, 16, 2, 15, "2026-01-01", true)]
    [InlineData(11, 16, 2, 15, "2026-02-15", true)]
    [InlineData(11, 16, 2, 15, "2026-02-16", false)]
    [InlineData(11, 16, 2, 15, "2026-07-01", false)]
    [InlineData(5, 1, 5, 1, "2026-05-01", true)]
    [InlineData(5, 1, 5, 1, "2026-05-02", false)]
    public void AWindowMayRunOverTheNewYear(int fromMonth, int fromDay, int toMonth, int toDay, string day, bool holds) =>
        Assert.Equal(holds, new PhaseWindow(Phenophase.BareTwig, fromMonth, fromDay, toMonth, toDay).Holds(DateOnly.Parse(day)));

    [Theory]
    [InlineData("2026-01-01", 1)]
    [InlineData("2026-01-15", 1)]
    [InlineData("2026-01-16", 2)]
    [InlineData("2028-02-29", 4)]
    [InlineData("2026-12-31", 24)]
    public void HalfMonths(string day, int half)
    {
        Assert.Equal(half, PhaseSpan.HalfMonth(DateOnly.Parse(day)));
        Assert.Equal(half, PhaseSpan.HalfMonth(SeasonWords.Middle(half)));
    }

    [Fact]
    public void ASpanOfHalfMonthsMayRunOverTheNewYear()
    {
        Assert.Equal([23, 24, 1, 2], new[] { 22, 23, 24, 1, 2, 3 }.Where(new PhaseSpan(Phenophase.RipeFruit, 23, 2).Holds));
        Assert.Equal([9, 10], Enumerable.Range(1, 24).Where(new PhaseSpan(Phenophase.Flower, 9, 10).Holds));
    }

    [Theory]
    [InlineData(1, "early January")]
    [InlineData(10, "late May")]
    [InlineData(24, "late December")]
    public void HalfMonthsInWords(int half, string words) => Assert.Equal(words, SeasonWords.Of(half));

    [Fact]
    public void ThereIsNoTwentyFifthHalfMonth()
    {
        Assert.Throws<ArgumentOutOfRangeException>(() => SeasonWords.Of(0));
        Assert.Throws<ArgumentOutOfRangeException>(() => SeasonWords.Of(25));
    }

    [Theory]
    [InlineData("10-13", 1, "late May to early July")]
    [InlineData("10-13", 12, "late June to early July")]
    [InlineData("10-10", 14, "late May")]
    [InlineData("3-4 20-21", 5, "late October to early November")]
    [InlineData("3-4 20-21", 22, "early February to late February")]
    [InlineData("23-24 1-2", 20, "early December to late January")]
    [InlineData("", 1, "never")]
    [InlineData("1-24", 7, "all year")]
    public void TheNextStretch(string spans, int from, string words)
    {
        var marked = new bool[SeasonWords.HalfMonths];
        foreach (var span in spans.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(s => s.Split('-').Select(int.Parse).ToArray()))
        {
            for (var half = span[0]; half <= span[1]; half++)
                marked[half - 1] = true;
        }
        Assert.Equal(words, SeasonWords.NextStretch(marked, from));
    }
}
