using Garten.Core.Seasons;
using System.Globalization;
using System.Security.Cryptography;
using System.Text.Json;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Keys;
using Microsoft.Extensions.Logging;
using Npgsql;

namespace Garten.Storage;

/// <summary>Carries out commands: each wholly or not at all, each once.</summary>
public sealed partial class CommandStore(NpgsqlDataSource database, TimeProvider clock, CharacterTable glossary, ILogger<CommandStore> log)
{
    // The oldest date a record may carry: before it, dates belong to another calendar.
    private static readonly DateOnly OldestDate = new(1753, 1, 1);

    private const int LongestName = 200;
    private const int LongestCell = 20;
    private const int MostNames = 100;
    private const int MostHabitats = 30;
    private const int LongestNote = 10_000;
    private const int MostAnswers = 10_000;
    private const int MostObservations = 5_000;
    private const int LongestTerm = 200;

    // Two that wait for each other are told apart by the database; the one that it ended begins again.
    private const int MostTries = 4;

    /// <summary>
    /// Carries out a command. A refusal is a result, not an exception, and so is a failure of the program's own; only a database that doesn't
    /// answer throws, and what it throws may pass.
    /// </summary>
    public async Task<CommandResult> ApplyAsync(Command command, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(command);
        for (var tries = 1; ; tries++)
        {
            try
            {
                return await ApplyOnceAsync(command, stop);
            }
            catch (PostgresException error) when (tries < MostTries && error.SqlState is PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.SerializationFailure)
            {
                await Task.Delay(TimeSpan.FromMilliseconds(20 * tries), stop);
            }
            catch (PostgresException error) when (error.SqlState is PostgresErrorCodes.UniqueViolation or PostgresErrorCodes.ForeignKeyViolation or PostgresErrorCodes.CheckViolation or PostgresErrorCodes.NumericValueOutOfRange)
            {
                // Written by another device in the same moment, or something that no check before it saw: the database held it back.
                return new CommandResult(command.Id, CommandStatus.Refused, error.SqlState == PostgresErrorCodes.UniqueViolation
                    ? new ProblemReport("Something of this identity is there already.", 409, "identity.taken", "Make a new id: what is kept is never overwritten.", "")
                    : new ProblemReport("This contradicts what is kept.", 409, "facts.disagree", "Another device has written something else of it meanwhile. Look at it again.", ""));
            }
            catch (Exception error) when (error is not (NpgsqlException or TimeoutException or OperationCanceledException))
            {
                Failed(log, error, command.GetType().Name, command.Id);
                return new CommandResult(command.Id, CommandStatus.Failed, new ProblemReport("Something went wrong here.", 500, "server.error", "Nothing of this was changed. It stays on the device and is tried again; the server's log says more.", ""));
            }
        }
    }

    [LoggerMessage(LogLevel.Error, "The command {Kind} {Id} failed")]
    private static partial void Failed(ILogger log, Exception error, string kind, Guid id);

    private async Task<CommandResult> ApplyOnceAsync(Command command, CancellationToken stop)
    {
        try
        {
            if (command.Id == Guid.Empty) throw Refused(422, "command.id", "A command needs an id.", "Make a new UUID (version 7) for each command.", "id");
            await using var connection = await database.OpenConnectionAsync(stop);
            await using var transaction = await connection.BeginTransactionAsync(stop);
            var hash = Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(command, CoreJson.Default.Command)));
            // The same command sent twice at once: the second waits here for the first.
            await connection.Command("select pg_advisory_xact_lock(hashtextextended($1, 0))", "command:" + command.Id).RunAsync(stop);
            var before = await connection.Command("select body_hash, result from command where id = $1", command.Id).ReadAllAsync(r => (Hash: r.GetString(0), Result: r.GetString(1)), stop);
            if (before.Count > 0)
            {
                if (before[0].Hash != hash) throw Refused(409, "command.reused", "This command's id was used for another command.", "Make a new id for each command; send the same id only with the same content.", "id");
                return JsonSerializer.Deserialize(before[0].Result, StoredResult.Default.CommandResult)! with { Status = CommandStatus.Already };
            }
            var result = await CarryOutAsync(connection, command, stop);
            await connection.Command("insert into command (id, kind, body_hash, received_at, result) values ($1, $2, $3, $4, $5)", command.Id, command.GetType().Name, hash, clock.GetUtcNow())
                .With(Sql.Json(JsonSerializer.Serialize(result, StoredResult.Default.CommandResult))).RunAsync(stop);
            await transaction.CommitAsync(stop);
            return result;
        }
        catch (CommandRefusedException refused)
        {
            return new CommandResult(command.Id, CommandStatus.Refused, refused.Problem);
        }
    }

    // Commands on one plant take turns, and those on one look at a plant: what each checks stays true until it is written. Always in this order.
    private static IEnumerable<string> LocksOf(Command command) => command switch
    {
        RecordDeterminationCommand it => [$"plant:{it.PlantId}", $"occurrence:{it.OccurrenceId}"],
        TagPlantCommand it => [$"plant:{it.PlantId}"],
        VisitPlantCommand it => [$"plant:{it.PlantId}"],
        CountPopulationCommand it => [$"population:{it.PopulationId}"],
        NoteThreatCommand it => [$"population:{it.PopulationId}"],
        _ => [],
    };

    private async Task<CommandResult> CarryOutAsync(NpgsqlConnection connection, Command command, CancellationToken stop)
    {
        foreach (var name in LocksOf(command)) await connection.Command("select pg_advisory_xact_lock(hashtextextended($1, 0))", name).RunAsync(stop);
        switch (command)
        {
            case SaveKeysCommand save:
                return new CommandResult(save.Id, CommandStatus.Applied, null, await SaveKeysAsync(connection, save, stop));
            case SavePlaceCommand place:
                CheckPlace(place);
                if (!await PlaceRepository.AddAsync(connection, place, stop)) throw Refused(409, "place.exists", "A place of this id is there already.", "Make a new id for a new place.", "placeId");
                return new CommandResult(place.Id, CommandStatus.Applied);
            case RecordDeterminationCommand record:
                await RecordAsync(connection, record, stop);
                return new CommandResult(record.Id, CommandStatus.Applied);
            case TagPlantCommand tag:
                await TagAsync(connection, tag, stop);
                return new CommandResult(tag.Id, CommandStatus.Applied);
            case VisitPlantCommand visit:
                await VisitAsync(connection, visit, stop);
                return new CommandResult(visit.Id, CommandStatus.Applied);
            case SavePopulationCommand population:
                await SavePopulationAsync(connection, population, stop);
                return new CommandResult(population.Id, CommandStatus.Applied);
            case CountPopulationCommand count:
                await CountAsync(connection, count, stop);
                return new CommandResult(count.Id, CommandStatus.Applied);
            case NoteThreatCommand threat:
                await ThreatenAsync(connection, threat, stop);
                return new CommandResult(threat.Id, CommandStatus.Applied);
            case TeachTermCommand teach:
                await CheckTermAsync(connection, teach, stop);
                await EvidenceRepository.TeachAsync(connection, teach, clock.GetUtcNow(), stop);
                return new CommandResult(teach.Id, CommandStatus.Applied);
            case CorrectStatementCommand correct:
                await CheckClaimsAsync(connection, correct, stop);
                await EvidenceRepository.CorrectAsync(connection, correct, clock.GetUtcNow(), stop);
                return new CommandResult(correct.Id, CommandStatus.Applied);
            default:
                throw Refused(422, "command.kind", "This kind of command isn't known.", "See the API's description for the kinds of commands.", "kind");
        }
    }

    private async Task<IReadOnlyList<SavedKey>> SaveKeysAsync(NpgsqlConnection connection, SaveKeysCommand save, CancellationToken stop)
    {
        var reading = KeyTextReader.Read(save.Text);
        if (!reading.IsSound)
        {
            var errors = reading.Problems.Where(p => p.Severity == ProblemSeverity.Error).ToList();
            throw new CommandRefusedException(new ProblemReport("This key text has problems.", 422, "key.unsound", $"{errors[0].Message} (line {errors[0].Line}){(errors.Count > 1 ? $", and {errors.Count - 1} more." : "")}", "text", reading.Problems));
        }
        if (reading.Keys.Any(k => k.Title.Length == 0)) throw Refused(422, "key.untitled", "A key has no title.", "Write a title on a line of its own above its first couplet.", "text");
        var saved = new List<SavedKey>();
        // In the order of titles, so that two who save the same keys can't wait for each other.
        foreach (var key in reading.Keys.OrderBy(k => KeyTitle.Plain(k.Title), StringComparer.Ordinal)) saved.Add(await KeyRepository.SaveAsync(connection, key, save.Text, clock.GetUtcNow(), stop));
        return [.. reading.Keys.Select(k => saved.Find(s => s.Hash == KeyHash.Of(k))!)];
    }

    private static void CheckPlace(SavePlaceCommand place)
    {
        if (place.PlaceId == Guid.Empty) throw Refused(422, "place.id", "The place needs an id.", "Make a new UUID (version 7) for it.", "placeId");
        CheckText(place.Name, "name", "The place's name", LongestName, required: true);
        CheckText(place.Locality, "locality", "The locality", LongestNote, required: false);
        CheckText(place.Caution, "caution", "The caution", LongestNote, required: false);
        if (!(place.Latitude is >= -90 and <= 90)) throw Refused(422, "place.latitude", "The latitude isn't one.", "Give decimal degrees from -90 to 90, south negative.", "latitude");
        if (!(place.Longitude is >= -180 and <= 180)) throw Refused(422, "place.longitude", "The longitude isn't one.", "Give decimal degrees from -180 to 180, west negative.", "longitude");
        CheckText(place.Cell, "cell", "The grid cell", LongestCell, required: false);
        if (place.ElevationMetres is { } metres && !(metres is >= -500 and <= 9000)) throw Refused(422, "place.elevation", "The elevation isn't one.", "Give metres above the sea.", "elevationMetres");
        if (place.Habitats is { Count: > MostHabitats }) throw Refused(422, "place.habitats", "These are too many habitats.", $"Give up to {MostHabitats}.", "habitats");
        foreach (var habitat in place.Habitats ?? []) CheckText(habitat, "habitats", "A habitat", LongestName, required: true);
        // Half the circumference of the earth: no circle on it is larger.
        if (!(place.UncertaintyMetres is > 0 and <= 20_037_509)) throw Refused(422, "place.uncertainty", "The uncertainty isn't one.", "Give the radius in metres of the circle that holds the place, above 0.", "uncertaintyMetres");
    }

    private async Task RecordAsync(NpgsqlConnection connection, RecordDeterminationCommand it, CancellationToken stop)
    {
        CheckIds((it.DeterminationId, "determinationId"), (it.OccurrenceId, "occurrenceId"), (it.PlantId, "plantId"), (it.Recorder.Id, "recorder"));
        CheckText(it.Recorder.Name, "recorder", "The recorder's name", LongestName, required: true);
        CheckText(it.PlantLabel, "plantLabel", "The plant's label", LongestName, required: false);
        CheckText(it.Note, "note", "The note", LongestNote, required: false);
        var date = CheckDate(it.EventDate);
        var isSifted = it.StartKey.Length == 0;
        if (isSifted) CheckNames(it);
        else if (it.Answers.Count == 0) throw Refused(422, "trail.empty", "The trail has no answers.", "Follow the key to at least one answer first.", "answers");
        if (it.Answers.Count > MostAnswers) throw Refused(422, "trail.too-long", "The trail is too long.", $"A trail has at most {MostAnswers} answers.", "answers");
        if (!await DeterminationRepository.IsPlaceAsync(connection, it.PlaceId, stop)) throw Refused(422, "place.unknown", "This place isn't known.", "Choose one of the places, or add it first.", "placeId");

        var walk = isSifted ? null : await FollowAsync(connection, it, stop);
        if (await DeterminationRepository.IsDeterminationAsync(connection, it.DeterminationId, stop)) throw Refused(409, "determination.exists", "A determination of this id is there already.", "Make a new id: an earlier determination is never overwritten.", "determinationId");
        var plant = await PlantRepository.FindAsync(connection, it.PlantId, stop);
        if (plant is not null && plant.PlaceId != it.PlaceId) throw Refused(409, "plant.place", "This plant grows at another place.", "Name the place it was recorded at, or record another plant.", "placeId");
        CheckNotBeforeTag(plant, date, "eventDate");
        if (await DeterminationRepository.OccurrenceAsync(connection, it.OccurrenceId, stop) is { } seen && seen != (it.PlantId, date)) throw Refused(409, "occurrence.disagrees", "This look was of another plant or on another day.", "Make a new occurrence id for another day.", "occurrenceId");
        if ((it.Hand?.Count ?? 0) > MostObservations) throw Refused(422, "observations.too-many", "These are too many weighings.", $"Send at most {MostObservations} at a time.", "hand");
        var looks = await CheckObservationsAsync(connection, it.PlantId, plant, it.Observations, stop);
        await CheckChangeAsync(connection, it, walk is null ? it.Names : [.. walk.Standing.Select(s => s.Name)], stop);
        var confirmation = it.Confirming is null ? null : await ConfirmAsync(connection, it, looks, stop);
        await DeterminationRepository.AddAsync(connection, it, date, walk is null ? it.Names : [.. walk.Standing.Select(s => s.Name)], walk?.Steps ?? [], confirmation, clock.GetUtcNow(), stop);
        await EvidenceRepository.AddAsync(connection, it.PlantId, it.Recorder.Id, looks, clock.GetUtcNow(), stop);
    }

    // The grade is worked out from the whole sheet of the plant, whatever the device came to.
    private static async Task<ConfirmResult> ConfirmAsync(NpgsqlConnection connection, RecordDeterminationCommand it, IReadOnlyList<Observation> looks, CancellationToken stop)
    {
        var asked = it.Confirming!;
        if (await FloraRepository.ReadyAsync(connection, asked.FloraId, stop) is not { } flora) throw Refused(422, "flora.unknown", "No flora has this id.", "Confirm the name by one of the floras.", "confirming.floraId");
        var place = await PlaceRepository.FindAsync(connection, it.PlaceId, stop);
        var sheet = (await EvidenceRepository.OfPlantAsync(connection, it.PlantId, stop)).Readable.Concat(looks).ToList();
        await flora.Turn.WaitAsync(stop);
        try
        {
            var result = new ConfirmRequest(asked.FloraId, asked.Taxon, null, sheet, null, new SiftPlace(place.Cell, place.ElevationMetres, place.Habitats), it.EventDate, asked.Rules, null, asked.Planted, asked.Explanations).Confirm(flora);
            if (it.Names is not [var name] || name != result.ReportAs.Name && name != flora.NameOf(result.Taxon)) throw Refused(422, "confirmation.name", "Another name was confirmed.", $"By the sheet it is {(result.ReportAs.Name.Length > 0 ? result.ReportAs.Name : flora.NameOf(result.Taxon))}.", "names");
            return result;
        }
        catch (RequestException wrong)
        {
            throw Refused(422, "confirmation.unusable", "The name can't be confirmed so.", wrong.Message, $"confirming.{wrong.Field}");
        }
        finally
        {
            flora.Turn.Release();
        }
    }

    // Found by sifting: what stands is what the recorder says; there is no trail to follow.
    private static void CheckNames(RecordDeterminationCommand it)
    {
        if (it.Answers.Count > 0) throw Refused(422, "trail.without-key", "The answers are to no key.", "Say which key version the trail starts with.", "startKey");
        if (it.Names.Count is 0 or > MostNames) throw Refused(422, "names.missing", it.Names.Count == 0 ? "No name is given." : "These are too many names.", $"Give 1 to {MostNames} names.", "names");
        foreach (var name in it.Names) CheckText(name, "names", "A name", LongestName, required: true);
        if (it.Names.Distinct(StringComparer.Ordinal).Count() != it.Names.Count) throw Refused(422, "names.twice", "A name is given twice.", "Give each name once.", "names");
    }

    private static async Task<WalkState> FollowAsync(NpgsqlConnection connection, RecordDeterminationCommand it, CancellationToken stop)
    {
        var versions = it.Answers.Select(a => a.KeyVersion).Append(it.StartKey).Distinct(StringComparer.Ordinal).ToList();
        var shelf = new KeyShelf(await KeyRepository.ShelfAsync(connection, versions, stop));
        if (TrailCheck.Check(shelf, it.StartKey, it.Answers) is { } problem)
        {
            throw Refused(422, problem.Code, "The trail doesn't fit the key.", problem.Message, problem.Step is { } step ? string.Create(CultureInfo.InvariantCulture, $"answers[{step}]") : "startKey");
        }
        var walk = KeyWalk.Follow(shelf, it.StartKey, it.Answers);
        if (!walk.Standing.Select(s => s.Name).Order(StringComparer.Ordinal).SequenceEqual(it.Names.Order(StringComparer.Ordinal)))
        {
            throw Refused(422, "trail.conclusion", "The names don't follow from the trail.", $"By these answers there stand: {Conclusion.InWords([.. walk.Standing.Select(s => s.Name)])}.", "names");
        }
        return walk;
    }

    // The looks that are new; those that are kept already must be of this plant.
    private async Task<IReadOnlyList<Observation>> CheckObservationsAsync(NpgsqlConnection connection, Guid plantId, PlantRow? tagged, IReadOnlyList<Observation>? observations, CancellationToken stop)
    {
        var looks = observations ?? [];
        if (looks.Count > MostObservations) throw Refused(422, "observations.too-many", "These are too many observations.", $"Send at most {MostObservations} at a time.", "observations");
        if (looks.Count == 0) return [];
        var known = await EvidenceRepository.KnownAsync(connection, [.. looks.Select(o => o.Id)], stop);
        var table = await FloraRepository.TableAsync(connection, glossary, stop);
        var today = LatestDay;
        var ids = new HashSet<Guid>();
        for (var i = 0; i < looks.Count; i++)
        {
            var field = string.Create(CultureInfo.InvariantCulture, $"observations[{i}]");
            var look = looks[i];
            if (look.Id == Guid.Empty || !ids.Add(look.Id)) throw Refused(422, "observation.id", "An observation needs an id of its own.", "Make a new UUID (version 7) for each.", field);
            if (known.TryGetValue(look.Id, out var plant))
            {
                if (plant != plantId) throw Refused(409, "observation.plant", "This observation is of another plant.", "Make a new observation for this plant.", field);
                continue;
            }
            if (EvidenceSheet.Problem(look, table.Find(look.Character), today) is { } wrong) throw Refused(422, "observation.invalid", "An observation can't be kept.", wrong, field);
            if (!look.Withdrawn) CheckNotBeforeTag(tagged, DateOnly.ParseExact(look.Date, "yyyy-MM-dd", CultureInfo.InvariantCulture), field);
            CheckText(look.Note, field, "The note", LongestNote, required: false);
        }
        return [.. looks.Where(o => !known.ContainsKey(o.Id))];
    }

    private async Task CheckTermAsync(NpgsqlConnection connection, TeachTermCommand teach, CancellationToken stop)
    {
        CheckText(teach.Term, "term", "The term", LongestTerm, required: true);
        var table = await FloraRepository.TableAsync(connection, glossary, stop);
        if (table.Find(teach.Character) is not { } character) throw Refused(422, "character.unknown", "There is no such character.", "Choose one of the glossary.", "character");
        if (character.IndexOf(teach.State) < 0) throw Refused(422, "state.unknown", $"{character.Name} has no such state.", "Choose one of its states.", "state");
    }

    private async Task CheckClaimsAsync(NpgsqlConnection connection, CorrectStatementCommand correct, CancellationToken stop)
    {
        CheckText(correct.Text, "text", "The statement", LongestNote, required: true);
        var table = await FloraRepository.TableAsync(connection, glossary, stop);
        for (var i = 0; i < correct.Claims.Count; i++)
        {
            var field = string.Create(CultureInfo.InvariantCulture, $"claims[{i}]");
            var claim = correct.Claims[i];
            if (table.Find(claim.Character) is not { } character) throw Refused(422, "character.unknown", "There is no such character.", "Choose one of the glossary.", field);
            if (claim.States.Any(s => character.IndexOf(s) < 0)) throw Refused(422, "state.unknown", $"{character.Name} has no such state.", "Choose one of its states.", field);
            if (!(claim.Modality is > 0 and <= 1)) throw Refused(422, "claim.modality", "The frequency isn't one.", "Give a share above 0, up to 1.", field);
            if (character.IsQuantity ? claim.Range is null || claim.Range.Kind != character.Quantity || claim.Range.Contradiction() is not null : claim.States.Count == 0) throw Refused(422, "claim.empty", "The claim says nothing of the character.", "Give its states, or a range of its kind.", field);
        }
    }

    // A device's own day may be a day ahead of the server's, where its zone is.
    private DateOnly LatestDay => DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime).AddDays(1);

    private DateOnly CheckDate(string text, string field = "eventDate")
    {
        var date = ReadDate(text, field);
        if (date > LatestDay) throw Refused(422, "date.future", "This date is in the future.", "Give the day on which the plant was seen: today or earlier.", field);
        return date;
    }

    private static DateOnly ReadDate(string text, string field)
    {
        if (!DayText.TryRead(text, out var date)) throw Refused(422, "date.invalid", "There is no such date.", "Give the day as year-month-day, for example 2026-05-31.", field);
        if (date < OldestDate) throw Refused(422, "date.too-old", "This date is too long ago.", $"Give a day from {OldestDate:yyyy-MM-dd} on.", field);
        return date;
    }

    private static void CheckIds(params (Guid Id, string Field)[] ids)
    {
        foreach (var (id, field) in ids)
        {
            if (id == Guid.Empty) throw Refused(422, "record.id", "An id is missing.", "Make a new UUID (version 7) for it.", field);
        }
    }

    private static void CheckText(string text, string field, string what, int longest, bool required)
    {
        if (required && string.IsNullOrWhiteSpace(text)) throw Refused(422, field + ".missing", $"{what} is missing.", "Fill it in.", field);
        if (text.Length > longest) throw Refused(422, field + ".too-long", $"{what} is too long.", $"It may have {longest} characters; it has {text.Length}.", field);
        // PostgreSQL keeps no NUL in a text.
        if (text.Contains('\0', StringComparison.Ordinal)) throw Refused(422, field + ".binary", $"{what} isn't plain text.", "Remove the NUL character.", field);
    }

    private static CommandRefusedException Refused(int status, string code, string title, string detail, string field) => new(new ProblemReport(title, status, code, detail, field));
}

/// <summary>How results of commands are kept.</summary>
[System.Text.Json.Serialization.JsonSourceGenerationOptions(PropertyNamingPolicy = System.Text.Json.Serialization.JsonKnownNamingPolicy.CamelCase)]
[System.Text.Json.Serialization.JsonSerializable(typeof(CommandResult))]
internal sealed partial class StoredResult : System.Text.Json.Serialization.JsonSerializerContext;
