using CsCheck;
using Garten.Core.Seasons;
using Xunit;

namespace Garten.Core.Tests.Seasons;

/// <summary>Seasons at sites where the rule ends: bounded, without jumps, and in their order.</summary>
public sealed class SeasonShiftTests
{
    private static readonly SeasonSite Home = new(57.4, -11.2, 40);

    [Theory]
    [InlineData(78, 15, 10)]
    [InlineData(57.4, -11.2, 2500)]
    [InlineData(57.4, -11.2, 8000)]
    [InlineData(1, -11.2, 0)]
    [InlineData(28, -11.2, 0)]
    public void BeyondItsBoundsTheRuleSaysSo(double latitude, double longitude, double metres)
    {
        var shift = SeasonShift.Between(Home, new(latitude, longitude, metres), Phenophase.Flower);
        Assert.NotEmpty(shift.Warnings);
        Assert.InRange(
            shift.Parts.Where(p => !p.Reason.Contains("half", StringComparison.Ordinal)).Sum(p => p.Days),
            -SeasonShift.MostDays,
            SeasonShift.MostDays
        );
    }

    [Fact]
    public void WithinThemItSaysNothing() => Assert.Empty(SeasonShift.Between(Home, new(48, 9, 900), Phenophase.Flower).Warnings);

    private static readonly Gen<SeasonSite> Sites = Gen.Select(Gen.Double[-90, 90], Gen.Double[-180, 180], Gen.Double[-50, 5000])
        .Select(s => new SeasonSite(s.Item1, s.Item2, s.Item3));

    /// <summary>A step of a metre never moves a season by a day or more: not at the equator, the tropics, the poles or the date
    /// line.</summary>
    [Fact]
    public void ItHasNoJumps() =>
        Gen.Select(Sites, Gen.Enum<Phenophase>(), Gen.Int[0, 3])
            .Sample(
                (site, phase, edge) =>
                {
                    const double step = 0.0005;
                    var at = edge switch
                    {
                        0 => site,
                        1 => site with { Latitude = 0 },
                        2 => site with { Longitude = Home.Longitude + 180 },
                        _ => site with { ElevationMetres = SeasonShift.MostMetres },
                    };
                    var near = SeasonShift.Between(Home, at, phase).Days;
                    foreach (
                        var other in new[]
                        {
                            at with
                            {
                                Latitude = at.Latitude + step,
                            },
                            at with
                            {
                                Longitude = at.Longitude - step,
                            },
                            at with
                            {
                                ElevationMetres = at.ElevationMetres + step,
                            },
                        }
                    )
                    {
                        Assert.InRange(SeasonShift.Between(Home, other, phase).Days - near, -1, 1);
                    }
                },
                iter: 20_000
            );

    [Fact]
    public void TheWayBackIsTheSame() =>
        Gen.Select(Sites, Sites, Gen.Enum<Phenophase>())
            .Sample(
                (a, b, phase) =>
                {
                    var (there, back) = (SeasonShift.Between(a, b, phase), SeasonShift.Between(b, a, phase));
                    static double Held(SeasonShift s) =>
                        s.Parts.Where(p => !p.Reason.Contains("half", StringComparison.Ordinal)).Sum(p => p.Days);
                    Assert.Equal(-Held(back), Held(there), 6);
                }
            );

    private static readonly (Phenophase Phase, DayWindow Window)[] Year =
    [
        (Phenophase.BareTwig, new(320, 90)),
        (Phenophase.LeafBudOpening, new(91, 115)),
        (Phenophase.FullLeaf, new(116, 270)),
        (Phenophase.Flower, new(125, 160)),
        (Phenophase.YoungFruit, new(161, 220)),
        (Phenophase.RipeFruit, new(221, 290)),
        (Phenophase.AutumnColour, new(271, 319)),
    ];

    /// <summary>Phases that stood apart still do, and in their order, wherever on earth the plant stands and however late the year
    /// is.</summary>
    [Fact]
    public void PhasesNeverChangePlaces() =>
        Gen.Select(Sites, Sites, Gen.Double[-60, 60])
            .Sample(
                (from, to, lead) =>
                {
                    var days = Enum.GetValues<Phenophase>().ToDictionary(p => p, p => SeasonShift.Between(from, to, p, lead).Days);
                    var moved = PhaseOrder.Shift(Year, days);
                    Assert.InRange(moved.Share, 0, 1);
                    Assert.Equal(Year.Select(y => y.Phase), moved.Phases.Select(p => p.Phase));
                    // Going round the year from the first day of the first one, the first days come in the order they came in before.
                    static int[] Order(IEnumerable<DayWindow> windows) =>
                        [
                            .. windows
                                .Select(w => DayOfYear.Between(windows.First().From, w.From))
                                .Select((d, i) => (d, i))
                                .OrderBy(x => x.d)
                                .ThenBy(x => x.i)
                                .Select(x => x.i),
                        ];
                    Assert.Equal(Order(Year.Select(y => y.Window)), Order(moved.Phases.Select(p => p.Window)));
                    foreach (var (a, b) in new[] { (0, 1), (1, 2), (3, 4), (4, 5), (2, 6), (6, 0) })
                    {
                        Assert.DoesNotContain(Enumerable.Range(1, DayOfYear.Days), d =>
                            moved.Phases[a].Window.Holds(d) && moved.Phases[b].Window.Holds(d)
                        );
                    }
                },
                iter: 20_000
            );

    [Fact]
    public void WithoutAShiftNothingMoves()
    {
        var moved = PhaseOrder.Shift(Year, Enum.GetValues<Phenophase>().ToDictionary(p => p, _ => 0));
        Assert.Equal(Year.Select(y => y.Window), moved.Phases.Select(p => p.Window));
        Assert.Equal(1, moved.Share);
    }
}
