using System.Text.Json.Serialization;

namespace Garten.Core.Surveys.Figures;

/// <summary>By what samples are told apart.</summary>
[JsonConverter(typeof(CamelCaseWords<SampleDistance>))]
public enum SampleDistance
{
    /// <summary>Bray and Curtis's dissimilarity of the values.</summary>
    BrayCurtis,

    /// <summary>1 − Sørensen's similarity.</summary>
    Sorensen,

    /// <summary>1 − Jaccard's similarity.</summary>
    Jaccard,
}

/// <summary>An axis of an ordination.</summary>
/// <param name="Eigenvalue">Its eigenvalue.</param>
/// <param name="Share">Its share of all eigenvalues above 0, 0 to 1.</param>
public sealed record OrdinationAxis(double Eigenvalue, double Share);

/// <summary>Samples in a plane or a space: the nearer, the more alike.</summary>
/// <param name="Axes">The axes, the longest first; fewer than were asked for where no more have an eigenvalue above 0.</param>
/// <param name="Points">Per sample its place on each axis. The signs of an axis say nothing.</param>
/// <param name="Negative">How much of the distances no space holds: the sum of the eigenvalues below 0 over that of those above; 0 or
/// more.</param>
public sealed record Ordination(IReadOnlyList<OrdinationAxis> Axes, IReadOnlyList<IReadOnlyList<double>> Points, double Negative)
{
    // Eigenvalues this much smaller than the largest are rounding.
    private const double Tiny = 1e-10;

    /// <summary>Principal coordinates (Gower 1966): the eigenvectors of the doubly centred −½ d², each as long as the root of its
    /// eigenvalue.</summary>
    /// <param name="distances">Distances between samples: square, symmetric, 0 on the diagonal.</param>
    /// <param name="axes">How many axes; 1 or more.</param>
    public static Ordination Of(double[][] distances, int axes)
    {
        ArgumentNullException.ThrowIfNull(distances);
        var n = distances.Length;
        var centred = new double[n][];
        var means = distances.Select(row => row.Sum(d => -d * d / 2) / n).ToArray();
        var mean = means.Sum() / n;
        for (var i = 0; i < n; i++)
        {
            centred[i] = new double[n];
            for (var j = 0; j < n; j++)
                centred[i][j] = -distances[i][j] * distances[i][j] / 2 - means[i] - means[j] + mean;
        }
        var trace = Enumerable.Range(0, n).Sum(i => centred[i][i]);
        var squares = centred.Sum(row => row.Sum(v => v * v));
        var found = Eigen.Largest(centred, axes, out var above);
        var kept = found.Where(e => e.Value > Tiny * Math.Max(found[0].Value, 0) && e.Value > 0).ToList();
        if (kept.Count == 0 || squares == 0)
            return new Ordination([], [.. distances.Select(_ => (IReadOnlyList<double>)[])], 0);
        return new Ordination(
            [.. kept.Select(e => new OrdinationAxis(e.Value, e.Value / above))],
            [.. Enumerable.Range(0, n).Select(i => (IReadOnlyList<double>)[.. kept.Select(e => e.Vector[i] * Math.Sqrt(e.Value))])],
            Math.Max((above - trace) / above, 0)
        );
    }
}
