using System.Globalization;

namespace Garten.Core.Grounds;

/// <summary>A boundary taken from the way that somebody went round a place. What was done to the way to close it is told, so that whoever
/// takes it can look there.</summary>
/// <param name="Outline">Its corners; empty where the way goes round nothing.</param>
/// <param name="ClosingMetres">What lay between its end and its beginning, in metres; it is closed straight.</param>
/// <param name="LeftOutMetres">The length that is left out: what was walked on past its beginning, and loops of the way, in metres.</param>
/// <param name="BridgedMetres">What is crossed straight where no position was, in metres.</param>
public sealed record WalkedBoundary(IReadOnlyList<GroundPoint> Outline, double ClosingMetres, double LeftOutMetres, double BridgedMetres)
{
    // Nearer positions of a handheld receiver are the same one.
    private const double SamePlaceMetres = 1;

    // Finer corners are the receiver's error, not the ground's.
    private const double FinestMetres = 2;

    // More corners than this nobody looks through; crossings are sought pair by pair.
    private const int MostCorners = 500;

    // Of a degree: a centimetre.
    private const int KeptDecimals = 7;

    // What is shorter goes without saying.
    private const double WorthSayingMetres = 5;

    private const double MetresPerKilometre = 1000;

    /// <summary>What was done to the way, in words; empty where nothing was.</summary>
    public string InWords
    {
        get
        {
            if (Outline.Count == 0)
                return "This way goes round nothing.";
            List<string> said = [];
            if (ClosingMetres >= WorthSayingMetres)
                said.Add($"it is closed straight over {Length(ClosingMetres)}");
            if (BridgedMetres >= WorthSayingMetres)
                said.Add($"where no position was it goes straight, over {Length(BridgedMetres)}");
            if (LeftOutMetres >= WorthSayingMetres)
                said.Add($"{Length(LeftOutMetres)} of the way that lead on past its beginning or round in loops are left out");
            return said.Count == 0 ? "" : $"Look at it on the map: {string.Join("; ", said)}.";
        }
    }

    private static string Length(double metres) =>
        metres < MetresPerKilometre
            ? string.Create(CultureInfo.InvariantCulture, $"{metres:0} m")
            : string.Create(CultureInfo.InvariantCulture, $"{metres / MetresPerKilometre:0.0} km");

    /// <summary>Takes it from a track: ended where it comes nearest to its beginning in its second half, thinned to two metres, loops cut
    /// off, the larger part kept at each.</summary>
    /// <param name="ways">The ways between its gaps, in their order.</param>
    public static WalkedBoundary Of(IReadOnlyList<IReadOnlyList<GroundPoint>> ways)
    {
        ArgumentNullException.ThrowIfNull(ways);
        var (path, bridged) = Joined(ways);
        var nothing = new WalkedBoundary([], 0, 0, bridged);
        if (path.Count < Ring.FewestCorners)
            return nothing;
        var (ring, leftOut) = Ended(path);
        var closing = Ring.Metres(ring[0], ring[^1]);
        for (var finest = FinestMetres; ; finest *= 2)
        {
            var thinned = Thinned(ring, finest);
            if (thinned.Count > MostCorners)
                continue;
            ring = thinned;
            break;
        }
        if (closing < SamePlaceMetres && ring.Count > Ring.FewestCorners)
            ring.RemoveAt(ring.Count - 1);
        while (ring.Count > Ring.FewestCorners && Ring.Crossings(ring) is var (first, second))
        {
            var (kept, lost) = Parted(ring, first, second);
            leftOut += Around(lost);
            ring = kept;
        }
        return ring.Count < Ring.FewestCorners || Ring.Area(ring) < 1 ? nothing : new WalkedBoundary(ring, closing, leftOut, bridged);
    }

    // One path of all ways; positions that are the same one are told once.
    private static (List<GroundPoint> Path, double Bridged) Joined(IReadOnlyList<IReadOnlyList<GroundPoint>> ways)
    {
        List<GroundPoint> path = [];
        var bridged = 0.0;
        foreach (var way in ways)
        {
            if (path.Count > 0 && way.Count > 0)
                bridged += Ring.Metres(path[^1], way[0]);
            foreach (var point in way)
                if (path.Count == 0 || Ring.Metres(path[^1], point) >= SamePlaceMetres)
                    path.Add(point);
        }
        return (path, bridged);
    }

    // The way up to where it comes nearest to its beginning again, and how much of it led on from there.
    private static (List<GroundPoint> Path, double LeftOut) Ended(List<GroundPoint> path)
    {
        var plane = Ring.Plane(path);
        var steps = path.Zip(path.Skip(1), Ring.Metres).ToList();
        var half = steps.Sum() / 2;
        var (walked, nearest, last) = (0.0, double.PositiveInfinity, path.Count - 2);
        for (var i = 0; i < steps.Count; i++)
        {
            walked += steps[i];
            if (walked < half || Ring.ToSegment(plane[0], plane[i], plane[i + 1]) is var far && far >= nearest)
                continue;
            (nearest, last) = (far, i);
        }
        var along = last == 0 ? 1 : Ring.Along(plane[0], plane[last], plane[last + 1]);
        var (from, to) = (path[last], path[last + 1]);
        var end = new GroundPoint(
            Math.Round(from.Latitude + along * (to.Latitude - from.Latitude), KeptDecimals),
            Math.Round(from.Longitude + along * (to.Longitude - from.Longitude), KeptDecimals)
        );
        return ([.. path.Take(last + 1), end], steps.Skip(last + 1).Sum() + (1 - along) * steps[last]);
    }

    private static double Around(List<GroundPoint> ring) => ring.Select((p, i) => Ring.Metres(p, ring[(i + 1) % ring.Count])).Sum();

    // The two parts of a ring whose edges behind these corners cross, the larger first. That the corner of the crossing itself is left out
    // moves the line by less than what crossed there.
    private static (List<GroundPoint> Larger, List<GroundPoint> Smaller) Parted(List<GroundPoint> ring, int first, int second)
    {
        List<GroundPoint> within = [.. ring.Skip(first + 1).Take(second - first)];
        List<GroundPoint> without = [.. ring.Skip(second + 1), .. ring.Take(first + 1)];
        return Ring.Area(within) > Ring.Area(without) ? (within, without) : (without, within);
    }

    // Ramer, Douglas and Peucker (1972 and 1973): what is farther from the line between two kept corners than this is kept too.
    private static List<GroundPoint> Thinned(List<GroundPoint> path, double metres)
    {
        var plane = Ring.Plane(path);
        var kept = new bool[path.Count];
        kept[0] = kept[^1] = true;
        var ahead = new Stack<(int From, int To)>([(0, path.Count - 1)]);
        while (ahead.TryPop(out var part))
        {
            var (far, farthest) = (0, metres);
            for (var i = part.From + 1; i < part.To; i++)
                if (Ring.ToSegment(plane[i], plane[part.From], plane[part.To]) is var away && away > farthest)
                    (far, farthest) = (i, away);
            if (far == 0)
                continue;
            kept[far] = true;
            ahead.Push((part.From, far));
            ahead.Push((far, part.To));
        }
        return [.. path.Where((_, i) => kept[i])];
    }
}
