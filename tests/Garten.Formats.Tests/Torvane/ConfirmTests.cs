using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Visits;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>Plants of the demo's flora taken through a year by the visits that are planned for them.</summary>
public sealed class ConfirmTests(ITestOutputHelper output)
{
    private static readonly Sifter Sifter = TorvaneFlora.MakeReady().Sifter;
    private static readonly DateOnly Start = new(2026, 11, 25);

    private static IEnumerable<TaxonDescription> Species =>
        TorvaneFlora.Shelf.Descriptions.Where(d => TorvaneFlora.Taxa.Single(t => t.Id == d.Taxon).Rank is "species" or "hybrid");

    private static SiftPlace? Home(string taxon) =>
        TorvaneFlora.Taxa.Single(t => t.Id == taxon).Facts is { Cells: [var cell, ..] } facts
            ? new SiftPlace(cell, facts.ElevationFrom, facts.Habitats)
            : null;

    private static ConfirmResult Ask(string taxon, IReadOnlyList<Observation> sheet, DateOnly day) =>
        Confirm.Of(Sifter, new ConfirmQuery(taxon, sheet, Home(taxon), day, GradeRules.ConfirmedList, false, [], false, false));

    private static List<Observation> LookAtAll(TaxonDescription taxon, SimulatedPlant plant, DateOnly day) =>
        [
            .. Sifter
                .Columns.Columns.Where(c =>
                    c.Character.Tool != Core.Characters.Tool.Microscope && Sifter.CanBeSeen(taxon.Taxon, c.Character.Id, day)
                )
                .Select(c => plant.Look(c.Character))
                .OfType<Observation>()
                .Select(o => o with { Id = Guid.NewGuid(), Date = day.ToString("yyyy-MM-dd") }),
        ];

    [Fact]
    public void ThePlannedVisitsAloneConfirmNineTaxaOfTen()
    {
        var (confirmed, possible, laboratory, visits, planned) = (0, 0, 0, 0, 0);
        foreach (var taxon in Species)
        {
            var plant = new SimulatedPlant(taxon.Characters, new Random(7));
            var first = Ask(taxon.Taxon, [], Start);
            var needs = first.Needs.Select(n => new VisitNeed(n.Id, "here", n.Windows)).ToList();
            var plan = VisitPlan.Of(Start, needs, stop: TestContext.Current.CancellationToken);
            Assert.True(plan.IsOptimal);
            if (plan.Unanswerable.Count > 0)
                laboratory++;
            else
                possible++;
            var sheet = plan.Visits.SelectMany(v => LookAtAll(taxon, plant, v.Date)).ToList();
            var last = Ask(taxon.Taxon, sheet, Start);
            if (plan.Unanswerable.Count == 0 && last.Grade >= Grade.Confirmed)
                confirmed++;
            visits += plan.Visits.Count;
            planned++;
            if (last.Grade < Grade.Confirmed)
                output.WriteLine(
                    $"{taxon.Taxon}: {plan.Visits.Count} visits {string.Join(", ", plan.Visits.Select(v => $"{v.Date:MM-dd}[{string.Join(' ', v.Needs)}]"))}, {last.Grade} {last.Probability:0.000}; {string.Join(" ", last.MissingForNext)} report {last.ReportAs.Kind} {last.ReportAs.Name}; {(last.Hybrid is { } h ? $"hybrid {h.Name} {h.OverParents:0}" : "")} {string.Join(',', plan.Unanswerable)}"
                );
        }
        output.WriteLine(
            $"{confirmed} of {possible} confirmed, {laboratory} need a laboratory; {visits / (double)planned:0.00} visits on the average"
        );
        Assert.True(confirmed >= 0.9 * possible, $"{confirmed} of {possible}");
        Assert.True(possible >= 0.9 * planned, $"{laboratory} are said to need a laboratory");
    }

    [Fact]
    public void ALookAlikesNameIsNeverConfirmed()
    {
        var (confirmed, plants) = (0, 0);
        foreach (var taxon in Species)
        {
            var facts = TorvaneFlora.Taxa.Single(t => t.Id == taxon.Taxon).Facts!;
            for (var seed = 0; seed < 3; seed++)
            {
                var plant = new SimulatedPlant(taxon.Characters, new Random(seed));
                var sheet = Enumerable
                    .Range(1, 12)
                    .SelectMany(month => LookAtAll(taxon, plant, new DateOnly(2026, month, 10)))
                    .DistinctBy(o => o.Character)
                    .ToList();
                var own = Ask(taxon.Taxon, sheet, Start);
                if (own.Grade < Grade.Confirmed)
                    output.WriteLine(
                        $"{taxon.Taxon} {seed}: {own.Grade} {own.Probability:0.0000} {string.Join(" ", own.MissingForNext)} {string.Join(" ", own.Checks.Where(c => c.Verdict != CheckVerdict.Pass).Select(c => c.Reason))} {own.Hybrid?.Name} {own.Hybrid?.OverParents} {string.Join(", ", own.Hybrid?.Reasons ?? [])}"
                    );
                if (own.Grade == Grade.Confirmed)
                    confirmed++;
                plants++;
                Assert.All(facts.LookAlikes, other =>
                    Assert.True(Ask(other, sheet, Start).Grade < Grade.Corroborated, $"{taxon.Taxon} as {other}")
                );
            }
        }
        output.WriteLine($"{confirmed} of {plants} plants confirmed");
        Assert.True(confirmed >= 0.9 * plants, $"{confirmed} of {plants}");
    }
}
