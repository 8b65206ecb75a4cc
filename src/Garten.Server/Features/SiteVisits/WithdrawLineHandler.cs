using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.SiteVisits;

/// <summary>Takes back a line of a list that was a slip.</summary>
internal sealed class WithdrawLineHandler : ICommandHandler<WithdrawLineCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(WithdrawLineCommand command) => [SiteVisitCheck.LockOf(command.SiteVisitId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(WithdrawLineCommand command) => [ChangeSubject.SiteVisit(command.SiteVisitId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(WithdrawLineCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.SiteVisitId, "siteVisitId"), (it.LineId, "lineId"));
        if (await SiteVisitRepository.VisitOfLineAsync(context.Connection, it.LineId, stop) != it.SiteVisitId)
            throw Refusal.Of(422, "line.unknown", "The list of this visit has no such line.", "Choose a line of it.", "lineId");
        await SiteVisitRepository.WithdrawAsync(context, it.LineId, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
