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
public sealed record ShiftPart(string Reason, double Days);

/// <summary>
/// How much later than at one site something happens at another. Spring comes 4 days later with each degree of latitude towards the pole, with
/// each 5 degrees of longitude to the east and with each 122 m of height (Hopkins 1918); autumn comes as much earlier.
/// </summary>
/// <param name="Parts">The parts, those of 0 left out.</param>
/// <param name="Coefficient">What the sum is taken times, by the phenophase.</param>
/// <param name="Days">Whole days, rounded; below 0: earlier.</param>
public sealed record SeasonShift(IReadOnlyList<ShiftPart> Parts, double Coefficient, int Days)
{
    // Hopkins, A. D. (1918): Periodical events and natural law as guides to agricultural research and practice.
    private const double DaysPerDegree = 4;
    private const double DaysPerDegreeEast = 4 / 5d;
    private const double DaysPerMetre = 4 / 122d;

    // On the other half of the earth the seasons stand half a year apart.
    private const double HalfYear = DayOfYear.Days / 2d;

    /// <summary>Works it out.</summary>
    /// <param name="from">The site whose seasons are known.</param>
    /// <param name="to">The site that they are wanted for.</param>
    /// <param name="phase">What happens.</param>
    /// <param name="lead">Days by which this year is later than others; below 0: earlier. Counts for all phases alike.</param>
    public static SeasonShift Between(SeasonSite from, SeasonSite to, Phenophase phase, double lead = 0)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(to);
        var isOther = from.Latitude < 0 != to.Latitude < 0;
        var degrees = Math.Abs(to.Latitude) - Math.Abs(from.Latitude);
        // The short way round.
        var east = Math.IEEERemainder(to.Longitude - from.Longitude, 360);
        var metres = to.ElevationMetres - from.ElevationMetres;
        var parts = new List<ShiftPart>();
        void Add(double days, string reason)
        {
            if (days != 0) parts.Add(new ShiftPart(reason, days));
        }
        Add(degrees * DaysPerDegree, string.Create(CultureInfo.InvariantCulture, $"{Math.Abs(degrees):0.##}° {(degrees > 0 ? "nearer to" : "farther from")} the pole, 4 days each"));
        Add(east * DaysPerDegreeEast, string.Create(CultureInfo.InvariantCulture, $"{Math.Abs(east):0.##}° {(east > 0 ? "east" : "west")}, 4 days per 5°"));
        Add(metres * DaysPerMetre, string.Create(CultureInfo.InvariantCulture, $"{Math.Abs(metres):0} m {(metres > 0 ? "higher" : "lower")}, 4 days per 122 m"));
        var coefficient = CoefficientOf(phase);
        var total = parts.Sum(p => p.Days) * coefficient + lead;
        if (lead != 0) parts.Add(new ShiftPart($"this year is {(lead > 0 ? "late" : "early")}", lead));
        if (isOther)
        {
            parts.Add(new ShiftPart("the other half of the earth: half a year", HalfYear));
            total += HalfYear;
        }
        return new SeasonShift(parts, coefficient, (int)Math.Round(total, MidpointRounding.AwayFromZero));
    }

    /// <summary>What the shift of spring is taken times: in full up to young fruit, half for ripe fruit, turned round for what autumn brings.</summary>
    public static double CoefficientOf(Phenophase phase) => phase switch
    {
        Phenophase.RipeFruit or Phenophase.FruitPersisting => 0.5,
        Phenophase.AutumnColour or Phenophase.BareTwig or Phenophase.RestingBud => -1,
        _ => 1,
    };
}

/// <summary>How far a year is ahead of others or behind them, by one's own firsts.</summary>
/// <param name="Days">Days later than usual; below 0: earlier.</param>
/// <param name="Firsts">How many firsts it rests on.</param>
public sealed record YearLead(double Days, int Firsts)
{
    // Before anything is seen a year is like others; that belief is worth so many firsts.
    private const double Worth = 3;

    /// <summary>A first counts only where, so many days before it at most, it was looked for and not there yet.</summary>
    public const int NotYetWithin = 10;

    /// <summary>The median of observed minus expected firsts, drawn towards 0 by n/(n + 3).</summary>
    /// <param name="late">Of each first, days later than expected.</param>
    public static YearLead Of(IReadOnlyCollection<double> late)
    {
        ArgumentNullException.ThrowIfNull(late);
        if (late.Count == 0) return new YearLead(0, 0);
        var ordered = late.Order().ToList();
        var middle = ordered.Count / 2;
        var median = ordered.Count % 2 == 1 ? ordered[middle] : (ordered[middle - 1] + ordered[middle]) / 2;
        return new YearLead(median * ordered.Count / (ordered.Count + Worth), ordered.Count);
    }

    /// <summary>Whether something was first seen then: it was looked for shortly before and wasn't there yet.</summary>
    /// <param name="notYet">The last day on which it wasn't there; null where nobody looked.</param>
    /// <param name="seen">The day on which it was there.</param>
    public static bool IsFirst(DateOnly? notYet, DateOnly seen) => notYet is { } before && before < seen && seen.DayNumber - before.DayNumber <= NotYetWithin;
}
