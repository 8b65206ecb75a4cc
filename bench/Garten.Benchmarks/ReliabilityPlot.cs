using System.Globalization;
using System.Text;

namespace Garten.Benchmarks;

/// <summary>Probability given against share right, as an SVG file.</summary>
internal static class ReliabilityPlot
{
    private const int Size = 320;
    private const int Margin = 44;

    public static void Write(string file, IReadOnlyList<(double Given, double Right, int Count)> points)
    {
        string At(double value) => (Margin + value * Size).ToString("0.#", CultureInfo.InvariantCulture);
        string Down(double value) => (Margin / 2 + (1 - value) * Size).ToString("0.#", CultureInfo.InvariantCulture);
        var svg = new StringBuilder();
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 {Size + Margin + 20} {Size + Margin + 20}\" font-family=\"sans-serif\" font-size=\"11\" role=\"img\" aria-label=\"Share of names that were right against the probability they were given\">\n"
        );
        svg.Append("<rect width=\"100%\" height=\"100%\" fill=\"#fbf8ef\"/>\n");
        for (var i = 0; i <= 10; i += 2)
        {
            var v = i / 10d;
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<path d=\"M{At(0)} {Down(v)}H{At(1)}M{At(v)} {Down(0)}V{Down(1)}\" stroke=\"#c6bb9f\" stroke-width=\".7\"/><text x=\"{Margin - 6}\" y=\"{Down(v)}\" text-anchor=\"end\" dy=\"4\">{i * 10} %</text><text x=\"{At(v)}\" y=\"{Size + Margin / 2 + 14}\" text-anchor=\"middle\">{i * 10} %</text>\n"
            );
        }
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<path d=\"M{At(0)} {Down(0)}L{At(1)} {Down(1)}\" stroke=\"#4c584d\" stroke-dasharray=\"4 4\"/>\n"
        );
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<path d=\"M{string.Join('L', points.Select(p => $"{At(p.Given)} {Down(p.Right)}"))}\" fill=\"none\" stroke=\"#1f4a33\" stroke-width=\"1.5\"/>\n"
        );
        foreach (var (given, right, count) in points)
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<circle cx=\"{At(given)}\" cy=\"{Down(right)}\" r=\"{2 + Math.Log10(count):0.0}\" fill=\"#1f4a33\"/>\n"
            );
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<text x=\"{At(0.5)}\" y=\"{Size + Margin + 12}\" text-anchor=\"middle\">probability given to the first name</text><text transform=\"translate(12 {Down(0.5)}) rotate(-90)\" text-anchor=\"middle\">share right</text>\n</svg>\n"
        );
        File.WriteAllText(file, svg.ToString());
    }
}
