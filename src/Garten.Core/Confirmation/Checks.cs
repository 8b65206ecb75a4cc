using System.Globalization;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Confirmation;

/// <summary>The checks of a name, each with its reason and what would change it.</summary>
internal static class Checks
{
    public static IEnumerable<ConfirmCheck> Of(
        ConfirmSheet sheet,
        List<LookAlikeCheck> alikes,
        List<Diagnostic> diagnostics,
        SeenSoFar seen
    )
    {
        yield return Lead(sheet);
        yield return Diagnostics(sheet, diagnostics);
        yield return LookAlikes(sheet, alikes);
        yield return Conflicts(sheet);
        yield return Coverage(seen);
        yield return Material(sheet);
        yield return Season(sheet);
        yield return Presence(sheet);
        yield return Elevation(sheet);
        yield return Habitat(sheet);
        yield return Origin(sheet);
    }

    private static ConfirmCheck Pass(CheckKind kind, string reason) => new(kind, CheckVerdict.Pass, reason, "", "");

    private static ConfirmCheck Open(CheckKind kind, string reason, string change) => new(kind, CheckVerdict.Open, reason, change, "");

    private static ConfirmCheck Concern(CheckKind kind, string reason, string change) =>
        new(kind, CheckVerdict.Concern, reason, change, "");

    private static ConfirmCheck Fail(CheckKind kind, string reason, string change) => new(kind, CheckVerdict.Fail, reason, change, "");

    private static ConfirmCheck Lead(ConfirmSheet sheet)
    {
        if (sheet.Items.Count == 0)
            return Open(CheckKind.Lead, "Nothing that counts has been seen yet.", "A first observation of the plant.");
        var best = Enumerable.Range(0, sheet.Weighed.Probability.Length).MaxBy(t => sheet.Weighed.Probability[t]);
        var said = $"By what was seen it holds {Percent.OfProbability(sheet.Probability)}.";
        if (sheet.Weighed.None > sheet.Probability)
            return Fail(
                CheckKind.Lead,
                $"{said} A plant that isn’t on this list is likelier ({Percent.OfProbability(sheet.Weighed.None)}).",
                "Looks that fit it better than any other plant; or another name."
            );
        if (!sheet.OwnRows.Contains(best) && sheet.Weighed.Probability[best] > sheet.Probability)
            return Fail(
                CheckKind.Lead,
                $"{said} {sheet.NameOf(best)} is likelier ({Percent.OfProbability(sheet.Weighed.Probability[best])}).",
                $"Observations that speak against {sheet.NameOf(best)}; or that name."
            );
        return sheet.Probability / Math.Max(1e-12, 1 - sheet.Probability) >= ConfirmSheet.ExcludedFrom
            ? Pass(CheckKind.Lead, said)
            : Open(
                CheckKind.Lead,
                $"{said} Other names share the rest.",
                "Further observations; what is best to check next stands under By characters."
            );
    }

    private static ConfirmCheck Diagnostics(ConfirmSheet sheet, List<Diagnostic> diagnostics)
    {
        var missing = diagnostics.Where(d => !d.IsSeen).ToList();
        if (diagnostics.Count == 0)
            return Open(
                CheckKind.Diagnostics,
                "The flora names nothing that it would have to be told from.",
                "A flora with more taxa, or look-alikes declared in it."
            );
        if (missing.Count == 0)
            return Pass(CheckKind.Diagnostics, $"Seen: {string.Join("; ", diagnostics.Select(d => d.Text))}.");
        var one = missing[0];
        return Open(
            CheckKind.Diagnostics,
            $"{diagnostics.Count - missing.Count} of {diagnostics.Count} seen; missing: {string.Join("; ", missing.Select(d => d.Text))}.",
            one.When == "now"
                ? $"Look now at {Short(sheet, one.Character)}."
                : $"Come back in {one.When} for {Short(sheet, one.Character)}."
        );
    }

    private static string Short(ConfirmSheet sheet, string character) => sheet.Sifter.Table.Find(character)?.Name ?? character;

    private static ConfirmCheck LookAlikes(ConfirmSheet sheet, List<LookAlikeCheck> alikes)
    {
        if (alikes.Count == 0)
            return Pass(CheckKind.LookAlikes, "Nothing on the list comes near it.");
        var open = alikes.Where(a => !a.IsExcluded).ToList();
        string Names(IEnumerable<LookAlikeCheck> of) =>
            string.Join(", ", of.Select(a => sheet.NameOf(sheet.Sifter.Columns.IndexOf(a.Taxon))));
        if (open.Count == 0)
            return Pass(CheckKind.LookAlikes, $"Excluded: {Names(alikes)}.");
        var better = open.Where(a => a.Odds < 1 / ConfirmSheet.ExcludedFrom).ToList();
        if (better.Count > 0)
            return Fail(
                CheckKind.LookAlikes,
                $"What was seen speaks for {Names(better)}.",
                "Check the observations that speak against this name, or take the other one."
            );
        var hopeless = open.Where(a => a.Missing.Length == 0).ToList();
        if (hopeless.Count > 0)
            return Concern(
                CheckKind.LookAlikes,
                $"Nothing more that can be seen outdoors tells it from {Names(hopeless)}.",
                "A laboratory; or report the group of both."
            );
        return Open(CheckKind.LookAlikes, $"Still open: {Names(open)}.", $"{open[0].MissingText} ({open[0].When}).");
    }

    private static ConfirmCheck Conflicts(ConfirmSheet sheet)
    {
        if (sheet.Items.Count == 0)
            return Open(CheckKind.Conflicts, "Nothing that counts has been seen yet.", "A first observation of the plant.");
        var conflicts = sheet.Items.Where(i => i.FitOf(sheet.Row) == Fit.Conflicts).ToList();
        var doubtful = sheet.Items.Count(i => i.FitOf(sheet.Row) == Fit.Doubtful);
        // A look that carries a note has been thought about by who noted it.
        bool IsExplained(WeighedItem item) =>
            sheet.Holding.Where(o => o.Character == item.Item.Character.Id).All(o => o.Note.Trim().Length > 0);
        string Words(WeighedItem i) =>
            $"{i.Item.Character.Name}: seen {i.Item.InWords()}, described {sheet.Words(i.Item.Character, sheet.Row)}";
        var unexplained = conflicts.Where(c => !IsExplained(c)).ToList();
        if (unexplained.Count > 0)
            return Fail(
                CheckKind.Conflicts,
                $"{string.Join("; ", unexplained.Select(Words))}.",
                "Look again; measure several; or say in the evidence why it is so on this plant."
            );
        if (conflicts.Count > 0)
            return Pass(CheckKind.Conflicts, $"{conflicts.Count} in conflict, explained in the evidence.");
        return Pass(
            CheckKind.Conflicts,
            doubtful == 0
                ? "Nothing seen conflicts."
                : $"Nothing seen conflicts; {doubtful} {(doubtful == 1 ? "observation is" : "observations are")} doubtful."
        );
    }

    private static ConfirmCheck Coverage(SeenSoFar seen)
    {
        var organs = seen.Organs.Count == 0 ? "no organ" : string.Join(", ", seen.Organs.Select(o => o.ToString().ToLowerInvariant()));
        var times = seen.Times.Select(t => GradeRules.PhenophaseNames[t]).ToList();
        var said =
            $"{seen.Characters} {(seen.Characters == 1 ? "character" : "characters")} of {organs}; {(times.Count == 0 ? "none of them tied to a time of the year" : "from " + string.Join(", ", times))}.";
        if (seen.Characters == 0)
            return Open(CheckKind.Coverage, "Nothing of the plant has been seen yet.", "A first observation of it.");
        if (seen.Times.Count >= 2 || seen.TimesThereAre.Count < 2 && seen.Times.Count == seen.TimesThereAre.Count)
            return Pass(
                CheckKind.Coverage,
                seen.TimesThereAre.Count < 2 ? $"{said} It shows its characters at one time of the year only." : said
            );
        var others = seen.TimesThereAre.Except(seen.Times).Select(t => GradeRules.PhenophaseNames[t]).ToList();
        return Open(
            CheckKind.Coverage,
            said,
            others.Count > 0 ? $"See it again: {string.Join(", ", others)}." : "See it at another time of the year."
        );
    }

    private static ConfirmCheck Material(ConfirmSheet sheet)
    {
        var looks = sheet
            .Holding.Where(o => o.Outcome != Outcome.OutOfReach && sheet.Items.Any(i => i.Item.Character.Id == o.Character))
            .ToList();
        if (looks.Count == 0)
            return Open(CheckKind.Material, "There is no material yet.", "A first observation of the plant.");
        if (looks.TrueForAll(o => o.Context.Stage is Stage.Seedling or Stage.Sapling or Stage.Juvenile))
            return Concern(
                CheckKind.Material,
                "All observations are of a young plant.",
                "An observation of a grown plant beside it, or at this one later."
            );
        if (looks.TrueForAll(o => o.Context.Shaping != Shaping.Unsaid))
            return Concern(
                CheckKind.Material,
                "The plant is browsed, mown or cut throughout.",
                "An observation of a shoot that was left to grow."
            );
        var loose = looks
            .Where(o => o.Context.Attachment is Attachment.Beneath or Attachment.PerhapsNeighbours)
            .Select(o => sheet.Sifter.Table.Find(o.Character)?.Name ?? o.Character)
            .Distinct()
            .ToList();
        return loose.Count > 0
            ? Concern(
                CheckKind.Material,
                $"Not on the plant itself: {string.Join(", ", loose)}. It may be a neighbour’s.",
                "The same on the plant itself."
            )
            : Pass(CheckKind.Material, "Grown material on the plant itself.");
    }

    private static ConfirmCheck Season(ConfirmSheet sheet)
    {
        if (sheet.Facts.Phenology.Count == 0)
            return Open(CheckKind.Season, "The flora doesn’t say when it does what here.", "Its seasons in the flora.");
        var late = new List<string>();
        foreach (var look in sheet.Holding.Where(o => o.Outcome == Outcome.Seen))
        {
            if (
                sheet.Items.FirstOrDefault(i => i.Item.Character.Id == look.Character)?.Item.Character
                    is not { SeenIn.Count: > 0 } character
                || !DateOnly.TryParseExact(look.Date, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            )
                continue;
            if (!sheet.Sifter.CanBeSeen(sheet.Row, character, PhaseSpan.HalfMonth(day)))
                late.Add($"{character.Name} in {SeasonWords.Of(PhaseSpan.HalfMonth(day))}");
        }
        return late.Count == 0
            ? Pass(CheckKind.Season, "What was seen is what it shows at that time.")
            : Concern(
                CheckKind.Season,
                $"Out of its season: {string.Join(", ", late.Distinct())}.",
                "See it in its season; a late flower or a second flush explains it."
            );
    }

    private static ConfirmCheck Presence(ConfirmSheet sheet)
    {
        if (sheet.Query.Place?.Cell is not { Length: > 0 } cell)
            return Open(CheckKind.Presence, "The grid cell of the place isn’t known.", "The place’s cell, in the place itself.");
        if (sheet.Facts.Cells.Count == 0)
            return Open(CheckKind.Presence, "The flora doesn’t say where it is recorded.", "Its cells in the flora.");
        if (sheet.Facts.Cells.Contains(cell, StringComparer.OrdinalIgnoreCase))
            return Pass(CheckKind.Presence, $"Recorded in {cell}.");
        return Concern(
            CheckKind.Presence,
            $"Not recorded in {cell}{(sheet.Facts.Cells.Any(c => Plausibility.AreNeighbours(c, cell)) ? ", but beside it" : " or beside it")}. An empty square may be an unvisited one.",
            "A voucher or pictures that a second person can judge; say why it may be there."
        );
    }

    private static ConfirmCheck Elevation(ConfirmSheet sheet)
    {
        if (sheet.Query.Place?.Elevation is not { } metres)
            return Open(CheckKind.Elevation, "How high the place lies isn’t known.", "The place’s elevation.");
        var (low, high) = (sheet.Facts.ElevationFrom, sheet.Facts.ElevationTo);
        if (low is null && high is null)
            return Open(CheckKind.Elevation, "The flora doesn’t say how high it grows.", "Its elevation in the flora.");
        var range = string.Create(CultureInfo.InvariantCulture, $"{low ?? 0} to {high ?? low} m");
        return metres < low || metres > high
            ? Concern(
                CheckKind.Elevation,
                string.Create(CultureInfo.InvariantCulture, $"At {metres:0} m; it grows at {range}."),
                "The height measured at the plant itself."
            )
            : Pass(CheckKind.Elevation, string.Create(CultureInfo.InvariantCulture, $"At {metres:0} m, within {range}."));
    }

    private static ConfirmCheck Habitat(ConfirmSheet sheet)
    {
        if (sheet.Query.Place?.Habitats is not { Count: > 0 } here)
            return Open(CheckKind.Habitat, "The habitats of the place aren’t known.", "The place’s habitats.");
        if (sheet.Facts.Habitats.Count == 0)
            return Open(CheckKind.Habitat, "The flora doesn’t say in what habitats it grows.", "Its habitats in the flora.");
        return here.Any(h => sheet.Facts.Habitats.Contains(h, StringComparer.OrdinalIgnoreCase))
            ? Pass(CheckKind.Habitat, $"Grows in {string.Join(", ", sheet.Facts.Habitats)}.")
            : Concern(
                CheckKind.Habitat,
                $"Known from {string.Join(", ", sheet.Facts.Habitats)}; here is {string.Join(", ", here)}.",
                "Say what grows round the plant itself."
            );
    }

    // A planting belongs to the plant at its place, not to the name.
    private static ConfirmCheck Origin(ConfirmSheet sheet)
    {
        if (sheet.Query.IsPlanted == true)
            return Pass(CheckKind.Origin, "Planted here: it is reported as planted.");
        if (sheet.Query.IsPlanted == false)
            return Pass(CheckKind.Origin, "Not planted, as far as can be seen.");
        if (sheet.Taxon.Rank is "cultivar" or "form" || sheet.Facts.Establishment is "planted" or "casual")
            return Concern(
                CheckKind.Origin,
                $"It is {(sheet.Facts.Establishment.Length > 0 ? sheet.Facts.Establishment : "a cultivated form")} here: this one may have been planted.",
                "Say whether it was planted."
            );
        return sheet.Facts.Origin switch
        {
            Floras.Origin.Native => Pass(CheckKind.Origin, "Native here."),
            Floras.Origin.Introduced => Pass(
                CheckKind.Origin,
                $"Introduced, {(sheet.Facts.Establishment.Length > 0 ? sheet.Facts.Establishment : "established")}."
            ),
            _ => Open(CheckKind.Origin, "Nobody knows how it came here.", "Say whether this one was planted."),
        };
    }
}
