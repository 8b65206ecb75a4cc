using Garten.Core.Evidence;

namespace Garten.Core.Identification;

/// <summary>A plant of a stand with what was seen of it.</summary>
/// <param name="Label">What it is called: a peg's number, "by the gate".</param>
/// <param name="Looks">What was seen; may be empty: an unmarked plant among the others.</param>
public sealed record StandPlant(string Label, IReadOnlyList<Observation> Looks);

/// <summary>A taxon that a stand may be of.</summary>
/// <param name="Taxon">Id of the taxon; <see cref="Sifter.NotOnList"/> for one that isn't on the list.</param>
/// <param name="Probability">That most of the stand is of it, 0 to 1.</param>
public sealed record StandTaxon(string Taxon, double Probability);

/// <summary>A plant of a stand judged with the others.</summary>
/// <param name="Label">What it is called.</param>
/// <param name="Looks">How many looks there are at it.</param>
/// <param name="OfTheStand">Probability that it is of the taxon that the stand is most likely of.</param>
/// <param name="Alone">The taxon that it is likeliest of by its own looks; empty where there are none.</param>
/// <param name="AloneProbability">How probable that is by its own looks alone.</param>
public sealed record StandMember(string Label, int Looks, double OfTheStand, string Alone, double AloneProbability);

/// <summary>
/// Plants of one stand judged together. A share s of it is of one taxon D, the rest are others, kin or any:
/// P(D, s | all) ∝ prior(D)·w(s)·Πi [s·Li(D) + (1−s)·bi(D)], with bi(D) half the mean of Li over the kin of D and half its mean over the
/// list. So an odd plant doesn't overturn what nine others say, and an unmarked one follows them.
/// </summary>
/// <param name="Standing">The taxa, likeliest first.</param>
/// <param name="Mixed">Probability that the stand is mixed: that at least one plant in seven is of another taxon.</param>
/// <param name="IsMixed">Whether that is to be said.</param>
/// <param name="TooFew">Whether there are too few plants or looks to tell.</param>
/// <param name="Share">Expected share of plants of the first taxon.</param>
/// <param name="Members">The plants.</param>
public sealed record Stand(
    IReadOnlyList<StandTaxon> Standing,
    double Mixed,
    bool IsMixed,
    bool TooFew,
    double Share,
    IReadOnlyList<StandMember> Members
)
{
    /// <summary>Most plants of a stand that are judged together.</summary>
    public const int MostPlants = 500;

    // s, the share that is of one taxon, and how probable each is before anything is seen: most stands are of one kind.
    private static readonly (double Share, double Weight)[] Shares = [(0.5, 0.05), (0.7, 0.1), (0.85, 0.2), (0.95, 0.35), (0.99, 0.3)];

    // Up to this share of one taxon a stand is mixed.
    private const double MixedUpTo = 0.85;

    // With fewer plants, or fewer looks at each, nobody can tell a mixed stand from a varied one.
    private const int FewestPlants = 3;
    private const double FewestLooks = 2;

    private const int MostStanding = 12;

    /// <summary>Judges a stand.</summary>
    /// <param name="sifter">The list.</param>
    /// <param name="plants">The plants, 1 to <see cref="MostPlants"/>.</param>
    /// <param name="query">What else is asked: place, day, narrowing; its observations are passed over.</param>
    public static Stand Of(Sifter sifter, IReadOnlyList<StandPlant> plants, SiftQuery query)
    {
        ArgumentNullException.ThrowIfNull(sifter);
        ArgumentNullException.ThrowIfNull(plants);
        ArgumentNullException.ThrowIfNull(query);
        if (plants.Count == 0)
            throw new ArgumentException("A stand has plants.", nameof(plants));
        var rows = sifter.Columns.Taxa.Count;
        // Before anything is seen: the prior of each row, that of "not on this list" in the last place.
        var prior = RankedWithNone(sifter, query with { Observations = [] });
        var relative = plants.Select(p => Relative(RankedWithNone(sifter, query with { Observations = p.Looks }), prior)).ToList();
        var kin = KinOf(sifter);
        var background = relative.ConvertAll(l => Background(l, prior, kin));
        var logs = new double[rows + 1, Shares.Length];
        var largest = double.NegativeInfinity;
        for (var t = 0; t <= rows; t++)
        {
            for (var s = 0; s < Shares.Length; s++)
            {
                if (prior[t] <= 0)
                {
                    logs[t, s] = double.NegativeInfinity;
                    continue;
                }
                var (share, weight) = Shares[s];
                var log = Math.Log(prior[t]) + Math.Log(weight);
                for (var i = 0; i < plants.Count; i++)
                    log += Math.Log(Math.Max(double.Epsilon, share * relative[i][t] + (1 - share) * background[i][t]));
                logs[t, s] = log;
                largest = Math.Max(largest, log);
            }
        }
        var (byTaxon, byShare) = (new double[rows + 1], new double[Shares.Length]);
        var total = 0d;
        var joint = new double[rows + 1, Shares.Length];
        for (var t = 0; t <= rows; t++)
        {
            for (var s = 0; s < Shares.Length; s++)
            {
                var p = joint[t, s] = Math.Exp(logs[t, s] - largest);
                byTaxon[t] += p;
                byShare[s] += p;
                total += p;
            }
        }
        var order = Enumerable.Range(0, rows + 1).Where(t => byTaxon[t] > 0).OrderByDescending(t => byTaxon[t]).ThenBy(t => t).ToList();
        var first = order[0];
        var mixed = Shares.Select((it, s) => it.Share <= MixedUpTo ? byShare[s] / total : 0).Sum();
        var looks = plants.Average(p => EvidenceSheet.Holding(p.Looks).Count);
        var tooFew = plants.Count < FewestPlants || looks < FewestLooks;
        double Member(int i) =>
            Shares
                .Select(
                    (it, s) =>
                        joint[first, s]
                        / byTaxon[first]
                        * (it.Share * relative[i][first])
                        / (it.Share * relative[i][first] + (1 - it.Share) * background[i][first])
                )
                .Sum();
        string Id(int t) => t == rows ? Sifter.NotOnList : sifter.Columns.Taxa[t];
        return new Stand(
            [.. order.Take(MostStanding).Select(t => new StandTaxon(Id(t), byTaxon[t] / total))],
            mixed,
            !tooFew && mixed >= 0.5,
            tooFew,
            Shares.Select((it, s) => it.Share * joint[first, s] / byTaxon[first]).Sum(),
            [
                .. plants.Select(
                    (p, i) =>
                    {
                        var own = relative[i].Select((l, t) => l * prior[t]).ToArray();
                        var best = Array.IndexOf(own, own.Max());
                        var count = EvidenceSheet.Holding(p.Looks).Count;
                        return new StandMember(
                            p.Label,
                            count,
                            Member(i),
                            count == 0 ? "" : Id(best),
                            count == 0 ? 0 : own[best] / own.Sum()
                        );
                    }
                ),
            ]
        );
    }

    private static double[] RankedWithNone(Sifter sifter, SiftQuery query)
    {
        var (probability, none) = sifter.Ranked(query);
        return [.. probability, none];
    }

    // Li(D) but for a factor that is the same for all taxa.
    private static double[] Relative(double[] posterior, double[] prior) =>
        [.. posterior.Select((p, t) => prior[t] > 0 ? p / prior[t] : 0)];

    // Per row the rows of its genus, itself left out; empty for "not on this list".
    private static int[][] KinOf(Sifter sifter)
    {
        var genera = Enumerable.Range(0, sifter.Columns.Taxa.Count).ToLookup(t => Genus(sifter, t), StringComparer.Ordinal);
        return [.. Enumerable.Range(0, sifter.Columns.Taxa.Count).Select(t => genera[Genus(sifter, t)].Where(k => k != t).ToArray()), []];
    }

    private static string Genus(Sifter sifter, int row) => sifter.TaxonAt(row)?.Name.Split(' ')[0] ?? sifter.Columns.Taxa[row];

    private static double[] Background(double[] relative, double[] prior, int[][] kin)
    {
        var all = relative.Select((l, t) => l * prior[t]).Sum() / prior.Sum();
        return
        [
            .. kin.Select(rows =>
            {
                var weight = rows.Sum(t => prior[t]);
                return weight <= 0 ? all : 0.5 * all + 0.5 * rows.Sum(t => relative[t] * prior[t]) / weight;
            }),
        ];
    }
}
