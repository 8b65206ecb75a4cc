using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.People;

namespace Garten.Server.Features.Surveys;

/// <summary>Begins a survey, or changes what is said of one.</summary>
internal sealed class SaveSurveyHandler : ICommandHandler<SaveSurveyCommand>
{
    private const int MostPlaces = 500;
    private const int MostSought = 500;
    private const int MostPeople = 100;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(SaveSurveyCommand command) => [SurveyCheck.LockOf(command.SurveyId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(SaveSurveyCommand command) => [ChangeSubject.Survey(command.SurveyId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(SaveSurveyCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.SurveyId, "surveyId"), (it.Leader.Id, "leader"));
        Check.Text(it.Name, "name", "The survey's name", Limits.LongestName, required: true);
        Check.Text(it.Question, "question", "The question", Limits.LongestFinding, required: false);
        Check.Text(it.Leader.Name, "leader", "The name of who answers for it", Limits.LongestName, required: true);
        var (from, to) = (Check.Date(it.From, "from"), Check.Date(it.To, "to"));
        if (to < from)
            throw Refusal.Of(422, "survey.days", "The survey ends before it begins.", "Give the later day as its last one.", "to");
        if (it.PlaceIds is not { Count: > 0 and <= MostPlaces })
            throw Refusal.Of(422, "survey.places", "A survey has places.", $"Choose 1 to {MostPlaces} places.", "placeIds");
        if (it.PlaceIds.Distinct().Count() < it.PlaceIds.Count)
            throw Refusal.Of(422, "survey.places", "A place is there twice.", "Choose every place once.", "placeIds");
        if (it.Sought is not { Count: <= MostSought })
            throw Refusal.Of(422, "survey.sought", "These are too many taxa.", $"Name up to {MostSought}.", "sought");
        foreach (var taxon in it.Sought)
            Check.Text(taxon, "sought", "A taxon that is sought", Limits.LongestName, required: true);
        if (it.Sought.Distinct(StringComparer.Ordinal).Count() < it.Sought.Count)
            throw Refusal.Of(422, "survey.sought", "A taxon is named twice.", "Name every taxon once.", "sought");
        CheckProtocol(it);
        CheckTerms(it);
        if (await SurveyRepository.PlacesKnownAsync(context.Connection, [.. it.PlaceIds], stop) < it.PlaceIds.Count)
            throw Refusal.Of(422, "place.unknown", "A place isn't known.", "Choose among the places, or add it first.", "placeIds");
        var known = await SurveyRepository.VersionAsync(context.Connection, it.SurveyId, stop);
        if (known is not null && it.Version != known)
            throw Refusal.Of(
                409,
                "survey.changed",
                it.Version is null ? "A survey of this id is there already." : "Somebody changed this survey meanwhile.",
                "Look at it as it is now, and change it again.",
                "version"
            );
        if (known is null && it.Version is not null)
            throw Refusal.Of(422, "survey.unknown", "No survey has this id.", "Leave the version out to begin one.", "surveyId");
        if (await SurveyRepository.PlotBesideAsync(context.Connection, it.SurveyId, [.. it.PlaceIds], stop) is { } plot)
            throw Refusal.Of(
                422,
                "survey.places",
                "A place with plots can't be left out.",
                $"Plot {plot} lies at a place that isn't among these.",
                "placeIds"
            );
        await PersonRepository.EnsureAsync(context, it.Leader, stop);
        await SurveyRepository.SaveAsync(context, it, from, to, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }

    private static void CheckTerms(SaveSurveyCommand it)
    {
        if (it.Team is { } team)
        {
            if (team.Count > MostPeople)
                throw Refusal.Of(422, "survey.team", "These are too many people.", $"Name up to {MostPeople}.", "team");
            foreach (var person in team)
            {
                Check.Ids((person.Id, "team"));
                Check.Text(person.Name, "team", "A name", Limits.LongestName, required: true);
            }
            if (team.Select(p => p.Id).Distinct().Count() < team.Count)
                throw Refusal.Of(422, "survey.team", "Somebody is named twice.", "Name everybody once.", "team");
        }
        if (it.Terms is not { } terms)
            return;
        Check.Text(terms.Licence, "licence", "The licence", Limits.LongestNote, required: false);
        foreach (var round in terms.Rounds)
            Check.Text(round.Name, "rounds", "The name of a round", Limits.LongestName, required: true);
        if (terms.Problem() is var (field, wrong))
            throw Refusal.Of(422, "survey.terms", "What is agreed can't be so.", wrong, field);
    }

    private static void CheckProtocol(SaveSurveyCommand it)
    {
        if (it.Protocol is not { } protocol)
            return;
        Check.Text(protocol.Note, "protocol", "The note", Limits.LongestNote, required: false);
        foreach (var layer in protocol.Layers)
            Check.Text(layer, "protocol", "A layer", Limits.LongestName, required: true);
        if (protocol.Problem() is var (field, wrong))
            throw Refusal.Of(422, "survey.protocol", "The protocol can't be so.", wrong, $"protocol.{field}");
    }
}
