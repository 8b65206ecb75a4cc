using System.Globalization;
using Garten.Core.Grounds;

namespace Garten.Server.Features.StandIns;

/// <summary>What a stand-in does as the real thing does at its worst.</summary>
internal enum StandInMood
{
    /// <summary>It works as it should.</summary>
    Well,

    /// <summary>It answers too late: what it says was so a while ago.</summary>
    Late,

    /// <summary>It says what isn't so.</summary>
    Wrong,

    /// <summary>It says nothing.</summary>
    Silent,
}

/// <summary>
/// Somebody who walks over a place from plant to plant with a receiver, and what that says: it errs by a few metres that wander slowly, by
/// more under trees, and there it loses the sky now and then. The same seed walks the same way.
/// </summary>
internal sealed class SimulatedWalk
{
    // Somebody who looks for plants.
    private const double MetresPerSecond = 0.8;
    private const int Stops = 40;
    private const int ShortestStopSeconds = 15;
    private const int LongestStopSeconds = 75;

    // How far off it is, at most: in the open, under trees.
    private const double OpenMetres = 3;
    private const double TreesMetres = 9;

    // Under trees it is without the sky for such a while in one case of four.
    private const int LostSeconds = 50;
    private const double ChanceOfLost = 0.25;

    // Spreads seeds that stand close together.
    internal const int SeedStep = 31_337;

    private const double LateSeconds = 25;
    private const double JumpMetres = 600;
    private const int WrongEverySeconds = 7;
    private const double DaySeconds = 86_400;
    private const double MetresPerDegree = 111_195;
    private const int MostTries = 2_000;

    private readonly IReadOnlyList<IReadOnlyList<GroundPoint>> _woods;
    private readonly int _seed;
    private readonly List<(double From, GroundPoint A, GroundPoint B, double Walk)> _legs = [];
    private readonly double _period;

    /// <summary>A walk.</summary>
    /// <param name="place">The point of the place; it is walked round where it has no outline.</param>
    /// <param name="metres">Radius of the circle that holds the place.</param>
    /// <param name="outline">Its boundary; empty where it isn't drawn.</param>
    /// <param name="woods">What of it lies under trees.</param>
    /// <param name="seed">Decides the way.</param>
    /// <param name="pace">How many times faster than somebody who looks for plants; above 0.</param>
    public SimulatedWalk(
        GroundPoint place,
        double metres,
        IReadOnlyList<GroundPoint> outline,
        IReadOnlyList<IReadOnlyList<GroundPoint>> woods,
        int seed,
        double pace = 1
    )
    {
        (_woods, _seed) = (woods, seed);
        var random = new Random(seed);
        var spots = Spots(place, metres, outline, random);
        var at = 0.0;
        for (var i = 0; i < spots.Count; i++)
        {
            var (a, b) = (spots[i], spots[(i + 1) % spots.Count]);
            var walk = Ring.Metres(a, b) / (MetresPerSecond * pace);
            _legs.Add((at, a, b, walk));
            at += walk + random.Next(ShortestStopSeconds, LongestStopSeconds) / pace;
        }
        _period = at;
    }

    private static List<GroundPoint> Spots(GroundPoint place, double metres, IReadOnlyList<GroundPoint> outline, Random random)
    {
        var narrow = Math.Cos(place.Latitude * Math.PI / 180);
        var isDrawn = outline.Count >= Ring.FewestCorners;
        var (south, north) = isDrawn
            ? (outline.Min(p => p.Latitude), outline.Max(p => p.Latitude))
            : (place.Latitude - metres / MetresPerDegree, place.Latitude + metres / MetresPerDegree);
        var (west, east) = isDrawn
            ? (outline.Min(p => p.Longitude), outline.Max(p => p.Longitude))
            : (place.Longitude - metres / MetresPerDegree / narrow, place.Longitude + metres / MetresPerDegree / narrow);
        List<GroundPoint> spots = [];
        for (var tries = 0; spots.Count < Stops && tries < MostTries; tries++)
        {
            var spot = new GroundPoint(south + random.NextDouble() * (north - south), west + random.NextDouble() * (east - west));
            if (!isDrawn || Ring.Holds(outline, spot))
                spots.Add(spot);
        }
        // From each to the nearest one that wasn't visited: nobody runs to and fro across a place.
        List<GroundPoint> way = spots.Count == 0 ? [place] : [spots[0]];
        foreach (var _ in spots.Skip(1))
            way.Add(spots.Except(way).MinBy(s => Ring.Metres(way[^1], s))!);
        return way;
    }

    /// <summary>Where one is after so many seconds.</summary>
    public GroundPoint At(double seconds)
    {
        var t = _period > 0 ? seconds % _period : 0;
        var (from, a, b, walk) = _legs.FindLast(l => l.From <= t);
        var share = walk > 0 ? Math.Clamp((t - from) / walk, 0, 1) : 1;
        return new GroundPoint(a.Latitude + share * (b.Latitude - a.Latitude), a.Longitude + share * (b.Longitude - a.Longitude));
    }

    /// <summary>What the receiver makes of it after so many seconds: a position with its radius, or nothing without the sky.</summary>
    public (GroundPoint At, double Metres)? Told(double seconds)
    {
        var at = At(seconds);
        var isUnderTrees = _woods.Any(w => Ring.Holds(w, at));
        if (isUnderTrees && new Random(unchecked(_seed * SeedStep + (int)(seconds / LostSeconds))).NextDouble() < ChanceOfLost)
            return null;
        var most = isUnderTrees ? TreesMetres : OpenMetres;
        return (Moved(at, most * Wander(seconds, 0), most * Wander(seconds, 1)), most);
    }

    // Between -1 and 1, and slow.
    private double Wander(double seconds, int axis) =>
        (
            Math.Sin(2 * Math.PI * (seconds / 97 + _seed * 0.37 + axis * 0.25))
            + Math.Sin(2 * Math.PI * (seconds / 41 + _seed * 0.71 + axis * 0.6))
        ) / 2;

    private static GroundPoint Moved(GroundPoint from, double east, double north) =>
        new(from.Latitude + north / MetresPerDegree, from.Longitude + east / (MetresPerDegree * Math.Cos(from.Latitude * Math.PI / 180)));

    /// <summary>What the receiver says at a moment, as sentences of NMEA 0183: RMC, GST, GGA.</summary>
    /// <param name="moment">The moment.</param>
    /// <param name="mood">How well it works.</param>
    public IEnumerable<string> Sentences(DateTimeOffset moment, StandInMood mood)
    {
        if (mood == StandInMood.Silent)
            yield break;
        var seconds = (moment - DateTimeOffset.UnixEpoch).TotalSeconds % DaySeconds;
        var told = Told(mood == StandInMood.Late ? seconds - LateSeconds : seconds);
        var utc = (mood == StandInMood.Late ? moment.AddSeconds(-LateSeconds) : moment).UtcDateTime;
        if (told is { } right && mood == StandInMood.Wrong && (int)seconds % WrongEverySeconds == 0)
            told =
                (int)seconds % (2 * WrongEverySeconds) == 0 ? (Moved(right.At, JumpMetres, 0), right.Metres) : (new GroundPoint(0, 0), 1);
        var (time, date) = (
            utc.ToString("HHmmss'.00'", CultureInfo.InvariantCulture),
            utc.ToString("ddMMyy", CultureInfo.InvariantCulture)
        );
        if (told is not var (at, metres))
        {
            yield return Sentence($"GPRMC,{time},V,,,,,,,{date},,");
            yield return Sentence($"GPGGA,{time},,,,,0,02,,,M,,M,,");
            yield break;
        }
        var (north, east) = (Angle(at.Latitude, "00", "N", "S"), Angle(at.Longitude, "000", "E", "W"));
        var each = (metres / Math.Sqrt(2)).ToString("0.0", CultureInfo.InvariantCulture);
        yield return Sentence($"GPRMC,{time},A,{north},{east},1.5,0.0,{date},,");
        yield return Sentence($"GPGST,{time},,,,,{each},{each},4.0");
        yield return Sentence($"GPGGA,{time},{north},{east},1,08,1.2,40.0,M,54.0,M,,");
    }

    private static string Angle(double degrees, string whole, string positive, string negative)
    {
        var size = Math.Abs(degrees);
        var full = Math.Floor(size);
        return full.ToString(whole, CultureInfo.InvariantCulture)
            + ((size - full) * 60).ToString("00.00000", CultureInfo.InvariantCulture)
            + ","
            + (degrees < 0 ? negative : positive);
    }

    private static string Sentence(string between) =>
        string.Create(CultureInfo.InvariantCulture, $"${between}*{NmeaReader.Checksum(between):X2}");
}
