using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Surveys;

namespace Garten.Formats;

/// <summary>Populations year by year as CSV, a row per population and year.</summary>
public static class PopulationCsv
{
    private static readonly string[] Heads =
    [
        "place",
        "population",
        "scientificName",
        "year",
        "individuals",
        "shoots",
        "stems",
        "pegged",
        "notRefound",
    ];

    // Units that came later stand at the end, so that columns keep their places.
    private static readonly CountUnit[] First = [CountUnit.Individuals, CountUnit.Shoots, CountUnit.Stems];
    private static readonly CountUnit[] Later = [.. Enum.GetValues<CountUnit>().Except(First)];

    private static readonly string[] Shares = ["flowered", "fruited", "alive", "female"];
    private static readonly string[] Parts = ["", "Of", "Unknown", "Share", "Low95", "High95", "Least", "Most"];

    /// <summary>Writes them. Of sensitive taxa the grid cell stands in place of place and name.</summary>
    /// <param name="output">Where to; it stays open.</param>
    /// <param name="populations">The populations.</param>
    /// <param name="sensitive">Which taxa are sensitive; null for an export with everything exact.</param>
    public static async Task WriteAsync(Stream output, IReadOnlyList<PopulationDetail> populations, SensitiveTaxa? sensitive)
    {
        ArgumentNullException.ThrowIfNull(populations);
        await using var text = new StreamWriter(
            output,
            new System.Text.UTF8Encoding(encoderShouldEmitUTF8Identifier: false),
            leaveOpen: true
        );
        await using var csv = new CsvTable(text);
        csv.Texts([.. Heads]);
        foreach (var what in Shares)
            csv.Texts([.. Parts.Select(p => what + p)]);
        csv.Texts("dataGeneralizations", "informationWithheld");
        csv.Texts([.. Later.Select(u => System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(u.ToString()))]);
        csv.Texts("floweringOfRosettes", "floweringOfRosettesLow95", "floweringOfRosettesHigh95");
        await csv.EndRowAsync();
        foreach (var p in populations)
        {
            var coarse = sensitive?.Holds(p.Taxon) == true ? sensitive.Coarsen([p.Taxon], p.Place.Latitude, p.Place.Longitude) : null;
            foreach (var year in p.Summary.Years)
            {
                csv.Texts(coarse?.Cell ?? p.Place.Name, coarse is null ? p.Name : "", p.Taxon);
                csv.Whole(year.Year);
                foreach (var unit in First)
                    csv.Whole(year.Counts.FirstOrDefault(c => c.Unit == unit)?.Number);
                csv.Whole(year.Pegged);
                csv.Whole(year.NotRefound);
                foreach (var share in new[] { year.Flowered, year.Fruited, year.Alive, year.Sexes.FemaleShare })
                {
                    csv.Whole(share.Count);
                    csv.Whole(share.Known);
                    csv.Whole(share.Unknown);
                    foreach (
                        var value in new[]
                        {
                            share.Share,
                            share.Known > 0 ? share.Low : null,
                            share.Known > 0 ? share.High : null,
                            share.Least,
                            share.Most,
                        }
                    )
                        csv.Number(value, "0.####");
                }
                csv.Texts(coarse?.Generalization ?? "", coarse?.Withheld ?? "");
                foreach (var unit in Later)
                    csv.Whole(year.Counts.FirstOrDefault(c => c.Unit == unit)?.Number);
                foreach (var value in new[] { year.OfRosettes?.Share, year.OfRosettes?.Low, year.OfRosettes?.High })
                    csv.Number(value, "0.####");
                await csv.EndRowAsync();
            }
        }
    }
}
