using System.Globalization;
using Garten.Core.Floras;

namespace Garten.Formats.Tables;

/// <summary>Reads the columns of indicator values and of conservatism.</summary>
internal static class IndicationSheet
{
    // Written for a taxon that is indifferent to a factor.
    private static readonly string[] Indifferent = ["x", "~", "-", "–"];

    private static readonly string[] Conservatism = ["conservatism", "coefficient_of_conservatism", "c_value"];

    /// <summary>A cell of the first of several columns that is there, with the column.</summary>
    public delegate (string Text, int Column) Cell(params ReadOnlySpan<string> names);

    /// <summary>Reads them; null where nothing is said.</summary>
    /// <param name="cell">Gives a cell by the names of its column.</param>
    /// <param name="wrong">Takes what can't be used.</param>
    public static SiteIndication? Read(Cell cell, Action<int, string> wrong)
    {
        double? Number(double low, double high, params ReadOnlySpan<string> names)
        {
            var (text, column) = cell(names);
            text = text.Trim();
            if (text.Length == 0 || Indifferent.Contains(text, StringComparer.OrdinalIgnoreCase))
                return null;
            if (
                double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var value)
                && value >= low
                && value <= high
            )
                return value;
            wrong(column, string.Create(CultureInfo.InvariantCulture, $"“{text}” is none of {low} to {high}; it is left out."));
            return null;
        }
        double? Factor(SiteFactor factor)
        {
            var word = factor.ToString().ToLowerInvariant();
            return Number(1, SiteIndication.HighestOf(factor), word + "_value", "indicator_" + word, word);
        }
        var read = new SiteIndication(
            Factor(SiteFactor.Light),
            Factor(SiteFactor.Moisture),
            Factor(SiteFactor.Reaction),
            Factor(SiteFactor.Nutrients),
            Number(0, SiteIndication.HighestConservatism, Conservatism)
        );
        return read == SiteIndication.None ? null : read;
    }
}
