using Garten.Core.Contracts;
using Garten.Core.Floras;
using Garten.Server.Commands;
using Garten.Server.Database;
using Garten.Testing;
using Npgsql;
using Xunit;

namespace Garten.Server.Tests.Storage;

/// <summary>The one write path: each command once, each wholly or not at all, and numbers that a reader can go on from.</summary>
public sealed class PipelineTests : IAsyncLifetime
{
    private TestDatabase _database = null!;
    private NpgsqlDataSource _source = null!;
    private CommandPipeline _commands = null!;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _database = await Databases.EmptyAsync();
        _source = NpgsqlDataSource.Create(_database.ConnectionString);
        _commands = Pipelines.Of(_source, CharacterTable.Empty);
    }

    public async ValueTask DisposeAsync()
    {
        await _source.DisposeAsync();
        await _database.DisposeAsync();
    }

    private static SavePlaceCommand Place(string name, double metres = 10, Guid? id = null) =>
        new(Guid.CreateVersion7(), id ?? Guid.CreateVersion7(), name, "", 57, -11, metres, "");

    private async Task<T> ValueAsync<T>(string sql) => (T)(await _source.CreateCommand(sql).ExecuteScalarAsync(Stop))!;

    /// <summary>A batch is one transaction, and one that is refused in it takes nothing of the others with it.</summary>
    [Fact]
    public async Task OneThatIsRefusedIsTakenBackAlone()
    {
        var twice = Guid.CreateVersion7();
        var results = await _commands.ApplyAsync(
            [
                Place("first"),
                Place("circle without a size", metres: -1),
                Place("second", id: twice),
                Place("of the same id", id: twice),
                Place("third"),
            ],
            Stop
        );
        Assert.Equal(
            [CommandStatus.Applied, CommandStatus.Refused, CommandStatus.Applied, CommandStatus.Refused, CommandStatus.Applied],
            results.Select(r => r.Status)
        );
        Assert.Equal(["place.uncertainty", "place.exists"], results.Where(r => r.Problem is not null).Select(r => r.Problem!.Code));
        Assert.Equal("first second third", await ValueAsync<string>("select string_agg(name, ' ' order by name) from place"));
        Assert.Equal(1L, await ValueAsync<long>("select count(distinct received_at) from command"));
        Assert.Equal("1 2 3", await ValueAsync<string>("select string_agg(change::text, ' ' order by change) from command"));
    }

    /// <summary>The same command twice in a batch, again in another one, and its id with another content.</summary>
    [Fact]
    public async Task ACommandIsCarriedOutOnce()
    {
        var command = Place("once");
        Assert.Equal(
            [CommandStatus.Applied, CommandStatus.Already],
            (await _commands.ApplyAsync([command, command], Stop)).Select(r => r.Status)
        );
        Assert.Equal(CommandStatus.Already, (await _commands.ApplyAsync(command, Stop)).Status);
        Assert.Equal("command.reused", (await _commands.ApplyAsync(command with { Name = "other" }, Stop)).Problem!.Code);
        // Of one whose hash was made by an earlier form, id and kind suffice.
        await _source
            .CreateCommand(
                "alter table command disable trigger all; update command set hash_form = 0, body_hash = 'of-before', kind = 'SavePlaceCommand'; alter table command enable trigger all"
            )
            .ExecuteNonQueryAsync(Stop);
        Assert.Equal(CommandStatus.Already, (await _commands.ApplyAsync(command, Stop)).Status);
        Assert.Equal(
            "command.reused",
            (await _commands.ApplyAsync(new SaveKeysCommand(command.Id, "1 a ... b\n1 c ... d"), Stop)).Problem!.Code
        );
    }

    /// <summary>Who reads on from the newest number that it saw never misses a change, however long another one takes to be
    /// written.</summary>
    [Fact]
    public async Task AReaderThatGoesOnFromANumberSkipsNothing()
    {
        const int writers = 6,
            each = 25;
        using var done = CancellationTokenSource.CreateLinkedTokenSource(Stop);
        var seen = new HashSet<Guid>();
        var reading = Task.Run(
            async () =>
            {
                await using var connection = await _source.OpenConnectionAsync(Stop);
                for (long from = 0; ; )
                {
                    var last = done.IsCancellationRequested;
                    foreach (
                        var (change, id) in await connection
                            .Command("select change, id from command where change > $1 order by change", from)
                            .ReadAllAsync(r => (r.GetInt64(0), r.GetGuid(1)), Stop)
                    )
                    {
                        Assert.Equal(from + 1, change);
                        from = change;
                        seen.Add(id);
                    }
                    if (last)
                        return;
                }
            },
            Stop
        );
        var sent = await Task.WhenAll(
            Enumerable
                .Range(0, writers)
                .Select(async w =>
                {
                    var own = Enumerable.Range(0, each).Select(i => Place($"{w} {i}")).ToList();
                    // Small batches and large ones, so that some are long on their way.
                    for (var i = 0; i < each; i += 1 + w * 2)
                        await _commands.ApplyAsync(own.Skip(i).Take(1 + w * 2), Stop);
                    return own.Select(c => c.Id);
                })
        );
        await done.CancelAsync();
        await reading;
        Assert.Equal(writers * each, seen.Count);
        Assert.Superset(sent.SelectMany(s => s).ToHashSet(), seen);
    }

    /// <summary>Batches that name the same things in opposite orders don't wait for each other for ever.</summary>
    [Fact]
    public async Task BatchesInOppositeOrdersBothGoThrough()
    {
        var (place, plants) = (Place("meeting"), Enumerable.Range(0, 20).Select(_ => Guid.CreateVersion7()).ToList());
        await _commands.ApplyAsync(place, Stop);
        var recorder = new PersonReference(Guid.CreateVersion7(), "Tove Askling");
        await _commands.ApplyAsync(
            plants.Select(p => new TagPlantCommand(Guid.CreateVersion7(), p, place.PlaceId, "peg", "2026-05-01", recorder)),
            Stop
        );
        List<VisitPlantCommand> Visits(IEnumerable<Guid> of) =>
            [
                .. of.Select(p => new VisitPlantCommand(
                    Guid.CreateVersion7(),
                    Guid.CreateVersion7(),
                    p,
                    "2026-05-02",
                    recorder,
                    Core.Surveys.PlantState.Alive
                )),
            ];
        var both = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(i => _commands.ApplyAsync(Visits(i % 2 == 0 ? plants : plants.AsEnumerable().Reverse()), Stop))
        );
        Assert.All(both.SelectMany(r => r), r => Assert.Equal(CommandStatus.Applied, r.Status));
    }
}
