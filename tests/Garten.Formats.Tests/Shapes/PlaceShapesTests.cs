using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Formats.Shapes;
using Xunit;

namespace Garten.Formats.Tests.Shapes;

public sealed class PlaceShapesTests
{
    private static readonly GroundPoint[] Boundary = [new(57.40, -11.20), new(57.40, -11.10), new(57.50, -11.10)];
    private static readonly GroundPoint[] Ditch = [new(57.41, -11.13), new(57.41, -11.11), new(57.43, -11.11)];

    private static readonly Place Meadow = new(
        Guid.CreateVersion7(),
        "Lang Meadow & ditch",
        "Torvane",
        57.42,
        -11.12,
        200,
        "Bulls <at times>.",
        Habitats: ["hay meadow"]
    );

    private static readonly GroundDescription Ground = new(
        Boundary,
        [new("ditch", "pools and ditches", "peat", "wet", "", "", null, Ditch), new("somewhere", "", "", "", "", "", null, [])],
        [new("gate", new GroundPoint(57.40, -11.15)), new("stile", null)],
        [new("soft ground", new GroundPoint(57.42, -11.12))],
        new RecordingLeave("the holder", "2027-03-31", Allowed.Touch, "")
    );

    private static ShapesRead ReadBack(ShapeForm form)
    {
        using var file = new MemoryStream();
        ShapeWriter.Write(file, form, PlaceShapes.Of(Meadow, Ground));
        return ShapeFile.Read(file.ToArray());
    }

    [Theory]
    [InlineData(ShapeForm.GeoJson)]
    [InlineData(ShapeForm.Kml)]
    [InlineData(ShapeForm.Gpx)]
    public void APlaceIsReadAgainAsItWasWritten(ShapeForm form)
    {
        var read = ReadBack(form);
        Assert.Equal("", read.Problem);
        Assert.Equal(
            ["Lang Meadow & ditch", "Lang Meadow & ditch", "ditch", "gate", "soft ground"],
            read.Shapes.Select(s => s.Name).Order(StringComparer.Ordinal)
        );
        // A receiver has no areas: the boundary is a track that ends where it begins.
        var areas = read.Shapes.Where(s => s.Points.Count > 1).ToList();
        Assert.Equal(2, areas.Count);
        Assert.Equal(Boundary, Corners(areas.Single(s => s.Name != "ditch")));
        Assert.Equal(Ditch, Corners(areas.Single(s => s.Name == "ditch")));
        Assert.Equal(new GroundPoint(57.40, -11.15), read.Shapes.Single(s => s.Name == "gate").Points[0]);
    }

    // Wherever the ring begins, and in whichever direction it goes.
    private static IEnumerable<GroundPoint> Corners(Shape shape) =>
        shape.Points.Distinct().OrderBy(p => p.Latitude).ThenBy(p => p.Longitude);

    [Fact]
    public void WhatIsSaidOfAPlaceGoesWithIt()
    {
        var shapes = PlaceShapes.Of(Meadow, Ground).ToList();
        string Of(string kind, string name) =>
            shapes.First(s => s.Properties.Contains(("kind", kind))).Properties.Single(p => p.Name == name).Value;
        Assert.Equal("touch", Of("boundary", "allows"));
        Assert.Equal("2027-03-31", Of("boundary", "leaveUntil"));
        Assert.Equal("Lang Meadow & ditch", Of("hazard", "place"));
        Assert.Equal("peat", Of("part", "substrate"));
        Assert.Equal("hay meadow", Of("place", "habitats"));
        Assert.Single(PlaceShapes.Of(Meadow, null));
    }
}
