using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Seasons;
using Garten.Core.Surveys;
using Garten.Core.Surveys.SiteVisits;
using Garten.Server.Features.StandIns;

namespace Garten.Server.Demo;

/// <summary>
/// Visits to the demo's places over two years, drawn from the flora with a fixed seed: lists, what was sought in vain, plants named later,
/// plantings, a newcomer that spreads, and a taxon that went. Days are kept as offsets from the day of loading.
/// </summary>
internal sealed class DemoVisits(
    ReadyFlora flora,
    IReadOnlyList<Place> places,
    IReadOnlyList<PersonReference> people,
    IReadOnlyList<TagPlantCommand> tagged,
    IReadOnlySet<string> named,
    IReadOnlyDictionary<Guid, GroundDescription> grounds,
    DateOnly today
)
{
    private const int Seed = 21;
    private const int VisitsPerPlace = 11;
    private const int FirstDayAgo = 705;
    private const int DaysBetween = 64;
    private const int FewestListed = 14;
    private const int MostListed = 26;

    // From this visit on the newcomer is there, and the taxon that went isn't any more.
    private const int Turning = 5;

    private const int TrackStepSeconds = 20;

    private const double ChanceOfCompanion = 0.5;
    private const double ChanceOfAbundance = 0.7;
    private const double ChanceOfNote = 0.06;
    private const double MetresPerDegree = 111_195;

    private static readonly string[][] Parts =
    [
        ["upper boards", "alder stand", "lower path"],
        ["north headland", "hay", "ditch"],
        ["foot", "ledges", "top"],
        ["tarn edge", "dry heath", "bog"],
        ["outer slack", "inner slack", "salt marsh"],
    ];

    private static readonly string[] Purposes =
    [
        "list for the year",
        "second look",
        "repeat of last year’s list",
        "looking for the rarer ones",
    ];
    private static readonly string[] Weathers = ["dry, light wind", "showers", "overcast, still", "bright, cold wind", "mist until noon"];
    private static readonly string[] Notes =
    [
        "one clump only",
        "along the whole edge",
        "grazed hard",
        "seedlings beside it",
        "shaded, small",
    ];

    private readonly Random _random = new(Seed);

    /// <summary>The commands of each visit, in the order in which they are to be sent.</summary>
    public IEnumerable<IReadOnlyList<Command>> Draw()
    {
        for (var p = 0; p < places.Count; p++)
        {
            var here = Here(places[p]);
            // The first that is invasive came in the second year; the first of the rest went with it.
            var newcomer = flora.Pack.Taxa.FirstOrDefault(t => t.Cautions.Contains(Caution.Invasive) && Suits(t, places[p]));
            var lost = here.FirstOrDefault(t => t != newcomer && t.Facts?.Establishment == "established" && !named.Contains(t.Name));
            for (var k = 0; k < VisitsPerPlace; k++)
                yield return Visit(places[p], p, k, here, newcomer, lost);
        }
    }

    private static bool Suits(Taxon taxon, Place place) =>
        taxon.Facts is { } facts && facts.Habitats.Any(h => place.Habitats?.Contains(h, StringComparer.Ordinal) == true);

    // Sensitive ones stand in their square alone.
    private List<Taxon> Here(Place place) =>
        [
            .. flora.Pack.Taxa.Where(t =>
                t.Rank is "species" or "hybrid" or "cultivar"
                && Suits(t, place)
                && (t.Facts?.IsSensitive != true || t.Facts.Cells.Contains(place.Cell, StringComparer.Ordinal))
            ),
        ];

    private List<Command> Visit(Place place, int p, int k, List<Taxon> here, Taxon? newcomer, Taxon? lost)
    {
        var day = today.AddDays(-FirstDayAgo + DaysBetween * k + 7 * p);
        if (day > today)
            day = today.AddDays(-p - 1);
        // What was tagged at the place is listed on the visit of that day, where there is one.
        var near = tagged.Where(t => t.PlaceId == place.Id && t.PopulationId is null).Select(t => t.TaggedOn).Distinct().ToList();
        if (near.Find(d => Math.Abs(Day(d).DayNumber - day.DayNumber) < DaysBetween / 2) is { } of)
            day = Day(of);
        var id = Guid.CreateVersion7();
        var leader = people[(p + k) % people.Count];
        List<PersonReference> there = [leader];
        if (_random.NextDouble() < ChanceOfCompanion)
            there.Add(people[(p + k + 1) % people.Count]);
        var (start, long_) = (9 * 60 + _random.Next(120), 70 + _random.Next(130));
        IReadOnlyList<VisitPause> pauses = long_ > 150 ? [new VisitPause(Time(start + 80), Time(start + 100))] : [];
        List<Command> commands =
        [
            new SaveSiteVisitCommand(
                Guid.CreateVersion7(),
                id,
                place.Id,
                Text(day),
                Time(start),
                there,
                Purposes[k % Purposes.Length],
                Weathers[_random.Next(Weathers.Length)],
                pauses
            ),
        ];
        // Every second visit had a receiver with it.
        var walk = k % 2 == 0 ? StandInsFeature.Walk(place, grounds.GetValueOrDefault(place.Id), pace: 1, seed: k) : null;
        var track = walk is null ? null : Track(walk, id, leader, day, start, long_, pauses);
        var at = start + 4;
        string Next() => Time(at = Math.Min(start + long_ - 1, at + 1 + _random.Next(5)));
        var number = 0;
        foreach (var tag in tagged.Where(t => t.PlaceId == place.Id && t.PopulationId is null && Day(t.TaggedOn) == day))
            commands.Add(
                new ListTaxonCommand(
                    Guid.CreateVersion7(),
                    Guid.CreateVersion7(),
                    id,
                    "",
                    leader,
                    string.Create(CultureInfo.InvariantCulture, $"unnamed {++number}"),
                    tag.PlantId,
                    At: Next(),
                    Site: tag.Site
                )
            );
        var shown = here.Where(t => Absence.CanBeToldOn(t, day) != false && t != newcomer && (t != lost || k < Turning))
            .OrderBy(_ => _random.Next())
            .Take(FewestListed + _random.Next(MostListed - FewestListed + 1))
            .ToList();
        if (k >= Turning && newcomer is not null)
            shown.Add(newcomer);
        foreach (var taxon in shown)
            commands.Add(Line(id, taxon, there[_random.Next(there.Count)], place, Parts[p % Parts.Length], Next(), day, taxon == newcomer));
        if (walk is not null && track is not null)
            commands = [.. commands.Select(c => c is ListTaxonCommand { Site: not null } line ? Placed(line, walk) : c), track];
        List<SoughtInVain> sought = [];
        if (k >= Turning && lost is not null && Absence.CanBeToldOn(lost, day) == true)
            sought.Add(new SoughtInVain(lost.Name, "", 15 + 5 * _random.Next(5), there.Count, "Where it stood before."));
        commands.Add(
            new CloseSiteVisitCommand(
                Guid.CreateVersion7(),
                id,
                new VisitClosing(
                    Time(start + long_),
                    k % 4 == 1 ? Completeness.Partial : Completeness.Complete,
                    PageWords.ListedGroups[0],
                    PageWords.ListedLevels[0],
                    sought,
                    [PageWords.MindedAtEnd[0], PageWords.MindedAtEnd[3]],
                    ""
                )
            )
        );
        return commands;
    }

    // A line of a visit with a receiver stands where that was.
    private static ListTaxonCommand Placed(ListTaxonCommand line, SimulatedWalk walk)
    {
        var minute = TimeOnly.ParseExact(line.At, "HH:mm", CultureInfo.InvariantCulture).ToTimeSpan();
        return line.PlantId is null && walk.Told(minute.TotalSeconds) is var (there, metres)
            ? line with
            {
                Site = new PlantSite(Math.Round(there.Latitude, 5), Math.Round(there.Longitude, 5), Math.Ceiling(metres)),
            }
            : line;
    }

    private static KeepTrackCommand Track(
        SimulatedWalk walk,
        Guid visit,
        PersonReference leader,
        DateOnly day,
        int start,
        int minutes,
        IReadOnlyList<VisitPause> pauses
    )
    {
        bool Rests(double second) =>
            pauses.Any(p =>
                string.CompareOrdinal(Time((int)second / 60), p.From) >= 0 && string.CompareOrdinal(Time((int)second / 60), p.To) < 0
            );
        List<TrackPoint> points = [];
        for (var second = start * 60; second < (start + minutes) * 60; second += TrackStepSeconds)
        {
            if (!Rests(second) && walk.Told(second) is var (there, metres))
                points.Add(new TrackPoint(Math.Round(there.Latitude, 6), Math.Round(there.Longitude, 6), metres, second - start * 60));
        }
        return new KeepTrackCommand(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            visit,
            leader,
            string.Create(CultureInfo.InvariantCulture, $"{day:yyyy-MM-dd}T{Time(start)}:00Z"),
            points,
            "receiver"
        );
    }

    // Who names what the others find hard: one line in so many.
    private const string Referee = "Halla Brint";
    private const int HardOneOf = 40;
    private int _lines;

    private ListTaxonCommand Line(
        Guid visit,
        Taxon taxon,
        PersonReference by,
        Place place,
        string[] parts,
        string at,
        DateOnly day,
        bool isNewcomer
    )
    {
        var flowers = taxon.Facts?.Phenology.Any(s => s.Phase == Phenophase.Flower && s.Holds(PhaseSpan.HalfMonth(day))) == true;
        var isPlanted = taxon.Facts?.Establishment is "planted" || taxon.Rank == "cultivar";
        var details = new LineDetails(
            _random.NextDouble() < ChanceOfAbundance ? (Abundance)(1 + _random.Next(4)) : null,
            Phase: flowers && _random.Next(2) == 0 ? Phenophase.Flower : null,
            Growth: isPlanted ? WildOrPlanted.Planted
                : isNewcomer ? WildOrPlanted.Escaped
                : null,
            GrowthReason: isPlanted ? "in a row by the gate"
                : isNewcomer ? "from the hedge across the road"
                : "",
            Note: _random.NextDouble() < ChanceOfNote ? Notes[_random.Next(Notes.Length)] : "",
            Determiner: ++_lines % HardOneOf == 0 ? Referee : ""
        );
        PlantSite? site = null;
        if (_random.Next(3) == 0)
        {
            var (east, north) = (
                (_random.NextDouble() - 0.5) * place.UncertaintyMetres,
                (_random.NextDouble() - 0.5) * place.UncertaintyMetres
            );
            site = new PlantSite(
                Math.Round(place.Latitude + north / MetresPerDegree, 5),
                Math.Round(place.Longitude + east / (MetresPerDegree * Math.Cos(place.Latitude * Math.PI / 180)), 5),
                6 + _random.Next(9)
            );
        }
        return new ListTaxonCommand(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            visit,
            taxon.Name,
            by,
            Compartment: parts[_random.Next(parts.Length)],
            At: at,
            Details: details,
            Site: site
        );
    }

    private static DateOnly Day(string text) => DateOnly.ParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Text(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Time(int minute) => string.Create(CultureInfo.InvariantCulture, $"{minute / 60:00}:{minute % 60:00}");
}
