using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Packs;
using Xunit;

namespace Garten.Formats.Tests;

/// <summary>A flora keeps the meaning of the vocabulary that it was published with.</summary>
public sealed class PublishedVocabularyTests
{
    private static readonly Vocabulary Then = ShippedVocabulary.Botany.Vocabulary;

    // Later somebody thinks that hairs of a kind say nothing of whether there are hairs, and that acute tips are no near ones of acuminate
    // ones, and adds a state and a part.
    private static readonly Vocabulary Now = Then with
    {
        Implications = [],
        Parts =
        [
            .. Then.Parts,
            Then.Parts.Single(p => p.Id == "petiole") with
            {
                Id = "leaf-heel",
                Nouns = ["leaf heel"],
                Parent = "petiole",
                Owners = [],
            },
        ],
        Qualities =
        [
            .. Then.Qualities.Select(q =>
                q.Id == "apex"
                    ? q with
                    {
                        States =
                        [
                            .. q.States.Select(s => s with { Near = "" }),
                            q.Find("acute")! with
                            {
                                Id = "needle-tip",
                                Name = "needle-tipped",
                                Broader = "acute",
                                Near = "",
                            },
                        ],
                    }
                    : q
            ),
        ],
    };

    private static readonly BotanyIndex Later = new(Now, "later");

    private static BotanyIndex Joined => new PublishedVocabulary("then", () => PublishedVocabulary.Bare(Then)).In(Later);

    [Fact]
    public void WhatItKnewKeepsItsMeaning()
    {
        Assert.Equal(Bears.Open, Later.Bearing.Of("twig.hair-form", "star", "twig.hair-density", "glabrous"));
        Assert.Equal(Bears.Excludes, Joined.Bearing.Of("twig.hair-form", "star", "twig.hair-density", "glabrous"));
        Assert.Equal(Bears.Excludes, Later.Bearing.Of("leaf.apex", "acute", "leaf.apex", "acuminate"));
        Assert.Equal(Bears.Open, Joined.Bearing.Of("leaf.apex", "acute", "leaf.apex", "acuminate"));
    }

    [Fact]
    public void WhatCameLaterCountsAsItIsNow()
    {
        Assert.Equal(Bears.Entails, Joined.Bearing.Of("leaf.apex", "needle-tip", "leaf.apex", "acute"));
        Assert.Equal(Bears.Excludes, Joined.Bearing.Of("petiole.hair-density", "glabrous", "leaf-heel.hair-density", "dense"));
        Assert.Equal("leaf heel", Joined.Part("leaf-heel")!.Name);
        // Words and definitions are those of now.
        Assert.Equal(Later.Quality("apex")!.Definition, Joined.Quality("apex")!.Definition);
        Assert.Equal(Later.Search.Find("leaf acute")[0].Character.Id, Joined.Search.Find("leaf acute")[0].Character.Id);
    }

    [Fact]
    public void WhatIsGoneIsStillUnderstood()
    {
        var less = new BotanyIndex(
            Then with
            {
                Parts = [.. Then.Parts.Where(p => p.Id != "petiole")],
                Qualities = [.. Then.Qualities.Where(q => q.Id != "apex")],
            },
            "less"
        );
        var joined = new PublishedVocabulary("then", () => PublishedVocabulary.Bare(Then)).In(less);
        Assert.Null(less.Compose("petiole.hair-density"));
        Assert.NotNull(joined.Compose("petiole.hair-density"));
        Assert.NotNull(joined.Compose("leaf.apex"));
    }

    [Fact]
    public void TheSameVersionIsTakenAsItIs() =>
        Assert.Same(Later, new PublishedVocabulary("later", () => throw new InvalidOperationException()).In(Later));

    [Fact]
    public void APackCarriesItAndHasNoDefinitions()
    {
        var density = ShippedVocabulary.Botany.Compose("twig.hair-density")!;
        var flora = new Flora(
            "small",
            "Small",
            [
                new Taxon("bald", "Vellorna calva", "", "species", "", "", "", [], ""),
                new Taxon("downy", "Vellorna mollis", "", "species", "", "", "", [], ""),
            ],
            new CharacterTable(
                [density],
                [
                    new("bald", [new(density.Id, [new StateShare("glabrous", 1)])]),
                    new("downy", [new(density.Id, [new StateShare("dense", 1)])]),
                ],
                []
            ),
            Vocabulary: "then"
        );
        var bytes = ReadyFlora.Write(flora, Then);
        var ready = ReadyFlora.Read(bytes).With(Later);
        Assert.Equal("then", ready.Pack.Published!.Version);
        Assert.Same(Later, ready.Given);
        // A look at the kind of hairs still speaks of their being there, as when the flora was published.
        var star = BearingTests.Seen("twig.hair-form", "star");
        double Bald(ReadyFlora of) => of.Sifter.Ranked(new SiftQuery([star])).Probability[of.Sifter.Columns.IndexOf("bald")];
        Assert.True(Bald(ready) < 0.2);
        Assert.True(Bald(ReadyFlora.Read(ReadyFlora.Write(flora with { Vocabulary = null })).With(Later)) > 0.3);
        var character = ready.Pack.Columns.Columns.Single().Character;
        Assert.Equal(("", "", ""), (character.Definition, character.Trap, string.Concat(character.States.Select(s => s.Definition))));
        Assert.Equal(density.States.Select(s => s.Name), character.States.Select(s => s.Name));
    }
}
