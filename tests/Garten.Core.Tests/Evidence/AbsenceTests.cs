using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Evidence;

/// <summary>None of a part was seen: that speaks for taxa that have none, and against those that have some.</summary>
public sealed class AbsenceTests
{
    private static readonly EvidenceOptions Options = EvidenceOptions.Default;
    private static readonly Character Ribs = new(
        "ribs",
        "ribs",
        Organ.Leaf,
        CharacterKind.Count,
        [],
        ["ribs"],
        [],
        0.9,
        0.9,
        20,
        Tool.Eye,
        Handling.Look,
        []
    );
    private static readonly Character Colour = SmallFlora.States("petal colour", Organ.Flower, "white", "red", "absent");

    private static Dictionary<string, double> Weigh(
        Character character,
        Observation look,
        params (string Taxon, CharacterDescription? Cell)[] cells
    )
    {
        var table = new CharacterTable([character], [], []);
        var item = Assert.Single(EvidenceItem.Pool([look], table, Options));
        var rows = new Likelihood([.. cells.Select(c => SmallFlora.Describe(c.Taxon, c.Cell is null ? [] : [c.Cell]))], Options);
        var marginal = rows.Marginal(item);
        return cells.ToDictionary(c => c.Taxon, c => rows.Of(item, c.Cell, marginal) / marginal);
    }

    [Fact]
    public void ACountOfNoneSpeaksForTheTaxonWithout()
    {
        var ratios = Weigh(
            Ribs,
            SmallFlora.Read(Ribs, 0),
            ("without", SmallFlora.Lacks(Ribs)),
            ("none", SmallFlora.Measures(Ribs, "0")),
            ("some", SmallFlora.Measures(Ribs, "3–5")),
            ("unknown", null)
        );
        Assert.True(ratios["without"] > 1 && ratios["none"] > 1, $"{ratios["without"]:0.00}, {ratios["none"]:0.00}");
        Assert.True(ratios["some"] < 0.5, $"{ratios["some"]:0.00}");
        Assert.Equal(1, ratios["unknown"], 9);
    }

    [Fact]
    public void ACountOfSomeSpeaksAgainstIt()
    {
        var ratios = Weigh(
            Ribs,
            SmallFlora.Read(Ribs, 4),
            ("without", SmallFlora.Lacks(Ribs)),
            ("none", SmallFlora.Measures(Ribs, "0")),
            ("some", SmallFlora.Measures(Ribs, "3–5"))
        );
        Assert.True(ratios["without"] < 0.5 && ratios["none"] < 0.5 && ratios["some"] > 1);
    }

    [Fact]
    public void LookedForAndNotFoundAndTheStateThatSaysSoAgree()
    {
        (string, CharacterDescription?)[] cells =
        [
            ("without", SmallFlora.Lacks(Colour)),
            ("absent", SmallFlora.Is(Colour, "absent")),
            ("white", SmallFlora.Is(Colour, "white")),
        ];
        foreach (var look in new[] { SmallFlora.See(Colour) with { Outcome = Outcome.NotFound }, SmallFlora.See(Colour, "absent") })
        {
            var ratios = Weigh(Colour, look, cells);
            Assert.True(ratios["without"] > 1 && ratios["absent"] > 1 && ratios["white"] < 0.6, string.Join(", ", ratios));
        }
    }
}
