using System.Globalization;
using System.Text.RegularExpressions;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>What a description says of a taxon's being here, as far as it is taken.</summary>
/// <param name="Origin">How it came here.</param>
/// <param name="Establishment">established, naturalised, casual, planted; empty where nothing is said.</param>
/// <param name="ElevationFrom">Lowest metre above the sea; null where nothing is said.</param>
/// <param name="ElevationTo">Highest metre; null where nothing is said.</param>
public sealed partial record Occurrence(Origin Origin, string Establishment, int? ElevationFrom, int? ElevationTo)
{
    /// <summary>Nothing said.</summary>
    public static Occurrence Unsaid { get; } = new(Origin.Unsaid, "", null, null);

    /// <summary>What a statement adds; null where it doesn't speak of distribution: "Common throughout", "Introduced, naturalised on waste
    /// ground", "Distribution: west coast", "0–300 m above the sea". "Common petiole 3 cm" speaks of a petiole.</summary>
    /// <param name="statement">The statement.</param>
    /// <param name="before">What was said before it: the first that is said counts.</param>
    public static Occurrence? Read(string statement, Occurrence before)
    {
        ArgumentNullException.ThrowIfNull(statement);
        ArgumentNullException.ThrowIfNull(before);
        // A height at the end of another statement ("leaves ovate, up to 900 m above the sea") doesn't make that one of distribution.
        var height = Height().Match(statement);
        if (!Headed().IsMatch(statement) && !Status().IsMatch(statement) && height is not { Success: true, Index: 0 })
            return null;
        int? Metres(string group) =>
            height.Groups[group] is { Success: true, Value: var digits }
            && int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var metres)
                ? metres
                : null;
        return new(
            before.Origin != Origin.Unsaid ? before.Origin : OriginOf(statement),
            before.Establishment.Length > 0 ? before.Establishment : EstablishmentOf(statement),
            before.ElevationFrom ?? Metres("from"),
            before.ElevationTo ?? Metres("to")
        );
    }

    // "Not native", "perhaps native", "native or introduced": then nobody knows by this text.
    private static Origin OriginOf(string text)
    {
        var (native, introduced) = (Native().IsMatch(text), Introduced().IsMatch(text));
        return !native && !introduced ? Origin.Unsaid
            : native && introduced || Doubt().IsMatch(text) ? Origin.Doubtful
            : native ? Origin.Native
            : Origin.Introduced;
    }

    private static string EstablishmentOf(string text) =>
        Settled().Match(text) is { Success: true, Value: var word } && !Doubt().IsMatch(text)
            ? word.ToLowerInvariant().Replace('z', 's')
            : "";

    [GeneratedRegex(@"^(?:Distribution|Distr\.?|Range|Occurrence|Status|Altitude|Alt\.?|Elevation)\s*[.:]\s*\S", RegexOptions.IgnoreCase)]
    private static partial Regex Headed();

    // A word of how often or whence, and behind it nothing, another one, or where.
    [GeneratedRegex(
        @"^(?:(?:very|rather|fairly|quite|locally|widely|now|formerly|probably|perhaps|not|doubtfully)\s+)*"
            + @"(?:common|frequent|occasional|rare|local|scarce|widespread|native|introduced|alien|naturali[sz]ed|established|casual|planted"
            + @"|endemic)(?=\s*$|\s*[,;.(]|\s+(?:in|on|along|near|at|by|throughout|everywhere|here|elsewhere|but|and|or|to|from|except|only"
            + @"|southwards|northwards|eastwards|westwards)\b)",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Status();

    [GeneratedRegex(
        @"(?:(?<from>\d{1,4})\s*(?:–|-|—|to)\s*|(?:up\s+)?to\s+|^)(?<to>\d{1,4})\s*m(?:etres?)?\s*"
            + @"(?:a\.?\s?s\.?\s?l\.?|alt\.?|above\s+(?:the\s+)?sea(?:[\s-]level)?)",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Height();

    [GeneratedRegex(@"\b(?:native|endemic|indigenous)\b", RegexOptions.IgnoreCase)]
    private static partial Regex Native();

    [GeneratedRegex(@"\b(?:introduced|alien|naturali[sz]ed|neophyte)\b", RegexOptions.IgnoreCase)]
    private static partial Regex Introduced();

    [GeneratedRegex(@"\b(?:not|probably|perhaps|doubtfully|possibly|scarcely|formerly)\b|\?", RegexOptions.IgnoreCase)]
    private static partial Regex Doubt();

    [GeneratedRegex(@"\b(?:naturali[sz]ed|established|casual|planted)\b", RegexOptions.IgnoreCase)]
    private static partial Regex Settled();
}
