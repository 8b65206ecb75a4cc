using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Places;

/// <summary>Keeps what the ground of a place is like.</summary>
internal sealed class DescribePlaceHandler : ICommandHandler<DescribePlaceCommand>
{
    /// <inheritdoc />
    public IEnumerable<string> LocksOf(DescribePlaceCommand command) => [$"ground:{command.PlaceId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(DescribePlaceCommand command) => [ChangeSubject.Place(command.PlaceId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(DescribePlaceCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.PlaceId, "placeId"));
        var ground = it.Ground;
        foreach (var part in ground.Parts)
        {
            Check.Text(part.Name, "parts", "A part's name", Limits.LongestName, required: true);
            foreach (var text in new[] { part.Habitat, part.Substrate, part.Moisture, part.Light, part.Aspect })
                Check.Text(text, "parts", "What a part is like", Limits.LongestName, required: false);
        }
        foreach (var (field, marks) in new[] { ("entrances", ground.Entrances), ("hazards", ground.Hazards) })
        {
            foreach (var mark in marks)
                Check.Text(mark.Name, field, "Its name", Limits.LongestFinding, required: true);
        }
        Check.Text(ground.Tell ?? "", "tell", "Whom to tell", Limits.LongestFinding, required: false);
        if (ground.Leave is { } leave)
        {
            Check.Text(leave.From, "leave", "Who gave leave", Limits.LongestFinding, required: false);
            Check.Text(leave.PassingOn, "leave", "Passing on", Limits.LongestFinding, required: false);
            if (leave.Until.Length > 0)
                Check.Date(leave.Until, "leave");
        }
        await MergePlaceHandler.RefuseMergedAsync(context, it.PlaceId, stop);
        var places = await context
            .Connection.Command("select latitude, longitude from place where id = $1", it.PlaceId)
            .ReadAllAsync(r => new GroundPoint(r.GetDouble(0), r.GetDouble(1)), stop);
        if (places is not [var at])
            throw Refusal.Of(422, "place.unknown", "This place isn't known.", "Choose one of the places, or add it first.", "placeId");
        if (ground.Problem(at) is var (wrongField, wrong))
            throw Refusal.Of(422, "ground.invalid", "The ground can't be so.", wrong, wrongField);
        if (await GroundRepository.VersionAsync(context.Connection, it.PlaceId, stop) is var known && known != it.Version)
            throw Refusal.Of(
                409,
                "ground.changed",
                "Somebody described this place meanwhile.",
                "Look at it as it is now, and change it again.",
                "version"
            );
        await context
            .Connection.Command(
                """
                insert into place_ground (place_id, ground) values ($1, $2)
                on conflict (place_id) do update set (ground, version) = (excluded.ground, place_ground.version + 1)
                """,
                it.PlaceId
            )
            .With(Sql.Json(JsonSerializer.Serialize(ground, CoreJson.Default.GroundDescription)))
            .RunAsync(stop);
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
