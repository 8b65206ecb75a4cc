using Garten.Core.Surveys.Figures;

namespace Garten.Core.Surveys.Plots;

/// <summary>In how many samples of a group a taxon stands.</summary>
/// <param name="Group">The group.</param>
/// <param name="Found">Samples with the taxon.</param>
/// <param name="Of">Samples of the group.</param>
/// <param name="Share">The share with its 95 % interval.</param>
/// <param name="Constancy">The class of constancy, 1 (up to 20 %) to 5 (above 80 %); 0 where it isn't found.</param>
/// <param name="Mean">Mean amount over all samples of the group, in the unit of the values; null where only presence is known.</param>
/// <param name="Median">The middle class where it stands, of two middle ones the lower; empty where the scale has no classes.</param>
/// <param name="Density">Mean individuals in a square metre; null where they weren't counted, or the plots have no area.</param>
public sealed record GroupFrequency(
    string Group,
    int Found,
    int Of,
    ShareEstimate Share,
    int Constancy,
    double? Mean,
    string Median = "",
    double? Density = null
);

/// <summary>A taxon over the groups.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Groups">One a group, in their order.</param>
/// <param name="Found">Samples with it in all groups.</param>
public sealed record TaxonFrequency(string Taxon, IReadOnlyList<GroupFrequency> Groups, int Found)
{
    // Five classes of equal width.
    private const int Classes = 5;

    /// <summary>Works them out, the most frequent first.</summary>
    /// <param name="community">The samples.</param>
    /// <param name="groups">The group of each sample.</param>
    /// <param name="isAmount">Whether the values are amounts, and not presence alone.</param>
    /// <param name="classes">The same samples by the ranks of classes, with the marks of these; null where there are none.</param>
    /// <param name="squareMetres">The size of every sample, where individuals were counted; 0 for no density.</param>
    public static IReadOnlyList<TaxonFrequency> Of(
        Community community,
        IReadOnlyList<string> groups,
        bool isAmount,
        (Community Ranks, IReadOnlyList<string> Marks)? classes = null,
        double squareMetres = 0
    )
    {
        ArgumentNullException.ThrowIfNull(community);
        ArgumentNullException.ThrowIfNull(groups);
        var members = groups
            .Select((g, i) => (Group: g, Sample: i))
            .GroupBy(x => x.Group, StringComparer.Ordinal)
            .Select(g => (g.Key, Samples: g.Select(x => x.Sample).ToArray()))
            .ToList();
        return
        [
            .. Enumerable
                .Range(0, community.Taxa.Count)
                .Select(t => new TaxonFrequency(
                    community.Taxa[t],
                    [
                        .. members.Select(m =>
                        {
                            var (found, sum) = (0, 0.0);
                            foreach (var s in m.Samples)
                            {
                                var value = community.Of(s)[t];
                                found += value > 0 ? 1 : 0;
                                sum += value;
                            }
                            return new GroupFrequency(
                                m.Key,
                                found,
                                m.Samples.Length,
                                ShareEstimate.Of(found, m.Samples.Length),
                                ClassOf(found, m.Samples.Length),
                                isAmount ? sum / m.Samples.Length : null,
                                classes is var (ranks, marks) ? MedianOf(ranks, community.Taxa[t], m.Samples, marks) : "",
                                squareMetres > 0 ? sum / m.Samples.Length / squareMetres : null
                            );
                        }),
                    ],
                    community.Frequencies[t]
                ))
                .OrderByDescending(f => f.Found)
                .ThenBy(f => f.Taxon, StringComparer.Ordinal),
        ];
    }

    private static string MedianOf(Community ranks, string taxon, int[] samples, IReadOnlyList<string> marks)
    {
        var at = ranks.Taxa.ToList().IndexOf(taxon);
        int[] found = at < 0 ? [] : [.. samples.Select(s => (int)ranks.Of(s)[at]).Where(r => r > 0).Order()];
        return found.Length == 0 ? "" : marks[found[(found.Length - 1) / 2] - 1];
    }

    /// <summary>The class of constancy: 1 up to a fifth of the samples, 2 up to two fifths …</summary>
    public static int ClassOf(int found, int of) => of == 0 ? 0 : (found * Classes + of - 1) / of;
}
