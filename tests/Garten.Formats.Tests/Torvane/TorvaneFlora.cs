using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Quantities;
using Garten.Formats.Tables;

namespace Garten.Formats.Tests.Torvane;

/// <summary>The demo's flora and keys, as the server loads them, and specimens drawn from the descriptions.</summary>
internal static class TorvaneFlora
{
    public static string Root { get; } = FindRoot();

    public static FloraReading Written { get; } = FloraFolder.Read(Path.Combine(Root, "demo", "flora"));

    public static IReadOnlyList<Taxon> Taxa => Written.Taxa;

    public static CharacterTable Table => Written.Table;

    public static IReadOnlyList<KeyVersion> Keys { get; } = [.. Directory.EnumerateFiles(Path.Combine(Root, "demo", "keys"), "*.txt").Order(StringComparer.Ordinal)
        .SelectMany(f => KeyTextReader.Read(File.ReadAllText(f)).Keys).Select(k => new KeyVersion(KeyHash.Of(k), k))];

    public static BenchShelf Shelf { get; } = new(new KeyShelf(Keys, Taxa), Table, Taxa);

    public static string Start(string title) => Keys.First(k => k.Key.Title == title).Hash;

    public const string Leaf = "Key to the woody plants of Torvane in leaf";

    public const string Twigs = "Key to the leafless twigs of Torvane";

    /// <summary>A look at one character of a plant drawn from a description: a state by its share, or readings from its range.</summary>
    public static Observation? Look(Random random, Character character, CharacterDescription? described, int readings = 3, ObservationContext? context = null)
    {
        if (described is not { Applies: true }) return null;
        context ??= new ObservationContext();
        var states = new List<string>();
        var values = new List<Reading>();
        if (character.IsQuantity)
        {
            var range = (context.LeavesAreLarger ? described.Shade : null) ?? described.Range!;
            var distribution = new RangeDistribution(range);
            // The plant's own mean, and its readings around it: each half of the variance.
            var plant = Gauss(random) * Math.Sqrt(0.5);
            for (var i = 0; i < readings; i++)
            {
                var value = distribution.Quantile(Math.Clamp(plant + Gauss(random) * Math.Sqrt(0.5), -2.5, 2.5));
                values.Add(new Reading(character.Kind == CharacterKind.Count ? Math.Max(0, Math.Round(value)) : Math.Round(value, 1), "", 0.1));
            }
            if (values.Exists(v => v.Value <= 0) && character.Kind != CharacterKind.Count) return null;
        }
        else
        {
            var draw = random.NextDouble();
            var share = described.States.FirstOrDefault(s => (draw -= s.Share) <= 0) ?? described.States[0];
            states.Add(share.State);
        }
        return new Observation(Guid.NewGuid(), character.Id, Outcome.Seen, states, false, values, 0, 0, Sureness.Sure, context, Tool.Eye, "2026-07-01", "");
    }

    private static double Gauss(Random random) => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(Path.Combine(folder.FullName, "Garten.slnx"))) folder = folder.Parent;
        return folder!.FullName;
    }
}
