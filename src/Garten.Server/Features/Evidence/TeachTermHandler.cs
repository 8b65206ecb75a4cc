using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Floras;

namespace Garten.Server.Features.Evidence;

/// <summary>Teaches the reader of statements a word for a state.</summary>
internal sealed class TeachTermHandler(CharacterTable glossary) : ICommandHandler<TeachTermCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> AboutOf(TeachTermCommand command) => [ChangeSubject.Keys];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(TeachTermCommand teach, CommandContext context, CancellationToken stop)
    {
        Check.Text(teach.Term, "term", "The term", Limits.LongestTerm, required: true);
        Check.Text(teach.Book ?? "", "book", "The book", Limits.LongestName, required: false);
        var table = await FloraRepository.TableAsync(context.Connection, glossary, stop);
        if (table.Find(teach.Character) is not { } character)
            throw Refusal.Of(422, "character.unknown", "There is no such character.", "Choose one of the glossary.", "character");
        if (character.IndexOf(teach.State) < 0)
            throw Refusal.Of(422, "state.unknown", $"{character.Name} has no such state.", "Choose one of its states.", "state");
        await EvidenceRepository.TeachAsync(context.Connection, teach, context.Now, stop);
        return new CommandResult(teach.Id, CommandStatus.Applied);
    }
}
