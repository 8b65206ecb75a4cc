using System.Globalization;
using Garten.Core.Grounds;

namespace Garten.Core.Contracts;

/// <summary>Says that two places are one: all that was recorded at the first stands at the second from then on, under the ids that it has,
/// and the first leads on to it. Or takes that back.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="PlaceId">The place that ends.</param>
/// <param name="IntoId">The place that it is part of from now on; null where it stands by itself again, with what it had.</param>
/// <param name="Version">The version of the place that ends, as it was seen.</param>
public sealed record MergePlaceCommand(Guid Id, Guid PlaceId, Guid? IntoId, int? Version = null) : Command(Id);

/// <summary>A place that was merged into another one.</summary>
/// <param name="Id">Its identity, which leads to the other one.</param>
/// <param name="Name">What it was called.</param>
public sealed record MergedPlace(Guid Id, string Name);

/// <summary>A command of something at a place. Devices that don't know yet that the place was merged into another one send it all the
/// same.</summary>
public interface IAtPlace
{
    /// <summary>The places that it names.</summary>
    IEnumerable<Guid> PlacesNamed();

    /// <summary>The same command at the places that those are part of now.</summary>
    /// <param name="now">From a place to the one that it is part of, which may be itself.</param>
    Command At(Func<Guid, Guid> now);
}

/// <summary>Places and what was merged into them.</summary>
public static class PlaceMerging
{
    /// <summary>The place of an id, or the one that it was merged into; null where there is neither.</summary>
    public static Place? Standing(this IEnumerable<Place> places, Guid id)
    {
        ArgumentNullException.ThrowIfNull(places);
        return places.FirstOrDefault(p => p.Id == id || p.Merged?.Any(m => m.Id == id) == true);
    }

    // What is warned of at a place that ends is warned of at the other one from then on.
    internal static bool HasCaution(Place kept, Place ended) => kept.Caution.Contains(ended.Caution, StringComparison.OrdinalIgnoreCase);

    /// <summary>The places after one was merged into another; as they are where either isn't among them, or where one is separated again:
    /// what is its own then, the server alone knows.</summary>
    public static IReadOnlyList<Place> Merged(IReadOnlyList<Place> places, MergePlaceCommand it)
    {
        ArgumentNullException.ThrowIfNull(places);
        ArgumentNullException.ThrowIfNull(it);
        if (
            it.IntoId is not { } into
            || into == it.PlaceId
            || places.FirstOrDefault(p => p.Id == it.PlaceId) is not { } ended
            || places.FirstOrDefault(p => p.Id == into) is not { } kept
        )
            return places;
        var warned = HasCaution(kept, ended)
            ? kept
            : kept with
            {
                Caution = $"{kept.Caution} {ended.Caution}".Trim(),
                Version = kept.Version + 1,
            };
        var merged = (kept.Merged ?? []).Append(new MergedPlace(ended.Id, ended.Name)).Concat(ended.Merged ?? []);
        return
        [
            .. places
                .Where(p => p.Id != ended.Id)
                .Select(p =>
                    p.Id == into ? warned with { Merged = [.. merged.OrderBy(m => m.Name, StringComparer.Ordinal).ThenBy(m => m.Id)] } : p
                ),
        ];
    }
}

/// <summary>What merging a place into another one would do, for who is about to.</summary>
/// <param name="Plants">Marked plants that would stand at the other place.</param>
/// <param name="Populations">Populations.</param>
/// <param name="Visits">Visits.</param>
/// <param name="Plots">Plots of surveys.</param>
/// <param name="Surveys">Surveys that are made there.</param>
/// <param name="SameTags">Tags that both places have: on the ground there may be two plants of one tag.</param>
/// <param name="HasGround">Whether a boundary, parts, hazards or leave of it are kept; the hazards alone go along.</param>
public sealed record MergeTally(
    int Plants,
    int Populations,
    int Visits,
    int Plots,
    int Surveys,
    IReadOnlyList<string> SameTags,
    bool HasGround
);

/// <summary>The same in words.</summary>
/// <param name="Moves">What would stand at the other place.</param>
/// <param name="Doubts">What speaks against it, or has to be minded.</param>
public sealed record MergeOutlook(string Moves, IReadOnlyList<string> Doubts)
{
    private const double MetresInAKilometre = 1000;

    // So many tags are named; of more their number is.
    private const int TagsNamed = 8;

    /// <summary>What merging would do.</summary>
    /// <param name="from">The place that would end.</param>
    /// <param name="into">The place that it would be part of.</param>
    /// <param name="tally">What stands at the first.</param>
    public static MergeOutlook Of(Place from, Place into, MergeTally tally)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(into);
        ArgumentNullException.ThrowIfNull(tally);
        var moved = new[]
        {
            Counted(tally.Plants, "marked plant", "marked plants"),
            Counted(tally.Populations, "population", "populations"),
            Counted(tally.Visits, "visit", "visits"),
            Counted(tally.Plots, "plot", "plots"),
            Counted(tally.Surveys, "survey", "surveys"),
        }
            .Where(m => m.Length > 0)
            .ToList();
        var moves =
            moved.Count == 0
                ? $"Nothing was recorded at “{from.Name}”."
                : $"From “{from.Name}” to “{into.Name}”: {string.Join(", ", moved)}. Ids, positions and days stay as they are.";
        return new MergeOutlook(moves, [.. DoubtsOf(from, into, tally)]);
    }

    private static IEnumerable<string> DoubtsOf(Place from, Place into, MergeTally tally)
    {
        var apart = Ring.Metres(new GroundPoint(from.Latitude, from.Longitude), new GroundPoint(into.Latitude, into.Longitude));
        // Circles that don't touch have no point in common.
        if (apart > from.UncertaintyMetres + into.UncertaintyMetres)
            yield return $"They lie {Distance(apart)} apart, further than their circles reach: are they one place?";
        if (tally.SameTags.Count > 0)
        {
            var named = string.Join(", ", tally.SameTags.Take(TagsNamed));
            var more = tally.SameTags.Count > TagsNamed ? $" and {tally.SameTags.Count - TagsNamed} more" : "";
            yield return $"Both have a plant tagged {named}{more}: they stay two, under one tag. Tag one of them anew.";
        }
        if (!PlaceMerging.HasCaution(into, from))
            yield return $"What is minded at “{from.Name}” is minded at “{into.Name}” too from then on: “{from.Caution}” Change it there if it "
                + "doesn’t hold.";
        if (tally.HasGround)
            yield return $"Boundary, parts and leave of “{from.Name}” stay with it and aren’t shown any more; its hazards are added to those of "
                + $"“{into.Name}”.";
        if (from.Cell.Length > 0 && into.Cell.Length > 0 && from.Cell != into.Cell)
            yield return $"They lie in different grid cells ({from.Cell} and {into.Cell}): what counts as new there changes.";
    }

    private static string Counted(int number, string one, string many) =>
        number == 0 ? "" : $"{number.ToString("N0", CultureInfo.InvariantCulture)} {(number == 1 ? one : many)}";

    private static string Distance(double metres) =>
        metres < MetresInAKilometre
            ? $"{metres.ToString("0", CultureInfo.InvariantCulture)} m"
            : $"{(metres / MetresInAKilometre).ToString("0.0", CultureInfo.InvariantCulture)} km";
}
