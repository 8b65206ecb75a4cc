using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Npgsql;

namespace Garten.Storage;

/// <summary>A published version of a flora.</summary>
/// <param name="Version">Its number, from 1.</param>
/// <param name="ContentHash">Hash of the pack, for the client's cache.</param>
/// <param name="Pack">The pack as JSON.</param>
public sealed record PublishedFlora(int Version, string ContentHash, string Pack);

/// <summary>Floras as immutable packs.</summary>
public sealed class FloraRepository(NpgsqlDataSource database, CharacterTable glossary)
{
    /// <summary>The newest version of a flora; null where there is none of this id.</summary>
    public async Task<PublishedFlora?> NewestAsync(string id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var found = await connection.Command("select version, content_hash, pack from flora where id = $1 order by version desc limit 1", id)
            .ReadAllAsync(r => new PublishedFlora(r.GetInt32(0), r.GetString(1), r.GetString(2)), stop);
        return found.Count == 0 ? null : found[0];
    }

    /// <summary>The taxa of the newest versions of all floras, ordered by name.</summary>
    public async Task<IReadOnlyList<Taxon>> TaxaAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var packs = await connection.Command("select distinct on (id) pack from flora order by id, version desc").ReadAllAsync(r => r.GetString(0), stop);
        return [.. packs.SelectMany(p => JsonSerializer.Deserialize(p, CoreJson.Default.Flora)!.Taxa).OrderBy(t => t.Name, StringComparer.Ordinal)];
    }

    /// <summary>
    /// Characters, descriptions and seasons of the newest versions of all floras; the glossary that ships with the program where no flora
    /// has characters.
    /// </summary>
    public async Task<CharacterTable> TableAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await TableAsync(connection, glossary, stop);
    }

    internal static async Task<CharacterTable> TableAsync(NpgsqlConnection connection, CharacterTable glossary, CancellationToken stop)
    {
        var packs = await connection.Command("select distinct on (id) pack from flora order by id, version desc").ReadAllAsync(r => r.GetString(0), stop);
        var tables = packs.Select(p => JsonSerializer.Deserialize(p, CoreJson.Default.Flora)!.Table).OfType<CharacterTable>().Where(t => t.Characters.Count > 0).ToList();
        if (tables.Count == 0) return glossary;
        return new CharacterTable([.. tables.SelectMany(t => t.Characters).DistinctBy(c => c.Id)], [.. tables.SelectMany(t => t.Descriptions).DistinctBy(d => d.Taxon)], [.. tables.SelectMany(t => t.Seasons).DistinctBy(w => w.Phase)]);
    }

    /// <summary>Publishes a flora as its next version; nothing happens when the newest one says the same.</summary>
    public async Task PublishAsync(Flora flora, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var pack = JsonSerializer.Serialize(flora, CoreJson.Default.Flora);
        var hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(pack)));
        await using var connection = await database.OpenConnectionAsync(stop);
        await connection.Command(
            """
            insert into flora (id, version, content_hash, pack)
            select $1, coalesce(max(version), 0) + 1, $2, $3 from flora where id = $1
            having coalesce((array_agg(content_hash order by version desc))[1], '') <> $2
            """, flora.Id, hash).With(Sql.Json(pack)).RunAsync(stop);
    }
}
