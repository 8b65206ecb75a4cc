using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>
/// A plant drawn from the description of its taxon: of each character one state by its share, or a size of its own by the range, the
/// same whenever it is looked at. Looks at it may be wrong.
/// </summary>
/// <param name="description">What the taxon is like.</param>
/// <param name="random">Where chance comes from: the same one gives the same plant.</param>
/// <param name="observerError">Share of looks that are wrong, 0 to 1: a neighbouring state, a size half as large again or a third
/// less. Below 0: of states as many as each character's reliability says, of measures none; and of both as many slips of the pen as the
/// program reckons with.</param>
public sealed class SimulatedPlant(IReadOnlyList<CharacterDescription> description, Random random, double observerError = 0)
{
    // How far a reading may stray: what is rarer doesn't grow on the plants that people look at.
    private const double Farthest = 2.5;

    private const double WrongBy = 1.5;

    // A slip of the pen: any state at all, or a size up to five times too large or too small.
    private const double SlipBy = 5;
    private static readonly double SlipRate = EvidenceOptions.Default.LapseRate;

    // A plant that is small in one part is small in the others, as the program takes it to be.
    private static readonly double SizesAlike = EvidenceOptions.Default.SizeCorrelation;
    private double? _size;

    private static readonly double Half = Math.Sqrt(0.5);

    private readonly Dictionary<string, CharacterDescription> _described = description.ToDictionary(
        d => d.Character,
        StringComparer.Ordinal
    );
    private readonly Dictionary<string, string> _states = new(StringComparer.Ordinal);
    private readonly Dictionary<string, double> _sizes = new(StringComparer.Ordinal);

    /// <summary>A look at a character; null where the plant hasn't the part, or nobody knows what it is like in it.</summary>
    /// <param name="character">The character.</param>
    /// <param name="readings">How many readings of a measure.</param>
    /// <param name="context">What it is to be judged by; null for an adult plant in the sun.</param>
    public Observation? Look(Character character, int readings = 3, ObservationContext? context = null)
    {
        ArgumentNullException.ThrowIfNull(character);
        if (!_described.TryGetValue(character.Id, out var cell) || !cell.Applies)
            return null;
        context ??= new ObservationContext();
        var error =
            observerError >= 0 ? observerError
            : character.IsQuantity ? 0
            : 1 - character.Reliability;
        var isWrong = random.NextDouble() < error;
        var isSlip = observerError < 0 && random.NextDouble() < SlipRate;
        if (!character.IsQuantity)
        {
            if (!_states.TryGetValue(character.Id, out var state))
            {
                var draw = random.NextDouble();
                _states[character.Id] = state = (cell.States.FirstOrDefault(s => (draw -= s.Share) <= 0) ?? cell.States[0]).State;
            }
            if (isSlip)
                state = character.States[random.Next(character.States.Count)].Id;
            return Seen(character, [isWrong && !isSlip ? Wrong(character, state) : state], [], context);
        }
        if ((context.LeavesAreLarger ? cell.Shade ?? cell.Range : cell.Range) is not { } range)
            return null;
        var distribution = new RangeDistribution(range);
        // The plant's own mean, and its readings around it: each half of the variance.
        if (!_sizes.TryGetValue(character.Id, out var own))
            _sizes[character.Id] = own = OwnSize(character) * Half;
        var slip = isSlip ? Math.Pow(SlipBy, (2 * random.NextDouble()) - 1) : 1;
        var values = new List<Reading>();
        for (var i = 0; i < readings; i++)
        {
            var value =
                range.Form == RangeForm.Exactly ? range.Low : distribution.Quantile(Math.Clamp(own + Gauss() * Half, -Farthest, Farthest));
            value *= slip;
            if (isWrong)
                value = character.Kind == CharacterKind.Count ? value + 1 : value * WrongBy;
            value = character.Kind == CharacterKind.Count ? Math.Max(0, Math.Round(value)) : Math.Max(0, Math.Round(value, 1));
            if (value <= 0 && character.Kind is CharacterKind.Length or CharacterKind.Ratio)
                return null;
            values.Add(new Reading(value, "", 0.1));
        }
        return Seen(character, [], values, context);
    }

    private double OwnSize(Character character) =>
        character.SizeGroup.Length == 0 ? Gauss() : ((_size ??= Gauss()) * Math.Sqrt(SizesAlike)) + (Gauss() * Math.Sqrt(1 - SizesAlike));

    private string Wrong(Character character, string state)
    {
        var (n, at) = (character.States.Count, character.IndexOf(state));
        if (n < 2)
            return state;
        if (character.Kind == CharacterKind.Ordered)
            return character
                .States[
                    at == 0 ? 1
                    : at == n - 1 || random.Next(2) == 0 ? at - 1
                    : at + 1
                ]
                .Id;
        return character.States[(at + 1 + random.Next(n - 1)) % n].Id;
    }

    private static Observation Seen(
        Character character,
        IReadOnlyList<string> states,
        IReadOnlyList<Reading> readings,
        ObservationContext context
    ) => new(Guid.Empty, character.Id, Outcome.Seen, states, false, readings, 0, 0, Sureness.Sure, context, Tool.Eye, "2000-01-01", "");

    // Box and Muller 1958.
    private double Gauss() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
}
