using System.Text.RegularExpressions;
using Garten.Core.Keys;
using Garten.Testing;
using Xunit;

namespace Garten.Core.Tests;

/// <summary>Dependencies point one way: between projects, and between the folders of the core.</summary>
public sealed partial class ArchitectureTests
{
    // Each folder of the core may use those before it.
    private static readonly string[] Layers =
    [
        "Quantities",
        "Seasons",
        "Grounds",
        "Characters",
        "Botany",
        "Floras",
        "Evidence",
        "Language",
        "Identification",
        "Keys",
        "Packs",
        "Confirmation",
        "Visits",
        "Surveys",
        "Imports",
        "Deliveries",
        "Practice",
        "Contracts",
    ];

    private static readonly string Source = Path.Combine(Repository.Root, "src");

    [Fact]
    public void TheCoreUsesNothingButTheFramework() =>
        Assert.All(typeof(KeyTextReader).Assembly.GetReferencedAssemblies(), a =>
            Assert.StartsWith("System.", a.Name, StringComparison.Ordinal)
        );

    [Fact]
    public void NoFolderOfTheCoreUsesALaterOne()
    {
        foreach (var file in Directory.EnumerateFiles(Path.Combine(Source, "Garten.Core"), "*.cs", SearchOption.AllDirectories))
        {
            var folder = Path.GetRelativePath(Path.Combine(Source, "Garten.Core"), file).Split(Path.DirectorySeparatorChar)[0];
            // What stands at the root is for all.
            if (folder is "obj" or "bin" || folder.EndsWith(".cs", StringComparison.Ordinal))
                continue;
            var own = Array.IndexOf(Layers, folder);
            Assert.True(own >= 0, $"{folder} isn't among the layers.");
            foreach (Match used in CoreUse().Matches(File.ReadAllText(file)))
            {
                Assert.True(Array.IndexOf(Layers, used.Groups[1].Value) <= own, $"{file} uses {used.Groups[1].Value}, which comes later.");
            }
        }
    }

    [Theory]
    [InlineData("Core", "")]
    [InlineData("Formats", "Core")]
    [InlineData("Browser", "Core")]
    [InlineData("Server", "Core,Formats")]
    public void ProjectsDependOneWay(string project, string on)
    {
        var text = File.ReadAllText(Path.Combine(Source, $"Garten.{project}", $"Garten.{project}.csproj"));
        Assert.Equal(on, string.Join(',', ProjectUse().Matches(text).Select(m => m.Groups[1].Value).Order(StringComparer.Ordinal)));
    }

    [GeneratedRegex(@"using Garten\.Core\.(\w+);")]
    private static partial Regex CoreUse();

    [GeneratedRegex(@"ProjectReference Include=""[^""]*Garten\.(\w+)\.csproj""")]
    private static partial Regex ProjectUse();
}
