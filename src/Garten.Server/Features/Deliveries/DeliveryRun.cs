using System.Security.Cryptography;
using System.Text;
using Garten.Core.Contracts;
using Garten.Core.Deliveries;
using Garten.Formats;
using Garten.Server.Database;
using Garten.Server.Features.Places;
using Garten.Server.Features.Records;
using Npgsql;

namespace Garten.Server.Features.Deliveries;

/// <summary>A record with the cells that are told of it; a withdrawn one has none.</summary>
internal sealed record DeliveredRow(DeliveryChange Change, IReadOnlyList<string>? Cells);

/// <summary>Works out what is to be passed on: what a partner has is held against what there is.</summary>
internal sealed class DeliveryRun(RecordExport export)
{
    /// <summary>Most records of a delivery.</summary>
    public const int MostRecords = 200_000;

    /// <summary>The records of a delivery; null where these are too many.</summary>
    /// <param name="connection">Reads what the partner has.</param>
    /// <param name="partner">To whom.</param>
    /// <param name="scope">Which records.</param>
    /// <param name="stop">Stops the reading.</param>
    public async Task<IReadOnlyList<DeliveredRow>?> WorkOutAsync(
        NpgsqlConnection connection,
        string partner,
        DeliveryScope scope,
        CancellationToken stop
    )
    {
        var known = await KnownAsync(connection, partner, stop);
        List<DeliveredRecord> now = [];
        Dictionary<Guid, IReadOnlyList<string>> cells = [];
        var place = scope.PlaceId;
        // The place that a partner was sent the records of may be part of another one now.
        if (place is { } asked)
            place = (await PlaceRepository.MergedAsync(connection, [asked], stop)).GetValueOrDefault(asked, asked);
        var filter = new RecordFilter(scope.Taxon.Length > 0 ? scope.Taxon : null, place);
        await foreach (var it in export.AllAsync(filter, scope.IsExact, stop))
        {
            if (now.Count >= MostRecords)
                return null;
            var told = OccurrenceCsv.Cells(it);
            var id = Guid.Parse(it.OccurrenceId.AsSpan("urn:uuid:".Length));
            if (cells.TryAdd(id, told))
                now.Add(
                    new DeliveredRecord(
                        id,
                        it.VerbatimIdentification.Length > 0 ? it.VerbatimIdentification : it.ScientificName,
                        Mark(told)
                    )
                );
        }
        Guid[] missing = [.. known.Keys.Except(cells.Keys)];
        var standing = missing.Length == 0 ? [] : await StandingAsync(connection, missing, stop);
        return
        [
            .. DeliveryChanges
                .Of(known, now, standing.Contains)
                .Select(c => new DeliveredRow(c, c.State == DeliveredState.Withdrawn ? null : cells[c.Record.Id])),
        ];
    }

    private static string Mark(IReadOnlyList<string> cells) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\u001f', cells))))[..32];

    // As it was passed on last, without what was withdrawn.
    private static async Task<Dictionary<Guid, DeliveredRecord>> KnownAsync(
        NpgsqlConnection connection,
        string partner,
        CancellationToken stop
    ) =>
        (
            await connection
                .Command(
                    """
                    select occurrence_id, name, mark from (
                        select distinct on (i.occurrence_id) i.occurrence_id, i.name, i.mark, i.state
                        from delivery d join delivered i on i.delivery_id = d.id
                        where lower(d.partner) = lower($1)
                        order by i.occurrence_id, d.number desc
                    ) newest where state <> 'withdrawn'
                    """,
                    partner
                )
                .ReadAllAsync(r => new DeliveredRecord(r.GetGuid(0), r.GetString(1), r.GetString(2)), stop)
        ).ToDictionary(r => r.Id);

    // Those that hold still, whatever place or name they are of. A line that stands for a plant is told with the plant.
    private static async Task<HashSet<Guid>> StandingAsync(NpgsqlConnection connection, Guid[] ids, CancellationToken stop) =>
        [
            .. await connection
                .Command(
                    """
                    select o.id from occurrence o join plant p on p.id = o.plant_id
                    where o.id = any($1)
                        and not exists (select from import_withdrawal w where w.import_id = p.import_id)
                    union all
                    select l.id from list_line_now l where l.id = any($1) and l.plant_id is null
                    """,
                    (object)ids
                )
                .ReadAllAsync(r => r.GetGuid(0), stop),
        ];
}
