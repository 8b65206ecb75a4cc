using System.Globalization;
using System.Text.RegularExpressions;

namespace Garten.Core.Quantities;

/// <summary>An object of one's own that lengths are measured with: a coin, a card, a pencil, the own thumb.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Length">Its length in millimetres; above 0.</param>
/// <param name="Uncertainty">Standard uncertainty of that length in millimetres; 0 or more. A thumb bends.</param>
public sealed record CalibratedObject(string Name, double Length, double Uncertainty);

/// <summary>One reading.</summary>
/// <param name="Value">In millimetres, degrees or as a number.</param>
/// <param name="Text">As typed.</param>
/// <param name="Resolution">The step in its last place, in the same unit as the value.</param>
/// <param name="Calibration">Standard uncertainty that its instrument brings, in the same unit; 0 for a ruler.</param>
/// <param name="Struck">Why it was struck out; empty while it counts.</param>
/// <param name="At">In a series up the stem: <c>low</c>, <c>middle</c> or <c>top</c>; else empty.</param>
public sealed record Reading(double Value, string Text, double Resolution, double Calibration = 0, string Struck = "", string At = "");

/// <summary>What is wrong with readings as typed, or worth asking about.</summary>
/// <param name="Message">A sentence for the person who typed it.</param>
/// <param name="At">Index of the character, from 0.</param>
/// <param name="IsQuestion">Whether it is only asked about and may stand.</param>
public sealed record ReadingProblem(string Message, int At, bool IsQuestion = false);

/// <summary>Readings read from a line.</summary>
/// <param name="Readings">The readings in their order, those before a problem too.</param>
/// <param name="Problems">What is wrong; empty where all is sound.</param>
public sealed record ReadingLine(IReadOnlyList<Reading> Readings, IReadOnlyList<ReadingProblem> Problems)
{
    /// <summary>Whether the readings can be kept.</summary>
    public bool IsSound => Readings.Count > 0 && Problems.All(p => p.IsQuestion);
}

/// <summary>Reads readings as they come: <c>12.4 13 11,8 14 mm</c>, <c>3/8 in</c>, <c>2½</c> of a coin.</summary>
public static partial class ReadingText
{
    /// <summary>More readings of one character than anyone takes; a pasted table belongs into an import.</summary>
    public const int MostReadings = 2000;

    /// <summary>Longer than any plant, in millimetres.</summary>
    public const double LongestLength = 130_000;

    /// <summary>Larger than any ratio of two measures of one organ.</summary>
    public const double LargestRatio = 1000;

    /// <summary>More than anyone counts.</summary>
    public const double LargestCount = 1_000_000;

    /// <summary>Shorter than the finest spore's wall, in millimetres; a smaller length is a slip of the pen, or of a program.</summary>
    public const double ShortestLength = 0.0001;

    /// <summary>Smaller than any ratio of two measures of one organ.</summary>
    public const double SmallestRatio = 0.001;

    /// <summary>A whole turn, in degrees.</summary>
    public const double LargestAngle = 360;

    private const int LongestText = 40_000;

    /// <summary>Whether a reading, its resolution and its calibration lie within what is measured of plants: nothing can be worked out with
    /// others.</summary>
    public static bool IsWithinBounds(Reading reading, QuantityKind kind)
    {
        ArgumentNullException.ThrowIfNull(reading);
        var (least, largest) = Bounds(kind);
        return reading.Value >= least
            && reading.Value <= largest
            && reading.Resolution >= 0
            && reading.Resolution <= largest
            && reading.Calibration >= 0
            && reading.Calibration <= largest;
    }

    /// <summary>The bounds of a reading in words: "from 0.0001 to 130000 mm".</summary>
    public static string BoundsInWords(QuantityKind kind)
    {
        var (least, largest) = Bounds(kind);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"from {least} to {largest}{(kind switch { QuantityKind.Length => " mm", QuantityKind.Angle => "°", _ => "" })}"
        );
    }

    private static (double Least, double Largest) Bounds(QuantityKind kind) =>
        kind switch
        {
            QuantityKind.Length => (ShortestLength, LongestLength),
            QuantityKind.Ratio => (SmallestRatio, LargestRatio),
            QuantityKind.Angle => (0, LargestAngle),
            _ => (0, LargestCount),
        };

    /// <summary>Reads a line.</summary>
    /// <param name="text">The line.</param>
    /// <param name="kind">What is measured.</param>
    /// <param name="unit">The unit of numbers without one; for lengths and angles.</param>
    /// <param name="calibrated">The object whose multiples they are; null for a ruler.</param>
    /// <param name="largest">The largest value that makes sense for the character, in its kept unit; a larger one is asked about.</param>
    public static ReadingLine Read(
        string text,
        QuantityKind kind,
        MeasureUnit? unit = null,
        CalibratedObject? calibrated = null,
        double largest = double.PositiveInfinity
    )
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length > LongestText)
            return new(
                [],
                [new ReadingProblem($"This is too much for one line; up to {MostReadings} readings belong to one character.", 0)]
            );
        var found = new List<(NumberText.Found Number, int At)>();
        var units = new List<(MeasureUnit Unit, int At, int Before)>();
        var problems = new List<ReadingProblem>();
        var at = 0;
        while (at < text.Length && problems.Count == 0)
        {
            if (char.IsWhiteSpace(text[at]) || text[at] is ';' or ',' or '·')
            {
                at++;
                continue;
            }
            if (text[at] is '-' or '−' or '–' && at + 1 < text.Length && char.IsAsciiDigit(text[at + 1]))
            {
                var isRange = at > 0 && !char.IsWhiteSpace(text[at - 1]);
                problems.Add(
                    new(
                        isRange ? "Type each reading by itself, not a range."
                            : kind == QuantityKind.Count ? "A count can't be below zero."
                            : "A measure can't be below zero.",
                        at
                    )
                );
            }
            else if (NumberText.Read(text, at) is { } number)
            {
                if (found.Count >= MostReadings)
                    problems.Add(new($"These are more than {MostReadings} readings; keep the first ones and begin another entry.", at));
                else
                    found.Add((number, at));
                at = number.End;
            }
            else if (UnitAt().Match(text, at) is { Success: true } word && word.Index == at)
            {
                if (MeasureUnit.Named(word.Value) is { } named)
                    units.Add((named, at, found.Count));
                else
                    problems.Add(new($"“{word.Value}” is no unit that is known here: write mm, cm, m, in, ft or °.", at));
                at += word.Length;
            }
            else
                problems.Add(new($"“{text[at]}” isn't understood. Type numbers with spaces between.", at));
        }
        if (problems.Count == 0 && found.Count == 0)
            problems.Add(new("Type a number.", 0));
        if (problems.Count == 0 && units.FirstOrDefault(u => u.Unit.Kind != kind) is { Unit: not null } misfit)
        {
            problems.Add(
                new(
                    kind switch
                    {
                        QuantityKind.Count => "A count has no unit.",
                        QuantityKind.Ratio => "A ratio has no unit.",
                        QuantityKind.Angle => $"An angle is measured in degrees, not in {misfit.Unit.Symbol}.",
                        _ => $"A length isn't measured in {misfit.Unit.Symbol}.",
                    },
                    misfit.At
                )
            );
        }
        if (problems.Count == 0 && units.Select(u => u.Unit).Distinct().Count() > 1)
            problems.Add(new("These readings are in different units. Enter them in one unit, or unit by unit.", units[1].At));
        if (problems.Count == 0 && units.Count > 0 && units[0].Before == 0)
            problems.Add(new("The number before the unit is missing.", units[0].At));
        if (problems.Count == 0 && calibrated is not null && units.Count > 0)
            problems.Add(new($"Counted in {calibrated.Name}: write multiples without a unit.", units[0].At));
        var used = units.Count > 0 ? units[0].Unit : unit;
        if (problems.Count == 0 && kind == QuantityKind.Length && used is null && calibrated is null)
            problems.Add(new("Say in which unit: mm, cm, m, in.", text.Length));
        var readings = new List<Reading>();
        foreach (var (number, place) in found)
        {
            var factor = kind is QuantityKind.Length or QuantityKind.Angle ? calibrated?.Length ?? used?.Factor ?? 1 : 1;
            var value = Math.Round(number.Value * factor, 9);
            if (Wrong(value, number, kind) is { } wrong)
            {
                problems.Add(new(wrong, place));
                // What no plant has is no reading; a sum with it would say nothing.
                if (!(value >= 0 && value <= LongestLength * LargestRatio))
                    continue;
            }
            else if (value > largest)
                problems.Add(
                    new($"{Show(value, kind)} is more than is known of any plant here. Is the unit right?", place, IsQuestion: true)
                );
            var symbol =
                calibrated is not null ? "× " + calibrated.Name
                : used is not null && kind is QuantityKind.Length or QuantityKind.Angle ? used?.Symbol ?? ""
                : "";
            // A thumb or a coin is read to a quarter at best, however it is written.
            var step = calibrated is null ? number.Step : Math.Max(number.Step, 0.25);
            readings.Add(
                new Reading(
                    value,
                    (text[place..number.End] + " " + symbol).Trim(),
                    Math.Round(step * factor, 9),
                    calibrated is null ? 0 : number.Value * calibrated.Uncertainty
                )
            );
        }
        return new(problems.Exists(p => !p.IsQuestion) && units.Count > 1 ? [] : readings, problems);
    }

    private static string? Wrong(double value, NumberText.Found number, QuantityKind kind) =>
        kind switch
        {
            QuantityKind.Count when number.IsFraction => "A count is a whole number.",
            QuantityKind.Count when value > LargestCount => "Nobody counts that far; is it a measure?",
            QuantityKind.Length when value <= 0 => "A length of zero can't be measured; note that the part is absent instead.",
            QuantityKind.Length when value < ShortestLength =>
                $"Nothing of a plant is measured below {ShortestLength.ToString(CultureInfo.InvariantCulture)} mm. Is the unit right?",
            QuantityKind.Length when value > LongestLength => $"{Show(value, kind)} is longer than any plant. Is the unit right?",
            QuantityKind.Ratio when value <= 0 => "A ratio with zero says nothing.",
            QuantityKind.Ratio when value < SmallestRatio => "No two measures of one organ differ that much.",
            QuantityKind.Ratio when value > LargestRatio => "No two measures of one organ differ that much.",
            QuantityKind.Angle when value > LargestAngle => "An angle goes up to 360°.",
            _ => null,
        };

    /// <summary>A value with its unit, in the unit that reads best: 12.4 mm, 3.5 cm, 2 m, 40°, 7.</summary>
    public static string Show(double value, QuantityKind kind)
    {
        const double metresFrom = 1000,
            centimetresFrom = 30;
        return kind switch
        {
            QuantityKind.Length when value >= metresFrom => Number(value / 1000) + " m",
            QuantityKind.Length when value >= centimetresFrom => Number(value / 10) + " cm",
            QuantityKind.Length => Number(value) + " mm",
            QuantityKind.Angle => Number(value) + "°",
            _ => Number(value),
        };
    }

    private static string Number(double value) =>
        value.ToString(
            value >= 100 ? "0"
                : value >= 10 ? "0.#"
                : "0.##",
            CultureInfo.InvariantCulture
        );

    [GeneratedRegex(@"\G(?:[\p{L}µμ]+\.?|[""″”'′’°])", RegexOptions.CultureInvariant)]
    private static partial Regex UnitAt();
}
