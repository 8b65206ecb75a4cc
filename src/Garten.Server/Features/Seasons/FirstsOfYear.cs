using Garten.Core.Surveys;
using Garten.Server.Database;
using Garten.Server.Features.Plants;
using Microsoft.Extensions.Caching.Memory;
using Npgsql;

namespace Garten.Server.Features.Seasons;

/// <summary>What began in a year on the tagged plants. It follows from all visits of the year: it is worked out once after a change, not at
/// each request.</summary>
internal sealed class FirstsOfYear(PlantRepository plants, NpgsqlDataSource database, IMemoryCache kept)
{
    // Nobody asks for a state that is long past.
    private static readonly TimeSpan KeptFor = TimeSpan.FromMinutes(10);

    public async Task<IReadOnlyList<SeasonFirst>> OfAsync(int year, CancellationToken stop)
    {
        // Read before the visits are: what comes in between is worked out again.
        var change = await ChangeNumber.LastAsync(database, stop);
        return await kept.GetOrCreateAsync((nameof(FirstsOfYear), year, change), entry =>
        {
            entry.AbsoluteExpirationRelativeToNow = KeptFor;
            return plants.FirstsAsync(year, stop);
        }) ?? [];
    }
}
