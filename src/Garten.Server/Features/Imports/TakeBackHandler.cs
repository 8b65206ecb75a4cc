using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Changes;
using Garten.Server.Features.People;

namespace Garten.Server.Features.Imports;

/// <summary>Takes back what a file brought: a fact; its records leave the lists, their rows stay.</summary>
internal sealed class TakeBackHandler : ICommandHandler<TakeBackCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(TakeBackCommand command) => [$"import:{command.ImportId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(TakeBackCommand command) => [ChangeSubject.Import(command.ImportId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(TakeBackCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.ImportId, "importId"), (it.By.Id, "by"));
        Check.Text(it.By.Name, "by", "Your name", Limits.LongestName, required: true);
        Check.Text(it.Reason, "reason", "The reason", Limits.LongestFinding, required: false);
        var found = await context
            .Connection.Command(
                "select exists (select from import_withdrawal w where w.import_id = i.id) from import i where i.id = $1",
                it.ImportId
            )
            .ReadAllAsync(r => r.GetBoolean(0), stop);
        if (found.Count == 0)
            throw Refusal.Of(422, "import.unknown", "Nothing of this id was taken in.", "Choose one of the list.", "importId");
        if (found[0])
            throw Refusal.Of(409, "import.taken-back", "This was taken back already.", "There is nothing left to do.", "importId");
        await PersonRepository.EnsureAsync(context, it.By, stop);
        await context
            .Connection.Command(
                "insert into import_withdrawal (import_id, reason, withdrawn_by, recorded_at) values ($1, $2, $3, $4)",
                it.ImportId,
                it.Reason,
                it.By.Id,
                context.Now
            )
            .RunAsync(stop);
        // What lists read follows.
        await context
            .Connection.Command(
                """
                delete from determination_name where number in (
                    select d.number from determination d join plant p on p.id = d.plant_id where p.import_id = $1)
                """,
                it.ImportId
            )
            .RunAsync(stop);
        context.PlantsChanged.UnionWith(
            await context.Connection.Command("select id from plant where import_id = $1", it.ImportId).ReadAllAsync(r => r.GetGuid(0), stop)
        );
        await context
            .Connection.Command(
                """
                delete from record_name r
                where r.name in (select taxon from list_line where import_id = $1
                        union select unnest(d.names || d.name) from determination d join plant p on p.id = d.plant_id where p.import_id = $1)
                    and not exists (select from determination_name n where n.name = r.name)
                    and not exists (
                        select from list_line l
                        where l.taxon = r.name
                            and (l.import_id is null or not exists (select from import_withdrawal w where w.import_id = l.import_id)))
                """,
                it.ImportId
            )
            .RunAsync(stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
