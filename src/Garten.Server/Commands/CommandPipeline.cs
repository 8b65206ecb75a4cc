using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Server.Database;
using Garten.Server.Features.Erasure;
using Garten.Server.Features.Places;
using Garten.Server.Features.Plants;
using Npgsql;
using NpgsqlTypes;

namespace Garten.Server.Commands;

/// <summary>A command as it came in.</summary>
/// <param name="Command">What it says.</param>
/// <param name="Hash">Hash of its canonical JSON: the same command sent again is known by it.</param>
internal sealed record ReceivedCommand(Command Command, string Hash);

/// <summary>
/// The one way in which records are written. Commands of a batch are carried out in one transaction, each wholly or not at all and each
/// once; each change
/// takes the next number of one counter, which is locked last, so that who reads on from a number never misses a change that was still
/// being written.
/// </summary>
internal sealed partial class CommandPipeline(
    NpgsqlDataSource database,
    TimeProvider clock,
    CommandHandlers handlers,
    ILogger<CommandPipeline> log
)
{
    // Two that wait for each other are told apart by the database; the one that it ended begins again.
    private const int MostTries = 4;

    // So many commands go into one transaction: each holds some locks of the database, which has a few thousand.
    private const int MostAtOnce = 100;

    // How hashes are made today. Those of form 0 were made of the command's type and can't be made again once it has a new field: there id
    // and kind suffice.
    private const short HashForm = 1;

    /// <summary>Carries out commands made by this program itself; otherwise as the other form.</summary>
    public Task<IReadOnlyList<CommandResult>> ApplyAsync(IEnumerable<Command> commands, CancellationToken stop) =>
        ApplyAsync(
            [
                .. commands.Select(c => new ReceivedCommand(
                    c,
                    CanonicalJson.Hash(JsonSerializer.SerializeToElement(c, CoreJson.Default.Command))
                )),
            ],
            Sender.Server,
            stop
        );

    /// <summary>
    /// Carries out commands in their order. A refusal is a result, not an exception, and so is a failure of the program's own; only a
    /// database that doesn't
    /// answer throws, and what it throws may pass: then nothing of the last hundred was carried out, and all can be sent again.
    /// </summary>
    public async Task<IReadOnlyList<CommandResult>> ApplyAsync(
        IReadOnlyList<ReceivedCommand> commands,
        Sender sender,
        CancellationToken stop
    )
    {
        var results = new List<CommandResult>(commands.Count);
        foreach (var chunk in commands.Chunk(MostAtOnce))
        {
            for (var tries = 1; ; tries++)
            {
                try
                {
                    // Nearly always all of a batch is taken. Where one isn't, all is done again, each so that it can be taken back alone.
                    results.AddRange(
                        (chunk.Length > 1 ? await ApplyOnceAsync(chunk, sender, isEachApart: false, stop) : null)
                            ?? (await ApplyOnceAsync(chunk, sender, isEachApart: true, stop))!
                    );
                    break;
                }
                catch (PostgresException error)
                    when (tries < MostTries
                        && error.SqlState is PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.SerializationFailure
                    )
                {
                    await Task.Delay(TimeSpan.FromMilliseconds(20 * tries), stop);
                }
            }
        }
        return results;
    }

    // Null where commands aren't kept apart and one of them isn't taken: then nothing was carried out.
    private async Task<CommandResult[]?> ApplyOnceAsync(ReceivedCommand[] commands, Sender sender, bool isEachApart, CancellationToken stop)
    {
        await using var connection = await database.OpenConnectionAsync(stop);
        await using var transaction = await connection.BeginTransactionAsync(stop);
        // All locks at once and in one order, so that no two batches wait for each other. The same command sent twice at once: the second
        // waits here for the first.
        var locks = commands
            .SelectMany(c => handlers.LocksOf(c.Command).Prepend($"command:{c.Command.Id}"))
            .Distinct(StringComparer.Ordinal)
            .Order(StringComparer.Ordinal)
            .ToArray();
        await connection
            .Command("select pg_advisory_xact_lock(hashtextextended(name, 0)) from unnest($1::text[]) as name", (object)locks)
            .RunAsync(stop);
        var before = (
            await connection
                .Command(
                    "select id, kind, body_hash, hash_form, result from command where id = any($1)",
                    (object)commands.Select(c => c.Command.Id).ToArray()
                )
                .ReadAllAsync(
                    r => (Id: r.GetGuid(0), Known: new KnownCommand(r.GetString(1), r.GetString(2), r.GetInt16(3), r.GetString(4))),
                    stop
                )
        ).ToDictionary(k => k.Id, k => k.Known);
        var erased = await ErasureRepository.AmongAsync(connection, [.. commands.SelectMany(c => CommandIds.Of(c.Command))], stop);
        var context = new CommandContext(connection, clock.GetUtcNow(), sender);
        // A device may not know yet that a place is part of another one.
        Guid[] named = [.. commands.Select(c => c.Command).OfType<IAtPlace>().SelectMany(c => c.PlacesNamed()).Distinct()];
        var merged = await PlaceRepository.MergedAsync(connection, named, stop);
        var results = new CommandResult[commands.Length];
        var written = new List<(ReceivedCommand Command, string Result)>();
        for (var i = 0; i < commands.Length; i++)
        {
            var it = commands[i];
            var result =
                erased.Count > 0 && CommandIds.Of(it.Command).Any(erased.Contains) ? RefusedBy(it.Command, Erased)
                : before.TryGetValue(it.Command.Id, out var known) ? Again(it, known)
                : it.Command.Id == Guid.Empty ? RefusedBy(it.Command, NoId)
                : isEachApart ? await CarryOutAsync(Standing(it.Command, merged), context, transaction, commands.Length > 1, stop)
                : await CarryOutAsync(Standing(it.Command, merged), context, stop);
            if (result is null)
                return null;
            results[i] = result;
            if (results[i].Status != CommandStatus.Applied)
                continue;
            if (it.Command is MergePlaceCommand)
                merged = await PlaceRepository.MergedAsync(connection, named, stop);
            var stored = JsonSerializer.Serialize(results[i], StoredResult.Default.CommandResult);
            written.Add((it, stored));
            before[it.Command.Id] = new KnownCommand(handlers.KindOf(it.Command), it.Hash, HashForm, stored);
        }
        if (context.PlantsChanged.Count > 0)
            await PlantNow.RefreshAsync(connection, context.PlantsChanged, stop);
        if (written.Count > 0)
            await WriteAsync(connection, written, context, stop);
        await transaction.CommitAsync(stop);
        return results;
    }

    private static Command Standing(Command command, IReadOnlyDictionary<Guid, Guid> merged) =>
        merged.Count > 0 && command is IAtPlace it ? it.At(id => merged.GetValueOrDefault(id, id)) : command;

    private sealed record KnownCommand(string Kind, string Hash, short Form, string Result);

    // What was carried out before: the same thing, or another one under its id.
    private CommandResult Again(ReceivedCommand it, KnownCommand known)
    {
        var same =
            known.Form == HashForm
                ? known.Hash == it.Hash
                : known.Kind == it.Command.GetType().Name || known.Kind == handlers.KindOf(it.Command);
        return same
            ? JsonSerializer.Deserialize(known.Result, StoredResult.Default.CommandResult)! with
            {
                Status = CommandStatus.Already,
            }
            : RefusedBy(
                it.Command,
                Refusal.Of(
                    409,
                    "command.reused",
                    "This command's id was used for another command.",
                    "Make a new id for each command; send the same id only with the same content.",
                    "id"
                )
            );
    }

    private static readonly CommandRefusedException Erased = Refusal.Of(
        410,
        "erased",
        "This was erased on request.",
        "Its id stays and nothing else: it can't be recorded again.",
        ""
    );

    private static CommandResult RefusedBy(Command command, CommandRefusedException refused) =>
        new(command.Id, CommandStatus.Refused, refused.Problem);

    private static readonly CommandRefusedException NoId = Refusal.Of(
        422,
        "command.id",
        "A command needs an id.",
        "Make a new UUID (version 7) for each command.",
        "id"
    );

    // One of many; null where it isn't taken, whatever the reason.
    private async Task<CommandResult?> CarryOutAsync(Command command, CommandContext context, CancellationToken stop)
    {
        try
        {
            return await handlers.HandleAsync(command, context, stop);
        }
        catch (Exception error) when (IsItsOwn(error))
        {
            return null;
        }
    }

    // What a command can't be carried out for; anything else is the database's, and passes.
    private static bool IsItsOwn(Exception error) =>
        error is CommandRefusedException
        || (error is PostgresException { SqlState: var state } && IsHeldBack(state))
        || error is not (NpgsqlException or TimeoutException or OperationCanceledException);

    private static bool IsHeldBack(string state) =>
        state
            is PostgresErrorCodes.UniqueViolation
                or PostgresErrorCodes.ForeignKeyViolation
                or PostgresErrorCodes.CheckViolation
                or PostgresErrorCodes.NumericValueOutOfRange;

    // One command; beside others it is taken back alone where it is refused.
    private async Task<CommandResult> CarryOutAsync(
        Command command,
        CommandContext context,
        NpgsqlTransaction transaction,
        bool besideOthers,
        CancellationToken stop
    )
    {
        const string point = "command";
        await transaction.SaveAsync(point, stop);
        CommandResult result;
        try
        {
            result = await handlers.HandleAsync(command, context, stop);
            if (besideOthers)
                await transaction.ReleaseAsync(point, stop);
            return result;
        }
        catch (CommandRefusedException refused)
        {
            result = RefusedBy(command, refused);
        }
        catch (PostgresException error) when (IsHeldBack(error.SqlState))
        {
            // Written by another device in the same moment, or something that no check before it saw: the database held it back.
            result = RefusedBy(
                command,
                error.SqlState == PostgresErrorCodes.UniqueViolation
                    ? Refusal.Of(
                        409,
                        "identity.taken",
                        "Something of this identity is there already.",
                        "Make a new id: what is kept is never overwritten.",
                        ""
                    )
                    : Refusal.Of(
                        409,
                        "facts.disagree",
                        "This contradicts what is kept.",
                        "Another device has written something else of it meanwhile. Look at it again.",
                        ""
                    )
            );
        }
        catch (Exception error) when (error is not (NpgsqlException or TimeoutException or OperationCanceledException))
        {
            Failed(log, error, command.GetType().Name, command.Id);
            result = new CommandResult(
                command.Id,
                CommandStatus.Failed,
                new ProblemReport(
                    "Something went wrong here.",
                    500,
                    "server.error",
                    "Nothing of this was changed. It stays on the device and is tried again; the server's log says more.",
                    ""
                )
            );
        }
        await transaction.RollbackAsync(point, stop);
        // A person may have been written by it first.
        context.PeopleThere.Clear();
        return result;
    }

    [LoggerMessage(LogLevel.Error, "The command {Kind} {Id} failed")]
    private static partial void Failed(ILogger log, Exception error, string kind, Guid id);

    // The counter is locked last, and until the commit: numbers come to light in their order.
    private async Task WriteAsync(
        NpgsqlConnection connection,
        List<(ReceivedCommand Command, string Result)> written,
        CommandContext context,
        CancellationToken stop
    )
    {
        var last = (
            await connection
                .Command("update change_counter set last = last + $1 returning last", (long)written.Count)
                .ReadAllAsync(r => r.GetInt64(0), stop)
        )[0];
        // Under the counter's lock: of two batches with the same new names one waits for the other here, and never the other for it.
        if (context.Determined.Count > 0)
            await connection.Command("select refresh_determination_names($1)", (object)context.Determined.ToArray()).RunAsync(stop);
        if (context.NamesListed.Count > 0)
            await connection
                .Command("insert into record_name select unnest($1::text[]) on conflict do nothing", (object)context.NamesListed.ToArray())
                .RunAsync(stop);
        await using var insert = connection.Command(
            """
            insert into command (id, kind, body_hash, hash_form, result, change, received_at, device, person, about)
            select id, kind, hash, $1, result::jsonb, $2 + nth, $3, $4, $5, string_to_array(about, ' ')
            from unnest($6::uuid[], $7::text[], $8::text[], $9::text[], $10::text[]) with ordinality
                as w (id, kind, hash, result, about, nth)
            """,
            HashForm,
            last - written.Count,
            context.Now
        );
        foreach (var who in new[] { context.Sender.Device, context.Sender.Person })
            insert.Parameters.Add(new NpgsqlParameter { Value = (object?)who ?? DBNull.Value, NpgsqlDbType = NpgsqlDbType.Uuid });
        insert.Parameters.Add(new NpgsqlParameter { Value = written.Select(w => w.Command.Command.Id).ToArray() });
        insert.Parameters.Add(new NpgsqlParameter { Value = written.Select(w => handlers.KindOf(w.Command.Command)).ToArray() });
        insert.Parameters.Add(new NpgsqlParameter { Value = written.Select(w => w.Command.Hash).ToArray() });
        insert.Parameters.Add(new NpgsqlParameter { Value = written.Select(w => w.Result).ToArray() });
        // Arrays of unlike lengths can't stand beside each other: each goes as one text.
        insert.Parameters.Add(
            new NpgsqlParameter { Value = written.Select(w => string.Join(' ', handlers.AboutOf(w.Command.Command))).ToArray() }
        );
        await insert.ExecuteNonQueryAsync(stop);
    }
}
