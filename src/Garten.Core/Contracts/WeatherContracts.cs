using System.Globalization;

namespace Garten.Core.Contracts;

/// <summary>What a weather service says.</summary>
/// <param name="Station">Where it was measured.</param>
/// <param name="Metres">How far that is from the place, in metres.</param>
/// <param name="At">When it was measured, <c>YYYY-MM-DDTHH:mm</c> of that place.</param>
/// <param name="Celsius">Air temperature in degrees Celsius.</param>
/// <param name="CloudOktas">Cloud, in eighths of the sky: 0 to 8.</param>
/// <param name="Rain">What falls, in words.</param>
/// <param name="WindForce">Wind on Beaufort's scale, 0 to 12.</param>
/// <param name="WindFrom">Where it comes from, as a point of the compass.</param>
public sealed record WeatherReading(
    string Station,
    double Metres,
    string At,
    double Celsius,
    int CloudOktas,
    string Rain,
    int WindForce,
    string WindFrom
)
{
    // A front passes in such a time.
    private const double OldestHours = 3;

    // Beyond it the weather is that of another place.
    private const double FarthestMetres = 25_000;

    private const int CloudlessOktas = 0;
    private const int OvercastOktas = 7;
    private const string Form = "yyyy-MM-dd'T'HH:mm";

    /// <summary>It in words, with where and when it was measured.</summary>
    public string InWords =>
        string.Create(CultureInfo.InvariantCulture, $"{Celsius:0} °C, {Sky}, {Rain}, {Wind} ({Station}, {At.Split('T')[^1]})");

    private string Sky =>
        CloudOktas == CloudlessOktas ? "clear"
        : CloudOktas >= OvercastOktas ? "overcast"
        : string.Create(CultureInfo.InvariantCulture, $"cloud {CloudOktas}/8");

    private string Wind => WindForce == 0 ? "calm" : string.Create(CultureInfo.InvariantCulture, $"wind {WindFrom} {WindForce}");

    /// <summary>Why a person wouldn't note it as the weather of a visit, as a sentence; empty where nobody would mind.</summary>
    /// <param name="wanted">For when it was asked, <c>YYYY-MM-DDTHH:mm</c> of the same place.</param>
    public string Doubt(string wanted)
    {
        if (Metres > FarthestMetres)
            return string.Create(CultureInfo.InvariantCulture, $"{Station} is {Metres / 1000:0} km away.");
        return
            DateTime.TryParseExact(At, Form, CultureInfo.InvariantCulture, DateTimeStyles.None, out var at)
            && DateTime.TryParseExact(wanted, Form, CultureInfo.InvariantCulture, DateTimeStyles.None, out var then)
            && Math.Abs((at - then).TotalHours) is var hours and <= OldestHours
            ? ""
            : $"It was measured at {At.Replace('T', ' ')}: hours before or after.";
    }
}

/// <summary>What a weather service answered.</summary>
/// <param name="Reading">What it says.</param>
/// <param name="InWords">That in words.</param>
/// <param name="Doubt">Why a person wouldn't note it; empty where nobody would mind.</param>
public sealed record WeatherAnswer(WeatherReading Reading, string InWords, string Doubt);
