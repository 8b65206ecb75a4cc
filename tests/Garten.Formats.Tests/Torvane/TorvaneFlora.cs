using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Formats.Tables;
using Garten.Testing;

namespace Garten.Formats.Tests.Torvane;

/// <summary>The demo's flora and keys, as the server loads them, and specimens drawn from the descriptions.</summary>
internal static class TorvaneFlora
{
    public static string Root => Repository.Root;

    public static FloraReading Written { get; } = FloraFolder.Read(Path.Combine(Root, "demo", "flora"));

    public static IReadOnlyList<Taxon> Taxa => Written.Taxa;

    public static CharacterTable Table => Written.Table;

    public static IReadOnlyList<KeyVersion> Keys { get; } =
    [
        .. Directory
            .EnumerateFiles(Path.Combine(Root, "demo", "keys"), "*.txt")
            .Order(StringComparer.Ordinal)
            .SelectMany(f => KeyTextReader.Read(File.ReadAllText(f)).Keys)
            .Select(k => new KeyVersion(KeyHash.Of(k), k)),
    ];

    public static BenchShelf Shelf { get; } = new(new KeyShelf(Keys, Taxa), Table, Taxa);

    private static readonly byte[] Pack = ReadyFlora.Write(new Flora("torvane", "Torvane", Taxa, Table));

    /// <summary>The flora as identification loads it, through its binary form. It is for one at a time: each class of tests has its
    /// own.</summary>
    public static ReadyFlora MakeReady() => ReadyFlora.Read(Pack);

    public static string Start(string title) => Keys.First(k => k.Key.Title == title).Hash;

    public const string Leaf = "Key to the woody plants of Torvane in leaf";

    public const string Twigs = "Key to the leafless twigs of Torvane";

    /// <summary>A look at one character of a plant drawn from a description: a state by its share, or readings from its range.</summary>
    public static Observation? Look(
        Random random,
        Character character,
        CharacterDescription? described,
        int readings = 3,
        ObservationContext? context = null
    )
    {
        if (described is null || new SimulatedPlant([described], random).Look(character, readings, context) is not { } look)
            return null;
        return look with { Id = Guid.NewGuid(), Date = "2026-07-01" };
    }
}
