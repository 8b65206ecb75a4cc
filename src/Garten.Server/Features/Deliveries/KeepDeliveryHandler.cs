using Garten.Core.Contracts;
using Garten.Core.Deliveries;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.People;
using Garten.Server.Features.Records;

namespace Garten.Server.Features.Deliveries;

/// <summary>Keeps what is passed on to somebody, as it is at this moment.</summary>
internal sealed class KeepDeliveryHandler(DeliveryRun run) : ICommandHandler<KeepDeliveryCommand>
{
    // Two deliveries to one partner are one after the other: the second knows what the first had.
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(KeepDeliveryCommand command) => [$"delivery:{command.Partner?.Trim().ToUpperInvariant()}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(KeepDeliveryCommand command) => [ChangeSubject.Deliveries];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(KeepDeliveryCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.DeliveryId, "deliveryId"), (it.By.Id, "by"));
        Check.Text(it.By.Name, "by", "Your name", Limits.LongestName, required: true);
        Check.Text(it.Partner, "partner", "To whom it goes", Limits.LongestName, required: true);
        Check.Text(it.Note, "note", "The note", Limits.LongestFinding, required: false);
        Check.Text(it.Scope.Taxon, "scope", "The taxon", Limits.LongestName, required: false);
        if (it.Scope.PlaceId is { } place && !await DeterminationRepository.IsPlaceAsync(context.Connection, place, stop))
            throw Refusal.Of(422, "place.unknown", "This place isn't known.", "Choose one of the places, or all.", "scope");
        if (await DeliveryRepository.IsKnownAsync(context.Connection, it.DeliveryId, stop))
            throw Refusal.Of(409, "delivery.exists", "A delivery of this id is there already.", "Make a new id.", "deliveryId");
        if (await run.WorkOutAsync(context.Connection, it.Partner.Trim(), it.Scope, stop) is not { } rows)
            throw Refusal.Of(
                422,
                "delivery.many",
                "These are too many records for one delivery.",
                $"Narrow it to a place or a taxon: one holds {DeliveryRun.MostRecords}.",
                "scope"
            );
        if (rows.All(r => r.Change.State == DeliveredState.Unchanged))
            throw Refusal.Of(
                422,
                "delivery.nothing",
                rows.Count == 0 ? "There is nothing to pass on." : "They have all of this already as it is.",
                "Choose other records.",
                "scope"
            );
        await PersonRepository.EnsureAsync(context, it.By, stop);
        await DeliveryRepository.KeepAsync(context, it, rows, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
