using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <content>What the figures of a survey say, in sentences.</content>
public static partial class SurveyReportWriter
{
    private sealed partial class Making
    {
        private ReportSection Figures(SurveySource source, SurveyFigures figures)
        {
            var sentences = new List<ReportSentence>();
            var tables = new List<ReportTable>();
            if (figures.Statistics is not { } statistics)
                return new(FiguresTitle, Kept([Say("figures", figures.Notes[^1])]), []);
            var pooled = statistics.Pooled;
            sentences.Add(
                Say(
                    "richness",
                    $"From {Counted(statistics.Samples.Count, source == SurveySource.Plots ? "plot recording" : "list", source == SurveySource.Plots ? "plot recordings" : "lists")}: "
                        + $"{Counted(pooled.Richness, "taxon", "taxa")} found"
                        + (KeptBackInWords().Length > 0 ? ", sensitive ones among them" : "")
                        + InAll(pooled)
                        + ". Such figures are lower bounds, for places and seasons like those recorded."
                )
            );
            if (figures.More is [var now, .., var twice] && twice.Samples > now.Samples)
                sentences.Add(
                    Say(
                        "more",
                        $"The taxa found make up {Percent(now.Coverage)} of all finds to be expected. As many recordings again "
                            + "would bring "
                            + (
                                twice.Richness - now.Richness < 0.5
                                    ? "hardly any more."
                                    : $"about {Rounded(twice.Richness - now.Richness)} more taxa."
                            )
                    )
                );
            sentences.AddRange(figures.Notes.Select((n, i) => Say(string.Create(CultureInfo.InvariantCulture, $"note-{i}"), n)));
            var clear = figures.Indicators.Where(i => i.P <= SureP && !IsKeptBack(i.Taxon)).Take(MostNamed).ToList();
            if (clear.Count > 0)
                sentences.Add(
                    Say(
                        "indicators",
                        "Taxa that stand for one group (indicator value, p by 999 permutations; of many taxa tested some come out "
                            + "by chance): "
                            + string.Join(
                                "; ",
                                clear.Select(i =>
                                    string.Create(
                                        CultureInfo.InvariantCulture,
                                        $"{i.Taxon} for {i.Group} ({i.Value:0.00}, p = {i.P:0.000})"
                                    )
                                )
                            )
                            + "."
                    )
                );
            if (new SurveyChangeRequest(whole).WorkOut() is [var change])
            {
                sentences.Add(Say("change", ChangeInWords(change)));
                var sure = change.Taxa.Where(t => t.Share.IsClear && !IsKeptBack(t.Taxon)).Take(MostNamed).ToList();
                sentences.Add(
                    Say(
                        "changed-taxa",
                        sure.Count == 0
                            ? "Of no single taxon is a change of frequency beyond what chance makes of so few plots."
                            : $"More or less frequent than chance alone makes likely, each for itself: "
                                + $"{string.Join("; ", sure.Select(t => $"{t.Taxon} {Interval(t.Share)}"))}."
                    )
                );
            }
            Divided(figures, sentences);
            Ground(source, sentences, tables);
            if (figures.Frequencies.Count > 0)
            {
                var groups = figures.Frequencies[0].Groups.Select(g => g.Group).ToList();
                // Of one group in which a taxon stands alone the place would be told.
                tables.Add(
                    new(
                        figures.Frequencies.Count > MostRows
                            ? $"Constancy (I to V, a fifth each; in brackets recordings with the taxon): the {MostRows} most "
                                + $"frequent of {figures.Frequencies.Count}"
                            : "Constancy (I to V, a fifth each; in brackets recordings with the taxon)",
                        ["Taxon", .. groups],
                        [
                            .. figures
                                .Frequencies.Where(f => !IsKeptBack(f.Taxon))
                                .Take(MostRows)
                                .Select(f => (IReadOnlyList<string>)[f.Taxon, .. f.Groups.Select(g => Class(g))]),
                        ],
                        [0]
                    )
                );
            }
            return new(FiguresTitle, Kept(sentences), tables);
        }

        private void Divided(SurveyFigures figures, List<ReportSentence> sentences)
        {
            if (figures.Shares.FirstOrDefault(s => s.By == ShareBy.Habitat) is not { } habitats)
                return;
            sentences.Add(
                Say(
                    "habitats",
                    "By the habitats that the flora gives (a taxon of several counts in each): "
                        + List([.. habitats.Shares.Take(MostNamed).Select(s => $"{s.Name} {Percent(s.OfTaxa)}")])
                        + " of the taxa."
                )
            );
        }

        // By place, and all together: what the taxa say of the ground.
        private void Ground(SurveySource source, List<ReportSentence> sentences, List<ReportTable> tables)
        {
            var byPlace = new SurveyFiguresRequest(whole, source, SurveyUnit.Place).WorkOut(context.Taxa).Ecology;
            if (byPlace.Count == 0)
                return;
            sentences.Add(
                Say(
                    "ground",
                    "What the taxa of a place say of its ground, by the flora’s indicator values (median, and mean) and coefficients of "
                        + "conservatism, stands in the table: steps on scales, not measurements. "
                        + "The quality index is the mean coefficient times the root of the number of native taxa (Swink and Wilhelm "
                        + "1994); the adjusted one counts introduced taxa against it, whatever their number (Miller and Wardrop 2006)."
                )
            );
            tables.Add(
                new(
                    "What the taxa say of the ground",
                    [
                        "Place",
                        .. byPlace[0].Factors.Select(f => PageWords.SiteFactors[f.Factor]),
                        "Conservatism, 0 to 10",
                        "Quality index",
                        "Adjusted, 0 to 100",
                    ],
                    [
                        .. byPlace.Select(e =>
                            (IReadOnlyList<string>)
                                [
                                    e.Sample,
                                    .. e.Factors.Select(f =>
                                        f is { Median: { } median, Mean: { } mean }
                                            ? $"{Rounded(median)} ({Rounded(mean)}), {f.Rated} taxa"
                                            : "too few taxa with a value"
                                    ),
                                    e.Quality.Mean is { } c ? $"{Rounded(c)}, {e.Quality.Rated} taxa" : "too few",
                                    e.Quality.Index is { } index ? Rounded(index) : "–",
                                    e.Quality.Adjusted is { } adjusted ? Rounded(adjusted) : "–",
                                ]
                        ),
                    ],
                    []
                )
            );
        }

        private static string InAll(PooledFigures it) =>
            it.Chao2 is not { } chao ? ""
            : chao - it.Richness < 0.5 ? "; hardly any was found in one or two recordings alone, so few more are to be expected (Chao2)"
            : $"; in all there are about {Rounded(chao)}{(it.Chao2SE is { } se ? $" (Chao2, standard error {Rounded(se)})" : " (Chao2)")}"
                + (it.Jackknife1 is { } jack ? $", or {Rounded(jack)} by the first jackknife" : "");

        private static string Class(GroupFrequency it)
        {
            string[] classes = ["–", "I", "II", "III", "IV", "V"];
            return it.Found == 0
                ? classes[0]
                : string.Create(CultureInfo.InvariantCulture, $"{classes[it.Constancy]} ({it.Found} of {it.Of})");
        }

        private static string ChangeInWords(SurveyChange it) =>
            $"In {Counted(it.Plots, "permanent plot", "permanent plots")} recorded in {it.From} and {it.To} the number of taxa changed by "
            + (
                it.Richness is { Low: { } low, High: { } high }
                    ? $"{Signed(it.Richness.Value)} on average (95 %: {Signed(low)} to "
                        + $"{Signed(high)}{(it.Richness.IsClear ? "" : ": no change is as possible")})"
                    : $"{Signed(it.Richness.Value)} on average; how far that reaches beyond these plots can’t be said"
            )
            + (it.Turnover is { } turnover ? $". Of the taxa of a plot {Percent(turnover)} stand in one of the two years alone" : "")
            + (
                it.PseudoTurnover is { } pseudo
                    ? $"; between two independent recordings of one day it is {Percent(pseudo)} "
                        + $"({Counted(it.Twice, "pair", "pairs")}): so much of it is overlooking"
                    : "; how much of that is overlooking isn’t known: no plot was recorded twice"
            )
            + ".";

        private static string Interval(Change it) =>
            it is { Low: { } low, High: { } high }
                ? $"{SignedPercent(it.Value)} ({SignedPercent(low)} to {SignedPercent(high)})"
                : SignedPercent(it.Value);
    }
}
