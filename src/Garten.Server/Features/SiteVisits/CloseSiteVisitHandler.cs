using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.SiteVisits;

/// <summary>Keeps what is said at the end of a visit.</summary>
internal sealed class CloseSiteVisitHandler : ICommandHandler<CloseSiteVisitCommand>
{
    private const int MostSought = 500;
    private const int MostTicks = 50;
    private const int MostMinutes = 24 * 60;
    private const int MostObservers = 50;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(CloseSiteVisitCommand command) => [SiteVisitCheck.LockOf(command.SiteVisitId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(CloseSiteVisitCommand command) => [ChangeSubject.SiteVisit(command.SiteVisitId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(CloseSiteVisitCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.SiteVisitId, "siteVisitId"));
        var closing = it.Closing;
        Check.Text(closing.Group, "closing", "The group", Limits.LongestName, required: false);
        Check.Text(closing.Level, "closing", "The level", Limits.LongestName, required: false);
        Check.Text(closing.Note, "closing", "The note", Limits.LongestNote, required: false);
        if (closing.Sought.Count > MostSought)
            throw Refusal.Of(422, "visit.sought", "This is too much sought in vain.", $"Give up to {MostSought}.", "closing");
        if (closing.Ticks.Count > MostTicks)
            throw Refusal.Of(422, "visit.ticks", "These are too many ticks.", $"Give up to {MostTicks}.", "closing");
        foreach (var tick in closing.Ticks)
            Check.Text(tick, "closing", "A tick", Limits.LongestFinding, required: true);
        foreach (var sought in closing.Sought)
        {
            Check.Text(sought.Taxon, "closing", "What was sought", Limits.LongestName, required: true);
            Check.Text(sought.Area, "closing", "Where it was sought", Limits.LongestFinding, required: false);
            Check.Text(sought.Note, "closing", "The note", Limits.LongestNote, required: false);
            if (sought.Minutes is < 1 or > MostMinutes || sought.Observers is < 1 or > MostObservers)
                throw Refusal.Of(
                    422,
                    "visit.sought",
                    $"How {sought.Taxon} was sought isn't said.",
                    "Give the minutes, and how many searched: without both, that it wasn't found says nothing.",
                    "closing"
                );
        }
        if (closing.Sought.GroupBy(s => (s.Taxon, s.Area)).FirstOrDefault(g => g.Count() > 1) is { } twice)
            throw Refusal.Of(422, "visit.sought", $"{twice.Key.Taxon} is named twice.", "Name it once for each area.", "closing");
        if (await SiteVisitRepository.TimesAsync(context.Connection, it.SiteVisitId, stop) is not var (startedAt, pauses))
            throw SiteVisitCheck.Unknown();
        SiteVisitCheck.Times(startedAt, closing.EndedAt, pauses);
        var names = await SiteVisitRepository.NamesAsync(context.Connection, it.SiteVisitId, stop);
        if (closing.Sought.FirstOrDefault(s => s.Area.Length == 0 && names.Contains(s.Taxon)) is { } found)
            throw Refusal.Of(
                422,
                "visit.sought-found",
                $"{found.Taxon} is on the list and was sought in vain.",
                "Say in which part of the place it was sought in vain, or take one of the two out.",
                "closing"
            );
        await SiteVisitRepository.CloseAsync(context, it, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
