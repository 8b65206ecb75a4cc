using Garten.Core.Grounds;
using Xunit;

namespace Garten.Core.Tests.Grounds;

public sealed class PlaceSquaresTests
{
    private static readonly GroundPoint Place = new(57.4, -11.2);
    private static readonly DateOnly May = new(2026, 5, 20);

    private static GroundPoint At(double east, double north) =>
        new(57.4 + north / 111_195.08, -11.2 + east / (111_195.08 * Math.Cos(57.4 * Math.PI / 180)));

    private static readonly GroundPoint[] Field = [At(0, 0), At(400, 0), At(400, 300), At(0, 300)];

    [Fact]
    public void SquaresCoverThePlaceAndAreWalkedToAndFro()
    {
        var squares = PlaceSquares.Of(Place, 100, Field, 100);
        Assert.Equal(squares.Count, squares.Select(s => s.Name).Distinct().Count());
        // Every point of the place lies in one of them, and each is as wide as was asked for.
        for (var i = 1; i < 8; i++)
            Assert.Contains(squares, s => Ring.Holds(s.Outline, At(50 * i, 37 * i)));
        Assert.All(squares, s => Assert.Equal(10_000, Ring.Area(s.Outline), 10.0));
        Assert.All(squares, s => Assert.Equal(71, s.UncertaintyMetres));
        foreach (var (a, b) in squares.Zip(squares.Skip(1)))
            Assert.InRange(Ring.Metres(new GroundPoint(a.Latitude, a.Longitude), new GroundPoint(b.Latitude, b.Longitude)), 99, 101);
        Assert.Equal("A1", squares[0].Name);
    }

    [Fact]
    public void WhoDrawsTheBoundaryAnewFindsTheSameSquares()
    {
        var before = PlaceSquares.Of(Place, 100, Field, 100).Select(s => s.Outline[0]).ToHashSet();
        var after = PlaceSquares.Of(Place, 100, [At(3, 3), At(390, 5), At(395, 280), At(5, 290)], 100);
        Assert.All(after, s => Assert.Contains(s.Outline[0], before));
    }

    [Fact]
    public void WithoutABoundaryTheCircleCounts()
    {
        var squares = PlaceSquares.Of(Place, 100, [], 50);
        Assert.InRange(squares.Count, 16, 36);
        Assert.Empty(PlaceSquares.Of(Place, 20_000, [], 10));
        Assert.NotNull(PlaceSquares.Problem(5));
        Assert.NotNull(PlaceSquares.Problem(double.NaN));
        Assert.Null(PlaceSquares.Problem(100));
    }

    [Fact]
    public void ASquareSaysWhatLiesInItAndWhenSomebodyWasThere()
    {
        var seen = PlaceSquares.Seen(
            Place,
            100,
            Field,
            100,
            [
                new SeenSpot(At(120, 130), 5, "Alvena alba", May),
                new SeenSpot(At(121, 131), 5, "Alvena alba", May.AddDays(-300)),
                new SeenSpot(At(122, 132), 5, "Alvena nigra", null),
                // Less certain than a square is wide: in none.
                new SeenSpot(At(320, 230), 150, "Brontia lenta", May),
            ],
            // Two positions far apart of one way: what lies between was walked through.
            [new WalkedWay([At(20, 250), At(380, 250)], May.AddDays(-10)), new WalkedWay([At(20, 250)], May.AddDays(-400))]
        );
        SquareSeen Of(double east, double north) => seen.Single(s => Ring.Holds(s.Square.Outline, At(east, north)));
        var full = Of(120, 130);
        Assert.Equal((3, 2, May), (full.Records, full.Taxa, full.LastRecorded));
        Assert.Null(full.LastWalked);
        Assert.Equal(3, seen.Sum(s => s.Records));
        foreach (var east in new[] { 20, 120, 220, 320, 379 })
            Assert.Equal(May.AddDays(-10), Of(east, 250).LastWalked);
        Assert.Null(Of(220, 50).LastWalked);
    }
}
