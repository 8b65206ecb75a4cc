using Garten.Core.Keys;
using Garten.Formats.Tables;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>The demo's keys as benchmarks follow them.</summary>
internal static class DemoKeys
{
    /// <summary>Titles of the keys where one may begin with a plant that isn't known at all.</summary>
    public static IReadOnlyList<string> Entries { get; } =
    [
        "Key to the groups of woody plants of Torvane",
        "Key to the herbs, ferns and grasses of Torvane",
        "Key to the leafless twigs of Torvane",
    ];

    /// <summary>All keys of the demo with its flora.</summary>
    public static BenchShelf Shelf(FloraReading flora) =>
        new(
            new KeyShelf(
                [
                    .. Directory
                        .EnumerateFiles(Path.Combine(Repository.Root, "demo", "keys"), "*.txt")
                        .Order(StringComparer.Ordinal)
                        .SelectMany(f => KeyTextReader.Read(File.ReadAllText(f)).Keys)
                        .Select(k => new KeyVersion(KeyHash.Of(k), k)),
                ],
                flora.Taxa
            ),
            flora.Table,
            flora.Taxa
        );
}
