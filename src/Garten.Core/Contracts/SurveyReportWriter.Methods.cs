using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <content>How a survey was made, in sentences.</content>
public static partial class SurveyReportWriter
{
    private sealed partial class Making
    {
        private ReportSection Methods()
        {
            var sentences = new List<ReportSentence>();
            var lists = whole.Visits.Count(v => v.Lines.Count > 0);
            if (lists > 0)
            {
                var complete = whole.Visits.Count(v => v.Lines.Count > 0 && v.Closing?.Completeness == Completeness.Complete);
                sentences.Add(
                    Say(
                        "lists",
                        $"Places were walked and every taxon noticed was listed on {Counted(lists, "visit", "visits")}; {complete} "
                            + $"of these lists are said to be complete. "
                            + "A taxon counts as looked for in vain only where it was named as sought, with minutes and observers."
                    )
                );
            }
            if (_survey.Now() is { Protocol: var protocol } now)
            {
                sentences.Add(Say("plots", PlotsInWords(protocol)));
                if (now.Version > 1)
                    sentences.Add(
                        Say(
                            "protocol",
                            $"The protocol was changed {Counted(now.Version - 1, "time", "times")}; each recording says by which "
                                + $"version it was made."
                        )
                    );
                var departures = _records
                    .Where(r => r.Departure.Length > 0)
                    .Select(r => $"{LabelOf(r)} ({r.Date.Year}): {r.Departure}")
                    .ToList();
                if (departures.Count > 0)
                    sentences.Add(Say("departures", $"Departures from the protocol: {string.Join("; ", departures)}."));
                var off = _records.Count(r => _survey.ProtocolOf(r.ProtocolVersion)?.IsInSeason(r.Date) == false);
                if (off > 0)
                    sentences.Add(Say("season", $"{Counted(off, "recording was", "recordings were")} made outside the season agreed."));
            }
            var keys = context
                .Names.Select(n => n.Key)
                .Where(k => k.Length > 0)
                .Distinct(StringComparer.Ordinal)
                .Order(StringComparer.Ordinal)
                .ToList();
            if (keys.Count > 0)
                sentences.Add(Say("keys", $"Plants were named with {List(keys)}."));
            if (_survey.Terms is { Rules.Length: > 0 } or { LeastGrade: > Grade.Tentative })
                sentences.Add(
                    Say(
                        "grades",
                        (
                            _survey.Terms.Rules.Length > 0
                                ? $"Names of marked plants are graded by “{RulesCalled(_survey.Terms.Rules)}”. "
                                : ""
                        )
                            + (
                                _survey.Terms.LeastGrade > Grade.Tentative
                                    ? "The name of a marked plant counts as unsure below "
                                        + $"{PageWords.Grades[_survey.Terms.LeastGrade].ToLowerInvariant()}."
                                    : ""
                            )
                    )
                );
            if (_survey.Terms.Rounds.Count > 0)
                sentences.Add(
                    Say(
                        "rounds",
                        $"Each place is visited in {Counted(_survey.Terms.Rounds.Count, "round", "rounds")} a year: "
                            + List([.. _survey.Terms.Rounds.Select(r => $"{r.Name} ({r.Days().InWords()})")])
                            + "."
                    )
                );
            if (context.Floras.Count > 0)
                sentences.Add(Say("floras", $"Names are those of {List([.. context.Floras])}."));
            return new("How", Kept(sentences), []);
        }

        private string PlotsInWords(SurveyProtocol it)
        {
            var shape =
                it.Shape == PlotShape.Line
                    ? string.Create(CultureInfo.InvariantCulture, $"Lines with {it.Pins} pins")
                    : it.Kind switch
                    {
                        PlotKind.NestedQuadrat => $"Nested quadrats up to {Size(it)}",
                        PlotKind.FrequencyFrame => string.Create(CultureInfo.InvariantCulture, $"Frames of {it.Pins} cells on {Size(it)}"),
                        PlotKind.BeltTransect => $"Belts of {Size(it)}",
                        _ =>
                            $"{(it.Shape == PlotShape.Circle ? "Circles" : it.Shape == PlotShape.Square ? "Squares" : "Rectangles")} of {Size(it)}",
                    };
            var placing = whole
                .Plots.GroupBy(p => p.Placing)
                .Select(g =>
                    $"{g.Count()} {PlacingInWords(g.Key)}"
                    + (
                        g.Select(p => p.Seed).OfType<long>().Distinct().Order().ToList() is { Count: > 0 } seeds
                            ? $" (seed {string.Join(", ", seeds)})"
                            : ""
                    )
                );
            var scale = it.Scale switch
            {
                PlotScale.Percent => "cover was estimated in per cent",
                PlotScale.SevenClasses => "cover and abundance were noted in the seven classes of Braun-Blanquet",
                PlotScale.TenClasses => "cover and abundance were noted in the ten classes of Domin",
                PlotScale.Count => "individuals were counted",
                PlotScale.Hits => "hits were counted",
                _ => "taxa were noted as there or not",
            };
            var permanent = whole.Plots.Count(p => p.IsPermanent);
            var layers = it.Layers.Count > 0 ? $" in the layers {List([.. it.Layers])}" : "";
            var edge = it.Edge switch
            {
                EdgeRule.TwoSides => "plants on two sides of the edge count, on the other two they don’t",
                EdgeRule.Within => "plants on the edge count",
                _ => "plants on the edge don’t count",
            };
            return $"{shape}: {string.Join(", ", placing)}; {permanent} permanent. In each {scale}{layers}. A plant is within where "
                + (it.Rooting == RootingRule.Rooted ? "it is rooted within" : "any part of it hangs within")
                + $"; {edge}."
                + (it.SeasonFrom.Length > 0 ? $" Season: {it.Season().InWords()}." : "")
                + (it.TwiceOneIn > 0 ? $" One plot in {it.TwiceOneIn} is recorded twice, independently." : "")
                + (it.Note.Length > 0 ? $" {it.Note}" : "");
        }

        private static string PlacingInWords(PlotPlacing placing) =>
            placing switch
            {
                PlotPlacing.Random => "laid at random",
                PlotPlacing.Stratified => "laid at random within the parts of the places",
                PlotPlacing.Systematic => "on a grid with a random start",
                _ => "chosen by a person",
            };

        private static string Size(SurveyProtocol it) => string.Create(CultureInfo.InvariantCulture, $"{it.SquareMetres:0.##} m²");
    }
}
