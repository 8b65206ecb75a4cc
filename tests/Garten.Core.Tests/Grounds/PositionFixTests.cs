using Garten.Core.Grounds;
using Xunit;

namespace Garten.Core.Tests.Grounds;

public sealed class PositionFixTests
{
    private static readonly GroundPoint Place = new(57.4, -11.2);

    private static readonly GroundPoint[] Outline =
    [
        new(57.401, -11.202),
        new(57.401, -11.198),
        new(57.399, -11.198),
        new(57.399, -11.202),
    ];

    [Theory]
    [InlineData(57.4, -11.2, 8, "")]
    // Just outside the boundary nobody wonders.
    [InlineData(57.403, -11.2, 8, "")]
    [InlineData(57.405, -11.2, 8, "445 m outside the place")]
    [InlineData(57.76, -11.2, 8, "39.9 km outside the place")]
    [InlineData(57.4, -11.2, 400, "± 400 m only")]
    [InlineData(0, 0, 5, "0° north")]
    [InlineData(99, 0, 5, "no position")]
    [InlineData(57.4, -11.2, 0, "no position")]
    public void APositionIsDoubtedAsAPersonWould(double latitude, double longitude, double accuracy, string says)
    {
        var doubt = new PositionFix(latitude, longitude, accuracy, 0).Doubt(Place, 100, Outline, null);
        Assert.Equal(says.Length == 0, doubt.Length == 0);
        Assert.Contains(says, doubt, StringComparison.Ordinal);
    }

    [Fact]
    public void AJumpIsDoubtedAndAWalkIsNot()
    {
        var before = new PositionFix(57.4, -11.2, 6, 100);
        Assert.Contains("jumped", new PositionFix(57.4019, -11.2, 6, 103).Doubt(Place, 100, Outline, before), StringComparison.Ordinal);
        Assert.Equal("", new PositionFix(57.4019, -11.2, 6, 400).Doubt(Place, 100, Outline, before));
        Assert.Equal("", new PositionFix(57.4003, -11.2, 6, 101).Doubt(Place, 100, Outline, before));
        // What was doubtful itself is no measure.
        Assert.Equal("", new PositionFix(57.4019, -11.2, 6, 103).Doubt(Place, 100, Outline, before with { AccuracyMetres = 500 }));
        // Without a boundary the circle of the place counts.
        Assert.Equal("", new PositionFix(57.4045, -11.2, 6, 0).Doubt(Place, 200, [], null));
        Assert.NotEqual("", new PositionFix(57.409, -11.2, 6, 0).Doubt(Place, 200, [], null));
    }
}
