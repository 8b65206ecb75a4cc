using Garten.Core.Contracts;
using Garten.Server.Database;
using Garten.Server.Hosting;
using Npgsql;

namespace Garten.Server.Features.Changes;

/// <summary>The feed of changes: a device that was away is told what has changed, and fetches that alone.</summary>
internal sealed class ChangesFeature : IFeature
{
    // A day of a large group; each is a few bytes here, and most are of the same few plants.
    private const int LargestPage = 5_000;

    public void Add(IServiceCollection services) { }

    public void Map(RouteGroupBuilder api) =>
        api.MapGet("/changes", async (long? after, int? size, NpgsqlDataSource database, CancellationToken stop) =>
                after is < 0
                    ? Problems.Result(
                        422,
                        "changes.after",
                        "There is no such change.",
                        "Give the number that was told last, or leave it out to begin with what is there now.",
                        "after"
                    )
                    : Results.Ok(await ReadAsync(database, after, Math.Clamp(size ?? LargestPage, 1, LargestPage), stop))
            )
            .Produces<ChangePage>()
            .Produces<ProblemReport>(422, "application/problem+json")
            .WithName("listChanges")
            .WithSummary(
                "What has changed after a change: each thing once. Without a number: the number of the last change, to begin with."
            );

    private static async Task<ChangePage> ReadAsync(NpgsqlDataSource database, long? after, int size, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var epochs = await connection.Command("select id from epoch order by began_at desc").ReadAllAsync(r => r.GetGuid(0), stop);
        var last = (await connection.Command("select last from change_counter").ReadAllAsync(r => r.GetInt64(0), stop))[0];
        // A number beyond the last one is of another life of the database; the device sees that by the epoch.
        var from = Math.Min(after ?? last, last);
        var until = Math.Min(last, from + size);
        var subjects =
            from == until
                ? []
                : await connection
                    .Command("select distinct unnest(about) from command where change > $1 and change <= $2", from, until)
                    .ReadAllAsync(r => r.GetString(0), stop);
        Guid[] plants = [.. subjects.Select(ChangeSubject.PlantOf).OfType<Guid>().Order()];
        var listed =
            plants.Length == 0
                ? []
                : await connection
                    .Command("select distinct visit_id from list_line where plant_id = any($1)", (object)plants)
                    .ReadAllAsync(r => r.GetGuid(0), stop);
        return new ChangePage(
            epochs[0],
            [.. epochs.Skip(1)],
            until,
            until < last,
            plants,
            [.. subjects.Select(ChangeSubject.SiteVisitOf).OfType<Guid>().Concat(listed).Distinct().Order()],
            subjects.Exists(ChangeSubject.IsPopulation),
            subjects.Exists(ChangeSubject.IsPlace),
            subjects.Exists(ChangeSubject.IsSurvey),
            subjects.Contains(ChangeSubject.Keys),
            subjects.Contains(ChangeSubject.Vocabulary),
            subjects.Exists(ChangeSubject.IsOfAll),
            subjects.Exists(ChangeSubject.IsErased)
        );
    }
}
