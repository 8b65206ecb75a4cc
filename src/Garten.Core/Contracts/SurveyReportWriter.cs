using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Surveys.Figures;
using Garten.Core.Surveys.Plots;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>Writes the report of a survey from its data: what, where, when, who, how, what was found and how surely, what wasn't, what is
/// unsure, what to do next.</summary>
public static partial class SurveyReportWriter
{
    // A table in a report is read; longer ones stand among the tables that come with it.
    private const int MostRows = 60;

    // Of a sure change and of indicators a report names the first few.
    private const int MostNamed = 8;
    private const double SureP = 0.05;

    // More lines of a drawing nobody takes in.
    private const int MostDrawn = 16;

    /// <summary>Heading of the section with the figures: their drawing stands there.</summary>
    public const string FiguresTitle = "Figures";

    private const string TaxaTitle = "Taxa";
    private const string VainTitle = "Sought in vain";
    private const string OpenTitle = "Open";

    /// <summary>Writes it.</summary>
    public static SurveyReport Write(SurveyWhole whole, ReportContext context)
    {
        ArgumentNullException.ThrowIfNull(whole);
        ArgumentNullException.ThrowIfNull(context);
        return new Making(whole, context).Write();
    }

    private sealed partial class Making(SurveyWhole whole, ReportContext context)
    {
        private readonly Survey _survey = whole.Survey;
        private readonly IReadOnlyList<PlotRecord> _records = PlotRecord.Holding(whole.Records);
        private readonly Dictionary<Guid, Plot> _plots = whole.Plots.ToDictionary(p => p.Id);

        private bool IsKeptBack(string taxon) => context.IsKeptBack?.Invoke(taxon) == true;

        private ReportSentence Say(string key, string made) => new(key, made, _survey.Texts.GetValueOrDefault(key, ""));

        public SurveyReport Write()
        {
            var source = whole.Plots.Count > 0 && _records.Count > 0 ? SurveySource.Plots : SurveySource.Lists;
            var figures = new SurveyFiguresRequest(whole, source, SurveyUnit.Each, UnderOf(source)).WorkOut(context.Taxa);
            ReportSection[] sections = [What(), Methods(), Found(), Figures(source, figures), Vain(), Unsure(), Next()];
            return new SurveyReport(
                _survey.Name,
                context.Today,
                context.IsKeptBack is not null,
                [InShort(sections, figures), .. sections],
                [.. Spots()],
                figures.Statistics?.Accumulation ?? [],
                new SurveyArrangementRequest(
                    whole,
                    source,
                    Distance: source == SurveySource.Plots ? SampleDistance.BrayCurtis : SampleDistance.Sorensen
                ).WorkOut()
                    is { Arrangement: not null } arranged
                    ? arranged
                    : null,
                [
                    .. new SurveyChangeRequest(whole)
                        .WorkOut()
                        .SelectMany(c => c.Taxa)
                        .Where(t => t.Lost + t.Gained > 0 && t.Share.Low is not null && !IsKeptBack(t.Taxon))
                        .Take(MostDrawn),
                ]
            );
        }

        // Figures count what isn't named: a reader would wonder otherwise why they count more.
        private string KeptBackInWords()
        {
            var kept = whole
                .Visits.SelectMany(v => v.Records.Select(r => r.Lines[0].Name))
                .Concat(_records.SelectMany(r => r.Finds.Select(f => f.Taxon)))
                .Concat(context.Names.Where(n => !n.IsOpen).Select(n => n.Name))
                .Where(n => n.Length > 0 && IsKeptBack(n))
                .Distinct(StringComparer.Ordinal)
                .Count();
            return kept == 0 ? "" : $", besides {Counted(kept, "sensitive one that isn’t", "sensitive ones that aren’t")} named here";
        }

        // What a reader who reads no further should know; worked out of what the sections say.
        private ReportSection InShort(IReadOnlyList<ReportSection> sections, SurveyFigures figures)
        {
            int Rows(string title) => sections.SelectMany(s => s.Tables).FirstOrDefault(t => t.Title == title)?.Rows.Count ?? 0;
            var vain = sections
                .SelectMany(s => s.Tables)
                .FirstOrDefault(t => t.Title == VainTitle)
                ?.Rows.Select(r => r[0])
                .Distinct(StringComparer.Ordinal)
                .ToList();
            var recorded = _records.Count > 0 ? $" and in {Counted(_records.Count, "recording", "recordings")} of plots" : "";
            var chao = figures.Statistics?.Pooled;
            var sentences = new List<ReportSentence>
            {
                Say("question", _survey.Question),
                Say(
                    "short-found",
                    $"{Counted(Rows(TaxaTitle), "taxon was", "taxa were")} found on "
                        + $"{Counted(whole.Visits.Count, "visit", "visits")}{recorded}{KeptBackInWords()}"
                        + (chao is null ? "." : $"{InAll(chao)}.")
                ),
                Say(
                    "short-not",
                    (vain is { Count: > 0 } ? $"Looked for in vain: {List(vain)}. " : "Nothing was named as looked for in vain. ")
                        + (
                            Rows(OpenTitle) is var open and > 0
                                ? $"{Counted(open, "record is", "records are")} still unsure."
                                : "No record is unsure."
                        )
                ),
                Say("short-next", sections[^1].Sentences.First(s => s.Key == "next").Made),
            };
            return new("In short", Kept(sentences), []);
        }

        private SurveyUnit UnderOf(SurveySource source) =>
            source == SurveySource.Plots && whole.Plots.Any(p => p.Group.Length > 0) ? SurveyUnit.Group : SurveyUnit.Place;

        private ReportSection What()
        {
            var people = whole
                .Visits.SelectMany(v => v.People)
                .Select(p => p.Name)
                .Distinct(StringComparer.Ordinal)
                .Order(StringComparer.Ordinal);
            var days = whole.Visits.Select(v => v.Date).Distinct().Order().ToList();
            var minutes = whole.Visits.Sum(v => v.Effort.PersonMinutes ?? 0);
            var untimed = whole.Visits.Count(v => v.Effort.PersonMinutes is null);
            var sentences = new List<ReportSentence>
            {
                Say(
                    "extent",
                    $"{_survey.Name} covers {Places()} from {Written(_survey.From)} to {Written(_survey.To)}; {_survey.Leader.Name} "
                        + $"answers for it{(_survey.Team.Count > 0 ? $", with {List([.. _survey.Team.Select(p => p.Name)])}" : "")}."
                ),
                Say(
                    "effort",
                    days.Count == 0
                        ? "No visit was made yet."
                        : $"{Counted(whole.Visits.Count, "visit", "visits")} on {Counted(days.Count, "day", "days")}, the first on "
                            + $"{Written(days[0])}, "
                            + $"the last on {Written(days[^1])}, by {List([.. people])}: {Hours(minutes)} of searching in all"
                            + (untimed > 0 ? $", {Counted(untimed, "visit", "visits")} without times not counted" : "")
                            + "."
                ),
            };
            var hasPlots = whole.Plots.Count > 0;
            var rows = _survey.Places.Select(place =>
            {
                var visits = whole.Visits.Where(v => v.Place.Id == place.Id).ToList();
                var plots = whole.Plots.Where(p => p.PlaceId == place.Id).ToList();
                return (IReadOnlyList<string>)
                    [
                        place.Name,
                        place.Locality,
                        Number(visits.Count),
                        Hours(visits.Sum(v => v.Effort.PersonMinutes ?? 0)),
                        .. hasPlots
                            ?
                            [
                                Number(plots.Count),
                                Number(_records.Count(r => _plots.TryGetValue(r.PlotId, out var p) && p.PlaceId == place.Id)),
                            ]
                            : (string[])[],
                        place.Caution,
                    ];
            });
            return new(
                "What, where, when, who",
                Kept(sentences),
                [
                    new(
                        "Places",
                        ["Place", "Locality", "Visits", "Searching", .. hasPlots ? ["Plots", "Plot recordings"] : (string[])[], "Mind"],
                        [.. rows],
                        []
                    ),
                ]
            );
        }

        private ReportSection Found()
        {
            var places = _survey.Places.ToDictionary(p => p.Id, p => p.Name);
            var found = whole
                .Visits.SelectMany(v =>
                    v.Records.Where(r => r.Lines[0].Name.Length > 0)
                        .Select(r => (Name: r.Lines[0].Name, Place: v.Place.Name, v.Date, Growth: r.Lines[0].Details.Growth))
                )
                .Concat(
                    _records
                        .Where(r => _plots.ContainsKey(r.PlotId))
                        .SelectMany(r =>
                            r.Finds.Select(f =>
                                (
                                    Name: f.Taxon,
                                    Place: places.GetValueOrDefault(_plots[r.PlotId].PlaceId, ""),
                                    r.Date,
                                    Growth: (WildOrPlanted?)null
                                )
                            )
                        )
                )
                .Concat(context.Names.Where(n => !n.IsOpen).Select(n => (n.Name, n.Place, n.Date, Growth: (WildOrPlanted?)null)))
                .GroupBy(f => f.Name, StringComparer.Ordinal)
                .OrderBy(g => g.Key, StringComparer.Ordinal)
                .ToList();
            // Of a survey of few places the name alone would tell where it stands.
            var keptBack = found.RemoveAll(g => IsKeptBack(g.Key));
            var grades = context
                .Names.Where(n => n.Grade is not null)
                .GroupBy(n => n.Name, StringComparer.Ordinal)
                .ToDictionary(g => g.Key, g => PageWords.Grades[g.First().Grade!.Value], StringComparer.Ordinal);
            var origins = found
                .GroupBy(g => context.Taxa.Find(g.Key)?.Facts?.Origin ?? Origin.Unsaid)
                .ToDictionary(g => g.Key, g => g.Count());
            var sentences = new List<ReportSentence>
            {
                Say(
                    "found",
                    found.Count == 0
                        ? "Nothing was found yet."
                        : $"{Counted(found.Count, "taxon was", "taxa were")} found: {OriginsInWords(origins)}."
                ),
            };
            if (keptBack > 0)
                sentences.Add(
                    Say(
                        "kept-back",
                        $"{Counted(keptBack, "sensitive taxon isn’t", "sensitive taxa aren’t")} named in this version: the name "
                            + $"would tell the place."
                    )
                );
            var planted = found
                .Where(g => g.All(f => f.Growth is WildOrPlanted.Planted or WildOrPlanted.Escaped))
                .Select(g => g.Key)
                .ToList();
            if (planted.Count > 0)
                sentences.Add(Say("planted", $"Only planted, or escaped from planting: {List(planted)}."));
            var rows = found.Select(g =>
                (IReadOnlyList<string>)
                    [
                        g.Key,
                        context.Taxa.Find(g.Key)?.CommonName ?? "",
                        List([
                            .. g.Select(f => f.Place)
                                .Where(p => p.Length > 0)
                                .Distinct(StringComparer.Ordinal)
                                .Order(StringComparer.Ordinal),
                        ]),
                        string.Join(", ", g.Select(f => f.Date.Year).Distinct().Order()),
                        grades.GetValueOrDefault(g.Key, "seen"),
                        CautionsOf(g.Key),
                    ]
            );
            return new(
                "What was found, and how surely",
                Kept(sentences),
                [new(TaxaTitle, ["Taxon", "Name", "Where", "Years", "How surely", "Mind"], [.. rows], [0])]
            );
        }

        private string CautionsOf(string name) =>
            context.Taxa.Find(name) is { } taxon
                ? string.Join(
                    ", ",
                    CautionLine.Of(taxon).SelectMany(l => l.Cautions).Distinct().Select(c => c.ToString().ToLowerInvariant())
                )
                : "";

        private static string OriginsInWords(Dictionary<Origin, int> origins)
        {
            var parts = new List<string>();
            void Add(Origin origin, string word)
            {
                if (origins.TryGetValue(origin, out var n))
                    parts.Add(string.Create(CultureInfo.InvariantCulture, $"{n} {word}"));
            }
            Add(Origin.Native, "native");
            Add(Origin.Introduced, "introduced");
            Add(Origin.Doubtful, "of doubtful origin");
            Add(Origin.Unsaid, "of which the flora says nothing");
            return List(parts);
        }

        private ReportSection Vain()
        {
            var rows = whole
                .Visits.OrderBy(v => v.Date)
                .SelectMany(v =>
                    (v.Closing?.Sought ?? [])
                        .Where(s => !IsKeptBack(s.Taxon))
                        .Select(s =>
                            (IReadOnlyList<string>)
                                [
                                    s.Taxon,
                                    v.Place.Name,
                                    s.Area,
                                    Written(v.Date),
                                    string.Create(CultureInfo.InvariantCulture, $"{s.Minutes} min"),
                                    Number(s.Observers),
                                    Absence.CanBeToldOn(context.Taxa.Find(s.Taxon), v.Date) == false
                                        ? "not in a season in which it shows"
                                        : s.Note,
                                ]
                        )
                )
                .ToList();
            return new(
                "What was looked for in vain",
                Kept([
                    Say(
                        "vain",
                        rows.Count == 0
                            ? "Nothing was named as sought in vain: what isn’t on the lists may have been overlooked."
                            : "That a plant wasn’t found doesn’t say that it isn’t there; the effort beside it says how well it was sought."
                    ),
                ]),
                rows.Count == 0 ? [] : [new(VainTitle, ["Taxon", "Place", "Part", "Day", "Time", "Observers", "Mind"], rows, [0])]
            );
        }

        private ReportSection Unsure()
        {
            var rows = whole
                .Visits.OrderBy(v => v.Date)
                .SelectMany(v =>
                    v.Records.Where(r => r.Lines[0].Name.Length == 0)
                        .Select(r => (IReadOnlyList<string>)[r.Called, v.Place.Name, Written(v.Date), "has no name yet"])
                )
                .Concat(
                    context
                        .Names.Where(n => n.IsOpen && !n.Name.Split(" or ").Any(IsKeptBack))
                        .Select(n =>
                            (IReadOnlyList<string>)
                                [
                                    n.Name,
                                    n.Place,
                                    Written(n.Date),
                                    n.Name.Contains(" or ", StringComparison.Ordinal)
                                        ? "several taxa in question"
                                        : "something speaks against it",
                                ]
                        )
                )
                .Concat(
                    context
                        .Names.Where(n => !n.IsOpen && !IsKeptBack(n.Name) && WhyUnsure(n).Length > 0)
                        .Select(n => (IReadOnlyList<string>)[n.Name, n.Place, Written(n.Date), WhyUnsure(n)])
                )
                .Concat(
                    whole
                        .Visits.SelectMany(v => v.Records.SelectMany(r => r.Lines).Select(l => (v, l)))
                        .Where(x => x.l.Name.Length > 0 && context.Taxa.Find(x.l.Name) is null && !IsKeptBack(x.l.Name))
                        .DistinctBy(x => x.l.Name)
                        .Select(x => (IReadOnlyList<string>)[x.l.Name, x.v.Place.Name, Written(x.v.Date), "the flora hasn’t this name"])
                )
                .ToList();
            return new(
                "What is unsure, and why",
                Kept([
                    Say("unsure", rows.Count == 0 ? "Nothing is open." : $"{Counted(rows.Count, "record is", "records are")} still open."),
                ]),
                rows.Count == 0 ? [] : [new(OpenTitle, ["Record", "Place", "Day", "Why"], rows, [0])]
            );
        }

        // "spring at Harrow Alder Wood and Kell Strand (until 31 May)", "plots L01, L05 and L09".
        private string TasksInWords(IReadOnlyList<SurveyTask> alike)
        {
            var first = alike[0];
            var named = alike.Take(MostNamed).Select(t => t.PlotId is null ? PlaceOf(t) : t.What["Plot ".Length..]).ToList();
            if (alike.Count > MostNamed)
                named.Add(string.Create(CultureInfo.InvariantCulture, $"{alike.Count - MostNamed} more"));
            var what =
                first.PlotId is not null ? (alike.Count == 1 ? "plot" : "plots")
                : first.Round.Length > 0 ? $"{first.Round} at"
                : "a visit to";
            return $"{what} {List(named)}{(first.State == SurveyTaskState.Late ? " (late)" : "")}";
        }

        private string PlaceOf(SurveyTask task) => _survey.Places.FirstOrDefault(p => p.Id == task.PlaceId)?.Name ?? task.What;

        // What a survey asks of names more than a person did who named them.
        private string WhyUnsure(ReportName it)
        {
            var terms = _survey.Terms;
            return (it.Grade ?? Grade.Tentative) < terms.LeastGrade
                    ? $"its evidence is {(it.Grade is { } grade ? PageWords.Grades[grade].ToLowerInvariant() : "not weighed")}, and the "
                        + $"survey asks for {PageWords.Grades[terms.LeastGrade].ToLowerInvariant()}"
                : terms.Rules.Length > 0 && it.Rules.Length > 0 && it.Rules != terms.Rules
                    ? $"it was graded by “{RulesCalled(it.Rules)}”, and the survey grades by “{RulesCalled(terms.Rules)}”"
                : "";
        }

        private static string RulesCalled(string id) => GradeRules.Shipped.FirstOrDefault(r => r.Id == id)?.Name ?? id;

        private ReportSection Next()
        {
            var standing = new SurveyStandingRequest(whole, context.Today.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)).Tell();
            var open = standing.Tasks.Where(t => t.State is SurveyTaskState.Due or SurveyTaskState.Late).ToList();
            var missing = standing
                .Sought.Where(s => s.Found.Count == 0 && s.Sought == 0 && !IsKeptBack(s.Taxon))
                .Select(s => s.Taxon)
                .ToList();
            var sentences = new List<ReportSentence>
            {
                Say(
                    "next",
                    open.Count == 0
                        ? "What the survey wants of this year is done."
                        : $"Still to be done this year: "
                            + string.Join(
                                "; ",
                                open.GroupBy(t => (t.Round, IsPlot: t.PlotId is not null, t.State)).Select(g => TasksInWords([.. g]))
                            )
                            + "."
                ),
            };
            if (standing.TwiceDone < standing.TwiceWanted)
                sentences.Add(
                    Say(
                        "twice",
                        $"{Counted(standing.TwiceWanted - standing.TwiceDone, "plot is", "plots are")} still to be recorded a "
                            + $"second time, independently."
                    )
                );
            if (missing.Count > 0)
                sentences.Add(Say("missing", $"Neither found nor sought yet: {List(missing)}."));
            sentences.Add(Say("do", ""));
            sentences.Add(
                Say(
                    "licence",
                    _survey.Terms.Licence.Length > 0
                        ? $"The data may be used so: {_survey.Terms.Licence.TrimEnd('.')}."
                        : "No licence is given: ask before the data are used or passed on."
                )
            );
            sentences.Add(
                Say(
                    "care",
                    "Local law and the owner’s leave come before any record: nothing protected is picked, and nothing here is "
                        + "advice to eat or to heal with."
                )
            );
            var rows = context.Threats.Select(t => (IReadOnlyList<string>)[t.Place, t.Population, t.Text, t.ActBy]).ToList();
            return new(
                "What to do next",
                Kept(sentences),
                rows.Count == 0 ? [] : [new("Threats", ["Place", "Population", "What", "Act by"], rows, [])]
            );
        }

        private IEnumerable<ReportSpot> Spots()
        {
            foreach (var place in _survey.Places)
                yield return new(place.Name, place.Latitude, place.Longitude, false);
            foreach (var plot in whole.Plots)
            {
                // A plot with a taxon that is kept back would lead to it.
                var isKeptBack = _records.Any(r => r.PlotId == plot.Id && r.Finds.Any(f => IsKeptBack(f.Taxon)));
                if (plot.Site is { } site && !isKeptBack)
                    yield return new(plot.Label, site.Latitude, site.Longitude, true);
            }
        }

        private string LabelOf(PlotRecord record) => _plots.TryGetValue(record.PlotId, out var plot) ? plot.Label : "a plot";

        private string Places() => List([.. _survey.Places.Select(p => p.Name)]);
    }
}
