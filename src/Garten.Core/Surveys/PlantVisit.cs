using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Evidence;
using Garten.Core.Grounds;
using Garten.Core.Seasons;

namespace Garten.Core.Surveys;

/// <summary>How a tagged plant was found.</summary>
[JsonConverter(typeof(CamelCaseWords<PlantState>))]
public enum PlantState
{
    /// <summary>Alive.</summary>
    Alive,

    /// <summary>Browsed, and alive.</summary>
    Browsed,

    /// <summary>Cut or mown: whether it lives will be seen.</summary>
    Cut,

    /// <summary>Dead, beyond doubt.</summary>
    Dead,

    /// <summary>Looked for and not found, which is not dead.</summary>
    NotRefound,
}

/// <summary>How far a phenophase has come on a plant.</summary>
[JsonConverter(typeof(CamelCaseWords<PhaseStage>))]
public enum PhaseStage
{
    /// <summary>Looked for, not there yet.</summary>
    NotYet,

    /// <summary>There.</summary>
    Shown,

    /// <summary>Over: it has been.</summary>
    Over,

    /// <summary>None this year.</summary>
    None,
}

/// <summary>What a plant was seen to be doing.</summary>
public sealed record PhaseNote(Phenophase Phase, PhaseStage Stage);

/// <summary>Sex of a branch, or of the whole plant.</summary>
/// <param name="Branch">Which branch; empty for the whole plant.</param>
/// <param name="Sex">Its sex that day. Absence of fruit is none.</param>
public sealed record BranchSex(string Branch, PartSex Sex);

/// <summary>A tagged plant looked at again. A fact: never changed.</summary>
/// <param name="Id">Identity, made by the device.</param>
/// <param name="PlantId">The plant.</param>
/// <param name="Date">The day.</param>
/// <param name="State">How it was found.</param>
/// <param name="Phases">What it was doing.</param>
/// <param name="Sexes">Sex, by branch.</param>
/// <param name="Note">A note; may be empty.</param>
/// <param name="Recorder">Who looked.</param>
public sealed record PlantVisit(
    Guid Id,
    Guid PlantId,
    DateOnly Date,
    PlantState State,
    IReadOnlyList<PhaseNote> Phases,
    IReadOnlyList<BranchSex> Sexes,
    string Note,
    string Recorder
)
{
    private const int MostSexes = 50;
    private const int LongestBranch = 200;

    /// <summary>What is wrong with what was found, as a field and a sentence; null where it can be kept.</summary>
    public static (string Field, string Message)? Problem(PlantState state, IReadOnlyList<PhaseNote> phases, IReadOnlyList<BranchSex> sexes)
    {
        ArgumentNullException.ThrowIfNull(phases);
        ArgumentNullException.ThrowIfNull(sexes);
        if (phases.GroupBy(p => p.Phase).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return ("phases", $"“{twice.Key}” is noted twice.");
        if (state == PlantState.NotRefound && (phases.Count > 0 || sexes.Count > 0))
            return ("state", "A plant that wasn’t found again shows nothing: take out what it shows, or say how it was found.");
        if (
            state == PlantState.Dead
            && phases.Any(p =>
                p.Stage == PhaseStage.Shown && p.Phase is Phenophase.Flower or Phenophase.LeafBudOpening or Phenophase.ShootsUp
            )
        )
            return ("state", "A dead plant doesn’t flower or shoot.");
        if (sexes.Count > MostSexes)
            return ("sexes", string.Create(CultureInfo.InvariantCulture, $"Up to {MostSexes} branches are noted at a time."));
        if (sexes.Any(s => s.Branch.Length > LongestBranch))
            return ("sexes", string.Create(CultureInfo.InvariantCulture, $"A branch is named in up to {LongestBranch} characters."));
        if (sexes.Any(s => s.Sex == PartSex.Unsaid))
            return ("sexes", "Say male, female or both; where no sex can be seen leave the branch out.");
        return sexes.GroupBy(s => s.Branch.Trim(), StringComparer.OrdinalIgnoreCase).Any(g => g.Count() > 1)
            ? ("sexes", "A branch is given twice; where it bears both sexes say both.")
            : null;
    }

    /// <summary>Whether it was seen that day, whatever its state.</summary>
    public static bool IsFound(PlantState state) => state != PlantState.NotRefound;
}

/// <summary>Where a plant stands, and whether it can be that one which stood elsewhere.</summary>
public static class PlantPosition
{
    // A place's circle is drawn round what is recorded there; a plant just outside it still belongs to it.
    private const double Beside = 2000;

    /// <summary>Metres between two positions on a sphere (haversine).</summary>
    public static double MetresBetween(double latitude, double longitude, double otherLatitude, double otherLongitude) =>
        Ring.Metres(new GroundPoint(latitude, longitude), new GroundPoint(otherLatitude, otherLongitude));

    /// <summary>Whether a plant of this position can belong to a place: it lies within both uncertainties and 2 km beside.</summary>
    public static bool BelongsTo(double metres, double uncertainty, double placeUncertainty) =>
        metres <= uncertainty + placeUncertainty + Beside;

    /// <summary>Whether two positions can be of one plant: their circles, three times as wide, meet. Plants don't move.</summary>
    public static bool CanBeSame(double metres, double uncertainty, double otherUncertainty) =>
        metres <= Math.Max(50, 3 * (uncertainty + otherUncertainty));

    /// <summary>A distance in words: "40 km", "350 m".</summary>
    public static string InWords(double metres) =>
        metres >= 1000
            ? string.Create(CultureInfo.InvariantCulture, $"{metres / 1000:0.#} km")
            : string.Create(CultureInfo.InvariantCulture, $"{metres:0} m");
}
