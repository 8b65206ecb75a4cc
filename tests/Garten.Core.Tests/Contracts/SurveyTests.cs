using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Contracts;

public sealed class SurveyTests
{
    internal static readonly PersonReference Tove = new(Guid.CreateVersion7(), "Tove Askling");
    internal static readonly Place Meadow = new(Guid.CreateVersion7(), "Lang Meadow", "Torvane", 57.4, -11.2, 200, "Bulls.");
    internal static readonly Place Dell = new(Guid.CreateVersion7(), "Dell", "Torvane", 57.5, -11.3, 100, "");

    internal static readonly SurveyProtocol Squares = new(
        PlotKind.Quadrat,
        PlotShape.Square,
        2,
        0,
        PlotScale.Percent,
        RootingRule.Rooted,
        EdgeRule.TwoSides,
        [],
        "05-20",
        "07-31"
    );

    internal static Plot At(string label, string group = "hay", bool isPermanent = true, double? size = null) =>
        new(
            Guid.CreateVersion7(),
            Meadow.Id,
            label,
            isPermanent,
            PlotPlacing.Random,
            40,
            new(57.4, -11.2, 4),
            "",
            group,
            size,
            PlotFinding.None,
            1
        );

    internal static SiteVisit Visit(Place place, string date, params string[] names) =>
        new(
            Guid.CreateVersion7(),
            place,
            Day(date),
            "09:00",
            [Tove],
            "",
            "",
            [],
            null,
            1,
            [
                .. names.Select(n => new ListLine(
                    Guid.CreateVersion7(),
                    n,
                    n.Length == 0 ? "unnamed 1" : "",
                    null,
                    "",
                    Tove.Name,
                    "",
                    LineDetails.None
                )),
            ],
            new VisitClosing("11:00", Completeness.Complete, "", "", [new SoughtInVain("Brontia lenta", "", 20, 2)], [], "")
        );

    internal static PlotRecord Recorded(Plot plot, SiteVisit on, params (string Taxon, double Percent)[] finds) =>
        new(
            Guid.CreateVersion7(),
            plot.Id,
            on.Id,
            on.Date,
            Tove.Name,
            1,
            [.. finds.Select(f => new PlotFind(f.Taxon, Percent: f.Percent))],
            []
        );

    internal static Taxon Named(string name, TaxonFacts facts) =>
        new(name.ToLowerInvariant().Replace(' ', '-'), name, "", "species", "", "Alvenaceae", "", [], "", facts);

    internal static DateOnly Day(string text) => DateOnly.ParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture);

    internal static SurveyWhole Of(Plot[] plots, PlotRecord[] records, params SiteVisit[] visits) =>
        new(
            new Survey(
                Guid.CreateVersion7(),
                "Hay and ditch",
                "Do they differ?",
                Day("2025-05-01"),
                Day("2027-12-31"),
                Tove,
                [Meadow, Dell],
                ["Brontia lenta", "Alvena alba", "Caldea rara"],
                plots.Length > 0 ? [new ProtocolVersion(1, Squares)] : [],
                new Dictionary<string, string> { ["do"] = "Cut after August." },
                1,
                SurveyTerms.None,
                []
            ),
            plots,
            records,
            visits,
            []
        );

    [Fact]
    public void APlotRecordedAgainCountsOnceAndASecondRecordingNot()
    {
        var (first, later) = (Visit(Meadow, "2025-06-14"), Visit(Meadow, "2026-06-16"));
        Plot[] plots = [At("A"), At("B"), At("C", "ditch")];
        var second = Recorded(plots[0], later, ("Alvena alba", 30));
        var whole = Of(
            plots,
            [
                Recorded(plots[0], first, ("Alvena alba", 10), ("Brontia alta", 5)),
                second,
                Recorded(plots[0], later, ("Alvena alba", 25), ("Caldea rara", 1)) with
                {
                    Repeats = second.Id,
                },
                Recorded(plots[1], later, ("Brontia alta", 40)),
                Recorded(plots[2], later),
            ],
            first,
            later
        );
        var figures = new SurveyFiguresRequest(whole, SurveySource.Plots, SurveyUnit.Each, SurveyUnit.Group).WorkOut();
        Assert.Equal(["A", "B", "C"], figures.Samples);
        Assert.Equal(SampleKind.Cover, figures.Kind);
        Assert.Equal(2, figures.Statistics!.Pooled.Richness);
        Assert.Equal(0, figures.Statistics.Samples[2].Richness);
        Assert.Null(figures.Statistics.Pooled.Chao1);
        var alba = figures.Frequencies.Single(f => f.Taxon == "Alvena alba");
        Assert.Equal([(1, 2, 15.0), (0, 1, 0.0)], alba.Groups.Select(g => (g.Found, g.Of, g.Mean!.Value)));
        Assert.Contains(figures.Notes, n => n.Contains("recorded twice", StringComparison.Ordinal));
        Assert.Contains(figures.Notes, n => n.Contains("is empty", StringComparison.Ordinal));
        var years = new SurveyFiguresRequest(whole, SurveySource.Plots, SurveyUnit.Year, SurveyUnit.Year).WorkOut();
        Assert.Equal(["2025", "2026"], years.Samples);
        Assert.Equal([2, 2], years.Statistics!.Samples.Select(s => s.Richness));
        var change = Assert.Single(new SurveyChangeRequest(whole).WorkOut());
        Assert.Equal((2025, 2026, 1, -1.0), (change.From, change.To, change.Plots, change.Richness.Value));
        Assert.Null(change.Richness.Low);
        Assert.Equal(1.0 / 3, change.Turnover!.Value, 12);
        Assert.Equal(1.0 / 3, change.PseudoTurnover!.Value, 12);
    }

    [Fact]
    public void FrequenciesOfUnlikeSizesArentCompared()
    {
        var visit = Visit(Meadow, "2026-06-16");
        Plot[] plots = [At("A"), At("B", size: 4)];
        var figures = new SurveyFiguresRequest(
            Of(plots, [Recorded(plots[0], visit, ("Alvena alba", 10)), Recorded(plots[1], visit, ("Alvena alba", 5))], visit),
            SurveySource.Plots,
            SurveyUnit.Each
        ).WorkOut();
        Assert.Empty(figures.Frequencies);
        Assert.Empty(figures.Indicators);
        Assert.Contains(figures.Notes, n => n.Contains("2 and 4 m²", StringComparison.Ordinal));
    }

    [Fact]
    public void ListsAreFoundOrNotAndWhatHasNoNameIsLeftOut()
    {
        var whole = Of(
            [],
            [],
            Visit(Meadow, "2026-05-01", "Alvena alba", ""),
            Visit(Dell, "2026-05-02", "Alvena alba", "Brontia alta"),
            Visit(Dell, "2026-05-02", "Brontia alta")
        );
        var figures = new SurveyFiguresRequest(whole, SurveySource.Lists, SurveyUnit.Each).WorkOut();
        Assert.Equal(["Lang Meadow · 2026-05-01", "Dell · 2026-05-02", "Dell · 2026-05-02 (2)"], figures.Samples);
        Assert.Null(figures.Statistics!.Pooled.Shannon);
        Assert.NotNull(figures.Statistics.Pooled.Chao2);
        Assert.Contains(figures.Notes, n => n.StartsWith("1 plant without a name", StringComparison.Ordinal));
        Assert.Equal(["Dell", "Lang Meadow"], new SurveyFiguresRequest(whole, SurveySource.Lists, SurveyUnit.Place).WorkOut().Samples);
        var nothing = new SurveyFiguresRequest(Of([], []), SurveySource.Lists, SurveyUnit.Each).WorkOut();
        Assert.Null(nothing.Statistics);
        Assert.Contains(nothing.Notes, n => n.Contains("Nothing was recorded", StringComparison.Ordinal));
        Assert.Empty(new SurveyChangeRequest(whole).WorkOut());
    }

    [Fact]
    public void ATaxonSplitBetweenYearsIsSaid()
    {
        var aggregate = Named("Alvena alba agg.", TaxonFacts.None with { Members = ["alvena-nivea"] });
        var member = Named("Alvena nivea", TaxonFacts.None with { Synonyms = ["Alvena candida"] });
        var whole = Of(
            [],
            [],
            Visit(Meadow, "2025-05-01", "Alvena alba agg.", "Alvena candida"),
            Visit(Meadow, "2026-05-01", "Alvena nivea")
        );
        var figures = new SurveyFiguresRequest(whole, SurveySource.Lists, SurveyUnit.Year, SurveyUnit.Year).WorkOut(
            new TaxonIndex([aggregate, member])
        );
        Assert.Contains(figures.Notes, n => n.Contains("which is a part of it", StringComparison.Ordinal));
        Assert.Contains(figures.Notes, n => n.Contains("another name of Alvena nivea", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("2026-04-01", SurveyTaskState.Coming)]
    [InlineData("2026-06-01", SurveyTaskState.Due)]
    [InlineData("2026-09-01", SurveyTaskState.Late)]
    [InlineData("2028-06-01", SurveyTaskState.Late)]
    public void WhatIsDueHangsOnTheSeason(string day, SurveyTaskState expected)
    {
        var plot = At("A");
        var once = At("B", isPermanent: false);
        var visit = Visit(Meadow, "2025-06-14", "Alvena alba");
        var whole = Of([plot, once], [Recorded(plot, visit, ("Alvena alba", 3)), Recorded(once, visit, ("Alvena alba", 3))], visit);
        var standing = new SurveyStandingRequest(whole, day).Tell();
        Assert.Equal(expected, standing.Tasks.Single(t => t.What == "Plot A").State);
        Assert.Equal(SurveyTaskState.Done, standing.Tasks.Single(t => t.What == "Plot B").State);
        Assert.Equal(["Lang Meadow"], standing.Sought.Single(s => s.Taxon == "Alvena alba").Found);
        Assert.Equal(40, standing.Sought.Single(s => s.Taxon == "Brontia lenta").Sought);
    }

    [Fact]
    public void TheReportSaysWhatWasFoundAndWhatNotAndKeepsBackWhatIsSensitive()
    {
        var (first, later) = (Visit(Meadow, "2025-06-14", "Alvena alba", "Secreta rara", ""), Visit(Meadow, "2026-06-16"));
        Plot[] plots = [At("A"), At("B", "ditch")];
        var whole = Of(
            plots,
            [
                Recorded(plots[0], later, ("Alvena alba", 10)) with
                {
                    Departure = "in rain",
                },
                Recorded(plots[1], later, ("Brontia alta", 5), ("Secreta rara", 1)),
            ],
            first,
            later
        );
        var names = new[]
        {
            new ReportName("Alvena alba", "Lang Meadow", Day("2026-05-01"), Grade.Confirmed, "Key to Alvena", false),
            new ReportName("Alvena alba or Secreta rara", "Lang Meadow", Day("2026-05-01"), null, "", true),
        };
        SurveyReport Write(Func<string, bool>? isKeptBack) =>
            SurveyReportWriter.Write(
                whole,
                new ReportContext(
                    Day("2026-09-01"),
                    new TaxonIndex([]),
                    isKeptBack,
                    names,
                    [new("Lang Meadow", "east bank", "The ditch is cleared", "2026-10-01")],
                    ["Torvane, version 1"]
                )
            );
        static string All(SurveyReport report) =>
            string.Join(
                '\n',
                report.Sections.SelectMany(s =>
                    s.Sentences.Select(x => x.Text).Concat(s.Tables.SelectMany(t => t.Rows.Select(r => string.Join('|', r))))
                )
            );
        var (open, kept) = (Write(null), Write(n => n == "Secreta rara"));
        Assert.Contains("Secreta rara", All(open));
        Assert.DoesNotContain("Secreta", All(kept));
        Assert.True(kept.IsPublic);
        Assert.Contains("1 sensitive taxon isn’t named", All(kept));
        Assert.Equal(["Lang Meadow", "Dell", "A"], kept.Spots.Select(s => s.Label));
        Assert.Equal(["Lang Meadow", "Dell", "A", "B"], open.Spots.Select(s => s.Label));
        var text = All(kept);
        foreach (
            var part in new[]
            {
                "Do they differ?",
                "4 h of searching",
                "Squares of 2 m²: 2 laid at random (seed 40); 2 permanent",
                "A (2026): in rain",
                "Key to Alvena",
                "Alvena alba||Lang Meadow|2025, 2026|Fully supported|",
                "Brontia lenta|Lang Meadow||14 June 2025|20 min|2|",
                "unnamed 1|Lang Meadow|14 June 2025|has no name yet",
                "Cut after August.",
                "The ditch is cleared",
                "No licence is given",
                "Neither found nor sought yet: Caldea rara",
            }
        )
            Assert.Contains(part, text);
        // In a person's own words, which stay when the data are renewed.
        Assert.Equal("Cut after August.", kept.Sections.SelectMany(s => s.Sentences).Single(s => s.Key == "do").Own);
    }

    [Fact]
    public void AVisitSaysThatSomethingWasNotThereOnlyWhereItCould()
    {
        SiteVisit Open(Place place, string date, params string[] names)
        {
            var visit = Visit(place, date, names);
            return visit with { Closing = visit.Closing! with { Completeness = Completeness.Partial, Sought = [] } };
        }
        var whole = Of(
            [],
            [],
            Visit(Meadow, "2026-05-01", "Alvena alba"),
            Visit(Meadow, "2026-06-01"),
            Visit(Dell, "2026-05-02"),
            Visit(Dell, "2026-06-02"),
            // An open list says what was there, and nothing of what wasn't.
            Open(Dell, "2026-07-02", "Brontia alta"),
            Visit(Dell, "2025-05-02", "Alvena alba")
        );
        var it = new SurveyOccupancyRequest(whole, "Alvena alba").WorkOut();
        Assert.Equal((2026, 2, 4, 1, 1), (it.Year, it.Occupancy!.Places, it.Occupancy.Visits, it.Occupancy.FoundAt, it.Occupancy.Found));
        Assert.StartsWith("Found at 1 of 2 places, on 1 of 4 visits.", it.Says, StringComparison.Ordinal);
        Assert.Contains("nothing came or went", it.Says);
        Assert.Contains("gone and missed look alike", new SurveyOccupancyRequest(whole, "Nowhera rara").WorkOut().Says);
        Assert.Contains("from single visits", new SurveyOccupancyRequest(whole, "Alvena alba", 2025).WorkOut().Says);
        Assert.Contains("No visit", new SurveyOccupancyRequest(Of([], []), "Alvena alba").WorkOut().Says);
    }

    [Fact]
    public void AmountsAreReadBehindTheName()
    {
        Taxon[] taxa = [.. new[] { "Alvena montis", "Alvena palus", "Brontia lenta" }.Select(n => Named(n, TaxonFacts.None))];
        var flora = new ReadyFlora(new FloraPack("f", "F", taxa, FloraColumns.Of([], []), SmallFlora.Seasons));
        PlotNameAnswer Ask(string typed, PlotScale scale) => new PlotNameRequest(flora.Pack.Id, typed, scale, "herbs").Find(flora);
        Assert.Equal(new PlotFind("Alvena montis", "herbs", Percent: 12.5), Ask("al mo 12,5", PlotScale.Percent).Find);
        Assert.Equal(new PlotFind("Alvena montis", "herbs", Percent: 12), Ask("al mo 12%", PlotScale.Percent).Find);
        Assert.Null(Ask("al mo 120", PlotScale.Percent).Find);
        Assert.Equal(new PlotFind("Brontia lenta", "herbs", Class: "+"), Ask("br le +", PlotScale.SevenClasses).Find);
        Assert.Equal(new PlotFind("Brontia lenta", "herbs", FirstHits: 7, Hits: 9), Ask("br le 7/9", PlotScale.Hits).Find);
        Assert.Equal(new PlotFind("Brontia lenta", "herbs", Count: 7), Ask("br le 7", PlotScale.Count).Find);
        Assert.Equal(new PlotFind("Brontia lenta", "herbs"), Ask("br le", PlotScale.Presence).Find);
        var unsaid = Ask("br le", PlotScale.Percent);
        Assert.Equal(("Brontia lenta", (PlotFind?)null), (unsaid.Meant, unsaid.Find));
        Assert.Contains("cover in per cent", unsaid.Missing);
        Assert.Equal("", Ask("al 5", PlotScale.Percent).Meant);
        Assert.Equal(2, Ask("al 5", PlotScale.Percent).Found.Count);
    }
}
