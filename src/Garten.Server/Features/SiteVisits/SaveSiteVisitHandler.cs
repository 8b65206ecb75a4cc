using Garten.Core.Contracts;
using Garten.Core.Surveys.SiteVisits;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.People;
using Garten.Server.Features.Records;

namespace Garten.Server.Features.SiteVisits;

/// <summary>Begins a visit to a place, or changes what is said of one.</summary>
internal sealed class SaveSiteVisitHandler : ICommandHandler<SaveSiteVisitCommand>
{
    private const int MostPeople = 50;
    private const int MostPlanned = 500;
    private const int MostPauses = 50;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(SaveSiteVisitCommand command) => [SiteVisitCheck.LockOf(command.SiteVisitId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(SaveSiteVisitCommand command) => [ChangeSubject.SiteVisit(command.SiteVisitId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(SaveSiteVisitCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.SiteVisitId, "siteVisitId"), (it.PlaceId, "placeId"));
        var on = context.Date(it.Date, "date");
        DateOnly? until = it.Until.Length > 0 ? context.Date(it.Until, "until") : null;
        if (until <= on)
            throw Refusal.Of(
                422,
                "visit.until",
                "The last day isn’t after the first one.",
                "Give the last day on which the visit can have been, or leave it out where the day is known.",
                "until"
            );
        Check.Text(it.Purpose, "purpose", "The purpose", Limits.LongestFinding, required: false);
        Check.Text(it.Weather, "weather", "The weather", Limits.LongestFinding, required: false);
        if (it.People is not { Count: > 0 and <= MostPeople })
            throw Refusal.Of(422, "visit.people", "A visit is made by somebody.", $"Name 1 to {MostPeople} people.", "people");
        foreach (var person in it.People)
        {
            Check.Ids((person.Id, "people"));
            Check.Text(person.Name, "people", "A person's name", Limits.LongestName, required: true);
        }
        if (it.People.DistinctBy(p => p.Id).Count() < it.People.Count)
            throw Refusal.Of(422, "visit.people", "Somebody is named twice.", "Name everybody once.", "people");
        if (it.Pauses is { Count: > MostPauses })
            throw Refusal.Of(422, "visit.pauses", "These are too many pauses.", $"Give up to {MostPauses}.", "pauses");
        if (it.Safety is { } safety)
        {
            Check.Text(safety.Contact, "safety", "The contact", Limits.LongestFinding, required: true);
            if (VisitEffort.Minute(safety.BackBy) is null)
                throw Refusal.Of(422, "visit.times", "This is no time of the day.", "Write it as hours and minutes: 17:30.", "safety");
        }
        if (it.Planned is { Count: > MostPlanned })
            throw Refusal.Of(422, "visit.planned", "These are too many questions.", $"Plan for up to {MostPlanned}.", "planned");
        foreach (var question in it.Planned ?? [])
        {
            Check.Text(question.Id, "planned", "A question's id", Limits.LongestName, required: true);
            Check.Text(question.Called, "planned", "What a question is of", Limits.LongestFinding, required: false);
            Check.Text(question.Text, "planned", "A question", Limits.LongestFinding, required: true);
        }
        var closing = await SiteVisitRepository.ClosingAsync(context.Connection, it.SiteVisitId, stop);
        SiteVisitCheck.Times(it.StartedAt, closing?.EndedAt ?? "", it.Pauses ?? []);
        if (!await DeterminationRepository.IsPlaceAsync(context.Connection, it.PlaceId, stop))
            throw Refusal.Of(422, "place.unknown", "This place isn't known.", "Choose one of the places, or add it first.", "placeId");
        // In one order: two that name the same people never wait for each other.
        foreach (var person in it.People.OrderBy(p => p.Id))
            await PersonRepository.EnsureAsync(context, person, stop);
        var known = await SiteVisitRepository.VersionAsync(context.Connection, it.SiteVisitId, stop);
        if (known is not null && it.Version != known)
            throw Refusal.Of(
                409,
                "visit.changed",
                it.Version is null ? "A visit of this id is there already." : "Somebody changed this visit meanwhile.",
                "Look at it as it is now, and change it again.",
                "version"
            );
        if (known is null && it.Version is not null)
            throw Refusal.Of(422, "visit.unknown", "No visit has this id.", "Leave the version out to begin one.", "siteVisitId");
        await SiteVisitRepository.SaveAsync(context, it, on, until, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
