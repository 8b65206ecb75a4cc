using Garten.Core.Quantities;

namespace Garten.Core.Evidence;

/// <summary>The numbers by which evidence is weighed; each with its reason.</summary>
public sealed record EvidenceOptions
{
    /// <summary>The values that the program works with; tests and benchmarks vary them.</summary>
    public static EvidenceOptions Default { get; } = new();

    /// <summary>ε: one look in a hundred is a slip of the pen or of the flora, so that no single one can weigh more than about
    /// 100:1.</summary>
    public double LapseRate { get; init; } = 0.01;

    /// <summary>How much of a fairly sure look is only what any plant would show.</summary>
    public double FairlyDoubt { get; init; } = 0.2;

    /// <summary>The same of a guess.</summary>
    public double GuessDoubt { get; init; } = 0.6;

    /// <summary>Share of the uniform in the flora-wide marginal: a state that no described taxon has is rare, not impossible.</summary>
    public double UniformShare { get; init; } = 0.1;

    /// <summary>Exponent of what is perhaps a neighbour's.</summary>
    public double NeighbourWeight { get; init; } = 0.25;

    /// <summary>Exponent of what lay beneath: fruit and leaves of crowns beside it lie there too.</summary>
    public double BeneathWeight { get; init; } = 0.7;

    /// <summary>By how much leaves of shade and saplings exceed those of the sun where a description doesn't say.</summary>
    public double ShadeWidening { get; init; } = 1.5;

    /// <summary>Correlation between the sizes of one plant: a small one is small in all.</summary>
    public double SizeCorrelation { get; init; } = 0.5;

    /// <summary>How many of a family of measures are independent: length and width make their ratio.</summary>
    public int IndependentOfFamily { get; init; } = 2;

    /// <summary>φ: plants of a stand are kin, so that of two stands of one taxon one shows a state more often; k of n is beta-binomial with
    /// α = p·φ, β = (1−p)·φ.</summary>
    public double StandAlike { get; init; } = 8;

    /// <summary>δ: probability that a state of the plant is met at a glance.</summary>
    public double Glance { get; init; } = 0.7;

    /// <summary>How many glances a search is worth: 1 − (1−δ)³.</summary>
    public int SearchGlances { get; init; } = 3;

    /// <summary>Probability that a state is noted that the plant hasn't.</summary>
    public double FalselySeen { get; init; } = 0.02;

    /// <summary>Two states with at least this share each may stand on one plant where a description doesn't say that they don't.</summary>
    public double MayStandTogether { get; init; } = 0.3;

    /// <summary>And do on this share of its plants.</summary>
    public double StandTogether { get; init; } = 0.3;

    /// <summary>How much changes from context to context.</summary>
    public ContextRules Contexts { get; init; } = ContextRules.Default;

    /// <summary>Below this probability a state conflicts with a description.</summary>
    public double ConflictBelow { get; init; } = 0.02;

    /// <summary>Below this it is doubtful.</summary>
    public double DoubtfulBelow { get; init; } = 0.06;

    /// <summary>Below this it is at the edge.</summary>
    public double EdgeBelow { get; init; } = 0.2;

    /// <summary>Standard deviation of the readings of one plant on the log scale, before its own readings say otherwise.</summary>
    public double WithinPlantVariation { get; init; } = 0.15;

    /// <summary>How many readings that belief is worth.</summary>
    public double WithinPlantWorth { get; init; } = 3;

    /// <summary>What ranges cover.</summary>
    public RangeOptions Ranges { get; init; } = RangeOptions.Default;

    /// <summary>Weight of one of several scorings of a character in one context: together they count once.</summary>
    internal static double WeightAmong(int scorings) => 1d / scorings;

    /// <summary>How much a look of this sureness is only what any plant would show.</summary>
    public double Doubt(Sureness sureness) =>
        sureness switch
        {
            Sureness.Sure => 0,
            Sureness.Fairly => FairlyDoubt,
            _ => GuessDoubt,
        };
}
