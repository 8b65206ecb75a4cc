using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Identification;
using Garten.Core.Surveys;

namespace Garten.Core.Contracts;

/// <summary>Where a plant stands.</summary>
/// <param name="Latitude">WGS 84 decimal degrees, north positive.</param>
/// <param name="Longitude">WGS 84 decimal degrees, east positive.</param>
/// <param name="UncertaintyMetres">Radius of the circle that holds it, in metres; above 0.</param>
public sealed record PlantSite(double Latitude, double Longitude, double UncertaintyMetres);

/// <summary>How to find a plant again.</summary>
/// <param name="Landmark">What can't be missed near it; empty where there is none.</param>
/// <param name="BearingDegrees">From the landmark to the plant: 0 north, 90 east; null where not taken.</param>
/// <param name="DistanceMetres">From the landmark to the plant; null where not taken.</param>
/// <param name="Note">The rest, in words; may be empty.</param>
public sealed record Finding(string Landmark, double? BearingDegrees, double? DistanceMetres, string Note)
{
    /// <summary>Nothing said.</summary>
    public static Finding None { get; } = new("", null, null, "");

    /// <summary>In words: "12 m north-east (45°) of the split boulder. Under the overhang"; empty where nothing is said.</summary>
    public string InWords()
    {
        var way =
            Landmark.Length == 0 ? ""
            : BearingDegrees is { } bearing && DistanceMetres is { } metres
                ? string.Create(CultureInfo.InvariantCulture, $"{metres} m {Wind(bearing)} ({bearing}°) of the {Landmark}")
            : $"by the {Landmark}";
        return string.Join(". ", new[] { way, Note }.Where(w => w.Length > 0));
    }

    // Which of the eight winds a bearing points to.
    private static string Wind(double bearing)
    {
        string[] winds = ["north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"];
        var at = (int)Math.Round(bearing / (360d / winds.Length), MidpointRounding.AwayFromZero);
        return winds[(at % winds.Length + winds.Length) % winds.Length];
    }
}

/// <summary>Tags a plant, or changes what is said of a tagged one: its label, where it stands and how to find it.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="PlantId">Identity of the plant, made by the device; one that is known is changed.</param>
/// <param name="PlaceId">Where it grows.</param>
/// <param name="Label">What its tag says; not empty.</param>
/// <param name="TaggedOn">The day it was tagged, <c>YYYY-MM-DD</c>; evidence from before it is refused.</param>
/// <param name="Recorder">Who tagged it.</param>
/// <param name="Site">Where it stands; null where no position was taken.</param>
/// <param name="Finding">How to find it again; null where nothing is said.</param>
/// <param name="PopulationId">The population it is a marked plant of; null for a plant by itself.</param>
/// <param name="Version">Of a known plant: the version that is changed.</param>
public sealed record TagPlantCommand(
    Guid Id,
    Guid PlantId,
    Guid PlaceId,
    string Label,
    string TaggedOn,
    PersonReference Recorder,
    PlantSite? Site = null,
    Finding? Finding = null,
    Guid? PopulationId = null,
    int? Version = null
) : Command(Id), IAtPlace
{
    /// <inheritdoc />
    public IEnumerable<Guid> PlacesNamed() => [PlaceId];

    /// <inheritdoc />
    public Command At(Func<Guid, Guid> now)
    {
        ArgumentNullException.ThrowIfNull(now);
        return this with { PlaceId = now(PlaceId) };
    }
}

/// <summary>Adds a later visit to a plant: how it was found, what it shows, and what was looked at.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="VisitId">Identity of the visit.</param>
/// <param name="PlantId">The plant.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>; not in the future, and not before the plant was tagged.</param>
/// <param name="Recorder">Who looked.</param>
/// <param name="State">How it was found.</param>
/// <param name="Phases">What it shows; null where nothing is said.</param>
/// <param name="Sexes">Its sex, by branch; null where nothing is said.</param>
/// <param name="Note">A note; may be empty.</param>
/// <param name="Observations">Looks at its characters; null for none.</param>
public sealed record VisitPlantCommand(
    Guid Id,
    Guid VisitId,
    Guid PlantId,
    string Date,
    PersonReference Recorder,
    PlantState State,
    IReadOnlyList<PhaseNote>? Phases = null,
    IReadOnlyList<BranchSex>? Sexes = null,
    string Note = "",
    IReadOnlyList<Observation>? Observations = null
) : Command(Id);

/// <summary>Adds a population: a patch of one taxon that is counted year by year.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="PopulationId">Identity of the population, made by the device.</param>
/// <param name="PlaceId">Where it grows.</param>
/// <param name="Name">What it is called: "east bank".</param>
/// <param name="Taxon">Scientific name of the taxon.</param>
/// <param name="Bounds">What is counted and where it ends; may be empty.</param>
public sealed record SavePopulationCommand(Guid Id, Guid PopulationId, Guid PlaceId, string Name, string Taxon, string Bounds = "")
    : Command(Id),
        IAtPlace
{
    /// <inheritdoc />
    public IEnumerable<Guid> PlacesNamed() => [PlaceId];

    /// <inheritdoc />
    public Command At(Func<Guid, Guid> now)
    {
        ArgumentNullException.ThrowIfNull(now);
        return this with { PlaceId = now(PlaceId) };
    }
}

/// <summary>Counts a population.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="CountId">Identity of the count.</param>
/// <param name="PopulationId">The population.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Recorder">Who counted.</param>
/// <param name="Unit">What was counted.</param>
/// <param name="Number">How many; 0 where it was looked for and nothing found.</param>
/// <param name="Note">A note; may be empty.</param>
/// <param name="Supersedes">The count that this one corrects.</param>
/// <param name="Known">Of a blind check: plants whose place was known to somebody else; 0 for none.</param>
/// <param name="Found">How many of them the count found.</param>
public sealed record CountPopulationCommand(
    Guid Id,
    Guid CountId,
    Guid PopulationId,
    string Date,
    PersonReference Recorder,
    CountUnit Unit,
    int Number,
    string Note = "",
    Guid? Supersedes = null,
    int Known = 0,
    int Found = 0
) : Command(Id);

/// <summary>Notes what threatens a population, or that it is dealt with.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="ThreatId">Identity of the note.</param>
/// <param name="PopulationId">The population.</param>
/// <param name="NotedOn">The day it was noted, <c>YYYY-MM-DD</c>.</param>
/// <param name="Text">What: ditch clearing, grazing, felling …</param>
/// <param name="ActBy">By when something has to be done, <c>YYYY-MM-DD</c>; empty where there is no such day.</param>
/// <param name="Closes">The earlier note that is dealt with by this one; null for a new threat.</param>
public sealed record NoteThreatCommand(
    Guid Id,
    Guid ThreatId,
    Guid PopulationId,
    string NotedOn,
    string Text,
    string ActBy = "",
    Guid? Closes = null
) : Command(Id);

/// <summary>A threat to a population.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="NotedOn">When it was noted.</param>
/// <param name="Text">What it is.</param>
/// <param name="ActBy">By when something has to be done; null where there is no such day.</param>
/// <param name="DealtWith">How it was dealt with; empty while it stands.</param>
public sealed record Threat(Guid Id, DateOnly NotedOn, string Text, DateOnly? ActBy, string DealtWith);

/// <summary>A population with all that was counted.</summary>
/// <param name="Id">Its identity.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Taxon">Scientific name.</param>
/// <param name="Place">Where it grows.</param>
/// <param name="Bounds">What is counted and where it ends.</param>
/// <param name="Counts">All counts, oldest first, superseded ones too.</param>
/// <param name="Pegs">Its marked plants.</param>
/// <param name="Threats">What threatens it, the nearest day first.</param>
/// <param name="Summary">What all of it comes to.</param>
/// <param name="Cautions">What to mind before it is touched.</param>
/// <param name="IsSensitive">Whether its place is kept back in whatever leaves the program.</param>
public sealed record PopulationDetail(
    Guid Id,
    string Name,
    string Taxon,
    Place Place,
    string Bounds,
    IReadOnlyList<PopulationCount> Counts,
    IReadOnlyList<PeggedPlant> Pegs,
    IReadOnlyList<Threat> Threats,
    PopulationSummary Summary,
    IReadOnlyList<CautionLine> Cautions,
    bool IsSensitive = false
);

/// <summary>What the naming of a plant overturned.</summary>
/// <param name="Names">The names that it had before.</param>
/// <param name="By">What speaks for the new name against the old one, strongest first; empty where nothing on the sheet does.</param>
public sealed record Overturned(IReadOnlyList<string> Names, IReadOnlyList<string> By)
{
    private const int MostNamed = 3;

    /// <summary>Says which looks tell a new name from an older one.</summary>
    /// <param name="flora">The flora.</param>
    /// <param name="observations">The plant's sheet.</param>
    /// <param name="before">The names it had.</param>
    /// <param name="now">The name it has.</param>
    public static Overturned Of(ReadyFlora flora, IReadOnlyList<Observation> observations, IReadOnlyList<string> before, string now)
    {
        ArgumentNullException.ThrowIfNull(flora);
        ArgumentNullException.ThrowIfNull(before);
        var known = flora
            .Pack.Taxa.Where(t => t.Name == now || before.Contains(t.Name, StringComparer.Ordinal))
            .Where(t => flora.Sifter.Columns.IndexOf(t.Id) >= 0)
            .ToList();
        if (known.FirstOrDefault(t => t.Name == now) is not { } taken)
            return new Overturned(before, []);
        var sheet = SiftRequest.Read(flora, null, observations);
        var looks = new Dictionary<string, double>(StringComparer.Ordinal);
        foreach (var old in known.Where(t => t.Id != taken.Id))
        {
            var standing = flora.Sifter.Sift(new SiftQuery(sheet, Narrowing: new Narrowing(Taxa: [taken.Id, old.Id]))).Standing;
            var (mine, theirs) = (standing.First(c => c.Taxon == taken.Id), standing.First(c => c.Taxon == old.Id));
            foreach (var reason in mine.Reasons)
            {
                var other = theirs.Reasons.FirstOrDefault(r => r.Character == reason.Character && r.Seen == reason.Seen);
                if (other is null || reason.LogOdds - other.LogOdds < Math.Log(2))
                    continue;
                var text =
                    $"{flora.Table.Find(reason.Character)?.Name ?? reason.Character}: {reason.Seen}; {now} has {reason.Described}, {old.Name} {other.Described}";
                looks[text] = Math.Max(looks.GetValueOrDefault(text), reason.LogOdds - other.LogOdds);
            }
        }
        return new Overturned(before, [.. looks.OrderByDescending(l => l.Value).Take(MostNamed).Select(l => l.Key)]);
    }
}
