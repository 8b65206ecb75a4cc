using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Keys;
using Garten.Server.Database;
using Npgsql;

namespace Garten.Server.Features.Sources;

/// <summary>What a text is.</summary>
internal enum SourcedText
{
    Key,
    Flora,
}

/// <summary>What is known of the source of a text.</summary>
/// <param name="Source">The source.</param>
/// <param name="IsHidden">Whether who asks doesn't see the text.</param>
internal sealed record KnownSource(TextSource Source, bool IsHidden);

/// <summary>Where texts are from.</summary>
internal sealed class SourceRepository(NpgsqlDataSource database, Viewer viewer)
{
    /// <summary>The newest source of every text of a kind that has one.</summary>
    public async Task<IReadOnlyDictionary<string, KnownSource>> ListAsync(SourcedText kind, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await ListAsync(connection, kind, stop);
    }

    /// <inheritdoc cref="ListAsync(SourcedText, CancellationToken)"/>
    public async Task<IReadOnlyDictionary<string, KnownSource>> ListAsync(
        NpgsqlConnection connection,
        SourcedText kind,
        CancellationToken stop
    ) =>
        (
            await connection
                .Command(
                    "select distinct on (of_id) of_id, content, only_device from text_source where kind = $1 order by of_id, number desc",
                    NameOf(kind)
                )
                .ReadAllAsync(
                    r =>
                        (
                            Of: r.GetString(0),
                            Known: new KnownSource(
                                JsonSerializer.Deserialize(r.GetString(1), CoreJson.Default.TextSource)!,
                                viewer.IsHidden(r.IsDBNull(2) ? null : r.GetGuid(2))
                            )
                        ),
                    stop
                )
        ).ToDictionary(s => s.Of, s => s.Known, StringComparer.Ordinal);

    /// <summary>The source of a text; null where nothing is said of it.</summary>
    public async Task<KnownSource?> FindAsync(SourcedText kind, string of, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var found = await connection
            .Command(
                "select content, only_device from text_source where kind = $1 and of_id = $2 order by number desc limit 1",
                NameOf(kind),
                of
            )
            .ReadAllAsync(
                r => new KnownSource(
                    JsonSerializer.Deserialize(r.GetString(0), CoreJson.Default.TextSource)!,
                    viewer.IsHidden(r.IsDBNull(1) ? null : r.GetGuid(1))
                ),
                stop
            );
        return found.Count > 0 ? found[0] : null;
    }

    /// <summary>Keeps what is said of a text; null: what was said before holds.</summary>
    public static async Task TellAsync(
        NpgsqlConnection connection,
        SourcedText kind,
        string of,
        TextSource? source,
        Guid? device,
        DateTimeOffset now,
        CancellationToken stop
    )
    {
        if (source is null)
            return;
        await connection
            .Command(
                "insert into text_source (kind, of_id, only_device, told_at, content) values ($1, $2, $3, $4, $5)",
                NameOf(kind),
                of,
                source.OnlyHere ? device : null,
                now
            )
            .With(Sql.Json(JsonSerializer.Serialize(source, CoreJson.Default.TextSource)))
            .RunAsync(stop);
    }

    private static string NameOf(SourcedText kind) => kind == SourcedText.Key ? "key" : "flora";
}
