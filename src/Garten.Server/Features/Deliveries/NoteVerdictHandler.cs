using Garten.Core.Contracts;
using Garten.Core.Deliveries;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.People;

namespace Garten.Server.Features.Deliveries;

/// <summary>Notes what a partner says of a record that was passed on.</summary>
internal sealed class NoteVerdictHandler : ICommandHandler<NoteVerdictCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(NoteVerdictCommand command) => [$"verdict:{command.OccurrenceId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(NoteVerdictCommand command) => [ChangeSubject.Deliveries];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(NoteVerdictCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.OccurrenceId, "occurrenceId"), (it.By.Id, "by"));
        Check.Text(it.By.Name, "by", "Your name", Limits.LongestName, required: true);
        Check.Text(it.Partner, "partner", "Who says it", Limits.LongestName, required: true);
        Check.Text(it.Says, "says", "What they say", Limits.LongestNote, required: it.Verdict != PartnerVerdict.Accepted);
        var on = context.Date(it.On, "on");
        if (!await DeliveryRepository.WasDeliveredAsync(context.Connection, it.OccurrenceId, it.Partner.Trim(), stop))
            throw Refusal.Of(
                422,
                "verdict.not-sent",
                "This record wasn't passed on to them.",
                "Choose a record of a delivery to them.",
                "occurrenceId"
            );
        await PersonRepository.EnsureAsync(context, it.By, stop);
        await DeliveryRepository.NoteAsync(context, it, on, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
