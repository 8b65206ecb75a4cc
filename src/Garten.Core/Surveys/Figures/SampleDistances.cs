namespace Garten.Core.Surveys.Figures;

/// <summary>How far samples are from each other.</summary>
public static class SampleDistances
{
    /// <summary>All distances between some samples: square, symmetric, 0 on the diagonal, each 0 (alike) to 1 (nothing shared).</summary>
    /// <param name="community">The samples.</param>
    /// <param name="samples">Indices of those that are compared; none of them empty.</param>
    /// <param name="distance">By what.</param>
    public static double[][] Between(Community community, IReadOnlyList<int> samples, SampleDistance distance)
    {
        ArgumentNullException.ThrowIfNull(community);
        ArgumentNullException.ThrowIfNull(samples);
        var distances = samples.Select(_ => new double[samples.Count]).ToArray();
        for (var i = 0; i < samples.Count; i++)
        {
            for (var j = 0; j < i; j++)
            {
                var one = community.Of(samples[i]);
                var other = community.Of(samples[j]);
                distances[i][j] = distances[j][i] = distance switch
                {
                    SampleDistance.Sorensen => 1 - Likeness.Sorensen(one, other)!.Value,
                    SampleDistance.Jaccard => 1 - Likeness.Jaccard(one, other)!.Value,
                    _ => Likeness.BrayCurtis(one, other)!.Value,
                };
            }
        }
        return distances;
    }
}
