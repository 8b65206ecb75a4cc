using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Surveys.Figures;

namespace Garten.Core.Contracts;

/// <summary>Asks how two surveys differ. Their recordings are taken as independent of each other: of permanent plots of one survey the
/// change is told better by <see cref="SurveyChangeRequest"/>.</summary>
/// <param name="First">The first survey.</param>
/// <param name="Second">The second one.</param>
/// <param name="From">From lists or plots of both.</param>
public sealed record SurveyComparisonRequest(SurveyWhole First, SurveyWhole Second, SurveySource From)
{
    /// <summary>Compares them.</summary>
    /// <param name="taxa">What is known of taxa; null where nothing is.</param>
    public SurveyComparison WorkOut(TaxonIndex? taxa = null)
    {
        var (one, other) = (SurveyRecordings.Of(First, From, false, taxa), SurveyRecordings.Of(Second, From, false, taxa));
        var notes = one.Notes.Concat(other.Notes).Distinct(StringComparer.Ordinal).ToList();
        if (one.All.Count == 0 || other.All.Count == 0)
            return new SurveyComparison(
                one.All.Count,
                other.All.Count,
                null,
                [],
                [.. notes, From == SurveySource.Plots ? "One of them has no recorded plot." : "One of them has no list."]
            );
        var sizes = one.All.Concat(other.All).Select(r => r.SquareMetres).Distinct().Order().ToList();
        if (sizes.Count > 1)
            return new SurveyComparison(
                one.All.Count,
                other.All.Count,
                null,
                [],
                [
                    .. notes,
                    $"Their plots have {string.Join(" and ", sizes.Select(s => s.ToString("0.##", CultureInfo.InvariantCulture)))} m²: "
                        + "how many taxa stand in a plot, and how often, hangs on its size. They aren’t compared.",
                ]
            );
        if (First.Survey.Places.Select(p => p.Id).Intersect(Second.Survey.Places.Select(p => p.Id)).Any())
            notes.Add("They share places: recordings of one place are more alike than the intervals hold them to be.");
        var names = one.All.Concat(other.All).SelectMany(r => r.Amounts.Keys).Distinct(StringComparer.Ordinal);
        return new SurveyComparison(
            one.All.Count,
            other.All.Count,
            IndependentChange.OfMean(Numbers(one), Numbers(other)),
            [
                .. names
                    .Select(n => Of(n, Found(one, n), one.All.Count, Found(other, n), other.All.Count))
                    .OrderByDescending(t => Math.Abs(t.Difference.Value))
                    .ThenBy(t => t.Taxon, StringComparer.Ordinal),
            ],
            notes
        );
    }

    private static ComparedTaxon Of(string taxon, int first, int ofFirst, int second, int ofSecond) =>
        new(taxon, first, second, IndependentChange.OfShare(first, ofFirst, second, ofSecond)!);

    private static int Found(SurveyRecordings recordings, string taxon) => recordings.All.Count(r => r.Amounts.ContainsKey(taxon));

    private static double[] Numbers(SurveyRecordings recordings) => [.. recordings.All.Select(r => (double)r.Amounts.Count)];
}

/// <summary>In how many recordings of two surveys a taxon stands.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="First">Recordings of the first with it.</param>
/// <param name="Second">Recordings of the second with it.</param>
/// <param name="Difference">The second share minus the first, with its interval.</param>
public sealed record ComparedTaxon(string Taxon, int First, int Second, Change Difference);

/// <summary>How two surveys differ.</summary>
/// <param name="First">Recordings of the first.</param>
/// <param name="Second">Recordings of the second.</param>
/// <param name="Richness">Mean number of taxa in a recording, the second minus the first; null where they can't be compared.</param>
/// <param name="Taxa">The taxa, those that differ most first; none where they can't be compared.</param>
/// <param name="Notes">What has to be known.</param>
public sealed record SurveyComparison(
    int First,
    int Second,
    Change? Richness,
    IReadOnlyList<ComparedTaxon> Taxa,
    IReadOnlyList<string> Notes
);
