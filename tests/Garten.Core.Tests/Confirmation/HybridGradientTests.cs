using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Xunit;

namespace Garten.Core.Tests.Confirmation;

/// <summary>Plants between two parents.</summary>
public sealed class HybridGradientTests
{
    private static GradientPlant Plant(string label, GradientGroup group, double petiole, double lobe) =>
        new(label, group, new Dictionary<string, double> { ["petiole"] = petiole, ["lobe"] = lobe });

    private static readonly GradientPlant[] Parents =
    [
        .. new[] { 9d, 10, 11, 10.5, 9.5 }.Select((x, i) => Plant($"a{i}", GradientGroup.First, x, x * 0.4)),
        .. new[] { 36d, 40, 44, 42, 38 }.Select((x, i) => Plant($"b{i}", GradientGroup.Second, x, x * 0.2)),
    ];

    [Fact]
    public void ParentsLieAtTheEndsAndWhatIsBetweenBetween()
    {
        var gradient = HybridGradient.Of([.. Parents, Plant("h", GradientGroup.Stand, 20, 5.66)]);
        var middle = gradient.Points.Single(p => p.Label == "h");
        // 20 mm is the geometric mean of 10 and 40.
        Assert.InRange(middle.Index!.Value, 0.45, 0.55);
        Assert.Equal("between the parents", middle.Call);
        Assert.All(gradient.Points.Where(p => p.Group == GradientGroup.First), p =>
            Assert.Equal("as the first parent, or near it", p.Call)
        );
        Assert.All(gradient.Points.Where(p => p.Group == GradientGroup.Second), p =>
            Assert.Equal("as the second parent, or near it", p.Call)
        );
        Assert.Contains(gradient.Notes, n => n.Contains("proves no first cross", StringComparison.Ordinal));
        Assert.Contains(gradient.Notes, n => n.Contains("never told from form alone", StringComparison.Ordinal));
        Assert.Contains(gradient.Notes, n => n.Contains("resemble one parent", StringComparison.Ordinal));
    }

    [Fact]
    public void OneCharacterByHand()
    {
        GradientPlant Of(string label, GradientGroup group, double score) =>
            new(label, group, new Dictionary<string, double> { ["score"] = score });
        // Scores with a 0 among them aren't taken as logarithms: parents at 0 and 4, each with deviation 1 of 3 plants.
        var gradient = HybridGradient.Of([
            Of("a1", GradientGroup.First, -1),
            Of("a2", GradientGroup.First, 0),
            Of("a3", GradientGroup.First, 1),
            Of("b1", GradientGroup.Second, 3),
            Of("b2", GradientGroup.Second, 4),
            Of("b3", GradientGroup.Second, 5),
            Of("x", GradientGroup.Stand, 1),
        ]);
        var x = gradient.Points.Single(p => p.Label == "x");
        Assert.Equal(0.25, x.Index!.Value, 12);
        // Weight 16, so a variance of 1/16, and that of the means: 1·(1/3 + 1/3)/2 over 16.
        var error = Math.Sqrt(1 / 16d + 1 / 3d / 16);
        Assert.Equal(0.25 - 1.959963984540054 * error, x.Low, 9);
        Assert.Contains(gradient.Notes, n => n.StartsWith("One character alone", StringComparison.Ordinal));
    }

    [Fact]
    public void WithoutParentsNothingIsSaid()
    {
        var gradient = HybridGradient.Of([.. Parents.Where(p => p.Group == GradientGroup.First), Plant("h", GradientGroup.Stand, 20, 6)]);
        Assert.All(gradient.Points, p => Assert.Null(p.Index));
        Assert.Contains("at least 3 plants of each parent", Assert.Single(gradient.Notes), StringComparison.Ordinal);
    }

    [Fact]
    public void ATableIsReadAndWhatIsWrongIsSaidAtItsCell()
    {
        const string heads = "plant\tgroup\tpetiole\tlobe\n";
        var answer = new GradientRequest(heads + "x\tneither\t12\t3\ny\tfirst\ttwelve\t3\n").WorkOut();
        Assert.Null(answer.Gradient);
        Assert.Equal([(2, 2), (3, 3)], answer.Problems.Select(p => (p.Line, p.Column)));
        var rows = string.Concat(
            Parents.Select(p => $"{p.Label}\t{p.Group}\t{p.Values["petiole"]:0.0}\t{p.Values["lobe"]:0.00}\n".Replace(',', '.'))
        );
        Assert.Equal(11, new GradientRequest(heads + rows + "\nh\tstand\t20\t\n").WorkOut().Gradient!.Points.Count);
        Assert.Single(new GradientRequest("").WorkOut().Problems);
    }
}
