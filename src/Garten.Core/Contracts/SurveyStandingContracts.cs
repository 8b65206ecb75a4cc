using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Seasons;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>How something that a survey wants stands in the year of a day.</summary>
[JsonConverter(typeof(CamelCaseWords<SurveyTaskState>))]
public enum SurveyTaskState
{
    /// <summary>It was done this year.</summary>
    Done,

    /// <summary>It can be done now.</summary>
    Due,

    /// <summary>Its season is still to come.</summary>
    Coming,

    /// <summary>Its season went by without it.</summary>
    Late,
}

/// <summary>Something that a survey wants done in a year.</summary>
/// <param name="What">"Plot A3", "A visit to Lang Meadow".</param>
/// <param name="PlaceId">Where.</param>
/// <param name="PlotId">The plot; null for a visit.</param>
/// <param name="State">How it stands.</param>
/// <param name="When">When it was done, or until when it can be; empty where nothing is said of it.</param>
/// <param name="Round">The round of a visit; empty where there are none, and of a plot.</param>
public sealed record SurveyTask(string What, Guid PlaceId, Guid? PlotId, SurveyTaskState State, string When, string Round = "");

/// <summary>What became of a taxon that a survey seeks.</summary>
/// <param name="Taxon">Its name.</param>
/// <param name="Found">Names of the places where it was found.</param>
/// <param name="Sought">Person-minutes for which it was sought in vain.</param>
/// <param name="SoughtAt">Names of the places where it was sought in vain.</param>
public sealed record SoughtStanding(string Taxon, IReadOnlyList<string> Found, int Sought, IReadOnlyList<string> SoughtAt);

/// <summary>Asks how a survey stands on a day.</summary>
/// <param name="Survey">The survey.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
public sealed record SurveyStandingRequest(SurveyWhole Survey, string Date)
{
    /// <summary>Tells it.</summary>
    /// <exception cref="RequestException">The day isn't one.</exception>
    public SurveyStanding Tell()
    {
        var today = RequestDay.Of(Date, "date");
        var survey = Survey.Survey;
        var holding = PlotRecord.Holding(Survey.Records);
        var ofYear = holding.Where(r => r.Date.Year == today.Year).ToList();
        var tasks = Wanted(today).Select(w => w.Task).ToList();
        var firsts = ofYear.Where(r => r.Repeats is null).Select(r => r.PlotId).Distinct().Count();
        return new SurveyStanding(
            [
                .. tasks
                    .OrderBy(t => Order(t.State))
                    .ThenBy(t => t.State == SurveyTaskState.Coming ? t.When : "", StringComparer.Ordinal)
                    .ThenBy(t => t.What, StringComparer.Ordinal),
            ],
            [.. survey.Sought.Select(t => OfSought(t))],
            survey.Now()?.Protocol is { TwiceOneIn: > 0 } p ? (firsts + p.TwiceOneIn - 1) / p.TwiceOneIn : 0,
            ofYear.Count(r => r.Repeats is not null)
        );
    }

    /// <summary>What it wants done in the year of a day, each with the days on which it can be.</summary>
    internal IReadOnlyList<(SurveyTask Task, MonthDays Days)> Wanted(DateOnly today)
    {
        var survey = Survey.Survey;
        var holding = PlotRecord.Holding(Survey.Records);
        var recorded = holding.ToLookup(r => r.PlotId, r => r.Date);
        var visited = Survey.Visits.ToLookup(v => v.Place.Id, v => v.Date);
        var withPlots = Survey.Plots.Select(p => p.PlaceId).ToHashSet();
        var season = survey.Now()?.Protocol.Season() ?? new MonthDays("", "");
        var wanted = new List<(SurveyTask, MonthDays)>();
        foreach (var plot in Survey.Plots)
        {
            // One that isn't permanent is recorded once.
            var done = recorded[plot.Id].Where(d => !plot.IsPermanent || d.Year == today.Year).Order().ToList();
            wanted.Add((TaskOf($"Plot {plot.Label}", plot.PlaceId, plot.Id, done, today, season, ""), season));
        }
        foreach (var place in survey.Places)
        {
            foreach (var round in survey.Terms.Rounds)
            {
                var (first, last) = round.Days().Around(today);
                var done = visited[place.Id].Where(d => first <= d && d <= last).Order().ToList();
                wanted.Add((TaskOf($"{place.Name}, {round.Name}", place.Id, null, done, today, round.Days(), round.Name), round.Days()));
            }
            var seen = visited[place.Id].Where(d => d.Year == today.Year).Order().ToList();
            // Where plots are recorded the place is visited anyway.
            if (survey.Terms.Rounds.Count == 0 && (survey.Now() is null || seen.Count > 0 || !withPlots.Contains(place.Id)))
                wanted.Add((TaskOf($"A visit to {place.Name}", place.Id, null, seen, today, season, ""), season));
        }
        return wanted;
    }

    private static int Order(SurveyTaskState state) =>
        state switch
        {
            SurveyTaskState.Due => 0,
            SurveyTaskState.Late => 1,
            SurveyTaskState.Coming => 2,
            _ => 3,
        };

    private SurveyTask TaskOf(string what, Guid place, Guid? plot, List<DateOnly> done, DateOnly today, MonthDays days, string round)
    {
        var survey = Survey.Survey;
        SurveyTask As(SurveyTaskState state, string when) => new(what, place, plot, state, when, round);
        return done.Count > 0 ? As(SurveyTaskState.Done, Written(done[^1]))
            : today < survey.From ? As(SurveyTaskState.Coming, Written(survey.From))
            : today > survey.To ? As(SurveyTaskState.Late, Written(survey.To))
            : days.Holds(today) ? As(SurveyTaskState.Due, days.To)
            : days.EndedBefore(today) ? As(SurveyTaskState.Late, days.To)
            : As(SurveyTaskState.Coming, days.From);
    }

    private SoughtStanding OfSought(string taxon)
    {
        var places = Survey.Survey.Places.ToDictionary(p => p.Id, p => p.Name);
        var plots = Survey.Plots.ToDictionary(p => p.Id, p => p.PlaceId);
        var found = Survey
            .Visits.Where(v => v.Records.Any(r => r.Lines[0].Name == taxon))
            .Select(v => v.Place.Name)
            .Concat(
                PlotRecord
                    .Holding(Survey.Records)
                    .Where(r => r.Finds.Any(f => f.Taxon == taxon) && plots.ContainsKey(r.PlotId))
                    .Select(r => places.GetValueOrDefault(plots[r.PlotId], ""))
            )
            .Distinct(StringComparer.Ordinal)
            .Order(StringComparer.Ordinal);
        var vain = Survey
            .Visits.SelectMany(v => (v.Closing?.Sought ?? []).Where(s => s.Taxon == taxon).Select(s => (v.Place.Name, s)))
            .ToList();
        return new SoughtStanding(
            taxon,
            [.. found],
            vain.Sum(x => x.s.Minutes * x.s.Observers),
            [.. vain.Select(x => x.Name).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)]
        );
    }

    private static string Written(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}

/// <summary>How a survey stands.</summary>
/// <param name="Tasks">What it wants done this year: due first, then late, to come, done.</param>
/// <param name="Sought">What became of the taxa that it seeks.</param>
/// <param name="TwiceWanted">Plots to be recorded twice this year, of those that were recorded.</param>
/// <param name="TwiceDone">Plots that were.</param>
public sealed record SurveyStanding(IReadOnlyList<SurveyTask> Tasks, IReadOnlyList<SoughtStanding> Sought, int TwiceWanted, int TwiceDone);
