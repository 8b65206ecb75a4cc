using Garten.Core.Contracts;
using Garten.Core.Deliveries;
using Garten.Formats;
using Garten.Server.Features.Places;
using Garten.Server.Hosting;
using Npgsql;

namespace Garten.Server.Features.Deliveries;

/// <summary>What was passed on to whom, what has to follow, and what is said of it there.</summary>
internal sealed class DeliveriesFeature : IFeature
{
    private const string Problem = "application/problem+json";
    private const string Csv = "text/csv";
    private const int MostListed = 500;
    private const int ItemsAtATime = 200;
    private const int MostShown = 200;

    public void Add(IServiceCollection services) => services.AddSingleton<DeliveryRepository>().AddSingleton<DeliveryRun>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/deliveries", async (DeliveryRepository deliveries, CancellationToken stop) =>
                TypedResults.Ok(await deliveries.ListAsync(null, MostListed, stop))
            )
            .Exact()
            .WithName("listDeliveries")
            .WithSummary("What was passed on to whom, newest first.");

        api.MapGet("/deliveries/next", PreviewAsync)
            .Produces<DeliveryPreview>()
            .Produces<ProblemReport>(422, Problem)
            .Produces<ProblemReport>(503, Problem)
            .Exact()
            .WithName("previewDelivery")
            .WithSummary("What would go to a partner now: what is new to them, changed, withdrawn. Keeps nothing.");

        api.MapGet("/deliveries/{id:guid}/items", async (Guid id, int? from, DeliveryRepository deliveries, CancellationToken stop) =>
                TypedResults.Ok(await deliveries.ItemsAsync(id, Math.Max(0, from ?? 0), ItemsAtATime, stop))
            )
            .Exact()
            .WithName("listDeliveredItems")
            .WithSummary("Records of a delivery in its order, 200 at a time from a number on, with what the partner says.");

        api.MapGet("/deliveries/of/{id:guid}", async (Guid id, DeliveryRepository deliveries, CancellationToken stop) =>
                TypedResults.Ok(await deliveries.OfAsync(id, stop))
            )
            .Exact()
            .WithName("listPassedOn")
            .WithSummary("Where a record, or the records of a plant, went, and what is said of them there.");

        foreach (
            var (file, isWithdrawn, says) in new[]
            {
                ("records", false, "what is new and changed"),
                ("withdrawn", true, "what holds no more"),
            }
        )
            api.MapGet(
                    $"/deliveries/{{id:guid}}/{file}.csv",
                    async (Guid id, DeliveryRepository deliveries, Turnstile turns, CancellationToken stop) =>
                    {
                        using var turn = await turns.ExportAsync(stop);
                        if (await deliveries.ListAsync(id, 1, stop) is not [var delivery])
                            return Problems.Result(404, "delivery.unknown", "There is no such delivery.", "Choose one of the list.", "id");
                        return await WholeFiles.SendAsync(Csv, $"delivery-{delivery.Number}-{file}.csv", async output =>
                        {
                            await using var text = new StreamWriter(output, new System.Text.UTF8Encoding(false), leaveOpen: true);
                            await using var csv = new CsvTable(text);
                            csv.Texts(isWithdrawn ? ["occurrenceID", "change"] : ["change", .. OccurrenceCsv.Headers]);
                            await csv.EndRowAsync();
                            await foreach (var (occurrence, state, _, cells) in deliveries.RowsAsync(id, stop))
                            {
                                if (isWithdrawn != state.Equals("withdrawn", StringComparison.Ordinal) || !isWithdrawn && cells is null)
                                    continue;
                                csv.Texts(isWithdrawn ? [$"urn:uuid:{occurrence}", state] : [state, .. cells!]);
                                await csv.EndRowAsync();
                            }
                            return null;
                        });
                    }
                )
                .Produces<string>(200, Csv)
                .Produces<ProblemReport>(404, Problem)
                .Produces<ProblemReport>(503, Problem)
                .Exact()
                .WithName(isWithdrawn ? "exportDeliveryWithdrawn" : "exportDeliveryRecords")
                .WithSummary($"Of a delivery {says}, as it was sent, as CSV with Darwin Core terms.");
    }

    private static async Task<IResult> PreviewAsync(
        string partner,
        Guid? place,
        string? taxon,
        bool? exact,
        DeliveryRun run,
        PlaceRepository places,
        GroundRepository grounds,
        NpgsqlDataSource database,
        Turnstile turns,
        CancellationToken stop
    )
    {
        if (partner.Trim().Length == 0 || (partner + taxon).Contains('\0', StringComparison.Ordinal))
            return Problems.Result(422, "partner.missing", "To whom it goes is missing.", "Give a name.", "partner");
        using var turn = await turns.ExportAsync(stop);
        await using var connection = await database.OpenConnectionAsync(stop);
        var scope = new DeliveryScope(place, taxon?.Trim() ?? "", exact == true);
        if (await run.WorkOutAsync(connection, partner.Trim(), scope, stop) is not { } rows)
            return Problems.Result(
                422,
                "delivery.many",
                "These are too many records for one delivery.",
                $"Narrow it to a place or a taxon: one holds {DeliveryRun.MostRecords}.",
                "taxon"
            );
        int Of(DeliveredState state) => rows.Count(r => r.Change.State == state);
        var leaves = (await grounds.ListAsync(stop)).ToDictionary(g => g.PlaceId, g => g.Ground.Leave?.PassingOn ?? "");
        var from = (await places.ListAsync(stop)).Where(p => place is null || p.Id == place);
        return Results.Ok(
            new DeliveryPreview(
                new DeliveryCounts(
                    Of(DeliveredState.New),
                    Of(DeliveredState.Changed),
                    Of(DeliveredState.Withdrawn),
                    Of(DeliveredState.Unchanged)
                ),
                [.. rows.Select(r => r.Change).Where(c => c.State is DeliveredState.Changed or DeliveredState.Withdrawn).Take(MostShown)],
                [.. from.Select(p => new PassingOnLeave(p.Name, leaves.GetValueOrDefault(p.Id, "")))]
            )
        );
    }
}
