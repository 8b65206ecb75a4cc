using Garten.Core.Contracts;
using Garten.Server.Database;
using Garten.Server.Features.Devices;
using Npgsql;

namespace Garten.Server.Features.Erasure;

/// <summary>What was erased on request: ids, and nothing else.</summary>
internal sealed class ErasureRepository(NpgsqlDataSource database)
{
    /// <summary>All of it, oldest first.</summary>
    public async Task<IReadOnlyList<ErasedSubject>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command("select id, kind from erased order by erased_at, id")
            .ReadAllAsync(r => new ErasedSubject(r.GetGuid(0), r.GetString(1)), stop);
    }

    /// <summary>Whether something was erased.</summary>
    public async Task<bool> IsErasedAsync(Guid id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return (await AmongAsync(connection, [id], stop)).Count > 0;
    }

    /// <summary>Those of some ids that were erased. A person isn't among them: who is named still records, without a name.</summary>
    internal static async Task<HashSet<Guid>> AmongAsync(NpgsqlConnection connection, Guid[] ids, CancellationToken stop) =>
        [
            .. await connection
                .Command("select id from erased where id = any($1) and kind <> 'person'", (object)ids)
                .ReadAllAsync(r => r.GetGuid(0), stop),
        ];

    internal static async Task EraseAsync(NpgsqlConnection connection, Guid subject, CancellationToken stop)
    {
        await connection.Command("select erase($1)", subject).RunAsync(stop);
        await DeviceRepository.ForgetOfAsync(connection, subject, stop);
    }

    /// <summary>Erases again what a copy of the database has brought back, and answers with all that was erased.</summary>
    public async Task<IReadOnlyList<Guid>> ReplayAsync(IReadOnlyCollection<Guid> listed, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        foreach (var id in listed)
            await EraseAsync(connection, id, stop);
        return await connection.Command("select id from erased order by erased_at, id").ReadAllAsync(r => r.GetGuid(0), stop);
    }
}
