using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Xunit;
using static Garten.Core.Tests.Identification.SmallFlora;

namespace Garten.Core.Tests.Identification;

/// <summary>Plants of one stand judged together.</summary>
public sealed class StandTests
{
    private static readonly Character[] Characters =
    [
        .. Enumerable.Range(0, 6).Select(i => States($"c{i}", Organ.Leaf, "a", "b", "c") with { SeenIn = [], Reliability = 0.9 }),
    ];

    private static readonly Character Spots = States("spots", Organ.Leaf, "none", "spotted") with { SeenIn = [], Reliability = 0.97 };

    private static readonly Sifter List = Sieve(
        [.. Characters, Spots],
        [
            Of("alvena-montis", "aaaaaa", ("none", 0.85), ("spotted", 0.15)),
            Of("alvena-palus", "aaaaab", ("none", 1)),
            Of("brontia-alta", "bbbbbb", ("none", 1)),
            Of("brontia-lenta", "cbcbcb", ("spotted", 1)),
        ]
    );

    private static TaxonDescription Of(string id, string states, params (string, double)[] spots) =>
        Describe(id, [.. Characters.Select((c, i) => Is(c, states[i].ToString())), Is(Spots, spots)]);

    private static StandPlant Plant(string label, string states, string? spots = null) =>
        new(
            label,
            [
                .. states.Select((s, i) => (s, i)).Where(it => it.s != '.').Select(it => See(Characters[it.i], it.s.ToString())),
                .. spots is null ? Array.Empty<Observation>() : [See(Spots, spots)],
            ]
        );

    private static Stand Judge(params StandPlant[] plants) => Stand.Of(List, plants, new SiftQuery([]));

    [Fact]
    public void PlantsThatSayLittleAloneSayMuchTogether()
    {
        // Two looks each: none of them is named, all of them are.
        var stand = Judge([.. Enumerable.Range(1, 6).Select(i => Plant($"{i}", i % 2 == 0 ? "a....a" : "..a..a"))]);
        Assert.Equal("alvena-montis", stand.Standing[0].Taxon);
        Assert.True(stand.Standing[0].Probability > 0.9);
        Assert.All(stand.Members, m => Assert.True(m.AloneProbability < 0.85));
        Assert.False(stand.IsMixed);
    }

    [Fact]
    public void OneSpottedPlantInTenOverturnsNothing()
    {
        var plants = Enumerable.Range(1, 10).Select(i => Plant($"{i}", "a.a..a", i == 4 ? "spotted" : "none")).ToArray();
        var stand = Judge(plants);
        Assert.Equal("alvena-montis", stand.Standing[0].Taxon);
        Assert.False(stand.IsMixed);
        Assert.True(stand.Members[3].OfTheStand > 0.9);
    }

    [Fact]
    public void AnUnmarkedPlantFollowsTheOthers()
    {
        var stand = Judge(Plant("1", "aaaa.a"), Plant("2", "aaaa.a"), Plant("3", "aaaa.a"), Plant("seedling", "......"));
        Assert.InRange(stand.Members[3].OfTheStand, 0.8, 1);
        Assert.Equal(0, stand.Members[3].Looks);
    }

    [Fact]
    public void AMixedStandIsFoundAndItsPlantsArePutApart()
    {
        var stand = Judge([
            .. Enumerable.Range(1, 6).Select(i => Plant($"a{i}", "aaaa.a")),
            .. Enumerable.Range(1, 4).Select(i => Plant($"b{i}", "bbbb.b")),
        ]);
        Assert.True(stand.IsMixed);
        Assert.All(stand.Members.Take(6), m => Assert.True(m.OfTheStand > 0.9));
        Assert.All(stand.Members.Skip(6), m => Assert.True(m.OfTheStand < 0.1));
    }

    [Fact]
    public void FewPlantsOrLooksTellNothingOfAMixture()
    {
        Assert.True(Judge(Plant("1", "aaaaaa"), Plant("2", "bbbbbb")).TooFew);
        Assert.True(Judge([.. Enumerable.Range(0, 8).Select(i => Plant($"{i}", i < 4 ? "a....." : "b....."))]).TooFew);
    }

    [Fact]
    public void TheOrderOfPlantsDoesNotMatter()
    {
        StandPlant[] plants = [Plant("1", "aa...a"), Plant("2", "a..a.b"), Plant("3", "......"), Plant("4", "bb...b")];
        var (one, other) = (Judge(plants), Judge([.. plants.Reverse()]));
        Assert.Equal(one.Mixed, other.Mixed, 9);
        Assert.Equal(one.Standing[0].Probability, other.Standing[0].Probability, 9);
        foreach (var member in one.Members)
            Assert.Equal(member.OfTheStand, other.Members.Single(m => m.Label == member.Label).OfTheStand, 9);
    }

    [Fact]
    public void StrangersAreLearntPlantByPlant()
    {
        Assert.Equal(0.5 / 8, Strangers.None.Prior, 0.01);
        // By hand: 0.02 was left by a prior of 0.18; by 0.5/8 it is 0.02/0.18 · 0.0625 against 0.98/0.82 · 0.9375.
        Assert.Equal(0.006944 / (0.006944 + 1.120427), Strangers.None.With(0.02, 0.18).Sum, 0.001);
        // A plant that says nothing of the list leaves what is believed of it, and how firmly: the caution itself isn't learnt, and what
        // says something afterwards tells as much as before.
        var raised = SiftOptions.Default.PriorOfStranger(Strangers.None.Prior);
        var silent = Enumerable
            .Range(0, 40)
            .Aggregate(Strangers.None, (s, _) =>
                s.With(SiftOptions.Default.PriorOfStranger(s.Prior), SiftOptions.Default.PriorOfStranger(s.Prior))
            );
        Assert.Equal(Strangers.None.Prior, silent.Prior, 6);
        Assert.Equal(Strangers.None.With(1, raised).Prior, silent.With(1, raised).Prior, 6);
        // Plants that certainly are strangers, or certainly aren't: the beta distribution with one more on either side, 1.5/9 and 0.5/9,
        // cut off at a half.
        Assert.Equal(1.5 / 9, Strangers.None.With(1, raised).Prior, 0.015);
        Assert.Equal(0.5 / 9, Strangers.None.With(0, raised).Prior, 0.015);
        Assert.Equal(new Strangers(1, 1).Prior, Strangers.None.With(1, raised).Prior, 6);
        Assert.Equal(new Strangers(0, 1).Prior, Strangers.None.With(0, raised).Prior, 6);
        // What was counted before beliefs were kept, plants in thousands too.
        Assert.Equal(600.5 / 10008, new Strangers(600, 10000).Prior, 3);
        var seen = Enumerable.Range(0, 40).Aggregate(Strangers.None, (s, _) => s.With(0.02, SiftOptions.Default.PriorOfStranger(s.Prior)));
        Assert.InRange(seen.Prior, 0.5 / 48, (0.5 + 0.8) / 48);
        // A list that proved complete on a thousand plants, and then misses every one of thirty.
        var complete = Enumerable
            .Range(0, 1000)
            .Aggregate(Strangers.None, (s, _) => s.With(0, SiftOptions.Default.PriorOfStranger(s.Prior)));
        Assert.InRange(complete.Prior, 0, 0.006);
        var missing = Enumerable.Range(0, 30).Aggregate(complete, (s, _) => s.With(1, SiftOptions.Default.PriorOfStranger(s.Prior)));
        Assert.InRange(missing.Prior, 0.3, 0.5);
        // Where the list has proved complete, a name stands sooner.
        double First(double? prior) =>
            List.Ranked(new SiftQuery([See(Characters[0], "a"), See(Characters[5], "a")], NotOnList: prior)).Probability[0];
        Assert.True(First(seen.Prior) > First(null));
        Assert.Equal("options.strangers", Assert.Throws<RequestException>(() => SiftRequest.Known(new Strangers(5, 3))).Field);
        foreach (double[] belief in new[] { [1d], new double[Strangers.Shares], [double.NaN, .. new double[Strangers.Shares - 1]] })
            Assert.Throws<RequestException>(() => SiftRequest.Known(new Strangers(1, 3, belief)));
        Assert.Equal(0.005, SiftRequest.Known(new Strangers(1, 3, [1, .. new double[Strangers.Shares - 1]]))!.Value, 9);
    }
}
