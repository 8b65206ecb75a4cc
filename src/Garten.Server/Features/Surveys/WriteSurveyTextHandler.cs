using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Surveys;

/// <summary>Keeps a sentence of a survey's report in a person's own words.</summary>
internal sealed class WriteSurveyTextHandler : ICommandHandler<WriteSurveyTextCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(WriteSurveyTextCommand command) => [SurveyCheck.LockOf(command.SurveyId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(WriteSurveyTextCommand command) => [ChangeSubject.Survey(command.SurveyId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(WriteSurveyTextCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.SurveyId, "surveyId"));
        Check.Text(it.Key, "key", "Which sentence", Limits.LongestName, required: true);
        Check.Text(it.Text, "text", "The sentence", Limits.LongestNote, required: false);
        if (await SurveyRepository.VersionAsync(context.Connection, it.SurveyId, stop) is null)
            throw SurveyCheck.Unknown();
        var change =
            it.Text.Length > 0
                ? context.Connection.Command(
                    "insert into survey_text (survey_id, key, text) values ($1, $2, $3) on conflict (survey_id, key) do update set "
                        + "text = excluded.text",
                    it.SurveyId,
                    it.Key,
                    it.Text
                )
                : context.Connection.Command("delete from survey_text where survey_id = $1 and key = $2", it.SurveyId, it.Key);
        await change.RunAsync(stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
