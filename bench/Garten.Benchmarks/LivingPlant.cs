using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;

namespace Garten.Benchmarks;

/// <summary>
/// A plant whose looks are taken in all contexts: on young and old parts, low and at the top, in the shade, on saplings, on browsed and
/// clipped plants. What a description says of a context holds; where it is silent, hairs, colours and forms are otherwise in a share of the
/// plants, sizes too. The shares are drawn anew for each plant between none and twice what the program reckons with, so that it isn't told
/// its own numbers.
/// </summary>
internal sealed class LivingPlant
{
    private readonly Dictionary<string, CharacterDescription> _described;
    private readonly Dictionary<(string Character, string Context), string> _elsewhere = [];
    private readonly SimulatedPlant _plant;
    private readonly Random _random;
    private readonly double _strength;
    private readonly IReadOnlyDictionary<string, double[]> _usual;

    /// <summary>Draws one.</summary>
    public LivingPlant(
        IReadOnlyList<CharacterDescription> described,
        IReadOnlyDictionary<string, double[]> usual,
        Random random,
        double error
    )
    {
        _described = described.ToDictionary(d => d.Character, StringComparer.Ordinal);
        (_usual, _random) = (usual, random);
        _plant = new SimulatedPlant(described, random, error);
        _strength = 2 * random.NextDouble();
    }

    private ObservationContext Draw(Character character)
    {
        if (character.Organ is Organ.Flower or Organ.Fruit or Organ.Site)
            return new ObservationContext();
        T Of<T>(params (T Value, double Share)[] choices)
            where T : struct
        {
            var at = _random.NextDouble();
            foreach (var (value, share) in choices)
            {
                if ((at -= share) < 0)
                    return value;
            }
            return default;
        }
        return new ObservationContext(
            Of((Position.Low, 0.15), (Position.Top, 0.15), (Position.Middle, 0.3)),
            Of((Light.Shade, 0.25), (Light.Sun, 0.3)),
            Of((Stage.Sapling, 0.1), (Stage.Adult, 0.4)),
            Of((PartAge.Young, 0.25), (PartAge.Old, 0.1), (PartAge.Grown, 0.3)),
            Of((Shaping.Browsed, 0.05), (Shaping.Clipped, 0.05))
        );
    }

    /// <summary>A look in a context that is drawn.</summary>
    public Observation? Look(Character character)
    {
        var context = Draw(character);
        if (
            _plant.Look(character, context: context with { Stage = Stage.Unsaid, Light = Light.Unsaid, Shaping = Shaping.Unsaid })
            is not { } look
        )
            return null;
        look = look with { Context = context };
        if (!_described.TryGetValue(character.Id, out var cell))
            return look;
        var contexts = LookContext.DescribedIn(context);
        if (cell.In(contexts) is { } there)
            return Drawn(look, character, there);
        // How much truly changes: of the same kinds as the program's rules, with another strength for each plant.
        var changes = Math.Min(0.9, _strength * TrueChange(character, context));
        if (!character.IsQuantity && changes > 0)
        {
            var name = (character.Id, string.Join(',', contexts));
            if (!_elsewhere.TryGetValue(name, out var state))
                _elsewhere[name] = state = _random.NextDouble() < changes ? Any(character) : "";
            return state.Length > 0 ? look with { States = [state] } : look;
        }
        if (character.Kind != CharacterKind.Length || look.Readings.Count == 0)
            return look;
        var log = 0d;
        if (context.Age == PartAge.Young)
            log += _strength * (-0.25 + 0.3 * Gauss());
        if (context.LeavesAreLarger && character.Organ == Organ.Leaf)
            log += cell is { Shade: { } shade, Range: { } sun } ? Math.Log(shade.High / sun.High) : _strength * Math.Log(1.4);
        if (context.Position is Position.Low or Position.Top && character.Organ == Organ.Leaf)
            log += 0.25 * Gauss();
        if (context.Shaping != Shaping.Unsaid && character.Organ is not (Organ.Flower or Organ.Fruit))
            log += -0.5 + 0.4 * Gauss();
        var by = Math.Exp(log);
        return look with { Readings = [.. look.Readings.Select(r => r with { Value = Math.Max(0.1, Math.Round(r.Value * by, 1)) })] };
    }

    private Observation Drawn(Observation look, Character character, ContextCell there)
    {
        if (character.IsQuantity)
        {
            var own = new SimulatedPlant([new CharacterDescription(character.Id, [], there.Range)], _random).Look(character);
            return own is null ? look : look with { Readings = own.Readings };
        }
        var at = _random.NextDouble();
        return look with { States = [(there.States.FirstOrDefault(s => (at -= s.Share) <= 0) ?? there.States[0]).State] };
    }

    private string Any(Character character)
    {
        var usual = _usual.GetValueOrDefault(character.Id);
        if (usual is null)
            return "";
        var at = _random.NextDouble() * usual.Sum();
        for (var s = 0; s < usual.Length; s++)
        {
            if ((at -= usual[s]) <= 0)
                return character.States[s].Id;
        }
        return character.States[^1].Id;
    }

    private static double TrueChange(Character character, ObservationContext context)
    {
        var change =
            character.Id.Contains("hair", StringComparison.Ordinal) ? 0.33
            : character.Id.Contains("colour", StringComparison.Ordinal) ? 0.3
            : character.Id.Contains("shape", StringComparison.Ordinal) || character.Id.Contains("attitude", StringComparison.Ordinal) ? 0.25
            : character.Id.Contains("margin", StringComparison.Ordinal) || character.Id.Contains("lobe", StringComparison.Ordinal) ? 0.2
            : 0.05;
        var most = 0d;
        if (context.Age is PartAge.Young or PartAge.Old)
            most = 1;
        if (context.Stage == Stage.Sapling || context.Position is Position.Low or Position.Top)
            most = Math.Max(most, 0.6);
        if (context.Light == Light.Shade)
            most = Math.Max(most, 0.4);
        return most * change;
    }

    // Box and Muller 1958.
    private double Gauss() => Math.Sqrt(-2 * Math.Log(1 - _random.NextDouble())) * Math.Cos(2 * Math.PI * _random.NextDouble());
}
