using System.Globalization;
using Garten.Core.Surveys.Figures;

namespace Garten.Core.Contracts;

/// <summary>The group of a sample.</summary>
/// <param name="Sample">Name of the sample.</param>
/// <param name="Group">Name of its group.</param>
public sealed record SampleGroup(string Sample, string Group);

/// <summary>Asks which taxa stand for which group of samples.</summary>
/// <param name="Kind">What the values are.</param>
/// <param name="Samples">The values.</param>
/// <param name="Groups">The group of every sample: two groups at least.</param>
/// <param name="Seed">Where chance begins.</param>
/// <param name="Permutations">Permutations of the test: 0 to 9,999.</param>
public sealed record IndicatorsRequest(
    SampleKind Kind,
    IReadOnlyList<SampleValue> Samples,
    IReadOnlyList<SampleGroup> Groups,
    long Seed = 1,
    int Permutations = IndicatorValue.Permutations
)
{
    private const int MostPermutations = 9_999;
    private const string Invalid = "statistics.invalid";

    // Taxa × samples × permutations: beyond it the answer takes more than some seconds.
    private const long MostWork = 4_000_000_000;

    /// <summary>Works them out, the best first.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public IReadOnlyList<IndicatorValue> WorkOut()
    {
        if (Permutations is < 0 or > MostPermutations)
            throw Wrong("permutations", "Ask for 0 to 9,999 permutations.");
        var community = new StatisticsRequest(Kind, Samples).Table();
        var groups = new Dictionary<string, string>(StringComparer.Ordinal);
        for (var i = 0; i < (Groups?.Count ?? 0); i++)
        {
            var it = Groups![i];
            if (string.IsNullOrWhiteSpace(it?.Sample) || string.IsNullOrWhiteSpace(it.Group))
                throw Wrong(At(i), "Name the sample and its group.");
            if (!groups.TryAdd(it.Sample, it.Group))
                throw Wrong(At(i), $"“{it.Sample}” has a group already.");
        }
        if (community.Samples.FirstOrDefault(s => !groups.ContainsKey(s)) is { } without)
            throw Wrong("groups", $"“{without}” has no group: give every sample one.");
        if (community.Samples.Select(s => groups[s]).Distinct(StringComparer.Ordinal).Count() < 2)
            throw Wrong("groups", "A taxon stands for one of several groups: give two at least.");
        if ((long)community.Taxa.Count * community.Samples.Count * Permutations > MostWork)
            throw Wrong("permutations", "These are too many taxa, samples and permutations at a time: ask for fewer permutations.");
        return
        [
            .. IndicatorValue
                .Of(community, [.. community.Samples.Select(s => groups[s])], Seed, Permutations)
                .OrderByDescending(i => i.Value)
                .ThenBy(i => i.Taxon, StringComparer.Ordinal),
        ];
    }

    private static string At(int index) => string.Create(CultureInfo.InvariantCulture, $"groups[{index}]");

    private static RequestException Wrong(string field, string message) => new(field, message) { Code = Invalid };
}
