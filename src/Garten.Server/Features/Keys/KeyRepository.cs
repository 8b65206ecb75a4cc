using System.Collections.Concurrent;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Keys;
using Garten.Server.Database;
using Garten.Server.Features.Sources;
using Npgsql;

namespace Garten.Server.Features.Keys;

/// <summary>Keys and their versions.</summary>
internal sealed class KeyRepository(NpgsqlDataSource database, SourceRepository sources)
{
    // What a hash names never changes: a key is read out of its JSON once.
    private static readonly ConcurrentDictionary<string, Key> Known = new(StringComparer.Ordinal);
    private const int MostKnown = 1000;

    // The keys of these versions; the content only of those that aren't known yet.
    private static async Task<Dictionary<string, Key>> KeysAsync(
        NpgsqlConnection connection,
        IReadOnlyCollection<string> hashes,
        CancellationToken stop
    )
    {
        var keys = new Dictionary<string, Key>(StringComparer.Ordinal);
        foreach (var hash in hashes)
        {
            if (Known.TryGetValue(hash, out var known))
                keys[hash] = known;
        }
        var missing = hashes.Where(h => !keys.ContainsKey(h)).ToArray();
        if (missing.Length == 0)
            return keys;
        foreach (
            var (hash, key) in await connection
                .Command("select hash, content from key_version where hash = any($1)", (object)missing)
                .ReadAllAsync(r => (r.GetString(0), Content(r, 1)), stop)
        )
        {
            if (Known.Count >= MostKnown)
                Known.Clear();
            keys[hash] = Known[hash] = key;
        }
        return keys;
    }

    /// <summary>The newest version of every key, ordered by title.</summary>
    public async Task<IReadOnlyList<KeySummary>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var known = await sources.ListAsync(connection, SourcedText.Key, stop);
        var rows = await connection
            .Command(
                """
                select distinct on (title_plain) hash, title, version, added_at
                from key_version
                where hash <> all($1)
                order by title_plain, version desc
                """,
                (object)Hidden(known)
            )
            .ReadAllAsync(
                r => (Hash: r.GetString(0), Title: r.GetString(1), Version: r.GetInt32(2), At: r.GetFieldValue<DateTimeOffset>(3)),
                stop
            );
        var contents = await KeysAsync(connection, [.. rows.Select(r => r.Hash)], stop);
        var keys = rows.ConvertAll(r =>
            KeySummary.Of(r.Hash, r.Version, contents[r.Hash], r.At) with
            {
                Source = known.GetValueOrDefault(r.Hash)?.Source,
            }
        );
        return KeySummary.Entered(keys);
    }

    /// <summary>The newest version of every key by its title alone, ordered by it.</summary>
    public async Task<IReadOnlyList<TitledKey>> TitlesAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var known = await sources.ListAsync(connection, SourcedText.Key, stop);
        return await connection
            .Command(
                "select distinct on (title_plain) hash, title from key_version where hash <> all($1) order by title_plain, version desc",
                (object)Hidden(known)
            )
            .ReadAllAsync(r => new TitledKey(r.GetString(0), r.GetString(1)), stop);
    }

    // Of a key that another device brought for itself nobody else knows.
    private static string[] Hidden(IReadOnlyDictionary<string, KnownSource> known) =>
        [.. known.Where(k => k.Value.IsHidden).Select(k => k.Key)];

    /// <summary>A version with its text and its siblings; null where it isn't known to who asks.</summary>
    public async Task<KeyDetail?> FindAsync(string hash, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var sourced = await sources.ListAsync(connection, SourcedText.Key, stop);
        var source = sourced.GetValueOrDefault(hash);
        if (source is { IsHidden: true })
            return null;
        var found = await connection
            .Command("select hash, title, version, content, source_text, title_plain from key_version where hash = $1", hash)
            .ReadAllAsync(
                r =>
                    (
                        Hash: r.GetString(0),
                        Title: r.GetString(1),
                        Version: r.GetInt32(2),
                        Key: Content(r, 3),
                        Text: r.GetString(4),
                        Plain: r.GetString(5)
                    ),
                stop
            );
        if (found.Count == 0)
            return null;
        var it = found[0];
        var versions = await connection
            .Command(
                "select hash, version, added_at from key_version where title_plain = $1 and hash <> all($2) order by version desc",
                it.Plain,
                Hidden(sourced)
            )
            .ReadAllAsync(r => new KeyVersionSummary(r.GetString(0), r.GetInt32(1), r.GetFieldValue<DateTimeOffset>(2)), stop);
        return new KeyDetail(it.Hash, it.Title, it.Version, it.Key, it.Text, versions, source?.Source);
    }

    /// <summary>The newest version of every key, and besides them the versions named: what a walk or its check needs.</summary>
    public async Task<IReadOnlyList<KeyVersion>> ShelfAsync(IReadOnlyCollection<string> alsoThese, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var known = await sources.ListAsync(connection, SourcedText.Key, stop);
        var versions = await ShelfAsync(connection, alsoThese, stop, Hidden(known));
        return versions.ConvertAll(v => v with { Book = known.GetValueOrDefault(v.Hash)?.Source.Book ?? "" });
    }

    internal static async Task<List<KeyVersion>> ShelfAsync(
        NpgsqlConnection connection,
        IReadOnlyCollection<string> alsoThese,
        CancellationToken stop,
        string[]? without = null
    )
    {
        var hashes = await connection
            .Command(
                """
                select hash
                from key_version as k
                where hash <> all($2)
                    and (
                        hash = any($1)
                        or version = (select max(version) from key_version where title_plain = k.title_plain and hash <> all($2))
                    )
                order by version desc, added_at desc
                """,
                alsoThese.ToArray(),
                without ?? []
            )
            .ReadAllAsync(r => r.GetString(0), stop);
        var keys = await KeysAsync(connection, hashes, stop);
        return hashes.ConvertAll(h => new KeyVersion(h, keys[h]));
    }

    internal static async Task<SavedKey> SaveAsync(
        NpgsqlConnection connection,
        Key key,
        string sourceText,
        DateTimeOffset now,
        CancellationToken stop
    )
    {
        var hash = KeyHash.Of(key);
        var plain = KeyTitle.Plain(key.Title);
        // Two who save versions of one key at the same time take turns.
        await connection.Command("select pg_advisory_xact_lock(hashtextextended($1, 0))", "key:" + plain).RunAsync(stop);
        var known = await connection
            .Command("select title, version from key_version where hash = $1", hash)
            .ReadAllAsync(r => (r.GetString(0), r.GetInt32(1)), stop);
        if (known.Count > 0)
            return new SavedKey(known[0].Item1, hash, known[0].Item2, false);
        var version = await connection
            .Command(
                """
                insert into key_version (hash, title, title_plain, version, source_text, added_at, content)
                values ($1, $2, $3, (select coalesce(max(version), 0) + 1 from key_version where title_plain = $3), $4, $5, $6)
                returning version
                """,
                hash,
                key.Title,
                plain,
                sourceText,
                now
            )
            .With(Sql.Json(JsonSerializer.Serialize(key, CoreJson.Default.Key)))
            .ReadAllAsync(r => r.GetInt32(0), stop);
        return new SavedKey(key.Title, hash, version[0], true);
    }

    private static Key Content(NpgsqlDataReader row, int column) =>
        JsonSerializer.Deserialize(row.GetString(column), CoreJson.Default.Key)!;
}
