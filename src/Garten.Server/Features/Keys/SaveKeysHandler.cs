using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Sources;

namespace Garten.Server.Features.Keys;

/// <summary>Saves the keys of a text as new versions.</summary>
internal sealed class SaveKeysHandler : ICommandHandler<SaveKeysCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> AboutOf(SaveKeysCommand command) => [ChangeSubject.Keys];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(SaveKeysCommand save, CommandContext context, CancellationToken stop)
    {
        var reading = KeyTextReader.Read(save.Text);
        if (!reading.IsSound)
        {
            var errors = reading.Problems.Where(p => p.Severity == ProblemSeverity.Error).ToList();
            throw new CommandRefusedException(
                new ProblemReport(
                    "This key text has problems.",
                    422,
                    "key.unsound",
                    $"{errors[0].Message} (line {errors[0].Line}){(errors.Count > 1 ? $", and {errors.Count - 1} more." : "")}",
                    "text",
                    reading.Problems
                )
            );
        }
        if (reading.Keys.Any(k => k.Title.Length == 0))
            throw Refusal.Of(
                422,
                "key.untitled",
                "A key has no title.",
                "Write a title on a line of its own above its first couplet.",
                "text"
            );
        SourceCheck.Sound(save.Source, context.Sender.Device);
        var saved = new List<SavedKey>();
        // In the order of titles, so that two who save the same keys can't wait for each other.
        foreach (var key in reading.Keys.OrderBy(k => KeyTitle.Plain(k.Title), StringComparer.Ordinal))
        {
            var kept = await KeyRepository.SaveAsync(context.Connection, key, save.Text, context.Now, stop);
            await SourceRepository.TellAsync(
                context.Connection,
                SourcedText.Key,
                kept.Hash,
                save.Source,
                context.Sender.Device,
                context.Now,
                stop
            );
            saved.Add(kept);
        }
        return new CommandResult(
            save.Id,
            CommandStatus.Applied,
            null,
            [.. reading.Keys.Select(k => saved.Find(s => s.Hash == KeyHash.Of(k))!)]
        );
    }
}
