using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Server.Features.Erasure;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Records;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Garten.Server.Features.Plants;

/// <summary>Tagged plants with their history.</summary>
internal sealed class PlantsFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Add(IServiceCollection services) => services.AddSingleton<PlantRepository>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet(
                "/plants",
                async (
                    Guid? place,
                    string? text,
                    bool? pegged,
                    string? after,
                    int? size,
                    HttpContext context,
                    PlantRepository plants,
                    FloraRepository floras,
                    CancellationToken stop
                ) =>
                {
                    if (!PlantCursor.TryRead(after, out var cursor))
                        return Paging.NoPage();
                    if (text?.Contains('\0', StringComparison.Ordinal) == true)
                        return Problems.Result(400, "text.invalid", "This isn't text.", "Give a part of a label or a name.", "text");
                    var (page, next) = await plants.PageAsync(
                        new PlantFilter(place, string.IsNullOrWhiteSpace(text) ? null : text.Trim(), pegged),
                        cursor,
                        Paging.SizeOf(size),
                        stop
                    );
                    Paging.LinkNext(context, next?.ToString());
                    var sensitive = await floras.SensitiveAsync(stop);
                    return Results.Ok<IReadOnlyList<TaggedPlant>>([
                        .. page.Select(p => p with { IsSensitive = sensitive.HoldsAny(p.Names) }),
                    ]);
                }
            )
            .Produces<IReadOnlyList<TaggedPlant>>()
            .Produces<ProblemReport>(400, Problem)
            .Exact()
            .WithName("listPlants")
            .WithSummary("Plants by place and tag, with how they were found last; in pages, the next one in the header “Link”.");

        api.MapGet(
                "/plants/whole",
                async (
                    Guid? place,
                    [FromQuery(Name = "id")] Guid[]? ids,
                    string? after,
                    int? size,
                    HttpContext context,
                    PlantRepository plants,
                    DeterminationRepository records,
                    FloraRepository floras,
                    CancellationToken stop
                ) =>
                {
                    if (!PlantCursor.TryRead(after, out var cursor))
                        return Paging.NoPage();
                    if (ids is { Length: > MostWhole })
                        return Problems.Result(
                            422,
                            "plants.too-many",
                            "These are too many plants.",
                            $"Ask for at most {MostWhole} at a time.",
                            "id"
                        );
                    var (page, next) = await plants.PageAsync(
                        new PlantFilter(place, Ids: ids is { Length: > 0 } ? ids : null),
                        cursor,
                        Math.Min(MostWhole, Paging.SizeOf(size)),
                        stop
                    );
                    Paging.LinkNext(context, next?.ToString());
                    List<PlantDetail> whole = [];
                    var index = new TaxonIndex(await floras.TaxaAsync(stop));
                    var sensitive = await floras.SensitiveAsync(stop);
                    foreach (var plant in await records.PlantsAsync([.. page.Select(p => p.Id)], stop))
                        whole.Add(await WithTaxaAsync(plant, index, sensitive, floras, stop));
                    return Results.Ok<IReadOnlyList<PlantDetail>>(whole);
                }
            )
            .Produces<IReadOnlyList<PlantDetail>>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Exact()
            .WithName("listWholePlants")
            .WithSummary(
                "Plants by place and tag with their whole history, all, those of a place or those named, to be taken along; in pages, the next one in the header “Link”."
            );

        api.MapGet(
                "/plants/{id:guid}",
                async (
                    Guid id,
                    DeterminationRepository records,
                    FloraRepository floras,
                    ErasureRepository erased,
                    CancellationToken stop
                ) =>
                    await records.PlantAsync(id, stop) is { } plant
                        ? Results.Ok(
                            await WithTaxaAsync(
                                plant,
                                new TaxonIndex(await floras.TaxaAsync(stop)),
                                await floras.SensitiveAsync(stop),
                                floras,
                                stop
                            )
                        )
                    : await erased.IsErasedAsync(id, stop)
                        ? Problems.Result(410, "erased", "This was erased on request.", "Its id stays and nothing else.")
                    : Problems.Result(404, "plant.unknown", "No plant has this id.", "Choose one from the list of records.")
            )
            .Produces<PlantDetail>()
            .Produces<ProblemReport>(410, Problem)
            .Produces<ProblemReport>(404, Problem)
            .Exact()
            .WithName("getPlant")
            .WithSummary("A plant with its history of determinations.");
    }

    // A plant may have years of observations: a page of them stays within a megabyte or two.
    private const int MostWhole = 100;

    private static async Task<PlantDetail> WithTaxaAsync(
        PlantDetail plant,
        TaxonIndex index,
        SensitiveTaxa sensitive,
        FloraRepository floras,
        CancellationToken stop
    ) =>
        plant with
        {
            IsSensitive = sensitive.HoldsAny(plant.Determinations.SelectMany(d => d.Names)),
            Taxa = [.. plant.Determinations.Take(1).SelectMany(d => d.Names).Select(index.Find).OfType<Taxon>()],
            Determinations = await WithOverturnedAsync(plant, floras, stop),
        };

    // A name that shares nothing with the one before has overturned it: by what, its flora says.
    private static async Task<IReadOnlyList<DeterminationDetail>> WithOverturnedAsync(
        PlantDetail plant,
        FloraRepository floras,
        CancellationToken stop
    )
    {
        var result = plant.Determinations.ToList();
        for (var i = 0; i + 1 < result.Count; i++)
        {
            var (now, before) = (result[i], result[i + 1]);
            if (!NameChange.Overturns(before.Names, now.Names))
                continue;
            var overturned = new Overturned(before.Names, []);
            foreach (var id in now.Floras.Keys.Order(StringComparer.Ordinal))
            {
                if (
                    now.Names is not [var name]
                    || await floras.ReadyAsync(id, stop) is not { } flora
                    || flora.Pack.Taxa.All(t => t.Name != name)
                )
                    continue;
                // What had been seen by then.
                var day = now.EventDate.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
                var seen = plant.Observations.Where(o => string.CompareOrdinal(o.Date, day) <= 0).ToList();
                overturned = await flora.AskAsync(f => Overturned.Of(f, seen, before.Names, name), stop);
                break;
            }
            result[i] = now with { Overturned = overturned };
        }
        return result;
    }
}
