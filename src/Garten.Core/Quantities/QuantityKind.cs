using System.Text.Json.Serialization;

namespace Garten.Core.Quantities;

/// <summary>What kind of number a measured or counted character has.</summary>
[JsonConverter(typeof(CamelCaseWords<QuantityKind>))]
public enum QuantityKind
{
    /// <summary>A whole number of things; no unit.</summary>
    Count,

    /// <summary>A length, kept in millimetres.</summary>
    Length,

    /// <summary>One length divided by another; no unit, above 0.</summary>
    Ratio,

    /// <summary>An angle in degrees.</summary>
    Angle,
}

/// <summary>A unit as it is written, and how many of the kept unit one of it makes.</summary>
/// <param name="Symbol">How it is written out again: mm, cm, in, °.</param>
/// <param name="Kind">Length or angle.</param>
/// <param name="Factor">Millimetres, or degrees, in one of it; above 0.</param>
public sealed record MeasureUnit(string Symbol, QuantityKind Kind, double Factor)
{
    private const double MillimetresPerInch = 25.4;
    private const double InchesPerFoot = 12;

    /// <summary>Millimetres: what lengths are kept in.</summary>
    public static MeasureUnit Millimetre { get; } = new("mm", QuantityKind.Length, 1);

    /// <summary>Degrees: what angles are kept in.</summary>
    public static MeasureUnit Degree { get; } = new("°", QuantityKind.Angle, 1);

    private static readonly Dictionary<string, MeasureUnit> ByWord = Words();

    /// <summary>The unit that a word or sign means ("mm", "inches", "″"); null where it means none. Case doesn't matter.</summary>
    public static MeasureUnit? Named(string word)
    {
        ArgumentNullException.ThrowIfNull(word);
        return ByWord.GetValueOrDefault(word.TrimEnd('.').ToLowerInvariant());
    }

    private static Dictionary<string, MeasureUnit> Words()
    {
        var micrometre = new MeasureUnit("µm", QuantityKind.Length, 0.001);
        var centimetre = new MeasureUnit("cm", QuantityKind.Length, 10);
        var decimetre = new MeasureUnit("dm", QuantityKind.Length, 100);
        var metre = new MeasureUnit("m", QuantityKind.Length, 1000);
        var inch = new MeasureUnit("in", QuantityKind.Length, MillimetresPerInch);
        var foot = new MeasureUnit("ft", QuantityKind.Length, MillimetresPerInch * InchesPerFoot);
        var words = new Dictionary<string, MeasureUnit>(StringComparer.Ordinal);
        void Add(MeasureUnit unit, params string[] names)
        {
            foreach (var name in names)
                words[name] = unit;
        }
        // Both signs for micro: the one of its own and the Greek letter.
        Add(micrometre, "µm", "μm", "um", "micrometre", "micrometres", "micron", "microns");
        Add(Millimetre, "mm", "millimetre", "millimetres", "millimeter", "millimeters");
        Add(centimetre, "cm", "centimetre", "centimetres", "centimeter", "centimeters");
        Add(decimetre, "dm", "decimetre", "decimetres");
        Add(metre, "m", "metre", "metres", "meter", "meters");
        Add(inch, "in", "inch", "inches", "\"", "″", "”");
        Add(foot, "ft", "foot", "feet", "'", "′", "’");
        Add(Degree, "°", "degree", "degrees", "deg");
        return words;
    }
}
