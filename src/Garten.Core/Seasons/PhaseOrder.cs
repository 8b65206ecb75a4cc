namespace Garten.Core.Seasons;

/// <summary>A stretch of a phenophase, moved to a site.</summary>
/// <param name="Phase">The phenophase.</param>
/// <param name="Window">When it lasts there.</param>
/// <param name="Days">By how many days it was moved; below 0: earlier.</param>
public sealed record ShiftedPhase(Phenophase Phase, DayWindow Window, int Days);

/// <summary>The phases of a plant moved to a site.</summary>
/// <param name="Phases">The phases, in the order given.</param>
/// <param name="Share">The share of the difference between spring and autumn that was taken, 0 to 1: less than 1 where the phases would
/// have changed places.</param>
public sealed record ShiftedYear(IReadOnlyList<ShiftedPhase> Phases, double Share);

/// <summary>
/// Moves the phases of a plant by what their shifts are, and keeps them in their order: spring moves one way and autumn the other, and what
/// follows one another on the plant follows one another everywhere.
/// </summary>
public static class PhaseOrder
{
    // In so many steps the shift is taken back until the order holds; with none of it left it does.
    private const int Steps = 20;

    /// <summary>Moves them.</summary>
    /// <param name="spans">The phases where they are known.</param>
    /// <param name="days">By how many days each phase is to be moved.</param>
    public static ShiftedYear Shift(IReadOnlyList<(Phenophase Phase, DayWindow Window)> spans, IReadOnlyDictionary<Phenophase, int> days)
    {
        ArgumentNullException.ThrowIfNull(spans);
        ArgumentNullException.ThrowIfNull(days);
        if (spans.Count == 0)
            return new ShiftedYear([], 1);
        // What moves all of them alike changes no order: it is always taken in full.
        var common = spans.Average(s => days[s.Phase]);
        for (var step = Steps; step > 0; step--)
        {
            var share = step / (double)Steps;
            int[] moved = [.. spans.Select(s => (int)Math.Round(common + share * (days[s.Phase] - common), MidpointRounding.AwayFromZero))];
            if (InOrder(spans, moved) is { } windows)
                return new ShiftedYear([.. spans.Select((s, i) => new ShiftedPhase(s.Phase, windows[i], moved[i]))], share);
        }
        var alike = (int)Math.Round(common, MidpointRounding.AwayFromZero);
        return new ShiftedYear([.. spans.Select(s => new ShiftedPhase(s.Phase, s.Window.Shifted(alike), alike))], 0);
    }

    // The moved windows, those that were apart cut where they meet; null where two would change places.
    private static DayWindow[]? InOrder(IReadOnlyList<(Phenophase Phase, DayWindow Window)> spans, int[] moved)
    {
        // Days by which each window is cut short at either end.
        var first = new int[spans.Count];
        var last = new int[spans.Count];
        for (var i = 0; i < spans.Count; i++)
        {
            for (var j = i + 1; j < spans.Count; j++)
            {
                if (spans[i].Phase == spans[j].Phase)
                    continue;
                var (a, b) = (spans[i].Window, spans[j].Window);
                var apart = moved[j] - moved[i];
                // Counted from the first day of the one: where the other begins and ends, before and after.
                int end = a.Length - 1,
                    begins = DayOfYear.Between(a.From, b.From),
                    ends = begins + b.Length - 1;
                if (begins > end && ends < DayOfYear.Days)
                {
                    int from = begins + apart,
                        to = ends + apart;
                    if (from < 1 || from >= DayOfYear.Days || to <= end || to >= DayOfYear.Days + end)
                        return null;
                    if (from <= end)
                    {
                        var middle = (from + end) / 2;
                        last[i] = Math.Max(last[i], end - middle);
                        first[j] = Math.Max(first[j], middle + 1 - from);
                    }
                    if (to >= DayOfYear.Days)
                    {
                        var middle = (DayOfYear.Days + to) / 2;
                        last[j] = Math.Max(last[j], to - middle);
                        first[i] = Math.Max(first[i], middle + 1 - DayOfYear.Days);
                    }
                }
                else if (ChangesSide(a.From, b.From, apart) || ChangesSide(a.To, b.To, apart))
                    return null;
            }
        }
        var windows = new DayWindow[spans.Count];
        for (var i = 0; i < windows.Length; i++)
        {
            var window = spans[i].Window;
            if (first[i] + last[i] >= window.Length)
                return null;
            windows[i] = new DayWindow(DayOfYear.Add(window.From, moved[i] + first[i]), DayOfYear.Add(window.To, moved[i] - last[i]));
        }
        return windows;
    }

    // Whether a day that lay before another lies behind it then, the short way round.
    private static bool ChangesSide(int one, int other, int apart)
    {
        var between = DayOfYear.Between(one, other);
        if (between > DayOfYear.Days / 2)
            between -= DayOfYear.Days;
        return between > 0 && between + apart < 0 || between < 0 && between + apart > 0;
    }
}
