using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Populations;

/// <summary>Notes what threatens a population, or how it was dealt with.</summary>
internal sealed class NoteThreatHandler : ICommandHandler<NoteThreatCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(NoteThreatCommand command) => [$"population:{command.PopulationId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(NoteThreatCommand command) => [ChangeSubject.Population(command.PopulationId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(NoteThreatCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.ThreatId, "threatId"), (it.PopulationId, "populationId"));
        Check.Text(it.Text, "text", "What threatens it", Limits.LongestFinding, required: true);
        var on = context.Date(it.NotedOn, "notedOn");
        DateOnly? actBy = it.ActBy.Length == 0 ? null : Check.Date(it.ActBy, "actBy");
        if (actBy < on)
            throw Refusal.Of(
                422,
                "threat.past",
                "The day to act by lies before the note.",
                "Give a day on or after the one on which it was noted, or none.",
                "actBy"
            );
        if (await PopulationRepository.PlaceOfAsync(context.Connection, it.PopulationId, stop) is null)
            throw Refusal.Of(
                422,
                "population.unknown",
                "No population has this id.",
                "Choose one of the list, or add it first.",
                "populationId"
            );
        if (
            it.Closes is { } closed
            && await PopulationRepository.PopulationOfThreatAsync(context.Connection, closed, stop) != it.PopulationId
        )
            throw Refusal.Of(
                422,
                "threat.closes",
                "The threat that is dealt with isn't one of this population.",
                "Choose one of its threats.",
                "closes"
            );
        if (!await PopulationRepository.ThreatenAsync(context.Connection, it, on, actBy, context.Now, stop))
            throw Refusal.Of(409, "threat.exists", "A note of this id is there already.", "Make a new id.", "threatId");
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
