using System.Globalization;

namespace Garten.Core.Contracts;

/// <content>How numbers, days and lists are written in a report.</content>
public static partial class SurveyReportWriter
{
    private sealed partial class Making
    {
        // What says nothing stands only where a person may write something.
        private static IReadOnlyList<ReportSentence> Kept(IReadOnlyList<ReportSentence> sentences) =>
            [.. sentences.Where(s => s.Text.Length > 0 || s.Key is "question" or "do")];

        private static string Written(DateOnly day) => day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);

        private static string Number(int value) => value.ToString(CultureInfo.InvariantCulture);

        private static string Rounded(double value) => value.ToString(value < 10 ? "0.#" : "0", CultureInfo.InvariantCulture);

        private static string Signed(double value) => value.ToString("+0.0;−0.0;0", CultureInfo.InvariantCulture);

        private static string Percent(double share) => string.Create(CultureInfo.InvariantCulture, $"{100 * share:0} %");

        private static string SignedPercent(double share) => (100 * share).ToString("+0;−0;0", CultureInfo.InvariantCulture) + " %";

        private static string Hours(int minutes) =>
            minutes < 60
                ? string.Create(CultureInfo.InvariantCulture, $"{minutes} min")
                : string.Create(CultureInfo.InvariantCulture, $"{minutes / 60} h {minutes % 60} min")
                    .Replace(" 0 min", "", StringComparison.Ordinal);

        private static string Counted(int number, string one, string several) =>
            string.Create(CultureInfo.InvariantCulture, $"{number:N0} {(number == 1 ? one : several)}");

        private static string List(params List<string> parts) =>
            parts.Count switch
            {
                0 => "nothing",
                1 => parts[0],
                _ => $"{string.Join(", ", parts.Take(parts.Count - 1))} and {parts[^1]}",
            };
    }
}
