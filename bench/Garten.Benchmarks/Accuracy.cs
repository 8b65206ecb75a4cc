using System.Globalization;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Formats;

namespace Garten.Benchmarks;

/// <summary>Measures how well plants are named, on plants drawn from the demo's descriptions. The results stand in docs/accuracy.md.</summary>
internal static class Accuracy
{
    private static readonly double[] Errors = [0, 0.05, 0.1];
    private static readonly int[] Looks = [3, 5, 8];

    public static void Run(TextWriter to)
    {
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        var flora = FloraFolder.Read(Path.Combine(Root(), "demo", "flora"));
        var complete = CharacterTable.Complete(flora.Table.Descriptions, flora.Taxa);
        var ranks = flora.Taxa.ToDictionary(t => t.Id, t => t.Rank);
        var species = complete.Where(d => ranks[d.Taxon] is "species" or "hybrid").ToList();
        if (Environment.GetEnvironmentVariable("TUNE") is not null)
        {
            foreach (var prior in new[] { 0.1, 0.12, 0.15, 0.2 })
                foreach (var differs in new[] { 0.25, 0.4 })
                {
                    var o = new SiftOptions { NotOnList = prior, KinDiffer = differs, LeastBits = 0.002 };
                    var full = new Sifter(FloraColumns.Of(flora.Table.Characters, complete), flora.Taxa, flora.Table.Seasons, o);
                    var on = species.SelectMany(d => Enumerable.Range(0, 2).Select(seed => Trial.Of(full, d, seed, 0, Way.Telling, 15)!)).ToList();
                    var onErr = species.SelectMany(d => Enumerable.Range(0, 2).Select(seed => Trial.Of(full, d, seed, 0.05, Way.Telling, 15)!)).ToList();
                    var off = species.SelectMany(d => Enumerable.Range(0, 1).Select(seed =>
                    {
                        var list = new Sifter(FloraColumns.Of(flora.Table.Characters, [.. complete.Where(x => x.Taxon != d.Taxon && flora.Taxa.First(t => t.Id == x.Taxon).Parent != d.Taxon)]), flora.Taxa, flora.Table.Seasons, o);
                        return Trial.Of(full, d, seed, 0, Way.Telling, 15, list)!;
                    })).ToList();
                    string Off(int n) => $"{off.Average(t => t.TopAfter(n) is var c && (c.Taxon == Sifter.NotOnList || c.Probability < 0.95) ? 1 : 0):0.00}";
                    var firstOver = off.Average(t => t.Steps.FirstOrDefault(s => s.Standing[0].Probability >= 0.95)?.Standing[0] is { } c && c.Taxon != Sifter.NotOnList ? 0 : 1);
                    string On(List<Trial> set, int n) => $"{set.Average(t => t.TopAfter(n).Taxon == t.Taxon ? 1 : 0):0.00}/{set.Average(t => t.TopAfter(n) is var c && c.Taxon == t.Taxon && c.Probability >= .95 ? 1 : 0):0.00}";
                    to.WriteLine($"prior {prior} differs {differs}: off-list ok after 6 {Off(6)} 10 {Off(10)} 15 {Off(15)} never-over {firstOver:0.00} | on 6 {On(on, 6)} 10 {On(on, 10)} 15 {On(on, 15)} | 5% err 6 {On(onErr, 6)} 15 {On(onErr, 15)}");
                }
        }
    }

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Garten.slnx"))) folder = folder.Parent;
        return folder!.FullName;
    }
}
