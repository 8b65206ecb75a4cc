using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Surveys.Figures;

namespace Garten.Core.Contracts;

/// <summary>What the values of a survey are.</summary>
[JsonConverter(typeof(CamelCaseWords<SampleKind>))]
public enum SampleKind
{
    /// <summary>Counts of individuals: whole numbers.</summary>
    Individuals,

    /// <summary>Found or not: 1 or 0.</summary>
    Incidence,

    /// <summary>Cover in per cent, or another measure that isn't counted.</summary>
    Cover,
}

/// <summary>How much of a taxon was found in a sample.</summary>
/// <param name="Sample">Name of the plot, list or place.</param>
/// <param name="Taxon">Name of the taxon.</param>
/// <param name="Value">How much: 0 to 1,000,000. With 0 a sample is there, and the taxon isn't in it.</param>
public sealed record SampleValue(string Sample, string Taxon, double Value);

/// <summary>Asks for the figures of some samples.</summary>
/// <param name="Kind">What the values are.</param>
/// <param name="Samples">The values; a taxon that isn't named in a sample isn't in it.</param>
/// <param name="RarefyTo">To how many individuals samples are rarefied; left out: as many as the smallest has that isn't empty.</param>
public sealed record StatisticsRequest(SampleKind Kind, IReadOnlyList<SampleValue> Samples, long? RarefyTo = null)
{
    /// <summary>The largest value.</summary>
    public const double MostValue = 1_000_000;

    /// <summary>Most individuals of all samples together: rarefaction goes through them one by one.</summary>
    public const double MostIndividuals = 5_000_000;

    /// <summary>Most samples.</summary>
    public const int MostSamples = 10_000;

    /// <summary>Of more samples than this their pairs aren't compared: nobody reads so many.</summary>
    public const int MostPaired = 300;

    private const int LongestName = 200;

    /// <summary>Works them out.</summary>
    /// <exception cref="RequestException">A value can't be one of its kind, or stands there twice; the field says which.</exception>
    public StatisticsResponse WorkOut()
    {
        var community = Table();
        var samples = Enumerable.Range(0, community.Samples.Count).ToList();
        var size = Kind == SampleKind.Individuals ? RarefyTo ?? Smallest(community) : null;
        var pairs =
            samples.Count > MostPaired ? [] : samples.SelectMany(a => samples.Skip(a + 1).Select(b => Pair(community, a, b))).ToList();
        return new StatisticsResponse(
            [.. samples.Select(s => Figures(community.Samples[s], community.Of(s), size))],
            Pooled(community, size),
            IncidenceEstimators.Accumulation(community),
            pairs,
            size,
            [
                .. FigureMethods.All.Select(m => m.For(Kind)),
                .. samples.Count > MostPaired ? [FigureMethods.TooManyPairs] : (FigureMethod[])[],
            ]
        );
    }

    internal Community Table()
    {
        var samples = new Dictionary<string, int>(StringComparer.Ordinal);
        var taxa = new Dictionary<string, int>(StringComparer.Ordinal);
        var at = new Dictionary<(int, int), double>();
        for (var i = 0; i < (Samples?.Count ?? 0); i++)
        {
            var it = Samples![i];
            string Field(string name) => string.Create(CultureInfo.InvariantCulture, $"samples[{i}].{name}");
            var sample = Index(samples, it?.Sample, Field("sample"), "sample");
            var taxon = Index(taxa, it?.Taxon, Field("taxon"), "taxon");
            Check(it!.Value, Field("value"));
            if (!at.TryAdd((sample, taxon), it.Value))
                throw Wrong(Field("taxon"), $"“{it.Taxon}” stands twice in “{it.Sample}”: give each taxon once a sample.");
        }
        if (samples.Count == 0)
            throw Wrong("samples", "There is nothing to work out: give at least one sample with a taxon and its value.");
        if (samples.Count > MostSamples)
            throw Wrong(
                "samples",
                string.Create(CultureInfo.InvariantCulture, $"At most {MostSamples:N0} samples at a time; these are {samples.Count:N0}.")
            );
        if (Kind == SampleKind.Individuals && at.Values.Sum() > MostIndividuals)
            throw Wrong("samples", "At most 5 million individuals together: larger counts are cover, or estimates.");
        if (RarefyTo is < 1)
            throw Wrong("rarefyTo", "Rarefy to one individual or more.");
        var values = samples.Values.Select(_ => new double[taxa.Count]).ToArray();
        foreach (var ((sample, taxon), value) in at)
            values[sample][taxon] = value;
        return new Community([.. samples.Keys], [.. taxa.Keys], values);
    }

    private static int Index(Dictionary<string, int> known, string? name, string field, string what)
    {
        if (string.IsNullOrWhiteSpace(name))
            throw Wrong(field, $"Name the {what}.");
        if (name.Length > LongestName)
            throw Wrong(field, string.Create(CultureInfo.InvariantCulture, $"The name of a {what} has at most {LongestName} letters."));
        if (!known.TryGetValue(name, out var index))
            known[name] = index = known.Count;
        return index;
    }

    private void Check(double value, string field)
    {
        if (!(value is >= 0 and <= MostValue))
            throw Wrong(field, "A value is 0 to 1,000,000.");
        if (Kind == SampleKind.Individuals && value != Math.Floor(value))
            throw Wrong(field, "Individuals are counted in whole numbers; if this is cover, say so by its kind.");
        if (Kind == SampleKind.Incidence && value is not (0 or 1))
            throw Wrong(field, "Found or not is 1 or 0; if this was counted, say so by its kind.");
    }

    private static RequestException Wrong(string field, string message) => new(field, message) { Code = "statistics.invalid" };

    private static long? Smallest(Community community) =>
        Enumerable
            .Range(0, community.Samples.Count)
            .Select(s => (long?)Diversity.Sum(community.Of(s)))
            .Where(n => n > 0)
            .DefaultIfEmpty(null)
            .Min();

    private bool IsCounted => Kind == SampleKind.Individuals;

    private SampleFigures Figures(string name, ReadOnlySpan<double> values, long? size)
    {
        // Of found or not every taxon weighs alike: evenness says nothing.
        var isWeighed = Kind != SampleKind.Incidence;
        var (chao1, ace, rarefied) = (
            IsCounted ? IndividualEstimators.Chao1(values) : Estimate.None,
            IsCounted ? IndividualEstimators.Ace(values) : Estimate.None,
            IsCounted && size is { } to ? IndividualEstimators.Rarefied(values, to) : Estimate.None
        );
        return new SampleFigures(
            name,
            IsCounted ? (long)Diversity.Sum(values) : null,
            Diversity.Richness(values),
            isWeighed ? Diversity.Shannon(values) : null,
            isWeighed ? Diversity.Simpson(values) : null,
            isWeighed ? Diversity.InverseSimpson(values) : null,
            isWeighed ? Diversity.Pielou(values) : null,
            isWeighed ? Diversity.Hill(values) : [Diversity.Richness(values), null, null],
            chao1.Value,
            chao1.Error,
            ace.Value,
            ace.Error,
            IsCounted ? IndividualEstimators.Coverage(values) : null,
            rarefied.Value,
            rarefied.Error
        );
    }

    private PooledFigures Pooled(Community community, long? size)
    {
        var sum = community.Pooled();
        // Found in any sample is found.
        var all = Figures("", Kind == SampleKind.Incidence ? [.. sum.Select(v => Math.Min(v, 1))] : sum, size);
        var (chao2, jackknife1, bootstrap) = (
            IncidenceEstimators.Chao2(community),
            IncidenceEstimators.Jackknife1(community),
            IncidenceEstimators.Bootstrap(community)
        );
        return new PooledFigures(
            all.Individuals,
            all.Richness,
            all.Shannon,
            all.Simpson,
            all.InverseSimpson,
            all.Pielou,
            all.Hill,
            all.Chao1,
            all.Chao1SE,
            all.Ace,
            all.AceSE,
            all.Coverage,
            all.Rarefied,
            all.RarefiedSE,
            chao2.Value,
            chao2.Error,
            jackknife1.Value,
            jackknife1.Error,
            IncidenceEstimators.Jackknife2(community),
            bootstrap.Value,
            bootstrap.Error
        );
    }

    private static PairFigures Pair(Community community, int a, int b) =>
        new(
            community.Samples[a],
            community.Samples[b],
            Likeness.Sorensen(community.Of(a), community.Of(b)),
            Likeness.Jaccard(community.Of(a), community.Of(b)),
            Likeness.BrayCurtis(community.Of(a), community.Of(b))
        );
}

/// <summary>Figures of one sample. What isn't defined for it, or not for values of its kind, is null; never a number that isn't
/// one.</summary>
/// <param name="Sample">Its name.</param>
/// <param name="Individuals">Individuals counted.</param>
/// <param name="Richness">Taxa found.</param>
/// <param name="Shannon">H′, natural logarithms.</param>
/// <param name="Simpson">1 − Σ p².</param>
/// <param name="InverseSimpson">1 / Σ p².</param>
/// <param name="Pielou">H′ / ln S.</param>
/// <param name="Hill">Hill numbers of order 0, 1, 2.</param>
/// <param name="Chao1">Taxa in all, after Chao, bias-corrected.</param>
/// <param name="Chao1SE">Its standard error.</param>
/// <param name="Ace">Taxa in all, by the coverage of rare ones.</param>
/// <param name="AceSE">Its standard error.</param>
/// <param name="Coverage">Share of the community's individuals whose taxa were found.</param>
/// <param name="Rarefied">Taxa to be expected among fewer individuals.</param>
/// <param name="RarefiedSE">Its standard error.</param>
public sealed record SampleFigures(
    string Sample,
    long? Individuals,
    int Richness,
    double? Shannon,
    double? Simpson,
    double? InverseSimpson,
    double? Pielou,
    IReadOnlyList<double?> Hill,
    double? Chao1,
    double? Chao1SE,
    double? Ace,
    double? AceSE,
    double? Coverage,
    double? Rarefied,
    double? RarefiedSE
);

/// <summary>Figures of all samples together.</summary>
/// <param name="Individuals">Individuals counted.</param>
/// <param name="Richness">Taxa found.</param>
/// <param name="Shannon">H′ of the sums.</param>
/// <param name="Simpson">1 − Σ p².</param>
/// <param name="InverseSimpson">1 / Σ p².</param>
/// <param name="Pielou">H′ / ln S.</param>
/// <param name="Hill">Hill numbers of order 0, 1, 2.</param>
/// <param name="Chao1">Taxa in all, from individuals.</param>
/// <param name="Chao1SE">Its standard error.</param>
/// <param name="Ace">Taxa in all, by the coverage of rare ones.</param>
/// <param name="AceSE">Its standard error.</param>
/// <param name="Coverage">Share of the community's individuals whose taxa were found.</param>
/// <param name="Rarefied">Taxa to be expected among fewer individuals.</param>
/// <param name="RarefiedSE">Its standard error.</param>
/// <param name="Chao2">Taxa in all, from the samples in which they stand.</param>
/// <param name="Chao2SE">Its standard error.</param>
/// <param name="Jackknife1">The same, first-order jackknife.</param>
/// <param name="Jackknife1SE">Its standard error.</param>
/// <param name="Jackknife2">The same, second-order jackknife.</param>
/// <param name="Bootstrap">The same, bootstrap.</param>
/// <param name="BootstrapSE">Its standard error.</param>
public sealed record PooledFigures(
    long? Individuals,
    int Richness,
    double? Shannon,
    double? Simpson,
    double? InverseSimpson,
    double? Pielou,
    IReadOnlyList<double?> Hill,
    double? Chao1,
    double? Chao1SE,
    double? Ace,
    double? AceSE,
    double? Coverage,
    double? Rarefied,
    double? RarefiedSE,
    double? Chao2,
    double? Chao2SE,
    double? Jackknife1,
    double? Jackknife1SE,
    double? Jackknife2,
    double? Bootstrap,
    double? BootstrapSE
);

/// <summary>How alike two samples are.</summary>
/// <param name="A">The one.</param>
/// <param name="B">The other.</param>
/// <param name="Sorensen">Sørensen's similarity.</param>
/// <param name="Jaccard">Jaccard's similarity.</param>
/// <param name="BrayCurtis">Bray and Curtis's dissimilarity.</param>
public sealed record PairFigures(string A, string B, double? Sorensen, double? Jaccard, double? BrayCurtis);

/// <summary>How a figure is worked out.</summary>
/// <param name="Figure">Its name in the answer.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Formula">The formula.</param>
/// <param name="Source">Where it was published.</param>
/// <param name="Unit">In what it is counted.</param>
/// <param name="Refused">Why it isn't given for values of this kind; empty where it is.</param>
public sealed record FigureMethod(string Figure, string Name, string Formula, string Source, string Unit, string Refused = "");

/// <summary>The figures of some samples.</summary>
/// <param name="Samples">Of each, in the order in which they were named first.</param>
/// <param name="Pooled">Of all together.</param>
/// <param name="Accumulation">Taxa to be expected in so many of the samples.</param>
/// <param name="Pairs">How alike any two are; none of more than 300 samples.</param>
/// <param name="RarefiedTo">To how many individuals samples were rarefied.</param>
/// <param name="Methods">How each figure is worked out, and why one isn't given.</param>
public sealed record StatisticsResponse(
    IReadOnlyList<SampleFigures> Samples,
    PooledFigures Pooled,
    IReadOnlyList<AccumulationPoint> Accumulation,
    IReadOnlyList<PairFigures> Pairs,
    long? RarefiedTo,
    IReadOnlyList<FigureMethod> Methods
);
