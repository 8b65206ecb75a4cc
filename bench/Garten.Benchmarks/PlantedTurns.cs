using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Formats.Tables;

namespace Garten.Benchmarks;

/// <summary>
/// Keys followed to an end with every answer right, and with one answer wrong; then three looks, those that the program proposes or any.
/// How often it is alarmed though all was right, and how often the wrong answer stands among the first two turns.
/// </summary>
internal sealed class PlantedTurns(FloraReading flora, IReadOnlyList<TaxonDescription> complete, IReadOnlyList<TaxonDescription> species)
{
    private const int MostCouplets = 40;
    private const int Looks = 3;

    // A turn with so many answers behind it is a deep one: what follows has long been about other plants.
    private const int Deep = 3;

    private readonly BenchShelf _shelf = DemoKeys.Shelf(flora);

    private readonly Sifter _sifter = new(FloraColumns.Of(flora.Table.Characters, complete), flora.Taxa, flora.Table.Seasons);
    private readonly WholePlants _whole = new(flora.Table.Characters, complete);

    public void Report(TextWriter to, int firstSeed)
    {
        to.WriteLine(
            $"\n## A wrong turn in a key\n\nEach species taken through each key that leads to it, once with every answer right and once for each couplet of its way with that one answered wrongly and the rest as the plant shows it; then {Looks} looks, chosen by what they tell of the turns, or at random. Alarm: a turn has a quarter or more though all answers were right. Deep: {Deep} or more answers behind the wrong one.\n"
        );
        to.WriteLine(
            "| looks | wrong looks | right trails | alarms | planted turns | among the first two | first | deep ones | among the first two |\n|---|---|---|---|---|---|---|---|---|"
        );
        foreach (var chosen in new[] { true, false })
        {
            foreach (var error in new[] { 0, 0.05 })
            {
                int right = 0,
                    alarms = 0,
                    planted = 0,
                    two = 0,
                    first = 0,
                    deep = 0,
                    deepTwo = 0;
                foreach (var taxon in species)
                {
                    foreach (var entry in DemoKeys.Entries)
                    {
                        var random = new Random(firstSeed + right);
                        if (Follow(entry, taxon, random, error, null) is not { } way)
                            continue;
                        right++;
                        alarms += Tested(way, random, chosen).Weakest is null ? 0 : 1;
                        for (var at = 0; at < way.Answers.Count; at++)
                        {
                            if (Follow(entry, taxon, random, error, at) is not { } wrong)
                                continue;
                            planted++;
                            var isDeep = wrong.Answers.Count - at > Deep;
                            deep += isDeep ? 1 : 0;
                            var turns = Tested(wrong, random, chosen).Turns;
                            var place = (wrong.Answers[at].KeyVersion, wrong.Answers[at].Couplet);
                            var rank = turns.Select(t => (t.KeyVersion, t.Couplet)).ToList().IndexOf(place);
                            two += rank is 0 or 1 ? 1 : 0;
                            first += rank == 0 ? 1 : 0;
                            deepTwo += isDeep && rank is 0 or 1 ? 1 : 0;
                        }
                    }
                }
                string Of(int n, int of) => of == 0 ? "–" : $"{100d * n / of:0.0} %";
                to.WriteLine(
                    $"| {(chosen ? "chosen" : "random")} | {error:0 %} | {right} | {Of(alarms, right)} | {planted} | {Of(two, planted)} | {Of(first, planted)} | {deep} | {Of(deepTwo, deep)} |"
                );
            }
        }
    }

    private sealed record Way(string Start, List<TrailAnswer> Answers, SimulatedPlant Plant, TaxonDescription Taxon, DateOnly Day);

    // With every answer right, or with one of them wrong; null where the key doesn't lead to the taxon, or the wrong way has no end.
    private Way? Follow(string entry, TaxonDescription taxon, Random random, double error, int? wrongAt)
    {
        var start = _shelf.Keys.Versions.First(v => v.Key.Title == entry).Hash;
        var name = flora.Taxa.First(t => t.Id == taxon.Taxon).Name;
        var day = Trial.BestDay(_sifter, taxon);
        var plant = new SimulatedPlant(_whole.Whole(taxon, random), random, error);
        var exact = new SimulatedPlant(_whole.Whole(taxon, random), random);
        var answers = new List<TrailAnswer>();
        for (var n = 0; n < MostCouplets; n++)
        {
            var walk = KeyWalk.Follow(_shelf.Keys, start, answers);
            if (walk.Open is not [var open, ..])
                return walk.Standing is [_] && (wrongAt is not null || walk.Standing[0].Name == name)
                    ? new Way(start, answers, plant, taxon, day)
                    : null;
            var own = Enumerable.Range(0, open.Taxa.Count).Where(l => open.Taxa[l].Any(t => t.Name == name)).ToList();
            if (own.Count == 0 && wrongAt is null)
                return null;
            int lead;
            if (n == wrongAt)
            {
                var others = Enumerable.Range(0, open.Couplet.Leads.Count).Except(own).ToList();
                if (others.Count == 0)
                    return null;
                lead = others[random.Next(others.Count)];
            }
            else
                lead = own.Count > 0 ? own[0] : AsThePlantShows(start, answers, open, exact, day, random);
            answers.Add(new TrailAnswer(open.KeyVersion, open.Couplet.Label, lead));
        }
        return null;
    }

    private int AsThePlantShows(
        string start,
        List<TrailAnswer> answers,
        OpenCouplet open,
        SimulatedPlant plant,
        DateOnly day,
        Random random
    )
    {
        var reading = KeyBench
            .Follow(_shelf, start, answers, [], [], day)
            .Verdicts.First(v => v.KeyVersion == open.KeyVersion && v.Couplet == open.Couplet.Label);
        var looks = reading
            .Leads.SelectMany(l => l.Statements)
            .SelectMany(s => s.Reading.Claims)
            .Select(c => c.Character)
            .Distinct()
            .Select(flora.Table.Find)
            .OfType<Character>()
            .Select(c => plant.Look(c))
            .OfType<Observation>()
            .ToList();
        if (looks.Count == 0)
            return random.Next(open.Couplet.Leads.Count);
        var verdict = KeyBench
            .Follow(_shelf, start, answers, looks, [], day)
            .Verdicts.FirstOrDefault(v => v.KeyVersion == open.KeyVersion && v.Couplet == open.Couplet.Label);
        return verdict?.Best ?? random.Next(open.Couplet.Leads.Count);
    }

    private BenchState Tested(Way way, Random random, bool chosen)
    {
        var sheet = new List<Observation>();
        var tried = new HashSet<string>();
        var state = KeyBench.Follow(_shelf, way.Start, way.Answers, sheet, [], way.Day);
        for (var n = 0; n < Looks; n++)
        {
            string? next;
            if (chosen)
                next = state.TrailLooks.Select(l => l.Character).FirstOrDefault(c => !tried.Contains(c));
            else
            {
                var open = way
                    .Taxon.Characters.Where(c =>
                        c.Applies && !tried.Contains(c.Character) && _sifter.CanBeSeen(way.Taxon.Taxon, c.Character, way.Day)
                    )
                    .ToList();
                next = open.Count == 0 ? null : open[random.Next(open.Count)].Character;
            }
            if (next is null)
                break;
            tried.Add(next);
            if (way.Plant.Look(flora.Table.Find(next)!) is { } seen)
                sheet.Add(seen);
            state = KeyBench.Follow(_shelf, way.Start, way.Answers, sheet, [], way.Day);
        }
        return state;
    }
}
