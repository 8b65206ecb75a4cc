using System.Globalization;
using Garten.Core.Contracts;
using Garten.Server.Commands;
using Garten.Server.Features.Changes;

namespace Garten.Server.Features.Populations;

/// <summary>Keeps a count of a population.</summary>
internal sealed class CountPopulationHandler : ICommandHandler<CountPopulationCommand>
{
    // More than anyone counts of a patch of one taxon.
    private const int MostCounted = 100_000_000;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(CountPopulationCommand command) => [$"population:{command.PopulationId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(CountPopulationCommand command) => [ChangeSubject.Population(command.PopulationId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(CountPopulationCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.CountId, "countId"), (it.PopulationId, "populationId"), (it.Recorder.Id, "recorder"));
        Check.Text(it.Recorder.Name, "recorder", "The recorder's name", Limits.LongestName, required: true);
        Check.Text(it.Note, "note", "The note", Limits.LongestNote, required: false);
        var on = context.Date(it.Date, "date");
        if (it.Number < 0)
            throw Refusal.Of(422, "count.negative", "A count is 0 or more.", "Give 0 where you looked and found none.", "number");
        if (it.Number > MostCounted)
            throw Refusal.Of(
                422,
                "count.too-large",
                "Nobody counts so many.",
                string.Create(CultureInfo.InvariantCulture, $"Give at most {MostCounted}."),
                "number"
            );
        if (it.Known is < 0 or > MostCounted || it.Found < 0 || it.Found > it.Known)
            throw Refusal.Of(
                422,
                "count.check",
                "Of the plants known before, at most as many can be found again.",
                "Give how many were known and how many of them the count found; 0 and 0 where there was no blind check.",
                "found"
            );
        if (await PopulationRepository.PlaceOfAsync(context.Connection, it.PopulationId, stop) is null)
            throw Refusal.Of(
                422,
                "population.unknown",
                "No population has this id.",
                "Choose one of the list, or add it first.",
                "populationId"
            );
        if (it.Supersedes is { } old && await PopulationRepository.PopulationOfCountAsync(context.Connection, old, stop) != it.PopulationId)
            throw Refusal.Of(
                422,
                "count.supersedes",
                "The count to be corrected isn't one of this population.",
                "Choose one of its counts.",
                "supersedes"
            );
        if (!await PopulationRepository.CountAsync(context, it, on, stop))
            throw Refusal.Of(
                409,
                "count.exists",
                "A count of this id is there already.",
                "Make a new id: an earlier count is never overwritten.",
                "countId"
            );
        return new CommandResult(it.Id, CommandStatus.Applied);
    }
}
