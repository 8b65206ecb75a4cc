using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Deliveries;
using Garten.Formats;
using Garten.Server.Commands;
using Garten.Server.Database;
using Npgsql;
using NpgsqlTypes;

namespace Garten.Server.Features.Deliveries;

/// <summary>What was passed on to whom, and what is said of it there.</summary>
internal sealed class DeliveryRepository(NpgsqlDataSource database)
{
    /// <summary>The deliveries, newest first.</summary>
    public async Task<IReadOnlyList<Delivery>> ListAsync(Guid? only, int most, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                """
                select d.id, (select count(*) from delivery e where lower(e.partner) = lower(d.partner) and e.number <= d.number),
                    d.partner, d.recorded_at, w.name, d.note, d.scope, coalesce(l.name, ''), c.added, c.changed, c.withdrawn, d.unchanged, c.queried
                from delivery d
                join person w on w.id = d.sent_by
                left join place l on l.id = (d.scope->>'placeId')::uuid
                cross join lateral (
                    select count(*) filter (where i.state = 'new') as added, count(*) filter (where i.state = 'changed') as changed,
                        count(*) filter (where i.state = 'withdrawn') as withdrawn,
                        count(*) filter (where (
                            select v.verdict from verdict v
                            where v.occurrence_id = i.occurrence_id and lower(v.partner) = lower(d.partner)
                            order by v.number desc limit 1) in ('queried', 'rejected')) as queried
                    from delivered i where i.delivery_id = d.id
                ) c
                where $1::uuid is null or d.id = $1
                order by d.number desc
                limit $2
                """,
                only,
                most
            )
            .ReadAllAsync(
                r => new Delivery(
                    r.GetGuid(0),
                    (int)r.GetInt64(1),
                    r.GetString(2),
                    r.GetFieldValue<DateTimeOffset>(3),
                    r.GetString(4),
                    r.GetString(5),
                    JsonSerializer.Deserialize(r.GetString(6), CoreJson.Default.DeliveryScope)!,
                    r.GetString(7),
                    new DeliveryCounts((int)r.GetInt64(8), (int)r.GetInt64(9), (int)r.GetInt64(10), r.GetInt32(11)),
                    (int)r.GetInt64(12)
                ),
                stop
            );
    }

    // Where these stand among the cells that are kept: headers are only ever added at the end.
    private static readonly int DateCell = OccurrenceCsv.Headers.ToList().IndexOf("eventDate");
    private static readonly int LocalityCell = OccurrenceCsv.Headers.ToList().IndexOf("locality");

    // What a partner said last of a row, and where the record is here.
    private const string Beside = """
        left join lateral (
            select v.partner, v.verdict, v.says, v.said_on from verdict v
            where v.occurrence_id = i.occurrence_id and lower(v.partner) = lower(d.partner)
            order by v.number desc limit 1
        ) s on true
        """;

    /// <summary>Records of a delivery, in its order: those from a number on.</summary>
    public async Task<IReadOnlyList<DeliveredItem>> ItemsAsync(Guid delivery, int from, int most, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                $"""
                select i.occurrence_id, i.name, i.name_before, i.state, s.partner, s.verdict, s.says, s.said_on,
                    coalesce(i.cells->>{DateCell}, ''), coalesce(i.cells->>{LocalityCell}, ''),
                    coalesce(
                        (select '/plants/' || o.plant_id from occurrence o where o.id = i.occurrence_id),
                        (select '/site-visits/' || x.visit_id from list_line x where x.id = i.occurrence_id), '')
                from delivered i join delivery d on d.id = i.delivery_id {Beside}
                where i.delivery_id = $1 and i.place >= $2 order by i.place limit $3
                """,
                delivery,
                from,
                most
            )
            .ReadAllAsync(
                r => new DeliveredItem(
                    r.GetGuid(0),
                    r.GetString(1),
                    r.GetString(2),
                    State(r.GetString(3)),
                    r.GetString(8),
                    r.GetString(9),
                    Said(r, 4),
                    r.GetString(10)
                ),
                stop
            );
    }

    /// <summary>Where some records went, the newest first; those of a plant, or one.</summary>
    public async Task<IReadOnlyList<PassedOn>> OfAsync(Guid id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                $"""
                select distinct on (lower(d.partner), i.occurrence_id) d.id, d.partner, d.recorded_at, i.state, i.name,
                    s.partner, s.verdict, s.says, s.said_on
                from delivered i join delivery d on d.id = i.delivery_id {Beside}
                where i.occurrence_id = $1 or i.occurrence_id in (select id from occurrence where plant_id = $1)
                order by lower(d.partner), i.occurrence_id, d.number desc
                """,
                id
            )
            .ReadAllAsync(
                r => new PassedOn(
                    r.GetGuid(0),
                    r.GetString(1),
                    r.GetFieldValue<DateTimeOffset>(2),
                    State(r.GetString(3)),
                    r.GetString(4),
                    Said(r, 5)
                ),
                stop
            );
    }

    private static DeliveredState State(string text) => Enum.Parse<DeliveredState>(text, ignoreCase: true);

    private static VerdictSaid? Said(NpgsqlDataReader r, int at) =>
        r.IsDBNull(at)
            ? null
            : new VerdictSaid(
                r.GetString(at),
                Enum.Parse<PartnerVerdict>(r.GetString(at + 1), ignoreCase: true),
                r.GetString(at + 2),
                r.GetFieldValue<DateOnly>(at + 3)
            );

    /// <summary>The rows of a delivery as they were sent; a withdrawn or erased one has no cells.</summary>
    public async IAsyncEnumerable<(Guid Id, string State, string Name, string[]? Cells)> RowsAsync(
        Guid delivery,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken stop
    )
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        await using var command = connection.Command(
            "select occurrence_id, state, name, cells from delivered where delivery_id = $1 order by place",
            delivery
        );
        await using var reader = await command.ExecuteReaderAsync(stop);
        while (await reader.ReadAsync(stop))
            yield return (
                reader.GetGuid(0),
                reader.GetString(1),
                reader.GetString(2),
                reader.IsDBNull(3) ? null : JsonSerializer.Deserialize<string[]>(reader.GetString(3))
            );
    }

    internal static async Task<bool> IsKnownAsync(NpgsqlConnection connection, Guid delivery, CancellationToken stop) =>
        (await connection.Command("select exists (select from delivery where id = $1)", delivery).ReadAllAsync(r => r.GetBoolean(0), stop))[
            0
        ];

    internal static async Task<bool> WasDeliveredAsync(
        NpgsqlConnection connection,
        Guid occurrence,
        string partner,
        CancellationToken stop
    ) =>
        (
            await connection
                .Command(
                    """
                    select exists (select from delivered i join delivery d on d.id = i.delivery_id
                        where i.occurrence_id = $1 and lower(d.partner) = lower($2))
                    """,
                    occurrence,
                    partner
                )
                .ReadAllAsync(r => r.GetBoolean(0), stop)
        )[0];

    internal static async Task KeepAsync(
        CommandContext context,
        KeepDeliveryCommand it,
        IReadOnlyList<DeliveredRow> rows,
        CancellationToken stop
    )
    {
        await context
            .Connection.Command(
                """
                insert into delivery (id, partner, note, sent_by, unchanged, recorded_at, scope)
                values ($1, $2, $3, $4, $5, $6, $7)
                """,
                it.DeliveryId,
                it.Partner.Trim(),
                it.Note,
                it.By.Id,
                rows.Count(r => r.Change.State == DeliveredState.Unchanged),
                context.Now
            )
            .With(Sql.Json(JsonSerializer.Serialize(it.Scope, CoreJson.Default.DeliveryScope)))
            .RunAsync(stop);
        await using var copy = await context.Connection.BeginBinaryImportAsync(
            "copy delivered (delivery_id, occurrence_id, place, state, name, name_before, mark, cells) from stdin (format binary)",
            stop
        );
        var place = 0;
        foreach (var (change, cells) in rows.Where(r => r.Change.State != DeliveredState.Unchanged))
        {
            await copy.StartRowAsync(stop);
            await copy.WriteAsync(it.DeliveryId, NpgsqlDbType.Uuid, stop);
            await copy.WriteAsync(change.Record.Id, NpgsqlDbType.Uuid, stop);
            await copy.WriteAsync(place++, NpgsqlDbType.Integer, stop);
            await copy.WriteAsync(change.State.ToString().ToLowerInvariant(), NpgsqlDbType.Text, stop);
            await copy.WriteAsync(change.Record.Name, NpgsqlDbType.Text, stop);
            await copy.WriteAsync(change.NameBefore, NpgsqlDbType.Text, stop);
            await copy.WriteAsync(change.Record.Mark, NpgsqlDbType.Text, stop);
            if (cells is null)
                await copy.WriteNullAsync(stop);
            else
                await copy.WriteAsync(JsonSerializer.Serialize(cells), NpgsqlDbType.Jsonb, stop);
        }
        await copy.CompleteAsync(stop);
    }

    internal static Task NoteAsync(CommandContext context, NoteVerdictCommand it, DateOnly on, CancellationToken stop) =>
        context
            .Connection.Command(
                """
                insert into verdict (id, partner, occurrence_id, verdict, says, said_on, noted_by, recorded_at)
                values ($1, $2, $3, $4, $5, $6, $7, $8)
                """,
                it.Id,
                it.Partner.Trim(),
                it.OccurrenceId,
                it.Verdict.ToString().ToLowerInvariant(),
                it.Says,
                on,
                it.By.Id,
                context.Now
            )
            .RunAsync(stop);
}
