using System.Globalization;

namespace Garten.Core.Grounds;

/// <summary>A piece of a place that a list is written for: a part of it, or a square.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Outline">Its outline.</param>
/// <param name="Latitude">Of the middle of the circle that holds it.</param>
/// <param name="Longitude">Of the same.</param>
/// <param name="UncertaintyMetres">Radius of that circle, in whole metres.</param>
public sealed record Compartment(
    string Name,
    IReadOnlyList<GroundPoint> Outline,
    double Latitude,
    double Longitude,
    double UncertaintyMetres
)
{
    private const int Digits = 6;

    /// <summary>A compartment of this outline: the circle is that round the middle of its extent.</summary>
    public static Compartment Of(string name, IReadOnlyList<GroundPoint> outline)
    {
        ArgumentNullException.ThrowIfNull(outline);
        var middle = new GroundPoint(
            Math.Round((outline.Min(p => p.Latitude) + outline.Max(p => p.Latitude)) / 2, Digits),
            Math.Round((outline.Min(p => p.Longitude) + outline.Max(p => p.Longitude)) / 2, Digits)
        );
        return new Compartment(
            name,
            outline,
            middle.Latitude,
            middle.Longitude,
            Math.Max(1, Math.Ceiling(outline.Max(p => Ring.Metres(middle, p))))
        );
    }
}

/// <summary>Something seen in a square.</summary>
/// <param name="At">Where.</param>
/// <param name="UncertaintyMetres">Radius of the circle that holds it.</param>
/// <param name="Name">Its name.</param>
/// <param name="Date">The day; null where none is known.</param>
public sealed record SeenSpot(GroundPoint At, double UncertaintyMetres, string Name, DateOnly? Date);

/// <summary>A way that was gone.</summary>
/// <param name="Points">Its positions, in the order of the walk.</param>
/// <param name="Date">The day.</param>
public sealed record WalkedWay(IReadOnlyList<GroundPoint> Points, DateOnly Date);

/// <summary>A square of a place, with what is known of it.</summary>
/// <param name="Square">The square.</param>
/// <param name="Records">How many records lie in it.</param>
/// <param name="Taxa">How many names these have.</param>
/// <param name="LastRecorded">The last day of these; null where there is none.</param>
/// <param name="LastWalked">The last day on which a track leads through it; null where none does. That somebody went through it doesn't say
/// that it was searched.</param>
public sealed record SquareSeen(Compartment Square, int Records, int Taxa, DateOnly? LastRecorded, DateOnly? LastWalked);

/// <summary>
/// Squares over a place, of a fixed side, laid from a corner that doesn't depend on the boundary: who draws it anew finds the same squares.
/// They are named by letters from west to east and numbers from south to north, as far as the place reaches.
/// </summary>
public static class PlaceSquares
{
    /// <summary>Smallest side, in metres: below it positions of a handheld receiver can't be told apart.</summary>
    public const double SmallestMetres = 10;

    /// <summary>Largest side, in metres.</summary>
    public const double LargestMetres = 10_000;

    /// <summary>Most squares of a place.</summary>
    public const int MostSquares = 2_500;

    private const double MetresPerDegree = 111_195.08;
    private const int Letters = 26;

    // So many points along a side decide whether a square reaches into a place.
    private const int Probes = 6;

    // A circle is drawn with so many corners.
    private const int CircleCorners = 36;

    // A way is looked at each so many parts of a side.
    private const double StepsPerSide = 5;

    /// <summary>What is wrong with a side, as a sentence; null where nothing is.</summary>
    public static string? Problem(double sideMetres) =>
        sideMetres is >= SmallestMetres and <= LargestMetres
            ? null
            : string.Create(CultureInfo.InvariantCulture, $"A square has a side of {SmallestMetres} to {LargestMetres} m.");

    /// <summary>The squares that reach into a place, from the south to the north, to and fro as they are walked; empty where these would be
    /// more than <see cref="MostSquares"/>.</summary>
    /// <param name="place">The point of the place.</param>
    /// <param name="placeMetres">Radius of the circle that holds it; it counts where the boundary isn't drawn.</param>
    /// <param name="outline">Its boundary; empty where it isn't drawn.</param>
    /// <param name="sideMetres">Side of a square, in metres.</param>
    public static IReadOnlyList<Compartment> Of(
        GroundPoint place,
        double placeMetres,
        IReadOnlyList<GroundPoint> outline,
        double sideMetres
    )
    {
        ArgumentNullException.ThrowIfNull(place);
        ArgumentNullException.ThrowIfNull(outline);
        var ring = outline.Count >= Ring.FewestCorners ? outline : Circle(place, placeMetres);
        var (high, wide) = Degrees(place, sideMetres);
        var (south, north) = (Cell(ring.Min(p => p.Latitude), high), Cell(ring.Max(p => p.Latitude), high));
        var (west, east) = (Cell(ring.Min(p => p.Longitude), wide), Cell(ring.Max(p => p.Longitude), wide));
        if ((north - south + 1) * (east - west + 1) > MostSquares)
            return [];
        List<Compartment> squares = [];
        for (var row = south; row <= north; row++)
        {
            for (var k = 0; k <= east - west; k++)
            {
                // To and fro: the next square is beside the last one.
                var column = (row - south) % 2 == 0 ? west + k : east - k;
                if (Reaches(ring, row, column, high, wide))
                    squares.Add(
                        Compartment.Of(
                            string.Create(CultureInfo.InvariantCulture, $"{Letter(column - west)}{row - south + 1}"),
                            [
                                new GroundPoint(row * high, column * wide),
                                new GroundPoint(row * high, (column + 1) * wide),
                                new GroundPoint((row + 1) * high, (column + 1) * wide),
                                new GroundPoint((row + 1) * high, column * wide),
                            ]
                        )
                    );
            }
        }
        return squares;
    }

    /// <summary>The squares of a place with what was recorded in them and which ways led through them. What is less certain than a square
    /// is wide belongs to none.</summary>
    public static IReadOnlyList<SquareSeen> Seen(
        GroundPoint place,
        double placeMetres,
        IReadOnlyList<GroundPoint> outline,
        double sideMetres,
        IReadOnlyList<SeenSpot> spots,
        IReadOnlyList<WalkedWay> ways
    )
    {
        ArgumentNullException.ThrowIfNull(spots);
        ArgumentNullException.ThrowIfNull(ways);
        var (high, wide) = Degrees(place, sideMetres);
        (long Row, long Column) CellOf(GroundPoint p) => (Cell(p.Latitude, high), Cell(p.Longitude, wide));
        var recorded = spots.Where(s => s.UncertaintyMetres <= sideMetres).ToLookup(s => CellOf(s.At));
        Dictionary<(long, long), DateOnly> walked = [];
        void Walk(GroundPoint at, DateOnly date)
        {
            var cell = CellOf(at);
            if (!walked.TryGetValue(cell, out var last) || last < date)
                walked[cell] = date;
        }
        foreach (var (points, date) in ways)
        {
            for (var i = 0; i < points.Count; i++)
            {
                Walk(points[i], date);
                if (i == 0)
                    continue;
                var (a, b) = (points[i - 1], points[i]);
                var steps = (int)Math.Min(MostSquares, Ring.Metres(a, b) / sideMetres * StepsPerSide);
                for (var s = 1; s < steps; s++)
                    Walk(
                        new GroundPoint(
                            a.Latitude + (b.Latitude - a.Latitude) * s / steps,
                            a.Longitude + (b.Longitude - a.Longitude) * s / steps
                        ),
                        date
                    );
            }
        }
        return
        [
            .. Of(place, placeMetres, outline, sideMetres)
                .Select(square =>
                {
                    var cell = CellOf(new GroundPoint(square.Latitude, square.Longitude));
                    var here = recorded[cell].ToList();
                    return new SquareSeen(
                        square,
                        here.Count,
                        here.Select(s => s.Name).Distinct(StringComparer.Ordinal).Count(),
                        here.Max(s => s.Date),
                        walked.TryGetValue(cell, out var last) ? last : null
                    );
                }),
        ];
    }

    private static (double High, double Wide) Degrees(GroundPoint place, double sideMetres)
    {
        var high = sideMetres / MetresPerDegree;
        return (high, high / Math.Cos(place.Latitude * Math.PI / 180));
    }

    private static long Cell(double degrees, double side) => (long)Math.Floor(degrees / side);

    private static bool Reaches(IReadOnlyList<GroundPoint> ring, long row, long column, double high, double wide)
    {
        if (ring.Any(p => Cell(p.Latitude, high) == row && Cell(p.Longitude, wide) == column))
            return true;
        for (var i = 0; i <= Probes; i++)
        {
            for (var k = 0; k <= Probes; k++)
            {
                if (Ring.Holds(ring, new GroundPoint((row + (double)i / Probes) * high, (column + (double)k / Probes) * wide)))
                    return true;
            }
        }
        return false;
    }

    private static List<GroundPoint> Circle(GroundPoint place, double metres)
    {
        var (high, wide) = Degrees(place, metres);
        return
        [
            .. Enumerable
                .Range(0, CircleCorners)
                .Select(i => 2 * Math.PI * i / CircleCorners)
                .Select(a => new GroundPoint(place.Latitude + high * Math.Sin(a), place.Longitude + wide * Math.Cos(a))),
        ];
    }

    // A, B … Z, AA.
    private static string Letter(long column) =>
        column < Letters ? $"{(char)('A' + column)}" : Letter(column / Letters - 1) + (char)('A' + column % Letters);
}
