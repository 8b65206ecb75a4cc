using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Floras;

namespace Garten.Server.Features.Evidence;

/// <summary>Keeps how a person reads a statement.</summary>
internal sealed class CorrectStatementHandler(CharacterTable glossary) : ICommandHandler<CorrectStatementCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> AboutOf(CorrectStatementCommand command) => [ChangeSubject.Keys];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(CorrectStatementCommand correct, CommandContext context, CancellationToken stop)
    {
        Check.Text(correct.Text, "text", "The statement", Limits.LongestNote, required: true);
        var table = await FloraRepository.TableAsync(context.Connection, glossary, stop);
        for (var i = 0; i < correct.Claims.Count; i++)
        {
            var field = string.Create(CultureInfo.InvariantCulture, $"claims[{i}]");
            var claim = correct.Claims[i];
            if (table.Find(claim.Character) is not { } character)
                throw Refusal.Of(422, "character.unknown", "There is no such character.", "Choose one of the glossary.", field);
            if (claim.States.Any(s => character.IndexOf(s) < 0))
                throw Refusal.Of(422, "state.unknown", $"{character.Name} has no such state.", "Choose one of its states.", field);
            if (!(claim.Modality is > 0 and <= 1))
                throw Refusal.Of(422, "claim.modality", "The frequency isn't one.", "Give a share above 0, up to 1.", field);
            if (
                character.IsQuantity
                    ? claim.Range is null || claim.Range.Kind != character.Quantity || claim.Range.Contradiction() is not null
                    : claim.States.Count == 0
            )
                throw Refusal.Of(
                    422,
                    "claim.empty",
                    "The claim says nothing of the character.",
                    "Give its states, or a range of its kind.",
                    field
                );
        }
        await EvidenceRepository.CorrectAsync(context.Connection, correct, context.Now, stop);
        return new CommandResult(correct.Id, CommandStatus.Applied);
    }
}
