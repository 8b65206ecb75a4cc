using System.Globalization;
using System.Threading.Channels;
using Garten.Core.Contracts;
using Garten.Core.Imports;
using Garten.Core.Surveys;
using Garten.Formats.Imports;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Server.Features.Changes;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Places;
using Microsoft.Extensions.Options;
using Npgsql;

namespace Garten.Server.Features.Imports;

/// <summary>Takes a file of records in: wholly or not at all.</summary>
internal sealed class TakeInHandler(
    ImportFiles files,
    FloraRepository floras,
    PlaceRepository places,
    NpgsqlDataSource database,
    IOptions<ImportLimits> limits
) : ICommandHandler<TakeInCommand>
{
    // Enough to keep both sides at work.
    private const int BatchesAhead = 4;

    /// <inheritdoc />
    public IEnumerable<string> LocksOf(TakeInCommand command) => [$"import:{command.ImportId}"];

    /// <inheritdoc />
    public IEnumerable<string> AboutOf(TakeInCommand command) => [ChangeSubject.Import(command.ImportId)];

    /// <inheritdoc />
    public async Task<CommandResult> HandleAsync(TakeInCommand it, CommandContext context, CancellationToken stop)
    {
        Check.Ids((it.ImportId, "importId"), (it.By.Id, "by"));
        Check.Text(it.By.Name, "by", "Your name", Limits.LongestName, required: true);
        ImportCheck.Choices(it.Choices);
        if (
            (
                await context.Connection.Command("select 1 from import where id = $1", it.ImportId).ReadAllAsync(r => r.GetInt32(0), stop)
            ).Count > 0
        )
            throw Refusal.Of(409, "import.taken", "This file was taken in already.", "Look at what was taken in.", "importId");
        if (files.Find(it.ImportId) is not { } waiting)
            throw Refusal.Of(
                422,
                "import.unknown",
                "This file isn’t here any more.",
                "Files wait for a day. Send it again; what you decided has to be said again.",
                "importId"
            );
        try
        {
            using var file = RecordFile.Open(waiting.Path);
            await WriteAsync(it, waiting, file, context, stop);
        }
        catch (RecordFileException broken)
        {
            throw Refusal.Of(422, broken.Code, "The file can’t be read to its end.", broken.Message, "importId");
        }
        finally
        {
            files.Say(it.ImportId, null);
        }
        return new CommandResult(it.Id, CommandStatus.Applied);
    }

    private async Task WriteAsync(TakeInCommand it, WaitingFile waiting, RecordFile file, CommandContext context, CancellationToken stop)
    {
        var reading = new ImportReading(
            file,
            it.Choices,
            await floras.TaxaAsync(stop),
            await places.ListAsync(stop),
            context.LatestDay,
            it.ImportId.ToString("D", CultureInfo.InvariantCulture),
            limits.Value.MostLines
        );
        reading.SettleOrder(stop);
        var first = reading.Planner();
        var count = 0;
        var problems = new List<ImportProblem>();
        var people = new HashSet<string>(StringComparer.Ordinal);
        foreach (var line in reading.Lines(stop))
        {
            count++;
            problems.Clear();
            if (first.Add(line.Number, line.Cells, problems) is { } planned)
                people.UnionWith(planned.Record.Recorders.Append(planned.Record.Plant?.NamedBy ?? "").Where(n => n.Length > 0));
        }
        if (reading.Hinders(first).FirstOrDefault() is { } hinders)
            throw Refusal.Of(422, "import.hindered", "This can’t be taken in as it is read now.", hinders, "choices");
        var writer = new ImportWriter(context, it.ImportId);
        await writer.BeginAsync(stop);
        await writer.PeopleAsync(people.Concat(first.Visits.SelectMany(v => v.People)), it.By, it.Choices.Recorder, stop);
        await writer.ImportAsync(waiting, file.Kind, first.Tally, it.By, stop);
        await writer.PlacesAsync(first.Places, stop);
        await writer.VisitsAsync(first.Visits, stop);
        await LinesAsync(it, reading, reading.Planner(first.Places), count, writer, stop);
        await writer.EndAsync(stop);
    }

    // Again, now that places and visits are settled. While the database writes some lines the next ones are read.
    private async Task LinesAsync(
        TakeInCommand it,
        ImportReading reading,
        ImportPlanner planner,
        int count,
        ImportWriter writer,
        CancellationToken stop
    )
    {
        var channel = Channel.CreateBounded<LineBatch>(BatchesAhead);
        using var both = CancellationTokenSource.CreateLinkedTokenSource(stop);
        var read = Task.Run(() => ReadAsync(it, reading, planner, channel.Writer, both.Token), both.Token);
        try
        {
            var done = 0;
            await foreach (var batch in channel.Reader.ReadAllAsync(stop))
            {
                await writer.LinesAsync(batch, stop);
                done += RecordsHere.AtATime;
                files.Say(it.ImportId, new ImportProgress(Math.Min(done, count), count));
            }
        }
        finally
        {
            await both.CancelAsync();
            await read.ContinueWith(_ => { }, CancellationToken.None, TaskContinuationOptions.None, TaskScheduler.Default);
        }
        await read;
    }

    private async Task ReadAsync(
        TakeInCommand it,
        ImportReading reading,
        ImportPlanner planner,
        ChannelWriter<LineBatch> to,
        CancellationToken stop
    )
    {
        try
        {
            // What is here already was here before: a connection beside the one that writes sees it.
            await using var connection = await database.OpenConnectionAsync(stop);
            var here = new RecordsHere(connection);
            var problems = new List<ImportProblem>();
            var batch = new List<PlannedLine>();
            async Task PutAsync()
            {
                var (known, takenBack) = await here.AmongAsync(batch, it.Choices.KeepsDoubles, stop);
                await to.WriteAsync(
                    LineBatch.Of(
                        [
                            .. batch
                                .Where(l => !known.Contains(l.Id))
                                // What was taken back stays as it was; read anew, it is another line.
                                .Select(l =>
                                    takenBack.Contains(l.Id) && l.Record.Plant is null
                                        ? l with
                                        {
                                            Id = MadeId.Of($"{it.ImportId:D}\n{l.Id:D}"),
                                        }
                                        : l
                                ),
                        ],
                        planner
                    ),
                    stop
                );
                batch.Clear();
            }
            foreach (var line in reading.Lines(stop))
            {
                problems.Clear();
                if (planner.Add(line.Number, line.Cells, problems) is { } planned)
                    batch.Add(planned);
                if (batch.Count >= RecordsHere.AtATime)
                    await PutAsync();
            }
            await PutAsync();
            to.Complete();
        }
        catch (Exception failed)
        {
            to.Complete(failed);
            throw;
        }
    }
}
