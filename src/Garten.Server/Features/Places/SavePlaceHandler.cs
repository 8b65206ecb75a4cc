using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Places;

/// <summary>Adds a recording place, or changes one.</summary>
internal sealed class SavePlaceHandler : ICommandHandler<SavePlaceCommand>
{
    private const int MostHabitats = 30;

    // The shore of the lowest sea and the top of the highest mountain.
    private const double LowestMetres = -500;
    private const double HighestMetres = 9000;

    // Half the circumference of the earth: no circle on it is larger.
    private const double LargestCircleMetres = 20_037_509;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(SavePlaceCommand command) => [$"place:{command.PlaceId}"];

    // What stands at a place says its name: all of it is another one.
    /// <inheritdoc />
    public IEnumerable<string> AboutOf(SavePlaceCommand command) =>
        command.Version is null
            ? [ChangeSubject.Place(command.PlaceId)]
            : [ChangeSubject.Place(command.PlaceId), ChangeSubject.Renamed(command.PlaceId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(SavePlaceCommand place, CommandContext context, CancellationToken stop)
    {
        if (place.PlaceId == Guid.Empty)
            throw Refusal.Of(422, "place.id", "The place needs an id.", "Make a new UUID (version 7) for it.", "placeId");
        Check.Text(place.Name, "name", "The place's name", Limits.LongestName, required: true);
        Check.Text(place.Locality, "locality", "The locality", Limits.LongestNote, required: false);
        Check.Text(place.Caution, "caution", "The caution", Limits.LongestNote, required: false);
        if (!(place.Latitude is >= -90 and <= 90))
            throw Refusal.Of(
                422,
                "place.latitude",
                "The latitude isn't one.",
                "Give decimal degrees from -90 to 90, south negative.",
                "latitude"
            );
        if (!(place.Longitude is >= -180 and <= 180))
            throw Refusal.Of(
                422,
                "place.longitude",
                "The longitude isn't one.",
                "Give decimal degrees from -180 to 180, west negative.",
                "longitude"
            );
        Check.Text(place.Cell, "cell", "The grid cell", Limits.LongestCell, required: false);
        if (place.ElevationMetres is { } metres && !(metres is >= LowestMetres and <= HighestMetres))
            throw Refusal.Of(422, "place.elevation", "The elevation isn't one.", "Give metres above the sea.", "elevationMetres");
        if (place.Habitats is { Count: > MostHabitats })
            throw Refusal.Of(422, "place.habitats", "These are too many habitats.", $"Give up to {MostHabitats}.", "habitats");
        foreach (var habitat in place.Habitats ?? [])
            Check.Text(habitat, "habitats", "A habitat", Limits.LongestName, required: true);
        if (!(place.UncertaintyMetres is > 0 and <= LargestCircleMetres))
            throw Refusal.Of(
                422,
                "place.uncertainty",
                "The uncertainty isn't one.",
                "Give the radius in metres of the circle that holds the place, above 0.",
                "uncertaintyMetres"
            );
        await MergePlaceHandler.RefuseMergedAsync(context, place.PlaceId, stop);
        var known = await PlaceRepository.VersionAsync(context.Connection, place.PlaceId, stop);
        if (known is not null && place.Version is null)
            throw Refusal.Of(409, "place.exists", "A place of this id is there already.", "Make a new id for a new place.", "placeId");
        if (known is null && place.Version is not null)
            throw Refusal.Of(422, "place.unknown", "No place has this id.", "Leave the version out to add one.", "placeId");
        if (known != place.Version)
            throw Refusal.Of(
                409,
                "place.changed",
                "Somebody changed this place meanwhile.",
                "Look at it as it is now, and change it again.",
                "version"
            );
        await PlaceRepository.SaveAsync(context.Connection, place, stop);
        // Lists of plants have its name.
        if (known is not null)
            context.PlantsChanged.UnionWith(
                await context
                    .Connection.Command("select id from plant where place_id = $1", place.PlaceId)
                    .ReadAllAsync(r => r.GetGuid(0), stop)
            );
        return new CommandResult(place.Id, CommandStatus.Applied);
    }
}
