using System.IO.Compression;
using System.Text.RegularExpressions;
using Garten.Testing;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>What a browser fetches of the program before a page stands: the entry and all that its route imports at once.</summary>
public sealed partial class FirstViewTests
{
    // Compressed as it is served.
    private const int MostBytes = 210_000;
    private static readonly string Assets = Path.Combine(
        Environment.GetEnvironmentVariable("GARTEN_WEB") ?? Path.Combine(Repository.Root, "artifacts", "web"),
        "assets"
    );
    private static readonly Dictionary<string, (string Text, int Bytes)> Known = new(StringComparer.Ordinal);

    [GeneratedRegex("""(?:from|import)\s*["']\./([^"']+\.js)["']""")]
    private static partial Regex StaticImport { get; }

    [GeneratedRegex("""assets/([^"']+\.js)""")]
    private static partial Regex OfThePage { get; }

    [GeneratedRegex("""import\("(?:\.\./)+[^"]*/(\w+)"\)""")]
    private static partial Regex Route { get; }

    public static TheoryData<string> Pages() =>
        [
            .. Route
                .Matches(File.ReadAllText(Path.Combine(Repository.Root, "web", "src", "app", "router.tsx")))
                .Select(m => m.Groups[1].Value)
                .Distinct(),
        ];

    [Theory]
    [MemberData(nameof(Pages))]
    public void OfEachPageItIsLittle(string page)
    {
        var reached = new HashSet<string>(StringComparer.Ordinal);
        foreach (Match entry in OfThePage.Matches(File.ReadAllText(Path.Combine(Assets, "..", "index.html"))))
            Reach(entry.Groups[1].Value, reached);
        Assert.NotEmpty(reached);
        var own = Directory.GetFiles(Assets, page + "-*.js").Select(f => Path.GetFileName(f)!).Single(f => f[page.Length..].Length == Tail);
        Reach(own, reached);
        var bytes = reached.Sum(f => Read(f).Bytes);
        Assert.True(
            bytes <= MostBytes,
            $"{page}: {bytes} bytes of {MostBytes}; the largest: "
                + string.Join(", ", reached.OrderByDescending(f => Read(f).Bytes).Take(8).Select(f => $"{f} {Read(f).Bytes}"))
        );
    }

    // A dash, eight letters of a fingerprint, ".js".
    private const int Tail = 12;

    private static void Reach(string file, HashSet<string> reached)
    {
        if (!reached.Add(file))
            return;
        foreach (Match import in StaticImport.Matches(Read(file).Text))
            Reach(import.Groups[1].Value, reached);
    }

    private static (string Text, int Bytes) Read(string file)
    {
        lock (Known)
        {
            if (Known.TryGetValue(file, out var known))
                return known;
            var bytes = File.ReadAllBytes(Path.Combine(Assets, file));
            var small = new byte[BrotliEncoder.GetMaxCompressedLength(bytes.Length)];
            Assert.True(BrotliEncoder.TryCompress(bytes, small, out var length, quality: 11, window: 22));
            return Known[file] = (System.Text.Encoding.UTF8.GetString(bytes), length);
        }
    }
}
