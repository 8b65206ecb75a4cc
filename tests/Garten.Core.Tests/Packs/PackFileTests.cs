using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Garten.Core.Quantities;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Packs;

/// <summary>A flora in its binary form and back.</summary>
public sealed class PackFileTests
{
    private static Flora Of(AnyFlora any) =>
        new("any-isle", "Any isle", [.. any.Taxa.Select(Indicated)], new CharacterTable(any.Characters, any.Described, SmallFlora.Seasons));

    // Every third says nothing, the others some of it.
    private static Taxon Indicated(Taxon taxon, int at) =>
        at % 3 == 0
            ? taxon
            : taxon with
            {
                Facts = (taxon.Facts ?? TaxonFacts.None) with
                {
                    Indication = new SiteIndication(Light: at % 9 + 1, Reaction: 4.5, Conservatism: at % 2 == 0 ? null : at % 11),
                },
            };

    private static string Facts(TaxonFacts? f) =>
        f is null
            ? ""
            : string.Join(
                '/',
                string.Join(',', f.Cells),
                string.Join(',', f.Habitats),
                f.ElevationFrom,
                f.ElevationTo,
                string.Join(',', f.Phenology),
                string.Join(',', f.LookAlikes),
                f.GrowthForm,
                f.Origin,
                f.IsSensitive,
                f.Indication
            );

    private static string Cell(CharacterDescription? c) =>
        c is null ? "unknown"
        : !c.Applies ? "not there"
        : string.Join(' ', c.States.Select(s => $"{s.State}={s.Share:R}")) + Range(c.Range) + " shade " + Range(c.Shade);

    private static string Range(QuantityRange? r) =>
        r is null ? "-" : FormattableString.Invariant($"{r.Kind} {r.Form} {r.Low:R} {r.High:R} {r.LowExtreme:R} {r.HighExtreme:R}");

    [Fact]
    public void AnyFloraComesBackAsItWentOut() => AnyFlora.Each(400, seed =>
        {
            var any = new AnyFlora(seed);
            var back = PackFile.Read(PackFile.Write(Of(any)));
            Assert.Equal(("any-isle", "Any isle"), (back.Id, back.Name));
            Assert.Equal(
                any.Taxa.Select(Indicated).Select(t => (t.Id, t.Name, t.Rank, t.Family, Facts(t.Facts ?? TaxonFacts.None))),
                back.Taxa.Select(t => (t.Id, t.Name, t.Rank, t.Family, Facts(t.Facts ?? TaxonFacts.None)))
            );
            Assert.Equal(
                any.Characters.Select(c =>
                    (
                        c.Id,
                        c.Name,
                        c.Organ,
                        c.Kind,
                        c.Reliability,
                        c.EffortSeconds,
                        c.Tool,
                        c.Handling,
                        string.Join(',', c.SeenIn),
                        string.Join('|', c.States.Select(s => s.Id + s.Name))
                    )
                ),
                back.Columns.Columns.Select(c => c.Character)
                    .Select(c =>
                        (
                            c.Id,
                            c.Name,
                            c.Organ,
                            c.Kind,
                            c.Reliability,
                            c.EffortSeconds,
                            c.Tool,
                            c.Handling,
                            string.Join(',', c.SeenIn),
                            string.Join('|', c.States.Select(s => s.Id + s.Name))
                        )
                    )
            );
            foreach (var described in CharacterTable.Complete(any.Described, any.Taxa))
            {
                foreach (var character in any.Characters)
                    Assert.Equal(
                        Cell(described.Characters.FirstOrDefault(c => c.Character == character.Id)),
                        Cell(back.Columns.Describe(described.Taxon, character.Id))
                    );
            }
            Assert.Equal(SmallFlora.Seasons, back.Seasons);
        });

    [Fact]
    public void WhatComesBackSiftsAlike() => AnyFlora.Each(300, seed =>
        {
            var any = new AnyFlora(seed);
            var ready = ReadyFlora.Read(ReadyFlora.Write(Of(any)));
            var own = new Sifter(
                FloraColumns.Of(any.Characters, CharacterTable.Complete(any.Described, any.Taxa)),
                any.Taxa,
                SmallFlora.Seasons
            );
            var query = any.AnyQuery();
            var expected = own.Sift(query).Standing.ToDictionary(c => c.Taxon, c => c.Probability);
            Assert.All(ready.Sifter.Sift(query).Standing, c => Assert.Equal(expected[c.Taxon], c.Probability, 9));
        });

    [Fact]
    public void TheSameFloraGivesTheSameBytes() =>
        AnyFlora.Each(50, seed => Assert.Equal(PackFile.Write(Of(new AnyFlora(seed))), PackFile.Write(Of(new AnyFlora(seed)))));

    [Theory]
    [InlineData(0)]
    [InlineData(0.1)]
    [InlineData(12.4)]
    [InlineData(1 / 3d)]
    [InlineData(123456.789012)]
    [InlineData(1e-9)]
    [InlineData(35184372088831)]
    [InlineData(1e300)]
    public void NumbersComeBackToTheLastDigit(double number)
    {
        var length = SmallFlora.Length("length");
        var cell = new CharacterDescription("length", [], new QuantityRange(QuantityKind.Ratio, RangeForm.Between, number, number * 2 + 1));
        var flora = new Flora(
            "n",
            "N",
            [SmallFlora.Taxon("a"), SmallFlora.Taxon("b")],
            new CharacterTable(
                [length with { Kind = CharacterKind.Ratio }],
                [SmallFlora.Describe("a", cell), SmallFlora.Describe("b", SmallFlora.Lacks(length))],
                []
            )
        );
        Assert.Equal(Cell(cell), Cell(PackFile.Read(PackFile.Write(flora)).Columns.Describe("a", "length")));
    }

    [Fact]
    public void AFloraOfNothingIsOne()
    {
        var back = ReadyFlora.Read(ReadyFlora.Write(new Flora("empty", "Empty", [], CharacterTable.Empty)));
        var result = back.Sifter.Sift(new SiftQuery([]));
        Assert.Equal((RankingCall.NoneFits, "the list is empty"), (result.Call, result.InWords));
        Assert.Equal(Sifter.NotOnList, Assert.Single(result.Standing).Taxon);
    }

    [Fact]
    public void BytesThatAreNoPackAreRefusedAndNothingElseHappens() => AnyFlora.Each(60, seed =>
        {
            var whole = PackFile.Write(Of(new AnyFlora(seed)));
            var random = new Random(seed);
            for (var i = 0; i < 40; i++)
            {
                byte[] bent = random.Next(2) == 0 ? whole[..random.Next(whole.Length)] : [.. whole];
                if (bent.Length == whole.Length)
                    bent[random.Next(bent.Length)] ^= (byte)(1 << random.Next(8));
                if (Record.Exception(() => PackFile.Read(bent)) is { } error)
                    Assert.IsType<PackFormatException>(error);
            }
            Assert.Throws<PackFormatException>(() => PackFile.Read([]));
            Assert.Throws<PackFormatException>(() => PackFile.Read([.. "JSON"u8, .. whole]));
        });
}
