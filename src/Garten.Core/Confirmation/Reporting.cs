using System.Globalization;
using Garten.Core.Quantities;

namespace Garten.Core.Confirmation;

/// <summary>Where to stop: the smallest group that holds nearly all of the probability.</summary>
internal static class Reporting
{
    /// <summary>What a group must hold, "not on this list" counted against it.</summary>
    private const double Holds = 0.95;

    public static ReportAs Of(ConfirmSheet sheet, HybridSuggestion? hybrid)
    {
        if (hybrid is not null)
            return new ReportAs(
                ReportKind.Hybrid,
                "",
                hybrid.Name,
                sheet.Probability,
                $"It stands between the two in what tells them apart; a cross explains it {Times(hybrid.OverParents)} times better than either. A second person should agree."
            );
        if (sheet.Items.Count == 0)
            return new ReportAs(ReportKind.Undetermined, "", "", 0, "Nothing that counts has been seen yet.");
        if (sheet.Probability >= Holds)
            return new ReportAs(
                sheet.Taxon.Rank == "hybrid" ? ReportKind.Hybrid : ReportKind.Species,
                sheet.Taxon.Id,
                sheet.Taxon.Name,
                sheet.Probability,
                $"It holds {Percent.OfProbability(sheet.Probability)} by itself."
            );
        var groups = Groups(sheet)
            .Select(g => (Group: g, Held: g.Rows.Sum(t => sheet.Weighed.Probability[t])))
            .Where(g => g.Held >= Holds)
            .OrderBy(g => g.Group.Rows.Count)
            .ThenBy(g => g.Group.Kind)
            .ToList();
        if (groups.Count > 0)
        {
            var (group, held) = groups[0];
            var likely = group
                .Rows.Where(t => sheet.Weighed.Probability[t] >= 0.01)
                .OrderByDescending(t => sheet.Weighed.Probability[t])
                .Select(sheet.NameOf)
                .ToList();
            return new ReportAs(
                group.Kind,
                group.Taxon,
                group.Name,
                held,
                $"{sheet.Taxon.Name} alone holds {Percent.OfProbability(sheet.Probability)}; {Listed(likely)} together {Percent.OfProbability(held)}."
            );
        }
        // Of the rest the largest part says why.
        var others = Enumerable.Range(0, sheet.Weighed.Probability.Length).Where(t => !sheet.OwnRows.Contains(t)).ToList();
        var other = others.Count == 0 ? -1 : others.MaxBy(t => sheet.Weighed.Probability[t]);
        var rest =
            other < 0 || sheet.Weighed.None >= sheet.Weighed.Probability[other]
                ? $"a plant that isn’t on this list {Percent.OfProbability(sheet.Weighed.None)}"
                : $"{sheet.NameOf(other)} {Percent.OfProbability(sheet.Weighed.Probability[other])}";
        return new ReportAs(
            ReportKind.Undetermined,
            "",
            "",
            0,
            $"{sheet.Taxon.Name} holds {Percent.OfProbability(sheet.Probability)}, {rest}; no group of kin holds 95 % yet."
        );
    }

    private sealed record Group(ReportKind Kind, string Taxon, string Name, IReadOnlyList<int> Rows);

    // Aggregates that the name belongs to, its genus, its family.
    private static IEnumerable<Group> Groups(ConfirmSheet sheet)
    {
        var rows = Enumerable.Range(0, sheet.Sifter.Columns.Taxa.Count).ToList();
        foreach (var taxon in sheet.Sifter.Taxa.Where(t => t.Facts?.Members.Contains(sheet.Query.Taxon, StringComparer.Ordinal) == true))
        {
            yield return new Group(
                ReportKind.Aggregate,
                taxon.Id,
                taxon.Name,
                [.. rows.Where(t => taxon.Facts!.Members.Contains(sheet.Sifter.Columns.Taxa[t], StringComparer.Ordinal))]
            );
        }
        var genus = sheet.Taxon.Name.Split(' ')[0];
        yield return new Group(
            ReportKind.Genus,
            sheet.Sifter.Taxa.FirstOrDefault(t => t.Rank == "genus" && t.Name == genus)?.Id ?? "",
            genus,
            [.. rows.Where(t => sheet.NameOf(t).Split(' ')[0] == genus)]
        );
        if (sheet.Taxon.Family is { Length: > 0 } family)
            yield return new Group(
                ReportKind.Family,
                sheet.Sifter.Taxa.FirstOrDefault(t => t.Name == family)?.Id ?? "",
                family,
                [.. rows.Where(t => sheet.Sifter.TaxonAt(t)?.Family == family)]
            );
    }

    private static string Listed(List<string> names) =>
        names.Count == 1 ? names[0] : $"{string.Join(", ", names.SkipLast(1))} and {names[^1]}";

    private static string Times(double odds) => odds >= 1000 ? "over a thousand" : odds.ToString("0", CultureInfo.InvariantCulture);
}
