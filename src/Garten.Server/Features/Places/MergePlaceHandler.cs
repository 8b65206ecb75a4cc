using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Places;

/// <summary>Makes a place a part of another one, or takes that back.</summary>
internal sealed class MergePlaceHandler : ICommandHandler<MergePlaceCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(MergePlaceCommand command) =>
        // One after the other: a chain of mergings is resolved at each.
        ["places merged", $"place:{command.PlaceId}", .. command.IntoId is { } into ? [$"place:{into}"] : Array.Empty<string>()];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(MergePlaceCommand command) =>
        [
            ChangeSubject.Place(command.PlaceId),
            ChangeSubject.Renamed(command.PlaceId),
            .. command.IntoId is { } into ? [ChangeSubject.Place(into), ChangeSubject.Renamed(into)] : Array.Empty<string>(),
        ];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(MergePlaceCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.PlaceId, "placeId"));
        if (it.IntoId == it.PlaceId)
            throw Refusal.Of(422, "merge.same", "A place can't be part of itself.", "Choose the other place.", "intoId");
        var found = await context
            .Connection.Command(
                "select id, version, merged_into from place where id = any($1) for update",
                (object)new[] { it.PlaceId, it.IntoId ?? it.PlaceId }
            )
            .ReadAllAsync(r => (Id: r.GetGuid(0), Version: r.GetInt32(1), Into: r.IsDBNull(2) ? (Guid?)null : r.GetGuid(2)), stop);
        if (found.All(p => p.Id != it.PlaceId))
            throw Refusal.Of(422, "place.unknown", "This place isn't known.", "Choose one of the places.", "placeId");
        var place = found.First(p => p.Id == it.PlaceId);
        if (it.Version is { } version && version != place.Version)
            throw Refusal.Of(
                409,
                "place.changed",
                "Somebody changed this place meanwhile.",
                "Look at it as it is now, and merge it again.",
                "version"
            );
        if (it.IntoId is { } into)
        {
            await RefuseMergedAsync(context, it.PlaceId, stop);
            if (found.All(p => p.Id != into))
                throw Refusal.Of(422, "place.unknown", "The other place isn't known.", "Choose one of the places.", "intoId");
            if (found.First(p => p.Id == into).Into is not null)
                throw Refusal.Of(
                    409,
                    "merge.chain",
                    "The other place was merged itself meanwhile.",
                    "Choose the place that it is part of.",
                    "intoId"
                );
            await MoveAsync(context, "select merge_place($1, $2)", [it.PlaceId, into], stop);
        }
        else
        {
            if (place.Into is null)
                throw Refusal.Of(409, "merge.none", "This place stands by itself already.", "Nothing has to be done.", "placeId");
            await MoveAsync(context, "select separate_place($1)", [it.PlaceId], stop);
        }
        return new CommandResult(it.Id, CommandStatus.Applied);
    }

    // The function answers with the plants that stand elsewhere now.
    private static async Task MoveAsync(CommandContext context, string sql, object[] places, CancellationToken stop) =>
        context.PlantsChanged.UnionWith(await context.Connection.Command(sql, places).ReadAllAsync(r => r.GetGuid(0), stop));

    /// <summary>Refuses what would change a place that is part of another one.</summary>
    /// <exception cref="CommandRefusedException">It is.</exception>
    public static async Task RefuseMergedAsync(CommandContext context, Guid place, CancellationToken stop)
    {
        var into = await context
            .Connection.Command("select l.name from place q join place l on l.id = q.merged_into where q.id = $1", place)
            .ReadAllAsync(r => r.GetString(0), stop);
        if (into is [var name])
            throw Refusal.Of(
                409,
                "place.merged",
                $"This place is part of “{name}” now.",
                "Change that one, or separate them again first.",
                "placeId"
            );
    }
}
