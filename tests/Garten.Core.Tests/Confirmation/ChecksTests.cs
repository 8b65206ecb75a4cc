using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Xunit;
using static Garten.Core.Tests.Confirmation.ConfirmFlora;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Confirmation;

/// <summary>Every check in each of its verdicts, with what it says and what would change it.</summary>
public sealed class ChecksTests
{
    private static readonly Sifter Sifter = MakeSifter();

    private static ConfirmCheck Check(CheckKind kind, Func<ConfirmQuery, ConfirmQuery> with, Sifter? sifter = null) =>
        Confirm.Of(sifter ?? Sifter, with(Query(Full))).Checks.Single(c => c.Kind == kind);

    // The same flora with other facts about the name.
    private static ConfirmCheck Told(
        CheckKind kind,
        Func<TaxonFacts, TaxonFacts> facts,
        Func<ConfirmQuery, ConfirmQuery>? with = null,
        string rank = "species"
    ) =>
        Check(
            kind,
            with ?? (q => q),
            Sieve(
                All,
                Described,
                [Taxa[0] with { Facts = facts(Taxa[0].Facts!), Rank = rank }, .. Taxa[1..]],
                new SiftOptions { NotOnList = 0.001 }
            )
        );

    private static void Is(ConfirmCheck check, CheckVerdict verdict, string reason)
    {
        Assert.Contains(reason, check.Reason, StringComparison.Ordinal);
        Assert.Equal(verdict, check.Verdict);
        // What isn't passed says what would change it.
        Assert.Equal(verdict != CheckVerdict.Pass, check.Change.Length > 0);
    }

    [Fact]
    public void OnASoundSheetEveryKindIsCheckedOnce() =>
        Assert.Equal(Enum.GetValues<CheckKind>(), Confirm.Of(Sifter, Query(Full)).Checks.Select(c => c.Kind));

    [Fact]
    public void OfAnEmptySheetMuchIsOpenAndNothingFails()
    {
        var checks = Confirm.Of(Sifter, Query([])).Checks;
        Assert.DoesNotContain(checks, c => c.Verdict is CheckVerdict.Fail or CheckVerdict.Concern);
        Is(checks.Single(c => c.Kind == CheckKind.Lead), CheckVerdict.Open, "Nothing that counts has been seen yet.");
        Is(checks.Single(c => c.Kind == CheckKind.Conflicts), CheckVerdict.Open, "Nothing that counts");
        Is(checks.Single(c => c.Kind == CheckKind.Coverage), CheckVerdict.Open, "Nothing of the plant");
        Is(checks.Single(c => c.Kind == CheckKind.Material), CheckVerdict.Open, "no material yet");
    }

    [Fact]
    public void Lead()
    {
        Is(Check(CheckKind.Lead, q => q), CheckVerdict.Pass, "By what was seen it holds 98 %.");
        // Two names share what was seen.
        Is(Check(CheckKind.Lead, q => q with { Observations = Full[..2] }), CheckVerdict.Open, "Other names share the rest.");
        Is(Check(CheckKind.Lead, q => q with { Taxon = "alvena-palus" }), CheckVerdict.Fail, "Alvena montis is likelier");
        Observation[] odd =
        [
            On("2026-06-01", Base, "wedge"),
            On("2026-06-01", Colour, "red"),
            On("2026-09-20", Fruit, "nut"),
            On("2026-06-01", Sap, "milky"),
            Read(Blade, 900),
        ];
        Is(
            Check(CheckKind.Lead, q => q with { Observations = odd }, Sieve(All, Described, Taxa)),
            CheckVerdict.Fail,
            "A plant that isn’t on this list is likelier"
        );
    }

    [Fact]
    public void Diagnostics()
    {
        Is(Check(CheckKind.Diagnostics, q => q), CheckVerdict.Pass, "Seen:");
        var missing = Check(CheckKind.Diagnostics, q => q with { Observations = [.. Full.Where(o => o.Character != "fruit")] });
        Is(missing, CheckVerdict.Open, "missing: fruit: berry");
        Assert.Equal("Come back in early September to late October for fruit.", missing.Change);
        // In its season it is looked at at once.
        Assert.Equal(
            "Look now at fruit.",
            Check(CheckKind.Diagnostics, q =>
                q with
                {
                    Observations = [.. Full.Where(o => o.Character != "fruit")],
                    Day = new DateOnly(2026, 9, 10),
                }
            ).Change
        );
        // A flora of one taxon names nothing that it would have to be told from.
        Is(
            Check(CheckKind.Diagnostics, q => q, Sieve(All, Described[..1], Taxa[..1])),
            CheckVerdict.Open,
            "names nothing that it would have to be told from"
        );
    }

    [Fact]
    public void LookAlikes()
    {
        Is(Check(CheckKind.LookAlikes, q => q), CheckVerdict.Pass, "Excluded: Alvena palus");
        var open = Check(CheckKind.LookAlikes, q => q with { Observations = [.. Full.Where(o => o.Character != "fruit")] });
        Is(open, CheckVerdict.Open, "Still open: Alvena palus.");
        Assert.Contains("early September to late October", open.Change, StringComparison.Ordinal);
        Is(
            Check(CheckKind.LookAlikes, q => q with { Taxon = "alvena-palus" }),
            CheckVerdict.Fail,
            "What was seen speaks for Alvena montis"
        );
        Is(
            Check(CheckKind.LookAlikes, q => q, Sieve(All, Described[..1], Taxa[..1])),
            CheckVerdict.Pass,
            "Nothing on the list comes near it."
        );
    }

    [Fact]
    public void Conflicts()
    {
        Is(Check(CheckKind.Conflicts, q => q), CheckVerdict.Pass, "Nothing seen conflicts.");
        var long90 = Read(Blade, 90, 92, 91);
        Is(
            Check(CheckKind.Conflicts, q => q with { Observations = [long90] }),
            CheckVerdict.Fail,
            "blade: seen 9.1 cm (mean of 3, 9 cm to 9.2 cm), described (30–)40–60(–70) mm"
        );
        Is(
            Check(CheckKind.Conflicts, q => q with { Observations = [long90 with { Note = "Grown in deep shade." }] }),
            CheckVerdict.Pass,
            "1 in conflict, explained in the evidence."
        );
        // A note of spaces explains nothing.
        Is(Check(CheckKind.Conflicts, q => q with { Observations = [long90 with { Note = "  " }] }), CheckVerdict.Fail, "blade");
    }

    [Fact]
    public void Coverage()
    {
        Is(Check(CheckKind.Coverage, q => q), CheckVerdict.Pass, "5 characters of leaf, flower, fruit, stem; from leaf, flower, fruit.");
        var leaf = Check(CheckKind.Coverage, q => q with { Observations = [Full[0]] });
        Is(leaf, CheckVerdict.Open, "1 character of leaf; from leaf.");
        Assert.Contains("flower", leaf.Change, StringComparison.Ordinal);
        Assert.Contains("fruit", leaf.Change, StringComparison.Ordinal);
        Is(
            Check(CheckKind.Coverage, q => q with { Observations = [Full[3]] }),
            CheckVerdict.Open,
            "none of them tied to a time of the year"
        );
    }

    [Fact]
    public void Material()
    {
        ConfirmCheck With(Func<Observation, int, Observation> change) =>
            Check(CheckKind.Material, q => q with { Observations = [.. Full.Select(change)] });
        Is(With((o, _) => o), CheckVerdict.Pass, "Grown material on the plant itself.");
        Is(With((o, _) => o with { Context = new(Stage: Stage.Seedling) }), CheckVerdict.Concern, "All observations are of a young plant.");
        // One look at a grown one is enough.
        Is(With((o, i) => i == 0 ? o : o with { Context = new(Stage: Stage.Sapling) }), CheckVerdict.Pass, "Grown material");
        Is(With((o, _) => o with { Context = new(Shaping: Shaping.Browsed) }), CheckVerdict.Concern, "browsed, mown or cut throughout");
        Is(
            With((o, i) => i == 2 ? o with { Context = new(Attachment: Attachment.PerhapsNeighbours) } : o),
            CheckVerdict.Concern,
            "Not on the plant itself: fruit."
        );
    }

    [Fact]
    public void Season()
    {
        Is(Check(CheckKind.Season, q => q), CheckVerdict.Pass, "What was seen is what it shows at that time.");
        var late = Check(CheckKind.Season, q =>
            q with
            {
                Observations = [.. Full, On("2025-12-01", Colour, "white"), On("2024-12-03", Colour, "white")],
            }
        );
        Is(late, CheckVerdict.Concern, "Out of its season: colour in early December.");
        // What was out of reach wasn't seen.
        Is(
            Check(CheckKind.Season, q =>
                q with
                {
                    Observations = [.. Full, On("2025-12-01", Colour, "white") with { Outcome = Outcome.OutOfReach }],
                }
            ),
            CheckVerdict.Pass,
            "What was seen"
        );
        Is(Told(CheckKind.Season, f => f with { Phenology = [] }), CheckVerdict.Open, "The flora doesn’t say when");
    }

    [Fact]
    public void Presence()
    {
        Is(Check(CheckKind.Presence, q => q), CheckVerdict.Pass, "Recorded in B2.");
        Is(Check(CheckKind.Presence, q => q with { Place = Hedge with { Cell = "b2" } }), CheckVerdict.Pass, "Recorded in b2.");
        Is(
            Check(CheckKind.Presence, q => q with { Place = Hedge with { Cell = "C3" } }),
            CheckVerdict.Concern,
            "Not recorded in C3, but beside it."
        );
        Is(
            Check(CheckKind.Presence, q => q with { Place = Hedge with { Cell = "F9" } }),
            CheckVerdict.Concern,
            "Not recorded in F9 or beside it."
        );
        Is(Check(CheckKind.Presence, q => q with { Place = null }), CheckVerdict.Open, "The grid cell of the place isn’t known.");
        Is(Told(CheckKind.Presence, f => f with { Cells = [] }), CheckVerdict.Open, "The flora doesn’t say where it is recorded.");
    }

    [Theory]
    [InlineData(0, CheckVerdict.Pass, "At 0 m, within 0 to 300 m.")]
    [InlineData(300, CheckVerdict.Pass, "At 300 m, within 0 to 300 m.")]
    [InlineData(301, CheckVerdict.Concern, "At 301 m; it grows at 0 to 300 m.")]
    public void Elevation(double metres, CheckVerdict verdict, string reason) =>
        Is(Check(CheckKind.Elevation, q => q with { Place = Hedge with { Elevation = metres } }), verdict, reason);

    [Fact]
    public void ElevationThatIsNotKnown()
    {
        Is(
            Check(CheckKind.Elevation, q => q with { Place = Hedge with { Elevation = null } }),
            CheckVerdict.Open,
            "How high the place lies isn’t known."
        );
        Is(
            Told(CheckKind.Elevation, f => f with { ElevationFrom = null, ElevationTo = null }),
            CheckVerdict.Open,
            "The flora doesn’t say how high it grows."
        );
    }

    [Fact]
    public void Habitat()
    {
        Is(Check(CheckKind.Habitat, q => q), CheckVerdict.Pass, "Grows in hedge.");
        Is(
            Check(CheckKind.Habitat, q => q with { Place = Hedge with { Habitats = ["bog", "HEDGE"] } }),
            CheckVerdict.Pass,
            "Grows in hedge."
        );
        Is(
            Check(CheckKind.Habitat, q => q with { Place = Hedge with { Habitats = ["bog"] } }),
            CheckVerdict.Concern,
            "Known from hedge; here is bog."
        );
        Is(
            Check(CheckKind.Habitat, q => q with { Place = Hedge with { Habitats = [] } }),
            CheckVerdict.Open,
            "The habitats of the place aren’t known."
        );
        Is(Told(CheckKind.Habitat, f => f with { Habitats = [] }), CheckVerdict.Open, "The flora doesn’t say in what habitats");
    }

    [Fact]
    public void OriginOfThePlantAndOfTheTaxon()
    {
        Is(Check(CheckKind.Origin, q => q), CheckVerdict.Pass, "Native here.");
        Is(Check(CheckKind.Origin, q => q with { IsPlanted = true }), CheckVerdict.Pass, "Planted here");
        Is(Told(CheckKind.Origin, f => f with { Origin = Origin.Introduced }), CheckVerdict.Pass, "Introduced, established.");
        Is(
            Told(CheckKind.Origin, f => f with { Origin = Origin.Introduced, Establishment = "naturalised" }),
            CheckVerdict.Pass,
            "Introduced, naturalised."
        );
        Is(
            Told(CheckKind.Origin, f => f with { Origin = Origin.Introduced, Establishment = "planted" }),
            CheckVerdict.Concern,
            "It is planted here: this one may have been planted."
        );
        Is(Told(CheckKind.Origin, f => f, rank: "cultivar"), CheckVerdict.Concern, "a cultivated form");
        Is(
            Told(CheckKind.Origin, f => f, q => q with { IsPlanted = false }, "cultivar"),
            CheckVerdict.Pass,
            "Not planted, as far as can be seen."
        );
        Is(Told(CheckKind.Origin, f => f with { Origin = Origin.Doubtful }), CheckVerdict.Open, "Nobody knows how it came here.");
    }

    [Fact]
    public void OfAListOfOneTheRestIsAPlantThatIsNotOnIt()
    {
        var result = Confirm.Of(Sieve(All, Described[..1], Taxa[..1], new SiftOptions { NotOnList = 0.3 }), Query(Full[..1]));
        Assert.Equal(ReportKind.Undetermined, result.ReportAs.Kind);
        Assert.Contains("a plant that isn’t on this list", result.ReportAs.Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void AnExplanationStandsAtItsCheck()
    {
        var check = Check(CheckKind.Presence, q =>
            q with
            {
                Place = Hedge with { Cell = "F9" },
                Explanations = [new Explanation(CheckKind.Presence, "Nobody looked there before.")],
            }
        );
        Assert.Equal((CheckVerdict.Concern, "Nobody looked there before."), (check.Verdict, check.Explained));
        Assert.Empty(
            Check(CheckKind.Habitat, q => q with { Explanations = [new Explanation(CheckKind.Presence, "Elsewhere.")] }).Explained
        );
    }

    [Fact]
    public void CautionsOfWhatItMayStillBeStandBeforeTheHandling()
    {
        Assert.Equal("Its sap blisters.", Confirm.Of(Sifter, Query(Full)).Cautions[0].Note);
        // By leaf and flower it may still be the one that blisters.
        var other = Confirm.Of(Sifter, Query(Full[..2], "alvena-palus"));
        Assert.Contains(other.Cautions, c => c.Taxon == "alvena-montis" && c.Cautions.Contains(Caution.Irritant));
        // Once it is out of the question nobody needs to be warned of it.
        Observation[] sheet =
        [
            On("2026-06-01", Base, "round"),
            On("2026-06-01", Colour, "red"),
            On("2026-06-01", Sap, "milky"),
            Read(Blade, 50, 55),
        ];
        Assert.Empty(Confirm.Of(Sifter, Query(sheet, "brontia-alta")).Cautions);
    }

    [Theory]
    [InlineData(0.5, 0, 0, false, "rules[1].overNext")]
    [InlineData(double.NaN, 0, 0, false, "rules[1].overNext")]
    [InlineData(1, -1, 0, false, "rules[1].overAll")]
    [InlineData(1, double.PositiveInfinity, 0, false, "rules[1].overAll")]
    [InlineData(1, 0, 1.01, false, "rules[1].diagnostics")]
    [InlineData(1, 0, -0.1, false, "rules[1].diagnostics")]
    [InlineData(1, 0, 0, true, "rules[1].phenophases")]
    public void NumbersOfARuleThatMeanNothingAreRefused(double overNext, double overAll, double diagnostics, bool manyTimes, string field)
    {
        var rules = GradeRules
            .ConfirmedList.Rules.Select(
                (r, i) =>
                    i == 1
                        ? r with
                        {
                            OverNext = overNext,
                            OverAll = overAll,
                            Diagnostics = diagnostics,
                            Phenophases = manyTimes ? 6 : 0,
                        }
                        : r
            )
            .ToList();
        Assert.Equal(field, (GradeRules.ConfirmedList with { Rules = rules }).Problem()?.Field);
    }

    [Fact]
    public void ThereIsARuleForEachGradeInTheirOrder()
    {
        Assert.Equal("rules", (GradeRules.ConfirmedList with { Rules = [] }).Problem()?.Field);
        Assert.Equal("rules", (GradeRules.ConfirmedList with { Rules = [.. GradeRules.ConfirmedList.Rules.Reverse()] }).Problem()?.Field);
    }
}
