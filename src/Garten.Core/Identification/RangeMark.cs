using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>A range on an axis that it shares with others, each place from 0 (the least of all) to 1 (the largest).</summary>
/// <param name="LowExtreme">Where its rare low end lies.</param>
/// <param name="Low">Where its usual stretch begins.</param>
/// <param name="High">Where its usual stretch ends.</param>
/// <param name="HighExtreme">Where its rare high end lies.</param>
public sealed record RangeMark(double LowExtreme, double Low, double High, double HighExtreme)
{
    // Where the largest is more than so many times the least, sizes are compared by their ratio, as they vary.
    private const double ByRatioFrom = 4;

    /// <summary>Places the ranges of a row on one axis: by ratio where they differ by more than four times and none begins at nothing, else
    /// by length. A row without ranges stays as it is; where all are one and the same value it stands at 0.</summary>
    public static IReadOnlyList<ContrastValue> Placed(IReadOnlyList<ContrastValue> values)
    {
        var known = values.Select(v => v.Range).OfType<QuantityRange>().ToList();
        if (known.Count == 0)
            return values;
        var from = known.Min(r => r.LowExtreme ?? r.Low);
        var to = known.Max(r => r.HighExtreme ?? r.High);
        var byRatio = from > 0 && to / from > ByRatioFrom;
        double At(double value) =>
            to <= from ? 0
            : byRatio ? Math.Log(value / from) / Math.Log(to / from)
            : (value - from) / (to - from);
        return
        [
            .. values.Select(v =>
                v.Range is { } r
                    ? v with
                    {
                        Mark = new RangeMark(At(r.LowExtreme ?? r.Low), At(r.Low), At(r.High), At(r.HighExtreme ?? r.High)),
                    }
                    : v
            ),
        ];
    }
}
