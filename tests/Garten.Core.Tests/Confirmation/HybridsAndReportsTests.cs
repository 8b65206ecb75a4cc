using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Xunit;
using static Garten.Core.Tests.Confirmation.ConfirmFlora;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Confirmation;

/// <summary>Crosses that explain more than either parent, and what a plant can be reported as.</summary>
public sealed class HybridsAndReportsTests
{
    // Half-way in size, the leaf of one and the flower of the other.
    private static readonly Observation[] Between =
    [
        On("2026-06-01", Base, "heart"),
        On("2026-06-01", Colour, "yellow"),
        Read(Blade, 96, 98, 100, 95, 99, 97, 101, 96),
    ];

    private static ConfirmResult Ask(
        IReadOnlyList<Observation> sheet,
        string taxon = "alvena-montis",
        IReadOnlyList<Taxon>? taxa = null,
        SiftOptions? options = null
    ) => Confirm.Of(Sieve(All, Described, taxa ?? Taxa, options ?? new SiftOptions { NotOnList = 0.001 }), Query(sheet, taxon));

    [Fact]
    public void ACrossIsNamedByBothInTheirOrder()
    {
        Assert.Equal("Alvena lenta × Alvena montis", Ask(Between).Hybrid!.Name);
        // Asked from the other side it is the same cross.
        Assert.Equal("Alvena lenta × Alvena montis", Ask(Between, "alvena-lenta").Hybrid!.Name);
        Assert.True(Ask(Between).Hybrid!.OverParents >= 3);
        Assert.All(Ask(Between).Hybrid!.Reasons, r => Assert.Contains(": ", r, StringComparison.Ordinal));
    }

    [Fact]
    public void ACrossThatTheFloraHasIsANameLikeOthers()
    {
        Taxon[] taxa =
        [
            .. Taxa,
            Taxon("alvena-media", Here with { Parents = ["alvena-montis", "alvena-lenta"] }, "hybrid") with
            {
                Name = "Alvena × media",
            },
        ];
        // Named but not described it can't be weighed, and isn't known to be there.
        Assert.NotNull(Ask(Between, taxa: taxa).Hybrid);
        TaxonDescription[] described =
        [
            .. Described,
            Describe("alvena-media", Is(Base, "heart"), Is(Colour, "yellow"), Measures(Blade, "80–120 mm")),
        ];
        Assert.Null(Confirm.Of(Sieve(All, described, taxa, new SiftOptions { NotOnList = 0.001 }), Query(Between)).Hybrid);
    }

    [Fact]
    public void OnlySpeciesOfOneGenusAreCrossed()
    {
        // A sheet between two genera, and a name that is no species.
        Observation[] far =
        [
            On("2026-06-01", Base, "heart"),
            On("2026-06-01", Colour, "red"),
            On("2026-06-01", Sap, "milky"),
            Read(Blade, 50, 52),
        ];
        Assert.Null(Ask(far).Hybrid);
        Assert.Null(Ask(Between, taxa: [Taxa[0] with { Rank = "cultivar" }, .. Taxa[1..]]).Hybrid);
    }

    [Fact]
    public void TheSmallestGroupThatHoldsNearlyAllIsReported()
    {
        Assert.Equal((ReportKind.Species, "alvena-montis"), (Ask(Full).ReportAs.Kind, Ask(Full).ReportAs.Taxon));
        var genus = Ask([.. Full.Where(o => o.Character != "fruit")]).ReportAs;
        Assert.Equal((ReportKind.Genus, "Alvena"), (genus.Kind, genus.Name));
        Assert.Contains("Alvena montis and Alvena palus together", genus.Reason, StringComparison.Ordinal);
        // Of two genera of one family, their family; of two families, nothing.
        Observation[] open = [On("2026-09-20", Fruit, "berry")];
        var none = Ask(open).ReportAs;
        Assert.Equal((ReportKind.Undetermined, ""), (none.Kind, none.Name));
        Assert.Contains("no group of kin holds 95 % yet", none.Reason, StringComparison.Ordinal);
        var family = Ask(open, taxa: [.. Taxa.Select(t => t with { Family = "Alvenaceae" })]).ReportAs;
        Assert.Equal((ReportKind.Family, "Alvenaceae"), (family.Kind, family.Name));
    }

    [Fact]
    public void APlantThatIsMostLikelyNotOnTheListIsReportedAsNothing()
    {
        Observation[] odd =
        [
            On("2026-06-01", Base, "wedge"),
            On("2026-06-01", Colour, "red"),
            On("2026-09-20", Fruit, "nut"),
            On("2026-06-01", Sap, "milky"),
            Read(Blade, 900),
        ];
        var result = Ask(odd, options: new SiftOptions());
        Assert.Equal((ReportKind.Undetermined, Grade.Tentative), (result.ReportAs.Kind, result.Grade));
        Assert.Contains("a plant that isn’t on this list", result.ReportAs.Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void AHybridOfTheFloraIsReportedAsOne()
    {
        Taxon[] taxa = [Taxa[0] with { Rank = "hybrid" }, .. Taxa[1..]];
        Assert.Equal((ReportKind.Hybrid, "alvena-montis"), (Ask(Full, taxa: taxa).ReportAs.Kind, Ask(Full, taxa: taxa).ReportAs.Taxon));
    }

    [Theory]
    [InlineData(0.5, "50 %")]
    [InlineData(0.004, "under 1 %")]
    [InlineData(0.9999, "over 99 %")]
    public void ProbabilitiesAreSaidAsFarAsTheyAreKnown(double share, string words)
    {
        // Two taxa of which one look leaves so much to the first.
        var state = States("state", Organ.Leaf, "a", "b") with { Reliability = 0.999999, SeenIn = [] };
        var odds = share / (1 - share);
        var sifter = Sieve(
            [state],
            [
                Describe("x", Is(state, ("a", odds / (1 + odds)), ("b", 1 / (1 + odds)))),
                Describe("y", Is(state, ("a", 1 / (1 + odds)), ("b", odds / (1 + odds)))),
            ],
            null,
            new SiftOptions { NotOnList = 1e-9, Evidence = EvidenceOptions.Default with { LapseRate = 1e-9 } }
        );
        var lead = Confirm
            .Of(sifter, new ConfirmQuery("x", [See(state, "a")], null, null, GradeRules.QuickList, null, [], false, false))
            .Checks.Single(c => c.Kind == CheckKind.Lead);
        Assert.Contains(words, lead.Reason, StringComparison.Ordinal);
    }
}
