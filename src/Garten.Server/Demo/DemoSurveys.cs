using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Surveys;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Server.Demo;

/// <summary>
/// Two surveys over the demo's places and two years: one by the lists of all visits, and one of 40 plots, ten of them permanent and
/// recorded in both years, three of these twice on one day. Drawn from the flora with a fixed seed.
/// </summary>
internal sealed class DemoSurveys(
    ReadyFlora flora,
    IReadOnlyList<Place> places,
    IReadOnlyDictionary<Guid, GroundDescription> grounds,
    IReadOnlyList<PersonReference> people,
    DateOnly today
)
{
    private const int Seed = 40;
    private const int Plots = 40;
    private const int Permanent = 10;
    private const int Twice = 3;
    private const int DaysOfLists = 730;
    private const int ApartMetres = 6;
    private const double SiteMetres = 4;

    // The meadow is the place whose parts are cut and drained differently: plots in it are worth comparing.
    private const int Meadow = 1;

    // Of the year that is compared the season has to be over.
    private const int FirstMonthAfter = 8;

    private readonly SeededDraw _draw = new(Seed);

    /// <summary>The commands, in the order in which they are to be sent.</summary>
    public IReadOnlyList<Command> Draw() => [.. Lists(), .. OfPlots()];

    private IEnumerable<Command> Lists()
    {
        var sought = flora
            .Pack.Taxa.Where(t => t.Cautions.Contains(Caution.Invasive) || t.Cautions.Contains(Caution.Protected))
            .Where(t => t.Facts?.IsSensitive != true && t.Rank == "species")
            .Select(t => t.Name)
            .Take(4);
        yield return new SaveSurveyCommand(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            "Five places of Torvane, two years of lists",
            "What grows at the five places, what came and what went, and what should be sought next?",
            Text(today.AddDays(-DaysOfLists)),
            Text(today.AddDays(30)),
            people[0],
            [.. places.Select(p => p.Id)],
            [.. sought],
            Terms: new SurveyTerms(
                [new("spring", "04-15", "05-31"), new("high summer", "06-15", "07-31"), new("autumn", "09-01", "10-15")],
                "confirmed-list",
                Grade.Reasoned,
                "Records may be passed on with the recorders’ names"
            ),
            Team: [.. people.Skip(1).Take(2)]
        );
    }

    private IEnumerable<Command> OfPlots()
    {
        var place = places[Meadow];
        var later = today.Month >= FirstMonthAfter ? today.Year : today.Year - 1;
        var survey = Guid.CreateVersion7();
        yield return new SaveSurveyCommand(
            Guid.CreateVersion7(),
            survey,
            $"Plots at {place.Name}",
            "Does the cover of the hay differ from that of headland and ditch, and does it change from year to year?",
            Text(new DateOnly(later - 1, 5, 1)),
            Text(new DateOnly(later + 1, 12, 31)),
            people[1 % people.Count],
            [place.Id],
            [],
            new SurveyProtocol(
                PlotKind.Quadrat,
                PlotShape.Square,
                2,
                0,
                PlotScale.Percent,
                RootingRule.Rooted,
                EdgeRule.TwoSides,
                ["shrubs", "herbs"],
                "05-20",
                "07-31",
                8,
                10,
                "Plots are walked round, not through."
            )
        );
        var ground = grounds.GetValueOrDefault(place.Id) ?? GroundDescription.None;
        var (spots, _) = PlotLaying.Lay(ground, PlotPlacing.Stratified, Plots, ApartMetres, Seed);
        if (spots.Count == 0)
            (spots, _) = PlotLaying.Lay(ground, PlotPlacing.Random, Plots, ApartMetres, Seed);
        // Permanent ones in every part: each fourth.
        var plots = spots
            .Select((s, i) => (Id: Guid.CreateVersion7(), Spot: s, IsPermanent: i % (Plots / Permanent) == 0, Label: $"L{i + 1:00}"))
            .ToList();
        foreach (var plot in plots)
            yield return new SavePlotCommand(
                Guid.CreateVersion7(),
                plot.Id,
                survey,
                place.Id,
                plot.Label,
                plot.IsPermanent,
                PlotPlacing.Stratified,
                Seed,
                new PlantSite(Math.Round(plot.Spot.At.Latitude, 6), Math.Round(plot.Spot.At.Longitude, 6), SiteMetres),
                plot.Spot.Part,
                plot.Spot.Part,
                Finding: plot.IsPermanent
                    ? new PlotFinding(
                        [
                            new PlotMark("west gatepost", 12 + _draw.Below(80), _draw.Below(360)),
                            new PlotMark("bent alder", 5 + _draw.Below(60), _draw.Below(360)),
                        ],
                        -3.5,
                        "",
                        "from the north corner, south-east"
                    )
                    : null
            );
        var here = flora
            .Pack.Taxa.Where(t =>
                t.Rank == "species"
                && t.Facts is { IsSensitive: false } facts
                && facts.GrowthForm != "tree"
                && facts.Habitats.Any(h => place.Habitats?.Contains(h, StringComparer.Ordinal) == true)
            )
            .ToList();
        var parts = plots.Select(p => p.Spot.Part).Distinct(StringComparer.Ordinal).ToList();
        // Each taxon likes one part better, and is so frequent there.
        var liking = here.Select(_ => (Part: _draw.Below(parts.Count), There: 0.25 + 0.7 * _draw.Share(), Elsewhere: 0.3 * _draw.Share()))
            .ToList();
        var firstOf = new Dictionary<Guid, List<PlotFind>>();
        foreach (
            var command in Year(
                place,
                new DateOnly(later - 1, 6, 14),
                plots.Where(p => p.IsPermanent),
                firstOf,
                here,
                liking,
                parts,
                isRepeat: false
            )
        )
            yield return command;
        foreach (var command in Year(place, new DateOnly(later, 6, 16), plots, firstOf, here, liking, parts, isRepeat: true))
            yield return command;
    }

    // A visit of a day with the recordings of its plots.
    private IEnumerable<Command> Year(
        Place place,
        DateOnly day,
        IEnumerable<(Guid Id, PlacedPlot Spot, bool IsPermanent, string Label)> plots,
        Dictionary<Guid, List<PlotFind>> before,
        List<Taxon> here,
        List<(int Part, double There, double Elsewhere)> liking,
        List<string> parts,
        bool isRepeat
    )
    {
        var visit = Guid.CreateVersion7();
        var (leader, other) = (people[1 % people.Count], people[2 % people.Count]);
        yield return new SaveSiteVisitCommand(
            Guid.CreateVersion7(),
            visit,
            place.Id,
            Text(day),
            "08:40",
            [leader, other],
            "plots",
            "dry, still",
            [new VisitPause("12:30", "13:05")]
        );
        var twice = 0;
        foreach (var plot in plots)
        {
            var part = parts.IndexOf(plot.Spot.Part);
            List<PlotFind> finds = before.TryGetValue(plot.Id, out var known)
                ? Changed(known, here, liking, part)
                : Fresh(here, liking, part);
            before[plot.Id] = finds;
            var record = Guid.CreateVersion7();
            yield return new RecordPlotCommand(
                Guid.CreateVersion7(),
                record,
                plot.Id,
                visit,
                leader,
                finds,
                [new PlotLayer("herbs", Math.Min(95, 35 + _draw.Below(60)), 15 + _draw.Below(55))],
                _draw.Below(20),
                5 + _draw.Below(25),
                9 + _draw.Below(9)
            );
            if (!isRepeat || !plot.IsPermanent || twice++ >= Twice)
                continue;
            // The second recorder overlooks one in eight, and sees one that the first did not.
            var seen = finds.Where(_ => _draw.Below(8) > 0).ToList();
            if (here.Find(t => finds.TrueForAll(f => f.Taxon != t.Name)) is { } extra)
                seen.Add(Find(extra));
            yield return new RecordPlotCommand(
                Guid.CreateVersion7(),
                Guid.CreateVersion7(),
                plot.Id,
                visit,
                other,
                seen,
                Minutes: 11,
                Repeats: record
            );
        }
        yield return new CloseSiteVisitCommand(
            Guid.CreateVersion7(),
            visit,
            new VisitClosing("17:20", Completeness.Unsaid, "", "", [], [PageWords.MindedAtEnd[0]], "")
        );
    }

    private List<PlotFind> Fresh(List<Taxon> here, List<(int Part, double There, double Elsewhere)> liking, int part) =>
        [.. here.Where((_, i) => _draw.Share() < (liking[i].Part == part ? liking[i].There : liking[i].Elsewhere)).Select(Find)];

    // From one year to the next one in ten goes, and now and then one comes.
    private List<PlotFind> Changed(
        List<PlotFind> known,
        List<Taxon> here,
        List<(int Part, double There, double Elsewhere)> liking,
        int part
    )
    {
        var kept = known.Where(_ => _draw.Below(10) > 0).ToList();
        foreach (var (taxon, i) in here.Select((t, i) => (t, i)))
        {
            if (kept.TrueForAll(f => f.Taxon != taxon.Name) && liking[i].Part == part && _draw.Share() < 0.12)
                kept.Add(Find(taxon));
        }
        return kept;
    }

    private PlotFind Find(Taxon taxon) =>
        new(
            taxon.Name,
            taxon.Facts?.GrowthForm == "shrub" ? "shrubs" : "herbs",
            Math.Max(0.5, Math.Round(45 * Math.Pow(_draw.Share(), 2.5)))
        );

    private static string Text(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
