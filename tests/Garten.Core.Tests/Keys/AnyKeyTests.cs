using System.Text;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Language;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Keys;

/// <summary>Keys as chance would have them, to floras as chance would have them, followed by answers and sheets that may make no
/// sense.</summary>
public sealed class AnyKeyTests
{
    private const int Keys = 800;

    private static readonly string[] Words =
    [
        "leaf",
        "leaves",
        "twig",
        "twigs",
        "flower",
        "fruit",
        "state 0",
        "state 1",
        "state 2",
        "State 3",
        "usually",
        "sometimes",
        "rarely",
        "not",
        "or",
        "and",
        "absent",
        "without",
        "up to 5 cm",
        "3–6 mm long",
        "(2–)4–6(–9)",
        "5",
        "twice as long as wide",
        "more than 12",
        "grey",
        "beneath",
        "with",
        "a",
        "the",
        "in wet ground",
        ",",
        ";",
        "never",
        "c. 30°",
        "4–6 × 2–3 cm",
        "many",
    ];

    private sealed record Case(AnyFlora Flora, KeyVersion Key, BenchShelf Shelf, Random Random)
    {
        public TrailAnswer AnyAnswer() =>
            new(
                Random.Next(8) == 0 ? "another-version" : Key.Hash,
                Random.Next(10) == 0 ? "99" : $"{Random.Next(1, Key.Key.Couplets.Count + 1)}",
                Random.Next(4) switch
                {
                    0 => null,
                    3 => Random.Next(0, 6),
                    _ => Random.Next(0, 2),
                },
                (Sureness)Random.Next(3)
            );

        public TrailAnswer[] AnyAnswers() => [.. Enumerable.Range(0, Random.Next(0, 6)).Select(_ => AnyAnswer())];

        public HandWeighing[] AnyHand() =>
            [
                .. Enumerable
                    .Range(0, Random.Next(0, 4))
                    .Select(_ => new HandWeighing(
                        Key.Hash,
                        $"{Random.Next(1, Key.Key.Couplets.Count + 2)}",
                        Random.Next(0, 4),
                        Random.Next(0, 4),
                        Random.Next(2) == 0
                    )),
            ];
    }

    // A tree of couplets over made-up taxa, some of which the flora has.
    private static string AnyText(Random random)
    {
        var text = new StringBuilder("Key to a row of hedges\n");
        string Statement() =>
            string.Join(' ', Enumerable.Range(0, random.Next(1, 7)).Select(_ => Words[random.Next(Words.Length)]))
                .Replace(" ,", ",", StringComparison.Ordinal)
                .Replace(" ;", ";", StringComparison.Ordinal)
                .Trim(',', ';', ' ');
        var couplets = random.Next(1, 9);
        var next = 2;
        for (var c = 1; c <= couplets; c++)
        {
            for (var lead = 0; lead < 2; lead++)
            {
                var statement = Statement();
                if (statement.Length == 0)
                    statement = "leaf";
                // Every couplet behind the first is gone to once, from one before it.
                var goes = next <= couplets && (lead == 1 && next == c + 1 || random.Next(2) == 0);
                text.Append(c)
                    .Append(lead == 0 ? "a. " : "b. ")
                    .Append(char.ToUpperInvariant(statement[0]))
                    .Append(statement.AsSpan(1))
                    .Append(" ........ ")
                    .AppendLine(
                        goes ? $"{next++}"
                        : random.Next(3) == 0 ? $"Genella t{random.Next(0, 5)}"
                        : $"Genella viridis{(char)('a' + random.Next(26))}{c}"
                    );
            }
        }
        return text.ToString();
    }

    private static void Each(Action<Case> check) => AnyFlora.Each(Keys, seed =>
        {
            var random = new Random(seed);
            var reading = KeyTextReader.Read(AnyText(random));
            if (!reading.IsSound)
                return;
            var flora = new AnyFlora(seed);
            // Some floras say of which part their characters are, some don't.
            Character[] characters =
            [
                .. flora.Characters.Select(
                    (c, i) => i % 2 == 0 ? c with { Nouns = [c.Organ.ToString().ToLowerInvariant()], Measures = ["long"] } : c
                ),
            ];
            var key = new KeyVersion("this-key", reading.Keys[0]);
            TaughtTerm[] taught = [new("c0", "s1", "grey"), new("no-such-character", "s1", "beneath"), new("c0", "no-such-state", "wet")];
            var words = key.Key.Couplets[0].Leads[0].Statements[0];
            CorrectedStatement[] corrected =
                random.Next(3) == 0
                    ?
                    [
                        new(
                            words,
                            [new StatementClaim("no-such-character", ["x"], null, 1), new StatementClaim("c0", ["no-such-state"], null, 1)]
                        ),
                    ]
                    : [];
            var shelf = new BenchShelf(
                new KeyShelf([key], flora.Taxa),
                new CharacterTable(characters, flora.Described, SmallFlora.Seasons),
                flora.Taxa,
                taught,
                corrected
            );
            check(new Case(flora, key, shelf, random));
        });

    [Fact]
    public void TheBenchFollowsWhateverIsAnswered() =>
        Each(c =>
        {
            var state = KeyBench.Follow(c.Shelf, c.Key.Hash, c.AnyAnswers(), c.Flora.AnySheet(), c.AnyHand(), new DateOnly(2026, 6, 1));
            Assert.All(state.Verdicts, v =>
            {
                Assert.Equal(1, v.Leads.Sum(l => l.Share), 6);
                Assert.True(v.Odds >= 0 && !double.IsNaN(v.Odds));
                Assert.NotEmpty(v.Words);
                Assert.Equal(v.Call == CoupletCall.Unseen, v.Best is null);
                Assert.All(v.Leads.SelectMany(l => l.Statements), s => Assert.True(double.IsFinite(s.LogRatio)));
            });
            Assert.InRange(state.Ends.Sum(e => e.Share), 0.999, 1.001);
            Assert.All(state.Turns, t => Assert.InRange(t.Probability, 0, 1 + 1e-9));
            Assert.All(state.Paths, p => Assert.InRange(p.Share, 0, 1 + 1e-9));
            Assert.NotEmpty(state.Walk.Steps.Select(s => s.Couplet).Concat(state.Walk.Open.Select(o => o.Couplet.Label)));
            // What can be answered by what was seen is of this key.
            Assert.All(state.BySheet, a => Assert.NotNull(c.Key.Find(a.Couplet)));
        });

    [Fact]
    public void AWalkEndsWhereItsAnswersLead() =>
        Each(c =>
        {
            var answers = c.AnyAnswers();
            var walk = KeyWalk.Follow(c.Shelf.Keys, c.Key.Hash, answers);
            // The same whatever the order, where no couplet is answered twice.
            var once = answers.GroupBy(a => (a.KeyVersion, a.Couplet)).Select(g => g.Last()).ToArray();
            var turned = KeyWalk.Follow(c.Shelf.Keys, c.Key.Hash, [.. once.Reverse()]);
            Assert.Equal(walk.Standing.Select(s => (s.Name, s.Reached)).Order(), turned.Standing.Select(s => (s.Name, s.Reached)).Order());
            Assert.Equal(walk.Open.Select(o => o.Couplet.Label), turned.Open.Select(o => o.Couplet.Label));
            // With more answers no taxon comes back.
            var more = KeyWalk.Follow(c.Shelf.Keys, c.Key.Hash, [.. once.Where(a => a.Lead is not null)]);
            var less = KeyWalk.Follow(c.Shelf.Keys, c.Key.Hash, []);
            Assert.Subset(less.Standing.Select(s => s.Name).ToHashSet(), more.Standing.Select(s => s.Name).ToHashSet());
        });

    [Fact]
    public void WhatIsReadOfAStatementStandsInItAndSpeaksOfTheFlora() =>
        Each(c =>
        {
            foreach (var couplet in c.Key.Key.Couplets)
            {
                foreach (var reading in c.Shelf.Readings(c.Key, couplet.Label).SelectMany(l => l))
                {
                    var end = 0;
                    foreach (var part in reading.Parts)
                    {
                        Assert.InRange(part.At, end, reading.Text.Length);
                        end = part.At + part.Length;
                        Assert.InRange(end, part.At, reading.Text.Length);
                    }
                    foreach (var claim in reading.Claims)
                    {
                        var character = c.Shelf.Table.Find(claim.Character);
                        Assert.NotNull(character);
                        Assert.All(claim.States, s => Assert.True(character.IndexOf(s) >= 0));
                        Assert.Equal(character.IsQuantity, claim.Range is not null);
                        Assert.InRange(claim.Modality, 0.01, 1);
                        // A claim that holds for every state says nothing.
                        if (!character.IsQuantity)
                            Assert.InRange(claim.States.Count, 1, character.States.Count - 1);
                    }
                }
            }
        });

    [Fact]
    public void AnyDayWithAnyToolsHasItsOutlook() =>
        Each(c =>
        {
            foreach (var day in new[] { new DateOnly(2026, 1, 10), new DateOnly(2026, 7, 1), new DateOnly(2028, 2, 29) })
            {
                var outlook = KeyOutlook.Of(c.Shelf, c.Key.Hash, day, [Tool.Lens], Handling.Touch);
                Assert.Equal(c.Key.Key.Couplets.Count, outlook.Couplets);
                Assert.InRange(outlook.TaxaBlocked, 0, outlook.Taxa);
                Assert.All(outlook.Blocked, b => Assert.NotEmpty(b.Characters));
                // With every tool and no season to wait for, less is blocked.
                var all = KeyOutlook.Of(c.Shelf, c.Key.Hash, day, Enum.GetValues<Tool>(), Handling.Uproot);
                Assert.True(all.Blocked.Count <= outlook.Blocked.Count);
            }
        });

    [Fact]
    public void WhatTheKeyItselfSaysOfItsTaxaIsADescription() =>
        Each(c =>
        {
            var provisional = c.Shelf.Provisional(c.Key.Hash);
            Assert.Subset(c.Key.Key.Taxa().Select(t => t.Name).ToHashSet(), provisional.Keys.ToHashSet());
            foreach (var cell in provisional.Values.SelectMany(d => d.Characters))
            {
                Assert.NotNull(c.Shelf.Table.Find(cell.Character));
                Assert.True(cell.States.Sum(s => s.Share) <= 1 + 1e-9);
                if (cell.Range is { } range)
                    Assert.Null(range.Contradiction());
            }
        });

    [Fact]
    public void AKeyComesBackFromItsTextInEitherLayout() =>
        Each(c =>
        {
            foreach (var layout in Enum.GetValues<KeyLayout>())
            {
                var back = KeyTextReader.Read(KeyTextWriter.Write(c.Key.Key, layout));
                Assert.True(back.IsSound, string.Join('\n', back.Problems.Select(p => p.Message)) + KeyTextWriter.Write(c.Key.Key, layout));
                Assert.Equal(
                    c.Key.Key.Taxa().Select(t => t.Name).Order(StringComparer.Ordinal),
                    back.Keys[0].Taxa().Select(t => t.Name).Order(StringComparer.Ordinal)
                );
                Assert.Equal(c.Key.Key.Couplets.Count, back.Keys[0].Couplets.Count);
            }
        });
}
