using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;
using Garten.Core.Visits;
using Xunit;

namespace Garten.Core.Tests.Identification;

/// <summary>Whatever the flora and whatever is asked of it, an answer comes, and it keeps the rules that every answer keeps.</summary>
public sealed class AnyFloraTests
{
    private const int Floras = 1500;

    private static void Each(Action<AnyFlora> check) => AnyFlora.Each(Floras, seed => check(new AnyFlora(seed)));

    [Fact]
    public void AStandingSharesOutAllThereIs() =>
        Each(flora =>
        {
            var query = flora.AnyQuery();
            var result = flora.Sifter.Sift(query);
            Assert.All(result.Standing, c => Assert.InRange(c.Probability, 0, 1));
            Assert.Single(result.Standing, c => c.Taxon == Sifter.NotOnList);
            Assert.Equal(result.Standing.Count, result.Standing.Select(c => c.Taxon).Distinct().Count());
            // What isn't named holds the rest.
            Assert.Equal(1, result.Standing.Sum(c => c.Probability) + result.LeastProbable, 6);
            Assert.InRange(result.Leaders, 0, flora.Taxa.Count);
            Assert.NotEmpty(result.InWords);
            var named = result.Standing.Where(c => c.Taxon != Sifter.NotOnList).ToList();
            for (var i = 1; i < named.Count; i++)
            {
                if (query.Tolerance is null)
                    Assert.True(named[i - 1].Probability >= named[i].Probability);
                else
                    Assert.True(named[i - 1].Conflicts <= named[i].Conflicts && named[i].Conflicts <= query.Tolerance);
            }
            Assert.All(result.Standing.SelectMany(c => c.Reasons), r => Assert.True(double.IsFinite(r.LogOdds)));
        });

    [Fact]
    public void OneSifterAnswersAsANewOneWould() =>
        Each(flora =>
        {
            var fresh = new Sifter(FloraColumns.Of(flora.Characters, flora.Described), flora.Taxa, SmallFlora.Seasons);
            SiftQuery[] queries = [flora.AnyQuery(), flora.AnyQuery(), flora.AnyQuery()];
            foreach (var query in queries)
                flora.Sifter.Sift(query);
            var (worked, first) = (flora.Sifter.Sift(queries[0]), fresh.Sift(queries[0]));
            Assert.Equal(first.Call, worked.Call);
            var expected = first.Standing.ToDictionary(c => c.Taxon, c => c.Probability);
            Assert.All(worked.Standing, c => Assert.Equal(expected.GetValueOrDefault(c.Taxon), c.Probability, 9));
        });

    [Fact]
    public void ALookThatStandsTwiceOnASheetCountsTwiceHoweverTheSheetWasBefore()
    {
        // Of the plant itself and of a shaped shoot, the same is scored: two items of one value each.
        var hairs = SmallFlora.States("hairs", Organ.Leaf, "none", "few");
        var sap = SmallFlora.States("sap", Organ.Stem, "clear", "milky");
        TaxonDescription[] taxa =
        [
            SmallFlora.Describe("a", SmallFlora.Is(hairs, "none"), SmallFlora.Is(sap, "milky")),
            SmallFlora.Describe("b", SmallFlora.Is(hairs, "few"), SmallFlora.Is(sap, "clear")),
        ];
        Observation[] Sheet(Character twice, string state, Character once, string other) =>
            [
                SmallFlora.See(twice, state),
                SmallFlora.See(twice, state) with
                {
                    Context = new(Shaping: Shaping.Browsed),
                },
                SmallFlora.See(once, other),
                SmallFlora.See(twice, state) with
                {
                    Sureness = Sureness.Guess,
                    Context = new(Attachment: Attachment.PerhapsNeighbours),
                },
            ];
        var (first, second) = (Sheet(hairs, "none", sap, "milky"), Sheet(sap, "milky", hairs, "none"));
        double Of(Sifter sifter, Observation[] sheet) => sifter.Sift(new SiftQuery(sheet)).Standing[0].Probability;
        var worked = SmallFlora.Sieve([hairs, sap], taxa);
        Of(worked, first);
        Assert.Equal(Of(SmallFlora.Sieve([hairs, sap], taxa), second), Of(worked, second), 12);
        Assert.Equal(Of(SmallFlora.Sieve([hairs, sap], taxa), first), Of(worked, first), 12);
    }

    [Fact]
    public void LooksThatTellAreOfTheFloraAndTellSomething() =>
        Each(flora =>
        {
            var query = flora.AnyQuery();
            var (result, looks) = flora.Sifter.SiftAndLook(query);
            Assert.NotNull(result);
            var ids = flora.Characters.Select(c => c.Id).ToHashSet();
            Assert.All(looks.Now, l =>
            {
                Assert.Contains(l.Character, ids);
                Assert.True(l.Bits > 0 && double.IsFinite(l.Bits));
                Assert.DoesNotContain(l.Character, query.Skip ?? []);
                // What hardly ever shows isn't drawn.
                Assert.InRange(l.Split.Sum(s => s.Share), 0.9, 1 + 1e-6);
                Assert.NotEmpty(l.InWords);
                var character = flora.Characters.Single(c => c.Id == l.Character);
                Assert.False(query.Missing?.Contains(character.Organ) == true);
                Assert.True(character.Handling <= query.Most);
            });
            Assert.All(looks.Later, l => Assert.Contains(l.Character, ids));
            Assert.Empty(looks.Now.Select(l => l.Character).Intersect(looks.Later.Select(l => l.Character)));
        });

    [Fact]
    public void AContrastNamesForEveryPairWhatSeparatesItOrThatNothingDoes() =>
        Each(flora =>
        {
            var taxa = flora.Taxa.Select(t => t.Id).Take(4).ToList();
            if (Contrast.Problem(flora.Sifter, taxa) is { } problem)
            {
                Assert.NotEmpty(problem);
                return;
            }
            var result = Contrast.Of(flora.Sifter, new ContrastQuery(taxa, flora.AnySheet(), new DateOnly(2026, 6, 1), [flora.AnySheet()]));
            Assert.Equal(taxa.Count * (taxa.Count - 1) / 2, result.Pairs.Count);
            Assert.All(result.Pairs, p => Assert.InRange(p.Separation, 0, 1));
            Assert.All(result.Rows, r => Assert.Contains(r.Character, flora.Characters.Select(c => c.Id)));
            Assert.Subset(flora.Characters.Select(c => c.Id).ToHashSet(), result.Smallest.Characters.ToHashSet());
            // With what can be seen now no fewer will do than with all there is.
            Assert.True(result.SmallestNow.Unseparated >= result.Smallest.Unseparated);
            Assert.All(flora.Taxa, t => Assert.DoesNotContain(t.Id, Contrast.Near(flora.Sifter, t.Id, 3)));
        });

    [Fact]
    public void AGiveawayHoldsInOneTaxonOfTheListAlone() =>
        Each(flora =>
        {
            var columns = flora.Sifter.Columns;
            foreach (var it in Giveaways.Of(columns, [.. columns.Taxa.Select(_ => true)]))
            {
                var others = columns
                    .Taxa.Where(t => t != it.Taxon)
                    .Select(t => columns.Describe(t, it.Character))
                    .Where(c => c is { Applies: true });
                Assert.All(others, c => Assert.True((c!.States.FirstOrDefault(s => s.State == it.State)?.Share ?? 0) <= 0.05));
                Assert.True(columns.Describe(it.Taxon, it.Character)!.States.Single(s => s.State == it.State).Share >= 0.9);
            }
        });

    [Fact]
    public void EveryNameCanBeConfirmedOrNotAndSaysWhatIsMissing() =>
        Each(flora =>
        {
            if (flora.Taxa.Count == 0)
                return;
            var query = flora.AnyQuery();
            foreach (var rules in GradeRules.Shipped)
            {
                var result = Confirm.Of(
                    flora.Sifter,
                    new ConfirmQuery("t0", query.Observations, query.Place, query.Day, rules, null, [], false, query.Plausible)
                );
                Assert.InRange(result.Probability, 0, 1);
                Assert.Equal(Enum.GetValues<CheckKind>(), result.Checks.Select(c => c.Kind));
                Assert.True(result.Grade < Grade.Verified);
                Assert.Equal(result.Grade + 1, result.Next);
                Assert.True(result.MissingForNext.Count > 0);
                Assert.All(result.LookAlikes, l => Assert.True(l.Taxon != "t0" && l.IsExcluded == (l.By.Count > 0)));
                Assert.All(result.Needs, n => Assert.NotEmpty(n.Text));
                Assert.InRange(result.ReportAs.Probability, 0, 1 + 1e-9);
            }
        });

    [Fact]
    public void TheSeasonsOfAnyListStandInTheirYear() =>
        Each(flora =>
        {
            SeasonSite from = new(57, -4, 20),
                to = new(58, -3, 900);
            var rows = SeasonList.Of(flora.Sifter, [.. flora.Taxa.Select(t => t.Id)], new DateOnly(2026, 6, 1), from, to, 3);
            Assert.True(rows.Count <= flora.Taxa.Count);
            foreach (var window in rows.SelectMany(r => r.Phases).SelectMany(p => p.Windows))
            {
                Assert.True(DayOfYear.IsOne(window.From) && DayOfYear.IsOne(window.To));
                Assert.InRange(window.Length, 1, DayOfYear.Days);
            }
        });

    [Fact]
    public void ASpecimenShowsWhatItsDescriptionHas() =>
        Each(flora =>
        {
            foreach (var description in flora.Described)
            {
                var specimen = new SimulatedPlant(description.Characters, new Random(7));
                foreach (var character in flora.Characters)
                {
                    var cell = description.Characters.FirstOrDefault(c => c.Character == character.Id);
                    if (specimen.Look(character) is not { } look)
                    {
                        Assert.True(cell is not { Applies: true } || character.IsQuantity);
                        continue;
                    }
                    Assert.Null(EvidenceSheet.Problem(look, character, new DateOnly(2026, 1, 1)));
                    Assert.Subset(cell!.States.Select(d => d.State).ToHashSet(), look.States.ToHashSet());
                    // Looked at again it is the same plant.
                    if (!character.IsQuantity)
                        Assert.Equal(look.States, specimen.Look(character)!.States);
                }
            }
        });
}
