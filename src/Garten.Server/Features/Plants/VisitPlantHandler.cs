using Garten.Core.Contracts;
using Garten.Core.Surveys;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Evidence;

namespace Garten.Server.Features.Plants;

/// <summary>Keeps how a tagged plant was found on a later day.</summary>
internal sealed class VisitPlantHandler(LookCheck looksCheck) : ICommandHandler<VisitPlantCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(VisitPlantCommand command) => [$"plant:{command.PlantId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(VisitPlantCommand command) => [ChangeSubject.Plant(command.PlantId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(VisitPlantCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.VisitId, "visitId"), (it.PlantId, "plantId"), (it.Recorder.Id, "recorder"));
        Check.Text(it.Recorder.Name, "recorder", "The recorder's name", Limits.LongestName, required: true);
        Check.Text(it.Note, "note", "The note", Limits.LongestNote, required: false);
        var on = context.Date(it.Date, "date");
        if (PlantVisit.Problem(it.State, it.Phases ?? [], it.Sexes ?? []) is var (field, wrong))
            throw Refusal.Of(422, "visit.disagrees", "What was found can't be kept so.", wrong, field);
        if (it.State == PlantState.NotRefound && it.Observations is { Count: > 0 })
            throw Refusal.Of(
                422,
                "visit.disagrees",
                "A plant that wasn't found has no evidence of that day.",
                "Take the observations out, or say how it was found.",
                "observations"
            );
        if (await PlantRepository.FindAsync(context.Connection, it.PlantId, stop) is not { } plant)
            throw Refusal.Of(422, "plant.unknown", "No plant has this id.", "Tag it first.", "plantId");
        if (plant.Label.Length == 0 && plant.TaggedOn is null)
            throw Refusal.Of(
                422,
                "plant.untagged",
                "This plant bears no tag.",
                "Tag it first, so that it is known which one was seen again.",
                "plantId"
            );
        PlantCheck.NotBeforeTag(plant, on, "date");
        if (await PlantRepository.IsVisitAsync(context.Connection, it.VisitId, stop))
            throw Refusal.Of(
                409,
                "visit.exists",
                "A visit of this id is there already.",
                "Make a new id: an earlier visit is never overwritten.",
                "visitId"
            );
        var looks = await looksCheck.NewAsync(context, it.PlantId, plant, it.Observations, stop);
        await PlantRepository.AddVisitAsync(context, it, on, stop);
        await EvidenceRepository.AddAsync(context.Connection, it.PlantId, it.Recorder.Id, looks, context.Now, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
