using Garten.Core.Seasons;

namespace Garten.Core.Visits;

/// <summary>How a question stands on a day.</summary>
/// <param name="IsOpen">Whether it can be answered then.</param>
/// <param name="Closes">The last day on which it can, where it is open and doesn't stay so all year.</param>
/// <param name="WasTooEarly">Whether it can be answered then but couldn't on the day of the last look.</param>
public sealed record NeedStatus(bool IsOpen, DateOnly? Closes, bool WasTooEarly)
{
    /// <summary>Works it out.</summary>
    /// <param name="windows">When it can be answered: any of them will do.</param>
    /// <param name="day">The day asked for.</param>
    /// <param name="lookedOn">The day of the last look; null where there was none.</param>
    public static NeedStatus Of(IReadOnlyList<DayWindow> windows, DateOnly day, DateOnly? lookedOn = null)
    {
        ArgumentNullException.ThrowIfNull(windows);
        var at = DayOfYear.Of(day);
        var open = windows.Where(w => w.Holds(at)).ToList();
        if (open.Count == 0)
            return new NeedStatus(false, null, false);
        var wasTooEarly = lookedOn is { } look && !windows.Any(w => w.Holds(DayOfYear.Of(look)));
        // Of several windows the one that closes last counts.
        return open.Exists(w => w.Length == DayOfYear.Days)
            ? new NeedStatus(true, null, wasTooEarly)
            : new NeedStatus(true, open.Max(w => DayOfYear.Next(day, w.To)), wasTooEarly);
    }
}
