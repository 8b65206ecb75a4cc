using Garten.Core.Contracts;
using Garten.Server.Database;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Places;
using Garten.Server.Features.Populations;
using Garten.Server.Features.Records;
using Microsoft.Extensions.Caching.Memory;
using Npgsql;

namespace Garten.Server.Features.Seasons;

/// <summary>The page of a day as one answer: it follows from all that is open, and is worked out once after a change.</summary>
internal sealed class TodayOfDay(
    DeterminationRepository records,
    PopulationRepository populations,
    PlaceRepository places,
    FloraRepository floras,
    FirstsOfYear firsts,
    TimeProvider clock,
    NpgsqlDataSource database,
    IMemoryCache kept
)
{
    private static readonly TimeSpan KeptFor = TimeSpan.FromMinutes(10);

    public async Task<TodayDocument> OnAsync(DateOnly day, CancellationToken stop)
    {
        // Floras aren't commands: a newly published one is another reason to work it out again.
        var all = await floras.ListAsync(stop);
        var flora = all.FirstOrDefault(f => f.IsDefault);
        var state = (nameof(TodayOfDay), day, await ChangeNumber.LastAsync(database, stop), flora?.Id, flora?.Version);
        return await kept.GetOrCreateAsync(state, async entry =>
        {
            entry.AbsoluteExpirationRelativeToNow = KeptFor;
            return await WorkOutAsync(day, flora?.Id, stop);
        }) ?? throw new InvalidOperationException("A day always has its page.");
    }

    private async Task<TodayDocument> WorkOutAsync(DateOnly day, string? floraId, CancellationToken stop)
    {
        var sensitive = await floras.SensitiveAsync(stop);
        var open = await records.OpenAsync(day, stop);
        var request = new TodayRequest(
            $"{day:yyyy-MM-dd}",
            [.. open.Select(p => p with { IsSensitive = sensitive.Holds(p.Name) })],
            await PopulationsFeature.DetailsAsync(populations, floras, clock, stop)
        );
        IReadOnlyList<PlaceInSeason> inSeason = [];
        if (floraId is not null && await floras.ReadyAsync(floraId, stop) is { } flora)
        {
            var asked = new InSeasonRequest(
                floraId,
                request.Date,
                [.. (await places.ListAsync(stop)).Take(InSeasonRequest.MostPlaces).Select(p => new SeasonPlace(p.Id, p.Name, p.Cell))],
                await firsts.OfAsync(day.Year, stop)
            );
            inSeason = await flora.AskAsync(_ => asked.Look(flora), stop);
        }
        return new TodayDocument(
            request.Tell().First(TodayDocument.MostShown),
            request.Next(stop) is [var next, ..] ? next : null,
            inSeason
        );
    }
}
