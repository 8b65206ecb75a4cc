using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Garten.Formats.Tables;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>The demo's flora and keys under the core: descriptions, shade leaves, false turns, clean sheets.</summary>
public sealed class TorvaneTests(ITestOutputHelper output)
{
    private static readonly DateOnly Summer = new(2026, 7, 1);

    [Fact]
    public void TheFloraIsDescribedInFullAndWithoutContradiction()
    {
        Assert.Empty(TorvaneFlora.Written.Problems);
        Assert.True(TorvaneFlora.Table.Characters.Count >= 45);
        var species = TorvaneFlora
            .Taxa.Where(t => t.Rank == "species" && t.Facts!.Phenology.Any(p => p.Phase == Phenophase.RestingBud))
            .ToList();
        Assert.True(species.Count >= 23);
        foreach (var taxon in species)
            Assert.True(TorvaneFlora.Shelf.Descriptions.Single(d => d.Taxon == taxon.Id).Characters.Count >= 45, taxon.Name);
        // A cultivated form has all of its species but what it overrides.
        Assert.Equal(
            "purple",
            TorvaneFlora
                .Shelf.Descriptions.Single(d => d.Taxon.Contains("fuscata", StringComparison.Ordinal))
                .Characters.Single(c => c.Character == "leaf-colour")
                .States.Single()
                .State
        );
        // One pair that only its fruit tells apart, one that only measures do.
        Assert.All(Separating("robrisca-pedunculata", "robrisca-subsessilis"), c => Assert.Equal(Organ.Fruit, c.Organ));
        Assert.All(Separating("mirelda-viminea", "mirelda-glauca"), c => Assert.True(c.IsQuantity));
    }

    private static List<Character> Separating(string first, string second)
    {
        CharacterDescription? Of(string taxon, string character) =>
            TorvaneFlora.Shelf.Descriptions.Single(d => d.Taxon == taxon).Characters.FirstOrDefault(c => c.Character == character);
        var found = TorvaneFlora
            .Table.Characters.Where(c => Separation.Of(c, Of(first, c.Id), Of(second, c.Id), TorvaneFlora.Shelf.Likelihood) > 0.5)
            .ToList();
        Assert.NotEmpty(found);
        return found;
    }

    [Fact]
    public void APlantOfWhichOnlyShadeLeavesAreAtHandKeysRightlyAndSaysWhy()
    {
        // Scalloped ondrel: 3–6 cm in the sun, 5–9 cm in the shade; at 8 cm the key's couplet 7 would send it to the marsh ondrel.
        var start = TorvaneFlora.Start(TorvaneFlora.Leaf);
        var hash = start;
        List<TrailAnswer> way = [new(hash, "1", 1), new(hash, "2", 0), new(hash, "3", 1)];
        Observation Leaves(ObservationContext context) =>
            new(
                Guid.NewGuid(),
                "leaf-length",
                Outcome.Seen,
                [],
                false,
                [.. new[] { 72d, 80, 76, 78, 74 }.Select(v => new Reading(v, "", 1))],
                0,
                0,
                Sureness.Sure,
                context,
                Tool.Ruler,
                "2026-07-01",
                ""
            );
        Observation Base(ObservationContext context) =>
            new(
                Guid.NewGuid(),
                "leaf-base",
                Outcome.Seen,
                ["rounded"],
                false,
                [],
                0,
                0,
                Sureness.Sure,
                context,
                Tool.Eye,
                "2026-07-01",
                ""
            );
        var shade = new ObservationContext(Light: Light.Shade);
        var taken = KeyBench.Follow(TorvaneFlora.Shelf, start, way, [Leaves(shade), Base(shade)], [], Summer);
        var couplet = taken.Verdicts.Single(v => v.Couplet == "7" && v.KeyVersion == hash);
        Assert.Equal(0, couplet.Best);
        Assert.Contains(couplet.Reasons, r => r.Contains("shade", StringComparison.Ordinal));
        Assert.Equal("Ondrelia crenata", taken.Ends[0].Name);
        // Taken for leaves of the sun, the same sizes lead astray.
        var sun = KeyBench.Follow(TorvaneFlora.Shelf, start, way, [Leaves(new()), Base(new())], [], Summer);
        Assert.True(sun.Verdicts.Single(v => v.Couplet == "7" && v.KeyVersion == hash).Leads[0].Share < couplet.Leads[0].Share);
    }

    [Fact]
    public void AWrongTurnIsFoundOnceThreeCharactersAreOnTheSheet()
    {
        var random = new Random(20260701);
        int drawn = 0,
            found = 0;
        double chance = 0;
        foreach (var version in TorvaneFlora.Keys)
        {
            var bench = TorvaneFlora.Shelf;
            foreach (
                var taxon in TorvaneFlora.Shelf.Descriptions.Where(d =>
                    TorvaneFlora.Taxa.Single(t => t.Id == d.Taxon).Rank is "species" or "hybrid"
                )
            )
            {
                var name = TorvaneFlora.Taxa.Single(t => t.Id == taxon.Taxon).Name;
                var right = Route(version, name);
                for (var wrong = 0; wrong < right.Count; wrong++)
                {
                    // A false answer at one couplet; behind it, whatever lead fits the plant best by the descriptions, or any.
                    var answers = right.Take(wrong).ToList();
                    var couplet = bench.Keys.Find(right[wrong].KeyVersion)!.Find(right[wrong].Couplet)!;
                    var other = Enumerable
                        .Range(0, couplet.Leads.Count)
                        .Where(l => l != right[wrong].Lead)
                        .OrderBy(_ => random.Next())
                        .First();
                    answers.Add(right[wrong] with { Lead = other });
                    for (
                        var walk = KeyWalk.Follow(bench.Keys, version.Hash, answers);
                        walk.Open.Count > 0;
                        walk = KeyWalk.Follow(bench.Keys, version.Hash, answers)
                    )
                    {
                        answers.Add(
                            new TrailAnswer(
                                walk.Open[0].KeyVersion,
                                walk.Open[0].Couplet.Label,
                                random.Next(walk.Open[0].Couplet.Leads.Count)
                            )
                        );
                    }
                    if (answers.Count < 4)
                        continue;
                    if (Behind(version, right[wrong], other).Contains(name))
                        continue;
                    var used = answers
                        .SelectMany(a => bench.Readings(bench.Keys.Find(a.KeyVersion)!, a.Couplet))
                        .SelectMany(l => l)
                        .SelectMany(s => s.Claims)
                        .Select(c => c.Character)
                        .ToHashSet();
                    var looks = MostInformative(version, used, answers)
                        .Select(c => TorvaneFlora.Look(random, c, taxon.Characters.FirstOrDefault(d => d.Character == c.Id)))
                        .OfType<Observation>()
                        .Take(3)
                        .ToList();
                    var state = KeyBench.Follow(bench, version.Hash, answers, looks, [], Summer);
                    drawn++;
                    chance += 2d / answers.Count;
                    if (state.Turns.Take(2).Any(t => t.KeyVersion == right[wrong].KeyVersion && t.Couplet == right[wrong].Couplet))
                        found++;
                }
            }
        }
        output.WriteLine(
            $"{found} of {drawn} found first or second = {100d * found / drawn:0.0} %; by chance {100 * chance / drawn:0.0} %"
        );
        Assert.True(drawn > 150);
        // As many as when turns gave the answers no weight: 718 of 726.
        Assert.True(found >= 0.985 * drawn, $"{found} of {drawn}");
    }

    /// <summary>With all answers right a turn in doubt is a false alarm: at the end of the key, and after three looks at random.</summary>
    [Fact]
    public void RightAnswersRarelyPutATurnInDoubt()
    {
        var random = new Random(20260702);
        int drawn = 0,
            atEnd = 0,
            withLooks = 0;
        foreach (var version in TorvaneFlora.Keys)
        {
            foreach (
                var taxon in TorvaneFlora.Shelf.Descriptions.Where(d =>
                    TorvaneFlora.Taxa.Single(t => t.Id == d.Taxon).Rank is "species" or "hybrid"
                )
            )
            {
                var answers = Route(version, TorvaneFlora.Taxa.Single(t => t.Id == taxon.Taxon).Name);
                if (answers.Count < 2)
                    continue;
                drawn++;
                bool Doubts(IReadOnlyList<Observation> sheet) =>
                    KeyBench.Follow(TorvaneFlora.Shelf, version.Hash, answers, sheet, [], Summer).Turns is [{ Probability: > 0.5 }, ..];
                if (Doubts([]))
                    atEnd++;
                var seen = TorvaneFlora
                    .Table.Characters.Where(c => c.CanBeSeen(Summer, TorvaneFlora.Table.Seasons))
                    .OrderBy(_ => random.Next());
                if (
                    Doubts([
                        .. seen.Select(c => TorvaneFlora.Look(random, c, taxon.Characters.FirstOrDefault(d => d.Character == c.Id)))
                            .OfType<Observation>()
                            .Take(3),
                    ])
                )
                    withLooks++;
            }
        }
        output.WriteLine(
            $"{drawn} plants with right answers: {100d * atEnd / drawn:0.0} % with a turn over 50 % at the end, {100d * withLooks / drawn:0.0} % after three looks"
        );
        Assert.True(drawn > 150);
        Assert.True(atEnd < 0.05 * drawn, $"{atEnd} of {drawn} at the end");
        Assert.True(withLooks < 0.05 * drawn, $"{withLooks} of {drawn} after three looks");
    }

    private static TrailAnswer At(KeyVersion version, string couplet, int lead) => new(version.Hash, couplet, lead);

    /// <summary>The key of groups sends what it doesn't name to a general key, which holds all that its own leads hold too. That says
    /// nothing of them: whoever answers rightly isn't told to look again, and whoever contradicts himself is.</summary>
    [Fact]
    public void WhatAGeneralKeyHoldsTooIsNoDoubtOfARightAnswer()
    {
        var groups = TorvaneFlora.Keys.First(k => k.Key.Title == "Key to the groups of woody plants of Torvane");
        var vellorna = TorvaneFlora.Keys.First(k => k.Key.Title == "Key to Vellorna");
        TrailAnswer[] lobed = [At(groups, "1", 1), At(groups, "3", 0), At(groups, "4", 0)];
        TrailAnswer[][] ways =
        [
            [.. lobed, At(vellorna, "1", 0), At(vellorna, "2", 0)],
            [.. lobed, At(vellorna, "1", 0), At(vellorna, "2", 1)],
            [.. lobed, At(vellorna, "1", 1), At(vellorna, "3", 0)],
            [.. lobed, At(vellorna, "1", 1), At(vellorna, "3", 1), At(vellorna, "4", 0)],
            [.. lobed, At(vellorna, "1", 1), At(vellorna, "3", 1), At(vellorna, "4", 1)],
        ];
        BenchState After(IReadOnlyList<TrailAnswer> answers) => KeyBench.Follow(TorvaneFlora.Shelf, groups.Hash, answers, [], [], Summer);
        foreach (var way in ways)
        {
            for (var n = 1; n <= way.Length; n++)
                Assert.True(After(way[..n]).Weakest is null, string.Join(' ', way[..n].Select(a => a.Couplet)));
        }
        // Opposite leaves in the one key and alternate ones in the next.
        var leaf = TorvaneFlora.Start(TorvaneFlora.Leaf);
        TrailAnswer[] contrary =
        [
            At(groups, "1", 1),
            At(groups, "3", 0),
            At(groups, "4", 1),
            .. new[] { ("1", 1), ("2", 1), ("4", 1), ("6", 0) }.Select(a => new TrailAnswer(leaf, a.Item1, a.Item2)),
        ];
        Assert.NotNull(After(contrary).Weakest);
    }

    private static HashSet<string> Behind(KeyVersion version, TrailAnswer at, int lead) =>
        [
            .. KeyWalk
                .Follow(TorvaneFlora.Shelf.Keys, version.Hash, [.. Route(version, null, at), at with { Lead = lead }])
                .Standing.Select(s => s.Name),
        ];

    // The answers that lead to a name, or to a couplet.
    private static List<TrailAnswer> Route(KeyVersion version, string? name, TrailAnswer? to = null)
    {
        var ways = new Stack<List<TrailAnswer>>([
            [],
        ]);
        while (ways.TryPop(out var way))
        {
            var walk = KeyWalk.Follow(TorvaneFlora.Shelf.Keys, version.Hash, way);
            if (walk.Open.Count == 0)
            {
                if (walk.Standing.Any(s => s.Name == name))
                    return way;
                continue;
            }
            var open = walk.Open[0];
            if (to is not null && open.KeyVersion == to.KeyVersion && open.Couplet.Label == to.Couplet)
                return way;
            for (var l = open.Couplet.Leads.Count - 1; l >= 0; l--)
                ways.Push([.. way, new TrailAnswer(open.KeyVersion, open.Couplet.Label, l)]);
        }
        return [];
    }

    // Of the characters that can be seen and weren't used on the trail: those that separate the most pairs of the key's taxa.
    private static IEnumerable<Character> MostInformative(KeyVersion version, HashSet<string> used, List<TrailAnswer> answers)
    {
        var names = KeyWalk.Follow(TorvaneFlora.Shelf.Keys, version.Hash, []).Standing.Select(s => s.TaxonId).OfType<string>().ToList();
        var descriptions = TorvaneFlora.Shelf.Descriptions.Where(d => names.Contains(d.Taxon)).ToList();
        return TorvaneFlora
            .Table.Characters.Where(c => !used.Contains(c.Id) && c.CanBeSeen(Summer, TorvaneFlora.Table.Seasons))
            .Select(c =>
            {
                var own = descriptions.ConvertAll(d => d.Characters.FirstOrDefault(x => x.Character == c.Id));
                var sum = 0d;
                for (var i = 0; i < own.Count; i++)
                {
                    for (var j = i + 1; j < own.Count; j++)
                        sum += Known(c, own[i], own[j]);
                }
                return (Character: c, Sum: sum);
            })
            .OrderByDescending(c => c.Sum)
            .Select(c => c.Character);
    }

    private static readonly Dictionary<(string, CharacterDescription?, CharacterDescription?), double> Separations = [];

    private static double Known(Character c, CharacterDescription? a, CharacterDescription? b)
    {
        if (Separations.TryGetValue((c.Id, a, b), out var known))
            return known;
        return Separations[(c.Id, a, b)] = Separation.Of(c, a, b, TorvaneFlora.Shelf.Likelihood);
    }

    [Fact]
    public void TenPlantsWithCleanSheetsHaveAtMostOneFalseConflict()
    {
        var random = new Random(7);
        foreach (var taxon in TorvaneFlora.Shelf.Descriptions.Where((_, i) => i % 7 == 0).Take(10))
        {
            var looks = TorvaneFlora
                .Table.Characters.Select(c => TorvaneFlora.Look(random, c, taxon.Characters.FirstOrDefault(d => d.Character == c.Id)))
                .OfType<Observation>()
                .ToList();
            Assert.True(looks.Count >= 20);
            var items = EvidenceItem.Pool(looks, TorvaneFlora.Table, EvidenceOptions.Default);
            var weighed = new WeighedSheet(items, TorvaneFlora.Shelf.Likelihood).Weigh(taxon.Taxon);
            output.WriteLine($"{taxon.Taxon}: {looks.Count} looks, {weighed.Conflicts} in conflict");
            Assert.True(
                weighed.Conflicts <= 1,
                taxon.Taxon + ": " + string.Join(", ", weighed.Items.Where(i => i.Fit == Fit.Conflicts).Select(i => i.Character))
            );
        }
    }

    [Theory]
    [InlineData("leaf-length", "9–6 mm", "above the high bound")]
    [InlineData("leaf-length", "(7–)6–9 mm", "low extreme")]
    [InlineData("leaf-base", "rounded | often rounded", "given twice")]
    [InlineData("leaf-base", "tubular", "no state of")]
    [InlineData("leaf-length", "4–6 mm @shade 8–7 mm", "above the high bound")]
    [InlineData("tail", "long", "is no character")]
    public void ADescriptionThatContradictsItselfIsSaidWithItsCell(string character, string value, string says)
    {
        var matrix = SheetReader
            .Read(
                "matrix.csv",
                System.Text.Encoding.UTF8.GetBytes($"taxon,leaf-tip,{character}\nVellorna alata,pointed,{value}\n"),
                TestContext.Current.CancellationToken
            )
            .Sheet!;
        var read = FloraTables.Read(
            new FloraSheets(matrix),
            ShippedGlossary.Seasons,
            ShippedGlossary.Characters,
            stop: TestContext.Current.CancellationToken
        );
        var problem = Assert.Single(read.Problems);
        Assert.Contains(says, problem.Message, StringComparison.Ordinal);
        Assert.Equal(character, problem.Column);
        Assert.Single(read.Table.Descriptions.Single().Characters);
    }
}
