using Garten.Server.Commands;

namespace Garten.Server.Features.Surveys;

/// <summary>What several commands check of a survey.</summary>
internal static class SurveyCheck
{
    /// <summary>What takes turns on a survey.</summary>
    public static string LockOf(Guid survey) => $"survey:{survey}";

    /// <summary>What takes turns on a plot.</summary>
    public static string LockOfPlot(Guid plot) => $"plot:{plot}";

    public static CommandRefusedException Unknown() =>
        Refusal.Of(422, "survey.unknown", "No survey has this id.", "Begin the survey first.", "surveyId");

    public static CommandRefusedException UnknownPlot() =>
        Refusal.Of(422, "plot.unknown", "No plot has this id.", "Add the plot to its survey first.", "plotId");
}
