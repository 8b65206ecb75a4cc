using System.Globalization;
using System.Text.Json.Serialization;

namespace Garten.Core.Grounds;

/// <summary>What may be done to plants at a place.</summary>
[JsonConverter(typeof(CamelCaseWords<Allowed>))]
public enum Allowed
{
    /// <summary>Nobody asked.</summary>
    Unsaid,

    /// <summary>To look from the paths.</summary>
    Look,

    /// <summary>To touch and measure.</summary>
    Touch,

    /// <summary>To take pieces.</summary>
    Take,
}

/// <summary>A part of a place with a ground of its own: a compartment, a habitat.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Habitat">Its habitat, by the words of the flora; may be empty.</param>
/// <param name="Substrate">What it grows on; may be empty.</param>
/// <param name="Moisture">How wet; may be empty.</param>
/// <param name="Light">How light; may be empty.</param>
/// <param name="Aspect">Which way it faces; may be empty.</param>
/// <param name="SlopeDegrees">How steep, 0 to 90; null where not taken.</param>
/// <param name="Outline">Its outline, joined from the last point to the first; empty where not drawn.</param>
public sealed record GroundPart(
    string Name,
    string Habitat,
    string Substrate,
    string Moisture,
    string Light,
    string Aspect,
    double? SlopeDegrees,
    IReadOnlyList<GroundPoint> Outline
);

/// <summary>Something at a place that is found again by its name: a way in, or what to mind.</summary>
/// <param name="Name">What it is.</param>
/// <param name="At">Where; null where only the place is known.</param>
public sealed record GroundMark(string Name, GroundPoint? At);

/// <summary>Leave to record at a place.</summary>
/// <param name="From">Who gave it.</param>
/// <param name="Until">Until when, <c>YYYY-MM-DD</c>; empty where it doesn't end.</param>
/// <param name="Allows">What it allows.</param>
/// <param name="PassingOn">Whether records may be passed on, to whom, how precisely; may be empty.</param>
public sealed record RecordingLeave(string From, string Until, Allowed Allows, string PassingOn);

/// <summary>The ground of a place.</summary>
/// <param name="Outline">Its boundary, joined from the last point to the first; empty where not drawn.</param>
/// <param name="Parts">Its parts.</param>
/// <param name="Entrances">Ways in.</param>
/// <param name="Hazards">What to mind, where.</param>
/// <param name="Leave">Leave to record there; null where nothing is said.</param>
/// <param name="Tell">Whom to tell of an invasive plant that is new there; null or empty where nobody is written down.</param>
public sealed record GroundDescription(
    IReadOnlyList<GroundPoint> Outline,
    IReadOnlyList<GroundPart> Parts,
    IReadOnlyList<GroundMark> Entrances,
    IReadOnlyList<GroundMark> Hazards,
    RecordingLeave? Leave,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Tell = null
)
{
    /// <summary>Nothing said.</summary>
    public static GroundDescription None { get; } = new([], [], [], [], null);

    /// <summary>Most parts of a place.</summary>
    public const int MostParts = 200;

    private const int MostMarks = 100;

    // A circle round what is recorded may lie beside the boundary of the land; beyond this it is another place.
    private const double FarthestMetres = 20_000;

    private const double LargestSquareMetres = 1e10;

    /// <summary>What is wrong with it, as a field and a sentence; null where it can be kept.</summary>
    /// <param name="place">The point of the place.</param>
    public (string Field, string Message)? Problem(GroundPoint place)
    {
        ArgumentNullException.ThrowIfNull(place);
        if (Outline.Count > 0 && Wrong(Outline, place) is { } wrong)
            return ("outline", wrong);
        if (Parts.Count > MostParts)
            return ("parts", string.Create(CultureInfo.InvariantCulture, $"A place has up to {MostParts} parts."));
        if (Parts.GroupBy(p => p.Name.Trim(), StringComparer.OrdinalIgnoreCase).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return ("parts", $"“{twice.Key}” is there twice.");
        foreach (var part in Parts)
        {
            if (part.Outline.Count > 0 && Wrong(part.Outline, place) is { } bad)
                return ("parts", $"{part.Name}: {bad}");
            if (part.SlopeDegrees is { } slope && !(slope is >= 0 and <= 90))
                return ("parts", $"{part.Name}: a slope is 0 to 90 degrees.");
        }
        foreach (var (field, marks) in new[] { ("entrances", Entrances), ("hazards", Hazards) })
        {
            if (marks.Count > MostMarks)
                return (field, string.Create(CultureInfo.InvariantCulture, $"Up to {MostMarks} are noted."));
            if (marks.FirstOrDefault(m => m.At is { } at && (!at.IsOne() || Ring.Metres(at, place) > FarthestMetres)) is { } off)
                return (field, $"“{off.Name}” isn’t near the place.");
        }
        return null;
    }

    // What is wrong with an outline, in a sentence; null where it can be so.
    private static string? Wrong(IReadOnlyList<GroundPoint> outline, GroundPoint place)
    {
        if (outline.Count < Ring.FewestCorners)
            return "A boundary has three corners or more.";
        if (outline.Count > Ring.MostCorners)
            return string.Create(
                CultureInfo.InvariantCulture,
                $"A boundary has up to {Ring.MostCorners} corners; this one has {outline.Count}: thin it."
            );
        if (!outline.All(p => p.IsOne()))
            return outline.All(p => new GroundPoint(p.Longitude, p.Latitude).IsOne())
                ? "Latitude and longitude seem to be swapped: the latitude comes first."
                : "These aren’t decimal degrees: a latitude is -90 to 90, a longitude -180 to 180.";
        if (outline.Distinct().Count() < outline.Count)
            return "A corner is there twice.";
        if (Ring.MetresTo(outline, place) > FarthestMetres)
            return Ring.MetresTo([.. outline.Select(p => new GroundPoint(p.Longitude, p.Latitude))], place) < FarthestMetres
                ? "Latitude and longitude seem to be swapped: the latitude comes first."
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"It lies {Ring.MetresTo(outline, place) / 1000:0} km from the place: another place, or another system of coordinates?"
                );
        if (Ring.Crossing(outline) is { } corner)
            return string.Create(CultureInfo.InvariantCulture, $"The boundary crosses itself behind its corner {corner + 1}.");
        return Ring.Area(outline) is var area && area < 1 ? "The boundary encloses nothing."
            : area > LargestSquareMetres ? "The boundary encloses more than 10,000 km²: that is no recording place."
            : null;
    }
}
