using System.Globalization;
using Garten.Core.Characters;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Quantities;

namespace Garten.Server.Demo;

/// <summary>
/// Two shrubs and what stands between them at one place of the demo, each marked and measured in the last summer: the parents are compared
/// by what they measure here, not by what a description says of them elsewhere.
/// </summary>
/// <param name="place">Where they stand.</param>
/// <param name="people">Who measured.</param>
/// <param name="today">The day of loading.</param>
internal sealed class DemoStand(Place place, IReadOnlyList<PersonReference> people, DateOnly today)
{
    private const string First = "Ondrelia crenata";
    private const string Second = "Ondrelia palustris";
    private const string Cross = "Ondrelia × media";
    private const int Seed = 31;
    private const int LeavesAPlant = 5;
    private const int Parents = 5;

    // In full leaf.
    private const int Month = 7;
    private const int Day = 9;

    // Lengths in millimetres in the middle of a plant of each parent: of the blade, its width, its stalk.
    private static readonly (string Character, double OfFirst, double OfSecond)[] Measures =
    [
        ("leaf-length", 45, 85),
        ("leaf-width", 30, 66),
        ("petiole-length", 7, 13),
    ];

    // How leaves of a plant differ, and plants of a taxon, as standard deviations of the logarithm.
    private const double BetweenLeaves = 0.10;
    private const double BetweenPlants = 0.07;

    private readonly Random _random = new(Seed);

    /// <summary>The commands, in the order in which they are to be sent.</summary>
    public IEnumerable<Command> Draw()
    {
        for (var i = 1; i <= Parents; i++)
        {
            foreach (var command in Plant($"carr c{i}", 0, [First], ""))
                yield return command;
            foreach (var command in Plant($"carr p{i}", 1, [Second], ""))
                yield return command;
        }
        var between = new (double Index, string[] Names, string Note)[]
        {
            (0.5, [Cross], "Leaf bases of both kinds on one branch."),
            (0.45, [First, Second], "Neither the one nor the other."),
            (0.55, [First, Cross], "Fruits shrivelled; few of them."),
            (0.9, [Second, Cross], "Nearly all as the marsh one."),
            (0.1, [First, Cross], "One branch in the shade of the dyke."),
        };
        for (var i = 0; i < between.Length; i++)
        {
            var (index, names, note) = between[i];
            foreach (var command in Plant(string.Create(CultureInfo.InvariantCulture, $"carr x{i + 1}"), index, names, note))
                yield return command;
        }
    }

    private IEnumerable<Command> Plant(string label, double index, string[] names, string note)
    {
        var day = new DateOnly(today.Year, Month, Day);
        if (day >= today)
            day = day.AddYears(-1);
        var date = day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        var recorder = people[_random.Next(people.Count)];
        var plant = Guid.CreateVersion7();
        yield return new TagPlantCommand(
            Guid.CreateVersion7(),
            plant,
            place.Id,
            label,
            date,
            recorder,
            null,
            new Finding("footbridge", _random.Next(36) * 10, 5 + _random.Next(40), "")
        );
        List<Observation> looks = [.. Measures.Select(m => Look(m.Character, Between(m, index), new ObservationContext(), date))];
        // A leaf of the shade is half as long again: it isn't held against the others.
        if (note.Contains("shade", StringComparison.Ordinal))
            looks.Add(Look(Measures[0].Character, 1.5 * Between(Measures[0], index), new ObservationContext(Light: Light.Shade), date));
        yield return new RecordDeterminationCommand(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            plant,
            "",
            place.Id,
            date,
            recorder,
            "",
            [],
            names,
            note,
            looks
        );
    }

    // Sizes lie between on the logarithm.
    private double Between((string Character, double OfFirst, double OfSecond) measure, double index) =>
        measure.OfFirst * Math.Pow(measure.OfSecond / measure.OfFirst, index) * Math.Exp(BetweenPlants * Normal());

    private double Normal() => Math.Sqrt(-2 * Math.Log(1 - _random.NextDouble())) * Math.Cos(2 * Math.PI * _random.NextDouble());

    private Observation Look(string character, double middle, ObservationContext context, string date) =>
        new(
            Guid.CreateVersion7(),
            character,
            Outcome.Seen,
            [],
            false,
            [
                .. Enumerable
                    .Range(0, LeavesAPlant)
                    .Select(_ => Math.Round(middle * Math.Exp(BetweenLeaves * Normal())))
                    .Select(mm => new Reading(mm, string.Create(CultureInfo.InvariantCulture, $"{mm} mm"), 1)),
            ],
            0,
            0,
            Sureness.Sure,
            context,
            Tool.Ruler,
            date,
            ""
        );
}
