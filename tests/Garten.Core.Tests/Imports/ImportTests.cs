using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Imports;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;
using Xunit;

namespace Garten.Core.Tests.Imports;

public sealed class ImportTests
{
    [Theory]
    [InlineData("2021-06-03", "2021-06-03")]
    [InlineData("2021-06-03T10:15:00Z", "2021-06-03")]
    [InlineData("2021-6-3", "2021-06-03")]
    [InlineData("2021-06", "2021-06-01/2021-06-30")]
    [InlineData("2021", "2021-01-01/2021-12-31")]
    [InlineData("2021-06-03/2021-06-05", "2021-06-03/2021-06-05")]
    [InlineData("3 June 2021", "2021-06-03")]
    [InlineData("3rd Jun. 2021", "2021-06-03")]
    [InlineData("3.vi.2021", "2021-06-03")]
    [InlineData("12-XII-1899", "1899-12-12")]
    [InlineData("June 3, 2021", "2021-06-03")]
    [InlineData("Sept. 1999", "1999-09-01/1999-09-30")]
    [InlineData("vi.1999", "1999-06-01/1999-06-30")]
    [InlineData("25/6/2021", "2021-06-25")]
    [InlineData("6/25/2021", "2021-06-25")]
    [InlineData("5.5.2021", "2021-05-05")]
    [InlineData("29.2.2020", "2020-02-29")]
    public void ADayIsReadAsNotebooksHaveIt(string text, string day)
    {
        var (reading, it) = NotebookDay.Read(text, DayOrder.Unsaid);
        Assert.Equal(DayReading.Read, reading);
        Assert.Equal(day, it!.IsOneDay ? Iso(it.From) : $"{Iso(it.From)}/{Iso(it.To)}");
    }

    [Theory]
    [InlineData("3/6/2021", DayReading.TwoWays)]
    [InlineData("3.6.21", DayReading.NoCentury)]
    [InlineData("3 June 21", DayReading.NoCentury)]
    [InlineData("June 21", DayReading.NoCentury)]
    [InlineData("29.2.2021", DayReading.NotRead)]
    [InlineData("13.13.2021", DayReading.NotRead)]
    [InlineData("summer 2021", DayReading.NotRead)]
    [InlineData("c. 1995", DayReading.NotRead)]
    [InlineData("2021-06-05/2021-06-03", DayReading.NotRead)]
    [InlineData("1066", DayReading.NotRead)]
    [InlineData("44350", DayReading.NotRead)]
    [InlineData("0.6.2021", DayReading.NotRead)]
    [InlineData("", DayReading.NotRead)]
    public void WhatCanBeReadInTwoWaysOrNotAtAllIsSaidSo(string text, DayReading reading) =>
        Assert.Equal((reading, null), NotebookDay.Read(text, DayOrder.Unsaid));

    [Theory]
    [InlineData(DayOrder.DayFirst, "2021-06-03")]
    [InlineData(DayOrder.MonthFirst, "2021-03-06")]
    public void WhoSaysWhichComesFirstIsFollowed(DayOrder order, string day) =>
        Assert.Equal(day, Iso(NotebookDay.Read("3/6/2021", order).Day!.From));

    [Theory]
    [InlineData("1998", "6", "14", "1998-06-14")]
    [InlineData("1998", "vi", "14", "1998-06-14")]
    [InlineData("1998", "June", "", "1998-06-01")]
    [InlineData("1998", "", "", "1998-01-01")]
    [InlineData("1998", "", "14", null)]
    [InlineData("98", "6", "14", null)]
    public void PartsOfADateMayStandApart(string year, string month, string day, string? from) =>
        Assert.Equal(from, NotebookDay.OfParts(year, month, day).Day is { } it ? Iso(it.From) : null);

    [Theory]
    [InlineData("57.41", "-11.31", 57.41, -11.31)]
    [InlineData("57,41", "-11,31", 57.41, -11.31)]
    [InlineData("57.41 N", "11.31W", 57.41, -11.31)]
    [InlineData("57°24′36″N", "11° 18' 36\" W", 57.41, -11.31)]
    [InlineData("S 57° 24.6'", "E11.31°", -57.41, 11.31)]
    public void APositionIsReadInDegrees(string latitude, string longitude, double y, double x)
    {
        var it = TypedPosition.Read(latitude, longitude);
        Assert.Equal("", it.Wrong);
        Assert.Equal((y, x), (Math.Round(it.Point!.Latitude, 9), Math.Round(it.Point.Longitude, 9)));
    }

    [Theory]
    [InlineData("57.41, -11.31")]
    [InlineData("57.41 -11.31")]
    [InlineData("57,41; -11,31")]
    [InlineData("57°24′36″N 11°18′36″W")]
    public void BothMayStandInOneCell(string both) =>
        Assert.Equal(new GroundPoint(57.41, -11.31), TypedPosition.Read(both).Point is { } p ? Rounded(p) : null);

    private static GroundPoint Rounded(GroundPoint p) => new(Math.Round(p.Latitude, 9), Math.Round(p.Longitude, 9));

    [Theory]
    [InlineData("57.41", "", "both")]
    [InlineData("432100", "5712300", "aren’t degrees")]
    [InlineData("-111.31", "57.41", "swapped")]
    [InlineData("11.31 W", "57.41 N", "swapped")]
    [InlineData("0", "0", "open sea")]
    [InlineData("57°61'N", "11°W", "no position")]
    [InlineData("here", "there", "no position")]
    public void APositionThatIsNoneIsDoubted(string latitude, string longitude, string says)
    {
        var it = TypedPosition.Read(latitude, longitude);
        Assert.Null(it.Point);
        Assert.Contains(says, it.Wrong, StringComparison.Ordinal);
    }

    private static Taxon Named(string name, string common = "", params string[] synonyms) =>
        new(name, name, "", "species", "", "", common, [], "", TaxonFacts.None with { Synonyms = synonyms });

    private static readonly NameMatcher Matcher = new([
        Named("Vellorna alba", "silver thornwood", "Vellorna candida"),
        Named("Vellorna nigra", "black thornwood", "Vellorna atra Thr."),
        Named("Vellorna rubra", "thornwood", "Brontia lenta"),
        Named("Brontia lenta", "thornwood"),
        Named("Festorra agg."),
        Named("Alvena montis"),
    ]);

    [Theory]
    [InlineData("Vellorna alba", NameFit.Accepted, "Vellorna alba")]
    [InlineData("VELLORNA ALBA Thr. ex Holm", NameFit.Accepted, "Vellorna alba")]
    [InlineData("  vellorna  alba ", NameFit.Accepted, "Vellorna alba")]
    [InlineData("Vellorna candida", NameFit.Synonym, "Vellorna alba")]
    [InlineData("Vellorna atra", NameFit.Synonym, "Vellorna nigra")]
    [InlineData("Silver thornwood", NameFit.Common, "Vellorna alba")]
    [InlineData("Thornwood", NameFit.Several, "", "Vellorna rubra", "Brontia lenta")]
    [InlineData("Brontia lenta", NameFit.Several, "", "Brontia lenta", "Vellorna rubra")]
    [InlineData("V. alba", NameFit.Unknown, "V. alba", "Vellorna alba")]
    [InlineData("Velorna alba", NameFit.Unknown, "Velorna alba", "Vellorna alba")]
    [InlineData("Vellorna alba subsp. minor", NameFit.Unknown, "Vellorna alba subsp. minor", "Vellorna alba")]
    [InlineData("Alvena montis agg.", NameFit.Unknown, "Alvena montis agg.")]
    [InlineData("Vellorna cf. alba", NameFit.Doubtful, "", "Vellorna alba")]
    [InlineData("Vellorna alba?", NameFit.Doubtful, "", "Vellorna alba")]
    [InlineData("big yellow thing", NameFit.Unknown, "")]
    public void ANameIsFoundOrAsked(string given, NameFit fit, string meant, params string[] candidates)
    {
        var match = Matcher.Match(given);
        Assert.Equal((fit, meant), (match.Fit, match.Meant));
        if (candidates.Length > 0)
            Assert.Equal(candidates, match.Candidates);
    }

    [Fact]
    public void NoHeadingIsOfTwoFieldsAndAllOfOurOwnAreKnown()
    {
        Assert.Equal(
            [ImportField.Taxon, ImportField.Date, ImportField.None, ImportField.Latitude],
            ImportHeadings.Match(["dwc:scientificName", "Event_Date", "species", "LAT"])
        );
        Assert.Equal(ImportField.None, ImportHeadings.Of("colour of the sky"));
        Assert.False(ImportHeadings.IsHeading(["Vellorna alba"]));
    }

    private static ImportPlanner Planner(string headings, ImportDecisions? decisions = null, params KnownPlace[] places)
    {
        var names = headings.Split(',');
        return new ImportPlanner(
            new RecordReader(ImportHeadings.Match(names), names, new ImportDefaults(DayOrder.DayFirst, "", new DateOnly(2026, 6, 1))),
            Matcher,
            places,
            decisions ?? ImportDecisions.None with { Recorder = "Sunna Vik" },
            "a file"
        );
    }

    private static readonly KnownPlace Moss = new(Guid.CreateVersion7(), "Gull Moss", "Torvane", new GroundPoint(57.4, -11.3), 200);

    [Theory]
    [InlineData("count", "12", "12 individuals")]
    [InlineData("abundance", "LF", "locally frequent")]
    [InlineData("abundance", "Dominant", "dominant")]
    [InlineData("abundance", "3", "abundance: 3")]
    [InlineData("phase", "flowering", "in flower")]
    [InlineData("phase", "fruiting", "phase: fruiting")]
    [InlineData("sex", "Female", "female")]
    [InlineData("growth,establishment", "planted", "planted")]
    [InlineData("notes", "by the stile", "by the stile")]
    [InlineData("det", "B. Holm", "det. B. Holm")]
    public void WhatIsNotedKeepsItsMeaningOrItsWords(string heading, string cell, string said)
    {
        var planner = Planner($"taxon,date,place,{heading.Split(',')[^1]}", null, Moss);
        var problems = new List<ImportProblem>();
        var line = planner.Add(2, ["Vellorna alba", "3/6/2021", "Gull Moss", cell], problems);
        Assert.Empty(problems);
        Assert.Equal(said, line!.Record.Details.InWords());
        Assert.Equal(Moss.Id, line.Visit.Place.Id);
    }

    [Theory]
    [InlineData("", "3/6/2021", "Gull Moss", "name.missing")]
    [InlineData("Vellorna alba", "", "Gull Moss", "date.missing")]
    [InlineData("Vellorna alba", "3/6/2031", "Gull Moss", "date.future")]
    [InlineData("Vellorna alba", "3/6/2021", "", "place.missing")]
    public void ALineThatLacksWhatItNeedsIsLeftOut(string taxon, string date, string place, string code)
    {
        var planner = Planner("taxon,date,place", null, Moss);
        var problems = new List<ImportProblem>();
        Assert.Null(planner.Add(2, [taxon, date, place], problems));
        Assert.Equal((code, LineFate.LeftOut), (problems.Single().Code, problems.Single().Fate));
        Assert.Equal(1, planner.Tally.LeftOut);
    }

    [Fact]
    public void APositionFarFromItsPlaceIsntKept()
    {
        var planner = Planner("taxon,date,place,lat,lon", null, Moss);
        var problems = new List<ImportProblem>();
        Assert.Null(planner.Add(2, ["Vellorna alba", "2021", "Gull Moss", "57.8", "-11.3"], problems)!.Point);
        Assert.Contains("44.3 km outside Gull Moss", problems.Single().Message, StringComparison.Ordinal);
        problems.Clear();
        Assert.NotNull(planner.Add(3, ["Vellorna nigra", "2021", "Gull Moss", "57.401", "-11.3"], problems)!.Point);
        Assert.Empty(problems);
    }

    [Fact]
    public void WhatWasntFoundCountsOnlyWithItsEffort()
    {
        var planner = Planner("taxon,date,place,occurrenceStatus,dynamicProperties", null, Moss);
        var problems = new List<ImportProblem>();
        planner.Add(2, ["Vellorna alba", "2021-06-03", "Gull Moss", "absent", ""], problems);
        Assert.Equal("absence.effort", problems.Single().Code);
        planner.Add(3, ["Vellorna alba", "2021-06-03", "Gull Moss", "absent", """{"minutes":20,"observers":2}"""], problems);
        Assert.Equal([new SoughtInVain("Vellorna alba", "", 20, 2)], planner.Visits.Single().Sought);
    }

    [Fact]
    public void ATableInAnyOrderOfItsLinesGivesTheSameIds()
    {
        string[][] lines =
        [
            ["Vellorna alba", "3/6/2021", "Gull Moss", "r1"],
            ["Vellorna nigra", "3/6/2021", "Gull Moss", "0197a1c0-5b00-7a11-9c3e-2f6f6b1d0024"],
            ["Alvena montis", "2020", "Gull Moss", "urn:uuid:0197a1c0-5b00-7a11-9c3e-2f6f6b1d0025"],
        ];
        HashSet<(Guid, Guid)> Ids(IEnumerable<string[]> order)
        {
            var planner = Planner("taxon,date,place,occurrenceID", null, Moss);
            return [.. order.Select((cells, at) => planner.Add(at + 2, cells, [])!).Select(l => (l.Id, l.Visit.Id))];
        }
        Assert.Equal(Ids(lines), Ids(lines.Reverse()));
        Assert.Contains(Guid.Parse("0197a1c0-5b00-7a11-9c3e-2f6f6b1d0025"), Ids(lines).Select(i => i.Item1));
        Assert.Equal(MadeId.Of("import\nr1"), ImportPlanner.IdOf("r1"));
    }

    [Fact]
    public void WhatIsDecidedOfANameHolds()
    {
        var planner = Planner(
            "taxon,date,place",
            ImportDecisions.None with
            {
                Recorder = "Sunna Vik",
                Names = new Dictionary<string, string>
                {
                    ["Thornwood"] = "Brontia lenta",
                    ["Vellorna candida"] = ImportDecisions.AsWritten,
                    ["Alvena montis"] = "",
                },
            },
            Moss
        );
        string? Taken(string name) => planner.Add(2, [name, "2021", "Gull Moss"], [])?.Taxon;
        Assert.Equal("Brontia lenta", Taken("Thornwood"));
        Assert.Null(Taken("Alvena montis"));
        Assert.Equal(1, planner.Tally.ChosenOut);
    }

    private static string Iso(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
