using System.Numerics;

namespace Garten.Core.Surveys.Figures;

/// <summary>Samples (plots, lists) by taxa: what every figure of a survey is worked out from. Taxa that stand in no sample are left out,
/// samples without a taxon stay.</summary>
public sealed class Community
{
    private readonly double[][] _values;
    private readonly ulong[][] _present;

    /// <summary>Takes a table.</summary>
    /// <param name="samples">Names of the samples, in their order.</param>
    /// <param name="taxa">Names of the taxa.</param>
    /// <param name="values">One row a sample, one column a taxon; 0 or more, finite.</param>
    /// <exception cref="ArgumentException">A row isn't as long as there are taxa.</exception>
    public Community(IReadOnlyList<string> samples, IReadOnlyList<string> taxa, IReadOnlyList<double[]> values)
    {
        ArgumentNullException.ThrowIfNull(values);
        if (values.Count != samples.Count || values.Any(v => v.Length != taxa.Count))
            throw new ArgumentException("Every sample has a value for every taxon.", nameof(values));
        int[] kept = [.. Enumerable.Range(0, taxa.Count).Where(t => values.Any(v => v[t] > 0))];
        Samples = samples;
        Taxa = [.. kept.Select(t => taxa[t])];
        _values = [.. values.Select(row => kept.Select(t => row[t]).ToArray())];
        Frequencies = [.. kept.Select(t => values.Count(v => v[t] > 0))];
        _present = new ulong[kept.Length][];
        for (var t = 0; t < kept.Length; t++)
        {
            _present[t] = new ulong[(samples.Count + 63) / 64];
            for (var s = 0; s < samples.Count; s++)
            {
                if (_values[s][t] > 0)
                    _present[t][s / 64] |= 1UL << (s % 64);
            }
        }
    }

    /// <summary>Names of the samples.</summary>
    public IReadOnlyList<string> Samples { get; }

    /// <summary>Names of the taxa that stand in at least one sample.</summary>
    public IReadOnlyList<string> Taxa { get; }

    /// <summary>In how many samples each taxon stands: 1 or more.</summary>
    public IReadOnlyList<int> Frequencies { get; }

    /// <summary>The values of a sample, one a taxon.</summary>
    public ReadOnlySpan<double> Of(int sample) => _values[sample];

    /// <summary>The values of all samples together.</summary>
    public double[] Pooled()
    {
        var sum = new double[Taxa.Count];
        foreach (var row in _values)
        {
            for (var t = 0; t < sum.Length; t++)
                sum[t] += row[t];
        }
        return sum;
    }

    /// <summary>In how many samples two taxa stand together.</summary>
    public int Together(int one, int other)
    {
        var (a, b) = (_present[one], _present[other]);
        var count = 0;
        for (var i = 0; i < a.Length; i++)
            count += BitOperations.PopCount(a[i] & b[i]);
        return count;
    }
}
