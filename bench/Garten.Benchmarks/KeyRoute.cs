using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Formats.Tables;

namespace Garten.Benchmarks;

/// <summary>A plant taken through a key by somebody who looks at just what each couplet asks for, beside the same plant sifted.</summary>
internal sealed class KeyRoute(FloraReading flora, IReadOnlyList<TaxonDescription> complete, IReadOnlyList<TaxonDescription> species)
{
    private const int MostCouplets = 40;
    private const double LookSeconds = 15;
    private const double Settled = 0.95;

    private readonly BenchShelf _shelf = DemoKeys.Shelf(flora);

    private readonly Sifter _sifter = new(FloraColumns.Of(flora.Table.Characters, complete), flora.Taxa, flora.Table.Seasons);

    public void Compare(Sifter sifter, TextWriter to, int plants, int firstSeed)
    {
        to.WriteLine(
            "\n## The best single key against sifting\n\nThe same plants on the same day. In the key a plant is looked at for what each couplet asks, and the lead is taken that fits; of the keys one can begin with, the one that does best for the species. Sifting follows the first telling look until a name has 95 %, or 15 looks.\n"
        );
        to.WriteLine(
            "| wrong looks | key: right | key: seconds | sifting: right | wrong at 95 % | sifting: seconds |\n|---|---|---|---|---|---|"
        );
        foreach (var error in new[] { 0, 0.05, 0.1 })
        {
            var key = new List<(bool Right, double Seconds)>();
            var sifted = new List<(bool Right, bool Wrong, double Seconds)>();
            foreach (var taxon in species)
            {
                var day = Trial.BestDay(sifter, taxon);
                var best = DemoKeys
                    .Entries.Select(entry =>
                        Enumerable.Range(firstSeed, plants).Select(seed => Follow(entry, taxon, day, new Random(seed), error)).ToList()
                    )
                    .MaxBy(r => (r.Count(x => x.Right), -r.Sum(x => x.Seconds)))!;
                key.AddRange(best);
                foreach (var seed in Enumerable.Range(firstSeed, plants))
                {
                    if (Trial.Of(sifter, taxon, seed, error, Way.Telling, 15) is not { } trial)
                        continue;
                    var at = Enumerable
                        .Range(0, trial.Steps.Count)
                        .FirstOrDefault(i => trial.Steps[i].Standing[0] is { Probability: >= Settled }, trial.Steps.Count - 1);
                    var first = trial.Steps[at].Standing[0];
                    sifted.Add((first.Taxon == taxon.Taxon, first.Taxon != taxon.Taxon && first.Probability >= Settled, trial.Seconds[at]));
                }
            }
            to.WriteLine(
                $"| {error:0 %} | {key.Average(k => k.Right ? 100 : 0):0} % | {key.Average(k => k.Seconds):0} | {sifted.Average(k => k.Right ? 100 : 0):0} % | {sifted.Average(k => k.Wrong ? 100 : 0):0.0} % | {sifted.Average(k => k.Seconds):0} |"
            );
        }
    }

    private (bool Right, double Seconds) Follow(string entry, TaxonDescription taxon, DateOnly day, Random random, double error)
    {
        var plant = new SimulatedPlant(taxon.Characters, random, error);
        var start = _shelf.Keys.Versions.First(v => v.Key.Title == entry).Hash;
        var answers = new List<TrailAnswer>();
        var sheet = new List<Observation>();
        var looked = new HashSet<string>();
        var seconds = 0d;
        var own = flora.Taxa.First(t => t.Id == taxon.Taxon);
        for (var n = 0; n < MostCouplets; n++)
        {
            var state = KeyBench.Follow(_shelf, start, answers, sheet, [], day);
            if (state.Walk.Open is not [var open, ..])
                return (state.Walk.Standing is [var end] && end.Name == own.Name, seconds);
            var verdict = state.Verdicts.First(v => v.KeyVersion == open.KeyVersion && v.Couplet == open.Couplet.Label);
            var asked = verdict
                .Leads.SelectMany(l => l.Statements)
                .SelectMany(s => s.Reading.Claims)
                .Select(c => c.Character)
                .Where(looked.Add)
                .ToList();
            var added = 0;
            foreach (var id in asked)
            {
                if (flora.Table.Find(id) is not { } character || character.RatioOf is not null)
                    continue;
                seconds += character.EffortSeconds + LookSeconds;
                if (Shows(taxon, character, day) && plant.Look(character) is { } seen)
                {
                    sheet.Add(seen);
                    added++;
                }
            }
            if (added > 0)
                continue;
            // Nothing more to look at: the lead that fits better is taken, or by chance.
            answers.Add(new TrailAnswer(open.KeyVersion, open.Couplet.Label, verdict.Best ?? random.Next(open.Couplet.Leads.Count)));
        }
        return (false, seconds);
    }

    private bool Shows(TaxonDescription taxon, Character character, DateOnly day) =>
        character.SeenIn.Count == 0 || _sifter.CanBeSeen(taxon.Taxon, character.Id, day);
}
