using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Tests.Identification;
using Garten.Core.Visits;
using Xunit;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Visits;

public sealed class SeasonListTests
{
    private static readonly Character Petals = States("flower-colour", Organ.Flower, "green", "yellow") with
    {
        SeenIn = [Phenophase.Flower],
    };
    private static readonly Character Fruit = States("fruit-colour", Organ.Fruit, "red", "black") with { SeenIn = [Phenophase.RipeFruit] };
    private static readonly Character Margin = States("leaf-margin", Organ.Leaf, "entire", "toothed") with
    {
        SeenIn = [Phenophase.FullLeaf],
    };
    private static readonly Character Form = States("growth-form", Organ.Habit, "herb", "tree");

    // Half-months: May to June 1 is 9 to 11, August 15 and 16, leaves May to September.
    private static TaxonFacts Facts(params string[] lookAlikes) =>
        TaxonFacts.None with
        {
            Phenology =
            [
                new PhaseSpan(Phenophase.Flower, 9, 11),
                new PhaseSpan(Phenophase.RipeFruit, 15, 16),
                new PhaseSpan(Phenophase.FullLeaf, 9, 18),
            ],
            LookAlikes = lookAlikes,
            Cells = ["B2"],
        };

    private static readonly TaxonDescription[] Described =
    [
        Describe("alvena-rubra", Is(Form, "herb"), Is(Petals, "yellow"), Is(Fruit, "red"), Is(Margin, "entire")),
        Describe("alvena-nigra", Is(Form, "herb"), Is(Petals, "yellow"), Is(Fruit, "black"), Is(Margin, "entire")),
        Describe("dentella-viridis", Is(Form, "herb"), Is(Petals, "green"), Is(Fruit, "black"), Is(Margin, "toothed")),
        Describe("gemella-par", Is(Form, "herb"), Is(Petals, "green"), Is(Fruit, "red"), Is(Margin, "toothed")),
        Describe("gemella-impar", Is(Form, "herb"), Is(Petals, "green"), Is(Fruit, "red"), Is(Margin, "toothed")),
    ];

    private static readonly Taxon[] Taxa =
    [
        Taxon("alvena-rubra", Facts("alvena-nigra")),
        Taxon("alvena-nigra", Facts()),
        Taxon("dentella-viridis", Facts()),
        Taxon("gemella-par", Facts()),
        Taxon("gemella-impar", Facts()),
    ];

    private static SeasonRow Row(string taxon, DateOnly day, SeasonSite? from = null, SeasonSite? to = null, double lead = 0) =>
        Assert.Single(SeasonList.Of(Sieve([Form, Petals, Fruit, Margin], Described, Taxa), [taxon], day, from, to, lead));

    private static readonly DateOnly June = new(2026, 6, 3);

    [Fact]
    public void ATaxonCanBeNamedWhenWhatTellsItFromItsLookAlikesIsThere()
    {
        var row = Row("alvena-rubra", June);
        // Only the fruit tells it from its look-alike: half-months 15 and 16 are 1 to 31 August, looked at every fifth day.
        var window = Assert.Single(row.Nameable);
        Assert.InRange(window.From, 213, 217);
        Assert.InRange(window.To, 240, 245);
        Assert.False(row.NameableNow);
        Assert.True(Row("alvena-rubra", new DateOnly(2026, 8, 20)).NameableNow);
    }

    [Fact]
    public void WhatCatchesTheEyeIsKeptApartFromWhatNames()
    {
        var row = Row("alvena-rubra", June);
        Assert.True(row.ConspicuousNow);
        Assert.Equal("yellow flowers; red fruit", row.ConspicuousBy);
        Assert.Equal([new DayWindow(121, 166), new DayWindow(213, 243)], row.Conspicuous);
        Assert.Equal("black fruit", Row("dentella-viridis", June).ConspicuousBy);
    }

    [Fact]
    public void WhatHasNoLookAlikeCanBeNamedWhileAnythingOfItIsThere()
    {
        var row = Row("dentella-viridis", June);
        Assert.True(row.NameableNow);
        Assert.Equal([Organ.Leaf, Organ.Flower], row.OrgansNow.Order());
        Assert.False(Row("dentella-viridis", new DateOnly(2026, 1, 10)).NameableNow);
    }

    [Fact]
    public void TwinsAreNeverToldApart()
    {
        var row = Row("gemella-par", June);
        Assert.Equal(["gemella-impar"], row.NotNameableFrom);
        Assert.Empty(row.Nameable);
    }

    [Fact]
    public void HighUpEverythingIsLaterAndMayPassTheYearsEnd()
    {
        SeasonSite low = new(57, -11, 0),
            high = new(57, -11, 610),
            alpine = new(57, -11, 4880);
        // 610 m are 20 days; of ripe fruit half of them.
        var row = Row("alvena-rubra", June, low, high);
        Assert.Equal(20, row.Phases.Single(p => p.Phase == Phenophase.Flower).ShiftDays);
        Assert.Equal(10, row.Phases.Single(p => p.Phase == Phenophase.RipeFruit).ShiftDays);
        Assert.Equal([new DayWindow(141, 186)], row.Phases.Single(p => p.Phase == Phenophase.Flower).Windows);
        // 4,880 m are held at 2,000: 65.6 days, held at 60, of ripe fruit 30; with a year that is 50 days late August's fruit is there in
        // late October.
        Assert.Equal(
            [new DayWindow(293, 323)],
            Row("alvena-rubra", June, low, alpine, 50).Phases.Single(p => p.Phase == Phenophase.RipeFruit).Windows
        );
    }

    [Fact]
    public void TheYearsLeadIsThatOfItsFirsts()
    {
        var flora = new ReadyFlora(new Core.Packs.FloraPack("f", "F", Taxa, FloraColumns(), SmallFlora.Seasons));
        SeasonFirst First(string name, int month, int day, int before) =>
            new(name, Phenophase.Flower, new DateOnly(2026, month, day).AddDays(-before), new DateOnly(2026, month, day));
        var firsts = new[]
        {
            First("alvena rubra", 5, 7, 4),
            First("alvena nigra", 5, 11, 10),
            First("dentella viridis", 5, 5, 2),
            First("gemella par", 5, 30, 11),
            First("unknown", 5, 3, 1),
        };
        var response = new SeasonRequest("f", "2026-06-03", Firsts: firsts).Look(flora);
        // Late by 6, 10 and 4 days: the median 6, drawn to 3 by 3/(3 + 3). One waited too long, one isn't known.
        Assert.Equal((3d, 3), (response.Lead.Days, response.Lead.Firsts));
        Assert.Equal([6, 10, 4], response.Firsts.Select(f => f.Days));
        Assert.All(response.Rows, r => Assert.Equal(3, r.Year.Phases[0].ShiftDays));
        Assert.Equal(5, response.Rows.Count);
        Assert.Empty(new SeasonRequest("f", "2026-06-03", Cell: "D4").Look(flora).Rows);
        Assert.Equal("date", Assert.Throws<RequestException>(() => new SeasonRequest("f", "").Look(flora)).Field);
        Assert.Equal(
            "to",
            Assert.Throws<RequestException>(() => new SeasonRequest("f", "2026-06-03", To: new SeasonSite(91, 0, 0)).Look(flora)).Field
        );
    }

    private static Core.Identification.FloraColumns FloraColumns() =>
        Core.Identification.FloraColumns.Of([Form, Petals, Fruit, Margin], Described);
}
