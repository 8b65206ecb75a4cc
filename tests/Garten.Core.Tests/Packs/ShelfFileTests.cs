using System.Text.Json;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Language;
using Garten.Core.Packs;
using Garten.Core.Quantities;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Packs;

/// <summary>A shelf of keys in its binary form and back.</summary>
public sealed class ShelfFileTests
{
    private const string Woods = """
        Key to the woods
        Notes stand here.
        1 Leaves opposite; buds black ... 2
        - Leaves alternate ... Key to the alders
        2 Fruit a samara ... Fraxa alta L. (page 12)
        - Fruit a berry ... Ligua nigra
        """;

    private const string Alders = """
        Key to the alders
        1 Bark grey ... Alna cana
        - Bark brown ... Alna rufa
        """;

    private const string Ferns = """
        Key to the ferns
        1 Fronds once pinnate ... Pola una
        - Fronds twice pinnate ... Pola bis
        """;

    private static KeyVersion Version(string text, string hash) => new(hash, KeyTextReader.Read(text).Keys[0], "A book", 3);

    private static Shelf Of(AnyFlora any) =>
        new(
            [Version(Woods, "aa"), Version(Alders, "bb"), Version(Ferns, "cc")],
            any.Taxa,
            new CharacterTable(any.Characters, any.Described, SmallFlora.Seasons),
            [new TaughtTerm("c0", "s1", "rough as a file", "A book")],
            [new CorrectedStatement("Bark grey", [new StatementClaim("c0", ["s1"], null, 1)])]
        );

    private static string Json(Shelf shelf) => JsonSerializer.Serialize(shelf, CoreJson.Default.Shelf);

    [Fact]
    public void AnyShelfComesBackAsItWentOut() => AnyFlora.Each(200, seed =>
        {
            var shelf = Of(new AnyFlora(seed));
            Assert.Equal(Json(shelf), Json(ShelfFile.Read(ShelfFile.Write(shelf))));
        });

    [Fact]
    public void EqualCellsAreWrittenOnce()
    {
        var any = new AnyFlora(7);
        var once = new CharacterTable(any.Characters, any.Described, []);
        var twice = once with { Descriptions = [.. any.Described, .. any.Described] };
        var shelf = Of(any);
        var (small, large) = (ShelfFile.Write(shelf with { Table = once }), ShelfFile.Write(shelf with { Table = twice }));
        // What is added is a place per cell, not the cells.
        Assert.InRange(large.Length - small.Length, 1, any.Described.Sum(d => 2 * d.Characters.Count + 8));
    }

    [Fact]
    public void WhatIsNoShelfOrCutOffIsRefused()
    {
        var bytes = ShelfFile.Write(Of(new AnyFlora(1)));
        Assert.Throws<PackFormatException>(() => ShelfFile.Read([]));
        Assert.Throws<PackFormatException>(() => ShelfFile.Read([.. bytes.Select((b, i) => i == 4 ? (byte)99 : b)]));
        Assert.Throws<PackFormatException>(() => ShelfFile.Read([.. bytes.Take(bytes.Length / 2)]));
        Assert.Throws<PackFormatException>(() => ShelfFile.Read(PackFile.Write(new Flora("a", "A", [], CharacterTable.Empty))));
    }

    [Fact]
    public void OnlyKeysThatAreLedToAreReached()
    {
        var shelf = Of(new AnyFlora(2));
        Assert.Equal(["aa", "bb"], shelf.ReachedFrom(["aa"]).Versions.Select(v => v.Hash));
        Assert.Equal(["bb"], shelf.ReachedFrom(["bb"]).Versions.Select(v => v.Hash));
        Assert.Equal(["bb", "cc"], shelf.ReachedFrom(["cc", "bb"]).Versions.Select(v => v.Hash));
        Assert.Empty(shelf.ReachedFrom(["unknown"]).Versions);
    }

    [Fact]
    public void AKeyIsFollowedAlikeOnWhatIsReached()
    {
        var shelf = Of(new AnyFlora(3));
        var request = new WalkRequest("aa", [new TrailAnswer("aa", "1", 1)]);
        static string Tell(WalkState state) => JsonSerializer.Serialize(state, CoreJson.Default.WalkState);
        Assert.Equal(
            Tell(request.Follow(shelf.Ready())),
            Tell(request.Follow(ShelfFile.Read(ShelfFile.Write(shelf.ReachedFrom(["aa"]))).Ready()))
        );
    }
}
