using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Core.Packs;
using Xunit;

namespace Garten.Formats.Tests;

/// <summary>What one character says of another one, by the vocabulary that ships.</summary>
public sealed class BearingTests
{
    private static readonly BotanyIndex Botany = ShippedVocabulary.Botany;

    [Theory]
    [InlineData("leaf.arrangement", "decussate", "leaf.arrangement", "opposite", Bears.Entails)]
    [InlineData("leaf.arrangement", "opposite", "leaf.arrangement", "decussate", Bears.Open)]
    [InlineData("leaf.arrangement", "spiral", "leaf.arrangement", "opposite", Bears.Excludes)]
    [InlineData("leaf.apex", "acute", "leaf.apex", "acuminate", Bears.Open)]
    [InlineData("plant.hair-density", "glabrous", "petiole.hair-density", "glabrous", Bears.Entails)]
    [InlineData("plant.hair-density", "glabrous", "petiole.hair-density", "dense", Bears.Excludes)]
    [InlineData("petiole.hair-density", "dense", "plant.hair-density", "glabrous", Bears.Excludes)]
    [InlineData("petiole.hair-density", "glabrous", "plant.hair-density", "hairy", Bears.Open)]
    [InlineData("twig.hair-form", "forked", "twig.hair-density", "hairy", Bears.Entails)]
    [InlineData("twig.hair-form", "forked", "twig.hair-density", "glabrous", Bears.Excludes)]
    [InlineData("twig.hair-form", "forked", "twig.hair-form", "simple", Bears.Open)]
    [InlineData("leaf.hair-density", "glabrous", "leaf.hair-density@beneath", "sparse", Bears.Excludes)]
    [InlineData("leaf.hair-density@beneath", "sparse", "leaf.hair-density@above", "glabrous", Bears.Open)]
    [InlineData("petal.presence", "absent", "petal.colour", "red", Bears.Excludes)]
    [InlineData("petal.colour", "red", "petal.presence", "absent", Bears.Excludes)]
    [InlineData("petal.colour", "red", "petal.presence", "present", Bears.Entails)]
    [InlineData("twig-hairs", "star-hairs", "twig.hair-form", "star", Bears.Entails)]
    [InlineData("twig-hairs", "bald", "twig.hair-density", "dense", Bears.Excludes)]
    [InlineData("twig-hairs", "bald", "leaf.hair-density", "dense", Bears.Open)]
    [InlineData("leaf-division", "ternate", "leaf.division", "compound", Bears.Entails)]
    [InlineData("stipules", "absent", "stipule.hair-density", "dense", Bears.Excludes)]
    public void OneCharacterSpeaksOfAnother(string from, string state, string to, string other, Bears says) =>
        Assert.Equal(says, Botany.Bearing.Of(from, state, to, other));

    [Fact]
    public void NoStateSaysItsOwnOppositeOnAnyPart()
    {
        foreach (var part in Botany.Vocabulary.Parts.Where(p => !p.IsOwned))
        {
            foreach (var quality in Botany.Vocabulary.Qualities)
            {
                foreach (var state in quality.States)
                {
                    var all = Botany.Bearing.Closure(new Saying(new CharacterId("", part.Id, quality.Id, ""), state.Id));
                    foreach (var a in all)
                    {
                        foreach (var b in all)
                            Assert.False(Botany.Bearing.Of(a, b) == Bears.Excludes, $"{part.Id}.{quality.Id}={state.Id}: {a} {b}");
                    }
                }
            }
        }
    }

    [Fact]
    public void EntailingGoesOnAndExcludingGoesBothWays()
    {
        foreach (var quality in Botany.Vocabulary.Qualities)
        {
            Bears Of(string a, string b) => Botany.Bearing.Of($"plant.{quality.Id}", a, $"plant.{quality.Id}", b);
            foreach (var a in quality.States)
            {
                Assert.Equal(Bears.Entails, Of(a.Id, a.Id));
                foreach (var b in quality.States)
                {
                    Assert.Equal(Of(a.Id, b.Id) == Bears.Excludes, Of(b.Id, a.Id) == Bears.Excludes);
                    foreach (var c in quality.States.Where(c => Of(a.Id, b.Id) == Bears.Entails && Of(b.Id, c.Id) == Bears.Entails))
                        Assert.Equal(Bears.Entails, Of(a.Id, c.Id));
                }
            }
        }
    }

    private static Character Made(string id) => Botany.Compose(id)!;

    internal static Observation Seen(string character, string state) =>
        new(
            Guid.NewGuid(),
            character,
            Outcome.Seen,
            [state],
            false,
            [],
            0,
            0,
            Sureness.Sure,
            new ObservationContext(),
            Tool.Lens,
            "2026-06-01",
            ""
        );

    private static ReadyFlora Flora(
        IReadOnlyList<Character> characters,
        params (string Taxon, (string Character, string State)[] Cells)[] taxa
    )
    {
        var table = new CharacterTable(
            characters,
            [
                .. taxa.Select(t => new TaxonDescription(
                    t.Taxon,
                    [.. t.Cells.Select(c => new CharacterDescription(c.Character, [new StateShare(c.State, 1)]))]
                )),
            ],
            []
        );
        return ReadyFlora
            .Read(
                PackFile.Write(
                    new Flora("f", "F", [.. taxa.Select(t => new Taxon(t.Taxon, t.Taxon, "", "species", "", "", "", [], ""))], table)
                )
            )
            .With(Botany);
    }

    private static double Probability(ReadyFlora flora, string taxon, params Observation[] looks) =>
        flora.Sifter.Ranked(new SiftQuery(looks)).Probability[flora.Sifter.Columns.IndexOf(taxon)];

    [Fact]
    public void ALookAtWhatNobodyDescribedCountsAsFarAsSomethingFollows()
    {
        var older = ShippedGlossary.Characters.Single(c => c.Id == "twig-hairs");
        var flora = Flora(
            [older],
            ("bald", [("twig-hairs", "bald")]),
            ("starry", [("twig-hairs", "star-hairs")]),
            ("soft", [("twig-hairs", "soft-hairs")])
        );
        var star = Seen("twig.hair-form", "star");
        Assert.True(Probability(flora, "starry", star) > 2 * Probability(flora, "bald", star));
        Assert.True(Probability(flora, "soft", star) > Probability(flora, "bald", star));
        // Of another part nothing follows: the list stays as it is.
        var petal = Seen("petal.hair-form", "star");
        Assert.Equal(Probability(flora, "starry"), Probability(flora, "starry", petal), 9);
    }

    /// <summary>Of a part that isn't there nothing was seen; descriptions that contradict one another say nothing, instead of
    /// that.</summary>
    [Fact]
    public void AContradictionIsUnknownAndNotAnAbsence()
    {
        var (stalk, whole, form) = (Made("petiole.presence"), Made("plant.hair-density"), Made("petiole.hair-form"));
        CharacterDescription? Follows(params (Character Character, string State)[] cells) =>
            new DerivedDescriptions(Botany, [stalk, whole, form]).Of(
                Made("petiole.hair-density"),
                [.. Made("petiole.hair-density").States.Select(_ => 1d)],
                c =>
                    cells.FirstOrDefault(x => x.Character.Id == c.Id) is { Character: not null } cell
                        ? new CharacterDescription(c.Id, [new StateShare(cell.State, 1)])
                        : null
            );
        Assert.False(Follows((stalk, "absent"))!.Applies);
        Assert.Equal(["glabrous", "glabrescent"], Follows((whole, "glabrous"))!.States.Select(s => s.State));
        Assert.Null(Follows((whole, "glabrous"), (form, "forked")));
    }

    [Fact]
    public void TheSameLookUnderTwoNamesCountsOnce()
    {
        var older = ShippedGlossary.Characters.Single(c => c.Id == "twig-hairs");
        var flora = Flora([older], ("bald", [("twig-hairs", "bald")]), ("starry", [("twig-hairs", "star-hairs")]));
        var (first, second) = (Seen("twig-hairs", "bald"), Seen("twig.hair-density", "glabrous"));
        var once = Probability(flora, "bald", first);
        var twice = Probability(flora, "bald", first, second);
        Assert.Equal(once, twice, 1);
        Assert.All(flora.Sifter.ItemsOf([first, second]), i => Assert.Equal(0.5, i.Weight));
    }

    /// <summary>Kind and density of a coat are two looks, but where a flora says only "hairs of the twig" both are held against
    /// that.</summary>
    [Fact]
    public void TwoLooksThatFollowFromOneDescriptionCountAsOne()
    {
        var older = ShippedGlossary.Characters.Single(c => c.Id == "twig-hairs");
        var flora = Flora([older], ("bald", [("twig-hairs", "bald")]), ("starry", [("twig-hairs", "star-hairs")]));
        Observation[] looks = [Seen("twig.hair-form", "star"), Seen("twig.hair-density", "dense")];
        Assert.All(flora.Sifter.ItemsOf(looks), i => Assert.Equal(0.5, i.Weight));
        // Where both are described each is held against its own.
        var own = Flora(
            [Made("twig.hair-form"), Made("twig.hair-density")],
            ("bald", [("twig.hair-density", "glabrous")]),
            ("starry", [("twig.hair-form", "star"), ("twig.hair-density", "dense")])
        );
        Assert.All(own.Sifter.ItemsOf(looks), i => Assert.Equal(1, i.Weight));
    }

    /// <summary>A couplet is answered by what follows from a look at something else, and a conflict with that is one.</summary>
    [Fact]
    public void ACoupletIsWeighedByWhatFollowsFromOtherLooks()
    {
        const string text = """
            Key to the hedge
            1. Petioles glabrous ... Vellorna alata
            1. Petioles densely hairy ... Vellorna teres
            """;
        var table = new CharacterTable([Made("petiole.hair-density")], [], []) { Botany = Botany };
        var shelf = new BenchShelf(new KeyShelf([new KeyVersion("hedge", KeyTextReader.Read(text).Keys.Single())]), table, []);
        CoupletVerdict Verdict(params Observation[] sheet) =>
            KeyBench.Follow(shelf, "hedge", [], sheet, [], new DateOnly(2026, 7, 1)).Verdicts.Single();
        var bald = Verdict(Seen("plant.hair-density", "glabrous"));
        Assert.Equal(0, bald.Best);
        Assert.Equal(StatementFit.Fits, bald.Leads[0].Statements[0].Fit);
        Assert.Equal(StatementFit.Conflicts, bald.Leads[1].Statements[0].Fit);
        Assert.Equal(1, Verdict(Seen("petiole.hair-form", "star")).Best);
        // A hairy plant may have bald petioles.
        Assert.Equal(CoupletCall.Unseen, Verdict(Seen("plant.hair-density", "hairy")).Call);
        // A look at the character itself goes before what follows from others.
        Assert.Equal(1, Verdict(Seen("plant.hair-density", "glabrous"), Seen("petiole.hair-density", "dense")).Best);
    }

    [Fact]
    public void AKindOfAStateFitsWhatIsSaidInGeneral()
    {
        var arrangement = Made("leaf.arrangement");
        var flora = Flora(
            [arrangement],
            ("alternate", [("leaf.arrangement", "alternate")]),
            ("spiral", [("leaf.arrangement", "spiral")]),
            ("opposite", [("leaf.arrangement", "opposite")])
        );
        var spiral = Seen("leaf.arrangement", "spiral");
        Assert.True(Probability(flora, "spiral", spiral) > Probability(flora, "alternate", spiral));
        Assert.True(Probability(flora, "alternate", spiral) > 3 * Probability(flora, "opposite", spiral));
        var alternate = Seen("leaf.arrangement", "alternate");
        Assert.Equal(Probability(flora, "spiral", alternate), Probability(flora, "alternate", alternate), 2);
        // What may be the same doesn't tell two taxa apart.
        var both = new[] { "alternate", "spiral" }.Select(s => new CharacterDescription(arrangement.Id, [new StateShare(s, 1)])).ToArray();
        Assert.Equal(0, Separation.Of(arrangement, both[0], both[1], new Likelihood([])), 9);
    }

    [Fact]
    public void TwoTaxaThatDifferOnlyInHairsOfTheRachisAreToldApart()
    {
        var hairs = Made("rachis.hair-density");
        var flora = Flora([hairs], ("bare", [(hairs.Id, "glabrous")]), ("downy", [(hairs.Id, "dense")]));
        var row = Assert.Single(Contrast.Of(flora.Sifter, new ContrastQuery(["bare", "downy"], [], null, [])).Rows);
        Assert.Equal(hairs.Id, row.Character);
        Assert.Equal(1, row.Best, 6);
    }

    /// <summary>What was made twice is merged: looks at the one count for the other, and nothing of them is lost.</summary>
    [Fact]
    public void WhatIsMergedCountsForWhatItWasMergedInto()
    {
        var vocabulary = Botany.Vocabulary;
        var hairs = Botany.Quality("hair-form")!;
        var twice = hairs with { States = [.. hairs.States, new QualityState("stellar", "stellar", "", "", [], "Rays.", "star")] };
        var stalk = new Part(
            "leaf-foot",
            "leaf",
            PartClass.Axis,
            Organ.Leaf,
            [],
            ["leaf foot"],
            [],
            [],
            Tool.Eye,
            Handling.Look,
            "The stalk.",
            "petiole"
        );
        var merged = new BotanyIndex(
            vocabulary with
            {
                Parts = [.. vocabulary.Parts, stalk],
                Qualities = [.. vocabulary.Qualities.Select(q => q.Id == hairs.Id ? twice : q)],
            }
        );
        Assert.Empty(VocabularyCheck.Problems(merged.Vocabulary));
        Assert.Equal(Bears.Entails, merged.Bearing.Of("leaf-foot.hair-form", "stellar", "petiole.hair-form", "star"));
        Assert.Equal(Bears.Excludes, merged.Bearing.Of("leaf-foot.hair-density", "dense", "petiole.hair-density", "glabrous"));
        Assert.True(merged.Compose("petiole.hair-form")!.IndexOf("stellar") > 0);
        Assert.DoesNotContain(merged.Search.Find("leaf foot"), f => f.Character.Id.StartsWith("leaf-foot", StringComparison.Ordinal));
        var round = twice with { States = [.. twice.States.Select(s => s.Id == "star" ? s with { ReplacedBy = "stellar" } : s)] };
        Assert.Contains(
            VocabularyCheck.Problems(vocabulary with { Qualities = [.. vocabulary.Qualities.Select(q => q.Id == hairs.Id ? round : q)] }),
            p => p.Message.Contains("merged into itself", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void PacksKeepKindsOfStatesAndLeaveOutWhatIsUnknown()
    {
        var characters = Botany
            .Vocabulary.Parts.Where(p => !p.IsOwned)
            .SelectMany(p =>
                Botany.Vocabulary.Qualities.Where(q => !q.IsQuantity && BotanyIndex.IsUsual(p, q)).Select(q => $"{p.Id}.{q.Id}")
            )
            .Select(Botany.Compose)
            .OfType<Character>()
            .Take(1000)
            .ToList();
        var random = new Random(16);
        var descriptions = Enumerable
            .Range(0, 300)
            .Select(t => new TaxonDescription(
                $"t{t}",
                [
                    .. characters
                        .Where(_ => random.NextDouble() < 0.05)
                        .Select(c => new CharacterDescription(c.Id, [new StateShare(c.States[random.Next(c.States.Count)].Id, 1)])),
                ]
            ))
            .ToList();
        var flora = new Flora(
            "sparse",
            "Sparse",
            [.. descriptions.Select(d => new Taxon(d.Taxon, d.Taxon, "", "species", "", "", "", [], ""))],
            new CharacterTable(characters, descriptions, [])
        );
        var bytes = PackFile.Write(flora);
        var read = PackFile.Read(bytes);
        // Definitions are read beside the pack.
        Assert.Equal(characters[0].States.Select(s => s with { Definition = "" }), read.Columns.Columns[0].Character.States, SameState);
        foreach (var description in descriptions.Take(40))
        {
            foreach (var cell in description.Characters)
                Assert.Equal(cell.States[0], read.Columns.Describe(description.Taxon, cell.Character)!.States[0]);
            Assert.Equal(
                description.Characters.Count,
                read.Columns.Columns.Count(c => read.Columns.Describe(description.Taxon, c.Character.Id) is not null)
            );
        }
    }

    private static bool SameState(CharacterState a, CharacterState b) =>
        (a.Id, a.Name, a.Definition, a.Broader) == (b.Id, b.Name, b.Definition, b.Broader) && a.Terms.SequenceEqual(b.Terms);

    // Petals longer than the sepals are sepals shorter than the petals.
    [Theory]
    [InlineData("longer", "shorter", Bears.Entails)]
    [InlineData("longer", "longer", Bears.Excludes)]
    [InlineData("much-longer", "shorter", Bears.Entails)]
    [InlineData("equal", "equal", Bears.Entails)]
    [InlineData("shorter", "much-longer", Bears.Open)]
    public void AComparisonHoldsTheOtherWayRound(string one, string other, Bears bears) =>
        Assert.Equal(bears, ShippedVocabulary.Botany.Bearing.Of("petal.relative-length@sepal", one, "sepal.relative-length@petal", other));

    [Theory]
    [InlineData("petal.relative-length@sepal", "length of the petal beside the sepal")]
    [InlineData("petal.relative-length@petal", null)]
    [InlineData("petal.relative-length@grumblish", null)]
    [InlineData("petal.colour@sepal", null)]
    public void APartIsComparedWithAnotherOneAlone(string id, string? name) =>
        Assert.Equal(name, ShippedVocabulary.Botany.Compose(id)?.Name);
}
