using System.Text.Json.Serialization;

namespace Garten.Core.Grounds;

/// <summary>What a shape is.</summary>
[JsonConverter(typeof(CamelCaseWords<ShapeKind>))]
public enum ShapeKind
{
    /// <summary>A point.</summary>
    Point,

    /// <summary>A line: a track, a route.</summary>
    Line,

    /// <summary>An area.</summary>
    Area,
}

/// <summary>A shape out of a file.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Name">What the file calls it; may be empty.</param>
/// <param name="Points">Its points; an area is joined from the last to the first, its holes are left out.</param>
/// <param name="Corners">How many points it had in the file; more than <paramref name="Points"/> where it was thinned.</param>
public sealed record Shape(ShapeKind Kind, string Name, IReadOnlyList<GroundPoint> Points, int Corners);

/// <summary>What was read of a file.</summary>
/// <param name="Shapes">Its shapes, in the order of the file.</param>
/// <param name="Problem">Why it can't be read, or what of it was left out, in a sentence; empty where nothing is wrong.</param>
public sealed record ShapesRead(IReadOnlyList<Shape> Shapes, string Problem);
