using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;

namespace Garten.Core.Surveys.SiteVisits;

/// <summary>What a doubt about a line of a list is of.</summary>
[JsonConverter(typeof(CamelCaseWords<DoubtKind>))]
public enum DoubtKind
{
    /// <summary>The flora hasn't the name.</summary>
    Name,

    /// <summary>It is one of a critical group, whose members only their key characters tell.</summary>
    Critical,

    /// <summary>What it was doing is out of its season.</summary>
    Season,

    /// <summary>It isn't recorded in the square.</summary>
    Presence,

    /// <summary>The place lies too high or too low for it.</summary>
    Elevation,

    /// <summary>None of its habitats is here.</summary>
    Habitat,

    /// <summary>It is usually planted, and nobody said whether it was.</summary>
    Planted,
}

/// <summary>Why a line of a list is asked about at the end of a visit. It marks the line and refuses nothing.</summary>
/// <param name="Kind">What it is of.</param>
/// <param name="Says">It in a sentence.</param>
/// <param name="Instead">The name under which it would be beyond doubt; empty for none.</param>
public sealed record LineDoubt(DoubtKind Kind, string Says, string Instead = "");

/// <summary>Finds what is doubtful about lines of a list.</summary>
/// <param name="taxa">The taxa of the flora.</param>
/// <param name="place">What the place is like; null where nothing is known of it.</param>
/// <param name="day">The day of the visit.</param>
/// <param name="foundBefore">Names that were found at the place before: that they are there again is no wonder.</param>
public sealed class LineDoubts(IReadOnlyList<Taxon> taxa, SiftPlace? place, DateOnly day, IReadOnlySet<string> foundBefore)
{
    // Seasons of a flora hold for its region; a place and a year may be this far off before anybody wonders.
    private const int DaysOff = 30;

    // A height read off a map, and a slope, may be this far off.
    private const int MetresOff = 30;

    private readonly TaxonIndex _index = new(taxa);
    private readonly Dictionary<string, Taxon> _groupOf = taxa.SelectMany(t => (t.Facts?.Members ?? []).Select(m => (Member: m, Group: t)))
        .GroupBy(p => p.Member, StringComparer.Ordinal)
        .ToDictionary(g => g.Key, g => g.First().Group, StringComparer.Ordinal);

    /// <summary>The doubts about a line; none for an unnamed plant.</summary>
    /// <param name="line">The line.</param>
    public IReadOnlyList<LineDoubt> Of(ListLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        if (line.Name.Length == 0)
            return [];
        if (_index.Find(line.Name) is not { } taxon)
            return [new LineDoubt(DoubtKind.Name, "The flora hasn’t this name: it is kept as you wrote it.")];
        List<LineDoubt> doubts = [];
        // A plant with a sheet of its own has been looked at.
        if (line.PlantId is null && _groupOf.TryGetValue(taxon.Id, out var group))
            doubts.Add(
                new LineDoubt(
                    DoubtKind.Critical,
                    $"One of {group.Name}: unless its key characters were looked at, it is listed as that.",
                    group.Name
                )
            );
        var facts = taxon.Facts ?? TaxonFacts.None;
        if (Season(facts, line.Details.Phase) is { } season)
            doubts.Add(season);
        if (!foundBefore.Contains(taxon.Name) && Presence(facts) is { } presence)
            doubts.Add(presence);
        if (Elevation(facts) is { } elevation)
            doubts.Add(elevation);
        if (Habitat(facts) is { } habitat)
            doubts.Add(habitat);
        if (line.Details.Growth is null && (taxon.Rank is "cultivar" || facts.Establishment is "planted" or "casual"))
            doubts.Add(
                new LineDoubt(
                    DoubtKind.Planted,
                    $"It is {(facts.Establishment.Length > 0 ? facts.Establishment : "a cultivated form")} here: "
                        + "say whether this one grows wild."
                )
            );
        return doubts;
    }

    private LineDoubt? Season(TaxonFacts facts, Phenophase? seen)
    {
        if (seen is not { } phase)
            return null;
        var windows = facts.Phenology.Where(s => s.Phase == phase).Select(s => DayWindow.OfHalfMonths(s.From, s.To)).ToList();
        var at = DayOfYear.Of(day);
        if (windows.Count == 0 || windows.Exists(w => IsNear(w, at)))
            return null;
        return new LineDoubt(
            DoubtKind.Season,
            $"{Capital(SiteVisitWords.Of(phase))} on this day is far out of its season, by the flora {Days(windows[0])}."
        );
    }

    private LineDoubt? Presence(TaxonFacts facts)
    {
        if (place?.Cell is not { Length: > 0 } cell || facts.Cells.Count == 0)
            return null;
        return facts.Cells.Contains(cell, StringComparer.OrdinalIgnoreCase)
            ? null
            : new LineDoubt(
                DoubtKind.Presence,
                $"Not recorded in {cell} yet{(IsBeside(facts, cell) ? ", but beside it" : " or beside it")}. "
                    + "An empty square may be an unvisited one."
            );
    }

    private static bool IsBeside(TaxonFacts facts, string cell) => facts.Cells.Any(c => Plausibility.AreNeighbours(c, cell));

    private LineDoubt? Elevation(TaxonFacts facts)
    {
        if (place?.Elevation is not { } metres)
            return null;
        var highest = facts.ElevationTo ?? facts.ElevationFrom;
        return metres < facts.ElevationFrom - MetresOff || metres > facts.ElevationTo + MetresOff
            ? new LineDoubt(
                DoubtKind.Elevation,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The place lies at {metres:0} m; it grows at {facts.ElevationFrom ?? 0} to {highest} m."
                )
            )
            : null;
    }

    private LineDoubt? Habitat(TaxonFacts facts)
    {
        if (place?.Habitats is not { Count: > 0 } here || facts.Habitats.Count == 0)
            return null;
        return here.Any(h => facts.Habitats.Contains(h, StringComparer.OrdinalIgnoreCase))
            ? null
            : new LineDoubt(DoubtKind.Habitat, $"Known from {string.Join(", ", facts.Habitats)}; here is {string.Join(", ", here)}.");
    }

    private static bool IsNear(DayWindow window, int day) =>
        window.Length + 2 * DaysOff >= DayOfYear.Days
        || new DayWindow(DayOfYear.Add(window.From, -DaysOff), DayOfYear.Add(window.To, DaysOff)).Holds(day);

    private static string Days(DayWindow window)
    {
        static string Day(int day) => new DateOnly(2001, 1, 1).AddDays(day - 1).ToString("d MMMM", CultureInfo.InvariantCulture);
        return $"from {Day(window.From)} to {Day(window.To)}";
    }

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
