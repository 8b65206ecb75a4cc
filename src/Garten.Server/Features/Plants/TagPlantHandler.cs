using Garten.Core.Contracts;
using Garten.Core.Surveys;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Places;
using Garten.Server.Features.Populations;
using Garten.Server.Features.Records;

namespace Garten.Server.Features.Plants;

/// <summary>Tags a plant, so that it is found again, or changes its tag.</summary>
internal sealed class TagPlantHandler : ICommandHandler<TagPlantCommand>
{
    // Nobody finds a plant farther from its landmark, or by a position less sure.
    private const double LongestPace = 10_000;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(TagPlantCommand command) => [$"plant:{command.PlantId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(TagPlantCommand command) => [ChangeSubject.Plant(command.PlantId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(TagPlantCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.PlantId, "plantId"), (it.Recorder.Id, "recorder"));
        Check.Text(it.Recorder.Name, "recorder", "The recorder's name", Limits.LongestName, required: true);
        Check.Text(it.Label, "label", "The tag", Limits.LongestName, required: true);
        var on = context.Date(it.TaggedOn, "taggedOn");
        if (it.Site is { } site)
            CheckSite(site);
        if (it.Finding is { } finding)
            CheckFinding(finding);
        if (!await DeterminationRepository.IsPlaceAsync(context.Connection, it.PlaceId, stop))
            throw Refusal.Of(422, "place.unknown", "This place isn't known.", "Choose one of the places, or add it first.", "placeId");
        if (
            it.PopulationId is { } population
            && await PopulationRepository.PlaceOfAsync(context.Connection, population, stop) != it.PlaceId
        )
            throw Refusal.Of(
                422,
                "population.place",
                "This population isn't known at this place.",
                "Choose one of the place.",
                "populationId"
            );
        var place = await PlaceRepository.FindAsync(context.Connection, it.PlaceId, stop);
        if (it.Site is { } at)
        {
            var metres = PlantPosition.MetresBetween(at.Latitude, at.Longitude, place.Latitude, place.Longitude);
            if (!PlantPosition.BelongsTo(metres, at.UncertaintyMetres, place.UncertaintyMetres))
                throw Refusal.Of(
                    422,
                    "plant.far",
                    "This position isn't at the place.",
                    $"It lies {PlantPosition.InWords(metres)} from {place.Name}. Check latitude and longitude, or choose another place.",
                    "site"
                );
        }
        var known = await PlantRepository.FindAsync(context.Connection, it.PlantId, stop);
        if (known is not null)
        {
            if (known.PlaceId != it.PlaceId)
                throw Refusal.Of(
                    409,
                    "plant.place",
                    "This plant grows at another place.",
                    "A plant doesn't move: tag another one.",
                    "placeId"
                );
            if (it.Version != known.Version)
                throw Refusal.Of(
                    409,
                    "plant.changed",
                    "Somebody has changed this plant meanwhile.",
                    $"Its tag says “{known.Label}” now. Look at it again, and change what still needs changing.",
                    "version"
                );
            if (known.Site is { } old && it.Site is { } next)
            {
                var moved = PlantPosition.MetresBetween(old.Latitude, old.Longitude, next.Latitude, next.Longitude);
                if (!PlantPosition.CanBeSame(moved, old.UncertaintyMetres, next.UncertaintyMetres))
                    throw Refusal.Of(
                        422,
                        "plant.moved",
                        "A plant doesn't move.",
                        $"This position lies {PlantPosition.InWords(moved)} from where it stood. Check it, or tag another plant.",
                        "site"
                    );
            }
            if (await PlantRepository.EarliestEvidenceAsync(context.Connection, it.PlantId, stop) is { } first && first < on)
                throw Refusal.Of(
                    422,
                    "plant.tagged-late",
                    "There is evidence from before this day.",
                    $"The plant was first looked at on {Check.Spoken(first)}: give that day or an earlier one.",
                    "taggedOn"
                );
        }
        await PlantRepository.TagAsync(context, it, on, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }

    private static void CheckSite(PlantSite site)
    {
        if (!(site.Latitude is >= -90 and <= 90))
            throw Refusal.Of(
                422,
                "plant.latitude",
                "The latitude isn't one.",
                "Give decimal degrees from -90 to 90, south negative.",
                "site.latitude"
            );
        if (!(site.Longitude is >= -180 and <= 180))
            throw Refusal.Of(
                422,
                "plant.longitude",
                "The longitude isn't one.",
                "Give decimal degrees from -180 to 180, west negative.",
                "site.longitude"
            );
        if (!(site.UncertaintyMetres is > 0 and <= LongestPace))
            throw Refusal.Of(
                422,
                "plant.uncertainty",
                "The uncertainty isn't one.",
                "Give the radius in metres of the circle that holds the plant, above 0 and up to 10,000.",
                "site.uncertaintyMetres"
            );
    }

    private static void CheckFinding(Finding finding)
    {
        Check.Text(finding.Landmark, "finding.landmark", "The landmark", Limits.LongestName, required: false);
        Check.Text(finding.Note, "finding.note", "How to find it", Limits.LongestFinding, required: false);
        if (finding.BearingDegrees is { } bearing && !(bearing is >= 0 and < 360))
            throw Refusal.Of(
                422,
                "finding.bearing",
                "The bearing isn't one.",
                "Give degrees from 0 (north) to 359, east is 90.",
                "finding.bearingDegrees"
            );
        if (finding.DistanceMetres is { } metres && !(metres is > 0 and <= LongestPace))
            throw Refusal.Of(
                422,
                "finding.distance",
                "The distance isn't one.",
                "Give metres from the landmark, above 0.",
                "finding.distanceMetres"
            );
        if (finding.Landmark.Length == 0 && (finding.BearingDegrees ?? finding.DistanceMetres) is not null)
            throw Refusal.Of(
                422,
                "finding.landmark",
                "The landmark is missing.",
                "Say from what bearing and distance were taken.",
                "finding.landmark"
            );
    }
}
