using System.ComponentModel.DataAnnotations;
using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Places;
using Garten.Server.Hosting;
using Microsoft.Extensions.Options;

namespace Garten.Server.Features.StandIns;

/// <summary>Whether devices and services are stood in for, and how.</summary>
public sealed class StandInOptions
{
    /// <summary>Where it stands among the settings.</summary>
    public const string Section = "StandIns";

    /// <summary>Whether they are there. The demo has them.</summary>
    public bool IsOn { get; set; }

    /// <summary>How many times faster the walker is than somebody who looks for plants.</summary>
    [Range(0.1, 10)]
    public double Pace { get; set; } = 1;
}

/// <summary>Stand-ins for devices and services that aren't here: a receiver of positions, a weather service, an atlas, a calliper. What
/// asks them can't tell them from real ones, and they fail as those do.</summary>
internal sealed class StandInsFeature : IFeature
{
    private const string Problem = "application/problem+json";

    // As many seconds as a page may have been away for; what a receiver said before is lost.
    private const int MostSeconds = 10;

    // So long a service that doesn't answer is waited for here: whoever asks gives up before.
    private static readonly TimeSpan Silence = TimeSpan.FromSeconds(20);

    // A calliper's jaws open no further.
    private const double WidestMillimetres = 300;
    private static readonly TimeSpan Lateness = TimeSpan.FromSeconds(4);

    private static readonly string[] Moods = [.. Enum.GetNames<StandInMood>().Select(n => n.ToLowerInvariant())];

    public void Add(IServiceCollection services) =>
        services
            .AddOptions<StandInOptions>()
            .BindConfiguration(StandInOptions.Section)
            .Configure<IConfiguration>((it, all) => it.IsOn |= all["GARTEN_DEMO"] is { Length: > 0 })
            .ValidateDataAnnotations()
            .ValidateOnStart();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/stand-ins", (IOptions<StandInOptions> options) =>
                TypedResults.Ok<IReadOnlyList<string>>(options.Value.IsOn ? Moods : [])
            )
            .WithName("listStandIns")
            .WithSummary("How the simulated devices and services may work; empty where there are none.");

        api.MapGet(
                "/stand-ins/receiver",
                async (
                    Guid place,
                    string? mood,
                    double? after,
                    PlaceRepository places,
                    GroundRepository grounds,
                    IOptions<StandInOptions> options,
                    TimeProvider clock,
                    CancellationToken stop
                ) =>
                {
                    if (Refused(options.Value, mood, out var how) is { } refusal)
                        return refusal;
                    if ((await places.ListAsync(stop)).FirstOrDefault(p => p.Id == place) is not { } at)
                        return UnknownPlace();
                    var ground = (await grounds.ListAsync(stop)).FirstOrDefault(g => g.PlaceId == place)?.Ground;
                    var walk = Walk(at, ground, options.Value.Pace);
                    var now = Math.Floor((clock.GetUtcNow() - DateTimeOffset.UnixEpoch).TotalSeconds);
                    var from = Math.Max(now - MostSeconds, after is { } said && said <= now ? Math.Floor(said) : now - 1);
                    List<string> lines = [];
                    for (var second = from + 1; second <= now; second++)
                        lines.AddRange(walk.Sentences(DateTimeOffset.UnixEpoch.AddSeconds(second), how));
                    return Results.Text(string.Concat(lines.Select(l => l + "\r\n")));
                }
            )
            .Produces<string>(200, "text/plain")
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("readSimulatedReceiver")
            .WithSummary("What a simulated receiver at a place has said since a moment (seconds since 1970 UTC), as NMEA 0183.");

        api.MapGet(
                "/stand-ins/weather",
                async (
                    Guid place,
                    string at,
                    string? mood,
                    PlaceRepository places,
                    IOptions<StandInOptions> options,
                    CancellationToken stop
                ) =>
                {
                    if (Refused(options.Value, mood, out var how) is { } refusal)
                        return refusal;
                    if ((await places.ListAsync(stop)).FirstOrDefault(p => p.Id == place) is not { } where)
                        return UnknownPlace();
                    if (!DateTime.TryParseExact(at, "yyyy-MM-dd'T'HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out var when))
                        return Problems.Result(422, "date.invalid", "There is no such time.", "Give it as 2026-05-20T10:15.", "at");
                    return SimulatedWeather.At(where, when, how) is { } reading
                        ? Results.Ok(new WeatherAnswer(reading, reading.InWords, reading.Doubt(at)))
                        : await SilentAsync("weather.silent", "The weather service doesn't answer.", "Write down what you see.", stop);
                }
            )
            .Produces<WeatherAnswer>()
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Produces<ProblemReport>(503, Problem)
            .WithName("readSimulatedWeather")
            .WithSummary("The weather at a place and time, by a simulated service.");

        api.MapGet(
                "/stand-ins/atlas",
                async (
                    string flora,
                    string taxon,
                    Guid? place,
                    string? mood,
                    FloraRepository floras,
                    PlaceRepository places,
                    IOptions<StandInOptions> options,
                    TimeProvider clock,
                    CancellationToken stop
                ) =>
                {
                    if (Refused(options.Value, mood, out var how) is { } refusal)
                        return refusal;
                    if (
                        await floras.BookAsync(flora, stop) is not { } book
                        || book.Flora.Taxa.FirstOrDefault(t => t.Id == taxon) is not { } asked
                    )
                        return Problems.Result(404, "taxon.unknown", "The flora hasn't this taxon.", "Choose one of its list.", "taxon");
                    var at = place is { } id ? (await places.ListAsync(stop)).FirstOrDefault(p => p.Id == id) : null;
                    var today = DateOnly.FromDateTime(clock.GetLocalNow().Date);
                    return SimulatedAtlas.Of(asked, book.Cells, today, how) is { } record
                        ? Results.Ok(AtlasAnswer.Of(record, asked, book.Cells, at, today))
                        : await SilentAsync("atlas.silent", "The atlas doesn't answer.", "Ask it later.", stop);
                }
            )
            .Produces<AtlasAnswer>()
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Produces<ProblemReport>(503, Problem)
            .WithName("readSimulatedAtlas")
            .WithSummary("In which squares a taxon was recorded and when, by a simulated atlas.");

        api.MapGet(
                "/stand-ins/calliper",
                async (double about, string? mood, IOptions<StandInOptions> options, TimeProvider clock, CancellationToken stop) =>
                {
                    if (Refused(options.Value, mood, out var how) is { } refusal)
                        return refusal;
                    if (!(about is > 0 and <= WidestMillimetres))
                        return Problems.Result(
                            422,
                            "calliper.size",
                            "A calliper doesn't hold this.",
                            $"Give 0 to {WidestMillimetres} mm.",
                            "about"
                        );
                    if (how == StandInMood.Late)
                        await Task.Delay(Lateness, stop);
                    return Results.Text(SimulatedCalliper.Keys(about, new Random((int)clock.GetTimestamp()), how));
                }
            )
            .Produces<string>(200, "text/plain")
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("readSimulatedCalliper")
            .WithSummary("The keys that a simulated calliper presses for something of about so many millimetres.");
    }

    /// <summary>Somebody who walks over a place.</summary>
    internal static SimulatedWalk Walk(Place place, GroundDescription? ground, double pace, int seed = 0) =>
        new(
            new GroundPoint(place.Latitude, place.Longitude),
            place.UncertaintyMetres,
            ground?.Outline ?? [],
            [.. (ground?.Parts ?? []).Where(p => p.Light is "shaded" or "half shade" && p.Outline.Count > 0).Select(p => p.Outline)],
            unchecked(BitConverter.ToInt32(place.Id.ToByteArray(), 12) + seed * SimulatedWalk.SeedStep),
            pace
        );

    private static IResult? Refused(StandInOptions options, string? mood, out StandInMood how)
    {
        how = StandInMood.Well;
        if (!options.IsOn)
            return Problems.Result(404, "stand-ins.off", "There are no stand-ins here.", "The demo has them.", "");
        return mood is null || Moods.Contains(mood) && Enum.TryParse(mood, ignoreCase: true, out how)
            ? null
            : Problems.Result(422, "stand-ins.mood", "It can't work like that.", $"Choose {string.Join(", ", Moods)}.", "mood");
    }

    // A service that doesn't answer keeps whoever asks it waiting.
    private static async Task<IResult> SilentAsync(string code, string title, string hint, CancellationToken stop)
    {
        await Task.Delay(Silence, stop);
        return Problems.Result(503, code, title, hint, "");
    }

    private static IResult UnknownPlace() =>
        Problems.Result(404, "place.unknown", "This place isn't known.", "Choose among the places.", "place");
}
