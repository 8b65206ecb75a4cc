using System.Text.Json.Serialization;

namespace Garten.Core.Floras;

/// <summary>What indicator values speak of.</summary>
[JsonConverter(typeof(CamelCaseWords<SiteFactor>))]
public enum SiteFactor
{
    /// <summary>Light: 1 deep shade to 9 full light.</summary>
    Light,

    /// <summary>Moisture: 1 very dry to 12 under water.</summary>
    Moisture,

    /// <summary>Reaction of the soil: 1 very acid to 9 on lime.</summary>
    Reaction,

    /// <summary>Nutrients, nitrogen above all: 1 very poor to 9 very rich.</summary>
    Nutrients,
}

/// <summary>What a taxon says of the ground that it grows on, as the flora gives it. Each may be unsaid: of a taxon that is indifferent it
/// is. The values are steps on a scale: their distances aren't measured.</summary>
/// <param name="Light">1 deep shade to 9 full light.</param>
/// <param name="Moisture">1 very dry to 12 under water.</param>
/// <param name="Reaction">1 very acid to 9 on lime.</param>
/// <param name="Nutrients">1 very poor to 9 very rich.</param>
/// <param name="Conservatism">Coefficient of conservatism: 0 grows anywhere, 10 only on ground that people have hardly changed.</param>
public sealed record SiteIndication(
    double? Light = null,
    double? Moisture = null,
    double? Reaction = null,
    double? Nutrients = null,
    double? Conservatism = null
)
{
    private const double HighestStep = 9;
    private const double HighestMoisture = 12;

    /// <summary>Highest coefficient of conservatism.</summary>
    public const double HighestConservatism = 10;

    /// <summary>Nothing said.</summary>
    public static SiteIndication None { get; } = new();

    /// <summary>The value of a factor; null where it isn't said.</summary>
    public double? Of(SiteFactor factor) =>
        factor switch
        {
            SiteFactor.Light => Light,
            SiteFactor.Moisture => Moisture,
            SiteFactor.Reaction => Reaction,
            _ => Nutrients,
        };

    /// <summary>The highest step of a factor; the lowest one is 1.</summary>
    public static double HighestOf(SiteFactor factor) => factor == SiteFactor.Moisture ? HighestMoisture : HighestStep;
}
