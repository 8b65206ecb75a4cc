using CsCheck;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Evidence;

/// <summary>Weights of evidence, with the working shown.</summary>
public sealed class LikelihoodTests
{
    private static readonly EvidenceOptions Options = EvidenceOptions.Default;

    private static readonly Character Base = Categorical(
        "leaf-base",
        Organ.Leaf,
        CharacterKind.Categorical,
        0.9,
        0.8,
        "rounded",
        "heart",
        "wedge"
    );
    private static readonly Character Wet = Categorical("ground", Organ.Site, CharacterKind.Ordered, 0.85, 0.9, "dry", "moist", "wet");
    private static readonly Character Stipules = Categorical(
        "stipules",
        Organ.Leaf,
        CharacterKind.Categorical,
        0.9,
        0.8,
        "present",
        "absent"
    );
    private static readonly Character Length = Measured("leaf-length", CharacterKind.Length, "blade", "leaf");
    private static readonly Character Width = Measured("leaf-width", CharacterKind.Length, "blade", "leaf");
    private static readonly Character Ratio = Measured("leaf-ratio", CharacterKind.Ratio, "blade", "") with
    {
        RatioOf = ["leaf-length", "leaf-width"],
    };
    private static readonly Character Petiole = Measured("petiole", CharacterKind.Length, "", "leaf");
    private static readonly CharacterTable Table = new([Base, Wet, Stipules, Length, Width, Ratio, Petiole], [], []);

    private static Character Categorical(
        string id,
        Organ organ,
        CharacterKind kind,
        double reliability,
        double detection,
        params string[] states
    ) =>
        new(
            id,
            id,
            organ,
            kind,
            [.. states.Select(s => new CharacterState(s, s, "", [s]))],
            [id],
            [],
            reliability,
            detection,
            10,
            Tool.Eye,
            Handling.Look,
            []
        );

    private static Character Measured(string id, CharacterKind kind, string family, string sizes) =>
        new(id, id, Organ.Leaf, kind, [], [id], [], 0.9, 0.9, 10, Tool.Ruler, Handling.Look, [], null, family, sizes);

    private static CharacterDescription Of(Character character, params (string State, double Share)[] states) =>
        new(character.Id, [.. states.Select(s => new StateShare(s.State, s.Share))]);

    private static CharacterDescription Of(Character character, string notation) =>
        new(character.Id, [], RangeNotation.Read(notation, character.Quantity).Ranges[0]);

    private static Observation See(Character character, params string[] states) => Look(character) with { States = states };

    private static Observation Measure(Character character, params double[] values) =>
        Look(character) with
        {
            Readings = [.. values.Select(v => new Reading(v, "", 0))],
        };

    private static Observation Look(Character character) =>
        new(Guid.NewGuid(), character.Id, Outcome.Seen, [], false, [], 0, 0, Sureness.Sure, new(), Tool.Eye, "2026-06-01", "");

    private static EvidenceItem Item(params Observation[] looks) => Assert.Single(EvidenceItem.Pool(looks, Table, Options));

    private static readonly Likelihood Plain = new([]);

    [Fact]
    public void AStateByConfusion()
    {
        // 70 % rounded, 30 % heart-shaped; scored right in 0.9, wrong in 0.05 for each of two others: 0.7·0.9 + 0.3·0.05 = 0.645.
        var d = Of(Base, ("rounded", 0.7), ("heart", 0.3));
        Assert.Equal(0.645, Plain.Raw(Item(See(Base, "rounded")), d), 12);
        // Wedge-shaped only by misreading: 0.05.
        Assert.Equal(0.05, Plain.Raw(Item(See(Base, "wedge")), d), 12);
        // One or the other: 0.645 + 0.305. Both on the plant: 30 % of the plants have both where nothing is said of it; δ = 0.7, falsely
        // 0.02.
        Assert.Equal(0.95, Plain.Raw(Item(See(Base, "rounded", "heart")), d), 12);
        var both = 0.3 * 0.7 * 0.7 * 0.98 / (1 - 0.3 * 0.3 * 0.98);
        var either = 0.7 * 0.7 * 0.02 * 0.98 / (1 - 0.3 * 0.98 * 0.98);
        Assert.Equal(both + either, Plain.Raw(Item(See(Base, "rounded", "heart") with { Together = true }), d), 12);
        // What isn't listed shares the rest: 80 % rounded leaves 10 % each; heart: 0.1·0.9 + 0.8·0.05 + 0.1·0.05.
        Assert.Equal(0.135, Plain.Raw(Item(See(Base, "heart")), Of(Base, ("rounded", 0.8))), 12);
    }

    [Fact]
    public void OrderedStatesAreMisreadForTheirNeighbours()
    {
        // Dry misread: moist at distance 1 has weight ½, wet at 2 has ¼; 0.15·½/¾ = 0.1 and 0.05.
        Assert.Equal(0.1, Likelihood.Confusion(Wet, 1, 0), 12);
        Assert.Equal(0.05, Likelihood.Confusion(Wet, 2, 0), 12);
        Assert.Equal(1, Enumerable.Range(0, 3).Sum(s => Likelihood.Confusion(Wet, s, 1)), 12);
    }

    [Fact]
    public void LookedForNotFoundAndOutOfReach()
    {
        // Present in 0.7, found where present in 0.8: not found 0.3 + 0.7·0.2 = 0.44.
        var d = Of(Stipules, ("present", 0.7), ("absent", 0.3));
        Assert.Equal(0.44, Plain.Raw(Item(Look(Stipules) with { Outcome = Outcome.NotFound }), d), 12);
        Assert.Empty(EvidenceItem.Pool([Look(Stipules) with { Outcome = Outcome.OutOfReach }], Table, Options));
    }

    [Fact]
    public void SofteningAndSureness()
    {
        // f 0.645, m 0.5: 0.99·0.645 + 0.01·0.5 = 0.64355; a guess mixes 0.6 of m: 0.4·0.64355 + 0.3 = 0.55742.
        var d = Of(Base, ("rounded", 0.7), ("heart", 0.3));
        Assert.Equal(0.64355, Plain.Of(Item(See(Base, "rounded")), d, 0.5), 12);
        Assert.Equal(0.55742, Plain.Of(Item(See(Base, "rounded") with { Sureness = Sureness.Guess }), d, 0.5), 12);
        Assert.Equal(0.61484, Plain.Of(Item(See(Base, "rounded") with { Sureness = Sureness.Fairly }), d, 0.5), 12);
        // Unknown gives m; not applicable ε·m, or m where what decides it is on the sheet itself.
        Assert.Equal(0.5, Plain.Of(Item(See(Base, "rounded")), null, 0.5));
        Assert.Equal(0.005, Plain.Of(Item(See(Base, "rounded")), d with { Applies = false }, 0.5), 12);
        Assert.Equal(0.5, Plain.Of(Item(See(Base, "rounded")), d with { Applies = false }, 0.5, controllerIsOnSheet: true), 12);
    }

    [Fact]
    public void TheMarginalIsThatOfTheWholePack()
    {
        // Two taxa, rounded 0.9 and 0.05 by confusion: mean 0.475; with a tenth of the uniform ⅓: 0.9·0.475 + 0.1/3 = 0.460833.
        var pack = new Likelihood([new("a", [Of(Base, ("rounded", 1))]), new("b", [Of(Base, ("heart", 1))])]);
        Assert.Equal(0.4608333, pack.Marginal(Item(See(Base, "rounded"))), 6);
    }

    [Fact]
    public void AStandOfPlants()
    {
        // Three of four show it at 0.645 each, beta-binomial with α = 8·0.645 and β = 8·0.355: C(4,3)·α(α+1)(α+2)·β / (8·9·10·11).
        var item = Item(See(Base, "rounded") with { Show = 3, Of = 4 });
        var (a, b) = (8 * 0.645, 8 * 0.355);
        var d = Of(Base, ("rounded", 0.7), ("heart", 0.3));
        Assert.Equal(4 * a * (a + 1) * (a + 2) * b / (8 * 9 * 10 * 11d), Plain.Raw(item, d), 12);
        // All numbers that can show it add up to 1.
        Assert.Equal(1, Enumerable.Range(0, 13).Sum(k => Plain.Raw(Item(See(Base, "rounded") with { Show = k, Of = 12 }), d)), 9);
        // Plants of one stand are kin: twenty that all show it say less than twenty looks at twenty stands.
        var many = Item(See(Base, "rounded") with { Show = 20, Of = 20 });
        Assert.True(Plain.Raw(many, d) > Math.Pow(0.645, 20));
    }

    [Fact]
    public void ShadeLeavesAreHeldAgainstTheirOwnRangeOrAWidenedOne()
    {
        var item = Item(Measure(Length, 80, 90) with { Context = new(Light: Light.Shade) });
        Assert.True(item.Larger);
        Assert.NotEqual("", item.Reason);
        Assert.Equal(60, Plain.RangeOf(item, Of(Length, "20–40 mm"))!.High, 9);
        var shade = RangeNotation.Read("50–90 mm", QuantityKind.Length).Ranges[0];
        Assert.Equal(90, Plain.RangeOf(item, Of(Length, "20–40 mm") with { Shade = shade })!.High);
        // A browsed plant's sizes say nothing, what is perhaps a neighbour's weighs a quarter.
        Assert.Equal(0, Item(Measure(Length, 80) with { Context = new(Shaping: Shaping.Browsed) }).Weight);
        Assert.Equal(0.25, Item(See(Base, "heart") with { Context = new(Attachment: Attachment.PerhapsNeighbours) }).Weight);
    }

    [Theory]
    [InlineData(CrownsAbove.One, 0.95)]
    [InlineData(CrownsAbove.Two, 1 / 2d)]
    [InlineData(CrownsAbove.Three, 1 / 3d)]
    [InlineData(CrownsAbove.More, 1 / 5d)]
    public void WhatLayBeneathIsGivenToTheCrownsAboveByShares(CrownsAbove crowns, double own)
    {
        var beneath = Item(See(Base, "rounded") with { Context = new(Attachment: Attachment.Beneath, Crowns: crowns) });
        var attached = Item(See(Base, "rounded"));
        const double marginal = 0.4;
        foreach (var f in new[] { 0, 0.1, 0.4, 0.9 })
        {
            // With the share of this crown it is as if it were attached, otherwise it says nothing.
            var expected = own * Plain.Soften(attached, f, marginal) + (1 - own) * marginal;
            Assert.Equal(expected, Plain.Soften(beneath, f, marginal), 12);
        }
        Assert.Equal(1, beneath.Weight);
        Assert.Contains("of this crown it is with a probability of", beneath.Reason, StringComparison.Ordinal);
        // What hangs on the plant has no crowns above it, and where they weren't counted it weighs less as before.
        Assert.Equal(1, Item(See(Base, "rounded") with { Context = new(Crowns: crowns) }).Context.Own);
        Assert.Equal(Options.BeneathWeight, Item(See(Base, "rounded") with { Context = new(Attachment: Attachment.Beneath) }).Weight);
    }

    [Fact]
    public void DependentMeasuresDontCountTwice()
    {
        var items = EvidenceItem.Pool([Measure(Length, 40, 50, 60), Measure(Width, 20, 20, 30), Measure(Petiole, 10)], Table, Options);
        // The ratio derives itself of the pairs, 2, 2.5 and 2, and follows from the others.
        var ratio = items.Single(i => i.Character == Ratio);
        Assert.Equal(2.166667, ratio.Sample!.Mean, 6);
        Assert.True(ratio.Follows && ratio.Weight == 0);
        // Three sizes that vary together with r = 0.5 count 1/(1 + 2·0.5) = ½ each.
        Assert.All(items.Where(i => i.Character.SizeGroup == "leaf"), i => Assert.Equal(0.5, i.Weight, 12));
        // The same scoring twice counts once, the surest; two different ones by half each.
        var twice = Item(See(Base, "rounded") with { Sureness = Sureness.Guess }, See(Base, "rounded"));
        Assert.Equal((1d, Sureness.Sure), (twice.Weight, twice.Sureness));
        Assert.All(EvidenceItem.Pool([See(Base, "rounded"), See(Base, "heart")], Table, Options), i => Assert.Equal(0.5, i.Weight));
    }

    [Fact]
    public void WhatIsSupersededNoLongerHolds()
    {
        var first = See(Base, "rounded");
        var second = See(Base, "heart") with { Supersedes = first.Id };
        var taken = Look(Base) with { Supersedes = second.Id, Withdrawn = true };
        Assert.Equal([second], EvidenceSheet.Holding([first, second]));
        Assert.Empty(EvidenceSheet.Holding([first, second, taken]));
        // Two that correct the same one both hold.
        Assert.Equal(2, EvidenceSheet.Holding([first, second, See(Base, "wedge") with { Supersedes = first.Id }]).Count);
    }

    [Theory]
    [InlineData("leaf-base", "rounded|tubular", "", 0, 0, "2026-06-01", "no state")]
    [InlineData("leaf-base", "rounded|rounded", "", 0, 0, "2026-06-01", "twice")]
    [InlineData("leaf-base", "", "", 0, 0, "2026-06-01", "Choose")]
    [InlineData("leaf-base", "", "5", 0, 0, "2026-06-01", "states")]
    [InlineData("leaf-length", "", "0", 0, 0, "2026-06-01", "zero")]
    [InlineData("leaf-length", "", "999999999", 0, 0, "2026-06-01", "longer than any plant")]
    [InlineData("leaf-length", "rounded", "", 0, 0, "2026-06-01", "state")]
    [InlineData("leaf-base", "rounded", "", 5, 3, "2026-06-01", "at most")]
    [InlineData("leaf-base", "rounded", "", 0, 0, "2026-06-31", "no such date")]
    [InlineData("leaf-base", "rounded", "", 0, 0, "2099-01-01", "future")]
    [InlineData("tail", "rounded", "", 0, 0, "2026-06-01", "no character")]
    public void WhatCantBeKeptIsSaid(string character, string states, string reading, int show, int of, string date, string says)
    {
        var look = Look(Base) with
        {
            Character = character,
            States = states.Length == 0 ? [] : states.Split('|'),
            Show = show,
            Of = of,
            Date = date,
            Readings =
                reading.Length == 0
                    ? []
                    : [new Reading(double.Parse(reading, System.Globalization.CultureInfo.InvariantCulture), reading, 1)],
        };
        Assert.Contains(says, EvidenceSheet.Problem(look, Table.Find(character), new DateOnly(2026, 7, 1))!, StringComparison.Ordinal);
    }

    private static readonly IReadOnlyList<TaxonDescription> Pack =
    [
        new("a", [Of(Base, ("rounded", 0.8), ("heart", 0.2)), Of(Length, "20–40 mm"), Of(Width, "10–20 mm"), Of(Stipules, ("present", 1))]),
        new("b", [Of(Base, ("heart", 1)), Of(Length, "30–60 mm"), Of(Width, "25–40 mm")]),
        new("c", [Of(Base, ("wedge", 0.5), ("heart", 0.5)), Of(Length, "50–90 mm"), Of(Stipules, ("absent", 1))]),
    ];

    private static double[] Weigh(IReadOnlyList<Observation> looks)
    {
        var sheet = new WeighedSheet(EvidenceItem.Pool(EvidenceSheet.Holding(looks), Table, Options), new Likelihood(Pack));
        return [.. Pack.Select(d => sheet.Weigh(d.Taxon).LogLikelihood)];
    }

    private static readonly Gen<List<Observation>> Sheets = Gen.Select(Gen.Int[0, 3], Gen.Int[0, 2], Gen.Double[10, 90])
        .List[1, 8]
        .Select(picks =>
            picks.ConvertAll(p =>
                p.Item1 switch
                {
                    0 => See(Base, Base.States[p.Item2].Id),
                    1 => Measure(Length, Math.Round(p.Item3)),
                    2 => Measure(Width, Math.Round(p.Item3 / 2)),
                    _ => See(Stipules, p.Item2 == 0 ? "present" : "absent"),
                }
            )
        );

    private static void Same(double[] expected, double[] actual)
    {
        for (var i = 0; i < expected.Length; i++)
            Assert.Equal(expected[i], actual[i], 9);
    }

    [Fact]
    public void TheOrderOfLooksDoesNotMatter() => Sheets.Sample(looks => Same(Weigh(looks), Weigh([.. Enumerable.Reverse(looks)])));

    [Fact]
    public void StrikingAReadingOutEqualsNeverHavingIt() =>
        Sheets.Sample(looks =>
            Same(
                Weigh([.. looks, Measure(Length, 41)]),
                Weigh([.. looks, Look(Length) with { Readings = [new Reading(41, "", 0), new Reading(400, "", 0, 0, "torn")] }])
            )
        );

    [Fact]
    public void ASampleInTwoSessionsEqualsOne() =>
        Sheets.Sample(looks =>
            Same(Weigh([.. looks, Measure(Length, 41, 45, 39)]), Weigh([.. looks, Measure(Length, 41), Measure(Length, 45, 39)]))
        );

    [Fact]
    public void AddingWhatIsUnknownNeverMovesARanking() =>
        Sheets.Sample(looks =>
        {
            // The petiole is described for no taxon.
            var before = Weigh(looks);
            var after = Weigh([.. looks, See(Wet, "moist")]);
            Same(before, after);
        });
}
