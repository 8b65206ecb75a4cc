using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Garten.Core.Botany;
using Garten.Core.Contracts;
using Garten.Core.Packs;
using Garten.Formats;
using Garten.Server.Database;
using Npgsql;

namespace Garten.Server.Features.Vocabulary;

/// <summary>A vocabulary with the hash of its content and its JSON.</summary>
/// <param name="Botany">The vocabulary, ready to be asked.</param>
/// <param name="Hash">SHA-256 of the JSON.</param>
/// <param name="Json">The vocabulary as JSON.</param>
internal sealed record VocabularyVersion(BotanyIndex Botany, string Hash, string Json)
{
    private readonly Lazy<byte[]> _packed = new(() => VocabularyFile.Write(Botany.Vocabulary, Hash));

    /// <summary>The same in its binary form.</summary>
    public byte[] Packed => _packed.Value;

    public static VocabularyVersion Of(Core.Botany.Vocabulary vocabulary)
    {
        var json = JsonSerializer.Serialize(vocabulary, CoreJson.Default.Vocabulary);
        var hash = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(json)));
        return new(new BotanyIndex(vocabulary, hash), hash, json);
    }
}

/// <summary>The parts and qualities that ship, with what curators have added.</summary>
internal sealed class VocabularyRepository(NpgsqlDataSource database)
{
    // By the id of the newest entry, which no other database has.
    private static readonly ConcurrentDictionary<Guid, VocabularyVersion> Known = new();
    private static readonly Lazy<VocabularyVersion> Shipped = new(() => VocabularyVersion.Of(ShippedVocabulary.Botany.Vocabulary));

    // Older ones are asked for by nobody.
    private const int MostKnown = 8;

    /// <summary>The vocabulary as it is now.</summary>
    public async Task<VocabularyVersion> CurrentAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await CurrentAsync(connection, stop);
    }

    /// <summary>The vocabulary as it is now, by a connection that is open already.</summary>
    internal static async Task<VocabularyVersion> CurrentAsync(NpgsqlConnection connection, CancellationToken stop)
    {
        var newest = await connection
            .Command("select id from vocabulary_entry order by number desc limit 1")
            .ReadAllAsync(r => r.GetGuid(0), stop);
        if (newest.Count == 0)
            return Shipped.Value;
        if (Known.TryGetValue(newest[0], out var known))
            return known;
        if (Known.Count >= MostKnown)
            Known.Clear();
        return Known[newest[0]] = VocabularyVersion.Of(
            (await EntriesAsync(connection, stop)).Aggregate(ShippedVocabulary.Botany.Vocabulary, (all, e) => With(all, e.Part, e.Quality))
        );
    }

    private static async Task<List<(Part? Part, Quality? Quality)>> EntriesAsync(NpgsqlConnection connection, CancellationToken stop) =>
        await connection
            .Command("select kind, content from vocabulary_entry order by number")
            .ReadAllAsync(
                r =>
                    r.GetString(0) == "part"
                        ? (JsonSerializer.Deserialize(r.GetString(1), CoreJson.Default.Part), (Quality?)null)
                        : (null, JsonSerializer.Deserialize(r.GetString(1), CoreJson.Default.Quality)),
                stop
            );

    /// <summary>A vocabulary with one part or quality more, or in another form.</summary>
    internal static Core.Botany.Vocabulary With(Core.Botany.Vocabulary vocabulary, Part? part, Quality? quality)
    {
        var (parts, qualities) = (vocabulary.Parts.ToList(), vocabulary.Qualities.ToList());
        if (part is not null)
            Replace(parts, part, p => p.Id == part.Id);
        if (quality is not null)
            Replace(qualities, quality, q => q.Id == quality.Id);
        return vocabulary with { Parts = parts, Qualities = qualities };
    }

    private static void Replace<T>(List<T> all, T one, Predicate<T> isIt)
    {
        var at = all.FindIndex(isIt);
        if (at < 0)
            all.Add(one);
        else
            all[at] = one;
    }

    internal static async Task AddAsync(
        NpgsqlConnection connection,
        DefineTermCommand define,
        DateTimeOffset now,
        CancellationToken stop
    ) =>
        await connection
            .Command(
                "insert into vocabulary_entry (id, kind, entry, defined_at, content) values ($1, $2, $3, $4, $5)",
                define.Id,
                define.Part is null ? "quality" : "part",
                define.Part?.Id ?? define.Quality!.Id,
                now
            )
            .With(
                Sql.Json(
                    define.Part is { } part
                        ? JsonSerializer.Serialize(part, CoreJson.Default.Part)
                        : JsonSerializer.Serialize(define.Quality!, CoreJson.Default.Quality)
                )
            )
            .RunAsync(stop);

    /// <summary>Keeps the vocabulary that something is published with, whole; answers with its hash.</summary>
    internal static async Task<string> KeepAsync(NpgsqlConnection connection, DateTimeOffset now, CancellationToken stop)
    {
        var current = await CurrentAsync(connection, stop);
        await connection
            .Command(
                "insert into vocabulary_version (hash, content, kept_at) values ($1, $2, $3) on conflict do nothing",
                current.Hash,
                current.Json,
                now
            )
            .RunAsync(stop);
        return current.Hash;
    }

    /// <summary>The JSON of a vocabulary: the one of now, or one that something was published with; null where there is none.</summary>
    public async Task<string?> FindAsync(string hash, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await FindAsync(connection, hash, stop);
    }

    /// <summary>The same by a connection that is open already.</summary>
    internal static async Task<string?> FindAsync(NpgsqlConnection connection, string hash, CancellationToken stop)
    {
        if (await CurrentAsync(connection, stop) is { } current && current.Hash == hash)
            return current.Json;
        var found = await connection
            .Command("select content from vocabulary_version where hash = $1", hash)
            .ReadAllAsync(r => r.GetString(0), stop);
        return found.Count > 0 ? found[0] : null;
    }
}
