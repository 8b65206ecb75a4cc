namespace Garten.Core.Surveys.Figures;

/// <summary>An estimate with its standard error; null where it isn't defined.</summary>
/// <param name="Value">The estimate, in taxa.</param>
/// <param name="Error">Its standard error, in taxa.</param>
[System.Runtime.InteropServices.StructLayout(System.Runtime.InteropServices.LayoutKind.Auto)]
public readonly record struct Estimate(double? Value, double? Error)
{
    /// <summary>Not defined.</summary>
    public static Estimate None { get; } = new(null, null);

    // What comes out as no number, of a division by nothing or a variance below zero, isn't defined.
    internal static Estimate Of(double value, double variance) =>
        double.IsFinite(value) ? new Estimate(value, variance >= 0 && double.IsFinite(variance) ? Math.Sqrt(variance) : null) : None;
}
