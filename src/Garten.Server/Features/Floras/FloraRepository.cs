using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Garten.Core.Botany;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Packs;
using Garten.Server.Database;
using Garten.Server.Features.Sources;
using Garten.Server.Features.Vocabulary;
using Npgsql;

namespace Garten.Server.Features.Floras;

/// <summary>A version of a flora as it is sent out.</summary>
/// <param name="Version">Its number, from 1; for a draft the one that it becomes.</param>
/// <param name="ContentHash">Hash of the pack, for the client's cache.</param>
/// <param name="Pack">The pack as JSON.</param>
internal sealed record PublishedFlora(int Version, string ContentHash, string Pack);

/// <summary>Floras as immutable packs, and drafts that wait to become one.</summary>
internal sealed class FloraRepository(NpgsqlDataSource database, CharacterTable glossary, SourceRepository sources, TimeProvider clock)
{
    // What a hash names never changes: a few floras are kept as they were read, with what is made of them.
    private static readonly ConcurrentDictionary<string, Loaded> Kept = new(StringComparer.Ordinal);
    private const int MostKept = 16;

    private sealed class Loaded
    {
        private readonly Lazy<FloraBook> _book;

        private Loaded(string hash, string pack)
        {
            Hash = hash;
            Flora = JsonSerializer.Deserialize(pack, CoreJson.Default.Flora)!;
            _book = new(() => new FloraBook(Flora));
        }

        public string Hash { get; }
        public Flora Flora { get; }
        public FloraBook Book => _book.Value;

        public static Loaded Keep(string hash, string pack)
        {
            if (Kept.Count >= MostKept)
                Kept.Clear();
            return Kept[hash] = new Loaded(hash, pack);
        }
    }

    // The binary form, and the flora made ready from it, as the browser does: both weigh the same columns.
    private sealed record Columns(string Hash, byte[] Bytes)
    {
        private readonly Lazy<ReadyFlora> _ready = new(() => ReadyFlora.Read(Bytes));

        public ReadyFlora Ready => _ready.Value;
    }

    private static readonly ConcurrentDictionary<string, Columns> KeptColumns = new(StringComparer.Ordinal);

    // Which core made a form: whatever changes in it may change what it writes.
    private static readonly string CoreMade = typeof(PackFile).Assembly.ManifestModule.ModuleVersionId.ToString();

    /// <summary>A version of a flora; null where there is none.</summary>
    /// <param name="id">The flora.</param>
    /// <param name="version">The version; null for the newest published one, or the draft of a flora that was never published.</param>
    /// <param name="stop">Ends the waiting.</param>
    public async Task<PublishedFlora?> FindAsync(string id, int? version, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await FindAsync(connection, id, version, stop);
    }

    private static async Task<PublishedFlora?> FindAsync(NpgsqlConnection connection, string id, int? version, CancellationToken stop)
    {
        var found = await connection
            .Command(
                "select version, content_hash, pack from flora where id = $1 and ($2::integer is null or version = $2) order by "
                    + "version desc limit 1",
                id,
                version
            )
            .ReadAllAsync(r => new PublishedFlora(r.GetInt32(0), r.GetString(1), r.GetString(2)), stop);
        if (found.Count > 0)
            return found[0];
        var drafts = await connection
            .Command(
                """
                select 1 + (select coalesce(max(f.version), 0) from flora f where f.id = d.id), content_hash, pack
                from flora_draft d where id = $1 and discarded_at is null
                """,
                id
            )
            .ReadAllAsync(r => new PublishedFlora(r.GetInt32(0), r.GetString(1), r.GetString(2)), stop);
        return drafts.Find(d => version is null || d.Version == version);
    }

    /// <summary>The newest published version of a flora made ready for reading, or its draft where it was never published; null where there
    /// is none.</summary>
    public async Task<FloraBook?> BookAsync(string id, CancellationToken stop) => (await LoadAsync(id, stop))?.Book;

    private async Task<Loaded?> LoadAsync(string id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await LoadAsync(connection, id, stop);
    }

    private static async Task<Loaded?> LoadAsync(NpgsqlConnection connection, string id, CancellationToken stop)
    {
        if (await HashAsync(connection, id, null, stop) is not { } hash)
            return null;
        if (Kept.TryGetValue(hash, out var loaded))
            return loaded;
        return await FindAsync(connection, id, null, stop) is { } found ? Loaded.Keep(found.ContentHash, found.Pack) : null;
    }

    // Of a version; without one of the newest published, or of the draft where none was.
    private static async Task<string?> HashAsync(NpgsqlConnection connection, string id, int? version, CancellationToken stop)
    {
        var hashes = await connection
            .Command(
                """
                (select content_hash from flora where id = $1 and ($2::integer is null or version = $2) order by version desc limit 1)
                union all (select content_hash from flora_draft d where id = $1 and discarded_at is null and not exists (select 1 from flora where id = $1) and coalesce($2, 1) = 1)
                union all (select content_hash from flora_draft d where id = $1 and discarded_at is null and $2 = 1 + (select max(version) from flora where id = $1))
                """,
                id,
                version
            )
            .ReadAllAsync(r => r.GetString(0), stop);
        return hashes.Count == 0 ? null : hashes[0];
    }

    private static async Task<Columns?> ColumnsAsync(NpgsqlConnection connection, string id, int? version, CancellationToken stop)
    {
        if (await HashAsync(connection, id, version, stop) is not { } hash)
            return null;
        if (KeptColumns.TryGetValue(hash, out var known))
            return known;
        var kept = await connection
            .Command(
                "select bytes from flora_columns where content_hash = $1 and form = $2 and core = $3",
                hash,
                (short)PackFile.Form,
                CoreMade
            )
            .ReadAllAsync(r => r.GetFieldValue<byte[]>(0), stop);
        if (kept.Count == 0)
        {
            if (
                (
                    Kept.GetValueOrDefault(hash)
                    ?? (await FindAsync(connection, id, version, stop) is { } found ? Loaded.Keep(found.ContentHash, found.Pack) : null)
                )
                is not { } loaded
            )
                return null;
            kept.Add(ReadyFlora.Write(loaded.Flora, await CitedAsync(connection, loaded.Flora.Vocabulary, stop)));
            await connection
                .Command(
                    "insert into flora_columns (content_hash, form, core, bytes) values ($1, $2, $3, $4) on conflict do nothing",
                    hash,
                    (short)PackFile.Form,
                    CoreMade,
                    kept[0]
                )
                .RunAsync(stop);
            await connection
                .Command(
                    "delete from flora_columns where content_hash = $1 and (form, core) <> ($2, $3)",
                    hash,
                    (short)PackFile.Form,
                    CoreMade
                )
                .RunAsync(stop);
        }
        if (KeptColumns.Count >= MostKept)
            KeptColumns.Clear();
        return KeptColumns[hash] = new Columns(hash, kept[0]);
    }

    /// <summary>The newest published version of a flora made ready for sifting and contrast; null where there is none.</summary>
    public async Task<ReadyFlora?> ReadyAsync(string id, CancellationToken stop)
    {
        if (await SourceAsync(id, stop) is { IsHidden: true })
            return null;
        await using var connection = await database.OpenConnectionAsync(stop);
        return await ReadyAsync(connection, id, stop);
    }

    /// <summary>The same by a connection that is open already: no request holds two.</summary>
    internal static async Task<ReadyFlora?> ReadyAsync(NpgsqlConnection connection, string id, CancellationToken stop)
    {
        if ((await ColumnsAsync(connection, id, null, stop))?.Ready is not { } ready)
            return null;
        var botany = (await VocabularyRepository.CurrentAsync(connection, stop)).Botany;
        return ReferenceEquals(ready.Given, botany) ? ready : await ready.AskAsync(flora => flora.With(botany), stop);
    }

    /// <summary>A version of a flora in its binary form, with the hash of its content; null where there is none.</summary>
    public async Task<(string ContentHash, byte[] Pack)?> PackAsync(string id, int? version, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await ColumnsAsync(connection, id, version, stop) is { } columns ? (columns.Hash, columns.Bytes) : null;
    }

    /// <summary>Makes the binary form of every flora that lacks it: after an update of the program, before anybody asks.</summary>
    public async Task PrepareAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        foreach (
            var id in await connection
                .Command("select distinct id from flora union select id from flora_draft where discarded_at is null")
                .ReadAllAsync(r => r.GetString(0), stop)
        )
            await ColumnsAsync(connection, id, null, stop);
    }

    // A version is never changed, nor is its grid.
    private readonly System.Collections.Concurrent.ConcurrentDictionary<string, FloraGrid?> _grids = new(StringComparer.Ordinal);

    private async Task ReadGridsAsync(NpgsqlConnection connection, string[] hashes, CancellationToken stop)
    {
        var wanted = hashes.Where(h => !_grids.ContainsKey(h)).ToArray();
        if (wanted.Length == 0)
            return;
        foreach (
            var (hash, grid) in await connection
                .Command("select content_hash, pack::json->'grid' from flora where content_hash = any($1)", (object)wanted)
                .ReadAllAsync(r => (r.GetString(0), r.IsDBNull(1) ? "null" : r.GetString(1)), stop)
        )
            _grids[hash] = JsonSerializer.Deserialize(grid, CoreJson.Default.FloraGrid);
    }

    /// <summary>All floras and drafts, by name.</summary>
    public async Task<IReadOnlyList<FloraSummary>> ListAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var newest = await connection
            .Command("select distinct on (id) id, name, version, taxa, characters, content_hash from flora order by id, version desc")
            .ReadAllAsync(
                r =>
                    (
                        It: new FloraSummary(r.GetString(0), r.GetString(1), r.GetInt32(2), r.GetInt32(3), r.GetInt32(4), null),
                        Hash: r.GetString(5)
                    ),
                stop
            );
        await ReadGridsAsync(connection, [.. newest.Select(f => f.Hash)], stop);
        var published = newest.ConvertAll(f => f.It with { Grid = _grids[f.Hash] });
        var drafts = await connection
            .Command("select id, name, taxa, characters, problems from flora_draft where discarded_at is null")
            .ReadAllAsync(
                r =>
                    (
                        Name: r.GetString(1),
                        Draft: new FloraImport(
                            r.GetString(0),
                            1,
                            r.GetInt32(2),
                            r.GetInt32(3),
                            JsonSerializer.Deserialize(r.GetString(4), CoreJson.Default.IReadOnlyListFloraProblem)!
                        )
                    ),
                stop
            );
        foreach (var (name, draft) in drafts)
        {
            var at = published.FindIndex(f => f.Id == draft.Id);
            if (at >= 0)
                published[at] = published[at] with { Draft = draft with { Version = published[at].Version + 1 } };
            else
                published.Add(new FloraSummary(draft.Id, name, 0, draft.Taxa, draft.Characters, draft));
        }
        var known = await sources.ListAsync(connection, SourcedText.Flora, stop);
        return FloraSummary.WithDefault([
            .. published
                .Where(f => known.GetValueOrDefault(f.Id) is not { IsHidden: true })
                .OrderBy(f => f.Name, StringComparer.Ordinal)
                .Select(f => f with { Source = known.GetValueOrDefault(f.Id)?.Source }),
        ]);
    }

    /// <summary>Keeps where the text is from that a flora was made of, where that isn't known already.</summary>
    public async Task TellSourceAsync(string id, TextSource? source, Guid? device, CancellationToken stop)
    {
        if (source is null || (await sources.FindAsync(SourcedText.Flora, id, stop))?.Source == source)
            return;
        await using var connection = await database.OpenConnectionAsync(stop);
        await SourceRepository.TellAsync(connection, SourcedText.Flora, id, source, device, clock.GetUtcNow(), stop);
    }

    /// <summary>The source of the text that a flora was made of; null where nothing is said of it.</summary>
    public Task<KnownSource?> SourceAsync(string id, CancellationToken stop) => sources.FindAsync(SourcedText.Flora, id, stop);

    /// <summary>The taxa of the newest versions of all floras, ordered by name; of two with the same id the first flora's.</summary>
    public async Task<IReadOnlyList<Taxon>> TaxaAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return TaxaOf(await SeenAsync(connection, stop));
    }

    /// <summary>The newest versions of the floras that who asks may see.</summary>
    public async Task<IReadOnlyList<Flora>> SeenAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await SeenAsync(connection, stop);
    }

    // What another device brought for itself isn't among the floras of who asks.
    internal async Task<List<Flora>> SeenAsync(NpgsqlConnection connection, CancellationToken stop)
    {
        var known = await sources.ListAsync(connection, SourcedText.Flora, stop);
        var floras = await FlorasAsync(connection, stop);
        return floras.FindAll(f => known.GetValueOrDefault(f.Id) is not { IsHidden: true });
    }

    private (string Of, SensitiveTaxa Made)? _sensitive;

    /// <summary>Which taxa of the newest versions of all floras are sensitive, and the grids that their positions are coarsened
    /// to.</summary>
    public async Task<SensitiveTaxa> SensitiveAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await SensitiveAsync(connection, stop);
    }

    internal async Task<SensitiveTaxa> SensitiveAsync(NpgsqlConnection connection, CancellationToken stop)
    {
        var newest = await connection
            .Command("select distinct on (id) content_hash from flora order by id, version desc")
            .ReadAllAsync(r => r.GetString(0), stop);
        var of = string.Join(' ', newest);
        if (_sensitive is { } known && known.Of == of)
            return known.Made;
        var made = new SensitiveTaxa(await FlorasAsync(connection, stop));
        _sensitive = (of, made);
        return made;
    }

    /// <summary>
    /// Taxa and table that keys are followed with: those of the floras that have a taxon which the keys name. The glossary that ships with
    /// the program where no flora has characters.
    /// </summary>
    public async Task<(IReadOnlyList<Taxon> Taxa, CharacterTable Table)> ForKeysAsync(IEnumerable<string> names, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        var wanted = names.ToHashSet(StringComparer.Ordinal);
        var floras = await SeenAsync(connection, stop);
        var used = floras.Where(f => f.Taxa.Any(t => wanted.Contains(t.Name))).ToList();
        var botany = (await VocabularyRepository.CurrentAsync(connection, stop)).Botany;
        return (TaxaOf(used), TableOf(used, glossary) with { Botany = botany });
    }

    /// <summary>The tables of all floras as one; the glossary that ships with the program where none has characters.</summary>
    internal static async Task<CharacterTable> TableAsync(NpgsqlConnection connection, CharacterTable glossary, CancellationToken stop) =>
        TableOf(await FlorasAsync(connection, stop), glossary) with
        {
            Botany = (await VocabularyRepository.CurrentAsync(connection, stop)).Botany,
        };

    private static List<Taxon> TaxaOf(IEnumerable<Flora> floras) =>
        [.. floras.SelectMany(f => f.Taxa).DistinctBy(t => t.Id).OrderBy(t => t.Name, StringComparer.Ordinal)];

    private static CharacterTable TableOf(IEnumerable<Flora> floras, CharacterTable glossary)
    {
        var tables = floras.Select(f => f.Table).OfType<CharacterTable>().Where(t => t.Characters.Count > 0).ToList();
        return tables.Count == 0 ? glossary : CharacterTable.Join(tables);
    }

    private static async Task<List<Flora>> FlorasAsync(NpgsqlConnection connection, CancellationToken stop)
    {
        var newest = await connection
            .Command("select distinct on (id) id, version, content_hash from flora order by id, version desc")
            .ReadAllAsync(r => (Id: r.GetString(0), Version: r.GetInt32(1), Hash: r.GetString(2)), stop);
        var floras = new List<Flora>();
        foreach (var (id, version, hash) in newest)
        {
            if (!Kept.TryGetValue(hash, out var loaded))
            {
                var packs = await connection
                    .Command("select pack from flora where id = $1 and version = $2", id, version)
                    .ReadAllAsync(r => r.GetString(0), stop);
                loaded = Loaded.Keep(hash, packs[0]);
            }
            floras.Add(loaded.Flora);
        }
        return floras;
    }

    /// <summary>Publishes a flora as its next version; nothing happens when the newest one says the same.</summary>
    public async Task PublishAsync(Flora flora, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(flora);
        await using var connection = await database.OpenConnectionAsync(stop);
        var pack = JsonSerializer.Serialize(await CitedAsync(connection, flora, stop), CoreJson.Default.Flora);
        await PublishAsync(connection, flora.Id, HashOf(pack), pack, stop);
    }

    private static async Task<Core.Botany.Vocabulary?> CitedAsync(NpgsqlConnection connection, string? hash, CancellationToken stop) =>
        hash is { Length: > 0 } && await VocabularyRepository.FindAsync(connection, hash, stop) is { } json
            ? JsonSerializer.Deserialize(json, CoreJson.Default.Vocabulary)
            : null;

    // A flora whose characters are made of parts and qualities names the vocabulary that they were made of.
    private async Task<Flora> CitedAsync(NpgsqlConnection connection, Flora flora, CancellationToken stop) =>
        flora.Table?.Characters.Any(c => CharacterId.IsComposed(c.Id)) == true
            ? flora with
            {
                Vocabulary = await VocabularyRepository.KeepAsync(connection, clock.GetUtcNow(), stop),
            }
            : flora;

    private static async Task PublishAsync(NpgsqlConnection connection, string id, string hash, string pack, CancellationToken stop) =>
        await connection
            .Command(
                """
                insert into flora (id, version, content_hash, pack)
                select $1, coalesce(max(version), 0) + 1, $2, $3 from flora where id = $1
                having coalesce((array_agg(content_hash order by version desc))[1], '') <> $2
                """,
                id,
                hash
            )
            .With(Sql.Json(pack))
            .RunAsync(stop);

    /// <summary>Keeps a draft, in place of one of the same id.</summary>
    public async Task<FloraImport> SaveDraftAsync(Flora flora, IReadOnlyList<FloraProblem> problems, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(flora);
        await using var connection = await database.OpenConnectionAsync(stop);
        var pack = JsonSerializer.Serialize(await CitedAsync(connection, flora, stop), CoreJson.Default.Flora);
        var (taxa, characters) = (flora.Taxa.Count, flora.Table?.Characters.Count ?? 0);
        await using var command = connection
            .Command(
                """
                insert into flora_draft (id, name, content_hash, taxa, characters, pack, made_at, discarded_at, problems) values ($1, $2, $3, $4, $5, $6, $7, null, $8)
                on conflict (id) do update set name = $2, content_hash = $3, taxa = $4, characters = $5, pack = $6, made_at = $7, discarded_at = null, problems = $8
                returning 1 + (select coalesce(max(f.version), 0) from flora f where f.id = $1)
                """,
                flora.Id,
                flora.Name,
                HashOf(pack),
                taxa,
                characters,
                pack,
                clock.GetUtcNow()
            )
            .With(Sql.Json(JsonSerializer.Serialize(problems, CoreJson.Default.IReadOnlyListFloraProblem)));
        command.CommandTimeout = 120;
        var version = (int)(await command.ExecuteScalarAsync(stop))!;
        return new FloraImport(flora.Id, version, taxa, characters, problems);
    }

    /// <summary>Publishes a draft as the next version of its flora, at once and wholly; null where there is no draft.</summary>
    public async Task<FloraVersion?> PublishDraftAsync(string id, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(stop);
        var drafts = await connection
            .Command("delete from flora_draft where id = $1 and discarded_at is null returning content_hash, pack", id)
            .ReadAllAsync(r => (Hash: r.GetString(0), Pack: r.GetString(1)), stop);
        if (drafts.Count == 0)
            return null;
        await PublishAsync(connection, id, drafts[0].Hash, drafts[0].Pack, stop);
        var versions = await connection.Command("select max(version) from flora where id = $1", id).ReadAllAsync(r => r.GetInt32(0), stop);
        await transaction.CommitAsync(stop);
        return new FloraVersion(id, versions[0]);
    }

    /// <summary>Sets a draft aside, or takes it up again; false where there is none.</summary>
    public async Task<bool> DiscardDraftAsync(string id, bool discarded, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
                .Command("update flora_draft set discarded_at = $2 where id = $1", id, discarded ? clock.GetUtcNow() : null)
                .RunAsync(stop) > 0;
    }

    private static string HashOf(string pack) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(pack)));
}
