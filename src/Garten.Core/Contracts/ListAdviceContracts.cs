using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>What is known of a taxon at a place from other visits.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Years">The years in which it was found there.</param>
public sealed record FoundBefore(string Name, IReadOnlyList<int> Years);

/// <summary>A list held against the flora and against what was found at the place before.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Date">The day of the visit, <c>YYYY-MM-DD</c>.</param>
/// <param name="Lines">The list as it stands.</param>
/// <param name="At">What the place is like; null where nothing is known.</param>
/// <param name="Before">What was found there before; null where nothing is known.</param>
/// <param name="Most">How many expected taxa are told at most.</param>
public sealed record ListAdviceRequest(
    string FloraId,
    string Date,
    IReadOnlyList<ListLine> Lines,
    SiftPlace? At = null,
    IReadOnlyList<FoundBefore>? Before = null,
    int Most = 30
) : IFloraRequest
{
    private const int LargestMost = 500;
    private const int MostLines = 5_000;

    /// <summary>Tells what is doubtful, new, expected and still missing.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public ListAdvice Tell(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var day = RequestDay.Of(Date, "date");
        if (Most is < 1 or > LargestMost)
            throw new RequestException("most", $"Between 1 and {LargestMost} are told.");
        if (Lines is null || Lines.Count > MostLines)
            throw new RequestException("lines", $"A list has up to {MostLines} lines.");
        var index = new TaxonIndex(flora.Pack.Taxa);
        var held = ListLine.Holding(Lines);
        var before = (Before ?? []).DistinctBy(b => b.Name).ToDictionary(b => b.Name, b => b.Years, StringComparer.Ordinal);
        var listed = held.Select(l => index.Find(l.Name)?.Name ?? l.Name).Where(n => n.Length > 0).ToHashSet(StringComparer.Ordinal);
        var doubts = new LineDoubts(flora.Pack.Taxa, At, day, before.Keys.ToHashSet(StringComparer.Ordinal));
        return new ListAdvice(
            [
                .. held.Select(l =>
                {
                    var taxon = l.Name.Length > 0 ? index.Find(l.Name) : null;
                    return new LineAdvice(
                        l.Id,
                        taxon?.Id ?? "",
                        doubts.Of(l),
                        l.Name.Length > 0 && before.Count > 0 && !before.ContainsKey(taxon?.Name ?? l.Name),
                        CautionLine.Of(taxon),
                        Kin(flora, taxon),
                        taxon?.Cautions.Contains(Caution.Invasive) == true && !before.ContainsKey(taxon.Name)
                    );
                }),
            ],
            [
                .. before
                    .Where(b => !listed.Contains(b.Key))
                    .OrderByDescending(b => Absence.CanBeToldOn(index.Find(b.Key), day) != false)
                    .ThenByDescending(b => b.Value.Count)
                    .ThenBy(b => b.Key, StringComparer.Ordinal)
                    .Select(b => new Awaited(
                        b.Key,
                        index.Find(b.Key)?.CommonName ?? "",
                        Says(index.Find(b.Key), day),
                        b.Value,
                        Absence.CanBeToldOn(index.Find(b.Key), day)
                    )),
            ],
            [
                .. Expected(flora, day)
                    .Where(t => !listed.Contains(t.Name) && !before.ContainsKey(t.Name))
                    .Take(Most)
                    .Select(t => new Awaited(t.Name, t.CommonName, Says(t, day), [], Absence.CanBeToldOn(t, day))),
            ]
        );
    }

    // What grows in the square, at this height, in these habitats, and shows itself now: what flowers first.
    private IEnumerable<Taxon> Expected(ReadyFlora flora, DateOnly day)
    {
        if (At?.Cell is not { Length: > 0 } cell)
            return [];
        return flora
            .Pack.Taxa.Where(t =>
                t.Facts is { } facts
                && facts.Cells.Contains(cell, StringComparer.OrdinalIgnoreCase)
                && (At.Habitats is not { Count: > 0 } here || here.Any(h => facts.Habitats.Contains(h, StringComparer.OrdinalIgnoreCase)))
                && Absence.CanBeToldOn(t, day) != false
            )
            .OrderByDescending(t => IsDoing(t, Phenophase.Flower, day))
            .ThenByDescending(t => IsDoing(t, Phenophase.RipeFruit, day))
            .ThenBy(t => t.Name, StringComparer.Ordinal);
    }

    private static bool IsDoing(Taxon taxon, Phenophase phase, DateOnly day) =>
        taxon.Facts?.Phenology.Any(s => s.Phase == phase && DayWindow.OfHalfMonths(s.From, s.To).Holds(DayOfYear.Of(day))) == true;

    // What of it can be seen on the day, in words: "in flower, in leaf"; empty where the flora says nothing.
    private static string Says(Taxon? taxon, DateOnly day) =>
        taxon is null
            ? ""
            : string.Join(", ", Enum.GetValues<Phenophase>().Where(p => IsDoing(taxon, p, day)).Select(SiteVisitWords.Of).Take(2));

    // What it is taken for: declared look-alikes, then the others of its genus.
    private static IReadOnlyList<NamedTaxon> Kin(ReadyFlora flora, Taxon? taxon)
    {
        const int mostKin = 5;
        if (taxon is null)
            return [];
        var genus = taxon.Name.Split(' ')[0];
        return
        [
            .. (taxon.Facts?.LookAlikes ?? [])
                .Select(flora.Find)
                .OfType<Taxon>()
                .Concat(
                    flora.Pack.Taxa.Where(t =>
                        t.Rank == "species" && t.Id != taxon.Id && t.Name.StartsWith(genus + " ", StringComparison.Ordinal)
                    )
                )
                .DistinctBy(t => t.Id)
                .Take(mostKin)
                .Select(t => new NamedTaxon(t.Id, t.Name)),
        ];
    }
}

/// <summary>A list held against what is known.</summary>
/// <param name="Lines">Of each line that holds: what is doubtful and what to mind.</param>
/// <param name="SeenBefore">What was found here before and isn't on the list yet: what shows itself now first, and what was found
/// in most years.</param>
/// <param name="Expected">What the flora expects here now and isn't on the list, nor was found before.</param>
public sealed record ListAdvice(IReadOnlyList<LineAdvice> Lines, IReadOnlyList<Awaited> SeenBefore, IReadOnlyList<Awaited> Expected);

/// <summary>What is to be said about a line.</summary>
/// <param name="LineId">The line.</param>
/// <param name="Taxon">Id of the taxon that the flora has by its name; empty where it has none.</param>
/// <param name="Doubts">Why it is asked about at the end; empty for nothing.</param>
/// <param name="IsNewHere">Whether other visits to the place didn't find it.</param>
/// <param name="Cautions">What to mind of the plant.</param>
/// <param name="Kin">What it is taken for.</param>
/// <param name="IsToBeTold">Whether it is invasive by the flora and was never recorded here before: somebody wants to know.</param>
public sealed record LineAdvice(
    Guid LineId,
    string Taxon,
    IReadOnlyList<LineDoubt> Doubts,
    bool IsNewHere,
    IReadOnlyList<CautionLine> Cautions,
    IReadOnlyList<NamedTaxon> Kin,
    bool IsToBeTold
);

/// <summary>A taxon that may be found yet.</summary>
/// <param name="Name">Its name.</param>
/// <param name="CommonName">A common name; may be empty.</param>
/// <param name="Shows">What of it can be seen now; empty where unknown.</param>
/// <param name="Years">The years in which it was found here.</param>
/// <param name="CanBeTold">Whether it shows itself on the day; null where unknown.</param>
public sealed record Awaited(string Name, string CommonName, string Shows, IReadOnlyList<int> Years, bool? CanBeTold);
