using System.Text.Json.Serialization;

namespace Garten.Core.Quantities;

/// <summary>Which sides of a described quantity are bounded.</summary>
[JsonConverter(typeof(CamelCaseWords<RangeForm>))]
public enum RangeForm
{
    /// <summary>From low to high.</summary>
    Between,

    /// <summary>"up to", "less than": the high bound is what 95 in 100 single readings stay under.</summary>
    UpTo,

    /// <summary>"more than", "at least": the low bound is what 95 in 100 single readings exceed.</summary>
    MoreThan,

    /// <summary>One number of which a description is sure: "petals 5".</summary>
    Exactly,
}

/// <summary>
/// A measured or counted character as floras give it: typical bounds, with or without extremes. Lengths in millimetres, angles in
/// degrees, counts and ratios as such.
/// </summary>
/// <param name="Kind">What kind of number it is.</param>
/// <param name="Form">Which sides are bounded.</param>
/// <param name="Low">Typical low bound; 0 or more. For <see cref="RangeForm.UpTo"/> it is worked out from <paramref name="High"/>.</param>
/// <param name="High">Typical high bound; not below <paramref name="Low"/>. For <see cref="RangeForm.MoreThan"/> it is worked out from
/// <paramref name="Low"/>.</param>
/// <param name="LowExtreme">The rare low extreme, below <paramref name="Low"/>; null where none is given.</param>
/// <param name="HighExtreme">The rare high extreme, above <paramref name="High"/>; null where none is given.</param>
/// <param name="Text">The notation as typed.</param>
public sealed record QuantityRange(
    QuantityKind Kind,
    RangeForm Form,
    double Low,
    double High,
    double? LowExtreme = null,
    double? HighExtreme = null,
    string Text = ""
)
{
    /// <summary>"Up to b" has its 10 % point at b divided by this: small ones of an "up to" are a quarter of the largest, not
    /// nothing.</summary>
    public const double OneSidedSpan = 4;

    /// <summary>One value with "c.", or a bare length, means this share more or less.</summary>
    public const double CircaShare = 0.1;

    /// <summary>"Up to <paramref name="bound"/>".</summary>
    public static QuantityRange UpTo(QuantityKind kind, double bound, string text = "") =>
        new(kind, RangeForm.UpTo, kind == QuantityKind.Count ? 0 : bound / OneSidedSpan, bound, Text: text);

    /// <summary>"More than <paramref name="bound"/>".</summary>
    public static QuantityRange MoreThan(QuantityKind kind, double bound, string text = "") =>
        new(kind, RangeForm.MoreThan, bound, OneSidedSpan * (kind == QuantityKind.Count ? Math.Max(bound, 1) : bound), Text: text);

    /// <summary>"c. <paramref name="value"/>"; for counts widened to whole numbers.</summary>
    public static QuantityRange About(QuantityKind kind, double value, string text = "")
    {
        var (low, high) = (value * (1 - CircaShare), value * (1 + CircaShare));
        return kind == QuantityKind.Count
            ? new(kind, RangeForm.Between, Math.Floor(low), Math.Ceiling(high), Text: text)
            : new(kind, RangeForm.Between, low, high, Text: text);
    }

    /// <summary>What is wrong with it, as a sentence; null where it is sound.</summary>
    public string? Contradiction()
    {
        if (!double.IsFinite(Low) || !double.IsFinite(High))
            return "A bound isn't a number.";
        if (Low > High)
            return $"The low bound {Show(Low)} is above the high bound {Show(High)}.";
        if (LowExtreme > Low)
            return $"The low extreme {Show(LowExtreme.Value)} lies above the typical low bound {Show(Low)}.";
        if (HighExtreme < High)
            return $"The high extreme {Show(HighExtreme.Value)} lies below the typical high bound {Show(High)}.";
        if (Low < 0 || LowExtreme < 0)
            return "It goes below zero.";
        if (Kind is QuantityKind.Length or QuantityKind.Ratio && High <= 0)
            return "It is zero.";
        if (
            Kind == QuantityKind.Count
            && (IsFraction(Low) || IsFraction(High) || IsFraction(LowExtreme ?? 0) || IsFraction(HighExtreme ?? 0))
        )
            return "A count has no fractions.";
        return null;
    }

    /// <summary>The widest bounds that it names: extremes where there are any; nothing below for "up to", nothing above for "more
    /// than".</summary>
    public (double From, double To) Cut() =>
        Form switch
        {
            RangeForm.UpTo => (LowExtreme ?? 0, HighExtreme ?? High),
            RangeForm.MoreThan => (LowExtreme ?? Low, double.PositiveInfinity),
            _ => (LowExtreme ?? Low, HighExtreme ?? High),
        };

    /// <summary>Whether two ranges have nothing in common, extremes included.</summary>
    public bool IsApart(QuantityRange other)
    {
        ArgumentNullException.ThrowIfNull(other);
        var (one, two) = (Cut(), other.Cut());
        return one.To < two.From || two.To < one.From;
    }

    private static bool IsFraction(double value) => Math.Abs(value - Math.Round(value)) > 1e-9;

    private static string Show(double value) => value.ToString("0.###", System.Globalization.CultureInfo.InvariantCulture);
}
