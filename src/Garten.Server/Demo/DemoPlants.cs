using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;

namespace Garten.Server.Demo;

/// <summary>Tagged plants of the demo, drawn from the flora's descriptions: each was seen once, and something of it is still to be seen.</summary>
internal static class DemoPlants
{
    private const int Seed = 20;
    private const int PerPlace = 3;

    // What one looks at before the rain comes.
    private const int MostLooks = 6;

    private static readonly string[] Spots = ["by the stile", "peg 4", "under the leaning stone", "peg 11", "at the ditch", "by the gatepost", "peg 7"];

    // How many days ago they were seen: in the season that is past, and in the one before.
    private static readonly int[] DaysAgo = [23, 96, 171, 12, 140, 61, 205];

    /// <summary>Determinations to be sent, each of a plant of its own.</summary>
    /// <param name="flora">The flora, made ready.</param>
    /// <param name="places">Where they grow.</param>
    /// <param name="recorders">Who has seen them, in turn.</param>
    /// <param name="except">Names that have plants of their own in the survey's file.</param>
    /// <param name="today">The day of loading.</param>
    public static IEnumerable<RecordDeterminationCommand> Draw(ReadyFlora flora, IReadOnlyList<Place> places, IReadOnlyList<PersonReference> recorders, IReadOnlySet<string> except, DateOnly today)
    {
        var random = new Random(Seed);
        var taken = new HashSet<string>(except, StringComparer.Ordinal);
        var n = 0;
        foreach (var place in places)
        {
            var here = flora.Pack.Taxa.Where(t => t.Rank == "species" && flora.Sifter.Columns.IndexOf(t.Id) >= 0 && t.Facts is { } facts && facts.Cells.Contains(place.Cell, StringComparer.Ordinal)
                && facts.Habitats.Any(h => place.Habitats?.Contains(h, StringComparer.Ordinal) == true)).ToList();
            for (var i = 0; i < PerPlace; i++)
            {
                var free = here.Where(t => !taken.Contains(t.Name) && !taken.Contains(t.Name.Split(' ')[0])).ToList();
                if (free.Count == 0) break;
                var taxon = free[random.Next(free.Count)];
                taken.Add(taxon.Name);
                var day = today.AddDays(-DaysAgo[n % DaysAgo.Length]);
                var looks = Looks(flora, taxon, day, random);
                yield return new RecordDeterminationCommand(Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7(), Spots[n % Spots.Length], place.Id,
                    day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture), recorders[n % recorders.Count], "", [], [taxon.Name], "", looks, Confirming: new Confirming(flora.Pack.Id, taxon.Id, "confirmed-list"));
                n++;
            }
        }
    }

    private static List<Observation> Looks(ReadyFlora flora, Taxon taxon, DateOnly day, Random random)
    {
        var description = flora.Sifter.Columns.Columns.Select(c => c[flora.Sifter.Columns.IndexOf(taxon.Id)]).OfType<CharacterDescription>().ToList();
        var plant = new Specimen(description, random);
        var visible = flora.Sifter.Columns.Columns.Select(c => c.Character).Where(c => flora.Sifter.CanBeSeen(taxon.Id, c.Id, day)).OrderBy(_ => random.Next());
        return [.. visible.Select(c => plant.Look(c)).OfType<Observation>().Take(MostLooks).Select(o => o with { Id = Guid.CreateVersion7(), Date = day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) })];
    }
}
