using System.Globalization;

namespace Garten.Core.Seasons;

/// <summary>Where seasons are known of, or wanted.</summary>
/// <param name="Latitude">Decimal degrees, south below 0.</param>
/// <param name="Longitude">Decimal degrees, west below 0.</param>
/// <param name="ElevationMetres">Metres above the sea.</param>
public sealed record SeasonSite(double Latitude, double Longitude, double ElevationMetres);

/// <summary>A part of a shift, for the arithmetic to be shown.</summary>
/// <param name="Reason">What it comes from, in words and figures.</param>
/// <param name="Days">How many days it adds; below 0: earlier.</param>
/// <param name="IsOfYear">Whether it is how late or early this year is, not the way from place to place.</param>
public sealed record ShiftPart(string Reason, double Days, bool IsOfYear = false);

/// <summary>
/// How much later than at one site something happens at another. Spring comes 4 days later with each degree of latitude towards the pole,
/// with
/// each 5 degrees of longitude to the east and with each 122 m of height (Hopkins 1918); autumn comes as much earlier. The rule was found
/// in
/// the temperate zone: beyond <see cref="LeastLatitude"/> to <see cref="MostLatitude"/>, above <see cref="MostMetres"/> and for more than
/// <see cref="MostDays"/> it is held at its bounds, and <paramref name="Warnings"/> say so. It has no jumps: not at the equator, nor where
/// longitudes meet.
/// </summary>
/// <param name="Parts">The parts, those of 0 left out.</param>
/// <param name="Coefficient">What the sum is taken times, by the phenophase.</param>
/// <param name="Days">Whole days, rounded; below 0: earlier.</param>
/// <param name="Warnings">Where the rule was held at its bounds, in sentences; empty where it holds.</param>
public sealed record SeasonShift(IReadOnlyList<ShiftPart> Parts, double Coefficient, int Days, IReadOnlyList<string> Warnings)
{
    /// <summary>Degrees from the equator from which on the rule holds: nearer to it rain makes the seasons, not warmth.</summary>
    public const double LeastLatitude = 30;

    /// <summary>Degrees from the equator up to which the rule holds: beyond the polar circle light and thaw decide.</summary>
    public const double MostLatitude = 66;

    /// <summary>Metres above the sea up to which the rule holds: beyond the forests snow decides.</summary>
    public const double MostMetres = 2000;

    /// <summary>Degrees of longitude up to which the rule holds: the width of a continent.</summary>
    public const double MostDegreesEast = 60;

    /// <summary>The largest shift in days, either way: no two places with four seasons differ by more than two months.</summary>
    public const double MostDays = 60;

    // Hopkins, A. D. (1918): Periodical events and natural law as guides to agricultural research and practice.
    private const double DaysPerDegree = 4;
    private const double DaysPerDegreeEast = 4 / 5d;
    private const double DaysPerMetre = 4 / 122d;

    // On the other half of the earth the seasons stand half a year apart; between the tropics one passes into the other.
    private const double HalfYear = DayOfYear.Days / 2d;
    private const double Tropic = 23.4;

    // Beyond a quarter of the circle east passes into west.
    private const double QuarterTurn = 90;

    /// <summary>Works it out.</summary>
    /// <param name="from">The site whose seasons are known.</param>
    /// <param name="to">The site that they are wanted for.</param>
    /// <param name="phase">What happens.</param>
    /// <param name="lead">Days by which this year is later than others; below 0: earlier. Counts for all phases alike.</param>
    public static SeasonShift Between(SeasonSite from, SeasonSite to, Phenophase phase, double lead = 0)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(to);
        var degrees = HeldLatitude(to) - HeldLatitude(from);
        // The short way round.
        var east = HeldDegreesEast(Math.IEEERemainder(to.Longitude - from.Longitude, 360));
        var metres = Math.Min(to.ElevationMetres, MostMetres) - Math.Min(from.ElevationMetres, MostMetres);
        var parts = new List<ShiftPart>();
        void Add(double days, string reason)
        {
            if (days != 0)
                parts.Add(new ShiftPart(reason, days));
        }
        Add(
            degrees * DaysPerDegree,
            string.Create(
                CultureInfo.InvariantCulture,
                $"{Math.Abs(degrees):0.##}° {(degrees > 0 ? "nearer to" : "farther from")} the pole, 4 days each"
            )
        );
        Add(
            east * DaysPerDegreeEast,
            string.Create(CultureInfo.InvariantCulture, $"{Math.Abs(east):0.##}° {(east > 0 ? "east" : "west")}, 4 days per 5°")
        );
        Add(
            metres * DaysPerMetre,
            string.Create(CultureInfo.InvariantCulture, $"{Math.Abs(metres):0} m {(metres > 0 ? "higher" : "lower")}, 4 days per 122 m")
        );
        var sum = parts.Sum(p => p.Days);
        var held = Math.Clamp(sum, -MostDays, MostDays);
        Add(held - sum, string.Create(CultureInfo.InvariantCulture, $"no more than {MostDays:0} days either way"));
        var coefficient = CoefficientOf(phase);
        var year = Math.Clamp(lead, -MostDays, MostDays);
        var total = held * coefficient + year;
        if (year != 0)
            parts.Add(new ShiftPart($"this year is {(year > 0 ? "late" : "early")}", year, IsOfYear: true));
        var across = Math.Abs(Southern(to) - Southern(from)) * HalfYear;
        if (across != 0)
            parts.Add(
                new ShiftPart(
                    across < HalfYear ? "towards the other half of the earth" : "the other half of the earth: half a year",
                    across
                )
            );
        return new SeasonShift(
            parts,
            coefficient,
            (int)Math.Round(total + across, MidpointRounding.AwayFromZero),
            [.. WarningsOf(from), .. WarningsOf(to)]
        );
    }

    private static double HeldLatitude(SeasonSite site) => Math.Clamp(Math.Abs(site.Latitude), LeastLatitude, MostLatitude);

    private static double HeldDegreesEast(double east)
    {
        var (side, far) = (Math.Sign(east), Math.Abs(east));
        return side * (far <= QuarterTurn ? Math.Min(far, MostDegreesEast) : MostDegreesEast * (180 - far) / QuarterTurn);
    }

    // 0 on the northern half of the earth, 1 on the southern one.
    private static double Southern(SeasonSite site) => Math.Clamp((Tropic - site.Latitude) / (2 * Tropic), 0, 1);

    private static IEnumerable<string> WarningsOf(SeasonSite site)
    {
        var far = Math.Abs(site.Latitude);
        if (far < Tropic)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"At {far:0.#}° from the equator rain makes the seasons, not warmth: this shift says little there."
            );
        else if (far < LeastLatitude)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"The rule holds from {LeastLatitude:0}° to {MostLatitude:0}° from the equator; {far:0.#}° is taken for {LeastLatitude:0}°."
            );
        if (far > MostLatitude)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"The rule holds from {LeastLatitude:0}° to {MostLatitude:0}° from the equator; {far:0.#}° is taken for {MostLatitude:0}°."
            );
        if (site.ElevationMetres > MostMetres)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"The rule holds up to {MostMetres:0} m; {site.ElevationMetres:0} m is taken for that."
            );
    }

    /// <summary>What the shift of spring is taken times: in full up to young fruit, half for ripe fruit, turned round for what autumn
    /// brings.</summary>
    public static double CoefficientOf(Phenophase phase) =>
        phase switch
        {
            Phenophase.RipeFruit or Phenophase.FruitPersisting => 0.5,
            Phenophase.AutumnColour
            or Phenophase.BareTwig
            or Phenophase.RestingBud
            or Phenophase.WinterGreen
            or Phenophase.DeadLeavesHeld
            or Phenophase.DiedBack => -1,
            _ => 1,
        };
}

/// <summary>How far a year is ahead of others or behind them, by one's own firsts.</summary>
/// <param name="Days">Days later than usual; below 0: earlier.</param>
/// <param name="Firsts">How many firsts it rests on.</param>
public sealed record YearLead(double Days, int Firsts)
{
    /// <summary>In words: "2.7 days late".</summary>
    public string InWords =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{Math.Abs(Days):0.0} days {(Days >= 0 ? "late" : "early")}");

    // Before anything is seen a year is like others; that belief is worth so many firsts.
    private const double Worth = 3;

    /// <summary>A first counts only where, so many days before it at most, it was looked for and not there yet.</summary>
    public const int NotYetWithin = 10;

    /// <summary>The median of observed minus expected firsts, drawn towards 0 by n/(n + 3).</summary>
    /// <param name="late">Of each first, days later than expected.</param>
    public static YearLead Of(IReadOnlyCollection<double> late)
    {
        ArgumentNullException.ThrowIfNull(late);
        if (late.Count == 0)
            return new YearLead(0, 0);
        var ordered = late.Order().ToList();
        var middle = ordered.Count / 2;
        var median = ordered.Count % 2 == 1 ? ordered[middle] : (ordered[middle - 1] + ordered[middle]) / 2;
        return new YearLead(median * ordered.Count / (ordered.Count + Worth), ordered.Count);
    }

    /// <summary>Whether something was first seen then: it was looked for shortly before and wasn't there yet.</summary>
    /// <param name="notYet">The last day on which it wasn't there; null where nobody looked.</param>
    /// <param name="seen">The day on which it was there.</param>
    public static bool IsFirst(DateOnly? notYet, DateOnly seen) =>
        notYet is { } before && before < seen && seen.DayNumber - before.DayNumber <= NotYetWithin;
}
