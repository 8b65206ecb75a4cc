using System.Globalization;
using System.Text.Json.Serialization;

namespace Garten.Core.Grounds;

/// <summary>A position on a track.</summary>
/// <param name="Latitude">WGS 84 decimal degrees, north positive.</param>
/// <param name="Longitude">East positive.</param>
/// <param name="AccuracyMetres">Radius in metres that holds it in two of three cases; null where the receiver didn't say.</param>
/// <param name="Seconds">Seconds since the piece began, 0 or more; null where the time wasn't kept.</param>
public sealed record TrackPoint(
    double Latitude,
    double Longitude,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? AccuracyMetres = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Seconds = null
)
{
    internal GroundPoint Place => new(Latitude, Longitude);
}

/// <summary>A piece of a track, as it was kept: a track grows by pieces while it runs.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="TrackId">The track that it is of.</param>
/// <param name="Recorder">Whose receiver it was.</param>
/// <param name="StartedAt">The moment from which its seconds count, ISO 8601 with offset; empty where no time was kept.</param>
/// <param name="Source">What told the positions: a receiver, or the name of a file.</param>
/// <param name="Points">Its positions, in the order of the walk.</param>
/// <param name="File">SHA-256 of the file that it came from, of which the original is kept; empty for none.</param>
public sealed record TrackPiece(
    Guid Id,
    Guid TrackId,
    string Recorder,
    string StartedAt,
    string Source,
    IReadOnlyList<TrackPoint> Points,
    string File = ""
)
{
    /// <summary>Most points of a piece.</summary>
    public const int MostPoints = 5_000;

    // No walk to plants takes longer.
    private const double LongestSeconds = 48 * 3600;

    /// <summary>The moment from which its seconds count; null where no time was kept.</summary>
    public static DateTimeOffset? Moment(string startedAt) =>
        DateTimeOffset.TryParse(startedAt, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var at) ? at : null;

    /// <summary>What is wrong with positions that are to be kept, in a sentence; null where nothing is.</summary>
    public static string? Problem(string startedAt, IReadOnlyList<TrackPoint> points)
    {
        ArgumentNullException.ThrowIfNull(points);
        if (points.Count is 0 or > MostPoints)
            return string.Create(CultureInfo.InvariantCulture, $"A piece has 1 to {MostPoints} positions.");
        var isTimed = startedAt.Length > 0;
        if (isTimed && Moment(startedAt) is null)
            return "When it began is written as a date with a time and an offset: 2026-05-20T09:15:00Z.";
        var last = 0.0;
        foreach (var point in points)
        {
            if (!point.Place.IsOne())
                return "A position has a latitude from -90 to 90 and a longitude from -180 to 180.";
            if (point.AccuracyMetres is { } accuracy && !(accuracy is > 0 and < 1e8))
                return "How good a position is, is said in metres above 0.";
            if (point.Seconds is null == isTimed)
                return isTimed ? "A position has no time, and others have." : "A position has a time, and when the piece began isn't said.";
            if (point.Seconds is { } seconds && !(seconds >= last && seconds <= LongestSeconds))
                return "The times of the positions go on, within two days.";
            last = point.Seconds ?? 0;
        }
        return null;
    }
}

/// <summary>A gap of a track: nobody knows which way was gone there.</summary>
/// <param name="From">The last position before it.</param>
/// <param name="To">The first one after it.</param>
/// <param name="Minutes">How long it lasted, in minutes; null where no time was kept.</param>
public sealed record TrackGap(GroundPoint From, GroundPoint To, double? Minutes);

/// <summary>A track: the way that somebody went, as far as a receiver told it.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Recorder">Whose receiver it was.</param>
/// <param name="Source">What told the positions.</param>
/// <param name="StartedAt">When it began, ISO 8601 with offset; empty where no time was kept.</param>
/// <param name="EndedAt">When it ended; empty where no time was kept.</param>
/// <param name="Segments">The ways between its gaps; seconds count from its beginning.</param>
/// <param name="Metres">The length of these ways, in metres: gaps are left out, and so is what is within the error of a position.</param>
/// <param name="Gaps">Where positions are missing.</param>
/// <param name="LeftOut">How many positions nobody would believe, which are left out.</param>
/// <param name="File">SHA-256 of the file that it came from; empty for none.</param>
public sealed record Track(
    Guid Id,
    string Recorder,
    string Source,
    string StartedAt,
    string EndedAt,
    IReadOnlyList<IReadOnlyList<TrackPoint>> Segments,
    double Metres,
    IReadOnlyList<TrackGap> Gaps,
    int LeftOut,
    string File
)
{
    // A receiver that has the sky tells a position every few seconds; what is kept of it is at most half a minute apart.
    private const double GapSeconds = 60;

    // Who stands still for a minute at a plant may be told once alone.
    private const double GapMetres = 25;

    // Nobody stands still for so long without a position, were there one.
    private const double LongestStillSeconds = 600;

    // Where a file doesn't say when, steps that are longer than this were nobody's.
    private const double UntimedGapMetres = 500;

    // A handheld receiver under the open sky, where it doesn't say better.
    private const double UsualAccuracyMetres = 5;

    // A track may lead anywhere: the place plays no part in whether its positions are believed.
    private const double Anywhere = double.PositiveInfinity;

    private const double SecondsPerMinute = 60;
    private const double MetresPerKilometre = 1000;

    /// <summary>Its length, and what is missing of it, in words.</summary>
    public string InWords
    {
        get
        {
            var length =
                Metres < MetresPerKilometre
                    ? string.Create(CultureInfo.InvariantCulture, $"{Metres:0} m")
                    : string.Create(CultureInfo.InvariantCulture, $"{Metres / MetresPerKilometre:0.0} km");
            var minutes = Gaps.Select(g => g.Minutes).OfType<double>().ToList();
            var missing =
                Gaps.Count == 0 ? ""
                : minutes.Count < Gaps.Count ? string.Create(CultureInfo.InvariantCulture, $", in {Segments.Count} pieces that don’t join")
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $", with {(Gaps.Count == 1 ? "a gap" : $"{Gaps.Count} gaps")} of {Math.Max(1, minutes.Sum()):0} min without a position"
                );
            var leftOut =
                LeftOut == 0 ? ""
                : LeftOut == 1 ? "; one position that nobody would believe is left out"
                : string.Create(CultureInfo.InvariantCulture, $"; {LeftOut} positions that nobody would believe are left out");
            return length + missing + leftOut;
        }
    }

    /// <summary>Puts tracks together of their pieces, in the order in which they began. Positions that a person wouldn't believe
    /// (<see cref="PositionFix.Doubt"/>: too rough, 0° 0°, a jump) are left out and counted.</summary>
    public static IReadOnlyList<Track> Of(IEnumerable<TrackPiece> pieces)
    {
        ArgumentNullException.ThrowIfNull(pieces);
        return
        [
            .. pieces
                .GroupBy(p => p.TrackId)
                .Select(g => One([.. g]))
                .OrderBy(t => TrackPiece.Moment(t.StartedAt) ?? DateTimeOffset.MaxValue)
                .ThenBy(t => t.Id),
        ];
    }

    private static Track One(List<TrackPiece> pieces)
    {
        var moments = pieces.ConvertAll(p => TrackPiece.Moment(p.StartedAt));
        var start = moments.All(m => m is not null) ? moments.Min() : null;
        // Pieces of one receiver go on where the one before ended; those without times are each a way of their own.
        List<List<TrackPoint>> runs = start is { } began
            ?
            [
                [
                    .. pieces
                        .SelectMany(
                            (p, i) => p.Points.Select(t => t with { Seconds = (moments[i]! - began).Value.TotalSeconds + t.Seconds })
                        )
                        .OrderBy(t => t.Seconds),
                ],
            ]
            : pieces.ConvertAll(p => p.Points.Select(t => t with { Seconds = null }).ToList());
        List<IReadOnlyList<TrackPoint>> segments = [];
        var leftOut = 0;
        foreach (var run in runs)
            leftOut += Cut(run, segments);
        List<TrackGap> gaps = [];
        for (var i = 1; i < segments.Count; i++)
        {
            var (before, after) = (segments[i - 1][^1], segments[i][0]);
            gaps.Add(new TrackGap(before.Place, after.Place, (after.Seconds - before.Seconds) / SecondsPerMinute));
        }
        var last = segments.Count > 0 ? segments[^1][^1].Seconds : null;
        return new Track(
            pieces[0].TrackId,
            pieces[0].Recorder,
            pieces[0].Source,
            Text(start),
            last is { } end ? Text(start?.AddSeconds(end)) : "",
            segments,
            segments.Sum(Length),
            gaps,
            leftOut,
            pieces[0].File
        );
    }

    private static string Text(DateTimeOffset? moment) => moment?.ToString("yyyy-MM-dd'T'HH:mm:ssK", CultureInfo.InvariantCulture) ?? "";

    // Cuts a run at its gaps; says how many positions were left out.
    private static int Cut(List<TrackPoint> run, List<IReadOnlyList<TrackPoint>> segments)
    {
        List<TrackPoint> way = [];
        var leftOut = 0;
        PositionFix? before = null;
        foreach (var point in run)
        {
            var fix = new PositionFix(
                point.Latitude,
                point.Longitude,
                point.AccuracyMetres ?? UsualAccuracyMetres,
                point.Seconds ?? double.MaxValue / 2
            );
            // Behind a gap one may be anywhere: by car, too.
            var near = point.Seconds - before?.Seconds <= GapSeconds ? before : null;
            if (fix.Doubt(point.Place, Anywhere, [], near).Length > 0)
            {
                leftOut++;
                continue;
            }
            if (way.Count > 0 && IsGap(way[^1], point))
            {
                segments.Add(way);
                way = [];
            }
            way.Add(point);
            before = fix;
        }
        if (way.Count > 0)
            segments.Add(way);
        return leftOut;
    }

    private static bool IsGap(TrackPoint a, TrackPoint b)
    {
        var metres = Ring.Metres(a.Place, b.Place);
        return b.Seconds - a.Seconds is { } seconds
            ? seconds > LongestStillSeconds || seconds > GapSeconds && metres > GapMetres
            : metres > UntimedGapMetres;
    }

    // A step counts once it is longer than the error of its ends: who stands still goes nowhere, however much the receiver wanders.
    private static double Length(IReadOnlyList<TrackPoint> way)
    {
        var sum = 0.0;
        var from = way[0];
        foreach (var point in way.Skip(1))
        {
            var step = Ring.Metres(from.Place, point.Place);
            if (
                point.Seconds is not null
                && step <= Math.Max(from.AccuracyMetres ?? UsualAccuracyMetres, point.AccuracyMetres ?? UsualAccuracyMetres)
            )
                continue;
            sum += step;
            from = point;
        }
        return sum;
    }
}
