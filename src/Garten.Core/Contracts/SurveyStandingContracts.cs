using System.Globalization;
using Garten.Core.Seasons;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>How something that a survey wants stands in the year of a day.</summary>
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
public sealed record SurveyTask(string What, Guid PlaceId, Guid? PlotId, SurveyTaskState State, string When);

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
        var protocol = survey.Now()?.Protocol;
        var tasks = new List<SurveyTask>();
        foreach (var plot in Survey.Plots)
        {
            // One that isn't permanent is recorded once.
            var done = (plot.IsPermanent ? ofYear : holding).Where(r => r.PlotId == plot.Id).Select(r => r.Date).Order().ToList();
            tasks.Add(TaskOf($"Plot {plot.Label}", plot.PlaceId, plot.Id, done.Count > 0 ? done[^1] : null, today, protocol));
        }
        foreach (var place in survey.Places)
        {
            var seen = Survey.Visits.Where(v => v.Place.Id == place.Id && v.Date.Year == today.Year).Select(v => v.Date).Order().ToList();
            if (protocol is null || seen.Count > 0 || Survey.Plots.All(p => p.PlaceId != place.Id))
                tasks.Add(TaskOf($"A visit to {place.Name}", place.Id, null, seen.Count > 0 ? seen[^1] : null, today, protocol));
        }
        var firsts = ofYear.Where(r => r.Repeats is null).Select(r => r.PlotId).Distinct().Count();
        return new SurveyStanding(
            [.. tasks.OrderBy(t => Order(t.State)).ThenBy(t => t.What, StringComparer.Ordinal)],
            [.. survey.Sought.Select(t => OfSought(t))],
            protocol is { TwiceOneIn: > 0 } p ? (firsts + p.TwiceOneIn - 1) / p.TwiceOneIn : 0,
            ofYear.Count(r => r.Repeats is not null)
        );
    }

    private static int Order(SurveyTaskState state) =>
        state switch
        {
            SurveyTaskState.Due => 0,
            SurveyTaskState.Late => 1,
            SurveyTaskState.Coming => 2,
            _ => 3,
        };

    private SurveyTask TaskOf(string what, Guid place, Guid? plot, DateOnly? done, DateOnly today, SurveyProtocol? protocol)
    {
        var survey = Survey.Survey;
        if (done is { } day)
            return new(what, place, plot, SurveyTaskState.Done, Written(day));
        if (today < survey.From)
            return new(what, place, plot, SurveyTaskState.Coming, Written(survey.From));
        if (today > survey.To)
            return new(what, place, plot, SurveyTaskState.Late, Written(survey.To));
        if (protocol is null || protocol.SeasonFrom.Length == 0)
            return new(what, place, plot, SurveyTaskState.Due, "");
        var at = today.ToString("MM-dd", CultureInfo.InvariantCulture);
        return protocol.IsInSeason(today) ? new(what, place, plot, SurveyTaskState.Due, protocol.SeasonTo)
            : string.CompareOrdinal(at, protocol.SeasonFrom) < 0 ? new(what, place, plot, SurveyTaskState.Coming, protocol.SeasonFrom)
            : new(what, place, plot, SurveyTaskState.Late, protocol.SeasonTo);
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
