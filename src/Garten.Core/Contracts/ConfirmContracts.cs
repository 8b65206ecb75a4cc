using Garten.Core.Confirmation;
using Garten.Core.Evidence;
using Garten.Core.Identification;

namespace Garten.Core.Contracts;

/// <summary>A name to be confirmed by what was seen.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Taxon">The name: id of a taxon, or its scientific name. No key is needed.</param>
/// <param name="Observations">What was seen, in any order.</param>
/// <param name="Sheet">The same as facts of a sheet, as the Bench holds them.</param>
/// <param name="Place">Id or name of a place of the records, or a grid cell; the server looks it up.</param>
/// <param name="At">What is known of the place, where it isn't one of the records.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>: that of looks which have none, and the one from which on is planned.</param>
/// <param name="Rules">Id of a table of grades that ships; left out: the confirmed list.</param>
/// <param name="OwnRules">A table of grades of one's own; goes before <paramref name="Rules"/>.</param>
/// <param name="Planted">Whether this plant was planted; left out: nobody said.</param>
/// <param name="Explanations">What the recorder says to concerns.</param>
/// <param name="Seconded">Whether a second person agrees.</param>
/// <param name="Prior">Whether place, date, habitat and elevation weigh in.</param>
public sealed record ConfirmRequest(
    string FloraId,
    string Taxon,
    IReadOnlyList<SiftObservation>? Observations = null,
    IReadOnlyList<Observation>? Sheet = null,
    string? Place = null,
    SiftPlace? At = null,
    string? Date = null,
    string? Rules = null,
    GradeRules? OwnRules = null,
    bool? Planted = null,
    IReadOnlyList<Explanation>? Explanations = null,
    bool Seconded = false,
    SiftPrior Prior = SiftPrior.Equal
) : IFloraRequest, IPlacedRequest
{
    string? IPlacedRequest.PlaceToFind => At is null ? Place : null;

    string IPlacedRequest.PlaceField => "place";

    IPlacedRequest IPlacedRequest.At(SiftPlace place) => this with { At = place };

    private const int MostExplanations = 50;
    private const int LongestExplanation = 2000;

    /// <summary>Confirms it.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public ConfirmResult Confirm(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var taxon = flora.Find(Taxon ?? "")?.Id
            ?? flora.Pack.Taxa.FirstOrDefault(t => string.Equals(t.Name, Taxon?.Trim(), StringComparison.OrdinalIgnoreCase))?.Id;
        if (taxon is null || flora.Sifter.Columns.IndexOf(taxon) < 0)
            throw new RequestException("taxon", $"The flora doesn’t describe “{Taxon}”.");
        var day = RequestDay.OrNone(Date, "date");
        var rules = OwnRules
            ?? GradeRules.Shipped.FirstOrDefault(r => string.IsNullOrEmpty(Rules) ? r == GradeRules.ConfirmedList : r.Id == Rules)
            ?? throw new RequestException(
                "rules",
                $"There is no table of grades “{Rules}”; these ship: {string.Join(", ", GradeRules.Shipped.Select(r => r.Id))}."
            );
        if (rules.Problem() is var (field, message))
            throw new RequestException($"ownRules.{field}", message);
        if (Explanations?.Count > MostExplanations || Explanations?.Any(e => e?.Text is null || e.Text.Length > LongestExplanation) == true)
            throw new RequestException("explanations", $"Up to {MostExplanations} explanations of up to {LongestExplanation} characters.");
        var looks = SiftRequest.Read(
            flora,
            Observations?.Select(o => o is null ? null! : o with { Date = o.Date ?? Date }).ToList(),
            Sheet
        );
        return Confirmation.Confirm.Of(
            flora.Sifter,
            new ConfirmQuery(taxon, looks, At, day, rules, Planted, Explanations ?? [], Seconded, Prior == SiftPrior.Plausible)
        );
    }
}
