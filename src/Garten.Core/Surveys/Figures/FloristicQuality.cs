using Garten.Core.Floras;

namespace Garten.Core.Surveys.Figures;

/// <summary>A taxon of a sample, with what the flora says of it.</summary>
/// <param name="Amount">How much of it there is: above 0.</param>
/// <param name="Origin">How it came to the region.</param>
/// <param name="Indication">What it says of its ground; null where the flora says nothing.</param>
public sealed record RatedTaxon(double Amount, Origin Origin, SiteIndication? Indication);

/// <summary>How far the taxa of a sample are those of ground that people have hardly changed, by the coefficients of conservatism that the
/// flora gives its native taxa. Introduced ones count as 0 where all taxa are meant. Taxa of which the flora says no coefficient are left
/// out, and where that are more than half of the native ones nothing is worked out.</summary>
/// <param name="Native">Native taxa.</param>
/// <param name="Rated">Native taxa with a coefficient.</param>
/// <param name="Introduced">Introduced taxa.</param>
/// <param name="Mean">Mean coefficient of native taxa, 0 to 10.</param>
/// <param name="Index">Mean times the root of their number (Swink and Wilhelm 1994: Plants of the Chicago region).</param>
/// <param name="MeanOfAll">Mean with introduced taxa as 0.</param>
/// <param name="Adjusted">100 · mean / 10 · √(native / all): 0 to 100, whatever the number of taxa (Miller and Wardrop 2006: Adapting the
/// floristic quality assessment index).</param>
/// <param name="Weighted">Mean of native taxa weighted by their amounts; null where only presence is known.</param>
public sealed record FloristicQuality(
    int Native,
    int Rated,
    int Introduced,
    double? Mean,
    double? Index,
    double? MeanOfAll,
    double? Adjusted,
    double? Weighted
)
{
    // With fewer of them rated the mean is that of a choice.
    private const double LeastShare = 0.5;
    private const double AsPerCent = 100;

    /// <summary>Works it out.</summary>
    /// <param name="taxa">The taxa of the sample.</param>
    /// <param name="isAmount">Whether amounts are known, and not presence alone.</param>
    public static FloristicQuality Of(IReadOnlyList<RatedTaxon> taxa, bool isAmount)
    {
        ArgumentNullException.ThrowIfNull(taxa);
        var native = taxa.Where(t => t.Origin == Origin.Native).ToList();
        var introduced = taxa.Count(t => t.Origin == Origin.Introduced);
        var rated = native.Where(t => t.Indication?.Conservatism is not null).ToList();
        if (rated.Count == 0 || rated.Count < LeastShare * native.Count)
            return new FloristicQuality(native.Count, rated.Count, introduced, null, null, null, null, null);
        var mean = rated.Average(Coefficient);
        var share = (double)rated.Count / (rated.Count + introduced);
        return new FloristicQuality(
            native.Count,
            rated.Count,
            introduced,
            mean,
            mean * Math.Sqrt(rated.Count),
            mean * share,
            AsPerCent * mean / SiteIndication.HighestConservatism * Math.Sqrt(share),
            isAmount ? rated.Sum(t => Coefficient(t) * t.Amount) / rated.Sum(t => t.Amount) : null
        );
    }

    private static double Coefficient(RatedTaxon it) => it.Indication!.Conservatism!.Value;
}

/// <summary>What the taxa of a sample say of a factor of the ground, by the indicator values of the flora. These are steps on a scale: the
/// median keeps to that, means are in use all the same (Diekmann 2003: Species indicator values as an important tool in applied plant
/// ecology).</summary>
/// <param name="Factor">The factor.</param>
/// <param name="Rated">Taxa with a value.</param>
/// <param name="Of">All taxa of the sample.</param>
/// <param name="Median">Their median; null of fewer than three.</param>
/// <param name="Mean">Their mean, all alike.</param>
/// <param name="Weighted">Their mean weighted by amounts; null where only presence is known.</param>
public sealed record IndicatedFactor(SiteFactor Factor, int Rated, int Of, double? Median, double? Mean, double? Weighted)
{
    /// <summary>Of fewer rated taxa nothing is said.</summary>
    public const int Fewest = 3;

    /// <summary>The highest step of the scale; the lowest one is 1.</summary>
    public double Highest => SiteIndication.HighestOf(Factor);

    /// <summary>Works out every factor.</summary>
    /// <param name="taxa">The taxa of the sample.</param>
    /// <param name="isAmount">Whether amounts are known.</param>
    public static IReadOnlyList<IndicatedFactor> All(IReadOnlyList<RatedTaxon> taxa, bool isAmount)
    {
        ArgumentNullException.ThrowIfNull(taxa);
        return [.. Enum.GetValues<SiteFactor>().Select(f => OfFactor(f, taxa, isAmount))];
    }

    private static IndicatedFactor OfFactor(SiteFactor factor, IReadOnlyList<RatedTaxon> taxa, bool isAmount)
    {
        var rated = taxa.Select(t => (Value: t.Indication?.Of(factor), t.Amount)).Where(t => t.Value is not null).ToList();
        if (rated.Count < Fewest)
            return new IndicatedFactor(factor, rated.Count, taxa.Count, null, null, null);
        double[] sorted = [.. rated.Select(r => r.Value!.Value).Order()];
        var middle = sorted.Length / 2;
        return new IndicatedFactor(
            factor,
            rated.Count,
            taxa.Count,
            sorted.Length % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2,
            sorted.Average(),
            isAmount ? rated.Sum(r => r.Value!.Value * r.Amount) / rated.Sum(r => r.Amount) : null
        );
    }
}
