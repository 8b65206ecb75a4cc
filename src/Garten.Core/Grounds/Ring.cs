namespace Garten.Core.Grounds;

/// <summary>A point on the earth.</summary>
/// <param name="Latitude">WGS 84 decimal degrees, north positive.</param>
/// <param name="Longitude">WGS 84 decimal degrees, east positive.</param>
public sealed record GroundPoint(double Latitude, double Longitude)
{
    /// <summary>Whether there is such a point.</summary>
    public bool IsOne() => Latitude is >= -90 and <= 90 && Longitude is >= -180 and <= 180;
}

/// <summary>
/// The arithmetic of outlines no larger than an island: points are laid on a plane that touches the sphere at the outline
/// (equirectangular), which errs by less than one in a thousand up to 50 km across and 70° of latitude. Rings are open: the last point is
/// joined to the first. Across the 180th meridian they aren't understood.
/// </summary>
public static class Ring
{
    private const double EarthRadiusMetres = 6_371_008.8;

    /// <summary>Fewest corners of an outline.</summary>
    public const int FewestCorners = 3;

    /// <summary>Most corners of an outline that is kept; finer ones are thinned before.</summary>
    public const int MostCorners = 2_000;

    /// <summary>Metres between two points on a sphere with the mean radius of the earth (haversine).</summary>
    public static double Metres(GroundPoint from, GroundPoint to)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(to);
        static double Radians(double degrees) => degrees * Math.PI / 180;
        static double Square(double x) => x * x;
        var h =
            Square(Math.Sin(Radians(to.Latitude - from.Latitude) / 2))
            + Math.Cos(Radians(from.Latitude))
                * Math.Cos(Radians(to.Latitude))
                * Square(Math.Sin(Radians(to.Longitude - from.Longitude) / 2));
        return 2 * EarthRadiusMetres * Math.Asin(Math.Min(1, Math.Sqrt(h)));
    }

    /// <summary>Area in square metres, whichever way round it is drawn; 0 for fewer than three corners.</summary>
    public static double Area(IReadOnlyList<GroundPoint> ring)
    {
        ArgumentNullException.ThrowIfNull(ring);
        if (ring.Count < FewestCorners)
            return 0;
        var plane = Plane(ring);
        var twice = 0.0;
        for (var i = 0; i < plane.Length; i++)
        {
            var (a, b) = (plane[i], plane[(i + 1) % plane.Length]);
            twice += a.X * b.Y - b.X * a.Y;
        }
        return Math.Abs(twice) / 2;
    }

    /// <summary>Whether a point lies within; one on the line may count either way.</summary>
    public static bool Holds(IReadOnlyList<GroundPoint> ring, GroundPoint point)
    {
        ArgumentNullException.ThrowIfNull(ring);
        ArgumentNullException.ThrowIfNull(point);
        var inside = false;
        for (int i = 0, j = ring.Count - 1; i < ring.Count; j = i++)
        {
            var (a, b) = (ring[i], ring[j]);
            if (
                a.Latitude > point.Latitude != b.Latitude > point.Latitude
                && point.Longitude < (b.Longitude - a.Longitude) * (point.Latitude - a.Latitude) / (b.Latitude - a.Latitude) + a.Longitude
            )
                inside = !inside;
        }
        return inside;
    }

    /// <summary>Metres from a point to an outline: 0 within.</summary>
    public static double MetresTo(IReadOnlyList<GroundPoint> ring, GroundPoint point)
    {
        ArgumentNullException.ThrowIfNull(ring);
        if (ring.Count == 0)
            return double.PositiveInfinity;
        if (Holds(ring, point))
            return 0;
        var plane = Plane([.. ring, point]);
        var at = plane[^1];
        var nearest = double.PositiveInfinity;
        for (var i = 0; i < ring.Count; i++)
            nearest = Math.Min(nearest, ToSegment(at, plane[i], plane[(i + 1) % ring.Count]));
        return nearest;
    }

    /// <summary>Where an outline crosses or touches itself: the first of the two edges, by its corner from 0; null where it
    /// doesn't.</summary>
    public static int? Crossing(IReadOnlyList<GroundPoint> ring) => Crossings(ring)?.First;

    /// <summary>The two edges by which an outline crosses or touches itself first, each by its corner from 0; null where it
    /// doesn't.</summary>
    internal static (int First, int Second)? Crossings(IReadOnlyList<GroundPoint> ring)
    {
        ArgumentNullException.ThrowIfNull(ring);
        var plane = Plane(ring);
        for (var i = 0; i < plane.Length; i++)
        {
            var (a, b) = (plane[i], plane[(i + 1) % plane.Length]);
            for (var j = i + 1; j < plane.Length; j++)
            {
                // Neighbours share a corner; they cross only where they run back over each other.
                var isNeighbour = j == i + 1 || i == 0 && j == plane.Length - 1;
                var (c, d) = (plane[j], plane[(j + 1) % plane.Length]);
                if (isNeighbour ? RunsBack(i, j, plane) : Cross(a, b, c, d))
                    return (i, j);
            }
        }
        return null;
    }

    private static bool RunsBack(int i, int j, (double X, double Y)[] plane)
    {
        var n = plane.Length;
        if (n <= FewestCorners)
            return false;
        var (a, corner, b) = j == i + 1 ? (plane[i], plane[j], plane[(j + 1) % n]) : (plane[j], plane[i], plane[(i + 1) % n]);
        return Side(a, corner, b) == 0 && (a.X - corner.X) * (b.X - corner.X) + (a.Y - corner.Y) * (b.Y - corner.Y) > 0;
    }

    private static double Side((double X, double Y) a, (double X, double Y) b, (double X, double Y) c) =>
        (b.X - a.X) * (c.Y - a.Y) - (b.Y - a.Y) * (c.X - a.X);

    private static bool Cross((double X, double Y) a, (double X, double Y) b, (double X, double Y) c, (double X, double Y) d)
    {
        var (abc, abd, cda, cdb) = (Side(a, b, c), Side(a, b, d), Side(c, d, a), Side(c, d, b));
        if (abc * abd < 0 && cda * cdb < 0)
            return true;
        return abc == 0 && Lies(a, c, b) || abd == 0 && Lies(a, d, b) || cda == 0 && Lies(c, a, d) || cdb == 0 && Lies(c, b, d);
    }

    // Of three points on a line whether the middle one lies between the others.
    private static bool Lies((double X, double Y) a, (double X, double Y) middle, (double X, double Y) b) =>
        Math.Min(a.X, b.X) <= middle.X
        && middle.X <= Math.Max(a.X, b.X)
        && Math.Min(a.Y, b.Y) <= middle.Y
        && middle.Y <= Math.Max(a.Y, b.Y);

    /// <summary>Metres from a point of a plane to the line between two others, that ends there.</summary>
    internal static double ToSegment((double X, double Y) p, (double X, double Y) a, (double X, double Y) b)
    {
        var t = Along(p, a, b);
        var (x, y) = (a.X + t * (b.X - a.X) - p.X, a.Y + t * (b.Y - a.Y) - p.Y);
        return Math.Sqrt(x * x + y * y);
    }

    /// <summary>How far along the line between two points of a plane lies what is nearest to a third: 0 at its beginning, 1 at its
    /// end.</summary>
    internal static double Along((double X, double Y) p, (double X, double Y) a, (double X, double Y) b)
    {
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var length = dx * dx + dy * dy;
        return length == 0 ? 0 : Math.Clamp(((p.X - a.X) * dx + (p.Y - a.Y) * dy) / length, 0, 1);
    }

    /// <summary>Metres east and north of the first point; a degree of longitude is as long as in the middle between south and
    /// north.</summary>
    internal static (double X, double Y)[] Plane(IReadOnlyList<GroundPoint> ring)
    {
        if (ring.Count == 0)
            return [];
        var degree = EarthRadiusMetres * Math.PI / 180;
        var origin = ring[0];
        var narrowing = Math.Cos((ring.Min(p => p.Latitude) + ring.Max(p => p.Latitude)) / 2 * Math.PI / 180);
        return [.. ring.Select(p => ((p.Longitude - origin.Longitude) * degree * narrowing, (p.Latitude - origin.Latitude) * degree))];
    }
}
