using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Server.Commands;
using Garten.Server.Database;
using Npgsql;

namespace Garten.Server.Features.Tracks;

/// <summary>Tracks of visits, and the files that some of them came from.</summary>
internal sealed class TrackRepository(NpgsqlDataSource database, TimeProvider clock)
{
    // Who looks at what a file has for longer than a day sends it again.
    private static readonly TimeSpan KeptUnnamed = TimeSpan.FromDays(1);

    /// <summary>The pieces of visits' tracks that weren't taken back, in the order in which they came.</summary>
    internal static Task<List<(Guid Visit, TrackPiece It)>> OfVisitsAsync(
        NpgsqlConnection connection,
        Guid[] visits,
        CancellationToken stop
    ) =>
        connection
            .Command(
                """
                select t.visit_id, t.id, t.track_id, w.name, t.started_at, t.source, t.points, coalesce(t.file_hash, '')
                from track_piece t join person w on w.id = t.recorder
                where t.visit_id = any($1) and not exists (select from track_withdrawal d where d.track_id = t.track_id)
                order by t.number
                """,
                (object)visits
            )
            .ReadAllAsync(r => (r.GetGuid(0), Piece(r, 1)), stop);

    private static TrackPiece Piece(NpgsqlDataReader r, int at) =>
        new(
            r.GetGuid(at),
            r.GetGuid(at + 1),
            r.GetString(at + 2),
            r.GetString(at + 3),
            r.GetString(at + 4),
            JsonSerializer.Deserialize(r.GetString(at + 5), CoreJson.Default.IReadOnlyListTrackPoint) ?? [],
            r.GetString(at + 6)
        );

    /// <summary>Tracks, those of the newest visits first.</summary>
    /// <param name="place">Of visits to this place; null for all.</param>
    /// <param name="visit">Of this visit; null for all.</param>
    /// <param name="most">How many at most.</param>
    /// <param name="stop">Stops the query.</param>
    public async Task<IReadOnlyList<PlacedTrack>> ListAsync(Guid? place, Guid? visit, int most, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var rows = await connection
            .Command(
                """
                with newest as (
                    select t.track_id, v.id as visit_id, v.place_id, v.visited_on
                    from (select distinct track_id, visit_id from track_piece) t join site_visit v on v.id = t.visit_id
                    where ($1::uuid is null or v.place_id = $1) and ($2::uuid is null or v.id = $2)
                        and not exists (select from track_withdrawal d where d.track_id = t.track_id)
                    order by v.visited_on desc, v.started_at desc, t.track_id
                    limit $3
                )
                select n.visit_id, n.place_id, n.visited_on, t.id, t.track_id, w.name, t.started_at, t.source, t.points,
                    coalesce(t.file_hash, '')
                from newest n
                join track_piece t on t.track_id = n.track_id
                join person w on w.id = t.recorder
                order by n.visited_on desc, t.number
                """,
                place,
                visit,
                most
            )
            .ReadAllAsync(r => (Visit: r.GetGuid(0), Place: r.GetGuid(1), Date: r.GetFieldValue<DateOnly>(2), Piece: Piece(r, 3)), stop);
        return
        [
            .. rows.GroupBy(r => (r.Visit, r.Place, r.Date))
                .SelectMany(g => Track.Of(g.Select(r => r.Piece)).Select(t => new PlacedTrack(g.Key.Visit, g.Key.Place, g.Key.Date, t))),
        ];
    }

    internal static async Task<Guid?> VisitOfAsync(NpgsqlConnection connection, Guid track, CancellationToken stop)
    {
        var found = await connection
            .Command("select visit_id from track_piece where track_id = $1 limit 1", track)
            .ReadAllAsync(r => r.GetGuid(0), stop);
        return found.Count == 0 ? null : found[0];
    }

    internal static async Task<bool> IsFileAsync(NpgsqlConnection connection, string hash, CancellationToken stop) =>
        (await connection.Command("select exists (select from track_file where hash = $1)", hash).ReadAllAsync(r => r.GetBoolean(0), stop))[
            0
        ];

    internal static Task KeepAsync(CommandContext context, KeepTrackCommand it, CancellationToken stop) =>
        context
            .Connection.Command(
                """
                insert into track_piece (id, track_id, visit_id, recorder, started_at, source, file_hash, recorded_at, points)
                values ($1, $2, $3, $4, $5, $6, $7, $8, $9)
                """,
                it.Id,
                it.TrackId,
                it.SiteVisitId,
                it.Recorder.Id,
                it.StartedAt,
                it.Source,
                it.File.Length > 0 ? it.File : null,
                context.Now
            )
            .With(Sql.Json(JsonSerializer.Serialize(it.Points, CoreJson.Default.IReadOnlyListTrackPoint)))
            .RunAsync(stop);

    internal static Task WithdrawAsync(CommandContext context, Guid track, CancellationToken stop) =>
        context
            .Connection.Command(
                "insert into track_withdrawal (track_id, recorded_at) values ($1, $2) on conflict (track_id) do nothing",
                track,
                context.Now
            )
            .RunAsync(stop);

    /// <summary>Keeps a file until a track names it, and lets those go that none has named for a day.</summary>
    public async Task KeepFileAsync(string hash, byte[] content, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var now = clock.GetUtcNow();
        await connection
            .Command(
                """
                delete from track_file f
                where f.recorded_at < $1 and not exists (select from track_piece p where p.file_hash = f.hash)
                """,
                now - KeptUnnamed
            )
            .RunAsync(stop);
        await connection
            .Command(
                """
                insert into track_file (hash, content, recorded_at) values ($1, $2, $3)
                on conflict (hash) do update set recorded_at = excluded.recorded_at
                """,
                hash,
                content,
                now
            )
            .RunAsync(stop);
    }

    /// <summary>The file that a track came from, as it was; null where there is none.</summary>
    public async Task<byte[]?> FileAsync(string hash, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var found = await connection
            .Command("select content from track_file where hash = $1", hash)
            .ReadAllAsync(r => r.GetFieldValue<byte[]>(0), stop);
        return found.Count == 0 ? null : found[0];
    }
}
