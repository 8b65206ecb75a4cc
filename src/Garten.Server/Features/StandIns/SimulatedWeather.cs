using System.Globalization;
using Garten.Core.Contracts;

namespace Garten.Server.Features.StandIns;

/// <summary>A service that says how the weather was at a station near a place. The same place, day and hour have the same
/// weather.</summary>
internal static class SimulatedWeather
{
    // Of an island in a cold sea: the mean of the year, and how far summer and winter are from it.
    private const double MeanCelsius = 9;
    private const double YearCelsius = 6;
    private const double DayCelsius = 3;
    private const double MetresPerDegreeCelsius = 150;
    private const int ColdestDay = 35;
    private const int WarmestHour = 15;
    private const double DaysPerYear = 365.25;

    private const int HoursOfAFront = 6;

    private const double LateHours = 26;
    private const double FarMetres = 45_000;
    private const double NearMetres = 4_000;

    private static readonly string[] Rains = ["dry", "dry", "dry", "drizzle", "light rain", "heavy rain"];
    private static readonly string[] Winds = ["N", "NE", "E", "SE", "S", "SW", "SW", "W", "W", "NW"];

    /// <summary>What the service says; null where it says nothing.</summary>
    /// <param name="place">The place.</param>
    /// <param name="at">When.</param>
    /// <param name="mood">How well it works.</param>
    public static WeatherReading? At(Place place, DateTime at, StandInMood mood)
    {
        if (mood == StandInMood.Silent)
            return null;
        var when = mood == StandInMood.Late ? at.AddHours(-LateHours) : at;
        // A front passes in some hours: rain, cloud and wind are those of the quarter of the day.
        var random = new Random(
            unchecked(
                ((int)(place.Latitude * 1000) * 366 + when.DayOfYear + when.Year) * SimulatedWalk.SeedStep + when.Hour / HoursOfAFront
            )
        );
        var year = -YearCelsius * Math.Cos(2 * Math.PI * (when.DayOfYear - ColdestDay) / DaysPerYear);
        var day = DayCelsius * Math.Cos(2 * Math.PI * (when.Hour - WarmestHour) / 24.0);
        var rain = Rains[random.Next(Rains.Length)];
        return new WeatherReading(
            mood == StandInMood.Wrong ? "Far Skerry" : "Torvane Head",
            mood == StandInMood.Wrong ? FarMetres : NearMetres,
            when.ToString("yyyy-MM-dd'T'HH:mm", CultureInfo.InvariantCulture),
            Math.Round(MeanCelsius + year + day - (place.ElevationMetres ?? 0) / MetresPerDegreeCelsius + random.Next(-3, 4), 0),
            rain == "dry" ? random.Next(0, 8) : random.Next(6, 9),
            rain,
            random.Next(0, 7),
            Winds[random.Next(Winds.Length)]
        );
    }
}
