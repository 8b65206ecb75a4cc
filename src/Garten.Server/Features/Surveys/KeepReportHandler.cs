using Garten.Core.Contracts;
using Garten.Formats.Surveys;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Surveys;

/// <summary>Keeps the public report of a survey as it is now.</summary>
internal sealed class KeepReportHandler(SurveyReports reports) : ICommandHandler<KeepReportCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(KeepReportCommand command) => [SurveyCheck.LockOf(command.SurveyId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(KeepReportCommand command) => [ChangeSubject.Survey(command.SurveyId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(KeepReportCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.ReportId, "reportId"), (it.SurveyId, "surveyId"));
        Check.Text(it.For, "for", "Whom it is for", Limits.LongestFinding, required: true);
        if (await reports.MakeAsync(context.Connection, it.SurveyId, isExact: false, stop) is not { } report)
            throw SurveyCheck.Unknown();
        var kept = await context
            .Connection.Command(
                """
                insert into survey_report (id, survey_id, version, for_whom, page, kept_at)
                select $1, $2, coalesce(max(version), 0) + 1, $3, $4, $5 from survey_report where survey_id = $2
                on conflict (id) do nothing
                """,
                it.ReportId,
                it.SurveyId,
                it.For,
                ReportPage.Write(report.Report, it.For),
                context.Now
            )
            .RunAsync(stop);
        if (kept == 0)
            throw Refusal.Of(409, "report.exists", "A report of this id is there already.", "Make a new id for a new report.", "reportId");
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
