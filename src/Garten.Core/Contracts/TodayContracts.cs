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
        return new TodayAnswer(
            all.Count,
            closing,
            tooEarly,
            [.. now.Except(closing).Except(tooEarly)],
            places.FirstOrDefault(),
            [
                .. Populations
                    .SelectMany(p => p.Threats.Select(t => new PressingThreat(p.Id, p.Taxon, p.Name, p.Place.Name, p.IsSensitive, t)))
                    .Where(t => t.Threat.DealtWith.Length == 0 && t.Threat.ActBy is { } by && by.DayNumber - day.DayNumber <= ActWithinDays)
                    .OrderBy(t => t.Threat.ActBy),
            ]
        );
    }
}

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
public sealed record TodayAnswer(
    int Questions,
    IReadOnlyList<QuestionOnDay> Closing,
    IReadOnlyList<QuestionOnDay> TooEarly,
    IReadOnlyList<QuestionOnDay> Rest,
    BusyPlace? Best,
    IReadOnlyList<PressingThreat> Threats
);

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
