using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.People;
using Garten.Server.Features.SiteVisits;

namespace Garten.Server.Features.Tracks;

/// <summary>Keeps a piece of a track of a visit.</summary>
internal sealed class KeepTrackHandler : ICommandHandler<KeepTrackCommand>
{
    private const int HashCharacters = 64;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(KeepTrackCommand command) => [SiteVisitCheck.LockOf(command.SiteVisitId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(KeepTrackCommand command) => [ChangeSubject.SiteVisit(command.SiteVisitId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(KeepTrackCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.TrackId, "trackId"), (it.SiteVisitId, "siteVisitId"), (it.Recorder.Id, "recorder"));
        Check.Text(it.Recorder.Name, "recorder", "The recorder's name", Limits.LongestName, required: true);
        Check.Text(it.Source, "source", "What told the positions", Limits.LongestName, required: true);
        Check.Text(it.StartedAt, "startedAt", "When it began", Limits.LongestName, required: false);
        Check.Text(it.File, "file", "The file", HashCharacters, required: false);
        if (TrackPiece.Problem(it.StartedAt, it.Points) is { } wrong)
            throw Refusal.Of(422, "track.points", "This is no piece of a track.", wrong, "points");
        if (await SiteVisitRepository.VersionAsync(context.Connection, it.SiteVisitId, stop) is null)
            throw SiteVisitCheck.Unknown();
        if (it.File.Length > 0 && !await TrackRepository.IsFileAsync(context.Connection, it.File, stop))
            throw Refusal.Of(422, "track.file", "The file isn't here.", "Send the file first, or leave it out.", "file");
        if (await TrackRepository.VisitOfAsync(context.Connection, it.TrackId, stop) is { } visit && visit != it.SiteVisitId)
            throw Refusal.Of(422, "track.other-visit", "This track is of another visit.", "Begin a new track.", "trackId");
        await PersonRepository.EnsureAsync(context, it.Recorder, stop);
        await TrackRepository.KeepAsync(context, it, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
