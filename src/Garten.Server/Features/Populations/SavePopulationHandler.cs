using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Records;

namespace Garten.Server.Features.Populations;

/// <summary>Adds a population.</summary>
internal sealed class SavePopulationHandler : ICommandHandler<SavePopulationCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> AboutOf(SavePopulationCommand command) => [ChangeSubject.Population(command.PopulationId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(SavePopulationCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.PopulationId, "populationId"));
        Check.Text(it.Name, "name", "The population's name", Limits.LongestName, required: true);
        Check.Text(it.Taxon, "taxon", "The taxon", Limits.LongestName, required: true);
        Check.Text(it.Bounds, "bounds", "What is counted", Limits.LongestNote, required: false);
        if (!await DeterminationRepository.IsPlaceAsync(context.Connection, it.PlaceId, stop))
            throw Refusal.Of(422, "place.unknown", "This place isn't known.", "Choose one of the places, or add it first.", "placeId");
        if (!await PopulationRepository.AddAsync(context.Connection, it, stop))
            throw Refusal.Of(
                409,
                "population.exists",
                "A population of this id is there already.",
                "Make a new id for a new population.",
                "populationId"
            );
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
