using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Grounds;

namespace Garten.Core.Surveys.Plots;

/// <summary>How the position of a plot was chosen.</summary>
[JsonConverter(typeof(CamelCaseWords<PlotPlacing>))]
public enum PlotPlacing
{
    /// <summary>By chance, each spot as probable.</summary>
    Random,

    /// <summary>By chance within each part of the place, in proportion to the parts' areas.</summary>
    Stratified,

    /// <summary>On a grid with a start by chance.</summary>
    Systematic,

    /// <summary>By a person: what is found says nothing of the rest of the place.</summary>
    Chosen,
}

/// <summary>A spot for a plot.</summary>
/// <param name="At">Its middle.</param>
/// <param name="Part">The part of the place that it lies in; empty where that isn't known.</param>
public sealed record PlacedPlot(GroundPoint At, string Part);

/// <summary>Lays plots within a boundary by chance, the same again for the same seed. Throwing isn't chance, and neither is the middle of
/// what looks typical.</summary>
public static class PlotLaying
{
    /// <summary>Most plots at a time.</summary>
    public const int MostPlots = 1_000;

    // So many spots are tried for each plot: in a place that has room for it far fewer do.
    private const int MostTries = 2_000;

    // A grid with as many points as are wanted is sought in so many steps of halving.
    private const int GridSteps = 40;
    private const double MetresPerDegree = 111_194.9;

    /// <summary>Finds spots.</summary>
    /// <param name="ground">The place with its boundary and, for strata, the outlines of its parts.</param>
    /// <param name="placing">How.</param>
    /// <param name="count">How many, 1 to 1,000; a grid may give a few more or fewer.</param>
    /// <param name="apartMetres">How far plots lie apart at least, middle to middle; 0 or more.</param>
    /// <param name="seed">Where chance begins.</param>
    /// <returns>The spots, or what is wrong.</returns>
    public static (IReadOnlyList<PlacedPlot> Spots, string Problem) Lay(
        GroundDescription ground,
        PlotPlacing placing,
        int count,
        double apartMetres,
        long seed
    )
    {
        ArgumentNullException.ThrowIfNull(ground);
        if (count is < 1 or > MostPlots)
            return ([], "Lay 1 to 1,000 plots at a time.");
        if (placing == PlotPlacing.Chosen)
            return ([], "Plots that a person chooses are entered one by one.");
        if (ground.Outline.Count < Ring.FewestCorners)
            return ([], "The place has no boundary yet: draw it on the map first.");
        var draw = new SeededDraw(seed);
        if (placing == PlotPlacing.Systematic)
            return Grid(ground, count, apartMetres, draw);
        if (placing == PlotPlacing.Random)
        {
            var spots = Random(ground.Outline, count, apartMetres, draw, []);
            return spots.Count < count ? ([], NoRoom(spots.Count)) : ([.. spots.Select(s => new PlacedPlot(s, PartOf(ground, s)))], "");
        }
        var strata = ground.Parts.Where(p => p.Outline.Count >= Ring.FewestCorners).ToList();
        if (strata.Count == 0)
            return ([], "No part of the place has an outline yet: draw the parts on the map first.");
        if (strata.Count > count)
            return ([], string.Create(CultureInfo.InvariantCulture, $"There are {strata.Count} parts: each needs a plot at least."));
        var shares = Shares([.. strata.Select(p => Ring.Area(p.Outline))], count);
        var all = new List<PlacedPlot>();
        for (var i = 0; i < strata.Count; i++)
        {
            var spots = Random(strata[i].Outline, shares[i], apartMetres, draw, all.Select(p => p.At));
            if (spots.Count < shares[i])
                return ([], $"{strata[i].Name}: {NoRoom(spots.Count)}");
            all.AddRange(spots.Select(s => new PlacedPlot(s, strata[i].Name)));
        }
        return (all, "");
    }

    private static string NoRoom(int found) =>
        string.Create(CultureInfo.InvariantCulture, $"There is room for {found} so far apart: lay fewer, or closer.");

    private static string PartOf(GroundDescription ground, GroundPoint at) =>
        ground.Parts.FirstOrDefault(p => p.Outline.Count >= Ring.FewestCorners && Ring.Holds(p.Outline, at))?.Name ?? "";

    private static List<GroundPoint> Random(
        IReadOnlyList<GroundPoint> outline,
        int count,
        double apart,
        SeededDraw draw,
        IEnumerable<GroundPoint> others
    )
    {
        var (south, north) = (outline.Min(p => p.Latitude), outline.Max(p => p.Latitude));
        var (west, east) = (outline.Min(p => p.Longitude), outline.Max(p => p.Longitude));
        var taken = others.ToList();
        var found = new List<GroundPoint>();
        for (var tries = 0; found.Count < count && tries < MostTries * count; tries++)
        {
            var at = new GroundPoint(south + draw.Share() * (north - south), west + draw.Share() * (east - west));
            if (!Ring.Holds(outline, at) || apart > 0 && taken.Exists(o => Ring.Metres(o, at) < apart))
                continue;
            found.Add(at);
            taken.Add(at);
        }
        return found;
    }

    private static (IReadOnlyList<PlacedPlot> Spots, string Problem) Grid(
        GroundDescription ground,
        int count,
        double apart,
        SeededDraw draw
    )
    {
        var outline = ground.Outline;
        var (startX, startY) = (draw.Share(), draw.Share());
        var (south, west) = (outline.Min(p => p.Latitude), outline.Min(p => p.Longitude));
        var (north, east) = (outline.Max(p => p.Latitude), outline.Max(p => p.Longitude));
        var longitude = MetresPerDegree * Math.Cos((south + north) / 2 * Math.PI / 180);
        List<GroundPoint> At(double step)
        {
            var spots = new List<GroundPoint>();
            for (var y = startY * step; y <= (north - south) * MetresPerDegree; y += step)
            {
                for (var x = startX * step; x <= (east - west) * longitude; x += step)
                {
                    var at = new GroundPoint(south + y / MetresPerDegree, west + x / longitude);
                    if (Ring.Holds(outline, at))
                        spots.Add(at);
                }
            }
            return spots;
        }
        var wanted = Math.Sqrt(Ring.Area(outline) / count);
        var (fine, coarse) = (wanted / 4, wanted * 4);
        var best = At(wanted);
        var step = wanted;
        for (var i = 0; i < GridSteps && best.Count != count; i++)
        {
            var middle = (fine + coarse) / 2;
            var spots = At(middle);
            if (Math.Abs(spots.Count - count) < Math.Abs(best.Count - count))
                (best, step) = (spots, middle);
            if (spots.Count > count)
                fine = middle;
            else
                coarse = middle;
        }
        if (best.Count == 0 || step < apart)
            return ([], NoRoom(At(Math.Max(apart, 1)).Count));
        return ([.. best.Select(s => new PlacedPlot(s, PartOf(ground, s)))], "");
    }

    // One each, the rest by the largest remainders.
    private static int[] Shares(double[] areas, int count)
    {
        var sum = areas.Sum();
        var exact = areas.Select(a => 1 + (count - areas.Length) * a / sum).ToArray();
        var shares = exact.Select(e => (int)Math.Floor(e)).ToArray();
        foreach (var i in Enumerable.Range(0, areas.Length).OrderByDescending(i => exact[i] - shares[i]).Take(count - shares.Sum()))
            shares[i]++;
        return shares;
    }
}
