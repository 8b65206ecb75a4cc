using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Places;

namespace Garten.Server.Features.Surveys;

/// <summary>Adds a plot to a survey, or changes what is said of one.</summary>
internal sealed class SavePlotHandler : ICommandHandler<SavePlotCommand>
{
    private const int MostMarks = 10;
    private const double FarthestMark = 10_000;
    private const double LargestSquareMetres = 1_000_000;
    private const double LargestCircleMetres = 10_000;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(SavePlotCommand command) =>
        [SurveyCheck.LockOf(command.SurveyId), SurveyCheck.LockOfPlot(command.PlotId)];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(SavePlotCommand command) => [ChangeSubject.Survey(command.SurveyId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(SavePlotCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.PlotId, "plotId"), (it.SurveyId, "surveyId"), (it.PlaceId, "placeId"));
        Check.Text(it.Label, "label", "The plot's label", Limits.LongestName, required: true);
        Check.Text(it.Part, "part", "The part of the place", Limits.LongestName, required: false);
        Check.Text(it.Group, "group", "The group", Limits.LongestName, required: false);
        if (it.SquareMetres is { } size && !(size is > 0 and <= LargestSquareMetres))
            throw Refusal.Of(
                422,
                "plot.size",
                "This is no size of a plot.",
                "Give square metres, above 0 and up to 1,000,000.",
                "squareMetres"
            );
        CheckFinding(it.Finding ?? PlotFinding.None);
        if (await SurveyRepository.VersionAsync(context.Connection, it.SurveyId, stop) is null)
            throw SurveyCheck.Unknown();
        if (!await SurveyRepository.HasPlaceAsync(context.Connection, it.SurveyId, it.PlaceId, stop))
            throw Refusal.Of(422, "plot.place", "The place isn't one of the survey's.", "Add the place to the survey first.", "placeId");
        if (it.Site is { } site)
            await CheckSiteAsync(it, site, context, stop);
        var known = await SurveyRepository.PlotAsync(context.Connection, it.PlotId, stop);
        if (known is { } there && there.Survey != it.SurveyId)
            throw Refusal.Of(409, "plot.exists", "The plot belongs to another survey.", "Make a new id for a new plot.", "plotId");
        if (known?.Version != it.Version)
            throw Refusal.Of(
                409,
                "plot.changed",
                known is null ? "No plot has this id."
                    : it.Version is null ? "A plot of this id is there already."
                    : "Somebody changed this plot meanwhile.",
                known is null ? "Leave the version out to add one." : "Look at it as it is now, and change it again.",
                "version"
            );
        if (await SurveyRepository.IsLabelTakenAsync(context.Connection, it, stop))
            throw Refusal.Of(409, "plot.label", $"There is a plot “{it.Label}” in this survey.", "Call it otherwise.", "label");
        await SurveyRepository.SavePlotAsync(context, it, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }

    private static void CheckFinding(PlotFinding it)
    {
        Check.Text(it.Buried, "finding", "What was buried", Limits.LongestFinding, required: false);
        Check.Text(it.Photograph, "finding", "Where the photograph is taken from", Limits.LongestFinding, required: false);
        if (it.DeclinationDegrees is { } declination && !(declination is >= -180 and <= 180))
            throw Refusal.Of(
                422,
                "plot.declination",
                "This is no declination.",
                "Give degrees from -180 to 180, east positive.",
                "finding"
            );
        if (it.Marks.Count > MostMarks)
            throw Refusal.Of(422, "plot.marks", "These are too many marks.", $"Give up to {MostMarks}; two are enough.", "finding");
        foreach (var mark in it.Marks)
        {
            Check.Text(mark.What, "finding", "A mark", Limits.LongestFinding, required: true);
            if (!(mark.Metres is >= 0 and <= FarthestMark) || mark.BearingDegrees is { } bearing && !(bearing is >= 0 and <= 360))
                throw Refusal.Of(
                    422,
                    "plot.marks",
                    $"Where the plot lies of “{mark.What}” can't be so.",
                    "Give 0 to 10,000 metres, and a bearing of 0 to 360 degrees.",
                    "finding"
                );
        }
    }

    private static async Task CheckSiteAsync(SavePlotCommand it, PlantSite site, CommandContext context, CancellationToken stop)
    {
        var at = new GroundPoint(site.Latitude, site.Longitude);
        if (!at.IsOne() || !(site.UncertaintyMetres is > 0 and <= LargestCircleMetres))
            throw Refusal.Of(
                422,
                "plot.position",
                "The position isn't one.",
                "Give decimal degrees, the latitude first, and the metres by which it may be off, above 0.",
                "site"
            );
        var (place, outline) = await GroundRepository.OutlineAsync(context.Connection, it.PlaceId, stop);
        // A plot at the edge may seem to lie beyond it by as much as the position is uncertain.
        var beyond =
            outline.Count > 0
                ? Ring.MetresTo(outline, at)
                : Math.Max(0, Ring.Metres(new GroundPoint(place.Latitude, place.Longitude), at) - place.UncertaintyMetres);
        if (beyond > site.UncertaintyMetres)
            throw Refusal.Of(
                422,
                "plot.outside",
                "The plot lies outside its place.",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"It is {beyond:0} m beyond {(outline.Count > 0 ? "the boundary" : "the circle")} of {place.Name}. Choose "
                        + $"another place or position."
                ),
                "site"
            );
    }
}
