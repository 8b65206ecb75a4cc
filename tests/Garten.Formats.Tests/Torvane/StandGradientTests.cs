using System.Globalization;
using Garten.Core.Characters;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Formats.Tests.Torvane;

/// <summary>Marked plants of a place between two parents that were measured there.</summary>
public sealed class StandGradientTests
{
    private const string Scalloped = "Ondrelia crenata";
    private const string Marsh = "Ondrelia palustris";
    private const string Cross = "Ondrelia × media";

    private static readonly ReadyFlora Flora = TorvaneFlora.MakeReady();

    private static Observation Measure(string character, ObservationContext? context, params double[] values) =>
        new(
            Guid.CreateVersion7(),
            character,
            Outcome.Seen,
            [],
            false,
            [.. values.Select(v => new Reading(v, v.ToString(CultureInfo.InvariantCulture), 1))],
            0,
            0,
            Sureness.Sure,
            context ?? new ObservationContext(),
            Tool.Ruler,
            "2026-06-12",
            ""
        );

    private static MarkedPlant Plant(string label, string[] names, double length, double petiole) =>
        new(label, names, [Measure("leaf-length", null, length), Measure("petiole-length", null, petiole)]);

    private static readonly MarkedPlant[] Parents =
    [
        .. new[] { 40d, 44, 48 }.Select((x, i) => Plant($"c{i}", [Scalloped], x, x / 6)),
        .. new[] { 80d, 88, 96 }.Select((x, i) => Plant($"p{i}", [Marsh], x, x / 6)),
    ];

    private static StandGradientAnswer Ask(params MarkedPlant[] stand) =>
        new StandGradientRequest("torvane", [.. Parents, .. stand], Scalloped, Marsh).WorkOut(Flora);

    [Fact]
    public void PairsAreToldWithThePlantsOfEach()
    {
        var answer = new StandGradientRequest(
            "torvane",
            [.. Parents, Plant("x", [Cross], 60, 10), Plant("y", [Scalloped, Marsh], 60, 10), Plant("z", ["Vellorna alata"], 60, 10)]
        ).WorkOut(Flora);
        var pair = Assert.Single(answer.Pairs);
        Assert.Equal(new ParentPair(Scalloped, Marsh, 3, 3, 2), pair);
        Assert.True(pair.IsEnough);
        Assert.Equal("3 and 3 marked plants, 2 between them", pair.InWords);
        Assert.Null(answer.Gradient);
    }

    [Theory]
    [InlineData(Cross)]
    [InlineData(Scalloped + "|" + Marsh)]
    [InlineData(Scalloped + "|" + Cross)]
    public void APlantOpenBetweenThemLiesOnTheLine(string names)
    {
        var gradient = Ask(Plant("x", names.Split('|'), 61.6, 10.3)).Gradient!;
        var x = gradient.Points.Single(p => p.Label == "x");
        Assert.Equal(GradientGroup.Stand, x.Group);
        // By hand: the means are 43.9 and 87.8 mm on the logarithm, 62.1 half-way.
        Assert.InRange(x.Index!.Value, 0.45, 0.55);
        Assert.Equal(["length of the leaf (mm)", "length of the petiole (mm)"], gradient.Characters.Select(c => c.Name));
        Assert.Equal(43.9, gradient.Characters[0].First, 1);
    }

    [Fact]
    public void PlantsOfOtherTaxaAreNoneOfThem()
    {
        var gradient = Ask(
            Plant("x", ["Vellorna alata"], 60, 10),
            Plant("y", [Scalloped, "Vellorna alata"], 60, 10),
            Plant("z", [], 60, 10)
        ).Gradient!;
        Assert.Equal(Parents.Length, gradient.Points.Count);
    }

    public static TheoryData<ObservationContext, string> Others =>
        new()
        {
            { new ObservationContext(Light: Light.Shade), "Left out: a measure taken in the shade." },
            { new ObservationContext(Stage: Stage.Sapling), "Left out: a measure of young plants." },
            { new ObservationContext(Age: PartAge.Young), "Left out: a measure of young or old parts." },
            { new ObservationContext(Shaping: Shaping.Clipped), "Left out: a measure of browsed, cut or dry plants." },
            { new ObservationContext(Damage: Damage.Eaten), "Left out: a measure of harmed parts." },
            { new ObservationContext(Material: Material.Pressed), "Left out: a measure of what was not fresh." },
            { new ObservationContext(Attachment: Attachment.Beneath), "Left out: a measure of what lay beneath the plant." },
        };

    [Theory]
    [MemberData(nameof(Others))]
    public void WhatIsLargerOrSmallerForAnotherReasonIsLeftOutAndSaid(ObservationContext context, string note)
    {
        // Without its leaf in the shade the plant is as the first parent.
        var x = new MarkedPlant(
            "x",
            [Cross],
            [Measure("leaf-length", context, 140), Measure("leaf-length", null, 43, 45), Measure("petiole-length", null, 7.3)]
        );
        var answer = Ask(x);
        Assert.Equal([note], answer.Notes);
        Assert.InRange(answer.Gradient!.Points.Single(p => p.Label == "x").Index!.Value, -0.05, 0.05);
    }

    [Fact]
    public void WhatWasNotMeasuredIsNamedAndWhatFollowsFromMeasuresDoesNotCountTwice()
    {
        var answer = Ask(
            new MarkedPlant("x", [Cross]),
            new MarkedPlant("y", [Cross], [Measure("leaf-ratio", null, 1.4)]),
            new MarkedPlant("z", [Cross], [Measure("leaf-length", null, 60) with { Withdrawn = true }])
        );
        Assert.Equal(["Not measured yet: x, y, z."], answer.Notes);
        Assert.DoesNotContain(answer.Gradient!.Characters, c => c.Name.Contains("ratio", StringComparison.OrdinalIgnoreCase));
    }

    [Fact]
    public void OneParentAloneIsNoPair()
    {
        Assert.Throws<RequestException>(() => new StandGradientRequest("torvane", Parents, Scalloped).WorkOut(Flora));
        Assert.Throws<RequestException>(() => new StandGradientRequest("torvane", Parents, Scalloped, Scalloped).WorkOut(Flora));
        // Two plants of a parent are too few to compare by: it is said.
        var few = new StandGradientRequest("torvane", [.. Parents.Skip(1), Plant("x", [Cross], 60, 10)], Scalloped, Marsh).WorkOut(Flora);
        Assert.False(few.Pairs[0].IsEnough);
        Assert.Contains(few.Gradient!.Notes, n => n.StartsWith("Measure at least 3 plants of each parent", StringComparison.Ordinal));
    }
}
