using System.Globalization;
using Garten.Core.Seasons;
using Garten.Core.Visits;

namespace Garten.Core.Contracts;

/// <summary>Asks for the fewest days on which a survey's work is done and what is open of the plants and populations at its places is
/// answered.</summary>
/// <param name="Survey">The survey.</param>
/// <param name="Date">From which day on, <c>YYYY-MM-DD</c>.</param>
/// <param name="Plants">Plants of which something is still to be seen.</param>
/// <param name="Populations">Populations.</param>
public sealed record SurveyPlanRequest(
    SurveyWhole Survey,
    string Date,
    IReadOnlyList<OpenPlant> Plants,
    IReadOnlyList<PopulationDetail> Populations
)
{
    /// <summary>Plans it.</summary>
    /// <param name="stop">Ends the search for the fewest days.</param>
    /// <exception cref="RequestException">The day is none.</exception>
    public SurveyPlan Plan(CancellationToken stop = default)
    {
        var today = RequestDay.Of(Date, "date");
        var survey = Survey.Survey;
        var places = survey.Places.ToDictionary(p => p.Id, p => p.Name);
        var first = today < survey.From ? survey.From : today;
        if (first > survey.To)
            return new SurveyPlan([], true, []);
        var needs = new List<(VisitNeed Need, IReadOnlyList<SurveyErrand> Errands)>();
        void Add(Guid place, IEnumerable<DayWindow> windows, IReadOnlyList<SurveyErrand> errands) =>
            needs.Add(
                (
                    new VisitNeed(
                        needs.Count.ToString(CultureInfo.InvariantCulture),
                        place.ToString(),
                        [.. windows.SelectMany(w => Within(w, first, survey.To))]
                    ),
                    errands
                )
            );
        // What can be done at a place on the same days is one need: of thousands of plots the search stays short.
        foreach (
            var alike in new SurveyStandingRequest(Survey, Date)
                .Wanted(today)
                .Where(w => w.Task.State != SurveyTaskState.Done)
                .GroupBy(w => (w.Task.PlaceId, w.Days))
        )
            Add(
                alike.Key.PlaceId,
                [alike.Key.Days.Window()],
                [.. alike.Select(w => new SurveyErrand(w.Task.What, "", w.Task.PlotId, null, false))]
            );
        foreach (var asked in new QuestionsRequest(Date, Plants, Populations).Tell().Select(q => q.Question))
        {
            if (places.ContainsKey(asked.PlaceId))
                Add(
                    asked.PlaceId,
                    asked.Need.Windows,
                    [
                        new SurveyErrand(
                            asked.Label.Length > 0 ? $"{asked.Label}, {asked.Name}" : asked.Name,
                            asked.Need.Text,
                            null,
                            asked.SubjectId,
                            asked.IsOfPopulation
                        ),
                    ]
                );
        }
        var plan = VisitPlan.Of(first, [.. needs.Select(n => n.Need)], stop);
        var errands = needs.ToDictionary(n => n.Need.Id, n => n.Errands, StringComparer.Ordinal);
        return new SurveyPlan(
            [
                .. plan.Visits.Select(v => new SurveyDay(
                    Guid.Parse(v.Place),
                    places[Guid.Parse(v.Place)],
                    v.Date,
                    v.Earliest,
                    v.Latest,
                    Together(v.Needs.SelectMany(n => errands[n]))
                )),
            ],
            plan.IsOptimal,
            Together(plan.Unanswerable.SelectMany(n => errands[n]))
        );
    }

    // All that is to be seen of a plant is one errand.
    private static IReadOnlyList<SurveyErrand> Together(IEnumerable<SurveyErrand> errands) =>
        [
            .. errands
                .GroupBy(e => (e.What, e.PlotId, e.SubjectId))
                .Select(g => g.First() with { Text = string.Join("; ", g.Select(e => e.Text).Where(t => t.Length > 0)) }),
        ];

    // What of a window lies in the year ahead and before the survey ends: at most two stretches, where it is open now and again later.
    private static IEnumerable<DayWindow> Within(DayWindow window, DateOnly first, DateOnly last)
    {
        var ahead = last.DayNumber - first.DayNumber;
        if (ahead >= DayOfYear.Days - 1)
        {
            yield return window;
            yield break;
        }
        var (start, end) = (DayOfYear.Of(first), DayOfYear.Of(last));
        DayWindow From(int day) => new(day, DayOfYear.Between(day, end) < DayOfYear.Between(day, window.To) ? end : window.To);
        if (window.Holds(start))
            yield return From(start);
        if (window.From != start && DayOfYear.Between(start, window.From) <= ahead)
            yield return From(window.From);
    }
}

/// <summary>Something to be done on a day of a survey.</summary>
/// <param name="What">"Plot A3", "Lang Meadow, spring", the tag of a plant.</param>
/// <param name="Text">What is to be seen of a plant or population; empty for the survey's own work.</param>
/// <param name="PlotId">The plot; null for others.</param>
/// <param name="SubjectId">The plant or population; null for the survey's own work.</param>
/// <param name="IsOfPopulation">Whether that is a population.</param>
public sealed record SurveyErrand(string What, string Text, Guid? PlotId, Guid? SubjectId, bool IsOfPopulation);

/// <summary>A day of a survey at one of its places.</summary>
/// <param name="PlaceId">The place.</param>
/// <param name="PlaceName">Its name.</param>
/// <param name="Date">The date.</param>
/// <param name="Earliest">The first date on which it would do the same.</param>
/// <param name="Latest">The last one.</param>
/// <param name="Errands">What is done.</param>
public sealed record SurveyDay(
    Guid PlaceId,
    string PlaceName,
    DateOnly Date,
    DateOnly Earliest,
    DateOnly Latest,
    IReadOnlyList<SurveyErrand> Errands
);

/// <summary>The fewest days for a survey.</summary>
/// <param name="Days">The days, those that close first at the front.</param>
/// <param name="IsOptimal">Whether it is certain that no fewer will do.</param>
/// <param name="Missed">What can't be done any more before the survey ends.</param>
public sealed record SurveyPlan(IReadOnlyList<SurveyDay> Days, bool IsOptimal, IReadOnlyList<SurveyErrand> Missed);
