using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.SiteVisits;

namespace Garten.Server.Features.Tracks;

/// <summary>Takes back a track of a visit.</summary>
internal sealed class WithdrawTrackHandler : ICommandHandler<WithdrawTrackCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(WithdrawTrackCommand command) => [SiteVisitCheck.LockOf(command.SiteVisitId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(WithdrawTrackCommand command) => [ChangeSubject.SiteVisit(command.SiteVisitId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(WithdrawTrackCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.SiteVisitId, "siteVisitId"), (it.TrackId, "trackId"));
        if (await TrackRepository.VisitOfAsync(context.Connection, it.TrackId, stop) != it.SiteVisitId)
            throw Refusal.Of(422, "track.unknown", "This visit has no such track.", "Choose one of its tracks.", "trackId");
        await TrackRepository.WithdrawAsync(context, it.TrackId, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
