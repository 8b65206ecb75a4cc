using System.Globalization;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Language;
using Garten.Server.Database;
using Garten.Server.Features.Floras;
using Npgsql;

namespace Garten.Server.Features.Evidence;

/// <summary>Looks at plants, and what persons have taught the reader of statements.</summary>
internal sealed class EvidenceRepository(NpgsqlDataSource database)
{
    /// <summary>The terms that persons have taught, oldest first.</summary>
    public async Task<IReadOnlyList<TaughtTerm>> TaughtAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command("select character, state, term, book from taught_term order by number")
            .ReadAllAsync(r => new TaughtTerm(r.GetString(0), r.GetString(1), r.GetString(2), r.GetString(3)), stop);
    }

    /// <summary>The readings that persons have set, the newest of each statement.</summary>
    public async Task<IReadOnlyList<CorrectedStatement>> CorrectedAsync(CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        return await connection
            .Command("select distinct on (statement) statement, claims from corrected_statement order by statement, number desc")
            .ReadAllAsync(
                r => new CorrectedStatement(
                    r.GetString(0),
                    JsonSerializer.Deserialize(r.GetString(1), CoreJson.Default.IReadOnlyListStatementClaim)!
                ),
                stop
            );
    }

    // What is larger or smaller than any bound of any kind of reading; the bounds of each kind are held where a look comes in and where it
    // is weighed.
    private const double Largest = 1e9;
    private const double Smallest = 1e-9;

    /// <summary>The looks at a plant, and those that can't be read: they stay, and take nothing with them.</summary>
    internal static async Task<(IReadOnlyList<Observation> Readable, IReadOnlyList<UnreadableFact> Unreadable)> OfPlantAsync(
        NpgsqlConnection connection,
        Guid plant,
        CharacterTable glossary,
        CancellationToken stop
    )
    {
        var readable = new List<Observation>();
        var unreadable = new List<UnreadableFact>();
        var unsure = new HashSet<Guid>();
        await connection
            .Command("select id, character, observed_on, content, is_known from observation where plant_id = $1 order by number", plant)
            .ReadAllAsync(
                r =>
                {
                    string? why = null;
                    try
                    {
                        var look = JsonSerializer.Deserialize(r.GetString(3), CoreJson.Default.Observation)!;
                        if (
                            look.Readings.Any(x =>
                                !(x.Value == 0 || x.Value is >= Smallest and <= Largest)
                                || !(x.Resolution <= Largest)
                                || !(x.Calibration <= Largest)
                            )
                        )
                            why = "A reading of it is beyond all that is measured of plants.";
                        else
                            readable.Add(look);
                        if (!r.GetBoolean(4))
                            unsure.Add(look.Id);
                    }
                    catch (JsonException)
                    {
                        why = "It was written in a form that can't be read any more.";
                    }
                    if (why is not null)
                        unreadable.Add(
                            new UnreadableFact(
                                r.GetGuid(0),
                                r.GetString(1),
                                r.GetFieldValue<DateOnly>(2).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                                why
                            )
                        );
                    return true;
                },
                stop
            );
        if (unsure.Count > 0)
        {
            // What wasn't known when it came in may be now.
            var table = await FloraRepository.TableAsync(connection, glossary, stop);
            foreach (var look in readable.Where(o => unsure.Contains(o.Id) && EvidenceSheet.IsUnknown(o, table.Find(o.Character))))
                unreadable.Add(
                    new UnreadableFact(look.Id, look.Character, look.Date, "This character, or what was seen of it, isn't known here yet.")
                );
            var left = unreadable.Select(u => u.Id).ToHashSet();
            readable.RemoveAll(o => left.Contains(o.Id));
        }
        return (readable, unreadable);
    }

    /// <summary>Which of these ids are taken, and by which plant.</summary>
    internal static async Task<Dictionary<Guid, Guid>> KnownAsync(NpgsqlConnection connection, Guid[] ids, CancellationToken stop) =>
        (
            await connection
                .Command("select id, plant_id from observation where id = any($1)", ids)
                .ReadAllAsync(r => (Id: r.GetGuid(0), Plant: r.GetGuid(1)), stop)
        ).ToDictionary(o => o.Id, o => o.Plant);

    // All in one way there and back.
    internal static async Task AddAsync(
        NpgsqlConnection connection,
        Guid plant,
        Guid observer,
        NewLooks looks,
        DateTimeOffset now,
        CancellationToken stop
    )
    {
        if (looks.All.Count == 0)
            return;
        var known = looks.Known.Select(o => o.Id).ToHashSet();
        await using var batch = new NpgsqlBatch(connection);
        foreach (var look in looks.All)
        {
            var command = new NpgsqlBatchCommand(
                "insert into observation (id, plant_id, character, observed_on, supersedes, observer, recorded_at, is_known, content) values ($1, $2, $3, $4, $5, $6, $7, $8, $9)"
            );
            foreach (
                var value in new object?[]
                {
                    look.Id,
                    plant,
                    look.Character,
                    DateOnly.ParseExact(look.Date, "yyyy-MM-dd", CultureInfo.InvariantCulture),
                    look.Supersedes,
                    observer,
                    now,
                    known.Contains(look.Id),
                }
            )
                command.Parameters.Add(new NpgsqlParameter { Value = value ?? DBNull.Value });
            command.Parameters.Add(Sql.Json(JsonSerializer.Serialize(look, CoreJson.Default.Observation)));
            batch.BatchCommands.Add(command);
        }
        await batch.ExecuteNonQueryAsync(stop);
    }

    internal static async Task TeachAsync(NpgsqlConnection connection, TeachTermCommand it, DateTimeOffset now, CancellationToken stop) =>
        await connection
            .Command(
                "insert into taught_term (character, state, term, taught_at, book) values ($1, $2, $3, $4, $5)",
                it.Character,
                it.State,
                it.Term.Trim(),
                now,
                it.Book?.Trim() ?? ""
            )
            .RunAsync(stop);

    internal static async Task CorrectAsync(
        NpgsqlConnection connection,
        CorrectStatementCommand it,
        DateTimeOffset now,
        CancellationToken stop
    ) =>
        await connection
            .Command("insert into corrected_statement (statement, corrected_at, claims) values ($1, $2, $3)", it.Text, now)
            .With(Sql.Json(JsonSerializer.Serialize(it.Claims, CoreJson.Default.IReadOnlyListStatementClaim)))
            .RunAsync(stop);
}
