using Garten.Core.Evidence;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Surveys;

/// <summary>Populations as chance would have them: years without a count, corrections of corrections, plants that come back, fruit over the
/// new year.</summary>
public sealed class AnyPopulationTests
{
    private static readonly DateOnly First = new(2023, 1, 1);

    private static (List<PopulationCount> Counts, List<PeggedPlant> Pegs, List<DayWindow> Fruit, DateOnly Today) Any(int seed)
    {
        var random = new Random(seed);
        var today = First.AddDays(random.Next(300, 1500));
        DateOnly Day() => First.AddDays(random.Next(0, today.DayNumber - First.DayNumber + 1));
        var counts = new List<PopulationCount>();
        for (var n = random.Next(0, 7); n > 0; n--)
            counts.Add(
                new PopulationCount(
                    new Guid(n, 1, 1, new byte[8]),
                    Day(),
                    (CountUnit)random.Next(Enum.GetValues<CountUnit>().Length),
                    random.Next(0, 50),
                    "",
                    "",
                    counts.Count > 0 && random.Next(4) == 0 ? counts[random.Next(counts.Count)].Id : null
                )
            );
        var pegs = Enumerable
            .Range(0, random.Next(0, 6))
            .Select(i =>
            {
                var pegged = Day();
                var visits = Enumerable
                    .Range(0, random.Next(0, 6))
                    .Select(_ =>
                    {
                        var state = (PlantState)random.Next(Enum.GetValues<PlantState>().Length);
                        PhaseNote[] phases =
                            state == PlantState.NotRefound
                                ? []
                                :
                                [
                                    .. new[] { Phenophase.Flower, Phenophase.YoungFruit, Phenophase.RipeFruit }
                                        .Where(_ => random.Next(3) == 0)
                                        .Select(p => new PhaseNote(p, (PhaseStage)random.Next(Enum.GetValues<PhaseStage>().Length))),
                                ];
                        BranchSex[] sexes =
                            state == PlantState.NotRefound || random.Next(2) == 0
                                ? []
                                : [new BranchSex("east", (PartSex)random.Next(1, 4))];
                        return new PlantVisit(
                            Guid.NewGuid(),
                            Guid.Empty,
                            pegged.AddDays(random.Next(0, Math.Max(1, today.DayNumber - pegged.DayNumber + 1))),
                            state,
                            phases,
                            sexes,
                            "",
                            ""
                        );
                    })
                    .OrderBy(v => v.Date)
                    .ToList();
                return new PeggedPlant(Guid.NewGuid(), $"peg {i}", pegged, visits);
            })
            .ToList();
        List<DayWindow> fruit = random.Next(3) switch
        {
            0 => [],
            1 => [new DayWindow(230, 280)],
            _ => [new DayWindow(350, 20), new DayWindow(200, 210)],
        };
        return (counts, pegs, fruit, today);
    }

    [Fact]
    public void EveryYearIsSummedUpOnceWithSharesThatCanBe() => AnyFlora.Each(3000, seed =>
        {
            var (counts, pegs, fruit, today) = Any(seed);
            var summary = PopulationSummary.Of(counts, pegs, fruit, today);
            Assert.Equal(summary.Years.Select(y => y.Year).Distinct().Order(), summary.Years.Select(y => y.Year));
            foreach (var year in summary.Years)
            {
                Assert.InRange(year.Pegged, 0, pegs.Count);
                Assert.InRange(year.NotRefound, 0, year.Pegged);
                foreach (var share in new[] { year.Flowered, year.Fruited, year.Alive })
                {
                    Assert.Equal(year.Pegged, share.Known + share.Unknown);
                    Assert.InRange(share.Count, 0, share.Known);
                    Assert.InRange(share.Low, 0, share.High);
                    Assert.True(share.High <= 1);
                    // What is unknown widens it to both sides.
                    if (share.Least is { } least && share.Most is { } most)
                        Assert.True(least <= (share.Share ?? most) && (share.Share ?? least) <= most);
                }
                // Fruit follows flower.
                Assert.True(year.Fruited.Count <= year.Flowered.Count + year.Flowered.Unknown);
                Assert.True(year.Sexes.Male + year.Sexes.Female + year.Sexes.Both + year.Sexes.NotSexed == year.Pegged);
                Assert.Equal(year.Counts.Count, year.Counts.Select(c => c.Unit).Distinct().Count());
            }
            var superseded = counts.Select(c => c.Supersedes).ToHashSet();
            Assert.All(summary.Years.SelectMany(y => y.Counts), c => Assert.DoesNotContain((Guid?)c.Id, superseded));
            Assert.Subset(pegs.Select(p => p.Label).ToHashSet(), summary.NeverFlowered.ToHashSet());
            Assert.All(summary.Changes, c => Assert.True(c.FromYear < c.ToYear && (c.PerYear is null ? c.From == 0 : c.PerYear >= 0)));
            Assert.All(summary.Due, d =>
                Assert.True(d.Text.Length > 0 && d.Windows.All(w => DayOfYear.IsOne(w.From) && DayOfYear.IsOne(w.To)))
            );
            Assert.All(summary.Missed, m => Assert.EndsWith(".", m, StringComparison.Ordinal));
        });

    [Fact]
    public void TheOrderInWhichThingsWereNotedDoesNotMatter() => AnyFlora.Each(600, seed =>
        {
            var (counts, pegs, fruit, today) = Any(seed);
            var (one, turned) = (
                PopulationSummary.Of(counts, pegs, fruit, today),
                PopulationSummary.Of([.. counts.AsEnumerable().Reverse()], [.. pegs.AsEnumerable().Reverse()], fruit, today)
            );
            Assert.Equal(
                one.Years.Select(y => (y.Year, y.Pegged, y.Flowered, y.Fruited, y.Alive, y.NotRefound)),
                turned.Years.Select(y => (y.Year, y.Pegged, y.Flowered, y.Fruited, y.Alive, y.NotRefound))
            );
            Assert.Equal(
                one.Changes.Order(Comparer<CountChange>.Create((a, b) => (a.Unit, a.FromYear).CompareTo((b.Unit, b.FromYear)))),
                turned.Changes.Order(Comparer<CountChange>.Create((a, b) => (a.Unit, a.FromYear).CompareTo((b.Unit, b.FromYear))))
            );
            Assert.Equal(one.NeverFlowered.Order(), turned.NeverFlowered.Order());
        });

    [Fact]
    public void ADeadPlantNeitherLivesNorFlowersAnyMore() => AnyFlora.Each(600, seed =>
        {
            var (_, pegs, _, today) = Any(seed);
            foreach (var peg in pegs.Where(p => p.Visits.Count > 0 && p.Visits[^1].State == PlantState.Dead))
            {
                for (var year = peg.Visits[^1].Date.Year + 1; year <= today.Year + 1; year++)
                {
                    Assert.False(PopulationSummary.Lived(peg, year));
                    Assert.False(PopulationSummary.Flowered(peg, year));
                }
            }
        });
}
