using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;

namespace Garten.Core.Confirmation;

/// <summary>Whether a cross of the name with a relative would explain what was seen better than either.</summary>
internal static class Hybrids
{
    /// <summary>One plant in a hundred: crosses are rare beside their parents.</summary>
    private const double Prior = 0.01;

    private const int LeastInformative = 3;
    private const double OverEachParent = 3;

    // Most crosses stand between their parents in a character; some take after one of them, as backcrosses do.
    private const double Between = 0.8;

    public static HybridSuggestion? Suggest(ConfirmSheet sheet)
    {
        if (sheet.Taxon.Rank is not ("species" or "subspecies"))
            return null;
        var genus = sheet.Taxon.Name.Split(' ')[0];
        var mates = Enumerable
            .Range(0, sheet.Sifter.Columns.Taxa.Count)
            .Where(t =>
                !sheet.OwnRows.Contains(t)
                && sheet.Sifter.TaxonAt(t) is { Rank: "species" or "subspecies" } other
                && other.Name.Split(' ')[0] == genus
            );
        var best = mates.Select(m => With(sheet, m)).OfType<HybridSuggestion>().MaxBy(h => h.OverParents);
        // One that the flora has is a name like others.
        return best is null || IsInFlora(sheet, best) ? null : best;
    }

    private static bool IsInFlora(ConfirmSheet sheet, HybridSuggestion hybrid) =>
        Enumerable
            .Range(0, sheet.Sifter.Columns.Taxa.Count)
            .Any(t =>
                sheet.Sifter.TaxonAt(t)?.Facts?.Parents is { Count: 2 } parents
                && parents.Contains(hybrid.First, StringComparer.Ordinal)
                && parents.Contains(hybrid.Second, StringComparer.Ordinal)
            );

    private static HybridSuggestion? With(ConfirmSheet sheet, int mate)
    {
        var likelihood = new Likelihood([], sheet.Sifter.Options.Evidence);
        double own = 0,
            other = 0,
            cross = Math.Log(Prior);
        var informative = 0;
        var reasons = new List<string>();
        foreach (var item in sheet.Items)
        {
            var character = item.Item.Character;
            if (sheet.Cell(character, sheet.Row) is not { Applies: true } a || sheet.Cell(character, mate) is not { Applies: true } b)
                continue;
            var (ofOwn, ofMate) = (item.Ratio(sheet.Row), item.Ratio(mate));
            // f of the cross: half of each parent's states, or sizes half-way between theirs.
            var middle = Raw(likelihood, item, Cross(character, a, b));
            var f = Between * middle + (1 - Between) / 2 * (Raw(likelihood, item, a) + Raw(likelihood, item, b));
            var ofCross = item.Item.Weight * Math.Log(likelihood.Soften(item.Item, f, item.Marginal) / item.Marginal);
            own += ofOwn;
            other += ofMate;
            cross += ofCross;
            if (character.Organ == Organ.Site || item.Item.Follows || sheet.Apart(character, mate) < Contrast.Mostly)
                continue;
            informative++;
            var speaks = ofOwn - ofMate;
            const double leans = 1.1;
            reasons.Add(
                $"{character.Name}: {item.Item.InWords()}, {(ofCross > Math.Max(ofOwn, ofMate) ? "between the two" : speaks > leans ? $"as {sheet.NameOf(sheet.Row)}" : speaks < -leans ? $"as {sheet.NameOf(mate)}" : "as either")}"
            );
        }
        var over = Math.Exp(cross - Math.Max(own, other));
        if (informative < LeastInformative || over < OverEachParent)
            return null;
        string[] names = [.. new[] { sheet.NameOf(sheet.Row), sheet.NameOf(mate) }.Order(StringComparer.Ordinal)];
        return new HybridSuggestion(
            sheet.Query.Taxon,
            sheet.Sifter.Columns.Taxa[mate],
            $"{names[0]} × {names[1]}",
            Math.Min(over, 1e12),
            informative,
            reasons
        );
    }

    private static double Raw(Likelihood likelihood, WeighedItem item, CharacterDescription cell) => likelihood.Raw(item.Item, cell);

    private static CharacterDescription Cross(Character character, CharacterDescription a, CharacterDescription b)
    {
        if (a.Range is { } first && b.Range is { } second)
            return new CharacterDescription(character.Id, [], Middle(first, second));
        var states = character
            .States.Select(s => new StateShare(s.Id, (Share(a, s.Id) + Share(b, s.Id)) / 2))
            .Where(s => s.Share > 0)
            .ToList();
        return new CharacterDescription(character.Id, states);
    }

    private static double Share(CharacterDescription cell, string state) => cell.States.FirstOrDefault(s => s.State == state)?.Share ?? 0;

    // Half-way on the logarithm for lengths and ratios, half-way for counts and angles.
    private static QuantityRange Middle(QuantityRange a, QuantityRange b)
    {
        var isLog = a.Kind is QuantityKind.Length or QuantityKind.Ratio;
        double Between(double x, double y) =>
            isLog ? Math.Sqrt(Math.Max(0, x) * Math.Max(0, y))
            : a.Kind == QuantityKind.Count ? Math.Round((x + y) / 2)
            : (x + y) / 2;
        var (low, high) = (Between(a.Low, b.Low), Between(a.High, b.High));
        double? Outer(double? x, double? y, double ownX, double ownY) => x is null && y is null ? null : Between(x ?? ownX, y ?? ownY);
        return new QuantityRange(
            a.Kind,
            RangeForm.Between,
            low,
            high,
            Outer(a.LowExtreme, b.LowExtreme, a.Low, b.Low),
            Outer(a.HighExtreme, b.HighExtreme, a.High, b.High)
        );
    }
}
