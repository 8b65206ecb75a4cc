using System.Globalization;

namespace Garten.Core.Grounds;

/// <summary>
/// Reads positions out of what a receiver says in NMEA 0183: sentences GGA (position, quality, dilution), RMC (date) and GST (errors), of
/// any constellation. A sentence whose checksum is missing or wrong says nothing.
/// </summary>
public sealed class NmeaReader
{
    // One-sigma error of a range of a civil receiver under the open sky; times the dilution it is the error of the position (Kaplan and
    // Hegarty, Understanding GPS/GNSS, 3rd ed. 2017, table 9.5: 3 to 6 m).
    private const double RangeErrorMetres = 5;

    private const double LargestMetres = 1e6;

    // A day begins anew at midnight UTC: an earlier time after a later one is of the next day.
    private const double DaySeconds = 86_400;

    private DateOnly? _date;
    private double _lastSeconds = -1;
    private (double Time, double Metres)? _errors;

    /// <summary>Whether the receiver said last that it has no position; false before it said anything.</summary>
    public bool IsLost { get; private set; }

    /// <summary>Reads a line.</summary>
    /// <param name="line">What the receiver said, with or without its end of line.</param>
    /// <returns>The position of a GGA sentence, with seconds since 1 January 1970 UTC where the receiver told the date before, and since
    /// midnight UTC else; null for anything else.</returns>
    public PositionFix? Read(string line)
    {
        ArgumentNullException.ThrowIfNull(line);
        if (Fields(line) is not { } fields || fields[0].Length != "GPGGA".Length)
            return null;
        switch (fields[0][2..])
        {
            case "RMC" when fields.Length > 9:
                ReadDate(fields[9]);
                return null;
            case "GST" when fields.Length > 8:
                if (Time(fields[1]) is { } at && Number(fields[6]) is { } north && Number(fields[7]) is { } east)
                    _errors = (at, Math.Sqrt(north * north + east * east));
                return null;
            case "GGA" when fields.Length > 8:
                return Position(fields);
            default:
                return null;
        }
    }

    private PositionFix? Position(string[] fields)
    {
        // Quality 0: no position; 6: reckoned on, without the sky; 7 and 8: typed in, simulated.
        IsLost = fields[6] is "0" or "6" or "";
        if (
            IsLost
            || Time(fields[1]) is not { } time
            || Angle(fields[2], fields[3], 2, "NS") is not { } latitude
            || Angle(fields[4], fields[5], 3, "EW") is not { } longitude
            || Number(fields[8]) is not { } dilution
            || dilution <= 0
        )
        {
            IsLost = true;
            return null;
        }
        if (time < _lastSeconds - DaySeconds / 2 && _date is { } day)
            _date = day.AddDays(1);
        _lastSeconds = time;
        var seconds = _date is { } date ? (date.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc) - DateTime.UnixEpoch).TotalSeconds : 0;
        var metres = _errors is { } errors && errors.Time == time ? errors.Metres : dilution * RangeErrorMetres;
        return new PositionFix(latitude, longitude, Math.Clamp(metres, double.Epsilon, LargestMetres), seconds + time);
    }

    // The fields of a sentence whose checksum is right.
    private static string[]? Fields(string line)
    {
        var text = line.Trim();
        var star = text.LastIndexOf('*');
        if (text.Length == 0 || text[0] != '$' || star < 0 || star + 3 != text.Length)
            return null;
        if (!int.TryParse(text.AsSpan(star + 1), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var told))
            return null;
        return Checksum(text[1..star]) == told ? text[1..star].Split(',') : null;
    }

    /// <summary>The checksum of a sentence: all its characters between <c>$</c> and <c>*</c>, joined by exclusive or.</summary>
    public static int Checksum(string between)
    {
        ArgumentNullException.ThrowIfNull(between);
        return between.Aggregate(0, (sum, c) => sum ^ c);
    }

    private void ReadDate(string text)
    {
        if (DateTime.TryParseExact(text, "ddMMyy", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
            _date = DateOnly.FromDateTime(day);
    }

    // hhmmss.ss as seconds since midnight.
    private static double? Time(string text) =>
        text.Length >= 6
        && int.TryParse(text.AsSpan(0, 2), NumberStyles.None, CultureInfo.InvariantCulture, out var hours)
        && int.TryParse(text.AsSpan(2, 2), NumberStyles.None, CultureInfo.InvariantCulture, out var minutes)
        && double.TryParse(text.AsSpan(4), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var seconds)
        && hours < 24
        && minutes < 60
        && seconds < 61
            ? (hours * 60 + minutes) * 60 + seconds
            : null;

    // Degrees and minutes run together: ddmm.mmmm, dddmm.mmmm.
    private static double? Angle(string text, string side, int digits, string sides)
    {
        if (
            text.Length < digits + 2
            || side.Length != 1
            || sides.IndexOf(side[0], StringComparison.Ordinal) is not (>= 0 and var at)
            || !int.TryParse(text.AsSpan(0, digits), NumberStyles.None, CultureInfo.InvariantCulture, out var degrees)
            || !double.TryParse(text.AsSpan(digits), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var minutes)
            || minutes >= 60
        )
            return null;
        var value = degrees + minutes / 60;
        return at == 0 ? value : -value;
    }

    private static double? Number(string text) =>
        double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value) ? value : null;
}
