using System.Security.Cryptography;
using Garten.Core.Contracts;
using Garten.Server.Database;
using Garten.Server.Features.People;
using Npgsql;

namespace Garten.Server.Features.Devices;

/// <summary>The devices that may reach this server from beyond its own machine.</summary>
internal sealed class DeviceRepository(NpgsqlDataSource database, TimeProvider clock)
{
    // So often at most it is noted that a device was here.
    private static readonly TimeSpan SeenEvery = TimeSpan.FromHours(1);
    private const int TokenBytes = 32;

    /// <summary>All, the last paired first.</summary>
    public async Task<IReadOnlyList<PairedDevice>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection.Command($"{Select} order by d.paired_at desc, d.id").ReadAllAsync(Read, stop);
    }

    /// <summary>The device that shows a token; null where none does, or not any more.</summary>
    public async Task<PairedDevice?> FindAsync(string token, CancellationToken stop)
    {
        // Asked of the database each time: one that was taken out a moment ago isn't let in.
        var hash = Hash(token);
        var now = clock.GetUtcNow();
        await using var connection = await database.OpenConnectionAsync(stop);
        var found = await connection.Command($"{Select} where d.token_hash = $1 and d.revoked_at is null", hash).ReadAllAsync(Read, stop);
        if (found is not [var device])
            return null;
        if (now - device.SeenAt >= SeenEvery)
            await connection.Command("update paired_device set seen_at = $2 where id = $1", device.Id, now).RunAsync(stop);
        return device;
    }

    /// <summary>Notes that a device is paired, and answers with what it shows from now on; null where this id is another person's
    /// device.</summary>
    public async Task<string?> PairAsync(Guid id, PersonReference person, string name, CancellationToken stop)
    {
        var token = Convert.ToBase64String(RandomNumberGenerator.GetBytes(TokenBytes)).TrimEnd('=').Replace('+', '-').Replace('/', '_');
        await using var connection = await database.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(stop);
        await PersonRepository.EnsureAsync(connection, person, stop);
        var written = await connection
            .Command(
                """
                insert into paired_device (id, person, name, token_hash, paired_at, seen_at) values ($1, $2, $3, $4, $5, $5)
                on conflict (id) do update set person = excluded.person, name = excluded.name, token_hash = excluded.token_hash,
                    paired_at = excluded.paired_at, seen_at = excluded.seen_at, revoked_at = null
                where paired_device.person = excluded.person or paired_device.revoked_at is not null
                """,
                id,
                person.Id,
                name,
                Hash(token),
                clock.GetUtcNow()
            )
            .RunAsync(stop);
        await transaction.CommitAsync(stop);
        return written == 1 ? token : null;
    }

    /// <summary>Lets a device in no more; false where there is none of this id.</summary>
    public async Task<bool> RevokeAsync(Guid id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var changed = await connection
            .Command("update paired_device set revoked_at = coalesce(revoked_at, $2) where id = $1", id, clock.GetUtcNow())
            .RunAsync(stop);
        return changed == 1;
    }

    /// <summary>Those of a person whose name is erased are let in no more, and lose the names that they were given.</summary>
    internal static Task ForgetOfAsync(NpgsqlConnection connection, Guid person, CancellationToken stop) =>
        connection
            .Command("update paired_device set name = '(erased)', revoked_at = coalesce(revoked_at, now()) where person = $1", person)
            .RunAsync(stop);

    private const string Select =
        "select d.id, d.person, p.name, d.name, d.paired_at, d.seen_at, d.revoked_at from paired_device d join person p on p.id = d.person";

    private static PairedDevice Read(NpgsqlDataReader r) =>
        new(
            r.GetGuid(0),
            new PersonReference(r.GetGuid(1), r.GetString(2)),
            r.GetString(3),
            r.GetFieldValue<DateTimeOffset>(4),
            r.GetFieldValue<DateTimeOffset>(5),
            r.IsDBNull(6) ? null : r.GetFieldValue<DateTimeOffset>(6)
        );

    private static byte[] Hash(string token) => SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(token));
}
