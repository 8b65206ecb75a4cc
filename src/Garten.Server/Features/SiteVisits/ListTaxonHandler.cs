using Garten.Core.Contracts;
using Garten.Core.Surveys.SiteVisits;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.People;
using Garten.Server.Features.Plants;

namespace Garten.Server.Features.SiteVisits;

/// <summary>Adds a line to the list of a visit.</summary>
internal sealed class ListTaxonHandler : ICommandHandler<ListTaxonCommand>
{
    // Half the circumference of the earth: no circle on it is larger.
    private const double LargestCircleMetres = 20_037_509;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(ListTaxonCommand command) =>
        command.PlantId is { } plant
            ? [SiteVisitCheck.LockOf(command.SiteVisitId), $"plant:{plant}"]
            : [SiteVisitCheck.LockOf(command.SiteVisitId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(ListTaxonCommand command) => [ChangeSubject.SiteVisit(command.SiteVisitId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(ListTaxonCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.LineId, "lineId"), (it.SiteVisitId, "siteVisitId"), (it.Recorder.Id, "recorder"));
        Check.Text(it.Recorder.Name, "recorder", "The recorder's name", Limits.LongestName, required: true);
        Check.Text(it.Taxon, "taxon", "The taxon", Limits.LongestName, required: false);
        Check.Text(it.Unnamed, "unnamed", "What the plant is called", Limits.LongestName, required: false);
        Check.Text(it.Compartment, "compartment", "The compartment", Limits.LongestName, required: false);
        if (it.Taxon.Length == 0 && it.Unnamed.Length == 0)
            throw Refusal.Of(
                422,
                "line.name",
                "A line names what was found.",
                "Give a taxon, or say what the plant is called until it has a name.",
                "taxon"
            );
        if (it.At.Length > 0 && VisitEffort.Minute(it.At) is null)
            throw Refusal.Of(422, "visit.times", "This is no time of the day.", "Write it as hours and minutes: 10:05.", "at");
        var details = it.Details ?? LineDetails.None;
        if (details.Problem() is var (field, wrong))
            throw Refusal.Of(422, "line.details", "What was noted can't be kept so.", wrong, field);
        Check.Text(details.Note, "details", "The note", Limits.LongestNote, required: false);
        Check.Text(details.GrowthReason, "details", "The reason", Limits.LongestFinding, required: false);
        Check.Text(details.Determiner, "details", "Who named it", Limits.LongestName, required: false);
        Check.Text(details.Typist, "details", "Who typed it", Limits.LongestName, required: false);
        foreach (var associate in details.Associates ?? [])
            Check.Text(associate, "details", "An associate", Limits.LongestName, required: true);
        if (it.Site is { } site && Wrong(site) is { } what)
            throw Refusal.Of(422, "line.position", "The position isn't one.", what, "site");
        if (await SiteVisitRepository.VersionAsync(context.Connection, it.SiteVisitId, stop) is null)
            throw SiteVisitCheck.Unknown();
        if (it.PlantId is { } plant && await PlantRepository.FindAsync(context.Connection, plant, stop) is null)
            throw Refusal.Of(422, "plant.unknown", "No plant has this id.", "Tag it first.", "plantId");
        if (it.Supersedes is { } old && await SiteVisitRepository.VisitOfLineAsync(context.Connection, old, stop) != it.SiteVisitId)
            throw Refusal.Of(
                422,
                "line.supersedes",
                "The line to be corrected isn't one of this visit.",
                "Choose a line of its list.",
                "supersedes"
            );
        await PersonRepository.EnsureAsync(context, it.Recorder, stop);
        if (!await SiteVisitRepository.AddLineAsync(context, it, details, stop))
            throw Refusal.Of(409, "line.exists", "A line of this id is there already.", "Make a new id for a new line.", "lineId");
        return new CommandResult(it.Id, CommandStatus.Applied);
    }

    private static string? Wrong(PlantSite site) =>
        !(site.Latitude is >= -90 and <= 90) ? "Give the latitude in decimal degrees from -90 to 90, south negative."
        : !(site.Longitude is >= -180 and <= 180) ? "Give the longitude in decimal degrees from -180 to 180, west negative."
        : !(site.UncertaintyMetres is > 0 and <= LargestCircleMetres)
            ? "Give the radius in metres of the circle that holds the plant, above 0."
        : null;
}
