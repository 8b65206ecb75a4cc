using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;
using Xunit;
using static Garten.Core.Tests.Contracts.SurveyTests;

namespace Garten.Core.Tests.Contracts;

/// <summary>What a survey's taxa say of the ground, how recordings lie to each other, its calendar and its plan.</summary>
public sealed class SurveyGroundTests
{
    private static Taxon Rated(string name, Origin origin, SiteIndication? indication, params string[] habitats) =>
        Named(name, TaxonFacts.None with { Origin = origin, Indication = indication, Habitats = habitats });

    private static readonly TaxonIndex Flora = new([
        Rated("Alvena alba", Origin.Native, new SiteIndication(Light: 7, Moisture: 12, Conservatism: 4), "hay meadow"),
        Rated("Brontia alta", Origin.Native, new SiteIndication(Light: 8, Moisture: 5, Conservatism: 9), "hay meadow", "hedges"),
        Rated("Caldea rara", Origin.Introduced, new SiteIndication(Light: 3)),
        Rated("Dornia vaga", Origin.Unsaid, null),
    ]);

    [Fact]
    public void TheTaxaOfAPlotSayWhatItsGroundIs()
    {
        var visit = Visit(Meadow, "2026-06-16");
        Plot[] plots = [At("A"), At("B")];
        var whole = Of(
            plots,
            [
                Recorded(plots[0], visit, ("Alvena alba", 30), ("Brontia alta", 10), ("Caldea rara", 20), ("Dornia vaga", 50)),
                Recorded(plots[1], visit, ("Dornia vaga", 50)),
            ],
            visit
        );
        var figures = new SurveyFiguresRequest(whole, SurveySource.Plots, SurveyUnit.Each).WorkOut(Flora);
        var (a, b) = (figures.Ecology[0], figures.Ecology[1]);
        Assert.Equal((2, 2, 1), (a.Quality.Native, a.Quality.Rated, a.Quality.Introduced));
        Assert.Equal(6.5, a.Quality.Mean!.Value, 12);
        Assert.Equal(6.5 * Math.Sqrt(2), a.Quality.Index!.Value, 12);
        Assert.Equal(13.0 / 3, a.Quality.MeanOfAll!.Value, 12);
        Assert.Equal(65 * Math.Sqrt(2.0 / 3), a.Quality.Adjusted!.Value, 12);
        Assert.Equal((4 * 30 + 9 * 10) / 40.0, a.Quality.Weighted!.Value, 12);
        var light = a.Factors.Single(f => f.Factor == SiteFactor.Light);
        Assert.Equal((3, 4, 7.0, 6.0), (light.Rated, light.Of, light.Median!.Value, light.Mean!.Value));
        Assert.Equal((7 * 30 + 8 * 10 + 3 * 20) / 60.0, light.Weighted!.Value, 12);
        // Two taxa with a value are too few.
        Assert.Null(a.Factors.Single(f => f.Factor == SiteFactor.Moisture).Mean);
        Assert.Null(b.Quality.Mean);
        Assert.Empty(new SurveyFiguresRequest(whole, SurveySource.Plots, SurveyUnit.Each).WorkOut(new TaxonIndex([])).Ecology);
    }

    [Fact]
    public void TaxaAreDividedByOriginGrowthHabitatAndPart()
    {
        var planted = Visit(Meadow, "2026-05-01", "Alvena alba", "Brontia alta", "Caldea rara", "Elmora nova");
        planted = planted with
        {
            Lines =
            [
                planted.Lines[0] with
                {
                    Compartment = "ditch",
                    Details = new LineDetails(Growth: WildOrPlanted.Planted),
                },
                .. planted.Lines.Skip(1),
            ],
        };
        var whole = Of([], [], planted, Visit(Dell, "2026-05-02", "Alvena alba"));
        var shares = new SurveyFiguresRequest(whole, SurveySource.Lists, SurveyUnit.Each)
            .WorkOut(Flora)
            .Shares.ToDictionary(s => s.By, s => s.Shares);
        Assert.Equal(
            [("native", 2, 3), ("introduced", 1, 1), ("not in the flora", 1, 1)],
            shares[ShareBy.Origin].Select(s => (s.Name, s.Taxa, s.Finds))
        );
        Assert.Equal([("hay meadow", 0.5), ("hedges", 0.25), ("not said", 0.5)], shares[ShareBy.Habitat].Select(s => (s.Name, s.OfTaxa)));
        Assert.Equal([("planted", 0.2), ("not said", 0.8)], shares[ShareBy.Growth].Select(s => (s.Name, s.OfFinds)));
        Assert.Equal("ditch", shares[ShareBy.Part][0].Name);
    }

    [Fact]
    public void ClassesAreComparedByTheirRanksAndTheirMiddleOneIsTold()
    {
        var visit = Visit(Meadow, "2026-06-16");
        Plot[] plots = [At("A"), At("B"), At("C", "ditch")];
        var whole = Of(
            plots,
            [
                Recorded(plots[0], visit) with
                {
                    Finds = [new("Alvena alba", Class: "r"), new("Brontia alta", Class: "5")],
                },
                Recorded(plots[1], visit) with
                {
                    Finds = [new("Alvena alba", Class: "2"), new("Brontia alta", Class: "5")],
                },
                Recorded(plots[2], visit) with
                {
                    Finds = [new("Alvena alba", Class: "5")],
                },
            ],
            visit
        );
        whole = whole with { Survey = whole.Survey with { Protocols = [new(1, Squares with { Scale = PlotScale.SevenClasses })] } };
        var figures = new SurveyFiguresRequest(whole, SurveySource.Plots, SurveyUnit.Each, SurveyUnit.Group, AsRanks: true).WorkOut();
        Assert.True(figures.HasRanks);
        // Of the ranks 1 and 4 the lower one.
        Assert.Equal(["r", "5"], figures.Frequencies.Single(f => f.Taxon == "Alvena alba").Groups.Select(g => g.Median));
        // Mean rank 2.5 beside 7.
        Assert.Equal(7 / 9.5, figures.Indicators.Single(i => i.Taxon == "Alvena alba").Specificity, 12);
        var arranged = new SurveyArrangementRequest(whole, SurveySource.Plots, AsRanks: true).WorkOut();
        Assert.Equal(["hay", "hay", "ditch"], arranged.Groups);
        Assert.Equal(3, arranged.Arrangement!.Ordination.Points.Count);
        Assert.Null(new SurveyArrangementRequest(Of([], [], visit), SurveySource.Lists).WorkOut().Arrangement);
    }

    [Fact]
    public void ClustersOfAlikeRecordingsCanBeComparedUnder()
    {
        var whole = Of(
            [],
            [],
            Visit(Meadow, "2026-05-01", "Alvena alba", "Brontia alta"),
            Visit(Meadow, "2026-05-02", "Caldea rara", "Dornia vaga"),
            Visit(Dell, "2026-05-03", "Alvena alba", "Brontia alta"),
            Visit(Dell, "2026-05-04")
        );
        var figures = new SurveyFiguresRequest(whole, SurveySource.Lists, SurveyUnit.Each, SurveyUnit.Cluster, Clusters: 2).WorkOut();
        Assert.Equal(
            [("Cluster 1", 2, 2), ("Cluster 2", 0, 1), ("(empty)", 0, 1)],
            figures.Frequencies.Single(f => f.Taxon == "Alvena alba").Groups.Select(g => (g.Group, g.Found, g.Of))
        );
        Assert.Contains(figures.Notes, n => n.Contains("p proves nothing", StringComparison.Ordinal));
        Assert.Throws<RequestException>(() => new SurveyFiguresRequest(whole, SurveySource.Lists, SurveyUnit.Cluster).WorkOut());
    }

    [Fact]
    public void FrequenciesInNestedSquaresBelongToASize()
    {
        var nested = Squares with { Kind = PlotKind.NestedQuadrat, NestSizes = [0.25, 1, 2], Scale = PlotScale.Presence };
        Assert.Null(nested.Problem());
        Assert.Equal("nestSizes", (nested with { NestSizes = [1, 0.25, 2] }).Problem()!.Value.Field);
        Assert.Equal("nestSizes", (nested with { NestSizes = [0.25, 1] }).Problem()!.Value.Field);
        Assert.Equal("nestSizes", (nested with { Kind = PlotKind.Quadrat }).Problem()!.Value.Field);
        var visit = Visit(Meadow, "2026-06-16");
        Plot[] plots = [At("A"), At("B")];
        var whole = Of(
            plots,
            [
                Recorded(plots[0], visit) with
                {
                    Finds = [new("Alvena alba", Nest: 1), new("Brontia alta")],
                },
                Recorded(plots[1], visit) with
                {
                    Finds = [new("Alvena alba", Nest: 2)],
                },
            ],
            visit
        );
        whole = whole with { Survey = whole.Survey with { Protocols = [new(1, nested)] } };
        var sizes = new SurveyFiguresRequest(whole, SurveySource.Plots, SurveyUnit.Each).WorkOut().Nested;
        Assert.Equal([(0.25, 0.5), (1.0, 1.0), (2.0, 1.5)], sizes.Select(s => (s.SquareMetres, s.Richness)));
        Assert.Equal([1, 2, 2], sizes.Select(s => s.Taxa[0].Found));
        Assert.NotNull((whole.Records[0] with { Finds = [new("Alvena alba", Nest: 4)] }).Problem(nested));
    }

    [Theory]
    [InlineData(8, 2, 0.109375)]
    [InlineData(1, 11, 0.00634765625)]
    [InlineData(5, 5, 1)]
    [InlineData(0, 1, 1)]
    public void TheSignTestIsExact(int rose, int fell, double p) => Assert.Equal(p, PairedChange.SignTest(rose, fell)!.Value, 12);

    [Fact]
    public void TheSignTestHoldsOfThousandsAndSaysNothingOfNothing()
    {
        Assert.Null(PairedChange.SignTest(0, 0));
        Assert.InRange(PairedChange.SignTest(5_000, 5_100)!.Value, 0.3, 0.35);
        Assert.InRange(PairedChange.SignTest(0, 5_000)!.Value, 0, 1e-300);
    }

    private static SurveyWhole WithRounds(SurveyWhole whole, params SurveyRound[] rounds) =>
        whole with
        {
            Survey = whole.Survey with { Terms = new SurveyTerms(rounds) },
        };

    [Fact]
    public void TheRoundsOfAYearAreDoneDueLateAndToCome()
    {
        var whole = WithRounds(
            Of([], [], Visit(Meadow, "2026-04-20", "Alvena alba")),
            new("spring", "04-15", "05-31"),
            new("summer", "06-15", "07-31"),
            new("winter", "12-01", "02-15")
        );
        var tasks = new SurveyStandingRequest(whole, "2026-06-20").Tell().Tasks;
        Assert.Equal(
            [
                ("Dell, summer", SurveyTaskState.Due, "07-31"),
                ("Lang Meadow, summer", SurveyTaskState.Due, "07-31"),
                ("Dell, spring", SurveyTaskState.Late, "05-31"),
                ("Dell, winter", SurveyTaskState.Coming, "12-01"),
                ("Lang Meadow, winter", SurveyTaskState.Coming, "12-01"),
                ("Lang Meadow, spring", SurveyTaskState.Done, "2026-04-20"),
            ],
            tasks.Select(t => (t.What, t.State, t.When))
        );
        // A winter that began last year goes on.
        Assert.Contains(new SurveyStandingRequest(whole, "2027-01-10").Tell().Tasks, t =>
            t is { What: "Dell, winter", State: SurveyTaskState.Due, When: "02-15" }
        );
    }

    [Fact]
    public void WhatASurveyWantsAndWhatIsOpenOfPlantsStandsInOnePlan()
    {
        var whole = WithRounds(Of([], []), new SurveyRound("summer", "06-15", "07-31"), new SurveyRound("spring", "04-15", "05-31"));
        whole = whole with { Survey = whole.Survey with { Places = [Meadow], To = Day("2026-08-31") } };
        var plan = new SurveyPlanRequest(whole, "2026-06-20", [], []).Plan();
        var only = Assert.Single(plan.Days);
        Assert.Equal(("Lang Meadow", "Lang Meadow, summer"), (only.PlaceName, Assert.Single(only.Errands).What));
        Assert.InRange(only.Date, Day("2026-06-20"), Day("2026-07-31"));
        // The next spring is beyond the survey.
        Assert.Equal("Lang Meadow, spring", Assert.Single(plan.Missed).What);
        Assert.Empty(new SurveyPlanRequest(whole, "2026-09-01", [], []).Plan().Days);
    }

    [Fact]
    public void ASeasonIsOfDaysAndMayRunOverTheNewYear()
    {
        var winter = new MonthDays("12-01", "02-15");
        Assert.True(winter.Holds(Day("2026-01-10")));
        Assert.False(winter.Holds(Day("2026-03-10")));
        Assert.Equal((Day("2025-12-01"), Day("2026-02-15")), winter.Around(Day("2026-01-10")));
        Assert.Equal((Day("2025-12-01"), Day("2026-02-15")), winter.Around(Day("2026-11-30")));
        Assert.Equal((335, 46), (winter.Window().From, winter.Window().To));
        Assert.False(new MonthDays("02-30", "03-01").IsSound);
        Assert.False(new MonthDays("", "03-01").IsSound);
        Assert.Equal(Day("2027-02-28"), new MonthDays("02-29", "02-29").Around(Day("2027-06-01")).First);
    }

    [Fact]
    public void WhatIsAgreedIsChecked()
    {
        Assert.Null(SurveyTerms.None.Problem());
        Assert.Equal("rounds", new SurveyTerms([new("a", "05-01", "05-31"), new("A", "06-01", "06-30")]).Problem()!.Value.Field);
        Assert.Equal("rounds", new SurveyTerms([new("a", "05-01", "")]).Problem()!.Value.Field);
        Assert.Equal("rules", new SurveyTerms([], "none such").Problem()!.Value.Field);
    }

    [Fact]
    public void AReportCallsUnsureWhatASurveyAsksMoreOf()
    {
        var whole = Of([], [], Visit(Meadow, "2026-05-01", "Alvena alba"));
        whole = whole with
        {
            Survey = whole.Survey with
            {
                Terms = new SurveyTerms([], "confirmed-list", Grade.Corroborated, "CC BY 4.0"),
                Team = [new(Guid.CreateVersion7(), "Ilse Marrin")],
            },
        };
        ReportName Named(string name, Grade? grade, string rules) => new(name, "Lang Meadow", Day("2026-05-01"), grade, "", false, rules);
        var report = SurveyReportWriter.Write(
            whole,
            new ReportContext(
                Day("2026-06-01"),
                Flora,
                null,
                [
                    Named("Alvena alba", Grade.Confirmed, "confirmed-list"),
                    Named("Brontia alta", Grade.Reasoned, "confirmed-list"),
                    Named("Caldea rara", Grade.Confirmed, "quick-list"),
                    Named("Dornia vaga", null, ""),
                ],
                [],
                []
            )
        );
        var unsure = report.Sections.Single(s => s.Title.StartsWith("What is unsure", StringComparison.Ordinal)).Tables[0].Rows;
        Assert.Equal(["Brontia alta", "Caldea rara", "Dornia vaga"], unsure.Select(r => r[0]));
        Assert.Contains("graded by “Quick list”", unsure[1][3], StringComparison.Ordinal);
        var all = string.Join(' ', report.Sections.SelectMany(s => s.Sentences).Select(s => s.Text));
        Assert.Contains("CC BY 4.0", all, StringComparison.Ordinal);
        Assert.Contains("Ilse Marrin", all, StringComparison.Ordinal);
    }

    [Fact]
    public void GroupsAreComparedAtEqualCoverage()
    {
        // Four samples; taxa in 1, 1, 2 and 4 of them: eight finds.
        var community = new Community(
            ["a", "b", "c", "d", "e", "f"],
            ["u", "v", "w", "x"],
            [
                [1, 0, 1, 1],
                [0, 1, 1, 1],
                [0, 0, 0, 1],
                [0, 0, 0, 1],
                [0, 0, 1, 1],
                [0, 0, 1, 1],
            ]
        );
        var compared = CoverageComparison.Of(community, ["one", "one", "one", "one", "other", "other"])!;
        var one = compared.Curves[0];
        // In one of four samples taxa are found with 1/4, 1/4, 1/2 and 1; not in one of the three others 1, 1, 2/3 and 0 of the time.
        Assert.Equal(2, one.Points[0].Richness, 12);
        Assert.Equal(1 - (1.0 / 8 + 1.0 / 8 + 2.0 / 8 * 2 / 3), one.Points[0].Coverage, 12);
        // q1 = 2, q2 = 1, U = 8: 1 − 2/8 · 6 / (6 + 2).
        Assert.Equal((4, 4, 1 - 0.25 * 0.75), (one.Samples, one.Richness, one.Coverage));
        Assert.Equal(8, one.Points[^1].Samples);
        // The other has nothing that stands in one sample alone: all of it is covered.
        Assert.Equal((2, 1.0), (compared.Curves[1].Richness, compared.Curves[1].Coverage));
        Assert.Equal(one.Coverage, compared.Common);
        Assert.Equal(4, one.AtCommon, 12);
        Assert.InRange(compared.Curves[1].AtCommon, 1.5, 2);
        Assert.Null(CoverageComparison.Of(community, ["a", "b", "c", "d", "e", "f"]));
    }

    [Fact]
    public void IndividualsAreTakenToTheSquareMetre()
    {
        var visit = Visit(Meadow, "2026-06-16");
        Plot[] plots = [At("A"), At("B")];
        var whole = Of(
            plots,
            [
                Recorded(plots[0], visit) with
                {
                    Finds = [new("Alvena alba", Count: 6)],
                },
                Recorded(plots[1], visit) with
                {
                    Finds = [new("Alvena alba", Count: 2)],
                },
            ],
            visit
        );
        whole = whole with { Survey = whole.Survey with { Protocols = [new(1, Squares with { Scale = PlotScale.Count })] } };
        var figures = new SurveyFiguresRequest(whole, SurveySource.Plots, SurveyUnit.Each, SurveyUnit.Group).WorkOut();
        Assert.Equal((4.0, 2.0), (figures.Frequencies[0].Groups[0].Mean, figures.Frequencies[0].Groups[0].Density));
    }

    [Fact]
    public void TwoSurveysAreComparedWhereTheirPlotsAreOfOneSize()
    {
        var visit = Visit(Meadow, "2026-06-16");
        SurveyWhole Plots(double? size, int with)
        {
            Plot[] plots = [.. Enumerable.Range(0, 10).Select(i => At($"P{i}", size: size))];
            return Of(
                plots,
                [.. plots.Select((p, i) => i < with ? Recorded(p, visit, ("Alvena alba", 5)) : Recorded(p, visit, ("Brontia alta", 5)))],
                visit
            );
        }
        var compared = new SurveyComparisonRequest(Plots(null, 1), Plots(null, 10), SurveySource.Plots).WorkOut();
        Assert.Equal((10, 10, 0.0), (compared.First, compared.Second, compared.Richness!.Value));
        var alba = compared.Taxa.Single(t => t.Taxon == "Alvena alba");
        Assert.Equal((1, 10, 0.9, true), (alba.First, alba.Second, alba.Difference.Value, alba.Difference.IsClear));
        Assert.Contains(compared.Notes, n => n.Contains("share places", StringComparison.Ordinal));
        var unlike = new SurveyComparisonRequest(Plots(4, 1), Plots(null, 10), SurveySource.Plots).WorkOut();
        Assert.Null(unlike.Richness);
        Assert.Contains(unlike.Notes, n => n.Contains("2 and 4 m²", StringComparison.Ordinal));
        Assert.Empty(new SurveyComparisonRequest(Of([], []), Plots(null, 3), SurveySource.Plots).WorkOut().Taxa);
    }
}
