using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Core.Tests.Keys;

/// <summary>Keys followed with a sheet: odds, standings, forks and weak turns, with the working shown.</summary>
public sealed class KeyBenchTests
{
    private const string Text = """
        Key to the hedge
        1. Leaves opposite ... 2
        1. Leaves alternate ... 3
        2. Twigs winged ... Vellorna alata
        2. Twigs usually round; growing in wet ground by the mill ... Vellorna teres
        3. Leaf 2–4 cm long ... Carpessa parva
        3. Leaf 6–9 cm long ... Carpessa magna
        """;

    private static Character States(string id, Organ organ, double reliability, IReadOnlyList<Phenophase> seen, params string[] states) =>
        new(
            id,
            id,
            organ,
            CharacterKind.Categorical,
            [.. states.Select(s => new CharacterState(s, s, "", [s]))],
            [.. organ == Organ.Leaf ? new[] { "leaf", "leaves" } : ["twig", "twigs"]],
            [],
            reliability,
            0.9,
            10,
            Tool.Eye,
            Handling.Look,
            seen
        );

    private static readonly Character Arrangement = States(
        "arrangement",
        Organ.Leaf,
        0.9,
        [Phenophase.FullLeaf],
        "opposite",
        "alternate",
        "whorled"
    );
    private static readonly Character Wings = States("wings", Organ.Twig, 0.95, [], "winged", "round");
    private static readonly Character Length = new(
        "length",
        "length",
        Organ.Leaf,
        CharacterKind.Length,
        [],
        ["leaf", "leaves"],
        ["long"],
        0.9,
        0.9,
        30,
        Tool.Ruler,
        Handling.Look,
        [Phenophase.FullLeaf]
    );
    private static readonly PhaseWindow[] Seasons = [new(Phenophase.FullLeaf, 5, 1, 10, 20)];
    private static readonly DateOnly Summer = new(2026, 7, 1);

    private static readonly KeyVersion Hedge = new("hedge", KeyTextReader.Read(Text).Keys.Single());
    private static readonly BenchShelf Shelf = new(
        new KeyShelf([Hedge]),
        new CharacterTable([Arrangement, Wings, Length], [], Seasons),
        []
    );

    private static Observation See(Character character, string state, string from = "") =>
        new(
            Guid.NewGuid(),
            character.Id,
            Outcome.Seen,
            [state],
            false,
            [],
            0,
            0,
            Sureness.Sure,
            new(),
            Tool.Eye,
            "2026-07-01",
            "",
            FromCouplet: from
        );

    private static Observation Measure(params double[] values) =>
        new(
            Guid.NewGuid(),
            "length",
            Outcome.Seen,
            [],
            false,
            [.. values.Select(v => new Reading(v, "", 0))],
            0,
            0,
            Sureness.Sure,
            new(),
            Tool.Ruler,
            "2026-07-01",
            ""
        );

    private static BenchState Follow(TrailAnswer[] answers, Observation[] sheet, params HandWeighing[] hand) =>
        KeyBench.Follow(Shelf, "hedge", answers, sheet, hand, Summer);

    private static TrailAnswer Answer(string couplet, int? lead) => new("hedge", couplet, lead);

    [Fact]
    public void OddsOfACoupletOfStates()
    {
        // Opposite seen. Under "opposite": P(u) = 0.98, 0.01, 0.01; P(scored opposite) = 0.98·0.9 + 0.02·0.05 = 0.883.
        // Under "alternate": 0.98·0.05 + 0.01·0.9 + 0.01·0.05 = 0.0585. Softened with ε = 0.01, m = ⅓: 0.877503 and 0.061248; odds 14.327.
        var verdict = Follow([], [See(Arrangement, "opposite")]).Verdicts.Single(v => v.Couplet == "1");
        Assert.Equal(CoupletCall.Leaning, verdict.Call);
        Assert.Equal(0, verdict.Best);
        Assert.Equal((0.99 * 0.883 + 0.01 / 3) / (0.99 * 0.0585 + 0.01 / 3), verdict.Odds, 6);
        Assert.Equal(14.327, verdict.Odds, 2);
        Assert.Equal(StatementFit.Fits, verdict.Leads[0].Statements[0].Fit);
        Assert.Equal(StatementFit.Conflicts, verdict.Leads[1].Statements[0].Fit);
    }

    [Fact]
    public void ALeadWithAWordOfFrequencyAndOneWithout()
    {
        // Winged seen. "winged": 0.98·0.95 + 0.02·0.05 = 0.932. "usually round": 0.15·0.95 + 0.85·0.05 = 0.185.
        var verdict = Follow([Answer("1", 0)], [See(Wings, "winged")]).Verdicts.Single(v => v.Couplet == "2");
        Assert.Equal((0.99 * 0.932 + 0.005) / (0.99 * 0.185 + 0.005), verdict.Odds, 6);
        // The statement that isn't understood is weighed by hand: 0.85 against 0.15.
        Assert.Equal(StatementFit.Unread, verdict.Leads[1].Statements[1].Fit);
        var byHand = Follow([Answer("1", 0)], [], new HandWeighing("hedge", "2", 1, 1, true)).Verdicts.Single(v => v.Couplet == "2");
        Assert.Equal(0.85 / 0.15, byHand.Odds, 9);
        Assert.Equal(1, byHand.Best);
    }

    [Fact]
    public void OddsOfACoupletOfCuts()
    {
        // One leaf of 40 mm, known to 0.15 on the log scale: inside 20–40 with Φ(0) − Φ(ln ½/0.15) = 0.5, inside 60–90 with Φ(5.406) −
        // Φ(2.703) = 0.003435.
        // Factors 0.98·q + 0.02·(1−q): 0.5 and 0.023298; softened with m = ½: 0.5 and 0.028065; odds 17.82.
        var verdict = Follow([Answer("1", 1)], [Measure(40)]).Verdicts.Single(v => v.Couplet == "3");
        Assert.Equal(17.82, verdict.Odds, 1);
        Assert.Equal(0, verdict.Best);
        // 50 mm lies between both cuts: nearer to the larger by its ratio (60/50 < 50/40).
        Assert.Equal(1, Follow([Answer("1", 1)], [Measure(50)]).Verdicts.Single(v => v.Couplet == "3").Best);
    }

    [Fact]
    public void ASilentLeadHasTheComplement()
    {
        var key = new KeyVersion(
            "silent",
            KeyTextReader.Read("Key to a ditch\n1. Twigs winged; leaves whorled ... Aa bus\n1. Twigs round ... Cc dus").Keys.Single()
        );
        var shelf = new BenchShelf(new KeyShelf([key]), Shelf.Table, []);
        // The second lead says nothing of the leaves: it gets the states that the first doesn't name, 0.49 each.
        // Opposite seen: first 0.01·0.9 + 0.98·0.05 + 0.01·0.05 = 0.0585; second 0.49·0.9 + 0.49·0.05 + 0.02·0.05 = 0.4665.
        var verdict = KeyBench.Follow(shelf, "silent", [], [See(Arrangement, "opposite")], [], Summer).Verdicts.Single();
        Assert.Equal((0.99 * 0.4665 + 0.01 / 3) / (0.99 * 0.0585 + 0.01 / 3), verdict.Odds, 6);
        Assert.Equal(1, verdict.Best);
    }

    [Fact]
    public void StandingByAnswersAlone()
    {
        // A sure answer at 1: 0.97 and 0.03; can't tell at 2: both alike; nothing is answered at 3. Two ends under each lead of 1.
        var state = Follow([Answer("1", 0), Answer("2", null)], []);
        Assert.Equal(0.485, state.Ends.Single(e => e.Name == "Vellorna alata").Share, 9);
        Assert.Equal(0.485, state.Ends.Single(e => e.Name == "Vellorna teres").Share, 9);
        Assert.Equal(0.015, state.Ends.Single(e => e.Name == "Carpessa parva").Share, 9);
        Assert.True(state.Ends[0].OnTrail && !state.Ends[^1].OnTrail);
        // Fairly sure: 0.85 and 0.15.
        Assert.Equal(0.425, Follow([Answer("1", 0) with { Sureness = Sureness.Fairly }], []).Ends[0].Share, 9);
        // An answer of whose characters one is on the sheet counts no more: the sheet counts.
        var sheet = Follow([Answer("1", 0)], [See(Arrangement, "alternate")]);
        Assert.StartsWith("Carpessa", sheet.Ends[0].Name, StringComparison.Ordinal);
        Assert.True(sheet.Ends[0].IsProvisional);
    }

    [Fact]
    public void TheSheetAnswersWhatItDecidesAndCanBeOverruled()
    {
        Observation[] clear = [See(Arrangement, "opposite"), See(Wings, "winged")];
        // 14 to 1 doesn't decide couplet 1; with a finer observer it does.
        Assert.Empty(Follow([], clear).BySheet);
        var sure = new BenchShelf(
            new KeyShelf([Hedge]),
            new CharacterTable([Arrangement with { Reliability = 0.97 }, Wings with { Reliability = 0.99 }, Length], [], Seasons),
            []
        );
        var state = KeyBench.Follow(sure, "hedge", [], clear, [], Summer);
        Assert.Equal([Answer("1", 0)], state.BySheet);
        Assert.Equal("2", state.Walk.Open.Single().Couplet.Label);
        var overruled = KeyBench.Follow(sure, "hedge", [Answer("1", 1)], clear, [], Summer);
        Assert.Equal([Answer("1", 1)], overruled.Against);
        Assert.Equal("3", overruled.Walk.Open.Single().Couplet.Label);
        // A fork is closed as soon as the sheet decides its couplet, and open again when the look is taken back.
        var fork = KeyBench.Follow(sure, "hedge", [Answer("1", null)], [], [], Summer);
        Assert.Equal(2, fork.Walk.Open.Count);
        Assert.Equal(1, fork.Paths.Sum(p => p.Share), 9);
        var closed = KeyBench.Follow(sure, "hedge", [Answer("1", null)], clear, [], Summer);
        Assert.Equal([Answer("1", 0)], closed.BySheet);
        Assert.Equal("2", closed.Walk.Open.Single().Couplet.Label);
        Assert.Single(closed.Answers, a => a.Couplet == "1");
    }

    [Fact]
    public void TheWeakestTurnIsWhereTheProbabilityLeftTheTrail()
    {
        // Alternate was answered; opposite twigs with wings are on the sheet: what lies under lead a of couplet 1 holds nearly all.
        var state = Follow([Answer("1", 1), Answer("3", 0)], [See(Wings, "winged"), See(Arrangement, "opposite")]);
        var turn = state.Turns[0];
        Assert.Equal(("1", 0, "Vellorna alata"), (turn.Couplet, turn.Lead, turn.Best));
        // By the sheet alone, the shares of the ends: what couplet 1 and couplet 3 left behind, and what stands, make 1.
        Assert.True(turn.Probability > 0.9);
        Assert.Equal("arrangement", turn.Character);
        // What landed on the sheet at the couplet itself doesn't speak for it.
        var own = Follow([Answer("1", 1), Answer("3", 0)], [See(Arrangement, "alternate", "hedge#1"), See(Wings, "winged")]);
        Assert.Equal("1", own.Turns[0].Couplet);
    }

    [Fact]
    public void CoupletsThatCantBeAnsweredToday()
    {
        var winter = KeyOutlook.Of(Shelf, "hedge", new DateOnly(2026, 1, 15), [Tool.Ruler], Handling.Look);
        Assert.Equal(["1", "3"], winter.Blocked.Select(b => b.Couplet).Order());
        Assert.All(winter.Blocked, b => Assert.Equal(BlockReason.Season, b.Reason));
        Assert.Equal(4, winter.TaxaBlocked);
        // In summer only the ruler is missing.
        var blocked = Assert.Single(KeyOutlook.Of(Shelf, "hedge", Summer, [], Handling.Look).Blocked);
        Assert.Equal(("3", BlockReason.Tool, 2), (blocked.Couplet, blocked.Reason, blocked.TaxaBehind));
    }

    [Fact]
    public void ProvisionalDescriptionsAreWhatTheLeadsSay()
    {
        var provisional = Shelf.Provisional("hedge");
        Assert.All(provisional.Values, d => Assert.True(d.IsProvisional));
        var teres = provisional["Vellorna teres"].Characters;
        Assert.Equal(0.98, teres.Single(c => c.Character == "arrangement").States.Single(s => s.State == "opposite").Share, 9);
        Assert.Equal(0.85, teres.Single(c => c.Character == "wings").States.Single(s => s.State == "round").Share, 9);
        Assert.Equal(
            (20, 40),
            (
                provisional["Carpessa parva"].Characters.Single(c => c.Character == "length").Range!.Low,
                provisional["Carpessa parva"].Characters.Single(c => c.Character == "length").Range!.High
            )
        );
    }
}
