using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Identification;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Places;
using Garten.Server.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Garten.Server.Features.Identify;

/// <summary>Sifting and contrast over HTTP: the same requests as the browser's worker answers by itself.</summary>
internal sealed class IdentifyFeature : IFeature
{
    private const string Problem = "application/problem+json";

    public void Map(RouteGroupBuilder api)
    {
        var identify = api.MapGroup("/identify");
        identify
            .MapPost(
                "/sift",
                async ([FromBody] SiftRequest request, FloraRepository floras, PlaceRepository places, CancellationToken stop) =>
                    await AnswerAsync(request.FloraId, floras, async flora => (await AtPlaceAsync(request, places, stop)).Sift(flora), stop)
            )
            .Produces<SiftResponse>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("sift")
            .WithSummary(
                "Sifts a flora by what was seen, in any order: the standing, and the looks that help most. Stores nothing; the browser does the same by itself."
            );

        identify
            .MapPost("/contrast", async ([FromBody] ContrastRequest request, FloraRepository floras, CancellationToken stop) =>
                await AnswerAsync(request.FloraId, floras, flora => Task.FromResult(request.Compare(flora)), stop)
            )
            .Produces<ContrastResult>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("contrast")
            .WithSummary(
                "Holds 2 to 8 taxa against each other: the characters that separate them, each pair, and the smallest set for all."
            );

        identify
            .MapPost(
                "/confirm",
                async ([FromBody] ConfirmRequest request, FloraRepository floras, PlaceRepository places, CancellationToken stop) =>
                    await AnswerAsync(
                        request.FloraId,
                        floras,
                        async flora =>
                            (request with { At = request.At ?? await PlaceAsync(request.Place, "place", places, stop) }).Confirm(flora),
                        stop
                    )
            )
            .Produces<ConfirmResult>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("confirm")
            .WithSummary(
                "Says how well a name stands by a sheet: checks, grade, look-alikes, what to report it as, and what is still open with when it can be seen. Stores nothing."
            );

        identify
            .MapGet("/grades", () => GradeRules.Shipped)
            .Produces<IReadOnlyList<GradeRules>>()
            .WithName("listGradeRules")
            .WithSummary("The tables of grades that ship: what each grade asks for.");

        identify
            .MapPost("/giveaways", async ([FromBody] GiveawayRequest request, FloraRepository floras, CancellationToken stop) =>
                await AnswerAsync(request.FloraId, floras, flora => Task.FromResult(request.Find(flora)), stop)
            )
            .Produces<GiveawayResponse>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("giveaways")
            .WithSummary("States that are alone on a list: one look names the plant.");

        identify
            .MapPost("/describe", async ([FromBody] DescribeRequest request, FloraRepository floras, CancellationToken stop) =>
                await AnswerAsync(request.FloraId, floras, flora => Task.FromResult(request.Describe(flora)), stop)
            )
            .Produces<IReadOnlyList<DescribedTaxon>>()
            .Produces<ProblemReport>(404, Problem)
            .WithName("describe")
            .WithSummary("Taxa with what they are like, for their plates; without a list of taxa all of the flora, by name alone.");

        identify
            .MapPost("/near", async ([FromBody] NearRequest request, FloraRepository floras, CancellationToken stop) =>
                await AnswerAsync(request.FloraId, floras, flora => Task.FromResult(request.Find(flora)), stop)
            )
            .Produces<IReadOnlyList<string>>()
            .Produces<ProblemReport>(404, Problem)
            .Produces<ProblemReport>(422, Problem)
            .WithName("near")
            .WithSummary("The taxa that one is taken for: declared look-alikes, and the nearest by description.");
    }

    // A flora made ready keeps what it worked out last: requests take turns at it.
    internal static async Task<IResult> AnswerAsync<T>(
        string floraId,
        FloraRepository floras,
        Func<ReadyFlora, Task<T>> answer,
        CancellationToken stop
    )
    {
        if (await floras.ReadyAsync(floraId ?? "", stop) is not { } flora)
            return Problems.Result(404, "flora.unknown", "No flora has this id.", "Ask for one of the list of floras.", "floraId");
        await flora.Turn.WaitAsync(stop);
        try
        {
            return Results.Ok(await answer(flora));
        }
        catch (RequestException wrong)
        {
            return Problems.Unusable(wrong);
        }
        finally
        {
            flora.Turn.Release();
        }
    }

    private static async Task<SiftRequest> AtPlaceAsync(SiftRequest request, PlaceRepository places, CancellationToken stop) =>
        request.Options is { At: null } options && await PlaceAsync(options.Place, "options.place", places, stop) is { } at
            ? request with
            {
                Options = options with { At = at },
            }
            : request;

    // A place is named by its id or its name; what isn't one is taken for a grid cell. Null where none is named.
    private static async Task<SiftPlace?> PlaceAsync(string? named, string field, PlaceRepository places, CancellationToken stop)
    {
        if (string.IsNullOrEmpty(named))
            return null;
        var found = (await places.ListAsync(stop)).FirstOrDefault(p =>
            string.Equals(p.Id.ToString(), named, StringComparison.OrdinalIgnoreCase)
            || string.Equals(p.Name, named, StringComparison.OrdinalIgnoreCase)
        );
        if (found is null && !Plausibility.IsCell(named))
            throw new RequestException(field, $"No place has the id or name “{named}”, and it is no grid cell such as B2.");
        return found is null ? new SiftPlace(named.ToUpperInvariant()) : new SiftPlace(found.Cell, found.ElevationMetres, found.Habitats);
    }
}
