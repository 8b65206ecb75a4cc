using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Grounds;

namespace Garten.Formats.Shapes;

/// <summary>Places as shapes: the place, its boundary, its parts, ways in and what to mind.</summary>
public static class PlaceShapes
{
    /// <summary>The shapes of a place; each says in "kind" what it is, and which place it is of.</summary>
    /// <param name="place">The place.</param>
    /// <param name="ground">Its ground; null where it isn't described.</param>
    public static IEnumerable<WrittenShape> Of(Place place, GroundDescription? ground)
    {
        ArgumentNullException.ThrowIfNull(place);
        yield return new WrittenShape(
            place.Name,
            [new GroundPoint(place.Latitude, place.Longitude)],
            [
                ("kind", "place"),
                ("locality", place.Locality),
                ("habitats", string.Join(" | ", place.Habitats ?? [])),
                ("uncertaintyMetres", Number(place.UncertaintyMetres)),
                ("mind", place.Caution),
            ]
        );
        if (ground is null)
            yield break;
        if (ground.Outline.Count >= Ring.FewestCorners)
            yield return new WrittenShape(
                place.Name,
                ground.Outline,
                [
                    ("kind", "boundary"),
                    ("squareMetres", Ring.Area(ground.Outline).ToString("0", CultureInfo.InvariantCulture)),
                    ("leaveFrom", ground.Leave?.From ?? ""),
                    ("leaveUntil", ground.Leave?.Until ?? ""),
                    ("allows", ground.Leave is { } leave ? leave.Allows.ToString().ToLowerInvariant() : ""),
                    ("passingOn", ground.Leave?.PassingOn ?? ""),
                ]
            );
        foreach (var part in ground.Parts.Where(p => p.Outline.Count >= Ring.FewestCorners))
            yield return new WrittenShape(
                part.Name,
                part.Outline,
                [
                    ("kind", "part"),
                    ("place", place.Name),
                    ("habitat", part.Habitat),
                    ("substrate", part.Substrate),
                    ("moisture", part.Moisture),
                    ("light", part.Light),
                    ("aspect", part.Aspect),
                    ("slopeDegrees", part.SlopeDegrees is { } slope ? Number(slope) : ""),
                ]
            );
        foreach (var (kind, marks) in new[] { ("way in", ground.Entrances), ("hazard", ground.Hazards) })
        {
            foreach (var mark in marks)
            {
                if (mark.At is { } at)
                    yield return new WrittenShape(mark.Name, [at], [("kind", kind), ("place", place.Name)]);
            }
        }
    }

    private static string Number(double value) => value.ToString(CultureInfo.InvariantCulture);
}
