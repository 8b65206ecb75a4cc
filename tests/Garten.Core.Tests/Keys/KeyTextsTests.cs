using System.Text;
using Garten.Core.Keys;
using Xunit;

namespace Garten.Core.Tests.Keys;

/// <summary>Key texts in the styles of books, each in a file with the reading made by hand behind it.</summary>
public sealed class KeyTextsTests
{
    private const string Divider = "=== reads as\n";
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Keys", "KeyTexts");

    public static TheoryData<string> Files =>
        [.. Directory.EnumerateFiles(Folder, "*.txt").Select(f => Path.GetFileNameWithoutExtension(f)!).Order(StringComparer.Ordinal)];

    [Theory]
    [MemberData(nameof(Files))]
    public void IsReadAsByHand(string file)
    {
        var content = File.ReadAllText(Path.Combine(Folder, file + ".txt"));
        var at = content.IndexOf(Divider, StringComparison.Ordinal);
        Assert.Equal(content[(at + Divider.Length)..].Trim(), Outline(KeyTextReader.Read(content[..at])));
    }

    [Theory]
    [MemberData(nameof(Files))]
    public void IsReadAlikeWithOtherLineEndsAndSpaces(string file)
    {
        var content = File.ReadAllText(Path.Combine(Folder, file + ".txt"));
        var text = content[..content.IndexOf(Divider, StringComparison.Ordinal)];
        var expected = Outline(KeyTextReader.Read(text));
        Assert.Equal(expected, Outline(KeyTextReader.Read(text.Replace("\n", "\r\n", StringComparison.Ordinal))));
        Assert.Equal(expected, Outline(KeyTextReader.Read(text.Replace(' ', '\u00A0'))));
    }

    [Theory]
    [MemberData(nameof(Files))]
    public void IsReadAlikeWhenWrittenOutInEitherLayout(string file)
    {
        var content = File.ReadAllText(Path.Combine(Folder, file + ".txt"));
        var reading = KeyTextReader.Read(content[..content.IndexOf(Divider, StringComparison.Ordinal)]);
        if (!reading.IsSound)
            return;
        foreach (var key in reading.Keys)
        {
            Assert.Equal(
                KeyOutline.Of(key),
                KeyOutline.Of(KeyTextReader.Read(KeyTextWriter.Write(key, KeyLayout.Bracketed)).Keys.Single())
            );
            Assert.Equal(KeyOutline.Of(key), KeyOutline.Of(KeyTextReader.Read(KeyTextWriter.Write(key, KeyLayout.Indented)).Keys.Single()));
        }
    }

    private static string Outline(KeyReading reading)
    {
        var text = new StringBuilder();
        foreach (var key in reading.Keys)
        {
            text.Append("# ")
                .Append(key.Title)
                .Append(" (")
                .Append(key.Layout == KeyLayout.Bracketed ? "bracketed" : "indented")
                .Append(")\n");
            foreach (var note in key.Notes)
                text.Append("  ").Append(note).Append('\n');
            text.Append(KeyOutline.Of(key));
        }
        foreach (var problem in reading.Problems.Where(p => p.Code != "key.untitled"))
        {
            text.Append("! ").Append(problem.Code).Append(' ').Append(problem.Line).Append(':').Append(problem.Column).Append('\n');
        }
        return text.ToString().Trim();
    }
}
