using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Erasure;

/// <summary>Erases something on request. The database's own function alone passes what keeps facts as they are.</summary>
internal sealed class EraseHandler : ICommandHandler<EraseCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(EraseCommand command) => [$"plant:{command.SubjectId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(EraseCommand command) => [ChangeSubject.Erased(command.SubjectId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(EraseCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.SubjectId, "subjectId"));
        var isKnown = (
            await context
                .Connection.Command(
                    """
                    select exists (select from person where id = $1) or exists (select from plant where id = $1)
                        or exists (select from determination where id = $1) or exists (select from plant_visit where id = $1)
                        or exists (select from observation where id = $1) or exists (select from list_line where id = $1)
                        or exists (select from track_piece where track_id = $1)
                        or exists (select from erased where id = $1)
                    """,
                    it.SubjectId
                )
                .ReadAllAsync(r => r.GetBoolean(0), stop)
        )[0];
        if (!isKnown)
            throw Refusal.Of(
                422,
                "erase.unknown",
                "Nothing has this id.",
                "Name a person, a plant, a record, a line of a list, a track, a visit or a look.",
                "subjectId"
            );
        await ErasureRepository.EraseAsync(context.Connection, it.SubjectId, stop);
        // It has no row in the lists any more.
        context.PlantsChanged.Remove(it.SubjectId);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
