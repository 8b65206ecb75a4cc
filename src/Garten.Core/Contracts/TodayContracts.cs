using Garten.Core.Seasons;
using Garten.Core.Visits;

namespace Garten.Core.Contracts;

/// <summary>A question as it stands on a day.</summary>
/// <param name="Question">The question.</param>
/// <param name="IsOpen">Whether it can be answered then.</param>
/// <param name="Closes">The last day on which it can, where it is open and doesn't stay so all year.</param>
/// <param name="ClosesSoon">Whether that day is near: within two weeks.</param>
/// <param name="WasTooEarly">Whether it can be answered then but couldn't when its plant was last confirmed.</param>
public sealed record QuestionOnDay(OpenQuestion Question, bool IsOpen, DateOnly? Closes, bool ClosesSoon, bool WasTooEarly);

/// <summary>All that is open, as it stands on a day.</summary>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Plants">The plants of which something is still to be seen.</param>
/// <param name="Populations">The populations.</param>
public sealed record QuestionsRequest(string Date, IReadOnlyList<OpenPlant> Plants, IReadOnlyList<PopulationDetail> Populations)
{
    /// <summary>What closes or has to be done within so many days is told first.</summary>
    internal const int SoonDays = 14;

    /// <summary>The questions of the plants, then those of the populations, in their order.</summary>
    /// <exception cref="RequestException">The day is none.</exception>
    public IReadOnlyList<QuestionOnDay> Tell()
    {
        var day = RequestDay.Of(Date, "date");
        return
        [
            .. Plants
                .SelectMany(OpenQuestion.Of)
                .Concat(Populations.SelectMany(OpenQuestion.Of))
                .Select(q =>
                {
                    // A count that is due was never looked at too early.
                    var stands = NeedStatus.Of(q.Need.Windows, day, q.Need.Character.Length > 0 ? q.LookedOn : null);
                    return new QuestionOnDay(
                        q,
                        stands.IsOpen,
                        stands.Closes,
                        stands.Closes is { } closes && closes.DayNumber - day.DayNumber <= SoonDays,
                        stands.WasTooEarly
                    );
                }),
        ];
    }
}

/// <summary>A place with the plants and populations that have something to answer there.</summary>
/// <param name="PlaceId">The place.</param>
/// <param name="PlaceName">Its name.</param>
/// <param name="Subjects">How many plants and populations.</param>
public sealed record BusyPlace(Guid PlaceId, string PlaceName, int Subjects);

/// <summary>A threat that nobody has dealt with yet.</summary>
/// <param name="Population">Id of the population.</param>
/// <param name="Taxon">Scientific name of what grows there.</param>
/// <param name="Name">The population's name.</param>
/// <param name="PlaceName">Where it grows.</param>
/// <param name="IsSensitive">Whether its place is kept back.</param>
/// <param name="Threat">The threat.</param>
public sealed record PressingThreat(Guid Population, string Taxon, string Name, string PlaceName, bool IsSensitive, Threat Threat);

/// <summary>What to do on a day.</summary>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Plants">The plants of which something is still to be seen.</param>
/// <param name="Populations">The populations.</param>
public sealed record TodayRequest(string Date, IReadOnlyList<OpenPlant> Plants, IReadOnlyList<PopulationDetail> Populations)
{
    // A threat is told of when it has to be acted on within so many days.
    private const int ActWithinDays = 2 * QuestionsRequest.SoonDays;

    /// <summary>The first visit behind this day, of the fewest that answer all that is open; none where nothing else is open.</summary>
    /// <param name="stop">Ends the search for the fewest visits.</param>
    /// <exception cref="RequestException">The day is none, or there are too many questions.</exception>
    public IReadOnlyList<NextVisit> Next(CancellationToken stop = default)
    {
        var all = new QuestionsRequest(Date, Plants, Populations).Tell();
        var needs = all.Select(q => new RequestedNeed(
            q.Question.Id,
            q.Question.PlaceId.ToString(),
            [.. q.Question.Need.Windows.Select(w => new NeedWindow(w.From, w.To))]
        ));
        return
        [
            .. new VisitsRequest(Date, [.. needs])
                .Plan(stop)
                .Visits.Where(v => !v.IsOpen)
                .Take(1)
                .Select(v => new NextVisit(all.First(q => q.Question.PlaceId.ToString() == v.Place).Question.PlaceName, v.Date)),
        ];
    }

    /// <summary>Works it out.</summary>
    /// <exception cref="RequestException">The day is none.</exception>
    public TodayAnswer Tell()
    {
        var day = RequestDay.Of(Date, "date");
        var all = new QuestionsRequest(Date, Plants, Populations).Tell();
        var now = all.Where(q => q.IsOpen).ToList();
        var closing = now.Where(q => q.ClosesSoon).OrderBy(q => q.Closes).ToList();
        var tooEarly = now.Where(q => !q.ClosesSoon && q.WasTooEarly).ToList();
        var places = now.GroupBy(q => q.Question.PlaceId)
            .Select(g => new BusyPlace(g.Key, g.First().Question.PlaceName, g.Select(q => q.Question.SubjectId).Distinct().Count()))
            .OrderByDescending(p => p.Subjects)
            .ToList();
        var rest = now.Except(closing).Except(tooEarly).ToList();
        return new TodayAnswer(
            all.Count,
            closing,
            tooEarly,
            rest,
            places.FirstOrDefault(),
            [
                .. Populations
                    .SelectMany(p => p.Threats.Select(t => new PressingThreat(p.Id, p.Taxon, p.Name, p.Place.Name, p.IsSensitive, t)))
                    .Where(t => t.Threat.DealtWith.Length == 0 && t.Threat.ActBy is { } by && by.DayNumber - day.DayNumber <= ActWithinDays)
                    .OrderBy(t => t.Threat.ActBy),
            ],
            new TodayCounts(closing.Count, Subjects(closing), Subjects(tooEarly), Subjects(rest)),
            Weeks(day, all)
        );
    }

    // How far the strip of Today looks ahead.
    private const int WeeksAhead = 8;

    private static int Subjects(IEnumerable<QuestionOnDay> questions) => questions.Select(q => q.Question.SubjectId).Distinct().Count();

    // What stays open all year neither opens nor closes.
    private static IReadOnlyList<WeekAhead> Weeks(DateOnly day, IReadOnlyList<QuestionOnDay> all)
    {
        var windows = all.SelectMany(q => q.Question.Need.Windows.Select(w => (Of: q.Question, Window: w)))
            .Where(w => w.Window.Length < DayOfYear.Days)
            .ToList();
        return
        [
            .. Enumerable
                .Range(0, WeeksAhead)
                .Select(week =>
                {
                    var from = day.AddDays(week * DaysOfWeek);
                    var days = new DayWindow(DayOfYear.Of(from), DayOfYear.Add(DayOfYear.Of(from), DaysOfWeek - 1));
                    // What opens today is open already.
                    return new WeekAhead(
                        from,
                        Names(windows.Where(w => days.Holds(w.Window.From) && w.Window.From != DayOfYear.Of(day))),
                        Names(windows.Where(w => days.Holds(w.Window.To)))
                    );
                }),
        ];

        static IReadOnlyList<string> Names(IEnumerable<(OpenQuestion Of, DayWindow Window)> found) =>
            [.. found.Select(f => f.Of.Name).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];
    }

    private const int DaysOfWeek = 7;
}

/// <summary>A week, with what becomes possible in it and what ends.</summary>
/// <param name="From">Its first day.</param>
/// <param name="Opens">Scientific names of what can be answered from some day of it on, each once.</param>
/// <param name="Closes">Of what can be answered until some day of it.</param>
public sealed record WeekAhead(DateOnly From, IReadOnlyList<string> Opens, IReadOnlyList<string> Closes);

/// <summary>How many there are of what a list of today may hold only the first of.</summary>
/// <param name="Closing">Questions that soon can't be answered any more.</param>
/// <param name="ClosingSubjects">Plants and populations that these are of.</param>
/// <param name="TooEarlySubjects">Those that were looked at too early.</param>
/// <param name="RestSubjects">All others that have something to answer.</param>
public sealed record TodayCounts(int Closing, int ClosingSubjects, int TooEarlySubjects, int RestSubjects);

/// <summary>The visit behind the one of today.</summary>
/// <param name="PlaceName">Where to.</param>
/// <param name="Date">When.</param>
public sealed record NextVisit(string PlaceName, DateOnly Date);

/// <summary>What to do on a day.</summary>
/// <param name="Questions">How many questions are open in all, at whatever time of the year.</param>
/// <param name="Closing">Those that can be answered now and soon can't any more, the first to close at the front.</param>
/// <param name="TooEarly">Of the others those that were looked at too early and are ready now.</param>
/// <param name="Rest">What else can be answered now.</param>
/// <param name="Best">The place with most plants that have something to answer now; null where nothing has.</param>
/// <param name="Threats">What has to be acted on soon, the most pressing first.</param>
/// <param name="Counts">How many there are of each.</param>
/// <param name="Weeks">This week and those to come, with what opens and closes in each.</param>
public sealed record TodayAnswer(
    int Questions,
    IReadOnlyList<QuestionOnDay> Closing,
    IReadOnlyList<QuestionOnDay> TooEarly,
    IReadOnlyList<QuestionOnDay> Rest,
    BusyPlace? Best,
    IReadOnlyList<PressingThreat> Threats,
    TodayCounts Counts,
    IReadOnlyList<WeekAhead> Weeks
)
{
    /// <summary>The same with the questions of so many plants and populations in each list.</summary>
    /// <param name="subjects">How many; above 0.</param>
    public TodayAnswer First(int subjects)
    {
        IReadOnlyList<QuestionOnDay> Few(IReadOnlyList<QuestionOnDay> all)
        {
            var some = all.Select(q => q.Question.SubjectId).Distinct().Take(subjects).ToHashSet();
            return [.. all.Where(q => some.Contains(q.Question.SubjectId))];
        }

        return this with
        {
            Closing = Few(Closing),
            TooEarly = Few(TooEarly),
            Rest = Few(Rest),
        };
    }
}

/// <summary>All that the page of a day shows.</summary>
/// <param name="Today">What to do.</param>
/// <param name="Next">The visit behind it; null where nothing else is open.</param>
/// <param name="InSeason">What is in season at one's places.</param>
public sealed record TodayDocument(TodayAnswer Today, NextVisit? Next, IReadOnlyList<PlaceInSeason> InSeason)
{
    /// <summary>So many plants and populations of a list are shown; the others are among the visits.</summary>
    public const int MostShown = 6;
}

/// <summary>Days that are asked for how far they are.</summary>
/// <param name="Date">From which day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Days">The days.</param>
public sealed record DaysRequest(string Date, IReadOnlyList<NamedDay> Days)
{
    // A plant not seen for so many days may be gone.
    private const int LongAgoDays = 180;

    /// <summary>Says it of each, in their order.</summary>
    /// <exception cref="RequestException">The day is none.</exception>
    public IReadOnlyList<DayDistance> Tell()
    {
        var day = RequestDay.Of(Date, "date");
        return
        [
            .. Days.Select(d =>
            {
                var ahead = d.Date.DayNumber - day.DayNumber;
                return new DayDistance(d.Id, ahead, ahead <= QuestionsRequest.SoonDays, -ahead > LongAgoDays);
            }),
        ];
    }
}

/// <summary>A day of something.</summary>
/// <param name="Id">Of what.</param>
/// <param name="Date">The day.</param>
public sealed record NamedDay(string Id, DateOnly Date);

/// <summary>How far a day is.</summary>
/// <param name="Id">Of what it is.</param>
/// <param name="Ahead">Days until it; below 0 where it has passed.</param>
/// <param name="IsSoon">Whether it has passed or is near: within two weeks.</param>
/// <param name="IsLongAgo">Whether it is half a year back or more.</param>
public sealed record DayDistance(string Id, int Ahead, bool IsSoon, bool IsLongAgo);
