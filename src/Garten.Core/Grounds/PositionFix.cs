using System.Globalization;

namespace Garten.Core.Grounds;

/// <summary>A position as a receiver gives it.</summary>
/// <param name="Latitude">WGS 84 decimal degrees, north positive.</param>
/// <param name="Longitude">East positive.</param>
/// <param name="AccuracyMetres">Radius in metres that holds it in two of three cases; above 0.</param>
/// <param name="Seconds">When, in seconds since any fixed moment.</param>
public sealed record PositionFix(double Latitude, double Longitude, double AccuracyMetres, double Seconds)
{
    // Beyond this a position says less than the name of the place does.
    private const double RoughestMetres = 100;

    // Nobody who looks at plants is faster; a car on the way there is.
    private const double FastestMetresPerSecond = 12;

    // Two receivers on one spot differ by as much.
    private const double JumpMetres = 100;

    // A boundary is drawn roughly, and one steps over it.
    private const double BesideMetres = 300;

    // Where receivers stand that know nothing.
    private const double NowhereDegrees = 0.01;

    private GroundPoint Point => new(Latitude, Longitude);

    /// <summary>Why a person would doubt it, as a sentence; empty where nobody would.</summary>
    /// <param name="place">The point of the place where one is.</param>
    /// <param name="placeMetres">Radius of the circle that holds the place, in metres.</param>
    /// <param name="outline">Its boundary; empty where it isn't drawn.</param>
    /// <param name="before">The position before; null for a first one.</param>
    public string Doubt(GroundPoint place, double placeMetres, IReadOnlyList<GroundPoint> outline, PositionFix? before)
    {
        ArgumentNullException.ThrowIfNull(outline);
        if (!Point.IsOne() || !(AccuracyMetres > 0))
            return "The receiver gives no position.";
        if (Math.Abs(Latitude) < NowhereDegrees && Math.Abs(Longitude) < NowhereDegrees)
            return "The receiver gives 0° north, 0° east: it hasn’t found itself yet.";
        if (AccuracyMetres > RoughestMetres)
            return string.Create(CultureInfo.InvariantCulture, $"The position is good to ± {AccuracyMetres:0} m only.");
        var away =
            outline.Count >= Ring.FewestCorners ? Ring.MetresTo(outline, Point) : Math.Max(0, Ring.Metres(place, Point) - placeMetres);
        if (away > AccuracyMetres + BesideMetres)
            return away < 1000
                ? string.Create(CultureInfo.InvariantCulture, $"It lies {away:0} m outside the place.")
                : string.Create(CultureInfo.InvariantCulture, $"It lies {away / 1000:0.#} km outside the place.");
        if (before is not null && before.Doubt(place, placeMetres, outline, null).Length == 0)
        {
            var (metres, seconds) = (Ring.Metres(before.Point, Point), Math.Max(1, Seconds - before.Seconds));
            if (metres > JumpMetres + AccuracyMetres && metres / seconds > FastestMetresPerSecond)
                return string.Create(CultureInfo.InvariantCulture, $"It jumped {metres:0} m in {seconds:0} s.");
        }
        return "";
    }
}
