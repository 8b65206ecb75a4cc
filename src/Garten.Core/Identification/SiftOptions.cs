using Garten.Core.Evidence;

namespace Garten.Core.Identification;

/// <summary>The numbers by which a list is sifted; each with its reason.</summary>
public sealed record SiftOptions
{
    /// <summary>The values that the program works with; tests and benchmarks vary them.</summary>
    public static SiftOptions Default { get; } = new();

    /// <summary>How evidence is weighed.</summary>
    public EvidenceOptions Evidence { get; init; } = EvidenceOptions.Default;

    /// <summary>
    /// Prior of "not on this list" before anything is learnt, not yet raised: raised it is 0.18. With one in fifty, kin of listed plants
    /// that aren't listed themselves were named with 95 % in six cases of ten; with this in two (docs/accuracy.md).
    /// </summary>
    public double NotOnList { get; init; } = 0.144;

    /// <summary>Least prior of "not on this list", however complete a list has proved.</summary>
    public double LeastNotOnList { get; init; } = 0.01;

    /// <summary>Largest: a list that every other plant is missing from is still worth asking.</summary>
    public double MostNotOnList { get; init; } = 0.5;

    /// <summary>w0: of plants that aren't on the list, the share that is like no plant in particular.</summary>
    public double AnyNotOnList { get; init; } = 0.05;

    /// <summary>
    /// How near a stranger stands to a listed plant: it shows just what any plant may in 1 − (1−d)^θ of its looks, d being how often two
    /// species of a genus differ in the character. Near, middling, far kin.
    /// </summary>
    public IReadOnlyList<double> KinFar { get; init; } = [0.6, 1, 1.7];

    /// <summary>Of plants that aren't on the list the shares that stand so near; with <see cref="AnyNotOnList"/> they add up to
    /// 1.</summary>
    public IReadOnlyList<double> KinShares { get; init; } = [0.30, 0.25, 0.40];

    /// <summary>
    /// What is learnt of a list is raised by this: a stranger is taken for a listed plant more often than the other way round. With it
    /// names are right as often as they are said to be, within 3 points, where 15 % and where 5 % of the plants aren't on the list; with
    /// 1.5 in its place they are up to 5 points too cautious at the latter, with 1 up to 6 too sure at the former (docs/accuracy.md).
    /// </summary>
    public double RaiseNotOnList { get; init; } = 1.25;

    /// <summary>The prior of "not on this list" that a list is sifted by: what was learnt of it, raised, within its bounds; the usual one,
    /// raised, where nothing was.</summary>
    /// <param name="learnt">What was learnt (<see cref="Strangers.Prior"/>), 0 to 1; null: nothing.</param>
    public double PriorOfStranger(double? learnt) =>
        learnt is { } known ? Math.Clamp(RaiseNotOnList * known, LeastNotOnList, MostNotOnList) : RaiseNotOnList * NotOnList;

    /// <summary>What a stranger shows just as any plant may, of one character: the mean over its nearness.</summary>
    /// <param name="kinDiffers">d, how often two species of a genus differ in it.</param>
    internal double StrangerDiffers(double kinDiffers)
    {
        var sum = AnyNotOnList;
        for (var k = 0; k < KinFar.Count; k++)
            sum += KinShares[k] * Far(kinDiffers, KinFar[k]);
        return sum;
    }

    /// <summary>1 − (1−d)^θ.</summary>
    internal static double Far(double kinDiffers, double far) => 1 - Math.Pow(1 - kinDiffers, far);

    /// <summary>How often two species of a genus differ in a character, before the flora's own genera say: then such a kin shows just what
    /// any plant may.</summary>
    public double KinDiffer { get; init; } = 0.25;

    /// <summary>How many pairs of species that belief is worth.</summary>
    public double KinDifferWorth { get; init; } = 5;

    /// <summary>However constant a character is in the genera of a flora, a newcomer differs in it this often.</summary>
    public double KinDifferLeast { get; init; } = 0.05;

    /// <summary>Looks are proposed to tell apart the candidates that hold this much of the probability; the rest is noise.</summary>
    public double Held { get; init; } = 0.999;

    /// <summary>Seconds that every look costs before it begins: to read what is asked and to find the part.</summary>
    public double LookSeconds { get; init; } = 15;

    /// <summary>A character is proposed when it can be seen now on at least this share of what is still in question.</summary>
    public double LeastVisible { get; init; } = 0.15;

    /// <summary>A look of less than this is not worth the stooping. So little, since a name that is ahead is still to be held against kin
    /// that isn't on the list.</summary>
    public double LeastBits { get; init; } = 0.002;

    /// <summary>How many readings of one plant a look at a measure is reckoned with.</summary>
    public int Readings { get; init; } = 5;

    /// <summary>Up to so many candidates, measures are cut where these differ; above, where the flora does.</summary>
    public int FewCandidates { get; init; } = 32;

    /// <summary>A taxon of which less than this share of the looked at characters is described is listed apart.</summary>
    public double LeastDescribed { get; init; } = 0.5;

    /// <summary>"Not on this list" is said first when it is likelier than all that is on the list.</summary>
    public double CalledNotOnList { get; init; } = 0.5;

    /// <summary>A name with this much of the probability is far ahead.</summary>
    public double FarAhead { get; init; } = 0.95;

    /// <summary>A name this many times as likely as the next one is ahead.</summary>
    public double Ahead { get; init; } = 3;

    /// <summary>And this many times as likely as "not on this list", which stands for many plants at once.</summary>
    public double AheadOfStrangers { get; init; } = 2;

    /// <summary>Candidates that together hold this much are what it is one of.</summary>
    public double OneOf { get; init; } = 0.85;
}
