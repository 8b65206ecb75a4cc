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

/// <summary>The looks at a plant.</summary>
/// <param name="Readable">Those with which something can be worked out, in the order in which they came in.</param>
/// <param name="Unreadable">Those that are kept and can't be read.</param>
internal sealed record PlantLooks(IReadOnlyList<Observation> Readable, IReadOnlyList<UnreadableFact> Unreadable)
{
    public static PlantLooks None { get; } = new([], []);
}

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
    internal static async Task<PlantLooks> OfPlantAsync(
        NpgsqlConnection connection,
        Guid plant,
        CharacterTable glossary,
        CancellationToken stop
    ) => (await OfPlantsAsync(connection, [plant], glossary, stop)).GetValueOrDefault(plant) ?? PlantLooks.None;

    /// <summary>The same for several plants at once; those without any look aren't there.</summary>
    internal static async Task<Dictionary<Guid, PlantLooks>> OfPlantsAsync(
        NpgsqlConnection connection,
        Guid[] plants,
        CharacterTable glossary,
        CancellationToken stop
    )
    {
        var rows = await connection
            .Command(
                "select id, character, observed_on, content, is_known, plant_id from observation where plant_id = any($1) order by number",
                (object)plants
            )
            .ReadAllAsync(r => (Look: Read(r), IsKnown: r.GetBoolean(4), Plant: r.GetGuid(5)), stop);
        // What wasn't known when it came in may be now.
        var table = rows.TrueForAll(r => r.IsKnown) ? null : await FloraRepository.TableAsync(connection, glossary, stop);
        return rows.GroupBy(r => r.Plant)
            .ToDictionary(
                g => g.Key,
                g =>
                {
                    var all = g.Select(r =>
                            r is { IsKnown: false, Look.Readable: { } look } && EvidenceSheet.IsUnknown(look, table!.Find(look.Character))
                                ? (Readable: null, Unreadable: Unknown(look))
                                : r.Look
                        )
                        .ToList();
                    return new PlantLooks(
                        [.. all.Select(l => l.Readable).OfType<Observation>()],
                        [.. all.Select(l => l.Unreadable).OfType<UnreadableFact>()]
                    );
                }
            );
    }

    private static UnreadableFact Unknown(Observation look) =>
        new(look.Id, look.Character, look.Date, "This character, or what was seen of it, isn't known here yet.");

    private static (Observation? Readable, UnreadableFact? Unreadable) Read(NpgsqlDataReader r)
    {
        UnreadableFact Because(string why) =>
            new(r.GetGuid(0), r.GetString(1), r.GetFieldValue<DateOnly>(2).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture), why);
        try
        {
            var look = JsonSerializer.Deserialize(r.GetString(3), CoreJson.Default.Observation)!;
            return look.Readings.Any(x =>
                !(x.Value == 0 || x.Value is >= Smallest and <= Largest) || !(x.Resolution <= Largest) || !(x.Calibration <= Largest)
            )
                ? (null, Because("A reading of it is beyond all that is measured of plants."))
                : (look, null);
        }
        catch (JsonException)
        {
            return (null, Because("It was written in a form that can't be read any more."));
        }
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
                command.Parameters.Add(new NpgsqlParameter { Value = Sql.Storable(value) ?? DBNull.Value });
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
