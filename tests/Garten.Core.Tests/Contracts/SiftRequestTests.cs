using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Xunit;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Contracts;

/// <summary>Sifting, contrast, confirmation and all that goes with them, as they are asked over the wire.</summary>
public sealed class SiftRequestTests
{
    private static readonly Character Sap = States("sap", Organ.Stem, "clear", "milky") with { Reliability = 0.95 };
    private static readonly Character Bracts = States("bracts", Organ.Inflorescence, "short", "long") with
    {
        SeenIn = [Phenophase.Flower],
        Reliability = 0.95,
    };
    private static readonly Character Blade = Length("blade") with { Unit = "mm" };
    private static readonly Character Petals = Length("petals") with { Kind = CharacterKind.Count };
    private static readonly Character Angle = Length("angle") with { Kind = CharacterKind.Angle };

    private static readonly Taxon[] Taxa =
    [
        Taxon("alvena-montis", TaxonFacts.None with { Cells = ["B2"], GrowthForm = "herb", LookAlikes = ["brontia-alta"] }) with
        {
            Name = "Alvena montis",
        },
        Taxon("alvena-palus", TaxonFacts.None with { Cells = ["C3"], GrowthForm = "herb" }) with
        {
            Name = "Alvena palus",
        },
        Taxon("brontia-alta", TaxonFacts.None with { Cells = ["B2"], GrowthForm = "shrub" }, family: "Brontiaceae") with
        {
            Name = "Brontia alta",
        },
        Taxon("alvena", rank: "genus") with
        {
            Name = "Alvena",
        },
    ];

    private readonly ReadyFlora _flora = ReadyFlora.Read(
        ReadyFlora.Write(
            new Flora(
                "isle",
                "Isle",
                Taxa,
                new CharacterTable(
                    [Sap, Bracts, Blade, Petals, Angle],
                    [
                        Describe(
                            "alvena-montis",
                            Is(Sap, "clear"),
                            Is(Bracts, "short"),
                            Measures(Blade, "20–40 mm"),
                            Measures(Petals, "5")
                        ),
                        Describe("alvena-palus", Is(Sap, "milky"), Is(Bracts, "short"), Measures(Blade, "30–60 mm"), Measures(Petals, "5")),
                        Describe(
                            "brontia-alta",
                            Is(Sap, "milky"),
                            Is(Bracts, "long"),
                            Measures(Blade, "200–400 mm"),
                            Measures(Petals, "4")
                        ),
                    ],
                    Identification.SmallFlora.Seasons
                )
            )
        )
    );

    private static void Refused(string field, string says, Action ask)
    {
        var wrong = Assert.Throws<RequestException>(ask);
        Assert.Equal(field, wrong.Field);
        Assert.Contains(says, wrong.Message, StringComparison.Ordinal);
    }

    private SiftResponse Sift(params SiftObservation[] looks) => new SiftRequest("isle", looks).Sift(_flora);

    [Theory]
    [InlineData("mm", 250, 250)]
    [InlineData("cm", 25, 250)]
    [InlineData("m", 0.25, 250)]
    [InlineData("in", 10, 254)]
    [InlineData(null, 250, 250)]
    public void LengthsComeInAnyUnit(string? unit, double value, double millimetres)
    {
        var read = new SiftObservation("blade", Values: [value], Unit: unit).AsObservation(_flora.Table, 0);
        Assert.Equal(millimetres, Assert.Single(read.Readings).Value, 9);
        Assert.Equal("brontia-alta", Sift(new SiftObservation("blade", Values: [value], Unit: unit)).Standing[0].Taxon);
    }

    [Fact]
    public void WhatCanNotBeWeighedIsSaidAtItsPlace()
    {
        Refused("observations[0].character", "There is no character “tail”.", () => Sift(new SiftObservation("tail", ["long"])));
        Refused("observations[1].unit", "“kg” is no unit of blade", () =>
            Sift(new SiftObservation("sap", ["clear"]), new SiftObservation("blade", Values: [3], Unit: "kg"))
        );
        Refused("observations[0].unit", "no unit of petals", () => Sift(new SiftObservation("petals", Values: [5], Unit: "mm")));
        Refused("observations[0].unit", "no unit of sap", () => Sift(new SiftObservation("sap", ["clear"], Unit: "mm")));
        Refused("observations[0].unit", "no unit of angle", () => Sift(new SiftObservation("angle", Values: [45], Unit: "cm")));
        Refused("observations[0].values", "Up to 1000 readings", () =>
            Sift(new SiftObservation("blade", Values: [.. Enumerable.Repeat(30d, 1001)]))
        );
        Refused("observations[0]", "is no state", () => Sift(new SiftObservation("sap", ["sweet"])));
        Refused("observations[0]", "twice", () => Sift(new SiftObservation("sap", ["clear", "clear"])));
        Refused("observations[0]", "is measured", () => Sift(new SiftObservation("blade", ["clear"], [30])));
        Refused("observations[0]", "it isn't measured", () => Sift(new SiftObservation("sap", ["clear"], [30])));
        Refused("observations[0]", "whole number", () => Sift(new SiftObservation("petals", Values: [4.5])));
        Refused("observations[0]", "zero", () => Sift(new SiftObservation("blade", Values: [0])));
        Refused("observations[0]", "longer than any plant", () => Sift(new SiftObservation("blade", Values: [1e9])));
        Refused("observations[0]", "no number", () => Sift(new SiftObservation("blade", Values: [double.NaN])));
        Refused("observations[0]", "at most as many", () => Sift(new SiftObservation("sap", ["clear"], Show: 5, Of: 3)));
        Refused("observations[0]", "no such date", () => Sift(new SiftObservation("sap", ["clear"], Date: "2026-02-30")));
        Refused("observations[0]", "missing", () => Sift((SiftObservation)null!));
        Refused("observations", "Up to 2000 observations", () => Sift([.. Enumerable.Repeat(new SiftObservation("sap", ["clear"]), 2001)]));
        Refused("options.tolerance", "0 or more", () =>
            new SiftRequest("isle", Options: new SiftRequestOptions(Tolerance: -1)).Sift(_flora)
        );
        Refused("options.date", "no such date", () => new SiftRequest("isle", Options: new SiftRequestOptions(Date: "June")).Sift(_flora));
    }

    [Fact]
    public void ALookThatCameToNothingIsNotProposedAgain()
    {
        Assert.Contains("sap", Sift().TellingLooks.Select(l => l.Character));
        Assert.DoesNotContain("sap", Sift(new SiftObservation("sap")).TellingLooks.Select(l => l.Character));
    }

    [Fact]
    public void OfTheBenchsSheetWhatThisFloraDoesNotKnowIsPassedOver()
    {
        var fact = See(Sap, "milky");
        var response = new SiftRequest(
            "isle",
            Sheet:
            [
                fact,
                See(States("tail", Organ.Habit, "long"), "long"),
                fact with
                {
                    Id = Guid.NewGuid(),
                    Character = "bracts",
                    States = ["round"],
                },
            ]
        ).Sift(_flora);
        Assert.Equal("sap", Assert.Single(response.Sheet).Character);
    }

    [Fact]
    public void NarrowingsAddUpAndAreCounted()
    {
        int Listed(Narrowing narrowing, string cell = "B2") =>
            new SiftRequest("isle", Options: new SiftRequestOptions(At: new SiftPlace(cell), Narrowing: narrowing)).Sift(_flora).Listed;
        Assert.Equal(3, Listed(new Narrowing()));
        Assert.Equal(2, Listed(new Narrowing(RecordedHere: true)));
        Assert.Equal(1, Listed(new Narrowing(RecordedHere: true, GrowthForms: ["HERB"])));
        Assert.Equal(1, Listed(new Narrowing(Families: ["Brontiaceae"])));
        Assert.Equal(0, Listed(new Narrowing(Families: ["Brontiaceae"], Genera: ["Alvena"])));
        Assert.Equal(2, Listed(new Narrowing(Taxa: ["alvena-montis", "brontia-alta", "no-such-taxon"])));
        Assert.Equal(3, new SiftRequest("isle").Sift(_flora).All);
    }

    [Fact]
    public void AContrastThatCanNotBeMadeSaysWhy()
    {
        ContrastResult Compare(params string[] taxa) => new ContrastRequest("isle", taxa).Compare(_flora);
        Refused("taxa", "2 to 8 taxa can be compared; these are 1.", () => Compare("alvena-montis"));
        Refused("taxa", "these are 9", () => Compare([.. Enumerable.Range(0, 9).Select(i => $"t{i}")]));
        Refused("taxa", "given twice", () => Compare("alvena-montis", "alvena-montis"));
        Refused("taxa", "doesn’t describe “alvena”", () => Compare("alvena-montis", "alvena"));
        Refused("date", "no such date", () => new ContrastRequest("isle", ["alvena-montis", "alvena-palus"], "soon").Compare(_flora));
        Assert.Equal("sap", Compare("alvena-montis", "alvena-palus").Pairs.Single().Character);
    }

    [Fact]
    public void GiveawaysAreThoseOfTheListAndOfTheDay()
    {
        GiveawayResponse Find(string? date = null, Narrowing? narrowing = null) =>
            new GiveawayRequest("isle", new SiftPlace("B2"), date, narrowing).Find(_flora);
        Assert.Equal(["Alvena montis: sap: clear", "Brontia alta: bracts: long"], Find().Giveaways.Select(g => $"{g.Name}: {g.Text}"));
        // In winter there are no bracts.
        Assert.Equal(["alvena-montis"], Find("2026-01-10").Giveaways.Select(g => g.Taxon));
        Assert.Equal(1, Find(narrowing: new Narrowing(Taxa: ["alvena-montis"])).Listed);
        Assert.Empty(Find(narrowing: new Narrowing(Taxa: ["alvena-montis"])).Giveaways);
        Refused("date", "no such date", () => Find("2026-99-01"));
    }

    [Fact]
    public void TaxaAreDescribedAndWhatTheyAreTakenForIsNear()
    {
        Assert.Equal(
            ["alvena-montis", "alvena-palus", "brontia-alta"],
            new DescribeRequest("isle").Describe(_flora).Select(d => d.Taxon.Id).Order(StringComparer.Ordinal)
        );
        var one = Assert.Single(new DescribeRequest("isle", ["brontia-alta", "brontia-alta", "no-such-taxon"]).Describe(_flora));
        Assert.Equal(["sap", "bracts", "blade", "petals"], one.Description.Select(c => c.Character));
        // Declared goes before near.
        Assert.Equal(["brontia-alta", "alvena-palus"], new NearRequest("isle", "alvena-montis").Find(_flora).Taxa);
        Refused("taxon", "doesn’t describe “alvena”", () => new NearRequest("isle", "alvena").Find(_flora));
        Refused("taxon", "doesn’t describe", () => new NearRequest("isle", null!).Find(_flora));
    }

    [Fact]
    public void ANameIsConfirmedByItsIdOrAsItIsWritten()
    {
        ConfirmResult Confirm(string taxon) =>
            new ConfirmRequest(
                "isle",
                taxon,
                [new SiftObservation("sap", ["milky"]), new SiftObservation("bracts", ["long"])],
                Date: "2026-06-01"
            ).Confirm(_flora);
        Assert.Equal("brontia-alta", Confirm("brontia-alta").Taxon);
        Assert.Equal("brontia-alta", Confirm("  BRONTIA alta ").Taxon);
        Refused("taxon", "doesn’t describe “Brontia”", () => Confirm("Brontia"));
        Refused("taxon", "doesn’t describe", () => Confirm(null!));
        ConfirmRequest plain = new("isle", "brontia-alta");
        Refused("rules", "confirmed-list, quick-list", () => (plain with { Rules = "strict" }).Confirm(_flora));
        Refused("ownRules.rules", "in this order", () => (plain with { OwnRules = new GradeRules("own", "Own", "", []) }).Confirm(_flora));
        Refused("explanations", "Up to 50", () =>
            (plain with { Explanations = [.. Enumerable.Repeat(new Explanation(CheckKind.Presence, "x"), 51)] }).Confirm(_flora)
        );
        Refused("explanations", "2000 characters", () =>
            (plain with { Explanations = [new Explanation(CheckKind.Presence, new string('x', 2001))] }).Confirm(_flora)
        );
        Refused("date", "no such date", () => (plain with { Date = "x" }).Confirm(_flora));
    }

    [Fact]
    public void WhatANewNameOverturnsIsToldByItsLooks()
    {
        Observation[] sheet = [See(Sap, "milky"), See(Bracts, "long"), Read(Blade, 300)];
        var overturned = Overturned.Of(_flora, sheet, ["Alvena montis", "Zedia prima"], "Brontia alta");
        Assert.Equal(["Alvena montis", "Zedia prima"], overturned.Names);
        Assert.Contains(overturned.By, b =>
            b.StartsWith("bracts: long; Brontia alta has long, Alvena montis short", StringComparison.Ordinal)
        );
        Assert.InRange(overturned.By.Count, 1, 3);
        // Of a name that the flora hasn't nothing can be told, nor where nothing was seen.
        Assert.Empty(Overturned.Of(_flora, sheet, ["Alvena montis"], "Zedia prima").By);
        Assert.Empty(Overturned.Of(_flora, [], ["Alvena montis"], "Brontia alta").By);
    }

    [Fact]
    public void ReadingsAsTypedAreSummedUpInWords()
    {
        var shelf = new Core.Keys.BenchShelf(
            new Core.Keys.KeyShelf([]),
            new CharacterTable([Sap, Blade], [Describe("a", Measures(Blade, "20–40 mm"))], []),
            [Taxon("a")]
        );
        MeasureResponse Measure(string text, string character = "blade", string unit = "mm", CalibratedObject? by = null) =>
            new MeasureRequest(text, character, unit, by).Read(shelf);
        Assert.Equal("n 3 · mean 3 cm · 28 mm to 3.2 cm · 95 % of the mean 25 mm to 3.5 cm", Measure("28 30 32").Shown);
        Assert.Equal("n 1 · mean 3 cm", Measure("3", unit: "cm").Shown);
        // Over three times the largest that the flora knows is asked about; it may stand.
        Assert.True(Assert.Single(Measure("130").Line.Problems).IsQuestion);
        Assert.Empty(Measure("110").Line.Problems);
        Assert.Equal("This character isn't measured.", Assert.Single(Measure("3", "sap").Line.Problems).Message);
        Assert.Equal("This character isn't measured.", Assert.Single(Measure("3", "tail").Line.Problems).Message);
        Assert.Equal("", Measure("").Shown);
        Assert.Equal(124, Measure("2", by: new CalibratedObject("my thumb", 62, 3)).Sample!.Mean);
    }
}
