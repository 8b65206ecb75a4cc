using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Imports;

namespace Garten.Core.Contracts;

/// <summary>Says what the ground of a place is like: its boundary, parts, ways in, hazards, and leave to record.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="PlaceId">The place.</param>
/// <param name="Ground">All that is said of it.</param>
/// <param name="Version">The version that is changed; null where nothing was said before.</param>
public sealed record DescribePlaceCommand(Guid Id, Guid PlaceId, GroundDescription Ground, int? Version = null) : Command(Id);

/// <summary>The ground of a place, as it is kept.</summary>
/// <param name="PlaceId">The place.</param>
/// <param name="Ground">What is said of it.</param>
/// <param name="Version">Its version.</param>
public sealed record PlaceGround(Guid PlaceId, GroundDescription Ground, int Version)
{
    /// <summary>Area within its boundary, in square metres; null where it isn't drawn.</summary>
    public double? SquareMetres => Ground.Outline.Count < Ring.FewestCorners ? null : Ring.Area(Ground.Outline);
}

/// <summary>The grounds of places with what waits.</summary>
/// <param name="Grounds">What the server answered last.</param>
/// <param name="Waiting">What waits.</param>
public sealed record GroundsDocument(IReadOnlyList<PlaceGround> Grounds, Waiting Waiting)
{
    /// <summary>The grounds as they are on the device, by place.</summary>
    public IReadOnlyList<PlaceGround> Tell()
    {
        var grounds = Grounds.ToDictionary(g => g.PlaceId);
        foreach (var it in Waiting.Read().OfType<DescribePlaceCommand>())
        {
            var before = grounds.GetValueOrDefault(it.PlaceId)?.Version;
            if (it.Version == before)
                grounds[it.PlaceId] = new PlaceGround(it.PlaceId, it.Ground, (before ?? 0) + 1);
        }
        return [.. grounds.Values.OrderBy(g => g.PlaceId)];
    }
}

/// <summary>An outline that is being drawn.</summary>
/// <param name="Outline">Its corners.</param>
/// <param name="Place">The point of the place.</param>
public sealed record OutlineRequest(IReadOnlyList<GroundPoint> Outline, GroundPoint Place)
{
    /// <summary>Says how large it is and what is wrong with it.</summary>
    public OutlineAnswer Tell()
    {
        var ground = GroundDescription.None with { Outline = Outline ?? [] };
        var isMeasured = ground.Outline.All(p => p.IsOne());
        return new OutlineAnswer(isMeasured ? Ring.Area(ground.Outline) : 0, ground.Problem(Place)?.Message ?? "");
    }
}

/// <summary>What an outline comes to.</summary>
/// <param name="SquareMetres">Its area.</param>
/// <param name="Wrong">What is wrong with it, in a sentence; empty where nothing is.</param>
public sealed record OutlineAnswer(double SquareMetres, string Wrong);

/// <summary>A way that somebody went round a place.</summary>
/// <param name="Ways">The ways between the gaps of its track, in their order.</param>
public sealed record WalkedBoundaryRequest(IReadOnlyList<IReadOnlyList<GroundPoint>> Ways)
{
    /// <summary>Takes the boundary from it.</summary>
    public WalkedBoundary Tell() =>
        WalkedBoundary.Of([.. (Ways ?? []).Select(w => (IReadOnlyList<GroundPoint>)[.. (w ?? []).Where(p => p?.IsOne() == true)])]);
}

/// <summary>A position that is to be believed or not.</summary>
/// <param name="Fix">The position.</param>
/// <param name="Place">The point of the place where one is.</param>
/// <param name="PlaceMetres">Radius of the circle that holds the place, in metres.</param>
/// <param name="Outline">Its boundary; empty where it isn't drawn.</param>
/// <param name="Before">The position before; null for a first one.</param>
public sealed record PositionRequest(
    PositionFix Fix,
    GroundPoint Place,
    double PlaceMetres,
    IReadOnlyList<GroundPoint> Outline,
    PositionFix? Before = null
)
{
    /// <summary>Why a person would doubt it, as a sentence; empty where nobody would.</summary>
    public string Tell() => Fix.Doubt(Place, PlaceMetres, Outline ?? [], Before);
}

/// <summary>A position that was typed: a reference of a flora's grid, or latitude and longitude.</summary>
/// <param name="Text">What was typed.</param>
/// <param name="Grid">The grid; null where there is none.</param>
public sealed record PositionTextRequest(string Text, FloraGrid? Grid = null)
{
    private const int Longest = 200;

    // A degree of latitude; one of longitude is shorter.
    private const double MetresPerDegree = 111_195;
    private const int FinestDecimals = 6;

    /// <summary>Reads it. How certain it is follows from how finely it was written: a square holds it, or half of the last decimal each
    /// way.</summary>
    /// <exception cref="RequestException">It is too long.</exception>
    public PositionTextAnswer Read()
    {
        var text = (Text ?? "").Trim();
        if (text.Length > Longest)
            throw new RequestException("text", $"A position has up to {Longest} characters.");
        if (text.Length == 0)
            return new PositionTextAnswer(null, "", "");
        if (Grid?.Find(text) is { } square)
            return new PositionTextAnswer(
                new PlantSite(square.Latitude, square.Longitude, square.RadiusMetres),
                string.Create(CultureInfo.InvariantCulture, $"square {square.Name}, ± {square.RadiusMetres:0} m"),
                ""
            );
        var typed = TypedPosition.Read(text);
        if (typed.Point is not { } point)
            return new PositionTextAnswer(
                null,
                "",
                Grid is null || text.Any(c => c is '°' or '.' or ',')
                    ? typed.Wrong
                    : $"“{text}” is neither a square of the grid, as B2 or B2 34 71, nor latitude and longitude."
            );
        var decimals = Math.Min(FinestDecimals, text.Contains('°', StringComparison.Ordinal) ? SexagesimalDecimals(text) : Decimals(text));
        var metres = Math.Max(1, Math.Ceiling(Math.Pow(10, -decimals) / 2 * MetresPerDegree * Math.Sqrt(2)));
        return new PositionTextAnswer(
            new PlantSite(Math.Round(point.Latitude, FinestDecimals), Math.Round(point.Longitude, FinestDecimals), metres),
            string.Create(
                CultureInfo.InvariantCulture,
                $"{point.Latitude:0.######}, {point.Longitude:0.######}, ± {metres:0} m as it is written"
            ),
            ""
        );
    }

    // The fewest decimals of its two numbers.
    private static int Decimals(string text) =>
        text.Split([' ', ';'], StringSplitOptions.RemoveEmptyEntries)
            .SelectMany(p => p.Count(c => c == ',') == 1 && p.Contains('.', StringComparison.Ordinal) ? p.Split(',') : [p.TrimEnd(',')])
            .Where(p => p.Length > 0)
            .Select(p => p.Split('.', ',') is [_, var behind] ? behind.TakeWhile(char.IsAsciiDigit).Count() : 0)
            .DefaultIfEmpty(0)
            .Min();

    // A second is worth about four decimals of a degree, a minute two.
    private static int SexagesimalDecimals(string text) =>
        text.Contains('″', StringComparison.Ordinal) || text.Contains('"', StringComparison.Ordinal) ? 4
        : text.Contains('′', StringComparison.Ordinal) || text.Contains('\'', StringComparison.Ordinal) ? 2
        : Decimals(text);
}

/// <summary>What a typed position means.</summary>
/// <param name="Site">The position with its radius; null where it is none.</param>
/// <param name="Says">That in words.</param>
/// <param name="Wrong">What is wrong with it, in a sentence; empty where nothing is.</param>
public sealed record PositionTextAnswer(PlantSite? Site, string Says, string Wrong);

/// <summary>The pieces of a place that lists are written for.</summary>
/// <param name="Place">The point of the place.</param>
/// <param name="PlaceMetres">Radius of the circle that holds it.</param>
/// <param name="Ground">Its ground; null where it isn't described.</param>
/// <param name="SideMetres">Side of the squares that it is divided into; null for its parts alone.</param>
public sealed record CompartmentsRequest(GroundPoint Place, double PlaceMetres, GroundDescription? Ground = null, double? SideMetres = null)
{
    /// <summary>Its squares where these are asked for, to and fro as they are walked; else its parts that are drawn.</summary>
    /// <exception cref="RequestException">A square can't be so wide, or there would be too many.</exception>
    public IReadOnlyList<Compartment> Tell()
    {
        if (SideMetres is not { } side)
            return [.. (Ground?.Parts ?? []).Where(p => p.Outline.Count > 0).Select(p => Compartment.Of(p.Name, p.Outline))];
        if (PlaceSquares.Problem(side) is { } wrong)
            throw new RequestException("sideMetres", wrong);
        return PlaceSquares.Of(Place, PlaceMetres, Ground?.Outline ?? [], side) is { Count: > 0 } squares
            ? squares
            : throw new RequestException("sideMetres", $"A place has up to {PlaceSquares.MostSquares} squares: take larger ones.");
    }
}

/// <summary>A place by its squares, with what is known of each.</summary>
/// <param name="Place">The point of the place.</param>
/// <param name="PlaceMetres">Radius of the circle that holds it.</param>
/// <param name="Outline">Its boundary; empty where it isn't drawn.</param>
/// <param name="SideMetres">Side of a square.</param>
/// <param name="Points">What was recorded there. A population stands where its place does, and counts in no square.</param>
/// <param name="Tracks">Which ways were gone there.</param>
public sealed record SquaresRequest(
    GroundPoint Place,
    double PlaceMetres,
    IReadOnlyList<GroundPoint> Outline,
    double SideMetres,
    IReadOnlyList<MapPoint> Points,
    IReadOnlyList<PlacedTrack> Tracks
)
{
    /// <summary>The squares, to and fro as they are walked.</summary>
    /// <exception cref="RequestException">A square can't be so wide.</exception>
    public SquaresAnswer Tell()
    {
        if (PlaceSquares.Problem(SideMetres) is { } wrong)
            throw new RequestException("sideMetres", wrong);
        var squares = PlaceSquares.Seen(
            Place,
            PlaceMetres,
            Outline ?? [],
            SideMetres,
            [
                .. (Points ?? [])
                    .Where(p => p.Kind != MapPointKind.Population)
                    .Select(p => new SeenSpot(new GroundPoint(p.Latitude, p.Longitude), p.UncertaintyMetres, p.Called, p.Date)),
            ],
            [
                .. (Tracks ?? []).SelectMany(t =>
                    t.Track.Segments.Select(s => new WalkedWay([.. s.Select(p => new GroundPoint(p.Latitude, p.Longitude))], t.Date))
                ),
            ]
        );
        return new SquaresAnswer(
            squares,
            squares.Count(s => s.Records > 0),
            squares.Count(s => s.Records == 0 && s.LastWalked is not null),
            squares.Count(s => s.Records == 0 && s.LastWalked is null)
        );
    }
}

/// <summary>A place by its squares.</summary>
/// <param name="Squares">The squares; empty where there would be too many.</param>
/// <param name="Recorded">How many have records.</param>
/// <param name="Walked">How many have none, and a track leads through them.</param>
/// <param name="Never">How many have neither.</param>
public sealed record SquaresAnswer(IReadOnlyList<SquareSeen> Squares, int Recorded, int Walked, int Never);

/// <summary>What a point of the map is of.</summary>
[JsonConverter(typeof(CamelCaseWords<MapPointKind>))]
public enum MapPointKind
{
    /// <summary>A marked plant.</summary>
    Plant,

    /// <summary>A line of a list.</summary>
    Line,

    /// <summary>A population; it stands where its place does.</summary>
    Population,
}

/// <summary>Something recorded, on the map.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Id">The plant, the visit of the line, or the population.</param>
/// <param name="PlaceId">Where.</param>
/// <param name="Called">Its name, or what it is called.</param>
/// <param name="Date">The last day on which it was seen; null for never.</param>
/// <param name="Latitude">WGS 84 decimal degrees.</param>
/// <param name="Longitude">East positive.</param>
/// <param name="UncertaintyMetres">Radius of the circle that holds it.</param>
/// <param name="IsSensitive">Whether its place is kept back in whatever leaves the program.</param>
public sealed record MapPoint(
    MapPointKind Kind,
    Guid Id,
    Guid PlaceId,
    string Called,
    DateOnly? Date,
    double Latitude,
    double Longitude,
    double UncertaintyMetres,
    bool IsSensitive = false
);

/// <summary>A scanned map that is laid under the drawn one.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Name">What it is called.</param>
/// <param name="BottomLeft">Where the bottom left corner of the picture lies.</param>
/// <param name="TopRight">Where its top right corner lies.</param>
/// <param name="TopLeft">Where its top left corner lies, if the sheet is turned; null: north is at its top.</param>
public sealed record ScannedSheet(
    Guid Id,
    string Name,
    GroundPoint BottomLeft,
    GroundPoint TopRight,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] GroundPoint? TopLeft = null
)
{
    // A sheet that shows more than this is no map of a place.
    private const double LargestMetres = 500_000;

    // A corner that is so flat, the sine of its angle, was read off wrong: scans are turned, not bent.
    private const double FlattestCorner = 0.5;

    // Nothing is mapped on a sheet so small.
    private const double SmallestMetres = 1;

    /// <summary>What is wrong with where it lies: a field, a sentence and what to do; null where it can lie so.</summary>
    public (string Field, string Message, string Hint)? Problem()
    {
        if (!BottomLeft.IsOne() || !TopRight.IsOne() || TopLeft?.IsOne() == false)
            return ("south", "These corners aren’t on the earth.", "Give them in decimal degrees.");
        var across = Ring.Metres(BottomLeft, TopRight);
        if (across > LargestMetres)
            return (
                "south",
                string.Create(CultureInfo.InvariantCulture, $"It would be {across / 1000:0} km across."),
                "Look at the corners again."
            );
        if (TopLeft is not { } topLeft)
            return BottomLeft.Latitude >= TopRight.Latitude || BottomLeft.Longitude >= TopRight.Longitude
                ? (
                    "south",
                    "These corners span nothing with north at the top.",
                    "The first is in the south-west, the second in the north-east; of a turned sheet the third is needed."
                )
                : null;
        var plane = Ring.Plane([topLeft, TopRight, BottomLeft]);
        var (width, height) = (plane[1], plane[2]);
        var (wide, high) = (Math.Sqrt(width.X * width.X + width.Y * width.Y), Math.Sqrt(height.X * height.X + height.Y * height.Y));
        if (wide < SmallestMetres || high < SmallestMetres)
            return ("topLeft", "Two of its corners are one.", "The third lies at the top left of the picture.");
        // Of a picture that isn't seen from behind the left side lies clockwise of the upper one.
        var turn = (width.Y * height.X - width.X * height.Y) / (wide * high);
        return turn < -FlattestCorner
                ? ("topLeft", "So the sheet would be seen from behind.", "Look which corner is which: bottom left, top right, top left.")
            : turn < FlattestCorner ? ("topLeft", "So the sheet would be bent far out of its shape.", "Look at the three corners again.")
            : null;
    }
}

/// <summary>Tiles of a server elsewhere that can lie under the drawn map.</summary>
/// <param name="Credit">Whose they are, as it stands under the map.</param>
/// <param name="Finest">The finest zoom that it has, 0 to 22.</param>
public sealed record MapTiles(string Credit, int Finest);

/// <summary>What can lie under the drawn map.</summary>
/// <param name="Tiles">Tiles; null where no server of tiles is set.</param>
public sealed record MapBelow(MapTiles? Tiles);
