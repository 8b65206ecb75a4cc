using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Surveys;
using Npgsql;

namespace Garten.Storage;

/// <content>Commands on tagged plants and populations.</content>
public sealed partial class CommandStore
{
    private const int LongestFinding = 2000;
    private const double LongestPace = 10_000;
    private const int MostCounted = 100_000_000;

    private async Task TagAsync(NpgsqlConnection connection, TagPlantCommand it, CancellationToken stop)
    {
        CheckIds((it.PlantId, "plantId"), (it.Recorder.Id, "recorder"));
        CheckText(it.Recorder.Name, "recorder", "The recorder's name", LongestName, required: true);
        CheckText(it.Label, "label", "The tag", LongestName, required: true);
        var on = CheckDate(it.TaggedOn, "taggedOn");
        if (it.Site is { } site) CheckSite(site);
        if (it.Finding is { } finding) CheckFinding(finding);
        if (!await DeterminationRepository.IsPlaceAsync(connection, it.PlaceId, stop)) throw Refused(422, "place.unknown", "This place isn't known.", "Choose one of the places, or add it first.", "placeId");
        if (it.PopulationId is { } population && await PopulationRepository.PlaceOfAsync(connection, population, stop) != it.PlaceId) throw Refused(422, "population.place", "This population isn't known at this place.", "Choose one of the place.", "populationId");
        var place = await PlaceRepository.FindAsync(connection, it.PlaceId, stop);
        if (it.Site is { } at)
        {
            var metres = PlantPosition.MetresBetween(at.Latitude, at.Longitude, place.Latitude, place.Longitude);
            if (!PlantPosition.BelongsTo(metres, at.UncertaintyMetres, place.UncertaintyMetres)) throw Refused(422, "plant.far", "This position isn't at the place.", $"It lies {PlantPosition.InWords(metres)} from {place.Name}. Check latitude and longitude, or choose another place.", "site");
        }
        var known = await PlantRepository.FindAsync(connection, it.PlantId, stop);
        if (known is not null)
        {
            if (known.PlaceId != it.PlaceId) throw Refused(409, "plant.place", "This plant grows at another place.", "A plant doesn't move: tag another one.", "placeId");
            if (it.Version != known.Version) throw Refused(409, "plant.changed", "Somebody has changed this plant meanwhile.", $"Its tag says “{known.Label}” now. Look at it again, and change what still needs changing.", "version");
            if (known.Site is { } old && it.Site is { } next)
            {
                var moved = PlantPosition.MetresBetween(old.Latitude, old.Longitude, next.Latitude, next.Longitude);
                if (!PlantPosition.CanBeSame(moved, old.UncertaintyMetres, next.UncertaintyMetres)) throw Refused(422, "plant.moved", "A plant doesn't move.", $"This position lies {PlantPosition.InWords(moved)} from where it stood. Check it, or tag another plant.", "site");
            }
            if (await PlantRepository.EarliestEvidenceAsync(connection, it.PlantId, stop) is { } first && first < on) throw Refused(422, "plant.tagged-late", "There is evidence from before this day.", $"The plant was first looked at on {Spoken(first)}: give that day or an earlier one.", "taggedOn");
        }
        await PlantRepository.TagAsync(connection, it, on, stop);
    }

    private async Task VisitAsync(NpgsqlConnection connection, VisitPlantCommand it, CancellationToken stop)
    {
        CheckIds((it.VisitId, "visitId"), (it.PlantId, "plantId"), (it.Recorder.Id, "recorder"));
        CheckText(it.Recorder.Name, "recorder", "The recorder's name", LongestName, required: true);
        CheckText(it.Note, "note", "The note", LongestNote, required: false);
        var on = CheckDate(it.Date, "date");
        if (PlantVisit.Problem(it.State, it.Phases ?? [], it.Sexes ?? []) is var (field, wrong)) throw Refused(422, "visit.disagrees", "What was found can't be kept so.", wrong, field);
        if (it.State == PlantState.NotRefound && it.Observations is { Count: > 0 }) throw Refused(422, "visit.disagrees", "A plant that wasn't found has no evidence of that day.", "Take the observations out, or say how it was found.", "observations");
        if (await PlantRepository.FindAsync(connection, it.PlantId, stop) is not { } plant) throw Refused(422, "plant.unknown", "No plant has this id.", "Tag it first.", "plantId");
        if (plant.Label.Length == 0 && plant.TaggedOn is null) throw Refused(422, "plant.untagged", "This plant bears no tag.", "Tag it first, so that it is known which one was seen again.", "plantId");
        CheckNotBeforeTag(plant, on, "date");
        if (await PlantRepository.IsVisitAsync(connection, it.VisitId, stop)) throw Refused(409, "visit.exists", "A visit of this id is there already.", "Make a new id: an earlier visit is never overwritten.", "visitId");
        var looks = await CheckObservationsAsync(connection, it.PlantId, plant, it.Observations, stop);
        await PlantRepository.AddVisitAsync(connection, it, on, clock.GetUtcNow(), stop);
        await EvidenceRepository.AddAsync(connection, it.PlantId, it.Recorder.Id, looks, clock.GetUtcNow(), stop);
    }

    private static async Task SavePopulationAsync(NpgsqlConnection connection, SavePopulationCommand it, CancellationToken stop)
    {
        CheckIds((it.PopulationId, "populationId"));
        CheckText(it.Name, "name", "The population's name", LongestName, required: true);
        CheckText(it.Taxon, "taxon", "The taxon", LongestName, required: true);
        CheckText(it.Bounds, "bounds", "What is counted", LongestNote, required: false);
        if (!await DeterminationRepository.IsPlaceAsync(connection, it.PlaceId, stop)) throw Refused(422, "place.unknown", "This place isn't known.", "Choose one of the places, or add it first.", "placeId");
        if (!await PopulationRepository.AddAsync(connection, it, stop)) throw Refused(409, "population.exists", "A population of this id is there already.", "Make a new id for a new population.", "populationId");
    }

    private async Task CountAsync(NpgsqlConnection connection, CountPopulationCommand it, CancellationToken stop)
    {
        CheckIds((it.CountId, "countId"), (it.PopulationId, "populationId"), (it.Recorder.Id, "recorder"));
        CheckText(it.Recorder.Name, "recorder", "The recorder's name", LongestName, required: true);
        CheckText(it.Note, "note", "The note", LongestNote, required: false);
        var on = CheckDate(it.Date, "date");
        if (it.Number < 0) throw Refused(422, "count.negative", "A count is 0 or more.", "Give 0 where you looked and found none.", "number");
        if (it.Number > MostCounted) throw Refused(422, "count.too-large", "Nobody counts so many.", string.Create(CultureInfo.InvariantCulture, $"Give at most {MostCounted}."), "number");
        if (await PopulationRepository.PlaceOfAsync(connection, it.PopulationId, stop) is null) throw Refused(422, "population.unknown", "No population has this id.", "Choose one of the list, or add it first.", "populationId");
        if (it.Supersedes is { } old && await PopulationRepository.PopulationOfCountAsync(connection, old, stop) != it.PopulationId) throw Refused(422, "count.supersedes", "The count to be corrected isn't one of this population.", "Choose one of its counts.", "supersedes");
        if (!await PopulationRepository.CountAsync(connection, it, on, clock.GetUtcNow(), stop)) throw Refused(409, "count.exists", "A count of this id is there already.", "Make a new id: an earlier count is never overwritten.", "countId");
    }

    private async Task ThreatenAsync(NpgsqlConnection connection, NoteThreatCommand it, CancellationToken stop)
    {
        CheckIds((it.ThreatId, "threatId"), (it.PopulationId, "populationId"));
        CheckText(it.Text, "text", "What threatens it", LongestFinding, required: true);
        var on = CheckDate(it.NotedOn, "notedOn");
        DateOnly? actBy = it.ActBy.Length == 0 ? null : ReadDate(it.ActBy, "actBy");
        if (actBy < on) throw Refused(422, "threat.past", "The day to act by lies before the note.", "Give a day on or after the one on which it was noted, or none.", "actBy");
        if (await PopulationRepository.PlaceOfAsync(connection, it.PopulationId, stop) is null) throw Refused(422, "population.unknown", "No population has this id.", "Choose one of the list, or add it first.", "populationId");
        if (it.Closes is { } closed && await PopulationRepository.PopulationOfThreatAsync(connection, closed, stop) != it.PopulationId) throw Refused(422, "threat.closes", "The threat that is dealt with isn't one of this population.", "Choose one of its threats.", "closes");
        if (!await PopulationRepository.ThreatenAsync(connection, it, on, actBy, clock.GetUtcNow(), stop)) throw Refused(409, "threat.exists", "A note of this id is there already.", "Make a new id.", "threatId");
    }

    private static void CheckSite(PlantSite site)
    {
        if (!(site.Latitude is >= -90 and <= 90)) throw Refused(422, "plant.latitude", "The latitude isn't one.", "Give decimal degrees from -90 to 90, south negative.", "site.latitude");
        if (!(site.Longitude is >= -180 and <= 180)) throw Refused(422, "plant.longitude", "The longitude isn't one.", "Give decimal degrees from -180 to 180, west negative.", "site.longitude");
        if (!(site.UncertaintyMetres is > 0 and <= LongestPace)) throw Refused(422, "plant.uncertainty", "The uncertainty isn't one.", "Give the radius in metres of the circle that holds the plant, above 0 and up to 10,000.", "site.uncertaintyMetres");
    }

    private static void CheckFinding(Finding finding)
    {
        CheckText(finding.Landmark, "finding.landmark", "The landmark", LongestName, required: false);
        CheckText(finding.Note, "finding.note", "How to find it", LongestFinding, required: false);
        if (finding.BearingDegrees is { } bearing && !(bearing is >= 0 and < 360)) throw Refused(422, "finding.bearing", "The bearing isn't one.", "Give degrees from 0 (north) to 359, east is 90.", "finding.bearingDegrees");
        if (finding.DistanceMetres is { } metres && !(metres is > 0 and <= LongestPace)) throw Refused(422, "finding.distance", "The distance isn't one.", "Give metres from the landmark, above 0.", "finding.distanceMetres");
        if (finding.Landmark.Length == 0 && (finding.BearingDegrees ?? finding.DistanceMetres) is not null) throw Refused(422, "finding.landmark", "The landmark is missing.", "Say from what bearing and distance were taken.", "finding.landmark");
    }

    private static void CheckNotBeforeTag(PlantRow? plant, DateOnly date, string field)
    {
        if (plant?.TaggedOn is { } tagged && date < tagged) throw Refused(422, "evidence.before-tag", "This is from before the plant was tagged.", $"“{plant.Label}” was tagged on {Spoken(tagged)}. Give that day or a later one, or set the day of the tag right first.", field);
    }

    // A name that takes the place of another one says why: narrowing an open set overturns nothing.
    private static async Task CheckChangeAsync(NpgsqlConnection connection, RecordDeterminationCommand it, IReadOnlyList<string> names, CancellationToken stop)
    {
        if (it.Note.Trim().Length > 0) return;
        var before = await DeterminationRepository.NamesOfAsync(connection, it.PlantId, stop);
        if (before.Count > 0 && !before.Intersect(names, StringComparer.Ordinal).Any()) throw Refused(422, "name.why", "The name changes without a reason.", $"So far this plant was {string.Join(" or ", before)}. Say in the note what overturns that.", "note");
    }

    private static string Spoken(DateOnly day) => day.ToString("d MMMM yyyy", CultureInfo.InvariantCulture);
}
