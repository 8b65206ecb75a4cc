namespace Garten.Core.Surveys.Figures;

/// <summary>
/// At how many places a taxon is, and how probably one visit finds it where it is, from visits repeated within a time in which nothing
/// comes or goes (MacKenzie and others 2002: Estimating site occupancy rates when detection probabilities are less than one; one
/// probability for all
/// places and visits). A plant that rests underground for a year, or isn't to be seen in a season, breaks that: then it is there and can't
/// be found, and both figures are too low.
/// </summary>
/// <param name="Places">Places that were visited.</param>
/// <param name="Visits">Visits to all of them together.</param>
/// <param name="FoundAt">Places where it was found.</param>
/// <param name="Found">Visits on which it was found.</param>
/// <param name="Share">The share of places where it is, 0 to 1.</param>
/// <param name="ShareLow">Lower bound, 95 %; null where the visits don't say it.</param>
/// <param name="ShareHigh">Upper bound.</param>
/// <param name="Detection">The probability that one visit finds it where it is.</param>
/// <param name="DetectionLow">Lower bound, 95 %; null where the visits don't say it.</param>
/// <param name="DetectionHigh">Upper bound.</param>
public sealed record Occupancy(
    int Places,
    int Visits,
    int FoundAt,
    int Found,
    double Share,
    double? ShareLow,
    double? ShareHigh,
    double Detection,
    double? DetectionLow,
    double? DetectionHigh
)
{
    private const int MostSteps = 20_000;
    private const double Enough = 1e-13;

    // Of the normal distribution 95 % lie within so many standard deviations.
    private const double Z = 1.959963984540054;

    // A step on the scale of log odds by which curvature is measured: small beside what matters, large beside what rounding does.
    private const double Step = 1e-4;

    // Nearer to 0 or 1 than this an estimate lies on its bound, and has no curvature there.
    private const double Bound = 1e-6;

    /// <summary>Works it out.</summary>
    /// <param name="histories">For each place its visits: whether it was found.</param>
    /// <returns>Null where it was never found, or no place was visited twice: nothing can be said then.</returns>
    public static Occupancy? Of(IReadOnlyList<IReadOnlyList<bool>> histories)
    {
        ArgumentNullException.ThrowIfNull(histories);
        var all = histories.Where(h => h.Count > 0).Select(h => (Visits: h.Count, Found: h.Count(x => x))).ToList();
        var found = all.Sum(h => h.Found);
        if (found == 0 || all.TrueForAll(h => h.Visits < 2))
            return null;
        var visits = all.Sum(h => h.Visits);
        var (share, detection) = ((all.Count(h => h.Found > 0) + 0.5) / (all.Count + 1), 0.5);
        // Expectation and maximisation (Dempster, Laird and Rubin 1977): whether it is where it wasn't found is weighed by both figures.
        for (var i = 0; i < MostSteps; i++)
        {
            var (there, looked) = (0.0, 0.0);
            foreach (var (n, seen) in all)
            {
                var missed = share * Math.Pow(1 - detection, n);
                var isThere = seen > 0 ? 1 : missed / (missed + 1 - share);
                there += isThere;
                looked += isThere * n;
            }
            var (newShare, newDetection) = (there / all.Count, found / looked);
            var moved = Math.Abs(newShare - share) + Math.Abs(newDetection - detection);
            (share, detection) = (Math.Min(1, newShare), Math.Min(1, newDetection));
            if (moved < Enough)
                break;
        }
        var (shareBound, detectionBound) = Bounds(all, share, detection);
        return new Occupancy(
            all.Count,
            visits,
            all.Count(h => h.Found > 0),
            found,
            share,
            shareBound?.Low,
            shareBound?.High,
            detection,
            detectionBound?.Low,
            detectionBound?.High
        );
    }

    private static double LogLikelihood(List<(int Visits, int Found)> all, double shareOdds, double detectionOdds)
    {
        var (share, detection) = (1 / (1 + Math.Exp(-shareOdds)), 1 / (1 + Math.Exp(-detectionOdds)));
        var sum = 0.0;
        foreach (var (n, seen) in all)
            sum +=
                seen > 0
                    ? Math.Log(share) + seen * Math.Log(detection) + (n - seen) * Math.Log(1 - detection)
                    : Math.Log(share * Math.Pow(1 - detection, n) + 1 - share);
        return sum;
    }

    // By the curvature of the likelihood on the scale of log odds; none where an estimate lies on its bound.
    private static ((double Low, double High)? Share, (double Low, double High)? Detection) Bounds(
        List<(int Visits, int Found)> all,
        double share,
        double detection
    )
    {
        if (share is < Bound or > 1 - Bound || detection is < Bound or > 1 - Bound)
            return (null, null);
        var (s, d) = (Math.Log(share / (1 - share)), Math.Log(detection / (1 - detection)));
        double At(double ds, double dd) => LogLikelihood(all, s + ds, d + dd);
        var middle = At(0, 0);
        var ss = -(At(Step, 0) - 2 * middle + At(-Step, 0)) / (Step * Step);
        var dd = -(At(0, Step) - 2 * middle + At(0, -Step)) / (Step * Step);
        var sd = -(At(Step, Step) - At(Step, -Step) - At(-Step, Step) + At(-Step, -Step)) / (4 * Step * Step);
        var determinant = ss * dd - sd * sd;
        if (!(determinant > 0) || !(ss > 0))
            return (null, null);
        return (Around(s, Math.Sqrt(dd / determinant)), Around(d, Math.Sqrt(ss / determinant)));
    }

    private static (double Low, double High) Around(double odds, double error) =>
        (1 / (1 + Math.Exp(-(odds - Z * error))), 1 / (1 + Math.Exp(-(odds + Z * error))));
}
