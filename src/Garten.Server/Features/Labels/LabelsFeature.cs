using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Garten.Formats.Print;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Places;
using Garten.Server.Features.Plants;
using Garten.Server.Features.Records;
using Garten.Server.Features.SiteVisits;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Garten.Server.Features.Labels;

/// <summary>Paper: labels to stand by plants, labels for pressed specimens, forms for a day out.</summary>
internal sealed class LabelsFeature : IFeature
{
    private const string Problem = "application/problem+json";
    private const string Html = "text/html; charset=utf-8";
    private const int MostOnForm = 120;
    private const int LongestWord = 500;
    private const int Months = 12;

    // In the middle of a month a form says what can be seen in it.
    private const int MiddleOfMonth = 15;

    public void Add(IServiceCollection services)
    {
        // All that it needs is there already.
    }

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/plants/labels.html", LabelsAsync)
            .Produces<string>(200, Html)
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("printPlantLabels")
            .WithSummary(
                "Labels to stand by plants, of a place or of those named: sheets to be printed, each with a code that opens the plant."
            );

        api.MapGet("/plants/{id:guid}/voucher.html", VoucherAsync)
            .Produces<string>(200, Html)
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("printVoucherLabel")
            .WithSummary("A label for a pressed specimen of a plant, with a slip for each later name.");

        api.MapGet("/places/{id:guid}/form.html", FormAsync)
            .Produces<string>(200, Html)
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("printFieldForm")
            .WithSummary(
                "A form on paper for a place and a month: what was found there before, what the flora expects, lines to write on."
            );
    }

    private static async Task<IResult> LabelsAsync(
        Guid? place,
        [FromQuery(Name = "id")] Guid[]? ids,
        HttpContext context,
        PlantRepository plants,
        DeterminationRepository records,
        FloraRepository floras,
        CancellationToken stop
    )
    {
        if (ids is { Length: > PlantLabels.Most })
            return Problems.Result(
                422,
                "plants.too-many",
                "These are too many labels.",
                $"Ask for at most {PlantLabels.Most} at a time.",
                "id"
            );
        if (ids is not { Length: > 0 })
        {
            if (place is null)
                return Problems.Result(422, "labels.which", "Labels of which plants?", "Give a place, or the plants by id.", "place");
            var (page, _) = await plants.PageAsync(new PlantFilter(place, null, null), null, PlantLabels.Most, stop);
            ids = [.. page.Select(p => p.Id)];
        }
        var sensitive = await floras.SensitiveAsync(stop);
        return PrintedPages.Of(
            context,
            PlantLabels.Write([.. (await records.PlantsAsync(ids, stop)).Select(p => LabelOf(p, sensitive, context))])
        );
    }

    // A mark that tells what stands there helps those who dig.
    private static PlantLabel LabelOf(PlantDetail plant, SensitiveTaxa? sensitive, HttpContext context)
    {
        var names = plant.Determinations.Count > 0 ? plant.Determinations[0].Names : [];
        var isKeptBack = sensitive?.HoldsAny([.. plant.Determinations.SelectMany(d => d.Names)]) == true;
        return new PlantLabel(
            plant.Label.Length > 0 ? plant.Label : "untagged",
            isKeptBack || names.Count == 0 ? "" : Conclusion.InWords(names),
            plant.Place.Name,
            plant.TaggedOn,
            QrPicture.Of($"{context.Request.Scheme}://{context.Request.Host}/plants/{plant.Id:D}")
        );
    }

    private static async Task<IResult> VoucherAsync(
        Guid id,
        string? number,
        string? part,
        string? licence,
        string? herbarium,
        string? duplicates,
        HttpContext context,
        DeterminationRepository records,
        CancellationToken stop
    )
    {
        if (await records.PlantAsync(id, stop) is not { } plant)
            return Problems.Result(404, "plant.unknown", "There is no plant of this id.", "Choose one of the list.", "id");
        if (plant.Determinations.Count == 0)
            return Problems.Result(
                422,
                "voucher.name",
                "The plant has no name yet.",
                "Name it first: a specimen is labelled by its name.",
                "id"
            );
        if (string.IsNullOrWhiteSpace(number))
            return Problems.Result(422, "voucher.number", "A specimen has a number.", "Give the collector's number.", "number");
        if (new[] { number, part, licence, herbarium, duplicates }.Any(t => t?.Length > LongestWord))
            return Problems.Result(
                422,
                "voucher.too-long",
                "This is too long for a label.",
                $"Up to {LongestWord} characters fit.",
                "part"
            );
        return PrintedPages.Of(
            context,
            VoucherLabel.Write(
                LabelOf(plant, null, context),
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{plant.Place.Name}, {plant.Place.Locality}; {plant.Site?.Latitude ?? plant.Place.Latitude}, "
                        + $"{plant.Site?.Longitude ?? plant.Place.Longitude} (± "
                        + $"{plant.Site?.UncertaintyMetres ?? plant.Place.UncertaintyMetres} m)"
                ),
                string.Join(
                    "; ",
                    plant
                        .Taxa.SelectMany(CautionLine.Of)
                        .SelectMany(c => c.Cautions)
                        .Distinct()
                        .Select(c => c.ToString().ToLowerInvariant())
                ),
                [
                    .. plant
                        .Determinations.Reverse()
                        .Select(d => new NameSlip(Conclusion.InWords(d.Names), d.Recorder.Name, d.EventDate, d.StartKeyTitle)),
                ],
                new VoucherWords(
                    number.Trim(),
                    part?.Trim() ?? "",
                    licence?.Trim() ?? "",
                    herbarium?.Trim() ?? "",
                    duplicates?.Trim() ?? ""
                )
            )
        );
    }

    private static async Task<IResult> FormAsync(
        Guid id,
        int? month,
        HttpContext context,
        PlaceRepository places,
        SiteVisitRepository visits,
        FloraRepository floras,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var today = DateOnly.FromDateTime(clock.GetLocalNow().Date);
        if (month is < 1 or > Months)
            return Problems.Result(422, "form.month", "There is no such month.", "Give 1 to 12.", "month");
        if (await places.NamedAsync(id.ToString("D"), stop) is not { } place)
            return Problems.Result(404, "place.unknown", "There is no place of this id.", "Choose one of the list.", "id");
        var day = new DateOnly(today.Year, month ?? today.Month, MiddleOfMonth);
        var before = await visits.FoundAsync(id, null, stop);
        var flora = (await floras.ListAsync(stop)).FirstOrDefault(f => f.IsDefault);
        var advice =
            flora is null || await floras.ReadyAsync(flora.Id, stop) is not { } ready
                ? null
                : new ListAdviceRequest(
                    flora.Id,
                    day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                    [],
                    new SiftPlace(place.Cell, place.ElevationMetres, place.Habitats),
                    before,
                    MostOnForm
                ).Tell(ready);
        return PrintedPages.Of(
            context,
            FieldForm.Write(
                place.Name,
                place.Locality,
                place.Caution,
                day.ToString("MMMM", CultureInfo.InvariantCulture),
                advice is null
                    ? [.. before.Select(b => new FormTaxon(b.Name, "", Years(b.Years)))]
                    :
                    [
                        .. advice.SeenBefore.Select(a => new FormTaxon(
                            a.Name,
                            a.CommonName,
                            Years(a.Years) + (a.CanBeTold == false ? ", hardly now" : "")
                        )),
                    ],
                [.. (advice?.Expected ?? []).Select(a => new FormTaxon(a.Name, a.CommonName, a.Shows))]
            )
        );
    }

    private static string Years(IReadOnlyList<int> years) =>
        years.Count == 0 ? "" : string.Create(CultureInfo.InvariantCulture, $"({years[^1]})");
}
