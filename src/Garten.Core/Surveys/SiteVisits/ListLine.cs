using System.Text.Json.Serialization;
using Garten.Core.Evidence;
using Garten.Core.Seasons;

namespace Garten.Core.Surveys.SiteVisits;

/// <summary>How much of a taxon there is at a place, in five words. They are ordinal and belong to the place: they never become a per
/// cent.</summary>
[JsonConverter(typeof(CamelCaseWords<Abundance>))]
public enum Abundance
{
    /// <summary>Dominant.</summary>
    Dominant,

    /// <summary>Abundant.</summary>
    Abundant,

    /// <summary>Frequent.</summary>
    Frequent,

    /// <summary>Occasional.</summary>
    Occasional,

    /// <summary>Rare.</summary>
    Rare,
}

/// <summary>Whether a plant came to where it stands by itself.</summary>
[JsonConverter(typeof(CamelCaseWords<WildOrPlanted>))]
public enum WildOrPlanted
{
    /// <summary>By itself.</summary>
    Wild,

    /// <summary>Planted or sown.</summary>
    Planted,

    /// <summary>Spread from a planting.</summary>
    Escaped,

    /// <summary>The recorder can't tell.</summary>
    Unsure,
}

/// <summary>What was noted of a taxon besides its name. Everything may be unsaid.</summary>
/// <param name="Abundance">How much of it there is; null where not said.</param>
/// <param name="IsLocal">Whether that holds in parts of the place only ("locally frequent").</param>
/// <param name="Count">How many; null where not counted.</param>
/// <param name="Unit">What was counted; null with <paramref name="Count"/>.</param>
/// <param name="Phase">What it was doing; null where not said.</param>
/// <param name="Sex">The sex seen; unsaid for none. Absence of fruit is none.</param>
/// <param name="Growth">Whether it grows wild; null where not said.</param>
/// <param name="GrowthReason">Why that is thought; may be empty.</param>
/// <param name="Associates">What grows with it; empty for none.</param>
/// <param name="Note">A note; may be empty.</param>
/// <param name="Determiner">Who gave the name, where that wasn't who found it; empty otherwise.</param>
/// <param name="Typist">Who typed the line out of a notebook, where that wasn't who found it; empty otherwise.</param>
public sealed record LineDetails(
    Abundance? Abundance = null,
    bool IsLocal = false,
    int? Count = null,
    CountUnit? Unit = null,
    Phenophase? Phase = null,
    PartSex Sex = PartSex.Unsaid,
    WildOrPlanted? Growth = null,
    string GrowthReason = "",
    IReadOnlyList<string>? Associates = null,
    string Note = "",
    string Determiner = "",
    string Typist = ""
)
{
    // More than anyone counts of a taxon on one visit.
    private const int MostCounted = 100_000_000;

    private const int MostAssociates = 30;

    /// <summary>Nothing said.</summary>
    public static LineDetails None { get; } = new();

    /// <summary>What is wrong with it, as a field and a sentence; null where it can be kept.</summary>
    public (string Field, string Message)? Problem() =>
        Count is < 0 ? ("details", "A count is 0 or more; what was looked for and not found is said at the end of the visit.")
        : Count is 0 ? ("details", "A list holds what was found. What was looked for in vain is said at the end of the visit.")
        : Count is > MostCounted ? ("details", $"Nobody counts so many: give at most {MostCounted}.")
        : Count is null != Unit is null ? ("details", "A count names what was counted: individuals, shoots or stems.")
        : IsLocal && Abundance is null ? ("details", "“Locally” goes with one of the five words: say which.")
        : Associates is { Count: > MostAssociates } ? ("details", $"Up to {MostAssociates} associates are noted.")
        : null;

    /// <summary>In short words: "locally frequent · 12 shoots · flower · planted (in rows)"; empty where nothing is said.</summary>
    public string InWords()
    {
        List<string> said = [];
        if (Abundance is { } much)
            said.Add((IsLocal ? "locally " : "") + SiteVisitWords.Of(much));
        if (Count is { } count && Unit is { } unit)
            said.Add(FormattableString.Invariant($"{count} {SiteVisitWords.Of(unit, count)}"));
        if (Phase is { } phase)
            said.Add(SiteVisitWords.Of(phase));
        if (Sex != PartSex.Unsaid)
            said.Add(SiteVisitWords.Of(Sex));
        if (Growth is { } growth)
            said.Add(SiteVisitWords.Of(growth) + (GrowthReason.Length > 0 ? $" ({GrowthReason})" : ""));
        if (Associates is { Count: > 0 })
            said.Add("with " + string.Join(", ", Associates));
        if (Note.Length > 0)
            said.Add(Note);
        if (Determiner.Length > 0)
            said.Add("det. " + Determiner);
        if (Typist.Length > 0)
            said.Add("typed by " + Typist);
        return string.Join(" · ", said);
    }
}

/// <summary>A line of the list of a visit: a taxon that somebody found there. A fact: a line that corrects it supersedes it, a line that
/// was a slip is withdrawn.</summary>
/// <param name="Id">Its identity, made by the device.</param>
/// <param name="Name">Scientific name, as it is now; empty while the plant is unnamed.</param>
/// <param name="Unnamed">What it is called while it has no name ("unnamed 3"); empty where it was named at once.</param>
/// <param name="PlantId">The plant that stands for it, whose name it takes; null for a line that was named at once.</param>
/// <param name="Compartment">The part of the place where it was found; empty for the place as a whole.</param>
/// <param name="Recorder">Who found it.</param>
/// <param name="At">The time of the day, <c>HH:mm</c>; empty where not taken.</param>
/// <param name="Details">What else was noted.</param>
/// <param name="Latitude">Where it was seen, WGS 84 decimal degrees; null where only the visit's place is known.</param>
/// <param name="Longitude">East positive; null with the latitude.</param>
/// <param name="UncertaintyMetres">Radius of the circle that holds it, in metres above 0; null with the latitude.</param>
/// <param name="Supersedes">The line that it corrects; null for none.</param>
/// <param name="IsWithdrawn">Whether it was taken back.</param>
public sealed record ListLine(
    Guid Id,
    string Name,
    string Unnamed,
    Guid? PlantId,
    string Compartment,
    string Recorder,
    string At,
    LineDetails Details,
    double? Latitude = null,
    double? Longitude = null,
    double? UncertaintyMetres = null,
    Guid? Supersedes = null,
    bool IsWithdrawn = false
)
{
    /// <summary>What it is called: its name, or what it is called while it has none.</summary>
    public string Called => Name.Length > 0 ? Name : Unnamed;

    /// <summary>What else was noted, in short words; empty where nothing was.</summary>
    public string Said => Details.InWords();

    /// <summary>Which lines of a list hold: those that are neither withdrawn nor superseded by one that isn't withdrawn. Of two that
    /// supersede the same line both hold.</summary>
    public static IReadOnlyList<ListLine> Holding(IReadOnlyList<ListLine> lines)
    {
        ArgumentNullException.ThrowIfNull(lines);
        var overtaken = lines.Where(l => !l.IsWithdrawn).Select(l => l.Supersedes).OfType<Guid>().ToHashSet();
        return [.. lines.Where(l => !l.IsWithdrawn && !overtaken.Contains(l.Id))];
    }
}

/// <summary>A taxon found in one part of a place on a visit: one record, whoever and however many noted it.</summary>
/// <param name="Id">Identity of the record: that of its first line.</param>
/// <param name="Called">Its name, or what it is called while it has none.</param>
/// <param name="Compartment">The part of the place; empty for the place as a whole.</param>
/// <param name="Observers">Who found it, each once.</param>
/// <param name="Lines">The lines that it is made of: what each of them noted stands.</param>
public sealed record ListedTaxon(Guid Id, string Called, string Compartment, IReadOnlyList<string> Observers, IReadOnlyList<ListLine> Lines)
{
    /// <summary>Joins the lines of a list to records, in the order in which they were first noted.</summary>
    public static IReadOnlyList<ListedTaxon> Of(IReadOnlyList<ListLine> lines) =>
        [
            .. ListLine
                .Holding(lines)
                .GroupBy(l => (l.Called, l.Compartment))
                .Select(g => new ListedTaxon(
                    g.First().Id,
                    g.Key.Called,
                    g.Key.Compartment,
                    [.. g.Select(l => l.Recorder).Distinct(StringComparer.Ordinal)],
                    [.. g]
                )),
        ];
}
