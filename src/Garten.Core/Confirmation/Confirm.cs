using System.Globalization;
using Garten.Core.Characters;
using Garten.Core.Identification;
using Garten.Core.Seasons;

namespace Garten.Core.Confirmation;

/// <summary>Says how well a name stands, what is missing, and when that can be had.</summary>
public static class Confirm
{
    // Of a taxon still this likely the cautions are shown as those of the name itself.
    private const double CautionFrom = 0.02;

    // The fewest characters that set a name apart are found among at most some hundreds: below a tenth of a second.
    private const int Budget = 4000;

    /// <summary>Confirms a name.</summary>
    /// <exception cref="ArgumentException">The taxon isn't described, or the rules can't be used.</exception>
    public static ConfirmResult Of(Sifter sifter, ConfirmQuery query)
    {
        ArgumentNullException.ThrowIfNull(sifter);
        ArgumentNullException.ThrowIfNull(query);
        if (sifter.Columns.IndexOf(query.Taxon) is var row && (row < 0 || sifter.TaxonAt(row) is null))
            throw new ArgumentException($"The flora doesn't describe {query.Taxon}.", nameof(query));
        if (query.Rules.Problem() is { } wrong)
            throw new ArgumentException(wrong.Message, nameof(query));
        var sheet = new ConfirmSheet(sifter, query);
        var alikes = sheet.LookAlikeRows.Select(t => LookAlike(sheet, t)).ToList();
        var diagnostics = Diagnostics(sheet, alikes);
        var hybrid = Hybrids.Suggest(sheet);
        var report = Reporting.Of(sheet, hybrid);
        var seen = new SeenSoFar(sheet);
        var checks = Checks
            .Of(sheet, alikes, diagnostics, seen)
            .Select(c =>
                query.Explanations.FirstOrDefault(e => e.Kind == c.Kind && !string.IsNullOrWhiteSpace(e.Text)) is { } said
                    ? c with
                    {
                        Explained = said.Text,
                    }
                    : c
            )
            .ToList();
        var standing = new Standing(sheet, alikes, diagnostics, checks, seen, hybrid is not null);
        var (grade, rule, next, missing) = Grading.Of(query.Rules, standing, query.IsSeconded);
        var needs = Needs(sheet, diagnostics, alikes, standing, query.Rules);
        return new ConfirmResult(
            query.Taxon,
            grade,
            rule,
            next,
            missing,
            sheet.Probability,
            Cautions(sheet),
            checks,
            alikes,
            diagnostics,
            report,
            hybrid,
            Shots(sheet, diagnostics, alikes),
            needs
        );
    }

    private static LookAlikeCheck LookAlike(ConfirmSheet sheet, int other)
    {
        var looks = sheet.Against(other);
        var odds = Math.Exp(looks.Sum(l => l.LogOdds));
        var alone = looks.Where(l => sheet.ExcludesAlone(l, other)).ToList();
        const int mostNamed = 3;
        var isExcluded = odds >= ConfirmSheet.ExcludedFrom || alone.Count > 0 && odds >= 1;
        string Difference(Character c) => $"{c.Name}: {sheet.Words(c, sheet.Row)}, there {sheet.Words(c, other)}";
        if (isExcluded)
        {
            // What speaks twice for the name or more is worth naming; the strongest in any case.
            var by = looks
                .Where((l, at) => at == 0 || l.LogOdds >= Math.Log(2))
                .Take(mostNamed)
                .Select(l => Difference(l.Item.Item.Character))
                .ToList();
            return new LookAlikeCheck(sheet.Sifter.Columns.Taxa[other], odds, true, by, "", "", "");
        }
        var telling = sheet
            .Observable.Where(c => !sheet.IsOnSheet(c))
            .Select(c => (Character: c, Apart: sheet.Apart(c, other)))
            .Where(c => c.Apart >= Contrast.Mostly)
            .OrderBy(c => Contrast.Rank(c.Character, c.Apart, sheet.When(c.Character) == "now"))
            .ThenBy(c => c.Character.Id, StringComparer.Ordinal)
            .Select(c => c.Character)
            .FirstOrDefault();
        return telling is null
            ? new LookAlikeCheck(sheet.Sifter.Columns.Taxa[other], odds, false, [], "", "", "")
            : new LookAlikeCheck(sheet.Sifter.Columns.Taxa[other], odds, false, [], telling.Id, Difference(telling), sheet.When(telling));
    }

    // For each look-alike what excludes it; for those that are open the fewest characters that would.
    private static List<Diagnostic> Diagnostics(ConfirmSheet sheet, List<LookAlikeCheck> alikes)
    {
        var result = new List<Character>();
        var open = new List<int>();
        for (var a = 0; a < alikes.Count; a++)
        {
            if (!alikes[a].IsExcluded)
                open.Add(sheet.LookAlikeRows[a]);
            else if (sheet.Against(sheet.LookAlikeRows[a]) is [var best, ..] && !result.Contains(best.Item.Item.Character))
                result.Add(best.Item.Item.Character);
        }
        var seen = result.ConvertAll(c => new Diagnostic(c.Id, $"{c.Name}: {sheet.Words(c, sheet.Row)}", true, ""));
        return
        [
            .. seen,
            .. Fewest(sheet, open).Select(c => new Diagnostic(c.Id, $"{c.Name}: {sheet.Words(c, sheet.Row)}", false, sheet.When(c))),
        ];
    }

    private static IEnumerable<Character> Fewest(ConfirmSheet sheet, List<int> open)
    {
        var candidates = sheet
            .Observable.Where(c => !sheet.IsOnSheet(c))
            .Select(c => (Character: c, Apart: open.ConvertAll(t => sheet.Apart(c, t))))
            .Where(c => c.Apart.Exists(s => s >= Contrast.Mostly))
            .ToList();
        // Cleanly where anything does, else mostly.
        var enough = open.Select((_, at) => candidates.Exists(c => c.Apart[at] >= Separation.Clean) ? Separation.Clean : Contrast.Mostly)
            .ToList();
        var sets = candidates.ConvertAll(c =>
            (IReadOnlyCollection<int>)[.. Enumerable.Range(0, open.Count).Where(at => c.Apart[at] >= enough[at])]
        );
        return SetCover
            .Find(open.Count, sets, candidates.ConvertAll(c => Contrast.Effort(c.Character)), Budget)
            .Chosen.Select(c => candidates[c].Character);
    }

    private static List<CautionLine> Cautions(ConfirmSheet sheet) =>
        [
            .. Enumerable
                .Range(0, sheet.Weighed.Probability.Length)
                .Where(t => t == sheet.Row || sheet.Weighed.Probability[t] >= CautionFrom && !sheet.OwnRows.Contains(t))
                .OrderByDescending(t => t == sheet.Row)
                .ThenByDescending(t => sheet.Weighed.Probability[t])
                .Select(sheet.Sifter.TaxonAt)
                .Where(t => t is { Cautions.Count: > 0 })
                .Select(t => new CautionLine(t!.Id, t.Cautions, t.CautionNote)),
        ];

    // What is told by smell, touch, a cut or a lens stays untold in a picture.
    private static List<Shot> Shots(ConfirmSheet sheet, List<Diagnostic> diagnostics, List<LookAlikeCheck> alikes)
    {
        var wanted = diagnostics
            .Where(d => !d.IsSeen)
            .Select(d => d.Character)
            .Concat(alikes.Where(a => a.Missing.Length > 0).Select(a => a.Missing))
            .Distinct(StringComparer.Ordinal)
            .Select(id => sheet.Sifter.Columns.Find(id)!.Character);
        return
        [
            .. wanted
                .Select(c =>
                {
                    var byCamera =
                        c.Tool is Tool.Eye or Tool.Binoculars or Tool.Ruler or Tool.Lens
                        && c.Handling is Handling.Look or Handling.TakeAPiece;
                    var text =
                        !byCamera
                            ? $"{c.Name}: a camera can’t settle it; look {(c.Tool is Tool.Eye ? "and feel" : $"with the {c.Tool.ToString().ToLowerInvariant()}")} and record it."
                        : c.Kind is CharacterKind.Length or CharacterKind.Ratio
                            ? $"{c.Name}: {(c.MeasuredFrom.Length > 0 ? c.MeasuredFrom + ", " : "")}flat, with a scale beside it."
                        : c.Kind == CharacterKind.Count ? $"{c.Name}: so that all can be counted."
                        : c.Tool == Tool.Lens ? $"{c.Name}: from as near as the lens allows, in focus, with a scale."
                        : c.Tool == Tool.Binoculars ? $"{c.Name}: drawn near, against an even ground."
                        : $"{c.Name}: filling the picture, against an even ground.";
                    return new Shot(c.Id, text, byCamera, sheet.When(c) == "now");
                })
                .OrderByDescending(s => s.CanBeSeen)
                .ThenByDescending(s => s.ByCamera),
        ];
    }

    private static List<OpenNeed> Needs(
        ConfirmSheet sheet,
        List<Diagnostic> diagnostics,
        List<LookAlikeCheck> alikes,
        Standing standing,
        GradeRules rules
    )
    {
        var needs = diagnostics
            .Where(d => !d.IsSeen)
            .Select(d => new OpenNeed(
                $"character:{d.Character}",
                d.Character,
                d.Text,
                sheet.Windows(sheet.Sifter.Columns.Find(d.Character)!.Character)
            ))
            .ToList();
        foreach (var alike in alikes.Where(a => !a.IsExcluded && a.Missing.Length == 0))
            needs.Add(
                new OpenNeed(
                    $"laboratory:{alike.Taxon}",
                    "",
                    $"Nothing that can be seen outdoors tells it from {sheet.NameOf(sheet.Sifter.Columns.IndexOf(alike.Taxon))}.",
                    []
                )
            );
        var left = sheet.Observable.Where(c => !sheet.IsOnSheet(c)).ToList();
        OpenNeed Any(string id, string text, IEnumerable<Character> characters) =>
            new(
                id,
                "",
                text,
                ConfirmSheet.WindowsOf([
                    .. characters
                        .Select(sheet.Seasons)
                        .Aggregate(new bool[SeasonWords.HalfMonths], (all, one) => [.. all.Zip(one, (a, b) => a || b)]),
                ])
            );
        var organs = rules.Rules.Max(r => r.Organs);
        if (standing.Seen.Organs.Count < organs)
            needs.Add(
                Any(
                    "organs",
                    $"Another organ: so far {standing.Seen.Organs.Count} of {organs}.",
                    left.Where(c => !standing.Seen.Organs.Contains(c.Organ))
                )
            );
        if (rules.Rules.Max(r => r.Characters) is var characters && standing.Seen.Characters < characters)
            needs.Add(Any("characters", $"More characters: so far {standing.Seen.Characters} of {characters}.", left));
        var asked = rules.Rules.Max(r => r.Phenophases);
        if (standing.LacksPhenophases(asked, rules.Rules.Any(r => r.UnlessSureInOne)))
            needs.AddRange(Times(sheet, left, standing.Seen, asked));
        // All that tells it from its look-alikes may be seen, and the name still not lead by as much as is asked.
        if (
            diagnostics.TrueForAll(d => d.IsSeen)
            && (standing.OverAll < rules.Rules.Max(r => r.OverAll) || standing.OverNext < rules.Rules.Max(r => r.OverNext))
        )
            needs.Add(Any("lead", "Any further character: the name doesn’t lead by enough yet.", left));
        return needs;
    }

    // Times of the plant's year that are still wanted: on days that show enough of them at once; where there are none, one by one.
    private static IEnumerable<OpenNeed> Times(ConfirmSheet sheet, List<Character> left, SeenSoFar seen, int asked)
    {
        var marks = new Dictionary<int, bool[]>();
        foreach (var c in left.Where(c => c.SeenIn.Count > 0))
        {
            for (var h = 1; h <= SeasonWords.HalfMonths; h++)
            {
                if (sheet.TimeAt(c, h) is not { } time || seen.Times.Contains(time))
                    continue;
                if (!marks.TryGetValue(time, out var marked))
                    marks[time] = marked = new bool[SeasonWords.HalfMonths];
                marked[h - 1] = true;
            }
        }
        var wanted = Math.Min(asked - seen.Times.Count, marks.Count);
        var together = Enumerable.Range(0, SeasonWords.HalfMonths).Select(h => marks.Values.Count(m => m[h]) >= wanted).ToArray();
        if (wanted > 0 && together.Contains(true))
        {
            yield return new OpenNeed(
                "phenophase",
                "",
                $"The plant at another time of its year: {string.Join(" or ", marks.Keys.Order().Select(t => GradeRules.PhenophaseNames[t]))}.",
                ConfirmSheet.WindowsOf(together)
            );
            yield break;
        }
        foreach (var (time, marked) in marks.OrderBy(m => m.Key).Take(wanted))
            yield return new OpenNeed(
                $"phenophase:{time}",
                "",
                $"The plant again: {GradeRules.PhenophaseNames[time]}.",
                ConfirmSheet.WindowsOf(marked)
            );
    }
}

/// <summary>What was looked at so far.</summary>
internal sealed class SeenSoFar
{
    public SeenSoFar(ConfirmSheet sheet)
    {
        var counting = sheet
            .Items.Where(i => !i.Item.Follows && i.FitOf(sheet.Row) is not null && i.Item.Character.Organ != Organ.Site)
            .Select(i => i.Item.Character)
            .DistinctBy(c => c.Id)
            .ToList();
        Characters = counting.Count;
        Organs = [.. counting.Select(c => c.Organ).Distinct()];
        Times = sheet.TimesSeen();
        TimesThereAre = sheet.TimesThereAre();
    }

    public int Characters { get; }
    public IReadOnlyList<Organ> Organs { get; }
    public IReadOnlyList<int> Times { get; }
    public IReadOnlyList<int> TimesThereAre { get; }
}

/// <summary>All that grades are given by.</summary>
internal sealed class Standing(
    ConfirmSheet sheet,
    IReadOnlyList<LookAlikeCheck> alikes,
    IReadOnlyList<Diagnostic> diagnostics,
    IReadOnlyList<ConfirmCheck> checks,
    SeenSoFar seen,
    bool isBetterHybrid
)
{
    public SeenSoFar Seen => seen;
    public IReadOnlyList<ConfirmCheck> Checks => checks;
    public double OverNext { get; } = isBetterHybrid ? 0 : Over(sheet.Probability, sheet.NextProbability);
    public double OverAll { get; } = isBetterHybrid ? 0 : Over(sheet.Probability, 1 - sheet.Probability);
    public int OpenLookAlikes { get; } = alikes.Count(a => !a.IsExcluded);
    public int DiagnosticsSeen { get; } = diagnostics.Count(d => d.IsSeen);
    public int Diagnostics => diagnostics.Count;

    // Above this nobody can tell what odds mean any more, and a double has no further digits.
    private const double MostOdds = 1e12;

    private static double Over(double p, double others) => others <= p / MostOdds ? MostOdds : p / others;

    public bool LacksPhenophases(int asked, bool unlessSureInOne) =>
        seen.Times.Count < (unlessSureInOne ? Math.Min(asked, Math.Max(1, seen.TimesThereAre.Count)) : asked);
}

/// <summary>Goes up the table of grades as far as everything is met.</summary>
internal static class Grading
{
    public static (Grade Grade, string Rule, Grade? Next, IReadOnlyList<string> Missing) Of(
        GradeRules rules,
        Standing standing,
        bool isSeconded
    )
    {
        var reached = Grade.Tentative;
        var missing = new List<string>();
        foreach (var rule in rules.Rules)
        {
            missing = Missing(rule, standing);
            if (missing.Count > 0)
                break;
            reached = rule.Grade;
        }
        if (isSeconded && reached is Grade.Corroborated or Grade.Confirmed)
            return (Grade.Verified, $"{rules.Name}: {Words(reached)}, and a second person agrees.", null, []);
        var words =
            reached == Grade.Tentative
                ? $"{rules.Name}: a name, and not yet reasons enough."
                : $"{rules.Name}: {string.Join("; ", rules.Rules.Where(r => r.Grade <= reached).SelectMany(Asks))}.";
        if (missing.Count > 0)
            return (reached, words, reached + 1, missing);
        return (reached, words, Grade.Verified, ["A second person who looks at the evidence and agrees."]);
    }

    private static string Words(Grade grade) => grade.ToString().ToLowerInvariant();

    private static string Times(double odds) => odds.ToString("0.#", CultureInfo.InvariantCulture);

    private static string Likely(double odds)
    {
        const double alike = 1.05;
        return odds > alike ? $"{Times(odds)} times as likely as"
            : odds >= 1 / alike ? "as likely as"
            : "less likely than";
    }

    private static IEnumerable<string> Asks(GradeRule rule)
    {
        if (rule.Characters > 0)
            yield return $"{rule.Characters} {(rule.Characters == 1 ? "character" : "characters")}{(rule.Organs > 1 ? $" of {rule.Organs} organs" : "")}";
        else if (rule.Organs > 0)
            yield return $"{rule.Organs} organs";
        if (rule.OverNext > 1)
            yield return $"{Times(rule.OverNext)} times as likely as the next";
        if (rule.OverAll > 0)
            yield return $"{Times(rule.OverAll)} times as likely as all others";
        if (rule.Diagnostics > 0)
            yield return rule.Diagnostics >= 1
                ? "all diagnostic characters seen"
                : $"{Times(rule.Diagnostics * 100)} % of the diagnostic characters seen";
        if (rule.LookAlikesExcluded)
            yield return "every look-alike excluded";
        if (rule.Phenophases > 1)
            yield return $"{rule.Phenophases} times of the year";
        if (rule.NoConflict)
            yield return "no conflict";
        if (rule.NoConcern)
            yield return "no concern left";
    }

    private static List<string> Missing(GradeRule rule, Standing standing)
    {
        var missing = new List<string>();
        if (standing.Seen.Characters < rule.Characters)
            missing.Add(
                $"{rule.Characters - standing.Seen.Characters} more {(rule.Characters - standing.Seen.Characters == 1 ? "character" : "characters")}."
            );
        if (standing.Seen.Organs.Count < rule.Organs)
            missing.Add($"Another organ: {standing.Seen.Organs.Count} of {rule.Organs} so far.");
        if (rule.OverNext > 1 && standing.OverNext < rule.OverNext)
            missing.Add($"A clearer lead: it is {Likely(standing.OverNext)} the next, {Times(rule.OverNext)} times is asked for.");
        if (rule.OverAll > 0 && standing.OverAll < rule.OverAll)
            missing.Add($"A clearer lead: it is {Likely(standing.OverAll)} all others together, {Times(rule.OverAll)} times is asked for.");
        if (standing.DiagnosticsSeen < rule.Diagnostics * standing.Diagnostics - 1e-9)
            missing.Add($"Diagnostic characters: {standing.DiagnosticsSeen} of {standing.Diagnostics} seen.");
        if (rule.LookAlikesExcluded && standing.OpenLookAlikes > 0)
            missing.Add($"{standing.OpenLookAlikes} {(standing.OpenLookAlikes == 1 ? "look-alike is" : "look-alikes are")} still open.");
        if (standing.LacksPhenophases(rule.Phenophases, rule.UnlessSureInOne))
            missing.Add("The plant at another time of its year.");
        if (
            rule.NoConflict
            && standing.Checks.Any(c =>
                c is { Kind: CheckKind.Conflicts, Verdict: not CheckVerdict.Pass and not CheckVerdict.Open, Explained.Length: 0 }
            )
        )
            missing.Add("A conflict to be explained.");
        if (
            rule.NoFail && standing.Checks.Any(c => c is { Verdict: CheckVerdict.Fail, Explained.Length: 0, Kind: not CheckKind.Conflicts })
        )
            missing.Add("A check that failed.");
        if (rule.NoConcern)
        {
            foreach (var concern in standing.Checks.Where(c => c is { Verdict: CheckVerdict.Concern, Explained.Length: 0 }))
                missing.Add($"A concern to be explained: {concern.Reason}");
        }
        return missing;
    }
}
