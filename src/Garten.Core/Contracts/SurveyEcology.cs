using System.Text.Json.Serialization;
using Garten.Core.Floras;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>What the taxa of a sample say of its ground.</summary>
/// <param name="Sample">The sample.</param>
/// <param name="Quality">By the coefficients of conservatism.</param>
/// <param name="Factors">By the indicator values, one a factor.</param>
public sealed record SampleEcology(string Sample, FloristicQuality Quality, IReadOnlyList<IndicatedFactor> Factors);

/// <summary>By what the taxa of a survey are divided.</summary>
[JsonConverter(typeof(CamelCaseWords<ShareBy>))]
public enum ShareBy
{
    /// <summary>By how they came to the region, after the flora.</summary>
    Origin,

    /// <summary>By whether they grew wild where they were found, as it was recorded.</summary>
    Growth,

    /// <summary>By the habitats that the flora gives: a taxon of several counts in each.</summary>
    Habitat,

    /// <summary>By the part of the place where they were found: a taxon in several counts in each.</summary>
    Part,
}

/// <summary>A share of the taxa and of the finds of a survey.</summary>
/// <param name="Name">Of what: "native", "wet wood".</param>
/// <param name="Taxa">Taxa.</param>
/// <param name="Finds">Finds: a taxon in a recording.</param>
/// <param name="OfTaxa">The taxa as a share of all, 0 to 1.</param>
/// <param name="OfFinds">The finds as a share of all.</param>
public sealed record FoundShare(string Name, int Taxa, int Finds, double OfTaxa, double OfFinds);

/// <summary>The taxa of a survey divided.</summary>
/// <param name="By">By what.</param>
/// <param name="Shares">The shares, those with most taxa first.</param>
public sealed record FoundShares(ShareBy By, IReadOnlyList<FoundShare> Shares);

/// <summary>Works out what the flora and the recorders say of what was found.</summary>
internal static class SurveyEcology
{
    private const string NotSaid = "not said";

    /// <summary>Of each sample; none where the flora gives no such values for anything found.</summary>
    public static IReadOnlyList<SampleEcology> Of(IReadOnlyList<Recording> samples, TaxonIndex taxa, bool isAmount)
    {
        var any = samples.SelectMany(s => s.Amounts.Keys).Any(n => taxa.Find(n)?.Facts?.Indication is not null);
        return any
            ?
            [
                .. samples.Select(s =>
                {
                    List<RatedTaxon> rated =
                    [
                        .. s.Amounts.Select(a =>
                        {
                            var facts = taxa.Find(a.Key)?.Facts;
                            return new RatedTaxon(a.Value, facts?.Origin ?? Origin.Unsaid, facts?.Indication);
                        }),
                    ];
                    return new SampleEcology(s.Name, FloristicQuality.Of(rated, isAmount), IndicatedFactor.All(rated, isAmount));
                }),
            ]
            : [];
    }

    /// <summary>The taxa divided; by what nothing is said isn't among them.</summary>
    public static IReadOnlyList<FoundShares> Shares(IReadOnlyList<Recording> all, TaxonIndex taxa)
    {
        var finds = all.SelectMany(r => r.Taxa).ToList();
        var divided = new[]
        {
            Divided(ShareBy.Origin, finds, f => [OriginOf(taxa.Find(f.Taxon))]),
            Divided(ShareBy.Growth, finds, f => [f.Growth is { } growth ? SiteVisitWords.Of(growth) : NotSaid]),
            Divided(ShareBy.Habitat, finds, f => taxa.Find(f.Taxon)?.Facts?.Habitats is { Count: > 0 } habitats ? habitats : [NotSaid]),
            Divided(ShareBy.Part, finds, f => [f.Part.Length > 0 ? f.Part : NotSaid]),
        };
        return [.. divided.Where(d => d.Shares.Any(s => s.Name != NotSaid))];
    }

    private static string OriginOf(Taxon? taxon) =>
        taxon is null
            ? "not in the flora"
            : taxon.Facts?.Origin switch
            {
                Origin.Native => "native",
                Origin.Introduced => "introduced",
                Origin.Doubtful => "of doubtful origin",
                _ => NotSaid,
            };

    private static FoundShares Divided(ShareBy by, List<RecordedTaxon> finds, Func<RecordedTaxon, IReadOnlyList<string>> namesOf)
    {
        var taxa = finds.Select(f => f.Taxon).Distinct(StringComparer.Ordinal).Count();
        return new FoundShares(
            by,
            [
                .. finds
                    .SelectMany(f => namesOf(f).Distinct(StringComparer.Ordinal).Select(n => (Name: n, f.Taxon)))
                    .GroupBy(x => x.Name, StringComparer.Ordinal)
                    .Select(g =>
                    {
                        var own = g.Select(x => x.Taxon).Distinct(StringComparer.Ordinal).Count();
                        return new FoundShare(g.Key, own, g.Count(), (double)own / taxa, (double)g.Count() / finds.Count);
                    })
                    .OrderBy(s => s.Name == NotSaid)
                    .ThenByDescending(s => s.Taxa)
                    .ThenBy(s => s.Name, StringComparer.Ordinal),
            ]
        );
    }
}
