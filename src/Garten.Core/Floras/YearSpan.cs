using Garten.Core.Seasons;

namespace Garten.Core.Floras;

/// <summary>A phenophase of a taxon as days of the year.</summary>
/// <param name="Phase">The phenophase.</param>
/// <param name="Window">Its days; over the new year where it runs so.</param>
/// <param name="InWords">The same in half-months: "late April to early June".</param>
public sealed record YearSpan(Phenophase Phase, DayWindow Window, string InWords)
{
    /// <summary>The phenology of a taxon, in its order.</summary>
    public static IReadOnlyList<YearSpan> Of(Taxon? taxon) =>
        [
            .. (taxon?.Facts?.Phenology ?? []).Select(s => new YearSpan(
                s.Phase,
                DayWindow.OfHalfMonths(s.From, s.To),
                $"{SeasonWords.Of(s.From)} to {SeasonWords.Of(s.To)}"
            )),
        ];
}
