using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Garten.Core.Contracts;
using Garten.Core.Surveys;

namespace Garten.Formats;

/// <summary>Populations year by year as CSV, a row per population and year.</summary>
public static class PopulationCsv
{
    /// <summary>Writes them.</summary>
    public static string Write(IReadOnlyList<PopulationDetail> populations)
    {
        ArgumentNullException.ThrowIfNull(populations);
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new CsvWriter(text, new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\r\n" }))
        {
            foreach (var name in new[] { "place", "population", "scientificName", "year", "individuals", "shoots", "stems", "pegged", "notRefound" }) csv.WriteField(name);
            foreach (var what in new[] { "flowered", "fruited", "alive", "female" })
            {
                foreach (var part in new[] { "", "Of", "Unknown", "Share", "Low95", "High95", "Least", "Most" }) csv.WriteField(what + part);
            }
            csv.NextRecord();
            foreach (var p in populations)
            {
                foreach (var year in p.Summary.Years)
                {
                    csv.WriteField(OccurrenceCsv.Inert(p.Place.Name));
                    csv.WriteField(OccurrenceCsv.Inert(p.Name));
                    csv.WriteField(OccurrenceCsv.Inert(p.Taxon));
                    csv.WriteField(year.Year);
                    foreach (var unit in Enum.GetValues<CountUnit>()) csv.WriteField(year.Counts.FirstOrDefault(c => c.Unit == unit)?.Number);
                    csv.WriteField(year.Pegged);
                    csv.WriteField(year.NotRefound);
                    foreach (var share in new[] { year.Flowered, year.Fruited, year.Alive, year.Sexes.FemaleShare })
                    {
                        csv.WriteField(share.Count);
                        csv.WriteField(share.Known);
                        csv.WriteField(share.Unknown);
                        foreach (var value in new[] { share.Share, share.Known > 0 ? share.Low : null, share.Known > 0 ? share.High : null, share.Least, share.Most }) csv.WriteField(value?.ToString("0.####", CultureInfo.InvariantCulture));
                    }
                    csv.NextRecord();
                }
            }
        }
        return text.ToString();
    }
}
