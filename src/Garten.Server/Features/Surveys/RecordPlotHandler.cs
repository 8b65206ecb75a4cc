using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.People;

namespace Garten.Server.Features.Surveys;

/// <summary>Keeps what was recorded in a plot.</summary>
internal sealed class RecordPlotHandler : ICommandHandler<RecordPlotCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(RecordPlotCommand command) => [SurveyCheck.LockOfPlot(command.PlotId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(RecordPlotCommand command) => [ChangeSubject.Plot(command.PlotId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(RecordPlotCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.RecordId, "recordId"), (it.PlotId, "plotId"), (it.SiteVisitId, "siteVisitId"), (it.Recorder.Id, "recorder"));
        Check.Text(it.Recorder.Name, "recorder", "The recorder's name", Limits.LongestName, required: true);
        Check.Text(it.Departure, "departure", "The departure", Limits.LongestFinding, required: false);
        Check.Text(it.Note, "note", "The note", Limits.LongestNote, required: false);
        foreach (var find in it.Finds)
        {
            Check.Text(find.Taxon, "finds", "The taxon", Limits.LongestName, required: true);
            Check.Text(find.Layer, "finds", "The layer", Limits.LongestName, required: false);
            Check.Text(find.Class, "finds", "The class", Limits.LongestCell, required: false);
        }
        foreach (var layer in it.Layers ?? [])
            Check.Text(layer.Name, "layers", "The layer", Limits.LongestName, required: true);
        if (await SurveyRepository.PlotAsync(context.Connection, it.PlotId, stop) is not { } plot)
            throw SurveyCheck.UnknownPlot();
        if (await SurveyRepository.NewestProtocolAsync(context.Connection, plot.Survey, stop) is not { } now)
            throw Refusal.Of(
                422,
                "survey.protocol",
                "The survey has no protocol for plots yet.",
                "Say first how plots are recorded.",
                "plotId"
            );
        if (await SurveyRepository.VisitAsync(context.Connection, it.SiteVisitId, stop) is not { } visit)
            throw Refusal.Of(422, "visit.unknown", "No visit has this id.", "Begin the visit first.", "siteVisitId");
        if (visit.Place != plot.Place)
            throw Refusal.Of(
                422,
                "plot.visit",
                "The visit is one to another place.",
                "Record the plot on a visit to its own place.",
                "siteVisitId"
            );
        if (visit.Day < plot.From || visit.Day > plot.To)
            throw Refusal.Of(
                422,
                "plot.visit",
                "The visit lies outside the survey's days.",
                $"The survey runs from {Check.Spoken(plot.From)} to {Check.Spoken(plot.To)}.",
                "siteVisitId"
            );
        if (SurveyDocuments.RecordOf(it, visit.Day, now.Version).Problem(now.Protocol) is var (field, wrong))
            throw Refusal.Of(422, "plot.record", "The plot can't be recorded so.", wrong, field);
        foreach (var (other, name) in new[] { (it.Repeats, "repeats"), (it.Supersedes, "supersedes") })
        {
            if (other is { } id && await SurveyRepository.PlotOfRecordAsync(context.Connection, id, stop) != it.PlotId)
                throw Refusal.Of(422, $"plot.{name}", "The other recording isn't one of this plot.", "Choose one of its recordings.", name);
        }
        if (it.Supersedes is { } corrected && await SurveyRepository.IsCorrectedAsync(context.Connection, corrected, stop))
            throw Refusal.Of(
                409,
                "plot.corrected",
                "Somebody corrected this recording meanwhile.",
                "Look at it as it is now, and correct that one.",
                "supersedes"
            );
        if (
            it is { Repeats: null, Supersedes: null }
            && await SurveyRepository.IsRecordedAsync(context.Connection, it.PlotId, it.SiteVisitId, stop)
        )
            throw Refusal.Of(
                409,
                "plot.twice",
                $"Plot {plot.Label} was entered on this visit already.",
                "Correct that recording, or say that this one is an independent second.",
                "plotId"
            );
        await PersonRepository.EnsureAsync(context, it.Recorder, stop);
        if (!await SurveyRepository.AddRecordAsync(context, it, now.Version, stop))
            throw Refusal.Of(
                409,
                "plot.exists",
                "A recording of this id is there already.",
                "Make a new id for a new recording.",
                "recordId"
            );
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
