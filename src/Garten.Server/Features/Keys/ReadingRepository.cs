using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Keys;
using Garten.Server.Database;
using Garten.Server.Features.Vocabulary;
using Npgsql;

namespace Garten.Server.Features.Keys;

/// <summary>How the statements of key versions were read, by number.</summary>
internal sealed class ReadingRepository(NpgsqlDataSource database, TimeProvider clock)
{
    /// <summary>The number of the newest reading of each of these versions that has one.</summary>
    public async Task<IReadOnlyDictionary<string, int>> NewestAsync(IReadOnlyCollection<string> hashes, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return (
            await connection
                .Command("select hash, max(number) from key_reading where hash = any($1) group by hash", (object)hashes.ToArray())
                .ReadAllAsync(r => (Hash: r.GetString(0), Number: r.GetInt32(1)), stop)
        ).ToDictionary(r => r.Hash, r => r.Number, StringComparer.Ordinal);
    }

    private volatile string _readBy = "";

    /// <summary>Notes that every version is read as it was when its stamp was this.</summary>
    public void AllRead(string stamp) => _readBy = stamp;

    /// <summary>Whether every version was read since the last change that a reading hangs on.</summary>
    public async Task<bool> AreCurrentAsync(CancellationToken stop) => await StampAsync(stop) == _readBy;

    /// <summary>A shelf with the readings of its versions, where these are those of now; else as it was.</summary>
    public async Task<Shelf> WithReadingsAsync(Shelf shelf, CancellationToken stop)
    {
        var numbered = shelf.Versions.Where(v => v.Reading > 0).ToArray();
        if (numbered.Length == 0 || shelf.Table.Botany is not { Version.Length: > 0 } botany)
            return shelf;
        await using var connection = await database.OpenConnectionAsync(stop);
        var kept = await connection
            .Command(
                """
                select r.hash, r.number, r.content
                from unnest($1::text[], $2::int[]) as wanted (hash, number)
                join key_reading r using (hash, number)
                """,
                numbered.Select(v => v.Hash).ToArray(),
                numbered.Select(v => v.Reading).ToArray()
            )
            .ReadAllAsync(
                r => new KeptReading(
                    r.GetString(0),
                    r.GetInt32(1),
                    JsonSerializer.Deserialize(r.GetString(2), CoreJson.Default.IReadOnlyListCoupletReadings)!
                ),
                stop
            );
        // Asked last: what was changed meanwhile is read by whoever gets the shelf.
        return await AreCurrentAsync(stop) ? shelf with { Read = [.. kept.Select(ReadyReading.Of)], ReadBy = botany.Version } : shelf;
    }

    /// <summary>A reading; null where it isn't kept.</summary>
    public async Task<KeptReading?> FindAsync(string hash, int number, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return (await ReadAsync(connection, hash, number, stop)) is { } couplets ? new(hash, number, couplets) : null;
    }

    private static async Task<IReadOnlyList<CoupletReadings>?> ReadAsync(
        NpgsqlConnection connection,
        string hash,
        int number,
        CancellationToken stop
    ) =>
        (
            await connection
                .Command("select content from key_reading where hash = $1 and number = $2", hash, number)
                .ReadAllAsync(r => JsonSerializer.Deserialize(r.GetString(0), CoreJson.Default.IReadOnlyListCoupletReadings)!, stop)
        ).FirstOrDefault();

    /// <summary>Hashes of all versions, those first that were never read.</summary>
    public async Task<IReadOnlyList<string>> AllVersionsAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command(
                """
                select v.hash
                from key_version v
                order by exists (select 1 from key_reading r where r.hash = v.hash), v.added_at
                """
            )
            .ReadAllAsync(r => r.GetString(0), stop);
    }

    /// <summary>What readings hang on besides the program: changes whenever one may have to be made anew.</summary>
    public async Task<string> StampAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return (
            await connection
                .Command(
                    """
                    select concat_ws('/',
                        (select count(*) from key_version),
                        (select max(number) from taught_term),
                        (select max(number) from corrected_statement),
                        (select max(number) from vocabulary_entry),
                        (select max(number) from text_source),
                        (select count(*) from flora))
                    """
                )
                .ReadAllAsync(r => r.GetString(0), stop)
        )[0];
    }

    /// <summary>Keeps how a version is read now, as the next number, where it is read otherwise than at last; of one that was kept before
    /// readings had numbers first the one by the glossary.</summary>
    public async Task KeepAsync(BenchShelf shelf, KeyVersion version, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(stop);
        // Servers that start at one time take turns.
        await connection.Command("select pg_advisory_xact_lock(hashtextextended($1, 0))", "reading:" + version.Hash).RunAsync(stop);
        var newest = (
            await connection
                .Command("select coalesce(max(number), 0) from key_reading where hash = $1", version.Hash)
                .ReadAllAsync(r => r.GetInt32(0), stop)
        )[0];
        var isOlder =
            newest == 0
            && (
                await connection
                    .Command("select 1 from key_reading_by_glossary where hash = $1", version.Hash)
                    .ReadAllAsync(r => r.GetInt32(0), stop)
            ).Count > 0;
        var last = newest > 0 ? Written((await ReadAsync(connection, version.Hash, newest, stop))!) : "";
        if (isOlder)
        {
            last = Written(shelf.WholeReadingByGlossary(version));
            await AddAsync(connection, version.Hash, ++newest, "glossary", last, stop);
        }
        var now = Written(shelf.WholeReading(version));
        if (now != last)
            await AddAsync(connection, version.Hash, newest + 1, "grammar", now, stop);
        await transaction.CommitAsync(stop);
    }

    private static string Written(IReadOnlyList<CoupletReadings> couplets) =>
        JsonSerializer.Serialize(couplets, CoreJson.Default.IReadOnlyListCoupletReadings);

    private async Task AddAsync(
        NpgsqlConnection connection,
        string hash,
        int number,
        string reader,
        string content,
        CancellationToken stop
    ) =>
        await connection
            .Command(
                "insert into key_reading (hash, number, reader, read_at, vocabulary, content) values ($1, $2, $3, $4, $5, $6)",
                hash,
                number,
                reader,
                clock.GetUtcNow(),
                await VocabularyRepository.KeepAsync(connection, clock.GetUtcNow(), stop)
            )
            .With(Sql.Json(content))
            .RunAsync(stop);
}
