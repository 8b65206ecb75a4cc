using System.Globalization;

namespace Garten.Server.Features.StandIns;

/// <summary>A calliper that types its readings as a keyboard does: digits to a hundredth of a millimetre, and Enter.</summary>
internal static class SimulatedCalliper
{
    // Leaves of a plant differ by so much of their size.
    private const double Spread = 0.15;
    private const double MillimetresPerInch = 25.4;

    // Half the readings of one that errs are in inches, the other half come twice without anything between them.
    private const double Half = 0.5;

    /// <summary>The keys that it presses; none where it says nothing.</summary>
    /// <param name="aboutMillimetres">About how large the thing is that is between its jaws.</param>
    /// <param name="random">What differs from reading to reading.</param>
    /// <param name="mood">How well it works; one that is late is so by the time that it takes.</param>
    public static string Keys(double aboutMillimetres, Random random, StandInMood mood)
    {
        if (mood == StandInMood.Silent)
            return "";
        var millimetres = aboutMillimetres * (1 + Spread * (2 * random.NextDouble() - 1));
        if (mood != StandInMood.Wrong)
            return Text(millimetres, "0.00") + "\n";
        return random.NextDouble() < Half
            ? Text(millimetres / MillimetresPerInch, "0.0000") + " in\n"
            : Text(millimetres, "0.00") + Text(millimetres, "0.00") + "\n";
    }

    private static string Text(double value, string form) => value.ToString(form, CultureInfo.InvariantCulture);
}
