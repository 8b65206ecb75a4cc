using System.Globalization;
using System.Text.RegularExpressions;
using Garten.Core.Grounds;

namespace Garten.Core.Imports;

/// <summary>A position as tables have it: decimal degrees with a point or a comma, or degrees, minutes and seconds, with N, S, E, W or a
/// sign.</summary>
/// <param name="Point">The point; null where there is none.</param>
/// <param name="Wrong">What is wrong, in a sentence; empty where nothing is.</param>
public sealed partial record TypedPosition(GroundPoint? Point, string Wrong)
{
    private const double LargestLatitude = 90;
    private const double LargestLongitude = 180;

    // A point of nobody: where a cell was left at nought.
    private const double NowhereDegrees = 0.001;

    /// <summary>Reads latitude and longitude of two cells; both empty: no position, and nothing wrong.</summary>
    public static TypedPosition Read(string latitude, string longitude)
    {
        var (lat, lon) = ((latitude ?? "").Trim(), (longitude ?? "").Trim());
        if (lat.Length == 0 && lon.Length == 0)
            return new(null, "");
        if (lat.Length == 0 || lon.Length == 0)
            return new(null, "A position needs both latitude and longitude.");
        if (Degrees(lat, "NS") is not { } y || Degrees(lon, "EW") is not { } x)
            return new(
                null,
                Degrees(lat, "EW") is not null && Degrees(lon, "NS") is not null
                    ? "Latitude and longitude seem to be swapped."
                    : $"“{lat}, {lon}” is no position in degrees."
            );
        if (Math.Abs(y) > LargestLongitude || Math.Abs(x) > LargestLongitude)
            return new(null, $"“{lat}, {lon}” aren’t degrees: perhaps metres of a grid of their own. Bring degrees (WGS 84).");
        if (Math.Abs(y) > LargestLatitude)
            return new(
                null,
                Math.Abs(x) <= LargestLatitude
                    ? "Latitude and longitude seem to be swapped: no latitude is above 90°."
                    : "No latitude is above 90°."
            );
        if (Math.Abs(y) < NowhereDegrees && Math.Abs(x) < NowhereDegrees)
            return new(null, "0°, 0° lies in the open sea: a cell that was left empty, most likely.");
        return new(new GroundPoint(y, x), "");
    }

    /// <summary>Reads latitude and longitude of one cell, latitude first.</summary>
    public static TypedPosition Read(string both)
    {
        var plain = (both ?? "").Trim();
        if (plain.Length == 0)
            return new(null, "");
        // With a decimal comma the two are parted by a semicolon or a blank.
        foreach (var separator in Separators)
        {
            var parts = plain.Split(separator, StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            if (parts.Length == 2 && Degrees(parts[0], "NS") is not null)
                return Read(parts[0], parts[1]);
        }
        return Pair().Match(plain) is { Success: true } pair
            ? Read(pair.Groups["lat"].Value, pair.Groups["lon"].Value)
            : new(null, $"“{plain}” is no position in degrees.");
    }

    private static readonly string[] Separators = [";", ", ", ",", " "];

    // Degrees with a sign or one of two letters; null where the text has another form.
    private static double? Degrees(string text, string letters)
    {
        // Nearly all are plain numbers.
        if (
            double.TryParse(
                text,
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var plain
            )
        )
            return plain;
        if (Parts().Match(text) is not { Success: true } it)
            return null;
        var letter = it.Groups["before"].Value + it.Groups["after"].Value;
        if (letter.Length > 1 || (letter.Length == 1 && !letters.Contains(char.ToUpperInvariant(letter[0]))))
            return null;
        const int sixty = 60;
        double Part(string group) =>
            it.Groups[group].Success
                ? double.Parse(it.Groups[group].Value.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture)
                : 0;
        var (minutes, seconds) = (Part("m"), Part("s"));
        if (minutes >= sixty || seconds >= sixty)
            return null;
        var degrees = Part("d") + minutes / sixty + seconds / (sixty * sixty);
        var isNegative = it.Groups["sign"].Value is "-" or "−" || char.ToUpperInvariant(letter.FirstOrDefault()) is 'S' or 'W';
        return isNegative ? -degrees : degrees;
    }

    [GeneratedRegex(
        @"^(?<before>[NSEWnsew])?\s*(?<sign>[-−+])?(?<d>\d{1,7}(?:[.,]\d+)?)\s*[°º]?\s*(?:(?<m>\d{1,2}(?:[.,]\d+)?)\s*[′'’]\s*(?:(?<s>\d{1,2}(?:[.,]\d+)?)\s*(?:[″""”]|'')\s*)?)?(?<after>[NSEWnsew])?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Parts();

    [GeneratedRegex(@"^(?<lat>.*[NSns])[\s,;]*(?<lon>.*[EWew])$", RegexOptions.CultureInvariant)]
    private static partial Regex Pair();
}
