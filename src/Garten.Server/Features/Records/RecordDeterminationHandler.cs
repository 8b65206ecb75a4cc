using System.Globalization;
using Garten.Core.Confirmation;
using Garten.Core.Contracts;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Evidence;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Keys;
using Garten.Server.Features.Places;
using Garten.Server.Features.Plants;

namespace Garten.Server.Features.Records;

/// <summary>Puts a name on a plant: by a trail through keys, by sifting, or confirmed; with what was seen of it.</summary>
internal sealed class RecordDeterminationHandler(LookCheck looksCheck, CharacterTable glossary)
    : ICommandHandler<RecordDeterminationCommand>
{
    private const int MostNames = 100;
    private const int MostAnswers = 10_000;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(RecordDeterminationCommand command) =>
        [$"plant:{command.PlantId}", $"occurrence:{command.OccurrenceId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(RecordDeterminationCommand command) => [ChangeSubject.Plant(command.PlantId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(RecordDeterminationCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids(
            (it.DeterminationId, "determinationId"),
            (it.OccurrenceId, "occurrenceId"),
            (it.PlantId, "plantId"),
            (it.Recorder.Id, "recorder")
        );
        Check.Text(it.Recorder.Name, "recorder", "The recorder's name", Limits.LongestName, required: true);
        Check.Text(it.PlantLabel, "plantLabel", "The plant's label", Limits.LongestName, required: false);
        Check.Text(it.Note, "note", "The note", Limits.LongestNote, required: false);
        var date = context.Date(it.EventDate);
        var isSifted = it.StartKey.Length == 0;
        CheckNames(it, isSifted);
        if (!isSifted && it.Answers.Count == 0)
            throw Refusal.Of(422, "trail.empty", "The trail has no answers.", "Follow the key to at least one answer first.", "answers");
        if (it.Answers.Count > MostAnswers)
            throw Refusal.Of(422, "trail.too-long", "The trail is too long.", $"A trail has at most {MostAnswers} answers.", "answers");
        if (!await DeterminationRepository.IsPlaceAsync(context.Connection, it.PlaceId, stop))
            throw Refusal.Of(422, "place.unknown", "This place isn't known.", "Choose one of the places, or add it first.", "placeId");

        var walk = isSifted ? null : await FollowAsync(context, it, stop);
        if (await DeterminationRepository.IsDeterminationAsync(context.Connection, it.DeterminationId, stop))
            throw Refusal.Of(
                409,
                "determination.exists",
                "A determination of this id is there already.",
                "Make a new id: an earlier determination is never overwritten.",
                "determinationId"
            );
        var plant = await PlantRepository.FindAsync(context.Connection, it.PlantId, stop);
        if (plant is not null && plant.PlaceId != it.PlaceId)
            throw Refusal.Of(
                409,
                "plant.place",
                "This plant grows at another place.",
                "Name the place it was recorded at, or record another plant.",
                "placeId"
            );
        PlantCheck.NotBeforeTag(plant, date, "eventDate");
        if (
            await DeterminationRepository.OccurrenceAsync(context.Connection, it.OccurrenceId, stop) is { } seen
            && seen != (it.PlantId, date)
        )
            throw Refusal.Of(
                409,
                "occurrence.disagrees",
                "This look was of another plant or on another day.",
                "Make a new occurrence id for another day.",
                "occurrenceId"
            );
        if ((it.Hand?.Count ?? 0) > Limits.MostObservations)
            throw Refusal.Of(
                422,
                "observations.too-many",
                "These are too many weighings.",
                $"Send at most {Limits.MostObservations} at a time.",
                "hand"
            );
        var looks = await looksCheck.NewAsync(context, it.PlantId, plant, it.Observations, stop);
        // What the device came to is kept; what is come to here stands beside it.
        var questions = new List<DeterminationQuestion>();
        if (walk is not null && AskOfTrail(it, walk) is { } ofTrail)
            questions.Add(ofTrail);
        if (await AskOfChangeAsync(context, it, stop) is { } ofChange)
            questions.Add(ofChange);
        ConfirmResult? confirmation = null;
        if (it.Confirming is not null)
        {
            (confirmation, var ofGrade) = await ConfirmAsync(context, it, looks.Known, stop);
            if (ofGrade is not null)
                questions.Add(ofGrade);
        }
        await DeterminationRepository.AddAsync(context, it, date, walk?.Steps ?? [], confirmation, questions, stop);
        await EvidenceRepository.AddAsync(context.Connection, it.PlantId, it.Recorder.Id, looks, context.Now, stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }

    // The grade is worked out from the whole sheet of the plant, whatever the device came to. Where it can't be, or another name is to be
    // reported by it, the name stands without one, and why is told.
    private async Task<(ConfirmResult? Confirmation, DeterminationQuestion? Question)> ConfirmAsync(
        CommandContext context,
        RecordDeterminationCommand it,
        IReadOnlyList<Observation> looks,
        CancellationToken stop
    )
    {
        var asked = it.Confirming!;
        static DeterminationQuestion Asked(string says, params IReadOnlyList<string> names) => new(QuestionKind.Grade, names, says);
        if (await FloraRepository.ReadyAsync(context.Connection, asked.FloraId, stop) is not { } flora)
            return (null, Asked("How well this name stands can't be worked out here: the flora it was checked by isn't known here."));
        var place = await PlaceRepository.FindAsync(context.Connection, it.PlaceId, stop);
        var known = await EvidenceRepository.OfPlantAsync(context.Connection, it.PlantId, glossary, stop);
        var sheet = known.Readable.Concat(looks).ToList();
        ConfirmResult result;
        try
        {
            result = await flora.AskAsync(asked.Of(place, sheet, it.EventDate).Confirm, stop);
        }
        catch (RequestException wrong)
        {
            return (null, Asked($"How well this name stands can't be worked out here: {wrong.Message}"));
        }
        var reported = result.ReportAs.Name.Length > 0 ? result.ReportAs.Name : flora.NameOf(result.Taxon);
        if (it.Names is not [var name] || name != result.ReportAs.Name && name != flora.NameOf(result.Taxon))
            return (null, Asked($"By the evidence, as it is weighed here, this is {reported}.", reported));
        return asked.Grade is { } grade && grade != result.Grade
            ? (
                result,
                Asked(
                    $"On the device the name came to “{PageWords.Grades[grade]}”, here to “{PageWords.Grades[result.Grade]}”: flora, rules or what was seen have changed meanwhile.",
                    name
                )
            )
            : (result, null);
    }

    // What stands is what the recorder says; without a key there is no trail to follow.
    private static void CheckNames(RecordDeterminationCommand it, bool isSifted)
    {
        if (isSifted && it.Answers.Count > 0)
            throw Refusal.Of(
                422,
                "trail.without-key",
                "The answers are to no key.",
                "Say which key version the trail starts with.",
                "startKey"
            );
        if (it.Names.Count is 0 or > MostNames)
            throw Refusal.Of(
                422,
                "names.missing",
                it.Names.Count == 0 ? "No name is given." : "These are too many names.",
                $"Give 1 to {MostNames} names.",
                "names"
            );
        foreach (var name in it.Names)
            Check.Text(name, "names", "A name", Limits.LongestName, required: true);
        if (it.Names.Distinct(StringComparer.Ordinal).Count() != it.Names.Count)
            throw Refusal.Of(422, "names.twice", "A name is given twice.", "Give each name once.", "names");
    }

    private static async Task<WalkState> FollowAsync(CommandContext context, RecordDeterminationCommand it, CancellationToken stop)
    {
        var versions = it.Answers.Select(a => a.KeyVersion).Append(it.StartKey).Distinct(StringComparer.Ordinal).ToList();
        var shelf = new KeyShelf(await KeyRepository.ShelfAsync(context.Connection, versions, stop));
        if (TrailCheck.Check(shelf, it.StartKey, it.Answers) is { } problem)
        {
            throw Refusal.Of(
                422,
                problem.Code,
                "The trail doesn't fit the key.",
                problem.Message,
                problem.Step is { } step ? string.Create(CultureInfo.InvariantCulture, $"answers[{step}]") : "startKey"
            );
        }
        return KeyWalk.Follow(shelf, it.StartKey, it.Answers);
    }

    // The same key in the same version leads to the same, unless the program reads it otherwise now.
    private static DeterminationQuestion? AskOfTrail(RecordDeterminationCommand it, WalkState walk)
    {
        string[] standing = [.. walk.Standing.Select(s => s.Name)];
        return standing.Order(StringComparer.Ordinal).SequenceEqual(it.Names.Order(StringComparer.Ordinal))
            ? null
            : new DeterminationQuestion(
                QuestionKind.Trail,
                standing,
                $"By these answers the key leads to {Conclusion.InWords(standing)} here."
            );
    }

    // A name that takes the place of another one says why: narrowing an open set overturns nothing. Where the device couldn't know of the
    // other one both stand, and that is a question.
    private static async Task<DeterminationQuestion?> AskOfChangeAsync(
        CommandContext context,
        RecordDeterminationCommand it,
        CancellationToken stop
    )
    {
        var (last, before) = await DeterminationRepository.NamesOfAsync(context.Connection, it.PlantId, stop);
        if (!NameChange.NeedsReason(before, it.Names, it.Note))
            return null;
        if (it.KnownLast is { } known && known != last)
            return new DeterminationQuestion(
                QuestionKind.Meanwhile,
                before,
                $"Meanwhile somebody else named this plant {string.Join(" or ", before)}."
            );
        throw Refusal.Of(
            422,
            "name.why",
            "The name changes without a reason.",
            $"So far this plant was {string.Join(" or ", before)}. Say in the note what overturns that.",
            "note"
        );
    }
}
