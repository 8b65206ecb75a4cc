using Garten.Core.Grounds;

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

/// <summary>What a point of the map is of.</summary>
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
