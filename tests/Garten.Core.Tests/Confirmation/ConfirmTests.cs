using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Identification;
using Garten.Core.Seasons;
using Xunit;
using static Garten.Core.Tests.Confirmation.ConfirmFlora;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Confirmation;

public sealed class ConfirmTests
{
    private static readonly Sifter Sifter = MakeSifter();

    private static ConfirmResult Ask(IReadOnlyList<Observation> sheet, string taxon = "alvena-montis") =>
        Confirm.Of(Sifter, Query(sheet, taxon));

    // One rule by itself, at the last grade.
    private static Grade By(GradeRule rule, IReadOnlyList<Observation> sheet, SiftPlace? place = null, Explanation? said = null) =>
        Confirm
            .Of(
                Sifter,
                Query(sheet) with
                {
                    Place = place ?? Hedge,
                    Explanations = said is null ? [] : [said],
                    Rules = new GradeRules("own", "Own", "", [new(Grade.Reasoned), new(Grade.Corroborated), rule]),
                }
            )
            .Grade;

    [Fact]
    public void AllThatCanBeSeenAndNoOtherNameIsConfirmed()
    {
        var result = Ask(Full);
        Assert.Equal((Grade.Confirmed, Grade.Verified), (result.Grade, result.Next));
        Assert.All(result.Checks, c => Assert.Equal(CheckVerdict.Pass, c.Verdict));
        Assert.Equal((ReportKind.Species, "Alvena montis"), (result.ReportAs.Kind, result.ReportAs.Name));
        Assert.Empty(result.Needs);
        Assert.Equal(Grade.Verified, Confirm.Of(Sifter, Query(Full) with { IsSeconded = true }).Grade);
        // A second person doesn't make up for what is missing.
        Assert.Equal(Grade.Tentative, Confirm.Of(Sifter, Query(Full[..1]) with { IsSeconded = true }).Grade);
    }

    [Fact]
    public void WithoutTheFruitItsDoubleStaysOpenAndIsToBeSeenInItsSeason()
    {
        var result = Ask([.. Full.Where(o => o.Character != "fruit")]);
        Assert.True(result.Grade < Grade.Corroborated);
        var palus = result.LookAlikes.Single(l => l.Taxon == "alvena-palus");
        Assert.Equal(
            (false, "fruit", "early September to late October", "fruit: berry, there pod"),
            (palus.IsExcluded, palus.Missing, palus.When, palus.MissingText)
        );
        Assert.All(result.LookAlikes.Where(l => l.Taxon != "alvena-palus"), l => Assert.True(l.IsExcluded));
        var need = Assert.Single(result.Needs, n => n.Character == "fruit");
        Assert.Equal([new DayWindow(244, 304)], need.Windows);
        // The genus holds what the species can't.
        Assert.Equal((ReportKind.Genus, "Alvena"), (result.ReportAs.Kind, result.ReportAs.Name));
    }

    [Fact]
    public void WhatOnlyALaboratoryTellsApartIsReportedAsTheAggregate()
    {
        Observation[] sheet =
        [
            On("2026-06-01", Base, "round"),
            On("2026-06-01", Colour, "red"),
            On("2026-06-01", Sap, "milky"),
            On("2026-09-20", Fruit, "berry"),
            Read(Blade, 50, 55),
        ];
        var result = Ask(sheet, "brontia-alta");
        Assert.Equal((ReportKind.Aggregate, "Brontia alta agg."), (result.ReportAs.Kind, result.ReportAs.Name));
        Assert.Equal(CheckVerdict.Concern, result.Checks.Single(c => c.Kind == CheckKind.LookAlikes).Verdict);
        Assert.Empty(Assert.Single(result.Needs, n => n.Id == "laboratory:brontia-gemina").Windows);
    }

    [Fact]
    public void OneThatStandsBetweenTwoIsSuggestedAsTheirHybrid()
    {
        // Half-way in size, the base of one, the flower of the other, both fruits: neither parent explains it.
        Observation[] sheet =
        [
            On("2026-06-01", Base, "heart"),
            On("2026-06-01", Colour, "yellow"),
            Read(Blade, 96, 98, 100, 95, 99, 97, 101, 96),
        ];
        var result = Ask(sheet);
        Assert.Equal(("Alvena lenta × Alvena montis", 3), (result.Hybrid!.Name, result.Hybrid.Informative));
        Assert.Equal(ReportKind.Hybrid, result.ReportAs.Kind);
        Assert.True(result.Grade < Grade.Corroborated);
        Assert.Null(Ask(Full).Hybrid);
        // Two characters aren't enough.
        Assert.Null(Ask(sheet[..2]).Hybrid);
    }

    [Fact]
    public void ASheetOfAnotherPlantIsNoProof()
    {
        var result = Ask(Full, "alvena-palus");
        Assert.Equal(Grade.Tentative, result.Grade);
        Assert.Equal(CheckVerdict.Fail, result.Checks.Single(c => c.Kind == CheckKind.Lead).Verdict);
        Assert.Contains("Alvena montis is likelier", result.Checks[0].Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void NothingSeenIsAnHonestBeginning()
    {
        var result = Ask([]);
        Assert.Equal((Grade.Tentative, ReportKind.Undetermined), (result.Grade, result.ReportAs.Kind));
        Assert.Contains(result.Needs, n => n.Character == "fruit");
        // The caution stands ahead of any look.
        Assert.Equal("alvena-montis", result.Cautions[0].Taxon);
        Assert.Contains(result.Shots, s => s is { Character: "fruit", ByCamera: true, CanBeSeen: false });
    }

    [Fact]
    public void EveryRuleOfTheGradeTurnsIt()
    {
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, Characters: 5), Full));
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, Characters: 6), Full));
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, Organs: 4), Full));
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, Organs: 5), Full));
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, Phenophases: 3, UnlessSureInOne: false), Full));
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, Phenophases: 4, UnlessSureInOne: false), Full));
        // The taxon has no fourth time of the year to show.
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, Phenophases: 4), Full));
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, OverNext: 3), Full));
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, OverNext: 3), Full[..2]));
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, OverAll: 20), Full));
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, OverAll: 1e9), Full));
        Observation[] noFruit = [.. Full.Where(o => o.Character != "fruit")];
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, Diagnostics: 1), noFruit));
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, Diagnostics: 0.5), noFruit));
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, LookAlikesExcluded: true), noFruit));
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, LookAlikesExcluded: true), Full));
    }

    [Fact]
    public void AConflictIsToBeExplainedOnTheSheet()
    {
        Observation[] odd = [.. Full.Where(o => o.Character != "sap"), On("2026-06-01", Sap, "milky")];
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, NoConflict: true), odd));
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, NoConflict: true), Full));
        Assert.Equal(
            Grade.Confirmed,
            By(new(Grade.Confirmed, NoConflict: true), [.. odd.SkipLast(1), odd[^1] with { Note = "Rust on the stem." }])
        );
    }

    [Fact]
    public void AConcernIsToBeExplainedAndAFailedCheckStops()
    {
        var elsewhere = Hedge with { Cell = "D4" };
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, NoConcern: true), Full));
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, NoConcern: true), Full, elsewhere));
        Assert.Equal(
            Grade.Confirmed,
            By(new(Grade.Confirmed, NoConcern: true), Full, elsewhere, new Explanation(CheckKind.Presence, "Nobody looked there before."))
        );
        Observation[] other = [On("2026-06-01", Base, "wedge"), On("2026-06-01", Colour, "yellow"), Read(Blade, 200, 190)];
        Assert.Equal(Grade.Corroborated, By(new(Grade.Confirmed, NoFail: true), other));
        Assert.Equal(Grade.Confirmed, By(new(Grade.Confirmed, NoFail: true), Full));
    }

    [Theory]
    [InlineData("D4", 100d, "hedge", CheckKind.Presence, "An empty square may be an unvisited one")]
    [InlineData("C3", 100d, "hedge", CheckKind.Presence, "but beside it")]
    [InlineData("B2", 500d, "hedge", CheckKind.Elevation, "At 500 m; it grows at 0 to 300 m.")]
    [InlineData("B2", 100d, "bog", CheckKind.Habitat, "Known from hedge; here is bog.")]
    public void ThePlaceIsChecked(string cell, double metres, string habitat, CheckKind kind, string reason)
    {
        var check = Confirm.Of(Sifter, Query(Full) with { Place = new(cell, metres, [habitat]) }).Checks.Single(c => c.Kind == kind);
        Assert.Equal(CheckVerdict.Concern, check.Verdict);
        Assert.Contains(reason, check.Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void SeasonMaterialAndPlantingAreChecked()
    {
        CheckVerdict Of(CheckKind kind, Func<ConfirmQuery, ConfirmQuery> with) =>
            Confirm.Of(Sifter, with(Query(Full))).Checks.Single(c => c.Kind == kind).Verdict;
        Assert.Equal(CheckVerdict.Concern, Of(CheckKind.Season, q => q with { Observations = [On("2026-12-01", Colour, "white")] }));
        Assert.Equal(
            CheckVerdict.Concern,
            Of(CheckKind.Material, q => q with { Observations = [.. Full.Select(o => o with { Context = new(Stage: Stage.Sapling) })] })
        );
        Assert.Equal(
            CheckVerdict.Concern,
            Of(CheckKind.Material, q => q with { Observations = [Full[0], Full[2] with { Context = new(Attachment: Attachment.Beneath) }] })
        );
        Assert.Equal(CheckVerdict.Pass, Of(CheckKind.Origin, q => q with { IsPlanted = true }));
        Assert.Equal(CheckVerdict.Open, Of(CheckKind.Presence, q => q with { Place = null }));
    }

    [Theory]
    [InlineData(0, -1, 0, "rules[0].characters")]
    [InlineData(2, 3, 12, "rules[2].organs")]
    [InlineData(0, 1, 2, "rules[0].organs")]
    public void RulesThatCanNeverBeMetAreRefusedAtTheirPlace(int at, int characters, int organs, string field)
    {
        var rules = GradeRules.QuickList.Rules.Select((r, i) => i == at ? r with { Characters = characters, Organs = organs } : r).ToList();
        var (where, message) = (GradeRules.QuickList with { Rules = rules }).Problem()!.Value;
        Assert.Equal(field, where);
        Assert.Contains("never be met", message, StringComparison.Ordinal);
        Assert.All(GradeRules.Shipped, r => Assert.Null(r.Problem()));
    }

    [Fact]
    public void TheQuickListIsContentWithOneSureCharacter()
    {
        Observation[] one = [On("2026-06-01", Sap, "milky")];
        Assert.Equal(Grade.Tentative, Confirm.Of(Sifter, Query(one, "brontia-alta")).Grade);
        // The sap leaves two that nothing outdoors tells apart; with one of them off the list it would do.
        Character[] sure = [.. All.Select(c => c.Id == "sap" ? c with { Reliability = 0.999 } : c)];
        var without = Sieve(sure, [.. Described.SkipLast(1)], Taxa, new SiftOptions { NotOnList = 0.001 });
        Assert.Equal(Grade.Confirmed, Confirm.Of(without, Query(one, "brontia-alta") with { Rules = GradeRules.QuickList }).Grade);
        Assert.Equal(Grade.Tentative, Confirm.Of(without, Query(one, "brontia-alta")).Grade);
    }
}
